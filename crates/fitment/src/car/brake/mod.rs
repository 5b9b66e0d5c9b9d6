//! Caliper clearance: does a wheel go over the brake?
//!
//! Wheel and brake are solids of revolution as far as clearance goes, so the question is two profiles in the plane of
//! (y outboard from the hub face, r from the spin axis).
//!
//! - [`Profile`]: a line of points. [`gap`]: the gaps between two of them, and where they are smallest.
//! - [`WheelProfile`]: barrel inside and spoke back, from a template or estimated from the size.
//! - [`Package`]: what stands inside the barrel on one corner: caliper, knuckle, link, parking brake.
//! - [`judge`]: a wheel over a package, with bands, balance weights, a sweep of spacers and what the smallest costs.
//! - [`smaller_rim`]: whether the next rim code down is worth lifting on.
//!
//! # Frame
//! The package lies in the corner's frame: y = 0 at the hub face, + outboard. A wheel's profile lies in its own:
//! y = 0 at its mounting pad, + outboard; a spacer of t mm moves it to y + t.
//!
//! # Source
//! Geometry; the limits are the house's (common practice: 3 mm radial, 3 mm to the spokes).

pub mod drawn;
pub mod gap;
mod judge;
mod package;
mod profile;
pub mod smaller_rim;
mod wheel_profile;

pub use gap::{Gaps, gaps};
pub use judge::{
    BrakeFit, BrakeVerdict, Limits, Over, READINGS_PLUS_MINUS_MM, SpacerStep, TEMPLATE_PLUS_MINUS_MM,
    USUAL_WEIGHTS, Weights, judge, over_each_part, sweep, verdict,
};
pub use package::{Bound, BrakePart, Package, Template, bounds_from_fitted};
pub use profile::{Profile, ProfileError};
pub use wheel_profile::{ProfileSource, WheelProfile};
