//! Between the store and the wire: a stored job made into a case of the core, and the questions that are asked of it.
//!
//! It knows no HTTP and no JSON, and judges nothing: every word is a rule's own ([`fitment::judgement::rules`]).
//!
//! - [`knowledge`]: what a job knows of its car, as the core wants it, and kept until the job changes.
//! - [`evidence`]: the workshop's records as evidence; what can no longer be read is said, never dropped.
//! - [`catalogue`]: the price lists' rows, loaded once; [`finder`]: setups made of them, with all that must be said of each.
//! - [`picked`]: the rows picked from the price lists.
//! - [`brakes`]: a wheel over a job's brakes, with the ledger's own word; [`brake_sweep`]: a whole catalogue.
//! - [`bench`]: a plan with every answer that is shown of it; [`compare`]: setups side by side; [`ladder`]: sizes against a car and a catalogue.
//! - [`drawn`]: drawn cases for a line whose word hangs on how what may be off is added.
//! - [`proven`]: the library of proven fits, ordered for a job.
//! - [`road`]: a plan on the road and at the track.
//! - [`trials`]: what a job's trials come to.

pub mod bench;
pub mod brake_sweep;
pub mod brakes;
pub mod catalogue;
pub mod compare;
pub mod drawn;
pub mod evidence;
pub mod finder;
pub mod knowledge;
pub mod ladder;
pub mod picked;
pub mod proven;
pub mod road;
pub mod trials;

pub use knowledge::{CachedJob, JobKnowledge, JudgingContext};
