//! The port through which a measuring device is reached, and the gauge on a TCP line behind it.
//!
//! The protocol is described in `docs/gauge-protocol.md`. A real device or the simulated one can stand there.

use std::net::SocketAddr;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

use tokio::io::{AsyncBufReadExt, AsyncReadExt, BufReader};
use tokio::net::TcpStream;

/// What a gauge shows at this moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Shown {
    /// There is none.
    None,
    /// It does not answer.
    Away,
    /// It answers, and has no value: contact is lost.
    Lost,
    /// A value.
    Live {
        /// Millimetres.
        value_mm: f64,
        /// Whether it stands still.
        is_still: bool,
        /// Running count of readings.
        count: u64,
    },
}

/// A measuring device that sends what it reads.
pub trait GaugePort: std::fmt::Debug + Send + Sync {
    /// What it shows now.
    fn shown(&self) -> Shown;
}

/// No gauge.
#[derive(Debug)]
pub struct NoGauge;

impl GaugePort for NoGauge {
    fn shown(&self) -> Shown {
        Shown::None
    }
}

/// A gauge that is a TCP server.
#[derive(Debug)]
pub struct LineGauge {
    latest: Arc<Mutex<Latest>>,
    task: tokio::task::JoinHandle<()>,
}

#[derive(Debug, Default)]
struct Latest {
    answers: bool,
    reading: Option<(f64, bool, u64, Instant)>,
}

/// A value older than this is none.
const FRESH: Duration = Duration::from_secs(1);
/// How long to wait before connecting again.
const AGAIN: Duration = Duration::from_millis(500);
/// Longest line read.
const LINE_LENGTH: u64 = 80;
/// Largest figure that a gauge can mean.
const FARTHEST_MM: f64 = 10_000.0;

impl LineGauge {
    /// Connects, and connects again whenever the line is cut, until dropped.
    pub fn at(address: SocketAddr) -> Self {
        let latest = Arc::new(Mutex::new(Latest::default()));
        let shared = Arc::clone(&latest);
        let task = tokio::spawn(async move {
            loop {
                // Why it ended does not matter: it is tried again, and the page sees that nothing comes.
                let _ = listen(address, &shared).await;
                *locked(&shared) = Latest::default();
                tokio::time::sleep(AGAIN).await;
            }
        });
        Self { latest, task }
    }
}

impl Drop for LineGauge {
    fn drop(&mut self) {
        self.task.abort();
    }
}

impl GaugePort for LineGauge {
    fn shown(&self) -> Shown {
        let latest = locked(&self.latest);
        match latest.reading {
            Some((value_mm, is_still, count, at)) if at.elapsed() <= FRESH => {
                Shown::Live { value_mm, is_still, count }
            }
            _ if latest.answers => Shown::Lost,
            _ => Shown::Away,
        }
    }
}

fn locked(latest: &Mutex<Latest>) -> std::sync::MutexGuard<'_, Latest> {
    latest.lock().unwrap_or_else(PoisonError::into_inner)
}

async fn listen(address: SocketAddr, latest: &Mutex<Latest>) -> std::io::Result<()> {
    let mut lines = BufReader::with_capacity(MOST_AT_ONCE, TcpStream::connect(address).await?);
    if next_line(&mut lines).await?.as_deref() != Some("GAUGE 1 mm") {
        return Err(std::io::Error::other("no gauge of version 1"));
    }
    locked(latest).answers = true;
    let mut rest = Vec::new();
    loop {
        let bytes = lines.fill_buf().await?;
        if bytes.is_empty() {
            return Ok(());
        }
        let count = bytes.len();
        rest.extend_from_slice(bytes);
        lines.consume(count);
        let last_end = rest.iter().rposition(|byte| *byte == b'\n');
        let ended = last_end.map(|end| rest.drain(..=end).collect::<Vec<u8>>()).unwrap_or_default();
        if rest.len() as u64 >= LINE_LENGTH {
            return Err(std::io::Error::other("a line that does not end"));
        }
        // Of what came at once only the last counts: it is what the gauge shows now.
        match ended.rsplit(|byte| *byte == b'\n').take(MOST_LOOKED_AT).find_map(line_of) {
            Some(Line::Reading(value, is_still, count)) => {
                locked(latest).reading = Some((value, is_still, count, Instant::now()));
            }
            Some(Line::Lost) => locked(latest).reading = None,
            None => {}
        }
        // A gauge that floods the line is looked at no oftener than one that does not.
        tokio::time::sleep(LOOKED_AT_EACH).await;
    }
}

/// Bytes taken off the line at once: a second of the fastest gauge, and a bound for one that floods it.
const MOST_AT_ONCE: usize = 64 * 1024;
/// Lines looked at from the end until one can be read.
const MOST_LOOKED_AT: usize = 8;
/// How often the line is looked at: oftener than a hand or an eye moves.
const LOOKED_AT_EACH: Duration = Duration::from_millis(20);

fn line_of(bytes: &[u8]) -> Option<Line> {
    read(std::str::from_utf8(bytes).ok()?.trim_end_matches('\r'))
}

/// One line, never more than a line's length of memory; `None` at the end.
async fn next_line(lines: &mut BufReader<TcpStream>) -> std::io::Result<Option<String>> {
    let mut line = Vec::new();
    let count = lines.take(LINE_LENGTH).read_until(b'\n', &mut line).await?;
    if count == 0 {
        return Ok(None);
    }
    if line.pop() != Some(b'\n') {
        return Err(std::io::Error::other("a line that does not end"));
    }
    Ok(Some(String::from_utf8_lossy(&line).trim_end_matches('\r').to_owned()))
}

#[derive(Debug, PartialEq)]
enum Line {
    Reading(f64, bool, u64),
    Lost,
}

/// `None` for anything the protocol does not know.
fn read(line: &str) -> Option<Line> {
    let mut fields = line.split(' ');
    match fields.next()? {
        "LOST" => Some(Line::Lost),
        "R" => {
            let count = fields.next()?.parse().ok()?;
            let value: f64 = fields.next()?.parse().ok()?;
            let is_still = match fields.next()? {
                "S" => true,
                "M" => false,
                _ => return None,
            };
            // Nothing on a car is ten meters away; and nothing is no less than nothing.
            (value.abs() <= FARTHEST_MM).then_some(Line::Reading(value + 0.0, is_still, count))
        }
        _ => None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_what_the_protocol_says_is_read() {
        assert_eq!(read("R 12 14.23 S"), Some(Line::Reading(14.23, true, 12)));
        assert_eq!(read("R 13 -0.50 M"), Some(Line::Reading(-0.5, false, 13)));
        assert_eq!(read("LOST"), Some(Line::Lost));
        let Some(Line::Reading(nothing, ..)) = read("R 14 -0.00 S") else { panic!("no reading") };
        assert!(nothing.is_sign_positive());
        for line in [
            "",
            "R",
            "R 1 1e300 S",
            "R 1 -10001 S",
            "R 1 x S",
            "R 1 NaN S",
            "R 1 14.2 X",
            "R -1 14.2 S",
            "HELLO",
            "r 1 2 S",
        ] {
            assert_eq!(read(line), None, "{line:?}");
        }
    }
}
