//! The rules of the tire fitment trade and all its arithmetic.
//!
//! Floors, each knowing only those above it in this list; a test of the workspace keeps it so:
//!
//! - values: [`length`], [`codes`] (what is a length, what is only a code written in inches, what carries a sign),
//!   [`load_index`], [`speed_symbol`], [`date_code`], [`fastener`], [`verdict`], [`working`] (every figure a person acts on brings its
//!   steps, the figures put in, and the source).
//! - parts: [`tire`], [`wheel`], [`tire_on_rim`], [`notation`] (reading sizes as they are written, typed or pasted),
//!   [`setup`] (what sits on one axle, and the setup line it is spoken in), [`catalogue`] (what can be ordered),
//!   [`change`] (from one setup to another), [`road`] (what it does once it rolls), [`recalibration`] (telling
//!   the car's module), [`track`] (the car at the limit),
//!   [`tread`] (as it wears), [`club`] (what a class allows).
//! - car: [`limits`] (the house's), [`car`] (its record), [`section`] (the cut through wheel and tire), [`motion`] (turned and travelling), [`corner`] (what
//!   was measured), [`lever`] (what can be done), [`brake`], [`style`].
//! - [`case`]: what is judged; decides what a plan is held against.
//! - [`clearance`], [`window`]: the room to what was measured, and the offsets that clear.
//! - [`rules`]: one module a rule.
//! - answers, which only ask: [`ledger`], [`looks`], [`mend`], [`measure`], [`swept`], [`trial`], [`proven`], [`plus_sizes`], [`finder`], [`coverage`],
//!   [`upkeep`], [`next_step`] and [`inspection`] (of tires and wheels at the track).
//!
//! What holds everywhere: same input, same output, bit for bit; nothing panics on any input; what was not
//! given stays `None` and is never taken for zero.
//!
//! What is deliberately not here: files, sockets, SQL, the clock, rounding for display, and any word of HTML.
//! Callers hand in today's date where age matters.
#![warn(missing_docs)]

pub mod brake;
pub mod car;
pub mod case;
pub mod catalogue;
pub mod cautions;
pub mod change;
pub mod clearance;
pub mod club;
mod coded;
pub mod codes;
pub mod corner;
pub mod coverage;
pub mod date_code;
pub mod fastener;
pub mod finder;
pub mod inspection;
pub mod ledger;
pub mod length;
pub mod lever;
pub mod limits;
pub mod load_index;
pub mod looks;
pub mod measure;
pub mod mend;
pub mod motion;
pub mod next_step;
pub mod notation;
pub mod plus_sizes;
pub mod proven;
pub mod recalibration;
pub mod road;
pub mod rules;
pub mod section;
pub mod setup;
pub mod speed_symbol;
pub mod standard_sizes;
pub mod style;
pub mod swept;
pub mod tire;
pub mod tire_on_rim;
pub mod track;
pub mod tread;
pub mod trial;
pub mod upkeep;
pub mod verdict;
pub mod wheel;
pub mod window;
pub mod working;

pub use codes::{BoltCircle, CenterBore, Offset, RimDiameter, RimWidth, Spacer};
pub use length::Length;
pub use setup::{Axle, Setup, SetupPair};
pub use tire::Tire;
pub use wheel::Wheel;
