//! The finder.

use axum::Json;
use axum::extract::State;
use store::{Store, StoreError, house, jobs};

use crate::catalogue::Shelf;
use crate::extract::{Body, Id};
use crate::problem::{ApiError, Problem};
use crate::routes::judge::today;
use crate::wire::bench::{Ground, bay_of};
use crate::wire::finder::{FinderRequest, FinderView, search};

/// The best setups that the catalogue makes for a job's car.
#[utoipa::path(post, path = "/jobs/{id}/finder", params(("id" = i64, Path)), request_body = FinderRequest, tag = "choose", responses(
    (status = 200, description = "setups, best first", body = FinderView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn finder(
    State(store): State<Store>,
    State(shelf): State<Shelf>,
    Id(id): Id,
    Body(request): Body<FinderRequest>,
) -> Result<Json<FinderView>, ApiError> {
    let wish = request.read()?;
    let (job, house) = store.read(move |c| Ok((jobs::get(c, id)?, house::get(c)?))).await?;
    let loaded = shelf.loaded(&store).await?;
    let bay = bay_of(&job.content.measurements);
    let ground = Ground { limits: house.content.limits, today: today(), bay, kept: Vec::new() };
    let found = tokio::task::spawn_blocking(move || search(&job, &loaded, &wish, &ground)).await;
    Ok(Json(found.map_err(|_| ApiError::Store(StoreError::Panicked))?))
}
