//! The finder, and what the supplier has of what it found.

use app::finder::search;
use axum::Json;
use axum::extract::State;
use store::Store;

use super::workshop::in_context;
use crate::extract::{Body, Id};
use crate::problem::{ApiError, FieldError, Problem};
use crate::supplier::SupplierClient;
use crate::wire::finder::{FinderRequest, FinderView};
use crate::wire::road_sheet::RoadSheet;
use crate::wire::supply::{SupplyRequest, SupplyView, items_of};
use app::catalogue::CatalogueCache;

/// The best setups that the catalogue makes for a job's car.
#[utoipa::path(post, path = "/jobs/{id}/finder", params(("id" = i64, Path)), request_body = FinderRequest, tag = "choose", responses(
    (status = 200, description = "setups, best first", body = FinderView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn finder(
    State(store): State<Store>,
    State(shelf): State<CatalogueCache>,
    Id(id): Id,
    Body(request): Body<FinderRequest>,
) -> Result<Json<FinderView>, ApiError> {
    let (mut wish, allowed) = request.read_to_search()?;
    let (job, context) = in_context(&store, id).await?;
    // A class that cannot be read is not no class: nothing is proposed as legal in it, and why is said.
    if request.in_class
        && let Some(text) = &job.content.road
    {
        let sheet = RoadSheet::of_kept(text).map_err(|error| {
            let says = format!("{}: which class it is in is not known", error.why);
            ApiError::Unprocessable(vec![FieldError::new("/in_class", says)])
        })?;
        wish.class = sheet.class_of();
    }
    let loaded = shelf.loaded(&store).await?;
    let answer = move || {
        let answer = search(&job.content, &loaded.catalogue, &wish, allowed, &context);
        FinderView::new(answer, &loaded, &wish)
    };
    Ok(Json(crate::off_thread(answer).await?))
}

/// What the supplier has of some sets: lead time and today's price, with their age. Without a supplier, or while it is
/// away, the lists' prices and what was heard before.
#[utoipa::path(post, path = "/supply", request_body = SupplyRequest, tag = "choose", responses(
    (status = 200, description = "the sets as the supplier has them", body = SupplyView),
    (status = 422, description = "a row that is not in the catalogue", body = Problem)
))]
pub(super) async fn supply(
    State(store): State<Store>,
    State(shelf): State<CatalogueCache>,
    State(desk): State<SupplierClient>,
    Body(request): Body<SupplyRequest>,
) -> Result<Json<SupplyView>, ApiError> {
    let loaded = shelf.loaded(&store).await?;
    let sets = request.read(&loaded)?;
    let (known, state) = desk.ask(&items_of(&sets)).await;
    Ok(Json(SupplyView::new(&sets, &known, state)))
}
