//! Compost that was taken out of heaps: how much is left, what it holds, what was recorded of it, where it went.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::words::closed_list;
use zymarch_store::compost;
use zymarch_store::held::Held;
use zymarch_store::id::{CompostId, EntryId, HeapId, LotId, SiteId};
use zymarch_store::log::{self, About, Body, Moved, Set};
use zymarch_store::{heap, site};

use super::harvest::{Amount, all_of};
use super::holds::{FigureTold, Lookup};
use super::lab::LabTold;
use super::used::{self, UseTold};
use crate::stock::Known;
use crate::transaction::{Writing, at_text};
use crate::words;
use crate::{Transaction, Who};

/// Compost that was taken out of a heap.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CompostTold {
    /// Its id.
    pub id: CompostId,
    /// Counts entries.
    pub version: i64,
    /// What it is called.
    pub name: String,
    /// The heap.
    pub heap: HeapId,
    /// What that is called; none if it was taken off the list.
    pub heap_name: Option<String>,
    /// When it was taken out, RFC 3339.
    pub harvested_at: String,
    /// Days since then.
    pub age_days: f64,
    /// How much was taken out, litres.
    pub taken_l: f64,
    /// How much is left, litres.
    pub litres: f64,
    /// The same, kg.
    pub kg: f64,
    /// What a litre weighs, kg/L.
    pub density_kg_l: f64,
    /// Through which mesh, mm.
    pub mesh_mm: Option<f64>,
    /// The lot that its rejects became.
    pub rejects_lot: Option<LotId>,
    /// How much they were, litres.
    pub rejects_l: Option<f64>,
    /// What all of its heap should have given, litres.
    pub expected_l: Option<f64>,
    /// What all of its heap gave so far, with rejects, litres.
    pub heap_gave_l: f64,
    /// Whether its heap was emptied with it.
    pub is_last: bool,
    /// What it holds.
    pub holds: Vec<FigureTold>,
    /// What it should hold, as it is estimated, whatever was found.
    pub estimated: Vec<FigureTold>,
    /// Whether its heap was shown hot, as far as was recorded.
    pub shown_hot: bool,
    /// Whether it was ready, as far as was recorded.
    pub was_ready: bool,
    /// Where it went, newest first.
    pub uses: Vec<UseTold>,
    /// What spoiled, was given away or counted anew, newest first.
    pub changes: Vec<CompostChange>,
    /// What laboratories found, newest first.
    pub results: Vec<LabTold>,
}

closed_list! {
    /// What happened to compost that lies there.
    CompostAct {
        /// It was measured anew: so much is there.
        Counted = "counted",
        /// Some spoiled, or dried to dust.
        Spoiled = "spoiled",
        /// Some was given away or sold.
        Given = "given",
    }
}

/// A change of how much there is.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CompostChange {
    /// Its entry.
    pub id: EntryId,
    /// When, RFC 3339.
    pub at: String,
    /// What.
    pub kind: CompostAct,
    /// How much, litres.
    pub litres: f64,
    /// The person's words.
    pub note: Option<String>,
}

/// Something that happened to compost that lies there.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CompostActRequest {
    /// Its id, if whoever writes it gives one; sent twice it is written once.
    #[serde(default)]
    pub entry: Option<EntryId>,
    /// What.
    pub kind: CompostAct,
    /// How much.
    pub amount: Amount,
    /// The person's words.
    #[serde(default)]
    pub note: Option<String>,
}

/// The compost of a site, taken out last first.
///
/// # Errors
/// There is no such site.
pub fn list(tx: &Transaction<'_>, id: SiteId) -> Result<Vec<CompostTold>, Faults> {
    site::get(tx.conn, id)?;
    let lookup = Lookup::new(tx);
    compost::of_site(tx.conn, id)?.into_iter().map(|of| shown(&lookup, of.id)).collect()
}

/// One.
///
/// # Errors
/// There is none.
pub fn get(tx: &Transaction<'_>, id: CompostId) -> Result<CompostTold, Faults> {
    shown(&Lookup::new(tx), id)
}

/// Some compost, as it is told.
pub(super) fn shown(lookup: &Lookup<'_, '_>, id: CompostId) -> Result<CompostTold, Faults> {
    let (tx, held) = (lookup.tx, lookup.of(id)?);
    let of = held.of.clone();
    let mut uses = Vec::new();
    for went in compost::went_from(tx.conn, of.id)? {
        uses.push(used::told(lookup, went)?);
    }
    uses.reverse();
    let results = compost::results(tx.conn, About::Compost(of.id))?;
    Ok(CompostTold {
        id: of.id,
        version: of.version,
        heap: of.heap,
        heap_name: heap::row(tx.conn, of.heap).ok().map(|row| row.name),
        harvested_at: at_text(of.harvested_ms),
        age_days: (tx.now.as_millisecond() - of.harvested_ms) as f64 / 86_400_000.0,
        taken_l: of.taken_l,
        litres: of.litres,
        kg: of.litres * of.density_kg_l,
        density_kg_l: of.density_kg_l,
        mesh_mm: of.mesh_mm,
        rejects_lot: of.rejects.map(|(lot, _)| lot),
        rejects_l: of.rejects.map(|(_, litres)| litres),
        expected_l: of.expected_l,
        heap_gave_l: compost::of_heap(tx.conn, of.heap)?.iter().map(all_of).sum(),
        is_last: of.is_last,
        holds: held.holds.clone(),
        estimated: held.estimated.clone(),
        shown_hot: held.shown.hot,
        was_ready: held.shown.ready,
        uses,
        changes: changes(tx, of.id)?,
        results: results.into_iter().map(LabTold::new).collect(),
        name: of.name,
    })
}

fn changes(tx: &Transaction<'_>, id: CompostId) -> Result<Vec<CompostChange>, Faults> {
    let entries = log::those_that_stand(log::of(tx.conn, About::Compost(id))?);
    let change = |entry: log::Entry| {
        let (kind, litres, note) = match entry.body {
            Body::Counted(set) => (CompostAct::Counted, set.held.amount(), None),
            Body::Spoiled(of) => (CompostAct::Spoiled, -of.litres, of.note),
            Body::Used(of) => (CompostAct::Given, -of.litres, of.note),
            _ => return None,
        };
        Some(CompostChange { id: entry.id, at: at_text(entry.at_ms), kind, litres, note })
    };
    Ok(entries.into_iter().rev().filter_map(change).collect())
}

/// Writes down that compost was measured anew, spoiled or was given away.
///
/// # Errors
/// Every field that cannot be; more than there is; an id that is taken.
pub fn happened(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, request): (CompostId, CompostActRequest),
) -> Result<EntryId, Faults> {
    let of = compost::get(tx.conn, id)?;
    let mut found: Vec<Fault> = Vec::new();
    let at = At::ROOT.key("amount");
    let litres = request.amount.litres(&Known::of(tx, of.site)?, &at, of.density_kg_l, &mut found);
    let note = words::label("note", request.note.as_deref()).map_err(|fault| found.push(fault));
    let (Ok(note), true) = (note, found.is_empty()) else { return Err(Faults(found)) };
    let gone = || Moved {
        held: Held::Litres { amount: -litres },
        litres: -litres,
        kg: -litres * of.density_kg_l,
        on: None,
        note: note.clone(),
    };
    let body = match request.kind {
        CompostAct::Counted => {
            Body::Counted(Set { held: Held::Litres { amount: litres }, litres_each: None, gathered_on: None })
        }
        CompostAct::Spoiled => Body::Spoiled(gone()),
        CompostAct::Given => Body::Used(gone()),
    };
    if let Some(sent) = tx.was_sent(request.entry, About::Compost(id), |known| *known == body)? {
        return Ok(sent);
    }
    let is_more = request.kind != CompostAct::Counted && litres > of.litres * (1.0 + 1e-9);
    if is_more {
        return Err(at.key("amount").fault(FaultCode::NotEnough).with("left", of.litres.round()).into());
    }
    let writing = Writing { id: request.entry, ..Writing::now(of.site, About::Compost(id), body) };
    let (entry, _) = tx.write(who, writing)?;
    Ok(entry)
}
