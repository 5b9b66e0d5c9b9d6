//! Whose work ships inside the program, and under which terms: `THIRD-PARTY.md`, made from the lockfiles and from the texts that
//! the packages themselves bring along.

use std::collections::{BTreeMap, BTreeSet};
use std::fmt::Write as _;
use std::fs;
use std::path::{Path, PathBuf};

use anyhow::{Context, bail};
use serde_json::Value;

use crate::run::{cargo, output_of, root};

const FILE: &str = "THIRD-PARTY.md";

/// What is compiled into the page though nothing asks for it as it runs.
const COMPILED_IN: [&str; 2] = ["tailwindcss", "daisyui"];

/// Code that packages carry along and that has terms of its own.
const WITHIN: &str = "libsqlite3-sys carries SQLite, which its authors have put into the public domain; libmimalloc-sys carries \
                      mimalloc, under the MIT license.";

/// A package that ships.
struct Package {
    name: String,
    version: String,
    license: String,
    folder: PathBuf,
}

/// Writes the file.
pub(crate) fn make() -> anyhow::Result<()> {
    Ok(fs::write(root().join(FILE), text()?)?)
}

/// Fails when the committed file is not what the lockfiles make.
pub(crate) fn are_current() -> anyhow::Result<()> {
    eprintln!("· notices of what ships are current");
    if fs::read_to_string(root().join(FILE)).unwrap_or_default() != text()? {
        bail!("{FILE} is not what the lockfiles make: run cargo xtask notices");
    }
    Ok(())
}

fn text() -> anyhow::Result<String> {
    let mut packages = crates()?;
    packages.extend(of_the_page()?);
    packages.sort_by(|a, b| (&a.name, &a.version).cmp(&(&b.name, &b.version)));
    let mut said = "# What ships with Dimensione\n\nMade by `cargo xtask notices` from Cargo.lock and web/package-lock.json. "
        .to_owned();
    writeln!(said, "{WITHIN}\n\n| package | version | license |\n|---|---|---|")?;
    let mut texts: BTreeMap<String, BTreeSet<&str>> = BTreeMap::new();
    for package in &packages {
        writeln!(said, "| {} | {} | {} |", package.name, package.version, package.license)?;
        if let Some(text) = license_of(package)? {
            texts.entry(text).or_default().insert(&package.name);
        }
    }
    for (text, users) in texts {
        let users: Vec<&str> = users.into_iter().collect();
        writeln!(said, "\n## {}\n\n```text\n{}\n```", users.join(", "), text.trim_matches('\n'))?;
    }
    Ok(said)
}

/// The crates that the program is linked from, or built with.
fn crates() -> anyhow::Result<Vec<Package>> {
    let arguments =
        ["metadata", "--format-version", "1", "--locked", "--filter-platform", "x86_64-unknown-linux-gnu"];
    let metadata: Value = serde_json::from_slice(&output_of(&mut cargo(&arguments))?)?;
    let list = |value: &Value| value.as_array().cloned().unwrap_or_default();
    let word = |value: &Value| value.as_str().unwrap_or_default().to_owned();
    let nodes: BTreeMap<String, Value> =
        list(&metadata["resolve"]["nodes"]).into_iter().map(|node| (word(&node["id"]), node)).collect();
    let packages = list(&metadata["packages"]);
    let program = packages.iter().find(|one| one["name"] == "server").context("no package server")?;
    let (mut next, mut found) = (vec![word(&program["id"])], BTreeSet::new());
    while let Some(id) = next.pop() {
        if !found.insert(id.clone()) {
            continue;
        }
        for dependency in list(&nodes[&id]["deps"]) {
            if list(&dependency["dep_kinds"]).iter().any(|kind| kind["kind"] != "dev") {
                next.push(word(&dependency["pkg"]));
            }
        }
    }
    let ships = packages.iter().filter(|one| !one["source"].is_null() && found.contains(&word(&one["id"])));
    let package = |one: &Value| {
        let manifest = PathBuf::from(word(&one["manifest_path"]));
        Package {
            name: word(&one["name"]),
            version: word(&one["version"]),
            license: word(&one["license"]),
            folder: manifest.parent().map(Path::to_path_buf).unwrap_or_default(),
        }
    };
    Ok(ships.map(package).collect())
}

/// The packages that the page is built from.
fn of_the_page() -> anyhow::Result<Vec<Package>> {
    let web = root().join("web");
    let lock: Value = serde_json::from_slice(&fs::read(web.join("package-lock.json"))?)?;
    let all = lock["packages"].as_object().context("a lockfile without packages")?;
    let ships = all.iter().filter_map(|(place, one)| {
        let name = place.strip_prefix("node_modules/")?;
        let is_there = one["dev"] != true || COMPILED_IN.contains(&name);
        // Types alone leave nothing behind.
        (is_there && !name.starts_with("@types/") && name != "csstype").then(|| Package {
            name: name.to_owned(),
            version: one["version"].as_str().unwrap_or_default().to_owned(),
            license: one["license"].as_str().unwrap_or_default().to_owned(),
            folder: web.join(place),
        })
    });
    Ok(ships.collect())
}

/// The terms that a package brings along: of several to choose from, the MIT license where it is one.
fn license_of(package: &Package) -> anyhow::Result<Option<String>> {
    let mut names: Vec<String> = fs::read_dir(&package.folder)
        .with_context(|| format!("{} is not there: build first", package.folder.display()))?
        .filter_map(|entry| entry.ok()?.file_name().into_string().ok())
        .filter(|name| {
            let name = name.to_uppercase();
            ["LICENSE", "LICENCE", "COPYING", "UNLICENSE"].iter().any(|start| name.starts_with(start))
        })
        .filter(|name| package.folder.join(name).is_file())
        .collect();
    names.sort_by_key(|name| (!name.to_uppercase().contains("MIT"), name.clone()));
    let Some(name) = names.first() else { return Ok(None) };
    let text = fs::read_to_string(package.folder.join(name))?;
    Ok(Some(text.lines().map(str::trim_end).collect::<Vec<_>>().join("\n")))
}
