//! What must stand beside work on a car, wherever it is planned or measured. Common practice; no source.

/// Beside the entry of readings.
pub const IN_THE_BAY: &str = "Safety stands under the car and wheels chocked before a hand goes into the wheel well. Never measure \
                              under a car that stands on a jack alone.";

/// On the paper that goes into the bay.
pub const ON_THE_BAY_SHEET: &str = "Safety stands under the car, wheels chocked.";

/// On the printed plan.
pub const ON_THE_PLAN: &str = "Stand the car on safety stands, wheels chocked. Fasteners: length, seat and torque by the car's data; \
                               retorque after the first drive. Modified width, coverage and ride height may need approval: local \
                               codes and a licensed inspector decide.";
