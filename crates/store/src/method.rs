//! Methods of a person's own, beside those of the book.
//!
//! They belong to the file, not to a site, like materials.

use rusqlite::types::Type;
use rusqlite::{Connection, OptionalExtension, Row, ToSql, named_params};
use zymarch_core::base::quantity::Band;
use zymarch_core::plan::method::own::Changes;
use zymarch_core::plan::method::{self, Method, PatternLayer};

use crate::error::{StoreError, name_taken};
use crate::record::Records;

const METHODS: Records = Records { table: "method" };

/// A method of a person's own.
#[derive(Debug, Clone, PartialEq)]
pub struct OwnMethod {
    /// What it is; its id is the key.
    pub method: Method,
    /// Counts changes.
    pub version: i64,
}

/// Every own method that is there, by name.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn all(conn: &Connection) -> Result<Vec<OwnMethod>, StoreError> {
    let mut statement =
        conn.prepare_cached("SELECT * FROM method WHERE removed_at IS NULL ORDER BY name, id")?;
    let rows = statement.query_map([], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// Every own method there ever was: batches and heaps may still name one that was removed.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn ever(conn: &Connection) -> Result<Vec<Method>, StoreError> {
    let mut statement = conn.prepare_cached("SELECT * FROM method ORDER BY name, id")?;
    let rows = statement.query_map([], from_row)?;
    let found = rows.collect::<Result<Vec<_>, _>>()?;
    Ok(found.into_iter().map(|own| own.method).collect())
}

/// One own method.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: &str) -> Result<OwnMethod, StoreError> {
    conn.prepare_cached("SELECT * FROM method WHERE id = ?1 AND removed_at IS NULL")?
        .query_row([id], from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "method" })
}

const INSERT: &str = "
    INSERT INTO method (id, base, name, c_n, moisture, free_air_space_min, volume_l, height_cm, first_turn_day,
                        turn_every_days, check_days, active_weeks, cure_weeks, volume_left, mass_left,
                        nitrogen_kept, build_h_m3, turn_h_m3, pattern, foundation_cm, cap_cm, created_at,
                        updated_at)
    VALUES (:id, :base, :name, :c_n, :moisture, :air, :volume, :height, :first_turn, :turn_every, :check,
            :active, :cure, :volume_left, :mass_left, :kept, :build_h, :turn_h, :pattern, :foundation, :cap,
            :now, :now)";

const UPDATE: &str = "
    UPDATE method
    SET base = :base, name = :name, c_n = :c_n, moisture = :moisture, free_air_space_min = :air,
        volume_l = :volume, height_cm = :height, first_turn_day = :first_turn, turn_every_days = :turn_every,
        check_days = :check, active_weeks = :active, cure_weeks = :cure, volume_left = :volume_left,
        mass_left = :mass_left, nitrogen_kept = :kept, build_h_m3 = :build_h, turn_h_m3 = :turn_h,
        pattern = :pattern, foundation_cm = :foundation, cap_cm = :cap, version = version + 1, updated_at = :now
    WHERE id = :id AND removed_at IS NULL";

/// A new method.
///
/// # Errors
/// [`StoreError::NameTaken`] if there is one of that name, or ever was one of that id.
pub fn insert(conn: &Connection, new: &Method, now: &str) -> Result<OwnMethod, StoreError> {
    write(conn, INSERT, new, now).map_err(|error| taken(error, new))?;
    get(conn, &new.id)
}

/// Changes a method that was read at a version. Its id stays.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`], [`StoreError::NameTaken`].
pub fn update(conn: &Connection, version: i64, new: &Method, now: &str) -> Result<OwnMethod, StoreError> {
    let current = METHODS.version(conn, &new.id)?;
    METHODS.changed(conn, usize::from(current == Some(version)), &new.id, version)?;
    write(conn, UPDATE, new, now).map_err(|error| taken(error, new))?;
    get(conn, &new.id)
}

/// Removes a method; it can be brought back. Batches made by it keep it.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed already.
pub fn remove(conn: &Connection, id: &str, now: &str) -> Result<(), StoreError> {
    METHODS.remove(conn, &id, now)
}

/// Brings a removed method back. One that is there already stays as it is.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one; [`StoreError::NameTaken`] if
/// another took its name meanwhile.
pub fn restore(conn: &Connection, id: &str) -> Result<OwnMethod, StoreError> {
    METHODS.restore(conn, &id, id)?;
    get(conn, id)
}

fn taken(error: rusqlite::Error, of: &Method) -> StoreError {
    name_taken(error, "method", of.name.as_deref().unwrap_or(&of.id))
}

fn write(conn: &Connection, sql: &str, of: &Method, now: &str) -> rusqlite::Result<usize> {
    let text = |band: Band| band.to_string();
    let (every, turn_h) = (of.turn_every_days.map(text), of.turn_h_m3.map(text));
    let pattern: Vec<_> = of.pattern.iter().map(|layer| layer.as_str()).collect();
    let all: &[(&str, &dyn ToSql)] = named_params! {
        ":id": of.id, ":base": of.base, ":name": of.name, ":c_n": text(of.c_n), ":moisture": text(of.moisture),
        ":air": of.free_air_space_min, ":volume": text(of.volume_l), ":height": text(of.height_cm),
        ":first_turn": of.first_turn_day, ":turn_every": every, ":check": text(of.check_days),
        ":active": text(of.active_weeks), ":cure": text(of.cure_weeks), ":volume_left": text(of.volume_left),
        ":mass_left": text(of.mass_left), ":kept": text(of.nitrogen_kept), ":build_h": text(of.build_h_m3),
        ":turn_h": turn_h, ":pattern": pattern.join(";"), ":foundation": of.foundation_cm, ":cap": of.cap_cm,
        ":now": now,
    };
    conn.prepare_cached(sql)?.execute(all)
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<OwnMethod> {
    let unread = |what: String| rusqlite::Error::FromSqlConversionFailure(0, Type::Text, what.into());
    let given = |column: &str| -> rusqlite::Result<Option<Band>> {
        let text: Option<String> = row.get(column)?;
        text.map(|text| Band::parse(&text).ok_or_else(|| unread(format!("{column} holds `{text}`"))))
            .transpose()
    };
    let band = |column: &str| given(column)?.ok_or_else(|| unread(format!("{column} is empty")));
    let base: String = row.get("base")?;
    let base = method::find(&base).ok_or_else(|| unread(format!("base: `{base}`")))?;
    let changes = Changes {
        c_n: band("c_n")?,
        moisture: band("moisture")?,
        free_air_space_min: row.get("free_air_space_min")?,
        volume_l: band("volume_l")?,
        height_cm: band("height_cm")?,
        first_turn_day: row.get("first_turn_day")?,
        turn_every_days: given("turn_every_days")?,
        check_days: band("check_days")?,
        active_weeks: band("active_weeks")?,
        cure_weeks: band("cure_weeks")?,
        volume_left: band("volume_left")?,
        mass_left: band("mass_left")?,
        nitrogen_kept: band("nitrogen_kept")?,
        build_h_m3: band("build_h_m3")?,
        turn_h_m3: given("turn_h_m3")?,
        pattern: row.get::<_, String>("pattern")?.split(';').filter_map(PatternLayer::parse).collect(),
        foundation_cm: row.get("foundation_cm")?,
        cap_cm: row.get("cap_cm")?,
    };
    let (id, name): (String, String) = (row.get("id")?, row.get("name")?);
    let method = changes.applied(base, &id, &name).map_err(|bad| unread(bad.to_string()))?;
    Ok(OwnMethod { method, version: row.get("version")? })
}
