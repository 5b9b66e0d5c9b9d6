//! Choosing: properties that hold for every size, load, wheel and hub, beside the checked examples in the modules.
use fitment::answers::plus_sizes::ladder;
use fitment::car::limits::{Drive, HouseLimits};
use fitment::judgement::rules::front_to_rear::{Stagger, stagger};
use fitment::judgement::rules::mount::{FastenerKind, Hub, WheelSide, mount};
use fitment::judgement::rules::pressure::{PressureFor, pressure_for};
use fitment::parts::tire::dimensions::overall_diameter;
use fitment::values::fastener::Seat;
use fitment::{BoltCircle, CenterBore, RimDiameter, Setup, SetupPair, Spacer, Tire};
use proptest::prelude::*;

fn tire(text: &str) -> Tire {
    text.parse().unwrap()
}

prop_compose! {
    fn any_size()(section in 135..=345_u32, aspect in 25..=80_u32, rim in 13..=22_u32) -> String {
        format!("{}/{}R{rim}", section / 10 * 10 + 5, aspect / 5 * 5)
    }
}

proptest! {
    #[test]
    fn a_wider_band_only_adds_to_a_ladder(size in any_size(), narrow in 0.2..2.0_f64, more in 0.1..3.0_f64) {
        let rims: Vec<RimDiameter> = (15..=20).filter_map(|rim| RimDiameter::from_code(f64::from(rim))).collect();
        let size = tire(&size).size;
        let (few, many) = (ladder(&size, narrow, &rims), ladder(&size, narrow + more, &rims));
        prop_assert!(few.iter().all(|rung| many.contains(rung)));
        // The nearer come first, so the few are the beginning of the many.
        prop_assert_eq!(few.as_slice(), &many[..few.len()]);
        for rung in &many {
            // The change is what the diameters say, whichever way it is worked out.
            let back = overall_diameter(&rung.size) / overall_diameter(&size);
            prop_assert!((rung.change_pct - (back - 1.0) * 100.0).abs() < 1e-9);
        }
    }

    #[test]
    fn a_pressure_carries_its_load(index in 80..110_u32, share in 0.1..1.0_f64, placard in 150.0..300.0_f64) {
        let tire = tire(&format!("225/45R17 {index}W XL"));
        let capacity = tire.service.unwrap().single.capacity_kg();
        let asked =
            PressureFor { load_kg: Some(capacity * share), placard_kpa: Some(placard), ..PressureFor::default() };
        let found = pressure_for(&tire, &asked).unwrap();
        prop_assert!(found.is_enough && found.kpa >= placard && found.kpa >= 180.0);
        // Backwards: at that pressure the method (ETRTO, from memory) lets it carry at least the load.
        let carries = capacity * (found.kpa / 290.0).powf(0.8);
        prop_assert!(carries >= capacity * share - 1e-6);
    }

    #[test]
    fn swapping_the_axles_turns_the_stagger_round(front in any_size(), rear in any_size()) {
        let setup = |size: &str| -> Setup {
            let rim = size.rsplit('R').next().unwrap();
            format!("{rim}x8 ET40 {size}").parse().unwrap()
        };
        let pair = |front: &str, rear: &str| SetupPair { front: Some(setup(front)), rear: Some(setup(rear)) };
        let factory = SetupPair::square(setup("225/45R17"));
        let judge = |pair: &SetupPair| stagger(&factory, pair, Some(Drive::All), &HouseLimits::DEFAULT).unwrap();
        let (there, back) = (judge(&pair(&front, &rear)), judge(&pair(&rear, &front)));
        let ratio = |found: &Stagger| 1.0 + found.ratio_change.value() / 100.0;
        prop_assert!((ratio(&there) * ratio(&back) - 1.0).abs() < 1e-9);
        prop_assert_eq!(there.height_difference, back.height_difference);
        prop_assert_eq!(there.taller.is_none(), back.taller.is_none());
    }

    #[test]
    fn a_wheel_goes_on_only_where_everything_matches(
        bore in 50.0..80.0_f64, hub in 50.0..80.0_f64, circle in 98..125_u32, car in 98..125_u32, spacer in 0.0..20.0_f64
    ) {
        let circle_of = |mm: u32| BoltCircle::new(5, f64::from(mm)).unwrap();
        let seat = Some(Seat::Cone60);
        let hub_side = Hub {
            bore: CenterBore::from_mm(hub),
            lip: None,
            bolt_circle: Some(circle_of(car)),
            thread: "M14x1.5".parse().ok(),
            seat,
            fasteners: Some(FastenerKind::Bolts),
            ..Hub::default()
        };
        let wheel = WheelSide {
            bore: CenterBore::from_mm(bore),
            bolt_circles: vec![circle_of(circle)],
            seat,
            is_the_fitted_one: true,
            ..WheelSide::default()
        };
        let found = mount(&hub_side, &wheel, Spacer::from_mm(spacer), None);
        let (bore, hub) = (wheel.bore.unwrap(), hub_side.bore.unwrap());
        // Within a tenth of a millimetre both are one nominal size.
        let is_smaller = i32::from(bore.hundredths()) < i32::from(hub.hundredths()) - 10;
        prop_assert_eq!(found.verdict() == "does_not_fit", circle_of(circle) != circle_of(car) || is_smaller);
        if let Some(ring) = found.ring {
            prop_assert!(ring.outer > ring.inner && bore > hub);
        }
        // A spacer never comes without its longer fasteners.
        let says_length = found.problems.iter().any(|problem| problem.code.code() == "length");
        prop_assert_eq!(says_length, Spacer::from_mm(spacer).is_some());
    }
}
