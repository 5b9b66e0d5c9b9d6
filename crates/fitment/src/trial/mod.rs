//! The trial fit: what was tried on, what it hit, and what that says of everything not tried yet.
//!
//! - [`TryOn`]: one wheel tried on one corner. A contact is a measurement: it feeds the corner back as a reading.
//! - [`conclude`]: what an axle's trials come to, in sentences, and what to try next.
//!
//! # Source
//! Geometry and common practice; see each rule.

mod conclusion;

use crate::coded::coded;
use crate::corner::{CarSide, Feature, Reading, Steer, Suspension, Tried};
use crate::length::Length;
use crate::setup::{Axle, Setup};

pub use conclusion::{Conclusion, Kind, Line, Next, conclude};

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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::case::AxleCase;
    use crate::clearance::Verdict;
    use crate::corner::Corner;
    use crate::lever::Levers;
    use crate::limits::HouseLimits;

    pub(super) fn tried(setup: &str, contact: Contact, gap: Option<f64>) -> TryOn {
        TryOn {
            axle: Axle::Rear,
            side: None,
            setup: setup.parse().unwrap(),
            contact,
            gap: gap.map(Length::mm),
            plus_minus: Length::mm(0.5),
            steer: Steer::Straight,
            is_hanging: false,
        }
    }

    fn verdict(tries: &[TryOn], setup: &str) -> Verdict {
        let fitted: Setup = "18x8 ET40 245/45R18".parse().unwrap();
        let corner = Corner {
            readings: tries.iter().filter_map(TryOn::reading).collect(),
            camber_deg: Some(0.0),
            ..Corner::default()
        };
        let (resolved, limits, levers) = (corner.resolve(), HouseLimits::DEFAULT, Levers::default());
        assert!(resolved.troubles.is_empty(), "{:?}", resolved.troubles);
        let trial = AxleCase {
            axle: Axle::Rear,
            corner: &corner,
            resolved: &resolved,
            fitted: &fitted,
            limits: &limits,
            levers: &levers,
        };
        let contact = tries[0].contact.feature().unwrap();
        trial.fit(&setup.parse().unwrap()).unwrap().line(contact).unwrap().verdict
    }

    #[test]
    fn a_contact_judges_the_wheels_that_were_not_tried() {
        // The 17 stands 4 mm into the knuckle: half an inch less all round is 16.7 mm, half an inch more 8.7 of room.
        let tries = [tried("17x8 ET40", Contact::BarrelKnuckle, Some(-4.0))];
        for (setup, wanted) in
            [("16x8 ET40", Verdict::Touches), ("17x8 ET40", Verdict::Touches), ("18x8 ET40", Verdict::Clears)]
        {
            assert_eq!(verdict(&tries, setup), wanted, "{setup}");
        }
    }

    #[test]
    fn a_contact_nobody_measured_rules_out_and_never_clears() {
        let tries = [tried("18x9.5 ET30 245/40R18", Contact::Fender, None)];
        assert_eq!(verdict(&tries, "18x9.5 ET25 245/40R18"), Verdict::Touches, "further out still");
        assert_eq!(
            verdict(&tries, "18x9.5 ET45 245/40R18"),
            Verdict::MeasureFirst,
            "nobody knows by how much"
        );
        // A measured gap beside it decides.
        let both = [tries[0], tried("18x8.5 ET45 245/40R18", Contact::Fender, Some(20.0))];
        assert_eq!(verdict(&both, "18x8.5 ET40 245/40R18"), Verdict::Clears);
    }
}
