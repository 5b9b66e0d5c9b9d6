//! What a car asks of every wheel: bolt circle and hub.

use crate::car::{Car, Fact};
use crate::setup::{Axle, SetupPair};
use crate::values::codes::{BoltCircle, CenterBore};

/// What the car's hubs take; `None` where nobody knows.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Needs {
    /// Bolt circle: the car's record, else the factory's wheel, else the fitted one.
    pub bolt_circle: Option<BoltCircle>,
    /// Hub diameter, front and rear.
    pub hub: [Option<CenterBore>; 2],
}

/// What one wheel of an axle carries, in kilograms: half of its rating, a quarter on twin rear wheels.
pub fn half_rating_kg(car: &Car, axle: Axle) -> Option<f64> {
    let wheels = if has_twin_wheels(car, axle) { 4.0 } else { 2.0 };
    car.number(Fact::AxleRating, Some(axle)).map(|kg| kg / wheels)
}

/// Whether two wheels stand on each side of an axle.
pub fn has_twin_wheels(car: &Car, axle: Axle) -> bool {
    axle == Axle::Rear && car.words(Fact::RearWheels, None) == Some("dual")
}

impl Needs {
    /// From the car's record and what is fitted.
    pub fn of(car: &Car, fitted: &SetupPair) -> Self {
        let of_wheel =
            |pair: &SetupPair| Axle::BOTH.into_iter().find_map(|axle| pair.on(axle)?.wheel?.bolt_circle);
        let written = car.words(Fact::BoltCircle, None).and_then(|text| text.parse().ok());
        let hub = |axle| car.number(Fact::HubBore, Some(axle)).and_then(CenterBore::from_mm);
        Self {
            bolt_circle: written.or_else(|| of_wheel(&car.factory())).or_else(|| of_wheel(fitted)),
            hub: Axle::BOTH.map(hub),
        }
    }
}
