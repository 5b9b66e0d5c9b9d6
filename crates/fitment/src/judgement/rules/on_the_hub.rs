//! Whether the planned wheel goes on the hub, and what must be ordered with it.

use super::mount::{
    self, Hub, Mounting, MountingPart, Problem, ProblemKind, WheelSide, least_turns_worked, mount,
};
use super::{Asked, AxleCheck, Finding, LineCode, Point, Rule, Severity};
use crate::car::Fact;
use crate::values::fastener::Thread;
use crate::values::length::Length;
use crate::values::working::Phrase;

pub(super) const RULE: Rule = Rule {
    title: "On the hub",
    source: mount::SOURCE,
    asked: Asked::PerAxle(LineCode::Hub, judge),
    of_car: &[Fact::BoltCircle, Fact::HubBore, Fact::Seat, Fact::Thread],
};

const CAUTION: &str = "A wheel on the wrong bolt circle, hub or seat works loose and comes off. Torque by the car's own \
     data, and retorque after the first drive.";

/// `None` while neither the car nor any wheel names a bolt circle or a bore: there is nothing to hold together.
fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let wheel = check.planned.wheel?;
    let (car, axle) = (&check.case.state.car, check.axle.axle);
    let hub = Hub::of_car(car, axle, check.fitted.wheel.as_ref());
    if hub == Hub::default() && wheel.bolt_circle.is_none() && wheel.center_bore.is_none() {
        return None;
    }
    let picked = check.case.state.parts.wheel_of(check.planned);
    let depth = car.number(Fact::PadToSeat, None).and_then(Length::from_mm);
    let side = WheelSide {
        pad_to_seat: depth,
        is_the_fitted_one: check.fitted.wheel.is_some_and(|fitted| fitted.placed() == wheel.placed()),
        ..picked.map_or_else(|| WheelSide::of_size(&wheel), WheelSide::of_row)
    };
    let fitted_length = car.number(Fact::FastenerLength, None).and_then(Length::from_mm);
    let mounting = mount(&hub, &side, check.planned.spacer, fitted_length);
    // A wheel that was not picked says no seat, a used one least of all: what holds it must not be forgotten over a ring.
    let unread = (picked.is_none() && !side.is_the_fitted_one).then(|| match hub.seat {
        Some(seat) => format!(
            "The fasteners' seat is {}: read the wheel's before it is bought; on another it works loose.",
            seat.code()
        ),
        None => "Seat and thread are held against the wheel before it is ordered.".to_owned(),
    });
    Some(found(mounting, picked.is_some(), unread, hub.thread))
}

fn found(mounting: Mounting, is_picked: bool, unread: Option<String>, thread: Option<Thread>) -> Finding {
    // A setup line names no seat and no thread: those belong to the wheel's row and to the order.
    let problems: Vec<_> = mounting
        .problems
        .into_iter()
        .filter(|one| {
            let is_of_the_order = matches!(one.code, MountingPart::Seat | MountingPart::Thread)
                || one.code == MountingPart::Length && one.kind == ProblemKind::Unknown;
            is_picked || !is_of_the_order
        })
        .collect();
    let points = problems.iter().map(point).collect();
    let worst = problems.iter().map(|one| one.kind).max();
    // Whether it goes on at all comes before what must be ordered with it.
    let may_not_go_on = problems.iter().any(|one| {
        one.kind == ProblemKind::Unknown && matches!(one.code, MountingPart::BoltCircle | MountingPart::Bore)
    });
    // Another seat is mended by other fasteners; with those at hand the wheel works loose.
    let is_seat_alone =
        problems.iter().all(|one| one.kind != ProblemKind::Stop || one.code == MountingPart::Seat);
    let is_thread_alone =
        problems.iter().all(|one| one.kind != ProblemKind::Stop || one.code == MountingPart::Length);
    let (severity, word) = match worst {
        Some(ProblemKind::Stop) if is_seat_alone => (Severity::Mind, "other fasteners"),
        Some(ProblemKind::Stop) if is_thread_alone => (Severity::Stop, "too little thread"),
        Some(ProblemKind::Stop) => (Severity::Stop, "does not go on"),
        Some(ProblemKind::Mind) if !may_not_go_on => (Severity::Mind, "needs parts"),
        Some(ProblemKind::Mind | ProblemKind::Unknown) => (Severity::Unknown, "not known"),
        None => (Severity::Good, "goes on"),
    };
    let mut sentences: Vec<String> = problems.into_iter().map(|one| one.says).collect();
    if sentences.is_empty() {
        sentences.push(
            if is_picked { "Bolt circle, bore and seat match." } else { "Bolt circle and bore match." }
                .to_owned(),
        );
    }
    if severity != Severity::Stop {
        sentences.extend(unread);
    }
    let says = Phrase::new(sentences.join(" "));
    let turns =
        thread.filter(|_| mounting.length.is_some() || is_picked).map(|thread| least_turns_worked(&thread));
    let says = match &turns {
        Some(turns) => says.text(" At least ").quantity(turns.quantity).text(" of thread must engage."),
        None => says,
    };
    Finding {
        severity,
        word,
        figure: turns.as_ref().map(|turns| turns.quantity),
        limit: Phrase::new("bolt circle exactly, bore at least the hub's"),
        says,
        caution: matches!(severity, Severity::Stop | Severity::Mind).then_some(CAUTION),
        working: turns.map(|turns| turns.working).unwrap_or_default(),
        points,
    }
}

/// A problem as a point of the line. Another seat is mended by other fasteners; with those at hand the wheel works loose.
fn point(problem: &Problem) -> Point {
    let severity = match problem.kind {
        ProblemKind::Stop if problem.code == MountingPart::Seat => Severity::Mind,
        ProblemKind::Stop => Severity::Stop,
        ProblemKind::Mind => Severity::Mind,
        ProblemKind::Unknown => Severity::Unknown,
    };
    let topic = problem.code.topic(problem.kind == ProblemKind::Mind);
    Point { topic, severity, says: problem.says.clone() }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::{line_in_state, line_on};
    use crate::car::Car;
    use crate::judgement::case::CarState;
    use crate::setup::catalogue::PickedParts;
    use crate::setup::catalogue::picked::tests::wheel_row;
    use crate::values::fastener::Seat;

    fn car(bore: &str) -> Car {
        let mut car = Car::default();
        car.note(Fact::BoltCircle, None, "5x112").unwrap();
        car.note(Fact::HubBore, Some(crate::Axle::Front), bore).unwrap();
        car
    }

    #[test]
    fn what_goes_on_and_what_does_not() {
        // Common practice, no published source.
        for (planned, severity) in [
            ("18x8 ET45 5x112 CB57.1 225/40R18", Severity::Good),
            ("18x8 ET45 5x112 CB66.6 225/40R18", Severity::Mind),
            ("18x8 ET45 5x112 CB57.1 225/40R18 5 mm spacer", Severity::Mind),
            ("18x8 ET45 5x114.3 CB57.1 225/40R18", Severity::Stop),
            ("18x8 ET45 5x112 CB56.1 225/40R18", Severity::Stop),
            ("18x8 ET45 225/40R18", Severity::Unknown),
            // A ring is no answer while nobody read the wheel's bolt circle.
            ("18x8 ET45 CB66.6 225/40R18", Severity::Unknown),
        ] {
            let line = line_on(car("57.1"), "hub", "17x7.5 ET45 225/45R17", planned).unwrap();
            assert_eq!(line.severity, severity, "{planned}: {}", line.word);
        }
    }

    /// The used wheel that everybody has seen: a ring is ordered, and balls are screwed into cones.
    #[test]
    fn the_seat_of_a_wheel_that_nobody_picked_is_asked_for_beside_the_ring() {
        let mut car = car("57.1");
        let used = "18x8.5 ET30 5x112 CB66.6 235/40R18";
        let says = |car: &Car, planned: &str| {
            let line = line_on(car.clone(), "hub", "18x7.5 ET32 5x112 CB57.1 225/40R18", planned).unwrap();
            format!("{:?}", line.says)
        };
        let open = says(&car, used);
        assert!(
            open.contains("rings, 66.6 to 57.1 mm") && open.contains("Seat and thread are held"),
            "{open}"
        );
        car.note(Fact::Seat, None, "ball R12").unwrap();
        let known = says(&car, used);
        assert!(known.contains("rings") && known.contains("seat is ball R12: read the wheel's"), "{known}");
        let same = says(&car, "18x7.5 ET32 5x112 CB57.1 235/40R18");
        assert!(!same.contains("read the wheel's"), "the fitted wheel is held by them already: {same}");
        let never = says(&car, "18x8.5 ET30 5x108 CB66.6 235/40R18");
        assert!(!never.contains("read the wheel's"), "it does not go on at all: {never}");
    }

    #[test]
    fn a_picked_wheels_seat_is_held_against_the_fasteners() {
        let mut car = car("57.1");
        car.note(Fact::Seat, None, "ball R13").unwrap();
        car.note(Fact::Thread, None, "M14x1.5").unwrap();
        car.note(Fact::FastenerLength, None, "28").unwrap();
        car.note(Fact::FastenerKind, None, "bolts").unwrap();
        for (seat, severity) in [(Seat::BallR13, Severity::Good), (Seat::Cone60, Severity::Mind)] {
            let mut row = wheel_row("18x8 ET45 5x112 CB57.1");
            row.seat = Some(seat);
            let parts = PickedParts { wheels: vec![row], ..PickedParts::default() };
            let bay = CarState::default().of_car(car.clone()).with_parts(parts);
            let planned = "18x8 ET45 225/40R18";
            // The very wheel that the bolts hold now.
            let line = line_in_state(bay.clone(), "hub", planned, planned).unwrap();
            assert_eq!(line.severity, severity, "{seat:?}");
            // Common practice: one diameter of thread, 14 / 1.5 turns.
            assert!((line.figure.unwrap().value - 9.333).abs() < 1e-3);
            let spaced = line_in_state(bay, "hub", planned, "18x8 ET45 225/40R18 5 mm spacer");
            assert!(format!("{:?}", spaced.unwrap().says).contains("33.0 mm in place of 28.0 mm"));
        }
    }

    #[test]
    fn a_fitted_wheel_stands_for_the_car_and_silence_makes_no_line() {
        let line = line_on(Car::default(), "hub", "17x7.5 ET45 5x112 225/45R17", "18x8 ET45 5x108 225/40R18");
        assert_eq!(line.unwrap().severity, Severity::Stop);
        assert!(line_on(Car::default(), "hub", "17x7.5 ET45 225/45R17", "18x8 ET45 225/40R18").is_none());
    }
}
