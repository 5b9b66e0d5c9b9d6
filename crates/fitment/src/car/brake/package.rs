//! What stands inside the barrel on one corner, and what readings on the fitted wheel say of it.

use super::{Profile, ProfileSource, WheelProfile, gap::gaps};
use crate::values::coded::coded;

/// A part that stands inside the barrel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum BrakePart {
    /// Caliper with its bracket, and the disc.
    Caliper,
    /// Knuckle.
    Knuckle,
    /// A link or arm.
    Link,
    /// Parking brake and its cable.
    ParkingBrake,
}

coded!(BrakePart: Caliper = "caliper", Knuckle = "knuckle", Link = "link", ParkingBrake = "parking_brake");

impl BrakePart {
    /// Its name, in a sentence's middle.
    pub fn title(self) -> &'static str {
        match self {
            Self::Caliper => "caliper",
            Self::Knuckle => "knuckle",
            Self::Link => "link",
            Self::ParkingBrake => "parking brake",
        }
    }
}

/// A part's profile in the corner's frame.
#[derive(Debug, Clone, PartialEq)]
pub struct Template {
    /// Which part.
    pub part: BrakePart,
    /// Its outline, or what of it can meet a wheel.
    pub profile: Profile,
    /// Where it comes from.
    pub source: ProfileSource,
    /// How far it may be off, either way, in millimetres.
    pub plus_minus_mm: f64,
}

/// What stands inside the barrel on one corner.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Package {
    /// Its parts.
    pub templates: Vec<Template>,
}

/// What a gap on another wheel must lie between, by a gap that was read on the fitted one.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bound {
    /// At least so much.
    pub least_mm: f64,
    /// At most so much.
    pub most_mm: f64,
}

/// What gaps read on the fitted wheel say of another wheel, without any template of the brake.
///
/// Let g be the smallest radial gap under the fitted barrel: the brake keeps at least g everywhere, and exactly g somewhere.
/// Another barrel stands further out by some amount that differs from place to place, so the gap under it lies between g plus the
/// least of that and g plus the most. Spokes are treated the same way, along the axis. `None` where nothing was read, or the two wheels never lie side by side.
///
/// # Units
/// Gaps and spacers in millimetres; the pair is radial and axial.
///
/// # Source
/// Geometry.
pub fn bounds_from_fitted(
    fitted: (&WheelProfile, f64),
    read_mm: (Option<f64>, Option<f64>),
    other: (&WheelProfile, f64),
) -> (Option<Bound>, Option<Bound>) {
    let (radial_mm, axial_mm) = read_mm;
    let between = |near: &Profile, far: &Profile, is_radial: bool| -> Option<Bound> {
        // The gap of a line to a line is the least difference; turned about it is the negative of the most.
        let wheel = |profile: &Profile| WheelProfile {
            barrel: profile.clone(),
            spoke_back: profile.clone(),
            source: ProfileSource::Estimate,
            plus_minus_mm: 0.0,
        };
        let (there, back) = (gaps(near, &wheel(far), 0.0), gaps(far, &wheel(near), 0.0));
        let pick = |found: super::Gaps| if is_radial { found.radial } else { found.axial };
        Some(Bound { least_mm: pick(there)?.mm, most_mm: -pick(back)?.mm })
    };
    let moved =
        |(wheel, spacer): (&WheelProfile, f64)| (wheel.barrel.moved(spacer), wheel.spoke_back.moved(spacer));
    let (own, its) = (moved(fitted), moved(other));
    let add =
        |bound: Bound, read: f64| Bound { least_mm: bound.least_mm + read, most_mm: bound.most_mm + read };
    (
        radial_mm.and_then(|read| Some(add(between(&own.0, &its.0, true)?, read))),
        axial_mm.and_then(|read| Some(add(between(&own.1, &its.1, false)?, read))),
    )
}

#[cfg(test)]
mod tests {
    use super::*;

    fn wheel(size: &str) -> WheelProfile {
        let setup: crate::Setup = size.parse().unwrap();
        WheelProfile::estimated(&setup.wheel.unwrap()).unwrap()
    }

    #[test]
    fn a_gap_on_the_fitted_wheel_bounds_the_next_rim_down() {
        // Common practice: an inch less rim takes half an inch all round: 9.5 − 12.7 is an overlap of 3.2 mm.
        let (fitted, smaller) = (wheel("18x8 ET50"), wheel("17x8 ET50"));
        let (radial, axial) = bounds_from_fitted((&fitted, 0.0), (Some(9.5), None), (&smaller, 0.0));
        let radial = radial.unwrap();
        // The same contour half an inch lower: where it steps, the two stand further apart than that.
        assert!((radial.least_mm + 3.2).abs() < 1e-9 || radial.least_mm < -3.2, "{radial:?}");
        assert_eq!(axial, None, "nothing was read there");
        let same = bounds_from_fitted((&fitted, 0.0), (Some(9.5), Some(6.0)), (&fitted, 0.0));
        assert!((same.0.unwrap().least_mm - 9.5).abs() < 15.0);
    }

    #[test]
    fn a_spacer_adds_its_thickness_to_flat_spokes() {
        let flat = WheelProfile {
            barrel: Profile::new([(-100.0, 200.0), (30.0, 200.0)]).unwrap(),
            spoke_back: Profile::new([(20.0, 200.0), (20.0, 80.0)]).unwrap(),
            source: ProfileSource::Template,
            plus_minus_mm: 0.0,
        };
        let (radial, axial) = bounds_from_fitted((&flat, 0.0), (Some(5.0), Some(2.0)), (&flat, 3.0));
        assert_eq!(radial, Some(Bound { least_mm: 5.0, most_mm: 5.0 }));
        assert_eq!(axial, Some(Bound { least_mm: 5.0, most_mm: 5.0 }));
    }
}
