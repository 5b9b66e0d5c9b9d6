//! Choosing: size ladder, pressure, stagger, fasteners.

use app::JudgingContext;
use axum::Json;
use axum::extract::State;
use fitment::judgement::rules::load::LoadRequirement;
use fitment::setup::{Axle, SetupPair};
use store::jobs::JobContent;
use store::{Store, house};

use super::workshop::in_context;

use crate::extract::{Body, Params};
use crate::problem::{ApiError, Problem};
use crate::wire::AxleCode;
use crate::wire::choose::{
    FastenersRequest, FastenersView, PressureQuery, PressureView, StaggerRequest, StaggerView,
};
use crate::wire::ladder::{LadderCar, LadderRequest, LadderView};
use app::catalogue::{CatalogueCache, Loaded};

/// Every size round a tire whose overall diameter stays inside a band.
#[utoipa::path(post, path = "/ladder", request_body = LadderRequest, tag = "choose", responses(
    (status = 200, description = "the sizes, the nearest in diameter first", body = LadderView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn ladder(
    State(store): State<Store>,
    State(shelf): State<CatalogueCache>,
    Body(request): Body<LadderRequest>,
) -> Result<Json<LadderView>, ApiError> {
    let loaded = shelf.loaded(&store).await?;
    let Some(id) = request.job else {
        let house = store.read(house::get).await?;
        let answer = move || request.answer(&house.content.limits, &loaded.catalogue, None).map(Json);
        return crate::off_thread(answer).await?;
    };
    let (job, context) = in_context(&store, id).await?;
    crate::off_thread(move || answered(&request, &job.content, &context, &loaded)).await?
}

fn answered(
    request: &LadderRequest,
    content: &JobContent,
    context: &JudgingContext,
    loaded: &Loaded,
) -> Result<Json<LadderView>, ApiError> {
    let nothing = SetupPair::default();
    let plan = context.case(&content.fitted, &nothing, content.drive);
    let axle = Axle::from(request.axle.unwrap_or(AxleCode::Front));
    let load = LoadRequirement::of(&content.measurements.car, &content.fitted, axle);
    let car = plan.axle(axle).map(|trial| LadderCar { trial, load });
    Ok(Json(request.answer(&context.limits, &loaded.catalogue, car.as_ref())?))
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
