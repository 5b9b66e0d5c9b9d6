//! Extractors whose refusals are problems of ours.

use axum::body::Bytes;
use axum::extract::rejection::BytesRejection;
use axum::extract::{FromRequest, FromRequestParts, Path, Query, Request};
use axum::http::request::Parts;
use axum::http::{StatusCode, header};
use serde::de::DeserializeOwned;

use crate::problem::{ApiError, FieldError};

/// A JSON body.
#[derive(Debug)]
pub struct Body<T>(pub T);

impl<T: DeserializeOwned, S: Send + Sync> FromRequest<S> for Body<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, ApiError> {
        let declared = request.headers().get(header::CONTENT_TYPE).and_then(|value| value.to_str().ok());
        let kind = declared.unwrap_or_default().split(';').next().unwrap_or_default().trim();
        // A page elsewhere can post forms and plain text here unasked, but not JSON.
        if !kind.eq_ignore_ascii_case("application/json") {
            return Err(ApiError::NotJson);
        }
        let bytes = Bytes::from_request(request, state).await.map_err(body_refused)?;
        let mut json = serde_json::Deserializer::from_slice(&bytes);
        let value = serde_path_to_error::deserialize(&mut json).map_err(json_refused)?;
        json.end().map_err(|error| ApiError::Malformed(vec![FieldError::new("", error.to_string())]))?;
        Ok(Self(value))
    }
}

/// A file as it is.
#[derive(Debug)]
pub struct Upload(pub Bytes);

impl<S: Send + Sync> FromRequest<S> for Upload {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, ApiError> {
        let declared = request.headers().get(header::CONTENT_TYPE).and_then(|value| value.to_str().ok());
        // A page elsewhere can post forms and plain text here unasked, but not this.
        if !declared.is_some_and(|kind| kind.eq_ignore_ascii_case("application/octet-stream")) {
            return Err(ApiError::NotJson);
        }
        Ok(Self(Bytes::from_request(request, state).await.map_err(body_refused)?))
    }
}

fn body_refused(rejection: BytesRejection) -> ApiError {
    if rejection.status() == StatusCode::PAYLOAD_TOO_LARGE {
        ApiError::TooLarge
    } else {
        ApiError::Malformed(vec![FieldError::new("", "the body did not arrive whole")])
    }
}

fn json_refused(error: serde_path_to_error::Error<serde_json::Error>) -> ApiError {
    use serde_path_to_error::Segment;
    let pointer: String = error
        .path()
        .iter()
        .map(|segment| match segment {
            Segment::Seq { index } => format!("/{index}"),
            Segment::Map { key } => format!("/{}", key.replace('~', "~0").replace('/', "~1")),
            Segment::Enum { variant } => format!("/{variant}"),
            Segment::Unknown => String::new(),
        })
        .collect();
    let malformed = !error.inner().is_data();
    let errors = vec![FieldError::new(pointer, error.inner().to_string())];
    if malformed { ApiError::Malformed(errors) } else { ApiError::Unprocessable(errors) }
}

/// Query parameters.
#[derive(Debug)]
pub struct Params<T>(pub T);

impl<T: DeserializeOwned, S: Send + Sync> FromRequestParts<S> for Params<T> {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, ApiError> {
        match Query::from_request_parts(parts, state).await {
            Ok(Query(value)) => Ok(Self(value)),
            Err(rejection) => Err(ApiError::Malformed(vec![FieldError::new("", rejection.body_text())])),
        }
    }
}

/// The `{id}` in a path. What is no id is simply not there.
#[derive(Debug, Clone, Copy)]
pub struct Id(pub i64);

impl<S: Send + Sync> FromRequestParts<S> for Id {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, ApiError> {
        let Path(id) =
            Path::<i64>::from_request_parts(parts, state).await.map_err(|_| ApiError::NoSuchPath)?;
        Ok(Self(id))
    }
}
