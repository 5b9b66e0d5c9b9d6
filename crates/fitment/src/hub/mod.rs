//! How a wheel is held: bolt circle, bore and ring, seat, thread, spacer.
//!
//! - [`Thread`], [`Seat`]: what they are called and what follows from it.
//! - [`mount`]: whether a wheel goes on a hub, and what must be ordered with it.

mod mount;
mod seat;
mod thread;

pub use mount::{
    BORE_CLEARANCE, Hub, LEAST_LIP, Mounting, Problem, ProblemKind, Ring, SOURCE, WheelSide,
    least_turns_worked, mount, retorque_caution,
};
pub use seat::Seat;
pub use thread::{Thread, ThreadError};
