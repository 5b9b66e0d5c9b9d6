//! Proven fits as records of plain texts, so that shops can exchange them; and back.

use std::collections::BTreeMap;

use fitment::answers::proven::{ProvenAxle, ProvenCar, ProvenFit, Rub};
use fitment::car::limits::Drive;
use fitment::setup::{Setup, SetupPair};

use crate::table::Table;

/// A record: texts by column.
pub type ProvenRecord = BTreeMap<String, String>;

/// The columns in the order they are exported.
pub const COLUMNS: [&str; 24] = [
    "model",
    "body",
    "generation",
    "brakes",
    "drive",
    "suspension_front",
    "suspension_rear",
    "dropped_front_mm",
    "dropped_rear_mm",
    "fender_front",
    "fender_rear",
    "camber_front_deg",
    "camber_rear_deg",
    "before_front",
    "before_rear",
    "front",
    "rear",
    "rub_front",
    "rub_rear",
    "style",
    "uses",
    "view",
    "shop",
    "year",
];

/// What is wrong with a record: column and why.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ProvenFault {
    /// Which column.
    pub column: &'static str,
    /// Why.
    pub why: String,
}

const LONGEST: usize = 400;

/// A fit as a record; what is not known is not in it.
pub fn record(fit: &ProvenFit) -> ProvenRecord {
    let mut record = ProvenRecord::new();
    let mut put = |column: &str, text: Option<String>| {
        if let Some(text) = text.filter(|text| !text.is_empty()) {
            record.insert(column.to_owned(), text);
        }
    };
    let words = |text: &str| Some(text.trim().to_owned());
    let line = |setup: Option<Setup>| setup.map(|setup| setup.to_string());
    put("model", words(&fit.car.model));
    put("body", words(&fit.car.body));
    put("generation", words(&fit.car.generation));
    put("brakes", words(&fit.car.brakes));
    put("drive", fit.car.drive.map(|drive| drive.code().to_owned()));
    for (end, axle) in [("front", &fit.front), ("rear", &fit.rear)] {
        put(&format!("suspension_{end}"), words(&axle.suspension));
        put(&format!("dropped_{end}_mm"), axle.dropped_mm.map(|mm| mm.to_string()));
        put(&format!("fender_{end}"), words(&axle.fender));
        put(&format!("camber_{end}_deg"), axle.camber_deg.map(|deg| deg.to_string()));
        put(&format!("rub_{end}"), axle.rub.map(|rub| rub.code().to_owned()));
    }
    put("before_front", line(fit.before.front));
    put("before_rear", line(fit.before.rear));
    put("front", line(fit.setups.front));
    put("rear", line(fit.setups.rear));
    put("style", words(&fit.style));
    put("uses", words(&fit.uses));
    put("view", words(&fit.view));
    put("shop", words(&fit.shop));
    put("year", fit.year.map(|year| year.to_string()));
    record
}

/// A record as a fit.
///
/// # Errors
/// Every column at fault; a fit names at least its model and one axle's setup.
pub fn fit(record: &ProvenRecord) -> Result<ProvenFit, Vec<ProvenFault>> {
    let mut faults = Vec::new();
    let mut fault = |column, why: String| faults.push(ProvenFault { column, why });
    let text = |column: &str| record.get(column).map(|text| text.trim()).filter(|text| !text.is_empty());
    for column in COLUMNS {
        if text(column).is_some_and(|text| text.chars().count() > LONGEST) {
            fault(column, format!("is longer than {LONGEST} characters"));
        }
    }
    let words = |column: &str| text(column).unwrap_or_default().to_owned();
    let mut number = |column: &'static str, least: f64, most: f64| {
        let read = text(column)?.replace(',', ".").replace('−', "-").parse::<f64>().ok();
        let number = read.filter(|number| (least..=most).contains(number));
        if number.is_none() {
            fault(column, format!("{:?} is not a number from {least} to {most}", words(column)));
        }
        number
    };
    let dropped = [number("dropped_front_mm", -150.0, 200.0), number("dropped_rear_mm", -150.0, 200.0)];
    let camber = [number("camber_front_deg", -12.0, 5.0), number("camber_rear_deg", -12.0, 5.0)];
    let year = number("year", 1900.0, 2200.0).map(|year| year as i32);
    let mut setup = |column: &'static str| match text(column)?.parse::<Setup>() {
        Ok(setup) => Some(setup),
        Err(error) => {
            fault(column, error.to_string());
            None
        }
    };
    let before = SetupPair { front: setup("before_front"), rear: setup("before_rear") };
    let setups = SetupPair { front: setup("front"), rear: setup("rear") };
    let mut rub = |column: &'static str| {
        let code = text(column)?.to_lowercase().replace(' ', "_");
        let rub = Rub::from_code(&code);
        if rub.is_none() {
            fault(column, format!("{code:?} is not none, at_lock, over_bumps or constant"));
        }
        rub
    };
    let rubs = [rub("rub_front"), rub("rub_rear")];
    let drive = text("drive").and_then(|code| {
        let drive = Drive::from_code(code);
        if drive.is_none() {
            fault("drive", format!("{code:?} is not fwd, rwd or awd"));
        }
        drive
    });
    if text("model").is_none() {
        fault("model", "is not stated".to_owned());
    }
    if text("front").is_none() && text("rear").is_none() {
        fault("front", "names no setup, and neither does rear".to_owned());
    }
    let axle = |end: &str, at: usize| ProvenAxle {
        suspension: words(&format!("suspension_{end}")),
        dropped_mm: dropped[at],
        fender: words(&format!("fender_{end}")),
        camber_deg: camber[at],
        rub: rubs[at],
    };
    let fit = ProvenFit {
        car: ProvenCar {
            model: words("model"),
            body: words("body"),
            generation: words("generation"),
            brakes: words("brakes"),
            drive,
        },
        front: axle("front", 0),
        rear: axle("rear", 1),
        before,
        setups,
        style: words("style"),
        uses: words("uses"),
        view: words("view"),
        shop: words("shop"),
        year,
    };
    if faults.is_empty() { Ok(fit) } else { Err(faults) }
}

/// A record as a row of every column.
pub fn row(record: &ProvenRecord) -> Vec<String> {
    COLUMNS.iter().map(|column| record.get(*column).cloned().unwrap_or_default()).collect()
}

/// Records as a table of every column.
pub fn table(records: &[ProvenRecord]) -> Table {
    Table {
        header: COLUMNS.iter().map(|column| (*column).to_owned()).collect(),
        rows: records.iter().map(row).collect(),
        ..Table::default()
    }
}

/// A table's rows as records, by its headings; columns of other names are left aside.
pub fn records(table: &Table) -> Vec<ProvenRecord> {
    let known: Vec<Option<&str>> = table
        .header
        .iter()
        .map(|heading| COLUMNS.into_iter().find(|column| heading.trim().eq_ignore_ascii_case(column)))
        .collect();
    table
        .rows
        .iter()
        .map(|row| {
            row.iter()
                .zip(&known)
                .filter_map(|(cell, column)| Some(((*column)?.to_owned(), cell.clone())))
                .filter(|(_, cell)| !cell.trim().is_empty())
                .collect()
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::table::Format;

    fn sample() -> ProvenRecord {
        [
            ("model", "Marn Dotterel 3.0"),
            ("drive", "rwd"),
            ("dropped_rear_mm", "15"),
            ("fender_rear", "lip rolled"),
            ("camber_rear_deg", "-1.5"),
            ("rear", "19x9.5 ET40 · 265/30R19 93Y XL"),
            ("rub_rear", "over_bumps"),
            ("view", "worth it, but; mind the \"lake road\""),
            ("year", "2025"),
        ]
        .map(|(column, text)| (column.to_owned(), text.to_owned()))
        .into()
    }

    #[test]
    fn a_fit_goes_through_every_format_and_back() {
        let fit_in = fit(&sample()).unwrap();
        assert_eq!(record(&fit_in), sample());
        for format in [Format::Csv, Format::Json] {
            let bytes = table(&[sample()]).write(format).unwrap();
            let back = records(&Table::read(&bytes).unwrap());
            assert_eq!(back, [sample()], "{format:?}");
        }
    }

    #[test]
    fn every_column_at_fault_is_named() {
        let mut bad = sample();
        bad.extend(
            [
                ("model", " "),
                ("rear", "19x9.5 banana"),
                ("rub_rear", "a bit"),
                ("year", "long ago"),
                ("drive", "4x4"),
            ]
            .map(|(column, text)| (column.to_owned(), text.to_owned())),
        );
        let mut columns: Vec<&str> = fit(&bad).unwrap_err().iter().map(|one| one.column).collect();
        columns.sort_unstable();
        assert_eq!(columns, ["drive", "model", "rear", "rub_rear", "year"]);
    }
}
