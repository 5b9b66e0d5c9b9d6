//! What must hold whatever happens to the file, the program or the one who waits.

use std::os::unix::fs::PermissionsExt;
use std::path::Path;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, RwLock, mpsc};

use fitment::{Setup, SetupPair};
use store::jobs::{self, JobContent, Page};
use store::workshop::{self, KeptTrial};
use store::{Connection, Once, Opening, Patience, Store, StoreError, once, proven, storage};

use crate::jobs_and_house::{content, now, pair, reading, shop};

async fn labels(store: &Store) -> Vec<String> {
    let page = Page { find: String::new(), put_away: false, from: 0, most: 1000 };
    let (_, jobs) = store.read(move |c| jobs::list(c, &page)).await.unwrap();
    jobs.into_iter().map(|job| job.car_label).collect()
}

async fn open_job(store: &Store, car: &'static str) -> i64 {
    store.write(move |tx| Ok(jobs::create(tx, &content(car), "mk", now())?.id)).await.unwrap()
}

/// A copy of file and log while they are open: what a kill at this moment would leave.
pub(crate) fn as_a_kill_leaves_it(path: &Path) -> std::path::PathBuf {
    let copy = std::path::PathBuf::from(format!("{}.killed", path.display()));
    for ending in ["", "-wal"] {
        std::fs::copy(beside(path, ending), beside(&copy, ending)).unwrap();
    }
    copy
}

fn beside(path: &Path, ending: &str) -> std::path::PathBuf {
    format!("{}{ending}", path.display()).into()
}

#[tokio::test]
async fn after_a_clean_stop_the_file_alone_is_whole() {
    let shop = shop();
    let path = shop.store.path().to_owned();
    for car in ["one", "two", "three"] {
        open_job(&shop.store, car).await;
    }
    assert_eq!(labels(&shop.store).await.len(), 3, "a reader was used as well");
    shop.store.close().unwrap();
    assert!(matches!(shop.store.read(|c| jobs::get(c, 1)).await, Err(StoreError::Closed)));
    assert!(matches!(shop.store.write(|_| Ok(())).await, Err(StoreError::Closed)));
    assert!(!beside(&path, "-wal").exists() && !beside(&path, "-shm").exists(), "one file is left");
    let copy = shop.folder.path().join("copy.sqlite");
    std::fs::copy(&path, &copy).unwrap();
    let copied = Store::open(&copy).unwrap();
    assert_eq!(labels(&copied).await, ["three", "two", "one"]);
    assert!(copied.notes().is_empty());
}

#[tokio::test]
async fn a_backup_put_back_beside_the_log_of_later_is_noticed() {
    let shop = shop();
    let path = shop.store.path().to_owned();
    open_job(&shop.store, "kept").await;
    shop.store.close().unwrap();
    let backup = shop.folder.path().join("backup.sqlite");
    std::fs::copy(&path, &backup).unwrap();
    // A later run that is killed: its log stays.
    let later = Store::open(&path).unwrap();
    open_job(&later, "later").await;
    let log = std::fs::read(beside(&path, "-wal")).unwrap();
    drop(later);
    std::fs::copy(&backup, &path).unwrap();
    std::fs::write(beside(&path, "-wal"), &log).unwrap();
    let refused = Store::open(&path).unwrap_err();
    assert!(matches!(refused, StoreError::ForeignLog { .. }), "{refused:?}");
    assert!(refused.to_string().contains("move that log away"), "{refused}");
    assert_eq!(std::fs::read(beside(&path, "-wal")).unwrap(), log, "nothing was touched");
    let taken = Store::open_as(&path, Opening { with_foreign_log: true, ..Opening::default() }).unwrap();
    assert!(taken.notes()[0].contains("was taken over although"), "{:?}", taken.notes());
    drop(taken);
    std::fs::copy(&backup, &path).unwrap();
    let _ = std::fs::remove_file(beside(&path, "-wal"));
    assert_eq!(labels(&Store::open(&path).unwrap()).await, ["kept"], "with the log away the backup is back");
}

#[tokio::test]
async fn what_a_kill_leaves_is_taken_over_and_said() {
    let shop = shop();
    let path = shop.store.path().to_owned();
    // More than the longest log: it is written back on the way, and marked anew.
    let job = shop.open_job("much").await;
    let mut revision = job.revision;
    for round in 0..40 {
        let notes = format!("{round}").repeat(5_000);
        let changed = JobContent { notes, ..job.content.clone() };
        let id = job.id;
        let at = revision;
        revision = shop
            .store
            .write(move |tx| Ok(jobs::change(tx, id, at, &changed, "mk", now())?.revision))
            .await
            .unwrap();
    }
    let again = Store::open(&as_a_kill_leaves_it(&path)).unwrap();
    let id = job.id;
    assert_eq!(again.read(move |c| jobs::get(c, id)).await.unwrap().revision, revision);
    assert!(again.notes()[0].contains("did not stop cleanly"), "{:?}", again.notes());
}

#[tokio::test]
async fn a_file_deleted_or_replaced_under_the_program_takes_no_more_changes() {
    for replaced in [false, true] {
        let shop = shop();
        let path = shop.store.path().to_owned();
        open_job(&shop.store, "kept").await;
        std::fs::rename(&path, shop.folder.path().join("moved.sqlite")).unwrap();
        if replaced {
            std::fs::copy(shop.folder.path().join("moved.sqlite"), &path).unwrap();
        }
        let refused = shop.store.write(|tx| jobs::create(tx, &content("lost"), "mk", now())).await;
        assert!(matches!(refused, Err(StoreError::FileGone { .. })), "{refused:?}");
        let page = Page { find: String::new(), put_away: false, from: 0, most: 9 };
        let read = shop.store.read(move |c| jobs::list(c, &page)).await;
        assert!(matches!(read, Ok((1, _)) | Err(StoreError::FileGone { .. })), "{read:?}");
    }
}

#[test]
fn files_that_are_damaged_or_anothers_are_refused_untouched() {
    let folder = tempfile::tempdir().unwrap();
    let ours = folder.path().join("ours.sqlite");
    Store::open(&ours).unwrap().close().unwrap();
    // Pages of the middle overwritten, as a bad disk does.
    let mut bytes = std::fs::read(&ours).unwrap();
    for at in (8192..bytes.len()).step_by(512) {
        bytes[at] ^= 0xff;
    }
    std::fs::write(&ours, &bytes).unwrap();
    let refused = Store::open(&ours).unwrap_err();
    assert!(refused.to_string().contains("is damaged"), "{refused}");

    let photos = folder.path().join("photos.sqlite");
    Connection::open(&photos).unwrap().execute_batch("CREATE TABLE photo (id INTEGER)").unwrap();
    let before = std::fs::read(&photos).unwrap();
    assert!(matches!(Store::open(&photos), Err(StoreError::NotOurs { .. })));
    assert_eq!(std::fs::read(&photos).unwrap(), before, "not even its journal mode");

    let half = folder.path().join("half.sqlite");
    Store::open(&half).unwrap().close().unwrap();
    Connection::open(&half).unwrap().execute_batch("DROP TABLE trial_fit; DROP TABLE reading").unwrap();
    let refused = Store::open(&half).unwrap_err();
    assert!(refused.to_string().contains("its table reading is missing"), "{refused}");
}

#[test]
fn customers_data_is_for_its_owner_alone() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("made/shop.sqlite");
    let store = Store::open(&path).unwrap();
    let mode = |path: &Path| std::fs::metadata(path).unwrap().permissions().mode() & 0o777;
    assert_eq!((mode(path.parent().unwrap()), mode(&path)), (0o700, 0o600));
    assert_eq!(mode(&beside(&path, "-wal")), 0o600);
    store.close().unwrap();
    assert_eq!(mode(&beside(&path, "-lock")), 0o600);
    std::fs::set_permissions(&path, std::fs::Permissions::from_mode(0o644)).unwrap();
    Store::open(&path).unwrap();
    assert_eq!(mode(&path), 0o600, "an older file as well");
}

#[test]
fn of_many_first_starts_at_once_one_has_the_file_and_the_others_are_told_who() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("shop.sqlite");
    let starts: Vec<_> = (0..8)
        .map(|_| {
            let path = path.clone();
            std::thread::spawn(move || Store::open(&path))
        })
        .collect();
    let (open, refused): (Vec<_>, Vec<_>) =
        starts.into_iter().map(|start| start.join().unwrap()).partition(Result::is_ok);
    assert_eq!((open.len(), refused.len()), (1, 7));
    for refused in refused {
        let Err(StoreError::Held { by, .. }) = refused else { panic!("{refused:?}") };
        assert_eq!(by, std::process::id());
    }
    drop(open);
    Store::open(&path).unwrap();
}

#[tokio::test]
async fn a_change_that_nobody_waits_for_any_more_is_rolled_back() {
    let shop = shop();
    let patience = Patience::default();
    let (begun, is_begun) = mpsc::channel();
    let (go, may_go) = mpsc::channel::<()>();
    let (store, theirs) = (shop.store.clone(), patience.clone());
    let slow = tokio::spawn(async move {
        theirs
            .with(store.write(move |tx| {
                begun.send(()).unwrap();
                may_go.recv().unwrap();
                jobs::create(tx, &content("too late"), "mk", now())
            }))
            .await
    });
    tokio::task::spawn_blocking(move || is_begun.recv().unwrap()).await.unwrap();
    assert!(patience.give_up(), "nothing was applied yet");
    go.send(()).unwrap();
    assert!(matches!(slow.await.unwrap(), Err(StoreError::GaveUp)));
    assert!(labels(&shop.store).await.is_empty());
    // What was applied is answered as applied.
    let patience = Patience::default();
    let made = patience.with(shop.store.write(|tx| jobs::create(tx, &content("in time"), "mk", now()))).await;
    assert!(made.is_ok() && !patience.give_up());
}

#[tokio::test(flavor = "multi_thread")]
async fn a_read_that_nobody_waits_for_any_more_still_holds_its_reader() {
    let shop = shop();
    let gate = Arc::new(RwLock::new(()));
    let (running, most) = (Arc::new(AtomicUsize::new(0)), Arc::new(AtomicUsize::new(0)));
    let closed = gate.write().unwrap();
    let read = || {
        let (store, gate) = (shop.store.clone(), Arc::clone(&gate));
        let (running, most) = (Arc::clone(&running), Arc::clone(&most));
        tokio::spawn(async move {
            store
                .read(move |_| {
                    most.fetch_max(running.fetch_add(1, Ordering::SeqCst) + 1, Ordering::SeqCst);
                    drop(gate.read());
                    running.fetch_sub(1, Ordering::SeqCst);
                    Ok(())
                })
                .await
        })
    };
    let given_up: Vec<_> = (0..3).map(|_| read()).collect();
    while running.load(Ordering::SeqCst) < 3 {
        std::thread::yield_now();
    }
    for one in &given_up {
        one.abort();
    }
    let waiting: Vec<_> = (0..6).map(|_| read()).collect();
    for _ in 0..2000 {
        std::thread::yield_now();
    }
    drop(closed);
    for one in waiting {
        one.await.unwrap().unwrap();
    }
    assert_eq!(most.load(Ordering::SeqCst), 3, "no more readers than there are");
}

#[tokio::test]
async fn another_program_that_holds_the_file_is_named() {
    let shop = shop();
    let other = Connection::open(shop.store.path()).unwrap();
    other.execute_batch("BEGIN IMMEDIATE").unwrap();
    let held = shop.store.write(|tx| jobs::create(tx, &content("x"), "mk", now())).await;
    assert!(matches!(held, Err(StoreError::Busy)), "{held:?}");
    other.execute_batch("ROLLBACK").unwrap();
    assert!(labels(&shop.store).await.is_empty());
}

#[tokio::test]
async fn a_request_sent_twice_is_done_once() {
    let shop = shop();
    let ask = |key: &str, request: &str| Once { key: key.to_owned(), request: request.to_owned() };
    let make = |asked: Once| {
        shop.store.write(move |tx| {
            once(tx, Some(&asked), now(), || Ok(jobs::create(tx, &content("once"), "mk", now())?.id))
        })
    };
    let first = make(ask("k1", "POST /jobs a")).await.unwrap();
    assert_eq!(make(ask("k1", "POST /jobs a")).await.unwrap(), first);
    assert_eq!(labels(&shop.store).await.len(), 1);
    let other = make(ask("k1", "POST /jobs b")).await;
    assert!(matches!(other, Err(StoreError::KeyReused)));
    assert_ne!(make(ask("k2", "POST /jobs a")).await.unwrap(), first);
    // What failed was not done: the same key may try again.
    let asked = ask("k3", "POST /jobs c");
    let theirs = asked.clone();
    let failed = shop
        .store
        .write(move |tx| {
            once::<i64, StoreError>(tx, Some(&theirs), now(), || Err(StoreError::NothingTo("do")))
        })
        .await;
    assert!(failed.is_err());
    assert!(make(asked).await.is_ok());
}

#[tokio::test]
async fn a_damaged_job_is_listed_as_damaged_and_put_back_from_its_journal() {
    for (sql, words) in [
        ("UPDATE job SET fitted_front = '18x8 ETX' WHERE id = 1", "fitted front \"18x8 ETX\" cannot be read"),
        ("UPDATE job SET stage = 'lunch' WHERE id = 1", "stage \"lunch\""),
        ("UPDATE job SET updated_at = 'noon' WHERE id = 1", "\"noon\" is no time"),
    ] {
        let shop = shop();
        let job = shop.open_job("broken").await;
        let job = shop.put(&job, 1, "fast").await.unwrap();
        shop.open_job("sound").await;
        shop.store.write(move |tx| Ok(tx.execute(sql, [])?)).await.unwrap();
        let page = Page { find: String::new(), put_away: false, from: 0, most: 10 };
        let (total, listed) = shop.store.read(move |c| jobs::list(c, &page)).await.unwrap();
        assert_eq!(total, 2, "the others are there");
        let damaged = listed.iter().find(|job| job.id == 1).unwrap().damaged.clone().unwrap();
        assert!(damaged.contains(words), "{damaged}");
        assert!(shop.store.read(|c| jobs::get(c, 1)).await.is_err());
        let cars = shop.store.read(|c| jobs::known_cars(c, "tinde", 9)).await.unwrap();
        assert_eq!(cars.len(), 1, "another job of the model stands in");
        let mended = shop.store.write(|tx| jobs::mend(tx, 1, "mk", now())).await.unwrap();
        assert_eq!(mended.content, job.content, "{sql}");
        assert_eq!((mended.revision, mended.undoes.as_deref()), (3, None));
        let again = shop.store.write(|tx| jobs::mend(tx, 1, "mk", now())).await;
        assert!(matches!(again, Err(StoreError::NothingTo(_))));
        let further = shop.put(&mended, 3, "faster").await.unwrap();
        let back = shop.store.write(|tx| jobs::undo(tx, 1, 4, "mk", now())).await.unwrap();
        assert_eq!((further.content.wish.as_str(), back.content.wish.as_str()), ("faster", "fast"));
    }
}

#[tokio::test]
async fn a_journal_entry_costs_its_change_and_not_the_job() {
    let shop = shop();
    let job = shop.open_job("long").await;
    let id = job.id;
    let many: Vec<_> = (0..300).map(|at| reading(&format!("r{at}"))).collect();
    shop.store.write(move |tx| jobs::add_readings(tx, id, &many, "rs", now())).await.unwrap();
    let size = || {
        shop.store.read(|c| {
            let sum = "SELECT coalesce(sum(length(coalesce(base, '')) + length(forward) + length(back)), 0) FROM journal";
            Ok(c.query_row(sql(sum), [], |row| row.get::<_, i64>(0))?)
        })
    };
    let before = size().await.unwrap();
    let job = shop.store.read(move |c| jobs::get(c, id)).await.unwrap();
    shop.put(&job, job.revision, "a short wish").await.unwrap();
    let grown = size().await.unwrap() - before;
    assert!(grown < 400, "{grown} bytes for one wish, of a job with 301 readings");
}

fn sql(text: &str) -> &str {
    text
}

#[tokio::test]
async fn a_job_keeps_a_bounded_number_of_readings_and_photos() {
    let shop = shop();
    let id = shop.open_job("much").await.id;
    let many: Vec<_> = (0..jobs::MOST_READINGS).map(|at| reading(&format!("r{at}"))).collect();
    let refused = shop.store.write(move |tx| jobs::add_readings(tx, id, &many, "rs", now())).await;
    let Err(error @ StoreError::TooMany { .. }) = refused else { panic!("{refused:?}") };
    assert_eq!(error.to_string(), "more than 2000 readings are not kept with one job");
    let refused = shop
        .store
        .write(move |tx| {
            for _ in 0..=workshop::MOST_PHOTOS {
                workshop::add_photo(tx, id, "image/jpeg", b"x", now())?;
            }
            Ok(())
        })
        .await;
    assert!(matches!(refused, Err(StoreError::TooMany { what: "photos", .. })), "{refused:?}");
}

#[tokio::test]
async fn a_reading_on_wheels_that_nobody_named_is_kept_and_counts_once_they_are() {
    let shop = shop();
    let bare = JobContent { fitted: SetupPair::default(), ..content("nobody typed") };
    let id = shop.store.write(move |tx| Ok(jobs::create(tx, &bare, "mk", now())?.id)).await.unwrap();
    let mut unnamed = reading("u1");
    unnamed.taken.on = Some(Setup::default());
    let kept = unnamed.clone();
    let job = shop.store.write(move |tx| jobs::add_readings(tx, id, &[kept], "rs", now())).await.unwrap();
    let last = job.content.measurements.readings.last().unwrap();
    assert_eq!(last, &unnamed, "as it was taken");
    let named = JobContent { fitted: pair("17x7.5 ET45 225/45R17"), ..job.content.clone() };
    let revision = job.revision;
    let job = shop.store.write(move |tx| jobs::change(tx, id, revision, &named, "mk", now())).await.unwrap();
    let taken = job.content.measurements.taken(&job.content.fitted);
    assert_eq!(taken.last().unwrap().on, job.content.fitted.rear, "and counts as soon as they are named");
    let revision = job.revision;
    let undone = shop.store.write(move |tx| jobs::undo(tx, id, revision, "mk", now())).await.unwrap();
    assert_eq!(undone.content.measurements.readings.last(), Some(&unnamed));
}

#[tokio::test]
async fn what_nothing_names_is_counted_and_removed() {
    let shop = shop();
    let job = shop.open_job("photos").await;
    let id = job.id;
    let photos: Vec<i64> = shop
        .store
        .write(move |tx| {
            (0..3).map(|_| workshop::add_photo(tx, id, "image/jpeg", b"twelve bytes", now())).collect()
        })
        .await
        .unwrap();
    let named = photos[0];
    let mut changed = job.content.clone();
    changed.workshop.trials[0] = KeptTrial { photos: vec![named], ..changed.workshop.trials[0].clone() };
    shop.store.write(move |tx| jobs::change(tx, id, 1, &changed, "mk", now())).await.unwrap();
    let amounts = shop.store.read(storage::of).await.unwrap();
    assert_eq!(
        (amounts.photos.count, amounts.unnamed_photos.count, amounts.unnamed_photos.bytes),
        (3, 2, 24)
    );
    let refused = shop.store.write(move |tx| workshop::remove_photo(tx, id, named)).await;
    assert!(matches!(refused, Err(StoreError::StillNamed(_))));
    let second = photos[1];
    shop.store.write(move |tx| workshop::remove_photo(tx, id, second)).await.unwrap();
    let all = storage::Remove { unnamed_photos: true, list_files: true };
    shop.store.write(move |tx| storage::remove(tx, all)).await.unwrap();
    shop.store.compact().await.unwrap();
    assert_eq!(shop.store.read(move |c| workshop::photos(c, id)).await.unwrap(), [named]);
}

#[tokio::test]
async fn a_file_of_proven_fits_can_be_taken_out_again_as_one() {
    let shop = shop();
    let record = |model: &str| [("model".to_owned(), model.to_owned())].into();
    let (first, second) = shop
        .store
        .write(move |tx| {
            let import = |name: &str| proven::begin_import(tx, name, now());
            let (first, second) = (import("a.csv")?, import("b.csv")?);
            for (key, from) in [("k1", first), ("k2", first), ("k2", second), ("k3", second)] {
                proven::add(tx, key, &record(key), proven::From::Import(from), now())?;
            }
            proven::has_room(tx)?;
            Ok((first, second))
        })
        .await
        .unwrap();
    let imports = shop.store.read(proven::imports).await.unwrap();
    let told: Vec<_> = imports.iter().map(|one| (one.id, one.name.as_str(), one.fits)).collect();
    assert_eq!(told, [(second, "b.csv", 1), (first, "a.csv", 2)]);
    assert_eq!(shop.store.write(move |tx| proven::remove_import(tx, first)).await.unwrap(), 2);
    assert!(shop.store.write(move |tx| proven::remove_import(tx, first)).await.is_err(), "once only");
    shop.store.write(|tx| Ok(tx.execute("UPDATE proven_fit SET record = 'x'", [])?)).await.unwrap();
    let rows = shop.store.read(proven::all).await.unwrap();
    assert!(rows.len() == 1 && rows[0].damaged.is_some(), "a damaged one is told, and can be taken out");
}

#[tokio::test]
async fn what_a_module_was_told_stands_before_it_is_told_and_goes_with_its_job() {
    use store::module_log::{self, Telling};
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("shop.sqlite");
    let telling = |told_mm| Telling { vehicle: "LAKE-0417".into(), was_mm: 2209, told_mm, is_restore: false };
    {
        let store = Store::open(&path).unwrap();
        let told = move |tx: &store::Connection| {
            let job = jobs::create(tx, &content("Drover"), "rs", now())?;
            let first = module_log::begin(tx, job.id, &telling(2300), "rs", now())?;
            module_log::finish(tx, first, "confirmed", "told and read back")?;
            module_log::begin(tx, job.id, &telling(2363), "mk", now())
        };
        store.write(move |tx| told(tx)).await.unwrap();
        // Killed before it was noted how it came out.
    }
    let store = Store::open(&path).unwrap();
    let log = store.read(|c| module_log::list(c, 1)).await.unwrap();
    let outcomes: Vec<_> =
        log.iter().map(|one| (one.telling.told_mm, one.outcome.as_str(), one.who.as_str())).collect();
    assert_eq!(outcomes, [(2363, module_log::ASKED, "mk"), (2300, "confirmed", "rs")]);
    assert!(store.read(|c| module_log::list(c, 2)).await.unwrap().is_empty());
}
