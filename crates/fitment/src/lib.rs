//! The rules of the tire fitment trade and all its arithmetic.
//!
//! Nine rooms, which are its folders. Each knows only those above it in this list; a test of the workspace keeps it so.
//!
//! - [`values`]: lengths, codes, load index and speed symbol, verdicts; every figure a person acts on brings its
//!   [`working`](values::working): the steps, the figures put in, and the source.
//! - [`parts`]: tire and wheel. What a name says of a part.
//! - [`notation`]: sizes as they are written, typed or pasted.
//! - [`setup`]: what sits on one axle, the line it is spoken in, what can be ordered, and what changes from one to another.
//! - [`car`]: its record, the house's limits, corners as measured, the cut through wheel and tire, motion, levers, brake.
//! - [`judgement`]: the case that is judged, clearance, window, coverage, classes, and the rules, one file each.
//! - [`road`]: rolling, recalibration, track, tread, upkeep.
//! - [`records`]: what is kept as a whole document, each with a version.
//! - [`answers`]: ledger, remedies, measurement plan, motion, trial, proven fits, finder. They only ask.
//!
//! What holds everywhere: same input, same output, bit for bit; nothing panics on any input; what was not
//! given stays `None` and is never taken for zero.
//!
//! What is deliberately not here: files, sockets, SQL, the clock, rounding for display, and any word of HTML.
//! Callers hand in today's date where age matters.
#![warn(missing_docs)]

pub mod answers;
pub mod car;
pub mod judgement;
pub mod notation;
pub mod parts;
pub mod records;
pub mod road;
pub mod setup;
pub mod values;

pub use parts::tire::Tire;
pub use parts::wheel::Wheel;
pub use setup::{Axle, Setup, SetupPair};
pub use values::codes::{BoltCircle, CenterBore, Offset, RimDiameter, RimWidth, Spacer};
pub use values::length::Length;
