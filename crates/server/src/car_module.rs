//! The port through which a car's module is read and told, and the module on a TCP line behind it.
//!
//! The protocol is described in `docs/car-module-protocol.md`. A bridge to a real module or the simulated one can stand
//! there. The module is called when a person asks and never by itself.

use std::future::Future;
use std::net::SocketAddr;
use std::pin::Pin;
use std::sync::Arc;
use std::time::Duration;

use fitment::recalibration::ModuleState;
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
    /// It did not answer once it was told: nobody knows.
    Unanswered(String),
}

/// A car's module. Errors say why in a sentence.
pub trait ModulePort: std::fmt::Debug + Send + Sync {
    /// What it holds; figures that no car has are an error.
    fn read(&self) -> Answer<'_, ModuleState, String>;
    /// Tells it a length in place of the one it holds.
    fn tell(&self, was_mm: u32, to_mm: u32) -> Answer<'_, (), NotTold>;
}

/// The module that is plugged in, if one is, and whose turn it is.
#[derive(Debug, Clone, Default)]
pub struct CarModule {
    port: Option<Arc<dyn ModulePort>>,
    turn: Arc<Mutex<()>>,
}

impl CarModule {
    /// With a module.
    pub fn with(port: impl ModulePort + 'static) -> Self {
        Self { port: Some(Arc::new(port)), turn: Arc::default() }
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
}

/// A module that is a TCP server.
#[derive(Debug)]
pub struct LineModule {
    address: SocketAddr,
    patience: Duration,
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
        match self.next_line(&mut line).await?.as_str() {
            "MODULE 1" => Ok(line),
            _ => Err("what answers there is no module of version 1".to_owned()),
        }
    }

    async fn ask(&self, line: &mut BufReader<TcpStream>, asked: &str) -> Result<String, String> {
        let sent = line.get_mut().write_all(format!("{asked}\n").as_bytes()).await;
        sent.map_err(|_| "the line to the module was cut".to_owned())?;
        self.next_line(line).await
    }

    /// One line, never more than a line's length of memory.
    async fn next_line(&self, line: &mut BufReader<TcpStream>) -> Result<String, String> {
        let mut bytes = Vec::new();
        let mut limited = line.take(LINE_LENGTH);
        let read = tokio::time::timeout(self.patience, limited.read_until(b'\n', &mut bytes)).await;
        match read {
            Err(_) => Err("the module did not answer".to_owned()),
            Ok(Err(_) | Ok(0)) => Err("the line to the module was cut".to_owned()),
            Ok(Ok(_)) if bytes.pop() != Some(b'\n') => Err("the module's answer does not end".to_owned()),
            Ok(Ok(_)) => Ok(String::from_utf8_lossy(&bytes).trim_end_matches('\r').to_owned()),
        }
    }
}

impl ModulePort for LineModule {
    fn read(&self) -> Answer<'_, ModuleState, String> {
        Box::pin(async {
            let mut line = self.call().await?;
            let said = self.ask(&mut line, "READ").await?;
            let state = state_of(&said).ok_or_else(|| "the module's answer could not be read".to_owned())?;
            state.checked().map_err(|error| error.to_string())
        })
    }

    fn tell(&self, was_mm: u32, to_mm: u32) -> Answer<'_, (), NotTold> {
        Box::pin(async move {
            let mut line = self.call().await.map_err(NotTold::NotReached)?;
            let said = self.ask(&mut line, &format!("TELL {to_mm} WAS {was_mm}")).await;
            match said.map_err(NotTold::Unanswered)?.split_once(' ') {
                Some(("TOLD", told)) if told == to_mm.to_string() => Ok(()),
                Some(("REFUSED", why)) => Err(NotTold::Refused(why.to_owned())),
                _ => Err(NotTold::Unanswered("the module's answer could not be read".to_owned())),
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
