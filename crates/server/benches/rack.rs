//! The rack at size: 80 000 rows brought and taken over loopback, what others wait meanwhile, the finder over them, and
//! the memory they take. Prints `name median most`: seconds, milliseconds, megabytes as the name says.
#![allow(
    clippy::unwrap_used,
    clippy::print_stdout,
    reason = "a bench that cannot go on fails; it prints its figures"
)]

use std::fmt::Write;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::{Duration, Instant};

use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use serde_json::{Value, json};
use store::Store;
use tokio::net::TcpListener;

/// Lines of some 24 sizes and offsets, as a wheel list has them.
fn wheels(rng: &mut StdRng, count: u32) -> String {
    let mut list = String::from(
        "article,line,finish,construction,size,bolt_circle,bore_mm,seat,load_kg,mass_kg,price,stock\n",
    );
    for at in 1..=count {
        let (diameter, width) = (rng.random_range(15..22), f64::from(rng.random_range(12..24)) / 2.0);
        let circle = ["5x112", "5x114.3", "5x120", "5x108", "4x100", "5x100"][rng.random_range(0..6)];
        let finish = ["silver", "black", "bronze"][rng.random_range(0..3)];
        let _ = writeln!(
            list,
            "B{at},line {},{finish},cast,{diameter}x{width} ET{},{circle},72.6,cone 60°,{},{:.1},{},{}",
            at / 24,
            rng.random_range(0..60),
            rng.random_range(550..900),
            rng.random_range(7.0..14.0),
            rng.random_range(150..1200),
            rng.random_range(0..12),
        );
    }
    list
}

/// Lines of some 60 sizes, as a tire list has them.
fn tires(rng: &mut StdRng, count: u32) -> String {
    let mut list = String::from("article,line,kind,size,service,tread_mm,mass_kg,asymmetric,price,stock\n");
    for at in 1..=count {
        let section = 165 + 10 * rng.random_range(0..17);
        let kind = ["summer_performance", "all_season", "winter", "track_day"][rng.random_range(0..4)];
        let _ = writeln!(
            list,
            "A{at},tread {},{kind},{section}/{}R{},{}{} XL,{:.0},{:.1},yes,{},{}",
            at / 60,
            25 + 5 * rng.random_range(0..8),
            rng.random_range(15..22),
            rng.random_range(86..104),
            ["V", "W", "Y"][rng.random_range(0..3)],
            f64::from(section) * 0.86,
            rng.random_range(7.0..14.0),
            rng.random_range(70..400),
            rng.random_range(0..12),
        );
    }
    list
}

/// The program's own.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

struct Client {
    http: reqwest::Client,
    base: String,
}

impl Client {
    async fn post(&self, path: &str, body: &Value) -> Value {
        let sent = self.http.post(format!("{}{path}", self.base)).json(body).send().await.unwrap();
        assert!(sent.status().is_success(), "{path}: {}", sent.status());
        sent.json().await.unwrap()
    }

    /// Brings and takes a list; how many rows were new.
    async fn import(&self, kind: &str, list: String) -> u64 {
        let url = format!("{}/catalogue/lists?kind={kind}&supplier=bench&file_name=bench.csv", self.base);
        let sent = self.http.post(url).header("content-type", "application/octet-stream").body(list).send();
        let tried: Value = sent.await.unwrap().json().await.unwrap();
        assert_eq!(tried["faulty"], 0, "{:?}", tried["faults"]);
        let taken = self.post(&format!("/catalogue/lists/{}/take", tried["list"]["id"]), &json!({})).await;
        taken["new"].as_u64().unwrap()
    }
}

fn resident_mb() -> f64 {
    let status = std::fs::read_to_string("/proc/self/status").unwrap();
    let line = status.lines().find_map(|line| line.strip_prefix("VmRSS:")).unwrap();
    line.split_whitespace().next().unwrap().parse::<f64>().unwrap() * 1024.0 / 1e6
}

fn print(name: &str, mut figures: Vec<f64>) {
    figures.sort_by(f64::total_cmp);
    println!("{name} {:.2} {:.2}", figures[figures.len() / 2], figures[figures.len() - 1]);
}

/// What the catalogue of a file takes in a program that has just started: memory after the first search less before.
async fn memory_of(file: &str) {
    let store = Store::open(std::path::Path::new(file)).unwrap();
    let shelf = app::catalogue::CatalogueCache::default();
    // The first read opens the file.
    let page = store::jobs::Page { find: String::new(), put_away: false, from: 0, most: 1 };
    let jobs = store.read(move |c| store::jobs::list(c, &page)).await.unwrap();
    let before = resident_mb();
    let loaded = shelf.loaded(&store).await.unwrap();
    println!("{}", resident_mb() - before);
    drop((loaded, jobs));
}

#[tokio::main]
async fn main() {
    if let Some(file) = std::env::args().skip_while(|argument| argument != "--memory-of").nth(1) {
        return memory_of(&file).await;
    }
    // `cargo test` runs benches too, to see that they run.
    let is_bench = std::env::args().any(|argument| argument == "--bench");
    let (wheel_count, tire_count, rounds) = if is_bench { (50_000, 30_000, 21) } else { (300, 200, 2) };
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("shop.sqlite");
    let store = Store::open(&file).unwrap();
    let shop_file = store.clone();
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let base = format!("http://{}/api/v1", listener.local_addr().unwrap());
    let mut rng = StdRng::seed_from_u64(4);
    let lists = (wheels(&mut rng, wheel_count), tires(&mut rng, tire_count));
    tokio::spawn(server::serve(listener, server::AppState::new(store), std::future::pending()));
    let client = Client { http: reqwest::Client::new(), base: base.clone() };

    // Another advisor asks for the jobs all the while.
    let is_over = Arc::new(AtomicBool::new(false));
    let other = tokio::spawn({
        let is_over = Arc::clone(&is_over);
        async move {
            let http = reqwest::Client::new();
            let mut waited = vec![0.0];
            while !is_over.load(Ordering::Relaxed) {
                let start = Instant::now();
                http.get(format!("{base}/jobs")).send().await.unwrap().bytes().await.unwrap();
                waited.push(start.elapsed().as_secs_f64() * 1e3);
                tokio::time::sleep(Duration::from_millis(5)).await;
            }
            waited
        }
    });
    let start = Instant::now();
    let new = client.import("wheels", lists.0).await + client.import("tires", lists.1).await;
    let took = start.elapsed().as_secs_f64();
    is_over.store(true, Ordering::Relaxed);
    print("import_s", vec![took]);
    print("others_waited_ms", other.await.unwrap());
    // Lines can repeat a size and offset, not an article.
    assert_eq!(new, u64::from(wheel_count + tire_count));

    let job = json!({ "car_label": "bench", "fitted_line": "18x8 ET40 5x112 CB57.1 225/45R18 95Y" });
    let id = client.post("/jobs", &job).await["id"].as_i64().unwrap();
    let wish = json!({ "mixed_diameters": true, "rim_min_in": 17, "rim_max_in": 20, "count": 12 });
    let path = format!("/jobs/{id}/finder");
    let start = Instant::now();
    client.post(&path, &wish).await;
    print("first_finder_ms", vec![start.elapsed().as_secs_f64() * 1e3]);
    let mut found = Vec::new();
    for _ in 0..rounds {
        let start = Instant::now();
        client.post(&path, &wish).await;
        found.push(start.elapsed().as_secs_f64() * 1e3);
    }
    print("finder_ms", found);
    let mut pages = Vec::new();
    for find in ["", "bronze", "225/45R18", "nothing of that name"] {
        let start = Instant::now();
        let url = format!("{}/catalogue/rows", client.base);
        client.http.get(url).query(&[("kind", "wheels"), ("find", find)]).send().await.unwrap();
        pages.push(start.elapsed().as_secs_f64() * 1e3);
    }
    print("page_of_rows_ms", pages);
    // Another process cannot have the file while this one has it.
    shop_file.close().unwrap();
    let this = std::env::current_exe().unwrap();
    let told = std::process::Command::new(this).arg("--memory-of").arg(&file).output().unwrap();
    print("catalogue_mb", vec![String::from_utf8_lossy(&told.stdout).trim().parse().unwrap()]);
}
