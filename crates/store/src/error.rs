//! Why a record could not be read or written.

/// Why a record could not be read or written.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum StoreError {
    /// There is no such record, or it has been removed.
    #[error("there is no such {kind}")]
    NotFound {
        /// What was looked for.
        kind: &'static str,
    },
    /// The record was changed since it was read.
    #[error(
        "this {kind} was changed elsewhere: it is at version {current}, the change was made to version {given}"
    )]
    Stale {
        /// What was to be changed.
        kind: &'static str,
        /// The version that is there.
        current: i64,
        /// The version the change was made to.
        given: i64,
    },
    /// Another record has that name already.
    #[error("there is a {kind} called \"{name}\" already")]
    NameTaken {
        /// What kind of record.
        kind: &'static str,
        /// The name.
        name: String,
    },
    /// The last of its kind must stay.
    #[error("this is the only {kind}; there must be one")]
    LastOne {
        /// What was to be removed.
        kind: &'static str,
    },
    /// Another record leans on it.
    #[error("another {kind} is counted in this one; change that one first")]
    InUse {
        /// What was to be removed.
        kind: &'static str,
    },
    /// More was asked of a lot than there is.
    #[error("there is only {left} left")]
    NotEnough {
        /// What is left, in the lot's unit.
        left: f64,
    },
    /// A record that is pointed to does not exist.
    #[error("it points to a record that does not exist")]
    DanglingReference,
    /// SQLite refused.
    #[error("the data file could not be read or written: {0}")]
    Sqlite(rusqlite::Error),
    /// No connection could be had.
    #[error("the data file is busy: {0}")]
    Busy(String),
}

impl From<rusqlite::Error> for StoreError {
    fn from(error: rusqlite::Error) -> Self {
        match &error {
            rusqlite::Error::SqliteFailure(code, _)
                if code.extended_code == rusqlite::ffi::SQLITE_CONSTRAINT_FOREIGNKEY =>
            {
                Self::DanglingReference
            }
            _ => Self::Sqlite(error),
        }
    }
}

/// Whether SQLite refused because a unique name is taken.
pub(crate) fn is_taken(error: &rusqlite::Error) -> bool {
    matches!(error, rusqlite::Error::SqliteFailure(code, _)
        if code.extended_code == rusqlite::ffi::SQLITE_CONSTRAINT_UNIQUE)
}

/// What became of a change that went by version: one row, or the reason why not.
pub(crate) fn versioned<T>(
    changed: Option<T>,
    kind: &'static str,
    given: i64,
    current: impl FnOnce() -> rusqlite::Result<Option<i64>>,
) -> Result<T, StoreError> {
    if let Some(record) = changed {
        return Ok(record);
    }
    match current()? {
        Some(current) => Err(StoreError::Stale { kind, current, given }),
        None => Err(StoreError::NotFound { kind }),
    }
}
