//! The library of proven fits and the ladder's shelf, asked for a job. Figures are made up.

use app::ladder::OnShelf;
use app::proven::{OwnersView, fit_of, library};
use fitment::answers::plus_sizes;
use fitment::answers::proven::Rub;
use fitment::judgement::rules::load::LoadRequirement;
use fitment::setup::Axle;
use fitment::setup::catalogue::{Catalogue, TireRow, WheelRow};
use store::proven::ProvenRow;

use crate::{FITTED, job, square};

fn row(id: i64, fields: &[(&str, &str)]) -> ProvenRow {
    let record = fields.iter().map(|(column, text)| ((*column).to_owned(), (*text).to_owned())).collect();
    ProvenRow { id, job: None, import: None, record, damaged: None }
}

#[test]
fn the_likest_car_comes_first_then_the_nearest_setup_and_damage_is_named() {
    let mut asked = job("18x8.5 ET35 245/40R18");
    asked.car_label = "Skerry hatch".to_owned();
    let rows = [
        row(1, &[("model", "Other estate"), ("front", "18x8.5 ET35 245/40R18")]),
        row(2, &[("model", "Skerry hatch"), ("front", "19x9 ET20 255/30R19"), ("rub_front", "at lock")]),
        row(3, &[("model", "Skerry hatch"), ("front", "18x8.5 ET38 245/40R18"), ("rub_front", "none")]),
        row(4, &[("model", "Skerry hatch"), ("front", "18x8.5 ETX")]),
        ProvenRow { damaged: Some("no record".to_owned()), ..row(5, &[]) },
    ];
    let found = library(&rows, "", Some(&asked), 10);
    let order: Vec<i64> = found.fits.iter().map(|one| one.row.id).collect();
    assert_eq!((order, found.total), (vec![3, 2, 1], 3));
    assert_eq!(found.fits[2].likeness, 0);
    assert!(found.fits.iter().all(|one| one.distance[0].is_some() && one.distance[1].is_none()));
    let damaged: Vec<i64> = found.damaged.iter().map(|(id, _)| *id).collect();
    assert_eq!(damaged, [4, 5]);
    assert!(found.damaged[0].1.starts_with("front: "), "{:?}", found.damaged);
    // Proven without rub on this model: only the third.
    assert_eq!(found.envelopes[0].iter().map(|one| (one.cars, one.rubbed)).collect::<Vec<_>>(), [(1, 1)]);
    let first = library(&rows, "hatch 255/30", Some(&asked), 1);
    assert_eq!((first.fits[0].row.id, first.total), (2, 1), "every word must occur");
    assert!(library(&rows, "", None, 10).fits.iter().all(|one| one.likeness == 0));
}

#[test]
fn a_finished_job_leaves_its_plan_on_its_car() {
    let mut done = job("18x8.5 ET35 245/40R18");
    done.car_label = "Skerry hatch".to_owned();
    let said = OwnersView {
        rubs: [Some(Rub::None), Some(Rub::OverBumps)],
        view: "quiet".to_owned(),
        uses: "daily".to_owned(),
    };
    let fit = fit_of(&done, said, 2026);
    assert_eq!((fit.car.model.as_str(), fit.year), ("Skerry hatch", Some(2026)));
    assert_eq!((fit.setups, fit.before), (done.planned, square(FITTED)));
    assert_eq!((fit.on(Axle::Front).rub, fit.on(Axle::Rear).rub), (Some(Rub::None), Some(Rub::OverBumps)));
    // Written and read again it is the same fit.
    let record = exchange::proven::record(&fit);
    assert_eq!(exchange::proven::fit(&record), Ok(fit));
}

#[test]
fn the_shelf_counts_what_there_is_what_carries_and_what_it_may_be_put_on() {
    let tire = |id: u32, size: &str| TireRow { id, ..TireRow::plain(size.parse().unwrap()) };
    let wheel = |id: u32, size: &str| WheelRow { id, ..WheelRow::plain(size.parse().unwrap()) };
    let catalogue = Catalogue {
        tires: vec![tire(1, "245/40R18 97Y XL"), tire(2, "245/40R18 93Y"), tire(3, "225/40R18 92Y XL")],
        wheels: vec![
            wheel(1, "18x8.5 ET35"),
            wheel(2, "18x8.5 ET40"),
            wheel(3, "18x11 ET40"),
            wheel(4, "19x8.5 ET35"),
        ],
    };
    let rungs =
        plus_sizes::ladder(&"225/45R17".parse::<fitment::Tire>().unwrap().size, 4.0, &plus_sizes::all_rims());
    let rung = rungs.iter().find(|rung| fitment::Tire::plain(rung.size).to_string() == "245/40R18").unwrap();
    let bare = OnShelf::of(&catalogue, None);
    assert_eq!((bare.tires_of(&rung.size), bare.tires_that_carry(&rung.size)), (2, None));
    // ISO 4000-1: 97 carries 730 kg, 93 carries 650 kg.
    let mut car = fitment::car::Car::default();
    car.note(fitment::car::Fact::AxleRating, Some(Axle::Front), "1400").unwrap();
    let load = LoadRequirement::of(&car, &square("17x7.5 ET45 225/45R17"), Axle::Front);
    let held = OnShelf::of(&catalogue, Some(load));
    assert_eq!(held.tires_that_carry(&rung.size), Some(1), "700 kg a tire");
    assert_eq!(held.wheels_for(rung), 2, "18x11 is too wide, a 19 too large");
}
