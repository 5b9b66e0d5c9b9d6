//! Changing a setup by steps, as the hand does it on the drawing: offset, rim width, spacer.

use super::Setup;
use crate::values::codes::{Offset, RimWidth, Spacer};

/// Steps to take on one axle's setup. Zero leaves a part as it is.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Adjustment {
    /// Offset, in millimetres.
    pub offset_mm: f64,
    /// Rim width, in quarter inches.
    pub width_quarter_inches: i32,
    /// Spacer, in millimetres; below nothing it stops at no spacer.
    pub spacer_mm: f64,
}

/// Why a step cannot be taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum AdjustError {
    /// No wheel to adjust.
    #[error("there is no wheel to adjust: name a wheel size first")]
    NoWheel,
    /// No offset to step from.
    #[error("the wheel's offset is not stated: add it, as in ET35")]
    NoOffset,
    /// The offset would leave its range.
    #[error("an offset beyond ±150 mm is not a wheel's")]
    Offset,
    /// The width would leave its range.
    #[error("a rim width outside 3–16 in is not a wheel's")]
    Width,
    /// The spacer would be too thick.
    #[error("a spacer over 100 mm is not offered")]
    Spacer,
}

impl Setup {
    /// The setup after these steps.
    ///
    /// # Errors
    /// When a part is missing or would leave its range; the setup is then unchanged.
    pub fn adjusted(&self, by: Adjustment) -> Result<Self, AdjustError> {
        let mut wheel = self.wheel.ok_or(AdjustError::NoWheel)?;
        let mut spacer = self.spacer;
        if by.offset_mm != 0.0 {
            let offset = wheel.offset.ok_or(AdjustError::NoOffset)?;
            wheel.offset = Some(Offset::from_mm(offset.as_mm() + by.offset_mm).ok_or(AdjustError::Offset)?);
        }
        if by.width_quarter_inches != 0 {
            let narrowest_to_widest = ((RimWidth::MAX - RimWidth::MIN) * 4.0) as i32;
            let steps = by.width_quarter_inches.clamp(-narrowest_to_widest - 1, narrowest_to_widest + 1);
            wheel.width = wheel.width.stepped(steps).ok_or(AdjustError::Width)?;
        }
        if by.spacer_mm != 0.0 {
            let thickness = spacer.map_or(0.0, Spacer::as_mm) + by.spacer_mm;
            spacer = if thickness < 0.005 {
                None
            } else {
                Some(Spacer::from_mm(thickness).ok_or(AdjustError::Spacer)?)
            };
        }
        Ok(Self { wheel: Some(wheel), spacer, ..*self })
    }

    /// The setup with its wheel at a place of the fit window: rim width in inches, to the next quarter, and offset in
    /// millimetres.
    ///
    /// # Errors
    /// When there is no wheel, or no such one.
    pub fn moved_to(&self, rim_width_in: f64, offset_mm: f64) -> Result<Self, AdjustError> {
        let mut wheel = self.wheel.ok_or(AdjustError::NoWheel)?;
        wheel.offset = Some(Offset::from_mm(offset_mm).ok_or(AdjustError::Offset)?);
        let quarters = ((rim_width_in - wheel.width.code()) * 4.0).round() / 4.0;
        wheel.width = RimWidth::from_code(wheel.width.code() + quarters).ok_or(AdjustError::Width)?;
        Ok(Self { wheel: Some(wheel), ..*self })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn setup(line: &str) -> Setup {
        line.parse().unwrap()
    }

    #[test]
    fn steps_change_one_part_and_leave_the_rest() {
        let start = setup("18x8.5 ET35 5x112 · 245/40R18 97Y");
        let stepped =
            start.adjusted(Adjustment { offset_mm: -5.0, width_quarter_inches: 2, spacer_mm: 3.0 }).unwrap();
        assert_eq!(stepped.to_string(), "18x9 ET30 5x112 · 245/40R18 97Y · 3 mm spacer");
        let back = stepped.adjusted(Adjustment { offset_mm: 5.0, width_quarter_inches: -2, spacer_mm: -3.0 });
        assert_eq!(back, Ok(start));
    }

    #[test]
    fn a_place_on_the_window_is_gone_to_and_the_rest_stays() {
        let start = setup("18x8.5 ET35 5x112 · 245/40R18 97Y · 3 mm spacer");
        let there = start.moved_to(9.1, 22.0).unwrap();
        assert_eq!(there.to_string(), "18x9 ET22 5x112 · 245/40R18 97Y · 3 mm spacer");
        assert_eq!(start.moved_to(99.0, 22.0), Err(AdjustError::Width));
        assert_eq!(start.moved_to(f64::NAN, 22.0), Err(AdjustError::Width));
        assert_eq!(start.moved_to(9.0, f64::NAN), Err(AdjustError::Offset));
        assert_eq!(setup("245/40R18").moved_to(9.0, 22.0), Err(AdjustError::NoWheel));
    }

    #[test]
    fn a_step_that_cannot_be_taken_says_why() {
        let by = |offset_mm, width_quarter_inches, spacer_mm| Adjustment {
            offset_mm,
            width_quarter_inches,
            spacer_mm,
        };
        for (line, step, error) in [
            ("245/40R18", by(1.0, 0, 0.0), AdjustError::NoWheel),
            ("18x8.5", by(1.0, 0, 0.0), AdjustError::NoOffset),
            ("18x8.5 ET150", by(1.0, 0, 0.0), AdjustError::Offset),
            ("18x8.5 ET35", by(f64::NAN, 0, 0.0), AdjustError::Offset),
            ("18x16 ET35", by(0.0, 1, 0.0), AdjustError::Width),
            ("18x16 ET35", by(0.0, i32::MIN, 0.0), AdjustError::Width),
            ("18x8.5 ET35", by(0.0, 0, 101.0), AdjustError::Spacer),
        ] {
            assert_eq!(setup(line).adjusted(step), Err(error), "{line}");
        }
        let no_spacer = setup("18x8.5 ET35").adjusted(by(0.0, 0, -1.0)).unwrap();
        assert_eq!(no_spacer.spacer, None, "less than no spacer is no spacer");
    }
}
