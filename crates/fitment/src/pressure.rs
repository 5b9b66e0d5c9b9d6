//! The cold pressure at which a tire carries a load.

use crate::load_index::LoadIndex;
use crate::tire::{LoadVersion, Tire};
use crate::working::{Figure, Quantity, Source, Step};

/// Where the method comes from.
pub const SOURCE: Source =
    Source::from_memory("ETRTO Standards Manual, load and pressure: P = P_ref × (L / L_max)^(1 / 0.8)");

/// Reference pressure of a standard load tire, in kPa. ETRTO (from memory).
pub const STANDARD_KPA: f64 = 250.0;
/// Reference pressure of an extra load tire, in kPa. ETRTO (from memory).
pub const EXTRA_LOAD_KPA: f64 = 290.0;
/// Load goes with this power of the pressure. ETRTO (from memory).
pub const LOAD_EXPONENT: f64 = 0.8;

/// What must stand beside every suggested pressure.
pub const CAUTION: &str =
    "A suggestion: the tire maker's load table and the car's placard decide. Set it cold.";

/// A suggested cold pressure.
#[derive(Debug, Clone, PartialEq)]
pub struct Pressure {
    /// In kPa; never under the placard, and at the reference pressure when even that is not enough.
    pub kpa: f64,
    /// What the tire carries at its reference pressure, in kilograms: its load index.
    pub capacity_kg: f64,
    /// Whether it carries the load at all.
    pub is_enough: bool,
    /// Whether the placard, not the load, set it.
    pub by_placard: bool,
    /// The working.
    pub figure: Figure,
}

/// The pressure at which a tire carries a load, never under the placard; `None` while no load index is stated.
///
/// # Units
/// `load_kg` is what one tire carries, `placard_kpa` the car's cold pressure on that axle.
///
/// # Source
/// [`SOURCE`].
pub fn pressure_for(tire: &Tire, load_kg: f64, placard_kpa: Option<f64>) -> Option<Pressure> {
    let index: LoadIndex = tire.service?.single;
    let capacity_kg = index.capacity_kg();
    let reference = match tire.load_version {
        Some(LoadVersion::Extra) => EXTRA_LOAD_KPA,
        Some(LoadVersion::Standard) | None => STANDARD_KPA,
    };
    let is_enough = load_kg <= capacity_kg;
    let by_load = reference * (load_kg.min(capacity_kg).max(0.0) / capacity_kg).powf(1.0 / LOAD_EXPONENT);
    let least = placard_kpa.unwrap_or(0.0);
    let kpa = by_load.max(least);
    let step = Step {
        what: "pressure at which it carries the load",
        formula: "P = P_ref × (L / L_max)^(1 / 0.8)",
        put_in: vec![
            ("P_ref", Quantity::pressure(reference)),
            ("L", Quantity::mass(load_kg)),
            ("L_max", Quantity::mass(capacity_kg)),
        ],
        gives: Quantity::pressure(by_load),
        source: SOURCE,
    };
    let mut figure = Figure::of(step);
    if let Some(placard) = placard_kpa {
        figure = Figure::of(Step {
            what: "never under the placard",
            formula: "max (P, placard)",
            put_in: vec![("P", Quantity::pressure(by_load)), ("placard", Quantity::pressure(placard))],
            gives: Quantity::pressure(kpa),
            source: Source::common_practice("the placard is the least"),
        })
        .after(figure.working);
    }
    Some(Pressure {
        kpa,
        capacity_kg,
        is_enough,
        by_placard: placard_kpa.is_some_and(|p| p >= by_load),
        figure,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn asked(tire: &str, load: f64, placard: Option<f64>) -> Pressure {
        pressure_for(&tire.parse().unwrap(), load, placard).unwrap()
    }

    #[test]
    fn at_full_load_it_is_the_reference_pressure() {
        // ETRTO (memory): the load index is the load at the reference pressure.
        for (tire, load, kpa) in [("225/45R17 94W", 670.0, 250.0), ("225/45R17 94W XL", 670.0, 290.0)] {
            let pressure = asked(tire, load, None);
            assert!((pressure.kpa - kpa).abs() < 1e-9 && pressure.is_enough, "{tire}");
            assert_eq!(pressure.capacity_kg, load, "ISO 4000-1 table");
        }
    }

    #[test]
    fn half_of_the_load_takes_a_little_less_than_half_of_the_pressure() {
        // By hand: 0.5^(1 / 0.8) = 0.5^1.25 = 0.42045.
        assert!((asked("225/45R17 94W", 335.0, None).kpa - 250.0 * 0.420_448).abs() < 1e-3);
    }

    #[test]
    fn the_placard_is_the_least_and_too_much_load_is_said() {
        let pressure = asked("225/45R17 94W", 400.0, Some(230.0));
        assert_eq!((pressure.kpa, pressure.by_placard), (230.0, true));
        let over = asked("225/45R17 91W", 700.0, Some(230.0));
        assert_eq!((over.kpa, over.is_enough), (250.0, false));
        assert!(pressure_for(&"225/45R17".parse().unwrap(), 400.0, None).is_none(), "no load index stated");
    }

    #[test]
    fn more_load_never_asks_for_less_pressure() {
        let mut last = 0.0;
        for load in 0..=670 {
            let kpa = asked("225/45R17 94W", f64::from(load), None).kpa;
            assert!(kpa >= last, "{load} kg");
            last = kpa;
        }
    }
}
