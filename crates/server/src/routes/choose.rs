//! Choosing: size ladder, pressure, stagger, fasteners.

use axum::Json;
use axum::extract::State;
use fitment::case::Case;
use fitment::limits::HouseLimits;
use fitment::rules::load::LoadRequirement;
use fitment::setup::{Axle, SetupPair};
use store::{Store, house, jobs};

use crate::catalogue::{Loaded, Shelf};
use crate::extract::{Body, Params};
use crate::problem::{ApiError, Problem};
use crate::wire::AxleCode;
use crate::wire::bench::{Known, bay_of};
use crate::wire::choose::{
    FastenersRequest, FastenersView, PressureQuery, PressureView, StaggerRequest, StaggerView,
};
use crate::wire::ladder::{LadderCar, LadderRequest, LadderView};

/// Every size round a tire whose overall diameter stays inside a band.
#[utoipa::path(post, path = "/ladder", request_body = LadderRequest, tag = "choose", responses(
    (status = 200, description = "the sizes, the nearest in diameter first", body = LadderView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn ladder(
    State(store): State<Store>,
    State(shelf): State<Shelf>,
    Body(request): Body<LadderRequest>,
) -> Result<Json<LadderView>, ApiError> {
    let job = request.job;
    let (job, house) =
        store.read(move |c| Ok((job.map(|id| jobs::get(c, id)).transpose()?, house::get(c)?))).await?;
    let loaded = shelf.loaded(&store).await?;
    crate::off_thread(move || answered(&request, job, &house.content.limits, &loaded)).await?
}

fn answered(
    request: &LadderRequest,
    job: Option<jobs::Job>,
    limits: &HouseLimits,
    loaded: &Loaded,
) -> Result<Json<LadderView>, ApiError> {
    let Some(content) = job.map(|job| job.content) else {
        return Ok(Json(request.answer(limits, &loaded.catalogue, None)?));
    };
    let nothing = SetupPair::default();
    let plan = Case::new(&content.fitted, &nothing, content.drive, limits, None)
        .in_state(bay_of(&Known::from(&content)));
    let axle = Axle::from(request.axle.unwrap_or(AxleCode::Front));
    let load = LoadRequirement::of(&content.measurements.car, &content.fitted, axle);
    let car = plan.axle(axle).map(|trial| LadderCar { trial, load });
    Ok(Json(request.answer(limits, &loaded.catalogue, car.as_ref())?))
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
