//! Brakes, profiles and trial fits.

use app::brake_sweep::SweepQuestion;
use app::{JobKnowledge, JudgingContext};
use axum::Json;
use axum::extract::State;
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use exchange::profile;
use fitment::car::brake::Limits;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use store::{Store, house, identity, jobs, once, workshop};
use utoipa::{IntoParams, ToSchema};

use crate::AppState;
use crate::extract::{Body, Id, KeyedUpload, Params, TwoIds, Upload};
use crate::photo::Picture;
use crate::problem::{ApiError, FieldError, Problem};
use crate::routes::judge::today;
use crate::sandbox::Reader;
use crate::tagged::IfMatch;
use crate::wire::AxleCode;
use crate::wire::brake_bench::{BrakeBench, BrakeBenchRequest, CatalogueWheel, CatalogueWheels};
use crate::wire::brakes::{BrakesRequest, BrakesView};
use crate::wire::profiles::{ProfileOut, SheetQuery, SheetView, WheelTemplateView};
use crate::wire::trials::{TrialsView, conclusions};

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
    crate::off_thread(move || request.answer(Limits::from(&house.content.limits)).map(Json)).await?
}

/// A job as it is, and what it is judged by.
pub(super) async fn in_context(store: &Store, id: i64) -> Result<(jobs::Job, JudgingContext), ApiError> {
    let read = move |c: &_| Ok((jobs::get(c, id)?, workshop::wheel_templates(c)?, house::get(c)?));
    let (job, insides, house) = store.read(read).await?;
    let knowledge = JobKnowledge::of(&job.content, insides);
    Ok((job, JudgingContext::of(&knowledge, house.content.limits, today())))
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
    let (job, context) = in_context(&store, id).await?;
    crate::off_thread(move || request.judge(&job.content, &context).map(Json)).await?
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
    State(shop): State<AppState>,
    Id(id): Id,
    Params(query): Params<WheelsQuery>,
) -> Result<Json<CatalogueWheels>, ApiError> {
    let (job, context) = in_context(&shop.store, id).await?;
    let loaded = shop.shelf.loaded(&shop.store).await?;
    let question = SweepQuestion { axle: query.axle.into(), planned_brakes: query.planned_brakes };
    let ticket = shop.progress.of(query.ticket.as_deref());
    let sweeps = shop.sweeps.clone();
    let found =
        crate::off_thread(move || sweeps.of(question, &job.content, &context, &loaded, &ticket)).await?;
    Ok(Json(CatalogueWheels {
        total: found.len(),
        wheels: found.iter().take(MOST_WHEELS).map(CatalogueWheel::from).collect(),
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
    State(reader): State<Reader>,
    Params(query): Params<SheetQuery>,
    Upload(bytes): Upload,
) -> Result<Json<SheetView>, ApiError> {
    let unit = query.unit()?;
    let sheet = reader.drawing(bytes, unit).await?;
    Ok(Json(SheetView::new(sheet, unit)))
}

/// Write a profile as DXF, SVG or CSV, or as a card template at true scale (PDF).
#[utoipa::path(post, path = "/profiles/write", request_body = ProfileOut, tag = "brakes", responses(
    (status = 200, description = "the file", content(
        (String = "image/vnd.dxf"), (String = "image/svg+xml"), (String = "text/csv"), (String = "application/pdf")
    )),
    (status = 422, description = "points that are no profile", body = Problem)
))]
pub(super) async fn write_profile(Body(request): Body<ProfileOut>) -> Result<Response, ApiError> {
    let read = request.read()?;
    let (media_type, format) = (read.media_type, request.format.clone());
    let written = crate::off_thread(move || match read.out {
        Some(out) => profile::write(&[(request.name.as_str(), &read.points)], out),
        None => profile::card_template(&request.name, std::slice::from_ref(&request.note), &read.points),
    });
    let bytes = written
        .await?
        .map_err(|error| ApiError::Unprocessable(vec![FieldError::new("", error.to_string())]))?;
    let name = format!("attachment; filename=\"profile.{format}\"");
    Ok(([(header::CONTENT_TYPE, media_type.to_owned()), (header::CONTENT_DISPOSITION, name)], bytes)
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
    let (job, context) = in_context(&store, id).await?;
    crate::off_thread(move || Json(conclusions(&job.content, &context))).await
}

/// A photo's number.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct PhotoView {
    /// By it a trial names the photo.
    id: i64,
}

/// Keep a photo with a job: JPEG, PNG or WebP. It is drawn anew, upright: nothing but the picture is kept.
#[utoipa::path(post, path = "/jobs/{id}/photos", params(("id" = i64, Path), ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), tag = "trials",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 201, description = "its number", body = PhotoView),
    (status = 404, description = "no such job", body = Problem),
    (status = 413, description = "too large", body = Problem),
    (status = 422, description = "no photo", body = Problem)
))]
pub(super) async fn add_photo(
    State(store): State<Store>,
    State(reader): State<Reader>,
    Id(job): Id,
    of: IfMatch,
    KeyedUpload { bytes, once: asked }: KeyedUpload,
) -> Result<(StatusCode, Json<PhotoView>), ApiError> {
    let Picture { media_type, bytes } = reader.photo(bytes).await?;
    let id = store
        .write(move |tx| {
            let now = Timestamp::now();
            once(tx, asked.as_ref(), now, || {
                identity::expect_job(tx, job, of.tags())?;
                workshop::add_photo(tx, job, &media_type, &bytes, now)
            })
        })
        .await?;
    Ok((StatusCode::CREATED, Json(PhotoView { id })))
}

/// A job's photo.
#[utoipa::path(get, path = "/jobs/{id}/photos/{photo}", params(("id" = i64, Path), ("photo" = i64, Path)), tag = "trials", responses(
    (status = 200, description = "the picture", content((String = "image/jpeg"), (String = "image/png"))),
    (status = 404, description = "no such photo", body = Problem)
))]
pub(super) async fn get_photo(
    State(store): State<Store>,
    State(reader): State<Reader>,
    TwoIds(job, id): TwoIds,
) -> Result<Response, ApiError> {
    let kept = store.read(move |c| workshop::photo(c, job, id)).await?;
    let (media_type, bytes) = if kept.is_clean {
        (kept.media_type, kept.bytes)
    } else {
        // An older program kept more of it than the picture: that never leaves this one.
        let Picture { media_type, bytes } = reader.photo(kept.bytes.into()).await?;
        let (kind, picture) = (media_type.clone(), bytes.clone());
        store.write(move |tx| workshop::clean_photo(tx, id, &kind, &picture)).await?;
        (media_type, bytes)
    };
    Ok(([(header::CONTENT_TYPE, media_type)], bytes).into_response())
}

/// Remove a photo for good, when no trial names it.
#[utoipa::path(delete, path = "/jobs/{id}/photos/{photo}", params(("id" = i64, Path), ("photo" = i64, Path)), tag = "trials", responses(
    (status = 204, description = "it is gone"),
    (status = 404, description = "no such photo", body = Problem),
    (status = 409, description = "a trial names it", body = Problem)
))]
pub(super) async fn remove_photo(
    State(store): State<Store>,
    TwoIds(job, id): TwoIds,
    of: IfMatch,
) -> Result<StatusCode, ApiError> {
    let removed = store.write(move |tx| {
        identity::expect_job(tx, job, of.tags())?;
        workshop::remove_photo(tx, job, id)
    });
    removed.await?;
    Ok(StatusCode::NO_CONTENT)
}
