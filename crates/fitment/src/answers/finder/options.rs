//! Which rows make a setup: one line of wheels or tires on both axles, the best-scoring ones inside a budget.

use rustc_hash::FxHashMap;

use crate::judgement::rules::Severity;
use crate::judgement::rules::mix::Nature;

/// Scores are summed as whole points, so that no order of adding can change which of two is larger.
pub(super) type Points = i64;

/// A score as points.
pub(super) fn points(score: f64) -> Points {
    (score * 4_294_967_296.0).round() as Points
}

/// A row that can stand on an axle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Row {
    /// Its place in the catalogue's list.
    pub at: u32,
    /// Its number: of equal rows the smaller goes first.
    pub id: u32,
    /// Its line, interned.
    pub line: u32,
    pub points: Points,
    /// Price of one; 0 when it has none.
    pub price: u32,
    /// Bolt circles of a wheel as bits; all of them where it names none.
    pub circles: u64,
    /// Whether a wheel may stand on either axle when the set is rotated.
    pub may_be_rotated: bool,
    /// What of a tire must be alike on both axles; `None` for a wheel.
    pub nature: Option<Nature>,
}

/// What the rows of a pair must have in common.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub(super) struct Alike {
    /// Like parts on both axles: one row for both.
    pub is_alike: bool,
    /// The set may be rotated: its wheels must do for either axle.
    pub is_rotated: bool,
    /// The wheels must share a bolt circle.
    pub one_circle: bool,
}

/// Whether the rule on mixed tires stops two rows.
fn is_mixed(front: &Row, rear: &Row) -> bool {
    let mixed = front.nature.zip(rear.nature).and_then(|(front, rear)| front.mixed_with(rear));
    mixed.is_some_and(|mixed| mixed.severity() == Severity::Stop)
}

impl Alike {
    fn allows(self, front: &Row, rear: &Row) -> bool {
        (!self.is_rotated || front.may_be_rotated && rear.may_be_rotated)
            && (!self.one_circle || front.circles & rear.circles != 0)
            && !is_mixed(front, rear)
    }
}

/// Rows for both axles: two of each.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct PairOfRows {
    pub front: Row,
    pub rear: Row,
}

impl PairOfRows {
    pub(super) fn points(&self) -> Points {
        self.front.points + self.rear.points
    }

    pub(super) fn price(&self) -> u64 {
        2 * (u64::from(self.front.price) + u64::from(self.rear.price))
    }

    fn ids(&self) -> (u32, u32) {
        (self.front.id, self.rear.id)
    }
}

/// Pairs worth keeping: of each price the best, cheapest first and each dearer one better. Without a budget only the
/// last one counts.
pub(super) fn pairs(
    front: &[Row],
    rear: &[Row],
    alike: Alike,
    any_lines: bool,
    has_budget: bool,
) -> Vec<PairOfRows> {
    let mut all = Vec::new();
    if alike.is_alike {
        // Like parts on both axles are one row, if it may stand on both.
        let rear_of: FxHashMap<u32, &Row> = rear.iter().map(|row| (row.at, row)).collect();
        all.extend(
            front.iter().filter_map(|row| Some(PairOfRows { front: *row, rear: **rear_of.get(&row.at)? })),
        );
    } else if any_lines {
        for front in front {
            all.extend(rear.iter().map(|rear| PairOfRows { front: *front, rear: *rear }));
        }
    } else {
        let mut by_line: FxHashMap<u32, Vec<&Row>> = FxHashMap::default();
        for row in rear {
            by_line.entry(row.line).or_default().push(row);
        }
        for front in front {
            let same = by_line.get(&front.line).into_iter().flatten();
            all.extend(same.map(|rear| PairOfRows { front: *front, rear: **rear }));
        }
    }
    all.retain(|pair| alike.allows(&pair.front, &pair.rear));
    if !has_budget {
        return all.into_iter().min_by_key(rank).into_iter().collect();
    }
    all.sort_by_key(|pair| (pair.price(), std::cmp::Reverse(pair.points()), pair.ids()));
    let mut best = Points::MIN;
    all.retain(|pair| {
        let is_better = pair.points() > best;
        best = best.max(pair.points());
        is_better
    });
    all
}

/// More points first, then the cheaper, then the smaller numbers.
fn rank(pair: &PairOfRows) -> (std::cmp::Reverse<Points>, u64, (u32, u32)) {
    (std::cmp::Reverse(pair.points()), pair.price(), pair.ids())
}

/// The best wheels with the best tires inside a budget; `None` when there are none.
pub(super) fn best(
    wheels: &[PairOfRows],
    tires: &[PairOfRows],
    budget: Option<u32>,
) -> Option<(PairOfRows, PairOfRows)> {
    let Some(budget) = budget else {
        return Some((*wheels.last()?, *tires.last()?));
    };
    let mut found: Option<(PairOfRows, PairOfRows)> = None;
    let key = |(wheels, tires): &(PairOfRows, PairOfRows)| {
        (
            std::cmp::Reverse(wheels.points() + tires.points()),
            wheels.price() + tires.price(),
            wheels.ids(),
            tires.ids(),
        )
    };
    for wheel in wheels {
        let Some(left) = u64::from(budget).checked_sub(wheel.price()) else { break };
        // Both lists go from cheap to dear with rising points: the dearest that can be paid is the best.
        let affordable = tires.partition_point(|tire| tire.price() <= left);
        if let Some(tire) = affordable.checked_sub(1).and_then(|at| tires.get(at)) {
            let pair = (*wheel, *tire);
            if found.as_ref().is_none_or(|best| key(&pair) < key(best)) {
                found = Some(pair);
            }
        }
    }
    found
}
