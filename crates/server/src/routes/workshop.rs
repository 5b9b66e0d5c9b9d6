//! Brakes, profiles and trial fits.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::header;
use axum::response::{IntoResponse, Response};
use exchange::profile;
use fitment::brake::Limits;
use fitment::needs::Needs;
use fitment::setup::Axle;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use store::{Store, StoreError, house, jobs, workshop};
use utoipa::{IntoParams, ToSchema};

use crate::Shop;
use crate::brake_sweep::Ask;
use crate::extract::{Body, Id, Params, Upload};
use crate::photo;
use crate::problem::{ApiError, FieldError, Problem};
use crate::routes::judge::today;
use crate::wire::AxleCode;
use crate::wire::bench::{Ground, Known, bay_of};
use crate::wire::brake_bench::{BrakeBench, BrakeBenchRequest, CatalogueWheels};
use crate::wire::brakes::{BrakesRequest, BrakesView};
use crate::wire::profiles::{ProfileOut, SheetQuery, SheetView, WheelTemplateView};
use crate::wire::trials::{TrialsView, conclusions};
use crate::wire::workshop::package_of;

/// A wheel over a caliper: gaps, verdict, and what spacers do.
#[utoipa::path(post, path = "/brakes", request_body = BrakesRequest, tag = "brakes", responses(
    (status = 200, description = "the gaps", body = BrakesView),
    (status = 422, description = "points that are no profile", body = Problem)
))]
pub(super) async fn brakes(
    State(store): State<Store>,
    Body(request): Body<BrakesRequest>,
) -> Result<Json<BrakesView>, ApiError> {
    let house = store.read(house::get).await?;
    Ok(Json(request.answer(Limits::from(&house.content.limits))?))
}

/// A job as it is, on the ground it is judged on.
async fn on_ground(store: &Store, id: i64) -> Result<(jobs::Job, Ground), ApiError> {
    let (job, house) = store.read(move |c| Ok((jobs::get(c, id)?, house::get(c)?))).await?;
    let bay = bay_of(&Known::from(&job.content));
    Ok((job, Ground { limits: house.content.limits, today: today(), bay, kept: Vec::new() }))
}

/// A wheel over a job's brakes.
#[utoipa::path(post, path = "/jobs/{id}/brakes", params(("id" = i64, Path)), request_body = BrakeBenchRequest, tag = "brakes", responses(
    (status = 200, description = "the wheel over the brakes", body = BrakeBench),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn job_brakes(
    State(store): State<Store>,
    Id(id): Id,
    Body(request): Body<BrakeBenchRequest>,
) -> Result<Json<BrakeBench>, ApiError> {
    let (job, ground) = on_ground(&store, id).await?;
    let templates = store.read(workshop::wheel_templates).await?;
    Ok(Json(request.judge(&job.content, &ground, &templates)?))
}

/// Which brakes the catalogue is held against.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(super) struct WheelsQuery {
    /// `front` or `rear`.
    axle: AxleCode,
    /// Against the profiles of a planned upgrade.
    #[serde(default)]
    planned_brakes: bool,
    /// A word by which its progress can be asked for meanwhile.
    #[serde(default)]
    ticket: Option<String>,
}

/// Wheels told at most.
const MOST_WHEELS: usize = 2000;

/// The catalogue's wheels over a job's brakes.
#[utoipa::path(get, path = "/jobs/{id}/brakes/wheels", params(("id" = i64, Path), WheelsQuery), tag = "brakes", responses(
    (status = 200, description = "the wheels", body = CatalogueWheels),
    (status = 404, description = "no such job", body = Problem)
))]
pub(super) async fn brake_wheels(
    State(shop): State<Shop>,
    Id(id): Id,
    Params(query): Params<WheelsQuery>,
) -> Result<Json<CatalogueWheels>, ApiError> {
    let (job, ground) = on_ground(&shop.store, id).await?;
    let templates = shop.store.read(workshop::wheel_templates).await?;
    let loaded = shop.shelf.loaded(&shop.store).await?;
    let axle = Axle::from(query.axle);
    let ask = Ask {
        package: package_of(&job.content.workshop, axle, query.planned_brakes).0,
        axle,
        needs: Needs::of(&job.content.measurements.car, &job.content.fitted),
        limits: Limits::from(&ground.limits),
        templates,
    };
    let ticket = shop.progress.of(query.ticket.as_deref());
    let sweeps = shop.sweeps.clone();
    let found = tokio::task::spawn_blocking(move || sweeps.of(&ask, &loaded, &ticket)).await;
    let found = found.map_err(|_| ApiError::Store(StoreError::Panicked))?;
    Ok(Json(CatalogueWheels {
        total: found.len(),
        wheels: found.iter().take(MOST_WHEELS).cloned().collect(),
    }))
}

/// Read a drawing: its layers, and the profile that each makes.
#[utoipa::path(post, path = "/profiles/read", params(SheetQuery), tag = "brakes",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 200, description = "what is drawn in it", body = SheetView),
    (status = 413, description = "too large", body = Problem),
    (status = 422, description = "no drawing that can be read", body = Problem)
))]
pub(super) async fn read_profile(
    Params(query): Params<SheetQuery>,
    Upload(bytes): Upload,
) -> Result<Json<SheetView>, ApiError> {
    let unit = query.unit()?;
    let read = tokio::task::spawn_blocking(move || profile::read(&bytes)).await;
    let sheet = read
        .map_err(|_| ApiError::Store(StoreError::Panicked))?
        .map_err(|error| ApiError::Unprocessable(vec![FieldError::new("", error.to_string())]))?;
    Ok(Json(SheetView::new(&sheet, unit)))
}

/// Write a profile as DXF, SVG or CSV, or as a card template at true scale (PDF).
#[utoipa::path(post, path = "/profiles/write", request_body = ProfileOut, tag = "brakes", responses(
    (status = 200, description = "the file", body = Vec<u8>, content_type = "application/octet-stream"),
    (status = 422, description = "points that are no profile", body = Problem)
))]
pub(super) async fn write_profile(Body(request): Body<ProfileOut>) -> Result<Response, ApiError> {
    let read = request.read()?;
    let written = match read.out {
        Some(out) => profile::write(&[(request.name.as_str(), &read.points)], out),
        None => profile::card_template(&request.name, std::slice::from_ref(&request.note), &read.points),
    };
    let bytes =
        written.map_err(|error| ApiError::Unprocessable(vec![FieldError::new("", error.to_string())]))?;
    let name = format!("attachment; filename=\"profile.{}\"", request.format);
    Ok(([(header::CONTENT_TYPE, read.media_type.to_owned()), (header::CONTENT_DISPOSITION, name)], bytes)
        .into_response())
}

/// The insides of wheels that were measured.
#[utoipa::path(get, path = "/wheel-templates", tag = "brakes", responses(
    (status = 200, description = "by line and size", body = Vec<WheelTemplateView>)
))]
pub(super) async fn wheel_templates(
    State(store): State<Store>,
) -> Result<Json<Vec<WheelTemplateView>>, ApiError> {
    let all = store.read(workshop::wheel_templates).await?;
    Ok(Json(all.into_iter().map(WheelTemplateView::from).collect()))
}

/// Keep the inside of a wheel; an earlier one of its line and size is replaced.
#[utoipa::path(put, path = "/wheel-templates", request_body = WheelTemplateView, tag = "brakes", responses(
    (status = 200, description = "as it is kept", body = WheelTemplateView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn put_wheel_template(
    State(store): State<Store>,
    Body(request): Body<WheelTemplateView>,
) -> Result<Json<WheelTemplateView>, ApiError> {
    let template = request.read()?;
    let kept = template.clone();
    store.write(move |tx| workshop::put_wheel_template(tx, &template, Timestamp::now())).await?;
    Ok(Json(kept.into()))
}

/// What a job's trials come to, and how what is at hand stands after them.
#[utoipa::path(get, path = "/jobs/{id}/trials", params(("id" = i64, Path)), tag = "trials", responses(
    (status = 200, description = "the conclusions", body = TrialsView),
    (status = 404, description = "no such job", body = Problem)
))]
pub(super) async fn trials(State(store): State<Store>, Id(id): Id) -> Result<Json<TrialsView>, ApiError> {
    let (job, ground) = on_ground(&store, id).await?;
    Ok(Json(conclusions(&job.content, &ground)))
}

/// A photo's number.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct PhotoView {
    /// By it a trial names the photo.
    id: i64,
}

/// Keep a photo with a job: JPEG or PNG, without place, time and device.
#[utoipa::path(post, path = "/jobs/{id}/photos", params(("id" = i64, Path)), tag = "trials",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 201, description = "its number", body = PhotoView),
    (status = 404, description = "no such job", body = Problem),
    (status = 413, description = "too large", body = Problem),
    (status = 422, description = "no photo", body = Problem)
))]
pub(super) async fn add_photo(
    State(store): State<Store>,
    Id(id): Id,
    Upload(bytes): Upload,
) -> Result<(axum::http::StatusCode, Json<PhotoView>), ApiError> {
    let (kind, bytes) = photo::stripped(&bytes)
        .map_err(|error| ApiError::Unprocessable(vec![FieldError::new("", error.to_string())]))?;
    let id = store.write(move |tx| workshop::add_photo(tx, id, kind, &bytes, Timestamp::now())).await?;
    Ok((axum::http::StatusCode::CREATED, Json(PhotoView { id })))
}

/// A job's photo.
#[utoipa::path(get, path = "/jobs/{id}/photos/{photo}", params(("id" = i64, Path), ("photo" = i64, Path)), tag = "trials", responses(
    (status = 200, description = "the picture", body = Vec<u8>, content_type = "image/jpeg"),
    (status = 404, description = "no such photo", body = Problem)
))]
pub(super) async fn get_photo(
    State(store): State<Store>,
    path: Result<Path<(i64, i64)>, axum::extract::rejection::PathRejection>,
) -> Result<Response, ApiError> {
    let Path((job, id)) = path.map_err(|_| ApiError::NoSuchPath)?;
    let (kind, bytes) = store.read(move |c| workshop::photo(c, job, id)).await?;
    Ok(([(header::CONTENT_TYPE, kind)], bytes).into_response())
}
