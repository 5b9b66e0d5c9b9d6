//! The search: classes of like rows instead of rows, axle by axle, then the two axles together, best first.
//!
//! A bound says how good a setup could be at most; what cannot come among the best is not worked out. Nothing is
//! left out that could: the ranking is the one that trying everything would give.

use std::cmp::Reverse;
use std::collections::{BTreeMap, BinaryHeap, HashMap};

use super::criteria::{self, Criterion, Scores};
use super::filters::{Filter, InForce, Needs, tire_may, wheel_may};
use super::options::{PairOfRows, Points, Row, best, pairs, points};
use super::{Arrangements, Wish};
use crate::choose::catalogue::Catalogue;
use crate::clearance::{Stand, Trial};
use crate::codes::{Offset, RimDiameter, RimWidth, Spacer};
use crate::ledger::Plan;
use crate::length::Length;
use crate::section::Toward;
use crate::setup::{Axle, Setup, SetupPair};
use crate::tire::dimensions::overall_diameter;
use crate::tire::{Size, Tire};
use crate::wheel::Wheel;
use crate::window::{TireChoice, WidthWindow};
use crate::working::Phrase;

/// The car a setup is sought for.
#[derive(Debug)]
pub struct Scene<'a> {
    /// What is fitted, the house's limits, the drive, and what was measured; its planned setup plays no part.
    pub plan: &'a Plan<'a>,
    /// What the car asks of every wheel and tire.
    pub needs: Needs,
    /// What the factory fitted, where that is known.
    pub factory: SetupPair,
}

/// One axle of a setup that was found.
#[derive(Debug, Clone, PartialEq)]
pub struct AxleChoice {
    /// The setup.
    pub setup: Setup,
    /// Place of the wheel's row in the catalogue.
    pub wheel_row: usize,
    /// Place of the tire's row in the catalogue.
    pub tire_row: usize,
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
    /// How many wheels and tires pass what does not depend on each other, front and rear.
    pub rows: [(usize, usize); 2],
    /// When nothing was found: what stands most in the way; `None` when no single condition does.
    pub obstruction: Option<Obstruction>,
}

/// Searches the catalogue.
pub fn find(scene: &Scene<'_>, catalogue: &Catalogue, wish: &Wish) -> Outcome {
    let (found, rows, _) = search(scene, catalogue, wish, InForce(None));
    let obstruction = if found.is_empty() { obstruction(scene, catalogue, wish) } else { None };
    Outcome { found, rows, obstruction }
}

/// The one condition whose absence opens most; of equal ones the first named.
fn obstruction(scene: &Scene<'_>, catalogue: &Catalogue, wish: &Wish) -> Option<Obstruction> {
    let wish = Wish { count: 1, ..wish.clone() };
    let mut most: Option<(usize, Obstruction)> = None;
    for filter in Filter::ALL {
        let (found, _, opened) = search(scene, catalogue, &wish, InForce(Some(*filter)));
        if let Some(best) = found.into_iter().next()
            && most.as_ref().is_none_or(|(count, _)| opened > *count)
        {
            most = Some((opened, Obstruction { filter: *filter, best: Box::new(best) }));
        }
    }
    most.map(|(_, obstruction)| obstruction)
}

/// Why one setup stands above another: the criteria in which it gains most, and where it loses.
pub fn why_above(above: &Found, below: &Found, wish: &Wish) -> Phrase {
    let mut gains: Vec<(Criterion, f64)> = Criterion::ALL
        .iter()
        .map(|one| (*one, wish.weights.on(*one) * (above.scores.of(*one) - below.scores.of(*one))))
        .collect();
    gains.sort_by(|a, b| b.1.total_cmp(&a.1));
    let worth_saying = wish.weights.total() * 0.005;
    let named = |list: Vec<&(Criterion, f64)>| {
        list.iter().take(2).map(|(one, _)| one.title()).collect::<Vec<_>>().join(" and ")
    };
    let better = named(gains.iter().filter(|(_, gain)| *gain > worth_saying).collect());
    let worse = named(gains.iter().rev().filter(|(_, gain)| *gain < -worth_saying).collect());
    match (better.is_empty(), worse.is_empty()) {
        (true, _) => Phrase::new("Next to nothing lies between them."),
        (false, true) => Phrase::new(format!("Better in {better}.")),
        (false, false) => Phrase::new(format!("Better in {better}, which outweighs {worse}.")),
    }
}

/// Like wheels: one size and offset.
struct WheelClass {
    wheel: Wheel,
    rows: Vec<Row>,
}

/// Like tires: one size.
struct TireClass {
    size: Size,
    rows: Vec<u32>,
}

/// A wheel class with a tire class on one axle, placed.
struct Candidate {
    class: usize,
    size: Size,
    spacer: Option<Spacer>,
    /// Points of the place: room, diameter, style, width.
    place: Points,
    /// Score by criterion, rows left out.
    scores: Scores,
    /// Tire rows that may stand on this rim.
    tires: usize,
    /// The most that its rows can add.
    bound: Points,
}

struct AxleSide {
    classes: Vec<WheelClass>,
    tire_rows: Vec<Vec<Row>>,
    candidates: Vec<Candidate>,
    rows: (usize, usize),
}

/// Spacers that are on the shelf, in millimetres. Common practice.
pub(super) const SPACERS_MM: [f64; 7] = [3.0, 5.0, 8.0, 10.0, 12.0, 15.0, 20.0];
/// What a millimetre of spacer takes off the score of the room: parts are better without.
const SPACER_COSTS: f64 = 0.01;

fn search(
    scene: &Scene<'_>,
    catalogue: &Catalogue,
    wish: &Wish,
    force: InForce,
) -> (Vec<Found>, [(usize, usize); 2], usize) {
    let lines = Lines::of(catalogue);
    let sides = Axle::BOTH.map(|axle| side(scene, catalogue, wish, force, axle, &lines));
    let rows = [sides[0].rows, sides[1].rows];
    let opened = sides[0].candidates.len() * sides[1].candidates.len();
    let found = together(scene, catalogue, wish, force, &sides);
    (found, rows, opened)
}

/// Line names as numbers, and the dearest prices.
struct Lines {
    wheels: Vec<u32>,
    tires: Vec<u32>,
    dearest_wheel: u32,
    dearest_tire: u32,
}

impl Lines {
    fn of(catalogue: &Catalogue) -> Self {
        fn interned<'a>(names: impl Iterator<Item = &'a str>) -> Vec<u32> {
            let mut known: HashMap<&str, u32> = HashMap::new();
            names
                .map(|name| {
                    let next = known.len() as u32;
                    *known.entry(name).or_insert(next)
                })
                .collect()
        }
        Self {
            wheels: interned(catalogue.wheels.iter().map(|row| &*row.line)),
            tires: interned(catalogue.tires.iter().map(|row| &*row.line)),
            dearest_wheel: catalogue.wheels.iter().filter_map(|row| row.price).max().unwrap_or(0),
            dearest_tire: catalogue.tires.iter().filter_map(|row| row.price).max().unwrap_or(0),
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
    catalogue: &Catalogue,
    wish: &Wish,
    force: InForce,
    axle: Axle,
    lines: &Lines,
) -> AxleSide {
    let at = usize::from(axle == Axle::Rear);
    let mut side =
        AxleSide { classes: Vec::new(), tire_rows: Vec::new(), candidates: Vec::new(), rows: (0, 0) };
    let Some(trial) = scene.plan.trial(axle) else { return side };
    let classes = wheel_classes(scene, catalogue, wish, force, at, lines);
    let tires = tire_classes(scene, catalogue, wish, force, at, &trial);
    side.rows = (
        classes.iter().map(|class| class.rows.len()).sum(),
        tires.values().flatten().map(|class| class.rows.len()).sum(),
    );
    let camber = trial.corner.camber() + trial.levers.camber_deg();
    let fitted = Stand::of(trial.fitted, trial.corner.camber());
    let fitted_diameter = trial.fitted.tire.map(|tire| overall_diameter(&tire.size).as_mm());
    let factory = scene.factory.on(axle).or(Some(trial.fitted)).and_then(Setup::section_width);
    let wanted = scene.plan.bay.wanted(axle);
    let mut on_rims: HashMap<(RimDiameter, RimWidth, usize), Option<(OnRim, usize)>> = HashMap::new();
    for (class_at, class) in classes.iter().enumerate() {
        for (tire_at, tires) in tires.get(&class.wheel.diameter).into_iter().flatten().enumerate() {
            let key = (class.wheel.diameter, class.wheel.width, tire_at);
            let on_rim = on_rims.entry(key).or_insert_with(|| {
                let width = class.wheel.width;
                let rows = tire_rows_on(catalogue, tires, width, wish, force, lines);
                if rows.is_empty() {
                    return None;
                }
                let setup = Setup {
                    wheel: Some(Wheel { offset: Offset::from_mm(0.0), ..class.wheel }),
                    tire: Some(Tire::plain(tires.size)),
                    ..Setup::default()
                };
                let window = trial.window(&setup, TireChoice::Same, &[width], wanted).pop()?;
                let stand = Stand::of(&setup, camber)?;
                let reach = (stand.reach(Toward::Inboard, false), stand.reach(Toward::Outboard, true));
                side.tire_rows.push(rows);
                Some((OnRim { window, reach }, side.tire_rows.len() - 1))
            });
            let Some((on_rim, rows_at)) = on_rim else { continue };
            let change = fitted_diameter
                .map_or(0.0, |old| (overall_diameter(&tires.size).as_mm() / old - 1.0) * 100.0);
            let section =
                Setup { wheel: Some(class.wheel), tire: Some(Tire::plain(tires.size)), ..Setup::default() }
                    .section_width()
                    .unwrap_or(Length::ZERO);
            let mut scores = Scores::default();
            scores.set(Criterion::Diameter, criteria::diameter(change, scene.plan.limits.diameter_limit_pct));
            scores.set(Criterion::HeatWidth, criteria::heat_width(section, factory));
            let Some(stands) = placed(&class.wheel, on_rim, fitted.as_ref(), wish, force) else { continue };
            scores.set(Criterion::Fit, stands.room);
            scores.set(Criterion::Style, stands.style);
            let place = [Criterion::Fit, Criterion::Style, Criterion::Diameter, Criterion::HeatWidth]
                .into_iter()
                .map(|one| points(wish.weights.on(one) * scores.of(one)))
                .sum();
            let most = |rows: &[Row]| rows.iter().map(|row| row.points).max().unwrap_or(0);
            side.candidates.push(Candidate {
                class: class_at,
                size: tires.size,
                spacer: stands.spacer,
                place,
                scores,
                tires: *rows_at,
                bound: place + most(&class.rows) + most(&side.tire_rows[*rows_at]),
            });
        }
    }
    side.classes = classes;
    side.candidates.sort_by_key(|candidate| Reverse(candidate.bound));
    side
}

/// Where a wheel stands best: with which spacer, and its scores for room and style there.
struct Placed {
    spacer: Option<Spacer>,
    room: f64,
    style: f64,
}

/// The spacer with which a wheel stands best; `None` where it does not clear.
fn placed(
    wheel: &Wheel,
    on_rim: &OnRim,
    fitted: Option<&Stand>,
    wish: &Wish,
    force: InForce,
) -> Option<Placed> {
    let offset = wheel.offset?.as_mm();
    let shelf = SPACERS_MM.into_iter().filter(|mm| *mm <= wish.thickest_spacer_mm);
    let mut best: Option<(f64, Placed)> = None;
    for spacer in std::iter::once(0.0).chain(shelf) {
        // What matters is where it stands; the window was worked out without a spacer.
        let stands_at = offset - spacer;
        if !force.holds(Filter::Fit, || on_rim.window.clears(stands_at)) {
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
            best = Some((worth, Placed { spacer: Spacer::from_mm(spacer), room, style }));
        }
    }
    best.map(|(_, placed)| placed)
}

fn wheel_classes(
    scene: &Scene<'_>,
    catalogue: &Catalogue,
    wish: &Wish,
    force: InForce,
    axle: usize,
    lines: &Lines,
) -> Vec<WheelClass> {
    let mut classes: BTreeMap<(RimDiameter, RimWidth, Offset), WheelClass> = BTreeMap::new();
    for (at, row) in catalogue.wheels.iter().enumerate() {
        let Some(offset) = row.wheel.offset else { continue };
        if !wheel_may(row, axle, &scene.needs, wish, force) {
            continue;
        }
        let wheel = Wheel { bolt_circle: None, center_bore: None, ..row.wheel };
        let class = classes
            .entry((wheel.diameter, wheel.width, offset))
            .or_insert_with(|| WheelClass { wheel, rows: Vec::new() });
        class.rows.push(Row {
            at: at as u32,
            id: row.id,
            line: lines.wheels[at],
            points: points(criteria::of_wheel(row, lines.dearest_wheel, &wish.weights)),
            price: row.price.unwrap_or(0),
        });
    }
    classes.into_values().collect()
}

/// Tire classes of an axle, by rim code: those whose overall diameter is inside the house limit.
fn tire_classes(
    scene: &Scene<'_>,
    catalogue: &Catalogue,
    wish: &Wish,
    force: InForce,
    axle: usize,
    trial: &Trial<'_>,
) -> HashMap<RimDiameter, Vec<TireClass>> {
    let fitted = trial.fitted.tire.map(|tire| overall_diameter(&tire.size).as_mm());
    let limit = scene.plan.limits.diameter_limit_pct;
    let mut of: HashMap<Size, Option<usize>> = HashMap::new();
    let mut classes: HashMap<RimDiameter, Vec<TireClass>> = HashMap::new();
    for (at, row) in catalogue.tires.iter().enumerate() {
        if !tire_may(row, axle, &scene.needs, wish, force) {
            continue;
        }
        let size = row.tire.size;
        let place = *of.entry(size).or_insert_with(|| {
            let inside = force.holds(Filter::Diameter, || {
                fitted.is_none_or(|old| {
                    ((overall_diameter(&size).as_mm() / old - 1.0) * 100.0).abs() <= limit + 1e-9
                })
            });
            inside.then(|| {
                let on = classes.entry(size.rim()).or_default();
                on.push(TireClass { size, rows: Vec::new() });
                on.len() - 1
            })
        });
        if let Some(class) = place.and_then(|place| classes.get_mut(&size.rim())?.get_mut(place)) {
            class.rows.push(at as u32);
        }
    }
    classes
}

/// The tires of a class that may stand on a rim, with their points there.
fn tire_rows_on(
    catalogue: &Catalogue,
    class: &TireClass,
    width: RimWidth,
    wish: &Wish,
    force: InForce,
    lines: &Lines,
) -> Vec<Row> {
    let mut rows = Vec::new();
    for at in &class.rows {
        let Some(row) = catalogue.tires.get(*at as usize) else { continue };
        let (least, most) = row.rims();
        if force.holds(Filter::PermittedRim, || (least..=most).contains(&width)) {
            rows.push(Row {
                at: *at,
                id: row.id,
                line: lines.tires[*at as usize],
                points: points(criteria::of_tire(row, width, lines.dearest_tire, &wish.weights)),
                price: row.price.unwrap_or(0),
            });
        }
    }
    rows
}

/// A setup among the best, ordered so that the worst of them is the heap's greatest.
#[derive(PartialEq, Eq, PartialOrd, Ord)]
struct Ranked {
    worse: (Reverse<Points>, u64, [u32; 4]),
    at: (usize, usize),
}

fn together(
    scene: &Scene<'_>,
    catalogue: &Catalogue,
    wish: &Wish,
    force: InForce,
    sides: &[AxleSide; 2],
) -> Vec<Found> {
    let [front, rear] = sides;
    let ratio_limit = scene.plan.limits.ratio_pct(scene.plan.drive);
    let ratio_now = fitted_ratio(scene);
    let ratio_points = |front: &Size, rear: &Size| {
        let drift = ratio_now
            .map_or(0.0, |now| ((overall_diameter(front) / overall_diameter(rear)) / now - 1.0) * 100.0);
        let keeps = force.holds(Filter::Ratio, || drift.abs() <= ratio_limit);
        keeps.then(|| criteria::diameter(drift, ratio_limit))
    };
    let weigh_ratio = |score: f64| 2 * points(wish.weights.on(Criterion::Ratio) * score);
    let most_ratio = weigh_ratio(1.0);
    let mut ratios: HashMap<(Size, Size), Option<f64>> = HashMap::new();
    let mut wheel_pairs: HashMap<(usize, usize), Vec<PairOfRows>> = HashMap::new();
    let mut tire_pairs: HashMap<(usize, usize), Vec<PairOfRows>> = HashMap::new();
    let any_lines = force.0 == Some(Filter::Lines);
    let budget = wish.budget.filter(|_| force.0 != Some(Filter::Budget));
    let mut kept: BinaryHeap<Ranked> = BinaryHeap::new();
    let mut rows: HashMap<(usize, usize), (PairOfRows, PairOfRows)> = HashMap::new();
    let Some(best_rear) = rear.candidates.first().map(|candidate| candidate.bound) else { return Vec::new() };
    let is_hopeless = |kept: &BinaryHeap<Ranked>, most: Points| {
        kept.len() >= wish.count && kept.peek().is_some_and(|worst| most < worst.worse.0.0)
    };
    for (f_at, f) in front.candidates.iter().enumerate() {
        if wish.count == 0 || is_hopeless(&kept, f.bound + best_rear + most_ratio) {
            break;
        }
        let f_wheel = front.classes[f.class].wheel;
        for (r_at, r) in rear.candidates.iter().enumerate() {
            if is_hopeless(&kept, f.bound + r.bound + most_ratio) {
                break;
            }
            let r_wheel = rear.classes[r.class].wheel;
            let (same_wheel, same_tire) = (f_wheel == r_wheel, f.size == r.size);
            let is_asked_for = force.holds(Filter::Arrangement, || {
                (wish.mixed_diameters || f_wheel.diameter == r_wheel.diameter)
                    && match wish.arrangements {
                        Arrangements::Either => true,
                        Arrangements::Square => same_wheel && same_tire,
                        Arrangements::Staggered => !(same_wheel && same_tire),
                    }
            });
            if !is_asked_for {
                continue;
            }
            let ratio = *ratios.entry((f.size, r.size)).or_insert_with(|| ratio_points(&f.size, &r.size));
            let Some(ratio) = ratio else { continue };
            let place = f.place + r.place + weigh_ratio(ratio);
            let most = place + (f.bound - f.place) + (r.bound - r.place);
            if is_hopeless(&kept, most) {
                continue;
            }
            let has_budget = budget.is_some();
            let wheels = wheel_pairs.entry((f.class, r.class)).or_insert_with(|| {
                let (front, rear) = (&front.classes[f.class].rows, &rear.classes[r.class].rows);
                pairs(front, rear, same_wheel, any_lines, has_budget)
            });
            let tires = tire_pairs.entry((f.tires, r.tires)).or_insert_with(|| {
                pairs(&front.tire_rows[f.tires], &rear.tire_rows[r.tires], same_tire, any_lines, has_budget)
            });
            let Some((wheels, tires)) = best(wheels, tires, budget) else { continue };
            let ids = [wheels.front.id, wheels.rear.id, tires.front.id, tires.rear.id];
            let total = place + wheels.points() + tires.points();
            let ranked =
                Ranked { worse: (Reverse(total), wheels.price() + tires.price(), ids), at: (f_at, r_at) };
            if kept.len() < wish.count || kept.peek().is_some_and(|worst| ranked < *worst) {
                rows.insert(ranked.at, (wheels, tires));
                kept.push(ranked);
                if kept.len() > wish.count
                    && let Some(worst) = kept.pop()
                {
                    rows.remove(&worst.at);
                }
            }
        }
    }
    kept.into_sorted_vec()
        .into_iter()
        .filter_map(|ranked| {
            let (wheels, tires) = rows.get(&ranked.at)?;
            let (f, r) = (&front.candidates[ranked.at.0], &rear.candidates[ranked.at.1]);
            let ratio = ratios.get(&(f.size, r.size)).copied().flatten()?;
            Some(told(catalogue, wish, ranked.worse.0.0, (f, r), ratio, wheels, tires))
        })
        .collect()
}

/// The reference for front against rear: the factory's own ratio, else what is fitted.
fn fitted_ratio(scene: &Scene<'_>) -> Option<f64> {
    let of = |pair: &SetupPair| {
        let diameter = |axle| Some(overall_diameter(&pair.on(axle)?.tire?.size));
        Some(diameter(Axle::Front)? / diameter(Axle::Rear)?)
    };
    of(&scene.factory).or_else(|| of(scene.plan.fitted))
}

/// A setup with its rows and its scores by criterion.
fn told(
    catalogue: &Catalogue,
    wish: &Wish,
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
    let wheel = |row: &Row| &catalogue.wheels[row.at as usize];
    let tire = |row: &Row| &catalogue.tires[row.at as usize];
    let lines = (
        catalogue.wheels.iter().filter_map(|row| row.price).max().unwrap_or(0),
        catalogue.tires.iter().filter_map(|row| row.price).max().unwrap_or(0),
    );
    let four = |of_wheel: &dyn Fn(&Row) -> f64, of_tire: &dyn Fn(&Row) -> f64| {
        (of_wheel(&wheels.front) + of_wheel(&wheels.rear) + of_tire(&tires.front) + of_tire(&tires.rear))
            / 4.0
    };
    scores.set(
        Criterion::Mass,
        four(&|row| criteria::mass(wheel(row).mass_kg), &|row| criteria::mass(tire(row).mass_kg)),
    );
    scores.set(
        Criterion::Price,
        four(&|row| criteria::price(wheel(row).price, lines.0), &|row| {
            criteria::price(tire(row).price, lines.1)
        }),
    );
    scores.set(
        Criterion::Availability,
        four(&|row| criteria::stock(wheel(row).stock), &|row| criteria::stock(tire(row).stock)),
    );
    let on = |row: &Row, width: RimWidth| criteria::tread_width(tire(row).tread().0, width);
    scores.set(
        Criterion::TreadWidth,
        f64::midpoint(
            on(&tires.front, wheel(&wheels.front).wheel.width),
            on(&tires.rear, wheel(&wheels.rear).wheel.width),
        ),
    );
    let choice = |place: &Candidate, wheel_row: &Row, tire_row: &Row| AxleChoice {
        setup: Setup {
            wheel: Some(wheel(wheel_row).wheel),
            tire: Some(tire(tire_row).tire),
            spacer: place.spacer,
            date_code: None,
        },
        wheel_row: wheel_row.at as usize,
        tire_row: tire_row.at as usize,
    };
    let rows = [&wheels.front, &wheels.rear];
    let price_is_whole = rows.iter().all(|row| wheel(row).price.is_some())
        && [&tires.front, &tires.rear].iter().all(|row| tire(row).price.is_some());
    Found {
        front: choice(places.0, &wheels.front, &tires.front),
        rear: choice(places.1, &wheels.rear, &tires.rear),
        score: total as f64 / (2.0 * wish.weights.total() * 4_294_967_296.0),
        scores,
        price: wheels.price() + tires.price(),
        price_is_whole,
    }
}
