//! The best mix, the method that suits, what to prepare.

use axum::Json;
use axum::extract::State;
use zymarch_farm::plan;
use zymarch_farm::plan::place::{self, PlaceAnswer, PlaceRequest};
use zymarch_farm::plan::prepare::{self, PrepareAnswer, PrepareRequest, StarterRow};
use zymarch_farm::plan::suit::{self, SuitAnswer, SuitRequest};
use zymarch_formats::formulate::{FormulateAnswer, FormulateRequest};

use crate::http::body::{Body, DocumentBody};
use crate::http::problem::Refusals;
use crate::state::{Answer, App};

/// The best mix that a stock allows, or the nearest: the same answer as `zymarch formulate`
#[utoipa::path(post, operation_id = "formulate_ask", tag = "formulate", path = "/api/formulate", request_body = FormulateRequest, responses(
    (status = 200, body = FormulateAnswer),
    Refusals,
))]
pub(crate) async fn formulate(
    State(app): State<App>,
    body: DocumentBody<FormulateRequest>,
) -> Answer<FormulateAnswer> {
    app.search(move |tx| body.told(|sent| plan::formulate(tx.catalogue(), tx.draws(), sent))).await
}

/// All methods, the best suited first, with the reasons for and against each
#[utoipa::path(post, operation_id = "method_suit", tag = "method", path = "/api/methods/suit", request_body = SuitRequest, responses(
    (status = 200, body = Vec<SuitAnswer>),
    Refusals,
))]
pub(crate) async fn suited(State(app): State<App>, Body(body): Body<SuitRequest>) -> Answer<Vec<SuitAnswer>> {
    app.ask(move |tx| suit::suit(tx, &body)).await
}

/// What a corner of ground holds, and by when to build in it
#[utoipa::path(post, operation_id = "place_ask", tag = "method", path = "/api/place", request_body = PlaceRequest, responses(
    (status = 200, body = PlaceAnswer),
    Refusals,
))]
pub(crate) async fn placed(State(app): State<App>, Body(body): Body<PlaceRequest>) -> Answer<PlaceAnswer> {
    app.ask(move |tx| place::place(tx, &body)).await
}

/// What is to be done before a batch is built
#[utoipa::path(post, operation_id = "prepare_ask", tag = "prepare", path = "/api/prepare", request_body = PrepareRequest, responses(
    (status = 200, body = PrepareAnswer),
    Refusals,
))]
pub(crate) async fn to_prepare(
    State(app): State<App>,
    Body(body): Body<PrepareRequest>,
) -> Answer<PrepareAnswer> {
    app.ask(move |tx| prepare::prepare(tx, &body)).await
}

/// The starters
#[utoipa::path(get, operation_id = "starter_list", tag = "prepare", path = "/api/starters", responses((status = 200, body = Vec<StarterRow>), Refusals))]
pub(crate) async fn starters() -> Json<Vec<StarterRow>> {
    Json(prepare::starters())
}
