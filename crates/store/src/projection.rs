//! What stands: tables made of the log, fast to read, and made anew from it at any time.
//!
//! One thing at a time: when an entry is added, all that happened to its subject is
//! folded again, so that an entry that arrives late or takes another back needs no
//! case of its own. Made anew from the whole log they are equal to themselves, which
//! [`check`] shows.

mod compost;
mod heap;
mod lot;
mod test;

use rusqlite::{Connection, named_params};
use uuid::Uuid;
use zymarch_core::log::Subject;

pub use heap::HeapStand;
pub use lot::movement;

use crate::error::StoreError;
use crate::id::EntryId;
use crate::log::{self, About, Body, Entry};

/// Tables that hold nothing but what the log says, and what each is ordered by.
const TABLES: [(&str, &str); 8] = [
    ("lot_stock", "lot_id"),
    ("field_test", "id"),
    ("batch_stock", "batch_id"),
    ("heap", "id"),
    ("sorted_out", "id"),
    ("compost", "id"),
    ("applied", "id"),
    ("lab_result", "id"),
];

/// Brings what stands of one thing up to date with the log.
pub(crate) fn refresh(conn: &Connection, about: About) -> Result<(), StoreError> {
    // Weather stands in the log alone, and there is much of it.
    if matches!(about, About::Site(_)) {
        return Ok(());
    }
    let entries = log::of(conn, about)?;
    let count = entries.len();
    let head = entries.iter().max_by_key(|entry| (entry.recorded_ms, entry.id)).map(|entry| entry.id);
    let standing = Standing { entries: log::those_that_stand(entries), count, head };
    match about {
        About::Lot(id) => lot::refresh(conn, id, &standing),
        About::Test(id) => test::refresh(conn, id, &standing),
        About::Batch(_) => batch(conn, about, &standing),
        About::Heap(id) => heap::refresh(conn, id, &standing),
        About::SortedOut(_) => sorted_out(conn, about, &standing),
        About::Compost(id) => compost::refresh(conn, id, &standing),
        About::Ground(_) => compost::lab_results(conn, about, &standing),
        About::Site(_) => Ok(()),
    }
}

/// All that happened to something and stands, in order.
pub(crate) struct Standing {
    /// The entries that no other takes back.
    pub(crate) entries: Vec<Entry>,
    /// How many there are in all: grows with every change.
    pub(crate) count: usize,
    /// The one written down last.
    pub(crate) head: Option<EntryId>,
}

impl Standing {
    /// Whether it was taken off the list.
    pub(crate) fn is_removed(&self) -> bool {
        self.entries.iter().any(|entry| entry.body == Body::Removed)
    }

    /// When what goes in was last taken from stock, if it was not given back since.
    pub(crate) fn taken_ms(&self) -> Option<i64> {
        let taken = self.entries.iter().rev().find_map(|entry| match entry.body {
            Body::StockTaken => Some(Some(entry.at_ms)),
            Body::StockReturned => Some(None),
            _ => None,
        });
        taken.flatten()
    }
}

fn batch(conn: &Connection, about: About, standing: &Standing) -> Result<(), StoreError> {
    let id = about.key().hyphenated().to_string();
    conn.prepare_cached("DELETE FROM batch_stock WHERE batch_id = ?1")?.execute([&id])?;
    if let Some(taken_ms) = standing.taken_ms() {
        conn.prepare_cached("INSERT INTO batch_stock (batch_id, taken_ms) VALUES (?1, ?2)")?
            .execute((&id, taken_ms))?;
    }
    Ok(())
}

const SORTED_OUT: &str = "
    INSERT INTO sorted_out (id, site_id, material, label, kg, went_to, made_on)
    VALUES (:id, :site, :material, :label, :kg, :went_to, :made_on)";

fn sorted_out(conn: &Connection, about: About, standing: &Standing) -> Result<(), StoreError> {
    let id = about.key().hyphenated().to_string();
    conn.prepare_cached("DELETE FROM sorted_out WHERE id = ?1")?.execute([&id])?;
    if standing.is_removed() {
        return Ok(());
    }
    let last = standing.entries.iter().rev().find_map(|entry| match &entry.body {
        Body::SortedOut(of) => Some((entry.site, of)),
        _ => None,
    });
    if let Some((site, of)) = last {
        conn.prepare_cached(SORTED_OUT)?.execute(named_params! {
            ":id": id, ":site": site, ":material": of.material, ":label": of.label, ":kg": of.kg,
            ":went_to": of.went_to, ":made_on": of.made_on,
        })?;
    }
    Ok(())
}

/// Makes all that stands anew from the log.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn rebuild(conn: &Connection) -> Result<(), StoreError> {
    for (table, _) in TABLES {
        conn.execute(&format!("DELETE FROM {table}"), [])?;
    }
    for about in subjects(conn)? {
        refresh(conn, about)?;
    }
    Ok(())
}

fn subjects(conn: &Connection) -> Result<Vec<About>, StoreError> {
    let mut statement =
        conn.prepare("SELECT DISTINCT subject, subject_id FROM entry ORDER BY subject, subject_id")?;
    let rows = statement.query_map([], |row| {
        let key: EntryId = row.get("subject_id")?;
        Ok((crate::own::word(row, "subject", Subject::parse)?, key.0))
    })?;
    let found: Vec<(Subject, Uuid)> = rows.collect::<Result<_, _>>()?;
    Ok(found.into_iter().map(|(subject, id)| About::new(subject, id)).collect())
}

/// What a check found.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Checked {
    /// Entries in the log.
    pub entries: u64,
    /// Rows that stand, of all tables.
    pub rows: u64,
    /// Where what stands is not what the log says: table, key, what stands, what the log says.
    pub differences: Vec<Difference>,
}

/// A row that is not what the log says.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Difference {
    /// The table.
    pub table: &'static str,
    /// The row as it stands; none if the log says there is one and there is not.
    pub stands: Option<String>,
    /// The row as the log says; none if it says nothing of it.
    pub log_says: Option<String>,
}

/// Makes all that stands anew from the log and compares. The connection is left as
/// it was made: call it on a copy, or in a transaction that is rolled back.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn check(conn: &Connection) -> Result<Checked, StoreError> {
    let before: Vec<Vec<String>> =
        TABLES.iter().map(|(table, key)| dump(conn, table, key)).collect::<Result<_, _>>()?;
    rebuild(conn)?;
    let mut differences = Vec::new();
    for ((table, key), stood) in TABLES.iter().zip(&before) {
        let made = dump(conn, table, key)?;
        for row in stood.iter().filter(|row| !made.contains(row)) {
            differences.push(Difference { table, stands: Some(row.clone()), log_says: None });
        }
        for row in made.iter().filter(|row| !stood.contains(row)) {
            differences.push(Difference { table, stands: None, log_says: Some(row.clone()) });
        }
    }
    let entries: i64 = conn.query_row("SELECT count(*) FROM entry", [], |row| row.get(0))?;
    let rows = before.iter().map(|rows| rows.len() as u64).sum();
    Ok(Checked { entries: entries.unsigned_abs(), rows, differences })
}

/// All rows of a table, each as text that is equal where the rows are.
fn dump(conn: &Connection, table: &str, key: &str) -> Result<Vec<String>, StoreError> {
    let mut statement = conn.prepare(&format!("SELECT * FROM {table} ORDER BY {key}"))?;
    let columns: Vec<String> = statement.column_names().into_iter().map(str::to_owned).collect();
    let rows = statement.query_map([], |row| {
        let cells: Vec<String> = columns
            .iter()
            .enumerate()
            .map(|(at, name)| Ok(format!("{name}={:?}", row.get::<_, rusqlite::types::Value>(at)?)))
            .collect::<rusqlite::Result<_>>()?;
        Ok(cells.join(" "))
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}
