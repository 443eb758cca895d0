//! How refusals look: problem details (RFC 9457), with the fields at fault.
//!
//! This is the one place that knows which fault has which status.

use std::any::Any;

use axum::body::Body;
use axum::http::header::{CONTENT_TYPE, HeaderValue, RETRY_AFTER};
use axum::http::{Response as HttpResponse, StatusCode};
use axum::response::{IntoResponse, Response};
use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultClass, FaultCode, Faults, Param};
use zymarch_formats::fault::FaultAnswer;

use crate::words;

/// Problem details.
#[derive(Debug, Serialize, ToSchema)]
pub struct Problem {
    /// HTTP status.
    pub status: u16,
    /// What the status says.
    pub title: &'static str,
    /// What went wrong, in words.
    pub detail: String,
    /// Everything that is wrong; at least one.
    pub errors: Vec<ProblemField>,
}

/// Something that is wrong.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProblemField {
    /// Where, what, and its numbers.
    #[serde(flatten)]
    pub fault: FaultAnswer,
    /// The sentence.
    pub reason: String,
}

/// The ways any request may be refused, for the description of the API.
#[derive(utoipa::IntoResponses)]
#[allow(dead_code, reason = "read by the description only")]
pub(crate) enum Refusals {
    /// The body did not come whole
    #[response(status = 400, content_type = "application/problem+json")]
    Unread(#[to_schema] Problem),
    /// Not from this farm's own pages, or not for this role
    #[response(status = 403, content_type = "application/problem+json")]
    Stranger(#[to_schema] Problem),
    /// Nobody is signed in, or what was shown lets nobody in
    #[response(status = 401, content_type = "application/problem+json")]
    SignInFirst(#[to_schema] Problem),
    /// It was tried too often
    #[response(status = 429, content_type = "application/problem+json")]
    Slowed(#[to_schema] Problem),
    /// There is no such record
    #[response(status = 404, content_type = "application/problem+json")]
    NotFound(#[to_schema] Problem),
    /// The address is not asked in that way
    #[response(status = 405, content_type = "application/problem+json")]
    OtherMethod(#[to_schema] Problem),
    /// It did not come whole, or was not answered, in time
    #[response(status = 408, content_type = "application/problem+json")]
    TooSlow(#[to_schema] Problem),
    /// It was changed meanwhile, or a name is taken
    #[response(status = 409, content_type = "application/problem+json")]
    Conflict(#[to_schema] Problem),
    /// The document is larger than any may be
    #[response(status = 413, content_type = "application/problem+json")]
    TooLarge(#[to_schema] Problem),
    /// The body is not sent as JSON
    #[response(status = 415, content_type = "application/problem+json")]
    NotJson(#[to_schema] Problem),
    /// Fields are at fault
    #[response(status = 422, content_type = "application/problem+json")]
    Unprocessable(#[to_schema] Problem),
    /// A defect of this program
    #[response(status = 500, content_type = "application/problem+json")]
    Broken(#[to_schema] Problem),
    /// The data file is busy, gone, or only to be read
    #[response(status = 503, content_type = "application/problem+json")]
    Busy(#[to_schema] Problem),
}

/// Why a request is refused.
#[derive(Debug)]
pub struct ApiError(pub Faults);

impl From<Faults> for ApiError {
    fn from(faults: Faults) -> Self {
        Self(faults)
    }
}

impl From<Fault> for ApiError {
    fn from(fault: Fault) -> Self {
        Self(fault.into())
    }
}

const fn status_of(code: FaultCode) -> StatusCode {
    match code {
        FaultCode::NotSentAsJson => StatusCode::UNSUPPORTED_MEDIA_TYPE,
        FaultCode::DocumentTooLarge => StatusCode::PAYLOAD_TOO_LARGE,
        FaultCode::BodyUnread => StatusCode::BAD_REQUEST,
        FaultCode::Stranger | FaultCode::NotYourRole | FaultCode::OnlyOnTheMachine => StatusCode::FORBIDDEN,
        FaultCode::SignInFirst
        | FaultCode::WrongPassphrase
        | FaultCode::WrongCode
        | FaultCode::NoSuchProbe => StatusCode::UNAUTHORIZED,
        FaultCode::Slowed => StatusCode::TOO_MANY_REQUESTS,
        FaultCode::TooSlow => StatusCode::REQUEST_TIMEOUT,
        FaultCode::OnlyRead | FaultCode::OtherMethod => StatusCode::METHOD_NOT_ALLOWED,
        code => match code.class() {
            FaultClass::Refused => StatusCode::UNPROCESSABLE_ENTITY,
            FaultClass::NotFound => StatusCode::NOT_FOUND,
            FaultClass::Conflict => StatusCode::CONFLICT,
            FaultClass::Busy => StatusCode::SERVICE_UNAVAILABLE,
            FaultClass::Broken => StatusCode::INTERNAL_SERVER_ERROR,
        },
    }
}

impl From<&Faults> for Problem {
    fn from(faults: &Faults) -> Self {
        let faults = &faults.clone().told();
        let status =
            faults.0.first().map_or(StatusCode::INTERNAL_SERVER_ERROR, |fault| status_of(fault.code));
        let field =
            |fault: &Fault| ProblemField { fault: FaultAnswer::from(fault), reason: words::of_fault(fault) };
        Self {
            status: status.as_u16(),
            title: status.canonical_reason().unwrap_or_default(),
            detail: words::all(faults),
            errors: faults.0.iter().map(field).collect(),
        }
    }
}

impl ApiError {
    /// After how many seconds it may be tried again, where that is what is wrong.
    fn waits(&self) -> Option<u64> {
        let slowed = self.0.0.iter().find(|fault| fault.code == FaultCode::Slowed)?;
        slowed.params.iter().find_map(|(_, param)| match param {
            Param::Number(seconds) => Some(*seconds as u64),
            _ => None,
        })
    }
}

impl IntoResponse for ApiError {
    fn into_response(self) -> Response {
        for fault in self.0.0.iter().filter(|fault| fault.code.class() == FaultClass::Broken) {
            tracing::error!(%fault, "a request failed");
        }
        let problem = Problem::from(&self.0);
        let status = StatusCode::from_u16(problem.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        let mut response = (status, axum::Json(problem)).into_response();
        response.headers_mut().insert(CONTENT_TYPE, HeaderValue::from_static("application/problem+json"));
        if let Some(seconds) = self.waits() {
            response.headers_mut().insert(RETRY_AFTER, seconds.into());
        }
        response
    }
}

/// The answer when a handler panicked: a defect, said so without its insides.
pub(crate) fn after_panic(cause: Box<dyn Any + Send>) -> HttpResponse<Body> {
    let said = cause
        .downcast_ref::<&str>()
        .map(|text| (*text).to_owned())
        .or_else(|| cause.downcast_ref::<String>().cloned());
    tracing::error!(cause = said, "a request panicked");
    ApiError::from(Fault::new(FaultCode::Broken)).into_response()
}
