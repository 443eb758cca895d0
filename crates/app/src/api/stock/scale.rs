//! The simulated hanging scale. It is read as a real one would be, in SenML.

use axum::Json;
use axum::extract::State;
use axum::http::header::CONTENT_TYPE;
use axum::response::IntoResponse;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::At;
use zymarch_core::base::quantity;
use zymarch_core::stock::field_test::HEAVIEST_KG;
use zymarch_formats::senml::{MEDIA_TYPE, Record};

use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

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
pub(crate) async fn read(State(app): State<App>) -> impl IntoResponse {
    senml(&app)
}

/// Hang something on the simulated scale
#[utoipa::path(put, operation_id = "scale_hang", tag = "simulated", path = "/api/simulated/scale", request_body = Load, responses(
    (status = 200, body = Vec<Record>, content_type = "application/senml+json"),
    Refusals,
))]
pub(crate) async fn hang(
    State(app): State<App>,
    Body(load): Body<Load>,
) -> Result<impl IntoResponse, ApiError> {
    let kg = quantity::within(load.kg, 0.0, HEAVIEST_KG).map_err(|fault| At::ROOT.key("kg").put(fault))?;
    app.scale.hang(kg);
    Ok(senml(&app))
}

fn senml(app: &App) -> impl IntoResponse + use<> {
    ([(CONTENT_TYPE, MEDIA_TYPE)], Json(app.scale.read()))
}
