//! Where an edge of the window lies: the root of the room that the fit judges.

use super::known::{KnownEdges, Sought};
use super::limit::Limit;
use crate::car::corner::shape::AlongTheHub;
use crate::car::corner::{Carrier, Obstacle};
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::{ClearanceQuery, MountedSetup, may_pass};

/// How much less than as written the room likely is at most.
fn likely(query: &ClearanceQuery<'_>, center_y: f64) -> Option<f64> {
    query.at(center_y).map(|band| band.likely().as_mm())
}

/// Where the rim's centre plane must stand for this obstacle to clear: the root of the very room that the fit judges.
///
/// Most parts are met by one place of the section whatever the offset, and the band does not depend on it: the room is
/// a straight line and its root is exact. Where it bends (a corner of metal met from beside or below, the rule at lock)
/// the root is sought to [`ROOT_MM`].
///
/// How sure the room is hardly changes with the offset, and evenly: the root of the room as written is sought first, how
/// sure it is there is looked up, then the root of what is left less that, and so on along the line through the last two
/// until it stands.
pub(super) fn edge(
    case: &AxleCase<'_>,
    obstacle: &Obstacle,
    stand: &MountedSetup,
    known: &mut KnownEdges,
) -> Limit {
    known.edge(case, obstacle, Sought::Whole, |known| {
        let query = ClearanceQuery::of(case, obstacle, stand);
        let minimum = case.least(obstacle.feature).as_mm();
        let slack = |center_y: f64| Some(query.nominal_at(center_y)? - likely(&query, center_y)? - minimum);
        let by_the_whole = || edge_where(obstacle, stand.center_y(), stand, &slack);
        // What runs straight has its root at once, with its band as without.
        let is_bent = obstacle.shape.is_surer_nearby() || obstacle.reading.steer.is_at_lock();
        if !is_bent {
            return by_the_whole();
        }
        let as_written = edge_as_written(case, obstacle, stand, known);
        edge_from(case, as_written, obstacle, stand, &query).unwrap_or_else(by_the_whole)
    })
}

/// The same, if everything is as it was written.
fn edge_as_written(
    case: &AxleCase<'_>,
    obstacle: &Obstacle,
    stand: &MountedSetup,
    known: &mut KnownEdges,
) -> Limit {
    known.edge(case, obstacle, Sought::AsWritten, |_| {
        let query = ClearanceQuery::of(case, obstacle, stand);
        let minimum = case.least(obstacle.feature).as_mm();
        let slack = |center_y: f64| Some(query.nominal_at(center_y)? - minimum);
        edge_where(obstacle, stand.center_y(), stand, &slack)
    })
}

/// From the edge as written to the one with its band; `None` where this way does not lead there.
fn edge_from(
    case: &AxleCase<'_>,
    as_written: Limit,
    obstacle: &Obstacle,
    stand: &MountedSetup,
    query: &ClearanceQuery<'_>,
) -> Option<Limit> {
    /// So near the ± at a root must be to the one it was sought with, in millimetres; and how often it is sought.
    const SETTLED_MM: f64 = 1e-4;
    const ROUNDS: usize = 8;
    let minimum = case.least(obstacle.feature).as_mm();
    // What the ± is taken to be: as it is at one place, by so much more for each millimetre from there.
    let mut from = as_written.center()?;
    let (mut less, mut slope) = (likely(query, from)?, 0.0);
    for _ in 0..ROUNDS {
        let taken = |center_y: f64| less + slope * (center_y - from);
        // A hair more than it is: the edge itself clears.
        let wanted = |center_y: f64| minimum + SETTLED_MM + taken(center_y);
        let slack = |center_y: f64| Some(query.nominal_at(center_y)? - wanted(center_y));
        let limit = edge_where(obstacle, from, stand, &slack);
        // Whether it is met nowhere is asked of the whole.
        let center = limit.center()?;
        let there = likely(query, center)?;
        if (there - taken(center)).abs() <= SETTLED_MM {
            return Some(limit);
        }
        let along = center - from;
        slope = if along.abs() > ROOT_MM { (there - less) / along } else { 0.0 };
        // Where it grows nearly as the room does, this is not the place where the word turns.
        if slope.abs() > 0.5 {
            return None;
        }
        (from, less) = (center, there);
    }
    None
}

/// Whether no offset can clear what was read with wheels like this one, even as written and without any band: said quickly,
/// since many sets of work on a car are tried and most of them do not do.
pub(crate) fn is_hopeless(case: &AxleCase<'_>, known: &mut KnownEdges) -> bool {
    let stand = known.stand(case);
    let (mut inmost, mut outmost) = (f64::NEG_INFINITY, f64::INFINITY);
    let obstacles = case.resolved.nearest().filter(|one| !one.feature.is_of_the_brake());
    for obstacle in obstacles {
        if may_pass(case, obstacle, &stand) {
            continue;
        }
        match edge_as_written(case, obstacle, &stand, known) {
            Limit::Open => {}
            Limit::Never => return true,
            Limit::InboardOf(center) => outmost = outmost.min(center),
            Limit::OutboardOf(center) => inmost = inmost.max(center),
        }
    }
    inmost > outmost
}

/// Where the rim's centre plane must stand for so much to be left over, sought from `here` on.
fn edge_where(
    obstacle: &Obstacle,
    here: f64,
    stand: &MountedSetup,
    slack: &dyn Fn(f64) -> Option<f64>,
) -> Limit {
    let Some(left) = slack(here) else { return Limit::Open };
    let is_of_body = obstacle.feature.carrier() == Carrier::Body;
    let lean_rad = if is_of_body { stand.camber_deg().to_radians() } else { 0.0 };
    match obstacle.shape.along_the_hub(&obstacle.reading, lean_rad) {
        AlongTheHub::NotAtAll => Limit::where_there_is(left),
        AlongTheHub::Evenly(slope) => {
            let root = here - left / slope;
            match (slope < 0.0, (-FURTHEST_MM..=FURTHEST_MM).contains(&root)) {
                (_, false) => Limit::where_there_is(left),
                (true, true) => Limit::InboardOf(root),
                (false, true) => Limit::OutboardOf(root),
            }
        }
        AlongTheHub::Bent(away) => edge_away(slack, here, left, &[away]),
        AlongTheHub::Swung => edge_away(slack, here, left, &[-1.0, 1.0]),
    }
}

/// The same where the room grows this way, or one of several: then by the edge that is nearest.
fn edge_away(slack: &dyn Fn(f64) -> Option<f64>, here: f64, left: f64, ways: &[f64]) -> Limit {
    let found = ways.iter().filter_map(|away| match root(slack, here, left, *away) {
        Root::At(center) => Some((center, *away)),
        Root::Nowhere(_) => None,
    });
    match found.min_by(|a, b| (a.0 - here).abs().total_cmp(&(b.0 - here).abs())) {
        Some((center, away)) if away < 0.0 => Limit::InboardOf(center),
        Some((center, _)) => Limit::OutboardOf(center),
        None => Limit::where_there_is(left),
    }
}

/// How near a root is sought, in millimetres.
const ROOT_MM: f64 = 0.005;
/// No rim's centre plane stands further from a hub.
pub(crate) const FURTHEST_MM: f64 = 300.0;

/// Where the room left over is nothing.
pub(crate) enum Root {
    At(f64),
    /// Nowhere on a hub: whether it is clear everywhere.
    Nowhere(bool),
}

/// Seeks the root of what is left over, which grows by at most a millimetre for each the wheel moves by `away`: the step
/// that would do if it grew by as much, doubled until the sign turns, then false position with the stale end halved
/// (Illinois).
pub(crate) fn root(slack: &dyn Fn(f64) -> Option<f64>, here: f64, left: f64, away: f64) -> Root {
    let (mut a, mut at_a) = (here, left);
    let toward = if left < 0.0 { away } else { -away };
    let mut step = left.abs().max(0.5);
    let (mut b, mut at_b) = loop {
        let next = (a + toward * step).clamp(-FURTHEST_MM, FURTHEST_MM);
        let Some(there) = slack(next) else { return Root::Nowhere(left >= 0.0) };
        if (there < 0.0) != (left < 0.0) {
            break (next, there);
        }
        if next.abs() >= FURTHEST_MM {
            return Root::Nowhere(left >= 0.0);
        }
        (a, at_a) = (next, there);
        step *= 2.0;
    };
    let mut last_moved_b = None;
    // Where it was asked last, if next to nothing was left over there: the root is close by, on the side of the other end.
    let mut close_by: Option<f64> = None;
    for _ in 0..60 {
        if (b - a).abs() < ROOT_MM {
            break;
        }
        let middle = match close_by.take() {
            Some(at) => at + (if at == a { b - a } else { a - b }).signum() * ROOT_MM * 0.8,
            None => (a * at_b - b * at_a) / (at_b - at_a),
        };
        // Never onto an end: then half of the way.
        let middle = if (middle - a).abs() < ROOT_MM / 4.0 || (middle - b).abs() < ROOT_MM / 4.0 {
            (a + b) / 2.0
        } else {
            middle
        };
        let Some(there) = slack(middle) else { break };
        let moves_b = (there < 0.0) == (at_b < 0.0);
        if moves_b {
            (b, at_b) = (middle, there);
            if last_moved_b == Some(true) {
                at_a /= 2.0;
            }
        } else {
            (a, at_a) = (middle, there);
            if last_moved_b == Some(false) {
                at_b /= 2.0;
            }
        }
        last_moved_b = Some(moves_b);
        close_by = (there.abs() < ROOT_MM / 2.0).then_some(middle);
    }
    // The end that is clear.
    Root::At(if at_a >= 0.0 { a } else { b })
}
