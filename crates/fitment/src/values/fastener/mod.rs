//! What holds a wheel: thread and seat.

mod seat;
mod thread;

pub use seat::Seat;
pub use thread::{Thread, ThreadError};
