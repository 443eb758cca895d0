//! Whether the file that is written to is still the one that will be found.
//!
//! A file that is deleted or replaced lives on for whoever has it open, and everything
//! written to it would be gone with the process. So it is looked at before each
//! transaction, and again before a write is acknowledged. One that is written over in place
//! stays the same file; but as long as the journal takes all writes, nothing changes the file
//! itself except that the journal is folded in, and that is known here.

use std::fs::Metadata;
use std::io::ErrorKind;
use std::path::{Path, PathBuf};
use std::sync::{Arc, OnceLock, PoisonError, RwLock};
use std::time::SystemTime;

use crate::data_file::{Identity, beside};
use crate::error::StoreError;

/// A data file that is open, and its journal.
#[derive(Debug, Clone)]
pub(crate) struct Watch(Arc<Watched>);

#[derive(Debug)]
struct Watched {
    path: PathBuf,
    journal: PathBuf,
    /// The file as it was left.
    as_left: RwLock<AsLeft>,
    /// Known from the first write on.
    journal_is: OnceLock<Identity>,
}

/// What gives a file away that is not as it was left.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
struct AsLeft {
    file: Identity,
    length: u64,
    changed: Option<SystemTime>,
}

impl From<&Metadata> for AsLeft {
    fn from(of: &Metadata) -> Self {
        Self { file: Identity::from(of), length: of.len(), changed: of.modified().ok() }
    }
}

impl Watch {
    pub(crate) fn new(path: &Path) -> std::io::Result<Self> {
        let as_left = RwLock::new(AsLeft::from(&std::fs::metadata(path)?));
        let journal = beside(path, "-wal");
        Ok(Self(Arc::new(Watched { path: path.to_owned(), journal, as_left, journal_is: OnceLock::new() })))
    }

    /// That there is a file at all, without waiting for anything: a connection that had to be
    /// made anew would make another one.
    pub(crate) fn is_there(&self) -> Result<(), StoreError> {
        std::fs::metadata(&self.0.path).map(drop).map_err(gone)
    }

    /// That the file is there, is the one that was opened, as it was left, and may be written.
    pub(crate) fn look(&self) -> Result<(), StoreError> {
        // Held, so that the journal is not folded in between the look and the comparison.
        let as_left = self.0.as_left.read().unwrap_or_else(PoisonError::into_inner);
        let found = std::fs::metadata(&self.0.path).map_err(gone)?;
        if AsLeft::from(&found) != *as_left {
            return Err(StoreError::FileReplaced);
        }
        if found.permissions().readonly() {
            return Err(StoreError::OnlyRead);
        }
        Ok(())
    }

    /// The same after a write: the journal too must be the one that will be found.
    pub(crate) fn look_after_write(&self) -> Result<(), StoreError> {
        self.look()?;
        let journal = Identity::of(&self.0.journal).map_err(gone)?;
        if *self.0.journal_is.get_or_init(|| journal) != journal {
            return Err(StoreError::FileReplaced);
        }
        Ok(())
    }

    /// Does what changes the file itself, and remembers how it was left. Nothing is done to a
    /// file that is not as it was left before.
    pub(crate) fn changing<T>(&self, change: impl FnOnce() -> T) -> Result<T, StoreError> {
        let mut as_left = self.0.as_left.write().unwrap_or_else(PoisonError::into_inner);
        let now = || std::fs::metadata(&self.0.path).map(|found| AsLeft::from(&found)).map_err(gone);
        if now()? != *as_left {
            return Err(StoreError::FileReplaced);
        }
        let done = change();
        *as_left = now()?;
        Ok(done)
    }
}

fn gone(error: std::io::Error) -> StoreError {
    if error.kind() == ErrorKind::NotFound {
        StoreError::FileGone
    } else {
        StoreError::Unreachable(error.to_string())
    }
}
