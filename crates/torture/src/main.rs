//! The command that `cargo xtask torture` runs.

use std::path::PathBuf;
use std::process::ExitCode;
use std::time::Duration;

use clap::Parser;
use torture::{
    Outcome, bodies, connections, disk, files, kills, lost_file, module, ports, soak, starts, stop, swaps,
};

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
    /// How often the file at the address is swapped.
    #[arg(long, default_value_t = 480)]
    swaps: usize,
    /// How many starts are killed at a write.
    #[arg(long, default_value_t = 210)]
    starts: usize,
    /// How many faults and delays of a car's module.
    #[arg(long, default_value_t = 200)]
    module: usize,
    /// Only whose work it is, and what is true: the rest is left out.
    #[arg(long)]
    whose: bool,
    /// From which everything random follows.
    #[arg(long, default_value_t = 9)]
    seed: u64,
}

#[tokio::main]
async fn main() -> anyhow::Result<ExitCode> {
    let Arguments { program, hostile, kills, mutations, idle, soak, swaps, starts, module, whose, seed } =
        Arguments::parse();
    let mut all_held = true;
    let mut say = |outcome: Outcome| {
        all_held &= outcome.is_held;
        print(&outcome);
    };
    say(swaps::run(&program, swaps, seed).await?);
    say(starts::run(&program, starts).await?);
    say(module::run(&program, module, seed).await?);
    say(lost_file::missing(&program, 100).await?);
    say(connections::deaf(&program, 600).await?);
    say(bodies::run(&program, 100).await?);
    say(ports::run(&program, 40, Duration::from_secs(10)).await?);
    say(lost_file::damaged(&program, 120, seed).await?);
    say(disk::full(&program).await?);
    if whose {
        return Ok(if all_held { ExitCode::SUCCESS } else { ExitCode::FAILURE });
    }
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
