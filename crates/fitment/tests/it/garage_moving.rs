//! The simulated garage at full lock and in motion: cars whose steering axis, locks and travel are known, parts of the body that
//! stand where they stand, read at lock with errors; then another setup. Poses are by `glam`'s rotations, the wheel is the
//! garage's own, and the least room is that of a plain grid of poses.

use std::collections::BTreeMap;

use fitment::answers::dynamic_clearance::{Stretch, Usage};
use fitment::car::corner::{Corner, Feature, Moving, Reading, Steer};
use fitment::car::lever::Levers;
use fitment::car::limits::HouseLimits;
use fitment::car::motion::{Envelope, Steering, SuspensionKind, Travel};
use fitment::judgement::case::AxleCase;
use fitment::{Axle, Length, Setup};
use glam::{DQuat, DVec3};
use rand::SeedableRng;
use rand::rngs::StdRng;

use super::garage::{Dice, Errors, HEAD, Row, Said, True, TrueTire, off, setup};

/// A car's own steering and travel.
struct TrueCar {
    through: DVec3,
    along: DVec3,
    /// Front edge outboard, and inboard.
    locks_deg: (f64, f64),
    bump_mm: f64,
    droop_mm: f64,
    camber_gain: f64,
}

impl TrueCar {
    /// By a geometry against a wheel whose contact is at `contact_y` and whose radius under load is `loaded`.
    fn of(steering: &Steering, travel: Travel, contact_y: f64, loaded: f64) -> Self {
        let tan = |deg: f64| f64::to_radians(deg).tan();
        Self {
            through: DVec3::new(steering.trail_mm, contact_y - steering.scrub_radius_mm, -loaded),
            along: DVec3::new(-tan(steering.caster_deg), -tan(steering.inclination_deg), 1.0).normalize(),
            locks_deg: (steering.lock_outward_deg, steering.lock_inward_deg),
            bump_mm: travel.bump_mm,
            droop_mm: travel.droop_mm,
            camber_gain: travel.camber_gain_deg_per_mm,
        }
    }

    /// Front edge outboard is a turn from x to y: by the right hand about an axis that points up.
    fn turn(&self, steer_deg: f64) -> DQuat {
        DQuat::from_axis_angle(self.along, steer_deg.to_radians())
    }

    /// Negative leans the top inboard: from z to −y, by the right hand about x.
    fn lean(&self, travel_mm: f64) -> DQuat {
        DQuat::from_axis_angle(DVec3::X, -(self.camber_gain * travel_mm).to_radians())
    }

    /// Where a place of the wheel goes: lean, turn, travel.
    fn placed(&self, steer_deg: f64, travel_mm: f64, place: DVec3) -> DVec3 {
        let turned = self.through + self.turn(steer_deg) * (self.lean(travel_mm) * place - self.through);
        turned + DVec3::Z * travel_mm
    }

    /// … and back.
    fn on_the_wheel(&self, steer_deg: f64, travel_mm: f64, place: DVec3) -> DVec3 {
        let turned = place - DVec3::Z * travel_mm - self.through;
        self.lean(travel_mm).inverse() * (self.through + self.turn(steer_deg).inverse() * turned)
    }

    /// Steered to a lock, for the wheel on the left.
    fn lock(&self, steer: Steer) -> f64 {
        if steer == Steer::LockLeft { self.locks_deg.0 } else { -self.locks_deg.1 }
    }

    /// The least room of a wheel to a part in one pose.
    fn room(&self, wheel: &Profile, part: &[DVec3], steer_deg: f64, travel_mm: f64) -> f64 {
        let rooms = part.iter().map(|place| {
            let place = self.on_the_wheel(steer_deg, travel_mm, *place);
            wheel.distance(place.y, place.x.hypot(place.z))
        });
        rooms.fold(f64::INFINITY, f64::min)
    }

    /// Over all that road use reaches: full lock up to 20 mm of bump, from there on falling to 8° at full bump.
    fn least_on_the_road(&self, wheel: &Profile, part: &[DVec3]) -> f64 {
        let mut least = f64::INFINITY;
        let steps = |from: f64, to: f64, count: u32| {
            (0..=count).map(move |at| from + (to - from) * f64::from(at) / f64::from(count))
        };
        for travel in steps(-self.droop_mm, self.bump_mm, 16) {
            let share = ((travel - 20.0) / (self.bump_mm - 20.0)).clamp(0.0, 1.0);
            let lock = |full: f64| full + share * (full.min(8.0) - full);
            let (outward, inward) = self.locks_deg;
            for steer in steps(-lock(inward), lock(outward), 16) {
                least = least.min(self.room(wheel, part, steer, travel));
            }
        }
        least
    }
}

/// The half of a true wheel that is above its flanges, as a closed line.
struct Profile(Vec<[f64; 2]>);

impl Profile {
    /// The garage's places are in no order: about a place low inside of the tire they go round once.
    fn of(wheel: &True) -> Self {
        let crown = wheel.edge.iter().map(|[_, r]| *r).fold(0.0, f64::max);
        let low = wheel.edge.iter().map(|[_, r]| *r).fold(f64::INFINITY, f64::min);
        let (left, right) = wheel
            .edge
            .iter()
            .fold((f64::INFINITY, f64::NEG_INFINITY), |(a, b), [y, _]| (a.min(*y), b.max(*y)));
        let middle = [f64::midpoint(left, right), low + 0.35 * (crown - low)];
        let mut edge = wheel.edge.clone();
        let angle = |[y, r]: &[f64; 2]| (r - middle[1]).atan2(y - middle[0]);
        edge.sort_by(|a, b| angle(a).total_cmp(&angle(b)));
        Self(edge)
    }

    fn crown(&self) -> f64 {
        self.0.iter().map(|[_, r]| *r).fold(0.0, f64::max)
    }

    /// Signed: negative inside.
    fn distance(&self, y: f64, r: f64) -> f64 {
        let mut least = f64::INFINITY;
        let mut is_inside = false;
        for (at, [ay, ar]) in self.0.iter().enumerate() {
            let [by, br] = self.0[(at + 1) % self.0.len()];
            let (dy, dr) = (by - ay, br - ar);
            let along = (((y - ay) * dy + (r - ar) * dr) / (dy * dy + dr * dr).max(1e-12)).clamp(0.0, 1.0);
            least = least.min((y - ay - along * dy).hypot(r - ar - along * dr));
            if (*ar > r) != (br > r) && y < ay + (r - ar) / (br - ar) * dy {
                is_inside = !is_inside;
            }
        }
        if is_inside { -least } else { least }
    }
}

/// Whether somebody put the car on turn plates and noted its travel.
#[derive(Clone, Copy, PartialEq, Debug)]
enum Known {
    Measured,
    TypicalGaps,
}

/// A strut car near the usual one, and what its record says of it.
fn car(dice: &mut Dice, known: Known, fitted: &Setup, on_the_car: &Profile) -> (TrueCar, Moving) {
    let contact = -fitted.effective_offset().unwrap().as_mm();
    let loaded = |crown: f64| crown * 0.96;
    let nominal = fitted.overall_diameter().unwrap().as_mm() / 2.0;
    let usual = SuspensionKind::Strut.steering(loaded(nominal));
    let travel = SuspensionKind::Strut.travel();
    let mut drawn = |usual: f64, plus_minus: f64| usual + off(dice, plus_minus);
    let steering = Steering {
        inclination_deg: drawn(usual.inclination_deg, 3.0),
        caster_deg: drawn(usual.caster_deg, 2.5),
        scrub_radius_mm: drawn(usual.scrub_radius_mm, 10.0),
        lock_outward_deg: drawn(usual.lock_outward_deg, 4.0),
        lock_inward_deg: drawn(usual.lock_inward_deg, 4.0),
        ..usual
    };
    let travels = Travel {
        bump_mm: drawn(travel.bump_mm, 25.0).max(25.0),
        droop_mm: drawn(travel.droop_mm, 30.0).max(0.0),
        camber_gain_deg_per_mm: drawn(travel.camber_gain_deg_per_mm, 0.01),
    };
    let truth = TrueCar::of(&steering, travels, contact, loaded(on_the_car.crown()));
    let moving = match known {
        Known::Measured => Moving {
            kind: SuspensionKind::Strut,
            steering: Some(Steering {
                inclination_deg: drawn(steering.inclination_deg, 0.5),
                caster_deg: drawn(steering.caster_deg, 0.5),
                scrub_radius_mm: drawn(steering.scrub_radius_mm, 3.0),
                lock_outward_deg: drawn(steering.lock_outward_deg, 1.0),
                lock_inward_deg: drawn(steering.lock_inward_deg, 1.0),
                ..steering
            }),
            travel: Travel {
                bump_mm: drawn(travels.bump_mm, 5.0),
                droop_mm: drawn(travels.droop_mm, 5.0),
                ..travel
            },
            camber_by: None,
            assumed: Vec::new(),
        },
        // Its kind is known, and nothing else of it.
        Known::TypicalGaps => {
            let mut record = fitment::car::Car::default();
            record.note(fitment::car::Fact::SuspensionKind, Some(Axle::Front), "strut").unwrap();
            Moving::of(&record, Axle::Front, Some(fitted))
        }
    };
    (truth, moving)
}

/// A part of the body, with the lock at which it is met.
struct PartAtLock {
    feature: Feature,
    lock: Steer,
    places: Vec<DVec3>,
}

/// Ahead an edge across the car, a little askew; behind an upright one; inboard a place. Each a drawn gap from the turned tire, and at
/// the lock at which the outer face meets it.
fn parts(dice: &mut Dice, car: &TrueCar, fitted: &Setup, crown: f64) -> Vec<PartAtLock> {
    let center = -fitted.effective_offset().unwrap().as_mm();
    let half = fitted.section_width().unwrap().as_mm() / 2.0;
    let line = |from: DVec3, along: DVec3, reach: f64| -> Vec<DVec3> {
        (-8..=8).map(|at| from + along * (reach * f64::from(at) / 8.0)).collect()
    };
    let mut all = Vec::new();
    for (feature, lock) in [
        (Feature::LinerAhead, Steer::LockRight),
        (Feature::SillBehind, Steer::LockLeft),
        (Feature::Frame, Steer::LockLeft),
    ] {
        let steer = car.lock(lock);
        let gap = dice.range(4.0..45.0);
        let (sin, cos) = off(dice, 10.0).to_radians().sin_cos();
        // Turned outward its inboard shoulder is foremost and its outboard one rearmost; turned inward the other way round.
        let shoulder =
            |out: f64| center + out * 0.9 * half * if lock == Steer::LockLeft { 1.0 } else { -1.0 };
        let (ahead, up) = (0.97 * crown * cos, 0.97 * crown * sin);
        let places = match feature {
            Feature::LinerAhead => {
                let at = car.placed(steer, 0.0, DVec3::new(ahead, shoulder(-1.0), up));
                let askew = off(dice, 8.0).to_radians();
                line(at + DVec3::X * gap, DVec3::new(askew.sin(), askew.cos(), 0.0), 110.0)
            }
            Feature::SillBehind => {
                let at = car.placed(steer, 0.0, DVec3::new(-ahead, shoulder(1.0), up));
                line(at - DVec3::X * gap, DVec3::Z, 60.0)
            }
            _ => {
                let at = car.placed(steer, 0.0, DVec3::new(-ahead, center - half, up));
                vec![at - DVec3::Y * gap]
            }
        };
        all.push(PartAtLock { feature, lock, places });
    }
    all
}

/// What is said of a part over the road.
fn said_in_motion(case: &AxleCase<'_>, planned: &Setup, feature: Feature) -> Option<Said> {
    let swept = case.sweep(planned, &Usage::from(Envelope::Road))?;
    let part = swept.part(feature)?;
    let over = part.over(Stretch::Together)?;
    let (down, up): (Vec<f64>, Vec<f64>) =
        over.contributions.iter().map(|one| (one.down.as_mm(), one.up.as_mm())).unzip();
    let likely = |all: &[f64]| all.iter().map(|one| one * one).sum::<f64>().sqrt();
    let worst = |all: &[f64]| all.iter().sum::<f64>();
    let between = |of: &dyn Fn(&[f64]) -> f64| (over.room_mm - of(&down), over.room_mm + of(&up));
    Some(Said {
        verdict: over.verdict,
        likely: between(&likely),
        worst: between(&worst),
        limit: part.part.least_mm,
    })
}

fn garage(
    cars: usize,
    seed: u64,
    errors: Errors,
    known: Known,
) -> BTreeMap<(&'static str, &'static str), Row> {
    let dice = &mut Dice { rng: StdRng::seed_from_u64(seed), errors };
    let mut rows: BTreeMap<_, Row> = BTreeMap::new();
    for _ in 0..cars {
        let (fitted, planned) = (setup(dice), setup(dice));
        let worn = dice.range(0.0..5.0);
        let tire = TrueTire::of(dice, &fitted, worn);
        let new_tire = if planned.tire == fitted.tire { tire } else { TrueTire::of(dice, &planned, 0.0) };
        let on_the_car = Profile::of(&True::of(dice, &fitted, tire));
        let new = Profile::of(&True::of(dice, &planned, new_tire));
        let (car, moving) = car(dice, known, &fitted, &on_the_car);
        for part in parts(dice, &car, &fitted, on_the_car.crown()) {
            let gap = car.room(&on_the_car, &part.places, car.lock(part.lock), 0.0);
            // A car whose own wheel touches is no car.
            if gap < 1.0 || car.least_on_the_road(&on_the_car, &part.places) < 0.0 {
                continue;
            }
            let read = Length::from_mm(gap + off(dice, 2.0)).unwrap();
            let tape = Length::from_mm(2.0).unwrap();
            let reading = Reading { steer: part.lock, ..Reading::new(part.feature, read, tape, fitted) };
            let corner = Corner {
                readings: vec![reading],
                camber_deg: Some(0.0),
                moving: Some(moving.clone()),
                ..Corner::default()
            };
            let (resolved, limits, levers) = (corner.resolve(), HouseLimits::DEFAULT, Levers::default());
            let case = AxleCase::new(Axle::Front, &corner, &resolved, &fitted, &limits, &levers);
            let fit = case.fit(&planned).unwrap();
            if let Some(said) = fit.line(part.feature).and_then(Said::of) {
                let room = car.room(&new, &part.places, car.lock(part.lock), 0.0);
                rows.entry(("at lock", part.feature.code())).or_default().count(&said, room);
            }
            if let Some(said) = said_in_motion(&case, &planned, part.feature) {
                let room = car.least_on_the_road(&new, &part.places);
                rows.entry(("on the road", part.feature.code())).or_default().count(&said, room);
            }
        }
    }
    rows
}

#[test]
fn the_bands_hold_what_is_true_at_lock_and_on_the_road() {
    for known in [Known::Measured, Known::TypicalGaps] {
        for (row_of, row) in garage(40, 20_261_127, Errors::Within, known) {
            let told = format!("{row_of:?}, {known:?}: {}", row.told());
            assert!(row.cases > 25 && row.likely_holds(85.0, 100.0), "{told}");
            assert_eq!(row.clears_over_an_overlap, 0, "{told}");
        }
    }
}

#[test]
#[ignore = "prints a table of docs/measurements.md: cargo test --release -p fitment --test it garage_in_motion -- --ignored --nocapture"]
fn garage_in_motion_at_size() {
    println!("| errors | steering | where | part | {HEAD}");
    println!("|---|---|---|---|---|---|---|---|---|---|---|");
    for (law, errors) in [("normal", Errors::Normal), ("within their ±", Errors::Within)] {
        for (name, known) in [("measured", Known::Measured), ("as usual", Known::TypicalGaps)] {
            for ((place, part), row) in garage(1000, 7, errors, known) {
                println!("| {law} | {name} | {place} | {part} | {}", row.told());
            }
        }
    }
}
