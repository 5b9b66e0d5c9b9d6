//! A stretch of the way a wheel moves, and the least room over it.

use crate::car::motion::{Envelope, Pose, Reach};
use crate::judgement::clearance::{Contribution, Input, Verdict};
use crate::values::coded::coded;

/// A stretch of the way a wheel moves, judged by itself.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Stretch {
    /// Straight ahead at static height: the ledger's own line.
    Standing,
    /// From lock to lock at static height.
    AtLock,
    /// From full droop to full bump, straight ahead.
    OverBumps,
    /// Steer and travel together, as the use reaches them.
    Together,
}

coded!(Stretch: Standing = "standing", AtLock = "at_lock", OverBumps = "over_bumps", Together = "together");

impl Stretch {
    /// In the trade's words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Standing => "standing",
            Self::AtLock => "at lock",
            Self::OverBumps => "over bumps",
            Self::Together => "together",
        }
    }

    pub(super) fn of(self, reach: Reach, envelope: Envelope) -> (Reach, Envelope) {
        match self {
            Self::Standing => {
                (Reach { outward_deg: 0.0, inward_deg: 0.0, bump_mm: 0.0, droop_mm: 0.0 }, Envelope::All)
            }
            Self::AtLock => (Reach { bump_mm: 0.0, droop_mm: 0.0, ..reach }, Envelope::All),
            Self::OverBumps => (Reach { outward_deg: 0.0, inward_deg: 0.0, ..reach }, Envelope::All),
            Self::Together => (reach, envelope),
        }
    }
}

/// Least room to a part over a stretch.
#[derive(Debug, Clone, PartialEq)]
pub struct Stretched {
    /// Which stretch.
    pub stretch: Stretch,
    /// The least room of it.
    pub room_mm: f64,
    /// Where that is.
    pub at: Pose,
    /// What may be off there.
    pub contributions: Vec<Contribution>,
    /// How much less the room likely is at most.
    pub plus_minus_mm: f64,
    /// Its word.
    pub verdict: Verdict,
    /// What nobody measured and what turns the word, if anything does.
    pub decided_by: Option<Input>,
}
