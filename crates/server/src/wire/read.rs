//! From texts into the core's types. Every field's problem is collected, not only the first.

use fitment::setup::line;
use fitment::{Axle, Setup, SetupPair};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Lines;
use crate::problem::{ApiError, FieldError};

/// Collects what is wrong with a request while it is read.
#[derive(Debug, Default)]
pub struct FieldErrors {
    errors: Vec<FieldError>,
}

impl FieldErrors {
    /// One axle's line, read strictly. Blank is an axle nobody spoke of.
    pub fn setup(&mut self, pointer: &str, text: Option<&str>) -> Option<Setup> {
        let text = text.filter(|text| !text.trim().is_empty())?;
        match text.parse() {
            Ok(setup) => Some(setup),
            Err(error) => {
                self.errors.push(FieldError::notation(pointer, &error));
                None
            }
        }
    }

    /// Both axles' lines.
    pub fn pair(&mut self, pointer: &str, lines: &Lines) -> SetupPair {
        SetupPair {
            front: self.setup(&format!("{pointer}/front"), lines.front.as_deref()),
            rear: self.setup(&format!("{pointer}/rear"), lines.rear.as_deref()),
        }
    }

    /// A text of at most so many characters.
    pub fn text(&mut self, pointer: &str, text: &str, most: usize) -> String {
        if text.chars().count() > most {
            self.fault(pointer, format!("is longer than {most} characters"));
        }
        text.to_owned()
    }

    /// Notes a fault.
    pub fn fault(&mut self, pointer: &str, detail: impl Into<String>) {
        self.errors.push(FieldError::new(pointer, detail));
    }

    /// Notes a fault in a notation.
    pub fn fault_in_notation(&mut self, pointer: &str, error: &fitment::notation::NotationError) {
        self.errors.push(FieldError::notation(pointer, error));
    }

    /// The value, when nothing was wrong.
    ///
    /// # Errors
    /// Every fault noted.
    pub fn finish<T>(self, value: T) -> Result<T, ApiError> {
        if self.errors.is_empty() { Ok(value) } else { Err(ApiError::Unprocessable(self.errors)) }
    }
}

impl FieldErrors {
    /// The value, when nothing was wrong and it could be had; else why not, at its field.
    ///
    /// # Errors
    /// Every fault noted, or this one.
    pub fn finish_with<T>(mut self, value: Option<T>, pointer: &str, missing: &str) -> Result<T, ApiError> {
        match value {
            Some(value) => self.finish(value),
            None => {
                if self.errors.is_empty() {
                    self.fault(pointer, missing);
                }
                Err(ApiError::Unprocessable(self.errors))
            }
        }
    }
}

/// A text to be read as a setup line.
#[derive(Debug, Deserialize, ToSchema)]
pub struct LineText {
    /// As typed or pasted.
    pub text: String,
}

/// What a stretch of a line was read as.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs, reason = "the pieces of a setup, by name")]
pub enum PieceKind {
    Gap,
    LeftAside,
    Axle,
    Wheel,
    Offset,
    Backspacing,
    BoltCircle,
    CenterBore,
    CenterLock,
    Tire,
    Service,
    Spacer,
    DateCode,
    /// It can be read in more than one way: see `ask`.
    Question,
    Fault,
}

impl From<line::SegmentKind> for PieceKind {
    fn from(kind: line::SegmentKind) -> Self {
        match kind {
            line::SegmentKind::Gap => Self::Gap,
            line::SegmentKind::LeftAside => Self::LeftAside,
            line::SegmentKind::Axle => Self::Axle,
            line::SegmentKind::Wheel => Self::Wheel,
            line::SegmentKind::Offset => Self::Offset,
            line::SegmentKind::Backspacing => Self::Backspacing,
            line::SegmentKind::BoltCircle => Self::BoltCircle,
            line::SegmentKind::CenterBore => Self::CenterBore,
            line::SegmentKind::CenterLock => Self::CenterLock,
            line::SegmentKind::Tire => Self::Tire,
            line::SegmentKind::Service => Self::Service,
            line::SegmentKind::Spacer => Self::Spacer,
            line::SegmentKind::DateCode => Self::DateCode,
        }
    }
}

/// A stretch of the line; all of them together are the line.
#[derive(Debug, Serialize, ToSchema)]
pub struct Stretch {
    /// As written.
    pub text: String,
    /// What it was read as.
    pub kind: PieceKind,
    /// What is wrong with it.
    pub problem: Option<String>,
    /// How it would be written right.
    pub example: Option<String>,
}

/// A line as far as it could be read.
#[derive(Debug, Serialize, ToSchema)]
pub struct LineView {
    /// Stretch by stretch.
    pub stretches: Vec<Stretch>,
    /// Whether every piece was read.
    pub is_sound: bool,
    /// Whether the line itself names axles.
    pub names_axles: bool,
    /// Canonical lines, when sound.
    pub lines: Lines,
    /// What was left aside, as it was written.
    pub left_aside: Vec<String>,
    /// Open questions; a text with one is not sound.
    pub ask: Vec<Question>,
    /// What each axle's parts are, when sound; null for an axle nobody spoke of.
    pub front: Option<AxleReading>,
    /// The same for the rear axle.
    pub rear: Option<AxleReading>,
}

/// A stretch that can be read in more than one way.
#[derive(Debug, Serialize, ToSchema)]
pub struct Question {
    /// The stretch as written.
    pub text: String,
    /// What must be known.
    pub question: String,
    /// Texts that may stand in its place, each read without a question; empty where only the writer can say more.
    pub choices: Vec<String>,
}

/// What was read for one axle; null where the text does not say it.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit, as in the descriptions of tire and wheel")]
pub struct AxleReading {
    pub construction: Option<&'static str>,
    pub version: Option<&'static str>,
    pub load_range: Option<char>,
    pub factory_mark: Option<String>,
    pub bolt_circles: Vec<[f64; 2]>,
    pub center_lock: Option<bool>,
    pub spacer_mm: Option<f64>,
    /// Quantities that nobody wrote: taken for want of better, to be confirmed.
    pub assumed: Vec<&'static str>,
}

impl AxleReading {
    fn new(setup: &Setup, assumed: &[&'static str]) -> Self {
        let (wheel, tire) = (setup.wheel, setup.tire);
        let circles = wheel.iter().flat_map(|wheel| wheel.circles());
        Self {
            construction: tire.map(|tire| tire.size.construction().word()),
            version: tire.and_then(|tire| tire.stated_version()),
            load_range: tire.and_then(|tire| tire.load_range).map(|range| range.letter()),
            factory_mark: tire.and_then(|tire| tire.factory_mark).map(|mark| mark.to_string()),
            bolt_circles: circles
                .map(|circle| [f64::from(circle.count()), circle.diameter().as_mm()])
                .collect(),
            center_lock: wheel.map(|wheel| wheel.center_lock),
            spacer_mm: setup.spacer.map(|spacer| spacer.as_mm()),
            assumed: assumed.to_vec(),
        }
    }
}

impl LineView {
    /// A reading as it is shown.
    pub fn new(text: &str, reading: &line::LineReading) -> Self {
        let written = |segment: &line::Segment| text.get(segment.span.clone()).unwrap_or_default().to_owned();
        let stretches = reading.segments.iter().map(|segment| match &segment.outcome {
            Ok(kind) => {
                Stretch { text: written(segment), kind: (*kind).into(), problem: None, example: None }
            }
            Err(reason) => Stretch {
                text: written(segment),
                kind: if reason.choices().is_some() { PieceKind::Question } else { PieceKind::Fault },
                problem: Some(reason.to_string()),
                example: reason.choices().is_none().then(|| reason.example().to_owned()),
            },
        });
        let ask = reading.segments.iter().filter_map(|segment| {
            let reason = segment.outcome.as_ref().err()?;
            let choices = reason.choices()?.to_vec();
            Some(Question { text: written(segment).trim().to_owned(), question: reason.to_string(), choices })
        });
        let axle = |axle: Axle| {
            let setup = reading.setups.as_ref()?.on(axle)?;
            Some(AxleReading::new(setup, reading.assumed.on(axle)))
        };
        Self {
            stretches: stretches.collect(),
            is_sound: reading.setups.is_some(),
            names_axles: reading.names_axles,
            lines: reading.setups.as_ref().map(Lines::from).unwrap_or_default(),
            left_aside: reading.left_aside(text).map(str::to_owned).collect(),
            ask: ask.collect(),
            front: axle(Axle::Front),
            rear: axle(Axle::Rear),
        }
    }
}
