//! The shapes themselves: where an obstacle begins.

use crate::car::corner::Feature;
use crate::car::corner::feature::BlocksFrom;
use crate::setup::Setup;

/// Where an obstacle begins.
///
/// # Frame
/// Corner frame of [`crate::car::corner`], millimetres.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ObstacleShape {
    /// A level line that may be met at any height: the part was read at its nearest, the height not noted.
    /// It begins at `y` and goes on inboard or outboard, away from the wheel.
    Wall {
        /// Where it begins.
        y: f64,
    },
    /// The same at one height, which was noted.
    Spot {
        /// Where it begins.
        y: f64,
        /// How far above the axle.
        height: f64,
    },
    /// A strut: an edge that goes on up and down and leans inboard at its top.
    Edge {
        /// Where its face is at `height`.
        y: f64,
        /// How far above the axle it is nearest to what it was read against.
        height: f64,
        /// How far its top leans inboard, in degrees.
        lean_deg: f64,
    },
    /// A spring perch: it begins at `y` and at `height`, and goes on inboard and up.
    Perch {
        /// Where its edge is.
        y: f64,
        /// How far above the axle.
        height: f64,
    },
    /// Above the tire.
    Ceiling {
        /// How far above the axle.
        z: f64,
    },
    /// Known only by the gap it left to what was fitted.
    Beside {
        /// That gap.
        gap: f64,
        /// What was fitted.
        fitted: Setup,
    },
}

impl ObstacleShape {
    /// The same further along the axis that its readings differ along: y outboard, z up, a gap larger.
    #[must_use]
    pub fn moved(self, by: f64) -> Self {
        match self {
            Self::Wall { y } => Self::Wall { y: y + by },
            Self::Spot { y, height } => Self::Spot { y: y + by, height },
            Self::Edge { y, height, lean_deg } => Self::Edge { y: y + by, height, lean_deg },
            Self::Perch { y, height } => Self::Perch { y: y + by, height },
            Self::Ceiling { z } => Self::Ceiling { z: z + by },
            Self::Beside { gap, fitted } => Self::Beside { gap: gap + by, fitted },
        }
    }

    /// The same, read at another height.
    #[must_use]
    pub fn read_higher(self, by: f64) -> Self {
        match self {
            Self::Spot { y, height } => Self::Spot { y, height: height + by },
            Self::Perch { y, height } => Self::Perch { y, height: height + by },
            // A strut is read wherever it is nearest.
            Self::Wall { .. } | Self::Edge { .. } | Self::Ceiling { .. } | Self::Beside { .. } => self,
        }
    }

    /// The same, leaning further inboard at its top.
    #[must_use]
    pub fn leaned(self, by_deg: f64) -> Self {
        match self {
            Self::Edge { y, height, lean_deg } => Self::Edge { y, height, lean_deg: lean_deg + by_deg },
            Self::Wall { .. }
            | Self::Spot { .. }
            | Self::Perch { .. }
            | Self::Ceiling { .. }
            | Self::Beside { .. } => self,
        }
    }

    /// Where an edge is at a height; `None` for what is no edge.
    pub(crate) fn at_height(self, at: f64) -> Option<f64> {
        match self {
            Self::Edge { y, height, lean_deg } => Some(y - (at - height) * lean_deg.to_radians().tan()),
            Self::Wall { .. }
            | Self::Spot { .. }
            | Self::Perch { .. }
            | Self::Ceiling { .. }
            | Self::Beside { .. } => None,
        }
    }

    /// Where it begins on the axis of [`ObstacleShape::moved`].
    pub fn along(self) -> f64 {
        match self {
            Self::Wall { y } | Self::Spot { y, .. } | Self::Edge { y, .. } | Self::Perch { y, .. } => y,
            Self::Ceiling { z } => z,
            Self::Beside { gap, .. } => gap,
        }
    }

    /// How far above the axle it was read, where that is known.
    pub fn height(self) -> Option<f64> {
        match self {
            Self::Spot { height, .. } | Self::Edge { height, .. } | Self::Perch { height, .. } => {
                Some(height)
            }
            Self::Wall { .. } | Self::Ceiling { .. } | Self::Beside { .. } => None,
        }
    }

    /// Whether it is met by whatever of the wheel is as high as it: then shoulder and underside of a flange count.
    pub(crate) fn is_met_at_its_height(self) -> bool {
        match self {
            Self::Spot { .. } | Self::Perch { .. } => true,
            Self::Wall { .. } | Self::Edge { .. } | Self::Ceiling { .. } | Self::Beside { .. } => false,
        }
    }

    /// Whether how sure the room to it is hangs on how far from it the wheel stands: a strut's other lean turns it further away
    /// the further it is.
    pub(crate) fn is_surer_nearby(self) -> bool {
        match self {
            Self::Spot { .. } | Self::Perch { .. } | Self::Edge { .. } => true,
            Self::Wall { .. } | Self::Ceiling { .. } | Self::Beside { .. } => false,
        }
    }

    /// Where it is drawn: y and height, each where it is known, with so much room made by work on the car and the body raised.
    /// `None` for what is known only by its gap.
    pub fn drawn(self, feature: Feature, by_work: f64, raised: f64) -> Option<(Option<f64>, Option<f64>)> {
        let away = if feature.blocks_from() == BlocksFrom::Outboard { by_work } else { -by_work };
        match self {
            Self::Wall { y } => Some((Some(y + away), None)),
            Self::Spot { y, height } | Self::Edge { y, height, .. } | Self::Perch { y, height } => {
                Some((Some(y + away), Some(height)))
            }
            Self::Ceiling { z } => Some((None, Some(z + raised + by_work))),
            Self::Beside { .. } => None,
        }
    }
}
