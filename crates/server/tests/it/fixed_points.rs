//! What scripts and other shops' programs are built on stays: no path, field or word of a code that was ever described goes
//! away. `fixed_points.txt` has a line for each; what is new may be added to it.

use std::collections::BTreeSet;

use serde_json::Value;

/// The fields and words of a schema, below a name.
fn walk(name: &str, schema: &Value, found: &mut BTreeSet<String>) {
    for word in schema["enum"].as_array().into_iter().flatten().chain(schema.get("const")) {
        let word = word.as_str().map_or_else(|| word.to_string(), str::to_owned);
        found.insert(format!("{name} = {word}"));
    }
    for (field, of) in schema["properties"].as_object().into_iter().flatten() {
        let name = format!("{name}.{field}");
        walk(&name, of, found);
        found.insert(name);
    }
    for choices in ["oneOf", "anyOf", "allOf"] {
        for one in schema[choices].as_array().into_iter().flatten() {
            walk(name, one, found);
        }
    }
    if schema["items"].is_object() {
        walk(name, &schema["items"], found);
    }
}

fn described() -> BTreeSet<String> {
    let description: Value = serde_json::from_str(&server::routes::openapi().to_json().unwrap()).unwrap();
    let mut found = BTreeSet::new();
    for (path, methods) in description["paths"].as_object().unwrap() {
        for (method, of) in methods.as_object().unwrap() {
            let method = method.to_uppercase();
            for parameter in of["parameters"].as_array().into_iter().flatten() {
                found.insert(format!("{method} {path} ?{}", parameter["name"].as_str().unwrap()));
            }
            found.insert(format!("{method} {path}"));
        }
    }
    for (name, schema) in description["components"]["schemas"].as_object().unwrap() {
        walk(name, schema, &mut found);
    }
    found
}

#[test]
fn what_was_described_once_is_still_there() {
    let described = described();
    let fixed = include_str!("../fixed_points.txt").lines();
    let gone: Vec<&str> = fixed.filter(|point| !described.contains(*point)).collect();
    assert!(gone.is_empty(), "gone: {}", gone.join("; "));
    assert!(described.len() > 1900, "{} points: is it read at all?", described.len());
}
