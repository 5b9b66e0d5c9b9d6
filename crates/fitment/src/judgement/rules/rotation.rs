//! What of the planned set can be rotated.

use super::{Asked, Finding, LineCode, Rule, Severity};
use crate::judgement::case::Case;
use crate::setup::{Arrangement, Axle};
use crate::values::coded::coded;
use crate::values::working::{Phrase, Source};

/// Where the rotation rules come from.
pub const SOURCE: Source =
    Source::common_practice("staggered sets cannot change axles, directional ones cannot change sides");

pub(super) const RULE: Rule =
    Rule { title: "Rotation", source: SOURCE, asked: Asked::PerCar(LineCode::Rotation, judge), of_car: &[] };

/// A way to rotate tires.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Rotation {
    /// Front to rear on the same side.
    FrontToRear,
    /// Left to right on the same axle.
    SideToSide,
    /// Front to rear, crossing over.
    Cross,
}

coded!(Rotation: FrontToRear = "front_to_rear", SideToSide = "side_to_side", Cross = "cross");

impl Rotation {
    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::FrontToRear => "front to rear on the same side",
            Self::SideToSide => "left to right on the same axle",
            Self::Cross => "front to rear, crossing over",
        }
    }
}

/// Which rotations a set allows. Directional: tires or wheels with a turning direction, not remounted. Spacers stay on
/// their axle: they make no set staggered.
pub fn rotations(arrangement: Arrangement, is_directional: bool) -> &'static [Rotation] {
    match (arrangement, is_directional) {
        (Arrangement::Square, false) => &[Rotation::FrontToRear, Rotation::SideToSide, Rotation::Cross],
        (Arrangement::Square, true) => &[Rotation::FrontToRear],
        (Arrangement::Staggered, false) => &[Rotation::SideToSide],
        (Arrangement::Staggered, true) => &[],
    }
}

/// Whether a set's wheels may come to stand on either axle.
pub fn changes_axles(arrangement: Option<Arrangement>) -> bool {
    arrangement == Some(Arrangement::Square)
}

fn judge(case: &Case<'_>) -> Option<Finding> {
    let arrangement = case.planned.arrangement()?;
    case.planned.front?.tire?;
    case.planned.rear?.tire?;
    let parts = &case.state.parts;
    let is_directional = Axle::BOTH.into_iter().filter_map(|axle| case.planned.on(axle)).any(|setup| {
        parts.wheel_of(setup).is_some_and(|wheel| wheel.is_directional)
            || parts.tire_of(setup).is_some_and(|tire| tire.is_directional)
    });
    let ways = rotations(arrangement, is_directional);
    let words: Vec<&str> = ways.iter().map(|way| way.words()).collect();
    let words = words.join("; ");
    let set = match arrangement {
        Arrangement::Square => "Square",
        Arrangement::Staggered => "Staggered",
    };
    let (word, says) = match (ways, is_directional) {
        ([], _) => ("not at all", format!("{set} with a turning direction: no rotation, unless remounted.")),
        (_, true) => ("front to rear", format!("{set} with a turning direction: {words}, unless remounted.")),
        ([_], false) => (
            "side to side",
            format!("{set}: {words}, never between the axles. Directional tires or wheels not at all."),
        ),
        (_, false) => (
            "rotates",
            format!("{set}: {words}. Directional tires or wheels only front to rear, unless remounted."),
        ),
    };
    let spacers = |axle| case.planned.on(axle).and_then(|setup| setup.spacer);
    let says = Phrase::new(says);
    let says = if changes_axles(Some(arrangement)) && spacers(Axle::Front) != spacers(Axle::Rear) {
        says.text(" The spacers stay on their axle.")
    } else {
        says
    };
    Some(Finding {
        severity: Severity::Good,
        word,
        figure: None,
        limit: Phrase::new("by the planned sizes"),
        says,
        caution: None,
        working: Vec::new(),
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line;

    /// Common practice: a staggered set cannot be rotated front to rear, directional tires not side to side
    /// without remounting; so no rotation at all for directional staggered sets.
    #[test]
    fn what_can_be_rotated() {
        use Arrangement::{Square, Staggered};
        assert_eq!(rotations(Square, false).len(), 3);
        assert_eq!(rotations(Square, true), [Rotation::FrontToRear]);
        assert_eq!(rotations(Staggered, false), [Rotation::SideToSide]);
        assert!(rotations(Staggered, true).is_empty());
    }

    #[test]
    fn other_spacers_make_no_set_staggered() {
        // Common practice: they rotate, the spacers stay.
        let planned = "F: 18x8 ET45 225/40R18 R: 18x8 ET45 225/40R18 15 mm spacer";
        let line = line("rotation", "17x7.5 ET45 225/45R17", planned, None);
        assert_eq!(line.word, "rotates");
        assert!(format!("{:?}", line.says).contains("spacers stay"), "{:?}", line.says);
    }
}
