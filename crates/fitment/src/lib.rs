//! The rules of the tire fitment trade and all its arithmetic.
//!
//! Contents, in the order of the work:
//!
//! - [`length`], [`codes`]: what is a length, what is only a code written in inches, what carries a sign.
//! - [`working`]: every figure a person acts on brings its steps, the figures put in, and the source.
//! - [`notation`]: reading sizes as they are written, typed or pasted; errors that name the piece.
//! - [`load_index`], [`speed_symbol`], [`date_code`], [`utqg`]: what the sidewall says beside the size.
//! - [`tire`], [`wheel`]: the dimensions that follow from a size. [`rubber`]: how the one sits on the other.
//! - [`setup`]: what sits on one axle, and the setup line it is spoken in.
//! - [`change`]: from one setup to another, per axle and between the axles.
//! - [`speedometer`]: what the dial shows and what the law asks of it.
//! - [`section`]: the cut through wheel and tire that is drawn, and later measured against.
//! - [`car`]: what the factory built and what was done since.
//! - [`corner`]: what was measured on the car. [`clearance`]: what clears it, and how sure that is.
//! - [`style`]: tucked, flush or poke. [`window`]: the offsets that clear, for each rim width.
//! - [`brake`]: whether a wheel goes over the caliper. [`trial`]: what was tried on, and what it says.
//! - [`proven`]: fits of finished jobs, their nearness, and the envelope they make.
//! - [`lever`]: what can be done about a gap. [`measure`]: what must still be read.
//! - [`needs`]: what the car asks of every wheel and tire. [`hub`]: how a wheel is held. [`choose`]: size ladder, pressure, stagger, and the finder over a catalogue.
//! - [`limits`], [`ledger`]: the house's limits, and one judged line per question.
//!
//! What holds everywhere: same input, same output, bit for bit; nothing panics on any input; what was not
//! given stays `None` and is never taken for zero.
//!
//! What is deliberately not here: files, sockets, SQL, the clock, rounding for display, and any word of HTML.
//! Callers hand in today's date where age matters.
#![warn(missing_docs)]

pub mod brake;
pub mod car;
pub mod change;
pub mod choose;
pub mod clearance;
mod coded;
pub mod codes;
pub mod corner;
pub mod date_code;
pub mod hub;
pub mod ledger;
pub mod length;
pub mod lever;
pub mod limits;
pub mod load_index;
pub mod measure;
pub mod needs;
pub mod notation;
pub mod proven;
pub mod rubber;
pub mod section;
pub mod setup;
pub mod speed_symbol;
pub mod speedometer;
pub mod style;
pub mod tire;
pub mod trial;
pub mod utqg;
pub mod wheel;
pub mod window;
pub mod working;

pub use codes::{BoltCircle, CenterBore, Offset, RimDiameter, RimWidth, Spacer};
pub use length::Length;
pub use setup::{Axle, Setup, SetupPair};
pub use tire::Tire;
pub use wheel::Wheel;
