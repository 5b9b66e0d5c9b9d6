//! Jobs and the house: revisions, undo, crashes.

use crate::keeping::as_a_kill_leaves_it;
use fitment::car::corner::ToRead;
use fitment::car::corner::{CarSide, ReadingUnit, RecordedReading, Steer, Suspension};
use fitment::car::lever::Lever;
use fitment::car::limits::{Drive, HouseLimits};
use fitment::car::style::{Style, StyleTarget};
use fitment::car::{Alternative, Fact};
use fitment::{Axle, Length, SetupPair};
use jiff::Timestamp;
use store::house::{self, HouseContent, Person};
use store::jobs::{self, Candidate, JobContent, Stage};
use store::journal::{self, Kind};
use store::measurements::{KeptReading, Measurements};
use store::picked::{Picked, PickedRow};
use store::proven;
use store::workshop::{self, KeptTemplate, KeptTrial, WheelTemplate, Workshop};
use store::{Store, StoreError};

pub(crate) fn now() -> Timestamp {
    "2026-03-01T09:00:00Z".parse().unwrap()
}

pub(crate) fn pair(line: &str) -> SetupPair {
    fitment::setup::line::read(line).unwrap().setups.unwrap()
}

pub(crate) fn content(car: &str) -> JobContent {
    JobContent {
        car_label: car.to_owned(),
        wish: "flush".to_owned(),
        stage: Stage::Bench,
        drive: Some(Drive::All),
        notes: String::new(),
        fitted: pair("17x7.5 ET45 225/45R17 94W"),
        planned: pair("F: 18x8.5 ET35 245/40R18"),
        candidates: vec![Candidate {
            letter: 'A',
            note: "quiet".to_owned(),
            setups: pair("18x8 ET40 225/40R18"),
            levers: measurements().levers,
            picked: picked().rows,
        }],
        put_away: false,
        wishes: None,
        road: None,
        measurements: measurements(),
        picked: picked(),
        workshop: shop_floor(),
    }
}

fn shop_floor() -> Workshop {
    let template = KeptTemplate {
        id: "t1".to_owned(),
        axle: "front".to_owned(),
        part: "caliper".to_owned(),
        role: "fitted".to_owned(),
        name: "four-piston".to_owned(),
        source: "template".to_owned(),
        plus_minus_mm: 0.3,
        points: vec![[-40.0, 150.0], [10.5, 182.25]],
    };
    let trial = KeptTrial {
        id: "f1".to_owned(),
        axle: "rear".to_owned(),
        side: Some("left".to_owned()),
        setup: "17x8 ET40".to_owned(),
        contact: "barrel_knuckle".to_owned(),
        gap_mm: Some(-3.5),
        plus_minus_mm: 0.5,
        instrument: "feeler".to_owned(),
        steer: "straight".to_owned(),
        is_hanging: true,
        note: "turns half round".to_owned(),
        next_step: "18 in".to_owned(),
        photos: vec![3],
        who: "mk".to_owned(),
        at: "2026-03-01T09:00:00Z".to_owned(),
    };
    Workshop { templates: vec![template], trials: vec![trial] }
}

fn picked() -> Picked {
    let record = [("line".to_owned(), "Arc".to_owned()), ("size".to_owned(), "18x8.5 ET35".to_owned())];
    let row = PickedRow {
        kind: "wheels".to_owned(),
        row: 7,
        supplier: "Lakeshore".to_owned(),
        record: record.into(),
    };
    Picked { rows: vec![row], answered: ["oil".to_owned()].into() }
}

fn measurements() -> Measurements {
    let mut all = Measurements::default();
    all.car.note(Fact::Model, None, "Halvard Tinde").unwrap();
    all.car.note(Fact::Camber, Some(Axle::Rear), "-1.25").unwrap();
    all.car
        .alternatives
        .push(Alternative { name: "winter".to_owned(), setups: pair("16x6.5 ET45 205/55R16") });
    all.levers.rear.set(Lever::LipRolled, 5.0).unwrap();
    let within = Length::from_mm(2.0);
    all.wanted.1 = Some(StyleTarget { style: Style::Flush, within, is_show: true });
    all.readings.push(reading("a1"));
    all
}

pub(crate) fn reading(id: &str) -> KeptReading {
    KeptReading {
        id: id.to_owned(),
        taken: RecordedReading {
            axle: Axle::Rear,
            side: Some(CarSide::Left),
            what: ToRead::from_code("strut").unwrap(),
            value: 9.0,
            unit: ReadingUnit::Sixteenths,
            instrument: "steel_rule".to_owned(),
            plus_minus: Length::from_mm(1.0).unwrap(),
            on: Some("17x7.5 ET45 225/45R17".parse().unwrap()),
            stance: Suspension::Drooped,
            steer: Steer::LockRight,
            radius: Length::from_mm(291.5),
            face: Some(fitment::car::corner::Face::Shoulder),
            direction: None,
            clock: Some(3.5),
            is_copied: false,
        },
        who: "rs".to_owned(),
        at: now(),
    }
}

pub(crate) struct Shop {
    pub(crate) store: Store,
    pub(crate) folder: tempfile::TempDir,
}

pub(crate) fn shop() -> Shop {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("deep/er/jobs.sqlite")).unwrap();
    Shop { store, folder }
}

impl Shop {
    pub(crate) async fn open_job(&self, car: &str) -> jobs::Job {
        let content = content(car);
        self.store.write(move |tx| jobs::create(tx, &content, "mk", now())).await.unwrap()
    }

    pub(crate) async fn put(
        &self,
        job: &jobs::Job,
        based_on: i64,
        wish: &str,
    ) -> Result<jobs::Job, StoreError> {
        let content = JobContent { wish: wish.to_owned(), ..job.content.clone() };
        let id = job.id;
        self.store.write(move |tx| jobs::change(tx, id, based_on, &content, "ov", now())).await
    }
}

#[tokio::test]
async fn a_job_comes_back_as_it_was_put() {
    let shop = shop();
    let first = shop.open_job("Skerry hatch").await;
    let second = shop.open_job("Tern coupé").await;
    assert_eq!((first.number, second.number, first.revision), (1, 2, 1));
    assert_eq!(first.content, content("Skerry hatch"));
    let again = Store::open(&as_a_kill_leaves_it(shop.store.path())).unwrap();
    let id = first.id;
    assert_eq!(again.read(move |c| jobs::get(c, id)).await.unwrap(), first, "another opening sees the same");
    let missing = shop.store.read(|c| jobs::get(c, 99)).await;
    assert!(matches!(missing, Err(StoreError::NotFound { id: 99, .. })));
    assert!(shop.folder.path().join("deep/er").is_dir());
}

#[tokio::test]
async fn finding_looks_at_every_word_and_leaves_put_away_jobs_aside() {
    let shop = shop();
    shop.open_job("Skerry hatch").await;
    let coupe = shop.open_job("Tern Coupé").await;
    for (find, count) in
        [("", 2), ("tern", 1), ("COUPÉ flush", 1), ("245/40R18", 2), ("0002", 1), ("tern hatch", 0)]
    {
        let (total, found) = shop.store.read(move |c| jobs::list(c, &page(find, false))).await.unwrap();
        assert_eq!((total, found.len()), (count, count), "{find:?}");
    }
    let away = JobContent { put_away: true, ..coupe.content.clone() };
    shop.store.write(move |tx| jobs::change(tx, coupe.id, 1, &away, "mk", now())).await.unwrap();
    for put_away in [false, true] {
        let (total, listed) = shop.store.read(move |c| jobs::list(c, &page("", put_away))).await.unwrap();
        assert_eq!((total, listed[0].put_away), (1, put_away), "put away, not gone");
    }
}

fn page(find: &str, put_away: bool) -> jobs::Page {
    jobs::Page { find: find.to_owned(), put_away, from: 0, most: 100 }
}

#[tokio::test]
async fn a_stale_change_is_refused_with_the_job_as_it_is() {
    let shop = shop();
    let job = shop.open_job("Skerry hatch").await;
    let changed = shop.put(&job, 1, "quieter").await.unwrap();
    assert_eq!(changed.revision, 2);
    match shop.put(&job, 1, "louder").await {
        Err(StoreError::Stale { based_on: 1, current }) => assert_eq!(*current, changed),
        other => panic!("{other:?}"),
    }
    let same = shop.put(&changed, 2, "quieter").await.unwrap();
    assert_eq!(same.revision, 2, "no change is no revision");
}

#[tokio::test]
async fn undo_and_redo_walk_the_changes() {
    let shop = shop();
    let mut job = shop.open_job("Skerry hatch").await;
    assert!(job.undoes.is_none() && job.redoes.is_none());
    for wish in ["one", "two", "three"] {
        job = shop.put(&job, job.revision, wish).await.unwrap();
    }
    type Step = fn(&rusqlite::Connection, i64, i64, &str, Timestamp) -> Result<jobs::Job, StoreError>;
    let walk: [(Step, &str); 6] = [
        (jobs::undo, "two"),
        (jobs::undo, "one"),
        (jobs::redo, "two"),
        (jobs::undo, "one"),
        (jobs::undo, "flush"),
        (jobs::redo, "one"),
    ];
    for (at, (step, wish)) in walk.into_iter().enumerate() {
        let (id, revision) = (job.id, job.revision);
        job = shop.store.write(move |tx| step(tx, id, revision, "mk", now())).await.unwrap();
        assert_eq!(job.content.wish, wish, "step {at}");
    }
    let job = shop.put(&job, job.revision, "new way").await.unwrap();
    assert!(job.redoes.is_none(), "a new change forgets what was undone");
    let redone = shop.store.write(move |tx| jobs::redo(tx, job.id, job.revision, "mk", now())).await;
    assert!(matches!(redone, Err(StoreError::NothingTo("redo"))));
    let journal = shop.store.read(move |c| journal::list(c, job.id, 100)).await.unwrap();
    assert_eq!(journal.len(), 1 + 3 + 6 + 1);
    assert_eq!(
        (journal[0].kind, journal[0].who.as_str(), journal[0].what.as_str()),
        (Kind::Change, "ov", "wish")
    );
    assert_eq!(journal.last().unwrap().kind, Kind::Create);
}

#[tokio::test]
async fn a_panic_in_a_write_rolls_back_and_the_next_write_works() {
    let shop = shop();
    let job = shop.open_job("Skerry hatch").await;
    let id = job.id;
    let panicked = shop
        .store
        .write(move |tx| {
            tx.execute("UPDATE job SET wish = 'half done' WHERE id = ?1", [id])?;
            if id > 0 {
                panic!("on purpose");
            }
            Ok(())
        })
        .await;
    assert!(matches!(panicked, Err(StoreError::Panicked)));
    assert_eq!(shop.store.read(move |c| jobs::get(c, id)).await.unwrap().content.wish, "flush");
    assert_eq!(shop.put(&job, 1, "whole").await.unwrap().content.wish, "whole");
    for _ in 0..5 {
        let panicked: Result<(), _> = shop.store.read(|_| panic!("on purpose")).await;
        assert!(
            matches!(panicked, Err(StoreError::Panicked)),
            "readers come back, more often than there are any"
        );
    }
    assert!(shop.store.read(move |c| jobs::get(c, id)).await.is_ok());
}

#[tokio::test]
async fn of_many_writers_on_one_revision_exactly_one_wins() {
    let shop = shop();
    let job = shop.open_job("Skerry hatch").await;
    let tries = (0..12).map(|n| {
        let content = JobContent { wish: format!("tablet {n}"), ..job.content.clone() };
        let (store, id) = (shop.store.clone(), job.id);
        tokio::spawn(async move { store.write(move |tx| jobs::change(tx, id, 1, &content, "", now())).await })
    });
    let mut won = 0;
    for outcome in tries.collect::<Vec<_>>() {
        match outcome.await.unwrap() {
            Ok(_) => won += 1,
            Err(StoreError::Stale { .. }) => {}
            Err(other) => panic!("{other}"),
        }
    }
    assert_eq!(won, 1);
}

#[test]
fn a_file_that_is_no_database_is_refused_and_kept() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("letter.sqlite");
    std::fs::write(
        &path,
        "Dear customer, your wheels have arrived and are waiting at the counter. ".repeat(40),
    )
    .unwrap();
    assert!(matches!(Store::open(&path), Err(StoreError::NotOurs { .. })));
    assert!(std::fs::read_to_string(&path).unwrap().starts_with("Dear customer"));
}

#[tokio::test]
async fn the_journal_says_what_changed() {
    let shop = shop();
    let first = shop.open_job("Skerry hatch").await;
    let id = first.id;
    type Edit = fn(&mut JobContent);
    let edits: [(Edit, &str); 14] = [
        (|c| c.car_label = "Skerry hatch II".to_owned(), "car"),
        (|c| c.wish = "quiet".to_owned(), "wish"),
        (|c| c.stage = Stage::TrialFit, "stage"),
        (|c| c.drive = None, "drive"),
        (|c| c.notes = "call back".to_owned(), "notes"),
        (|c| c.fitted = pair("16x6.5 ET45 205/55R16"), "fitted setup"),
        (|c| c.planned.rear = c.planned.front, "planned rear"),
        (|c| c.planned = SetupPair::default(), "planned front, planned rear"),
        (|c| c.candidates.clear(), "candidates"),
        (|c| c.put_away = true, "put away"),
        (|c| c.measurements.car.note(Fact::KerbMass, None, "1480").unwrap(), "kerb mass"),
        (|c| c.measurements.car.note(Fact::Camber, Some(Axle::Rear), "-1.5").unwrap(), "camber, rear"),
        (|c| c.measurements.readings.truncate(0), "reading taken away: tire to strut, rear left"),
        (
            |c| {
                for (fact, value) in [
                    (Fact::TopSpeed, "180"),
                    (Fact::Thread, "M12x1.5"),
                    (Fact::BoltCircle, "5x100"),
                    (Fact::Torque, "120"),
                ] {
                    c.measurements.car.note(fact, None, value).unwrap();
                }
            },
            "4 facts of the car's record",
        ),
    ];
    let mut job = first;
    for (edit, what) in edits {
        let mut content = job.content.clone();
        edit(&mut content);
        let based_on = job.revision;
        job =
            shop.store.write(move |tx| jobs::change(tx, id, based_on, &content, "mk", now())).await.unwrap();
        let journal = shop.store.read(move |c| journal::list(c, id, 1)).await.unwrap();
        assert_eq!((journal[0].what.as_str(), journal[0].revision), (what, job.revision));
    }
    // All of it can be taken back, to the content the job was opened with.
    for _ in 0..14 {
        let based_on = job.revision;
        job = shop.store.write(move |tx| jobs::undo(tx, id, based_on, "mk", now())).await.unwrap();
    }
    assert_eq!(job.content, content("Skerry hatch"));
    assert!(job.undoes.is_none() && job.redoes.is_some());
}

#[tokio::test]
async fn readers_see_the_last_commit_while_a_write_is_under_way() {
    let shop = shop();
    let job = shop.open_job("Skerry hatch").await;
    let (id, store) = (job.id, shop.store.clone());
    let (began, has_begun) = std::sync::mpsc::channel();
    let (go_on, may_go_on) = std::sync::mpsc::channel::<()>();
    let writing = tokio::spawn(async move {
        store
            .write(move |tx| {
                tx.execute("UPDATE job SET wish = 'not yet' WHERE id = ?1", [id])?;
                began.send(()).unwrap();
                may_go_on.recv().unwrap();
                Ok(())
            })
            .await
    });
    tokio::task::spawn_blocking(move || has_begun.recv().unwrap()).await.unwrap();
    let seen = shop.store.read(move |c| jobs::get(c, id)).await.unwrap();
    assert_eq!(seen.content.wish, "flush");
    go_on.send(()).unwrap();
    writing.await.unwrap().unwrap();
    assert_eq!(shop.store.read(move |c| jobs::get(c, id)).await.unwrap().content.wish, "not yet");
}

#[tokio::test]
async fn a_row_this_program_never_writes_is_told_by_table_and_id() {
    for (sql, table) in [
        ("UPDATE job SET fitted_front = '18x99' WHERE id = ?1", "job"),
        ("UPDATE job SET stage = 'lunch' WHERE id = ?1", "job"),
        ("UPDATE job SET updated_at = 'noon' WHERE id = ?1", "job"),
        ("UPDATE candidate SET front = 'round' WHERE job_id = ?1", "candidate"),
    ] {
        let shop = shop();
        let id = shop.open_job("Skerry hatch").await.id;
        shop.store.write(move |tx| Ok(tx.execute(sql, [id])?)).await.unwrap();
        match shop.store.read(move |c| jobs::get(c, id)).await {
            Err(StoreError::Corrupt { table: found, id: row, .. }) => {
                assert_eq!((found, row), (table, id), "{sql}")
            }
            other => panic!("{sql}: {other:?}"),
        }
    }
}

#[tokio::test]
async fn what_the_bay_knows_is_kept_and_can_be_undone() {
    let shop = shop();
    let job = shop.open_job("Tinde").await;
    assert_eq!(job.content.measurements, measurements(), "every field comes back as it was");
    let id = job.id;
    let added =
        shop.store.write(move |tx| jobs::add_readings(tx, id, &[reading("b2")], "rs", now())).await.unwrap();
    assert_eq!((added.revision, added.content.measurements.readings.len()), (2, 2));
    // Sent twice, kept once: a tablet that got no answer sends again.
    let again =
        shop.store.write(move |tx| jobs::add_readings(tx, id, &[reading("b2")], "rs", now())).await.unwrap();
    assert_eq!((again.revision, again.content.measurements.readings.len()), (2, 2));
    let gone = shop.store.write(move |tx| jobs::remove_reading(tx, id, "a1", "rs", now())).await.unwrap();
    assert_eq!(gone.content.measurements.readings[0].id, "b2");
    let back = shop.store.write(move |tx| jobs::undo(tx, id, 3, "rs", now())).await.unwrap();
    assert_eq!(back.content, again.content);
    let entries = shop.store.read(move |c| journal::list(c, id, 9)).await.unwrap();
    assert_eq!(entries[1].what, "reading taken away: tire to strut, rear left");
}

#[tokio::test]
async fn the_shop_remembers_each_model_once() {
    let shop = shop();
    for label in ["the first", "the second"] {
        shop.open_job(label).await;
    }
    let find = |words: &'static str| shop.store.read(move |c| jobs::known_cars(c, words, 10));
    let found = find("tinde").await.unwrap();
    assert_eq!(found.len(), 1);
    assert_eq!(found[0].content.car_label, "the second", "the latest of the model");
    assert!(find("dotterel").await.unwrap().is_empty());
}

#[tokio::test]
async fn the_house_is_the_trades_until_it_is_changed() {
    let shop = shop();
    let first = shop.store.read(house::get).await.unwrap();
    assert_eq!((first.revision, &first.content), (0, &HouseContent::default()));
    let mut content = first.content.clone();
    content.limits.set("arch_mm", 40.0).unwrap();
    content.people.push(Person { initials: "mk".to_owned(), name: "Mikkel".to_owned() });
    content.instruments.pop();
    let wanted = content.clone();
    let changed = shop.store.write(move |tx| house::change(tx, 0, &content)).await.unwrap();
    assert_eq!((changed.revision, &changed.content), (1, &wanted));
    assert_eq!(shop.store.read(house::get).await.unwrap(), changed);
    let stale = shop.store.write(move |tx| house::change(tx, 0, &HouseContent::default())).await;
    assert!(matches!(stale, Err(StoreError::StaleHouse { based_on: 0, revision: 1 })));
    let back = HouseContent { limits: HouseLimits::DEFAULT, ..wanted };
    let back = shop.store.write(move |tx| house::change(tx, 1, &back)).await.unwrap();
    assert_eq!(back.content.limits, HouseLimits::DEFAULT);
}

#[tokio::test]
async fn photos_wheel_templates_and_proven_fits_are_kept() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("shop.sqlite");
    let store = Store::open(&file).unwrap();
    let at = || "2026-03-01T09:00:00Z".parse().unwrap();
    let job = store.write(move |tx| jobs::create(tx, &content("Tinde"), "mk", at())).await.unwrap();
    let id = job.id;
    let photo =
        store.write(move |tx| workshop::add_photo(tx, id, "image/png", b"bytes", at())).await.unwrap();
    let none = store.write(move |tx| workshop::add_photo(tx, 99, "image/png", b"bytes", at())).await;
    assert!(matches!(none, Err(StoreError::NotFound { what: "job", .. })));
    let wheel = |plus_minus_mm| WheelTemplate {
        line: "Arc".to_owned(),
        size: "18x8.5 ET35".to_owned(),
        source: "readings".to_owned(),
        plus_minus_mm,
        barrel: vec![[0.0, 200.0], [10.0, 201.0]],
        spoke_back: vec![[20.0, 200.0], [0.0, 80.0]],
    };
    let record: store::catalogue::Fields = [("model".to_owned(), "Tinde".to_owned())].into();
    let added = store
        .write(move |tx| {
            workshop::put_wheel_template(tx, &wheel(0.5), at())?;
            workshop::put_wheel_template(tx, &wheel(0.3), at())?;
            let from = proven::From::Import(proven::begin_import(tx, "fits.csv", at())?);
            let first = proven::add(tx, "tinde|18x8", &record, from, at())?;
            Ok((first, proven::add(tx, "tinde|18x8", &record, from, at())?))
        })
        .await
        .unwrap();
    assert_eq!(added, (true, false), "a fit that is there already is recognised");
    let again = Store::open(&as_a_kill_leaves_it(&file)).unwrap();
    let kept = again.read(move |c| workshop::photo(c, id, photo)).await.unwrap();
    assert_eq!(
        (kept.media_type.as_str(), kept.bytes.as_slice(), kept.is_clean),
        ("image/png", &b"bytes"[..], true)
    );
    let wheels = again.read(workshop::wheel_templates).await.unwrap();
    assert_eq!(wheels, [wheel(0.3)], "the later one of a size counts");
    let fits = again.read(proven::all).await.unwrap();
    assert_eq!((fits.len(), fits[0].record["model"].as_str()), (1, "Tinde"));
    let fit = fits[0].id;
    again.write(move |tx| proven::remove(tx, fit)).await.unwrap();
    assert!(again.write(move |tx| proven::remove(tx, fit)).await.is_err(), "once only");
}
