//! Clubs on the wire: rule files, and what a class says of a plan.

use fitment::Setup;
use fitment::catalogue::WheelMake;
use fitment::club::{Allowed, Class, Clause, Entry, JudgedClause, is_legal};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::read::FieldErrors;
use super::{Lines, PerAxle};
use crate::problem::ApiError;

/// A clause of a class, as a rule file has it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ClauseView {
    /// `rim_diameter_change_in`, `width_change_in`, `offset_change_mm`, `track_change_mm`, `treadwear`, `spacers_mm`,
    /// `square`, `wheel_material`, `tread_inside_fender`; any other is kept and not judged.
    pub clause: String,
    /// Its figure: at most so much.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub most: Option<f64>,
    /// Its figure: at least so much.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub least: Option<f64>,
    /// One of these.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub any_of: Vec<String>,
}

/// A class, as a rule file has it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ClassView {
    /// Its name.
    #[serde(default)]
    pub name: String,
    /// Its clauses.
    #[serde(default)]
    pub clauses: Vec<ClauseView>,
}

const MOST_CLAUSES: usize = 100;

impl ClauseView {
    fn read(&self, errors: &mut FieldErrors, pointer: &str) -> Clause {
        let mut figure = |name: &str, given: Option<f64>, most: f64| {
            let given = given.unwrap_or(f64::NAN);
            if !given.is_finite() || !(0.0..=most).contains(&given) {
                errors.fault(
                    &format!("{pointer}/{name}"),
                    format!("{} needs {name}, 0 to {most}", self.clause),
                );
            }
            given
        };
        match self.clause.as_str() {
            "rim_diameter_change_in" => {
                Clause::RimDiameterChange { most_in: figure("most", self.most, 12.0) }
            }
            "width_change_in" => Clause::WidthChange { most_in: figure("most", self.most, 8.0) },
            "offset_change_mm" => Clause::OffsetChange { most_mm: figure("most", self.most, 150.0) },
            "track_change_mm" => Clause::TrackChange { most_mm: figure("most", self.most, 300.0) },
            "spacers_mm" => Clause::Spacers { most_mm: figure("most", self.most, 100.0) },
            "treadwear" => Clause::Treadwear { least: figure("least", self.least, 1000.0) as u32 },
            "square" => Clause::Square,
            "tread_inside_fender" => Clause::TreadInsideFender,
            "wheel_material" => {
                let made = self.any_of.iter().enumerate().filter_map(|(at, code)| {
                    let make = WheelMake::from_code(code);
                    if make.is_none() {
                        errors.fault(
                            &format!("{pointer}/any_of/{at}"),
                            format!("{code:?} is no way wheels are made"),
                        );
                    }
                    make
                });
                Clause::WheelMaterial { any_of: made.collect() }
            }
            other => Clause::Unknown { name: other.chars().take(80).collect() },
        }
    }
}

impl ClassView {
    /// Checked.
    pub fn read(&self, errors: &mut FieldErrors, pointer: &str) -> Class {
        if self.clauses.len() > MOST_CLAUSES {
            errors.fault(
                &format!("{pointer}/clauses"),
                format!("more than {MOST_CLAUSES} clauses are not read"),
            );
        }
        let clauses = self.clauses.iter().take(MOST_CLAUSES).enumerate();
        Class {
            name: errors.text(&format!("{pointer}/name"), &self.name, 120),
            clauses: clauses
                .map(|(at, clause)| clause.read(errors, &format!("{pointer}/clauses/{at}")))
                .collect(),
        }
    }
}

/// A plan before a class.
#[derive(Debug, Deserialize, ToSchema)]
pub struct ClassRequest {
    /// The class.
    pub class: ClassView,
    /// What the factory fitted.
    pub factory: Lines,
    /// What is planned.
    pub planned: Lines,
    /// Treadwear grades.
    #[serde(default)]
    pub treadwear: PerAxle<Option<u32>>,
    /// How the wheels are made.
    #[serde(default)]
    pub wheel_material: PerAxle<Option<String>>,
    /// How far the tread stands beyond the fender; below zero inside it.
    #[serde(default)]
    pub tread_beyond_fender_mm: PerAxle<Option<f64>>,
}

/// A clause judged.
#[derive(Debug, Serialize, ToSchema)]
pub struct JudgedClauseView {
    /// Its name in the rule file.
    pub clause: String,
    /// Whether it is kept; null where it cannot be judged, which is never legal.
    pub ok: Option<bool>,
    /// By how much it is broken, in its own unit.
    pub by: Option<f64>,
    /// In a sentence.
    pub says: String,
}

impl From<JudgedClause> for JudgedClauseView {
    fn from(one: JudgedClause) -> Self {
        Self { clause: one.clause, ok: one.is_kept, by: one.by, says: one.says }
    }
}

/// Ranges that a class leaves, each `[least, most]`; null where nothing limits it.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct AllowedView {
    pub rim_diameter_in: Option<[f64; 2]>,
    pub width_in: Option<[f64; 2]>,
    pub offset_mm: Option<[f64; 2]>,
}

impl From<Allowed> for AllowedView {
    fn from(allowed: Allowed) -> Self {
        let range = |range: Option<(f64, f64)>| range.map(|(least, most)| [least, most]);
        Self {
            rim_diameter_in: range(allowed.rim_diameter_in),
            width_in: range(allowed.width_in),
            offset_mm: range(allowed.offset_mm),
        }
    }
}

/// What a class says of a plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct ClassAnswer {
    /// Whether every clause is known to be kept.
    pub legal: bool,
    /// Clause by clause.
    pub clauses: Vec<JudgedClauseView>,
    /// The most that the class leaves; of a car with other wheels behind, in front.
    pub allowed: AllowedView,
    /// The same axle by axle.
    pub allowed_by_axle: PerAxle<AllowedView>,
    /// Who decides.
    pub caution: &'static str,
}

/// Stands beside every judgement of a class.
const CLUB_CAUTION: &str = "The club's current rulebook and its scrutineer decide.";

impl ClassRequest {
    /// What it comes to.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn answer(&self) -> Result<ClassAnswer, ApiError> {
        let mut errors = FieldErrors::default();
        let class = self.class.read(&mut errors, "/class");
        let (factory, planned) =
            (errors.pair("/factory", &self.factory), errors.pair("/planned", &self.planned));
        let mut make = |pointer: &str, code: &Option<String>| {
            let make = code.as_deref().map(WheelMake::from_code);
            if make == Some(None) {
                errors.fault(pointer, "is no way wheels are made");
            }
            make.flatten()
        };
        let make = [
            make("/wheel_material/front", &self.wheel_material.front),
            make("/wheel_material/rear", &self.wheel_material.rear),
        ];
        errors.finish(())?;
        let entry = Entry {
            factory,
            planned,
            treadwear: [self.treadwear.front, self.treadwear.rear],
            make,
            beyond_fender_mm: [self.tread_beyond_fender_mm.front, self.tread_beyond_fender_mm.rear],
        };
        let judged = class.judge(&entry);
        let allowed = |setup: Option<Setup>| {
            AllowedView::from(setup.map(|setup| class.allowed(&setup)).unwrap_or_default())
        };
        Ok(ClassAnswer {
            legal: is_legal(&judged),
            clauses: judged.into_iter().map(JudgedClauseView::from).collect(),
            allowed: allowed(factory.front.or(factory.rear)),
            allowed_by_axle: PerAxle { front: allowed(factory.front), rear: allowed(factory.rear) },
            caution: CLUB_CAUTION,
        })
    }
}

/// A club's rule file.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub struct ClubView {
    /// Its name.
    pub club: String,
    /// From which day its rules count.
    pub from: String,
    /// Its classes.
    pub classes: Vec<ClassView>,
}

/// The clubs that ship: invented ones.
pub fn clubs() -> Vec<ClubView> {
    [
        include_str!("../sample/clubs/vennmere-hill.json"),
        include_str!("../sample/clubs/lakeside-autocross.json"),
    ]
    .into_iter()
    .filter_map(|text| serde_json::from_str(text).ok())
    .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_clubs_that_ship_can_be_read_and_only_one_clause_is_not_known() {
        let clubs = clubs();
        assert_eq!(clubs.len(), 2);
        let mut errors = FieldErrors::default();
        let classes: Vec<_> =
            clubs.iter().flat_map(|club| &club.classes).map(|class| class.read(&mut errors, "")).collect();
        assert!(errors.finish(()).is_ok());
        let unknown = classes.iter().flat_map(|class| &class.clauses);
        let unknown = unknown.filter(|clause| matches!(clause, fitment::club::Clause::Unknown { .. }));
        assert_eq!(unknown.count(), 1);
    }
}
