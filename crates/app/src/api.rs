//! The HTTP API: requests in, the core and the store asked, answers out.
//!
//! All routes stand in [`router`]. Handlers take what the extractors have
//! checked, make one call, and leave errors to
//! [`ApiError`](crate::http::problem::ApiError).

mod about;
mod batch;
mod bench;
pub(crate) mod convert;
mod lot;
mod material;
mod measure;
mod mix;
pub mod schema;
mod site;

use axum::Router;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::state::App;

#[derive(OpenApi)]
#[openapi(info(
    title = "Zymarch",
    description = "Formulates, builds and tends compost batches. Every error is problem+json and names the field."
))]
struct Description;

fn described() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Description::openapi())
        .routes(routes!(about::about))
        .routes(routes!(material::list))
        .routes(routes!(mix::sum))
        .routes(routes!(mix::working))
        .routes(routes!(bench::ask))
        .routes(routes!(site::list))
        .routes(routes!(site::rename))
        .routes(routes!(measure::list, measure::create))
        .routes(routes!(measure::change))
        .routes(routes!(lot::list, lot::create))
        .routes(routes!(lot::change, lot::remove))
        .routes(routes!(lot::restore))
        .routes(routes!(batch::list, batch::create))
        .routes(routes!(batch::get, batch::change, batch::remove))
        .routes(routes!(batch::restore))
}

/// The routes.
pub(crate) fn router() -> Router<App> {
    described().into()
}

/// The description of the API that the web client's types are made from.
#[must_use]
pub fn description() -> utoipa::openapi::OpenApi {
    described().into_openapi()
}
