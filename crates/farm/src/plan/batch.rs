//! Saved batches: a recipe with a name, and the heap it is meant for.

use std::sync::Arc;

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity;
use zymarch_core::mix;
use zymarch_core::mix::window::Windows;
use zymarch_core::plan::heap::fit::MOST_HEAPS;
use zymarch_core::plan::heap::{HeapSize, size as heap_size};
use zymarch_core::plan::method::Method;
use zymarch_formats::layers::HeapShape;
use zymarch_formats::mix::MixSums;
use zymarch_formats::recipe::MOST_ITEMS;
use zymarch_store::batch;
use zymarch_store::id::{BatchId, SiteId};
use zymarch_store::log::{About, Body, Taker};
use zymarch_store::{heap, site, stamp};

use super::part::{BatchPart, checked_all};
use super::prepare;
use crate::command::{Add, Change, Remove, Restore};
use crate::said::of_item;
use crate::stock::taken::{nothing_taken, settle};
use crate::transaction::{Writing, at_text};
use crate::words::{self, Under};
use crate::{Transaction, Who};

/// A saved batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Batch {
    /// Its id.
    pub id: BatchId,
    /// Counts changes.
    pub version: i64,
    /// When it was first saved, RFC 3339.
    pub created_at: String,
    /// When it was last saved.
    pub updated_at: String,
    /// When its amounts were taken from stock, if they were.
    pub taken_at: Option<String>,
    /// What it is.
    #[serde(flatten)]
    pub fields: BatchFields,
}

/// A batch as a list tells it: with how its mix stands.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BatchListed {
    /// The batch.
    #[serde(flatten)]
    pub batch: Batch,
    /// What its mix comes to; none of what cannot be summed.
    pub sums: Option<MixSums>,
    /// Whether each of its heaps is big enough to heat, by its volume.
    pub size: Option<HeapSize>,
    /// What of its preparing is done, as the words of its tasks.
    pub done: Vec<String>,
}

impl BatchListed {
    fn of(tx: &Transaction<'_>, batch: batch::Batch, done: Vec<String>) -> Self {
        let fields = &batch.fields;
        let items: Option<Vec<_>> =
            fields.items.iter().map(|item| of_item(item, |noted| noted.item(tx.catalogue())).ok()).collect();
        let mix = items.and_then(|items| mix::sum(&items, fields.water_l).ok());
        let method = fields.method.as_deref().and_then(|id| tx.catalogue().method(id));
        let windows = method.map_or_else(Windows::default, Method::windows);
        Self {
            sums: mix.as_ref().map(|mix| MixSums::new(mix, &windows.standings(mix))),
            size: mix.map(|mix| heap_size(mix.share(fields.heaps).heap_volume_l, None, method)),
            batch: batch.into(),
            done,
        }
    }
}

/// What a batch is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BatchFields {
    /// What it is called.
    pub name: String,
    /// Water added, litres.
    pub water_l: f64,
    /// The heap it is meant for.
    pub heap: HeapShape,
    /// How many heaps alike hold it, such as six drums; the amounts are for all of them.
    #[serde(default = "one")]
    #[schema(minimum = 1, maximum = 1000)]
    pub heaps: u32,
    /// The method, as `bay-turned`.
    #[serde(default)]
    pub method: Option<String>,
    /// The day it is to be built, as 2026-03-22.
    #[serde(default)]
    #[schema(value_type = Option<String>, format = Date)]
    pub build_on: Option<Date>,
    /// What is to help it begin, as `farm-ferment`.
    #[serde(default)]
    pub starters: Vec<String>,
    /// What goes in, in order.
    pub items: Vec<BatchPart>,
}

/// Takes the amounts of a batch from stock, or gives them back.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TakeRequest {
    /// The version that was read.
    pub version: i64,
    /// Where a lot holds less than the batch asks for: take what is there.
    #[serde(default)]
    pub what_is_there: bool,
}

pub(crate) const fn one() -> u32 {
    1
}

/// So many heaps alike, if there can be so many.
pub(crate) fn alike(heaps: u32) -> Result<u32, Fault> {
    let within = quantity::within(f64::from(heaps), 1.0, MOST_HEAPS);
    within.map(|_| heaps).map_err(|fault| At::ROOT.key("heaps").put(fault))
}

impl BatchFields {
    pub(crate) fn checked(self, tx: &Transaction<'_>, site: SiteId) -> Result<batch::BatchFields, Faults> {
        let name = words::name("name", &self.name)?;
        quantity::amount(self.water_l).under("water_l")?;
        let shape = self.heap.resolve().under("heap")?;
        let heaps = alike(self.heaps)?;
        if let Some(id) = self.method.as_deref().filter(|id| tx.catalogue().method(id).is_none()) {
            return Err(Fault::of("method", FaultCode::NoSuchMethod).with("got", id).into());
        }
        let starters = prepare::known(&self.starters)?.iter().map(|one| one.id.clone()).collect();
        if self.items.is_empty() {
            return Err(Faults::one("items", FaultCode::Empty));
        }
        At::ROOT.key("items").holds(self.items.len(), MOST_ITEMS)?;
        let items = checked_all(tx, site, self.items, &At::ROOT.key("items"))?;
        let build_on = self.build_on.map(|day| day.to_string());
        let Self { water_l, method, .. } = self;
        Ok(batch::BatchFields { name, water_l, shape, heaps, method, build_on, starters, items })
    }
}

impl From<batch::Batch> for Batch {
    fn from(batch: batch::Batch) -> Self {
        let batch::BatchFields { name, water_l, shape, heaps, method, build_on, starters, items } =
            batch.fields;
        let build_on = build_on.and_then(|day| day.parse().ok());
        let heap = shape.into();
        let items = items.into_iter().map(BatchPart::from).collect();
        Self {
            id: batch.id,
            version: batch.version,
            created_at: batch.created_at,
            updated_at: batch.updated_at,
            taken_at: batch.taken_ms.map(at_text),
            fields: BatchFields { name, water_l, heap, heaps, method, build_on, starters, items },
        }
    }
}

/// The batches of a site, last saved first.
///
/// # Errors
/// There is no such site.
pub fn list(tx: &Transaction<'_>, site: SiteId) -> Result<Arc<Vec<BatchListed>>, Faults> {
    site::get(tx.conn, site)?;
    let stamps = [stamp::of_batches(tx.conn)?, 0];
    tx.kept.batches.of(tx, stamps, site, || {
        let done = batch::done_at(tx.conn, site)?;
        let of =
            |id: BatchId| done.iter().filter(|(of, _)| *of == id).map(|(_, task)| task.clone()).collect();
        let listed = |batch: batch::Batch| {
            let done = of(batch.id);
            BatchListed::of(tx, batch, done)
        };
        Ok(batch::of_site(tx.conn, site)?.into_iter().map(listed).collect())
    })
}

/// One batch.
///
/// # Errors
/// There is none.
pub fn get(tx: &Transaction<'_>, id: BatchId) -> Result<Batch, Faults> {
    Ok(batch::get(tx.conn, id)?.into())
}

/// A new batch.
///
/// # Errors
/// Its fields, or a name that another has.
pub fn add(
    tx: &mut Transaction<'_>,
    _who: &Who,
    Add { site, id, what }: Add<BatchId, BatchFields>,
) -> Result<Batch, Faults> {
    site::get(tx.conn, site)?;
    let id = id.unwrap_or_else(BatchId::fresh);
    if batch::was_ever(tx.conn, id)? {
        return get(tx, id);
    }
    let new = what.checked(tx, site)?;
    Ok(batch::insert(tx.conn, id, site, &new, &tx.now_text())?.into())
}

/// Changes a batch; one that took its amounts takes the difference.
///
/// # Errors
/// Its fields, that it was changed elsewhere since, or a lot that holds too little.
pub fn change(
    tx: &mut Transaction<'_>,
    who: &Who,
    Change { id, version, to }: Change<BatchId, BatchFields>,
) -> Result<Batch, Faults> {
    let new = to.checked(tx, batch::get(tx.conn, id)?.site)?;
    let batch = batch::update(tx.conn, id, version, &new, &tx.now_text())?;
    if batch.taken_ms.is_some() {
        settle(tx, who, (Taker::Batch(id), batch.site), &batch.fields.items, false)?;
    }
    get(tx, id)
}

/// Removes a batch, and gives back what it took.
///
/// # Errors
/// There is none.
pub fn remove(tx: &mut Transaction<'_>, who: &Who, Remove(id): Remove<BatchId>) -> Result<(), Faults> {
    let site = batch::get(tx.conn, id)?.site;
    settle(tx, who, (Taker::Batch(id), site), &[], true)?;
    Ok(batch::remove(tx.conn, id, &tx.now_text())?)
}

/// Brings a removed batch back; what it had taken is taken again, as far as it is there.
///
/// # Errors
/// There was never one, or another has its name now.
pub fn restore(tx: &mut Transaction<'_>, who: &Who, Restore(id): Restore<BatchId>) -> Result<Batch, Faults> {
    let (batch, was_away) = batch::restore(tx.conn, id)?;
    if batch.taken_ms.is_some() && was_away {
        settle(tx, who, (Taker::Batch(id), batch.site), &batch.fields.items, true)?;
    }
    get(tx, id)
}

/// Takes the amounts of a batch from stock.
///
/// # Errors
/// They were taken already; every item whose lot holds too little.
pub fn take(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, request): (BatchId, TakeRequest),
) -> Result<Batch, Faults> {
    let batch = batch::get(tx.conn, id)?;
    // First of all whether it is the batch that was read: who saw an older one is told so.
    batch::touch(tx.conn, id, request.version)?;
    if batch.taken_ms.is_some() {
        return Err(Fault::new(FaultCode::TakenAlready).into());
    }
    if heap::has_taken(tx.conn, id)? {
        return Err(Fault::new(FaultCode::HeapHasTaken).into());
    }
    tx.write(who, Writing::now(batch.site, About::Batch(id), Body::StockTaken))?;
    settle(tx, who, (Taker::Batch(id), batch.site), &batch.fields.items, request.what_is_there)?;
    get(tx, id)
}

/// Gives the amounts of a batch back to stock.
///
/// # Errors
/// Nothing was taken, or it was changed elsewhere since.
pub fn give_back(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, request): (BatchId, TakeRequest),
) -> Result<Batch, Faults> {
    let batch = batch::get(tx.conn, id)?;
    batch::touch(tx.conn, id, request.version)?;
    if batch.taken_ms.is_none() {
        return Err(nothing_taken().into());
    }
    return_stock(tx, who, &batch)?;
    get(tx, id)
}

/// Gives back what a batch took, whoever asks for it.
pub(crate) fn return_stock(tx: &mut Transaction<'_>, who: &Who, batch: &batch::Batch) -> Result<(), Faults> {
    settle(tx, who, (Taker::Batch(batch.id), batch.site), &[], true)?;
    tx.write(who, Writing::now(batch.site, About::Batch(batch.id), Body::StockReturned))?;
    Ok(())
}
