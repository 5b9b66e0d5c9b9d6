//! A record's plain fields as the columns of a row, by the same names: a new field is a field and a column, no more.

use rusqlite::types::{Value as Sql, ValueRef};
use rusqlite::{Connection, Row};
use serde::Serialize;
use serde_json::{Map, Number, Value};

use crate::StoreError;

/// A record's JSON text.
///
/// # Errors
/// When it cannot be written as JSON: nothing is then kept in its place.
pub(crate) fn json_of<T: Serialize>(record: &T) -> Result<String, StoreError> {
    serde_json::to_string(record).map_err(unwritable)
}

fn unwritable(error: serde_json::Error) -> StoreError {
    rusqlite::Error::ToSqlConversionFailure(Box::new(error)).into()
}

/// A record's texts, numbers and flags by name. What is made of parts has tables of its own and is left out.
pub(crate) fn fields_of<T: Serialize>(record: &T) -> Result<Vec<(String, Sql)>, StoreError> {
    let Value::Object(fields) = serde_json::to_value(record).map_err(unwritable)? else {
        return Ok(Vec::new());
    };
    let sql = |value| match value {
        Value::Null => Some(Sql::Null),
        Value::Bool(flag) => Some(Sql::Integer(i64::from(flag))),
        Value::String(text) => Some(Sql::Text(text)),
        Value::Number(number) => number.as_i64().map(Sql::Integer).or_else(|| number.as_f64().map(Sql::Real)),
        Value::Array(_) | Value::Object(_) => None,
    };
    Ok(fields.into_iter().filter_map(|(name, value)| Some((name, sql(value)?))).collect())
}

/// Inserts a row.
pub(crate) fn insert(
    connection: &Connection,
    table: &str,
    fields: &[(String, Sql)],
) -> Result<(), StoreError> {
    let names: Vec<&str> = fields.iter().map(|(name, _)| name.as_str()).collect();
    let places = vec!["?"; fields.len()].join(", ");
    connection
        .prepare_cached(&format!("INSERT INTO {table} ({}) VALUES ({places})", names.join(", ")))?
        .execute(rusqlite::params_from_iter(fields.iter().map(|(_, value)| value)))?;
    Ok(())
}

/// Changes a row by its id.
pub(crate) fn update(
    connection: &Connection,
    table: &str,
    id: i64,
    fields: &[(String, Sql)],
) -> Result<(), StoreError> {
    let set: Vec<String> = fields.iter().map(|(name, _)| format!("{name} = ?")).collect();
    let mut values: Vec<&Sql> = fields.iter().map(|(_, value)| value).collect();
    let id = Sql::Integer(id);
    values.push(&id);
    connection
        .prepare_cached(&format!("UPDATE {table} SET {} WHERE id = ?", set.join(", ")))?
        .execute(rusqlite::params_from_iter(values))?;
    Ok(())
}

/// A row's columns as a record's fields; `flags` are those that a row holds as 0 or 1.
pub(crate) fn record_of(row: &Row<'_>, flags: &[&str]) -> rusqlite::Result<Map<String, Value>> {
    let mut record = Map::new();
    for (at, name) in row.as_ref().column_names().into_iter().enumerate() {
        let value = match row.get_ref(at)? {
            ValueRef::Null => Value::Null,
            ValueRef::Integer(number @ (0 | 1)) if flags.contains(&name) => Value::Bool(number == 1),
            ValueRef::Integer(number) => Value::Number(number.into()),
            ValueRef::Real(number) => Number::from_f64(number).map_or(Value::Null, Value::Number),
            ValueRef::Text(text) => Value::String(String::from_utf8_lossy(text).into_owned()),
            // No column of ours holds bytes beside pictures and lists, which are not read this way.
            ValueRef::Blob(_) => Value::Null,
        };
        record.insert(name.to_owned(), value);
    }
    Ok(record)
}
