//! The best mix that a stock allows.

use axum::Json;
use axum::extract::State;
use zymarch_formats::formulate::{self, FormulateAnswer, FormulateRequest};

use crate::http::body::FormulateBody;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// The best mix that a stock allows, or the nearest: the same answer as `zymarch formulate`
#[utoipa::path(post, operation_id = "formulate_ask", tag = "formulate", path = "/api/formulate", request_body = FormulateRequest, responses(
    (status = 200, body = FormulateAnswer),
    Refusals,
))]
pub(super) async fn ask(
    State(state): State<App>,
    FormulateBody { request, text }: FormulateBody,
) -> Result<Json<FormulateAnswer>, ApiError> {
    let catalogue = state.catalogue();
    // In whole measures it may take a good part of a second: not on a thread that others wait for.
    let answer = tokio::task::spawn_blocking(move || formulate::answer(&request, &catalogue))
        .await
        .map_err(|_| ApiError::Broken)?;
    Ok(Json(answer.map_err(|refusal| refusal.located_in(&text))?))
}
