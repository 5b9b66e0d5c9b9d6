//! A plan on the road on the wire: its dial, its cold pressures, and whether the wing covers it.

use fitment::judgement::case::Case;
use fitment::judgement::coverage::{self, Covered, ReadBeside};
use fitment::judgement::rules::pressure::CasePressure;
use fitment::road::dial::{self, dial, per_100_km};
use fitment::setup::Axle;
use fitment::{Length, Tire};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::AxleCode;
use super::ledger::StandingCode;

/// How far the lip stands outside the fitted wheel, level, beside the top of the arch; below zero the wheel stands beyond.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct WingSheet {
    /// 30° ahead of the wheel's center.
    #[serde(default)]
    pub ahead_mm: Option<f64>,
    /// 50° behind it.
    #[serde(default)]
    pub behind_mm: Option<f64>,
}

/// A shown speed and the true ones.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct ShownView {
    pub shown_kmh: f64,
    pub true_kmh: f64,
    /// By what the computer believes; null while nobody read that.
    pub by_computer_kmh: Option<f64>,
    /// With what the dial was measured to over-read; null while nobody measured that.
    pub measured_kmh: Option<f64>,
}

/// The dial of a plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct DialView {
    /// Which axle the dial was taken to follow.
    pub by_axle: AxleCode,
    /// Overall diameter of the reference there.
    pub reference_mm: f64,
    /// Overall diameter of the plan there.
    pub planned_mm: f64,
    /// At the speeds on metric signs.
    pub metric: Vec<ShownView>,
    /// On imperial ones.
    pub imperial: Vec<ShownView>,
    /// Kilometres driven for a hundred on the odometer.
    pub per_100_km: f64,
}

/// A cold pressure for what a tire must carry.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct CasePressureView {
    /// What it is set for, in words.
    pub case: &'static str,
    pub load_kg: f64,
    /// Null when the tire is too small for it at any pressure, or not made for the speed.
    pub kpa: Option<f64>,
}

/// Cold pressures of the planned tire on an axle.
#[derive(Debug, Serialize, ToSchema)]
pub struct AxlePressuresView {
    /// Which.
    pub axle: AxleCode,
    /// Why none can be suggested, and what would open it.
    pub none_says: Option<&'static str>,
    /// By what they are set for; empty while the car's record says nothing of it.
    pub cases: Vec<CasePressureView>,
}

pub(super) fn pressures(case: &Case<'_>) -> Vec<AxlePressuresView> {
    let tires = Axle::BOTH.into_iter().filter_map(|axle| Some((axle, case.planned.on(axle)?.tire?)));
    let of = |(axle, tire): (Axle, Tire)| {
        let (none_says, cases) = match case.pressures_by_case(axle, &tire) {
            Ok(cases) => (None, cases),
            Err(why) => (Some(why.says()), Vec::new()),
        };
        let view = |one: CasePressure| CasePressureView {
            case: one.case.words(),
            load_kg: one.load_kg,
            kpa: one.kpa,
        };
        AxlePressuresView { axle: axle.into(), none_says, cases: cases.into_iter().map(view).collect() }
    };
    tires.map(of).collect()
}

/// A place on the arc that a wing is to cover.
#[derive(Debug, Serialize, ToSchema)]
pub struct CoveredView {
    /// In words.
    pub place: &'static str,
    /// How far the lip stands outside the planned wheel; null while nobody read it.
    pub by_mm: Option<f64>,
    /// What that may be off.
    pub plus_minus_mm: f64,
    /// How it stands.
    pub standing: StandingCode,
    /// In a word.
    pub word: &'static str,
}

pub(super) fn covered(case: &Case<'_>, axle: Axle, wing: WingSheet) -> Vec<CoveredView> {
    let beside = ReadBeside {
        ahead: wing.ahead_mm.and_then(Length::from_mm),
        behind: wing.behind_mm.and_then(Length::from_mm),
    };
    let view = |one: Covered| CoveredView {
        place: one.place.words(),
        by_mm: one.by.map(|by| by.as_mm()),
        plus_minus_mm: one.plus_minus.as_mm(),
        standing: one.verdict().severity().into(),
        word: one.word(),
    };
    coverage::coverage(case, axle, beside).map(view).into()
}

impl DialView {
    pub(super) fn new(
        by_axle: AxleCode,
        reference: Length,
        planned: Length,
        believed: Option<Length>,
        over_reads_pct: Option<f64>,
    ) -> Self {
        let (metric, imperial) = dial(reference, planned, believed, over_reads_pct);
        let view = |one: dial::Shown| ShownView {
            shown_kmh: one.shown_kmh,
            true_kmh: one.true_kmh,
            by_computer_kmh: one.by_computer_kmh,
            measured_kmh: one.measured_kmh,
        };
        Self {
            by_axle,
            reference_mm: reference.as_mm(),
            planned_mm: planned.as_mm(),
            metric: metric.map(view).into(),
            imperial: imperial.map(view).into(),
            per_100_km: per_100_km(reference, planned, believed),
        }
    }
}
