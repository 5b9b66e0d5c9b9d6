//! What is judged: the car, what is fitted, what is planned, and everything known beside them.
//!
//! - [`Case`]: the whole car with its plan. [`AxleCase`]: one axle of it, against which any setup can be tried.
//! - [`CarState`]: what was read, what is done to the car, what is wanted, which rows were picked.
//! - [`Reference`]: what a planned part is held against. It is decided here, once, and named wherever it counts.
//! - [`Needs`]: what the car asks of every wheel and tire.
//!
//! Rules judge a case ([`crate::judgement::rules`]); nothing here judges.

mod axle_case;
mod evidence;
mod needs;
mod reference;

pub use axle_case::AxleCase;
pub use evidence::{AxleEvidence, Keeps, KnownInside};
pub use needs::{Needs, half_rating_kg, has_twin_wheels};
pub use reference::{Reference, ReferenceKind};

use std::sync::Arc;

use crate::car::Car;
use crate::car::corner::{Corners, Resolved};
use crate::car::lever::PairLevers;
use crate::car::limits::{Drive, HouseLimits};
use crate::car::style::{Style, StyleTarget};
use crate::judgement::purpose::Purpose;
use crate::setup::catalogue::PickedParts;
use crate::setup::change::{AxleChange, PairChange, axle_change, pair_change};
use crate::setup::{Axle, PerAxle, Setup, SetupPair};
use crate::values::date_code::Day;

/// All that the rules look at.
#[derive(Debug)]
pub struct Case<'a> {
    /// What is fitted.
    pub fitted: SetupPair,
    /// What is planned, its picked parts with what their lists say of them.
    pub planned: SetupPair,
    /// Driven axles, when known.
    pub drive: Option<Drive>,
    /// The house's limits.
    pub limits: &'a HouseLimits,
    /// Today, for the age of used tires.
    pub today: Option<Day>,
    /// What the bay measured, what is done to the car, and what the owner wants to see.
    pub state: Arc<CarState>,
    /// Each axle's change from what is fitted: what clearance goes by.
    changes: PerAxle<Option<AxleChange>>,
    /// What each axle is held against on the road, and the change from it.
    references: PerAxle<Option<Reference>>,
    road: PerAxle<Option<AxleChange>>,
    /// What changes between the axles from the reference set.
    pair: Option<(ReferenceKind, PairChange)>,
}

/// What is known of the car beside its setups.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct CarState {
    /// The corners as measured.
    pub corners: Corners,
    /// What is done to the car.
    pub levers: PairLevers,
    /// The wanted style, front and rear.
    pub wanted: (Option<StyleTarget>, Option<StyleTarget>),
    /// What is written down of the car.
    pub car: Car,
    /// The rows picked from the price lists.
    pub parts: PickedParts,
    /// What the workshop knows of each axle.
    pub evidence: PerAxle<AxleEvidence>,
    /// What the set is for.
    pub purpose: Purpose,
    resolved: (Resolved, Resolved),
}

impl CarState {
    /// Resolves the readings once.
    pub fn new(
        corners: Corners,
        levers: PairLevers,
        wanted: (Option<StyleTarget>, Option<StyleTarget>),
    ) -> Self {
        let resolved = (corners.front.resolve(), corners.rear.resolve());
        Self { corners, levers, wanted, resolved, ..Self::default() }
    }

    /// The same with the car's record.
    #[must_use]
    pub fn of_car(mut self, car: Car) -> Self {
        self.car = car;
        self
    }

    /// The same with the rows a job has picked.
    #[must_use]
    pub fn with_parts(mut self, parts: PickedParts) -> Self {
        self.parts = parts;
        self
    }

    /// The same with what the workshop knows of each axle.
    #[must_use]
    pub fn with_evidence(mut self, front: AxleEvidence, rear: AxleEvidence) -> Self {
        self.evidence = PerAxle { front, rear };
        self
    }

    /// The same with what the set is for.
    #[must_use]
    pub fn for_purpose(mut self, purpose: Purpose) -> Self {
        self.purpose = purpose;
        self
    }

    /// One axle's readings, resolved.
    pub fn resolved(&self, axle: Axle) -> &Resolved {
        match axle {
            Axle::Front => &self.resolved.0,
            Axle::Rear => &self.resolved.1,
        }
    }

    /// One axle's wanted style.
    pub fn wanted(&self, axle: Axle) -> Option<StyleTarget> {
        match axle {
            Axle::Front => self.wanted.0,
            Axle::Rear => self.wanted.1,
        }
    }
}

impl<'a> Case<'a> {
    /// Works out every change once, for all the rules.
    pub fn new(
        fitted: &SetupPair,
        planned: &SetupPair,
        drive: Option<Drive>,
        limits: &'a HouseLimits,
        today: Option<Day>,
    ) -> Self {
        Self::on_a_car(fitted, planned, drive, limits, today, CarState::default())
    }

    /// The same on a car that was measured: changes are worked out once.
    pub fn on_a_car(
        fitted: &SetupPair,
        planned: &SetupPair,
        drive: Option<Drive>,
        limits: &'a HouseLimits,
        today: Option<Day>,
        state: impl Into<Arc<CarState>>,
    ) -> Self {
        Self {
            fitted: *fitted,
            planned: *planned,
            drive,
            limits,
            today,
            state: state.into(),
            changes: PerAxle::default(),
            references: PerAxle::default(),
            road: PerAxle::default(),
            pair: None,
        }
        .worked_out()
    }

    /// The same plan on a car that was measured, with what lists say of its picked parts.
    #[must_use]
    pub fn in_state(mut self, state: impl Into<Arc<CarState>>) -> Self {
        self.state = state.into();
        self.worked_out()
    }

    fn worked_out(mut self) -> Self {
        for axle in Axle::BOTH {
            if let Some(setup) = self.planned.on_mut(axle) {
                *setup = self.state.parts.as_listed(setup);
            }
        }
        let (car, fitted, planned) = (&self.state.car, self.fitted, self.planned);
        let references = PerAxle::of(|axle| Reference::of(car, &fitted, axle));
        let change = |from: Option<&Setup>, axle| Some(axle_change(from?, planned.on(axle)?));
        self.changes = PerAxle::of(|axle| change(fitted.on(axle), axle));
        self.road = PerAxle::of(|axle| change(references.on(axle).as_ref().map(|one| &one.setup), axle));
        self.pair = Reference::pair_of(car, &fitted).map(|pair| {
            let setups = SetupPair { front: Some(pair.front.setup), rear: Some(pair.rear.setup) };
            (pair.front.kind, pair_change(&setups, &planned))
        });
        self.references = references;
        self
    }

    /// One axle, against which setups are tried; `None` while nothing is stated to be fitted there.
    pub fn axle(&self, axle: Axle) -> Option<AxleCase<'_>> {
        Some(AxleCase {
            axle,
            corner: self.state.corners.on(axle),
            resolved: self.state.resolved(axle),
            fitted: self.fitted.on(axle)?,
            limits: self.limits,
            levers: self.state.levers.on(axle),
            evidence: self.state.evidence.on(axle),
            parts: &self.state.parts,
            wants_poke: self.state.wanted(axle).is_some_and(|wanted| wanted.style == Style::Poke),
        })
    }

    /// One axle's change from what is fitted.
    pub fn change(&self, axle: Axle) -> Option<&AxleChange> {
        self.changes.on(axle).as_ref()
    }

    /// What an axle is held against on the road.
    pub fn reference(&self, axle: Axle) -> Option<&Reference> {
        self.references.on(axle).as_ref()
    }

    /// The setups that both axles are held against on the road.
    pub fn reference_pair(&self) -> SetupPair {
        let setup = |axle| self.reference(axle).map(|reference| reference.setup);
        SetupPair { front: setup(Axle::Front), rear: setup(Axle::Rear) }
    }

    /// One axle's change from what it is held against on the road.
    pub fn on_the_road(&self, axle: Axle) -> Option<&AxleChange> {
        self.road.on(axle).as_ref()
    }

    /// What changes between the axles from the reference set, else from what is fitted.
    pub fn pair_change(&self) -> PairChange {
        match &self.pair {
            Some((_, change)) => change.clone(),
            None => pair_change(&self.fitted, &self.planned),
        }
    }

    /// What changes between the axles, and against whose set.
    pub fn between_the_axles(&self) -> Option<(ReferenceKind, &PairChange)> {
        self.pair.as_ref().map(|(kind, change)| (*kind, change))
    }
}
