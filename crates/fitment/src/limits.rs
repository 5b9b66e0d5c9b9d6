//! The house's limits: judgements of the trade that a shop may change. Each verdict names the one it used.

use crate::length::Length;
use crate::working::Source;

/// Which axles the engine drives.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Drive {
    /// Front axle.
    Front,
    /// Rear axle.
    Rear,
    /// Both axles.
    All,
}

/// One shop's limits.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HouseLimits {
    /// Change of overall diameter that counts as ideal, in per cent.
    pub diameter_ideal_pct: f64,
    /// … as good.
    pub diameter_good_pct: f64,
    /// … as the limit.
    pub diameter_limit_pct: f64,
    /// Drift of the front-to-rear diameter ratio allowed on all-wheel drive, in per cent.
    pub ratio_all_wheel_drive_pct: f64,
    /// … on two-wheel drive.
    pub ratio_two_wheel_drive_pct: f64,
    /// Least gap between tire or rim and strut.
    pub strut_gap: Length,
    /// Least gap sideways to the fender lip.
    pub fender_gap: Length,
    /// Least gap upward to the arch on a street car.
    pub arch_gap: Length,
    /// Least gap to a suspension arm.
    pub arm_gap: Length,
    /// Least gap to liner, sill, frame or sway bar at full lock.
    pub lock_gap: Length,
    /// Least gap between caliper and barrel.
    pub caliper_radial_gap: Length,
    /// Least gap between caliper and spokes.
    pub caliper_face_gap: Length,
    /// How level with the fender line counts as flush, either way.
    pub flush_within: Length,
    /// From this age in years on a used tire is called old.
    pub tire_age_years: f64,
}

impl HouseLimits {
    /// Where the defaults come from.
    pub const SOURCE: Source = Source::common_practice("house limit, common practice");

    /// The defaults, every one common practice.
    pub const DEFAULT: Self = Self {
        diameter_ideal_pct: 1.0,
        diameter_good_pct: 2.0,
        diameter_limit_pct: 3.0,
        ratio_all_wheel_drive_pct: 1.0,
        ratio_two_wheel_drive_pct: 2.5,
        strut_gap: Length::mm(5.0),
        fender_gap: Length::mm(3.0),
        arch_gap: Length::mm(25.0),
        arm_gap: Length::mm(5.0),
        lock_gap: Length::mm(5.0),
        caliper_radial_gap: Length::mm(3.0),
        caliper_face_gap: Length::mm(3.0),
        flush_within: Length::mm(3.0),
        tire_age_years: 6.0,
    };

    /// The allowed drift of the front-to-rear ratio. While the drive is unknown the stricter limit holds.
    pub fn ratio_pct(&self, drive: Option<Drive>) -> f64 {
        match drive {
            Some(Drive::Front | Drive::Rear) => self.ratio_two_wheel_drive_pct,
            Some(Drive::All) => self.ratio_all_wheel_drive_pct,
            None => self.ratio_all_wheel_drive_pct.min(self.ratio_two_wheel_drive_pct),
        }
    }
}

impl Default for HouseLimits {
    fn default() -> Self {
        Self::DEFAULT
    }
}
