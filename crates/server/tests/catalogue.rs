//! Price lists over the API: tried, taken, undone, exported; and the finder over what they make.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

mod served;

use reqwest::Client;
use serde_json::{Value, json};
use served::Served;

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
    // Its headings are not known: the rows name no size, and nothing is taken yet.
    let (status, tried) = bring(&shop, "wheels", "Shore", WHEELS).await;
    assert_eq!((status, &tried["new"], &tried["faulty"]), (200, &json!(0), &json!(3)));
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
    assert_eq!(faults, [(4, "size"), (4, "price")]);
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
        assert!(!setup["parts"].as_array().unwrap().is_empty());
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
