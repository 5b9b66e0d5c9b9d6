//! The size itself: three families of notation, one canonical form each.

use std::fmt;

use crate::codes::RimDiameter;
use crate::length::Length;

/// How the carcass is built, as the size says it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Construction {
    /// `R`. Also what a spoken size ("265 35 18") means today.
    Radial,
    /// `ZR`: radial, over 240 km/h.
    ZrRadial,
    /// `-`: bias ply.
    BiasPly,
}

impl Construction {
    /// How it is marked inside the size.
    pub fn mark(self) -> &'static str {
        match self {
            Self::Radial => "R",
            Self::ZrRadial => "ZR",
            Self::BiasPly => "-",
        }
    }
}

/// What stands before (or, for LT and C, behind) a metric size.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Prefix {
    /// Nothing: a size by UN R30 / ISO 4000-1.
    None,
    /// `P`: passenger, by the American tables.
    P,
    /// `LT`: light truck.
    Lt,
    /// `HL`: high load.
    Hl,
    /// A `C` behind the rim code: commercial.
    Commercial,
}

/// `225/45R17`: section width in mm, aspect ratio in per cent, rim code.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct MetricSize {
    pub(super) prefix: Prefix,
    pub(super) section_mm: u16,
    pub(super) aspect: u8,
    pub(super) construction: Construction,
    pub(super) rim: RimDiameter,
}

impl MetricSize {
    /// Narrowest and widest section read, in millimetres.
    pub const SECTION_MM: std::ops::RangeInclusive<u32> = 100..=455;
    /// Lowest and highest aspect ratio read, in per cent.
    pub const ASPECT: std::ops::RangeInclusive<u32> = 20..=95;

    /// `None` when section width or aspect ratio is out of range.
    pub fn new(
        prefix: Prefix,
        section_mm: u32,
        aspect: u32,
        construction: Construction,
        rim: RimDiameter,
    ) -> Option<Self> {
        (Self::SECTION_MM.contains(&section_mm) && Self::ASPECT.contains(&aspect)).then_some(Self {
            prefix,
            section_mm: section_mm as u16,
            aspect: aspect as u8,
            construction,
            rim,
        })
    }
}

/// Which habit an inch size is written by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum InchStyle {
    /// `33x12.50R15LT`: width with two decimals; LT when marked so.
    Flotation {
        /// Marked LT.
        light_truck: bool,
    },
    /// `28x6.0-17`: drag front runners; width in tenths, bias ply.
    Cross,
    /// `26.0/10.0-15`: slicks; both in tenths.
    Slash,
}

/// A size in inches: overall diameter, width, rim code.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct InchSize {
    pub(super) style: InchStyle,
    /// Hundredths of an inch.
    pub(super) overall: u16,
    /// Hundredths of an inch.
    pub(super) width: u16,
    pub(super) construction: Construction,
    pub(super) rim: RimDiameter,
}

impl InchSize {
    /// Smallest and largest overall diameter read, in inches.
    pub const OVERALL_IN: std::ops::RangeInclusive<f64> = 15.0..=54.0;
    /// Narrowest and widest width read, in inches.
    pub const WIDTH_IN: std::ops::RangeInclusive<f64> = 3.0..=24.0;

    /// `None` when a figure is out of range, is finer than its style can write, leaves no sidewall, or is
    /// a cross-style size that is not bias ply (a radial one is written the flotation way).
    pub fn new(
        style: InchStyle,
        overall_in: f64,
        width_in: f64,
        construction: Construction,
        rim: RimDiameter,
    ) -> Option<Self> {
        let hundredths = |inches: f64| (inches * 100.0).round() as u16;
        if !Self::OVERALL_IN.contains(&overall_in) || !Self::WIDTH_IN.contains(&width_in) {
            return None;
        }
        let size =
            Self { style, overall: hundredths(overall_in), width: hundredths(width_in), construction, rim };
        let written = match style {
            InchStyle::Flotation { .. } => true,
            InchStyle::Cross => size.width.is_multiple_of(10) && construction == Construction::BiasPly,
            InchStyle::Slash => size.width.is_multiple_of(10) && size.overall.is_multiple_of(10),
        };
        (written && size.overall_diameter() - rim.everyday() >= Size::LEAST_SIDEWALL * 2.0).then_some(size)
    }

    fn overall_in(self) -> f64 {
        f64::from(self.overall) / 100.0
    }

    fn width_in(self) -> f64 {
        f64::from(self.width) / 100.0
    }

    fn overall_diameter(self) -> Length {
        Length::inches(self.overall_in())
    }
}

/// `245/640R18`: section width and overall diameter in mm, rim code.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct RacingSize {
    pub(super) section_mm: u16,
    pub(super) overall_mm: u16,
    pub(super) construction: Construction,
    pub(super) rim: RimDiameter,
}

impl RacingSize {
    /// A second figure from here on is an overall diameter, not an aspect ratio.
    pub const OVERALL_MM: std::ops::RangeInclusive<u32> = 300..=999;

    /// `None` when a figure is out of range or leaves no sidewall.
    pub fn new(
        section_mm: u32,
        overall_mm: u32,
        construction: Construction,
        rim: RimDiameter,
    ) -> Option<Self> {
        let sidewalls = Length::mm(f64::from(overall_mm)) - rim.everyday();
        (MetricSize::SECTION_MM.contains(&section_mm)
            && Self::OVERALL_MM.contains(&overall_mm)
            && sidewalls >= Size::LEAST_SIDEWALL * 2.0)
            .then_some(Self {
                section_mm: section_mm as u16,
                overall_mm: overall_mm as u16,
                construction,
                rim,
            })
    }
}

/// A tire size in any of the trade's notations.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Size {
    /// Millimetres, per cent, rim code.
    Metric(MetricSize),
    /// Inches throughout.
    Inch(InchSize),
    /// Millimetres, overall diameter in millimetres, rim code.
    Racing(RacingSize),
}

impl Size {
    /// Below this a size that states its overall diameter was surely mistyped.
    ///
    /// A judgement of ours: the lowest profile made for cars keeps some 50 mm.
    pub const LEAST_SIDEWALL: Length = Length::mm(25.4);

    /// Rim diameter code.
    pub fn rim(&self) -> RimDiameter {
        match self {
            Self::Metric(size) => size.rim,
            Self::Inch(size) => size.rim,
            Self::Racing(size) => size.rim,
        }
    }

    /// Construction.
    pub fn construction(&self) -> Construction {
        match self {
            Self::Metric(size) => size.construction,
            Self::Inch(size) => size.construction,
            Self::Racing(size) => size.construction,
        }
    }

    /// The width the size names: the section width on the measuring rim.
    pub fn named_section_width(&self) -> Length {
        match self {
            Self::Metric(size) => Length::mm(f64::from(size.section_mm)),
            Self::Inch(size) => Length::inches(size.width_in()),
            Self::Racing(size) => Length::mm(f64::from(size.section_mm)),
        }
    }

    /// The aspect ratio in per cent, when the size states one.
    pub fn stated_aspect_ratio(&self) -> Option<f64> {
        match self {
            Self::Metric(size) => Some(f64::from(size.aspect)),
            Self::Inch(_) | Self::Racing(_) => None,
        }
    }

    /// The overall diameter, when the size states one.
    pub fn stated_overall_diameter(&self) -> Option<Length> {
        match self {
            Self::Metric(_) => None,
            Self::Inch(size) => Some(size.overall_diameter()),
            Self::Racing(size) => Some(Length::mm(f64::from(size.overall_mm))),
        }
    }

    /// Whether the size lies on the grid that makers list from: width in tens from 125 to 355 (ending in
    /// 5), aspect ratio in fives from 25 to 85, whole rim codes from 12. Sizes off it are computed all the
    /// same; inch and racing sizes have no such grid.
    ///
    /// # Source
    /// Common practice.
    pub fn is_on_the_listed_grid(&self) -> bool {
        match self {
            Self::Metric(size) => {
                (125..=355).contains(&size.section_mm)
                    && size.section_mm % 10 == 5
                    && (25..=85).contains(&size.aspect)
                    && size.aspect % 5 == 0
                    && size.rim.code() >= 12.0
                    && size.rim.code().fract() == 0.0
            }
            Self::Inch(_) | Self::Racing(_) => true,
        }
    }
}

/// The canonical form; reading it gives the same size again.
impl fmt::Display for Size {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Metric(MetricSize { prefix, section_mm, aspect, construction, rim }) => {
                let (before, behind) = match prefix {
                    Prefix::None => ("", ""),
                    Prefix::P => ("P", ""),
                    Prefix::Lt => ("LT", ""),
                    Prefix::Hl => ("HL", ""),
                    Prefix::Commercial => ("", "C"),
                };
                write!(f, "{before}{section_mm}/{aspect}{}{rim}{behind}", construction.mark())
            }
            Self::Inch(size) => {
                let (overall, width) = (size.overall_in(), size.width_in());
                let mark = size.construction.mark();
                let rim = size.rim;
                // A decimal point keeps a small tire apart from a wheel with an offset: "26.0x10.0-15".
                let is_like_a_wheel = size.construction == Construction::BiasPly
                    && size.overall <= 2600
                    && size.overall % 100 == 0;
                let point = if is_like_a_wheel { ".0" } else { "" };
                match size.style {
                    InchStyle::Flotation { light_truck } => {
                        let lt = if light_truck { "LT" } else { "" };
                        write!(f, "{overall}{point}x{width:.2}{mark}{rim}{lt}")
                    }
                    InchStyle::Cross => write!(f, "{overall}{point}x{width:.1}{mark}{rim}"),
                    InchStyle::Slash => write!(f, "{overall:.1}/{width:.1}{mark}{rim}"),
                }
            }
            Self::Racing(RacingSize { section_mm, overall_mm, construction, rim }) => {
                write!(f, "{section_mm}/{overall_mm}{}{rim}", construction.mark())
            }
        }
    }
}
