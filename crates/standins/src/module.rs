//! A car's module that counts by its tire, simulated.
//!
//! # Protocol
//! TCP on loopback, lines of ASCII ended by `\n`, described in `docs/car-module-protocol.md`: on connecting the module says
//! `MODULE 1`, then answers each line:
//! - `READ` with `STATE <vehicle> <stored mm> <factory mm> <axle ratio> <ON|OFF> <volts>`;
//! - `TELL <mm> WAS <mm>` with `TOLD <mm>`, or `REFUSED <why>`.
//!
//! It refuses by itself what a real one would: too far from the factory's, a running engine, a low battery, and a
//! length that it did not hold. Every fault a car can play can be set.

use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;

use clap::ValueEnum;
use tokio::io::{AsyncBufReadExt, AsyncWriteExt, BufReader};
use tokio::net::{TcpListener, TcpStream};
use tokio::task::JoinHandle;

/// What goes wrong.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, ValueEnum)]
pub enum Fault {
    /// Nothing.
    #[default]
    None,
    /// It takes the call and never answers.
    Silent,
    /// The line is cut when it was told, before it took it.
    CutBefore,
    /// The line is cut when it was told, after it took it.
    CutAfter,
    /// It takes it and never answers again.
    FallsSilent,
    /// It takes it, a second after it was told, and says nothing of it; meanwhile it is read as it was.
    TakesLate,
    /// It says it was told and keeps a length of its own.
    ReadsBackWrong,
    /// It says it was told and changes nothing.
    KeepsOld,
    /// It changes the factory's length along with its own.
    ChangesMore,
    /// It refuses whatever it is told.
    Refuses,
    /// Its figures cannot be.
    Nonsense,
    /// It greets as something else.
    Stranger,
    /// Its answer does not end.
    Endless,
}

/// How the module stands.
#[derive(Debug, Clone, PartialEq)]
pub struct Settings {
    /// The car it sits in; one word.
    pub vehicle: String,
    /// The tire's length that it counts by, in millimetres.
    pub stored_mm: u32,
    /// The one it left the factory with.
    pub factory_mm: u32,
    /// Final drive.
    pub axle_ratio: f64,
    /// Whether the engine runs.
    pub engine_runs: bool,
    /// Voltage of the battery.
    pub battery_v: f64,
    /// What goes wrong.
    pub fault: Fault,
}

impl Default for Settings {
    fn default() -> Self {
        Self {
            vehicle: "LAKE-0417".to_owned(),
            stored_mm: 2209,
            factory_mm: 2209,
            axle_ratio: 4.1,
            engine_runs: false,
            battery_v: 12.6,
            fault: Fault::None,
        }
    }
}

/// A running module; stops when dropped.
#[derive(Debug)]
pub struct Module {
    settings: Arc<Mutex<Settings>>,
    task: JoinHandle<()>,
}

impl Module {
    /// Runs a module on a listener, until it is dropped.
    pub fn run(listener: TcpListener, settings: Settings) -> Self {
        let settings = Arc::new(Mutex::new(settings));
        let shared = Arc::clone(&settings);
        let task = tokio::spawn(async move {
            let mut connections = tokio::task::JoinSet::new();
            while let Ok((stream, _)) = listener.accept().await {
                let shared = Arc::clone(&shared);
                connections.spawn(async move {
                    // How a call ends concerns only its other side.
                    let _ = answer(stream, &shared).await;
                });
            }
        });
        Self { settings, task }
    }

    /// Changes how it stands from now on.
    pub fn set(&self, change: impl FnOnce(&mut Settings)) {
        change(&mut locked(&self.settings));
    }

    /// How it stands.
    pub fn now(&self) -> Settings {
        locked(&self.settings).clone()
    }

    /// Waits until it ends, which it does not by itself.
    pub async fn wait(mut self) {
        let _ = (&mut self.task).await;
    }
}

impl Drop for Module {
    fn drop(&mut self) {
        self.task.abort();
    }
}

fn locked(settings: &Mutex<Settings>) -> std::sync::MutexGuard<'_, Settings> {
    settings.lock().unwrap_or_else(PoisonError::into_inner)
}

/// How long the late one takes.
const LATE: Duration = Duration::from_secs(1);

async fn answer(stream: TcpStream, settings: &Arc<Mutex<Settings>>) -> std::io::Result<()> {
    let (read, mut write) = stream.into_split();
    let greeting: &[u8] = match locked(settings).fault {
        Fault::Stranger => b"HELLO 2\n",
        _ => b"MODULE 1\n",
    };
    write.write_all(greeting).await?;
    let mut lines = BufReader::new(read).lines();
    while let Some(line) = lines.next_line().await? {
        let said = locked(settings).said(&line);
        match said {
            Said::Line(line) => write.write_all(format!("{line}\n").as_bytes()).await?,
            Said::Nothing => {}
            Said::Later(to_mm) => {
                let settings = Arc::clone(settings);
                tokio::spawn(async move {
                    tokio::time::sleep(LATE).await;
                    locked(&settings).stored_mm = to_mm;
                });
            }
            Said::Cut => break,
            Said::Endless => loop {
                write.write_all(&[b'9'; 64]).await?;
            },
        }
    }
    Ok(())
}

enum Said {
    Line(String),
    Nothing,
    /// Takes the length later.
    Later(u32),
    Cut,
    Endless,
}

impl Settings {
    fn said(&mut self, line: &str) -> Said {
        match self.fault {
            Fault::Silent => return Said::Nothing,
            Fault::Endless => return Said::Endless,
            _ => {}
        }
        let fields: Vec<&str> = line.split(' ').collect();
        match fields[..] {
            ["READ"] => Said::Line(self.state()),
            ["TELL", to, "WAS", was] => match (to.parse(), was.parse()) {
                (Ok(to), Ok(was)) => self.told(to, was),
                _ => Said::Line("REFUSED that is no length".to_owned()),
            },
            _ => Said::Line("REFUSED it knows READ and TELL".to_owned()),
        }
    }

    fn state(&self) -> String {
        let engine = if self.engine_runs { "ON" } else { "OFF" };
        let stored = if self.fault == Fault::Nonsense { 4_000_000 } else { self.stored_mm };
        format!(
            "STATE {} {stored} {} {:.2} {engine} {:.1}",
            self.vehicle, self.factory_mm, self.axle_ratio, self.battery_v
        )
    }

    fn told(&mut self, to: u32, was: u32) -> Said {
        let is_far = 100 * u64::from(to.abs_diff(self.factory_mm)) > 15 * u64::from(self.factory_mm);
        let refused = match () {
            () if self.fault == Fault::Refuses => Some("not in this session"),
            () if self.engine_runs => Some("the engine runs"),
            () if self.battery_v < 12.0 => Some("the battery is low"),
            () if was != self.stored_mm => Some("it holds another length"),
            () if is_far => Some("too far from the factory's"),
            () => None,
        };
        if let Some(why) = refused {
            return Said::Line(format!("REFUSED {why}"));
        }
        match self.fault {
            Fault::CutBefore => return Said::Cut,
            Fault::CutAfter => {
                self.stored_mm = to;
                return Said::Cut;
            }
            Fault::FallsSilent => {
                (self.stored_mm, self.fault) = (to, Fault::Silent);
                return Said::Nothing;
            }
            Fault::TakesLate => return Said::Later(to),
            Fault::KeepsOld => {}
            Fault::ReadsBackWrong => self.stored_mm = to + 7,
            Fault::ChangesMore => (self.stored_mm, self.factory_mm) = (to, to),
            _ => self.stored_mm = to,
        }
        Said::Line(format!("TOLD {to}"))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn lines(settings: &mut Settings, asked: &[&str]) -> Vec<String> {
        let said = asked.iter().map(|line| match settings.said(line) {
            Said::Line(line) => line,
            Said::Nothing | Said::Later(_) => "(nothing)".to_owned(),
            Said::Cut => "(cut)".to_owned(),
            Said::Endless => "(endless)".to_owned(),
        });
        said.collect()
    }

    #[test]
    fn it_reads_is_told_and_reads_what_it_was_told() {
        let mut module = Settings::default();
        let said = lines(&mut module, &["READ", "TELL 2300 WAS 2209", "READ"]);
        assert_eq!(
            said,
            [
                "STATE LAKE-0417 2209 2209 4.10 OFF 12.6",
                "TOLD 2300",
                "STATE LAKE-0417 2300 2209 4.10 OFF 12.6"
            ]
        );
    }

    #[test]
    fn it_refuses_by_itself_and_keeps_what_it_held() {
        for (change, asked) in [
            ((|_| {}) as fn(&mut Settings), "TELL 2600 WAS 2209"),
            (|_| {}, "TELL 2300 WAS 2208"),
            (|_| {}, "TELL x WAS 2209"),
            (|_| {}, "ERASE"),
            (|one| one.engine_runs = true, "TELL 2300 WAS 2209"),
            (|one| one.battery_v = 11.0, "TELL 2300 WAS 2209"),
            (|one| one.fault = Fault::Refuses, "TELL 2300 WAS 2209"),
        ] {
            let mut module = Settings::default();
            change(&mut module);
            assert!(lines(&mut module, &[asked])[0].starts_with("REFUSED "), "{asked}");
            assert_eq!(module.stored_mm, 2209, "{asked}");
        }
    }

    #[test]
    fn its_faults_are_what_they_say() {
        for (fault, said, holds) in [
            (Fault::Silent, "(nothing)", 2209),
            (Fault::CutBefore, "(cut)", 2209),
            (Fault::CutAfter, "(cut)", 2300),
            (Fault::FallsSilent, "(nothing)", 2300),
            (Fault::ReadsBackWrong, "TOLD 2300", 2307),
            (Fault::KeepsOld, "TOLD 2300", 2209),
            (Fault::Endless, "(endless)", 2209),
        ] {
            let mut module = Settings { fault, ..Settings::default() };
            assert_eq!(lines(&mut module, &["TELL 2300 WAS 2209"]), [said], "{fault:?}");
            assert_eq!(module.stored_mm, holds, "{fault:?}");
        }
    }
}
