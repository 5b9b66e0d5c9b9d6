//! The program: page and API over one file of data.
//!
//! - [`serve`]: the whole service on a listener, until told to stop. [`app`]: its router.
//! - [`routes`]: handlers; each reads, calls one function, and maps the result.
//! - [`wire`]: what goes over the wire, loose and unit-suffixed, and the one way from it into the core.
//! - [`problem`]: every error as RFC 9457, with the only status codes there are.
//! - [`guard`]: who may ask: Host and Origin; security headers.
//! - [`page`]: the built page inside the program. [`sample`]: the sample shop.
//!
//! What is deliberately not here: rules of the trade (`fitment`) and SQL (`store`).

pub mod extract;
pub mod guard;
pub mod page;
pub mod problem;
pub mod routes;
pub mod sample;
pub mod wire;

use std::future::Future;
use std::time::Duration;

use axum::Router;
use axum::extract::DefaultBodyLimit;
use axum::http::StatusCode;
use axum::middleware::{from_fn, map_response};
use store::Store;
use tokio::net::TcpListener;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::limit::RequestBodyLimitLayer;
use tower_http::timeout::TimeoutLayer;

/// Largest request body read, in bytes: a job with every field full is a tenth of it.
pub const BODY_LIMIT: usize = 256 * 1024;

/// Longest time one request may take.
pub const TIME_LIMIT: Duration = Duration::from_secs(10);

/// Page and API as one router.
pub fn app(store: Store) -> Router {
    let (api, openapi) = routes::api();
    let describe = axum::Json(openapi);
    let api = api
        .route("/api/v1/openapi.json", axum::routing::get(move || async move { describe }))
        .route("/api/{*rest}", axum::routing::any(|| async { problem::ApiError::NoSuchPath }));
    guarded(api.fallback(page::serve).with_state(store))
}

/// A router behind the limits, guards and headers that every request passes.
pub fn guarded(router: Router) -> Router {
    router
        .layer(DefaultBodyLimit::disable())
        .layer(RequestBodyLimitLayer::new(BODY_LIMIT))
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
    store: Store,
    shutdown: impl Future<Output = ()> + Send + 'static,
) -> std::io::Result<()> {
    axum::serve(listener, app(store)).with_graceful_shutdown(shutdown).await
}
