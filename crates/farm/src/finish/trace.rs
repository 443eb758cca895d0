//! What went where: from a bed back to what its compost was made of, and from a lot forward to every bed it reached.
//!
//! One chain both ways: lots, heaps, compost, uses. Rejects of one heap that went into the next carry the chain on.

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::base::words::closed_list;
use zymarch_core::tend::hygiene::{CriterionId, HeatStatus};
use zymarch_core::tend::ready::Stage;
use zymarch_store::compost::{self, Went};
use zymarch_store::heap::{self, Heap};
use zymarch_store::id::{CompostId, GroundId, HeapId, LotId};
use zymarch_store::item::Item;
use zymarch_store::{ground, lot, site};

use super::compost::CompostTold;
use super::holds::Lookup;
use super::used::{self, UseTold};
use crate::Transaction;
use crate::build::standing::{went_in, went_in_since};
use crate::said::of_item;
use crate::tend::judge;
use crate::transaction::at_text;

closed_list! {
    /// What a chain is asked of.
    ChainOf {
        /// From a lot forward.
        Lot = "lot",
        /// Compost, both ways.
        Compost = "compost",
        /// From a place back.
        Ground = "ground",
    }
}

/// What went where.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Chain {
    /// What it was asked of.
    pub of: ChainOf,
    /// What that is called: the person's word for a lot, or none.
    pub name: Option<String>,
    /// Of a lot: its material.
    pub material: Option<String>,
    /// The farm.
    pub site: String,
    /// When it was asked, RFC 3339.
    pub asked_at: String,
    /// What the heaps were made of.
    pub lots: Vec<ChainLot>,
    /// The heaps, built first on top.
    pub heaps: Vec<ChainHeap>,
    /// The compost that was taken out of them.
    pub composts: Vec<CompostTold>,
    /// Where that went, first on top.
    pub uses: Vec<UseTold>,
}

/// Something that went into a heap.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ChainLot {
    /// Into which.
    pub heap: HeapId,
    /// The lot it came from, if it came from stock.
    pub lot: Option<LotId>,
    /// Its material.
    pub material: String,
    /// The person's own name for it.
    pub label: Option<String>,
    /// How much went in, kg.
    pub kg: f64,
    /// The day it was gathered, if that was said.
    pub gathered_on: Option<String>,
    /// The compost whose rejects it is, if it is that.
    pub rejects_of: Option<CompostId>,
}

/// A heap of a chain.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ChainHeap {
    /// Which.
    pub id: HeapId,
    /// What it is called.
    pub name: String,
    /// The method.
    pub method: Option<String>,
    /// When its last layer was laid, RFC 3339.
    pub built_at: Option<String>,
    /// When it was emptied.
    pub emptied_at: Option<String>,
    /// What it is held to, and what was recorded.
    pub held_to: Vec<ChainHeat>,
    /// How far it is; none if it cannot be judged.
    pub stage: Option<Stage>,
    /// Whether some of what was read of it is made up.
    pub is_simulated: bool,
}

/// What was recorded of a heap's heat under a criterion.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct ChainHeat {
    /// Which.
    pub criterion: CriterionId,
    /// What was recorded.
    pub status: HeatStatus,
}

/// A chain as it is followed.
#[derive(Default)]
struct Followed {
    heaps: BTreeMap<HeapId, Heap>,
    composts: BTreeSet<CompostId>,
    lots: BTreeSet<LotId>,
}

impl Followed {
    /// On from a lot: into heaps, out as compost, on with the rejects.
    fn forward_from_lot(&mut self, tx: &Transaction<'_>, lot: LotId) -> Result<(), Faults> {
        if !self.lots.insert(lot) {
            return Ok(());
        }
        for id in heap::that_name(tx.conn, lot)? {
            // What was taken off the list was no heap.
            let Ok(heap) = heap::get(tx.conn, id) else { continue };
            if !parts(&heap).iter().any(|part| part.lot == Some(lot) && part.held.amount() > 0.0) {
                continue;
            }
            self.heaps.insert(id, heap);
            for of in compost::of_heap(tx.conn, id)? {
                self.forward_from(tx, of.id)?;
            }
        }
        Ok(())
    }

    /// On from compost: with its rejects.
    fn forward_from(&mut self, tx: &Transaction<'_>, id: CompostId) -> Result<(), Faults> {
        self.composts.insert(id);
        match compost::get(tx.conn, id)?.rejects {
            Some((lot, _)) => self.forward_from_lot(tx, lot),
            None => Ok(()),
        }
    }

    /// Back from compost: its heap, what went in, and what rejects of another heap among that came from.
    fn back_from(&mut self, tx: &Transaction<'_>, id: CompostId) -> Result<(), Faults> {
        if !self.composts.insert(id) {
            return Ok(());
        }
        let Ok(heap) = heap::get(tx.conn, compost::get(tx.conn, id)?.heap) else { return Ok(()) };
        let lots: Vec<LotId> = parts(&heap).iter().filter_map(|part| part.lot).collect();
        self.heaps.insert(heap.row.id, heap);
        for lot in lots {
            if let Some(of) = compost::of_rejects(tx.conn, lot)? {
                self.back_from(tx, of.id)?;
            }
        }
        Ok(())
    }

    fn told(
        self,
        tx: &Transaction<'_>,
        head: (ChainOf, Option<String>, Option<String>, zymarch_store::id::SiteId),
        uses: Vec<Went>,
    ) -> Result<Chain, Faults> {
        let (of, name, material, at) = head;
        let mut heaps: Vec<&Heap> = self.heaps.values().collect();
        heaps.sort_by_key(|heap| heap.row.built_ms);
        let mut lots = Vec::new();
        for heap in &heaps {
            for part in parts(heap) {
                if part.held.amount() > 0.0 {
                    lots.push(chain_lot(tx, heap.row.id, &part)?);
                }
            }
        }
        let (mut composts, lookup) = (Vec::new(), Lookup::new(tx));
        for id in &self.composts {
            composts.push(super::compost::shown(&lookup, *id)?);
        }
        composts.sort_by(|a, b| a.harvested_at.cmp(&b.harvested_at));
        let mut told =
            uses.into_iter().map(|went| used::told(&lookup, went)).collect::<Result<Vec<_>, _>>()?;
        told.sort_by(|a, b| a.at.cmp(&b.at));
        Ok(Chain {
            of,
            name,
            material,
            site: site::get(tx.conn, at)?.fields.name,
            asked_at: tx.now.to_string(),
            lots,
            heaps: heaps.into_iter().map(|heap| chain_heap(tx, heap)).collect(),
            composts,
            uses: told,
        })
    }

    /// All that the compost of this chain went to.
    fn uses(&self, tx: &Transaction<'_>) -> Result<Vec<Went>, Faults> {
        let mut uses = Vec::new();
        for id in &self.composts {
            uses.extend(compost::went_from(tx.conn, *id)?);
        }
        Ok(uses)
    }
}

/// All that truly went into a heap, on build day and since.
fn parts(heap: &Heap) -> Vec<Item> {
    [went_in(heap), went_in_since(heap)].concat()
}

fn chain_lot(tx: &Transaction<'_>, heap: HeapId, part: &Item) -> Result<ChainLot, Faults> {
    let known = part.lot.and_then(|id| lot::ever(tx.conn, id).ok());
    let rejects = part.lot.map(|id| compost::of_rejects(tx.conn, id)).transpose()?.flatten();
    Ok(ChainLot {
        heap,
        lot: part.lot,
        material: part.material.clone(),
        label: part.label.clone(),
        kg: of_item(part, |noted| noted.item(tx.catalogue()))?.wet_mass_kg,
        gathered_on: known.and_then(|lot| lot.gathered_on),
        rejects_of: rejects.map(|of| of.id),
    })
}

fn chain_heap(tx: &Transaction<'_>, heap: &Heap) -> ChainHeap {
    let row = &heap.row;
    let judged = judge::of(tx, row).ok();
    let heat = judged.iter().flat_map(|judged| &judged.held_to);
    ChainHeap {
        id: row.id,
        name: row.name.clone(),
        method: row.method.clone(),
        built_at: row.built_ms.map(at_text),
        emptied_at: row.emptied_ms.map(at_text),
        held_to: heat.map(|(of, found)| ChainHeat { criterion: of.id, status: found.status }).collect(),
        stage: judged.as_ref().map(|judged| judged.readiness.stage),
        is_simulated: judged.is_some_and(|judged| judged.is_simulated),
    }
}

/// Every bed that a lot reached.
///
/// # Errors
/// There never was such a lot.
pub fn of_lot(tx: &Transaction<'_>, id: LotId) -> Result<Chain, Faults> {
    let lot = lot::ever(tx.conn, id)?;
    let mut followed = Followed::default();
    followed.forward_from_lot(tx, id)?;
    let uses = followed.uses(tx)?;
    let mut chain =
        followed.told(tx, (ChainOf::Lot, lot.fields.label, Some(lot.fields.material), lot.site), uses)?;
    // What else went into those heaps is another question.
    let on: Vec<LotId> = chain.composts.iter().filter_map(|of| of.rejects_lot).collect();
    chain.lots.retain(|part| part.lot.is_some_and(|lot| lot == id || on.contains(&lot)));
    Ok(chain)
}

/// What some compost was made of, and where it went.
///
/// # Errors
/// There is none.
pub fn of_compost(tx: &Transaction<'_>, id: CompostId) -> Result<Chain, Faults> {
    let of = compost::get(tx.conn, id)?;
    let mut followed = Followed::default();
    followed.back_from(tx, id)?;
    let uses = compost::went_from(tx.conn, id)?;
    followed.told(tx, (ChainOf::Compost, Some(of.name), None, of.site), uses)
}

/// What a place got, and what that was made of.
///
/// # Errors
/// There never was such a place.
pub fn of_ground(tx: &Transaction<'_>, id: GroundId) -> Result<Chain, Faults> {
    let place = ground::ever(tx.conn, id)?;
    let mut followed = Followed::default();
    let uses = compost::went_to(tx.conn, id)?;
    for went in &uses {
        followed.back_from(tx, went.compost)?;
    }
    followed.told(tx, (ChainOf::Ground, Some(place.fields.name), None, place.site), uses)
}
