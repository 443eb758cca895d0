//! A heap from plan to now: what happened in the order of time, and how it stands.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::log::EntryKind;
use zymarch_core::tend::entry::{Source, Spot, Tended};
use zymarch_core::tend::expected::band_c;
use zymarch_core::tend::now::Guess;
use zymarch_core::tend::reading::Faulty;
use zymarch_store::heap::{self, Heap};
use zymarch_store::id::{EntryId, HeapId};
use zymarch_store::log::{About, Body, Entry};
use zymarch_store::reading::{self, Pack};

use super::probe::{ProbeTold, StandsIn};
use super::series::Series;
use super::{course, probe, series};
use crate::Transaction;
use crate::build::heap::HeapListed;
use crate::people::person_of;
use crate::plan::BatchPart;
use crate::transaction::at_text;

/// A heap from plan to now.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TendedHeap {
    /// What a list tells of it.
    #[serde(flatten)]
    pub listed: HeapListed,
    /// Days since then.
    pub age_days: Option<f64>,
    /// What is left of it, by model and what was measured; none while nothing can be said.
    pub now: Option<HeapNow>,
    /// The newest reading of the core that can be used.
    pub newest: Option<NewestCore>,
    /// What happened, newest first.
    pub log: Vec<LogTold>,
    /// Its probes.
    pub probes: Vec<ProbeTold>,
}

/// A figure, and within what it lies nine times of ten.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct GuessTold {
    /// The likeliest.
    pub value: f64,
    /// Lowest.
    pub low: f64,
    /// Highest.
    pub high: f64,
    /// How many measurements it rests on; none if the model alone says so.
    pub measured: usize,
}

/// What is left of a heap.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HeapNow {
    /// Fresh mass, kg.
    pub wet_kg: GuessTold,
    /// Dry matter, kg.
    pub dry_kg: GuessTold,
    /// Water, % of fresh mass.
    pub moisture_pct: GuessTold,
    /// Carbon to nitrogen.
    pub c_n: GuessTold,
    /// Room, litres.
    pub volume_l: GuessTold,
    /// Room left of what was built, %.
    pub volume_left_pct: GuessTold,
    /// Between which temperatures the core is expected now, °C.
    pub expected_core_c: [f64; 2],
}

/// The newest reading of the core.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct NewestCore {
    /// When, RFC 3339.
    pub at: String,
    /// How warm, °C.
    pub temp_c: f64,
}

/// Something that happened.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LogTold {
    /// Its id.
    pub id: EntryId,
    /// When, RFC 3339.
    pub at: String,
    /// When it was written down, RFC 3339.
    pub recorded_at: String,
    /// What.
    pub kind: EntryKind,
    /// By whom, as they are called now; none where nobody signed in.
    pub by: Option<String>,
    /// On which device, as it calls itself; empty if it does not.
    pub device: String,
    /// The person's words.
    pub note: Option<String>,
    /// What was read, seen or done; none of build day and of readings by the thousand.
    pub what: Option<Tended<BatchPart>>,
    /// Of a layer: which, from 0.
    pub step: Option<u32>,
    /// Of readings that came together.
    pub pack: Option<PackTold>,
    /// Of a harvest: how much compost, litres.
    pub litres: Option<f64>,
    /// Of a temperature that is used for nothing: why.
    pub faulty: Option<Faulty>,
}

/// Readings that came together.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PackTold {
    /// Where they come from.
    pub source: Source,
    /// What the probe or the file is called.
    pub name: String,
    /// How many.
    pub readings: u32,
    /// The coldest and the hottest, °C.
    pub range_c: Option<[f64; 2]>,
}

fn told(of: Guess, times: f64) -> GuessTold {
    GuessTold { value: of.value * times, low: of.low * times, high: of.high * times, measured: of.measured }
}

/// A heap from plan to now.
///
/// # Errors
/// There is none.
pub fn get(tx: &Transaction<'_>, id: HeapId) -> Result<TendedHeap, Faults> {
    let heap = heap::get(tx.conn, id)?;
    let series = series::of(tx, &heap)?;
    let course = course::of(tx, &heap, &series).ok();
    let now = course.as_ref().and_then(|course| {
        let (now, last) = (course.now?, course.hours.last()?);
        let wide = band_c(f64::from(last.hour));
        Some(HeapNow {
            wet_kg: told(now.wet_kg, 1.0),
            dry_kg: told(now.dry_kg, 1.0),
            moisture_pct: told(now.moisture, 100.0),
            c_n: told(now.c_n, 1.0),
            volume_l: told(now.volume_m3, 1000.0),
            volume_left_pct: told(now.volume_left, 100.0),
            expected_core_c: [last.temp_c[0] - wide, last.temp_c[0] + wide],
        })
    });
    let newest = series.at(Spot::Core).last();
    let newest = newest.map(|of| NewestCore { at: at_text(of.at_ms), temp_c: of.temp_c });
    let log = log(tx, &heap, &series)?;
    let age_days = heap.stand.built_ms.map(|ms| (course::until_ms(tx, &heap.row) - ms) as f64 / 86_400_000.0);
    Ok(TendedHeap {
        age_days,
        now,
        newest,
        log,
        probes: probe::list(tx, StandsIn::Heap(id))?,
        listed: HeapListed::new(heap.row),
    })
}

/// What happened to a heap and stands, newest first.
fn log(tx: &Transaction<'_>, heap: &Heap, series: &Series) -> Result<Vec<LogTold>, Faults> {
    let packs = reading::packs(tx.conn, About::Heap(heap.row.id))?;
    heap.entries
        .iter()
        .rev()
        .filter(|entry| !matches!(entry.body, Body::Undone | Body::Removed))
        .map(|entry| one(tx, entry, &packs, series))
        .collect()
}

fn one(tx: &Transaction<'_>, entry: &Entry, packs: &[Pack], series: &Series) -> Result<LogTold, Faults> {
    let (mut note, mut what, mut step, mut pack, mut litres) = (None, None, None, None, None);
    match &entry.body {
        Body::Tended(of) => {
            note = of.note.clone();
            let shown = |items: Vec<_>| Ok::<_, Faults>(items.into_iter().map(BatchPart::from).collect());
            what = Some(of.what.clone().with_items(shown)?);
        }
        Body::Laid(of) => step = Some(of.at),
        Body::Harvested(of) => litres = Some(of.litres),
        Body::Readings(of) => {
            let held = packs.iter().find(|pack| pack.entry == entry.id);
            pack = Some(PackTold {
                source: of.source,
                name: of.name.clone(),
                readings: held.map_or(0, |held| held.readings),
                range_c: held.and_then(|held| held.range_c),
            });
        }
        _ => {}
    }
    Ok(LogTold {
        id: entry.id,
        at: at_text(entry.at_ms),
        recorded_at: at_text(entry.recorded_ms),
        kind: entry.kind(),
        by: person_of(tx, &entry.person)?,
        device: entry.device.clone(),
        note,
        faulty: what.as_ref().and_then(|what| faulty(entry.at_ms, what, series)),
        what,
        step,
        pack,
        litres,
    })
}

fn faulty(at_ms: i64, what: &Tended<BatchPart>, series: &Series) -> Option<Faulty> {
    let Tended::Temperature { temp_c, place, .. } = what else { return None };
    let first = series.readings.partition_point(|of| of.at_ms < at_ms);
    let same = series.readings[first..].iter().zip(&series.faults[first..]);
    let mut same = same.take_while(|(of, _)| of.at_ms == at_ms);
    same.find(|(of, _)| of.source == 0 && of.place == *place && of.temp_c == *temp_c)?.1.to_owned()
}
