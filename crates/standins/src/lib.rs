//! Simulated devices that ship with the program, so that everything can be tried without buying one.
//!
//! - [`gauge`]: a digital gauge that sends what it reads.
//! - [`module`]: a car's module that counts by its tire.
//! - [`supplier`]: a supplier that says what is in stock.
//!
//! What holds: each speaks its own wire protocol over loopback and depends on no other crate of ours; a real
//! device that speaks the same protocol can take its place.

pub mod gauge;
pub mod module;
pub mod supplier;
