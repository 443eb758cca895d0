//! Saved batches.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::quantity;
use zymarch_formats::field::Refusal;
use zymarch_formats::layers::HeapShape;
use zymarch_formats::recipe::MOST_ITEMS;
use zymarch_store::StoreError;
use zymarch_store::batch::{self, NewBatch};
use zymarch_store::id::{BatchId, SiteId};
use zymarch_store::lot_event::Taker;
use zymarch_store::{heap, site};

use super::convert;
use super::part::BatchPart;
use super::prepare;
use super::taken;
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
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
    /// When its amounts were taken from stock, if they were.
    taken_at: Option<String>,
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
    /// The way it is composted, as `bay-turned`.
    #[serde(default)]
    method: Option<String>,
    /// The day it is to be built, as 2026-03-22.
    #[serde(default)]
    #[schema(value_type = Option<String>, format = Date)]
    build_on: Option<Date>,
    /// What is to help it begin, as `farm-ferment`.
    #[serde(default)]
    starters: Vec<String>,
    /// What goes in, in order.
    items: Vec<BatchPart>,
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

/// Asks for the amounts of a batch to be taken from stock, or given back.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct TakeRequest {
    /// The version that was read.
    pub(super) version: i64,
    /// Where a lot holds less than the batch asks for: take what is there.
    #[serde(default)]
    pub(super) what_is_there: bool,
}

impl BatchFields {
    fn checked(self, catalogue: &Catalogue) -> Result<NewBatch, Refusal> {
        let name = convert::name("name", &self.name)?;
        quantity::amount(self.water_l).map_err(|error| Refusal::one("water_l", error.to_string()))?;
        let shape = self.heap.resolve("heap")?;
        if self.method.as_deref().is_some_and(|id| catalogue.method(id).is_none()) {
            return Err(Refusal::one("method", "is not a way of composting that is known here"));
        }
        let starters = prepare::known(&self.starters)?.iter().map(|one| one.id.clone()).collect();
        if self.items.is_empty() {
            return Err(Refusal::one("items", "is empty: a batch needs at least one"));
        }
        if self.items.len() > MOST_ITEMS {
            return Err(Refusal::one("items", format!("holds {}, more than {MOST_ITEMS}", self.items.len())));
        }
        let items = self
            .items
            .into_iter()
            .enumerate()
            .map(|(index, part)| part.checked(&format!("items[{index}]"), catalogue));
        let items = items.collect::<Result<_, _>>()?;
        Ok(NewBatch {
            name,
            water_l: self.water_l,
            shape,
            method: self.method,
            build_on: self.build_on.map(|day| day.to_string()),
            starters,
            items,
        })
    }
}

impl From<batch::Batch> for Batch {
    fn from(batch: batch::Batch) -> Self {
        let NewBatch { name, water_l, shape, method, build_on, starters, items } = batch.fields;
        let build_on = build_on.and_then(|day| day.parse().ok());
        let heap = shape.into();
        let items = items.into_iter().map(BatchPart::from).collect();
        Self {
            id: batch.id.0,
            version: batch.version,
            created_at: batch.created_at,
            updated_at: batch.updated_at,
            taken_at: batch.taken_at,
            fields: BatchFields { name, water_l, heap, method, build_on, starters, items },
        }
    }
}

/// The batches of a site, last saved first
#[utoipa::path(get, operation_id = "batch_list", tag = "batch", path = "/api/sites/{site}/batches", params(("site" = i64, Path)), responses(
    (status = 200, body = Vec<Batch>),
    Refusals,
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
    Refusals,
))]
pub(super) async fn create(
    State(state): State<App>,
    Path(site): Path<i64>,
    Body(body): Body<BatchFields>,
) -> Result<(StatusCode, Json<Batch>), ApiError> {
    let (new, now) = (body.checked(&state.catalogue())?, state.clock.now());
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
    Refusals,
))]
pub(super) async fn get(State(state): State<App>, Path(id): Path<i64>) -> Result<Json<Batch>, ApiError> {
    let batch = state.store.read(move |conn| batch::get(conn, BatchId(id))).await?;
    Ok(Json(batch.into()))
}

/// Change a batch
#[utoipa::path(put, operation_id = "batch_change", tag = "batch", path = "/api/batches/{id}", params(("id" = i64, Path)), request_body = BatchChange, responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(super) async fn change(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<BatchChange>,
) -> Result<Json<Batch>, ApiError> {
    let (new, now) = (body.batch.checked(&state.catalogue())?, state.clock.now());
    let store = state.store.clone();
    let changed = store
        .write::<_, ApiError, _>(move |conn| {
            let changed = batch::update(conn, BatchId(id), body.version, &new, &now)?;
            if changed.taken_at.is_some() {
                taken::give_back(conn, Taker::Batch(changed.id), &state)?;
                taken::take(conn, Taker::Batch(changed.id), &changed.fields.items, false, &state)?;
            }
            Ok(changed)
        })
        .await?;
    Ok(Json(changed.into()))
}

/// Remove a batch, and give back what it took; it can be brought back
#[utoipa::path(delete, operation_id = "batch_remove", tag = "batch", path = "/api/batches/{id}", params(("id" = i64, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(super) async fn remove(State(state): State<App>, Path(id): Path<i64>) -> Result<StatusCode, ApiError> {
    let store = state.store.clone();
    store
        .write::<_, ApiError, _>(move |conn| {
            taken::give_back(conn, Taker::Batch(BatchId(id)), &state)?;
            Ok(batch::remove(conn, BatchId(id), &state.clock.now())?)
        })
        .await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed batch back; what it had taken is taken again, as far as it is there
#[utoipa::path(post, operation_id = "batch_restore", tag = "batch", path = "/api/batches/{id}/restore", params(("id" = i64, Path)), responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(super) async fn restore(State(state): State<App>, Path(id): Path<i64>) -> Result<Json<Batch>, ApiError> {
    let store = state.store.clone();
    let batch = store
        .write::<_, ApiError, _>(move |conn| {
            let was_there = batch::get(conn, BatchId(id)).is_ok();
            let batch = batch::restore(conn, BatchId(id))?;
            if batch.taken_at.is_some() && !was_there {
                taken::take(conn, Taker::Batch(batch.id), &batch.fields.items, true, &state)?;
            }
            Ok(batch)
        })
        .await?;
    Ok(Json(batch.into()))
}

/// Take the amounts of a batch from stock
#[utoipa::path(post, operation_id = "batch_take", tag = "batch", path = "/api/batches/{id}/take", params(("id" = i64, Path)), request_body = TakeRequest, responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(super) async fn take_from_stock(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<TakeRequest>,
) -> Result<Json<Batch>, ApiError> {
    let store = state.store.clone();
    let batch = store
        .write::<_, ApiError, _>(move |conn| {
            let id = BatchId(id);
            if batch::get(conn, id)?.taken_at.is_some() {
                return Err(Refusal::one("", "its amounts were taken from stock already").into());
            }
            if heap::has_taken(conn, id)? {
                return Err(Refusal::one("", "a heap built of it took what went in already").into());
            }
            let batch = batch::set_taken(conn, id, body.version, Some(&state.clock.now()))?;
            taken::take(conn, Taker::Batch(id), &batch.fields.items, body.what_is_there, &state)?;
            Ok(batch)
        })
        .await?;
    Ok(Json(batch.into()))
}

/// Give the amounts of a batch back to stock
#[utoipa::path(post, operation_id = "batch_give_back", tag = "batch", path = "/api/batches/{id}/give-back", params(("id" = i64, Path)), request_body = TakeRequest, responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(super) async fn give_back_to_stock(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<TakeRequest>,
) -> Result<Json<Batch>, ApiError> {
    let store = state.store.clone();
    let batch = store
        .write::<_, ApiError, _>(move |conn| {
            let id = BatchId(id);
            if batch::get(conn, id)?.taken_at.is_none() {
                return Err(StoreError::NotFound { kind: "amount taken from stock" }.into());
            }
            let batch = batch::set_taken(conn, id, body.version, None)?;
            taken::give_back(conn, Taker::Batch(id), &state)?;
            Ok(batch)
        })
        .await?;
    Ok(Json(batch.into()))
}
