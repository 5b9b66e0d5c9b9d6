//! How a wheel is held: bolt circle, bore and ring, seat, thread, spacer.
//!
//! - [`Thread`], [`Seat`]: what they are called and what follows from it.
//! - [`mount`]: whether a wheel goes on a hub, and what must be ordered with it.

mod mount;
mod seat;
mod thread;

use crate::codes::BoltCircle;

pub use mount::{
    BORE_CLEARANCE, Hub, LEAST_LIP, Mounting, Problem, ProblemKind, Ring, SOURCE, WheelSide,
    least_turns_worked, mount, retorque_caution,
};
pub use seat::Seat;
pub use thread::{Thread, ThreadError};

/// A bolt circle as it is written in a car's record: `5x112`, `5×114,3`.
pub fn read_circle(text: &str) -> Option<BoltCircle> {
    let (count, diameter) = text.split_once(['x', 'X', '×', '/'])?;
    BoltCircle::new(count.trim().parse().ok()?, diameter.trim().replace(',', ".").parse().ok()?)
}
