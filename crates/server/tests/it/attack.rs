//! What an attack on the program found. Each of these failed before it was mended.

use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::Duration;

use axum::Router;
use axum::extract::State;
use axum::middleware::from_fn_with_state;
use axum::routing::post;
use fitment::SetupPair;
use reqwest::Method;
use serde_json::{Value, json};
use server::problem::ApiError;
use server::supplier::{HttpSupplier, Item, SupplierPort};
use server::time_limit::answered_in_time;
use store::jobs::{self, JobContent};
use store::{Store, catalogue};
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::TcpListener;

use crate::served::Served;

fn reading(id: &str, value: f64) -> Value {
    json!({ "id": id, "axle": "front", "what": "strut", "value": value, "unit": "mm", "instrument": "feeler" })
}

async fn upload(shop: &Served, path: &str, bytes: impl Into<reqwest::Body>) -> (u16, Value) {
    let request = shop.client.post(shop.url(path)).header("content-type", "application/octet-stream");
    let response = request.body(bytes).send().await.unwrap();
    (response.status().as_u16(), response.json().await.unwrap())
}

#[tokio::test]
async fn a_reading_on_a_car_whose_setup_nobody_typed_is_taken_and_counts_later() {
    let shop = Served::start(None).await;
    let (_, job) = shop.post("/jobs", json!({ "car_label": "Marn Dotterel" })).await;
    let (status, job) = shop
        .post(&format!("/jobs/{}/readings", job["id"]), json!({ "readings": [reading("r1", 12.0)] }))
        .await;
    assert_eq!((status, job["readings"][0]["fitted"].as_str()), (200, Some("")), "{job}");
    assert_eq!(job["troubles"][0]["kind"], "not_usable", "nothing to start from yet: {job}");
    let mut change = job.clone();
    change["based_on_revision"] = job["revision"].clone();
    change["fitted"] = json!({ "front": "17x7.5 ET45 225/45R17" });
    let (status, job) = shop.put(&format!("/jobs/{}", job["id"]), change).await;
    assert_eq!((status, &job["troubles"]), (200, &json!([])), "{job}");
    let ask = json!({ "job": job["id"], "fitted": job["fitted"], "planned": job["fitted"], "adjust": [] });
    let (_, bench) = shop.post("/bench", ask).await;
    let strut = serde_json::to_string(&bench).unwrap();
    assert!(strut.contains("\"strut\""), "the reading judges as soon as the wheel is named");
}

/// An SVG whose path has so many pieces.
fn many_pieces(count: usize) -> String {
    let paths: String =
        (0..count).map(|at| format!("<path d=\"M{at} -100L{} -100\"/>", at as f64 + 0.5)).collect();
    format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"100mm\" viewBox=\"0 0 100 100\"><g id=\"a\">{paths}</g></svg>"
    )
}

#[tokio::test]
async fn no_file_ends_the_program_or_eats_the_machine() {
    let shop = Served::start(None).await;
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/tests/hostile");
    let mut count = 0;
    for file in std::fs::read_dir(folder).unwrap() {
        let file = file.unwrap();
        let name = file.file_name().into_string().unwrap();
        let path =
            if name.contains("xlsx") { "/catalogue/lists?kind=wheels&supplier=x" } else { "/profiles/read" };
        let (status, answer) = upload(&shop, path, std::fs::read(file.path()).unwrap()).await;
        assert!(status == 200 || (400..500).contains(&status), "{name}: {status} {answer}");
        count += 1;
    }
    assert!(count >= 7, "the samples are there");

    let bulges = "10\n0.0\n20\n100.0\n42\n0.9\n10\n50000.0\n20\n100.0\n42\n0.9\n".repeat(3_000);
    let dxf =
        format!("0\nSECTION\n2\nENTITIES\n0\nLWPOLYLINE\n8\na\n90\n6000\n70\n0\n{bulges}0\nENDSEC\n0\nEOF\n");
    let nested = format!("<svg>{}{}</svg>", "<g id=\"a\">".repeat(3_000), "</g>".repeat(3_000));
    let layers: String = (0..600).map(|at| format!("{at},1,layer {at}\n")).collect();
    let entities = format!("0\nSECTION\n2\nENTITIES\n{}0\nENDSEC\n0\nEOF\n", "0\nPOINT\n".repeat(130_000));
    let arc = "<svg><path d=\"M0 0A1e300 1e300 0 0 1 9 9\"/></svg>".to_owned();
    for (what, file, says) in [
        ("bulges", dxf, "more than 100000 points"),
        (
            "a page of a light year",
            "<svg width=\"1e20mm\" viewBox=\"0 0 1 1\"><path d=\"M0 0Q9 9 9 0\"/></svg>".into(),
            "make a unit of",
        ),
        ("nested groups", nested, ""),
        ("layers", layers, "more than 500 layers"),
        ("entities", entities, "more than 120000 pieces"),
        ("an arc of infinite radius", arc, "is further out than"),
    ] {
        let (status, answer) = upload(&shop, "/profiles/read", file).await;
        assert!((400..500).contains(&status), "{what}: {status} {answer}");
        assert!(answer["detail"].as_str().unwrap().contains(says), "{what}: {answer}");
    }
    let (status, answer) = upload(&shop, "/profiles/read", many_pieces(20_000)).await;
    assert_eq!((status, answer["layers"][0]["contours"].as_u64()), (200, Some(20_000)));

    // Headings without cells under them cost nothing.
    let wide =
        format!("{}\n{}", (0..200).map(|at| format!("c{at},")).collect::<String>(), "x\n".repeat(5_000));
    let (status, _) = upload(&shop, "/catalogue/lists?kind=wheels&supplier=x", wide).await;
    assert!(status < 500);
    let (status, answer) =
        upload(&shop, "/catalogue/lists?kind=wheels&supplier=x", format!("a,b\n{}", ",".repeat(200_000)))
            .await;
    assert!(
        status == 422 && answer["detail"].as_str().unwrap().contains("more cells than any list"),
        "{answer}"
    );
    let (status, _) = upload(&shop, "/jobs/1/photos", "no photo").await;
    assert_eq!(status, 422);
    assert_eq!(shop.get("/jobs").await, json!([]), "and the program is there");
}

#[tokio::test]
async fn photos_of_an_older_program_never_leave_as_they_are() {
    let shop = Served::sample().await;
    let mut png = Vec::new();
    image::RgbImage::new(2, 2)
        .write_to(&mut std::io::Cursor::new(&mut png), image::ImageFormat::Png)
        .unwrap();
    png.extend(b"+47.6583 behind the end");
    shop.store
        .write(move |tx| {
            Ok(tx.execute(
                "INSERT INTO photo (id, job_id, media_type, bytes, taken_at) VALUES (77, 1, 'image/png', ?1, 'x')",
                [png],
            )?)
        })
        .await
        .unwrap();
    for _ in 0..2 {
        let bytes =
            shop.client.get(shop.url("/jobs/1/photos/77")).send().await.unwrap().bytes().await.unwrap();
        assert!(bytes.starts_with(b"\x89PNG") && !bytes.windows(7).any(|window| window == b"47.6583"));
    }
    let gone = shop.client.delete(shop.url("/jobs/1/photos/77")).send().await.unwrap();
    assert_eq!(gone.status(), 204);
    let (status, _) = shop.ask(Method::GET, "/jobs/1/photos/77", None).await;
    assert_eq!(status, 404);
}

#[tokio::test]
async fn brakes_are_held_against_the_list_that_was_taken_last() {
    let shop = Served::sample().await;
    let jobs = shop.get("/jobs").await;
    let brant =
        jobs.as_array().unwrap().iter().find(|job| job["car_label"].as_str().unwrap().contains("Brant"));
    let job = brant.unwrap()["id"].clone();
    for round in 0..6 {
        let list =
            format!("article,line,size,bolt_circles,center_bore\nq1,Quay,18x8 ET{},5x108,63.4\n", 30 + round);
        let (_, tried) = upload(&shop, "/catalogue/lists?kind=wheels&supplier=Quayside", list).await;
        let (status, _) =
            shop.post(&format!("/catalogue/lists/{}/take", tried["list"]["id"]), json!({})).await;
        assert_eq!(status, 200, "{tried}");
        let wheels = shop.get(&format!("/jobs/{job}/brakes/wheels?axle=front")).await;
        let quay = wheels["wheels"].as_array().unwrap().iter().find(|wheel| wheel["line"] == "Quay").unwrap();
        let wanted = format!("ET{}", 30 + round);
        assert!(serde_json::to_string(quay).unwrap().contains(&wanted), "{round}: {quay}");
    }
}

#[tokio::test]
async fn a_request_sent_twice_under_one_key_is_done_once() {
    let shop = Served::start(None).await;
    let send = |method: Method, path: &str, key: &str, body: Value| {
        let request = shop.client.request(method, shop.url(path)).header("idempotency-key", key).json(&body);
        async move {
            let response = request.send().await.unwrap();
            (response.status().as_u16(), response.json::<Value>().await.unwrap())
        }
    };
    let body = json!({ "car_label": "Skerry hatch", "fitted_line": "15x6 ET45 195/65R15" });
    let first = send(Method::POST, "/jobs", "k1", body.clone()).await;
    assert_eq!(first.0, 201);
    assert_eq!(send(Method::POST, "/jobs", "k1", body.clone()).await, first, "the same answer");
    assert_eq!(shop.get("/jobs").await.as_array().unwrap().len(), 1);
    let other = send(Method::POST, "/jobs", "k1", json!({ "car_label": "Another" })).await;
    assert_eq!((other.0, &other.1["type"]), (422, &json!("key-reused")));
    let other = send(Method::POST, "/jobs", &"k".repeat(200), body).await;
    assert_eq!(other.0, 400);

    // A save whose answer was lost: sent again it is not somebody else's change.
    let job = first.1;
    let path = format!("/jobs/{}", job["id"]);
    let mut change = job.clone();
    change["based_on_revision"] = json!(1);
    change["wish"] = json!("flush");
    let saved = send(Method::PUT, &path, "k2", change.clone()).await;
    assert_eq!((saved.0, &saved.1["revision"]), (200, &json!(2)));
    assert_eq!(send(Method::PUT, &path, "k2", change.clone()).await, saved);
    assert_eq!(send(Method::PUT, &path, "k3", change).await.0, 409, "without its key it would be");
    let undo = json!({ "based_on_revision": 2 });
    let undone = send(Method::POST, &format!("{path}/undo"), "k4", undo.clone()).await;
    assert_eq!(send(Method::POST, &format!("{path}/undo"), "k4", undo).await, undone);

    // Files as well.
    let list = "article,line,size\nq1,Quay,18x8 ET30\n";
    for _ in 0..2 {
        let request = shop
            .client
            .post(shop.url("/catalogue/lists?kind=wheels&supplier=Quayside"))
            .header("idempotency-key", "k5")
            .header("content-type", "application/octet-stream");
        assert_eq!(request.body(list).send().await.unwrap().status(), 200);
    }
    assert_eq!(shop.get("/catalogue/lists").await.as_array().unwrap().len(), 1);
    let taken = send(Method::POST, "/catalogue/lists/1/take", "k7", json!({})).await;
    assert_eq!((taken.0, &taken.1["new"]), (200, &json!(1)));
    assert_eq!(send(Method::POST, "/catalogue/lists/1/take", "k7", json!({})).await, taken);
    assert_eq!(send(Method::POST, "/catalogue/lists/1/take", "k8", json!({})).await.0, 409);
    let kept =
        send(Method::POST, &format!("{path}/candidates"), "k6", json!({ "based_on_revision": 1 })).await;
    assert_eq!(kept.0, 409, "stale, and not a fault of the plan");
}

fn bare_job(car: &str) -> JobContent {
    JobContent {
        car_label: car.to_owned(),
        wish: String::new(),
        stage: jobs::Stage::Bench,
        drive: None,
        notes: String::new(),
        fitted: SetupPair::default(),
        planned: SetupPair::default(),
        candidates: Vec::new(),
        put_away: false,
        wishes: None,
        road: None,
        measurements: store::measurements::Measurements::default(),
        picked: store::picked::Picked::default(),
        workshop: store::workshop::Workshop::default(),
    }
}

/// Hangs before it commits, until nobody waits for it any more.
async fn hangs_before(State((store, _)): State<(Store, Duration)>) -> Result<&'static str, ApiError> {
    let (go, may_go) = std::sync::mpsc::channel::<()>();
    // Dropped with the request; the change hears that.
    let _until_dropped = go;
    let create = move |tx: &rusqlite::Transaction<'_>| {
        let job = jobs::create(tx, &bare_job("too late"), "", jiff::Timestamp::now());
        let _ = may_go.recv();
        job
    };
    store.write(create).await?;
    Ok("done")
}

/// Commits, and answers after its limit.
async fn hangs_after(State((store, limit)): State<(Store, Duration)>) -> Result<&'static str, ApiError> {
    store.write(|tx| jobs::create(tx, &bare_job("kept"), "", jiff::Timestamp::now())).await?;
    tokio::time::sleep(2 * limit).await;
    Ok("done")
}

#[tokio::test]
async fn a_time_limit_cuts_off_waiting_and_never_the_truth() {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("shop.sqlite")).unwrap();
    let labels = || {
        let store = store.clone();
        let page = jobs::Page { find: String::new(), put_away: false, from: 0, most: 9 };
        async move {
            let (_, jobs) = store.read(move |c| jobs::list(c, &page)).await.unwrap();
            jobs.into_iter().map(|job| job.car_label).collect::<Vec<_>>()
        }
    };
    // On a busy machine a commit may come after a short limit: that is answered as not applied, and tried again with a
    // longer one.
    let mut limit = Duration::from_millis(25);
    loop {
        let router = Router::new()
            .route("/before", post(hangs_before))
            .route("/after", post(hangs_after))
            .layer(from_fn_with_state(limit, answered_in_time))
            .with_state((store.clone(), limit));
        let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let base = format!("http://{}", listener.local_addr().unwrap());
        tokio::spawn(async move { axum::serve(listener, router).await });
        let client = reqwest::Client::new();
        let before = client.post(format!("{base}/before")).send().await.unwrap();
        assert_eq!(before.status(), 503);
        let after = client.post(format!("{base}/after")).send().await.unwrap();
        if after.status() == 200 {
            break;
        }
        assert!(after.status() == 503 && labels().await.is_empty(), "not applied, as was said");
        limit *= 2;
    }
    assert_eq!(labels().await, ["kept"], "applied, as was said; what was given up never was");
}

#[tokio::test]
async fn exports_give_back_what_they_took_and_come_back_whole() {
    let shop = Served::sample().await;
    let total = |kind: &str| {
        let path = format!("/catalogue/rows?kind={kind}");
        let shop = &shop;
        async move { shop.get(&path).await["total"].as_u64().unwrap() }
    };
    for kind in ["wheels", "tires"] {
        for format in ["csv", "xlsx", "json"] {
            let url = shop.url(&format!("/catalogue/export?kind={kind}&format={format}"));
            let response = shop.client.get(url).send().await.unwrap();
            let length: usize = response.headers()["content-length"].to_str().unwrap().parse().unwrap();
            let file = response.bytes().await.unwrap();
            assert_eq!(file.len(), length, "{kind} {format}");
            let other = Served::start(None).await;
            let path = format!("/catalogue/lists?kind={kind}&supplier=all");
            let (status, tried) = upload(&other, &path, file).await;
            assert_eq!((status, &tried["faulty"]), (200, &json!(0)), "{kind} {format}: {tried}");
            assert_eq!(
                tried["new"].as_u64().unwrap() + tried["unchanged"].as_u64().unwrap(),
                total(kind).await
            );
        }
    }
    let (status, _) = shop.ask(Method::GET, "/catalogue/export?kind=wheels&format=pdf", None).await;
    assert_eq!(status, 422);
    // A cell that a spreadsheet would run is guarded after every separator.
    let list = "article;line;size\nq1;\"Quay;=1+1\";18x8 ET30\n";
    let (_, tried) = upload(&shop, "/catalogue/lists?kind=wheels&supplier=Quayside", list).await;
    let (status, _) = shop.post(&format!("/catalogue/lists/{}/take", tried["list"]["id"]), json!({})).await;
    assert_eq!(status, 200);
    let csv = shop.client.get(shop.url("/catalogue/export?kind=wheels&format=csv"));
    let csv = csv.send().await.unwrap().text().await.unwrap();
    assert!(csv.contains("Quay;'=1+1"), "{csv}");
}

#[tokio::test]
async fn one_damaged_row_costs_that_row() {
    let shop = Served::sample().await;
    let all = shop.get("/jobs").await.as_array().unwrap().len();
    shop.store
        .write(|tx| {
            tx.execute("UPDATE job SET fitted_front = '18x8 ETX' WHERE id = 3", [])?;
            tx.execute("UPDATE proven_fit SET record = '{' WHERE id = 5", [])?;
            tx.execute("UPDATE catalogue_row SET record = '[' WHERE id = 5", [])?;
            tx.execute("INSERT INTO house (id, revision, units) VALUES (1, 1, 'metric') ON CONFLICT DO NOTHING", [])?;
            tx.execute("INSERT INTO house_limit (code, value) VALUES ('arch_mm', 1e9) ON CONFLICT DO UPDATE SET value = 1e9", [])?;
            Ok(())
        })
        .await
        .unwrap();
    let jobs = shop.get("/jobs").await;
    let jobs = jobs.as_array().unwrap();
    assert_eq!(jobs.len(), all);
    let damaged: Vec<_> = jobs.iter().filter(|job| !job["damaged"].is_null()).collect();
    assert!(damaged.len() == 1 && damaged[0]["id"] == 3, "{damaged:?}");
    assert!(damaged[0]["damaged"].as_str().unwrap().contains("18x8 ETX"));
    let response = shop.client.get(shop.url("/jobs/3")).send().await.unwrap();
    assert_eq!(response.status(), 500);
    let problem: Value = response.json().await.unwrap();
    assert!(
        problem["type"] == "damaged"
            && problem["errors"][0]["detail"].as_str().unwrap().contains("/jobs/3/mend")
    );
    let mended = shop.client.post(shop.url("/jobs/3/mend")).send().await.unwrap();
    assert_eq!(mended.status(), 200);
    assert!(shop.get("/jobs/3").await["fitted"]["front"].is_string());
    let again = shop.client.post(shop.url("/jobs/3/mend")).send().await.unwrap();
    assert_eq!(again.status(), 409);

    let library = shop.get("/proven").await;
    assert_eq!(library["damaged"][0]["id"], 5, "{}", library["damaged"]);
    let gone = shop.client.delete(shop.url("/proven/5")).send().await.unwrap();
    assert_eq!(gone.status(), 204);
    let rows = shop.get("/catalogue/rows?kind=wheels").await;
    let tires = shop.get("/catalogue/rows?kind=tires").await;
    let broken = |rows: &Value| {
        rows["rows"].as_array().unwrap().iter().filter(|row| !row["damaged"].is_null()).count()
    };
    assert_eq!(broken(&rows) + broken(&tires), 1);
    let house = shop.get("/house").await;
    assert!(house["damaged"][0].as_str().unwrap().contains("arch_mm"), "{house}");
}

#[tokio::test]
async fn a_page_is_no_longer_than_is_described() {
    let shop = Served::sample().await;
    for (most, status) in
        [("500", 200), ("501", 400), ("2147483648", 400), ("99999999999999999999", 400), ("-1", 400)]
    {
        let (answered, said) = shop.ask(Method::GET, &format!("/jobs?most={most}"), None).await;
        assert_eq!(answered, status, "{most}: {said}");
    }
    let described = shop.get("/openapi.json").await;
    let parameters = described["paths"]["/api/v1/jobs"]["get"]["parameters"].as_array().unwrap();
    let most = parameters.iter().find(|one| one["name"] == "most").unwrap();
    assert_eq!(most["schema"]["maximum"], 500, "{most}");
}

#[tokio::test]
async fn the_list_of_jobs_comes_in_pages() {
    let shop = Served::sample().await;
    let response = shop.client.get(shop.url("/jobs?most=3&from=1")).send().await.unwrap();
    let total: usize = response.headers()["x-total-count"].to_str().unwrap().parse().unwrap();
    let page: Vec<Value> = response.json().await.unwrap();
    let all = shop.get("/jobs").await;
    let all = all.as_array().unwrap();
    assert_eq!((total, page.as_slice()), (all.len(), &all[1..4]));
    assert!(page[0].get("readings").is_none() && page[0]["candidates"].is_number(), "what the counter shows");
    assert_eq!(shop.get("/jobs?from=4294967295").await, json!([]));
    assert_eq!(shop.get("/catalogue/rows?kind=wheels&from=18446744073709551615").await["rows"], json!([]));
}

#[tokio::test]
async fn a_job_of_many_readings_answers_in_kilobytes() {
    let shop = Served::start(None).await;
    let (id, _) = shop.new_job("17x7.5 ET45 225/45R17").await;
    for batch in 0..10 {
        let readings: Vec<Value> =
            (0..200).map(|at| reading(&format!("r{batch}-{at}"), 5.0 + f64::from(at))).collect();
        let (status, _) = shop.post(&format!("/jobs/{id}/readings"), json!({ "readings": readings })).await;
        assert_eq!(status, 200);
    }
    let job = shop.get(&format!("/jobs/{id}")).await;
    assert_eq!(job["readings"].as_array().unwrap().len(), 2000);
    let size = job.to_string().len();
    assert!(size < 1_700_000, "{size} bytes: contradictions do not grow with the square");
    let (status, refused) =
        shop.post(&format!("/jobs/{id}/readings"), json!({ "readings": [reading("one-more", 5.0)] })).await;
    assert!(status == 422 && refused["detail"].as_str().unwrap().contains("2000 readings"), "{refused}");
}

#[tokio::test]
async fn bodies_are_what_the_description_says() {
    let shop = Served::sample().await;
    let (status, _) = shop.post("/jobs/4/proven", json!([null, null])).await;
    assert_eq!(status, 422, "an array is no object");
    let (status, answer) = shop
        .post(
            "/profiles/write",
            json!({ "format": "csv", "name": "x", "points": [[0, 100, 5], [1, 101, 5]] }),
        )
        .await;
    assert_eq!(status, 422, "a point of three figures is understood, and wrong: {answer}");
    for (method, path) in [
        (Method::GET, "/jobs/01"),
        (Method::GET, "/jobs/+1"),
        (Method::DELETE, "/jobs/abc/readings/x"),
        (Method::GET, "/jobs/1/photos/abc"),
    ] {
        assert_eq!(shop.ask(method, path, None).await.0, 404, "{path}");
    }
    let mut change = shop.get("/jobs/1").await;
    change["based_on_revision"] = change["revision"].clone();
    for (field, value, says) in [
        (
            "picked",
            json!([{ "kind": "wheels", "row": 1, "record": { "size": "18x8 ET30", "line": "x", "k".repeat(900): "v" } }]),
            "no field of a price list",
        ),
        ("trials", json!([trial("t1", &[4711])]), "no photo 4711"),
        ("trials", json!([trial("t1", &[]), trial("t1", &[])]), "another trial has this id"),
    ] {
        let mut wrong = change.clone();
        wrong[field] = value;
        let (status, answer) = shop.put("/jobs/1", wrong).await;
        assert!(status == 422 && answer.to_string().contains(says), "{says}: {answer}");
    }
}

fn trial(id: &str, photos: &[i64]) -> Value {
    json!({ "id": id, "axle": "front", "setup": "17x8 ET40", "contact": "none", "plus_minus_mm": 1, "steer": "straight", "photos": photos })
}

#[tokio::test]
async fn every_answer_is_described_and_none_is_kept_by_a_browser() {
    let shop = Served::sample().await;
    let description = shop.get("/openapi.json").await;
    for (path, item) in description["paths"].as_object().unwrap() {
        for (method, operation) in item.as_object().unwrap() {
            let responses = operation["responses"].as_object().unwrap();
            assert!(responses.contains_key("403") && responses.contains_key("503"), "{method} {path}");
            for (status, response) in responses.iter().filter(|(status, _)| status.starts_with(['4', '5'])) {
                let named = response["$ref"].as_str().map(|name| name.trim_start_matches('#'));
                let response = named.map_or(Some(response), |name| description.pointer(name)).unwrap();
                let content = response["content"].as_object().unwrap();
                let kinds: Vec<&String> = content.keys().collect();
                assert_eq!(kinds, ["application/problem+json"], "{method} {path} {status}");
            }
        }
    }
    let response = shop.client.get(shop.url("/jobs")).send().await.unwrap();
    assert_eq!(response.headers()["cache-control"], "no-store");
    let cross = shop.client.get(shop.url("/catalogue/export?kind=wheels"));
    let cross = cross.header("sec-fetch-site", "cross-site").header("sec-fetch-mode", "no-cors");
    assert_eq!(cross.send().await.unwrap().status(), 403, "what an image of another page asks for");
}

#[tokio::test]
async fn a_files_room_can_be_given_back() {
    let shop = Served::sample().await;
    let lists = shop.get("/catalogue/lists").await;
    let first = &lists[0]["id"];
    let (status, list) = shop.ask(Method::DELETE, &format!("/catalogue/lists/{first}/file"), None).await;
    assert_eq!((status, &list["is_removed"]), (200, &json!(true)));
    let (status, _) = shop.post(&format!("/catalogue/lists/{first}/try"), json!({})).await;
    assert_eq!(status, 409, "its file is gone");
    let before = shop.get("/house/storage").await;
    assert!(before["list_files"]["count"].as_u64() > Some(0));
    let (status, after) = shop.post("/house/storage/remove", json!({ "list_files": true })).await;
    assert_eq!((status, &after["list_files"]["count"]), (200, &json!(0)), "{after}");
    assert!(after["file_bytes"].as_u64() <= before["file_bytes"].as_u64());
    let rows = shop.store.read(|c| catalogue::rows(c, "wheels", "", 0, 1)).await.unwrap();
    assert!(rows.0 > 0, "what was taken of the lists stays");
    let library = shop.get("/proven").await;
    let import = &library["imports"][0];
    let (_, gone) = shop.ask(Method::DELETE, &format!("/proven/imports/{}", import["id"]), None).await;
    assert_eq!(gone["removed"], import["fits"]);
}

fn item() -> Item {
    Item {
        kind: "wheels",
        article: None,
        line: "Quay".to_owned(),
        size: "18x8 ET30".to_owned(),
        finish: String::new(),
        listed_price: None,
    }
}

/// A supplier that answers with these bytes after its head, and then again and again.
async fn supplier(once: &'static str, again: &'static [u8]) -> HttpSupplier {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    tokio::spawn(async move {
        while let Ok((mut stream, _)) = listener.accept().await {
            let mut head = [0; 4096];
            let _ = stream.read(&mut head).await;
            let _ = stream.write_all(b"HTTP/1.1 200 OK\r\nconnection: close\r\n\r\n").await;
            let _ = stream.write_all(once.as_bytes()).await;
            while !again.is_empty() && stream.write_all(again).await.is_ok() {}
        }
    });
    HttpSupplier::at(address).unwrap()
}

#[tokio::test]
async fn a_supplier_does_not_say_where_the_question_goes_next() {
    let (elsewhere, asked) = (TcpListener::bind("127.0.0.1:0").await.unwrap(), Arc::new(AtomicUsize::new(0)));
    let there = elsewhere.local_addr().unwrap();
    let counted = Arc::clone(&asked);
    tokio::spawn(async move {
        while elsewhere.accept().await.is_ok() {
            counted.fetch_add(1, Ordering::SeqCst);
        }
    });
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    tokio::spawn(async move {
        while let Ok((mut stream, _)) = listener.accept().await {
            let _ = stream.read(&mut [0; 4096]).await;
            let answer =
                format!("HTTP/1.1 307 There\r\nlocation: http://{there}/\r\ncontent-length: 0\r\n\r\n");
            let _ = stream.write_all(answer.as_bytes()).await;
        }
    });
    let said = HttpSupplier::at(address).unwrap().ask(&[item()]).await;
    assert_eq!(said, Err("it sends us elsewhere, where nobody told us to go".to_owned()));
    assert_eq!(asked.load(Ordering::SeqCst), 0);
    let nothing = "{\"items\": [{\"stock\": 4, \"lead_days\": 2, \"price\": -0.0, \"discontinued\": false}]}";
    let known = supplier(nothing, b"").await.ask(&[item()]).await.unwrap();
    assert!(known[0].unwrap().price.is_sign_positive(), "nothing is no less than nothing");
}

#[tokio::test]
async fn a_suppliers_answer_is_bounded_in_size_and_sense() {
    let endless = supplier("{\"items\": [", &[b' '; 65536]).await;
    let said = endless.ask(&[item()]).await;
    assert_eq!(said, Err("its answer does not end".to_owned()));
    let answer = "{\"items\": [{\"stock\": 4, \"lead_days\": 2, \"price\": 1e308, \"discontinued\": false},
        {\"stock\": 4, \"lead_days\": 4294967295, \"price\": 1, \"discontinued\": false},
        {\"stock\": 4, \"lead_days\": 2, \"price\": -3, \"discontinued\": false},
        {\"stock\": 4, \"lead_days\": 2, \"price\": 3, \"discontinued\": false}]}";
    let known = supplier(answer, b"").await.ask(&[item(), item(), item(), item()]).await.unwrap();
    let known: Vec<bool> = known.iter().map(Option::is_some).collect();
    assert_eq!(known, [false, false, false, true], "one that makes no sense costs that item");
}

#[tokio::test]
async fn a_sheet_that_cannot_be_read_is_shown_kept_and_never_written_over() {
    let shop = Served::sample().await;
    let newer = r#"{"version":7,"cruise_kmh":{"shown":100,"true":96}}"#;
    shop.store
        .write(move |tx| Ok(tx.execute("UPDATE job SET road = ?1 WHERE id = 1", [newer])?))
        .await
        .unwrap();
    let job = shop.get("/jobs/1").await;
    let told = &job["unreadable"][0];
    assert_eq!((&job["road"], &told["what"], &told["text"]), (&Value::Null, &json!("road"), &json!(newer)));
    assert!(told["why"].as_str().unwrap().contains("a newer program wrote it"), "{told}");
    // Nothing is typed over it.
    let put = |job: &Value, road: Value| {
        let mut body = job.clone();
        body["based_on_revision"] = job["revision"].clone();
        body["signed_by"] = json!("test");
        body["road"] = road;
        shop.client.put(shop.url("/jobs/1")).json(&body).send()
    };
    let refused = put(&job, json!({ "cruise_kmh": 110.0 })).await.unwrap();
    assert_eq!(refused.status(), 422);
    let problem: Value = refused.json().await.unwrap();
    assert_eq!(problem["errors"][0]["pointer"], "/road");
    // What else is changed of the job leaves it as it stands.
    let kept = put(&job, Value::Null).await.unwrap();
    assert_eq!(kept.status(), 200);
    assert_eq!(shop.get("/jobs/1").await["unreadable"][0]["text"], newer);
    // Nothing is proposed as legal in a class that cannot be read.
    let asked = shop.client.post(shop.url("/jobs/1/finder")).json(&json!({ "in_class": true }));
    assert_eq!(asked.send().await.unwrap().status(), 422);
    // Taken off by hand, and brought back by undo.
    let off = shop.client.delete(shop.url("/jobs/1/unreadable/road?signed_by=test")).send().await.unwrap();
    assert_eq!(off.status(), 200);
    let job: Value = off.json().await.unwrap();
    assert_eq!(job["unreadable"], json!([]));
    let again = shop.client.delete(shop.url("/jobs/1/unreadable/road")).send().await.unwrap();
    assert_eq!(again.status(), 404);
    assert_eq!(put(&job, json!({ "cruise_kmh": 110.0 })).await.unwrap().status(), 200);
    let revision = shop.get("/jobs/1").await["revision"].clone();
    let undo = json!({ "based_on_revision": revision, "signed_by": "test" });
    assert_eq!(shop.post("/jobs/1/undo", undo).await.0, 200);
    let revision = shop.get("/jobs/1").await["revision"].clone();
    let undo = json!({ "based_on_revision": revision, "signed_by": "test" });
    assert_eq!(shop.post("/jobs/1/undo", undo).await.0, 200);
    assert_eq!(shop.get("/jobs/1").await["unreadable"][0]["text"], newer);
}
