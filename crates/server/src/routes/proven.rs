//! Proven fits: searched, brought, taken along, and left by finished jobs.

use axum::Json;
use axum::extract::State;
use axum::response::Response;
use exchange::proven::{COLUMNS, ProvenFault, ProvenRecord, fit, record, records, row};
use exchange::table::Place;
use exchange::{Format, Table};
use jiff::Timestamp;
use serde::Deserialize;
use store::proven::From;
use store::{Connection, Store, StoreError, identity, jobs, once, proven};
use utoipa::IntoParams;

use crate::download::{DiskWriter, Downloads};
use crate::extract::{Id, Keyed, KeyedUpload, Params};
use crate::problem::{ApiError, FieldError, Problem};
use crate::sandbox::Reader;
use crate::tagged::IfMatch;
use crate::wire::proven::{
    ProvenBrought, ProvenFaultView, ProvenFromJob, ProvenLibrary, ProvenQuery, RemovedFits, library,
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
    store
        .read(move |c| {
            let (rows, job) = (proven::all(c)?, job.map(|id| jobs::get(c, id)).transpose()?);
            let imports = proven::imports(c)?;
            Ok(Json(library(&rows, imports, &query, job.as_ref().map(|job| &job.content))))
        })
        .await
        .map_err(ApiError::from)
}

/// A finished job's plan becomes a proven fit.
#[utoipa::path(post, path = "/jobs/{id}/proven", params(("id" = i64, Path), ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), request_body = ProvenFromJob, tag = "proven", responses(
    (status = 200, description = "what it did", body = ProvenBrought),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "no plan, or a field at fault", body = Problem)
))]
pub(super) async fn from_job(
    State(store): State<Store>,
    Id(id): Id,
    of: IfMatch,
    Keyed { value: request, once: asked }: Keyed<ProvenFromJob>,
) -> Result<Json<ProvenBrought>, ApiError> {
    let is_new = store
        .write_or_refuse(move |tx| {
            let now = Timestamp::now();
            once(tx, asked.as_ref(), now, || {
                identity::expect(tx, id, of.tags())?;
                let year = i32::from(jiff::Zoned::now().year());
                let (key, record) = request.fit(&jobs::get(tx, id)?.content, year)?;
                let is_new = proven::add(tx, &key, &record, From::Job(id), now)?;
                proven::has_room(tx)?;
                Ok::<_, ApiError>(is_new)
            })
        })
        .await?;
    Ok(Json(ProvenBrought { new: usize::from(is_new), known: usize::from(!is_new), faults: Vec::new() }))
}

/// Bring fits of other shops, as CSV, XLSX or JSON; those that are there already are recognised.
#[utoipa::path(post, path = "/proven", params(FileQuery, ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), tag = "proven",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 200, description = "what it did", body = ProvenBrought),
    (status = 413, description = "too large", body = Problem),
    (status = 422, description = "no table that can be read", body = Problem)
))]
pub(super) async fn bring_proven(
    State(store): State<Store>,
    State(reader): State<Reader>,
    Params(query): Params<FileQuery>,
    KeyedUpload { bytes, once: asked }: KeyedUpload,
) -> Result<Json<ProvenBrought>, ApiError> {
    let table = reader.table(bytes, Place::default()).await?;
    let (sound, faults) = crate::off_thread(move || fits_in(&table)).await?;
    let name: String = query.file_name.trim().chars().take(200).collect();
    let (new, known) = store
        .write(move |tx| {
            let now = Timestamp::now();
            once(tx, asked.as_ref(), now, || {
                let from = From::Import(proven::begin_import(tx, &name, now)?);
                let mut new = 0;
                for (key, record) in &sound {
                    new += usize::from(proven::add(tx, key, record, from, now)?);
                }
                proven::has_room(tx)?;
                Ok::<_, StoreError>((new, sound.len() - new))
            })
        })
        .await?;
    Ok(Json(ProvenBrought { new, known, faults }))
}

/// A fit with the key by which it is recognised.
type KeyedFit = (String, ProvenRecord);

/// Faults told of one file at most.
const MOST_FAULTS: usize = 200;

fn fits_in(table: &Table) -> (Vec<KeyedFit>, Vec<ProvenFaultView>) {
    let (mut sound, mut faults) = (Vec::new(), Vec::new());
    for (at, row) in records(table).iter().enumerate() {
        match fit(row) {
            Ok(fit) => sound.push((fit.key(), record(&fit))),
            Err(found) if faults.len() < MOST_FAULTS => {
                faults.extend(found.into_iter().map(|ProvenFault { column, why }| ProvenFaultView {
                    row: at + 2,
                    column,
                    says: format!("{column}: {why}"),
                }));
            }
            Err(_) => {}
        }
    }
    (sound, faults)
}

/// Take everything that one file brought out of the library.
#[utoipa::path(delete, path = "/proven/imports/{id}", params(("id" = i64, Path)), tag = "proven", responses(
    (status = 200, description = "how many fits went", body = RemovedFits),
    (status = 404, description = "no such file", body = Problem)
))]
pub(super) async fn remove_import(
    State(store): State<Store>,
    Id(id): Id,
) -> Result<Json<RemovedFits>, ApiError> {
    let removed = store.write(move |tx| proven::remove_import(tx, id)).await?;
    Ok(Json(RemovedFits { removed }))
}

/// What a file is called.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(super) struct FileQuery {
    /// The name of the file.
    #[serde(default)]
    file_name: String,
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
    (status = 200, description = "the file", content((String = "text/csv"), (String = "application/json"))),
    (status = 422, description = "no such format", body = Problem)
))]
pub(super) async fn export_proven(
    State(store): State<Store>,
    State(downloads): State<Downloads>,
    Params(query): Params<ExportQuery>,
) -> Result<Response, ApiError> {
    let refused = |detail: String| ApiError::Unprocessable(vec![FieldError::new("format", detail)]);
    let (format, name) = match query.format.as_deref() {
        None | Some("csv") => (Format::Csv, "csv"),
        Some("json") => (Format::Json, "json"),
        Some(other) => return Err(refused(format!("{other:?} is not csv or json"))),
    };
    let begin = |_: &Connection| Ok(COLUMNS.map(str::to_owned).to_vec());
    let write = |c: &Connection, file: &mut DiskWriter| {
        for kept in proven::all(c)?.iter().filter(|kept| kept.damaged.is_none()) {
            file.row(&row(&kept.record))?;
        }
        Ok(())
    };
    downloads.table(&store, (format, format!("proven-fits.{name}")), begin, write).await
}
