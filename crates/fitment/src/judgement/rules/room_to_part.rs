//! A line for each part of the car that was read: the room to it, how sure that is, and the house minimum.

use super::reach::CAUTION;
use super::{Asked, Finding, Rule, Severity};
use crate::car::corner::feature::BlocksFrom;
use crate::car::corner::{CarSide, Feature};
use crate::judgement::clearance::{Clearance, Input, PastTheLip, Uncertainty, Verdict, quick_rule};
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity, Source, SourceKind, Step};

const SOURCE: Source =
    Source { kind: SourceKind::Measured, cite: "read in the bay, carried over by geometry" };

pub(super) const RULE: Rule = Rule {
    title: "Room to what was measured",
    source: SOURCE,
    asked: Asked::PerPart(|check| {
        let lines = check.fit.iter().flat_map(|fit| &fit.clearances);
        lines.filter_map(|line| Some((line.feature, judge(line)?))).collect()
    }),
    of_car: &[],
};

const BRAKE_CAUTION: &str = "Turn the bare wheel by hand through a full turn before it is fastened and driven: a caliper that touches locks a wheel.";

const PAST_THE_LIP_CAUTION: &str = "A tire outside the lip is cut by it when the suspension travels further than thought: load it to the stops and look. \
    A tread that is not covered is unlawful in many places; a licensed inspector has the last word.";

/// `None` where the lines about reach and arch say what must be found.
fn judge(line: &Clearance) -> Option<Finding> {
    if let Some(past) = &line.past_the_lip {
        return Some(outside_the_lip(line, past));
    }
    let Some(band) = &line.band else { return not_known(line) };
    let is_torn = line.obstacle.is_some_and(|obstacle| obstacle.is_contradicted);
    let severity = line.verdict.severity();
    let least = Phrase::new("house minimum ").quantity(Quantity::length(line.limit));
    let least = match line.as_read {
        Some((room, way)) => least
            .text(" the nearest way (")
            .quantity(Quantity::length(room))
            .text(format!(" {} as read)", way.words())),
        None => least,
    };
    let limit = least
        .text(", likely ")
        .quantity(Quantity::length(band.likely_low()))
        .text(" to ")
        .quantity(Quantity::length(band.likely_high()));
    let bears = line.feature.blocks_from();
    Some(Finding {
        severity,
        word: line.verdict.word(),
        figure: Some(Quantity::length(band.nominal)),
        limit,
        says: says(line, band, is_torn),
        caution: (line.verdict != Verdict::Clears).then_some(match bears {
            BlocksFrom::Barrel | BlocksFrom::Spoke => BRAKE_CAUTION,
            _ => CAUTION,
        }),
        working: working(line, band),
        points: Vec::new(),
    })
}

/// A wheel that stands outside of the lip as it is meant to: what is left under the lip's edge at full bump.
fn outside_the_lip(line: &Clearance, past: &PastTheLip) -> Finding {
    let length = Quantity::length;
    let stands = match past.outside_by {
        by if by > Length::ZERO => {
            Phrase::new("It stands ").quantity(length(by)).text(" outside the lip, as wanted")
        }
        by => Phrase::new("It stands ")
            .quantity(length(-by))
            .text(" inside the lip, too near to go up beside it"),
    };
    let bump = |phrase: Phrase| {
        let phrase = phrase.quantity(length(past.bump)).text(" of bump travel");
        if past.is_bump_measured { phrase } else { phrase.text(" (usual; nobody measured it)") }
    };
    let says = match &line.band {
        Some(band) if band.nominal > Length::ZERO => bump(stands.text(": after "))
            .text(" there is ")
            .quantity(length(band.nominal))
            .text(" left between the tread and the lip's edge, likely at least ")
            .quantity(length(band.likely_low()))
            .text("."),
        Some(band) => bump(stands.text(": "))
            .text(" brings the tread past the lip's edge by ")
            .quantity(length(-band.nominal))
            .text("."),
        None => stands.text(": what decides is the gap under the arch, and nobody read it."),
    };
    let says = match line.must_find {
        Some(gap) => says
            .text(" With the fitted wheel the gap under the arch must be ")
            .quantity(length(gap))
            .text(", or the bump travel less."),
        None => says,
    };
    let working = line.band.as_ref().map(|band| {
        let mut steps = vec![Step {
            what: "room under the lip's edge at full bump",
            formula: "gap under the arch with the plan − bump travel left",
            inputs: vec![("gap", length(band.nominal + past.bump)), ("bump", length(past.bump))],
            result: length(band.nominal),
            source: Source::GEOMETRY,
        }];
        steps.extend(what_may_be_off(band));
        steps
    });
    Finding {
        severity: line.verdict.severity(),
        word: line.verdict.word(),
        figure: line.band.as_ref().map(|band| length(band.nominal)),
        limit: Phrase::new("house minimum ").quantity(length(line.limit)).text(" at full bump"),
        says,
        caution: Some(PAST_THE_LIP_CAUTION),
        working: working.unwrap_or_default(),
        points: Vec::new(),
    }
}

/// A part that decides and of which nothing usable was read.
fn not_known(line: &Clearance) -> Option<Finding> {
    if matches!(line.feature, Feature::Strut | Feature::FenderLateral | Feature::Arch) {
        return None;
    }
    let facts = line.feature.facts();
    let says = match (line.must_find, line.obstacle) {
        (Some(must_find), _) => Phrase::new("Nobody read it, and the plan comes nearer: find ")
            .quantity(Quantity::length(must_find))
            .text(format!(" between {} with the fitted wheel.", facts.between)),
        (None, Some(_)) => Phrase::new(
            "What was read there says nothing of another wheel's spokes: measure the new wheel's inside, or try it on bare.",
        ),
        (None, None) => Phrase::new(
            "Nobody knows yet: another wheel's inside is another shape. Measure brake and wheel, or try the wheel on bare.",
        ),
    };
    let is_of_the_brake = line.feature.is_of_the_brake();
    Some(Finding {
        severity: Severity::Measure,
        word: Verdict::MeasureFirst.word(),
        figure: None,
        limit: Phrase::new("house minimum ").quantity(Quantity::length(line.limit)),
        says,
        caution: Some(if is_of_the_brake { BRAKE_CAUTION } else { CAUTION }),
        working: Vec::new(),
        points: Vec::new(),
    })
}

fn says(line: &Clearance, band: &Uncertainty, is_torn: bool) -> Phrase {
    let facts = line.feature.facts();
    let length = Quantity::length;
    let side = match line.obstacle.and_then(|obstacle| obstacle.side) {
        Some(CarSide::Left) => " on the left",
        Some(CarSide::Right) => " on the right",
        None => "",
    };
    if is_torn && line.verdict == Verdict::MeasureFirst {
        return Phrase::new(format!(
            "Two readings of the {} contradict each other{side} by more than their ±, and they lead to different answers: read it again. By the nearer one there is room for ",
            facts.name
        ))
        .quantity(length(band.nominal))
        .text(".");
    }
    let says = match line.verdict {
        Verdict::Touches => Phrase::new(format!("The plan and the {} overlap{side} by ", facts.name))
            .quantity(length(-band.nominal))
            .text(if line.feature == Feature::FenderLateral { ": it stands outside the lip." } else { "." }),
        Verdict::Tight => {
            Phrase::new(format!("There is room to the {}{side}, but it may be as little as ", facts.name))
                .quantity(length(band.likely_low()))
                .text(" (at worst ")
                .quantity(length(band.worst_low()))
                .text("): under the house minimum of ")
                .quantity(length(line.limit))
                .text(".")
        }
        Verdict::Clears | Verdict::MeasureFirst => Phrase::new("Likely at least ")
            .quantity(length(band.likely_low()))
            .text(format!(" to the {}{side}, at worst ", facts.name))
            .quantity(length(band.worst_low()))
            .text("."),
    };
    let is_of_one_side = band.contributions.iter().any(|one| one.input == Input::OtherSide);
    match line.obstacle.and_then(|obstacle| obstacle.side).filter(|_| is_of_one_side) {
        Some(CarSide::Left) => says.text(" It was read on the left only: the right may be nearer."),
        Some(CarSide::Right) => says.text(" It was read on the right only: the left may be nearer."),
        None => says,
    }
}

/// The reading, what the plan takes of it, what may be off (largest first), and the band that makes.
fn working(line: &Clearance, band: &Uncertainty) -> Vec<Step> {
    let mut steps = Vec::with_capacity(band.contributions.len() + 4);
    if let Some(obstacle) = line.obstacle {
        let reading = obstacle.reading;
        let (what, formula) = match reading.on {
            Some(_) => ("gap read with the fitted wheel", "as read"),
            None => ("distance read from the bare hub", "as read"),
        };
        steps.push(Step {
            what,
            formula,
            inputs: vec![("±", Quantity::length(reading.plus_minus))],
            result: Quantity::length(reading.gap),
            source: SOURCE,
        });
        let (formula, source) = match (line.feature.blocks_from(), reading.steer.is_at_lock()) {
            (BlocksFrom::AheadOrBehind, true) => {
                ("gap − larger radius − its share of the extra poke", quick_rule::SOURCE)
            }
            (BlocksFrom::AheadOrBehind, false) => ("gap − larger radius", Source::GEOMETRY),
            (BlocksFrom::Above, _) => ("arch lip − top of the planned tire", Source::GEOMETRY),
            (BlocksFrom::Barrel, _) => (
                "gap + larger bead seat radius",
                Source::estimate("rim code alone: the barrel's own shape is not known"),
            ),
            (BlocksFrom::Spoke, _) => ("gap + spacer", Source::GEOMETRY),
            (BlocksFrom::Inboard | BlocksFrom::Outboard, _) => {
                ("smallest distance from the planned section to where the part begins", Source::GEOMETRY)
            }
        };
        steps.push(Step {
            what: "room with the plan",
            formula,
            inputs: vec![("gap", Quantity::length(reading.gap))],
            result: Quantity::length(band.nominal),
            source,
        });
    }
    if line.obstacle.is_none() {
        steps.push(Step {
            what: "room by the profiles of brake and wheel",
            formula: "smallest distance between the two outlines",
            inputs: Vec::new(),
            result: Quantity::length(band.nominal),
            source: Source::GEOMETRY,
        });
    }
    steps.extend(what_may_be_off(band));
    steps
}

/// What may be off (largest first), and the band that makes.
fn what_may_be_off(band: &Uncertainty) -> Vec<Step> {
    let mut steps: Vec<Step> = Vec::with_capacity(band.contributions.len() + 3);
    steps.extend(band.contributions.iter().map(|one| Step {
        what: one.what(),
        formula: if one.up == one.down {
            "may be off, either way"
        } else {
            "may be off, more or less one way"
        },
        inputs: vec![("less by", Quantity::length(one.down)), ("more by", Quantity::length(one.up))],
        result: Quantity::length(one.plus_minus()),
        source: one.source,
    }));
    let likely = Quantity::length(band.likely());
    steps.push(Step {
        what: "likely band, toward the part",
        formula: "√ (sum of squares)",
        inputs: Vec::new(),
        result: likely,
        source: Source::GEOMETRY,
    });
    steps.push(Step {
        what: "worst case, toward the part",
        formula: "straight sum",
        inputs: Vec::new(),
        result: Quantity::length(band.worst()),
        source: Source::GEOMETRY,
    });
    steps.push(Step {
        what: "likely low, held against the house minimum",
        formula: "room − likely band",
        inputs: vec![("room", Quantity::length(band.nominal)), ("band", likely)],
        result: Quantity::length(band.likely_low()),
        source: Source::GEOMETRY,
    });
    steps
}
