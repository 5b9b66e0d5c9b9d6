//! Which very thing, in which very state: `ETag` and `If-Match` (RFC 9110), `"<uid>.<token>"`.

use std::convert::Infallible;

use axum::Json;
use axum::extract::{FromRequestParts, Request, State};
use axum::http::request::Parts;
use axum::http::{HeaderMap, HeaderValue, Method, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use store::Store;
use store::identity::Tag;

use crate::problem::ApiError;

/// The header of a tag.
pub(crate) fn etag(tag: &Tag) -> Option<HeaderValue> {
    HeaderValue::from_str(&format!("\"{}.{}\"", tag.uid, tag.token)).ok()
}

/// An answer with the state that it is of.
#[derive(Debug)]
pub struct Tagged<T>(pub Tag, pub Json<T>);

impl<T: serde::Serialize> IntoResponse for Tagged<T> {
    fn into_response(self) -> Response {
        let Self(tag, body) = self;
        let mut response = body.into_response();
        if let Some(tag) = etag(&tag) {
            response.headers_mut().insert(header::ETAG, tag);
        }
        response
    }
}

/// What a change is for, as far as its sender says: `None` without the header and for `*`, which any state is.
#[derive(Debug, Clone)]
pub struct IfMatch(pub Option<Vec<Tag>>);

impl IfMatch {
    fn of(headers: &HeaderMap) -> Self {
        let all: Vec<&str> =
            headers.get_all(header::IF_MATCH).iter().map(|value| value.to_str().unwrap_or("")).collect();
        if all.is_empty() || all.iter().any(|value| value.trim() == "*") {
            return Self(None);
        }
        // What cannot be read is nobody's tag: then nothing matches, and nothing is changed.
        Self(Some(all.iter().flat_map(|value| value.split(',')).filter_map(tag_of).collect()))
    }

    /// The tags, as the store asks for them.
    pub fn tags(&self) -> Option<&[Tag]> {
        self.0.as_deref()
    }
}

/// A strong tag. A weak one never matches what is to be changed.
fn tag_of(text: &str) -> Option<Tag> {
    let inner = text.trim().strip_prefix('"')?.strip_suffix('"')?;
    let (uid, token) = inner.rsplit_once('.')?;
    Some(Tag { uid: uid.to_owned(), token: token.to_owned() })
}

impl<S: Send + Sync> FromRequestParts<S> for IfMatch {
    type Rejection = Infallible;

    async fn from_request_parts(parts: &mut Parts, _: &S) -> Result<Self, Infallible> {
        Ok(Self::of(&parts.headers))
    }
}

/// The header by which a page says for which file it works.
pub const OF_FILE: &str = "of-file";

/// Refuses what a page asks that still shows another file, whatever it changes: what was typed for one file is nothing for
/// another. Who does not say for which file it works is let through.
pub async fn for_this_file(State(store): State<Store>, request: Request, next: Next) -> Response {
    let said = request.headers().get(OF_FILE);
    let asks_only = matches!(*request.method(), Method::GET | Method::HEAD);
    if !asks_only && said.is_some_and(|said| said.as_bytes() != store.file_id().as_bytes()) {
        return ApiError::OtherFile.into_response();
    }
    next.run(request).await
}

#[cfg(test)]
mod tests {
    use super::*;

    fn read(values: &[&str]) -> Option<Vec<(String, String)>> {
        let mut headers = HeaderMap::new();
        for value in values {
            headers.append(header::IF_MATCH, value.parse().unwrap());
        }
        IfMatch::of(&headers).0.map(|tags| tags.into_iter().map(|tag| (tag.uid, tag.token)).collect())
    }

    #[test]
    fn tags_are_read_as_the_standard_writes_them() {
        let pair = |uid: &str, token: &str| (uid.to_owned(), token.to_owned());
        assert_eq!(read(&[]), None);
        assert_eq!(read(&["*"]), None);
        assert_eq!(read(&["\"a.b\""]), Some(vec![pair("a", "b")]));
        assert_eq!(read(&["\"a.b\", \"c.d\"", "\"e.f\""]).unwrap().len(), 3);
        assert_eq!(read(&["W/\"a.b\""]), Some(vec![]), "a weak one never matches");
        for nonsense in ["", "a.b", "\"ab\"", "\"a.b", "7"] {
            assert_eq!(read(&[nonsense]), Some(vec![]), "{nonsense}");
        }
        let tag = Tag { uid: "a".into(), token: "b".into() };
        assert_eq!(read(&[etag(&tag).unwrap().to_str().unwrap()]), Some(vec![pair("a", "b")]));
    }
}
