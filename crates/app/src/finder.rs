//! The finder asked for a job: setups with all that must be said of each.

use exchange::field::Kind;
use fitment::Length;
use fitment::answers::finder::{
    AxleChoice, Found, Obstruction, Reason, Scene, SearchCriteria, find, reasons, why_above,
};
use fitment::answers::ledger::Line;
use fitment::answers::remedies::least_of;
use fitment::car::lever::PairLevers;
use fitment::car::{Car, Fact};
use fitment::judgement::case::CarState;
use fitment::judgement::rules::Severity;
use fitment::judgement::rules::mount::{Hub, MountingPart, ProblemKind, WheelSide, mount};
use fitment::setup::catalogue::{Catalogue, PickedParts};
use fitment::setup::{Axle, SetupPair};
use fitment::values::working::Phrase;
use rayon::prelude::*;
use store::jobs::JobContent;

use crate::JudgingContext;

/// What a search comes to.
#[derive(Debug)]
pub struct SearchAnswer {
    /// The best setups, best first.
    pub setups: Vec<FoundSetup>,
    /// When there are none: what stands most in the way.
    pub obstruction: Option<Obstruction>,
    /// Whether a tire among them is stickier than the factory's: questions for the owner come first.
    pub is_sticky: bool,
    /// Wheels and tires that pass what does not depend on each other, front and rear.
    pub passing: [(usize, usize); 2],
    /// Facts of the car that decide what can be bolted on, and are not known.
    pub asks_first: Vec<Fact>,
}

/// A setup that was found, with all that must be said of it.
#[derive(Debug)]
pub struct FoundSetup {
    /// As the finder has it.
    pub found: Found,
    /// What is done to the car for it: the least of what is allowed with which it clears.
    pub levers: PairLevers,
    /// Its ledger.
    pub ledger: Vec<Line>,
    /// What must be ordered with it, or found out before.
    pub needs: Vec<Need>,
    /// Rows to order for all four wheels.
    pub to_order: Vec<ToOrder>,
    /// Its reasons, and cautions.
    pub reasons: Vec<Reason>,
    /// Why it stands above the next one; `None` for the last.
    pub why_above_next: Option<Phrase>,
    /// The same sizes in other designs and finishes, best first, each with the work that it needs.
    pub designs: Vec<(Found, PairLevers)>,
}

/// Something that must be ordered with a setup, found out before it, or that stands against it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Need {
    /// Which axle; `None` for the car.
    pub axle: Option<Axle>,
    /// What is to be done about it.
    pub kind: NeedKind,
    /// In a sentence.
    pub says: String,
}

/// What is to be done about a need.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs, reason = "by their names")]
pub enum NeedKind {
    Order,
    FindOut,
    Stop,
}

impl NeedKind {
    /// How it stands.
    pub fn severity(self) -> Severity {
        match self {
            Self::Order => Severity::Mind,
            Self::FindOut => Severity::Unknown,
            Self::Stop => Severity::Stop,
        }
    }
}

/// How many of a row of the lists.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct ToOrder {
    /// Wheels or tires.
    pub kind: Kind,
    /// The row's number.
    pub row: u32,
    /// How many.
    pub count: u32,
}

/// Searches for a job's car; `allowed` is the work on it that is allowed, when that is not the bench's.
pub fn search(
    content: &JobContent,
    catalogue: &Catalogue,
    wish: &SearchCriteria,
    allowed: Option<PairLevers>,
    context: &JudgingContext,
) -> SearchAnswer {
    let nothing = SetupPair::default();
    let mut state = CarState::clone(&context.state);
    state.levers = allowed.unwrap_or(state.levers);
    let plan = context.case_in(state, &content.fitted, &nothing, content.drive);
    let scene = Scene { plan: &plan };
    let outcome = find(&scene, catalogue, wish);
    let is_sticky = outcome.found.iter().any(|found| {
        [&found.front, &found.rear].into_iter().any(|choice| {
            let row = choice.tire_row.and_then(|at| catalogue.tires.get(at));
            row.and_then(|row| row.kind).is_some_and(|kind| kind.is_stickier_than_factory())
        })
    });
    let told = Telling { content, catalogue, context, scene: &scene, wish };
    let each = (0..outcome.found.len()).into_par_iter();
    let setups = each.map(|at| told.of(&outcome.found, at, &outcome.designs[at])).collect();
    let car = &content.measurements.car;
    let asks_first = ask_first(&content.fitted, car);
    SearchAnswer { setups, obstruction: outcome.obstruction, is_sticky, passing: outcome.rows, asks_first }
}

/// What must be known of a car before anything is ordered for it: from its record, or from the wheel that is on it.
fn ask_first(fitted: &SetupPair, car: &Car) -> Vec<Fact> {
    let wheels: Vec<_> = Axle::BOTH.iter().filter_map(|axle| fitted.on(*axle)?.wheel).collect();
    let mut asks = Vec::new();
    if car.value(Fact::BoltCircle, None).is_none() && wheels.iter().all(|wheel| wheel.bolt_circle.is_none()) {
        asks.push(Fact::BoltCircle);
    }
    let knows_hub = Axle::BOTH.iter().any(|axle| car.value(Fact::HubBore, Some(*axle)).is_some());
    if !knows_hub && wheels.iter().all(|wheel| wheel.center_bore.is_none()) {
        asks.push(Fact::HubBore);
    }
    asks
}

/// What is needed to tell of a setup.
struct Telling<'a> {
    content: &'a JobContent,
    catalogue: &'a Catalogue,
    context: &'a JudgingContext,
    scene: &'a Scene<'a>,
    wish: &'a SearchCriteria,
}

impl Telling<'_> {
    fn of(&self, all: &[Found], at: usize, designs: &[Found]) -> FoundSetup {
        let found = &all[at];
        let setups = found.setups();
        let levers = self.least_work(found);
        let mut state = CarState::clone(&self.context.state).with_parts(self.parts(found));
        state.levers = levers;
        let plan = self.context.case_in(state, &self.content.fitted, &setups, self.content.drive);
        FoundSetup {
            levers,
            ledger: plan.ledger(),
            needs: self.needs(found),
            to_order: to_order(found, self.catalogue),
            reasons: reasons(self.scene, self.catalogue, self.wish, found),
            why_above_next: all.get(at + 1).map(|next| why_above(found, next, self.wish)),
            designs: designs.iter().map(|one| (one.clone(), self.least_work(one))).collect(),
            found: found.clone(),
        }
    }

    /// The least of the allowed work with which the setup clears; all of it where that cannot be told.
    fn least_work(&self, found: &Found) -> PairLevers {
        let allowed = self.scene.plan.state.levers;
        let own = self.context.case(&self.content.fitted, &self.scene.plan.planned, self.content.drive);
        let least = |axle, choice: &AxleChoice| least_of(&own.axle(axle)?, &choice.setup, allowed.on(axle));
        PairLevers {
            front: least(Axle::Front, &found.front).unwrap_or(allowed.front),
            rear: least(Axle::Rear, &found.rear).unwrap_or(allowed.rear),
        }
    }

    fn parts(&self, found: &Found) -> PickedParts {
        let Catalogue { wheels, tires, .. } = self.catalogue;
        let both = [&found.front, &found.rear];
        PickedParts {
            wheels: both.iter().filter_map(|one| wheels.get(one.wheel_row?).cloned()).collect(),
            tires: both.iter().filter_map(|one| tires.get(one.tire_row?).cloned()).collect(),
        }
    }

    fn needs(&self, found: &Found) -> Vec<Need> {
        let car = &self.content.measurements.car;
        let mut needs = Vec::new();
        for (axle, choice) in [(Axle::Front, &found.front), (Axle::Rear, &found.rear)] {
            let mut say = |kind, says| needs.push(Need { axle: Some(axle), kind, says });
            let fitted = self.content.fitted.on(axle).and_then(|setup| setup.wheel);
            let hub = Hub::of_car(car, axle, fitted.as_ref());
            let row = choice.wheel_row.map(|at| &self.catalogue.wheels[at]);
            let side = match (row, choice.setup.wheel) {
                (Some(row), _) => WheelSide::of_row(row),
                (None, Some(wheel)) => WheelSide::of_size(&wheel),
                (None, None) => continue,
            };
            if let Some(spacer) = choice.setup.spacer {
                say(NeedKind::Order, format!("Two spacers of {} mm.", spacer.as_mm()));
            }
            let fitted_length = car.number(Fact::FastenerLength, None).and_then(Length::from_mm);
            for problem in mount(&hub, &side, choice.setup.spacer, fitted_length).problems {
                // The owner's own wheels are on the car: what holds them is there.
                if row.is_none() && problem.kind == ProblemKind::Unknown {
                    continue;
                }
                let kind = match problem.kind {
                    // Fasteners with the wheel's seat are ordered with it.
                    _ if problem.code == MountingPart::Seat && problem.kind == ProblemKind::Stop => {
                        NeedKind::Order
                    }
                    ProblemKind::Unknown => NeedKind::FindOut,
                    ProblemKind::Mind => NeedKind::Order,
                    ProblemKind::Stop => NeedKind::Stop,
                };
                say(kind, problem.says);
            }
        }
        said_once(needs)
    }
}

/// Two of each row for each axle; a row that is on both is there once, as four.
fn to_order(found: &Found, catalogue: &Catalogue) -> Vec<ToOrder> {
    const WHEELS_OF_AN_AXLE: u32 = 2;
    let mut parts: Vec<ToOrder> = Vec::new();
    for choice in [&found.front, &found.rear] {
        let wheel = choice.wheel_row.map(|at| (Kind::Wheels, catalogue.wheels[at].id));
        let tire = choice.tire_row.map(|at| (Kind::Tires, catalogue.tires[at].id));
        for (kind, row) in [wheel, tire].into_iter().flatten() {
            match parts.iter_mut().find(|part| (part.kind, part.row) == (kind, row)) {
                Some(part) => part.count += WHEELS_OF_AN_AXLE,
                None => parts.push(ToOrder { kind, row, count: WHEELS_OF_AN_AXLE }),
            }
        }
    }
    parts
}

/// What is said of both axles alike is said once.
fn said_once(needs: Vec<Need>) -> Vec<Need> {
    let mut once: Vec<Need> = Vec::new();
    for need in needs {
        match once.iter_mut().find(|other| other.says == need.says) {
            Some(other) => other.axle = None,
            None => once.push(need),
        }
    }
    once
}
