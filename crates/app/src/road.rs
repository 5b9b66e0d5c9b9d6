//! A job's plan on the road and at the track: gearing, dial, corner loads against the parts, and a club's class.

use fitment::judgement::clearance::style;
use std::cmp::Ordering;

use fitment::car::Fact;
use fitment::judgement::case::Case;
use fitment::judgement::club::{Class, Entry, JudgedClause};
use fitment::judgement::rules::dial::{IMPERIAL_SPEEDS_KMH, METRIC_SPEEDS_KMH, true_speed};
use fitment::judgement::rules::load::share_made_for;
use fitment::road::rolling::{Driveline, Gearing, equivalent_mass_kg};
use fitment::road::track::{
    CarAtLimit, CornerLoads, Position, Utilisation, corner_moment_nm, moment_tested_nm, utilisation,
};
use fitment::setup::catalogue::PickedParts;
use fitment::setup::{Axle, Setup};
use fitment::values::working::{Quantity, Source, Step};
use fitment::{Length, car::motion};
use store::jobs::JobContent;

/// A shown speed with the true ones: against the factory's tire, and against what the car's computer believes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shown {
    /// On the dial, in km/h.
    pub shown_kmh: f64,
    /// By the reference set.
    pub true_kmh: f64,
    /// By what the computer believes; `None` while nobody read that.
    pub by_computer_kmh: Option<f64>,
    /// By the reference set with what the dial was measured to over-read on it; `None` while nobody measured that.
    pub measured_kmh: Option<f64>,
}

/// Dial speeds of a plan, metric and imperial signs.
pub fn dial(
    reference: Length,
    planned: Length,
    believed: Option<Length>,
    over_reads_pct: Option<f64>,
) -> ([Shown; 3], [Shown; 3]) {
    let at = |speeds: [f64; 3]| {
        speeds.map(|shown_kmh| Shown {
            shown_kmh,
            true_kmh: true_speed(shown_kmh, planned / reference),
            by_computer_kmh: believed.map(|believed| true_speed(shown_kmh, planned / believed)),
            measured_kmh: over_reads_pct
                .map(|pct| true_speed(shown_kmh / (1.0 + pct / 100.0), planned / reference)),
        })
    };
    (at(METRIC_SPEEDS_KMH), at(IMPERIAL_SPEEDS_KMH))
}

/// Overall diameters of the axle the dial follows: reference and plan, as their lists measured them where they did.
pub fn diameters(case: &Case<'_>) -> Option<(Axle, Length, Length)> {
    let axle = case.speedometer_ratio().map_or(Axle::Front, |(axle, _)| axle);
    let reference = case.reference(axle)?.setup.overall_diameter()?;
    let planned = case.planned.on(axle).or(case.fitted.on(axle))?.overall_diameter()?;
    Some((axle, reference, planned))
}

/// Gearing on the reference tire and on the plan's.
pub fn gearing(driveline: &Driveline, reference: Length, planned: Length, cruise_kmh: f64) -> [Gearing; 2] {
    [reference, planned].map(|tire| Gearing::of(driveline, reference, tire, cruise_kmh))
}

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

/// What a job's car starts from.
pub fn start(content: &JobContent) -> CarStart {
    let car = &content.measurements.car;
    let body = car.words(Fact::Body, None).unwrap_or_default().to_lowercase();
    let height = [("roadster", 0.43), ("coup", 0.48), ("crossover", 0.66)];
    let height = height.into_iter().find(|(name, _)| body.contains(name)).map_or(0.53, |(_, height)| height);
    CarStart {
        mass_kg: car.number(Fact::KerbMass, None).map(|kg| kg + DRIVER_KG),
        front_share: car.number(Fact::FrontShare, None).map(|pct| pct / 100.0),
        cg_height_m: height,
        roll_share_front: USUAL_ROLL_SHARE,
    }
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
        let radius = Length::from_mm(motion::axis::loaded_radius(setup.overall_diameter()?))?;
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

/// What four wheels with their tires come to, in kilograms.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RollingMass {
    /// The wheels alone.
    pub wheels_kg: f64,
    /// The tires alone.
    pub tires_kg: f64,
    /// What the engine feels of both: the mass, and what turning it is worth.
    pub to_accelerate_kg: f64,
}

/// A wheel and a tire on the scale, in kilograms.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weighed {
    /// The wheel alone.
    pub wheel_kg: f64,
    /// The tire alone.
    pub tire_kg: f64,
}

/// Of a set, by the scale, else by the weights in the rows it is picked from; `None` while one of them is not listed.
pub fn rolling_mass(case: &Case<'_>, weighed: Option<Weighed>) -> Option<RollingMass> {
    let parts = &case.state.parts;
    let mut sum = RollingMass { wheels_kg: 0.0, tires_kg: 0.0, to_accelerate_kg: 0.0 };
    for axle in Axle::BOTH {
        let setup = case.planned.on(axle)?;
        let listed = || {
            let (wheel, tire) = (parts.wheel_of(setup)?, parts.tire_of(setup)?);
            Some(Weighed { wheel_kg: wheel.mass_kg?, tire_kg: tire.mass_kg? })
        };
        let Weighed { wheel_kg, tire_kg } = weighed.or_else(listed)?;
        let (overall, rim) = (setup.overall_diameter()?, setup.wheel?.diameter.everyday());
        sum.wheels_kg += 2.0 * wheel_kg;
        sum.tires_kg += 2.0 * tire_kg;
        sum.to_accelerate_kg += 2.0 * equivalent_mass_kg(wheel_kg, tire_kg, overall, rim);
    }
    Some(sum)
}

/// A class over a plan: what the picked rows and the fender line say of it counts.
pub fn classed(class: &Class, case: &Case<'_>) -> Vec<JudgedClause> {
    let parts = &case.state.parts;
    let of = |axle: Axle| case.planned.on(axle);
    let entry = Entry {
        factory: case.reference_pair(),
        planned: case.planned,
        treadwear: Axle::BOTH.map(|axle| parts.tire_of(of(axle)?)?.treadwear),
        tires: Axle::BOTH.map(|axle| Some(&*parts.tire_of(of(axle)?)?.line)),
        make: Axle::BOTH.map(|axle| parts.wheel_of(of(axle)?)?.make),
        beyond_fender_mm: Axle::BOTH.map(|axle| Some(style(&case.axle(axle)?, of(axle)?)?.beyond().as_mm())),
    };
    class.judge(&entry)
}
