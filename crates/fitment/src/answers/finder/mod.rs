//! The finder: the catalogue's whole cross product of wheels and tires on two axles, ranked.
//!
//! - [`wish`](SearchCriteria): what is wanted, and the weights.
//! - [`criteria`]: each criterion, one function with its rule; a score goes from 0 to 1.
//! - [`filters`](Filter): what a setup must hold, each by name, so that it can be said which one stands in the way.
//! - `classes` of like rows, `side`: one axle with each of them placed, `pairing`: both axles best first, `designs`: the same
//!   sizes in other designs; [`find`] is the search itself.
//! - [`reasons`], [`why_above`]: what it says of a result.
//!
//! A *setup* here is a pair of wheel and tire sizes, front and rear. Of the offsets, spacers and rows that make it
//! (lines, finishes, makers) the best-scoring ones are taken: one line of wheels and one line of tires all
//! round. The ranking is exact: what comes first is first among everything the catalogue can make, equal scores in
//! the order of the rows' numbers.

mod classes;
pub mod criteria;
mod criterion;
mod designs;
mod filters;
mod found;
mod options;
mod pairing;
mod requirements;
mod scene;
mod search;
mod side;
mod stock;
mod why;
mod wish;

pub use criteria::Scores;
pub use criterion::Criterion;
pub use filters::Filter;
pub use found::{AxleChoice, Found};
pub use scene::Scene;
pub use search::{Obstruction, Outcome, find};
pub use why::{Reason, reasons, why_above};
pub use wish::{Approach, Arrangements, KeptParts, SearchCriteria, Weights};
