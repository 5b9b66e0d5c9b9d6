//! The program: page and API over one file of data.
//!
//! - [`serve()`]: the whole service on a listener, until told to stop. [`app()`]: its router. [`mod@serve`]: its connections.
//! - [`routes`]: handlers; each reads, calls one function, and maps the result.
//! - [`wire`]: what goes over the wire, loose and unit-suffixed, and the one way from it into the core.
//! - [`problem`]: every error as RFC 9457, with the only status codes there are.
//! - [`price_list`]: price lists as they are read. [`catalogue`]: the catalogue they make, kept at hand.
//! - [`changes`]: which job was changed, told to every screen.
//! - [`gauge`]: the port to a measuring device. [`car_module`]: the port to a car's module.
//! - [`supplier`]: the port to a supplier, and what it said.
//! - [`brake_sweep`]: the catalogue's wheels over a brake, worked out once. [`photo`]: the picture of a photo, and nothing else.
//! - [`guard`]: who may ask: Host, Origin, fetch metadata; security headers. [`time_limit`]: how long an answer may take.
//! - [`apart`]: other people's files, read where they harm nothing. [`download`]: files made of what is kept.
//! - [`bodies`]: room for what is sent, waited for before it is read.
//! - [`tagged`]: which very thing in which very state: `ETag` and `If-Match`.
//! - [`page`]: the built page inside the program. [`sample`]: the sample shop.
//!
//! What is deliberately not here: rules of the trade (`fitment`) and SQL (`store`).

pub mod bodies;
pub mod brake_sweep;
pub mod car_module;
pub mod changes;
pub mod download;
pub mod extract;
pub mod gauge;
pub mod guard;
pub mod page;
pub mod photo;
pub mod price_list;
pub mod problem;
pub mod routes;
pub mod sample;
pub mod sandbox;
pub mod serve;
mod strict;
pub mod supplier;
pub mod tagged;
pub mod time_limit;
pub mod wire;

use std::future::Future;
use std::sync::Arc;
use std::time::Duration;

use app::catalogue::CatalogueCache;
use app::knowledge::KnowledgeCache;
use axum::Router;
use axum::body::Bytes;
use axum::extract::{DefaultBodyLimit, FromRef};
use axum::http::{Extensions, HeaderMap, StatusCode, Version, header};
use axum::middleware::{from_fn, from_fn_with_state, map_response};
use brake_sweep::BrakeSweepCache;
use car_module::{CarModule, ModulePort};
use changes::Changes;
use download::Downloads;
use gauge::{GaugePort, NoGauge};
use price_list::{LastRead, Progress};
use problem::ApiError;
use store::{Store, StoreError};
use supplier::{SupplierClient, SupplierPort};
use tokio::net::TcpListener;
use tower_http::CompressionLevel;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::compression::predicate::{Predicate, SizeAbove};
use tower_http::timeout::RequestBodyTimeoutLayer;

/// Largest request body read, in bytes: a job with every field full is a tenth of it.
pub const BODY_LIMIT: usize = 1024 * 1024;

/// Largest price list.
pub const LIST_LIMIT: usize = exchange::table::LARGEST_FILE;

/// Largest photo or drawing.
pub const FILE_LIMIT: usize = 8 * 1024 * 1024;

/// Longest time one request may take.
pub const TIME_LIMIT: Duration = Duration::from_secs(10);

/// Longest time of one that sends a photo or a drawing over the shop's Wi-Fi.
pub const FILE_TIME: Duration = Duration::from_secs(120);

/// Longest time of one that brings, takes or exports a list: it tells how far it is meanwhile.
pub const LIST_TIME: Duration = Duration::from_secs(15 * 60);

/// Longest silence within a body.
pub const BODY_SILENCE: Duration = Duration::from_secs(10);

/// What the handlers work with.
#[derive(Debug, Clone)]
pub struct AppState {
    /// The shop's file.
    pub store: Store,
    /// The gauge in the bay.
    pub gauge: Arc<dyn GaugePort>,
    /// The catalogue at hand.
    pub shelf: CatalogueCache,
    /// The module of the car in the bay.
    pub module: CarModule,
    /// The supplier, and what it said.
    pub desk: SupplierClient,
    /// The price list that was read last.
    pub last_read: LastRead,
    /// How far lists under way have come.
    pub progress: Progress,
    /// The catalogue's wheels over brakes, as worked out.
    pub sweeps: BrakeSweepCache,
    /// What jobs last asked for know of their cars.
    pub knowledge: KnowledgeCache,
    /// Which jobs were changed, told to every screen.
    pub changes: Changes,
    /// Where other people's files are read.
    pub reader: sandbox::Reader,
    /// Files under way.
    pub downloads: Downloads,
}

impl AppState {
    /// A shop with nothing plugged in.
    pub fn new(store: Store) -> Self {
        Self {
            store,
            gauge: Arc::new(NoGauge),
            shelf: CatalogueCache::default(),
            module: CarModule::default(),
            desk: SupplierClient::default(),
            last_read: LastRead::default(),
            progress: Progress::default(),
            sweeps: BrakeSweepCache::default(),
            knowledge: KnowledgeCache::default(),
            changes: Changes::default(),
            reader: sandbox::Reader::here(),
            downloads: Downloads::default(),
        }
    }

    /// The same with other people's files read elsewhere.
    #[must_use]
    pub fn with_reader(self, reader: sandbox::Reader) -> Self {
        Self { reader, ..self }
    }

    /// The same with a gauge.
    #[must_use]
    pub fn with_gauge(self, gauge: impl GaugePort + 'static) -> Self {
        Self { gauge: Arc::new(gauge), ..self }
    }

    /// The same with a car's module.
    #[must_use]
    pub fn with_module(self, module: impl ModulePort + 'static) -> Self {
        Self { module: CarModule::with(module), ..self }
    }

    /// The same with a supplier.
    #[must_use]
    pub fn with_supplier(self, supplier: impl SupplierPort + 'static) -> Self {
        Self { desk: SupplierClient::with(supplier), ..self }
    }
}

impl FromRef<AppState> for sandbox::Reader {
    fn from_ref(shop: &AppState) -> Self {
        shop.reader.clone()
    }
}

impl FromRef<AppState> for Changes {
    fn from_ref(shop: &AppState) -> Self {
        shop.changes.clone()
    }
}

impl FromRef<AppState> for KnowledgeCache {
    fn from_ref(shop: &AppState) -> Self {
        shop.knowledge.clone()
    }
}

impl FromRef<AppState> for Downloads {
    fn from_ref(shop: &AppState) -> Self {
        shop.downloads.clone()
    }
}

impl FromRef<AppState> for SupplierClient {
    fn from_ref(shop: &AppState) -> Self {
        shop.desk.clone()
    }
}

impl FromRef<AppState> for CarModule {
    fn from_ref(shop: &AppState) -> Self {
        shop.module.clone()
    }
}

impl FromRef<AppState> for LastRead {
    fn from_ref(shop: &AppState) -> Self {
        shop.last_read.clone()
    }
}

impl FromRef<AppState> for Progress {
    fn from_ref(shop: &AppState) -> Self {
        shop.progress.clone()
    }
}

impl FromRef<AppState> for Store {
    fn from_ref(shop: &AppState) -> Self {
        shop.store.clone()
    }
}

impl FromRef<AppState> for CatalogueCache {
    fn from_ref(shop: &AppState) -> Self {
        shop.shelf.clone()
    }
}

impl FromRef<AppState> for Arc<dyn GaugePort> {
    fn from_ref(shop: &AppState) -> Self {
        Arc::clone(&shop.gauge)
    }
}

/// Work that takes its time, off the async threads.
///
/// # Errors
/// When it panicked.
pub async fn off_thread<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> Result<T, ApiError> {
    tokio::task::spawn_blocking(work).await.map_err(|_| ApiError::Store(StoreError::Panicked))
}

/// Page and API as one router.
pub fn app(shop: AppState) -> Router {
    let (api, openapi) = routes::api();
    // Written once and shared: a router is cloned for each connection.
    let description = Bytes::from(openapi.to_json().unwrap_or_default());
    let describe = move || {
        let description = description.clone();
        async move { ([(header::CONTENT_TYPE, "application/json")], description) }
    };
    let api = api
        .route("/api/v1/openapi.json", axum::routing::get(describe))
        .route("/api/{*rest}", axum::routing::any(|| async { ApiError::NoSuchPath }));
    let store = shop.store.clone();
    let api = api.fallback(page::serve).with_state(shop);
    let api = api.layer(from_fn_with_state(store, tagged::for_this_file));
    let long_answers = SizeAbove::new(LONG_ANSWER).and(is_json);
    guarded(api.layer(CompressionLayer::new().quality(CompressionLevel::Fastest).compress_when(long_answers)))
}

/// Over this, in bytes, an answer is compressed for who takes it so: a page of found setups goes through a shop's wireless
/// network at a tenth of its length.
const LONG_ANSWER: u64 = 32 * 1024;

/// Files go out as they are: theirs are compressed already, or of a length that is told.
fn is_json(_: StatusCode, _: Version, headers: &HeaderMap, _: &Extensions) -> bool {
    headers.get(header::CONTENT_TYPE).is_some_and(|kind| kind.as_bytes().starts_with(b"application/json"))
}

/// A router behind the limits, guards and headers that every request passes.
pub fn guarded(router: Router) -> Router {
    router
        .layer(DefaultBodyLimit::disable())
        .layer(RequestBodyTimeoutLayer::new(BODY_SILENCE))
        .layer(CatchPanicLayer::new())
        .layer(map_response(problem::dress_bare_error))
        .layer(from_fn_with_state(bodies::Room::default(), bodies::wait_for_room))
        .layer(from_fn(guard::only_this_machine))
        .layer(map_response(guard::security_headers))
}

/// Serves until `shutdown` resolves; requests under way are then finished, within [`serve::LAST_ORDERS`].
///
/// # Errors
/// When the listener fails.
pub async fn serve(
    listener: TcpListener,
    shop: AppState,
    shutdown: impl Future<Output = ()> + Send + 'static,
) -> std::io::Result<()> {
    let changes = shop.changes.clone();
    // Whoever listens to changes would listen for ever.
    let shutdown = async move {
        shutdown.await;
        changes.close();
    };
    serve::serve(listener, app(shop), serve::Limits::default(), shutdown).await
}
