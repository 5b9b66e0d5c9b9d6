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
    // It takes it after it was read back: what it held just then says nothing of what it will hold.
    let (late, module, path) = shop(Settings { fault: Fault::TakesLate, ..factory() }).await;
    let (_, told) = late.post(&tell(&path), yes(&read(&late, &path).await, "proposed")).await;
    assert_eq!(told["told"]["outcome"], "unknown", "{told}");
    assert!(told["told"]["says"].as_str().unwrap().contains("still held 1927 mm just then"), "{told}");
    while module.now().stored_mm != 1907 {
        tokio::time::sleep(Duration::from_millis(20)).await;
    }
    assert_eq!(read(&late, &path).await["restore"]["to_mm"], 1927);
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

/// Whatever the file does while the module is told, the answer and the log say what became of the module.
#[tokio::test(flavor = "multi_thread")]
async fn what_was_told_is_said_and_logged_although_the_file_takes_no_note() {
    let (shop, module, path) = shop(factory()).await;
    let view = read(&shop, &path).await;
    // Somebody holds the file from the moment on that the row stands before the telling.
    let file = shop.store.path().to_owned();
    let job = path.trim_start_matches("/jobs/").trim_end_matches("/module").to_owned();
    let (held, is_held) = std::sync::mpsc::channel();
    let (go, may_go) = std::sync::mpsc::channel::<()>();
    let holder = std::thread::spawn(move || {
        let other = rusqlite::Connection::open(&file).unwrap();
        let count = || -> i64 {
            let sql = "SELECT count(*) FROM module_log WHERE job_id = ?1";
            other.query_row(sql, [&job], |row| row.get(0)).unwrap()
        };
        while count() == 0 {
            std::thread::yield_now();
        }
        // Its own end may be noted before: then there is nothing to hold any more, and the answer is as always.
        let took = other.execute_batch("BEGIN IMMEDIATE").is_ok();
        held.send(()).unwrap();
        may_go.recv().unwrap();
        if took {
            other.execute_batch("ROLLBACK").unwrap();
        }
    });
    let (status, told) = shop.post(&tell(&path), yes(&view, "proposed")).await;
    is_held.recv().unwrap();
    assert_eq!((status, told["told"]["outcome"].as_str()), (200, Some("confirmed")), "{told}");
    assert_eq!((module.now().stored_mm, &told["log"][0]["outcome"]), (1907, &json!("confirmed")));
    assert_eq!(shop.get(&path).await["log"][0]["outcome"], "confirmed", "also while it is not noted");
    go.send(()).unwrap();
    holder.join().unwrap();
    let id = path.trim_start_matches("/jobs/").trim_end_matches("/module").parse::<i64>().unwrap();
    loop {
        let log = shop.store.read(move |c| store::module_log::list(c, id)).await.unwrap();
        if log[0].outcome == "confirmed" {
            break;
        }
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
}

/// Who waits behind a slow one and gives up was not told, for certain.
#[tokio::test(flavor = "multi_thread")]
async fn a_telling_that_was_given_up_never_happens_and_one_that_happens_is_waited_for() {
    use store::Patience;
    let (shop, module, path) = shop(factory()).await;
    let view = read(&shop, &path).await;
    let job = path.trim_start_matches("/jobs/").trim_end_matches("/module").parse::<i64>().unwrap();
    let telling = store::module_log::Telling {
        vehicle: "LAKE-0417".to_owned(),
        was_mm: 1927,
        told_mm: 1907,
        is_restore: false,
    };
    // Given up before the row stood: the row is refused, and without it nobody is told.
    let patience = Patience::default();
    assert!(patience.give_up());
    let begin = |telling: store::module_log::Telling| {
        shop.store.write(move |tx| store::module_log::begin(tx, job, &telling, "rs", jiff::Timestamp::now()))
    };
    assert!(matches!(patience.with(begin(telling.clone())).await, Err(store::StoreError::GaveUp)));
    // Once it stands nobody gives up any more.
    let patience = Patience::default();
    patience.with(begin(telling)).await.unwrap();
    assert!(!patience.give_up());
    let (_, told) = shop.post(&tell(&path), yes(&view, "proposed")).await;
    assert_eq!((module.now().stored_mm, &told["told"]["outcome"]), (1907, &json!("confirmed")));
}
