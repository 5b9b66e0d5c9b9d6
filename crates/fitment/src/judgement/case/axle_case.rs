//! One axle of a case.

use std::borrow::Cow;

use super::AxleEvidence;
use crate::car::Car;
use crate::car::corner::{Corner, Feature, Moving, Resolved};
use crate::car::lever::{Lever, Levers};
use crate::car::limits::HouseLimits;
use crate::car::motion::Reach;
use crate::setup::catalogue::PickedParts;
use crate::setup::{Axle, Setup};
use crate::values::length::Length;

/// Everything a setup is tried with.
#[derive(Debug, Clone, Copy)]
pub struct AxleCase<'a> {
    /// Which axle.
    pub axle: Axle,
    /// The corner as measured.
    pub corner: &'a Corner,
    /// Its readings, resolved.
    pub resolved: &'a Resolved,
    /// What is on the car now.
    pub fitted: &'a Setup,
    /// The house's limits.
    pub limits: &'a HouseLimits,
    /// What else is done to the car.
    pub levers: &'a Levers,
    /// What the workshop knows of it.
    pub evidence: &'a AxleEvidence,
    /// The rows picked from the price lists.
    pub parts: &'a PickedParts,
    /// Whether it is meant to stand outside of the fender line.
    pub wants_poke: bool,
}

/// An axle of which nothing but readings is known.
static NO_EVIDENCE: AxleEvidence = AxleEvidence {
    package: crate::car::brake::Package { templates: Vec::new() },
    insides: Vec::new(),
    tries: Vec::new(),
    keeps: super::Keeps { wheel: None, tire: None },
    unreadable: Vec::new(),
};
static NO_PARTS: PickedParts = PickedParts { wheels: Vec::new(), tires: Vec::new() };

impl<'a> AxleCase<'a> {
    /// An axle of which nothing but its readings is known, with no part picked from a list.
    pub fn new(
        axle: Axle,
        corner: &'a Corner,
        resolved: &'a Resolved,
        fitted: &'a Setup,
        limits: &'a HouseLimits,
        levers: &'a Levers,
    ) -> Self {
        let (evidence, parts) = (&NO_EVIDENCE, &NO_PARTS);
        Self { axle, corner, resolved, fitted, limits, levers, evidence, parts, wants_poke: false }
    }

    /// Whether a setup's wheel is the very one that is fitted: the same size and offset, and none picked from a list.
    pub fn keeps_the_wheel(&self, planned: &Setup) -> bool {
        let placed = |setup: &Setup| setup.wheel.map(|wheel| wheel.placed());
        placed(planned).is_some()
            && placed(planned) == placed(self.fitted)
            && self.parts.wheel_of(planned).is_none()
    }

    /// How this axle moves, as far as the car's record says; the rest as usual.
    pub fn moving(&self) -> Cow<'_, Moving> {
        match &self.corner.moving {
            Some(moving) => Cow::Borrowed(moving),
            None => Cow::Owned(Moving::of(&Car::default(), self.axle, Some(self.fitted))),
        }
    }

    /// Camber with the plan, in degrees: as aligned, and what is set on top of it.
    pub fn planned_camber(&self) -> f64 {
        self.corner.camber() + self.levers.camber_deg()
    }

    /// How far this corner reaches with what is done to the car: ride height, bump stops, limit straps.
    pub fn reach(&self, moving: &Moving) -> Reach {
        let reach = moving.reach_raised(self.levers.raised());
        let bump_mm = (reach.bump_mm - self.levers.amount(Lever::BumpStop)).max(0.0);
        let droop_mm = (reach.droop_mm - self.levers.amount(Lever::LimitStrap)).max(0.0);
        Reach { bump_mm, droop_mm, ..reach }
    }

    /// The house's least gap to a part of this car, with what is done to it.
    pub fn least(&self, feature: Feature) -> Length {
        let is_lowered = self.corner.is_lowered || self.levers.raised() < 0.0;
        match feature {
            Feature::Arch if is_lowered => self.limits.arch_gap_lowered,
            _ => feature.house_minimum(self.limits),
        }
    }

    /// How far above the hub's centre the arch lies, with what is done to the car; `None` while nobody read it.
    pub fn arch_above_hub(&self) -> Option<Length> {
        let (room, raised) = (self.levers.room(Feature::Arch), self.levers.raised_at(Feature::Arch));
        self.resolved
            .of(Feature::Arch)
            .filter_map(|obstacle| Length::from_mm(obstacle.shape.drawn(Feature::Arch, room, raised)?.1?))
            .reduce(|a, b| if b < a { b } else { a })
    }
}
