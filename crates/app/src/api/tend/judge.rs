//! What is judged of heaps: evidence, trouble, stage, tasks; and what a site follows.

use axum::http::StatusCode;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::tend::judgement::{self, HeapJudgement};
use zymarch_farm::tend::rules::{self, RulesRequest, SiteRules};
use zymarch_farm::tend::today::{self, TickRequest, TodayAnswer};
use zymarch_store::id::{BatchId, HeapId, SiteId};

use crate::http::asking::Asking;
use crate::http::body::{Body, Id};
use crate::http::problem::{ApiError, Refusals};
use crate::state::Answer;

/// What is judged of a heap: whether it was hot enough, what is wrong, how far it is, what to do
#[utoipa::path(get, operation_id = "heap_judgement", tag = "tend", path = "/api/heaps/{id}/judgement", params(("id" = HeapId, Path)), responses(
    (status = 200, body = HeapJudgement),
    Refusals,
))]
pub(crate) async fn judgement(asking: Asking, Id(id): Id<HeapId>) -> Answer<HeapJudgement> {
    asking.ask(Deed::Look.of(id), move |tx, _| judgement::judgement(tx, id)).await
}

/// What to do at a site today, and on the days after
#[utoipa::path(get, operation_id = "site_today", tag = "tend", path = "/api/sites/{id}/today", params(("id" = SiteId, Path)), responses(
    (status = 200, body = TodayAnswer),
    Refusals,
))]
pub(crate) async fn today(asking: Asking, Id(id): Id<SiteId>) -> Answer<TodayAnswer> {
    let name = format!("today {id}");
    asking.kept(Deed::Look.of(id), name, move |tx| today::today(tx, id), |told: &TodayAnswer| told).await
}

/// Tick something of a batch's preparing off, or take that back
#[utoipa::path(post, operation_id = "batch_tick", tag = "prepare", path = "/api/batches/{id}/tick", params(("id" = BatchId, Path)), request_body = TickRequest, responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn tick(
    asking: Asking,
    Id(id): Id<BatchId>,
    Body(body): Body<TickRequest>,
) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Work.of(id), move |tx, who| today::tick(tx, who, (id, body))).await
}

/// What a site follows where practitioners differ, and what its local rule asks for
#[utoipa::path(get, operation_id = "site_rules", tag = "tend", path = "/api/sites/{id}/rules", params(("id" = SiteId, Path)), responses(
    (status = 200, body = SiteRules),
    Refusals,
))]
pub(crate) async fn rules(asking: Asking, Id(id): Id<SiteId>) -> Answer<SiteRules> {
    asking.ask(Deed::Look.of(id), move |tx, _| rules::get(tx, id)).await
}

/// Change what a site follows
#[utoipa::path(put, operation_id = "site_set_rules", tag = "tend", path = "/api/sites/{id}/rules", params(("id" = SiteId, Path)), request_body = RulesRequest, responses(
    (status = 200, body = SiteRules),
    Refusals,
))]
pub(crate) async fn set_rules(
    asking: Asking,
    Id(id): Id<SiteId>,
    Body(body): Body<RulesRequest>,
) -> Answer<SiteRules> {
    asking.act(Deed::Keep.of(id), move |tx, who| rules::set(tx, who, (id, body))).await
}
