//! Brakes, profiles, trial fits and proven fits over the API.

use crate::served::Served;
use reqwest::{Client, Method};
use serde_json::{Value, json};

async fn send(shop: &Served, path: &str, bytes: impl Into<reqwest::Body>) -> (u16, Value) {
    let request = Client::new().post(shop.url(path)).header("content-type", "application/octet-stream");
    let response = request.body(bytes).send().await.unwrap();
    (response.status().as_u16(), response.json().await.unwrap())
}

fn box_and_wheel(face_mm: f64) -> Value {
    json!({
        "caliper": [[-50, 150], [-50, 190], [face_mm, 190], [face_mm, 150]],
        "wheel": { "barrel": [[-120, 200], [40, 200]], "spoke_back": [[14, 80], [14, 200]] },
        "limits": { "radial_mm": 3, "axial_mm": 3 }
    })
}

#[tokio::test]
async fn gaps_are_worked_out_for_scripts() {
    let shop = Served::start(None).await;
    // By hand: 200 − 190 and 14 − 10.
    let (status, found) = shop.post("/brakes", box_and_wheel(10.0)).await;
    assert_eq!(status, 200, "{found}");
    assert_eq!((&found["radial_gap_mm"], &found["axial_gap_mm"]), (&json!(10.0), &json!(4.0)));
    assert_eq!((&found["verdict"], &found["smallest_spacer_mm"]), (&json!("clears"), &json!(0.0)));
    assert_eq!((&found["shortest_distance_mm"], &found["axial_at"][0]), (&json!(4.0), &json!(10.0)));
    // 14.3 into flat spokes at 14: overlaps by 0.3, and 3.3 mm of spacer are missing, 4 in whole ones.
    let (_, found) = shop.post("/brakes", box_and_wheel(14.3)).await;
    assert!((found["axial_gap_mm"].as_f64().unwrap() + 0.3).abs() < 1e-9);
    assert_eq!((&found["verdict"], &found["smallest_spacer_mm"]), (&json!("touches"), &json!(4.0)));
    let spacers = found["spacers"].as_array().unwrap();
    for step in spacers {
        let moved = step["axial_gap_mm"].as_f64().unwrap() + 0.3 - step["spacer_mm"].as_f64().unwrap();
        assert!(moved.abs() < 1e-9, "a flat face moves by just the spacer: {step}");
    }
    let bad = json!({ "caliper": [[0, 1]], "wheel": { "barrel": [[0, 1], [9999, 2]], "spoke_back": [[0, 1], [0, 2]] }, "spacer_mm": -1 });
    let (status, problem) = shop.post("/brakes", bad).await;
    let pointers: Vec<&str> =
        problem["errors"].as_array().unwrap().iter().map(|one| one["pointer"].as_str().unwrap()).collect();
    assert_eq!((status, pointers), (422, vec!["/caliper", "/wheel/barrel", "/spacer_mm"]));
}

#[tokio::test]
async fn the_big_brake_job_shows_what_mends_it_and_what_that_costs() {
    let shop = Served::sample().await;
    let (_, found) = shop.post("/jobs/8/brakes", json!({ "axle": "front", "planned_brakes": true })).await;
    assert_eq!((&found["verdict"], &found["wheel"]["source"]), (&json!("touches"), &json!("readings")));
    assert!((found["parts"][0]["axial"]["mm"].as_f64().unwrap() + 0.3).abs() < 1e-9);
    assert!(found["parts"][0]["radial"]["mm"].as_f64().unwrap() > 3.0);
    assert_eq!(found["smallest"]["spacer_mm"], 2.0);
    let costs = found["smallest"]["costs"].to_string();
    assert!(
        costs.contains("2.0 mm further out") && costs.contains("measure from its mounting pad to the seat"),
        "{costs}"
    );
    // The smaller rims are ruled out before anybody lifts one: 9.5 − 12.7 from 18 to 17.
    assert_eq!(found["smaller_rims"][0]["is_worth_trying"], false);
    // The brakes it came with have room, and the spacer clears the kit.
    let (_, fitted) = shop.post("/jobs/8/brakes", json!({ "axle": "front" })).await;
    assert_eq!(fitted["verdict"], "clears");
    let (_, spaced) =
        shop.post("/jobs/8/brakes", json!({ "axle": "front", "planned_brakes": true, "spacer_mm": 2 })).await;
    assert_eq!(spaced["verdict"], "clears");
    // Without a profile the gaps read on the fitted wheel bound it.
    let mut job = shop.get("/jobs/8").await;
    job["based_on_revision"] = job["revision"].clone();
    job["templates"] = json!([]);
    assert_eq!(shop.put("/jobs/8", job).await.0, 200);
    let (_, bare) = shop.post("/jobs/8/brakes", json!({ "axle": "front" })).await;
    assert_eq!(bare["verdict"], "measure_first");
    assert!(bare["radial_bound"]["least_mm"].as_f64() <= bare["radial_bound"]["most_mm"].as_f64(), "{bare}");
    let rear = shop.post("/jobs/8/brakes", json!({ "axle": "rear" })).await.1;
    assert_eq!((&rear["parts"], &rear["verdict"]), (&json!([]), &json!("measure_first")));
}

#[tokio::test]
async fn the_catalogues_wheels_are_held_against_the_brakes() {
    let shop = Served::sample().await;
    let found = shop.get("/jobs/8/brakes/wheels?axle=front&planned_brakes=true").await;
    let wheels = found["wheels"].as_array().unwrap();
    let of = |setup: &str| {
        wheels.iter().find(|wheel| wheel["setup"].as_str().unwrap().starts_with(setup)).unwrap()
    };
    assert_eq!(
        (&of("15x6.5 ET40")["verdict"], &of("18x8 ET45")["source"]),
        (&json!("touches"), &json!("readings"))
    );
    let rims: Vec<f64> = wheels
        .iter()
        .map(|wheel| wheel["setup"].as_str().unwrap().split('x').next().unwrap().parse().unwrap())
        .collect();
    assert!(rims.windows(2).all(|two| two[0] <= two[1]), "smallest rim first: {rims:?}");
    assert_eq!(found["total"].as_u64().unwrap() as usize, wheels.len());
}

#[tokio::test]
async fn a_profile_goes_out_and_comes_back_in_and_a_wheels_inside_is_kept() {
    let shop = Served::start(None).await;
    let points = json!([[-40.0, 150.0], [-40.0, 180.0], [12.5, 182.0]]);
    for format in ["dxf", "svg", "csv"] {
        let body = json!({ "format": format, "name": "caliper", "points": points });
        let sent = Client::new().post(shop.url("/profiles/write")).json(&body).send().await.unwrap();
        assert!(sent.headers()["content-disposition"].to_str().unwrap().contains(format));
        let (status, sheet) = send(&shop, "/profiles/read", sent.bytes().await.unwrap()).await;
        assert_eq!((status, &sheet["says_its_unit"]), (200, &json!(true)), "{format}: {sheet}");
        assert_eq!(sheet["layers"][0]["points"], points, "{format}");
    }
    let card = json!({ "format": "pdf", "name": "Front caliper", "note": "left", "points": points });
    let sent = Client::new().post(shop.url("/profiles/write")).json(&card).send().await.unwrap();
    assert!(sent.bytes().await.unwrap().starts_with(b"%PDF-"));
    let (_, unit_less) = send(&shop, "/profiles/read", "-40,150\n12,180\n").await;
    assert_eq!((&unit_less["unit"], &unit_less["layers"][0]["points"]), (&Value::Null, &Value::Null));
    assert!(unit_less["layers"][0]["why_not"].as_str().unwrap().contains("say whether"), "{unit_less}");
    let (_, inches) = send(&shop, "/profiles/read?unit=in", "-4,6\n1,7\n").await;
    assert!((inches["layers"][0]["points"][0][1].as_f64().unwrap() - 152.4).abs() < 1e-9);
    assert_eq!(send(&shop, "/profiles/read", "PK\u{3}\u{4}").await.0, 422);
    assert_eq!(
        shop.post("/profiles/write", json!({ "format": "doc", "name": "", "points": [] })).await.0,
        422
    );

    let wheel = json!({ "line": "Arc", "size": "18x8.5 ET35 5x112", "source": "template", "plus_minus_mm": 0.3,
                        "barrel": [[-100, 210], [30, 200]], "spoke_back": [[30, 200], [0, 80]] });
    let (status, kept) = shop.put("/wheel-templates", wheel.clone()).await;
    assert_eq!(
        (status, &kept["size"]),
        (200, &json!("18x8.5 ET35")),
        "bolt circle and bore are of no matter"
    );
    assert_eq!(shop.get("/wheel-templates").await.as_array().unwrap().len(), 1);
    let mut bad = wheel;
    bad["size"] = json!("18x8.5");
    assert_eq!(shop.put("/wheel-templates", bad).await.0, 422, "an inside without an offset lies nowhere");
}

#[tokio::test]
async fn a_contact_changes_the_verdict_of_a_wheel_that_was_not_tried() {
    let shop = Served::sample().await;
    let judged = |trials: &Value, name: &str| {
        let all = trials["axles"]["rear"]["judged"].as_array().unwrap();
        all.iter().find(|one| one["name"] == name).unwrap()["verdict"].clone()
    };
    let before = shop.get("/jobs/6/trials").await;
    let mut job = shop.get("/jobs/6").await;
    assert_ne!(judged(&before, "B"), "touches", "{before}");
    job["based_on_revision"] = job["revision"].clone();
    job["trials"] = json!([{ "id": "t", "axle": "rear", "setup": "18x8 ET45 225/40R18", "contact": "fender",
        "gap_mm": 4.0, "plus_minus_mm": 0.5, "instrument": "feeler", "steer": "straight" }]);
    let (status, kept) = shop.put("/jobs/6", job.clone()).await;
    assert_eq!(status, 200, "{kept}");
    let after = shop.get("/jobs/6/trials").await;
    assert_eq!(judged(&after, "B"), "touches", "{after}");
    // The bench knows it at once, too; and undo takes it back.
    let ask = json!({ "job": 6, "fitted": job["fitted"], "planned": job["candidates"][1]["lines"] });
    let (_, bench) = shop.post("/bench", ask).await;
    assert_eq!(bench["axles"]["rear"]["fit"]["verdict"], "touches");
    let (_, undone) = shop.post("/jobs/6/undo", json!({ "based_on_revision": kept["revision"] })).await;
    assert_eq!(undone["trials"], json!([]));

    job["based_on_revision"] = undone["revision"].clone();
    job["trials"] = json!([{ "id": "t", "axle": "middle", "setup": "", "contact": "elk", "gap_mm": 999, "plus_minus_mm": -1, "steer": "up", "at": "noon" }]);
    let (status, problem) = shop.put("/jobs/6", job).await;
    assert_eq!((status, problem["errors"].as_array().unwrap().len()), (422, 7), "{problem}");
}

#[tokio::test]
async fn the_drag_job_concludes_why_the_smaller_rim_is_out() {
    let shop = Served::sample().await;
    let rear = shop.get("/jobs/1/trials").await["axles"]["rear"].clone();
    let text = rear["lines"].to_string();
    assert!(
        text.contains("does not go over: barrel on parking brake")
            && text.contains("Every rim smaller than "),
        "{text}"
    );
    assert!(text.contains("is not worth lifting on") && text.contains("backspacing up to "), "{text}");
    let bench = rear["judged"].as_array().unwrap().iter().find(|one| one["name"] == "bench").unwrap();
    assert_eq!((&bench["verdict"], &bench["was_tried"]), (&json!("touches"), &json!(true)));
    assert!(!rear["next"].is_null());
}

/// The sum of a PNG's chunk (ISO 3309, as the PNG standard has it).
fn crc32(bytes: &[u8]) -> u32 {
    !bytes.iter().fold(u32::MAX, |sum, byte| {
        (0..8).fold(sum ^ u32::from(*byte), |sum, _| (sum >> 1) ^ (0xedb8_8320 & 0_u32.wrapping_sub(sum & 1)))
    })
}

/// A picture of one pixel with a text chunk that tells a place.
fn png() -> Vec<u8> {
    let chunk = |kind: &[u8; 4], body: &[u8]| {
        let mut bytes = u32::try_from(body.len()).unwrap().to_be_bytes().to_vec();
        bytes.extend(kind);
        bytes.extend(body);
        bytes.extend(crc32(&bytes[4..]).to_be_bytes());
        bytes
    };
    let mut bytes = b"\x89PNG\r\n\x1a\n".to_vec();
    bytes.extend(chunk(b"IHDR", &[0, 0, 0, 1, 0, 0, 0, 1, 8, 0, 0, 0, 0]));
    bytes.extend(chunk(b"tEXt", b"GPS\0by the lake"));
    // One stored block of zlib (RFC 1950, 1951): a filter byte and a grey pixel, and their Adler-32.
    let pixel = [0x78, 1, 1, 2, 0, 0xfd, 0xff, 0, 0x80, 0, 0x82, 0, 0x81];
    bytes.extend(chunk(b"IDAT", &pixel));
    bytes.extend(chunk(b"IEND", &[]));
    bytes
}

#[tokio::test]
async fn a_photo_is_kept_without_its_place() {
    let shop = Served::sample().await;
    let (status, photo) = send(&shop, "/jobs/1/photos", png()).await;
    assert_eq!(status, 201, "{photo}");
    let url = shop.url(&format!("/jobs/1/photos/{}", photo["id"]));
    let back = Client::new().get(url).send().await.unwrap();
    assert_eq!(back.headers()["content-type"], "image/png");
    let bytes = back.bytes().await.unwrap();
    assert!(!String::from_utf8_lossy(&bytes).contains("by the lake"));
    assert_eq!(send(&shop, "/jobs/1/photos", "hello").await.0, 422);
    assert_eq!(send(&shop, "/jobs/99/photos", png()).await.0, 404);
    assert_eq!(send(&shop, "/jobs/1/photos", vec![0; 9 * 1024 * 1024]).await.0, 413);
    assert_eq!(
        shop.ask(Method::GET, "/jobs/2/photos/1", None).await.0,
        404,
        "another job's photo is not there"
    );
}

#[tokio::test]
async fn a_finished_job_becomes_a_proven_fit_and_fits_are_exchanged() {
    let shop = Served::sample().await;
    let library = shop.get("/proven?job=4").await;
    assert!(library["total"].as_u64().unwrap() >= 60);
    let fits = library["fits"].as_array().unwrap();
    let likeness: Vec<u64> = fits.iter().map(|fit| fit["likeness"].as_u64().unwrap()).collect();
    assert!(likeness.windows(2).all(|two| two[0] >= two[1]) && likeness[0] > 0, "the same model first");
    assert!(
        library["envelopes"]["rear"].as_array().unwrap().iter().all(|one| one["cars"].as_u64() > Some(0))
    );

    let said = json!({ "rub_front": "none", "rub_rear": "over_bumps", "view": "worth it" });
    let (_, first) = shop.post("/jobs/4/proven", said.clone()).await;
    assert_eq!((&first["new"], &first["known"]), (&json!(1), &json!(0)));
    let (_, again) = shop.post("/jobs/4/proven", said).await;
    assert_eq!((&again["new"], &again["known"]), (&json!(0), &json!(1)), "one job is one fit");
    let own = shop.get("/proven?job=4&find=worth%20it").await;
    let own = &own["fits"][0];
    assert_eq!((&own["job"], &own["marks"]["rear"]["rub"]), (&json!(4), &json!("over_bumps")));
    assert!(own["distance"]["rear"]["mm"].as_f64().unwrap() < 1e-9, "it is the plan itself");

    // What goes out comes back, and is recognised.
    for format in ["csv", "json"] {
        let url = shop.url(&format!("/proven/export?format={format}"));
        let file = Client::new().get(url).send().await.unwrap().bytes().await.unwrap();
        let (status, back) = send(&shop, "/proven", file.clone()).await;
        assert_eq!((status, &back["new"], &back["faults"]), (200, &json!(0), &json!([])), "{format}: {back}");
        let other = Served::start(None).await;
        let (_, brought) = send(&other, "/proven", file).await;
        assert_eq!(brought["new"].as_u64().unwrap(), library["total"].as_u64().unwrap() + 1, "{format}");
    }
    let (_, faulty) = send(&shop, "/proven", "model,rear,rub_rear\nTarn,17x8 ET35,a bit\n,,\n").await;
    assert_eq!(faulty["faults"][0]["row"], 2, "{faulty}");
    let id = own["id"].as_i64().unwrap();
    let gone = Client::new().delete(shop.url(&format!("/proven/{id}"))).send().await.unwrap();
    assert_eq!(gone.status(), 204);
    let (status, _) = shop.post("/jobs/3/proven", json!({ "rub_front": "squeaks" })).await;
    assert_eq!(status, 422);
}

#[tokio::test]
async fn a_fit_that_its_own_trials_deny_is_asked_about() {
    let shop = Served::start(None).await;
    let (id, job) = shop.new_job("17x7.5 ET45 225/45R17").await;
    let mut change = job.clone();
    change["based_on_revision"] = job["revision"].clone();
    change["planned"] = json!({ "front": "18x8.5 ET35 245/40R18", "rear": "18x8.5 ET35 245/40R18" });
    change["trials"] = json!([{ "id": "t1", "axle": "front", "side": "left", "setup": "18x8.5 ET35 245/40R18",
        "contact": "fender", "gap_mm": -2, "plus_minus_mm": 1, "instrument": "feeler", "steer": "straight",
        "is_hanging": false, "note": "", "next_step": "", "photos": [], "who": "OV", "at": "2026-05-02T10:00:00Z" }]);
    let (status, kept) = shop.put(&format!("/jobs/{id}"), change).await;
    assert_eq!(status, 200, "{kept}");
    let path = format!("/jobs/{id}/proven");
    let said = json!({ "rub_front": "none", "rub_rear": "none" });
    let (status, problem) = shop.post(&path, said).await;
    assert_eq!((status, &problem["errors"][0]["pointer"]), (422, &json!("/rub_front")), "{problem}");
    assert!(problem["errors"][0]["detail"].as_str().unwrap().contains("lip"));
    // Said as it rubs, or kept in spite of the trial.
    for said in [
        json!({ "rub_front": "constant", "rub_rear": "none" }),
        json!({ "rub_front": "none", "rub_rear": "none", "in_spite": true }),
    ] {
        assert_eq!(shop.post(&path, said.clone()).await.0, 200, "{said}");
    }
}
