//! What stands beside the program: a supplier that sends it elsewhere and gives figures that nobody means, a gauge that floods.

use std::path::Path;
use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::Duration;

use reqwest::Method;
use serde_json::json;
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::TcpListener;

use crate::{Outcome, Program};

/// Asks a supplier that redirects and one that gives nonsense, beside a gauge that floods its line for so long.
///
/// # Errors
/// When the program cannot be started.
pub async fn run(program: &Path, asks: usize, flood: Duration) -> anyhow::Result<Outcome> {
    let elsewhere = Arc::new(AtomicUsize::new(0));
    let (there, there_at) = bound().await?;
    let counted = Arc::clone(&elsewhere);
    tokio::spawn(async move {
        while let Ok((mut stream, _)) = there.accept().await {
            counted.fetch_add(1, Ordering::SeqCst);
            let _ = stream.write_all(b"HTTP/1.1 200 OK\r\nContent-Length: 12\r\n\r\n{\"items\":[]}").await;
        }
    });
    let (supplier, supplier_at) = bound().await?;
    let answered = Arc::new(AtomicUsize::new(0));
    let count = Arc::clone(&answered);
    tokio::spawn(async move {
        while let Ok((mut stream, _)) = supplier.accept().await {
            let mut head = vec![0; 64 * 1024];
            let _ = stream.read(&mut head).await;
            let at = count.fetch_add(1, Ordering::SeqCst);
            let answer = if at.is_multiple_of(2) {
                let status = [301, 302, 303, 307, 308][at / 2 % 5];
                format!(
                    "HTTP/1.1 {status} Elsewhere\r\nLocation: http://{there_at}/v1/stock\r\nContent-Length: 0\r\nConnection: close\r\n\r\n"
                )
            } else {
                let items = r#"{"items":[{"stock":4,"lead_days":2,"price":-0.0,"discontinued":false}]}"#;
                format!(
                    "HTTP/1.1 200 OK\r\nContent-Length: {}\r\nConnection: close\r\n\r\n{items}",
                    items.len()
                )
            };
            let _ = stream.write_all(answer.as_bytes()).await;
        }
    });
    let (gauge, gauge_at) = bound().await?;
    tokio::spawn(async move {
        while let Ok((mut stream, _)) = gauge.accept().await {
            tokio::spawn(async move {
                let _ = stream.write_all(b"GAUGE 1 mm\n").await;
                let lines = "R 1 12.50 S\n".repeat(5000);
                while stream.write_all(lines.as_bytes()).await.is_ok() {}
            });
        }
    });
    let folder = tempfile::tempdir()?;
    let beside = ["--demo", "--supplier", &supplier_at, "--gauge", &gauge_at];
    let running = Program::start_with(program, &folder.path().join("shop.sqlite"), &beside).await?;
    let listed = running.ask(Method::GET, "/catalogue/rows?kind=wheels", None).await;
    let rows: Vec<i64> = listed
        .and_then(|(_, rows)| {
            Some(rows["rows"].as_array()?.iter().filter_map(|row| row["id"].as_i64()).collect())
        })
        .unwrap_or_default();
    let mut negative = 0;
    for at in 0..asks {
        let Some(row) = rows.get(at % rows.len().max(1)) else { break };
        let body = json!({ "sets": [[{ "kind": "wheels", "row": row, "count": 4 }]] });
        let said = running.ask(Method::POST, "/supply", Some(&body)).await;
        negative += usize::from(said.is_some_and(|(_, said)| said.to_string().contains("-0.0")));
    }
    let before = running.processor_seconds();
    tokio::time::sleep(flood).await;
    let share = (running.processor_seconds() - before) / flood.as_secs_f64();
    let shown = running.ask(Method::GET, "/gauge", None).await;
    let is_heard = shown.is_some_and(|(_, gauge)| gauge["value_mm"] == json!(12.5));
    let elsewhere = elsewhere.load(Ordering::SeqCst);
    let asked = answered.load(Ordering::SeqCst);
    Ok(Outcome {
        what: format!(
            "{asked} answers of a supplier that redirects and means −0; {} s of a gauge that floods",
            flood.as_secs()
        ),
        wanted: "0 asked elsewhere, 0 of −0, ≤ 10 % of a core and heard",
        found: format!(
            "{elsewhere} asked elsewhere, {negative} of −0, {:.0} % of a core{}",
            share * 100.0,
            if is_heard { "" } else { ", not heard" }
        ),
        is_held: elsewhere == 0 && negative == 0 && share <= 0.1 && is_heard && asked > 0,
    })
}

async fn bound() -> anyhow::Result<(TcpListener, String)> {
    let listener = TcpListener::bind("127.0.0.1:0").await?;
    let address = listener.local_addr()?.to_string();
    Ok((listener, address))
}
