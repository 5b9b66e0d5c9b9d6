//! The command that `cargo xtask torture` runs.

use std::path::PathBuf;
use std::process::ExitCode;
use std::time::Duration;

use clap::Parser;
use torture::{Outcome, connections, files, kills, soak, stop};

/// Tries to break the program; prints a line for each way.
#[derive(Parser)]
struct Arguments {
    /// The program.
    program: PathBuf,
    /// A folder of hostile files.
    hostile: PathBuf,
    /// How many times it is killed.
    #[arg(long, default_value_t = 1000)]
    kills: usize,
    /// How many mutations of each format.
    #[arg(long, default_value_t = 10_000)]
    mutations: usize,
    /// How many idle connections.
    #[arg(long, default_value_t = 3000)]
    idle: usize,
    /// Seconds of work.
    #[arg(long, default_value_t = 300)]
    soak: u64,
    /// From which everything random follows.
    #[arg(long, default_value_t = 9)]
    seed: u64,
}

#[tokio::main]
async fn main() -> anyhow::Result<ExitCode> {
    let Arguments { program, hostile, kills, mutations, idle, soak, seed } = Arguments::parse();
    let mut all_held = true;
    let mut say = |outcome: Outcome| {
        all_held &= outcome.is_held;
        print(&outcome);
    };
    say(stop::run(&program, 50).await?);
    say(connections::idle(&program, idle).await?);
    say(connections::slow(&program, 200).await?);
    say(files::samples(&program, &hostile, true).await?);
    say(kills::run(&program, kills, seed).await?);
    for outcome in files::mutations(&program, mutations, seed, true).await? {
        say(outcome);
    }
    say(soak::run(&program, Duration::from_secs(soak), seed).await?);
    Ok(if all_held { ExitCode::SUCCESS } else { ExitCode::FAILURE })
}

#[allow(clippy::print_stdout, reason = "the table is what the command is for")]
fn print(outcome: &Outcome) {
    println!("{outcome}");
}
