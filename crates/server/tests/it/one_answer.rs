//! What several screens say of one plan is one word: bench, compare (which the printed sheet shows as well), fit window
//! and finder, over the sample shop's jobs with plans drawn at random.

use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use serde_json::{Value, json};

use crate::served::Served;

const AXLES: [&str; 2] = ["front", "rear"];

/// A ledger without its workings: rule, axle, how it stands, word, and sentence.
fn words(ledger: &Value) -> Vec<Value> {
    let lines = ledger.as_array().unwrap().iter();
    lines
        .map(|line| {
            json!([line["code"], line["axle"], line["standing"], line["word"], line["figure"], line["says"]])
        })
        .collect()
}

/// A plan of the sizes that plus-sizing goes through.
fn drawn(rng: &mut StdRng) -> String {
    let sizes = [
        ("17x7.5", "225/45R17"),
        ("18x8", "225/40R18"),
        ("18x8.5", "245/40R18"),
        ("19x8.5", "235/35R19"),
        ("19x9.5", "265/30R19"),
    ];
    let (wheel, tire) = sizes[rng.random_range(0..sizes.len())];
    let spacer = ["", " 5mm spacer", " 12mm spacer"][rng.random_range(0..3)];
    format!("{wheel} ET{} {tire}{spacer}", rng.random_range(20..56))
}

#[tokio::test]
async fn the_bench_the_comparison_and_the_window_say_one_word() {
    let shop = Served::sample().await;
    let rng = &mut StdRng::seed_from_u64(20_261_126);
    let jobs = shop.get("/jobs").await;
    let ids: Vec<i64> = jobs.as_array().unwrap().iter().map(|job| job["id"].as_i64().unwrap()).collect();
    assert!(ids.len() >= 8);
    for id in ids {
        for _ in 0..3 {
            let planned = json!({ "front": drawn(rng), "rear": drawn(rng) });
            let job = shop.get(&format!("/jobs/{id}")).await;
            let mut change = job.clone();
            change["planned"] = planned.clone();
            change["based_on_revision"] = job["revision"].clone();
            let (status, job) = shop.put(&format!("/jobs/{id}"), change).await;
            assert_eq!(status, 200, "{job}");
            let ask =
                json!({ "job": id, "fitted": job["fitted"], "planned": planned, "drive": job["drive"] });
            let (status, bench) = shop.post("/bench", ask).await;
            assert_eq!(status, 200, "{bench}");
            let sides = shop.get(&format!("/jobs/{id}/side-by-side")).await;
            let column = &sides["bench"];
            assert_eq!(words(&bench["ledger"]), words(&column["ledger"]), "job {id}, {planned}");
            // In motion no word is better than standing still.
            let plans = json!({ "plans": [planned], "usage": { "envelope": "road" } });
            let (status, moving) = shop.post(&format!("/jobs/{id}/motion/stretches"), plans).await;
            assert_eq!(status, 200, "{moving}");
            let rank = |word: &Value| {
                let ranks = ["clears", "tight", "measure_first", "touches"];
                ranks.iter().position(|one| *word == *one).unwrap_or_else(|| panic!("{word} is no verdict"))
            };
            for axle in AXLES.into_iter().filter(|axle| !moving[0][axle].is_null()) {
                let standing = &bench["axles"][axle]["fit"]["verdict"];
                assert!(rank(&moving[0][axle]["verdict"]) >= rank(standing), "job {id} {axle}, {planned}");
            }
            for axle in AXLES {
                let (fit, of_column) = (&bench["axles"][axle]["fit"], &column["fit"][axle]);
                assert_eq!(fit["verdict"], of_column["verdict"], "job {id} {axle}, {planned}");
                assert_eq!(fit["style"], of_column["style"]);
                if fit.is_null() {
                    continue;
                }
                let tightest = &of_column["tightest"];
                let clearances = fit["clearances"].as_array().unwrap();
                assert!(tightest.is_null() || clearances.contains(tightest), "{tightest}");
                // The plan's own mark on the window.
                let marks = fit["marks"].as_array().unwrap();
                let own = marks.iter().find(|mark| mark["kind"] == "planned").unwrap();
                assert_eq!(own["verdict"], fit["verdict"], "job {id} {axle}, {planned}");
                // A window that rules the plan's width out stands over a plan that is stopped, and one that holds the
                // plan's offset open over one that is not.
                let width = own["rim_width_in"].as_f64().unwrap();
                let offset = own["offset_mm"].as_f64().unwrap();
                let windows = fit["window"].as_array().unwrap().iter();
                let mut of_width = windows.filter(|one| one["rim_width_in"].as_f64() == Some(width));
                let window = of_width.next().unwrap_or_else(|| panic!("{width} in is not on the window"));
                let bound = |name: &str| window[name].as_f64();
                let is_inside = bound("offset_min_mm").is_none_or(|least| offset > least + 0.01)
                    && bound("offset_max_mm").is_none_or(|most| offset < most - 0.01);
                if window["clears"] == true && is_inside {
                    assert!(
                        ["clears", "measure_first"].contains(&fit["verdict"].as_str().unwrap()),
                        "job {id} {axle}, {planned}: inside of {window}, and {fit:#}"
                    );
                }
            }
        }
    }
}

#[tokio::test]
async fn what_the_finder_says_of_a_setup_the_bench_says_once_it_is_planned() {
    let shop = Served::sample().await;
    for id in [1, 2, 4, 6] {
        let ask = json!({ "rim_min_in": 16, "rim_max_in": 19, "count": 4 });
        let (status, found) = shop.post(&format!("/jobs/{id}/finder"), ask).await;
        assert_eq!(status, 200, "{found}");
        assert_eq!(found["unreadable"], json!([]), "the sample's lists can be read");
        for setup in found["setups"].as_array().unwrap() {
            assert!(
                setup["ledger"].as_array().unwrap().iter().all(|line| line["standing"] != "stop"),
                "job {id}: {}",
                setup["lines"]
            );
            let job = shop.get(&format!("/jobs/{id}")).await;
            let mut change = job.clone();
            change["planned"] = setup["lines"].clone();
            change["picked"] = setup["picked"].clone();
            change["based_on_revision"] = job["revision"].clone();
            let (status, job) = shop.put(&format!("/jobs/{id}"), change).await;
            assert_eq!(status, 200, "{job}");
            // What it needs done to the car is set as well.
            let mut levers = json!({ "front": [], "rear": [] });
            for work in setup["work"].as_array().unwrap() {
                let axle = work["axle"].as_str().unwrap();
                let lever = json!({ "lever": work["lever"], "amount": work["amount"] });
                levers[axle].as_array_mut().unwrap().push(lever);
            }
            let ask = json!({
                "job": id, "fitted": job["fitted"], "planned": job["planned"], "drive": job["drive"],
                "levers": levers,
            });
            let (status, bench) = shop.post("/bench", ask).await;
            assert_eq!(status, 200, "{bench}");
            assert_eq!(words(&setup["ledger"]), words(&bench["ledger"]), "job {id}, {}", setup["lines"]);
            // Four wheels and four tires, or the owner's own.
            for kind in ["wheels", "tires"] {
                let of_kind = setup["parts"].as_array().unwrap().iter().filter(|part| part["kind"] == kind);
                assert_eq!(of_kind.map(|part| part["count"].as_u64().unwrap()).sum::<u64>(), 4);
            }
        }
    }
}

#[tokio::test]
async fn a_row_of_the_lists_that_can_no_longer_be_read_is_said() {
    let shop = Served::sample().await;
    shop.store
        .write(|tx| {
            tx.execute(
                "UPDATE catalogue_row SET record = '{\"size\":\"eighteen\"}'
                 WHERE id = (SELECT min(id) FROM catalogue_row WHERE kind = 'wheels')",
                [],
            )?;
            Ok::<_, store::StoreError>(())
        })
        .await
        .unwrap();
    let (status, found) = shop.post("/jobs/1/finder", json!({})).await;
    assert_eq!(status, 200);
    let said = found["unreadable"].as_array().unwrap();
    assert!(said.len() == 1 && said[0].as_str().unwrap().starts_with("1 row of "), "{said:?}");
}
