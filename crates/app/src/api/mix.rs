//! Sums of a recipe, their workings, and how sure they are.

use axum::Json;
use axum::extract::State;
use zymarch_formats::confidence::{self, ConfidenceAnswer};
use zymarch_formats::mix::{self, MixAnswer};
use zymarch_formats::recipe::Recipe;
use zymarch_formats::working::{self, Workings};

use crate::http::body::DocumentBody;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// What a recipe comes to: the same answer as `zymarch mix`
#[utoipa::path(post, operation_id = "mix_sum", tag = "mix", path = "/api/mix", request_body = Recipe, responses(
    (status = 200, body = MixAnswer),
    Refusals,
))]
pub(super) async fn sum(
    State(state): State<App>,
    body: DocumentBody<Recipe>,
) -> Result<Json<MixAnswer>, ApiError> {
    // A sum takes less than handing it to another thread would.
    Ok(Json(mix::answer(&body.sent, &state.catalogue()).map_err(|refusal| refusal.located_in(&body.text))?))
}

/// How every figure of a recipe comes about: the same answer as `zymarch working`
#[utoipa::path(post, operation_id = "mix_working", tag = "mix", path = "/api/working", request_body = Recipe, responses(
    (status = 200, body = Workings),
    Refusals,
))]
pub(super) async fn working(
    State(state): State<App>,
    body: DocumentBody<Recipe>,
) -> Result<Json<Workings>, ApiError> {
    let catalogue = state.catalogue();
    body.answer(move |recipe| working::of(recipe, &catalogue)).await
}

/// How sure the sums of a recipe are: the same answer as `zymarch confidence`
#[utoipa::path(post, operation_id = "mix_confidence", tag = "mix", path = "/api/confidence", request_body = Recipe, responses(
    (status = 200, body = ConfidenceAnswer),
    Refusals,
))]
pub(super) async fn sure(
    State(state): State<App>,
    body: DocumentBody<Recipe>,
) -> Result<Json<ConfidenceAnswer>, ApiError> {
    let catalogue = state.catalogue();
    body.answer(move |recipe| confidence::answer(recipe, &catalogue)).await
}
