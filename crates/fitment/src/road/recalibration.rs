//! Telling the car's module what rolls on it now: what it should be told, what stands against it, and whether it was told.
//!
//! A module counts by one stored length of its tire, a rolling circumference or a height. Which of the two, and rounded
//! how, differs from car to car; so the new one is told in the module's own measure, by ratio to the factory's figure in
//! the same module: value = factory's × OD planned / OD reference. Nothing else is ever written.

use crate::road::rolling::rolling_circumference;
use crate::values::length::Length;

/// What a module was read to hold.
#[derive(Debug, Clone, PartialEq)]
pub struct ModuleState {
    /// The car it says it sits in.
    pub vehicle: String,
    /// The tire's length that it counts by, in whole millimetres.
    pub stored_mm: u32,
    /// The one it left the factory with.
    pub factory_mm: u32,
    /// Final drive that it counts by; only shown.
    pub axle_ratio: f64,
    /// Whether the engine runs.
    pub engine_runs: bool,
    /// Voltage of the battery.
    pub battery_v: f64,
}

/// A change from the factory's tire beyond this is not told: gearing and brake control are not made for it. The domain
/// note's limit.
pub const MOST_FROM_FACTORY_PCT: u32 = 15;
/// Below this a battery may give out in the middle. Common practice.
pub const LEAST_BATTERY_V: f64 = 12.0;

/// So far apart two ways of rounding and counting one tire may be: a standing tire's circumference is π × its height, a
/// rolling one's 3.05 ×. Estimate.
const SAME_TIRE: f64 = 0.04;

/// What a module's figures can be. Estimate: from a kart's tire to a truck's.
const LENGTHS_MM: std::ops::RangeInclusive<u32> = 300..=4400;
const AXLE_RATIOS: std::ops::RangeInclusive<f64> = 1.0..=12.0;
const VOLTAGES: std::ops::RangeInclusive<f64> = 5.0..=18.0;

/// Why a module is not told.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum Blocked {
    /// Too far from the factory's.
    #[error(
        "{to_mm} mm is {pct:+.1} % from the factory's {factory_mm} mm: more than ± {MOST_FROM_FACTORY_PCT} % is not told"
    )]
    TooFar {
        /// What it would be told.
        to_mm: u32,
        /// The factory's.
        factory_mm: u32,
        /// By how much, in per cent.
        pct: f64,
    },
    /// The engine runs.
    #[error("the engine runs: stop it, ignition on, and read again")]
    EngineRuns,
    /// The battery is low.
    #[error(
        "the battery stands at {volts:.1} V, below {LEAST_BATTERY_V:.1} V: put a charger on, and read again"
    )]
    LowBattery {
        /// Its voltage.
        volts: f64,
    },
    /// The module's factory tire is not the one that the plan is held against.
    #[error(
        "the module left the factory with {factory_mm} mm, which is neither the circumference ({around:.0} mm) nor the \
         height ({height:.0} mm) of the reference tire: state the factory's size in the car's record first"
    )]
    OtherTire {
        /// The module's.
        factory_mm: u32,
        /// Circumference of the reference tire.
        around: f64,
        /// Its height.
        height: f64,
    },
    /// Another car than the one this job told before.
    #[error("the module says it sits in {found}; this job told {known} before: is this the car?")]
    OtherCar {
        /// What it says.
        found: String,
        /// What was told before.
        known: String,
    },
}

/// What of an answer cannot be.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("the module says {what} {given}, which cannot be: nothing is told to it")]
pub struct Nonsense {
    /// Which figure.
    pub what: &'static str,
    /// What was said.
    pub given: String,
}

impl ModuleState {
    /// Checks that its figures can be a car's.
    ///
    /// # Errors
    /// The first that cannot.
    pub fn checked(self) -> Result<Self, Nonsense> {
        let nonsense = |what, given: String| Err(Nonsense { what, given });
        for (what, mm) in [("it counts by", self.stored_mm), ("the factory's tire is", self.factory_mm)] {
            if !LENGTHS_MM.contains(&mm) {
                return nonsense(what, format!("{mm} mm"));
            }
        }
        if !AXLE_RATIOS.contains(&self.axle_ratio) {
            return nonsense("the axle's ratio is", self.axle_ratio.to_string());
        }
        if !VOLTAGES.contains(&self.battery_v) {
            return nonsense("the battery stands at", format!("{} V", self.battery_v));
        }
        Ok(self)
    }

    /// Overall diameter that the computer believes, in the measure of the reference tire: OD reference × stored /
    /// factory's.
    pub fn believed(&self, reference: Length) -> Length {
        reference * (f64::from(self.stored_mm) / f64::from(self.factory_mm))
    }

    /// What it would be told for a plan: factory's × OD planned / OD reference, in whole millimetres.
    pub fn told_for(&self, reference: Length, planned: Length) -> u32 {
        // Both are lengths of tires: the product fits with room to spare.
        (f64::from(self.factory_mm) * (planned / reference)).round() as u32
    }

    /// What stands against telling it what a plan comes to, beside what [`Self::blocked`] says.
    pub fn other_tire(&self, reference: Length) -> Option<Blocked> {
        let (around, height) = (rolling_circumference(reference).as_mm(), reference.as_mm());
        let factory = f64::from(self.factory_mm);
        let is_near = |one: f64| (factory / one - 1.0).abs() <= SAME_TIRE;
        let is_other = !is_near(around) && !is_near(height);
        is_other.then_some(Blocked::OtherTire { factory_mm: self.factory_mm, around, height })
    }

    /// What stands against telling it this; `known` is the car that the job told before.
    pub fn blocked(&self, to_mm: u32, known: Option<&str>) -> Vec<Blocked> {
        let mut all = Vec::new();
        if let Some(known) = known.filter(|known| *known != self.vehicle) {
            all.push(Blocked::OtherCar { found: self.vehicle.clone(), known: known.to_owned() });
        }
        let factory_mm = self.factory_mm;
        if 100 * u64::from(to_mm.abs_diff(factory_mm))
            > u64::from(MOST_FROM_FACTORY_PCT) * u64::from(factory_mm)
        {
            let pct = (f64::from(to_mm) / f64::from(factory_mm) - 1.0) * 100.0;
            all.push(Blocked::TooFar { to_mm, factory_mm, pct });
        }
        if self.engine_runs {
            all.push(Blocked::EngineRuns);
        }
        if self.battery_v < LEAST_BATTERY_V {
            all.push(Blocked::LowBattery { volts: self.battery_v });
        }
        all
    }
}

/// How telling a module came out.
#[derive(Debug, Clone, PartialEq)]
pub enum ModuleReply {
    /// Read back as it was told, with everything else as before.
    Confirmed,
    /// It still holds what it held.
    Unchanged {
        /// What it holds.
        holds_mm: u32,
    },
    /// Its read-back holds another figure.
    Differs {
        /// What it holds.
        holds_mm: u32,
    },
    /// The figure is right, and something beside it changed, which nobody told it to.
    Beside {
        /// What.
        what: &'static str,
    },
    /// It refused, and why.
    Refused(String),
    /// It did not answer any more: nobody knows what it holds.
    Unknown(String),
}

impl ModuleReply {
    /// Of a module before and after it was told.
    pub fn of(before: &ModuleState, after: &ModuleState, to_mm: u32) -> Self {
        if after.vehicle != before.vehicle {
            return Self::Beside { what: "the car it says it sits in" };
        }
        if after.stored_mm == before.stored_mm && to_mm != before.stored_mm {
            return Self::Unchanged { holds_mm: after.stored_mm };
        }
        if after.stored_mm != to_mm {
            return Self::Differs { holds_mm: after.stored_mm };
        }
        if after.factory_mm != before.factory_mm {
            return Self::Beside { what: "the factory's tire" };
        }
        if (after.axle_ratio - before.axle_ratio).abs() > 0.005 {
            return Self::Beside { what: "the axle's ratio" };
        }
        Self::Confirmed
    }

    /// As it is kept.
    pub fn code(&self) -> &'static str {
        match self {
            Self::Confirmed => "confirmed",
            Self::Unchanged { .. } => "unchanged",
            Self::Differs { .. } => "differs",
            Self::Beside { .. } => "beside",
            Self::Refused(_) => "refused",
            Self::Unknown(_) => "unknown",
        }
    }

    /// In a sentence.
    pub fn says(&self, to_mm: u32) -> String {
        match self {
            Self::Confirmed => format!("told and read back: {to_mm} mm"),
            Self::Unchanged { holds_mm } => {
                format!(
                    "it was told {to_mm} mm and still holds {holds_mm} mm: nothing was changed, tell it once more"
                )
            }
            Self::Differs { holds_mm } => format!(
                "it was told {to_mm} mm and holds {holds_mm} mm when read back: not to be driven by; read again, then \
                 tell it once more or restore"
            ),
            Self::Beside { what } => format!(
                "it holds {to_mm} mm, and {what} changed too, which nobody told it: restore, and have the module looked at"
            ),
            Self::Refused(why) => format!("it refused: {why}; nothing was changed"),
            Self::Unknown(why) => {
                format!("{why}: nobody knows whether it holds {to_mm} mm; read it before the car is driven")
            }
        }
    }
}

/// Stands beside telling a module.
pub const CAUTION: &str = "Ignition on, engine off, a charger on the battery, the car standing. Speedometer, odometer, \
    gearbox and brake control count by this figure: drive a measured distance afterwards. Where the law asks for it, have \
    the speedometer tested; the maker and local codes decide whether it may be changed.";

#[cfg(test)]
mod tests {
    use super::*;

    fn module() -> ModuleState {
        ModuleState {
            vehicle: "LAKE-0417".to_owned(),
            stored_mm: 2090,
            factory_mm: 2090,
            axle_ratio: 3.91,
            engine_runs: false,
            battery_v: 12.6,
        }
    }

    #[test]
    fn what_it_is_told_goes_by_ratio_so_that_its_measure_does_not_matter() {
        let (reference, planned) = (Length::mm(700.0), Length::mm(735.0));
        assert_eq!(module().told_for(reference, planned), 2195, "2 090 × 1.05 = 2 194.5");
        let by_height = ModuleState { factory_mm: 700, stored_mm: 700, ..module() };
        assert_eq!(by_height.told_for(reference, planned), 735);
        // ModuleReply, it believes the planned tire, to the millimetre that it rounds to.
        let told = ModuleState { stored_mm: 735, ..by_height };
        assert!((told.believed(reference).as_mm() - 735.0).abs() < 1e-9);
        assert_eq!(module().believed(reference), reference);
    }

    #[test]
    fn fifteen_per_cent_either_way_are_told_and_a_millimetre_more_is_not() {
        let module = ModuleState { factory_mm: 2000, stored_mm: 2000, ..module() };
        for (to_mm, is_told) in [(2300, true), (2301, false), (1700, true), (1699, false), (2000, true)] {
            assert_eq!(module.blocked(to_mm, None).is_empty(), is_told, "{to_mm}");
        }
    }

    #[test]
    fn an_engine_a_battery_and_another_car_stand_against_it_each_by_itself() {
        let with = |change: fn(&mut ModuleState)| {
            let mut one = module();
            change(&mut one);
            one.blocked(2100, Some("LAKE-0417"))
        };
        assert_eq!(with(|_| {}), []);
        assert_eq!(with(|one| one.engine_runs = true), [Blocked::EngineRuns]);
        assert_eq!(with(|one| one.battery_v = 11.9), [Blocked::LowBattery { volts: 11.9 }]);
        assert_eq!(with(|one| one.battery_v = 12.0), []);
        assert!(matches!(&with(|one| one.vehicle = "X".to_owned())[..], [Blocked::OtherCar { .. }]));
        assert_eq!(with(|one| (one.engine_runs, one.battery_v) = (true, 10.0)).len(), 2);
    }

    #[test]
    fn a_module_of_another_tire_is_told_of_no_plan() {
        let with =
            |factory_mm| ModuleState { factory_mm, ..module() }.other_tire(Length::mm(700.0)).is_some();
        // 3.05 × 700 = 2 135 rolling, π × 700 = 2 199 standing, 700 high.
        for (factory_mm, is_other) in
            [(2135, false), (2199, false), (700, false), (2000, true), (2300, true), (750, true)]
        {
            assert_eq!(with(factory_mm), is_other, "{factory_mm}");
        }
    }

    #[test]
    fn only_what_reads_back_with_everything_else_as_before_is_told() {
        let before = module();
        let after = |change: fn(&mut ModuleState)| {
            let mut one = ModuleState { stored_mm: 2200, ..module() };
            change(&mut one);
            ModuleReply::of(&before, &one, 2200).code()
        };
        assert_eq!(after(|_| {}), "confirmed");
        assert_eq!(after(|one| one.stored_mm = 2199), "differs");
        assert_eq!(after(|one| one.stored_mm = 2090), "unchanged");
        assert_eq!(after(|one| one.factory_mm = 2200), "beside");
        assert_eq!(after(|one| one.axle_ratio = 4.1), "beside");
        assert_eq!(after(|one| one.vehicle.push('X')), "beside");
        assert_eq!(after(|one| (one.engine_runs, one.battery_v) = (true, 14.1)), "confirmed");
    }

    #[test]
    fn figures_that_no_car_has_are_nonsense() {
        let with = |change: fn(&mut ModuleState)| {
            let mut one = module();
            change(&mut one);
            one.checked().map_err(|error| error.what)
        };
        assert!(with(|_| {}).is_ok());
        assert_eq!(with(|one| one.stored_mm = 0), Err("it counts by"));
        assert_eq!(with(|one| one.factory_mm = 99_999), Err("the factory's tire is"));
        assert_eq!(with(|one| one.axle_ratio = f64::NAN), Err("the axle's ratio is"));
        assert_eq!(with(|one| one.battery_v = -1.0), Err("the battery stands at"));
    }
}
