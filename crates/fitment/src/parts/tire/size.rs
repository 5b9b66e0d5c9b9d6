//! The size itself: three families of notation, one canonical form each.

use std::fmt;

use crate::values::codes::RimDiameter;
use crate::values::length::Length;
use crate::values::speed_symbol::SpeedSymbol;

/// How the carcass is built, as the size says it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Construction {
    /// `R`. Also what a spoken size ("265 35 18") means today.
    Radial,
    /// `ZR`: radial, over 240 km/h.
    ZrRadial,
    /// `HR`, `VR`: radial, the speed symbol of older sizes where nothing is stated beside them.
    SpeedRadial(SpeedSymbol),
    /// `-`, `D`: bias ply. A dash in a size that only radials are made in is no more than a separator.
    BiasPly,
}

impl InchStyle {
    fn as_light_truck(self) -> Self {
        match self {
            Self::Flotation { .. } => Self::Flotation { light_truck: true },
            Self::Numeric { .. } => Self::Numeric { light_truck: true },
            other => other,
        }
    }
}

impl Construction {
    /// Light truck and commercial sizes in millimetres are radials.
    fn or_radial(self) -> Self {
        if self == Self::BiasPly { Self::Radial } else { self }
    }

    /// The word for it: radial or bias.
    pub fn word(self) -> &'static str {
        match self {
            Self::Radial | Self::ZrRadial | Self::SpeedRadial(_) => "radial",
            Self::BiasPly => "bias",
        }
    }

    /// How it is marked inside the size.
    pub fn mark(self) -> &'static str {
        match self {
            Self::Radial => "R",
            Self::ZrRadial => "ZR",
            Self::SpeedRadial(SpeedSymbol::S) => "SR",
            Self::SpeedRadial(SpeedSymbol::T) => "TR",
            Self::SpeedRadial(SpeedSymbol::Q) => "QR",
            Self::SpeedRadial(SpeedSymbol::H) => "HR",
            Self::SpeedRadial(SpeedSymbol::V) => "VR",
            Self::SpeedRadial(SpeedSymbol::W) => "WR",
            Self::SpeedRadial(_) => "R",
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
    /// Whether the size says its aspect ratio; older ones leave it out.
    pub(super) states_aspect: bool,
    pub(super) construction: Construction,
    pub(super) rim: RimDiameter,
}

impl MetricSize {
    /// The aspect ratio of a size that states none (`165R13`), in per cent.
    ///
    /// # Source
    /// ETRTO, the "80 or 82 series" (from memory).
    pub const UNSTATED_ASPECT: u32 = 82;
    /// Up to this aspect ratio, on rims from code 15, no cross-ply tire is made for cars.
    ///
    /// # Source
    /// Common practice, no published source.
    const RADIAL_ONLY_ASPECT: u32 = 55;

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
        let radial_only = aspect <= Self::RADIAL_ONLY_ASPECT && rim.code() >= 15.0 || prefix != Prefix::None;
        let construction = match construction {
            Construction::BiasPly if radial_only => Construction::Radial,
            other => other,
        };
        (Self::SECTION_MM.contains(&section_mm) && Self::ASPECT.contains(&aspect)).then_some(Self {
            prefix,
            section_mm: section_mm as u16,
            aspect: aspect as u8,
            states_aspect: true,
            construction,
            rim,
        })
    }

    /// A size that leaves its aspect ratio out: [`Self::UNSTATED_ASPECT`] is assumed.
    pub fn without_aspect(
        prefix: Prefix,
        section_mm: u32,
        construction: Construction,
        rim: RimDiameter,
    ) -> Option<Self> {
        let size = Self::new(prefix, section_mm, Self::UNSTATED_ASPECT, construction, rim)?;
        (size.construction != Construction::BiasPly).then_some(Self { states_aspect: false, ..size })
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
    /// `7.00-15`, `7.50R16LT`: the width alone, in hundredths; the height is assumed.
    Numeric {
        /// Marked LT.
        light_truck: bool,
    },
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
            InchStyle::Numeric { .. } => false,
            InchStyle::Cross => size.width.is_multiple_of(10) && construction == Construction::BiasPly,
            InchStyle::Slash => {
                size.width.is_multiple_of(10) && size.overall.is_multiple_of(10) && size.width <= size.overall
            }
        };
        (written && size.overall_diameter() - rim.everyday() >= Size::LEAST_SIDEWALL * 2.0).then_some(size)
    }

    /// Sidewall height of a numeric size as a share of its width: an assumption that is said.
    ///
    /// # Source
    /// Tables of classic tires, 0.93 to 0.98 (from memory).
    const NUMERIC_ASPECT: f64 = 0.95;
    /// From this width on a numeric size is a truck's, in inches.
    const TRUCK_WIDTH_IN: f64 = 8.0;

    /// `7.00-15`: width in inches and rim code. `None` out of range, or for a truck's.
    pub fn numeric(
        width_in: f64,
        light_truck: bool,
        construction: Construction,
        rim: RimDiameter,
    ) -> Option<Self> {
        if !Self::WIDTH_IN.contains(&width_in) || width_in >= Self::TRUCK_WIDTH_IN {
            return None;
        }
        let width = (width_in * 100.0).round();
        let overall = rim.code() + 2.0 * Self::NUMERIC_ASPECT * width / 100.0;
        let style = InchStyle::Numeric { light_truck };
        Some(Self {
            style,
            overall: (overall * 100.0).round() as u16,
            width: width as u16,
            construction,
            rim,
        })
    }

    /// Which habit it is written by.
    pub fn style(&self) -> InchStyle {
        self.style
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

    /// Section width of a slick or drag tire as a multiple of the tread width that its size names.
    ///
    /// # Source
    /// Makers' lists (from memory), ± 5 %; a list's own measured section beats it.
    pub const SLICK_SECTION_PER_TREAD: f64 = 1.22;

    /// The section width that the size means, on the measuring rim. Slicks and drag tires name their tread instead:
    /// there it is an estimate.
    pub fn named_section_width(&self) -> Length {
        match self {
            Self::Metric(size) => Length::mm(f64::from(size.section_mm)),
            Self::Inch(size) => match self.named_tread_width() {
                Some(tread) => tread * Self::SLICK_SECTION_PER_TREAD,
                None => Length::inches(size.width_in()),
            },
            Self::Racing(size) => Length::mm(f64::from(size.section_mm)),
        }
    }

    /// The tread width, where the size names that: drag tires and slicks (`28x6.0-17`, `26.0/10.0-15`).
    pub fn named_tread_width(&self) -> Option<Length> {
        match self {
            Self::Inch(size) if matches!(size.style, InchStyle::Cross | InchStyle::Slash) => {
                Some(Length::inches(size.width_in()))
            }
            _ => None,
        }
    }

    /// What is assumed of a size because it does not say it: names of quantities.
    pub fn assumed(&self) -> &'static [&'static str] {
        match self {
            Self::Metric(size) if !size.states_aspect => &["aspect_ratio", "overall_diameter"],
            Self::Inch(size) if matches!(size.style, InchStyle::Numeric { .. }) => &["overall_diameter"],
            _ if self.named_tread_width().is_some() => &["section_width"],
            _ => &[],
        }
    }

    /// Metric, and neither light truck nor commercial nor of another table.
    pub fn is_plain_metric(&self) -> bool {
        matches!(self, Self::Metric(size) if size.prefix == Prefix::None)
    }

    /// The prefix of a metric size, with the C behind it.
    pub fn prefix(&self) -> Option<Prefix> {
        match self {
            Self::Metric(size) => Some(size.prefix),
            _ => None,
        }
    }

    /// Marked as a light truck's.
    pub fn is_light_truck(&self) -> bool {
        match self {
            Self::Metric(size) => size.prefix == Prefix::Lt,
            Self::Inch(size) => matches!(
                size.style,
                InchStyle::Flotation { light_truck: true } | InchStyle::Numeric { light_truck: true }
            ),
            Self::Racing(_) => false,
        }
    }

    /// A flotation size (`33x12.50R15`), marked LT or not.
    pub fn is_flotation(&self) -> bool {
        matches!(self, Self::Inch(size) if matches!(size.style, InchStyle::Flotation { .. }))
    }

    /// Whether UN R30 speaks of it: passenger sizes in millimetres. Light truck, flotation, racing and classic sizes
    /// follow other rules.
    pub fn is_under_r30(&self) -> bool {
        matches!(self, Self::Metric(size) if !matches!(size.prefix, Prefix::Lt | Prefix::Commercial))
    }

    /// Metric widths of cars end in 5, those of motorcycles in 0; kept out by what it is.
    ///
    /// # Source
    /// Common practice, no published source; car tires in whole tens begin beyond 250.
    pub fn is_for_a_motorcycle(&self) -> bool {
        matches!(self, Self::Metric(size)
            if size.prefix == Prefix::None && size.states_aspect && size.section_mm % 10 == 0 && size.section_mm <= 250)
    }

    /// The same, marked LT.
    #[must_use]
    pub fn as_light_truck(self) -> Self {
        match self {
            Self::Metric(size) if size.prefix == Prefix::None => Self::Metric(MetricSize {
                prefix: Prefix::Lt,
                construction: size.construction.or_radial(),
                ..size
            }),
            Self::Inch(size) => Self::Inch(InchSize { style: size.style.as_light_truck(), ..size }),
            other => other,
        }
    }

    /// The same without the speed symbol inside: what stands beside the size says it.
    #[must_use]
    pub fn without_speed(self) -> Self {
        match self {
            Self::Metric(size @ MetricSize { construction: Construction::SpeedRadial(_), .. }) => {
                Self::Metric(MetricSize { construction: Construction::Radial, ..size })
            }
            other => other,
        }
    }

    /// The same, marked HL; another prefix stays.
    #[must_use]
    pub fn as_high_load(self) -> Self {
        self.prefixed(Prefix::Hl)
    }

    /// The same, marked C; another prefix stays.
    #[must_use]
    pub fn as_commercial(self) -> Self {
        self.prefixed(Prefix::Commercial)
    }

    fn prefixed(self, prefix: Prefix) -> Self {
        match self {
            Self::Metric(size) if size.prefix == Prefix::None => {
                Self::Metric(MetricSize { prefix, construction: size.construction.or_radial(), ..size })
            }
            other => other,
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
            Self::Metric(MetricSize { prefix, section_mm, aspect, states_aspect, construction, rim }) => {
                let (before, behind) = match prefix {
                    Prefix::None => ("", ""),
                    Prefix::P => ("P", ""),
                    Prefix::Lt => ("LT", ""),
                    Prefix::Hl => ("HL", ""),
                    Prefix::Commercial => ("", "C"),
                };
                let aspect = if *states_aspect { format!("/{aspect}") } else { String::new() };
                write!(f, "{before}{section_mm}{aspect}{}{rim}{behind}", construction.mark())
            }
            Self::Inch(size) => {
                let (overall, width) = (size.overall_in(), size.width_in());
                let mark = size.construction.mark();
                let rim = size.rim;
                // A decimal point keeps a small tire apart from a wheel with an offset: "26.0x10.0-15".
                let is_like_a_wheel = size.construction == Construction::BiasPly
                    && size.overall <= 2600
                    && size.overall % 100 == 0;
                // And a tall slick from a light truck's tire: "33x12.5-17" is a 33x12.50.
                let is_like_a_truck =
                    size.style == InchStyle::Cross && size.overall >= 3000 && size.overall % 100 == 0;
                let point = if is_like_a_wheel || is_like_a_truck { ".0" } else { "" };
                match size.style {
                    InchStyle::Flotation { light_truck } => {
                        let lt = if light_truck { "LT" } else { "" };
                        write!(f, "{overall}{point}x{width:.2}{mark}{rim}{lt}")
                    }
                    InchStyle::Numeric { light_truck } => {
                        let lt = if light_truck { "LT" } else { "" };
                        write!(f, "{width:.2}{mark}{rim}{lt}")
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
