//! What is said of the car's module, over every fault that it and the file can play: it is always so.

use std::path::Path;
use std::process::Stdio;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;

use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use reqwest::Method;
use serde_json::json;
use tokio::io::{AsyncBufReadExt, AsyncWriteExt, BufReader};
use tokio::net::{TcpListener, TcpStream};

use crate::{Outcome, Program};

const FACTORY_MM: u32 = 1927;

/// What the module does when it is told.
#[derive(Debug, Clone, Copy)]
struct Plan {
    /// It takes the length.
    takes: bool,
    /// It answers; else it says nothing, or cuts the line.
    answers: bool,
    cuts: bool,
    /// How long it thinks before it does anything.
    thinks: Duration,
    /// It is silent to the reading back.
    then_silent: bool,
}

#[derive(Debug)]
struct State {
    stored: u32,
    plan: Plan,
    told: usize,
    is_silent: bool,
}

/// Tells a module that plays so many faults, while the file is held and clients go away.
///
/// # Errors
/// When the program cannot be started.
pub async fn run(program: &Path, rounds: usize, seed: u64) -> anyhow::Result<Outcome> {
    let mut rng = StdRng::seed_from_u64(seed);
    let listener = TcpListener::bind("127.0.0.1:0").await?;
    let address = listener.local_addr()?.to_string();
    let quiet = Plan { takes: true, answers: true, cuts: false, thinks: Duration::ZERO, then_silent: false };
    let state = Arc::new(Mutex::new(State { stored: FACTORY_MM, plan: quiet, told: 0, is_silent: false }));
    tokio::spawn(answer_all(listener, Arc::clone(&state)));
    let folder = tempfile::tempdir()?;
    let file = folder.path().join("shop.sqlite");
    let running = Program::start_with(program, &file, &["--module", &address]).await?;
    let job = job(&running).await;
    let mut untrue = Vec::new();
    let mut told = 0;
    for round in 0..rounds {
        let plan = Plan {
            takes: rng.random_bool(0.6),
            answers: rng.random_bool(0.5),
            cuts: rng.random_bool(0.5),
            thinks: Duration::from_millis(if rng.random_bool(0.1) { 2500 } else { rng.random_range(0..200) }),
            then_silent: rng.random_bool(0.15),
        };
        {
            let mut module = locked(&state);
            (module.stored, module.plan, module.told, module.is_silent) = (FACTORY_MM, quiet, 0, false);
        }
        let read = running.ask(Method::POST, &format!("/jobs/{job}/module/read"), None).await;
        let Some((200, view)) = read else { continue };
        locked(&state).plan = plan;
        let ask = json!({ "vehicle": view["state"]["vehicle"], "was_mm": FACTORY_MM,
            "to_mm": view["proposed"]["to_mm"], "signed_by": "mk" });
        let _holder = if rng.random_bool(0.15) { holder(&file).await } else { None };
        let path = format!("/jobs/{job}/module/tell");
        let telling = running.ask(Method::POST, &path, Some(&ask));
        let answer = if rng.random_bool(0.1) {
            tokio::time::timeout(Duration::from_millis(rng.random_range(1..300)), telling)
                .await
                .unwrap_or(None)
        } else {
            telling.await
        };
        // What it was told may be done a moment later.
        tokio::time::sleep(plan.thinks + Duration::from_millis(50)).await;
        let holds = locked(&state).stored;
        let was_told = locked(&state).told > 0;
        told += usize::from(was_told);
        let to = ask["to_mm"].as_u64().unwrap_or_default();
        let is_true = |outcome: &str| match outcome {
            "confirmed" => u64::from(holds) == to,
            "unchanged" | "refused" => holds == FACTORY_MM,
            "differs" => u64::from(holds) != to,
            "unknown" | "beside" | "asked" => true,
            _ => false,
        };
        match &answer {
            Some((200, view)) if !is_true(view["told"]["outcome"].as_str().unwrap_or("none")) => {
                untrue.push(format!("{round}: {plan:?} answered {} and holds {holds}", view["told"]["says"]));
            }
            // Whatever else is answered says that nothing was told.
            Some((status, said)) if *status != 200 && was_told => {
                untrue.push(format!(
                    "{round}: {plan:?} answered {status} {} though it was told",
                    said["detail"]
                ));
            }
            _ => {}
        }
        if let Some((200, log)) = running.ask(Method::GET, &format!("/jobs/{job}/module"), None).await {
            let last = &log["log"][0];
            let is_of_this = was_told && last["told_mm"].as_u64() == Some(to);
            if is_of_this && !is_true(last["outcome"].as_str().unwrap_or("none")) {
                untrue.push(format!("{round}: {plan:?} logged {} and holds {holds}", last["says"]));
            }
        }
    }
    for one in untrue.iter().take(5) {
        eprintln!("untrue: {one}");
    }
    Ok(Outcome {
        what: format!(
            "{rounds} faults and delays of a car's module, its file held, clients gone; {told} times it was told"
        ),
        wanted: "0 untrue words in answer or log",
        found: format!("{} untrue", untrue.len()),
        is_held: untrue.is_empty() && told > rounds / 2,
    })
}

/// A job whose plan has another tire than the car's own.
async fn job(running: &Program) -> i64 {
    let new = json!({ "car_label": "told", "fitted_line": "16x6.5 ET45 205/55R16 91V" });
    let Some((201, mut job)) = running.ask(Method::POST, "/jobs", Some(&new)).await else { return 0 };
    job["based_on_revision"] = job["revision"].clone();
    let line = "17x7 ET45 · 215/45R17 91W";
    job["planned"] = json!({ "front": line, "rear": line });
    let id = job["id"].as_i64().unwrap_or_default();
    running.ask(Method::PUT, &format!("/jobs/{id}"), Some(&job)).await;
    id
}

fn locked(state: &Mutex<State>) -> std::sync::MutexGuard<'_, State> {
    state.lock().unwrap_or_else(PoisonError::into_inner)
}

async fn answer_all(listener: TcpListener, state: Arc<Mutex<State>>) {
    while let Ok((stream, _)) = listener.accept().await {
        let state = Arc::clone(&state);
        tokio::spawn(async move {
            // How a call ends concerns only its other side.
            let _ = answer(stream, &state).await;
        });
    }
}

async fn answer(stream: TcpStream, state: &Mutex<State>) -> std::io::Result<()> {
    let (read, mut write) = stream.into_split();
    write.write_all(b"MODULE 1\n").await?;
    let mut lines = BufReader::new(read).lines();
    while let Some(line) = lines.next_line().await? {
        let (plan, stored, is_silent) = {
            let module = locked(state);
            (module.plan, module.stored, module.is_silent)
        };
        if is_silent {
            continue;
        }
        let to = line.strip_prefix("TELL ").and_then(|rest| rest.split(' ').next()?.parse::<u32>().ok());
        let Some(to) = to else {
            write.write_all(format!("STATE LAKE-1 {stored} {FACTORY_MM} 3.9 OFF 12.6\n").as_bytes()).await?;
            continue;
        };
        locked(state).told += 1;
        tokio::time::sleep(plan.thinks).await;
        {
            let mut module = locked(state);
            if plan.takes {
                module.stored = to;
            }
            module.is_silent = plan.then_silent;
        }
        if plan.answers {
            write.write_all(format!("TOLD {to}\n").as_bytes()).await?;
        } else if plan.cuts {
            return Ok(());
        }
    }
    Ok(())
}

/// Somebody else who holds the file for writing a while, longer than the program waits for it.
async fn holder(file: &Path) -> Option<tokio::process::Child> {
    const HOLDS: &str = "import sqlite3, sys, time
connection = sqlite3.connect(sys.argv[1], isolation_level=None)
while not connection.execute(\"SELECT count(*) FROM module_log WHERE outcome = 'asked'\").fetchone()[0]:
    time.sleep(0.001)
connection.execute('BEGIN IMMEDIATE')
time.sleep(7)";
    tokio::process::Command::new("python3")
        .args(["-c", HOLDS])
        .arg(file)
        .stdin(Stdio::null())
        .stdout(Stdio::null())
        .stderr(Stdio::null())
        .kill_on_drop(true)
        .spawn()
        .ok()
}
