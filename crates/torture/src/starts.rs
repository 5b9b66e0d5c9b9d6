//! Starts: killed at each of their writes, and a second one while the first runs. Once the holder is dead the next start
//! opens the file, with everything that was acknowledged.

use std::path::Path;
use std::process::Stdio;

use anyhow::Context;
use reqwest::Method;
use serde_json::json;
use tokio::io::{AsyncBufReadExt, BufReader};
use tokio::process::Command;

use crate::{Outcome, Program};

/// What changes a file, or its name.
const WRITES: &str =
    "write,pwrite64,writev,pwritev,ftruncate,fallocate,fsync,fdatasync,unlink,rename,openat,mkdir";

/// Kills so many starts, each at a write of its own, over files in several states; and holds a second start against each.
///
/// # Errors
/// When the program cannot be started at all, or `strace` is not there to stop it at a write.
pub async fn run(program: &Path, kills: usize) -> anyhow::Result<Outcome> {
    let (mut killed, mut refused, mut lost, mut seconds, mut untold) = (0, Vec::new(), 0, 0, 0);
    let mut state = 0_usize;
    while killed < kills {
        let folder = tempfile::tempdir()?;
        let file = folder.path().join("shop.sqlite");
        let mut jobs = prepare(program, &file, state).await?;
        let mut write = 1;
        // Until a start gets through all of its writes.
        while killed < kills {
            let _reader = if state % 3 == 2 { reader(&file).await } else { None };
            if started_and_killed(program, &file, write).await? {
                killed += 1;
            } else {
                break;
            }
            write += 1;
            match Program::start(program, &file, false).await {
                Ok(running) => {
                    seconds += 1;
                    untold += usize::from(!is_told(program, &file, &running).await);
                    let there = count(&running).await;
                    lost += usize::from(there < jobs);
                    let added =
                        running.ask(Method::POST, "/jobs", Some(&json!({ "car_label": "one more" }))).await;
                    jobs = there + usize::from(added.is_some_and(|(status, _)| status == 201));
                    running.kill().await?;
                }
                Err(error) => refused.push(format!("state {state}, write {write}: {error:#}")),
            }
        }
        state += 1;
    }
    for one in refused.iter().take(5) {
        eprintln!("refused: {one}");
    }
    Ok(Outcome {
        what: format!(
            "{killed} starts killed at each of their writes, {seconds} second programs beside the next"
        ),
        wanted: "0 refused once the holder is dead, 0 lost, each second one told who holds",
        found: format!("{} refused, {lost} lost, {untold} not told", refused.len()),
        is_held: refused.is_empty() && lost == 0 && untold == 0,
    })
}

/// A file in one of the states that a start finds: none, as a clean stop leaves it, as a kill does; how many jobs are in it.
async fn prepare(program: &Path, file: &Path, state: usize) -> anyhow::Result<usize> {
    if state.is_multiple_of(3) {
        return Ok(0);
    }
    let running = Program::start(program, file, false).await?;
    for car in ["a", "b", "c"] {
        running.ask(Method::POST, "/jobs", Some(&json!({ "car_label": car }))).await;
    }
    let jobs = count(&running).await;
    if state % 3 == 1 {
        running.stop().await?;
    } else {
        running.kill().await?;
    }
    Ok(jobs)
}

async fn count(running: &Program) -> usize {
    let listed = running.ask(Method::GET, "/jobs?most=500", None).await;
    listed.and_then(|(_, jobs)| jobs.as_array().map(Vec::len)).unwrap_or_default()
}

/// Starts it under a tracer that kills it at its so manieth write. `false`: it got through, and was then stopped.
async fn started_and_killed(program: &Path, file: &Path, write: usize) -> anyhow::Result<bool> {
    let mut child = Command::new("strace")
        .args(["-f", "-qq", "-o", "/dev/null", "-e", &format!("trace={WRITES}")])
        .args(["-e", &format!("inject={WRITES}:signal=KILL:when={}", write + LOADED)])
        .arg(program)
        .args(["serve", "--listen", "127.0.0.1:0", "--data"])
        .arg(file)
        .stdin(Stdio::null())
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .kill_on_drop(true)
        .process_group(0)
        .spawn()
        .context("strace does not start: cargo xtask torture installs it")?;
    let mut lines = BufReader::new(child.stdout.take().context("no output")?).lines();
    let ready = lines.next_line().await?;
    let Some(group) = child.id().and_then(|id| rustix::process::Pid::from_raw(i32::try_from(id).ok()?))
    else {
        return Ok(ready.is_none());
    };
    // Tracer and program together, at once.
    let _ = rustix::process::kill_process_group(group, rustix::process::Signal::KILL);
    let _ = child.wait().await;
    Ok(ready.is_none())
}

/// Calls before the program's own: the loader opens its libraries.
const LOADED: usize = 5;

/// A second start beside a running one: refused, and told by whom.
async fn is_told(program: &Path, file: &Path, running: &Program) -> bool {
    let mut second = Command::new(program);
    second
        .args(["serve", "--listen", "127.0.0.1:0", "--data"])
        .arg(file)
        .stdin(Stdio::null())
        .kill_on_drop(true);
    let Ok(output) = second.output().await else { return false };
    let said = String::from_utf8_lossy(&output.stderr);
    output.status.code() == Some(1)
        && said.contains("is open in another program")
        && said.contains(&running.address.to_string())
}

/// Somebody else who reads the file, as a backup tool does; holds a read open until dropped.
async fn reader(file: &Path) -> Option<tokio::process::Child> {
    const READS: &str = "import sqlite3, sys, time
connection = sqlite3.connect('file:' + sys.argv[1] + '?mode=ro', uri=True)
connection.execute('BEGIN')
connection.execute('SELECT count(*) FROM sqlite_schema').fetchone()
print('reads', flush=True)
time.sleep(60)";
    let mut child = Command::new("python3")
        .args(["-c", READS])
        .arg(file)
        .stdin(Stdio::null())
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .kill_on_drop(true)
        .spawn()
        .ok()?;
    let mut lines = BufReader::new(child.stdout.take()?).lines();
    lines.next_line().await.ok()??;
    Some(child)
}
