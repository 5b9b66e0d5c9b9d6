//! How the rubber stands on the rim: square, stretched or bulging.

use crate::codes::{FLANGE_WIDTH, RimWidth};
use crate::length::Length;
use crate::tire::Size;
use crate::tire::rims::{measuring_rim, permitted_rims, section_width_on};
use crate::working::{Figure, Quantity, Source, Step};

/// Where the words' limits come from.
pub const SOURCE: Source =
    Source::common_practice("rubber over the flange a side, against what it is on the measuring rim");

/// From here on the rim flange stands proud of the rubber so far that the trade says "stretched", when the
/// rim is also wider than the measuring rim: on its own measuring rim every tire is square.
pub const STRETCHED_BEYOND: Length = Length::mm(-3.0);

/// How much further than on its measuring rim the rubber must hang over for "bulging". One inch less rim
/// makes 7.6 mm.
pub const BULGING_BEYOND: Length = Length::mm(6.0);

/// How the sidewall stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SidewallShape {
    /// Upright.
    Square,
    /// The rim flange is what reaches furthest.
    Stretched,
    /// The sidewall hangs over the rim.
    Bulging,
}

/// A tire on a rim.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TireOnRim {
    /// How far the rubber stands over the rim flange on each side; negative: the flange stands proud.
    pub over_flange: Length,
    /// The word for it.
    pub shape: SidewallShape,
    /// Narrowest and widest rim permitted.
    pub permitted: (RimWidth, RimWidth),
    /// Whether this rim is one of them.
    pub is_permitted: bool,
}

/// Judges a tire on a rim by its section width there.
pub fn tire_on_rim(size: &Size, rim: RimWidth) -> TireOnRim {
    let over = |rim: RimWidth| (section_width_on(size, rim) - rim.between_flanges()) / 2.0 - FLANGE_WIDTH;
    let over_flange = over(rim);
    let measuring = measuring_rim(size);
    let shape = if over_flange < STRETCHED_BEYOND && rim > measuring {
        SidewallShape::Stretched
    } else if over_flange - over(measuring) > BULGING_BEYOND {
        SidewallShape::Bulging
    } else {
        SidewallShape::Square
    };
    let permitted = permitted_rims(size);
    TireOnRim { over_flange, shape, permitted, is_permitted: (permitted.0..=permitted.1).contains(&rim) }
}

/// [`TireOnRim::over_flange`] with its working.
pub fn over_flange_worked(size: &Size, rim: RimWidth) -> Figure {
    Figure::of(Step {
        what: "rubber over the rim flange, each side",
        formula: "S / 2 − (W / 2 + 12.7)",
        put_in: vec![
            ("S", Quantity::length(section_width_on(size, rim))),
            ("W", Quantity::length(rim.between_flanges())),
        ],
        gives: Quantity::length(tire_on_rim(size, rim).over_flange).signed(),
        source: SOURCE,
    })
    .after(crate::tire::rims::section_width_on_worked(size, rim).working)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::Tire;

    #[test]
    fn the_words_are_the_ones_the_trade_uses() {
        use SidewallShape::{Bulging, Square, Stretched};
        // Common practice, no published source: how these well-known pairings are spoken of.
        for (size, rim, shape, permitted) in [
            ("225/45R17", 7.5, Square, true),
            ("245/40R18", 8.5, Square, true),
            ("205/55R16", 6.5, Square, true),
            ("195/65R15", 6.0, Square, true),
            ("265/70R17", 8.0, Square, true),
            // Its measuring rim is 8.5: the flange stands a little proud and nobody calls it stretched.
            ("235/40R18", 8.5, Square, true),
            ("225/45R17", 8.5, Stretched, true),
            ("205/40R17", 9.0, Stretched, false),
            ("225/45R17", 6.0, Bulging, false),
            ("245/40R18", 7.0, Bulging, false),
        ] {
            let tire: Tire = size.parse().unwrap();
            let on_rim = tire_on_rim(&tire.size, RimWidth::from_code(rim).unwrap());
            assert_eq!(
                (on_rim.shape, on_rim.is_permitted),
                (shape, permitted),
                "{size} on {rim}: {on_rim:?}"
            );
        }
    }

    #[test]
    fn every_tire_is_square_on_its_measuring_rim() {
        for section in (135..=345).step_by(10) {
            for aspect in (20..=85).step_by(5) {
                let tire: Tire = format!("{section}/{aspect}R18").parse().unwrap();
                let on_rim = tire_on_rim(&tire.size, measuring_rim(&tire.size));
                assert_eq!((on_rim.shape, on_rim.is_permitted), (SidewallShape::Square, true), "{tire}");
            }
        }
    }

    #[test]
    fn each_half_inch_of_rim_takes_3_81_mm_a_side() {
        // (12.7 − 0.4 × 12.7) / 2, from UN R30 §6.1.1 (memory).
        let tire: Tire = "245/40R18".parse().unwrap();
        let over = |rim: f64| tire_on_rim(&tire.size, RimWidth::from_code(rim).unwrap()).over_flange.as_mm();
        assert!((over(8.0) - over(8.5) - 3.81).abs() < 1e-9);
    }
}
