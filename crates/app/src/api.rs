//! The HTTP API: requests in, the core and the store asked, answers out.
//!
//! All routes stand in [`router`]. Handlers take what the extractors have
//! checked, make one call, and leave errors to
//! [`ApiError`](crate::http::problem::ApiError).

mod about;
mod batch;
mod bench;
pub(crate) mod convert;
mod field_test;
mod formulate;
mod heap;
mod heap_stand;
mod heap_stock;
mod lot;
mod lot_history;
mod material;
mod material_file;
mod measure;
mod method;
mod mix;
mod part;
mod prepare;
mod scale;
pub mod schema;
mod site;
mod sorted_out;
mod taken;
mod tested;

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
        .routes(routes!(material::list, material::create))
        .routes(routes!(material::check))
        .routes(routes!(material::change, material::remove))
        .routes(routes!(material::restore))
        .routes(routes!(material_file::export))
        .routes(routes!(material_file::import))
        .routes(routes!(method::list, method::copy))
        .routes(routes!(method::change, method::remove))
        .routes(routes!(method::restore))
        .routes(routes!(method::rank))
        .routes(routes!(mix::sum))
        .routes(routes!(mix::working))
        .routes(routes!(mix::sure))
        .routes(routes!(bench::ask))
        .routes(routes!(prepare::ask))
        .routes(routes!(prepare::starters))
        .routes(routes!(formulate::best))
        .routes(routes!(formulate::by_rule))
        .routes(routes!(formulate::correction))
        .routes(routes!(site::list, site::create))
        .routes(routes!(site::change, site::remove))
        .routes(routes!(site::restore))
        .routes(routes!(measure::list, measure::create))
        .routes(routes!(measure::volume))
        .routes(routes!(measure::change, measure::remove))
        .routes(routes!(measure::restore))
        .routes(routes!(lot::list, lot::create))
        .routes(routes!(lot::change, lot::remove))
        .routes(routes!(lot::restore))
        .routes(routes!(lot_history::list, lot_history::create))
        .routes(routes!(lot_history::undo))
        .routes(routes!(field_test::list, field_test::create))
        .routes(routes!(field_test::reckon))
        .routes(routes!(field_test::change, field_test::remove))
        .routes(routes!(field_test::restore))
        .routes(routes!(sorted_out::list, sorted_out::create))
        .routes(routes!(sorted_out::remove))
        .routes(routes!(sorted_out::restore))
        .routes(routes!(scale::read, scale::hang))
        .routes(routes!(batch::list, batch::create))
        .routes(routes!(batch::get, batch::change, batch::remove))
        .routes(routes!(batch::restore))
        .routes(routes!(batch::take_from_stock))
        .routes(routes!(batch::give_back_to_stock))
        .routes(routes!(heap::begin))
        .routes(routes!(heap::list))
        .routes(routes!(heap::get, heap::remove))
        .routes(routes!(heap::restore))
        .routes(routes!(heap::lay))
        .routes(routes!(heap::plan_anew))
        .routes(routes!(heap::end))
        .routes(routes!(heap::undo))
        .routes(routes!(heap_stock::take_from_stock))
        .routes(routes!(heap_stock::give_back_to_stock))
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
