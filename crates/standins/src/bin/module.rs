//! The command `module`: a simulated car module on loopback.

use std::net::SocketAddr;

use clap::Parser;
use standins::module::{Fault, Module, Settings};
use tokio::net::TcpListener;

/// A simulated car module that counts by its tire. Protocol: docs/car-module-protocol.md.
#[derive(Parser)]
#[command(name = "module", version)]
struct Arguments {
    /// Address to listen on; port 0 picks a free one.
    #[arg(long, default_value = "127.0.0.1:7120")]
    listen: SocketAddr,
    /// The car it sits in; one word.
    #[arg(long, default_value = "LAKE-0417")]
    vehicle: String,
    /// The tire's length that it counts by, in millimetres.
    #[arg(long, default_value_t = 2209)]
    stored_mm: u32,
    /// The one it left the factory with.
    #[arg(long, default_value_t = 2209)]
    factory_mm: u32,
    /// Final drive.
    #[arg(long, default_value_t = 4.1)]
    axle_ratio: f64,
    /// The engine runs.
    #[arg(long)]
    engine_runs: bool,
    /// Voltage of the battery.
    #[arg(long, default_value_t = 12.6)]
    battery_v: f64,
    /// What goes wrong.
    #[arg(long, value_enum, default_value_t)]
    fault: Fault,
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
    anyhow::ensure!(
        !arguments.vehicle.is_empty() && arguments.vehicle.chars().all(|letter| letter.is_ascii_graphic()),
        "a vehicle is one word of plain letters, as in LAKE-0417"
    );
    let listener = TcpListener::bind(arguments.listen).await?;
    println!("module on {}", listener.local_addr()?);
    let settings = Settings {
        vehicle: arguments.vehicle,
        stored_mm: arguments.stored_mm,
        factory_mm: arguments.factory_mm,
        axle_ratio: arguments.axle_ratio,
        engine_runs: arguments.engine_runs,
        battery_v: arguments.battery_v,
        fault: arguments.fault,
    };
    Module::run(listener, settings).wait().await;
    Ok(())
}
