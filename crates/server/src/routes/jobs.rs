//! Jobs.

use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use fitment::setup::SetupPair;
use jiff::Timestamp;
use store::{Store, house, jobs, journal};

use super::judge::today;
use crate::extract::{Body, Id, Params};
use crate::problem::{ApiError, Problem};
use crate::wire::bench::{Column, Ground, Known, SideBySide, bay_of};
use crate::wire::jobs::{BasedOn, JobChange, JobView, JobsQuery, JournalEntry, NewJob, with_plan_kept};

/// Longest journal handed out at once.
const JOURNAL_LENGTH: usize = 200;

/// The jobs, latest change first.
#[utoipa::path(get, path = "/jobs", params(JobsQuery), tag = "jobs", responses(
    (status = 200, description = "the jobs", body = Vec<JobView>)
))]
pub(super) async fn list(
    State(store): State<Store>,
    Params(query): Params<JobsQuery>,
) -> Result<Json<Vec<JobView>>, ApiError> {
    let jobs = store.read(move |c| jobs::list(c, &query.find, query.put_away)).await?;
    Ok(Json(jobs.into_iter().map(JobView::from).collect()))
}

/// Open a job: a car label and a setup line are enough.
#[utoipa::path(post, path = "/jobs", request_body = NewJob, tag = "jobs", responses(
    (status = 201, description = "the new job", body = JobView),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn open(
    State(store): State<Store>,
    Body(new): Body<NewJob>,
) -> Result<(StatusCode, Json<JobView>), ApiError> {
    let (content, who) = new.read()?;
    let job = store.write(move |tx| jobs::create(tx, &content, &who, Timestamp::now())).await?;
    Ok((StatusCode::CREATED, Json(job.into())))
}

/// One job.
#[utoipa::path(get, path = "/jobs/{id}", params(("id" = i64, Path)), tag = "jobs", responses(
    (status = 200, description = "the job", body = JobView),
    (status = 404, description = "no such job", body = Problem)
))]
pub(super) async fn get(State(store): State<Store>, Id(id): Id) -> Result<Json<JobView>, ApiError> {
    Ok(Json(store.read(move |c| jobs::get(c, id)).await?.into()))
}

/// Change a job. A change based on another revision than the job's is refused with the job as it is.
#[utoipa::path(put, path = "/jobs/{id}", request_body = JobChange, params(("id" = i64, Path)), tag = "jobs", responses(
    (status = 200, description = "the changed job", body = JobView),
    (status = 404, description = "no such job", body = Problem),
    (status = 409, description = "changed elsewhere; `current` is the job as it is", body = Problem),
    (status = 422, description = "a field at fault", body = Problem)
))]
pub(super) async fn put(
    State(store): State<Store>,
    Id(id): Id,
    Body(change): Body<JobChange>,
) -> Result<Json<JobView>, ApiError> {
    let (content, changes, who) = change.read()?;
    let based_on = change.based_on_revision;
    let job = store
        .write(move |tx| {
            let now = jobs::get(tx, id)?.content;
            let content = changes.over(now, content);
            jobs::change(tx, id, based_on, &content, &who, Timestamp::now())
        })
        .await?;
    Ok(Json(job.into()))
}

/// Take the last change back.
#[utoipa::path(post, path = "/jobs/{id}/undo", request_body = BasedOn, params(("id" = i64, Path)), tag = "jobs", responses(
    (status = 200, description = "the job before its last change", body = JobView),
    (status = 404, description = "no such job", body = Problem),
    (status = 409, description = "changed elsewhere, or nothing to undo", body = Problem)
))]
pub(super) async fn undo(
    State(store): State<Store>,
    Id(id): Id,
    Body(step): Body<BasedOn>,
) -> Result<Json<JobView>, ApiError> {
    let (based_on, who) = (step.based_on_revision, step.who());
    Ok(Json(store.write(move |tx| jobs::undo(tx, id, based_on, &who, Timestamp::now())).await?.into()))
}

/// Do again what was last undone.
#[utoipa::path(post, path = "/jobs/{id}/redo", request_body = BasedOn, params(("id" = i64, Path)), tag = "jobs", responses(
    (status = 200, description = "the job with the change done again", body = JobView),
    (status = 404, description = "no such job", body = Problem),
    (status = 409, description = "changed elsewhere, or nothing to redo", body = Problem)
))]
pub(super) async fn redo(
    State(store): State<Store>,
    Id(id): Id,
    Body(step): Body<BasedOn>,
) -> Result<Json<JobView>, ApiError> {
    let (based_on, who) = (step.based_on_revision, step.who());
    Ok(Json(store.write(move |tx| jobs::redo(tx, id, based_on, &who, Timestamp::now())).await?.into()))
}

/// Keep the plan on the bench as a candidate.
#[utoipa::path(post, path = "/jobs/{id}/candidates", request_body = BasedOn, params(("id" = i64, Path)), tag = "jobs", responses(
    (status = 200, description = "the job with its new candidate", body = JobView),
    (status = 404, description = "no such job", body = Problem),
    (status = 409, description = "changed elsewhere", body = Problem),
    (status = 422, description = "no plan to keep, or kept already", body = Problem)
))]
pub(super) async fn keep(
    State(store): State<Store>,
    Id(id): Id,
    Body(step): Body<BasedOn>,
) -> Result<Json<JobView>, ApiError> {
    let (based_on, who) = (step.based_on_revision, step.who());
    let job = store.read(move |c| jobs::get(c, id)).await?;
    let content = with_plan_kept(&job.content)?;
    let job = store.write(move |tx| jobs::change(tx, id, based_on, &content, &who, Timestamp::now())).await?;
    Ok(Json(job.into()))
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
    let (job, house) = store.read(move |c| Ok((jobs::get(c, id)?, house::get(c)?))).await?;
    let content = &job.content;
    let ground = Ground {
        limits: house.content.limits,
        today: today(),
        bay: bay_of(&Known::from(content)),
        kept: Vec::new(),
    };
    let column = |letter, note: &str, pair: &SetupPair| {
        Column::new(letter, note, &content.fitted, pair, content.drive, &ground)
    };
    let candidates = &content.candidates;
    let is_kept = candidates.iter().any(|kept| kept.setups == content.planned);
    let is_there = content.planned != SetupPair::default();
    Ok(Json(SideBySide {
        fitted: column(None, "", &content.fitted),
        bench: (is_there && !is_kept).then(|| column(None, "", &content.planned)),
        candidates: candidates
            .iter()
            .map(|kept| column(Some(kept.letter), &kept.note, &kept.setups))
            .collect(),
    }))
}

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
