//! A fastener's thread, as it is written.

use std::fmt;
use std::str::FromStr;

use crate::values::length::Length;

/// A fastener's thread: `M14x1.5`, `1/2-20`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Thread {
    diameter: Length,
    pitch: Length,
    /// Threads to the inch, for those that are named so.
    per_inch: Option<u8>,
}

/// Why a thread cannot be read.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum ThreadError {
    /// Not written as a thread.
    #[error("{0:?} is not a thread: write it as in M14x1.5 or 1/2-20")]
    Form(String),
    /// Read, and no wheel is held by it.
    #[error("{0:?} is no wheel fastener's thread: M10 to M22 or 7/16 to 3/4 in, pitch 1 to 3 mm")]
    Range(String),
}

impl Thread {
    /// Nominal diameter.
    pub fn diameter(&self) -> Length {
        self.diameter
    }

    /// Distance from one turn to the next.
    pub fn pitch(&self) -> Length {
        self.pitch
    }

    /// Turns that engage one diameter's length: the least that holds.
    ///
    /// # Source
    /// Common practice: engagement of at least one thread diameter.
    ///
    /// ```
    /// use fitment::values::fastener::Thread;
    /// let turns = |thread: &str| thread.parse::<Thread>().unwrap().least_turns();
    /// assert_eq!(turns("M12x1.5"), 8.0);
    /// assert!((turns("M14x1.5") - 9.333).abs() < 1e-3);
    /// assert!((turns("1/2-20") - 10.0).abs() < 1e-12);
    /// ```
    pub fn least_turns(&self) -> f64 {
        self.diameter / self.pitch
    }
}

impl fmt::Display for Thread {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self.per_inch {
            Some(per_inch) => {
                let sixteenths = (self.diameter.as_inches() * 16.0).round() as u32;
                let by = if sixteenths.is_multiple_of(8) {
                    8
                } else if sixteenths.is_multiple_of(4) {
                    4
                } else {
                    1
                };
                write!(f, "{}/{}-{per_inch}", sixteenths / by, 16 / by)
            }
            None => write!(f, "M{}x{}", self.diameter.as_mm(), self.pitch.as_mm()),
        }
    }
}

impl FromStr for Thread {
    type Err = ThreadError;

    fn from_str(text: &str) -> Result<Self, ThreadError> {
        let form = || ThreadError::Form(text.chars().take(24).collect());
        let tidy: String = text
            .trim()
            .to_lowercase()
            .replace('½', "1/2")
            .replace(',', ".")
            .replace(['×', '*'], "x")
            .chars()
            .filter(|letter| !letter.is_whitespace())
            .collect();
        let thread = if let Some(metric) = tidy.strip_prefix('m') {
            let (diameter, pitch) = metric.split_once('x').ok_or_else(form)?;
            let number = |text: &str| text.parse().ok().and_then(Length::from_mm).ok_or_else(form);
            Self { diameter: number(diameter)?, pitch: number(pitch)?, per_inch: None }
        } else {
            let (fraction, per_inch) = tidy.split_once('-').ok_or_else(form)?;
            let per_inch: u8 =
                per_inch.trim_end_matches("unf").trim_end_matches("unc").parse().map_err(|_| form())?;
            let (over, under) = fraction.trim_end_matches('"').split_once('/').ok_or_else(form)?;
            let (over, under): (u8, u8) =
                (over.parse().map_err(|_| form())?, under.parse().map_err(|_| form())?);
            if per_inch == 0 || under == 0 {
                return Err(form());
            }
            Self {
                diameter: Length::inches(f64::from(over) / f64::from(under)),
                pitch: Length::inches(1.0 / f64::from(per_inch)),
                per_inch: Some(per_inch),
            }
        };
        let is_a_fasteners =
            (10.0..=22.3).contains(&thread.diameter.as_mm()) && (1.0..=3.0).contains(&thread.pitch.as_mm());
        if is_a_fasteners { Ok(thread) } else { Err(ThreadError::Range(text.chars().take(24).collect())) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn threads_as_people_write_them() {
        for (text, printed) in [
            ("M14x1.5", "M14x1.5"),
            ("m12 × 1,25", "M12x1.25"),
            ("M12*1.5", "M12x1.5"),
            ("1/2-20", "1/2-20"),
            ("½-20 UNF", "1/2-20"),
            ("7/16\"-20", "7/16-20"),
            ("9/16-18", "9/16-18"),
        ] {
            let thread: Thread = text.parse().unwrap();
            assert_eq!(thread.to_string(), printed, "{text}");
            assert_eq!(printed.parse::<Thread>().unwrap(), thread, "{printed} reads back");
        }
        for bad in ["", "M14", "14x1.5", "M8x1.25", "M14x0.1", "1/0-20", "1/2-0", "Mxx1", "M14xNaN", "M1e9x1"]
        {
            assert!(bad.parse::<Thread>().is_err(), "{bad}");
        }
    }

    #[test]
    fn one_diameter_of_engagement_in_turns() {
        // Common practice: M12×1.5 8 turns, M14×1.5 9.3, ½-20 10.
        for (text, turns) in [("M12x1.5", 8.0), ("M14x1.5", 9.3), ("1/2-20", 10.0), ("M14x1.25", 11.2)] {
            let found = text.parse::<Thread>().unwrap().least_turns();
            assert!((found - turns).abs() < 0.05, "{text}: {found}");
        }
    }
}
