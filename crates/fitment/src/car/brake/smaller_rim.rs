//! Whether smaller rims are worth lifting on, by the gap at the fitted one.

use crate::values::codes::RimDiameter;
use crate::values::length::Length;
use crate::values::working::{Figure, Quantity, Source, Step};

/// Where the rule comes from.
pub const SOURCE: Source = Source::standard(
    "ETRTO specified rim diameters (16: 405.6, 17: 436.6, 18: 462.0 mm): the barrel's inside goes with the bead seat",
);

/// What stands beside it.
pub const CAUTION: &str = "Do not lift it on to find out: a wheel forced over a caliper damages both. Another maker's barrel \
     can be a few millimetres wider or tighter.";

/// A smaller rim.
#[derive(Debug, Clone, PartialEq)]
pub struct SmallerRim {
    /// Its code.
    pub rim: RimDiameter,
    /// What gap is to be expected, with the working; negative is an overlap.
    pub gap: Figure,
    /// Whether it is worth lifting on.
    pub is_worth_trying: bool,
}

/// The next rim codes down from the fitted one.
///
/// # Units
/// `gap` is the least radial gap between brake and barrel, read on the fitted rim.
pub fn smaller_rims(fitted: RimDiameter, gap: Length, count: u32) -> Vec<SmallerRim> {
    (1..=count)
        .filter_map(|inches| {
            let rim = RimDiameter::from_code(fitted.code() - f64::from(inches))?;
            let less = (fitted.bead_seat() - rim.bead_seat()) * 0.5;
            let left = gap - less;
            let figure = Figure::of(Step {
                what: "radial gap to be expected",
                formula: "gap − (fitted bead seat − smaller bead seat) / 2",
                inputs: vec![
                    ("gap", Quantity::length(gap)),
                    ("fitted bead seat", Quantity::length(fitted.bead_seat())),
                    ("smaller bead seat", Quantity::length(rim.bead_seat())),
                ],
                result: Quantity::length(left).signed(),
                source: SOURCE,
            });
            Some(SmallerRim { rim, gap: figure, is_worth_trying: left > Length::ZERO })
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn under_half_an_inch_the_next_rim_down_is_not_worth_lifting_on() {
        // ETRTO bead seats of 18 and 17: (462.0 − 436.6) / 2 = 12.7 mm.
        let of = |gap: f64| smaller_rims(RimDiameter::from_code(18.0).unwrap(), Length::mm(gap), 2);
        assert_eq!(of(12.6).iter().map(|one| one.is_worth_trying).collect::<Vec<_>>(), [false, false]);
        assert_eq!(of(14.0).iter().map(|one| one.is_worth_trying).collect::<Vec<_>>(), [true, false]);
        // From 18 to 16 by ETRTO: (462.0 − 405.6) / 2 = 28.2.
        assert!((of(14.0)[1].gap.value() + 14.2).abs() < 1e-9);
        assert_eq!(of(14.0)[0].rim, RimDiameter::from_code(17.0).unwrap());
    }

    #[test]
    fn from_17_to_16_the_bead_seat_loses_more_than_half_an_inch() {
        // ETRTO: 436.6 and 405.6 mm across; half of 31.0 is 15.5, where every other inch takes 12.7.
        let sixteen = &smaller_rims(RimDiameter::from_code(17.0).unwrap(), Length::mm(15.0), 1)[0];
        assert!((sixteen.gap.value() + 0.5).abs() < 1e-9 && !sixteen.is_worth_trying);
    }
}
