//! The connections to a data file, opened once and lent out.

use std::path::{Path, PathBuf};
use std::time::Duration;

use deadpool::Runtime;
use deadpool::managed::{self, Metrics, RecycleError, RecycleResult};
use deadpool_sync::SyncWrapper;
use rusqlite::Connection;

/// How long a connection waits for another process to finish writing.
pub(crate) const BUSY: Duration = Duration::from_secs(5);

/// Some connections to the same file.
pub(crate) type Connections = managed::Pool<Opener>;

/// Opens connections to a file.
#[derive(Debug)]
pub(crate) struct Opener(PathBuf);

impl managed::Manager for Opener {
    type Type = SyncWrapper<Connection>;
    type Error = rusqlite::Error;

    async fn create(&self) -> rusqlite::Result<Self::Type> {
        let path = self.0.clone();
        let opened = move || Connection::open(path).and_then(|opened| prepare(&opened).map(|()| opened));
        SyncWrapper::new(Runtime::Tokio1, opened).await
    }

    /// A file of this machine needs no asking whether it is still connected, which would cost every answer
    /// another change of threads. Only where a defect broke off a transaction is another opened.
    async fn recycle(&self, connection: &mut Self::Type, _: &Metrics) -> RecycleResult<Self::Error> {
        if connection.is_mutex_poisoned() {
            return Err(RecycleError::message("broken off"));
        }
        Ok(())
    }
}

/// So many connections to a file, none of them open yet.
pub(crate) fn connections(path: &Path, most: usize) -> Result<Connections, managed::BuildError> {
    managed::Pool::builder(Opener(path.to_owned()))
        .runtime(Runtime::Tokio1)
        .max_size(most)
        .wait_timeout(Some(BUSY))
        .build()
}

/// Settings every connection needs. `synchronous = FULL` makes a commit wait
/// for the disk: what was acknowledged is there after a power cut.
pub(crate) fn prepare(connection: &Connection) -> rusqlite::Result<()> {
    connection.busy_timeout(BUSY)?;
    connection.pragma_update(None, "journal_mode", "WAL")?;
    connection.pragma_update(None, "synchronous", "FULL")?;
    // Folded in when it is said, and never by the way: so the file itself stays as it was left.
    connection.pragma_update(None, "wal_autocheckpoint", 0)?;
    // Pages kept by each connection [KiB, below nought]: a machine in a shed has little memory.
    connection.pragma_update(None, "cache_size", -600)?;
    connection.pragma_update(None, "foreign_keys", "ON")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[tokio::test]
    async fn one_that_a_defect_broke_off_is_replaced_and_any_other_is_lent_again() {
        let folder = tempfile::TempDir::new().expect("a folder");
        let one = connections(&folder.path().join("farm.sqlite"), 1).expect("is sound");
        let mark = |value: i64| {
            let one = one.clone();
            async move {
                let lent = one.get().await.expect("opens");
                lent.interact(move |conn| conn.pragma_update(None, "cache_size", value)).await
            }
        };
        let marked = || async {
            let lent = one.get().await.expect("opens");
            let read = |conn: &mut Connection| {
                conn.pragma_query_value(None, "cache_size", |row| row.get::<_, i64>(0))
            };
            lent.interact(read).await.expect("is done").expect("is read")
        };
        mark(-77).await.expect("is done").expect("is set");
        assert_eq!(marked().await, -77, "the same connection");
        let lent = one.get().await.expect("opens");
        let broken = lent.interact(|_| panic!("a defect")).await;
        drop(lent);
        assert!(broken.is_err());
        assert_eq!(marked().await, -600, "another, set up like all");
    }
}
