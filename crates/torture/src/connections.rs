//! What a connection costs, and what becomes of one that sends half a head.

use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use std::path::Path;
use std::time::{Duration, Instant};

use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::{TcpSocket, TcpStream};

use crate::{Outcome, Program};

/// Connections from one address of this machine; the program lets one have 512.
const OF_ONE_ADDRESS: usize = 400;

/// Connections of one peer that the program keeps; all of this machine is one.
const KEPT: usize = 512;

/// A connection from one of this machine's many addresses.
async fn connect(to: SocketAddr, count: usize) -> std::io::Result<TcpStream> {
    let socket = TcpSocket::new_v4()?;
    let from = Ipv4Addr::new(127, 0, 1, u8::try_from(count / OF_ONE_ADDRESS % 250 + 1).unwrap_or(1));
    socket.bind(SocketAddr::new(IpAddr::V4(from), 0))?;
    socket.connect(to).await
}

/// Opens so many connections, asks once on each, and leaves them idle.
///
/// # Errors
/// When the program cannot be started.
pub async fn idle(program: &Path, count: usize) -> anyhow::Result<Outcome> {
    more_descriptors();
    let folder = tempfile::tempdir()?;
    let running = Program::start(program, &folder.path().join("shop.sqlite"), true).await?;
    let ask = format!("GET /api/v1/house HTTP/1.1\r\nHost: {}\r\n\r\n", running.address);
    // What the first requests make room for is not a connection's.
    for _ in 0..50 {
        let _ = running.client.get(running.url("/house")).send().await;
    }
    let before = running.resident_kb();
    let mut held = Vec::with_capacity(count);
    for at in 0..count {
        let Ok(mut stream) = connect(running.address, at).await else { continue };
        let mut byte = [0; 512];
        if stream.write_all(ask.as_bytes()).await.is_ok() && stream.read(&mut byte).await.is_ok_and(|n| n > 0)
        {
            held.push(stream);
        }
    }
    let grown = running.resident_kb().saturating_sub(before);
    let each = grown as f64 / held.len().clamp(1, KEPT) as f64;
    let others = running.client.get(running.url("/house")).send().await;
    let is_served = others.is_ok_and(|answer| answer.status() == 200);
    Ok(Outcome {
        what: format!("{} idle connections, of which the last 512 are kept; memory of each kept", held.len()),
        wanted: "≤ 100 kB, others served",
        found: format!("{each:.0} kB{}", if is_served { "" } else { ", others not served" }),
        is_held: each <= 100.0 && is_served && held.len() * 10 >= count * 9,
    })
}

/// Asks for much on so many connections and reads nothing, from many addresses of this machine; whether others are served
/// meanwhile, and how long the last of them is held.
///
/// # Errors
/// When the program cannot be started.
pub async fn deaf(program: &Path, count: usize) -> anyhow::Result<Outcome> {
    let folder = tempfile::tempdir()?;
    let running = Program::start(program, &folder.path().join("shop.sqlite"), true).await?;
    let start = Instant::now();
    let ask = format!("GET /api/v1/openapi.json HTTP/1.1\r\nHost: {}\r\n\r\n", running.address);
    let mut held = Vec::new();
    for at in 0..count {
        let Ok(mut stream) = connect(running.address, at).await else { continue };
        // Many answers on one line, of which nothing is taken.
        if stream.write_all(ask.repeat(40).as_bytes()).await.is_ok() {
            held.push(stream);
        }
    }
    let mut slowest = Duration::ZERO;
    let mut served = 0;
    for _ in 0..100 {
        let begun = Instant::now();
        // A page's own new connection each time.
        let client = reqwest::Client::builder().no_proxy().build()?;
        served +=
            usize::from(client.get(running.url("/house")).send().await.is_ok_and(|one| one.status() == 200));
        slowest = slowest.max(begun.elapsed());
    }
    let mut inside = running.descriptors();
    while inside > 64 && start.elapsed() < Duration::from_secs(120) {
        tokio::time::sleep(Duration::from_millis(500)).await;
        inside = running.descriptors();
    }
    Ok(Outcome {
        what: format!(
            "{} connections that ask and read nothing, from many addresses of this machine",
            held.len()
        ),
        wanted: "100 of 100 others served, all cut off",
        found: format!(
            "{served} of 100 served, slowest {} ms; {inside} descriptors left after {:.0} s",
            slowest.as_millis(),
            start.elapsed().as_secs_f64()
        ),
        is_held: served == 100 && inside <= 64 && held.len() * 10 >= count * 9,
    })
}

/// Sends half a head on so many connections; how long the last of them is held.
///
/// # Errors
/// When the program cannot be started.
pub async fn slow(program: &Path, count: usize) -> anyhow::Result<Outcome> {
    let folder = tempfile::tempdir()?;
    let running = Program::start(program, &folder.path().join("shop.sqlite"), false).await?;
    let start = Instant::now();
    let waiting: Vec<_> = (0..count)
        .map(|at| {
            let to = running.address;
            tokio::spawn(async move {
                let mut stream = connect(to, at).await.ok()?;
                stream.write_all(b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\n").await.ok()?;
                let mut rest = Vec::new();
                // Until the other side closes, or far longer than it should hold it.
                tokio::time::timeout(Duration::from_secs(60), stream.read_to_end(&mut rest)).await.ok()
            })
        })
        .collect();
    let others = running.client.get(running.url("/house")).send().await;
    let is_served = others.is_ok_and(|answer| answer.status() == 200);
    let mut closed = 0;
    for one in waiting {
        closed += usize::from(one.await.is_ok_and(|closed| closed.is_some()));
    }
    Ok(Outcome {
        what: format!("{count} clients that send half a head"),
        wanted: "all closed, others served",
        found: format!("{closed} closed within {:.0} s", start.elapsed().as_secs_f64()),
        is_held: closed == count && is_served,
    })
}

/// As many descriptors as the system allows, for both ends of thousands of connections.
fn more_descriptors() {
    use rustix::process::{Resource, getrlimit, setrlimit};
    let mut limit = getrlimit(Resource::Nofile);
    limit.current = limit.maximum.map(|most| most.min(65_536)).or(limit.current);
    // Where it may not be raised, fewer connections are opened, and the table says how many.
    let _ = setrlimit(Resource::Nofile, limit);
}
