//! What a setup is ranked by, in words.

use crate::judgement::rules::tread_width as tread_width_rule;
use crate::values::coded::coded;
use crate::values::working::Source;

/// A criterion.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Criterion {
    /// Room to what was measured.
    Fit,
    /// Overall diameter against the reference tire.
    Diameter,
    /// Front against rear.
    Ratio,
    /// Distance from the wanted style.
    Style,
    /// Tread width against rim width.
    TreadWidth,
    /// Width for the car's weight.
    HeatWidth,
    /// Mass of wheel and tire.
    Mass,
    /// Price.
    Price,
    /// Stock.
    Availability,
}

coded!(Criterion:
    Fit = "fit",
    Diameter = "diameter",
    Ratio = "ratio",
    Style = "style",
    TreadWidth = "tread_width",
    HeatWidth = "heat_width",
    Mass = "mass",
    Price = "price",
    Availability = "availability",
);

impl Criterion {
    /// Its name.
    pub fn title(self) -> &'static str {
        match self {
            Self::Fit => "room on the car",
            Self::Diameter => "overall diameter",
            Self::Ratio => "front against rear",
            Self::Style => "style",
            Self::TreadWidth => "tread on its rim",
            Self::HeatWidth => "width for the weight",
            Self::Mass => "mass",
            Self::Price => "price",
            Self::Availability => "stock",
        }
    }

    /// Its rule in a sentence.
    pub fn rule(self) -> &'static str {
        match self {
            Self::Fit => {
                "millimetres of offset to the nearer edge of the fit window, 10 and more counting full; a side nobody measured counts half, less by what the wheel comes nearer there"
            }
            Self::Diameter => "change of overall diameter against the house limit",
            Self::Ratio => "drift of the front-to-rear diameter ratio against the house limit for this drive",
            Self::Style => "millimetres of offset from the wanted style, 15 counting nothing",
            Self::TreadWidth => {
                "the rim within half an inch of the measuring rim; driven hard, a listed tread between rim width − ½ in and rim width; an inch outside counts nothing"
            }
            Self::HeatWidth => {
                "section width against the factory's on that axle: the car's weight asks for about that much"
            }
            Self::Mass => "mass of one wheel and one tire, 30 kg together counting nothing",
            Self::Price => "price of one wheel and one tire against the dearest there are",
            Self::Availability => "a full set on the list as in stock",
        }
    }

    /// Where the rule comes from.
    pub fn source(self) -> Source {
        match self {
            Self::Fit | Self::Style => Source::GEOMETRY,
            Self::Diameter | Self::Ratio => crate::car::limits::HouseLimits::SOURCE,
            Self::TreadWidth => tread_width_rule::SOURCE,
            Self::HeatWidth => Source::estimate("the factory's width for the weight; a judgement of ours"),
            Self::Mass | Self::Price | Self::Availability => Source::estimate("the price list's figure"),
        }
    }
}
