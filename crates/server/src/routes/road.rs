//! Road and track for scripts.

use app::catalogue::CatalogueCache;
use axum::Json;
use axum::extract::State;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use exchange::table::{Format, Place};
use store::{Store, clubs, jobs};

use super::clubs::this_day;
use super::workshop::in_context;
use crate::extract::{Body, Id, Upload};
use crate::problem::{ApiError, FieldError, Problem};
use crate::sandbox::Reader;
use crate::wire::club::{ClassAnswer, ClassRequest, at_hand};
use crate::wire::road::{
    HotPressureRequest, HotPressureView, LoadsRequest, LoadsView, RoadRequest, RoadView, WearRequest,
    WearView,
};
use crate::wire::road_sheet::{RoadSheet, RoadSheetView};
use crate::wire::seasons::{NextStepView, TireLog};
use crate::wire::tread_log;

/// A job's road and track sheet worked out: dial, gears, corner loads, cold pressures, its class, its tires' seasons.
#[utoipa::path(post, path = "/jobs/{id}/road", params(("id" = i64, Path)), request_body = RoadSheet, tag = "road", responses(
    (status = 200, description = "what it comes to; what nobody typed is left out", body = RoadSheetView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn sheet(
    State(store): State<Store>,
    Id(id): Id,
    Body(sheet): Body<RoadSheet>,
) -> Result<Json<RoadSheetView>, ApiError> {
    let (job, context) = in_context(&store, id).await?;
    let today = this_day();
    let clubs = at_hand(store.read(clubs::list).await?, today);
    crate::off_thread(move || sheet.answer(&job.content, &context, &clubs, today).map(Json)).await?
}

/// What to buy next for the class: by the log's wear, the gap to the leaders, and the lists' prices.
#[utoipa::path(post, path = "/jobs/{id}/road/next-step", params(("id" = i64, Path)), request_body = RoadSheet, tag = "road", responses(
    (status = 200, description = "the steps, in order", body = NextStepView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn next_step(
    State(store): State<Store>,
    State(shelf): State<CatalogueCache>,
    Id(id): Id,
    Body(sheet): Body<RoadSheet>,
) -> Result<Json<NextStepView>, ApiError> {
    let (job, context) = in_context(&store, id).await?;
    let loaded = shelf.loaded(&store).await?;
    crate::off_thread(move || sheet.next_step(&job.content, &context, &loaded.catalogue.tires).map(Json))
        .await?
}

/// A job's tread log as a table, a reading a row.
#[utoipa::path(get, path = "/jobs/{id}/road/tread-log.csv", params(("id" = i64, Path)), tag = "road", responses(
    (status = 200, description = "the file", content((String = "text/csv"))),
    (status = 404, description = "no such job", body = Problem)
))]
pub(super) async fn tread_log_out(State(store): State<Store>, Id(id): Id) -> Result<Response, ApiError> {
    let job = store.read(move |c| jobs::get(c, id)).await?;
    let sheet = job.content.road.as_deref().map_or_else(|| Ok(RoadSheet::default()), RoadSheet::of_kept);
    let sheet = sheet.map_err(|error| ApiError::Unprocessable(vec![FieldError::new("/road", error.why)]))?;
    let bytes = tread_log::table(&sheet.tires).write(Format::Csv).map_err(|error| {
        ApiError::Unprocessable(vec![crate::problem::FieldError::new("", error.to_string())])
    })?;
    let head = [
        (header::CONTENT_TYPE, Format::Csv.media_type().to_owned()),
        (header::CONTENT_DISPOSITION, format!("attachment; filename=\"tread-log-{id}.csv\"")),
    ];
    Ok((head, bytes).into_response())
}

/// A table read as tires with their seasons. Nothing is kept: they are put on a sheet by whoever asked.
#[utoipa::path(post, path = "/road/tread-log", tag = "road",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 200, description = "the tires", body = Vec<TireLog>),
    (status = 413, description = "too large", body = Problem),
    (status = 422, description = "no table, or a cell at fault with its line", body = Problem)
))]
pub(super) async fn tread_log_in(
    State(reader): State<Reader>,
    Upload(bytes): Upload,
) -> Result<Json<Vec<TireLog>>, ApiError> {
    let table = reader.table(bytes, Place { header_row: Some(1), ..Place::default() }).await?;
    crate::off_thread(move || tread_log::tires(&table).map(Json)).await?
}

/// What a plan does once it rolls: dial, gears, crawl and pull.
#[utoipa::path(post, path = "/road", request_body = RoadRequest, tag = "road", responses(
    (status = 200, description = "the gearing", body = RoadView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn road(Body(request): Body<RoadRequest>) -> Result<Json<RoadView>, ApiError> {
    request.answer().map(Json)
}

/// What each wheel carries in a corner, under braking, with downforce.
#[utoipa::path(post, path = "/track/loads", request_body = LoadsRequest, tag = "road", responses(
    (status = 200, description = "the loads", body = LoadsView),
    (status = 422, description = "a figure that no car has", body = Problem)
))]
pub(super) async fn loads(Body(request): Body<LoadsRequest>) -> Result<Json<LoadsView>, ApiError> {
    request.answer().map(Json)
}

/// A cold pressure hot, or a hot one cold.
#[utoipa::path(post, path = "/track/pressure", request_body = HotPressureRequest, tag = "road", responses(
    (status = 200, description = "the other pressure", body = HotPressureView),
    (status = 422, description = "a figure at fault", body = Problem)
))]
pub(super) async fn hot_pressure(
    Body(request): Body<HotPressureRequest>,
) -> Result<Json<HotPressureView>, ApiError> {
    request.answer().map(Json)
}

/// What a class says of a plan, clause by clause, and the most that it allows.
#[utoipa::path(post, path = "/classes/judge", request_body = ClassRequest, tag = "road", responses(
    (status = 200, description = "the class", body = ClassAnswer),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn judge_class(Body(request): Body<ClassRequest>) -> Result<Json<ClassAnswer>, ApiError> {
    request.answer().map(Json)
}

/// How a tire wears, and what is left of it.
#[utoipa::path(post, path = "/tread/wear", request_body = WearRequest, tag = "road", responses(
    (status = 200, description = "rate, what is left, and the pattern", body = WearView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn tread_wear(Body(request): Body<WearRequest>) -> Result<Json<WearView>, ApiError> {
    request.answer().map(Json)
}
