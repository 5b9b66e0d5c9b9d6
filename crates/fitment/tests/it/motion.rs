//! The outline and the wheel in motion against libraries that know nothing of it: distances against `geo`, poses against
//! `glam`, the sweep against a dense cloud of the wheel's own surface in an R-tree (`rstar`).

use fitment::car::motion::{
    Carried, Cloud, DistanceField, Envelope, Kinematics, Place, Pose, Reach, Steering, SteeringAxis, Sweep,
};
use fitment::car::section::{Outline, rim_section, tire_section};
use fitment::{Setup, values::verdict::Verdict};
use geo::{Contains, Distance, Euclidean, LineString, Point, Polygon, Validation};
use glam::{DAffine3, DQuat, DVec3};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use rstar::RTree;

const SETUPS: [&str; 9] = [
    "18x8.5 ET35 245/40R18",
    "17x7.5 ET45 225/45R17",
    "19x10 ET25 275/30R19 5mm spacer",
    "17x10 ET20 205/40R17",
    "15x6 ET40 195/65R15",
    "16x7 ET15 31x10.50R16LT",
    "22x9 ET30 265/20R22",
    "15x3.5 ET-20 26.0/5.0-15",
    "18x8 ET40",
];

fn setup(line: &str) -> Setup {
    line.parse().unwrap()
}

fn polygon(outline: &Outline) -> Polygon {
    let ring = outline.points().iter().map(|point| (point.y, point.r)).collect::<Vec<_>>();
    Polygon::new(LineString::from(ring), Vec::new())
}

#[test]
fn every_outline_is_a_simple_ring() {
    for width in ["5", "6.5", "8", "9.5", "12"] {
        for tire in ["", " 175/65R", " 205/40R", " 245/40R", " 295/30R", " 345/25R", " 265/20R"] {
            for rim in ["15", "17", "19", "22"] {
                let tire = if tire.is_empty() { String::new() } else { format!("{tire}{rim}") };
                let line = format!("{rim}x{width} ET30{tire}");
                let outline = Outline::of(&setup(&line)).unwrap();
                let ring = polygon(&outline);
                assert!(ring.is_valid(), "{line}: {:?}", ring.validation_errors());
            }
        }
    }
    for line in SETUPS {
        assert!(polygon(&Outline::of(&setup(line)).unwrap()).is_valid(), "{line}");
    }
}

#[test]
fn the_outline_is_what_is_drawn() {
    // Every point of it stands on the drawn rim or tire, and nothing that is drawn but the spoke stands out of it.
    for line in SETUPS {
        let setup = setup(line);
        let outline = Outline::of(&setup).unwrap();
        let center = -setup.wheel.unwrap().offset.unwrap().as_mm();
        if let Some(tire) = tire_section(&setup) {
            for point in &tire.outer {
                let off = outline.signed_distance(point.y - center, point.r);
                assert!(off < 0.35, "{line}: the tire at ({}, {}) stands out by {off}", point.y, point.r);
            }
        }
        let rim = rim_section(&setup.wheel.unwrap()).unwrap();
        for point in rim.outline.iter().filter(|point| point.r > rim.bead_seat_r) {
            let off = outline.signed_distance(point.y - center, point.r);
            assert!(off < 0.35, "{line}: the rim at ({}, {}) stands out by {off}", point.y, point.r);
        }
    }
}

#[test]
fn signed_distances_agree_with_geo() {
    let rng = &mut StdRng::seed_from_u64(11);
    for line in SETUPS {
        let outline = Outline::of(&setup(line)).unwrap();
        let ring = polygon(&outline);
        for _ in 0..400 {
            let (y, r) = (rng.random_range(-260.0..260.0), rng.random_range(120.0..460.0));
            let place = Point::new(y, r);
            let edge = Euclidean.distance(ring.exterior(), &place);
            let by_geo = if ring.contains(&place) { -edge } else { edge };
            let ours = outline.signed_distance(y, r);
            assert!((ours - by_geo).abs() < 1e-9, "{line} at ({y}, {r}): {ours}, not {by_geo}");
        }
    }
}

/// A car drawn at random, its steering measured with the wheel that is on.
fn drawn(rng: &mut StdRng) -> (Steering, Kinematics, f64) {
    let steering = Steering {
        inclination_deg: rng.random_range(4.0..16.0),
        caster_deg: rng.random_range(-2.0..9.0),
        scrub_radius_mm: rng.random_range(-30.0..40.0),
        trail_mm: rng.random_range(-5.0..45.0),
        lock_outward_deg: rng.random_range(28.0..42.0),
        lock_inward_deg: rng.random_range(24.0..36.0),
    };
    let (contact_y, loaded) = (rng.random_range(-60.0..0.0), rng.random_range(270.0..380.0));
    let kinematics = Kinematics {
        axis: Some(SteeringAxis::of(&steering, contact_y, loaded)),
        camber_deg: rng.random_range(-3.0..0.5),
        camber_gain_deg_per_mm: rng.random_range(-0.03..0.0),
    };
    (steering, kinematics, loaded)
}

/// The same pose by a library's quaternions: lean, turn about the axis, lift.
fn by_glam(kinematics: &Kinematics, pose: Pose) -> DAffine3 {
    let camber = (kinematics.camber_deg + kinematics.camber_gain_deg_per_mm * pose.travel_mm).to_radians();
    // The top of a wheel with negative camber goes inward: a turn about x forward by the negative angle.
    let lean = DAffine3::from_quat(DQuat::from_axis_angle(DVec3::X, -camber));
    let axis = kinematics.axis.unwrap();
    let through = DVec3::from_array(axis.through);
    let along = DVec3::from_array(axis.along).normalize();
    let turn = DAffine3::from_translation(through)
        * DAffine3::from_quat(DQuat::from_axis_angle(along, pose.steer_deg.to_radians()))
        * DAffine3::from_translation(-through);
    DAffine3::from_translation(DVec3::new(0.0, 0.0, pose.travel_mm)) * turn * lean
}

#[test]
fn poses_agree_with_glam() {
    let rng = &mut StdRng::seed_from_u64(5);
    for _ in 0..300 {
        let (_, kinematics, _) = drawn(rng);
        let pose =
            Pose { steer_deg: rng.random_range(-36.0..42.0), travel_mm: rng.random_range(-110.0..110.0) };
        let place: Place = std::array::from_fn(|_| rng.random_range(-350.0..350.0));
        let ours = kinematics.placed(pose, place);
        let theirs = by_glam(&kinematics, pose).transform_point3(DVec3::from_array(place));
        for (a, b) in ours.into_iter().zip(theirs.to_array()) {
            assert!((a - b).abs() < 1e-9, "{pose:?} of {place:?}");
        }
    }
}

#[test]
fn the_axis_meets_the_ground_where_it_was_measured() {
    let rng = &mut StdRng::seed_from_u64(9);
    for _ in 0..100 {
        let (steering, _, _) = drawn(rng);
        let (contact_y, loaded) = (rng.random_range(-60.0..0.0), rng.random_range(270.0..380.0));
        let axis = SteeringAxis::of(&steering, contact_y, loaded);
        let (scrub, trail) = axis.scrub_and_trail(contact_y, loaded);
        assert!((scrub - steering.scrub_radius_mm).abs() < 1e-9 && (trail - steering.trail_mm).abs() < 1e-9);
        // The formulas of the trade, written out: less offset adds all, a taller tire takes Δ·tan σ back.
        let (out, taller) = (rng.random_range(-30.0..30.0), rng.random_range(-20.0..30.0));
        let (scrub, trail) = axis.scrub_and_trail(contact_y + out, loaded + taller);
        let tan = |degrees: f64| degrees.to_radians().tan();
        assert!(
            (scrub - (steering.scrub_radius_mm + out - taller * tan(steering.inclination_deg))).abs() < 1e-9
        );
        assert!((trail - (steering.trail_mm + taller * tan(steering.caster_deg))).abs() < 1e-9);
    }
}

/// The wheel's surface as places, about `spacing` apart each way.
fn surface(outline: &Outline, center_y: f64, spacing: f64) -> RTree<[f64; 3]> {
    let points = outline.points();
    let mut places = Vec::new();
    for (a, b) in points.iter().zip(points.iter().cycle().skip(1)) {
        let steps = ((b.y - a.y).hypot(b.r - a.r) / spacing).ceil().max(1.0) as usize;
        for step in 0..steps {
            let share = step as f64 / steps as f64;
            let (y, r) = (a.y + share * (b.y - a.y), a.r + share * (b.r - a.r));
            let round = (r * std::f64::consts::TAU / spacing).ceil() as usize;
            for at in 0..round {
                let angle = at as f64 / round as f64 * std::f64::consts::TAU;
                places.push([r * angle.sin(), y + center_y, r * angle.cos()]);
            }
        }
    }
    RTree::bulk_load(places)
}

#[test]
fn the_sweep_agrees_with_a_dense_cloud() {
    const SPACING: f64 = 5.0;
    let rng = &mut StdRng::seed_from_u64(20);
    for line in ["18x8.5 ET35 245/40R18", "16x7 ET15 31x10.50R16LT"] {
        let setup = setup(line);
        let outline = Outline::of(&setup).unwrap();
        let center_y = -setup.effective_offset().unwrap().as_mm();
        let tree = surface(&outline, center_y, SPACING);
        for envelope in [Envelope::All, Envelope::Road] {
            let (steering, kinematics, _) = drawn(rng);
            let reach = Reach {
                outward_deg: steering.lock_outward_deg,
                inward_deg: steering.lock_inward_deg,
                bump_mm: 70.0,
                droop_mm: 80.0,
            };
            let field = DistanceField::of(&outline);
            let sweep = Sweep { field: &field, center_y, kinematics, reach, envelope, least_mm: 5.0 };
            // A part ahead, one behind and below, one inboard and one above, none of them inside the wheel in any pose.
            let crown = outline.bounds().1.1;
            for place in [
                [crown + 110.0, 30.0, 40.0],
                [-crown - 100.0, -20.0, -120.0],
                [60.0, -330.0, 220.0],
                [0.0, 20.0, crown + 150.0],
            ] {
                let clouds = vec![Cloud::new(Carried::Body, vec![place])];
                let found = sweep.over(&clouds).parts[0].unwrap();
                let by_cloud = sweep
                    .poses()
                    .into_iter()
                    .map(|pose| {
                        let back = by_glam(&kinematics, pose).inverse();
                        let seen = back.transform_point3(DVec3::from_array(place)).to_array();
                        let nearest = tree.nearest_neighbor(&seen).unwrap();
                        DVec3::from_array(seen).distance(DVec3::from_array(*nearest))
                    })
                    .fold(f64::INFINITY, f64::min);
                // The cloud is never nearer than the surface it stands on; the grid never nearer than what was refined.
                let over = by_cloud - found.least_mm;
                assert!(found.least_mm > 0.0, "{line} {envelope:?} {place:?}: inside");
                assert!(
                    (-1e-6..SPACING).contains(&over),
                    "{line} {envelope:?} {place:?}: {by_cloud} against {}",
                    found.least_mm
                );
            }
        }
    }
}

#[test]
fn the_least_room_is_found_to_a_twentieth_of_a_millimetre() {
    // Against a grid eight times as fine round the whole reach.
    let rng = &mut StdRng::seed_from_u64(31);
    for _ in 0..12 {
        let setup = setup(SETUPS[rng.random_range(0..4)]);
        let outline = Outline::of(&setup).unwrap();
        let center_y = -setup.effective_offset().unwrap().as_mm();
        let (steering, kinematics, _) = drawn(rng);
        let reach = Reach {
            outward_deg: steering.lock_outward_deg,
            inward_deg: steering.lock_inward_deg,
            bump_mm: 60.0,
            droop_mm: 60.0,
        };
        let field = DistanceField::of(&outline);
        let sweep =
            Sweep { field: &field, center_y, kinematics, reach, envelope: Envelope::All, least_mm: 5.0 };
        let from: f64 = rng.random_range(0.0..360.0);
        let points: Vec<Place> = (0..8)
            .map(|at| {
                let angle = (from + f64::from(at)).to_radians();
                let radius = rng.random_range(355.0..430.0);
                [radius * angle.cos(), rng.random_range(-150.0..150.0), radius * angle.sin()]
            })
            .collect();
        let cloud = Cloud::new(Carried::Body, points);
        let found = sweep.over(std::slice::from_ref(&cloud)).parts[0].unwrap();
        let fine = (0..=160).flat_map(|steer| (0..=120).map(move |travel| (steer, travel)));
        let least = fine
            .map(|(steer, travel)| {
                let lock = reach.outward_deg + reach.inward_deg;
                Pose {
                    steer_deg: -reach.inward_deg + lock * f64::from(steer) / 160.0,
                    travel_mm: -60.0 + f64::from(travel),
                }
            })
            .map(|pose| sweep.room(&cloud, pose))
            .fold(f64::INFINITY, f64::min);
        assert!(found.least_mm <= least + 0.05, "{} where a fine grid has {least}", found.least_mm);
    }
}

#[test]
fn left_and_right_are_mirror_images() {
    // The frame has y outboard on both sides: the right corner, mirrored into it, is the left one. Written out in a frame
    // of the whole car with y to the left: the right wheel's y turns its sign, and so does its turn about the upward axis.
    let rng = &mut StdRng::seed_from_u64(4);
    for _ in 0..50 {
        let (_, kinematics, _) = drawn(rng);
        let pose =
            Pose { steer_deg: rng.random_range(-30.0..30.0), travel_mm: rng.random_range(-60.0..60.0) };
        let place: Place = std::array::from_fn(|_| rng.random_range(-300.0..300.0));
        let left = kinematics.placed(pose, place);
        let axis = kinematics.axis.unwrap();
        let mirrored = |[x, y, z]: Place| DVec3::new(x, -y, z);
        let camber =
            (kinematics.camber_deg + kinematics.camber_gain_deg_per_mm * pose.travel_mm).to_radians();
        let lean = DQuat::from_axis_angle(DVec3::X, camber);
        let turn = DQuat::from_axis_angle(mirrored(axis.along), -pose.steer_deg.to_radians());
        let through = mirrored(axis.through);
        let right =
            through + turn * (lean * mirrored(place) - through) + DVec3::new(0.0, 0.0, pose.travel_mm);
        assert!((right - mirrored(left)).length() < 1e-9);
    }
}

#[test]
fn a_lift_gains_at_rest_and_nothing_at_full_bump() {
    // A lift of h stands the body h higher and the stop stays where it was: h more of bump.
    let setup = setup("16x7 ET15 31x10.50R16LT");
    let outline = Outline::of(&setup).unwrap();
    let top = outline.bounds().1.1;
    let field = DistanceField::of(&outline);
    let at_full_bump = |lift: f64| {
        let sweep = Sweep {
            field: &field,
            center_y: -15.0,
            kinematics: Kinematics::standing(0.0),
            reach: Reach { outward_deg: 0.0, inward_deg: 0.0, bump_mm: 90.0 + lift, droop_mm: 60.0 },
            envelope: Envelope::All,
            least_mm: 10.0,
        };
        let arch = Cloud::new(Carried::Body, vec![[0.0, -15.0, top + 120.0 + lift]]);
        let answer = sweep.over(&[arch]);
        (answer.parts[0].unwrap().at_rest_mm, answer.parts[0].unwrap().least_mm, answer.verdict)
    };
    let (rest, least, verdict) = at_full_bump(0.0);
    let (lifted_rest, lifted_least, lifted_verdict) = at_full_bump(50.0);
    assert!((lifted_rest - rest - 50.0).abs() < 1e-9);
    assert!((lifted_least - least).abs() < 0.02);
    assert_eq!((verdict, lifted_verdict), (Verdict::Clears, Verdict::Clears));
}
