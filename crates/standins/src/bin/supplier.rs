//! The command `supplier`: a simulated wheel and tire supplier on loopback.

use std::net::SocketAddr;
use std::time::Duration;

use clap::Parser;
use standins::supplier::{Settings, Supplier};
use tokio::net::TcpListener;

/// A simulated supplier. Protocol: docs/supplier-protocol.md.
#[derive(Parser)]
#[command(name = "supplier", version)]
struct Arguments {
    /// Address to listen on; port 0 picks a free one.
    #[arg(long, default_value = "127.0.0.1:7119")]
    listen: SocketAddr,
    /// Milliseconds that an answer takes.
    #[arg(long, default_value_t = 120)]
    delay_ms: u64,
    /// Share of questions that are refused, 0 to 1.
    #[arg(long, default_value_t = 0.0)]
    fail_share: f64,
    /// Share of items that are not known, 0 to 1.
    #[arg(long, default_value_t = 0.0)]
    unknown_share: f64,
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
    println!("supplier on {}", listener.local_addr()?);
    let settings = Settings {
        delay: Duration::from_millis(arguments.delay_ms),
        fail_share: arguments.fail_share,
        unknown_share: arguments.unknown_share,
    };
    Supplier::run(listener, settings).wait().await;
    Ok(())
}
