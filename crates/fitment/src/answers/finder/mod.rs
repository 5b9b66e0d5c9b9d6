//! The finder: the catalogue's whole cross product of wheels and tires on two axles, ranked.
//!
//! - [`wish`](SearchCriteria): what is wanted, and the weights.
//! - [`criteria`]: each criterion, one function with its rule; a score goes from 0 to 1.
//! - [`filters`](Filter): what a setup must hold, each by name, so that it can be said which one stands in the way.
//! - [`search`](find): the search itself. [`reasons`], [`why_above`]: what it says of a result.
//!
//! A *setup* here is a pair of wheel and tire sizes, front and rear. Of the offsets, spacers and rows that make it
//! (lines, finishes, makers) the best-scoring ones are taken: one line of wheels and one line of tires all
//! round. The ranking is exact: what comes first is first among everything the catalogue can make, equal scores in
//! the order of the rows' numbers.

pub mod criteria;
mod criterion;
mod filters;
mod options;
mod requirements;
mod search;
mod stock;
mod why;
mod wish;

pub use criteria::Scores;
pub use criterion::Criterion;
pub use filters::Filter;
pub use search::{AxleChoice, Found, Obstruction, Outcome, Scene, find};
pub use why::{Reason, reasons, why_above};
pub use wish::{Approach, Arrangements, KeptParts, SearchCriteria, Weights};
