//! Fits and windows for scripts.

use axum::Json;
use axum::extract::State;
use store::{Store, house};

use crate::extract::Body;
use crate::problem::{ApiError, Problem};
use crate::wire::corner::{FitRequest, FitView, WindowRequest, WindowView};
use crate::wire::sweep::{SweepRequest, SweepView};

/// Try a setup against a measured corner.
#[utoipa::path(post, path = "/fit", request_body = FitRequest, tag = "fit", responses(
    (status = 200, description = "the verdict and a line for each part", body = FitView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn fit(
    State(store): State<Store>,
    Body(request): Body<FitRequest>,
) -> Result<Json<FitView>, ApiError> {
    let house = store.read(house::get).await?;
    crate::off_thread(move || Ok(Json(request.read(&house.content.limits)?.fit()))).await?
}

/// The offsets that clear, for each rim width.
#[utoipa::path(post, path = "/window", request_body = WindowRequest, tag = "fit", responses(
    (status = 200, description = "the window", body = WindowView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn window(
    State(store): State<Store>,
    Body(request): Body<WindowRequest>,
) -> Result<Json<WindowView>, ApiError> {
    let house = store.read(house::get).await?;
    crate::off_thread(move || {
        let (corner, widths, usage) = request.read(&house.content.limits)?;
        Ok(Json(corner.window(&widths, request.tire_choice.unwrap_or_default(), usage.as_ref())))
    })
    .await?
}

/// Turn a planned wheel lock to lock and move it through its travel past parts of the car: the least room to each, where,
/// and what a steering limiter or bump stop would do.
#[utoipa::path(post, path = "/sweep", request_body = SweepRequest, tag = "fit", responses(
    (status = 200, description = "the least room to each part", body = SweepView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn sweep(Body(request): Body<SweepRequest>) -> Result<Json<SweepView>, ApiError> {
    crate::off_thread(move || Ok(Json(request.read()?.answer()))).await?
}
