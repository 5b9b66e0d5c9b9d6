//! Connections: slow heads, many of one address, and how the program stops whatever hangs.

use std::io::{Read, Write};
use std::net::TcpStream;
use std::time::Duration;

use axum::Router;
use axum::routing::get;
use server::serve::{Limits, serve};
use tokio::net::TcpListener;

use crate::program::{Running, start};

/// A server of one word within limits.
async fn served(limits: Limits) -> std::net::SocketAddr {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    let router = Router::new().route("/", get(|| async { "here" }));
    tokio::spawn(serve(listener, router, limits, std::future::pending()));
    address
}

/// What comes until the other side closes.
fn heard(mut stream: TcpStream) -> String {
    let mut bytes = Vec::new();
    // A reset is a close as well.
    let _ = stream.read_to_end(&mut bytes);
    String::from_utf8_lossy(&bytes).into_owned()
}

#[tokio::test(flavor = "multi_thread")]
async fn a_head_that_does_not_come_ends_its_connection() {
    let address = served(Limits { head_time: Duration::from_millis(100), ..Limits::default() }).await;
    for sent in ["GET / HTTP/1.1\r\nHost: 127.0.0.1\r\n", ""] {
        let mut stream = TcpStream::connect(address).unwrap();
        stream.write_all(sent.as_bytes()).unwrap();
        let closed = tokio::task::spawn_blocking(move || heard(stream)).await.unwrap();
        assert!(!closed.contains("200"), "{closed}");
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn one_address_has_a_bounded_number_of_connections() {
    let address = served(Limits { most_of_one_address: 3, ..Limits::default() }).await;
    let ask = |close: bool| {
        let mut stream = TcpStream::connect(address).unwrap();
        let end = if close { "close" } else { "keep-alive" };
        stream
            .write_all(format!("GET / HTTP/1.1\r\nHost: x\r\nConnection: {end}\r\n\r\n").as_bytes())
            .unwrap();
        stream
    };
    let held: Vec<TcpStream> = (0..3).map(|_| ask(false)).collect();
    for mut stream in held.iter() {
        let mut byte = [0; 1];
        stream.read_exact(&mut byte).unwrap();
    }
    let fourth = ask(true);
    let said = tokio::task::spawn_blocking(move || heard(fourth)).await.unwrap();
    assert!(said.is_empty() || said.contains("503"), "{said}");
    drop(held);
    // As soon as one of them is gone there is room again.
    loop {
        let stream = ask(true);
        let said = tokio::task::spawn_blocking(move || heard(stream)).await.unwrap();
        if said.contains("here") {
            break;
        }
    }
}

fn half_a_head(running: &Running) -> TcpStream {
    let address = running.url.strip_prefix("http://").unwrap();
    let mut stream = TcpStream::connect(address).unwrap();
    stream.write_all(b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\n").unwrap();
    stream
}

#[tokio::test(flavor = "multi_thread")]
async fn it_stops_although_somebody_has_sent_half_a_head() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("shop.sqlite");
    let mut running = start(&file, false);
    running.jobs().await;
    let _held = half_a_head(&running);
    running.signal("-TERM");
    assert_eq!(running.child.wait().unwrap().code(), Some(0));
    assert!(!folder.path().join("shop.sqlite-wal").exists(), "and leaves one whole file");
}

#[tokio::test(flavor = "multi_thread")]
async fn told_twice_it_stops_at_once() {
    let folder = tempfile::tempdir().unwrap();
    let mut running = start(&folder.path().join("shop.sqlite"), false);
    running.jobs().await;
    let _held = half_a_head(&running);
    running.signal("-TERM");
    // The first may not have been heard when the second comes: two of one kind count once to the system.
    loop {
        running.signal("-INT");
        if let Some(status) = running.child.try_wait().unwrap() {
            assert!(status.code().is_some());
            break;
        }
        tokio::task::yield_now().await;
    }
}
