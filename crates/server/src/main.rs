//! The command `dimensione`.

use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::process::ExitCode;

use anyhow::{Context, bail};
use clap::{Parser, Subcommand};
use server::Shop;
use server::gauge::LineGauge;
use server::supplier::HttpSupplier;
use store::Store;
use tokio::net::TcpListener;

/// Planner, calculator and logbook for wheel and tire fitment.
#[derive(Parser)]
#[command(name = "dimensione", version)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Serve page and API.
    Serve {
        /// Open a fresh copy of the sample shop (in FILE when given and absent).
        #[arg(long)]
        demo: bool,
        /// The shop's file. By default in the user's data directory.
        #[arg(long, value_name = "FILE")]
        data: Option<PathBuf>,
        /// Address to listen on; port 0 picks a free one.
        #[arg(long, value_name = "ADDR", default_value = "127.0.0.1:7117", value_parser = loopback)]
        listen: SocketAddr,
        /// Address of a digital gauge in the bay, on this machine.
        #[arg(long, value_name = "ADDR", value_parser = gauge_address)]
        gauge: Option<SocketAddr>,
        /// Address of a supplier that is asked what is in stock, on this machine.
        #[arg(long, value_name = "ADDR", value_parser = supplier_address)]
        supplier: Option<SocketAddr>,
    },
    /// Print the API's description (OpenAPI 3.1).
    Openapi,
}

/// Without a sign-in only this machine may ask.
fn loopback(text: &str) -> Result<SocketAddr, String> {
    let address: SocketAddr =
        text.parse().map_err(|_| "write an address and a port, as in 127.0.0.1:7117".to_owned())?;
    if address.ip().is_loopback() {
        Ok(address)
    } else {
        Err("only this machine may ask: listening on other addresses needs a sign-in, which there is not"
            .to_owned())
    }
}

/// A gauge is reached on this machine only.
fn gauge_address(text: &str) -> Result<SocketAddr, String> {
    on_this_machine(text, "a gauge", 7118)
}

/// A supplier, or the bridge to one, is reached on this machine only.
fn supplier_address(text: &str) -> Result<SocketAddr, String> {
    on_this_machine(text, "a supplier", 7119)
}

fn on_this_machine(text: &str, what: &str, port: u16) -> Result<SocketAddr, String> {
    let address: SocketAddr =
        text.parse().map_err(|_| format!("write an address and a port, as in 127.0.0.1:{port}"))?;
    if address.ip().is_loopback() {
        Ok(address)
    } else {
        Err(format!("{what} is reached on this machine only, as in 127.0.0.1:{port}"))
    }
}

fn main() -> ExitCode {
    // Usage errors leave with 2 from here.
    let arguments = Arguments::parse();
    let done = match arguments.command {
        Command::Serve { demo, data, listen, gauge, supplier } => {
            run(demo, data, listen, Devices { gauge, supplier })
        }
        Command::Openapi => print_openapi(),
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("dimensione: {error:#}");
            ExitCode::FAILURE
        }
    }
}

#[allow(clippy::print_stdout, reason = "this is what the command is for")]
fn print_openapi() -> anyhow::Result<()> {
    println!("{}", server::routes::openapi().to_pretty_json()?);
    Ok(())
}

/// What stands beside the program.
struct Devices {
    gauge: Option<SocketAddr>,
    supplier: Option<SocketAddr>,
}

fn run(demo: bool, data: Option<PathBuf>, listen: SocketAddr, devices: Devices) -> anyhow::Result<()> {
    let runtime = tokio::runtime::Builder::new_multi_thread().enable_all().worker_threads(2).build()?;
    runtime.block_on(serve(demo, data, listen, devices))
}

#[allow(clippy::print_stdout, reason = "the ready line is the command's one line of output")]
async fn serve(
    demo: bool,
    data: Option<PathBuf>,
    listen: SocketAddr,
    devices: Devices,
) -> anyhow::Result<()> {
    // Held to the end: the folder of a demo without a file goes with the program.
    let _folder;
    let file = match (data, demo) {
        (Some(file), _) => file,
        (None, true) => {
            let folder = tempfile::Builder::new().prefix("dimensione-demo-").tempdir()?;
            let file = folder.path().join("sample-shop.sqlite");
            _folder = folder;
            file
        }
        (None, false) => default_file()?,
    };
    let store = open(&file, demo).await?;
    let listener = TcpListener::bind(listen).await.with_context(|| format!("cannot listen on {listen}"))?;
    if !server::page::is_built_in() {
        eprintln!("dimensione: built without its page; the API works, the page says so");
    }
    println!("listening on http://{}", listener.local_addr()?);
    let shop = Shop::new(store);
    let shop = match devices.gauge {
        Some(address) => shop.with_gauge(LineGauge::at(address)),
        None => shop,
    };
    let shop = match devices.supplier {
        Some(address) => shop.with_supplier(HttpSupplier::at(address).context("no HTTP client")?),
        None => shop,
    };
    server::serve(listener, shop, stop_asked()).await?;
    Ok(())
}

async fn open(file: &Path, demo: bool) -> anyhow::Result<Store> {
    let fresh = !file.exists();
    let store = Store::open(file).with_context(|| format!("cannot open {}", file.display()))?;
    if demo && fresh {
        server::sample::fill(&store).await.context("cannot fill in the sample shop")?;
    }
    Ok(store)
}

fn default_file() -> anyhow::Result<PathBuf> {
    match directories::ProjectDirs::from("", "", "dimensione") {
        Some(directories) => Ok(directories.data_dir().join("shop.sqlite")),
        None => bail!("no home directory to keep the shop's file in: name one with --data FILE"),
    }
}

/// Resolves on SIGINT or SIGTERM.
async fn stop_asked() {
    use tokio::signal::unix::{SignalKind, signal};
    match signal(SignalKind::terminate()) {
        Ok(mut terminate) => {
            tokio::select! {
                _ = tokio::signal::ctrl_c() => {}
                _ = terminate.recv() => {}
            }
        }
        Err(error) => {
            eprintln!("dimensione: cannot listen to SIGTERM: {error}");
            let _ = tokio::signal::ctrl_c().await;
        }
    }
}
