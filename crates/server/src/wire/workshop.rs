//! What a job knows from the workshop, on the wire: brake profiles and what was tried on.

use fitment::answers::trial::Contact;
use fitment::car::brake::{BrakePart, ProfileSource};
use fitment::car::corner::{CarSide, Steer};
use fitment::setup::Axle;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use store::identity::PartUids;
use store::workshop::{KeptTemplate, KeptTrial, Workshop};
use utoipa::ToSchema;

use super::brakes::{PointView, profile};
use super::corner::{choices, coded};
use super::read::FieldErrors;

/// A profile of something inside the barrel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TemplateView {
    /// The page's own id for it.
    pub id: String,
    /// `front` or `rear`.
    pub axle: String,
    /// `caliper`, `knuckle`, `link` or `parking_brake`.
    pub part: String,
    /// `fitted`, or `planned` for a later upgrade.
    pub role: String,
    /// What it is called.
    pub name: String,
    /// `template`, `readings` or `estimate`.
    pub source: String,
    /// How far it may be off, either way.
    pub plus_minus_mm: f64,
    /// Its points in the corner's frame: y outboard from the hub face, r from the spin axis.
    #[schema(value_type = Vec<Vec<f64>>)]
    pub points: Vec<PointView>,
}

/// One wheel tried on one corner.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TrialView {
    /// The tablet's own id for it.
    pub id: String,
    /// Itself and no other, given by the program: what is sent of it is not looked at.
    #[serde(default)]
    pub uid: String,
    /// `front` or `rear`.
    pub axle: String,
    /// `left` or `right`, when noted.
    #[serde(default)]
    pub side: Option<String>,
    /// What was tried, as a setup line; without a tire the bare wheel.
    pub setup: String,
    /// What it met; see `/registry`.
    pub contact: String,
    /// Gap, or as a negative the overlap; null when nobody measured it.
    #[serde(default)]
    pub gap_mm: Option<f64>,
    /// How far that may be off.
    pub plus_minus_mm: f64,
    /// Code of the instrument.
    #[serde(default)]
    pub instrument: String,
    /// `straight`, `lock_left` or `lock_right`.
    pub steer: String,
    /// Whether the wheel hung free.
    #[serde(default)]
    pub is_hanging: bool,
    /// What was seen.
    #[serde(default)]
    pub note: String,
    /// What comes next.
    #[serde(default)]
    pub next_step: String,
    /// Numbers of its photos.
    #[serde(default)]
    pub photos: Vec<i64>,
    /// Who tried it.
    #[serde(default)]
    pub who: String,
    /// When, RFC 3339; now when left empty.
    #[serde(default)]
    pub at: String,
}

impl From<&KeptTemplate> for TemplateView {
    fn from(kept: &KeptTemplate) -> Self {
        let KeptTemplate { id, axle, part, role, name, source, plus_minus_mm, points } = kept.clone();
        Self { id, axle, part, role, name, source, plus_minus_mm, points }
    }
}

impl TrialView {
    /// One as it is kept, with its uid.
    pub fn of(kept: &KeptTrial, parts: &PartUids) -> Self {
        let KeptTrial {
            id,
            axle,
            side,
            setup,
            contact,
            gap_mm,
            plus_minus_mm,
            instrument,
            steer,
            is_hanging,
            note,
            next_step,
            photos,
            who,
            at,
        } = kept.clone();
        Self {
            uid: parts.of_trial(&id).to_owned(),
            id,
            axle,
            side,
            setup,
            contact,
            gap_mm,
            plus_minus_mm,
            instrument,
            steer,
            is_hanging,
            note,
            next_step,
            photos,
            who,
            at,
        }
    }
}

const MOST_TEMPLATES: usize = 24;
const MOST_TRIALS: usize = 200;
const MOST_PHOTOS: usize = 12;
const NAME_LENGTH: usize = 80;
const NOTE_LENGTH: usize = 400;

/// What of a job's workshop changes.
#[derive(Debug)]
pub struct WorkshopChange {
    templates: Option<Vec<KeptTemplate>>,
    trials: Option<Vec<KeptTrial>>,
}

impl WorkshopChange {
    /// Reads what was given.
    pub(super) fn read(
        errors: &mut FieldErrors,
        templates: Option<&[TemplateView]>,
        trials: Option<&[TrialView]>,
    ) -> Self {
        if templates.is_some_and(|all| all.len() > MOST_TEMPLATES) {
            errors
                .fault("/templates", format!("more than {MOST_TEMPLATES} profiles are not kept with a job"));
        }
        let mut seen = std::collections::HashSet::new();
        for (at, trial) in trials.unwrap_or_default().iter().enumerate() {
            if !seen.insert(trial.id.as_str()) {
                errors.fault(&format!("/trials/{at}/id"), "another trial has this id");
            }
        }
        if trials.is_some_and(|all| all.len() > MOST_TRIALS) {
            errors.fault("/trials", format!("more than {MOST_TRIALS} trials are not kept with a job"));
        }
        let templates = templates.map(|all| {
            let each = all.iter().take(MOST_TEMPLATES).enumerate();
            each.map(|(at, one)| one.kept(errors, &format!("/templates/{at}"))).collect()
        });
        let trials = trials.map(|all| {
            let each = all.iter().take(MOST_TRIALS).enumerate();
            each.map(|(at, one)| one.kept(errors, &format!("/trials/{at}"))).collect()
        });
        Self { templates, trials }
    }

    /// What was given, over what is there.
    pub fn over(self, now: Workshop) -> Workshop {
        Workshop {
            templates: self.templates.unwrap_or(now.templates),
            trials: self.trials.unwrap_or(now.trials),
        }
    }
}

fn plus_minus(errors: &mut FieldErrors, pointer: &str, mm: f64) {
    if !(0.0..=20.0).contains(&mm) {
        errors.fault(&format!("{pointer}/plus_minus_mm"), "goes from 0 to 20 mm");
    }
}

impl TemplateView {
    fn kept(&self, errors: &mut FieldErrors, pointer: &str) -> KeptTemplate {
        let at = |field: &str| format!("{pointer}/{field}");
        coded(errors, &at("axle"), &self.axle, Axle::from_code(&self.axle), choices!(Axle));
        coded(errors, &at("part"), &self.part, BrakePart::from_code(&self.part), choices!(BrakePart));
        let source = ProfileSource::from_code(&self.source);
        coded(errors, &at("source"), &self.source, source, choices!(ProfileSource));
        if !["fitted", "planned"].contains(&self.role.as_str()) {
            errors.fault(&at("role"), format!("{:?} is not fitted or planned", self.role));
        }
        plus_minus(errors, pointer, self.plus_minus_mm);
        profile(errors, &at("points"), &self.points);
        KeptTemplate {
            id: errors.text(&at("id"), &self.id, NAME_LENGTH),
            axle: self.axle.clone(),
            part: self.part.clone(),
            role: self.role.clone(),
            name: errors.text(&at("name"), self.name.trim(), NAME_LENGTH),
            source: self.source.clone(),
            plus_minus_mm: self.plus_minus_mm,
            points: self.points.clone(),
        }
    }
}

impl TrialView {
    fn kept(&self, errors: &mut FieldErrors, pointer: &str) -> KeptTrial {
        let at = |field: &str| format!("{pointer}/{field}");
        coded(errors, &at("axle"), &self.axle, Axle::from_code(&self.axle), choices!(Axle));
        if let Some(side) = &self.side {
            coded(errors, &at("side"), side, CarSide::from_code(side), choices!(CarSide));
        }
        coded(errors, &at("contact"), &self.contact, Contact::from_code(&self.contact), choices!(Contact));
        coded(errors, &at("steer"), &self.steer, Steer::from_code(&self.steer), choices!(Steer));
        let setup = errors.setup(&at("setup"), Some(&self.setup));
        if self.setup.trim().is_empty() {
            errors.fault(&at("setup"), "say what was tried, as in 18x8.5 ET35");
        }
        if self.gap_mm.is_some_and(|gap| !(-60.0..=250.0).contains(&gap)) {
            errors.fault(&at("gap_mm"), "goes from −60 (an overlap) to 250 mm");
        }
        plus_minus(errors, pointer, self.plus_minus_mm);
        if self.photos.len() > MOST_PHOTOS {
            errors.fault(&at("photos"), format!("more than {MOST_PHOTOS} photos are not kept with a trial"));
        }
        let time = if self.at.is_empty() { Ok(Timestamp::now()) } else { self.at.parse::<Timestamp>() };
        if time.is_err() {
            errors.fault(&at("at"), "is no time, as in 2026-03-01T09:30:00Z");
        }
        KeptTrial {
            id: errors.text(&at("id"), &self.id, NAME_LENGTH),
            axle: self.axle.clone(),
            side: self.side.clone(),
            setup: setup.map(|setup| setup.to_string()).unwrap_or_default(),
            contact: self.contact.clone(),
            gap_mm: self.gap_mm,
            plus_minus_mm: self.plus_minus_mm,
            instrument: errors.text(&at("instrument"), &self.instrument, NAME_LENGTH),
            steer: self.steer.clone(),
            is_hanging: self.is_hanging,
            note: errors.text(&at("note"), self.note.trim(), NOTE_LENGTH),
            next_step: errors.text(&at("next_step"), self.next_step.trim(), NOTE_LENGTH),
            photos: self.photos.clone(),
            who: errors.text(&at("who"), &self.who, NAME_LENGTH),
            at: time.map(|time| time.to_string()).unwrap_or_default(),
        }
    }
}
