//! What a mix comes to, and what mends it.

use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::mix;
use zymarch_farm::mix::bench::{self, BenchAnswer, BenchRequest};
use zymarch_formats::confidence::ConfidenceAnswer;
use zymarch_formats::correct::{CorrectAnswer, CorrectRequest};
use zymarch_formats::mix::MixAnswer;
use zymarch_formats::recipe::Recipe;
use zymarch_formats::say::{SayAnswer, SayRequest};
use zymarch_formats::thumb::{ThumbAnswer, ThumbRule};
use zymarch_formats::working::Workings;

use crate::http::asking::Asking;
use crate::http::body::{BodyInWords, DocumentBody};
use crate::http::problem::Refusals;
use crate::state::Answer;

/// What a recipe comes to: the same answer as `zymarch mix`
#[utoipa::path(post, operation_id = "mix_sum", tag = "mix", path = "/api/mix", request_body = Recipe, responses(
    (status = 200, body = MixAnswer),
    Refusals,
))]
pub(super) async fn sum(asking: Asking, body: DocumentBody<Recipe>) -> Answer<MixAnswer> {
    asking.reckon(move |catalogue| body.told(|sent| mix::sum(catalogue, sent))).await
}

/// How every figure of a recipe comes about: the same answer as `zymarch working`
#[utoipa::path(post, operation_id = "mix_working", tag = "mix", path = "/api/working", request_body = Recipe, responses(
    (status = 200, body = Workings),
    Refusals,
))]
pub(super) async fn working(asking: Asking, body: DocumentBody<Recipe>) -> Answer<Workings> {
    asking.reckon(move |catalogue| body.told(|sent| mix::working(catalogue, sent))).await
}

/// How sure the sums of a recipe are: the same answer as `zymarch confidence`
#[utoipa::path(post, operation_id = "mix_confidence", tag = "mix", path = "/api/confidence", request_body = Recipe, responses(
    (status = 200, body = ConfidenceAnswer),
    Refusals,
))]
pub(super) async fn confidence(asking: Asking, body: DocumentBody<Recipe>) -> Answer<ConfidenceAnswer> {
    asking.reckon(move |catalogue| body.told(|sent| mix::confidence(catalogue, sent))).await
}

/// What to add to a mix to bring it to the middle: the same answer as `zymarch correct`
#[utoipa::path(post, operation_id = "formulate_correct", tag = "formulate", path = "/api/correct", request_body = CorrectRequest, responses(
    (status = 200, body = CorrectAnswer),
    Refusals,
))]
pub(super) async fn correct(asking: Asking, body: DocumentBody<CorrectRequest>) -> Answer<CorrectAnswer> {
    asking.reckon(move |catalogue| body.told(|sent| mix::correct(catalogue, sent))).await
}

/// What a rule of thumb truly gives: the same answer as `zymarch thumb`
#[utoipa::path(post, operation_id = "formulate_thumb", tag = "formulate", path = "/api/thumb", request_body = ThumbRule, responses(
    (status = 200, body = ThumbAnswer),
    Refusals,
))]
pub(super) async fn thumb(asking: Asking, body: DocumentBody<ThumbRule>) -> Answer<ThumbAnswer> {
    asking.reckon(move |catalogue| body.told(|sent| mix::thumb(catalogue, sent))).await
}

/// What is understood of stock said in a sentence: the same answer as `zymarch read`
#[utoipa::path(post, operation_id = "mix_say", tag = "mix", path = "/api/say", request_body = SayRequest, responses(
    (status = 200, body = SayAnswer),
    Refusals,
))]
pub(super) async fn say(asking: Asking, body: DocumentBody<SayRequest>) -> Answer<SayAnswer> {
    asking.reckon(move |catalogue| body.told(|sent| mix::say(catalogue, sent))).await
}

/// Everything the bench shows for one state of a mix
#[utoipa::path(post, operation_id = "bench_ask", tag = "bench", path = "/api/bench", request_body = BenchRequest, responses(
    (status = 200, body = BenchAnswer),
    Refusals,
))]
pub(super) async fn at_the_bench(
    asking: Asking,
    BodyInWords(body, words): BodyInWords<BenchRequest>,
) -> Answer<BenchAnswer> {
    match body.site {
        Some(site) => {
            let words = format!("bench {words}");
            asking
                .again(
                    Deed::Look.of(site),
                    words,
                    move |tx| bench::at_hand(tx, site),
                    move |tx| bench::bench(tx, &body),
                )
                .await
        }
        None => asking.ask(Deed::Look.anywhere(), move |tx, _| bench::bench(tx, &body)).await,
    }
}
