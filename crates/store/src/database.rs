//! Opening the data file, and the two ways into it: reading and writing.

use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};
use std::time::Duration;

use rusqlite::{Connection, OpenFlags, Transaction, TransactionBehavior};

use crate::connections::{BUSY, Connections, connections, prepare};
use crate::data_file::{Found, Holds, OpenError, beside, look, only_read, private};
use crate::error::StoreError;
use crate::migrations::bring_up_to_date;
use crate::projection::{self, Checked};
use crate::watch::Watch;

/// Readers that may look at the file at once: a few more than there are cores, so that a list does
/// not wait for a sum.
fn most_readers() -> usize {
    std::thread::available_parallelism().map_or(2, |cores| cores.get().clamp(2, 6)) + 2
}

/// Writes after which the journal is folded in at once, so that it does not grow.
const MOST_UNFOLDED: u64 = 500;

/// The data file, open.
#[derive(Debug, Clone)]
pub struct Store {
    writer: Connections,
    readers: Connections,
    watch: Watch,
    holds: Holds,
    /// Writes since the journal was folded in.
    unfolded: Arc<AtomicU64>,
    /// Whether another process has the file, and folds the journal in.
    is_beside: bool,
}

impl Store {
    /// Opens a data file, makes it if it is missing, and brings it up to date. It is only
    /// for its owner to read.
    ///
    /// Before an older file is changed, a copy of it is left beside it, named
    /// after the version it had.
    ///
    /// # Errors
    /// [`OpenError`], which names the file.
    pub async fn open(path: &Path) -> Result<Self, OpenError> {
        Self::opened(path, Holds::Farm).await
    }

    /// Opens the data file of the made-up farm: one that is missing is made and marked.
    ///
    /// # Errors
    /// [`OpenError`]; also if the file holds anything else.
    pub async fn open_demo(path: &Path) -> Result<Self, OpenError> {
        match look(path)? {
            Found::Ours { holds: Holds::Farm, .. } => Err(OpenError::NotDemo { path: path.to_owned() }),
            _ => Self::opened(path, Holds::Demo).await,
        }
    }

    /// Opens a data file beside the process that serves it. It is up to date then, and its journal is
    /// the other's to fold in, which watches that nobody else changes the file.
    ///
    /// # Errors
    /// [`OpenError`], which names the file; also if it is not up to date.
    pub async fn open_beside(path: &Path) -> Result<Self, OpenError> {
        match look(path)? {
            Found::Ours { holds, pending: 0, .. } => {
                Ok(Self { is_beside: true, ..Self::connected(path, holds).await? })
            }
            _ => Err(OpenError::unusable(path, &std::io::ErrorKind::NotFound)),
        }
    }

    async fn opened(path: &Path, if_new: Holds) -> Result<Self, OpenError> {
        let holds = prepare_file(path, if_new)?;
        Self::connected(path, holds).await
    }

    async fn connected(path: &Path, holds: Holds) -> Result<Self, OpenError> {
        let connected =
            |most| connections(path, most).map_err(|error| OpenError::unusable(path, &error.to_string()));
        let (writer, readers) = (connected(1)?, connected(most_readers())?);
        // All of them now: one that is opened later might open another file, or make one, where
        // this one was taken away.
        let mut all = vec![writer.get().await];
        for _ in 0..most_readers() {
            all.push(readers.get().await);
        }
        for opened in all {
            drop(opened.map_err(|error| OpenError::unusable(path, &error))?);
        }
        let watch = Watch::new(path).map_err(|error| OpenError::unusable(path, &error))?;
        Ok(Self { writer, readers, watch, holds, unfolded: Arc::default(), is_beside: false })
    }

    /// What the file holds.
    #[must_use]
    pub const fn holds(&self) -> Holds {
        self.holds
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
        let watch = self.watch.clone();
        watch.is_there()?;
        within(&self.readers, TransactionBehavior::Deferred, read, move || watch.look(), || Ok(())).await
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
        let (before, after) = (self.watch.clone(), self.watch.clone());
        before.is_there()?;
        let done = within(
            &self.writer,
            TransactionBehavior::Immediate,
            write,
            move || before.look(),
            move || after.look_after_write(),
        )
        .await;
        if self.unfolded.fetch_add(1, Ordering::Relaxed) + 1 >= MOST_UNFOLDED {
            self.fold_in().await;
        }
        done
    }

    /// Folds the journal into the data file, if anything was written since the last time:
    /// the file alone is whole then.
    pub async fn fold_in(&self) {
        if self.is_beside || self.unfolded.swap(0, Ordering::Relaxed) == 0 {
            return;
        }
        let Ok(connection) = self.writer.get().await else { return };
        let watch = self.watch.clone();
        let folded = connection.interact(move |conn| watch.changing(|| fold_in(conn)));
        // Somebody reads just now: another time.
        if !matches!(folded.await, Ok(Ok(true))) {
            self.unfolded.fetch_add(1, Ordering::Relaxed);
        }
    }

    /// Lets go of the file: what is being written is finished, nothing new is begun.
    pub async fn close(&self) {
        self.fold_in().await;
        self.readers.close();
        self.writer.close();
    }
}

async fn within<T, E, F>(
    among: &Connections,
    behavior: TransactionBehavior,
    act: F,
    before: impl FnOnce() -> Result<(), StoreError> + Send + 'static,
    after: impl FnOnce() -> Result<(), StoreError> + Send + 'static,
) -> Result<T, E>
where
    T: Send + 'static,
    E: From<StoreError> + Send + 'static,
    F: FnOnce(&Transaction<'_>) -> Result<T, E> + Send + 'static,
{
    let connection = among.get().await.map_err(|error| StoreError::Busy(error.to_string()))?;
    connection
        .interact(move |connection| {
            before()?;
            let transaction = connection.transaction_with_behavior(behavior).map_err(StoreError::from)?;
            // Dropped on an error, and with it all that was written.
            let answer = act(&transaction)?;
            transaction.commit().map_err(StoreError::from)?;
            after()?;
            Ok(answer)
        })
        .await
        .map_err(|error| StoreError::Busy(error.to_string()))?
}

/// Whether all of the journal is in the file now. Nobody who reads is waited for, since
/// everybody else would wait too.
fn fold_in(conn: &Connection) -> bool {
    let _ = conn.busy_timeout(Duration::ZERO);
    let busy = conn.query_row("PRAGMA wal_checkpoint(TRUNCATE)", [], |row| row.get::<_, i64>(0));
    let _ = conn.busy_timeout(BUSY);
    busy.is_ok_and(|busy| busy == 0)
}

/// Makes anew from the log of a file all that stands in it, in a copy, and compares.
///
/// The file itself is only read; one of an earlier version is brought up to date in the copy.
///
/// # Errors
/// [`OpenError`], which names the file.
pub fn check_file(path: &Path) -> Result<Checked, OpenError> {
    let unusable = |error: rusqlite::Error| OpenError::unusable(path, &error);
    let not_ours = |reason: String| OpenError::NotOurs { path: path.to_owned(), reason };
    if look(path)? == Found::Nothing {
        return Err(not_ours("empty".into()));
    }
    let file = only_read(path)?;
    let mut copy = Connection::open_in_memory().map_err(unusable)?;
    rusqlite::backup::Backup::new(&file, &mut copy)
        .and_then(|backup| backup.run_to_completion(PAGES_AT_ONCE, Duration::ZERO, None))
        .map_err(unusable)?;
    bring_up_to_date(&mut copy).map_err(|error| not_ours(error.to_string()))?;
    projection::check(&copy).map_err(|error| not_ours(error.to_string()))
}

/// Pages of a file copied in one go.
const PAGES_AT_ONCE: i32 = 1024;

/// Copies a data file while it may be in use, whole or not at all.
///
/// # Errors
/// [`OpenError`], which names the file at fault; also if there is something at `to` already.
pub fn back_up(path: &Path, to: &Path) -> Result<(), OpenError> {
    if look(path)? == Found::Nothing {
        return Err(OpenError::unusable(path, &std::io::ErrorKind::NotFound));
    }
    if to.try_exists().map_err(|error| OpenError::unusable(to, &error))? {
        return Err(OpenError::unusable(to, &std::io::ErrorKind::AlreadyExists));
    }
    // Under another name until it is whole, so that half a copy is never taken for one.
    let under_way = beside(to, "-part");
    let _ = std::fs::remove_file(&under_way);
    let copied = copy(path, &under_way).and_then(|()| {
        look(&under_way)?;
        std::fs::rename(&under_way, to).map_err(|error| OpenError::unusable(to, &error))
    });
    if copied.is_err() {
        let _ = std::fs::remove_file(&under_way);
    }
    copied
}

fn copy(path: &Path, to: &Path) -> Result<(), OpenError> {
    private(to).map_err(|error| OpenError::unusable(to, &error))?;
    let flags = OpenFlags::SQLITE_OPEN_READ_WRITE | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let from = Connection::open_with_flags(path, flags).map_err(|error| OpenError::unusable(path, &error))?;
    from.busy_timeout(BUSY).map_err(|error| OpenError::unusable(path, &error))?;
    from.backup("main", to, None).map_err(|error| OpenError::unusable(to, &error))?;
    // A copy is one file: it is not in the mode that keeps a journal beside it.
    let copied = Connection::open(to).and_then(|copied| copied.pragma_update(None, "journal_mode", "DELETE"));
    copied.map_err(|error| OpenError::unusable(to, &error))
}

/// Folds in the journal of a file that nobody has open any more, so that the file alone is
/// whole. Nothing is made where there is none.
pub fn fold_in_after(path: &Path) {
    let flags = OpenFlags::SQLITE_OPEN_READ_WRITE | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    if let Ok(conn) = Connection::open_with_flags(path, flags) {
        fold_in(&conn);
    }
}

/// Looks at a file, copies an older one, and brings it up to date; a new one is made and marked.
fn prepare_file(path: &Path, if_new: Holds) -> Result<Holds, OpenError> {
    let unusable = |error: rusqlite::Error| OpenError::unusable(path, &error);
    let found = look(path)?;
    if let Found::Ours { version, pending, .. } = found
        && pending > 0
    {
        back_up(path, &free_name(path, version + pending))?;
    }
    private(path).map_err(|error| OpenError::unusable(path, &error))?;
    let mut connection = Connection::open(path).map_err(unusable)?;
    prepare(&connection).map_err(unusable)?;
    let broken = |error: StoreError| OpenError::unusable(path, &error);
    bring_up_to_date(&mut connection).map_err(broken)?;
    match found {
        Found::Ours { holds, .. } => Ok(holds),
        Found::Nothing => {
            if_new.mark(&connection).map_err(unusable)?;
            Ok(if_new)
        }
    }
}

/// What the copy of an older file is called: a copy that is there already is kept.
fn free_name(path: &Path, version: i64) -> PathBuf {
    let name = |more: &str| path.with_extension(format!("before-v{version}{more}"));
    let numbered = (2..).map(|number| name(&format!("-{number}")));
    let mut names = std::iter::once(name("")).chain(numbered);
    names.find(|name| !name.exists()).unwrap_or_else(|| name(""))
}
