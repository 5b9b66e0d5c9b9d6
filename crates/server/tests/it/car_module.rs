//! The car's module: told and read back, and every fault it can play.

use std::time::Duration;

use crate::served::Served;
use serde_json::{Value, json};
use server::car_module::LineModule;
use standins::module::{Fault, Module, Settings};
use tokio::net::TcpListener;

/// A shop with a module in the bay, and a job of 215/45R17 on a reference of 205/55R16: 631.9 to 625.3 mm. The module
/// counts by the circumference: 3.05 × 631.9 = 1 927.
async fn shop(settings: Settings) -> (Served, Module, String) {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    let module = Module::run(listener, settings);
    // The patience decides only how soon the silent one is given up.
    let served = Served::sample_with(|shop| {
        shop.with_module(LineModule::at(address).waiting(Duration::from_millis(400)))
    })
    .await;
    let (id, job) = served.new_job("16x6.5 ET45 · 205/55R16 91V").await;
    let mut change = job.clone();
    change["based_on_revision"] = job["revision"].clone();
    change["planned"] = json!({ "front": "17x7 ET45 · 215/45R17 91W", "rear": "17x7 ET45 · 215/45R17 91W" });
    let (status, said) = served.put(&format!("/jobs/{id}"), change).await;
    assert_eq!(status, 200, "{said}");
    (served, module, format!("/jobs/{id}/module"))
}

fn factory() -> Settings {
    Settings { stored_mm: 1927, factory_mm: 1927, ..Settings::default() }
}

/// What the page asks after the person said yes to what was read.
fn yes(view: &Value, what: &str) -> Value {
    json!({ "vehicle": view["state"]["vehicle"], "was_mm": view[what]["was_mm"], "to_mm": view[what]["to_mm"],
            "restore": what == "restore", "signed_by": "rs" })
}

async fn read(shop: &Served, path: &str) -> Value {
    let (status, view) = shop.post(&format!("{path}/read"), Value::Null).await;
    assert_eq!(status, 200, "{view}");
    view
}

fn tell(path: &str) -> String {
    format!("{path}/tell")
}

#[tokio::test]
async fn told_read_back_logged_and_restored() {
    let (shop, module, path) = shop(factory()).await;
    let view = read(&shop, &path).await;
    assert_eq!((&view["state"]["stored_mm"], &view["restore"]), (&json!(1927), &Value::Null));
    // 1 927 × (17 · 25.4 + 2 · 215 · 0.45) / (16 · 25.4 + 2 · 205 · 0.55) = 1 906.9
    assert_eq!((&view["proposed"]["to_mm"], &view["proposed"]["blocked"]), (&json!(1907), &json!([])));
    assert_eq!(module.now().stored_mm, 1927, "reading tells nothing");
    let (status, told) = shop.post(&tell(&path), yes(&view, "proposed")).await;
    assert_eq!((status, &told["told"]["outcome"]), (200, &json!("confirmed")), "{told}");
    assert_eq!(module.now(), Settings { stored_mm: 1907, ..factory() }, "and nothing else");
    assert_eq!(told["log"][0]["who"], "rs");
    assert!((told["state"]["believed_diameter_mm"].as_f64().unwrap() - 625.3).abs() < 0.2);
    // The same yes once more is of a module that was.
    let (status, _) = shop.post(&tell(&path), yes(&view, "proposed")).await;
    assert_eq!(status, 422);
    let (status, back) = shop.post(&tell(&path), yes(&told, "restore")).await;
    assert_eq!(
        (status, &back["told"]["outcome"], &back["told"]["is_restore"]),
        (200, &json!("confirmed"), &json!(true))
    );
    assert_eq!((module.now().stored_mm, &back["restore"]), (1927, &Value::Null));
    assert_eq!(back["log"].as_array().unwrap().len(), 2);
}

#[tokio::test]
async fn every_fault_ends_in_what_is_true() {
    for (fault, outcome, holds, restore) in [
        (Fault::CutBefore, "unchanged", 1927, None),
        // The line was cut, the read-back knows.
        (Fault::CutAfter, "confirmed", 1907, Some(1927)),
        (Fault::ReadsBackWrong, "differs", 1914, Some(1927)),
        (Fault::KeepsOld, "unchanged", 1927, None),
        (Fault::ChangesMore, "beside", 1907, Some(1927)),
        (Fault::Refuses, "refused", 1927, None),
    ] {
        let (shop, module, path) = shop(Settings { fault, ..factory() }).await;
        let view = read(&shop, &path).await;
        let (status, told) = shop.post(&tell(&path), yes(&view, "proposed")).await;
        assert_eq!((status, told["told"]["outcome"].as_str()), (200, Some(outcome)), "{fault:?}: {told}");
        assert_eq!(
            (module.now().stored_mm, &told["log"][0]["outcome"]),
            (holds, &json!(outcome)),
            "{fault:?}"
        );
        assert_eq!(told["restore"]["to_mm"].as_u64(), restore, "{fault:?}");
    }
    // Away from the moment it was told: nobody knows, until it is read again.
    let (one, module, path) = shop(Settings { fault: Fault::FallsSilent, ..factory() }).await;
    let (_, told) = one.post(&tell(&path), yes(&read(&one, &path).await, "proposed")).await;
    assert_eq!((&told["told"]["outcome"], &told["state"]), (&json!("unknown"), &Value::Null), "{told}");
    module.set(|one| one.fault = Fault::None);
    let again = read(&one, &path).await;
    assert_eq!(
        (&again["state"]["stored_mm"], &again["restore"]["to_mm"]),
        (&json!(1907), &json!(1927)),
        "{again}"
    );

    let (shop, module, path) = shop(factory()).await;
    let view = read(&shop, &path).await;
    module.set(|one| one.fault = Fault::Silent);
    let (status, said) = shop.post(&tell(&path), yes(&view, "proposed")).await;
    assert_eq!(status, 422, "not even read: {said}");
    assert!(said["detail"].as_str().unwrap().contains("nothing was told"), "{said}");
    assert_eq!(shop.get(&path).await["log"], json!([]), "what was not told is not logged");
}

#[tokio::test]
async fn a_module_that_is_away_or_lies_is_not_read() {
    for (fault, says) in [
        (Fault::Silent, "did not answer"),
        (Fault::Endless, "does not end"),
        (Fault::Stranger, "no module of version 1"),
        (Fault::Nonsense, "cannot be"),
    ] {
        let (shop, _module, path) = shop(Settings { fault, ..factory() }).await;
        let view = read(&shop, &path).await;
        assert!(view["why_not"].as_str().unwrap_or_default().contains(says), "{fault:?}: {view}");
        assert_eq!((&view["state"], &view["proposed"]), (&Value::Null, &Value::Null), "{fault:?}");
    }
    let (shop, module, path) = shop(factory()).await;
    drop(module);
    let view = read(&shop, &path).await;
    assert!(view["why_not"].is_string() && view["is_there"] == true, "{view}");
    let without = Served::sample().await;
    assert_eq!(without.get("/jobs/1/module").await["is_there"], false);
    assert_eq!(
        without.post("/jobs/1/module/tell", json!({ "vehicle": "X", "was_mm": 1, "to_mm": 2 })).await.0,
        422
    );
}

#[tokio::test]
async fn what_stands_against_it_is_said_when_read_and_holds_when_told() {
    type Change = fn(&mut Settings);
    for (change, says) in [
        ((|one| one.engine_runs = true) as Change, "engine runs"),
        (|one| one.battery_v = 11.4, "11.4 V"),
        // It left the factory with another tire than the reference.
        (|one| one.factory_mm = 1600, "reference tire"),
    ] {
        let mut settings = factory();
        change(&mut settings);
        let (shop, module, path) = shop(settings.clone()).await;
        let view = read(&shop, &path).await;
        let blocked = view["proposed"]["blocked"].as_array().unwrap();
        assert!(blocked.iter().any(|one| one.as_str().unwrap().contains(says)), "{says}: {view}");
        let (status, said) = shop.post(&tell(&path), yes(&view, "proposed")).await;
        assert_eq!((status, module.now()), (422, settings), "{said}");
    }
    // Another car in the bay than the one that was told first.
    let (shop, module, path) = shop(factory()).await;
    let view = read(&shop, &path).await;
    shop.post(&tell(&path), yes(&view, "proposed")).await;
    module.set(|one| (one.vehicle, one.stored_mm) = ("OTHER-1".to_owned(), 1927));
    let other = read(&shop, &path).await;
    assert!(other["proposed"]["blocked"][0].as_str().unwrap().contains("LAKE-0417"), "{other}");
    // Put back, the first is nobody's any more, and the job may be another car's.
    module.set(|one| (one.vehicle, one.stored_mm) = ("LAKE-0417".to_owned(), 1907));
    let first = read(&shop, &path).await;
    assert_eq!(shop.post(&tell(&path), yes(&first, "restore")).await.0, 200);
    module.set(|one| (one.vehicle, one.stored_mm) = ("OTHER-1".to_owned(), 1927));
    let other = read(&shop, &path).await;
    assert_eq!(other["proposed"]["blocked"], json!([]), "{other}");
    let mut wished = yes(&other, "proposed");
    wished["to_mm"] = json!(2000);
    assert_eq!(shop.post(&tell(&path), wished).await.0, 422, "only what the job asks for is told");
}
