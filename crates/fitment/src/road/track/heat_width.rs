//! Load for each millimetre of tread: whether a tire comes to its warmth.
//!
//! The axle carries what it carries; a wider tire has less of it for each millimetre. Trend only, against the width that
//! the factory gave the car.

use crate::values::length::Length;
use crate::values::working::Source;

/// Where it comes from.
pub const SOURCE: Source = Source::common_practice("axle load for each millimetre of section; a trend");

/// From here on it is much more or less, in per cent. Judgement of ours.
const MUCH_PCT: f64 = 15.0;

/// Change of the load for each millimetre against the reference tire, in per cent.
pub fn load_per_width_change_pct(reference: Length, planned: Length) -> f64 {
    (reference / planned - 1.0) * 100.0
}

/// What a change usually says.
pub fn words(change_pct: f64) -> &'static str {
    if change_pct < -MUCH_PCT {
        "may not come to its warmth"
    } else if change_pct > MUCH_PCT {
        "may grow too hot"
    } else {
        "about as the factory's"
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_wider_tire_has_less_of_the_load_on_each_millimetre() {
        let pct = |mm| load_per_width_change_pct(Length::mm(200.0), Length::mm(mm));
        assert!((pct(250.0) + 20.0).abs() < 1e-9 && (pct(160.0) - 25.0).abs() < 1e-9);
        for (mm, says) in
            [(250.0, "may not come"), (230.0, "about as"), (175.0, "about as"), (170.0, "too hot")]
        {
            assert!(words(pct(mm)).contains(says), "{mm}");
        }
    }
}
