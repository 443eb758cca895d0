//! Reading a request's body so that an error names the field and the line.

use axum::Json;
use axum::body::Bytes;
use axum::extract::{FromRequest, Request};
use axum::http::header::CONTENT_TYPE;
use serde::de::DeserializeOwned;
use zymarch_formats::field::{self, Document, Refusal};

use super::problem::ApiError;

/// A JSON body of a type.
#[derive(Debug, Clone, Copy)]
pub struct Body<T>(pub T);

impl<S: Send + Sync, T: DeserializeOwned> FromRequest<S> for Body<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, Self::Rejection> {
        let text = text(request, state).await?;
        Ok(Self(field::read(&text)?))
    }
}

/// A document as a body, its format named first.
#[derive(Debug, Clone)]
pub struct DocumentBody<T> {
    /// What was sent.
    pub sent: T,
    /// The text of it, to find lines in.
    pub text: String,
}

impl<S: Send + Sync, T: Document> FromRequest<S> for DocumentBody<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, Self::Rejection> {
        let text = text(request, state).await?;
        Ok(Self { sent: field::document(&text)?, text })
    }
}

impl<T: Send + 'static> DocumentBody<T> {
    /// The answer to it, reckoned on a thread that no other request waits for.
    ///
    /// # Errors
    /// What `of` refuses, each field with its line.
    pub async fn answer<A: Send + 'static>(
        self,
        of: impl FnOnce(&T) -> Result<A, Refusal> + Send + 'static,
    ) -> Result<Json<A>, ApiError> {
        let Self { sent, text } = self;
        let answer = tokio::task::spawn_blocking(move || of(&sent)).await.map_err(|_| ApiError::Broken)?;
        Ok(Json(answer.map_err(|refusal| refusal.located_in(&text))?))
    }
}

async fn text<S: Send + Sync>(request: Request, state: &S) -> Result<String, ApiError> {
    let is_json =
        request.headers().get(CONTENT_TYPE).and_then(|value| value.to_str().ok()).is_some_and(|value| {
            value.split(';').next().unwrap_or("").trim().eq_ignore_ascii_case("application/json")
        });
    if !is_json {
        return Err(ApiError::NotJson);
    }
    let bytes = Bytes::from_request(request, state).await?;
    String::from_utf8(bytes.into()).map_err(|_| Refusal::one("", "the body is not text in UTF-8").into())
}
