//! A heap as the core takes it: what is at hand, what was laid, what is to come.

use zymarch_core::build::{self, Stand, Supply};
use zymarch_core::heap as form;
use zymarch_core::layers::{self, Part};
use zymarch_core::mix::{self, Item};
use zymarch_formats::build::{BuildPortion, UnitKg, portions, said};
use zymarch_formats::field::Refusal;
use zymarch_store::heap::{self, Act, Heap, NewHeap};
use zymarch_store::held::Held;
use zymarch_store::{Connection, batch, item, lot};

use super::lot::Beside;
use super::part::said_of;
use crate::http::problem::ApiError;
use crate::state::App;

/// A heap as the core takes it.
pub(super) struct Standing {
    /// What was laid and what is to come.
    pub(super) stand: Stand,
    /// The plan it was begun by.
    pub(super) first: Vec<build::Step>,
    /// What there is, in the order of the items.
    pub(super) supplies: Vec<Supply>,
    /// What one unit of each weighs.
    pub(super) unit_kg: Vec<UnitKg>,
}

/// One unit of an item: what it weighs, with its figures.
fn unit(of: &item::Item, state: &App) -> Result<Item, Refusal> {
    let one = item::Item { held: of.held.with_amount(1.0), ..of.clone() };
    said_of(&one, |said| said.resolve(&state.catalogue(), ""))
}

/// Whether a caution keeps it out of every heap.
pub(super) fn must_not_go_in(of: &item::Item, state: &App) -> Result<bool, Refusal> {
    Ok(unit(of, state)?.figures.must_not_go_in)
}

fn supply(of: &item::Item, unit: &Item, spare_kg: f64) -> Supply {
    let is_counted = matches!(of.held, Held::Measures { .. });
    Supply { figures: unit.figures, measure_kg: is_counted.then_some(unit.wet_mass_kg), spare_kg }
}

/// How a heap stands after all that was done.
pub(super) fn of(conn: &Connection, heap: &Heap, state: &App) -> Result<Standing, ApiError> {
    let catalogue = state.catalogue();
    let items = &heap.fields.items;
    let units = items.iter().map(|item| unit(item, state)).collect::<Result<Vec<_>, _>>()?;
    let unit_kg: Vec<UnitKg> = units.iter().map(|unit| unit.wet_mass_kg).collect();
    let beside = Beside::read(conn, heap.site, &catalogue, state.clock.today())?;
    let stand = Stand::of(heap.acts.iter().map(|act| acted(act, &unit_kg)));
    let kg_in = |steps: &[build::Step], item: usize| -> f64 {
        let portions = steps.iter().flat_map(|step| &step.portions);
        portions.filter(|portion| portion.supply == item).map(|portion| portion.kg).sum()
    };
    let batch = heap.fields.batch.and_then(|id| batch::get(conn, id).ok());
    let batch_took = batch.is_some_and(|batch| batch.taken_at.is_some());
    // Beyond what is laid and planned: what is in stock, and what was taken from there for it.
    let spare = |at: usize, item: &item::Item, unit: &Item| {
        let planned = item.held.amount() * unit.wet_mass_kg;
        let (laid, rest) = (kg_in(&stand.laid, at), kg_in(stand.rest(), at));
        let Some(id) = item.lot else { return (2.0 * planned - laid - rest).max(0.0) };
        let left = lot::get(conn, id).ok().and_then(|lot| beside.item(&lot).ok());
        let left = left.map_or(0.0, |lot| lot.wet_mass_kg);
        let took = match (heap.taken_at.is_some(), batch_took) {
            (true, _) => laid,
            (false, true) => planned,
            (false, false) => 0.0,
        };
        (left + took - laid - rest).max(0.0)
    };
    let supplies = items
        .iter()
        .zip(&units)
        .enumerate()
        .map(|(at, (item, unit))| supply(item, unit, spare(at, item, unit)))
        .collect();
    let first = Stand::of(heap.acts.first().map(|act| acted(act, &unit_kg))).plan;
    Ok(Standing { stand, first, supplies, unit_kg })
}

fn acted(act: &Act, unit_kg: &[UnitKg]) -> build::Act {
    let step = |step: &heap::Step| {
        let said: Vec<_> = step
            .portions
            .iter()
            .map(|&(item, amount)| BuildPortion { item: item as usize, amount })
            .collect();
        build::Step {
            role: step.role,
            cycle: step.cycle,
            portions: portions(&said, unit_kg),
            water_l: step.water_l,
            beside_l: step.beside_l,
        }
    };
    let at = act.from_step as usize;
    match act.steps.first() {
        Some(first) if act.is_laid => build::Act::Laid { at, step: step(first) },
        _ => build::Act::Planned { from: at, steps: act.steps.iter().map(step).collect() },
    }
}

/// A step as it is kept.
pub(super) fn kept(step: &build::Step, unit_kg: &[UnitKg]) -> heap::Step {
    let portions = said(&step.portions, unit_kg);
    heap::Step {
        role: step.role,
        cycle: step.cycle,
        portions: portions.iter().map(|one| (one.item as u32, one.amount)).collect(),
        water_l: step.water_l,
        beside_l: step.beside_l,
    }
}

/// The items of a heap with what truly went in of each, from what is to be taken from stock.
pub(super) fn went_in(heap: &Heap, Standing { stand, unit_kg, .. }: &Standing) -> Vec<item::Item> {
    let kg = |item: usize| -> f64 {
        let portions = stand.laid.iter().flat_map(|step| &step.portions);
        portions.filter(|portion| portion.supply == item).map(|portion| portion.kg).sum()
    };
    let items = heap.fields.items.iter().enumerate();
    items
        .map(|(at, item)| item::Item { held: item.held.with_amount(kg(at) / unit_kg[at]), ..item.clone() })
        .collect()
}

/// A batch as the heap it is to be, and its plan.
pub(super) fn planned(batch: &batch::Batch, state: &App) -> Result<(NewHeap, Vec<heap::Step>), ApiError> {
    let fields = &batch.fields;
    let catalogue = state.catalogue();
    let units = fields.items.iter().map(|item| unit(item, state)).collect::<Result<Vec<_>, _>>()?;
    let unit_kg: Vec<UnitKg> = units.iter().map(|unit| unit.wet_mass_kg).collect();
    let supplies: Vec<Supply> =
        fields.items.iter().zip(&units).map(|(item, unit)| supply(item, unit, 0.0)).collect();
    let parts: Vec<Part> = fields
        .items
        .iter()
        .zip(&units)
        .map(|(item, unit)| {
            let amount = item.held.amount();
            let mass = Item { wet_mass_kg: amount * unit.wet_mass_kg, ..*unit };
            let counted = matches!(item.held, Held::Measures { .. }).then_some(amount);
            Part::new(mass, catalogue.find(&item.material), counted)
        })
        .collect();
    let items: Vec<Item> = parts.iter().map(|part| part.item).collect();
    let figures = mix::sum(&items, fields.water_l)
        .map_err(|why| Refusal::one("", format!("it cannot be built yet: {why}")))?;
    let method = fields.method.as_deref().and_then(|id| catalogue.method(id));
    let shape: form::Shape = fields.shape;
    let plan = layers::plan(&parts, &figures, fields.water_l, shape, method);
    let steps = build::steps(&plan, &supplies).iter().map(|step| kept(step, &unit_kg)).collect();
    let new = NewHeap {
        batch: Some(batch.id),
        name: fields.name.clone(),
        shape,
        method: fields.method.clone(),
        items: fields.items.clone(),
    };
    Ok((new, steps))
}
