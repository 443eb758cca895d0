//! What this is and what time it has.

use axum::Json;
use axum::extract::State;
use serde::Serialize;
use utoipa::ToSchema;

use crate::http::problem::Refusals;
use zymarch_farm::limits::Limits;

use crate::state::App;

/// What this is.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct About {
    /// Version of the program.
    version: &'static str,
    /// The time it reckons with, RFC 3339.
    now: String,
    /// The day it reckons with, as 2026-03-14.
    today: String,
    /// Whether the farm is the made-up one.
    demo: bool,
}

/// What this is and what time it has
#[utoipa::path(get, operation_id = "about_about", tag = "about", path = "/api/about", responses((status = 200, body = About), Refusals))]
pub(super) async fn about(State(app): State<App>) -> Json<About> {
    let (now, today) = app.farm.clock().now();
    Json(About {
        version: env!("CARGO_PKG_VERSION"),
        now: now.to_string(),
        today: today.to_string(),
        demo: app.demo,
    })
}

/// What may be written where, for forms
#[utoipa::path(get, operation_id = "about_limits", tag = "about", path = "/api/limits", responses((status = 200, body = Limits), Refusals))]
pub(super) async fn limits() -> Json<Limits> {
    Json(zymarch_farm::limits::limits())
}
