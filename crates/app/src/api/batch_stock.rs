//! What a batch takes from stock, and gives back when it is undone.

use axum::Json;
use axum::extract::{Path, State};
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_formats::field::{FieldError, Refusal};
use zymarch_store::id::{BatchId, LotId};
use zymarch_store::lot::{self, Held};
use zymarch_store::lot_event::{self, Change, EventKind};
use zymarch_store::{Connection, StoreError, batch};

use super::batch::{Batch, said_of};
use super::lot::Beside;
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// Asks for the amounts of a batch to be taken from stock, or given back.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct TakeRequest {
    /// The version that was read.
    version: i64,
    /// Where a lot holds less than the batch asks for: take what is there.
    #[serde(default)]
    what_is_there: bool,
}

/// Takes the amounts of a batch from its lots.
///
/// # Errors
/// A refusal that names every item whose lot holds too little, unless what is
/// there will do.
pub(super) fn take(
    conn: &Connection,
    of: &batch::Batch,
    what_is_there: bool,
    state: &App,
) -> Result<(), ApiError> {
    let (catalogue, now) = (state.catalogue(), state.clock.now());
    let mut short = Vec::new();
    for (place, part) in of.fields.items.iter().enumerate() {
        // A lot that was removed since has nothing to take from.
        let Some(stocked) = part.lot.and_then(|id| lot::get(conn, id).ok()) else { continue };
        let site = lot::site_of(conn, stocked.id)?;
        let beside = Beside::read(conn, site, &catalogue, state.clock.today())?;
        let item = said_of(part, |said| said.resolve(&catalogue, ""))?;
        let litres = item.volume_l();
        let wanted = if part.held.is_alike(stocked.fields.held) {
            part.held.amount()
        } else {
            match stocked.fields.held {
                Held::Kilograms(_) => item.wet_mass_kg,
                Held::Litres(_) => litres,
                held @ Held::Measures { .. } => litres / beside.litres_each(held).unwrap_or(1.0),
            }
        };
        let left = stocked.fields.held.amount();
        if wanted > left + 1e-6 && !what_is_there {
            short.push(FieldError::new(
                format!("items[{place}].amount"),
                format!("asks for more than the {left} left"),
            ));
            continue;
        }
        let taken = wanted.min(left);
        let change = Change {
            kind: EventKind::Batch,
            delta: -taken,
            litres: if wanted > 0.0 { -litres * taken / wanted } else { 0.0 },
            batch: Some(of.id),
            note: None,
        };
        lot_event::change(conn, stocked.id, &change, &now)?;
    }
    if short.is_empty() { Ok(()) } else { Err(Refusal { errors: short }.into()) }
}

/// Gives back what a batch still has from each lot, even to one removed since.
pub(super) fn give_back(conn: &Connection, id: BatchId, state: &App) -> Result<(), ApiError> {
    let (catalogue, now) = (state.catalogue(), state.clock.now());
    let events = lot_event::of_batch(conn, id)?;
    let mut lots: Vec<LotId> = events.iter().map(|event| event.lot).collect();
    lots.sort_unstable();
    lots.dedup();
    for lot_id in lots {
        let of_lot = || events.iter().filter(move |event| event.lot == lot_id);
        let litres: f64 = of_lot().map(|event| event.litres).sum();
        let held = lot::held_ever(conn, lot_id)?;
        let delta: f64 = if of_lot().all(|event| event.left.is_alike(held)) {
            of_lot().map(|event| event.delta).sum()
        } else {
            let beside = Beside::read(conn, lot::site_of(conn, lot_id)?, &catalogue, state.clock.today())?;
            match held {
                Held::Litres(_) => litres,
                Held::Measures { .. } => litres / beside.litres_each(held).unwrap_or(1.0),
                Held::Kilograms(_) => {
                    let density = lot::get(conn, lot_id)
                        .ok()
                        .and_then(|lot| beside.item(&lot).ok())
                        .map_or(1.0, |item| item.figures.density_kg_l.value);
                    litres * density
                }
            }
        };
        if delta.abs() < 1e-9 {
            continue;
        }
        let change =
            Change { kind: EventKind::GiveBack, delta: -delta, litres: -litres, batch: Some(id), note: None };
        lot_event::change(conn, lot_id, &change, &now)?;
    }
    Ok(())
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
            let batch = batch::set_taken(conn, id, body.version, Some(&state.clock.now()))?;
            take(conn, &batch, body.what_is_there, &state)?;
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
            give_back(conn, id, &state)?;
            Ok(batch)
        })
        .await?;
    Ok(Json(batch.into()))
}
