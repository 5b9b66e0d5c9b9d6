//! Connections: how long one may take for its head, how many one address may have, and how they end.

use std::collections::HashMap;
use std::future::Future;
use std::net::IpAddr;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;

use axum::Router;
use hyper::server::conn::http1;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::server::graceful::GracefulShutdown;
use hyper_util::service::TowerToHyperService;
use tokio::io::AsyncWriteExt;
use tokio::net::{TcpListener, TcpStream};
use tokio::task::JoinSet;

/// Longest time for a request's head, and between two requests of one connection.
pub const HEAD_TIME: Duration = Duration::from_secs(15);
/// Connections of one address at most. A page has six; a shop's router may stand before all of its tablets.
pub const MOST_OF_ONE_ADDRESS: usize = 512;
/// How long requests under way may go on when the program is told to stop.
pub const LAST_ORDERS: Duration = Duration::from_secs(6);

/// Bounds on connections.
#[derive(Debug, Clone, Copy)]
pub struct Limits {
    /// Longest time for a request's head, and between two requests of one connection.
    pub head_time: Duration,
    /// Connections of one address at most.
    pub most_of_one_address: usize,
    /// How long requests under way may go on after the stop.
    pub last_orders: Duration,
}

impl Default for Limits {
    fn default() -> Self {
        Self { head_time: HEAD_TIME, most_of_one_address: MOST_OF_ONE_ADDRESS, last_orders: LAST_ORDERS }
    }
}

/// What a connection too many is told.
const TOO_MANY: &[u8] = b"HTTP/1.1 503 Service Unavailable\r\nConnection: close\r\nContent-Length: 0\r\n\r\n";

/// How many connections each address has.
#[derive(Debug, Clone, Default)]
struct Addresses(Arc<Mutex<HashMap<IpAddr, usize>>>);

/// One of an address's connections; counted until it is dropped.
struct Counted {
    address: IpAddr,
    all: Addresses,
}

impl Addresses {
    fn let_in(&self, address: IpAddr, most: usize) -> Option<Counted> {
        let mut all = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let count = all.entry(address).or_default();
        if *count >= most {
            return None;
        }
        *count += 1;
        Some(Counted { address, all: self.clone() })
    }
}

impl Drop for Counted {
    fn drop(&mut self) {
        let mut all = self.all.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(count) = all.get_mut(&self.address) {
            *count -= 1;
            if *count == 0 {
                all.remove(&self.address);
            }
        }
    }
}

/// Serves a router until `shutdown` resolves. Requests under way are then finished, for as long as the limits allow;
/// whatever still hangs is cut off.
///
/// # Errors
/// When the listener has no address any more.
pub async fn serve(
    listener: TcpListener,
    router: Router,
    limits: Limits,
    shutdown: impl Future<Output = ()> + Send + 'static,
) -> std::io::Result<()> {
    listener.local_addr()?;
    let mut builder = http1::Builder::new();
    builder.timer(TokioTimer::new()).header_read_timeout(limits.head_time);
    let (addresses, graceful) = (Addresses::default(), GracefulShutdown::new());
    let mut connections = JoinSet::new();
    tokio::pin!(shutdown);
    loop {
        let accepted = tokio::select! {
            accepted = listener.accept() => accepted,
            Some(_) = connections.join_next() => continue,
            () = &mut shutdown => break,
        };
        let (stream, peer) = match accepted {
            Ok(accepted) => accepted,
            Err(_) => {
                // No descriptor is free, or the peer is gone again: others may fare better in a moment.
                tokio::time::sleep(Duration::from_millis(20)).await;
                continue;
            }
        };
        let Some(counted) = addresses.let_in(peer.ip(), limits.most_of_one_address) else {
            connections.spawn(turned_away(stream));
            continue;
        };
        // Small answers go out at once.
        let _ = stream.set_nodelay(true);
        let service = TowerToHyperService::new(router.clone());
        let connection = graceful.watch(builder.serve_connection(TokioIo::new(stream), service));
        connections.spawn(async move {
            let _counted = counted;
            // How a connection ends concerns only its other side.
            let _ = connection.await;
        });
    }
    drop(listener);
    let _ = tokio::time::timeout(limits.last_orders, graceful.shutdown()).await;
    connections.shutdown().await;
    Ok(())
}

async fn turned_away(mut stream: TcpStream) {
    // Whoever opens so many need not hear it.
    let _ = tokio::time::timeout(Duration::from_secs(1), stream.write_all(TOO_MANY)).await;
}
