//! The best mix that a stock allows, what a rule of thumb gives, what to add to a mix.

use axum::Json;
use axum::extract::State;
use zymarch_formats::correct::{self, CorrectAnswer, CorrectRequest};
use zymarch_formats::formulate::{self, FormulateAnswer, FormulateRequest};
use zymarch_formats::thumb::{self, ThumbAnswer, ThumbRule};

use crate::http::body::DocumentBody;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// The best mix that a stock allows, or the nearest: the same answer as `zymarch formulate`
#[utoipa::path(post, operation_id = "formulate_ask", tag = "formulate", path = "/api/formulate", request_body = FormulateRequest, responses(
    (status = 200, body = FormulateAnswer),
    Refusals,
))]
pub(super) async fn best(
    State(state): State<App>,
    body: DocumentBody<FormulateRequest>,
) -> Result<Json<FormulateAnswer>, ApiError> {
    let catalogue = state.catalogue();
    body.answer(move |sent| formulate::answer(sent, &catalogue)).await
}

/// What a rule of thumb truly gives: the same answer as `zymarch thumb`
#[utoipa::path(post, operation_id = "formulate_thumb", tag = "formulate", path = "/api/thumb", request_body = ThumbRule, responses(
    (status = 200, body = ThumbAnswer),
    Refusals,
))]
pub(super) async fn by_rule(
    State(state): State<App>,
    body: DocumentBody<ThumbRule>,
) -> Result<Json<ThumbAnswer>, ApiError> {
    let catalogue = state.catalogue();
    body.answer(move |sent| thumb::answer(sent, &catalogue)).await
}

/// What to add to a mix to bring it to the middle: the same answer as `zymarch correct`
#[utoipa::path(post, operation_id = "formulate_correct", tag = "formulate", path = "/api/correct", request_body = CorrectRequest, responses(
    (status = 200, body = CorrectAnswer),
    Refusals,
))]
pub(super) async fn correction(
    State(state): State<App>,
    body: DocumentBody<CorrectRequest>,
) -> Result<Json<CorrectAnswer>, ApiError> {
    let catalogue = state.catalogue();
    body.answer(move |sent| correct::answer(sent, &catalogue)).await
}
