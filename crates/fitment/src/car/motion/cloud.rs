//! A part of the car as places on its surface, and how near a wheel comes to them in a pose, or in every pose.

use std::cell::RefCell;

use super::blocks::Blocks;
use super::field::DistanceField;
use super::given_up::Given;
use super::sweep::{Cell, CloudAnswer, FURTHEST_FROM_AXIS_MM, GRID, Sweep};
use super::{Carried, Envelope, IntoWheel, Kinematics, Place, Pose};
use crate::car::section::Outline;

/// A part as places on its surface, where they are at rest.
#[derive(Debug, Clone, PartialEq)]
pub struct Cloud {
    /// What carries it.
    pub carried: Carried,
    /// Its places.
    pub points: Vec<Place>,
    /// What its room is more than the distance to its places, in millimetres: where they are taken to be is not where they are to
    /// a hair, and the wheel that a part was read against has the room that was read.
    pub given_back_mm: f64,
}

impl Cloud {
    /// Places that stand just where they are.
    pub fn new(carried: Carried, points: Vec<Place>) -> Self {
        Self { carried, points, given_back_mm: 0.0 }
    }
}

/// What a part's places come to in any pose.
#[derive(Debug)]
pub(super) struct Swept<'a> {
    pub(super) sweep: &'a Sweep<'a>,
    pub(super) cloud: &'a Cloud,
    blocks: Blocks,
    /// The place that was nearest in the pose asked of last: likely near in the next one.
    near: std::cell::Cell<usize>,
    /// The places that can be nearest near a pose.
    few: RefCell<Few>,
}

/// The places of a part that can be nearest near a pose.
#[derive(Debug, Default)]
struct Few {
    from: Option<Pose>,
    /// The pose asked of last that none was near to.
    astray: Option<Pose>,
    /// The one that was nearest in the pose asked of last comes first: most of the others need not be looked at then.
    places: Vec<Place>,
}

impl<'a> Swept<'a> {
    pub(super) fn of(sweep: &'a Sweep<'a>, cloud: &'a Cloud) -> Self {
        let blocks = Blocks::of(&cloud.points);
        Self { sweep, cloud, blocks, near: std::cell::Cell::new(0), few: RefCell::default() }
    }

    /// The least room in a pose.
    pub(super) fn room_at(&self, pose: Pose) -> f64 {
        self.room_up_to(pose, f64::INFINITY)
    }

    /// The least room in a pose, or `most` where it is more than that.
    pub(super) fn room_up_to(&self, pose: Pose, most: f64) -> f64 {
        let Sweep { field, center_y, .. } = *self.sweep;
        let into = self.sweep.kinematics.inverse(pose, self.cloud.carried);
        let room = |place: &Place, limit: f64| {
            let (y, r) = into.axial_and_radius(*place);
            field.nearer_than(y - center_y, r, limit)
        };
        let most = most - self.cloud.given_back_mm;
        let places = self.blocks.places();
        let start = self.near.get();
        let mut least = places.get(start).and_then(|place| room(place, most)).unwrap_or(most);
        for block in self.blocks.blocks() {
            let (y, r) = into.axial_and_radius(block.center);
            if field.at_least(y - center_y, r) - block.radius >= least {
                continue;
            }
            for at in block.places() {
                if at == start {
                    continue;
                }
                if let Some(room) = room(&places[at], least) {
                    least = room;
                    self.near.set(at);
                }
            }
        }
        least + self.cloud.given_back_mm
    }

    /// Every pose of the grid.
    pub(super) fn map(&self, poses: &[Pose]) -> Vec<Cell> {
        poses.iter().map(|pose| Cell { pose: *pose, room_mm: self.room_at(*pose) }).collect()
    }

    /// The places that are nearer than `limit` in a pose.
    fn places_under(&self, pose: Pose, limit: f64, into_few: &mut Vec<Place>) {
        let Sweep { field, center_y, .. } = *self.sweep;
        let into = self.sweep.kinematics.inverse(pose, self.cloud.carried);
        for block in self.blocks.blocks() {
            let (y, r) = into.axial_and_radius(block.center);
            if field.at_least(y - center_y, r) - block.radius >= limit {
                continue;
            }
            let is_near = |place: &Place| {
                let (y, r) = into.axial_and_radius(*place);
                field.nearer_than(y - center_y, r, limit).is_some()
            };
            into_few.extend(self.blocks.places()[block.places()].iter().copied().filter(is_near));
        }
    }

    /// The least room in a pose that is one of many near each other: only of the places that can be nearest in any of them.
    pub(super) fn room_nearby(&self, pose: Pose) -> f64 {
        /// Within this of a pose what is known there is still of use, in millimetres that any place of the wheel goes.
        const NEARBY_MM: f64 = 6.0;
        let is_near = |from: Pose| {
            let turned = (pose.steer_deg - from.steer_deg).abs().to_radians() * FURTHEST_FROM_AXIS_MM;
            turned + (pose.travel_mm - from.travel_mm).abs() <= NEARBY_MM
        };
        let mut few = self.few.borrow_mut();
        if !few.from.is_some_and(is_near) {
            let least = self.room_at(pose);
            // Poses far from each other are asked one by one: only where the search stays are few places worth finding.
            if few.astray.replace(pose).is_some_and(is_near) {
                few.from = Some(pose);
                few.places.clear();
                let distance = least - self.cloud.given_back_mm;
                self.places_under(pose, distance + 2.0 * NEARBY_MM + 1e-6, &mut few.places);
            }
            return least;
        }
        let into = self.sweep.kinematics.inverse(pose, self.cloud.carried);
        let (mut least, mut nearest) = (f64::INFINITY, 0);
        for (at, place) in few.places.iter().enumerate() {
            let (y, r) = into.axial_and_radius(*place);
            if let Some(room) = self.sweep.field.nearer_than(y - self.sweep.center_y, r, least) {
                (least, nearest) = (room, at);
            }
        }
        if nearest > 0 {
            few.places.swap(0, nearest);
        }
        least + self.cloud.given_back_mm
    }

    /// The smallest amount along a way from rest from which on it touches; `None` when it does not as far as that goes.
    pub(super) fn touches_from(&self, far: f64, pose: impl Fn(f64) -> Pose) -> Option<f64> {
        let is_clear = |share: f64| self.room_at(pose(share * far)) > 0.0;
        if !is_clear(0.0) {
            return Some(0.0);
        }
        if far == 0.0 {
            return None;
        }
        let steps = GRID.0 as u32 - 1;
        let first =
            (1..=steps).map(|step| f64::from(step) / f64::from(steps)).find(|share| !is_clear(*share))?;
        let (mut clear, mut touching) = (first - 1.0 / f64::from(steps), first);
        // Far enough for a hundredth of a degree or a millimetre.
        for _ in 0..14 {
            let middle = (clear + touching) / 2.0;
            if is_clear(middle) {
                clear = middle;
            } else {
                touching = middle;
            }
        }
        Some(touching * far)
    }
}

impl Kinematics {
    /// What the places of a part come to in the wheel's own frame in a pose: along the axle from the hub face, and from it.
    pub fn in_the_wheel<'c>(
        &self,
        cloud: &'c Cloud,
        pose: Pose,
    ) -> impl ExactSizeIterator<Item = (f64, f64)> + use<'c> {
        let into = self.inverse(pose, cloud.carried);
        cloud.points.iter().map(move |point| into.axial_and_radius(*point))
    }

    /// Room of a wheel that moves so to a part in one pose, in millimetres; infinite for a part without a place.
    pub fn room(&self, outline: &Outline, center_y: f64, cloud: &Cloud, pose: Pose) -> f64 {
        let places = cloud.points.iter().copied();
        self.inverse(pose, cloud.carried).room_to(outline, center_y, places) + cloud.given_back_mm
    }
}

impl IntoWheel {
    /// Room of a wheel in this pose to places; quickest where the nearest is the first of them.
    pub(crate) fn room_to(
        &self,
        outline: &Outline,
        center_y: f64,
        places: impl Iterator<Item = Place>,
    ) -> f64 {
        places.fold(f64::INFINITY, |least, place| {
            let (y, r) = self.axial_and_radius(place);
            outline.nearer_than(y - center_y, r, least).unwrap_or(least)
        })
    }
}

impl DistanceField<'_> {
    /// Room of a wheel that moves so to a part in one pose: as [`Kinematics::room`], where many poses are asked of.
    pub fn room(&self, kinematics: &Kinematics, center_y: f64, cloud: &Cloud, pose: Pose) -> f64 {
        let distance = kinematics
            .in_the_wheel(cloud, pose)
            .fold(f64::INFINITY, |least, (y, r)| self.nearer_than(y - center_y, r, least).unwrap_or(least));
        distance + cloud.given_back_mm
    }
}

/// The room to a part in every pose that an axle reaches, from which the least of any use is had.
#[derive(Debug)]
pub struct CloudMap<'a> {
    swept: Swept<'a>,
    /// At rest first, then row by row of travel.
    cells: Vec<Cell>,
}

impl<'a> CloudMap<'a> {
    /// Of a part; `None` where it has no place.
    pub fn of(sweep: &'a Sweep<'a>, cloud: &'a Cloud) -> Option<Self> {
        if cloud.points.is_empty() {
            return None;
        }
        let swept = Swept::of(sweep, cloud);
        let poses = Sweep { envelope: Envelope::All, ..*sweep }.poses();
        let cells = if cloud.carried == Carried::SteeredUpright {
            let room_mm = swept.room_at(Pose::AT_REST);
            poses.into_iter().map(|pose| Cell { pose, room_mm }).collect()
        } else {
            swept.map(&poses)
        };
        Some(Self { swept, cells })
    }

    /// The room in each pose of the grid, row by row from full droop to full bump.
    pub fn rooms(&self) -> impl Iterator<Item = f64> {
        self.cells.iter().skip(1).map(|cell| cell.room_mm)
    }

    /// The least room over a use: of the poses of the grid that it reaches, of those where its bounds cut the grid, and
    /// between them.
    pub fn least(&self, envelope: Envelope) -> Cell {
        let Some(at_rest) = self.cells.first() else {
            return Cell { pose: Pose::AT_REST, room_mm: f64::INFINITY };
        };
        if self.swept.cloud.carried == Carried::SteeredUpright {
            return *at_rest;
        }
        let sweep = Sweep { envelope, ..*self.swept.sweep };
        let (mut reached, cut) = sweep.cut(Given::default(), &self.cells);
        reached.extend(cut.into_iter().map(|pose| Cell { pose, room_mm: self.swept.room_at(pose) }));
        sweep.refined(&reached, Given::default(), |pose| self.swept.room_nearby(pose))
    }

    /// What is told of the part over a use.
    pub fn told(&self, envelope: Envelope) -> CloudAnswer {
        let least = self.least(envelope);
        let at_rest_mm = self.cells.first().map_or(least.room_mm, |cell| cell.room_mm);
        Sweep { envelope, ..*self.swept.sweep }.told(&self.swept, least, at_rest_mm)
    }
}
