//! The tread log as a table, a reading a row, and back.

use exchange::table::Table;

use super::road::DepthsRequest;
use super::road_sheet::RoadSheet;
use super::seasons::TireLog;
use crate::problem::ApiError;
use crate::wire::read::FieldErrors;

const COLUMNS: [&str; 19] = [
    "tire",
    "position",
    "date_code",
    "is_directional",
    "is_asymmetric",
    "price",
    "at",
    "runs",
    "distance_km",
    "inner_mm",
    "middle_mm",
    "outer_mm",
    "stood_at",
    "turned_over",
    "cold_kpa",
    "hot_kpa",
    "inner_c",
    "middle_c",
    "outer_c",
];

/// A row for each reading; a tire without any has one row with its depths left empty.
pub fn table(tires: &[TireLog]) -> Table {
    let number = |value: Option<f64>| value.map(|value| value.to_string()).unwrap_or_default();
    let mark = |is_so: bool| if is_so { "yes" } else { "no" }.to_owned();
    let mut rows = Vec::new();
    for tire in tires {
        let start = [
            tire.name.clone(),
            tire.position.clone(),
            tire.date_code.clone(),
            mark(tire.is_directional),
            mark(tire.is_asymmetric),
            number(tire.price),
        ];
        if tire.readings.is_empty() {
            rows.push(start.to_vec());
        }
        for reading in &tire.readings {
            let depths = [reading.inner_mm, reading.middle_mm, reading.outer_mm].map(|mm| mm.to_string());
            let driven = [number(reading.runs), number(reading.distance_km)];
            let stood_at = reading.stood_at.clone().unwrap_or_default();
            let beside =
                [reading.cold_kpa, reading.hot_kpa, reading.inner_c, reading.middle_c, reading.outer_c]
                    .map(number);
            let row = start.iter().cloned().chain([reading.at.clone()]).chain(driven).chain(depths);
            let row = row.chain([stood_at, mark(reading.turned_over)]).chain(beside);
            rows.push(row.collect());
        }
    }
    Table { header: COLUMNS.map(str::to_owned).to_vec(), rows, ..Table::default() }
}

/// Tires of a table: rows of one name and position are one tire's, in the order they stand. Nothing is taken of a table
/// with a fault.
///
/// # Errors
/// Columns that are missing, every cell at fault with its line, and what the sheet itself refuses.
pub fn tires(table: &Table) -> Result<Vec<TireLog>, ApiError> {
    let mut errors = FieldErrors::default();
    let place = |column: &str| table.header.iter().position(|head| head.trim() == column);
    for column in ["tire", "position", "inner_mm", "middle_mm", "outer_mm"] {
        if place(column).is_none() {
            errors.fault(column, format!("the file has no column {column}"));
        }
    }
    errors.finish(())?;
    let mut errors = FieldErrors::default();
    let mut tires: Vec<TireLog> = Vec::new();
    for (at, row) in table.rows.iter().enumerate() {
        let line = table.header_row.max(1) + at + 1;
        let text = |column: &str| place(column).and_then(|at| row.get(at)).map_or("", |cell| cell.trim());
        let mut number = |column: &str| {
            let cell = text(column);
            let read = cell.replace(',', ".").parse::<f64>().ok().filter(|number| number.is_finite());
            if read.is_none() && !cell.is_empty() {
                errors.fault(column, format!("line {line}: {column} is not a number: {cell:?}"));
            }
            read
        };
        let price = number("price");
        let (runs, distance_km) = (number("runs"), number("distance_km"));
        let depths = ["inner_mm", "middle_mm", "outer_mm"].map(&mut number);
        let [cold_kpa, hot_kpa, inner_c, middle_c, outer_c] =
            ["cold_kpa", "hot_kpa", "inner_c", "middle_c", "outer_c"].map(&mut number);
        let (name, position) = (text("tire").to_owned(), text("position").to_lowercase());
        let mark = |column: &str| matches!(text(column).to_lowercase().as_str(), "yes" | "true" | "1" | "x");
        let known = tires.iter().position(|tire| tire.name == name && tire.position == position);
        let known = known.unwrap_or_else(|| {
            tires.push(TireLog {
                id: format!("{position} {name}").chars().take(80).collect(),
                name,
                position,
                date_code: text("date_code").to_owned(),
                is_directional: mark("is_directional"),
                is_asymmetric: mark("is_asymmetric"),
                turned_over: mark("turned_over"),
                price,
                readings: Vec::new(),
            });
            tires.len() - 1
        });
        match depths {
            [None, None, None] if runs.is_none() && distance_km.is_none() => {}
            [Some(inner_mm), Some(middle_mm), Some(outer_mm)] => {
                // As it was read last, so it stands.
                tires[known].turned_over = mark("turned_over");
                tires[known].readings.push(DepthsRequest {
                    at: text("at").to_owned(),
                    distance_km,
                    runs,
                    inner_mm,
                    middle_mm,
                    outer_mm,
                    stood_at: Some(text("stood_at").to_lowercase()).filter(|place| !place.is_empty()),
                    turned_over: mark("turned_over"),
                    cold_kpa,
                    hot_kpa,
                    inner_c,
                    middle_c,
                    outer_c,
                });
            }
            _ => errors.fault("inner_mm", format!("line {line}: a reading has three depths")),
        }
    }
    errors.finish(())?;
    let sheet = RoadSheet { tires, ..RoadSheet::default() };
    sheet.checked()?;
    Ok(sheet.tires)
}
