//! What breaks the program, if anything does: the table of `docs/measurements.md`. Bounded and seeded; about half an hour.

use std::io::{BufRead, BufReader, Write};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};

use anyhow::{Context, bail};

use crate::run::{cargo, quiet_step, root, step, target_folder};
use crate::{system, web};

/// The contract's tester, as it was tried here.
const SCHEMATHESIS: &str = "schemathesis==4.32.5";
/// Cases that the contract is held against, at least.
const CASES: usize = 20_000;

/// Builds for release, and prints a line for each way of breaking it.
pub(crate) fn torture(rest: &[String]) -> anyhow::Result<()> {
    system::install_browser()?;
    system::need_strace()?;
    web::install()?;
    web::build()?;
    step(
        "building for release",
        &mut cargo(&["build", "--release", "--quiet", "--package", "server", "--package", "torture"]),
    )?;
    let release = target_folder().join("release");
    let program = release.join("dimensione");
    println("| what | wanted | found |\n|---|---|---|")?;
    // Only whose work it is, and what is true.
    let mut all_held = rest.iter().any(|one| one == "--whose") || contract(&program)?;
    step("building the browser's rounds", &mut cargo(&["build", "--quiet", "--package", "e2e"]))?;
    all_held &= Command::new(target_folder().join("debug/swaps")).arg(SWAPS).status()?.success();
    for how in ["blocked", "full"] {
        all_held &= journeys(how)?;
    }
    eprintln!(
        "· swaps, starts, module, files lost and damaged, connections, bodies, ports, stop, files, kills, mutations, soak"
    );
    let status = Command::new(release.join("torture"))
        .arg(&program)
        .arg(root().join("crates/server/tests/hostile"))
        .args(rest)
        .status()?;
    all_held &= status.success();
    if all_held { Ok(()) } else { bail!("not everything held") }
}

/// Rounds of a real browser over swapped files.
const SWAPS: &str = "20";

/// The page's journeys in a browser that keeps nothing.
fn journeys(how: &str) -> anyhow::Result<bool> {
    eprintln!("· journeys with storage {how}");
    let output = cargo(&["test", "--quiet", "--package", "e2e", "--test", "it", "--", "journeys::"])
        .env("E2E_STORAGE", how)
        .output()?;
    let text = String::from_utf8_lossy(&output.stdout).into_owned();
    let closing = text.lines().rev().find(|line| line.starts_with("test result:")).unwrap_or("no result");
    let passed = closing.split(';').take(2).collect::<Vec<_>>().join(";").replace("test result: ", "");
    let is_held = output.status.success();
    let mark = if is_held { "" } else { " **not held**" };
    println(&format!("| the page's journeys with storage {how} | all pass | {passed}{mark} |"))?;
    Ok(is_held)
}

#[allow(clippy::print_stdout, reason = "the table is what the chore is for")]
fn println(line: &str) -> anyhow::Result<()> {
    println!("{line}");
    std::io::stdout().flush()?;
    Ok(())
}

/// Holds every operation against its own description, by schemathesis in an environment of its own.
fn contract(program: &Path) -> anyhow::Result<bool> {
    let tester = tester()?;
    let folder = target_folder().join("torture");
    std::fs::create_dir_all(&folder)?;
    let (mut cases, mut failures, mut runs) = (0, 0, 0);
    // Each run with a seed of its own, until there are enough cases.
    while cases < CASES && runs < 12 {
        runs += 1;
        let running = Running::start(program)?;
        eprintln!("· contract, seed {runs}");
        let report = folder.join(format!("contract-{runs}.json"));
        let log = folder.join(format!("contract-{runs}.log"));
        let output = Command::new(&tester)
            .args(["run", &format!("{}/api/v1/openapi.json", running.url)])
            .args(["--checks", "not_a_server_error,status_code_conformance,content_type_conformance,response_schema_conformance"])
            .args(["--phases", "examples,coverage,fuzzing"])
            .args(["--max-examples", "60", "--seed", &runs.to_string(), "--workers", "2", "--no-color"])
            .args(["--suppress-health-check", "all", "--request-timeout", "60"])
            .current_dir(&folder)
            .stdin(Stdio::null())
            .output()
            .with_context(|| format!("cannot run {}", tester.display()))?;
        std::fs::write(&log, &output.stdout)?;
        std::fs::write(&report, &output.stderr)?;
        let text = String::from_utf8_lossy(&output.stdout).into_owned();
        let (run, failed) = counts(&text).with_context(|| format!("{} says no counts", log.display()))?;
        cases += run;
        failures += failed;
    }
    println(&format!(
        "| {cases} contract cases in {runs} seeded runs (schemathesis) | 0 of 5xx, 0 undescribed statuses | {failures} failures{} |",
        if failures == 0 { "" } else { " **not held**" }
    ))?;
    Ok(failures == 0)
}

/// How many cases were generated, and how many of them found something, by the last lines of the tester.
fn counts(text: &str) -> Option<(usize, usize)> {
    let number_before = |line: &str, word: &str| -> Option<usize> {
        let words: Vec<&str> = line.split([' ', ',', '(', ')']).filter(|word| !word.is_empty()).collect();
        let at = words.iter().position(|one| *one == word)?;
        words.get(at.checked_sub(1)?)?.parse().ok()
    };
    // "  1234 generated, 1230 passed, 4 found 2 unique failures"
    let line = text.lines().rev().find(|line| line.contains(" generated"))?;
    Some((number_before(line, "generated")?, number_before(line, "found").unwrap_or(0)))
}

/// The tester's command; made ready once.
fn tester() -> anyhow::Result<PathBuf> {
    let venv = target_folder().join("torture/venv");
    let command = venv.join("bin/schemathesis");
    if command.exists() {
        return Ok(command);
    }
    system::need_python()?;
    std::fs::create_dir_all(target_folder().join("torture"))?;
    quiet_step("a Python environment", Command::new("python3").args(["-m", "venv"]).arg(&venv))?;
    quiet_step(
        "schemathesis",
        Command::new(venv.join("bin/pip")).args(["install", "--quiet", SCHEMATHESIS]),
    )?;
    Ok(command)
}

/// The program over a sample shop of its own.
struct Running {
    child: Child,
    url: String,
}

impl Running {
    fn start(program: &Path) -> anyhow::Result<Self> {
        let mut child = Command::new(program)
            .args(["serve", "--demo", "--listen", "127.0.0.1:0"])
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()?;
        let mut line = String::new();
        BufReader::new(child.stdout.as_mut().context("no output")?).read_line(&mut line)?;
        let Some(url) = line.trim().strip_prefix("listening on ") else { bail!("the program said {line:?}") };
        Ok(Self { url: url.to_owned(), child })
    }
}

impl Drop for Running {
    fn drop(&mut self) {
        // It may have ended by itself; either way it is gone afterwards.
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

#[cfg(test)]
mod tests {
    use super::counts;

    #[test]
    fn counts_are_read_off_the_testers_summary() {
        let text = "Test cases:\n  11827 generated, 11800 found 6 unique failures, 12 skipped\n\nSeed: 1\n";
        assert_eq!(counts(text), Some((11827, 11800)));
        assert_eq!(counts("  300 generated, 300 passed\n"), Some((300, 0)));
        assert_eq!(counts("nothing ran"), None);
    }
}
