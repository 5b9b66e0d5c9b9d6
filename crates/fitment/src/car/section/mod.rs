//! The cut through wheel and tire: the profiles that are drawn, and later measured against.
//!
//! - [`rim`]: flanges, bead seats, humps, well, spoke and mounting pad.
//! - [`variants`]: the same as it may truly be.
//! - [`tire`]: beads, sidewalls, shoulders and crown on that very rim.
//! - [`outline`]: both as one closed line.
//! - [`mounted`]: a setup placed in the corner frame.
//! - [`added`]: what growth, chains and mud add to it.
//!
//! # Frame
//! Wheel coordinates: y along the axle, 0 at the wheel's mounting pad, outboard positive; r from the spin
//! axis. Millimetres. On the car everything moves outboard by the spacer's thickness.
//!
//! Widths, diameters, bead seats and flange heights follow the standards; the spoke, the thicknesses and the
//! exact curves are schematic, since no maker publishes them.

pub mod added;
mod deviations;
pub mod mounted;
pub mod outline;
pub mod rim;
pub mod tire;
pub mod variants;

pub use added::Added;
pub use deviations::Deviations;
pub use mounted::MountedSetup;
pub(crate) use mounted::{SHOULDER_AT, Standing};
pub(crate) use outline::Edge;
pub use outline::{Outline, Toward};
pub use rim::{RimSection, rim_section};
pub use tire::{TireSection, tire_section};
pub(crate) use variants::PARTS;
pub use variants::{Part, Tolerances, Variants};

/// A point of a profile, in millimetres.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Point {
    /// Along the axle, outboard positive.
    pub y: f64,
    /// From the spin axis.
    pub r: f64,
}

impl Point {
    /// A point.
    pub const fn new(y: f64, r: f64) -> Self {
        Self { y, r }
    }

    pub(crate) fn moved(self, by_y: f64) -> Self {
        Self { y: self.y + by_y, ..self }
    }

    fn mirrored(self) -> Self {
        Self { y: -self.y, ..self }
    }
}

/// Points in which a cubic curve is flattened; a sidewall of 100 mm is then within 0.2 mm of its curve.
const STEPS: usize = 9;

/// Flattens a cubic Bézier curve without its first point. Stays inside its control polygon.
fn cubic(from: Point, c1: Point, c2: Point, to: Point) -> impl Iterator<Item = Point> {
    (1..=STEPS).map(move |step| {
        let t = step as f64 / STEPS as f64;
        let u = 1.0 - t;
        let (a, b, c, d) = (u * u * u, 3.0 * u * u * t, 3.0 * u * t * t, t * t * t);
        let mix = |f: fn(Point) -> f64| a * f(from) + b * f(c1) + c * f(c2) + d * f(to);
        // The end is hit exactly, so that extremes are exact.
        if step == STEPS { to } else { Point::new(mix(|p| p.y), mix(|p| p.r)) }
    })
}

/// Points on an arc, angles in degrees from outboard toward the tread.
fn arc(center: Point, radius: f64, from_deg: f64, to_deg: f64, steps: usize) -> impl Iterator<Item = Point> {
    (0..=steps).map(move |step| {
        let angle = (from_deg + (to_deg - from_deg) * step as f64 / steps as f64).to_radians();
        Point::new(center.y + radius * angle.cos(), center.r + radius * angle.sin())
    })
}
