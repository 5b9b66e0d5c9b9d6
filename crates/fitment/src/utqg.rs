//! UTQG grades: treadwear, traction, temperature.
//!
//! Each maker grades treadwear against its own runs of the course tire, so two makers' figures do not
//! compare; that is why there is no ordering here, only [`Utqg::same_maker_wear_ratio`]. Class rules still
//! ask for the plain number ("200 or more").
//!
//! # Source
//! 49 CFR 575.104.

use std::fmt;
use std::str::FromStr;

/// Wet traction grade.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
#[allow(missing_docs, reason = "the grades are their own names")]
pub enum Traction {
    AA,
    A,
    B,
    C,
}

/// Temperature grade.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
#[allow(missing_docs, reason = "the grades are their own names")]
pub enum Temperature {
    A,
    B,
    C,
}

/// `300 AA A`.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Utqg {
    /// Treadwear, a multiple of 20 in current grading; any figure from 20 to 1000 is read.
    pub treadwear: u16,
    /// Wet traction.
    pub traction: Traction,
    /// Temperature.
    pub temperature: Temperature,
}

/// Why a grade was not read.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum UtqgError {
    /// The treadwear figure.
    #[error("treadwear \"{0}\" is not a whole number from 20 to 1000")]
    Treadwear(String),
    /// The traction grade.
    #[error("traction \"{0}\" is not one of AA, A, B, C")]
    Traction(String),
    /// The temperature grade.
    #[error("temperature \"{0}\" is not one of A, B, C")]
    Temperature(String),
    /// Too much was written.
    #[error("\"{0}\" is left over: three grades are written, as in 300 AA A")]
    LeftOver(String),
}

impl Utqg {
    /// Expected wear life against another tire *of the same maker*. Across makers it means nothing.
    pub fn same_maker_wear_ratio(&self, other: &Self) -> f64 {
        f64::from(self.treadwear) / f64::from(other.treadwear)
    }

    /// Whether the tire meets a class rule "treadwear of so much or more".
    pub fn meets_class_rule(&self, at_least: u16) -> bool {
        self.treadwear >= at_least
    }
}

impl FromStr for Utqg {
    type Err = UtqgError;

    fn from_str(text: &str) -> Result<Self, UtqgError> {
        let upper = text.to_uppercase();
        let mut words = upper
            .split_whitespace()
            .filter(|word| !matches!(*word, "UTQG" | "TREADWEAR" | "TRACTION" | "TEMPERATURE"));
        let mut next = || words.next().unwrap_or_default();
        let wear = next();
        let treadwear = wear
            .parse()
            .ok()
            .filter(|figure| (20..=1000).contains(figure))
            .ok_or_else(|| UtqgError::Treadwear(wear.to_owned()))?;
        let traction = match next() {
            "AA" => Traction::AA,
            "A" => Traction::A,
            "B" => Traction::B,
            "C" => Traction::C,
            other => return Err(UtqgError::Traction(other.to_owned())),
        };
        let temperature = match next() {
            "A" => Temperature::A,
            "B" => Temperature::B,
            "C" => Temperature::C,
            other => return Err(UtqgError::Temperature(other.to_owned())),
        };
        match words.next() {
            Some(rest) => Err(UtqgError::LeftOver(rest.to_owned())),
            None => Ok(Self { treadwear, traction, temperature }),
        }
    }
}

impl fmt::Display for Utqg {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{} {:?} {:?}", self.treadwear, self.traction, self.temperature)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn grades_are_read_as_they_are_marked() {
        // 49 CFR 575.104: treadwear as a number, traction AA to C, temperature A to C.
        for (written, canonical) in [
            ("300 AA A", "300 AA A"),
            ("UTQG 200 a a", "200 A A"),
            ("Treadwear 460 Traction B Temperature C", "460 B C"),
        ] {
            let grades: Utqg = written.parse().unwrap();
            assert_eq!(grades.to_string(), canonical);
            assert_eq!(canonical.parse(), Ok(grades));
        }
        let (soft, hard): (Utqg, Utqg) = ("200 A A".parse().unwrap(), "400 A A".parse().unwrap());
        assert!(soft.meets_class_rule(200) && !soft.meets_class_rule(201));
        assert_eq!(hard.same_maker_wear_ratio(&soft), 2.0);
    }

    #[test]
    fn a_wrong_grade_names_itself() {
        for (written, message) in [
            ("", "treadwear \"\" is not a whole number from 20 to 1000"),
            ("5 A A", "treadwear \"5\" is not a whole number from 20 to 1000"),
            ("300 D A", "traction \"D\" is not one of AA, A, B, C"),
            ("300 A AA", "temperature \"AA\" is not one of A, B, C"),
            ("300 A A 5", "\"5\" is left over: three grades are written, as in 300 AA A"),
        ] {
            assert_eq!(written.parse::<Utqg>().unwrap_err().to_string(), message);
        }
    }
}
