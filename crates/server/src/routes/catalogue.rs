//! Price lists: brought, tried, taken, undone; the catalogue they make, and its export.

use std::collections::HashMap;

use axum::Json;
use axum::extract::State;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use exchange::field::Kind;
use exchange::{Mapping, Record, Table};
use jiff::Timestamp;
use store::catalogue::{self, Counts, PriceList};
use store::{Store, StoreError};

use crate::catalogue::{ReadList, read_list, record_of};
use crate::extract::{Body, Id, Params, Upload};
use crate::problem::{ApiError, FieldError, Problem};
use crate::wire::catalogue::{
    ListRequest, ListView, NewList, RowView, RowsQuery, RowsView, TriedList, UndoneList, field_entries,
};

/// Rows of one page.
const PAGE: usize = 100;

/// Bring a price list: it is kept and read, and nothing is taken yet.
#[utoipa::path(post, path = "/catalogue/lists", params(NewList), tag = "catalogue",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 200, description = "what taking it would do", body = TriedList),
    (status = 413, description = "too large", body = Problem),
    (status = 422, description = "no list that can be read", body = Problem)
))]
pub(super) async fn bring(
    State(store): State<Store>,
    Params(query): Params<NewList>,
    Upload(bytes): Upload,
) -> Result<Json<TriedList>, ApiError> {
    let (kind, supplier, file_name) = query.read()?;
    let table = table(bytes.to_vec()).await?;
    let now = Timestamp::now();
    let list =
        store.write(move |tx| catalogue::bring(tx, kind.code(), &supplier, &file_name, &bytes, now)).await?;
    tried(&store, list, kind, table, &ListRequest::default()).await
}

/// Try a list with another mapping: nothing is taken.
#[utoipa::path(post, path = "/catalogue/lists/{id}/try", params(("id" = i64, Path)), request_body = ListRequest, tag = "catalogue", responses(
    (status = 200, description = "what taking it would do", body = TriedList),
    (status = 404, description = "no such list", body = Problem)
))]
pub(super) async fn try_list(
    State(store): State<Store>,
    Id(id): Id,
    Body(request): Body<ListRequest>,
) -> Result<Json<TriedList>, ApiError> {
    let (list, kind, table) = brought(&store, id).await?;
    tried(&store, list, kind, table, &request).await
}

/// Take a list's sound rows, or with `all_or_nothing` none when any is at fault.
#[utoipa::path(post, path = "/catalogue/lists/{id}/take", params(("id" = i64, Path)), request_body = ListRequest, tag = "catalogue", responses(
    (status = 200, description = "what it did", body = TriedList),
    (status = 404, description = "no such list", body = Problem),
    (status = 409, description = "taken before", body = Problem),
    (status = 422, description = "rows at fault, and all or nothing was asked for", body = Problem)
))]
pub(super) async fn take(
    State(store): State<Store>,
    Id(id): Id,
    Body(request): Body<ListRequest>,
) -> Result<Json<TriedList>, ApiError> {
    let (list, kind, table) = brought(&store, id).await?;
    let (table, mapping, read, _) = read(&store, &list, kind, table, &request).await?;
    if request.all_or_nothing && !read.faults.is_empty() {
        let detail = format!("{} rows are at fault, and all or nothing was asked for", read.faults.len());
        return Err(ApiError::Unprocessable(vec![FieldError::new("/all_or_nothing", detail)]));
    }
    if read.rows.is_empty() {
        let detail = "no row of the list can be taken: look at the faults and at which column means what";
        return Err(ApiError::Unprocessable(vec![FieldError::new("/mapping", detail)]));
    }
    let headings = mapping.names(&table.header);
    let (read, counts, list) = store
        .write(move |tx| {
            let counts = catalogue::take(tx, id, &headings, &read.rows, Timestamp::now())?;
            Ok((read, counts, catalogue::list(tx, id)?))
        })
        .await?;
    Ok(Json(TriedList::new(list, kind, &table, &mapping, &read, counts)))
}

/// Undo a taken list.
#[utoipa::path(post, path = "/catalogue/lists/{id}/undo", params(("id" = i64, Path)), tag = "catalogue", responses(
    (status = 200, description = "what went back", body = UndoneList),
    (status = 404, description = "no such list", body = Problem),
    (status = 409, description = "not taken", body = Problem)
))]
pub(super) async fn undo_list(State(store): State<Store>, Id(id): Id) -> Result<Json<UndoneList>, ApiError> {
    let ((back, left), list) =
        store.write(move |tx| Ok((catalogue::undo(tx, id)?, catalogue::list(tx, id)?))).await?;
    Ok(Json(UndoneList { list: list.into(), back, left }))
}

/// The price lists, the latest first.
#[utoipa::path(get, path = "/catalogue/lists", tag = "catalogue", responses(
    (status = 200, description = "the lists", body = Vec<ListView>)
))]
pub(super) async fn lists(State(store): State<Store>) -> Result<Json<Vec<ListView>>, ApiError> {
    Ok(Json(store.read(catalogue::lists).await?.into_iter().map(ListView::from).collect()))
}

/// What can be ordered.
#[utoipa::path(get, path = "/catalogue/rows", params(RowsQuery), tag = "catalogue", responses(
    (status = 200, description = "a page of rows", body = RowsView)
))]
pub(super) async fn rows(
    State(store): State<Store>,
    Params(query): Params<RowsQuery>,
) -> Result<Json<RowsView>, ApiError> {
    let kind = query.kind()?;
    let (total, rows) =
        store.read(move |c| catalogue::rows(c, kind.code(), &query.find, query.from, PAGE)).await?;
    let rows = rows.into_iter().map(RowView::from).collect();
    Ok(Json(RowsView { total, rows, fields: field_entries(kind) }))
}

/// The catalogue as a file.
#[utoipa::path(get, path = "/catalogue/export", params(RowsQuery), tag = "catalogue", responses(
    (status = 200, description = "the file", body = Vec<u8>, content_type = "application/octet-stream")
))]
pub(super) async fn export(
    State(store): State<Store>,
    Params(query): Params<RowsQuery>,
) -> Result<Response, ApiError> {
    let (kind, format) = (query.kind()?, query.format()?);
    let bytes = store
        .read(move |c| {
            let rows = catalogue::all(c, kind.code())?;
            let records: Vec<Record> = rows.iter().map(|row| record_of(&row.record)).collect();
            Ok(Record::table(&records).write(format))
        })
        .await?
        .map_err(|error| ApiError::Unprocessable(vec![FieldError::new("", error.to_string())]))?;
    let name =
        format!("attachment; filename=\"{}.{}\"", kind.code(), query.format.as_deref().unwrap_or("csv"));
    Ok(([(header::CONTENT_TYPE, format.media_type().to_owned()), (header::CONTENT_DISPOSITION, name)], bytes)
        .into_response())
}

/// Reading a file takes its time: off the async threads.
async fn table(bytes: Vec<u8>) -> Result<Table, ApiError> {
    let read = tokio::task::spawn_blocking(move || Table::read(&bytes)).await;
    read.map_err(|_| ApiError::Store(StoreError::Panicked))?
        .map_err(|error| ApiError::Unprocessable(vec![FieldError::new("", error.to_string())]))
}

async fn brought(store: &Store, id: i64) -> Result<(PriceList, Kind, Table), ApiError> {
    let (list, bytes) = store.read(move |c| Ok((catalogue::list(c, id)?, catalogue::bytes(c, id)?))).await?;
    let kind = Kind::from_code(&list.kind).unwrap_or(Kind::Wheels);
    Ok((list, kind, table(bytes).await?))
}

type Known = HashMap<String, (i64, catalogue::Fields)>;

/// The list read by the mapping that was given, remembered, or recognised; and what is known of the supplier's rows.
async fn read(
    store: &Store,
    list: &PriceList,
    kind: Kind,
    table: Table,
    request: &ListRequest,
) -> Result<(Table, Mapping, ReadList, Known), ApiError> {
    let supplier = list.supplier.clone();
    let (remembered, known) = store
        .read(move |c| {
            let remembered = catalogue::mapping(c, &supplier, kind.code())?;
            Ok((remembered, catalogue::known(c, kind.code(), &supplier)?))
        })
        .await?;
    let mapping = match request.mapping.as_ref().or(remembered.as_ref()) {
        Some(names) => Mapping::by_names(names, &table.header),
        None => Mapping::guessed(&table.header, kind),
    };
    let done = tokio::task::spawn_blocking(move || {
        let read = read_list(&table, kind, &mapping);
        (table, mapping, read, known)
    });
    done.await.map_err(|_| ApiError::Store(StoreError::Panicked))
}

async fn tried(
    store: &Store,
    list: PriceList,
    kind: Kind,
    table: Table,
    request: &ListRequest,
) -> Result<Json<TriedList>, ApiError> {
    let (table, mapping, read, known) = read(store, &list, kind, table, request).await?;
    let counts: Counts = catalogue::compared(&known, &read.rows);
    Ok(Json(TriedList::new(list, kind, &table, &mapping, &read, counts)))
}
