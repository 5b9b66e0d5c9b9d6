//! The project's chores. `cargo demo` and `cargo verify` are the two that everyone needs.

mod measure;
mod run;
mod system;
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

/// Builds page and program, starts a simulated gauge beside it, and becomes the program, so that Ctrl-C and SIGTERM
/// reach it directly. The gauge ends with it.
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
    let has_its_own = rest.iter().any(|argument| argument == "--gauge" || argument.starts_with("--gauge="));
    if !has_its_own {
        program.args(["--gauge", &start_gauge(&built.join("gauge"))?]);
    }
    let error = program.args(rest).exec();
    bail!("the program does not start: {error}")
}

/// A simulated gauge that wanders as a hand does; its address.
fn start_gauge(gauge: &Path) -> anyhow::Result<String> {
    let child = Command::new(gauge)
        .args(["--listen", "127.0.0.1:0", "--wander-mm", "4", "--lost-share", "0.02", "--with-parent"])
        .stdout(Stdio::piped())
        .spawn()
        .context("the simulated gauge does not start")?;
    let mut line = String::new();
    BufReader::new(child.stdout.context("the gauge has no output")?).read_line(&mut line)?;
    let address = line.trim().strip_prefix("gauge on ").context("the gauge does not say where it is")?;
    eprintln!("· a simulated digital gauge stands by on {address}");
    Ok(address.to_owned())
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
