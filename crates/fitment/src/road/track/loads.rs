//! Corner loads: what each wheel carries at rest, in a corner, under braking, with downforce.

use crate::values::length::Length;
use crate::values::working::{Quantity, Source, Step};

/// Where the working comes from.
const SOURCE: Source = Source::from_memory("statics of a car in steady motion");

/// Which wheel.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs, reason = "by their names")]
pub enum Position {
    FrontLeft,
    FrontRight,
    RearLeft,
    RearRight,
}

impl Position {
    /// All four, front to rear, left to right.
    pub const ALL: [Self; 4] = [Self::FrontLeft, Self::FrontRight, Self::RearLeft, Self::RearRight];

    /// `fl`, `fr`, `rl`, `rr`.
    pub fn code(self) -> &'static str {
        ["fl", "fr", "rl", "rr"][self as usize]
    }
}

/// A figure for each wheel, in [`Position::ALL`]'s order.
pub type Four = [f64; 4];

/// A car and what it does, in kilograms, metres and g.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CarAtLimit {
    /// Mass with driver and fuel.
    pub mass_kg: f64,
    /// Share of it on the front axle, 0 to 1.
    pub front_share: f64,
    /// Height of the centre of gravity.
    pub cg_height_m: f64,
    /// Wheelbase.
    pub wheelbase_m: f64,
    /// Front track.
    pub track_front_m: f64,
    /// Rear track.
    pub track_rear_m: f64,
    /// Share of the roll stiffness in front, 0 to 1.
    pub roll_share_front: f64,
    /// Sideways, + in a left turn: the right side is the outer one.
    pub lateral_g: f64,
    /// Lengthways, + under braking.
    pub longitudinal_g: f64,
    /// Downforce, as the mass it feels like.
    pub downforce_kg: f64,
    /// Share of it on the front axle, 0 to 1.
    pub downforce_front_share: f64,
}

/// A figure that no car has.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
#[error("{what} goes from {least} to {most} {unit}, not {given}")]
pub struct CarError {
    /// Its field's name.
    pub field: &'static str,
    what: &'static str,
    unit: &'static str,
    least: f64,
    most: f64,
    given: f64,
}

impl CarAtLimit {
    /// Checks every figure.
    ///
    /// # Errors
    /// Each figure that no car has.
    pub fn checked(self) -> Result<Self, Vec<CarError>> {
        let fields = [
            ("mass_kg", "a car's mass", "kg", 200.0, 8000.0, self.mass_kg),
            ("front_share", "the front share", "", 0.2, 0.8, self.front_share),
            ("cg_height_m", "the height of the centre of gravity", "m", 0.1, 1.5, self.cg_height_m),
            ("wheelbase_m", "the wheelbase", "m", 1.0, 6.0, self.wheelbase_m),
            ("track_front_m", "the front track", "m", 0.8, 2.6, self.track_front_m),
            ("track_rear_m", "the rear track", "m", 0.8, 2.6, self.track_rear_m),
            ("roll_share_front", "the front share of roll stiffness", "", 0.0, 1.0, self.roll_share_front),
            ("lateral_g", "lateral acceleration", "g", -4.0, 4.0, self.lateral_g),
            ("longitudinal_g", "longitudinal acceleration", "g", -4.0, 4.0, self.longitudinal_g),
            ("downforce_kg", "downforce", "kg", -1000.0, 5000.0, self.downforce_kg),
            (
                "downforce_front_share",
                "the front share of downforce",
                "",
                0.0,
                1.0,
                self.downforce_front_share,
            ),
        ];
        let errors: Vec<CarError> = fields
            .into_iter()
            .filter(|(_, _, _, least, most, given)| !given.is_finite() || !(least..=most).contains(&given))
            .map(|(field, what, unit, least, most, given)| CarError { field, what, unit, least, most, given })
            .collect();
        if errors.is_empty() { Ok(self) } else { Err(errors) }
    }

    /// The loads of a checked car.
    ///
    /// An axle shares what it carries between its wheels; its share of the lateral transfer is ΔF = m a h λ / t. A wheel
    /// that would carry less than nothing lifts: its axle then hangs on the outer wheel, and the transfer it can no longer
    /// take goes to the other axle. The sum is weight and downforce, always.
    pub fn loads(&self) -> CornerLoads {
        let shares = [self.front_share, 1.0 - self.front_share];
        let static_kg = by_wheel(shares.map(|share| [self.mass_kg * share / 2.0; 2]));
        let pitch = self.mass_kg * self.longitudinal_g * self.cg_height_m / self.wheelbase_m;
        let down = [self.downforce_front_share, 1.0 - self.downforce_front_share];
        let total = self.mass_kg + self.downforce_kg;
        let mut axles = [0, 1].map(|axle| {
            let pitched = if axle == 0 { pitch } else { -pitch };
            self.mass_kg * shares[axle] + self.downforce_kg * down[axle] + pitched
        });
        // An axle off the ground leaves everything to the other.
        for axle in [0, 1] {
            if axles[axle] < 0.0 {
                axles[axle] = 0.0;
                axles[1 - axle] = total;
            }
        }
        let roll = self.mass_kg * self.lateral_g.abs() * self.cg_height_m;
        let tracks = [self.track_front_m, self.track_rear_m];
        let stiffness = [self.roll_share_front, 1.0 - self.roll_share_front];
        let mut moments = [0, 1].map(|axle| roll * stiffness[axle]);
        // The most an axle can take is with its inner wheel in the air.
        let most = [0, 1].map(|axle| axles[axle] / 2.0 * tracks[axle]);
        for axle in [0, 1] {
            let over = moments[axle] - most[axle];
            if over > 0.0 {
                moments[axle] = most[axle];
                moments[1 - axle] = (moments[1 - axle] + over).min(most[1 - axle]);
            }
        }
        let turns_left = self.lateral_g >= 0.0;
        let loads = by_wheel([0, 1].map(|axle| {
            let transfer = moments[axle] / tracks[axle];
            let (outer, inner) = (axles[axle] / 2.0 + transfer, axles[axle] / 2.0 - transfer);
            if turns_left { [inner, outer] } else { [outer, inner] }
        }));
        let at_rest = static_kg.iter().sum::<f64>().max(1.0);
        let lifted = Position::ALL.into_iter().filter(|wheel| loads[*wheel as usize] <= at_rest * 1e-9);
        let lifted = lifted.collect();
        CornerLoads { static_kg, loads_kg: loads.map(|load| load.max(0.0)), lifted }
    }
}

impl CarAtLimit {
    /// How [`Self::loads`] comes to its loads, step by step; what is nought leaves its step out.
    pub fn working(&self) -> Vec<Step> {
        let metres = |m: f64| Quantity::length(Length::mm(m * 1000.0));
        let (mass, height) = (Quantity::mass(self.mass_kg), metres(self.cg_height_m));
        let side = self.lateral_g.abs();
        let step = |what, formula, inputs, kg| Step {
            what,
            formula,
            inputs,
            result: Quantity::mass(kg),
            source: SOURCE,
        };
        let front = self.front_share;
        let mut steps = vec![
            step(
                "at rest on each front wheel",
                "m × f / 2",
                vec![("m", mass), ("f", Quantity::ratio(front))],
                self.mass_kg * front / 2.0,
            ),
            step(
                "at rest on each rear wheel",
                "m × (1 − f) / 2",
                vec![("m", mass), ("f", Quantity::ratio(front))],
                self.mass_kg * (1.0 - front) / 2.0,
            ),
        ];
        if self.downforce_kg != 0.0 {
            let share = self.downforce_front_share;
            let inputs = vec![("F", Quantity::mass(self.downforce_kg)), ("s", Quantity::ratio(share))];
            steps.push(step("of the downforce in front", "F × s", inputs, self.downforce_kg * share));
        }
        if self.longitudinal_g != 0.0 {
            let inputs = vec![
                ("m", mass),
                ("a_x", Quantity::ratio(self.longitudinal_g)),
                ("h", height),
                ("L", metres(self.wheelbase_m)),
            ];
            let pitch = self.mass_kg * self.longitudinal_g * self.cg_height_m / self.wheelbase_m;
            steps.push(step("from the rear axle to the front one", "m × a_x × h / L", inputs, pitch));
        }
        for (what, formula, share, track) in [
            (
                "from the inner front wheel to the outer one",
                "m × a_y × h × λ / t_f",
                self.roll_share_front,
                self.track_front_m,
            ),
            (
                "from the inner rear wheel to the outer one",
                "m × a_y × h × (1 − λ) / t_r",
                1.0 - self.roll_share_front,
                self.track_rear_m,
            ),
        ] {
            let inputs = vec![
                ("m", mass),
                ("a_y", Quantity::ratio(side)),
                ("h", height),
                ("λ", Quantity::ratio(self.roll_share_front)),
                ("t", metres(track)),
            ];
            steps.push(step(what, formula, inputs, self.mass_kg * side * self.cg_height_m * share / track));
        }
        steps
    }
}

fn by_wheel([front, rear]: [[f64; 2]; 2]) -> Four {
    [front[0], front[1], rear[0], rear[1]]
}

/// What each wheel carries, as the mass it feels like.
#[derive(Debug, Clone, PartialEq)]
pub struct CornerLoads {
    /// At rest, without downforce.
    pub static_kg: Four,
    /// In the case.
    pub loads_kg: Four,
    /// Wheels in the air.
    pub lifted: Vec<Position>,
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn car() -> CarAtLimit {
        CarAtLimit {
            mass_kg: 1500.0,
            front_share: 0.52,
            cg_height_m: 0.50,
            wheelbase_m: 2.6,
            track_front_m: 1.55,
            track_rear_m: 1.55,
            roll_share_front: 0.55,
            lateral_g: 1.2,
            longitudinal_g: 0.0,
            downforce_kg: 0.0,
            downforce_front_share: 0.5,
        }
    }

    #[test]
    fn the_working_adds_up_to_the_loads() {
        let car = CarAtLimit { longitudinal_g: 0.4, downforce_kg: 120.0, ..car() };
        let results: Vec<f64> = car.working().iter().map(|step| step.result.value).collect();
        let [front, _, down, pitch, transfer, _] = results[..] else { panic!("{results:?}") };
        let loads = car.loads().loads_kg;
        assert!(
            (front + down / 2.0 + pitch / 2.0 + transfer - loads[1]).abs() < 1e-9,
            "{results:?} {loads:?}"
        );
        let plain = CarAtLimit { longitudinal_g: 0.0, downforce_kg: 0.0, ..car };
        assert_eq!(plain.working().len(), 4, "what is nought leaves its step out");
    }

    #[test]
    fn the_worked_check_of_the_note() {
        // Front static 390; ΔF front 1500 · 1.2 · 0.50 · 0.55 / 1.55 = 319.4; outer 709.4, inner 70.6; rear 621.3 and 98.7.
        let CornerLoads { static_kg, loads_kg, lifted } = car().loads();
        assert_eq!((static_kg[0], static_kg[2]), (390.0, 360.0));
        for (wheel, kg) in [(0, 70.6), (1, 709.4), (2, 98.7), (3, 621.3)] {
            assert!((loads_kg[wheel] - kg).abs() < 0.05, "{wheel}: {loads_kg:?}");
        }
        assert!(lifted.is_empty());
    }

    /// Parameter sets 1 to 3 of `commonroad-vehicle-models` 3.0.2 (PyPI, `parameters_vehicle1.yaml` to `…3.yaml`): m, a, b,
    /// h_cg, T_f, T_r. At rest the axles carry m b / (a + b) and m a / (a + b); braking moves m a h / (a + b) forward.
    #[test]
    fn axle_loads_of_published_parameter_sets() {
        let sets = [
            [1225.8878467253344, 0.88392, 1.50876, 0.557784, 1.389888, 1.423416],
            [1093.2952334674046, 1.1561957064, 1.4227170936, 0.5748689544, 1.38684, 1.36398],
            [1478.8979637767998, 1.1507916024, 1.3211363976, 0.7478167416, 1.574292, 1.543812],
        ];
        for [m, a, b, h, front, rear] in sets {
            let set = CarAtLimit {
                mass_kg: m,
                front_share: b / (a + b),
                cg_height_m: h,
                wheelbase_m: a + b,
                track_front_m: front,
                track_rear_m: rear,
                lateral_g: 0.0,
                ..car()
            };
            let at_rest = set.checked().unwrap().loads();
            assert!((at_rest.static_kg[0] * 2.0 - m * b / (a + b)).abs() < 1e-9);
            assert!((at_rest.static_kg[3] * 2.0 - m * a / (a + b)).abs() < 1e-9);
            let braking = CarAtLimit { longitudinal_g: 0.8, ..set }.loads();
            let moved = (braking.loads_kg[0] - at_rest.static_kg[0]) * 2.0;
            assert!((moved - m * 0.8 * h / (a + b)).abs() < 1e-9, "{moved}");
            // The car as a whole balances at half its track with all of the load outside (h, T and 2 h a = T).
            let corner = CarAtLimit { lateral_g: 0.7, roll_share_front: 0.5, ..set }.loads();
            let moment =
                |axle: usize, track: f64| (corner.loads_kg[axle + 1] - corner.loads_kg[axle]) * track / 2.0;
            assert!((moment(0, front) + moment(2, rear) - m * 0.7 * h).abs() < 1e-6, "roll is carried");
        }
    }

    #[test]
    fn a_wheel_that_lifts_leaves_its_share_to_the_others() {
        let hard = CarAtLimit { lateral_g: 1.3, roll_share_front: 0.75, ..car() }.loads();
        assert_eq!(hard.lifted, [Position::FrontLeft]);
        assert!((hard.loads_kg[1] - 780.0).abs() < 1e-9, "the front axle hangs on its outer wheel");
        // 1500 · 1.3 · 0.5 = 975 kg m of roll; the front takes 780 / 2 · 1.55 = 604.5, the rear the rest.
        let rear = (975.0 - 604.5) / 1.55;
        assert!((hard.loads_kg[3] - (360.0 + rear)).abs() < 1e-9, "{hard:?}");
        // Over the limit of the whole car both inner wheels are in the air.
        let over = CarAtLimit { lateral_g: 3.9, ..car() }.loads();
        assert_eq!(over.lifted, [Position::FrontLeft, Position::RearLeft]);
    }

    #[test]
    fn a_figure_that_no_car_has_is_refused_by_its_name() {
        let errors = CarAtLimit { mass_kg: 50.0, lateral_g: 9.0, ..car() }.checked().unwrap_err();
        let fields: Vec<&str> = errors.iter().map(|error| error.field).collect();
        assert_eq!(fields, ["mass_kg", "lateral_g"]);
        assert!(errors[1].to_string().contains("-4 to 4 g, not 9"), "{}", errors[1]);
        assert!(CarAtLimit { wheelbase_m: f64::NAN, ..car() }.checked().is_err());
    }

    proptest! {
        #[test]
        fn loads_sum_to_weight_and_downforce_and_mirror(
            lateral in -4.0..4.0_f64, longitudinal in -4.0..4.0_f64, down in 0.0..2000.0_f64,
            share in 0.3..0.7_f64, stiffness in 0.0..1.0_f64, height in 0.2..1.2_f64,
        ) {
            let one = CarAtLimit {
                lateral_g: lateral, longitudinal_g: longitudinal, downforce_kg: down, front_share: share,
                roll_share_front: stiffness, cg_height_m: height, track_rear_m: 1.49, ..car()
            };
            let loads = one.loads();
            prop_assert!((loads.loads_kg.iter().sum::<f64>() - (1500.0 + down)).abs() < 1e-6, "{loads:?}");
            prop_assert!(loads.loads_kg.iter().all(|load| *load >= 0.0));
            let mirrored = CarAtLimit { lateral_g: -lateral, ..one }.loads();
            let [fl, fr, rl, rr] = mirrored.loads_kg;
            for (mine, other) in loads.loads_kg.iter().zip([fr, fl, rr, rl]) {
                prop_assert!((mine - other).abs() < 1e-9);
            }
        }
    }
}
