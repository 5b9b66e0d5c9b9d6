//! Tires out of records, and back.

use fitment::setup::catalogue::{TireKind, TireRow};
use fitment::setup::line;
use fitment::{Length, RimWidth, Tire};

use crate::field::Field;
use crate::record::{Record, RowError};
use crate::wheels::Keep;

/// A record as a tire. Size and service description may stand in one column or two.
///
/// # Errors
/// Every field at fault.
pub fn tire(record: &Record, id: u32) -> Result<TireRow, Vec<RowError>> {
    let mut errors = Vec::new();
    let mut keep = Keep(&mut errors);
    let tire = named(record, &mut keep);
    let kind = record
        .text(Field::TireKind)
        .and_then(|text| keep.some(kind(text), Field::TireKind, "is no kind of tire the house knows"));
    let mm = |keep: &mut Keep<'_>, field, least, most| {
        keep.of(record.number(field, least, most)).flatten().and_then(Length::from_mm)
    };
    let rim = |keep: &mut Keep<'_>, field| {
        keep.of(record.number(field, RimWidth::MIN, RimWidth::MAX))
            .flatten()
            .and_then(|code| keep.some(RimWidth::from_code(code), field, "is not a rim width"))
    };
    let section = mm(&mut keep, Field::Section, 100.0, 460.0);
    let tread_width = mm(&mut keep, Field::Tread, 60.0, 460.0);
    let overall_diameter = mm(&mut keep, Field::OverallDiameter, 300.0, 1400.0);
    let rims = (rim(&mut keep, Field::RimLeast), rim(&mut keep, Field::RimMost));
    let permitted = match rims {
        (Some(least), Some(most)) if least <= most => Some((least, most)),
        (Some(_), Some(_)) => {
            keep.0.push(RowError::of(Field::RimMost, "is narrower than the narrowest rim"));
            None
        }
        _ => None,
    };
    let measuring_rim = rim(&mut keep, Field::MeasuringRim);
    let mass_kg = keep.of(record.number(Field::Mass, 1.0, 100.0)).flatten();
    let void_pct = keep.of(record.number(Field::Void, 0.0, 90.0)).flatten();
    let treadwear = keep.of(record.number(Field::Treadwear, 0.0, 1000.0)).flatten().map(|grade| grade as u32);
    let price = keep.of(record.price()).flatten();
    let stock = keep.of(record.stock()).flatten();
    let is_directional = keep.of(record.flag(Field::Directional)).unwrap_or_default();
    let is_asymmetric = keep.of(record.flag(Field::Asymmetric)).unwrap_or_default();
    let has_rim_guard = keep.of(record.stated_flag(Field::RimGuard)).flatten();
    if tire.is_none() && errors.is_empty() {
        errors.push(RowError { field: None, why: "names no tire size, as in 225/45R17 94W".into() });
    }
    let text = |field| record.text(field).unwrap_or_default().into();
    match (tire, errors.is_empty()) {
        (Some(tire), true) => Ok(TireRow {
            id,
            line: text(Field::Line),
            tire,
            kind,
            section,
            tread_width,
            overall_diameter,
            permitted,
            measuring_rim,
            mass_kg,
            void_pct,
            treadwear,
            has_rim_guard,
            wet_grade: text(Field::WetGrade),
            temperature_grade: text(Field::TemperatureGrade),
            factory_mark: text(Field::FactoryMark),
            is_directional,
            is_asymmetric,
            price,
            stock,
        }),
        _ => Err(errors),
    }
}

/// The tire that size with service, or the whole notation, names.
fn named(record: &Record, keep: &mut Keep<'_>) -> Option<Tire> {
    if let Some(size) = record.text(Field::Size) {
        let whole = match record.text(Field::Service) {
            Some(service) => format!("{size} {service}"),
            None => size.to_owned(),
        };
        return match whole.parse::<Tire>() {
            Ok(tire) => Some(tire),
            Err(error) => {
                keep.0.push(RowError::of(Field::Size, error.to_string()));
                None
            }
        };
    }
    let text = record.text(Field::Notation)?;
    match line::read(text) {
        Ok(reading) => reading.setups.and_then(|pair| pair.front.or(pair.rear)).and_then(|setup| setup.tire),
        Err(error) => {
            keep.0.push(RowError::of(Field::Notation, error.to_string()));
            None
        }
    }
}

/// A kind as price lists write it.
fn kind(text: &str) -> Option<TireKind> {
    let plain: String = text
        .trim()
        .to_lowercase()
        .chars()
        .map(|letter| if letter == ' ' || letter == '-' { '_' } else { letter })
        .collect();
    TireKind::from_code(&plain).or(match plain.as_str() {
        "summer" | "touring" => Some(TireKind::SummerTouring),
        "uhp" | "performance" | "sport" => Some(TireKind::SummerPerformance),
        "all_weather" | "allseason" | "all_year" => Some(TireKind::AllSeason),
        "track" | "trackday" => Some(TireKind::TrackDay),
        "semi" | "semislick" => Some(TireKind::SemiSlick),
        "snow" => Some(TireKind::Winter),
        "at" | "a/t" | "off_road" | "offroad" => Some(TireKind::AllTerrain),
        _ => None,
    })
}

/// A tire as a record: every column by itself.
pub fn record(row: &TireRow) -> Record {
    let mut record = Record::default();
    record.put(Field::Line, Some(&row.line));
    record.put(Field::Size, Some(row.tire));
    record.put(Field::TireKind, row.kind.map(TireKind::code));
    record.put(Field::Section, row.section.map(Length::as_mm));
    record.put(Field::Tread, row.tread_width.map(Length::as_mm));
    record.put(Field::OverallDiameter, row.overall_diameter.map(Length::as_mm));
    record.put(Field::RimLeast, row.permitted.map(|rims| rims.0));
    record.put(Field::RimMost, row.permitted.map(|rims| rims.1));
    record.put(Field::MeasuringRim, row.measuring_rim);
    record.put(Field::Void, row.void_pct);
    record.put(Field::Treadwear, row.treadwear);
    record.put(Field::WetGrade, Some(&row.wet_grade));
    record.put(Field::TemperatureGrade, Some(&row.temperature_grade));
    record.put(Field::FactoryMark, Some(&row.factory_mark));
    record.put(Field::RimGuard, row.has_rim_guard.map(|has| if has { "yes" } else { "no" }));
    record.put(Field::Asymmetric, row.is_asymmetric.then_some("yes"));
    record.put(Field::Directional, row.is_directional.then_some("yes"));
    record.put(Field::Mass, row.mass_kg);
    record.put(Field::Price, row.price.map(|price| f64::from(price) / 100.0));
    record.put(Field::Stock, row.stock);
    record
}
