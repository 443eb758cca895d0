//! A heap as the core takes it: what is at hand, what was laid, what is to come.

use jiff::Timestamp;
use jiff::civil::Date;
use jiff::tz::TimeZone;
use zymarch_core::base::fault::Faults;
use zymarch_core::build::{self, Stand};
use zymarch_core::mix::Item;
use zymarch_core::plan::heap::Shape;
use zymarch_core::plan::method::Method;
use zymarch_core::stock::material::Kind;
use zymarch_core::stock::{Given, Lot};
use zymarch_formats::build::{BuildPortion, UnitKg, portions, said};
use zymarch_store::heap::Heap;
use zymarch_store::log::{Portion, Step};
use zymarch_store::{batch, item, lot};

use crate::Transaction;
use crate::said::{Noted, of_item};
use crate::stock::{Known, age_days};

/// A heap as the core takes it.
pub(super) struct Standing {
    /// What was laid and what is to come.
    pub(super) stand: Stand,
    /// The plan it was begun by.
    pub(super) first: Vec<build::Step>,
    /// What there is, in the order of the items.
    pub(super) supplies: Vec<Lot>,
    /// What one unit of each weighs.
    pub(super) unit_kg: Vec<UnitKg>,
}

/// One unit of an item: what it weighs, with its figures as they were on a day; stored dung has
/// lost nitrogen by then.
pub(super) fn unit(tx: &Transaction<'_>, of: &item::Item, on: Date) -> Result<Item, Faults> {
    let one = item::Item { held: of.held.with_amount(1.0), ..of.clone() };
    let lot = of.lot.and_then(|id| lot::ever(tx.conn, id).ok());
    let age_days = lot.map(|lot| age_days(&lot, on));
    of_item(&one, |noted| {
        let given = Given { age_days, ..noted.given };
        Noted { given, ..*noted }.item(tx.catalogue())
    })
}

/// The day a heap was begun.
fn begun_on(heap: &Heap) -> Date {
    let begun = Timestamp::from_millisecond(heap.row.begun_ms).unwrap_or_default();
    begun.to_zoned(TimeZone::UTC).date()
}

/// An item as a lot with its limits.
pub(super) fn supply(tx: &Transaction<'_>, of: &item::Item, unit: &Item, spare_kg: f64) -> Lot {
    let kind = tx.catalogue().material(&of.material).map_or(Kind::Brown, |row| row.kind);
    let each = of.held.measure().map(|_| unit.wet_mass_kg);
    Lot::up_to(spare_kg, unit.figures, kind).in_steps(each)
}

/// The method of a heap, if it is still known.
pub(crate) fn method<'t>(tx: &'t Transaction<'_>, heap: &Heap) -> Option<&'t Method> {
    heap.row.method.as_deref().and_then(|id| tx.catalogue().method(id))
}

/// How a heap stands after all that was done.
pub(super) fn of(tx: &Transaction<'_>, heap: &Heap) -> Result<Standing, Faults> {
    let items = &heap.stand.items;
    let begun = begun_on(heap);
    let units = items.iter().map(|item| unit(tx, item, begun)).collect::<Result<Vec<_>, _>>()?;
    let unit_kg: Vec<UnitKg> = units.iter().map(|unit| unit.wet_mass_kg).collect();
    let steps = |kept: &[Step]| kept.iter().map(|step| step_of(step, &unit_kg)).collect();
    let stand = Stand { plan: steps(&heap.stand.plan), laid: steps(&heap.stand.laid) };
    let known = Known::of(tx, heap.row.site)?;
    let batch = heap.row.batch.and_then(|id| batch::get(tx.conn, id).ok());
    let batch_took = batch.is_some_and(|batch| batch.taken_ms.is_some());
    // Beyond what is laid and planned: what is in stock, and what was taken from there for it.
    let spare = |at: usize, item: &item::Item, unit: &Item| {
        let planned = item.held.amount() * unit.wet_mass_kg;
        let (laid, rest) = (kg_in(&stand.laid, at), kg_in(stand.rest(), at));
        let Some(id) = item.lot else { return (2.0 * planned - laid - rest).max(0.0) };
        let left = lot::get(tx.conn, id).ok().and_then(|lot| known.item(&lot).ok());
        let left = left.map_or(0.0, |lot| lot.wet_mass_kg);
        let took = match (heap.row.taken_ms.is_some(), batch_took) {
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
        .map(|(at, (item, unit))| supply(tx, item, unit, spare(at, item, unit)))
        .collect();
    Ok(Standing { first: steps(&heap.stand.begun.steps), stand, supplies, unit_kg })
}

/// What was laid, and what of.
pub(crate) fn laid(tx: &Transaction<'_>, heap: &Heap) -> Result<(Vec<Lot>, Vec<build::Step>), Faults> {
    let items = &heap.stand.items;
    let begun = begun_on(heap);
    let units = items.iter().map(|item| unit(tx, item, begun)).collect::<Result<Vec<_>, _>>()?;
    let unit_kg: Vec<UnitKg> = units.iter().map(|unit| unit.wet_mass_kg).collect();
    let supplies = items.iter().zip(&units).map(|(item, unit)| supply(tx, item, unit, 0.0)).collect();
    Ok((supplies, heap.stand.laid.iter().map(|step| step_of(step, &unit_kg)).collect()))
}

/// How high what was laid stands [cm].
pub(super) fn height_cm(tx: &Transaction<'_>, heap: &Heap, shape: Shape) -> Result<f64, Faults> {
    let (supplies, laid) = laid(tx, heap)?;
    Ok(shape.height_of_cm(laid.iter().map(|step| step.heap_volume_l(&supplies)).sum()))
}

fn kg_in(steps: &[build::Step], item: usize) -> f64 {
    let portions = steps.iter().flat_map(|step| &step.portions);
    portions.filter(|portion| portion.supply == item).map(|portion| portion.kg).sum()
}

fn step_of(step: &Step, unit_kg: &[UnitKg]) -> build::Step {
    let said: Vec<_> = step
        .portions
        .iter()
        .map(|one| BuildPortion { item: one.item as usize, amount: one.amount })
        .collect();
    build::Step {
        role: step.role,
        cycle: step.cycle,
        portions: portions(&said, unit_kg),
        water_l: step.water_l,
        beside_l: step.beside_l,
    }
}

/// A step as it is written down.
pub(super) fn kept(step: &build::Step, unit_kg: &[UnitKg]) -> Step {
    let portions = said(&step.portions, unit_kg);
    Step {
        role: step.role,
        cycle: step.cycle,
        portions: portions.iter().map(|one| Portion { item: one.item as u32, amount: one.amount }).collect(),
        water_l: step.water_l,
        beside_l: step.beside_l,
    }
}

/// What was put in after the heap was built, which comes from stock as it is put in.
pub(crate) fn went_in_since(heap: &Heap) -> Vec<item::Item> {
    heap.stand.added.clone()
}

/// The items of a heap with what truly went in of each, which is what stock gives.
pub(crate) fn went_in(heap: &Heap) -> Vec<item::Item> {
    let amount = |item: usize| -> f64 {
        let portions = heap.stand.laid.iter().flat_map(|step| &step.portions);
        portions.filter(|portion| portion.item as usize == item).map(|portion| portion.amount).sum()
    };
    let items = heap.stand.items.iter().enumerate();
    items.map(|(at, item)| item::Item { held: item.held.with_amount(amount(at)), ..item.clone() }).collect()
}
