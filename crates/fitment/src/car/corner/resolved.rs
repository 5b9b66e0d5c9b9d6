//! What all readings of a corner come to.
//!
//! Readings that cannot be true, or that contradict each other by more than their ±, are kept and explained, never averaged
//! away.

use super::alike::{self, Alike};
use super::edge_at_lock::{EdgeAtLock, PlacedEdges, ReadFrom};
use super::obstacle::{Obstacle, Trouble, TroubleKind};
use super::placing::LastCut;
use super::shape::ObstacleShape;
use super::typical_gaps::TypicalGaps;
use super::{Corner, Feature, Moving, Reading, Steer, Tried};
use crate::car::section::Outline;
use crate::setup::Setup;
use crate::values::working::{Phrase, Quantity};

/// Two spots nearer than this to each other in height are readings of the same place.
const SAME_HEIGHT: f64 = 10.0;

/// What a corner's readings came to.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Resolved {
    /// Parts whose place is known.
    pub obstacles: Vec<Obstacle>,
    /// Readings with something wrong, in the order of the list.
    pub troubles: Vec<Trouble>,
    /// Parts that nobody read.
    pub(crate) typical_gaps: TypicalGaps,
    edges_at_lock: PlacedEdges,
    edges_in_motion: PlacedEdges,
    alike: Vec<Alike>,
    /// What parts were read against at full lock, as it was measured.
    read_at_lock: Vec<(Setup, Outline)>,
}

impl Resolved {
    /// The obstacles of one part.
    pub fn of(&self, feature: Feature) -> impl Iterator<Item = &Obstacle> {
        self.obstacles.iter().filter(move |obstacle| obstacle.feature == feature)
    }

    /// Whether this part was read usably.
    pub fn knows(&self, feature: Feature) -> bool {
        self.of(feature).next().is_some()
    }

    /// The obstacles that decide where a wheel goes: of readings that differ by their gap alone, the nearest.
    pub fn nearest(&self) -> impl Iterator<Item = &Obstacle> {
        self.alike.iter().filter_map(|group| self.obstacles.get(group.nearest))
    }

    /// The obstacles of one part that decide its word: of readings that differ by their gap alone, the nearest and the
    /// farthest.
    pub fn deciding(&self, feature: Feature) -> impl Iterator<Item = &Obstacle> {
        let of_it = self.alike.iter().filter(move |group| {
            self.obstacles.get(group.nearest).is_some_and(|obstacle| obstacle.feature == feature)
        });
        of_it
            .flat_map(|group| {
                let both = [Some(group.nearest), (group.farthest != group.nearest).then_some(group.farthest)];
                both.into_iter().flatten()
            })
            .filter_map(|at| self.obstacles.get(at))
    }

    /// A part's edge at lock, where the corner's steering was measured.
    pub(crate) fn edge_at_lock(
        &self,
        corner: &Corner,
        fitted: &Setup,
        obstacle: &Obstacle,
    ) -> Option<EdgeAtLock> {
        let moving = corner.moving.as_ref().filter(|moving| moving.knows_the_steering())?;
        self.edges_at_lock.of(&self.obstacles, obstacle, (corner, moving, fitted), ReadFrom::HubHeight)
    }

    /// The outline of what parts were read against at full lock.
    pub(crate) fn read_at_lock(&self, on: &Setup) -> Option<&Outline> {
        self.read_at_lock.iter().find(|(setup, _)| setup == on).map(|(_, outline)| outline)
    }

    /// A part's edge at lock as it stands in motion; `None` for what is met otherwise, and where it cannot be placed.
    pub(crate) fn edge_in_motion(
        &self,
        corner: &Corner,
        moving: &Moving,
        fitted: &Setup,
        obstacle: &Obstacle,
    ) -> Option<EdgeAtLock> {
        self.edges_in_motion.of(&self.obstacles, obstacle, (corner, moving, fitted), ReadFrom::AllRound)
    }
}

impl Corner {
    /// Turns the readings into obstacles.
    pub fn resolve(&self) -> Resolved {
        let mut resolved = Resolved::default();
        // Most readings are taken against one and the same wheel: it is cut once.
        let mut cut = LastCut::default();
        for (index, reading) in self.readings.iter().enumerate() {
            match self.obstacle(index, reading, &mut cut) {
                Ok(obstacle) => resolved.obstacles.push(obstacle),
                Err(trouble) => resolved.troubles.push(trouble),
            }
        }
        self.settle(&mut resolved);
        resolved.troubles.sort_by_key(|trouble| trouble.reading);
        resolved.alike = alike::groups(&resolved.obstacles);
        for obstacle in resolved.obstacles.iter().filter(|one| one.reading.steer.is_at_lock()) {
            if let Some(on) = obstacle.reading.on
                && resolved.read_at_lock(&on).is_none()
                && let Some(cut) = cut.of(&on, self)
            {
                resolved.read_at_lock.push((on, cut.nominal().clone()));
            }
        }
        resolved
    }

    /// Keeps one obstacle for each place: the surest reading, and of equally sure ones the nearer. Readings
    /// that contradict each other stay, all of them, and are marked.
    fn settle(&self, resolved: &mut Resolved) {
        let mut kept: Vec<Obstacle> = Vec::with_capacity(resolved.obstacles.len());
        let mut rest = std::mem::take(&mut resolved.obstacles);
        while let Some(first) = rest.first().copied() {
            let (mut group, others): (Vec<_>, Vec<_>) =
                rest.into_iter().partition(|obstacle| same_place(&first, obstacle));
            rest = others;
            // What was read outranks what was written over from the other side.
            if group.iter().any(|obstacle| !obstacle.reading.is_copied) {
                group.retain(|obstacle| !obstacle.reading.is_copied);
            }
            let mut is_clean = true;
            let extremes = Extremes::of(&group);
            for at in 0..group.len() {
                // One of those it contradicts is named: with many readings all pairs would be too many to read.
                let other =
                    extremes.0.iter().find(|other| **other != at && contradict(&group[at], &group[**other]));
                if let Some(other) = other {
                    is_clean = false;
                    group[at].is_contradicted = true;
                    let says = contradiction(&group[at].reading, &group[*other].reading);
                    resolved.troubles.push(Trouble {
                        reading: group[at].index,
                        kind: TroubleKind::Contradicts,
                        other: Some(group[*other].index),
                        says,
                    });
                }
            }
            if is_clean {
                let surest = |a: &&Obstacle, b: &&Obstacle| {
                    let order = a.reading.plus_minus.as_mm().total_cmp(&b.reading.plus_minus.as_mm());
                    order.then(a.reading.gap.as_mm().total_cmp(&b.reading.gap.as_mm()))
                };
                kept.extend(group.iter().min_by(surest));
            } else {
                kept.extend(group);
            }
        }
        kept.sort_by_key(|obstacle| (obstacle.feature, obstacle.index));
        resolved.obstacles = kept;
    }
}

/// One place of one part, on one side, at one lock. What is met at lock at a trial is another place than what was read straight,
/// also of parts that are read straight: the wheel stands elsewhere.
fn same_place(a: &Obstacle, b: &Obstacle) -> bool {
    let lock = |steer: Steer, feature: Feature| {
        let of_that_lock = feature.facts().at_lock.then_some(steer);
        (steer.is_at_lock(), of_that_lock)
    };
    // A bound stands beside what was measured and contradicts nothing.
    let is_bound = |obstacle: &Obstacle| obstacle.reading.tried == Some(Tried::AtMost);
    if a.index == b.index {
        return true;
    }
    !is_bound(a)
        && !is_bound(b)
        && a.feature == b.feature
        && a.side == b.side
        && lock(a.reading.steer, a.feature) == lock(b.reading.steer, b.feature)
        && match (a.shape.height(), b.shape.height()) {
            (Some(one), Some(other)) => (one - other).abs() < SAME_HEIGHT,
            (None, None) => true,
            _ => false,
        }
}

/// About where a strut's readings are compared, above the axle.
const STRUT_AT_MM: f64 = 260.0;

/// Where an obstacle begins, on the axis that its readings differ along.
fn along(obstacle: &Obstacle) -> f64 {
    obstacle.shape.at_height(STRUT_AT_MM).unwrap_or(obstacle.shape.along())
}

/// Of readings of one place, for each setup they were taken against, the one whose lowest figure is highest and the one
/// whose highest is lowest.
///
/// A reading that any other contradicts is contradicted by one of these: what it is allowed to differ by depends on its
/// own ±, the other's ±, and the two setups alone. So many readings are compared with a few.
struct Extremes(Vec<usize>);

impl Extremes {
    fn of(group: &[Obstacle]) -> Self {
        let low = |at: usize| along(&group[at]) - group[at].reading.plus_minus.as_mm();
        let high = |at: usize| along(&group[at]) + group[at].reading.plus_minus.as_mm();
        let mut of_setup: Vec<(Option<Setup>, usize, usize)> = Vec::new();
        for (at, obstacle) in group.iter().enumerate() {
            match of_setup.iter_mut().find(|(on, ..)| *on == obstacle.reading.on) {
                Some((_, highest, lowest)) => {
                    if low(at) > low(*highest) {
                        *highest = at;
                    }
                    if high(at) < high(*lowest) {
                        *lowest = at;
                    }
                }
                None => of_setup.push((obstacle.reading.on, at, at)),
            }
        }
        Self(of_setup.into_iter().flat_map(|(_, highest, lowest)| [highest, lowest]).collect())
    }
}

/// Whether two readings of one place differ by more than both can be off.
fn contradict(a: &Obstacle, b: &Obstacle) -> bool {
    if let (ObstacleShape::Beside { fitted: one, .. }, ObstacleShape::Beside { fitted: other, .. }) =
        (a.shape, b.shape)
        && one != other
    {
        return false;
    }
    let mut allowed = (a.reading.plus_minus + b.reading.plus_minus).as_mm();
    if a.reading.on != b.reading.on {
        // ReferenceGeometry different setups each position carries its own tire's tolerance.
        allowed += [a, b].iter().filter_map(|one| one.reading.on).map(|on| tire_tolerance(&on)).sum::<f64>();
    }
    // A hair over, so that figures that just meet are not torn apart by rounding.
    (along(a) - along(b)).abs() > allowed + 1e-9
}

/// How far a new tire's face or crown may stand from where its size puts it, the larger of the two.
fn tire_tolerance(setup: &Setup) -> f64 {
    let wide = setup.section_width().map_or(0.0, |width| width.as_mm() * 0.02);
    let high = setup.sidewall().map_or(0.0, |height| height.as_mm() * 0.04);
    wide.max(high)
}

fn contradiction(one: &Reading, other: &Reading) -> Phrase {
    Phrase::new("")
        .quantity(Quantity::length(one.gap))
        .text(" ± ")
        .quantity(Quantity::length(one.plus_minus))
        .text(" here and ")
        .quantity(Quantity::length(other.gap))
        .text(" ± ")
        .quantity(Quantity::length(other.plus_minus))
        .text(" in another reading of the same place cannot both be true. Both are kept; read it again.")
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::corner::{CarSide, Suspension};
    use crate::values::length::Length;

    const FITTED: &str = "17x7.5 ET45 225/45R17";

    fn reading(feature: Feature, gap: f64, plus_minus: f64) -> Reading {
        Reading::new(feature, Length::mm(gap), Length::mm(plus_minus), FITTED.parse().unwrap())
    }

    fn resolved(readings: Vec<Reading>) -> Resolved {
        Corner { readings, ..Corner::default() }.resolve()
    }

    #[test]
    fn a_reading_against_the_fitted_wheel_says_where_the_part_is() {
        // 225 mm of tire at ET45: innermost 112.5 + 45 inboard, outermost 112.5 − 45 outboard; crown at
        // half of 431.8 + 2 × 101.25 (geometry).
        let found = resolved(vec![
            reading(Feature::Strut, 14.0, 1.0),
            reading(Feature::FenderLateral, 12.0, 1.0),
            reading(Feature::Arch, 60.0, 2.0),
        ]);
        let place = |feature| found.of(feature).next().unwrap().shape;
        assert_eq!(place(Feature::Strut), ObstacleShape::Wall { y: -157.5 - 14.0 });
        assert_eq!(place(Feature::FenderLateral), ObstacleShape::Wall { y: 67.5 + 12.0 });
        let ObstacleShape::Ceiling { z } = place(Feature::Arch) else { panic!("an arch is above") };
        assert!((z - (317.15 + 60.0)).abs() < 1e-9);
        assert!(found.troubles.is_empty());
    }

    #[test]
    fn the_bare_hub_gives_the_same_places() {
        let bare = |feature, gap: f64| Reading { on: None, ..reading(feature, gap, 1.0) };
        let found = resolved(vec![bare(Feature::Strut, 171.5), bare(Feature::FenderLateral, 79.5)]);
        assert_eq!(found.obstacles[0].shape, ObstacleShape::Wall { y: -171.5 });
        assert_eq!(found.obstacles[1].shape, ObstacleShape::Wall { y: 79.5 });
        let caliper = resolved(vec![bare(Feature::CaliperFace, 20.0)]);
        assert_eq!(caliper.troubles[0].kind, TroubleKind::Impossible);
    }

    #[test]
    fn impossible_readings_are_kept_and_explained() {
        let spot =
            |mm: f64| Reading { radius: Some(Length::mm(mm)), ..reading(Feature::SpringPerch, 8.0, 1.0) };
        let outside =
            Reading { radius: Some(Length::mm(230.0)), ..reading(Feature::CaliperRadial, 6.0, 1.0) };
        for (given, what) in [
            (reading(Feature::Strut, 900.0, 1.0), "a gap of 900 mm"),
            (reading(Feature::CaliperRadial, -4.0, 1.0), "a caliper through the barrel"),
            (reading(Feature::CaliperRadial, 139.0, 1.0), "a caliper inside the hub"),
            (outside, "a caliper outside the rim"),
            (spot(420.0), "a perch above the tire"),
            (reading(Feature::Strut, 14.0, -1.0), "a negative ±"),
        ] {
            let found = resolved(vec![given]);
            if what == "a caliper inside the hub" && found.troubles.is_empty() {
                // 17 in leaves 220 mm of radius: 139 is still outside the hub. On a 13 in wheel it is not.
                let small = Reading { on: Some("13x5 ET35 155/80R13".parse().unwrap()), ..given };
                let small = Reading { gap: Length::mm(100.0), ..small };
                assert_eq!(resolved(vec![small]).troubles[0].kind, TroubleKind::Impossible, "{what}");
                continue;
            }
            assert_eq!(found.troubles.len(), 1, "{what}");
            assert_eq!(found.troubles[0].kind, TroubleKind::Impossible, "{what}");
            assert!(found.obstacles.is_empty(), "{what}");
        }
    }

    #[test]
    fn comparing_with_a_few_finds_what_comparing_with_each_finds() {
        // A row of figures without a pattern, the same at every run.
        let mut state = 7_u32;
        let mut next = |most: u32| {
            state = state.wrapping_mul(1_664_525).wrapping_add(1_013_904_223);
            f64::from((state >> 16) % most)
        };
        for _ in 0..200 {
            let readings: Vec<Reading> = (0..9)
                .map(|_| Reading {
                    on: (next(2) < 1.0).then(|| FITTED.parse().unwrap()),
                    ..reading(Feature::Strut, 140.0 + next(30), 0.5 + next(12))
                })
                .collect();
            let corner = Corner { readings, ..Corner::default() };
            let mut cut = LastCut::default();
            let group: Vec<Obstacle> = corner
                .readings
                .iter()
                .enumerate()
                .filter_map(|(at, reading)| corner.obstacle(at, reading, &mut cut).ok())
                .collect();
            let few = Extremes::of(&group).0;
            for at in 0..group.len() {
                let by_each =
                    (0..group.len()).any(|other| other != at && contradict(&group[at], &group[other]));
                let by_few = few.iter().any(|other| *other != at && contradict(&group[at], &group[*other]));
                assert_eq!(by_few, by_each, "{at} of {group:?}");
            }
        }
    }

    #[test]
    fn contradicting_readings_are_both_kept_and_both_marked() {
        let found = resolved(vec![reading(Feature::Strut, 14.0, 1.0), reading(Feature::Strut, 19.0, 2.0)]);
        assert_eq!(found.obstacles.len(), 2);
        assert!(found.obstacles.iter().all(|obstacle| obstacle.is_contradicted));
        assert_eq!(found.troubles.len(), 2);
        assert_eq!((found.troubles[0].other, found.troubles[1].other), (Some(1), Some(0)));
        // Within their ± the surer one counts.
        let found = resolved(vec![reading(Feature::Strut, 14.0, 4.0), reading(Feature::Strut, 17.0, 0.2)]);
        assert_eq!((found.obstacles.len(), found.troubles.len()), (1, 0));
        assert_eq!(found.obstacles[0].reading.gap, Length::mm(17.0));
    }

    #[test]
    fn left_and_right_are_different_places_and_a_copy_gives_way_to_a_reading() {
        let on = |side, gap, is_copied| Reading {
            side: Some(side),
            is_copied,
            ..reading(Feature::Strut, gap, 1.0)
        };
        let found = resolved(vec![
            on(CarSide::Left, 14.0, false),
            on(CarSide::Right, 14.0, true),
            on(CarSide::Right, 22.0, false),
        ]);
        assert_eq!(found.obstacles.len(), 2);
        assert_eq!(found.obstacles[1].reading.gap, Length::mm(22.0));
        assert!(found.troubles.is_empty());
    }

    #[test]
    fn what_a_trial_met_at_lock_contradicts_nothing_that_was_read_straight() {
        let straight = reading(Feature::FenderLateral, 12.0, 0.5);
        let met = Reading {
            steer: Steer::LockRight,
            tried: Some(Tried::Measured),
            ..reading(Feature::FenderLateral, -4.0, 0.1)
        };
        let found = resolved(vec![straight, met]);
        assert_eq!((found.obstacles.len(), found.troubles.len()), (2, 0));
        // Met straight it does, and is said so.
        let found = resolved(vec![straight, Reading { steer: Steer::Straight, ..met }]);
        assert!(found.obstacles.iter().all(|obstacle| obstacle.is_contradicted));
    }

    #[test]
    fn hanging_says_nothing_about_the_body() {
        let hanging = |feature| Reading { stance: Suspension::Drooped, ..reading(feature, 20.0, 1.0) };
        assert!(resolved(vec![hanging(Feature::Strut)]).troubles.is_empty());
        for feature in [Feature::Arch, Feature::FenderLateral, Feature::UpperArm] {
            assert_eq!(resolved(vec![hanging(feature)]).troubles[0].kind, TroubleKind::NotUsable);
        }
        let unstated =
            Reading { on: Some("225/45R17".parse().unwrap()), ..reading(Feature::Strut, 20.0, 1.0) };
        assert_eq!(resolved(vec![unstated]).troubles[0].kind, TroubleKind::NotUsable);
    }

    #[test]
    fn a_measured_section_moves_the_part_with_it() {
        // 225 by name, 229 by caliper: the tire stands 2 mm further in, and so does what was read against it.
        let corner = Corner {
            readings: vec![reading(Feature::Strut, 14.0, 1.0)],
            fitted_section: Some(super::super::Measured {
                value: Length::mm(229.0),
                plus_minus: Length::mm(1.0),
            }),
            ..Corner::default()
        };
        assert_eq!(corner.resolve().obstacles[0].shape, ObstacleShape::Wall { y: -157.5 - 14.0 - 2.0 });
    }
}
