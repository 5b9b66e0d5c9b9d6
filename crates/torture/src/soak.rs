//! A long run of everything a shop does: memory, descriptors and answers stay as they were.

use std::path::Path;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};
use std::time::{Duration, Instant};

use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use reqwest::Method;
use serde_json::json;

use crate::{Outcome, Program};

const CLIENTS: usize = 4;

/// Works for so long.
///
/// # Errors
/// When the program cannot be started.
pub async fn run(program: &Path, time: Duration, seed: u64) -> anyhow::Result<Outcome> {
    let folder = tempfile::tempdir()?;
    let running = Arc::new(Program::start(program, &folder.path().join("shop.sqlite"), true).await?);
    let (asked, failed) = (Arc::new(AtomicUsize::new(0)), Arc::new(AtomicUsize::new(0)));
    let is_over = Arc::new(AtomicBool::new(false));
    let clients: Vec<_> = (0..CLIENTS)
        .map(|client| {
            let (running, asked, failed, is_over) =
                (Arc::clone(&running), Arc::clone(&asked), Arc::clone(&failed), Arc::clone(&is_over));
            let mut rng = StdRng::seed_from_u64(seed ^ client as u64);
            tokio::spawn(async move {
                while !is_over.load(Ordering::Relaxed) {
                    let is_sound = step(&running, &mut rng).await;
                    asked.fetch_add(1, Ordering::Relaxed);
                    failed.fetch_add(usize::from(!is_sound), Ordering::Relaxed);
                }
            })
        })
        .collect();
    let start = Instant::now();
    // The first third fills caches and pools; from there on it should stay as it is.
    tokio::time::sleep(time / 3).await;
    let (memory, descriptors) = (running.resident_kb(), running.descriptors());
    tokio::time::sleep(time.saturating_sub(start.elapsed())).await;
    is_over.store(true, Ordering::Relaxed);
    for client in clients {
        let _ = client.await;
    }
    let grown = running.resident_kb() as f64 / memory.max(1) as f64;
    let more = running.descriptors().saturating_sub(descriptors);
    let (asked, failed) = (asked.load(Ordering::Relaxed), failed.load(Ordering::Relaxed));
    Ok(Outcome {
        what: format!("{} s of work by {CLIENTS} clients, {asked} requests", time.as_secs()),
        wanted: "0 of 5xx, memory × 1.5 and 8 descriptors at most",
        found: format!("{failed} of 5xx, memory × {grown:.2}, {more} descriptors more"),
        is_held: failed == 0 && grown <= 1.5 && more <= 8,
    })
}

/// One thing that somebody does; whether it was answered as it should be.
async fn step(running: &Program, rng: &mut StdRng) -> bool {
    let job = rng.random_range(1..=9);
    let answer = match rng.random_range(0..10) {
        0 => running.ask(Method::GET, "/jobs", None).await,
        1 => {
            let body = json!({ "car_label": format!("soak {job}"), "fitted_line": "17x7.5 ET45 225/45R17" });
            running.ask(Method::POST, "/jobs", Some(&body)).await
        }
        2 | 3 => {
            let Some((200, mut change)) = running.ask(Method::GET, &format!("/jobs/{job}"), None).await
            else {
                return false;
            };
            change["based_on_revision"] = change["revision"].clone();
            change["notes"] = json!(format!("{}", rng.random_range(0..1_000_000)));
            running.ask(Method::PUT, &format!("/jobs/{job}"), Some(&change)).await
        }
        4 => running.ask(Method::POST, &format!("/jobs/{job}/finder"), Some(&json!({}))).await,
        5 => running.ask(Method::GET, &format!("/jobs/{job}/side-by-side"), None).await,
        6 => running.ask(Method::GET, &format!("/proven?job={job}"), None).await,
        7 => running.ask(Method::GET, &format!("/jobs/{job}/brakes/wheels?axle=front"), None).await,
        8 => {
            let status = running.upload("/profiles/read", b"y_mm,r_mm\n0,100\n5,120\n".to_vec()).await;
            return status.is_some_and(|status| status < 500);
        }
        _ => {
            let body = json!({ "job": job, "fitted": { "front": "17x7.5 ET45 225/45R17" },
                "planned": { "front": "18x8.5 ET35 245/40R18" }, "adjust": [] });
            running.ask(Method::POST, "/bench", Some(&body)).await
        }
    };
    answer.is_some_and(|(status, _)| status < 500)
}
