//! Running commands: said before they start, shown when they fail.

use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};
use std::time::Instant;

use anyhow::{Context, bail};

/// The workspace's folder.
pub(crate) fn root() -> &'static Path {
    Path::new(concat!(env!("CARGO_MANIFEST_DIR"), "/.."))
}

/// Cargo's target folder, wherever the environment puts it.
pub(crate) fn target_folder() -> PathBuf {
    std::env::var_os("CARGO_TARGET_DIR").map_or_else(|| root().join("target"), PathBuf::from)
}

/// The Cargo that runs this.
pub(crate) fn cargo(arguments: &[&str]) -> Command {
    let mut cargo = Command::new(std::env::var_os("CARGO").unwrap_or_else(|| "cargo".into()));
    cargo.args(arguments).current_dir(root());
    cargo
}

/// Says what is done, runs it with its output shown, and says how long it took.
pub(crate) fn step(says: &str, command: &mut Command) -> anyhow::Result<()> {
    eprintln!("· {says}");
    let start = Instant::now();
    let status = command.status().with_context(|| format!("cannot run {:?}", command.get_program()))?;
    if !status.success() {
        bail!("{says}: failed ({status})");
    }
    let took = start.elapsed().as_secs();
    if took >= 5 {
        eprintln!("  {took} s");
    }
    Ok(())
}

/// The same with its output kept back; shown only when it fails.
pub(crate) fn quiet_step(says: &str, command: &mut Command) -> anyhow::Result<()> {
    eprintln!("· {says}");
    let start = Instant::now();
    let output = command
        .stdin(Stdio::null())
        .output()
        .with_context(|| format!("cannot run {:?}", command.get_program()))?;
    if !output.status.success() {
        eprint!("{}{}", String::from_utf8_lossy(&output.stdout), String::from_utf8_lossy(&output.stderr));
        bail!("{says}: failed ({})", output.status);
    }
    let took = start.elapsed().as_secs();
    if took >= 5 {
        eprintln!("  {took} s");
    }
    Ok(())
}

/// What a command prints.
pub(crate) fn output_of(command: &mut Command) -> anyhow::Result<Vec<u8>> {
    let output = command.output().with_context(|| format!("cannot run {:?}", command.get_program()))?;
    if !output.status.success() {
        bail!("{:?}: {}", command.get_program(), String::from_utf8_lossy(&output.stderr));
    }
    Ok(output.stdout)
}
