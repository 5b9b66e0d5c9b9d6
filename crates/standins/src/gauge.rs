//! A digital gauge that sends what it reads, simulated.
//!
//! # Protocol
//! TCP on loopback, lines of ASCII ended by `\n`, described in `docs/gauge-protocol.md`:
//! - on connecting the gauge says `GAUGE 1 mm`;
//! - then, several times a second, `R <count> <value> <S|M>`: a running count, millimetres with two decimals,
//!   `S` while the value stands still and `M` while it moves;
//! - `LOST` when the jaws lost contact: there is no value then.
//!
//! The noise and the drop-outs of a real one can be set.

use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;

use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use tokio::io::AsyncWriteExt;
use tokio::net::{TcpListener, TcpStream};
use tokio::task::JoinHandle;

/// How the gauge behaves.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Settings {
    /// What it stands at, in millimetres.
    pub value_mm: f64,
    /// Noise about it, either way, in millimetres.
    pub noise_mm: f64,
    /// How far the value wanders of itself, either way, in millimetres: somebody is moving the gauge.
    pub wander_mm: f64,
    /// Share of readings that are lost, 0 to 1.
    pub lost_share: f64,
    /// Chance that a reading ends the connection instead, 0 to 1.
    pub cut_share: f64,
    /// Time between readings.
    pub every: Duration,
    /// For the same noise again.
    pub seed: u64,
}

impl Default for Settings {
    fn default() -> Self {
        Self {
            value_mm: 14.0,
            noise_mm: 0.03,
            wander_mm: 0.0,
            lost_share: 0.0,
            cut_share: 0.0,
            every: Duration::from_millis(100),
            seed: 1,
        }
    }
}

/// A running gauge; stops when dropped.
#[derive(Debug)]
pub struct Gauge {
    settings: Arc<Mutex<Settings>>,
    task: JoinHandle<()>,
}

impl Gauge {
    /// Runs a gauge on a listener, until it is dropped.
    pub fn run(listener: TcpListener, settings: Settings) -> Self {
        let settings = Arc::new(Mutex::new(settings));
        let shared = Arc::clone(&settings);
        let task = tokio::spawn(async move {
            let mut connections = tokio::task::JoinSet::new();
            while let Ok((stream, _)) = listener.accept().await {
                connections.spawn(send(stream, Arc::clone(&shared)));
            }
        });
        Self { settings, task }
    }

    /// Changes how it behaves from now on.
    pub fn set(&self, change: impl FnOnce(&mut Settings)) {
        change(&mut self.settings.lock().unwrap_or_else(PoisonError::into_inner));
    }

    /// Waits until it ends, which it does not by itself.
    pub async fn wait(mut self) {
        let _ = (&mut self.task).await;
    }
}

impl Drop for Gauge {
    fn drop(&mut self) {
        self.task.abort();
    }
}

async fn send(mut stream: TcpStream, settings: Arc<Mutex<Settings>>) {
    let now = || *settings.lock().unwrap_or_else(PoisonError::into_inner);
    let mut rng = StdRng::seed_from_u64(now().seed);
    if stream.write_all(b"GAUGE 1 mm\n").await.is_err() {
        return;
    }
    let mut before = now().value_mm;
    for count in 1_u64.. {
        let settings = now();
        if rng.random::<f64>() < settings.cut_share {
            return;
        }
        let line = if rng.random::<f64>() < settings.lost_share {
            "LOST\n".to_owned()
        } else {
            // Slowly to and fro, as a hand moves it.
            let sway = settings.wander_mm * (count as f64 / 23.0).sin();
            let value = settings.value_mm + sway;
            let shown = value + settings.noise_mm * rng.random_range(-1.0..=1.0);
            let still = (value - before).abs() <= 0.05;
            before = value;
            format!("R {count} {shown:.2} {}\n", if still { 'S' } else { 'M' })
        };
        if stream.write_all(line.as_bytes()).await.is_err() {
            return;
        }
        tokio::time::sleep(settings.every).await;
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use tokio::io::{AsyncBufReadExt, BufReader};

    async fn lines_of(settings: Settings, most: usize) -> Vec<String> {
        let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let address = listener.local_addr().unwrap();
        let _gauge = Gauge::run(listener, Settings { every: Duration::from_millis(1), ..settings });
        let stream = TcpStream::connect(address).await.unwrap();
        let mut lines = BufReader::new(stream).lines();
        let mut all = Vec::new();
        while let Ok(Some(line)) = lines.next_line().await {
            all.push(line);
            if all.len() == most {
                break;
            }
        }
        all
    }

    #[tokio::test]
    async fn it_greets_and_counts_and_stays_within_its_noise() {
        let lines = lines_of(Settings { value_mm: 12.4, noise_mm: 0.05, ..Settings::default() }, 40).await;
        assert_eq!(lines[0], "GAUGE 1 mm");
        for (at, line) in lines[1..].iter().enumerate() {
            let fields: Vec<&str> = line.split(' ').collect();
            assert_eq!(
                (fields[0], fields[1], fields[3]),
                ("R", (at + 1).to_string().as_str(), "S"),
                "{line}"
            );
            let value: f64 = fields[2].parse().unwrap();
            assert!((value - 12.4).abs() <= 0.055, "{line}");
        }
    }

    #[tokio::test]
    async fn it_loses_contact_and_hangs_up_when_told_to() {
        let lost = lines_of(Settings { lost_share: 1.0, ..Settings::default() }, 5).await;
        assert!(lost[1..].iter().all(|line| line == "LOST"));
        let cut = lines_of(Settings { cut_share: 1.0, ..Settings::default() }, 5).await;
        assert_eq!(cut, ["GAUGE 1 mm"]);
        let moving = lines_of(Settings { wander_mm: 400.0, ..Settings::default() }, 5).await;
        assert!(moving[2..].iter().all(|line| line.ends_with('M')), "{moving:?}");
    }
}
