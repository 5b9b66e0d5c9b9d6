//! Whether a setup clears what was measured, and how sure that is.
//!
//! clearance = distance from the placed setup to the obstacle, signed: negative is an overlap. Every
//! contribution carries its own ±: the likely band is the root of the sum of their squares, the worst case
//! their straight sum.
//!
//! - [`inputs`]: what may be off, one table.
//! - `query`: what is asked: one part, one setup. `shift`: everything off at once, and the room then.
//! - `propagate`: how sure the room is ([`Uncertainty`]). [`monte_carlo`]: drawn cases, where the two ways of adding lead to
//!   different words.
//! - [`brake`]: what stands inside the barrel. `past_the_lip`: a wheel that is meant to stand outside of the lip.
//! - `unmeasured_parts`: what nobody read. `nearer`: how much nearer a plan comes to it.
//!
//! How a part stands and how a wheel meets it is its shape's ([`crate::car::corner::shape`]).

pub mod brake;
mod fender_line;
pub mod inputs;
mod judged;
pub mod monte_carlo;
mod nearer;
mod past_the_lip;
mod propagate;
mod query;
mod shift;
mod uncertainty;
mod unmeasured_parts;

use crate::car::corner::{Direction, Feature, Obstacle, Tried};
use crate::judgement::case::AxleCase;
use crate::setup::Setup;
use crate::values::length::Length;

pub use crate::car::corner::quick_rule;
pub use crate::car::section::MountedSetup;
pub use crate::values::verdict::Verdict;
pub(crate) use fender_line::room_by_work;
pub use fender_line::{fender_line, offsets_for, style};
pub use inputs::Input;
pub use judged::JudgedCase;
pub use monte_carlo::{CASES, Drawn, drawn};
pub use nearer::nearer_by;
pub use past_the_lip::PastTheLip;
pub(crate) use past_the_lip::{may_pass, word_past_the_lip};
pub use propagate::uncertainty;
pub(crate) use query::ClearanceQuery;
pub use query::drawn_at;
pub use uncertainty::{Contribution, Uncertainty};
pub use unmeasured_parts::{DECIDES_FROM, Unread, must_find};

use brake::over_the_brake;
use past_the_lip::past_the_lip;
use unmeasured_parts::{comes_no_nearer, deciding_at_lock, line_to_measure, unread};

/// So near each other two ways to read a gap are one figure.
const AS_READ_MM: f64 = 0.05;

/// One line of a fit: a part of the car and the room to it.
#[derive(Debug, Clone, PartialEq)]
pub struct Clearance {
    /// The part.
    pub feature: Feature,
    /// The obstacle it rests on; `None` when nothing usable was read.
    pub obstacle: Option<Obstacle>,
    /// Where that is drawn with what is done to the car: y outboard of the hub face and height above the axle, each where it is
    /// known, in millimetres; `None` for what is known only by its gap.
    pub drawn_at: Option<(Option<f64>, Option<f64>)>,
    /// The room; `None` when nothing usable was read.
    pub band: Option<Uncertainty>,
    /// The room as written the way it was read, where the nearest way, which `band` and verdict go by, is another by more than a
    /// twentieth of a millimetre.
    pub as_read: Option<(Length, Direction)>,
    /// The house's minimum.
    pub limit: Length,
    /// How it stands.
    pub verdict: Verdict,
    /// What gap must be found with the fitted wheel for the plan to clear, where it was not read.
    pub must_find: Option<Length>,
    /// Where it is meant to stand outside of the lip and does: the room is then that under the lip's edge at full bump.
    pub past_the_lip: Option<PastTheLip>,
}

/// A setup tried against a measured corner.
#[derive(Debug, Clone, PartialEq)]
pub struct Fit {
    /// The worst line.
    pub verdict: Verdict,
    /// One line for each part that was read and each essential one that was not, in bay order.
    pub clearances: Vec<Clearance>,
    /// Every part that nobody read and that it comes nearer to than what ran clean.
    pub unread: Vec<Unread>,
}

impl Fit {
    /// The line of one part.
    pub fn line(&self, feature: Feature) -> Option<&Clearance> {
        self.clearances.iter().find(|line| line.feature == feature)
    }

    /// Whether a part is touched or comes too near. What nobody read rules nothing out.
    pub fn rules_out(&self) -> bool {
        self.clearances.iter().any(|line| line.verdict.rules_out())
    }
}

impl AxleCase<'_> {
    /// Tries a setup; `None` without a wheel and its offset.
    ///
    /// A good word needs knowledge: what nobody read and what decides is "measure first". That is an unread part that the
    /// plan comes nearer to than anything that ran clean on this car and that more often than not has too little room;
    /// the nearest part on each side; a brake of which nothing is known under another wheel; full lock on a steered axle
    /// where the plan reaches further.
    pub fn fit(&self, planned: &Setup) -> Option<Fit> {
        let stand = MountedSetup::of(planned, self.planned_camber())?;
        let mut clearances = Vec::with_capacity(Feature::ALL.len());
        let unread = unread(self, &stand);
        let deciding_at_lock = deciding_at_lock(self, &unread);
        for feature in Feature::ALL {
            if feature.is_of_the_brake() {
                continue;
            }
            if self.resolved.knows(feature) {
                clearances.extend(judged(self, feature, &stand));
            } else if let Some(one) = unread.iter().find(|one| one.feature == feature)
                && (feature.is_essential() || one.decides() || deciding_at_lock == Some(feature))
            {
                clearances.push(line_to_measure(self, one));
            }
        }
        clearances.extend(over_the_brake(self, planned, &stand));
        clearances.sort_by_key(|line| line.feature);
        let worst = clearances.iter().map(|line| line.verdict).max().unwrap_or_else(|| {
            // Nothing known decides anything: it clears when the plan comes nearer to nothing than what ran clean.
            if comes_no_nearer(self, &stand) { Verdict::Clears } else { Verdict::MeasureFirst }
        });
        // A record that can no longer be read may say that something touches.
        let is_whole = self.evidence.unreadable.is_empty();
        let verdict = if is_whole { worst } else { worst.max(Verdict::MeasureFirst) };
        Some(Fit { verdict, clearances, unread })
    }

    /// One part's line of [`AxleCase::fit`], without the others; `None` where nobody read it, or the setup cannot be placed.
    pub fn clearance_of(&self, feature: Feature, planned: &Setup) -> Option<Clearance> {
        let stand = MountedSetup::of(planned, self.planned_camber())?;
        self.resolved.knows(feature).then(|| judged(self, feature, &stand))?
    }

    /// Whether a setup is ruled out by what was read, as [`AxleCase::fit`] says; `None` where it cannot be placed. Quicker where
    /// it is: what has too little room as written needs no band.
    pub fn rules_out(&self, planned: &Setup) -> Option<bool> {
        let stand = MountedSetup::of(planned, self.planned_camber())?;
        let is_plain = |obstacle: &&Obstacle| {
            !obstacle.feature.is_of_the_brake()
                && !obstacle.is_contradicted
                && obstacle.reading.tried != Some(Tried::AtMost)
                && !may_pass(self, obstacle, &stand)
        };
        let mut plain = self.resolved.nearest().filter(is_plain);
        let is_short = plain.any(|obstacle| {
            let room = ClearanceQuery::of(self, obstacle, &stand).nominal_at(stand.center_y());
            room.is_some_and(|room| room < self.least(obstacle.feature).as_mm())
        });
        Some(is_short || self.fit(planned)?.rules_out())
    }
}

/// The tightest of a part's obstacles. Contradicting readings that lead to different words decide nothing.
fn judged(case: &AxleCase<'_>, feature: Feature, stand: &MountedSetup) -> Option<Clearance> {
    let limit = case.least(feature);
    let lines: Vec<Clearance> = case
        .resolved
        .deciding(feature)
        .filter_map(|obstacle| {
            let query = ClearanceQuery::of(case, obstacle, stand);
            let band = query.at(stand.center_y())?;
            let is_another = |(room, _): &(f64, Direction)| (room - band.nominal.as_mm()).abs() > AS_READ_MM;
            let as_read = query.as_read().filter(is_another);
            let verdict = match (Verdict::of(band.nominal, band.likely_low(), limit), obstacle.reading.tried)
            {
                (Verdict::Touches, _) => Verdict::Touches,
                // It touched at a trial and nobody knows by how much: further away is not known to clear.
                (_, Some(Tried::AtMost)) => Verdict::MeasureFirst,
                (verdict, _) => verdict,
            };
            Some(Clearance {
                feature,
                obstacle: Some(*obstacle),
                drawn_at: drawn_at(case, obstacle),
                band: Some(band),
                as_read: as_read.map(|(room, way)| (Length::mm(room), way)),
                limit,
                verdict,
                must_find: None,
                past_the_lip: None,
            })
        })
        .collect();
    // A bound that does not rule the plan out says nothing beside what was measured.
    let is_bound = |line: &Clearance| {
        line.obstacle.is_some_and(|obstacle| obstacle.reading.tried == Some(Tried::AtMost))
    };
    let lines: Vec<Clearance> = if lines.iter().any(|line| !is_bound(line)) {
        lines.into_iter().filter(|line| !is_bound(line) || line.verdict == Verdict::Touches).collect()
    } else {
        lines
    };
    let low = |line: &Clearance| line.band.as_ref().map_or(f64::INFINITY, |band| band.likely_low().as_mm());
    let words_differ = lines
        .iter()
        .filter(|line| line.obstacle.is_some_and(|obstacle| obstacle.is_contradicted))
        .any(|line| lines.iter().any(|other| other.verdict != line.verdict));
    let mut tightest = lines.into_iter().min_by(|a, b| low(a).total_cmp(&low(b)))?;
    if words_differ {
        tightest.verdict = Verdict::MeasureFirst;
    }
    Some(past_the_lip(case, &tightest, stand).unwrap_or(tightest))
}
