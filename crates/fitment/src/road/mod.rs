//! What it does once it rolls, and as it wears: figures of the road ([`rolling`], [`dial`], [`rolling_mass`]), telling the car's module
//! ([`recalibration`]), the car at the limit ([`track`]), tread, upkeep, inspections, and what comes next.

pub mod dial;
pub mod inspection;
pub mod next_step;
pub mod recalibration;
pub mod rolling;
pub mod rolling_mass;
pub mod track;
pub mod tread;
pub mod upkeep;
