//! Whether a wheel goes on a hub, and what must be ordered with it.

use crate::car::{Car, Fact};
use crate::catalogue::WheelRow;
use crate::codes::{BoltCircle, CenterBore, Spacer};
use crate::fastener::{Seat, Thread};
use crate::length::Length;
use crate::setup::Axle;
use crate::wheel::Wheel;
use crate::working::{Figure, Quantity, Source, Step};

/// A bore this much over the hub still centres by itself: machining and paint. Common practice.
pub const BORE_CLEARANCE: Length = Length::mm(0.1);
/// What a slip-on spacer must leave of the hub's lip to centre the wheel. Common practice.
pub const LEAST_LIP: Length = Length::mm(5.0);

/// Where the rules come from.
pub const SOURCE: Source = Source::common_practice(
    "bolt circle exactly; bore at least the hub's; like seats; one diameter of thread",
);

/// The car's side.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Hub {
    /// Diameter that centres the wheel.
    pub bore: Option<CenterBore>,
    /// How far it stands out of the hub face.
    pub lip: Option<Length>,
    /// Bolt circle.
    pub bolt_circle: Option<BoltCircle>,
    /// Thread of the fasteners.
    pub thread: Option<Thread>,
    /// Seat of the fasteners at hand.
    pub seat: Option<Seat>,
}

impl Hub {
    /// What the car's record says of an axle's hub; where it names no bolt circle the fitted wheel's stands for it.
    pub fn of_car(car: &Car, axle: Axle, fitted: Option<&Wheel>) -> Self {
        let written = car.words(Fact::BoltCircle, None).and_then(|text| text.parse().ok());
        Self {
            bore: car.number(Fact::HubBore, Some(axle)).and_then(CenterBore::from_mm),
            lip: car.number(Fact::HubLip, Some(axle)).and_then(Length::from_mm),
            bolt_circle: written.or(fitted.and_then(|wheel| wheel.bolt_circle)),
            thread: car.words(Fact::Thread, None).and_then(|text| text.parse().ok()),
            seat: car.words(Fact::Seat, None).and_then(Seat::read),
        }
    }
}

/// The wheel's side.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct WheelSide {
    /// Center bore.
    pub bore: Option<CenterBore>,
    /// Every bolt circle it is drilled for.
    pub bolt_circles: Vec<BoltCircle>,
    /// Seat of its holes.
    pub seat: Option<Seat>,
}

impl WheelSide {
    /// A wheel as its size says it: the seat is not known.
    pub fn of_size(wheel: &Wheel) -> Self {
        Self { bore: wheel.center_bore, bolt_circles: wheel.bolt_circle.into_iter().collect(), seat: None }
    }

    /// A wheel as its row says it.
    pub fn of_row(row: &WheelRow) -> Self {
        Self { bore: row.wheel.center_bore, bolt_circles: row.circles().collect(), seat: row.seat }
    }
}

/// A hub-centric ring: outside the wheel's bore, inside the hub's.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ring {
    /// Outside diameter.
    pub outer: Length,
    /// Inside diameter.
    pub inner: Length,
}

/// How bad a problem is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum ProblemKind {
    /// It is not known; to be found out before ordering.
    Unknown,
    /// Something must be ordered or watched.
    Mind,
    /// It does not go on, or must not be driven.
    Stop,
}

/// What stands against a mounting, or must go with it.
#[derive(Debug, Clone, PartialEq)]
pub struct Problem {
    /// How bad.
    pub kind: ProblemKind,
    /// A short code: `bolt_circle`, `bore`, `seat`, `lip`, `thread`, `length`.
    pub code: &'static str,
    /// In a sentence.
    pub says: String,
}

/// A wheel on a hub.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Mounting {
    /// The ring it needs; `None` when the bore is direct, too small, or not known.
    pub ring: Option<Ring>,
    /// How long fasteners must be, when the fitted ones' length is known: longer by the spacer.
    pub length: Option<Length>,
    /// Least turns of thread that must engage, when the thread is known.
    pub least_turns: Option<f64>,
    /// What stands against it, worst first.
    pub problems: Vec<Problem>,
}

impl Mounting {
    /// `does_not_fit`, `not_known`, `fits_with_parts` or `fits`.
    pub fn verdict(&self) -> &'static str {
        let has = |kind| self.problems.iter().any(|problem| problem.kind == kind);
        if has(ProblemKind::Stop) {
            "does_not_fit"
        } else if has(ProblemKind::Unknown) {
            "not_known"
        } else if has(ProblemKind::Mind) {
            "fits_with_parts"
        } else {
            "fits"
        }
    }
}

/// What stands beside every fastener.
pub fn retorque_caution(retorque_km: f64) -> String {
    format!(
        "Torque by the car's own data, never guessed; thread by hand first, and retorque after {retorque_km:.0} km. \
         A wheel that works loose comes off."
    )
}

/// Tries a wheel on a hub, with a spacer between.
///
/// # Units
/// `fitted_length` is the fastener's length now, under its head or from the wheel's seat, however it was read.
pub fn mount(
    hub: &Hub,
    wheel: &WheelSide,
    spacer: Option<Spacer>,
    fitted_length: Option<Length>,
) -> Mounting {
    let mut all =
        Mounting { least_turns: hub.thread.map(|thread| thread.least_turns()), ..Mounting::default() };
    let mut say = |kind, code, says: String| all.problems.push(Problem { kind, code, says });
    match (hub.bolt_circle, wheel.bolt_circles.as_slice()) {
        (None, _) => say(
            ProblemKind::Unknown,
            "bolt_circle",
            "The car's bolt circle is not known: count and diameter must match exactly.".into(),
        ),
        (_, []) => {
            say(ProblemKind::Unknown, "bolt_circle", "The wheel's bolt circle is not stated.".into());
        }
        (Some(circle), drilled) if !drilled.contains(&circle) => {
            let drilled: Vec<String> = drilled.iter().map(ToString::to_string).collect();
            say(
                ProblemKind::Stop,
                "bolt_circle",
                format!(
                    "The wheel is drilled {}, the hub takes {circle}: count and diameter must match exactly.",
                    drilled.join(" and ")
                ),
            );
        }
        _ => {}
    }
    match (hub.bore, wheel.bore) {
        (None, _) => say(ProblemKind::Unknown, "bore", "The hub's diameter is not known.".into()),
        (_, None) => say(ProblemKind::Unknown, "bore", "The wheel's center bore is not stated.".into()),
        (Some(hub), Some(bore)) if bore < hub => say(
            ProblemKind::Stop,
            "bore",
            format!(
                "The bore of {} mm is smaller than the hub of {} mm: it does not go on.",
                bore.diameter().as_mm(),
                hub.diameter().as_mm()
            ),
        ),
        (Some(hub), Some(bore)) if bore.diameter() - hub.diameter() > BORE_CLEARANCE => {
            let ring = Ring { outer: bore.diameter(), inner: hub.diameter() };
            say(
                ProblemKind::Mind,
                "bore",
                format!("Order hub-centric rings, {} to {} mm.", ring.outer.as_mm(), ring.inner.as_mm()),
            );
            all.ring = Some(ring);
        }
        _ => {}
    }
    let mut say = |kind, code, says: String| all.problems.push(Problem { kind, code, says });
    match (hub.seat, wheel.seat) {
        (None, _) => say(ProblemKind::Unknown, "seat", "The fasteners' seat is not known.".into()),
        (_, None) => say(ProblemKind::Unknown, "seat", "The wheel's seat is not stated.".into()),
        (Some(fastener), Some(hole)) if fastener != hole => say(
            ProblemKind::Stop,
            "seat",
            format!(
                "The wheel's seat is {}, the fasteners' {}: it works loose. Order fasteners with the wheel's seat.",
                hole.code(),
                fastener.code()
            ),
        ),
        _ => {}
    }
    if let Some(spacer) = spacer {
        match hub.lip {
            None => say(
                ProblemKind::Mind,
                "lip",
                format!(
                    "The hub's lip is not measured: a slip-on spacer of {} mm must leave {} mm of it, or carry its own.",
                    spacer.as_mm(),
                    LEAST_LIP.as_mm()
                ),
            ),
            Some(lip) if lip - spacer.length() < LEAST_LIP => say(
                ProblemKind::Mind,
                "lip",
                format!(
                    "The spacer leaves {:.1} mm of the hub's lip, under {} mm: take one that carries its own lip.",
                    (lip - spacer.length()).as_mm().max(0.0),
                    LEAST_LIP.as_mm()
                ),
            ),
            Some(_) => {}
        }
        say(
            ProblemKind::Mind,
            "length",
            match fitted_length {
                Some(length) => format!(
                    "Fasteners longer by the spacer: {:.1} mm in place of {:.1} mm.",
                    (length + spacer.length()).as_mm(),
                    length.as_mm()
                ),
                None => format!(
                    "Fasteners longer by the spacer: {} mm more than the fitted ones.",
                    spacer.as_mm()
                ),
            },
        );
    }
    if hub.thread.is_none() {
        say(ProblemKind::Unknown, "thread", "The fasteners' thread is not known.".into());
    }
    all.length = fitted_length.map(|length| length + spacer.map_or(Length::ZERO, Spacer::length));
    all.problems.sort_by_key(|problem| std::cmp::Reverse(problem.kind));
    all
}

/// Turns of thread that must engage, with the working.
pub fn least_turns_worked(thread: &Thread) -> Figure {
    Figure::of(Step {
        what: "least turns of thread that must engage",
        formula: "d / pitch",
        put_in: vec![("d", Quantity::length(thread.diameter())), ("pitch", Quantity::length(thread.pitch()))],
        gives: Quantity::count(thread.least_turns()),
        source: SOURCE,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn hub() -> Hub {
        Hub {
            bore: CenterBore::from_mm(57.1),
            lip: Some(Length::mm(12.0)),
            bolt_circle: BoltCircle::new(5, 112.0),
            thread: "M14x1.5".parse().ok(),
            seat: Some(Seat::BallR13),
        }
    }

    fn wheel(bore: f64, circles: &[(u8, f64)], seat: Seat) -> WheelSide {
        WheelSide {
            bore: CenterBore::from_mm(bore),
            bolt_circles: circles.iter().filter_map(|(count, mm)| BoltCircle::new(*count, *mm)).collect(),
            seat: Some(seat),
        }
    }

    fn codes(mounting: &Mounting) -> Vec<&'static str> {
        mounting.problems.iter().map(|problem| problem.code).collect()
    }

    #[test]
    fn what_fits_and_what_does_not() {
        // Common practice throughout, no published source.
        let ok = mount(&hub(), &wheel(57.1, &[(5, 112.0)], Seat::BallR13), None, None);
        assert_eq!((ok.verdict(), ok.ring), ("fits", None));
        assert!((ok.least_turns.unwrap() - 9.333).abs() < 1e-3);

        let ring = mount(&hub(), &wheel(66.6, &[(5, 100.0), (5, 112.0)], Seat::BallR13), None, None);
        assert_eq!(ring.verdict(), "fits_with_parts");
        assert_eq!(ring.ring, Some(Ring { outer: Length::mm(66.6), inner: Length::mm(57.1) }));

        for (wheel, code) in [
            (wheel(57.1, &[(5, 114.3)], Seat::BallR13), "bolt_circle"),
            (wheel(57.1, &[(4, 112.0)], Seat::BallR13), "bolt_circle"),
            (wheel(56.6, &[(5, 112.0)], Seat::BallR13), "bore"),
            (wheel(57.1, &[(5, 112.0)], Seat::Cone60), "seat"),
        ] {
            let mounting = mount(&hub(), &wheel, None, None);
            assert_eq!((mounting.verdict(), codes(&mounting)), ("does_not_fit", vec![code]));
        }
    }

    #[test]
    fn a_spacer_wants_longer_fasteners_and_what_is_left_of_the_lip() {
        let on = wheel(57.1, &[(5, 112.0)], Seat::BallR13);
        let thin = mount(&hub(), &on, Spacer::from_mm(5.0), Some(Length::mm(28.0)));
        assert_eq!((thin.length, codes(&thin)), (Some(Length::mm(33.0)), vec!["length"]));
        let thick = mount(&hub(), &on, Spacer::from_mm(10.0), Some(Length::mm(28.0)));
        assert_eq!(codes(&thick), ["lip", "length"]);
        let unread = mount(&Hub { lip: None, ..hub() }, &on, Spacer::from_mm(5.0), None);
        assert_eq!((unread.verdict(), unread.length), ("fits_with_parts", None));
        assert_eq!(codes(&unread), ["lip", "length"], "what to do about the lip is said");
    }

    #[test]
    fn what_nobody_knows_is_asked_for_and_never_taken_for_a_fit() {
        let nothing = mount(&Hub::default(), &WheelSide::default(), None, None);
        assert_eq!(nothing.verdict(), "not_known");
        assert_eq!(codes(&nothing), ["bolt_circle", "bore", "seat", "thread"]);
    }
}
