//! The port through which a car's module is read and told, and the module on a TCP line behind it.
//!
//! The protocol is described in `docs/car-module-protocol.md`. A bridge to a real module or the simulated one can stand
//! there. The module is called when a person asks and never by itself.

use std::collections::HashMap;
use std::future::Future;
use std::net::SocketAddr;
use std::pin::Pin;
use std::sync::{Arc, PoisonError};
use std::time::Duration;

use fitment::road::recalibration::ModuleState;
use store::module_log::{self, Entry};
use store::{Store, StoreError};
use tokio::io::{AsyncBufReadExt, AsyncReadExt, AsyncWriteExt, BufReader};
use tokio::net::TcpStream;
use tokio::sync::{Mutex, MutexGuard};

/// What a call comes to, later.
pub type Answer<'a, T, E> = Pin<Box<dyn Future<Output = Result<T, E>> + Send + 'a>>;

/// Why a module was not told.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum NotTold {
    /// It was not reached: nothing was changed.
    NotReached(String),
    /// It refused: nothing was changed.
    Refused(String),
    /// It ended the call once it was told, or answered what cannot be read: what it holds then says what it did.
    Cut(String),
    /// It did not answer in time once it was told: it may still do it, a moment after it was read.
    Late(String),
}

/// A car's module. Errors say why in a sentence.
pub trait ModulePort: std::fmt::Debug + Send + Sync {
    /// What it holds; figures that no car has are an error.
    fn read(&self) -> Answer<'_, ModuleState, String>;
    /// Tells it a length in place of the one it holds.
    fn tell(&self, was_mm: u32, to_mm: u32) -> Answer<'_, (), NotTold>;
}

/// The module that is plugged in, if one is, whose turn it is, and what this program knows of tellings that its file does not.
#[derive(Debug, Clone, Default)]
pub struct CarModule {
    port: Option<Arc<dyn ModulePort>>,
    turn: Arc<Mutex<()>>,
    /// By the row of the log that stands before them.
    tellings: Arc<std::sync::Mutex<HashMap<i64, Telling>>>,
}

/// A telling whose end is not in the file.
#[derive(Debug, Clone)]
enum Telling {
    /// Under way.
    UnderWay,
    /// Done, and not noted yet.
    Ended { code: &'static str, says: String },
}

/// How long until an end that could not be noted is noted again.
const NOTED_AGAIN: Duration = Duration::from_secs(1);

impl CarModule {
    /// With a module.
    pub fn with(port: impl ModulePort + 'static) -> Self {
        Self { port: Some(Arc::new(port)), ..Self::default() }
    }

    /// Whether one is plugged in.
    pub fn is_there(&self) -> bool {
        self.port.is_some()
    }

    /// The module for one who waits until nobody else reads or tells it; `None` while none is plugged in.
    pub async fn taken(&self) -> Option<(MutexGuard<'_, ()>, &dyn ModulePort)> {
        let port = self.port.as_deref()?;
        Some((self.turn.lock().await, port))
    }

    /// Says that the module is about to be told, by the row that stands before it.
    pub fn begin(&self, entry: i64) {
        self.tellings().insert(entry, Telling::UnderWay);
    }

    /// Notes how a telling came out. Where the file takes no note now, it is known here, and noted as soon as it can be: what
    /// was told is never said to be something else.
    pub async fn ended(&self, store: &Store, entry: i64, code: &'static str, says: String) {
        self.tellings().insert(entry, Telling::Ended { code, says: says.clone() });
        if self.noted(store, entry, code, &says).await.is_ok() {
            return;
        }
        let (module, store) = (self.clone(), store.clone());
        tokio::spawn(async move {
            loop {
                tokio::time::sleep(NOTED_AGAIN).await;
                match module.noted(&store, entry, code, &says).await {
                    Ok(()) | Err(StoreError::Closed) => return,
                    Err(_) => {}
                }
            }
        });
    }

    async fn noted(
        &self,
        store: &Store,
        entry: i64,
        code: &'static str,
        says: &str,
    ) -> Result<(), StoreError> {
        let said = says.to_owned();
        store.write(move |tx| module_log::finish(tx, entry, code, &said)).await?;
        self.tellings().remove(&entry);
        Ok(())
    }

    /// A log with what is known here and not in the file yet.
    #[must_use]
    pub fn as_known(&self, mut log: Vec<Entry>) -> Vec<Entry> {
        let tellings = self.tellings();
        for entry in &mut log {
            match tellings.get(&entry.id) {
                Some(Telling::UnderWay) => {
                    "the module is being told at this moment".clone_into(&mut entry.says)
                }
                Some(Telling::Ended { code, says }) => {
                    (*code).clone_into(&mut entry.outcome);
                    entry.says.clone_from(says);
                }
                None => {}
            }
        }
        log
    }

    /// Waits until nobody tells the module anything, and every end is noted that can be: the program stops.
    pub async fn at_rest(&self) {
        drop(self.turn.lock().await);
        while !self.tellings().is_empty() {
            tokio::time::sleep(Duration::from_millis(50)).await;
        }
    }

    fn tellings(&self) -> std::sync::MutexGuard<'_, HashMap<i64, Telling>> {
        self.tellings.lock().unwrap_or_else(PoisonError::into_inner)
    }
}

/// A module that is a TCP server.
#[derive(Debug)]
pub struct LineModule {
    address: SocketAddr,
    patience: Duration,
}

/// Why a line did not come.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
enum Silence {
    #[error("the module did not answer")]
    Late,
    #[error("the line to the module was cut")]
    Cut,
    #[error("the module's answer does not end")]
    Endless,
}

/// Longest wait for one answer.
pub const PATIENCE: Duration = Duration::from_secs(2);
/// Longest line read.
const LINE_LENGTH: u64 = 120;

impl LineModule {
    /// One at an address.
    pub fn at(address: SocketAddr) -> Self {
        Self { address, patience: PATIENCE }
    }

    /// The same with another patience.
    #[must_use]
    pub fn waiting(self, patience: Duration) -> Self {
        Self { patience, ..self }
    }

    /// A call: connected, and greeted by a module of version 1.
    async fn call(&self) -> Result<BufReader<TcpStream>, String> {
        let connected = tokio::time::timeout(self.patience, TcpStream::connect(self.address)).await;
        let Ok(Ok(stream)) = connected else { return Err("the module cannot be reached".to_owned()) };
        let mut line = BufReader::new(stream);
        match self.next_line(&mut line).await.map_err(|why| why.to_string())?.as_str() {
            "MODULE 1" => Ok(line),
            _ => Err("what answers there is no module of version 1".to_owned()),
        }
    }

    async fn ask(&self, line: &mut BufReader<TcpStream>, asked: &str) -> Result<String, Silence> {
        let sent = line.get_mut().write_all(format!("{asked}\n").as_bytes()).await;
        sent.map_err(|_| Silence::Cut)?;
        self.next_line(line).await
    }

    /// One line, never more than a line's length of memory.
    async fn next_line(&self, line: &mut BufReader<TcpStream>) -> Result<String, Silence> {
        let mut bytes = Vec::new();
        let mut limited = line.take(LINE_LENGTH);
        let read = tokio::time::timeout(self.patience, limited.read_until(b'\n', &mut bytes)).await;
        match read {
            Err(_) => Err(Silence::Late),
            Ok(Err(_) | Ok(0)) => Err(Silence::Cut),
            Ok(Ok(_)) if bytes.pop() != Some(b'\n') => Err(Silence::Endless),
            Ok(Ok(_)) => Ok(String::from_utf8_lossy(&bytes).trim_end_matches('\r').to_owned()),
        }
    }
}

impl ModulePort for LineModule {
    fn read(&self) -> Answer<'_, ModuleState, String> {
        Box::pin(async {
            let mut line = self.call().await?;
            let said = self.ask(&mut line, "READ").await.map_err(|why| why.to_string())?;
            let state = state_of(&said).ok_or_else(|| "the module's answer could not be read".to_owned())?;
            state.checked().map_err(|error| error.to_string())
        })
    }

    fn tell(&self, was_mm: u32, to_mm: u32) -> Answer<'_, (), NotTold> {
        Box::pin(async move {
            let mut line = self.call().await.map_err(NotTold::NotReached)?;
            let said = self.ask(&mut line, &format!("TELL {to_mm} WAS {was_mm}")).await;
            let said = said.map_err(|why| match why {
                Silence::Late => NotTold::Late(why.to_string()),
                why => NotTold::Cut(why.to_string()),
            })?;
            match said.split_once(' ') {
                Some(("TOLD", told)) if told == to_mm.to_string() => Ok(()),
                Some(("REFUSED", why)) => Err(NotTold::Refused(why.to_owned())),
                _ => Err(NotTold::Cut("the module's answer could not be read".to_owned())),
            }
        })
    }
}

/// `None` for anything the protocol does not know.
fn state_of(line: &str) -> Option<ModuleState> {
    let fields: Vec<&str> = line.split(' ').collect();
    let ["STATE", vehicle, stored, factory, axle, engine, volts] = fields[..] else { return None };
    if vehicle.is_empty() {
        return None;
    }
    let engine_runs = match engine {
        "ON" => true,
        "OFF" => false,
        _ => return None,
    };
    Some(ModuleState {
        vehicle: vehicle.to_owned(),
        stored_mm: stored.parse().ok()?,
        factory_mm: factory.parse().ok()?,
        axle_ratio: axle.parse().ok()?,
        engine_runs,
        battery_v: volts.parse().ok()?,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_what_the_protocol_says_is_read() {
        let state = state_of("STATE LAKE-0417 2209 2200 3.91 OFF 12.6").unwrap();
        assert_eq!((state.stored_mm, state.factory_mm, state.engine_runs), (2209, 2200, false));
        assert_eq!((state.vehicle.as_str(), state.axle_ratio, state.battery_v), ("LAKE-0417", 3.91, 12.6));
        for line in [
            "",
            "STATE",
            "STATE  2209 2200 3.91 OFF 12.6",
            "STATE L 2209 2200 3.91 OFF",
            "STATE L 2209 2200 3.91 off 12.6",
            "STATE L 2209.5 2200 3.91 OFF 12.6",
            "STATE L -1 2200 3.91 OFF 12.6",
            "STATE L 2209 2200 3.91 OFF 12.6 more",
            "TOLD 2209",
        ] {
            assert!(state_of(line).is_none(), "{line:?}");
        }
    }
}
