//! What a car's set is for. Which of the house's limits count for that is a table of the rules ([`crate::judgement::rules::counts`]).

use crate::setup::catalogue::Use;
use crate::values::coded::coded;

/// What a job's set is for, as somebody said it.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Purpose {
    /// The uses.
    pub uses: Vec<Use>,
    /// Whether the set is carried to the event and never driven on the road.
    pub is_carried: bool,
    /// Whether snow chains go on, and of which class.
    pub chains: Option<ChainClass>,
}

/// How much room snow chains take. SAE J1232 (from memory; look the figures up).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum ChainClass {
    /// The least: for cars with little room.
    #[default]
    S,
    /// Ordinary ones.
    U,
}

coded!(ChainClass: S = "S", U = "U");

impl ChainClass {
    /// Room over the tread and beside the sidewall, in millimetres.
    ///
    /// # Source
    /// SAE J1232, from memory: S 37 and 15, U 50 and 23.
    pub fn room_mm(self) -> (f64, f64) {
        match self {
            Self::S => (37.0, 15.0),
            Self::U => (50.0, 23.0),
        }
    }
}

/// Where a set is driven, as far as limits differ by it: the strictest of its uses that share a drive.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Ground {
    /// On the road; also while nobody said.
    #[default]
    Road,
    /// Off it, and on the road there.
    OffRoad,
    /// On a track or an autocross, driven there.
    Track,
    /// Carried to the strip or track.
    Carried,
}

impl Purpose {
    /// Where it is driven.
    pub fn ground(&self) -> Ground {
        let all = |of: &[Use]| !self.uses.is_empty() && self.uses.iter().all(|one| of.contains(one));
        if self.is_carried {
            Ground::Carried
        } else if all(&[Use::Gravel]) {
            Ground::OffRoad
        } else if all(&[Use::OccasionalTrack, Use::RegularTrack, Use::Autocross]) {
            Ground::Track
        } else {
            Ground::Road
        }
    }

    /// By which use it is judged, in words.
    pub fn words(&self) -> String {
        let uses = self.uses.iter().map(|one| one.words()).collect::<Vec<_>>().join(", ");
        match (self.is_carried, uses.is_empty()) {
            (true, true) => "carried to the event".to_owned(),
            (true, false) => format!("{uses}, carried there"),
            (false, true) => "the road, no use was named".to_owned(),
            (false, false) => uses,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_strictest_of_the_uses_that_share_a_drive_counts() {
        let of = |uses: &[Use], is_carried| {
            Purpose { uses: uses.to_vec(), is_carried, ..Purpose::default() }.ground()
        };
        assert_eq!(of(&[], false), Ground::Road, "nothing said counts as the road");
        assert_eq!(of(&[Use::Gravel], false), Ground::OffRoad);
        assert_eq!(of(&[Use::Gravel, Use::Daily], false), Ground::Road);
        assert_eq!(of(&[Use::RegularTrack, Use::Autocross], false), Ground::Track);
        assert_eq!(of(&[Use::DragStrip], false), Ground::Road, "driven there");
        assert_eq!(of(&[Use::DragStrip, Use::Daily], true), Ground::Carried);
    }
}
