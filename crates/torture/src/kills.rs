//! Killed under load: every change that was acknowledged is there afterwards, and every revision follows on the last.

use std::path::Path;
use std::sync::Arc;
use std::time::Duration;

use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use reqwest::Method;
use serde_json::{Value, json};
use tokio::sync::Mutex;

use crate::{Outcome, Program};

/// What a job must be at least, by what was acknowledged of it.
#[derive(Debug, Clone)]
struct Acknowledged {
    id: i64,
    revision: i64,
    label: String,
    wish: String,
    readings: usize,
}

const WRITERS: usize = 4;

/// Kills the program so many times.
///
/// # Errors
/// When it cannot be started at all.
pub async fn run(program: &Path, rounds: usize, seed: u64) -> anyhow::Result<Outcome> {
    let folder = tempfile::tempdir()?;
    let file = folder.path().join("shop.sqlite");
    let mut rng = StdRng::seed_from_u64(seed);
    let (mut acknowledged, mut lost) = (0, Vec::new());
    let mut last: Vec<Acknowledged> = Vec::new();
    for round in 0..rounds {
        let running = Arc::new(Program::start(program, &file, false).await?);
        for job in &last {
            if let Some(why) = missing(&running, job).await {
                lost.push(why);
            }
        }
        let kept = Arc::new(Mutex::new((0_usize, Vec::new())));
        let writers: Vec<_> = (0..WRITERS)
            .map(|writer| {
                let (running, kept) = (Arc::clone(&running), Arc::clone(&kept));
                tokio::spawn(async move { write(&running, &format!("{round}-{writer}"), &kept).await })
            })
            .collect();
        // After so many acknowledged changes, and then at any moment of those under way.
        let enough = rng.random_range(1..24);
        while kept.lock().await.0 < enough && writers.iter().any(|writer| !writer.is_finished()) {
            tokio::time::sleep(Duration::from_millis(1)).await;
        }
        tokio::time::sleep(Duration::from_micros(rng.random_range(0..9000))).await;
        for writer in &writers {
            writer.abort();
        }
        for writer in writers {
            let _ = writer.await;
        }
        if let Some(running) = Arc::into_inner(running) {
            running.kill().await?;
        }
        let mut kept = kept.lock().await;
        acknowledged += kept.0;
        last = std::mem::take(&mut kept.1);
    }
    let running = Program::start(program, &file, false).await?;
    for job in &last {
        lost.extend(missing(&running, job).await);
    }
    for why in lost.iter().take(5) {
        eprintln!("lost: {why}");
    }
    Ok(Outcome {
        what: format!("{rounds} kills under {WRITERS} writers, {acknowledged} changes acknowledged"),
        wanted: "0 lost",
        found: format!("{} lost", lost.len()),
        is_held: lost.is_empty() && acknowledged > 0,
    })
}

/// Opens jobs and changes them until it is told no more; notes what was acknowledged.
async fn write(running: &Program, name: &str, kept: &Mutex<(usize, Vec<Acknowledged>)>) {
    for count in 0.. {
        let label = format!("{name}-{count}");
        let body = json!({ "car_label": label, "fitted_line": "17x7.5 ET45 225/45R17" });
        let Some((201, mut job)) = running.ask(Method::POST, "/jobs", Some(&body)).await else { return };
        let Some(id) = job["id"].as_i64() else { return };
        let at = {
            let mut kept = kept.lock().await;
            kept.0 += 1;
            kept.1.push(Acknowledged { id, revision: 1, label, wish: String::new(), readings: 0 });
            kept.1.len() - 1
        };
        for step in 0..3 {
            let wish = format!("wish {step}");
            job["based_on_revision"] = job["revision"].clone();
            job["wish"] = json!(wish);
            let Some((200, changed)) = running.ask(Method::PUT, &format!("/jobs/{id}"), Some(&job)).await
            else {
                return;
            };
            note(kept, at, &changed, &wish, 0).await;
            job = changed;
        }
        let reading = json!({ "readings": [{ "id": "r1", "axle": "front", "what": "strut", "value": 12,
            "unit": "mm", "instrument": "feeler" }] });
        let Some((200, job)) =
            running.ask(Method::POST, &format!("/jobs/{id}/readings"), Some(&reading)).await
        else {
            return;
        };
        note(kept, at, &job, "wish 2", 1).await;
    }
}

async fn note(kept: &Mutex<(usize, Vec<Acknowledged>)>, at: usize, job: &Value, wish: &str, readings: usize) {
    let mut kept = kept.lock().await;
    kept.0 += 1;
    if let Some(one) = kept.1.get_mut(at) {
        one.revision = job["revision"].as_i64().unwrap_or_default();
        wish.clone_into(&mut one.wish);
        one.readings = readings;
    }
}

/// What of a job is not as it was acknowledged. It may be further: a change may be kept whose answer was cut off.
async fn missing(running: &Program, wanted: &Acknowledged) -> Option<String> {
    let Some((200, job)) = running.ask(Method::GET, &format!("/jobs/{}", wanted.id), None).await else {
        return Some(format!("{wanted:?} is not there"));
    };
    let revision = job["revision"].as_i64().unwrap_or_default();
    let readings = job["readings"].as_array().map_or(0, Vec::len);
    let is_there = job["car_label"] == wanted.label
        && revision >= wanted.revision
        && (revision > wanted.revision || job["wish"] == wanted.wish)
        && readings >= wanted.readings;
    (!is_there).then(|| format!("{wanted:?} is at revision {revision} with wish {}", job["wish"]))
}
