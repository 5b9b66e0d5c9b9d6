//! What a car asks of every wheel and tire: bolt circle, hub, load and speed.

use crate::car::{Car, Fact};
use crate::codes::{BoltCircle, CenterBore};
use crate::setup::{Axle, SetupPair};
use crate::tire::Tire;
use crate::working::Source;

/// Where load and speed come from.
pub const SOURCE: Source = Source::from_memory(
    "49 CFR 571.110, UN R30 practice: not below the factory's, nor under half of the axle's rating; \
     the fitted tire stands for the factory's where that is not written down",
);

/// What the car asks of every wheel and tire; `None` where nobody knows.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Needs {
    /// Bolt circle: the car's record, else the fitted wheel's.
    pub bolt_circle: Option<BoltCircle>,
    /// Hub diameter, front and rear.
    pub hub: [Option<CenterBore>; 2],
    /// What one tire must carry, front and rear, in kilograms.
    pub load_kg: [Option<f64>; 2],
    /// What one wheel must carry: half of the heavier axle's rating.
    pub wheel_load_kg: Option<f64>,
    /// What every tire must be made for, in km/h.
    pub speed_kmh: Option<f64>,
}

/// The tire that a planned one is held against.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Reference {
    /// The tire.
    pub tire: Tire,
    /// `factory`, or `fitted` where nobody wrote the factory's down.
    pub which: &'static str,
}

impl Reference {
    /// An axle's; `None` while neither is stated.
    pub fn of(car: &Car, fitted: &SetupPair, axle: Axle) -> Option<Self> {
        let tire = |pair: &SetupPair| pair.on(axle).and_then(|setup| setup.tire);
        let factory = tire(&car.factory()).map(|tire| Self { tire, which: "factory" });
        factory.or_else(|| tire(fitted).map(|tire| Self { tire, which: "fitted" }))
    }
}

/// Half of an axle's rating, in kilograms: what one wheel there carries.
pub fn half_rating_kg(car: &Car, axle: Axle) -> Option<f64> {
    car.number(Fact::AxleRating, Some(axle)).map(|kg| kg / 2.0)
}

impl Needs {
    /// From the car's record and what is fitted.
    ///
    /// # Source
    /// Load: at least the factory's index, or half of the axle's rating, whichever is stricter; speed: the car's top
    /// speed, else the factory's symbol. See [`SOURCE`].
    pub fn of(car: &Car, fitted: &SetupPair) -> Self {
        let tire = |axle| Reference::of(car, fitted, axle).map(|reference| reference.tire);
        let load = |axle| {
            let index = tire(axle).and_then(|tire| tire.service).map(|service| service.single.capacity_kg());
            [index, half_rating_kg(car, axle)].into_iter().flatten().reduce(f64::max)
        };
        let symbol = Axle::BOTH.into_iter().filter_map(|axle| tire(axle)?.top_speed_kmh()).reduce(f64::max);
        let fitted_circle = || Axle::BOTH.into_iter().find_map(|axle| fitted.on(axle)?.wheel?.bolt_circle);
        let written = car.words(Fact::BoltCircle, None).and_then(|text| text.parse().ok());
        let hub = |axle| car.number(Fact::HubBore, Some(axle)).and_then(CenterBore::from_mm);
        Self {
            bolt_circle: written.or_else(fitted_circle),
            hub: Axle::BOTH.map(hub),
            load_kg: Axle::BOTH.map(load),
            wheel_load_kg: Axle::BOTH
                .into_iter()
                .filter_map(|axle| half_rating_kg(car, axle))
                .reduce(f64::max),
            speed_kmh: car.number(Fact::TopSpeed, None).or(symbol),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_stricter_of_index_and_half_the_rating_counts() {
        let fitted = SetupPair::square("17x7.5 ET45 5x112 225/45R17 91W".parse().unwrap());
        let mut car = Car::default();
        let bare = Needs::of(&car, &fitted);
        // ISO 4000-1: 91 is 615 kg; W is 270 km/h.
        assert_eq!((bare.load_kg, bare.speed_kmh), ([Some(615.0); 2], Some(270.0)));
        assert_eq!(bare.bolt_circle, BoltCircle::new(5, 112.0));
        car.note(Fact::AxleRating, Some(Axle::Rear), "1300").unwrap();
        car.note(Fact::TopSpeed, None, "210").unwrap();
        let written = Needs::of(&car, &fitted);
        assert_eq!((written.load_kg, written.wheel_load_kg), ([Some(615.0), Some(650.0)], Some(650.0)));
        assert_eq!(written.speed_kmh, Some(210.0), "the car's own top speed comes before the symbol");
    }

    #[test]
    fn the_factorys_tire_comes_before_the_fitted_one() {
        let fitted = SetupPair::square("18x8 ET40 245/45R18 100W".parse().unwrap());
        let mut car = Car::default();
        car.note(Fact::FactorySetup, Some(Axle::Front), "17x7.5 ET40 205/55R17 91V").unwrap();
        // ISO 4000-1: 91 is 615 kg, 100 is 800 kg.
        assert_eq!(Needs::of(&car, &fitted).load_kg, [Some(615.0), Some(800.0)]);
        let which = |axle| Reference::of(&car, &fitted, axle).unwrap().which;
        assert_eq!((which(Axle::Front), which(Axle::Rear)), ("factory", "fitted"));
    }
}
