//! The least room to parts of the car over every pose that a use reaches.

use super::cloud::{Cloud, CloudMap, Swept};
use super::given_up::Given;
use super::sweep::{Cell, CloudAnswer, FURTHEST_FROM_AXIS_MM, GRID, Sweep, SweepAnswer};
use super::{Carried, Pose};
use crate::values::verdict::Verdict;

/// Steps at which the local search stops: smaller ones move no point of a wheel by [`REFINED_MM`].
const FINEST: Pose = Pose { steer_deg: 0.003, travel_mm: 0.01 };
/// Cells from which the local search starts.
const STARTS: usize = 6;

impl Sweep<'_> {
    /// The poses of the grid that the use reaches: its bounds are on it. The first is at rest.
    pub fn poses(&self) -> Vec<Pose> {
        self.poses_of(GRID)
    }

    fn poses_of(&self, (steers, travels): (usize, usize)) -> Vec<Pose> {
        let (down, up) = self.reach.travel(self.envelope);
        let mut poses = vec![Pose::AT_REST];
        for travel_mm in between(down, up, travels) {
            let (inward, outward) = self.reach.steer(self.envelope, travel_mm);
            poses.extend(between(inward, outward, steers).map(|steer_deg| Pose { steer_deg, travel_mm }));
        }
        poses
    }

    /// Room to a part in one pose, in millimetres; infinite for a part without a place.
    pub fn room(&self, cloud: &Cloud, pose: Pose) -> f64 {
        self.kinematics.room(self.field.outline(), self.center_y, cloud, pose)
    }

    /// The least room to a part, and where that is; `None` for a part without a place.
    pub fn least(&self, cloud: &Cloud) -> Option<Cell> {
        self.least_from(cloud, GRID)
    }

    /// The same from every second pose of the grid in either direction: as near as the search goes from there.
    pub fn least_at_a_glance(&self, cloud: &Cloud) -> Option<Cell> {
        self.least_from(cloud, (GRID.0.div_ceil(2), GRID.1.div_ceil(2)))
    }

    fn least_from(&self, cloud: &Cloud, grid: (usize, usize)) -> Option<Cell> {
        if cloud.points.is_empty() {
            return None;
        }
        let swept = Swept::of(self, cloud);
        if cloud.carried == Carried::SteeredUpright {
            return Some(Cell { pose: Pose::AT_REST, room_mm: swept.room_at(Pose::AT_REST) });
        }
        let low = swept.lowest(&self.poses_of(grid), self.half_a_cell());
        Some(self.refined(&low, Given::default(), |pose| swept.room_nearby(pose)))
    }

    /// The same with the room in each of the poses of the grid; none for what is carried along, which keeps its gap.
    fn least_among(&self, cloud: &Cloud, poses: &[Pose]) -> Option<(Cell, Vec<Cell>)> {
        if cloud.points.is_empty() {
            return None;
        }
        let swept = Swept::of(self, cloud);
        if cloud.carried == Carried::SteeredUpright {
            let room_mm = swept.room_at(Pose::AT_REST);
            return Some((Cell { pose: Pose::AT_REST, room_mm }, Vec::new()));
        }
        let map = swept.map(poses);
        let least = self.refined(&map, Given::default(), |pose| swept.room_nearby(pose));
        Some((least, map))
    }

    /// Sweeps past one part; `None` where it has no place.
    pub fn past(&self, cloud: &Cloud) -> Option<CloudAnswer> {
        Some(CloudMap::of(self, cloud)?.told(self.envelope))
    }

    /// What is told of a part whose least room is known.
    pub(super) fn told(&self, swept: &Swept<'_>, least: Cell, at_rest_mm: f64) -> CloudAnswer {
        let (inward, outward) = self.reach.steer(self.envelope, 0.0);
        let (down, up) = self.reach.travel(self.envelope);
        let steered = |far| swept.touches_from(far, |steer_deg| Pose { steer_deg, travel_mm: 0.0 });
        let travelled = |far| swept.touches_from(far, |travel_mm| Pose { steer_deg: 0.0, travel_mm });
        // What touches nowhere touches on neither way.
        let touches = least.room_mm <= 0.0;
        CloudAnswer {
            at_rest_mm,
            least_mm: least.room_mm,
            at: least.pose,
            touches_from_steer_deg: if touches { smaller(steered(inward), steered(outward)) } else { None },
            touches_from_travel_mm: if touches { smaller(travelled(up), travelled(down)) } else { None },
        }
    }

    /// Sweeps past all parts, and asks what of lock or bump must be given up for them together.
    pub fn over(&self, clouds: &[Cloud]) -> SweepAnswer {
        let poses = self.poses();
        let mut all: Vec<Cell> =
            poses.iter().map(|pose| Cell { pose: *pose, room_mm: f64::INFINITY }).collect();
        let parts: Vec<Option<CloudAnswer>> = clouds
            .iter()
            .map(|cloud| {
                let (least, map) = self.least_among(cloud, &poses)?;
                for (cell, own) in all.iter_mut().zip(&map) {
                    cell.room_mm = cell.room_mm.min(own.room_mm);
                }
                let at_rest_mm = map.first().map_or(least.room_mm, |cell| cell.room_mm);
                Some(self.told(&Swept::of(self, cloud), least, at_rest_mm))
            })
            .collect();
        let with_places = clouds.iter().filter(|cloud| !cloud.points.is_empty());
        let moving: Vec<Swept<'_>> = with_places
            .filter(|cloud| cloud.carried != Carried::SteeredUpright)
            .map(|cloud| Swept::of(self, cloud))
            .collect();
        let least = parts.iter().flatten().map(|part| part.least_mm).fold(f64::INFINITY, f64::min);
        let verdict = if least == f64::INFINITY {
            Verdict::MeasureFirst
        } else if least <= 0.0 {
            Verdict::Touches
        } else if least < self.least_mm {
            Verdict::Tight
        } else {
            Verdict::Clears
        };
        // What never moves is not helped by giving up steer or travel.
        let is_helped = parts
            .iter()
            .zip(clouds)
            .filter(|(_, cloud)| cloud.carried == Carried::SteeredUpright)
            .all(|(part, _)| part.is_none_or(|part| part.least_mm >= self.least_mm));
        let limits = (least < self.least_mm && is_helped).then(|| {
            let room =
                |pose| moving.iter().map(|swept| swept.room_nearby(pose)).fold(f64::INFINITY, f64::min);
            (self.limiter(&all, &room), self.bump_stop(&all, &room))
        });
        let (steering_limiter_deg, bump_stop_mm) = limits.unwrap_or((None, None));
        SweepAnswer { parts, verdict, steering_limiter_deg, bump_stop_mm }
    }

    /// The nearest pose that the use reaches, with what of lock and bump is given up.
    pub(super) fn nearest(&self, given: Given, pose: Pose) -> Pose {
        let reached = self.reach.nearest(self.envelope, pose);
        let bump = (self.reach.bump_mm - given.bump_mm).max(0.0);
        let lock = |lock: f64| (lock - given.lock_deg).max(0.0);
        Pose {
            steer_deg: reached.steer_deg.clamp(-lock(self.reach.inward_deg), lock(self.reach.outward_deg)),
            travel_mm: reached.travel_mm.min(bump),
        }
    }

    /// The least room near the lowest cells of a map: from each of them downhill, in ever smaller steps.
    pub(super) fn refined(&self, map: &[Cell], given: Given, room: impl Fn(Pose) -> f64) -> Cell {
        let mut order: Vec<&Cell> =
            map.iter().filter(|cell| is_same(self.nearest(given, cell.pose), cell.pose)).collect();
        order.sort_by(|a, b| a.room_mm.total_cmp(&b.room_mm));
        let first = self.spacing();
        let is_near = |a: Pose, b: Pose| {
            (a.steer_deg - b.steer_deg).abs() < 2.5 * first.steer_deg + 1e-9
                && (a.travel_mm - b.travel_mm).abs() < 2.5 * first.travel_mm + 1e-9
        };
        let mut starts: Vec<Cell> = Vec::new();
        for cell in order {
            if starts.iter().all(|other| !is_near(other.pose, cell.pose)) {
                starts.push(*cell);
            }
            if starts.len() == STARTS {
                break;
            }
        }
        let half_a_cell = self.half_a_cell();
        let mut best = Cell { pose: self.nearest(given, Pose::AT_REST), room_mm: f64::INFINITY };
        for start in starts {
            // Every pose is within half a cell of one of the grid, and no place of the wheel goes further than this meanwhile.
            if start.room_mm > best.room_mm + half_a_cell {
                continue;
            }
            let found = self.downhill(start, first, given, &room);
            if found.room_mm < best.room_mm {
                best = found;
            }
        }
        best
    }

    /// How far apart the poses of the grid are.
    fn spacing(&self) -> Pose {
        let (down, up) = self.reach.travel(self.envelope);
        Pose {
            steer_deg: (self.reach.outward_deg + self.reach.inward_deg) / (GRID.0 - 1) as f64,
            travel_mm: (up - down) / (GRID.1 - 1) as f64,
        }
    }

    /// How far a place of the wheel goes at most from a pose of the grid to any pose that is nearer to it than to the others, in
    /// millimetres: what stands further over the least of the grid leads to nothing nearer.
    fn half_a_cell(&self) -> f64 {
        let first = self.spacing();
        (first.steer_deg.to_radians() * FURTHEST_FROM_AXIS_MM + first.travel_mm.abs()) / 2.0
    }

    /// The least of a room near a pose of the grid, within what the use reaches.
    pub fn downhill_from(&self, start: Cell, room: impl Fn(Pose) -> f64) -> Cell {
        self.downhill(start, self.spacing(), Given::default(), room)
    }

    fn downhill(&self, start: Cell, first: Pose, given: Given, room: impl Fn(Pose) -> f64) -> Cell {
        let mut best = start;
        let mut step = first;
        while step.steer_deg > FINEST.steer_deg || step.travel_mm > FINEST.travel_mm {
            let mut moved = false;
            for (steer, travel) in [
                (1.0, 0.0),
                (-1.0, 0.0),
                (0.0, 1.0),
                (0.0, -1.0),
                (1.0, 1.0),
                (1.0, -1.0),
                (-1.0, 1.0),
                (-1.0, -1.0),
            ] {
                let there = Pose {
                    steer_deg: best.pose.steer_deg + steer * step.steer_deg,
                    travel_mm: best.pose.travel_mm + travel * step.travel_mm,
                };
                let pose = self.nearest(given, there);
                if pose == best.pose {
                    continue;
                }
                let room_mm = room(pose);
                if room_mm < best.room_mm {
                    best = Cell { pose, room_mm };
                    moved = true;
                }
            }
            if !moved {
                step = Pose { steer_deg: step.steer_deg / 3.0, travel_mm: step.travel_mm / 3.0 };
            }
        }
        best
    }

    /// The cells of a map that the use reaches, and the poses where its bounds cut the grid.
    pub(super) fn cut(&self, given: Given, all: &[Cell]) -> (Vec<Cell>, Vec<Pose>) {
        let (left, cut): (Vec<Cell>, Vec<Cell>) =
            all.iter().partition(|cell| is_same(self.nearest(given, cell.pose), cell.pose));
        let mut edge: Vec<Pose> = cut.iter().map(|cell| self.nearest(given, cell.pose)).collect();
        edge.sort_by(|a, b| a.travel_mm.total_cmp(&b.travel_mm).then(a.steer_deg.total_cmp(&b.steer_deg)));
        edge.dedup_by(|a, b| is_same(*a, *b));
        (left, edge)
    }
}

/// So many figures from `least` to `most`, as even as it goes with nought among them where it lies between: a map must show
/// how the car stands.
fn between(least: f64, most: f64, count: usize) -> impl Iterator<Item = f64> {
    let steps = if most > least { count - 1 } else { 0 };
    let below = match (-least / (most - least) * steps as f64).round() {
        share if least < 0.0 && most > 0.0 => (share as usize).clamp(1, steps - 1),
        _ => 0,
    };
    let turn = if below > 0 { 0.0 } else { least };
    (0..=steps).map(move |at| match at {
        at if at < below => least * (1.0 - at as f64 / below as f64),
        at if at == below => turn,
        at => turn + (most - turn) * (at - below) as f64 / (steps - below) as f64,
    })
}

/// Whether two poses are one but for the last figure's rounding.
pub(super) fn is_same(a: Pose, b: Pose) -> bool {
    (a.steer_deg - b.steer_deg).abs() < 1e-9 && (a.travel_mm - b.travel_mm).abs() < 1e-9
}

/// The one that is smaller in size.
fn smaller(a: Option<f64>, b: Option<f64>) -> Option<f64> {
    match (a, b) {
        (Some(a), Some(b)) => Some(if b.abs() < a.abs() { b } else { a }),
        (a, b) => a.or(b),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::motion::Place;
    use crate::car::motion::{DistanceField, Envelope, Kinematics, Reach};
    use crate::car::motion::{STRUT, SteeringAxis, SuspensionKind};
    use crate::car::section::Outline;
    use crate::setup::Setup;

    #[test]
    fn a_grid_has_its_ends_and_how_the_car_stands() {
        for (least, most) in [(-31.0, 37.0), (-1.0, 85.0), (-80.0, 0.4), (0.0, 10.0), (-9.0, 0.0)] {
            let all: Vec<f64> = between(least, most, 31).collect();
            assert_eq!((all.len(), all[0], all[30]), (31, least, most));
            assert!(all.contains(&0.0) && all.is_sorted(), "{all:?}");
            let widest = all.windows(2).map(|two| two[1] - two[0]).fold(0.0, f64::max);
            assert!(widest < 1.1 * (most - least) / 30.0, "as even as it goes: {all:?}");
        }
        assert_eq!(between(0.0, 0.0, 41).collect::<Vec<_>>(), [0.0]);
    }

    fn swept(line: &str, envelope: Envelope, with: impl FnOnce(&Sweep<'_>)) {
        let setup: Setup = line.parse().unwrap();
        let outline = Outline::of(&setup).unwrap();
        let center_y = -setup.effective_offset().unwrap().as_mm();
        let axis = SteeringAxis::of(&STRUT, -45.0, 305.0);
        let kinematics = Kinematics { axis: Some(axis), camber_deg: -1.0, camber_gain_deg_per_mm: -0.02 };
        let reach = SuspensionKind::Strut.reach(true);
        let field = DistanceField::of(&outline);
        with(&Sweep { field: &field, center_y, kinematics, reach, envelope, least_mm: 5.0 });
    }

    fn one(carried: Carried, point: Place) -> Vec<Cloud> {
        vec![Cloud::new(carried, vec![point])]
    }

    #[test]
    fn at_rest_it_is_the_standing_room() {
        swept("18x8 ET45 225/40R18", Envelope::All, |sweep| {
            for point in [[380.0, 20.0, 60.0], [0.0, -190.0, 250.0], [-100.0, 90.0, 330.0]] {
                let clouds = one(Carried::Body, point);
                let found = sweep.over(&clouds).parts[0].unwrap();
                let (sin, cos) = 1f64.to_radians().sin_cos();
                // Leaned by −1°, a place goes back into the wheel by +1° about the hub face.
                let (y, z) = (point[1] * cos + point[2] * sin, point[2] * cos - point[1] * sin);
                let by_hand = sweep.field.outline().signed_distance(y - sweep.center_y, point[0].hypot(z));
                assert!((found.at_rest_mm - by_hand).abs() < 0.01, "{point:?}");
                assert!(found.least_mm <= found.at_rest_mm);
                assert!((sweep.room(&clouds[0], found.at) - found.least_mm).abs() < 1e-9);
            }
        });
    }

    #[test]
    fn what_steers_and_travels_along_keeps_its_gap() {
        swept("18x8 ET45 225/40R18", Envelope::All, |sweep| {
            let clouds = one(Carried::SteeredUpright, [10.0, -175.0, 260.0]);
            let found = sweep.over(&clouds).parts[0].unwrap();
            assert_eq!((found.at_rest_mm, found.at), (found.least_mm, Pose::AT_REST));
            for pose in sweep.poses() {
                assert!((sweep.room(&clouds[0], pose) - found.at_rest_mm).abs() < 1e-12);
            }
        });
    }

    #[test]
    fn travel_alone_moves_a_part_above_by_as_much() {
        let setup: Setup = "18x8 ET45 225/40R18".parse().unwrap();
        let outline = Outline::of(&setup).unwrap();
        let field = DistanceField::of(&outline);
        let sweep = Sweep {
            field: &field,
            center_y: -45.0,
            kinematics: Kinematics::standing(0.0),
            reach: Reach { outward_deg: 0.0, inward_deg: 0.0, bump_mm: 80.0, droop_mm: 90.0 },
            envelope: Envelope::All,
            least_mm: 10.0,
        };
        let top = outline.crown();
        let answer = sweep.over(&one(Carried::Body, [0.0, -45.0, top + 60.0]));
        let found = answer.parts[0].unwrap();
        assert!((found.at_rest_mm - 60.0).abs() < 1e-9 && (found.least_mm + 20.0).abs() < 0.01, "{found:?}");
        assert!((found.touches_from_travel_mm.unwrap() - 60.0).abs() < 0.01, "{found:?}");
        assert_eq!(found.touches_from_steer_deg, None);
        assert_eq!(answer.verdict, Verdict::Touches);
        // 60 mm less the 10 the house wants: 30 of the 80 mm of bump are given up.
        assert!((answer.bump_stop_mm.unwrap() - 30.0).abs() < 0.2, "{answer:?}");
        assert_eq!(answer.steering_limiter_deg, None, "no lock is to give up");
    }

    #[test]
    fn a_limiter_keeps_the_room_and_no_more_is_given_up_than_needed() {
        swept("18x8.5 ET30 245/40R18", Envelope::Parking, |sweep| {
            // A liner ahead that is met at lock.
            let clouds: Vec<Cloud> = vec![Cloud::new(
                Carried::Body,
                (0..20).map(|at| [355.0, -160.0 + 12.0 * f64::from(at), 60.0]).collect(),
            )];
            let answer = sweep.over(&clouds);
            let given = answer.steering_limiter_deg.unwrap();
            assert!(given > 1.0 && given < 31.0, "{answer:?}");
            let least = |given: f64| {
                let reach = Reach {
                    outward_deg: sweep.reach.outward_deg - given,
                    inward_deg: sweep.reach.inward_deg - given,
                    ..sweep.reach
                };
                Sweep { reach, ..*sweep }.over(&clouds).parts[0].unwrap().least_mm
            };
            assert!(least(given) >= 5.0 - 0.06, "{}", least(given));
            assert!(least(given - 0.5) < 5.0, "{}", least(given - 0.5));
            let touches = answer.parts[0].unwrap().touches_from_steer_deg;
            let at = |steer_deg: f64| sweep.room(&clouds[0], Pose { steer_deg, travel_mm: 0.0 });
            if let Some(from) = touches {
                assert!(at(from) <= 0.0 && at(from * 0.99) > 0.0, "{from}");
            }
        });
    }

    #[test]
    fn without_a_place_nothing_is_known() {
        swept("18x8 ET45 225/40R18", Envelope::Road, |sweep| {
            let answer = sweep.over(&[Cloud::new(Carried::Body, Vec::new())]);
            assert_eq!((answer.verdict, answer.parts), (Verdict::MeasureFirst, vec![None]));
        });
    }
}
