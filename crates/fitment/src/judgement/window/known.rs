//! Edges that were found already: many sets of work on a car are tried with one setup, and most leave most parts where they
//! were.

use crate::judgement::clearance::{MountedSetup, room_by_work};
use std::collections::BTreeMap;

use super::limit::Limit;
use crate::car::corner::Obstacle;
use crate::judgement::case::AxleCase;
use crate::setup::Setup;

/// What is known of a wheel and tire, wherever on the hub it stands.
#[derive(Debug)]
pub(crate) struct KnownEdges {
    /// At offset 0 and upright.
    upright: MountedSetup,
    edges: BTreeMap<EdgeKey, Limit>,
}

/// How an edge was sought.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(super) enum Sought {
    /// Without any band.
    AsWritten,
    /// With it.
    Whole,
}

/// Which obstacle, how it was sought, and all that work on a car does to it: room made to the part, camber, and how far the body
/// is raised.
type EdgeKey = (usize, Sought, [u64; 3]);

impl KnownEdges {
    /// Of a setup of which no edge was sought yet. Its offset says nothing: where the wheel stands is what is sought. `None`
    /// without a wheel.
    pub(crate) fn of(setup: &Setup) -> Option<Self> {
        let at_nought = super::on_width(setup, setup.wheel?.width, setup.tire)?;
        Some(Self { upright: MountedSetup::of(&at_nought, 0.0)?, edges: BTreeMap::new() })
    }

    /// The setup as it leans on a car.
    pub(super) fn stand(&self, case: &AxleCase<'_>) -> MountedSetup {
        self.upright.leaned_to(case.planned_camber())
    }

    fn key(case: &AxleCase<'_>, obstacle: &Obstacle, sought: Sought) -> EdgeKey {
        let work = [
            room_by_work(case, obstacle.feature),
            case.planned_camber(),
            case.levers.raised_at(obstacle.feature),
        ];
        (obstacle.index, sought, work.map(f64::to_bits))
    }

    /// Whether an edge is known with its band.
    pub(super) fn knows(&self, case: &AxleCase<'_>, obstacle: &Obstacle) -> bool {
        self.edges.contains_key(&Self::key(case, obstacle, Sought::Whole))
    }

    /// Edges that are known.
    #[cfg(test)]
    pub(super) fn count(&self) -> usize {
        self.edges.len()
    }

    /// An edge, sought where it is not known.
    pub(super) fn edge(
        &mut self,
        case: &AxleCase<'_>,
        obstacle: &Obstacle,
        sought: Sought,
        find: impl FnOnce(&mut Self) -> Limit,
    ) -> Limit {
        let key = Self::key(case, obstacle, sought);
        if let Some(known) = self.edges.get(&key) {
            return *known;
        }
        let found = find(self);
        self.edges.insert(key, found);
        found
    }
}
