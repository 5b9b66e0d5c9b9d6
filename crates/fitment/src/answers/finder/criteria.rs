//! How a setup scores by each criterion: each from 0 to 1; 1 is best.
//!
//! What is not known scores in the middle, so that silence neither wins nor loses.

use super::criterion::Criterion;
use crate::judgement::rules::tread_width::{self as tread_width_rule, HALF_INCH};
use crate::judgement::window::WidthWindow;
use crate::setup::Setup;
use crate::setup::catalogue::{TireRow, WheelRow};
use crate::values::codes::RimWidth;
use crate::values::length::Length;

/// A score for each criterion, 0 to 1.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Scores(pub [f64; Criterion::ALL.len()]);

impl Scores {
    /// One criterion's.
    pub fn of(&self, criterion: Criterion) -> f64 {
        self.0[criterion as usize]
    }

    /// Sets one.
    pub fn set(&mut self, criterion: Criterion, score: f64) {
        self.0[criterion as usize] = score;
    }
}

/// What is not known scores so.
pub const UNKNOWN: f64 = 0.5;

fn clamped(score: f64) -> f64 {
    score.clamp(0.0, 1.0)
}

/// Room of a full score, in millimetres of offset.
const FULL_ROOM_MM: f64 = 10.0;
/// On a side nobody measured, coming nearer by this much counts nothing.
const NEARER_COUNTS_NOTHING_MM: f64 = 30.0;

/// Room on the car: the worse of both sides.
///
/// `nearer` is how much nearer than the fitted wheel it comes, inboard and outboard, in millimetres.
pub fn fit(window: &WidthWindow, offset_mm: f64, nearer: (f64, f64)) -> f64 {
    let side = |room: Option<f64>, nearer: f64| match room {
        Some(room) => clamped(room / FULL_ROOM_MM),
        None => clamped(UNKNOWN - nearer.max(0.0) / NEARER_COUNTS_NOTHING_MM * UNKNOWN),
    };
    let inboard = side(window.most.map(|edge| edge.offset_mm - offset_mm), nearer.0);
    let outboard = side(window.least.map(|edge| offset_mm - edge.offset_mm), nearer.1);
    inboard.min(outboard)
}

/// Overall diameter: change against the limit, both in per cent.
pub fn diameter(change_pct: f64, limit_pct: f64) -> f64 {
    if limit_pct <= 0.0 { 0.0 } else { clamped(1.0 - change_pct.abs() / limit_pct) }
}

/// Style: how far the offset is from those that give it, 15 mm counting nothing. Without a wish all are alike.
pub fn style(window: &WidthWindow, offset_mm: f64) -> f64 {
    let Some((least, most)) = window.wanted else { return UNKNOWN };
    let under = least.map_or(0.0, |least| (least - offset_mm).max(0.0));
    let over = most.map_or(0.0, |most| (offset_mm - most).max(0.0));
    clamped(1.0 - under.max(over) / 15.0)
}

/// Tread on its rim: as the rule has it, an inch beyond what it calls right counting nothing. Driven hard, a listed tread is
/// held between the rim's width and half an inch less; an estimate never is.
pub fn tread_width(setup: &Setup, rim: RimWidth, is_driven_hard: bool) -> f64 {
    let hard = is_driven_hard.then(|| tread_width_rule::beyond_for_hard_driving(setup, rim)).flatten();
    let off = match hard {
        Some(beyond) => beyond.abs(),
        None => match setup.measuring_rim() {
            Some(measuring) => {
                ((measuring.between_flanges() - rim.between_flanges()).abs() - HALF_INCH).max(Length::ZERO)
            }
            None => return UNKNOWN,
        },
    };
    clamped(1.0 - off.as_mm() / 25.4)
}

/// Width for the weight: section width against the factory's, a third off counting nothing.
pub fn heat_width(section: Length, factory: Option<Length>) -> f64 {
    match factory {
        Some(factory) if factory.as_mm() > 0.0 => clamped(1.0 - ((section / factory) - 1.0).abs() * 3.0),
        _ => UNKNOWN,
    }
}

/// Mass of one wheel or one tire, 15 kg counting nothing.
pub fn mass(kg: Option<f64>) -> f64 {
    kg.map_or(UNKNOWN, |kg| clamped(1.0 - kg / 15.0))
}

/// Price of one, against the dearest there is.
pub fn price(price: Option<u32>, dearest: u32) -> f64 {
    price.map_or(UNKNOWN, |price| clamped(1.0 - f64::from(price) / f64::from(dearest.max(1))))
}

/// Stock: two are wanted for an axle, four for a set.
pub fn stock(count: Option<u32>) -> f64 {
    match count {
        None => UNKNOWN,
        Some(0) => 0.0,
        Some(1) => 0.25,
        Some(2..=3) => 0.75,
        Some(_) => 1.0,
    }
}

/// A wheel row's own scores, as a weighted sum.
pub fn of_wheel(row: &WheelRow, dearest: u32, weights: &super::Weights) -> f64 {
    half(weights, mass(row.mass_kg), price(row.price, dearest), stock(row.stock))
}

/// A tire row's own scores on a rim, as a weighted sum.
pub fn of_tire(
    row: &TireRow,
    rim: RimWidth,
    dearest: u32,
    is_driven_hard: bool,
    weights: &super::Weights,
) -> f64 {
    half(weights, mass(row.mass_kg), price(row.price, dearest), stock(row.stock))
        + weights.on(Criterion::TreadWidth) * tread_width(&row.alone(), rim, is_driven_hard)
}

/// Wheel and tire each make half of what both are scored by.
fn half(weights: &super::Weights, mass: f64, price: f64, stock: f64) -> f64 {
    (weights.on(Criterion::Mass) * mass
        + weights.on(Criterion::Price) * price
        + weights.on(Criterion::Availability) * stock)
        / 2.0
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn tread_scores_as_the_rule_has_it() {
        // 8.5 in is 215.9 mm: driven hard 203.2 to 215.9 is right, 25.4 mm outside counts nothing. The measuring rim of
        // 245/40R18 is 8.5 (ISO 4000-1, memory): else half an inch round it is right.
        let on = |tread: Option<f64>, rim: f64, hard| {
            let mut row = crate::setup::catalogue::picked::tests::tire_row("245/40R18");
            row.tread_width = tread.and_then(Length::from_mm);
            tread_width(&row.alone(), RimWidth::from_code(rim).unwrap(), hard)
        };
        for (tread, score) in [(203.2, 1.0), (215.9, 1.0), (241.3, 0.0), (177.8, 0.0), (228.6, 0.5)] {
            assert!((on(Some(tread), 8.5, true) - score).abs() < 1e-9, "{tread}");
            assert_eq!(on(Some(tread), 8.5, false), 1.0, "{tread}");
        }
        for (rim, score) in [(8.0, 1.0), (9.0, 1.0), (9.5, 0.5), (7.5, 0.5)] {
            for hard in [false, true] {
                assert!(
                    (on(None, rim, hard) - score).abs() < 1e-9,
                    "{rim}: an estimate is never held to the hard rule"
                );
            }
        }
    }

    #[test]
    fn silence_scores_in_the_middle() {
        assert_eq!(
            (mass(None), price(None, 100), stock(None), heat_width(Length::mm(225.0), None)),
            (0.5, 0.5, 0.5, 0.5)
        );
    }
}
