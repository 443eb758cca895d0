//! Commands that open a data file.

use std::net::SocketAddr;
use std::path::{Path, PathBuf};

use tokio::net::TcpListener;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_farm::clock::Clock;
use zymarch_farm::stock::site;
use zymarch_farm::{Farm, Who, load};
use zymarch_store::{OpenError, Store, check_file};

use super::{Failure, files};
use crate::state::App;
use crate::{demo as demo_farm, server, words};

/// What the program itself is called where it writes something down.
const PROGRAM: &str = "zymarch";

pub(super) fn serve(data: &Path, at: SocketAddr, clock: Clock) -> Result<(), Failure> {
    run(async move {
        let farm = open(data, clock).await?;
        let name = words::said("firstSite", &[]);
        farm.act(move |tx| site::first(tx, &Who::local(PROGRAM), &name)).await?;
        answer(bind(at).await?, App::new(farm, false)).await
    })
}

pub(super) fn demo(data: &Path, keep: bool, at: SocketAddr, clock: Clock) -> Result<(), Failure> {
    run(async move {
        // Taken before anything is removed: a second demo must not pull the file from under the first.
        let listener = bind(at).await?;
        if !keep {
            remove(data)?;
        }
        let farm = open(data, clock).await?;
        let package = demo_farm::farm()?;
        farm.act(move |tx| load::first(tx, &Who::local(PROGRAM), package)).await?;
        answer(listener, App::new(farm, true)).await
    })
}

pub(super) fn import(folder: &Path, data: &Path, clock: Clock) -> Result<(), Failure> {
    run(async move {
        let read = |name: &str| std::fs::read_to_string(folder.join(name)).ok();
        let package = zymarch_formats::farm::read(read).map_err(|faults| files::named(folder, &faults))?;
        let name = package.name.clone();
        let farm = open(data, clock).await?;
        farm.act(move |tx| load::load(tx, &Who::local(PROGRAM), &package).map(|_| ())).await?;
        let file = data.display().to_string();
        println!("{}", words::said("imported", &[("name", &name), ("file", &file)]));
        Ok(())
    })
}

/// Makes anew from the log all that stands in a file, and says whether it is the same.
pub(super) fn check(data: &Path) -> Result<(), Failure> {
    let checked = check_file(data).map_err(|error| unopened(data, &error))?;
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

fn run(work: impl Future<Output = Result<(), Failure>>) -> Result<(), Failure> {
    tokio::runtime::Builder::new_multi_thread()
        .enable_all()
        .build()
        .map_err(|error| Failure::other(&error))?
        .block_on(work)
}

async fn open(data: &Path, clock: Clock) -> Result<Farm, Failure> {
    let store = Store::open(data).await.map_err(|error| unopened(data, &error))?;
    Ok(Farm::new(store, clock))
}

fn unopened(data: &Path, error: &OpenError) -> Failure {
    let fault = match error {
        OpenError::Unusable { source, .. } => {
            Fault::new(FaultCode::FileUnusable).with("why", source.to_string())
        }
        OpenError::LaterVersion { version, .. } => {
            Fault::new(FaultCode::LaterVersion).with("version", *version)
        }
        OpenError::NotOurs { reason, .. } => Fault::new(FaultCode::NotADataFile).with("why", reason.as_str()),
        other => Fault::new(FaultCode::FileUnusable).with("why", other.to_string()),
    };
    files::named(data, &fault.into())
}

async fn bind(at: SocketAddr) -> Result<TcpListener, Failure> {
    if !at.ip().is_loopback() {
        let fault = Fault::of("--bind", FaultCode::NotLoopback).with("got", at.ip().to_string());
        return Err(Faults::from(fault).into());
    }
    TcpListener::bind(at)
        .await
        .map_err(|error| Fault::of("--port", FaultCode::CannotListen).with("why", error.to_string()).into())
}

async fn answer(listener: TcpListener, app: App) -> Result<(), Failure> {
    let filter = tracing_subscriber::EnvFilter::builder()
        .with_default_directive(tracing::Level::WARN.into())
        .with_env_var("ZYMARCH_LOG")
        .from_env_lossy();
    tracing_subscriber::fmt().with_env_filter(filter).with_writer(std::io::stderr).init();
    let address = listener.local_addr().map_err(|error| Failure::other(&error))?;
    println!("{}", words::said("listening", &[("address", &format!("http://{address}"))]));
    let stop = async {
        let _ = tokio::signal::ctrl_c().await;
    };
    server::serve(listener, app, stop).await.map_err(|error| Failure::other(&error))
}

/// Removes a data file and what SQLite keeps beside it.
fn remove(data: &Path) -> Result<(), Failure> {
    for suffix in ["", "-wal", "-shm"] {
        let mut name = data.as_os_str().to_owned();
        name.push(suffix);
        let path = PathBuf::from(name);
        match std::fs::remove_file(&path) {
            Err(error) if error.kind() != std::io::ErrorKind::NotFound => {
                let fault = Fault::new(FaultCode::FileUnusable).with("why", error.to_string());
                return Err(files::named(&path, &fault.into()));
            }
            _ => {}
        }
    }
    Ok(())
}
