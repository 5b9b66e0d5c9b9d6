//! Codes stamped on parts. They look like lengths and are not: each becomes a length by a named rule only.

use std::fmt;

use crate::values::length::Length;

/// Rim diameter code, the "18" of an 18 in wheel; whole or half inches, 10 to 30.
///
/// A bead does not sit on a circle of code × 25.4 mm: see [`RimDiameter::bead_seat`].
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct RimDiameter {
    half_inches: u8,
}

impl RimDiameter {
    /// Smallest code read.
    pub const MIN: f64 = 10.0;
    /// Largest code read.
    pub const MAX: f64 = 30.0;

    /// From the code; `None` outside 10–30 or off the half-inch steps.
    pub fn from_code(code: f64) -> Option<Self> {
        in_steps(code, 0.5, Self::MIN, Self::MAX).map(|n| Self { half_inches: n as u8 })
    }

    /// The code itself, in inches.
    pub fn code(self) -> f64 {
        f64::from(self.half_inches) / 2.0
    }

    /// Everyday arithmetic: code × 25.4 mm. What every advisor checks against.
    pub fn everyday(self) -> Length {
        Length::inches(self.code())
    }

    /// The design value d of UN Regulation No. 30: code × 25.4 to the whole millimetre.
    ///
    /// # Source
    /// UN R30 lists d code by code (from memory); every listed value is the rounded product.
    pub fn r30_design(self) -> Length {
        Length::mm(self.everyday().as_mm().round())
    }

    /// Specified rim diameter at the 5° bead seat: 0.8 mm under code × 25.4 up to code 16, 4.8 mm over it
    /// from code 17.
    ///
    /// # Source
    /// ETRTO / ISO 4000-2 (from memory), codes 13 to 22; other codes continue the same step.
    pub fn bead_seat(self) -> Length {
        let step = if self.code() < 17.0 { -0.8 } else { 4.8 };
        self.everyday() + Length::mm(step)
    }
}

impl fmt::Display for RimDiameter {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}", self.code())
    }
}

/// Rim width code, the "8.5" of an 8.5J rim: between the flanges, 3 to 16 in. Most come in half inches, but any figure
/// that a maker gives is one (9.33); kept to the thousandth.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct RimWidth {
    thousandths: u16,
}

/// What a rim measures over its flanges beyond its nominal width: about half an inch a side.
///
/// # Source
/// Common practice; the J flange of ISO 4000-2 is some 13 mm wide. A catalogue's overall width beats it.
pub const FLANGE_WIDTH: Length = Length::mm(12.7);

/// Height of a J flange above the bead seat.
///
/// # Source
/// ETRTO / ISO 4000-2 (from memory): 17.5 mm.
pub const J_FLANGE_HEIGHT: Length = Length::mm(17.5);

impl RimWidth {
    /// Narrowest code read.
    pub const MIN: f64 = 3.0;
    /// Widest code read.
    pub const MAX: f64 = 16.0;

    /// From the code, rounded to the thousandth; `None` outside 3–16.
    pub fn from_code(code: f64) -> Option<Self> {
        (Self::MIN..=Self::MAX).contains(&code).then(|| Self { thousandths: (code * 1000.0).round() as u16 })
    }

    /// The nearest half inch, held inside the range: the step in which measuring rims are listed.
    pub(crate) fn nearest_half_inch(width: Length) -> Self {
        let halves = (width.as_inches() * 2.0).round().clamp(Self::MIN * 2.0, Self::MAX * 2.0);
        Self { thousandths: halves as u16 * 500 }
    }

    /// The code itself, in inches.
    pub fn code(self) -> f64 {
        f64::from(self.thousandths) / 1000.0
    }

    /// Between the flanges, where the beads sit.
    pub fn between_flanges(self) -> Length {
        Length::inches(self.code())
    }

    /// Over the flanges: nominal width plus one flange a side.
    pub fn over_flanges(self) -> Length {
        self.between_flanges() + FLANGE_WIDTH * 2.0
    }

    /// This width, wider (or narrower) by so many quarter inches; `None` when that leaves the range.
    pub fn stepped(self, quarter_inches: i32) -> Option<Self> {
        Self::from_code(self.code() + f64::from(quarter_inches) / 4.0)
    }
}

impl fmt::Display for RimWidth {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}", self.code())
    }
}

/// Offset (ET, inset): from the rim's centre plane to its mounting face.
///
/// # Frame
/// Positive: the face lies outboard of the centre plane, so the wheel sits further in. May be negative.
///
/// # Units
/// Millimetres, kept to the hundredth.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Offset {
    hundredths: i32,
}

impl Offset {
    /// Largest amount either side of zero that is read.
    pub const LIMIT_MM: f64 = 150.0;

    /// From millimetres, rounded to the hundredth; `None` beyond ±150.
    pub fn from_mm(mm: f64) -> Option<Self> {
        (mm.abs() <= Self::LIMIT_MM).then(|| Self { hundredths: (mm * 100.0).round() as i32 })
    }

    /// In millimetres.
    pub fn as_mm(self) -> f64 {
        f64::from(self.hundredths) / 100.0
    }

    /// As a signed length, for arithmetic.
    pub fn length(self) -> Length {
        Length::mm(self.as_mm())
    }

    /// What is left of the offset once a spacer stands between hub and wheel: ET − thickness.
    pub fn effective(self, spacer: Option<Spacer>) -> Self {
        Self { hundredths: self.hundredths - spacer.map_or(0, |s| i32::from(s.hundredths)) }
    }
}

impl fmt::Display for Offset {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "ET{}", self.as_mm())
    }
}

/// Thickness of a spacer between hub face and wheel, over 0 and up to 100 mm.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Spacer {
    hundredths: u16,
}

impl Spacer {
    /// Thickest spacer read, in millimetres.
    pub const MAX_MM: f64 = 100.0;

    /// From millimetres, rounded to the hundredth; `None` at zero or less and beyond 100.
    pub fn from_mm(mm: f64) -> Option<Self> {
        let hundredths = (mm * 100.0).round();
        (1.0..=Self::MAX_MM * 100.0).contains(&hundredths).then_some(Self { hundredths: hundredths as u16 })
    }

    /// In millimetres.
    pub fn as_mm(self) -> f64 {
        f64::from(self.hundredths) / 100.0
    }

    /// As a length.
    pub fn length(self) -> Length {
        Length::mm(self.as_mm())
    }
}

impl fmt::Display for Spacer {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{} mm spacer", self.as_mm())
    }
}

/// Bolt circle: how many fasteners, on which diameter (PCD).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct BoltCircle {
    count: u8,
    hundredths: u16,
}

impl BoltCircle {
    /// Fewest fasteners read.
    pub const MIN_COUNT: u8 = 3;
    /// Most fasteners read.
    pub const MAX_COUNT: u8 = 10;
    /// Smallest circle read, in millimetres.
    pub const MIN_MM: f64 = 80.0;
    /// Largest circle read, in millimetres.
    pub const MAX_MM: f64 = 250.0;

    /// Circles that are made, in millimetres. Whatever lies within [`Self::SNAP_MM`] of one is that one.
    ///
    /// # Source
    /// Common practice, no published source.
    pub const KNOWN_MM: [f64; 28] = [
        95.25, 98.0, 100.0, 101.6, 105.0, 108.0, 110.0, 112.0, 114.3, 115.0, 118.0, 120.0, 120.65, 127.0,
        130.0, 132.0, 133.35, 135.0, 139.7, 140.0, 150.0, 155.0, 160.0, 165.1, 170.0, 180.0, 200.0, 205.0,
    ];
    /// How far a figure may lie from the circle that is meant: far enough for 114 and 4½ in, and for a circle measured
    /// with calipers; near enough to keep 114.3 and 115, 120 and 120.65 apart.
    pub const SNAP_MM: f64 = 0.35;

    /// From a count and a diameter in millimetres, taken for the circle that is meant (5x114 is 5x114.3); `None` out of
    /// range.
    pub fn new(count: u8, diameter_mm: f64) -> Option<Self> {
        ((Self::MIN_COUNT..=Self::MAX_COUNT).contains(&count)
            && (Self::MIN_MM..=Self::MAX_MM).contains(&diameter_mm))
        .then(|| Self { count, hundredths: (Self::meant(diameter_mm) * 100.0).round() as u16 })
    }

    /// The circle that a figure names: the nearest made one within reach; a whole figure off the list stands for the
    /// one it is the whole part of (139 for 139.7); else the figure itself.
    fn meant(diameter_mm: f64) -> f64 {
        let nearest = Self::KNOWN_MM
            .into_iter()
            .min_by(|a, b| (a - diameter_mm).abs().total_cmp(&(b - diameter_mm).abs()))
            .filter(|known| (known - diameter_mm).abs() <= Self::SNAP_MM + 1e-9);
        nearest
            .or_else(|| Self::KNOWN_MM.into_iter().find(|known| known.trunc() == diameter_mm))
            .unwrap_or(diameter_mm)
    }

    /// From the distance between the centres of two neighbouring holes: PCD = c / sin(180° / count).
    ///
    /// Even counts are better measured straight across; for five there is no hole opposite, and the
    /// divisor is sin 36°.
    ///
    /// ```
    /// use fitment::{BoltCircle, Length};
    /// let circle = BoltCircle::from_neighbours(5, Length::from_mm(67.2).unwrap()).unwrap();
    /// assert!((circle.diameter().as_mm() - 114.3).abs() < 0.1);
    /// ```
    pub fn from_neighbours(count: u8, between_centres: Length) -> Option<Self> {
        Self::new(count, between_centres.as_mm() / (std::f64::consts::PI / f64::from(count)).sin())
    }

    /// Number of fasteners.
    pub fn count(self) -> u8 {
        self.count
    }

    /// Diameter of the circle through their centres.
    pub fn diameter(self) -> Length {
        Length::mm(f64::from(self.hundredths) / 100.0)
    }
}

impl fmt::Display for BoltCircle {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}x{}", self.count, self.diameter().as_mm())
    }
}

/// Centre bore of a wheel, 40 to 200 mm.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct CenterBore {
    hundredths: u16,
}

impl CenterBore {
    /// Smallest bore read, in millimetres.
    pub const MIN_MM: f64 = 40.0;
    /// Largest bore read, in millimetres.
    pub const MAX_MM: f64 = 200.0;

    /// From millimetres, rounded to the hundredth; `None` out of range.
    pub fn from_mm(mm: f64) -> Option<Self> {
        (Self::MIN_MM..=Self::MAX_MM).contains(&mm).then(|| Self { hundredths: (mm * 100.0).round() as u16 })
    }

    /// As a length.
    pub fn diameter(self) -> Length {
        Length::mm(f64::from(self.hundredths) / 100.0)
    }
}

impl CenterBore {
    /// In hundredths of a millimetre, in which bores are held against hubs.
    pub fn hundredths(self) -> u16 {
        self.hundredths
    }
}

impl fmt::Display for CenterBore {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "CB{}", self.diameter().as_mm())
    }
}

/// How many steps a value holds, when it lies in the range and on a step.
fn in_steps(value: f64, step: f64, min: f64, max: f64) -> Option<f64> {
    let steps = value / step;
    ((min..=max).contains(&value) && steps.fract() == 0.0).then_some(steps)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_design_diameter_is_the_one_un_r30_lists() {
        // UN R30, table of nominal rim diameters (memory).
        for (code, d) in [
            (13, 330.0),
            (14, 356.0),
            (15, 381.0),
            (16, 406.0),
            (17, 432.0),
            (18, 457.0),
            (19, 483.0),
            (20, 508.0),
            (21, 533.0),
            (22, 559.0),
            (23, 584.0),
            (24, 610.0),
        ] {
            let rim = RimDiameter::from_code(f64::from(code)).unwrap();
            assert_eq!(rim.r30_design().as_mm(), d, "code {code}, UN R30 (memory)");
        }
    }

    #[test]
    fn the_bead_seat_is_the_specified_rim_diameter() {
        // ETRTO / ISO 4000-2, 5° drop centre rims (memory).
        for (code, d) in [
            (13, 329.4),
            (14, 354.8),
            (15, 380.2),
            (16, 405.6),
            (17, 436.6),
            (18, 462.0),
            (19, 487.4),
            (20, 512.8),
            (21, 538.2),
            (22, 563.6),
        ] {
            let rim = RimDiameter::from_code(f64::from(code)).unwrap();
            assert!((rim.bead_seat().as_mm() - d).abs() < 1e-9, "code {code}: {}", rim.bead_seat().as_mm());
        }
    }

    #[test]
    fn codes_off_their_steps_or_range_are_refused() {
        for bad in [9.5, 30.5, 17.25, f64::NAN] {
            assert_eq!(RimDiameter::from_code(bad), None, "{bad}");
        }
        for bad in [2.75, 16.25, f64::INFINITY] {
            assert_eq!(RimWidth::from_code(bad), None, "{bad}");
        }
        assert_eq!(Offset::from_mm(150.01), None);
        assert_eq!(Offset::from_mm(f64::NAN), None);
        assert_eq!(Spacer::from_mm(0.0), None);
        assert_eq!(Spacer::from_mm(100.1), None);
        assert_eq!(CenterBore::from_mm(f64::NAN), None);
    }

    #[test]
    fn a_bolt_circle_is_the_one_that_is_made() {
        // Common practice, no published source: what is written for what is meant.
        for (written, meant) in [
            (114.0, 114.3),
            (114.3, 114.3),
            (115.0, 115.0),
            (120.0, 120.0),
            (120.65, 120.65),
            (120.7, 120.65),
            (108.0, 108.0),
            (110.0, 110.0),
            (107.95, 108.0),
            (139.0, 139.7),
            (165.0, 165.1),
            (127.1, 127.0),
            (104.0, 104.0),
            (144.3, 144.3),
        ] {
            let circle = BoltCircle::new(5, written).unwrap();
            assert_eq!(circle.diameter().as_mm(), meant, "{written}");
        }
    }

    #[test]
    fn four_and_five_bolt_circles_follow_from_neighbours() {
        // Plane geometry: neighbours on a square lie PCD/√2 apart, on a regular pentagon PCD·sin 36°.
        let four = BoltCircle::from_neighbours(4, Length::mm(100.0 / 2f64.sqrt())).unwrap();
        assert_eq!(four.to_string(), "4x100");
        let five = BoltCircle::from_neighbours(5, Length::mm(112.0 * 36f64.to_radians().sin())).unwrap();
        assert_eq!(five.to_string(), "5x112");
    }
}
