//! What is judged: the car, what is fitted, what is planned, and everything known beside them.
//!
//! - [`Case`]: the whole car with its plan. [`AxleCase`]: one axle of it, against which any setup can be tried.
//! - [`CarState`]: what was read, what is done to the car, what is wanted, which rows were picked.
//! - [`Reference`]: what a planned part is held against. It is decided here, once, and named wherever it counts.
//! - [`Needs`]: what the car asks of every wheel and tire.
//!
//! Rules judge a case ([`crate::rules`]); nothing here judges.

mod axle_case;
mod needs;

pub use axle_case::AxleCase;
pub use needs::{Needs, Reference, SOURCE, half_rating_kg};

use crate::car::Car;
use crate::catalogue::PickedParts;
use crate::change::{AxleChange, PairChange, axle_change, pair_change};
use crate::corner::{Corners, Resolved};
use crate::date_code::Day;
use crate::lever::PairLevers;
use crate::limits::{Drive, HouseLimits};
use crate::setup::{Axle, SetupPair};
use crate::style::StyleTarget;

/// All that the rules look at.
#[derive(Debug)]
pub struct Case<'a> {
    /// What is fitted.
    pub fitted: &'a SetupPair,
    /// What is planned.
    pub planned: &'a SetupPair,
    /// Driven axles, when known.
    pub drive: Option<Drive>,
    /// The house's limits.
    pub limits: &'a HouseLimits,
    /// Today, for the age of used tires.
    pub today: Option<Day>,
    /// The front axle's change, when both its setups are known.
    pub front: Option<AxleChange>,
    /// The rear axle's change, when both its setups are known.
    pub rear: Option<AxleChange>,
    /// What changes between the axles.
    pub pair: PairChange,
    /// What the bay measured, what is done to the car, and what the owner wants to see.
    pub state: CarState,
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
        Self { corners, levers, wanted, car: Car::default(), parts: PickedParts::default(), resolved }
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
        fitted: &'a SetupPair,
        planned: &'a SetupPair,
        drive: Option<Drive>,
        limits: &'a HouseLimits,
        today: Option<Day>,
    ) -> Self {
        let change = |axle| Some(axle_change(fitted.on(axle)?, planned.on(axle)?));
        let pair = pair_change(fitted, planned);
        Self {
            fitted,
            planned,
            drive,
            limits,
            today,
            front: change(Axle::Front),
            rear: change(Axle::Rear),
            pair,
            state: CarState::default(),
        }
    }

    /// The same plan on a car that was measured.
    #[must_use]
    pub fn in_state(mut self, state: CarState) -> Self {
        self.state = state;
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
        })
    }

    /// One axle's change.
    pub fn change(&self, axle: Axle) -> Option<&AxleChange> {
        match axle {
            Axle::Front => self.front.as_ref(),
            Axle::Rear => self.rear.as_ref(),
        }
    }
}
