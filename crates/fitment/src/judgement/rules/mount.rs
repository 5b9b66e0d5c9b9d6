//! Whether a wheel goes on a hub, and what must be ordered with it.

use crate::car::{Car, Fact};
use crate::judgement::case::Needs;
use crate::parts::wheel::Wheel;
use crate::setup::Axle;
use crate::setup::catalogue::WheelRow;
use crate::values::coded::coded;
use crate::values::codes::{BoltCircle, CenterBore, Spacer};
use crate::values::fastener::{Seat, Thread};
use crate::values::length::Length;
use crate::values::working::{Figure, Quantity, Source, Step};

/// Bores that differ by no more than this are one nominal size, in hundredths of a millimetre: 72.56 is 72.6. Common practice.
const SAME_BORE_HUNDREDTHS: i32 = 10;
/// From this much over the hub a bore takes a ring, in hundredths of a millimetre: none is made thinner, and what lies between
/// is measured on both. Common practice.
const RING_FROM_HUNDREDTHS: i32 = 50;
/// What a slip-on spacer must leave of the hub's lip to centre the wheel. Common practice.
pub const LEAST_LIP: Length = Length::mm(5.0);

/// No spacer that bolts on is made thinner, and none with a lip of its own, in millimetres. Common practice; no source.
const LEAST_BOLT_ON_MM: f64 = 15.0;
const LEAST_WITH_A_LIP_MM: f64 = 10.0;

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
    /// Whether bolts or studs with nuts hold it.
    pub fasteners: Option<FastenerKind>,
    /// Whether one nut in the middle holds it; `None` while nobody said.
    pub center_lock: Option<bool>,
    /// How far the studs stand out of the face that the wheel sits on, disc or drum in place.
    pub stud_beyond: Option<Length>,
}

/// What holds a wheel on its hub.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum FastenerKind {
    /// Bolts, screwed into the hub.
    Bolts,
    /// Studs in the hub, with nuts.
    Studs,
}

coded!(FastenerKind: Bolts = "bolts", Studs = "studs and nuts");

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
            fasteners: match car.words(Fact::HubKind, None) {
                Some("bolts") => Some(FastenerKind::Bolts),
                Some("studs") => Some(FastenerKind::Studs),
                _ => car.words(Fact::FastenerKind, None).and_then(FastenerKind::from_code),
            },
            // The car's own wheel says it where the record does not.
            center_lock: match car.words(Fact::HubKind, None) {
                Some(kind) => Some(kind == "centre lock"),
                None => own_wheel(car, axle, fitted).map(|wheel| wheel.center_lock),
            },
            stud_beyond: car.number(Fact::StudBeyondHub, Some(axle)).and_then(Length::from_mm),
        }
    }
}

/// The wheel that says what the car's hub is: what is fitted, if that says how it is held, else the factory's.
fn own_wheel(car: &Car, axle: Axle, fitted: Option<&Wheel>) -> Option<Wheel> {
    let of_factory = car.factory().on(axle).and_then(|setup| setup.wheel);
    let says = |wheel: &Wheel| wheel.center_lock || wheel.bolt_circle.is_some();
    fitted.copied().into_iter().chain(of_factory).find(says)
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
    /// From its mounting pad to the seat of its holes, measured on it.
    pub pad_to_seat: Option<Length>,
    /// Whether it is the very wheel that the fitted fasteners hold now.
    pub is_the_fitted_one: bool,
    /// Held by one nut in the middle.
    pub center_lock: bool,
}

impl WheelSide {
    /// A wheel as its size says it: the seat is not known.
    pub fn of_size(wheel: &Wheel) -> Self {
        Self {
            bore: wheel.center_bore,
            bolt_circles: wheel.circles().collect(),
            center_lock: wheel.center_lock,
            ..Self::default()
        }
    }

    /// A wheel as its row says it.
    pub fn of_row(row: &WheelRow) -> Self {
        Self {
            bore: row.wheel.center_bore,
            bolt_circles: row.circles().collect(),
            seat: row.seat,
            center_lock: row.wheel.center_lock,
            ..Self::default()
        }
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

/// What of a mounting a problem is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum MountingPart {
    /// Count and diameter of the holes.
    BoltCircle,
    /// The wheel's bore on the hub.
    Bore,
    /// The fasteners' seat.
    Seat,
    /// What a spacer leaves of the hub's lip.
    Lip,
    /// The fasteners' thread.
    Thread,
    /// The fasteners' length.
    Length,
    /// One nut in the middle.
    CenterLock,
}

coded!(MountingPart:
    BoltCircle = "bolt_circle",
    Bore = "bore",
    Seat = "seat",
    Lip = "lip",
    Thread = "thread",
    Length = "length",
    CenterLock = "center_lock",
);

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
    /// What of the mounting it is about.
    pub code: MountingPart,
    /// In a sentence.
    pub says: String,
}

/// A wheel on a hub.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Mounting {
    /// The ring it needs; `None` when the bore is direct, too small, or not known.
    pub ring: Option<Ring>,
    /// How long bolts must be at least, where that can be said: the fitted ones' length and the spacer on the very wheel
    /// they hold now, else spacer, pad-to-seat depth and one diameter of thread. `None` where nobody measured what
    /// decides, and for studs.
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

/// What stands against a wheel's bolt circle.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum CircleIssue {
    /// The car's is not known.
    CarUnknown,
    /// The wheel's is not stated.
    WheelUnknown,
    /// They do not match.
    DoesNotMatch,
}

/// Holds a wheel's bolt circles against the car's; `None` when one of them matches. Count and diameter must be the same;
/// what is written and what is meant are one (5x114 is 5x114.3).
pub fn bolt_circle(car: Option<BoltCircle>, drilled: &[BoltCircle]) -> Option<CircleIssue> {
    match (car, drilled) {
        (None, _) => Some(CircleIssue::CarUnknown),
        (_, []) => Some(CircleIssue::WheelUnknown),
        (Some(circle), drilled) => (!drilled.contains(&circle)).then_some(CircleIssue::DoesNotMatch),
    }
}

/// What stands against a wheel's bore.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum BoreIssue {
    /// The hub's diameter is not known.
    HubUnknown,
    /// The wheel's bore is not stated.
    WheelUnknown,
    /// It does not go over the hub.
    TooSmall,
    /// It is larger by less than any ring is thick.
    TooNearForARing,
    /// It needs a ring.
    NeedsRing(Ring),
}

/// Holds a wheel's bore against the hub, in hundredths of a millimetre; `None` when it centres by itself.
pub fn center_bore(hub: Option<CenterBore>, bore: Option<CenterBore>) -> Option<BoreIssue> {
    let (Some(hub), Some(bore)) = (hub, bore) else {
        return Some(if hub.is_none() { BoreIssue::HubUnknown } else { BoreIssue::WheelUnknown });
    };
    let over = i32::from(bore.hundredths()) - i32::from(hub.hundredths());
    if over < -SAME_BORE_HUNDREDTHS {
        Some(BoreIssue::TooSmall)
    } else if over <= SAME_BORE_HUNDREDTHS {
        None
    } else if over < RING_FROM_HUNDREDTHS {
        Some(BoreIssue::TooNearForARing)
    } else {
        Some(BoreIssue::NeedsRing(Ring { outer: bore.diameter(), inner: hub.diameter() }))
    }
}

/// Whether a wheel of a list goes on a car's hub as far as circle and bore are known: nothing there stops it.
pub fn goes_on(needs: &Needs, axle: Axle, row: &WheelRow) -> bool {
    let drilled: Vec<BoltCircle> = row.circles().collect();
    let hub = needs.hub[usize::from(axle == Axle::Rear)];
    bolt_circle(needs.bolt_circle, &drilled) != Some(CircleIssue::DoesNotMatch)
        && center_bore(hub, row.wheel.center_bore) != Some(BoreIssue::TooSmall)
}

/// Tries a wheel on a hub, with a spacer between.
///
/// # Units
/// `fitted_length` is the length now of bolts under their heads, or of the studs out of the hub face.
pub fn mount(
    hub: &Hub,
    wheel: &WheelSide,
    spacer: Option<Spacer>,
    fitted_length: Option<Length>,
) -> Mounting {
    let mut all =
        Mounting { least_turns: hub.thread.map(|thread| thread.least_turns()), ..Mounting::default() };
    let is_one_kind = wheel.center_lock == (hub.center_lock == Some(true));
    // The wheel that is on the car goes on the car.
    if !is_one_kind && !wheel.is_the_fitted_one && says_how_it_is_held(hub, wheel) {
        let says = if wheel.center_lock {
            "A center-lock wheel goes on a center-lock hub alone, by its own nut, torque and safety clip."
        } else {
            "The hub is a center-lock hub: a wheel with bolt holes does not go on it."
        };
        all.problems.push(Problem {
            kind: ProblemKind::Stop,
            code: MountingPart::CenterLock,
            says: says.into(),
        });
        return all;
    }
    if wheel.center_lock {
        all.problems.push(Problem {
            kind: ProblemKind::Mind,
            code: MountingPart::CenterLock,
            says: "Held by one nut: its torque, its thread's direction and its safety clip by the car's handbook.".into(),
        });
        return all;
    }
    let mut problems = Vec::new();
    // The wheel that is on the car goes on the car: nobody is asked for its bore.
    let is_shown_by_the_car = |kind: ProblemKind, code: MountingPart| {
        wheel.is_the_fitted_one
            && kind == ProblemKind::Unknown
            && matches!(code, MountingPart::BoltCircle | MountingPart::Bore)
    };
    let mut say = |kind, code, says: String| {
        if !is_shown_by_the_car(kind, code) {
            problems.push(Problem { kind, code, says });
        }
    };
    match bolt_circle(hub.bolt_circle, &wheel.bolt_circles) {
        Some(CircleIssue::CarUnknown) => say(
            ProblemKind::Unknown,
            MountingPart::BoltCircle,
            "The car's bolt circle is not known: count and diameter must match exactly.".into(),
        ),
        Some(CircleIssue::WheelUnknown) => {
            say(
                ProblemKind::Unknown,
                MountingPart::BoltCircle,
                "The wheel's bolt circle is not stated.".into(),
            );
        }
        Some(CircleIssue::DoesNotMatch) => {
            let drilled: Vec<String> = wheel.bolt_circles.iter().map(ToString::to_string).collect();
            let takes = hub.bolt_circle.map(|circle| circle.to_string()).unwrap_or_default();
            say(
                ProblemKind::Stop,
                MountingPart::BoltCircle,
                format!(
                    "The wheel is drilled {}, the hub takes {takes}: count and diameter must match exactly.",
                    drilled.join(" and ")
                ),
            );
        }
        None => {}
    }
    match center_bore(hub.bore, wheel.bore) {
        Some(BoreIssue::HubUnknown) => {
            say(ProblemKind::Unknown, MountingPart::Bore, "The hub's diameter is not known.".into())
        }
        Some(BoreIssue::WheelUnknown) => {
            say(ProblemKind::Unknown, MountingPart::Bore, "The wheel's center bore is not stated.".into());
        }
        Some(BoreIssue::TooSmall) => {
            let mm = |bore: Option<CenterBore>| bore.map_or(0.0, |bore| bore.diameter().as_mm());
            say(
                ProblemKind::Stop,
                MountingPart::Bore,
                format!(
                    "The bore of {} mm is smaller than the hub of {} mm: it does not go on.",
                    mm(wheel.bore),
                    mm(hub.bore)
                ),
            );
        }
        Some(BoreIssue::TooNearForARing) => say(
            ProblemKind::Unknown,
            MountingPart::Bore,
            "The bore is larger than the hub by less than any ring is thick: measure both before the order."
                .into(),
        ),
        Some(BoreIssue::NeedsRing(ring)) => {
            say(
                ProblemKind::Mind,
                MountingPart::Bore,
                format!("Order hub-centric rings, {} to {} mm.", ring.outer.as_mm(), ring.inner.as_mm()),
            );
            all.ring = Some(ring);
        }
        None => {}
    }
    match (hub.seat, wheel.seat) {
        (None, _) => {
            say(ProblemKind::Unknown, MountingPart::Seat, "The fasteners' seat is not known.".into())
        }
        (_, None) => say(ProblemKind::Unknown, MountingPart::Seat, "The wheel's seat is not stated.".into()),
        (Some(fastener), Some(hole)) if fastener != hole => say(
            ProblemKind::Stop,
            MountingPart::Seat,
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
                MountingPart::Lip,
                format!(
                    "The hub's lip is not measured: a slip-on spacer of {} mm must leave {} mm of it, or carry its own.",
                    spacer.as_mm(),
                    LEAST_LIP.as_mm()
                ),
            ),
            Some(lip) if lip - spacer.length() < LEAST_LIP => say(
                ProblemKind::Mind,
                MountingPart::Lip,
                format!(
                    "The spacer leaves {:.1} mm of the hub's lip, under {} mm: {}.",
                    (lip - spacer.length()).as_mm().max(0.0),
                    LEAST_LIP.as_mm(),
                    if spacer.as_mm() >= LEAST_WITH_A_LIP_MM {
                        "take one that carries its own lip"
                    } else {
                        "none so thin carries its own; a thinner one, or another offset"
                    }
                ),
            ),
            Some(_) => {}
        }
    }
    if hub.thread.is_none() {
        say(ProblemKind::Unknown, MountingPart::Thread, "The fasteners' thread is not known.".into());
    }
    all.length = fastener_length(hub, wheel, spacer, fitted_length, &mut say);
    problems.sort_by_key(|problem| std::cmp::Reverse(problem.kind));
    all.problems = problems;
    all
}

/// Whether anything is known of how either of them is held.
fn says_how_it_is_held(hub: &Hub, wheel: &WheelSide) -> bool {
    hub.center_lock.is_some() || wheel.center_lock
}

/// Of studs under a slip-on spacer: the spacer, what is left of the thread for the nuts at most, and what must be: one diameter.
/// Engagement = stud beyond the face that the wheel sits on − spacer − pad to seat; a depth that nobody measured is left out,
/// so no more is left than this. `None` while stud or thread is not known, and for what the fitted nuts hold already.
///
/// # Source
/// Common practice, no published source.
fn thread_left(
    spacer: Option<Spacer>,
    wheel: &WheelSide,
    stud: Option<Length>,
    diameter: Option<Length>,
) -> Option<(Length, Length)> {
    let thickness = spacer.map_or(Length::ZERO, Spacer::length);
    // Without a spacer only another wheel, whose depth was measured, can leave too little.
    if spacer.is_none() && (wheel.is_the_fitted_one || wheel.pad_to_seat.is_none()) {
        return None;
    }
    let left = stud? - thickness - wheel.pad_to_seat.unwrap_or(Length::ZERO);
    Some((left, diameter?))
}

/// Whether a hub's fasteners could hold any wheel over a slip-on spacer: studs of a known length keep one diameter of thread.
pub fn could_hold(hub: &Hub, stud: Option<Length>, spacer: Spacer) -> bool {
    let diameter = hub.thread.map(|thread| thread.diameter());
    let left = thread_left(Some(spacer), &WheelSide::default(), hub.stud_beyond.or(stud), diameter);
    hub.fasteners != Some(FastenerKind::Studs) || left.is_none_or(|(left, least)| left >= least)
}

/// How long bolts must be, and what is to be measured or minded where that cannot be said.
///
/// Engagement = length − (spacer + pad-to-seat depth of this very wheel), at least one diameter of thread. The depth
/// differs from wheel to wheel by a centimetre: with another wheel's nothing is said. Too long is as bad: what stands
/// behind the hub is met, so turns are counted by hand on the real wheel.
///
/// # Source
/// Common practice, no published source.
fn fastener_length(
    hub: &Hub,
    wheel: &WheelSide,
    spacer: Option<Spacer>,
    fitted: Option<Length>,
    say: &mut impl FnMut(ProblemKind, MountingPart, String),
) -> Option<Length> {
    const BY_HAND: &str = "Count the turns by hand on the real wheel, and see that nothing behind the hub is met: too long is as bad as too short.";
    let thickness = spacer.map_or(Length::ZERO, Spacer::length);
    let diameter = hub.thread.map(|thread| thread.diameter());
    match hub.fasteners {
        Some(FastenerKind::Studs) => {
            let held = thread_left(spacer, wheel, hub.stud_beyond.or(fitted), diameter);
            let longer = if spacer.is_some_and(|spacer| spacer.as_mm() >= LEAST_BOLT_ON_MM) {
                "longer studs, or a spacer that bolts on and carries its own"
            } else {
                "longer studs, or another offset in place of the spacer"
            };
            let takes = match spacer {
                Some(spacer) => format!("A slip-on spacer of {} mm", spacer.as_mm()),
                None => "This wheel".to_owned(),
            };
            if let Some((left, least)) = held.filter(|(left, least)| left < least) {
                let at_most = if wheel.pad_to_seat.is_some() { "" } else { ", at most" };
                say(
                    ProblemKind::Stop,
                    MountingPart::Length,
                    format!(
                        "{takes} leaves {:.1} mm of the studs for the nuts{at_most}; {:.0} are needed. Mend: {longer}.",
                        left.as_mm(),
                        least.as_mm()
                    ),
                );
            } else if let Some((left, least)) = held.filter(|_| wheel.pad_to_seat.is_some()) {
                say(
                    ProblemKind::Mind,
                    MountingPart::Length,
                    format!(
                        "{takes} leaves {:.1} mm of the studs for the nuts; {:.0} are needed. {BY_HAND}",
                        left.as_mm(),
                        least.as_mm()
                    ),
                );
            } else if let Some(spacer) = spacer {
                say(
                    ProblemKind::Mind,
                    MountingPart::Length,
                    format!("A slip-on spacer takes {} mm of the studs: {longer}. {BY_HAND}", spacer.as_mm()),
                );
            } else if !wheel.is_the_fitted_one {
                say(
                    ProblemKind::Mind,
                    MountingPart::Length,
                    format!("Nuts must engage by one diameter of thread. {BY_HAND}"),
                );
            }
            None
        }
        None if spacer.is_none() => fitted.filter(|_| wheel.is_the_fitted_one),
        None => {
            say(
                ProblemKind::Mind,
                MountingPart::Length,
                "Bolts or studs? A slip-on spacer asks for longer bolts, and eats a stud's length: note it in the car's record, and how long they are.".into(),
            );
            None
        }
        Some(FastenerKind::Bolts) if wheel.is_the_fitted_one => {
            let length = fitted.map(|fitted| fitted + thickness);
            if let Some(spacer) = spacer {
                say(
                    ProblemKind::Mind,
                    MountingPart::Length,
                    match (fitted, length) {
                        (Some(fitted), Some(length)) => format!(
                            "Bolts longer by the spacer: {:.1} mm in place of {:.1} mm. {BY_HAND}",
                            length.as_mm(),
                            fitted.as_mm()
                        ),
                        _ => format!(
                            "Bolts longer by the spacer: {} mm more than the fitted ones. {BY_HAND}",
                            spacer.as_mm()
                        ),
                    },
                );
            }
            length
        }
        Some(FastenerKind::Bolts) => match (wheel.pad_to_seat, diameter) {
            (Some(depth), Some(diameter)) => {
                let least = thickness + depth + diameter;
                say(
                    ProblemKind::Mind,
                    MountingPart::Length,
                    format!(
                        "Bolts of at least {:.1} mm: spacer, pad to seat, and one diameter of thread. {BY_HAND}",
                        least.as_mm()
                    ),
                );
                Some(least)
            }
            _ => {
                say(
                    ProblemKind::Mind,
                    MountingPart::Length,
                    format!(
                        "Another wheel asks for other bolts: measure from its mounting pad to the seat of its holes. {BY_HAND}"
                    ),
                );
                None
            }
        },
    }
}

/// Turns of thread that must engage, with the working.
pub fn least_turns_worked(thread: &Thread) -> Figure {
    Figure::of(Step {
        what: "least turns of thread that must engage",
        formula: "d / pitch",
        inputs: vec![("d", Quantity::length(thread.diameter())), ("pitch", Quantity::length(thread.pitch()))],
        result: Quantity::turns(thread.least_turns()),
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
            fasteners: Some(FastenerKind::Bolts),
            ..Hub::default()
        }
    }

    fn wheel(bore: f64, circles: &[(u8, f64)], seat: Seat) -> WheelSide {
        WheelSide {
            bore: CenterBore::from_mm(bore),
            bolt_circles: circles.iter().filter_map(|(count, mm)| BoltCircle::new(*count, *mm)).collect(),
            seat: Some(seat),
            is_the_fitted_one: true,
            ..WheelSide::default()
        }
    }

    fn codes(mounting: &Mounting) -> Vec<&'static str> {
        mounting.problems.iter().map(|problem| problem.code.code()).collect()
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
    fn another_wheels_bolts_go_by_its_own_depth_and_studs_are_no_bolts() {
        // Common practice: engagement = length − (spacer + pad to seat), at least one diameter.
        let other = WheelSide { is_the_fitted_one: false, ..wheel(57.1, &[(5, 112.0)], Seat::BallR13) };
        let unknown = mount(&hub(), &other, None, Some(Length::mm(28.0)));
        assert_eq!((unknown.length, codes(&unknown)), (None, vec!["length"]));
        assert!(unknown.problems[0].says.contains("pad to the seat"), "{:?}", unknown.problems);
        let measured = WheelSide { pad_to_seat: Some(Length::mm(9.0)), ..other };
        let bolts = mount(&hub(), &measured, Spacer::from_mm(5.0), Some(Length::mm(28.0)));
        assert_eq!(bolts.length, Some(Length::mm(5.0 + 9.0 + 14.0)));
        let studs = Hub { fasteners: Some(FastenerKind::Studs), ..hub() };
        let fitted = wheel(57.1, &[(5, 112.0)], Seat::BallR13);
        let eaten = mount(&studs, &fitted, Spacer::from_mm(5.0), Some(Length::mm(28.0)));
        assert_eq!(eaten.length, None);
        assert!(
            eaten.problems.iter().any(|one| one.says.contains("takes 5 mm of the studs")),
            "{:?}",
            eaten.problems
        );
    }

    #[test]
    fn bores_are_held_together_in_hundredths() {
        // Common practice: to 0.1 mm one nominal size, a ring from 0.5 mm on, between them both are measured.
        let ring = |hub: f64, bore: f64| {
            matches!(
                center_bore(CenterBore::from_mm(hub), CenterBore::from_mm(bore)),
                Some(BoreIssue::NeedsRing(_))
            )
        };
        for (hub, bore, needs) in [
            (57.0, 57.1, false),
            (66.5, 66.6, false),
            (72.56, 72.6, false),
            (57.1, 57.3, false),
            (66.6, 67.0, false),
            (57.1, 57.6, true),
            (66.6, 67.1, true),
            (57.06, 66.6, true),
        ] {
            assert_eq!(ring(hub, bore), needs, "{hub} in {bore}");
        }
    }

    #[test]
    fn what_a_spacer_leaves_of_the_studs_is_reckoned_from_the_face_the_wheel_sits_on() {
        // Common practice: engagement = stud beyond the hub − spacer − pad to seat, at least one diameter (12 mm).
        let studs = |beyond: f64| Hub {
            fasteners: Some(FastenerKind::Studs),
            thread: "M12x1.5".parse().ok(),
            stud_beyond: Some(Length::mm(beyond)),
            ..hub()
        };
        let on = |depth: Option<f64>, spacer: f64, beyond: f64| {
            let other = WheelSide {
                is_the_fitted_one: false,
                pad_to_seat: depth.map(Length::mm),
                ..wheel(57.1, &[(5, 112.0)], Seat::BallR13)
            };
            let mounting = mount(&studs(beyond), &other, Spacer::from_mm(spacer), None);
            let length =
                mounting.problems.iter().find(|one| one.code == MountingPart::Length).cloned().unwrap();
            (length.kind, length.says)
        };
        let (kind, says) = on(None, 50.0, 40.0);
        assert!(kind == ProblemKind::Stop && says.contains("-10.0 mm of the studs"), "{says}");
        let (kind, says) = on(Some(9.0), 20.0, 28.0);
        assert!(kind == ProblemKind::Stop && says.contains("-1.0 mm"), "{says}");
        assert_eq!(on(Some(7.0), 5.0, 28.0).0, ProblemKind::Mind, "16 mm are enough");
        // A deep seat takes as much as a spacer.
        let (kind, says) = on(Some(18.0), 0.0, 28.0);
        assert!(kind == ProblemKind::Stop && says.starts_with("This wheel leaves 10.0 mm"), "{says}");
        // No spacer so thin is bolted on.
        assert!(!on(Some(14.0), 3.0, 28.0).1.contains("bolts on"));
    }

    #[test]
    fn center_lock_and_bolts_go_each_on_their_own_hub() {
        let kinds = |hub: Hub, wheel: WheelSide| {
            let found = mount(&hub, &wheel, None, None).problems;
            found.into_iter().map(|one| (one.code, one.kind)).collect::<Vec<_>>()
        };
        let locked = Hub { center_lock: Some(true), ..hub() };
        let five_lug = WheelSide { is_the_fitted_one: false, ..wheel(57.1, &[(5, 112.0)], Seat::BallR13) };
        let one_nut = WheelSide { center_lock: true, ..WheelSide::default() };
        assert_eq!(kinds(locked, five_lug), [(MountingPart::CenterLock, ProblemKind::Stop)]);
        assert_eq!(kinds(locked, one_nut.clone()), [(MountingPart::CenterLock, ProblemKind::Mind)]);
        // The wheel that is on the car goes on the car, whatever the record says.
        let fitted = WheelSide { is_the_fitted_one: true, ..one_nut };
        assert!(kinds(hub(), fitted).iter().all(|(_, kind)| *kind != ProblemKind::Stop));
    }

    #[test]
    fn a_center_lock_wheel_goes_on_no_bolted_hub() {
        let mounting = mount(&hub(), &WheelSide { center_lock: true, ..WheelSide::default() }, None, None);
        assert_eq!((mounting.verdict(), codes(&mounting)), ("does_not_fit", vec!["center_lock"]));
    }

    #[test]
    fn what_nobody_knows_is_asked_for_and_never_taken_for_a_fit() {
        let nothing = mount(&Hub::default(), &WheelSide::default(), None, None);
        assert_eq!(nothing.verdict(), "not_known");
        assert_eq!(codes(&nothing), ["bolt_circle", "bore", "seat", "thread"]);
    }
}
