//! What of lock or bump must be given up for everything to have the least room.

use super::Pose;
use super::sweep::{Cell, REFINED_MM, Sweep};

/// What of lock and travel is given up.
#[derive(Debug, Clone, Copy, Default)]
pub(super) struct Given {
    pub(super) lock_deg: f64,
    pub(super) bump_mm: f64,
}

impl Sweep<'_> {
    /// How much lock must be given up each way.
    pub(super) fn limiter(&self, all: &[Cell], room: &dyn Fn(Pose) -> f64) -> Option<f64> {
        let lock = |steer: f64| if steer > 0.0 { self.reach.outward_deg } else { self.reach.inward_deg };
        let more = all
            .iter()
            .filter(|cell| cell.room_mm < self.least_mm)
            .map(|cell| lock(cell.pose.steer_deg) - cell.pose.steer_deg.abs());
        let least = more.fold(0.0, f64::max);
        let most = self.reach.outward_deg.max(self.reach.inward_deg);
        self.enough(all, room, least, most, |lock_deg| Given { lock_deg, bump_mm: 0.0 })
    }

    /// How much bump travel must be given up.
    pub(super) fn bump_stop(&self, all: &[Cell], room: &dyn Fn(Pose) -> f64) -> Option<f64> {
        let more = all.iter().filter(|cell| cell.room_mm < self.least_mm && cell.pose.travel_mm > 0.0);
        let least = more.map(|cell| self.reach.bump_mm - cell.pose.travel_mm).fold(0.0, f64::max);
        self.enough(all, room, least, self.reach.bump_mm, |bump_mm| Given { bump_mm, lock_deg: 0.0 })
    }

    /// The least that must be given up, at least `least`, for everything to have the room; `None` when even `most` does
    /// not do.
    fn enough(
        &self,
        all: &[Cell],
        room: &dyn Fn(Pose) -> f64,
        least: f64,
        most: f64,
        given: impl Fn(f64) -> Given,
    ) -> Option<f64> {
        let does = |amount: f64| {
            let given = given(amount);
            let (mut left, edge) = self.cut(given, all);
            if left.iter().any(|cell| cell.room_mm < self.least_mm) {
                return false;
            }
            for pose in edge {
                let room_mm = room(pose);
                if room_mm < self.least_mm {
                    return false;
                }
                left.push(Cell { pose, room_mm });
            }
            self.refined(&left, given, room).room_mm >= self.least_mm - REFINED_MM / 2.0
        };
        if least > most || !does(most) {
            return None;
        }
        let (mut short, mut enough) = (least, most);
        if does(short) {
            return Some(short);
        }
        while enough - short > 0.05 {
            let middle = (short + enough) / 2.0;
            if does(middle) {
                enough = middle;
            } else {
                short = middle;
            }
        }
        Some(enough)
    }
}
