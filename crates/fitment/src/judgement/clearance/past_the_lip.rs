//! A wheel that stands outside of the fender's lip because it is meant to.
//!
//! Lip and arch are one corner of metal, not two infinite planes: a tire meets it only where it is both outside of the lip's
//! inner face and higher than the lip's edge. Where poke is wanted, what decides is whether the tire stays under that edge
//! with the bump travel that is left.

use super::{Clearance, Contribution, Input, MountedSetup, Uncertainty, Verdict, nearer_by, uncertainty};
use crate::car::corner::{Feature, Obstacle, ObstacleShape};
use crate::judgement::case::AxleCase;
use crate::values::length::Length;

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

/// The word of a wheel that comes too near to the lip's inner face, where it is meant to stand outside of it: by the room
/// between its tread and the lip's edge at full bump. `None` where poke is not wanted, or where a trial met the lip.
pub(super) fn past_the_lip(
    case: &AxleCase<'_>,
    by_the_face: &Clearance,
    stand: &MountedSetup,
) -> Option<Clearance> {
    let obstacle = by_the_face.obstacle?;
    let is_asked = case.wants_poke
        && by_the_face.feature == Feature::FenderLateral
        && by_the_face.verdict.rules_out()
        && obstacle.reading.tried.is_none();
    if !is_asked {
        return None;
    }
    let moving = case.moving();
    let is_bump_measured = moving.is_measured(crate::car::Fact::BumpTravel);
    let bump = case.reach(&moving).bump_mm;
    let outside_by = by_the_face.band.as_ref().map_or(Length::ZERO, |band| -band.nominal);
    let past = PastTheLip { outside_by, bump: Length::mm(bump), is_bump_measured };
    let under_the_edge = case
        .resolved
        .of(Feature::Arch)
        .filter_map(|arch| at_full_bump(case, arch, stand, &past))
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
        let higher = MountedSetup::of(case.fitted, case.corner.camber())
            .and_then(|fitted| nearer_by(case, Feature::Arch, &fitted, stand))
            .unwrap_or(0.0);
        let unsure = under_the_edge.as_ref().map_or(Length::ZERO, Uncertainty::likely);
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
pub(crate) fn word_past_the_lip(
    case: &AxleCase<'_>,
    obstacle: &Obstacle,
    stand: &MountedSetup,
) -> Option<Verdict> {
    if !matches!(obstacle.shape, ObstacleShape::Wall { .. }) {
        return None;
    }
    let outside = Clearance {
        feature: obstacle.feature,
        obstacle: Some(*obstacle),
        drawn_at: None,
        band: None,
        as_read: None,
        limit: case.least(obstacle.feature),
        verdict: Verdict::Touches,
        must_find: None,
        past_the_lip: None,
    };
    past_the_lip(case, &outside, stand).map(|line| line.verdict)
}

/// Whether the lip rules out no offset of a wheel like this: it may stand outside of it.
pub(crate) fn may_pass(case: &AxleCase<'_>, obstacle: &Obstacle, stand: &MountedSetup) -> bool {
    word_past_the_lip(case, obstacle, stand).is_some_and(|word| !word.rules_out())
}

/// The room between tread and lip's edge with the wheel at the top of its travel.
fn at_full_bump(
    case: &AxleCase<'_>,
    arch: &Obstacle,
    stand: &MountedSetup,
    past: &PastTheLip,
) -> Option<Uncertainty> {
    let band = uncertainty(case, arch, stand)?;
    let (input, is_measured) = (Input::BumpTravel, past.is_bump_measured);
    let off = Length::mm(input.off(is_measured));
    let mut contributions = band.contributions;
    contributions.push(Contribution::either_way(input, off, input.source(is_measured)));
    Some(Uncertainty::new(band.nominal - past.bump, contributions))
}

impl PastTheLip {
    /// What nobody measured rules nothing out when its mild end would not.
    fn word(&self, band: &Uncertainty, limit: Length) -> Verdict {
        let word = Verdict::of(band.nominal, band.likely_low(), limit);
        if self.is_bump_measured || !word.rules_out() {
            return word;
        }
        let known: Vec<Contribution> =
            band.contributions.iter().filter(|one| one.input != Input::BumpTravel).copied().collect();
        let mild = Uncertainty::new(band.nominal + Length::mm(Input::BumpTravel.off(false)), known);
        match Verdict::of(mild.nominal, mild.likely_low(), limit) {
            certain if certain.rules_out() => word,
            _ => Verdict::MeasureFirst,
        }
    }
}
