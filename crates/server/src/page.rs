//! The built page inside the program: nothing is fetched from anywhere else.
//!
//! Debug builds read `web/dist` as they run; release builds carry it. Files are compressed once, at build.

use axum::body::Body;
use axum::http::{HeaderMap, HeaderValue, Method, StatusCode, Uri, header};
use axum::response::{IntoResponse, Response};
use rust_embed::{EmbeddedFile, RustEmbed};

#[derive(RustEmbed)]
#[folder = "$CARGO_MANIFEST_DIR/../../web/dist"]
#[allow_missing = true]
struct Built;

const INDEX: &str = "index.html";

const NO_PAGE: &str = "<!doctype html><title>Dimensione</title><p>This program was built without its page. \
                       Build it with <code>cargo demo</code>, or use the API under <code>/api/v1</code>.";

/// Whether the page is there.
pub fn is_built_in() -> bool {
    Built::get(INDEX).is_some()
}

/// A file of the page, or the page itself for every path of its own.
pub async fn serve(method: Method, uri: Uri, headers: HeaderMap) -> Response {
    if method != Method::GET && method != Method::HEAD {
        return StatusCode::METHOD_NOT_ALLOWED.into_response();
    }
    let path = uri.path().trim_start_matches('/');
    // Only paths without a dot are the page's own; a missing file must not answer with HTML.
    let name = if path.is_empty() || !path.contains('.') { INDEX } else { path };
    let takes_gzip = headers
        .get_all(header::ACCEPT_ENCODING)
        .iter()
        .any(|value| value.to_str().is_ok_and(|list| list.split(',').any(|coding| is_gzip(coding.trim()))));
    let compressed = if takes_gzip { Built::get(&format!("{name}.gz")) } else { None };
    let (file, coding) = match compressed {
        Some(file) => (file, Some("gzip")),
        None => match Built::get(name) {
            Some(file) => (file, None),
            None if name == INDEX => return html(StatusCode::SERVICE_UNAVAILABLE, NO_PAGE),
            None => return StatusCode::NOT_FOUND.into_response(),
        },
    };
    respond(name, file, coding)
}

fn is_gzip(coding: &str) -> bool {
    coding == "gzip" || coding.starts_with("gzip;") && !coding.ends_with("q=0")
}

fn html(status: StatusCode, text: &'static str) -> Response {
    (status, [(header::CONTENT_TYPE, "text/html; charset=utf-8")], text).into_response()
}

fn respond(name: &str, file: EmbeddedFile, coding: Option<&'static str>) -> Response {
    let mime = mime_guess::from_path(name).first_or_octet_stream();
    let kind = match (mime.type_().as_str(), mime.subtype().as_str()) {
        ("text", _) | (_, "javascript") => format!("{mime}; charset=utf-8"),
        _ => mime.to_string(),
    };
    // Names under assets/ carry a hash of their content.
    let caching =
        if name.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    let mut response = Response::new(Body::from(file.data));
    let headers = response.headers_mut();
    headers.insert(header::CACHE_CONTROL, HeaderValue::from_static(caching));
    headers.insert(header::VARY, HeaderValue::from_static("accept-encoding"));
    if let Ok(kind) = HeaderValue::from_str(&kind) {
        headers.insert(header::CONTENT_TYPE, kind);
    }
    if let Some(coding) = coding {
        headers.insert(header::CONTENT_ENCODING, HeaderValue::from_static(coding));
    }
    response
}
