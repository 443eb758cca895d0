//! Reading a request's body so that an error names the field and the line.

use axum::body::Bytes;
use axum::extract::{FromRequest, Request};
use axum::http::header::CONTENT_TYPE;
use serde::de::DeserializeOwned;
use zymarch_formats::field::{self, Refusal};
use zymarch_formats::formulate::{self, FormulateRequest};
use zymarch_formats::recipe::{self, Recipe};

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

/// A recipe as a body, its format named first.
#[derive(Debug, Clone)]
pub struct RecipeBody {
    /// What was sent.
    pub recipe: Recipe,
    /// The text of it, to find lines in.
    pub text: String,
}

impl<S: Send + Sync> FromRequest<S> for RecipeBody {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, Self::Rejection> {
        let text = text(request, state).await?;
        let recipe = recipe::parse(&text)?;
        Ok(Self { recipe, text })
    }
}

/// A request for a formulation as a body, its format named first.
#[derive(Debug, Clone)]
pub struct FormulateBody {
    /// What was sent.
    pub request: FormulateRequest,
    /// The text of it, to find lines in.
    pub text: String,
}

impl<S: Send + Sync> FromRequest<S> for FormulateBody {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, Self::Rejection> {
        let text = text(request, state).await?;
        let request = formulate::parse(&text)?;
        Ok(Self { request, text })
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
