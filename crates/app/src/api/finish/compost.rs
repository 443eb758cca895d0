//! Compost: taken out of heaps, kept, used, found out about.

use axum::http::StatusCode;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::finish::compost::{self, CompostActRequest, CompostTold};
use zymarch_farm::finish::harvest::{self, HarvestRequest};
use zymarch_farm::finish::lab::{self, LabRequest, Sample};
use zymarch_farm::finish::used::{self, UseRequest};
use zymarch_farm::{Transaction, Who};
use zymarch_store::id::{CompostId, EntryId, HeapId, SiteId};

use crate::http::asking::Asking;
use crate::http::body::{Body, Id};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, Written};

/// The compost of a site, taken out last first
#[utoipa::path(get, operation_id = "compost_list", tag = "finish", path = "/api/sites/{site}/compost", params(("site" = SiteId, Path)), responses(
    (status = 200, body = Vec<CompostTold>),
    Refusals,
))]
pub(crate) async fn list(asking: Asking, Id(id): Id<SiteId>) -> Answer<Vec<CompostTold>> {
    asking.ask(Deed::Look.of(id), move |tx, _| compost::list(tx, id)).await
}

/// Take compost out of a heap
#[utoipa::path(post, operation_id = "heap_harvest", tag = "finish", path = "/api/heaps/{id}/harvest", params(("id" = HeapId, Path)), request_body = HarvestRequest, responses(
    (status = 201, body = CompostTold),
    Refusals,
))]
pub(crate) async fn harvest(
    asking: Asking,
    Id(id): Id<HeapId>,
    Body(body): Body<HarvestRequest>,
) -> Result<(StatusCode, Written<CompostTold>), ApiError> {
    let wish = Deed::Work.of(id).new(body.id);
    let told = asking.act(wish, move |tx, who| {
        let id = harvest::harvest(tx, who, (id, body))?;
        compost::get(tx, id)
    });
    Ok((StatusCode::CREATED, told.await?))
}

/// Take a harvest back: the compost is gone, its rejects too, and the heap is as it was
#[utoipa::path(delete, operation_id = "compost_remove", tag = "finish", path = "/api/compost/{id}", params(("id" = CompostId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(asking: Asking, Id(id): Id<CompostId>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Work.of(id), move |tx, who| harvest::take_back(tx, who, id)).await
}

/// Write down that compost was measured anew, spoiled or was given away
#[utoipa::path(post, operation_id = "compost_happened", tag = "finish", path = "/api/compost/{id}/amounts", params(("id" = CompostId, Path)), request_body = CompostActRequest, responses(
    (status = 200, body = CompostTold),
    Refusals,
))]
pub(crate) async fn happened(
    asking: Asking,
    Id(id): Id<CompostId>,
    Body(body): Body<CompostActRequest>,
) -> Answer<CompostTold> {
    let act = move |tx: &mut Transaction<'_>, who: &Who| {
        compost::happened(tx, who, (id, body))?;
        compost::get(tx, id)
    };
    asking.act(Deed::Work.of(id), act).await
}

/// Write down that compost went somewhere
#[utoipa::path(post, operation_id = "compost_used", tag = "finish", path = "/api/compost/{id}/uses", params(("id" = CompostId, Path)), request_body = UseRequest, responses(
    (status = 200, body = CompostTold),
    Refusals,
))]
pub(crate) async fn go(
    asking: Asking,
    Id(id): Id<CompostId>,
    Body(body): Body<UseRequest>,
) -> Answer<CompostTold> {
    let act = move |tx: &mut Transaction<'_>, who: &Who| {
        used::note(tx, who, (id, body))?;
        compost::get(tx, id)
    };
    asking.act(Deed::Work.of(id), act).await
}

/// Write down what a laboratory or a kit found in compost
#[utoipa::path(post, operation_id = "compost_found", tag = "finish", path = "/api/compost/{id}/results", params(("id" = CompostId, Path)), request_body = LabRequest, responses(
    (status = 200, body = CompostTold),
    Refusals,
))]
pub(crate) async fn found(
    asking: Asking,
    Id(id): Id<CompostId>,
    Body(body): Body<LabRequest>,
) -> Answer<CompostTold> {
    let act = move |tx: &mut Transaction<'_>, who: &Who| {
        lab::note(tx, who, (Sample::Compost(id), body))?;
        compost::get(tx, id)
    };
    asking.act(Deed::Work.of(id), act).await
}

/// Take an entry of compost back: a use, a result, what spoiled, a count
#[utoipa::path(delete, operation_id = "compost_take_back", tag = "finish", path = "/api/compost/{id}/log/{entry}", params(("id" = CompostId, Path), ("entry" = EntryId, Path)), responses(
    (status = 200, body = CompostTold),
    Refusals,
))]
pub(crate) async fn take_back(
    asking: Asking,
    Id((id, entry)): Id<(CompostId, EntryId)>,
) -> Answer<CompostTold> {
    let act = move |tx: &mut Transaction<'_>, who: &Who| {
        lab::take_back(tx, who, (Sample::Compost(id), entry))?;
        compost::get(tx, id)
    };
    asking.act(Deed::Work.of(id), act).await
}
