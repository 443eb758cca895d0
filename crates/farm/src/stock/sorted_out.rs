//! What was sorted out and not used.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity;
use zymarch_store::id::{SiteId, SortedOutId};
use zymarch_store::log::{self, About, Body};
use zymarch_store::site;
use zymarch_store::sorted_out::{self, SortedOutRow};

use crate::command::{Add, Remove, Restore};
use crate::transaction::Writing;
use crate::words;
use crate::{Transaction, Who};

/// A record of something sorted out.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SortedOut {
    /// Its id.
    pub id: SortedOutId,
    /// What it says.
    #[serde(flatten)]
    pub fields: SortedOutFields,
}

/// What was sorted out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SortedOutFields {
    /// Id of the material.
    pub material: String,
    /// The person's own name for it.
    pub label: Option<String>,
    /// How much, kg, if it was weighed.
    pub kg: Option<f64>,
    /// Where it went, in the person's words.
    pub went_to: Option<String>,
    /// The day, as 2026-03-14.
    pub made_on: String,
}

impl From<SortedOutRow> for SortedOut {
    fn from(row: SortedOutRow) -> Self {
        let log::SortedOut { material, label, kg, went_to, made_on } = row.fields;
        Self { id: row.id, fields: SortedOutFields { material, label, kg, went_to, made_on } }
    }
}

impl SortedOutFields {
    fn checked(self, tx: &Transaction<'_>) -> Result<log::SortedOut, Fault> {
        if tx.catalogue().material(&self.material).is_none() {
            return Err(Fault::of("material", FaultCode::NoSuchMaterial).with("got", self.material));
        }
        if let Some(Err(fault)) = self.kg.map(quantity::amount) {
            return Err(At::ROOT.key("kg").put(fault));
        }
        Ok(log::SortedOut {
            label: words::label("label", self.label.as_deref())?,
            went_to: words::label("went_to", self.went_to.as_deref())?,
            made_on: words::day("made_on", &self.made_on, tx.today)?,
            kg: self.kg,
            material: self.material,
        })
    }
}

/// What was sorted out at a site, newest first.
///
/// # Errors
/// There is no such site.
pub fn list(tx: &Transaction<'_>, site: SiteId) -> Result<Vec<SortedOut>, Faults> {
    site::get(tx.conn, site)?;
    Ok(sorted_out::of_site(tx.conn, site)?.into_iter().map(SortedOut::from).collect())
}

/// Records that something was sorted out and not used.
///
/// # Errors
/// Its fields.
pub fn add(
    tx: &mut Transaction<'_>,
    who: &Who,
    Add { site, id, what }: Add<SortedOutId, SortedOutFields>,
) -> Result<SortedOut, Faults> {
    site::get(tx.conn, site)?;
    let id = id.unwrap_or_else(SortedOutId::fresh);
    if log::of(tx.conn, About::SortedOut(id))?.is_empty() {
        let body = Body::SortedOut(what.checked(tx)?);
        tx.write(who, Writing::now(site, About::SortedOut(id), body))?;
    }
    Ok(sorted_out::get(tx.conn, id)?.into())
}

/// Removes a record; it can be brought back.
///
/// # Errors
/// There is none.
pub fn remove(tx: &mut Transaction<'_>, who: &Who, Remove(id): Remove<SortedOutId>) -> Result<(), Faults> {
    let row = sorted_out::get(tx.conn, id)?;
    tx.write(who, Writing::now(row.site, About::SortedOut(id), Body::Removed))?;
    Ok(())
}

/// Brings a removed record back.
///
/// # Errors
/// There was never one.
pub fn restore(
    tx: &mut Transaction<'_>,
    who: &Who,
    Restore(id): Restore<SortedOutId>,
) -> Result<SortedOut, Faults> {
    if let Some(removed) = log::removal(tx.conn, About::SortedOut(id), "sorted-out")? {
        tx.write(who, Writing::undone(&removed))?;
    }
    Ok(sorted_out::get(tx.conn, id)?.into())
}
