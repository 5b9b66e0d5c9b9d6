//! The API as scripts and other shops' programs use it.

use std::net::SocketAddr;

use reqwest::{Client, Method, StatusCode};
use serde_json::{Value, json};
use store::Store;
use tokio::net::TcpListener;

struct Api {
    client: Client,
    address: SocketAddr,
    _folder: tempfile::TempDir,
}

async fn api() -> Api {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("shop.sqlite")).unwrap();
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    tokio::spawn(server::serve(listener, server::AppState::new(store), std::future::pending()));
    Api { client: Client::new(), address, _folder: folder }
}

impl Api {
    fn url(&self, path: &str) -> String {
        format!("http://{}/api/v1{path}", self.address)
    }

    async fn get(&self, path: &str) -> (StatusCode, Value) {
        answer(self.client.get(self.url(path))).await
    }

    async fn send(&self, method: Method, path: &str, body: Value) -> (StatusCode, Value) {
        answer(self.client.request(method, self.url(path)).json(&body)).await
    }

    async fn post(&self, path: &str, body: Value) -> (StatusCode, Value) {
        self.send(Method::POST, path, body).await
    }

    async fn new_job(&self) -> Value {
        let body = json!({ "car_label": "Skerry hatch", "fitted_line": "17x7.5 ET45 225/45R17 94W" });
        let (status, job) = self.post("/jobs", body).await;
        assert_eq!(status, StatusCode::CREATED);
        job
    }
}

/// Every answer is JSON, and every error a problem.
async fn answer(request: reqwest::RequestBuilder) -> (StatusCode, Value) {
    let response = request.send().await.unwrap();
    let status = response.status();
    let kind = response.headers()["content-type"].to_str().unwrap().to_owned();
    assert_ne!(status, StatusCode::INTERNAL_SERVER_ERROR);
    let expected = if status.is_success() { "application/json" } else { "application/problem+json" };
    assert_eq!(kind, expected, "{status}");
    let body: Value = response.json().await.unwrap();
    if !status.is_success() {
        assert_eq!(body["status"], status.as_u16());
        for member in ["type", "title", "detail"] {
            assert!(body[member].as_str().is_some_and(|text| !text.is_empty()), "{member} in {body}");
        }
    }
    (status, body)
}

fn near(value: &Value, expected: f64) {
    let found = value.as_f64().unwrap_or_else(|| panic!("{value} is no number"));
    assert!((found - expected).abs() < 1e-9, "{found}, not {expected}");
}

#[tokio::test]
async fn a_tire_is_described() {
    let api = api().await;
    let (status, tire) = api.get("/tires/describe?size=225/45R17%2094W&rim_width_in=8").await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(tire["canonical"], "225/45R17 94W");
    // Arithmetic and the standards named in fitment's own tests: ISO 4000-1, UN R30 §6.1.1, ETRTO (memory).
    for (member, expected) in [
        ("section_width_mm", 225.0),
        ("aspect_ratio", 45.0),
        ("rim_diameter_in", 17.0),
        ("sidewall_mm", 101.25),
        ("overall_diameter_mm", 634.3),
        ("circumference_mm", 634.3 * std::f64::consts::PI),
        ("load_index", 94.0),
        ("load_capacity_kg", 670.0),
        ("top_speed_kmh", 270.0),
        ("measuring_rim_in", 7.5),
        ("permitted_rim_min_in", 7.0),
        ("permitted_rim_max_in", 8.5),
        ("section_width_on_rim_mm", 230.08),
    ] {
        near(&tire[member], expected);
    }
    let (_, plain) = api.get("/tires/describe?size=33x12.50R15LT").await;
    for member in ["aspect_ratio", "load_index", "speed_symbol", "top_speed_kmh", "section_width_on_rim_mm"] {
        assert_eq!(plain[member], Value::Null, "{member}: the size does not say it");
    }
}

#[tokio::test]
async fn a_wheel_is_described() {
    let api = api().await;
    let (status, wheel) = api.get("/wheels/describe?spec=18x8.5%20ET35%205x114.3%20CB67.1").await;
    assert_eq!((status, &wheel["canonical"]), (StatusCode::OK, &json!("18x8.5 ET35 5x114.3 CB67.1")));
    // (8.5 / 2 + 0.5) × 25.4 ± 35, common practice.
    for (member, expected) in [
        ("backspacing_mm", 155.65),
        ("backspacing_in", 155.65 / 25.4),
        ("frontspacing_mm", 85.65),
        ("bolt_count", 5.0),
        ("bolt_circle_mm", 114.3),
        ("center_bore_mm", 67.1),
    ] {
        near(&wheel[member], expected);
    }
    let (_, bare) = api.get("/wheels/describe?spec=18x8.5").await;
    assert_eq!((&bare["offset_mm"], &bare["backspacing_mm"]), (&Value::Null, &Value::Null));
}

#[tokio::test]
async fn two_setups_are_compared() {
    let api = api().await;
    let body = json!({
        "fitted": { "front": "7.5x17 ET32 225/45R17", "rear": "7.5x17 ET32 225/45R17" },
        "planned": { "front": "8.5x17 ET35 245/40R17 5mm spacer", "rear": "8.5x17 ET30 245/45R17" },
    });
    let (status, compared) = api.post("/compare", body).await;
    assert_eq!(status, StatusCode::OK);
    // 7.5 ET32 → 8.5 ET30: 10.7 in, 14.7 out (common practice); a 5 mm spacer makes ET30 of ET35.
    for axle in ["front", "rear"] {
        near(&compared[axle]["effective_offset_mm"], 30.0);
        near(&compared[axle]["inner_rim_change_mm"], 10.7);
        near(&compared[axle]["outer_rim_change_mm"], 14.7);
        near(&compared[axle]["track_change_mm"], 4.0);
    }
    // 245/45R17 is 652.3 mm, 245/40R17 627.8, 225/45R17 634.3 (arithmetic).
    near(&compared["rear"]["overall_diameter_change_mm"], 18.0);
    near(&compared["rear"]["arch_gap_change_mm"], -9.0);
    near(&compared["pair"]["front_overall_diameter_mm"], 627.8);
    near(&compared["pair"]["front_to_rear_ratio_change_pct"], (627.8 / 652.3 - 1.0) * 100.0);
    let one_axle = json!({ "fitted": { "front": "17x8 ET45" }, "planned": { "front": "18x8.5 ET38" } });
    let (_, compared) = api.post("/compare", one_axle).await;
    near(&compared["front"]["outer_rim_change_mm"], 13.35);
    assert_eq!((&compared["rear"], &compared["front"]["outer_change_mm"]), (&Value::Null, &Value::Null));
}

#[tokio::test]
async fn what_cannot_be_read_is_named_by_field_and_piece() {
    let api = api().await;
    let body = json!({
        "fitted": { "front": "17x7.5 ET45 225/145R17" },
        "planned": { "front": "18x85.5 ET35", "rear": "banana" },
    });
    let (status, problem) = api.post("/compare", body).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let errors: Vec<_> = problem["errors"]
        .as_array()
        .unwrap()
        .iter()
        .map(|error| (error["pointer"].as_str().unwrap(), error["piece"].as_str().unwrap()))
        .collect();
    assert_eq!(
        errors,
        [("/fitted/front", "225/145R17"), ("/planned/front", "18x85.5"), ("/planned/rear", "banana")]
    );
    assert!(problem["detail"].as_str().unwrap().contains("aspect ratio 145 is outside 20–95"));
}

#[tokio::test]
async fn nothing_a_client_sends_breaks_the_program() {
    let api = api().await;
    let long = "9".repeat(5_000);
    for (path, status) in [
        ("/tires/describe", 400),
        ("/tires/describe?size=", 422),
        ("/tires/describe?size=%FF%FE", 422),
        ("/tires/describe?size=225/45R17&rim_width_in=wide", 400),
        ("/tires/describe?size=225/45R17&rim_width_in=NaN", 422),
        ("/tires/describe?size=225/45R17&rim_width_in=1e300", 422),
        ("/wheels/describe?spec=18x8.5%20ET9999", 422),
        ("/jobs/99", 404),
        ("/jobs/first", 404),
        ("/jobs/99999999999999999999", 404),
        ("/jobs/-1/journal", 404),
        ("/nowhere", 404),
        (&format!("/tires/describe?size={long}"), 422),
    ] {
        assert_eq!(api.get(path).await.0.as_u16(), status, "{}", &path[..path.len().min(60)]);
    }
    for (body, status) in [
        ("", 400),
        ("{\"fitted\"", 400),
        ("[]", 422),
        ("{\"fitted\": 5, \"planned\": {}}", 422),
        ("{\"fitted\": {}, \"planned\": {}}", 422),
        ("{\"fitted\": {}, \"planned\": {}} more", 400),
        (&"[".repeat(10_000), 422),
    ] {
        let request = api.client.post(api.url("/compare")).header("content-type", "application/json");
        let (found, _) = answer(request.body(body.to_owned())).await;
        assert_eq!(found.as_u16(), status, "{}", &body[..body.len().min(60)]);
    }
    let not_json = api.client.post(api.url("/compare")).body("fitted=1");
    assert_eq!(answer(not_json).await.0, StatusCode::UNSUPPORTED_MEDIA_TYPE);
    let delete = api.client.delete(api.url("/jobs"));
    assert_eq!(answer(delete).await.0, StatusCode::METHOD_NOT_ALLOWED);
    let huge = json!({ "car_label": "x".repeat(server::BODY_LIMIT + 1) });
    assert_eq!(api.post("/jobs", huge).await.0, StatusCode::PAYLOAD_TOO_LARGE);
}

#[tokio::test]
async fn another_site_is_not_let_in() {
    let api = api().await;
    for (name, value) in [("host", "wheels.example"), ("origin", "http://wheels.example")] {
        let request = api.client.get(api.url("/jobs")).header(name, value);
        assert_eq!(answer(request).await.0, StatusCode::FORBIDDEN, "{name}");
    }
    let response = api.client.get(api.url("/jobs")).send().await.unwrap();
    let policy = response.headers()["content-security-policy"].to_str().unwrap();
    assert!(policy.starts_with("default-src 'none'") && !policy.contains("unsafe"), "{policy}");
    assert_eq!(response.headers()["x-content-type-options"], "nosniff");
}

#[tokio::test]
async fn a_line_is_read_piece_by_piece() {
    let api = api().await;
    let text = "hello 18x8.5 ET35 with 225/145R18";
    let (status, line) = api.post("/setups/read", json!({ "text": text })).await;
    assert_eq!((status, &line["is_sound"]), (StatusCode::OK, &json!(false)));
    let stretches = line["stretches"].as_array().unwrap();
    let joined: String = stretches.iter().map(|stretch| stretch["text"].as_str().unwrap()).collect();
    assert_eq!(joined, text);
    let fault = stretches.iter().find(|stretch| stretch["kind"] == "fault").unwrap();
    assert_eq!(
        (&fault["text"], &fault["problem"]),
        (&json!("225/145R18"), &json!("aspect ratio 145 is outside 20–95"))
    );
    let aside = stretches.iter().find(|stretch| stretch["kind"] == "left_aside").unwrap();
    assert_eq!(aside["text"], "hello");
}

#[tokio::test]
async fn the_bench_takes_steps_and_judges() {
    let api = api().await;
    let body = |adjust: Value| {
        json!({
            "fitted": { "front": "17x7.5 ET45 225/45R17 94W", "rear": "17x7.5 ET45 225/45R17 94W" },
            "planned": { "front": "18x8.5 ET35 245/40R18 97Y" },
            "drive": "awd",
            "adjust": adjust,
        })
    };
    let steps = json!([
        { "axle": "front", "offset_mm": -3 },
        { "axle": "front", "rim_width_quarter_in": 2 },
        { "axle": "front", "spacer_mm": 2 },
    ]);
    let (status, bench) = api.post("/bench", body(steps)).await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(bench["planned"]["front"], "18x9 ET32 · 245/40R18 97Y · 2 mm spacer");
    let drawing = &bench["axles"]["front"]["planned_drawing"];
    near(&drawing["pad_y_mm"], 2.0);
    near(&drawing["center_y_mm"], -30.0);
    let ledger = bench["ledger"].as_array().unwrap();
    let speedometer = ledger.iter().find(|line| line["code"] == "speedometer").unwrap();
    assert_eq!(
        (&speedometer["word"], &speedometer["standing"]),
        (&json!("measure the dial"), &json!("measure"))
    );
    assert!(!speedometer["working"].as_array().unwrap().is_empty());
    near(&bench["true_speeds"]["metric"][1]["shown_kmh"], 100.0);
    for (adjust, pointer) in [
        (json!([{ "axle": "rear", "offset_mm": 1 }]), "/adjust/0"),
        (json!([{ "axle": "front" }, { "axle": "front", "offset_mm": 1e300 }]), "/adjust/1"),
    ] {
        let (status, problem) = api.post("/bench", body(adjust)).await;
        assert_eq!((status.as_u16(), &problem["errors"][0]["pointer"]), (422, &json!(pointer)));
    }
}

#[tokio::test]
async fn a_job_lives_through_changes_undo_and_conflict() {
    let api = api().await;
    let job = api.new_job().await;
    assert_eq!((&job["number"], &job["revision"]), (&json!("0001"), &json!(1)));
    assert_eq!(job["fitted"]["rear"], "17x7.5 ET45 · 225/45R17 94W");
    let mut change = job.clone();
    change["planned"] = json!({ "front": "18x8.5 +35 245/40R18", "rear": "18x8.5 +35 245/40R18" });
    change["based_on_revision"] = json!(1);
    change["signed_by"] = json!("mk");
    let (status, changed) = api.send(Method::PUT, "/jobs/1", change.clone()).await;
    assert_eq!((status, &changed["revision"]), (StatusCode::OK, &json!(2)));
    assert_eq!(changed["planned"]["front"], "18x8.5 ET35 · 245/40R18", "kept in its canonical form");

    change["wish"] = json!("from the other tablet");
    let (status, problem) = api.send(Method::PUT, "/jobs/1", change).await;
    assert_eq!((status, &problem["current"]["revision"]), (StatusCode::CONFLICT, &json!(2)));

    let (_, kept) = api.post("/jobs/1/candidates", json!({ "based_on_revision": 2 })).await;
    assert_eq!(kept["candidates"][0]["letter"], "A");
    let (status, problem) = api.post("/jobs/1/candidates", json!({ "based_on_revision": 3 })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(problem["detail"].as_str().unwrap().contains("kept already, as A"));
    let (_, sides) = api.get("/jobs/1/side-by-side").await;
    assert_eq!((&sides["bench"], &sides["candidates"][0]["arrangement"]), (&Value::Null, &json!("square")));

    let (_, undone) = api.post("/jobs/1/undo", json!({ "based_on_revision": 3 })).await;
    assert_eq!((&undone["candidates"], &undone["can_redo"]), (&json!([]), &json!(true)));
    let (_, redone) = api.post("/jobs/1/redo", json!({ "based_on_revision": 4 })).await;
    assert_eq!(redone["candidates"][0]["letter"], "A");
    let (status, _) = api.post("/jobs/1/redo", json!({ "based_on_revision": 5 })).await;
    assert_eq!(status, StatusCode::CONFLICT, "nothing to redo");
    let (_, journal) = api.get("/jobs/1/journal").await;
    assert_eq!((journal.as_array().unwrap().len(), &journal[3]["who"]), (5, &json!("mk")));
}

#[tokio::test]
async fn a_job_with_faults_names_them_all() {
    let api = api().await;
    let (status, problem) = api.post("/jobs", json!({ "car_label": " ", "fitted_line": "18x99" })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let pointers: Vec<_> =
        problem["errors"].as_array().unwrap().iter().map(|e| e["pointer"].clone()).collect();
    assert_eq!(pointers, ["/car_label", "/fitted_line"]);
    let mut change = api.new_job().await;
    change["based_on_revision"] = json!(1);
    change["candidates"] = json!([
        { "letter": "A", "lines": { "front": "18x8.5 ET35" } },
        { "letter": "A", "lines": {} },
        { "letter": "aa", "lines": { "rear": "?!9" } },
    ]);
    change["notes"] = json!("x".repeat(10_001));
    let (_, problem) = api.send(Method::PUT, "/jobs/1", change).await;
    let pointers: Vec<_> =
        problem["errors"].as_array().unwrap().iter().map(|e| e["pointer"].clone()).collect();
    assert_eq!(
        pointers,
        ["/candidates/1/letter", "/candidates/2/letter", "/candidates/2/lines/rear", "/notes"]
    );
}

#[tokio::test]
async fn the_description_covers_every_path() {
    let api = api().await;
    let (status, description) = api.get("/openapi.json").await;
    assert_eq!((status, &description["openapi"]), (StatusCode::OK, &json!("3.1.0")));
    let paths = description["paths"].as_object().unwrap();
    for path in ["/tires/describe", "/wheels/describe", "/compare", "/bench", "/jobs", "/jobs/{id}"] {
        assert!(paths.contains_key(&format!("/api/v1{path}")), "{path}");
    }
    // Types made from the description are found by these: two paths must not share one.
    let mut ids: Vec<&str> = paths
        .values()
        .flat_map(|path| path.as_object().unwrap().values())
        .map(|operation| operation["operationId"].as_str().unwrap())
        .collect();
    let all = ids.len();
    ids.sort_unstable();
    ids.dedup();
    assert_eq!(ids.len(), all, "{ids:?}");
}

#[tokio::test]
async fn a_drag_asks_for_what_moves_and_gets_the_figures_of_the_whole() {
    let shop = crate::served::Served::sample().await;
    let job = shop.get("/jobs/4").await;
    let ask = json!({ "fitted": job["fitted"], "planned": job["planned"], "drive": job["drive"], "job": 4,
        "levers": { "front": [{ "lever": "camber", "amount": -1.5 }], "rear": [{ "lever": "lip_rolled", "amount": 5 }] },
        "wanted": job["wanted"] });
    let (_, whole) = shop.post("/bench", ask.clone()).await;
    let (status, brief) = shop.post("/bench/brief", ask).await;
    assert_eq!(status, 200, "{brief}");
    let bytes = brief.to_string().len();
    assert!(bytes <= 15 * 1024, "{bytes} bytes; the whole has {}", whole.to_string().len());
    let lines = whole["ledger"].as_array().unwrap().iter().zip(brief["ledger"].as_array().unwrap());
    for (line, moved) in lines {
        for field in ["code", "axle", "standing", "word"] {
            assert_eq!(line[field], moved[field]);
        }
    }
    assert_eq!(whole["ledger"].as_array().unwrap().len(), brief["ledger"].as_array().unwrap().len());
    for axle in ["front", "rear"] {
        let (fit, moved) = (&whole["axles"][axle]["fit"], &brief["axles"][axle]);
        assert_eq!((&fit["verdict"], &fit["style"]), (&moved["verdict"], &moved["style"]));
        for (one, other) in
            fit["clearances"].as_array().unwrap().iter().zip(moved["clearances"].as_array().unwrap())
        {
            assert_eq!((&one["feature"], &one["verdict"]), (&other["feature"], &other["verdict"]));
            if let Some(mm) = one["nominal_mm"].as_f64() {
                assert!((mm - other["nominal_mm"].as_f64().unwrap()).abs() <= 0.005 + 1e-9);
            }
        }
        let edges = |of: &Value| of["window"][0]["offset_max_mm"].as_f64();
        if let (Some(one), Some(other)) = (edges(fit), edges(moved)) {
            assert!((one - other).abs() <= 0.005 + 1e-9);
        }
    }
}
