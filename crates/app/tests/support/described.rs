//! The API as its description has it, and values that it asks for.

use std::sync::LazyLock;

use serde_json::{Map, Value, json};

/// The API.
pub struct Api {
    pub schemas: Value,
    pub operations: Vec<Operation>,
}

/// Something that can be asked.
#[derive(Debug, Clone)]
pub struct Operation {
    pub id: String,
    pub method: String,
    pub path: String,
    /// The schema of what it takes, if it takes anything.
    pub body: Option<Value>,
}

/// Described once: that takes a while.
pub fn api() -> &'static Api {
    static API: LazyLock<Api> = LazyLock::new(described);
    &API
}

fn described() -> Api {
    let description = serde_json::to_value(zymarch::api::description()).expect("is JSON");
    let mut operations = Vec::new();
    for (path, methods) in description["paths"].as_object().expect("paths") {
        for (method, operation) in methods.as_object().expect("methods") {
            let body = &operation["requestBody"]["content"]["application/json"]["schema"];
            operations.push(Operation {
                id: operation["operationId"].as_str().unwrap_or_default().to_owned(),
                method: method.to_uppercase(),
                path: path.clone(),
                body: (!body.is_null()).then(|| body.clone()),
            });
        }
    }
    Api { schemas: description["components"]["schemas"].clone(), operations }
}

impl Api {
    /// A value that a schema asks for, plain and small.
    pub fn example(&self, schema: &Value, depth: u32) -> Value {
        if let Some(name) = schema["$ref"].as_str() {
            let name = name.rsplit('/').next().unwrap_or_default();
            return self.example(&self.schemas[name], depth + 1);
        }
        for choice in ["oneOf", "anyOf", "allOf"] {
            if let Some(list) = schema[choice].as_array() {
                if choice == "allOf" {
                    let mut all = Map::new();
                    for part in list {
                        all.extend(self.example(part, depth + 1).as_object().cloned().unwrap_or_default());
                    }
                    return Value::Object(all);
                }
                let first = list.iter().find(|one| one["type"] != "null").unwrap_or(&Value::Null);
                return self.example(first, depth + 1);
            }
        }
        if let Some(word) = schema["enum"].as_array().and_then(|words| words.first()) {
            return word.clone();
        }
        if let Some(given) = schema.get("example") {
            return given.clone();
        }
        let kind = schema["type"].as_str().or_else(|| schema["type"][0].as_str()).unwrap_or("object");
        match kind {
            "integer" => json!(1),
            "number" => json!(1.0),
            "boolean" => json!(false),
            "string" if schema["format"] == "uuid" => json!("019ff000-0000-7000-8000-000000000000"),
            "string" if schema["format"] == "date-time" => json!("2026-03-14T07:00:00Z"),
            "string" if schema["format"] == "date" => json!("2026-03-14"),
            "string" => json!("word"),
            "array" if depth < 6 => {
                let count = schema["minItems"].as_u64().unwrap_or(1).max(1) as usize;
                vec![self.example(&schema["items"], depth + 1); count].into()
            }
            "array" => json!([]),
            _ => {
                let fields = schema["properties"].as_object().cloned().unwrap_or_default();
                Value::Object(
                    fields.iter().map(|(name, of)| (name.clone(), self.example(of, depth + 1))).collect(),
                )
            }
        }
    }
}
