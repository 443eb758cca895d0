//! The log of a heap: written in seconds, put right, taken back, taken along.

use axum::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, CONTENT_TYPE};
use axum::response::IntoResponse;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::tend::entry::{self, BackRequest, TendRequest};
use zymarch_farm::tend::import::{self, LoggerRequest, LoggerSeen, LoggerTaken};
use zymarch_farm::tend::tended::{self, TendedHeap};
use zymarch_farm::tend::{export, photo};
use zymarch_store::id::{EntryId, HeapId};

use crate::http::asking::Asking;
use crate::http::body::{Body, Id};
use crate::http::problem::{ApiError, Refusals};
use crate::state::Answer;

/// A heap from plan to now: what happened, how it stands
#[utoipa::path(get, operation_id = "heap_tended", tag = "tend", path = "/api/heaps/{id}/log", params(("id" = HeapId, Path)), responses(
    (status = 200, body = TendedHeap),
    Refusals,
))]
pub(crate) async fn get(asking: Asking, Id(id): Id<HeapId>) -> Answer<TendedHeap> {
    asking.ask(Deed::Look.of(id), move |tx, _| tended::get(tx, id)).await
}

/// Write down what was read at a heap, seen or done
#[utoipa::path(post, operation_id = "heap_tend", tag = "tend", path = "/api/heaps/{id}/log", params(("id" = HeapId, Path)), request_body = TendRequest, responses(
    (status = 200, body = TendedHeap),
    Refusals,
))]
pub(crate) async fn tend(
    asking: Asking,
    Id(id): Id<HeapId>,
    Body(body): Body<TendRequest>,
) -> Answer<TendedHeap> {
    asking.did(Deed::Work.of(id), move |tx, who| entry::tend(tx, who, (id, body))).await?;
    asking.ask(Deed::Look.of(id), move |tx, _| tended::get(tx, id)).await
}

/// Take an entry of tending back; of readings that came together, all of them
#[utoipa::path(post, operation_id = "heap_take_back", tag = "tend", path = "/api/heaps/{id}/log/{entry}/take-back", params(("id" = HeapId, Path), ("entry" = EntryId, Path)), request_body = BackRequest, responses(
    (status = 200, body = TendedHeap),
    Refusals,
))]
pub(crate) async fn take_back(
    asking: Asking,
    Id((id, of)): Id<(HeapId, EntryId)>,
    Body(body): Body<BackRequest>,
) -> Answer<TendedHeap> {
    asking.did(Deed::Work.of(id), move |tx, who| entry::take_back(tx, who, (id, of, body))).await?;
    asking.ask(Deed::Look.of(id), move |tx, _| tended::get(tx, id)).await
}

/// Bring an entry back that was taken back
#[utoipa::path(post, operation_id = "heap_bring_back", tag = "tend", path = "/api/heaps/{id}/log/{entry}/bring-back", params(("id" = HeapId, Path), ("entry" = EntryId, Path)), request_body = BackRequest, responses(
    (status = 200, body = TendedHeap),
    Refusals,
))]
pub(crate) async fn bring_back(
    asking: Asking,
    Id((id, of)): Id<(HeapId, EntryId)>,
    Body(body): Body<BackRequest>,
) -> Answer<TendedHeap> {
    asking.did(Deed::Work.of(id), move |tx, who| entry::bring_back(tx, who, (id, of, body))).await?;
    asking.ask(Deed::Look.of(id), move |tx, _| tended::get(tx, id)).await
}

/// The photo of an entry
#[utoipa::path(get, operation_id = "heap_photo", tag = "tend", path = "/api/heaps/{id}/log/{entry}/photo", params(("id" = HeapId, Path), ("entry" = EntryId, Path)), responses(
    (status = 200, content_type = "image/jpeg", body = Vec<u8>),
    Refusals,
))]
pub(crate) async fn photo(
    asking: Asking,
    Id((id, of)): Id<(HeapId, EntryId)>,
) -> Result<impl IntoResponse, ApiError> {
    let wish = Deed::Look.of(id).and(Some(of));
    let photo = asking.looked(wish, move |tx, _| photo::get(tx, (id, of))).await?;
    let headers = [(CONTENT_TYPE, photo.media), (CACHE_CONTROL, "private, max-age=86400".to_owned())];
    Ok((headers, photo.bytes))
}

/// The log of a heap as a table: time, kind, value, unit, place, note
#[utoipa::path(get, operation_id = "heap_log_table", tag = "tend", path = "/api/heaps/{id}/log.csv", params(("id" = HeapId, Path)), responses(
    (status = 200, content_type = "text/csv", body = String),
    Refusals,
))]
pub(crate) async fn table(asking: Asking, Id(id): Id<HeapId>) -> Result<impl IntoResponse, ApiError> {
    let table = asking.looked(Deed::Look.of(id), move |tx, _| export::table(tx, id)).await?;
    let headers = [
        (CONTENT_TYPE, "text/csv; charset=utf-8"),
        (CONTENT_DISPOSITION, "attachment; filename=\"heap-log.csv\""),
    ];
    Ok((headers, table))
}

/// What a logger's file holds, before it is taken in
#[utoipa::path(post, operation_id = "heap_import_look", tag = "tend", path = "/api/heaps/{id}/import/look", params(("id" = HeapId, Path)), request_body = LoggerRequest, responses(
    (status = 200, body = LoggerSeen),
    Refusals,
))]
pub(crate) async fn look(
    asking: Asking,
    Id(id): Id<HeapId>,
    Body(body): Body<LoggerRequest>,
) -> Answer<LoggerSeen> {
    asking.ask(Deed::Work.of(id), move |tx, _| import::look(tx, (id, &body))).await
}

/// Take a logger's file in; what is there already stays once
#[utoipa::path(post, operation_id = "heap_import", tag = "tend", path = "/api/heaps/{id}/import", params(("id" = HeapId, Path)), request_body = LoggerRequest, responses(
    (status = 200, body = LoggerTaken),
    Refusals,
))]
pub(crate) async fn import(
    asking: Asking,
    Id(id): Id<HeapId>,
    Body(body): Body<LoggerRequest>,
) -> Answer<LoggerTaken> {
    asking.act(Deed::Work.of(id), move |tx, who| import::import(tx, who, (id, body))).await
}
