//! What the dial shows and what is true, and what the plan's figures on the road are taken of.

use crate::judgement::case::Case;
use crate::judgement::rules::dial::{IMPERIAL_SPEEDS_KMH, METRIC_SPEEDS_KMH, true_speed};
use crate::setup::Axle;
use crate::values::length::Length;

/// A shown speed with the true ones: against the factory's tire, and against what the car's computer believes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shown {
    /// On the dial, in km/h.
    pub shown_kmh: f64,
    /// By the reference set.
    pub true_kmh: f64,
    /// By what the computer believes; `None` while nobody read that.
    pub by_computer_kmh: Option<f64>,
    /// By the reference set with what the dial was measured to over-read on it; `None` while nobody measured that.
    pub measured_kmh: Option<f64>,
}

/// Dial speeds of a plan, metric and imperial signs.
pub fn dial(
    reference: Length,
    planned: Length,
    believed: Option<Length>,
    over_reads_pct: Option<f64>,
) -> ([Shown; 3], [Shown; 3]) {
    let at = |speeds: [f64; 3]| {
        speeds.map(|shown_kmh| Shown {
            shown_kmh,
            true_kmh: true_speed(shown_kmh, planned / reference),
            by_computer_kmh: believed.map(|believed| true_speed(shown_kmh, planned / believed)),
            measured_kmh: over_reads_pct
                .map(|pct| true_speed(shown_kmh / (1.0 + pct / 100.0), planned / reference)),
        })
    };
    (at(METRIC_SPEEDS_KMH), at(IMPERIAL_SPEEDS_KMH))
}

/// Kilometres driven for a hundred on the odometer: by what the computer believes, else by the reference.
///
/// ```
/// use fitment::{Length, road::dial::per_100_km};
/// let mm = |mm| Length::from_mm(mm).unwrap();
/// assert!((per_100_km(mm(650.0), mm(663.0), None) - 102.0).abs() < 1e-9);
/// ```
pub fn per_100_km(reference: Length, planned: Length, believed: Option<Length>) -> f64 {
    100.0 * (planned / believed.unwrap_or(reference))
}

/// Overall diameters of the axle the dial follows: reference and plan, as their lists measured them where they did.
pub fn diameters(case: &Case<'_>) -> Option<(Axle, Length, Length)> {
    let axle = case.speedometer_ratio().map_or(Axle::Front, |(axle, _)| axle);
    let reference = case.reference(axle)?.setup.overall_diameter()?;
    let planned = case.planned.on(axle).or(case.fitted.on(axle))?.overall_diameter()?;
    Some((axle, reference, planned))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn two_per_cent_taller_is_two_per_cent_faster_than_shown() {
        let mm = |value| Length::from_mm(value).unwrap();
        let ([_, at_100, _], _) = dial(mm(650.0), mm(663.0), Some(mm(663.0)), Some(4.0));
        assert_eq!(at_100.shown_kmh, 100.0);
        assert!((at_100.true_kmh - 102.0).abs() < 1e-9);
        // The computer was told: its dial is true. Measured to read 4 % too much, 100 is 102 / 1.04.
        assert!((at_100.by_computer_kmh.unwrap() - 100.0).abs() < 1e-9);
        assert!((at_100.measured_kmh.unwrap() - 102.0 / 1.04).abs() < 1e-9);
    }
}
