//! Finishing and using.

use zymarch_farm::finish;
use zymarch_formats::apply::{ApplyAnswer, ApplyRequest};

use crate::http::asking::Asking;
use crate::http::body::DocumentBody;
use crate::http::problem::Refusals;
use crate::state::Answer;

/// How much compost a use needs, and how far what there is goes: the same answer as `zymarch apply`
#[utoipa::path(post, operation_id = "finish_apply", tag = "finish", path = "/api/apply", request_body = ApplyRequest, responses(
    (status = 200, body = ApplyAnswer),
    Refusals,
))]
pub(crate) async fn apply(asking: Asking, body: DocumentBody<ApplyRequest>) -> Answer<ApplyAnswer> {
    asking.reckon(move |catalogue| body.told(|sent| finish::apply(catalogue, sent))).await
}
