//! How long a request may take. A limit cuts off waiting, never the truth.

use std::time::Duration;

use axum::extract::{Request, State};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use store::Patience;

use crate::problem::ApiError;

/// Answers in time, or says that nothing was changed; what is applied at that moment is waited for, and answered as
/// applied.
pub async fn answered_in_time(State(limit): State<Duration>, request: Request, next: Next) -> Response {
    let patience = Patience::default();
    let answer = patience.with(next.run(request));
    tokio::pin!(answer);
    tokio::select! {
        response = &mut answer => return response,
        () = tokio::time::sleep(limit) => {}
    }
    if patience.give_up() { ApiError::TooSlow.into_response() } else { answer.await }
}
