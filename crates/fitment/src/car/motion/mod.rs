//! The wheel in motion: turned about its steering axis, and travelling.
//!
//! - [`axis`]: the steering axis, and what a plan does to scrub radius and trail.
//! - [`pose`]: where a point of the wheel goes, and back.
//! - [`envelope`]: which poses a use of the car reaches.
//! - [`estimate`]: what is taken for a kind of suspension of which nothing was measured.
//! - [`DistanceField`]: an outline that is asked for its distance many times.
//! - [`wheel`]: a setup on a car whose steering was measured with another one.
//! - [`cloud`]: a part as places, and how near the wheel comes to them.
//! - `passed`: where nothing stands, since the fitted wheel passes there from lock to lock.
//! - [`sweep`]: the least room to parts of the car over all poses.
//!
//! # Frame and signs
//! Corner frame of [`crate::car::corner`]: x forward, y outboard, z up, origin where the spin axis meets the bare hub face at
//! static height, wheels straight. Steer angle + = this wheel's front edge swings outboard (the inner wheel of a turn).
//! Travel + = bump, the wheel up against the body. Millimetres; degrees on every surface, radians inside.

pub mod axis;
mod blocks;
pub mod cloud;
pub mod envelope;
pub mod estimate;
mod field;
mod given_up;
mod lowest;
mod passed;
pub mod pose;
mod search;
pub mod sweep;
pub mod wheel;

pub use axis::{OutOfRange, Steering, SteeringAxis};
pub use cloud::{Cloud, CloudMap};
pub use envelope::{Envelope, Reach};
pub use estimate::SuspensionKind;
pub use field::DistanceField;
pub use passed::Passing;
pub(crate) use pose::IntoWheel;
pub use pose::{Carried, Kinematics, Pose, Travel};
pub use sweep::{CloudAnswer, Sweep, SweepAnswer};
pub use wheel::MovingWheel;

/// A place in the corner frame: x, y, z in millimetres.
pub type Place = [f64; 3];

/// An invented strut suspension that the tests of this module turn about.
#[cfg(test)]
const STRUT: Steering = Steering {
    inclination_deg: 13.0,
    caster_deg: 5.0,
    scrub_radius_mm: -5.0,
    trail_mm: 26.0,
    lock_outward_deg: 38.0,
    lock_inward_deg: 31.0,
};
