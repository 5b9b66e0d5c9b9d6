//! What a reading is taken with, and the unit it is read in.

use crate::values::coded::coded;
use crate::values::length::Length;
use crate::values::working::Source;

/// A measuring instrument and how far it may be off.
#[derive(Debug, Clone, PartialEq)]
pub struct Instrument {
    /// Its code in files, unique in the house.
    pub code: String,
    /// Its name.
    pub name: String,
    /// How far it may be off, either way.
    pub plus_minus: Length,
}

/// Where the defaults come from.
pub const SOURCE: Source = Source::common_practice("what each instrument is trusted for in a wheel well");

/// The house's instruments until it changes them: code, name, ± in millimetres. Common practice.
pub const DEFAULTS: [(&str, &str, f64); 7] = [
    ("depth_gauge", "depth gauge or caliper", 0.2),
    ("steel_rule", "steel rule", 1.0),
    ("tape", "tape", 2.0),
    ("feeler", "feeler or drill shank", 0.1),
    ("clay", "modelling clay", 0.5),
    ("fingers", "finger widths", 4.0),
    ("digital_gauge", "digital gauge, sent", 0.2),
];

/// The defaults as instruments.
pub fn defaults() -> Vec<Instrument> {
    DEFAULTS
        .iter()
        .map(|(code, name, plus_minus)| Instrument {
            code: (*code).to_owned(),
            name: (*name).to_owned(),
            plus_minus: Length::mm(*plus_minus),
        })
        .collect()
}

/// A finger width.
///
/// # Source
/// Common practice, no source: about 18 mm. People do say "two fingers".
pub const FINGER: Length = Length::mm(18.0);

/// The unit a reading was spoken in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub enum ReadingUnit {
    /// Millimetres.
    #[default]
    Millimetres,
    /// Inches, decimal.
    Inches,
    /// Sixteenths of an inch.
    Sixteenths,
    /// Finger widths.
    Fingers,
}

coded!(ReadingUnit: Millimetres = "mm", Inches = "in", Sixteenths = "in_16", Fingers = "fingers");

impl ReadingUnit {
    /// A value in this unit as a length; `None` when it is not finite.
    pub fn length(self, value: f64) -> Option<Length> {
        match self {
            Self::Millimetres => Length::from_mm(value),
            Self::Inches => Length::from_inches(value),
            Self::Sixteenths => Length::from_inches(value / 16.0),
            Self::Fingers => Length::from_mm(value * FINGER.as_mm()),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_reading_is_taken_as_it_was_spoken() {
        // GNU units 2.22: 9|16 inch = 14.2875 mm, 0.55 inch = 13.97 mm. Two fingers: common practice.
        for (unit, value, mm) in [
            (ReadingUnit::Millimetres, 14.0, 14.0),
            (ReadingUnit::Inches, 0.55, 13.97),
            (ReadingUnit::Sixteenths, 9.0, 14.2875),
            (ReadingUnit::Fingers, 2.0, 36.0),
        ] {
            let length = unit.length(value).unwrap();
            assert!((length.as_mm() - mm).abs() < 1e-9, "{value} {}", unit.code());
            assert_eq!(ReadingUnit::from_code(unit.code()), Some(unit));
        }
        assert_eq!(ReadingUnit::Inches.length(f64::NAN), None);
        assert_eq!(ReadingUnit::from_code("cubits"), None);
    }

    #[test]
    fn the_instruments_are_trusted_for_what_the_trade_trusts_them() {
        let plus_minus = |code: &str| DEFAULTS.iter().find(|row| row.0 == code).map(|row| row.2);
        // Common practice, no source.
        for (code, mm) in [
            ("depth_gauge", 0.2),
            ("steel_rule", 1.0),
            ("tape", 2.0),
            ("feeler", 0.1),
            ("clay", 0.5),
            ("fingers", 4.0),
        ] {
            assert_eq!(plus_minus(code), Some(mm), "{code}");
        }
    }
}
