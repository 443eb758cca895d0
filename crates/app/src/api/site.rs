//! Farms and plots.

use axum::Json;
use axum::extract::{Path, State};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_store::id::SiteId;
use zymarch_store::site;

use super::convert;
use crate::http::body::Body;
use crate::http::problem::{ApiError, Problem};
use crate::state::App;

/// A farm or plot.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Site {
    id: i64,
    /// What people call it.
    name: String,
}

/// What may be changed of a site.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct SiteBody {
    /// What people call it.
    name: String,
}

impl From<site::Site> for Site {
    fn from(site: site::Site) -> Self {
        Self { id: site.id.0, name: site.name }
    }
}

/// Every site
#[utoipa::path(get, operation_id = "site_list", tag = "site", path = "/api/sites", responses((status = 200, body = Vec<Site>)))]
pub(super) async fn list(State(state): State<App>) -> Result<Json<Vec<Site>>, ApiError> {
    let sites = state.store.read(|conn| site::all(conn)).await?;
    Ok(Json(sites.into_iter().map(Site::from).collect()))
}

/// Give a site another name
#[utoipa::path(put, operation_id = "site_rename", tag = "site", path = "/api/sites/{id}", params(("id" = i64, Path)), request_body = SiteBody, responses(
    (status = 200, body = Site),
    (status = 404, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn rename(
    State(state): State<App>,
    Path(id): Path<i64>,
    Body(body): Body<SiteBody>,
) -> Result<Json<Site>, ApiError> {
    let name = convert::name("name", &body.name)?;
    let site = state.store.write(move |conn| site::rename(conn, SiteId(id), &name)).await?;
    Ok(Json(site.into()))
}
