//! A setup that was found, with all that must be said of it.

use std::collections::BTreeMap;

use app::finder::{FoundSetup, Need, NeedKind};
use app::picked::fields_of;
use exchange::field::Kind;
use exchange::{tires, wheels};
use fitment::answers::finder::{AxleChoice, Criterion, Found};
use fitment::car::lever::PairLevers;
use fitment::judgement::rules::mount;
use serde::Serialize;
use utoipa::ToSchema;

use crate::wire::choose::RETORQUE_KM;
use crate::wire::corner::{LeverAmount, WorkView, work_of};
use crate::wire::drawing::Drawing;
use crate::wire::ledger::StandingCode;
use crate::wire::ledger::{FragmentView, LineOfLedger, SourceView, fragments};
use crate::wire::measured::levers_view;
use crate::wire::picked::{PartView, PickedView};
use crate::wire::supply::PartCount;
use crate::wire::{AxleCode, Lines, PerAxle};
use app::catalogue::Loaded;

/// Something that must be ordered with a setup, found out before it, or that stands against it.
#[derive(Debug, Serialize, ToSchema)]
pub struct NeedView {
    /// Which axle; null for the car.
    pub axle: Option<AxleCode>,
    /// `order`, `find_out` or `stop`.
    pub kind: &'static str,
    /// How it stands.
    pub standing: StandingCode,
    /// In a sentence.
    pub says: String,
}

/// A reason for a setup, or a caution about it.
#[derive(Debug, Serialize, ToSchema)]
pub struct ReasonView {
    /// Which axle; null for both.
    pub axle: Option<AxleCode>,
    /// In a sentence.
    pub says: Vec<FragmentView>,
    /// Whether it is a caution.
    pub is_caution: bool,
    /// Where the rule comes from.
    pub source: SourceView,
}

/// A setup that was found.
#[derive(Debug, Serialize, ToSchema)]
pub struct FoundView {
    /// Its setup lines.
    pub lines: Lines,
    /// `square`, `staggered`, or square with other spacers front and rear, in words.
    pub arrangement: &'static str,
    /// 0 to 1.
    pub score: f64,
    /// Score by criterion, 0 to 1.
    pub scores: BTreeMap<&'static str, f64>,
    /// The set's price, as far as its rows have one.
    pub price: f64,
    /// Whether every row has a price.
    pub price_is_whole: bool,
    /// The wheels.
    pub wheels: PerAxle<PartView>,
    /// The tires.
    pub tires: PerAxle<PartView>,
    /// The rows of the lists it takes, and how many of each for the four wheels: what a supplier is asked for.
    pub parts: Vec<PartCount>,
    /// The rows of the lists it is made of, to be kept with the job.
    pub picked: Vec<PickedView>,
    /// What must be ordered with it or found out first: rings, bolts, spacers, seats.
    pub needs: Vec<NeedView>,
    /// Work on the car that it needs of what is allowed.
    pub work: Vec<WorkView>,
    /// The same as it is set on the bench.
    pub levers: PerAxle<Vec<LeverAmount>>,
    /// Its reasons by the school it was sought in, and cautions.
    pub reasons: Vec<ReasonView>,
    /// Its ledger, without the workings.
    pub ledger: Vec<LineOfLedger>,
    /// Why it stands above the next one; empty for the last.
    pub why_above_next: Vec<FragmentView>,
    /// The same sizes in other designs and finishes of wheel, best first.
    pub designs: Vec<DesignView>,
    /// Its corners, to be drawn.
    pub drawings: PerAxle<Option<Drawing>>,
    /// What stands beside every fastener.
    pub fastener_caution: String,
}

/// A setup's sizes in another design or finish of wheel.
#[derive(Debug, Serialize, ToSchema)]
pub struct DesignView {
    /// Its setup lines.
    pub lines: Lines,
    /// 0 to 1.
    pub score: f64,
    /// The set's price, as far as its rows have one.
    pub price: f64,
    /// Whether every row has a price.
    pub price_is_whole: bool,
    /// The wheels.
    pub wheels: PerAxle<PartView>,
    /// The rows of the lists it is made of, to be kept with the job.
    pub picked: Vec<PickedView>,
    /// Work on the car that it needs of what is allowed, as it is set on the bench.
    pub levers: PerAxle<Vec<LeverAmount>>,
}

/// Shows setups that were found.
pub(super) struct Shown<'a> {
    pub loaded: &'a Loaded,
}

impl Shown<'_> {
    pub(super) fn view(&self, setup: FoundSetup) -> FoundView {
        let FoundSetup { found, levers, ledger, needs, to_order, reasons, why_above_next, designs } = setup;
        let ledger = ledger.into_iter().map(|line| {
            let mut line = LineOfLedger::from(line);
            line.working.clear();
            line
        });
        FoundView {
            lines: Lines::from(&found.setups()),
            arrangement: found.setups().arrangement_words().unwrap_or_default(),
            score: found.score,
            scores: Criterion::ALL.iter().map(|one| (one.code(), found.scores.of(*one))).collect(),
            price: found.price as f64 / 100.0,
            price_is_whole: found.price_is_whole,
            wheels: PerAxle { front: self.wheel(&found.front), rear: self.wheel(&found.rear) },
            tires: PerAxle { front: self.tire(&found.front), rear: self.tire(&found.rear) },
            parts: to_order.into_iter().map(PartCount::from).collect(),
            picked: self.picked(&found),
            needs: needs.into_iter().map(NeedView::from).collect(),
            work: work_of(&levers),
            levers: levers_view(&levers),
            reasons: reasons
                .into_iter()
                .map(|reason| ReasonView {
                    axle: reason.axle.map(AxleCode::from),
                    says: fragments(reason.says),
                    is_caution: reason.is_caution,
                    source: reason.source.into(),
                })
                .collect(),
            ledger: ledger.collect(),
            why_above_next: why_above_next.map(fragments).unwrap_or_default(),
            designs: designs.iter().map(|(one, levers)| self.design(one, levers)).collect(),
            drawings: PerAxle {
                front: Drawing::new(&found.front.setup),
                rear: Drawing::new(&found.rear.setup),
            },
            fastener_caution: mount::retorque_caution(RETORQUE_KM),
        }
    }

    fn design(&self, found: &Found, levers: &PairLevers) -> DesignView {
        DesignView {
            lines: Lines::from(&found.setups()),
            score: found.score,
            price: found.price as f64 / 100.0,
            price_is_whole: found.price_is_whole,
            wheels: PerAxle { front: self.wheel(&found.front), rear: self.wheel(&found.rear) },
            picked: self.picked(found),
            levers: levers_view(levers),
        }
    }

    fn picked(&self, found: &Found) -> Vec<PickedView> {
        let loaded = self.loaded;
        let mut picked: Vec<PickedView> = Vec::new();
        let mut add = |kind: Kind, row: i64, supplier: &str, record| {
            if picked.iter().all(|one| (one.kind.as_str(), one.row) != (kind.code(), row)) {
                let supplier = supplier.to_owned();
                picked.push(PickedView { kind: kind.code().to_owned(), row, supplier, record });
            }
        };
        for choice in [&found.front, &found.rear] {
            if let Some(at) = choice.wheel_row {
                let row = &loaded.catalogue.wheels[at];
                let record = fields_of(&wheels::record(row));
                add(Kind::Wheels, i64::from(row.id), &loaded.wheel_sources[at].supplier, record);
            }
            if let Some(at) = choice.tire_row {
                let row = &loaded.catalogue.tires[at];
                let record = fields_of(&tires::record(row));
                add(Kind::Tires, i64::from(row.id), &loaded.tire_sources[at].supplier, record);
            }
        }
        picked
    }

    fn wheel(&self, choice: &AxleChoice) -> PartView {
        let Some(at) = choice.wheel_row else {
            return own(choice.setup.wheel.map(|wheel| wheel.to_string()), "own wheels");
        };
        PartView::of_wheel(&self.loaded.catalogue.wheels[at], &self.loaded.wheel_sources[at].supplier)
    }

    fn tire(&self, choice: &AxleChoice) -> PartView {
        let Some(at) = choice.tire_row else {
            return own(choice.setup.tire.map(|tire| tire.to_string()), "own tires");
        };
        PartView::of_tire(&self.loaded.catalogue.tires[at], &self.loaded.tire_sources[at].supplier)
    }
}

impl From<Need> for NeedView {
    fn from(need: Need) -> Self {
        let kind = match need.kind {
            NeedKind::Order => "order",
            NeedKind::FindOut => "find_out",
            NeedKind::Stop => "stop",
        };
        let standing = need.kind.severity().into();
        Self { axle: need.axle.map(AxleCode::from), kind, standing, says: need.says }
    }
}

fn own(name: Option<String>, line: &str) -> PartView {
    PartView {
        row: None,
        supplier: String::new(),
        line: line.to_owned(),
        name: name.unwrap_or_default(),
        detail: "stay".to_owned(),
        price: Some(0.0),
        stock: None,
        mass_kg: None,
    }
}
