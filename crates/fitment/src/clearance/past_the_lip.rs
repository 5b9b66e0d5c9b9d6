//! A wheel that stands outside of the fender's lip because it is meant to.
//!
//! Lip and arch are one corner of metal, not two infinite planes: a tire meets it only where it is both outside of the lip's
//! inner face and higher than the lip's edge. Where poke is wanted, what decides is whether the tire stays under that edge
//! with the bump travel that is left.

use super::band::{Contribution, Input};
use super::{Band, Clearance, MountedSetup, Verdict};
use crate::case::AxleCase;
use crate::corner::{Feature, Obstacle, ObstacleShape};
use crate::length::Length;
use crate::motion::estimate::{self, BUMP_OFF_MM, BUMP_USUAL_OFF_MM};
use crate::working::{Source, SourceKind};

/// How a wheel that stands outside of the lip stands to the lip's edge.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PastTheLip {
    /// How far it stands outside of the lip's inner face.
    pub outside_by: Length,
    /// Bump travel that is left.
    pub bump: Length,
    /// Whether somebody measured that travel.
    pub is_bump_measured: bool,
}

const TRAVEL_MEASURED: Source =
    Source { kind: SourceKind::Measured, cite: "bump travel, as the car's record says" };

impl AxleCase<'_> {
    /// The word of a wheel that comes too near to the lip's inner face, where it is meant to stand outside of it: by the room
    /// between its tread and the lip's edge at full bump. `None` where poke is not wanted, or where a trial met the lip.
    pub(super) fn past_the_lip(&self, by_the_face: &Clearance, stand: &MountedSetup) -> Option<Clearance> {
        let obstacle = by_the_face.obstacle?;
        let is_asked = self.wants_poke
            && by_the_face.feature == Feature::FenderLateral
            && by_the_face.verdict.rules_out()
            && obstacle.reading.tried.is_none();
        if !is_asked {
            return None;
        }
        let moving = self.moving();
        let is_bump_measured = moving.is_measured(crate::car::Fact::BumpTravel);
        let bump = moving.reach_raised(self.levers.raised()).bump_mm;
        let outside_by = by_the_face.band.as_ref().map_or(Length::ZERO, |band| -band.nominal);
        let past = PastTheLip { outside_by, bump: Length::mm(bump), is_bump_measured };
        let under_the_edge = self
            .resolved
            .of(Feature::Arch)
            .filter_map(|arch| self.at_full_bump(arch, stand, &past))
            .min_by(|a, b| a.likely_low().as_mm().total_cmp(&b.likely_low().as_mm()));
        let verdict = match &under_the_edge {
            Some(band) => past.word(band, by_the_face.limit),
            None => Verdict::MeasureFirst,
        };
        // It meets the lip only where it is both outside of it and above its edge: what still stands inside is not worse for
        // what full bump would do outside.
        let is_inside = past.outside_by < Length::ZERO;
        if is_inside && verdict.rules_out() {
            return None;
        }
        let must_find = (verdict != Verdict::Clears).then(|| {
            let higher = MountedSetup::of(self.fitted, self.corner.camber())
                .and_then(|fitted| self.nearer_by(Feature::Arch, &fitted, stand))
                .unwrap_or(0.0);
            let unsure = under_the_edge.as_ref().map_or(Length::ZERO, Band::likely);
            Length::mm(higher + bump) + by_the_face.limit + unsure
        });
        Some(Clearance {
            band: under_the_edge,
            verdict,
            must_find,
            past_the_lip: Some(past),
            ..by_the_face.clone()
        })
    }

    /// The word of a wheel like this that stands outside of the lip as it is meant to, wherever it does; `None` where poke is not
    /// wanted, or where a trial met the lip.
    pub(crate) fn word_past_the_lip(&self, obstacle: &Obstacle, stand: &MountedSetup) -> Option<Verdict> {
        if !matches!(obstacle.place, ObstacleShape::Wall { .. }) {
            return None;
        }
        let outside = Clearance {
            feature: obstacle.feature,
            obstacle: Some(*obstacle),
            band: None,
            limit: self.least(obstacle.feature),
            verdict: Verdict::Touches,
            must_find: None,
            past_the_lip: None,
        };
        self.past_the_lip(&outside, stand).map(|line| line.verdict)
    }

    /// Whether the lip rules out no offset of a wheel like this: it may stand outside of it.
    pub(crate) fn may_pass(&self, obstacle: &Obstacle, stand: &MountedSetup) -> bool {
        self.word_past_the_lip(obstacle, stand).is_some_and(|word| !word.rules_out())
    }

    /// The room between tread and lip's edge with the wheel at the top of its travel.
    fn at_full_bump(&self, arch: &Obstacle, stand: &MountedSetup, past: &PastTheLip) -> Option<Band> {
        let band = self.band(arch, stand)?;
        let (off, source) = if past.is_bump_measured {
            (BUMP_OFF_MM, TRAVEL_MEASURED)
        } else {
            (BUMP_USUAL_OFF_MM, estimate::SOURCE)
        };
        let mut contributions = band.contributions;
        contributions.push(Contribution::either_way(Input::BumpTravel, Length::mm(off), source));
        Some(Band::new(band.nominal - past.bump, contributions))
    }
}

impl PastTheLip {
    /// What nobody measured rules nothing out when its mild end would not.
    fn word(&self, band: &Band, limit: Length) -> Verdict {
        let word = Verdict::of(band.nominal, band.likely_low(), limit);
        if self.is_bump_measured || !word.rules_out() {
            return word;
        }
        let known: Vec<Contribution> =
            band.contributions.iter().filter(|one| one.input != Input::BumpTravel).copied().collect();
        let mild = Band::new(band.nominal + Length::mm(BUMP_USUAL_OFF_MM), known);
        match Verdict::of(mild.nominal, mild.likely_low(), limit) {
            certain if certain.rules_out() => word,
            _ => Verdict::MeasureFirst,
        }
    }
}
