//! Which of the house's limits count for what a set is for.
//!
//! Each limit has a column for each ground: a set that is carried to the event is not judged by the dial, a truck off the road has no
//! band of diameters. What is driven on the road on the way there is judged for the road.
//!
//! # Source
//! Common practice; no published source.

use super::LineCode;
use crate::judgement::purpose::Ground;

/// How much of a limit counts on a ground.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Counts {
    /// All of it.
    Fully,
    /// What would stop a car on the road is to be watched.
    AsACondition(&'static str),
    /// It has a band of its own, from least to most in per cent: what lies in it is good, what does not counts fully.
    Within(f64, f64, &'static str),
    /// It is not judged.
    Not(&'static str),
}

/// The house's table of limits by use: what a line of the ledger counts for on a ground.
pub fn counts(code: LineCode, ground: Ground) -> Counts {
    match (ground, code) {
        (Ground::Carried, LineCode::OverallDiameter) => Counts::Not("gearing is the wish"),
        (Ground::Carried, LineCode::Speedometer) => Counts::Not("the dial is not judged"),
        (Ground::Carried, LineCode::SpeedSymbol) => {
            Counts::AsACondition("the maker's word for the event counts")
        }
        (Ground::Carried, LineCode::LoadIndex) => {
            Counts::AsACondition("a race tire's maker says what it carries")
        }
        (Ground::Carried, LineCode::Pressure) => Counts::AsACondition("from the hot target"),
        (Ground::Carried, LineCode::TireOnRim) => Counts::AsACondition("narrow rims are usual at the strip"),
        (Ground::Carried, LineCode::Mix) => Counts::AsACondition("judged for the road alone"),
        (Ground::OffRoad, LineCode::OverallDiameter) => {
            Counts::Not("no band off the road: dial, gearing, brakes and roll-over follow")
        }
        (Ground::OffRoad, LineCode::Speedometer) => Counts::AsACondition("tell the module"),
        (Ground::Track, LineCode::OverallDiameter) => {
            Counts::Within(-5.0, 2.5, "−5 to +2.5 %, gearing is the wish")
        }
        _ => Counts::Fully,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_can_hurt_counts_everywhere() {
        for ground in [Ground::Road, Ground::OffRoad, Ground::Track, Ground::Carried] {
            for code in LineCode::all().filter(|code| code.part().is_some()).chain([
                LineCode::Hub,
                LineCode::WheelLoad,
                LineCode::TireAge,
                LineCode::CamberLoad,
                // The coupling of an all-wheel drive does not ask how the car came to the event.
                LineCode::FrontToRear,
            ]) {
                assert_eq!(counts(code, ground), Counts::Fully, "{code:?}");
            }
        }
    }
}
