//! Size ladder, pressure, stagger and fasteners over the API.

use crate::served::Served;
use reqwest::Method;
use serde_json::{Value, json};

fn near(value: &Value, wanted: f64, off: f64) -> bool {
    value.as_f64().is_some_and(|value| (value - wanted).abs() <= off)
}

#[tokio::test]
async fn a_ladder_is_sorted_by_how_little_the_diameter_changes() {
    let shop = Served::start(None).await;
    let ask = json!({ "tire": "225/45R17", "band_pct": 3, "rim_diameters_in": [17, 18, 19] });
    let (status, ladder) = shop.post("/ladder", ask).await;
    assert_eq!(status, 200);
    let sizes = ladder["sizes"].as_array().unwrap();
    let change = |row: &Value| row["change_pct"].as_f64().unwrap().abs();
    assert!(sizes.windows(2).all(|two| change(&two[0]) <= change(&two[1])));
    assert!(sizes.iter().all(|row| change(row) <= 3.0 + 1e-9));
    assert_eq!(sizes[0]["size"], "225/45R17");
    // By hand: 18 × 25.4 + 2 × 245 × 0.40 = 653.2 against 634.3; measuring rim 0.90 × 245 mm = 8.7 in (ISO 4000-1, memory).
    let plus_one = sizes.iter().find(|row| row["size"] == "245/40R18").unwrap();
    assert!(
        near(&plus_one["overall_diameter_mm"], 653.2, 1e-9) && near(&plus_one["change_pct"], 2.9797, 1e-3)
    );
    assert!(near(&plus_one["sidewall_mm"], 98.0, 1e-9) && near(&plus_one["measuring_rim_in"], 8.5, 1e-9));
    assert_eq!(plus_one["plus_in"], 1.0);

    let bad = json!({ "tire": "225/450R17", "band_pct": 40, "rim_diameters_in": [17, 99] });
    let (status, problem) = shop.post("/ladder", bad).await;
    let pointers: Vec<&str> =
        problem["errors"].as_array().unwrap().iter().map(|one| one["pointer"].as_str().unwrap()).collect();
    assert_eq!(status, 422);
    assert_eq!(pointers, ["/tire", "/band_pct", "/rim_diameters_in/1"]);
}

#[tokio::test]
async fn a_ladder_on_a_car_knows_its_load_its_arch_and_the_shelf() {
    let shop = Served::sample().await;
    let ask = json!({ "tire": "245/40R18", "job": 4, "axle": "rear" });
    let (status, ladder) = shop.post("/ladder", ask).await;
    assert_eq!(status, 200, "{ladder}");
    // The factory's 97 is 730 kg (ISO 4000-1), over half of the 1130 kg rating.
    assert_eq!((&ladder["load_need_kg"], &ladder["least_load_index"]), (&json!(730.0), &json!(97)));
    let sizes = ladder["sizes"].as_array().unwrap();
    let own = sizes.iter().find(|row| row["size"] == "245/40R18").unwrap();
    assert!(near(&own["arch_gap_mm"], 60.5, 0.51), "read 60 and 61 under the arch: {own}");
    for row in sizes {
        let gap = row["arch_gap_mm"].as_f64().unwrap();
        let taller = (row["overall_diameter_mm"].as_f64().unwrap() - 653.2) / 2.0;
        assert!(
            (gap + taller - own["arch_gap_mm"].as_f64().unwrap()).abs() < 0.3,
            "half of the difference: {row}"
        );
        assert!(row["tires_that_carry"].as_u64() <= row["tires_in_catalogue"].as_u64());
    }
    assert!(
        own["tires_that_carry"].as_u64().unwrap() > 0 && own["wheels_in_catalogue"].as_u64().unwrap() > 0
    );
}

#[tokio::test]
async fn a_pressure_is_never_under_the_placard() {
    let shop = Served::start(None).await;
    // ETRTO (memory): 290 kPa × (520 / 670)^1.25 = 211.2 kPa for an extra load tire.
    let path = "/tires/pressure?size=225/45R17%2094W%20XL&load_kg=520";
    let bare = shop.get(path).await;
    assert!(near(&bare["pressure_kpa"], 290.0 * (520.0_f64 / 670.0).powf(1.25), 1e-6), "{bare}");
    assert_eq!((&bare["load_capacity_kg"], &bare["enough"]), (&json!(670.0), &json!(true)));
    let placard = shop.get(&format!("{path}&placard_kpa=240")).await;
    assert_eq!((&placard["pressure_kpa"], &placard["by_placard"]), (&json!(240.0), &json!(true)));
    let over = shop.get("/tires/pressure?size=225/45R17%2091W&load_kg=640").await;
    assert_eq!(over["enough"], false);
    let (status, unsaid) = shop.ask(Method::GET, "/tires/pressure?size=225/45R17&load_kg=400", None).await;
    assert_eq!((status, &unsaid["errors"][0]["pointer"]), (422, &json!("size")));
}

#[tokio::test]
async fn a_staggered_pair_is_held_to_the_drives_limit() {
    let shop = Served::start(None).await;
    let ask = |drive: &str| {
        json!({
            "factory": { "front": "17x7.5 ET45 225/45R17", "rear": "17x7.5 ET45 225/45R17" },
            "planned": { "front": "18x8.5 ET40 235/40R18", "rear": "18x9 ET40 255/40R18" },
            "drive": drive,
        })
    };
    // By hand: 645.2 / 661.2 − 1 = −2.420 %; 16.0 mm.
    let (_, rear) = shop.post("/stagger", ask("rwd")).await;
    assert!(
        near(&rear["ratio_change_pct"], -2.4198, 1e-3) && near(&rear["height_difference_mm"], 16.0, 1e-9)
    );
    assert_eq!(
        (&rear["verdict"], &rear["limit_pct"], &rear["taller_axle"]),
        (&json!("keeps_ratio"), &json!(2.5), &json!("rear"))
    );
    assert_eq!(rear["rotation"], json!(["side_to_side"]));
    assert_eq!(shop.post("/stagger", ask("awd")).await.1["verdict"], "drifts");
    let mut half = ask("rwd");
    half["planned"]["rear"] = json!("18x9 ET40");
    assert_eq!(shop.post("/stagger", half).await.0, 422);
}

#[tokio::test]
async fn fasteners_rings_and_what_does_not_go_on() {
    let shop = Served::start(None).await;
    let ask = |wheel: Value, spacer: f64| {
        json!({
            "hub": { "bore_mm": 57.1, "bolt_circle": "5x112", "thread": "M14x1.5", "seat": "ball R13", "lip_mm": 12,
                     "fasteners": "bolts" },
            "wheel": wheel, "spacer_mm": spacer, "fitted_length_mm": 28,
        })
    };
    let wheel =
        |bore: f64, circle: &str, seat: &str| json!({ "bore_mm": bore, "bolt_circle": circle, "seat": seat });
    // Common practice: ring outside = bore, inside = hub; M14 × 1.5 holds in 14 / 1.5 = 9.33 turns.
    // As deep from pad to seat as the fitted wheel: the fitted length and the spacer's thickness.
    let as_deep = |bore: f64| {
        let mut wheel = wheel(bore, "5x112", "ball R13");
        wheel["is_fitted_one"] = json!(true);
        wheel
    };
    let (_, ring) = shop.post("/fasteners", ask(as_deep(66.6), 5.0)).await;
    assert_eq!((&ring["verdict"], &ring["length_mm"]), (&json!("fits_with_parts"), &json!(33.0)));
    assert_eq!(ring["ring"], json!({ "outer_mm": 66.6, "inner_mm": 57.1 }));
    assert!(near(&ring["engagement_turns"], 14.0 / 1.5, 1e-9));
    let (_, direct) = shop.post("/fasteners", ask(as_deep(57.1), 0.0)).await;
    assert_eq!((&direct["verdict"], &direct["ring"]), (&json!("fits"), &Value::Null));
    assert_eq!(direct["problems"], json!([]));
    for (wheel, code) in [
        (wheel(57.1, "5x114.3", "ball R13"), "bolt_circle"),
        (wheel(56.1, "5x112", "ball R13"), "bore"),
        (wheel(57.1, "5x112", "cone 60°"), "seat"),
    ] {
        let (_, no) = shop.post("/fasteners", ask(wheel, 0.0)).await;
        assert_eq!((&no["verdict"], &no["problems"][0]["code"]), (&json!("does_not_fit"), &json!(code)));
    }
    let (status, problem) = shop
        .post(
            "/fasteners",
            json!({ "hub": { "thread": "M14", "seat": "glue", "bore_mm": 1e9 }, "wheel": {}, "spacer_mm": -3 }),
        )
        .await;
    assert_eq!((status, problem["errors"].as_array().unwrap().len()), (422, 4));
}

#[tokio::test]
async fn a_height_lists_the_sizes_that_come_to_it() {
    let shop = Served::start(None).await;
    let ask = |tire: &str| json!({ "tire": tire, "band_pct": 3, "rim_diameters_in": [15, 17, 18] });
    let (status, ladder) = shop.post("/ladder", ask("33")).await;
    assert_eq!(status, 200, "{ladder}");
    let sizes = ladder["sizes"].as_array().unwrap();
    // Common practice, no source: what is called a 33 in the trade.
    for size in ["33x12.50R15LT", "285/70R17", "275/70R18", "33x12.50R17LT"] {
        let rung =
            sizes.iter().find(|rung| rung["size"] == size).unwrap_or_else(|| panic!("{size}: {ladder}"));
        let mm = rung["overall_diameter_mm"].as_f64().unwrap();
        assert!((mm / (33.0 * 25.4) - 1.0).abs() <= 0.03, "{size}: {mm}");
        let around = rung["circumference_mm"].as_f64().unwrap();
        assert!((around / mm - std::f64::consts::PI).abs() < 1e-12);
        let turns = rung["revolutions_per_mile"].as_f64().unwrap();
        assert!((turns * around - 1_609_344.0).abs() < 1e-6);
    }
    assert!(sizes.iter().all(|rung| rung["is_listed_size"] == true));
    for same in ["33 in", "33\"", "838.2 mm", "838,2"] {
        let (_, other) = shop.post("/ladder", ask(same)).await;
        assert_eq!(other["sizes"].as_array().unwrap().len(), sizes.len(), "{same}");
    }
    assert_eq!(shop.post("/ladder", ask("330")).await.0, 422, "no height of a tire");
}
