//! What can be in a wheel's way.

use crate::car::limits::HouseLimits;
use crate::setup::Axle;
use crate::values::length::Length;

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

/// Which shape a part has whose reading says all that is asked of it. One whose height nobody knows is a wall.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum ShapeKind {
    /// [`super::ObstacleShape::Wall`].
    Wall,
    /// [`super::ObstacleShape::Spot`].
    Spot,
    /// [`super::ObstacleShape::Edge`].
    Edge,
    /// [`super::ObstacleShape::Perch`].
    Perch,
    /// [`super::ObstacleShape::Ceiling`].
    Ceiling,
    /// [`super::ObstacleShape::Beside`].
    Beside,
}

/// Which place of the fitted wheel meets a part, where nobody noted it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum MetAt {
    /// Whatever comes nearest.
    Nearest,
    /// The tire's shoulder.
    Shoulder,
    /// The rim's inner flange.
    InnerFlange,
    /// The upper half of the sidewall.
    Sidewall,
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
    pub blocks_from: BlocksFrom,
    /// How its place is kept where everything of it was noted.
    pub shape: ShapeKind,
    /// Which place of the wheel meets it.
    pub met_at: MetAt,
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
        self.facts().blocks_from
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

    /// Whether it hangs on the frame where a car has one: a body lift leaves it where it is.
    pub fn is_of_the_frame(self) -> bool {
        matches!(self, Self::Frame | Self::FrameRail | Self::SwayBar | Self::Exhaust)
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

/// In the order of [`Feature`]'s variants. The plausible and usual gaps are common practice, no source: they
/// catch a slipped unit and order the measure list, and no clearance is computed from them.
const FACTS: [Facts; 19] = [
    Facts {
        feature: Feature::Strut,
        code: "strut",
        ledger_code: "clear-strut",
        title: "Tire to strut",
        name: "strut",
        between: "tire and strut",
        how: "Gauge level, from the innermost tire or rim to the strut or spring; the smallest place, and how far it is from the axle.",
        carrier: Carrier::Upright,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Edge,
        met_at: MetAt::Nearest,
        plausible_mm: (-5.0, 150.0),
        usual_mm: (14.0, 8.0),
        bare_hub_mm: Some((60.0, 320.0)),
        at_lock: false,
    },
    Facts {
        feature: Feature::SpringPerch,
        code: "spring_perch",
        ledger_code: "clear-spring_perch",
        title: "Tire to spring perch",
        name: "spring perch",
        between: "tire and spring perch",
        how: "Gauge level, from the tire's shoulder to the edge of the spring perch; note how far the edge is from the axle.",
        carrier: Carrier::Upright,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Perch,
        met_at: MetAt::Shoulder,
        plausible_mm: (-5.0, 150.0),
        usual_mm: (17.0, 9.0),
        bare_hub_mm: None,
        at_lock: false,
    },
    Facts {
        feature: Feature::Knuckle,
        code: "knuckle",
        ledger_code: "clear-knuckle",
        title: "Tire to knuckle",
        name: "knuckle",
        between: "rim or tire and knuckle",
        how: "From the rim's inner flange to the knuckle or its arm; note how far it is from the axle.",
        carrier: Carrier::Upright,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Spot,
        met_at: MetAt::InnerFlange,
        plausible_mm: (-5.0, 150.0),
        usual_mm: (16.0, 9.0),
        bare_hub_mm: None,
        at_lock: false,
    },
    Facts {
        feature: Feature::UpperArm,
        code: "upper_arm",
        ledger_code: "clear-upper_arm",
        title: "Tire to upper arm",
        name: "upper control arm",
        between: "tire and upper control arm",
        how: "From the tire to the upper control arm, on the ground; note how far it is from the axle.",
        carrier: Carrier::Arm,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Spot,
        met_at: MetAt::Sidewall,
        plausible_mm: (-5.0, 180.0),
        usual_mm: (22.0, 12.0),
        bare_hub_mm: None,
        at_lock: false,
    },
    Facts {
        feature: Feature::FenderLateral,
        code: "fender_lateral",
        ledger_code: "clear-fender_lateral",
        title: "Inside the fender lip",
        name: "fender lip",
        between: "tire and fender lip",
        how: "Plumb line from the lip at the top of the arch; level to the sidewall or rim flange, whichever is further out. Minus when the tire stands outside.",
        carrier: Carrier::Body,
        blocks_from: BlocksFrom::Outboard,
        shape: ShapeKind::Wall,
        met_at: MetAt::Nearest,
        plausible_mm: (-90.0, 150.0),
        usual_mm: (14.0, 11.0),
        bare_hub_mm: Some((0.0, 260.0)),
        at_lock: false,
    },
    Facts {
        feature: Feature::Arch,
        code: "arch",
        ledger_code: "clear-arch",
        title: "Under the arch",
        name: "arch",
        between: "tire top and arch lip",
        how: "Straight up from the top of the tire to the arch lip, car on the ground.",
        carrier: Carrier::Body,
        blocks_from: BlocksFrom::Above,
        shape: ShapeKind::Ceiling,
        met_at: MetAt::Nearest,
        plausible_mm: (-20.0, 320.0),
        usual_mm: (62.0, 22.0),
        bare_hub_mm: Some((220.0, 650.0)),
        at_lock: false,
    },
    Facts {
        feature: Feature::LinerAhead,
        code: "liner_ahead",
        ledger_code: "clear-liner_ahead",
        title: "Tire to liner or bumper",
        name: "liner or bumper edge",
        between: "tire and liner or bumper edge",
        how: "From the tire to the liner or bumper edge ahead, at full lock each way.",
        carrier: Carrier::Body,
        blocks_from: BlocksFrom::AheadOrBehind,
        shape: ShapeKind::Beside,
        met_at: MetAt::Nearest,
        plausible_mm: (-5.0, 250.0),
        usual_mm: (24.0, 14.0),
        bare_hub_mm: None,
        at_lock: true,
    },
    Facts {
        feature: Feature::SillBehind,
        code: "sill_behind",
        ledger_code: "clear-sill_behind",
        title: "Tire to sill",
        name: "sill or pinch weld",
        between: "tire and sill or pinch weld",
        how: "From the tire to the sill or pinch weld behind, at full lock each way.",
        carrier: Carrier::Body,
        blocks_from: BlocksFrom::AheadOrBehind,
        shape: ShapeKind::Beside,
        met_at: MetAt::Nearest,
        plausible_mm: (-5.0, 250.0),
        usual_mm: (26.0, 14.0),
        bare_hub_mm: None,
        at_lock: true,
    },
    Facts {
        feature: Feature::Frame,
        code: "frame",
        ledger_code: "clear-frame",
        title: "Tire to frame",
        name: "frame",
        between: "tire and frame",
        how: "From the tire's inner edge to the frame rail, at full lock each way.",
        carrier: Carrier::Body,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Wall,
        met_at: MetAt::Nearest,
        plausible_mm: (-5.0, 250.0),
        usual_mm: (26.0, 14.0),
        bare_hub_mm: None,
        at_lock: true,
    },
    Facts {
        feature: Feature::SwayBar,
        code: "sway_bar",
        ledger_code: "clear-sway_bar",
        title: "Tire to sway bar",
        name: "sway bar",
        between: "tire and sway bar",
        how: "From the tire's inner edge to the sway bar or its link, at full lock each way.",
        carrier: Carrier::Body,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Wall,
        met_at: MetAt::Nearest,
        plausible_mm: (-5.0, 250.0),
        usual_mm: (24.0, 13.0),
        bare_hub_mm: None,
        at_lock: true,
    },
    Facts {
        feature: Feature::InnerLiner,
        code: "inner_liner",
        ledger_code: "clear-inner_liner",
        title: "Tire to inner liner",
        name: "inner liner",
        between: "tire and inner liner",
        how: "From the tire's inner edge to the inner liner, at full lock each way.",
        carrier: Carrier::Body,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Wall,
        met_at: MetAt::Nearest,
        plausible_mm: (-5.0, 250.0),
        usual_mm: (28.0, 15.0),
        bare_hub_mm: None,
        at_lock: true,
    },
    Facts {
        feature: Feature::CaliperRadial,
        code: "caliper_radial",
        ledger_code: "clear-caliper_radial",
        title: "Caliper to barrel",
        name: "caliper",
        between: "caliper and barrel",
        how: "Feeler between the caliper's outer edge and the barrel; turn the wheel and take the smallest.",
        carrier: Carrier::Upright,
        blocks_from: BlocksFrom::Barrel,
        shape: ShapeKind::Beside,
        met_at: MetAt::Nearest,
        plausible_mm: (0.0, 140.0),
        usual_mm: (9.0, 6.0),
        bare_hub_mm: None,
        at_lock: false,
    },
    Facts {
        feature: Feature::CaliperFace,
        code: "caliper_face",
        ledger_code: "clear-caliper_face",
        title: "Caliper to spoke",
        name: "caliper face",
        between: "caliper and spoke back",
        how: "Modelling clay or feeler between the caliper's face and the back of a spoke; take the smallest.",
        carrier: Carrier::Upright,
        blocks_from: BlocksFrom::Spoke,
        shape: ShapeKind::Beside,
        met_at: MetAt::Nearest,
        plausible_mm: (0.0, 120.0),
        usual_mm: (9.0, 6.0),
        bare_hub_mm: None,
        at_lock: false,
    },
    Facts {
        feature: Feature::InnerWheelhouse,
        code: "inner_wheelhouse",
        ledger_code: "clear-inner_wheelhouse",
        title: "Tire to inner wheelhouse",
        name: "inner wheelhouse",
        between: "tire and inner wheelhouse",
        how: "Gauge level, from the tire's innermost place to the wheelhouse wall behind it, where it is nearest.",
        carrier: Carrier::Body,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Wall,
        met_at: MetAt::Nearest,
        plausible_mm: (-5.0, 250.0),
        usual_mm: (48.0, 14.0),
        bare_hub_mm: None,
        at_lock: false,
    },
    Facts {
        feature: Feature::FrameRail,
        code: "frame_rail",
        ledger_code: "clear-frame_rail",
        title: "Tire to frame rail",
        name: "frame rail",
        between: "tire and frame rail",
        how: "Gauge level, from the tire's innermost place to the rail or subframe.",
        carrier: Carrier::Body,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Wall,
        met_at: MetAt::Nearest,
        plausible_mm: (-5.0, 250.0),
        usual_mm: (52.0, 15.0),
        bare_hub_mm: None,
        at_lock: false,
    },
    Facts {
        feature: Feature::TrailingArm,
        code: "trailing_arm",
        ledger_code: "clear-trailing_arm",
        title: "Tire to trailing arm",
        name: "trailing arm or leaf spring",
        between: "rim or tire and trailing arm or leaf spring",
        how: "The shortest way from rim or tire to the trailing arm, leaf spring or link; note how far it is from the axle.",
        carrier: Carrier::Arm,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Spot,
        met_at: MetAt::Sidewall,
        plausible_mm: (-5.0, 180.0),
        usual_mm: (44.0, 14.0),
        bare_hub_mm: None,
        at_lock: false,
    },
    Facts {
        feature: Feature::Exhaust,
        code: "exhaust",
        ledger_code: "clear-exhaust",
        title: "Tire to exhaust and hose",
        name: "exhaust or brake hose",
        between: "tire and exhaust or brake hose",
        how: "From the tire's innermost place to the exhaust, heat shield, brake hose or cable; warm parts and hoses move.",
        carrier: Carrier::Body,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Wall,
        met_at: MetAt::Nearest,
        plausible_mm: (-5.0, 250.0),
        usual_mm: (60.0, 16.0),
        bare_hub_mm: None,
        at_lock: false,
    },
    Facts {
        feature: Feature::LowerArm,
        code: "lower_arm",
        ledger_code: "clear-lower_arm",
        title: "Rim to lower arm",
        name: "lower control arm",
        between: "rim or tire and lower control arm",
        how: "From the rim's inner edge, below the axle, to the lower arm or its link; note how far it is from the axle.",
        carrier: Carrier::Arm,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Spot,
        met_at: MetAt::InnerFlange,
        plausible_mm: (-5.0, 180.0),
        usual_mm: (42.0, 13.0),
        bare_hub_mm: None,
        at_lock: false,
    },
    Facts {
        feature: Feature::TieRodEnd,
        code: "tie_rod_end",
        ledger_code: "clear-tie_rod_end",
        title: "Rim to tie-rod end",
        name: "ball joint or tie-rod end",
        between: "rim and ball joint or tie-rod end",
        how: "From the rim's inner edge, below the axle, to the ball joint or tie-rod end; note how far it is from the axle.",
        carrier: Carrier::Upright,
        blocks_from: BlocksFrom::Inboard,
        shape: ShapeKind::Spot,
        met_at: MetAt::InnerFlange,
        plausible_mm: (-5.0, 150.0),
        usual_mm: (40.0, 13.0),
        bare_hub_mm: None,
        at_lock: false,
    },
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
