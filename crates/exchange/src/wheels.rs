//! Wheels out of records, and back.

use fitment::setup::catalogue::{WheelMake, WheelRow};
use fitment::setup::line;
use fitment::values::fastener::Seat;
use fitment::{BoltCircle, CenterBore, Length, Offset, RimDiameter, RimWidth, Wheel};

use crate::field::Field;
use crate::record::{Record, RowError};

/// A record as a wheel. Single columns outrank what the size or the whole notation says.
///
/// # Errors
/// Every field at fault.
pub fn wheel(record: &Record, id: u32) -> Result<WheelRow, Vec<RowError>> {
    let mut errors = Vec::new();
    let mut keep = Keep(&mut errors);
    let named = named(record, &mut keep);
    let code = |keep: &mut Keep<'_>, field, least, most| keep.of(record.number(field, least, most)).flatten();
    let diameter = code(&mut keep, Field::Diameter, RimDiameter::MIN, RimDiameter::MAX)
        .and_then(|code| keep.some(RimDiameter::from_code(code), Field::Diameter, "is not a rim code"))
        .or(named.map(|wheel| wheel.diameter));
    let width = code(&mut keep, Field::Width, RimWidth::MIN, RimWidth::MAX)
        .and_then(|code| keep.some(RimWidth::from_code(code), Field::Width, "is not a rim width"))
        .or(named.map(|wheel| wheel.width));
    let offset = code(&mut keep, Field::Offset, -Offset::LIMIT_MM, Offset::LIMIT_MM)
        .and_then(Offset::from_mm)
        .or(named.and_then(|wheel| wheel.offset));
    let bore = code(&mut keep, Field::Bore, CenterBore::MIN_MM, CenterBore::MAX_MM)
        .and_then(CenterBore::from_mm)
        .or(named.and_then(|wheel| wheel.center_bore));
    let mut circles = circles(record, &mut keep);
    if circles.is_empty() {
        circles.extend(named.iter().flat_map(|wheel| wheel.circles()));
    }
    let seat = record
        .text(Field::Seat)
        .and_then(|text| keep.some(Seat::read(text), Field::Seat, "is not a seat: cone 60°, ball R13, flat"));
    let make = record.text(Field::Make).and_then(|text| {
        let plain = text.to_lowercase().replace([' ', '-'], "_");
        let alias = if plain.contains("flow") { "flow_formed" } else { plain.as_str() };
        keep.some(WheelMake::from_code(alias), Field::Make, "is not cast, flow-formed, forged or steel")
    });
    let load_kg = keep.of(record.number(Field::WheelLoad, 100.0, 3000.0)).flatten();
    let mass_kg = keep.of(record.number(Field::Mass, 1.0, 100.0)).flatten();
    let overall_width =
        keep.of(record.number(Field::OverallWidth, 50.0, 600.0)).flatten().and_then(Length::from_mm);
    let price = keep.of(record.price()).flatten();
    let stock = keep.of(record.stock()).flatten();
    let is_directional = keep.of(record.flag(Field::Directional)).unwrap_or_default();
    // What is missing is said only where nothing was said against it.
    let is_said = |errors: &[RowError], fields: &[Field]| {
        errors.iter().any(|error| error.field.is_some_and(|field| fields.contains(&field)))
    };
    let sizes = [Field::Size, Field::Notation, Field::Diameter, Field::Width];
    if (diameter.is_none() || width.is_none()) && !is_said(keep.0, &sizes) {
        keep.0.push(RowError { field: None, why: "names no wheel size, as in 18x8.5".into() });
    }
    if offset.is_none() && !is_said(keep.0, &sizes) && !is_said(keep.0, &[Field::Offset]) {
        keep.0.push(RowError::of(Field::Offset, "is not stated: without it nothing can be placed"));
    }
    match (diameter, width, errors.is_empty()) {
        (Some(diameter), Some(width), true) => Ok(WheelRow {
            id,
            line: record.text(Field::Line).unwrap_or_default().into(),
            finish: record.text(Field::Finish).unwrap_or_default().into(),
            wheel: Wheel {
                diameter,
                width,
                offset,
                bolt_circle: circles.first().copied(),
                second_circle: circles.get(1).copied(),
                center_bore: bore,
                center_lock: named.is_some_and(|wheel| wheel.center_lock),
            },
            more_circles: circles.into_iter().skip(2).collect(),
            seat,
            load_kg,
            mass_kg,
            make,
            is_directional,
            overall_width,
            price,
            stock,
        }),
        _ => Err(errors),
    }
}

/// Collects what is wrong while the rest of the row is read on.
pub(crate) struct Keep<'e>(pub(crate) &'e mut Vec<RowError>);

impl Keep<'_> {
    pub(crate) fn of<T>(&mut self, result: Result<T, RowError>) -> Option<T> {
        result.map_err(|error| self.0.push(error)).ok()
    }

    pub(crate) fn some<T>(&mut self, value: Option<T>, field: Field, why: &str) -> Option<T> {
        if value.is_none() {
            self.0.push(RowError::of(field, why));
        }
        value
    }
}

/// The wheel that size or notation names.
fn named(record: &Record, keep: &mut Keep<'_>) -> Option<Wheel> {
    if let Some(text) = record.text(Field::Size) {
        return match text.parse::<Wheel>() {
            Ok(wheel) => Some(wheel),
            Err(error) => {
                keep.0.push(RowError::of(Field::Size, error.to_string()));
                None
            }
        };
    }
    let text = record.text(Field::Notation)?;
    match line::read(text) {
        // A messy cell names a setup somewhere among other words.
        Ok(reading) => reading.setups.and_then(|pair| pair.front.or(pair.rear)).and_then(|setup| setup.wheel),
        Err(error) => {
            keep.0.push(RowError::of(Field::Notation, error.to_string()));
            None
        }
    }
}

fn circles(record: &Record, keep: &mut Keep<'_>) -> Vec<BoltCircle> {
    let Some(text) = record.text(Field::BoltCircle) else { return Vec::new() };
    let pieces: Vec<&str> = if text.matches(['x', 'X', '×']).count() > 1 {
        text.split([',', ';', '+', ' ']).map(str::trim).filter(|piece| !piece.is_empty()).take(8).collect()
    } else {
        vec![text]
    };
    pieces
        .into_iter()
        .filter_map(|piece| {
            keep.some(line::read_bolt_circles(piece).ok(), Field::BoltCircle, "is not written as 5x112")
        })
        .flatten()
        .collect()
}

/// A wheel as a record.
pub fn record(row: &WheelRow) -> Record {
    let mut record = Record::default();
    let circles: Vec<String> = row.circles().map(|circle| circle.to_string()).collect();
    record.put(Field::Line, Some(&row.line));
    // As it is spoken, so that it is found by it; bolt circles and bore have columns of their own.
    record.put(Field::Size, Some(row.wheel.placed()));
    record.put(Field::BoltCircle, Some(circles.join("; ")));
    record.put(Field::Bore, row.wheel.center_bore.map(|bore| bore.diameter().as_mm()));
    record.put(Field::Seat, row.seat.map(Seat::code));
    record.put(Field::WheelLoad, row.load_kg);
    record.put(Field::Make, row.make.map(WheelMake::code));
    record.put(Field::Finish, Some(&row.finish));
    record.put(Field::OverallWidth, row.overall_width.map(Length::as_mm));
    record.put(Field::Directional, row.is_directional.then_some("yes"));
    record.put(Field::Mass, row.mass_kg);
    record.put(Field::Price, row.price.map(|price| f64::from(price) / 100.0));
    record.put(Field::Stock, row.stock);
    record
}
