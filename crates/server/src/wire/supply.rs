//! What a supplier has, on the wire: sets of parts with their lead time and today's price.

use std::collections::HashMap;

use app::finder::ToOrder;
use fitment::parts::wheel::Wheel;
use fitment::setup::catalogue::{TireRow, WheelRow};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::read::FieldErrors;
use crate::problem::ApiError;
use crate::supplier::{Item, Known, State};
use app::catalogue::Loaded;

/// Sets whose supply is asked for.
#[derive(Debug, Deserialize, ToSchema)]
pub struct SupplyRequest {
    /// Each set's parts.
    pub sets: Vec<Vec<PartCount>>,
}

/// How many of a row.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct PartCount {
    /// `wheels` or `tires`.
    pub kind: String,
    /// Its number in the catalogue.
    pub row: u32,
    /// How many are wanted.
    pub count: u32,
}

impl From<ToOrder> for PartCount {
    fn from(part: ToOrder) -> Self {
        Self { kind: part.kind.code().to_owned(), row: part.row, count: part.count }
    }
}

/// A part as the supplier has it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct PartSupply {
    /// `wheels` or `tires`.
    pub kind: &'static str,
    /// Its number in the catalogue.
    pub row: u32,
    /// How many are wanted.
    pub count: u32,
    /// How many the supplier has; null while it was not asked, or does not know the part.
    pub stock: Option<u32>,
    /// Days until they are here; null likewise, and for what is made no more and not there.
    pub lead_days: Option<u32>,
    /// Price of one: the supplier's today, else the list's.
    pub price: Option<f64>,
    /// Whether it is made no more.
    pub discontinued: bool,
    /// `there`, `to_order`, `gone`, `not_known` or `not_asked`.
    pub state: &'static str,
    /// When the supplier said so, RFC 3339.
    pub asked_at: Option<String>,
}

/// A set as the supplier has it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SetSupply {
    /// Its parts.
    pub parts: Vec<PartSupply>,
    /// Price of all, as far as it is known.
    pub price: f64,
    /// Whether every part has a price.
    pub price_is_whole: bool,
    /// Days until all of it is here; null while a part's are not known.
    pub lead_days: Option<u32>,
    /// Whether a part is made no more and not there.
    pub is_gone: bool,
    /// Age of the oldest answer in seconds; null while nothing was answered.
    pub seconds_old: Option<i64>,
}

/// What the supplier has.
#[derive(Debug, Serialize, ToSchema)]
pub struct SupplyView {
    /// `none`, `answers` or `away`.
    pub state: &'static str,
    /// Why there is no answer; empty when there is.
    pub why: String,
    /// The sets, in the order asked.
    pub sets: Vec<SetSupply>,
}

const MOST_SETS: usize = 60;
const MOST_PARTS: usize = 8;

/// A part of the catalogue that is asked for.
#[derive(Debug, Clone)]
pub struct Asked {
    kind: &'static str,
    row: u32,
    count: u32,
    item: Item,
}

impl SupplyRequest {
    /// The sets' parts as the catalogue has them.
    ///
    /// # Errors
    /// Rows that the catalogue does not have, counts out of range, too many sets.
    pub fn read(&self, loaded: &Loaded) -> Result<Vec<Vec<Asked>>, ApiError> {
        let mut errors = FieldErrors::default();
        if self.sets.len() > MOST_SETS {
            errors.fault("/sets", format!("more than {MOST_SETS} sets are not asked for at once"));
            return errors.finish(Vec::new());
        }
        let catalogue = &loaded.catalogue;
        let wheels: HashMap<u32, usize> =
            catalogue.wheels.iter().enumerate().map(|(at, row)| (row.id, at)).collect();
        let tires: HashMap<u32, usize> =
            catalogue.tires.iter().enumerate().map(|(at, row)| (row.id, at)).collect();
        let mut sets = Vec::with_capacity(self.sets.len());
        for (set_at, set) in self.sets.iter().enumerate() {
            if set.len() > MOST_PARTS {
                errors.fault(&format!("/sets/{set_at}"), format!("a set has at most {MOST_PARTS} parts"));
                continue;
            }
            let mut parts = Vec::new();
            for (at, part) in set.iter().enumerate() {
                let pointer = format!("/sets/{set_at}/{at}");
                if !(1..=100).contains(&part.count) {
                    errors.fault(&format!("{pointer}/count"), "1 to 100 are asked for");
                }
                let found = match part.kind.as_str() {
                    "wheels" => wheels.get(&part.row).map(|at| {
                        let article = loaded.wheel_sources[*at].article.as_deref();
                        ("wheels", wheel_item(&catalogue.wheels[*at], article))
                    }),
                    "tires" => tires.get(&part.row).map(|at| {
                        let article = loaded.tire_sources[*at].article.as_deref();
                        ("tires", tire_item(&catalogue.tires[*at], article))
                    }),
                    other => {
                        errors.fault(&format!("{pointer}/kind"), format!("{other:?} is not wheels or tires"));
                        continue;
                    }
                };
                match found {
                    Some((kind, item)) => {
                        parts.push(Asked { kind, row: part.row, count: part.count, item });
                    }
                    None => errors.fault(&format!("{pointer}/row"), "is no longer in the catalogue"),
                }
            }
            sets.push(parts);
        }
        errors.finish(sets)
    }
}

fn wheel_item(row: &WheelRow, article: Option<&str>) -> Item {
    Item {
        kind: "wheels",
        article: article.map(str::to_owned),
        line: row.line.to_string(),
        size: Wheel { center_bore: None, ..row.wheel }.to_string(),
        finish: row.finish.to_string(),
        listed_price: row.price.map(|price| f64::from(price) / 100.0),
    }
}

fn tire_item(row: &TireRow, article: Option<&str>) -> Item {
    Item {
        kind: "tires",
        article: article.map(str::to_owned),
        line: row.line.to_string(),
        size: row.tire.to_string(),
        finish: String::new(),
        listed_price: row.price.map(|price| f64::from(price) / 100.0),
    }
}

/// Every item of the sets, in order.
pub fn items_of(sets: &[Vec<Asked>]) -> Vec<Item> {
    sets.iter().flatten().map(|asked| asked.item.clone()).collect()
}

impl SupplyView {
    /// The sets with what is known of each of their items, in the order of [`items_of`].
    pub fn new(sets: &[Vec<Asked>], known: &[Option<Known>], state: State) -> Self {
        let (state, why) = match state {
            State::None => ("none", String::new()),
            State::Answers => ("answers", String::new()),
            State::Away(why) => ("away", why),
        };
        let now = Timestamp::now();
        let mut known = known.iter();
        let sets = sets
            .iter()
            .map(|set| {
                let parts: Vec<(PartSupply, Option<i64>)> = set
                    .iter()
                    .map(|asked| {
                        let known = known.next().copied().flatten();
                        let age = known.map(|known| now.as_second() - known.at.as_second());
                        (part_supply(asked, known), age)
                    })
                    .collect();
                set_supply(parts)
            })
            .collect();
        Self { state, why, sets }
    }
}

fn part_supply(asked: &Asked, known: Option<Known>) -> PartSupply {
    let answer = known.and_then(|known| known.answer);
    let state = match (known, answer) {
        (None, _) => "not_asked",
        (Some(_), None) => "not_known",
        (_, Some(answer)) if answer.stock >= asked.count => "there",
        (_, Some(answer)) if answer.discontinued => "gone",
        _ => "to_order",
    };
    PartSupply {
        kind: asked.kind,
        row: asked.row,
        count: asked.count,
        stock: answer.map(|answer| answer.stock),
        lead_days: answer.filter(|_| state != "gone").map(|answer| answer.lead_days),
        price: answer.map(|answer| answer.price).or(asked.item.listed_price),
        discontinued: answer.is_some_and(|answer| answer.discontinued),
        state,
        asked_at: known.map(|known| known.at.to_string()),
    }
}

fn set_supply(parts: Vec<(PartSupply, Option<i64>)>) -> SetSupply {
    let seconds_old = parts.iter().filter_map(|(_, age)| *age).max();
    let parts: Vec<PartSupply> = parts.into_iter().map(|(part, _)| part).collect();
    let price = parts.iter().filter_map(|part| Some(part.price? * f64::from(part.count))).sum();
    let leads: Option<Vec<u32>> = parts.iter().map(|part| part.lead_days).collect();
    SetSupply {
        price,
        price_is_whole: parts.iter().all(|part| part.price.is_some()),
        lead_days: leads.and_then(|leads| leads.into_iter().max()),
        is_gone: parts.iter().any(|part| part.state == "gone"),
        seconds_old,
        parts,
    }
}
