//! Price lists: brought, tried, taken, undone; the catalogue they make, and its export.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::{Arc, OnceLock};

use axum::Json;
use axum::extract::{Path, State};
use axum::response::Response;
use exchange::field::Kind;
use exchange::habits::{self, Habits};
use exchange::table::Place;
use exchange::{Field, Mapping, Table};
use jiff::Timestamp;
use store::catalogue::{self, Counts, PriceList};
use store::{Connection, Store, StoreError, once};

use crate::AppState;
use crate::download::{DiskWriter, Downloads};
use crate::extract::{Body, Id, Keyed, KeyedUpload, Params};
use crate::price_list::{Progress, ReadTable, Ticket, read_list};
use crate::problem::{ApiError, FieldError, Problem};
use crate::tagged::{IfMatch, Tagged};
use crate::wire::catalogue::{
    ListRequest, ListView, NewList, ProgressView, RowView, RowsQuery, RowsView, TriedList, UndoneList,
    field_entries,
};
use app::catalogue::record_of;

/// Rows of one page.
const PAGE: usize = 100;

/// Bring a price list: it is kept and read, and nothing is taken yet.
#[utoipa::path(post, path = "/catalogue/lists", params(NewList, ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), tag = "catalogue",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 200, description = "what taking it would do", body = TriedList),
    (status = 413, description = "too large", body = Problem),
    (status = 422, description = "no list that can be read", body = Problem)
))]
pub(super) async fn bring(
    State(shop): State<AppState>,
    Params(query): Params<NewList>,
    KeyedUpload { bytes, once: asked }: KeyedUpload,
) -> Result<Json<TriedList>, ApiError> {
    let (kind, supplier, file_name) = query.read()?;
    let ticket = shop.progress.of(query.ticket.as_deref());
    let said = shop.store.read({
        let supplier = supplier.clone();
        move |c| catalogue::mapping(c, &supplier, kind.code())
    });
    let place = place_of(said.await?.as_ref());
    let table = shop.reader.table(bytes.clone(), place).await?;
    let list = shop
        .store
        .write(move |tx| {
            let now = Timestamp::now();
            let id = once(tx, asked.as_ref(), now, || {
                Ok::<_, StoreError>(catalogue::bring(tx, kind.code(), &supplier, &file_name, &bytes, now)?.id)
            })?;
            catalogue::list(tx, id)
        })
        .await?;
    tried(&shop, list, kind, table, None, ticket).await
}

/// Try a list with another mapping: nothing is taken.
#[utoipa::path(post, path = "/catalogue/lists/{id}/try", params(("id" = i64, Path)), request_body = ListRequest, tag = "catalogue", responses(
    (status = 200, description = "what taking it would do", body = TriedList),
    (status = 404, description = "no such list", body = Problem),
    (status = 409, description = "its file was removed", body = Problem)
))]
pub(super) async fn try_list(
    State(shop): State<AppState>,
    Id(id): Id,
    Body(request): Body<ListRequest>,
) -> Result<Json<TriedList>, ApiError> {
    let ticket = shop.progress.of(request.ticket.as_deref());
    let (list, kind, table) = brought(&shop, id, request.mapping.as_ref()).await?;
    tried(&shop, list, kind, table, request.mapping, ticket).await
}

/// Take a list's sound rows, or with `all_or_nothing` none when any is at fault.
#[utoipa::path(post, path = "/catalogue/lists/{id}/take", params(("id" = i64, Path), ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), request_body = ListRequest, tag = "catalogue", responses(
    (status = 200, description = "what it did", body = TriedList),
    (status = 404, description = "no such list", body = Problem),
    (status = 409, description = "taken before, or its file was removed", body = Problem),
    (status = 422, description = "rows at fault, and all or nothing was asked for", body = Problem)
))]
pub(super) async fn take(
    State(shop): State<AppState>,
    Id(id): Id,
    of: IfMatch,
    Keyed { value: request, once: asked }: Keyed<ListRequest>,
) -> Result<Json<TriedList>, ApiError> {
    let ticket = Arc::new(shop.progress.of(request.ticket.as_deref()));
    let (kind, read) = match shop.last_read.of(id, request.mapping.as_ref()) {
        Some(read) => {
            let list = shop.store.read(move |c| catalogue::list(c, id)).await?;
            (kind_of(&list), read)
        }
        None => {
            let (list, kind, table) = brought(&shop, id, request.mapping.as_ref()).await?;
            (kind, read(&shop.store, &list, kind, table, request.mapping, Arc::clone(&ticket)).await?)
        }
    };
    let faults = read.list.faults.len();
    if request.all_or_nothing && faults > 0 {
        let detail = format!("{faults} rows are at fault, and all or nothing was asked for");
        return Err(ApiError::Unprocessable(vec![FieldError::new("/all_or_nothing", detail)]));
    }
    if let Some(question) = read.questions.first() {
        let pointer = format!("/mapping/{}", question.code);
        return Err(ApiError::Unprocessable(vec![FieldError::new(&pointer, question.asks.clone())]));
    }
    if read.list.rows.is_empty() {
        let detail = "no row of the list can be taken: look at the faults and at which column means what";
        return Err(ApiError::Unprocessable(vec![FieldError::new("/mapping", detail)]));
    }
    let rows = Arc::clone(&read);
    let (counts, list) = shop
        .store
        .write(move |tx| {
            let all = rows.list.rows.len();
            let told = |done| ticket.tell("writing", done, all);
            let now = Timestamp::now();
            let (new, changed, unchanged) = once(tx, asked.as_ref(), now, || {
                catalogue::expect(tx, id, of.tags())?;
                let Counts { new, changed, unchanged } =
                    catalogue::take(tx, id, &rows.mapping, &rows.list.rows, now, &told)?;
                Ok::<_, StoreError>((new, changed, unchanged))
            })?;
            Ok((Counts { new, changed, unchanged }, catalogue::list(tx, id)?))
        })
        .await?;
    shop.last_read.forget();
    // Somebody will search it: the catalogue is loaded while they turn to the finder. What fails is said to who searches.
    tokio::spawn(async move { shop.shelf.loaded(&shop.store).await.map(drop) });
    Ok(Json(TriedList::new(list, kind, &read, counts)))
}

/// How far a list under way has come, by the ticket its sender drew.
#[utoipa::path(get, path = "/catalogue/progress/{ticket}", params(("ticket" = String, Path)), tag = "catalogue", responses(
    (status = 200, description = "how far it has come", body = ProgressView)
))]
pub(super) async fn progress(
    State(progress): State<Progress>,
    Path(ticket): Path<String>,
) -> Json<ProgressView> {
    Json(progress.step(&ticket).into())
}

/// Undo a taken list.
#[utoipa::path(post, path = "/catalogue/lists/{id}/undo", params(("id" = i64, Path)), tag = "catalogue", responses(
    (status = 200, description = "what went back", body = UndoneList),
    (status = 404, description = "no such list", body = Problem),
    (status = 409, description = "not taken", body = Problem)
))]
pub(super) async fn undo_list(
    State(store): State<Store>,
    Id(id): Id,
    of: IfMatch,
) -> Result<Json<UndoneList>, ApiError> {
    let undone = store.write(move |tx| {
        catalogue::expect(tx, id, of.tags())?;
        Ok((catalogue::undo(tx, id)?, catalogue::list(tx, id)?))
    });
    let ((back, left), list) = undone.await?;
    Ok(Json(UndoneList { list: list.into(), back, left }))
}

/// Remove a list's file for good: what was taken of it stays, and it can no longer be read again.
#[utoipa::path(delete, path = "/catalogue/lists/{id}/file", params(("id" = i64, Path)), tag = "catalogue", responses(
    (status = 200, description = "the list without its file", body = ListView),
    (status = 404, description = "no such list", body = Problem),
    (status = 409, description = "removed before", body = Problem)
))]
pub(super) async fn remove_file(
    State(shop): State<AppState>,
    Id(id): Id,
    of: IfMatch,
) -> Result<Json<ListView>, ApiError> {
    let removed = shop.store.write(move |tx| {
        catalogue::expect(tx, id, of.tags())?;
        catalogue::remove_file(tx, id)
    });
    let list = removed.await?;
    shop.last_read.forget();
    Ok(Json(list.into()))
}

/// The price lists, the latest first.
#[utoipa::path(get, path = "/catalogue/lists", tag = "catalogue", responses(
    (status = 200, description = "the lists", body = Vec<ListView>)
))]
pub(super) async fn lists(State(store): State<Store>) -> Result<Json<Vec<ListView>>, ApiError> {
    Ok(Json(store.read(catalogue::lists).await?.into_iter().map(ListView::from).collect()))
}

/// One price list.
#[utoipa::path(get, path = "/catalogue/lists/{id}", operation_id = "price_list", params(("id" = i64, Path)), tag = "catalogue", responses(
    (status = 200, description = "the list", body = ListView),
    (status = 404, description = "no such list", body = Problem)
))]
pub(super) async fn list(State(store): State<Store>, Id(id): Id) -> Result<Tagged<ListView>, ApiError> {
    let list = store.read(move |c| catalogue::list(c, id)).await?;
    Ok(Tagged(list.tag(), Json(list.into())))
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
    (status = 200, description = "the file", content(
        (String = "text/csv"), (String = "application/json"),
        (String = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet")
    )),
    (status = 422, description = "no such kind or format", body = Problem)
))]
pub(super) async fn export(
    State(store): State<Store>,
    State(downloads): State<Downloads>,
    Params(query): Params<RowsQuery>,
) -> Result<Response, ApiError> {
    let (kind, format) = (query.kind()?, query.format()?);
    let name = format!("{}.{}", kind.code(), query.format.as_deref().unwrap_or("csv"));
    // Twice through the rows: once for which fields there are, once for what they say.
    let fields = Arc::new(OnceLock::new());
    let known = Arc::clone(&fields);
    let begin = move |c: &Connection| {
        let mut there = BTreeSet::new();
        catalogue::each(c, kind.code(), &mut |row| {
            there.extend(record_of(&row).0.into_keys());
            Ok(())
        })?;
        let fields: Vec<Field> = Field::ALL.iter().copied().filter(|field| there.contains(field)).collect();
        Ok(known.get_or_init(|| fields).iter().map(|field| field.code().to_owned()).collect())
    };
    let write = move |c: &Connection, file: &mut DiskWriter| {
        let fields: &[Field] = fields.get().map_or(&[], Vec::as_slice);
        let mut failed = None;
        catalogue::each(c, kind.code(), &mut |row| {
            if failed.is_none() {
                failed = file.row(&record_of(&row).row(fields)).err();
            }
            Ok(())
        })?;
        failed.map_or(Ok(()), |error| Err(error.into()))
    };
    downloads.table(&store, (format, name), begin, write).await
}

/// Where in a file the list is, as it was said for the supplier.
fn place_of(said: Option<&BTreeMap<String, String>>) -> Place {
    let number = |code: &str| said?.get(code)?.parse().ok();
    Place { sheet: number(habits::SHEET), header_row: number(habits::HEADER_ROW) }
}

async fn brought(
    shop: &AppState,
    id: i64,
    asked: Option<&BTreeMap<String, String>>,
) -> Result<(PriceList, Kind, Table), ApiError> {
    let (list, bytes, remembered) = shop
        .store
        .read(move |c| {
            let list = catalogue::list(c, id)?;
            let remembered = catalogue::mapping(c, &list.supplier, &list.kind)?;
            Ok((list, catalogue::bytes(c, id)?, remembered))
        })
        .await?;
    let kind = kind_of(&list);
    let place = place_of(asked.or(remembered.as_ref()));
    Ok((list, kind, shop.reader.table(bytes.into(), place).await?))
}

fn kind_of(list: &PriceList) -> Kind {
    Kind::from_code(&list.kind).unwrap_or(Kind::Wheels)
}

/// The list read by the mapping that was given, remembered, or recognised.
async fn read(
    store: &Store,
    list: &PriceList,
    kind: Kind,
    table: Table,
    mapping: Option<BTreeMap<String, String>>,
    ticket: Arc<Ticket>,
) -> Result<Arc<ReadTable>, ApiError> {
    let supplier = list.supplier.clone();
    let remembered = store.read(move |c| catalogue::mapping(c, &supplier, kind.code())).await?;
    let said = mapping.or(remembered);
    // What was said of the list as a whole is kept with its columns.
    let mut names = said.clone().unwrap_or_default();
    names.retain(|code, _| code.starts_with('@'));
    let mapping = match &said {
        Some(said) if said.keys().any(|code| !code.starts_with('@')) => {
            Mapping::by_names(said, &table.header)
        }
        _ => Mapping::guessed(&table.header, kind).with_sizes_found(&table, kind),
    };
    let done = crate::off_thread(move || {
        let all = table.rows.len();
        let (habits, questions) = Habits::of(&table, &mapping, kind, &names);
        let list = read_list(&table, kind, &mapping, &habits, &|done| ticket.tell("reading", done, all));
        names.extend(mapping.names(&table.header));
        let Table { header, notes, top, header_row, sheets, sheet, .. } = table;
        let sheets = (sheets, sheet);
        Arc::new(ReadTable { header, notes, mapping: names, list, top, header_row, sheets, questions })
    });
    done.await
}

async fn tried(
    shop: &AppState,
    list: PriceList,
    kind: Kind,
    table: Table,
    mapping: Option<BTreeMap<String, String>>,
    ticket: Ticket,
) -> Result<Json<TriedList>, ApiError> {
    let ticket = Arc::new(ticket);
    let read = read(&shop.store, &list, kind, table, mapping, Arc::clone(&ticket)).await?;
    shop.last_read.keep(list.id, &read);
    let (supplier, rows) = (list.supplier.clone(), Arc::clone(&read));
    let counts: Counts = shop
        .store
        .read(move |c| {
            ticket.tell("comparing", 0, rows.list.rows.len());
            Ok(catalogue::compared(&catalogue::known(c, kind.code(), &supplier)?, &rows.list.rows))
        })
        .await?;
    Ok(Json(TriedList::new(list, kind, &read, counts)))
}
