//! Room for what is sent: bodies that are read at the same time have a bound all together, and one waits for its room before
//! a byte of it is read.

use std::sync::Arc;
use std::time::Duration;

use axum::body::HttpBody;
use axum::extract::{Request, State};
use axum::http::header;
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use tokio::sync::Semaphore;

use crate::problem::ApiError;
use crate::{BODY_LIMIT, LIST_LIMIT};

const KB: usize = 1024;
/// Room for all bodies of up to [`BODY_LIMIT`]: a hundred tablets at once, whatever large ones wait.
pub const SMALL_ROOM: usize = 64 * KB * KB;
/// Room for all larger ones: price lists, photos, drawings.
pub const LARGE_ROOM: usize = 192 * KB * KB;
/// How long a body waits for room.
const PATIENCE: Duration = Duration::from_secs(10);

/// The room there is.
#[derive(Debug, Clone)]
pub struct Room {
    small: Arc<Semaphore>,
    large: Arc<Semaphore>,
    patience: Duration,
}

impl Default for Room {
    fn default() -> Self {
        let of = |bytes: usize| Arc::new(Semaphore::new(bytes / KB));
        Self { small: of(SMALL_ROOM), large: of(LARGE_ROOM), patience: PATIENCE }
    }
}

/// Lets a request on when there is room for its body, and gives the room back once it is answered.
pub async fn wait_for_room(State(room): State<Room>, request: Request, next: Next) -> Response {
    let said = request.headers().get(header::CONTENT_LENGTH);
    let said = said.and_then(|length| length.to_str().ok()?.parse::<usize>().ok());
    // One that does not say how long it is may be as long as the longest.
    let bytes = if request.body().is_end_stream() { 0 } else { said.unwrap_or(LIST_LIMIT).min(LIST_LIMIT) };
    if bytes == 0 {
        return next.run(request).await;
    }
    let room_for = if bytes <= BODY_LIMIT { &room.small } else { &room.large };
    let wanted = u32::try_from(bytes.div_ceil(KB)).unwrap_or(u32::MAX);
    let Ok(Ok(_room)) = tokio::time::timeout(room.patience, room_for.acquire_many(wanted)).await else {
        return ApiError::NoRoomForBody.into_response();
    };
    next.run(request).await
}

#[cfg(test)]
mod tests {
    use axum::Router;
    use axum::body::{Body, to_bytes};
    use axum::middleware::from_fn_with_state;
    use axum::routing::post;
    use tower::ServiceExt;

    use super::*;

    #[tokio::test]
    async fn a_body_waits_for_its_room_and_small_ones_pass_by_large_ones() {
        let room = Room {
            small: Arc::new(Semaphore::new(2)),
            large: Arc::new(Semaphore::new(LIST_LIMIT / KB)),
            patience: Duration::ZERO,
        };
        let (large, small) = (Arc::clone(&room.large), Arc::clone(&room.small));
        let free = move || format!("{} {}", small.available_permits(), large.available_permits());
        let router = Router::new()
            .route("/", post(async move |_body: axum::body::Bytes| free()))
            .layer(from_fn_with_state(room.clone(), wait_for_room));
        let ask = |body: Body, length: Option<usize>| {
            let mut request = Request::post("/");
            if let Some(length) = length {
                request = request.header(header::CONTENT_LENGTH, length);
            }
            let router = router.clone();
            async move {
                let response = router.oneshot(request.body(body).unwrap()).await.unwrap();
                let status = response.status().as_u16();
                let words = to_bytes(response.into_body(), 1000).await.unwrap();
                (status, String::from_utf8_lossy(&words).into_owned())
            }
        };
        let all = LIST_LIMIT / KB;
        assert_eq!(ask(Body::from("a"), Some(1)).await, (200, format!("1 {all}")));
        assert_eq!(ask(Body::empty(), None).await.1, format!("2 {all}"), "nothing to read needs no room");
        // One that does not say its length, while another large one is being read.
        let stream = || Body::from_stream(tokio_stream::iter([Ok::<_, std::io::Error>("x")]));
        assert_eq!(ask(stream(), None).await, (200, "2 0".to_owned()));
        let held = room.large.acquire().await.unwrap();
        assert_eq!(ask(stream(), None).await.0, 503);
        assert_eq!(ask(Body::from("a"), Some(1)).await.0, 200, "a reading gets through");
        drop(held);
    }
}
