//! The page as the program hands it out. `cargo verify` builds it first; without it these say so.

use std::net::SocketAddr;

use reqwest::{Client, Response, StatusCode};
use store::Store;
use tokio::net::TcpListener;

struct Page {
    client: Client,
    address: SocketAddr,
    _folder: tempfile::TempDir,
}

async fn page() -> Page {
    assert!(server::page::is_built_in(), "the page is not built: run cargo verify, or cargo demo once");
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("shop.sqlite")).unwrap();
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    tokio::spawn(server::serve(listener, server::AppState::new(store), std::future::pending()));
    Page { client: Client::new(), address, _folder: folder }
}

impl Page {
    async fn get(&self, path: &str, takes: &str) -> Response {
        let url = format!("http://{}{path}", self.address);
        self.client.get(url).header("accept-encoding", takes).send().await.unwrap()
    }
}

fn header<'r>(response: &'r Response, name: &str) -> &'r str {
    response.headers().get(name).map(|value| value.to_str().unwrap()).unwrap_or_default()
}

#[tokio::test]
async fn every_path_of_the_page_is_the_page() {
    let page = page().await;
    for path in ["/", "/jobs/6/bench", "/jobs/6/compare", "/anything"] {
        let response = page.get(path, "").await;
        assert_eq!(
            (response.status(), header(&response, "cache-control")),
            (StatusCode::OK, "no-cache"),
            "{path}"
        );
        assert!(header(&response, "content-security-policy").contains("frame-ancestors 'none'"));
        assert!(response.text().await.unwrap().contains("<div id=\"root\">"), "{path}");
    }
}

#[tokio::test]
async fn a_file_that_is_not_there_is_no_page() {
    let page = page().await;
    for path in ["/assets/gone.js", "/../Cargo.toml", "/%2e%2e/Cargo.toml", "/.built.txt"] {
        let response = page.get(path, "").await;
        assert_eq!(response.status(), StatusCode::NOT_FOUND, "{path}");
        assert_eq!(header(&response, "content-type"), "application/problem+json", "{path}");
    }
}

#[tokio::test]
async fn scripts_come_compressed_to_who_takes_it_and_are_kept_for_good() {
    let page = page().await;
    let index = page.get("/", "").await.text().await.unwrap();
    let script = index.split('"').find(|part| part.ends_with(".js")).unwrap().to_owned();
    let plain = page.get(&script, "br").await;
    let gzipped = page.get(&script, "br, gzip;q=0.8").await;
    let refused = page.get(&script, "gzip;q=0").await;
    assert_eq!((header(&plain, "content-encoding"), header(&gzipped, "content-encoding")), ("", "gzip"));
    assert_eq!(header(&refused, "content-encoding"), "");
    assert_eq!(header(&plain, "content-type"), "text/javascript; charset=utf-8");
    assert!(header(&gzipped, "cache-control").contains("immutable"));
    let (plain, gzipped) = (plain.bytes().await.unwrap().len(), gzipped.bytes().await.unwrap().len());
    assert!(gzipped < plain / 2, "{gzipped} of {plain}");
}

#[tokio::test]
async fn nothing_is_fetched_from_anywhere_else() {
    let page = page().await;
    let index = page.get("/", "").await.text().await.unwrap();
    let parts: Vec<String> =
        index.split('"').filter(|part| part.starts_with("/assets/")).map(str::to_owned).collect();
    assert!(parts.len() >= 2, "a script and a style sheet");
    for part in parts {
        let text = page.get(&part, "").await.text().await.unwrap();
        // Addresses in the code are names (of SVG's namespace, of help pages in messages), never loaded: the
        // policy would stop it. Style sheets load what they name.
        if part.ends_with(".css") {
            assert!(!text.contains("url(http") && !text.contains("@import"), "{part}");
        }
    }
}
