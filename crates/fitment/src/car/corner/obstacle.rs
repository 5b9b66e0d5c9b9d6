//! From readings to positions in the corner frame.
//!
//! A reading against the fitted wheel fixes where the obstacle is; from then on any setup can be tried against
//! it. Readings that cannot be true, or that contradict each other by more than their ±, are kept and
//! explained, never averaged away.

use super::alike::{self, Alike};
use super::as_usual::AsUsual;
use super::edge_at_lock::EdgesAtLock;
use super::feature::{BlocksFrom, MetAt};
use super::shape::{CannotBe, Fitted, ObstacleShape};
use super::{CarSide, Carrier, Corner, Face, Feature, Reading, Steer, Suspension, Tried};
use crate::car::section::outline::flange_top;
use crate::car::section::{Deviations, Outline, PARTS, Part, SHOULDER_AT, Tolerances, Toward, Variants};
use crate::setup::Setup;
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity};

/// A part of the car whose place is known.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Obstacle {
    /// Which part.
    pub feature: Feature,
    /// On which side of the car, when noted.
    pub side: Option<CarSide>,
    /// Where it is.
    pub place: ObstacleShape,
    /// The reading it rests on.
    pub reading: Reading,
    /// That reading's place in the corner's list.
    pub index: usize,
    /// Whether another reading contradicts it.
    pub is_contradicted: bool,
    /// What it was read against, and how its place follows from that; `None` from the bare hub.
    pub against: Option<ReferenceGeometry>,
}

/// The faces of what was fitted, as far as parts at lock are known by them alone; in millimetres from the hub face and
/// from the axle.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Faces {
    /// Radius of the crown.
    pub crown: f64,
    /// Reach outboard, leaned.
    pub outer: f64,
    /// Reach inboard, leaned.
    pub inner: f64,
}

impl Faces {
    /// Of an outline that stands at `center_y`.
    pub fn of(outline: &Outline, center_y: f64, camber_deg: f64) -> Self {
        let reach = |toward| outline.reach(toward, center_y, camber_deg);
        Self { crown: outline.crown(), outer: reach(Toward::Outboard), inner: reach(Toward::Inboard) }
    }

    /// Each further by so much.
    pub(crate) fn off_by(self, off: Self) -> Self {
        Self { crown: self.crown + off.crown, outer: self.outer + off.outer, inner: self.inner + off.inner }
    }
}

/// What a reading's place would be if something of what it was read against were otherwise.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Sensitivity {
    /// How much further along its axis the place is.
    pub along: f64,
    /// The fitted faces then.
    pub faces: Faces,
}

impl Sensitivity {
    /// Whether anything is otherwise than with the faces as they are.
    pub(crate) fn is_other_than(&self, faces: Faces) -> bool {
        self.along != 0.0 || self.faces != faces
    }
}

/// What a part was read against.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct ReferenceGeometry {
    /// The fitted faces.
    pub faces: Faces,
    /// Places of its tread across: y from the hub face, and radius. Shoulder, middle, shoulder.
    pub tread: [[f64; 2]; 5],
    /// With each [`Part`] of the fitted set at the lower and upper end of its range.
    pub parts: [[Sensitivity; 2]; PARTS],
    /// With the camber lower and higher by [`CAMBER_STEP_DEG`].
    pub camber: [Sensitivity; 2],
    /// Read lower and higher by this; `None` where the height plays no part.
    pub read_at: Option<(f64, [f64; 2])>,
}

/// By how much the camber is moved to see what follows, in degrees.
pub const CAMBER_STEP_DEG: f64 = 1.0;
/// How far its top leans inboard, while nobody has measured a strut. Estimate.
pub const STRUT_LEAN_DEG: f64 = 12.0;
/// Tread depth of a new tire. Common practice; no source.
pub const NEW_TREAD_MM: f64 = 8.0;
/// How far that may be off. Estimate.
const NEW_TREAD_OFF_MM: f64 = 1.0;
/// How much the tread of a fitted tire whose depth nobody measured may have worn. Estimate.
const WEAR_UNKNOWN_MM: f64 = 5.0;
/// How far a noted height may be off. Estimate.
pub const HEIGHT_PLUS_MINUS_MM: f64 = 5.0;

/// What is wrong with a reading.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TroubleKind {
    /// It cannot be true on a road car.
    Impossible,
    /// Another reading of the same place differs by more than both can be off.
    Contradicts,
    /// It is true and cannot be used for this.
    NotUsable,
}

/// A reading that is kept, marked and explained.
#[derive(Debug, Clone, PartialEq)]
pub struct Trouble {
    /// Its place in the corner's list.
    pub reading: usize,
    /// What is wrong.
    pub kind: TroubleKind,
    /// The reading it contradicts.
    pub other: Option<usize>,
    /// Why, in a sentence.
    pub says: Phrase,
}

/// What a corner's readings came to.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Resolved {
    /// Parts whose place is known.
    pub obstacles: Vec<Obstacle>,
    /// Readings with something wrong, in the order of the list.
    pub troubles: Vec<Trouble>,
    /// Parts that nobody read.
    pub(crate) as_usual: AsUsual,
    pub(super) edges_at_lock: EdgesAtLock,
    pub(super) alike: Vec<Alike>,
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
}

/// A wheel that is tried on stands into what it meets by at most so much: more is a slipped unit.
const MOST_OVERLAP_MM: f64 = 60.0;
/// Two spots nearer than this to each other in height are readings of the same place.
const SAME_HEIGHT: f64 = 10.0;

/// The setup that the last reading was taken against, cut once.
#[derive(Default, Debug)]
pub struct LastCut(Option<(Setup, Variants)>);

impl LastCut {
    /// `None` without a wheel and its offset.
    fn of(&mut self, setup: &Setup, corner: &Corner) -> Option<&Variants> {
        if self.0.as_ref().is_none_or(|(last, _)| last != setup) {
            self.0 = Some((*setup, corner.cut_of_fitted(setup)?));
        }
        self.0.as_ref().map(|(_, cut)| cut)
    }
}

/// How far above the axle a face of the fitted wheel is, and how far that may be off; `None` for whichever is nearer.
fn height_of(face: Face, outline: &Outline, fitted: &Setup) -> Option<(f64, f64)> {
    let crown = outline.crown();
    let flange = flange_top(fitted)?;
    match face {
        Face::Nearest => None,
        Face::Sidewall => Some((crown - 0.48 * (crown - flange + 17.5), 10.0)),
        Face::Shoulder => Some((SHOULDER_AT * crown, 8.0)),
        Face::Flange => Some((flange - 5.0, 5.0)),
    }
}

/// Five places across a tread: both shoulders, both edges, the middle.
fn tread_of(outline: &Outline, center: f64) -> [[f64; 2]; 5] {
    let crown = outline.crown();
    let at = |share: f64| {
        let height = share * crown;
        let inmost = outline.inmost_between(height, height).unwrap_or(0.0);
        [inmost, height]
    };
    let ([shoulder, low], [edge, high]) = (at(0.94), at(0.975));
    [
        [center + shoulder, low],
        [center + edge, high],
        [center, crown],
        [center - edge, high],
        [center - shoulder, low],
    ]
}

/// Where a part that is read at a place nobody noted usually is, above the axle; and how far that may be off. Estimates.
fn usual_height(feature: Feature, outline: &Outline, fitted: &Setup) -> Option<(f64, f64)> {
    let crown = outline.crown();
    let flange = flange_top(fitted)?;
    match feature.facts().met_at {
        MetAt::Nearest => None,
        MetAt::Shoulder => Some((SHOULDER_AT * crown, 12.0)),
        MetAt::InnerFlange => Some((flange - 6.0, 12.0)),
        MetAt::Sidewall => Some((flange + 0.6 * (crown - flange), 20.0)),
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
        resolved
    }

    /// What was fitted, as it may truly be: the tire as somebody measured it.
    pub(crate) fn cut_of_fitted(&self, fitted: &Setup) -> Option<Variants> {
        let mut tolerances = Tolerances::of(fitted);
        let mut base = Deviations::default();
        if let Some((measured, named)) = self.fitted_section.zip(fitted.section_width()) {
            base.half_section = (measured.value - named).as_mm() / 2.0;
            tolerances.half_section = measured.plus_minus.as_mm() / 2.0;
            // A caliper over the sidewalls measures the rim guard with them.
            tolerances.rim_guard = 0.0;
        }
        // A tire is measured by the size it had when it was new.
        if fitted.tire.is_some() {
            match self.tread_depth_mm {
                Some(depth) => {
                    base.radius = -(NEW_TREAD_MM - depth).max(0.0);
                    tolerances.wear = [NEW_TREAD_OFF_MM; 2];
                }
                // A worn tire only ever leaves less than it seemed.
                None => tolerances.wear = [WEAR_UNKNOWN_MM, 0.0],
            }
        }
        Variants::of(fitted, base, tolerances)
    }

    /// The obstacle that a reading makes.
    ///
    /// # Errors
    /// What is wrong with the reading.
    pub(crate) fn obstacle(
        &self,
        index: usize,
        reading: &Reading,
        cut: &mut LastCut,
    ) -> Result<Obstacle, Trouble> {
        if let Some(says) = implausible(reading) {
            return Err(Trouble { reading: index, kind: TroubleKind::Impossible, other: None, says });
        }
        let (place, against) = self.place(reading, cut).map_err(|(kind, says)| Trouble {
            reading: index,
            kind,
            other: None,
            says: Phrase::new(says),
        })?;
        Ok(Obstacle {
            feature: reading.feature,
            side: reading.side,
            place,
            reading: *reading,
            index,
            is_contradicted: false,
            against,
        })
    }

    fn place(
        &self,
        reading: &Reading,
        cut: &mut LastCut,
    ) -> Result<(ObstacleShape, Option<ReferenceGeometry>), CannotBe> {
        let feature = reading.feature;
        if reading.stance == Suspension::Drooped && feature.carrier() != Carrier::Upright {
            return Err((
                TroubleKind::NotUsable,
                "Read with the wheel hanging: this part does not move with the wheel, so it must be read on the ground.",
            ));
        }
        let gap = reading.gap.as_mm();
        let Some(fitted) = reading.on else {
            let place = match feature.blocks_from() {
                BlocksFrom::Inboard => ObstacleShape::Wall { y: -gap },
                BlocksFrom::Outboard => ObstacleShape::Wall { y: gap },
                _ => ObstacleShape::Ceiling { z: gap },
            };
            return Ok((place, None));
        };
        let center = fitted.effective_offset().map(|offset| -offset.as_mm());
        let (Some(center), Some(cut)) = (center, cut.of(&fitted, self)) else {
            return Err((
                TroubleKind::NotUsable,
                "What was fitted is not fully stated: without wheel size and offset the reading has nothing to start from. It \
                 counts as soon as they are named.",
            ));
        };
        let usual = usual_height(feature, cut.nominal(), &fitted);
        let noted = reading.radius.map(Length::as_mm);
        let of_face = reading.face.and_then(|face| height_of(face, cut.nominal(), &fitted));
        let usual = of_face.or(usual);
        let height = noted.or(usual.map(|(height, _)| height));
        let camber = self.camber();
        let by = |outline: &Outline, camber: f64, height: Option<f64>| {
            let fitted = Fitted { setup: fitted, outline, center, camber };
            fitted.place(reading, height)
        };
        let place = by(cut.nominal(), camber, height)?;
        // Inside of the barrel no tire and no flange is met: what of them may be off plays no part.
        if feature.is_of_the_brake() {
            return Ok((place, Some(ReferenceGeometry::default())));
        }
        let otherwise = |outline: &Outline, camber: f64| Sensitivity {
            along: by(outline, camber, height).map_or(0.0, |other| other.along() - place.along()),
            faces: Faces::of(outline, center, camber),
        };
        let mut against = ReferenceGeometry {
            faces: Faces::of(cut.nominal(), center, camber),
            tread: tread_of(cut.nominal(), center),
            ..ReferenceGeometry::default()
        };
        for part in Part::ALL {
            against.parts[part as usize] = [0, 1].map(|end| otherwise(cut.at_end(part, end), camber));
        }
        against.camber =
            [-CAMBER_STEP_DEG, CAMBER_STEP_DEG].map(|step| otherwise(cut.nominal(), camber + step));
        if let Some(height) = place.height() {
            let off = match (noted, usual) {
                (None, Some((_, off))) => off,
                _ => HEIGHT_PLUS_MINUS_MM,
            };
            let at = |height: f64| {
                by(cut.nominal(), camber, Some(height)).map_or(0.0, |other| other.along() - place.along())
            };
            against.read_at = Some((off, [at(height - off), at(height + off)]));
        }
        Ok((place, Some(against)))
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

fn implausible(reading: &Reading) -> Option<Phrase> {
    let facts = reading.feature.facts();
    let gap = reading.gap.as_mm();
    let (least, most) = match (reading.on, facts.bare_hub_mm) {
        (Some(_), _) => facts.plausible_mm,
        (None, Some(range)) => range,
        (None, None) => {
            return Some(Phrase::new(format!("The {} cannot be read from the bare hub.", facts.name)));
        }
    };
    if reading.plus_minus.as_mm() < 0.0 || reading.plus_minus.as_mm() > 50.0 {
        return Some(
            Phrase::new("An instrument that is off by ")
                .quantity(Quantity::length(reading.plus_minus))
                .text(" measures nothing here."),
        );
    }
    // A wheel that does not go on overlaps what it meets.
    let least = if reading.tried.is_some() { -MOST_OVERLAP_MM } else { least };
    if (least..=most).contains(&gap) {
        return None;
    }
    let between = if reading.on.is_some() { facts.between } else { "the hub and this part" };
    Some(
        Phrase::new("")
            .quantity(Quantity::length(reading.gap))
            .text(format!(" between {between} is not found in a wheel well, where "))
            .quantity(Quantity::length(Length::mm(least)))
            .text(" to ")
            .quantity(Quantity::length(Length::mm(most)))
            .text(" is. Was it read in another unit?"),
    )
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
        && match (a.place.height(), b.place.height()) {
            (Some(one), Some(other)) => (one - other).abs() < SAME_HEIGHT,
            (None, None) => true,
            _ => false,
        }
}

/// Where an obstacle begins, on the axis that its readings differ along.
fn along(obstacle: &Obstacle) -> f64 {
    obstacle.place.along()
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
        (a.place, b.place)
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
        let place = |feature| found.of(feature).next().unwrap().place;
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
        assert_eq!(found.obstacles[0].place, ObstacleShape::Wall { y: -171.5 });
        assert_eq!(found.obstacles[1].place, ObstacleShape::Wall { y: 79.5 });
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
        assert_eq!(corner.resolve().obstacles[0].place, ObstacleShape::Wall { y: -157.5 - 14.0 - 2.0 });
    }
}
