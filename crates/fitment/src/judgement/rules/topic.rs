//! What a line of the ledger is about, in one word: by it causes are told from their consequences, and scripts find a line.

use super::LineCode;
use super::mount::MountingPart;
use crate::car::corner::Feature;
use crate::values::coded::coded;

/// A topic.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs, reason = "the topics by their names")]
pub enum Topic {
    Load,
    Speed,
    Pressure,
    Dial,
    Band,
    Ratio,
    TireOnRim,
    Tread,
    Circle,
    Bore,
    Ring,
    Seat,
    Thread,
    Spacer,
    CenterLock,
    Lip,
    Arch,
    Strut,
    Perch,
    Knuckle,
    InsideBarrel,
    CaliperBarrel,
    CaliperSpoke,
    Lock,
    Wheelhouse,
    Bump,
    Sensors,
    Mix,
    Age,
    Winter,
    CamberLoad,
    Chains,
    WheelRating,
    Class,
    Rotation,
    Valves,
    Coverage,
    Approval,
    TrackWidth,
    Spare,
    Lights,
    Scrub,
    Bearing,
    Other,
}

coded!(Topic:
    Load = "load",
    Speed = "speed",
    Pressure = "pressure",
    Dial = "dial",
    Band = "band",
    Ratio = "ratio",
    TireOnRim = "tire_on_rim",
    Tread = "tread",
    Circle = "circle",
    Bore = "bore",
    Ring = "ring",
    Seat = "seat",
    Thread = "thread",
    Spacer = "spacer",
    CenterLock = "center_lock",
    Lip = "lip",
    Arch = "arch",
    Strut = "strut",
    Perch = "perch",
    Knuckle = "knuckle",
    InsideBarrel = "inside_barrel",
    CaliperBarrel = "caliper_barrel",
    CaliperSpoke = "caliper_spoke",
    Lock = "lock",
    Wheelhouse = "wheelhouse",
    Bump = "bump",
    Sensors = "sensors",
    Mix = "mix",
    Age = "age",
    Winter = "winter",
    CamberLoad = "camber_load",
    Chains = "chains",
    WheelRating = "wheel_rating",
    Class = "class",
    Rotation = "rotation",
    Valves = "valves",
    Coverage = "coverage",
    Approval = "approval",
    TrackWidth = "track_width",
    Spare = "spare",
    Lights = "lights",
    Scrub = "scrub",
    Bearing = "bearing",
    Other = "other",
);

impl Topic {
    /// Its name, as it stands before a sentence about it.
    pub fn label(self) -> &'static str {
        match self {
            Self::Load => "load",
            Self::Speed => "speed symbol",
            Self::Pressure => "pressure",
            Self::Dial => "speedometer",
            Self::Band => "overall diameter",
            Self::Ratio => "front-to-rear ratio",
            Self::TireOnRim => "tire on rim",
            Self::Tread => "tread width",
            Self::Circle => "bolt circle",
            Self::Bore => "center bore",
            Self::Ring => "rings",
            Self::Seat => "seat",
            Self::Thread => "fasteners",
            Self::Spacer => "spacer",
            Self::CenterLock => "center lock",
            Self::Lip => "fender lip",
            Self::Arch => "arch",
            Self::Strut => "strut",
            Self::Perch => "spring perch",
            Self::Knuckle => "knuckle",
            Self::InsideBarrel => "inside the barrel",
            Self::CaliperBarrel => "caliper",
            Self::CaliperSpoke => "caliper face",
            Self::Lock => "full lock",
            Self::Wheelhouse => "wheelhouse",
            Self::Bump => "full bump",
            Self::Sensors => "pressure sensors",
            Self::Mix => "mixed tires",
            Self::Age => "tire age",
            Self::Winter => "winter",
            Self::CamberLoad => "load with camber",
            Self::Chains => "chains",
            Self::WheelRating => "wheel rating",
            Self::Class => "class",
            Self::Rotation => "rotation",
            Self::Valves => "valves",
            Self::Coverage => "fender coverage",
            Self::Approval => "approval",
            Self::TrackWidth => "track width",
            Self::Spare => "spare",
            Self::Lights => "lights",
            Self::Scrub => "scrub radius",
            Self::Bearing => "bearings",
            Self::Other => "",
        }
    }
}

impl LineCode {
    /// What its line is about; `None` for the hub's, which may be about several things at once.
    pub fn topic(self) -> Option<Topic> {
        Some(match self {
            Self::Hub => return None,
            Self::Clearance(feature) => feature.topic(),
            Self::InnerChange => Topic::Strut,
            Self::OuterChange => Topic::Lip,
            Self::ArchGap => Topic::Arch,
            Self::TireOnRim => Topic::TireOnRim,
            Self::TreadWidth => Topic::Tread,
            Self::OverallDiameter => Topic::Band,
            Self::LoadIndex => Topic::Load,
            Self::CamberLoad => Topic::CamberLoad,
            Self::SpeedSymbol => Topic::Speed,
            Self::WheelLoad => Topic::WheelRating,
            Self::Pressure => Topic::Pressure,
            Self::TireAge => Topic::Age,
            Self::Speedometer => Topic::Dial,
            Self::FrontToRear => Topic::Ratio,
            Self::Mix => Topic::Mix,
            Self::Rotation => Topic::Rotation,
            Self::SetBoltCircle => Topic::Circle,
            Self::Sensors => Topic::Sensors,
            Self::Chains => Topic::Chains,
            Self::Unreadable
            | Self::AssumedWork
            | Self::Style
            | Self::Direction
            | Self::ListedSize
            | Self::Balance => Topic::Other,
        })
    }
}

impl Feature {
    /// What its line is about.
    fn topic(self) -> Topic {
        match self {
            Self::FenderLateral => Topic::Lip,
            Self::Arch => Topic::Arch,
            Self::Strut => Topic::Strut,
            Self::SpringPerch => Topic::Perch,
            Self::Knuckle => Topic::Knuckle,
            Self::UpperArm | Self::LowerArm | Self::TieRodEnd => Topic::Other,
            Self::TrailingArm | Self::InnerWheelhouse | Self::FrameRail | Self::Exhaust => Topic::Wheelhouse,
            Self::CaliperRadial => Topic::CaliperBarrel,
            Self::CaliperFace => Topic::CaliperSpoke,
            Self::LinerAhead | Self::SillBehind | Self::Frame | Self::SwayBar | Self::InnerLiner => {
                Topic::Lock
            }
        }
    }
}

impl MountingPart {
    /// What a problem with it is about; a bore that a ring makes good is about the ring.
    pub(super) fn topic(self, is_mended_by_a_part: bool) -> Topic {
        match self {
            Self::BoltCircle => Topic::Circle,
            Self::Bore if is_mended_by_a_part => Topic::Ring,
            Self::Bore => Topic::Bore,
            Self::Seat => Topic::Seat,
            Self::Lip => Topic::Spacer,
            Self::Thread | Self::Length => Topic::Thread,
            Self::CenterLock => Topic::CenterLock,
        }
    }
}
