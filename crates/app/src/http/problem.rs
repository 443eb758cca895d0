//! How errors look: problem details (RFC 9457), with the fields at fault.
//!
//! This is the one place that knows which error has which status.

use std::any::Any;

use axum::body::Body;
use axum::extract::rejection::BytesRejection;
use axum::http::header::{CONTENT_TYPE, HeaderValue};
use axum::http::{Response as HttpResponse, StatusCode};
use axum::response::{IntoResponse, Response};
use serde::Serialize;
use utoipa::ToSchema;
use zymarch_formats::field::Refusal;
use zymarch_store::StoreError;

/// Problem details.
#[derive(Debug, Serialize, ToSchema)]
pub struct Problem {
    /// HTTP status.
    pub status: u16,
    /// What the status says.
    pub title: &'static str,
    /// What went wrong, in words.
    pub detail: String,
    /// The fields at fault, if any.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub errors: Vec<ProblemField>,
    /// Of a stale change: the version that is there now.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub current_version: Option<i64>,
}

/// A field at fault.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProblemField {
    /// Its path, as `items[1].moisture_pct`.
    pub field: String,
    /// Its line in the text sent, where that is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub line: Option<usize>,
    /// Why it is refused.
    pub reason: String,
}

impl Problem {
    /// A problem without fields.
    #[must_use]
    pub fn new(status: StatusCode, detail: impl Into<String>) -> Self {
        Self {
            status: status.as_u16(),
            title: status.canonical_reason().unwrap_or("Error"),
            detail: detail.into(),
            errors: Vec::new(),
            current_version: None,
        }
    }
}

impl IntoResponse for Problem {
    fn into_response(self) -> Response {
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        let mut response = (status, axum::Json(self)).into_response();
        response.headers_mut().insert(CONTENT_TYPE, HeaderValue::from_static("application/problem+json"));
        response
    }
}

/// The ways any request may be refused, for the description of the API.
#[derive(utoipa::IntoResponses)]
#[allow(dead_code, reason = "read by the description only")]
pub(crate) enum Refusals {
    /// There is no such record
    #[response(status = 404, content_type = "application/problem+json")]
    NotFound(#[to_schema] Problem),
    /// It was changed meanwhile, or a name is taken
    #[response(status = 409, content_type = "application/problem+json")]
    Conflict(#[to_schema] Problem),
    /// Fields are at fault
    #[response(status = 422, content_type = "application/problem+json")]
    Unprocessable(#[to_schema] Problem),
}

/// Everything that can go wrong while answering.
#[derive(Debug, thiserror::Error)]
pub enum ApiError {
    /// The request does not say what is needed.
    #[error(transparent)]
    Refused(#[from] Refusal),
    /// The records say no.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// The body could not be read.
    #[error(transparent)]
    Body(#[from] BytesRejection),
    /// The work failed: a defect.
    #[error("something went wrong here; nothing was changed")]
    Broken,
    /// The body is not what is read here.
    #[error("send JSON, with the content type application/json")]
    NotJson,
}

impl IntoResponse for ApiError {
    fn into_response(self) -> Response {
        Problem::from(self).into_response()
    }
}

impl From<ApiError> for Problem {
    fn from(error: ApiError) -> Self {
        let detail = error.to_string();
        match error {
            ApiError::Refused(refusal) => Self {
                errors: refusal
                    .errors
                    .into_iter()
                    .map(|error| ProblemField { field: error.field, line: error.line, reason: error.reason })
                    .collect(),
                ..Self::new(StatusCode::UNPROCESSABLE_ENTITY, detail)
            },
            ApiError::Broken => Self::new(StatusCode::INTERNAL_SERVER_ERROR, detail),
            ApiError::NotJson => Self::new(StatusCode::UNSUPPORTED_MEDIA_TYPE, detail),
            ApiError::Body(rejection) => Self::new(rejection.status(), detail),
            ApiError::Store(error) => Self::from_store(&error, detail),
        }
    }
}

impl Problem {
    fn from_store(error: &StoreError, detail: String) -> Self {
        match error {
            StoreError::NotFound { .. } => Self::new(StatusCode::NOT_FOUND, detail),
            StoreError::Stale { current, .. } => {
                Self { current_version: Some(*current), ..Self::new(StatusCode::CONFLICT, detail) }
            }
            StoreError::NameTaken { .. } => Self {
                errors: vec![ProblemField { field: "name".into(), line: None, reason: detail.clone() }],
                ..Self::new(StatusCode::CONFLICT, detail)
            },
            StoreError::LastOne { .. } | StoreError::InUse { .. } => Self::new(StatusCode::CONFLICT, detail),
            StoreError::NotEnough { .. } => Self {
                errors: vec![ProblemField { field: "amount".into(), line: None, reason: detail.clone() }],
                ..Self::new(StatusCode::UNPROCESSABLE_ENTITY, detail)
            },
            StoreError::DanglingReference => Self::new(StatusCode::UNPROCESSABLE_ENTITY, detail),
            StoreError::Busy(_) => Self::new(StatusCode::SERVICE_UNAVAILABLE, detail),
            _ => {
                tracing::error!(%error, "the data file refused");
                Self::new(StatusCode::INTERNAL_SERVER_ERROR, detail)
            }
        }
    }
}

/// The answer when a handler panicked: a defect, said so without its insides.
pub(crate) fn after_panic(cause: Box<dyn Any + Send>) -> HttpResponse<Body> {
    let said = cause
        .downcast_ref::<&str>()
        .map(|text| (*text).to_owned())
        .or_else(|| cause.downcast_ref::<String>().cloned());
    tracing::error!(cause = said, "a request failed");
    Problem::new(StatusCode::INTERNAL_SERVER_ERROR, "something went wrong here; nothing was changed")
        .into_response()
}
