//! Road and track for scripts: the note's worked checks over the API, and what cannot be.

use crate::served::Served;
use serde_json::{Value, json};

fn near(value: &Value, wanted: f64, within: f64) {
    let value = value.as_f64().unwrap_or(f64::NAN);
    assert!((value - wanted).abs() < within, "{value}, not {wanted}");
}

fn pointers(problem: &Value) -> Vec<&str> {
    problem["errors"].as_array().unwrap().iter().map(|one| one["pointer"].as_str().unwrap()).collect()
}

fn road() -> Value {
    json!({ "reference_diameter_mm": 650.0, "planned": "17x8 ET30 265/70R17",
            "gears": { "ratios": [3.6, 2.1, 1.4, 1.0, 0.8], "final": 3.9, "low_range": 2.5, "limiter_rpm": 6000 },
            "cruise_kmh": 100 })
}

#[tokio::test]
async fn a_taller_tire_on_the_road() {
    let shop = Served::start(None).await;
    let (status, view) = shop.post("/road", road()).await;
    assert_eq!(status, 200, "{view}");
    // 17 · 25.4 + 2 · 265 · 0.70 = 802.8 mm; circumference 3.05 × that.
    let (od, c) = (802.8, 3.05 * 0.8028);
    near(&view["true_speed_ratio"], od / 650.0, 1e-12);
    near(&view["effective_final"], 3.9 * 650.0 / od, 1e-12);
    near(&view["gears"][4]["kmh_per_1000rpm"], 1000.0 / 60.0 * c / (0.8 * 3.9) * 3.6, 1e-9);
    near(&view["gears"][0]["limiter_kmh"], 6000.0 / 60.0 * c / (3.6 * 3.9) * 3.6, 1e-9);
    near(&view["cruise_rpm"], 100.0 / 3.6 / c * 0.8 * 3.9 * 60.0, 1e-9);
    near(&view["crawl_ratio"], 3.6 * 2.5 * 3.9, 1e-9);
    near(&view["tractive_effort_change_pct"], (650.0 / od - 1.0) * 100.0, 1e-9);
    let mut none = road();
    none["gears"]["low_range"] = Value::Null;
    assert_eq!(shop.post("/road", none).await.1["crawl_ratio"], Value::Null);

    let mut wrong = road();
    wrong["gears"]["ratios"] = json!([3.6, 1.4, 2.1]);
    wrong["planned"] = json!("17x8 ET30");
    wrong["cruise_kmh"] = json!(-3);
    let (status, problem) = shop.post("/road", wrong).await;
    assert_eq!((status, pointers(&problem)), (422, vec!["/cruise_kmh", "/planned", "/gears/ratios/2"]));
}

fn corner() -> Value {
    json!({ "mass_kg": 1500, "front_share": 0.52, "cg_height_m": 0.5, "wheelbase_m": 2.6, "track_front_m": 1.55,
            "track_rear_m": 1.55, "roll_share_front": 0.55, "lateral_g": 1.2, "longitudinal_g": 0,
            "downforce_kg": 0, "downforce_front_share": 0.5 })
}

#[tokio::test]
async fn corner_loads_of_the_worked_check() {
    let shop = Served::start(None).await;
    let (status, view) = shop.post("/track/loads", corner()).await;
    assert_eq!(status, 200, "{view}");
    for (wheel, kg) in [("fl", 70.6), ("fr", 709.4), ("rl", 98.7), ("rr", 621.3)] {
        near(&view["loads_kg"][wheel], kg, 0.05);
    }
    near(&view["static_kg"]["fl"], 390.0, 1e-9);
    assert_eq!(view["lifted"], json!([]));
    let mut lifts = corner();
    lifts["roll_share_front"] = json!(0.8);
    assert_eq!(shop.post("/track/loads", lifts).await.1["lifted"], json!(["fl"]));
    let mut wrong = corner();
    wrong["mass_kg"] = json!(50);
    wrong["lateral_g"] = json!(9);
    let (status, problem) = shop.post("/track/loads", wrong).await;
    assert_eq!((status, pointers(&problem)), (422, vec!["/mass_kg", "/lateral_g"]));
}

#[tokio::test]
async fn pressures_there_and_back() {
    let shop = Served::start(None).await;
    let ask = |body: Value| shop.post("/track/pressure", body);
    let (_, hot) = ask(json!({ "cold_kpa": 200, "cold_c": 20, "hot_c": 100 })).await;
    near(&hot["hot_kpa"], 282.2, 0.1);
    let (_, cold) = ask(json!({ "hot_kpa": hot["hot_kpa"], "cold_c": 20, "hot_c": 100 })).await;
    near(&cold["cold_kpa"], 200.0, 1e-9);
    assert!(cold["caution"].as_str().unwrap().contains("placard"));
    for body in [
        json!({ "cold_c": 20, "hot_c": 100 }),
        json!({ "cold_kpa": 200, "hot_kpa": 220, "cold_c": 20, "hot_c": 100 }),
        json!({ "cold_kpa": 200, "cold_c": -300, "hot_c": 100 }),
    ] {
        assert_eq!(ask(body.clone()).await.0, 422, "{body}");
    }
}

#[tokio::test]
async fn a_class_names_the_clause_and_the_amount_and_never_passes_what_it_does_not_know() {
    let shop = Served::start(None).await;
    let square = |line: &str| json!({ "front": line, "rear": line });
    let ask = |clauses: Value, planned: &str| {
        json!({ "class": { "name": "Hill stock", "clauses": clauses }, "factory": square("16x6.5 ET45 205/50R16"),
                "planned": square(planned), "treadwear": { "front": 200, "rear": 180 } })
    };
    let clauses = json!([{ "clause": "rim_diameter_change_in", "most": 1 }, { "clause": "width_change_in", "most": 0.5 },
                         { "clause": "offset_change_mm", "most": 7 }, { "clause": "treadwear", "least": 200 }]);
    let (status, answer) = shop.post("/classes/judge", ask(clauses, "17x7 ET35 205/45R17")).await;
    assert_eq!((status, &answer["legal"]), (200, &json!(false)), "{answer}");
    let ok: Vec<&Value> = answer["clauses"].as_array().unwrap().iter().map(|one| &one["ok"]).collect();
    assert_eq!(ok, [&json!(true), &json!(true), &json!(false), &json!(false)]);
    near(&answer["clauses"][2]["by"], 3.0, 1e-9);
    near(&answer["clauses"][3]["by"], 20.0, 1e-9);
    assert_eq!(answer["allowed"]["rim_diameter_in"], json!([15.0, 17.0]));
    assert_eq!(answer["allowed"]["width_in"], json!([6.0, 7.0]));
    assert_eq!(answer["allowed"]["offset_mm"], json!([38.0, 52.0]));

    let (_, unknown) = shop
        .post("/classes/judge", ask(json!([{ "clause": "no_purple_cars" }]), "16x6.5 ET45 205/50R16"))
        .await;
    assert_eq!((&unknown["legal"], &unknown["clauses"][0]["ok"]), (&json!(false), &Value::Null));
    let (status, problem) =
        shop.post("/classes/judge", ask(json!([{ "clause": "spacers_mm" }]), "16x6.5 ET45 205/50R16")).await;
    assert_eq!((status, pointers(&problem)), (422, vec!["/class/clauses/0/most"]));
}

#[tokio::test]
async fn wear_by_distance_and_by_runs() {
    let shop = Served::start(None).await;
    let reading = |at: f64, mm: f64| json!({ "at": "2026-05-02", "distance_km": at, "inner_mm": mm - 0.4, "middle_mm": mm, "outer_mm": mm });
    let season = json!({ "limit_mm": 1.6,
        "readings": [reading(0.0, 8.0), reading(2000.0, 7.4), reading(5000.0, 6.9), reading(9000.0, 5.6), reading(12_000.0, 5.1)] });
    let (status, wear) = shop.post("/tread/wear", season).await;
    assert_eq!(status, 200, "{wear}");
    // SciPy 1.17.1, `stats.linregress` over the same figures.
    near(&wear["rate_mm_per_1000_km"], 0.245_884_773_662_551_5, 1e-12);
    near(&wear["plus_minus"], 0.014_739_846_132_473_268, 1e-12);
    assert_eq!(wear.get("rate_mm_per_run"), None);
    let run = |runs: f64, mm: f64| json!({ "runs": runs, "inner_mm": mm, "middle_mm": mm, "outer_mm": mm });
    let (_, runs) = shop
        .post("/tread/wear", json!({ "limit_mm": 1.6, "readings": [run(0.0, 6.0), run(10.0, 5.0)] }))
        .await;
    near(&runs["rate_mm_per_run"], 0.1, 1e-12);
    near(&runs["left_runs"], 34.0, 1e-9);
    // A depth that grows is told and left out; a counter that runs back is refused.
    let grows = json!({ "limit_mm": 1.6, "readings": [run(0.0, 6.0), run(5.0, 7.0), run(10.0, 5.0)] });
    let (_, grows) = shop.post("/tread/wear", grows).await;
    assert_eq!(grows["left_out"], json!([1]));
    near(&grows["rate_mm_per_run"], 0.1, 1e-12);
    let back = json!({ "limit_mm": 1.6, "readings": [run(9.0, 6.0), run(5.0, 5.0)] });
    let (status, problem) = shop.post("/tread/wear", back).await;
    assert_eq!((status, pointers(&problem)), (422, vec!["/readings/1/runs"]));
}

#[tokio::test]
async fn a_jobs_sheet_is_worked_out_kept_and_refused_at_its_field() {
    let shop = Served::sample().await;
    let job = shop.get("/jobs/3").await;
    let sheet = job["road"].clone();
    let (status, view) = shop.post("/jobs/3/road", sheet.clone()).await;
    assert_eq!(status, 200, "{view}");
    // The dial by the same rule as the bench's.
    let ask = json!({ "fitted": job["fitted"], "planned": job["planned"], "drive": job["drive"], "job": 3 });
    let (_, bench) = shop.post("/bench", ask).await;
    assert_eq!(view["dial"]["metric"][1]["true_kmh"], bench["true_speeds"]["metric"][1]["true_kmh"]);
    // Loads: the sums of the steady corner are the car's mass; the kerb is met by one wheel.
    let wheels = |case: usize| -> Vec<f64> {
        let all = view["track"][case]["wheels"].as_array().unwrap();
        all.iter().map(|wheel| wheel["load_kg"].as_f64().unwrap()).collect()
    };
    assert!((wheels(0).iter().sum::<f64>() - 1035.0).abs() < 1e-6);
    let more = wheels(0).iter().zip(wheels(2)).filter(|(corner, kerb)| kerb > *corner).count();
    assert_eq!(more, 1);
    // Nine degrees tomorrow: by the gas law, and never without its caution.
    let cold = view["cold"]["front_cold_kpa"].as_f64().unwrap();
    assert!((cold - ((225.0 + 101.3) * (9.0 + 273.15) / (62.0 + 273.15) - 101.3)).abs() < 1e-9);
    assert!(view["cold"]["caution"].as_str().unwrap().contains("placard"));
    // Weights are the lists': while nothing is picked nobody knows them.
    assert_eq!((&view["sets"][1]["set"], &view["sets"][1]["to_lift_kg"]), (&json!("bench"), &Value::Null));
    // Its class: what nobody stated is never legal.
    assert_eq!(view["class"]["plans"][0]["legal"], false);
    assert_eq!(view["class"]["allowed"]["rim_diameter_in"], json!([15.0, 17.0]));
    let season = &view["seasons"][0];
    assert!(season["wear"]["left_runs"].as_f64().unwrap() > 0.0 && season["cost"].as_f64().unwrap() > 0.0);
    assert!(season["wear"]["pattern"].as_str().unwrap().starts_with("outer edge"));
    // Half a season at this rate is its end: order; the outer shoulder goes first: turn it over, unless it is marked.
    let advice = |view: &Value| view["seasons"][0]["advice"].as_array().unwrap().clone();
    let says = |view: &Value, text: &str| advice(view).iter().any(|one| one.as_str().unwrap().contains(text));
    assert!(says(&view, "Order now") && says(&view, "Turn it over on its rim"), "{:?}", advice(&view));
    let mut marked = job["road"].clone();
    marked["tires"][0]["is_asymmetric"] = json!(true);
    marked["tires"][0]["date_code"] = json!("99");
    let (_, judged) = shop.post("/jobs/3/road", marked.clone()).await;
    assert!(says(&judged, "no turning over") && says(&judged, "cannot be read"), "{:?}", advice(&judged));
    // A depth that grew was misread: what is there now is the one before it.
    let last = marked["tires"][0]["readings"].as_array().unwrap().last().unwrap().clone();
    let mut grown = last.clone();
    for place in ["inner_mm", "middle_mm", "outer_mm"] {
        grown[place] = json!(8.0);
    }
    marked["tires"][0]["readings"].as_array_mut().unwrap().push(grown);
    let (_, misread) = shop.post("/jobs/3/road", marked).await;
    assert_eq!(advice(&misread), advice(&judged));

    // Kept with the job; what is refused is refused at its field, and the job stays.
    let mut change = job.clone();
    change["based_on_revision"] = job["revision"].clone();
    change["road"]["gears"]["ratios"] = json!([1.0, 2.0]);
    let (status, problem) = shop.put("/jobs/3", change.clone()).await;
    assert_eq!((status, pointers(&problem)), (422, vec!["/road/gears/ratios/1"]));
    change["road"]["gears"]["ratios"] = json!([2.0, 1.0]);
    change["road"]["tires"][0]["position"] = json!("roof");
    assert_eq!(pointers(&shop.put("/jobs/3", change.clone()).await.1), ["/road/tires/0/position"]);
    change["road"]["tires"] = json!([]);
    let (status, kept) = shop.put("/jobs/3", change).await;
    assert_eq!((status, &kept["road"]["gears"]["ratios"]), (200, &json!([2.0, 1.0])), "{kept}");
    assert_eq!(kept["undoes"], "road and track sheet");
    // An empty sheet leaves its rows out.
    let (status, empty) = shop.post("/jobs/7/road", json!({})).await;
    assert_eq!(status, 200, "{empty}");
    assert_eq!(
        (&empty["gearing_planned"], &empty["track"], &empty["cold"]),
        (&Value::Null, &json!([]), &Value::Null)
    );
    assert!(empty["dial"]["metric"].as_array().unwrap().len() == 3);
    assert!(shop.get("/clubs").await.as_array().unwrap().len() == 2);
}

#[tokio::test]
async fn the_finder_keeps_to_the_jobs_class() {
    let shop = Served::sample().await;
    let job = shop.get("/jobs/3").await;
    let mut wishes = job["wishes"].clone();
    wishes["in_class"] = json!(true);
    wishes["budget"] = Value::Null;
    wishes["count"] = json!(12);
    let (status, found) = shop.post("/jobs/3/finder", wishes).await;
    assert_eq!(status, 200, "{found}");
    let setups = found["setups"].as_array().unwrap();
    assert!(!setups.is_empty(), "{}", found["obstruction"]);
    // Each by the class's own word, with the treadwear of the very row.
    for setup in setups {
        let front =
            &setup["picked"].as_array().unwrap().iter().find(|row| row["kind"] == "tires").unwrap()["record"];
        let grade: u32 = front["treadwear"].as_str().unwrap().parse().unwrap();
        let ask = json!({ "class": job["road"]["class"], "planned": setup["lines"],
            "factory": { "front": "16x6.5 ET45 4x100 CB54.1 205/50R16 87V", "rear": "16x6.5 ET45 4x100 CB54.1 205/50R16 87V" },
            "treadwear": { "front": grade, "rear": grade }, "tread_beyond_fender_mm": { "front": -1, "rear": -1 } });
        let (_, judged) = shop.post("/classes/judge", ask).await;
        assert_eq!(judged["legal"], true, "{} {judged}", setup["lines"]);
    }
    // On the bench with its very rows: their weights. Turning them costs more than lifting them and, as no part turns
    // beyond the tread, less than twice that.
    let mut change = job.clone();
    change["based_on_revision"] = job["revision"].clone();
    change["planned"] = setups[0]["lines"].clone();
    change["picked"] = setups[0]["picked"].clone();
    let (status, kept) = shop.put("/jobs/3", change).await;
    assert_eq!(status, 200, "{kept}");
    let (_, view) = shop.post("/jobs/3/road", job["road"].clone()).await;
    let bench = &view["sets"][1];
    let kg = |name: &str| bench[name].as_f64().unwrap_or_else(|| panic!("{name}: {bench}"));
    near(&bench["to_lift_kg"], kg("wheels_kg") + kg("tires_kg"), 1e-9);
    assert!(kg("to_accelerate_kg") > kg("to_lift_kg") && kg("to_accelerate_kg") < 2.0 * kg("to_lift_kg"));
}

#[tokio::test]
async fn a_tread_log_leaves_and_comes_back_as_a_table() {
    let shop = Served::sample().await;
    let job = shop.get("/jobs/3").await;
    let answer = shop.client.get(shop.url("/jobs/3/road/tread-log.csv")).send().await.unwrap();
    let kind = answer.headers()["content-type"].to_str().unwrap().to_owned();
    let csv = answer.text().await.unwrap();
    assert!(
        kind.starts_with("text/csv") && csv.lines().next().unwrap().ends_with("middle_c,outer_c"),
        "{csv}"
    );
    let bring = async |text: String| {
        let request = shop.client.post(shop.url("/road/tread-log")).body(text);
        let answer = request.header("content-type", "application/octet-stream").send().await.unwrap();
        (answer.status().as_u16(), answer.json::<Value>().await.unwrap())
    };
    let (status, mut back) = bring(csv.clone()).await;
    assert_eq!(status, 200, "{back}");
    let mut kept = job["road"]["tires"].clone();
    for tire in kept.as_array_mut().unwrap().iter_mut().chain(back.as_array_mut().unwrap()) {
        tire["id"] = json!("");
    }
    assert_eq!(back, kept);
    // A comma is a decimal mark too; a tire without a reading is one; what is wrong says its line.
    let head = "tire;position;runs;inner_mm;middle_mm;outer_mm\n";
    let (status, two) = bring(format!("{head}North 1;FL;0;7,5;7,4;7,3\nNorth 2;fr;;;;\n")).await;
    assert_eq!((status, &two[0]["readings"][0]["inner_mm"]), (200, &json!(7.5)), "{two}");
    assert_eq!(two[1]["readings"], json!([]));
    for (text, says) in [
        (format!("{head}North 1;fl;0;7.5;7.4;\n"), "line 2: a reading has three depths"),
        (format!("{head}North 1;fl;0;7;7;7\nNorth 1;fl;ten;7;7;7\n"), "line 3: runs is not a number"),
        (format!("{head}North 1;roof;0;7;7;7\n"), "is fl, fr, rl, rr or off"),
        (format!("{head}North 1;fl;0;70;7;7\n"), "a depth"),
        (
            "tire;position;runs;inner_mm;middle_mm;outer_mm;stood_at;hot_kpa\nN;fl;0;7;7;7;boot;200\n".into(),
            "fl, fr, rl or rr",
        ),
        ("tire;position;runs;inner_mm;middle_mm;outer_mm;hot_kpa\nN;fl;0;7;7;7;2.2\n".into(), "a pressure"),
        ("tire,depth\na,b\n".to_owned(), "no column position"),
    ] {
        let (status, problem) = bring(text.clone()).await;
        assert_eq!(status, 422, "{text}");
        assert!(problem.to_string().contains(says), "{text}: {problem}");
    }
}

#[tokio::test]
async fn a_tire_that_was_turned_over_goes_on_by_its_own_shoulders() {
    let shop = Served::sample().await;
    let mut sheet = shop.get("/jobs/3").await["road"].clone();
    let season = async |sheet: &Value| shop.post("/jobs/3/road", sheet.clone()).await.1["seasons"][0].clone();
    let advice = |season: &Value| season["advice"].to_string();
    assert!(advice(&season(&sheet).await).contains("Turn it over"));
    // The next reading after it was done: what was the outer shoulder stands inside now.
    let tire = &mut sheet["tires"][0];
    let mut next = tire["readings"].as_array().unwrap().last().unwrap().clone();
    let (inner, outer) = (next["inner_mm"].as_f64().unwrap(), next["outer_mm"].as_f64().unwrap());
    next["runs"] = json!(next["runs"].as_f64().unwrap() + 2.0);
    next["inner_mm"] = json!(outer - 0.02);
    next["outer_mm"] = json!(inner - 0.1);
    tire["readings"].as_array_mut().unwrap().push(next);
    let misread = season(&sheet).await;
    assert_eq!(misread["wear"]["left_out"], json!([6]), "a shoulder cannot grow");
    let tire = &mut sheet["tires"][0];
    tire["turned_over"] = json!(true);
    tire["readings"][6]["turned_over"] = json!(true);
    let turned = season(&sheet).await;
    assert_eq!(turned["wear"]["left_out"], json!([]), "{turned}");
    assert!(!advice(&turned).contains("Turn it over"), "once is enough: {turned}");
}

#[tokio::test]
async fn sets_side_by_side_and_pressures_of_the_sample_roadster() {
    let shop = Served::sample().await;
    let sheet = shop.get("/jobs/3").await["road"].clone();
    let (status, view) = shop.post("/jobs/3/road", sheet.clone()).await;
    assert_eq!(status, 200, "{view}");
    let [fitted, bench] = [&view["sets"][0], &view["sets"][1]];
    assert_eq!((&fitted["set"], &bench["set"]), (&json!("fitted"), &json!("bench")));
    // 16 · 25.4 + 2 · 205 · 0.50 = 611.4 and 15 · 25.4 + 2 · 225 · 0.45 = 583.5 mm.
    near(&fitted["pull_change_pct"], 0.0, 1e-9);
    near(&bench["pull_change_pct"], (611.4 / 583.5 - 1.0) * 100.0, 1e-9);
    near(&bench["sidewall_mm"]["front"], 101.25, 1e-9);
    assert_eq!((&bench["legal"], &bench["price"]), (&json!(false), &Value::Null));
    assert_eq!(bench["cases"][0]["wheel"]["position"], "fr", "turning left the outer front carries most");
    let steps = |case: usize| view["track"][case]["working"].as_array().unwrap();
    assert_eq!((steps(0).len(), steps(1).len()), (4, 5), "braking moves load lengthways as well");
    assert!(steps(2).last().unwrap()["what"].as_str().unwrap().contains("kerb"));
    // Nobody stated the wheel's rating: nothing is said of its test.
    assert_eq!(bench["cases"][0]["wheel"]["tested_share"], Value::Null);
    let cases = view["pressures"][0]["cases"].as_array().unwrap();
    assert_eq!((&cases[0]["case"], &cases[0]["load_kg"]), (&json!("the axle's whole rating"), &json!(345.0)));

    // A tire beyond its symbol carries nothing that anybody states.
    let mut fast = sheet.clone();
    fast["car"]["speed_kmh"] = json!(275);
    let (_, view) = shop.post("/jobs/3/road", fast).await;
    let wheel = &view["sets"][1]["cases"][0]["wheel"];
    assert_eq!((&wheel["tire_kg"], &wheel["is_over"]), (&json!(0.0), &json!(true)));
    let mut nonsense = sheet;
    nonsense["car"]["speed_kmh"] = json!(9000);
    nonsense["car"]["braking_g"] = json!(9);
    let (status, problem) = shop.post("/jobs/3/road", nonsense).await;
    assert_eq!((status, pointers(&problem)), (422, vec!["/car/speed_kmh", "/car/braking_g"]));
}

#[tokio::test]
async fn looks_come_due_and_the_next_step_goes_by_the_lists() {
    let shop = Served::sample().await;
    let mut sheet = shop.get("/jobs/3").await["road"].clone();
    let (_, view) = shop.post("/jobs/3/road", sheet.clone()).await;
    let looks = view["inspections"].as_array().unwrap();
    // 70 runs now, 26 at the last look, every 20 by the house; true running was never noted.
    assert!(looks[0]["says"].as_str().unwrap().starts_with("due"), "{looks:?}");
    assert_eq!((&looks[0]["is_due"], &looks[2]["last_at"]), (&json!(true), &Value::Null));
    sheet["inspections"].as_array_mut().unwrap().push(json!({ "code": "cracks", "at": "soon", "runs": -1 }));
    let (status, problem) = shop.post("/jobs/3/road", sheet.clone()).await;
    assert_eq!((status, pointers(&problem)), (422, vec!["/inspections/2/at", "/inspections/2/runs"]));
    sheet["inspections"] = json!([]);

    let steps = async |sheet: &Value| {
        let (status, next) = shop.post("/jobs/3/road/next-step", sheet.clone()).await;
        assert_eq!(status, 200, "{next}");
        next["steps"]
            .as_array()
            .unwrap()
            .iter()
            .map(|one| one.as_str().unwrap().to_owned())
            .collect::<Vec<_>>()
    };
    let far = steps(&sheet).await;
    assert!(far[0].starts_with("Use up what is on the car: 8 runs"), "{far:?}");
    assert!(far[1].contains("cheapest") && far[1].contains("225/45R15"), "{far:?}");
    sheet["gap_s"] = json!(1.2);
    assert!(steps(&sheet).await[1].contains("stickiest"));
    sheet["season_runs"] = json!(7);
    assert_eq!(steps(&sheet).await.len(), 1, "they last the season out");
}
