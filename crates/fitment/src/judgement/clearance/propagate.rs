//! Law of propagation (JCGM 100), numerically: each input is moved to both ends of its range and the whole room is worked out
//! again.

use super::inputs::{MayBeOff, Moves, of_a_room};
use super::query::ClearanceQuery;
use super::shift::Shift;
use super::uncertainty::{Contribution, Uncertainty};
use crate::car::corner::Obstacle;
use crate::car::corner::shape::{RoomInputs, room};
use crate::car::section::MountedSetup;
use crate::judgement::case::AxleCase;
use crate::values::length::Length;

/// A change that is whole half way through a range counts as one so many times as large that grows evenly: so that nine of ten
/// cases stay inside, worked out for an input that is as large as the rest together.
const SATURATED: f64 = 1.45;

/// The room as written, with what each input may do to it.
fn propagated(query: &ClearanceQuery<'_>, nominal: &RoomInputs<'_>) -> Option<Uncertainty> {
    let at = room(&query.obstacle.reading, nominal)?;
    let contribution = |one: &MayBeOff| {
        let moved = |share: f64| {
            let mut shift = Shift::default();
            one.moves.add(share, query, &mut shift);
            shift.room(query, nominal).unwrap_or(at)
        };
        let end = |share: f64| match one.moves {
            // Beside a rounded edge the room may be as short half way as at the end of the range, and is then short more often
            // than its end says: in half of all cases, where an even slope is it in one of twenty.
            Moves::ReadAt { .. } => {
                let half_way = (moved(share / 2.0) - at) * SATURATED;
                let end = moved(share) - at;
                at + if half_way.abs() > end.abs() { half_way } else { end }
            }
            _ => moved(share),
        };
        let (one_end, other_end) = (end(-1.0), end(1.0));
        let (low, high) = (one_end.min(other_end).min(at), one_end.max(other_end).max(at));
        Contribution {
            input: one.input,
            down: Length::mm(at - low),
            up: Length::mm(high - at),
            source: one.source,
        }
    };
    let contributions = of_a_room(query).iter().map(contribution).collect();
    Some(Uncertainty::new(Length::mm(at), contributions))
}

impl ClearanceQuery<'_> {
    /// The room with the rim's centre plane at `center_y`, and how sure it is. `None` where another wheel's shape is not
    /// known.
    pub(crate) fn at(&self, center_y: f64) -> Option<Uncertainty> {
        propagated(self, &self.as_written(center_y))
    }
}

/// The room from a setup to a part, and how sure it is. `None` where another wheel's shape is not known.
pub fn uncertainty(case: &AxleCase<'_>, obstacle: &Obstacle, stand: &MountedSetup) -> Option<Uncertainty> {
    ClearanceQuery::of(case, obstacle, stand).at(stand.center_y())
}
