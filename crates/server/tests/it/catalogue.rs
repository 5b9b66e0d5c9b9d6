//! Price lists over the API: tried, taken, undone, exported; and the finder over what they make.

use std::time::Duration;

use crate::served::Served;
use reqwest::Client;
use serde_json::{Value, json};
use server::supplier::HttpSupplier;
use standins::supplier::{Settings, Supplier};
use tokio::net::TcpListener;

const WHEELS: &str = "Artikel;Modell;Felge;Lochkreis;Bohrung;Preis;Stock
1;Cove;18x8.5 ET35;5x112;66.6;289,90;8
2;Cove;18x8.5 ET45;5x112;66.6;289,90;4
3;Cove;18x8x ET45;5x112;66.6;call;4
";

async fn bring(shop: &Served, kind: &str, supplier: &str, list: &str) -> (u16, Value) {
    let url = shop.url(&format!("/catalogue/lists?kind={kind}&supplier={supplier}&file_name=list.csv"));
    let request =
        Client::new().post(url).header("content-type", "application/octet-stream").body(list.to_owned());
    let response = request.send().await.unwrap();
    (response.status().as_u16(), response.json().await.unwrap())
}

fn mapping() -> Value {
    json!({ "article": "Artikel", "line": "Modell", "size": "Felge", "bolt_circle": "Lochkreis",
            "bore_mm": "Bohrung", "price": "Preis", "stock": "Stock" })
}

#[tokio::test]
async fn a_list_is_tried_taken_remembered_and_undone() {
    let shop = Served::start(None).await;
    // Its headings are not known: only the sizes are found by what they are, and nothing is taken yet.
    let (status, tried) = bring(&shop, "wheels", "Shore", WHEELS).await;
    assert_eq!((status, &tried["new"], &tried["faulty"]), (200, &json!(2), &json!(1)));
    let id = tried["list"]["id"].as_i64().unwrap();
    let mapped = json!({ "mapping": mapping() });
    let (_, tried) = shop.post(&format!("/catalogue/lists/{id}/try"), mapped.clone()).await;
    assert_eq!((&tried["new"], &tried["faulty"]), (&json!(2), &json!(1)));
    let faults: Vec<(i64, &str)> = tried["faults"]
        .as_array()
        .unwrap()
        .iter()
        .map(|fault| (fault["row"].as_i64().unwrap(), fault["field"].as_str().unwrap()))
        .collect();
    assert_eq!(faults, [(4, "size")]);
    assert_eq!(tried["sample"][0]["price"], "289.9");

    // All or nothing is nothing while a row is at fault.
    let mut strict = mapped.clone();
    strict["all_or_nothing"] = json!(true);
    assert_eq!(shop.post(&format!("/catalogue/lists/{id}/take"), strict).await.0, 422);
    assert_eq!(shop.get("/catalogue/rows?kind=wheels").await["total"], 0);
    let (_, taken) = shop.post(&format!("/catalogue/lists/{id}/take"), mapped).await;
    assert_eq!((&taken["new"], &taken["list"]["state"]), (&json!(2), &json!("taken")));
    assert_eq!(shop.post(&format!("/catalogue/lists/{id}/take"), json!({})).await.0, 409, "once only");

    // The next list of the supplier is read by what was remembered.
    let next = WHEELS.replace("289,90;8", "299,00;8").replace("18x8x", "18x8");
    let (_, tried) = bring(&shop, "wheels", "Shore", &next.replace(";call;", ";150;")).await;
    let counts = ["new", "changed", "unchanged", "faulty"].map(|name| tried[name].as_i64().unwrap());
    assert_eq!(counts, [1, 1, 1, 0]);
    let second = tried["list"]["id"].as_i64().unwrap();
    shop.post(&format!("/catalogue/lists/{second}/take"), json!({})).await;
    let found = shop.get("/catalogue/rows?kind=wheels&find=ET35").await;
    assert_eq!((&found["total"], &found["rows"][0]["fields"]["price"]), (&json!(1), &json!("299")));

    // Undone: the new row goes, the changed one says what it said; the first list stays as it was.
    let (_, undone) = shop.post(&format!("/catalogue/lists/{second}/undo"), json!({})).await;
    assert_eq!((&undone["back"], &undone["left"]), (&json!(2), &json!(0)));
    let rows = shop.get("/catalogue/rows?kind=wheels").await;
    assert_eq!((&rows["total"], &rows["rows"][0]["fields"]["price"]), (&json!(2), &json!("289.9")));
}

#[tokio::test]
async fn what_is_no_list_is_refused_and_keeps_nothing() {
    let shop = Served::start(None).await;
    let (status, problem) = bring(&shop, "wheels", "Shore", "PK\u{3}\u{4}broken").await;
    assert_eq!(status, 422, "{problem}");
    assert!(problem["errors"][0]["detail"].as_str().unwrap().contains("workbook"), "{problem}");
    assert_eq!(bring(&shop, "hats", "Shore", WHEELS).await.0, 422);
    assert_eq!(bring(&shop, "wheels", "", WHEELS).await.0, 422);
    assert_eq!(shop.get("/catalogue/lists").await, json!([]));
    assert_eq!(shop.post("/catalogue/lists/9/try", json!({})).await.0, 404);
}

#[tokio::test]
async fn the_catalogue_goes_out_in_three_formats_and_comes_back_the_same() {
    let shop = Served::start(None).await;
    let (_, tried) = bring(&shop, "wheels", "Shore", WHEELS).await;
    let id = tried["list"]["id"].as_i64().unwrap();
    shop.post(&format!("/catalogue/lists/{id}/take"), json!({ "mapping": mapping() })).await;
    for format in ["csv", "xlsx", "json"] {
        let url = shop.url(&format!("/catalogue/export?kind=wheels&format={format}"));
        let bytes = Client::new().get(url).send().await.unwrap().bytes().await.unwrap();
        let back = Client::new()
            .post(shop.url(&format!("/catalogue/lists?kind=wheels&supplier={format}&file_name=x.{format}")))
            .header("content-type", "application/octet-stream")
            .body(bytes)
            .send()
            .await
            .unwrap();
        let tried: Value = back.json().await.unwrap();
        assert_eq!((&tried["new"], &tried["faulty"]), (&json!(2), &json!(0)), "{format}: {tried}");
    }
}

#[tokio::test]
async fn the_finder_answers_with_setups_that_can_be_ordered() {
    let shop = Served::sample().await;
    let ask = json!({ "school": "wheel_first", "uses": ["daily"], "mixed_diameters": false, "count": 3 });
    let (status, found) = shop.post("/jobs/4/finder", ask).await;
    assert_eq!(status, 200, "{found}");
    let setups = found["setups"].as_array().unwrap();
    assert_eq!(setups.len(), 3, "{}", found["obstruction"]);
    for setup in setups {
        assert!(setup["price"].as_f64().unwrap() > 400.0 && setup["price_is_whole"] == true);
        let ledger = setup["ledger"].as_array().unwrap();
        let stops: Vec<&Value> = ledger.iter().filter(|line| line["standing"] == "stop").collect();
        assert!(stops.is_empty(), "{stops:?}");
        assert!(!setup["reasons"].as_array().unwrap().is_empty());
        assert!(setup["picked"].as_array().unwrap().iter().all(|row| row["record"]["size"].is_string()));
    }
    let scores: Vec<f64> = setups.iter().map(|setup| setup["score"].as_f64().unwrap()).collect();
    assert!(scores.windows(2).all(|two| two[0] >= two[1]), "{scores:?}");

    let (_, none) = shop.post("/jobs/4/finder", json!({ "budget": 5 })).await;
    assert_eq!((&none["setups"], &none["obstruction"]["code"]), (&json!([]), &json!("budget")));
    let (status, problem) = shop
        .post(
            "/jobs/4/finder",
            json!({ "uses": ["flying"], "weights": { "luck": 3, "price": 99 }, "count": 900 }),
        )
        .await;
    assert_eq!((status, problem["errors"].as_array().unwrap().len()), (422, 4), "{problem}");
}

/// Each sample job's first proposals carry everything that is needed to order them.
#[tokio::test]
async fn every_sample_job_gets_setups_that_make_sense() {
    let shop = Served::sample().await;
    for (job, wish) in [
        (1, json!({ "uses": ["drag"], "mixed_diameters": true, "arrangement": "staggered" })),
        (2, json!({ "uses": ["gravel"] })),
        (3, json!({ "uses": ["autocross"], "arrangement": "square", "season": "summer" })),
        (4, json!({ "uses": ["daily"], "season": "summer" })),
        (5, json!({ "uses": ["show"], "school": "wheel_first", "season": "summer" })),
        (6, json!({ "uses": ["daily"], "rim_min_in": 18, "season": "summer" })),
        (7, json!({ "uses": ["daily"], "season": "summer" })),
        (8, json!({ "uses": ["winter"], "season": "winter" })),
        (9, json!({ "uses": ["daily"], "season": "summer", "mixed_diameters": true })),
    ] {
        let (_, found) = shop.post(&format!("/jobs/{job}/finder"), wish).await;
        let setups = found["setups"].as_array().unwrap();
        assert!(!setups.is_empty(), "job {job}: {}", found["obstruction"]);
        for setup in setups.iter().take(3) {
            let ledger = setup["ledger"].as_array().unwrap();
            for line in ledger.iter().filter(|line| line["standing"] == "stop") {
                // The dial is the owner's to have set: it is said, not kept from them.
                assert_eq!(line["code"], "speedometer", "job {job}: {line}");
            }
            assert!(setup["price_is_whole"] == true, "job {job}");
            let needs = setup["needs"].as_array().unwrap();
            assert!(needs.iter().all(|need| need["kind"] != "stop"), "job {job}: {needs:?}");
            let mut reasons = setup["reasons"].as_array().unwrap().iter();
            assert!(reasons.all(|one| !one["says"].as_array().unwrap().is_empty()));
        }
    }
}

#[tokio::test]
async fn the_owners_own_wheels_stay_and_cost_nothing() {
    let shop = Served::sample().await;
    let ask = json!({ "keeps": "wheels", "season": "winter", "count": 2 });
    let (_, found) = shop.post("/jobs/4/finder", ask).await;
    let setup = &found["setups"][0];
    assert_eq!(setup["wheels"]["front"]["row"], Value::Null, "{found}");
    assert_eq!(setup["lines"]["front"].as_str().unwrap().split(" · ").next(), Some("18x8 ET34 5x120"));
    assert!(setup["picked"].as_array().unwrap().iter().all(|row| row["kind"] == "tires"));
    let tires = &setup["tires"];
    let paid = 2.0 * (tires["front"]["price"].as_f64().unwrap() + tires["rear"]["price"].as_f64().unwrap());
    assert!((setup["price"].as_f64().unwrap() - paid).abs() < 1e-9);
}

#[tokio::test]
async fn allowed_work_opens_more_and_each_setup_says_what_it_needs() {
    let shop = Served::sample().await;
    let find = |allowed: Value| {
        let mut ask = json!({ "rim_min_in": 19, "rim_max_in": 19, "count": 50, "season": "summer" });
        ask["allowed"] = allowed;
        ask
    };
    let none = json!({ "front": [], "rear": [] });
    let (_, as_it_is) = shop.post("/jobs/4/finder", find(none)).await;
    let pull = json!([{ "lever": "fender_pulled", "amount": 20 }]);
    let (_, with_work) = shop.post("/jobs/4/finder", find(json!({ "front": pull, "rear": pull }))).await;
    let count = |found: &Value| found["setups"].as_array().unwrap().len();
    assert!(count(&with_work) >= count(&as_it_is));
    let setups = with_work["setups"].as_array().unwrap();
    let amounts: Vec<f64> = setups
        .iter()
        .flat_map(|setup| setup["work"].as_array().unwrap())
        .map(|work| work["amount"].as_f64().unwrap())
        .collect();
    assert!(amounts.iter().any(|amount| *amount < 20.0), "no more than it needs: {amounts:?}");
    assert!(setups.iter().any(|setup| setup["work"].as_array().unwrap().is_empty()), "some need none");
}

#[tokio::test]
async fn a_job_keeps_the_rows_it_picked_and_the_ledger_knows_them() {
    let shop = Served::sample().await;
    let (_, found) = shop.post("/jobs/4/finder", json!({ "count": 1, "season": "summer" })).await;
    let setup = &found["setups"][0];
    let mut job = shop.get("/jobs/4").await;
    job["based_on_revision"] = job["revision"].clone();
    job["planned"] = setup["lines"].clone();
    job["picked"] = setup["picked"].clone();
    job["answered"] = json!(["oil", "wet"]);
    let (status, kept) = shop.put("/jobs/4", job.clone()).await;
    assert_eq!((status, &kept["picked"], &kept["answered"]), (200, &setup["picked"], &job["answered"]));
    let ask = json!({ "job": 4, "fitted": job["fitted"], "planned": job["planned"] });
    let (_, bench) = shop.post("/bench", ask).await;
    let ledger = bench["ledger"].as_array().unwrap();
    let line = |code: &str| ledger.iter().find(|line| line["code"] == code).unwrap();
    assert_eq!(line("wheel-load")["word"], "enough");
    assert!(line("wheel-load")["figure"]["value"].as_f64().unwrap() >= 565.0, "half of 1130 kg");

    job["based_on_revision"] = kept["revision"].clone();
    job["picked"] = json!([{ "kind": "wheels", "row": 1, "record": { "size": "no wheel" } }, { "kind": "hats", "row": 1, "record": {} }]);
    job["answered"] = json!(["luck"]);
    let (status, problem) = shop.put("/jobs/4", job).await;
    let pointers: Vec<&str> =
        problem["errors"].as_array().unwrap().iter().map(|one| one["pointer"].as_str().unwrap()).collect();
    assert_eq!((status, pointers), (422, vec!["/picked/0/record/size", "/picked/1/kind", "/answered/0"]));
}

async fn with_supplier(settings: Settings) -> (Served, Supplier) {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    let supplier = Supplier::run(listener, settings);
    (Served::sample_with(|shop| shop.with_supplier(HttpSupplier::at(address).unwrap())).await, supplier)
}

#[tokio::test]
async fn the_supplier_is_asked_and_what_it_said_stays_when_it_is_away() {
    let (shop, supplier) = with_supplier(Settings { delay: Duration::ZERO, ..Settings::default() }).await;
    let part = |kind: &str, row: u32| json!({ "kind": kind, "row": row, "count": 4 });
    let tires = shop.get("/catalogue/rows?kind=tires").await;
    let tire = tires["rows"][0]["id"].as_u64().unwrap() as u32;
    let first = json!({ "sets": [[part("wheels", 1), part("tires", tire)], [part("wheels", 2)]] });
    let (status, supply) = shop.post("/supply", first.clone()).await;
    assert_eq!((status, &supply["state"]), (200, &json!("answers")), "{supply}");
    let set = &supply["sets"][0];
    let parts = set["parts"].as_array().unwrap();
    let leads: Vec<Option<u64>> = parts.iter().map(|part| part["lead_days"].as_u64()).collect();
    let whole: Option<Vec<u64>> = leads.into_iter().collect();
    assert_eq!(set["lead_days"].as_u64(), whole.and_then(|leads| leads.into_iter().max()));
    let paid: f64 = parts.iter().map(|part| 4.0 * part["price"].as_f64().unwrap()).sum();
    assert!((set["price"].as_f64().unwrap() - paid).abs() < 1e-9);

    // Away: the same question gets what was heard, another one the list's price and no lead time.
    supplier.set(|settings| settings.fail_share = 1.0);
    let (_, same) = shop.post("/supply", first).await;
    assert_eq!((&same["state"], &same["sets"]), (&json!("answers"), &supply["sets"]), "still fresh");
    let (_, other) = shop.post("/supply", json!({ "sets": [[part("wheels", 3)]] })).await;
    assert_eq!(
        (&other["state"], &other["sets"][0]["parts"][0]["state"]),
        (&json!("away"), &json!("not_asked"))
    );
    assert!(
        other["why"].as_str().unwrap().contains("503") && other["sets"][0]["price"].as_f64().unwrap() > 0.0
    );
    assert_eq!(other["sets"][0]["lead_days"], Value::Null);
    let (status, _) = shop.post("/supply", json!({ "sets": [[part("wheels", 99_999)]] })).await;
    assert_eq!(status, 422);
}

#[tokio::test]
async fn a_slow_supplier_does_not_hold_up_the_shop() {
    let slow = Settings { delay: Duration::from_secs(60), ..Settings::default() };
    let (shop, _supplier) = with_supplier(slow).await;
    let part = json!({ "kind": "wheels", "row": 1, "count": 4 });
    let (_, supply) = shop.post("/supply", json!({ "sets": [[part]] })).await;
    assert_eq!(supply["state"], "away");
    assert!(supply["why"].as_str().unwrap().contains("3 seconds"), "{supply}");
    // Without any supplier the lists alone answer.
    let alone = Served::sample().await;
    let part = json!({ "kind": "wheels", "row": 1, "count": 4 });
    let (_, supply) = alone.post("/supply", json!({ "sets": [[part]] })).await;
    assert_eq!((&supply["state"], &supply["sets"][0]["price_is_whole"]), (&json!("none"), &json!(true)));
}

#[tokio::test]
async fn a_list_under_way_tells_how_far_it_is() {
    let shop = Served::start(None).await;
    assert_eq!(shop.get("/catalogue/progress/none").await, json!({ "what": "waiting", "done": 0, "of": 0 }));
    let mut list = String::from("article,line,size,price\n");
    for at in 0..20_000 {
        list.push_str(&format!("{at},Cove,18x8.5 ET{},200\n", at % 60));
    }
    let url = shop.url("/catalogue/lists?kind=wheels&supplier=Shore&file_name=x.csv&ticket=t1");
    let request = Client::new().post(url).header("content-type", "application/octet-stream").body(list);
    let sending = tokio::spawn(request.send());
    let mut seen = Vec::new();
    while !sending.is_finished() {
        let step = shop.get("/catalogue/progress/t1").await;
        seen.push((step["what"].as_str().unwrap().to_owned(), step["done"].as_u64().unwrap()));
    }
    let tried: Value = sending.await.unwrap().unwrap().json().await.unwrap();
    assert_eq!(tried["new"], 20_000);
    let reading: Vec<u64> =
        seen.iter().filter(|(what, _)| what == "reading").map(|(_, done)| *done).collect();
    assert!(reading.windows(2).all(|two| two[0] <= two[1]) && reading.len() > 1, "{seen:?}");
}

#[tokio::test]
async fn a_messy_list_is_read_as_it_comes() {
    let shop = Served::start(None).await;
    // Title rows above, semicolons, decimal commas, pounds, words for figures, bolt circle and bore in one cell.
    let list = "Lakeshore Wheels\n\nPrices of spring;;;;;;\nDesign;Finish;Size;PCD;Max load;Price;Stock\n\
        Arcus;silver;8.5J x 18 H2 ET35;5x112 66,6;1521 lbs;189,90;12\n\
        Arcus;black;8J x 18 ET45;5x112/66,6;690 kg;1.049,50;n. a.\n\
        Dune;sand;17x7.5 ET40;5x112;;POA;auf Anfrage\n";
    let (status, tried) = bring(&shop, "wheels", "Lake", list).await;
    assert_eq!(status, 200, "{tried}");
    assert_eq!((&tried["new"], &tried["faulty"], &tried["header_row"]), (&json!(3), &json!(0), &json!(4)));
    assert_eq!(tried["questions"], json!([]), "the list shows its decimal mark");
    let row = |at: usize, field: &str| tried["sample"][at][field].clone();
    // 1521 lb are 689.9 kg (1 lb = 0.45359237 kg by definition).
    assert_eq!((row(0, "load_kg"), row(1, "load_kg")), (json!("689.9"), json!("690")));
    assert_eq!((row(0, "bolt_circle"), row(0, "bore_mm")), (json!("5x112"), json!("66.6")));
    assert_eq!(
        (row(0, "price"), row(1, "price"), row(2, "price")),
        (json!("189.9"), json!("1049.5"), Value::Null)
    );
    assert!(tried["notes"].as_array().unwrap().iter().any(|note| note.as_str().unwrap().contains("row 4")));

    // A list without kinds, and a price that can mean two things: asked once, remembered with the supplier.
    let tires = "size;service;price\n225/45R17;94 W;1,234\n205/55R16;M+S 3PMSF 91H;1,105\n";
    let (_, tried) = bring(&shop, "tires", "Harbour", tires).await;
    let codes: Vec<&str> =
        tried["questions"].as_array().unwrap().iter().map(|one| one["code"].as_str().unwrap()).collect();
    assert_eq!(codes, ["@decimal_mark", "@kind"]);
    let id = tried["list"]["id"].as_i64().unwrap();
    let (status, problem) =
        shop.post(&format!("/catalogue/lists/{id}/take"), json!({ "mapping": tried["mapping"] })).await;
    assert_eq!((status, &problem["errors"][0]["pointer"]), (422, &json!("/mapping/@decimal_mark")));
    let mut mapping = tried["mapping"].clone();
    mapping["@decimal_mark"] = json!("point");
    mapping["@kind"] = json!("winter");
    let (status, taken) =
        shop.post(&format!("/catalogue/lists/{id}/take"), json!({ "mapping": mapping })).await;
    assert_eq!((status, &taken["new"]), (200, &json!(2)), "{taken}");
    let rows = shop.get("/catalogue/rows?kind=tires").await;
    let fields = &rows["rows"][0]["fields"];
    assert_eq!(fields["kind"], "winter");
    assert!(["1234", "1105"].contains(&fields["price"].as_str().unwrap()), "{fields}");
    // The supplier's next list is not asked again.
    let (_, next) = bring(&shop, "tires", "Harbour", "size;service;price\n195/65R15;91 H;1,089\n").await;
    assert_eq!((&next["questions"], &next["sample"][0]["price"]), (&json!([]), &json!("1089")));

    // Headings in another language: sizes are found by what they are, the heading by hand.
    let odd = "Preisliste;;\nGröße;Preis;Lager\n225/45R17 94W;89,90;4\n205/55R16 91H;79,90;8\n";
    let (_, tried) = bring(&shop, "tires", "Dorf", odd).await;
    let id = tried["list"]["id"].as_i64().unwrap();
    let said = json!({ "mapping": { "@header_row": "2" } });
    let (status, tried) = shop.post(&format!("/catalogue/lists/{id}/try"), said).await;
    assert_eq!((status, &tried["new"], &tried["header"][0]), (200, &json!(2), &json!("Größe")), "{tried}");
}
