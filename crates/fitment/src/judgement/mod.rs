//! Whether it goes: a car with its plan ([`case`]), the room to what was measured ([`clearance`]), the offsets that clear
//! ([`window`]), how far a fender covers a tread ([`coverage`]), what a class allows ([`club`]), what the set is for
//! ([`purpose`]), and one file a rule ([`rules`]).

pub mod case;
pub mod clearance;
pub mod club;
pub mod coverage;
pub mod purpose;
pub mod rules;
pub mod window;
