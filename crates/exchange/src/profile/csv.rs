//! Profiles as points in rows: `y,r`.

use super::budget::{Budget, near};
use super::{Contour, Layers, Sheet, SheetError, Unit};
use crate::table::{guarded, unguarded};

fn broken(why: impl Into<String>) -> SheetError {
    SheetError::Broken { format: "CSV", why: why.into() }
}

/// Reads rows of y and r; a heading may name the unit (`y_mm`, `r_in`). A third column names the layer.
pub(super) fn read(text: &str) -> Result<Sheet, SheetError> {
    let first = text.lines().next().unwrap_or_default();
    let delimiter = [b';', b'\t', b','].into_iter().find(|sign| first.contains(char::from(*sign)));
    let delimiter = delimiter.ok_or(SheetError::UnknownFormat)?;
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(delimiter)
        .has_headers(false)
        .flexible(true)
        .from_reader(text.as_bytes());
    let mut unit = None;
    let mut layers = Layers::default();
    let mut budget = Budget::new();
    for (at, row) in reader.records().enumerate() {
        let row = row.map_err(|error| broken(error.to_string()))?;
        let cell = |column: usize| row.get(column).unwrap_or_default().trim();
        // Where the delimiter is no comma, a comma may stand for the point.
        let number = |column: usize| {
            let text =
                if delimiter == b',' { cell(column).to_owned() } else { cell(column).replace(',', ".") };
            text.replace('−', "-").parse::<f64>().ok().filter(|number| number.is_finite())
        };
        if row.iter().all(|cell| cell.trim().is_empty()) {
            continue;
        }
        match (number(0), number(1)) {
            (Some(y), Some(r)) => {
                near(&[y, r])?;
                budget.take(1)?;
                let name = if cell(2).is_empty() { "profile".to_owned() } else { unguarded(cell(2)) };
                let layer = layers.of(&name)?;
                match layer.contours.first_mut() {
                    Some(contour) => contour.points.push((y, r)),
                    None => layer.contours.push(Contour { points: vec![(y, r)], is_closed: false }),
                }
            }
            (None, _) if at == 0 => {
                let heading = cell(0).to_lowercase();
                unit = [Unit::Millimetres, Unit::Centimetres, Unit::Inches].into_iter().find(|unit| {
                    heading.ends_with(&format!("_{}", unit.code()))
                        || heading.ends_with(&format!("({})", unit.code()))
                });
            }
            _ => {
                return Err(broken(format!(
                    "row {}: {:?} and {:?} are not two numbers",
                    at + 1,
                    cell(0),
                    cell(1)
                )));
            }
        }
    }
    let mut layers = layers.all;
    layers.retain(|layer| layer.contours[0].points.len() > 1);
    Ok(Sheet { layers, unit, notes: Vec::new() })
}

/// Writes `y_mm,r_mm,part`.
pub(super) fn write(profiles: &[(String, &[(f64, f64)])]) -> Result<Vec<u8>, SheetError> {
    let failed = |error: csv::Error| broken(error.to_string());
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(["y_mm", "r_mm", "part"]).map_err(failed)?;
    for (name, points) in profiles {
        let name = guarded(name.trim());
        for (y, r) in *points {
            writer.write_record([y.to_string().as_str(), &r.to_string(), &name]).map_err(failed)?;
        }
    }
    writer.into_inner().map_err(|error| broken(error.to_string()))
}
