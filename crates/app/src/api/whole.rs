//! What a record is, when it is made of the fields that a person writes and of more.
//!
//! In a request nothing beside those fields may stand, and their schema says so. In an answer
//! the rest stands beside them; so there the two are one object, and not two of which each
//! refuses the other.

use serde_json::{Map, Value};
use utoipa::openapi::OpenApi;

const SCHEMAS: &str = "/components/schemas";

/// The same description, in which every schema can be met.
pub(super) fn made_whole(description: OpenApi) -> OpenApi {
    let Ok(mut all) = serde_json::to_value(&description) else { return description };
    let Some(schemas) = all.pointer(SCHEMAS).and_then(Value::as_object).cloned() else { return description };
    if let Some(now) = all.pointer_mut(SCHEMAS).and_then(Value::as_object_mut) {
        for schema in now.values_mut() {
            if let Some(one) = one_object(schema, &schemas) {
                *schema = one;
            }
        }
    }
    serde_json::from_value(all).unwrap_or(description)
}

/// The parts of a schema as one object, if one of them lets nothing stand beside it.
fn one_object(schema: &Value, schemas: &Map<String, Value>) -> Option<Value> {
    let parts: Vec<&Value> =
        schema.get("allOf")?.as_array()?.iter().map(|part| resolved(part, schemas)).collect();
    let is_closed = |part: &&Value| part.get("additionalProperties") == Some(&Value::Bool(false));
    if !parts.iter().any(is_closed) {
        return None;
    }
    let (mut properties, mut required) = (Map::new(), Vec::new());
    for part in parts {
        properties.extend(part.get("properties")?.as_object()?.clone());
        required.extend(part.get("required").and_then(Value::as_array).cloned().unwrap_or_default());
    }
    let mut one = Map::new();
    one.insert("type".into(), "object".into());
    for kept in ["description", "title"] {
        if let Some(value) = schema.get(kept) {
            one.insert(kept.into(), value.clone());
        }
    }
    one.insert("required".into(), required.into());
    one.insert("properties".into(), properties.into());
    Some(one.into())
}

fn resolved<'a>(part: &'a Value, schemas: &'a Map<String, Value>) -> &'a Value {
    let name = part.get("$ref").and_then(Value::as_str).and_then(|name| name.rsplit('/').next());
    name.and_then(|name| schemas.get(name)).unwrap_or(part)
}
