//! The search: classes of like rows instead of rows, axle by axle, then the two axles together, best first.
//!
//! A bound says how good a setup could be at most; what cannot come among the best is not worked out. Nothing is
//! left out that could: the ranking is the one that trying everything would give.

use crate::judgement::clearance::brake::{brake_rules_out, knows_the_brake};
use crate::judgement::window::{TireChoice, WidthWindow, window_beside_the_brake};
use std::cmp::Reverse;
use std::collections::{BTreeMap, BTreeSet, HashMap};
use std::hash::Hash;

use super::criteria::{self, Scores};
use super::criterion::Criterion;
use super::filters::{Filter, InForce, tire_may, wheel_may};
use super::options::{self, Alike, PairOfRows, Points, Row, pairs, points};
use super::requirements::Requirements;
use super::stock::{Own, Stock};
use super::{Arrangements, KeptParts, SearchCriteria};
use crate::car::limits::Drive;
use crate::car::section::Toward;
use crate::judgement::case::{AxleCase, Case};
use crate::judgement::clearance::MountedSetup;
use crate::judgement::rules::permitted_rim::rim_fit;
use crate::parts::tire::rims::RimFit;
use crate::parts::tire::{Size, Tire};
use crate::parts::wheel::Wheel;
use crate::setup::catalogue::{Catalogue, TireRow, Use, WheelRow};
use crate::setup::spacers::SHELF_MM;
use crate::setup::{Arrangement, Axle, Hundredths, Listed, ListedTire, Setup, SetupPair};
use crate::values::codes::{BoltCircle, Offset, RimDiameter, RimWidth, Spacer};
use crate::values::length::Length;

/// The car a setup is sought for.
#[derive(Debug, Clone, Copy)]
pub struct Scene<'a> {
    /// What is fitted, the house's limits, the drive, and what was measured; its planned setup plays no part.
    pub plan: &'a Case<'a>,
}

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

/// What stands most in the way when nothing is found.
#[derive(Debug, Clone, PartialEq)]
pub struct Obstruction {
    /// The condition without which most would open.
    pub filter: Filter,
    /// The best setup without it; it must not be ordered as it is.
    pub best: Box<Found>,
}

/// What a search came to.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Outcome {
    /// The best setups, best first.
    pub found: Vec<Found>,
    /// For each of them the same sizes in other designs and finishes of wheel, best first.
    pub designs: Vec<Vec<Found>>,
    /// How many wheels and tires pass what does not depend on each other, front and rear.
    pub rows: [(usize, usize); 2],
    /// When nothing was found: what stands most in the way; `None` when no single condition does.
    pub obstruction: Option<Obstruction>,
}

/// Searches the catalogue.
pub fn find(scene: &Scene<'_>, catalogue: &Catalogue, wish: &SearchCriteria) -> Outcome {
    let own = Own::of(&scene.plan.fitted, wish.keeps);
    let stock = own.beside(catalogue);
    let usual = wish.arrangements == Arrangements::TypicalGaps;
    let is_staggered = |pair: SetupPair| pair.arrangement() == Some(Arrangement::Staggered);
    let arrangements = match wish.arrangements {
        Arrangements::TypicalGaps if is_staggered(scene.plan.reference_pair()) => Arrangements::Either,
        Arrangements::TypicalGaps => Arrangements::Square,
        asked => asked,
    };
    let mut wish = SearchCriteria { arrangements, ..wish.clone() };
    if let Some(class) = &wish.class {
        if class.asks_square() {
            wish.arrangements = Arrangements::Square;
        }
        let most = class.thickest_spacer_mm().unwrap_or(wish.thickest_spacer_mm);
        wish.thickest_spacer_mm = wish.thickest_spacer_mm.min(most);
    }
    let mut searched = search(scene, &stock, &wish, InForce(None));
    if usual && searched.found.is_empty() && arrangements == Arrangements::Square {
        // The room asks for stagger.
        wish.arrangements = Arrangements::Either;
        searched = search(scene, &stock, &wish, InForce(None));
    }
    let Searched { found, designs, rows, .. } = searched;
    let obstruction = if found.is_empty() { obstruction(scene, &stock, &wish) } else { None };
    Outcome { found, designs, rows, obstruction }
}

/// The one condition whose absence opens most; of equal ones the first named.
fn obstruction(scene: &Scene<'_>, stock: &Stock<'_>, wish: &SearchCriteria) -> Option<Obstruction> {
    let wish = SearchCriteria { count: 1, ..wish.clone() };
    let mut most: Option<(usize, Obstruction)> = None;
    for filter in Filter::ALL {
        let Searched { found, opened, .. } = search(scene, stock, &wish, InForce(Some(*filter)));
        if let Some(best) = found.into_iter().next()
            && most.as_ref().is_none_or(|(count, _)| opened > *count)
        {
            most = Some((opened, Obstruction { filter: *filter, best: Box::new(best) }));
        }
    }
    most.map(|(_, obstruction)| obstruction)
}

/// Like wheels: one size and offset.
struct WheelClass {
    wheel: Wheel,
    /// Width over the flanges, as listed.
    overall_width: Option<Hundredths>,
    /// Line of the first of them. Where the inside of a line's wheel was measured, that line is a class of its own.
    line: Box<str>,
    rows: Vec<Row>,
}

/// Like tires: one size, and the same measures on their lists.
struct TireClass {
    size: Size,
    listed: ListedTire,
    rows: Vec<u32>,
}

impl TireClass {
    /// One of them on a wheel of a class, with what their lists say.
    fn on(&self, class: &WheelClass, wheel: Wheel) -> Setup {
        Setup {
            wheel: Some(wheel),
            tire: Some(Tire::plain(self.size)),
            listed: Listed { tire: self.listed, wheel_overall_width: class.overall_width },
            ..Setup::default()
        }
    }
}

/// A wheel class with a tire class on one axle, placed.
struct Candidate {
    class: usize,
    /// Which wheel and tire size it is, offset left out: of these only the best is told.
    shape: usize,
    size: Size,
    listed: ListedTire,
    spacer: Option<Spacer>,
    /// Points of the place: room, diameter, style, width.
    place: Points,
    /// Score by criterion, rows left out.
    scores: Scores,
    /// Overall diameter of its tire.
    diameter: Length,
    /// Tire rows that may stand on this rim.
    tires: usize,
}

impl Candidate {
    /// Its sizes, offset left out.
    fn shape_name(&self, wheel: Wheel) -> (RimDiameter, RimWidth, Size) {
        (wheel.diameter, wheel.width, self.size)
    }
}

#[derive(Default)]
struct AxleSide {
    classes: Vec<WheelClass>,
    tire_rows: Vec<Vec<Row>>,
    /// The most points that a row of each can have.
    most_tire: Vec<Points>,
    candidates: Vec<Candidate>,
    rows: (usize, usize),
}

/// What a millimetre of spacer takes off the score of the room: parts are better without.
const SPACER_COSTS: f64 = 0.01;

fn search(scene: &Scene<'_>, stock: &Stock<'_>, wish: &SearchCriteria, force: InForce) -> Searched {
    let lines = Lines::of(stock);
    let asks = Requirements::of(scene.plan);
    let sides = Axle::BOTH.map(|axle| side(scene, &asks, stock, wish, force, axle, &lines));
    let rows = [sides[0].rows, sides[1].rows];
    let opened = sides[0].candidates.len() * sides[1].candidates.len();
    let (found, designs) = pair_axles(scene, &asks, stock, wish, force, &sides);
    Searched { found, designs, rows, opened }
}

/// What a search under some filters came to.
struct Searched {
    found: Vec<Found>,
    designs: Vec<Vec<Found>>,
    rows: [(usize, usize); 2],
    /// How many places on both axles were open.
    opened: usize,
}

/// Line names as numbers by axle, and the dearest prices.
struct Lines {
    wheels: [Vec<u32>; 2],
    tires: [Vec<u32>; 2],
    dearest_wheel: u32,
    dearest_tire: u32,
}

impl Lines {
    fn of(stock: &Stock<'_>) -> Self {
        fn interned<N: Eq + Hash>(names: impl Iterator<Item = N>) -> Vec<u32> {
            let mut known: HashMap<N, u32> = HashMap::new();
            names
                .map(|name| {
                    let next = known.len() as u32;
                    *known.entry(name).or_insert(next)
                })
                .collect()
        }
        // The owner's own are one line; so both axles' rows are numbered alike.
        Self {
            // A set is of one line and one finish: silver in front and black behind is nobody's order.
            wheels: stock.wheels.map(|rows| interned(rows.iter().map(|row| (&*row.line, &*row.finish)))),
            tires: stock.tires.map(|rows| interned(rows.iter().map(|row| &*row.line))),
            dearest_wheel: stock.dearest_wheel,
            dearest_tire: stock.dearest_tire,
        }
    }
}

/// What follows from a tire size on a rim, wherever it stands.
struct OnRim {
    window: WidthWindow,
    /// Reach inboard and outboard of the rim's centre plane, with camber where the body is met.
    reach: (f64, f64),
}

fn side(
    scene: &Scene<'_>,
    asks: &Requirements,
    stock: &Stock<'_>,
    wish: &SearchCriteria,
    force: InForce,
    axle: Axle,
    lines: &Lines,
) -> AxleSide {
    let at = usize::from(axle == Axle::Rear);
    let mut side = AxleSide::default();
    let Some(trial) = scene.plan.axle(axle) else { return side };
    let classes = wheel_classes(&trial, asks, stock, wish, force, at, lines);
    let tires = tire_classes(asks, stock, wish, force, at);
    side.rows = (
        classes.iter().map(|class| class.rows.len()).sum(),
        tires.values().flatten().map(|class| class.rows.len()).sum(),
    );
    let camber = trial.corner.camber() + trial.levers.camber_deg();
    let fitted = MountedSetup::of(trial.fitted, trial.corner.camber());
    let heat_width = Requirements::heat_width(scene.plan, axle);
    let wanted = scene.plan.state.wanted(axle);
    type Shape = (RimDiameter, RimWidth, Option<Hundredths>, usize);
    let mut on_rims: HashMap<Shape, Option<(OnRim, usize)>> = HashMap::new();
    let mut shapes: HashMap<(RimDiameter, RimWidth, Size), usize> = HashMap::new();
    for (class_at, class) in classes.iter().enumerate() {
        let mut brake = OverTheBrake::of(&trial, class, wish.keeps);
        for (tire_at, tires) in tires.get(&class.wheel.diameter).into_iter().flatten().enumerate() {
            let key = (class.wheel.diameter, class.wheel.width, class.overall_width, tire_at);
            let on_rim = on_rims.entry(key).or_insert_with(|| {
                let width = class.wheel.width;
                let setup = tires.on(class, Wheel { offset: Offset::from_mm(0.0), ..class.wheel });
                let may = force.holds(Filter::PermittedRim, || rim_fit(&setup) != Some(RimFit::NotPermitted));
                let rows = if may { tire_rows_on(stock, at, tires, width, wish, lines) } else { Vec::new() };
                if rows.is_empty() {
                    return None;
                }
                let window =
                    window_beside_the_brake(&trial, &setup, TireChoice::Same, &[width], wanted).pop()?;
                let stand = MountedSetup::of(&setup, camber)?;
                let reach = (stand.reach(Toward::Inboard, false), stand.reach(Toward::Outboard, true));
                side.most_tire.push(rows.iter().map(|row| row.points).max().unwrap_or(0));
                side.tire_rows.push(rows);
                Some((OnRim { window, reach }, side.tire_rows.len() - 1))
            });
            let Some((on_rim, rows_at)) = on_rim else { continue };
            let setup = tires.on(class, class.wheel);
            let diameter = setup.overall_diameter().unwrap_or(Length::ZERO);
            let change = asks.change_pct(at, diameter);
            let section = setup.section_width().unwrap_or(Length::ZERO);
            let mut scores = Scores::default();
            scores.set(Criterion::Diameter, criteria::diameter(change, scene.plan.limits.diameter_limit_pct));
            scores.set(Criterion::HeatWidth, criteria::heat_width(section, heat_width));
            let Some(stands) = placed(&class.wheel, on_rim, &mut brake, fitted.as_ref(), wish, force) else {
                continue;
            };
            scores.set(Criterion::Fit, stands.room);
            scores.set(Criterion::Style, stands.style);
            let place = [Criterion::Fit, Criterion::Style, Criterion::Diameter, Criterion::HeatWidth]
                .into_iter()
                .map(|one| points(wish.weights.on(one) * scores.of(one)))
                .sum();
            let next = shapes.len();
            let shape = *shapes.entry((class.wheel.diameter, class.wheel.width, tires.size)).or_insert(next);
            side.candidates.push(Candidate {
                class: class_at,
                shape,
                size: tires.size,
                listed: tires.listed,
                spacer: stands.spacer,
                place,
                scores,
                diameter,
                tires: *rows_at,
            });
        }
    }
    side.classes = classes;
    side
}

/// Which spacers of the shelf a class of wheels goes over the brake with: asked once each.
struct OverTheBrake<'a> {
    trial: &'a AxleCase<'a>,
    wheel: Wheel,
    line: Option<&'a str>,
    is_known: bool,
    asked: [Option<bool>; SHELF_MM.len() + 1],
}

impl<'a> OverTheBrake<'a> {
    fn of(trial: &'a AxleCase<'a>, class: &'a WheelClass, keeps: KeptParts) -> Self {
        let line = (keeps != KeptParts::Wheels).then_some(&*class.line);
        let is_known = knows_the_brake(trial);
        Self { trial, wheel: class.wheel, line, is_known, asked: [None; SHELF_MM.len() + 1] }
    }

    fn goes(&mut self, step: usize, spacer_mm: f64) -> bool {
        let ask = || !brake_rules_out(self.trial, self.wheel, spacer_of(spacer_mm), self.line);
        !self.is_known || *self.asked[step].get_or_insert_with(ask)
    }
}

/// A spacer of the shelf; none of 0 mm.
fn spacer_of(mm: f64) -> Option<Spacer> {
    Spacer::from_mm(mm).filter(|_| mm > 0.0)
}

/// Where a wheel stands best: with which spacer, and its scores for room and style there.
struct BestSpacer {
    spacer: Option<Spacer>,
    room: f64,
    style: f64,
}

/// The spacer with which a wheel stands best; `None` where it does not clear.
fn placed(
    wheel: &Wheel,
    on_rim: &OnRim,
    brake: &mut OverTheBrake<'_>,
    fitted: Option<&MountedSetup>,
    wish: &SearchCriteria,
    force: InForce,
) -> Option<BestSpacer> {
    let offset = wheel.offset?.as_mm();
    let shelf = SHELF_MM.into_iter().filter(|mm| *mm <= wish.thickest_spacer_mm);
    let mut best: Option<(f64, BestSpacer)> = None;
    for (step, spacer) in std::iter::once(0.0).chain(shelf).enumerate() {
        // What matters is where it stands; the window was worked out without a spacer.
        let stands_at = offset - spacer;
        if !force.holds(Filter::Fit, || on_rim.window.clears(stands_at)) {
            continue;
        }
        if !force.holds(Filter::Brake, || brake.goes(step, spacer)) {
            continue;
        }
        let nearer = fitted.map_or((0.0, 0.0), |fitted| {
            (
                on_rim.reach.0 + stands_at - fitted.reach(Toward::Inboard, false),
                on_rim.reach.1 - stands_at - fitted.reach(Toward::Outboard, true),
            )
        });
        let room = (criteria::fit(&on_rim.window, stands_at, nearer) - SPACER_COSTS * spacer).max(0.0);
        let style = criteria::style(&on_rim.window, stands_at);
        let worth = wish.weights.on(Criterion::Fit) * room + wish.weights.on(Criterion::Style) * style;
        if best.as_ref().is_none_or(|(most, _)| worth > *most) {
            best = Some((worth, BestSpacer { spacer: spacer_of(spacer), room, style }));
        }
    }
    best.map(|(_, placed)| placed)
}

fn wheel_classes(
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
        });
    }
    classes.into_values().collect()
}

/// The bolt circles of a stock as bits, so that two wheels' can be held together at once.
struct CirclesByBit(Vec<BoltCircle>);

impl CirclesByBit {
    /// More circles than bits are not told apart: such wheels count as drilled for any.
    fn of(stock: &Stock<'_>) -> Self {
        let mut known: Vec<BoltCircle> = Vec::new();
        for circle in stock.wheels.iter().flat_map(|rows| rows.iter()).flat_map(WheelRow::circles) {
            if !known.contains(&circle) && known.len() < 64 {
                known.push(circle);
            }
        }
        Self(known)
    }

    /// A row's circles; all of them for a row that names none.
    fn bits(&self, row: &WheelRow) -> u64 {
        let bit = |circle| self.0.iter().position(|known| *known == circle).map_or(u64::MAX, |at| 1 << at);
        row.circles().map(bit).reduce(|a, b| a | b).unwrap_or(u64::MAX)
    }
}

/// Tire classes of an axle, by rim code: those whose overall diameter is inside the house limit.
fn tire_classes(
    asks: &Requirements,
    stock: &Stock<'_>,
    wish: &SearchCriteria,
    force: InForce,
    axle: usize,
) -> HashMap<RimDiameter, Vec<TireClass>> {
    let mut of: HashMap<(Size, ListedTire), Option<usize>> = HashMap::new();
    let mut classes: HashMap<RimDiameter, Vec<TireClass>> = HashMap::new();
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
fn tire_rows_on(
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
        })
    };
    class.rows.iter().filter_map(row_of).collect()
}

/// A setup among the best; the better one is the smaller.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
struct Ranked {
    rank: (Reverse<Points>, u64, [u32; 4]),
    at: (usize, usize),
    shape: (usize, usize),
}

/// A setup among the best, with its rows.
type RankedSetup = (Ranked, PairOfRows, PairOfRows);

/// The best setups so far, each pair of sizes once: what differs in its offsets alone is the same proposal.
struct Best {
    most: usize,
    order: BTreeSet<Ranked>,
    by_shape: HashMap<(usize, usize), RankedSetup>,
}

impl Best {
    /// Whether a setup of so many points at most could not come among them.
    fn is_out_of_reach(&self, most: Points) -> bool {
        self.order.len() >= self.most && self.order.last().is_some_and(|worst| most < worst.rank.0.0)
    }

    fn offer(&mut self, ranked: Ranked, wheels: PairOfRows, tires: PairOfRows) {
        if let Some((known, ..)) = self.by_shape.get(&ranked.shape) {
            if *known <= ranked {
                return;
            }
            self.order.remove(known);
        }
        self.order.insert(ranked);
        self.by_shape.insert(ranked.shape, (ranked, wheels, tires));
        if self.order.len() > self.most
            && let Some(worst) = self.order.pop_last()
        {
            self.by_shape.remove(&worst.shape);
        }
    }
}

/// A candidate with the rows that one line of wheels has for it.
struct InLine {
    candidate: usize,
    rows: Vec<Row>,
    /// The most that it can be worth.
    bound: Points,
}

/// One axle's candidates by line of wheels, in each line the best first.
fn by_line(side: &AxleSide, any_lines: bool) -> HashMap<u32, Vec<InLine>> {
    let mut lines: HashMap<u32, Vec<InLine>> = HashMap::new();
    for (at, candidate) in side.candidates.iter().enumerate() {
        let rows = &side.classes[candidate.class].rows;
        let without_wheel = candidate.place + side.most_tire[candidate.tires];
        for row in rows {
            let line = if any_lines { 0 } else { row.line };
            let in_line = lines.entry(line).or_default();
            match in_line.last_mut().filter(|last| last.candidate == at) {
                Some(last) => {
                    last.rows.push(*row);
                    last.bound = last.bound.max(without_wheel + row.points);
                }
                None => in_line.push(InLine {
                    candidate: at,
                    rows: vec![*row],
                    bound: without_wheel + row.points,
                }),
            }
        }
    }
    for in_line in lines.values_mut() {
        in_line.sort_by_key(|one| Reverse(one.bound));
    }
    lines
}

fn pair_axles(
    scene: &Scene<'_>,
    asks: &Requirements,
    stock: &Stock<'_>,
    wish: &SearchCriteria,
    force: InForce,
    sides: &[AxleSide; 2],
) -> (Vec<Found>, Vec<Vec<Found>>) {
    let [front, rear] = sides;
    let ratio_of = |front: Length, rear: Length| {
        let drift = asks.ratio.drift_pct(front, rear);
        let keeps = force.holds(Filter::Ratio, || asks.ratio.allows(drift))
            && force.holds(Filter::Speedometer, || asks.dial_takes(front, rear));
        keeps.then(|| criteria::diameter(drift, asks.ratio.limit_pct))
    };
    // One bolt circle holds all four wheels; where the car's is not known they must at least agree.
    let one_circle = asks.bolt_circle().is_none() && force.0 != Some(Filter::BoltCircle);
    let weigh_ratio = |score: f64| 2 * points(wish.weights.on(Criterion::Ratio) * score);
    let most_ratio = weigh_ratio(1.0);
    let any_lines = force.0 == Some(Filter::Lines);
    // What runs free is another maker's tire than what drives.
    let runs_free = |wanted: &Use| (0..2).any(|axle| asks.runs_free(axle, *wanted));
    let any_tire_lines = any_lines || wish.uses.iter().any(runs_free);
    let budget = wish.budget.filter(|_| force.0 != Some(Filter::Budget));
    let front_stays_narrow =
        wish.arrangements != Arrangements::Staggered || scene.plan.drive != Some(Drive::Front);
    let (front_lines, rear_lines) = (by_line(front, any_lines), by_line(rear, any_lines));
    let mut lines: Vec<(Points, &[InLine], &[InLine])> = front_lines
        .iter()
        .filter_map(|(line, in_front)| {
            let in_rear = rear_lines.get(line)?;
            let most = in_front.first()?.bound + in_rear.first()?.bound + most_ratio;
            Some((most, in_front.as_slice(), in_rear.as_slice()))
        })
        .collect();
    // Which line comes first decides nothing but how soon the rest is out of reach.
    lines.sort_by_key(|(most, in_front, _)| (Reverse(*most), in_front.first().map(|one| one.candidate)));
    let mut best = Best { most: wish.count, order: BTreeSet::new(), by_shape: HashMap::new() };
    let mut tire_pairs: Vec<Option<Vec<PairOfRows>>> =
        vec![None; front.tire_rows.len() * rear.tire_rows.len()];
    for (most, in_front, in_rear) in lines {
        if wish.count == 0 || best.is_out_of_reach(most) {
            break;
        }
        for f_in in in_front {
            let best_rear = in_rear.first().map_or(0, |one| one.bound);
            if best.is_out_of_reach(f_in.bound + best_rear + most_ratio) {
                break;
            }
            let f = &front.candidates[f_in.candidate];
            let f_wheel = front.classes[f.class].wheel;
            for r_in in in_rear {
                if best.is_out_of_reach(f_in.bound + r_in.bound + most_ratio) {
                    break;
                }
                let r = &rear.candidates[r_in.candidate];
                let r_wheel = rear.classes[r.class].wheel;
                let same_wheel = (f_wheel, front.classes[f.class].overall_width)
                    == (r_wheel, rear.classes[r.class].overall_width);
                let same_tire = (f.size, f.listed) == (r.size, r.listed);
                let is_asked_for = force.holds(Filter::Arrangement, || {
                    (wish.mixed_diameters || f_wheel.diameter == r_wheel.diameter)
                        && !(front_stays_narrow && is_narrower_behind(f, r, f_wheel, r_wheel))
                        && match wish.arrangements {
                            Arrangements::Either | Arrangements::TypicalGaps => true,
                            Arrangements::Square => same_wheel && same_tire,
                            // An offset alone makes a set staggered, and is not what anybody asks for.
                            Arrangements::Staggered => f.shape_name(f_wheel) != r.shape_name(r_wheel),
                        }
                });
                if !is_asked_for {
                    continue;
                }
                let Some(ratio) = ratio_of(f.diameter, r.diameter) else { continue };
                let weighed = weigh_ratio(ratio);
                if best.is_out_of_reach(f_in.bound + r_in.bound + weighed) {
                    continue;
                }
                let cell = &mut tire_pairs[f.tires * rear.tire_rows.len() + r.tires];
                let tires = cell.get_or_insert_with(|| {
                    let (front, rear) = (&front.tire_rows[f.tires], &rear.tire_rows[r.tires]);
                    pairs(
                        front,
                        rear,
                        Alike { is_alike: same_tire, ..Alike::default() },
                        any_tire_lines,
                        budget.is_some(),
                    )
                });
                // With its tires known the setup's reach is narrower.
                let Some(most_tires) = tires.iter().map(PairOfRows::points).max() else { continue };
                let place = f.place + r.place + weighed;
                let wheels_at_most = f_in.bound - f.place - front.most_tire[f.tires] + r_in.bound
                    - r.place
                    - rear.most_tire[r.tires];
                if best.is_out_of_reach(place + wheels_at_most + most_tires) {
                    continue;
                }
                let alike = Alike { is_alike: same_wheel, is_rotated: same_wheel && same_tire, one_circle };
                let wheels = pairs(&f_in.rows, &r_in.rows, alike, true, budget.is_some());
                let Some((wheels, tires)) = options::best(&wheels, tires, budget) else { continue };
                let ids = [wheels.front.id, wheels.rear.id, tires.front.id, tires.rear.id];
                let total = place + wheels.points() + tires.points();
                let rank = (Reverse(total), wheels.price() + tires.price(), ids);
                let (at, shape) = ((f_in.candidate, r_in.candidate), (f.shape, r.shape));
                best.offer(Ranked { rank, at, shape }, wheels, tires);
            }
        }
    }
    let told = best.order.iter().filter_map(|ranked| {
        let (_, wheels, tires) = best.by_shape.get(&ranked.shape)?;
        let (f, r) = (&front.candidates[ranked.at.0], &rear.candidates[ranked.at.1]);
        let ratio = ratio_of(f.diameter, r.diameter)?;
        let found = into_found(stock, wish, ranked.rank.0.0, (f, r), ratio, wheels, tires);
        let designs = other_designs(sides, (ranked.at, wheels), one_circle, budget, tires);
        let designs = designs.into_iter().map(|(total, at, rows)| {
            let places = (&front.candidates[at.0], &rear.candidates[at.1]);
            into_found(stock, wish, total + weigh_ratio(ratio), places, ratio, &rows, tires)
        });
        Some((found, designs.collect()))
    });
    told.unzip()
}

/// Designs told beside a setup at most.
const MOST_DESIGNS: usize = 12;

/// The best place and rows of a design, with its points, the ratio left out.
type DesignRows = (Points, (usize, usize), PairOfRows);

/// The same sizes with the same tires in the other designs and finishes that there are, best first: on a setup with like
/// wheels both axles at one offset, as they are there.
fn other_designs(
    sides: &[AxleSide; 2],
    (at, own): ((usize, usize), &PairOfRows),
    one_circle: bool,
    budget: Option<u32>,
    tires: &PairOfRows,
) -> Vec<DesignRows> {
    let [front, rear] = sides;
    let (f_own, r_own) = (&front.candidates[at.0], &rear.candidates[at.1]);
    let wheel_of = |side: &AxleSide, one: &Candidate| {
        let class = &side.classes[one.class];
        (class.wheel, class.overall_width)
    };
    let is_alike = wheel_of(front, f_own) == wheel_of(rear, r_own);
    let is_rotated = is_alike && (f_own.size, f_own.listed) == (r_own.size, r_own.listed);
    let of_size = |side: &'_ AxleSide, own: &Candidate| -> Vec<usize> {
        let alike =
            |one: &Candidate| (one.shape, one.tires, &one.listed) == (own.shape, own.tires, &own.listed);
        (0..side.candidates.len()).filter(|at| alike(&side.candidates[*at])).collect()
    };
    let most_by_line = |side: &AxleSide, at: usize| -> HashMap<u32, Points> {
        let mut most: HashMap<u32, Points> = HashMap::new();
        for row in &side.classes[side.candidates[at].class].rows {
            let known = most.entry(row.line).or_insert(row.points);
            *known = row.points.max(*known);
        }
        most
    };
    let on = |side: &AxleSide, own: &Candidate| -> Vec<(usize, HashMap<u32, Points>)> {
        of_size(side, own).into_iter().map(|at| (at, most_by_line(side, at))).collect()
    };
    let (in_front, behind) = (on(front, f_own), on(rear, r_own));
    // Where each line stands best, by the best row that it has there; only there its rows are paired.
    let mut places: HashMap<u32, (Points, (usize, usize))> = HashMap::new();
    for (f_at, f_most) in &in_front {
        for (r_at, r_most) in &behind {
            let (f, r) = (&front.candidates[*f_at], &rear.candidates[*r_at]);
            if (wheel_of(front, f) == wheel_of(rear, r)) != is_alike {
                continue;
            }
            for (line, points) in f_most.iter().filter(|(line, _)| **line != own.front.line) {
                let Some(behind) = r_most.get(line) else { continue };
                let bound = f.place + r.place + points + behind;
                let better = (bound, Reverse((*f_at, *r_at)));
                if places.get(line).is_none_or(|(most, at)| better > (*most, Reverse(*at))) {
                    places.insert(*line, (bound, (*f_at, *r_at)));
                }
            }
        }
    }
    let alike = Alike { is_alike, is_rotated, one_circle };
    let of_line = |side: &AxleSide, at: usize, line: u32| -> Vec<Row> {
        let rows = side.classes[side.candidates[at].class].rows.iter();
        rows.filter(|row| row.line == line).copied().collect()
    };
    let paired = places.into_iter().filter_map(|(line, (_, (f_at, r_at)))| {
        let rows = (of_line(front, f_at, line), of_line(rear, r_at, line));
        let wheels = pairs(&rows.0, &rows.1, alike, true, budget.is_some());
        let (wheels, _) = options::best(&wheels, std::slice::from_ref(tires), budget)?;
        let place = front.candidates[f_at].place + rear.candidates[r_at].place;
        Some((place + wheels.points() + tires.points(), (f_at, r_at), wheels))
    });
    let mut designs: Vec<DesignRows> = paired.collect();
    designs.sort_by_key(|(total, _, rows)| (Reverse(*total), rows.front.id, rows.rear.id));
    designs.truncate(MOST_DESIGNS);
    designs
}

/// Wider in front than behind. Common practice: only where the front axle drives, and only when it is asked for.
fn is_narrower_behind(front: &Candidate, rear: &Candidate, front_wheel: Wheel, rear_wheel: Wheel) -> bool {
    rear_wheel.width < front_wheel.width || rear.size.named_section_width() < front.size.named_section_width()
}

/// A setup with its rows and its scores by criterion.
fn into_found(
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
