//! The program over a file of its own, asked as a script asks it.

use std::net::SocketAddr;

use reqwest::{Client, Method};
use serde_json::{Value, json};
use server::AppState;
use server::gauge::LineGauge;
use server::sandbox::Reader;
use store::Store;
use tokio::net::TcpListener;

pub(crate) struct Served {
    pub(crate) client: Client,
    pub(crate) address: SocketAddr,
    pub(crate) store: Store,
    _folder: tempfile::TempDir,
}

/// The command, as Cargo built it for these tests.
pub(crate) const DIMENSIONE: &str = env!("CARGO_BIN_EXE_dimensione");

impl Served {
    /// An empty shop, with a gauge when its address is given.
    pub(crate) async fn start(gauge: Option<SocketAddr>) -> Self {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(&folder.path().join("shop.sqlite")).unwrap();
        Self::of(store, folder, |shop| match gauge {
            Some(address) => shop.with_gauge(LineGauge::at(address)),
            None => shop,
        })
        .await
    }

    async fn of(store: Store, folder: tempfile::TempDir, with: impl FnOnce(AppState) -> AppState) -> Self {
        let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let address = listener.local_addr().unwrap();
        // Files are read as the program reads them: in a child of it.
        let shop = with(AppState::new(store.clone())).with_reader(Reader::apart(DIMENSIONE.into()));
        tokio::spawn(server::serve(listener, shop, std::future::pending()));
        Self { client: Client::new(), address, store, _folder: folder }
    }

    /// The sample shop.
    pub(crate) async fn sample() -> Self {
        Self::sample_with(|shop| shop).await
    }

    /// The sample shop with something beside it.
    pub(crate) async fn sample_with(with: impl FnOnce(AppState) -> AppState) -> Self {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(&folder.path().join("shop.sqlite")).unwrap();
        server::sample::fill(&store).await.unwrap();
        Self::of(store, folder, with).await
    }

    pub(crate) fn url(&self, path: &str) -> String {
        format!("http://{}/api/v1{path}", self.address)
    }

    /// Status and body; every error is a problem and none is ours to blame.
    pub(crate) async fn ask(&self, method: Method, path: &str, body: Option<Value>) -> (u16, Value) {
        let mut request = self.client.request(method, format!("http://{}/api/v1{path}", self.address));
        if let Some(body) = body {
            request = request.json(&body);
        }
        let response = request.send().await.unwrap();
        let status = response.status().as_u16();
        assert_ne!(status, 500, "{path}");
        let kind = response.headers()["content-type"].to_str().unwrap().to_owned();
        let problem = if status < 400 { "application/json" } else { "application/problem+json" };
        assert_eq!(kind, problem, "{path}: {status}");
        (status, response.json().await.unwrap())
    }

    pub(crate) async fn get(&self, path: &str) -> Value {
        let (status, body) = self.ask(Method::GET, path, None).await;
        assert_eq!(status, 200, "{path}: {body}");
        body
    }

    pub(crate) async fn post(&self, path: &str, body: Value) -> (u16, Value) {
        self.ask(Method::POST, path, Some(body)).await
    }

    pub(crate) async fn put(&self, path: &str, body: Value) -> (u16, Value) {
        self.ask(Method::PUT, path, Some(body)).await
    }

    /// A job with a square setup fitted and its id.
    pub(crate) async fn new_job(&self, fitted: &str) -> (i64, Value) {
        let (status, job) =
            self.post("/jobs", json!({ "car_label": "Skerry hatch", "fitted_line": fitted })).await;
        assert_eq!(status, 201);
        (job["id"].as_i64().unwrap(), job)
    }
}
