//! The cases at the track that a set is held against: a steady corner, braking into it, and a kerb on the way.

use std::cmp::Ordering;

use super::{
    CarAtLimit, CornerLoads, Position, Utilisation, corner_moment_nm, moment_tested_nm, utilisation,
};
use crate::car::motion::axis::loaded_radius;
use crate::judgement::case::Case;
use crate::judgement::rules::load::share_made_for;
use crate::setup::catalogue::PickedParts;
use crate::setup::{Axle, Setup};
use crate::values::length::Length;
use crate::values::working::{Quantity, Source, Step};

/// A wheel in a corner case against what it is made for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WheelAtLimit {
    /// Which.
    pub position: Position,
    /// What it carries.
    pub load_kg: f64,
    /// Its rating; `None` while the row that was picked does not say it.
    pub rating_kg: Option<f64>,
    /// What the tire's index carries at the case's speed; 0 above its symbol's.
    pub tire_kg: Option<f64>,
    /// Whether it carries more than the tire's index or the wheel's rating says for the road.
    pub is_over: bool,
    /// Share of the moment of the wheel's own fatigue test.
    pub tested_share: Option<f64>,
    /// How that stands.
    pub utilisation: Option<Utilisation>,
}

/// A case at the track.
#[derive(Debug, Clone, PartialEq)]
pub struct TrackCase {
    /// Its code.
    pub code: &'static str,
    /// In words.
    pub name: &'static str,
    /// What each wheel carries.
    pub loads: CornerLoads,
    /// How they come about.
    pub working: Vec<Step>,
    /// Each against its parts.
    pub wheels: Vec<WheelAtLimit>,
}

/// A kerb adds so much to the loaded wheel. Estimate.
const KERB: f64 = 1.5;

/// Steady corner, braking into it (on the friction ellipse), and a kerb on the way.
///
/// # Units
/// `braking_g` in g; `speed_kmh` is the corner's, `None` where nobody said it: tires then carry what their index says.
///
/// # Source
/// The ellipse and statics from memory; what a kerb adds is an estimate.
pub fn track_cases(
    car: &CarAtLimit,
    braking_g: f64,
    speed_kmh: Option<f64>,
    on: &Case<'_>,
) -> Vec<TrackCase> {
    // On the ellipse seven tenths of each go together: 0.7² + 0.7² ≈ 1.
    let share = std::f64::consts::FRAC_1_SQRT_2;
    let combined = CarAtLimit { lateral_g: car.lateral_g * share, longitudinal_g: braking_g * share, ..*car };
    [
        ("corner", "steady corner", *car, 1.0),
        ("braking", "braking into the corner", combined, 1.0),
        ("kerb", "kerb in the corner", *car, KERB),
    ]
    .into_iter()
    .map(|(code, name, case, kerb)| {
        let loads = case.loads();
        let most = loads.loads_kg.iter().copied().fold(0.0, f64::max);
        let wheels = Position::ALL
            .into_iter()
            .map(|position| {
                let axle = if (position as usize) < 2 { Axle::Front } else { Axle::Rear };
                let carried = loads.loads_kg[position as usize];
                // The kerb is met by the wheel that carries most.
                let load_kg = if carried >= most { carried * kerb } else { carried };
                at_limit(position, load_kg, case.lateral_g, speed_kmh, on.planned.on(axle), &on.state.parts)
            })
            .collect();
        let mut working = case.working();
        if kerb != 1.0 {
            working.push(Step {
                what: "the kerb, on the wheel that carries most",
                formula: "F × 1.5",
                inputs: vec![("F", Quantity::mass(most))],
                result: Quantity::mass(most * kerb),
                source: Source::estimate("a kerb adds half to the loaded wheel"),
            });
        }
        TrackCase { code, name, working, loads, wheels }
    })
    .collect()
}

fn at_limit(
    position: Position,
    load_kg: f64,
    side_g: f64,
    speed_kmh: Option<f64>,
    setup: Option<&Setup>,
    parts: &PickedParts,
) -> WheelAtLimit {
    let rating_kg = setup.and_then(|setup| parts.wheel_of(setup)?.load_kg);
    let tire_kg = setup.and_then(|setup| {
        let service = setup.tire?.service?;
        let share = speed_kmh.map_or(Some(1.0), |kmh| share_made_for(service.speed, kmh));
        Some(service.single.capacity_kg() * share.unwrap_or(0.0))
    });
    let tested_share = setup.zip(rating_kg).and_then(|(setup, rating)| {
        let radius = Length::from_mm(loaded_radius(setup.overall_diameter()?))?;
        let offset = Length::from_mm(setup.effective_offset()?.as_mm())?;
        Some(corner_moment_nm(load_kg, side_g, radius, offset) / moment_tested_nm(rating, radius, offset))
    });
    let is_over = [rating_kg, tire_kg].into_iter().flatten().any(|most| load_kg > most);
    WheelAtLimit {
        position,
        load_kg,
        rating_kg,
        tire_kg,
        is_over,
        tested_share,
        utilisation: tested_share.map(utilisation),
    }
}

impl TrackCase {
    /// The wheel that stands worst: over what its parts are made for, then not known, then nearest to its test.
    pub fn worst(&self) -> Option<&WheelAtLimit> {
        let rank = |one: &WheelAtLimit| {
            let is_known = one.tested_share.is_some() && one.tire_kg.is_some();
            (one.is_over, !is_known, one.tested_share.unwrap_or(0.0), one.load_kg)
        };
        self.wheels.iter().max_by(|one, other| rank(one).partial_cmp(&rank(other)).unwrap_or(Ordering::Equal))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::limits::HouseLimits;
    use crate::setup::SetupPair;

    /// A saloon of 1 500 kg, half of it in front, with a centre of gravity at half a metre on a track of 1.5 m.
    fn car() -> CarAtLimit {
        CarAtLimit {
            mass_kg: 1500.0,
            front_share: 0.5,
            cg_height_m: 0.5,
            wheelbase_m: 2.5,
            track_front_m: 1.5,
            track_rear_m: 1.5,
            roll_share_front: 0.5,
            lateral_g: 0.9,
            longitudinal_g: 0.0,
            downforce_kg: 0.0,
            downforce_front_share: 0.5,
        }
    }

    fn asked(speed_kmh: Option<f64>) -> Vec<TrackCase> {
        let square = SetupPair::square("17x7.5 ET45 225/45R17 91W".parse().unwrap());
        let limits = HouseLimits::DEFAULT;
        track_cases(&car(), 1.0, speed_kmh, &Case::new(&square, &square, None, &limits, None))
    }

    #[test]
    fn the_steady_corner_is_statics_worked_by_hand() {
        // Load transfer: 1 500 kg × 0.9 g × 0.5 m / 1.5 m = 450 kg over both axles, 225 on each: 375 + 225 and 375 − 225.
        let [corner, ..] = &asked(None)[..] else { panic!("no case") };
        let mut loads: Vec<f64> = corner.wheels.iter().map(|wheel| wheel.load_kg).collect();
        loads.sort_by(f64::total_cmp);
        for (load, by_hand) in loads.into_iter().zip([150.0, 150.0, 600.0, 600.0]) {
            assert!((load - by_hand).abs() < 1e-9, "{load} for {by_hand}");
        }
    }

    #[test]
    fn braking_into_the_corner_takes_seven_tenths_of_both() {
        // On the ellipse: 0.707 × 0.9 g sideways moves 318.2 kg, 0.707 × 1.0 g lengthways 1 500 × 0.707 × 0.5 / 2.5 = 212.1 kg.
        let braking = &asked(None)[1];
        let most = braking.wheels.iter().map(|wheel| wheel.load_kg).fold(0.0, f64::max);
        let by_hand = 375.0 + 318.2 / 2.0 + 212.13 / 2.0;
        assert!((most - by_hand).abs() < 0.1, "{most} for {by_hand}");
    }

    #[test]
    fn a_kerb_adds_half_to_the_loaded_wheels_alone() {
        let [corner, _, kerb] = &asked(None)[..] else { panic!("three cases") };
        for (plain, over) in corner.wheels.iter().zip(&kerb.wheels) {
            let factor = if plain.load_kg > 500.0 { KERB } else { 1.0 };
            assert!((over.load_kg - plain.load_kg * factor).abs() < 1e-9);
        }
        // Index 91 carries 615 kg: enough in the corner, not on the kerb.
        assert!(!corner.worst().unwrap().is_over && kerb.worst().unwrap().is_over);
        assert_eq!(kerb.worst().unwrap().tire_kg, Some(615.0));
    }

    #[test]
    fn a_tire_carries_nothing_above_its_symbol() {
        // W is made for 270 km/h.
        let [corner, ..] = &asked(Some(280.0))[..] else { panic!("no case") };
        assert!(corner.wheels.iter().all(|wheel| wheel.tire_kg == Some(0.0) && wheel.is_over));
    }
}
