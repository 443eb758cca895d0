//! The heat of heaps, to be drawn.

use serde::Deserialize;
use utoipa::IntoParams;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::tend;
use zymarch_farm::tend::strip::{self, HeapStrip};
use zymarch_farm::tend::trace::{self, Trace, Wanted};
use zymarch_formats::heat::HeatRequest;
use zymarch_store::id::{HeapId, SiteId};

use crate::http::asking::Asking;
use crate::http::body::{Id, Question};
use crate::http::problem::Refusals;
use crate::state::Answer;

/// Which part of a trace, and how closely.
#[derive(Debug, Clone, Copy, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Part {
    /// From when, milliseconds since 1970; from the start if left out.
    from_ms: Option<i64>,
    /// Until when, milliseconds since 1970; to the end if left out.
    to_ms: Option<i64>,
    /// Columns that the picture has, 10 to 2000.
    columns: Option<usize>,
}

/// Columns of a picture, where nothing is said.
const USUAL_COLUMNS: usize = 400;

/// The heat of a heap, to be drawn: however many readings there are, no extreme is lost
#[utoipa::path(get, operation_id = "heap_trace", tag = "tend", path = "/api/heaps/{id}/trace", params(("id" = HeapId, Path), Part), responses(
    (status = 200, body = Trace),
    Refusals,
))]
pub(crate) async fn trace(
    asking: Asking,
    Id(id): Id<HeapId>,
    Question(part): Question<Part>,
) -> Answer<Trace> {
    let columns = part.columns.unwrap_or(USUAL_COLUMNS);
    let wanted = Wanted { from_ms: part.from_ms, to_ms: part.to_ms, columns };
    asking.ask(Deed::Look.of(id), move |tx, _| trace::trace(tx, (id, wanted))).await
}

/// A heap as a document of the heat model, as `zymarch heat` and `zymarch probe` take it
#[utoipa::path(get, operation_id = "heap_heat", tag = "tend", path = "/api/heaps/{id}/heat", params(("id" = HeapId, Path)), responses(
    (status = 200, body = HeatRequest),
    Refusals,
))]
pub(crate) async fn document(asking: Asking, Id(id): Id<HeapId>) -> Answer<HeatRequest> {
    asking.ask(Deed::Look.of(id), move |tx, _| tend::document(tx, id)).await
}

/// The heaps of a site that are built, each as a strip of days
#[utoipa::path(get, operation_id = "heap_strips", tag = "tend", path = "/api/sites/{site}/strips", params(("site" = SiteId, Path)), responses(
    (status = 200, body = Vec<HeapStrip>),
    Refusals,
))]
pub(crate) async fn strips(asking: Asking, Id(id): Id<SiteId>) -> Answer<Vec<HeapStrip>> {
    asking.ask(Deed::Look.of(id), move |tx, _| strip::strips(tx, id)).await
}
