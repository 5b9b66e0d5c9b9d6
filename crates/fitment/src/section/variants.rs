//! A setup's outline as it may truly be: as its sizes say, and with each of what may differ at either end of its range.

use std::cell::OnceCell;

use super::{Deviations, Outline};
use crate::setup::Setup;

/// What of a wheel and tire may differ from its size.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Part {
    /// The tire's section width.
    TireWidth,
    /// Its height.
    TireHeight,
    /// Where its shoulder stands.
    Shoulder,
    /// The rim's width.
    RimWidth,
    /// The shape of its flanges from below.
    Flange,
}

impl Part {
    /// All of them.
    pub const ALL: [Self; 5] =
        [Self::TireWidth, Self::TireHeight, Self::Shoulder, Self::RimWidth, Self::Flange];

    /// Whether it belongs to the tire, not to the wheel.
    pub fn is_of_the_tire(self) -> bool {
        !matches!(self, Self::RimWidth | Self::Flange)
    }
}

/// By how much each may differ, either way, in millimetres.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Tolerances {
    /// Each sidewall's face.
    pub half_section: f64,
    /// The crown.
    pub radius: f64,
    /// Each shoulder.
    pub shoulder: f64,
    /// Each flange.
    pub half_rim: f64,
    /// Metal under each flange.
    pub flange: f64,
}

/// Share of its section by which each face of a new tire may stand off its size.
///
/// # Source
/// UN R30 §6.1 (from memory): overall width at most 4 % over the design section width; half on each side.
const WIDTH_SHARE: f64 = 0.02;
/// Share of its section height by which a new tire's crown may stand off its size.
///
/// # Source
/// UN R30 §6.1 (from memory): d + 2H × 0.97 … d + 2H × 1.04.
const HEIGHT_SHARE: f64 = 0.04;
/// What is left of both where a list gives the tire's own measure: one tire of a line against the next. Estimate.
const LISTED: f64 = 0.5;
/// Shape of the shoulder, above 0.95 of the radius. Estimate.
const SHOULDER_MM: f64 = 6.0;
/// Each flange of a rim. Estimate.
const HALF_RIM_MM: f64 = 0.3;
/// Metal under a flange, where makers differ: so much less than drawn, which is all of a thin one's edge. Estimate.
const FLANGE_MM: f64 = 3.0;
/// … and so many times as much more, as under the blunt edges of castings. Estimate.
const BLUNT_FLANGE: f64 = 2.0;

/// How many times its lower range its upper one is.
fn blunt(part: Part) -> f64 {
    if part == Part::Flange { BLUNT_FLANGE } else { 1.0 }
}

impl Deviations {
    fn add(&mut self, part: Part, by: f64) {
        match part {
            Part::TireWidth => self.half_section += by,
            Part::TireHeight => self.radius += by,
            Part::Shoulder => self.shoulder += by,
            Part::RimWidth => self.half_rim += by,
            Part::Flange => self.flange += by,
        }
    }
}

impl Tolerances {
    /// Of new parts of these sizes.
    pub fn of(setup: &Setup) -> Self {
        let listed = setup.listed.tire;
        let left = |is_listed: bool| if is_listed { LISTED } else { 1.0 };
        let width = setup.section_width().map_or(0.0, |width| width.as_mm() * WIDTH_SHARE);
        let height = setup.sidewall().map_or(0.0, |height| height.as_mm() * HEIGHT_SHARE);
        Self {
            half_section: width * left(listed.section.is_some()),
            radius: height * left(listed.overall_diameter.is_some()),
            shoulder: if setup.tire.is_some() { SHOULDER_MM } else { 0.0 },
            half_rim: HALF_RIM_MM,
            flange: FLANGE_MM,
        }
    }

    fn of_part(&self, part: Part) -> f64 {
        match part {
            Part::TireWidth => self.half_section,
            Part::TireHeight => self.radius,
            Part::Shoulder => self.shoulder,
            Part::RimWidth => self.half_rim,
            Part::Flange => self.flange,
        }
    }
}

/// A setup's outlines.
#[derive(Debug, Clone)]
pub struct Variants {
    setup: Setup,
    base: Deviations,
    tolerances: Tolerances,
    nominal: Outline,
    // Cut only when something is held against them.
    ends: [[OnceCell<Outline>; 2]; 5],
}

impl Variants {
    /// Of a setup whose parts differ by `base` from their sizes as far as somebody measured them; `None` without a wheel and
    /// its offset.
    pub fn of(setup: &Setup, base: Deviations, tolerances: Tolerances) -> Option<Self> {
        let nominal = Outline::of_true(setup, &base)?;
        Some(Self { setup: *setup, base, tolerances, nominal, ends: Default::default() })
    }

    /// Of nothing at all.
    pub(crate) fn nothing() -> Self {
        Self {
            setup: Setup::default(),
            base: Deviations::default(),
            tolerances: Tolerances::default(),
            nominal: Outline::default(),
            ends: Default::default(),
        }
    }

    /// As the sizes say, or as was measured.
    pub fn nominal(&self) -> &Outline {
        &self.nominal
    }

    /// By how much a part may differ; the metal under a flange by more than that upward.
    fn tolerance(&self, part: Part) -> f64 {
        self.tolerances.of_part(part)
    }

    /// With each part off by a share of its range, from −1 at its lower end to 1 at its upper; beyond that where it is drawn so.
    pub(crate) fn off_by(&self, shares: &[f64; 5]) -> Outline {
        let mut off = self.base;
        for part in Part::ALL {
            let share = shares[part as usize];
            off.add(part, share * self.tolerance(part) * if share > 0.0 { blunt(part) } else { 1.0 });
        }
        Outline::of_true(&self.setup, &off).unwrap_or_else(|| self.nominal.clone())
    }

    /// With one part at the lower (0) or upper (1) end of its range.
    pub fn at_end(&self, part: Part, end: usize) -> &Outline {
        self.ends[part as usize][end].get_or_init(|| {
            let by = match end {
                0 => -self.tolerance(part),
                _ => self.tolerance(part) * blunt(part),
            };
            let mut off = self.base;
            off.add(part, by);
            // A setup whose nominal outline could be cut can be cut with any deviation.
            Outline::of_true(&self.setup, &off).unwrap_or_default()
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_end_differs_by_its_tolerance_alone() {
        let setup: Setup = "18x8.5 ET35 255/40R18".parse().unwrap();
        let cut = Variants::of(&setup, Deviations::default(), Tolerances::of(&setup)).unwrap();
        let ((_, wide), (_, high)) = cut.nominal().bounds();
        let wider = cut.at_end(Part::TireWidth, 1).bounds();
        // 2 % of the section on this rim on each side, 4 % of 102 mm of height (UN R30, memory).
        let section = setup.section_width().unwrap().as_mm();
        assert!((wider.0.1 - wide - 0.02 * section).abs() < 1e-9 && (wider.1.1 - high).abs() < 1e-9);
        let lower = cut.at_end(Part::TireHeight, 0).bounds();
        assert!((lower.1.1 - high + 4.08).abs() < 1e-9 && (lower.0.1 - wide).abs() < 1e-9);
    }

    #[test]
    fn what_a_list_measured_is_surer() {
        let setup: Setup = "18x8.5 ET35 255/40R18".parse().unwrap();
        let mut listed = setup;
        listed.listed.tire.section = crate::setup::Hundredths::of(crate::Length::mm(253.0));
        let (named, known) = (Tolerances::of(&setup), Tolerances::of(&listed));
        assert!(known.half_section < named.half_section && known.radius == named.radius);
        let bare: Setup = "18x8.5 ET35".parse().unwrap();
        assert_eq!((Tolerances::of(&bare).half_section, Tolerances::of(&bare).shoulder), (0.0, 0.0));
    }
}
