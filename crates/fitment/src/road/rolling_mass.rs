//! What four wheels with their tires weigh, at rest and to the engine.

use super::rolling::equivalent_mass_kg;
use crate::judgement::case::Case;
use crate::setup::Axle;

/// What four wheels with their tires come to, in kilograms.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RollingMass {
    /// The wheels alone.
    pub wheels_kg: f64,
    /// The tires alone.
    pub tires_kg: f64,
    /// What the engine feels of both: the mass, and what turning it is worth.
    pub to_accelerate_kg: f64,
}

/// A wheel and a tire on the scale, in kilograms.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weighed {
    /// The wheel alone.
    pub wheel_kg: f64,
    /// The tire alone.
    pub tire_kg: f64,
}

/// Of a set, by the scale, else by the weights in the rows it is picked from; `None` while one of them is not listed.
pub fn rolling_mass(case: &Case<'_>, weighed: Option<Weighed>) -> Option<RollingMass> {
    let parts = &case.state.parts;
    let mut sum = RollingMass { wheels_kg: 0.0, tires_kg: 0.0, to_accelerate_kg: 0.0 };
    for axle in Axle::BOTH {
        let setup = case.planned.on(axle)?;
        let listed = || {
            let (wheel, tire) = (parts.wheel_of(setup)?, parts.tire_of(setup)?);
            Some(Weighed { wheel_kg: wheel.mass_kg?, tire_kg: tire.mass_kg? })
        };
        let Weighed { wheel_kg, tire_kg } = weighed.or_else(listed)?;
        let (overall, rim) = (setup.overall_diameter()?, setup.wheel?.diameter.everyday());
        sum.wheels_kg += 2.0 * wheel_kg;
        sum.tires_kg += 2.0 * tire_kg;
        sum.to_accelerate_kg += 2.0 * equivalent_mass_kg(wheel_kg, tire_kg, overall, rim);
    }
    Some(sum)
}
