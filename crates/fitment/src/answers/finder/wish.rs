//! What is wanted of a setup.

use super::Criterion;
use crate::judgement::club::Class;
use crate::setup::catalogue::{Season, Use};
use crate::setup::spacers;
use crate::values::coded::coded;
use crate::values::codes::RimDiameter;

/// From where one starts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Approach {
    /// Pick use and tire, then the wheel that carries it: performance.
    #[default]
    TireFirst,
    /// Pick style and wheel from the window, then the tire that stands square on it: looks.
    WheelFirst,
}

coded!(Approach: TireFirst = "tire_first", WheelFirst = "wheel_first");

impl Approach {
    /// In the trade's words.
    pub fn words(self) -> &'static str {
        match self {
            Self::TireFirst => "the tire: performance",
            Self::WheelFirst => "the wheel: looks",
        }
    }
}

/// Square, staggered, or whichever comes out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Arrangements {
    /// Either.
    #[default]
    Either,
    /// The same on both axles.
    Square,
    /// Different.
    Staggered,
    /// Square, unless the factory's set is staggered or nothing square fits.
    TypicalGaps,
}

coded!(Arrangements: Either = "either", Square = "square", Staggered = "staggered", TypicalGaps = "usual");

impl Arrangements {
    /// In the trade's words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Either => "square or staggered",
            Self::Square => "square",
            Self::Staggered => "staggered",
            Self::TypicalGaps => "square, unless factory or room ask for stagger",
        }
    }
}

/// What of the fitted set stays: it is not bought, and not changed between the axles.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum KeptParts {
    /// Nothing.
    #[default]
    Nothing,
    /// The fitted wheels.
    Wheels,
    /// The fitted tires.
    Tires,
}

coded!(KeptParts: Nothing = "nothing", Wheels = "wheels", Tires = "tires");

impl KeptParts {
    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Nothing => "nothing of the fitted set",
            Self::Wheels => "the fitted wheels",
            Self::Tires => "the fitted tires",
        }
    }
}

/// How much each criterion counts. Only their ratios matter.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weights([f64; Criterion::ALL.len()]);

impl Weights {
    /// Most a weight can be.
    pub const MOST: f64 = 10.0;

    /// What a school starts with. Judgements of ours: the advisor moves them.
    pub fn of(school: Approach) -> Self {
        let weigh = |criterion| match (school, criterion) {
            (_, Criterion::Fit) => 4.0,
            (Approach::TireFirst, Criterion::TreadWidth) => 3.0,
            (Approach::TireFirst, Criterion::HeatWidth) => 3.0,
            (Approach::TireFirst, Criterion::Mass) => 2.0,
            (Approach::TireFirst, Criterion::Style) => 0.5,
            (Approach::WheelFirst, Criterion::Style) => 8.0,
            (Approach::WheelFirst, Criterion::TreadWidth) => 1.0,
            (Approach::WheelFirst, Criterion::HeatWidth) => 0.5,
            (Approach::WheelFirst, Criterion::Mass) => 0.5,
            (_, Criterion::Diameter) => 2.0,
            (_, Criterion::Ratio) => 2.0,
            (_, Criterion::Price) => 1.0,
            // What is not there cannot be sold: a set out of stock stands behind a good one that is.
            (_, Criterion::Availability) => 4.0,
        };
        let mut weights = [0.0; Criterion::ALL.len()];
        for (at, criterion) in Criterion::ALL.iter().enumerate() {
            weights[at] = weigh(*criterion);
        }
        Self(weights)
    }

    /// One weight.
    pub fn on(&self, criterion: Criterion) -> f64 {
        self.0[criterion as usize]
    }

    /// The same with one weight moved; out of 0…[`Self::MOST`] it is left as it was.
    #[must_use]
    pub fn with(mut self, criterion: Criterion, weight: f64) -> Self {
        if (0.0..=Self::MOST).contains(&weight) {
            self.0[criterion as usize] = weight;
        }
        self
    }

    /// All of them together; never zero, so that it can be divided by.
    pub fn total(&self) -> f64 {
        let total: f64 = self.0.iter().sum();
        if total > 0.0 { total } else { 1.0 }
    }
}

/// What is wanted.
#[derive(Debug, Clone, PartialEq)]
pub struct SearchCriteria {
    /// From where one starts.
    pub approach: Approach,
    /// What the car is used for: a tire must answer every one.
    pub uses: Vec<Use>,
    /// When it is driven; `None` when it does not matter.
    pub season: Option<Season>,
    /// What of the fitted set the owner keeps.
    pub keeps: KeptParts,
    /// Square or staggered.
    pub arrangements: Arrangements,
    /// Whether front and rear rims may differ in diameter.
    pub mixed_diameters: bool,
    /// Smallest and largest rim code.
    pub rims: (RimDiameter, RimDiameter),
    /// The same for the rear axle, when it is to be another.
    pub rear_rims: Option<(RimDiameter, RimDiameter)>,
    /// Most that the set may cost, in hundredths of the shop's money.
    pub budget: Option<u32>,
    /// Thickest spacer, in millimetres; 0 for none.
    pub thickest_spacer_mm: f64,
    /// Only this line of wheels.
    pub wheel_line: Option<String>,
    /// Only this line of tires.
    pub tire_line: Option<String>,
    /// The class that it must be legal in.
    pub class: Option<Class>,
    /// How much each criterion counts.
    pub weights: Weights,
    /// How many setups are wanted.
    pub count: usize,
}

impl SearchCriteria {
    /// Rim codes that are searched while nobody says which: all that price lists have for passenger cars.
    pub const RIMS_IN: (f64, f64) = (13.0, 24.0);
    /// Rim codes that a wish starts from, to be moved. Judgement of ours.
    pub const USUAL_RIMS_IN: (f64, f64) = (15.0, 20.0);
    /// Thickest spacer that can be asked for, in millimetres.
    pub const THICKEST_SPACER_MM: f64 = spacers::THICKEST_MM as f64;

    /// Rim codes that an axle may have: 0 front, 1 rear.
    pub fn rims_on(&self, axle: usize) -> std::ops::RangeInclusive<RimDiameter> {
        let (least, most) = self.rear_rims.filter(|_| axle == 1).unwrap_or(self.rims);
        least..=most
    }

    /// Driven hard: from the tire, for the track or a canyon road.
    pub fn is_driven_hard(&self) -> bool {
        self.approach == Approach::TireFirst && self.uses.iter().any(|wanted| wanted.is_hard())
    }
}
