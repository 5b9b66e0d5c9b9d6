//! Corners, readings, the gauge and the house over the API.

use std::time::Duration;

use crate::served::Served;
use reqwest::Method;
use serde_json::{Value, json};
use standins::gauge::{Gauge, Settings};
use tokio::net::TcpListener;

const FITTED: &str = "7.5x17 ET45 225/45R17";

fn corner() -> Value {
    json!({ "fitted": FITTED, "camber_deg": 0, "readings": [
        { "feature": "strut", "gap_mm": 14, "plus_minus_mm": 1 },
        { "feature": "fender_lateral", "gap_mm": 12, "plus_minus_mm": 1 },
        { "feature": "arch", "gap_mm": 60, "plus_minus_mm": 2 }] })
}

fn line<'v>(fit: &'v Value, feature: &str) -> &'v Value {
    fit["clearances"].as_array().unwrap().iter().find(|line| line["feature"] == feature).unwrap()
}

#[tokio::test]
async fn a_fit_is_what_the_fixed_points_say() {
    let shop = Served::start(None).await;
    let ask = |planned: &str| json!({ "corner": corner(), "planned": planned });
    let (status, fit) = shop.post("/fit", ask("7.5x17 ET45 225/45R17")).await;
    assert_eq!((status, &fit["verdict"], &fit["style"]), (200, &json!("clears"), &json!("tucked")));
    // Equal lines are the same parts: what is fitted clears by what was read, and only the instrument is in doubt.
    assert!((line(&fit, "strut")["likely_low_mm"].as_f64().unwrap() - 13.0).abs() < 1e-9);
    // Said to be new ones of the size: √(1 + 4.5² + 4.5² + 0.5² + 0.5²) likely, straight sum at worst.
    let mut new = ask("7.5x17 ET45 225/45R17");
    new["keeps"] = json!({ "wheel": false, "tire": false });
    let (status, fit) = shop.post("/fit", new).await;
    assert_eq!(status, 200, "{fit}");
    let strut = line(&fit, "strut");
    let figure = |name: &str| strut[name].as_f64().unwrap();
    assert!((figure("nominal_mm") - 14.0).abs() < 1e-9);
    let likely = (1.0 + 2.0 * 20.25 + 0.5_f64).sqrt();
    assert!((figure("likely_low_mm") - (14.0 - likely)).abs() < 1e-9);
    assert!(
        (figure("likely_high_mm") - (14.0 + likely)).abs() < 0.05,
        "the flange is no further in than it is"
    );
    assert!((figure("worst_low_mm") - (14.0 - 11.0)).abs() < 1e-9);
    assert_eq!((strut["limit_mm"].as_f64(), strut["verdict"].as_str()), (Some(5.0), Some("clears")));

    // Geometry: 245 on 8.5 at ET35 stands 20 mm further out.
    let (_, fit) = shop.post("/fit", ask("8.5x18 ET35 245/40R18")).await;
    assert_eq!((fit["verdict"].as_str(), fit["style"].as_str()), (Some("touches"), Some("poke")));
    assert!((line(&fit, "fender_lateral")["nominal_mm"].as_f64().unwrap() + 8.0).abs() < 1e-9);

    // A limit of one's own, and a lever.
    let mut strict = ask("7.5x17 ET45 225/45R17");
    strict["limits"] = json!({ "strut_mm": 13.5 });
    assert_eq!(shop.post("/fit", strict).await.1["verdict"], "tight");
    let mut rolled = ask("7.5x17 ET36 225/45R17");
    rolled["levers"] = json!([{ "lever": "lip_rolled", "amount": 10 }]);
    assert!(
        (line(&shop.post("/fit", rolled).await.1, "fender_lateral")["nominal_mm"].as_f64().unwrap() - 13.0)
            .abs()
            < 1e-9
    );

    // What was not read decides first.
    let mut unread = ask("8.5x18 ET35 245/40R18");
    unread["corner"]["readings"] = json!([]);
    let (_, fit) = shop.post("/fit", unread).await;
    assert_eq!((fit["verdict"].as_str(), &fit["style"]), (Some("measure_first"), &json!(null)));
    assert_eq!(fit["measure_list"][0]["feature"], "fender_lateral");
    assert!(line(&fit, "fender_lateral")["nominal_mm"].is_null());
}

#[tokio::test]
async fn a_windows_edges_are_where_fits_verdict_changes() {
    let shop = Served::start(None).await;
    let (status, window) = shop.post("/window", json!({ "corner": corner() })).await;
    assert_eq!(status, 200);
    let widths = window["widths"].as_array().unwrap();
    assert!(widths.len() >= 5);
    for row in widths {
        let (least, most) = (row["offset_min_mm"].as_f64().unwrap(), row["offset_max_mm"].as_f64().unwrap());
        assert_eq!(
            (row["min_bound_by"].as_str(), row["max_bound_by"].as_str()),
            (Some("fender_lateral"), Some("strut"))
        );
        assert_eq!(row["clears"], least <= most);
        if least > most {
            continue;
        }
        for (offset, verdict) in [
            (least + 0.01, "clears"),
            (least - 0.01, "tight"),
            (most - 0.01, "clears"),
            (most + 0.01, "tight"),
        ] {
            let planned = format!("17x{} ET{offset:.3} 225/45R17", row["rim_width_in"]);
            let (_, fit) = shop.post("/fit", json!({ "corner": corner(), "planned": planned })).await;
            // Another wheel over a brake that nobody read is measure first as a whole; the parts have their words.
            assert_eq!(fit["verdict"], "measure_first", "{planned}: {row}");
            let parts =
                fit["clearances"].as_array().unwrap().iter().map(|line| line["verdict"].as_str().unwrap());
            let read: Vec<&str> = parts.filter(|word| *word != "measure_first").collect();
            assert_eq!(read.contains(&"tight"), verdict == "tight", "{planned}: {read:?}");
        }
    }
    // An open side is null.
    let mut only_strut = corner();
    only_strut["readings"].as_array_mut().unwrap().truncate(1);
    let (_, window) = shop.post("/window", json!({ "corner": only_strut, "rim_widths_in": [8.5] })).await;
    assert_eq!(window["widths"][0]["offset_min_mm"], json!(null));
    assert_eq!(window["widths"][0]["min_bound_by"], json!(null));
    assert_eq!(window["widths"].as_array().unwrap().len(), 1);
}

#[tokio::test]
async fn a_window_on_the_road_lies_inside_of_the_one_that_stands() {
    let shop = Served::start(None).await;
    let mut moving = corner();
    moving["travel"] = json!({ "bump_mm": 70, "droop_mm": 80 });
    moving["suspension"] = json!("strut");
    let ask = |usage: Value| json!({ "corner": moving, "rim_widths_in": [7.0, 7.5, 8.0], "usage": usage });
    let (status, window) = shop.post("/window", ask(Value::Null)).await;
    assert_eq!((status, &window["on_the_road"]), (200, &Value::Null), "nobody asked how it is used");
    let (status, window) = shop.post("/window", ask(json!({ "envelope": "road" }))).await;
    assert_eq!(status, 200, "{window}");
    let (standing, moving_too) = (&window["widths"], window["on_the_road"].as_array().unwrap());
    assert_eq!(moving_too.len(), 3);
    let mut narrower = 0;
    for (stands, rolls) in standing.as_array().unwrap().iter().zip(moving_too) {
        let mm = |row: &Value, which: &str| row[which].as_f64().unwrap();
        assert!(mm(rolls, "offset_min_mm") >= mm(stands, "offset_min_mm"), "{stands} {rolls}");
        assert!(mm(rolls, "offset_max_mm") <= mm(stands, "offset_max_mm"), "{stands} {rolls}");
        narrower += u32::from(mm(rolls, "offset_min_mm") > mm(stands, "offset_min_mm"));
    }
    assert!(narrower > 0, "60 mm under the arch are not 70 mm of bump: {window}");
    let (status, problem) = shop.post("/window", ask(json!({ "envelope": "moon" }))).await;
    assert_eq!((status, &problem["errors"][0]["pointer"]), (422, &json!("/usage/envelope")));
}

#[tokio::test]
async fn impossible_and_contradicting_readings_are_kept_and_explained() {
    let shop = Served::start(None).await;
    let mut torn = corner();
    let more = [
        json!({ "feature": "strut", "gap_mm": 30, "plus_minus_mm": 1 }),
        json!({ "feature": "arch", "gap_mm": 900, "plus_minus_mm": 1 }),
        json!({ "feature": "caliper_radial", "gap_mm": 3, "plus_minus_mm": 0.1, "radius_mm": 260 }),
    ];
    torn["readings"].as_array_mut().unwrap().extend(more);
    let (status, fit) = shop.post("/fit", json!({ "corner": torn, "planned": "8x17 ET48 235/45R17" })).await;
    assert_eq!(status, 200);
    let kinds: Vec<(u64, &str)> = fit["troubles"]
        .as_array()
        .unwrap()
        .iter()
        .map(|one| (one["reading"].as_u64().unwrap(), one["kind"].as_str().unwrap()))
        .collect();
    assert_eq!(kinds, [(0, "contradicts"), (3, "contradicts"), (4, "impossible"), (5, "impossible")]);
    assert_eq!(line(&fit, "strut")["verdict"], "measure_first");
    assert!(line(&fit, "strut")["nominal_mm"].as_f64().unwrap() < 14.0, "the nearer one, not a mean");
}

#[tokio::test]
async fn what_cannot_be_read_is_named() {
    let shop = Served::start(None).await;
    for (pointer, value, at) in [
        ("/planned", json!("18x8.5 245/40R18"), "/planned"),
        ("/planned", json!("18x8.5 ET35 245/140R18"), "/planned"),
        ("/planned", json!(""), "/planned"),
        ("/corner/fitted", json!("225/45R17"), "/corner/fitted"),
        ("/corner/readings/0/feature", json!("mirror"), "/corner/readings/0/feature"),
        ("/corner/readings/1/side", json!("top"), "/corner/readings/1/side"),
        ("/corner/readings/1/steer", json!("wild"), "/corner/readings/1/steer"),
        ("/corner/camber_deg", json!(80), "/corner/camber_deg"),
        ("/limits", json!({ "luck_mm": 1 }), "/limits/luck_mm"),
        ("/limits", json!({ "strut_mm": -4 }), "/limits/strut_mm"),
        ("/levers", json!([{ "lever": "spacer", "amount": 5 }]), "/levers/0/amount"),
        ("/levers", json!([{ "lever": "wishing", "amount": 5 }]), "/levers/0/lever"),
    ] {
        let mut body = json!({ "corner": corner(), "planned": FITTED, "limits": {}, "levers": [] });
        for (name, empty) in [("side", json!(null)), ("steer", json!(null))] {
            body["corner"]["readings"][1][name] = empty;
        }
        *body.pointer_mut(pointer).unwrap() = value;
        let (status, problem) = shop.post("/fit", body).await;
        assert_eq!((status, problem["errors"][0]["pointer"].as_str()), (422, Some(at)), "{problem}");
    }
    let (status, _) = shop.post("/fit", json!({ "planned": FITTED })).await;
    assert_eq!(status, 422);
}

fn new_reading(id: &str, what: &str, value: f64) -> Value {
    json!({ "id": id, "axle": "rear", "side": "left", "what": what, "value": value, "unit": "mm",
            "instrument": "steel_rule" })
}

#[tokio::test]
async fn readings_join_a_job_whatever_else_was_changed() {
    let shop = Served::start(None).await;
    let (id, job) = shop.new_job(FITTED).await;
    let path = format!("/jobs/{id}/readings");
    let send = json!({ "signed_by": "rs", "readings": [new_reading("t1", "strut", 14.0)] });
    let (status, with) = shop.post(&path, send.clone()).await;
    assert_eq!((status, with["readings"].as_array().unwrap().len()), (200, 1));
    let kept = &with["readings"][0];
    assert_eq!((kept["plus_minus_mm"].as_f64(), kept["who"].as_str()), (Some(1.0), Some("rs")));
    assert_eq!(kept["fitted"], "17x7.5 ET45 · 225/45R17", "what was fitted goes with it");
    // A tablet that got no answer sends again.
    assert_eq!(shop.post(&path, send).await.1["readings"].as_array().unwrap().len(), 1);
    // The counter's change on an older revision is stale, and a reading is not.
    let mut change = job.clone();
    change["based_on_revision"] = job["revision"].clone();
    change["wish"] = json!("flush");
    assert_eq!(shop.put(&format!("/jobs/{id}"), change.clone()).await.0, 409);
    change["based_on_revision"] = with["revision"].clone();
    let (status, changed) = shop.put(&format!("/jobs/{id}"), change).await;
    assert_eq!(
        (status, changed["readings"].as_array().unwrap().len()),
        (200, 1),
        "readings have paths of their own"
    );
    // Over to the right, once.
    let over = json!({ "axle": "rear", "from": "left", "signed_by": "rs" });
    let (_, copied) = shop.post(&format!("{path}/copy"), over.clone()).await;
    assert_eq!(
        (&copied["readings"][1]["side"], &copied["readings"][1]["is_copied"]),
        (&json!("right"), &json!(true))
    );
    assert_eq!(shop.post(&format!("{path}/copy"), over).await.0, 422);
    // Away, and back.
    let (_, without) = shop.ask(Method::DELETE, &format!("{path}/t1?signed_by=rs"), None).await;
    assert_eq!(without["readings"].as_array().unwrap().len(), 1);
    let undo = json!({ "based_on_revision": without["revision"] });
    assert_eq!(shop.post(&format!("/jobs/{id}/undo"), undo).await.1["readings"].as_array().unwrap().len(), 2);
    for (field, value) in [
        ("unit", json!("cubits")),
        ("what", json!("mirror")),
        ("instrument", json!("eye")),
        ("id", json!("a b")),
        ("plus_minus_mm", json!(-1)),
    ] {
        let mut bad = new_reading("t9", "arch", 60.0);
        bad[field] = value;
        let (status, problem) = shop.post(&path, json!({ "readings": [bad] })).await;
        assert_eq!(
            (status, problem["errors"][0]["pointer"].clone()),
            (422, json!(format!("/readings/0/{field}")))
        );
    }
}

#[tokio::test]
async fn the_bench_holds_a_plan_against_the_jobs_readings() {
    let shop = Served::start(None).await;
    let (id, _) = shop.new_job(FITTED).await;
    let readings = [
        new_reading("a", "strut", 14.0),
        new_reading("b", "fender_lateral", 12.0),
        new_reading("c", "arch", 900.0),
    ];
    let (_, job) = shop.post(&format!("/jobs/{id}/readings"), json!({ "readings": readings })).await;
    assert_eq!(job["troubles"][0]["reading"], 2, "the impossible one is marked in the job's own count");
    let plan = "8.5x18 ET35 245/40R18";
    let ask = json!({ "job": id, "fitted": { "rear": FITTED }, "planned": { "rear": plan } });
    let (status, bench) = shop.post("/bench", ask.clone()).await;
    assert_eq!(status, 200);
    let fit = &bench["axles"]["rear"]["fit"];
    assert_eq!(fit["verdict"], "touches");
    assert!(fit["proposal"]["line"].as_str().is_some(), "{fit}");
    assert!(!fit["proposal"]["costs"].as_array().unwrap().is_empty());
    assert!(fit["window"].as_array().unwrap().iter().any(|row| row["rim_width_in"] == 8.5));
    assert!(bench["ledger"].as_array().unwrap().iter().any(|line| line["code"] == "clear-fender_lateral"));
    // Without the job nothing was measured.
    let mut unmeasured = ask.clone();
    unmeasured["job"] = json!(null);
    let (_, bench) = shop.post("/bench", unmeasured).await;
    assert_eq!(bench["axles"]["rear"]["fit"]["verdict"], "measure_first");
    // A wish and a lever given here count without being saved.
    let mut live = ask;
    live["wanted"] = json!({ "front": null, "rear": { "style": "flush", "within_mm": 3 } });
    live["levers"] = json!({ "front": [], "rear": [{ "lever": "fender_pulled", "amount": 20 }] });
    let (_, bench) = shop.post("/bench", live).await;
    let fit = &bench["axles"]["rear"]["fit"];
    assert_eq!(fit["style"], "tucked");
    assert!(fit["window"][0]["wanted_min_mm"].is_f64());
    assert_eq!(shop.post("/bench", json!({ "job": 99, "fitted": {}, "planned": {} })).await.0, 404);
}

#[tokio::test]
async fn a_car_is_remembered_for_the_next_job() {
    let shop = Served::start(None).await;
    let (id, mut job) = shop.new_job(FITTED).await;
    assert_eq!(shop.get("/cars").await, json!([]), "nothing is known yet");
    job["based_on_revision"] = job["revision"].clone();
    job["car"] = json!({ "facts": [
        { "fact": "model", "value": "Skerry" }, { "fact": "kerb_mass_kg", "value": 1240 },
        { "fact": "camber_deg", "axle": "rear", "value": "−1,5" },
        { "fact": "factory_setup", "axle": "front", "value": FITTED }],
        "alternatives": [{ "name": "sport", "lines": { "front": "18x8 ET45 225/40R18" } }] });
    let (status, job) = shop.put(&format!("/jobs/{id}"), job).await;
    assert_eq!(status, 200, "{job}");
    assert!(
        job["car"]["facts"]
            .as_array()
            .unwrap()
            .contains(&json!({ "fact": "camber_deg", "axle": "rear", "value": -1.5 }))
    );
    let cars = shop.get("/cars?find=skerry").await;
    assert_eq!(cars[0]["car"]["alternatives"][0]["name"], "sport");
    let facts = cars[0]["car"]["facts"].as_array().unwrap();
    assert!(facts.iter().all(|fact| fact["fact"] != "camber_deg"), "alignment is the one car's");
    let mut bad = job.clone();
    bad["based_on_revision"] = job["revision"].clone();
    bad["car"]["facts"] =
        json!([{ "fact": "kerb_mass_kg", "value": 99999 }, { "fact": "wings", "value": 2 }]);
    let (status, problem) = shop.put(&format!("/jobs/{id}"), bad).await;
    assert_eq!((status, problem["errors"].as_array().unwrap().len()), (422, 2));
}

#[tokio::test]
async fn the_house_is_changed_with_its_revision() {
    let shop = Served::start(None).await;
    let house = shop.get("/house").await;
    assert_eq!((&house["revision"], &house["limits"]["strut_mm"]), (&json!(0), &json!(5.0)));
    let mut change = house.clone();
    change["based_on_revision"] = json!(0);
    change["limits"]["strut_mm"] = json!(8);
    change["people"] = json!([{ "initials": "mk", "name": "" }]);
    change["instruments"]
        .as_array_mut()
        .unwrap()
        .push(json!({ "code": "", "name": "laser line", "plus_minus_mm": 1.5 }));
    let (status, changed) = shop.put("/house", change.clone()).await;
    assert_eq!((status, &changed["revision"], &changed["limits"]["strut_mm"]), (200, &json!(1), &json!(8.0)));
    assert_eq!(changed["instruments"].as_array().unwrap().last().unwrap()["code"], "laser_line");
    assert_eq!(shop.put("/house", change.clone()).await.0, 409);
    // The verdicts follow: 14 of room likely keeps 7.5.
    let new = json!({ "corner": corner(), "planned": FITTED, "keeps": { "wheel": false, "tire": false } });
    let (_, fit) = shop.post("/fit", new).await;
    assert_eq!(
        (fit["verdict"].as_str(), line(&fit, "strut")["limit_mm"].as_f64()),
        (Some("tight"), Some(8.0))
    );
    change["based_on_revision"] = json!(1);
    change["limits"]["strut_mm"] = json!(4000);
    change["people"] = json!([{ "initials": "", "name": "" }]);
    change["units"] = json!("furlongs");
    let (status, problem) = shop.put("/house", change).await;
    assert_eq!((status, problem["errors"].as_array().unwrap().len()), (422, 3), "{problem}");
}

#[tokio::test]
async fn the_gauges_value_comes_through_its_port() {
    assert_eq!(Served::start(None).await.get("/gauge").await["state"], "none");
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    let shop = Served::start(Some(address)).await;
    let quick = Duration::from_millis(10);
    let gauge = Gauge::run(listener, Settings { value_mm: 21.5, every: quick, ..Settings::default() });
    let until = async |state: &str| {
        for _ in 0..400 {
            let shown = shop.get("/gauge").await;
            if shown["state"] == state {
                return shown;
            }
            tokio::time::sleep(quick).await;
        }
        panic!("the gauge never was {state}");
    };
    let live = until("live").await;
    assert!((live["value_mm"].as_f64().unwrap() - 21.5).abs() <= 0.035, "{live}");
    gauge.set(|settings| settings.lost_share = 1.0);
    until("lost").await;
    gauge.set(|settings| settings.lost_share = 0.0);
    until("live").await;
    // Cut off in the middle, it is found again.
    gauge.set(|settings| settings.cut_share = 1.0);
    until("away").await;
    gauge.set(|settings| settings.cut_share = 0.0);
    until("live").await;
}

/// The staggered coupé of the sample shop, as the page asks for it.
#[tokio::test]
async fn a_bench_holds_the_plan_against_the_jobs_readings() {
    let shop = Served::sample().await;
    let job = shop.get("/jobs/4").await;
    let ask = |levers: Value| {
        json!({ "fitted": job["fitted"], "planned": job["planned"], "drive": job["drive"], "job": 4,
                "wanted": job["wanted"], "levers": levers })
    };
    let none = json!({ "front": [], "rear": [] });
    let (status, bench) = shop.post("/bench", ask(none.clone())).await;
    assert_eq!(status, 200);
    let rear = &bench["axles"]["rear"]["fit"];
    // Another wheel, and nobody read the brake: no better word than that. The tight part has its own.
    assert_eq!((&rear["verdict"], &rear["camber_deg"]), (&json!("measure_first"), &json!(-1.6)));
    let words: Vec<_> = rear["clearances"].as_array().unwrap().iter().map(|line| &line["verdict"]).collect();
    assert!(words.contains(&&json!("tight")), "{words:?}");
    let marks: Vec<&str> =
        rear["marks"].as_array().unwrap().iter().map(|mark| mark["kind"].as_str().unwrap()).collect();
    assert_eq!(marks, ["kept", "fitted", "planned"]);
    // On the plan's 3 mm spacer a wheel of ET 50 would stand where the fitted ET 47 stands without one.
    assert_eq!(rear["marks"][1]["offset_mm"], 50.0);
    let lip = line(rear, "fender_lateral");
    let (nominal, off) = (lip["nominal_mm"].as_f64().unwrap(), lip["plus_minus_mm"].as_f64().unwrap());
    assert!((nominal - off - lip["likely_low_mm"].as_f64().unwrap()).abs() < 1e-9);

    // Rolling the lip by 10 mm moves the lip's edge of the window by just that, and the strut's not at all.
    let rolled = json!({ "front": [], "rear": [{ "lever": "lip_rolled", "amount": 10 }] });
    let (_, moved) = shop.post("/bench", ask(rolled)).await;
    let widths = |bench: &Value| bench["axles"]["rear"]["fit"]["window"].as_array().unwrap().clone();
    for (before, after) in widths(&bench).iter().zip(widths(&moved)) {
        if before["min_bound_by"] == "fender_lateral" && after["min_bound_by"] == "fender_lateral" {
            let edge = |row: &Value| row["offset_min_mm"].as_f64().unwrap();
            // The wheel leans by 1.6°: across the hub it takes a hair more to move its face by 10.
            assert!((edge(before) - edge(&after) - 10.0 / 1.6f64.to_radians().cos()).abs() < 1e-6);
        }
        assert_eq!(before["offset_max_mm"], after["offset_max_mm"]);
    }

    // A lowered car is held to the larger limit under the arch (common practice: 40 mm).
    assert_eq!(line(rear, "arch")["limit_mm"], 40.0);
    // The car's record asks for load and pressure.
    let codes: Vec<&str> =
        bench["ledger"].as_array().unwrap().iter().map(|line| line["code"].as_str().unwrap()).collect();
    for code in ["pressure", "hub", "rotation", "clear-spring_perch", "style"] {
        assert!(codes.contains(&code), "{code} in {codes:?}");
    }
    let sides = shop.get("/jobs/4/side-by-side").await;
    assert_eq!(sides["bench"]["fit"]["rear"]["tightest"]["feature"], "fender_lateral");
    assert_eq!(sides["fitted"]["fit"]["rear"]["verdict"], "clears");

    // A job that is not there is said so, a lever out of its range at its place.
    let mut lost = ask(none);
    lost["job"] = json!(999);
    assert_eq!(shop.post("/bench", lost).await.0, 404);
    let far = json!({ "front": [{ "lever": "lip_rolled", "amount": 900 }], "rear": [{ "lever": "wish", "amount": 1 }] });
    let (status, problem) = shop.post("/bench", ask(far)).await;
    let pointers: Vec<&str> =
        problem["errors"].as_array().unwrap().iter().map(|one| one["pointer"].as_str().unwrap()).collect();
    assert_eq!((status, pointers), (422, vec!["/levers/front/0/amount", "/levers/rear/0/lever"]));
}
