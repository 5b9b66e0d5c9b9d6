//! The house's limits: judgements of the trade that a shop may change. Each verdict names the one it used.

use crate::values::coded::coded;
use crate::values::length::Length;
use crate::values::working::Source;

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

coded!(Drive: Front = "fwd", Rear = "rwd", All = "awd");

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
    /// … on a car that was lowered: stiff springs, less travel.
    pub arch_gap_lowered: Length,
    /// Least gap to a suspension arm.
    pub arm_gap: Length,
    /// Least gap to liner, sill, frame or sway bar at full lock.
    pub lock_gap: Length,
    /// How much nearer body and bushings come under load than the pose says, beside lip, arch and liner.
    pub compliance: Length,
    /// Least gap between caliper and barrel.
    pub caliper_radial_gap: Length,
    /// Least gap between caliper and spokes.
    pub caliper_face_gap: Length,
    /// How level with the fender line counts as flush, either way.
    pub flush_within: Length,
    /// How far the front share of the tread width may drift, in per cent of the whole. A judgement of ours.
    pub balance_pct: f64,
    /// From this age in years on a used tire is called old.
    pub tire_age_years: f64,
    /// Days after which wheels of the track are looked over again.
    pub inspect_wheels_days: f64,
    /// … runs.
    pub inspect_wheels_runs: f64,
    /// Days after which their true running is measured again.
    pub inspect_true_running_days: f64,
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
        arch_gap_lowered: Length::mm(40.0),
        arm_gap: Length::mm(5.0),
        lock_gap: Length::mm(5.0),
        // 3 ± 2 mm; estimate.
        compliance: Length::mm(5.0),
        caliper_radial_gap: Length::mm(3.0),
        caliper_face_gap: Length::mm(3.0),
        flush_within: Length::mm(3.0),
        balance_pct: 1.0,
        tire_age_years: 6.0,
        inspect_wheels_days: 180.0,
        inspect_wheels_runs: 20.0,
        inspect_true_running_days: 365.0,
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

/// A limit as it is listed, edited and named on the wire.
#[derive(Debug, Clone, Copy)]
pub struct LimitFacts {
    /// Its code, unit-suffixed.
    pub code: &'static str,
    /// What it limits.
    pub title: &'static str,
    /// Unit of the number: `mm`, `%`, `years`, `days` or `runs`.
    pub unit: &'static str,
    /// Least and most that a shop may set.
    pub range: (f64, f64),
    get: fn(&HouseLimits) -> f64,
    set: fn(&mut HouseLimits, f64),
}

/// Why a limit cannot be set so.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum LimitError {
    /// No such limit.
    #[error("there is no house limit {0:?}")]
    NoSuchLimit(String),
    /// Out of range.
    #[error("{title} goes from {least} to {most} {unit}, not {value}")]
    Range {
        /// What it limits.
        title: &'static str,
        /// Least.
        least: f64,
        /// Most.
        most: f64,
        /// Unit.
        unit: &'static str,
        /// What was asked.
        value: f64,
    },
}

macro_rules! limit {
    ($code:literal, $title:literal, $range:expr, $field:ident) => {
        LimitFacts {
            code: $code,
            title: $title,
            unit: "mm",
            range: $range,
            get: |limits| limits.$field.as_mm(),
            set: |limits, value| limits.$field = Length::mm(value),
        }
    };
    ($code:literal, $title:literal, $unit:literal, $range:expr, $field:ident) => {
        LimitFacts {
            code: $code,
            title: $title,
            unit: $unit,
            range: $range,
            get: |limits| limits.$field,
            set: |limits, value| limits.$field = value,
        }
    };
}

/// Every limit a shop may change, in the order they are listed.
pub const LIMITS: &[LimitFacts] = &[
    limit!("strut_mm", "gap to strut, spring perch and knuckle", (0.0, 40.0), strut_gap),
    limit!("arm_mm", "gap to a suspension arm", (0.0, 40.0), arm_gap),
    limit!("fender_lateral_mm", "gap sideways to the fender lip", (0.0, 40.0), fender_gap),
    limit!("arch_mm", "gap upward to the arch, street car", (0.0, 150.0), arch_gap),
    limit!("arch_lowered_mm", "gap upward to the arch, lowered", (0.0, 150.0), arch_gap_lowered),
    limit!("lock_mm", "gap to liner, sill, frame and sway bar", (0.0, 60.0), lock_gap),
    limit!("compliance_mm", "what body and bushings give under load", (0.0, 20.0), compliance),
    limit!("caliper_radial_mm", "gap between caliper and barrel", (0.0, 20.0), caliper_radial_gap),
    limit!("caliper_face_mm", "gap between caliper and spokes", (0.0, 20.0), caliper_face_gap),
    limit!("flush_within_mm", "how level with the fender line counts as flush", (0.0, 20.0), flush_within),
    limit!(
        "diameter_ideal_pct",
        "change of overall diameter called ideal",
        "%",
        (0.0, 10.0),
        diameter_ideal_pct
    ),
    limit!(
        "diameter_good_pct",
        "change of overall diameter called good",
        "%",
        (0.0, 10.0),
        diameter_good_pct
    ),
    limit!(
        "diameter_limit_pct",
        "change of overall diameter at the limit",
        "%",
        (0.0, 15.0),
        diameter_limit_pct
    ),
    limit!(
        "ratio_awd_pct",
        "front against rear, all-wheel drive",
        "%",
        (0.0, 10.0),
        ratio_all_wheel_drive_pct
    ),
    limit!(
        "ratio_2wd_pct",
        "front against rear, two-wheel drive",
        "%",
        (0.0, 10.0),
        ratio_two_wheel_drive_pct
    ),
    limit!("balance_pct", "drift of the front share of the tread", "%", (0.0, 10.0), balance_pct),
    limit!("tire_age_years", "age of a used tire called old", "years", (1.0, 20.0), tire_age_years),
    limit!(
        "inspect_days",
        "wheels of the track looked over, every",
        "days",
        (1.0, 1000.0),
        inspect_wheels_days
    ),
    limit!(
        "inspect_runs",
        "wheels of the track looked over, every",
        "runs",
        (1.0, 1000.0),
        inspect_wheels_runs
    ),
    limit!(
        "inspect_true_days",
        "true running of the wheels measured, every",
        "days",
        (1.0, 2000.0),
        inspect_true_running_days
    ),
];

impl LimitFacts {
    /// The limit's value in its unit.
    pub fn of(&self, limits: &HouseLimits) -> f64 {
        (self.get)(limits)
    }
}

impl HouseLimits {
    /// Sets a limit by its code.
    ///
    /// # Errors
    /// When there is no such limit, or the value is out of its range; nothing is changed then.
    pub fn set(&mut self, code: &str, value: f64) -> Result<(), LimitError> {
        let limit = LIMITS
            .iter()
            .find(|limit| limit.code == code)
            .ok_or_else(|| LimitError::NoSuchLimit(code.to_owned()))?;
        let (least, most) = limit.range;
        if !(least..=most).contains(&value) {
            return Err(LimitError::Range { title: limit.title, least, most, unit: limit.unit, value });
        }
        (limit.set)(self, value);
        Ok(())
    }
}

impl Default for HouseLimits {
    fn default() -> Self {
        Self::DEFAULT
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_limit_is_read_back_as_it_was_set() {
        let mut limits = HouseLimits::DEFAULT;
        for (at, limit) in LIMITS.iter().enumerate() {
            assert!(LIMITS[..at].iter().all(|other| other.code != limit.code), "{} twice", limit.code);
            let (least, most) = limit.range;
            assert!((least..=most).contains(&limit.of(&limits)), "{}: the default is in range", limit.code);
            limits.set(limit.code, most).unwrap();
            assert_eq!(limit.of(&limits), most, "{}", limit.code);
            let before = limits;
            for bad in [most + 1.0, least - 1.0, f64::NAN, f64::INFINITY] {
                assert!(matches!(limits.set(limit.code, bad), Err(LimitError::Range { .. })));
            }
            assert_eq!(limits, before);
        }
        assert_eq!(limits.set("luck_mm", 1.0), Err(LimitError::NoSuchLimit("luck_mm".to_owned())));
    }

    #[test]
    fn the_defaults_are_the_trades() {
        // Common practice, no source: see the domain notes on house limits.
        let limits = HouseLimits::DEFAULT;
        let of = |code: &str| LIMITS.iter().find(|limit| limit.code == code).unwrap().of(&limits);
        for (code, value) in [
            ("strut_mm", 5.0),
            ("fender_lateral_mm", 3.0),
            ("arch_mm", 25.0),
            ("caliper_radial_mm", 3.0),
            ("caliper_face_mm", 3.0),
            ("flush_within_mm", 3.0),
            ("ratio_awd_pct", 1.0),
            ("ratio_2wd_pct", 2.5),
        ] {
            assert_eq!(of(code), value, "{code}");
        }
    }
}
