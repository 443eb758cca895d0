//! Writing an entry down: into the log, and what stands is brought up to date with it.

use rusqlite::{Connection, named_params};

use crate::error::StoreError;
use crate::log::{self, Entry};
use crate::projection;

/// Whether an entry was new.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Appended {
    /// It is in the log now.
    New,
    /// It was there already, and says the same.
    Known,
}

const APPEND: &str = "
    INSERT INTO entry (id, site_id, subject, subject_id, kind, at_ms, recorded_ms, person, device, body, takes_back)
    VALUES (:id, :site, :subject, :subject_id, :kind, :at, :recorded, :person, :device, :body, :takes_back)";

/// Adds an entry, and brings what stands up to date with it.
///
/// # Errors
/// [`StoreError::EntryTaken`] if an entry of its id says something else;
/// [`StoreError::DanglingReference`] if its site does not exist.
pub fn append(conn: &Connection, entry: &Entry) -> Result<Appended, StoreError> {
    let appended = added(conn, entry)?;
    if appended == Appended::New {
        projection::refresh(conn, entry.about)?;
    }
    Ok(appended)
}

/// Adds entries that are all about one thing, and brings what stands of it up to date once.
///
/// # Errors
/// As [`append`].
pub fn append_all(conn: &Connection, entries: &[Entry]) -> Result<(), StoreError> {
    for entry in entries {
        added(conn, entry)?;
    }
    entries.last().map_or(Ok(()), |entry| projection::refresh(conn, entry.about))
}

fn added(conn: &Connection, entry: &Entry) -> Result<Appended, StoreError> {
    if let Some(known) = log::get(conn, entry.id)? {
        let is_same = known.about == entry.about
            && known.body == entry.body
            && known.takes_back == entry.takes_back
            && known.site == entry.site;
        return if is_same { Ok(Appended::Known) } else { Err(StoreError::EntryTaken) };
    }
    let (subject, subject_id) = entry.about.columns();
    conn.prepare_cached(APPEND)?.execute(named_params! {
        ":id": entry.id, ":site": entry.site, ":subject": subject, ":subject_id": subject_id,
        ":kind": entry.kind().as_str(), ":at": entry.at_ms, ":recorded": entry.recorded_ms,
        ":person": entry.person, ":device": entry.device, ":body": entry.body.to_json()?,
        ":takes_back": entry.takes_back,
    })?;
    Ok(Appended::New)
}
