//! Where a point of the wheel goes when it is turned and travels, and back.

use super::axis::{OutOfRange, held};
use super::{Place, SteeringAxis};
use crate::values::coded::coded;

/// How far the wheel travels, and how its lean changes on the way.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Travel {
    /// Up to the bump stop, in millimetres.
    pub bump_mm: f64,
    /// Down to full droop, as a positive figure.
    pub droop_mm: f64,
    /// Change of camber in degrees for each millimetre of bump; negative leans the top inward.
    pub camber_gain_deg_per_mm: f64,
}

impl Travel {
    /// What no car has; empty when all of it can be.
    pub fn faults(&self) -> Vec<OutOfRange> {
        [
            held("bump_mm", "travel", self.bump_mm, (0.0, 400.0)),
            held("droop_mm", "travel", self.droop_mm, (0.0, 400.0)),
            held("camber_gain_deg_per_mm", "camber gain", self.camber_gain_deg_per_mm, (-0.2, 0.2)),
        ]
        .into_iter()
        .flatten()
        .collect()
    }
}

/// A pose of the wheel.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Pose {
    /// In degrees, + = front edge outboard.
    pub steer_deg: f64,
    /// In millimetres, + = bump.
    pub travel_mm: f64,
}

impl Pose {
    /// Standing still: straight ahead at static height.
    pub const AT_REST: Self = Self { steer_deg: 0.0, travel_mm: 0.0 };
}

/// What carries a part, and so what moves it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Carried {
    /// Stays where it is.
    Body,
    /// Steers and travels with the wheel: its gap never changes.
    SteeredUpright,
    /// Travels with the wheel and does not steer.
    UnsteeredUpright,
    /// Follows a share of the travel.
    Arm,
}

coded!(Carried:
    Body = "body",
    SteeredUpright = "steered_upright",
    UnsteeredUpright = "unsteered_upright",
    Arm = "arm",
);

/// Share of the travel that a part on an arm follows, unless it is known. Estimate.
pub const ARM_FOLLOWS: f64 = 0.5;

/// How a wheel moves.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Kinematics {
    /// What it turns about; `None` where it does not steer.
    pub axis: Option<SteeringAxis>,
    /// Its camber at static height.
    pub camber_deg: f64,
    /// Change of camber for each millimetre of bump.
    pub camber_gain_deg_per_mm: f64,
}

impl Kinematics {
    /// A wheel that stands still.
    pub fn standing(camber_deg: f64) -> Self {
        Self { axis: None, camber_deg, camber_gain_deg_per_mm: 0.0 }
    }

    /// Where a point of the wheel is in a pose: leaned by the camber about the x axis through the origin, turned about the
    /// steering axis, lifted by the travel.
    pub fn placed(&self, pose: Pose, place: Place) -> Place {
        self.placing(pose).of(place)
    }

    /// The same for many points of one pose.
    pub fn placing(&self, pose: Pose) -> Placing {
        let camber = (self.camber_deg + self.camber_gain_deg_per_mm * pose.travel_mm).to_radians();
        let (sin, cos) = camber.sin_cos();
        let lean = [[1.0, 0.0, 0.0], [0.0, cos, sin], [0.0, -sin, cos]];
        let lift = [0.0, 0.0, pose.travel_mm];
        // G + turn · (lean · p − G) + lift, written as one matrix and one shift.
        match self.axis {
            None => Placing { rows: lean, shift: lift },
            Some(axis) => {
                let turn = rotation(axis.along, pose.steer_deg.to_radians());
                let shift = subtract(axis.through, times(&turn, axis.through));
                Placing { rows: product(&turn, &lean), shift: add(shift, lift) }
            }
        }
    }

    /// The way back: from a place on a part, which is where it is at rest, into the wheel's own frame.
    pub(crate) fn inverse(&self, pose: Pose, carried: Carried) -> IntoWheel {
        let pose = match carried {
            Carried::Body | Carried::Arm => pose,
            Carried::SteeredUpright => Pose::AT_REST,
            Carried::UnsteeredUpright => Pose { travel_mm: 0.0, ..pose },
        };
        let follows = if carried == Carried::Arm { ARM_FOLLOWS } else { 0.0 };
        let down = pose.travel_mm * (1.0 - follows);
        let camber = (self.camber_deg + self.camber_gain_deg_per_mm * pose.travel_mm).to_radians();
        let (sin, cos) = camber.sin_cos();
        let upright = [[1.0, 0.0, 0.0], [0.0, cos, -sin], [0.0, sin, cos]];
        let (turn, through) = match self.axis {
            None => ([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]], [0.0; 3]),
            Some(axis) => (rotation(axis.along, -pose.steer_deg.to_radians()), axis.through),
        };
        // upright · (G + turn · (p − lift − G)), written as one matrix and one shift.
        let rows = product(&upright, &turn);
        let inner = subtract([0.0, 0.0, -down], through);
        let shift = times(&upright, add(through, times(&turn, inner)));
        IntoWheel { rows, shift }
    }
}

/// A pose, ready for many points.
#[derive(Debug, Clone, Copy)]
pub struct Placing {
    rows: [[f64; 3]; 3],
    shift: Place,
}

impl Placing {
    /// Where a point of the wheel is.
    pub fn of(&self, place: Place) -> Place {
        add(times(&self.rows, place), self.shift)
    }
}

/// The inverse of a pose.
#[derive(Debug, Clone, Copy)]
pub(crate) struct IntoWheel {
    rows: [[f64; 3]; 3],
    shift: Place,
}

impl IntoWheel {
    /// Along the spin axis from the hub face, and from the spin axis: all that counts on a solid of revolution.
    pub(super) fn axial_and_radius(&self, place: Place) -> (f64, f64) {
        let [x, y, z] = add(times(&self.rows, place), self.shift);
        (y, (x * x + z * z).sqrt())
    }
}

fn add(a: Place, b: Place) -> Place {
    [a[0] + b[0], a[1] + b[1], a[2] + b[2]]
}

fn subtract(a: Place, b: Place) -> Place {
    [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
}

fn times(rows: &[[f64; 3]; 3], p: Place) -> Place {
    let row = |row: &[f64; 3]| row[0] * p[0] + row[1] * p[1] + row[2] * p[2];
    [row(&rows[0]), row(&rows[1]), row(&rows[2])]
}

fn product(a: &[[f64; 3]; 3], b: &[[f64; 3]; 3]) -> [[f64; 3]; 3] {
    let column = |at: usize| [b[0][at], b[1][at], b[2][at]];
    let columns = [column(0), column(1), column(2)].map(|column| times(a, column));
    let row = |at: usize| [columns[0][at], columns[1][at], columns[2][at]];
    [row(0), row(1), row(2)]
}

/// Rotation about a unit vector by an angle in radians, right-handed in the corner frame: x forward turns toward y
/// outboard about an upright axis. Rodrigues.
fn rotation([x, y, z]: Place, angle: f64) -> [[f64; 3]; 3] {
    let (sin, cos) = angle.sin_cos();
    let rest = 1.0 - cos;
    [
        [cos + x * x * rest, x * y * rest - z * sin, x * z * rest + y * sin],
        [y * x * rest + z * sin, cos + y * y * rest, y * z * rest - x * sin],
        [z * x * rest - y * sin, z * y * rest + x * sin, cos + z * z * rest],
    ]
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::motion::Steering;

    fn upright(contact_y: f64) -> Kinematics {
        let steering = Steering {
            inclination_deg: 0.0,
            caster_deg: 0.0,
            scrub_radius_mm: 0.0,
            trail_mm: 0.0,
            lock_outward_deg: 40.0,
            lock_inward_deg: 40.0,
        };
        let axis = SteeringAxis::of(&steering, contact_y, 300.0);
        Kinematics { axis: Some(axis), camber_deg: 0.0, camber_gain_deg_per_mm: 0.0 }
    }

    #[test]
    fn poke_moves_the_foremost_point_by_its_sine() {
        // Δpoke 25.4 mm at 35°, axis upright through the contact's centre: 14.57 mm forward on one lock and as much
        // backward on the other (geometry: 25.4 · sin 35°).
        let wheel = upright(0.0);
        let front = |steer_deg, poke| wheel.placed(Pose { steer_deg, travel_mm: 0.0 }, [320.0, poke, 0.0])[0];
        let inward = front(-35.0, 25.4) - front(-35.0, 0.0);
        let outward = front(35.0, 25.4) - front(35.0, 0.0);
        assert!((inward - 14.5688).abs() < 1e-3 && (outward + 14.5688).abs() < 1e-3, "{inward} {outward}");
        // + swings the front edge outboard.
        assert!(wheel.placed(Pose { steer_deg: 10.0, travel_mm: 0.0 }, [320.0, 0.0, 0.0])[1] > 0.0);
    }

    #[test]
    fn there_and_back_is_where_it_was() {
        let steering = Steering {
            inclination_deg: 13.0,
            caster_deg: 5.0,
            scrub_radius_mm: -5.0,
            trail_mm: 26.0,
            lock_outward_deg: 40.0,
            lock_inward_deg: 40.0,
        };
        let axis = SteeringAxis::of(&steering, -40.0, 305.0);
        let wheel = Kinematics { axis: Some(axis), camber_deg: -1.5, camber_gain_deg_per_mm: -0.02 };
        for pose in [(0.0, 0.0), (31.0, 70.0), (-38.0, -90.0)] {
            let pose = Pose { steer_deg: pose.0, travel_mm: pose.1 };
            for point in [[310.0, 60.0, 20.0], [-200.0, -160.0, 210.0], [0.0, 0.0, -320.0]] {
                let there = wheel.placed(pose, point);
                let (y, radius) = wheel.inverse(pose, Carried::Body).axial_and_radius(there);
                assert!((y - point[1]).abs() < 1e-9, "{pose:?}");
                assert!((radius - point[0].hypot(point[2])).abs() < 1e-9, "{pose:?}");
            }
        }
        // What lies on the axis stays while it turns.
        let place = axis.through;
        let leaned = Kinematics { camber_deg: 0.0, camber_gain_deg_per_mm: 0.0, ..wheel };
        let turned = leaned.placed(Pose { steer_deg: 30.0, travel_mm: 0.0 }, place);
        assert!(turned.iter().zip(place).all(|(a, b)| (a - b).abs() < 1e-9), "{turned:?}");
    }

    #[test]
    fn who_moves_with_what() {
        let wheel = upright(-40.0);
        let pose = Pose { steer_deg: 25.0, travel_mm: 60.0 };
        let place = [250.0, -120.0, 150.0];
        let at = |pose, carried| wheel.inverse(pose, carried).axial_and_radius(place);
        assert_eq!(at(pose, Carried::SteeredUpright), at(Pose::AT_REST, Carried::Body));
        assert_eq!(
            at(pose, Carried::UnsteeredUpright),
            at(Pose { travel_mm: 0.0, ..pose }, Carried::Body),
            "it travels along"
        );
        assert_eq!(
            at(pose, Carried::Arm),
            at(Pose { travel_mm: 30.0, ..pose }, Carried::Body),
            "half of the travel is left between"
        );
    }
}
