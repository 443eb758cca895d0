//! Materials of a person's own, beside those of the reference table.
//!
//! They belong to the file, not to a site: straw is straw on every plot.

use rusqlite::{Connection, OptionalExtension, Row, ToSql, named_params};
use zymarch_core::base::quantity::Fraction;
use zymarch_core::stock::caution;
use zymarch_core::stock::material::{Degradability, Group, Kind, Material, Particle, Spread};

use crate::error::{StoreError, name_taken};
use crate::own;
use crate::record::Records;

const MATERIALS: Records = Records { table: "material" };

/// A material of a person's own.
#[derive(Debug, Clone, PartialEq)]
pub struct OwnMaterial {
    /// What it is; its id is the key.
    pub material: Material,
    /// Counts changes.
    pub version: i64,
}

/// Every material that is there, by name.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn all(conn: &Connection) -> Result<Vec<OwnMaterial>, StoreError> {
    let mut statement =
        conn.prepare_cached("SELECT * FROM material WHERE removed_at IS NULL ORDER BY name, id")?;
    let rows = statement.query_map([], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// Every material there ever was: lots and batches may still name one that was removed.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn ever(conn: &Connection) -> Result<Vec<Material>, StoreError> {
    let mut statement = conn.prepare_cached("SELECT * FROM material ORDER BY name, id")?;
    let rows = statement.query_map([], from_row)?;
    let found = rows.collect::<Result<Vec<_>, _>>()?;
    Ok(found.into_iter().map(|own| own.material).collect())
}

/// One material.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: &str) -> Result<OwnMaterial, StoreError> {
    conn.prepare_cached("SELECT * FROM material WHERE id = ?1 AND removed_at IS NULL")?
        .query_row([id], from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "material" })
}

const INSERT: &str = "
    INSERT INTO material (id, name, name_es, kind, origin, moisture, moisture_low, moisture_high, nitrogen,
                          nitrogen_low, nitrogen_high, c_n, c_n_low, c_n_high, ash, lignin, density, density_low,
                          density_high, settle, phosphorus, potassium, degradability, particle, structure,
                          names, names_es, decays, wet_max, keeps_days, cautions, source, note, created_at, updated_at)
    VALUES (:id, :name, :name_es, :kind, :origin, :moisture, :moisture_low, :moisture_high, :nitrogen,
            :nitrogen_low, :nitrogen_high, :c_n, :c_n_low, :c_n_high, :ash, :lignin, :density, :density_low,
            :density_high, :settle, :phosphorus, :potassium, :degradability, :particle, :structure,
            :names, :names_es, :decays, :wet_max, :keeps_days, :cautions, :source, :note, :now, :now)";

const UPDATE: &str = "
    UPDATE material
    SET name = :name, name_es = :name_es, kind = :kind, origin = :origin, moisture = :moisture,
        moisture_low = :moisture_low, moisture_high = :moisture_high, nitrogen = :nitrogen,
        nitrogen_low = :nitrogen_low, nitrogen_high = :nitrogen_high, c_n = :c_n, c_n_low = :c_n_low,
        c_n_high = :c_n_high, ash = :ash, lignin = :lignin, density = :density, density_low = :density_low,
        density_high = :density_high, settle = :settle, phosphorus = :phosphorus, potassium = :potassium,
        degradability = :degradability, particle = :particle, structure = :structure,
        names = :names, names_es = :names_es, decays = :decays, wet_max = :wet_max, keeps_days = :keeps_days,
        cautions = :cautions, source = :source, note = :note, version = version + 1, updated_at = :now,
        removed_at = NULL
    WHERE id = :id";

/// A new material.
///
/// # Errors
/// [`StoreError::NameTaken`] if there is, or was, one of that id.
pub fn insert(conn: &Connection, new: &Material, now: &str) -> Result<OwnMaterial, StoreError> {
    write(conn, INSERT, new, now).map_err(|error| name_taken(error, "material", &new.id))?;
    get(conn, &new.id)
}

/// Changes a material that was read at a version. Its id stays.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`].
pub fn update(conn: &Connection, version: i64, new: &Material, now: &str) -> Result<OwnMaterial, StoreError> {
    let current = MATERIALS.version(conn, &new.id)?;
    MATERIALS.changed(conn, usize::from(current == Some(version)), &new.id, version)?;
    write(conn, UPDATE, new, now)?;
    get(conn, &new.id)
}

/// Puts a material in, over one of the same id if there is or was one: an import.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn put(conn: &Connection, new: &Material, now: &str) -> Result<(), StoreError> {
    if write(conn, UPDATE, new, now)? == 0 {
        write(conn, INSERT, new, now)?;
    }
    Ok(())
}

/// Removes a material; it can be brought back. Lots of it keep their figures.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed already.
pub fn remove(conn: &Connection, id: &str, now: &str) -> Result<(), StoreError> {
    MATERIALS.remove(conn, &id, now)
}

/// Brings a removed material back. One that is there already stays as it is.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn restore(conn: &Connection, id: &str) -> Result<OwnMaterial, StoreError> {
    MATERIALS.restore(conn, &id, id)?;
    get(conn, id)
}

fn write(conn: &Connection, sql: &str, of: &Material, now: &str) -> rusqlite::Result<usize> {
    let codes: Vec<_> = of.cautions.iter().map(|caution| caution.code).collect();
    let codes = codes.join(";");
    let share = |share: Option<Fraction>| share.map(Fraction::get);
    let (ash, lignin) = (of.ash.get(), share(of.lignin));
    let (names, names_es) = (of.names.join(";"), of.names_es.join(";"));
    let (decays, wet_max) = (share(of.decays), share(of.wet_max));
    let (phosphorus, potassium) = (share(of.phosphorus), share(of.potassium));
    let all: &[(&str, &dyn ToSql)] = named_params! {
        ":id": of.id, ":name": of.name, ":name_es": of.name_es, ":kind": of.kind.as_str(),
        ":origin": of.group.as_str(), ":moisture": of.moisture.typical, ":moisture_low": of.moisture.low,
        ":moisture_high": of.moisture.high, ":nitrogen": of.nitrogen.typical, ":nitrogen_low": of.nitrogen.low,
        ":nitrogen_high": of.nitrogen.high, ":c_n": of.c_n.typical, ":c_n_low": of.c_n.low,
        ":c_n_high": of.c_n.high, ":ash": ash, ":lignin": lignin, ":density": of.density_kg_l.typical,
        ":density_low": of.density_kg_l.low, ":density_high": of.density_kg_l.high, ":settle": of.settle,
        ":phosphorus": phosphorus, ":potassium": potassium, ":degradability": of.degradability.as_str(),
        ":particle": of.particle.as_str(), ":structure": of.structure, ":names": names, ":names_es": names_es,
        ":decays": decays, ":wet_max": wet_max, ":keeps_days": of.keeps_days,
        ":cautions": codes, ":source": of.source, ":note": of.note, ":now": now,
    };
    conn.prepare_cached(sql)?.execute(all)
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<OwnMaterial> {
    let spread = |typical: &str, low: &str, high: &str| -> rusqlite::Result<Spread> {
        Ok(Spread { typical: row.get(typical)?, low: row.get(low)?, high: row.get(high)? })
    };
    let share = |column: &str| -> rusqlite::Result<Option<Fraction>> {
        let value: Option<f64> = row.get(column)?;
        Ok(value.and_then(|value| Fraction::new(value).ok()))
    };
    let names = |column: &str| -> rusqlite::Result<Vec<String>> {
        let all: String = row.get(column)?;
        Ok(all.split(';').filter(|name| !name.is_empty()).map(str::to_owned).collect())
    };
    let codes: String = row.get("cautions")?;
    let material = Material {
        id: row.get("id")?,
        name: row.get("name")?,
        name_es: row.get("name_es")?,
        names: names("names")?,
        names_es: names("names_es")?,
        kind: own::word(row, "kind", Kind::parse)?,
        group: own::word(row, "origin", Group::parse)?,
        moisture: spread("moisture", "moisture_low", "moisture_high")?,
        nitrogen: spread("nitrogen", "nitrogen_low", "nitrogen_high")?,
        c_n: spread("c_n", "c_n_low", "c_n_high")?,
        ash: share("ash")?.unwrap_or(Fraction::ZERO),
        lignin: share("lignin")?,
        density_kg_l: spread("density", "density_low", "density_high")?,
        settle: row.get("settle")?,
        phosphorus: share("phosphorus")?,
        potassium: share("potassium")?,
        degradability: own::word(row, "degradability", Degradability::parse)?,
        particle: own::word(row, "particle", Particle::parse)?,
        structure: row.get("structure")?,
        decays: share("decays")?,
        wet_max: share("wet_max")?,
        keeps_days: row.get("keeps_days")?,
        cautions: codes.split(';').filter_map(caution::find).collect(),
        source: row.get("source")?,
        note: row.get("note")?,
        is_own: true,
    };
    Ok(OwnMaterial { material, version: row.get("version")? })
}
