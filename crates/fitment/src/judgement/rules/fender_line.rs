//! How rim and tire stand to the fender line, and whether that is what the owner wants to see.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::car::style::{COVERAGE_CAUTION, SOURCE, STANCE_CAUTION, Style, StyleReading, StyleTarget};
use crate::judgement::clearance::style;
use crate::values::working::{Phrase, Quantity, Source, Step};

pub(super) const RULE: Rule = Rule {
    title: "At the fender line",
    source: SOURCE,
    asked: Asked::PerAxle(LineCode::Style, judge),
    of_car: &[],
};

fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let reading = style(&check.axle, check.planned)?;
    let wanted = check.case.state.wanted(check.axle.axle);
    let beyond = Quantity::length(reading.beyond()).signed();
    let meets = wanted.map(|target| meets(&reading, target, check));
    let severity = match meets {
        Some(true) | None if reading.style != Style::Poke => Severity::Good,
        Some(true) if !reading.is_stance => Severity::Good,
        _ => Severity::Mind,
    };
    let limit = match wanted {
        Some(target) => Phrase::new(format!("wanted {}, within ", target.style.word()))
            .quantity(Quantity::length(target.within.unwrap_or(check.case.limits.flush_within))),
        None => Phrase::new("flush within ").quantity(Quantity::length(check.case.limits.flush_within)),
    };
    let caution = if reading.is_stance || wanted.is_some_and(|target| target.is_show) {
        Some(STANCE_CAUTION)
    } else {
        (reading.style != Style::Tucked).then_some(COVERAGE_CAUTION)
    };
    Some(Finding {
        severity,
        word: reading.style.word(),
        figure: Some(beyond),
        limit,
        says: says(&reading, meets, wanted),
        caution,
        working: working(&reading),
        points: Vec::new(),
    })
}

fn meets(reading: &StyleReading, target: StyleTarget, check: &AxleCheck<'_>) -> bool {
    let (least, most) = target.beyond(check.case.limits);
    let beyond = reading.beyond();
    least.is_none_or(|least| beyond >= least) && most.is_none_or(|most| beyond <= most)
}

fn says(reading: &StyleReading, meets: Option<bool>, wanted: Option<StyleTarget>) -> Phrase {
    let stands = |phrase: Phrase, what: &str, beyond: crate::Length, style: Style| {
        phrase
            .text(format!("{what} {}, ", style.word()))
            .quantity(Quantity::length(beyond.abs()))
            .text(if beyond.as_mm() > 0.0 { " outside the lip" } else { " inside the lip" })
    };
    let mut phrase = stands(Phrase::new(""), "Rim", reading.rim_beyond, reading.each.0);
    if let Some((beyond, style)) = reading.tire_beyond.zip(reading.each.1) {
        phrase = stands(phrase.text("; "), "tire", beyond, style);
    }
    let phrase = phrase.text(".");
    match (meets, wanted) {
        (Some(false), Some(target)) => phrase
            .text(format!(" Wanted is {}: the window shows the offsets that give it.", target.style.word())),
        _ => phrase,
    }
}

fn working(reading: &StyleReading) -> Vec<Step> {
    let step = |what, formula, result: crate::Length| Step {
        what,
        formula,
        inputs: Vec::new(),
        result: Quantity::length(result).signed(),
        source: Source::GEOMETRY,
    };
    let mut steps = vec![step(
        "rim flange beyond the fender line",
        "y_c + (W / 2 + 12.7)·cos γ + r·sin γ − y_lip",
        reading.rim_beyond,
    )];
    if let Some(tire) = reading.tire_beyond {
        steps.push(step("tire sidewall beyond the fender line", "y_c + S / 2·cos γ + r·sin γ − y_lip", tire));
    }
    steps.push(step("whichever stands further out", "max (rim, tire)", reading.beyond()));
    steps
}
