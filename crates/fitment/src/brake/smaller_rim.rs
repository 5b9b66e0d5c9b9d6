//! Whether smaller rims are worth lifting on, by the gap at the fitted one.

use crate::codes::RimDiameter;
use crate::length::Length;
use crate::working::{Figure, Quantity, Source, Step};

/// One inch less rim is half an inch less radius all round.
pub const PER_INCH: Length = Length::inches(0.5);

/// Where the rule comes from.
pub const SOURCE: Source = Source::common_practice("an inch less rim is half an inch less radius all round");

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
            let less = PER_INCH * f64::from(inches);
            let left = gap - less;
            let figure = Figure::of(Step {
                what: "radial gap to be expected",
                formula: "gap − 12.7 mm × inches less",
                put_in: vec![
                    ("gap", Quantity::length(gap)),
                    ("inches less", Quantity::count(f64::from(inches))),
                ],
                gives: Quantity::length(left).signed(),
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
        // Common practice, no source: 12.7 mm.
        let of = |gap: f64| smaller_rims(RimDiameter::from_code(18.0).unwrap(), Length::mm(gap), 2);
        assert_eq!(of(12.6).iter().map(|one| one.is_worth_trying).collect::<Vec<_>>(), [false, false]);
        assert_eq!(of(14.0).iter().map(|one| one.is_worth_trying).collect::<Vec<_>>(), [true, false]);
        assert!((of(14.0)[1].gap.value() + 11.4).abs() < 1e-9);
        assert_eq!(of(14.0)[0].rim, RimDiameter::from_code(17.0).unwrap());
    }
}
