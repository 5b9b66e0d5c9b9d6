//! A wheel's inside: barrel and spoke back, in wheel coordinates.

use super::{Profile, ProfileError};
use crate::car::section::rim::inner_profile;
use crate::parts::wheel::Wheel;
use crate::values::coded::coded;

/// Where a profile comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum ProfileSource {
    /// A template: the maker's drawing, or cut and measured.
    Template,
    /// Read point by point in the bay.
    Readings,
    /// Drawn from rim code, width and offset alone.
    Estimate,
}

coded!(ProfileSource: Template = "template", Readings = "readings", Estimate = "estimate");

/// How far an estimated inside may be off, either way, in millimetres. A judgement of ours: makers' barrels and spokes
/// differ by about that much at one rim code.
const ESTIMATE_PLUS_MINUS_MM: f64 = 4.0;

/// The inside of a wheel.
///
/// # Frame
/// Wheel coordinates: y = 0 at the mounting pad, + outboard; millimetres.
#[derive(Debug, Clone, PartialEq)]
pub struct WheelProfile {
    /// Barrel inside, from the inboard edge to where the spokes begin.
    pub barrel: Profile,
    /// Back of the spokes, from the barrel down to the pad.
    pub spoke_back: Profile,
    /// Where it comes from.
    pub source: ProfileSource,
    /// How far it may be off, either way.
    pub plus_minus_mm: f64,
}

impl WheelProfile {
    /// Drawn from the size; `None` while the offset is not stated. The barrel follows the rim's standard contour with the
    /// usual metal under it; the spokes are schematic.
    ///
    /// # Source
    /// ISO 4000-2 contours (from memory) and `ESTIMATE_PLUS_MINUS_MM`.
    pub fn estimated(wheel: &Wheel) -> Option<Self> {
        let (barrel, spoke_back) = inner_profile(wheel)?;
        let profile = |points: Vec<crate::car::section::Point>| -> Result<Profile, ProfileError> {
            Profile::new(points.into_iter().map(|point| (point.y, point.r)))
        };
        Some(Self {
            barrel: profile(barrel).ok()?,
            spoke_back: profile(spoke_back).ok()?,
            source: ProfileSource::Estimate,
            plus_minus_mm: ESTIMATE_PLUS_MINUS_MM,
        })
    }

    /// Stick-on weights on the barrel: the barrel between two places, that much nearer to the axis. `None` where the
    /// barrel has nothing between them.
    ///
    /// # Frame
    /// Wheel coordinates; `height_mm` is about 4 to 5 (common practice).
    pub fn weights(&self, from_y: f64, to_y: f64, height_mm: f64) -> Option<Profile> {
        let (from, to) = (from_y.min(to_y), from_y.max(to_y));
        let mut points = Vec::new();
        for (a, b) in self.barrel.segments() {
            let along = b.y - a.y;
            let at = |y: f64| if along == 0.0 { a.r } else { a.r + (b.r - a.r) * (y - a.y) / along };
            let (low, high) = (a.y.min(b.y).max(from), a.y.max(b.y).min(to));
            if low > high {
                continue;
            }
            let ends = if along >= 0.0 { [low, high] } else { [high, low] };
            points.extend(ends.map(|y| (y, (at(y) - height_mm).max(0.0))));
        }
        Profile::new(points).ok()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn estimated(size: &str) -> WheelProfile {
        let setup: crate::Setup = size.parse().unwrap();
        WheelProfile::estimated(&setup.wheel.unwrap()).unwrap()
    }

    #[test]
    fn an_inch_less_rim_is_half_an_inch_less_radius() {
        // Common practice: one inch less rim is 12.7 mm less radius all round.
        let (large, small) = (estimated("18x8 ET40"), estimated("17x8 ET40"));
        for (a, b) in large.barrel.points().iter().zip(small.barrel.points()) {
            assert!((a.y - b.y).abs() < 1e-9 && (a.r - b.r - 12.7).abs() < 1e-9, "{a:?} {b:?}");
        }
        assert_eq!(large.source, ProfileSource::Estimate);
    }

    #[test]
    fn the_spokes_lead_from_the_barrel_to_the_pad() {
        let wheel = estimated("18x8.5 ET35");
        let (first, last) = (wheel.spoke_back.points()[0], wheel.spoke_back.points().last().unwrap());
        assert!(first.r > last.r && last.y == 0.0, "{first:?} {last:?}");
        let end = wheel.barrel.points().last().unwrap();
        assert!(
            (end.y - first.y).abs() < 30.0 && (end.r - first.r).abs() < 30.0,
            "they meet: {end:?} {first:?}"
        );
    }

    #[test]
    fn weights_stand_as_high_as_they_are_where_they_are() {
        let wheel = estimated("18x8 ET40");
        let weights = wheel.weights(-60.0, -40.0, 4.5).unwrap();
        assert!(weights.points().iter().all(|point| (-60.0..=-40.0).contains(&point.y)));
        let over = |y: f64, profile: &Profile| {
            profile
                .segments()
                .filter(|(a, b)| a.y.min(b.y) <= y && y <= a.y.max(b.y) && a.y != b.y)
                .map(|(a, b)| a.r + (b.r - a.r) * (y - a.y) / (b.y - a.y))
                .fold(f64::INFINITY, f64::min)
        };
        assert!((over(-50.0, &wheel.barrel) - over(-50.0, &weights) - 4.5).abs() < 1e-9);
        assert!(wheel.weights(300.0, 320.0, 4.5).is_none(), "no barrel there");
    }
}
