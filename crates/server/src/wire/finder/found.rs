//! A setup that was found, with all that must be said of it.

use std::collections::BTreeMap;

use app::JudgingContext;
use app::picked::fields_of;
use exchange::field::Kind;
use exchange::{tires, wheels};
use fitment::Length;
use fitment::car::Fact;
use fitment::catalogue::{Catalogue, PickedParts};
use fitment::finder::{AxleChoice, Criterion, Found, Scene, SearchCriteria, reasons, why_above};
use fitment::lever::PairLevers;
use fitment::rules::mount::{self, Hub, ProblemKind, WheelSide, mount};
use fitment::setup::Axle;
use serde::Serialize;
use store::jobs::JobContent;
use utoipa::ToSchema;

use crate::catalogue::Loaded;
use crate::wire::choose::RETORQUE_KM;
use crate::wire::ledger::{FragmentView, LineOfLedger, SourceView, fragments};
use crate::wire::picked::PickedView;
use crate::wire::supply::PartCount;
use crate::wire::{AxleCode, Lines, PerAxle};

/// A wheel or a tire of a setup, as its list has it.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct PartView {
    /// Its number in the catalogue; null for the owner's own.
    pub row: Option<u32>,
    pub supplier: String,
    pub line: String,
    /// Size as printed.
    pub name: String,
    /// Finish, or kind of tire.
    pub detail: String,
    pub price: Option<f64>,
    pub stock: Option<u32>,
    pub mass_kg: Option<f64>,
}

/// Something that must be ordered with a setup, found out before it, or that stands against it.
#[derive(Debug, Serialize, ToSchema)]
pub struct NeedView {
    /// Which axle; null for the car.
    pub axle: Option<AxleCode>,
    /// `order`, `find_out` or `stop`.
    pub kind: &'static str,
    /// In a sentence.
    pub says: String,
}

/// Work on the car that a setup needs.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::lever::Facts")]
pub struct WorkView {
    pub axle: AxleCode,
    pub lever: &'static str,
    pub title: &'static str,
    pub amount: f64,
    pub in_degrees: bool,
    pub costs: &'static str,
    pub caution: &'static str,
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
    /// Its reasons by the school it was sought in, and cautions.
    pub reasons: Vec<ReasonView>,
    /// Its ledger, without the workings.
    pub ledger: Vec<LineOfLedger>,
    /// Why it stands above the next one; empty for the last.
    pub why_above_next: Vec<FragmentView>,
    /// What stands beside every fastener.
    pub fastener_caution: String,
}

/// Tells of setups that were found.
pub(super) struct Teller<'a> {
    pub content: &'a JobContent,
    pub loaded: &'a Loaded,
    pub context: &'a JudgingContext,
    pub scene: &'a Scene<'a>,
    pub wish: &'a SearchCriteria,
}

impl Teller<'_> {
    pub(super) fn tell(&self, found: &Found, next: Option<&Found>) -> FoundView {
        let setups = found.setups();
        let levers = self.least_work(found);
        let mut state = self.context.state.clone().with_parts(self.parts(found));
        state.levers = levers;
        let plan = self.context.case(&self.content.fitted, &setups, self.content.drive).in_state(state);
        let ledger = plan.ledger().into_iter().map(|line| {
            let mut line = LineOfLedger::from(line);
            line.working.clear();
            line
        });
        let reasons = reasons(self.scene, &self.loaded.catalogue, self.wish, found);
        FoundView {
            lines: Lines::from(&setups),
            score: found.score,
            scores: Criterion::ALL.iter().map(|one| (one.code(), found.scores.of(*one))).collect(),
            price: found.price as f64 / 100.0,
            price_is_whole: found.price_is_whole,
            wheels: PerAxle { front: self.wheel(&found.front), rear: self.wheel(&found.rear) },
            tires: PerAxle { front: self.tire(&found.front), rear: self.tire(&found.rear) },
            parts: parts_to_order(found, &self.loaded.catalogue),
            picked: self.picked(found),
            needs: self.needs(found),
            work: self.work(&levers),
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
            why_above_next: next.map(|next| fragments(why_above(found, next, self.wish))).unwrap_or_default(),
            fastener_caution: mount::retorque_caution(RETORQUE_KM),
        }
    }

    /// The least of the allowed work with which the setup clears; all of it where that cannot be told.
    fn least_work(&self, found: &Found) -> PairLevers {
        let allowed = self.scene.plan.state.levers;
        let own = self.context.case(&self.content.fitted, &self.scene.plan.planned, self.content.drive);
        let least = |axle, choice: &AxleChoice| {
            let trial = own.axle(axle)?;
            trial.least_of(&choice.setup, allowed.on(axle))
        };
        PairLevers {
            front: least(Axle::Front, &found.front).unwrap_or(allowed.front),
            rear: least(Axle::Rear, &found.rear).unwrap_or(allowed.rear),
        }
    }

    /// What is done beyond what the bench has set already.
    fn work(&self, levers: &PairLevers) -> Vec<WorkView> {
        let mut work = Vec::new();
        for axle in Axle::BOTH {
            for (lever, amount) in levers.on(axle).that_are_set() {
                let facts = lever.facts();
                work.push(WorkView {
                    axle: axle.into(),
                    lever: facts.code,
                    title: facts.title,
                    amount,
                    in_degrees: facts.in_degrees,
                    costs: facts.costs,
                    caution: facts.caution,
                });
            }
        }
        work
    }

    fn parts(&self, found: &Found) -> PickedParts {
        let catalogue = &self.loaded.catalogue;
        let both = [&found.front, &found.rear];
        PickedParts {
            wheels: both.iter().filter_map(|one| catalogue.wheels.get(one.wheel_row?).cloned()).collect(),
            tires: both.iter().filter_map(|one| catalogue.tires.get(one.tire_row?).cloned()).collect(),
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
        let row = &self.loaded.catalogue.wheels[at];
        PartView {
            row: Some(row.id),
            supplier: self.loaded.wheel_sources[at].supplier.to_string(),
            line: row.line.to_string(),
            name: row.wheel.to_string(),
            detail: row.finish.to_string(),
            price: row.price.map(|price| f64::from(price) / 100.0),
            stock: row.stock,
            mass_kg: row.mass_kg,
        }
    }

    fn tire(&self, choice: &AxleChoice) -> PartView {
        let Some(at) = choice.tire_row else {
            return own(choice.setup.tire.map(|tire| tire.to_string()), "own tires");
        };
        let row = &self.loaded.catalogue.tires[at];
        PartView {
            row: Some(row.id),
            supplier: self.loaded.tire_sources[at].supplier.to_string(),
            line: row.line.to_string(),
            name: row.tire.to_string(),
            detail: row.kind.map_or(String::new(), |kind| kind.words().to_owned()),
            price: row.price.map(|price| f64::from(price) / 100.0),
            stock: row.stock,
            mass_kg: row.mass_kg,
        }
    }

    fn needs(&self, found: &Found) -> Vec<NeedView> {
        let car = &self.content.measurements.car;
        let mut needs = Vec::new();
        for (axle, choice) in [(Axle::Front, &found.front), (Axle::Rear, &found.rear)] {
            let mut say = |kind, says| needs.push(NeedView { axle: Some(axle.into()), kind, says });
            let fitted = self.content.fitted.on(axle).and_then(|setup| setup.wheel);
            let hub = Hub::of_car(car, axle, fitted.as_ref());
            let row = choice.wheel_row.map(|at| &self.loaded.catalogue.wheels[at]);
            let side = match (row, choice.setup.wheel) {
                (Some(row), _) => WheelSide::of_row(row),
                (None, Some(wheel)) => WheelSide::of_size(&wheel),
                (None, None) => continue,
            };
            if let Some(spacer) = choice.setup.spacer {
                say("order", format!("Two spacers of {} mm.", spacer.as_mm()));
            }
            let fitted_length = car.number(Fact::FastenerLength, None).and_then(Length::from_mm);
            for problem in mount(&hub, &side, choice.setup.spacer, fitted_length).problems {
                // The owner's own wheels are on the car: what holds them is there.
                if row.is_none() && problem.kind == ProblemKind::Unknown {
                    continue;
                }
                let kind = match problem.kind {
                    // Fasteners with the wheel's seat are ordered with it.
                    _ if problem.code == "seat" && problem.kind == ProblemKind::Stop => "order",
                    ProblemKind::Unknown => "find_out",
                    ProblemKind::Mind => "order",
                    ProblemKind::Stop => "stop",
                };
                say(kind, problem.says);
            }
        }
        said_once(needs)
    }
}

/// Two of each row for each axle; a row that is on both is there once, as four.
fn parts_to_order(found: &Found, catalogue: &Catalogue) -> Vec<PartCount> {
    const WHEELS_OF_AN_AXLE: u32 = 2;
    let mut parts: Vec<PartCount> = Vec::new();
    for choice in [&found.front, &found.rear] {
        let wheel = choice.wheel_row.map(|at| (Kind::Wheels, catalogue.wheels[at].id));
        let tire = choice.tire_row.map(|at| (Kind::Tires, catalogue.tires[at].id));
        for (kind, row) in [wheel, tire].into_iter().flatten() {
            match parts.iter_mut().find(|part| part.kind == kind.code() && part.row == row) {
                Some(part) => part.count += WHEELS_OF_AN_AXLE,
                None => parts.push(PartCount { kind: kind.code().to_owned(), row, count: WHEELS_OF_AN_AXLE }),
            }
        }
    }
    parts
}

/// What is said of both axles alike is said once.
fn said_once(needs: Vec<NeedView>) -> Vec<NeedView> {
    let mut once: Vec<NeedView> = Vec::new();
    for need in needs {
        match once.iter_mut().find(|other| other.says == need.says) {
            Some(other) => other.axle = None,
            None => once.push(need),
        }
    }
    once
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
