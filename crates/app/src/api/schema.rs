//! JSON Schemas of the open formats, taken from the description of the API.

use serde_json::{Map, Value, json};

/// The formats that have a schema: name and version, and the type behind it.
pub const FORMATS: [(&str, &str); 13] = [
    (zymarch_formats::recipe::FORMAT, "Recipe"),
    (zymarch_formats::mix::FORMAT, "MixAnswer"),
    (zymarch_formats::working::FORMAT, "Workings"),
    (zymarch_formats::field_test::FORMAT, "Readings"),
    (zymarch_formats::formulate::FORMAT, "FormulateRequest"),
    (zymarch_formats::confidence::FORMAT, "ConfidenceAnswer"),
    (zymarch_formats::thumb::FORMAT, "ThumbRule"),
    (zymarch_formats::correct::FORMAT, "CorrectRequest"),
    (zymarch_formats::say::FORMAT, "SayRequest"),
    (zymarch_formats::heat::FORMAT, "HeatRequest"),
    (zymarch_formats::hygiene::FORMAT, "HygieneRequest"),
    (zymarch_formats::diagnose::FORMAT, "DiagnoseRequest"),
    (zymarch_formats::apply::FORMAT, "ApplyRequest"),
];

/// The JSON Schema (2020-12) of a format, with all it points to inside it.
///
/// None for a format that has none.
#[must_use]
pub fn of(format: &str) -> Option<Value> {
    let (_, name) = FORMATS.into_iter().find(|(known, _)| *known == format)?;
    let description = serde_json::to_value(super::description()).ok()?;
    let schemas = description["components"]["schemas"].as_object()?;
    let mut wanted = vec![name.to_owned()];
    let mut inside = Map::new();
    while let Some(name) = wanted.pop() {
        if !inside.contains_key(&name) {
            let mut schema = schemas.get(&name)?.clone();
            point_inside(&mut schema, &mut wanted);
            inside.insert(name, schema);
        }
    }
    Some(json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": format,
        "$ref": format!("#/$defs/{name}"),
        "$defs": inside,
    }))
}

/// Turns references into ones inside the document, and notes what they name.
fn point_inside(schema: &mut Value, found: &mut Vec<String>) {
    match schema {
        Value::Object(fields) => {
            if let Some(Value::String(reference)) = fields.get_mut("$ref")
                && let Some(name) = reference.strip_prefix("#/components/schemas/").map(str::to_owned)
            {
                *reference = format!("#/$defs/{name}");
                found.push(name);
            }
            fields.values_mut().for_each(|value| point_inside(value, found));
        }
        Value::Array(values) => values.iter_mut().for_each(|value| point_inside(value, found)),
        _ => {}
    }
}
