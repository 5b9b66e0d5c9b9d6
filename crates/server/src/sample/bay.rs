//! What the sample shop knows of its cars, and what it read on them. Invented figures, with something wrong to
//! find in most of them.

use fitment::car::Fact;
use fitment::car::corner::ToRead;
use fitment::car::corner::{CarSide, ReadingUnit, RecordedReading, Steer, Suspension};
use fitment::car::lever::PairLevers;
use fitment::car::style::{Style, StyleTarget};
use fitment::setup::{Axle, SetupPair};
use fitment::{Length, car::corner::instrument};
use jiff::Timestamp;
use store::measurements::{KeptReading, Measurements};

/// A fact: its code, `front`, `rear` or nothing, its value.
type SampleFact = (&'static str, &'static str, &'static str);

/// A reading as a line: axle, side, what, value, unit, instrument, and whatever else there is to say: `lock_left`,
/// `lock_right`, `hanging`, `bare`, `r` and a radius.
type SampleReading =
    (&'static str, &'static str, &'static str, f64, &'static str, &'static str, &'static str);

/// What is known of one of the sample's cars.
pub(super) struct SampleCar {
    /// The car it belongs to, as its job is labelled.
    pub(super) label: &'static str,
    facts: &'static [SampleFact],
    readings: &'static [SampleReading],
    wanted: Option<Style>,
}

pub(super) const CARS: &[SampleCar] = &[
    // The staggered coupé: read thoroughly behind, half done in front.
    SampleCar {
        label: "Marn Dotterel 3.0 coupé",
        facts: &[
            ("model", "", "Marn Dotterel 3.0"),
            ("body", "", "coupé"),
            ("generation", "", "second"),
            ("brake_package", "", "four-piston front, 348 mm"),
            ("kerb_mass_kg", "", "1585"),
            ("front_share_pct", "", "51.5"),
            ("top_speed_kmh", "", "250"),
            ("factory_setup", "front", "18x8 ET34 5x120 CB72.6 225/45R18 95Y XL"),
            ("factory_setup", "rear", "18x8.5 ET47 5x120 CB72.6 245/40R18 97Y XL"),
            ("placard_kpa", "front", "230"),
            ("placard_kpa", "rear", "260"),
            ("axle_rating_kg", "front", "985"),
            ("axle_rating_kg", "rear", "1130"),
            ("hub_bore_mm", "front", "72.6"),
            ("hub_bore_mm", "rear", "72.6"),
            ("bolt_circle", "", "5x120"),
            ("thread", "", "M14x1.25"),
            ("seat", "", "cone 60°"),
            ("fastener_kind", "", "bolts"),
            ("fastener_length_mm", "", "27"),
            ("torque_nm", "", "140"),
            ("pressure_sensors", "", "in the wheels"),
            ("ride_height_mm", "front", "388"),
            ("ride_height_mm", "rear", "391"),
            ("suspension", "front", "springs"),
            ("suspension", "rear", "springs"),
            ("dropped_mm", "front", "20"),
            ("dropped_mm", "rear", "15"),
            ("fender", "front", "as built"),
            ("fender", "rear", "as built"),
            ("camber_deg", "front", "-0.7"),
            ("camber_deg", "rear", "-1.6"),
            ("suspension_kind", "front", "strut"),
            ("suspension_kind", "rear", "multi-link"),
            ("bump_mm", "rear", "58"),
        ],
        readings: &[
            ("rear", "left", "fitted_section", 246.0, "mm", "depth_gauge", ""),
            ("rear", "left", "fender_lateral", 26.0, "mm", "steel_rule", ""),
            ("rear", "right", "fender_lateral", 24.0, "mm", "steel_rule", ""),
            ("rear", "left", "arch", 61.0, "mm", "steel_rule", ""),
            ("rear", "right", "arch", 60.0, "mm", "steel_rule", ""),
            ("rear", "left", "strut", 1.25, "in", "depth_gauge", ""),
            ("rear", "left", "spring_perch", 27.4, "mm", "depth_gauge", "r 301"),
            ("rear", "right", "spring_perch", 28.1, "mm", "depth_gauge", "r 300"),
            ("front", "left", "fender_lateral", 19.0, "mm", "steel_rule", ""),
            ("front", "left", "strut", 11.0, "in_16", "steel_rule", ""),
        ],
        wanted: Some(Style::Flush),
    },
    // Two readings of one place that cannot both be true, one with the unit slipped.
    SampleCar {
        label: "Halvard Tinde 2.0 estate",
        facts: &[
            ("model", "", "Halvard Tinde 2.0"),
            ("body", "", "estate"),
            ("kerb_mass_kg", "", "1570"),
            ("front_share_pct", "", "57"),
            ("factory_setup", "front", "17x7.5 ET45 5x112 CB57.1 225/45R17 94W XL"),
            ("factory_setup", "rear", "17x7.5 ET45 5x112 CB57.1 225/45R17 94W XL"),
            ("axle_rating_kg", "front", "1080"),
            ("axle_rating_kg", "rear", "1060"),
            ("hub_bore_mm", "front", "57.1"),
            ("hub_bore_mm", "rear", "57.1"),
            ("bolt_circle", "", "5x112"),
            ("thread", "", "M14x1.5"),
            ("seat", "", "ball R13"),
            ("torque_nm", "", "120"),
            ("pressure_sensors", "", "through wheel speed"),
            ("camber_deg", "front", "-0.6"),
            ("camber_deg", "rear", "-1.3"),
        ],
        readings: &[
            ("front", "left", "strut", 14.0, "mm", "depth_gauge", ""),
            ("front", "left", "strut", 21.0, "mm", "steel_rule", ""),
            ("front", "left", "fender_lateral", 22.0, "mm", "steel_rule", ""),
            ("rear", "left", "fender_lateral", 2.0, "fingers", "fingers", ""),
            ("rear", "left", "arch", 640.0, "mm", "tape", ""),
        ],
        wanted: Some(Style::Flush),
    },
    // Read from the bare hub, before any wheel is bought.
    SampleCar {
        label: "Ousel Brae roadster",
        facts: &[
            ("model", "", "Ousel Brae"),
            ("body", "", "roadster"),
            ("kerb_mass_kg", "", "1010"),
            ("top_speed_kmh", "", "195"),
            ("axle_rating_kg", "front", "690"),
            ("axle_rating_kg", "rear", "710"),
            ("hub_bore_mm", "front", "54.1"),
            ("hub_bore_mm", "rear", "54.1"),
            ("thread", "", "M12x1.5"),
            ("seat", "", "cone 60°"),
            ("torque_nm", "", "108"),
            ("pressure_sensors", "", "none"),
            ("camber_deg", "front", "-2.2"),
            ("camber_deg", "rear", "-2"),
        ],
        readings: &[
            ("front", "left", "strut", 158.0, "mm", "steel_rule", "bare"),
            ("front", "left", "fender_lateral", 96.0, "mm", "steel_rule", "bare"),
            ("rear", "left", "fender_lateral", 101.0, "mm", "steel_rule", "bare"),
            ("rear", "left", "arch", 352.0, "mm", "tape", "bare"),
        ],
        wanted: None,
    },
    // Poked and stretched, and the arch read with the wheel hanging: of no use.
    SampleCar {
        label: "Vesper Tarn show coupé",
        facts: &[
            ("model", "", "Vesper Tarn"),
            ("body", "", "coupé"),
            ("axle_rating_kg", "front", "900"),
            ("axle_rating_kg", "rear", "960"),
            ("hub_bore_mm", "front", "67.1"),
            ("hub_bore_mm", "rear", "67.1"),
            ("thread", "", "M12x1.5"),
            ("seat", "", "cone 60°"),
            ("pressure_sensors", "", "none"),
            ("suspension", "front", "coilovers"),
            ("suspension", "rear", "coilovers"),
            ("dropped_mm", "front", "55"),
            ("dropped_mm", "rear", "60"),
            ("fender", "rear", "lip rolled"),
            ("camber_deg", "front", "-4.5"),
            ("camber_deg", "rear", "-5"),
        ],
        readings: &[
            ("rear", "left", "fender_lateral", 18.0, "mm", "steel_rule", ""),
            ("rear", "left", "arch", 42.0, "mm", "steel_rule", "hanging"),
        ],
        wanted: Some(Style::Flush),
    },
    SampleCar {
        label: "Skerrin Pip 1.2 hatch",
        facts: &[
            ("model", "", "Skerrin Pip 1.2"),
            ("body", "", "hatch"),
            ("top_speed_kmh", "", "172"),
            ("dial_over_read_pct", "", "0.5"),
            ("axle_rating_kg", "front", "840"),
            ("axle_rating_kg", "rear", "780"),
            ("hub_bore_mm", "front", "54.1"),
            ("hub_bore_mm", "rear", "54.1"),
            ("bolt_circle", "", "4x100"),
            ("thread", "", "M12x1.5"),
            ("seat", "", "cone 60°"),
            ("torque_nm", "", "103"),
            ("pressure_sensors", "", "through wheel speed"),
        ],
        readings: &[
            ("front", "left", "strut", 15.0, "mm", "depth_gauge", ""),
            ("front", "left", "fender_lateral", 24.0, "mm", "steel_rule", ""),
            ("front", "left", "arch", 58.0, "mm", "steel_rule", ""),
        ],
        wanted: None,
    },
    // The large brakes came with the car; the kit planned for spring is larger still.
    SampleCar {
        label: "Skerrin Brant RS hatch",
        facts: &[
            ("model", "", "Skerrin Brant RS"),
            ("body", "", "hatch"),
            ("brake_package", "", "two-piston front, 320 mm"),
            ("kerb_mass_kg", "", "1420"),
            ("front_share_pct", "", "62"),
            ("top_speed_kmh", "", "250"),
            ("factory_setup", "front", "18x8 ET50 5x108 CB63.4 235/40R18 95Y XL"),
            ("factory_setup", "rear", "18x8 ET50 5x108 CB63.4 235/40R18 95Y XL"),
            ("axle_rating_kg", "front", "1110"),
            ("axle_rating_kg", "rear", "930"),
            ("hub_bore_mm", "front", "63.4"),
            ("hub_bore_mm", "rear", "63.4"),
            ("hub_lip_mm", "front", "8"),
            ("bolt_circle", "", "5x108"),
            ("thread", "", "M12x1.5"),
            ("seat", "", "cone 60°"),
            ("fastener_kind", "", "bolts"),
            ("fastener_length_mm", "", "31"),
            ("torque_nm", "", "135"),
            ("pressure_sensors", "", "in the wheels"),
        ],
        readings: &[
            ("front", "left", "strut", 9.0, "mm", "depth_gauge", ""),
            ("front", "left", "fender_lateral", 23.0, "mm", "steel_rule", ""),
            ("front", "left", "caliper_radial", 9.5, "mm", "feeler", ""),
            ("front", "left", "caliper_face", 6.0, "mm", "feeler", ""),
        ],
        wanted: None,
    },
    // Its factory tires carried less than the ones that are on it now.
    SampleCar {
        label: "Corrie Lomond 3.5 saloon",
        facts: &[
            ("model", "", "Corrie Lomond 3.5"),
            ("body", "", "saloon"),
            ("kerb_mass_kg", "", "1710"),
            ("top_speed_kmh", "", "240"),
            ("factory_setup", "front", "17x7.5 ET35 5x114.3 CB66.1 225/55R17 97W"),
            ("factory_setup", "rear", "17x7.5 ET35 5x114.3 CB66.1 225/55R17 97W"),
            ("axle_rating_kg", "front", "1120"),
            ("axle_rating_kg", "rear", "1190"),
            ("hub_bore_mm", "front", "66.1"),
            ("hub_bore_mm", "rear", "66.1"),
            ("thread", "", "M12x1.25"),
            ("seat", "", "cone 60°"),
            ("torque_nm", "", "108"),
            ("pressure_sensors", "", "in the wheels"),
        ],
        readings: &[
            ("front", "left", "strut", 16.0, "mm", "depth_gauge", ""),
            ("front", "left", "fender_lateral", 21.0, "mm", "steel_rule", ""),
            ("rear", "left", "strut", 24.0, "mm", "depth_gauge", ""),
            ("rear", "left", "fender_lateral", 28.0, "mm", "steel_rule", ""),
        ],
        wanted: None,
    },
    SampleCar {
        label: "Fellmark Drover crossover",
        facts: &[
            ("model", "", "Fellmark Drover"),
            ("body", "", "crossover"),
            ("top_speed_kmh", "", "188"),
            ("factory_setup", "front", "17x7 ET45 5x114.3 CB64.1 225/65R17 102H"),
            ("factory_setup", "rear", "17x7 ET45 5x114.3 CB64.1 225/65R17 102H"),
            ("axle_rating_kg", "front", "1120"),
            ("axle_rating_kg", "rear", "1180"),
            ("hub_bore_mm", "front", "64.1"),
            ("hub_bore_mm", "rear", "64.1"),
            ("bolt_circle", "", "5x114.3"),
            ("thread", "", "M12x1.5"),
            ("seat", "", "cone 60°"),
            ("pressure_sensors", "", "in the wheels"),
            ("suspension_kind", "front", "strut"),
            ("suspension_kind", "rear", "multi-link"),
            ("inclination_deg", "", "12.5"),
            ("caster_deg", "", "3.5"),
            ("scrub_radius_mm", "", "-8"),
            ("lock_outward_deg", "", "37"),
            ("lock_inward_deg", "", "31"),
            ("bump_mm", "front", "85"),
            ("bump_mm", "rear", "95"),
            ("tread_depth_mm", "front", "5"),
            ("tread_depth_mm", "rear", "5"),
        ],
        readings: &[
            ("front", "left", "fender_lateral", 31.0, "mm", "steel_rule", ""),
            ("front", "left", "arch", 128.0, "mm", "steel_rule", ""),
            ("front", "left", "strut", 27.0, "mm", "depth_gauge", "r 262"),
            ("front", "left", "spring_perch", 11.5, "mm", "depth_gauge", "r 345"),
            ("front", "left", "liner_ahead", 47.0, "mm", "steel_rule", "lock_right"),
            ("front", "left", "sill_behind", 38.0, "mm", "steel_rule", "lock_left"),
            ("rear", "left", "fender_lateral", 42.0, "mm", "steel_rule", ""),
            ("rear", "left", "arch", 151.0, "mm", "steel_rule", ""),
            ("rear", "left", "strut", 39.0, "mm", "steel_rule", "r 255"),
        ],
        wanted: None,
    },
    SampleCar {
        label: "Corrie 5.4 drag saloon",
        facts: &[
            ("model", "", "Corrie 5.4"),
            ("body", "", "saloon"),
            ("kerb_mass_kg", "", "1560"),
            ("top_speed_kmh", "", "236"),
            ("factory_setup", "front", "17x7.5 ET40 5x114.3 205/60R17 93V"),
            ("factory_setup", "rear", "17x7.5 ET40 5x114.3 205/60R17 93V"),
            ("axle_rating_kg", "front", "1020"),
            ("axle_rating_kg", "rear", "1080"),
            ("hub_bore_mm", "front", "70.5"),
            ("hub_bore_mm", "rear", "70.5"),
            ("bolt_circle", "", "5x114.3"),
            ("thread", "", "1/2-20"),
            ("seat", "", "cone 60°"),
            ("torque_nm", "", "135"),
            ("pressure_sensors", "", "none"),
        ],
        readings: &[],
        wanted: None,
    },
];

impl SampleCar {
    /// What the job knows of its car. Every line is sound: a test reads them all.
    pub(super) fn measurements(&self, fitted: &SetupPair, who: &str, at: Timestamp) -> Measurements {
        let mut all = Measurements { levers: PairLevers::default(), ..Measurements::default() };
        for (code, axle, value) in self.facts {
            if let Some(fact) = Fact::from_code(code) {
                let _ = all.car.note(fact, Axle::from_code(axle), value);
            }
        }
        let taken = self.readings.iter().filter_map(|line| taken(line, fitted));
        all.readings = taken
            .enumerate()
            .map(|(count, taken)| KeptReading {
                id: format!("sample-{count}"),
                taken,
                who: who.to_owned(),
                at,
            })
            .collect();
        let target = self.wanted.map(|style| StyleTarget {
            style,
            within: None,
            is_show: self.label.contains("show"),
        });
        all.wanted = (target, target);
        all
    }
}

fn taken(line: &SampleReading, fitted: &SetupPair) -> Option<RecordedReading> {
    let (axle, side, what, value, unit, instrument, more) = *line;
    let axle = Axle::from_code(axle)?;
    let plus_minus = instrument::DEFAULTS.iter().find(|row| row.0 == instrument)?.2;
    let mut words = more.split(' ');
    let mut taken = RecordedReading {
        axle,
        side: CarSide::from_code(side),
        what: ToRead::from_code(what)?,
        value,
        unit: ReadingUnit::from_code(unit)?,
        instrument: instrument.to_owned(),
        plus_minus: Length::from_mm(plus_minus)?,
        on: fitted.on(axle).copied(),
        stance: Suspension::AtRideHeight,
        steer: Steer::Straight,
        radius: None,
        face: None,
        direction: None,
        clock: None,
        is_copied: false,
    };
    while let Some(word) = words.next() {
        match word {
            "hanging" => taken.stance = Suspension::Drooped,
            "bare" => taken.on = None,
            "r" => taken.radius = words.next()?.parse().ok().and_then(Length::from_mm),
            lock => taken.steer = Steer::from_code(lock).unwrap_or_default(),
        }
    }
    Some(taken)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_fact_and_reading_of_the_sample_shop_is_one() {
        let fitted = SetupPair::square("18x8 ET35 225/40R18".parse().unwrap());
        for car in CARS {
            let all = car.measurements(&fitted, "mk", Timestamp::UNIX_EPOCH);
            assert_eq!(all.readings.len(), car.readings.len(), "{}", car.label);
            assert_eq!(all.car.known().count(), car.facts.len(), "{}", car.label);
        }
    }
}
