//! Clubs' rule files: written, brought, taken out.

use axum::Json;
use axum::extract::State;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use jiff::Timestamp;
use serde::Deserialize;
use store::{Connection, Store, StoreError, clubs};
use utoipa::IntoParams;

use crate::extract::{Body, Params};
use crate::problem::{ApiError, Problem};
use crate::tagged::{IfMatch, Tagged};
use crate::wire::club::{ClubView, KeptClubView, SCHEMA, at_hand};
use crate::wire::measured::SignedBy;

/// The day as the calendar has it here.
pub(super) fn this_day() -> jiff::civil::Date {
    jiff::Zoned::now().date()
}

/// The rule files at hand: those that ship and the house's.
#[utoipa::path(get, path = "/clubs", operation_id = "list_clubs", tag = "clubs", responses(
    (status = 200, description = "the clubs with their classes, by club and day", body = Vec<KeptClubView>)
))]
pub(super) async fn list(State(store): State<Store>) -> Result<Tagged<Vec<KeptClubView>>, ApiError> {
    Ok(store.read(shown).await?)
}

/// The rule files as they go out.
fn shown(connection: &Connection) -> Result<Tagged<Vec<KeptClubView>>, StoreError> {
    Ok(Tagged(clubs::tag(connection)?, Json(at_hand(clubs::list(connection)?, this_day()))))
}

/// Keeps a rule file, in place of the same club's of the same day.
#[utoipa::path(put, path = "/clubs", operation_id = "put_club", params(SignedBy), request_body = ClubView, tag = "clubs", responses(
    (status = 200, description = "the rule files at hand", body = Vec<KeptClubView>),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn put(
    State(store): State<Store>,
    of: IfMatch,
    Params(by): Params<SignedBy>,
    Body(rules): Body<ClubView>,
) -> Result<Tagged<Vec<KeptClubView>>, ApiError> {
    let rules = rules.checked()?;
    let record = serde_json::to_string(&rules).map_err(|error| ApiError::Internal(error.to_string()))?;
    let kept = store.write(move |tx| {
        clubs::expect(tx, of.tags())?;
        clubs::put(tx, &rules.club, &rules.from, &record, &by.who(), Timestamp::now())?;
        shown(tx)
    });
    Ok(kept.await?)
}

/// Which rule file.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(super) struct WhichClub {
    /// The club.
    club: String,
    /// The day from which it counts.
    from: String,
}

/// Takes a rule file of the house out; one that ships in its place is back.
#[utoipa::path(delete, path = "/clubs", operation_id = "remove_club", params(WhichClub), tag = "clubs", responses(
    (status = 200, description = "the rule files at hand", body = Vec<KeptClubView>),
    (status = 404, description = "the house has none such", body = Problem)
))]
pub(super) async fn remove(
    State(store): State<Store>,
    of: IfMatch,
    Params(which): Params<WhichClub>,
) -> Result<Tagged<Vec<KeptClubView>>, ApiError> {
    let kept = store.write(move |tx| {
        clubs::expect(tx, of.tags())?;
        if clubs::remove(tx, &which.club, &which.from)? {
            shown(tx)
        } else {
            Err(StoreError::NotFound { what: "rule file", id: 0 })
        }
    });
    Ok(kept.await?)
}

/// A rule file, to keep or to hand on.
#[utoipa::path(get, path = "/clubs/file", operation_id = "club_file", params(WhichClub), tag = "clubs", responses(
    (status = 200, description = "the file", body = ClubView),
    (status = 404, description = "none such", body = Problem)
))]
pub(super) async fn file(
    State(store): State<Store>,
    Params(which): Params<WhichClub>,
) -> Result<Response, ApiError> {
    let all = at_hand(store.read(clubs::list).await?, this_day());
    let is_it = |one: &&KeptClubView| one.rules.club == which.club && one.rules.from == which.from;
    let one = all.iter().find(is_it).ok_or(ApiError::NoSuchPath)?;
    let text =
        serde_json::to_string_pretty(&one.rules).map_err(|error| ApiError::Internal(error.to_string()))?;
    let plain = |letter: char| if letter.is_ascii_alphanumeric() { letter.to_ascii_lowercase() } else { '-' };
    let name: String = which.club.chars().map(plain).collect();
    let head = [
        (header::CONTENT_TYPE, "application/json".to_owned()),
        (header::CONTENT_DISPOSITION, format!("attachment; filename=\"{name}-{}.json\"", one.rules.from)),
    ];
    Ok((head, text).into_response())
}

/// What describes a rule file to other programs: JSON Schema.
#[utoipa::path(get, path = "/clubs/schema", operation_id = "club_schema", tag = "clubs", responses(
    (status = 200, description = "the schema", content((serde_json::Value = "application/json")))
))]
pub(super) async fn schema() -> Response {
    ([(header::CONTENT_TYPE, "application/json")], SCHEMA).into_response()
}
