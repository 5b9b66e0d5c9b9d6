//! What turns the verdict of a plan in motion: each remedy by itself, as far as it has to go, or that it does not do.

use super::places::parts_in_space;
use super::window::window_in_motion;
use super::{PartInSpace, SweepContext, Usage, with_sweep_context};
use crate::answers::remedies::least_work;
use crate::car::lever::{Lever, Levers};
use crate::car::motion::{Carried, Reach};
use crate::judgement::case::AxleCase;
use crate::judgement::window::{TireChoice, WidthWindow};
use crate::parts::wheel::Wheel;
use crate::setup::Setup;
use crate::values::coded::coded;
use crate::values::codes::Offset;
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity};

/// Something that may turn the verdict, from mild to hard.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Remedy {
    /// Another offset.
    Offset,
    /// The body stands higher: coil-overs, spacers over the strut.
    RideHeight,
    /// Less lock.
    SteeringLimiter,
    /// Less bump.
    BumpStop,
    /// The wheel set forward in the arch.
    WheelForward,
    /// Lip, liner and pinch weld as far as they may be worked.
    Trim,
}

coded!(Remedy:
    Offset = "offset",
    RideHeight = "ride_height",
    SteeringLimiter = "steering_limiter",
    BumpStop = "bump_stop",
    WheelForward = "wheel_forward",
    Trim = "trim",
);

/// What a remedy comes to.
#[derive(Debug, Clone, PartialEq)]
pub struct Remedied {
    /// Which.
    pub remedy: Remedy,
    /// How far it has to go: millimetres, degrees for a limiter, the offset itself for another offset; `None` where it does
    /// not turn the verdict by itself.
    pub amount: Option<f64>,
    /// In a sentence.
    pub says: Phrase,
    /// What must be minded.
    pub caution: &'static str,
}

impl Remedy {
    /// In the trade's words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Offset => "another offset",
            Self::RideHeight => "raising it",
            Self::SteeringLimiter => "a steering limiter",
            Self::BumpStop => "a longer bump stop",
            Self::WheelForward => "setting the wheel forward by arms",
            Self::Trim => "trimming",
        }
    }

    fn caution(self) -> &'static str {
        match self {
            Self::Offset => Lever::Offset.facts().caution,
            Self::RideHeight => Lever::RideHeight.facts().caution,
            Self::SteeringLimiter => {
                "A patch: the turning circle grows, and the steering must still come back by itself. Mend the cause where you can."
            }
            Self::BumpStop => {
                "A patch: the ride gets harsher, and under load the car can still come down to where it touches."
            }
            Self::WheelForward => Lever::Arms.facts().caution,
            Self::Trim => {
                "Look for wiring and hoses first; a structural seam is never cut. What is trimmed cannot be undone."
            }
        }
    }
}

/// Levers that trim what the wheel meets, each up to what it may give.
const TRIMS: [Lever; 4] =
    [Lever::LipRolled, Lever::LinerTrimmed, Lever::PinchWeldFlattened, Lever::FenderPulled];
/// How near an amount is sought, in millimetres or degrees: no finer than it can be set.
const FINE: f64 = 0.5;

/// What each remedy does for a plan that does not clear in motion; empty where nothing rules it out, and while it cannot be
/// swept.
pub fn remedies(case: &AxleCase<'_>, planned: &Setup, usage: &Usage) -> Vec<Remedied> {
    let is_ruled_out = is_ruled_out_in_motion(case, planned, usage);
    if is_ruled_out != Some(true) {
        return Vec::new();
    }
    Remedy::ALL.iter().map(|remedy| remedied(case, *remedy, planned, usage)).collect()
}

/// Whether what was read rules a plan out, standing or in motion; `None` while it cannot be swept.
pub fn is_ruled_out_in_motion(case: &AxleCase<'_>, planned: &Setup, usage: &Usage) -> Option<bool> {
    if case.rules_out(planned)? {
        return Some(true);
    }
    with_sweep_context(case, planned, usage, |context| rules_out(context, context.reach))
}

fn remedied(case: &AxleCase<'_>, remedy: Remedy, planned: &Setup, usage: &Usage) -> Remedied {
    let with = |levers: &Levers| {
        is_ruled_out_in_motion(&AxleCase { levers, ..*case }, planned, usage) == Some(false)
    };
    let by_lever = |lever: Lever| {
        let from = case.levers.amount(lever);
        let most = lever.facts().proposed.1 - from;
        let does = |amount: f64| with(&case.levers.with(lever, from + amount));
        match lever {
            // What it gives behind it takes ahead: more is not always better, so each millimetre is tried.
            Lever::Arms => (1..=most.max(0.0) as u32).map(f64::from).find(|amount| does(*amount)),
            _ => least_that_does(most, does),
        }
    };
    let mm = |amount: f64| Quantity::length(Length::mm(amount));
    let words = remedy.words();
    let (amount, does) = match remedy {
        Remedy::Offset => {
            let offset = offset_in_motion(case, planned, usage);
            (offset, offset.map(|offset| Phrase::new(format!("ET {offset:.0} turns it"))))
        }
        Remedy::RideHeight | Remedy::WheelForward => {
            let lever = if remedy == Remedy::RideHeight { Lever::RideHeight } else { Lever::Arms };
            let amount = by_lever(lever);
            (amount, amount.map(|by| Phrase::new(format!("{words} by ")).quantity(mm(by)).text(" turns it")))
        }
        Remedy::SteeringLimiter => {
            let amount = reach_given_up(case, planned, usage, |reach| {
                (reach.outward_deg.max(reach.inward_deg), |reach: Reach, deg: f64| Reach {
                    outward_deg: (reach.outward_deg - deg).max(0.0),
                    inward_deg: (reach.inward_deg - deg).max(0.0),
                    ..reach
                })
            });
            (
                amount,
                amount.map(|deg| {
                    Phrase::new(format!("{words} that takes {deg:.1}° of lock each way turns it"))
                }),
            )
        }
        Remedy::BumpStop => {
            let amount = reach_given_up(case, planned, usage, |reach| {
                (reach.bump_mm, |reach: Reach, mm: f64| Reach {
                    bump_mm: (reach.bump_mm - mm).max(0.0),
                    ..reach
                })
            });
            (
                amount,
                amount.map(|by| {
                    Phrase::new(format!("{words} that takes ")).quantity(mm(by)).text(" of travel turns it")
                }),
            )
        }
        Remedy::Trim => match trimmed(case, &with) {
            Some(levers) => {
                let mut phrase = Phrase::default();
                let mut all = 0.0;
                for lever in TRIMS {
                    let by = levers.amount(lever) - case.levers.amount(lever);
                    if by > 0.0 {
                        let joint = if all > 0.0 { " and " } else { "" };
                        phrase = phrase.text(format!("{joint}{} by ", lever.facts().title)).quantity(mm(by));
                        all += by;
                    }
                }
                (Some(all), Some(phrase.text(" turns it")))
            }
            None => (None, None),
        },
    };
    let says = match does {
        Some(does) => does.text(".").capitalized(),
        None => Phrase::new(format!("{words} alone does not turn it.")).capitalized(),
    };
    Remedied { remedy, amount, says, caution: remedy.caution() }
}

/// The least of lock or travel to give up. What already stands against it standing still, and what is carried along, is
/// helped by neither.
fn reach_given_up<F: Fn(Reach, f64) -> Reach>(
    case: &AxleCase<'_>,
    planned: &Setup,
    usage: &Usage,
    of: impl FnOnce(Reach) -> (f64, F),
) -> Option<f64> {
    if case.rules_out(planned)? {
        return None;
    }
    with_sweep_context(case, planned, usage, |context| {
        let (most, less) = of(context.reach);
        let parts = moved_parts(context);
        least_that_does(most, |amount| !any_rules_out(context, &parts, less(context.reach, amount)))
    })?
}

/// The nearest whole offset that clears in motion too. The window's edges count how sure the planned place is; where that
/// is not quite enough, the next millimetres are tried.
fn offset_in_motion(case: &AxleCase<'_>, planned: &Setup, usage: &Usage) -> Option<f64> {
    const MORE: u32 = 4;
    let wheel = planned.wheel?;
    let offset = wheel.offset?.as_mm();
    let standing = case.window(planned, TireChoice::Same, &[wheel.width], None);
    let window = match window_in_motion(case, planned, &standing, usage) {
        Some(moving) => moving.into_iter().next(),
        None => standing.into_iter().next(),
    };
    let window = window.filter(WidthWindow::is_open)?;
    let least = window.least.map_or(f64::NEG_INFINITY, |edge| edge.offset_mm).ceil();
    let most = window.most.map_or(f64::INFINITY, |edge| edge.offset_mm).floor();
    if least > most {
        return None;
    }
    let nearest = offset.clamp(least, most);
    let inward = if nearest > offset { 1.0 } else { -1.0 };
    (0..MORE).map(|more| nearest + inward * f64::from(more)).find(|offset| {
        let wheel = Wheel { offset: Offset::from_mm(*offset), ..wheel };
        let there = Setup { wheel: Some(wheel), ..*planned };
        (least..=most).contains(offset) && is_ruled_out_in_motion(case, &there, usage) == Some(false)
    })
}

/// The least trimming that does, hard work given up before mild.
fn trimmed(case: &AxleCase<'_>, does: &dyn Fn(&Levers) -> bool) -> Option<Levers> {
    let all = TRIMS.iter().fold(*case.levers, |levers, lever| levers.with(*lever, lever.facts().proposed.1));
    least_work(case.levers, &all, does)
}

/// The parts whose gap changes with steer or travel.
pub(super) fn moved_parts(context: &SweepContext<'_>) -> Vec<PartInSpace> {
    let mut parts = parts_in_space(context.case, context.moving, context.planned);
    parts.retain(|part| part.cloud.carried != Carried::SteeredUpright);
    parts
}

/// Whether a part that was read rules it out over such a reach.
fn rules_out(context: &SweepContext<'_>, reach: Reach) -> bool {
    any_rules_out(context, &moved_parts(context), reach)
}

fn any_rules_out(context: &SweepContext<'_>, parts: &[PartInSpace], reach: Reach) -> bool {
    let within = SweepContext { reach, ..*context };
    parts
        .iter()
        .any(|part| within.together_at_a_glance(part).is_some_and(|together| together.verdict.rules_out()))
}

/// The least amount up to `most` that does, to [`FINE`]; `None` when even all of it does not, or none is needed.
fn least_that_does(most: f64, does: impl Fn(f64) -> bool) -> Option<f64> {
    if most <= 0.0 || !does(most) {
        return None;
    }
    let steps = (most / FINE).ceil() as u32;
    let (mut short, mut enough) = (0, steps);
    while enough - short > 1 {
        let middle = u32::midpoint(short, enough);
        if does((f64::from(middle) * FINE).min(most)) {
            enough = middle;
        } else {
            short = middle;
        }
    }
    Some((f64::from(enough) * FINE).min(most))
}
