//! What a mix comes to, and what mends it.

use axum::extract::State;
use zymarch_farm::mix;
use zymarch_farm::mix::bench::{self, BenchAnswer, BenchRequest};
use zymarch_formats::confidence::ConfidenceAnswer;
use zymarch_formats::correct::{CorrectAnswer, CorrectRequest};
use zymarch_formats::mix::MixAnswer;
use zymarch_formats::recipe::Recipe;
use zymarch_formats::say::{SayAnswer, SayRequest};
use zymarch_formats::thumb::{ThumbAnswer, ThumbRule};
use zymarch_formats::working::Workings;

use crate::http::body::{Body, DocumentBody};
use crate::http::problem::Refusals;
use crate::state::{Answer, App};

/// What a recipe comes to: the same answer as `zymarch mix`
#[utoipa::path(post, operation_id = "mix_sum", tag = "mix", path = "/api/mix", request_body = Recipe, responses(
    (status = 200, body = MixAnswer),
    Refusals,
))]
pub(super) async fn sum(State(app): State<App>, body: DocumentBody<Recipe>) -> Answer<MixAnswer> {
    app.reckon(move |catalogue| body.told(|sent| mix::sum(catalogue, sent))).await
}

/// How every figure of a recipe comes about: the same answer as `zymarch working`
#[utoipa::path(post, operation_id = "mix_working", tag = "mix", path = "/api/working", request_body = Recipe, responses(
    (status = 200, body = Workings),
    Refusals,
))]
pub(super) async fn working(State(app): State<App>, body: DocumentBody<Recipe>) -> Answer<Workings> {
    app.reckon(move |catalogue| body.told(|sent| mix::working(catalogue, sent))).await
}

/// How sure the sums of a recipe are: the same answer as `zymarch confidence`
#[utoipa::path(post, operation_id = "mix_confidence", tag = "mix", path = "/api/confidence", request_body = Recipe, responses(
    (status = 200, body = ConfidenceAnswer),
    Refusals,
))]
pub(super) async fn confidence(
    State(app): State<App>,
    body: DocumentBody<Recipe>,
) -> Answer<ConfidenceAnswer> {
    app.reckon(move |catalogue| body.told(|sent| mix::confidence(catalogue, sent))).await
}

/// What to add to a mix to bring it to the middle: the same answer as `zymarch correct`
#[utoipa::path(post, operation_id = "formulate_correct", tag = "formulate", path = "/api/correct", request_body = CorrectRequest, responses(
    (status = 200, body = CorrectAnswer),
    Refusals,
))]
pub(super) async fn correct(
    State(app): State<App>,
    body: DocumentBody<CorrectRequest>,
) -> Answer<CorrectAnswer> {
    app.reckon(move |catalogue| body.told(|sent| mix::correct(catalogue, sent))).await
}

/// What a rule of thumb truly gives: the same answer as `zymarch thumb`
#[utoipa::path(post, operation_id = "formulate_thumb", tag = "formulate", path = "/api/thumb", request_body = ThumbRule, responses(
    (status = 200, body = ThumbAnswer),
    Refusals,
))]
pub(super) async fn thumb(State(app): State<App>, body: DocumentBody<ThumbRule>) -> Answer<ThumbAnswer> {
    app.reckon(move |catalogue| body.told(|sent| mix::thumb(catalogue, sent))).await
}

/// What is understood of stock said in a sentence: the same answer as `zymarch read`
#[utoipa::path(post, operation_id = "mix_say", tag = "mix", path = "/api/say", request_body = SayRequest, responses(
    (status = 200, body = SayAnswer),
    Refusals,
))]
pub(super) async fn say(State(app): State<App>, body: DocumentBody<SayRequest>) -> Answer<SayAnswer> {
    app.reckon(move |catalogue| body.told(|sent| mix::say(catalogue, sent))).await
}

/// Everything the bench shows for one state of a mix
#[utoipa::path(post, operation_id = "bench_ask", tag = "bench", path = "/api/bench", request_body = BenchRequest, responses(
    (status = 200, body = BenchAnswer),
    Refusals,
))]
pub(super) async fn at_the_bench(
    State(app): State<App>,
    Body(body): Body<BenchRequest>,
) -> Answer<BenchAnswer> {
    app.ask(move |tx| bench::bench(tx, &body)).await
}
