//! From one reading to the place of its part.
//!
//! A reading against the fitted wheel fixes where the part is; from then on any setup can be tried against it.

use super::feature::{BlocksFrom, MetAt};
use super::obstacle::{
    CAMBER_STEP_DEG, Faces, HEIGHT_PLUS_MINUS_MM, NEW_TREAD_MM, Obstacle, ReferenceGeometry, Sensitivity,
    Trouble, TroubleKind,
};
use super::shape::{CannotBe, Fitted, ObstacleShape};
use super::{Carrier, Corner, Face, Feature, Reading, Suspension};
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
