//! What the air in a tire does as it warms: an ideal gas in a fixed room. All pressures are gauge.

/// Pressure of the air round about, in kPa.
pub const ATMOSPHERE_KPA: f64 = 101.3;
/// Zero degrees on the absolute scale, in kelvin.
const KELVIN: f64 = 273.15;

fn carried(kpa: f64, from_c: f64, to_c: f64) -> f64 {
    (kpa + ATMOSPHERE_KPA) * (to_c + KELVIN) / (from_c + KELVIN) - ATMOSPHERE_KPA
}

/// Hot pressure of a tire that was set cold: P hot = (P cold + P atm) T hot / T cold − P atm.
pub fn hot_pressure_kpa(cold_kpa: f64, cold_c: f64, hot_c: f64) -> f64 {
    carried(cold_kpa, cold_c, hot_c)
}

/// Cold pressure to set for a hot one that is wanted.
pub fn cold_pressure_kpa(hot_kpa: f64, cold_c: f64, hot_c: f64) -> f64 {
    carried(hot_kpa, hot_c, cold_c)
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    #[test]
    fn the_check_of_the_note() {
        // 200 kPa at 20 °C becomes 282 kPa at 100 °C (gauge, 101.3 kPa of air).
        assert!((hot_pressure_kpa(200.0, 20.0, 100.0) - 282.2).abs() < 0.1);
    }

    proptest! {
        #[test]
        fn there_and_back_is_the_same(kpa in 50.0..500.0_f64, cold in -30.0..45.0_f64, hot in 20.0..140.0_f64) {
            let there = hot_pressure_kpa(kpa, cold, hot);
            prop_assert!((cold_pressure_kpa(there, cold, hot) - kpa).abs() < 1e-9);
            prop_assert!(hot < cold || there >= kpa - 1e-9);
        }
    }
}
