//! Comparing and judging.

use app::bench::{BenchAnswer, Depth};
use app::knowledge::KnowledgeCache;
use axum::Json;
use axum::extract::State;
use fitment::values::date_code::Day;
use store::{Store, house};

use crate::extract::Body;
use crate::problem::{ApiError, Problem};
use crate::wire::bench::{Bench, BenchRequest};
use crate::wire::brief::BenchBrief;
use crate::wire::compare::{CompareRequest, Comparison};

/// Compare a planned pair of setups with the fitted one: the plain figures.
#[utoipa::path(post, path = "/compare", request_body = CompareRequest, tag = "plan", responses(
    (status = 200, description = "what changes", body = Comparison),
    (status = 422, description = "a setup that could not be read", body = Problem)
))]
pub(super) async fn compare(Body(request): Body<CompareRequest>) -> Result<Json<Comparison>, ApiError> {
    let (fitted, planned) = request.read()?;
    Ok(Json(Comparison::new(&fitted, &planned)))
}

/// Draw and judge a plan: sections, figures, ledger with workings; steps of the hand are taken first.
#[utoipa::path(post, path = "/bench", request_body = BenchRequest, tag = "plan", responses(
    (status = 200, description = "the plan, drawn and judged", body = Bench),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a setup that could not be read, or a step that cannot be taken", body = Problem)
))]
pub(super) async fn bench(
    State(store): State<Store>,
    State(knowledge): State<KnowledgeCache>,
    Body(request): Body<BenchRequest>,
) -> Result<Json<Bench>, ApiError> {
    judged(&store, knowledge, request, Depth::Whole).await
}

/// The same without workings, reasons and drawings, rounded as it is drawn: what a hand on a lever asks for many times a
/// second.
#[utoipa::path(post, path = "/bench/brief", request_body = BenchRequest, tag = "plan", responses(
    (status = 200, description = "what moves with a lever", body = BenchBrief),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "a setup that could not be read, or a step that cannot be taken", body = Problem)
))]
pub(super) async fn bench_brief(
    State(store): State<Store>,
    State(knowledge): State<KnowledgeCache>,
    Body(request): Body<BenchRequest>,
) -> Result<Json<BenchBrief>, ApiError> {
    judged(&store, knowledge, request, Depth::Moving).await
}

async fn judged<T: From<BenchAnswer> + Send + 'static>(
    store: &Store,
    knowledge: KnowledgeCache,
    request: BenchRequest,
    depth: Depth,
) -> Result<Json<T>, ApiError> {
    let job = request.job;
    let (known, house) = store
        .read(move |c| {
            let known = job.map(|id| knowledge.of(c, id)).transpose()?.unwrap_or_default();
            Ok((known, house::get(c)?))
        })
        .await?;
    crate::off_thread(move || {
        let answer = request.read()?.answer(&known, house.content.limits, today(), depth)?;
        Ok(Json(T::from(answer)))
    })
    .await?
}

/// The clock lives here: the core is handed the day.
pub(super) fn today() -> Day {
    let today = jiff::Zoned::now();
    Day { year: today.year(), day_of_year: today.day_of_year().unsigned_abs() }
}
