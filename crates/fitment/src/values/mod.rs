//! Values that the trade reckons with, each with its meaning: what is a length, what is only a code written in inches, what
//! carries a sign, and how a figure shows where it comes from.

pub mod cautions;
pub(crate) mod coded;
pub mod codes;
pub mod date_code;
pub mod fastener;
pub mod length;
pub mod load_index;
pub mod speed_symbol;
pub mod verdict;
pub mod working;
