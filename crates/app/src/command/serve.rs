//! Commands that open a data file.

use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use std::path::Path;
use std::time::Duration;

use tokio::net::TcpListener;
use zymarch_core::base::fault::{Fault, FaultCode};
use zymarch_farm::clock::Clock;
use zymarch_farm::stock::site;
use zymarch_farm::tend::judge_all;
use zymarch_farm::{Farm, Who, load};
use zymarch_store::{Holds, Lock, OpenError, Store, back_up, check_file, fold_in_after, remove_demo};

use super::reach::{self, Reach};
use super::{Failure, files, signals};
use crate::http::ways::Ways;
use crate::state::App;
use crate::{demo as demo_farm, server, words};

/// What the program itself is called where it writes something down.
const PROGRAM: &str = "zymarch";

pub(super) fn serve(data: &Path, reach: Reach, clock: Clock) -> Result<(), Failure> {
    served(data, reach, async |lock, ways| {
        let store = Store::open(data).await.map_err(|error| unopened(&error))?;
        let is_demo = store.holds() == Holds::Demo;
        let farm = Farm::new(store.clone(), clock);
        let name = words::said("firstSite", &[]);
        farm.act(move |tx| site::first(tx, &Who::local(PROGRAM), &name)).await?;
        Ok(Open { app: App::new(farm.clone(), is_demo, ways), farm, store, _lock: lock })
    })
}

pub(super) fn demo(data: &Path, keep: bool, reach: Reach, clock: Clock) -> Result<(), Failure> {
    served(data, reach, async |lock, ways| {
        let refused = |error: OpenError| unopened(&error);
        if !keep {
            remove_demo(data).map_err(refused)?;
        }
        let store = Store::open_demo(data).await.map_err(refused)?;
        let farm = Farm::new(store.clone(), clock);
        let package = demo_farm::farm()?;
        farm.act(move |tx| load::first(tx, &Who::local(PROGRAM), package)).await?;
        Ok(Open { app: App::new(farm.clone(), true, ways), farm, store, _lock: lock })
    })
}

pub(super) fn import(folder: &Path, data: &Path, clock: Clock) -> Result<(), Failure> {
    run(async move {
        let package = zymarch_formats::farm::read(|name| std::fs::read(folder.join(name)))
            .map_err(|faults| files::named(folder, &faults))?;
        let name = package.name.clone();
        let _lock = Lock::take(data).map_err(|error| unopened(&error))?;
        let store = Store::open(data).await.map_err(|error| unopened(&error))?;
        let farm = Farm::new(store.clone(), clock);
        farm.act(move |tx| load::load(tx, &Who::local(PROGRAM), &package).map(|_| ())).await?;
        store.close().await;
        let file = data.display().to_string();
        println!("{}", words::said("imported", &[("name", &name), ("file", &file)]));
        Ok(())
    })?;
    fold_in_after(data);
    Ok(())
}

/// Copies a data file, also while it is served.
pub(super) fn backup(data: &Path, to: &Path) -> Result<(), Failure> {
    back_up(data, to).map_err(|error| unopened(&error))?;
    let (file, to) = (data.display().to_string(), to.display().to_string());
    println!("{}", words::said("backedUp", &[("file", &file), ("to", &to)]));
    Ok(())
}

/// Makes anew from the log all that stands in a file, and says whether it is the same.
pub(super) fn check(data: &Path) -> Result<(), Failure> {
    let checked = check_file(data).map_err(|error| unopened(&error))?;
    let file = data.display().to_string();
    if checked.differences.is_empty() {
        let (entries, rows) = (checked.entries.to_string(), checked.rows.to_string());
        let params = [("file", file.as_str()), ("entries", &entries), ("rows", &rows)];
        println!("{}", words::said("checkedSame", &params));
        return Ok(());
    }
    let mut lines = vec![words::said("checkedDiffers", &[("file", &file)])];
    for one in &checked.differences {
        let told = [("stands", &one.stands), ("logSays", &one.log_says)];
        for (key, row) in told.into_iter().filter_map(|(key, row)| Some((key, row.as_ref()?))) {
            lines.push(words::said(key, &[("table", one.table), ("row", row)]));
        }
    }
    Err(Failure::Other(lines.join("\n")))
}

/// A farm that is open and ready to be served.
struct Open {
    app: App,
    farm: Farm,
    store: Store,
    /// Held until the last answer is given.
    _lock: Lock,
}

/// Serves a data file until it is told to stop. The port is taken first, then the file: a port
/// that is taken leaves no trace on disk. At the end the journal is folded in, so that the
/// file alone is whole.
fn served(
    data: &Path,
    reach: Reach,
    open: impl AsyncFnOnce(Lock, Ways) -> Result<Open, Failure>,
) -> Result<(), Failure> {
    run(async move {
        // Heard from the first moment on, so that a signal while a file comes up is not missed.
        let stop = signals::stop().map_err(|error| Failure::other(&error))?;
        let listener = bind(reach.at).await?;
        let at = listener.local_addr().map_err(|error| Failure::other(&error))?;
        let lock = Lock::take(data).map_err(|error| unopened(&error))?;
        let (ways, seal) = reach.ways(at, data)?;
        let Open { app, farm, store, _lock } = open(lock, ways.clone()).await?;
        let is_anybody = app.gate.is_anybody().await?;
        if reach.needs_an_owner() && !is_anybody {
            return Err(Fault::of("--behind-proxy", FaultCode::OwnerFirst).into());
        }
        let folding = tokio::spawn(fold_in_now_and_then(store.clone()));
        let judging = tokio::spawn(judge_hour_by_hour(farm));
        let following = tokio::spawn(reach.follow(ways, seal.clone()));
        log_to_the_terminal();
        let here = format!("http://{}", SocketAddr::new(local(at.ip()), at.port()));
        reach::say(&words::said("listening", &[("address", &here)]));
        reach::told(&app.ways, &here, is_anybody);
        server::serve(listener, app, seal, stop).await;
        following.abort();
        judging.abort();
        folding.abort();
        let _ = tokio::time::timeout(LAST_WRITES, store.close()).await;
        Ok(())
    })?;
    fold_in_after(data);
    Ok(())
}

/// How long writes that are under way may take at the end.
const LAST_WRITES: Duration = Duration::from_secs(1);

/// How often the journal is folded in while nothing happens.
const FOLDS_IN: Duration = Duration::from_secs(30);

/// Judges all heaps at once and with every hour that has passed, before anybody asks.
async fn judge_hour_by_hour(farm: Farm) {
    loop {
        if let Err(faults) = judge_all(&farm).await {
            tracing::warn!(?faults, "the heaps could not be judged beforehand");
        }
        let past_the_hour = farm.clock().now().0.as_second().rem_euclid(3600);
        tokio::time::sleep(Duration::from_secs(3601 - past_the_hour.unsigned_abs())).await;
    }
}

async fn fold_in_now_and_then(store: Store) {
    loop {
        tokio::time::sleep(FOLDS_IN).await;
        store.fold_in().await;
    }
}

/// Threads that read, write and reckon at once: as many as there are cores, one that writes while its disk is
/// waited for, and one for whoever asks something quick meanwhile. More would only hold memory, each in a heap
/// of its own.
fn most_at_work() -> usize {
    std::thread::available_parallelism().map_or(2, |cores| cores.get().clamp(2, 6)) + 2
}

pub(super) fn run(work: impl Future<Output = Result<(), Failure>>) -> Result<(), Failure> {
    let runtime = tokio::runtime::Builder::new_multi_thread()
        .enable_all()
        .max_blocking_threads(most_at_work())
        .build()
        .map_err(|error| Failure::other(&error))?;
    let done = runtime.block_on(work);
    // Whatever still computes is not waited for.
    runtime.shutdown_timeout(Duration::from_millis(500));
    done
}

pub(super) fn unopened(error: &OpenError) -> Failure {
    let fault = match error {
        OpenError::Unusable { reason, .. } => {
            Fault::new(FaultCode::FileUnusable).with("why", reason.as_str())
        }
        OpenError::LaterVersion { version, .. } => {
            Fault::new(FaultCode::LaterVersion).with("version", *version)
        }
        OpenError::NotOurs { reason, .. } => Fault::new(FaultCode::NotADataFile).with("why", reason.as_str()),
        OpenError::Damaged { reason, .. } => Fault::new(FaultCode::FileDamaged).with("why", reason.as_str()),
        OpenError::NotDemo { .. } => Fault::new(FaultCode::NotDemo),
        OpenError::Taken { process, .. } => {
            Fault::new(FaultCode::FileTaken).with("process", process.as_str())
        }
        other => Fault::new(FaultCode::FileUnusable).with("why", other.to_string()),
    };
    files::named(error.path(), &fault.into())
}

async fn bind(at: SocketAddr) -> Result<TcpListener, Failure> {
    TcpListener::bind(at)
        .await
        .map_err(|error| Fault::of("--port", FaultCode::CannotListen).with("why", error.to_string()).into())
}

/// The address under which this machine reaches itself, where it listens on all.
fn local(at: IpAddr) -> IpAddr {
    if at.is_unspecified() { IpAddr::V4(Ipv4Addr::LOCALHOST) } else { at }
}

fn log_to_the_terminal() {
    let filter = tracing_subscriber::EnvFilter::builder()
        .with_default_directive(tracing::Level::WARN.into())
        .with_env_var("ZYMARCH_LOG")
        .from_env_lossy();
    tracing_subscriber::fmt().with_env_filter(filter).with_writer(std::io::stderr).init();
}
