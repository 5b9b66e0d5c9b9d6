//! The page: its packages, its build, its generated types. Nothing is done again when nothing changed.

use std::fs;
use std::io::Write;
use std::path::{Path, PathBuf};
use std::process::Command;

use anyhow::{Context, bail};
use flate2::Compression;
use flate2::write::GzEncoder;

use crate::page_sources::{self, walk};
use crate::run::{cargo, output_of, quiet_step, root};
use crate::system;

fn folder() -> PathBuf {
    root().join("web")
}

fn npm(arguments: &[&str]) -> Command {
    let mut npm = Command::new("npm");
    npm.args(arguments).current_dir(folder());
    npm
}

/// A local tool out of the page's own packages.
fn tool(name: &str, arguments: &[&str]) -> Command {
    let mut tool = Command::new(folder().join("node_modules/.bin").join(name));
    tool.args(arguments).current_dir(folder());
    tool
}

/// Installs the page's packages as locked, unless these are there.
pub(crate) fn install() -> anyhow::Result<()> {
    system::need_node()?;
    let wanted = fingerprint(&[folder().join("package-lock.json"), folder().join("package.json")])?;
    unless_done("node_modules/.installed", wanted, || {
        quiet_step("installing the page's packages", &mut npm(&["ci", "--no-audit", "--no-fund"]))
    })
}

/// Builds the page and compresses its files once, unless nothing it is built from has changed.
pub(crate) fn build() -> anyhow::Result<()> {
    let sources = page_sources::sources(&folder())?;
    unless_done(page_sources::STAMP, fingerprint(&sources)?, || {
        quiet_step("building the page", &mut tool("vite", &["build", "--logLevel", "warn"]))?;
        compress(&folder().join("dist"))
    })
}

/// Formatting, lints and types of the page.
pub(crate) fn check() -> anyhow::Result<()> {
    quiet_step("front end: format and lints", &mut tool("biome", &["ci", "--colors=off", "."]))?;
    quiet_step("front end: types", &mut tool("tsc", &["--noEmit"]))
}

/// Makes the API's description and the TypeScript types from the code.
pub(crate) fn make_types() -> anyhow::Result<()> {
    install()?;
    let openapi = description()?;
    fs::write(folder().join("src/api/openapi.json"), openapi)?;
    let arguments = ["src/api/openapi.json", "--output", "src/api/schema.d.ts"];
    quiet_step("types from the API's description", &mut tool("openapi-typescript", &arguments))
}

/// Fails when the committed description or types are not what the code makes.
pub(crate) fn types_are_current() -> anyhow::Result<()> {
    eprintln!("· types made from the API are current");
    let committed = folder().join("src/api/openapi.json");
    if fs::read(&committed).unwrap_or_default() != description()? {
        bail!("web/src/api/openapi.json is not what the code makes: run cargo xtask types");
    }
    let types = output_of(&mut tool("openapi-typescript", &["src/api/openapi.json"]))?;
    let kept = fs::read(folder().join("src/api/schema.d.ts")).unwrap_or_default();
    let tidy = |text: &[u8]| String::from_utf8_lossy(text).trim().to_owned();
    if tidy(&kept) != tidy(&types) {
        bail!("web/src/api/schema.d.ts is not made from openapi.json: run cargo xtask types");
    }
    Ok(())
}

fn description() -> anyhow::Result<Vec<u8>> {
    output_of(&mut cargo(&["run", "--quiet", "--package", "server", "--", "openapi"]))
}

/// Runs something unless a stamp says that it was done for this very fingerprint.
fn unless_done(stamp: &str, wanted: String, run: impl FnOnce() -> anyhow::Result<()>) -> anyhow::Result<()> {
    let stamp = folder().join(stamp);
    if fs::read_to_string(&stamp).is_ok_and(|done| done == wanted) {
        return Ok(());
    }
    run()?;
    fs::write(&stamp, wanted).with_context(|| format!("cannot write {}", stamp.display()))
}

fn fingerprint(files: &[PathBuf]) -> anyhow::Result<String> {
    page_sources::fingerprint(files, &folder()).context("cannot read what the page is built from")
}

/// Puts a `.gz` beside every file that gains by it: compressing for each request would cost 14 ms a script.
fn compress(folder: &Path) -> anyhow::Result<()> {
    let mut files = Vec::new();
    walk(folder, &mut files)?;
    for file in files {
        let gains =
            file.extension().is_some_and(|kind| ["js", "css", "html", "svg"].iter().any(|k| kind == *k));
        if gains {
            let bytes = fs::read(&file)?;
            let mut encoder = GzEncoder::new(Vec::new(), Compression::best());
            encoder.write_all(&bytes)?;
            let mut name = file.into_os_string();
            name.push(".gz");
            fs::write(name, encoder.finish()?)?;
        }
    }
    Ok(())
}
