//! How much further the setup reaches toward the strut and toward the fender.
//!
//! Without readings from the bay only the change is known. The line then says what gap must be found.

use super::{Check, Corner, Finding, Rule, Standing};
use crate::length::Length;
use crate::working::{Figure, Phrase, Quantity, Source};

const SOURCE: Source =
    Source::common_practice("change of reach by geometry; what the car leaves free is measured on the car");

pub(super) const INNER: Check = Check {
    code: "inner-change",
    title: "Toward the strut",
    source: SOURCE,
    rule: Rule::PerAxle(|corner| {
        Some(judge(corner, corner.change.inner.as_ref(), corner.plan.limits.strut_gap, "tire and strut"))
    }),
};

pub(super) const OUTER: Check = Check {
    code: "outer-change",
    title: "Toward the fender",
    source: SOURCE,
    rule: Rule::PerAxle(|corner| {
        Some(judge(
            corner,
            corner.change.outer.as_ref(),
            corner.plan.limits.fender_gap,
            "tire and fender lip",
        ))
    }),
};

const CAUTION: &str = "Never trust a plan over a trial fit: turn lock to lock and load the suspension before \
                       the first drive. A tire that touches can fail.";

fn judge(corner: &Corner<'_>, change: Option<&Figure>, least: Length, between: &'static str) -> Finding {
    let Some(change) = change else {
        return Finding::unknown(missing(corner));
    };
    let further = change.value();
    let limit = Phrase::new("house minimum ").quantity(Quantity::length(least));
    let needs_room = further > 0.0;
    let (standing, word, says) = if needs_room {
        let says = Phrase::new("Find ")
            .quantity(Quantity::length(Length::mm(further)))
            .text(" between ")
            .text(between)
            .text(", and ")
            .quantity(Quantity::length(least))
            .text(" more to keep the house minimum: ")
            .quantity(Quantity::length(Length::mm(further) + least))
            .text(" with the fitted wheel.");
        (Standing::Measure, "measure first", says)
    } else if further < 0.0 {
        let says = Phrase::new("Leaves ")
            .quantity(Quantity::length(Length::mm(-further)))
            .text(" more room between ")
            .text(between)
            .text(" than the fitted wheel.");
        (Standing::Good, "no closer", says)
    } else {
        (Standing::Good, "no closer", Phrase::new("Reaches exactly as far as the fitted wheel."))
    };
    Finding {
        standing,
        word,
        figure: Some(change.quantity),
        limit,
        says,
        caution: needs_room.then_some(CAUTION),
        working: change.working.clone(),
    }
}

fn missing(corner: &Corner<'_>) -> &'static str {
    if corner.fitted.effective_offset().is_none() {
        "The fitted wheel's offset is not stated."
    } else if corner.planned.effective_offset().is_none() {
        "The planned wheel's offset is not stated."
    } else if corner.fitted.tire.is_none() {
        "The fitted tire is not stated."
    } else {
        "The planned tire is not stated."
    }
}

#[cfg(test)]
mod tests {
    use super::super::tests::line;
    use super::*;

    #[test]
    fn the_gap_to_find_is_the_change_and_the_house_minimum() {
        // 7.5 in ET32 → 8.5 in ET30: 10.7 mm further in at the rim (common practice). The tires are chosen
        // so that they follow the rims: 0.4 of an inch wider by name stands 10.7 mm further in as well.
        let line = line("inner-change", "17x7.5 ET32 225/45R17", "17x8.5 ET30 245/40R17", None);
        assert_eq!((line.standing, line.word), (Standing::Measure, "measure first"));
        // 245/40 on 8.5: 245 mm; 225/45 on 7.5: 225 mm; (245 − 225)/2 − 2 = 8.0.
        assert!((line.figure.unwrap().value - 8.0).abs() < 1e-9);
        assert!(line.caution.is_some());
    }

    #[test]
    fn moving_away_needs_no_measuring() {
        let line = line("inner-change", "17x7.5 ET45 225/45R17", "17x7.5 ET35 225/45R17", None);
        assert_eq!((line.standing, line.word), (Standing::Good, "no closer"));
        assert_eq!(line.figure.unwrap().value, -10.0);
    }
}
