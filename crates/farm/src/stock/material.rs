//! The reference table, and materials of a person's own beside it.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::stock::material::{self as table, Group, Kind, Particle};
use zymarch_formats::material::{Doubt, Material, MaterialFields, doubts};
use zymarch_store::material::{self, OwnMaterial};

use crate::command::{Change, Remove, Restore};
use crate::{Transaction, Who};

/// A material, and the version of a person's own.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Listed {
    /// Counts changes; none for a row of the reference table.
    pub version: Option<i64>,
    /// Whether it is commonly to hand near a farm.
    pub is_common: bool,
    /// What it is.
    #[serde(flatten)]
    pub material: Material,
}

/// What a material is called and looks like, without its figures.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Named {
    /// Its id.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What it is in a mix.
    pub kind: Kind,
    /// What it is by where it comes from.
    pub group: Group,
    /// How coarse it is.
    pub particle: Particle,
    /// Whether it is a person's own.
    pub is_own: bool,
}

/// What a row of figures comes to, before it is written down.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MaterialCheck {
    /// The id it would have.
    pub id: String,
    /// What in its figures cannot be true, or hardly.
    pub doubts: Vec<Doubt>,
}

/// A change of a material that was read at a version.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MaterialChange {
    /// The version that was read.
    pub version: i64,
    /// What it is now; its id is left out of account.
    pub material: MaterialFields,
}

impl From<OwnMaterial> for Listed {
    fn from(own: OwnMaterial) -> Self {
        Self { version: Some(own.version), is_common: true, material: Material::from(&own.material) }
    }
}

/// Every material: a person's own first, then the reference table.
///
/// # Errors
/// The records cannot be read.
pub fn list(tx: &Transaction<'_>) -> Result<Vec<Listed>, Faults> {
    let common: Vec<&str> = table::common().map(|row| row.id.as_str()).collect();
    let book = table::all().iter().map(|row| Listed {
        version: None,
        is_common: common.contains(&row.id.as_str()),
        material: Material::from(row),
    });
    Ok(material::all(tx.conn)?.into_iter().map(Listed::from).chain(book).collect())
}

/// What every material is called: all that most pages show of most of them.
///
/// # Errors
/// The records cannot be read.
pub fn names(tx: &Transaction<'_>) -> Result<Vec<Named>, Faults> {
    let named = |row: &table::Material, is_own| Named {
        id: row.id.clone(),
        name: row.name.clone(),
        kind: row.kind,
        group: row.group,
        particle: row.particle,
        is_own,
    };
    let own: Vec<Named> = material::all(tx.conn)?.iter().map(|own| named(&own.material, true)).collect();
    Ok(own.into_iter().chain(table::all().iter().map(|row| named(row, false))).collect())
}

/// What a row of figures comes to.
///
/// # Errors
/// Every bad cell.
pub fn check(fields: &MaterialFields) -> Result<MaterialCheck, Faults> {
    let material = fields.checked()?;
    Ok(MaterialCheck { doubts: doubts(&material), id: material.id })
}

/// A new material of one's own.
///
/// # Errors
/// Every bad cell, or an id that is taken.
pub fn add(tx: &mut Transaction<'_>, _who: &Who, fields: MaterialFields) -> Result<Listed, Faults> {
    Ok(material::insert(tx.conn, &fields.checked()?, &tx.now_text())?.into())
}

/// Changes a material of one's own.
///
/// # Errors
/// Every bad cell, or that it was changed elsewhere since.
pub fn change(
    tx: &mut Transaction<'_>,
    _who: &Who,
    Change { id, version, to }: Change<String, MaterialFields>,
) -> Result<Listed, Faults> {
    let new = MaterialFields { id, ..to }.checked()?;
    Ok(material::update(tx.conn, version, &new, &tx.now_text())?.into())
}

/// Removes a material of one's own; lots of it stay.
///
/// # Errors
/// There is none.
pub fn remove(tx: &mut Transaction<'_>, _who: &Who, Remove(id): Remove<String>) -> Result<(), Faults> {
    Ok(material::remove(tx.conn, &id, &tx.now_text())?)
}

/// Brings a removed material back.
///
/// # Errors
/// There was never one.
pub fn restore(tx: &mut Transaction<'_>, _who: &Who, Restore(id): Restore<String>) -> Result<Listed, Faults> {
    Ok(material::restore(tx.conn, &id)?.into())
}
