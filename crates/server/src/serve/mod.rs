//! Connections: how long one may take for its head, how slowly its other side may take and send, how many there may be, who
//! gives way when there are too many, and how they end.

mod crowd;
mod watch;

use std::convert::Infallible;
use std::future::Future;
use std::time::Duration;

use axum::Router;
use axum::body::Body;
use axum::http::{Request, Response};
use hyper::body::Incoming;
use hyper::server::conn::http1;
use hyper::service::service_fn;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::server::graceful::GracefulShutdown;
use tokio::io::AsyncWriteExt;
use tokio::net::{TcpListener, TcpStream};
use tokio::task::JoinSet;
use tower::ServiceExt;

use crowd::Crowd;
pub use crowd::LongAnswer;
use watch::{Arriving, Watch, Watched};
pub use watch::{LeastRate, TooSlow};

/// Longest time for a request's head, and between two requests of one connection.
pub const HEAD_TIME: Duration = Duration::from_secs(15);
/// Connections at most, beside those with long answers.
pub const MOST: usize = 1024;
/// Connections of one peer at most. A page has six; a shop's router may stand before all of its tablets.
pub const MOST_OF_ONE_PEER: usize = 512;
/// What the other side must take or send: a tenth of the slowest shop's Wi-Fi.
pub const LEAST_RATE: LeastRate = LeastRate { bytes: 16 * 1024, each: Duration::from_secs(20) };
/// How long requests under way may go on when the program is told to stop.
pub const LAST_ORDERS: Duration = Duration::from_secs(6);

/// Bounds on connections.
#[derive(Debug, Clone, Copy)]
pub struct Limits {
    /// Longest time for a request's head, and between two requests of one connection.
    pub head_time: Duration,
    /// Connections at most.
    pub most: usize,
    /// Connections of one peer at most.
    pub most_of_one_peer: usize,
    /// What the other side must take or send while there is something to take or send.
    pub least_rate: LeastRate,
    /// How long requests under way may go on after the stop.
    pub last_orders: Duration,
}

impl Default for Limits {
    fn default() -> Self {
        Self {
            head_time: HEAD_TIME,
            most: MOST,
            most_of_one_peer: MOST_OF_ONE_PEER,
            least_rate: LEAST_RATE,
            last_orders: LAST_ORDERS,
        }
    }
}

/// What a connection too many is told.
const TOO_MANY: &[u8] = b"HTTP/1.1 503 Service Unavailable\r\nConnection: close\r\nContent-Length: 0\r\n\r\n";

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
    let (crowd, graceful) = (Crowd::default(), GracefulShutdown::new());
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
        let watch = Watch::new();
        let bounds = (limits.most, limits.most_of_one_peer);
        let Some(place) = crowd.let_in(peer.ip(), &watch, bounds) else {
            connections.spawn(turned_away(stream));
            continue;
        };
        // Small answers go out at once.
        let _ = stream.set_nodelay(true);
        let (router, crowd, watched) = (router.clone(), crowd.clone(), watch.clone());
        let service = service_fn(move |request| {
            answer(router.clone(), request, watched.clone(), crowd.clone(), limits.least_rate)
        });
        let stream = TokioIo::new(Watched::new(stream, watch.clone(), limits.least_rate));
        let connection = graceful.watch(builder.serve_connection(stream, service));
        connections.spawn(async move {
            let _place = place;
            tokio::select! {
                // How a connection ends concerns only its other side.
                _ = connection => {}
                () = watch.given_up() => {}
            }
        });
    }
    drop(listener);
    let _ = tokio::time::timeout(limits.last_orders, graceful.shutdown()).await;
    connections.shutdown().await;
    Ok(())
}

/// One request of a connection, answered; whose turn it is meanwhile is noted.
async fn answer(
    router: Router,
    request: Request<Incoming>,
    watch: Watch,
    crowd: Crowd,
    least: LeastRate,
) -> Result<Response<Body>, Infallible> {
    crowd.lasts_no_longer(&watch);
    watch.works();
    let request = request.map(|body| Arriving::watched(body, watch.clone(), least));
    let response = router.oneshot(request).await?;
    watch.waits_for_it();
    if let Some(kind) = response.extensions().get::<LongAnswer>() {
        crowd.lasts(*kind, &watch);
    }
    Ok(response)
}

async fn turned_away(mut stream: TcpStream) {
    // Whoever opens so many need not hear it.
    let _ = tokio::time::timeout(Duration::from_secs(1), stream.write_all(TOO_MANY)).await;
}
