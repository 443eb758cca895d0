//! Sums of a recipe.

use axum::Json;
use axum::extract::State;
use zymarch_formats::mix::{self, MixAnswer};
use zymarch_formats::recipe::Recipe;
use zymarch_formats::working::{self, Workings};

use crate::http::body::RecipeBody;
use crate::http::problem::{ApiError, Problem};
use crate::state::App;

/// What a recipe comes to: the same answer as `zymarch mix`
#[utoipa::path(post, operation_id = "mix_sum", tag = "mix", path = "/api/mix", request_body = Recipe, responses(
    (status = 200, body = MixAnswer),
    (status = 422, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn sum(
    State(state): State<App>,
    RecipeBody { recipe, text }: RecipeBody,
) -> Result<Json<MixAnswer>, ApiError> {
    Ok(Json(mix::answer(&recipe, &state.catalogue()).map_err(|refusal| refusal.located_in(&text))?))
}

/// How every figure of a recipe comes about: the same answer as `zymarch working`
#[utoipa::path(post, operation_id = "mix_working", tag = "mix", path = "/api/working", request_body = Recipe, responses(
    (status = 200, body = Workings),
    (status = 422, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn working(
    State(state): State<App>,
    RecipeBody { recipe, text }: RecipeBody,
) -> Result<Json<Workings>, ApiError> {
    Ok(Json(working::of(&recipe, &state.catalogue()).map_err(|refusal| refusal.located_in(&text))?))
}
