//! What can be done about a gap, from mild to hard.
//!
//! - [`FACTS`]: every lever with what it moves, what it never can, what it costs and what must be minded.
//!
//! What another wheel or tire does is not here but in the setup itself: a lever only changes the car. The
//! spacer is both; it is part of the setup line.

use crate::car::corner::Feature;
use crate::setup::Axle;
use crate::values::length::Length;
use crate::values::working::Source;

/// Something that can be done, in order from mild to hard.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs, reason = "the levers by their names; see FACTS")]
pub enum Lever {
    Spacer,
    Offset,
    RimWidth,
    Tire,
    Camber,
    RideHeight,
    LipRolled,
    FenderPulled,
    LinerTrimmed,
    PinchWeldFlattened,
    SteeringLimiter,
    BumpStop,
    LimitStrap,
    Arms,
    BodyLift,
    BodyMountCut,
    Flares,
}

/// What the trade knows about a lever.
#[derive(Debug, Clone, Copy)]
pub struct Facts {
    /// The lever.
    pub lever: Lever,
    /// Its code on the wire.
    pub code: &'static str,
    /// Its name.
    pub title: &'static str,
    /// Least and most that cars are set to, and the step it is set in: millimetres, or degrees for camber. Both 0 for what is
    /// chosen in the setup.
    pub range: (f64, f64, f64),
    /// Least and most that the program proposes by itself: what is done to a road car without another thought.
    pub proposed: (f64, f64),
    /// Whether the amount is in degrees.
    pub in_degrees: bool,
    /// Which parts it makes room to, and how much of the amount arrives there.
    pub moves: &'static [(Feature, f64)],
    /// What it moves, in words.
    pub does: &'static str,
    /// What it never can.
    pub never: &'static str,
    /// Whether it can be undone.
    pub can_be_undone: bool,
    /// What it costs elsewhere.
    pub costs: &'static str,
    /// What must be minded.
    pub caution: &'static str,
}

/// Where amounts and costs come from.
pub const SOURCE: Source = Source::common_practice("levers of the trade and what they usually give");

impl Lever {
    /// All of them, from mild to hard.
    pub const ALL: [Self; 17] = [
        Self::Spacer,
        Self::Offset,
        Self::RimWidth,
        Self::Tire,
        Self::Camber,
        Self::RideHeight,
        Self::LipRolled,
        Self::FenderPulled,
        Self::LinerTrimmed,
        Self::PinchWeldFlattened,
        Self::SteeringLimiter,
        Self::BumpStop,
        Self::LimitStrap,
        Self::Arms,
        Self::BodyLift,
        Self::BodyMountCut,
        Self::Flares,
    ];

    /// What the trade knows about it.
    pub fn facts(self) -> &'static Facts {
        &FACTS[self as usize]
    }

    /// Its code on the wire.
    pub fn code(self) -> &'static str {
        self.facts().code
    }

    /// The lever of this code.
    pub fn from_code(code: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|lever| lever.code() == code)
    }

    /// Whether it is set on the car, not chosen with wheel and tire.
    pub fn is_on_the_car(self) -> bool {
        self.facts().range.2 > 0.0
    }
}

/// How far each lever on the car is set: millimetres, or degrees for camber. Nothing is set by default.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Levers {
    amounts: [f64; Lever::ALL.len()],
}

/// What is done on each axle.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct PairLevers {
    /// Front axle.
    pub front: Levers,
    /// Rear axle.
    pub rear: Levers,
}

impl PairLevers {
    /// One axle's.
    pub fn on(&self, axle: Axle) -> &Levers {
        match axle {
            Axle::Front => &self.front,
            Axle::Rear => &self.rear,
        }
    }

    /// One axle's, to set them.
    pub fn on_mut(&mut self, axle: Axle) -> &mut Levers {
        match axle {
            Axle::Front => &mut self.front,
            Axle::Rear => &mut self.rear,
        }
    }
}

/// Why a lever cannot be set so.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum LeverError {
    /// It is part of the setup.
    #[error("{0} is part of the setup line, not set on the car")]
    InTheSetup(&'static str),
    /// Outside of what it can give.
    #[error("{title} goes from {least} to {most}, not {amount}")]
    Range {
        /// The lever's name.
        title: &'static str,
        /// Least.
        least: f64,
        /// Most.
        most: f64,
        /// What was asked.
        amount: f64,
    },
}

impl Levers {
    /// Sets a lever.
    ///
    /// # Errors
    /// When it is part of the setup, or the amount is out of its range.
    pub fn set(&mut self, lever: Lever, amount: f64) -> Result<(), LeverError> {
        let facts = lever.facts();
        if !lever.is_on_the_car() {
            return Err(LeverError::InTheSetup(facts.title));
        }
        let (least, most, _) = facts.range;
        if !(least..=most).contains(&amount) {
            return Err(LeverError::Range { title: facts.title, least, most, amount });
        }
        self.amounts[lever as usize] = amount;
        Ok(())
    }

    /// This, with a lever set: for amounts out of the lever's own range of steps.
    #[must_use]
    pub(crate) fn with(mut self, lever: Lever, amount: f64) -> Self {
        self.amounts[lever as usize] = amount;
        self
    }

    /// How far a lever is set.
    pub fn amount(&self, lever: Lever) -> f64 {
        self.amounts[lever as usize]
    }

    /// The levers that are set, from mild to hard.
    pub fn that_are_set(&self) -> impl Iterator<Item = (Lever, f64)> + '_ {
        Lever::ALL.into_iter().map(|lever| (lever, self.amount(lever))).filter(|(_, amount)| *amount != 0.0)
    }

    /// Change of camber in degrees, negative = top further in.
    pub fn camber_deg(&self) -> f64 {
        self.amount(Lever::Camber)
    }

    /// Change of ride height in millimetres, + is up: the frame over the wheels.
    pub fn raised(&self) -> f64 {
        self.amount(Lever::RideHeight)
    }

    /// How far a part of the body goes up, in millimetres: with the ride height, and what is not of the frame with a body lift.
    pub fn raised_at(&self, feature: Feature) -> f64 {
        let with_the_body = if feature.is_of_the_frame() { 0.0 } else { self.amount(Lever::BodyLift) };
        self.raised() + with_the_body
    }

    /// Room that work on the car makes to a part, in millimetres. Camber and ride height move the wheel or
    /// the body as a whole and are not in here.
    pub fn room(&self, feature: Feature) -> f64 {
        Lever::ALL
            .into_iter()
            .flat_map(|lever| {
                let moves = lever.facts().moves.iter();
                moves.filter(|(moved, _)| *moved == feature).map(move |(_, share)| self.amount(lever) * share)
            })
            .sum()
    }

    /// As lengths, for callers outside.
    pub fn room_to(&self, feature: Feature) -> Length {
        Length::mm(self.room(feature))
    }
}

macro_rules! lever {
    ($lever:ident, $code:literal, $title:literal, $range:expr, $proposed:expr, $in_degrees:literal, $moves:expr, $does:literal,
     $never:literal, $undone:literal, $costs:literal, $caution:literal) => {
        Facts {
            lever: Lever::$lever,
            code: $code,
            title: $title,
            range: $range,
            proposed: $proposed,
            in_degrees: $in_degrees,
            moves: $moves,
            does: $does,
            never: $never,
            can_be_undone: $undone,
            costs: $costs,
            caution: $caution,
        }
    };
}

/// In the order of [`Lever`]'s variants, from mild to hard. Common practice throughout; a shop's own experience
/// of a car beats every amount here.
pub const FACTS: [Facts; 17] = [
    lever!(
        Spacer,
        "spacer",
        "spacer",
        (0.0, 0.0, 0.0),
        (0.0, 0.0),
        false,
        &[],
        "Moves wheel and tire outward by its thickness.",
        "Never gives room to the fender.",
        true,
        "Larger scrub radius, more load on the bearing, fasteners longer by its thickness.",
        "Check thread engagement and the hub lip; a spacer without its own centring needs enough lip left. Retorque."
    ),
    lever!(
        Offset,
        "offset",
        "another offset",
        (0.0, 0.0, 0.0),
        (0.0, 0.0),
        false,
        &[],
        "Moves wheel and tire in or out by the difference.",
        "Never gives room on both sides at once.",
        true,
        "A wheel that is to be had; scrub radius changes with it.",
        "5 mm short can be mended with a spacer, 5 mm too far cannot: when in doubt take the higher offset."
    ),
    lever!(
        RimWidth,
        "rim_width",
        "another rim width",
        (0.0, 0.0, 0.0),
        (0.0, 0.0),
        false,
        &[],
        "Half of the difference on each side.",
        "Never changes the overall diameter.",
        true,
        "The tire stands otherwise on it; stay inside its permitted rims.",
        "A rim outside the tire's permitted widths is not fitted."
    ),
    lever!(
        Tire,
        "tire",
        "another tire width or aspect",
        (0.0, 0.0, 0.0),
        (0.0, 0.0),
        false,
        &[],
        "Takes rubber away on both sides, or under the arch.",
        "Never moves the rim flange.",
        true,
        "Load, grip and gearing change with the size.",
        "Load index and speed symbol must still be enough."
    ),
    lever!(
        Camber,
        "camber",
        "camber",
        (-8.0, 3.0, 0.5),
        (-3.0, 0.0),
        true,
        &[],
        "Leans the top of the wheel inward, away from the fender lip: about 5 mm a degree at the sidewall.",
        "Never gives room to strut or spring perch, which lean with the wheel; camber bolts between strut and upright take it away.",
        true,
        "Uneven wear on the inner shoulder, less braking grip; toe changes with it.",
        "Have the car aligned afterwards. How it is had counts at the strut: say it at the car; unknown, bolts at the strut's foot are reckoned with."
    ),
    lever!(
        RideHeight,
        "ride_height",
        "ride height",
        (-150.0, 250.0, 5.0),
        (-40.0, 60.0),
        false,
        &[],
        "Raises or lowers the body over the wheel: the arch gap follows one to one.",
        "Never gives room to strut, spring perch or caliper, which go up and down with the wheel.",
        true,
        "Lowering: less travel, more camber. Lifting: higher centre of gravity, steeper joints.",
        "Changed ride height may need approval; headlights and camber must be set again."
    ),
    lever!(
        LipRolled,
        "lip_rolled",
        "lip rolled",
        (0.0, 10.0, 5.0),
        (0.0, 10.0),
        false,
        &[(Feature::FenderLateral, 1.0)],
        "Folds the inner edge of the fender lip up: about 5 to 10 mm sideways.",
        "Never gives room under the arch at rest, or inboard.",
        false,
        "Paint and seam sealer crack if it is done cold; rust follows.",
        "Warm the paint, seal the seam. It cannot be undone."
    ),
    lever!(
        FenderPulled,
        "fender_pulled",
        "fender pulled",
        (0.0, 20.0, 5.0),
        (0.0, 20.0),
        false,
        &[(Feature::FenderLateral, 1.0)],
        "Bends the fender outward: about 10 to 20 mm.",
        "Never gives room inboard.",
        false,
        "Body and paint work; bumper and door gaps.",
        "Wheel coverage is judged at the new line: ask a licensed inspector first."
    ),
    lever!(
        LinerTrimmed,
        "liner_trimmed",
        "liner trimmed",
        (0.0, 15.0, 5.0),
        (0.0, 15.0),
        false,
        &[(Feature::LinerAhead, 1.0), (Feature::InnerLiner, 1.0)],
        "Takes the liner's edge away where the tire meets it.",
        "Never gives room to metal behind the liner.",
        false,
        "Spray and stones reach what the liner covered.",
        "Look for wiring and hoses behind it first."
    ),
    lever!(
        PinchWeldFlattened,
        "pinch_weld_flattened",
        "pinch weld flattened",
        (0.0, 15.0, 5.0),
        (0.0, 15.0),
        false,
        &[(Feature::SillBehind, 1.0)],
        "Hammers the seam flat behind the tire.",
        "Never gives room elsewhere.",
        false,
        "Bare metal: seal and paint it.",
        "A structural seam: never cut it, and ask a licensed inspector."
    ),
    lever!(
        SteeringLimiter,
        "steering_limiter",
        "steering limiter",
        (0.0, 10.0, 5.0),
        (0.0, 10.0),
        false,
        &[
            (Feature::LinerAhead, 1.0),
            (Feature::SillBehind, 1.0),
            (Feature::Frame, 1.0),
            (Feature::SwayBar, 1.0),
            (Feature::InnerLiner, 1.0)
        ],
        "Ends the steering lock before the tire touches.",
        "Never gives room at rest or straight ahead.",
        true,
        "A larger turning circle.",
        "The steering must still come back by itself; both sides alike."
    ),
    lever!(
        BumpStop,
        "bump_stop",
        "longer bump stops",
        (0.0, 100.0, 5.0),
        (0.0, 40.0),
        false,
        &[],
        "Ends the travel upward so much earlier.",
        "Never gives room at rest.",
        true,
        "Harsher over bumps; under load the stop itself gives.",
        "A patch: mend the cause where you can. Both sides alike, and look again with the car loaded."
    ),
    lever!(
        LimitStrap,
        "limit_strap",
        "limit straps",
        (0.0, 150.0, 10.0),
        (0.0, 60.0),
        false,
        &[],
        "Ends the travel downward so much earlier.",
        "Never gives room at rest or upward.",
        true,
        "Less droop: a wheel lifts earlier off the road.",
        "Anchored where the axle's weight may hang; check joints and brake hoses at full droop."
    ),
    lever!(
        Arms,
        "arms",
        "arms for caster or camber",
        (0.0, 15.0, 5.0),
        (0.0, 15.0),
        false,
        &[(Feature::SillBehind, 1.0), (Feature::LinerAhead, -1.0), (Feature::UpperArm, 1.0)],
        "Sets the wheel forward in the arch and moves the arm away.",
        "Never gives room ahead: what it gains behind it takes there.",
        true,
        "Steering effort, bushings, an alignment.",
        "Parts with papers for this car; aligned and inspected afterwards."
    ),
    lever!(
        BodyLift,
        "body_lift",
        "body lift",
        (0.0, 100.0, 5.0),
        (0.0, 50.0),
        false,
        &[],
        "Raises the body on its frame: arch, lip, liners and sill go up one to one, the suspension stays.",
        "Never gives room to frame, sway bar, arms or strut.",
        true,
        "Higher centre of gravity; steering shaft, shifter and bumpers need parts.",
        "Only on a car with a frame. Approval in many places; hoses, wiring and the steering shaft checked for length."
    ),
    lever!(
        BodyMountCut,
        "body_mount_cut",
        "body mount cut",
        (0.0, 40.0, 10.0),
        (0.0, 40.0),
        false,
        &[(Feature::SillBehind, 1.0), (Feature::Frame, 1.0)],
        "Cuts and plates the body mount behind the tire.",
        "Never gives room ahead.",
        false,
        "Welding on a load-bearing part.",
        "Only by a qualified welder and with approval: it carries the body in a crash."
    ),
    lever!(
        Flares,
        "flares",
        "flares",
        (0.0, 120.0, 10.0),
        (0.0, 60.0),
        false,
        &[(Feature::FenderLateral, 1.0), (Feature::Arch, 0.5)],
        "Cuts the fender and sets the line further out.",
        "Never gives room inboard.",
        false,
        "Body work that cannot be undone; width changes.",
        "The car's registered width may change: approval and a licensed inspector."
    ),
];

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_lever_stands_in_its_own_row_and_says_what_it_costs() {
        for (at, facts) in FACTS.iter().enumerate() {
            assert_eq!(facts.lever as usize, at, "{}", facts.code);
            assert_eq!(Lever::from_code(facts.code), Some(facts.lever));
            for text in [facts.does, facts.never, facts.costs, facts.caution] {
                assert!(text.ends_with('.'), "{}: {text:?}", facts.code);
            }
            let (least, most, step) = facts.range;
            assert!(least <= 0.0 && most >= 0.0 && (step > 0.0) == (least < most), "{}", facts.code);
        }
        assert_eq!(Lever::from_code("hope"), None);
    }

    #[test]
    fn the_usual_amounts() {
        // Common practice: lip rolled about 5–10 mm, fender pulled about 10–20.
        assert_eq!(Lever::LipRolled.facts().range.1, 10.0);
        assert_eq!(Lever::FenderPulled.facts().range.1, 20.0);
        for facts in FACTS {
            let ((least, most, _), (from, to)) = (facts.range, facts.proposed);
            assert!(least <= from && to <= most, "{}", facts.code);
        }
    }

    #[test]
    fn room_is_the_sum_of_what_the_levers_give() {
        let mut levers = Levers::default();
        levers.set(Lever::LipRolled, 5.0).unwrap();
        levers.set(Lever::FenderPulled, 10.0).unwrap();
        levers.set(Lever::Arms, 10.0).unwrap();
        assert_eq!(levers.room(Feature::FenderLateral), 15.0);
        assert_eq!((levers.room(Feature::SillBehind), levers.room(Feature::LinerAhead)), (10.0, -10.0));
        assert_eq!(levers.room(Feature::Strut), 0.0, "no lever on the car moves the strut");
        assert_eq!(levers.that_are_set().count(), 3);
    }

    #[test]
    fn a_lever_is_held_to_what_it_can_give() {
        let mut levers = Levers::default();
        assert!(matches!(levers.set(Lever::Spacer, 5.0), Err(LeverError::InTheSetup(_))));
        assert!(matches!(levers.set(Lever::LipRolled, 80.0), Err(LeverError::Range { .. })));
        assert!(matches!(levers.set(Lever::Camber, f64::NAN), Err(LeverError::Range { .. })));
        assert_eq!(levers, Levers::default());
    }
}
