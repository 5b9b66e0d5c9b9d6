//! What is asked of all the rest, and only asks: the ledger and its headline, what mends a plan, what to measure first, the
//! corner in motion, trials, proven fits, the finder.

pub mod dynamic_clearance;
pub mod finder;
pub mod flush_offsets;
pub mod headline;
pub mod ledger;
pub mod measurement_plan;
pub mod plus_sizes;
pub mod proven;
pub mod remedies;
pub mod trial;
