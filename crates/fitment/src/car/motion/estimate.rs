//! What is taken for a kind of suspension of which nothing was measured. Typical passenger cars, from memory.

use super::{Reach, Steering, Travel};
use crate::values::coded::coded;
use crate::values::working::Source;

/// How a wheel is carried.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub enum SuspensionKind {
    /// A strut that steers with the upright.
    #[default]
    Strut,
    /// Two wishbones.
    DoubleWishbone,
    /// Several links round a virtual axis.
    MultiLink,
    /// A light truck's wishbones, with torsion bars or coil-overs.
    LightTruck,
    /// An axle in one piece.
    SolidAxle,
}

coded!(SuspensionKind:
    Strut = "strut",
    DoubleWishbone = "double_wishbone",
    MultiLink = "multi_link",
    LightTruck = "light_truck",
    SolidAxle = "solid_axle",
);

/// Where the figures come from.
pub const SOURCE: Source = Source::estimate("typical of the kind of suspension; from memory");

/// Locks while nobody has measured them: front edge outboard, inboard, in degrees. Estimate.
pub const USUAL_LOCKS_DEG: (f64, f64) = (38.0, 31.0);

impl SuspensionKind {
    /// In the trade's words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Strut => "strut",
            Self::DoubleWishbone => "double wishbone",
            Self::MultiLink => "multi-link",
            Self::LightTruck => "light truck wishbones",
            Self::SolidAxle => "solid axle",
        }
    }

    /// Its usual steering with a wheel of this loaded radius. The trail is that of an axis through the wheel's centre.
    pub fn steering(self, loaded_radius: f64) -> Steering {
        let (inclination_deg, caster_deg, scrub_radius_mm) = match self {
            Self::Strut => (13.0, 5.0, -5.0),
            Self::DoubleWishbone => (9.0, 6.0, 5.0),
            Self::MultiLink => (7.0, 7.0, 0.0),
            Self::LightTruck => (10.0, 3.0, 20.0),
            Self::SolidAxle => (8.0, 4.0, 20.0),
        };
        Steering {
            inclination_deg,
            caster_deg,
            scrub_radius_mm,
            trail_mm: loaded_radius * f64::to_radians(caster_deg).tan(),
            lock_outward_deg: USUAL_LOCKS_DEG.0,
            lock_inward_deg: USUAL_LOCKS_DEG.1,
        }
    }

    /// Its usual travel left, in bump and in droop, and its camber gain.
    pub fn travel(self) -> Travel {
        let camber_gain_deg_per_mm = match self {
            Self::Strut => -0.020,
            Self::DoubleWishbone | Self::LightTruck => -0.030,
            Self::MultiLink => -0.025,
            Self::SolidAxle => 0.0,
        };
        let (bump_mm, droop_mm) = match self {
            Self::LightTruck | Self::SolidAxle => (110.0, 120.0),
            _ => (80.0, 90.0),
        };
        Travel { bump_mm, droop_mm, camber_gain_deg_per_mm }
    }

    /// How far an axle of it reaches that steers, or does not.
    pub fn reach(self, steers: bool) -> Reach {
        let Travel { bump_mm, droop_mm, .. } = self.travel();
        let (outward_deg, inward_deg) = if steers { USUAL_LOCKS_DEG } else { (0.0, 0.0) };
        Reach { outward_deg, inward_deg, bump_mm, droop_mm }
    }
}

/// Least bump travel that is reckoned with, whatever a lowering took. Estimate.
const LEAST_BUMP_MM: f64 = 25.0;

/// The bump travel left after a lowering: the stop is where it was.
pub fn bump_after_lowering(bump_mm: f64, lowered_mm: f64) -> f64 {
    (bump_mm - lowered_mm.max(0.0)).max(bump_mm.min(LEAST_BUMP_MM))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_kind_has_figures_that_a_car_can_have() {
        for kind in SuspensionKind::ALL {
            assert!(
                kind.steering(300.0).faults().is_empty() && kind.travel().faults().is_empty(),
                "{kind:?}"
            );
            assert_eq!(SuspensionKind::from_code(kind.code()), Some(*kind));
        }
        assert_eq!(bump_after_lowering(80.0, 30.0), 50.0);
        assert_eq!((bump_after_lowering(80.0, 70.0), bump_after_lowering(20.0, 10.0)), (25.0, 20.0));
        assert_eq!(bump_after_lowering(80.0, -50.0), 80.0, "a lift leaves the stop where it was");
    }
}
