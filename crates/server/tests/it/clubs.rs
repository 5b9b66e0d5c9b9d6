//! Clubs' rule files: kept by day, put in place of those that ship, taken out, and what a job hears of them.

use crate::served::Served;
use reqwest::Method;
use serde_json::{Value, json};

const VENN: &str = "Vennmere Hill Climb Club";

fn rules(from: &str, most: f64) -> Value {
    json!({ "club": VENN, "from": from, "classes": [{ "name": "Road tires, stock bodies", "clauses": [
        { "clause": "width_change_in", "most": most }, { "clause": "no_sleeping_bag", "least": 3.0 } ] }] })
}

fn of(list: &Value, from: &str) -> Option<Value> {
    let all = list.as_array().unwrap();
    all.iter().find(|one| one["club"] == VENN && one["from"] == from).cloned()
}

#[tokio::test]
async fn kept_by_day_and_taken_out_again() {
    let shop = Served::start(None).await;
    let shipped = shop.get("/clubs").await;
    assert_eq!(of(&shipped, "2026-01-01").unwrap()["ships"], true);
    // In place of the one that ships, and one for a day to come.
    shop.put("/clubs?signed_by=rs", rules("2026-01-01", 1.5)).await;
    let (status, list) = shop.put("/clubs", rules("2999-01-01", 2.0)).await;
    assert_eq!(status, 200, "{list}");
    let (now, later) = (of(&list, "2026-01-01").unwrap(), of(&list, "2999-01-01").unwrap());
    assert_eq!((&now["counts"], &now["ships"], &now["who"]), (&json!(true), &json!(false), &json!("rs")));
    assert_eq!((&later["counts"], &later["classes"][0]["clauses"][1]["least"]), (&json!(false), &json!(3.0)));
    let file = shop.get("/clubs/file?club=Vennmere%20Hill%20Climb%20Club&from=2999-01-01").await;
    assert_eq!(file, rules("2999-01-01", 2.0), "handed on as it was brought");
    let out = "/clubs?club=Vennmere%20Hill%20Climb%20Club&from=2026-01-01";
    let (status, list) = shop.ask(Method::DELETE, out, None).await;
    assert_eq!(
        (status, &of(&list, "2026-01-01").unwrap()["ships"]),
        (200, &json!(true)),
        "the shipped one is back"
    );
    assert_eq!(shop.ask(Method::DELETE, out, None).await.0, 404);
    assert!(shop.get("/clubs/schema").await["$defs"]["clause"].is_object());
}

#[tokio::test]
async fn what_is_no_rule_file_is_refused_at_its_place() {
    let shop = Served::start(None).await;
    let mut wrong = rules("soon", -1.0);
    wrong["classes"][0]["name"] = json!(" ");
    let second = json!({ "name": "B", "clauses": [{ "clause": "treadwear" }, { "clause": "tire_list" },
        { "clause": "wheel_material", "any_of": ["cheese"] }] });
    wrong["classes"].as_array_mut().unwrap().push(second);
    let (status, problem) = shop.put("/clubs", wrong).await;
    let pointers: Vec<&str> =
        problem["errors"].as_array().unwrap().iter().map(|one| one["pointer"].as_str().unwrap()).collect();
    assert_eq!(status, 422);
    assert_eq!(
        pointers,
        [
            "/classes/0/name",
            "/from",
            "/classes/0/clauses/0/most",
            "/classes/1/clauses/0/least",
            "/classes/1/clauses/1/any_of",
            "/classes/1/clauses/2/any_of/0"
        ]
    );
    assert_eq!(shop.get("/clubs").await.as_array().unwrap().len(), 2);
}

#[tokio::test]
async fn a_damaged_row_is_shown_and_no_class_comes_of_it() {
    let shop = Served::start(None).await;
    let now = "2026-03-01T00:00:00Z".parse().unwrap();
    let put =
        move |tx: &store::Connection| store::clubs::put(tx, VENN, "2026-02-01", "{\"club\":1", "rs", now);
    shop.store.write(move |tx| put(tx)).await.unwrap();
    let list = shop.get("/clubs").await;
    let damaged = of(&list, "2026-02-01").unwrap();
    assert!(damaged["damaged"].is_string() && damaged["classes"] == json!([]), "{damaged}");
}

#[tokio::test]
async fn a_job_hears_that_the_rules_of_its_class_were_changed() {
    let shop = Served::sample().await;
    let sheet = shop.get("/jobs/3").await["road"].clone();
    let news = async || shop.post("/jobs/3/road", sheet.clone()).await.1["class"]["news"].clone();
    assert_eq!(news().await, Value::Null);
    shop.put("/clubs", rules("2026-01-01", 1.5)).await;
    assert!(news().await.as_str().unwrap().contains("changed here"));
    shop.put("/clubs", rules("2026-02-01", 1.5)).await;
    assert!(news().await.as_str().unwrap().contains("from 2026-02-01"));
}
