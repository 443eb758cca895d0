//! The server itself: who may ask, how errors look, and the web files.

pub mod body;
mod guard;
pub mod problem;
mod web;

use std::io;

use axum::Router;
use axum::extract::DefaultBodyLimit;
use axum::middleware;
use tokio::net::TcpListener;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use zymarch_formats::field::LARGEST_DOCUMENT;
use zymarch_store::Store;

use crate::api;
use crate::clock::Clock;

/// What every request can reach.
#[derive(Debug, Clone)]
pub struct State {
    /// The farm's records.
    pub store: Store,
    /// The time.
    pub clock: Clock,
    /// Whether this is the demo farm.
    pub demo: bool,
}

/// The whole application: API, web files, and what guards them.
pub fn router(state: State) -> Router {
    api::router()
        .fallback(web::file)
        .layer(CompressionLayer::new())
        .layer(DefaultBodyLimit::max(LARGEST_DOCUMENT))
        .layer(CatchPanicLayer::custom(problem::after_panic))
        .layer(middleware::from_fn(guard::check))
        .with_state(state)
}

/// Answers requests until `stop` is done, then lets the last ones finish.
///
/// # Errors
/// Whatever the listener meets.
pub async fn serve(
    listener: TcpListener,
    state: State,
    stop: impl Future<Output = ()> + Send + 'static,
) -> io::Result<()> {
    axum::serve(listener, router(state)).with_graceful_shutdown(stop).await
}
