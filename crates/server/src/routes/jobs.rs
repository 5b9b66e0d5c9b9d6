//! Jobs.

use std::convert::Infallible;

use app::compare;
use axum::extract::State;
use axum::http::{HeaderName, StatusCode};
use axum::response::sse::{Event, KeepAlive, Sse};
use axum::{Extension, Json};
use jiff::Timestamp;
use store::identity::{self, Standing, Tag};
use store::jobs::Job;
use store::{Connection, Once, Store, StoreError, house, jobs, journal, once, workshop};
use tokio_stream::Stream;

use super::judge::today;
use crate::AppState;
use crate::changes::{Changes, JobChanged};
use crate::extract::{Body, Id, IdAndName, Keyed, Params};
use crate::problem::{ApiError, FieldError, Problem};
use crate::serve::LongAnswer;
use crate::tagged::{IfMatch, Tagged};
use crate::wire::bench::SideBySide;
use crate::wire::jobs::{
    BasedOn, JobChange, JobSummaryView, JobView, JobsQuery, JournalEntry, NewJob, StandingView, TagView,
    UnreadableView, with_plan_kept,
};
use crate::wire::measured::SignedBy;

/// Longest journal handed out at once.
const JOURNAL_LENGTH: usize = 200;

/// How many there are in all, beside a page of them.
const TOTAL: HeaderName = HeaderName::from_static("x-total-count");

/// The jobs as the counter shows them, latest change first, a page at a time. One that cannot be read says so.
#[utoipa::path(get, path = "/jobs", params(JobsQuery), tag = "jobs", responses(
    (status = 200, description = "a page of the jobs", body = Vec<JobSummaryView>,
        headers(("x-total-count" = u64, description = "how many there are in all")))
))]
pub(super) async fn list(
    State(store): State<Store>,
    Params(query): Params<JobsQuery>,
) -> Result<([(HeaderName, String); 1], Json<Vec<JobSummaryView>>), ApiError> {
    let page = query.page()?;
    let (total, jobs) = store.read(move |c| jobs::list(c, &page)).await?;
    Ok(([(TOTAL, total.to_string())], Json(jobs.into_iter().map(JobSummaryView::from).collect())))
}

/// Changes a job once: a request that was sent before is answered with the job as it is now.
fn changed_once(
    connection: &Connection,
    asked: Option<&Once>,
    now: Timestamp,
    change: impl FnOnce() -> Result<Job, ApiError>,
) -> Result<Job, ApiError> {
    let mut changed = None;
    let id = once(connection, asked, now, || {
        let job = change()?;
        Ok::<_, ApiError>(changed.insert(job).id)
    })?;
    match changed {
        Some(job) => Ok(job),
        None => Ok(jobs::get(connection, id)?),
    }
}

/// Changes a job in one transaction, once, and tells every screen. What was sent before is answered by what it made then;
/// else it is refused when it was for another job, or another revision of this one.
pub(super) async fn change_job(
    shop: &AppState,
    asked: Option<Once>,
    (id, of): (i64, IfMatch),
    change: impl FnOnce(&Connection, Timestamp) -> Result<Job, ApiError> + Send + 'static,
) -> Result<Tagged<JobView>, ApiError> {
    let change = move |tx: &Connection, now| {
        identity::expect(tx, id, of.tags())?;
        change(tx, now)
    };
    make_or_change_job(shop, asked, change).await
}

async fn make_or_change_job(
    shop: &AppState,
    asked: Option<Once>,
    change: impl FnOnce(&Connection, Timestamp) -> Result<Job, ApiError> + Send + 'static,
) -> Result<Tagged<JobView>, ApiError> {
    let (job, latest) = shop
        .store
        .write_or_refuse(move |tx| {
            let now = Timestamp::now();
            let job = changed_once(tx, asked.as_ref(), now, || change(tx, now))?;
            let latest = journal::list(tx, job.id, 1)?.pop();
            Ok::<_, ApiError>((job, latest))
        })
        .await?;
    let (who, what) = latest.map_or_else(Default::default, |entry| (entry.who, entry.what));
    let (uid, token) = (job.uid.clone(), job.token.clone());
    shop.changes.tell(JobChanged { job: job.id, uid, token, revision: job.revision, who, what });
    crate::off_thread(move || shown(job)).await
}

/// A job as it goes out.
fn shown(job: Job) -> Tagged<JobView> {
    let tag = Tag { uid: job.uid.clone(), token: job.token.clone() };
    Tagged(tag, Json(JobView::from(job)))
}

/// Open a job: a car label and a setup line are enough.
#[utoipa::path(post, path = "/jobs", request_body = NewJob, params(
    ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")
), tag = "jobs", responses(
    (status = 201, description = "the new job", body = JobView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn open(
    State(shop): State<AppState>,
    Keyed { value: new, once }: Keyed<NewJob>,
) -> Result<(StatusCode, Tagged<JobView>), ApiError> {
    let (content, who) = new.read()?;
    let job =
        make_or_change_job(&shop, once, move |tx, now| Ok(jobs::create(tx, &content, &who, now)?)).await?;
    Ok((StatusCode::CREATED, job))
}

/// One job.
#[utoipa::path(get, path = "/jobs/{id}", params(("id" = i64, Path)), tag = "jobs", responses(
    (status = 200, description = "the job", body = JobView),
    (status = 404, description = "no such job", body = Problem)
))]
pub(super) async fn get(State(store): State<Store>, Id(id): Id) -> Result<Tagged<JobView>, ApiError> {
    Ok(store.read(move |c| Ok(shown(jobs::get(c, id)?))).await?)
}

/// Change a job. A change based on another revision than the job's is refused with the job as it is.
#[utoipa::path(put, path = "/jobs/{id}", request_body = JobChange, params(("id" = i64, Path), ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), tag = "jobs", responses(
    (status = 200, description = "the changed job", body = JobView),
    (status = 404, description = "no such job", body = Problem),
    (status = 409, description = "changed elsewhere; `current` is the job as it is", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn put(
    State(shop): State<AppState>,
    Id(id): Id,
    of: IfMatch,
    Keyed { value: change, once }: Keyed<JobChange>,
) -> Result<Tagged<JobView>, ApiError> {
    let (content, changes, who) = change.read()?;
    let based_on = change.based_on_revision;
    change_job(&shop, once, (id, of), move |tx, now| {
        let before = jobs::at(tx, id, based_on)?;
        let named_before = before.content.workshop.photos();
        let content = changes.over(before.content.clone(), content)?;
        let kept = workshop::photos(tx, id)?;
        let mut named = content.workshop.photos();
        named.retain(|photo| !named_before.contains(photo) && !kept.contains(photo));
        if let Some(photo) = named.first() {
            let detail = format!("there is no photo {photo} of this job");
            return Err(ApiError::Unprocessable(vec![FieldError::new("/trials", detail)]));
        }
        Ok(jobs::replace(tx, before, content, &who, now)?)
    })
    .await
}

/// Put a job that cannot be read back as its journal knows it.
#[utoipa::path(post, path = "/jobs/{id}/mend", params(("id" = i64, Path), SignedBy), tag = "jobs", responses(
    (status = 200, description = "the job, put back", body = JobView),
    (status = 404, description = "no such job", body = Problem),
    (status = 409, description = "it can be read", body = Problem)
))]
pub(super) async fn mend(
    State(shop): State<AppState>,
    Id(id): Id,
    of: IfMatch,
    Params(by): Params<SignedBy>,
) -> Result<Tagged<JobView>, ApiError> {
    let who = by.who();
    change_job(&shop, None, (id, of), move |tx, now| Ok(jobs::mend(tx, id, &who, now)?)).await
}

/// Take off a document that cannot be read: the road and track sheet, or what was sought. Undo brings it back as it stood.
#[utoipa::path(delete, path = "/jobs/{id}/unreadable/{what}", params(("id" = i64, Path), ("what" = String, Path, description = "`road` or `wishes`"), SignedBy), tag = "jobs", responses(
    (status = 200, description = "the job without it", body = JobView),
    (status = 404, description = "no such job, or nothing there that cannot be read", body = Problem)
))]
pub(super) async fn take_off_unreadable(
    State(shop): State<AppState>,
    IdAndName(id, what): IdAndName,
    of: IfMatch,
    Params(by): Params<SignedBy>,
) -> Result<Tagged<JobView>, ApiError> {
    let who = by.who();
    change_job(&shop, None, (id, of), move |tx, now| {
        let before = jobs::get(tx, id)?;
        let without = UnreadableView::taken_off(&before.content, &what);
        let content = without.ok_or(StoreError::NotFound { what: "document that cannot be read", id })?;
        Ok(jobs::replace(tx, before, content, &who, now)?)
    })
    .await
}

/// Take the last change back.
#[utoipa::path(post, path = "/jobs/{id}/undo", request_body = BasedOn, params(("id" = i64, Path), ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), tag = "jobs", responses(
    (status = 200, description = "the job before its last change", body = JobView),
    (status = 404, description = "no such job", body = Problem),
    (status = 409, description = "changed elsewhere, or nothing to undo", body = Problem)
))]
pub(super) async fn undo(
    State(shop): State<AppState>,
    Id(id): Id,
    of: IfMatch,
    Keyed { value: step, once }: Keyed<BasedOn>,
) -> Result<Tagged<JobView>, ApiError> {
    let (based_on, who) = (step.based_on_revision, step.who());
    change_job(&shop, once, (id, of), move |tx, now| Ok(jobs::undo(tx, id, based_on, &who, now)?)).await
}

/// Do again what was last undone.
#[utoipa::path(post, path = "/jobs/{id}/redo", request_body = BasedOn, params(("id" = i64, Path), ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), tag = "jobs", responses(
    (status = 200, description = "the job with the change done again", body = JobView),
    (status = 404, description = "no such job", body = Problem),
    (status = 409, description = "changed elsewhere, or nothing to redo", body = Problem)
))]
pub(super) async fn redo(
    State(shop): State<AppState>,
    Id(id): Id,
    of: IfMatch,
    Keyed { value: step, once }: Keyed<BasedOn>,
) -> Result<Tagged<JobView>, ApiError> {
    let (based_on, who) = (step.based_on_revision, step.who());
    change_job(&shop, once, (id, of), move |tx, now| Ok(jobs::redo(tx, id, based_on, &who, now)?)).await
}

/// Keep the plan on the bench as a candidate.
#[utoipa::path(post, path = "/jobs/{id}/candidates", request_body = BasedOn, params(("id" = i64, Path), ("idempotency-key" = Option<String>, Header, description = "a request sent twice under one key is done once")), tag = "jobs", responses(
    (status = 200, description = "the job with its new candidate", body = JobView),
    (status = 404, description = "no such job", body = Problem),
    (status = 409, description = "changed elsewhere", body = Problem),
    (status = 422, description = "no plan to keep, or kept already", body = Problem)
))]
pub(super) async fn keep(
    State(shop): State<AppState>,
    Id(id): Id,
    of: IfMatch,
    Keyed { value: step, once }: Keyed<BasedOn>,
) -> Result<Tagged<JobView>, ApiError> {
    let (based_on, who) = (step.based_on_revision, step.who());
    change_job(&shop, once, (id, of), move |tx, now| {
        let before = jobs::at(tx, id, based_on)?;
        let content = with_plan_kept(&before.content)?;
        Ok(jobs::replace(tx, before, content, &who, now)?)
    })
    .await
}

/// The fitted setup, the candidates and the bench, side by side.
#[utoipa::path(get, path = "/jobs/{id}/side-by-side", params(("id" = i64, Path)), tag = "jobs", responses(
    (status = 200, description = "the columns", body = SideBySide),
    (status = 404, description = "no such job", body = Problem)
))]
pub(super) async fn side_by_side(
    State(store): State<Store>,
    Id(id): Id,
) -> Result<Json<SideBySide>, ApiError> {
    let (job, insides, house) =
        store.read(move |c| Ok((jobs::get(c, id)?, workshop::wheel_templates(c)?, house::get(c)?))).await?;
    let all = move || compare::SideBySide::of(&job.content, insides, house.content.limits, today());
    crate::off_thread(move || Json(SideBySide::from(all()))).await
}

/// The jobs as they change, as server-sent events: `job` with what changed, `missed` when some were not heard.
#[utoipa::path(get, path = "/changes", tag = "jobs", responses(
    (status = 200, description = "a stream that stays open", body = JobChanged, content_type = "text/event-stream")
))]
pub(super) async fn changes(
    State(changes): State<Changes>,
) -> (Extension<LongAnswer>, Sse<impl Stream<Item = Result<Event, Infallible>>>) {
    (Extension(LongAnswer::Changes), Sse::new(changes.stream()).keep_alive(KeepAlive::default()))
}

/// Which of the jobs that a page has unsent work for are this file's, by the tags that the work was typed on.
#[utoipa::path(post, path = "/jobs/standing", request_body = Vec<TagView>, tag = "jobs", responses(
    (status = 200, description = "one answer a tag, in order", body = Vec<StandingView>),
    (status = 422, description = "more than are looked at", body = Problem)
))]
pub(super) async fn standing(
    State(store): State<Store>,
    Body(tags): Body<Vec<TagView>>,
) -> Result<Json<Vec<StandingView>>, ApiError> {
    if tags.len() > MOST_TAGS {
        let detail = format!("no more than {MOST_TAGS} are looked at");
        return Err(ApiError::Unprocessable(vec![FieldError::new("", detail)]));
    }
    let found = store.read(move |c| {
        tags.into_iter()
            .map(|TagView { uid, token }| {
                let Some(id) = identity::job_of(c, &uid)? else {
                    return Ok(StandingView { job: None, is_known: false });
                };
                let is_known = identity::standing(c, id, &Tag { uid, token })? != Standing::Foreign;
                Ok(StandingView { job: Some(id), is_known })
            })
            .collect()
    });
    Ok(Json(found.await?))
}

/// Tags looked at in one question.
const MOST_TAGS: usize = 500;

/// Who changed what and when, latest first.
#[utoipa::path(get, path = "/jobs/{id}/journal", params(("id" = i64, Path)), tag = "jobs", responses(
    (status = 200, description = "the journal", body = Vec<JournalEntry>),
    (status = 404, description = "no such job", body = Problem)
))]
pub(super) async fn journal(
    State(store): State<Store>,
    Id(id): Id,
) -> Result<Json<Vec<JournalEntry>>, ApiError> {
    let entries = store
        .read(move |c| {
            jobs::get(c, id)?;
            journal::list(c, id, JOURNAL_LENGTH)
        })
        .await?;
    Ok(Json(entries.into_iter().map(JournalEntry::from).collect()))
}
