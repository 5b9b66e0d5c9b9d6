//! What a class of a club allows: clauses as data, judged against a plan, and the most they leave.
//!
//! A clause that nobody here knows is kept and never passed as legal; so is one that something not stated decides.

use crate::setup::catalogue::WheelMake;
use crate::setup::{Arrangement, Axle, Setup, SetupPair};
use crate::values::working::Source;

/// Where a class's clauses come from.
pub const SOURCE: Source =
    Source::common_practice("the rule file of the house; the club's current rulebook decides");

/// What a clause limits.
#[derive(Debug, Clone, PartialEq)]
pub enum Clause {
    /// Rim diameter within so many inches of the factory's.
    RimDiameterChange {
        /// Inches, either way.
        most_in: f64,
    },
    /// Rim width within so many inches of the factory's.
    WidthChange {
        /// Inches, either way.
        most_in: f64,
    },
    /// Offset within so many millimetres of the factory's.
    OffsetChange {
        /// Millimetres, either way.
        most_mm: f64,
    },
    /// Track within so many millimetres of the factory's; what stands further out counts on both sides.
    TrackChange {
        /// Millimetres, either way.
        most_mm: f64,
    },
    /// Treadwear grade of at least so much.
    Treadwear {
        /// The grade.
        least: u32,
    },
    /// Spacers of at most so much; 0 for none.
    Spacers {
        /// Millimetres.
        most_mm: f64,
    },
    /// Like wheels and tires on both axles.
    Square,
    /// Wheels made one of these ways.
    WheelMaterial {
        /// The ways.
        any_of: Vec<WheelMake>,
    },
    /// The tread not beyond the fender.
    TreadInsideFender,
    /// Tires of these lines only.
    TireList {
        /// The lines, as the price lists write them; case and blanks do not count.
        any_of: Vec<String>,
    },
    /// One that nobody here knows.
    Unknown {
        /// Its name in the rule file.
        name: String,
    },
}

impl Clause {
    /// Its name in a rule file.
    pub fn name(&self) -> &str {
        match self {
            Self::RimDiameterChange { .. } => "rim_diameter_change_in",
            Self::WidthChange { .. } => "width_change_in",
            Self::OffsetChange { .. } => "offset_change_mm",
            Self::TrackChange { .. } => "track_change_mm",
            Self::Treadwear { .. } => "treadwear",
            Self::Spacers { .. } => "spacers_mm",
            Self::Square => "square",
            Self::WheelMaterial { .. } => "wheel_material",
            Self::TreadInsideFender => "tread_inside_fender",
            Self::TireList { .. } => "tire_list",
            Self::Unknown { name } => name,
        }
    }
}

/// What a clause asks to be filled in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Asks {
    /// At most a figure.
    Most {
        /// Its unit.
        unit: &'static str,
        /// Highest that makes sense.
        highest: f64,
    },
    /// At least a figure.
    Least {
        /// Highest that makes sense.
        highest: f64,
    },
    /// Ways that wheels are made.
    Makes,
    /// Lines of tires.
    Lines,
    /// Nothing.
    Nothing,
}

/// A clause that is known here.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ClauseFacts {
    /// Its name in a rule file.
    pub name: &'static str,
    /// In words.
    pub title: &'static str,
    /// What it asks to be filled in.
    pub asks: Asks,
}

/// The clauses that are known here.
pub const CLAUSES: &[ClauseFacts] = &[
    facts(
        "rim_diameter_change_in",
        "rim diameter from the factory's",
        Asks::Most { unit: "in", highest: 12.0 },
    ),
    facts("width_change_in", "rim width from the factory's", Asks::Most { unit: "in", highest: 8.0 }),
    facts("offset_change_mm", "offset from the factory's", Asks::Most { unit: "mm", highest: 150.0 }),
    facts("track_change_mm", "track from the factory's", Asks::Most { unit: "mm", highest: 300.0 }),
    facts("spacers_mm", "spacers", Asks::Most { unit: "mm", highest: 100.0 }),
    facts("treadwear", "treadwear grade", Asks::Least { highest: 1000.0 }),
    facts("tire_list", "tires of the list", Asks::Lines),
    facts("wheel_material", "wheels made so", Asks::Makes),
    facts("square", "like wheels and tires on both axles", Asks::Nothing),
    facts("tread_inside_fender", "tread not beyond the fender", Asks::Nothing),
];

const fn facts(name: &'static str, title: &'static str, asks: Asks) -> ClauseFacts {
    ClauseFacts { name, title, asks }
}

/// A clause's words: its title, or for one that is not known its name.
pub fn title_of(name: &str) -> &str {
    CLAUSES.iter().find(|one| one.name == name).map_or(name, |one| one.title)
}

/// A line as it is compared: case and blanks do not count.
fn plain_line(line: &str) -> String {
    line.chars().filter(|letter| !letter.is_whitespace()).flat_map(char::to_lowercase).collect()
}

fn is_on_list(line: &str, any_of: &[String]) -> bool {
    any_of.iter().any(|one| plain_line(one) == plain_line(line))
}

/// A class.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Class {
    /// Its name.
    pub name: String,
    /// Its clauses.
    pub clauses: Vec<Clause>,
}

/// A plan before a class.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Entry<'a> {
    /// What the factory fitted.
    pub factory: SetupPair,
    /// What is planned.
    pub planned: SetupPair,
    /// Treadwear grades, front and rear.
    pub treadwear: [Option<u32>; 2],
    /// Lines of the tires, front and rear.
    pub tires: [Option<&'a str>; 2],
    /// How the wheels are made, front and rear.
    pub make: [Option<WheelMake>; 2],
    /// How far the tread stands beyond the fender, in millimetres, front and rear; below zero inside it.
    pub beyond_fender_mm: [Option<f64>; 2],
}

/// A clause judged.
#[derive(Debug, Clone, PartialEq)]
pub struct JudgedClause {
    /// Its name.
    pub clause: String,
    /// Whether it is kept; `None` where it cannot be judged: never legal.
    pub is_kept: Option<bool>,
    /// By how much it is not, in its own unit.
    pub by: Option<f64>,
    /// In a sentence.
    pub says: String,
}

/// Figures of a rule are met to the last digit that is written.
const EXACT: f64 = 1e-9;

impl Class {
    /// Judges a plan, clause by clause.
    pub fn judge(&self, entry: &Entry<'_>) -> Vec<JudgedClause> {
        self.clauses.iter().map(|clause| judge(clause, entry)).collect()
    }

    /// The most that the class leaves an axle: rim diameter and width in inches, offset in millimetres; `None` where no
    /// clause limits it or the factory's is not stated.
    pub fn allowed(&self, factory: &Setup) -> Allowed {
        let Some(wheel) = factory.wheel else { return Allowed::default() };
        let mut allowed = Allowed::default();
        for clause in &self.clauses {
            let (range, around, most) = match clause {
                Clause::RimDiameterChange { most_in } => {
                    (&mut allowed.rim_diameter_in, Some(wheel.diameter.code()), *most_in)
                }
                Clause::WidthChange { most_in } => {
                    (&mut allowed.width_in, Some(wheel.width.code()), *most_in)
                }
                Clause::OffsetChange { most_mm } => {
                    (&mut allowed.offset_mm, wheel.offset.map(|offset| offset.as_mm()), *most_mm)
                }
                _ => continue,
            };
            if let Some(around) = around {
                let (least, highest) = range.unwrap_or((f64::NEG_INFINITY, f64::INFINITY));
                *range = Some((least.max(around - most), highest.min(around + most)));
            }
        }
        allowed
    }

    /// Whether a wheel alone may stand on an axle: what asks about tires, spacers, the other axle or the fender is left to
    /// [`Class::judge`].
    pub fn allows_wheel(&self, factory: Option<&Setup>, planned: &Setup, make: Option<WheelMake>) -> bool {
        let one = |setup: Option<&Setup>| SetupPair { front: setup.copied(), rear: setup.copied() };
        let entry =
            Entry { factory: one(factory), planned: one(Some(planned)), make: [make; 2], ..Entry::default() };
        let is_of_the_wheel = |clause: &&Clause| {
            matches!(
                clause,
                Clause::RimDiameterChange { .. }
                    | Clause::WidthChange { .. }
                    | Clause::OffsetChange { .. }
                    | Clause::TrackChange { .. }
                    | Clause::WheelMaterial { .. }
            )
        };
        self.clauses.iter().filter(is_of_the_wheel).all(|clause| judge(clause, &entry).is_kept == Some(true))
    }

    /// Whether a tire of a line and a treadwear grade will do; one whose grade is not stated will not where a grade is
    /// asked for.
    pub fn allows_tire(&self, line: &str, grade: Option<u32>) -> bool {
        self.clauses.iter().all(|clause| match clause {
            Clause::Treadwear { least } => grade.is_some_and(|grade| grade >= *least),
            Clause::TireList { any_of } => is_on_list(line, any_of),
            _ => true,
        })
    }

    /// Whether it asks for like wheels and tires on both axles.
    pub fn asks_square(&self) -> bool {
        self.clauses.contains(&Clause::Square)
    }

    /// Thickest spacer it allows, in millimetres; `None` without a clause.
    pub fn thickest_spacer_mm(&self) -> Option<f64> {
        self.clauses
            .iter()
            .filter_map(|clause| match clause {
                Clause::Spacers { most_mm } => Some(*most_mm),
                _ => None,
            })
            .reduce(f64::min)
    }
}

/// Ranges that a class leaves.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Allowed {
    /// Rim diameter.
    pub rim_diameter_in: Option<(f64, f64)>,
    /// Rim width.
    pub width_in: Option<(f64, f64)>,
    /// Offset.
    pub offset_mm: Option<(f64, f64)>,
}

/// Whether a plan is legal: every clause is known to be kept.
pub fn is_legal(judged: &[JudgedClause]) -> bool {
    judged.iter().all(|one| one.is_kept == Some(true))
}

fn judge(clause: &Clause, entry: &Entry<'_>) -> JudgedClause {
    let on_both = |of: &dyn Fn(Axle, usize) -> Option<f64>| -> Option<f64> {
        let each = Axle::BOTH.into_iter().zip(0..).map(|(axle, at)| of(axle, at));
        each.collect::<Option<Vec<f64>>>().map(|all| all.into_iter().fold(f64::NEG_INFINITY, f64::max))
    };
    let wheels = |axle: Axle| entry.factory.on(axle)?.wheel.zip(entry.planned.on(axle)?.wheel);
    let change = |of: &dyn Fn(&crate::Wheel) -> Option<f64>| {
        on_both(&|axle, _| {
            let (factory, planned) = wheels(axle)?;
            Some((of(&planned)? - of(&factory)?).abs())
        })
    };
    // How far beyond the limit it is, in the clause's unit; `None` where something is not stated.
    let (beyond, unit) = match clause {
        Clause::RimDiameterChange { most_in } => {
            (change(&|wheel| Some(wheel.diameter.code())).map(|by| by - most_in), "in")
        }
        Clause::WidthChange { most_in } => {
            (change(&|wheel| Some(wheel.width.code())).map(|by| by - most_in), "in")
        }
        Clause::OffsetChange { most_mm } => {
            (change(&|wheel| wheel.offset.map(|offset| offset.as_mm())).map(|by| by - most_mm), "mm")
        }
        Clause::TrackChange { most_mm } => {
            let further = on_both(&|axle, _| {
                let effective = |pair: &SetupPair| Some(pair.on(axle)?.effective_offset()?.as_mm());
                Some(((effective(&entry.factory)? - effective(&entry.planned)?) * 2.0).abs())
            });
            (further.map(|by| by - most_mm), "mm")
        }
        Clause::Treadwear { least } => {
            (on_both(&|_, at| Some(f64::from(*least) - f64::from(entry.treadwear[at]?))), "")
        }
        Clause::Spacers { most_mm } => (
            on_both(&|axle, _| {
                let spacer = entry.planned.on(axle)?.spacer;
                Some(spacer.map_or(0.0, |spacer| spacer.as_mm()) - most_mm)
            }),
            "mm",
        ),
        Clause::Square => {
            let square = entry.planned.arrangement().map(|one| one == Arrangement::Square);
            return plain(
                clause,
                square,
                "the wheels and tires of both axles are alike",
                "the set is staggered",
            );
        }
        Clause::WheelMaterial { any_of } => {
            let made = entry.make.into_iter().collect::<Option<Vec<WheelMake>>>();
            let kept = made.map(|made| made.iter().all(|make| any_of.contains(make)));
            return plain(clause, kept, "the wheels are made as it asks", "the wheels are made another way");
        }
        Clause::TireList { any_of } => {
            let lines = entry.tires.into_iter().collect::<Option<Vec<&str>>>();
            let kept = lines.map(|lines| lines.iter().all(|line| is_on_list(line, any_of)));
            return plain(clause, kept, "the tires are on the list", "a tire is not on the list");
        }
        Clause::TreadInsideFender => (on_both(&|_, at| entry.beyond_fender_mm[at]), "mm"),
        Clause::Unknown { .. } => {
            return JudgedClause {
                clause: clause.name().to_owned(),
                is_kept: None,
                by: None,
                says: "not judged: this clause is not known here; the club's rulebook decides".to_owned(),
            };
        }
    };
    let is_kept = beyond.map(|by| by <= EXACT);
    JudgedClause {
        clause: clause.name().to_owned(),
        is_kept,
        by: beyond.filter(|by| *by > EXACT),
        says: match (is_kept, beyond) {
            (Some(true), _) => "kept".to_owned(),
            (Some(false), Some(by)) => format!("beyond it by {by:.2} {unit}").trim_end().to_owned(),
            _ => "not judged: something it asks for is not stated".to_owned(),
        },
    }
}

fn plain(clause: &Clause, is_kept: Option<bool>, kept: &str, not: &str) -> JudgedClause {
    let says = match is_kept {
        Some(true) => kept,
        Some(false) => not,
        None => "not judged: something it asks for is not stated",
    };
    JudgedClause { clause: clause.name().to_owned(), is_kept, by: None, says: says.to_owned() }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn pair(line: &str) -> SetupPair {
        crate::setup::line::read(line).unwrap().setups.unwrap()
    }

    fn entry(planned: &str) -> Entry<'static> {
        Entry {
            factory: pair("16x6.5 ET45 205/50R16"),
            planned: pair(planned),
            treadwear: [Some(200); 2],
            tires: [Some("Skarn R2"); 2],
            make: [Some(WheelMake::Cast); 2],
            beyond_fender_mm: [Some(-3.0); 2],
        }
    }

    /// Each clause kept to its last unit, and broken by one more.
    #[test]
    fn a_clause_is_kept_to_its_limit_and_not_a_unit_beyond() {
        let cases: [(Clause, &str, &str, f64); 6] = [
            (
                Clause::RimDiameterChange { most_in: 1.0 },
                "17x6.5 ET45 205/45R17",
                "18x6.5 ET45 205/40R18",
                1.0,
            ),
            (Clause::WidthChange { most_in: 0.5 }, "16x7 ET45 205/50R16", "16x7.5 ET45 205/50R16", 0.5),
            (Clause::OffsetChange { most_mm: 7.0 }, "16x7 ET38 205/50R16", "16x7 ET37 205/50R16", 1.0),
            (Clause::TrackChange { most_mm: 14.0 }, "16x7 ET38 205/50R16", "16x7 ET37 205/50R16", 2.0),
            (
                Clause::Spacers { most_mm: 3.0 },
                "16x7 ET45 205/50R16 3 mm spacer",
                "16x7 ET45 205/50R16 5 mm spacer",
                2.0,
            ),
            (Clause::Spacers { most_mm: 0.0 }, "16x7 ET45 205/50R16", "16x7 ET45 205/50R16 3 mm spacer", 3.0),
        ];
        for (clause, legal, illegal, by) in cases {
            let class = Class { name: "C".into(), clauses: vec![clause.clone()] };
            let judged = class.judge(&entry(legal));
            assert!(is_legal(&judged), "{clause:?} {legal}: {judged:?}");
            let judged = class.judge(&entry(illegal));
            assert_eq!(judged[0].is_kept, Some(false), "{clause:?} {illegal}");
            assert!((judged[0].by.unwrap() - by).abs() < 1e-9, "{judged:?}");
        }
    }

    #[test]
    fn treadwear_material_fender_and_square() {
        let class = |clause| Class { name: "C".into(), clauses: vec![clause] };
        let plan = entry("16x7 ET45 205/50R16");
        let legal = |clause: Clause, entry: &Entry<'_>| is_legal(&class(clause).judge(entry));
        assert!(legal(Clause::Treadwear { least: 200 }, &plan));
        assert!(!legal(Clause::Treadwear { least: 201 }, &plan));
        assert!(legal(Clause::TreadInsideFender, &plan));
        assert!(!legal(
            Clause::TreadInsideFender,
            &Entry { beyond_fender_mm: [Some(-3.0), Some(0.5)], ..plan }
        ));
        assert!(!legal(Clause::WheelMaterial { any_of: vec![WheelMake::Forged] }, &plan));
        let list =
            |lines: &[&str]| Clause::TireList { any_of: lines.iter().map(|one| (*one).to_owned()).collect() };
        assert!(legal(list(&["Other", "skarn  R2"]), &plan));
        assert!(!legal(list(&["Skarn R3"]), &plan) && !legal(list(&[]), &plan));
        assert!(!legal(list(&["Skarn R2"]), &Entry { tires: [Some("Skarn R2"), None], ..plan }));
        assert!(legal(Clause::Square, &plan));
        assert!(!legal(Clause::Square, &entry("F: 16x7 ET45 205/50R16 R: 16x7.5 ET45 225/45R16")));
    }

    #[test]
    fn every_clause_that_is_known_has_words_of_its_own() {
        let titles: std::collections::BTreeSet<_> = CLAUSES.iter().map(|one| one.title).collect();
        let names: std::collections::BTreeSet<_> = CLAUSES.iter().map(|one| one.name).collect();
        assert_eq!((titles.len(), names.len()), (CLAUSES.len(), CLAUSES.len()));
        assert_eq!((title_of("square"), title_of("no_purple_cars")), (CLAUSES[8].title, "no_purple_cars"));
    }

    #[test]
    fn what_nobody_knows_or_stated_is_never_legal() {
        let class = Class {
            name: "C".into(),
            clauses: vec![
                Clause::Unknown { name: "no_purple_cars".into() },
                Clause::Treadwear { least: 200 },
                Clause::OffsetChange { most_mm: 5.0 },
            ],
        };
        let judged = class.judge(&Entry { treadwear: [None, Some(300)], ..entry("16x7 205/50R16") });
        assert!(judged.iter().all(|one| one.is_kept.is_none() && one.by.is_none()), "{judged:?}");
        assert!(!is_legal(&judged) && judged[0].clause == "no_purple_cars");
        assert!(
            is_legal(&Class::default().judge(&entry("16x7 ET45 205/50R16"))),
            "a class without clauses allows all"
        );
    }

    #[test]
    fn the_most_that_a_class_leaves() {
        let class = Class {
            name: "C".into(),
            clauses: vec![
                Clause::RimDiameterChange { most_in: 1.0 },
                Clause::WidthChange { most_in: 0.5 },
                Clause::OffsetChange { most_mm: 7.0 },
                Clause::OffsetChange { most_mm: 5.0 },
            ],
        };
        let allowed = class.allowed(&pair("16x6.5 ET45 205/50R16").front.unwrap());
        assert_eq!(allowed.rim_diameter_in, Some((15.0, 17.0)));
        assert_eq!(allowed.width_in, Some((6.0, 7.0)));
        assert_eq!(allowed.offset_mm, Some((40.0, 50.0)), "the narrower of two clauses");
    }
}
