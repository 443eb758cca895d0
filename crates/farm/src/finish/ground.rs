//! Places that compost goes to: beds, fields, trees; what each got, and what is to be kept to there.

use jiff::civil::Date;
use jiff::{Timestamp, ToSpan};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity;
use zymarch_core::finish::restrict::GroundKind;
use zymarch_store::compost;
use zymarch_store::ground::{self, NewGround};
use zymarch_store::id::{GroundId, SiteId};
use zymarch_store::log::About;
use zymarch_store::{rule, site};

use super::holds::{self, FigureTold, Lookup};
use super::lab::LabTold;
use super::used::{UseTold, told};
use crate::command::{Add, Change, Remove, Restore};
use crate::words;
use crate::{Transaction, Who};

/// What a place is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GroundFields {
    /// What people call it.
    pub name: String,
    /// A bed, a field, trees.
    pub kind: GroundKind,
    /// How large, m², where it is ground.
    #[serde(default)]
    pub area_m2: Option<f64>,
    /// How many, of pits and trees.
    #[serde(default)]
    pub count: Option<f64>,
    /// What grows there.
    #[serde(default)]
    pub crop: Option<String>,
    /// Whether what is eaten touches the soil or its splash.
    pub touches_soil: bool,
    /// Whether it is eaten raw.
    pub is_eaten_raw: bool,
    /// The day it is to be harvested, as 2026-03-14.
    #[serde(default)]
    pub harvest_on: Option<String>,
}

/// A place with what it got.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct GroundTold {
    /// Its id.
    pub id: GroundId,
    /// Counts changes of what it is.
    pub version: i64,
    /// What it is.
    #[serde(flatten)]
    pub fields: GroundFields,
    /// What it got, newest first.
    pub got: Vec<UseTold>,
    /// Compost of the last twelve months, litres.
    pub year_l: f64,
    /// Nitrogen of the last twelve months, kg/ha; null where its size is not ground or nothing is known of it.
    pub year_n_kg_ha: Option<f64>,
    /// How much that may be at most, kg/ha.
    pub n_limit_kg_ha: f64,
    /// The day until which no harvest is to be taken, where there is one.
    pub no_harvest_until: Option<String>,
    /// Results of its soil, newest first.
    pub results: Vec<LabTold>,
    /// What its soil holds, as the newest results tell.
    pub soil: Vec<FigureTold>,
}

/// Largest ground [m²], and number.
const MOST: f64 = 1e7;

impl GroundFields {
    fn checked(self, tx: &Transaction<'_>) -> Result<NewGround, Faults> {
        let mut found = Vec::new();
        for (field, value) in [("area_m2", self.area_m2), ("count", self.count)] {
            if let Some(Err(fault)) = value.map(|value| quantity::above(value, 0.0, MOST)) {
                found.push(At::ROOT.key(field).put(fault));
            }
        }
        let name = words::name("name", &self.name).map_err(|fault| found.push(fault));
        let crop = words::label("crop", self.crop.as_deref()).map_err(|fault| found.push(fault));
        let harvest_on = self.harvest_on.map(|day| coming("harvest_on", &day, tx.today)).transpose();
        let harvest_on = harvest_on.map_err(|fault| found.push(fault));
        let (Ok(name), Ok(crop), Ok(harvest_on), true) = (name, crop, harvest_on, found.is_empty()) else {
            return Err(Faults(found));
        };
        Ok(NewGround {
            name,
            crop,
            harvest_on,
            kind: self.kind,
            area_m2: self.area_m2,
            count: self.count,
            touches_soil: self.touches_soil,
            is_eaten_raw: self.is_eaten_raw,
        })
    }
}

/// A day of the next years, or of the last.
fn coming(field: &'static str, text: &str, today: Date) -> Result<String, Fault> {
    let day: Date = text.parse().map_err(|_| Fault::of(field, FaultCode::NotADay).with("got", text))?;
    let years = i32::from(day.year()) - i32::from(today.year());
    if !(-2..=10).contains(&years) {
        return Err(Fault::of(field, FaultCode::TooFarAway).with("got", text));
    }
    Ok(day.to_string())
}

/// The places of a site, with what each got.
///
/// # Errors
/// There is no such site.
pub fn list(tx: &Transaction<'_>, id: SiteId) -> Result<Vec<GroundTold>, Faults> {
    site::get(tx.conn, id)?;
    let lookup = Lookup::new(tx);
    ground::of_site(tx.conn, id)?.into_iter().map(|of| shown(&lookup, of)).collect()
}

/// One place, with what it got.
///
/// # Errors
/// There is none.
pub fn get(tx: &Transaction<'_>, id: GroundId) -> Result<GroundTold, Faults> {
    shown(&Lookup::new(tx), ground::get(tx.conn, id)?)
}

fn shown(lookup: &Lookup<'_, '_>, of: ground::Ground) -> Result<GroundTold, Faults> {
    let tx = lookup.tx;
    let mut got = Vec::new();
    for went in compost::went_to(tx.conn, of.id)? {
        got.push(told(lookup, went)?);
    }
    got.reverse();
    let a_year_ago = tx.now.checked_sub((365 * 24).hours()).unwrap_or(Timestamp::MIN).to_string();
    let of_year: Vec<&UseTold> = got.iter().filter(|one| one.at >= a_year_ago).collect();
    let n_kg: Option<f64> = of_year.iter().map(|one| one.n_kg).sum();
    let today = tx.today.to_string();
    let until = got.iter().flat_map(|one| one.restrictions.iter().filter_map(|kept| kept.until.clone()));
    let results: Vec<LabTold> =
        compost::results(tx.conn, About::Ground(of.id))?.into_iter().map(LabTold::new).collect();
    let found: Vec<_> =
        compost::results(tx.conn, About::Ground(of.id))?.into_iter().map(|(_, found)| found).collect();
    let local = rule::of(tx.conn, of.site)?.local;
    let NewGround { name, kind, area_m2, count, crop, touches_soil, is_eaten_raw, harvest_on } = of.fields;
    Ok(GroundTold {
        id: of.id,
        version: of.version,
        year_l: of_year.iter().map(|one| one.litres).sum(),
        year_n_kg_ha: n_kg.zip(area_m2).map(|(n, area)| n / area * 10_000.0),
        n_limit_kg_ha: local.n_limit_kg_ha.unwrap_or(zymarch_core::finish::apply::N_LIMIT_KG_HA),
        no_harvest_until: until.filter(|day| *day > today).max(),
        fields: GroundFields { name, kind, area_m2, count, crop, touches_soil, is_eaten_raw, harvest_on },
        got,
        results,
        soil: holds::found(&found),
    })
}

/// A new place.
///
/// # Errors
/// Its fields; a name that another has.
pub fn add(
    tx: &mut Transaction<'_>,
    _who: &Who,
    Add { site: at, id, what }: Add<GroundId, GroundFields>,
) -> Result<GroundTold, Faults> {
    site::get(tx.conn, at)?;
    let id = id.unwrap_or_else(GroundId::fresh);
    if !ground::was_ever(tx.conn, id)? {
        ground::insert(tx.conn, (id, at), &what.checked(tx)?, &tx.now_text())?;
    }
    get(tx, id)
}

/// Changes a place.
///
/// # Errors
/// Its fields, or that it was changed elsewhere since.
pub fn change(
    tx: &mut Transaction<'_>,
    _who: &Who,
    Change { id, version, to }: Change<GroundId, GroundFields>,
) -> Result<GroundTold, Faults> {
    ground::update(tx.conn, (id, version), &to.checked(tx)?, &tx.now_text())?;
    get(tx, id)
}

/// Removes a place; it can be brought back, and what it got is not forgotten.
///
/// # Errors
/// There is none.
pub fn remove(tx: &mut Transaction<'_>, _who: &Who, Remove(id): Remove<GroundId>) -> Result<(), Faults> {
    Ok(ground::remove(tx.conn, id, &tx.now_text())?)
}

/// Brings a removed place back.
///
/// # Errors
/// There was never one.
pub fn restore(
    tx: &mut Transaction<'_>,
    _who: &Who,
    Restore(id): Restore<GroundId>,
) -> Result<GroundTold, Faults> {
    ground::restore(tx.conn, id)?;
    get(tx, id)
}
