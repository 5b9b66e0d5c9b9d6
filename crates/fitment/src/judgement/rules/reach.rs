//! How much further the setup reaches toward the strut and toward the fender.
//!
//! Without readings from the bay only the change is known. The line then says what gap must be found.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::car::corner::Feature;
use crate::judgement::clearance::{MountedSetup, must_find};
use crate::values::length::Length;
use crate::values::working::{Figure, Phrase, Quantity, Source};

const SOURCE: Source =
    Source::common_practice("change of reach by geometry; what the car leaves free is measured on the car");

pub(super) const INNER: Rule = Rule {
    title: "Toward the strut",
    source: SOURCE,
    asked: Asked::PerAxle(LineCode::InnerChange, |check| {
        judge(check, check.change.inner.as_ref(), Feature::Strut)
    }),
    of_car: &[],
};

pub(super) const OUTER: Rule = Rule {
    title: "Toward the fender",
    source: SOURCE,
    asked: Asked::PerAxle(LineCode::OuterChange, |check| {
        judge(check, check.change.outer.as_ref(), Feature::FenderLateral)
    }),
    of_car: &[],
};

pub(super) const CAUTION: &str = "Never trust a plan over a trial fit: turn lock to lock and load the suspension before \
                       the first drive. A tire that touches can fail.";

/// `None` once the part was read: its own line then says how much room there is.
fn judge(check: &AxleCheck<'_>, change: Option<&Figure>, part: Feature) -> Option<Finding> {
    if check.axle.resolved.knows(part) {
        return None;
    }
    let Some(change) = change else {
        return Some(Finding::unknown(missing(check)));
    };
    let further = change.value();
    let least = check.axle.least(part);
    let between = part.facts().between;
    let limit = Phrase::new("house minimum ").quantity(Quantity::length(least));
    let needs_room = further > 0.0;
    let (severity, word, says) = if needs_room {
        let says = gap_to_find(check, part, Length::mm(further));
        (Severity::Measure, "measure first", says)
    } else if further < 0.0 {
        let says = Phrase::new("Leaves ")
            .quantity(Quantity::length(Length::mm(-further)))
            .text(" more room between ")
            .text(between)
            .text(" than the fitted wheel.");
        (Severity::Good, "no closer", says)
    } else {
        (Severity::Good, "no closer", Phrase::new("Reaches exactly as far as the fitted wheel."))
    };
    let (rim, tire) = match part {
        Feature::Strut => (&check.change.inner_rim, &check.change.inner_tire),
        _ => (&check.change.outer_rim, &check.change.outer_tire),
    };
    let mut working = change.working.clone();
    working.extend([rim, tire].into_iter().flatten().flat_map(|figure| figure.working.clone()));
    Some(Finding {
        severity,
        word,
        figure: Some(change.quantity),
        limit,
        says: edge_by_edge(says, rim.as_ref(), tire.as_ref()),
        caution: needs_room.then_some(CAUTION),
        working,
        points: Vec::new(),
    })
}

/// The bare wheel's edge moves by other millimetres than the tire's: both are told wherever one is.
fn edge_by_edge(says: Phrase, rim: Option<&Figure>, tire: Option<&Figure>) -> Phrase {
    let moved = |figure: &Figure| Quantity { signed: true, ..figure.quantity };
    match (rim, tire) {
        (Some(rim), Some(tire)) => says
            .text(" Rim to rim ")
            .quantity(moved(rim))
            .text(", tire to tire ")
            .quantity(moved(tire))
            .text("."),
        _ => says,
    }
}

/// What must be found on the car, and what it is made of.
pub(super) fn gap_to_find(check: &AxleCheck<'_>, part: Feature, nearer: Length) -> Phrase {
    let least = check.axle.least(part);
    let camber = check.axle.planned_camber();
    // The fit asked for it already where the plan comes nearer than anything that ran clean.
    let asked = check.fit.as_ref().and_then(|fit| fit.line(part)?.must_find);
    let find = asked.unwrap_or_else(|| match MountedSetup::of(check.planned, camber) {
        Some(stand) => must_find(&check.axle, part, nearer.as_mm(), &stand),
        None => nearer + least,
    });
    Phrase::new("Find ")
        .quantity(Quantity::length(find))
        .text(format!(" between {} with the fitted wheel: ", part.facts().between))
        .quantity(Quantity::length(nearer))
        .text(" that the plan comes nearer, ")
        .quantity(Quantity::length(least))
        .text(" to keep, ")
        .quantity(Quantity::length(find - nearer - least))
        .text(" for what tires and a steel rule may be off.")
}

fn missing(check: &AxleCheck<'_>) -> &'static str {
    if check.fitted.effective_offset().is_none() {
        "The fitted wheel's offset is not stated."
    } else if check.planned.effective_offset().is_none() {
        "The planned wheel's offset is not stated."
    } else if check.fitted.tire.is_none() {
        "The fitted tire is not stated."
    } else {
        "The planned tire is not stated."
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line;

    #[test]
    fn the_gap_to_find_is_the_change_and_the_house_minimum() {
        // 7.5 in ET32 → 8.5 in ET30: 10.7 mm further in at the rim (common practice). The tires are chosen
        // so that they follow the rims: 0.4 of an inch wider by name stands 10.7 mm further in as well.
        let line = line("inner-change", "17x7.5 ET32 225/45R17", "17x8.5 ET30 245/40R17", None);
        assert_eq!((line.severity, line.word), (Severity::Measure, "measure first"));
        // 245/40 on 8.5: 245 mm; 225/45 on 7.5: 225 mm; (245 − 225)/2 − 2 = 8.0.
        assert!((line.figure.unwrap().value - 8.0).abs() < 1e-9);
        assert!(line.caution.is_some());
    }

    #[test]
    fn moving_away_needs_no_measuring() {
        let line = line("inner-change", "17x7.5 ET45 225/45R17", "17x7.5 ET35 225/45R17", None);
        assert_eq!((line.severity, line.word), (Severity::Good, "no closer"));
        assert_eq!(line.figure.unwrap().value, -10.0);
    }
}
