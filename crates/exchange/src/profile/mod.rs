//! Profiles in and out: DXF, SVG and CSV in; DXF, SVG, CSV and a 1:1 card template as PDF out.
//!
//! A file is read into layers of contours in its own units; [`Sheet::profile`] then makes one profile of a layer, in
//! millimetres. Curves are flattened to within 0.05 mm.
//!
//! # Frame
//! x of a drawing is y of the profile, along the axle, outboard to the right; y of a drawing is r, up from the spin axis.
//! In SVG, where y points down, r is −y; a drawing that has it the other way round is read so, and says so.

mod budget;
mod csv;
mod dxf;
mod flatten;
mod join;
mod pdf;
mod svg;

use serde::{Deserialize, Serialize};

pub use pdf::{CHECK_BAR_MM, card_template};

/// Curves are flattened to within this.
pub const TOLERANCE_MM: f64 = 0.05;
/// Largest file read, in bytes.
pub const LARGEST_FILE: usize = 8 * 1024 * 1024;
/// Most points kept of a file.
pub const MOST_POINTS: usize = 100_000;
/// Most pieces (entities, elements) of a file, drawn or not.
pub const MOST_PIECES: usize = 120_000;
/// Most layers.
pub const MOST_LAYERS: usize = 500;
/// How far from the origin a point may be, in the drawing's units.
pub const FURTHEST: f64 = 1e6;
/// Ends nearer than this are one.
pub const JOINS_WITHIN_MM: f64 = 0.1;

/// A unit of length of a drawing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
pub enum Unit {
    /// Millimetres.
    Millimetres,
    /// Centimetres.
    Centimetres,
    /// Inches.
    Inches,
}

impl Unit {
    /// Its code.
    pub fn code(self) -> &'static str {
        match self {
            Self::Millimetres => "mm",
            Self::Centimetres => "cm",
            Self::Inches => "in",
        }
    }

    /// The one of a code.
    pub fn from_code(code: &str) -> Option<Self> {
        [Self::Millimetres, Self::Centimetres, Self::Inches].into_iter().find(|unit| unit.code() == code)
    }

    /// Millimetres in one.
    pub fn in_mm(self) -> f64 {
        match self {
            Self::Millimetres => 1.0,
            Self::Centimetres => 10.0,
            Self::Inches => 25.4,
        }
    }
}

/// A line of points in the drawing's units.
#[derive(Debug, Clone, PartialEq)]
pub struct Contour {
    /// Its points.
    pub points: Vec<(f64, f64)>,
    /// Whether its end is its beginning.
    pub is_closed: bool,
}

/// A layer of a drawing.
#[derive(Debug, Clone, PartialEq)]
pub struct Layer {
    /// Its name.
    pub name: String,
    /// Its contours, as drawn.
    pub contours: Vec<Contour>,
}

/// A drawing as it was read.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Sheet {
    /// Its layers that have lines.
    pub layers: Vec<Layer>,
    /// Its unit, when the file says.
    pub unit: Option<Unit>,
    /// What was noticed.
    pub notes: Vec<String>,
}

/// Why a drawing, or a layer of it, is no profile.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum SheetError {
    /// Too large.
    #[error("the file is larger than 8 MB: export the profile alone")]
    TooLarge,
    /// No format that is read.
    #[error("this is no DXF, SVG or CSV of points")]
    UnknownFormat,
    /// It cannot be read.
    #[error("the {format} cannot be read: {why}")]
    Broken {
        /// Which format.
        format: &'static str,
        /// Why.
        why: String,
    },
    /// Nothing is drawn in it.
    #[error("nothing is drawn in it that can be a profile: lines, polylines, arcs and splines are")]
    Empty,
    /// Too much is drawn in it.
    #[error("more than {MOST_POINTS} points: export the profile alone")]
    TooManyPoints,
    /// Too many pieces.
    #[error("more than {MOST_PIECES} pieces: export the profile alone")]
    TooManyPieces,
    /// Too many layers.
    #[error("more than {MOST_LAYERS} layers: export the profile's layer alone")]
    TooManyLayers,
    /// A point that is on no wheel.
    #[error(
        "a coordinate of {0} is further out than the {FURTHEST} units that are read: look for a stray point, or move \
         the drawing to its origin"
    )]
    TooFar(f64),
    /// It does not say its unit.
    #[error("the file does not say its unit: say whether it is drawn in mm, cm or in")]
    UnitNeeded,
    /// No such layer.
    #[error("there is no layer {0:?}")]
    NoSuchLayer(String),
    /// Several pieces that do not meet.
    #[error(
        "the layer has {pieces} pieces that do not meet: the ends at {at} are {gap_mm:.2} mm apart; join them, or take one layer for each line"
    )]
    Apart {
        /// How many pieces are left.
        pieces: usize,
        /// Where, in words.
        at: String,
        /// How far apart the nearest ends are.
        gap_mm: f64,
    },
    /// Lines that fork.
    #[error("three or more lines meet at {0}: a profile goes one way; remove the others")]
    Forks(String),
}

/// Reads a drawing; the format is known by its content.
///
/// # Errors
/// What is no drawing, and why.
pub fn read(bytes: &[u8]) -> Result<Sheet, SheetError> {
    if bytes.len() > LARGEST_FILE {
        return Err(SheetError::TooLarge);
    }
    let bytes = bytes.strip_prefix(b"\xef\xbb\xbf").unwrap_or(bytes);
    let text = String::from_utf8_lossy(bytes);
    let start = text.trim_start();
    let sheet = if start.starts_with('<') {
        svg::read(start)?
    } else if bytes.starts_with(b"AutoCAD Binary DXF") || is_dxf(start) {
        dxf::read(bytes)?
    } else if start
        .starts_with(|first: char| first.is_ascii_digit() || first.is_alphabetic() || "-+\"".contains(first))
    {
        csv::read(start)?
    } else {
        return Err(SheetError::UnknownFormat);
    };
    if sheet.layers.is_empty() {
        return Err(SheetError::Empty);
    }
    Ok(sheet)
}

/// Finds a layer by its name, or begins it; `MOST_LAYERS` at most.
#[derive(Debug, Default)]
struct Layers {
    all: Vec<Layer>,
    by_name: std::collections::HashMap<String, usize>,
}

impl Layers {
    fn of(&mut self, name: &str) -> Result<&mut Layer, SheetError> {
        let at = match self.by_name.get(name) {
            Some(at) => *at,
            None if self.all.len() >= MOST_LAYERS => return Err(SheetError::TooManyLayers),
            None => {
                self.by_name.insert(name.to_owned(), self.all.len());
                self.all.push(Layer { name: name.to_owned(), contours: Vec::new() });
                self.all.len() - 1
            }
        };
        Ok(&mut self.all[at])
    }
}

/// A name without what would break a file's lines.
fn plain(name: &str) -> String {
    name.chars().map(|sign| if sign.is_control() { ' ' } else { sign }).collect()
}

/// A DXF is pairs of lines: a group code and its value; it begins with section or comment.
fn is_dxf(text: &str) -> bool {
    let mut lines = text.lines().map(str::trim);
    match (lines.next(), lines.next()) {
        (Some("0"), Some(value)) => value.eq_ignore_ascii_case("SECTION"),
        (Some("999"), Some(_)) => true,
        _ => false,
    }
}

/// What a drawing came to, layer by layer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct ReadSheet {
    /// The file's own unit.
    pub unit: Option<Unit>,
    /// Its layers.
    pub layers: Vec<ReadLayer>,
    /// What was noticed.
    pub notes: Vec<String>,
}

/// A layer, and the profile it makes or why it makes none.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct ReadLayer {
    /// Its name.
    pub name: String,
    /// How many pieces are drawn on it.
    pub contours: usize,
    /// Points of (y, r) in millimetres.
    pub profile: Result<Vec<(f64, f64)>, String>,
}

impl Sheet {
    /// Every layer as a profile, in the file's own unit, else in the one that is given.
    pub fn profiles(self, unit: Option<Unit>) -> ReadSheet {
        let own = self.unit;
        let layers = self.layers.into_iter().map(|layer| ReadLayer {
            contours: layer.contours.len(),
            profile: layer.profile(own.or(unit)).map_err(|error| error.to_string()),
            name: layer.name,
        });
        ReadSheet { unit: own, layers: layers.collect(), notes: self.notes }
    }

    /// One layer as a profile: its pieces joined end to end, in millimetres, points of (y, r).
    ///
    /// The unit is the file's own, else the one that is given.
    ///
    /// # Errors
    /// No unit, no such layer, pieces that do not meet, or that fork.
    pub fn profile(&self, layer: &str, unit: Option<Unit>) -> Result<Vec<(f64, f64)>, SheetError> {
        let found = self.layers.iter().find(|one| one.name == layer);
        let found = found.ok_or_else(|| SheetError::NoSuchLayer(layer.to_owned()))?;
        found.profile(self.unit.or(unit))
    }
}

impl Layer {
    fn profile(&self, unit: Option<Unit>) -> Result<Vec<(f64, f64)>, SheetError> {
        let scale = unit.ok_or(SheetError::UnitNeeded)?.in_mm();
        let contours: Vec<Contour> = self
            .contours
            .iter()
            .map(|contour| Contour {
                points: contour.points.iter().map(|(x, y)| (x * scale, y * scale)).collect(),
                is_closed: contour.is_closed,
            })
            .collect();
        join::joined(contours)
    }
}

/// A profile as a drawing file.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Out {
    /// DXF in millimetres, one polyline.
    Dxf,
    /// SVG in millimetres, one path.
    Svg,
    /// CSV of `y_mm,r_mm`.
    Csv,
}

/// Writes named profiles, points of (y, r) in millimetres; in DXF and SVG each is a layer of its name.
///
/// # Errors
/// What the writer says.
pub fn write(profiles: &[(&str, &[(f64, f64)])], format: Out) -> Result<Vec<u8>, SheetError> {
    let named: Vec<(String, &[(f64, f64)])> =
        profiles.iter().map(|(name, points)| (plain(name), *points)).collect();
    match format {
        Out::Dxf => dxf::write(&named),
        Out::Svg => Ok(svg::write(&named).into_bytes()),
        Out::Csv => csv::write(&named),
    }
}
