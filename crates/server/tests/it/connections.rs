//! Connections: slow heads, many of one address, and how the program stops whatever hangs.

use std::io::{Read, Write};
use std::net::TcpStream;
use std::time::Duration;

use axum::routing::{get, post};
use axum::{Extension, Router};
use server::serve::{LeastRate, Limits, LongAnswer, serve};
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

/// Asks once on a connection that stays open, and hears the first byte of the answer.
fn kept_open(address: std::net::SocketAddr) -> TcpStream {
    let mut stream = TcpStream::connect(address).unwrap();
    stream.write_all(b"GET / HTTP/1.1\r\nHost: x\r\n\r\n").unwrap();
    stream.read_exact(&mut [0; 1]).unwrap();
    stream
}

fn asked_once(address: std::net::SocketAddr, path: &str) -> TcpStream {
    let mut stream = TcpStream::connect(address).unwrap();
    stream
        .write_all(format!("GET {path} HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n").as_bytes())
        .unwrap();
    stream
}

#[tokio::test(flavor = "multi_thread")]
async fn when_there_is_no_room_the_one_that_waited_longest_gives_way() {
    let address = served(Limits { most_of_one_peer: 3, ..Limits::default() }).await;
    let (said, first) = tokio::task::spawn_blocking(move || {
        let mut held: Vec<TcpStream> = (0..3).map(|_| kept_open(address)).collect();
        let said = heard(asked_once(address, "/"));
        (said, heard(held.remove(0)))
    })
    .await
    .unwrap();
    assert!(said.contains("here"), "a page gets in: {said}");
    assert!(!first.contains("400"), "and the first to wait is let go: {first}");
}

/// A server of answers of many megabytes, and of one that is meant to stay.
async fn large(limits: Limits) -> std::net::SocketAddr {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    let many = || async { vec![b'x'; 64 * 1024 * 1024] };
    let router = Router::new()
        .route("/", get(|| async { "here" }))
        .route("/large", get(many))
        .route("/long", get(|| async { (Extension(LongAnswer::Download), vec![b'x'; 64 * 1024 * 1024]) }))
        .route("/", post(|body: axum::body::Bytes| async move { body.len().to_string() }));
    tokio::spawn(serve(listener, router, limits, std::future::pending()));
    address
}

#[tokio::test(flavor = "multi_thread")]
async fn whoever_takes_nothing_of_an_answer_is_cut_off_but_not_who_takes_a_file() {
    let least_rate = LeastRate { bytes: 16 * 1024, each: Duration::from_millis(200) };
    let address = large(Limits { least_rate, ..Limits::default() }).await;
    let rest = tokio::task::spawn_blocking(move || {
        let taken = |path: &str| {
            let mut stream = asked_once(address, path);
            stream.read_exact(&mut [0; 10]).unwrap();
            stream
        };
        let (mut slow, mut file) = (taken("/large"), taken("/long"));
        // What the system's buffers hold comes all the same; it ends before its end.
        let mut rest = 0;
        let mut bytes = vec![0; 64 * 1024];
        std::thread::sleep(Duration::from_secs(2));
        while let Ok(count @ 1..) = slow.read(&mut bytes) {
            rest += count;
        }
        let mut whole = 0;
        while let Ok(count @ 1..) = file.read(&mut bytes) {
            whole += count;
        }
        (rest, whole)
    });
    let (rest, whole) = rest.await.unwrap();
    assert!(rest < 60 * 1024 * 1024, "{rest} bytes of one that took nothing");
    assert!(whole >= 64 * 1024 * 1024, "{whole} bytes of a file");
}

#[tokio::test(flavor = "multi_thread")]
async fn whoever_sends_a_body_too_slowly_is_told_so() {
    let least_rate = LeastRate { bytes: 16 * 1024, each: Duration::from_millis(200) };
    let address = large(Limits { least_rate, ..Limits::default() }).await;
    let said = tokio::task::spawn_blocking(move || {
        let mut stream = TcpStream::connect(address).unwrap();
        let head = "POST / HTTP/1.1\r\nHost: x\r\nConnection: close\r\nContent-Length: 100000\r\n\r\n";
        stream.write_all(head.as_bytes()).unwrap();
        // A byte now and then, until the other side has had enough of it.
        while stream.write_all(b"x").is_ok() {
            stream.set_read_timeout(Some(Duration::from_millis(20))).unwrap();
            if !matches!(stream.peek(&mut [0; 1]), Err(error) if matches!(error.kind(), std::io::ErrorKind::WouldBlock | std::io::ErrorKind::TimedOut))
            {
                break;
            }
        }
        stream.set_read_timeout(None).unwrap();
        heard(stream)
    });
    let said = said.await.unwrap();
    assert!(!said.contains("200 OK"), "{said}");
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
