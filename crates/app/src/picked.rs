//! The rows that a job picked from the price lists.

use exchange::field::{Field, Kind};
use exchange::{Record, tires, wheels};
use fitment::SetupPair;
use fitment::setup::Axle;
use fitment::setup::catalogue::PickedParts;
use store::catalogue::Fields;
use store::picked::{Picked, PickedRow};

/// A kept row as a record.
pub fn record_of(fields: &Fields) -> Record {
    Record(fields.iter().filter_map(|(code, text)| Some((Field::from_code(code)?, text.clone()))).collect())
}

/// A record as it is kept.
pub fn fields_of(record: &Record) -> Fields {
    record.0.iter().map(|(field, text)| (field.code().to_owned(), text.clone())).collect()
}

/// The picked rows as the core wants them, and a name for each that can no longer be read.
pub fn parts_of(picked: &Picked) -> (PickedParts, Vec<String>) {
    let mut parts = PickedParts::default();
    let mut unreadable = Vec::new();
    for row in &picked.rows {
        let record = record_of(&row.record);
        let is_read = match Kind::from_code(&row.kind) {
            Some(Kind::Wheels) => {
                wheels::wheel(&record, row.row as u32).map(|wheel| parts.wheels.push(wheel)).is_ok()
            }
            Some(Kind::Tires) => {
                tires::tire(&record, row.row as u32).map(|tire| parts.tires.push(tire)).is_ok()
            }
            _ => false,
        };
        if !is_read {
            unreadable.push(name_of(row));
        }
    }
    (parts, unreadable)
}

/// The picked rows that a pair is made of: for each axle the first wheel and the first tire of its size.
pub fn rows_of(picked: &Picked, setups: &SetupPair) -> Vec<PickedRow> {
    let mut rows: Vec<PickedRow> = Vec::new();
    for axle in Axle::BOTH {
        let Some(setup) = setups.on(axle) else { continue };
        for kind in [Kind::Wheels, Kind::Tires] {
            let is_of = |row: &&PickedRow| {
                let one = Picked { rows: vec![(*row).clone()], ..Picked::default() };
                let (parts, _) = parts_of(&one);
                row.kind == kind.code() && (parts.wheel_of(setup).is_some() || parts.tire_of(setup).is_some())
            };
            if let Some(row) = picked.rows.iter().find(is_of)
                && rows.iter().all(|one| (&one.kind, one.row) != (&row.kind, row.row))
            {
                rows.push(row.clone());
            }
        }
    }
    rows
}

/// What a pair costs by the rows that were picked for it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct SetPrice {
    /// Of what has a price, in hundredths of the shop's money.
    pub hundredths: u64,
    /// Whether every wheel and every tire of both axles has one.
    pub is_whole: bool,
}

/// Two wheels and two tires an axle; `None` while no row of it was picked.
pub fn price_of(parts: &PickedParts, setups: &SetupPair) -> Option<SetPrice> {
    const OF_AN_AXLE: u64 = 2;
    let (mut hundredths, mut is_whole, mut is_picked) = (0, true, false);
    for axle in Axle::BOTH {
        let setup = setups.on(axle);
        let wheel = setup.and_then(|setup| parts.wheel_of(setup));
        let tire = setup.and_then(|setup| parts.tire_of(setup));
        is_picked |= wheel.is_some() || tire.is_some();
        for price in [wheel.and_then(|row| row.price), tire.and_then(|row| row.price)] {
            is_whole &= price.is_some();
            hundredths += u64::from(price.unwrap_or_default()) * OF_AN_AXLE;
        }
    }
    is_picked.then_some(SetPrice { hundredths, is_whole })
}

fn name_of(row: &PickedRow) -> String {
    let says: Vec<&str> = row.record.values().take(3).map(String::as_str).collect();
    format!("the picked row {} ({})", row.row, says.join(" "))
}
