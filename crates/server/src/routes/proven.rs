//! Proven fits: searched, brought, taken along, and left by finished jobs.

use axum::Json;
use axum::extract::State;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use exchange::proven::{ProvenFault, fit, record, records, table};
use exchange::{Format, Table};
use jiff::Timestamp;
use serde::Deserialize;
use store::{Store, jobs, proven};
use utoipa::IntoParams;

use crate::extract::{Body, Id, Params, Upload};
use crate::problem::{ApiError, FieldError, Problem};
use crate::wire::proven::{
    ProvenBrought, ProvenFaultView, ProvenFromJob, ProvenLibrary, ProvenQuery, library,
};

/// The library, ordered by how like and how near the fits are to a job.
#[utoipa::path(get, path = "/proven", params(ProvenQuery), tag = "proven", responses(
    (status = 200, description = "the fits and their envelope", body = ProvenLibrary),
    (status = 404, description = "no such job", body = Problem)
))]
pub(super) async fn find(
    State(store): State<Store>,
    Params(query): Params<ProvenQuery>,
) -> Result<Json<ProvenLibrary>, ApiError> {
    let job = query.job;
    let (rows, job) =
        store.read(move |c| Ok((proven::all(c)?, job.map(|id| jobs::get(c, id)).transpose()?))).await?;
    Ok(Json(library(&rows, &query, job.as_ref().map(|job| &job.content))))
}

/// A finished job's plan becomes a proven fit.
#[utoipa::path(post, path = "/jobs/{id}/proven", params(("id" = i64, Path)), request_body = ProvenFromJob, tag = "proven", responses(
    (status = 200, description = "what it did", body = ProvenBrought),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "no plan, or a field at fault", body = Problem)
))]
pub(super) async fn from_job(
    State(store): State<Store>,
    Id(id): Id,
    Body(request): Body<ProvenFromJob>,
) -> Result<Json<ProvenBrought>, ApiError> {
    let job = store.read(move |c| jobs::get(c, id)).await?;
    let year = i32::from(jiff::Zoned::now().year());
    let (key, record) = request.fit(&job.content, year)?;
    let is_new = store.write(move |tx| proven::add(tx, &key, &record, Some(id), Timestamp::now())).await?;
    Ok(Json(ProvenBrought { new: usize::from(is_new), known: usize::from(!is_new), faults: Vec::new() }))
}

/// Bring fits of other shops, as CSV, XLSX or JSON; those that are there already are recognised.
#[utoipa::path(post, path = "/proven", tag = "proven",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 200, description = "what it did", body = ProvenBrought),
    (status = 413, description = "too large", body = Problem),
    (status = 422, description = "no table that can be read", body = Problem)
))]
pub(super) async fn bring_proven(
    State(store): State<Store>,
    Upload(bytes): Upload,
) -> Result<Json<ProvenBrought>, ApiError> {
    let table = Table::read(&bytes)
        .map_err(|error| ApiError::Unprocessable(vec![FieldError::new("", error.to_string())]))?;
    let mut brought = ProvenBrought { new: 0, known: 0, faults: Vec::new() };
    let mut sound = Vec::new();
    for (at, row) in records(&table).iter().enumerate() {
        match fit(row) {
            Ok(fit) => sound.push((fit.key(), record(&fit))),
            Err(faults) => brought.faults.extend(faults.into_iter().map(|ProvenFault { column, why }| {
                ProvenFaultView { row: at + 2, column, says: format!("{column}: {why}") }
            })),
        }
    }
    let (new, known) = store
        .write(move |tx| {
            let (mut new, mut known) = (0, 0);
            for (key, record) in &sound {
                match proven::add(tx, key, record, None, Timestamp::now())? {
                    true => new += 1,
                    false => known += 1,
                }
            }
            Ok((new, known))
        })
        .await?;
    (brought.new, brought.known) = (new, known);
    Ok(Json(brought))
}

/// Take a fit out of the library.
#[utoipa::path(delete, path = "/proven/{id}", params(("id" = i64, Path)), tag = "proven", responses(
    (status = 204, description = "it is out"),
    (status = 404, description = "no such fit", body = Problem)
))]
pub(super) async fn remove_proven(
    State(store): State<Store>,
    Id(id): Id,
) -> Result<axum::http::StatusCode, ApiError> {
    store.write(move |tx| proven::remove(tx, id)).await?;
    Ok(axum::http::StatusCode::NO_CONTENT)
}

/// In which format.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(super) struct ExportQuery {
    /// `csv` (default) or `json`.
    #[serde(default)]
    format: Option<String>,
}

/// The library as a file.
#[utoipa::path(get, path = "/proven/export", params(ExportQuery), tag = "proven", responses(
    (status = 200, description = "the file", body = Vec<u8>, content_type = "application/octet-stream"),
    (status = 422, description = "no such format", body = Problem)
))]
pub(super) async fn export_proven(
    State(store): State<Store>,
    Params(query): Params<ExportQuery>,
) -> Result<Response, ApiError> {
    let refused = |detail: String| ApiError::Unprocessable(vec![FieldError::new("format", detail)]);
    let (format, name) = match query.format.as_deref() {
        None | Some("csv") => (Format::Csv, "csv"),
        Some("json") => (Format::Json, "json"),
        Some(other) => return Err(refused(format!("{other:?} is not csv or json"))),
    };
    let rows = store.read(proven::all).await?;
    let records: Vec<_> = rows.into_iter().map(|row| row.record).collect();
    let bytes = table(&records).write(format).map_err(|error| refused(error.to_string()))?;
    let name = format!("attachment; filename=\"proven-fits.{name}\"");
    Ok(([(header::CONTENT_TYPE, format.media_type().to_owned()), (header::CONTENT_DISPOSITION, name)], bytes)
        .into_response())
}
