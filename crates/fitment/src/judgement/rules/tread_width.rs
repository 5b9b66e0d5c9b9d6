//! Tread width on its rim.
//!
//! Most tires' tread is wider than their own measuring rim: what counts is how it stands against that. The half-inch
//! rule of hard driving needs a measured tread, and an estimate never warns.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::setup::Setup;
use crate::values::codes::RimWidth;
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity, Source, Step};

/// How far the rim may be from the measuring rim, and for hard driving the tread under the rim's width. Common practice:
/// half an inch.
pub const HALF_INCH: Length = Length::inches(0.5);

/// Where the rule comes from.
pub const SOURCE: Source = Source::common_practice(
    "tread as it stands on the measuring rim, half an inch either way; driven hard: rim − ½ in to rim",
);
const ESTIMATE: Source = Source::estimate("a share of the section width; the maker's figure decides");

pub(super) const RULE: Rule = Rule {
    title: "Tread on its rim",
    source: SOURCE,
    asked: Asked::PerAxle(LineCode::TreadWidth, judge),
    of_car: &[],
};

/// How a tread stands on a rim.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Tread {
    /// As the tire is made for.
    Right,
    /// The rim is so narrow that the sidewall bulges.
    OverTheRim,
    /// The rim is so wide that the tread lies far under it.
    FarUnder,
}

/// How far the tread stands beyond where it does on the measuring rim; + is over the rim. `None` without tire or wheel.
pub fn beyond(setup: &Setup) -> Option<Length> {
    Some(setup.measuring_rim()?.between_flanges() - setup.wheel?.width.between_flanges())
}

/// How far a listed tread stands beyond the rim for hard driving: over the rim's width, or under it by more than half an
/// inch as a negative; zero inside. `None` while no list states the tread.
pub fn beyond_for_hard_driving(setup: &Setup, rim: RimWidth) -> Option<Length> {
    let (tread, true) = setup.tread_width()? else { return None };
    let over = tread - rim.between_flanges();
    Some(if over > Length::ZERO {
        over
    } else if over < -HALF_INCH {
        over + HALF_INCH
    } else {
        Length::ZERO
    })
}

impl Tread {
    /// By how far it stands beyond.
    pub fn of(beyond: Length) -> Self {
        // Half an inch of rim is half an inch, whatever the last bit of its millimetres says.
        let within = HALF_INCH + Length::mm(0.001);
        if beyond > within {
            Self::OverTheRim
        } else if beyond < -within {
            Self::FarUnder
        } else {
            Self::Right
        }
    }

    /// What it means, in a sentence.
    pub fn says(self) -> &'static str {
        match self {
            Self::Right => "The tread stands on the rim as the tire is made for.",
            Self::OverTheRim => "The sidewall bulges under load: vague, squirming, and hot when driven hard.",
            Self::FarUnder => "Harsh over edges, and snappy at the limit.",
        }
    }
}

/// `None` while wheel and tire are not both stated: the tire on its rim says so already.
fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let setup = check.planned;
    let rim = setup.wheel?.width;
    let (tread, is_listed) = setup.tread_width()?;
    let beyond = beyond(setup)?;
    let stands = Tread::of(beyond);
    let (severity, word, says) = match (stands, is_listed) {
        (Tread::Right, true) => (Severity::Good, "right", Phrase::new(stands.says())),
        (Tread::Right, false) => (
            Severity::Good,
            "not listed",
            Phrase::new("The rim is about the measuring rim; how wide the tread is, the maker says."),
        ),
        (_, false) => (
            Severity::Unknown,
            "not known",
            Phrase::new("The tread's width is not listed, and an estimate decides nothing: ask the maker."),
        ),
        (Tread::OverTheRim, true) => (Severity::Mind, "over the rim", Phrase::new(stands.says())),
        (Tread::FarUnder, true) => (Severity::Mind, "far under", Phrase::new(stands.says())),
    };
    let measuring = setup.measuring_rim()?;
    let limit = Phrase::new("as on the measuring rim of ")
        .quantity(Quantity::rim_inches(measuring.code()))
        .text(", half an inch either way");
    let width = Step {
        what: "tread width",
        formula: if is_listed { "as listed" } else { "share of the section width by aspect ratio" },
        inputs: Vec::new(),
        result: Quantity::length(tread),
        source: if is_listed { Source::LISTED } else { ESTIMATE },
    };
    let difference = Step {
        what: "tread beyond the rim, against the measuring rim",
        formula: "measuring rim − rim width",
        inputs: vec![
            ("measuring rim", Quantity::length(measuring.between_flanges())),
            ("rim width", Quantity::length(rim.between_flanges())),
        ],
        result: Quantity::length(beyond).signed(),
        source: SOURCE,
    };
    Some(Finding {
        severity,
        word,
        figure: Some(difference.result),
        limit,
        says,
        caution: None,
        working: vec![width, difference],
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::{line, line_with_parts};
    use crate::setup::catalogue::PickedParts;
    use crate::setup::catalogue::picked::tests::tire_row;

    #[test]
    fn an_estimate_never_warns() {
        for planned in [
            "17x7.5 ET45 225/45R17",
            "16x6.5 ET45 205/55R16",
            "17x8.5 ET45 225/45R17",
            "16x6.5 ET45 225/60R16",
        ] {
            let line = line("tread-width", "17x7.5 ET45 225/45R17", planned, None);
            assert!(line.severity < Severity::Measure, "{planned}: {line:?}");
        }
    }

    #[test]
    fn a_listed_tread_is_judged_as_on_the_measuring_rim() {
        // Common practice, no published source. The measuring rim of 225/45R17 is 7.5 (ISO 4000-1, memory).
        for (rim, word) in
            [("7.5", "right"), ("8", "right"), ("7", "right"), ("6.5", "over the rim"), ("8.5", "far under")]
        {
            let mut row = tire_row("225/45R17 94W");
            row.tread_width = Length::from_mm(205.0);
            let parts = PickedParts { tires: vec![row], ..PickedParts::default() };
            let line =
                line_with_parts(parts, "tread-width", &format!("17x{rim} ET45 225/45R17 94W")).unwrap();
            assert_eq!(line.word, word, "{rim}");
        }
    }
}
