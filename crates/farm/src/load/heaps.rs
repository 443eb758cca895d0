//! Heaps of a package: built as they were, their log written down, and what stood in for their probes played.

use zymarch_core::base::fault::Faults;
use zymarch_formats::farm::{Farm, Heap};
use zymarch_store::id::{HeapId, SiteId};
use zymarch_store::log::{About, Body, Tending};

use crate::build::built;
use crate::plan::batch::BatchFields;
use crate::tend::simulated::{self, RodFields, StationFields};
use crate::transaction::Writing;
use crate::{Transaction, Who};

/// What a simulated weather station is called.
const STATION: &str = "Weather station";

/// All heaps of a package at a site.
pub(super) fn load<'f>(
    tx: &mut Transaction<'_>,
    who: &Who,
    (site, farm): (SiteId, &'f Farm),
    fields: impl Fn(&zymarch_formats::farm::Batch) -> BatchFields,
) -> Result<Vec<(&'f str, HeapId)>, Faults> {
    // Whoever tended them is not told in a package.
    let who = &Who { device: String::new(), ..who.clone() };
    let mut standing: Vec<(HeapId, &Heap)> = Vec::new();
    for heap in &farm.heaps {
        let of = (site, fields(&heap.of), heap.built_at);
        standing.push((built::without_batch(tx, who, of)?, heap));
    }
    if farm.has_station {
        let fields = StationFields { name: STATION.into(), hours_a_second: None };
        let station = simulated::station(tx, who, (site, &fields))?;
        simulated::play_station(tx, site, &station)?;
    }
    for &(id, heap) in &standing {
        let mut all = Vec::with_capacity(heap.log.len());
        for row in &heap.log {
            let what = row.what.clone().with_items(|_| Ok::<_, Faults>(Vec::new()))?;
            let body = Body::Tended(Box::new(Tending { what, note: row.note.clone() }));
            let at = Some(row.at.min(tx.now));
            all.push(Writing { at, was_recorded_then: true, ..Writing::now(site, About::Heap(id), body) });
        }
        tx.write_all(who, all)?;
        if let Some(rod) = &heap.rod {
            let fields = RodFields {
                name: rod.name.clone(),
                every_min: rod.every_min,
                hours_a_second: None,
                fault: rod.fault.map(|(fault, _)| fault),
                fault_from_day: rod.fault.map_or(0.0, |(_, day)| day),
            };
            let played = simulated::rod(tx, who, (id, &fields))?;
            simulated::play_rod(tx, id, &played)?;
        }
    }
    Ok(standing.into_iter().map(|(id, heap)| (heap.id.as_str(), id)).collect())
}
