//! Extractors whose refusals are problems of ours.

use axum::body::Bytes;
use axum::extract::rejection::BytesRejection;
use axum::extract::{FromRequest, FromRequestParts, Path, Query, Request};
use axum::http::request::Parts;
use axum::http::{HeaderMap, StatusCode, header};
use serde::de::{DeserializeOwned, IgnoredAny};
use sha2::{Digest, Sha256};
use store::Once;
use tower_http::timeout::TimeoutError;

use crate::problem::{ApiError, FieldError};
use crate::serve::TooSlow;
use crate::strict::ObjectsOnly;

/// A JSON body.
#[derive(Debug)]
pub struct Body<T>(pub T);

impl<T: DeserializeOwned, S: Send + Sync> FromRequest<S> for Body<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, ApiError> {
        is_json(request.headers())?;
        let bytes = Bytes::from_request(request, state).await.map_err(body_refused)?;
        Ok(Self(from_json(&bytes)?))
    }
}

fn is_json(headers: &HeaderMap) -> Result<(), ApiError> {
    let declared = headers.get(header::CONTENT_TYPE).and_then(|value| value.to_str().ok());
    let kind = declared.unwrap_or_default().split(';').next().unwrap_or_default().trim();
    // A page elsewhere can post forms and plain text here unasked, but not JSON.
    if kind.eq_ignore_ascii_case("application/json") { Ok(()) } else { Err(ApiError::NotJson) }
}

fn from_json<T: DeserializeOwned>(bytes: &[u8]) -> Result<T, ApiError> {
    let mut json = serde_json::Deserializer::from_slice(bytes);
    let value = serde_path_to_error::deserialize(ObjectsOnly(&mut json))
        .map_err(|error| json_refused(error, bytes))?;
    json.end().map_err(|error| ApiError::Malformed(vec![FieldError::new("", error.to_string())]))?;
    Ok(value)
}

/// The header by which a request may be sent twice.
pub const IDEMPOTENCY_KEY: &str = "idempotency-key";

/// A JSON body of a request that changes something, with its idempotency key.
#[derive(Debug)]
pub struct Keyed<T> {
    /// The body.
    pub value: T,
    /// The key and what was asked under it; `None` without a key.
    pub once: Option<Once>,
}

impl<T: DeserializeOwned, S: Send + Sync> FromRequest<S> for Keyed<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, ApiError> {
        is_json(request.headers())?;
        let (key, asked) = (key_of(request.headers())?, asked_of(&request));
        let bytes = Bytes::from_request(request, state).await.map_err(body_refused)?;
        Ok(Self { value: from_json(&bytes)?, once: once_of(key, asked, &bytes) })
    }
}

/// A file that is kept, with its idempotency key.
#[derive(Debug)]
pub struct KeyedUpload {
    /// The file.
    pub bytes: Bytes,
    /// As of [`Keyed`].
    pub once: Option<Once>,
}

impl<S: Send + Sync> FromRequest<S> for KeyedUpload {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, ApiError> {
        let (key, asked) = (key_of(request.headers())?, asked_of(&request));
        let Upload(bytes) = Upload::from_request(request, state).await?;
        let once = once_of(key, asked, &bytes);
        Ok(Self { bytes, once })
    }
}

fn key_of(headers: &HeaderMap) -> Result<Option<String>, ApiError> {
    let mut keys = headers.get_all(IDEMPOTENCY_KEY).iter();
    let refused = || {
        let detail = "an idempotency key is one header of 1 to 100 visible letters";
        ApiError::Malformed(vec![FieldError::new(IDEMPOTENCY_KEY, detail)])
    };
    match (keys.next(), keys.next()) {
        (None, _) => Ok(None),
        (Some(key), None) => {
            let key = key.to_str().map_err(|_| refused())?;
            if (1..=100).contains(&key.len()) { Ok(Some(key.to_owned())) } else { Err(refused()) }
        }
        _ => Err(refused()),
    }
}

fn asked_of(request: &Request) -> String {
    format!("{} {}", request.method(), request.uri())
}

fn once_of(key: Option<String>, asked: String, body: &[u8]) -> Option<Once> {
    let digest: String = Sha256::digest(body).iter().map(|byte| format!("{byte:02x}")).collect();
    key.map(|key| Once { key, request: format!("{asked} {digest}") })
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
    let mut why: Option<&(dyn std::error::Error + 'static)> = Some(&rejection);
    while let Some(error) = why {
        if error.is::<TimeoutError>() || error.is::<TooSlow>() {
            return ApiError::BodyLate;
        }
        why = error.source();
    }
    if rejection.status() == StatusCode::PAYLOAD_TOO_LARGE {
        ApiError::TooLarge
    } else {
        ApiError::Malformed(vec![FieldError::new("", "the body did not arrive whole")])
    }
}

fn json_refused(error: serde_path_to_error::Error<serde_json::Error>, bytes: &[u8]) -> ApiError {
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
    // The reader calls a third figure of a point a syntax error: what is JSON is understood, and wrong.
    let malformed = !error.inner().is_data() && serde_json::from_slice::<IgnoredAny>(bytes).is_err();
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

/// The `{id}` in a path. What is no id, or one written another way, is simply not there.
#[derive(Debug, Clone, Copy)]
pub struct Id(pub i64);

/// An id as it is written: no sign, no zero before it.
fn id_of(text: &str) -> Option<i64> {
    text.parse().ok().filter(|id: &i64| *id >= 0 && id.to_string() == text)
}

/// Two ids in a path: of a job, and of something of it.
#[derive(Debug, Clone, Copy)]
pub struct TwoIds(pub i64, pub i64);

impl<S: Send + Sync> FromRequestParts<S> for TwoIds {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, ApiError> {
        let Path((first, second)) = Path::<(String, String)>::from_request_parts(parts, state)
            .await
            .map_err(|_| ApiError::NoSuchPath)?;
        id_of(&first)
            .zip(id_of(&second))
            .map(|(first, second)| Self(first, second))
            .ok_or(ApiError::NoSuchPath)
    }
}

/// An id and a name in a path.
#[derive(Debug, Clone)]
pub struct IdAndName(pub i64, pub String);

impl<S: Send + Sync> FromRequestParts<S> for IdAndName {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, ApiError> {
        let Path((id, name)) = Path::<(String, String)>::from_request_parts(parts, state)
            .await
            .map_err(|_| ApiError::NoSuchPath)?;
        id_of(&id).map(|id| Self(id, name)).ok_or(ApiError::NoSuchPath)
    }
}

impl<S: Send + Sync> FromRequestParts<S> for Id {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, ApiError> {
        let Path(id) =
            Path::<String>::from_request_parts(parts, state).await.map_err(|_| ApiError::NoSuchPath)?;
        id_of(&id).map(Self).ok_or(ApiError::NoSuchPath)
    }
}
