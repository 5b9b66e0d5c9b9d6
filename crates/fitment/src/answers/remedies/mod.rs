//! What turns a verdict: the mildest levers that make a plan clear, and how much of the allowed work it really needs.

mod least_work;
mod mildest;

pub use least_work::least_of;
pub(crate) use least_work::least_work;
pub use mildest::{Proposal, helps, mildest, mildest_for};
