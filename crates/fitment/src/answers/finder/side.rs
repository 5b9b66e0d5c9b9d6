//! One axle of a search: wheel classes with tire classes, each placed with the spacer with which it stands best.

use rustc_hash::FxHashMap;

use super::classes::{Lines, WheelClass, tire_classes, tire_rows_on, wheel_classes};
use super::criteria::{self, Scores};
use super::criterion::Criterion;
use super::filters::{Filter, InForce};
use super::options::{Points, Row, points};
use super::requirements::Requirements;
use super::scene::Scene;
use super::stock::Stock;
use super::{KeptParts, SearchCriteria};
use crate::car::section::Toward;
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::MountedSetup;
use crate::judgement::clearance::brake::{brake_rules_out, knows_the_brake};
use crate::judgement::rules::permitted_rim::rim_fit;
use crate::judgement::window::{TireChoice, WidthWindow, window_beside_the_brake};
use crate::parts::tire::Size;
use crate::parts::tire::rims::RimFit;
use crate::parts::wheel::Wheel;
use crate::setup::spacers::SHELF_MM;
use crate::setup::{Axle, Hundredths, ListedTire};
use crate::values::codes::{Offset, RimDiameter, RimWidth, Spacer};
use crate::values::length::Length;

/// A wheel class with a tire class on one axle, placed.
pub(super) struct Candidate {
    pub(super) class: usize,
    /// Which wheel and tire size it is, offset left out: of these only the best is told.
    pub(super) shape: usize,
    pub(super) size: Size,
    pub(super) listed: ListedTire,
    pub(super) spacer: Option<Spacer>,
    /// Points of the place: room, diameter, style, width.
    pub(super) place: Points,
    /// Score by criterion, rows left out.
    pub(super) scores: Scores,
    /// Overall diameter of its tire.
    pub(super) diameter: Length,
    /// Tire rows that may stand on this rim.
    pub(super) tires: usize,
}

impl Candidate {
    /// Its sizes, offset left out.
    pub(super) fn shape_name(&self, wheel: Wheel) -> (RimDiameter, RimWidth, Size) {
        (wheel.diameter, wheel.width, self.size)
    }
}

#[derive(Default)]
pub(super) struct AxleSide {
    pub(super) classes: Vec<WheelClass>,
    pub(super) tire_rows: Vec<Vec<Row>>,
    /// The most points that a row of each can have.
    pub(super) most_tire: Vec<Points>,
    pub(super) candidates: Vec<Candidate>,
    pub(super) rows: (usize, usize),
}

/// What a millimetre of spacer takes off the score of the room: parts are better without.
pub(super) const SPACER_COSTS: f64 = 0.01;

/// What follows from a tire size on a rim, wherever it stands.
pub(super) struct OnRim {
    pub(super) window: WidthWindow,
    /// Reach inboard and outboard of the rim's centre plane, with camber where the body is met.
    pub(super) reach: (f64, f64),
}

pub(super) fn side(
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
    let mut on_rims: FxHashMap<Shape, Option<(OnRim, usize)>> = FxHashMap::default();
    let mut shapes: FxHashMap<(RimDiameter, RimWidth, Size), usize> = FxHashMap::default();
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
            let shelf =
                SHELF_MM.map(|mm| (mm <= wish.thickest_spacer_mm && asks.takes_spacer(at, mm)).then_some(mm));
            let Some(stands) =
                placed(&class.wheel, on_rim, &mut brake, fitted.as_ref(), (wish, force), shelf)
            else {
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
pub(super) struct OverTheBrake<'a> {
    pub(super) trial: &'a AxleCase<'a>,
    pub(super) wheel: Wheel,
    pub(super) line: Option<&'a str>,
    pub(super) is_known: bool,
    pub(super) asked: [Option<bool>; SHELF_MM.len() + 1],
}

impl<'a> OverTheBrake<'a> {
    pub(super) fn of(trial: &'a AxleCase<'a>, class: &'a WheelClass, keeps: KeptParts) -> Self {
        let line = (keeps != KeptParts::Wheels).then_some(&*class.line);
        let is_known = knows_the_brake(trial);
        Self { trial, wheel: class.wheel, line, is_known, asked: [None; SHELF_MM.len() + 1] }
    }

    pub(super) fn goes(&mut self, step: usize, spacer_mm: f64) -> bool {
        let ask = || !brake_rules_out(self.trial, self.wheel, spacer_of(spacer_mm), self.line);
        !self.is_known || *self.asked[step].get_or_insert_with(ask)
    }
}

/// A spacer of the shelf; none of 0 mm.
pub(super) fn spacer_of(mm: f64) -> Option<Spacer> {
    Spacer::from_mm(mm).filter(|_| mm > 0.0)
}

/// Where a wheel stands best: with which spacer, and its scores for room and style there.
pub(super) struct BestSpacer {
    pub(super) spacer: Option<Spacer>,
    pub(super) room: f64,
    pub(super) style: f64,
}

/// The spacer with which a wheel stands best, of those of the shelf that may be there; `None` where it does not clear.
pub(super) fn placed(
    wheel: &Wheel,
    on_rim: &OnRim,
    brake: &mut OverTheBrake<'_>,
    fitted: Option<&MountedSetup>,
    (wish, force): (&SearchCriteria, InForce),
    shelf: [Option<f64>; SHELF_MM.len()],
) -> Option<BestSpacer> {
    let offset = wheel.offset?.as_mm();
    let mut best: Option<(f64, BestSpacer)> = None;
    let steps = std::iter::once(Some(0.0)).chain(shelf).enumerate();
    for (step, spacer) in steps.filter_map(|(step, spacer)| Some((step, spacer?))) {
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
