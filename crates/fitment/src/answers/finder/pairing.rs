//! The two axles together, best first: line by line of wheels, and no further than a bound lets anything come among the best.

use std::cmp::Reverse;
use std::collections::BTreeSet;

use rustc_hash::FxHashMap;

use super::criteria;
use super::criterion::Criterion;
use super::designs::other_designs;
use super::filters::{Filter, InForce};
use super::found::into_found;
use super::options::{self, Alike, PairOfRows, Points, Row, pairs, points};
use super::requirements::Requirements;
use super::scene::Scene;
use super::side::{AxleSide, Candidate};
use super::stock::Stock;
use super::{Arrangements, Found, SearchCriteria};
use crate::car::limits::Drive;
use crate::parts::wheel::Wheel;
use crate::setup::catalogue::Use;
use crate::values::length::Length;

/// A setup among the best; the better one is the smaller.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(super) struct Ranked {
    pub(super) rank: (Reverse<Points>, u64, [u32; 4]),
    pub(super) at: (usize, usize),
    pub(super) shape: (usize, usize),
}

/// A setup among the best, with its rows.
pub(super) type RankedSetup = (Ranked, PairOfRows, PairOfRows);

/// The best setups so far, each pair of sizes once: what differs in its offsets alone is the same proposal.
pub(super) struct Best {
    pub(super) most: usize,
    pub(super) order: BTreeSet<Ranked>,
    pub(super) by_shape: FxHashMap<(usize, usize), RankedSetup>,
}

impl Best {
    /// Whether a setup of so many points at most could not come among them.
    pub(super) fn is_out_of_reach(&self, most: Points) -> bool {
        self.order.len() >= self.most && self.order.last().is_some_and(|worst| most < worst.rank.0.0)
    }

    pub(super) fn offer(&mut self, ranked: Ranked, wheels: PairOfRows, tires: PairOfRows) {
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
pub(super) struct InLine {
    pub(super) candidate: usize,
    pub(super) rows: Vec<Row>,
    /// The most that it can be worth.
    pub(super) bound: Points,
}

/// One axle's candidates by line of wheels, in each line the best first.
pub(super) fn by_line(side: &AxleSide, any_lines: bool) -> FxHashMap<u32, Vec<InLine>> {
    let mut lines: FxHashMap<u32, Vec<InLine>> = FxHashMap::default();
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

pub(super) fn pair_axles(
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
    let mut best = Best { most: wish.count, order: BTreeSet::new(), by_shape: FxHashMap::default() };
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

/// Wider in front than behind. Common practice: only where the front axle drives, and only when it is asked for.
pub(super) fn is_narrower_behind(
    front: &Candidate,
    rear: &Candidate,
    front_wheel: Wheel,
    rear_wheel: Wheel,
) -> bool {
    rear_wheel.width < front_wheel.width || rear.size.named_section_width() < front.size.named_section_width()
}
