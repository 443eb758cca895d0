//! What came of the heaps of a package: places, harvests, uses and results, by the commands that a person uses.

use zymarch_core::base::fault::{At, Faults};
use zymarch_formats::farm::Finished;
use zymarch_store::id::{CompostId, GroundId, HeapId, SiteId};

use crate::command::Add;
use crate::finish::ground::{self, GroundFields};
use crate::finish::harvest::{self, Amount, HarvestRequest};
use crate::finish::lab::{self, LabRequest, LabValue, Sample};
use crate::finish::used::{self, UseRequest};
use crate::words::Unit;
use crate::{Transaction, Who};

/// The key of what another table calls so; the reader has seen to it that it is there.
fn find<T: Copy>(known: &[(&str, T)], word: &str) -> Option<T> {
    known.iter().find(|(id, _)| *id == word).map(|(_, key)| *key)
}

/// All that came of the heaps of a site.
pub(super) fn load(
    tx: &mut Transaction<'_>,
    who: &Who,
    (site, of): (SiteId, &Finished),
    heaps: &[(&str, HeapId)],
) -> Result<(), Faults> {
    let litres = |amount: f64| Amount { amount, unit: Unit::Litre, measure_id: None };
    let under = |table: &'static str, place: usize| {
        move |faults: Faults| faults.under(&At::ROOT.key(table).index(place))
    };
    let mut grounds: Vec<(&str, GroundId)> = Vec::new();
    for (place, row) in of.grounds.iter().enumerate() {
        let what = GroundFields {
            name: row.name.clone(),
            kind: row.kind,
            area_m2: row.area_m2,
            count: row.count,
            crop: row.crop.clone(),
            touches_soil: row.touches_soil,
            is_eaten_raw: row.is_eaten_raw,
            harvest_on: row.harvest_on.map(|day| day.to_string()),
        };
        let added =
            ground::add(tx, who, Add { site, id: None, what }).map_err(under("grounds.csv", place))?;
        grounds.push((&row.id, added.id));
    }
    let mut composts: Vec<(&str, CompostId)> = Vec::new();
    for (place, row) in of.harvests.iter().enumerate() {
        let Some(heap) = find(heaps, &row.heap) else { continue };
        let request = HarvestRequest {
            id: None,
            at: Some(row.at.min(tx.now)),
            name: None,
            compost: litres(row.litres),
            rejects: row.rejects_l.map(litres),
            rejects_label: None,
            mesh_mm: row.mesh_mm,
            moisture_pct: row.moisture_pct,
            density_kg_l: None,
            is_last: row.is_last,
        };
        let taken = harvest::harvest(tx, who, (heap, request)).map_err(under("harvests.csv", place))?;
        composts.push((&row.id, taken));
    }
    for (place, row) in of.uses.iter().enumerate() {
        let Some(compost) = find(&composts, &row.compost) else { continue };
        let at = Some(row.at.min(tx.now));
        let ground = find(&grounds, &row.ground);
        let request = UseRequest { entry: None, ground, used: row.used, at, note: None };
        used::note(tx, who, (compost, request)).map_err(under("uses.csv", place))?;
    }
    for (place, row) in of.results.iter().enumerate() {
        let compost = find(&composts, &row.of).map(Sample::Compost);
        let Some(sample) = compost.or_else(|| find(&grounds, &row.of).map(Sample::Soil)) else { continue };
        let value = |&(figure, value): &_| LabValue { figure, value };
        let request = LabRequest {
            entry: None,
            made_on: row.made_on.to_string(),
            by: row.by.clone(),
            basis: row.result.basis,
            figures: row.result.figures.iter().map(value).collect(),
        };
        lab::note(tx, who, (sample, request)).map_err(under("results.csv", place))?;
    }
    Ok(())
}
