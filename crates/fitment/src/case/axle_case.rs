//! One axle of a case.

use crate::corner::{Corner, Resolved};
use crate::lever::Levers;
use crate::limits::HouseLimits;
use crate::setup::{Axle, Setup};

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
}

impl AxleCase<'_> {
    /// Camber with the plan, in degrees: as aligned, and what is set on top of it.
    pub fn planned_camber(&self) -> f64 {
        self.corner.camber() + self.levers.camber_deg()
    }
}
