//! A setup that was found, with its rows and scores.

use super::criteria::{self, Scores};
use super::criterion::Criterion;
use super::options::{PairOfRows, Points, Row};
use super::side::Candidate;
use super::stock::Stock;
use super::{KeptParts, SearchCriteria};
use crate::setup::catalogue::{TireRow, WheelRow};
use crate::setup::{Hundredths, Listed, Setup, SetupPair};

/// One axle of a setup that was found.
#[derive(Debug, Clone, PartialEq)]
pub struct AxleChoice {
    /// The setup.
    pub setup: Setup,
    /// Which of the catalogue's rows the wheel is; `None` for the owner's own.
    pub wheel_row: Option<usize>,
    /// Which of the catalogue's rows the tire is; `None` for the owner's own.
    pub tire_row: Option<usize>,
}

/// A setup that was found.
#[derive(Debug, Clone, PartialEq)]
pub struct Found {
    /// Front axle.
    pub front: AxleChoice,
    /// Rear axle.
    pub rear: AxleChoice,
    /// 0 to 1: the weighted mean of the scores.
    pub score: f64,
    /// Score by criterion.
    pub scores: Scores,
    /// Price of the set in hundredths of the shop's money; rows without a price count nothing in it.
    pub price: u64,
    /// Whether every row has a price.
    pub price_is_whole: bool,
}

impl Found {
    /// Both axles.
    pub fn setups(&self) -> SetupPair {
        SetupPair { front: Some(self.front.setup), rear: Some(self.rear.setup) }
    }
}

/// A setup with its rows and its scores by criterion.
pub(super) fn into_found(
    stock: &Stock<'_>,
    wish: &SearchCriteria,
    total: Points,
    places: (&Candidate, &Candidate),
    ratio: f64,
    wheels: &PairOfRows,
    tires: &PairOfRows,
) -> Found {
    let mut scores = Scores::default();
    let mean = |of: &dyn Fn(&Candidate) -> f64| f64::midpoint(of(places.0), of(places.1));
    for one in [Criterion::Fit, Criterion::Style, Criterion::Diameter, Criterion::HeatWidth] {
        scores.set(one, mean(&|candidate| candidate.scores.of(one)));
    }
    scores.set(Criterion::Ratio, ratio);
    let wheel = |axle: usize, row: &Row| &stock.wheels[axle][row.at as usize];
    let tire = |axle: usize, row: &Row| &stock.tires[axle][row.at as usize];
    let four = |of_wheel: &dyn Fn(&WheelRow) -> f64, of_tire: &dyn Fn(&TireRow) -> f64| {
        (of_wheel(wheel(0, &wheels.front))
            + of_wheel(wheel(1, &wheels.rear))
            + of_tire(tire(0, &tires.front))
            + of_tire(tire(1, &tires.rear)))
            / 4.0
    };
    scores.set(Criterion::Mass, four(&|row| criteria::mass(row.mass_kg), &|row| criteria::mass(row.mass_kg)));
    scores.set(
        Criterion::Price,
        four(&|row| criteria::price(row.price, stock.dearest_wheel), &|row| {
            criteria::price(row.price, stock.dearest_tire)
        }),
    );
    scores.set(
        Criterion::Availability,
        four(&|row| criteria::stock(row.stock), &|row| criteria::stock(row.stock)),
    );
    let on = |axle, tire_row: &Row, wheel_row: &Row| {
        let width = wheel(axle, wheel_row).wheel.width;
        criteria::tread_width(&tire(axle, tire_row).alone(), width, wish.is_driven_hard())
    };
    scores.set(
        Criterion::TreadWidth,
        f64::midpoint(on(0, &tires.front, &wheels.front), on(1, &tires.rear, &wheels.rear)),
    );
    let choice = |axle, place: &Candidate, wheel_row: &Row, tire_row: &Row| AxleChoice {
        setup: Setup {
            wheel: Some(wheel(axle, wheel_row).wheel),
            tire: Some(tire(axle, tire_row).tire),
            spacer: place.spacer,
            date_code: None,
            listed: Listed {
                tire: tire(axle, tire_row).listed(),
                wheel_overall_width: wheel(axle, wheel_row).overall_width.and_then(Hundredths::of),
            },
        },
        wheel_row: (wish.keeps != KeptParts::Wheels).then_some(wheel_row.at as usize),
        tire_row: (wish.keeps != KeptParts::Tires).then_some(tire_row.at as usize),
    };
    let price_is_whole = [(0, &wheels.front), (1, &wheels.rear)]
        .into_iter()
        .all(|(axle, row)| wheel(axle, row).price.is_some())
        && [(0, &tires.front), (1, &tires.rear)]
            .into_iter()
            .all(|(axle, row)| tire(axle, row).price.is_some());
    Found {
        front: choice(0, places.0, &wheels.front, &tires.front),
        rear: choice(1, places.1, &wheels.rear, &tires.rear),
        score: total as f64 / (2.0 * wish.weights.total() * 4_294_967_296.0),
        scores,
        price: wheels.price() + tires.price(),
        price_is_whole,
    }
}
