//! Room for snow chains on a driven axle.

use super::reach::CAUTION;
use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::car::corner::Feature;
use crate::car::corner::feature::BlocksFrom;
use crate::car::limits::Drive;
use crate::judgement::clearance::Clearance;
use crate::setup::Axle;
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity, Source, Step};

const SOURCE: Source = Source::from_memory("SAE J1232: room over the tread and beside it, by class");

pub(super) const RULE: Rule = Rule {
    title: "Snow chains",
    source: SOURCE,
    asked: Asked::PerAxle(LineCode::Chains, judge),
    of_car: &[],
};

/// Which way there is room.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Way {
    Over,
    Beside,
}

impl Way {
    fn words(self) -> &'static str {
        match self {
            Self::Over => "over the tread",
            Self::Beside => "beside the tire, inboard",
        }
    }
}

/// The least room that was read one way; `None` where nobody read any.
fn room(check: &AxleCheck<'_>, way: Way) -> Option<Length> {
    let is_that_way = |line: &&Clearance| match (line.feature, line.feature.blocks_from()) {
        (Feature::Arch, _) => way == Way::Over,
        (_, BlocksFrom::Inboard) => way == Way::Beside,
        _ => false,
    };
    let lines = check.fit?.clearances.iter().filter(is_that_way);
    let rooms = lines.filter_map(|line| Some(line.band.as_ref()?.likely_low()));
    rooms.reduce(|a, b| if b < a { b } else { a })
}

/// `None` where no chains are wished, and on an axle that is not driven.
fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let class = check.case.state.purpose.chains?;
    let is_driven = match check.case.drive {
        Some(Drive::Front) => check.axle.axle == Axle::Front,
        Some(Drive::Rear) => check.axle.axle == Axle::Rear,
        Some(Drive::All) | None => true,
    };
    if !is_driven {
        return None;
    }
    let (over, beside) = class.room_mm();
    let wanted = [(Way::Over, Length::mm(over)), (Way::Beside, Length::mm(beside))];
    let limit = Phrase::new(format!("class {}: ", class.code()))
        .quantity(Quantity::length(wanted[0].1))
        .text(" over the tread, ")
        .quantity(Quantity::length(wanted[1].1))
        .text(" beside it");
    let found = wanted.map(|(way, least)| (way, least, room(check, way)));
    let short = found
        .iter()
        .find_map(|(way, least, room)| Some((*way, *least, (*room).filter(|room| room < least)?)));
    let unread = found.iter().find(|(.., room)| room.is_none());
    let (severity, word, says, figure) = match (short, unread) {
        (Some((way, least, room)), _) => (
            Severity::Stop,
            "no room",
            Phrase::new(format!("Chains of class {} need ", class.code()))
                .quantity(Quantity::length(least))
                .text(format!(" {}; there is ", way.words()))
                .quantity(Quantity::length(room))
                .text(", likely at least: another set for chains, or none."),
            Some(room),
        ),
        (None, Some((way, least, _))) => (
            Severity::Measure,
            "measure first",
            Phrase::new(format!(
                "Nobody read the room {}: chains of class {} need ",
                way.words(),
                class.code()
            ))
            .quantity(Quantity::length(*least))
            .text("."),
            None,
        ),
        (None, None) => (
            Severity::Mind,
            "goes on",
            Phrase::new(
                "There is room for the class: try them on before winter, and hold to the chain maker's list of sizes.",
            ),
            found[1].2,
        ),
    };
    Some(Finding {
        severity,
        word,
        figure: figure.map(Quantity::length),
        limit,
        says,
        caution: Some(CAUTION),
        working: figure.map_or_else(Vec::new, |room| {
            vec![Step {
                what: "least room that way",
                formula: "the tightest of what was read, likely at least",
                inputs: Vec::new(),
                result: Quantity::length(room),
                source: Source::GEOMETRY,
            }]
        }),
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use crate::answers::ledger::tests::line_in_state;
    use crate::car::corner::{Corner, Corners, Feature, Reading};
    use crate::car::lever::PairLevers;
    use crate::judgement::case::CarState;
    use crate::judgement::purpose::{ChainClass, Purpose};
    use crate::judgement::rules::Severity;
    use crate::values::length::Length;

    #[test]
    fn chains_want_room_over_the_tread_and_beside_it() {
        // SAE J1232, from memory: class S 37 mm over the tread, 15 beside it; U 50 and 23.
        const FITTED: &str = "17x7.5 ET45 225/45R17 94W";
        let severity = |class, arch: f64, strut: Option<f64>| {
            let on = FITTED.parse().unwrap();
            let read = |feature, gap: f64| Reading::new(feature, Length::mm(gap), Length::mm(0.5), on);
            let mut readings = vec![read(Feature::Arch, arch)];
            readings.extend(strut.map(|gap| read(Feature::Strut, gap)));
            let corner = || Corner { readings: readings.clone(), ..Corner::default() };
            let corners = Corners { front: corner(), rear: corner() };
            let mut state = CarState::new(corners, PairLevers::default(), (None, None));
            state.purpose = Purpose { chains: class, ..Purpose::default() };
            line_in_state(state, "chains", FITTED, FITTED).map(|line| line.severity)
        };
        assert_eq!(severity(None, 60.0, Some(30.0)), None, "nobody wants chains");
        let s = Some(ChainClass::S);
        assert_eq!(severity(s, 60.0, Some(30.0)), Some(Severity::Mind));
        assert_eq!(severity(s, 60.0, Some(12.0)), Some(Severity::Stop));
        assert_eq!(severity(s, 30.0, Some(30.0)), Some(Severity::Stop));
        assert_eq!(severity(s, 60.0, None), Some(Severity::Measure));
        assert_eq!(severity(Some(ChainClass::U), 60.0, Some(20.0)), Some(Severity::Stop));
    }
}
