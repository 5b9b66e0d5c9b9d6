//! Profiles out of drawing files and into them, on the wire.

use exchange::profile::{Out, ReadSheet, Unit};
use fitment::car::brake::drawn::{Drawn, look_at};
use serde::{Deserialize, Serialize};
use store::workshop::WheelTemplate;
use utoipa::{IntoParams, ToSchema};

use fitment::Wheel;
use fitment::car::brake::ProfileSource;

use super::brakes::{PointView, profile};
use super::corner::{choices, coded};
use super::read::FieldErrors;
use crate::problem::ApiError;

/// How a drawing is read.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct SheetQuery {
    /// `mm`, `cm` or `in`, for a file that does not say.
    #[serde(default)]
    pub unit: Option<String>,
}

impl SheetQuery {
    /// The unit.
    ///
    /// # Errors
    /// No unit.
    pub fn unit(&self) -> Result<Option<Unit>, ApiError> {
        let mut errors = FieldErrors::default();
        let unit = self.unit.as_deref().map(|code| {
            let unit = Unit::from_code(code);
            if unit.is_none() {
                errors.fault("unit", format!("{code:?} is not mm, cm or in"));
            }
            unit
        });
        errors.finish(unit.flatten())
    }
}

/// A layer of a drawing.
#[derive(Debug, Serialize, ToSchema)]
pub struct LayerView {
    /// Its name.
    pub name: String,
    /// How many pieces are drawn on it.
    pub contours: usize,
    /// The profile it makes, in millimetres: y and r; null when it makes none.
    #[schema(value_type = Option<Vec<Vec<f64>>>)]
    pub points: Option<Vec<PointView>>,
    /// Why it makes none; empty otherwise.
    pub why_not: String,
    /// How large it is; null where it is no profile.
    pub drawn: Option<DrawnView>,
}

/// A drawing as it was read.
#[derive(Debug, Serialize, ToSchema)]
pub struct SheetView {
    /// Its unit, by the file or by what was given; null when it must be asked for.
    pub unit: Option<&'static str>,
    /// Whether the file itself says its unit.
    pub says_its_unit: bool,
    /// Its layers.
    pub layers: Vec<LayerView>,
    /// What was noticed.
    pub notes: Vec<String>,
}

impl SheetView {
    /// A sheet, read in a unit where it has none of its own.
    pub fn new(sheet: ReadSheet, unit: Option<Unit>) -> Self {
        let layers = sheet.layers.into_iter().map(|layer| LayerView {
            drawn: layer.profile.as_ref().ok().and_then(|points| look_at(points)).map(DrawnView::from),
            name: layer.name,
            contours: layer.contours,
            why_not: layer.profile.as_ref().err().cloned().unwrap_or_default(),
            points: layer.profile.ok().map(|points| points.into_iter().map(|(y, r)| [y, r]).collect()),
        });
        Self {
            unit: sheet.unit.or(unit).map(Unit::code),
            says_its_unit: sheet.unit.is_some(),
            layers: layers.collect(),
            notes: sheet.notes,
        }
    }
}

/// How large a drawn profile is, and what is odd about it. Millimetres: y from the hub face, r from the axle.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct DrawnView {
    pub y_mm: [f64; 2],
    pub r_mm: [f64; 2],
    /// Where it begins and ends, when it is open.
    pub open_ends_mm: Option<[[f64; 2]; 2]>,
    /// What must be answered before it counts.
    pub asks: Option<String>,
}

impl From<Drawn> for DrawnView {
    fn from(drawn: Drawn) -> Self {
        Self {
            y_mm: drawn.y.into(),
            r_mm: drawn.r.into(),
            open_ends_mm: drawn.open_ends.map(|ends| ends.map(<[f64; 2]>::from)),
            asks: drawn.asks,
        }
    }
}

/// A profile to be written.
#[derive(Debug, Deserialize, ToSchema)]
pub struct ProfileOut {
    /// `dxf`, `svg`, `csv`, or `pdf` for a card template at true scale.
    pub format: String,
    /// What it is called.
    pub name: String,
    /// A line that stands on the card: car, axle, side.
    #[serde(default)]
    pub note: String,
    /// Its points.
    #[schema(value_type = Vec<Vec<f64>>)]
    pub points: Vec<PointView>,
}

/// A profile with what it is written as.
#[derive(Debug)]
pub struct ReadOut {
    /// The drawing format; `None` for the card.
    pub out: Option<Out>,
    /// Its media type.
    pub media_type: &'static str,
    /// Points of y and r.
    pub points: Vec<(f64, f64)>,
}

impl ProfileOut {
    /// Checked.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn read(&self) -> Result<ReadOut, ApiError> {
        let mut errors = FieldErrors::default();
        let format = match self.format.as_str() {
            "dxf" => Some((Some(Out::Dxf), "image/vnd.dxf")),
            "svg" => Some((Some(Out::Svg), "image/svg+xml")),
            "csv" => Some((Some(Out::Csv), "text/csv; charset=utf-8")),
            "pdf" => Some((None, "application/pdf")),
            other => {
                errors.fault("/format", format!("{other:?} is not dxf, svg, csv or pdf"));
                None
            }
        };
        errors.text("/name", &self.name, 80);
        errors.text("/note", &self.note, 160);
        let profile = profile(&mut errors, "/points", &self.points);
        let (format, profile) = errors.finish_with(format.zip(profile), "/points", "is no profile")?;
        let points = profile.points().iter().map(|point| (point.y, point.r)).collect();
        Ok(ReadOut { out: format.0, media_type: format.1, points })
    }
}

/// The inside of a wheel as measured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WheelTemplateView {
    /// Line or design.
    pub line: String,
    /// Size with offset, as in `18x8.5 ET35`.
    pub size: String,
    /// `template` or `readings`.
    pub source: String,
    /// How far it may be off, either way.
    pub plus_minus_mm: f64,
    /// Barrel inside in wheel coordinates: y from the mounting pad, outboard positive; r.
    #[schema(value_type = Vec<Vec<f64>>)]
    pub barrel: Vec<PointView>,
    /// Back of the spokes.
    #[schema(value_type = Vec<Vec<f64>>)]
    pub spoke_back: Vec<PointView>,
}

impl From<WheelTemplate> for WheelTemplateView {
    fn from(kept: WheelTemplate) -> Self {
        let WheelTemplate { line, size, source, plus_minus_mm, barrel, spoke_back } = kept;
        Self { line, size, source, plus_minus_mm, barrel, spoke_back }
    }
}

/// A wheel's size without bolt circle and bore: by it and the line its template is found.
pub fn template_size(wheel: &Wheel) -> String {
    wheel.placed().to_string()
}

impl WheelTemplateView {
    /// Checked.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn read(&self) -> Result<WheelTemplate, ApiError> {
        let mut errors = FieldErrors::default();
        let wheel = match self.size.parse::<Wheel>() {
            Ok(wheel) if wheel.offset.is_some() => Some(wheel),
            Ok(_) => {
                errors.fault("/size", "names no offset: the spokes' place depends on it");
                None
            }
            Err(error) => {
                errors.fault_in_notation("/size", &error);
                None
            }
        };
        let source = ProfileSource::from_code(&self.source);
        coded(&mut errors, "/source", &self.source, source, choices!(ProfileSource));
        if !(0.0..=20.0).contains(&self.plus_minus_mm) {
            errors.fault("/plus_minus_mm", "goes from 0 to 20 mm");
        }
        profile(&mut errors, "/barrel", &self.barrel);
        profile(&mut errors, "/spoke_back", &self.spoke_back);
        let line = errors.text("/line", self.line.trim(), 80);
        let wheel = errors.finish_with(wheel, "/size", "is no wheel size")?;
        Ok(WheelTemplate {
            line,
            size: template_size(&wheel),
            source: self.source.clone(),
            plus_minus_mm: self.plus_minus_mm,
            barrel: self.barrel.clone(),
            spoke_back: self.spoke_back.clone(),
        })
    }
}
