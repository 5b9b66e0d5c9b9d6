//! What a job knows of its car, on the wire: record, readings, levers, wanted style.

use fitment::car::corner::ToRead;
use fitment::car::corner::instrument::Instrument;
use fitment::car::corner::{CarSide, Direction, Face, ReadingUnit, RecordedReading, Steer, Suspension};
use fitment::car::lever::PairLevers;
use fitment::car::style::{Style, StyleTarget};
use fitment::car::{Alternative, Car, Fact, Value};
use fitment::setup::{Axle, SetupPair};
use fitment::{Length, SetupPair as Pair};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use store::identity::PartUids;
use store::jobs::JobContent;
use store::measurements::{KeptReading, Measurements};
use utoipa::{IntoParams, ToSchema};

use super::corner::{LeverAmount, choices, coded, length, lever_amounts, read_from, read_levers};
use super::jobs::SIGN_LENGTH;
use super::read::FieldErrors;
use super::{AxleCode, DriveCode, Lines, PerAxle};
use crate::problem::ApiError;

/// A number, or words.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub enum NumberOrWords {
    /// A number in the fact's unit.
    Number(f64),
    /// Words, or a setup line; also a number as it was typed.
    Words(String),
}

/// Something known about a car.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FactView {
    /// Its code, see `/registry`.
    pub fact: String,
    /// For what is known of each axle by itself.
    #[serde(default)]
    pub axle: Option<AxleCode>,
    /// What is known.
    pub value: NumberOrWords,
}

/// Another wheel and tire the factory offered.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct AlternativeView {
    /// What it is called.
    pub name: String,
    /// Its setup lines.
    pub lines: Lines,
}

/// A car's record. What is not in it is not known.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize, ToSchema)]
pub struct CarView {
    /// What is known.
    pub facts: Vec<FactView>,
    /// Other wheels and tires the factory offered.
    #[serde(default)]
    pub alternatives: Vec<AlternativeView>,
}

impl From<&Car> for CarView {
    fn from(car: &Car) -> Self {
        Self {
            facts: car
                .known()
                .map(|(fact, axle, value)| FactView {
                    fact: fact.facts().code.to_owned(),
                    axle: axle.map(AxleCode::from),
                    value: match value {
                        Value::Number(number) => NumberOrWords::Number(*number),
                        other => NumberOrWords::Words(other.to_string()),
                    },
                })
                .collect(),
            alternatives: car
                .alternatives
                .iter()
                .map(|one| AlternativeView { name: one.name.clone(), lines: Lines::from(&one.setups) })
                .collect(),
        }
    }
}

const MOST_ALTERNATIVES: usize = 20;
const NAME_LENGTH: usize = 60;

impl CarView {
    fn read(&self, errors: &mut FieldErrors, pointer: &str) -> Car {
        let mut car = Car::default();
        for (at, one) in self.facts.iter().enumerate() {
            let pointer = format!("{pointer}/facts/{at}");
            let Some(fact) = Fact::from_code(&one.fact) else {
                errors.fault(&format!("{pointer}/fact"), format!("{:?} is nothing known of a car", one.fact));
                continue;
            };
            let text = match &one.value {
                NumberOrWords::Number(number) => number.to_string(),
                NumberOrWords::Words(words) => words.clone(),
            };
            if let Err(error) = car.note(fact, one.axle.map(Axle::from), &text) {
                errors.fault(&format!("{pointer}/value"), error.to_string());
            }
        }
        if self.alternatives.len() > MOST_ALTERNATIVES {
            errors.fault(&format!("{pointer}/alternatives"), "more than 20 alternatives cannot be kept");
        }
        for (at, one) in self.alternatives.iter().enumerate() {
            let pointer = format!("{pointer}/alternatives/{at}");
            let name = errors.text(&format!("{pointer}/name"), one.name.trim(), NAME_LENGTH);
            let setups: Pair = errors.pair(&format!("{pointer}/lines"), &one.lines);
            car.alternatives.push(Alternative { name, setups });
        }
        car
    }
}

/// How the owner wants it to stand.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WantedView {
    /// `tucked`, `flush` or `poke`.
    pub style: String,
    /// How far from level still counts; the house's tolerance when null.
    #[serde(default)]
    pub within_mm: Option<f64>,
    /// Suspension: a show setup, to be marked so.
    #[serde(default)]
    pub stance: bool,
}

impl WantedView {
    fn read(&self, errors: &mut FieldErrors, pointer: &str) -> Option<StyleTarget> {
        let style = Style::from_code(&self.style);
        let style = coded(errors, &format!("{pointer}/style"), &self.style, style, choices!(Style))?;
        let pointer = format!("{pointer}/within_mm");
        let within = self.within_mm.map(|within| length(errors, &pointer, within));
        if within.is_some_and(|within| !(0.0..=50.0).contains(&within.as_mm())) {
            errors.fault(&pointer, "a tolerance goes from 0 to 50 mm");
        }
        Some(StyleTarget { style, within, is_show: self.stance })
    }
}

impl From<StyleTarget> for WantedView {
    fn from(target: StyleTarget) -> Self {
        Self {
            style: target.style.code().to_owned(),
            within_mm: target.within.map(Length::as_mm),
            stance: target.is_show,
        }
    }
}

/// Reads both axles' levers.
pub fn read_pair_levers(
    errors: &mut FieldErrors,
    pointer: &str,
    given: &PerAxle<Vec<LeverAmount>>,
) -> PairLevers {
    PairLevers {
        front: read_levers(errors, &format!("{pointer}/front"), &given.front),
        rear: read_levers(errors, &format!("{pointer}/rear"), &given.rear),
    }
}

/// Reads both axles' wanted styles.
pub fn read_wanted(
    errors: &mut FieldErrors,
    pointer: &str,
    given: &PerAxle<Option<WantedView>>,
) -> (Option<StyleTarget>, Option<StyleTarget>) {
    let mut one = |axle: &str, wanted: &Option<WantedView>| {
        wanted.as_ref().and_then(|wanted| wanted.read(errors, &format!("{pointer}/{axle}")))
    };
    (one("front", &given.front), one("rear", &given.rear))
}

/// A reading as kept.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ReadingView {
    /// The id it was sent with.
    pub id: String,
    /// Itself and no other, given by the program.
    pub uid: String,
    /// On which axle.
    pub axle: AxleCode,
    /// `left` or `right`, when noted.
    pub side: Option<&'static str>,
    /// Code of what was read.
    pub what: &'static str,
    /// The figure, in the unit it was read in.
    pub value: f64,
    /// `mm`, `in`, `in_16` or `fingers`.
    pub unit: &'static str,
    /// The same in millimetres.
    pub value_mm: f64,
    /// Code of the instrument.
    pub instrument: String,
    /// How far it may be off.
    pub plus_minus_mm: f64,
    /// What was fitted; null for the bare hub.
    pub fitted: Option<String>,
    /// `ground` or `hanging`.
    pub stance: &'static str,
    /// `straight`, `lock_left` or `lock_right`.
    pub steer: &'static str,
    /// How far from the axle.
    pub radius_mm: Option<f64>,
    /// From which face; left out for the part's usual one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub face: Option<&'static str>,
    /// Along which way; left out for the part's usual one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub direction: Option<&'static str>,
    /// Where round the wheel, as hours of a clock; left out for the part's usual place.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub clock: Option<f64>,
    /// Written over from the other side, not read.
    pub is_copied: bool,
    /// Who took it.
    pub who: String,
    /// When, RFC 3339.
    pub at: String,
}

impl ReadingView {
    /// One as it is kept, with its uid.
    pub fn of(kept: &KeptReading, parts: &PartUids) -> Self {
        let taken = &kept.taken;
        Self {
            id: kept.id.clone(),
            uid: parts.of_reading(&kept.id).to_owned(),
            axle: taken.axle.into(),
            side: taken.side.map(CarSide::code),
            what: taken.what.code(),
            value: taken.value,
            unit: taken.unit.code(),
            value_mm: taken.length().map_or(0.0, Length::as_mm),
            instrument: taken.instrument.clone(),
            plus_minus_mm: taken.plus_minus.as_mm(),
            fitted: taken.on.map(|setup| setup.to_string()),
            stance: taken.stance.code(),
            steer: taken.steer.code(),
            radius_mm: taken.radius.map(Length::as_mm),
            face: taken.face.map(Face::code),
            direction: taken.direction.map(Direction::code),
            clock: taken.clock,
            is_copied: taken.is_copied,
            who: kept.who.clone(),
            at: kept.at.to_string(),
        }
    }
}

/// A reading as it is sent from the bay.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct NewReading {
    /// The tablet's own id for it, so that one sent twice is kept once: up to 60 letters, figures or dashes.
    pub id: String,
    /// On which axle.
    pub axle: AxleCode,
    /// `left` or `right`.
    #[serde(default)]
    pub side: Option<String>,
    /// Code of what was read, see `/registry`.
    pub what: String,
    /// The figure as read.
    pub value: f64,
    /// Its unit: `mm`, `in`, `in_16` or `fingers`.
    pub unit: String,
    /// Code of the instrument.
    pub instrument: String,
    /// How far it may be off; the house's figure for the instrument when null.
    #[serde(default)]
    pub plus_minus_mm: Option<f64>,
    /// What was fitted, as a setup line; what the job says is fitted when null.
    #[serde(default)]
    pub fitted: Option<String>,
    /// Read from the bare hub.
    #[serde(default)]
    pub bare_hub: bool,
    /// `ground` or `hanging`.
    #[serde(default)]
    pub stance: Option<String>,
    /// `straight`, `lock_left` or `lock_right`.
    #[serde(default)]
    pub steer: Option<String>,
    /// How far from the axle the smallest gap was.
    #[serde(default)]
    pub radius_mm: Option<f64>,
    /// From which face: `nearest`, `sidewall`, `shoulder` or `flange`; the part's usual one when left out.
    #[serde(default)]
    pub face: Option<String>,
    /// Along which way: `level` or `shortest`; the part's usual one when left out.
    #[serde(default)]
    pub direction: Option<String>,
    /// Where round the wheel, as hours of a clock seen from outboard with the front to the right: 3 ahead, 12 above, 9
    /// behind; the part's usual place when left out.
    #[serde(default)]
    pub clock: Option<f64>,
    /// When it was taken, RFC 3339; now when null.
    #[serde(default)]
    pub at: Option<String>,
}

/// Readings taken in the bay.
#[derive(Debug, Deserialize, ToSchema)]
pub struct NewReadings {
    /// Who took them.
    #[serde(default)]
    pub signed_by: String,
    /// The readings, in the order they were taken.
    pub readings: Vec<NewReading>,
}

/// Most readings sent at once; a job keeps more ([`store::jobs::MOST_READINGS`]).
const MOST_READINGS: usize = 200;

impl NewReadings {
    /// Into what the store keeps, and who took them.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn read(
        &self,
        fitted: &SetupPair,
        instruments: &[Instrument],
        now: Timestamp,
    ) -> Result<(Vec<KeptReading>, String), ApiError> {
        let mut errors = FieldErrors::default();
        let who = errors.text("/signed_by", self.signed_by.trim(), SIGN_LENGTH);
        if self.readings.len() > MOST_READINGS {
            errors.fault("/readings", format!("more than {MOST_READINGS} readings are not taken at once"));
        }
        let kept = self
            .readings
            .iter()
            .take(MOST_READINGS)
            .enumerate()
            .filter_map(|(at, one)| {
                one.read(&mut errors, &format!("/readings/{at}"), fitted, instruments, &who, now)
            })
            .collect();
        errors.finish((kept, who))
    }
}

impl NewReading {
    fn read(
        &self,
        errors: &mut FieldErrors,
        pointer: &str,
        fitted: &SetupPair,
        instruments: &[Instrument],
        who: &str,
        now: Timestamp,
    ) -> Option<KeptReading> {
        let at = |field: &str| format!("{pointer}/{field}");
        let is_id = (1..=60).contains(&self.id.len())
            && self.id.chars().all(|letter| letter.is_ascii_alphanumeric() || letter == '-');
        if !is_id {
            errors.fault(&at("id"), "is not an id of up to 60 letters, figures and dashes");
        }
        let what = ToRead::from_code(&self.what);
        if what.is_none() {
            errors.fault(&at("what"), format!("{:?} is nothing that is read in the bay", self.what));
        }
        let unit = ReadingUnit::from_code(&self.unit);
        let unit = coded(errors, &at("unit"), &self.unit, unit, choices!(ReadingUnit));
        let side = self
            .side
            .as_deref()
            .and_then(|code| coded(errors, &at("side"), code, CarSide::from_code(code), choices!(CarSide)));
        let stance = self.stance.as_deref().and_then(|code| {
            coded(errors, &at("stance"), code, Suspension::from_code(code), choices!(Suspension))
        });
        let steer = self
            .steer
            .as_deref()
            .and_then(|code| coded(errors, &at("steer"), code, Steer::from_code(code), choices!(Steer)));
        let house = instruments.iter().find(|one| one.code == self.instrument);
        let plus_minus = match (self.plus_minus_mm, house) {
            (Some(given), _) if (0.0..=50.0).contains(&given) => length(errors, &at("plus_minus_mm"), given),
            (Some(given), _) => {
                errors.fault(&at("plus_minus_mm"), format!("± {given} mm is not an instrument's"));
                Length::ZERO
            }
            (None, Some(instrument)) => instrument.plus_minus,
            (None, None) => {
                let says =
                    format!("the house has no instrument {:?}: say its ± with the reading", self.instrument);
                errors.fault(&at("instrument"), says);
                Length::ZERO
            }
        };
        let instrument = errors.text(&at("instrument"), self.instrument.trim(), SIGN_LENGTH);
        if unit.is_some_and(|unit| unit.length(self.value).is_none()) {
            errors.fault(&at("value"), "is not a finite number");
        }
        let radius = self.radius_mm.map(|radius| length(errors, &at("radius_mm"), radius));
        let axle = Axle::from(self.axle);
        let on = match &self.fitted {
            _ if self.bare_hub => None,
            Some(line) => errors.setup(&at("fitted"), Some(line)),
            None => Some(fitted.on(axle).copied().unwrap_or_default()),
        };
        let taken_at = match &self.at {
            None => now,
            Some(text) => text.parse().unwrap_or_else(|_| {
                errors.fault(&at("at"), "is not a time like 2026-05-12T09:30:00Z");
                now
            }),
        };
        let (face, direction, clock) =
            read_from(errors, pointer, self.face.as_deref(), self.direction.as_deref(), self.clock);
        let taken = RecordedReading {
            axle,
            side,
            what: what?,
            value: self.value,
            unit: unit?,
            instrument,
            plus_minus,
            on,
            stance: stance.unwrap_or_default(),
            steer: steer.unwrap_or_else(|| Steer::usual(what.and_then(ToRead::feature), side)),
            radius,
            face,
            direction,
            clock,
            is_copied: false,
        };
        Some(KeptReading { id: self.id.clone(), taken, who: who.to_owned(), at: taken_at })
    }
}

/// Writing one side's readings over to the other.
#[derive(Debug, Deserialize, ToSchema)]
pub struct CopyOver {
    /// On which axle.
    pub axle: AxleCode,
    /// From `left` or `right`.
    pub from: String,
    /// Who signs.
    #[serde(default)]
    pub signed_by: String,
}

impl CopyOver {
    /// The copies, for the side that has no readings of its own there.
    ///
    /// # Errors
    /// An unknown side, or nothing to copy.
    pub fn copies(&self, of: &JobContent, now: Timestamp) -> Result<Vec<KeptReading>, ApiError> {
        let mut errors = FieldErrors::default();
        let from = CarSide::from_code(&self.from);
        let from = coded(&mut errors, "/from", &self.from, from, choices!(CarSide));
        let mut copies = Vec::new();
        if let Some(from) = from {
            let axle = Axle::from(self.axle);
            let taken =
                fitment::car::corner::recorded::copied_over(&of.measurements.taken(&of.fitted), axle, from);
            if taken.is_empty() {
                errors.fault("/from", "nothing was read on this side that the other lacks");
            }
            let side = if from == CarSide::Left { "right" } else { "left" };
            copies = taken
                .into_iter()
                .map(|taken| KeptReading {
                    id: format!(
                        "{}-{}-{}-{}",
                        axle.code(),
                        side,
                        taken.what.code().replace('_', "-"),
                        now.as_millisecond()
                    ),
                    taken,
                    who: self.signed_by.chars().take(SIGN_LENGTH).collect(),
                    at: now,
                })
                .collect();
            // Two readings of one part at two heights are two readings.
            for (at, copy) in copies.iter_mut().enumerate() {
                copy.id = format!("{}-{at}", copy.id);
            }
        }
        errors.finish(copies)
    }
}

/// Who signs, where there is no body.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct SignedBy {
    /// Who signs, for the journal.
    #[serde(default)]
    pub signed_by: String,
}

impl SignedBy {
    /// Who signs, cut to what the journal keeps.
    pub fn who(&self) -> String {
        self.signed_by.chars().take(SIGN_LENGTH).collect()
    }
}

/// Which cars.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct CarsQuery {
    /// Words that must all occur in model, body, generation or brakes.
    #[serde(default)]
    pub find: String,
}

/// A car the shop has had.
#[derive(Debug, Serialize, ToSchema)]
pub struct KnownCar {
    /// The job it was last written down in.
    pub job_id: i64,
    /// That job's number.
    pub job_number: String,
    /// Its label there.
    pub car_label: String,
    /// Driven axles, when known.
    pub drive: Option<DriveCode>,
    /// What the next car of this model shares with it.
    pub car: CarView,
    /// How many readings were taken on it.
    pub readings: usize,
}

impl From<store::jobs::Job> for KnownCar {
    fn from(job: store::jobs::Job) -> Self {
        Self {
            job_id: job.id,
            job_number: format!("{:04}", job.number),
            car_label: job.content.car_label,
            drive: job.content.drive.map(DriveCode::from),
            car: CarView::from(&job.content.measurements.car.model_only()),
            readings: job.content.measurements.readings.len(),
        }
    }
}

/// The parts of a job's change that belong to the car. What is left out stays as it is.
#[derive(Debug, Default)]
pub struct CarChange {
    /// The record.
    pub car: Option<Car>,
    /// What is done to the car.
    pub levers: Option<PairLevers>,
    /// The wanted style.
    pub wanted: Option<(Option<StyleTarget>, Option<StyleTarget>)>,
}

impl CarChange {
    /// Reads what was given.
    pub(super) fn read(
        errors: &mut FieldErrors,
        car: Option<&CarView>,
        levers: Option<&PerAxle<Vec<LeverAmount>>>,
        wanted: Option<&PerAxle<Option<WantedView>>>,
    ) -> Self {
        Self {
            car: car.map(|car| car.read(errors, "/car")),
            levers: levers.map(|levers| read_pair_levers(errors, "/levers", levers)),
            wanted: wanted.map(|wanted| read_wanted(errors, "/wanted", wanted)),
        }
    }

    /// What was given, over what is there. Readings have paths of their own.
    pub fn over(self, current: &Measurements) -> Measurements {
        Measurements {
            car: self.car.unwrap_or_else(|| current.car.clone()),
            readings: current.readings.clone(),
            levers: self.levers.unwrap_or(current.levers),
            wanted: self.wanted.unwrap_or(current.wanted),
        }
    }
}

/// A job's levers, to be shown.
pub fn levers_view(levers: &PairLevers) -> PerAxle<Vec<LeverAmount>> {
    PerAxle { front: lever_amounts(&levers.front), rear: lever_amounts(&levers.rear) }
}

/// A job's wanted styles, to be shown.
pub fn wanted_view(wanted: &(Option<StyleTarget>, Option<StyleTarget>)) -> PerAxle<Option<WantedView>> {
    PerAxle { front: wanted.0.map(WantedView::from), rear: wanted.1.map(WantedView::from) }
}
