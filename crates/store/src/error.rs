//! Why a record could not be read or written.

use rusqlite::ErrorCode;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};

/// Why a record could not be read or written. What it says is for the log; a
/// person reads the words of the fault that it becomes.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum StoreError {
    /// There is no such record, or it has been removed.
    #[error("not found: {kind}")]
    NotFound {
        /// What was looked for.
        kind: &'static str,
    },
    /// The record was changed since it was read.
    #[error("stale: {kind} is at {current}, change was made to {given}")]
    Stale {
        /// What was to be changed.
        kind: &'static str,
        /// The version that is there.
        current: i64,
        /// The version the change was made to.
        given: i64,
    },
    /// Another record has that name already.
    #[error("name taken: {kind} {name}")]
    NameTaken {
        /// What kind of record.
        kind: &'static str,
        /// The name.
        name: String,
    },
    /// The last of its kind must stay.
    #[error("last one: {kind}")]
    LastOne {
        /// What was to be removed.
        kind: &'static str,
    },
    /// Another record leans on it.
    #[error("in use: {kind}")]
    InUse {
        /// What was to be removed.
        kind: &'static str,
    },
    /// An entry of that id is there and says something else.
    #[error("entry taken")]
    EntryTaken,
    /// A record that is pointed to does not exist.
    #[error("dangling reference")]
    DanglingReference,
    /// What an entry holds cannot be read.
    #[error("unreadable entry: {0}")]
    Unreadable(String),
    /// SQLite refused.
    #[error("sqlite: {0}")]
    Sqlite(rusqlite::Error),
    /// The data file was deleted while it was open.
    #[error("the file is gone")]
    FileGone,
    /// Another file stands in the place of the one that was opened.
    #[error("the file was replaced")]
    FileReplaced,
    /// The data file may only be read.
    #[error("the file is only to be read")]
    OnlyRead,
    /// The data file cannot be looked at.
    #[error("unreachable: {0}")]
    Unreachable(String),
    /// There is no room on the disk.
    #[error("the disk is full")]
    Full,
    /// Another program keeps the file locked.
    #[error("locked: {0}")]
    Locked(String),
    /// No connection could be had.
    #[error("busy: {0}")]
    Busy(String),
}

/// As a finding, like every other refusal: its words stand in the locale files.
impl From<StoreError> for Faults {
    fn from(error: StoreError) -> Self {
        let of = |code, kind: &'static str| Fault::new(code).with("kind", kind);
        match error {
            StoreError::NotFound { kind } => of(FaultCode::NotFound, kind),
            StoreError::Stale { kind, current, given } => {
                of(FaultCode::Stale, kind).with("current", current).with("given", given)
            }
            StoreError::NameTaken { kind, name } => {
                Fault { path: "name".into(), ..of(FaultCode::NameTaken, kind).with("name", name) }
            }
            StoreError::LastOne { kind } => of(FaultCode::LastOne, kind),
            StoreError::InUse { kind } => of(FaultCode::InUse, kind),
            StoreError::EntryTaken => Fault::of("entry", FaultCode::EntryTaken),
            StoreError::DanglingReference => Fault::new(FaultCode::Dangling),
            StoreError::FileGone => Fault::new(FaultCode::FileGone),
            StoreError::FileReplaced => Fault::new(FaultCode::FileReplaced),
            StoreError::OnlyRead => Fault::new(FaultCode::FileOnlyRead),
            StoreError::Unreachable(why) => Fault::new(FaultCode::FileUnreachable).with("why", why),
            StoreError::Full => Fault::new(FaultCode::DiskFull),
            StoreError::Locked(why) => Fault::new(FaultCode::FileLocked).with("why", why),
            StoreError::Busy(why) => Fault::new(FaultCode::Busy).with("why", why),
            StoreError::Unreadable(why) => Fault::new(FaultCode::Broken).with("why", why),
            StoreError::Sqlite(error) => Fault::new(FaultCode::Broken).with("why", error.to_string()),
        }
        .into()
    }
}

impl From<rusqlite::Error> for StoreError {
    fn from(error: rusqlite::Error) -> Self {
        match &error {
            rusqlite::Error::SqliteFailure(code, _)
                if code.extended_code == rusqlite::ffi::SQLITE_CONSTRAINT_FOREIGNKEY =>
            {
                Self::DanglingReference
            }
            rusqlite::Error::SqliteFailure(code, _) => match code.code {
                ErrorCode::DatabaseBusy | ErrorCode::DatabaseLocked => Self::Locked(error.to_string()),
                ErrorCode::ReadOnly => Self::OnlyRead,
                ErrorCode::DiskFull => Self::Full,
                ErrorCode::CannotOpen | ErrorCode::SystemIoFailure => Self::Unreachable(error.to_string()),
                _ => Self::Sqlite(error),
            },
            _ => Self::Sqlite(error),
        }
    }
}

/// Whether SQLite refused because a unique name, or a key, is taken.
pub(crate) fn is_taken(error: &rusqlite::Error) -> bool {
    matches!(error, rusqlite::Error::SqliteFailure(code, _)
        if code.extended_code == rusqlite::ffi::SQLITE_CONSTRAINT_UNIQUE
            || code.extended_code == rusqlite::ffi::SQLITE_CONSTRAINT_PRIMARYKEY)
}

/// A refusal for a name that is taken; anything else as it is.
pub(crate) fn name_taken(error: rusqlite::Error, kind: &'static str, name: &str) -> StoreError {
    if is_taken(&error) { StoreError::NameTaken { kind, name: name.to_owned() } } else { error.into() }
}
