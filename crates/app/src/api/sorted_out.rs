//! What was sorted out and not used.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::quantity;
use zymarch_formats::field::Refusal;
use zymarch_store::id::{SiteId, SortedOutId};
use zymarch_store::site;
use zymarch_store::sorted_out::{self, NewSortedOut};

use super::convert;
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// A record of something sorted out.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct SortedOut {
    id: i64,
    #[serde(flatten)]
    fields: SortedOutFields,
}

/// What was sorted out.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct SortedOutFields {
    /// Id of the material.
    material: String,
    /// The person's own name for it.
    label: Option<String>,
    /// How much, kg, if it was weighed.
    kg: Option<f64>,
    /// Where it went, in the person's words.
    went_to: Option<String>,
    /// The day, as 2026-03-14.
    made_on: String,
}

impl From<sorted_out::SortedOut> for SortedOut {
    fn from(record: sorted_out::SortedOut) -> Self {
        let NewSortedOut { material, label, kg, went_to, made_on } = record.fields;
        Self { id: record.id.0, fields: SortedOutFields { material, label, kg, went_to, made_on } }
    }
}

fn checked(fields: SortedOutFields, state: &App) -> Result<NewSortedOut, Refusal> {
    if state.catalogue().find(&fields.material).is_none() {
        return Err(Refusal::one("material", "is not a material known here"));
    }
    if let Some(kg) = fields.kg {
        quantity::amount(kg).map_err(|error| Refusal::one("kg", error.to_string()))?;
    }
    Ok(NewSortedOut {
        label: convert::label("label", fields.label.as_deref())?,
        went_to: convert::label("went_to", fields.went_to.as_deref())?,
        made_on: convert::day("made_on", &fields.made_on, state.clock.today())?,
        kg: fields.kg,
        material: fields.material,
    })
}

/// What was sorted out at a site, newest first
#[utoipa::path(get, operation_id = "sorted_out_list", tag = "sorted-out", path = "/api/sites/{site}/sorted-out", params(("site" = i64, Path)), responses(
    (status = 200, body = Vec<SortedOut>),
    Refusals,
))]
pub(super) async fn list(
    State(state): State<App>,
    Path(site): Path<i64>,
) -> Result<Json<Vec<SortedOut>>, ApiError> {
    let records = state
        .store
        .read(move |conn| {
            site::get(conn, SiteId(site))?;
            sorted_out::of_site(conn, SiteId(site))
        })
        .await?;
    Ok(Json(records.into_iter().map(SortedOut::from).collect()))
}

/// Record that something was sorted out and not used
#[utoipa::path(post, operation_id = "sorted_out_create", tag = "sorted-out", path = "/api/sites/{site}/sorted-out", params(("site" = i64, Path)), request_body = SortedOutFields, responses(
    (status = 201, body = SortedOut),
    Refusals,
))]
pub(super) async fn create(
    State(state): State<App>,
    Path(site): Path<i64>,
    Body(body): Body<SortedOutFields>,
) -> Result<(StatusCode, Json<SortedOut>), ApiError> {
    let (new, now) = (checked(body, &state)?, state.clock.now());
    let record = state
        .store
        .write(move |conn| {
            site::get(conn, SiteId(site))?;
            sorted_out::insert(conn, SiteId(site), &new, &now)
        })
        .await?;
    Ok((StatusCode::CREATED, Json(record.into())))
}

/// Remove a record; it can be brought back
#[utoipa::path(delete, operation_id = "sorted_out_remove", tag = "sorted-out", path = "/api/sorted-out/{id}", params(("id" = i64, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(super) async fn remove(State(state): State<App>, Path(id): Path<i64>) -> Result<StatusCode, ApiError> {
    let now = state.clock.now();
    state.store.write(move |conn| sorted_out::remove(conn, SortedOutId(id), &now)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed record back
#[utoipa::path(post, operation_id = "sorted_out_restore", tag = "sorted-out", path = "/api/sorted-out/{id}/restore", params(("id" = i64, Path)), responses(
    (status = 200, body = SortedOut),
    Refusals,
))]
pub(super) async fn restore(
    State(state): State<App>,
    Path(id): Path<i64>,
) -> Result<Json<SortedOut>, ApiError> {
    let record = state.store.write(move |conn| sorted_out::restore(conn, SortedOutId(id))).await?;
    Ok(Json(record.into()))
}
