//! What a record is, when it is made of the fields that a person writes and of more.
//!
//! In a request nothing beside those fields may stand, and their schema says so. In an answer
//! the rest stands beside them; so there the two are one object, and not two of which each
//! refuses the other.

use std::collections::BTreeMap;

use utoipa::openapi::schema::{AdditionalProperties, AllOf, Object};
use utoipa::openapi::{OpenApi, RefOr, Schema};

/// The same description, in which every schema can be met.
pub(super) fn made_whole(mut description: OpenApi) -> OpenApi {
    if let Some(components) = &mut description.components {
        let schemas = components.schemas.clone();
        for schema in components.schemas.values_mut() {
            if let RefOr::T(Schema::AllOf(parts)) = schema
                && let Some(one) = one_object(parts, &schemas)
            {
                *schema = RefOr::T(Schema::Object(one));
            }
        }
    }
    description
}

/// The parts of a schema as one object, if one of them lets nothing stand beside it.
fn one_object(whole: &AllOf, schemas: &BTreeMap<String, RefOr<Schema>>) -> Option<Object> {
    let parts: Option<Vec<&Object>> = whole.items.iter().map(|part| object(part, schemas)).collect();
    let parts = parts.filter(|parts| parts.iter().any(|part| is_closed(part)))?;
    let mut one = Object::new();
    one.title.clone_from(&whole.title);
    one.description.clone_from(&whole.description);
    for part in parts {
        one.properties.extend(part.properties.clone());
        one.required.extend(part.required.iter().cloned());
    }
    Some(one)
}

fn is_closed(part: &Object) -> bool {
    matches!(part.additional_properties.as_deref(), Some(AdditionalProperties::FreeForm(false)))
}

/// An object with fields, named or written out.
fn object<'a>(part: &'a RefOr<Schema>, schemas: &'a BTreeMap<String, RefOr<Schema>>) -> Option<&'a Object> {
    let part = match part {
        RefOr::Ref(named) => schemas.get(named.ref_location.rsplit('/').next()?)?,
        RefOr::T(_) => part,
    };
    match part {
        RefOr::T(Schema::Object(object)) if !object.properties.is_empty() => Some(object),
        _ => None,
    }
}
