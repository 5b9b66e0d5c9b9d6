//! One wheel tried on one corner. A contact is a measurement: it feeds the corner back as a reading.

use super::{CarSide, Feature, Reading, Steer, Suspension, Tried};
use crate::setup::{Axle, Setup};
use crate::values::coded::coded;
use crate::values::length::Length;

/// What a tried wheel or tire met.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs, reason = "the contacts by their names; see title")]
pub enum Contact {
    None,
    BarrelCaliper,
    SpokeCaliper,
    BarrelLink,
    BarrelKnuckle,
    BarrelParkingBrake,
    Strut,
    Knuckle,
    Fender,
    Arch,
    Liner,
}

coded!(Contact:
    None = "none",
    BarrelCaliper = "barrel_caliper",
    SpokeCaliper = "spoke_caliper",
    BarrelLink = "barrel_link",
    BarrelKnuckle = "barrel_knuckle",
    BarrelParkingBrake = "barrel_parking_brake",
    Strut = "strut",
    Knuckle = "knuckle",
    Fender = "fender",
    Arch = "arch",
    Liner = "liner",
);

impl Contact {
    /// In the trade's words.
    pub fn title(self) -> &'static str {
        match self {
            Self::None => "nothing",
            Self::BarrelCaliper => "barrel on caliper",
            Self::SpokeCaliper => "spoke on caliper",
            Self::BarrelLink => "barrel on link",
            Self::BarrelKnuckle => "barrel on knuckle",
            Self::BarrelParkingBrake => "barrel on parking brake",
            Self::Strut => "tire or rim on strut",
            Self::Knuckle => "tire or rim on knuckle",
            Self::Fender => "tire or rim on fender lip",
            Self::Arch => "tire on arch",
            Self::Liner => "tire on inner liner",
        }
    }

    /// The part it met, in a sentence's middle.
    pub fn part(self) -> &'static str {
        match self {
            Self::None => "nothing",
            Self::BarrelCaliper | Self::SpokeCaliper => "caliper",
            Self::BarrelLink => "link",
            Self::BarrelKnuckle | Self::Knuckle => "knuckle",
            Self::BarrelParkingBrake => "parking brake",
            Self::Strut => "strut",
            Self::Fender => "fender lip",
            Self::Arch => "arch",
            Self::Liner => "inner liner",
        }
    }

    /// The gap it is a reading of. What stands inside the barrel counts as the caliper does: it bounds the rim's
    /// diameter.
    pub fn feature(self) -> Option<Feature> {
        match self {
            Self::None => None,
            Self::BarrelCaliper | Self::BarrelLink | Self::BarrelKnuckle | Self::BarrelParkingBrake => {
                Some(Feature::CaliperRadial)
            }
            Self::SpokeCaliper => Some(Feature::CaliperFace),
            Self::Strut => Some(Feature::Strut),
            Self::Knuckle => Some(Feature::Knuckle),
            Self::Fender => Some(Feature::FenderLateral),
            Self::Arch => Some(Feature::Arch),
            Self::Liner => Some(Feature::InnerLiner),
        }
    }

    /// Whether it is the barrel that met something.
    pub fn is_of_barrel(self) -> bool {
        self.feature() == Some(Feature::CaliperRadial)
    }
}

/// One wheel tried on one corner.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TryOn {
    /// On which axle.
    pub axle: Axle,
    /// On which side, when noted.
    pub side: Option<CarSide>,
    /// What was tried; without a tire the bare wheel.
    pub setup: Setup,
    /// What it met, or the nearest that was looked at.
    pub contact: Contact,
    /// Gap, or as a negative the overlap; `None` when nobody measured it.
    pub gap: Option<Length>,
    /// How far that may be off.
    pub plus_minus: Length,
    /// Straight or at lock.
    pub steer: Steer,
    /// Whether the wheel hung free.
    pub is_hanging: bool,
}

impl TryOn {
    /// Whether it touched: an overlap, or a contact nobody measured.
    pub fn touched(&self) -> bool {
        self.contact != Contact::None && self.gap.is_none_or(|gap| gap <= Length::ZERO)
    }

    /// Whether it says by itself that there was room: it met nothing, or what it met was a gap.
    pub fn ran_clean(&self) -> bool {
        self.contact == Contact::None || self.gap.is_some_and(|gap| gap > Length::ZERO)
    }

    /// Whether it was this very wheel on the same spacer.
    pub fn is_of_the_wheel_of(&self, setup: &Setup) -> bool {
        let placed = |setup: &Setup| (setup.wheel.map(|wheel| wheel.placed()), setup.spacer);
        self.setup.wheel.is_some() && placed(&self.setup) == placed(setup)
    }

    /// As a reading of the corner; `None` when nothing was met or looked at. A contact that nobody measured is a bound:
    /// there is at most no room.
    pub fn reading(&self) -> Option<Reading> {
        let feature = self.contact.feature()?;
        let base = Reading::new(feature, self.gap.unwrap_or(Length::ZERO), self.plus_minus, self.setup);
        Some(Reading {
            side: self.side,
            stance: if self.is_hanging { Suspension::Drooped } else { Suspension::AtRideHeight },
            steer: self.steer,
            tried: Some(if self.gap.is_some() { Tried::Measured } else { Tried::AtMost }),
            ..base
        })
    }
}
