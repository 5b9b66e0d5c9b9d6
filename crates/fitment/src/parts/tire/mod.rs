//! A tire as its sidewall names it, and every dimension that follows from the name.
//!
//! - [`size`](Size): metric, inch (flotation and drag) and racing sizes, and how each is printed.
//! - [`dimensions`]: section height, overall diameter, circumference, revolutions, tolerance limits.
//! - [`rims`]: measuring rim, permitted rims, section width on another rim, tread width.

pub mod dimensions;
pub mod rims;
mod size;
pub mod version_table;

use std::fmt;

pub use size::{Construction, InchSize, InchStyle, MetricSize, Prefix, RacingSize, Size};

use crate::values::load_index::LoadIndex;
use crate::values::speed_symbol::SpeedSymbol;

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

/// Load range letter of light truck tires, B to H.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct LoadRange(char);

impl LoadRange {
    /// From its letter, any case; `None` outside B–H.
    pub fn from_letter(letter: char) -> Option<Self> {
        let letter = letter.to_ascii_uppercase();
        ('B'..='H').contains(&letter).then_some(Self(letter))
    }

    /// From the older ply rating: 4 is B, and every two plies are a letter more; `None` for odd ones and outside 4–16.
    ///
    /// # Source
    /// TRA load ranges and ply ratings (from memory).
    pub fn from_ply_rating(ply: u32) -> Option<Self> {
        let letter = ply.checked_sub(4).filter(|above| above % 2 == 0)? / 2;
        Self::from_letter(char::from_u32('B' as u32 + letter)?)
    }

    /// The letter.
    pub fn letter(self) -> char {
        self.0
    }
}

/// The mark of the car maker that a tire was made for (`N0`, `MO1`, a star), kept as it is written.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct FactoryMark([u8; 4]);

impl FactoryMark {
    /// The star.
    pub const STAR: Self = Self(*b"*   ");
    /// Marks that are read, longest first where one begins like another.
    pub const KNOWN: [&'static str; 44] = [
        "MO1A", "MO1", "MOE", "MO", "AO1", "AO2", "AOE", "AO", "RO1", "RO2", "R01", "R02", "N0", "N1", "N2",
        "N3", "N4", "N5", "N6", "NA0", "NC0", "ND0", "NE0", "NF0", "K1", "K2", "K3", "T0", "T1", "T2", "JLR",
        "LR1", "VOL", "VO", "POL", "GOE", "HN", "HO", "F01", "F02", "FO", "MC1", "LTS", "B1",
    ];

    /// From a known mark, any case.
    pub fn read(text: &str) -> Option<Self> {
        if text == "*" {
            return Some(Self::STAR);
        }
        Self::KNOWN.iter().find(|known| known.eq_ignore_ascii_case(text)).map(|known| {
            let mut bytes = [b' '; 4];
            for (place, byte) in bytes.iter_mut().zip(known.bytes()) {
                *place = byte;
            }
            Self(bytes)
        })
    }
}

impl fmt::Display for FactoryMark {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(std::str::from_utf8(&self.0).unwrap_or_default().trim_end())
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
    /// Marked `3PMSF`, the mountain with the snowflake.
    pub snowflake: bool,
    /// The car maker's mark, when one stands on it.
    pub factory_mark: Option<FactoryMark>,
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
            snowflake: false,
            factory_mark: None,
        }
    }

    /// Which load version or table the writing states: `SL`, `XL`, `HL`, `LT`, `C`, `P`; `None` when it states none.
    pub fn stated_version(&self) -> Option<&'static str> {
        let version = self.load_version.map(LoadVersion::mark);
        match self.size.prefix() {
            _ if self.size.is_light_truck() => Some("LT"),
            Some(Prefix::Hl) => Some("HL"),
            Some(Prefix::Commercial) => Some("C"),
            Some(Prefix::P) => version.or(Some("P")),
            _ => version,
        }
    }

    /// The speed it is made for in km/h: by its symbol, else by the letter inside the size, else 240 for a ZR, else not
    /// stated.
    ///
    /// # Source
    /// UN R30: ZR without a service description means over 240 km/h.
    pub fn top_speed_kmh(&self) -> Option<f64> {
        self.service.map(|s| s.speed.top_speed_kmh()).or_else(|| match self.size.construction() {
            Construction::ZrRadial => Some(240.0),
            Construction::SpeedRadial(symbol) => Some(symbol.top_speed_kmh()),
            Construction::Radial | Construction::BiasPly => None,
        })
    }

    /// Whether the real limit lies above [`Self::top_speed_kmh`] and only the maker knows it: `(Y)`, or a ZR
    /// that nothing is stated beside.
    pub fn is_open_ended(&self) -> bool {
        self.service.map_or(self.size.construction() == Construction::ZrRadial, |s| s.speed.is_open_ended())
    }

    /// Whether it is likely made for performance, as far as its sidewall says: for more than 240 km/h and for no truck. Most
    /// of these have a band that guards the rim.
    ///
    /// # Source
    /// Common practice, no published source.
    pub fn is_for_performance(&self) -> bool {
        let is_fast = self.is_open_ended() || self.top_speed_kmh().is_some_and(|kmh| kmh > 240.0);
        is_fast && !self.size.is_light_truck()
    }

    /// The speed symbol as marked, `ZR` when the size alone says it.
    pub fn speed_mark(&self) -> Option<&'static str> {
        self.service.map(|s| s.speed.mark()).or_else(|| match self.size.construction() {
            Construction::ZrRadial => Some("ZR"),
            Construction::SpeedRadial(symbol) => Some(symbol.mark()),
            Construction::Radial | Construction::BiasPly => None,
        })
    }
}

/// The one canonical form: size, service description, load version, load range, `RFT`, `M+S`, `3PMSF`, factory mark.
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
        if self.snowflake {
            f.write_str(" 3PMSF")?;
        }
        if let Some(mark) = self.factory_mark {
            write!(f, " {mark}")?;
        }
        Ok(())
    }
}
