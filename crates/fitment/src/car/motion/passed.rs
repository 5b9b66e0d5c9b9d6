//! Where no part stands, since the fitted wheel passes there.

use super::pose::IntoWheel;
use super::{Carried, Kinematics, Place, Pose, Reach};
use crate::car::section::Outline;

/// The fitted wheel turned from lock to lock at static height: a car drives so, and nothing of it is in the way.
#[derive(Debug)]
pub struct Passing<'a> {
    outline: &'a Outline,
    center_y: f64,
    poses: Vec<IntoWheel>,
}

/// From lock to lock in so many steps.
const STEPS: u32 = 16;
/// An edge is followed in steps of this, in millimetres.
const STEP_MM: f64 = 3.0;

impl<'a> Passing<'a> {
    /// Of a wheel that stands at `center_y` and reaches so far.
    pub fn of(kinematics: &Kinematics, outline: &'a Outline, center_y: f64, reach: Reach) -> Self {
        let whole = reach.inward_deg + reach.outward_deg;
        let steers = (0..=STEPS).map(|at| whole * f64::from(at) / f64::from(STEPS) - reach.inward_deg);
        let poses =
            steers.map(|steer_deg| kinematics.inverse(Pose { steer_deg, travel_mm: 0.0 }, Carried::Body));
        Self { outline, center_y, poses: poses.collect() }
    }

    /// Whether the wheel passes a place of the body.
    pub fn passes(&self, place: Place) -> bool {
        self.poses.iter().any(|pose| {
            let (y, r) = pose.axial_and_radius(place);
            self.outline.is_inside(y - self.center_y, r)
        })
    }

    /// The least room that the wheel leaves a place of the body on its way; negative where it passes there.
    pub fn room(&self, place: Place) -> f64 {
        self.poses.iter().fold(f64::INFINITY, |least, pose| {
            let (y, r) = pose.axial_and_radius(place);
            self.outline.nearer_than(y - self.center_y, r, least).unwrap_or(least)
        })
    }

    /// How far one can go on from a place along a unit vector, one way (as a negative figure) and the other, and at most so far,
    /// before the wheel leaves less than `room_mm` on its way.
    pub fn leaves_room(&self, place: Place, along: Place, room_mm: f64, most_mm: f64) -> (f64, f64) {
        /// Nearer than this to the end one goes on no further.
        const NEAR_MM: f64 = 0.5;
        let one_way = |sign: f64| {
            let at = |off: f64| [0, 1, 2].map(|axis| place[axis] + sign * off * along[axis]);
            let mut off = 0.0;
            while off < most_mm {
                // A distance changes by no more than one goes.
                let more = self.room(at(off)) - room_mm;
                if more < NEAR_MM {
                    break;
                }
                off += more;
            }
            sign * off.min(most_mm)
        };
        (one_way(-1.0), one_way(1.0))
    }

    /// How far an edge across the car can go on from a place to either side, inboard (as a negative figure) and outboard, and
    /// at most so far.
    pub fn leaves_free(&self, [x, y, z]: Place, most_mm: f64) -> (f64, f64) {
        let along = |sign: f64| {
            let steps = (1..=(most_mm / STEP_MM) as u32).map(|at| f64::from(at) * STEP_MM);
            sign * steps.take_while(|off| !self.passes([x, y + sign * off, z])).last().unwrap_or(0.0)
        };
        (along(-1.0), along(1.0))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::motion::{STRUT, SteeringAxis};

    #[test]
    fn an_edge_behind_ends_where_the_turning_tire_passes() {
        let outline = Outline::of(&"18x8 ET45 225/45R18".parse().unwrap()).unwrap();
        let axis = Some(SteeringAxis::of(&STRUT, -45.0, 315.0));
        let kinematics = Kinematics { axis, camber_deg: 0.0, camber_gain_deg_per_mm: 0.0 };
        let reach = Reach { outward_deg: 38.0, inward_deg: 31.0, bump_mm: 80.0, droop_mm: 90.0 };
        let passing = Passing::of(&kinematics, &outline, -45.0, reach);
        // The rearmost place of the tire at full outward lock: its outboard shoulder.
        let [x, y, z] = kinematics.placed(Pose { steer_deg: 38.0, travel_mm: 0.0 }, [-325.0, 35.0, 0.0]);
        let behind = [x - 8.0, y, z];
        assert!(!passing.passes(behind), "{behind:?}");
        // On the way back to straight the shoulder swings outboard and further back than at lock: 325·cos 19° + 80·sin 19°
        // lie behind 325·cos 38° + 80·sin 38° by some 19 mm.
        let (inboard, outboard) = passing.leaves_free(behind, 60.0);
        assert_eq!(inboard, -60.0);
        assert!((3.0..48.0).contains(&outboard), "{outboard}");
        assert!(passing.passes([behind[0], behind[1] + outboard + 3.0, behind[2]]));
        // Far enough behind, nothing passes.
        assert_eq!(passing.leaves_free([x - 60.0, y, z], 60.0), (-60.0, 60.0));
    }
}
