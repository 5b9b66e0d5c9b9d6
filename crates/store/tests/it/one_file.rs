//! One program on one file, and one file that is itself: what a start finds, what it says, and that its advice loses nothing.

use std::fs::{self, OpenOptions};
use std::os::unix::fs::FileExt;
use std::path::{Path, PathBuf};

use store::identity::{self, ShopIds, Standing, Tag, shop_ids};
use store::jobs::{self, JobContent, Page};
use store::{Connection, Store, StoreError, catalogue, clubs, house};

use crate::jobs_and_house::{content, now, reading, shop};
use crate::keeping::as_a_kill_leaves_it;

fn log_of(path: &Path) -> PathBuf {
    format!("{}-wal", path.display()).into()
}

async fn ids(store: &Store) -> ShopIds {
    store.read(shop_ids).await.unwrap()
}

async fn add(store: &Store, car: &'static str) -> jobs::Job {
    store.write(move |tx| jobs::create(tx, &content(car), "mk", now())).await.unwrap()
}

async fn cars(store: &Store) -> Vec<String> {
    let page = Page { find: String::new(), put_away: false, from: 0, most: 100 };
    let (_, jobs) = store.read(move |c| jobs::list(c, &page)).await.unwrap();
    let mut cars: Vec<String> = jobs.into_iter().map(|job| job.car_label).collect();
    cars.sort();
    cars
}

#[tokio::test]
async fn a_job_of_one_number_in_two_files_is_two_jobs() {
    let (one, other) = (shop(), shop());
    let (a, b) = (add(&one.store, "ours").await, add(&other.store, "theirs").await);
    assert_eq!((a.id, a.revision), (b.id, b.revision), "the numbers say nothing");
    assert_ne!(a.uid, b.uid);
    let theirs = Tag { uid: b.uid, token: b.token };
    let refused = one.store.read(move |c| identity::expect(c, 1, Some(&[theirs]))).await;
    let Err(StoreError::OtherRevision { now, current: None }) = refused else { panic!("{refused:?}") };
    assert_eq!(now, Tag { uid: a.uid.clone(), token: a.token.clone() });
    // Of the same job: as it is, as it was, and as it never was here.
    let was = Tag { uid: a.uid.clone(), token: a.token.clone() };
    let changed = one.put(&a, 1, "quiet").await.unwrap();
    assert_eq!(changed.uid, a.uid);
    let is = Tag { uid: a.uid.clone(), token: changed.token };
    let never = Tag { uid: a.uid.clone(), token: "ffff".to_owned() };
    for (tag, wanted) in [(&was, Standing::Earlier), (&is, Standing::Present), (&never, Standing::Foreign)] {
        let tag = tag.clone();
        assert_eq!(one.store.read(move |c| identity::standing(c, 1, &tag)).await.unwrap(), wanted);
    }
    let refused = one.store.read(move |c| identity::expect(c, 1, Some(&[was]))).await;
    assert!(matches!(refused, Err(StoreError::OtherRevision { current: Some(_), .. })), "{refused:?}");
    let either = [never, is];
    one.store.read(move |c| identity::expect(c, 1, Some(&either))).await.unwrap();
}

#[tokio::test]
async fn readings_keep_their_uid_when_they_are_taken_away_and_come_back() {
    let shop = shop();
    let job = shop.open_job("parts").await;
    let uid = job.parts.of_reading("a1").to_owned();
    let trial = &job.content.workshop.trials[0].id;
    assert!(uid.len() == 36 && job.parts.of_trial(trial).len() == 36 && uid != job.parts.of_trial(trial));
    let id = job.id;
    let less = shop.store.write(move |tx| jobs::remove_reading(tx, id, "a1", "mk", now())).await.unwrap();
    let back = shop.store.write(move |tx| jobs::undo(tx, id, less.revision, "mk", now())).await.unwrap();
    assert_eq!(back.parts.of_reading("a1"), uid);
    let more = shop
        .store
        .write(move |tx| jobs::add_readings(tx, id, &[reading("other")], "mk", now()))
        .await
        .unwrap();
    assert!(![uid.as_str(), ""].contains(&more.parts.of_reading("other")));
}

#[tokio::test]
async fn undo_and_redo_walk_two_piles() {
    let shop = shop();
    let mut job = shop.open_job("piles").await;
    for wish in ["a", "b", "c", "d"] {
        job = shop.put(&job, job.revision, wish).await.unwrap();
    }
    // Each step, and the wish that it leads to: two back, one again, one back, two again, all back, anew, back and again.
    let steps = [
        ("undo", "c"),
        ("undo", "b"),
        ("redo", "c"),
        ("undo", "b"),
        ("undo", "a"),
        ("redo", "b"),
        ("redo", "c"),
        ("redo", "d"),
        ("undo", "c"),
        ("undo", "b"),
    ];
    let id = job.id;
    let mut at = job.revision;
    let step = |word: &str, at: i64| {
        let undoes = word == "undo";
        shop.store.write(move |tx| {
            if undoes { jobs::undo(tx, id, at, "mk", now()) } else { jobs::redo(tx, id, at, "mk", now()) }
        })
    };
    for (word, wish) in steps {
        job = step(word, at).await.unwrap();
        at = job.revision;
        assert_eq!(job.content.wish, wish, "{word} at {at}");
    }
    job = shop.put(&job, at, "x").await.unwrap();
    assert!(job.redoes.is_none(), "a new change forgets what was undone");
    job = step("undo", job.revision).await.unwrap();
    assert_eq!((job.content.wish.as_str(), job.redoes.as_deref()), ("b", Some("wish")));
    job = step("undo", job.revision).await.unwrap();
    assert_eq!(job.content.wish, "a");
    job = step("redo", job.revision).await.unwrap();
    job = step("redo", job.revision).await.unwrap();
    assert_eq!((job.content.wish.as_str(), job.redoes.is_none()), ("x", true));
}

#[tokio::test]
async fn a_file_stays_itself_over_stops_and_kills_and_is_another_when_put_back_or_copied() {
    let shop = shop();
    let path = shop.store.path().to_owned();
    let first = ids(&shop.store).await;
    add(&shop.store, "one").await;
    // Copied while it is open, with its log.
    let online = as_a_kill_leaves_it(&path);
    shop.store.close().unwrap();
    let backup = path.with_extension("backup");
    fs::copy(&path, &backup).unwrap();
    let again = Store::open(&path).unwrap();
    assert_eq!(ids(&again).await, first, "stopped and started");
    add(&again, "two").await;
    // A kill: nothing is closed, the log stays, and the system gives the lock back.
    let (file, log) = (fs::read(&path).unwrap(), fs::read(log_of(&path)).unwrap());
    again.close().unwrap();
    drop(again);
    let put = |bytes: &[u8]| {
        OpenOptions::new().write(true).truncate(true).open(&path).unwrap().write_all_at(bytes, 0)
    };
    for copy in [&backup, &online] {
        // Written over the file in its place: the inode says nothing.
        put(&fs::read(copy).unwrap()).unwrap();
        let other = Store::open(&path).unwrap();
        let now = ids(&other).await;
        assert_eq!(now.shop_id, first.shop_id);
        assert_ne!(now.file_id, first.file_id, "{}", copy.display());
        other.close().unwrap();
        let same = Store::open(&path).unwrap();
        assert_eq!(ids(&same).await, now, "once");
        same.close().unwrap();
    }
    put(&file).unwrap();
    fs::write(log_of(&path), log).unwrap();
    let later = Store::open(&path).unwrap();
    assert_eq!(cars(&later).await, ["one", "two"]);
    later.close().unwrap();
    let copy = path.with_extension("copy");
    fs::copy(&path, &copy).unwrap();
    let (file_id, copied) =
        (ids(&Store::open(&path).unwrap()).await, ids(&Store::open(&copy).unwrap()).await);
    assert!(file_id.shop_id == copied.shop_id && file_id.file_id != copied.file_id);
}

#[tokio::test]
async fn the_house_its_lists_and_its_clubs_have_states_of_their_file() {
    let (one, other) = (shop(), shop());
    async fn house_tag(store: &Store) -> Result<Tag, StoreError> {
        store.read(|c| Ok(house::get(c)?.tag)).await
    }
    async fn brought(store: &Store) -> Result<catalogue::PriceList, StoreError> {
        store.write(|tx| catalogue::bring(tx, "wheels", "Shore", "a.csv", b"a", now())).await
    }
    let theirs = house_tag(&other.store).await.unwrap();
    let refused = one.store.write(move |tx| house::expect(tx, Some(&[theirs]))).await;
    assert!(matches!(refused, Err(StoreError::OtherState { what: "house", .. })), "{refused:?}");
    let ours = house_tag(&one.store).await.unwrap();
    let (same, changed) =
        (ours.clone(), house::HouseContent { units: "imperial".into(), ..Default::default() });
    one.store
        .write(move |tx| {
            house::expect(tx, Some(&[same]))?;
            house::change(tx, 0, &changed)
        })
        .await
        .unwrap();
    assert_ne!(house_tag(&one.store).await.unwrap(), ours);
    let (a, b) = (brought(&one.store).await.unwrap(), brought(&other.store).await.unwrap());
    assert_eq!(a.id, b.id);
    let tag = b.tag();
    let refused = one.store.write(move |tx| catalogue::expect(tx, 1, Some(&[tag]))).await;
    assert!(matches!(refused, Err(StoreError::OtherState { what: "price list", .. })), "{refused:?}");
    let club_tag = one.store.read(clubs::tag).await.unwrap();
    let (was, then) = (club_tag.clone(), now());
    one.store.write(move |tx| clubs::put(tx, "Hill", "2026-01-01", "{}", "mk", then)).await.unwrap();
    let refused = one.store.write(move |tx| clubs::expect(tx, Some(&[was]))).await;
    assert!(matches!(refused, Err(StoreError::OtherState { what: "rule files", .. })), "{refused:?}");
}

#[tokio::test]
async fn a_second_start_is_told_who_holds_the_file_and_a_link_is_no_way_round() {
    let shop = shop();
    shop.store.serves_at("127.0.0.1:7117");
    let path = shop.store.path().to_owned();
    let link = shop.folder.path().join("link.sqlite");
    std::os::unix::fs::symlink(&path, &link).unwrap();
    for way in [&path, &link] {
        let refused = Store::open(way).unwrap_err();
        let text = refused.to_string();
        assert!(matches!(refused, StoreError::Held { .. }), "{text}");
        assert!(text.contains(&format!("process {}", std::process::id())), "{text}");
        assert!(text.contains("at http://127.0.0.1:7117"), "{text}");
    }
    add(&shop.store, "still ours").await;
    shop.store.close().unwrap();
    assert_eq!(cars(&Store::open(&link).unwrap()).await, ["still ours"]);
}

/// A backup tool reads while the program starts, works, is killed and starts again: nothing is refused and nothing lost.
#[tokio::test]
async fn a_reader_from_outside_harms_nothing_over_starts_and_kills() {
    let shop = shop();
    let mut path = shop.store.path().to_owned();
    add(&shop.store, "0").await;
    let mut store = shop.store.clone();
    let mut readers = Vec::new();
    for round in ["1", "2", "3", "4"] {
        let reader = Connection::open(&path).unwrap();
        reader.execute_batch("BEGIN; SELECT count(*) FROM job;").unwrap();
        readers.push(reader);
        add(&store, round).await;
        path = as_a_kill_leaves_it(&path);
        let reader = Connection::open(&path).unwrap();
        reader.execute_batch("BEGIN; SELECT count(*) FROM job;").unwrap();
        readers.push(reader);
        store = Store::open(&path).unwrap();
        assert!(
            store.notes().iter().all(|note| note.contains("did not stop cleanly")),
            "{:?}",
            store.notes()
        );
    }
    assert_eq!(cars(&store).await, ["0", "1", "2", "3", "4"]);
}

#[tokio::test]
async fn a_log_without_its_file_is_refused_and_kept_and_the_advice_loses_nothing() {
    for is_empty in [false, true] {
        let shop = shop();
        add(&shop.store, "kept").await;
        let path = as_a_kill_leaves_it(shop.store.path());
        let (file, log) = (fs::read(&path).unwrap(), fs::read(log_of(&path)).unwrap());
        if is_empty {
            fs::write(&path, b"").unwrap()
        } else {
            fs::remove_file(&path).unwrap()
        }
        let refused = Store::open(&path).unwrap_err();
        assert!(matches!(refused, StoreError::LogAlone { .. }), "{refused:?}");
        assert!(refused.to_string().contains("put the file back in its place"), "{refused}");
        assert_eq!(fs::read(log_of(&path)).unwrap(), log, "kept as it was");
        // As advised.
        fs::write(&path, &file).unwrap();
        let back = Store::open(&path).unwrap();
        assert_eq!(cars(&back).await, ["kept"]);
        back.close().unwrap();
        // Or the other: an empty shop, and the log is still somebody's.
        fs::remove_file(&path).unwrap();
        fs::write(log_of(&path), &log).unwrap();
        let aside = path.with_extension("aside");
        fs::rename(log_of(&path), &aside).unwrap();
        assert!(cars(&Store::open(&path).unwrap()).await.is_empty());
        fs::write(path.with_extension("whole"), &file).unwrap();
        fs::rename(&aside, log_of(&path.with_extension("whole"))).unwrap();
        assert_eq!(cars(&Store::open(&path.with_extension("whole")).unwrap()).await, ["kept"]);
    }
}

#[tokio::test]
async fn damage_in_place_is_noticed_at_the_next_change_which_is_refused() {
    type Harm = fn(&Path);
    let harms: [(&str, Harm); 5] = [
        ("the file is cut", |path| {
            let file = OpenOptions::new().write(true).open(path).unwrap();
            file.set_len(file.metadata().unwrap().len() / 2).unwrap();
        }),
        ("its head is written over", |path| scratch_at(path, 0)),
        ("its pages are written over", |path| {
            let pages = fs::metadata(path).unwrap().len() / 4096;
            (1..pages).for_each(|page| scratch_at(path, page * 4096));
        }),
        ("the log is cut", |path| {
            let log = OpenOptions::new().write(true).open(log_of(path)).unwrap();
            log.set_len(log.metadata().unwrap().len() / 2).unwrap();
        }),
        ("the log is written over", |path| scratch_at(&log_of(path), 5000)),
    ];
    for (what, harm) in harms {
        let shop = shop();
        let path = shop.store.path().to_owned();
        for car in ["a", "b", "c"] {
            add(&shop.store, car).await;
        }
        // What is looked at below is in the file as well as in the log.
        shop.store.compact().await.unwrap();
        add(&shop.store, "d").await;
        harm(&path);
        let log = fs::read(log_of(&path)).unwrap();
        for _ in 0..2 {
            let refused = shop.store.write(|tx| jobs::create(tx, &content("lost"), "mk", now())).await;
            assert!(matches!(refused, Err(StoreError::DamagedMeanwhile { .. })), "{what}: {refused:?}");
        }
        shop.store.close().unwrap();
        assert_eq!(fs::read(log_of(&path)).unwrap(), log, "{what}: the log is left as it is");
    }
}

fn scratch_at(path: &Path, at: u64) {
    OpenOptions::new().write(true).open(path).unwrap().write_all_at(&[0x5a; 64], at).unwrap();
}

#[tokio::test]
async fn a_sound_change_by_another_program_is_no_damage() {
    let shop = shop();
    let job = shop.open_job("by hand").await;
    let other = Connection::open(shop.store.path()).unwrap();
    other.execute("UPDATE job SET notes = 'by hand'", []).unwrap();
    drop(other);
    let changed = JobContent { wish: "on".to_owned(), notes: "by hand".into(), ..job.content.clone() };
    shop.store.write(move |tx| jobs::change(tx, 1, 1, &changed, "mk", now())).await.unwrap();
}

#[tokio::test]
async fn keys_are_remembered_by_their_count_whatever_the_clock_says() {
    let shop = shop();
    let asked = store::Once { key: "k".into(), request: "POST /jobs".into() };
    for at in ["2026-03-01T09:00:00Z", "2031-03-01T09:00:00Z", "1999-01-01T00:00:00Z"] {
        let asked = asked.clone();
        let at = at.parse().unwrap();
        let id = shop
            .store
            .write(move |tx| {
                store::once(tx, Some(&asked), at, || Ok(jobs::create(tx, &content("x"), "mk", at)?.id))
            })
            .await
            .unwrap();
        assert_eq!(id, 1);
        // Another key, so that old ones would be forgotten.
        let other = store::Once { key: format!("other {at}"), request: "x".into() };
        shop.store
            .write(move |tx| store::once(tx, Some(&other), at, || Ok::<_, StoreError>(0)))
            .await
            .unwrap();
    }
}
