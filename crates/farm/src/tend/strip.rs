//! Heat strips: of each heap how hot each day was, for a list of them.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::log::EntryKind;
use zymarch_core::tend::entry::{Spot, StickFeel, Tended};
use zymarch_store::heap::{self, Heap};
use zymarch_store::id::{HeapId, SiteId};
use zymarch_store::log::{Body, Entry};
use zymarch_store::site;

use super::{course, series};
use crate::Transaction;
use crate::transaction::at_text;

/// A heap as a strip of days.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HeapStrip {
    /// The heap.
    pub id: HeapId,
    /// When its last layer was laid, RFC 3339.
    pub built_at: String,
    /// Days since then.
    pub age_days: f64,
    /// Of each day since then the hottest reading of the core, °C; null where none was read.
    pub days: Vec<Option<f64>>,
    /// Days on which it was turned, from 0.
    pub turned: Vec<u32>,
    /// What was found last: the newest reading or stick.
    pub last: Option<LastFound>,
    /// Whether some of it is made up.
    pub is_simulated: bool,
}

/// What was found at a heap last.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LastFound {
    /// When, RFC 3339.
    pub at: String,
    /// How warm, °C, if it was read.
    pub temp_c: Option<f64>,
    /// What a stick felt like, if it was felt.
    pub feel: Option<StickFeel>,
}

const DAY_MS: i64 = 86_400_000;
/// Days of a strip at most: the last of them.
const MOST_DAYS: i64 = 730;

/// The heaps of a site that are built, as strips.
///
/// # Errors
/// There is no such site.
pub fn strips(tx: &Transaction<'_>, site: SiteId) -> Result<Vec<HeapStrip>, Faults> {
    site::get(tx.conn, site)?;
    let mut strips = Vec::new();
    for row in heap::of_site(tx.conn, site)? {
        if row.laid == 0 {
            continue;
        }
        let heap = heap::get(tx.conn, row.id)?;
        strips.extend(strip(tx, &heap)?);
    }
    Ok(strips)
}

fn strip(tx: &Transaction<'_>, heap: &Heap) -> Result<Option<HeapStrip>, Faults> {
    let Some(built_ms) = heap.stand.built_ms else { return Ok(None) };
    let series = series::of(tx, heap)?;
    let now_ms = course::until_ms(tx, &heap.row);
    let day = |ms: i64| (ms - built_ms).div_euclid(DAY_MS);
    let count = (day(now_ms) + 1).clamp(1, MOST_DAYS) as usize;
    let mut days: Vec<Option<f64>> = vec![None; count];
    for reading in series.at(Spot::Core) {
        let place = usize::try_from(day(reading.at_ms)).ok().and_then(|place| days.get_mut(place));
        if let Some(hottest) = place {
            *hottest = Some(hottest.map_or(reading.temp_c, |before| before.max(reading.temp_c)));
        }
    }
    let read = series.at(Spot::Core).last().map(|of| (of.at_ms, Some(of.temp_c), None));
    let felt = heap.entries.iter().rev().find_map(felt).map(|(at_ms, feel)| (at_ms, None, Some(feel)));
    let last = [read, felt].into_iter().flatten().max_by_key(|(at_ms, ..)| *at_ms);
    let turns = heap.entries.iter().filter(|entry| entry.kind() == EntryKind::Turn);
    Ok(Some(HeapStrip {
        id: heap.row.id,
        built_at: at_text(built_ms),
        age_days: (now_ms - built_ms) as f64 / DAY_MS as f64,
        days,
        turned: turns.filter_map(|entry| u32::try_from(day(entry.at_ms)).ok()).collect(),
        last: last.map(|(at_ms, temp_c, feel)| LastFound { at: at_text(at_ms), temp_c, feel }),
        is_simulated: series.is_simulated(),
    }))
}

/// The day of a time, by the clock of the site.
pub(crate) fn day_of(tx: &Transaction<'_>, ms: i64) -> jiff::civil::Date {
    jiff::Timestamp::from_millisecond(ms).unwrap_or(tx.now).to_zoned(tx.zone.clone()).date()
}

fn felt(entry: &Entry) -> Option<(i64, StickFeel)> {
    match &entry.body {
        Body::Tended(of) => match of.what {
            Tended::Stick { feel } => Some((entry.at_ms, feel)),
            _ => None,
        },
        _ => None,
    }
}
