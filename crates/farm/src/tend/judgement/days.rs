//! Recorded heat as a row of day cells.

use jiff::{Span, Timestamp};
use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::log::EntryKind;
use zymarch_core::tend::entry::Spot;
use zymarch_store::heap::Heap;

use crate::Transaction;
use crate::tend::course;
use crate::tend::judge::Judged;
use crate::tend::series::Series;
use crate::tend::strip::day_of;

/// A day of a heap.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HeatDayCell {
    /// The day, as 2026-03-14.
    pub on: String,
    /// The hottest good reading of the core, °C; none where none was read.
    pub hottest_c: Option<f64>,
    /// Whether it lies in a run of what the heap is held to first.
    pub in_run: bool,
    /// Whether it was turned.
    pub turned: bool,
}

/// Days of a row of cells at most: the last of them.
const MOST_DAYS: usize = 400;

/// Each day from the one it was built on until today, by the clock of the site.
pub(super) fn days(
    tx: &Transaction<'_>,
    (heap, series): (&Heap, &Series),
    judged: &Judged,
) -> Vec<HeatDayCell> {
    let first = day_of(tx, judged.built_ms);
    let last = day_of(tx, course::until_ms(tx, &heap.row));
    let count = first.until(last).map(|span| span.get_days().max(0) as usize + 1).unwrap_or(1);
    let skipped = count.saturating_sub(MOST_DAYS);
    let begin = first.saturating_add(Span::new().days(skipped as i64));
    let mut cells: Vec<HeatDayCell> = (0..count.min(MOST_DAYS))
        .map(|nth| HeatDayCell {
            on: begin.saturating_add(Span::new().days(nth as i64)).to_string(),
            hottest_c: None,
            in_run: false,
            turned: false,
        })
        .collect();
    let place = |ms: i64| -> Option<usize> {
        let nth = begin.until(day_of(tx, ms)).ok()?.get_days();
        usize::try_from(nth).ok().filter(|nth| *nth < cells.len())
    };
    let (mut turned, mut runs) = (Vec::new(), Vec::new());
    let hot = hottest(tx, series, place);
    let turns = heap.entries.iter().filter(|entry| entry.kind() == EntryKind::Turn);
    turned.extend(turns.filter_map(|entry| place(entry.at_ms)));
    let of = judged.held_to.first().map_or(&judged.seeds, |(_, found)| found);
    for run in of.runs.iter().filter(|run| run.hours() > 0.0) {
        runs.extend(place(run.from_ms).zip(place(run.to_ms)));
    }
    for (nth, temp) in hot {
        cells[nth].hottest_c = Some(temp);
    }
    for nth in turned {
        cells[nth].turned = true;
    }
    for (from, to) in runs {
        cells[from..=to].iter_mut().for_each(|cell| cell.in_run = true);
    }
    cells
}

/// The hottest that the core was read on each day that has a place. A day's end is looked up once, and not for
/// each of a hundred thousand readings.
fn hottest(tx: &Transaction<'_>, series: &Series, place: impl Fn(i64) -> Option<usize>) -> Vec<(usize, f64)> {
    let mut found: Vec<(usize, f64)> = Vec::new();
    let (mut ends_ms, mut nth) = (i64::MIN, None);
    for reading in series.at(Spot::Core) {
        if reading.at_ms >= ends_ms {
            nth = place(reading.at_ms);
            ends_ms = day_end_ms(tx, reading.at_ms);
        }
        let Some(nth) = nth else { continue };
        match found.last_mut().filter(|(of, _)| *of == nth) {
            Some((_, temp)) => *temp = temp.max(reading.temp_c),
            None => found.push((nth, reading.temp_c)),
        }
    }
    found
}

/// When the day of a moment ends, by the clock of the site.
fn day_end_ms(tx: &Transaction<'_>, ms: i64) -> i64 {
    let local = Timestamp::from_millisecond(ms).unwrap_or(tx.now).to_zoned(tx.zone.clone());
    local
        .tomorrow()
        .and_then(|next| next.start_of_day())
        .map_or(ms + 1, |end| end.timestamp().as_millisecond())
}
