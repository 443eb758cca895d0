//! A batch becomes a heap.

use uuid::Uuid;
use zymarch_core::base::fault::{Fault, Faults};
use zymarch_core::build::steps;
use zymarch_core::mix::{self, Item};
use zymarch_core::plan::layers::{self, LayerItem};
use zymarch_core::stock::Lot;
use zymarch_formats::build::UnitKg;
use zymarch_store::batch::{Batch, BatchFields};
use zymarch_store::heap::HeapRow;
use zymarch_store::id::{BatchId, EntryId, HeapId};
use zymarch_store::log::{About, Begun, Body};
use zymarch_store::projection::HeapStand;
use zymarch_store::{batch, heap, item};

use super::heap::{Heap, shown};
use super::standing::{kept, supply, unit};
use crate::transaction::Writing;
use crate::{Transaction, Who};

/// Begins to build a batch; one that is being built already goes on.
///
/// # Errors
/// There is no such batch, or a mix of it cannot be summed.
pub fn begin(
    tx: &mut Transaction<'_>,
    who: &Who,
    (batch, id): (BatchId, Option<HeapId>),
) -> Result<HeapId, Faults> {
    let batch = batch::get(tx.conn, batch)?;
    let others = heap::of_site(tx.conn, batch.site)?;
    let goes_on = |heap: &&heap::HeapRow| heap.batch == Some(batch.id) && heap.laid < heap.planned;
    if let Some(heap) = others.iter().find(|heap| Some(heap.id) == id).or(others.iter().find(goes_on)) {
        return Ok(heap.id);
    }
    fresh(tx, who, (&batch, &others, id))
}

/// Begins a heap of a batch, whatever others of it are being built.
pub(super) fn fresh(
    tx: &mut Transaction<'_>,
    who: &Who,
    (batch, others, id): (&Batch, &[HeapRow], Option<HeapId>),
) -> Result<HeapId, Faults> {
    let begun = named(tx, batch, others)?;
    // Who gives the heap an id without signal knows by it what to do the next thing after.
    let entry = id.map(|id| EntryId(id.0));
    let id = id.unwrap_or_else(HeapId::fresh);
    let writing = Writing::now(batch.site, About::Heap(id), Body::Begun(begun));
    tx.write(who, Writing { id: entry, ..writing })?;
    Ok(id)
}

/// The heap that a batch would be begun as, to be begun where there is no signal: it has no id yet.
///
/// # Errors
/// As [`begin`].
pub fn ahead(tx: &Transaction<'_>, batch: BatchId) -> Result<Heap, Faults> {
    let batch = batch::get(tx.conn, batch)?;
    let begun = named(tx, &batch, &heap::of_site(tx.conn, batch.site)?)?;
    let (id, head, at_ms) = (HeapId(Uuid::nil()), EntryId(Uuid::nil()), tx.now.as_millisecond());
    let row = HeapRow {
        id,
        site: batch.site,
        batch: Some(batch.id),
        name: begun.name.clone(),
        method: begun.method.clone(),
        begun_ms: at_ms,
        changed_ms: at_ms,
        taken_ms: None,
        head,
        version: 0,
        laid: 0,
        planned: begun.steps.len() as u32,
        built_ms: None,
        emptied_ms: None,
    };
    let stand = HeapStand::begun(begun);
    shown(tx, heap::Heap { row, stand, last_act: None, entries: Vec::new() })
}

/// A batch as the heap it is to be, by a name that no other has.
fn named(tx: &Transaction<'_>, batch: &Batch, others: &[HeapRow]) -> Result<Begun, Faults> {
    let is_taken = |name: &str| others.iter().any(|heap| heap.name == name);
    let BatchFields { name, heaps, .. } = &batch.fields;
    // Of heaps alike each has its number from the first on.
    let plain = (*heaps == 1).then(|| name.clone());
    let from = if plain.is_some() { 2 } else { 1 };
    let mut names = plain.into_iter().chain((from..).map(|number: u32| format!("{name} {number}")));
    let name = names.find(|name| !is_taken(name));
    Ok(Begun { name: name.unwrap_or_default(), ..planned(tx, batch)? })
}

/// A batch as the heap it is to be, and its plan.
fn planned(tx: &Transaction<'_>, batch: &Batch) -> Result<Begun, Faults> {
    Ok(Begun { batch: Some(batch.id), ..planned_of(tx, &batch.fields)? })
}

/// What goes in as the heap it is to be, and its plan.
pub(super) fn planned_of(tx: &Transaction<'_>, fields: &BatchFields) -> Result<Begun, Faults> {
    let units = fields.items.iter().map(|item| unit(tx, item, tx.today)).collect::<Result<Vec<_>, _>>()?;
    let unit_kg: Vec<UnitKg> = units.iter().map(|unit| unit.wet_mass_kg).collect();
    let both = || fields.items.iter().zip(&units);
    let supplies: Vec<Lot> = both().map(|(item, unit)| supply(tx, item, unit, 0.0)).collect();
    let parts: Vec<LayerItem> = both()
        .map(|(item, unit)| {
            let amount = item.held.amount();
            let mass = Item { wet_mass_kg: amount * unit.wet_mass_kg, ..*unit };
            let counted = item.held.measure().map(|_| amount);
            LayerItem::new(mass, tx.catalogue().material(&item.material), counted)
        })
        .collect();
    let items: Vec<Item> = parts.iter().map(|part| part.item).collect();
    let figures = mix::sum(&items, fields.water_l).map_err(|why| Fault { path: "".into(), ..why })?;
    let method = fields.method.as_deref().and_then(|id| tx.catalogue().method(id));
    let parts = layers::share_of(&parts, fields.heaps);
    let by = f64::from(fields.heaps);
    let share = figures.share(fields.heaps);
    let plan = layers::plan(&parts, &share, fields.water_l / by, fields.shape, method);
    let each = |item: &item::Item| {
        let held = item.held.with_amount(item.held.amount() / by);
        item::Item { held, ..item.clone() }
    };
    Ok(Begun {
        batch: None,
        name: fields.name.clone(),
        shape: fields.shape.into(),
        method: fields.method.clone(),
        items: fields.items.iter().map(each).collect(),
        steps: steps(&plan, &supplies).iter().map(|step| kept(step, &unit_kg)).collect(),
    })
}
