//! The best mixes of one stock by several aims: asked once, each told as soon as it is found.

use axum::body::{Body, Bytes};
use axum::http::header::CONTENT_TYPE;
use axum::response::{IntoResponse, Response};
use serde::{Deserialize, Serialize};
use tokio::sync::mpsc;
use tokio_stream::StreamExt;
use tokio_stream::wrappers::UnboundedReceiverStream;
use utoipa::{IntoParams, ToSchema};
use zymarch_core::base::fault::{At, FaultCode, Faults};
use zymarch_core::people::Deed;
use zymarch_core::plan::formulate::Aim;
use zymarch_farm::access::Wished as _;
use zymarch_farm::plan;
use zymarch_formats::formulate::{FormulateAnswer, FormulateRequest};

use crate::http::asking::Asking;
use crate::http::body::{DocumentBody, Question};
use crate::http::problem::{ApiError, Refusals};

/// By which aims.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Aims {
    /// The words of the aims, between commas; that of the request itself counts for nothing.
    #[param(example = "largest,use-soonest")]
    aims: String,
}

/// A line of the answer.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct ChoiceLine {
    /// The aim.
    aim: Aim,
    /// The best mix by it, or the nearest; none if it cannot be told, which is a defect.
    answer: Option<FormulateAnswer>,
}

impl Aims {
    fn read(&self) -> Result<Vec<Aim>, Faults> {
        let unknown = |word: &str| {
            let fault = At::ROOT.key("aims").fault(FaultCode::UnknownWord);
            Faults::from(fault.with("got", word).with("known", Aim::known()))
        };
        let mut aims: Vec<Aim> = Vec::new();
        for word in self.aims.split(',') {
            let aim = Aim::parse(word.trim()).ok_or_else(|| unknown(word))?;
            if !aims.contains(&aim) {
                aims.push(aim);
            }
        }
        Ok(aims)
    }
}

/// The best mixes by several aims, a line each as soon as it is found
#[utoipa::path(post, operation_id = "choices_ask", tag = "formulate", path = "/api/choices", params(Aims), request_body = FormulateRequest, responses(
    (status = 200, body = ChoiceLine, content_type = "application/x-ndjson"),
    Refusals,
))]
pub(crate) async fn choose(
    asking: Asking,
    Question(asked): Question<Aims>,
    body: DocumentBody<FormulateRequest>,
) -> Result<Response, ApiError> {
    let aims = asked.read()?;
    let request = body.sent.clone();
    // What is refused is refused as one, before a line is sent.
    asking
        .looked(Deed::Look.anywhere(), move |tx, _| body.told(|sent| plan::formulable(tx.catalogue(), sent)))
        .await?;
    let (found, lines) = mpsc::unbounded_channel::<Bytes>();
    for aim in aims {
        let (asking, found) = (asking.clone(), found.clone());
        let request = FormulateRequest { aim, ..request.clone() };
        tokio::spawn(async move {
            let _turn = asking.turn().await;
            // Whoever asked may have gone: nothing is searched for nobody.
            if found.is_closed() {
                return;
            }
            let answered = asking
                .looked(Deed::Look.anywhere(), move |tx, _| {
                    plan::formulate(tx.catalogue(), tx.draws(), &request)
                })
                .await;
            if let Ok(mut line) = serde_json::to_vec(&ChoiceLine { aim, answer: answered.ok() }) {
                line.push(b'\n');
                let _ = found.send(line.into());
            }
        });
    }
    drop(found);
    let lines = UnboundedReceiverStream::new(lines).map(Ok::<_, std::convert::Infallible>);
    Ok(([(CONTENT_TYPE, "application/x-ndjson")], Body::from_stream(lines)).into_response())
}
