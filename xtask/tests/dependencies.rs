//! What may come into the program, by `deny.toml`: terms, sources, and nothing twice that is not named.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

use std::collections::{BTreeMap, BTreeSet};
use std::process::Command;

use serde_json::Value;

const ROOT: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/..");
const CRATES_IO: &str = "registry+https://github.com/rust-lang/crates.io-index";

fn deny() -> toml::Table {
    std::fs::read_to_string(format!("{ROOT}/deny.toml")).unwrap().parse().unwrap()
}

fn words(table: &toml::Table, of: &str, list: &str) -> BTreeSet<String> {
    let list = table[of][list].as_array().unwrap();
    list.iter().map(|one| one.as_str().or_else(|| one["name"].as_str()).unwrap().to_owned()).collect()
}

/// Everything that is built from outside, tools and tests included.
fn packages() -> Vec<Value> {
    let output = Command::new(env!("CARGO"))
        .args([
            "metadata",
            "--format-version",
            "1",
            "--offline",
            "--filter-platform",
            "x86_64-unknown-linux-gnu",
        ])
        .current_dir(ROOT)
        .output()
        .unwrap();
    let metadata: Value = serde_json::from_slice(&output.stdout).unwrap();
    let packages = metadata["packages"].as_array().unwrap();
    packages.iter().filter(|one| !one["source"].is_null()).cloned().collect()
}

#[test]
fn all_of_it_comes_under_terms_that_are_allowed() {
    let allowed = words(&deny(), "licenses", "allow");
    for package in packages() {
        let (name, terms) = (&package["name"], package["license"].as_str().unwrap_or_default());
        let terms = spdx::Expression::parse_mode(terms, spdx::ParseMode::LAX)
            .unwrap_or_else(|why| panic!("{name}: {terms}: {why}"));
        assert!(terms.evaluate(|one| allowed.contains(&one.to_string())), "{name} comes under {terms}");
    }
}

#[test]
fn all_of_it_comes_from_the_one_registry() {
    for package in packages() {
        assert_eq!(package["source"], CRATES_IO, "{}", package["name"]);
    }
}

#[test]
fn nothing_is_built_twice_but_what_is_named() {
    let named = words(&deny(), "bans", "skip");
    let mut versions: BTreeMap<String, BTreeSet<String>> = BTreeMap::new();
    for package in packages() {
        let word = |what: &str| package[what].as_str().unwrap().to_owned();
        versions.entry(word("name")).or_default().insert(word("version"));
    }
    let twice: BTreeSet<String> =
        versions.into_iter().filter(|(_, all)| all.len() > 1).map(|(name, _)| name).collect();
    assert_eq!(twice, named, "on the left what stands twice, on the right what deny.toml names");
}
