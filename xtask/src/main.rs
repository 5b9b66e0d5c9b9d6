//! The project's chores. `cargo demo` and `cargo verify` are the two that everyone needs.

mod measure;
mod run;
mod system;
mod verify;
mod web;

use std::os::unix::process::CommandExt;
use std::process::{Command, ExitCode};

use anyhow::bail;

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

/// Builds page and program and becomes the program, so that Ctrl-C and SIGTERM reach it directly.
fn demo(rest: &[String]) -> anyhow::Result<()> {
    web::install()?;
    web::build()?;
    run::step(
        "building the program (the first time takes a minute or two)",
        &mut run::cargo(&["build", "--package", "server"]),
    )?;
    let error = Command::new(run::target_folder().join("debug/dimensione"))
        .args(["serve", "--demo"])
        .args(rest)
        .exec();
    bail!("the program does not start: {error}")
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
