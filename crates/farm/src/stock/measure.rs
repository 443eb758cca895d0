//! The person's own containers.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::words::closed_list;
use zymarch_core::stock::measure::vessel::{self, Vessel, Way};
use zymarch_store::Connection;
use zymarch_store::id::{MeasureId, SiteId};
use zymarch_store::measure::{self, MeasureWay, NewMeasure};
use zymarch_store::site;

use super::on_hand;
use crate::command::{Add, Change, Remove, Restore};
use crate::words;
use crate::{Transaction, Who};

closed_list! {
    /// Sign a container is drawn with.
    Glyph {
        /// A bucket.
        Bucket = "bucket",
        /// A wheelbarrow.
        Barrow = "barrow",
        /// A sack.
        Sack = "sack",
        /// A cloth, tied at its corners.
        Cloth = "cloth",
        /// A pannier.
        Pannier = "pannier",
        /// A basket.
        Basket = "basket",
        /// A cart.
        Cart = "cart",
        /// A bale.
        Bale = "bale",
        /// Two hands full.
        Hand = "hand",
        /// Anything else.
        Other = "other",
    }
}

/// A container.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Measure {
    /// Its id.
    pub id: MeasureId,
    /// Counts changes.
    pub version: i64,
    /// What one holds as it is filled, litres.
    pub litres: f64,
    /// What it is.
    #[serde(flatten)]
    pub fields: MeasureFields,
}

/// What a container is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeasureFields {
    /// One of them: "barrow".
    pub name: String,
    /// Many of them: "barrows".
    pub plural: String,
    /// Sign it is drawn with.
    pub glyph: Glyph,
    /// How its volume is known.
    pub way: VolumeWay,
    /// Filled to, as a share of level full: 1 level, 1.2 well heaped.
    #[serde(default = "level")]
    pub heaped: f64,
}

const fn level() -> f64 {
    1.0
}

/// How the volume of a container is known.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "by", rename_all = "lowercase", deny_unknown_fields)]
pub enum VolumeWay {
    /// Written on it, or known.
    Litres {
        /// Level full, litres.
        litres: f64,
    },
    /// Straight and round.
    Cylinder {
        /// Inside, across, cm.
        across_cm: f64,
        /// Inside, cm.
        height_cm: f64,
    },
    /// Round, wider at one end.
    Cone {
        /// Inside, across the top, cm.
        top_cm: f64,
        /// Inside, across the bottom, cm.
        bottom_cm: f64,
        /// Inside, upright, cm.
        height_cm: f64,
    },
    /// With straight sides.
    Box {
        /// Inside, cm.
        length_cm: f64,
        /// Inside, cm.
        width_cm: f64,
        /// Inside, cm.
        height_cm: f64,
    },
    /// So many fillings of a known volume.
    Counted {
        /// How many go in.
        count: f64,
        /// What each holds, litres.
        litres_each: f64,
    },
    /// So many of another measure of the site.
    Measures {
        /// How many go in.
        count: f64,
        /// Of which measure.
        measure_id: MeasureId,
    },
}

/// A volume asked for before it is written down.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct VolumeRequest {
    way: VolumeWay,
    /// Filled to, as a share of level full.
    #[serde(default = "level")]
    heaped: f64,
}

/// What a container holds.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct VolumeAnswer {
    /// As it is filled, litres.
    pub litres: f64,
}

impl MeasureFields {
    /// Checked but for its volume, which other measures of the site may decide.
    fn checked(self) -> Result<NewMeasure, Fault> {
        Ok(NewMeasure {
            name: words::name("name", &self.name)?,
            plural: words::name("plural", &self.plural)?,
            litres: 0.0,
            glyph: self.glyph.as_str().into(),
            way: self.way.into(),
            heaped: self.heaped,
        })
    }
}

impl From<VolumeWay> for MeasureWay {
    fn from(way: VolumeWay) -> Self {
        match way {
            VolumeWay::Litres { litres } => Self::Litres(litres),
            VolumeWay::Cylinder { across_cm, height_cm } => Self::Cylinder { across_cm, height_cm },
            VolumeWay::Cone { top_cm, bottom_cm, height_cm } => Self::Cone { top_cm, bottom_cm, height_cm },
            VolumeWay::Box { length_cm, width_cm, height_cm } => Self::Box { length_cm, width_cm, height_cm },
            VolumeWay::Counted { count, litres_each } => Self::Counted { count, litres_each },
            VolumeWay::Measures { count, measure_id } => Self::Measures { count, of: measure_id },
        }
    }
}

impl From<MeasureWay> for VolumeWay {
    fn from(way: MeasureWay) -> Self {
        match way {
            MeasureWay::Litres(litres) => Self::Litres { litres },
            MeasureWay::Cylinder { across_cm, height_cm } => Self::Cylinder { across_cm, height_cm },
            MeasureWay::Cone { top_cm, bottom_cm, height_cm } => Self::Cone { top_cm, bottom_cm, height_cm },
            MeasureWay::Box { length_cm, width_cm, height_cm } => {
                Self::Box { length_cm, width_cm, height_cm }
            }
            MeasureWay::Counted { count, litres_each } => Self::Counted { count, litres_each },
            MeasureWay::Measures { count, of } => Self::Measures { count, measure_id: of },
        }
    }
}

impl From<measure::Measure> for Measure {
    fn from(measure: measure::Measure) -> Self {
        let NewMeasure { name, plural, litres, glyph, way, heaped } = measure.fields;
        let glyph = Glyph::parse(&glyph).unwrap_or(Glyph::Other);
        Self {
            id: measure.id,
            version: measure.version,
            litres,
            fields: MeasureFields { name, plural, glyph, way: way.into(), heaped },
        }
    }
}

/// What a container holds [L], the volumes of others given.
fn litres(
    way: MeasureWay,
    heaped: f64,
    of_measure: impl FnOnce(MeasureId) -> Option<f64>,
) -> Result<f64, Fault> {
    let at = At::ROOT.key("way");
    let way = match way {
        MeasureWay::Litres(litres) => Way::Litres(litres),
        MeasureWay::Cylinder { across_cm, height_cm } => Way::Cylinder { across_cm, height_cm },
        MeasureWay::Cone { top_cm, bottom_cm, height_cm } => Way::Cone { top_cm, bottom_cm, height_cm },
        MeasureWay::Box { length_cm, width_cm, height_cm } => Way::Box { length_cm, width_cm, height_cm },
        MeasureWay::Counted { count, litres_each } => Way::Counted { count, litres_each },
        MeasureWay::Measures { count, of } => {
            let missing = || at.key("measure_id").fault(FaultCode::NoSuchMeasure);
            Way::Counted { count, litres_each: of_measure(of).ok_or_else(missing)? }
        }
    };
    vessel::litres(&Vessel { way, heaped }).map_err(|fault| {
        // The volume that comes out is at fault where the sides are; a plain one is a field.
        let is_whole = matches!(fault.path.to_string().as_str(), "heaped" | "litres");
        if is_whole { fault } else { at.put(fault) }
    })
}

/// Reckons every measure of a site anew, each after the one it is counted in.
fn settle(conn: &Connection, site: SiteId, now: &str) -> Result<(), Faults> {
    let measures = measure::of_site(conn, site)?;
    let mut known: Vec<(MeasureId, f64)> = Vec::new();
    let mut waiting: Vec<_> = measures.iter().collect();
    while !waiting.is_empty() {
        let before = waiting.len();
        let mut still = Vec::new();
        for one in waiting {
            let of = |id| known.iter().find(|(known, _)| *known == id).map(|(_, litres)| *litres);
            match one.fields.way {
                MeasureWay::Measures { of: part, .. } if of(part).is_none() => still.push(one),
                way => {
                    let volume = litres(way, one.fields.heaped, of)?;
                    known.push((one.id, volume));
                    if (volume - one.fields.litres).abs() > 1e-9 {
                        measure::set_litres(conn, one.id, volume, now)?;
                    }
                }
            }
        }
        if still.len() == before {
            let exists = |id| measures.iter().any(|measure| measure.id == id);
            let is_round = still
                .iter()
                .all(|one| matches!(one.fields.way, MeasureWay::Measures { of, .. } if exists(of)));
            let code = if is_round { FaultCode::MeasureOfItself } else { FaultCode::NoSuchMeasure };
            return Err(At::ROOT.key("way").key("measure_id").fault(code).into());
        }
        waiting = still;
    }
    Ok(())
}

/// What a container would hold.
///
/// # Errors
/// Sides that cannot be.
pub fn volume(tx: &Transaction<'_>, of: VolumeRequest) -> Result<VolumeAnswer, Faults> {
    let of_measure = |id| measure::get(tx.conn, id).ok().map(|measure| measure.fields.litres);
    Ok(VolumeAnswer { litres: litres(of.way.into(), of.heaped, of_measure)? })
}

/// The containers of a site.
///
/// # Errors
/// There is no such site.
pub fn list(tx: &Transaction<'_>, site: SiteId) -> Result<Vec<Measure>, Faults> {
    site::get(tx.conn, site)?;
    Ok(measure::of_site(tx.conn, site)?.into_iter().map(Measure::from).collect())
}

/// A new container.
///
/// # Errors
/// Its fields, or a name that another has.
pub fn add(
    tx: &mut Transaction<'_>,
    _who: &Who,
    Add { site, id, what }: Add<MeasureId, MeasureFields>,
) -> Result<Measure, Faults> {
    site::get(tx.conn, site)?;
    let id = id.unwrap_or_else(MeasureId::fresh);
    if measure::was_ever(tx.conn, id)? {
        return Ok(measure::get(tx.conn, id)?.into());
    }
    let new = what.checked()?;
    let others = measure::of_site(tx.conn, site)?;
    let of = |id| others.iter().find(|other| other.id == id).map(|other| other.fields.litres);
    let litres = litres(new.way, new.heaped, of)?;
    Ok(measure::insert(tx.conn, id, site, &NewMeasure { litres, ..new }, &tx.now_text())?.into())
}

/// Changes a container, and those counted in it.
///
/// # Errors
/// Its fields, that it was changed elsewhere since, or a lot that would become impossibly large.
pub fn change(
    tx: &mut Transaction<'_>,
    _who: &Who,
    Change { id, version, to }: Change<MeasureId, MeasureFields>,
) -> Result<Measure, Faults> {
    let (new, now) = (to.checked()?, tx.now_text());
    let site = measure::site_of(tx.conn, id)?;
    let litres = measure::get(tx.conn, id)?.fields.litres;
    measure::update(tx.conn, id, version, &NewMeasure { litres, ..new }, &now)?;
    settle(tx.conn, site, &now)?;
    // Lots counted in it must still come to an amount that can be.
    on_hand::stock(tx, site).map_err(|_| Faults::one("litres", FaultCode::LotTooLarge))?;
    Ok(measure::get(tx.conn, id)?.into())
}

/// Removes a container, unless another is counted in it.
///
/// # Errors
/// There is none, or another leans on it.
pub fn remove(tx: &mut Transaction<'_>, _who: &Who, Remove(id): Remove<MeasureId>) -> Result<(), Faults> {
    Ok(measure::remove(tx.conn, id, &tx.now_text())?)
}

/// Brings a removed container back.
///
/// # Errors
/// There was never one, or another has its name now.
pub fn restore(
    tx: &mut Transaction<'_>,
    _who: &Who,
    Restore(id): Restore<MeasureId>,
) -> Result<Measure, Faults> {
    let measure = measure::restore(tx.conn, id)?;
    settle(tx.conn, measure::site_of(tx.conn, measure.id)?, &tx.now_text())?;
    Ok(measure::get(tx.conn, measure.id)?.into())
}
