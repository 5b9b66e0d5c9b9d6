//! The low cells of a grid of poses: those that a search for the least room may start from. Most poses of a grid are far from
//! being the tightest, and are passed over without being looked at.
//!
//! Between two poses no place of a part moves further past the wheel than [`Pace::between`] says, so the room in the one is at
//! least the room in the other less that way. The bound is handed on from cell to cell, along a row and from row to row, and
//! only where it falls to what is still of interest the room is worked out.

use super::cloud::{Cloud, Swept};
use super::pose::ARM_FOLLOWS;
use super::sweep::{Cell, Sweep};
use super::{Carried, Place, Pose};

/// What the bound is lowered by for the rounding of figures.
const HAIR_MM: f64 = 1e-6;

/// How far a part's places move past the wheel at most, seen from the wheel.
#[derive(Debug, Clone, Copy)]
struct Pace {
    mm_per_deg: f64,
    mm_per_mm: f64,
}

fn length([x, y, z]: Place) -> f64 {
    (x * x + y * y + z * z).sqrt()
}

impl Pace {
    fn of(sweep: &Sweep<'_>, cloud: &Cloud) -> Self {
        let (down, up) = sweep.reach.travel(sweep.envelope);
        let lift = down.abs().max(up.abs());
        let furthest =
            |of: &dyn Fn(Place) -> f64| cloud.points.iter().map(|place| of(*place)).fold(0.0, f64::max);
        // From the line, with the lift across it at its most.
        let from_axis = |[x, y, z]: Place| match sweep.kinematics.axis {
            None => 0.0,
            Some(axis) => {
                let [ax, ay, az] = axis.through;
                let off = [x - ax, y - ay, z - az];
                let [ux, uy, uz] = axis.along;
                length([off[1] * uz - off[2] * uy, off[2] * ux - off[0] * uz, off[0] * uy - off[1] * ux])
            }
        };
        let aside = sweep.kinematics.axis.map_or(0.0, |axis| lift * axis.along[0].hypot(axis.along[1]));
        // The lean that comes with travel turns everything about the origin.
        let from_origin = furthest(&length) + lift + 2.0 * from_axis([0.0; 3]);
        let leans = sweep.kinematics.camber_gain_deg_per_mm.abs().to_radians() * from_origin;
        let (follows, leans) = match cloud.carried {
            Carried::Arm => (ARM_FOLLOWS, leans),
            Carried::UnsteeredUpright => (1.0, 0.0),
            Carried::Body | Carried::SteeredUpright => (0.0, leans),
        };
        Self { mm_per_deg: (furthest(&from_axis) + aside).to_radians(), mm_per_mm: 1.0 - follows + leans }
    }

    fn between(self, a: Pose, b: Pose) -> f64 {
        self.mm_per_deg * (a.steer_deg - b.steer_deg).abs()
            + self.mm_per_mm * (a.travel_mm - b.travel_mm).abs()
    }
}

/// A pose, and what the room there is at least.
type Bound = (Pose, f64);

impl Swept<'_> {
    /// Of the poses of a grid, row by row of travel, those whose room is less than `within` over the least of all of them; others may
    /// be among them, in the order given.
    pub(super) fn lowest(&self, poses: &[Pose], within: f64) -> Vec<Cell> {
        let pace = Pace::of(self.sweep, self.cloud);
        // The first is the pose at rest, by itself.
        let (first, grid) = poses.split_at(poses.len().min(1));
        let rows: Vec<&[Pose]> = grid.chunk_by(|a, b| a.travel_mm == b.travel_mm).collect();
        let ends =
            |row: &[Pose]| [row.first().copied(), row.get(row.len() / 2).copied(), row.last().copied()];
        let outer = [rows.first(), rows.get(rows.len() / 2), rows.last()];
        let looked_at_first = outer.into_iter().flatten().flat_map(|row| ends(row)).flatten();
        let mut least = first
            .iter()
            .copied()
            .chain(looked_at_first)
            .map(|pose| self.room_at(pose))
            .fold(f64::INFINITY, f64::min);
        let mut low: Vec<Cell> = Vec::new();
        let mut look = |pose: Pose, bound: f64| {
            if bound > least + within {
                return bound;
            }
            // A hair more: a wheel that neither turns nor travels has one pose, and that is the least.
            let most = least + within + HAIR_MM;
            let room_mm = self.room_up_to(pose, most);
            if room_mm < most {
                least = least.min(room_mm);
                low.push(Cell { pose, room_mm });
            }
            room_mm
        };
        for pose in first {
            look(*pose, f64::NEG_INFINITY);
        }
        let mut above: Vec<Bound> = Vec::new();
        for row in rows {
            let mut own: Vec<Bound> = Vec::with_capacity(row.len());
            for (at, pose) in row.iter().enumerate() {
                let known = own.last().into_iter().chain(above.get(at));
                let bound = known
                    .map(|(other, room)| room - pace.between(*other, *pose) - HAIR_MM)
                    .fold(f64::NEG_INFINITY, f64::max);
                own.push((*pose, look(*pose, bound)));
            }
            above = own;
        }
        low
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::car::motion::{DistanceField, Envelope, Kinematics, Reach, STRUT, SteeringAxis};
    use crate::car::section::Outline;

    proptest! {
        /// Nothing that is low is passed over, whatever carries the part, and much of what is not low is.
        #[test]
        fn what_is_passed_over_is_not_low(
            place in [-500.0..500.0f64, -300.0..150.0, -250.0..500.0],
            along in [-120.0..120.0f64, -120.0..120.0, -120.0..120.0],
            gain in -0.06..0.02f64,
            steers in any::<bool>(),
            carried in prop::sample::select(vec![Carried::Body, Carried::Arm, Carried::UnsteeredUpright]),
            envelope in prop::sample::select(vec![Envelope::All, Envelope::Road, Envelope::Parking]),
            within in 0.0..40.0f64,
        ) {
            let outline = Outline::of(&"18x8 ET45 225/40R18".parse().unwrap()).unwrap();
            let field = DistanceField::of(&outline);
            let axis = steers.then(|| SteeringAxis::of(&STRUT, -45.0, 305.0));
            let lock = |deg: f64| if steers { deg } else { 0.0 };
            let sweep = Sweep {
                field: &field,
                center_y: -45.0,
                kinematics: Kinematics { axis, camber_deg: -1.5, camber_gain_deg_per_mm: gain },
                reach: Reach { outward_deg: lock(38.0), inward_deg: lock(31.0), bump_mm: 90.0, droop_mm: 110.0 },
                envelope,
                least_mm: 5.0,
            };
            let points = (0..6).map(|at| [0, 1, 2].map(|axis| place[axis] + along[axis] * f64::from(at) / 5.0));
            let cloud = Cloud::new(carried, points.collect());
            let swept = Swept::of(&sweep, &cloud);
            let poses = sweep.poses();
            let all = swept.map(&poses);
            let least = all.iter().map(|cell| cell.room_mm).fold(f64::INFINITY, f64::min);
            let low = swept.lowest(&poses, within);
            let expected: Vec<Cell> = all.iter().copied().filter(|cell| cell.room_mm < least + within).collect();
            let found: Vec<Cell> = low.iter().copied().filter(|cell| cell.room_mm < least + within).collect();
            prop_assert_eq!(found, expected);
        }
    }
}
