//! The command `dimensione`, run as a person runs it.

use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};

use serde_json::{Value, json};

fn dimensione(arguments: &[&str]) -> Command {
    let mut command = Command::new(env!("CARGO_BIN_EXE_dimensione"));
    command.args(arguments).stdout(Stdio::piped()).stderr(Stdio::piped());
    command
}

pub(crate) struct Running {
    pub(crate) child: Child,
    pub(crate) url: String,
}

impl Drop for Running {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

pub(crate) fn start(file: &Path, demo: bool) -> Running {
    let file = file.to_str().unwrap();
    let mut arguments = vec!["serve", "--data", file, "--listen", "127.0.0.1:0"];
    if demo {
        arguments.push("--demo");
    }
    let mut child = dimensione(&arguments).spawn().unwrap();
    let mut line = String::new();
    BufReader::new(child.stdout.as_mut().unwrap()).read_line(&mut line).unwrap();
    let url = line.trim().strip_prefix("listening on ").unwrap_or_else(|| panic!("{line:?}")).to_owned();
    Running { child, url }
}

impl Running {
    pub(crate) async fn jobs(&self) -> Vec<Value> {
        reqwest::get(format!("{}/api/v1/jobs", self.url)).await.unwrap().json().await.unwrap()
    }

    pub(crate) fn signal(&self, name: &str) {
        let done = Command::new("kill").args([name, &self.child.id().to_string()]).status().unwrap();
        assert!(done.success());
    }
}

#[tokio::test]
async fn what_was_saved_survives_a_kill() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("shop.sqlite");
    let running = start(&file, false);
    assert!(running.jobs().await.is_empty());
    let body = json!({ "car_label": "Skerry hatch", "fitted_line": "15x6 ET45 195/65R15" });
    let url = format!("{}/api/v1/jobs", running.url);
    let answer = reqwest::Client::new().post(url).json(&body).send().await.unwrap();
    assert_eq!(answer.status(), 201);
    running.signal("-KILL");
    drop(running);
    let again = start(&file, false);
    assert_eq!(again.jobs().await[0]["car_label"], "Skerry hatch");
}

#[tokio::test]
async fn it_stops_cleanly_when_asked() {
    for signal in ["-TERM", "-INT"] {
        let folder = tempfile::tempdir().unwrap();
        let file = folder.path().join("shop.sqlite");
        let mut running = start(&file, true);
        let jobs = running.jobs().await.len();
        assert!(jobs >= 3, "the sample shop");
        running.signal(signal);
        assert_eq!(running.child.wait().unwrap().code(), Some(0), "{signal}");
        let names: Vec<_> =
            std::fs::read_dir(folder.path()).unwrap().map(|one| one.unwrap().file_name()).collect();
        assert!(names.iter().all(|name| name == "shop.sqlite" || name == "shop.sqlite-lock"), "{names:?}");
        let copy = folder.path().join("copy.sqlite");
        std::fs::copy(&file, &copy).unwrap();
        assert_eq!(start(&copy, false).jobs().await.len(), jobs, "the copy has every job");
    }
}

#[tokio::test]
async fn a_sample_shop_whose_making_was_cut_off_begins_anew() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("shop.sqlite");
    // What a kill in the first moments leaves, and an empty file that somebody made.
    std::fs::write(folder.path().join("shop.sample-in-the-making"), b"half").unwrap();
    std::fs::write(&file, b"").unwrap();
    assert!(start(&file, true).jobs().await.len() >= 3);
}

#[tokio::test]
async fn a_backup_beside_the_log_of_later_is_refused_with_what_can_be_done() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("shop.sqlite");
    let mut running = start(&file, true);
    running.signal("-TERM");
    running.child.wait().unwrap();
    let backup = std::fs::read(&file).unwrap();
    let running = start(&file, false);
    let url = format!("{}/api/v1/jobs", running.url);
    let body = json!({ "car_label": "later" });
    assert_eq!(reqwest::Client::new().post(url).json(&body).send().await.unwrap().status(), 201);
    running.signal("-KILL");
    drop(running);
    std::fs::write(&file, backup).unwrap();
    let mut command = dimensione(&["serve", "--listen", "127.0.0.1:0", "--data", file.to_str().unwrap()]);
    let output = command.output().unwrap();
    let said = String::from_utf8_lossy(&output.stderr);
    assert!(output.status.code() == Some(1) && said.contains("move that log away"), "{said}");
}

#[tokio::test]
async fn a_demo_file_that_is_there_is_opened_as_it_is() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("shop.sqlite");
    drop(start(&file, false));
    let running = start(&file, true);
    assert!(running.jobs().await.is_empty(), "an existing file is never filled");
}

#[test]
fn exit_codes_tell_failure_from_misuse() {
    let folder = tempfile::tempdir().unwrap();
    let letter = folder.path().join("letter.txt");
    std::fs::write(&letter, "Dear customer, ".repeat(200)).unwrap();
    let letter = letter.to_str().unwrap();
    for (arguments, code, words) in [
        (vec!["--version"], 0, ""),
        (vec!["--help"], 0, ""),
        (vec!["serve", "--listen", "0.0.0.0:0"], 2, "needs a sign-in"),
        (vec!["serve", "--listen", "here"], 2, "127.0.0.1:7117"),
        (vec!["serve", "--colour"], 2, "--colour"),
        (vec!["paint"], 2, "paint"),
        (vec!["serve", "--listen", "127.0.0.1:0", "--data", letter], 1, "not a file of this program"),
    ] {
        let output = dimensione(&arguments).output().unwrap();
        let said = String::from_utf8_lossy(&output.stderr);
        assert_eq!(output.status.code(), Some(code), "{arguments:?}: {said}");
        assert!(said.contains(words), "{arguments:?} says {said}");
    }
}

#[tokio::test]
async fn a_second_start_is_told_who_holds_the_file_and_where() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("shop.sqlite");
    let running = start(&file, false);
    for demo in [false, true] {
        let mut arguments = vec!["serve", "--listen", "127.0.0.1:0", "--data", file.to_str().unwrap()];
        arguments.extend(demo.then_some("--demo"));
        let output = dimensione(&arguments).output().unwrap();
        let said = String::from_utf8_lossy(&output.stderr);
        assert_eq!(output.status.code(), Some(1), "{said}");
        let wanted = format!("is open in another program (process {}", running.child.id());
        assert!(said.contains(&wanted) && said.contains(&format!("at {}", running.url)), "{said}");
    }
    running.signal("-KILL");
    drop(running);
    start(&file, false).jobs().await;
}

#[tokio::test]
async fn two_demos_that_start_at_once_on_one_file_make_one_shop() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("shop.sqlite");
    let arguments = ["serve", "--demo", "--listen", "127.0.0.1:0", "--data", file.to_str().unwrap()];
    let mut both: Vec<Child> = (0..2).map(|_| dimensione(&arguments).spawn().unwrap()).collect();
    let mut lines = Vec::new();
    for child in &mut both {
        let mut line = String::new();
        BufReader::new(child.stdout.as_mut().unwrap()).read_line(&mut line).unwrap();
        lines.push(line);
    }
    let mut said = String::new();
    for (child, line) in both.iter_mut().zip(&lines) {
        if line.is_empty() {
            std::io::Read::read_to_string(child.stderr.as_mut().unwrap(), &mut said).unwrap();
        }
        let _ = child.kill();
        let _ = child.wait();
    }
    assert_eq!(lines.iter().filter(|line| line.starts_with("listening on")).count(), 1, "{lines:?}");
    assert!(said.contains("is open in another program"), "{said}");
}

#[tokio::test]
async fn a_demo_that_was_killed_leaves_its_folder_to_the_next_one() {
    let temporary = tempfile::tempdir().unwrap();
    let demo = || {
        let mut command = dimensione(&["serve", "--demo", "--listen", "127.0.0.1:0"]);
        let mut child = command.env("TMPDIR", temporary.path()).spawn().unwrap();
        let mut line = String::new();
        BufReader::new(child.stdout.as_mut().unwrap()).read_line(&mut line).unwrap();
        let url = line.trim().strip_prefix("listening on ").unwrap().to_owned();
        Running { child, url }
    };
    let folders = || {
        let all = std::fs::read_dir(temporary.path()).unwrap().map(|one| one.unwrap().file_name());
        all.filter(|name| name.to_string_lossy().starts_with("dimensione-demo-")).collect::<Vec<_>>()
    };
    let runs = demo();
    let first = folders();
    let killed = demo();
    assert_eq!(folders().len(), 2, "one that runs keeps its folder");
    drop(killed);
    let _third = demo();
    assert!(folders().len() == 2 && folders().contains(&first[0]), "{:?}", folders());
    runs.jobs().await;
}

/// A child that reads a file ends with its parent, and when nobody hears its answer any more.
#[test]
fn a_child_ends_with_whoever_asked_it() {
    // Its input stays open: it would wait for more of the file for good.
    let mut command = dimensione(&["read-apart", "photo"]);
    let mut child = command.env("MIMALLOC_ARENA_RESERVE", "0").stdin(Stdio::piped()).spawn().unwrap();
    let _input = child.stdin.take();
    drop(child.stdout.take());
    assert!(!child.wait().unwrap().success(), "its pipe is broken");
    let folder = tempfile::tempdir().unwrap();
    // A pipe that the child has open at both ends: nothing comes, and it does not end.
    let script = "mkfifo \"$1\"; exec 3<>\"$1\"; \"$2\" read-apart photo <&3 >/dev/null 2>&1 & echo $!; wait";
    let mut parent = Command::new("bash")
        .args(["-c", script, "-"])
        .arg(folder.path().join("pipe"))
        .arg(env!("CARGO_BIN_EXE_dimensione"))
        .env("MIMALLOC_ARENA_RESERVE", "0")
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let mut line = String::new();
    BufReader::new(parent.stdout.as_mut().unwrap()).read_line(&mut line).unwrap();
    let reads = || {
        let name = std::fs::read_to_string(format!("/proc/{}/status", line.trim())).unwrap_or_default();
        // One that ended and that nobody has asked after yet is gone as well.
        name.starts_with("Name:\tdimensione") && !name.contains("State:\tZ")
    };
    // It has become the program, and has said with whom it ends.
    while !reads() {
        std::thread::yield_now();
    }
    let is_set = || {
        let stat = std::fs::read_to_string(format!("/proc/{}/status", line.trim())).unwrap_or_default();
        // The thread that watches its pipe stands after that.
        stat.lines().any(|line| line.starts_with("Threads:") && line.ends_with('2'))
    };
    while !is_set() {
        std::thread::yield_now();
    }
    parent.kill().unwrap();
    parent.wait().unwrap();
    while reads() {
        std::thread::yield_now();
    }
}
