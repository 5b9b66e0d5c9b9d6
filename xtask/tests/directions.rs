//! Which way the crates may depend: `fitment` ← `store` ← `app` ← `server` ← `e2e`. Nothing points back. Stand-ins are
//! reached over their wire protocol; only tests start them in their own process.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

use std::collections::BTreeMap;
use std::process::Command;

/// What each crate may use of the others, tests included.
const ALLOWED: &[(&str, &[&str])] = &[
    ("fitment", &[]),
    ("store", &["fitment"]),
    ("exchange", &["fitment"]),
    ("standins", &[]),
    ("app", &["fitment", "store", "exchange"]),
    ("server", &["fitment", "store", "exchange", "app"]),
    ("e2e", &["fitment", "store", "server", "standins"]),
    // Asks the program over HTTP, as a process.
    ("torture", &[]),
    ("xtask", &[]),
];

/// When a dependency is needed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Needed {
    Always,
    ForAFeature,
    InTests,
}

/// What the core must do without: whatever reaches outside of it.
const NOT_IN_THE_CORE: &[&str] =
    &["tokio", "axum", "rusqlite", "serde", "serde_json", "jiff", "chrono", "reqwest", "rand", "utoipa"];

/// A package of the workspace and, for each of its dependencies, whether it can be left out or is for tests only.
fn dependencies() -> BTreeMap<String, Vec<(String, Needed)>> {
    let output = Command::new(env!("CARGO"))
        .args(["metadata", "--no-deps", "--format-version", "1", "--offline"])
        .current_dir(concat!(env!("CARGO_MANIFEST_DIR"), "/.."))
        .output()
        .unwrap();
    let metadata: serde_json::Value = serde_json::from_slice(&output.stdout).unwrap();
    let packages = metadata["packages"].as_array().unwrap();
    packages
        .iter()
        .map(|package| {
            let used = package["dependencies"].as_array().unwrap().iter().map(|dependency| {
                let needed = match dependency["kind"].as_str() {
                    Some("dev") => Needed::InTests,
                    _ if dependency["optional"] == true => Needed::ForAFeature,
                    _ => Needed::Always,
                };
                (dependency["name"].as_str().unwrap().to_owned(), needed)
            });
            (package["name"].as_str().unwrap().to_owned(), used.collect())
        })
        .collect()
}

#[test]
fn nothing_points_back() {
    let found = dependencies();
    let known: Vec<&str> = ALLOWED.iter().map(|(name, _)| *name).collect();
    for (name, used) in &found {
        let allowed = ALLOWED
            .iter()
            .find(|(known, _)| known == name)
            .unwrap_or_else(|| panic!("{name} is new: say here what it may use"))
            .1;
        for (other, needed) in used.iter().filter(|(other, _)| known.contains(&other.as_str())) {
            let is_tried_out = *needed == Needed::InTests && other == "standins";
            assert!(is_tried_out || allowed.contains(&other.as_str()), "{name} must not use {other}");
        }
    }
    assert_eq!(found.len(), ALLOWED.len(), "a crate named here is gone");
}

#[test]
fn the_core_reaches_nothing_outside() {
    for (other, needed) in &dependencies()["fitment"] {
        // Whoever keeps its values may ask for serde; it has no feature that is on by itself.
        let is_out = *needed == Needed::InTests || (*needed == Needed::ForAFeature && other == "serde");
        assert!(is_out || !NOT_IN_THE_CORE.contains(&other.as_str()), "fitment must not use {other}");
    }
}
