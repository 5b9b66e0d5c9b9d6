//! What a job knows of its car, as the core wants it.

use std::collections::HashMap;
use std::sync::{Arc, Mutex, OnceLock, PoisonError};

use fitment::car::corner::recorded::corners;
use fitment::car::lever::PairLevers;
use fitment::car::limits::{Drive, HouseLimits};
use fitment::car::style::StyleTarget;
use fitment::judgement::case::{CarState, Case};
use fitment::judgement::purpose::Purpose;
use fitment::records::SearchWish;
use fitment::setup::{Axle, SetupPair};
use fitment::values::date_code::Day;
use rusqlite::Connection;
use store::StoreError;
use store::documents;
use store::identity::{self, Tag};
use store::jobs::{self, Candidate, JobContent};
use store::measurements::Measurements;
use store::picked::Picked;
use store::workshop::{self, WheelTemplate, Workshop};

use crate::evidence;
use crate::picked::parts_of;

/// What a job knows beside its plan.
#[derive(Debug, Clone, Default)]
pub struct JobKnowledge {
    /// What is on the car: readings taken before it was typed are against it.
    pub fitted: SetupPair,
    /// Of its car.
    pub measurements: Measurements,
    /// Picked from the price lists.
    pub picked: Picked,
    /// From the workshop.
    pub workshop: Workshop,
    /// Insides of wheels that the house has measured.
    pub insides: Arc<Vec<WheelTemplate>>,
    /// Setups kept so far.
    pub candidates: Vec<Candidate>,
    /// What the set is for.
    pub purpose: Purpose,
}

impl JobKnowledge {
    /// Of a job, with the insides that the house has measured.
    pub fn of(content: &JobContent, insides: Vec<WheelTemplate>) -> Self {
        Self {
            fitted: content.fitted,
            measurements: content.measurements.clone(),
            picked: content.picked.clone(),
            workshop: content.workshop.clone(),
            insides: Arc::new(insides),
            candidates: content.candidates.clone(),
            purpose: purpose(content),
        }
    }

    /// The same with what a kept setup counts as done, and the parts it is made of before any others.
    #[must_use]
    pub fn with_candidate(&self, kept: &Candidate) -> Self {
        let mut own = self.clone();
        own.measurements.levers = kept.levers;
        own.picked.rows.splice(0..0, kept.picked.iter().cloned());
        own
    }

    /// The car as all of it says it is: corners by readings and trials, record, picked parts, evidence of the workshop.
    pub fn car_state(&self) -> CarState {
        let Self { fitted, measurements, picked, workshop, insides, .. } = self;
        let (mut corners, _) = corners(&measurements.taken(fitted), &measurements.car);
        for tried in evidence::tries_of(workshop) {
            let corner = match tried.axle {
                Axle::Front => &mut corners.front,
                Axle::Rear => &mut corners.rear,
            };
            corner.readings.extend(tried.reading());
        }
        let (parts, unreadable) = parts_of(picked);
        let of = |axle| evidence::of_axle(workshop, insides, axle, &unreadable);
        CarState::new(corners, measurements.levers, measurements.wanted)
            .of_car(measurements.car.clone())
            .with_parts(parts)
            .with_evidence(of(Axle::Front), of(Axle::Rear))
            .for_purpose(self.purpose.clone())
    }
}

/// What a job's set is for; what cannot be read says nothing.
fn purpose(content: &JobContent) -> Purpose {
    let wish = content.wishes.as_deref().and_then(|text| documents::read::<SearchWish>(text).ok());
    wish.unwrap_or_default().purpose()
}

/// What plans are judged by: the house, the day, and what is known of the car.
#[derive(Debug)]
pub struct JudgingContext {
    /// The house's limits.
    pub limits: HouseLimits,
    /// Today.
    pub today: Day,
    /// The car as it is known.
    pub state: Arc<CarState>,
    /// Setups kept so far, to be marked on the window.
    pub kept: Vec<Candidate>,
}

impl JudgingContext {
    /// Of a job.
    pub fn of(knowledge: &JobKnowledge, limits: HouseLimits, today: Day) -> Self {
        Self { limits, today, state: Arc::new(knowledge.car_state()), kept: Vec::new() }
    }

    /// A plan as a case.
    pub fn case<'a>(
        &'a self,
        fitted: &'a SetupPair,
        planned: &'a SetupPair,
        drive: Option<Drive>,
    ) -> Case<'a> {
        self.case_in(Arc::clone(&self.state), fitted, planned, drive)
    }

    /// A plan as a case on a car that is known otherwise, under the same limits.
    pub fn case_in<'a>(
        &'a self,
        state: impl Into<Arc<CarState>>,
        fitted: &'a SetupPair,
        planned: &'a SetupPair,
        drive: Option<Drive>,
    ) -> Case<'a> {
        Case::on_a_car(fitted, planned, drive, &self.limits, Some(self.today), state)
    }
}

/// What a job knows, and the state of its car, which is worked out once for all plans that are held against it.
#[derive(Debug, Default)]
pub struct CachedJob {
    // Nothing of it changes: the state is that of this very knowledge.
    knowledge: JobKnowledge,
    state: OnceLock<Arc<CarState>>,
}

impl From<JobKnowledge> for CachedJob {
    fn from(knowledge: JobKnowledge) -> Self {
        Self { knowledge, state: OnceLock::new() }
    }
}

impl CachedJob {
    /// What it knows.
    pub fn knowledge(&self) -> &JobKnowledge {
        &self.knowledge
    }

    /// The car with these setups on it, where any are named, and with this done to it and wanted of it, where it is not as
    /// the job has it.
    pub fn state(
        &self,
        fitted: &SetupPair,
        levers: Option<PairLevers>,
        wanted: Option<(Option<StyleTarget>, Option<StyleTarget>)>,
    ) -> Arc<CarState> {
        let mut on_it = self.knowledge.fitted;
        for axle in Axle::BOTH {
            if let Some(setup) = fitted.on(axle) {
                *on_it.on_mut(axle) = Some(*setup);
            }
        }
        let state = if on_it == self.knowledge.fitted {
            Arc::clone(self.state.get_or_init(|| Arc::new(self.knowledge.car_state())))
        } else {
            Arc::new(JobKnowledge { fitted: on_it, ..self.knowledge.clone() }.car_state())
        };
        let (levers, wanted) = (levers.unwrap_or(state.levers), wanted.unwrap_or(state.wanted));
        if (levers, wanted) == (state.levers, state.wanted) {
            return state;
        }
        let mut otherwise = Arc::unwrap_or_clone(state);
        (otherwise.levers, otherwise.wanted) = (levers, wanted);
        Arc::new(otherwise)
    }
}

/// The jobs last asked for, as they were read: a drag on the bench asks many times a second.
#[derive(Debug, Clone, Default)]
pub struct KnowledgeCache(Arc<Mutex<HashMap<i64, Remembered>>>);

/// A job as it was read, and the state of the file it was read in.
type Remembered = (Version, Arc<CachedJob>);
/// A job's revision and time, and those of the insides.
type Version = (Tag, workshop::InsidesVersion);

/// Jobs remembered at most; then all are forgotten.
const MOST: usize = 16;

impl KnowledgeCache {
    /// A job's knowledge: read again only when the job or the measured insides changed.
    ///
    /// # Errors
    /// [`StoreError::NotFound`]; what SQLite says.
    pub fn of(&self, connection: &Connection, id: i64) -> Result<Arc<CachedJob>, StoreError> {
        let version = (identity::tag_of(connection, id)?, workshop::insides_version(connection)?);
        let lock = || self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some((_, known)) = lock().get(&id).filter(|(read, _)| *read == version) {
            return Ok(Arc::clone(known));
        }
        let content = jobs::get(connection, id)?.content;
        let knowledge = JobKnowledge::of(&content, workshop::wheel_templates(connection)?);
        let known = Arc::new(CachedJob::from(knowledge));
        let mut all = lock();
        if all.len() >= MOST {
            all.clear();
        }
        all.insert(id, (version, Arc::clone(&known)));
        Ok(known)
    }
}
