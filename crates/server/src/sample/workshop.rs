//! What the sample shop knows from its workshop: brake profiles, the inside of a wheel, trial fits. Invented figures.

use jiff::Timestamp;
use store::picked::{Picked, PickedRow};
use store::workshop::{KeptTemplate, KeptTrial, WheelTemplate, Workshop};

const BIG_BRAKES: &str = "Skerrin Brant RS hatch";
const DRAG: &str = "Corrie 5.4 drag saloon";

/// The caliper that the hatch came with: y and r.
const FITTED_CALIPER: &[[f64; 2]] = &[
    [-58.0, 118.0],
    [-58.0, 172.0],
    [-50.0, 181.0],
    [-20.0, 184.5],
    [4.0, 182.0],
    [15.0, 174.0],
    [17.5, 150.0],
    [12.0, 118.0],
];
/// The kit planned for spring, from its maker's card: larger, and further out.
const KIT_CALIPER: &[[f64; 2]] = &[
    [-56.0, 124.0],
    [-56.0, 180.0],
    [-47.0, 191.0],
    [-22.0, 195.5],
    [6.0, 194.0],
    [20.0, 185.0],
    [24.6, 166.0],
    [24.6, 148.0],
    [15.0, 122.0],
];
/// The winter wheel's inside as it was measured: its spokes stand three tenths in the kit's way.
const WINTER_BARREL: &[[f64; 2]] = &[
    [-152.0, 226.0],
    [-140.0, 219.0],
    [-90.0, 214.0],
    [-50.0, 206.5],
    [-25.0, 201.5],
    [10.0, 200.6],
    [32.0, 200.6],
];
const WINTER_SPOKES: &[[f64; 2]] = &[
    [34.0, 200.0],
    [30.0, 188.0],
    [24.3, 172.0],
    [24.3, 140.0],
    [16.0, 108.0],
    [4.0, 84.0],
    [0.0, 78.0],
    [0.0, 33.0],
];

/// A trial: axle, setup, contact, gap, note, next step.
type SampleTrial = (&'static str, &'static str, &'static str, Option<f64>, &'static str, &'static str);

/// The strip set: the small rim will not go over the parking brake, and the knuckle says how far in the large one may stand.
const DRAG_TRIALS: &[SampleTrial] = &[
    (
        "rear",
        "15x10 ET25 5x114.3",
        "barrel_parking_brake",
        Some(-5.5),
        "will not seat; bright line on the parking brake's lever",
        "try the 17 bare",
    ),
    (
        "rear",
        "17x9 ET20 5x114.3",
        "barrel_parking_brake",
        Some(8.5),
        "turns free by hand",
        "18 x 10 for the knuckle",
    ),
    (
        "rear",
        "18x10 ET25 5x114.3",
        "knuckle",
        Some(28.0),
        "bare, hanging; room at the knuckle",
        "with the tire, on the ground",
    ),
];

fn template(name: &str, role: &str, points: &[[f64; 2]], plus_minus_mm: f64) -> KeptTemplate {
    KeptTemplate {
        id: format!("sample-{role}"),
        axle: "front".to_owned(),
        part: "caliper".to_owned(),
        role: role.to_owned(),
        name: name.to_owned(),
        source: "template".to_owned(),
        plus_minus_mm,
        points: points.to_vec(),
    }
}

/// A job's workshop.
pub(super) fn of(car: &str, by: &str, at: Timestamp) -> Workshop {
    let templates = match car {
        BIG_BRAKES => vec![
            template("as delivered, 320 mm disc", "fitted", FITTED_CALIPER, 0.3),
            template("kit for spring, 356 mm disc, maker's card", "planned", KIT_CALIPER, 0.1),
        ],
        _ => Vec::new(),
    };
    let trials = if car == DRAG { DRAG_TRIALS } else { &[] };
    let trials =
        trials.iter().enumerate().map(|(count, (axle, setup, contact, gap_mm, note, next))| KeptTrial {
            id: format!("sample-{count}"),
            axle: (*axle).to_owned(),
            side: Some("left".to_owned()),
            setup: (*setup).to_owned(),
            contact: (*contact).to_owned(),
            gap_mm: *gap_mm,
            plus_minus_mm: 0.5,
            instrument: "clay".to_owned(),
            steer: "straight".to_owned(),
            is_hanging: true,
            note: (*note).to_owned(),
            next_step: (*next).to_owned(),
            photos: Vec::new(),
            who: by.to_owned(),
            at: at.to_string(),
        });
    Workshop { templates, trials: trials.collect() }
}

/// Rows that a job has picked from the lists.
pub(super) fn picked(car: &str) -> Picked {
    if car != BIG_BRAKES {
        return Picked::default();
    }
    let record = [
        ("line", "Bolder"),
        ("size", "18x8 ET45"),
        ("bolt_circle", "5x108"),
        ("bore_mm", "63.4"),
        ("seat", "cone 60°"),
        ("load_kg", "690"),
        ("mass_kg", "10.1"),
        ("price", "189"),
    ]
    .map(|(field, text)| (field.to_owned(), text.to_owned()));
    let row = PickedRow {
        kind: "wheels".to_owned(),
        row: 0,
        supplier: "Lakeshore Wheels".to_owned(),
        record: record.into(),
    };
    Picked { rows: vec![row], ..Picked::default() }
}

/// The insides of wheels that the shop has measured.
pub(super) fn wheels() -> Vec<WheelTemplate> {
    vec![WheelTemplate {
        line: "Bolder".to_owned(),
        size: "18x8 ET45".to_owned(),
        source: "readings".to_owned(),
        plus_minus_mm: 0.1,
        barrel: WINTER_BARREL.to_vec(),
        spoke_back: WINTER_SPOKES.to_vec(),
    }]
}

#[cfg(test)]
mod tests {
    use super::*;
    use app::evidence::{inside_of, package_of, tries_of};
    use fitment::car::brake::{Limits, judge};
    use fitment::judgement::clearance::Verdict;
    use fitment::setup::Axle;

    #[test]
    fn the_winter_wheel_touches_by_tenths_and_two_millimetres_mend_it() {
        let workshop = of(BIG_BRAKES, "rs", Timestamp::UNIX_EPOCH);
        let (package, _) = package_of(&workshop, Axle::Front, true);
        let inside = inside_of(&wheels()[0]).unwrap().profile;
        let limits = Limits { radial_mm: 3.0, axial_mm: super::super::CALIPER_FACE_MM };
        let fit = judge(&package, &inside, 0.0, None, limits);
        let gaps = fit.parts[0].gaps;
        assert!(gaps.radial.unwrap().mm > 3.5, "{gaps:?}");
        assert!((gaps.axial.unwrap().mm + 0.3).abs() < 1e-9, "{gaps:?}");
        assert_eq!((fit.verdict, fit.smallest_spacer_mm), (Verdict::Touches, Some(2.0)));
    }

    #[test]
    fn every_trial_of_the_sample_shop_is_one() {
        let workshop = of(DRAG, "mk", Timestamp::UNIX_EPOCH);
        assert_eq!(tries_of(&workshop).len(), DRAG_TRIALS.len());
    }
}
