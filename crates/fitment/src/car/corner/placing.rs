//! From one reading to the place of its part.
//!
//! A reading against the fitted wheel fixes where the part is; from then on any setup can be tried against it.

use super::feature::{BlocksFrom, MetAt, ShapeKind};
use super::obstacle::{
    AlongTheRange, CAMBER_STEP_DEG, Faces, HEIGHT_PLUS_MINUS_MM, NEW_TREAD_MM, Obstacle, ReferenceGeometry,
    Sensitivity, Trouble, TroubleKind,
};
use super::shape::{CannotBe, Fitted, Lean, ObstacleShape};
use super::{Carrier, Corner, Direction, Face, Feature, Reading, Suspension};
use crate::car::section::outline::flange_top;
use crate::car::section::{Deviations, Outline, Part, SHOULDER_AT, Tolerances, Variants};
use crate::setup::Setup;
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity};

/// How far the tread depth of a new tire may be off. Estimate.
const NEW_TREAD_OFF_MM: f64 = 1.0;
/// How much the tread of a fitted tire whose depth nobody measured may have worn. Estimate.
const WEAR_UNKNOWN_MM: f64 = 5.0;
/// A wheel that is tried on stands into what it meets by at most so much: more is a slipped unit.
const MOST_OVERLAP_MM: f64 = 60.0;
/// The setup that the last reading was taken against, cut once.
#[derive(Default, Debug)]
pub(super) struct LastCut(Option<(Setup, Variants)>);

impl LastCut {
    /// `None` without a wheel and its offset.
    pub(super) fn of(&mut self, setup: &Setup, corner: &Corner) -> Option<&Variants> {
        if self.0.as_ref().is_none_or(|(last, _)| last != setup) {
            self.0 = Some((*setup, corner.cut_of_fitted(setup)?));
        }
        self.0.as_ref().map(|(_, cut)| cut)
    }
}

/// How far above the axle a face of the fitted wheel is; `None` for whichever is nearer.
fn height_of(face: Face, outline: &Outline, fitted: &Setup) -> Option<f64> {
    let crown = outline.crown();
    let flange = flange_top(fitted)?;
    match face {
        Face::Nearest => None,
        Face::Sidewall => Some(crown - 0.48 * (crown - flange + 17.5)),
        Face::Shoulder => Some(SHOULDER_AT * crown),
        Face::Flange => Some(flange - 5.0),
    }
}

impl Reading {
    /// How far off the height at which it was read may be taken, in millimetres, where nobody noted it: by the face it was read
    /// from, or by where such a part usually is. Estimates. Nothing where the radius was noted, and where the height plays no part.
    pub(super) fn height_doubt(&self) -> f64 {
        match (self.radius, self.face) {
            (Some(_), _) => 0.0,
            (None, Some(Face::Sidewall)) => 10.0,
            (None, Some(Face::Shoulder)) => 8.0,
            (None, Some(Face::Flange)) => 5.0,
            (None, Some(Face::Nearest) | None) => match self.feature.facts().met_at {
                MetAt::Nearest => 0.0,
                MetAt::Shoulder | MetAt::InnerFlange => 12.0,
                MetAt::Sidewall => 20.0,
            },
        }
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

/// Where a part that is read at a place nobody noted usually is, above the axle. Estimates.
fn usual_height(feature: Feature, outline: &Outline, fitted: &Setup) -> Option<f64> {
    let crown = outline.crown();
    let flange = flange_top(fitted)?;
    match feature.facts().met_at {
        MetAt::Nearest => None,
        MetAt::Shoulder => Some(SHOULDER_AT * crown),
        MetAt::InnerFlange => Some(flange - 6.0),
        MetAt::Sidewall => Some(flange + 0.6 * (crown - flange)),
    }
}

impl Corner {
    /// Whether anything of the fitted tire is known beyond its size.
    pub(crate) fn is_fitted_tire_measured(&self) -> bool {
        self.fitted_section.is_some() || self.tread_depth_mm.is_some()
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
    pub(super) fn obstacle(
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
            shape: place,
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
        let height = noted.or(of_face).or(usual);
        // What moves with the wheel leans with it.
        let camber = if feature.carrier() == Carrier::Body { self.camber() } else { 0.0 };
        let lean = match height.filter(|_| feature.facts().shape == ShapeKind::Edge) {
            Some(height) => {
                let lean = Lean::of(cut.nominal(), height);
                lean.is_on(cut.nominal(), height)?;
                lean
            }
            None => Lean::default(),
        };
        let by = |outline: &Outline, camber: f64, height: Option<f64>| {
            let fitted = Fitted { setup: fitted, outline, center, camber, lean };
            fitted.place(reading, height)
        };
        let place = by(cut.nominal(), camber, height)?;
        let plus_minus = reading.plus_minus.as_mm();
        // Inside of the barrel no tire and no flange is met: what of them may be off plays no part.
        if feature.is_of_the_brake() {
            let gap = Some([-plus_minus, plus_minus]);
            return Ok((place, Some(ReferenceGeometry { gap, ..ReferenceGeometry::default() })));
        }
        // A strut is named where it is nearest: all are compared at one height.
        let along = |other: Result<ObstacleShape, CannotBe>| {
            other.map_or(0.0, |other| {
                let there = place.height().and_then(|height| other.at_height(height));
                there.unwrap_or(other.along()) - place.along()
            })
        };
        let otherwise = |outline: &Outline, camber: f64| Sensitivity {
            along: along(by(outline, camber, height)),
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
        let read_as = |off: f64| {
            let reading = Reading { gap: reading.gap + Length::mm(off), ..*reading };
            let fitted = Fitted { setup: fitted, outline: cut.nominal(), center, camber, lean };
            fitted.place(&reading, height).ok().map(|other| along(Ok(other)))
        };
        against.gap = read_as(-plus_minus).zip(read_as(plus_minus)).map(|(less, more)| [less, more]);
        if let Some(height) = place.height().filter(|_| place.is_met_at_its_height()) {
            let off = if noted.is_some() { HEIGHT_PLUS_MINUS_MM } else { reading.height_doubt() };
            let at = |share: f64| along(by(cut.nominal(), camber, Some(height + share * off)));
            // Read level from the innermost of all these heights, it is the same place whichever it was.
            let is_of_all = reading.direction == Some(Direction::Level) && noted.is_none();
            let at = |share: f64| if is_of_all { 0.0 } else { at(share) };
            against.read_at = Some((off, AlongTheRange::of(at)));
        }
        if matches!(place, ObstacleShape::Edge { .. }) {
            let leaning = |share: f64| {
                let lean = Lean { deg: lean.deg + share * lean.off_deg, ..lean };
                let fitted = Fitted { setup: fitted, outline: cut.nominal(), center, camber, lean };
                along(fitted.place(reading, height))
            };
            against.lean = Some((lean.off_deg, AlongTheRange::of(leaning)));
        }
        Ok((place, Some(against)))
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
