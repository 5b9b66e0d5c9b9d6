//! What can be in a wheel's way.

use crate::length::Length;
use crate::limits::HouseLimits;
use crate::setup::Axle;

/// What of the car moves a part about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Carrier {
    /// The body: ride height and camber change what is between it and the wheel.
    Body,
    /// The upright: goes up and down with the wheel, so no suspension lift ever changes it.
    Upright,
    /// A suspension arm: shifts with travel by a share nobody has measured.
    Arm,
}

/// From where a part stands in the way.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum BlocksFrom {
    /// From the middle of the car: bounds the offset from above.
    Inboard,
    /// From outside: bounds the offset from below.
    Outboard,
    /// From above the tire.
    Above,
    /// From before or behind the tire.
    AheadOrBehind,
    /// From inside the barrel.
    Barrel,
    /// From behind the spokes.
    Spoke,
}

/// A part of the car that is measured against the wheel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
#[allow(missing_docs, reason = "the parts by their names; see FACTS")]
pub enum Feature {
    Strut,
    SpringPerch,
    Knuckle,
    UpperArm,
    FenderLateral,
    Arch,
    LinerAhead,
    SillBehind,
    Frame,
    SwayBar,
    InnerLiner,
    CaliperRadial,
    CaliperFace,
    InnerWheelhouse,
    FrameRail,
    TrailingArm,
    Exhaust,
    LowerArm,
    TieRodEnd,
}

/// What the trade knows about a part.
#[derive(Debug, Clone, Copy)]
pub struct Facts {
    /// The part.
    pub feature: Feature,
    /// Its code on the wire and in files.
    pub code: &'static str,
    /// The ledger's code for it.
    pub ledger_code: &'static str,
    /// The question, in the trade's words.
    pub title: &'static str,
    /// Its name in a sentence.
    pub name: &'static str,
    /// What the gap is between, in a sentence.
    pub between: &'static str,
    /// Where to put the gauge.
    pub how: &'static str,
    /// What carries it.
    pub carrier: Carrier,
    /// From where it stands in the way.
    pub bears: BlocksFrom,
    /// Smallest and largest gap, in millimetres, that a wheel well of a road car can show.
    pub plausible_mm: (f64, f64),
    /// What is usually found, and how much cars differ, in millimetres: only to order the measure list.
    pub usual_mm: (f64, f64),
    /// Smallest and largest distance on the bare hub, in millimetres, where it can be read so.
    pub bare_hub_mm: Option<(f64, f64)>,
    /// Whether it must be read at full lock on an axle that steers.
    pub at_lock: bool,
}

impl Feature {
    /// All of them, in the order they are read in the bay: round the wheel from outside to inside.
    pub const ALL: [Self; 19] = [
        Self::FenderLateral,
        Self::Arch,
        Self::Strut,
        Self::SpringPerch,
        Self::Knuckle,
        Self::UpperArm,
        Self::LowerArm,
        Self::TieRodEnd,
        Self::TrailingArm,
        Self::InnerWheelhouse,
        Self::FrameRail,
        Self::Exhaust,
        Self::CaliperRadial,
        Self::CaliperFace,
        Self::LinerAhead,
        Self::SillBehind,
        Self::Frame,
        Self::SwayBar,
        Self::InnerLiner,
    ];

    /// What the trade knows about it.
    pub fn facts(self) -> &'static Facts {
        &FACTS[self as usize]
    }

    /// Its code on the wire and in files.
    pub fn code(self) -> &'static str {
        self.facts().code
    }

    /// The part of this code.
    pub fn from_code(code: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|feature| feature.code() == code)
    }

    /// What carries it.
    pub fn carrier(self) -> Carrier {
        self.facts().carrier
    }

    /// From where it stands in the way.
    pub fn blocks_from(self) -> BlocksFrom {
        self.facts().bears
    }

    /// The house's least gap to it on a car as built; see `AxleCase::least` for the car at hand.
    pub fn house_minimum(self, limits: &HouseLimits) -> Length {
        match self {
            Self::Strut | Self::SpringPerch | Self::Knuckle | Self::TieRodEnd => limits.strut_gap,
            Self::UpperArm | Self::LowerArm | Self::TrailingArm => limits.arm_gap,
            Self::FenderLateral => limits.fender_gap,
            Self::Arch => limits.arch_gap,
            Self::LinerAhead
            | Self::SillBehind
            | Self::Frame
            | Self::SwayBar
            | Self::InnerLiner
            | Self::InnerWheelhouse
            | Self::FrameRail
            | Self::Exhaust => limits.lock_gap,
            Self::CaliperRadial => limits.caliper_radial_gap,
            Self::CaliperFace => limits.caliper_face_gap,
        }
    }

    /// Whether it stands inside the barrel or behind the spokes: profiles and trials speak of it as well.
    pub fn is_of_the_brake(self) -> bool {
        matches!(self.blocks_from(), BlocksFrom::Barrel | BlocksFrom::Spoke)
    }

    /// Whether no plan is finished without it: the nearest part on each side of the wheel.
    pub fn is_essential(self) -> bool {
        matches!(self, Self::Strut | Self::FenderLateral | Self::Arch)
    }

    /// Whether this axle has it at all, as far as one can say without the car. Steering asks for lock on the
    /// front axle only.
    pub fn is_read_on(self, axle: Axle) -> bool {
        match self {
            Self::InnerWheelhouse | Self::FrameRail | Self::TrailingArm | Self::Exhaust => axle == Axle::Rear,
            Self::TieRodEnd => axle == Axle::Front,
            _ => axle == Axle::Front || !self.facts().at_lock,
        }
    }

    /// Whether it lies under the axle: its distance from the axle is downward.
    pub fn is_below(self) -> bool {
        matches!(self, Self::LowerArm | Self::TieRodEnd)
    }

    /// How far from the axle it usually is, as a share of the tire's radius: where the bay draws it. `None` for parts that have
    /// a place of their own in the drawing.
    pub fn drawn_at(self) -> Option<f64> {
        match self {
            Self::InnerWheelhouse => Some(0.95),
            Self::FrameRail => Some(0.66),
            Self::Exhaust => Some(0.54),
            Self::TrailingArm => Some(0.40),
            Self::TieRodEnd => Some(0.42),
            Self::LowerArm => Some(0.30),
            _ => None,
        }
    }
}

macro_rules! part {
    ($feature:ident, $code:literal, $title:literal, $name:literal, $between:literal, $how:literal, $carrier:ident,
     $bears:ident, $plausible:expr, $usual:expr, $bare_hub:expr, $at_lock:literal) => {
        Facts {
            feature: Feature::$feature,
            code: $code,
            ledger_code: concat!("clear-", $code),
            title: $title,
            name: $name,
            between: $between,
            how: $how,
            carrier: Carrier::$carrier,
            bears: BlocksFrom::$bears,
            plausible_mm: $plausible,
            usual_mm: $usual,
            bare_hub_mm: $bare_hub,
            at_lock: $at_lock,
        }
    };
}

/// In the order of [`Feature`]'s variants. The plausible and usual gaps are common practice, no source: they
/// catch a slipped unit and order the measure list, and no clearance is computed from them.
const FACTS: [Facts; 19] = [
    part!(
        Strut,
        "strut",
        "Tire to strut",
        "strut",
        "tire and strut",
        "Gauge level, from the innermost tire or rim to the strut or spring; the smallest place, and how far it is from the axle.",
        Upright,
        Inboard,
        (-5.0, 150.0),
        (14.0, 8.0),
        Some((60.0, 320.0)),
        false
    ),
    part!(
        SpringPerch,
        "spring_perch",
        "Tire to spring perch",
        "spring perch",
        "tire and spring perch",
        "Gauge level, from the tire's shoulder to the edge of the spring perch; note how far the edge is from the axle.",
        Upright,
        Inboard,
        (-5.0, 150.0),
        (17.0, 9.0),
        None,
        false
    ),
    part!(
        Knuckle,
        "knuckle",
        "Tire to knuckle",
        "knuckle",
        "rim or tire and knuckle",
        "From the rim's inner flange to the knuckle or its arm; note how far it is from the axle.",
        Upright,
        Inboard,
        (-5.0, 150.0),
        (16.0, 9.0),
        None,
        false
    ),
    part!(
        UpperArm,
        "upper_arm",
        "Tire to upper arm",
        "upper control arm",
        "tire and upper control arm",
        "From the tire to the upper control arm, on the ground; note how far it is from the axle.",
        Arm,
        Inboard,
        (-5.0, 180.0),
        (22.0, 12.0),
        None,
        false
    ),
    part!(
        FenderLateral,
        "fender_lateral",
        "Inside the fender lip",
        "fender lip",
        "tire and fender lip",
        "Plumb line from the lip at the top of the arch; level to the sidewall or rim flange, whichever is further out. Minus when the tire stands outside.",
        Body,
        Outboard,
        (-90.0, 150.0),
        (14.0, 11.0),
        Some((0.0, 260.0)),
        false
    ),
    part!(
        Arch,
        "arch",
        "Under the arch",
        "arch",
        "tire top and arch lip",
        "Straight up from the top of the tire to the arch lip, car on the ground.",
        Body,
        Above,
        (-20.0, 320.0),
        (62.0, 22.0),
        Some((220.0, 650.0)),
        false
    ),
    part!(
        LinerAhead,
        "liner_ahead",
        "Tire to liner or bumper",
        "liner or bumper edge",
        "tire and liner or bumper edge",
        "From the tire to the liner or bumper edge ahead, at full lock each way.",
        Body,
        AheadOrBehind,
        (-5.0, 250.0),
        (24.0, 14.0),
        None,
        true
    ),
    part!(
        SillBehind,
        "sill_behind",
        "Tire to sill",
        "sill or pinch weld",
        "tire and sill or pinch weld",
        "From the tire to the sill or pinch weld behind, at full lock each way.",
        Body,
        AheadOrBehind,
        (-5.0, 250.0),
        (26.0, 14.0),
        None,
        true
    ),
    part!(
        Frame,
        "frame",
        "Tire to frame",
        "frame",
        "tire and frame",
        "From the tire's inner edge to the frame rail, at full lock each way.",
        Body,
        Inboard,
        (-5.0, 250.0),
        (26.0, 14.0),
        None,
        true
    ),
    part!(
        SwayBar,
        "sway_bar",
        "Tire to sway bar",
        "sway bar",
        "tire and sway bar",
        "From the tire's inner edge to the sway bar or its link, at full lock each way.",
        Body,
        Inboard,
        (-5.0, 250.0),
        (24.0, 13.0),
        None,
        true
    ),
    part!(
        InnerLiner,
        "inner_liner",
        "Tire to inner liner",
        "inner liner",
        "tire and inner liner",
        "From the tire's inner edge to the inner liner, at full lock each way.",
        Body,
        Inboard,
        (-5.0, 250.0),
        (28.0, 15.0),
        None,
        true
    ),
    part!(
        CaliperRadial,
        "caliper_radial",
        "Caliper to barrel",
        "caliper",
        "caliper and barrel",
        "Feeler between the caliper's outer edge and the barrel; turn the wheel and take the smallest.",
        Upright,
        Barrel,
        (0.0, 140.0),
        (9.0, 6.0),
        None,
        false
    ),
    part!(
        CaliperFace,
        "caliper_face",
        "Caliper to spoke",
        "caliper face",
        "caliper and spoke back",
        "Modelling clay or feeler between the caliper's face and the back of a spoke; take the smallest.",
        Upright,
        Spoke,
        (0.0, 120.0),
        (9.0, 6.0),
        None,
        false
    ),
    part!(
        InnerWheelhouse,
        "inner_wheelhouse",
        "Tire to inner wheelhouse",
        "inner wheelhouse",
        "tire and inner wheelhouse",
        "Gauge level, from the tire's innermost place to the wheelhouse wall behind it, where it is nearest.",
        Body,
        Inboard,
        (-5.0, 250.0),
        (48.0, 14.0),
        None,
        false
    ),
    part!(
        FrameRail,
        "frame_rail",
        "Tire to frame rail",
        "frame rail",
        "tire and frame rail",
        "Gauge level, from the tire's innermost place to the rail or subframe.",
        Body,
        Inboard,
        (-5.0, 250.0),
        (52.0, 15.0),
        None,
        false
    ),
    part!(
        TrailingArm,
        "trailing_arm",
        "Tire to trailing arm",
        "trailing arm or leaf spring",
        "rim or tire and trailing arm or leaf spring",
        "The shortest way from rim or tire to the trailing arm, leaf spring or link; note how far it is from the axle.",
        Arm,
        Inboard,
        (-5.0, 180.0),
        (44.0, 14.0),
        None,
        false
    ),
    part!(
        Exhaust,
        "exhaust",
        "Tire to exhaust and hose",
        "exhaust or brake hose",
        "tire and exhaust or brake hose",
        "From the tire's innermost place to the exhaust, heat shield, brake hose or cable; warm parts and hoses move.",
        Body,
        Inboard,
        (-5.0, 250.0),
        (60.0, 16.0),
        None,
        false
    ),
    part!(
        LowerArm,
        "lower_arm",
        "Rim to lower arm",
        "lower control arm",
        "rim or tire and lower control arm",
        "From the rim's inner edge, below the axle, to the lower arm or its link; note how far it is from the axle.",
        Arm,
        Inboard,
        (-5.0, 180.0),
        (42.0, 13.0),
        None,
        false
    ),
    part!(
        TieRodEnd,
        "tie_rod_end",
        "Rim to tie-rod end",
        "ball joint or tie-rod end",
        "rim and ball joint or tie-rod end",
        "From the rim's inner edge, below the axle, to the ball joint or tie-rod end; note how far it is from the axle.",
        Upright,
        Inboard,
        (-5.0, 150.0),
        (40.0, 13.0),
        None,
        false
    ),
];

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_part_stands_in_its_own_row() {
        for (at, facts) in FACTS.iter().enumerate() {
            assert_eq!(facts.feature as usize, at, "{}", facts.code);
            assert_eq!(Feature::from_code(facts.code), Some(facts.feature));
            assert!(facts.plausible_mm.0 < facts.plausible_mm.1 && facts.usual_mm.1 > 0.0, "{}", facts.code);
            let others = FACTS.iter().filter(|other| other.code == facts.code).count();
            assert_eq!(others, 1, "{} is there twice", facts.code);
        }
        assert_eq!(Feature::from_code("flux_capacitor"), None);
    }

    #[test]
    fn each_axle_is_asked_for_its_own() {
        for (feature, front, rear) in [
            (Feature::Strut, true, true),
            (Feature::LowerArm, true, true),
            (Feature::TieRodEnd, true, false),
            (Feature::SillBehind, true, false),
            (Feature::TrailingArm, false, true),
            (Feature::Exhaust, false, true),
        ] {
            let on = |axle| feature.is_read_on(axle);
            assert_eq!((on(Axle::Front), on(Axle::Rear)), (front, rear), "{feature:?}");
        }
        assert_eq!(Feature::ALL.len(), FACTS.len());
        assert!(Feature::ALL.iter().all(|feature| feature.drawn_at().is_none_or(|at| at > 0.0 && at < 1.0)));
    }

    #[test]
    fn what_goes_up_and_down_with_the_wheel() {
        // Common practice: a lift does nothing for the spring perch.
        for feature in [Feature::Strut, Feature::SpringPerch, Feature::Knuckle, Feature::CaliperRadial] {
            assert_eq!(feature.carrier(), Carrier::Upright);
        }
        assert_eq!(Feature::TieRodEnd.carrier(), Carrier::Upright);
        assert_eq!(Feature::LowerArm.carrier(), Carrier::Arm);
        assert_eq!(Feature::Arch.carrier(), Carrier::Body);
        assert_eq!(Feature::UpperArm.carrier(), Carrier::Arm);
    }
}
