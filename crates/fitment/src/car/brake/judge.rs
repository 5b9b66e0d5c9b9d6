//! A wheel over a brake: verdict, bands, and what spacers do.

use super::gap::{Gap, Gaps, gaps};
use super::{BrakePart, Package, Template, WheelProfile};
use crate::car::limits::HouseLimits;
use crate::setup::spacers;
use crate::values::length::Length;
use crate::values::verdict::Verdict;

/// How it stands; the words are those of every clearance.
pub type BrakeVerdict = Verdict;

/// The least gaps, in millimetres.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Limits {
    /// Between caliper and barrel.
    pub radial_mm: f64,
    /// Between caliper and spokes.
    pub axial_mm: f64,
}

impl From<&HouseLimits> for Limits {
    fn from(house: &HouseLimits) -> Self {
        Self { radial_mm: house.caliper_radial_gap.as_mm(), axial_mm: house.caliper_face_gap.as_mm() }
    }
}

/// One part of the brake under a wheel.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Over {
    /// Which part.
    pub part: BrakePart,
    /// The gaps.
    pub gaps: Gaps,
    /// The radial gap to stick-on weights, where they pass the part.
    pub weights: Option<Gap>,
    /// How far the gaps may be off, either way: the root of the sum of both profiles' squares.
    pub plus_minus_mm: f64,
    /// How it stands.
    pub verdict: BrakeVerdict,
}

/// A spacer, and how the wheel then stands.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SpacerStep {
    /// Its thickness in millimetres.
    pub spacer_mm: f64,
    /// The smallest radial gap over all parts, weights included.
    pub radial_mm: Option<f64>,
    /// The smallest axial gap.
    pub axial_mm: Option<f64>,
    /// How it stands.
    pub verdict: BrakeVerdict,
}

/// A wheel over a package.
#[derive(Debug, Clone, PartialEq)]
pub struct BrakeFit {
    /// The worst part's verdict; measure first while the package has no part.
    pub verdict: BrakeVerdict,
    /// Each part.
    pub parts: Vec<Over>,
    /// The smallest whole-millimetre spacer with which it clears: 0 when none is needed; `None` when none up to
    /// [`spacers::THICKEST_MM`] does.
    pub smallest_spacer_mm: Option<f64>,
    /// What spacers do, from none on.
    pub spacers: Vec<SpacerStep>,
}

/// Stick-on weights on the barrel, in wheel coordinates, millimetres.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weights {
    /// Where their track begins.
    pub from_y: f64,
    /// Where it ends.
    pub to_y: f64,
    /// How high they stand: about 4 to 5.
    pub height_mm: f64,
}

/// Where weights usually stand, and how high: under the spokes. Common practice; no source.
pub const USUAL_WEIGHTS: Weights = Weights { from_y: -30.0, to_y: 0.0, height_mm: 4.5 };
/// What a profile cut as a card template may be off, in millimetres. A judgement of ours.
pub const TEMPLATE_PLUS_MINUS_MM: f64 = 0.3;
/// What a profile of single readings may be off, in millimetres. A judgement of ours.
pub const READINGS_PLUS_MINUS_MM: f64 = 1.0;

fn verdict_of(over: &Gaps, weights: Option<Gap>, plus_minus: f64, limits: Limits) -> BrakeVerdict {
    let one = |gap: Option<Gap>, limit: f64| {
        let gap = gap?.mm;
        Some(Verdict::of(Length::mm(gap), Length::mm(gap - plus_minus), Length::mm(limit)))
    };
    let all = [
        one(over.radial, limits.radial_mm),
        one(weights, limits.radial_mm),
        one(over.axial, limits.axial_mm),
    ];
    all.into_iter().flatten().max().unwrap_or(Verdict::MeasureFirst)
}

/// Between a part and a wheel on a spacer.
fn over(
    template: &Template,
    wheel: &WheelProfile,
    spacer_mm: f64,
    weights: Option<Weights>,
    limits: Limits,
) -> Over {
    let found = gaps(&template.profile, wheel, spacer_mm);
    let weights = weights.and_then(|on| {
        let barrel = wheel.weights(on.from_y, on.to_y, on.height_mm)?;
        gaps(&template.profile, &WheelProfile { barrel, ..wheel.clone() }, spacer_mm).radial
    });
    let plus_minus_mm = template.plus_minus_mm.hypot(wheel.plus_minus_mm);
    Over {
        part: template.part,
        gaps: found,
        weights,
        plus_minus_mm,
        verdict: verdict_of(&found, weights, plus_minus_mm, limits),
    }
}

fn step(
    package: &Package,
    wheel: &WheelProfile,
    spacer_mm: f64,
    weights: Option<Weights>,
    limits: Limits,
) -> (SpacerStep, Vec<Over>) {
    let parts: Vec<Over> =
        package.templates.iter().map(|one| over(one, wheel, spacer_mm, weights, limits)).collect();
    let least = |pick: &dyn Fn(&Over) -> Option<f64>| parts.iter().filter_map(pick).reduce(f64::min);
    let verdict = parts.iter().map(|one| one.verdict).max().unwrap_or(Verdict::MeasureFirst);
    let radial =
        least(&|one| [one.gaps.radial, one.weights].into_iter().flatten().map(|gap| gap.mm).reduce(f64::min));
    let axial = least(&|one| one.gaps.axial.map(|gap| gap.mm));
    (SpacerStep { spacer_mm, radial_mm: radial, axial_mm: axial, verdict }, parts)
}

/// What each of some spacers does.
pub fn sweep(
    package: &Package,
    wheel: &WheelProfile,
    spacers_mm: &[f64],
    weights: Option<Weights>,
    limits: Limits,
) -> Vec<SpacerStep> {
    spacers_mm.iter().map(|mm| step(package, wheel, *mm, weights, limits).0).collect()
}

/// Judges a wheel on a spacer over a package.
///
/// # Units
/// Millimetres. The sweep starts from no spacer, whatever `spacer_mm` is.
pub fn judge(
    package: &Package,
    wheel: &WheelProfile,
    spacer_mm: f64,
    weights: Option<Weights>,
    limits: Limits,
) -> BrakeFit {
    let (now, parts) = step(package, wheel, spacer_mm, weights, limits);
    let clears = |mm: f64| step(package, wheel, mm, weights, limits).0.verdict == Verdict::Clears;
    let smallest = if package.templates.is_empty() { None } else { spacers::smallest_that(clears) };
    let shown = spacers::shelf_and(smallest);
    BrakeFit {
        verdict: now.verdict,
        parts,
        smallest_spacer_mm: smallest,
        spacers: sweep(package, wheel, &shown, weights, limits),
    }
}

/// How each part of a package stands under a wheel on a spacer, in millimetres, without weights.
pub fn over_each_part(package: &Package, wheel: &WheelProfile, spacer_mm: f64, limits: Limits) -> Vec<Over> {
    step(package, wheel, spacer_mm, None, limits).1
}

/// Only the verdict without a spacer: for sweeping a catalogue.
pub fn verdict(package: &Package, wheel: &WheelProfile, limits: Limits) -> SpacerStep {
    step(package, wheel, 0.0, None, limits).0
}

#[cfg(test)]
mod tests {
    use super::super::{Profile, ProfileSource};
    use super::*;

    const LIMITS: Limits = Limits { radial_mm: 3.0, axial_mm: 3.0 };

    fn package(face_y: f64, plus_minus_mm: f64) -> Package {
        let points = [(-50.0, 150.0), (-50.0, 190.0), (face_y, 190.0), (face_y, 150.0)];
        let profile = Profile::new(points).unwrap();
        let source = ProfileSource::Template;
        Package { templates: vec![Template { part: BrakePart::Caliper, profile, source, plus_minus_mm }] }
    }

    fn wheel() -> WheelProfile {
        WheelProfile {
            barrel: Profile::new([(-120.0, 198.0), (40.0, 198.0)]).unwrap(),
            spoke_back: Profile::new([(14.0, 198.0), (14.0, 80.0)]).unwrap(),
            source: ProfileSource::Template,
            plus_minus_mm: 0.0,
        }
    }

    #[test]
    fn the_smallest_spacer_that_clears_is_found() {
        // Spokes at 14: a face at 14.3 overlaps by 0.3, so 3.3 mm are missing to the limit: 4 mm in whole ones.
        let fit = judge(&package(14.3, 0.0), &wheel(), 0.0, None, LIMITS);
        assert_eq!((fit.verdict, fit.smallest_spacer_mm), (Verdict::Touches, Some(4.0)));
        let at = |mm: f64| *fit.spacers.iter().find(|step| step.spacer_mm == mm).unwrap();
        assert_eq!((at(3.0).verdict, at(4.0).verdict), (Verdict::Tight, Verdict::Clears));
        assert!((at(3.0).axial_mm.unwrap() - 2.7).abs() < 1e-9 && at(3.0).radial_mm == Some(8.0));
        assert_eq!(judge(&package(5.0, 0.0), &wheel(), 0.0, None, LIMITS).smallest_spacer_mm, Some(0.0));
    }

    #[test]
    fn a_band_wider_than_the_room_is_tight() {
        // 8 mm radial, 9 mm axial; off by 6 mm leaves 2 and 3.
        assert_eq!(judge(&package(5.0, 6.0), &wheel(), 0.0, None, LIMITS).verdict, Verdict::Tight);
        assert_eq!(judge(&package(5.0, 4.9), &wheel(), 0.0, None, LIMITS).verdict, Verdict::Clears);
    }

    #[test]
    fn weights_over_the_caliper_take_their_height() {
        let on = |from_y, to_y| Some(Weights { from_y, to_y, height_mm: 6.0 });
        let fit = judge(&package(5.0, 0.0), &wheel(), 0.0, on(-30.0, -10.0), LIMITS);
        assert_eq!((fit.parts[0].weights.unwrap().mm, fit.verdict), (2.0, Verdict::Tight));
        let aside = judge(&package(5.0, 0.0), &wheel(), 0.0, on(-100.0, -80.0), LIMITS);
        assert_eq!((aside.parts[0].weights, aside.verdict), (None, Verdict::Clears));
    }

    #[test]
    fn without_a_template_nothing_is_said() {
        let fit = judge(&Package::default(), &wheel(), 0.0, None, LIMITS);
        assert_eq!((fit.verdict, fit.smallest_spacer_mm), (Verdict::MeasureFirst, None));
    }
}
