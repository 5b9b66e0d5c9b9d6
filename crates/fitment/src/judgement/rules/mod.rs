//! The rules of the trade, one module each: what it asks, how it judges, what it says, where it comes from, what must be
//! minded, and its tests.
//!
//! [`RULES`] is the registry, in the order a person reads it. Ledger, finder, window, plus sizes, mend, measure list,
//! trial conclusion, brake bench and compare ask these modules; none of them judges by itself.

mod arch_gap;
pub(crate) mod assumed_work;
mod balance;
mod by_use;
mod camber_load;
mod chains;
mod code;
pub mod dial;
mod direction;
mod fender_line;
pub mod front_to_rear;
mod listed_size;
pub mod load;
pub mod mix;
pub mod mount;
mod on_the_hub;
pub mod overall_diameter;
pub mod permitted_rim;
pub mod pressure;
mod reach;
mod room_to_part;
pub mod rotation;
mod sensors;
mod set_bolt_circle;
pub mod speed;
pub mod speedometer;
pub mod tire_age;
mod topic;
pub mod tread_width;
mod unreadable;
pub mod wheel_rating;

use crate::car::Fact;
use crate::car::corner::Feature;
use crate::judgement::case::{AxleCase, Case};
use crate::judgement::clearance::Fit;
use crate::setup::Setup;
use crate::setup::change::AxleChange;
pub use crate::values::verdict::Severity;
use crate::values::working::{Phrase, Quantity, Source, Step};
pub use by_use::{Counts, counts};
pub use code::LineCode;
pub use topic::Topic;

/// One axle of a plan.
#[derive(Debug)]
pub struct AxleCheck<'a> {
    /// The whole case.
    pub case: &'a Case<'a>,
    /// This axle of it.
    pub axle: AxleCase<'a>,
    /// The planned setup tried against it.
    pub fit: Option<&'a Fit>,
    /// What is fitted.
    pub fitted: &'a Setup,
    /// What is planned.
    pub planned: &'a Setup,
    /// What changes.
    pub change: &'a AxleChange,
}

/// What a rule found: a line without what the registry knows about the rule.
#[derive(Debug)]
pub struct Finding {
    /// How it stands.
    pub severity: Severity,
    /// The word for it.
    pub word: &'static str,
    /// The figure; `None` while it is not known.
    pub figure: Option<Quantity>,
    /// What it was held against.
    pub limit: Phrase,
    /// What it means for this car.
    pub says: Phrase,
    /// What must be minded.
    pub caution: Option<&'static str>,
    /// The working behind the figure.
    pub working: Vec<Step>,
    /// Its points, where it is about several things at once.
    pub points: Vec<Point>,
}

/// One of several things that a line is about.
#[derive(Debug, Clone, PartialEq)]
pub struct Point {
    /// Which.
    pub topic: Topic,
    /// How it stands.
    pub severity: Severity,
    /// In a sentence.
    pub says: String,
}

impl Finding {
    /// The figure could not be had: a part was not stated.
    fn unknown(says: &'static str) -> Self {
        Self {
            severity: Severity::Unknown,
            word: "not known",
            figure: None,
            limit: Phrase::default(),
            says: Phrase::new(says),
            caution: None,
            working: Vec::new(),
            points: Vec::new(),
        }
    }
}

/// A rule's function.
#[derive(Debug, Clone, Copy)]
pub enum Asked {
    /// Asked for each axle.
    PerAxle(LineCode, fn(&AxleCheck<'_>) -> Option<Finding>),
    /// Asked for each axle, a line for each part of the car that was read. The part names the line.
    PerPart(fn(&AxleCheck<'_>) -> Vec<(Feature, Finding)>),
    /// Asked once.
    PerCar(LineCode, fn(&Case<'_>) -> Option<Finding>),
}

/// A rule.
#[derive(Debug, Clone, Copy)]
pub struct Rule {
    /// The question, in the trade's words.
    pub title: &'static str,
    /// Where the rule comes from.
    pub source: Source,
    /// What it is asked of, and the code of its line.
    pub asked: Asked,
    /// What it reads off the car's record: asked for there while nobody knows it and the line waits for it.
    pub of_car: &'static [Fact],
}

/// Every rule, in the order it is read: what can touch first, then the tire, then load, then the road.
pub const RULES: &[Rule] = &[
    unreadable::RULE,
    assumed_work::RULE,
    room_to_part::RULE,
    reach::INNER,
    reach::OUTER,
    arch_gap::RULE,
    fender_line::RULE,
    permitted_rim::RULE,
    tread_width::RULE,
    overall_diameter::RULE,
    load::RULE,
    camber_load::RULE,
    chains::RULE,
    speed::RULE,
    wheel_rating::RULE,
    pressure::RULE,
    on_the_hub::RULE,
    direction::RULE,
    tire_age::RULE,
    listed_size::RULE,
    speedometer::RULE,
    front_to_rear::RULE,
    mix::RULE,
    balance::RULE,
    rotation::RULE,
    set_bolt_circle::RULE,
    sensors::RULE,
];
