//! The server put together: API, web files, what guards them, and what keeps it answering.
//!
//! Whoever connects may be slow, silent or many. Each connection has its times, there are
//! only so many of them, and when there is no room for another one the longest silent goes.

use std::net::IpAddr;
use std::pin::Pin;
use std::sync::atomic::{AtomicBool, AtomicU64, Ordering};
use std::sync::{Arc, Mutex};
use std::time::{Duration, Instant};

use axum::Router;
use axum::extract::{DefaultBodyLimit, Request, State};
use axum::http::{Method, Uri};
use axum::middleware::{self, Next};
use axum::response::{IntoResponse, Response};
use hyper::body::Incoming;
use hyper::server::conn::http1;
use hyper::service::service_fn;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::server::graceful::{GracefulShutdown, Watcher};
use tokio::io::{AsyncRead, AsyncWrite};
use tokio::net::{TcpListener, TcpStream};
use tokio::sync::Semaphore;
use tokio::task::AbortHandle;
use tokio_io_timeout::TimeoutStream;
use tower::Service;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::compression::predicate::{DefaultPredicate, NotForContentType, Predicate};
use tower_http::trace::TraceLayer;
use zymarch_core::base::fault::{Fault, FaultCode};
use zymarch_formats::field::LARGEST_DOCUMENT;

use crate::api;
use crate::http::asking::Came;
use crate::http::problem::ApiError;
use crate::http::{guard, problem, web};
use crate::network::certificate::Seal;
use crate::network::door;
use crate::state::App;

/// Connections that are kept at once: far more than a farm has browsers, far fewer than a
/// process may have files open.
const MOST_CONNECTIONS: usize = 256;

/// Requests that are read and answered at once; each may hold one largest document.
const MOST_REQUESTS: usize = 64;

/// Until the head of a request must have come, the first and every later one.
const HEAD_WITHIN: Duration = Duration::from_secs(15);

/// Until a request must have come whole and been answered.
const ANSWERED_WITHIN: Duration = Duration::from_secs(20);

/// How long nothing may go in or out of a connection that is not finished.
const SILENT_FOR: Duration = Duration::from_secs(30);

/// What the head of a request may hold [bytes].
const LARGEST_HEAD: usize = 64 * 1024;

/// How long the last answers may take once it is told to stop.
const LAST_ANSWERS: Duration = Duration::from_secs(3);

/// What is told line by line is not held back to be packed.
const AS_IT_COMES: NotForContentType = NotForContentType::const_new("application/x-ndjson");

/// The whole application.
pub fn router(app: App) -> Router {
    let room = Arc::new(Semaphore::new(MOST_REQUESTS));
    api::router()
        .fallback(web::file)
        .method_not_allowed_fallback(web::other_method)
        .layer(CompressionLayer::new().compress_when(DefaultPredicate::new().and(AS_IT_COMES)))
        .layer(DefaultBodyLimit::max(LARGEST_DOCUMENT))
        .layer(CatchPanicLayer::custom(problem::after_panic))
        .layer(middleware::from_fn_with_state(room, in_time))
        .layer(middleware::from_fn_with_state(app.clone(), guard::check))
        .layer(TraceLayer::new_for_http())
        .with_state(app)
}

/// Answers in time, or says that it took too long; so many requests at once.
async fn in_time(State(room): State<Arc<Semaphore>>, request: Request, next: Next) -> Response {
    let answered = async {
        let _room = room.acquire().await;
        next.run(request).await
    };
    let too_slow = |_| ApiError::from(Fault::new(FaultCode::TooSlow)).into_response();
    tokio::time::timeout(ANSWERED_WITHIN, answered).await.unwrap_or_else(too_slow)
}

/// Answers requests until `stop` is done, then lets the last ones finish, for some seconds. What comes sealed
/// is opened with `seal`, on the same port.
pub(crate) async fn serve(
    listener: TcpListener,
    app: App,
    seal: Option<Seal>,
    stop: impl Future<Output = ()> + Send + 'static,
) {
    let (connections, ending) = (Connections::default(), GracefulShutdown::new());
    let house = Arc::new(House { router: router(app.clone()), outside: outside(app.clone()), app, seal });
    tokio::pin!(stop);
    loop {
        let accepted = tokio::select! {
            accepted = listener.accept() => accepted,
            () = &mut stop => break,
        };
        match accepted {
            Ok((stream, from)) => connections.take(stream, from.ip(), &house, ending.watcher()),
            // No file is free just now, or whoever called has hung up.
            Err(error) => {
                tracing::warn!(%error, "a connection could not be taken");
                tokio::time::sleep(Duration::from_millis(50)).await;
            }
        }
    }
    // Nobody waits in line for an answer that will not come.
    drop(listener);
    let _ = tokio::time::timeout(LAST_ANSWERS, ending.shutdown()).await;
    connections.end();
}

/// What a connection leads to.
struct House {
    router: Router,
    outside: Router,
    app: App,
    seal: Option<Seal>,
}

/// A way in, sealed or not.
trait Way: AsyncRead + AsyncWrite + Send {}
impl<T: AsyncRead + AsyncWrite + Send> Way for T {}

/// What a sealed conversation begins with (RFC 8446, 5.1).
const HANDSHAKE: u8 = 0x16;

impl House {
    /// The way in, how it came, and where it leads; none for whoever has no business here.
    async fn open(&self, stream: TcpStream, from: IpAddr) -> Option<(Pin<Box<dyn Way>>, Came, Router)> {
        let is_here = from.to_canonical().is_loopback();
        // Until somebody was made it is open to this machine, and to nobody else not even closed.
        if !is_here && !self.app.gate.is_anybody().await.unwrap_or(false) {
            return None;
        }
        let mut stream = TimeoutStream::new(stream);
        stream.set_read_timeout(Some(SILENT_FOR));
        stream.set_write_timeout(Some(SILENT_FOR));
        let mut is_sealed = false;
        if self.seal.is_some() {
            let mut first = [0];
            let seen = tokio::time::timeout(HEAD_WITHIN, stream.get_ref().peek(&mut first)).await;
            is_sealed = matches!(seen, Ok(Ok(1))) && first == [HANDSHAKE];
        }
        let stream = Box::pin(stream);
        let came = Came { from, is_sealed };
        match &self.seal {
            Some(seal) if is_sealed => {
                let opened = tokio::time::timeout(HEAD_WITHIN, seal.acceptor.accept(stream)).await;
                Some((Box::pin(opened.ok()?.ok()?), came, self.router.clone()))
            }
            // Unsealed from elsewhere: how it comes to trust this farm, and nothing of the farm.
            Some(_) if !is_here => Some((stream, came, self.outside.clone())),
            _ => Some((stream, came, self.router.clone())),
        }
    }
}

/// What is answered to whoever comes unsealed from elsewhere.
fn outside(app: App) -> Router {
    let answer = move |method: Method, uri: Uri| {
        let app = app.clone();
        async move {
            let mut answer = door::answer(app, method, uri).await;
            guard::harden(answer.headers_mut(), false);
            answer
        }
    };
    Router::new().fallback(answer).layer(DefaultBodyLimit::max(0))
}

/// The connections there are.
#[derive(Debug, Clone, Default)]
struct Connections(Arc<Mutex<Vec<Connection>>>);

#[derive(Debug)]
struct Connection {
    use_: Arc<Use>,
    task: AbortHandle,
}

/// What a connection is used for.
#[derive(Debug)]
struct Use {
    begun: Instant,
    /// Milliseconds after it was begun at which it was last used.
    last_ms: AtomicU64,
    /// Whether an answer is being made.
    is_busy: AtomicBool,
}

impl Use {
    fn now(&self, is_busy: bool) {
        let since = u64::try_from(self.begun.elapsed().as_millis()).unwrap_or(u64::MAX);
        self.last_ms.store(since, Ordering::Relaxed);
        self.is_busy.store(is_busy, Ordering::Relaxed);
    }

    fn last(&self) -> Instant {
        self.begun + Duration::from_millis(self.last_ms.load(Ordering::Relaxed))
    }
}

impl Connections {
    fn take(&self, stream: TcpStream, from: IpAddr, house: &Arc<House>, ending: Watcher) {
        let Ok(mut all) = self.0.lock() else { return };
        all.retain(|one| !one.task.is_finished());
        if all.len() >= MOST_CONNECTIONS && !make_room(&mut all) {
            return;
        }
        let use_ = Arc::new(Use {
            begun: Instant::now(),
            last_ms: AtomicU64::new(0),
            is_busy: AtomicBool::new(false),
        });
        let (noted, house) = (Arc::clone(&use_), Arc::clone(house));
        let task = tokio::spawn(async move {
            let Some((stream, came, router)) = house.open(stream, from).await else { return };
            // Put around the router here and not into it: a layer is made anew for each of its routes.
            let service = service_fn(move |mut request: hyper::Request<Incoming>| {
                let (noted, mut router) = (Arc::clone(&noted), router.clone());
                request.extensions_mut().insert(came);
                async move {
                    noted.now(true);
                    let answer = router.call(request).await;
                    noted.now(false);
                    answer
                }
            });
            let connection = http1::Builder::new()
                .timer(TokioTimer::new())
                .header_read_timeout(HEAD_WITHIN)
                .max_buf_size(LARGEST_HEAD)
                .serve_connection(TokioIo::new(stream), service);
            if let Err(error) = ending.watch(connection).await {
                tracing::debug!(%error, "a connection broke");
            }
        });
        all.push(Connection { use_, task: task.abort_handle() });
    }

    fn end(&self) {
        if let Ok(mut all) = self.0.lock() {
            all.drain(..).for_each(|one| one.task.abort());
        }
    }
}

/// Ends the connection that was silent for longest; false if all are busy.
fn make_room(all: &mut Vec<Connection>) -> bool {
    let silent = all.iter().enumerate().filter(|(_, one)| !one.use_.is_busy.load(Ordering::Relaxed));
    let Some((place, _)) = silent.min_by_key(|(_, one)| one.use_.last()) else { return false };
    all.swap_remove(place).task.abort();
    true
}
