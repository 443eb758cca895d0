//! The server put together: API, web files, and what guards them.

use std::io;

use axum::Router;
use axum::extract::DefaultBodyLimit;
use axum::middleware;
use tokio::net::TcpListener;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::trace::TraceLayer;
use zymarch_formats::field::LARGEST_DOCUMENT;

use crate::api;
use crate::http::{guard, problem, web};
use crate::state::App;

/// The whole application.
pub fn router(app: App) -> Router {
    api::router()
        .fallback(web::file)
        .layer(CompressionLayer::new())
        .layer(DefaultBodyLimit::max(LARGEST_DOCUMENT))
        .layer(CatchPanicLayer::custom(problem::after_panic))
        .layer(middleware::from_fn(guard::check))
        .layer(TraceLayer::new_for_http())
        .with_state(app)
}

/// Answers requests until `stop` is done, then lets the last ones finish.
///
/// # Errors
/// Whatever the listener meets.
pub async fn serve(
    listener: TcpListener,
    app: App,
    stop: impl Future<Output = ()> + Send + 'static,
) -> io::Result<()> {
    axum::serve(listener, router(app)).with_graceful_shutdown(stop).await
}
