//! The size ladder: every size round a tire whose overall diameter stays inside a band.

use crate::parts::tire::dimensions::{overall_diameter, sidewall};
use crate::parts::tire::rims::{PermittedRims, measuring_rim};
use crate::parts::tire::{Construction, MetricSize, Prefix, Size};
use crate::setup::standard_sizes;
use crate::setup::standard_sizes::sections_mm;
use crate::values::codes::{RimDiameter, RimWidth};
use crate::values::length::Length;
use crate::values::working::{Figure, Quantity, Source, Step};

/// Where the grid and the bands come from.
pub const SOURCE: Source =
    Source::common_practice("plus sizing: keep the overall diameter while the rim grows; no source");

/// Aspect ratios tried: 20 to 85 by 5.
pub const ASPECTS: std::ops::RangeInclusive<u32> = 20..=85;
/// Rim codes tried when none are named: 13 to 24.
pub const RIMS_IN: std::ops::RangeInclusive<u32> = 13..=24;

/// One size of the ladder.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Rung {
    /// The size.
    pub size: Size,
    /// Its overall diameter, by everyday arithmetic.
    pub overall_diameter: Length,
    /// Against the tire the ladder stands round, in per cent; + is larger.
    pub change_pct: f64,
    /// Height of its sidewall.
    pub sidewall: Length,
    /// The rim it is measured on.
    pub measuring_rim: RimWidth,
    /// Narrowest and widest rim it may be put on, estimated.
    pub permitted: PermittedRims,
    /// Rim code against the tire's own, in inches: +1 is "plus one".
    pub plus_in: f64,
}

impl Rung {
    fn of(size: Size, own: Length, own_rim: RimDiameter) -> Self {
        let diameter = overall_diameter(&size);
        Self {
            size,
            overall_diameter: diameter,
            change_pct: (diameter / own - 1.0) * 100.0,
            sidewall: sidewall(&size),
            measuring_rim: measuring_rim(&size),
            permitted: PermittedRims::estimated(&size),
            plus_in: size.rim().code() - own_rim.code(),
        }
    }
}

/// Sizes that are made and come to a height, whatever their rim: a height is what the owner of a truck asks for. Rim by rim,
/// the nearest first; `plus_in` counts from the rim that is given.
///
/// # Units
/// `band_pct` in per cent of the height, either way.
pub fn of_height(height: Length, band_pct: f64, rims: &[RimDiameter], own_rim: RimDiameter) -> Vec<Rung> {
    let mut rungs: Vec<Rung> = standard_sizes::all()
        .iter()
        .filter(|size| rims.contains(&size.rim()))
        .map(|size| Rung::of(*size, height, own_rim))
        .filter(|rung| rung.change_pct.abs() <= band_pct + 1e-9)
        .collect();
    rungs.sort_by(|a, b| {
        (a.size.rim().cmp(&b.size.rim())).then(a.change_pct.abs().total_cmp(&b.change_pct.abs()))
    });
    rungs
}

/// Every whole rim code of the ladder.
pub fn all_rims() -> Vec<RimDiameter> {
    RIMS_IN.filter_map(|code| RimDiameter::from_code(f64::from(code))).collect()
}

/// All plus and minus sizes inside the band, the nearest in diameter first.
///
/// Equal changes are ordered by how near the section width is, then by rim code and section. The tire's own size
/// is among them when its rim code was asked for.
///
/// # Units
/// `band_pct` in per cent of the tire's overall diameter, either way.
///
/// # Source
/// [`SOURCE`].
pub fn ladder(tire: &Size, band_pct: f64, rims: &[RimDiameter]) -> Vec<Rung> {
    let own = overall_diameter(tire);
    let mut rungs = Vec::new();
    for rim in rims {
        for section in sections_mm() {
            for aspect in ASPECTS.step_by(5) {
                let Some(size) = MetricSize::new(Prefix::None, section, aspect, Construction::Radial, *rim)
                else {
                    continue;
                };
                let size = Size::Metric(size);
                let rung = Rung::of(size, own, tire.rim());
                // What is printed as 3.0 % lies in a band of 3 %, whatever the rounding in the last place.
                if rung.change_pct.abs() <= band_pct + 1e-9 {
                    rungs.push(rung);
                }
            }
        }
    }
    let width = tire.named_section_width().as_mm();
    let off_width = |rung: &Rung| (rung.size.named_section_width().as_mm() - width).abs();
    rungs.sort_by(|a, b| {
        (a.change_pct.abs().total_cmp(&b.change_pct.abs()))
            .then(off_width(a).total_cmp(&off_width(b)))
            .then(a.size.rim().cmp(&b.size.rim()))
            .then(a.size.named_section_width().as_mm().total_cmp(&b.size.named_section_width().as_mm()))
    });
    rungs
}

/// A rung's change of diameter with its working.
pub fn change_worked(tire: &Size, rung: &Rung) -> Figure {
    Figure::of(Step {
        what: "change of overall diameter",
        formula: "(OD new / OD old − 1) × 100",
        inputs: vec![
            ("OD new", Quantity::length(rung.overall_diameter)),
            ("OD old", Quantity::length(overall_diameter(tire))),
        ],
        result: Quantity::percent(rung.change_pct).signed(),
        source: Source::GEOMETRY,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::Tire;

    fn size(text: &str) -> Size {
        text.parse::<Tire>().unwrap().size
    }

    fn rims(codes: &[f64]) -> Vec<RimDiameter> {
        codes.iter().map(|code| RimDiameter::from_code(*code).unwrap()).collect()
    }

    #[test]
    fn the_well_known_plus_sizes_are_on_it() {
        // Common practice, no published source: sizes every advisor names for a 225/45R17.
        let rungs = ladder(&size("225/45R17"), 3.0, &rims(&[16.0, 17.0, 18.0, 19.0]));
        let there = |text: &str| rungs.iter().find(|rung| rung.size == size(text));
        for (text, change, plus) in [
            ("225/45R17", 0.0, 0.0),
            ("205/55R16", -0.378, -1.0),
            ("225/40R18", 0.457, 1.0),
            ("245/40R18", 2.980, 1.0),
            ("235/35R19", 2.018, 2.0),
        ] {
            let rung = there(text).unwrap_or_else(|| panic!("{text} is not there"));
            // By hand: (rim × 25.4 + 2 × S × AR / 100) / 634.3 − 1.
            assert!((rung.change_pct - change).abs() < 1e-3, "{text}: {}", rung.change_pct);
            assert_eq!(rung.plus_in, plus, "{text}");
        }
        assert!(there("255/40R18").is_none(), "4.2 % taller");
        assert_eq!(rungs[0].size, size("225/45R17"), "the tire's own size comes first");
    }

    #[test]
    fn it_is_every_size_of_the_grid_inside_the_band_and_no_other() {
        let tire = size("265/70R17");
        let rungs = ladder(&tire, 1.0, &all_rims());
        let own = 17.0 * 25.4 + 2.0 * 265.0 * 0.70;
        let mut count = 0;
        for rim in 13..=24 {
            for section in (135..=345).step_by(10) {
                for aspect in (20..=85).step_by(5) {
                    let diameter =
                        f64::from(rim) * 25.4 + 2.0 * f64::from(section) * f64::from(aspect) / 100.0;
                    if ((diameter / own - 1.0) * 100.0).abs() <= 1.0 + 1e-9 {
                        count += 1;
                        let text = format!("{section}/{aspect}R{rim}");
                        assert!(rungs.iter().any(|rung| rung.size == size(&text)), "{text}");
                    }
                }
            }
        }
        assert_eq!(rungs.len(), count);
        assert!(rungs.windows(2).all(|two| two[0].change_pct.abs() <= two[1].change_pct.abs()));
    }
}
