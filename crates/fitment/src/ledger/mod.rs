//! The ledger: one judged line per question.
//!
//! [`CHECKS`] is the registry. Each rule has a module of its own with its code, its source, its function and
//! its tests. A line has a word, a figure, a limit, a sentence, and the working behind the figure.

mod arch_gap;
mod balance;
mod clear;
mod diameter;
mod direction;
mod front_rear;
mod hub;
mod listed;
mod load;
mod pressure;
mod reach;
mod rotation;
mod rubber;
mod sensors;
mod speedo;
mod style;
mod tire_age;
mod tread;
mod wheel_load;

use crate::car::Car;
use crate::change::{AxleChange, PairChange, axle_change, pair_change};
use crate::choose::parts::PickedParts;
use crate::clearance::{Fit, Trial};
use crate::corner::{Corners, Feature, Resolved};
use crate::date_code::Day;
use crate::lever::PairLevers;
use crate::limits::{Drive, HouseLimits};
use crate::setup::{Axle, Setup, SetupPair};
use crate::style::StyleTarget;
use crate::working::{Phrase, Quantity, Source, Step};

/// How a line stands. Shown as a word and a mark, never by colour alone.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Standing {
    /// In order.
    Good,
    /// Not known: a part of the setup was not stated.
    Unknown,
    /// Only the car can tell: something must be measured.
    Measure,
    /// To be minded.
    Mind,
    /// Do not fit it so.
    Stop,
}

/// One line of the ledger.
#[derive(Debug, Clone, PartialEq)]
pub struct Line {
    /// The rule's code, unique in the registry.
    pub code: &'static str,
    /// Which axle it is about; `None` for the car as a whole.
    pub axle: Option<Axle>,
    /// The question, in the trade's words.
    pub title: &'static str,
    /// How it stands.
    pub standing: Standing,
    /// The word for it.
    pub word: &'static str,
    /// The figure; `None` while it is not known.
    pub figure: Option<Quantity>,
    /// The limit it was held against.
    pub limit: Phrase,
    /// What it means for this car, in a sentence.
    pub says: Phrase,
    /// What a person must mind, where a mistake can hurt someone.
    pub caution: Option<&'static str>,
    /// The working behind the figure.
    pub working: Vec<Step>,
    /// Where the rule comes from.
    pub source: Source,
}

/// All that the rules look at.
#[derive(Debug)]
pub struct Plan<'a> {
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
    pub bay: Bay,
}

/// What is known of the car beside its setups.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Bay {
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

impl Bay {
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

impl<'a> Plan<'a> {
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
            bay: Bay::default(),
        }
    }

    /// The same plan on a car that was measured.
    #[must_use]
    pub fn in_bay(mut self, bay: Bay) -> Self {
        self.bay = bay;
        self
    }

    /// What one axle's setups are tried with; `None` while nothing is stated to be fitted there.
    pub fn trial(&self, axle: Axle) -> Option<Trial<'_>> {
        Some(Trial {
            axle,
            corner: self.bay.corners.on(axle),
            resolved: self.bay.resolved(axle),
            fitted: self.fitted.on(axle)?,
            limits: self.limits,
            levers: self.bay.levers.on(axle),
        })
    }

    /// One axle's change.
    pub fn change(&self, axle: Axle) -> Option<&AxleChange> {
        match axle {
            Axle::Front => self.front.as_ref(),
            Axle::Rear => self.rear.as_ref(),
        }
    }

    /// The ledger: every line that applies, axle by axle, then the car as a whole.
    pub fn ledger(&self) -> Vec<Line> {
        let mut lines = Vec::with_capacity(24);
        for axle in Axle::BOTH {
            let (Some(trial), Some(fitted), Some(planned), Some(change)) =
                (self.trial(axle), self.fitted.on(axle), self.planned.on(axle), self.change(axle))
            else {
                continue;
            };
            let fit = trial.fit(planned);
            let corner = Corner { plan: self, trial, fit, fitted, planned, change };
            for check in CHECKS {
                match check.rule {
                    Rule::PerAxle(rule) => {
                        lines.extend(rule(&corner).map(|finding| finding.line(check, Some(axle))));
                    }
                    Rule::PerPart(rule) => lines.extend(rule(&corner).into_iter().map(|(part, finding)| {
                        let facts = part.facts();
                        let line = finding.line(check, Some(axle));
                        Line { code: facts.ledger_code, title: facts.title, ..line }
                    })),
                    Rule::PerCar(_) => {}
                }
            }
        }
        for check in CHECKS {
            if let Rule::PerCar(rule) = check.rule {
                lines.extend(rule(self).map(|finding| finding.line(check, None)));
            }
        }
        lines
    }
}

/// One axle of a plan.
#[derive(Debug)]
pub struct Corner<'a> {
    plan: &'a Plan<'a>,
    trial: Trial<'a>,
    fit: Option<Fit>,
    fitted: &'a Setup,
    planned: &'a Setup,
    change: &'a AxleChange,
}

/// What a rule found: a line without what the registry knows about the rule.
#[derive(Debug)]
pub struct Finding {
    standing: Standing,
    word: &'static str,
    figure: Option<Quantity>,
    limit: Phrase,
    says: Phrase,
    caution: Option<&'static str>,
    working: Vec<Step>,
}

impl Finding {
    /// The figure could not be had: a part was not stated.
    fn unknown(says: &'static str) -> Self {
        Self {
            standing: Standing::Unknown,
            word: "not known",
            figure: None,
            limit: Phrase::default(),
            says: Phrase::new(says),
            caution: None,
            working: Vec::new(),
        }
    }

    fn line(self, check: &Check, axle: Option<Axle>) -> Line {
        Line {
            code: check.code,
            axle,
            title: check.title,
            standing: self.standing,
            word: self.word,
            figure: self.figure,
            limit: self.limit,
            says: self.says,
            caution: self.caution,
            working: self.working,
            source: check.source,
        }
    }
}

/// A rule's function.
#[derive(Debug, Clone, Copy)]
pub enum Rule {
    /// Asked for each axle.
    PerAxle(fn(&Corner<'_>) -> Option<Finding>),
    /// Asked for each axle, a line for each part of the car that was read. The part names the line.
    PerPart(fn(&Corner<'_>) -> Vec<(Feature, Finding)>),
    /// Asked once.
    PerCar(fn(&Plan<'_>) -> Option<Finding>),
}

/// A rule of the ledger.
#[derive(Debug, Clone, Copy)]
pub struct Check {
    /// Unique code.
    pub code: &'static str,
    /// The question, in the trade's words.
    pub title: &'static str,
    /// Where the rule comes from.
    pub source: Source,
    /// The rule.
    pub rule: Rule,
}

/// Every rule, in the order it is read: what can touch first, then the tire, then load, then the road.
pub const CHECKS: &[Check] = &[
    clear::CHECK,
    reach::INNER,
    reach::OUTER,
    arch_gap::CHECK,
    style::CHECK,
    rubber::CHECK,
    tread::CHECK,
    diameter::CHECK,
    load::LOAD_INDEX,
    load::SPEED_SYMBOL,
    wheel_load::CHECK,
    pressure::CHECK,
    hub::CHECK,
    direction::CHECK,
    tire_age::CHECK,
    listed::CHECK,
    speedo::CHECK,
    front_rear::CHECK,
    balance::CHECK,
    rotation::CHECK,
    sensors::CHECK,
];

#[cfg(test)]
mod tests {
    use super::*;

    /// A square plan's ledger line by code, from two setup lines.
    #[track_caller]
    pub(super) fn line(code: &str, fitted: &str, planned: &str, drive: Option<Drive>) -> Line {
        let reading = |text: &str| crate::setup::line::read(text).unwrap().setups.expect(text);
        let (fitted, planned) = (reading(fitted), reading(planned));
        let limits = HouseLimits::DEFAULT;
        let today = Some(Day { year: 2026, day_of_year: 153 });
        let plan = Plan::new(&fitted, &planned, drive, &limits, today);
        plan.ledger().into_iter().find(|line| line.code == code).expect("the line is there")
    }

    /// A front axle's line in a bay; `None` when the rule has nothing to say.
    #[track_caller]
    pub(super) fn line_in_bay(bay: Bay, code: &str, fitted: &str, planned: &str) -> Option<Line> {
        let reading = |text: &str| crate::setup::line::read(text).unwrap().setups.expect(text);
        let (fitted, planned) = (reading(fitted), reading(planned));
        let limits = HouseLimits::DEFAULT;
        let plan = Plan::new(&fitted, &planned, None, &limits, None).in_bay(bay);
        plan.ledger().into_iter().find(|line| line.code == code && line.axle != Some(Axle::Rear))
    }

    /// The same on a car of which something is written down.
    #[track_caller]
    pub(super) fn line_on(car: Car, code: &str, fitted: &str, planned: &str) -> Option<Line> {
        line_in_bay(Bay::default().of_car(car), code, fitted, planned)
    }

    /// The same with parts that were picked.
    #[track_caller]
    pub(super) fn line_with_parts(parts: PickedParts, code: &str, planned: &str) -> Option<Line> {
        line_in_bay(Bay::default().with_parts(parts), code, "17x7.5 ET45 225/45R17", planned)
    }

    #[test]
    fn codes_are_unique_and_every_rule_names_its_source() {
        for (at, check) in CHECKS.iter().enumerate() {
            assert!(
                CHECKS[..at].iter().all(|other| other.code != check.code),
                "{} is there twice",
                check.code
            );
            assert!(!check.source.cite.is_empty() && !check.title.is_empty(), "{}", check.code);
        }
    }

    #[test]
    fn every_known_figure_has_a_working_and_a_word() {
        let reading = |text: &str| crate::setup::line::read(text).unwrap().setups.unwrap();
        let fitted = reading("17x7.5 ET45 225/45R17 94W");
        let planned = reading("F: 18x8.5 ET35 235/40R18 91Y DOT 2318 R: 18x9.5 ET30 255/40R18 99Y");
        let limits = HouseLimits::DEFAULT;
        let today = Some(Day { year: 2026, day_of_year: 1 });
        let lines = Plan::new(&fitted, &planned, None, &limits, today).ledger();
        assert!(lines.len() > 14);
        for line in lines {
            assert!(!line.word.is_empty() && !line.says.0.is_empty(), "{}", line.code);
            assert_eq!(line.figure.is_some(), !line.working.is_empty(), "{}: {line:?}", line.code);
        }
    }

    #[test]
    fn what_was_not_stated_is_called_unknown() {
        for (code, planned) in [
            ("inner-change", "18x8.5 245/40R18"),
            ("overall-diameter", "18x8.5 ET35"),
            ("tire-on-rim", "245/40R18"),
        ] {
            let line = line(code, "17x7.5 ET45 225/45R17", planned, None);
            assert_eq!((line.standing, line.figure), (Standing::Unknown, None), "{code} with {planned}");
        }
    }
}
