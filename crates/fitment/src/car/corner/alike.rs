//! Readings that differ by their gap alone: of one part, on one side, taken in one way. A larger gap leaves more room in every
//! pose and with every wheel, so of them all the least decides where a wheel goes, and least and greatest together whether
//! they contradict each other. A part that was read a hundred times costs what one costs.

use super::Reading;
use super::obstacle::Obstacle;

/// The nearest and the farthest of readings that are alike, by their places among the obstacles.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Alike {
    pub(super) nearest: usize,
    pub(super) farthest: usize,
}

fn are_alike(one: &Obstacle, other: &Obstacle) -> bool {
    let plain = |reading: &Reading| Reading { gap: other.reading.gap, ..*reading };
    one.feature == other.feature
        && one.side == other.side
        && one.is_contradicted == other.is_contradicted
        && plain(&one.reading) == other.reading
}

/// The groups of obstacles that are alike, in the order of their first.
pub(super) fn groups(obstacles: &[Obstacle]) -> Vec<Alike> {
    let mut groups: Vec<Alike> = Vec::new();
    for (at, obstacle) in obstacles.iter().enumerate() {
        match groups.iter_mut().find(|group| are_alike(&obstacles[group.nearest], obstacle)) {
            None => groups.push(Alike { nearest: at, farthest: at }),
            Some(group) => {
                let gap = |at: usize| obstacles[at].reading.gap;
                if gap(at) < gap(group.nearest) {
                    group.nearest = at;
                }
                if gap(at) > gap(group.farthest) {
                    group.farthest = at;
                }
            }
        }
    }
    groups
}

#[cfg(test)]
mod tests {
    use crate::Length;
    use crate::car::corner::{Corner, Feature, Reading, Suspension};
    use crate::setup::Setup;

    #[test]
    fn of_readings_that_differ_by_their_gap_alone_the_nearest_and_the_farthest_count() {
        let strut = |gap: f64| Reading {
            on: None,
            ..Reading::new(Feature::Strut, Length::mm(gap), Length::mm(1.0), Setup::default())
        };
        let hanging = Reading { stance: Suspension::Drooped, ..strut(170.0) };
        let readings = vec![strut(171.0), strut(169.0), strut(180.0), hanging, strut(175.0)];
        let resolved = Corner { readings, ..Corner::default() }.resolve();
        assert_eq!(resolved.obstacles.len(), 5);
        let gaps = |all: Vec<&crate::car::corner::Obstacle>| -> Vec<f64> {
            let mut gaps: Vec<f64> = all.iter().map(|one| one.reading.gap.as_mm()).collect();
            gaps.sort_by(f64::total_cmp);
            gaps
        };
        let nearest = gaps(resolved.nearest().collect());
        assert!(nearest.contains(&169.0) && nearest.contains(&170.0), "{nearest:?}");
        assert!(nearest.len() < 5, "{nearest:?}");
        let deciding = gaps(resolved.deciding(Feature::Strut).collect());
        assert!([169.0, 170.0, 180.0].iter().all(|gap| deciding.contains(gap)), "{deciding:?}");
        assert_eq!(resolved.deciding(Feature::Arch).count(), 0);
    }
}
