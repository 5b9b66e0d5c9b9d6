//! The page's own tests (`web/tests`: saving, merging, keys, drafts, figures), run by the page's test runner.
#![allow(clippy::unwrap_used, reason = "a test that cannot go on fails")]

use std::path::Path;
use std::process::Command;

/// What the runner says when all is well, before the count.
const PASSED: &str = "\"numPassedTests\":";

#[test]
fn the_pages_own_machines_hold() {
    let web = Path::new(concat!(env!("CARGO_MANIFEST_DIR"), "/../web"));
    if !web.join("node_modules/vitest").exists() {
        let installed = Command::new("npm")
            .args(["ci", "--no-audit", "--no-fund", "--silent"])
            .current_dir(web)
            .status()
            .unwrap();
        assert!(installed.success(), "the page's packages cannot be installed: run cargo verify");
    }
    let run = Command::new(web.join("node_modules/.bin/vitest"))
        .args(["run", "--reporter=json", "--no-color"])
        .current_dir(web)
        .output()
        .unwrap();
    let said = String::from_utf8_lossy(&run.stdout);
    let why = String::from_utf8_lossy(&run.stderr);
    let passed = said.split(PASSED).nth(1).and_then(|rest| rest.split(',').next());
    let passed: u32 = passed.and_then(|count| count.trim().parse().ok()).unwrap_or_default();
    assert!(run.status.success(), "{}\n{why}", failures(&said));
    assert!(passed > 40, "only {passed} of the page's tests ran\n{why}");
}

/// Names and reasons of the tests that failed, out of the runner's report.
fn failures(report: &str) -> String {
    let report: serde_json::Value = serde_json::from_str(report).unwrap_or_default();
    let files = report["testResults"].as_array().cloned().unwrap_or_default();
    let failed = files.iter().flat_map(|file| {
        let tests = file["assertionResults"].as_array().cloned().unwrap_or_default();
        let name = file["name"].as_str().unwrap_or_default().to_owned();
        let whole = (file["status"] == "failed" && tests.is_empty())
            .then(|| format!("{name}: {}", file["message"].as_str().unwrap_or_default()));
        let each = tests.into_iter().filter(|test| test["status"] == "failed").map(move |test| {
            format!(
                "{name}: {}\n{}",
                test["fullName"],
                test["failureMessages"][0].as_str().unwrap_or_default()
            )
        });
        whole.into_iter().chain(each)
    });
    failed.collect::<Vec<_>>().join("\n\n")
}
