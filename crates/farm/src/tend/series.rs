//! All temperatures of a heap, in the order of time, each with whether it can be used; kept for as long as
//! nothing comes to them.

use std::sync::{Arc, Mutex};

use zymarch_core::base::fault::Faults;
use zymarch_core::tend::entry::{Source, Spot, Tended};
use zymarch_core::tend::reading::{Faulty, Reading, faulty};
use zymarch_store::heap::Heap;
use zymarch_store::id::{EntryId, HeapId};
use zymarch_store::log::{About, Body, Entry};
use zymarch_store::reading;

use crate::Transaction;

/// All temperatures of a heap.
#[derive(Debug, PartialEq)]
pub(crate) struct Series {
    /// In the order of time.
    pub(crate) readings: Vec<Reading>,
    /// Why each cannot be used, if it cannot.
    pub(crate) faults: Vec<Option<Faulty>>,
    /// Where they come from: by hand first, then what was sent.
    pub(crate) sources: Vec<Source>,
}

impl Series {
    /// The readings that can be used.
    pub(crate) fn good(&self) -> impl Iterator<Item = &Reading> {
        self.readings.iter().zip(&self.faults).filter(|(_, fault)| fault.is_none()).map(|(of, _)| of)
    }

    /// Those of a place.
    pub(crate) fn at(&self, place: Spot) -> impl Iterator<Item = &Reading> {
        self.good().filter(move |reading| reading.place == place)
    }

    /// Whether some are made up.
    pub(crate) fn is_simulated(&self) -> bool {
        self.sources.contains(&Source::Simulated)
    }
}

/// Series as they were read last.
#[derive(Debug, Default)]
pub(crate) struct KeptSeries(Mutex<Vec<Seen>>);

/// A series, and of which state of the records.
#[derive(Debug)]
struct Seen {
    heap: HeapId,
    state: (EntryId, i64),
    series: Arc<Series>,
}

/// Series kept at the same time.
const MOST_KEPT: usize = 40;
/// Readings kept at the same time, of all of them.
const MOST_READINGS: usize = 120_000;

/// All temperatures of a heap.
///
/// # Errors
/// The records cannot be read.
pub(crate) fn of(tx: &Transaction<'_>, heap: &Heap) -> Result<Arc<Series>, Faults> {
    let state = (heap.row.head, reading::stamp(tx.conn, About::Heap(heap.row.id))?);
    let id = heap.row.id;
    if let Ok(kept) = tx.kept.series.0.lock()
        && let Some(seen) = kept.iter().find(|seen| seen.heap == id && seen.state == state)
    {
        return Ok(Arc::clone(&seen.series));
    }
    let series = Arc::new(read(tx, heap)?);
    if tx.only_reads
        && let Ok(mut kept) = tx.kept.series.0.lock()
    {
        kept.retain(|seen| seen.heap != id);
        kept.push(Seen { heap: id, state, series: Arc::clone(&series) });
        let mut held: usize = kept.iter().map(|seen| seen.series.readings.len()).sum();
        while kept.len() > MOST_KEPT || (held > MOST_READINGS && kept.len() > 1) {
            held -= kept.remove(0).series.readings.len();
        }
    }
    Ok(series)
}

fn read(tx: &Transaction<'_>, heap: &Heap) -> Result<Series, Faults> {
    let (mut readings, sources) = of_entries(tx, About::Heap(heap.row.id), &heap.entries)?;
    readings.sort_by_key(|reading| reading.at_ms);
    let faults = faulty(&readings, heap.row.begun_ms);
    Ok(Series { readings, faults, sources })
}

/// The temperatures of entries that stand, and where those of each source come from.
pub(super) fn of_entries(
    tx: &Transaction<'_>,
    about: About,
    entries: &[Entry],
) -> Result<(Vec<Reading>, Vec<Source>), Faults> {
    let packs = reading::packs(tx.conn, about)?;
    let mut sources = vec![Source::Probe];
    let mut probes = vec![None];
    let mut readings = Vec::new();
    for entry in entries {
        match &entry.body {
            Body::Tended(of) => {
                if let Tended::Temperature { temp_c, place, depth_cm, by } = of.what {
                    let (at_ms, recorded_ms) = (entry.at_ms, entry.recorded_ms.max(entry.at_ms));
                    readings.push(Reading { at_ms, recorded_ms, place, depth_cm, temp_c, by, source: 0 });
                }
            }
            Body::Readings(of) => {
                let Some(pack) = packs.iter().find(|pack| pack.entry == entry.id) else { continue };
                // A probe's days are of one source: what is stuck is stuck over midnight.
                let known = probes.iter().position(|probe| probe.is_some() && *probe == of.probe);
                let source = known.unwrap_or_else(|| {
                    sources.push(of.source);
                    probes.push(of.probe);
                    sources.len() - 1
                });
                readings.extend(reading::of_pack(tx.conn, pack.id, source as u32)?);
            }
            _ => {}
        }
    }
    Ok((readings, sources))
}
