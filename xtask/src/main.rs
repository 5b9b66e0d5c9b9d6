//! The project's chores. `cargo demo` and `cargo verify` are the two that everyone needs.

mod measure;
mod notices;
mod page_sources;
mod run;
mod system;
mod torture;
mod verify;
mod web;

use std::io::{BufRead, BufReader};
use std::os::unix::process::CommandExt;
use std::path::Path;
use std::process::{Command, ExitCode, Stdio};

use anyhow::{Context, bail};

const USAGE: &str = "\
cargo xtask CHORE

  demo [ARGS]    build what is needed and start the program with the sample shop
  verify         install the browser when missing, check format and lints, run every test
  measure        build for release and print the table of speeds and sizes
  torture [ARGS] build for release and try to break it: kills, hostile files, slow clients, the contract, a long run
  page           build the page into web/dist, for cargo build --release
  notices        make THIRD-PARTY.md from the lockfiles
  types          make web/src/api/openapi.json and schema.d.ts from the code
  screenshots    take the pictures in docs/screenshots/ from the sample shop
";

fn main() -> ExitCode {
    let mut arguments = std::env::args().skip(1);
    let chore = arguments.next().unwrap_or_default();
    let rest: Vec<String> = arguments.collect();
    let done = match chore.as_str() {
        "demo" => demo(&rest),
        "verify" => verify::verify(),
        "measure" => measure::measure(),
        "torture" => torture::torture(&rest),
        "page" => web::install().and_then(|()| web::build()),
        "notices" => web::install().and_then(|()| notices::make()),
        "types" => web::make_types(),
        "screenshots" => screenshots(&rest),
        _ => {
            eprint!("{USAGE}");
            return ExitCode::from(2);
        }
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("\nxtask {chore}: {error:#}");
            ExitCode::FAILURE
        }
    }
}

/// Builds page and program, starts a simulated gauge, supplier and car module beside it, and becomes the program, so that
/// Ctrl-C and SIGTERM reach it directly. They end with it.
fn demo(rest: &[String]) -> anyhow::Result<()> {
    web::install()?;
    web::build()?;
    run::step(
        "building the program (the first time takes a minute or two)",
        &mut run::cargo(&["build", "--package", "server", "--package", "standins"]),
    )?;
    let built = run::target_folder().join("debug");
    let mut program = Command::new(built.join("dimensione"));
    program.args(["serve", "--demo"]);
    for stand_in in &STAND_INS {
        let option = format!("--{}", stand_in.name);
        let is_given = |argument: &String| *argument == option || argument.starts_with(&format!("{option}="));
        if !rest.iter().any(is_given) {
            program.args([option, stand_in.start(&built)?]);
        }
    }
    let error = program.args(rest).exec();
    bail!("the program does not start: {error}")
}

/// A simulated device or service that is started with the demo: its command and the program's option for it.
struct StandIn {
    name: &'static str,
    what: &'static str,
    arguments: &'static [&'static str],
}

const STAND_INS: [StandIn; 3] = [
    // It wanders as a hand does.
    StandIn {
        name: "gauge",
        what: "a simulated digital gauge",
        arguments: &["--wander-mm", "4", "--lost-share", "0.02"],
    },
    StandIn { name: "supplier", what: "a simulated supplier", arguments: &[] },
    StandIn { name: "module", what: "a simulated car module", arguments: &[] },
];

impl StandIn {
    /// Starts it on a free port; its address.
    fn start(&self, built: &Path) -> anyhow::Result<String> {
        let child = Command::new(built.join(self.name))
            .args(["--listen", "127.0.0.1:0", "--with-parent"])
            .args(self.arguments)
            .stdout(Stdio::piped())
            .spawn()
            .with_context(|| format!("{} does not start", self.what))?;
        let mut line = String::new();
        BufReader::new(child.stdout.context("it has no output")?).read_line(&mut line)?;
        let address = line
            .trim()
            .strip_prefix(&format!("{} on ", self.name))
            .with_context(|| format!("{} does not say where it is", self.what))?;
        eprintln!("· {} stands by on {address}", self.what);
        Ok(address.to_owned())
    }
}

fn screenshots(rest: &[String]) -> anyhow::Result<()> {
    system::install_browser()?;
    web::install()?;
    web::build()?;
    run::step("building", &mut run::cargo(&["build", "--package", "e2e"]))?;
    let folder = run::root().join("docs/screenshots");
    run::step(
        "taking pictures",
        Command::new(run::target_folder().join("debug/screenshots")).arg(folder).args(rest),
    )
}
