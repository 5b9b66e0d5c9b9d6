//! One type for every length, kept in millimetres.

use std::ops::{Add, Div, Mul, Neg, Sub};

/// Millimetres in an inch, exact by definition.
///
/// # Source
/// International yard and pound agreement of 1959: 1 in = 25.4 mm.
pub const MM_PER_INCH: f64 = 25.4;

/// Millimetres in a statute mile: 1609.344 m, exact by the same definition.
pub const MM_PER_MILE: f64 = 1_609_344.0;

/// A length or a signed distance along one axis, always finite.
///
/// # Units
/// Stored in millimetres. Rim diameters and widths written in inches are codes, not lengths: they become
/// one only through [`crate::values::codes`].
///
/// ```
/// use fitment::Length;
/// assert_eq!(Length::from_inches(1.0).unwrap().as_mm(), 25.4);
/// assert_eq!(Length::from_mm(f64::NAN), None);
/// ```
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Default)]
#[cfg_attr(
    feature = "serde",
    derive(serde::Serialize, serde::Deserialize),
    serde(into = "f64", try_from = "f64")
)]
pub struct Length(f64);

impl From<Length> for f64 {
    /// In millimetres.
    fn from(length: Length) -> Self {
        length.0
    }
}

impl TryFrom<f64> for Length {
    type Error = &'static str;

    /// From millimetres.
    fn try_from(mm: f64) -> Result<Self, Self::Error> {
        Self::from_mm(mm).ok_or("a length is a finite number of millimetres")
    }
}

impl Length {
    /// No length at all: a measured zero, never a missing one.
    pub const ZERO: Self = Self(0.0);

    /// A length from millimetres; `None` when the figure is not finite.
    pub fn from_mm(mm: f64) -> Option<Self> {
        mm.is_finite().then_some(Self(mm))
    }

    /// A length from inches; `None` when the figure is not finite.
    pub fn from_inches(inches: f64) -> Option<Self> {
        Self::from_mm(inches * MM_PER_INCH)
    }

    /// For figures this crate made itself from bounded codes, which are finite by construction.
    pub(crate) const fn mm(mm: f64) -> Self {
        Self(mm)
    }

    /// The inch counterpart of [`Length::mm`].
    pub(crate) const fn inches(inches: f64) -> Self {
        Self(inches * MM_PER_INCH)
    }

    /// In millimetres.
    pub const fn as_mm(self) -> f64 {
        self.0
    }

    /// In inches.
    pub fn as_inches(self) -> f64 {
        self.0 / MM_PER_INCH
    }

    /// Without its sign.
    pub fn abs(self) -> Self {
        Self(self.0.abs())
    }

    /// The root of the sum of squares: how far what is independent is likely off together (JCGM 100).
    ///
    /// ```
    /// use fitment::Length;
    /// let of = |mm| Length::from_mm(mm).unwrap();
    /// assert_eq!(Length::root_sum_square([of(3.0), of(-4.0)].into_iter()), of(5.0));
    /// ```
    pub fn root_sum_square(lengths: impl Iterator<Item = Self>) -> Self {
        Self(lengths.map(|one| one.0.powi(2)).sum::<f64>().sqrt())
    }

    /// The larger of the two.
    pub fn max(self, other: Self) -> Self {
        Self(self.0.max(other.0))
    }
}

impl Add for Length {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }
}

impl Sub for Length {
    type Output = Self;
    fn sub(self, other: Self) -> Self {
        Self(self.0 - other.0)
    }
}

impl Neg for Length {
    type Output = Self;
    fn neg(self) -> Self {
        Self(-self.0)
    }
}

impl Mul<f64> for Length {
    type Output = Self;
    fn mul(self, factor: f64) -> Self {
        Self(self.0 * factor)
    }
}

impl Div<f64> for Length {
    type Output = Self;
    fn div(self, divisor: f64) -> Self {
        Self(self.0 / divisor)
    }
}

/// Length over length is a plain ratio.
impl Div for Length {
    type Output = f64;
    fn div(self, other: Self) -> f64 {
        self.0 / other.0
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Conversions run once through an outside reference: Debian's GNU units 2.22, `units -1 --digits 15`.
    #[test]
    fn inches_and_millimetres_agree_with_gnu_units() {
        for (inches, mm) in [
            (0.5, 12.7),
            (6.88, 174.752),
            (7.0625, 179.3875),
            (10.43, 264.922),
            (32.6, 828.04),
            (9.0 / 16.0, 14.2875),
        ] {
            let length = Length::from_inches(inches).unwrap();
            assert!(
                (length.as_mm() - mm).abs() < 1e-9,
                "{inches} in: {} mm, units says {mm}",
                length.as_mm()
            );
            assert!((length.as_inches() - inches).abs() < 1e-12);
        }
    }

    #[test]
    fn a_figure_that_is_not_finite_makes_no_length() {
        for bad in [f64::NAN, f64::INFINITY, f64::NEG_INFINITY] {
            assert_eq!(Length::from_mm(bad), None);
            assert_eq!(Length::from_inches(bad), None);
        }
    }
}
