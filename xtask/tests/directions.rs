//! Which way the crates may depend: `fitment` ← `store` ← `app` ← `server` ← `e2e`. Nothing points back. Stand-ins are
//! reached over their wire protocol; only tests start them in their own process.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

use std::collections::{BTreeMap, BTreeSet};
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

/// Floors of the core, lowest first: a module may use only modules of floors below its own, or those before it on its
/// own floor. The list is the order a stranger may read them in.
const FLOORS: &[&[&str]] = &[
    // values
    &[
        "length",
        "coded",
        "working",
        "codes",
        "load_index",
        "speed_symbol",
        "date_code",
        "fastener",
        "verdict",
        "cautions",
    ],
    // parts
    &[
        "tire",
        "wheel",
        "notation",
        "setup",
        "tire_on_rim",
        "standard_sizes",
        "catalogue",
        "change",
        "road",
        "recalibration",
        "track",
        "tread",
        "club",
    ],
    // car
    &["limits", "car", "section", "motion", "style", "corner", "lever", "brake"],
    &["case"],
    &["clearance", "window"],
    &["rules"],
    // answers, which only ask
    &[
        "ledger",
        "looks",
        "mend",
        "measure",
        "swept",
        "trial",
        "proven",
        "plus_sizes",
        "finder",
        "upkeep",
        "next_step",
        "inspection",
        "coverage",
    ],
];

/// What `lib.rs` re-exports from the modules, by name.
const RE_EXPORTED: &[(&str, &[&str])] = &[
    ("codes", &["BoltCircle", "CenterBore", "Offset", "RimDiameter", "RimWidth", "Spacer"]),
    ("length", &["Length"]),
    ("setup", &["Axle", "Setup", "SetupPair"]),
    ("tire", &["Tire"]),
    ("wheel", &["Wheel"]),
];

/// The modules that a source text uses, its tests left out.
fn uses(text: &str) -> BTreeSet<String> {
    let code = text.split("#[cfg(test)]").next().unwrap_or_default();
    let mut found = BTreeSet::new();
    for line in code.lines().map(|line| line.split("//").next().unwrap_or_default()) {
        for (at, _) in line.match_indices("crate::") {
            let rest = &line[at + "crate::".len()..];
            let names = match rest.strip_prefix('{') {
                Some(group) => group.split('}').next().unwrap_or_default().split(',').collect(),
                None => vec![rest],
            };
            for name in names {
                let name: String =
                    name.trim().chars().take_while(|c| c.is_alphanumeric() || *c == '_').collect();
                let module = RE_EXPORTED.iter().find(|(_, names)| names.contains(&name.as_str()));
                found.insert(module.map_or(name, |(module, _)| (*module).to_owned()));
            }
        }
    }
    found.retain(|name| !name.is_empty());
    found
}

#[test]
fn the_core_has_floors_and_no_module_uses_one_above_its_own() {
    let order: Vec<&str> = FLOORS.iter().copied().flatten().copied().collect();
    let src = concat!(env!("CARGO_MANIFEST_DIR"), "/../crates/fitment/src");
    let mut files = vec![std::path::PathBuf::from(src)];
    let mut wrong = Vec::new();
    let mut seen = BTreeSet::new();
    while let Some(path) = files.pop() {
        if path.is_dir() {
            files.extend(std::fs::read_dir(&path).unwrap().map(|entry| entry.unwrap().path()));
            continue;
        }
        let relative = path.strip_prefix(src).unwrap();
        let first = relative.iter().next().unwrap().to_string_lossy();
        let module = first.trim_end_matches(".rs").to_owned();
        if module == "lib" || path.extension().is_none_or(|extension| extension != "rs") {
            continue;
        }
        seen.insert(module.clone());
        let Some(own) = order.iter().position(|name| *name == module) else {
            wrong.push(format!("{module} stands on no floor: say where in FLOORS"));
            continue;
        };
        for used in uses(&std::fs::read_to_string(&path).unwrap()) {
            if used != module && order.iter().position(|name| *name == used).is_none_or(|at| at > own) {
                wrong.push(format!("{} uses {used}, which stands above it", relative.display()));
            }
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    assert_eq!(seen.len(), order.len(), "a floor names a module that is gone");
}
