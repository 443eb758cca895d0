//! The ways of composting.

use axum::Json;
use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::method;

/// A way of composting.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Method {
    /// Stable word.
    id: &'static str,
    /// How hot its heap gets: `hot`, `hot-if-turned`, `warm`, `cool` or `worms`.
    heat: &'static str,
    /// How often it is turned: `often`, `sometimes` or `never`.
    turned: &'static str,
}

/// The ways of composting
#[utoipa::path(get, operation_id = "method_list", tag = "method", path = "/api/methods", responses((status = 200, body = Vec<Method>)))]
pub(super) async fn list() -> Json<Vec<Method>> {
    let one = |method: &method::Method| Method {
        id: method.id,
        heat: method.heat.as_str(),
        turned: method.turned.as_str(),
    };
    Json(method::all().iter().map(one).collect())
}
