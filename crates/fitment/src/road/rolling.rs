//! What a changed wheel and tire does once it rolls: speed over engine speed in each gear, the effective final drive,
//! crawl and pull, and the mass that must be turned.
//!
//! Rolling circumference is 3.05 × the overall diameter for every tire (ETRTO's F for radials; memory): ratios between two
//! tires do not depend on it.

use crate::values::length::Length;
use crate::values::working::Source;

pub use crate::parts::tire::dimensions::ROLLING_FACTOR;
/// Where it comes from.
pub const ROLLING_SOURCE: Source =
    Source::from_memory("ETRTO: rolling circumference 3.05 × overall diameter, radial");

/// The driveline, as far as somebody knows it. Ratios are engine turns to output turns.
#[derive(Debug, Clone, PartialEq)]
pub struct Driveline {
    /// Gears, first to top, each higher than the next.
    pub ratios: Vec<f64>,
    /// Final drive.
    pub final_drive: f64,
    /// Low range of a transfer case.
    pub low_range: Option<f64>,
    /// Engine speed at which the engine is limited, in turns a minute.
    pub limiter_rpm: f64,
}

/// What of a driveline cannot be.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum DrivelineError {
    /// No gear, or more than any gearbox has.
    #[error("a gearbox has 1 to {MOST_GEARS} gears, not {0}")]
    Count(usize),
    /// A ratio out of what is built.
    #[error("{what} goes from {least} to {most}, not {given}")]
    Range {
        /// Which one.
        what: &'static str,
        /// Least.
        least: f64,
        /// Most.
        most: f64,
        /// What was given.
        given: f64,
    },
    /// A gear that is not longer than the one before it.
    #[error(
        "gear {at} with {given} is not longer than the one before it with {before}: write them first to top"
    )]
    Order {
        /// Which gear, counted from 1.
        at: usize,
        /// Its ratio.
        given: f64,
        /// The ratio before it.
        before: f64,
    },
}

/// Gears of a gearbox at most.
pub const MOST_GEARS: usize = 12;

impl Driveline {
    /// Checks it.
    ///
    /// # Errors
    /// The first thing that cannot be.
    pub fn checked(self) -> Result<Self, DrivelineError> {
        let within = |what, given: f64, least, most| {
            let fits = given.is_finite() && (least..=most).contains(&given);
            if fits { Ok(()) } else { Err(DrivelineError::Range { what, least, most, given }) }
        };
        if self.ratios.is_empty() || self.ratios.len() > MOST_GEARS {
            return Err(DrivelineError::Count(self.ratios.len()));
        }
        for (at, ratio) in self.ratios.iter().enumerate() {
            within("a gear's ratio", *ratio, 0.2, 15.0)?;
            let before = at.checked_sub(1).map_or(f64::INFINITY, |before| self.ratios[before]);
            if *ratio >= before {
                return Err(DrivelineError::Order { at: at + 1, given: *ratio, before });
            }
        }
        within("the final drive", self.final_drive, 1.0, 12.0)?;
        if let Some(low) = self.low_range {
            within("low range", low, 1.0, 8.0)?;
        }
        within("the limiter", self.limiter_rpm, 500.0, 25_000.0)?;
        Ok(self)
    }
}

/// Rolling circumference of a tire.
pub fn rolling_circumference(overall_diameter: Length) -> Length {
    overall_diameter * ROLLING_FACTOR
}

/// Road speed at an engine speed: v = n / 60 × C / (i gear × i final), in km/h.
pub fn speed_kmh(engine_rpm: f64, circumference: Length, ratio: f64, final_drive: f64) -> f64 {
    engine_rpm / 60.0 * (circumference.as_mm() / 1000.0) / (ratio * final_drive) * 3.6
}

/// Engine speed at a road speed, the other way round, in turns a minute.
pub fn engine_rpm(speed_kmh: f64, circumference: Length, ratio: f64, final_drive: f64) -> f64 {
    speed_kmh / 3.6 / (circumference.as_mm() / 1000.0) * ratio * final_drive * 60.0
}

/// Change of the force at the road at a given torque, in per cent: it goes with 1 / radius.
pub fn tractive_effort_change_pct(reference: Length, planned: Length) -> f64 {
    (reference / planned - 1.0) * 100.0
}

/// Force at the road, in newtons, of a torque at the engine through a gear: F = M × i gear × i final × 2π / C. Losses are
/// not counted.
pub fn pull_n(torque_nm: f64, ratio: f64, final_drive: f64, circumference: Length) -> f64 {
    torque_nm * ratio * final_drive * std::f64::consts::TAU / (circumference.as_mm() / 1000.0)
}

/// One gear on a tire.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Gear {
    /// Its ratio.
    pub ratio: f64,
    /// Speed gained by a thousand turns a minute, in km/h.
    pub kmh_per_1000rpm: f64,
    /// Speed at the limiter, in km/h.
    pub limiter_kmh: f64,
}

/// A driveline on a tire.
#[derive(Debug, Clone, PartialEq)]
pub struct Gearing {
    /// True speed over shown: OD new / OD reference.
    pub true_speed_ratio: f64,
    /// The final drive that the reference tire would need for the same: final × OD reference / OD new.
    pub effective_final: f64,
    /// Gear by gear.
    pub gears: Vec<Gear>,
    /// Engine speed at the cruise in top gear, in turns a minute.
    pub cruise_rpm: f64,
    /// First × low range × final; the converter is not counted. `None` without a low range.
    pub crawl_ratio: Option<f64>,
    /// Change of the force at the road at a given torque, in per cent: it goes with 1 / radius.
    pub tractive_effort_change_pct: f64,
}

/// A cruise that is compared when nobody names one, in km/h. Common practice.
pub const USUAL_CRUISE_KMH: f64 = 100.0;

impl Gearing {
    /// On the reference tire and on the plan's.
    pub fn on_both(driveline: &Driveline, reference: Length, planned: Length, cruise_kmh: f64) -> [Self; 2] {
        [reference, planned].map(|tire| Self::of(driveline, reference, tire, cruise_kmh))
    }

    /// Of a checked driveline; the reference is what the gearing is compared with.
    pub fn of(driveline: &Driveline, reference: Length, planned: Length, cruise_kmh: f64) -> Self {
        let circumference = rolling_circumference(planned);
        let (ratios, final_drive) = (&driveline.ratios, driveline.final_drive);
        let speed = |rpm, ratio| speed_kmh(rpm, circumference, ratio, final_drive);
        let top = ratios.last().copied().unwrap_or(1.0);
        let first = ratios.first().copied().unwrap_or(1.0);
        Self {
            true_speed_ratio: planned / reference,
            effective_final: final_drive * (reference / planned),
            gears: ratios
                .iter()
                .map(|ratio| Gear {
                    ratio: *ratio,
                    kmh_per_1000rpm: speed(1000.0, *ratio),
                    limiter_kmh: speed(driveline.limiter_rpm, *ratio),
                })
                .collect(),
            cruise_rpm: engine_rpm(cruise_kmh, circumference, top, final_drive),
            crawl_ratio: driveline.low_range.map(|low| first * low * final_drive),
            tractive_effort_change_pct: tractive_effort_change_pct(reference, planned),
        }
    }
}

/// Share of a tire's radius at which its mass turns, and of the rim's for a wheel. Estimates.
const TIRE_GYRATION: f64 = 0.90;
const WHEEL_GYRATION: f64 = 0.72;

/// Mass that one wheel with its tire is worth when it is accelerated: m + I / R², with I ≈ m tire (0.90 R)² + m wheel
/// (0.72 R rim)². Estimate.
pub fn equivalent_mass_kg(
    wheel_kg: f64,
    tire_kg: f64,
    overall_diameter: Length,
    rim_diameter: Length,
) -> f64 {
    let (r, rim) = (overall_diameter.as_mm() / 2.0, rim_diameter.as_mm() / 2.0);
    let inertia = tire_kg * (TIRE_GYRATION * r).powi(2) + wheel_kg * (WHEEL_GYRATION * rim).powi(2);
    wheel_kg + tire_kg + inertia / r.powi(2)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn driveline() -> Driveline {
        Driveline {
            ratios: vec![3.6, 2.1, 1.4, 1.05, 0.8],
            final_drive: 3.9,
            low_range: Some(2.5),
            limiter_rpm: 6500.0,
        }
    }

    #[test]
    fn the_worked_check_of_the_note() {
        // Top gear 0.80, final 3.90, circumference 1.95 m, 3 000 a minute: 112.5 km/h.
        let speed = speed_kmh(3000.0, Length::mm(1950.0), 0.8, 3.9);
        assert!((speed - 112.5).abs() < 1e-9, "{speed}");
        assert!((engine_rpm(speed, Length::mm(1950.0), 0.8, 3.9) - 3000.0).abs() < 1e-9);
    }

    #[test]
    fn a_taller_tire_lengthens_every_gear_by_its_ratio_and_takes_pull() {
        let (old, new) = (Length::mm(650.0), Length::mm(715.0));
        let before = Gearing::of(&driveline(), old, old, 100.0);
        let after = Gearing::of(&driveline(), old, new, 100.0);
        assert!((after.true_speed_ratio - 1.1).abs() < 1e-12);
        assert!((after.effective_final - 3.9 / 1.1).abs() < 1e-12);
        for (one, other) in before.gears.iter().zip(&after.gears) {
            assert!((other.kmh_per_1000rpm / one.kmh_per_1000rpm - 1.1).abs() < 1e-12);
            assert!((other.limiter_kmh - other.kmh_per_1000rpm * 6.5).abs() < 1e-9);
        }
        assert!((before.cruise_rpm / after.cruise_rpm - 1.1).abs() < 1e-12);
        assert!((after.tractive_effort_change_pct - (1.0 / 1.1 - 1.0) * 100.0).abs() < 1e-12);
        assert_eq!((before.tractive_effort_change_pct, after.crawl_ratio), (0.0, Some(3.6 * 2.5 * 3.9)));
    }

    #[test]
    fn pull_is_what_the_engine_turns_over_the_road() {
        // Work in is work out: 200 N·m over one turn of the engine is 1 256.6 J; the car goes C / (i × i final) meanwhile.
        let (c, ratio, last) = (Length::mm(2000.0), 3.6, 3.9);
        let pull = pull_n(200.0, ratio, last, c);
        assert!((pull * 2.0 / (ratio * last) - 200.0 * std::f64::consts::TAU).abs() < 1e-9, "{pull}");
    }

    #[test]
    fn a_driveline_that_cannot_be_is_refused_at_its_place() {
        let with = |change: fn(&mut Driveline)| {
            let mut one = driveline();
            change(&mut one);
            one.checked().map_err(|error| error.to_string())
        };
        assert!(with(|_| {}).is_ok());
        for (change, says) in [
            ((|one| one.ratios.swap(1, 2)) as fn(&mut Driveline), "gear 3"),
            (|one| one.ratios.clear(), "1 to 12 gears"),
            (|one| one.final_drive = 0.3, "final drive"),
            (|one| one.low_range = Some(30.0), "low range"),
            (|one| one.limiter_rpm = f64::NAN, "limiter"),
            (|one| one.ratios[0] = 99.0, "a gear's ratio"),
        ] {
            assert!(with(change).unwrap_err().contains(says), "{says}");
        }
    }

    #[test]
    fn a_hoop_counts_twice_and_a_lighter_wheel_under_a_heavier_tire_gains_nothing() {
        let (od, rim) = (Length::mm(650.0), Length::mm(18.0 * 25.4));
        // With all of it at the radius of gyration of the note.
        let kg = equivalent_mass_kg(0.0, 10.0, od, rim);
        assert!((kg - 18.1).abs() < 1e-9, "10 + 10 × 0.81: {kg}");
        let light = equivalent_mass_kg(8.0, 12.0, od, rim);
        let heavy = equivalent_mass_kg(9.0, 11.0, od, rim);
        assert!(light > heavy, "{light} {heavy}");
    }
}
