//! The data file as a thing on disk: whose it is, who has it open, whether it is still there.
//!
//! A file is looked at before anything is written to it. Somebody else's database, one of a
//! later version and a damaged one are refused as they are, to the byte.

use std::fs::{self, File, OpenOptions};
use std::io::{ErrorKind, Read, Seek, Write};
use std::path::{Path, PathBuf};

use rusqlite::{Connection, OpenFlags};

use crate::migrations::MIGRATIONS;

/// Tables that every version of a data file has, also before it said whose it is.
const ALWAYS: [&str; 4] = ["site", "measure", "lot", "batch"];

/// What a data file holds: `application_id` of SQLite says it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Holds {
    /// Somebody's records.
    Farm,
    /// The made-up farm, which may be thrown away.
    Demo,
}

impl Holds {
    /// "ZYMA" and "ZYMD" as numbers.
    const fn application_id(self) -> i64 {
        match self {
            Self::Farm => 0x5A59_4D41,
            Self::Demo => 0x5A59_4D44,
        }
    }

    fn of(application_id: i64) -> Option<Self> {
        [Self::Farm, Self::Demo].into_iter().find(|one| one.application_id() == application_id)
    }

    /// Marks a file that is open.
    pub(crate) fn mark(self, conn: &Connection) -> rusqlite::Result<()> {
        conn.pragma_update(None, "application_id", self.application_id())
    }
}

/// Why a data file could not be opened.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum OpenError {
    /// The folder or the file cannot be used.
    #[error("{}: {reason}", path.display())]
    Unusable {
        /// The data file.
        path: PathBuf,
        /// What the system said.
        reason: String,
    },
    /// The file was written by a later version of this program.
    #[error("{}: later version {version}", path.display())]
    LaterVersion {
        /// The data file.
        path: PathBuf,
        /// Its version.
        version: i64,
    },
    /// It is no data file of this program.
    #[error("{}: {reason}", path.display())]
    NotOurs {
        /// The data file.
        path: PathBuf,
        /// What was found.
        reason: String,
    },
    /// SQLite finds it damaged.
    #[error("{}: damaged: {reason}", path.display())]
    Damaged {
        /// The data file.
        path: PathBuf,
        /// The first damage found.
        reason: String,
    },
    /// It is not the made-up farm's, and must not be thrown away.
    #[error("{}: no demo", path.display())]
    NotDemo {
        /// The data file.
        path: PathBuf,
    },
    /// Another server has it.
    #[error("{}: taken by {process}", path.display())]
    Taken {
        /// The data file.
        path: PathBuf,
        /// The process that has it, as far as it is known.
        process: String,
    },
}

impl OpenError {
    pub(crate) fn unusable(path: &Path, error: &dyn std::fmt::Display) -> Self {
        Self::Unusable { path: path.to_owned(), reason: error.to_string() }
    }

    /// The file it is about.
    #[must_use]
    pub fn path(&self) -> &Path {
        match self {
            Self::Unusable { path, .. }
            | Self::LaterVersion { path, .. }
            | Self::NotOurs { path, .. }
            | Self::Damaged { path, .. }
            | Self::NotDemo { path }
            | Self::Taken { path, .. } => path,
        }
    }

    fn not_ours(path: &Path, reason: impl Into<String>) -> Self {
        Self::NotOurs { path: path.to_owned(), reason: reason.into() }
    }
}

/// What was found where a data file should be.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Found {
    /// Nothing yet.
    Nothing,
    /// A data file of this program.
    Ours {
        /// What it holds.
        holds: Holds,
        /// Its version.
        version: i64,
        /// Steps that bring it up to date.
        pending: i64,
    },
}

/// Looks at a file without changing a byte of it.
///
/// # Errors
/// [`OpenError`] if it is no data file, one of a later version, or damaged.
pub fn look(path: &Path) -> Result<Found, OpenError> {
    // Not opened by hand: closing it would let go of the locks SQLite has on it elsewhere
    // in this process.
    let there = match fs::metadata(path) {
        Ok(there) => there,
        Err(error) if error.kind() == ErrorKind::NotFound => return Ok(Found::Nothing),
        Err(error) => return Err(OpenError::unusable(path, &error)),
    };
    if there.is_dir() {
        return Err(OpenError::unusable(path, &ErrorKind::IsADirectory));
    }
    if there.len() == 0 {
        return Ok(Found::Nothing);
    }
    let conn = only_read(path)?;
    found_in(&conn, path)
}

/// A connection that only reads. Where no journal waits to be folded in, nothing is laid
/// beside the file either.
pub(crate) fn only_read(path: &Path) -> Result<Connection, OpenError> {
    let waits = fs::metadata(beside(path, "-wal")).is_ok_and(|wal| wal.len() > 0);
    let flags = OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let opened = if waits {
        Connection::open_with_flags(path, flags)
    } else {
        let name = address(path);
        Connection::open_with_flags(name, flags | OpenFlags::SQLITE_OPEN_URI)
    };
    opened.map_err(|error| OpenError::unusable(path, &error))
}

/// A path as the address of a file that does not change while it is read.
fn address(path: &Path) -> String {
    let mut name = String::from("file:");
    for byte in path.as_os_str().as_encoded_bytes() {
        match byte {
            b'/' | b'.' | b'-' | b'_' | b'0'..=b'9' | b'a'..=b'z' | b'A'..=b'Z' => {
                name.push(char::from(*byte))
            }
            other => name.push_str(&format!("%{other:02X}")),
        }
    }
    name + "?immutable=1"
}

fn found_in(conn: &Connection, path: &Path) -> Result<Found, OpenError> {
    let damaged = |error: rusqlite::Error| match &error {
        rusqlite::Error::SqliteFailure(code, _) if code.code == rusqlite::ErrorCode::NotADatabase => {
            OpenError::not_ours(path, error.to_string())
        }
        _ => OpenError::Damaged { path: path.to_owned(), reason: error.to_string() },
    };
    let number = |name: &str| conn.pragma_query_value(None, name, |row| row.get::<_, i64>(0));
    let (application_id, version) =
        (number("application_id").map_err(damaged)?, number("user_version").map_err(damaged)?);
    let tables: Vec<String> = conn
        .prepare("SELECT name FROM sqlite_schema WHERE type = 'table'")
        .and_then(|mut all| all.query_map([], |row| row.get(0))?.collect())
        .map_err(damaged)?;
    let pending = MIGRATIONS
        .pending_migrations(conn)
        .map_err(|error| OpenError::not_ours(path, error.to_string()))?
        .into();
    let is_like_ours = application_id == 0
        && (if tables.is_empty() {
            pending < 0
        } else {
            ALWAYS.iter().all(|one| tables.iter().any(|t| t == one))
        });
    let holds = match Holds::of(application_id) {
        Some(holds) => holds,
        None if is_like_ours => Holds::Farm,
        None if application_id == 0 && version == 0 && tables.is_empty() => return Ok(Found::Nothing),
        None => return Err(OpenError::not_ours(path, format!("application_id {application_id}"))),
    };
    if pending < 0 {
        return Err(OpenError::LaterVersion { path: path.to_owned(), version });
    }
    if tables.is_empty() {
        return Ok(Found::Nothing);
    }
    let check: String = conn.query_row("PRAGMA quick_check(1)", [], |row| row.get(0)).map_err(damaged)?;
    if check != "ok" {
        return Err(OpenError::Damaged { path: path.to_owned(), reason: check });
    }
    Ok(Found::Ours { holds, version, pending })
}

/// Makes a file that only its owner may read, or narrows one that is there.
pub(crate) fn private(path: &Path) -> std::io::Result<()> {
    let mut options = OpenOptions::new();
    options.write(true).create_new(true);
    #[cfg(unix)]
    std::os::unix::fs::OpenOptionsExt::mode(&mut options, 0o600);
    match options.open(path) {
        Err(error) if error.kind() == ErrorKind::AlreadyExists => narrow(path),
        made => made.map(drop),
    }
}

#[cfg(unix)]
fn narrow(path: &Path) -> std::io::Result<()> {
    use std::os::unix::fs::PermissionsExt;
    let mode = fs::metadata(path)?.permissions().mode();
    if mode & 0o077 == 0 {
        Ok(())
    } else {
        fs::set_permissions(path, fs::Permissions::from_mode(mode & 0o700))
    }
}

#[cfg(not(unix))]
fn narrow(_: &Path) -> std::io::Result<()> {
    Ok(())
}

/// A file that stands beside another, as `farm.sqlite-wal`.
pub(crate) fn beside(path: &Path, suffix: &str) -> PathBuf {
    let mut name = path.as_os_str().to_owned();
    name.push(suffix);
    name.into()
}

/// Removes a data file of the demo and what SQLite keeps beside it. Anything else is kept.
///
/// # Errors
/// [`OpenError::NotDemo`] if it holds anything but the made-up farm.
pub fn remove_demo(path: &Path) -> Result<(), OpenError> {
    match look(path) {
        Ok(Found::Nothing | Found::Ours { holds: Holds::Demo, .. }) => {}
        Ok(Found::Ours { .. }) | Err(OpenError::NotOurs { .. } | OpenError::LaterVersion { .. }) => {
            return Err(OpenError::NotDemo { path: path.to_owned() });
        }
        Err(other) => return Err(other),
    }
    for suffix in ["", "-wal", "-shm"] {
        match fs::remove_file(beside(path, suffix)) {
            Err(error) if error.kind() != ErrorKind::NotFound => {
                return Err(OpenError::unusable(path, &error));
            }
            _ => {}
        }
    }
    Ok(())
}

/// Keeps a file for one server. It is let go when this is dropped, or the process ends.
#[derive(Debug)]
pub struct Lock {
    path: PathBuf,
    /// Locked as long as it is open.
    _file: File,
}

impl Lock {
    /// Takes the lock of a data file, in a small file beside it.
    ///
    /// # Errors
    /// [`OpenError::Taken`] if another process has it.
    pub fn take(data: &Path) -> Result<Self, OpenError> {
        let path = beside(data, "-lock");
        loop {
            private(&path).map_err(|error| OpenError::unusable(data, &error))?;
            let unusable = |error: std::io::Error| OpenError::unusable(data, &error);
            let mut file = OpenOptions::new().read(true).write(true).open(&path).map_err(unusable)?;
            match file.try_lock() {
                Ok(()) => {}
                Err(fs::TryLockError::WouldBlock) => {
                    let mut process = String::new();
                    let _ = file.take(20).read_to_string(&mut process);
                    return Err(OpenError::Taken { path: data.to_owned(), process });
                }
                Err(fs::TryLockError::Error(error)) => return Err(unusable(error)),
            }
            // Who had it before may have removed it between the opening and the lock.
            if Identity::of_file(&file).ok() != Identity::of(&path).ok() {
                continue;
            }
            let written = file.set_len(0).and_then(|()| file.rewind());
            written.and_then(|()| write!(file, "{}", std::process::id())).map_err(unusable)?;
            return Ok(Self { path, _file: file });
        }
    }
}

impl Drop for Lock {
    fn drop(&mut self) {
        let _ = fs::remove_file(&self.path);
    }
}

/// Which file it is, whatever it is called.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Identity(u64, u64);

impl Identity {
    pub(crate) fn of(path: &Path) -> std::io::Result<Self> {
        Ok(Self::from(&fs::metadata(path)?))
    }

    fn of_file(file: &File) -> std::io::Result<Self> {
        Ok(Self::from(&file.metadata()?))
    }
}

impl From<&fs::Metadata> for Identity {
    #[cfg(unix)]
    fn from(of: &fs::Metadata) -> Self {
        use std::os::unix::fs::MetadataExt;
        Self(of.dev(), of.ino())
    }

    /// Elsewhere an open file cannot be replaced.
    #[cfg(not(unix))]
    fn from(_: &fs::Metadata) -> Self {
        Self(0, 0)
    }
}
