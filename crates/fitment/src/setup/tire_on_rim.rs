//! How a tire stands on its rim: square, stretched or bulging, and whether the rim is one it may be put on.

use crate::parts::tire::rims::{PermittedRims, RimFit};
use crate::setup::Setup;
use crate::values::codes::RimWidth;
use crate::values::length::Length;
use crate::values::working::{Figure, Quantity, Source, Step};

/// Where the words' limits come from.
pub const SOURCE: Source =
    Source::common_practice("tire over the flange a side, against what it is on the measuring rim");

/// From here on the rim flange stands proud of the tire so far that the trade says "stretched", when the
/// rim is also wider than the measuring rim: on its own measuring rim every tire is square.
pub const STRETCHED_BEYOND: Length = Length::mm(-3.0);

/// How much further than on its measuring rim the tire must hang over for "bulging". One inch less rim
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

/// A tire on its rim.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TireOnRim {
    /// How far the tire stands over the rim flange on each side; negative: the flange stands proud.
    pub over_flange: Length,
    /// The word for it.
    pub shape: SidewallShape,
    /// The rims the tire may be put on.
    pub permitted: PermittedRims,
    /// What this rim is among them.
    pub fit: RimFit,
}

/// A setup's tire on its rim, by its section width there; `None` without wheel or tire.
pub fn tire_on_rim(setup: &Setup) -> Option<TireOnRim> {
    let rim = setup.wheel?.width;
    let flanges = setup.over_flanges()? - rim.between_flanges();
    let over = |rim: RimWidth| {
        setup.section_width_on(rim).map(|section| (section - rim.between_flanges() - flanges) / 2.0)
    };
    let measuring = setup.measuring_rim()?;
    let (over_flange, on_measuring) = (over(rim)?, over(measuring)?);
    let shape = if over_flange < STRETCHED_BEYOND && rim > measuring {
        SidewallShape::Stretched
    } else if over_flange - on_measuring > BULGING_BEYOND {
        SidewallShape::Bulging
    } else {
        SidewallShape::Square
    };
    let permitted = setup.permitted_rims()?;
    Some(TireOnRim { over_flange, shape, permitted, fit: permitted.judge(rim) })
}

/// [`TireOnRim::over_flange`] with its working.
pub fn over_flange_worked(setup: &Setup) -> Option<Figure> {
    let (wheel, tire) = (setup.wheel?, setup.tire?);
    let section = setup.section_width()?;
    let earlier = match setup.listed.tire.section {
        Some(listed) => vec![Step {
            what: "section width on its measuring rim",
            formula: "as listed",
            inputs: Vec::new(),
            result: Quantity::length(listed.length()),
            source: Source::LISTED,
        }],
        None => crate::parts::tire::rims::section_width_on_worked(&tire.size, wheel.width).working,
    };
    let figure = Figure::of(Step {
        what: "tire over the rim flange, each side",
        formula: "(S − overall width of the rim) / 2",
        inputs: vec![
            ("S", Quantity::length(section)),
            ("overall width", Quantity::length(setup.over_flanges()?)),
        ],
        result: Quantity::length(tire_on_rim(setup)?.over_flange).signed(),
        source: SOURCE,
    });
    Some(figure.after(earlier))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn on(size: &str, rim: f64) -> Setup {
        let tire: crate::Tire = size.parse().unwrap();
        let wheel = crate::Wheel::plain(tire.size.rim(), RimWidth::from_code(rim).unwrap());
        Setup { wheel: Some(wheel), tire: Some(tire), ..Setup::default() }
    }

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
            let on_rim = tire_on_rim(&on(size, rim)).unwrap();
            assert_eq!(
                (on_rim.shape, on_rim.fit == RimFit::Permitted),
                (shape, permitted),
                "{size} on {rim}: {on_rim:?}"
            );
        }
    }

    #[test]
    fn every_tire_is_square_on_its_measuring_rim() {
        for section in (135..=345).step_by(10) {
            for aspect in (20..=85).step_by(5) {
                let size = format!("{section}/{aspect}R18");
                let tire: crate::Tire = size.parse().unwrap();
                let measuring = crate::parts::tire::rims::measuring_rim(&tire.size);
                let on_rim = tire_on_rim(&on(&size, measuring.code())).unwrap();
                assert_eq!((on_rim.shape, on_rim.fit), (SidewallShape::Square, RimFit::Permitted), "{size}");
            }
        }
    }

    #[test]
    fn each_half_inch_of_rim_takes_3_81_mm_a_side() {
        // (12.7 − 0.4 × 12.7) / 2, from UN R30 §6.1.1 (memory).
        let over = |rim: f64| tire_on_rim(&on("245/40R18", rim)).unwrap().over_flange.as_mm();
        assert!((over(8.0) - over(8.5) - 3.81).abs() < 1e-9);
    }
}
