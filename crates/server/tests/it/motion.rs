//! A job's plan in motion, over the API: the page's answers agree with each other and with the bench, and bad questions are
//! told so.

use serde_json::{Value, json};

use crate::served::Served;

/// The crossover of the sample shop: steering and travel known, liner and sill read at lock.
const CROSSOVER: &str = "/jobs/2";
/// The coupé: its rear read thoroughly, bump travel known.
const COUPE: &str = "/jobs/4";

fn on(axle: &str) -> Value {
    json!({ "axle": axle, "usage": { "envelope": "road" } })
}

async fn asked(shop: &Served, path: &str, body: Value) -> Value {
    let (status, found) = shop.post(path, body).await;
    assert_eq!(status, 200, "{path}: {found}");
    found
}

fn list(value: &Value) -> &Vec<Value> {
    value.as_array().unwrap_or_else(|| panic!("{value} is no list"))
}

fn stretch<'a>(part: &'a Value, code: &str) -> &'a Value {
    list(&part["stretches"]).iter().find(|one| one["code"] == code).unwrap()
}

fn number(value: &Value) -> f64 {
    value.as_f64().unwrap_or_else(|| panic!("{value} is no number"))
}

#[tokio::test]
async fn ledger_and_motion_say_one_word_of_each_stretch() {
    let shop = Served::sample().await;
    for job in [CROSSOVER, COUPE] {
        let content = shop.get(job).await;
        let plans = json!({ "plans": [content["planned"]], "usage": { "envelope": "road" } });
        let told = asked(&shop, &format!("{job}/motion/stretches"), plans).await;
        for axle in ["front", "rear"] {
            let motion = asked(&shop, &format!("{job}/motion"), on(axle)).await;
            let summary = &told[0][axle];
            assert_eq!(summary["verdict"], motion["verdict"], "{job} {axle}");
            for part in list(&summary["parts"]) {
                // Lip and arch are one edge there and two lines here.
                let code = match part["name"].as_str() {
                    Some("lip and arch") => &json!("fender_lateral"),
                    _ => &part["code"],
                };
                let there = list(&motion["parts"]).iter().find(|one| one["code"] == *code).unwrap();
                assert_eq!(there["stretches"], part["stretches"], "{job} {axle} {code}");
                let together = stretch(there, "together");
                assert_eq!(together["room_mm"], there["least_mm"]);
                assert!(number(&there["clears_from_mm"]) >= number(&there["limit_mm"]));
                assert!(!list(&there["may_be_off"]).is_empty());
            }
            // The map is whole, and what is told of it lies on it or under it.
            let cells = list(&motion["map_steer_deg"]).len() * list(&motion["map_travel_mm"]).len();
            for part in list(&motion["parts"]) {
                assert_eq!(list(&part["map_mm"]).len(), cells);
            }
        }
    }
}

#[tokio::test]
async fn the_crossovers_perch_sets_the_tallest_in_front_and_the_rear_takes_more() {
    let shop = Served::sample().await;
    let tallest = |lift: &Value, at: usize| {
        let place = lift["tallest_as_read"][at].as_u64().map(|at| at as usize);
        place.map_or(0.0, |at| number(&lift["tires"][at]["overall_diameter_mm"]))
    };
    let front = asked(&shop, &format!("{CROSSOVER}/motion/lift"), on("front")).await;
    let rear = asked(&shop, &format!("{CROSSOVER}/motion/lift"), on("rear")).await;
    assert_eq!(front["reference"], "factory");
    let said: String = front["says"].to_string();
    assert!(said.contains("spring perch goes with the upright: no lift helps"), "{said}");
    let lifts: Vec<f64> = list(&front["lifts_mm"]).iter().map(number).collect();
    let fifty = lifts.iter().position(|lift| *lift == 50.0).unwrap();
    // Against the perch a lift of 50 mm does nothing: what is short there is short by as much.
    let of_the_perch = |tire: &Value, at: usize| {
        let short = list(&tire["at"][at]["short"]).iter().find(|one| one["name"] == "spring perch").cloned();
        short.map(|one| number(&one["short_mm"]))
    };
    let mut stopped = 0;
    for tire in list(&front["tires"]) {
        assert_eq!(of_the_perch(tire, 0), of_the_perch(tire, fifty), "{}", tire["tire"]);
        stopped += usize::from(of_the_perch(tire, 0).is_some());
    }
    assert!(stopped >= 3, "the perch stands against the tallest ones");
    assert!(tallest(&rear, 0) > tallest(&front, lifts.len() - 1), "the rear takes more");
    // Nobody read what stands behind another wheel's spokes: no tallest is named, and what to measure is.
    assert!(list(&rear["tallest"]).iter().all(Value::is_null), "{}", rear["tallest"]);
    assert!(rear["says"].to_string().contains("Measure first"), "{}", rear["says"]);
    // What the pinch weld costs at either lock is said.
    let motion = asked(&shop, &format!("{CROSSOVER}/motion"), on("front")).await;
    let sill = list(&motion["parts"]).iter().find(|part| part["code"] == "sill_behind").unwrap();
    let said = sill["says"].to_string();
    assert!(said.contains("of outward lock") && said.contains("inward and"), "{said}");
}

#[tokio::test]
async fn the_coupes_window_on_the_road_lies_inside_the_benchs() {
    let shop = Served::sample().await;
    let job = shop.get(COUPE).await;
    let ask = json!({ "job": 4, "fitted": job["fitted"], "planned": job["planned"], "drive": job["drive"] });
    let bench = asked(&shop, "/bench", ask).await;
    let moving = asked(&shop, &format!("{COUPE}/motion/window"), json!({ "motion": on("rear") })).await;
    let standing = list(&bench["axles"]["rear"]["fit"]["window"]);
    let (mut open, mut narrower) = (0, 0);
    for (outer, inner) in standing.iter().zip(list(&moving["window"])) {
        assert_eq!(outer["rim_width_in"], inner["rim_width_in"]);
        let bound = |window: &Value, which: &str| window[which].as_f64();
        let least = (bound(outer, "offset_min_mm"), bound(inner, "offset_min_mm"));
        let most = (bound(outer, "offset_max_mm"), bound(inner, "offset_max_mm"));
        assert!(least.1 >= least.0, "{least:?}");
        assert!(most.1.unwrap_or(f64::INFINITY) <= most.0.unwrap_or(f64::INFINITY), "{most:?}");
        assert!(inner["clears"] == false || outer["clears"] == true);
        open += usize::from(inner["clears"] == true);
        narrower += usize::from(most.1 != most.0 || least.1 != least.0);
    }
    assert!(open > 0 && narrower > 0, "{open} {narrower}");
    assert!(moving["says"].to_string().contains("Widest that clears"), "{}", moving["says"]);
}

#[tokio::test]
async fn a_remedy_that_turns_it_does_so_on_the_bench() {
    let shop = Served::sample().await;
    let remedies = asked(&shop, &format!("{COUPE}/motion/remedies"), on("rear")).await;
    let offset = list(&remedies).iter().find(|one| one["code"] == "offset").unwrap();
    assert_eq!(offset["turns_it"], true, "{offset}");
    let text = offset["says"][0]["text"].as_str().unwrap();
    let et: f64 = text.split(' ').find_map(|word| word.parse().ok()).unwrap();
    let with = |et: f64| {
        let line = format!("19x9.5 ET{et} 5x120 265/30R19 93Y XL 3 mm spacer");
        json!({ "axle": "rear", "usage": { "envelope": "road" }, "planned": { "rear": line } })
    };
    for (et, is_ruled_out) in [(et, false), (et - 2.0, true)] {
        let motion = asked(&shop, &format!("{COUPE}/motion"), with(et)).await;
        assert_eq!(motion["is_ruled_out"], is_ruled_out, "ET{et}");
    }
    let none = asked(&shop, &format!("{COUPE}/motion/remedies"), with(et)).await;
    assert_eq!(none, json!([]));
}

#[tokio::test]
async fn chains_and_speed_take_their_room_and_what_cannot_be_is_refused() {
    let shop = Served::sample().await;
    let path = format!("{CROSSOVER}/motion");
    let least = |motion: &Value| -> f64 {
        let parts = list(&motion["parts"]);
        number(&parts.iter().find(|part| part["code"] == "spring_perch").unwrap()["least_mm"])
    };
    let plain = asked(&shop, &path, on("front")).await;
    let mut chained = on("front");
    chained["usage"]["chains_mm"] = json!(12);
    let chained = asked(&shop, &path, chained).await;
    assert!(least(&plain) - least(&chained) > 10.0);
    for (field, value, says) in [
        ("chains_mm", json!(3), "12 to 40"),
        ("speed_kmh", json!(900), "0 to 400"),
        ("mud_mm", json!(-1), "0 to 60"),
        ("envelope", json!("moon"), "off_road"),
    ] {
        let mut body = on("front");
        body["usage"][field] = value;
        for question in ["motion", "motion/remedies", "motion/lift"] {
            let (status, problem) = shop.post(&format!("{CROSSOVER}/{question}"), body.clone()).await;
            assert_eq!(status, 422, "{field}: {problem}");
            assert!(problem["errors"].to_string().contains(says), "{field}: {problem}");
        }
    }
    let many = json!({ "plans": vec![json!({}); 31] });
    let (status, problem) = shop.post(&format!("{CROSSOVER}/motion/stretches"), many).await;
    assert_eq!(status, 422, "{problem}");
    let (status, _) = shop.post("/jobs/999/motion", on("front")).await;
    assert_eq!(status, 404);
    let half = json!({ "axle": "front", "planned": { "front": "18x8 245/40R18" } });
    let (status, problem) = shop.post(&path, half).await;
    assert_eq!(status, 422, "an offset is missing: {problem}");
}

#[tokio::test]
async fn a_job_of_which_nothing_was_read_has_no_window_and_asks_to_measure() {
    let shop = Served::start(None).await;
    let (status, made) = shop.post("/jobs", json!({ "car_label": "Bare hatch" })).await;
    assert_eq!(status, 201, "{made}");
    let mut job = made.clone();
    job["fitted"] = json!({ "front": "17x7.5 ET45 225/45R17" });
    job["planned"] = json!({ "front": "18x8 ET45 225/40R18" });
    job["based_on_revision"] = made["revision"].clone();
    let (status, changed) = shop.put(&format!("/jobs/{}", made["id"]), job).await;
    assert_eq!(status, 200, "{changed}");
    let path = format!("/jobs/{}/motion", made["id"]);
    let motion = asked(&shop, &path, on("front")).await;
    assert_eq!(motion["verdict"], "measure_first");
    assert!(list(&motion["parts"]).is_empty() && list(&motion["assumed"]).len() > 5);
    let window = asked(&shop, &format!("{path}/window"), json!({ "motion": on("front") })).await;
    assert_eq!((&window["window"], &window["says"]), (&Value::Null, &json!([])));
    let lift = asked(&shop, &format!("{path}/lift"), on("front")).await;
    assert_eq!(lift["reference"], "fitted");
    assert!(list(&lift["tires"]).iter().all(|tire| tire["at"][0]["verdict"] == "measure_first"));
}

#[tokio::test]
async fn a_word_that_hangs_on_the_adding_is_told_in_drawn_cases() {
    let shop = Served::sample().await;
    let ask = |line: &str, part: &str| json!({ "axle": "rear", "part": part, "planned": { "rear": line } });
    // The coupé's rear as planned stands 3 mm inside of the lip, and may be 4 nearer.
    let tight = ask("19x9.5 ET40 5x120 265/30R19 93Y XL 3 mm spacer", "fender_lateral");
    let path = format!("{COUPE}/likelihood");
    let told = asked(&shop, &path, tight.clone()).await;
    assert!(told["says"].as_str().unwrap().contains("would touch"), "{told}");
    assert_eq!(told["cases"], 2000);
    let (touches, short) = (number(&told["touches"]), number(&told["short"]));
    assert!(touches > 20.0 && short > touches && short < 2000.0, "{told}");
    assert_eq!(asked(&shop, &path, tight).await, told, "the same every time");
    // Far from everything the word is the same however it is added.
    let clear = asked(&shop, &path, ask("18x8.5 ET47 5x120 245/40R18 97Y XL", "arch")).await;
    assert_eq!(clear["says"], Value::Null, "{clear}");
    let (status, problem) = shop.post(&path, ask("18x8.5 ET47 245/40R18", "exhaust pipe")).await;
    assert_eq!(status, 422, "{problem}");
}

#[tokio::test]
async fn looks_are_the_offsets_at_which_the_ledger_says_them() {
    let shop = Served::sample().await;
    let job = shop.get("/jobs/4").await;
    let (status, looks) = shop.post("/jobs/4/looks", job["planned"].clone()).await;
    assert_eq!(status, 200, "{looks}");
    let rear = looks["rear"].as_array().unwrap();
    let codes: Vec<&str> = rear.iter().map(|look| look["code"].as_str().unwrap()).collect();
    assert_eq!(codes, ["tucked", "flush", "poke", "stance"]);
    assert!(looks["front"].as_array().unwrap().is_empty() || looks["front"][0]["code"] == "tucked");
    // The planned width: at the middle of a look's offsets the bench says that look.
    let line = job["planned"]["rear"].as_str().unwrap();
    let width: f64 = line.split(['x', ' ']).nth(1).unwrap().parse().unwrap();
    for look in &rear[..3] {
        let on = look["widths"].as_array().unwrap().iter().find(|one| one["rim_width_in"] == width).unwrap();
        let (least, most) = (on["offset_min_mm"].as_f64(), on["offset_max_mm"].as_f64());
        let at = match (least, most) {
            (Some(least), Some(most)) => (least + most) / 2.0,
            (Some(least), None) => least + 5.0,
            (None, Some(most)) => most - 5.0,
            (None, None) => panic!("{look}"),
        };
        let offset = line.split_whitespace().find(|word| word.starts_with("ET")).unwrap();
        let moved = line.replace(offset, &format!("ET{:.1}", at));
        let ask = json!({ "fitted": job["fitted"], "planned": { "front": job["planned"]["front"], "rear": moved },
                          "job": 4 });
        let (_, bench) = shop.post("/bench", ask).await;
        assert_eq!(bench["axles"]["rear"]["fit"]["style"], look["code"], "{moved}");
    }
}
