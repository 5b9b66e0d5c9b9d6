//! A tire as its sidewall names it, and every dimension that follows from the name.
//!
//! - [`size`](Size): metric, inch (flotation and drag) and racing sizes, and how each is printed.
//! - [`dimensions`]: section height, overall diameter, circumference, revolutions, tolerance limits.
//! - [`rims`]: measuring rim, permitted rims, section width on another rim, tread width.

pub mod dimensions;
pub mod rims;
mod size;

use std::fmt;

pub use size::{Construction, InchSize, InchStyle, MetricSize, Prefix, RacingSize, Size};

use crate::load_index::LoadIndex;
use crate::speed_symbol::SpeedSymbol;

/// Load index and speed symbol, `94W` or `121/118S`.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct ServiceDescription {
    /// Index for a single tire.
    pub single: LoadIndex,
    /// Index for each tire of a twin pair, not above the single one.
    pub dual: Option<LoadIndex>,
    /// Speed symbol.
    pub speed: SpeedSymbol,
}

impl fmt::Display for ServiceDescription {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let dual = self.dual.map(|d| format!("/{d}")).unwrap_or_default();
        match self.speed {
            SpeedSymbol::OverY => write!(f, "({}{dual}Y)", self.single),
            symbol => write!(f, "{}{dual}{symbol}", self.single),
        }
    }
}

/// Which load version the sidewall states beside the size.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum LoadVersion {
    /// `SL`, standard load.
    Standard,
    /// `XL`, extra load (also marked "reinforced").
    Extra,
}

impl LoadVersion {
    /// How it is marked.
    pub fn mark(self) -> &'static str {
        match self {
            Self::Standard => "SL",
            Self::Extra => "XL",
        }
    }
}

/// Load range letter of light truck tires, B to F.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct LoadRange(char);

impl LoadRange {
    /// From its letter, any case; `None` outside B–F.
    pub fn from_letter(letter: char) -> Option<Self> {
        let letter = letter.to_ascii_uppercase();
        ('B'..='F').contains(&letter).then_some(Self(letter))
    }

    /// The letter.
    pub fn letter(self) -> char {
        self.0
    }
}

/// A tire as written on its sidewall or a price list.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Tire {
    /// The size.
    pub size: Size,
    /// Load index and speed symbol, when stated.
    pub service: Option<ServiceDescription>,
    /// Standard or extra load, when stated.
    pub load_version: Option<LoadVersion>,
    /// Load range letter, when stated.
    pub load_range: Option<LoadRange>,
    /// Marked as run-flat (`RFT`, `ZRF`).
    pub run_flat: bool,
    /// Marked `M+S`.
    pub mud_and_snow: bool,
}

impl Tire {
    /// A size with nothing stated beside it.
    pub fn plain(size: Size) -> Self {
        Self {
            size,
            service: None,
            load_version: None,
            load_range: None,
            run_flat: false,
            mud_and_snow: false,
        }
    }

    /// The speed it is made for in km/h: by its symbol, else 240 for a ZR in the size, else not stated.
    ///
    /// # Source
    /// UN R30: ZR without a service description means over 240 km/h.
    pub fn top_speed_kmh(&self) -> Option<f64> {
        self.service
            .map(|s| s.speed.top_speed_kmh())
            .or_else(|| (self.size.construction() == Construction::ZrRadial).then_some(240.0))
    }

    /// Whether the real limit lies above [`Self::top_speed_kmh`] and only the maker knows it: `(Y)`, or a ZR
    /// that nothing is stated beside.
    pub fn is_open_ended(&self) -> bool {
        self.service.map_or(self.size.construction() == Construction::ZrRadial, |s| s.speed.is_open_ended())
    }

    /// The speed symbol as marked, `ZR` when the size alone says it.
    pub fn speed_mark(&self) -> Option<&'static str> {
        self.service
            .map(|s| s.speed.mark())
            .or_else(|| (self.size.construction() == Construction::ZrRadial).then_some("ZR"))
    }
}

/// The one canonical form: size, service description, load version, load range, `RFT`, `M+S`.
impl fmt::Display for Tire {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}", self.size)?;
        if let Some(service) = self.service {
            write!(f, " {service}")?;
        }
        if let Some(version) = self.load_version {
            write!(f, " {}", version.mark())?;
        }
        if let Some(range) = self.load_range {
            write!(f, " LR {}", range.letter())?;
        }
        if self.run_flat {
            f.write_str(" RFT")?;
        }
        if self.mud_and_snow {
            f.write_str(" M+S")?;
        }
        Ok(())
    }
}
