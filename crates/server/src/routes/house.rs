//! The house: limits, instruments, people, units.

use axum::Json;
use axum::extract::State;
use jiff::Timestamp;
use store::{Connection, Store, StoreError, house, identity, once, storage};

use crate::extract::{Body, Keyed};
use crate::problem::{ApiError, Problem};
use crate::tagged::{IfMatch, Tagged};
use crate::wire::house::{HouseChange, HouseView};
use crate::wire::storage::{StorageRemoval, StorageView};

/// What the house has settled.
#[utoipa::path(get, path = "/house", operation_id = "get_house", tag = "house", responses(
    (status = 200, description = "limits, instruments, people, units", body = HouseView)
))]
pub(super) async fn get(State(store): State<Store>) -> Result<Tagged<HouseView>, ApiError> {
    Ok(store.read(shown).await?)
}

/// The house as it goes out.
fn shown(connection: &Connection) -> Result<Tagged<HouseView>, StoreError> {
    let house = house::get(connection)?;
    Ok(Tagged(house.tag.clone(), Json(HouseView::new(house, identity::shop_ids(connection)?))))
}

/// Change it. A change based on another revision is refused.
#[utoipa::path(put, path = "/house", operation_id = "put_house", request_body = HouseChange, params(("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), tag = "house", responses(
    (status = 200, description = "the house as changed", body = HouseView),
    (status = 409, description = "changed elsewhere", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn put(
    State(store): State<Store>,
    of: IfMatch,
    Keyed { value: change, once: asked }: Keyed<HouseChange>,
) -> Result<Tagged<HouseView>, ApiError> {
    let content = change.read()?;
    let based_on = change.based_on_revision;
    let house = store
        .write(move |tx| {
            once(tx, asked.as_ref(), Timestamp::now(), || {
                house::expect(tx, of.tags())?;
                Ok::<_, StoreError>(house::change(tx, based_on, &content)?.revision)
            })?;
            shown(tx)
        })
        .await?;
    Ok(house)
}

/// What takes room in the shop's file, and what of it nothing names any more.
#[utoipa::path(get, path = "/house/storage", tag = "house", responses(
    (status = 200, description = "how much, of what", body = StorageView)
))]
pub(super) async fn storage(State(store): State<Store>) -> Result<Json<StorageView>, ApiError> {
    Ok(Json(store.read(storage::of).await?.into()))
}

/// Remove for good what nothing names, and give its room back.
#[utoipa::path(post, path = "/house/storage/remove", request_body = StorageRemoval, tag = "house", responses(
    (status = 200, description = "what is left", body = StorageView)
))]
pub(super) async fn remove_unnamed(
    State(store): State<Store>,
    Body(what): Body<StorageRemoval>,
) -> Result<Json<StorageView>, ApiError> {
    let what = storage::Remove { unnamed_photos: what.unnamed_photos, list_files: what.list_files };
    store.write(move |tx| storage::remove(tx, what)).await?;
    // Removed it is; that its room could not be given back now is no reason to say otherwise.
    if let Err(error) = store.compact().await {
        crate::problem::log(&format!("the file could not be written anew: {error}"));
    }
    Ok(Json(store.read(storage::of).await?.into()))
}
