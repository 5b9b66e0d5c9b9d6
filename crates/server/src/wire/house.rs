//! The house on the wire: limits, instruments, people, units.

use std::collections::BTreeMap;

use fitment::car::corner::instrument::Instrument;
use fitment::car::limits::{HouseLimits, LIMITS};
use serde::{Deserialize, Serialize};
use store::house::{House, HouseContent, Person};
use store::identity::ShopIds;
use utoipa::ToSchema;

use super::corner::length;
use super::read::FieldErrors;
use crate::gauge::Shown;
use crate::problem::ApiError;

/// An instrument of the house.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct InstrumentView {
    /// Its code in readings.
    pub code: String,
    /// Its name.
    pub name: String,
    /// How far it may be off, either way.
    pub plus_minus_mm: f64,
}

/// Someone who signs.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct PersonView {
    /// As they sign.
    pub initials: String,
    /// Their name.
    pub name: String,
}

/// What the house has settled.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HouseView {
    /// The shop: it never changes.
    pub shop_id: String,
    /// The file: new whenever it was put back, copied or made for a demo.
    pub file_id: String,
    /// The state of what is settled, drawn with every change: `"<file_id>.<token>"` is the house's `ETag`.
    pub token: String,
    /// Grows by one with every change.
    pub revision: i64,
    /// Its limits by code, see `/registry`.
    pub limits: BTreeMap<&'static str, f64>,
    /// Its instruments, in order.
    pub instruments: Vec<InstrumentView>,
    /// Its people, in order.
    pub people: Vec<PersonView>,
    /// Units a new screen starts with: `metric`, `mixed` or `imperial`.
    pub units: String,
    /// What of it could not be read: the trade's figures stand in until it is said again.
    pub damaged: Vec<String>,
}

impl HouseView {
    /// What the house has settled, in which file.
    pub fn new(house: House, ids: ShopIds) -> Self {
        let content = house.content;
        Self {
            shop_id: ids.shop_id,
            file_id: ids.file_id,
            token: house.tag.token,
            revision: house.revision,
            limits: LIMITS.iter().map(|limit| (limit.code, limit.of(&content.limits))).collect(),
            instruments: content
                .instruments
                .into_iter()
                .map(|one| InstrumentView {
                    code: one.code,
                    name: one.name,
                    plus_minus_mm: one.plus_minus.as_mm(),
                })
                .collect(),
            people: content
                .people
                .into_iter()
                .map(|one| PersonView { initials: one.initials, name: one.name })
                .collect(),
            units: content.units,
            damaged: house.damaged,
        }
    }
}

/// What the house is to settle.
#[derive(Debug, Deserialize, ToSchema)]
pub struct HouseChange {
    /// The revision this change is based on.
    pub based_on_revision: i64,
    /// Limits by code; one that is left out is the trade's default.
    pub limits: BTreeMap<String, f64>,
    /// Its instruments, in order.
    pub instruments: Vec<InstrumentView>,
    /// Its people, in order.
    pub people: Vec<PersonView>,
    /// `metric`, `mixed` or `imperial`.
    pub units: String,
}

const MOST_ROWS: usize = 60;
const NAME_LENGTH: usize = 60;
const INITIALS_LENGTH: usize = 8;

impl HouseChange {
    /// Into what the store keeps.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn read(&self) -> Result<HouseContent, ApiError> {
        let mut errors = FieldErrors::default();
        let mut limits = HouseLimits::DEFAULT;
        for (code, value) in &self.limits {
            if let Err(error) = limits.set(code, *value) {
                errors.fault(&format!("/limits/{code}"), error.to_string());
            }
        }
        if self.instruments.len() > MOST_ROWS || self.people.len() > MOST_ROWS {
            errors.fault("", format!("more than {MOST_ROWS} rows cannot be kept"));
        }
        let mut instruments: Vec<Instrument> = Vec::new();
        for (at, one) in self.instruments.iter().enumerate() {
            let pointer = format!("/instruments/{at}");
            let name = named(&mut errors, &format!("{pointer}/name"), &one.name, NAME_LENGTH);
            let plus_minus = length(&mut errors, &format!("{pointer}/plus_minus_mm"), one.plus_minus_mm);
            if !(0.0..=50.0).contains(&one.plus_minus_mm) {
                let says = format!("± {} mm is not an instrument's", one.plus_minus_mm);
                errors.fault(&format!("{pointer}/plus_minus_mm"), says);
            }
            let code =
                if one.code.trim().is_empty() { code_for(&name, &instruments) } else { one.code.clone() };
            let code = errors.text(&format!("{pointer}/code"), code.trim(), 40);
            if instruments.iter().any(|other| other.code == code) {
                errors.fault(&format!("{pointer}/code"), format!("{code} is there twice"));
            }
            instruments.push(Instrument { code, name, plus_minus });
        }
        let mut people: Vec<Person> = Vec::new();
        for (at, one) in self.people.iter().enumerate() {
            let pointer = format!("/people/{at}");
            let initials = named(&mut errors, &format!("{pointer}/initials"), &one.initials, INITIALS_LENGTH);
            let name = errors.text(&format!("{pointer}/name"), one.name.trim(), NAME_LENGTH);
            if people.iter().any(|other| other.initials == initials) {
                errors.fault(&format!("{pointer}/initials"), format!("{initials} is there twice"));
            }
            people.push(Person { initials, name });
        }
        if !["metric", "mixed", "imperial"].contains(&self.units.as_str()) {
            errors.fault("/units", "is not one of metric, mixed, imperial");
        }
        errors.finish(HouseContent { limits, instruments, people, units: self.units.clone() })
    }
}

fn named(errors: &mut FieldErrors, pointer: &str, text: &str, most: usize) -> String {
    let text = text.trim();
    if text.is_empty() {
        errors.fault(pointer, "must not be empty");
    }
    errors.text(pointer, text, most)
}

/// A code for a new instrument, from its name.
fn code_for(name: &str, others: &[Instrument]) -> String {
    let plain: String = name
        .to_lowercase()
        .chars()
        .map(|letter| if letter.is_ascii_alphanumeric() { letter } else { '_' })
        .take(30)
        .collect();
    let is_free = |code: &str| others.iter().all(|other| other.code != code);
    if is_free(&plain) {
        return plain;
    }
    let numbered = (2..).map(|count| format!("{plain}_{count}"));
    numbered.into_iter().find(|code| is_free(code)).unwrap_or(plain)
}

/// What the gauge shows.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct GaugeView {
    /// `none`, `away`, `lost` or `live`.
    pub state: &'static str,
    /// The value, while it is live.
    pub value_mm: Option<f64>,
    /// Whether it stands still.
    pub is_still: bool,
    /// Running count of readings.
    pub count: Option<u64>,
}

impl From<Shown> for GaugeView {
    fn from(shown: Shown) -> Self {
        let plain = |state| Self { state, value_mm: None, is_still: false, count: None };
        match shown {
            Shown::None => plain("none"),
            Shown::Away => plain("away"),
            Shown::Lost => plain("lost"),
            Shown::Live { value_mm, is_still, count } => {
                Self { state: "live", value_mm: Some(value_mm), is_still, count: Some(count) }
            }
        }
    }
}
