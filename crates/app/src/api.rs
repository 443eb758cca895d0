//! The HTTP API, by stage: a handler takes a request apart, makes one call, and answers.
//!
//! All routes stand in [`router`]. No rule of composting or of stock is here; refusals
//! are left to [`ApiError`](crate::http::problem::ApiError).

mod about;
mod build;
mod finish;
mod mix;
mod people;
mod plan;
pub mod schema;
mod stock;
mod tend;
mod whole;

use axum::Router;
use axum::extract::DefaultBodyLimit;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use zymarch_formats::logger::LARGEST_FILE;

use crate::state::App;

#[derive(OpenApi)]
#[openapi(
    info(
        title = "Zymarch",
        description = "Formulates, builds and tends compost batches. Every error is problem+json and names the field."
    ),
    components(schemas(crate::http::problem::Problem))
)]
struct Description;

/// The routes of a part of the API, described.
type Part = fn() -> OpenApiRouter<App>;

/// All parts. Each is described by itself, since a description takes far more memory than what it
/// describes, and the server needs none.
const PARTS: [Part; 10] = [
    of_about,
    of_people,
    of_places_and_materials,
    of_lots_and_tests,
    of_mix,
    of_plan,
    of_build,
    of_tend,
    of_finish,
    of_files,
];

fn of_about() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(about::about))
        .routes(routes!(about::limits))
        .routes(routes!(about::start))
}

fn of_people() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(people::me))
        .routes(routes!(people::door, people::sign_in))
        .routes(routes!(people::sign_out))
        .routes(routes!(people::first))
        .routes(routes!(people::set_passphrase))
        .routes(routes!(people::list, people::create))
        .routes(routes!(people::change, people::remove))
        .routes(routes!(people::restore))
        .routes(routes!(people::make_code, people::withdraw_code))
        .routes(routes!(people::cut_off))
        .routes(routes!(people::noted))
        .routes(routes!(people::network))
}

fn of_places_and_materials() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(stock::material::list, stock::material::create))
        .routes(routes!(stock::material::names))
        .routes(routes!(stock::material::check))
        .routes(routes!(stock::material::change, stock::material::remove))
        .routes(routes!(stock::material::restore))
        .routes(routes!(stock::material::export))
        .routes(routes!(stock::material::import))
        .routes(routes!(stock::site::list, stock::site::create))
        .routes(routes!(stock::site::change, stock::site::remove))
        .routes(routes!(stock::site::restore))
        .routes(routes!(stock::measure::list, stock::measure::create))
        .routes(routes!(stock::measure::volume))
        .routes(routes!(stock::measure::change, stock::measure::remove))
        .routes(routes!(stock::measure::restore))
}

fn of_lots_and_tests() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(stock::lot::list, stock::lot::create))
        .routes(routes!(stock::lot::change, stock::lot::remove))
        .routes(routes!(stock::lot::restore))
        .routes(routes!(stock::lot::history, stock::lot::note))
        .routes(routes!(stock::lot::undo))
        .routes(routes!(stock::field_test::list, stock::field_test::create))
        .routes(routes!(stock::field_test::reckon))
        .routes(routes!(stock::field_test::change, stock::field_test::remove))
        .routes(routes!(stock::field_test::restore))
        .routes(routes!(stock::sorted_out::list, stock::sorted_out::create))
        .routes(routes!(stock::sorted_out::remove))
        .routes(routes!(stock::sorted_out::restore))
        .routes(routes!(stock::scale::read, stock::scale::hang))
}

fn of_mix() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(mix::sum))
        .routes(routes!(mix::working))
        .routes(routes!(mix::confidence))
        .routes(routes!(mix::correct))
        .routes(routes!(mix::thumb))
        .routes(routes!(mix::say))
        .routes(routes!(mix::at_the_bench))
}

fn of_plan() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(plan::ask::formulate))
        .routes(routes!(plan::choices::choose))
        .routes(routes!(plan::ask::suited))
        .routes(routes!(plan::ask::placed))
        .routes(routes!(plan::ask::to_prepare))
        .routes(routes!(plan::ask::starters))
        .routes(routes!(plan::method::list, plan::method::copy))
        .routes(routes!(plan::method::change, plan::method::remove))
        .routes(routes!(plan::method::restore))
        .routes(routes!(plan::batch::list, plan::batch::create))
        .routes(routes!(plan::batch::get, plan::batch::change, plan::batch::remove))
        .routes(routes!(plan::batch::restore))
        .routes(routes!(plan::batch::take))
        .routes(routes!(plan::batch::give_back))
}

fn of_build() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(build::ahead))
        .routes(routes!(build::begin))
        .routes(routes!(build::built))
        .routes(routes!(build::list))
        .routes(routes!(build::get, build::remove))
        .routes(routes!(build::restore))
        .routes(routes!(build::lay))
        .routes(routes!(build::plan_anew))
        .routes(routes!(build::end))
        .routes(routes!(build::undo))
        .routes(routes!(build::take))
        .routes(routes!(build::give_back))
}

fn of_tend() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(tend::ask::heat))
        .routes(routes!(tend::ask::hygiene))
        .routes(routes!(tend::ask::diagnose))
        .routes(routes!(tend::log::get, tend::log::tend))
        .routes(routes!(tend::log::take_back))
        .routes(routes!(tend::log::bring_back))
        .routes(routes!(tend::log::photo))
        .routes(routes!(tend::log::table))
        .routes(routes!(tend::picture::trace))
        .routes(routes!(tend::picture::strips))
        .routes(routes!(tend::picture::document))
        .routes(routes!(tend::judge::judgement))
        .routes(routes!(tend::judge::today))
        .routes(routes!(tend::judge::tick))
        .routes(routes!(tend::judge::rules, tend::judge::set_rules))
        .routes(routes!(tend::calendar::of_site))
        .routes(routes!(tend::calendar::of_heap))
        .routes(routes!(tend::calendar::fetch))
        .routes(routes!(tend::calendar::told, tend::calendar::make, tend::calendar::end))
        .routes(routes!(tend::device::report))
        .routes(routes!(tend::device::of_heap, tend::device::add_to_heap))
        .routes(routes!(tend::device::end_of_heap))
        .routes(routes!(tend::device::take_out_of_heap))
        .routes(routes!(tend::device::rod))
        .routes(routes!(tend::device::of_site, tend::device::add_to_site))
        .routes(routes!(tend::device::end_of_site))
        .routes(routes!(tend::device::take_out_of_site))
        .routes(routes!(tend::device::station))
}

fn of_finish() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(finish::look::apply))
        .routes(routes!(finish::look::compared))
        .routes(routes!(finish::look::of_lot))
        .routes(routes!(finish::look::of_compost))
        .routes(routes!(finish::look::of_ground))
        .routes(routes!(finish::look::outlook, finish::compost::harvest))
        .routes(routes!(finish::compost::list))
        .routes(routes!(finish::compost::remove))
        .routes(routes!(finish::compost::happened))
        .routes(routes!(finish::compost::go))
        .routes(routes!(finish::compost::found))
        .routes(routes!(finish::compost::take_back))
        .routes(routes!(finish::ground::list, finish::ground::create))
        .routes(routes!(finish::ground::change, finish::ground::remove))
        .routes(routes!(finish::ground::restore))
        .routes(routes!(finish::ground::found))
        .routes(routes!(finish::ground::take_back))
}

/// What takes whole files in.
fn of_files() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(tend::log::look))
        .routes(routes!(tend::log::import))
        // A file as text in JSON: at worst every sign of it takes two.
        .layer(DefaultBodyLimit::max(2 * LARGEST_FILE))
}

fn described() -> OpenApiRouter<App> {
    let whole = OpenApiRouter::with_openapi(Description::openapi());
    PARTS.iter().fold(whole, |whole, part| whole.merge(part()))
}

/// The routes.
pub(crate) fn router() -> Router<App> {
    PARTS.iter().fold(Router::new(), |whole, part| whole.merge(Router::from(part())))
}

/// The description of the API that the web client's types are made from.
#[must_use]
pub fn description() -> utoipa::openapi::OpenApi {
    whole::made_whole(described().into_openapi())
}
