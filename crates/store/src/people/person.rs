//! Who there is, what they are, and the sites given to them.

use rusqlite::{Connection, OptionalExtension, Row, named_params};
use zymarch_core::people::Role;

use crate::error::{StoreError, name_taken};
use crate::id::{PersonId, SiteId};
use crate::own;
use crate::record::Records;

const PEOPLE: Records = Records { table: "person" };

/// Somebody.
#[derive(Debug, Clone, PartialEq)]
pub struct Person {
    /// Key.
    pub id: PersonId,
    /// What they are and where.
    pub fields: PersonFields,
    /// An Argon2id hash, if they have a passphrase.
    pub passphrase: Option<String>,
    /// Counts changes.
    pub version: i64,
    /// When they were written down, RFC 3339.
    pub created_at: String,
}

/// What somebody is, and where.
#[derive(Debug, Clone, PartialEq)]
pub struct PersonFields {
    /// What they are called here; nobody else is.
    pub name: String,
    /// What they are.
    pub role: Role,
    /// The sites given to them; an owner has all, whatever stands here.
    pub sites: Vec<SiteId>,
}

/// What two names have in common that are one.
fn key(name: &str) -> String {
    name.to_lowercase()
}

/// Whether there is anybody: until then a farm is open to its machine, and to nobody else.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn is_any(conn: &Connection) -> Result<bool, StoreError> {
    let sql = "SELECT EXISTS (SELECT 1 FROM person WHERE removed_at IS NULL)";
    Ok(conn.prepare_cached(sql)?.query_row([], |row| row.get(0))?)
}

const COLUMNS: &str = "id, name, role, passphrase, version, created_at";

/// Everybody, in the order they were written down.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn all(conn: &Connection) -> Result<Vec<Person>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM person WHERE removed_at IS NULL ORDER BY created_at, id");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([], from_row)?;
    rows.map(|row| with_sites(conn, row?)).collect()
}

/// Somebody who is there.
///
/// # Errors
/// [`StoreError::NotFound`] if there is nobody of that key, or they were removed.
pub fn get(conn: &Connection, id: PersonId) -> Result<Person, StoreError> {
    found(conn, "id = ?1 AND removed_at ISNULL", id.to_string())?
        .ok_or(StoreError::NotFound { kind: "person" })
}

/// Somebody who is, or ever was, there.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn ever(conn: &Connection, id: PersonId) -> Result<Option<Person>, StoreError> {
    found(conn, "id = ?1", id.to_string())
}

/// Somebody by what they are called, in large or small letters.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn named(conn: &Connection, name: &str) -> Result<Option<Person>, StoreError> {
    found(conn, "name_key = ?1 AND removed_at ISNULL", key(name))
}

fn found(conn: &Connection, which: &str, value: String) -> Result<Option<Person>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM person WHERE {which}");
    let row = conn.prepare_cached(&sql)?.query_row([value], from_row).optional()?;
    row.map(|person| with_sites(conn, person)).transpose()
}

const INSERT: &str = "
    INSERT INTO person (id, name, name_key, role, created_at)
    VALUES (:id, :name, :key, :role, :now)";

/// Somebody new.
///
/// # Errors
/// [`StoreError::NameTaken`]; [`StoreError::DanglingReference`] for a site there is not.
pub fn insert(conn: &Connection, id: PersonId, new: &PersonFields, now: &str) -> Result<Person, StoreError> {
    conn.prepare_cached(INSERT)?
        .execute(named_params! {
            ":id": id, ":name": new.name, ":key": key(&new.name), ":role": new.role.as_str(), ":now": now,
        })
        .map_err(|error| name_taken(error, "person", &new.name))?;
    give(conn, id, &new.sites)?;
    get(conn, id)
}

const UPDATE: &str = "
    UPDATE person
    SET name = :name, name_key = :key, role = :role, version = version + 1
    WHERE id = :id AND version = :version AND removed_at IS NULL";

/// Changes what somebody is, read at a version.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`], [`StoreError::NameTaken`].
pub fn update(
    conn: &Connection,
    id: PersonId,
    version: i64,
    new: &PersonFields,
) -> Result<Person, StoreError> {
    let rows = conn
        .prepare_cached(UPDATE)?
        .execute(named_params! {
            ":id": id, ":version": version, ":name": new.name, ":key": key(&new.name),
            ":role": new.role.as_str(),
        })
        .map_err(|error| name_taken(error, "person", &new.name))?;
    PEOPLE.changed(conn, rows, &id, version)?;
    give(conn, id, &new.sites)?;
    get(conn, id)
}

/// Sets the passphrase of somebody, as its hash.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn set_passphrase(conn: &Connection, id: PersonId, hash: &str) -> Result<(), StoreError> {
    let sql = "UPDATE person SET passphrase = ?2 WHERE id = ?1 AND removed_at ISNULL";
    match conn.prepare_cached(sql)?.execute([&id.to_string(), hash])? {
        0 => Err(StoreError::NotFound { kind: "person" }),
        _ => Ok(()),
    }
}

/// Takes somebody off the list; they can be brought back.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn remove(conn: &Connection, id: PersonId, now: &str) -> Result<(), StoreError> {
    PEOPLE.remove(conn, &id, now)
}

/// Brings somebody back.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was anybody; [`StoreError::NameTaken`].
pub fn restore(conn: &Connection, id: PersonId) -> Result<Person, StoreError> {
    let name = ever(conn, id)?.map(|person| person.fields.name).unwrap_or_default();
    PEOPLE.restore(conn, &id, &name)?;
    get(conn, id)
}

/// Gives somebody one site more.
///
/// # Errors
/// [`StoreError::DanglingReference`] for a site there is not.
pub fn give_site(conn: &Connection, id: PersonId, site: SiteId) -> Result<(), StoreError> {
    conn.prepare_cached("INSERT OR IGNORE INTO person_site (person_id, site_id) VALUES (?1, ?2)")?
        .execute([id.to_string(), site.to_string()])?;
    Ok(())
}

fn give(conn: &Connection, id: PersonId, sites: &[SiteId]) -> Result<(), StoreError> {
    conn.execute("DELETE FROM person_site WHERE person_id = ?1", [id])?;
    sites.iter().try_for_each(|&site| give_site(conn, id, site))
}

fn with_sites(conn: &Connection, mut person: Person) -> Result<Person, StoreError> {
    let sql = "SELECT site_id FROM person_site WHERE person_id = ?1 ORDER BY site_id";
    let mut statement = conn.prepare_cached(sql)?;
    let sites = statement.query_map([person.id], |row| row.get(0))?;
    person.fields.sites = sites.collect::<Result<_, _>>()?;
    Ok(person)
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Person> {
    let fields = PersonFields {
        name: row.get("name")?,
        role: own::word(row, "role", Role::parse)?,
        sites: Vec::new(),
    };
    Ok(Person {
        id: row.get("id")?,
        fields,
        passphrase: row.get("passphrase")?,
        version: row.get("version")?,
        created_at: row.get("created_at")?,
    })
}
