//! What is done to a heap: a step laid or put right, planned anew, ended, undone.
//!
//! Every act is an entry of the log with an id of its own, made after the entry that
//! its writer saw last. A phone without signal writes several and says which are its own;
//! sent twice they change nothing. What others did meanwhile stands beside it where it can
//! ([`clash`](zymarch_core::build::clash)), and is refused where somebody has to say which it was.

use jiff::Timestamp;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity;
use zymarch_core::build::Stand;
use zymarch_core::build::clash::Did;
use zymarch_core::build::rest::{self, Way};
use zymarch_formats::build::BuildPortion;
use zymarch_formats::recipe::MOST_ITEMS;
use zymarch_store::compost;
use zymarch_store::heap::{self, Heap};
use zymarch_store::id::{EntryId, HeapId};
use zymarch_store::item::Item;
use zymarch_store::log::{self, About, Body, Entry, Laid, Portion, Step};

use super::heap::{shape, windows};
use super::knew::{Knew, meets};
use super::standing::{self, Standing, kept};
use super::supply;
use crate::command::{Remove, Restore};
use crate::plan::BatchPart;
use crate::plan::part::checked_all;
use crate::transaction::Writing;
use crate::{Transaction, Who};

/// Something done to a heap.
#[derive(Debug, Clone, Default, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeapAct {
    /// Its id, if whoever writes it gives one; sent twice it is done once.
    #[serde(default)]
    pub entry: Option<EntryId>,
    /// The entry that the farm told its writer last; left out, it is done after whatever there is.
    #[serde(default)]
    pub after: Option<EntryId>,
    /// What its writer did to the heap since, told or not.
    #[serde(default)]
    pub mine: Vec<EntryId>,
    /// When it was done, if not just now.
    #[serde(default)]
    #[schema(value_type = Option<String>, format = DateTime)]
    pub at: Option<Timestamp>,
}

/// The rest of a heap to be planned anew.
#[derive(Debug, Clone, Default, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AnewRequest {
    /// Its id, if whoever writes it gives one; sent twice it is done once.
    #[serde(default)]
    pub entry: Option<EntryId>,
    /// The entry that the farm told its writer last; left out, it is done after whatever there is.
    #[serde(default)]
    pub after: Option<EntryId>,
    /// What its writer did to the heap since, told or not.
    #[serde(default)]
    pub mine: Vec<EntryId>,
    /// When it was done, if not just now.
    #[serde(default)]
    #[schema(value_type = Option<String>, format = DateTime)]
    pub at: Option<Timestamp>,
    /// What is to be kept; left out, the way that is offered first.
    #[serde(default)]
    pub way: Option<Way>,
}

impl AnewRequest {
    fn act(&self) -> HeapAct {
        HeapAct { entry: self.entry, after: self.after, mine: self.mine.clone(), at: self.at }
    }
}

/// A step that was laid.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LayRequest {
    /// Its id, if whoever writes it gives one; sent twice it is laid once.
    #[serde(default)]
    pub entry: Option<EntryId>,
    /// The entry that the farm told its writer last; left out, it is done after whatever there is.
    #[serde(default)]
    pub after: Option<EntryId>,
    /// What its writer did to the heap since, told or not.
    #[serde(default)]
    pub mine: Vec<EntryId>,
    /// When it was done, if not just now.
    #[serde(default)]
    #[schema(value_type = Option<String>, format = DateTime)]
    pub at: Option<Timestamp>,
    /// Which step, from 0: the next one, or one laid before that is put right.
    pub step: usize,
    /// What really went in; items beyond those of the heap are the new ones.
    pub portions: Vec<BuildPortion>,
    /// Water really poured on it, litres.
    pub water_l: f64,
    /// Things that nobody had planned.
    #[serde(default)]
    pub new_items: Vec<BatchPart>,
}

impl LayRequest {
    fn act(&self) -> HeapAct {
        HeapAct { entry: self.entry, after: self.after, mine: self.mine.clone(), at: self.at }
    }

    /// The portions and the water, within what there is to take from.
    fn checked(&self, items: &[&Item], tx: &Transaction<'_>) -> Result<(), Faults> {
        let (mut found, list) = (Vec::new(), At::ROOT.key("portions"));
        for (index, portion) in self.portions.iter().enumerate() {
            let at = list.index(index);
            let Some(item) = items.get(portion.item) else {
                found.push(at.key("item").fault(FaultCode::NotInHeap));
                continue;
            };
            if self.portions[..index].iter().any(|other| other.item == portion.item) {
                found.push(at.key("item").fault(FaultCode::Twice).with("field", portion.item));
            }
            if let Err(fault) = quantity::amount(portion.amount) {
                found.push(at.key("amount").put(fault));
            } else if portion.amount > 0.0 && standing::unit(tx, item, tx.today)?.figures.must_not_go_in {
                found.push(at.key("item").fault(FaultCode::MustNotGoIn));
            }
        }
        if let Err(fault) = quantity::amount(self.water_l) {
            found.push(At::ROOT.key("water_l").put(fault));
        }
        Faults::or(found, || ())
    }

    fn portions(&self) -> Vec<Portion> {
        self.portions.iter().map(|one| Portion { item: one.item as u32, amount: one.amount }).collect()
    }

    /// Whether an entry of the log is this one, sent before.
    fn is_same(&self, of: &Entry, heap: HeapId) -> bool {
        of.about == About::Heap(heap) && self.is_what(&of.body)
    }

    /// Whether it is this that was laid.
    fn is_what(&self, body: &Body) -> bool {
        matches!(body, Body::Laid(laid) if laid.at as usize == self.step
                && laid.step.portions == self.portions()
                && laid.step.water_l == self.water_l
                && laid.items.len() == self.new_items.len())
    }
}

/// What is already written down of an act that is sent again; none if it is new.
fn known(tx: &Transaction<'_>, act: &HeapAct, is_same: impl FnOnce(&Entry) -> bool) -> Result<bool, Faults> {
    let Some(entry) = act.entry else { return Ok(false) };
    match log::get(tx.conn, entry)? {
        Some(entry) if !is_same(&entry) => Err(Faults::one("entry", FaultCode::EntryTaken)),
        known => Ok(known.is_some()),
    }
}

impl HeapAct {
    /// The heap, if this can be done to it beside what others did meanwhile.
    fn meets(
        &self,
        tx: &Transaction<'_>,
        id: HeapId,
        did: impl FnOnce(&Heap) -> Did,
        is_same: impl Fn(&Body) -> bool,
    ) -> Result<Heap, Faults> {
        let heap = heap::get(tx.conn, id)?;
        meets(tx, &heap.row, Knew { after: self.after, mine: &self.mine }, did(&heap), is_same)?;
        Ok(heap)
    }
}

/// What is to come, as far as it can stand in another's way.
fn rest_of(heap: &Heap) -> usize {
    heap.stand.laid.len()
}

fn write(
    tx: &mut Transaction<'_>,
    who: &Who,
    (heap, act): (&Heap, &HeapAct),
    body: Body,
) -> Result<(), Faults> {
    let of = Writing::now(heap.row.site, About::Heap(heap.row.id), body);
    tx.write(who, Writing { id: act.entry, at: act.at, ..of })?;
    supply::follow(tx, who, heap.row.id)
}

/// Ticks a step off, with what really went in.
///
/// # Errors
/// What went in, or a step that is neither the next one nor laid; that something was
/// done to the heap since.
pub fn lay(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, request): (HeapId, LayRequest),
) -> Result<HeapId, Faults> {
    let act = request.act();
    if known(tx, &act, |entry| request.is_same(entry, id))? {
        return Ok(id);
    }
    let heap = act.meets(tx, id, |_| Did::Laid { at: request.step }, |body| request.is_what(body))?;
    At::ROOT.key("new_items").holds(request.new_items.len(), MOST_ITEMS)?;
    At::ROOT.key("portions").holds(request.portions.len(), MOST_ITEMS)?;
    let items = checked_all(tx, heap.row.site, request.new_items.clone(), &At::ROOT.key("new_items"))?;
    let all: Vec<&Item> = heap.stand.items.iter().chain(&items).collect();
    At::ROOT.key("new_items").holds(all.len(), MOST_ITEMS)?;
    request.checked(&all, tx)?;
    let place = Stand::place(request.step, heap.stand.laid.len(), heap.stand.plan.len());
    let at = place.ok_or_else(|| Fault::of("step", FaultCode::NotTheStep))?;
    let plan = &heap.stand.plan[at];
    let step = Step {
        role: plan.role,
        cycle: plan.cycle,
        portions: request.portions(),
        water_l: request.water_l,
        beside_l: plan.beside_l,
    };
    let body = Body::Laid(Laid { at: at as u32, step, items });
    write(tx, who, (&heap, &act), body)?;
    Ok(id)
}

/// The rest of a heap, planned anew, and the entry after which that holds.
#[derive(Debug, Clone, PartialEq)]
pub struct Proposal {
    heap: HeapId,
    act: HeapAct,
    from: u32,
    steps: Vec<Step>,
}

/// Plans the rest of a heap anew, so that it ends within its windows: the work of the
/// solver, done while nobody waits to write.
///
/// # Errors
/// There is nothing to put it right with; that something was done to the heap since.
pub fn propose(
    tx: &Transaction<'_>,
    (id, request): (HeapId, AnewRequest),
) -> Result<Option<Proposal>, Faults> {
    let act = request.act();
    if known(tx, &act, |entry| entry.about == About::Heap(id) && matches!(entry.body, Body::Planned { .. }))?
    {
        return Ok(None);
    }
    let heap = act.meets(tx, id, |heap| Did::Planned { from: rest_of(heap) }, |_| false)?;
    let Standing { stand, supplies, unit_kg, .. } = standing::of(tx, &heap)?;
    let method = standing::method(tx, &heap);
    let ways = rest::ways(&supplies, &stand.laid, stand.rest(), (shape(&heap)?, method), &windows(method));
    let anew = ways
        .into_iter()
        .find(|anew| request.way.is_none_or(|way| way == anew.way))
        .ok_or_else(|| Fault::new(FaultCode::NothingToMend))?;
    Ok(Some(Proposal {
        heap: id,
        act: HeapAct { after: Some(heap.row.head), mine: Vec::new(), ..act },
        from: stand.laid.len() as u32,
        steps: anew.steps.iter().map(|step| kept(step, &unit_kg)).collect(),
    }))
}

/// Takes a proposal up, if nothing was done to the heap since.
///
/// # Errors
/// That something was done to the heap since.
pub fn plan_anew(tx: &mut Transaction<'_>, who: &Who, of: Proposal) -> Result<HeapId, Faults> {
    let heap = of.act.meets(tx, of.heap, |heap| Did::Planned { from: rest_of(heap) }, |_| false)?;
    write(tx, who, (&heap, &of.act), Body::Planned { from: of.from, steps: of.steps })?;
    Ok(of.heap)
}

/// Ends a heap where it stands; what was planned beyond it is left out.
///
/// # Errors
/// Nothing is laid, or nothing is to come; that something was done to the heap since.
pub fn end(tx: &mut Transaction<'_>, who: &Who, (id, act): (HeapId, HeapAct)) -> Result<HeapId, Faults> {
    if known(tx, &act, |entry| entry.about == About::Heap(id) && matches!(entry.body, Body::Ended { .. }))? {
        return Ok(id);
    }
    let heap = act.meets(tx, id, |heap| Did::Ended { from: rest_of(heap) }, |_| false)?;
    if heap.stand.laid.is_empty() || heap.stand.rest().is_empty() {
        return Err(Fault::new(FaultCode::NothingToEnd).into());
    }
    let from = heap.stand.laid.len() as u32;
    write(tx, who, (&heap, &act), Body::Ended { from })?;
    Ok(id)
}

/// Undoes what was done last: the entry stays, and another takes it back.
///
/// # Errors
/// Nothing was done yet; that something was done to the heap since.
pub fn undo(tx: &mut Transaction<'_>, who: &Who, (id, act): (HeapId, HeapAct)) -> Result<HeapId, Faults> {
    if known(tx, &act, |entry| entry.about == About::Heap(id) && entry.body == Body::Undone)? {
        return Ok(id);
    }
    let heap = act.meets(tx, id, |_| Did::TookBack, |_| false)?;
    let missing = || Fault::new(FaultCode::NotFound).with("kind", "act");
    let last =
        heap.last_act.map(|last| log::get(tx.conn, last)).transpose()?.flatten().ok_or_else(missing)?;
    tx.write(who, Writing { id: act.entry, at: act.at, ..Writing::undone(&last) })?;
    supply::follow(tx, who, id)?;
    Ok(id)
}

/// Removes a heap, and gives back what it took.
///
/// # Errors
/// There is none, or compost was taken out of it.
pub fn remove(tx: &mut Transaction<'_>, who: &Who, Remove(id): Remove<HeapId>) -> Result<(), Faults> {
    let heap = heap::row(tx.conn, id)?;
    // What came of it is traced back to it.
    if !compost::of_heap(tx.conn, id)?.is_empty() {
        return Err(Fault::new(FaultCode::UsedSince).into());
    }
    supply::settle_none(tx, who, &heap)?;
    tx.write(who, Writing::now(heap.site, About::Heap(id), Body::Removed))?;
    Ok(())
}

/// Brings a removed heap back; what it had taken is taken again, as far as it is there.
///
/// # Errors
/// There was never one.
pub fn restore(tx: &mut Transaction<'_>, who: &Who, Restore(id): Restore<HeapId>) -> Result<HeapId, Faults> {
    if let Some(removed) = log::removal(tx.conn, About::Heap(id), "heap")? {
        tx.write(who, Writing::undone(&removed))?;
        supply::follow(tx, who, id)?;
    }
    Ok(heap::row(tx.conn, id)?.id)
}
