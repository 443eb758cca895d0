//! The best mix, the method that suits, what to prepare.

use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::plan::place::{self, PlaceAnswer, PlaceRequest};
use zymarch_farm::plan::prepare::{self, PrepareAnswer, PrepareRequest, StarterRow};
use zymarch_farm::plan::suit::{self, SuitAnswer, SuitRequest};
use zymarch_farm::{Transaction, plan};
use zymarch_formats::formulate::{FormulateAnswer, FormulateRequest};

use crate::http::asking::Asking;
use crate::http::body::{Body, DocumentBody};
use crate::http::problem::Refusals;
use crate::state::Answer;

/// The best mix that a stock allows, or the nearest: the same answer as `zymarch formulate`
#[utoipa::path(post, operation_id = "formulate_ask", tag = "formulate", path = "/api/formulate", request_body = FormulateRequest, responses(
    (status = 200, body = FormulateAnswer),
    Refusals,
))]
pub(crate) async fn formulate(
    asking: Asking,
    body: DocumentBody<FormulateRequest>,
) -> Answer<FormulateAnswer> {
    let turn = asking.turn().await;
    let words = format!("formulate {}", body.text);
    let find = move |tx: &Transaction<'_>| {
        let found = body.told(|sent| plan::formulate(tx.catalogue(), tx.draws(), sent));
        drop(turn);
        found
    };
    asking.again(Deed::Look.anywhere(), words, |tx| Ok(tx.shared_catalogue()), find).await
}

/// All methods, the best suited first, with the reasons for and against each
#[utoipa::path(post, operation_id = "method_suit", tag = "method", path = "/api/methods/suit", request_body = SuitRequest, responses(
    (status = 200, body = Vec<SuitAnswer>),
    Refusals,
))]
pub(crate) async fn suited(asking: Asking, Body(body): Body<SuitRequest>) -> Answer<Vec<SuitAnswer>> {
    asking.ask(Deed::Look.anywhere(), move |tx, _| suit::suit(tx, &body)).await
}

/// What a corner of ground holds, and by when to build in it
#[utoipa::path(post, operation_id = "place_ask", tag = "method", path = "/api/place", request_body = PlaceRequest, responses(
    (status = 200, body = PlaceAnswer),
    Refusals,
))]
pub(crate) async fn placed(asking: Asking, Body(body): Body<PlaceRequest>) -> Answer<PlaceAnswer> {
    asking.ask(Deed::Look.anywhere(), move |tx, _| place::place(tx, &body)).await
}

/// What is to be done before a batch is built
#[utoipa::path(post, operation_id = "prepare_ask", tag = "prepare", path = "/api/prepare", request_body = PrepareRequest, responses(
    (status = 200, body = PrepareAnswer),
    Refusals,
))]
pub(crate) async fn to_prepare(asking: Asking, Body(body): Body<PrepareRequest>) -> Answer<PrepareAnswer> {
    asking.ask(Deed::Look.anywhere(), move |tx, _| prepare::prepare(tx, &body)).await
}

/// The starters
#[utoipa::path(get, operation_id = "starter_list", tag = "prepare", path = "/api/starters", responses((status = 200, body = Vec<StarterRow>), Refusals))]
pub(crate) async fn starters(asking: Asking) -> Answer<Vec<StarterRow>> {
    asking.ask(Deed::Look.anywhere(), |_, _| Ok(prepare::starters())).await
}
