//! What comes to a lot and what goes from it.

use axum::Json;
use axum::extract::{Path, State};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::quantity;
use zymarch_formats::field::Refusal;
use zymarch_store::id::{LotEventId, LotId};
use zymarch_store::lot_event::{self, Change, EventKind, Taker};
use zymarch_store::{batch, heap, lot};

use super::convert::{self, Unit};
use super::lot::{Lot, write};
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// One entry of a lot's history.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct LotEvent {
    id: i64,
    /// When, RFC 3339.
    at: String,
    /// `start`, `delivery`, `use`, `spoiled`, `count`, `batch` or `give-back`.
    kind: &'static str,
    /// By how much it changed, in `unit`.
    delta: f64,
    /// What was left afterwards.
    amount: f64,
    /// How the amount was said then.
    unit: Unit,
    /// The measure it was counted in then.
    measure_id: Option<i64>,
    /// The batch or heap that took it or gave it back, if it is still there.
    batch: Option<String>,
    /// The person's words.
    note: Option<String>,
    /// Whether it may be taken back by itself.
    can_be_undone: bool,
}

/// What happened to a lot.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub(super) enum LotAct {
    /// More came.
    Delivery,
    /// Some was used otherwise.
    Use,
    /// Some spoiled.
    Spoiled,
}

/// Something that came or went.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct LotEventFields {
    /// What happened.
    kind: LotAct,
    /// How much, in the lot's unit, above zero.
    amount: f64,
    /// The person's words.
    #[serde(default)]
    note: Option<String>,
}

/// The history of a lot, newest first
#[utoipa::path(get, operation_id = "lot_history", tag = "lot", path = "/api/lots/{id}/history", params(("id" = i64, Path)), responses(
    (status = 200, body = Vec<LotEvent>),
    Refusals,
))]
pub(super) async fn list(
    State(state): State<App>,
    Path(id): Path<i64>,
) -> Result<Json<Vec<LotEvent>>, ApiError> {
    let events = state
        .store
        .read::<_, ApiError, _>(move |conn| {
            lot::get(conn, LotId(id))?;
            let events = lot_event::of_lot(conn, LotId(id))?;
            Ok(events
                .into_iter()
                .map(|event| {
                    let name = event.taker.and_then(|taker| match taker {
                        Taker::Batch(id) => batch::get(conn, id).ok().map(|batch| batch.fields.name),
                        Taker::Heap(id) => heap::get(conn, id).ok().map(|heap| heap.fields.name),
                    });
                    LotEvent::new(event, name)
                })
                .collect())
        })
        .await?;
    Ok(Json(events))
}

impl LotEvent {
    fn new(event: lot_event::LotEvent, batch: Option<String>) -> Self {
        let (amount, unit, measure_id) = convert::amount(event.left);
        Self {
            id: event.id.0,
            at: event.at,
            kind: event.kind.as_str(),
            delta: event.delta,
            amount,
            unit,
            measure_id,
            batch,
            note: event.note,
            can_be_undone: event.kind.can_be_undone(),
        }
    }
}

/// Note that more came, or that some was used or spoiled
#[utoipa::path(post, operation_id = "lot_happened", tag = "lot", path = "/api/lots/{id}/history", params(("id" = i64, Path)), request_body = LotEventFields, responses(
    (status = 200, body = Lot),
    Refusals,
))]
pub(super) async fn create(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<LotEventFields>,
) -> Result<Json<Lot>, ApiError> {
    let amount = quantity::amount(body.amount).map_err(|error| Refusal::one("amount", error.to_string()))?;
    if amount <= 0.0 {
        return Err(Refusal::one("amount", "must be above 0").into());
    }
    let note = convert::label("note", body.note.as_deref())?;
    let (kind, delta) = match body.kind {
        LotAct::Delivery => (EventKind::Delivery, amount),
        LotAct::Use => (EventKind::Use, -amount),
        LotAct::Spoiled => (EventKind::Spoiled, -amount),
    };
    let (now, today) = (state.clock.now(), state.clock.today().to_string());
    write(&state, move |conn| {
        let id = LotId(id);
        let was_empty = lot::get(conn, id)?.fields.held.amount() <= 0.0;
        let change = Change { kind, delta, litres: 0.0, taker: None, note };
        lot_event::change(conn, id, &change, &now)?;
        // What is left of an older lot keeps it old; an empty one begins anew.
        if was_empty && kind == EventKind::Delivery {
            lot::set_gathered_on(conn, id, &today)?;
        }
        Ok(lot::get(conn, id)?)
    })
    .await
}

/// Take an entry back, and its change of the amount with it
#[utoipa::path(delete, operation_id = "lot_event_undo", tag = "lot", path = "/api/lot-events/{id}", params(("id" = i64, Path)), responses(
    (status = 200, body = Lot),
    Refusals,
))]
pub(super) async fn undo(State(state): State<App>, Path(id): Path<i64>) -> Result<Json<Lot>, ApiError> {
    let now = state.clock.now();
    write(&state, move |conn| {
        let lot = lot_event::undo(conn, LotEventId(id), &now)?;
        Ok(lot::get(conn, lot)?)
    })
    .await
}
