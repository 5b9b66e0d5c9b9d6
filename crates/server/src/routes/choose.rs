//! Choosing: size ladder, pressure, stagger, fasteners.

use axum::Json;
use axum::extract::State;
use store::{Store, house};

use crate::extract::{Body, Params};
use crate::problem::{ApiError, Problem};
use crate::wire::choose::{
    FastenersRequest, FastenersView, LadderRequest, LadderView, PressureQuery, PressureView, StaggerRequest,
    StaggerView,
};

/// Every size round a tire whose overall diameter stays inside a band.
#[utoipa::path(post, path = "/ladder", request_body = LadderRequest, tag = "choose", responses(
    (status = 200, description = "the sizes, the nearest in diameter first", body = LadderView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn ladder(
    State(store): State<Store>,
    Body(request): Body<LadderRequest>,
) -> Result<Json<LadderView>, ApiError> {
    let house = store.read(house::get).await?;
    Ok(Json(request.answer(&house.content.limits)?))
}

/// The cold pressure at which a tire carries a load.
#[utoipa::path(get, path = "/tires/pressure", params(PressureQuery), tag = "choose", responses(
    (status = 200, description = "a suggestion", body = PressureView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn pressure(Params(query): Params<PressureQuery>) -> Result<Json<PressureView>, ApiError> {
    Ok(Json(query.answer()?))
}

/// Front against rear: ratio, taller axle, rotation.
#[utoipa::path(post, path = "/stagger", request_body = StaggerRequest, tag = "choose", responses(
    (status = 200, description = "how the pair stands", body = StaggerView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn stagger(
    State(store): State<Store>,
    Body(request): Body<StaggerRequest>,
) -> Result<Json<StaggerView>, ApiError> {
    let house = store.read(house::get).await?;
    Ok(Json(request.answer(&house.content.limits)?))
}

/// Whether a wheel goes on a hub, and what must be ordered with it.
#[utoipa::path(post, path = "/fasteners", request_body = FastenersRequest, tag = "choose", responses(
    (status = 200, description = "verdict, ring, length, engagement, problems", body = FastenersView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn fasteners(
    Body(request): Body<FastenersRequest>,
) -> Result<Json<FastenersView>, ApiError> {
    Ok(Json(request.answer()?))
}
