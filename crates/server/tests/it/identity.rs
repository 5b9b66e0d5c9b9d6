//! Whose work is it: what was typed for one job, revision or file is nothing for another.

use reqwest::header::{ETAG, IF_MATCH};
use reqwest::{Method, Response};
use serde_json::{Value, json};

use crate::served::Served;

const FITTED: &str = "17x7.5 ET45 225/45R17";

async fn ask(shop: &Served, method: Method, path: &str, tag: Option<&str>, body: Value) -> Response {
    let mut request = shop.client.request(method, shop.url(path));
    if let Some(tag) = tag {
        request = request.header(IF_MATCH, tag);
    }
    if !body.is_null() {
        request = request.json(&body);
    }
    request.send().await.unwrap()
}

async fn tag_of(shop: &Served, path: &str) -> String {
    let response = shop.client.get(shop.url(path)).send().await.unwrap();
    response.headers()[ETAG].to_str().unwrap().to_owned()
}

fn changed(job: &Value, wish: &str) -> Value {
    let mut change = job.clone();
    change["based_on_revision"] = job["revision"].clone();
    change["wish"] = json!(wish);
    change
}

#[tokio::test]
async fn a_job_says_its_tag_and_a_change_for_another_is_refused_with_the_present_one() {
    let (shop, other) = (Served::start(None).await, Served::start(None).await);
    let (id, job) = shop.new_job(FITTED).await;
    let (same_id, theirs) = other.new_job(FITTED).await;
    assert_eq!((id, &job["revision"]), (same_id, &theirs["revision"]));
    assert_ne!(job["uid"], theirs["uid"]);
    let path = format!("/jobs/{id}");
    let (ours, foreign) = (tag_of(&shop, &path).await, tag_of(&other, &path).await);
    let put_together = format!("\"{}.{}\"", job["uid"].as_str().unwrap(), job["token"].as_str().unwrap());
    assert_eq!(ours, put_together);
    // Of another file, with the very revision that it names.
    let refused = ask(&shop, Method::PUT, &path, Some(&foreign), changed(&job, "theirs")).await;
    assert_eq!(
        (refused.status(), refused.headers()[ETAG].to_str().unwrap()),
        (412.try_into().unwrap(), ours.as_str())
    );
    assert_eq!(refused.headers()["content-type"], "application/problem+json");
    let problem: Value = refused.json().await.unwrap();
    assert_eq!((&problem["type"], &problem["current"]), (&json!("foreign"), &Value::Null), "{problem}");
    // As it is.
    let done = ask(&shop, Method::PUT, &path, Some(&ours), changed(&job, "ours")).await;
    assert_eq!(done.status(), 200);
    let next = done.headers()[ETAG].to_str().unwrap().to_owned();
    assert_ne!(next, ours);
    assert_eq!(tag_of(&shop, &path).await, next);
    // As it was, which its journal knows: what it is now comes with the refusal.
    let refused = ask(&shop, Method::PUT, &path, Some(&ours), changed(&job, "late")).await;
    assert_eq!(refused.status(), 412);
    let problem: Value = refused.json().await.unwrap();
    assert_eq!((&problem["type"], &problem["current"]["wish"]), (&json!("stale"), &json!("ours")));
    // Without a tag, as scripts go on.
    let (status, _) = shop.put(&path, changed(&job, "by number")).await;
    assert_eq!(status, 409);
    assert_eq!(shop.get(&path).await["wish"], "ours");
    // A number of the right size and a tag of the wrong one, and one among several.
    let mut right = changed(&shop.get(&path).await, "by number");
    assert_eq!(ask(&shop, Method::PUT, &path, Some("\"7\""), right.clone()).await.status(), 412);
    right["wish"] = json!("one of two");
    let two = format!("{foreign}, {next}");
    assert_eq!(ask(&shop, Method::PUT, &path, Some(&two), right).await.status(), 200);
}

#[tokio::test]
async fn every_change_of_a_job_looks_at_its_tag() {
    let (shop, other) = (Served::sample().await, Served::start(None).await);
    let (_, theirs) = other.new_job(FITTED).await;
    let foreign = format!("\"{}.{}\"", theirs["uid"].as_str().unwrap(), theirs["token"].as_str().unwrap());
    let before = shop.get("/jobs/1").await;
    let reading = json!({ "readings": [{ "id": "of-another", "axle": "front", "what": "strut", "value": 12, "unit": "mm",
        "instrument": "feeler" }] });
    let based = json!({ "based_on_revision": before["revision"] });
    for (method, path, body) in [
        (Method::PUT, "/jobs/1", changed(&before, "of another")),
        (Method::POST, "/jobs/1/undo", based.clone()),
        (Method::POST, "/jobs/1/redo", based.clone()),
        (Method::POST, "/jobs/1/candidates", based),
        (Method::POST, "/jobs/1/mend", Value::Null),
        (Method::POST, "/jobs/1/readings", reading),
        (Method::DELETE, "/jobs/1/readings/any", Value::Null),
        (Method::DELETE, "/jobs/1/photos/1", Value::Null),
        (Method::POST, "/jobs/1/readings/copy", json!({ "axle": "front", "from": "left" })),
    ] {
        let refused = ask(&shop, method.clone(), path, Some(&foreign), body).await;
        assert_eq!(refused.status(), 412, "{method} {path}");
    }
    let after = shop.get("/jobs/1").await;
    assert_eq!((&after["token"], &after["revision"]), (&before["token"], &before["revision"]));
}

#[tokio::test]
async fn readings_and_trials_have_uids_that_no_sender_draws() {
    let shop = Served::start(None).await;
    let (id, _) = shop.new_job(FITTED).await;
    let one = json!({ "id": "r1", "axle": "front", "what": "strut", "value": 12, "unit": "mm", "instrument": "feeler" });
    let (_, job) = shop.post(&format!("/jobs/{id}/readings"), json!({ "readings": [one.clone()] })).await;
    let uid = job["readings"][0]["uid"].clone();
    assert_eq!(uid.as_str().unwrap().len(), 36);
    let (other_id, _) = shop.new_job(FITTED).await;
    let (_, other) = shop.post(&format!("/jobs/{other_id}/readings"), json!({ "readings": [one] })).await;
    assert_ne!(other["readings"][0]["uid"], uid, "another reading, though its sender drew the same id");
    let mut change = changed(&job, "tried");
    change["trials"] = json!([{ "id": "t1", "uid": "mine", "axle": "front", "setup": "17x8 ET40", "contact": "none",
        "plus_minus_mm": 0.5, "steer": "straight" }]);
    let (status, job) = shop.put(&format!("/jobs/{id}"), change).await;
    assert_eq!(status, 200, "{job}");
    assert_eq!(job["trials"][0]["uid"].as_str().unwrap().len(), 36, "not what was sent");
}

#[tokio::test]
async fn house_lists_and_clubs_are_of_their_file() {
    let (shop, other) = (Served::sample().await, Served::sample().await);
    let house = shop.get("/house").await;
    assert!(house["shop_id"] != other.get("/house").await["shop_id"], "each demo is a shop of its own");
    assert_eq!(house["file_id"].as_str().unwrap().len(), 36);
    let change = |house: &Value| {
        json!({ "based_on_revision": house["revision"], "limits": house["limits"], "instruments": house["instruments"],
                "people": house["people"], "units": "imperial" })
    };
    let theirs = tag_of(&other, "/house").await;
    let refused = ask(&shop, Method::PUT, "/house", Some(&theirs), change(&house)).await;
    assert_eq!(refused.status(), 412);
    let ours = tag_of(&shop, "/house").await;
    assert_eq!(refused.headers()[ETAG].to_str().unwrap(), ours);
    assert_eq!(ask(&shop, Method::PUT, "/house", Some(&ours), change(&house)).await.status(), 200);
    assert_ne!(tag_of(&shop, "/house").await, ours);
    let clubs = tag_of(&other, "/clubs").await;
    let gone = ask(&shop, Method::DELETE, "/clubs?club=x&from=2026-01-01", Some(&clubs), Value::Null).await;
    assert_eq!(gone.status(), 412);
    let list = other.get("/catalogue/lists").await[0].clone();
    let list_path = format!("/catalogue/lists/{}", list["id"]);
    let theirs = tag_of(&other, &list_path).await;
    assert_eq!(theirs, format!("\"{}.{}\"", list["uid"].as_str().unwrap(), list["token"].as_str().unwrap()));
    let undone = ask(&shop, Method::POST, &format!("{list_path}/undo"), Some(&theirs), Value::Null).await;
    assert_eq!(undone.status(), 412);
    let undone = ask(&other, Method::POST, &format!("{list_path}/undo"), Some(&theirs), Value::Null).await;
    assert_eq!(undone.status(), 200);
}

/// A page that still shows another file changes nothing here, whatever it is that it changes.
#[tokio::test]
async fn a_page_of_another_file_is_told_so() {
    let shop = Served::sample().await;
    let file_id = shop.get("/house").await["file_id"].as_str().unwrap().to_owned();
    for (said, status) in [(Some(file_id.as_str()), 404), (Some("another"), 412), (None, 404)] {
        let mut request = shop.client.delete(shop.url("/proven/99999"));
        if let Some(said) = said {
            request = request.header("of-file", said);
        }
        let response = request.send().await.unwrap();
        assert_eq!(response.status(), status, "{said:?}");
        if status == 412 {
            assert_eq!(response.json::<Value>().await.unwrap()["type"], "other-file");
        }
    }
    let read = shop.client.get(shop.url("/jobs")).header("of-file", "another").send().await.unwrap();
    assert_eq!(read.status(), 200, "whoever only looks sees what is there");
}

#[tokio::test]
async fn a_page_asks_which_of_its_unsent_work_is_this_files() {
    let (shop, other) = (Served::start(None).await, Served::start(None).await);
    let (id, job) = shop.new_job(FITTED).await;
    let (_, theirs) = other.new_job(FITTED).await;
    let (_, later) = shop.put(&format!("/jobs/{id}"), changed(&job, "later")).await;
    let tag = |job: &Value, token: &str| json!({ "uid": job["uid"], "token": token });
    let asked = json!([
        tag(&later, later["token"].as_str().unwrap()),
        tag(&job, job["token"].as_str().unwrap()),
        tag(&job, "never"),
        tag(&theirs, theirs["token"].as_str().unwrap()),
    ]);
    let (status, said) = shop.post("/jobs/standing", asked).await;
    assert_eq!(status, 200, "{said}");
    let of = |job: Option<i64>, is_known: bool| json!({ "job": job, "is_known": is_known });
    assert_eq!(said, json!([of(Some(id), true), of(Some(id), true), of(Some(id), false), of(None, false)]));
}
