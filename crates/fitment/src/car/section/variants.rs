//! A setup's outline as it may truly be: as its sizes say, and with each of what may differ at either end of its range.

use std::cell::OnceCell;

use super::{Deviations, Outline};
use crate::setup::Setup;

/// What of a wheel and tire may differ from its size.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Part {
    /// The tire's section width.
    TireWidth,
    /// The band that guards the rim, which may stand out from its sidewall.
    RimGuard,
    /// Its height.
    TireHeight,
    /// Where its shoulder stands.
    Shoulder,
    /// How much of its tread is gone: of a tire on the car, never of a new one.
    Wear,
    /// The rim's width.
    RimWidth,
    /// The shape of its flanges from below.
    Flange,
}

impl Part {
    /// All of them.
    pub const ALL: [Self; PARTS] = [
        Self::TireWidth,
        Self::RimGuard,
        Self::TireHeight,
        Self::Shoulder,
        Self::Wear,
        Self::RimWidth,
        Self::Flange,
    ];

    /// Whether it belongs to the tire, not to the wheel.
    pub fn is_of_the_tire(self) -> bool {
        !matches!(self, Self::RimWidth | Self::Flange)
    }
}

/// How many parts there are.
pub(crate) const PARTS: usize = 7;

/// By how much each may differ, either way, in millimetres.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Tolerances {
    /// Each sidewall's face.
    pub half_section: f64,
    /// A rim guard on each sidewall: so much more and never less.
    pub rim_guard: f64,
    /// The crown: so much higher, and three quarters of it lower.
    pub radius: f64,
    /// Each shoulder.
    pub shoulder: f64,
    /// How much lower and how much higher the crown may stand for wear, since nobody noted the tread depth.
    pub wear: [f64; 2],
    /// Each flange.
    pub half_rim: f64,
    /// How much further down each flange goes.
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
/// What of that it may be lower: 3 % for 4 %.
const LOWER: f64 = 0.75;
/// What a rim guard may stand out on each side beyond that.
///
/// # Source
/// UN R30 §6.1: a tire with a protective band may be 8 mm wider over all; half on each side.
pub const RIM_GUARD_MM: f64 = 4.0;
/// What is left of both where a list gives the tire's own measure: one tire of a line against the next. Estimate.
const LISTED: f64 = 0.5;
/// Shape of the shoulder, above 0.95 of the radius. Estimate.
const SHOULDER_MM: f64 = 6.0;
/// Each flange of a rim. Estimate.
const HALF_RIM_MM: f64 = 0.3;
/// How much further up or down the face of a flange ends, where makers differ: hollow as sheet is, blunt as some castings
/// are. Estimate.
const FLANGE_MM: f64 = 6.0;

impl Deviations {
    fn add(&mut self, part: Part, by: f64) {
        match part {
            Part::TireWidth | Part::RimGuard => self.half_section += by,
            Part::TireHeight | Part::Wear => self.radius += by,
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
            rim_guard: if setup.may_have_a_rim_guard() { RIM_GUARD_MM } else { 0.0 },
            radius: height * left(listed.overall_diameter.is_some()),
            shoulder: if setup.tire.is_some() { SHOULDER_MM } else { 0.0 },
            wear: [0.0; 2],
            half_rim: HALF_RIM_MM,
            flange: FLANGE_MM,
        }
    }

    /// The ends of a part's range: how much less it may be, and how much more.
    fn of_part(&self, part: Part) -> [f64; 2] {
        let either_way = match part {
            Part::TireWidth => self.half_section,
            Part::RimGuard => return [0.0, self.rim_guard],
            Part::Wear => return [-self.wear[0], self.wear[1]],
            Part::TireHeight => return [-self.radius * LOWER, self.radius],
            Part::Shoulder => self.shoulder,
            Part::RimWidth => self.half_rim,
            Part::Flange => self.flange,
        };
        [-either_way, either_way]
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
    ends: [[OnceCell<Outline>; 2]; PARTS],
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
            nominal: Outline::from_points(Vec::new()),
            ends: Default::default(),
        }
    }

    /// As the sizes say, or as was measured.
    pub fn nominal(&self) -> &Outline {
        &self.nominal
    }

    /// Whether a part cannot differ at all.
    pub(crate) fn is_sure(&self, part: Part) -> bool {
        self.tolerances.of_part(part) == [0.0; 2]
    }

    /// With each part off by a share of its range, from −1 at its lower end to 1 at its upper; beyond that where it is drawn so.
    pub(crate) fn off_by(&self, shares: &[f64; PARTS]) -> Outline {
        let mut off = self.base;
        for part in Part::ALL {
            let share = shares[part as usize];
            off.add(part, share.abs() * self.tolerances.of_part(part)[usize::from(share > 0.0)]);
        }
        Outline::of_true(&self.setup, &off).unwrap_or_else(|| self.nominal.clone())
    }

    /// With one part at the lower (0) or upper (1) end of its range.
    pub fn at_end(&self, part: Part, end: usize) -> &Outline {
        let by = self.tolerances.of_part(part)[end];
        if by == 0.0 {
            return &self.nominal;
        }
        self.ends[part as usize][end].get_or_init(|| {
            let mut off = self.base;
            off.add(part, by);
            // A setup whose nominal outline could be cut can be cut with any deviation.
            Outline::of_true(&self.setup, &off).unwrap_or_else(|| self.nominal.clone())
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
        // 2 % of the section on this rim on each side, 3 % less of 102 mm of height (UN R30, memory).
        let section = setup.section_width().unwrap().as_mm();
        assert!((wider.0.1 - wide - 0.02 * section).abs() < 1e-9 && (wider.1.1 - high).abs() < 1e-9);
        let lower = cut.at_end(Part::TireHeight, 0).bounds();
        assert!((lower.1.1 - high + 3.06).abs() < 1e-9 && (lower.0.1 - wide).abs() < 1e-9);
    }

    #[test]
    fn a_rim_guard_stands_out_and_never_in() {
        // UN R30 §6.1: 8 mm more over all with a protective band, half on each side.
        let cut = |setup: &Setup| Variants::of(setup, Deviations::default(), Tolerances::of(setup)).unwrap();
        let outmost = |outline: &Outline| outline.bounds().0.1;
        let fast: Setup = "18x8.5 ET35 255/40R18 99Y".parse().unwrap();
        let more = |setup: &Setup, end| {
            let cut = cut(setup);
            outmost(cut.at_end(Part::RimGuard, end)) - outmost(cut.nominal())
        };
        assert!((more(&fast, 1) - 4.0).abs() < 1e-9 && more(&fast, 0).abs() < 1e-9);
        // Its list says that it has none; of a slower tire nobody supposes one, unless its list says so.
        let mut without = fast;
        without.listed.tire.has_rim_guard = Some(false);
        let slow: Setup = "18x8.5 ET35 255/40R18 99H".parse().unwrap();
        let mut with = slow;
        with.listed.tire.has_rim_guard = Some(true);
        assert_eq!((more(&without, 1), more(&slow, 1)), (0.0, 0.0));
        assert!((more(&with, 1) - 4.0).abs() < 1e-9);
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
