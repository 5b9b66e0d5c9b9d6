//! Short versions of everything, on the program as Cargo built it beside these tests.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

use std::path::{Path, PathBuf};
use std::time::Duration;

use torture::{Outcome, connections, files, kills, soak, stop};

/// `cargo test` builds every binary of the workspace before it runs a test.
fn program() -> PathBuf {
    let beside = std::env::current_exe().unwrap();
    let folder = beside.parent().and_then(Path::parent).unwrap();
    let program = folder.join("dimensione");
    assert!(program.exists(), "{} is not there: run cargo test for the whole workspace", program.display());
    program
}

fn held(outcome: &Outcome) {
    assert!(outcome.is_held, "{outcome}");
}

#[tokio::test(flavor = "multi_thread")]
async fn nothing_acknowledged_is_lost_by_kills() {
    held(&kills::run(&program(), 12, 1).await.unwrap());
}

#[tokio::test(flavor = "multi_thread")]
async fn hostile_files_and_mutations_end_nothing() {
    let hostile = Path::new(env!("CARGO_MANIFEST_DIR")).join("../server/tests/hostile");
    // Bounds on time and memory are for the release build: `cargo xtask torture`.
    held(&files::samples(&program(), &hostile, false).await.unwrap());
    for outcome in files::mutations(&program(), 40, 1, false).await.unwrap() {
        held(&outcome);
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn idle_connections_cost_kilobytes_and_others_are_served() {
    held(&connections::idle(&program(), 300).await.unwrap());
}

#[tokio::test(flavor = "multi_thread")]
async fn a_clean_stop_leaves_one_whole_file() {
    held(&stop::run(&program(), 10).await.unwrap());
}

#[tokio::test(flavor = "multi_thread")]
async fn work_leaves_nothing_behind() {
    let outcome = soak::run(&program(), Duration::from_secs(3), 1).await.unwrap();
    // Over so short a time memory still settles; answers and descriptors do not.
    assert!(outcome.found.starts_with("0 of 5xx"), "{outcome}");
}
