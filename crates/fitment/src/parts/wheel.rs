//! A wheel as its size names it, and where its faces lie.

use std::fmt;

use crate::values::codes::{BoltCircle, CenterBore, FLANGE_WIDTH, Offset, RimDiameter, RimWidth};
use crate::values::length::Length;
use crate::values::working::{Figure, Quantity, Source, Step};

/// A wheel as written: size, and what else was stated.
///
/// Contour letters (`J`, `JJ`) and hump marks (`H2`) are read and not kept: nothing here computes with them.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Wheel {
    /// Rim diameter code.
    pub diameter: RimDiameter,
    /// Rim width code.
    pub width: RimWidth,
    /// Offset, when stated (directly or as backspacing).
    pub offset: Option<Offset>,
    /// Bolt circle, when stated.
    pub bolt_circle: Option<BoltCircle>,
    /// The second circle of a wheel that is drilled twice.
    pub second_circle: Option<BoltCircle>,
    /// Centre bore, when stated.
    pub center_bore: Option<CenterBore>,
    /// Held by one nut in the middle.
    pub center_lock: bool,
}

impl Wheel {
    /// A rim of this size with nothing else stated.
    pub fn plain(diameter: RimDiameter, width: RimWidth) -> Self {
        Self {
            diameter,
            width,
            offset: None,
            bolt_circle: None,
            second_circle: None,
            center_bore: None,
            center_lock: false,
        }
    }

    /// The same with size and offset alone: what decides where it stands, not how it is held.
    #[must_use]
    pub fn placed(self) -> Self {
        Self { offset: self.offset, ..Self::plain(self.diameter, self.width) }
    }

    /// Its bolt circles, the first stated first.
    pub fn circles(&self) -> impl Iterator<Item = BoltCircle> + use<> {
        self.bolt_circle.into_iter().chain(self.second_circle)
    }
}

/// Backspacing: from the mounting face to the inner edge of the rim, always measured over the flange.
///
/// # Units
/// A length; the trade says it in inches.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Backspacing(Length);

impl Backspacing {
    /// Backspacing of a rim: (width / 2 + 0.5 in) × 25.4 + ET.
    ///
    /// # Source
    /// Common practice: the half inch is one flange. A catalogue's overall width beats it.
    ///
    /// ```
    /// use fitment::{Offset, RimWidth, parts::wheel::Backspacing};
    /// let twenty_by_ten = Backspacing::from_offset(
    ///     RimWidth::from_code(10.0).unwrap(), Offset::from_mm(35.0).unwrap());
    /// assert!((twenty_by_ten.length().as_inches() - 6.88).abs() < 0.005);
    /// ```
    pub fn from_offset(width: RimWidth, offset: Offset) -> Self {
        Self(width.between_flanges() / 2.0 + FLANGE_WIDTH + offset.length())
    }

    /// A backspacing as read off a wheel.
    pub fn measured(length: Length) -> Self {
        Self(length)
    }

    /// The offset it means on a rim of this width; `None` when that is out of range.
    pub fn to_offset(self, width: RimWidth) -> Option<Offset> {
        Offset::from_mm((self.0 - width.between_flanges() / 2.0 - FLANGE_WIDTH).as_mm())
    }

    /// As a length.
    pub fn length(self) -> Length {
        self.0
    }
}

/// Frontspacing: from the mounting face to the outer edge of the rim, (width / 2 + 0.5 in) × 25.4 − ET.
pub fn frontspacing(width: RimWidth, offset: Offset) -> Length {
    width.between_flanges() / 2.0 + FLANGE_WIDTH - offset.length()
}

/// Backspacing with its working.
pub fn backspacing_worked(width: RimWidth, offset: Offset) -> Figure {
    Figure::of(Step {
        what: "backspacing",
        formula: "(W / 2 + 0.5 in) × 25.4 + ET",
        inputs: vec![
            ("W", Quantity::rim_inches(width.code())),
            ("ET", Quantity::length(offset.length()).signed()),
        ],
        result: Quantity::length(Backspacing::from_offset(width, offset).length()),
        source: Source::common_practice("half an inch for the flange"),
    })
}

/// The canonical form: `18x8.5 ET35 5x114.3 CB67.1`.
impl fmt::Display for Wheel {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}x{}", self.diameter, self.width)?;
        if let Some(offset) = self.offset {
            write!(f, " {offset}")?;
        }
        if let Some(circle) = self.bolt_circle {
            write!(f, " {circle}")?;
        }
        match (self.bolt_circle, self.second_circle) {
            // Eight and ten holes would read as twice four and twice five.
            (Some(first), Some(second))
                if first.count() == second.count() && !matches!(first.count(), 8 | 10) =>
            {
                write!(f, "/{}", second.diameter().as_mm())?;
            }
            (_, Some(second)) => write!(f, " {second}")?,
            _ => {}
        }
        if let Some(bore) = self.center_bore {
            write!(f, " {bore}")?;
        }
        if self.center_lock {
            f.write_str(" center lock")?;
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn rim(width: f64, offset: f64) -> (RimWidth, Offset) {
        (RimWidth::from_code(width).unwrap(), Offset::from_mm(offset).unwrap())
    }

    #[test]
    fn backspacing_is_what_the_trade_says() {
        // Common practice, no published source. Two decimals of an inch as they are spoken.
        for (width, offset, inches) in [(10.0, 35.0, 6.88), (5.0, -21.0, 2.17), (8.0, 0.0, 4.5)] {
            let (width, offset) = rim(width, offset);
            let spacing = Backspacing::from_offset(width, offset);
            assert!((spacing.length().as_inches() - inches).abs() < 0.005, "{width} {offset}");
            assert_eq!(spacing.to_offset(width), Some(offset));
        }
    }

    #[test]
    fn back_and_front_together_are_the_width_over_the_flanges() {
        let (width, offset) = rim(8.5, 38.0);
        let both = Backspacing::from_offset(width, offset).length() + frontspacing(width, offset);
        assert!((both - width.over_flanges()).abs().as_mm() < 1e-9);
    }
}
