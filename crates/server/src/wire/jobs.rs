//! Jobs on the wire.

use std::collections::VecDeque;
use std::sync::{Mutex, PoisonError};

use app::compare::is_same_plan;
use app::picked::rows_of;
use fitment::SetupPair;
use fitment::car::corner::{Corner, recorded::corners};
use fitment::car::lever::PairLevers;
use fitment::car::limits::Drive;
use serde::{Deserialize, Serialize};
use store::documents::Unreadable;
use store::jobs::{Candidate, Job, JobContent, JobSummary, Page, Stage};
use store::measurements::Measurements;
use store::picked::{Picked, PickedRow};
use store::workshop::Workshop;
use utoipa::{IntoParams, ToSchema};

use super::corner::{LeverAmount, TroubleView};
use super::finder::FinderRequest;
use super::measured::{self, CarChange, CarView, ReadingView, WantedView};
use super::picked::{PickedChange, PickedView, read_rows};
use super::read::FieldErrors;
use super::road_sheet::RoadSheet;
use super::workshop::{TemplateView, TrialView, WorkshopChange};
use super::{DriveCode, Lines, PerAxle};
use crate::problem::{ApiError, FieldError};

/// Where a job stands in the order of the work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs, reason = "the stages by their names")]
pub enum StageCode {
    Car,
    Bay,
    Bench,
    Rack,
    Brakes,
    TrialFit,
    RoadAndTrack,
    Handover,
}

impl From<StageCode> for Stage {
    fn from(code: StageCode) -> Self {
        match code {
            StageCode::Car => Self::Car,
            StageCode::Bay => Self::Bay,
            StageCode::Bench => Self::Bench,
            StageCode::Rack => Self::Rack,
            StageCode::Brakes => Self::Brakes,
            StageCode::TrialFit => Self::TrialFit,
            StageCode::RoadAndTrack => Self::RoadAndTrack,
            StageCode::Handover => Self::Handover,
        }
    }
}

impl From<Stage> for StageCode {
    fn from(stage: Stage) -> Self {
        match stage {
            Stage::Car => Self::Car,
            Stage::Bay => Self::Bay,
            Stage::Bench => Self::Bench,
            Stage::Rack => Self::Rack,
            Stage::Brakes => Self::Brakes,
            Stage::TrialFit => Self::TrialFit,
            Stage::RoadAndTrack => Self::RoadAndTrack,
            Stage::Handover => Self::Handover,
        }
    }
}

/// A kept setup.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CandidateView {
    /// A to Z.
    pub letter: String,
    /// What the advisor says about it.
    #[serde(default)]
    pub note: String,
    /// Its setup lines.
    pub lines: Lines,
    /// What it counts as done to the car; stays as it is when left out.
    #[serde(default)]
    pub levers: Option<PerAxle<Vec<LeverAmount>>>,
    /// The rows of price lists it is made of; stay as they are when left out.
    #[serde(default)]
    pub picked: Option<Vec<PickedView>>,
}

impl From<&Candidate> for CandidateView {
    fn from(kept: &Candidate) -> Self {
        Self {
            letter: kept.letter.to_string(),
            note: kept.note.clone(),
            lines: Lines::from(&kept.setups),
            levers: Some(measured::levers_view(&kept.levers)),
            picked: Some(kept.picked.iter().map(PickedView::from).collect()),
        }
    }
}

/// A kept setup as it was given: what was left out is as it was.
#[derive(Debug)]
struct CandidateChange {
    letter: char,
    note: String,
    setups: SetupPair,
    levers: Option<PairLevers>,
    picked: Option<Vec<PickedRow>>,
}

impl CandidateChange {
    fn read(errors: &mut FieldErrors, pointer: &str, kept: &CandidateView) -> Self {
        let letter = one_letter(&kept.letter).unwrap_or_else(|| {
            errors.fault(&format!("{pointer}/letter"), "is not one letter from A to Z");
            '?'
        });
        let (levers_at, picked_at) = (format!("{pointer}/levers"), format!("{pointer}/picked"));
        Self {
            letter,
            note: errors.text(&format!("{pointer}/note"), kept.note.trim(), WISH_LENGTH),
            setups: errors.pair(&format!("{pointer}/lines"), &kept.lines),
            levers: kept.levers.as_ref().map(|levers| measured::read_pair_levers(errors, &levers_at, levers)),
            picked: kept.picked.as_ref().map(|rows| read_rows(errors, &picked_at, rows)),
        }
    }

    fn over(self, now: &[Candidate]) -> Candidate {
        let was = now.iter().find(|kept| kept.letter == self.letter && kept.setups == self.setups);
        Candidate {
            letter: self.letter,
            note: self.note,
            setups: self.setups,
            levers: self.levers.or(was.map(|kept| kept.levers)).unwrap_or_default(),
            picked: self.picked.or(was.map(|kept| kept.picked.clone())).unwrap_or_default(),
        }
    }
}

/// A job.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct JobView {
    /// Id in paths.
    pub id: i64,
    /// The shop's running number, four figures.
    pub number: String,
    /// Itself and no other: another file may have a job of the same number, and never of the same uid.
    pub uid: String,
    /// Grows by one with every change.
    pub revision: i64,
    /// The revision itself, drawn with every change: `"<uid>.<token>"` is the job's `ETag`.
    pub token: String,
    /// When it was opened, RFC 3339.
    pub created_at: String,
    /// When it last changed, RFC 3339.
    pub updated_at: String,
    /// Whether there is a change to undo.
    pub can_undo: bool,
    /// Whether there is an undone change to redo.
    pub can_redo: bool,
    /// What undo takes back, in words.
    pub undoes: Option<String>,
    /// What redo does again, in words.
    pub redoes: Option<String>,
    /// Which car, in the shop's words.
    pub car_label: String,
    /// What the owner wants.
    pub wish: String,
    /// Where the work stands.
    pub stage: StageCode,
    /// Driven axles, when known.
    pub drive: Option<DriveCode>,
    /// Free notes.
    pub notes: String,
    /// On the car.
    pub fitted: Lines,
    /// On the bench.
    pub planned: Lines,
    /// Kept setups.
    pub candidates: Vec<CandidateView>,
    /// Out of the way, not deleted.
    pub put_away: bool,
    /// The car's record.
    pub car: CarView,
    /// What was read in the bay, in the order it was read.
    pub readings: Vec<ReadingView>,
    /// Readings with something wrong.
    pub troubles: Vec<TroubleView>,
    /// What stands in the file of this job and cannot be read: kept as it is until somebody takes it off.
    pub unreadable: Vec<UnreadableView>,
    /// What is done to the car for the plan.
    pub levers: PerAxle<Vec<LeverAmount>>,
    /// How the owner wants it to stand.
    pub wanted: PerAxle<Option<WantedView>>,
    /// Rows of price lists that were picked, as they were then.
    pub picked: Vec<PickedView>,
    /// Codes of the questions that were gone through with the owner.
    pub answered: Vec<String>,
    /// Profiles of what stands inside the barrel.
    pub templates: Vec<TemplateView>,
    /// What was tried on.
    pub trials: Vec<TrialView>,
    /// What is sought, as the finder is asked; null while nobody was asked.
    pub wishes: Option<FinderRequest>,
    /// Its road and track sheet; null while nothing was typed on it.
    pub road: Option<RoadSheet>,
}

impl From<Job> for JobView {
    fn from(job: Job) -> Self {
        let content = job.content;
        let candidates = content.candidates.iter();
        let (readings, trials, parts) =
            (content.measurements.readings.iter(), content.workshop.trials.iter(), job.parts);
        let unreadable = UnreadableView::all_of(&content);
        Self {
            id: job.id,
            number: format!("{:04}", job.number),
            uid: job.uid,
            revision: job.revision,
            token: job.token,
            created_at: job.created_at.to_string(),
            updated_at: job.updated_at.to_string(),
            can_undo: job.undoes.is_some(),
            can_redo: job.redoes.is_some(),
            undoes: job.undoes,
            redoes: job.redoes,
            stage: content.stage.into(),
            drive: content.drive.map(DriveCode::from),
            fitted: Lines::from(&content.fitted),
            planned: Lines::from(&content.planned),
            candidates: candidates.map(CandidateView::from).collect(),
            put_away: content.put_away,
            car: CarView::from(&content.measurements.car),
            readings: readings.map(|kept| ReadingView::of(kept, &parts)).collect(),
            troubles: troubles(&content.measurements, &content.fitted),
            levers: measured::levers_view(&content.measurements.levers),
            wanted: measured::wanted_view(&content.measurements.wanted),
            picked: content.picked.rows.iter().map(PickedView::from).collect(),
            answered: content.picked.answered.into_iter().collect(),
            templates: content.workshop.templates.iter().map(TemplateView::from).collect(),
            trials: trials.map(|kept| TrialView::of(kept, &parts)).collect(),
            unreadable,
            wishes: content.wishes.as_deref().and_then(|text| FinderRequest::of_kept(text).ok()),
            road: content.road.as_deref().and_then(|text| RoadSheet::of_kept(text).ok()),
            car_label: content.car_label,
            wish: content.wish,
            notes: content.notes,
        }
    }
}

/// A document of a job that cannot be read.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct UnreadableView {
    /// The field that it would be: `road` or `wishes`.
    pub what: &'static str,
    /// Why, in a sentence.
    pub why: String,
    /// As it stands in the file.
    pub text: String,
}

impl UnreadableView {
    /// All of a job.
    pub fn all_of(content: &JobContent) -> Vec<Self> {
        let road = content.road.as_deref().and_then(|text| RoadSheet::of_kept(text).err());
        let wishes = content.wishes.as_deref().and_then(|text| FinderRequest::of_kept(text).err());
        let both = [("road", road), ("wishes", wishes)];
        let view = |(what, one): (&'static str, Option<Unreadable>)| {
            let Unreadable { text, why } = one?;
            Some(Self { what, why, text })
        };
        both.into_iter().filter_map(view).collect()
    }

    /// A content without one of them; nothing for what can be read, or is not there.
    pub fn taken_off(content: &JobContent, what: &str) -> Option<JobContent> {
        Self::all_of(content).iter().find(|one| one.what == what)?;
        Some(match what {
            "road" => JobContent { road: None, ..content.clone() },
            _ => JobContent { wishes: None, ..content.clone() },
        })
    }
}

/// What was found wrong with the readings of a job that has many, by what it follows from.
type Found = (Measurements, SetupPair, Vec<TroubleView>);

/// The last few of them: a job is shown again and again while its readings stay as they are.
static LAST_FOUND: Mutex<VecDeque<Found>> = Mutex::new(VecDeque::new());
/// Kept at most, and for jobs of how many readings at least: looking through a few is quicker than remembering them.
const MOST_FOUND: usize = 4;
const MANY_READINGS: usize = 100;

/// Readings with something wrong, counted as the job lists them.
fn troubles(measurements: &Measurements, fitted: &SetupPair) -> Vec<TroubleView> {
    if measurements.readings.len() < MANY_READINGS {
        return troubles_found(measurements, fitted);
    }
    let follows_from = |one: &Found| {
        one.0.readings == measurements.readings && one.0.car == measurements.car && one.1 == *fitted
    };
    let last = || LAST_FOUND.lock().unwrap_or_else(PoisonError::into_inner);
    if let Some(found) = last().iter().find(|one| follows_from(one)) {
        return found.2.clone();
    }
    let found = troubles_found(measurements, fitted);
    let mut last = last();
    last.truncate(MOST_FOUND - 1);
    last.push_front((measurements.clone(), *fitted, found.clone()));
    found
}

fn troubles_found(measurements: &Measurements, fitted: &fitment::SetupPair) -> Vec<TroubleView> {
    let (corners, which) = corners(&measurements.taken(fitted), &measurements.car);
    let on = |corner: &Corner, which: &[usize]| -> Vec<TroubleView> {
        let count = |at: usize| which.get(at).copied().unwrap_or(at);
        corner.resolve().troubles.iter().map(|trouble| TroubleView::new(trouble, count)).collect()
    };
    let mut all = on(&corners.front, &which[0]);
    all.extend(on(&corners.rear, &which[1]));
    all
}

/// Which jobs.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct JobsQuery {
    /// Words that must all occur in number, car, wish, notes or setups.
    #[serde(default)]
    pub find: String,
    /// The jobs put away instead of the open ones.
    #[serde(default)]
    pub put_away: bool,
    /// How many to leave out first.
    #[serde(default)]
    pub from: u32,
    /// How many at most: 100, and no more than 500.
    #[serde(default)]
    #[param(maximum = 500)]
    pub most: Option<u32>,
}

/// Jobs of a page, when nothing is said, and at most.
const PAGE: (u32, u32) = (100, 500);

impl JobsQuery {
    /// The page that is asked for.
    ///
    /// # Errors
    /// More than a page holds.
    pub fn page(self) -> Result<Page, ApiError> {
        let most = self.most.unwrap_or(PAGE.0);
        if most > PAGE.1 {
            let detail = format!("no more than {} are listed at once", PAGE.1);
            return Err(ApiError::Malformed(vec![FieldError::new("most", detail)]));
        }
        Ok(Page { find: self.find, put_away: self.put_away, from: self.from as usize, most: most as usize })
    }
}

/// A job as the counter shows it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct JobSummaryView {
    /// Id in paths.
    pub id: i64,
    /// The shop's running number, four figures.
    pub number: String,
    /// Itself and no other.
    pub uid: String,
    /// Grows by one with every change.
    pub revision: i64,
    /// When it last changed, RFC 3339.
    pub updated_at: String,
    /// Which car, in the shop's words.
    pub car_label: String,
    /// What the owner wants.
    pub wish: String,
    /// Where the work stands; null when that cannot be read.
    pub stage: Option<StageCode>,
    /// On the car.
    pub fitted: Lines,
    /// On the bench.
    pub planned: Lines,
    /// How many setups are kept.
    pub candidates: usize,
    /// Out of the way, not deleted.
    pub put_away: bool,
    /// What of it cannot be read; such a job is put back from its journal by `POST /jobs/{id}/mend`.
    pub damaged: Option<String>,
}

impl From<JobSummary> for JobSummaryView {
    fn from(job: JobSummary) -> Self {
        let lines = |(front, rear)| Lines { front, rear };
        Self {
            id: job.id,
            number: format!("{:04}", job.number),
            uid: job.uid,
            revision: job.revision,
            updated_at: job.updated_at,
            car_label: job.car_label,
            wish: job.wish,
            stage: job.stage.map(StageCode::from),
            fitted: lines(job.fitted),
            planned: lines(job.planned),
            candidates: job.candidates,
            put_away: job.put_away,
            damaged: job.damaged,
        }
    }
}

const LABEL_LENGTH: usize = 120;
const WISH_LENGTH: usize = 400;
const NOTES_LENGTH: usize = 10_000;
pub(super) const SIGN_LENGTH: usize = 40;
const MOST_CANDIDATES: usize = 26;

/// A new job: a car and a setup line are enough.
#[derive(Debug, Deserialize, ToSchema)]
pub struct NewJob {
    /// Which car.
    pub car_label: String,
    /// What is fitted, one axle or both, as typed or pasted.
    #[serde(default)]
    pub fitted_line: String,
    /// What the owner wants.
    #[serde(default)]
    pub wish: String,
    /// Who signs, for the journal.
    #[serde(default)]
    pub signed_by: String,
}

impl NewJob {
    /// Into what the store keeps, and who signs.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn read(&self) -> Result<(JobContent, String), ApiError> {
        let mut errors = FieldErrors::default();
        let car_label = label(&mut errors, &self.car_label);
        let mut fitted = fitment::SetupPair::default();
        if !self.fitted_line.trim().is_empty() {
            match fitment::setup::line::read(&self.fitted_line) {
                Ok(line) => match (line.setups, line.first_fault(&self.fitted_line)) {
                    (_, Some(fault)) => errors.fault_in_notation("/fitted_line", &fault),
                    (Some(pair), None) if pair != fitment::SetupPair::default() => fitted = pair,
                    _ => errors.fault("/fitted_line", "no wheel and no tire can be read here"),
                },
                Err(error) => errors.fault_in_notation("/fitted_line", &error),
            }
        }
        let content = JobContent {
            car_label,
            wish: errors.text("/wish", self.wish.trim(), WISH_LENGTH),
            stage: Stage::Bench,
            drive: None,
            notes: String::new(),
            fitted,
            planned: fitment::SetupPair::default(),
            candidates: Vec::new(),
            put_away: false,
            wishes: None,
            road: None,
            measurements: Measurements::default(),
            picked: Picked::default(),
            workshop: Workshop::default(),
        };
        let who = errors.text("/signed_by", &self.signed_by, SIGN_LENGTH);
        errors.finish((content, who))
    }
}

fn label(errors: &mut FieldErrors, text: &str) -> String {
    let text = text.trim();
    if text.is_empty() {
        errors.fault("/car_label", "name the car");
    }
    errors.text("/car_label", text, LABEL_LENGTH)
}

/// A job's content, replaced as a whole.
#[derive(Debug, Deserialize, ToSchema)]
pub struct JobChange {
    /// The revision this change is based on.
    pub based_on_revision: i64,
    /// Who signs, for the journal.
    #[serde(default)]
    pub signed_by: String,
    /// Which car.
    pub car_label: String,
    /// What the owner wants.
    pub wish: String,
    /// Where the work stands.
    pub stage: StageCode,
    /// Driven axles, when known.
    pub drive: Option<DriveCode>,
    /// Free notes.
    pub notes: String,
    /// On the car.
    pub fitted: Lines,
    /// On the bench.
    pub planned: Lines,
    /// Kept setups.
    pub candidates: Vec<CandidateView>,
    /// Out of the way, not deleted.
    pub put_away: bool,
    /// The car's record; stays as it is when left out.
    #[serde(default)]
    pub car: Option<CarView>,
    /// What is done to the car; stays as it is when left out.
    #[serde(default)]
    pub levers: Option<PerAxle<Vec<LeverAmount>>>,
    /// How it is to stand; stays as it is when left out.
    #[serde(default)]
    pub wanted: Option<PerAxle<Option<WantedView>>>,
    /// Rows that are picked; stay as they are when left out.
    #[serde(default)]
    pub picked: Option<Vec<PickedView>>,
    /// Questions gone through with the owner; stay as they are when left out.
    #[serde(default)]
    pub answered: Option<Vec<String>>,
    /// Brake profiles; stay as they are when left out.
    #[serde(default)]
    pub templates: Option<Vec<TemplateView>>,
    /// What is sought; stays as it is when left out.
    #[serde(default)]
    pub wishes: Option<FinderRequest>,
    /// Its road and track sheet; stays as it is when left out.
    #[serde(default)]
    pub road: Option<RoadSheet>,
    /// What was tried on; stays as it is when left out.
    #[serde(default)]
    pub trials: Option<Vec<TrialView>>,
}

/// What changes of what a job may leave out.
#[derive(Debug)]
pub struct Changes {
    candidates: Vec<CandidateChange>,
    wishes: Option<String>,
    road: Option<String>,
    car: CarChange,
    picked: PickedChange,
    workshop: WorkshopChange,
}

impl Changes {
    /// A content with what was left out as it is now.
    ///
    /// # Errors
    /// A document over one that cannot be read: that one would be lost without anybody having seen it.
    pub fn over(self, now: JobContent, content: JobContent) -> Result<JobContent, ApiError> {
        let mut errors = FieldErrors::default();
        for (is_given, one) in [(self.road.is_some(), "road"), (self.wishes.is_some(), "wishes")] {
            let stands = UnreadableView::all_of(&now).into_iter().find(|other| other.what == one);
            if let Some(stands) = stands.filter(|_| is_given) {
                errors.fault(
                    &format!("/{one}"),
                    format!("{}; it is kept as it is until it is taken off", stands.why),
                );
            }
        }
        errors.finish(())?;
        let kept = now.candidates;
        Ok(JobContent {
            candidates: self.candidates.into_iter().map(|one| one.over(&kept)).collect(),
            wishes: self.wishes.or(now.wishes),
            road: self.road.or(now.road),
            measurements: self.car.over(&now.measurements),
            picked: self.picked.over(now.picked),
            workshop: self.workshop.over(now.workshop),
            ..content
        })
    }
}

impl JobChange {
    /// Into what the store keeps (what may be left out still empty), what of that changes, and who signs.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn read(&self) -> Result<(JobContent, Changes, String), ApiError> {
        let mut errors = FieldErrors::default();
        if self.candidates.len() > MOST_CANDIDATES {
            errors.fault("/candidates", "more than 26 candidates cannot be kept");
        }
        let mut candidates: Vec<CandidateChange> = Vec::with_capacity(self.candidates.len());
        for (at, kept) in self.candidates.iter().enumerate() {
            let pointer = format!("/candidates/{at}");
            let kept = CandidateChange::read(&mut errors, &pointer, kept);
            if candidates.iter().any(|other| other.letter == kept.letter) {
                errors.fault(&format!("{pointer}/letter"), format!("{} is there twice", kept.letter));
            }
            candidates.push(kept);
        }
        let wishes = self.wishes.as_ref().and_then(|wishes| wishes.kept(&mut errors, "/wishes"));
        let road = self.road.as_ref().and_then(|road| road.kept(&mut errors, "/road"));
        let content = JobContent {
            car_label: label(&mut errors, &self.car_label),
            wish: errors.text("/wish", self.wish.trim(), WISH_LENGTH),
            stage: self.stage.into(),
            drive: self.drive.map(Drive::from),
            notes: errors.text("/notes", &self.notes, NOTES_LENGTH),
            fitted: errors.pair("/fitted", &self.fitted),
            planned: errors.pair("/planned", &self.planned),
            candidates: Vec::new(),
            put_away: self.put_away,
            wishes: None,
            road: None,
            measurements: Measurements::default(),
            picked: Picked::default(),
            workshop: Workshop::default(),
        };
        let picked = PickedChange::read(&mut errors, self.picked.as_deref(), self.answered.as_deref());
        let car = CarChange::read(&mut errors, self.car.as_ref(), self.levers.as_ref(), self.wanted.as_ref());
        let who = errors.text("/signed_by", &self.signed_by, SIGN_LENGTH);
        let workshop = WorkshopChange::read(&mut errors, self.templates.as_deref(), self.trials.as_deref());
        errors.finish((content, Changes { candidates, wishes, road, car, picked, workshop }, who))
    }
}

fn one_letter(text: &str) -> Option<char> {
    let mut letters = text.chars();
    letters.next().filter(|letter| letter.is_ascii_uppercase() && letters.next().is_none())
}

/// A job in a revision, as somebody last had it.
#[derive(Debug, Deserialize, ToSchema)]
pub struct TagView {
    /// The job.
    pub uid: String,
    /// The revision.
    pub token: String,
}

/// How such a one stands to this file.
#[derive(Debug, Serialize, ToSchema)]
pub struct StandingView {
    /// The job's id in paths here; null when this file has no such job.
    pub job: Option<i64>,
    /// Whether this file knows that revision of it: what was typed on it can then be brought together with the job.
    pub is_known: bool,
}

/// A step that needs nothing but the revision it is based on.
#[derive(Debug, Deserialize, ToSchema)]
pub struct BasedOn {
    /// The revision this step is based on.
    pub based_on_revision: i64,
    /// Who signs, for the journal.
    #[serde(default)]
    pub signed_by: String,
}

impl BasedOn {
    /// Who signs, cut to what the journal keeps.
    pub fn who(&self) -> String {
        self.signed_by.chars().take(SIGN_LENGTH).collect()
    }
}

/// The content with the plan on the bench kept as a candidate under the next free letter.
///
/// # Errors
/// When there is no plan, it is kept already, or every letter is taken.
pub fn with_plan_kept(content: &JobContent) -> Result<JobContent, ApiError> {
    let mut errors = FieldErrors::default();
    let highest = content.candidates.iter().map(|kept| kept.letter).max();
    let next = match highest {
        None => Some('A'),
        Some(letter) if letter < 'Z' => char::from_u32(u32::from(letter) + 1),
        Some(_) => ('A'..='Z').find(|letter| content.candidates.iter().all(|kept| kept.letter != *letter)),
    };
    let mut content = content.clone();
    if content.planned == fitment::SetupPair::default() {
        errors.fault("/planned", "there is no plan on the bench to keep: type a setup line first");
    } else if let Some(kept) = content.candidates.iter().find(|kept| is_same_plan(kept, &content)) {
        errors.fault("/planned", format!("this setup is kept already, as {}", kept.letter));
    } else {
        match next {
            Some(letter) => {
                content.candidates.push(Candidate {
                    letter,
                    note: String::new(),
                    setups: content.planned,
                    levers: content.measurements.levers,
                    picked: rows_of(&content.picked, &content.planned),
                });
            }
            None => errors.fault("/candidates", "more than 26 candidates cannot be kept"),
        }
    }
    errors.finish(content)
}

/// One line of a job's journal.
#[derive(Debug, Serialize, ToSchema)]
pub struct JournalEntry {
    /// The revision it made.
    pub revision: i64,
    /// When, RFC 3339.
    pub at: String,
    /// Who signed.
    pub who: String,
    /// `create`, `change`, `undo` or `redo`.
    pub kind: &'static str,
    /// What changed.
    pub what: String,
}

impl From<store::journal::Entry> for JournalEntry {
    fn from(entry: store::journal::Entry) -> Self {
        Self {
            revision: entry.revision,
            at: entry.at.to_string(),
            who: entry.who,
            kind: entry.kind.code(),
            what: entry.what,
        }
    }
}
