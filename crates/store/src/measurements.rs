//! What a job knows of its car: the record, the readings, what is done to it, and how it is to stand.

use fitment::car::corner::RecordedReading;
use fitment::car::lever::{Lever, PairLevers};
use fitment::car::style::{Style, StyleTarget};
use fitment::car::{Alternative, Car, Fact};
use fitment::setup::Axle;
use fitment::{Length, SetupPair};
use jiff::Timestamp;
use rusqlite::{Connection, params};
use serde::{Deserialize, Serialize};
use serde_json::Value;

use crate::StoreError;
use crate::columns;
use crate::jobs::{lines_of, pair_of};

/// What a job knows of its car beside its setups.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[serde(into = "Rows", try_from = "Rows")]
pub struct Measurements {
    /// The car's record.
    pub car: Car,
    /// The readings, in the order they were taken.
    pub readings: Vec<KeptReading>,
    /// What is done to the car for the plan.
    pub levers: PairLevers,
    /// How the owner wants it to stand, front and rear.
    pub wanted: (Option<StyleTarget>, Option<StyleTarget>),
}

/// A reading with who took it and when: a row of its table, and kept the same way in the journal.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct KeptReading {
    /// The tablet's own id for it.
    pub id: String,
    /// The reading.
    #[serde(flatten)]
    pub taken: RecordedReading,
    /// Who took it.
    pub who: String,
    /// When.
    pub at: Timestamp,
}

impl Measurements {
    /// The readings without who and when, each against what was fitted: what nobody had typed when it was taken is
    /// what the job says now.
    pub fn taken(&self, fitted: &SetupPair) -> Vec<RecordedReading> {
        self.readings.iter().map(|kept| kept.taken.clone().once_named(fitted)).collect()
    }
}

impl Measurements {
    /// Replaces what the tables hold for a job; of what was there before only what differs.
    pub(crate) fn put(
        &self,
        connection: &Connection,
        job: i64,
        before: Option<&Self>,
    ) -> Result<(), StoreError> {
        if before == Some(self) {
            return Ok(());
        }
        let is_same_beside = |before: &Self| {
            before.car == self.car && before.levers == self.levers && before.wanted == self.wanted
        };
        if !before.is_some_and(is_same_beside) {
            let Self { car, levers, wanted, readings: _ } = self;
            let beside = Self { car: car.clone(), levers: *levers, wanted: *wanted, readings: Vec::new() };
            Rows::of(&beside).put(connection, job)?;
        }
        put_readings(connection, job, before.map(|before| before.readings.as_slice()), &self.readings)
    }
}

/// Writes the readings that are not as they were at their place, and takes away those behind the last.
fn put_readings(
    connection: &Connection,
    job: i64,
    before: Option<&[KeptReading]>,
    readings: &[KeptReading],
) -> Result<(), StoreError> {
    let same = before
        .map_or(0, |before| before.iter().zip(readings).take_while(|(before, now)| before == now).count());
    connection
        .prepare_cached("DELETE FROM reading WHERE job_id = ?1 AND position >= ?2")?
        .execute(params![job, same as i64])?;
    for (position, row) in readings.iter().enumerate().skip(same) {
        let mut fields = columns::fields_of(row)?;
        fields.push(("job_id".to_owned(), job.into()));
        fields.push(("position".to_owned(), (position as i64).into()));
        columns::insert(connection, "reading", &fields)?;
    }
    Ok(())
}

impl From<Measurements> for Rows {
    fn from(all: Measurements) -> Self {
        Self::of(&all)
    }
}

impl TryFrom<Rows> for Measurements {
    type Error = String;

    fn try_from(rows: Rows) -> Result<Self, Self::Error> {
        rows.measurements()
    }
}

/// The same in plain rows: what the tables hold and the journal keeps.
#[derive(Debug, Clone, Default, Serialize, Deserialize)]
#[serde(default)]
pub(crate) struct Rows {
    facts: Vec<FactRow>,
    alternatives: Vec<AlternativeRow>,
    readings: Vec<KeptReading>,
    levers: Vec<LeverRow>,
    wanted: Vec<WantedRow>,
}

#[derive(Debug, Clone, Serialize, Deserialize)]
struct FactRow {
    fact: String,
    axle: Option<String>,
    value: String,
}

#[derive(Debug, Clone, Serialize, Deserialize)]
struct AlternativeRow {
    name: String,
    #[serde(flatten)]
    setups: SetupPair,
}

#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct LeverRow {
    axle: String,
    lever: String,
    amount: f64,
}

/// Levers as rows of codes and amounts, and back; by this name for serde's `with`.
pub(crate) mod lever_rows {
    use serde::de::Error;
    use serde::{Deserialize, Deserializer, Serialize, Serializer};

    use super::{Axle, Lever, LeverRow, PairLevers, axle_of, known};

    pub(crate) fn of(levers: &PairLevers) -> Vec<LeverRow> {
        let on = |axle: Axle| {
            levers.on(axle).that_are_set().map(move |(lever, amount)| LeverRow {
                axle: axle.code().to_owned(),
                lever: lever.code().to_owned(),
                amount,
            })
        };
        Axle::BOTH.into_iter().flat_map(on).collect()
    }

    pub(crate) fn levers(rows: &[LeverRow]) -> Result<PairLevers, String> {
        let mut levers = PairLevers::default();
        for row in rows {
            let lever = known("lever", &row.lever, Lever::from_code(&row.lever))?;
            let on = levers.on_mut(axle_of(&row.axle)?);
            on.set(lever, row.amount).map_err(|error| error.to_string())?;
        }
        Ok(levers)
    }

    pub(crate) fn serialize<S: Serializer>(levers: &PairLevers, to: S) -> Result<S::Ok, S::Error> {
        of(levers).serialize(to)
    }

    pub(crate) fn deserialize<'de, D: Deserializer<'de>>(from: D) -> Result<PairLevers, D::Error> {
        levers(&Vec::<LeverRow>::deserialize(from)?).map_err(D::Error::custom)
    }
}

#[derive(Debug, Clone, Serialize, Deserialize)]
struct WantedRow {
    axle: String,
    style: String,
    within_mm: Option<f64>,
    is_show: bool,
}

/// A code read back; what is not one is damage.
fn known<T>(what: &str, code: &str, found: Option<T>) -> Result<T, String> {
    found.ok_or_else(|| format!("{what} {code:?}"))
}

fn axle_of(code: &str) -> Result<Axle, String> {
    known("axle", code, Axle::from_code(code))
}

fn length_of(mm: f64) -> Result<Length, String> {
    known("length", &mm.to_string(), Length::from_mm(mm))
}

impl Rows {
    pub(crate) fn of(all: &Measurements) -> Self {
        Self {
            facts: all
                .car
                .known()
                .map(|(fact, axle, value)| FactRow {
                    fact: fact.facts().code.to_owned(),
                    axle: axle.map(|axle| axle.code().to_owned()),
                    value: value.to_string(),
                })
                .collect(),
            alternatives: all
                .car
                .alternatives
                .iter()
                .map(|one| AlternativeRow { name: one.name.clone(), setups: one.setups })
                .collect(),
            readings: all.readings.clone(),
            levers: lever_rows::of(&all.levers),
            wanted: [(Axle::Front, all.wanted.0), (Axle::Rear, all.wanted.1)]
                .into_iter()
                .filter_map(|(axle, target)| {
                    let target = target?;
                    Some(WantedRow {
                        axle: axle.code().to_owned(),
                        style: target.style.code().to_owned(),
                        within_mm: target.within.map(Length::as_mm),
                        is_show: target.is_show,
                    })
                })
                .collect(),
        }
    }

    pub(crate) fn measurements(&self) -> Result<Measurements, String> {
        let mut all = Measurements::default();
        for row in &self.facts {
            let fact = known("fact", &row.fact, Fact::from_code(&row.fact))?;
            let axle = row.axle.as_deref().map(axle_of).transpose()?;
            all.car.note(fact, axle, &row.value).map_err(|error| error.to_string())?;
        }
        for row in &self.alternatives {
            all.car.alternatives.push(Alternative { name: row.name.clone(), setups: row.setups });
        }
        all.readings = self.readings.clone();
        all.levers = lever_rows::levers(&self.levers)?;
        for row in &self.wanted {
            let target = StyleTarget {
                style: known("style", &row.style, Style::from_code(&row.style))?,
                within: row.within_mm.map(length_of).transpose()?,
                is_show: row.is_show,
            };
            match axle_of(&row.axle)? {
                Axle::Front => all.wanted.0 = Some(target),
                Axle::Rear => all.wanted.1 = Some(target),
            }
        }
        Ok(all)
    }

    /// Replaces what the tables hold for a job, without the readings.
    fn put(&self, connection: &Connection, job: i64) -> Result<(), StoreError> {
        for table in ["car_fact", "car_alternative", "lever", "wanted_style"] {
            connection.prepare_cached(&format!("DELETE FROM {table} WHERE job_id = ?1"))?.execute([job])?;
        }
        let mut insert = connection
            .prepare_cached("INSERT INTO car_fact (job_id, fact, axle, value) VALUES (?1, ?2, ?3, ?4)")?;
        for row in &self.facts {
            insert.execute(params![job, row.fact, row.axle, row.value])?;
        }
        let mut insert = connection.prepare_cached(
            "INSERT INTO car_alternative (job_id, position, name, front, rear) VALUES (?1, ?2, ?3, ?4, ?5)",
        )?;
        for (position, row) in self.alternatives.iter().enumerate() {
            let (front, rear) = lines_of(&row.setups);
            insert.execute(params![job, position as i64, row.name, front, rear])?;
        }
        let mut insert = connection
            .prepare_cached("INSERT INTO lever (job_id, axle, lever, amount) VALUES (?1, ?2, ?3, ?4)")?;
        for row in &self.levers {
            insert.execute(params![job, row.axle, row.lever, row.amount])?;
        }
        let mut insert = connection.prepare_cached(
            "INSERT INTO wanted_style (job_id, axle, style, within_mm, is_show) VALUES (?1, ?2, ?3, ?4, ?5)",
        )?;
        for row in &self.wanted {
            insert.execute(params![job, row.axle, row.style, row.within_mm, row.is_show])?;
        }
        Ok(())
    }

    /// What the tables hold for a job.
    pub(crate) fn get(connection: &Connection, job: i64) -> Result<Self, StoreError> {
        let corrupt = |table| move |why| StoreError::Corrupt { table, id: job, why };
        let facts = connection
            .prepare_cached("SELECT fact, axle, value FROM car_fact WHERE job_id = ?1 ORDER BY rowid")?
            .query_map([job], |row| {
                Ok(FactRow { fact: row.get("fact")?, axle: row.get("axle")?, value: row.get("value")? })
            })?
            .collect::<Result<_, _>>()?;
        let alternatives = connection
            .prepare_cached(
                "SELECT name, front, rear FROM car_alternative WHERE job_id = ?1 ORDER BY position",
            )?
            .query_map([job], |row| Ok((row.get("name")?, pair_of(row.get("front")?, row.get("rear")?))))?
            .map(|row| {
                let (name, setups): (String, Result<SetupPair, String>) = row?;
                Ok(AlternativeRow { name, setups: setups.map_err(corrupt("car_alternative"))? })
            })
            .collect::<Result<_, StoreError>>()?;
        let readings = connection
            .prepare_cached("SELECT * FROM reading WHERE job_id = ?1 ORDER BY position")?
            .query_map([job], |row| columns::record_of(row, &["is_copied"]))?
            .map(|row| {
                let read = serde_json::from_value(Value::Object(row?));
                read.map_err(|error| corrupt("reading")(error.to_string()))
            })
            .collect::<Result<_, StoreError>>()?;
        let levers = connection
            .prepare_cached("SELECT axle, lever, amount FROM lever WHERE job_id = ?1")?
            .query_map([job], |row| {
                Ok(LeverRow { axle: row.get("axle")?, lever: row.get("lever")?, amount: row.get("amount")? })
            })?
            .collect::<Result<_, _>>()?;
        let wanted = connection
            .prepare_cached("SELECT axle, style, within_mm, is_show FROM wanted_style WHERE job_id = ?1")?
            .query_map([job], |row| {
                Ok(WantedRow {
                    axle: row.get("axle")?,
                    style: row.get("style")?,
                    within_mm: row.get("within_mm")?,
                    is_show: row.get("is_show")?,
                })
            })?
            .collect::<Result<_, _>>()?;
        Ok(Self { facts, alternatives, readings, levers, wanted })
    }
}
