//! A batch becomes a heap.

use zymarch_core::base::fault::{Fault, Faults};
use zymarch_core::build::steps;
use zymarch_core::mix::{self, Item};
use zymarch_core::plan::layers::{self, LayerItem};
use zymarch_core::stock::Lot;
use zymarch_formats::build::UnitKg;
use zymarch_store::batch::BatchFields;
use zymarch_store::id::{BatchId, HeapId};
use zymarch_store::log::{About, Begun, Body};
use zymarch_store::{batch, heap, item};

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
    let is_taken = |name: &str| others.iter().any(|heap| heap.name == name);
    let BatchFields { name, heaps, .. } = &batch.fields;
    // Of heaps alike each has its number from the first on.
    let plain = (*heaps == 1).then(|| name.clone());
    let from = if plain.is_some() { 2 } else { 1 };
    let mut names = plain.into_iter().chain((from..).map(|number: u32| format!("{name} {number}")));
    let name = names.find(|name| !is_taken(name));
    let begun = Begun { name: name.unwrap_or_default(), ..planned(tx, &batch)? };
    let id = id.unwrap_or_else(HeapId::fresh);
    tx.write(who, Writing::now(batch.site, About::Heap(id), Body::Begun(begun)))?;
    Ok(id)
}

/// A batch as the heap it is to be, and its plan.
fn planned(tx: &Transaction<'_>, batch: &batch::Batch) -> Result<Begun, Faults> {
    let fields = &batch.fields;
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
        batch: Some(batch.id),
        name: fields.name.clone(),
        shape: fields.shape.into(),
        method: fields.method.clone(),
        items: fields.items.iter().map(each).collect(),
        steps: steps(&plan, &supplies).iter().map(|step| kept(step, &unit_kg)).collect(),
    })
}
