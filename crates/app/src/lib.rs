//! Between the store and the wire: a stored job made into a case of the core, and the questions that are asked of it.
//!
//! It knows no HTTP and no JSON, and judges nothing: every word is a rule's own ([`fitment::rules`]).
//!
//! - [`knowledge`]: what a job knows of its car, as the core wants it, and kept until the job changes.
//! - [`evidence`]: the workshop's records as evidence; what can no longer be read is said, never dropped.
//! - [`picked`]: the rows picked from the price lists.
//! - [`brakes`]: a wheel over a job's brakes, with the ledger's own word; [`brake_sweep`]: a whole catalogue.
//! - [`trials`]: what a job's trials come to.

pub mod brake_sweep;
pub mod brakes;
pub mod evidence;
pub mod knowledge;
pub mod picked;
pub mod trials;

pub use knowledge::{JobKnowledge, JudgingContext};
