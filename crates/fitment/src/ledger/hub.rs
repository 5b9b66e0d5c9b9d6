//! Whether the planned wheel goes on the hub, and what must be ordered with it.

use super::{Check, Corner, Finding, Rule, Standing};
use crate::car::Fact;
use crate::codes::CenterBore;
use crate::hub::{self, Hub, Mounting, ProblemKind, WheelSide, mount};
use crate::length::Length;
use crate::working::Phrase;

pub(super) const CHECK: Check =
    Check { code: "hub", title: "On the hub", source: hub::SOURCE, rule: Rule::PerAxle(judge) };

const CAUTION: &str = "A wheel on the wrong bolt circle, hub or seat works loose and comes off. Torque by the car's own \
     data, and retorque after the first drive.";

/// `None` while neither the car nor any wheel names a bolt circle or a bore: there is nothing to hold together.
fn judge(corner: &Corner<'_>) -> Option<Finding> {
    let wheel = corner.planned.wheel?;
    let hub = hub_of(corner);
    if hub == Hub::default() && wheel.bolt_circle.is_none() && wheel.center_bore.is_none() {
        return None;
    }
    let side = WheelSide {
        bore: wheel.center_bore,
        bolt_circles: wheel.bolt_circle.into_iter().collect(),
        seat: None,
    };
    Some(found(mount(&hub, &side, corner.planned.spacer, None)))
}

/// The car's side: its record, and for the bolt circle else the fitted wheel's.
fn hub_of(corner: &Corner<'_>) -> Hub {
    let car = &corner.plan.bay.car;
    let axle = Some(corner.trial.axle);
    let written = car.words(Fact::BoltCircle, None).and_then(hub::read_circle);
    Hub {
        bore: car.number(Fact::HubBore, axle).and_then(CenterBore::from_mm),
        lip: car.number(Fact::HubLip, axle).and_then(Length::from_mm),
        bolt_circle: written.or(corner.fitted.wheel.and_then(|wheel| wheel.bolt_circle)),
        thread: None,
        seat: None,
    }
}

fn found(mounting: Mounting) -> Finding {
    // A setup line names no seat and no thread: those belong to the wheel's row and to the order.
    let problems: Vec<_> =
        mounting.problems.into_iter().filter(|one| !matches!(one.code, "seat" | "thread")).collect();
    let worst = problems.iter().map(|one| one.kind).max();
    let (standing, word) = match worst {
        Some(ProblemKind::Stop) => (Standing::Stop, "does not go on"),
        Some(ProblemKind::Mind) => (Standing::Mind, "needs parts"),
        Some(ProblemKind::Unknown) => (Standing::Unknown, "not known"),
        None => (Standing::Good, "goes on"),
    };
    let says = if problems.is_empty() {
        Phrase::new(
            "Bolt circle and bore match. Seat and thread are held against the wheel before it is ordered.",
        )
    } else {
        let sentences: Vec<String> = problems.into_iter().map(|one| one.says).collect();
        Phrase::new(sentences.join(" "))
    };
    Finding {
        standing,
        word,
        figure: None,
        limit: Phrase::new("bolt circle exactly, bore at least the hub's"),
        says,
        caution: matches!(standing, Standing::Stop | Standing::Mind).then_some(CAUTION),
        working: Vec::new(),
    }
}

#[cfg(test)]
mod tests {
    use super::super::tests::line_on;
    use super::*;
    use crate::car::Car;

    fn car(bore: &str) -> Car {
        let mut car = Car::default();
        car.note(Fact::BoltCircle, None, "5x112").unwrap();
        car.note(Fact::HubBore, Some(crate::Axle::Front), bore).unwrap();
        car
    }

    #[test]
    fn what_goes_on_and_what_does_not() {
        // Common practice, no published source.
        for (planned, standing) in [
            ("18x8 ET45 5x112 CB57.1 225/40R18", Standing::Good),
            ("18x8 ET45 5x112 CB66.6 225/40R18", Standing::Mind),
            ("18x8 ET45 5x112 CB57.1 225/40R18 5 mm spacer", Standing::Mind),
            ("18x8 ET45 5x114.3 CB57.1 225/40R18", Standing::Stop),
            ("18x8 ET45 5x112 CB56.1 225/40R18", Standing::Stop),
            ("18x8 ET45 225/40R18", Standing::Unknown),
        ] {
            let line = line_on(car("57.1"), "hub", "17x7.5 ET45 225/45R17", planned).unwrap();
            assert_eq!(line.standing, standing, "{planned}: {}", line.word);
        }
    }

    #[test]
    fn a_fitted_wheel_stands_for_the_car_and_silence_makes_no_line() {
        let line = line_on(Car::default(), "hub", "17x7.5 ET45 5x112 225/45R17", "18x8 ET45 5x108 225/40R18");
        assert_eq!(line.unwrap().standing, Standing::Stop);
        assert!(line_on(Car::default(), "hub", "17x7.5 ET45 225/45R17", "18x8 ET45 225/40R18").is_none());
    }
}
