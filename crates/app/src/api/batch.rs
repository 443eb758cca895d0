//! Saved batches.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::heap::Shape;
use zymarch_core::quantity;
use zymarch_formats::field::Refusal;
use zymarch_formats::layers::HeapShape;
use zymarch_formats::recipe::{MOST_ITEMS, OwnFigures};
use zymarch_store::batch::{self, BatchItem, NewBatch};
use zymarch_store::id::{BatchId, LotId, SiteId};
use zymarch_store::site;

use super::convert::{self, Unit};
use crate::http::body::Body;
use crate::http::problem::{ApiError, Problem};
use crate::state::App;

/// A saved batch.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Batch {
    id: i64,
    version: i64,
    /// When it was first saved, RFC 3339.
    created_at: String,
    /// When it was last saved.
    updated_at: String,
    #[serde(flatten)]
    fields: BatchFields,
}

/// What a batch is.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct BatchFields {
    /// What it is called.
    name: String,
    /// Water added, litres.
    water_l: f64,
    /// The heap it is meant for.
    heap: HeapShape,
    /// What goes in, in order.
    items: Vec<BatchPart>,
}

/// One lot's part, as it stands when the batch is saved.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct BatchPart {
    /// The lot it comes from, if any.
    lot_id: Option<i64>,
    /// Id in the reference table.
    material: String,
    /// The person's own name for it.
    label: Option<String>,
    /// How much, in `unit`.
    amount: f64,
    /// How the amount is said.
    unit: Unit,
    /// The measure it is counted in, if the unit is `measure`.
    measure_id: Option<i64>,
    /// What one measure holds, litres, if the unit is `measure`.
    measure_litres: Option<f64>,
    /// Figures in place of the book's.
    #[serde(default)]
    own: OwnFigures,
}

/// A change of a batch that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct BatchChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    batch: BatchFields,
}

impl BatchFields {
    fn checked(self) -> Result<NewBatch, Refusal> {
        let name = convert::name("name", &self.name)?;
        quantity::amount(self.water_l).map_err(|error| Refusal::one("water_l", error.to_string()))?;
        let shape = self.heap.resolve("heap")?;
        if self.items.is_empty() {
            return Err(Refusal::one("items", "is empty: a batch needs at least one"));
        }
        if self.items.len() > MOST_ITEMS {
            return Err(Refusal::one("items", format!("holds {}, more than {MOST_ITEMS}", self.items.len())));
        }
        let items = self.items.into_iter().enumerate().map(|(index, part)| part.checked(index));
        Ok(NewBatch { name, water_l: self.water_l, shape, items: items.collect::<Result<_, _>>()? })
    }
}

impl BatchPart {
    fn checked(self, index: usize) -> Result<BatchItem, Refusal> {
        let field = format!("items[{index}]");
        let under = |mut refusal: Refusal| {
            for error in &mut refusal.errors {
                error.field = format!("{field}.{}", error.field);
            }
            refusal
        };
        let held = convert::held(self.amount, self.unit, self.measure_id).map_err(under)?;
        if (self.unit == Unit::Measure) != self.measure_litres.is_some() {
            return Err(Refusal::one(
                format!("{field}.measure_litres"),
                "belongs with the unit `measure`, and only with it",
            ));
        }
        convert::resolve_one(convert::item(&self.material, held, self.measure_litres, &self.own), &field)?;
        Ok(BatchItem {
            lot: self.lot_id.map(LotId),
            label: convert::label("label", self.label.as_deref()).map_err(under)?,
            held,
            measure_litres: self.measure_litres,
            own: convert::own(&self.own),
            material: self.material,
        })
    }
}

impl From<batch::Batch> for Batch {
    fn from(batch: batch::Batch) -> Self {
        let NewBatch { name, water_l, shape, items } = batch.fields;
        let heap = match shape {
            Shape::Box { length_cm, width_cm, height_cm } => {
                HeapShape::Box { length_cm, width_cm, height_cm }
            }
            Shape::Ring { diameter_cm, height_cm } => HeapShape::Ring { diameter_cm, height_cm },
        };
        let items = items
            .into_iter()
            .map(|item| {
                let (amount, unit, measure_id) = convert::amount(item.held);
                BatchPart {
                    lot_id: item.lot.map(|lot| lot.0),
                    material: item.material,
                    label: item.label,
                    amount,
                    unit,
                    measure_id,
                    measure_litres: item.measure_litres,
                    own: convert::own_figures(&item.own),
                }
            })
            .collect();
        Self {
            id: batch.id.0,
            version: batch.version,
            created_at: batch.created_at,
            updated_at: batch.updated_at,
            fields: BatchFields { name, water_l, heap, items },
        }
    }
}

/// The batches of a site, last saved first
#[utoipa::path(get, operation_id = "batch_list", tag = "batch", path = "/api/sites/{site}/batches", params(("site" = i64, Path)), responses(
    (status = 200, body = Vec<Batch>),
    (status = 404, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn list(
    State(state): State<App>,
    Path(site): Path<i64>,
) -> Result<Json<Vec<Batch>>, ApiError> {
    let batches = state
        .store
        .read(move |conn| {
            site::get(conn, SiteId(site))?;
            batch::of_site(conn, SiteId(site))
        })
        .await?;
    Ok(Json(batches.into_iter().map(Batch::from).collect()))
}

/// A new batch
#[utoipa::path(post, operation_id = "batch_create", tag = "batch", path = "/api/sites/{site}/batches", params(("site" = i64, Path)), request_body = BatchFields, responses(
    (status = 201, body = Batch),
    (status = 409, body = Problem, content_type = "application/problem+json"),
    (status = 422, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn create(
    State(state): State<App>,
    Path(site): Path<i64>,
    Body(body): Body<BatchFields>,
) -> Result<(StatusCode, Json<Batch>), ApiError> {
    let (new, now) = (body.checked()?, state.clock.now());
    let saved = state
        .store
        .write(move |conn| {
            site::get(conn, SiteId(site))?;
            batch::insert(conn, SiteId(site), &new, &now)
        })
        .await?;
    Ok((StatusCode::CREATED, Json(saved.into())))
}

/// One batch
#[utoipa::path(get, operation_id = "batch_get", tag = "batch", path = "/api/batches/{id}", params(("id" = i64, Path)), responses(
    (status = 200, body = Batch),
    (status = 404, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn get(State(state): State<App>, Path(id): Path<i64>) -> Result<Json<Batch>, ApiError> {
    let batch = state.store.read(move |conn| batch::get(conn, BatchId(id))).await?;
    Ok(Json(batch.into()))
}

/// Change a batch
#[utoipa::path(put, operation_id = "batch_change", tag = "batch", path = "/api/batches/{id}", params(("id" = i64, Path)), request_body = BatchChange, responses(
    (status = 200, body = Batch),
    (status = 404, body = Problem, content_type = "application/problem+json"),
    (status = 409, body = Problem, content_type = "application/problem+json"),
    (status = 422, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn change(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<BatchChange>,
) -> Result<Json<Batch>, ApiError> {
    let (new, now) = (body.batch.checked()?, state.clock.now());
    let changed =
        state.store.write(move |conn| batch::update(conn, BatchId(id), body.version, &new, &now)).await?;
    Ok(Json(changed.into()))
}

/// Remove a batch; it can be brought back
#[utoipa::path(delete, operation_id = "batch_remove", tag = "batch", path = "/api/batches/{id}", params(("id" = i64, Path)), responses(
    (status = 204),
    (status = 404, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn remove(State(state): State<App>, Path(id): Path<i64>) -> Result<StatusCode, ApiError> {
    let now = state.clock.now();
    state.store.write(move |conn| batch::remove(conn, BatchId(id), &now)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed batch back
#[utoipa::path(post, operation_id = "batch_restore", tag = "batch", path = "/api/batches/{id}/restore", params(("id" = i64, Path)), responses(
    (status = 200, body = Batch),
    (status = 404, body = Problem, content_type = "application/problem+json"),
    (status = 409, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn restore(State(state): State<App>, Path(id): Path<i64>) -> Result<Json<Batch>, ApiError> {
    let batch = state.store.write(move |conn| batch::restore(conn, BatchId(id))).await?;
    Ok(Json(batch.into()))
}
