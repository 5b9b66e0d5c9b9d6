//! Files that mean harm, and sound ones with seeded damage.

use std::io::Cursor;
use std::path::Path;
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, AtomicUsize, Ordering};
use std::time::{Duration, Instant};

use anyhow::Context;
use image::{ImageFormat, RgbImage};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use reqwest::Method;
use serde_json::json;

use crate::{Outcome, Program};

/// A sound file of a format, and where it is sent.
#[derive(Debug, Clone)]
struct Seed {
    name: &'static str,
    path: String,
    bytes: Vec<u8>,
}

/// What came of sending files.
#[derive(Debug, Default)]
struct Tally {
    sent: AtomicUsize,
    failed: AtomicUsize,
    unanswered: AtomicUsize,
    slowest_ms: AtomicU64,
    peak_kb: AtomicU64,
}

impl Tally {
    async fn send(&self, running: &Program, path: &str, bytes: Vec<u8>) {
        let start = Instant::now();
        let watch = async {
            // Its children are gone when it answers: they are looked at while it works.
            loop {
                self.peak_kb.fetch_max(running.resident_kb(), Ordering::Relaxed);
                tokio::time::sleep(Duration::from_millis(2)).await;
            }
        };
        let status = tokio::select! {
            status = running.upload(path, bytes) => status,
            () = watch => None,
        };
        let took = u64::try_from(start.elapsed().as_millis()).unwrap_or(u64::MAX);
        self.sent.fetch_add(1, Ordering::Relaxed);
        self.slowest_ms.fetch_max(took, Ordering::Relaxed);
        match status {
            None => self.unanswered.fetch_add(1, Ordering::Relaxed),
            Some(500..) => self.failed.fetch_add(1, Ordering::Relaxed),
            Some(_) => 0,
        };
    }

    fn outcome(&self, what: String, running: &mut Program, bounds: bool) -> Outcome {
        let read = |number: &AtomicUsize| number.load(Ordering::Relaxed);
        let (failed, unanswered) = (read(&self.failed), read(&self.unanswered));
        let aborts = usize::from(!running.runs()) + unanswered;
        let (slowest, peak) = (self.slowest_ms.load(Ordering::Relaxed), self.peak_kb.load(Ordering::Relaxed));
        let peak = peak.max(running.peak_kb()) / 1024;
        Outcome {
            what,
            wanted: "0 aborts, 0 of 5xx, ≤ 2 s, ≤ 300 MB",
            found: format!("{aborts} aborts, {failed} of 5xx, slowest {slowest} ms, {peak} MB at most"),
            is_held: aborts == 0 && failed == 0 && (!bounds || (slowest <= 2000 && peak <= 300)),
        }
    }
}

/// Sends every file of a folder to whatever could read it.
///
/// # Errors
/// When the folder cannot be read or the program not be started.
pub async fn samples(program: &Path, folder: &Path, bounds: bool) -> anyhow::Result<Outcome> {
    let data = tempfile::tempdir()?;
    let mut running = Program::start(program, &data.path().join("shop.sqlite"), true).await?;
    let tally = Tally::default();
    let mut files: Vec<Vec<u8>> = Vec::new();
    for entry in std::fs::read_dir(folder).with_context(|| format!("{}", folder.display()))? {
        files.push(std::fs::read(entry?.path())?);
    }
    files.extend(made());
    for bytes in &files {
        for path in PATHS {
            tally.send(&running, path, bytes.clone()).await;
        }
    }
    Ok(tally.outcome(format!("{} hostile files, each to every reader", files.len()), &mut running, bounds))
}

const PATHS: [&str; 4] =
    ["/catalogue/lists?kind=wheels&supplier=x", "/profiles/read?unit=mm", "/proven", "/jobs/1/photos"];

/// Hostile files that are too large to be kept beside the code.
fn made() -> Vec<Vec<u8>> {
    let nested = format!("<svg>{}{}</svg>", "<g id=\"a\">".repeat(90_000), "</g>".repeat(90_000));
    let ids: String = (0..49_000).map(|at| format!("<path id=\"p{at}\" d=\"M{at} -9L{at} -8\"/>")).collect();
    let pieces: String = (0..50_000).map(|at| format!("<path d=\"M{at} -9L{at}.5 -9\"/>")).collect();
    let layers: String = (0..50_000).map(|at| format!("{at},1,layer {at}\n")).collect();
    let bulges = "10\n0.0\n20\n100.0\n42\n0.9\n10\n50000.0\n20\n100.0\n42\n0.9\n".repeat(60_000);
    let dxf = |body: &str| format!("0\nSECTION\n2\nENTITIES\n{body}0\nENDSEC\n0\nEOF\n").into_bytes();
    let wide: String = (0..200).map(|at| format!("c{at},")).collect();
    let control: String = (0..2_000).map(|at| format!("10\n{at}.0\n20\n{}.0\n", at % 90)).collect();
    let knots: String = (0..2_012).map(|at| format!("40\n{at}.0\n")).collect();
    vec![
        nested.into_bytes(),
        format!("<svg>{ids}</svg>").into_bytes(),
        format!("<svg width=\"100mm\" viewBox=\"0 0 100 100\"><g id=\"a\">{pieces}</g></svg>").into_bytes(),
        layers.into_bytes(),
        dxf(&format!("0\nLWPOLYLINE\n8\na\n90\n120000\n70\n0\n{bulges}")),
        dxf(&"0\nLINE\n8\na\n".repeat(600_000)),
        dxf(&format!("0\nSPLINE\n8\na\n71\n11\n72\n2012\n73\n2000\n{knots}{control}")),
        format!("{wide}\n{}", "x\n".repeat(199_000)).into_bytes(),
        format!("a,b\n{}", ",".repeat(8_000_000)).into_bytes(),
        format!("[{}]", "[],".repeat(2_000_000)).into_bytes(),
        format!("[{}{}]", "[".repeat(100_000), "]".repeat(100_000)).into_bytes(),
        vec![b'9'; 7_000_000],
    ]
}

/// Sends seeded mutations of each format's sound file.
///
/// # Errors
/// When the program cannot be started or has no sound files.
pub async fn mutations(
    program: &Path,
    of_each: usize,
    seed: u64,
    bounds: bool,
) -> anyhow::Result<Vec<Outcome>> {
    let data = tempfile::tempdir()?;
    let mut running = Arc::new(Program::start(program, &data.path().join("shop.sqlite"), true).await?);
    let seeds = seeds(&running).await?;
    let mut outcomes = Vec::new();
    for (at, sound) in seeds.into_iter().enumerate() {
        let tally = Arc::new(Tally::default());
        let sound = Arc::new(sound);
        let next = Arc::new(AtomicUsize::new(0));
        // Two at a time, as many as the program reads at once.
        let senders: Vec<_> = (0..2)
            .map(|_| {
                let (running, tally, sound, next) =
                    (Arc::clone(&running), Arc::clone(&tally), Arc::clone(&sound), Arc::clone(&next));
                tokio::spawn(async move {
                    loop {
                        let count = next.fetch_add(1, Ordering::Relaxed);
                        if count >= of_each {
                            return;
                        }
                        // Each mutation by its own number: the same whoever sends it, and when.
                        let number = seed ^ ((at as u64) << 32) ^ count as u64;
                        let bytes = mutated(&sound.bytes, &mut StdRng::seed_from_u64(number));
                        tally.send(&running, &sound.path, bytes).await;
                    }
                })
            })
            .collect();
        for sender in senders {
            sender.await?;
        }
        let what = format!("{of_each} mutations of {}", sound.name);
        let running = Arc::get_mut(&mut running).context("a sender is left")?;
        outcomes.push(tally.outcome(what, running, bounds));
    }
    Ok(outcomes)
}

/// A sound file of each format: what the program itself writes, and small pictures.
async fn seeds(running: &Program) -> anyhow::Result<Vec<Seed>> {
    let mut seeds = Vec::new();
    let fetch = |path: &'static str| async move {
        let bytes = running.client.get(running.url(path)).send().await?.error_for_status()?.bytes().await?;
        Ok::<_, anyhow::Error>(bytes.to_vec())
    };
    for (name, from) in [
        ("CSV", "/catalogue/export?kind=wheels&format=csv"),
        ("XLSX", "/catalogue/export?kind=wheels&format=xlsx"),
        ("JSON", "/catalogue/export?kind=wheels&format=json"),
    ] {
        let path = "/catalogue/lists?kind=wheels&supplier=x".to_owned();
        seeds.push(Seed { name, path, bytes: fetch(from).await? });
    }
    for (name, from) in
        [("proven CSV", "/proven/export?format=csv"), ("proven JSON", "/proven/export?format=json")]
    {
        seeds.push(Seed { name, path: "/proven".to_owned(), bytes: fetch(from).await? });
    }
    for (name, format) in [("DXF", "dxf"), ("SVG", "svg"), ("profile CSV", "csv")] {
        let points: Vec<[f64; 2]> =
            (0..24).map(|at| [f64::from(at) * 3.5 - 40.0, 150.0 + f64::from(at % 7)]).collect();
        let body = json!({ "format": format, "name": "caliper", "points": points });
        let answer = running.client.post(running.url("/profiles/write")).json(&body).send().await?;
        let bytes = answer.error_for_status()?.bytes().await?.to_vec();
        seeds.push(Seed { name, path: "/profiles/read?unit=mm".to_owned(), bytes });
    }
    let curves = "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"300mm\" viewBox=\"0 -300 300 300\"><g id=\"a\">\
                  <path d=\"M0 -10C5 -20 20 -30 40 -10S80 -20 90 -30Q95 -40 100 -30A20 20 0 0 1 120 -10Z\"/></g></svg>";
    let path = "/profiles/read".to_owned();
    seeds.push(Seed { name: "SVG with curves", path, bytes: curves.into() });
    let picture = RgbImage::from_fn(48, 40, |x, y| image::Rgb([x as u8 * 5, y as u8 * 6, 90]));
    for (name, format) in
        [("JPEG", ImageFormat::Jpeg), ("PNG", ImageFormat::Png), ("WebP", ImageFormat::WebP)]
    {
        let mut bytes = Vec::new();
        picture.write_to(&mut Cursor::new(&mut bytes), format)?;
        seeds.push(Seed { name, path: "/jobs/1/photos".to_owned(), bytes });
    }
    // A reader that refuses its own sound file would make every mutation meaningless.
    for seed in &seeds {
        let status = running.upload(&seed.path, seed.bytes.clone()).await;
        anyhow::ensure!(status.is_some_and(|status| status < 300), "{}: {status:?}", seed.name);
    }
    anyhow::ensure!(running.ask(Method::GET, "/house", None).await.is_some(), "it does not answer");
    Ok(seeds)
}

/// Damage as it happens, and as somebody does it: flipped bits, bytes put in, left out, doubled and cut off, numbers made
/// absurd.
fn mutated(sound: &[u8], rng: &mut StdRng) -> Vec<u8> {
    let mut bytes = sound.to_vec();
    for _ in 0..rng.random_range(1..6) {
        if bytes.is_empty() {
            break;
        }
        let at = rng.random_range(0..bytes.len());
        match rng.random_range(0..8) {
            0 => bytes[at] ^= 1 << rng.random_range(0..8),
            1 => bytes[at] = rng.random_range(0..=255),
            2 => bytes.insert(at, rng.random_range(0..=255)),
            3 => {
                bytes.remove(at);
            }
            4 => bytes.truncate(at),
            5 => {
                let to = (at + rng.random_range(1..64)).min(bytes.len());
                let piece = bytes[at..to].to_vec();
                for _ in 0..rng.random_range(1..20) {
                    bytes.splice(at..at, piece.iter().copied());
                }
            }
            6 => {
                let absurd = ["1e308", "-1e30", "99999999999", "NaN", "0x7fffffff", "\u{0}", "A1048576"];
                bytes.splice(at..at, absurd[rng.random_range(0..absurd.len())].bytes());
            }
            _ => {
                let to = (at + rng.random_range(1..64)).min(bytes.len());
                bytes.drain(at..to);
            }
        }
    }
    bytes
}
