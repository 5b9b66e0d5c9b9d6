//! Whether a setup clears what was measured, and how sure that is.
//!
//! clearance = distance from the placed setup to the obstacle, signed: negative is an overlap. Every
//! contribution carries its own ±: the likely band is the root of the sum of their squares, the worst case
//! their straight sum.
//!
//! - [`stand`]: a setup placed in the corner frame.
//! - [`band`]: contributions, likely and worst.
//! - `at_lock`: what was read at full lock, where the steering was measured.
//! - [`drawn`]: drawn cases, where the two ways of adding lead to different words.
//! - `past_the_lip`: a wheel that is meant to stand outside of the lip.
//! - [`quick_rule`]: what poke costs at full lock.

mod at_lock;
pub mod band;
mod brake;
mod drawn;
mod fender_line;
mod judged;
mod past_the_lip;
pub mod quick_rule;
mod room;
pub mod stand;
mod unread;

use crate::case::AxleCase;
use crate::corner::feature::BlocksFrom;
use crate::corner::{Carrier, Feature, Obstacle, ObstacleShape, STEEL_RULE, Tried};
use crate::length::Length;
use crate::section::Toward;
use crate::setup::Setup;

pub use crate::verdict::Verdict;
pub use band::{Band, Contribution, Input};
pub(crate) use band::{CLOCK_OFF_DEG, Meeting};
pub use drawn::{CASES, Drawn};
pub use judged::JudgedCase;
pub use past_the_lip::PastTheLip;
pub use stand::MountedSetup;
pub use unread::{DECIDES_FROM, Unread};

/// One line of a fit: a part of the car and the room to it.
#[derive(Debug, Clone, PartialEq)]
pub struct Clearance {
    /// The part.
    pub feature: Feature,
    /// The obstacle it rests on; `None` when nothing usable was read.
    pub obstacle: Option<Obstacle>,
    /// The room; `None` when nothing usable was read.
    pub band: Option<Band>,
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
        let unread = self.unread(&stand);
        let deciding_at_lock = self.deciding_at_lock(&unread);
        for feature in Feature::ALL {
            if feature.is_of_the_brake() {
                continue;
            }
            if self.resolved.knows(feature) {
                clearances.extend(self.judged(feature, &stand));
            } else if let Some(one) = unread.iter().find(|one| one.feature == feature)
                && (feature.is_essential() || one.decides() || deciding_at_lock == Some(feature))
            {
                clearances.push(self.line_to_measure(one));
            }
        }
        clearances.extend(self.over_the_brake(planned, &stand));
        clearances.sort_by_key(|line| line.feature);
        let worst = clearances.iter().map(|line| line.verdict).max().unwrap_or_else(|| {
            // Nothing known decides anything: it clears when the plan comes nearer to nothing than what ran clean.
            if self.comes_no_nearer(&stand) { Verdict::Clears } else { Verdict::MeasureFirst }
        });
        // A record that can no longer be read may say that something touches.
        let is_whole = self.evidence.unreadable.is_empty();
        let verdict = if is_whole { worst } else { worst.max(Verdict::MeasureFirst) };
        Some(Fit { verdict, clearances, unread })
    }

    /// One part's line of [`AxleCase::fit`], without the others; `None` where nobody read it, or the setup cannot be placed.
    pub fn clearance_of(&self, feature: Feature, planned: &Setup) -> Option<Clearance> {
        let stand = MountedSetup::of(planned, self.planned_camber())?;
        self.resolved.knows(feature).then(|| self.judged(feature, &stand))?
    }

    /// Whether a setup is ruled out by what was read, as [`AxleCase::fit`] says; `None` where it cannot be placed. Quicker where
    /// it is: what has too little room as written needs no band.
    pub fn rules_out(&self, planned: &Setup) -> Option<bool> {
        let stand = MountedSetup::of(planned, self.planned_camber())?;
        let is_plain = |obstacle: &&Obstacle| {
            !obstacle.feature.is_of_the_brake()
                && !obstacle.is_contradicted
                && obstacle.reading.tried != Some(Tried::AtMost)
                && !self.may_pass(obstacle, &stand)
        };
        let mut plain = self.resolved.nearest().filter(is_plain);
        let is_short = plain.any(|obstacle| {
            let room = self.meeting(obstacle, &stand).nominal_at(stand.center_y());
            room.is_some_and(|room| room < self.least(obstacle.feature).as_mm())
        });
        Some(is_short || self.fit(planned)?.rules_out())
    }

    /// The house's least gap to a part of this car, with what is done to it.
    pub fn least(&self, feature: Feature) -> Length {
        let is_lowered = self.corner.is_lowered || self.levers.raised() < 0.0;
        match feature {
            Feature::Arch if is_lowered => self.limits.arch_gap_lowered,
            _ => feature.house_minimum(self.limits),
        }
    }

    /// How far above the hub's centre the arch lies, with what is done to the car; `None` while nobody read it.
    pub fn arch_above_hub(&self) -> Option<Length> {
        let room = self.levers.room(Feature::Arch) + self.levers.raised();
        self.resolved
            .of(Feature::Arch)
            .filter_map(|obstacle| match obstacle.place {
                ObstacleShape::Ceiling { z } => Length::from_mm(z + room),
                _ => None,
            })
            .reduce(|a, b| if b < a { b } else { a })
    }

    /// The tightest of a part's obstacles. Contradicting readings that lead to different words decide nothing.
    fn judged(&self, feature: Feature, stand: &MountedSetup) -> Option<Clearance> {
        let limit = self.least(feature);
        let lines: Vec<Clearance> = self
            .resolved
            .deciding(feature)
            .filter_map(|obstacle| {
                let band = self.band(obstacle, stand)?;
                let verdict =
                    match (Verdict::of(band.nominal, band.likely_low(), limit), obstacle.reading.tried) {
                        (Verdict::Touches, _) => Verdict::Touches,
                        // It touched at a trial and nobody knows by how much: further away is not known to clear.
                        (_, Some(Tried::AtMost)) => Verdict::MeasureFirst,
                        (verdict, _) => verdict,
                    };
                let obstacle = Some(*obstacle);
                Some(Clearance {
                    feature,
                    obstacle,
                    band: Some(band),
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
        let low =
            |line: &Clearance| line.band.as_ref().map_or(f64::INFINITY, |band| band.likely_low().as_mm());
        let words_differ = lines
            .iter()
            .filter(|line| line.obstacle.is_some_and(|obstacle| obstacle.is_contradicted))
            .any(|line| lines.iter().any(|other| other.verdict != line.verdict));
        let mut tightest = lines.into_iter().min_by(|a, b| low(a).total_cmp(&low(b)))?;
        if words_differ {
            tightest.verdict = Verdict::MeasureFirst;
        }
        Some(self.past_the_lip(&tightest, stand).unwrap_or(tightest))
    }

    /// How much nearer to a part the plan comes than what is fitted, in millimetres; `None` where that cannot
    /// be said before the part is measured (another wheel's spokes).
    pub fn nearer_by(&self, feature: Feature, fitted: &MountedSetup, stand: &MountedSetup) -> Option<f64> {
        let room = self.room_by_work(feature);
        let body = feature.carrier() == Carrier::Body;
        let inner = |stand: &MountedSetup| stand.reach(Toward::Inboard, body);
        let outer = |stand: &MountedSetup| stand.reach(Toward::Outboard, body);
        let larger = stand.crown() - fitted.crown();
        Some(match (feature.blocks_from(), feature) {
            // Each is met by the face it is read from.
            (BlocksFrom::Inboard, Feature::Knuckle | Feature::LowerArm | Feature::TieRodEnd) => {
                let nearer = stand.inner_flange() - fitted.inner_flange();
                nearer.max(inner(stand) - inner(fitted)) - room
            }
            (BlocksFrom::Inboard, Feature::SpringPerch) => {
                let nearer = stand.inner_shoulder() - fitted.inner_shoulder();
                let larger = larger.max(0.0);
                // Past the corner of a perch: sideways and upward together.
                if nearer > 0.0 { nearer.hypot(larger) - room } else { nearer + larger - room }
            }
            (BlocksFrom::Inboard, _) => inner(stand) - inner(fitted) - room,
            (BlocksFrom::Outboard, _) => outer(stand) - outer(fitted) - room,
            (BlocksFrom::Above, _) => stand.top() - fitted.top() - self.levers.raised() - room,
            (BlocksFrom::AheadOrBehind, _) => {
                let poke = Length::mm(outer(stand) - outer(fitted));
                let lost = quick_rule::lost_at_lock(feature, poke).as_mm();
                quick_rule::lost_by_radius(larger) + lost - room
            }
            (BlocksFrom::Barrel, _) => (fitted.rim_radius() - stand.rim_radius()) - room,
            (BlocksFrom::Spoke, _) if stand.has_the_wheel_of(fitted) => fitted.spacer() - stand.spacer(),
            (BlocksFrom::Spoke, _) => return None,
        })
    }

    /// The gap that must be found with the fitted wheel, read with a steel rule, for the plan to clear.
    pub fn must_find(&self, feature: Feature, nearer_by: f64, stand: &MountedSetup) -> Length {
        let usual = self.resolved.as_usual.of(feature, self.corner, self.fitted);
        let likely =
            usual.and_then(|usual| self.band(&usual, stand)).map_or(STEEL_RULE, |band| band.likely());
        Length::mm(nearer_by) + self.least(feature) + likely
    }

    /// The room to an obstacle with its band. `None` where another wheel's shape is not known.
    pub fn band(&self, obstacle: &Obstacle, stand: &MountedSetup) -> Option<Band> {
        self.meeting(obstacle, stand).band_at(stand.center_y())
    }
}
