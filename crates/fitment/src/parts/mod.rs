//! Wheel and tire: what a name says of a part.

pub mod tire;
pub mod wheel;
