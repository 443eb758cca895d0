//! Commands that open a data file.

use std::net::SocketAddr;
use std::path::{Path, PathBuf};

use tokio::net::TcpListener;
use zymarch_store::Store;

use super::Failure;
use crate::clock::Clock;
use crate::farm;
use crate::server;
use crate::state::App;

pub(super) fn serve(data: &Path, at: SocketAddr, clock: Clock) -> Result<(), Failure> {
    run(async move {
        let store = open(data).await?;
        farm::first_start(&store, clock).await.map_err(other)?;
        listen(store, at, clock, false).await
    })
}

pub(super) fn demo(data: &Path, keep: bool, at: SocketAddr, clock: Clock) -> Result<(), Failure> {
    run(async move {
        // Taken before anything is removed: a second demo must not pull the file from under the first.
        let listener = bind(at).await?;
        if !keep {
            remove(data)?;
        }
        let store = open(data).await?;
        farm::first_demo(&store, clock).await.map_err(other)?;
        answer(listener, store, clock, true).await
    })
}

pub(super) fn import(folder: &Path, data: &Path, clock: Clock) -> Result<(), Failure> {
    run(async move {
        let read = |name: &str| std::fs::read_to_string(folder.join(name)).ok();
        let package =
            zymarch_formats::farm::read(read).map_err(|refusal| Failure::Input(refusal.to_string()))?;
        let store = open(data).await?;
        let name = package.name.clone();
        farm::load(&store, package, clock).await.map_err(other)?;
        println!("{name} is in {}", data.display());
        Ok(())
    })
}

fn run(work: impl Future<Output = Result<(), Failure>>) -> Result<(), Failure> {
    tokio::runtime::Builder::new_multi_thread()
        .enable_all()
        .build()
        .map_err(|error| Failure::Other(error.to_string()))?
        .block_on(work)
}

async fn open(data: &Path) -> Result<Store, Failure> {
    Store::open(data).await.map_err(|error| Failure::Input(error.to_string()))
}

async fn listen(store: Store, at: SocketAddr, clock: Clock, demo: bool) -> Result<(), Failure> {
    let listener = bind(at).await?;
    answer(listener, store, clock, demo).await
}

async fn bind(at: SocketAddr) -> Result<TcpListener, Failure> {
    if !at.ip().is_loopback() {
        return Err(Failure::Input(format!(
            "--bind {}: only this machine's own addresses are allowed (127.0.0.1 or ::1), since there are no accounts yet",
            at.ip()
        )));
    }
    TcpListener::bind(at).await.map_err(|error| {
        Failure::Input(format!("--port {}: cannot listen there ({error}); try another port", at.port()))
    })
}

async fn answer(listener: TcpListener, store: Store, clock: Clock, demo: bool) -> Result<(), Failure> {
    tracing_subscriber::fmt().with_max_level(tracing::Level::WARN).with_writer(std::io::stderr).init();
    let address = listener.local_addr().map_err(other)?;
    println!("Zymarch is at http://{address}");
    let stop = async {
        let _ = tokio::signal::ctrl_c().await;
    };
    let app = App::new(store, clock, demo).await.map_err(other)?;
    server::serve(listener, app, stop).await.map_err(other)
}

fn other(error: impl std::fmt::Display) -> Failure {
    Failure::Other(error.to_string())
}

/// Removes a data file and what SQLite keeps beside it.
fn remove(data: &Path) -> Result<(), Failure> {
    for suffix in ["", "-wal", "-shm"] {
        let mut name = data.as_os_str().to_owned();
        name.push(suffix);
        let path = PathBuf::from(name);
        match std::fs::remove_file(&path) {
            Err(error) if error.kind() != std::io::ErrorKind::NotFound => {
                return Err(Failure::Other(format!("{}: {error}", path.display())));
            }
            _ => {}
        }
    }
    Ok(())
}
