//! Every error as RFC 9457 `application/problem+json`, and the only place that picks a status code.

use axum::Json;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use fitment::notation::NotationError;
use fitment::setup::adjust::AdjustError;
use serde::Serialize;
use store::StoreError;
use store::identity::Tag;
use utoipa::ToSchema;

use crate::tagged::etag;
use crate::wire::jobs::JobView;

/// One field at fault.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct FieldError {
    /// JSON pointer into the body (`/planned/front`), or the name of a query parameter.
    pub pointer: String,
    /// What is wrong.
    pub detail: String,
    /// For a notation: the piece that could not be read.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub piece: Option<String>,
    /// How it would be written right.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub example: Option<String>,
}

impl FieldError {
    /// A field at fault, in words.
    pub fn new(pointer: impl Into<String>, detail: impl Into<String>) -> Self {
        Self { pointer: pointer.into(), detail: detail.into(), piece: None, example: None }
    }

    /// A notation that could not be read.
    pub fn notation(pointer: impl Into<String>, error: &NotationError) -> Self {
        Self {
            pointer: pointer.into(),
            detail: error.to_string(),
            piece: Some(error.piece.clone()),
            example: Some(error.reason.example().to_owned()),
        }
    }
}

/// The body of a problem response.
#[derive(Debug, Serialize, ToSchema)]
pub struct Problem {
    /// Kind of problem, a stable name.
    #[serde(rename = "type")]
    pub kind: &'static str,
    /// The kind in words.
    pub title: &'static str,
    /// The HTTP status.
    pub status: u16,
    /// This problem in words.
    pub detail: String,
    /// Fields at fault.
    pub errors: Vec<FieldError>,
    /// For a stale change: the job as it is now.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub current: Option<Box<JobView>>,
    /// For a change that was for another state: the present one. It goes out as the header `ETag`.
    #[serde(skip)]
    pub tag: Option<Tag>,
}

/// Everything that can go wrong with a request.
#[derive(Debug)]
pub enum ApiError {
    /// The request is no well-formed JSON or query.
    Malformed(Vec<FieldError>),
    /// Understood, but wrong.
    Unprocessable(Vec<FieldError>),
    /// The body is not declared as JSON.
    NotJson,
    /// The body is too large.
    TooLarge,
    /// Nothing at this path.
    NoSuchPath,
    /// The body did not arrive in time.
    BodyLate,
    /// It took too long; nothing was changed.
    TooSlow,
    /// The step cannot be taken.
    CannotAdjust(AdjustError, String),
    /// The program failed; the reason is for its log.
    Internal(String),
    /// No room on a disk, in words.
    NoRoom(&'static str),
    /// So much is being sent that this has to wait.
    NoRoomForBody,
    /// The page, or whoever asks, had another file before.
    OtherFile,
    /// From the store.
    Store(StoreError),
}

impl From<StoreError> for ApiError {
    fn from(error: StoreError) -> Self {
        Self::Store(error)
    }
}

impl ApiError {
    /// One notation that could not be read.
    pub fn notation(pointer: &str, error: &NotationError) -> Self {
        Self::Unprocessable(vec![FieldError::notation(pointer, error)])
    }

    fn problem(self) -> Problem {
        let problem = |status: StatusCode, kind, title, detail: String, errors| Problem {
            kind,
            title,
            status: status.as_u16(),
            detail,
            errors,
            current: None,
            tag: None,
        };
        match self {
            Self::Malformed(errors) => {
                problem(StatusCode::BAD_REQUEST, "malformed", "Malformed request", first(&errors), errors)
            }
            Self::Unprocessable(errors) => problem(
                StatusCode::UNPROCESSABLE_ENTITY,
                "unprocessable",
                "Understood, but wrong",
                first(&errors),
                errors,
            ),
            Self::NotJson => problem(
                StatusCode::UNSUPPORTED_MEDIA_TYPE,
                "not-json",
                "Not JSON",
                "send the body as content-type application/json".to_owned(),
                Vec::new(),
            ),
            Self::TooLarge => problem(
                StatusCode::PAYLOAD_TOO_LARGE,
                "too-large",
                "Too large",
                "the body is larger than what is read here".to_owned(),
                Vec::new(),
            ),
            Self::BodyLate => problem(
                StatusCode::REQUEST_TIMEOUT,
                "body-late",
                "The body did not arrive",
                "the body did not arrive in time; nothing was changed".to_owned(),
                Vec::new(),
            ),
            Self::TooSlow => problem(
                StatusCode::SERVICE_UNAVAILABLE,
                "too-slow",
                "Took too long",
                "the request took too long and was given up; nothing was changed, try again".to_owned(),
                Vec::new(),
            ),
            Self::NoRoom(says) => {
                log(says);
                let status = StatusCode::INSUFFICIENT_STORAGE;
                problem(status, "disk-full", "No room left", says.to_owned(), Vec::new())
            }
            Self::NoRoomForBody => problem(
                StatusCode::SERVICE_UNAVAILABLE,
                "busy",
                "Too much at once",
                "too much is being sent at this moment; nothing was changed, try again".to_owned(),
                Vec::new(),
            ),
            Self::OtherFile => problem(
                StatusCode::PRECONDITION_FAILED,
                "other-file",
                "Another file",
                "the shop's file is another one than this was typed for: nothing was changed".to_owned(),
                Vec::new(),
            ),
            Self::Internal(why) => {
                log(&why);
                let status = StatusCode::INTERNAL_SERVER_ERROR;
                problem(status, "internal", "The program failed", why, Vec::new())
            }
            Self::NoSuchPath => problem(
                StatusCode::NOT_FOUND,
                "not-found",
                "Not there",
                "there is nothing at this path".to_owned(),
                Vec::new(),
            ),
            Self::CannotAdjust(error, pointer) => {
                let errors = vec![FieldError::new(pointer, error.to_string())];
                let status = StatusCode::UNPROCESSABLE_ENTITY;
                problem(status, "cannot-adjust", "The step cannot be taken", first(&errors), errors)
            }
            Self::Store(error) => store_problem(error),
        }
    }
}

fn store_problem(error: StoreError) -> Problem {
    let detail = error.to_string();
    let (status, kind, title, current) = match error {
        StoreError::NotFound { .. } => (StatusCode::NOT_FOUND, "not-found", "Not there", None),
        StoreError::Stale { current, .. } => {
            let current = Some(Box::new(JobView::from(*current)));
            (StatusCode::CONFLICT, "stale", "Changed elsewhere", current)
        }
        StoreError::OtherRevision { now, current } => {
            let (kind, title) = match current {
                Some(_) => ("stale", "Changed elsewhere"),
                None => ("foreign", "Of another file"),
            };
            let current = current.map(|job| Box::new(JobView::from(*job)));
            let status = StatusCode::PRECONDITION_FAILED.as_u16();
            return Problem { kind, title, status, detail, errors: Vec::new(), current, tag: Some(now) };
        }
        StoreError::OtherState { now, .. } => {
            let status = StatusCode::PRECONDITION_FAILED.as_u16();
            let (kind, title) = ("stale", "Changed elsewhere");
            return Problem {
                kind,
                title,
                status,
                detail,
                errors: Vec::new(),
                current: None,
                tag: Some(now),
            };
        }
        StoreError::StaleHouse { .. } => (StatusCode::CONFLICT, "stale", "Changed elsewhere", None),
        StoreError::NothingTo(_) => (StatusCode::CONFLICT, "nothing-to-do", "Nothing to do", None),
        StoreError::StillNamed(_) => (StatusCode::CONFLICT, "still-named", "Still named", None),
        StoreError::TooMany { .. } => {
            (StatusCode::UNPROCESSABLE_ENTITY, "too-many", "More than is kept", None)
        }
        StoreError::KeyReused => {
            (StatusCode::UNPROCESSABLE_ENTITY, "key-reused", "Drawn for another request", None)
        }
        StoreError::GaveUp => (StatusCode::SERVICE_UNAVAILABLE, "too-slow", "Took too long", None),
        StoreError::Busy => (StatusCode::SERVICE_UNAVAILABLE, "busy", "The file is held", None),
        StoreError::Closed => (StatusCode::SERVICE_UNAVAILABLE, "stopping", "Stopping", None),
        StoreError::DiskFull => {
            log(&detail);
            (StatusCode::INSUFFICIENT_STORAGE, "disk-full", "No room left", None)
        }
        StoreError::DamagedMeanwhile { .. } => {
            log(&detail);
            (StatusCode::SERVICE_UNAVAILABLE, "file-damaged", "The shop's file is damaged", None)
        }
        StoreError::FileGone { .. } => {
            log(&detail);
            (StatusCode::SERVICE_UNAVAILABLE, "file-gone", "The shop's file is gone", None)
        }
        StoreError::Corrupt { table, id, why } => {
            log(&detail);
            let is_of_a_job = ["job", "candidate", "picked_part", "trial_fit", "brake_template"];
            let (detail, helps) = if is_of_a_job.contains(&table) {
                let helps = format!("POST /api/v1/jobs/{id}/mend puts the job back from its journal");
                (format!("job {id} cannot be read ({why})"), helps)
            } else {
                (detail, "put a backup back, or take the row out".to_owned())
            };
            let status = StatusCode::INTERNAL_SERVER_ERROR;
            return Problem {
                kind: "damaged",
                title: "Damaged",
                status: status.as_u16(),
                detail,
                errors: vec![FieldError::new("", helps)],
                current: None,
                tag: None,
            };
        }
        other => {
            log(&other.to_string());
            (StatusCode::INTERNAL_SERVER_ERROR, "internal", "The program failed", None)
        }
    };
    Problem { kind, title, status: status.as_u16(), detail, errors: Vec::new(), current, tag: None }
}

/// A line of the program's log. Where it cannot be written (its disk is full) the program goes on.
pub fn log(line: &str) {
    use std::io::Write;
    let _ = writeln!(std::io::stderr(), "dimensione: {line}");
}

fn first(errors: &[FieldError]) -> String {
    errors.first().map(|error| error.detail.clone()).unwrap_or_default()
}

impl IntoResponse for Problem {
    fn into_response(self) -> Response {
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        let tag = self.tag.as_ref().and_then(etag);
        let mut response = (status, Json(self)).into_response();
        if let Some(tag) = tag {
            response.headers_mut().insert(header::ETAG, tag);
        }
        response
            .headers_mut()
            .insert(header::CONTENT_TYPE, HeaderValue::from_static("application/problem+json"));
        response
    }
}

impl IntoResponse for ApiError {
    fn into_response(self) -> Response {
        self.problem().into_response()
    }
}

/// Errors that layers and the framework make come without a body of ours: they get one here.
pub async fn dress_bare_error(response: Response) -> Response {
    let status = response.status();
    let dressed = response.headers().get(header::CONTENT_TYPE).is_some_and(|kind| {
        kind.as_bytes().starts_with(b"application/problem+json") || kind.as_bytes().starts_with(b"text/html")
    });
    if dressed || !(status.is_client_error() || status.is_server_error()) {
        return response;
    }
    let (kind, title, detail) = match status {
        StatusCode::METHOD_NOT_ALLOWED => ("method", "Wrong method", "this path does not take this method"),
        StatusCode::PAYLOAD_TOO_LARGE => ("too-large", "Too large", "the body is too large"),
        StatusCode::NOT_FOUND => ("not-found", "Not there", "there is nothing at this path"),
        _ if status.is_server_error() => ("internal", "The program failed", "the program failed"),
        _ => ("malformed", "Malformed request", "the request could not be read"),
    };
    let allow = response.headers().get(header::ALLOW).cloned();
    let problem = Problem {
        kind,
        title,
        status: status.as_u16(),
        detail: detail.to_owned(),
        errors: Vec::new(),
        current: None,
        tag: None,
    };
    let mut dressed = problem.into_response();
    if let Some(allow) = allow {
        dressed.headers_mut().insert(header::ALLOW, allow);
    }
    dressed
}
