//! Wheels and tires with a turning direction, an inside, or a car maker's mark.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::values::working::{Phrase, Source};

const SOURCE: Source =
    Source::common_practice("turning direction gives lefts and rights; a factory mark is tuned to one car");

pub(super) const RULE: Rule = Rule {
    title: "Direction and mark",
    source: SOURCE,
    asked: Asked::PerAxle(LineCode::Direction, judge),
    of_car: &[],
};

/// `None` while no part was picked for this axle, or none has anything to mind.
fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let parts = &check.case.state.parts;
    let mut says = Vec::new();
    if parts.wheel_of(check.planned).is_some_and(|wheel| wheel.is_directional) {
        says.push(
            "The wheels have a turning direction: order one left and one right for this axle.".to_owned(),
        );
    }
    if let Some(tire) = parts.tire_of(check.planned) {
        if tire.is_directional {
            says.push(
                "The tires have a turning direction: mind the arrow; they change sides only when remounted."
                    .into(),
            );
        }
        if tire.is_asymmetric {
            says.push("The tires have an inside and an outside: mind the marking.".into());
        }
        if !tire.factory_mark.is_empty() {
            says.push(format!(
                "Marked {}: tuned to one car. Another maker's marked version can differ in compound and width.",
                tire.factory_mark
            ));
        }
    }
    if says.is_empty() {
        return None;
    }
    let is_only_sided = says.len() == 1
        && parts
            .tire_of(check.planned)
            .is_some_and(|tire| tire.is_asymmetric && !tire.is_directional && tire.factory_mark.is_empty());
    Some(Finding {
        severity: if is_only_sided { Severity::Good } else { Severity::Mind },
        word: if is_only_sided { "asymmetric" } else { "mind" },
        figure: None,
        limit: Phrase::new("by the picked parts"),
        says: Phrase::new(says.join(" ")),
        caution: None,
        working: Vec::new(),
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use crate::answers::ledger::tests::line_with_parts;
    use crate::setup::catalogue::PickedParts;
    use crate::setup::catalogue::picked::tests::{tire_row, wheel_row};

    #[test]
    fn lefts_and_rights_are_ordered_and_a_directional_staggered_set_does_not_rotate() {
        let staggered = "F: 18x8 ET45 225/40R18 R: 18x8.5 ET45 245/35R18";
        let mut parts = PickedParts {
            wheels: vec![wheel_row("18x8 ET45"), wheel_row("18x8.5 ET45")],
            tires: vec![tire_row("225/40R18"), tire_row("245/35R18")],
        };
        assert!(line_with_parts(parts.clone(), "direction", staggered).is_none());
        let rotation = line_with_parts(parts.clone(), "rotation", staggered).unwrap();
        assert_eq!(rotation.word, "side to side");
        parts.tires[0].is_directional = true;
        parts.wheels[0].is_directional = true;
        let says = format!("{:?}", line_with_parts(parts.clone(), "direction", staggered).unwrap().says);
        assert!(says.contains("one left and one right") && says.contains("the arrow"), "{says}");
        // Common practice: no rotation at all for directional staggered sets.
        assert_eq!(line_with_parts(parts, "rotation", staggered).unwrap().word, "not at all");
    }
}
