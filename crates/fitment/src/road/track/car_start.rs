//! What a sheet of the car at the limit starts from.

use crate::car::{Car, Fact};

/// What a sheet starts from, as far as the car's record says it; heights and stiffness are estimates by its body.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CarStart {
    /// Kerb mass and a driver.
    pub mass_kg: Option<f64>,
    /// Share on the front axle.
    pub front_share: Option<f64>,
    /// Height of the centre of gravity. Estimate.
    pub cg_height_m: f64,
    /// Share of the roll stiffness in front. Estimate.
    pub roll_share_front: f64,
}

/// A driver, in kilograms.
const DRIVER_KG: f64 = 75.0;
/// Share of the roll stiffness in front of a road car. Estimate.
const USUAL_ROLL_SHARE: f64 = 0.55;

impl CarStart {
    /// What a car starts from, as far as its record says it.
    pub fn of(car: &Car) -> Self {
        let body = car.words(Fact::Body, None).unwrap_or_default().to_lowercase();
        let height = [("roadster", 0.43), ("coup", 0.48), ("crossover", 0.66)];
        let height =
            height.into_iter().find(|(name, _)| body.contains(name)).map_or(0.53, |(_, height)| height);
        Self {
            mass_kg: car.number(Fact::KerbMass, None).map(|kg| kg + DRIVER_KG),
            front_share: car.number(Fact::FrontShare, None).map(|pct| pct / 100.0),
            cg_height_m: height,
            roll_share_front: USUAL_ROLL_SHARE,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_driver_sits_in_it_and_its_body_says_how_high_its_weight_is() {
        let mut car = Car::default();
        car.note(Fact::KerbMass, None, "1400").unwrap();
        car.note(Fact::FrontShare, None, "58").unwrap();
        car.note(Fact::Body, None, "crossover").unwrap();
        let start = CarStart::of(&car);
        assert_eq!((start.mass_kg, start.front_share, start.cg_height_m), (Some(1475.0), Some(0.58), 0.66));
        let unknown = CarStart::of(&Car::default());
        assert_eq!((unknown.mass_kg, unknown.front_share), (None, None), "not known is not nothing");
    }
}
