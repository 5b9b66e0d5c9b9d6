//! The house: limits, instruments, people, units.

use axum::Json;
use axum::extract::State;
use store::{Store, house};

use crate::extract::Body;
use crate::problem::{ApiError, Problem};
use crate::wire::house::{HouseChange, HouseView};

/// What the house has settled.
#[utoipa::path(get, path = "/house", operation_id = "get_house", tag = "house", responses(
    (status = 200, description = "limits, instruments, people, units", body = HouseView)
))]
pub(super) async fn get(State(store): State<Store>) -> Result<Json<HouseView>, ApiError> {
    Ok(Json(store.read(house::get).await?.into()))
}

/// Change it. A change based on another revision is refused.
#[utoipa::path(put, path = "/house", operation_id = "put_house", request_body = HouseChange, tag = "house", responses(
    (status = 200, description = "the house as changed", body = HouseView),
    (status = 409, description = "changed elsewhere", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn put(
    State(store): State<Store>,
    Body(change): Body<HouseChange>,
) -> Result<Json<HouseView>, ApiError> {
    let content = change.read()?;
    let based_on = change.based_on_revision;
    Ok(Json(store.write(move |tx| house::change(tx, based_on, &content)).await?.into()))
}
