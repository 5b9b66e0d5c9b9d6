//! Price lists as the store keeps them: what is new, what changed, and what undoing leaves alone.

use crate::keeping::as_a_kill_leaves_it;
use jiff::Timestamp;
use store::catalogue::{self, Counts, Fields, RecordText};
use store::{Store, StoreError};

fn now() -> Timestamp {
    "2026-03-01T09:00:00Z".parse().unwrap()
}

fn shop() -> (tempfile::TempDir, Store) {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("shop.sqlite")).unwrap();
    (folder, store)
}

fn fields(pairs: &[(&str, &str)]) -> Fields {
    pairs.iter().map(|(field, text)| ((*field).to_owned(), (*text).to_owned())).collect()
}

/// Rows by key with a price each.
fn rows(prices: &[(&str, &str)]) -> Vec<(String, RecordText)> {
    let record = |key, price| RecordText::of(&[("size", key), ("price", price)].into());
    prices.iter().map(|(key, price)| ((*key).to_owned(), record(key, price))).collect()
}

/// Brings and takes a list of wheels; its number and what it did.
async fn take(store: &Store, supplier: &str, prices: &[(&str, &str)]) -> (i64, Counts) {
    let (supplier, rows) = (supplier.to_owned(), rows(prices));
    store
        .write(move |tx| {
            let list = catalogue::bring(tx, "wheels", &supplier, "list.csv", b"as it came", now())?;
            let headings = fields(&[("size", "Felge")]);
            Ok((list.id, catalogue::take(tx, list.id, &headings, &rows, now(), &|_| {})?))
        })
        .await
        .unwrap()
}

async fn prices(store: &Store) -> Vec<(String, String)> {
    let (_, all) = store.read(|c| catalogue::rows(c, "wheels", "", 0, usize::MAX)).await.unwrap();
    all.into_iter().map(|row| (row.record["size"].clone(), row.record["price"].clone())).collect()
}

fn told(prices: &[(&str, &str)]) -> Vec<(String, String)> {
    prices.iter().map(|(key, price)| ((*key).to_owned(), (*price).to_owned())).collect()
}

#[tokio::test]
async fn a_list_says_what_is_new_changed_and_unchanged() {
    let (_folder, store) = shop();
    let (_, first) = take(&store, "Shore", &[("a", "1"), ("b", "2")]).await;
    assert_eq!(first, Counts { new: 2, changed: 0, unchanged: 0 });
    let (_, second) = take(&store, "Shore", &[("a", "1"), ("b", "3"), ("c", "4")]).await;
    assert_eq!(second, Counts { new: 1, changed: 1, unchanged: 1 });
    // Another supplier's row of the same key is another row.
    let (_, other) = take(&store, "Moor", &[("a", "9")]).await;
    assert_eq!(other, Counts { new: 1, changed: 0, unchanged: 0 });
    assert_eq!(prices(&store).await, told(&[("a", "1"), ("b", "3"), ("c", "4"), ("a", "9")]));
}

#[tokio::test]
async fn undoing_puts_back_what_was_and_leaves_what_came_later() {
    let (_folder, store) = shop();
    take(&store, "Shore", &[("a", "1"), ("b", "2")]).await;
    let (second, _) = take(&store, "Shore", &[("a", "5"), ("b", "6"), ("c", "7")]).await;
    // A third list changes b again: undoing the second must not take that away.
    take(&store, "Shore", &[("b", "8")]).await;
    let undone = store.write(move |tx| catalogue::undo(tx, second)).await.unwrap();
    assert_eq!(undone, (2, 1), "a went back and c went; b was changed since");
    assert_eq!(prices(&store).await, told(&[("a", "1"), ("b", "8")]));
    let again = store.write(move |tx| catalogue::undo(tx, second)).await;
    assert!(matches!(again, Err(StoreError::NothingTo(_))), "once only");
}

#[tokio::test]
async fn a_list_is_taken_once_and_its_headings_are_remembered() {
    let (_folder, store) = shop();
    let (id, _) = take(&store, "Shore", &[("a", "1")]).await;
    let again =
        store.write(move |tx| catalogue::take(tx, id, &Fields::new(), &rows(&[]), now(), &|_| {})).await;
    assert!(matches!(again, Err(StoreError::NothingTo(_))));
    let known = store.read(|c| catalogue::mapping(c, "Shore", "wheels")).await.unwrap();
    assert_eq!(known, Some(fields(&[("size", "Felge")])));
    assert_eq!(store.read(|c| catalogue::mapping(c, "Shore", "tires")).await.unwrap(), None);
    assert_eq!(store.read(move |c| catalogue::bytes(c, id)).await.unwrap(), b"as it came");
    let missing = store.read(|c| catalogue::list(c, 99)).await;
    assert!(matches!(missing, Err(StoreError::NotFound { id: 99, .. })));
}

#[tokio::test]
async fn the_version_grows_with_every_take_and_undo() {
    let (_folder, store) = shop();
    let version = || async { store.read(catalogue::version).await.unwrap() };
    assert_eq!(version().await, 0);
    let (id, _) = take(&store, "Shore", &[("a", "1")]).await;
    let taken = version().await;
    store.write(move |tx| catalogue::undo(tx, id)).await.unwrap();
    assert!(0 < taken && taken < version().await);
}

#[tokio::test]
async fn rows_are_found_by_all_of_the_words() {
    let (_folder, store) = shop();
    take(&store, "Shore", &[("18x8 ET35", "1"), ("18x8 ET45", "2"), ("19x8 ET35", "3")]).await;
    for (find, count) in [("", 3), ("18x8", 2), ("18x8 et45", 1), ("shore 19", 1), ("moor", 0), ("size", 0)] {
        let (total, page) = store.read(move |c| catalogue::rows(c, "wheels", find, 0, 2)).await.unwrap();
        assert_eq!((total, page.len()), (count, count.min(2)), "{find:?}");
    }
    let (total, rest) = store.read(|c| catalogue::rows(c, "wheels", "", 2, 2)).await.unwrap();
    assert_eq!((total, rest.len()), (3, 1), "the second page");
    let (total, none) = store.read(|c| catalogue::rows(c, "wheels", "", usize::MAX, 2)).await.unwrap();
    assert_eq!((total, none.len()), (3, 0), "beyond the end, however far");
    // A row that cannot be read costs that row.
    store
        .write(|tx| Ok(tx.execute("UPDATE catalogue_row SET record = '{' WHERE key = '18x8 ET45'", [])?))
        .await
        .unwrap();
    let (total, all) = store.read(|c| catalogue::rows(c, "wheels", "", 0, 9)).await.unwrap();
    assert_eq!((total, all.iter().filter(|row| row.damaged.is_some()).count()), (3, 1));
}

#[tokio::test]
async fn a_lists_file_can_be_removed_and_what_was_taken_of_it_stays() {
    let (_folder, store) = shop();
    let (id, _) = take(&store, "Shore", &[("a", "1")]).await;
    let before = store.read(store::storage::of).await.unwrap();
    assert_eq!((before.list_files.count, before.list_files.bytes), (1, 10));
    let list = store.write(move |tx| catalogue::remove_file(tx, id)).await.unwrap();
    assert!(list.is_removed && list.bytes == 0);
    assert!(matches!(store.read(move |c| catalogue::bytes(c, id)).await, Err(StoreError::NothingTo(_))));
    assert!(store.write(move |tx| catalogue::remove_file(tx, id)).await.is_err(), "once only");
    assert_eq!(prices(&store).await, told(&[("a", "1")]));
    store.write(move |tx| catalogue::undo(tx, id)).await.unwrap();
    assert!(prices(&store).await.is_empty(), "and can still be undone");
    assert_eq!(store.read(store::storage::of).await.unwrap().list_files.count, 0);
}

#[tokio::test]
async fn a_list_survives_a_process_that_is_killed() {
    let (folder, store) = shop();
    take(&store, "Shore", &[("a", "1"), ("b", "2")]).await;
    let again = Store::open(&as_a_kill_leaves_it(&folder.path().join("shop.sqlite"))).unwrap();
    assert_eq!(prices(&again).await, told(&[("a", "1"), ("b", "2")]));
    drop(store);
}
