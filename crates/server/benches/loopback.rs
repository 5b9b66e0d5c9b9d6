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

#[tokio::main]
async fn main() {
    // `cargo test` runs benches too, to see that they run.
    let rounds = if std::env::args().any(|argument| argument == "--bench") { ROUNDS } else { 20 };
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("shop.sqlite")).unwrap();
    let program = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let program_at = program.local_addr().unwrap();
    tokio::spawn(server::serve(program, server::Shop::new(store), std::future::pending()));
    let empty = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let empty_at = empty.local_addr().unwrap();
    // The same guards and limits before a handler that does nothing.
    let nothing = Router::new().route("/", post(|_: String| async { "{}" }));
    tokio::spawn(async { axum::serve(empty, server::guarded(nothing)).await });
    for (name, address, path) in [
        ("warm_up", program_at, "/api/v1/compare"),
        ("empty_handler", empty_at, "/"),
        ("compare", program_at, "/api/v1/compare"),
        ("bench", program_at, "/api/v1/bench"),
    ] {
        let mut took = rounds_of(rounds, address, path).await;
        took.sort_by(f64::total_cmp);
        let at = |share: f64| took[((took.len() - 1) as f64 * share) as usize];
        println!("{name} {:.0} {:.0}", at(0.5), at(0.99));
    }
}

/// Microseconds of each round.
async fn rounds_of(rounds: usize, address: SocketAddr, path: &str) -> Vec<f64> {
    let mut stream = TcpStream::connect(address).await.unwrap();
    stream.set_nodelay(true).unwrap();
    let request = format!(
        "POST {path} HTTP/1.1\r\nhost: {address}\r\ncontent-type: application/json\r\ncontent-length: {}\r\n\r\n{BODY}",
        BODY.len()
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
