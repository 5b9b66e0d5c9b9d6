//! Tread width against rim width.

use super::{Asked, AxleCheck, Finding, Rule, Severity};
use crate::length::Length;
use crate::tire::rims::estimated_tread_width;
use crate::working::{Phrase, Quantity, Source, Step};

/// How far under the rim's width the tread may be. Common practice: half an inch.
const NARROWER_BY: Length = Length::inches(0.5);

const SOURCE: Source = Source::common_practice("tread between rim width − ½ in and rim width");
const ESTIMATE: Source = Source::estimate("a share of the section width; the maker's figure decides");
const LISTED: Source =
    Source { kind: crate::working::SourceKind::Measured, cite: "the price list's tread width" };

pub(super) const RULE: Rule =
    Rule { code: "tread-width", title: "Tread on its rim", source: SOURCE, asked: Asked::PerAxle(judge) };

/// `None` while wheel and tire are not both stated: the tire on its rim says so already.
fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let (wheel, tire) = (check.planned.wheel?, check.planned.tire?);
    let listed = check.case.state.parts.tire_of(check.planned).and_then(|row| row.tread_width);
    let tread = listed.unwrap_or_else(|| estimated_tread_width(&tire.size));
    let rim = wheel.width.between_flanges();
    let over = tread - rim;
    let (standing, word, says) = if over > Length::ZERO {
        (
            Severity::Mind,
            "over the rim",
            "The sidewall bulges under load: vague, squirming, and hot when driven hard.",
        )
    } else if over < -NARROWER_BY {
        (Severity::Mind, "far under", "Harsh over edges, and snappy at the limit.")
    } else {
        (Severity::Good, "right", "The tread stands square on the rim.")
    };
    let says = match listed {
        Some(_) => Phrase::new(says),
        None => Phrase::new(says).text(" The tread width is estimated: the maker's figure decides."),
    };
    let limit = Phrase::new("from ")
        .quantity(Quantity::length(rim - NARROWER_BY))
        .text(" to ")
        .quantity(Quantity::length(rim));
    let width = Step {
        what: "tread width",
        formula: if listed.is_some() { "as listed" } else { "share of the section width by aspect ratio" },
        put_in: vec![("S", Quantity::length(tire.size.named_section_width()))],
        gives: Quantity::length(tread),
        source: if listed.is_some() { LISTED } else { ESTIMATE },
    };
    let difference = Step {
        what: "tread beyond the rim's width",
        formula: "tread − rim width",
        put_in: vec![("tread", Quantity::length(tread)), ("rim width", Quantity::length(rim))],
        gives: Quantity::length(over).signed(),
        source: SOURCE,
    };
    Some(Finding {
        standing,
        word,
        figure: Some(difference.gives),
        limit,
        says,
        caution: None,
        working: vec![width, difference],
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::catalogue::PickedParts;
    use crate::catalogue::picked::tests::tire_row;
    use crate::ledger::tests::{line, line_with_parts};

    #[test]
    fn the_makers_tread_width_beats_the_estimate() {
        // Common practice, no source: on 8.5 in (215.9 mm) a tread of 203.2 to 215.9 mm is right.
        for (tread, word) in
            [(203.3, "right"), (215.8, "right"), (216.0, "over the rim"), (203.0, "far under")]
        {
            let mut row = tire_row("235/40R18 95Y");
            row.tread_width = Some(Length::mm(tread));
            let parts = PickedParts { tires: vec![row], ..PickedParts::default() };
            let line = line_with_parts(parts, "tread-width", "18x8.5 ET40 235/40R18 95Y").unwrap();
            assert_eq!(line.word, word, "{tread}");
            assert!((line.figure.unwrap().value - (tread - 215.9)).abs() < 1e-9);
        }
    }

    #[test]
    fn an_estimate_says_that_it_is_one() {
        let line = line("tread-width", "17x7.5 ET45 225/45R17", "18x8.5 ET40 235/40R18", None);
        assert_eq!(line.working[0].source, ESTIMATE);
        // 0.88 × 235 = 206.8 mm on 215.9 mm.
        assert!((line.figure.unwrap().value + 9.1).abs() < 1e-9);
    }
}
