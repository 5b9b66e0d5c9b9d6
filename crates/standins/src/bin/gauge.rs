//! The command `gauge`: a simulated digital gauge on loopback.

use std::net::SocketAddr;
use std::time::Duration;

use clap::Parser;
use standins::gauge::{Gauge, Settings};
use tokio::net::TcpListener;

/// A simulated digital gauge. Protocol: docs/gauge-protocol.md.
#[derive(Parser)]
#[command(name = "gauge", version)]
struct Arguments {
    /// Address to listen on; port 0 picks a free one.
    #[arg(long, default_value = "127.0.0.1:7118")]
    listen: SocketAddr,
    /// What it stands at, in millimetres.
    #[arg(long, default_value_t = 14.0)]
    value_mm: f64,
    /// Noise either way, in millimetres.
    #[arg(long, default_value_t = 0.03)]
    noise_mm: f64,
    /// How far the value wanders of itself, in millimetres.
    #[arg(long, default_value_t = 0.0)]
    wander_mm: f64,
    /// Share of readings that are lost, 0 to 1.
    #[arg(long, default_value_t = 0.0)]
    lost_share: f64,
    /// Chance that a reading ends the connection instead, 0 to 1.
    #[arg(long, default_value_t = 0.0)]
    cut_share: f64,
    /// Milliseconds between readings.
    #[arg(long, default_value_t = 100)]
    every_ms: u64,
    /// End when the process that started it ends.
    #[arg(long)]
    with_parent: bool,
}

#[tokio::main(flavor = "current_thread")]
#[allow(clippy::print_stdout, reason = "the ready line is the command's one line of output")]
async fn main() -> anyhow::Result<()> {
    let arguments = Arguments::parse();
    if arguments.with_parent {
        rustix::process::set_parent_process_death_signal(Some(rustix::process::Signal::TERM))?;
    }
    let listener = TcpListener::bind(arguments.listen).await?;
    println!("gauge on {}", listener.local_addr()?);
    let settings = Settings {
        value_mm: arguments.value_mm,
        noise_mm: arguments.noise_mm,
        wander_mm: arguments.wander_mm,
        lost_share: arguments.lost_share,
        cut_share: arguments.cut_share,
        every: Duration::from_millis(arguments.every_ms.max(1)),
        seed: 1,
    };
    Gauge::run(listener, settings).wait().await;
    Ok(())
}
