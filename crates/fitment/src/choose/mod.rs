//! Choosing: from what a car can take to complete, orderable setups.
//!
//! - [`catalogue`]: wheels and tires that can be ordered. [`finder`]: the best setups they make for a car.
//! - [`parts`]: the rows a job has picked. [`ladder`]: plus and minus sizes round a tire, inside a diameter band.
//! - [`pressure`]: the cold pressure at which a tire carries a load.
//! - [`stagger`]: front against rear: ratio, which axle stands taller, what can be rotated.
//!
//! What is deliberately not here: where a price list comes from, and what the supplier has today.

pub mod catalogue;
pub mod finder;
pub mod ladder;
pub mod parts;
pub mod pressure;
pub mod stagger;
