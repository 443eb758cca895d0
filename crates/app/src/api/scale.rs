//! The simulated hanging scale. It is read as a real one would be, in SenML.

use axum::Json;
use axum::extract::State;
use axum::http::header::CONTENT_TYPE;
use axum::response::IntoResponse;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_formats::field::Refusal;
use zymarch_formats::senml::{MEDIA_TYPE, Record};

use crate::device::MOST_KG;
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// What is hung on the scale.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct Load {
    /// What it weighs, kg; 0 empties the hook.
    kg: f64,
}

/// What the simulated hanging scale shows now, as SenML (RFC 8428)
#[utoipa::path(get, operation_id = "scale_read", tag = "simulated", path = "/api/simulated/scale", responses(
    (status = 200, body = Vec<Record>, content_type = "application/senml+json"),
))]
pub(super) async fn read(State(state): State<App>) -> impl IntoResponse {
    senml(&state)
}

/// Hang something on the simulated scale
#[utoipa::path(put, operation_id = "scale_hang", tag = "simulated", path = "/api/simulated/scale", request_body = Load, responses(
    (status = 200, body = Vec<Record>, content_type = "application/senml+json"),
    Refusals,
))]
pub(super) async fn hang(
    State(state): State<App>,
    Body(load): Body<Load>,
) -> Result<impl IntoResponse, ApiError> {
    if !(0.0..=MOST_KG).contains(&load.kg) {
        return Err(Refusal::one("kg", format!("must be from 0 to {MOST_KG}, got {}", load.kg)).into());
    }
    state.scale.hang(load.kg);
    Ok(senml(&state))
}

fn senml(state: &App) -> impl IntoResponse + use<> {
    ([(CONTENT_TYPE, MEDIA_TYPE)], Json(state.scale.read()))
}
