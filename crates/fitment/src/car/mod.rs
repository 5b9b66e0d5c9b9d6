//! The car: its record, the house's limits, its corners as they were measured, what goes on them, and how they move.
//!
//! - [`record`]: what the factory built and what was done to it since. [`limits`]: the house's.
//! - [`section`]: the cut through wheel and tire. [`motion`]: that cut turned and travelling.
//! - [`corner`]: readings, and the parts of the car that they place ([`corner::shape`]: one file a shape).
//! - [`lever`]: what can be done to the car. [`style`]: how a wheel stands at the fender. [`brake`]: what is inside the barrel.

pub mod brake;
pub mod corner;
pub mod lever;
pub mod limits;
pub mod motion;
pub mod record;
pub mod section;
pub mod style;

pub use record::{Alternative, Car, CarError, FACTS, Fact, FactFacts, FactKind, Value};
