//! Probes and their stand-ins: written down, cut off, and what they send.

use axum::Json;
use axum::body::Bytes;
use axum::extract::State;
use axum::http::header::AUTHORIZATION;
use axum::http::{HeaderMap, StatusCode};
use zymarch_core::base::fault::{Fault, FaultCode};
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::people::hash;
use zymarch_farm::tend::probe::{self, ProbeFields, ProbeMade, ProbeTold, StandsIn};
use zymarch_farm::tend::report::Reported;
use zymarch_farm::tend::simulated::{self, RodFields, StationFields};
use zymarch_formats::senml::Record;
use zymarch_formats::{field, text};
use zymarch_store::id::{HeapId, ProbeId, SiteId};

use crate::device::player::Playing;
use crate::http::asking::Asking;
use crate::http::body::{Body, Id};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, App};

/// Write down what a probe read, as SenML (RFC 8428)
///
/// The probe is known by what it sends as `Authorization: Bearer …`, and may do nothing else.
#[utoipa::path(post, operation_id = "probe_report", tag = "device", path = "/api/readings", request_body(content = Vec<Record>, content_type = "application/senml+json"), responses(
    (status = 200, body = Reported),
    Refusals,
))]
pub(crate) async fn report(
    State(app): State<App>,
    headers: HeaderMap,
    body: Bytes,
) -> Result<Json<Reported>, ApiError> {
    let token = headers.get(AUTHORIZATION).and_then(|value| value.to_str().ok());
    let token = token.and_then(|value| value.strip_prefix("Bearer ")).map(|token| hash(token.trim()));
    let token = token.ok_or_else(|| Fault::new(FaultCode::NoSuchProbe))?;
    let pack: Vec<Record> = field::read(&text::decoded(body.into())?)?;
    Ok(Json(app.gate.report(token, pack).await?))
}

/// The probes of a heap
#[utoipa::path(get, operation_id = "heap_probes", tag = "device", path = "/api/heaps/{id}/probes", params(("id" = HeapId, Path)), responses(
    (status = 200, body = Vec<ProbeTold>),
    Refusals,
))]
pub(crate) async fn of_heap(asking: Asking, Id(id): Id<HeapId>) -> Answer<Vec<ProbeTold>> {
    asking.ask(Deed::Look.of(id), move |tx, _| probe::list(tx, StandsIn::Heap(id))).await
}

/// Write a probe of a heap down; the answer holds what it is known by, once
#[utoipa::path(post, operation_id = "heap_add_probe", tag = "device", path = "/api/heaps/{id}/probes", params(("id" = HeapId, Path)), request_body = ProbeFields, responses(
    (status = 200, body = ProbeMade),
    Refusals,
))]
pub(crate) async fn add_to_heap(
    asking: Asking,
    Id(id): Id<HeapId>,
    Body(body): Body<ProbeFields>,
) -> Answer<ProbeMade> {
    asking.act(Deed::Keep.of(id), move |tx, who| probe::add(tx, who, (StandsIn::Heap(id), body))).await
}

/// Cut a probe of a heap off; what it sent stays
#[utoipa::path(delete, operation_id = "heap_end_probe", tag = "device", path = "/api/heaps/{id}/probes/{probe}", params(("id" = HeapId, Path), ("probe" = ProbeId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn end_of_heap(
    asking: Asking,
    Id((id, of)): Id<(HeapId, ProbeId)>,
) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Keep.of(id), move |tx, who| probe::end(tx, who, (StandsIn::Heap(id), of))).await
}

/// Take out all that a probe of a heap sent, and cut it off
#[utoipa::path(post, operation_id = "heap_take_out_probe", tag = "device", path = "/api/heaps/{id}/probes/{probe}/take-out", params(("id" = HeapId, Path), ("probe" = ProbeId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn take_out_of_heap(
    asking: Asking,
    Id((id, of)): Id<(HeapId, ProbeId)>,
) -> Result<StatusCode, ApiError> {
    let stands = StandsIn::Heap(id);
    asking.done(Deed::Keep.of(id), move |tx, who| simulated::take_out(tx, who, (stands, of))).await
}

/// Put a simulated rod into a heap: it sends what the heat model expects, with noise
#[utoipa::path(post, operation_id = "heap_simulated_rod", tag = "simulated", path = "/api/heaps/{id}/simulated-rod", params(("id" = HeapId, Path)), request_body = RodFields, responses(
    (status = 200, body = ProbeTold),
    Refusals,
))]
pub(crate) async fn rod(
    asking: Asking,
    Id(id): Id<HeapId>,
    Body(body): Body<RodFields>,
) -> Result<Json<ProbeTold>, ApiError> {
    let speed = body.hours_a_second;
    let played = asking.did(Deed::Keep.of(id), move |tx, who| simulated::rod(tx, who, (id, &body))).await?;
    let told = ProbeTold::from(&played.probe);
    Playing { app: asking.app, token: played.token, speed }.rod(id, played.plays);
    Ok(Json(told))
}

/// The probes of a site, which read its air and its rain
#[utoipa::path(get, operation_id = "site_probes", tag = "device", path = "/api/sites/{id}/probes", params(("id" = SiteId, Path)), responses(
    (status = 200, body = Vec<ProbeTold>),
    Refusals,
))]
pub(crate) async fn of_site(asking: Asking, Id(id): Id<SiteId>) -> Answer<Vec<ProbeTold>> {
    asking.ask(Deed::Look.of(id), move |tx, _| probe::list(tx, StandsIn::Site(id))).await
}

/// Write a probe of a site down; the answer holds what it is known by, once
#[utoipa::path(post, operation_id = "site_add_probe", tag = "device", path = "/api/sites/{id}/probes", params(("id" = SiteId, Path)), request_body = ProbeFields, responses(
    (status = 200, body = ProbeMade),
    Refusals,
))]
pub(crate) async fn add_to_site(
    asking: Asking,
    Id(id): Id<SiteId>,
    Body(body): Body<ProbeFields>,
) -> Answer<ProbeMade> {
    asking.act(Deed::Keep.of(id), move |tx, who| probe::add(tx, who, (StandsIn::Site(id), body))).await
}

/// Cut a probe of a site off; what it sent stays
#[utoipa::path(delete, operation_id = "site_end_probe", tag = "device", path = "/api/sites/{id}/probes/{probe}", params(("id" = SiteId, Path), ("probe" = ProbeId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn end_of_site(
    asking: Asking,
    Id((id, of)): Id<(SiteId, ProbeId)>,
) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Keep.of(id), move |tx, who| probe::end(tx, who, (StandsIn::Site(id), of))).await
}

/// Take out all that a probe of a site sent, and cut it off
#[utoipa::path(post, operation_id = "site_take_out_probe", tag = "device", path = "/api/sites/{id}/probes/{probe}/take-out", params(("id" = SiteId, Path), ("probe" = ProbeId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn take_out_of_site(
    asking: Asking,
    Id((id, of)): Id<(SiteId, ProbeId)>,
) -> Result<StatusCode, ApiError> {
    let stands = StandsIn::Site(id);
    asking.done(Deed::Keep.of(id), move |tx, who| simulated::take_out(tx, who, (stands, of))).await
}

/// Set up a simulated weather station at a site: air and rain as its months are
#[utoipa::path(post, operation_id = "site_simulated_station", tag = "simulated", path = "/api/sites/{id}/simulated-station", params(("id" = SiteId, Path)), request_body = StationFields, responses(
    (status = 200, body = ProbeTold),
    Refusals,
))]
pub(crate) async fn station(
    asking: Asking,
    Id(id): Id<SiteId>,
    Body(body): Body<StationFields>,
) -> Result<Json<ProbeTold>, ApiError> {
    let speed = body.hours_a_second;
    let played =
        asking.did(Deed::Keep.of(id), move |tx, who| simulated::station(tx, who, (id, &body))).await?;
    let (told, probe) = (ProbeTold::from(&played.probe), played.probe.id);
    Playing { app: asking.app, token: played.token, speed }.station(id, probe, played.plays);
    Ok(Json(told))
}
