//! The command `dimensione`.

use std::io::Write as _;
use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::process::ExitCode;
use std::time::Duration;

use anyhow::{Context, bail};
use clap::{Parser, Subcommand};
use server::AppState;
use server::car_module::LineModule;
use server::gauge::LineGauge;
use server::problem::log;
use server::sandbox::{self, Reader, Task};
use server::supplier::HttpSupplier;
use store::{Opening, Store};
use tokio::net::TcpListener;

/// Gives memory back that a large list or photo took: the system's own allocator keeps it.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

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
        /// Address of the bridge to a car's module, on this machine.
        #[arg(long, value_name = "ADDR", value_parser = module_address)]
        module: Option<SocketAddr>,
        /// Open a file that is damaged, to save what can be read.
        #[arg(long)]
        even_if_damaged: bool,
        /// Take over the log beside the file although it does not belong to the file as it is.
        #[arg(long)]
        with_foreign_log: bool,
    },
    /// Read somebody's file from standard input, within bounds (what the program does with files by itself).
    #[command(hide = true)]
    ReadApart {
        /// `table`, `drawing [UNIT]` or `photo`.
        what: Vec<String>,
    },
    /// Print the API's description (OpenAPI 3.1).
    Openapi,
    /// Print whose work ships with the program, and under which terms.
    Licenses,
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

/// A car's module is reached through a bridge on this machine only.
fn module_address(text: &str) -> Result<SocketAddr, String> {
    on_this_machine(text, "a car's module", 7120)
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
        Command::Serve { demo, data, listen, gauge, supplier, module, even_if_damaged, with_foreign_log } => {
            let file = Where { demo, data, opening: Opening { even_if_damaged, with_foreign_log } };
            run(file, listen, Devices { gauge, supplier, module })
        }
        Command::Openapi => print_openapi(),
        Command::Licenses => print_licenses(),
        Command::ReadApart { what } => match Task::from_arguments(&what) {
            Some(task) => sandbox::run(task).context("a file cannot be read apart"),
            None => {
                log("read-apart reads table, drawing or photo");
                return ExitCode::from(2);
            }
        },
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            log(&format!("{error:#}"));
            ExitCode::FAILURE
        }
    }
}

#[allow(clippy::print_stdout, reason = "this is what the command is for")]
fn print_openapi() -> anyhow::Result<()> {
    println!("{}", server::routes::openapi().to_pretty_json()?);
    Ok(())
}

/// Whoever reads only the beginning may close the pipe.
fn print_licenses() -> anyhow::Result<()> {
    match std::io::stdout().write_all(include_bytes!("../../../THIRD-PARTY.md")) {
        Err(error) if error.kind() != std::io::ErrorKind::BrokenPipe => Err(error.into()),
        _ => Ok(()),
    }
}

/// What stands beside the program.
struct Devices {
    gauge: Option<SocketAddr>,
    supplier: Option<SocketAddr>,
    module: Option<SocketAddr>,
}

/// Which file, and how it is opened.
struct Where {
    demo: bool,
    data: Option<PathBuf>,
    opening: Opening,
}

/// How long work that was begun may go on when everything else has ended: a change is then applied or not at all.
const LAST_WORK: Duration = Duration::from_secs(2);

/// How long a telling of a car's module may go on: it is connected to, told and read back within this, and noted.
const LAST_TELLING: Duration = Duration::from_secs(30);

fn run(file: Where, listen: SocketAddr, devices: Devices) -> anyhow::Result<()> {
    let runtime = tokio::runtime::Builder::new_multi_thread().enable_all().worker_threads(2).build()?;
    let done = runtime.block_on(serve(file, listen, devices));
    runtime.shutdown_timeout(LAST_WORK);
    done
}

#[allow(clippy::print_stdout, reason = "the ready line is the command's one line of output")]
async fn serve(file: Where, listen: SocketAddr, devices: Devices) -> anyhow::Result<()> {
    // Held to the end: the folder of a demo without a file goes with the program.
    let _folder;
    let Where { demo, data, opening } = file;
    let file = match (data, demo) {
        (Some(file), _) => file,
        (None, true) => {
            remove_left_demos();
            let folder = tempfile::Builder::new().prefix(DEMO_FOLDER).tempdir()?;
            let file = folder.path().join(DEMO_FILE);
            _folder = folder;
            file
        }
        (None, false) => default_file()?,
    };
    more_descriptors();
    let store = open(&file, demo, opening).await?;
    for note in store.notes() {
        log(note);
    }
    let listener = TcpListener::bind(listen).await.with_context(|| format!("cannot listen on {listen}"))?;
    if !server::page::is_built_in() {
        log("built without its page; the API works, the page says so");
    }
    // Heard from here on: a stop that comes while the ready line is read is a clean one too.
    let stop = Stop::listen()?;
    let address = listener.local_addr()?;
    store.serves_at(&address.to_string());
    println!("listening on http://{address}");
    let shop = AppState::new(store.clone()).with_reader(Reader::apart(this_program()?));
    let shop = match devices.gauge {
        Some(address) => shop.with_gauge(LineGauge::at(address)),
        None => shop,
    };
    let shop = match devices.supplier {
        Some(address) => shop.with_supplier(HttpSupplier::at(address).context("no HTTP client")?),
        None => shop,
    };
    let shop = match devices.module {
        Some(address) => shop.with_module(LineModule::at(address)),
        None => shop,
    };
    let module = shop.module.clone();
    server::serve(listener, shop, stop.asked()).await?;
    if tokio::time::timeout(LAST_TELLING, module.at_rest()).await.is_err() {
        log("how a telling of the car's module came out could not be noted");
    }
    // The file alone is whole from here. What hangs in a change meanwhile is not waited for without end: its log is
    // taken over by the next start.
    let closing = tokio::task::spawn_blocking(move || store.close());
    match tokio::time::timeout(LAST_WORK, closing).await {
        Ok(closed) => closed.context("the file was not closed")?.context("the file was not closed cleanly"),
        Err(_) => {
            log("a change hangs: the file is left with its log, which belongs to it");
            Ok(())
        }
    }
}

/// The program itself, to read files apart: also when its file was replaced by a newer one meanwhile.
fn this_program() -> anyhow::Result<PathBuf> {
    let linked = Path::new("/proc/self/exe");
    if linked.exists() { Ok(linked.to_owned()) } else { Ok(std::env::current_exe()?) }
}

/// As many files and connections as the system allows: its usual 1 024 are soon used up by slow clients.
fn more_descriptors() {
    use rustix::process::{Resource, getrlimit, setrlimit};
    let mut limit = getrlimit(Resource::Nofile);
    limit.current = limit.maximum.map(|most| most.min(65_536)).or(limit.current);
    // Where it may not be raised the program works with what it has.
    let _ = setrlimit(Resource::Nofile, limit);
}

/// What a demo without a file of its own is kept in.
const DEMO_FOLDER: &str = "dimensione-demo-";
const DEMO_FILE: &str = "sample-shop.sqlite";
/// How old a demo's folder is at the least that holds no shop yet and is taken for a left one.
const LEFT_FOR_GOOD: Duration = Duration::from_secs(60 * 60);

/// Removes the folders of demos that were killed. One that is open is held, and one that is being made is young.
fn remove_left_demos() {
    let Ok(temporary) = std::fs::read_dir(std::env::temp_dir()) else { return };
    for folder in temporary.flatten().filter(|one| one.file_name().to_string_lossy().starts_with(DEMO_FOLDER))
    {
        let age =
            folder.metadata().and_then(|folder| folder.modified()).ok().and_then(|at| at.elapsed().ok());
        let is_old = age.is_some_and(|age| age > LEFT_FOR_GOOD);
        let file = folder.path().join(DEMO_FILE);
        if (file.exists() || is_old) && store::hold(&file).is_ok() {
            // Somebody else's cannot be removed, and need not be.
            let _ = std::fs::remove_dir_all(folder.path());
        }
    }
}

async fn open(file: &Path, demo: bool, opening: Opening) -> anyhow::Result<Store> {
    let is_fresh = std::fs::metadata(file).map_or(true, |file| file.len() == 0);
    if demo && is_fresh {
        // Two demos that start at once make one shop.
        let _held = store::hold(file)?;
        make_sample_shop(file).await.context("cannot fill in the sample shop")?;
    }
    Store::open_as(file, opening).with_context(|| format!("cannot open {}", file.display()))
}

/// Makes the sample shop under another name first: one that is killed half-way begins anew.
async fn make_sample_shop(file: &Path) -> anyhow::Result<()> {
    let making = file.with_extension("sample-in-the-making");
    let remove = |ending: &str| {
        let mut name = making.clone().into_os_string();
        name.push(ending);
        match std::fs::remove_file(&name) {
            Err(error) if error.kind() != std::io::ErrorKind::NotFound => Err(error),
            _ => Ok(()),
        }
    };
    for left in ["", "-wal", "-shm", "-lock"] {
        remove(left)?;
    }
    let store = Store::open(&making)?;
    server::sample::fill(&store).await?;
    store.close()?;
    std::fs::rename(&making, file)?;
    remove("-lock")?;
    Ok(())
}

fn default_file() -> anyhow::Result<PathBuf> {
    match directories::ProjectDirs::from("", "", "dimensione") {
        Some(directories) => Ok(directories.data_dir().join("shop.sqlite")),
        None => bail!("no home directory to keep the shop's file in: name one with --data FILE"),
    }
}

/// SIGINT and SIGTERM.
struct Stop {
    interrupt: tokio::signal::unix::Signal,
    terminate: tokio::signal::unix::Signal,
}

impl Stop {
    fn listen() -> anyhow::Result<Self> {
        use tokio::signal::unix::{SignalKind, signal};
        Ok(Self { interrupt: signal(SignalKind::interrupt())?, terminate: signal(SignalKind::terminate())? })
    }

    async fn heard(&mut self) {
        tokio::select! {
            _ = self.interrupt.recv() => {}
            _ = self.terminate.recv() => {}
        }
    }

    /// Resolves when the program is told to stop. Told a second time it ends at once, as if it were killed: nothing that
    /// was acknowledged is lost by that.
    async fn asked(mut self) {
        self.heard().await;
        tokio::spawn(async move {
            self.heard().await;
            log("told to stop a second time: ended at once");
            std::process::exit(1);
        });
    }
}
