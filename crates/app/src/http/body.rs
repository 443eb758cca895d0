//! Reading a request so that a refusal names the field and the line.

use std::any::Any;

use axum::body::Bytes;
use axum::extract::{FromRequest, FromRequestParts, Path, Query, Request};
use axum::http::StatusCode;
use axum::http::header::CONTENT_TYPE;
use axum::http::request::Parts;
use serde::de::DeserializeOwned;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_formats::field::{self, Document, LARGEST_DOCUMENT};
use zymarch_formats::text;

use super::problem::ApiError;

/// A JSON body of a type.
#[derive(Debug, Clone, Copy)]
pub struct Body<T>(pub T);

/// A JSON body of a type, and the very words of it.
#[derive(Debug, Clone)]
pub struct BodyInWords<T>(pub T, pub String);

impl<S: Send + Sync, T: DeserializeOwned + Send + 'static> FromRequest<S> for BodyInWords<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, Self::Rejection> {
        let text = text(request, state).await?;
        let (sent, text) = taken_apart(text, |text| field::read(text)).await?;
        Ok(Self(sent, text))
    }
}

impl<S: Send + Sync, T: DeserializeOwned + Send + 'static> FromRequest<S> for Body<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, Self::Rejection> {
        Ok(Self(BodyInWords::from_request(request, state).await?.0))
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

impl<S: Send + Sync, T: Document + Send + 'static> FromRequest<S> for DocumentBody<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, Self::Rejection> {
        let text = text(request, state).await?;
        let (sent, text) = taken_apart(text, |text| field::document(text)).await?;
        Ok(Self { sent, text })
    }
}

impl<T> DocumentBody<T> {
    /// What `of` makes of it, its refusals with their lines.
    pub(crate) fn told<A>(self, of: impl FnOnce(&T) -> Result<A, Faults>) -> Result<A, Faults> {
        of(&self.sent).map_err(|faults| field::located(faults, &self.text))
    }
}

/// The key in an address. One that is none names nothing.
#[derive(Debug, Clone)]
pub struct Id<T>(pub T);

impl<S: Send + Sync, T: DeserializeOwned + Send> FromRequestParts<S> for Id<T> {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Self::Rejection> {
        let path = parts.uri.path().to_owned();
        let nothing = |_| Fault::new(FaultCode::NothingThere).with("path", path);
        let Path(id) = Path::<T>::from_request_parts(parts, state).await.map_err(nothing)?;
        Ok(Self(id))
    }
}

/// What stands behind the question mark.
#[derive(Debug, Clone, Copy)]
pub struct Question<T>(pub T);

impl<S: Send + Sync, T: DeserializeOwned> FromRequestParts<S> for Question<T> {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, _state: &S) -> Result<Self, Self::Rejection> {
        let unread = |_| Fault::of("query", FaultCode::Unreadable);
        Ok(Self(Query::try_from_uri(&parts.uri).map_err(unread)?.0))
    }
}

/// The id that the writer of a new record gives it, as `?id=...`; none is given here then.
#[derive(Debug, Clone, Copy)]
pub struct NewId<T>(pub Option<T>);

impl<S: Send + Sync, T: From<uuid::Uuid>> FromRequestParts<S> for NewId<T> {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, _state: &S) -> Result<Self, Self::Rejection> {
        let query = parts.uri.query().unwrap_or_default();
        let given = query.split('&').find_map(|pair| pair.strip_prefix("id="));
        let unread = |_| Fault::of("id", FaultCode::Unreadable);
        Ok(Self(given.map(|id| uuid::Uuid::parse_str(id).map_err(unread)).transpose()?.map(T::from)))
    }
}

/// What is longer is not read on the threads that wait for all requests [bytes].
const SHORT: usize = 8 * 1024;

/// Something to read, of whatever type: how it goes to another thread is compiled once.
type Job = Box<dyn FnOnce() -> Result<Box<dyn Any + Send>, Faults> + Send>;

/// What a text holds, and the text.
async fn taken_apart<T: Send + 'static>(
    text: String,
    read: impl FnOnce(&str) -> Result<T, Faults> + Send + 'static,
) -> Result<(T, String), ApiError> {
    let is_short = text.len() <= SHORT;
    let read = move || read(&text).map(|sent| (sent, text));
    if is_short {
        return Ok(read()?);
    }
    let broken = |why: String| Fault::new(FaultCode::Broken).with("why", why);
    let job: Job = Box::new(move || read().map(|read| Box::new(read) as Box<dyn Any + Send>));
    let read = tokio::task::spawn_blocking(job).await.map_err(|error| broken(error.to_string()))??;
    Ok(*read.downcast().map_err(|_| broken("another type".into()))?)
}

async fn text<S: Send + Sync>(request: Request, state: &S) -> Result<String, ApiError> {
    let is_json =
        request.headers().get(CONTENT_TYPE).and_then(|value| value.to_str().ok()).is_some_and(|value| {
            value.split(';').next().unwrap_or("").trim().eq_ignore_ascii_case("application/json")
        });
    if !is_json {
        return Err(Fault::new(FaultCode::NotSentAsJson).into());
    }
    let bytes = Bytes::from_request(request, state).await.map_err(|rejection| match rejection.status() {
        StatusCode::PAYLOAD_TOO_LARGE => {
            Fault::new(FaultCode::DocumentTooLarge).with("most_kb", LARGEST_DOCUMENT / 1024)
        }
        _ => Fault::new(FaultCode::BodyUnread),
    })?;
    Ok(text::decoded(bytes.into())?)
}
