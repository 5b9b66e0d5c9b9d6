//! Classes of like rows: what stands in one place and measures alike is worked out once, however many rows the lists have.

use std::collections::BTreeMap;

use rustc_hash::FxHashMap;
use std::hash::Hash;

use super::SearchCriteria;
use super::criteria;
use super::filters::{Filter, InForce, tire_may, wheel_may};
use super::options::{Row, points};
use super::requirements::Requirements;
use super::stock::Stock;
use crate::judgement::case::AxleCase;
use crate::judgement::rules::mix::Nature;
use crate::parts::tire::{Size, Tire};
use crate::parts::wheel::Wheel;
use crate::setup::catalogue::WheelRow;
use crate::setup::{Hundredths, Listed, ListedTire, Setup};
use crate::values::codes::{BoltCircle, Offset, RimDiameter, RimWidth};
use crate::values::length::Length;

/// Like wheels: one size and offset.
pub(super) struct WheelClass {
    pub(super) wheel: Wheel,
    /// Width over the flanges, as listed.
    pub(super) overall_width: Option<Hundredths>,
    /// Line of the first of them. Where the inside of a line's wheel was measured, that line is a class of its own.
    pub(super) line: Box<str>,
    pub(super) rows: Vec<Row>,
}

/// Like tires: one size, and the same measures on their lists.
pub(super) struct TireClass {
    pub(super) size: Size,
    pub(super) listed: ListedTire,
    pub(super) rows: Vec<u32>,
}

impl TireClass {
    /// One of them on a wheel of a class, with what their lists say.
    pub(super) fn on(&self, class: &WheelClass, wheel: Wheel) -> Setup {
        Setup {
            wheel: Some(wheel),
            tire: Some(Tire::plain(self.size)),
            listed: Listed { tire: self.listed, wheel_overall_width: class.overall_width },
            ..Setup::default()
        }
    }
}

/// Line names as numbers by axle, and the dearest prices.
pub(super) struct Lines {
    pub(super) wheels: [Vec<u32>; 2],
    pub(super) tires: [Vec<u32>; 2],
    pub(super) dearest_wheel: u32,
    pub(super) dearest_tire: u32,
}

impl Lines {
    pub(super) fn of(stock: &Stock<'_>) -> Self {
        fn interned<N: Eq + Hash>(names: impl Iterator<Item = N>) -> Vec<u32> {
            let mut known: FxHashMap<N, u32> = FxHashMap::default();
            names
                .map(|name| {
                    let next = known.len() as u32;
                    *known.entry(name).or_insert(next)
                })
                .collect()
        }
        // Both axles choose from one list, which is numbered once. The owner's own are one line; so both are numbered alike.
        let both = |same: bool, [front, rear]: [&dyn Fn() -> Vec<u32>; 2]| {
            let front = front();
            let rear = if same { front.clone() } else { rear() };
            [front, rear]
        };
        // A set is of one line and one finish: silver in front and black behind is nobody's order.
        let wheels = |axle: usize| interned(stock.wheels[axle].iter().map(|row| (&*row.line, &*row.finish)));
        let tires = |axle: usize| interned(stock.tires[axle].iter().map(|row| &*row.line));
        Self {
            wheels: both(std::ptr::eq(stock.wheels[0], stock.wheels[1]), [&|| wheels(0), &|| wheels(1)]),
            tires: both(std::ptr::eq(stock.tires[0], stock.tires[1]), [&|| tires(0), &|| tires(1)]),
            dearest_wheel: stock.dearest_wheel,
            dearest_tire: stock.dearest_tire,
        }
    }
}

pub(super) fn wheel_classes(
    trial: &AxleCase<'_>,
    asks: &Requirements,
    stock: &Stock<'_>,
    wish: &SearchCriteria,
    force: InForce,
    axle: usize,
    lines: &Lines,
) -> Vec<WheelClass> {
    type Class = (RimDiameter, RimWidth, Offset, Option<Hundredths>, Option<u32>);
    let mut classes: BTreeMap<Class, WheelClass> = BTreeMap::new();
    let circles = CirclesByBit::of(stock);
    for (at, row) in stock.wheels[axle].iter().enumerate() {
        let Some(offset) = row.wheel.offset else { continue };
        if !wheel_may(row, axle, asks, wish, force) {
            continue;
        }
        let wheel = row.wheel.placed();
        let overall_width = row.overall_width.and_then(Hundredths::of);
        let line = trial.evidence.has_inside_of(&wheel, &row.line).then_some(lines.wheels[axle][at]);
        let class =
            classes.entry((wheel.diameter, wheel.width, offset, overall_width, line)).or_insert_with(|| {
                WheelClass { wheel, overall_width, line: (*row.line).into(), rows: Vec::new() }
            });
        class.rows.push(Row {
            at: at as u32,
            id: row.id,
            line: lines.wheels[axle][at],
            points: points(criteria::of_wheel(row, lines.dearest_wheel, &wish.weights)),
            price: row.price.unwrap_or(0),
            circles: circles.bits(row),
            may_be_rotated: force.holds(Filter::WheelLoad, || asks.rating_is_enough_when_rotated(row)),
            nature: None,
        });
    }
    classes.into_values().collect()
}

/// The bolt circles of a stock as bits, so that two wheels' can be held together at once.
pub(super) struct CirclesByBit(Vec<BoltCircle>);

impl CirclesByBit {
    /// More circles than bits are not told apart: such wheels count as drilled for any.
    pub(super) fn of(stock: &Stock<'_>) -> Self {
        let mut known: Vec<BoltCircle> = Vec::new();
        for circle in stock.wheels.iter().flat_map(|rows| rows.iter()).flat_map(WheelRow::circles) {
            if !known.contains(&circle) && known.len() < 64 {
                known.push(circle);
            }
        }
        Self(known)
    }

    /// A row's circles; all of them for a row that names none.
    pub(super) fn bits(&self, row: &WheelRow) -> u64 {
        let bit = |circle| self.0.iter().position(|known| *known == circle).map_or(u64::MAX, |at| 1 << at);
        row.circles().map(bit).reduce(|a, b| a | b).unwrap_or(u64::MAX)
    }
}

/// Tire classes of an axle, by rim code: those whose overall diameter is inside the house limit.
pub(super) fn tire_classes(
    asks: &Requirements,
    stock: &Stock<'_>,
    wish: &SearchCriteria,
    force: InForce,
    axle: usize,
) -> FxHashMap<RimDiameter, Vec<TireClass>> {
    let mut of: FxHashMap<(Size, ListedTire), Option<usize>> = FxHashMap::default();
    let mut classes: FxHashMap<RimDiameter, Vec<TireClass>> = FxHashMap::default();
    for (at, row) in stock.tires[axle].iter().enumerate() {
        if !tire_may(row, axle, asks, wish, force) {
            continue;
        }
        let (size, listed) = (row.tire.size, row.listed());
        let place = *of.entry((size, listed)).or_insert_with(|| {
            let diameter = row.alone().overall_diameter().unwrap_or(Length::ZERO);
            let inside = force.holds(Filter::Diameter, || asks.diameter_is_inside(axle, diameter));
            inside.then(|| {
                let on = classes.entry(size.rim()).or_default();
                on.push(TireClass { size, listed, rows: Vec::new() });
                on.len() - 1
            })
        });
        if let Some(class) = place.and_then(|place| classes.get_mut(&size.rim())?.get_mut(place)) {
            class.rows.push(at as u32);
        }
    }
    classes
}

/// The tires of a class with their points on a rim.
pub(super) fn tire_rows_on(
    stock: &Stock<'_>,
    axle: usize,
    class: &TireClass,
    width: RimWidth,
    wish: &SearchCriteria,
    lines: &Lines,
) -> Vec<Row> {
    let hard = wish.is_driven_hard();
    let row_of = |at: &u32| {
        let row = stock.tires[axle].get(*at as usize)?;
        Some(Row {
            at: *at,
            id: row.id,
            line: lines.tires[axle][*at as usize],
            points: points(criteria::of_tire(row, width, lines.dearest_tire, hard, &wish.weights)),
            price: row.price.unwrap_or(0),
            circles: u64::MAX,
            may_be_rotated: true,
            nature: Some(Nature::of(&row.tire, row.kind)),
        })
    };
    class.rows.iter().filter_map(row_of).collect()
}
