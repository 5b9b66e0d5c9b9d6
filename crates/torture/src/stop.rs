//! A clean stop leaves one whole file.

use std::path::Path;

use reqwest::Method;
use serde_json::json;

use crate::{Outcome, Program};

/// Works, stops, copies the file alone, and opens the copy.
///
/// # Errors
/// When the program cannot be started.
pub async fn run(program: &Path, jobs: usize) -> anyhow::Result<Outcome> {
    let folder = tempfile::tempdir()?;
    let file = folder.path().join("shop.sqlite");
    let running = Program::start(program, &file, true).await?;
    for count in 0..jobs {
        let body = json!({ "car_label": format!("job {count}") });
        running.ask(Method::POST, "/jobs", Some(&body)).await;
    }
    let before = count_of(&running).await;
    let is_clean = running.stop().await?;
    // The note by which the file is known again stays beside it, and is nothing of it.
    let is_note = |one: &std::fs::DirEntry| one.file_name().to_string_lossy().ends_with("-lock");
    let names: Vec<_> =
        std::fs::read_dir(folder.path())?.filter_map(Result::ok).filter(|one| !is_note(one)).collect();
    let copy = folder.path().join("copy.sqlite");
    std::fs::copy(&file, &copy)?;
    let copied = Program::start(program, &copy, false).await?;
    let after = count_of(&copied).await;
    Ok(Outcome {
        what: format!("clean stop after {jobs} new jobs, the file alone copied and opened"),
        wanted: "one file, every job",
        found: format!("{} of {} jobs, {} file left", after, before, names.len()),
        is_held: is_clean && before >= jobs && before == after && names.len() == 1,
    })
}

async fn count_of(running: &Program) -> usize {
    let Ok(response) = running.client.get(running.url("/jobs")).send().await else { return 0 };
    let total = response.headers().get("x-total-count").and_then(|total| total.to_str().ok());
    total.and_then(|total| total.parse().ok()).unwrap_or_default()
}
