//! The car at the limit: what each corner carries, what the air in a tire does, what the wheel was tested for.

mod car_start;
mod cases;
pub mod heat_width;
mod loads;
mod pressure;
mod wheel_moment;

pub use car_start::CarStart;
pub use cases::{TrackCase, WheelAtLimit, track_cases};
pub use loads::{CarAtLimit, CarError, CornerLoads, Four, Position};
pub use pressure::{ATMOSPHERE_KPA, cold_pressure_kpa, hot_pressure_kpa};
pub use wheel_moment::{SOURCE as WHEEL_TEST, Utilisation, corner_moment_nm, moment_tested_nm, utilisation};
