//! The finder, on the wire.

use std::collections::BTreeMap;

use fitment::choose::catalogue::{STICKY_QUESTIONS, Use};
use fitment::choose::finder::{
    Arrangements, AxleChoice, Criterion, Found, Needs, Scene, School, Weights, Wish, find, why_above,
};
use fitment::hub::{self, Hub, Seat, WheelSide, mount};
use fitment::ledger::Plan;
use fitment::setup::Axle;
use fitment::{CenterBore, Length, RimDiameter, SetupPair};
use serde::{Deserialize, Serialize};
use store::jobs::Job;
use utoipa::ToSchema;

use super::bench::Ground;
use super::corner::{choices, coded};
use super::ledger::{FragmentView, LineOfLedger, SourceView, fragments};
use super::read::Reading;
use super::{Lines, PerAxle};
use crate::catalogue::Loaded;
use crate::problem::ApiError;

/// What is sought.
#[derive(Debug, Default, Deserialize, ToSchema)]
pub struct FinderRequest {
    /// `tire_first` (default) or `wheel_first`.
    #[serde(default)]
    pub school: Option<String>,
    /// What the car is used for; a tire must answer every one.
    #[serde(default)]
    pub uses: Vec<String>,
    /// `either` (default), `square` or `staggered`.
    #[serde(default)]
    pub arrangement: Option<String>,
    /// Whether front and rear rims may differ in diameter.
    #[serde(default)]
    pub mixed_diameters: bool,
    /// Smallest rim code; 13 when left out.
    #[serde(default)]
    pub rim_min_in: Option<f64>,
    /// Largest rim code; 24 when left out.
    #[serde(default)]
    pub rim_max_in: Option<f64>,
    /// Most that the set may cost.
    #[serde(default)]
    pub budget: Option<f64>,
    /// Thickest spacer; none when left out.
    #[serde(default)]
    pub thickest_spacer_mm: f64,
    /// Only this line of wheels.
    #[serde(default)]
    pub wheel_line: Option<String>,
    /// Only this line of tires.
    #[serde(default)]
    pub tire_line: Option<String>,
    /// Weights other than the school's, by criterion, 0 to 10.
    #[serde(default)]
    pub weights: BTreeMap<String, f64>,
    /// How many setups; 12 when left out.
    #[serde(default)]
    pub count: Option<usize>,
}

const MOST_SETUPS: usize = 50;

impl FinderRequest {
    /// Into the core's wish.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn read(&self) -> Result<Wish, ApiError> {
        let mut reading = Reading::default();
        let school = match self.school.as_deref() {
            None | Some("tire_first") => School::TireFirst,
            Some("wheel_first") => School::WheelFirst,
            Some(other) => {
                reading.fault("/school", format!("{other:?} is not tire_first or wheel_first"));
                School::TireFirst
            }
        };
        let arrangements = match self.arrangement.as_deref() {
            None | Some("either") => Arrangements::Either,
            Some("square") => Arrangements::Square,
            Some("staggered") => Arrangements::Staggered,
            Some(other) => {
                reading.fault("/arrangement", format!("{other:?} is not either, square or staggered"));
                Arrangements::Either
            }
        };
        let uses = self
            .uses
            .iter()
            .enumerate()
            .filter_map(|(at, code)| {
                coded(&mut reading, &format!("/uses/{at}"), code, Use::from_code(code), choices!(Use))
            })
            .collect();
        let mut rim = |pointer: &str, code: Option<f64>, usual: f64| {
            let code = code.unwrap_or(usual);
            let rim = RimDiameter::from_code(code);
            if rim.is_none() {
                reading.fault(pointer, format!("{code} is not a rim code from 10 to 26"));
            }
            rim
        };
        let rims = rim("/rim_min_in", self.rim_min_in, 13.0).zip(rim("/rim_max_in", self.rim_max_in, 24.0));
        let budget = self.budget.map(|budget| {
            if !(0.0..=1_000_000.0).contains(&budget) {
                reading.fault("/budget", format!("a budget goes from 0 to 1 000 000, not {budget}"));
            }
            (budget * 100.0).round() as u32
        });
        if !(0.0..=30.0).contains(&self.thickest_spacer_mm) {
            reading.fault("/thickest_spacer_mm", "a spacer of up to 30 mm is worth a thought");
        }
        let mut weights = Weights::of(school);
        for (code, weight) in &self.weights {
            let pointer = format!("/weights/{code}");
            let criterion =
                coded(&mut reading, &pointer, code, Criterion::from_code(code), choices!(Criterion));
            if !(0.0..=Weights::MOST).contains(weight) {
                reading.fault(&pointer, format!("a weight goes from 0 to {}", Weights::MOST));
            } else if let Some(criterion) = criterion {
                weights = weights.with(criterion, *weight);
            }
        }
        let count = self.count.unwrap_or(12);
        if count > MOST_SETUPS {
            reading.fault("/count", format!("more than {MOST_SETUPS} setups are not listed"));
        }
        let rims = reading.finish_with(rims, "/rim_min_in", "is not a rim code")?;
        Ok(Wish {
            school,
            uses,
            arrangements,
            mixed_diameters: self.mixed_diameters,
            rims,
            budget,
            thickest_spacer_mm: self.thickest_spacer_mm,
            wheel_line: self.wheel_line.clone().filter(|line| !line.is_empty()),
            tire_line: self.tire_line.clone().filter(|line| !line.is_empty()),
            weights,
            count,
        })
    }
}

/// A wheel or a tire of a setup, as its list has it.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct PartView {
    pub id: u32,
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
    /// What must be ordered with it or found out first: rings, bolts, spacers, seats.
    pub parts: Vec<String>,
    /// Its ledger, without the workings.
    pub ledger: Vec<LineOfLedger>,
    /// Why it stands above the next one; empty for the last.
    pub why_above_next: Vec<FragmentView>,
}

/// What stands most in the way when nothing was found.
#[derive(Debug, Serialize, ToSchema)]
pub struct ObstructionView {
    /// Its code.
    pub code: &'static str,
    /// Its name.
    pub title: &'static str,
    /// What would open it.
    pub opens: &'static str,
    /// The best setup without it; not to be ordered as it is.
    pub lines: Lines,
}

/// A criterion and how much it counted.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::choose::finder::criteria")]
pub struct CriterionView {
    pub code: &'static str,
    pub title: &'static str,
    pub rule: &'static str,
    pub source: SourceView,
    pub weight: f64,
}

/// What must be gone through with the owner.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "code and words")]
pub struct QuestionView {
    pub code: &'static str,
    pub asks: &'static str,
}

/// Rows of one axle.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "counts")]
pub struct Passing {
    pub wheels: usize,
    pub tires: usize,
}

/// What the finder found.
#[derive(Debug, Serialize, ToSchema)]
pub struct FinderView {
    /// The best setups, best first.
    pub setups: Vec<FoundView>,
    /// When there are none: what stands most in the way; null when no single condition does.
    pub obstruction: Option<ObstructionView>,
    /// The criteria with their weights.
    pub criteria: Vec<CriterionView>,
    /// Questions for the owner, when a tire is stickier than the factory's.
    pub questions: Vec<QuestionView>,
    /// Rows in the catalogue.
    pub looked_at: Passing,
    /// Rows that pass what does not depend on each other, front and rear.
    pub passing: PerAxle<Passing>,
    /// What must stand beside every proposal.
    pub caution: &'static str,
}

/// Searches for a job's car.
pub fn search(job: &Job, loaded: &Loaded, wish: &Wish, ground: &Ground) -> FinderView {
    let content = &job.content;
    let nothing = SetupPair::default();
    let plan = Plan::new(&content.fitted, &nothing, content.drive, &ground.limits, Some(ground.today))
        .in_bay(ground.bay.clone());
    let car = &content.measurements.car;
    let scene = Scene { plan: &plan, needs: Needs::of(car, &content.fitted), factory: car.factory() };
    let outcome = find(&scene, &loaded.catalogue, wish);
    let hubs = Axle::BOTH.map(|axle| hub_of(job, axle, &scene.needs));
    let is_sticky = outcome.found.iter().any(|found| {
        [&found.front, &found.rear].into_iter().any(|choice| {
            let kind = loaded.catalogue.tires.get(choice.tire_row).and_then(|row| row.kind);
            kind.is_some_and(|kind| kind.is_stickier_than_factory())
        })
    });
    let setups = outcome
        .found
        .iter()
        .enumerate()
        .map(|(at, found)| {
            let why = outcome.found.get(at + 1).map(|next| fragments(why_above(found, next, wish)));
            found_view(job, loaded, ground, found, &hubs, why.unwrap_or_default())
        })
        .collect();
    FinderView {
        setups,
        obstruction: outcome.obstruction.map(|one| ObstructionView {
            code: one.filter.code(),
            title: one.filter.title(),
            opens: one.filter.opens(),
            lines: Lines::from(&one.best.setups()),
        }),
        criteria: Criterion::ALL
            .iter()
            .map(|one| CriterionView {
                code: one.code(),
                title: one.title(),
                rule: one.rule(),
                source: one.source().into(),
                weight: wish.weights.on(*one),
            })
            .collect(),
        questions: if is_sticky {
            STICKY_QUESTIONS.iter().map(|(code, asks)| QuestionView { code, asks }).collect()
        } else {
            Vec::new()
        },
        looked_at: Passing { wheels: loaded.catalogue.wheels.len(), tires: loaded.catalogue.tires.len() },
        passing: PerAxle {
            front: Passing { wheels: outcome.rows[0].0, tires: outcome.rows[0].1 },
            rear: Passing { wheels: outcome.rows[1].0, tires: outcome.rows[1].1 },
        },
        caution: super::corner::CAUTION,
    }
}

fn hub_of(job: &Job, axle: Axle, needs: &Needs) -> Hub {
    use fitment::car::Fact;
    let car = &job.content.measurements.car;
    Hub {
        bore: car.number(Fact::HubBore, Some(axle)).and_then(CenterBore::from_mm),
        lip: car.number(Fact::HubLip, Some(axle)).and_then(Length::from_mm),
        bolt_circle: needs.bolt_circle,
        thread: car.words(Fact::Thread, None).and_then(|text| text.parse().ok()),
        seat: car.words(Fact::Seat, None).and_then(Seat::read),
    }
}

fn found_view(
    job: &Job,
    loaded: &Loaded,
    ground: &Ground,
    found: &Found,
    hubs: &[Hub; 2],
    why_above_next: Vec<FragmentView>,
) -> FoundView {
    let content = &job.content;
    let setups = found.setups();
    let plan = Plan::new(&content.fitted, &setups, content.drive, &ground.limits, Some(ground.today))
        .in_bay(ground.bay.clone());
    let ledger = plan.ledger().into_iter().map(|line| {
        let mut line = LineOfLedger::from(line);
        line.working.clear();
        line
    });
    let wheel = |choice: &AxleChoice| {
        let row = &loaded.catalogue.wheels[choice.wheel_row];
        PartView {
            id: row.id,
            supplier: loaded.wheel_suppliers[choice.wheel_row].clone(),
            line: row.line.to_string(),
            name: row.wheel.to_string(),
            detail: row.finish.to_string(),
            price: row.price.map(|price| f64::from(price) / 100.0),
            stock: row.stock,
            mass_kg: row.mass_kg,
        }
    };
    let tire = |choice: &AxleChoice| {
        let row = &loaded.catalogue.tires[choice.tire_row];
        PartView {
            id: row.id,
            supplier: loaded.tire_suppliers[choice.tire_row].clone(),
            line: row.line.to_string(),
            name: row.tire.to_string(),
            detail: row.kind.map_or(String::new(), |kind| kind.words().to_owned()),
            price: row.price.map(|price| f64::from(price) / 100.0),
            stock: row.stock,
            mass_kg: row.mass_kg,
        }
    };
    let mut parts: Vec<String> = Vec::new();
    for (name, choice, hub) in [("Front", &found.front, &hubs[0]), ("Rear", &found.rear, &hubs[1])] {
        let row = &loaded.catalogue.wheels[choice.wheel_row];
        let side =
            WheelSide { bore: row.wheel.center_bore, bolt_circles: row.circles().collect(), seat: row.seat };
        let mounting = mount(hub, &side, choice.setup.spacer, None);
        parts.extend(mounting.problems.into_iter().map(|problem| format!("{name}: {}", problem.says)));
    }
    parts.push(hub::retorque_caution(80.0));
    FoundView {
        lines: Lines::from(&setups),
        score: found.score,
        scores: Criterion::ALL.iter().map(|one| (one.code(), found.scores.of(*one))).collect(),
        price: found.price as f64 / 100.0,
        price_is_whole: found.price_is_whole,
        wheels: PerAxle { front: wheel(&found.front), rear: wheel(&found.rear) },
        tires: PerAxle { front: tire(&found.front), rear: tire(&found.rear) },
        parts,
        ledger: ledger.collect(),
        why_above_next,
    }
}
