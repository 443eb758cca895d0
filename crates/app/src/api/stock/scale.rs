//! The simulated hanging scale. It is read as a real one would be, in SenML.

use axum::Json;
use axum::http::header::CONTENT_TYPE;
use axum::response::IntoResponse;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::At;
use zymarch_core::base::quantity;
use zymarch_core::people::Deed;
use zymarch_core::stock::field_test::HEAVIEST_KG;
use zymarch_farm::access::Wished as _;
use zymarch_formats::senml::{MEDIA_TYPE, Record};

use crate::http::asking::Asking;
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};

/// What is hung on the scale.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct Load {
    /// What it weighs, kg; 0 empties the hook.
    kg: f64,
}

/// What the simulated hanging scale shows now, as SenML (RFC 8428)
#[utoipa::path(get, operation_id = "scale_read", tag = "simulated", path = "/api/simulated/scale", responses(
    (status = 200, body = Vec<Record>, content_type = "application/senml+json"),
    Refusals,
))]
pub(crate) async fn read(asking: Asking) -> Result<impl IntoResponse, ApiError> {
    asking.looked(Deed::Look.anywhere(), |_, _| Ok(())).await?;
    Ok(senml(&asking.app))
}

/// Hang something on the simulated scale
#[utoipa::path(put, operation_id = "scale_hang", tag = "simulated", path = "/api/simulated/scale", request_body = Load, responses(
    (status = 200, body = Vec<Record>, content_type = "application/senml+json"),
    Refusals,
))]
pub(crate) async fn hang(asking: Asking, Body(load): Body<Load>) -> Result<impl IntoResponse, ApiError> {
    let kg = quantity::within(load.kg, 0.0, HEAVIEST_KG).map_err(|fault| At::ROOT.key("kg").put(fault))?;
    asking.looked(Deed::Work.anywhere(), |_, _| Ok(())).await?;
    asking.app.scale.hang(kg);
    Ok(senml(&asking.app))
}

fn senml(app: &crate::state::App) -> impl IntoResponse + use<> {
    ([(CONTENT_TYPE, MEDIA_TYPE)], Json(app.scale.read()))
}
