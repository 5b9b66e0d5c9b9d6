//! Clubs on the wire: rule files, and what a class says of a plan.

use std::collections::BTreeMap;
use std::sync::LazyLock;

use fitment::Setup;
use fitment::judgement::club::{
    Allowed, Asks, CLAUSES, Class, Clause, Entry, JudgedClause, is_legal, title_of,
};
use fitment::setup::catalogue::WheelMake;
use serde::{Deserialize, Serialize};
use store::clubs::ClubRules;
use utoipa::ToSchema;

use super::read::FieldErrors;
use super::{Lines, PerAxle};
use crate::problem::ApiError;

/// A clause of a class, as a rule file has it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ClauseView {
    /// `rim_diameter_change_in`, `width_change_in`, `offset_change_mm`, `track_change_mm`, `treadwear`, `spacers_mm`,
    /// `square`, `wheel_material`, `tire_list`, `tread_inside_fender`; any other is kept and not judged.
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
/// Lines of a list of tires at most.
const MOST_LINES: usize = 200;

impl ClauseView {
    fn read(&self, errors: &mut FieldErrors, pointer: &str) -> Clause {
        let known = CLAUSES.iter().find(|one| one.name == self.clause);
        let mut figure = |name: &str, given: Option<f64>, highest: f64| {
            let given = given.unwrap_or(f64::NAN);
            if !given.is_finite() || !(0.0..=highest).contains(&given) {
                let says = format!("{} needs {name}, 0 to {highest}", self.clause);
                errors.fault(&format!("{pointer}/{name}"), says);
            }
            given
        };
        let value = match known.map(|one| one.asks) {
            Some(Asks::Most { highest, .. }) => figure("most", self.most, highest),
            Some(Asks::Least { highest }) => figure("least", self.least, highest),
            _ => f64::NAN,
        };
        match self.clause.as_str() {
            "rim_diameter_change_in" => Clause::RimDiameterChange { most_in: value },
            "width_change_in" => Clause::WidthChange { most_in: value },
            "offset_change_mm" => Clause::OffsetChange { most_mm: value },
            "track_change_mm" => Clause::TrackChange { most_mm: value },
            "spacers_mm" => Clause::Spacers { most_mm: value },
            "treadwear" => Clause::Treadwear { least: value as u32 },
            "square" => Clause::Square,
            "tread_inside_fender" => Clause::TreadInsideFender,
            "tire_list" => {
                let list = format!("{pointer}/any_of");
                if self.any_of.is_empty() || self.any_of.len() > MOST_LINES {
                    errors.fault(&list, format!("a list of tires has 1 to {MOST_LINES} lines"));
                }
                let lines = self.any_of.iter().take(MOST_LINES).enumerate();
                let any_of = lines.map(|(at, line)| errors.text(&format!("{list}/{at}"), line, 80)).collect();
                Clause::TireList { any_of }
            }
            "wheel_material" => {
                if self.any_of.is_empty() {
                    errors.fault(&format!("{pointer}/any_of"), "say which ways wheels may be made");
                }
                let made = self.any_of.iter().enumerate().filter_map(|(at, code)| {
                    let make = WheelMake::from_code(code);
                    if make.is_none() {
                        let says = format!("{code:?} is no way wheels are made");
                        errors.fault(&format!("{pointer}/any_of/{at}"), says);
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
    /// Lines of the tires, for a class with a list.
    #[serde(default)]
    pub tires: PerAxle<Option<String>>,
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
    /// In words; of one that is not known its name.
    pub title: String,
    /// Whether it is kept; null where it cannot be judged, which is never legal.
    pub ok: Option<bool>,
    /// By how much it is broken, in its own unit.
    pub by: Option<f64>,
    /// In a sentence.
    pub says: String,
}

impl From<JudgedClause> for JudgedClauseView {
    fn from(one: JudgedClause) -> Self {
        Self {
            title: title_of(&one.clause).to_owned(),
            clause: one.clause,
            ok: one.is_kept,
            by: one.by,
            says: one.says,
        }
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

/// Where a class leaves a wheel of the plan's rim diameter on the fit window of an axle.
#[derive(Debug, Serialize, ToSchema)]
pub struct ClassBoxView {
    /// Rim widths, `[least, most]` in inches; null where nothing limits them.
    pub width_in: Option<[f64; 2]>,
    /// Offsets, `[least, most]` in millimetres; null where nothing limits them.
    pub offset_mm: Option<[f64; 2]>,
    /// Whether the plan's rim diameter is within the class at all: there is no place for it otherwise.
    pub has_place: bool,
    /// In words.
    pub says: String,
}

impl ClassBoxView {
    /// `None` where the class limits neither width nor offset nor diameter, or the factory's wheel is not stated.
    pub fn new(class: &Class, factory: Option<&Setup>, planned: Option<&Setup>) -> Option<Self> {
        let allowed = class.allowed(factory?);
        if allowed == Allowed::default() {
            return None;
        }
        let rim = planned.and_then(|setup| setup.wheel).map(|wheel| wheel.diameter.code());
        let has_place =
            allowed.rim_diameter_in.zip(rim).is_none_or(|((least, most), rim)| (least..=most).contains(&rim));
        let range = |what: &str, range: Option<(f64, f64)>, unit: &str| {
            range.map(|(least, most)| format!("{what} {least} to {most} {unit}"))
        };
        let ranges = [
            range("rims", allowed.rim_diameter_in, "in"),
            range("width", allowed.width_in, "in"),
            range("offset", allowed.offset_mm, "mm"),
        ];
        let ranges = ranges.into_iter().flatten().collect::<Vec<_>>().join(", ");
        let out = if has_place { "" } else { ": the plan's rim is outside it" };
        let view = AllowedView::from(allowed);
        Some(Self {
            width_in: view.width_in,
            offset_mm: view.offset_mm,
            has_place,
            says: format!("The class leaves {ranges}{out}."),
        })
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
            tires: [self.tires.front.as_deref(), self.tires.rear.as_deref()],
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

/// A club's rule file. Described for other programs by `GET /clubs/schema`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ClubView {
    /// Its name.
    pub club: String,
    /// From which day its rules count, as in 2026-03-01.
    pub from: String,
    /// Its classes.
    pub classes: Vec<ClassView>,
}

/// Classes of a club at most.
const MOST_CLASSES: usize = 100;

impl ClubView {
    /// As it is kept: blanks round its names are left out.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn checked(&self) -> Result<Self, ApiError> {
        let mut errors = FieldErrors::default();
        let mut named = |pointer: String, text: &str| {
            let text = text.trim();
            if text.is_empty() {
                errors.fault(&pointer, "must not be empty");
            }
            errors.text(&pointer, text, 120)
        };
        let club = named("/club".to_owned(), &self.club);
        let mut classes = self.classes.clone();
        for (at, class) in classes.iter_mut().enumerate() {
            class.name = named(format!("/classes/{at}/name"), &class.name);
        }
        let from = self.from.trim().to_owned();
        if from.parse::<jiff::civil::Date>().is_err() || from.len() != "2026-03-01".len() {
            errors.fault("/from", "write the day from which the rules count, as in 2026-03-01");
        }
        if classes.is_empty() || classes.len() > MOST_CLASSES {
            errors.fault("/classes", format!("a club has 1 to {MOST_CLASSES} classes"));
        }
        for (at, class) in classes.iter().enumerate().take(MOST_CLASSES) {
            class.read(&mut errors, &format!("/classes/{at}"));
            if classes[..at].iter().any(|other| other.name == class.name) {
                errors.fault(&format!("/classes/{at}/name"), format!("{} is there twice", class.name));
            }
        }
        errors.finish(Self { club, from, classes })
    }
}

/// A rule file and how it stands here.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct KeptClubView {
    /// The file.
    #[serde(flatten)]
    pub rules: ClubView,
    /// Whether it is the club's that counts today.
    pub counts: bool,
    /// Whether it came with the program as it is.
    pub ships: bool,
    /// When the house changed it, RFC 3339.
    pub changed_at: Option<String>,
    /// Who did.
    pub who: Option<String>,
    /// Why it cannot be read, when it cannot: it has no classes then.
    pub damaged: Option<String>,
}

impl KeptClubView {
    fn shipped(rules: ClubView) -> Self {
        Self { rules, counts: false, ships: true, changed_at: None, who: None, damaged: None }
    }

    fn kept(kept: ClubRules) -> Self {
        let read = serde_json::from_str::<ClubView>(&kept.record).map_err(|error| error.to_string());
        let (rules, damaged) = match read {
            Ok(rules) => (rules, None),
            Err(why) => (ClubView { club: kept.club, from: kept.valid_from, classes: Vec::new() }, Some(why)),
        };
        Self {
            rules,
            counts: false,
            ships: false,
            changed_at: Some(kept.changed_at),
            who: Some(kept.who),
            damaged,
        }
    }
}

/// The rule files at hand, by club and day: those that ship, with the house's in their place. Of each club the newest that
/// has begun counts.
pub fn at_hand(kept: Vec<ClubRules>, today: jiff::civil::Date) -> Vec<KeptClubView> {
    let mut all: BTreeMap<(String, String), KeptClubView> = BTreeMap::new();
    let shipped = SHIPPED.iter().cloned().map(KeptClubView::shipped);
    for one in shipped.chain(kept.into_iter().map(KeptClubView::kept)) {
        all.insert((one.rules.club.clone(), one.rules.from.clone()), one);
    }
    let mut newest: BTreeMap<String, String> = BTreeMap::new();
    let today = today.to_string();
    // Days as they are written sort as they come.
    for (club, from) in all.keys().filter(|(_, from)| *from <= today) {
        newest.insert(club.clone(), from.clone());
    }
    all.into_iter()
        .map(|((club, from), one)| KeptClubView { counts: newest.get(&club) == Some(&from), ..one })
        .collect()
}

/// The rule files that ship: invented clubs.
static SHIPPED: LazyLock<Vec<ClubView>> = LazyLock::new(|| {
    [
        include_str!("../sample/clubs/vennmere-hill.json"),
        include_str!("../sample/clubs/lakeside-autocross.json"),
    ]
    .into_iter()
    .filter_map(|text| serde_json::from_str(text).ok())
    .collect()
});

/// What describes a rule file to other programs.
pub const SCHEMA: &str = include_str!("../sample/clubs/club-rules.schema.json");

/// Of which rule file a job's class was taken.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ClassOf {
    /// The club.
    pub club: String,
    /// The day from which its rules counted.
    pub from: String,
}

impl ClassOf {
    /// What became of the rules since the class was taken; `None` while they are the same.
    pub fn news(&self, class: &ClassView, clubs: &[KeptClubView]) -> Option<String> {
        let club = &self.club;
        let Some(now) = clubs.iter().find(|one| one.counts && one.rules.club == *club) else {
            return Some(format!("no rules of {club} count here today: look whether the class still stands"));
        };
        let from = &now.rules.from;
        if *from != self.from {
            return Some(format!(
                "{club} has rules that count from {from}, this class is of {}: choose it again to take them",
                self.from
            ));
        }
        match now.rules.classes.iter().find(|one| one.name == class.name) {
            None => Some(format!("{club} no longer has this class in its rules of {from}")),
            Some(of_now) if of_now.clauses != class.clauses => Some(format!(
                "the rules of {club} of {from} were changed here since the class was chosen: choose it again to take them"
            )),
            Some(_) => None,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_clubs_that_ship_can_be_read_and_only_one_clause_is_not_known() {
        let clubs = &*SHIPPED;
        assert_eq!(clubs.len(), 2);
        assert!(clubs.iter().all(|club| club.checked().is_ok_and(|checked| checked == *club)));
        let mut errors = FieldErrors::default();
        let classes: Vec<_> =
            clubs.iter().flat_map(|club| &club.classes).map(|class| class.read(&mut errors, "")).collect();
        let unknown = classes.iter().flat_map(|class| &class.clauses);
        let unknown = unknown.filter(|clause| matches!(clause, Clause::Unknown { .. }));
        assert_eq!(unknown.count(), 1);
    }

    #[test]
    fn the_schema_knows_every_clause_and_no_other() {
        let schema: serde_json::Value = serde_json::from_str(SCHEMA).unwrap();
        let known = schema["$defs"]["clause"]["properties"]["clause"]["examples"].as_array().unwrap();
        let known: Vec<&str> = known.iter().map(|one| one.as_str().unwrap()).collect();
        assert_eq!(known, CLAUSES.iter().map(|one| one.name).collect::<Vec<_>>());
    }

    #[test]
    fn the_box_on_the_window_is_what_the_class_leaves_a_rim_within_it() {
        let setup = |line: &str| fitment::setup::line::read(line).unwrap().setups.unwrap().front.unwrap();
        let clubs = &*SHIPPED;
        let class = clubs[0].classes[0].read(&mut FieldErrors::default(), "");
        let on = |planned: &str| {
            ClassBoxView::new(&class, Some(&setup("16x6.5 ET45")), Some(&setup(planned))).unwrap()
        };
        let there = on("17x7 ET40");
        assert_eq!(
            (there.width_in, there.offset_mm, there.has_place),
            (Some([6.0, 7.0]), Some([38.0, 52.0]), true)
        );
        let away = on("18x7 ET40");
        assert!(!away.has_place && away.says.contains("outside"), "{}", away.says);
        assert!(ClassBoxView::new(&class, None, Some(&setup("17x7 ET40"))).is_none());
        assert!(ClassBoxView::new(&Class::default(), Some(&setup("16x6.5 ET45")), None).is_none());
    }

    #[test]
    fn of_each_club_the_newest_that_has_begun_counts() {
        let rules = |from: &str| ClubRules {
            club: "Vennmere Hill Climb Club".to_owned(),
            valid_from: from.to_owned(),
            record: format!(
                r#"{{"club":"Vennmere Hill Climb Club","from":"{from}","classes":[{{"name":"A"}}]}}"#
            ),
            changed_at: String::new(),
            who: String::new(),
        };
        let counts = |today: &str| {
            let all = at_hand(vec![rules("2027-01-01"), rules("2026-07-01")], today.parse().unwrap());
            let of_club = all.into_iter().filter(|one| one.rules.club.starts_with("Venn") && one.counts);
            of_club.map(|one| one.rules.from).collect::<Vec<_>>()
        };
        assert!(counts("2025-12-31").is_empty());
        assert_eq!(counts("2026-06-30"), ["2026-01-01"]);
        assert_eq!(counts("2026-07-01"), ["2026-07-01"]);
        assert_eq!(counts("2030-01-01"), ["2027-01-01"]);
    }

    #[test]
    fn a_class_that_was_taken_hears_of_newer_changed_and_missing_rules() {
        let clubs = at_hand(Vec::new(), "2026-06-01".parse().unwrap());
        let venn = clubs.iter().find(|one| one.rules.club.starts_with("Venn")).unwrap();
        let of = ClassOf { club: venn.rules.club.clone(), from: venn.rules.from.clone() };
        let class = venn.rules.classes[0].clone();
        assert_eq!(of.news(&class, &clubs), None);
        let older = ClassOf { from: "2025-01-01".to_owned(), ..of.clone() };
        assert!(older.news(&class, &clubs).unwrap().contains("2026-01-01"));
        let changed = ClassView { clauses: Vec::new(), ..class.clone() };
        assert!(of.news(&changed, &clubs).unwrap().contains("changed"));
        let gone = ClassView { name: "Gone".to_owned(), ..class.clone() };
        assert!(of.news(&gone, &clubs).unwrap().contains("no longer"));
        let nobody = ClassOf { club: "Nobody".to_owned(), ..of };
        assert!(nobody.news(&class, &clubs).is_some());
    }
}
