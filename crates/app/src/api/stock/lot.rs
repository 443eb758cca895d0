//! Stock, and what comes to it and goes from it.

use axum::http::StatusCode;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::command::{Add, Change, Remove, Restore};
use zymarch_farm::stock::history::{self, LotEvent, LotEventFields};
use zymarch_farm::stock::lot::{self, Lot, LotFields};
use zymarch_farm::stock::on_hand::stock;
use zymarch_store::id::{EntryId, LotId, SiteId};

use crate::http::asking::Asking;
use crate::http::body::{Body, Id, NewId};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, Written};

/// A change of a lot that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct LotChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    lot: LotFields,
}

/// The stock of a site, what spoils first on top
#[utoipa::path(get, operation_id = "lot_list", tag = "lot", path = "/api/sites/{site}/lots", params(("site" = SiteId, Path)), responses(
    (status = 200, body = Vec<Lot>),
    Refusals,
))]
pub(crate) async fn list(asking: Asking, Id(id): Id<SiteId>) -> Answer<Vec<Lot>> {
    let name = format!("lots {id}");
    asking.kept(Deed::Look.of(id), name, move |tx| stock(tx, id), |stock| &stock.lots).await
}

/// A new lot
#[utoipa::path(post, operation_id = "lot_create", tag = "lot", path = "/api/sites/{site}/lots", params(("site" = SiteId, Path), ("id" = Option<LotId>, Query)), request_body = LotFields, responses(
    (status = 201, body = Lot),
    Refusals,
))]
pub(crate) async fn create(
    asking: Asking,
    Id(id): Id<SiteId>,
    NewId(new): NewId<LotId>,
    Body(what): Body<LotFields>,
) -> Result<(StatusCode, Written<Lot>), ApiError> {
    Ok((
        StatusCode::CREATED,
        asking
            .act(Deed::Work.of(id).new(new), move |tx, who| {
                lot::add(tx, who, Add { site: id, id: new, what })
            })
            .await?,
    ))
}

/// Change a lot
#[utoipa::path(put, operation_id = "lot_change", tag = "lot", path = "/api/lots/{id}", params(("id" = LotId, Path)), request_body = LotChange, responses(
    (status = 200, body = Lot),
    Refusals,
))]
pub(crate) async fn change(asking: Asking, Id(id): Id<LotId>, Body(body): Body<LotChange>) -> Answer<Lot> {
    asking
        .act(Deed::Work.of(id), move |tx, who| {
            lot::change(tx, who, Change { id, version: body.version, to: body.lot })
        })
        .await
}

/// Remove a lot; it can be brought back
#[utoipa::path(delete, operation_id = "lot_remove", tag = "lot", path = "/api/lots/{id}", params(("id" = LotId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(asking: Asking, Id(id): Id<LotId>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Work.of(id), move |tx, who| lot::remove(tx, who, Remove(id))).await
}

/// Bring a removed lot back
#[utoipa::path(post, operation_id = "lot_restore", tag = "lot", path = "/api/lots/{id}/restore", params(("id" = LotId, Path)), responses(
    (status = 200, body = Lot),
    Refusals,
))]
pub(crate) async fn restore(asking: Asking, Id(id): Id<LotId>) -> Answer<Lot> {
    asking.act(Deed::Work.of(id), move |tx, who| lot::restore(tx, who, Restore(id))).await
}

/// The history of a lot, newest first
#[utoipa::path(get, operation_id = "lot_history", tag = "lot", path = "/api/lots/{id}/history", params(("id" = LotId, Path)), responses(
    (status = 200, body = Vec<LotEvent>),
    Refusals,
))]
pub(crate) async fn history(asking: Asking, Id(id): Id<LotId>) -> Answer<Vec<LotEvent>> {
    asking.ask(Deed::Look.of(id), move |tx, _| history::list(tx, id)).await
}

/// Note that more came, or that some was used or spoiled
#[utoipa::path(post, operation_id = "lot_happened", tag = "lot", path = "/api/lots/{id}/history", params(("id" = LotId, Path)), request_body = LotEventFields, responses(
    (status = 200, body = Lot),
    Refusals,
))]
pub(crate) async fn note(asking: Asking, Id(id): Id<LotId>, Body(body): Body<LotEventFields>) -> Answer<Lot> {
    asking.act(Deed::Work.of(id), move |tx, who| history::note(tx, who, (id, body))).await
}

/// Take an entry back, and its change of the amount with it
#[utoipa::path(delete, operation_id = "lot_event_undo", tag = "lot", path = "/api/lot-events/{id}", params(("id" = EntryId, Path)), responses(
    (status = 200, body = Lot),
    Refusals,
))]
pub(crate) async fn undo(asking: Asking, Id(id): Id<EntryId>) -> Answer<Lot> {
    asking.act(Deed::Work.of(id), move |tx, who| history::undo(tx, who, id)).await
}
