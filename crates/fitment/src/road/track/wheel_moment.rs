//! What a corner asks of a wheel against the fatigue test behind its rating.

use crate::values::length::Length;
use crate::values::verdict::Severity;
use crate::values::working::Source;

/// The rotating-bend test behind a wheel's rating.
pub const SOURCE: Source =
    Source::from_memory("SAE J328, ISO 3006: M = (μ R + d) F S, μ 0.7, S 1.6 for the shorter of the tests");

/// Friction that the test takes.
const FRICTION: f64 = 0.7;
/// The test's factor.
const FACTOR: f64 = 1.6;
/// Newtons of a kilogram's weight.
const G: f64 = 9.806_65;

/// Bending moment of the test, in newton metres: (μ R + d) F S, with the tire's loaded radius, the offset where it is
/// positive, and the rating.
pub fn moment_tested_nm(rating_kg: f64, radius: Length, offset: Length) -> f64 {
    (FRICTION * radius.as_mm() / 1000.0 + offset.as_mm().abs() / 1000.0) * rating_kg * G * FACTOR
}

/// Bending moment in a corner, in newton metres: side force × loaded radius + load × offset.
pub fn corner_moment_nm(load_kg: f64, side_g: f64, radius: Length, offset: Length) -> f64 {
    let load = load_kg * G;
    load * side_g.abs() * radius.as_mm() / 1000.0 + load * offset.as_mm().abs() / 1000.0
}

/// How much of the test a corner asks for. House limits.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Utilisation {
    /// Below 60 %.
    Good,
    /// To 85 %: watch it and inspect it.
    Watch,
    /// Above: not for this use.
    NotForThis,
}

impl Utilisation {
    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Good => "good",
            Self::Watch => "watch and inspect",
            Self::NotForThis => "not for this use",
        }
    }

    /// How it stands.
    pub fn severity(self) -> Severity {
        match self {
            Self::Good => Severity::Good,
            Self::Watch => Severity::Mind,
            Self::NotForThis => Severity::Stop,
        }
    }
}

/// A share of the test's moment, judged.
pub fn utilisation(share: f64) -> Utilisation {
    if share < 0.60 {
        Utilisation::Good
    } else if share <= 0.85 {
        Utilisation::Watch
    } else {
        Utilisation::NotForThis
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_moment_by_its_parts() {
        // By hand: (0.7 · 0.3 + 0.035) · 600 · 9.80665 · 1.6 = 2306.5 N m.
        let tested = moment_tested_nm(600.0, Length::mm(300.0), Length::mm(35.0));
        assert!((tested - 0.245 * 600.0 * 9.80665 * 1.6).abs() < 1e-6);
        // At the test's own friction the rated load asks for one part in the test's factor.
        let corner = corner_moment_nm(600.0, 0.7, Length::mm(300.0), Length::mm(35.0));
        assert!((tested / corner - 1.6).abs() < 1e-9);
        assert_eq!(utilisation(corner / tested), Utilisation::Watch);
        assert_eq!((utilisation(0.59), utilisation(0.86)), (Utilisation::Good, Utilisation::NotForThis));
    }
}
