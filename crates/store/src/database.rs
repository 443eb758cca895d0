//! Opening the data file, and the two ways into it: reading and writing.

use std::path::{Path, PathBuf};
use std::time::Duration;

use deadpool_sqlite::{Config, Hook, HookError, Pool, Runtime};
use rusqlite::{Connection, OpenFlags, Transaction, TransactionBehavior};

use crate::error::StoreError;
use crate::migrations::{MIGRATIONS, bring_up_to_date};
use crate::projection::{self, Checked};

/// Readers that may look at the file at once.
const READERS: usize = 4;

/// How long a connection waits for another process to finish writing.
const BUSY: Duration = Duration::from_secs(5);

/// The data file, open.
#[derive(Debug, Clone)]
pub struct Store {
    writer: Pool,
    readers: Pool,
}

/// Why a data file could not be opened.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum OpenError {
    /// The folder or the file cannot be used.
    #[error("{}: {source}", path.display())]
    Unusable {
        /// The data file.
        path: PathBuf,
        /// What the system said.
        source: rusqlite::Error,
    },
    /// The file was written by a later version of this program.
    #[error("{}: later version {version}", path.display())]
    LaterVersion {
        /// The data file.
        path: PathBuf,
        /// Its version.
        version: i64,
    },
    /// It is no data file of this program, or an older one where only a new one is read.
    #[error("{}: {reason}", path.display())]
    NotOurs {
        /// The data file.
        path: PathBuf,
        /// What was found.
        reason: String,
    },
    /// The connections could not be set up.
    #[error("{}: {reason}", path.display())]
    Pool {
        /// The data file.
        path: PathBuf,
        /// Why.
        reason: String,
    },
}

impl Store {
    /// Opens a data file, makes it if it is missing, and brings it up to date.
    ///
    /// Before an older file is changed, a copy of it is left beside it, named
    /// after the version it had.
    ///
    /// # Errors
    /// [`OpenError`], which names the file.
    pub async fn open(path: &Path) -> Result<Self, OpenError> {
        migrate(path)?;
        let writer = pool(path, 1)?;
        let readers = pool(path, READERS)?;
        Ok(Self { writer, readers })
    }

    /// Reads, in one view of the file that no writer changes meanwhile.
    ///
    /// # Errors
    /// What `read` answers, or [`StoreError::Busy`].
    pub async fn read<T, E, F>(&self, read: F) -> Result<T, E>
    where
        T: Send + 'static,
        E: From<StoreError> + Send + 'static,
        F: FnOnce(&Transaction<'_>) -> Result<T, E> + Send + 'static,
    {
        within(&self.readers, TransactionBehavior::Deferred, read).await
    }

    /// Writes, all or nothing. Once this answers, the write is on disk.
    ///
    /// # Errors
    /// What `write` answers, and then nothing was written; or [`StoreError::Busy`].
    pub async fn write<T, E, F>(&self, write: F) -> Result<T, E>
    where
        T: Send + 'static,
        E: From<StoreError> + Send + 'static,
        F: FnOnce(&Transaction<'_>) -> Result<T, E> + Send + 'static,
    {
        within(&self.writer, TransactionBehavior::Immediate, write).await
    }
}

async fn within<T, E, F>(pool: &Pool, behavior: TransactionBehavior, act: F) -> Result<T, E>
where
    T: Send + 'static,
    E: From<StoreError> + Send + 'static,
    F: FnOnce(&Transaction<'_>) -> Result<T, E> + Send + 'static,
{
    let connection = pool.get().await.map_err(|error| StoreError::Busy(error.to_string()))?;
    connection
        .interact(move |connection| {
            let transaction = connection.transaction_with_behavior(behavior).map_err(StoreError::from)?;
            // Dropped on an error, and with it all that was written.
            let answer = act(&transaction)?;
            transaction.commit().map_err(StoreError::from)?;
            Ok(answer)
        })
        .await
        .map_err(|error| StoreError::Busy(error.to_string()))?
}

fn pool(path: &Path, size: usize) -> Result<Pool, OpenError> {
    let broken = |reason: String| OpenError::Pool { path: path.to_owned(), reason };
    Config::new(path)
        .builder(Runtime::Tokio1)
        .map_err(|error| broken(error.to_string()))?
        .max_size(size)
        .post_create(Hook::async_fn(|connection, _| {
            Box::pin(async move {
                connection
                    .interact(|connection| prepare(connection))
                    .await
                    .map_err(|error| HookError::message(error.to_string()))?
                    .map_err(|error| HookError::message(error.to_string()))
            })
        }))
        .build()
        .map_err(|error| broken(error.to_string()))
}

/// Settings every connection needs. `synchronous = FULL` makes a commit wait
/// for the disk: what was acknowledged is there after a power cut.
fn prepare(connection: &Connection) -> rusqlite::Result<()> {
    connection.busy_timeout(BUSY)?;
    connection.pragma_update(None, "journal_mode", "WAL")?;
    connection.pragma_update(None, "synchronous", "FULL")?;
    connection.pragma_update(None, "foreign_keys", "ON")
}

/// Makes anew from the log of a file all that stands in it, in a copy, and compares.
///
/// The file itself is only read; one of an earlier version is brought up to date in the copy.
///
/// # Errors
/// [`OpenError`], which names the file.
pub fn check_file(path: &Path) -> Result<Checked, OpenError> {
    let unusable = |source| OpenError::Unusable { path: path.to_owned(), source };
    let not_ours = |reason: String| OpenError::NotOurs { path: path.to_owned(), reason };
    let flags = OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let file = Connection::open_with_flags(path, flags).map_err(unusable)?;
    let version: i64 = file.pragma_query_value(None, "user_version", |row| row.get(0)).map_err(unusable)?;
    match MIGRATIONS.pending_migrations(&file) {
        Ok(pending) if pending < 0 => return Err(OpenError::LaterVersion { path: path.to_owned(), version }),
        // One that nothing was ever written in is no farm's.
        Ok(_) if version > 0 => {}
        _ => return Err(not_ours(format!("user_version {version}"))),
    }
    let mut copy = Connection::open_in_memory().map_err(unusable)?;
    rusqlite::backup::Backup::new(&file, &mut copy)
        .and_then(|backup| backup.run_to_completion(PAGES_AT_ONCE, Duration::ZERO, None))
        .map_err(unusable)?;
    bring_up_to_date(&mut copy).map_err(|error| not_ours(error.to_string()))?;
    projection::check(&copy).map_err(|error| not_ours(error.to_string()))
}

/// Pages of a file copied in one go.
const PAGES_AT_ONCE: i32 = 1024;

fn migrate(path: &Path) -> Result<(), OpenError> {
    let unusable = |source| OpenError::Unusable { path: path.to_owned(), source };
    let not_ours = |reason: String| OpenError::NotOurs { path: path.to_owned(), reason };
    let mut connection = Connection::open(path).map_err(unusable)?;
    prepare(&connection).map_err(|error| not_ours(error.to_string()))?;
    let version: i64 =
        connection.pragma_query_value(None, "user_version", |row| row.get(0)).map_err(unusable)?;
    let pending = MIGRATIONS.pending_migrations(&connection).map_err(|error| not_ours(error.to_string()))?;
    if pending < 0 {
        return Err(OpenError::LaterVersion { path: path.to_owned(), version });
    }
    if pending > 0 && version > 0 {
        let copy = path.with_extension(format!("before-v{}", version + i64::from(pending)));
        if !copy.exists() {
            connection.backup("main", &copy, None).map_err(unusable)?;
        }
    }
    bring_up_to_date(&mut connection).map_err(|error| not_ours(error.to_string()))
}
