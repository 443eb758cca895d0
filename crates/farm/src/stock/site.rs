//! Farms and plots.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity;
use zymarch_core::stock::climate::{Climate, Month};
use zymarch_store::id::{MeasureId, SiteId};
use zymarch_store::measure::{self, NewMeasure};
use zymarch_store::people::person;
use zymarch_store::site::{self, NewSite};

use crate::command::{Change, Remove, Restore};
use crate::words;
use crate::{Sites, Transaction, Who};

/// The two containers nearly everyone has: name, plural, litres. Their names are
/// their glyphs too.
const FIRST_MEASURES: [(&str, &str, f64); 2] = [("bucket", "buckets", 12.0), ("barrow", "barrows", 70.0)];

/// Heights at which people farm, above the sea [m].
pub(crate) const ALTITUDE_M: (f64, f64) = (-500.0, 6000.0);

/// A farm or plot with its own stock, measures and batches.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Site {
    /// Its id.
    pub id: SiteId,
    /// Counts changes.
    pub version: i64,
    /// What it is.
    #[serde(flatten)]
    pub fields: SiteFields,
}

/// What a site is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SiteFields {
    /// What people call it.
    pub name: String,
    /// Above the sea, m.
    pub altitude_m: Option<f64>,
    /// Twelve months, January first; none if not known.
    pub climate: Option<Vec<SiteMonth>>,
}

/// What a month is usually like.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SiteMonth {
    /// Mean air temperature, degrees C.
    pub mean_c: f64,
    /// How far the day rises above, and the night falls below, the mean, K.
    pub swing_c: f64,
    /// Rain in the whole month, mm.
    pub rain_mm: f64,
}

impl SiteFields {
    fn checked(self) -> Result<NewSite, Faults> {
        let name = words::name("name", &self.name)?;
        let (low, high) = ALTITUDE_M;
        if let Some(Err(fault)) = self.altitude_m.map(|altitude| quantity::within(altitude, low, high)) {
            return Err(At::ROOT.key("altitude_m").put(fault).into());
        }
        let climate = self.climate.map(|months| climate(&months)).transpose()?;
        Ok(NewSite { name, altitude_m: self.altitude_m, climate })
    }
}

fn climate(months: &[SiteMonth]) -> Result<Climate, Faults> {
    let list = At::ROOT.key("climate");
    let (mut found, mut read) = (Vec::new(), Vec::with_capacity(12));
    for (index, of) in months.iter().enumerate() {
        match Month::new(of.mean_c, of.swing_c, of.rain_mm) {
            Ok(month) => read.push(month),
            Err(fault) => found.push(list.index(index).put(fault)),
        }
    }
    if !found.is_empty() {
        return Err(Faults(found));
    }
    let count = read.len();
    <[Month; 12]>::try_from(read)
        .map(Climate)
        .map_err(|_| Fault::of("climate", FaultCode::TwelveMonths).with("got", count).into())
}

impl From<site::Site> for Site {
    fn from(site: site::Site) -> Self {
        let NewSite { name, altitude_m, climate } = site.fields;
        let month = |of: Month| SiteMonth { mean_c: of.mean_c, swing_c: of.swing_c, rain_mm: of.rain_mm };
        let climate = climate.map(|Climate(months)| months.into_iter().map(month).collect());
        Self { id: site.id, version: site.version, fields: SiteFields { name, altitude_m, climate } }
    }
}

/// Every site.
///
/// # Errors
/// The records cannot be read.
pub fn list(tx: &Transaction<'_>) -> Result<Vec<Site>, Faults> {
    Ok(site::all(tx.conn)?.into_iter().map(Site::from).collect())
}

/// The sites that somebody sees.
///
/// # Errors
/// The records cannot be read.
pub fn seen_by(tx: &Transaction<'_>, who: &Who) -> Result<Vec<Site>, Faults> {
    Ok(list(tx)?.into_iter().filter(|site| who.sees(site.id)).collect())
}

/// A new site, with the two containers nearly everyone has.
///
/// # Errors
/// Its fields.
pub fn add(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, fields): (Option<SiteId>, SiteFields),
) -> Result<Site, Faults> {
    let new = fields.checked()?;
    let id = id.unwrap_or_else(SiteId::fresh);
    if site::was_ever(tx.conn, id)? {
        return Ok(site::get(tx.conn, id)?.into());
    }
    let now = tx.now_text();
    let site = site::insert(tx.conn, id, &new, &now)?;
    // Whoever opens a plot has it.
    if let (Some(person), Sites::Given(_)) = (who.person, &who.sites) {
        person::give_site(tx.conn, person, id)?;
    }
    for (name, plural, litres) in FIRST_MEASURES {
        let new = NewMeasure::of_litres(name, plural, litres, name);
        measure::insert(tx.conn, MeasureId::fresh(), site.id, &new, &now)?;
    }
    Ok(site.into())
}

/// A new site without anything at it.
pub(crate) fn bare(tx: &mut Transaction<'_>, fields: SiteFields) -> Result<SiteId, Faults> {
    Ok(site::insert(tx.conn, SiteId::fresh(), &fields.checked()?, &tx.now_text())?.id)
}

/// What a farm finds that has written nothing down yet: a place, which can be changed at once.
///
/// # Errors
/// The records cannot be written.
pub fn first(tx: &mut Transaction<'_>, who: &Who, name: &str) -> Result<(), Faults> {
    if site::all(tx.conn)?.is_empty() {
        let fields = SiteFields { name: name.to_owned(), altitude_m: None, climate: None };
        add(tx, who, (None, fields))?;
    }
    Ok(())
}

/// Changes a site.
///
/// # Errors
/// Its fields, or that it was changed elsewhere since.
pub fn change(tx: &mut Transaction<'_>, _who: &Who, of: Change<SiteId, SiteFields>) -> Result<Site, Faults> {
    Ok(site::update(tx.conn, of.id, of.version, &of.to.checked()?)?.into())
}

/// Removes a site and all that is at it, unless it is the last.
///
/// # Errors
/// There is none, or no other.
pub fn remove(tx: &mut Transaction<'_>, _who: &Who, Remove(id): Remove<SiteId>) -> Result<(), Faults> {
    Ok(site::remove(tx.conn, id, &tx.now_text())?)
}

/// Brings a removed site back.
///
/// # Errors
/// There was never one.
pub fn restore(tx: &mut Transaction<'_>, _who: &Who, Restore(id): Restore<SiteId>) -> Result<Site, Faults> {
    Ok(site::restore(tx.conn, id)?.into())
}
