//! The registries of the trade, so that nobody keeps a second list of labels, units or ranges.

use fitment::answers::finder::{Approach, Arrangements, KeptParts, SearchCriteria, Weights};
use fitment::answers::proven::Rub;
use fitment::answers::trial::Contact;
use fitment::car::brake::{BrakePart, READINGS_PLUS_MINUS_MM, TEMPLATE_PLUS_MINUS_MM, USUAL_WEIGHTS};
use fitment::car::corner::feature::{BlocksFrom, Carrier};
use fitment::car::corner::{Direction, Face, Feature, ReadingUnit, ToRead};
use fitment::car::limits::{HouseLimits, LIMITS};
use fitment::car::style::Style;
use fitment::car::{FACTS, FactKind};
use fitment::judgement::clearance::{Input, Verdict};
use fitment::judgement::club::{Asks, CLAUSES, ClauseFacts};
use fitment::setup::Axle;
use fitment::setup::catalogue::{Season, Use, WheelMake};
use fitment::setup::spacers;
use fitment::{Offset, car::lever};
use serde::Serialize;
use utoipa::ToSchema;

use super::ledger::StandingCode;
use super::picked::MOST_ROWS as MOST_PICKED;
use super::road::{DEPTH_MM, TIRE_KPA, TREAD_C};

/// What can be known about a car.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::car::FactFacts")]
pub struct FactEntry {
    pub code: &'static str,
    pub title: &'static str,
    pub group: &'static str,
    /// `words`, `number`, `one_of` or `setup`.
    pub kind: &'static str,
    pub unit: Option<&'static str>,
    pub least: Option<f64>,
    pub most: Option<f64>,
    pub choices: &'static [&'static str],
    pub per_axle: bool,
    pub individual: bool,
    pub note: &'static str,
}

/// What can be read in the bay.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::car::corner::feature::Facts")]
pub struct PartEntry {
    pub code: &'static str,
    pub title: &'static str,
    pub name: &'static str,
    pub how: &'static str,
    /// `body`, `upright` or `arm`; null for what is no part of the car.
    pub carrier: Option<&'static str>,
    /// How far from the axle the bay draws it, as a share of the tire's radius; null for parts with a place of their own.
    pub drawn_at: Option<f64>,
    /// From where it stands in the way.
    pub bears: Option<&'static str>,
    pub at_lock: bool,
    pub from_bare_hub: bool,
    /// Whether the height of the smallest gap is worth noting.
    pub takes_radius: bool,
    /// On which axles it is read.
    pub axles: Vec<&'static str>,
}

/// A lever.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::car::lever::Facts")]
pub struct LeverEntry {
    pub code: &'static str,
    pub title: &'static str,
    /// `mm` or `°`.
    pub unit: &'static str,
    /// Null for what is chosen in the setup line.
    pub least: Option<f64>,
    pub most: Option<f64>,
    pub step: Option<f64>,
    /// Codes of the parts it makes room to.
    pub moves: Vec<&'static str>,
    pub does: &'static str,
    pub never: &'static str,
    pub can_be_undone: bool,
    pub costs: &'static str,
    pub caution: &'static str,
}

/// A house limit.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::car::limits::LimitFacts")]
pub struct LimitEntry {
    pub code: &'static str,
    pub title: &'static str,
    pub unit: &'static str,
    pub least: f64,
    pub most: f64,
    pub default: f64,
}

/// A unit a reading is spoken in.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "code and name")]
pub struct UnitEntry {
    pub code: &'static str,
    pub name: &'static str,
}

/// How a fit can rub, and how that stands.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::answers::proven::Rub")]
pub struct RubEntry {
    pub code: &'static str,
    pub name: &'static str,
    pub standing: StandingCode,
}

/// A verdict: its word, and how a line with it stands.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::judgement::clearance::Verdict")]
pub struct VerdictEntry {
    pub code: &'static str,
    pub word: &'static str,
    pub standing: StandingCode,
}

/// Figures that entry fields start from, and how far they go.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment")]
pub struct EntryFigures {
    /// Where stick-on weights usually stand, and how high. Common practice.
    pub weights_from_y_mm: f64,
    pub weights_to_y_mm: f64,
    pub weights_height_mm: f64,
    /// Thickest spacer that the brakes are tried with.
    pub thickest_spacer_mm: f64,
    /// Offsets go from minus to plus this.
    pub offset_limit_mm: f64,
    /// What a profile may be off: from a card template, and from single readings.
    pub template_plus_minus_mm: f64,
    pub readings_plus_minus_mm: f64,
    /// What a reading copied to the other side may be off more.
    pub copied_plus_minus_mm: f64,
    /// Depths, temperatures and pressures that a tire can have, `[least, most]`.
    pub depth_mm: [f64; 2],
    pub tread_c: [f64; 2],
    pub tire_kpa: [f64; 2],
    /// Rows of price lists that a job keeps at most.
    pub most_picked: usize,
}

/// What the finder can be asked for.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::answers::finder::SearchCriteria")]
pub struct WishChoices {
    pub schools: Vec<UnitEntry>,
    pub uses: Vec<UnitEntry>,
    pub seasons: Vec<UnitEntry>,
    pub keeps: Vec<UnitEntry>,
    pub arrangements: Vec<UnitEntry>,
    /// Most that a criterion can weigh.
    pub most_weight: f64,
    /// What a wish starts from, to be changed.
    pub start: WishStart,
}

/// What a wish starts from.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "fields of FinderRequest")]
pub struct WishStart {
    pub school: &'static str,
    pub uses: Vec<&'static str>,
    pub season: &'static str,
    pub keeps: &'static str,
    pub arrangement: &'static str,
    pub rim_min_in: f64,
    pub rim_max_in: f64,
}

/// A clause of a class, and what it asks to be filled in.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::judgement::club::ClauseFacts")]
pub struct ClauseEntry {
    pub code: &'static str,
    pub title: &'static str,
    /// `most`, `least`, `makes`, `lines` or `nothing`.
    pub asks: &'static str,
    pub unit: &'static str,
    /// Highest figure, where it asks for one.
    pub highest: Option<f64>,
}

/// What must stand beside work on the car.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "by the place where each stands")]
pub struct Cautions {
    pub in_the_bay: &'static str,
    pub on_the_bay_sheet: &'static str,
    pub on_the_plan: &'static str,
}

/// Everything that is listed.
#[derive(Debug, Serialize, ToSchema)]
pub struct Registry {
    /// What can be known about a car.
    pub facts: Vec<FactEntry>,
    /// What can be read in the bay, in bay order.
    pub parts: Vec<PartEntry>,
    /// The levers, from mild to hard.
    pub levers: Vec<LeverEntry>,
    /// The house's limits.
    pub limits: Vec<LimitEntry>,
    /// Units a reading is spoken in.
    pub units: Vec<UnitEntry>,
    /// Faces that a gap is read from.
    pub faces: Vec<UnitEntry>,
    /// Ways along which it is read.
    pub directions: Vec<UnitEntry>,
    /// What a tried wheel can meet.
    pub contacts: Vec<UnitEntry>,
    /// What stands inside the barrel.
    pub brake_parts: Vec<UnitEntry>,
    /// How a fit can rub.
    pub rubs: Vec<RubEntry>,
    /// The verdicts.
    pub verdicts: Vec<VerdictEntry>,
    /// What the finder can be asked for.
    pub wishes: WishChoices,
    /// Clauses of a club's class that are judged.
    pub clauses: Vec<ClauseEntry>,
    /// How wheels are made.
    pub wheel_makes: Vec<UnitEntry>,
    /// How a wheel can stand at the fender line.
    pub looks: Vec<UnitEntry>,
    /// Figures for entry fields.
    pub figures: EntryFigures,
    /// What must stand beside work on the car.
    pub cautions: Cautions,
}

/// Codes and words of a plain enum.
macro_rules! listed {
    ($type:ty) => {
        <$type>::ALL.iter().map(|one| UnitEntry { code: one.code(), name: one.words() }).collect()
    };
}

impl Registry {
    /// Everything.
    pub fn new() -> Self {
        let parts = Feature::ALL.into_iter().map(ToRead::Gap).chain([ToRead::FittedSection]);
        Self {
            facts: FACTS.iter().map(fact).collect(),
            parts: parts.map(part).collect(),
            levers: lever::FACTS.iter().map(lever_entry).collect(),
            limits: LIMITS
                .iter()
                .map(|limit| LimitEntry {
                    code: limit.code,
                    title: limit.title,
                    unit: limit.unit,
                    least: limit.range.0,
                    most: limit.range.1,
                    default: limit.of(&HouseLimits::DEFAULT),
                })
                .collect(),
            units: ReadingUnit::ALL
                .iter()
                .map(|unit| UnitEntry { code: unit.code(), name: unit_name(*unit) })
                .collect(),
            faces: listed!(Face),
            directions: listed!(Direction),
            contacts: Contact::ALL
                .iter()
                .map(|one| UnitEntry { code: one.code(), name: one.title() })
                .collect(),
            brake_parts: BrakePart::ALL
                .iter()
                .map(|one| UnitEntry { code: one.code(), name: one.title() })
                .collect(),
            rubs: Rub::ALL
                .iter()
                .map(|rub| RubEntry { code: rub.code(), name: rub.words(), standing: rub.severity().into() })
                .collect(),
            verdicts: Verdict::ALL
                .iter()
                .map(|one| VerdictEntry {
                    code: one.code(),
                    word: one.word(),
                    standing: one.severity().into(),
                })
                .collect(),
            wishes: WishChoices {
                schools: listed!(Approach),
                uses: listed!(Use),
                seasons: listed!(Season),
                keeps: listed!(KeptParts),
                arrangements: listed!(Arrangements),
                most_weight: Weights::MOST,
                start: WishStart {
                    school: Approach::default().code(),
                    uses: vec![Use::Daily.code()],
                    season: Season::Summer.code(),
                    keeps: KeptParts::default().code(),
                    arrangement: Arrangements::TypicalGaps.code(),
                    rim_min_in: SearchCriteria::USUAL_RIMS_IN.0,
                    rim_max_in: SearchCriteria::USUAL_RIMS_IN.1,
                },
            },
            clauses: CLAUSES.iter().map(clause).collect(),
            wheel_makes: listed!(WheelMake),
            looks: Style::ALL.iter().map(|one| UnitEntry { code: one.code(), name: one.word() }).collect(),
            figures: EntryFigures {
                weights_from_y_mm: USUAL_WEIGHTS.from_y,
                weights_to_y_mm: USUAL_WEIGHTS.to_y,
                weights_height_mm: USUAL_WEIGHTS.height_mm,
                thickest_spacer_mm: f64::from(spacers::THICKEST_MM),
                offset_limit_mm: Offset::LIMIT_MM,
                template_plus_minus_mm: TEMPLATE_PLUS_MINUS_MM,
                readings_plus_minus_mm: READINGS_PLUS_MINUS_MM,
                copied_plus_minus_mm: Input::CopiedSide.off(true),
                depth_mm: DEPTH_MM.into(),
                tread_c: TREAD_C.into(),
                tire_kpa: TIRE_KPA.into(),
                most_picked: MOST_PICKED,
            },
            cautions: Cautions {
                in_the_bay: fitment::values::cautions::IN_THE_BAY,
                on_the_bay_sheet: fitment::values::cautions::ON_THE_BAY_SHEET,
                on_the_plan: fitment::values::cautions::ON_THE_PLAN,
            },
        }
    }
}

impl Default for Registry {
    fn default() -> Self {
        Self::new()
    }
}

fn unit_name(unit: ReadingUnit) -> &'static str {
    match unit {
        ReadingUnit::Millimetres => "mm",
        ReadingUnit::Inches => "inches",
        ReadingUnit::Sixteenths => "1/16 in",
        ReadingUnit::Fingers => "fingers",
    }
}

fn fact(row: &fitment::car::FactFacts) -> FactEntry {
    let (kind, unit, range, choices): (_, _, Option<(f64, f64)>, &'static [&'static str]) = match row.kind {
        FactKind::Words(_) => ("words", None, None, &[]),
        FactKind::Number(unit, least, most) => ("number", Some(unit), Some((least, most)), &[]),
        FactKind::OneOf(choices) => ("one_of", None, None, choices),
        FactKind::Setup => ("setup", None, None, &[]),
    };
    FactEntry {
        code: row.code,
        title: row.title,
        group: row.group,
        kind,
        unit,
        least: range.map(|range| range.0),
        most: range.map(|range| range.1),
        choices,
        per_axle: row.is_per_axle,
        individual: row.is_individual,
        note: row.note,
    }
}

fn part(what: ToRead) -> PartEntry {
    let facts = match what {
        ToRead::Gap(feature) => Some(feature.facts()),
        ToRead::FittedSection => None,
    };
    let carrier = facts.map(|facts| match facts.carrier {
        Carrier::Body => "body",
        Carrier::Upright => "upright",
        Carrier::Arm => "arm",
    });
    let bears = facts.map(|facts| match facts.blocks_from {
        BlocksFrom::Inboard => "inboard",
        BlocksFrom::Outboard => "outboard",
        BlocksFrom::Above => "above",
        BlocksFrom::AheadOrBehind => "ahead_or_behind",
        BlocksFrom::Barrel => "barrel",
        BlocksFrom::Spoke => "spoke",
    });
    PartEntry {
        code: what.code(),
        title: what.title(),
        name: facts.map_or("fitted tire", |facts| facts.name),
        how: what.how(),
        carrier,
        bears,
        at_lock: facts.is_some_and(|facts| facts.at_lock),
        axles: Axle::BOTH
            .into_iter()
            .filter(|axle| facts.is_none_or(|facts| facts.feature.is_read_on(*axle)))
            .map(Axle::code)
            .collect(),
        drawn_at: facts.and_then(|facts| facts.feature.drawn_at()),
        from_bare_hub: facts.is_some_and(|facts| facts.bare_hub_mm.is_some()),
        takes_radius: facts.is_some_and(|facts| {
            facts.carrier != Carrier::Body
                && matches!(facts.blocks_from, BlocksFrom::Inboard | BlocksFrom::Barrel)
        }),
    }
}

fn clause(row: &ClauseFacts) -> ClauseEntry {
    let (asks, unit, highest) = match row.asks {
        Asks::Most { unit, highest } => ("most", unit, Some(highest)),
        Asks::Least { highest } => ("least", "", Some(highest)),
        Asks::Makes => ("makes", "", None),
        Asks::Lines => ("lines", "", None),
        Asks::Nothing => ("nothing", "", None),
    };
    ClauseEntry { code: row.name, title: row.title, asks, unit, highest }
}

fn lever_entry(row: &lever::Facts) -> LeverEntry {
    let (least, most, step) = row.range;
    let on_the_car = |value: f64| row.lever.is_on_the_car().then_some(value);
    LeverEntry {
        code: row.code,
        title: row.title,
        unit: if row.in_degrees { "°" } else { "mm" },
        least: on_the_car(least),
        most: on_the_car(most),
        step: on_the_car(step),
        moves: row.moves.iter().filter(|(_, share)| *share > 0.0).map(|(part, _)| part.code()).collect(),
        does: row.does,
        never: row.never,
        can_be_undone: row.can_be_undone,
        costs: row.costs,
        caution: row.caution,
    }
}
