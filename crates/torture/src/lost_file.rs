//! A file that is gone, emptied or damaged beside its log, before a start and while the program runs.

use std::fs::{self, OpenOptions};
use std::os::unix::fs::FileExt;
use std::path::{Path, PathBuf};

use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use reqwest::Method;
use serde_json::json;

use crate::{Outcome, Program};

fn log_of(file: &Path) -> PathBuf {
    format!("{}-wal", file.display()).into()
}

async fn add(running: &Program, car: &str) -> u16 {
    let body = json!({ "car_label": car });
    running.ask(Method::POST, "/jobs", Some(&body)).await.map_or(0, |(status, _)| status)
}

async fn count(running: &Program) -> usize {
    let listed = running.ask(Method::GET, "/jobs?most=500", None).await;
    listed.and_then(|(_, jobs)| jobs.as_array().map(Vec::len)).unwrap_or_default()
}

/// Takes the file from beside its log, starts, and does as it is advised.
///
/// # Errors
/// When the program cannot be started at all.
pub async fn missing(program: &Path, rounds: usize) -> anyhow::Result<Outcome> {
    let (mut opened, mut log_lost, mut lost) = (0, 0, 0);
    for round in 0..rounds {
        let folder = tempfile::tempdir()?;
        let file = folder.path().join("shop.sqlite");
        let running = Program::start(program, &file, false).await?;
        for car in ["a", "b", "c"] {
            add(&running, car).await;
        }
        running.kill().await?;
        let (bytes, log) = (fs::read(&file)?, fs::read(log_of(&file))?);
        if round % 2 == 0 {
            fs::remove_file(&file)?
        } else {
            fs::write(&file, b"")?
        }
        opened += usize::from(Program::start(program, &file, false).await.is_ok());
        log_lost += usize::from(fs::read(log_of(&file)).unwrap_or_default() != log);
        fs::write(&file, bytes)?;
        let again = Program::start(program, &file, false).await?;
        lost += usize::from(count(&again).await != 3);
        again.kill().await?;
    }
    Ok(Outcome {
        what: format!("{rounds} files taken away or emptied beside their log, then put back as advised"),
        wanted: "0 empty shops, 0 logs lost, 0 changes lost",
        found: format!("{opened} empty shops, {log_lost} logs lost, {lost} changes lost"),
        is_held: opened + log_lost + lost == 0,
    })
}

/// Damages file or log while the program runs, and goes on changing.
///
/// # Errors
/// When the program cannot be started at all.
pub async fn damaged(program: &Path, rounds: usize, seed: u64) -> anyhow::Result<Outcome> {
    let mut rng = StdRng::seed_from_u64(seed);
    let (mut acknowledged, mut read) = (0, 0);
    for round in 0..rounds {
        let folder = tempfile::tempdir()?;
        let file = folder.path().join("shop.sqlite");
        let running = Program::start(program, &file, round % 4 == 0).await?;
        add(&running, "before").await;
        let (of, is_log) = if round % 2 == 0 { (file.clone(), false) } else { (log_of(&file), true) };
        let opened = OpenOptions::new().write(true).open(&of)?;
        let length = opened.metadata()?.len();
        match round % 3 {
            0 => opened.set_len(rng.random_range(1..length))?,
            1 => opened.write_all_at(&[0x5a; 100], 0)?,
            // All but its head: what is where no page begins may be a customer's name, which no check knows.
            _ if is_log => opened.write_all_at(&[0x5a; 64], rng.random_range(32..length - 64))?,
            _ => (1..length / 4096).try_for_each(|page| opened.write_all_at(&[0x5a; 64], page * 4096))?,
        }
        for _ in 0..8 {
            acknowledged += usize::from(add(&running, "after").await == 201);
        }
        read += usize::from(running.ask(Method::GET, "/house", None).await.is_some());
        running.kill().await?;
    }
    Ok(Outcome {
        what: format!(
            "{rounds} files or logs cut or written over while the program runs, 8 changes sent after each"
        ),
        wanted: "0 acknowledged, still answers",
        found: format!("{acknowledged} acknowledged, {read} of {rounds} still answer"),
        is_held: acknowledged == 0 && read == rounds,
    })
}
