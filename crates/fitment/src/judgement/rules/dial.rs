//! What the dial shows after a change of overall diameter, and what the law asks of it.

use crate::values::working::{Figure, Quantity, Source, Step};

/// UN Regulation No. 39: the speed shown is never below the true one, and above it by a tenth of the true
/// speed plus 4 km/h at most.
pub const UN_R39: Source = Source::from_memory("UN R39: 0 ≤ V shown − V true ≤ V true / 10 + 4 km/h");

/// True speeds at which UN R39 has the dial tried, in km/h.
pub const UN_R39_TRIED_AT_KMH: [f64; 3] = [40.0, 80.0, 120.0];

/// Speeds that owners know from signs, in km/h.
pub const METRIC_SPEEDS_KMH: [f64; 3] = [50.0, 100.0, 130.0];

/// Kilometres in a statute mile, exact.
pub const KM_PER_MILE: f64 = 1.609_344;

/// 30, 60 and 80 mph.
pub const IMPERIAL_SPEEDS_KMH: [f64; 3] = [30.0 * KM_PER_MILE, 60.0 * KM_PER_MILE, 80.0 * KM_PER_MILE];

/// True speed when the dial shows a speed: indicated × OD new / OD old. The odometer follows likewise.
pub fn true_speed(indicated_kmh: f64, diameter_ratio: f64) -> f64 {
    indicated_kmh * diameter_ratio
}

/// [`true_speed`] with its working.
pub fn true_speed_worked(indicated_kmh: f64, diameter_ratio: f64) -> Figure {
    Figure::of(Step {
        what: "true speed",
        formula: "V true = V shown × OD new / OD old",
        inputs: vec![
            ("V shown", Quantity::speed(indicated_kmh)),
            ("OD new / OD old", Quantity::ratio(diameter_ratio)),
        ],
        result: Quantity::speed(true_speed(indicated_kmh, diameter_ratio)),
        source: Source::GEOMETRY,
    })
}

/// How a dial stands against UN R39.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DialAgainstR39 {
    /// Within it at every speed tried.
    Within,
    /// Shows less than the true speed.
    UnderReads,
    /// Shows more than the law's margin above it.
    OverReadsTooMuch,
}

/// Judges one pair of shown and true speed.
pub fn dial_against_r39(shown_kmh: f64, true_kmh: f64) -> DialAgainstR39 {
    let over = shown_kmh - true_kmh;
    if over < 0.0 {
        DialAgainstR39::UnderReads
    } else if over > true_kmh / 10.0 + 4.0 {
        DialAgainstR39::OverReadsTooMuch
    } else {
        DialAgainstR39::Within
    }
}

/// Judges a change of diameter at all the speeds tried, the dial taken as exact with the fitted tire.
///
/// Most dials leave the factory over-reading a little. How much this one does is measured, not assumed: the
/// answer is therefore the strict one.
pub fn change_against_r39(diameter_ratio: f64) -> DialAgainstR39 {
    UN_R39_TRIED_AT_KMH
        .into_iter()
        .map(|true_kmh| dial_against_r39(true_kmh / diameter_ratio, true_kmh))
        .find(|verdict| *verdict != DialAgainstR39::Within)
        .unwrap_or(DialAgainstR39::Within)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn five_per_cent_more_diameter_is_five_per_cent_more_speed() {
        // Arithmetic: the wheel turns as often and rolls 5 % further.
        assert!((true_speed(100.0, 1.05) - 105.0).abs() < 1e-9);
        assert!((1.0f64 / 1.05 - 1.0 + 0.0476).abs() < 1e-4, "overall gearing −4.76 %");
    }

    #[test]
    fn the_dial_is_held_to_un_r39() {
        use DialAgainstR39::{OverReadsTooMuch, UnderReads, Within};
        // UN R39 (memory): at true 40, 80 and 120 the shown speed may lie 0…8, 0…12, 0…16 above.
        for (shown, real, verdict) in [
            (40.0, 40.0, Within),
            (48.0, 40.0, Within),
            (48.1, 40.0, OverReadsTooMuch),
            (39.9, 40.0, UnderReads),
            (92.0, 80.0, Within),
            (92.1, 80.0, OverReadsTooMuch),
            (136.0, 120.0, Within),
            (136.1, 120.0, OverReadsTooMuch),
        ] {
            assert_eq!(dial_against_r39(shown, real), verdict, "{shown} shown at {real}");
        }
        // At 120 the margin is 16/120: a tire smaller by more than 1 − 120/136 = 11.8 % breaks it.
        for (ratio, verdict) in
            [(1.0, Within), (1.001, UnderReads), (0.885, Within), (0.88, OverReadsTooMuch)]
        {
            assert_eq!(change_against_r39(ratio), verdict, "ratio {ratio}");
        }
    }

    #[test]
    fn miles_agree_with_gnu_units() {
        // GNU units 2.22: 60 mph = 96.56064 km/h.
        assert!((IMPERIAL_SPEEDS_KMH[1] - 96.56064).abs() < 1e-9);
    }
}
