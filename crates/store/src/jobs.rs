//! Jobs and their candidates.

use std::collections::HashSet;

use fitment::car::lever::PairLevers;
use fitment::car::limits::Drive;
use fitment::notation::NotationError;
use fitment::{Setup, SetupPair};
use jiff::Timestamp;
use rusqlite::{Connection, OptionalExtension, params};
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value};

use crate::StoreError;
use crate::columns::{self, json_of};
use crate::identity::{PartUids, new_token, new_uid};
use crate::journal::{self, Kind, NewEntry};
use crate::measurements::{KeptReading, LeverRow, Measurements, Rows, lever_rows};
use crate::picked::{Picked, PickedRow};
use crate::words::what_changed;
use crate::workshop::Workshop;

/// Where a job stands in the order of the work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs, reason = "the stages by their names")]
pub enum Stage {
    Car,
    Bay,
    Bench,
    Rack,
    Brakes,
    TrialFit,
    RoadAndTrack,
    Handover,
}

impl Stage {
    /// All of them, in working order.
    pub const ALL: [Self; 8] = [
        Self::Car,
        Self::Bay,
        Self::Bench,
        Self::Rack,
        Self::Brakes,
        Self::TrialFit,
        Self::RoadAndTrack,
        Self::Handover,
    ];

    /// As it is kept.
    pub fn code(self) -> &'static str {
        match self {
            Self::Car => "car",
            Self::Bay => "bay",
            Self::Bench => "bench",
            Self::Rack => "rack",
            Self::Brakes => "brakes",
            Self::TrialFit => "trial_fit",
            Self::RoadAndTrack => "road_and_track",
            Self::Handover => "handover",
        }
    }

    /// The one that is kept so.
    pub fn from_code(code: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|stage| stage.code() == code)
    }
}

/// Front and rear line of a pair, as columns keep them.
pub(crate) fn lines_of(pair: &SetupPair) -> (Option<String>, Option<String>) {
    let line = |setup: Option<Setup>| setup.map(|setup| setup.to_string());
    (line(pair.front), line(pair.rear))
}

/// A pair from its columns, read strictly: what is kept is canonical, so a word left aside is damage, not chatter.
pub(crate) fn pair_of(front: Option<String>, rear: Option<String>) -> Result<SetupPair, String> {
    let setup = |line: Option<String>| -> Result<Option<Setup>, String> {
        line.map(|text| text.parse().map_err(|error: NotationError| error.to_string())).transpose()
    };
    Ok(SetupPair { front: setup(front)?, rear: setup(rear)? })
}

/// A setup kept for comparison.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Candidate {
    /// A to Z, the next free one when it was kept.
    pub letter: char,
    /// What the advisor says about it.
    pub note: String,
    /// Front and rear.
    #[serde(flatten)]
    pub setups: SetupPair,
    /// What it counts as done to the car.
    #[serde(default, with = "lever_rows")]
    pub levers: PairLevers,
    /// The very parts it is made of, as far as they were picked.
    #[serde(default)]
    pub picked: Vec<PickedRow>,
}

/// What a person can change of a job, as the journal keeps it. Texts and flags are columns of the job's row by the same
/// names; what is made of parts has tables of its own.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct JobContent {
    /// Which car, in the shop's words.
    pub car_label: String,
    /// What the owner wants.
    pub wish: String,
    /// Where the work stands.
    pub stage: Stage,
    /// Driven axles, when known.
    pub drive: Option<Drive>,
    /// Free notes.
    pub notes: String,
    /// What is on the car.
    pub fitted: SetupPair,
    /// What is on the bench.
    pub planned: SetupPair,
    /// Kept setups, in order.
    pub candidates: Vec<Candidate>,
    /// Out of the way, not deleted.
    pub put_away: bool,
    /// What is sought for it: a document ([`crate::documents`], `SearchWish`). `None` while nobody was asked.
    #[serde(default)]
    pub wishes: Option<String>,
    /// Its road and track sheet: a document ([`crate::documents`], `RoadSheet`). `None` while nothing was typed on it.
    #[serde(default)]
    pub road: Option<String>,
    /// What is known of the car.
    #[serde(default)]
    pub measurements: Measurements,
    /// What was picked from the price lists, and gone through with the owner.
    #[serde(default)]
    pub picked: Picked,
    /// Profiles of the brakes, and what was tried on.
    #[serde(default)]
    pub workshop: Workshop,
}

/// A job as kept.
#[derive(Debug, Clone, PartialEq)]
pub struct Job {
    /// Row id.
    pub id: i64,
    /// The shop's running number.
    pub number: i64,
    /// Itself and no other: made nowhere twice.
    pub uid: String,
    /// Grows by one with every change.
    pub revision: i64,
    /// The revision itself: drawn anew with every change.
    pub token: String,
    /// What its readings and trials are called beyond this file.
    pub parts: PartUids,
    /// When it was opened.
    pub created_at: Timestamp,
    /// When it last changed.
    pub updated_at: Timestamp,
    /// What undo takes back, in words; `None` when there is nothing.
    pub undoes: Option<String>,
    /// What redo does again, in words; `None` when there is nothing.
    pub redoes: Option<String>,
    /// The rest.
    pub content: JobContent,
}

/// One job.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn get(connection: &Connection, id: i64) -> Result<Job, StoreError> {
    let mut statement = connection.prepare_cached("SELECT * FROM job WHERE id = ?1")?;
    let row = statement.query_row([id], |row| columns::record_of(row, &["put_away"])).optional()?;
    let row = row.ok_or(StoreError::NotFound { what: "job", id })?;
    into_job(connection, id, row).map_err(|error| match error {
        NotRead::Store(error) => error,
        NotRead::Corrupt(why) => StoreError::Corrupt { table: "job", id, why },
    })
}

/// Why a row is no job.
enum NotRead {
    Store(StoreError),
    Corrupt(String),
}

impl From<StoreError> for NotRead {
    fn from(error: StoreError) -> Self {
        Self::Store(error)
    }
}

/// A job from its row: the row's own columns are its content's plain fields.
fn into_job(connection: &Connection, id: i64, mut row: Map<String, Value>) -> Result<Job, NotRead> {
    let mut text = |column: &str| match row.remove(column) {
        Some(Value::String(text)) => Some(text),
        _ => None,
    };
    let time = |text: Option<String>| {
        let text = text.unwrap_or_default();
        text.parse::<Timestamp>().map_err(|error| NotRead::Corrupt(error.to_string()))
    };
    let fitted = pair_of(text("fitted_front"), text("fitted_rear")).map_err(NotRead::Corrupt)?;
    let planned = pair_of(text("planned_front"), text("planned_rear")).map_err(NotRead::Corrupt)?;
    let (created_at, updated_at) = (time(text("created_at"))?, time(text("updated_at"))?);
    let (uid, token) = (text("uid").unwrap_or_default(), text("token").unwrap_or_default());
    let number = |column: &str| row.get(column).and_then(Value::as_i64).unwrap_or_default();
    let (number, revision) = (number("number"), number("revision"));
    let steps = journal::steps(connection, id)?;
    let parts = Parts { fitted, planned, candidates: candidates(connection, id)? };
    let Value::Object(parts) =
        serde_json::to_value(parts).map_err(|error| NotRead::Corrupt(error.to_string()))?
    else {
        return Err(NotRead::Corrupt("its parts are no record".to_owned()));
    };
    row.extend(parts);
    let mut content: JobContent =
        serde_json::from_value(Value::Object(row)).map_err(|error| NotRead::Corrupt(error.to_string()))?;
    content.measurements = Rows::get(connection, id)?.measurements().map_err(NotRead::Corrupt)?;
    content.picked = Picked::get(connection, id)?;
    content.workshop = Workshop::get(connection, id)?;
    Ok(Job {
        id,
        number,
        uid,
        revision,
        token,
        parts: PartUids::get(connection, id)?,
        created_at,
        updated_at,
        undoes: steps.to_undo.map(|entry| journal::words_of(connection, entry)).transpose()?,
        redoes: steps.to_redo.map(|entry| journal::words_of(connection, entry)).transpose()?,
        content,
    })
}

/// What of a content stands beside the row's own columns and in its lines.
#[derive(Serialize)]
struct Parts {
    fitted: SetupPair,
    planned: SetupPair,
    candidates: Vec<Candidate>,
}

/// A job as the counter lists it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct JobSummary {
    /// Row id.
    pub id: i64,
    /// The shop's running number.
    pub number: i64,
    /// Itself and no other.
    pub uid: String,
    /// Grows by one with every change.
    pub revision: i64,
    /// When it last changed, RFC 3339.
    pub updated_at: String,
    /// Which car.
    pub car_label: String,
    /// What the owner wants.
    pub wish: String,
    /// Where the work stands; `None` when that cannot be read.
    pub stage: Option<Stage>,
    /// Setup lines on the car, as they are kept.
    pub fitted: (Option<String>, Option<String>),
    /// Setup lines on the bench, as they are kept.
    pub planned: (Option<String>, Option<String>),
    /// How many setups are kept.
    pub candidates: usize,
    /// Out of the way.
    pub put_away: bool,
    /// What of it cannot be read: such a job is put back from its journal ([`mend`]).
    pub damaged: Option<String>,
}

/// Which page of the jobs.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Page {
    /// Words that must all occur in number, car, wish, notes or setups.
    pub find: String,
    /// The jobs put away instead of the open ones.
    pub put_away: bool,
    /// How many are passed over.
    pub from: usize,
    /// How many are listed at most.
    pub most: usize,
}

/// A page of the jobs, latest change first, and how many there are in all. Only what is listed is read.
///
/// # Errors
/// Only what SQLite says.
pub fn list(connection: &Connection, page: &Page) -> Result<(usize, Vec<JobSummary>), StoreError> {
    let find = page.find.to_lowercase();
    let wanted: Vec<&str> = find.split_whitespace().collect();
    let ids: Vec<i64> = if wanted.is_empty() {
        connection
            .prepare_cached("SELECT id FROM job WHERE put_away = ?1 ORDER BY updated_at DESC, id DESC")?
            .query_map([page.put_away], |row| row.get(0))?
            .collect::<Result<_, _>>()?
    } else {
        let mut statement = connection.prepare_cached(
            "SELECT id, printf('%04d', number) || ' ' || car_label || ' ' || wish || ' ' || notes || ' '
                    || coalesce(fitted_front, '') || ' ' || coalesce(fitted_rear, '') || ' '
                    || coalesce(planned_front, '') || ' ' || coalesce(planned_rear, '') AS words
             FROM job WHERE put_away = ?1 ORDER BY updated_at DESC, id DESC",
        )?;
        let rows = statement.query_map([page.put_away], |row| {
            let words = row
                .get_ref(1)?
                .as_bytes()
                .map_or_else(|_| String::new(), |words| String::from_utf8_lossy(words).to_lowercase());
            Ok((row.get::<_, i64>(0)?, words))
        })?;
        let mut found = Vec::new();
        for row in rows {
            let (id, words) = row?;
            if wanted.iter().all(|word| words.contains(word)) {
                found.push(id);
            }
        }
        found
    };
    let listed = ids.iter().skip(page.from).take(page.most);
    Ok((ids.len(), listed.map(|id| summary(connection, *id)).collect::<Result<_, _>>()?))
}

fn summary(connection: &Connection, id: i64) -> Result<JobSummary, StoreError> {
    let mut statement = connection.prepare_cached(
        "SELECT job.*, (SELECT count(*) FROM candidate WHERE job_id = job.id) AS candidates FROM job WHERE id = ?1",
    )?;
    let summary = statement.query_row([id], |row| {
        // A column of another type than it should be is damage as well.
        let mut damaged = Vec::new();
        let mut text = |column: &str| -> rusqlite::Result<Option<String>> {
            let value = row.get_ref(column)?;
            if value.data_type() == rusqlite::types::Type::Null {
                return Ok(None);
            }
            match value.as_str() {
                Ok(text) => Ok(Some(text.to_owned())),
                Err(_) => {
                    damaged.push(format!("{} is no text", column.replace('_', " ")));
                    Ok(None)
                }
            }
        };
        let stage = text("stage")?.unwrap_or_default();
        let fitted = (text("fitted_front")?, text("fitted_rear")?);
        let planned = (text("planned_front")?, text("planned_rear")?);
        let drive = text("drive")?;
        let (car_label, wish) = (text("car_label")?.unwrap_or_default(), text("wish")?.unwrap_or_default());
        let updated_at = text("updated_at")?.unwrap_or_default();
        for (name, line) in [
            ("fitted front", &fitted.0),
            ("fitted rear", &fitted.1),
            ("planned front", &planned.0),
            ("planned rear", &planned.1),
        ] {
            if let Some(Err(error)) = line.as_ref().map(|line| line.parse::<fitment::Setup>()) {
                let line = line.as_deref().unwrap_or_default();
                damaged.push(format!("{name} {line:?} cannot be read: {error}"));
            }
        }
        let read_stage = Stage::from_code(&stage).ok_or_else(|| format!("stage {stage:?}"));
        let unknown = |why: String| format!("{why} is not known");
        damaged.extend(read_stage.as_ref().err().cloned().map(unknown));
        let no_drive = |code: &String| Drive::from_code(code).is_none();
        damaged.extend(drive.filter(no_drive).map(|code| unknown(format!("drive {code:?}"))));
        if updated_at.parse::<Timestamp>().is_err() {
            damaged.push(format!("{updated_at:?} is no time"));
        }
        Ok(JobSummary {
            id,
            number: row.get("number")?,
            uid: row.get("uid")?,
            revision: row.get("revision")?,
            updated_at,
            car_label,
            wish,
            stage: read_stage.ok(),
            fitted,
            planned,
            candidates: usize::try_from(row.get::<_, i64>("candidates")?).unwrap_or_default(),
            put_away: row.get("put_away")?,
            damaged: (!damaged.is_empty()).then(|| damaged.join("; ")),
        })
    })?;
    Ok(summary)
}

/// Puts a job back as its journal knows it, when it cannot be read: the latest content up to which every entry of its
/// journal can be read. Undo begins anew from there.
///
/// # Errors
/// [`StoreError::NotFound`]; [`StoreError::NothingTo`] for a job that can be read; [`StoreError::Corrupt`] when its
/// journal cannot be read either.
pub fn mend(connection: &Connection, id: i64, who: &str, now: Timestamp) -> Result<Job, StoreError> {
    match get(connection, id) {
        Ok(_) => return Err(StoreError::NothingTo("mend: the job can be read")),
        Err(error @ StoreError::NotFound { .. }) => return Err(error),
        Err(_) => {}
    }
    let (of, content) = journal::rebuilt(connection, id)?;
    let revision: i64 = connection.query_row(
        "SELECT max((SELECT revision FROM job WHERE id = ?1),
                    (SELECT coalesce(max(revision), 0) FROM journal WHERE job_id = ?1)) + 1",
        [id],
        |row| row.get(0),
    )?;
    let token = new_token();
    put_content(connection, id, (revision, &token), None, &content, now)?;
    // When it was opened may be what cannot be read; its first entry knows.
    connection.execute(
        "UPDATE job SET created_at = coalesce((SELECT at FROM journal WHERE job_id = ?1 ORDER BY id LIMIT 1), ?2)
         WHERE id = ?1",
        params![id, now.to_string()],
    )?;
    let what = format!("put back from its journal as it was at revision {of}");
    let entry = NewEntry { job: id, revision, token: &token, at: now, who, kind: Kind::Mend, what: &what };
    let entry = journal::record(connection, entry, None, &content)?;
    journal::step_on(connection, id, entry, Kind::Mend)?;
    get(connection, id)
}

/// Opens a job; its number follows the highest one.
///
/// # Errors
/// Only what SQLite says.
pub fn create(
    connection: &Connection,
    content: &JobContent,
    who: &str,
    now: Timestamp,
) -> Result<Job, StoreError> {
    let number: i64 =
        connection.query_row("SELECT coalesce(max(number), 0) + 1 FROM job", [], |row| row.get(0))?;
    connection.execute(
        "INSERT INTO job (number, uid, car_label, wish, stage, notes, revision, created_at, updated_at)
         VALUES (?1, ?2, '', '', 'car', '', 1, ?3, ?3)",
        params![number, new_uid(), now.to_string()],
    )?;
    let id = connection.last_insert_rowid();
    let token = new_token();
    put_content(connection, id, (1, &token), None, content, now)?;
    let (kind, what) = (Kind::Create, "job opened");
    journal::record(
        connection,
        NewEntry { job: id, revision: 1, token: &token, at: now, who, kind, what },
        None,
        content,
    )?;
    get(connection, id)
}

/// Replaces a job's content, when `based_on` is its revision.
///
/// A content that changes nothing is no change: the job stays at its revision.
///
/// # Errors
/// [`StoreError::Stale`] with the job as it is now, [`StoreError::NotFound`].
pub fn change(
    connection: &Connection,
    id: i64,
    based_on: i64,
    content: &JobContent,
    who: &str,
    now: Timestamp,
) -> Result<Job, StoreError> {
    replace(connection, at(connection, id, based_on)?, content.clone(), who, now)
}

/// Replaces the content of a job that was read in this very transaction.
///
/// # Errors
/// Only what SQLite says.
pub fn replace(
    connection: &Connection,
    current: Job,
    content: JobContent,
    who: &str,
    now: Timestamp,
) -> Result<Job, StoreError> {
    if current.content == content {
        return Ok(current);
    }
    let what = what_changed(&current.content, &content);
    go_on(connection, current, content, (Kind::Change, &what), who, now)
}

/// Puts a content in the place of a job's present one, with its entry in the journal.
fn go_on(
    connection: &Connection,
    current: Job,
    content: JobContent,
    (kind, what): (Kind, &str),
    who: &str,
    now: Timestamp,
) -> Result<Job, StoreError> {
    let (job, before) = (current.id, &current.content);
    let (revision, token) = (current.revision + 1, new_token());
    let has_new_parts = put_content(connection, job, (revision, &token), Some(before), &content, now)?;
    let entry = NewEntry { job, revision, token: &token, at: now, who, kind, what };
    let entry = journal::record(connection, entry, Some(before), &content)?;
    let steps = journal::step_on(connection, job, entry, kind)?;
    let made = Job {
        revision,
        token,
        parts: if has_new_parts { PartUids::get(connection, job)? } else { current.parts },
        updated_at: now,
        undoes: steps.to_undo.map(|entry| journal::words_of(connection, entry)).transpose()?,
        redoes: steps.to_redo.map(|entry| journal::words_of(connection, entry)).transpose()?,
        content,
        ..current
    };
    // What was put is what is read: so it need not be read.
    debug_assert_eq!(get(connection, job)?, made);
    Ok(made)
}

/// Readings kept with one job at most.
pub const MOST_READINGS: usize = 2000;

/// Adds readings to a job as it is now: a reading never conflicts with what others changed meanwhile. One that
/// is there already, by its id, is not kept twice.
///
/// # Errors
/// [`StoreError::NotFound`]; [`StoreError::TooMany`] beyond [`MOST_READINGS`].
pub fn add_readings(
    connection: &Connection,
    id: i64,
    readings: &[KeptReading],
    who: &str,
    now: Timestamp,
) -> Result<Job, StoreError> {
    let current = get(connection, id)?;
    let most = MOST_READINGS.max(current.content.measurements.readings.len());
    let mut content = current.content.clone();
    let mut known: HashSet<String> =
        content.measurements.readings.iter().map(|kept| kept.id.clone()).collect();
    for reading in readings {
        if known.insert(reading.id.clone()) {
            content.measurements.readings.push(reading.clone());
        }
    }
    if content.measurements.readings.len() > most {
        return Err(StoreError::TooMany { what: "readings", most: MOST_READINGS, with: " with one job" });
    }
    replace(connection, current, content, who, now)
}

/// Takes one reading away from a job as it is now. Undo brings it back.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn remove_reading(
    connection: &Connection,
    id: i64,
    reading: &str,
    who: &str,
    now: Timestamp,
) -> Result<Job, StoreError> {
    let current = get(connection, id)?;
    let mut content = current.content.clone();
    content.measurements.readings.retain(|kept| kept.id != reading);
    replace(connection, current, content, who, now)
}

/// The shop's memory: the latest job of each car whose model was written down, by words of model, body,
/// generation and brakes.
///
/// # Errors
/// Only what SQLite says.
pub fn known_cars(connection: &Connection, find: &str, most: usize) -> Result<Vec<Job>, StoreError> {
    let mut statement = connection.prepare_cached(
        "SELECT job_id, group_concat(value, ' ') AS words FROM
             (SELECT car_fact.* FROM car_fact JOIN job ON job.id = car_fact.job_id
              WHERE fact IN ('model', 'body', 'generation', 'brake_package')
              ORDER BY job.updated_at DESC, job.id DESC, fact)
         GROUP BY job_id HAVING sum(fact = 'model') > 0
         ORDER BY (SELECT updated_at FROM job WHERE id = job_id) DESC, job_id DESC",
    )?;
    let rows =
        statement.query_map([], |row| Ok((row.get::<_, i64>("job_id")?, row.get::<_, String>("words")?)))?;
    let find = find.to_lowercase();
    let wanted: Vec<&str> = find.split_whitespace().collect();
    let mut seen = std::collections::BTreeSet::new();
    let mut cars = Vec::new();
    for row in rows {
        let (id, words) = row?;
        let words = words.to_lowercase();
        if cars.len() < most && wanted.iter().all(|word| words.contains(word)) && !seen.contains(&words) {
            match get(connection, id) {
                Ok(job) => {
                    seen.insert(words);
                    cars.push(job);
                }
                // The counter shows it as damaged; an older job of this model stands in.
                Err(StoreError::Corrupt { .. }) => {}
                Err(error) => return Err(error),
            }
        }
    }
    Ok(cars)
}

/// Takes the last change back that was not taken back yet.
///
/// # Errors
/// [`StoreError::Stale`], [`StoreError::NotFound`], [`StoreError::NothingTo`].
pub fn undo(
    connection: &Connection,
    id: i64,
    based_on: i64,
    who: &str,
    now: Timestamp,
) -> Result<Job, StoreError> {
    step(connection, id, based_on, who, now, Kind::Undo)
}

/// Does again what was last undone.
///
/// # Errors
/// As [`undo`].
pub fn redo(
    connection: &Connection,
    id: i64,
    based_on: i64,
    who: &str,
    now: Timestamp,
) -> Result<Job, StoreError> {
    step(connection, id, based_on, who, now, Kind::Redo)
}

fn step(
    connection: &Connection,
    id: i64,
    based_on: i64,
    who: &str,
    now: Timestamp,
    kind: Kind,
) -> Result<Job, StoreError> {
    let current = at(connection, id, based_on)?;
    let steps = journal::steps(connection, id)?;
    let (entry, word) = match kind {
        Kind::Redo => (steps.to_redo, "redo"),
        _ => (steps.to_undo, "undo"),
    };
    let entry = entry.ok_or(StoreError::NothingTo(word))?;
    let (what, content) = journal::content_of(connection, entry, kind, &current.content)?;
    go_on(connection, current, content, (kind, &format!("{word}: {what}")), who, now)
}

/// One job, when it is at this revision.
///
/// # Errors
/// [`StoreError::Stale`] with the job as it is now, [`StoreError::NotFound`].
pub fn at(connection: &Connection, id: i64, based_on: i64) -> Result<Job, StoreError> {
    let current = get(connection, id)?;
    if current.revision == based_on {
        Ok(current)
    } else {
        Err(StoreError::Stale { based_on, current: Box::new(current) })
    }
}

/// Writes a content into a job's row and tables; of what was there before only what differs is written anew. Whether it may
/// hold readings or trials that were not there.
fn put_content(
    connection: &Connection,
    id: i64,
    (revision, token): (i64, &str),
    before: Option<&JobContent>,
    content: &JobContent,
    now: Timestamp,
) -> Result<bool, StoreError> {
    let mut fields = columns::fields_of(&Plain(content))?;
    for (name, pair) in [("fitted", &content.fitted), ("planned", &content.planned)] {
        let (front, rear) = lines_of(pair);
        fields.push((format!("{name}_front"), front.into()));
        fields.push((format!("{name}_rear"), rear.into()));
    }
    fields.push(("revision".to_owned(), revision.into()));
    fields.push(("token".to_owned(), token.to_owned().into()));
    fields.push(("updated_at".to_owned(), now.to_string().into()));
    columns::update(connection, "job", id, &fields)?;
    if before.is_none_or(|before| before.candidates != content.candidates) {
        put_candidates(connection, id, &content.candidates)?;
    }
    content.measurements.put(connection, id, before.map(|before| &before.measurements))?;
    if before.is_none_or(|before| before.picked != content.picked) {
        content.picked.put(connection, id)?;
    }
    if before.is_none_or(|before| before.workshop != content.workshop) {
        content.workshop.put(connection, id)?;
    }
    let is_same = |before: &JobContent| {
        before.measurements.readings == content.measurements.readings && before.workshop == content.workshop
    };
    if before.is_some_and(is_same) {
        return Ok(false);
    }
    PartUids::give(connection, id, content)?;
    Ok(true)
}

/// A content's plain fields: what is made of parts has tables of its own.
struct Plain<'a>(&'a JobContent);

impl Serialize for Plain<'_> {
    fn serialize<S: serde::Serializer>(&self, to: S) -> Result<S::Ok, S::Error> {
        let JobContent {
            car_label,
            wish,
            stage,
            drive,
            notes,
            put_away,
            wishes,
            road,
            fitted: _,
            planned: _,
            candidates: _,
            measurements: _,
            picked: _,
            workshop: _,
        } = self.0;
        #[derive(Serialize)]
        struct Fields<'a> {
            car_label: &'a str,
            wish: &'a str,
            stage: Stage,
            drive: Option<Drive>,
            notes: &'a str,
            put_away: bool,
            wishes: &'a Option<String>,
            road: &'a Option<String>,
        }
        let (stage, drive, put_away) = (*stage, *drive, *put_away);
        Fields { car_label, wish, stage, drive, notes, put_away, wishes, road }.serialize(to)
    }
}

fn put_candidates(connection: &Connection, id: i64, candidates: &[Candidate]) -> Result<(), StoreError> {
    connection.prepare_cached("DELETE FROM candidate WHERE job_id = ?1")?.execute([id])?;
    let mut insert = connection.prepare_cached(
        "INSERT INTO candidate (job_id, letter, position, note, front, rear, levers, picked)
         VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8)",
    )?;
    for (position, kept) in candidates.iter().enumerate() {
        let (front, rear) = lines_of(&kept.setups);
        let letter = kept.letter.to_string();
        let (levers, picked) = (json_of(&lever_rows::of(&kept.levers))?, json_of(&kept.picked)?);
        insert.execute(params![id, letter, position as i64, kept.note, front, rear, levers, picked])?;
    }
    Ok(())
}

fn candidates(connection: &Connection, job: i64) -> Result<Vec<Candidate>, StoreError> {
    let mut statement = connection.prepare_cached(
        "SELECT letter, note, front, rear, levers, picked FROM candidate WHERE job_id = ?1 ORDER BY position",
    )?;
    let rows = statement.query_map([job], |row| {
        let setups = pair_of(row.get("front")?, row.get("rear")?);
        let parts: [String; 2] = [row.get("levers")?, row.get("picked")?];
        Ok((row.get::<_, String>("letter")?, row.get::<_, String>("note")?, setups, parts))
    })?;
    let corrupt = |why: String| StoreError::Corrupt { table: "candidate", id: job, why };
    let mut candidates = Vec::new();
    for row in rows {
        let (letter, note, setups, [levers, picked]) = row?;
        let letter = letter.chars().next().ok_or_else(|| corrupt("no letter".to_owned()))?;
        let unread = |error: serde_json::Error| corrupt(error.to_string());
        let levers: Vec<LeverRow> = serde_json::from_str(&levers).map_err(unread)?;
        candidates.push(Candidate {
            letter,
            note,
            setups: setups.map_err(corrupt)?,
            levers: lever_rows::levers(&levers).map_err(corrupt)?,
            picked: serde_json::from_str(&picked).map_err(unread)?,
        });
    }
    Ok(candidates)
}
