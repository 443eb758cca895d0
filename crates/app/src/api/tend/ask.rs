//! What a heap is expected to do, and what its recorded heat shows.

use serde::Deserialize;
use utoipa::IntoParams;
use zymarch_farm::tend;
use zymarch_formats::diagnose::{DiagnoseAnswer, DiagnoseRequest};
use zymarch_formats::heat::{HeatAnswer, HeatRequest};
use zymarch_formats::hygiene::{HygieneAnswer, HygieneRequest};

use crate::http::asking::Asking;
use crate::http::body::{DocumentBody, Question};
use crate::http::problem::Refusals;
use crate::state::Answer;

/// How closely it is told.
#[derive(Debug, Clone, Copy, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Told {
    /// Each hour, and not each day alone.
    #[serde(default)]
    hourly: bool,
}

/// The heat that a heap of this make should have: the same answer as `zymarch heat`
#[utoipa::path(post, operation_id = "tend_heat", tag = "tend", path = "/api/heat", request_body = HeatRequest, params(Told), responses(
    (status = 200, body = HeatAnswer),
    Refusals,
))]
pub(crate) async fn heat(
    asking: Asking,
    Question(told): Question<Told>,
    body: DocumentBody<HeatRequest>,
) -> Answer<HeatAnswer> {
    let _turn = asking.turn().await;
    asking.reckon(move |catalogue| body.told(|sent| tend::heat(catalogue, sent, told.hourly))).await
}

/// What recorded heat shows: the same answer as `zymarch hygiene`
#[utoipa::path(post, operation_id = "tend_hygiene", tag = "tend", path = "/api/hygiene", request_body = HygieneRequest, responses(
    (status = 200, body = HygieneAnswer),
    Refusals,
))]
pub(crate) async fn hygiene(asking: Asking, body: DocumentBody<HygieneRequest>) -> Answer<HygieneAnswer> {
    asking.reckon(move |catalogue| body.told(|sent| tend::hygiene(catalogue, sent))).await
}

/// What is wrong with a heap: the same answer as `zymarch diagnose`
#[utoipa::path(post, operation_id = "tend_diagnose", tag = "tend", path = "/api/diagnose", request_body = DiagnoseRequest, responses(
    (status = 200, body = DiagnoseAnswer),
    Refusals,
))]
pub(crate) async fn diagnose(asking: Asking, body: DocumentBody<DiagnoseRequest>) -> Answer<DiagnoseAnswer> {
    asking.reckon(move |catalogue| body.told(|sent| tend::diagnose(catalogue, sent))).await
}
