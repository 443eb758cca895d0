//! The person's own containers.

use rusqlite::{Connection, OptionalExtension, Row, named_params};

use crate::error::{StoreError, name_taken};
use crate::id::{MeasureId, SiteId};
use crate::record::Records;

const MEASURES: Records = Records { table: "measure" };

/// A container.
#[derive(Debug, Clone, PartialEq)]
pub struct Measure {
    /// Key.
    pub id: MeasureId,
    /// What it is.
    pub fields: NewMeasure,
    /// Counts changes.
    pub version: i64,
}

/// What a container is.
#[derive(Debug, Clone, PartialEq)]
pub struct NewMeasure {
    /// One of them: "barrow".
    pub name: String,
    /// Many of them: "barrows".
    pub plural: String,
    /// What one holds as it is filled [L].
    pub litres: f64,
    /// Sign it is drawn with.
    pub glyph: String,
    /// How its volume is known.
    pub way: MeasureWay,
    /// Filled to, as a share of level full.
    pub heaped: f64,
}

/// How the volume of a container is known.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum MeasureWay {
    /// Written on it, or known [L], level full.
    Litres(f64),
    /// Straight and round [cm].
    Cylinder {
        /// Across.
        across_cm: f64,
        /// Upright.
        height_cm: f64,
    },
    /// Round, wider at one end [cm].
    Cone {
        /// Across the top.
        top_cm: f64,
        /// Across the bottom.
        bottom_cm: f64,
        /// Upright.
        height_cm: f64,
    },
    /// With straight sides [cm].
    Box {
        /// Along.
        length_cm: f64,
        /// Across.
        width_cm: f64,
        /// Upright.
        height_cm: f64,
    },
    /// So many fillings of a known volume.
    Counted {
        /// How many.
        count: f64,
        /// What each holds [L].
        litres_each: f64,
    },
    /// So many of another measure of the site.
    Measures {
        /// How many.
        count: f64,
        /// Of which.
        of: MeasureId,
    },
}

impl NewMeasure {
    /// A container whose litres are simply known.
    pub fn of_litres(name: &str, plural: &str, litres: f64, glyph: &str) -> Self {
        Self {
            name: name.into(),
            plural: plural.into(),
            litres,
            glyph: glyph.into(),
            way: MeasureWay::Litres(litres),
            heaped: 1.0,
        }
    }
}

const COLUMNS: &str = "measure.id, name, plural, litres, glyph, way, across_cm, bottom_cm, length_cm, width_cm, \
                       height_cm, counted, part_litres, part_id, heaped, measure.version";

/// The containers of a site, in the order they were made.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<Measure>, StoreError> {
    let sql =
        format!("SELECT {COLUMNS} FROM measure WHERE site_id = :site AND removed_at IS NULL ORDER BY id");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map(named_params! { ":site": site }, from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// Every container a site ever had: lots may still be counted in one that was removed.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn ever_of_site(conn: &Connection, site: SiteId) -> Result<Vec<Measure>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM measure WHERE site_id = :site ORDER BY id");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map(named_params! { ":site": site }, from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// Whether there is, or ever was, one of that key.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn was_ever(conn: &Connection, id: MeasureId) -> Result<bool, StoreError> {
    MEASURES.was_ever(conn, &id)
}

/// The site a container is at.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none of that key.
pub fn site_of(conn: &Connection, id: MeasureId) -> Result<SiteId, StoreError> {
    conn.query_row("SELECT site_id FROM measure WHERE id = ?1", [id], |row| row.get(0))
        .optional()?
        .ok_or(StoreError::NotFound { kind: "measure" })
}

/// One container.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: MeasureId) -> Result<Measure, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM measure WHERE id = :id AND removed_at IS NULL");
    conn.prepare_cached(&sql)?
        .query_row(named_params! { ":id": id }, from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "measure" })
}

const INSERT: &str = "
    INSERT INTO measure (id, site_id, name, plural, litres, glyph, way, across_cm, bottom_cm, length_cm, width_cm,
                         height_cm, counted, part_litres, part_id, heaped, created_at, updated_at)
    VALUES (:id, :site, :name, :plural, :litres, :glyph, :way, :across, :bottom, :length, :width,
            :height, :counted, :part_litres, :part, :heaped, :now, :now)";

/// A new container.
///
/// # Errors
/// [`StoreError::NameTaken`] if the site has one of that name.
pub fn insert(
    conn: &Connection,
    id: MeasureId,
    site: SiteId,
    new: &NewMeasure,
    now: &str,
) -> Result<Measure, StoreError> {
    let sides = Sides::of(new.way);
    conn.prepare_cached(INSERT)?
        .execute(named_params! {
                ":id": id, ":site": site, ":name": new.name, ":plural": new.plural, ":litres": new.litres,
                ":glyph": new.glyph, ":way": sides.way, ":across": sides.across_cm,
                ":bottom": sides.bottom_cm, ":length": sides.length_cm, ":width": sides.width_cm,
                ":height": sides.height_cm, ":counted": sides.counted, ":part_litres": sides.part_litres,
                ":part": sides.part, ":heaped": new.heaped, ":now": now,
        })
        .map_err(|error| name_taken(error, "measure", &new.name))?;
    get(conn, id)
}

const UPDATE: &str = "
    UPDATE measure
    SET name = :name, plural = :plural, litres = :litres, glyph = :glyph, way = :way, across_cm = :across,
        bottom_cm = :bottom, length_cm = :length, width_cm = :width, height_cm = :height, counted = :counted,
        part_litres = :part_litres, part_id = :part, heaped = :heaped, version = version + 1, updated_at = :now
    WHERE id = :id AND version = :version AND removed_at IS NULL";

/// Changes a container that was read at a version.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`], [`StoreError::NameTaken`].
pub fn update(
    conn: &Connection,
    id: MeasureId,
    version: i64,
    new: &NewMeasure,
    now: &str,
) -> Result<Measure, StoreError> {
    let sides = Sides::of(new.way);
    let rows = conn
        .prepare_cached(UPDATE)?
        .execute(named_params! {
                ":id": id, ":version": version, ":name": new.name, ":plural": new.plural,
                ":litres": new.litres, ":glyph": new.glyph, ":way": sides.way, ":across": sides.across_cm,
                ":bottom": sides.bottom_cm, ":length": sides.length_cm, ":width": sides.width_cm,
                ":height": sides.height_cm, ":counted": sides.counted, ":part_litres": sides.part_litres,
                ":part": sides.part, ":heaped": new.heaped, ":now": now,
        })
        .map_err(|error| name_taken(error, "measure", &new.name))?;
    MEASURES.changed(conn, rows, &id, version)?;
    get(conn, id)
}

/// Sets what a container holds when the one it is counted in has changed.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn set_litres(conn: &Connection, id: MeasureId, litres: f64, now: &str) -> Result<(), StoreError> {
    conn.prepare_cached(
        "UPDATE measure SET litres = ?2, version = version + 1, updated_at = ?3 WHERE id = ?1",
    )?
    .execute((id, litres, now))?;
    Ok(())
}

/// Removes a container; it can be brought back. Lots counted in it keep it.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none; [`StoreError::InUse`] if another
/// container is counted in it.
pub fn remove(conn: &Connection, id: MeasureId, now: &str) -> Result<(), StoreError> {
    let used: bool = conn.query_row(
        "SELECT EXISTS (SELECT 1 FROM measure WHERE part_id = ?1 AND way = 'measures' AND removed_at IS NULL)",
        [id],
        |row| row.get(0),
    )?;
    if used {
        return Err(StoreError::InUse { kind: "measure" });
    }
    MEASURES.remove(conn, &id, now)
}

/// Brings a removed container back. One that is there already stays as it is.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one; [`StoreError::NameTaken`]
/// if another took its name meanwhile.
pub fn restore(conn: &Connection, id: MeasureId) -> Result<Measure, StoreError> {
    let name: Option<String> =
        conn.query_row("SELECT name FROM measure WHERE id = ?1", [id], |row| row.get(0)).optional()?;
    MEASURES.restore(conn, &id, &name.unwrap_or_default())?;
    get(conn, id)
}

/// A way as the columns hold it.
#[derive(Default)]
struct Sides {
    way: &'static str,
    across_cm: Option<f64>,
    bottom_cm: Option<f64>,
    length_cm: Option<f64>,
    width_cm: Option<f64>,
    height_cm: Option<f64>,
    counted: Option<f64>,
    part_litres: Option<f64>,
    part: Option<MeasureId>,
}

impl Sides {
    fn of(way: MeasureWay) -> Self {
        match way {
            MeasureWay::Litres(litres) => {
                Self { way: "litres", part_litres: Some(litres), ..Self::default() }
            }
            MeasureWay::Cylinder { across_cm, height_cm } => Self {
                way: "cylinder",
                across_cm: Some(across_cm),
                height_cm: Some(height_cm),
                ..Self::default()
            },
            MeasureWay::Cone { top_cm, bottom_cm, height_cm } => Self {
                way: "cone",
                across_cm: Some(top_cm),
                bottom_cm: Some(bottom_cm),
                height_cm: Some(height_cm),
                ..Self::default()
            },
            MeasureWay::Box { length_cm, width_cm, height_cm } => Self {
                way: "box",
                length_cm: Some(length_cm),
                width_cm: Some(width_cm),
                height_cm: Some(height_cm),
                ..Self::default()
            },
            MeasureWay::Counted { count, litres_each } => Self {
                way: "counted",
                counted: Some(count),
                part_litres: Some(litres_each),
                ..Self::default()
            },
            MeasureWay::Measures { count, of } => {
                Self { way: "measures", counted: Some(count), part: Some(of), ..Self::default() }
            }
        }
    }
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Measure> {
    let way: String = row.get("way")?;
    let way = match way.as_str() {
        "cylinder" => {
            MeasureWay::Cylinder { across_cm: row.get("across_cm")?, height_cm: row.get("height_cm")? }
        }
        "cone" => MeasureWay::Cone {
            top_cm: row.get("across_cm")?,
            bottom_cm: row.get("bottom_cm")?,
            height_cm: row.get("height_cm")?,
        },
        "box" => MeasureWay::Box {
            length_cm: row.get("length_cm")?,
            width_cm: row.get("width_cm")?,
            height_cm: row.get("height_cm")?,
        },
        "counted" => MeasureWay::Counted { count: row.get("counted")?, litres_each: row.get("part_litres")? },
        "measures" => MeasureWay::Measures { count: row.get("counted")?, of: row.get("part_id")? },
        _ => MeasureWay::Litres(row.get("part_litres")?),
    };
    Ok(Measure {
        id: row.get("id")?,
        fields: NewMeasure {
            name: row.get("name")?,
            plural: row.get("plural")?,
            litres: row.get("litres")?,
            glyph: row.get("glyph")?,
            way,
            heaped: row.get("heaped")?,
        },
        version: row.get("version")?,
    })
}
