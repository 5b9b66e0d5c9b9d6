//! The wheel in motion, over the API.

use std::f64::consts::TAU;

use serde_json::{Value, json};

use crate::served::Served;

fn ask(obstacles: &Value) -> Value {
    json!({
        "fitted": "17x7.5 ET45 225/45R17", "planned": "18x8.5 ET30 245/40R18", "camber_deg": -1.0,
        "steering": {
            "inclination_deg": 13.0, "caster_deg": 5.0, "scrub_radius_mm": -5.0, "trail_mm": 26.0,
            "lock_outward_deg": 38.0, "lock_inward_deg": 31.0
        },
        "travel": { "bump_mm": 80.0, "droop_mm": 90.0, "camber_gain_deg_per_mm": -0.02 },
        "envelope": "all", "least_mm": 5.0, "obstacles": obstacles,
    })
}

fn part(name: &str, carrier: &str, points: &[[f64; 3]]) -> Value {
    json!({ "name": name, "carrier": carrier, "points_mm": points })
}

fn number(value: &Value) -> f64 {
    value.as_f64().unwrap_or_else(|| panic!("{value} is no number"))
}

#[tokio::test]
async fn a_sweep_says_where_each_part_is_met() {
    let shop = Served::start(None).await;
    let liner: Vec<[f64; 3]> = (0..30).map(|at| [365.0, -150.0 + 8.0 * f64::from(at), 50.0]).collect();
    let obstacles = json!([
        part("liner", "body", &liner),
        part("strut", "steered_upright", &[[0.0, -175.0, 250.0]]),
        part("nothing", "body", &[]),
    ]);
    let (status, found) = shop.post("/sweep", ask(&obstacles)).await;
    assert_eq!(status, 200, "{found}");
    let [liner, strut, nothing] = [0, 1, 2].map(|at| &found["obstacles"][at]);
    assert_eq!(liner["name"], "liner");
    assert!(number(&liner["least_mm"]) < number(&liner["at_rest_mm"]));
    // A poked wheel comes forward at inward lock.
    assert!(number(&liner["steer_deg"]) < 0.0, "{liner}");
    assert_eq!(strut["least_mm"], strut["at_rest_mm"], "what steers along keeps its gap");
    assert!(nothing["least_mm"].is_null());
    assert_eq!(found["assumed"], json!([]));

    // Scrub and trail by the trade's formulas: the offset gives 15 mm, the loaded radius grew by 0.96 · (653.2 − 634.3)/2.
    let taller = 0.96 * (653.2 - 634.3) / 2.0;
    let scrub = -5.0 + 15.0 - taller * 13f64.to_radians().tan();
    let trail = 26.0 + taller * 5f64.to_radians().tan();
    assert!((number(&found["scrub_radius_mm"]) - scrub).abs() < 1e-9);
    assert!((number(&found["trail_mm"]) - trail).abs() < 1e-9);
    assert!((number(&found["loaded_radius_mm"]) - 0.96 * 653.2 / 2.0).abs() < 1e-9);

    // The outline: y from the hub face, as wide as tire or flange, as high as the tire.
    let outline: Vec<(f64, f64)> = found["outline_mm"]
        .as_array()
        .unwrap()
        .iter()
        .map(|point| (number(&point[0]), number(&point[1])))
        .collect();
    let most = |of: fn(&(f64, f64)) -> f64| outline.iter().map(of).fold(f64::NEG_INFINITY, f64::max);
    assert!((most(|point| point.0) - (-30.0 + 122.5)).abs() < 0.5, "the tire's or the flange's outer face");
    assert!((most(|point| point.1) - 326.6).abs() < 1e-9);
    // The strut's room by hand, from the outline that was answered: leaned back by 1° about the hub face.
    let (sin, cos) = 1f64.to_radians().sin_cos();
    let (y, r) = (-175.0 * cos + 250.0 * sin, 250.0 * cos + 175.0 * sin);
    let edges = outline.iter().zip(outline.iter().cycle().skip(1));
    let by_hand = edges
        .map(|(a, b)| {
            let (dy, dr) = (b.0 - a.0, b.1 - a.1);
            let t = (((y - a.0) * dy + (r - a.1) * dr) / (dy * dy + dr * dr)).clamp(0.0, 1.0);
            (a.0 + t * dy - y).hypot(a.1 + t * dr - r)
        })
        .fold(f64::INFINITY, f64::min);
    assert!((number(&strut["at_rest_mm"]) - by_hand).abs() < 1e-6, "{strut}, by hand {by_hand}");
}

#[tokio::test]
async fn a_use_that_reaches_less_leaves_more_room() {
    let shop = Served::start(None).await;
    let arch: Vec<[f64; 3]> = (0..40)
        .map(|at| {
            let angle = (60.0 + 1.5 * f64::from(at)) / 360.0 * TAU;
            [400.0 * angle.cos(), 85.0, 400.0 * angle.sin()]
        })
        .collect();
    let mut least = Vec::new();
    for envelope in ["parking", "road", "track", "off_road", "all"] {
        let mut asked = ask(&json!([part("arch", "body", &arch)]));
        asked["envelope"] = json!(envelope);
        let (status, found) = shop.post("/sweep", asked).await;
        assert_eq!(status, 200, "{found}");
        least.push(number(&found["obstacles"][0]["least_mm"]));
    }
    let [parking, road, track, off_road, all] = least[..] else { panic!("five uses") };
    assert!(parking > road && road >= track - 0.05 && track >= all - 0.05, "{least:?}");
    assert!((off_road - all).abs() < 1e-9);
}

#[tokio::test]
async fn what_no_car_has_is_refused_by_name() {
    let shop = Served::start(None).await;
    let near = json!([part("x", "body", &[[0.0, 0.0, 400.0]])]);
    for (path, value, pointer) in [
        ("/steering/inclination_deg", json!(30.5), "/steering/inclination_deg"),
        ("/steering/caster_deg", json!(-21), "/steering/caster_deg"),
        ("/steering/scrub_radius_mm", json!(201), "/steering/scrub_radius_mm"),
        ("/steering/lock_outward_deg", json!(61), "/steering/lock_outward_deg"),
        ("/steering/lock_inward_deg", json!(-1), "/steering/lock_inward_deg"),
        ("/travel/bump_mm", json!(401), "/travel/bump_mm"),
        ("/travel/droop_mm", json!(1e300), "/travel/droop_mm"),
        ("/envelope", json!("moon"), "/envelope"),
        ("/camber_deg", json!(90), "/camber_deg"),
        ("/least_mm", json!(-1), "/least_mm"),
        ("/planned", json!("18x8.5 245/40R18"), "/planned"),
        ("/fitted", json!("17x7.5 ET45"), "/fitted"),
        ("/obstacles/0/carrier", json!("rope"), "/obstacles/0/carrier"),
        ("/obstacles/0/points_mm/0/1", json!(1e9), "/obstacles/0/points_mm/0"),
    ] {
        let mut asked = ask(&near);
        *asked.pointer_mut(path).unwrap() = value;
        let (status, problem) = shop.post("/sweep", asked).await;
        assert_eq!(status, 422, "{path}: {problem}");
        let named: Vec<&str> = problem["errors"]
            .as_array()
            .unwrap()
            .iter()
            .map(|one| one["pointer"].as_str().unwrap())
            .collect();
        assert_eq!(named, [pointer], "{problem}");
    }
    let thousand: Vec<Value> = (0..1000).map(|_| part("x", "body", &[[0.0, 0.0, 400.0]])).collect();
    let many = part("x", "body", &vec![[0.0, 0.0, 400.0]; 100_000]);
    for (obstacles, limit) in [(json!(thousand), "200"), (json!([many]), "50000")] {
        let (status, problem) = shop.post("/sweep", ask(&obstacles)).await;
        assert_eq!(status, 422);
        assert!(problem["errors"][0]["detail"].as_str().unwrap().contains(limit), "{problem}");
    }
}

#[tokio::test]
async fn without_a_steering_the_suspensions_usual_one_stands_in_and_is_said() {
    let shop = Served::start(None).await;
    let mut asked = ask(&json!([part("x", "body", &[[0.0, 0.0, 420.0]])]));
    for field in ["steering", "travel", "envelope", "least_mm", "camber_deg"] {
        asked.as_object_mut().unwrap().remove(field);
    }
    asked["suspension"] = json!("light_truck");
    let (status, found) = shop.post("/sweep", asked).await;
    assert_eq!(status, 200, "{found}");
    assert_eq!(found["assumed"].as_array().unwrap().len(), 9);
    // An axle that does not steer: locks of 0, all travel.
    let mut rear = ask(&json!([part("x", "body", &[[0.0, 0.0, 420.0]])]));
    rear["steering"]["lock_outward_deg"] = json!(0);
    rear["steering"]["lock_inward_deg"] = json!(0);
    let (status, found) = shop.post("/sweep", rear).await;
    assert_eq!((status, &found["obstacles"][0]["steer_deg"]), (200, &json!(0.0)));
}

#[tokio::test]
async fn a_fit_at_lock_goes_by_the_axis_where_it_was_measured() {
    let shop = Served::start(None).await;
    let steering = ask(&json!([]))["steering"].clone();
    let asked = |planned: &str, steering: Option<&Value>| {
        let mut corner = json!({ "fitted": "17x7.5 ET45 225/45R17", "camber_deg": 0, "readings": [
            { "feature": "liner_ahead", "gap_mm": 30, "plus_minus_mm": 1, "steer": "lock_right", "side": "left" }] });
        if let Some(steering) = steering {
            corner["steering"] = steering.clone();
        }
        json!({ "corner": corner, "planned": planned })
    };
    let liner = async |planned: &str, steering: Option<&Value>| {
        let (status, fit) = shop.post("/fit", asked(planned, steering)).await;
        assert_eq!(status, 200, "{fit}");
        let line = fit["clearances"].as_array().unwrap().iter().find(|one| one["feature"] == "liner_ahead");
        line.unwrap().clone()
    };
    // What is fitted keeps its gap.
    let same = liner("17x7.5 ET45 225/45R17", Some(&steering)).await;
    assert!((number(&same["nominal_mm"]) - 30.0).abs() < 0.3, "{same}");
    // 20 mm further out, turned to the right: the left wheel's front edge goes inboard, and the wheel forward by 20 · sin 31°
    // about an upright axis (geometry); the quick rule takes a share for either lock.
    let poked = liner("17x7.5 ET25 225/45R17", Some(&steering)).await;
    let lost = 30.0 - number(&poked["nominal_mm"]);
    assert!((lost - 20.0 * 31f64.to_radians().sin()).abs() < 2.5, "{lost}");
    let by_rule = liner("17x7.5 ET25 225/45R17", None).await;
    assert!((30.0 - number(&by_rule["nominal_mm"]) - 0.55 * 20.0).abs() < 1e-9);
    let named = |line: &Value, what: &str| {
        line["contributions"].as_array().unwrap().iter().any(|one| one["what"] == what)
    };
    assert!(named(&by_rule, "quick rule at lock") && !named(&poked, "quick rule at lock"));
    assert!(named(&poked, "full lock"), "{poked}");

    let mut wrong = steering.clone();
    wrong["inclination_deg"] = json!(45);
    let (status, problem) = shop.post("/fit", asked("17x7.5 ET25 225/45R17", Some(&wrong))).await;
    assert_eq!((status, &problem["errors"][0]["pointer"]), (422, &json!("/corner/steering/inclination_deg")));
}

#[tokio::test]
async fn a_worn_tire_that_was_read_leaves_less_under_the_arch() {
    let shop = Served::start(None).await;
    let arch = async |depth: Option<f64>, planned: &str| {
        let corner = json!({ "fitted": "17x7.5 ET45 225/45R17", "camber_deg": 0, "tread_depth_mm": depth,
            "readings": [{ "feature": "arch", "gap_mm": 60, "plus_minus_mm": 1 }] });
        let (status, fit) = shop.post("/fit", json!({ "corner": corner, "planned": planned })).await;
        assert_eq!(status, 200, "{fit}");
        let line = fit["clearances"].as_array().unwrap().iter().find(|one| one["feature"] == "arch");
        let line = line.unwrap();
        (number(&line["nominal_mm"]), number(&line["likely_low_mm"]))
    };
    let new = "17x7.5 ET45 225/45R17 91W";
    // 8 mm when new (common practice), 3 left: a new tire stands 5 mm higher.
    let (unknown, worn) = (arch(None, new).await, arch(Some(3.0), new).await);
    assert!((unknown.0 - 60.0).abs() < 1e-9 && (worn.0 - 55.0).abs() < 1e-9, "{unknown:?} {worn:?}");
    assert!(worn.0 - worn.1 < unknown.0 - unknown.1, "a noted depth takes doubt out");
    // The worn tire itself stays as worn as it is.
    assert!((arch(Some(3.0), "17x7.5 ET45 225/45R17").await.0 - 60.0).abs() < 1e-9);
}

#[tokio::test]
async fn a_reading_says_from_where_along_which_way_and_where_round_the_wheel() {
    let shop = Served::start(None).await;
    let asked = |extra: Value| {
        let mut reading = json!({ "feature": "knuckle", "gap_mm": 10, "plus_minus_mm": 0.5 });
        reading.as_object_mut().unwrap().extend(extra.as_object().unwrap().clone());
        json!({ "corner": { "fitted": "18x8 ET45 225/40R18", "camber_deg": 0, "readings": [reading] },
                "planned": "18x8 ET45 225/40R18 5mm spacer" })
    };
    // From the flange, level: 5 mm of spacer are 5 mm of room.
    let level = json!({ "face": "flange", "direction": "level" });
    let (status, fit) = shop.post("/fit", asked(level)).await;
    assert_eq!(status, 200, "{fit}");
    let line = fit["clearances"].as_array().unwrap().iter().find(|one| one["feature"] == "knuckle").unwrap();
    assert!((number(&line["nominal_mm"]) - 15.0).abs() < 0.6, "{line}");
    for (wrong, pointer) in [
        (json!({ "face": "roof" }), "/corner/readings/0/face"),
        (json!({ "direction": "sideways" }), "/corner/readings/0/direction"),
        (json!({ "clock": 13 }), "/corner/readings/0/clock"),
    ] {
        let (status, problem) = shop.post("/fit", asked(wrong)).await;
        assert_eq!((status, &problem["errors"][0]["pointer"]), (422, &json!(pointer)));
    }
    // Kept with a job, it comes back as it was sent; an older reading has none of it.
    let (id, _) = shop.new_job("18x8 ET45 225/40R18").await;
    let reading = json!({ "id": "a1", "axle": "front", "what": "liner_ahead", "value": 30, "unit": "mm",
        "instrument": "steel_rule", "steer": "lock_left", "face": "shoulder", "direction": "shortest", "clock": 3.5 });
    let (status, job) = shop.post(&format!("/jobs/{id}/readings"), json!({ "readings": [reading] })).await;
    assert_eq!(status, 200, "{job}");
    let kept = &shop.get(&format!("/jobs/{id}")).await["readings"][0];
    assert_eq!(
        [&kept["face"], &kept["direction"], &kept["clock"]],
        [&json!("shoulder"), &json!("shortest"), &json!(3.5)]
    );
}
