//! What truly went into a heap, taken from stock and given back.

use axum::Json;
use axum::extract::{Path, State};
use zymarch_formats::field::Refusal;
use zymarch_store::heap;
use zymarch_store::id::HeapId;
use zymarch_store::lot_event::Taker;
use zymarch_store::{Connection, StoreError, batch};

use super::batch::TakeRequest;
use super::heap::{Heap, HeapAct, write};
use super::{heap_stand, taken};
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// Take what truly went into a heap from stock; from then on stock follows what is put right
#[utoipa::path(post, operation_id = "heap_take", tag = "heap", path = "/api/heaps/{id}/take", params(("id" = i64, Path)), request_body = TakeRequest, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn take_from_stock(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<TakeRequest>,
) -> Result<Json<Heap>, ApiError> {
    write(&state, move |conn, state| {
        let heap = heap::get(conn, HeapId(id))?;
        if heap.taken_at.is_some() {
            return Err(Refusal::one("", "what went in was taken from stock already").into());
        }
        // What the batch took by its recipe is what went in, or near it: it is not taken twice.
        let batch = heap.fields.batch.and_then(|id| batch::get(conn, id).ok());
        if let Some(batch) = batch.filter(|batch| batch.taken_at.is_some()) {
            taken::give_back(conn, Taker::Batch(batch.id), state)?;
            batch::set_taken(conn, batch.id, batch.version, None)?;
        }
        let heap = heap::set_taken(conn, heap.id, body.version, Some(&state.clock.now()))?;
        take(conn, &heap, body.what_is_there, state)?;
        Ok(heap)
    })
    .await
}

/// Give back to stock what a heap took
#[utoipa::path(post, operation_id = "heap_give_back", tag = "heap", path = "/api/heaps/{id}/give-back", params(("id" = i64, Path)), request_body = HeapAct, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn give_back_to_stock(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<HeapAct>,
) -> Result<Json<Heap>, ApiError> {
    write(&state, move |conn, state| {
        if heap::get(conn, HeapId(id))?.taken_at.is_none() {
            return Err(StoreError::NotFound { kind: "amount taken from stock" }.into());
        }
        let heap = heap::set_taken(conn, HeapId(id), body.version, None)?;
        taken::give_back(conn, Taker::Heap(heap.id), state)?;
        Ok(heap)
    })
    .await
}

/// Stock follows a heap that took from it: what was put right, undone or brought
/// back is so there as well, as far as it is there.
pub(super) fn follow(conn: &Connection, heap: &heap::Heap, state: &App) -> Result<(), ApiError> {
    if heap.taken_at.is_none() {
        return Ok(());
    }
    taken::give_back(conn, Taker::Heap(heap.id), state)?;
    take(conn, heap, true, state)
}

fn take(conn: &Connection, heap: &heap::Heap, what_is_there: bool, state: &App) -> Result<(), ApiError> {
    let items = heap_stand::went_in(heap, &heap_stand::of(conn, heap, state)?);
    taken::take(conn, Taker::Heap(heap.id), &items, what_is_there, state)
}
