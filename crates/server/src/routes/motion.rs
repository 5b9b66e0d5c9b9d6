//! A job's plan in motion.

use app::catalogue::CatalogueCache;
use axum::Json;
use axum::extract::State;
use store::Store;

use super::workshop::in_context;
use crate::extract::{Body, Id};
use crate::problem::{ApiError, Problem};
use crate::wire::looks::{LookView, looks};
use crate::wire::motion::lift::LiftView;
use crate::wire::motion::likelihood::{LikelihoodRequest, LikelihoodView};
use crate::wire::motion::remedies::RemedyView;
use crate::wire::motion::stretches::{StretchedPlan, StretchesRequest};
use crate::wire::motion::window::{MovingWindowRequest, MovingWindowView};
use crate::wire::motion::{MotionRequest, MotionView};
use crate::wire::{Lines, PerAxle};

/// A job's plan turned lock to lock and moved through its travel past the parts that were read: one answer, from which every
/// pose is drawn.
#[utoipa::path(post, path = "/jobs/{id}/motion", params(("id" = i64, Path)), request_body = MotionRequest, tag = "fit", responses(
    (status = 200, description = "the plan in motion", body = MotionView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault, or an axle that is not fully stated", body = Problem)
))]
pub(super) async fn motion(
    State(store): State<Store>,
    Id(id): Id,
    Body(request): Body<MotionRequest>,
) -> Result<Json<MotionView>, ApiError> {
    let (job, context) = in_context(&store, id).await?;
    crate::off_thread(move || request.answer(&job.content, &context).map(Json)).await?
}

/// Plans stretch by stretch: standing, at lock, over bumps, and together.
#[utoipa::path(post, path = "/jobs/{id}/motion/stretches", params(("id" = i64, Path)), request_body = StretchesRequest, tag = "fit", responses(
    (status = 200, description = "each plan, part by part", body = Vec<StretchedPlan>),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn motion_stretches(
    State(store): State<Store>,
    Id(id): Id,
    Body(request): Body<StretchesRequest>,
) -> Result<Json<Vec<StretchedPlan>>, ApiError> {
    let (job, context) = in_context(&store, id).await?;
    crate::off_thread(move || request.answer(&job.content, &context).map(Json)).await?
}

/// What turns the verdict of a plan in motion, each remedy by itself.
#[utoipa::path(post, path = "/jobs/{id}/motion/remedies", params(("id" = i64, Path)), request_body = MotionRequest, tag = "fit", responses(
    (status = 200, description = "each remedy; none where nothing rules the plan out", body = Vec<RemedyView>),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault, or an axle that is not fully stated", body = Problem)
))]
pub(super) async fn motion_remedies(
    State(store): State<Store>,
    Id(id): Id,
    Body(request): Body<MotionRequest>,
) -> Result<Json<Vec<RemedyView>>, ApiError> {
    let (job, context) = in_context(&store, id).await?;
    crate::off_thread(move || request.remedies(&job.content, &context).map(Json)).await?
}

/// The fit window that clears in motion too.
#[utoipa::path(post, path = "/jobs/{id}/motion/window", params(("id" = i64, Path)), request_body = MovingWindowRequest, tag = "fit", responses(
    (status = 200, description = "the window, inside the one that stands", body = MovingWindowView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault, or an axle that is not fully stated", body = Problem)
))]
pub(super) async fn motion_window(
    State(store): State<Store>,
    Id(id): Id,
    Body(request): Body<MovingWindowRequest>,
) -> Result<Json<MovingWindowView>, ApiError> {
    let (job, context) = in_context(&store, id).await?;
    crate::off_thread(move || request.answer(&job.content, &context).map(Json)).await?
}

/// The tallest tire at each height of lift.
#[utoipa::path(post, path = "/jobs/{id}/motion/lift", params(("id" = i64, Path)), request_body = MotionRequest, tag = "fit", responses(
    (status = 200, description = "tires from low to tall, at each lift", body = LiftView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault, or an axle that is not fully stated", body = Problem)
))]
pub(super) async fn motion_lift(
    State(store): State<Store>,
    State(shelf): State<CatalogueCache>,
    Id(id): Id,
    Body(request): Body<MotionRequest>,
) -> Result<Json<LiftView>, ApiError> {
    let loaded = shelf.loaded(&store).await?;
    let (job, context) = in_context(&store, id).await?;
    crate::off_thread(move || request.lift(&job.content, &context, &loaded.catalogue).map(Json)).await?
}

/// For each look the offsets that give it on each rim width, and which of them clear.
#[utoipa::path(post, path = "/jobs/{id}/looks", params(("id" = i64, Path)), request_body = Lines, tag = "fit", responses(
    (status = 200, description = "the looks, axle by axle; none while the fender lip was not read", body = PerAxle<Vec<LookView>>),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a line that cannot be read", body = Problem)
))]
pub(super) async fn looks_of(
    State(store): State<Store>,
    Id(id): Id,
    Body(planned): Body<Lines>,
) -> Result<Json<PerAxle<Vec<LookView>>>, ApiError> {
    let (job, context) = in_context(&store, id).await?;
    crate::off_thread(move || looks(&planned, &job.content, &context).map(Json)).await?
}

/// How likely a part is touched: 2 000 drawn cases, where the ledger's word hangs on how what may be off is added.
#[utoipa::path(post, path = "/jobs/{id}/likelihood", params(("id" = i64, Path)), request_body = LikelihoodRequest, tag = "fit", responses(
    (status = 200, description = "what drawn cases say", body = LikelihoodView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault, or an axle that is not fully stated", body = Problem)
))]
pub(super) async fn likelihood(
    State(store): State<Store>,
    Id(id): Id,
    Body(request): Body<LikelihoodRequest>,
) -> Result<Json<LikelihoodView>, ApiError> {
    let (job, context) = in_context(&store, id).await?;
    crate::off_thread(move || request.answer(&job.content, &context).map(Json)).await?
}
