//! What a request costs over loopback, on one kept-alive connection as a dragging page has: medians and 99th
//! percentiles, beside an empty handler's. Prints `name median_us p99_us`.
#![allow(
    clippy::unwrap_used,
    clippy::print_stdout,
    reason = "a bench that cannot go on fails; it prints its figures"
)]

use std::net::SocketAddr;
use std::time::Instant;

use axum::Router;
use axum::routing::post;
use store::Store;
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::{TcpListener, TcpStream};

const ROUNDS: usize = 4_000;

const BODY: &str = r#"{"fitted":{"front":"18x8 ET34 225/45R18 95Y","rear":"18x8.5 ET47 245/40R18 97Y"},"planned":{"front":"19x8.5 ET33 235/35R19 91Y","rear":"19x9.5 ET40 265/30R19 93Y 3 mm spacer"}}"#;

/// A corner with what an advisor reads first, as in the API's description.
const CORNER: &str = r#""corner":{"fitted":"18x8.5 ET47 245/40R18 97Y","camber_deg":-1.6,"readings":[{"feature":"strut","gap_mm":31.7,"plus_minus_mm":0.2},{"feature":"spring_perch","gap_mm":27.4,"plus_minus_mm":0.2,"radius_mm":300},{"feature":"fender_lateral","gap_mm":24,"plus_minus_mm":1},{"feature":"arch","gap_mm":60,"plus_minus_mm":1}]},"planned":"19x9.5 ET40 265/30R19 93Y 3 mm spacer""#;

#[tokio::main]
async fn main() {
    // `cargo test` runs benches too, to see that they run.
    let rounds = if std::env::args().any(|argument| argument == "--bench") { ROUNDS } else { 20 };
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("shop.sqlite")).unwrap();
    let program = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let program_at = program.local_addr().unwrap();
    tokio::spawn(server::serve(program, server::AppState::new(store), std::future::pending()));
    let empty = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let empty_at = empty.local_addr().unwrap();
    // The same guards and limits before a handler that does nothing.
    let nothing = Router::new().route("/", post(|_: String| async { "{}" }));
    tokio::spawn(async { axum::serve(empty, server::guarded(nothing)).await });
    let corner = format!("{{{CORNER}}}");
    for (name, address, path, body) in [
        ("warm_up", program_at, "/api/v1/compare", BODY),
        ("empty_handler", empty_at, "/", BODY),
        ("compare", program_at, "/api/v1/compare", BODY),
        ("bench", program_at, "/api/v1/bench", BODY),
        ("fit", program_at, "/api/v1/fit", &corner),
        ("window", program_at, "/api/v1/window", &corner),
    ] {
        let mut took = rounds_of(rounds, address, path, body).await;
        took.sort_by(f64::total_cmp);
        let at = |share: f64| took[((took.len() - 1) as f64 * share) as usize];
        println!("{name} {:.0} {:.0}", at(0.5), at(0.99));
    }
}

/// Microseconds of each round.
async fn rounds_of(rounds: usize, address: SocketAddr, path: &str, body: &str) -> Vec<f64> {
    let mut stream = TcpStream::connect(address).await.unwrap();
    stream.set_nodelay(true).unwrap();
    let request = format!(
        "POST {path} HTTP/1.1\r\nhost: {address}\r\ncontent-type: application/json\r\ncontent-length: {}\r\n\r\n{body}",
        body.len()
    );
    let mut buffer = vec![0; 256 * 1024];
    let mut took = Vec::with_capacity(rounds);
    for _ in 0..rounds {
        let start = Instant::now();
        stream.write_all(request.as_bytes()).await.unwrap();
        let mut filled = 0;
        loop {
            filled += stream.read(&mut buffer[filled..]).await.unwrap();
            if is_whole(&buffer[..filled]) {
                break;
            }
        }
        took.push(start.elapsed().as_secs_f64() * 1e6);
    }
    took
}

/// Whether head and body have arrived.
fn is_whole(bytes: &[u8]) -> bool {
    let Some(head) = bytes.windows(4).position(|four| four == b"\r\n\r\n") else { return false };
    let text = String::from_utf8_lossy(&bytes[..head]).to_lowercase();
    assert!(text.starts_with("http/1.1 200"), "{text}");
    let length: usize =
        text.lines().find_map(|line| line.strip_prefix("content-length: ")).unwrap().trim().parse().unwrap();
    bytes.len() >= head + 4 + length
}
