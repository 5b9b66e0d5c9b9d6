//! The finder, on the wire.

mod found;

use app::finder::SearchAnswer;
use std::collections::BTreeMap;

use fitment::RimDiameter;
use fitment::answers::finder::{Approach, Arrangements, Criterion, KeptParts, SearchCriteria, Weights};
use fitment::car::lever::PairLevers;
use fitment::judgement::purpose::ChainClass;
use fitment::records::SearchWish;
use fitment::setup::catalogue::{STICKY_QUESTIONS, Season, Use};
use serde::{Deserialize, Serialize};
use store::documents::{self, Unreadable};
use utoipa::ToSchema;

use super::carried::Carried;
use super::corner::{LeverAmount, choices, coded};
use super::ledger::SourceView;
use super::measured::read_pair_levers;
use super::read::FieldErrors;
use super::{Lines, PerAxle};
use crate::problem::ApiError;
use app::catalogue::Loaded;

pub use found::FoundView;
use found::Shown;

/// What is sought.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FinderRequest {
    /// `tire_first` (default) or `wheel_first`.
    #[serde(default)]
    pub school: Option<String>,
    /// What the car is used for; a tire must answer every one.
    #[serde(default)]
    pub uses: Vec<String>,
    /// `summer`, `winter` or `all_year`; any when left out.
    #[serde(default)]
    pub season: Option<String>,
    /// `wheels` or `tires` of the fitted set that stay; nothing when left out.
    #[serde(default)]
    pub keeps: Option<String>,
    /// Work that is allowed on the car, each lever as far as it may be set; as on the bench when left out.
    #[serde(default)]
    pub allowed: Option<PerAxle<Vec<LeverAmount>>>,
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
    /// Smallest rim code of the rear axle; as in front when both are left out.
    #[serde(default)]
    pub rear_rim_min_in: Option<f64>,
    /// Largest rim code of the rear axle.
    #[serde(default)]
    pub rear_rim_max_in: Option<f64>,
    /// Only what is legal in the class of the job's road and track sheet.
    #[serde(default)]
    pub in_class: bool,
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
    /// Whether the set is carried to the event and never driven on the road.
    #[serde(default)]
    pub carried: bool,
    /// Whether snow chains go on: `false` (default), `true`, or their class, `S` or `U`.
    #[serde(default)]
    pub chains: Chains,
}

/// Snow chains: whether, or of which class.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub enum Chains {
    /// Whether any go on; then of the class that takes the least room.
    Any(bool),
    /// Their class, `S` or `U`.
    Class(String),
}

impl Default for Chains {
    fn default() -> Self {
        Self::Any(false)
    }
}

impl Chains {
    /// Their class; `None` for none.
    ///
    /// # Errors
    /// Another class than there is.
    pub fn class(&self) -> Result<Option<ChainClass>, String> {
        match self {
            Self::Any(false) => Ok(None),
            Self::Any(true) => Ok(Some(ChainClass::default())),
            Self::Class(code) => ChainClass::from_code(code)
                .map(Some)
                .ok_or_else(|| format!("{code:?} is not one of S, U: a class of snow chains")),
        }
    }
}

const MOST_SETUPS: usize = 50;

impl FinderRequest {
    /// As it is kept with a job; faults are noted under `pointer`.
    pub fn kept(&self, errors: &mut FieldErrors, pointer: &str) -> Option<String> {
        if let Err(ApiError::Unprocessable(faults)) = self.read() {
            for fault in faults {
                errors.fault(&format!("{pointer}{}", fault.pointer), fault.detail);
            }
            return None;
        }
        Some(documents::write::<SearchWish>(&self.clone().carried()))
    }

    /// As it was kept.
    ///
    /// # Errors
    /// What stands there and cannot be read.
    pub fn of_kept(text: &str) -> Result<Self, Unreadable> {
        Ok(documents::read::<SearchWish>(text)?.carried())
    }

    /// What is to be searched for. A wish that is still being typed may be kept and not searched for: "20 to 18" is on its way.
    ///
    /// # Errors
    /// As [`Self::read`]; a largest rim that is smaller than the smallest.
    pub fn read_to_search(&self) -> Result<(SearchCriteria, Option<PairLevers>), ApiError> {
        let (wish, allowed) = self.read()?;
        let mut errors = FieldErrors::default();
        for (pointer, rims) in [("/rim_max_in", Some(wish.rims)), ("/rear_rim_max_in", wish.rear_rims)] {
            if let Some((least, most)) = rims.filter(|(least, most)| most.code() < least.code()) {
                let says = format!("the largest rim, {most}, is smaller than the smallest, {least}");
                errors.fault(pointer, says);
            }
        }
        errors.finish((wish, allowed))
    }

    /// Into the core's wish, and the work that is allowed on the car, when it is not that of the bench.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn read(&self) -> Result<(SearchCriteria, Option<PairLevers>), ApiError> {
        let mut errors = FieldErrors::default();
        /// A choice of a plain enum; its default when left out.
        macro_rules! choice {
            ($type:ty, $field:ident, $pointer:literal) => {
                self.$field
                    .as_deref()
                    .and_then(|code| {
                        coded(&mut errors, $pointer, code, <$type>::from_code(code), choices!($type))
                    })
                    .unwrap_or_default()
            };
        }
        let approach = choice!(Approach, school, "/school");
        let arrangements = choice!(Arrangements, arrangement, "/arrangement");
        let keeps = choice!(KeptParts, keeps, "/keeps");
        let uses = self
            .uses
            .iter()
            .enumerate()
            .filter_map(|(at, code)| {
                coded(&mut errors, &format!("/uses/{at}"), code, Use::from_code(code), choices!(Use))
            })
            .collect();
        let season = self
            .season
            .as_deref()
            .and_then(|code| coded(&mut errors, "/season", code, Season::from_code(code), choices!(Season)));
        let allowed = self.allowed.as_ref().map(|levers| read_pair_levers(&mut errors, "/allowed", levers));
        let mut rim_codes = |pointers: [&str; 2], codes: [Option<f64>; 2]| {
            let (smallest, largest) = SearchCriteria::RIMS_IN;
            let codes = [codes[0].unwrap_or(smallest), codes[1].unwrap_or(largest)];
            let [least, most] = [0, 1].map(|end| {
                let rim = RimDiameter::from_code(codes[end]);
                if rim.is_none() {
                    errors.fault(pointers[end], format!("{} is not a rim code from 10 to 26", codes[end]));
                }
                rim
            });
            least.zip(most)
        };
        let rims = rim_codes(["/rim_min_in", "/rim_max_in"], [self.rim_min_in, self.rim_max_in]);
        let of_the_rear = [self.rear_rim_min_in, self.rear_rim_max_in];
        let rear_rims = (of_the_rear != [None, None])
            .then(|| rim_codes(["/rear_rim_min_in", "/rear_rim_max_in"], of_the_rear))
            .flatten();
        let budget = self.budget.map(|budget| {
            if !(0.0..=1_000_000.0).contains(&budget) {
                errors.fault("/budget", format!("a budget goes from 0 to 1 000 000, not {budget}"));
            }
            (budget * 100.0).round() as u32
        });
        let thickest = SearchCriteria::THICKEST_SPACER_MM;
        if !(0.0..=thickest).contains(&self.thickest_spacer_mm) {
            errors.fault("/thickest_spacer_mm", format!("must be 0 to {thickest}"));
        }
        let mut weights = Weights::of(approach);
        for (code, weight) in &self.weights {
            let pointer = format!("/weights/{code}");
            let criterion =
                coded(&mut errors, &pointer, code, Criterion::from_code(code), choices!(Criterion));
            if !(0.0..=Weights::MOST).contains(weight) {
                errors.fault(&pointer, format!("a weight goes from 0 to {}", Weights::MOST));
            } else if let Some(criterion) = criterion {
                weights = weights.with(criterion, *weight);
            }
        }
        if let Err(says) = self.chains.class() {
            errors.fault("/chains", says);
        }
        let count = self.count.unwrap_or(12);
        if count > MOST_SETUPS {
            errors.fault("/count", format!("more than {MOST_SETUPS} setups are not listed"));
        }
        let rims = errors.finish_with(rims, "/rim_min_in", "is not a rim code")?;
        let wish = SearchCriteria {
            approach,
            uses,
            season,
            keeps,
            arrangements,
            mixed_diameters: self.mixed_diameters,
            rims,
            rear_rims,
            class: None,
            budget,
            thickest_spacer_mm: self.thickest_spacer_mm,
            wheel_line: self.wheel_line.clone().filter(|line| !line.is_empty()),
            tire_line: self.tire_line.clone().filter(|line| !line.is_empty()),
            weights,
            count,
        };
        Ok((wish, allowed))
    }
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
#[allow(missing_docs, reason = "see fitment::answers::finder::criteria")]
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
    /// Rows of the price lists that can no longer be read and were left out, by list, in words.
    pub unreadable: Vec<String>,
    /// Rows that pass what does not depend on each other, front and rear.
    pub passing: PerAxle<Passing>,
    /// Facts of the car that decide what can be bolted on, and are not known: they are read before anything is ordered.
    pub asks_first: Vec<AskView>,
    /// What must stand beside every proposal.
    pub caution: &'static str,
}

/// A fact of the car that must be known first.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::car::FactFacts")]
pub struct AskView {
    pub fact: &'static str,
    pub title: &'static str,
    pub note: &'static str,
}

impl FinderView {
    /// What a search came to.
    pub fn new(answer: SearchAnswer, loaded: &Loaded, wish: &SearchCriteria) -> Self {
        let shown = Shown { loaded };
        let passing = |at: usize| Passing { wheels: answer.passing[at].0, tires: answer.passing[at].1 };
        Self {
            passing: PerAxle { front: passing(0), rear: passing(1) },
            setups: answer.setups.into_iter().map(|setup| shown.view(setup)).collect(),
            obstruction: answer.obstruction.map(|one| ObstructionView {
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
            questions: if answer.is_sticky {
                STICKY_QUESTIONS.iter().map(|(code, asks)| QuestionView { code, asks }).collect()
            } else {
                Vec::new()
            },
            looked_at: Passing { wheels: loaded.catalogue.wheels.len(), tires: loaded.catalogue.tires.len() },
            unreadable: loaded.unreadable_in_words(),
            asks_first: answer
                .asks_first
                .iter()
                .map(|fact| {
                    let facts = fact.facts();
                    AskView { fact: facts.code, title: facts.title, note: facts.note }
                })
                .collect(),
            caution: super::corner::CAUTION,
        }
    }
}
