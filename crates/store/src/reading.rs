//! Temperatures by the thousand, in packs: of a probe's day, or of a file.
//!
//! A pack belongs to one entry of the log; taking that back takes all of them out. What
//! was read stays as it is.

use rusqlite::{Connection, OptionalExtension, Row, named_params, params};
use zymarch_core::tend::entry::{ReadBy, Spot};
use zymarch_core::tend::reading::Reading;

use crate::error::StoreError;
use crate::id::{EntryId, ProbeId};
use crate::log::About;
use crate::own;

/// Readings that came together.
#[derive(Debug, Clone, PartialEq)]
pub struct Pack {
    /// Its number.
    pub id: i64,
    /// Its entry.
    pub entry: EntryId,
    /// The probe that sent it, if one did.
    pub probe: Option<ProbeId>,
    /// How many came so far.
    pub readings: u32,
    /// The coldest and the hottest [°C]; none while there is none.
    pub range_c: Option<[f64; 2]>,
}

/// One temperature that is to be written down.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Point {
    /// When it was read, milliseconds since 1970, UTC.
    pub at_ms: i64,
    /// Where.
    pub place: Spot,
    /// How deep [cm], if that was said.
    pub depth_cm: Option<f64>,
    /// How warm [°C].
    pub temp_c: f64,
}

const UNSAID: f64 = -1.0;

/// Opens a pack for an entry that was written down.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn open(
    conn: &Connection,
    entry: EntryId,
    about: About,
    (probe, day): (Option<ProbeId>, i64),
) -> Result<i64, StoreError> {
    let (subject, id) = about.columns();
    let sql =
        "INSERT INTO reading_pack (entry_id, subject, subject_id, probe_id, day) VALUES (?1, ?2, ?3, ?4, ?5)";
    conn.prepare_cached(sql)?.execute(params![entry, subject, id, probe, day])?;
    Ok(conn.last_insert_rowid())
}

/// The packs of a probe's day, the newest first: one that was taken back is among them.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_day(conn: &Connection, about: About, probe: ProbeId, day: i64) -> Result<Vec<Pack>, StoreError> {
    let sql = format!(
        "SELECT {COLUMNS} FROM reading_pack WHERE subject_id = ?1 AND probe_id = ?2 AND day = ?3 ORDER BY id DESC"
    );
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map(params![about.columns().1, probe, day], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// All packs of a thing, those that were taken back among them.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn packs(conn: &Connection, about: About) -> Result<Vec<Pack>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM reading_pack WHERE subject_id = ?1 ORDER BY id");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([about.columns().1], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

const COLUMNS: &str = "id, entry_id, probe_id, readings, low_c, high_c";

fn from_row(row: &Row<'_>) -> rusqlite::Result<Pack> {
    let (low, high): (Option<f64>, Option<f64>) = (row.get("low_c")?, row.get("high_c")?);
    Ok(Pack {
        id: row.get("id")?,
        entry: row.get("entry_id")?,
        probe: row.get("probe_id")?,
        readings: row.get("readings")?,
        range_c: low.zip(high).map(|(low, high)| [low, high]),
    })
}

const ADD: &str = "
    INSERT INTO reading (pack, at_ms, place, depth_cm, temp_c, recorded_ms)
    VALUES (:pack, :at, :place, :depth, :temp, :recorded)
    ON CONFLICT DO NOTHING";

/// Adds readings to a pack; how many were new. One of the same time and point is there already and stays.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn add(conn: &Connection, pack: i64, recorded_ms: i64, points: &[Point]) -> Result<usize, StoreError> {
    let mut insert = conn.prepare_cached(ADD)?;
    let (mut new, mut low, mut high) = (0, f64::INFINITY, f64::NEG_INFINITY);
    for point in points {
        let added = insert.execute(named_params! {
            ":pack": pack, ":at": point.at_ms, ":place": point.place.as_str(),
            ":depth": point.depth_cm.unwrap_or(UNSAID), ":temp": point.temp_c, ":recorded": recorded_ms,
        })?;
        if added > 0 {
            new += added;
            (low, high) = (low.min(point.temp_c), high.max(point.temp_c));
        }
    }
    if new > 0 {
        let sql = "UPDATE reading_pack
                   SET readings = readings + ?2, low_c = min(coalesce(low_c, ?3), ?3),
                       high_c = max(coalesce(high_c, ?4), ?4)
                   WHERE id = ?1";
        conn.prepare_cached(sql)?.execute(params![pack, new as i64, low, high])?;
    }
    Ok(new)
}

/// The readings of a pack, in the order of time, each marked as of a source of the caller's.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_pack(conn: &Connection, pack: i64, source: u32) -> Result<Vec<Reading>, StoreError> {
    let sql =
        "SELECT at_ms, place, depth_cm, temp_c, recorded_ms FROM reading WHERE pack = ?1 ORDER BY at_ms";
    let mut statement = conn.prepare_cached(sql)?;
    let rows = statement.query_map([pack], |row| {
        let depth: f64 = row.get(2)?;
        let place = row.get_ref(1)?.as_str().ok().and_then(Spot::parse);
        Ok(Reading {
            at_ms: row.get(0)?,
            place: place.map_or_else(|| own::word(row, "place", Spot::parse), Ok)?,
            depth_cm: (depth >= 0.0).then_some(depth),
            temp_c: row.get(3)?,
            recorded_ms: row.get(4)?,
            by: ReadBy::Probe,
            source,
        })
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// What grows with every reading that comes to a thing.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn stamp(conn: &Connection, about: About) -> Result<i64, StoreError> {
    let sql = "SELECT coalesce(sum(readings + 1), 0) FROM reading_pack WHERE subject_id = ?1";
    Ok(conn.prepare_cached(sql)?.query_row([about.columns().1], |row| row.get(0))?)
}

/// A photo.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Photo {
    /// What it is, as a type of media.
    pub media: String,
    /// Itself.
    pub bytes: Vec<u8>,
}

/// Keeps the photo of an entry that was written down.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn keep_photo(conn: &Connection, entry: EntryId, photo: &Photo) -> Result<(), StoreError> {
    let sql = "INSERT INTO photo (entry_id, media, bytes) VALUES (?1, ?2, ?3) ON CONFLICT DO NOTHING";
    conn.prepare_cached(sql)?.execute(params![entry, photo.media, photo.bytes])?;
    Ok(())
}

/// The photo of an entry.
///
/// # Errors
/// [`StoreError::NotFound`] if it has none.
pub fn photo(conn: &Connection, entry: EntryId) -> Result<Photo, StoreError> {
    conn.prepare_cached("SELECT media, bytes FROM photo WHERE entry_id = ?1")?
        .query_row([entry], |row| Ok(Photo { media: row.get(0)?, bytes: row.get(1)? }))
        .optional()?
        .ok_or(StoreError::NotFound { kind: "photo" })
}
