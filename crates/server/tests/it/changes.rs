//! A change is heard on every screen that listens.

use std::time::Duration;

use crate::served::{DIMENSIONE, Served};
use reqwest::Response;
use serde_json::{Value, json};
use server::AppState;
use server::sandbox::Reader;
use store::Store;
use tokio::net::TcpListener;
use tokio::sync::oneshot;

/// The next event of a stream, by name and data; comments that keep it open are passed over.
async fn next_event(stream: &mut Response, rest: &mut String) -> (String, Value) {
    loop {
        while let Some((event, after)) = rest.split_once("\n\n").map(|(a, b)| (a.to_owned(), b.to_owned())) {
            *rest = after;
            let field = |name: &str| event.lines().find_map(|line| line.strip_prefix(name)).map(str::trim);
            if let (Some(name), Some(data)) = (field("event:"), field("data:")) {
                return (name.to_owned(), serde_json::from_str(data).unwrap());
            }
        }
        let bytes = stream.chunk().await.unwrap().expect("the stream stays open");
        rest.push_str(std::str::from_utf8(&bytes).unwrap());
    }
}

async fn listen(shop: &Served) -> Response {
    let stream = shop.client.get(shop.url("/changes")).send().await.unwrap();
    assert_eq!(stream.headers()["content-type"], "text/event-stream");
    stream
}

#[tokio::test]
async fn every_screen_hears_who_changed_what() {
    let shop = Served::start(None).await;
    let (id, _) = shop.new_job("17x7.5 ET45 225/45R17").await;
    let (mut desk, mut tablet) = (listen(&shop).await, listen(&shop).await);
    let reading = json!({ "signed_by": "OV", "readings": [{ "id": "r1", "axle": "rear", "side": "left",
        "what": "strut", "value": 14, "unit": "mm", "instrument": "steel_rule" }] });
    assert_eq!(shop.post(&format!("/jobs/{id}/readings"), reading.clone()).await.0, 200);
    for stream in [&mut desk, &mut tablet] {
        let (name, change) = next_event(stream, &mut String::new()).await;
        assert_eq!(name, "job");
        assert_eq!(
            (&change["job"], &change["revision"], &change["who"]),
            (&json!(id), &json!(2), &json!("OV"))
        );
        let what = change["what"].as_str().unwrap();
        assert!(what.starts_with("reading taken: ") && what.ends_with(", rear left"), "{what}");
    }
    // Undo says what it takes back before it does.
    let job = shop.get(&format!("/jobs/{id}")).await;
    assert!(job["undoes"].as_str().unwrap().starts_with("reading taken"), "{job}");
    let (_, job) = shop.post(&format!("/jobs/{id}/undo"), json!({ "based_on_revision": 2 })).await;
    assert_eq!(job["undoes"], Value::Null);
    assert!(job["redoes"].as_str().unwrap().starts_with("reading taken"));
}

#[tokio::test]
async fn a_listener_that_fell_behind_is_told_so() {
    let shop = Served::start(None).await;
    let (id, _) = shop.new_job("17x7.5 ET45 225/45R17").await;
    let changes = server::changes::Changes::default();
    let told = |revision| server::changes::JobChanged {
        job: id,
        uid: String::new(),
        revision,
        token: String::new(),
        who: String::new(),
        what: "notes".to_owned(),
    };
    let stream = changes.stream();
    for revision in 0..400 {
        changes.tell(told(revision));
    }
    changes.close();
    let events: Vec<_> = tokio_stream::StreamExt::collect(stream).await;
    assert!(format!("{:?}", events.first()).contains("missed"), "{:?}", events.first());
    assert!(events.len() < 400 && events.len() > 100);
}

#[tokio::test]
async fn a_program_that_stops_ends_the_streams_at_once() {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("shop.sqlite")).unwrap();
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    let shop = AppState::new(store).with_reader(Reader::apart(DIMENSIONE.into()));
    let (stop, stopped) = oneshot::channel::<()>();
    let served = tokio::spawn(server::serve(listener, shop, async move {
        let _ = stopped.await;
    }));
    let mut stream = reqwest::get(format!("http://{address}/api/v1/changes")).await.unwrap();
    stop.send(()).unwrap();
    // Well before the last orders, after which it would be cut off.
    assert_eq!(stream.chunk().await.unwrap(), None);
    tokio::time::timeout(Duration::from_secs(60), served).await.unwrap().unwrap().unwrap();
}
