//! The sample shop: a made-up wheel shop in the made-up lakeside town of Vennmere, its commuters and its
//! hill-climb club. Every job has something to find.

mod bay;
mod proven;
mod workshop;

use exchange::field::Kind;
use exchange::habits::Habits;
use exchange::{Mapping, Table};
use fitment::records::{RoadSheet, SearchWish};
use jiff::{SignedDuration, Timestamp};
use store::catalogue;
use store::documents;
use store::house::{self, HouseContent, Person};
use store::jobs::{Candidate, JobContent, Stage, change, create};
use store::measurements::Measurements;
use store::{Store, StoreError};

use crate::price_list::read_list;
use fitment::SetupPair;
use fitment::car::lever::PairLevers;
use fitment::car::limits::Drive;
use fitment::setup::line;

struct SampleJob {
    car: &'static str,
    wish: &'static str,
    stage: Stage,
    drive: Option<Drive>,
    notes: &'static str,
    fitted: &'static str,
    planned: &'static str,
    /// Kept setups and what was said about them.
    kept: &'static [(&'static str, &'static str)],
    /// What the finder is asked, as the API has it.
    wishes: &'static str,
    hours_ago: i64,
    by: &'static str,
}

const JOBS: &[SampleJob] = &[
    // Smaller wheels in front: the diameters drift apart, and nobody has asked for the placard yet.
    SampleJob {
        car: "Corrie Lomond 3.5 saloon",
        wish: "19 in front, 20 behind, as the club car has it; daily, no rubbing on the lake road",
        stage: Stage::RoadAndTrack,
        drive: Some(Drive::Rear),
        notes: "Mixed diameters: the owner saw it on a show stand.",
        fitted: "18x8 ET30 5x114.3 CB66.1 245/45R18 100Y XL",
        planned: "F: 19x8.5 ET30 5x114.3 CB66.1 245/35R19 93Y XL R: 20x9.5 ET32 5x114.3 CB66.1 275/35R20 102Y XL",
        kept: &[],
        wishes: r#"{"school":"wheel_first","uses":["daily"],"season":"summer","arrangement":"staggered","mixed_diameters":true,"rim_min_in":19,"rim_max_in":19,"rear_rim_min_in":20,"rear_rim_max_in":20}"#,
        hours_ago: 8,
        by: "ov",
    },
    // The winter wheel clears the kit round its barrel and touches it at the spokes by tenths; the smaller ones are out.
    SampleJob {
        car: "Skerrin Brant RS hatch",
        wish: "Large brake kit in spring, winter wheels that still go over it",
        stage: Stage::Handover,
        drive: Some(Drive::Front),
        notes: "Kit's card template is on its way. Ask before the winter wheels are ordered.",
        fitted: "18x8 ET50 5x108 CB63.4 235/40R18 95Y XL",
        planned: "18x8 ET45 5x108 CB63.4 235/40R18 95V XL",
        kept: &[
            ("16x7 ET50 5x108 CB63.4 205/55R16 94H XL", "cheapest tires, if it goes over the brakes"),
            ("17x7.5 ET50 5x108 CB63.4 215/45R17 91V XL", "the smallest that may do"),
        ],
        wishes: r#"{"uses":["winter"],"season":"winter","arrangement":"square","rim_min_in":16,"rim_max_in":18}"#,
        hours_ago: 30,
        by: "rs",
    },
    // The dial under-reads: the plan is well inside the diameter band and still not lawful.
    SampleJob {
        car: "Skerrin Pip 1.2 hatch",
        wish: "Bigger wheels for the commute round the lake, quiet, no surprises at inspection",
        stage: Stage::Bench,
        drive: Some(Drive::Front),
        notes: "Owner asks why the dial matters when the diameter is \"in the green\".",
        fitted: "15x6 ET45 4x100 CB54.1 195/65R15 91H",
        planned: "17x7 ET42 4x100 CB54.1 215/50R17 95V XL",
        kept: &[("16x6.5 ET45 4x100 CB54.1 205/55R16 91V", "one size up, dial stays lawful")],
        wishes: r#"{"uses":["daily"],"season":"summer","arrangement":"square","rim_min_in":16,"rim_max_in":17,"budget":1600}"#,
        hours_ago: 2,
        by: "mk",
    },
    // Front and rear diameters drift apart on an all-wheel-drive car.
    SampleJob {
        car: "Halvard Tinde 2.0 estate",
        wish: "Flush, no rubbing, passes with four people in",
        stage: Stage::Bay,
        drive: Some(Drive::All),
        notes: "Wants the rear to look wider. Coupling was replaced last year.",
        fitted: "17x7.5 ET45 5x112 CB57.1 225/45R17 94W XL",
        planned: "F: 18x8.5 ET38 5x112 235/40R18 95Y XL R: 18x9 ET35 5x112 255/40R18 99Y XL",
        kept: &[
            ("18x8.5 ET40 5x112 CB57.1 235/40R18 95Y XL", "square, keeps the ratio"),
            (
                "F: 18x8.5 ET38 5x112 235/40R18 95Y XL R: 18x9 ET35 5x112 235/40R18 95Y XL",
                "staggered wheels, one tire",
            ),
        ],
        wishes: r#"{"school":"wheel_first","uses":["daily"],"season":"summer","arrangement":"square","rim_min_in":17,"rim_max_in":18,"thickest_spacer_mm":20}"#,
        hours_ago: 1,
        by: "ov",
    },
    // A stretched tire on a rim outside its range, and too little load.
    SampleJob {
        car: "Vesper Tarn show coupé",
        wish: "Stretched and low for the pier meet",
        stage: Stage::Car,
        drive: Some(Drive::Rear),
        notes: "Drives to the meet on its own wheels, about forty minutes.",
        fitted: "17x8 ET35 5x114.3 CB67.1 225/45R17 91W",
        planned: "17x9 ET20 5x114.3 CB67.1 205/40R17 84W",
        kept: &[("17x9 ET25 5x114.3 CB67.1 245/40R17 95W XL", "as wide, not stretched")],
        wishes: r#"{"school":"wheel_first","uses":["show"],"season":"summer","arrangement":"staggered","rim_min_in":18,"rim_max_in":20}"#,
        hours_ago: 28,
        by: "mk",
    },
    // The rear tires carry less than the fitted ones.
    SampleJob {
        car: "Marn Dotterel 3.0 coupé",
        wish: "One inch up all round, fuller rear",
        stage: Stage::Rack,
        drive: Some(Drive::Rear),
        notes: "",
        fitted: "F: 18x8 ET34 5x120 225/45R18 95Y R: 18x8.5 ET47 5x120 245/40R18 97Y XL",
        planned: "F: 19x8.5 ET33 5x120 235/35R19 91Y XL R: 19x9.5 ET40 5x120 265/30R19 93Y XL 3 mm spacer",
        kept: &[(
            "F: 19x8.5 ET33 5x120 235/40R19 96Y XL R: 19x9.5 ET40 5x120 265/35R19 98Y XL",
            "taller, carries enough",
        )],
        wishes: r#"{"uses":["daily"],"season":"summer","arrangement":"staggered","rim_min_in":19,"rim_max_in":19}"#,
        hours_ago: 5,
        by: "ov",
    },
    // A shorter tire for autocross: quicker off the line, and far outside the house band.
    SampleJob {
        car: "Ousel Brae roadster",
        wish: "Square autocross set for the hill-climb club, rotates, short gearing",
        stage: Stage::TrialFit,
        drive: Some(Drive::Rear),
        notes: "Class rule: treadwear 200 or more.",
        fitted: "16x6.5 ET45 4x100 CB54.1 205/50R16 87V",
        planned: "15x8 ET25 4x100 CB54.1 225/45R15 87W",
        kept: &[],
        wishes: r#"{"uses":["autocross"],"season":"summer","arrangement":"square","rim_min_in":15,"rim_max_in":16,"budget":2400}"#,
        hours_ago: 50,
        by: "rs",
    },
    // The arch closes by half of fifty millimetres.
    SampleJob {
        car: "Fellmark Drover crossover",
        wish: "All-terrain tires and a lift for the forest road",
        stage: Stage::Car,
        drive: None,
        notes: "Lift not chosen yet. Find out which axles are driven.",
        fitted: "17x7 ET45 5x114.3 225/65R17 102H",
        planned: "17x8 ET25 5x114.3 LT245/70R17 119/116S LR E",
        kept: &[],
        wishes: r#"{"uses":["daily","gravel"],"arrangement":"square","rim_min_in":16,"rim_max_in":18}"#,
        hours_ago: 75,
        by: "rs",
    },
    // Narrow fronts and slicks: inch sizes, and a front that needs its own look at load and speed.
    SampleJob {
        car: "Corrie 5.4 drag saloon",
        wish: "Strip set: narrow fronts, slicks behind, equal heights",
        stage: Stage::Brakes,
        drive: Some(Drive::Rear),
        notes: "Rear 15 in only if the parking brake lets it on.",
        fitted: "18x8 ET40 5x114.3 245/45R18 100W XL",
        planned: "F: 17x4.5 ET-10 5x114.3 28x6.0-17 R: 15x10 ET25 5x114.3 28.0/10.5-15",
        kept: &[
            (
                "F: 17x4.5 ET-10 5x114.3 28x6.0-17 R: 17x9 ET20 5x114.3 275/50R17 106V",
                "over the parking brake",
            ),
            (
                "F: 17x4.5 ET-10 5x114.3 28x6.0-17 R: 18x10 ET25 5x114.3 275/45R18 103V",
                "if the knuckle lets it",
            ),
        ],
        wishes: r#"{"uses":["drag"],"arrangement":"staggered","mixed_diameters":true,"rim_min_in":15,"rim_max_in":18}"#,
        hours_ago: 120,
        by: "mk",
    },
];

/// The sample shop's own least gap between caliper and spokes, in millimetres.
const CALIPER_FACE_MM: f64 = 1.5;

/// Fills an empty shop.
///
/// # Errors
/// What the store says.
pub async fn fill(store: &Store) -> Result<(), StoreError> {
    let now = Timestamp::now();
    store
        .write(move |tx| {
            let people = [("mk", "Mikke Karv"), ("ov", "Ottilie Vass"), ("rs", "Runar Sele")];
            let people =
                people.map(|(initials, name)| Person { initials: initials.into(), name: name.into() });
            let mut settled = HouseContent { people: people.into(), ..HouseContent::default() };
            // They measure calipers with feelers, and go closer to the spokes than most.
            let _ = settled.limits.set("caliper_face_mm", CALIPER_FACE_MM);
            house::change(tx, 0, &settled)?;
            for (kind, supplier, name, bytes) in LISTS {
                // Its columns say themselves what they are, and every row is sound: a test reads them all.
                let Ok(table) = Table::read(bytes) else { continue };
                let mapping = Mapping::guessed(&table.header, *kind);
                let rows = read_list(&table, *kind, &mapping, &Habits::default(), &|_| {}).rows;
                let list = catalogue::bring(tx, kind.code(), supplier, name, bytes, now)?;
                catalogue::take(tx, list.id, &mapping.names(&table.header), &rows, now, &|_| {})?;
            }
            for wheel in workshop::wheels() {
                store::workshop::put_wheel_template(tx, &wheel, now)?;
            }
            let from = store::proven::From::Import(store::proven::begin_import(tx, "lake-shops.csv", now)?);
            for fit in proven::fits() {
                store::proven::add(tx, &fit.key(), &exchange::proven::record(&fit), from, now)?;
            }
            for job in JOBS.iter().rev() {
                let at = now.checked_sub(SignedDuration::from_hours(job.hours_ago)).unwrap_or(now);
                let content = job.content(at);
                // Opened with what is fitted, then planned: so that there is something to undo.
                let opened =
                    JobContent { planned: SetupPair::default(), candidates: Vec::new(), ..content.clone() };
                let earlier = at.checked_sub(SignedDuration::from_mins(20)).unwrap_or(at);
                let opened = create(tx, &opened, job.by, earlier)?;
                change(tx, opened.id, opened.revision, &content, job.by, at)?;
            }
            Ok(())
        })
        .await
}

/// What the shop can order: invented lines in sizes that are made.
const LISTS: &[(Kind, &str, &str, &[u8])] = &[
    (Kind::Wheels, "Lakeshore Wheels", "wheels.csv", include_bytes!("wheels.csv")),
    (Kind::Tires, "Harbour Tires", "tires.csv", include_bytes!("tires.csv")),
];

/// Road and track sheets: the roadster's season, and the crossover's gears.
const ROADS: &[(&str, &str)] = &[
    ("Ousel Brae roadster", include_str!("road_roadster.json")),
    ("Fellmark Drover crossover", include_str!("road_crossover.json")),
];

impl SampleJob {
    fn content(&self, at: Timestamp) -> JobContent {
        let fitted = pair(self.fitted);
        let car = bay::CARS.iter().find(|car| car.label == self.car);
        JobContent {
            car_label: self.car.to_owned(),
            wish: self.wish.to_owned(),
            stage: self.stage,
            drive: self.drive,
            notes: self.notes.to_owned(),
            fitted,
            planned: pair(self.planned),
            candidates: ('A'..)
                .zip(self.kept)
                .map(|(letter, (line, note))| Candidate {
                    letter,
                    note: (*note).to_owned(),
                    setups: pair(line),
                    levers: PairLevers::default(),
                    picked: Vec::new(),
                })
                .collect(),
            put_away: false,
            road: ROADS
                .iter()
                .find(|(car, _)| *car == self.car)
                .and_then(|(_, text)| documents::read::<RoadSheet>(text).ok())
                .map(|sheet| documents::write(&sheet)),
            wishes: documents::read::<SearchWish>(self.wishes).ok().map(|wish| documents::write(&wish)),
            measurements: car
                .map_or_else(Measurements::default, |car| car.measurements(&fitted, self.by, at)),
            picked: workshop::picked(self.car),
            workshop: workshop::of(self.car, self.by, at),
        }
    }
}

/// The lines above are sound: a test reads them all.
fn pair(text: &str) -> SetupPair {
    line::read(text).ok().and_then(|reading| reading.setups).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::wire::finder::FinderRequest;
    use crate::wire::read::FieldErrors;

    #[test]
    fn what_is_known_of_a_car_belongs_to_a_job() {
        for car in bay::CARS {
            assert!(JOBS.iter().any(|job| job.car == car.label), "{}", car.label);
        }
    }

    #[test]
    fn every_row_of_the_sample_lists_is_sound() {
        for (kind, _, name, bytes) in LISTS {
            let table = Table::read(bytes).unwrap();
            let read = read_list(
                &table,
                *kind,
                &Mapping::guessed(&table.header, *kind),
                &Habits::default(),
                &|_| {},
            );
            assert!(read.faults.is_empty(), "{name}: {:?}", read.faults.first());
            assert!(read.rows.len() > 150 && read.doubled == 0, "{name}: {}", read.rows.len());
        }
    }

    #[test]
    fn every_wish_of_the_sample_shop_can_be_searched_for() {
        for job in JOBS {
            let wishes = FinderRequest::of_kept(job.wishes).unwrap();
            assert!(wishes.read().is_ok(), "{}: {}", job.car, job.wishes);
        }
    }

    #[test]
    fn every_road_sheet_of_the_sample_shop_is_sound() {
        for (car, json) in ROADS {
            let sheet = crate::wire::road_sheet::RoadSheet::of_kept(json).unwrap();
            let mut errors = FieldErrors::default();
            assert!(sheet.kept(&mut errors, "").is_some() && errors.finish(()).is_ok(), "{car}");
        }
    }

    #[test]
    fn every_line_of_the_sample_shop_can_be_read() {
        for job in JOBS {
            let lines = [job.fitted, job.planned].into_iter().chain(job.kept.iter().map(|kept| kept.0));
            for text in lines {
                let pair = pair(text);
                assert!(pair.front.is_some() && pair.rear.is_some(), "{}: {text}", job.car);
            }
        }
    }
}
