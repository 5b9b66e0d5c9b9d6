//! Many large bodies at once: they wait for their room, and the memory goes back.

use std::path::Path;
use std::time::Duration;

use tokio::io::AsyncWriteExt;
use tokio::net::TcpStream;

use crate::{Outcome, Program};

/// Sends so many lists of 31 MB at the same time, some of them without an end, and looks at the memory.
///
/// # Errors
/// When the program cannot be started.
pub async fn run(program: &Path, lists: usize) -> anyhow::Result<Outcome> {
    const LENGTH: usize = 31 * 1024 * 1024;
    let folder = tempfile::tempdir()?;
    let running = Program::start(program, &folder.path().join("shop.sqlite"), false).await?;
    for _ in 0..20 {
        let _ = running.client.get(running.url("/house")).send().await;
    }
    let before = running.resident_kb();
    let address = running.address;
    let senders: Vec<_> = (0..lists)
        .map(|count| {
            tokio::spawn(async move {
                let Ok(mut stream) = TcpStream::connect(address).await else { return };
                let head = format!(
                    "POST /api/v1/catalogue/lists?kind=wheels&supplier=s{count}&file_name=a.csv HTTP/1.1\r\nHost: {address}\r\n\
                     Content-Type: application/octet-stream\r\nContent-Length: {LENGTH}\r\n\r\n"
                );
                let _ = stream.write_all(head.as_bytes()).await;
                let piece = vec![b'x'; 256 * 1024];
                // Two of three leave the last part out.
                let most = if count % 3 == 0 { LENGTH } else { LENGTH - 1000 };
                let mut sent = 0;
                while sent < most {
                    let next = piece.len().min(most - sent);
                    match tokio::time::timeout(Duration::from_secs(20), stream.write_all(&piece[..next])).await {
                        Ok(Ok(())) => sent += next,
                        _ => return,
                    }
                }
                tokio::time::sleep(Duration::from_secs(8)).await;
            })
        })
        .collect();
    let mut peak = 0;
    let mut served = 0;
    let mut looks = 0_usize;
    while senders.iter().any(|one| !one.is_finished()) && looks < 1200 {
        peak = peak.max(running.own_kb());
        if looks.is_multiple_of(10) {
            served += usize::from(
                running.client.get(running.url("/house")).send().await.is_ok_and(|one| one.status() == 200),
            );
        }
        looks += 1;
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
    for one in senders {
        one.abort();
    }
    tokio::time::sleep(Duration::from_secs(15)).await;
    for _ in 0..200 {
        let _ = running.client.get(running.url("/house")).send().await;
    }
    let after = running.own_kb();
    let asked = looks.div_ceil(10);
    Ok(Outcome {
        what: format!("{lists} lists of 31 MB sent at once, two of three without an end"),
        wanted: "≤ 512 MB, ≤ 64 MB more 15 s later, others served",
        found: format!(
            "{} MB at most, {} MB more afterwards, {served} of {asked} others served",
            peak / 1024,
            after.saturating_sub(before) / 1024
        ),
        is_held: peak <= 512 * 1024 && after <= before + 64 * 1024 && served == asked,
    })
}
