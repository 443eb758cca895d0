//! Somebody's request: who asks, and the one way from there to the farm.
//!
//! A handler that takes an [`Asking`] gets at the records through the farm's gate and not
//! otherwise, and has to say for what.

use std::net::IpAddr;
use std::sync::Arc;

use axum::body::Bytes;
use axum::extract::FromRequestParts;
use axum::http::StatusCode;
use axum::http::header::{COOKIE, HeaderMap};
use axum::http::request::Parts;
use percent_encoding::percent_decode_str;
use serde::Serialize;
use tokio::sync::OwnedSemaphorePermit;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::people::Deed;
use zymarch_farm::access::{Caller, Wish, Wished as _};
use zymarch_farm::people::hash;
use zymarch_farm::{Transaction, Who};

use super::problem::ApiError;
use crate::state::{Answer, App, From, Written, json};

/// The header in which a device says what it is called, percent-encoded: a header holds plain letters only.
pub(crate) const DEVICE: &str = "x-device";

/// The header in which a device that had no signal says when something was done, RFC 3339.
pub(crate) const DONE_AT: &str = "x-done-at";

/// How a request came.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Came {
    /// From where.
    pub from: IpAddr,
    /// Whether nobody on the way could read it.
    pub is_sealed: bool,
}

/// Somebody's request.
#[derive(Debug, Clone)]
pub(crate) struct Asking {
    /// The application.
    pub(crate) app: App,
    /// Who asks.
    pub(crate) by: Caller,
    /// Whether nobody on the way could read it.
    pub(crate) is_sealed: bool,
    /// What the farm is called there.
    pub(crate) host: String,
}

/// What a device is known by is kept under this name by its browser. The longer one is bound by the browser
/// to this very host, and is only sent sealed (RFC 6265bis, 4.1.3.2).
pub(crate) const fn cookie_name(is_sealed: bool) -> &'static str {
    if is_sealed { "__Host-zymarch" } else { "zymarch" }
}

/// What is kept under a name; nothing if there are two of it, since it is not known which is meant.
fn cookie<'a>(headers: &'a HeaderMap, name: &str) -> Option<&'a str> {
    let all = headers.get_all(COOKIE).iter().filter_map(|value| value.to_str().ok());
    let pairs = all.flat_map(|value| value.split(';')).filter_map(|pair| pair.trim().split_once('='));
    let mut values = pairs.filter(|(key, _)| *key == name).map(|(_, value)| value);
    values.next().filter(|_| values.next().is_none())
}

impl Asking {
    /// Who asks, from what a request says of itself; whether they may is found out later.
    fn of(app: &App, parts: &Parts) -> Self {
        let text = |name: &str| parts.headers.get(name).and_then(|value| value.to_str().ok());
        let came = app.ways.came(parts);
        let token = cookie(&parts.headers, cookie_name(came.is_sealed)).map(hash);
        let device = percent_decode_str(text(DEVICE).unwrap_or_default()).decode_utf8_lossy().into_owned();
        let address = came.from.map(|from| from.to_string()).unwrap_or_default();
        let host = text("host").unwrap_or_default().to_owned();
        let done_at = text(DONE_AT).and_then(|at| at.parse().ok());
        Self {
            app: app.clone(),
            by: Caller { token, device, address, done_at },
            is_sealed: came.is_sealed,
            host,
        }
    }
}

/// Anybody: who is signed in, and who is not yet.
#[derive(Debug, Clone)]
pub(crate) struct Anybody(pub(crate) Asking);

impl FromRequestParts<App> for Anybody {
    type Rejection = std::convert::Infallible;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Self::Rejection> {
        Ok(Self(Asking::of(app, parts)))
    }
}

impl FromRequestParts<App> for Asking {
    type Rejection = ApiError;

    /// Whoever holds nothing is turned away before a word of theirs is read.
    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Self::Rejection> {
        let asking = Self::of(app, parts);
        if asking.by.token.is_none() && app.gate.has_people() {
            return Err(Fault::new(FaultCode::SignInFirst).into());
        }
        if asking.by.done_at.is_none() && parts.headers.contains_key(DONE_AT) {
            let got = parts.headers.get(DONE_AT).and_then(|at| at.to_str().ok()).unwrap_or_default();
            return Err(Fault::of(DONE_AT, FaultCode::NotATime).with("got", got).into());
        }
        Ok(asking)
    }
}

/// A question or a command, and its answer written out.
type Asked = Box<dyn FnOnce(&Transaction<'_>, &Who) -> Result<Bytes, Faults> + Send>;
type Done = Box<dyn FnOnce(&mut Transaction<'_>, &Who) -> Result<Bytes, Faults> + Send>;

impl Asking {
    /// The answer to a question about the records.
    pub(crate) async fn ask<T: Serialize + 'static>(
        &self,
        wish: Wish,
        ask: impl FnOnce(&Transaction<'_>, &Who) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        self.written(wish, Box::new(move |tx, who| json(&ask(tx, who)?))).await
    }

    /// Whatever is asked, it comes here as one kind of question, so that the way from here is compiled once.
    async fn written<T>(&self, wish: Wish, ask: Asked) -> Answer<T> {
        Ok(Written::again(self.app.gate.ask(&self.by, wish, ask).await?))
    }

    /// The same, for what is answered otherwise than as it is.
    pub(crate) async fn looked<T: Send + 'static>(
        &self,
        wish: Wish,
        ask: impl FnOnce(&Transaction<'_>, &Who) -> Result<T, Faults> + Send + 'static,
    ) -> Result<T, ApiError> {
        Ok(self.app.gate.ask(&self.by, wish, ask).await?)
    }

    /// A command whose outcome is not the answer.
    pub(crate) async fn did<T: Send + 'static>(
        &self,
        wish: Wish,
        act: impl FnOnce(&mut Transaction<'_>, &Who) -> Result<T, Faults> + Send + 'static,
    ) -> Result<T, ApiError> {
        Ok(self.app.gate.act(&self.by, wish, act).await?)
    }

    /// A turn to do what takes long, for as long as it is held: to be dropped as soon as it is done, while
    /// what was found is still written and sent.
    pub(crate) async fn turn(&self) -> Option<OwnedSemaphorePermit> {
        Arc::clone(&self.app.searches).acquire_owned().await.ok()
    }

    /// The outcome of a command.
    pub(crate) async fn act<T: Serialize + 'static>(
        &self,
        wish: Wish,
        act: impl FnOnce(&mut Transaction<'_>, &Who) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        let act: Done = Box::new(move |tx, who| json(&act(tx, who)?));
        Ok(Written::again(self.app.gate.act(&self.by, wish, act).await?))
    }

    /// A command that has no outcome but that it is done.
    pub(crate) async fn done(
        &self,
        wish: Wish,
        act: impl FnOnce(&mut Transaction<'_>, &Who) -> Result<(), Faults> + Send + 'static,
    ) -> Result<StatusCode, ApiError> {
        self.did(wish, act).await.map(|()| StatusCode::NO_CONTENT)
    }

    /// A list that hangs on the catalogue alone: written once for as long as nothing of it changes.
    pub(crate) async fn list_once<T: Serialize + 'static>(
        &self,
        name: &'static str,
        list: impl FnOnce(&Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        let wish = Deed::Look.anywhere();
        self.once(wish, name.into(), |tx| Ok(tx.shared_catalogue()), |tx, _| json(&list(tx)?)).await
    }

    /// What something that is kept is written as: written once for as long as it is the same one.
    pub(crate) async fn kept<T: Serialize + 'static, K: Send + Sync + 'static>(
        &self,
        wish: Wish,
        name: String,
        of: impl FnOnce(&Transaction<'_>) -> Result<Arc<K>, Faults> + Send + 'static,
        shown: impl FnOnce(&K) -> &T + Send + 'static,
    ) -> Answer<T> {
        self.once(wish, name, of, move |_, kept| json(shown(kept))).await
    }

    /// The answer to what is asked in these very words: reckoned once for as long as what it leans on is
    /// the same. A room of phones asks alike, and so does whoever steps back and forth.
    pub(crate) async fn again<T: Serialize + 'static, K: Send + Sync + 'static>(
        &self,
        wish: Wish,
        words: String,
        leans_on: impl FnOnce(&Transaction<'_>) -> Result<Arc<K>, Faults> + Send + 'static,
        ask: impl FnOnce(&Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        self.once(wish, words, leans_on, move |tx, _| json(&ask(tx)?)).await
    }

    async fn once<T, K: Send + Sync + 'static>(
        &self,
        wish: Wish,
        words: String,
        leans_on: impl FnOnce(&Transaction<'_>) -> Result<Arc<K>, Faults> + Send + 'static,
        answer: impl FnOnce(&Transaction<'_>, &K) -> Result<Bytes, Faults> + Send + 'static,
    ) -> Answer<T> {
        let lists = self.app.lists.clone();
        let asked: Asked = Box::new(move |tx, _| {
            let kept = leans_on(tx)?;
            let from: From = kept.clone();
            lists.again(&words, &from).map_or_else(|| lists.keep(words, from, answer(tx, &kept)), Ok)
        });
        self.written(wish, asked).await
    }

    /// The answer to a document that asks nothing of the records but the catalogue.
    pub(crate) async fn reckon<T: Serialize + 'static>(
        &self,
        of: impl FnOnce(&Catalogue) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        self.ask(Deed::Look.anywhere(), move |tx, _| of(tx.catalogue())).await
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_kept_under_a_name_is_found_once() {
        let of = |values: &[&'static str]| {
            let mut headers = HeaderMap::new();
            for value in values {
                headers.append(COOKIE, axum::http::HeaderValue::from_static(value));
            }
            cookie(&headers, "zymarch").map(str::to_owned)
        };
        assert_eq!(of(&["zymarch=A1"]), Some("A1".into()));
        assert_eq!(of(&["other=2; zymarch=A1; more=3"]), Some("A1".into()));
        assert_eq!(of(&["__Host-zymarch=A1"]), None, "another name");
        assert_eq!(of(&["zymarch=A1; zymarch=B2"]), None, "two of it");
        assert_eq!(of(&["zymarch=A1", "zymarch=B2"]), None, "two of it");
        assert_eq!(of(&[]), None);
    }
}
