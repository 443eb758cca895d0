//! Heaps and how far they have come.

use std::sync::Arc;

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::build::{progress, rest};
use zymarch_core::log::EntryKind;
use zymarch_core::mix::MixFigures;
use zymarch_core::mix::window::Windows;
use zymarch_core::plan::heap::{Filled, Shape, size_in};
use zymarch_core::plan::layers::vents;
use zymarch_core::plan::method::{Method, Vent};
use zymarch_formats::build::{BuildState, Outlook};
use zymarch_formats::layers::HeapShape;
use zymarch_store::heap::{self, HeapRow};
use zymarch_store::id::{BatchId, EntryId, HeapId, SiteId};
use zymarch_store::log::{Body, Entry};
use zymarch_store::{site, stamp};

use super::standing::{self, Standing};
use crate::Transaction;
use crate::people::person_of;
use crate::plan::BatchPart;
use crate::transaction::at_text;

/// A heap, as a list of them tells it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HeapListed {
    /// Its id.
    pub id: HeapId,
    /// The entry written down last; what is done next is done after it.
    pub head: EntryId,
    /// The batch it is built of, if it is still there.
    pub batch_id: Option<BatchId>,
    /// What it is called.
    pub name: String,
    /// The method.
    pub method: Option<String>,
    /// When it was begun, RFC 3339.
    pub begun_at: String,
    /// When something was last done, RFC 3339.
    pub changed_at: String,
    /// When what went in was taken from stock, if it was.
    pub taken_at: Option<String>,
    /// Steps laid.
    pub laid: u32,
    /// Steps planned, those laid among them.
    pub planned: u32,
    /// When its last layer was laid, RFC 3339.
    pub built_at: Option<String>,
    /// How high it stood then, cm; told once it is built.
    pub height_cm: Option<f64>,
    /// When all of it was taken out as compost, RFC 3339; none while some is left.
    pub emptied_at: Option<String>,
}

/// A heap and how far it has come.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Heap {
    /// What a list tells of it.
    #[serde(flatten)]
    pub listed: HeapListed,
    /// Its shape.
    pub heap: HeapShape,
    /// Whether the last thing done can be undone.
    pub can_undo: bool,
    /// What goes in, with what was planned of it; what nobody planned has an amount of zero.
    pub items: Vec<BatchPart>,
    /// How far it has come.
    pub build: BuildState,
    /// What was done, by whom, last on top.
    pub done: Vec<HeapDone>,
}

/// Something that was done to a heap.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HeapDone {
    /// What.
    pub kind: EntryKind,
    /// Which step, from 0, where one was laid.
    pub step: Option<u32>,
    /// When, RFC 3339.
    pub at: String,
    /// By whom, as they are called now; none where nobody signed in.
    pub by: Option<String>,
    /// On which device, as it calls itself; empty if it does not.
    pub device: String,
}

/// What was done to a heap and stands, last on top.
fn done(tx: &Transaction<'_>, entries: Vec<Entry>) -> Result<Vec<HeapDone>, Faults> {
    let told = |entry: Entry| {
        let step = if let Body::Laid(laid) = &entry.body { Some(laid.at) } else { None };
        let (at, by) = (at_text(entry.at_ms), person_of(tx, &entry.person)?);
        Ok(HeapDone { kind: entry.kind(), step, at, by, device: entry.device })
    };
    entries.into_iter().rev().map(told).collect()
}

impl HeapListed {
    pub(crate) fn new(row: HeapRow) -> Self {
        Self {
            id: row.id,
            head: row.head,
            batch_id: row.batch,
            name: row.name,
            method: row.method,
            begun_at: at_text(row.begun_ms),
            changed_at: at_text(row.changed_ms),
            taken_at: row.taken_ms.map(at_text),
            laid: row.laid,
            planned: row.planned,
            built_at: row.built_ms.map(at_text),
            height_cm: None,
            emptied_at: row.emptied_ms.map(at_text),
        }
    }
}

/// The heaps of a site, last changed first.
///
/// # Errors
/// There is no such site.
pub fn list(tx: &Transaction<'_>, site: SiteId) -> Result<Arc<Vec<HeapListed>>, Faults> {
    site::get(tx.conn, site)?;
    let listed = |row: HeapRow| {
        let is_built = row.laid > 0 && row.laid == row.planned;
        let height_cm = if is_built {
            let heap = heap::as_built(tx.conn, row.clone())?;
            Some(standing::height_cm(tx, &heap, shape(&heap)?)?)
        } else {
            None
        };
        Ok(HeapListed { height_cm, ..HeapListed::new(row) })
    };
    // What was built stands as high as what went in makes it, and that leans on the lots it came from.
    let stamps = [stamp::of_heaps(tx.conn)?, stamp::of_stock(tx.conn)?];
    let all = || heap::of_site(tx.conn, site)?.into_iter().map(listed).collect();
    tx.kept.heaps.of(tx, stamps, site, all)
}

/// One heap: what was laid, what is to come, and where it leads.
///
/// # Errors
/// There is none.
pub fn get(tx: &Transaction<'_>, id: HeapId) -> Result<Heap, Faults> {
    shown(tx, heap::get(tx.conn, id)?)
}

/// A heap as it is told.
pub(super) fn shown(tx: &Transaction<'_>, heap: heap::Heap) -> Result<Heap, Faults> {
    let standing = standing::of(tx, &heap)?;
    let shape = shape(&heap)?;
    let method = standing::method(tx, &heap);
    let build = BuildState::new(&outlook(&standing, shape, method));
    let is_built = !standing.stand.laid.is_empty() && standing.stand.rest().is_empty();
    let height_cm = is_built.then_some(build.height_cm);
    Ok(Heap {
        heap: shape.into(),
        can_undo: heap.last_act.is_some(),
        items: heap.stand.items.into_iter().map(BatchPart::from).collect(),
        build,
        done: done(tx, heap.entries)?,
        listed: HeapListed { height_cm, ..HeapListed::new(heap.row) },
    })
}

/// The shape a heap was begun in; its sides were checked before they were kept.
pub(crate) fn shape(heap: &heap::Heap) -> Result<Shape, Faults> {
    let broken = || Fault::new(FaultCode::Broken).with("why", "heap shape");
    Ok(heap.stand.begun.shape.shape().ok_or_else(broken)?)
}

/// Windows a heap is to end in: those of its method.
pub(super) fn windows(method: Option<&Method>) -> Windows {
    method.map_or_else(Windows::default, Method::windows)
}

fn outlook<'s>(of: &'s Standing, shape: Shape, method: Option<&Method>) -> Outlook<'s> {
    let Standing { stand, first, supplies, unit_kg } = of;
    let windows = windows(method);
    let got = progress(supplies, &stand.laid, stand.rest(), shape, &windows);
    let as_planned = progress(supplies, &[], first, shape, &windows).at_end;
    let anew = if got.is_off() {
        rest::ways(supplies, &stand.laid, stand.rest(), (shape, method), &windows)
    } else {
        Vec::new()
    };
    let vent = method.map_or(Vent::None, |method| method.vent);
    let vents = vents(vent, shape, method);
    let litres = |mix: fn(&MixFigures) -> f64| got.at_end.as_ref().map_or(0.0, mix);
    let size = size_in(&Filled {
        shape,
        heap_volume_l: litres(|mix| mix.heap_volume_l),
        loose_l: litres(|mix| mix.volume_l),
        beside_l: stand.laid.iter().chain(stand.rest()).map(|step| step.beside_l).sum(),
        method,
    });
    Outlook { stand, supplies, unit_kg, progress: got, as_planned, anew, windows, shape, size, vent, vents }
}
