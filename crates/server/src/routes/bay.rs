//! Readings, the gauge, and the cars the shop remembers.

use std::sync::Arc;

use axum::Json;
use axum::extract::State;
use store::{Store, house, jobs};

use crate::AppState;
use crate::extract::{Id, IdAndName, Keyed, Params};
use crate::gauge::GaugePort;
use crate::problem::{ApiError, Problem};
use crate::routes::jobs::change_job;
use crate::tagged::{IfMatch, Tagged};
use crate::wire::house::GaugeView;
use crate::wire::jobs::JobView;
use crate::wire::measured::{CarsQuery, CopyOver, KnownCar, NewReadings, SignedBy};
use crate::wire::registry::Registry;

/// Most cars of the shop's memory handed out at once.
const MOST_CARS: usize = 20;

/// Everything that is listed: parts, levers, limits, facts of a car, units.
#[utoipa::path(get, path = "/registry", tag = "bay", responses(
    (status = 200, description = "the registries", body = Registry)
))]
pub(super) async fn registry() -> Json<Registry> {
    Json(Registry::new())
}

/// What the gauge shows now.
#[utoipa::path(get, path = "/gauge", tag = "bay", responses(
    (status = 200, description = "its state and value", body = GaugeView)
))]
pub(super) async fn gauge(State(gauge): State<Arc<dyn GaugePort>>) -> Json<GaugeView> {
    Json(gauge.shown().into())
}

/// The cars the shop has had, each model once, the latest first.
#[utoipa::path(get, path = "/cars", params(CarsQuery), tag = "bay", responses(
    (status = 200, description = "the cars", body = Vec<KnownCar>)
))]
pub(super) async fn cars(
    State(store): State<Store>,
    Params(query): Params<CarsQuery>,
) -> Result<Json<Vec<KnownCar>>, ApiError> {
    let jobs = store.read(move |c| jobs::known_cars(c, &query.find, MOST_CARS)).await?;
    Ok(Json(jobs.into_iter().map(KnownCar::from).collect()))
}

/// Add readings. They never conflict with what was changed meanwhile; one sent twice is kept once.
#[utoipa::path(post, path = "/jobs/{id}/readings", request_body = NewReadings, params(("id" = i64, Path), ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), tag = "bay", responses(
    (status = 200, description = "the job with its readings", body = JobView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn add(
    State(shop): State<AppState>,
    Id(id): Id,
    of: IfMatch,
    Keyed { value: new, once }: Keyed<NewReadings>,
) -> Result<Tagged<JobView>, ApiError> {
    change_job(&shop, once, (id, of), move |tx, now| {
        let fitted = jobs::get(tx, id)?.content.fitted;
        let (readings, who) = new.read(&fitted, &house::get(tx)?.content.instruments, now)?;
        Ok(jobs::add_readings(tx, id, &readings, &who, now)?)
    })
    .await
}

/// Take a reading away; undo brings it back.
#[utoipa::path(delete, path = "/jobs/{id}/readings/{reading}", params(("id" = i64, Path), ("reading" = String, Path), SignedBy), tag = "bay", responses(
    (status = 200, description = "the job without it", body = JobView),
    (status = 404, description = "no such job", body = Problem)
))]
pub(super) async fn remove(
    State(shop): State<AppState>,
    IdAndName(id, reading): IdAndName,
    of: IfMatch,
    Params(by): Params<SignedBy>,
) -> Result<Tagged<JobView>, ApiError> {
    let who = by.who();
    change_job(&shop, None, (id, of), move |tx, now| Ok(jobs::remove_reading(tx, id, &reading, &who, now)?))
        .await
}

/// Write one side's readings over to the other, marked as copies.
#[utoipa::path(post, path = "/jobs/{id}/readings/copy", request_body = CopyOver, params(("id" = i64, Path), ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), tag = "bay", responses(
    (status = 200, description = "the job with the copies", body = JobView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "nothing to copy", body = Problem)
))]
pub(super) async fn copy(
    State(shop): State<AppState>,
    Id(id): Id,
    of: IfMatch,
    Keyed { value: over, once }: Keyed<CopyOver>,
) -> Result<Tagged<JobView>, ApiError> {
    let who: String = over.signed_by.chars().take(40).collect();
    change_job(&shop, once, (id, of), move |tx, now| {
        let copies = over.copies(&jobs::get(tx, id)?.content, now)?;
        Ok(jobs::add_readings(tx, id, &copies, &who, now)?)
    })
    .await
}
