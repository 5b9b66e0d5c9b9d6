//! The table of speeds and sizes. Never a test: machines differ.

use std::fs;
use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};

use anyhow::{Context, bail};

use crate::run::{cargo, output_of, quiet_step, root, step, target_folder};
use crate::{system, web};

/// Builds for release and prints the table, as it stands in `docs/measurements.md`.
pub(crate) fn measure() -> anyhow::Result<()> {
    system::install_browser()?;
    web::install()?;
    web::build()?;
    step(
        "building for release",
        &mut cargo(&["build", "--release", "--quiet", "--package", "server", "--package", "e2e"]),
    )?;
    let release = target_folder().join("release");
    quiet_step(
        "the core",
        &mut cargo(&["bench", "--quiet", "--package", "fitment", "--bench", "bench_plan", "--", "--quiet"]),
    )?;
    let finder = figures(&output_of(&mut cargo(&[
        "bench",
        "--quiet",
        "--package",
        "fitment",
        "--bench",
        "bench_finder",
    ]))?);
    eprintln!("· requests over loopback");
    let loopback =
        figures(&output_of(&mut cargo(&["bench", "--quiet", "--package", "server", "--bench", "loopback"]))?);
    let core = figures(&output_of(&mut cargo(&[
        "bench",
        "--quiet",
        "--package",
        "fitment",
        "--bench",
        "bench_brake",
        "--bench",
        "bench_motion",
    ]))?);
    eprintln!("· the rack at size");
    let rack =
        figures(&output_of(&mut cargo(&["bench", "--quiet", "--package", "server", "--bench", "rack"]))?);
    eprintln!("· start, memory, page");
    let program = release.join("dimensione");
    let mut starts: Vec<f64> = (0..9)
        .map(|_| Running::start(&program).map(|(_, took)| took.as_secs_f64() * 1e3))
        .collect::<anyhow::Result<_>>()?;
    starts.sort_by(f64::total_cmp);
    let (running, _) = Running::start(&program)?;
    std::thread::sleep(Duration::from_secs(2));
    let memory = running.memory_mb()?;
    let page = figures(&output_of(Command::new(release.join("page_speed")).arg(&running.url))?);
    let megabytes = |path: &Path| Ok::<_, std::io::Error>(fs::metadata(path)?.len() as f64 / 1e6);

    let mut rows = Rows::default();
    rows.add(
        "parse and compare a staggered setup with workings, core",
        "≤ 20 µs",
        format!("{:.1} µs", criterion("parse_and_compare_staggered")?),
    );
    rows.add("ledger of a staggered plan, core", "", format!("{:.1} µs", criterion("ledger_staggered")?));
    rows.add(
        "section of one wheel and tire, core",
        "",
        format!("{:.1} µs", criterion("section_of_one_wheel")?),
    );
    rows.add(
        "fit window of both axles from readings, core",
        "≤ 1 ms",
        format!("{:.0} µs", criterion("window_of_both_axles")?),
    );
    rows.add(
        "the same with the squarest tire on each width, core",
        "≤ 1 ms",
        format!("{:.0} µs", criterion("window_of_both_axles_squarest_tires")?),
    );
    let of = |name: &str, list: &[(String, f64, f64)]| {
        list.iter()
            .find(|row| row.0 == name)
            .map(|row| (row.1, row.2))
            .with_context(|| format!("no figure for {name}"))
    };
    for (rows_of, wanted) in [("1000", ""), ("10000", ""), ("50000", "≤ 100 ms"), ("100000", "")] {
        let took = of(&format!("find_open_{rows_of}"), &finder)?;
        rows.add(
            &format!(
                "finder, first page over {rows_of} wheels and 0.6 times as many tires, core, median / most"
            ),
            wanted,
            format!("{:.1} / {:.1} ms", took.0, took.1),
        );
    }
    let one = of("one_wheel_us", &core)?;
    rows.add(
        "one wheel over one caliper, 200 points each, core, median / most",
        "≤ 50 µs",
        format!("{:.0} / {:.0} µs", one.0, one.1),
    );
    for (name, what) in [
        ("catalogue_each_s", "50 000 wheels over one brake package, each by itself, core"),
        ("catalogue_by_size_s", "… like sizes once, as the program does it"),
    ] {
        rows.add(what, "≤ 1.5 s", format!("{:.2} s", of(name, &core)?.0));
    }
    for (name, what, wanted) in [
        ("fit_ms", "one axle against nine parts that were read, core", ""),
        ("sweep_corner_one_use_ms", "a corner in motion: words, ±, map and stretches of all parts, core", ""),
        ("sweep_corner_four_uses_ms", "all parts of a corner swept over four uses, core", "≤ 30 ms"),
        ("sweep_20000_places_ms", "20 000 places × 41 × 31 poses, core", "≤ 500 ms"),
        ("window_standing_both_axles_ms", "fit window of both axles, 14 parts, core", ""),
        ("window_standing_and_moving_both_axles_ms", "the same standing and on the road, core", "≤ 40 ms"),
        ("remedies_ms", "what turns a word in motion, core", ""),
        ("lift_ladder_ms", "the lift ladder, core", ""),
    ] {
        let (median, most) = of(name, &core)?;
        rows.add(&format!("{what}, median / most"), wanted, format!("{median:.1} / {most:.1} ms"));
    }
    for (name, what, unit, wanted) in [
        (
            "finder_ms",
            "`POST /jobs/{id}/finder` over 50 000 wheels and 30 000 tires, median / most",
            "ms",
            "≤ 150 ms",
        ),
        ("first_finder_ms", "the first one after a start or a new list", "ms", ""),
        ("import_s", "80 000 rows brought and taken", "s", "≤ 5 s"),
        ("others_waited_ms", "what another request waits meanwhile, median / most", "ms", ""),
        ("page_of_rows_ms", "a page of the catalogue found by words, median / most", "ms", ""),
        ("catalogue_mb", "memory of that catalogue", "MB", "≤ 150 MB"),
    ] {
        let (median, most) = of(name, &rack)?;
        let found = if what.contains("most") {
            format!("{median:.1} / {most:.1} {unit}")
        } else {
            format!("{median:.1} {unit}")
        };
        rows.add(what, wanted, found);
    }
    let (empty, compare, bench) =
        (of("empty_handler", &loopback)?, of("compare", &loopback)?, of("bench", &loopback)?);
    rows.add(
        "empty handler behind the same guards, median / p99",
        "",
        format!("{:.0} / {:.0} µs", empty.0, empty.1),
    );
    rows.add(
        "`POST /compare`, median / p99",
        "p99 ≤ 2 ms",
        format!("{:.0} / {:.0} µs", compare.0, compare.1),
    );
    rows.add(
        "`POST /compare` against the empty handler, medians",
        "≤ 2",
        format!("{:.2}", compare.0 / empty.0),
    );
    rows.add(
        "`POST /bench` (drawings, ledger, workings), median / p99",
        "",
        format!("{:.0} / {:.0} µs", bench.0, bench.1),
    );
    for name in ["fit", "window"] {
        let took = of(name, &loopback)?;
        rows.add(
            &format!("`POST /{name}`, median / p99"),
            "p99 ≤ 5 ms",
            format!("{:.0} / {:.0} µs", took.0, took.1),
        );
    }
    let redraw = of("redraw_after_answer", &page)?;
    rows.add(
        "corner redrawn after the answer, median / p99",
        "≤ 16 ms",
        format!("{:.1} / {:.1} ms", redraw.0, redraw.1),
    );
    let apart = of("window_redraws_apart", &page)?;
    rows.add(
        "fit window redrawn while a lever is pulled, time between redraws, median / p99",
        "≤ 33 ms (30 a second)",
        format!("{:.1} / {:.1} ms", apart.0, apart.1),
    );
    rows.add(
        "first page usable, cold cache, median",
        "≤ 1 s",
        format!("{:.0} ms", of("first_page_usable", &page)?.0),
    );
    rows.add("JavaScript, gzipped", "≤ 250 kB", format!("{:.0} kB", javascript_kb()?));
    rows.add("start to listening, median of 9", "≤ 300 ms", format!("{:.0} ms", starts[starts.len() / 2]));
    rows.add("idle memory (resident)", "≤ 25 MB", format!("{memory:.1} MB"));
    rows.add("binary", "≤ 15 MB", format!("{:.1} MB", megabytes(&program)?));
    rows.print()
}

#[derive(Default)]
struct Rows(Vec<[String; 3]>);

impl Rows {
    fn add(&mut self, what: &str, wanted: &str, found: String) {
        self.0.push([what.to_owned(), wanted.to_owned(), found]);
    }

    #[allow(clippy::print_stdout, reason = "the table is what the chore is for")]
    fn print(&self) -> anyhow::Result<()> {
        let cores = std::thread::available_parallelism()?;
        let memory = fs::read_to_string("/proc/meminfo")?;
        let kb: f64 = memory.split_whitespace().nth(1).context("/proc/meminfo")?.parse()?;
        println!("{cores} cores, {:.0} GB of memory.\n", kb / 1e6);
        println!("| what | wanted | measured |\n|---|---|---|");
        for [what, wanted, found] in &self.0 {
            println!("| {what} | {wanted} | {found} |");
        }
        Ok(())
    }
}

/// Lines `name median p99`.
fn figures(output: &[u8]) -> Vec<(String, f64, f64)> {
    String::from_utf8_lossy(output)
        .lines()
        .filter_map(|line| {
            let mut words = line.split_whitespace();
            Some((words.next()?.to_owned(), words.next()?.parse().ok()?, words.next()?.parse().ok()?))
        })
        .collect()
}

/// Criterion's median of a bench, in microseconds.
fn criterion(name: &str) -> anyhow::Result<f64> {
    let file = target_folder().join("criterion").join(name).join("new/estimates.json");
    let text = fs::read(&file).with_context(|| format!("cannot read {}", file.display()))?;
    let estimates: serde_json::Value = serde_json::from_slice(&text)?;
    let median = estimates["median"]["point_estimate"].as_f64().context("no median")?;
    Ok(median / 1e3)
}

fn javascript_kb() -> anyhow::Result<f64> {
    let mut bytes = 0;
    for entry in fs::read_dir(root().join("web/dist/assets"))? {
        let path = entry?.path();
        if path.to_string_lossy().ends_with(".js.gz") {
            bytes += fs::metadata(path)?.len();
        }
    }
    Ok(bytes as f64 / 1e3)
}

/// The program over the sample shop; stopped when dropped.
struct Running {
    child: Child,
    url: String,
}

impl Running {
    fn start(program: &Path) -> anyhow::Result<(Self, Duration)> {
        let start = Instant::now();
        let mut child = Command::new(program)
            .args(["serve", "--demo", "--listen", "127.0.0.1:0"])
            .stdout(Stdio::piped())
            .spawn()?;
        let mut line = String::new();
        BufReader::new(child.stdout.as_mut().context("no output")?).read_line(&mut line)?;
        let took = start.elapsed();
        let Some(url) = line.trim().strip_prefix("listening on ") else { bail!("the program said {line:?}") };
        let url = url.to_owned();
        Ok((Self { child, url }, took))
    }

    fn memory_mb(&self) -> anyhow::Result<f64> {
        let status = fs::read_to_string(format!("/proc/{}/status", self.child.id()))?;
        let line = status.lines().find_map(|line| line.strip_prefix("VmRSS:")).context("VmRSS")?;
        let kb: f64 = line.split_whitespace().next().context("VmRSS")?.parse()?;
        Ok(kb * 1024.0 / 1e6)
    }
}

impl Drop for Running {
    fn drop(&mut self) {
        // It may have ended by itself; either way it is gone afterwards.
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}
