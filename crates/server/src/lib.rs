//! The program: page and API over one file of data.
//!
//! - [`serve`]: the whole service on a listener, until told to stop. [`app`]: its router.
//! - [`routes`]: handlers; each reads, calls one function, and maps the result.
//! - [`wire`]: what goes over the wire, loose and unit-suffixed, and the one way from it into the core.
//! - [`problem`]: every error as RFC 9457, with the only status codes there are.
//! - [`price_list`]: price lists as they are read. [`catalogue`]: the catalogue they make, kept at hand.
//! - [`gauge`]: the port to a measuring device.
//! - [`supplier`]: the port to a supplier, and what it said.
//! - [`brake_sweep`]: the catalogue's wheels over a brake, worked out once. [`photo`]: pictures without what a camera notes.
//! - [`guard`]: who may ask: Host and Origin; security headers.
//! - [`page`]: the built page inside the program. [`sample`]: the sample shop.
//!
//! What is deliberately not here: rules of the trade (`fitment`) and SQL (`store`).

pub mod brake_sweep;
pub mod catalogue;
pub mod extract;
pub mod gauge;
pub mod guard;
pub mod page;
pub mod photo;
pub mod price_list;
pub mod problem;
pub mod routes;
pub mod sample;
pub mod supplier;
pub mod wire;

use std::future::Future;
use std::sync::Arc;
use std::time::Duration;

use axum::Router;
use axum::extract::{DefaultBodyLimit, FromRef};
use axum::http::StatusCode;
use axum::middleware::{from_fn, map_response};
use brake_sweep::Sweeps;
use catalogue::Shelf;
use gauge::{GaugePort, NoGauge};
use price_list::{LastRead, Progress};
use store::Store;
use supplier::{Desk, SupplierPort};
use tokio::net::TcpListener;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::timeout::TimeoutLayer;

/// Largest request body read, in bytes: a job with every field full is a tenth of it.
pub const BODY_LIMIT: usize = 1024 * 1024;

/// Largest price list.
pub const LIST_LIMIT: usize = exchange::table::LARGEST_FILE;

/// Largest photo or drawing.
pub const FILE_LIMIT: usize = 8 * 1024 * 1024;

/// Longest time one request may take.
pub const TIME_LIMIT: Duration = Duration::from_secs(10);

/// What the handlers work with.
#[derive(Debug, Clone)]
pub struct Shop {
    /// The shop's file.
    pub store: Store,
    /// The gauge in the bay.
    pub gauge: Arc<dyn GaugePort>,
    /// The catalogue at hand.
    pub shelf: Shelf,
    /// The supplier, and what it said.
    pub desk: Desk,
    /// The price list that was read last.
    pub last_read: LastRead,
    /// How far lists under way have come.
    pub progress: Progress,
    /// The catalogue's wheels over brakes, as worked out.
    pub sweeps: Sweeps,
}

impl Shop {
    /// A shop without a gauge and without a supplier.
    pub fn new(store: Store) -> Self {
        Self {
            store,
            gauge: Arc::new(NoGauge),
            shelf: Shelf::default(),
            desk: Desk::default(),
            last_read: LastRead::default(),
            progress: Progress::default(),
            sweeps: Sweeps::default(),
        }
    }

    /// The same with a gauge.
    #[must_use]
    pub fn with_gauge(self, gauge: impl GaugePort + 'static) -> Self {
        Self { gauge: Arc::new(gauge), ..self }
    }

    /// The same with a supplier.
    #[must_use]
    pub fn with_supplier(self, supplier: impl SupplierPort + 'static) -> Self {
        Self { desk: Desk::with(supplier), ..self }
    }
}

impl FromRef<Shop> for Desk {
    fn from_ref(shop: &Shop) -> Self {
        shop.desk.clone()
    }
}

impl FromRef<Shop> for LastRead {
    fn from_ref(shop: &Shop) -> Self {
        shop.last_read.clone()
    }
}

impl FromRef<Shop> for Progress {
    fn from_ref(shop: &Shop) -> Self {
        shop.progress.clone()
    }
}

impl FromRef<Shop> for Store {
    fn from_ref(shop: &Shop) -> Self {
        shop.store.clone()
    }
}

impl FromRef<Shop> for Shelf {
    fn from_ref(shop: &Shop) -> Self {
        shop.shelf.clone()
    }
}

impl FromRef<Shop> for Arc<dyn GaugePort> {
    fn from_ref(shop: &Shop) -> Self {
        Arc::clone(&shop.gauge)
    }
}

/// Page and API as one router.
pub fn app(shop: Shop) -> Router {
    let (api, openapi) = routes::api();
    let describe = axum::Json(openapi);
    let api = api
        .route("/api/v1/openapi.json", axum::routing::get(move || async move { describe }))
        .route("/api/{*rest}", axum::routing::any(|| async { problem::ApiError::NoSuchPath }));
    guarded(api.fallback(page::serve).with_state(shop))
}

/// A router behind the limits, guards and headers that every request passes.
pub fn guarded(router: Router) -> Router {
    router
        .layer(DefaultBodyLimit::disable())
        .layer(TimeoutLayer::with_status_code(StatusCode::SERVICE_UNAVAILABLE, TIME_LIMIT))
        .layer(CatchPanicLayer::new())
        .layer(map_response(problem::dress_bare_error))
        .layer(from_fn(guard::only_this_machine))
        .layer(map_response(guard::security_headers))
}

/// Serves until `shutdown` resolves; requests under way are finished first.
///
/// # Errors
/// When the listener fails.
pub async fn serve(
    listener: TcpListener,
    shop: Shop,
    shutdown: impl Future<Output = ()> + Send + 'static,
) -> std::io::Result<()> {
    axum::serve(listener, app(shop)).with_graceful_shutdown(shutdown).await
}
