//! The heat trace: what was read, what was expected, what was done, ready to be drawn.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::log::EntryKind;
use zymarch_core::tend::entry::{Spot, StickFeel, Tended};
use zymarch_core::tend::expected::band_c;
use zymarch_core::tend::heat::Hour;
use zymarch_core::tend::hygiene;
use zymarch_core::tend::reading::Faulty;
use zymarch_core::tend::thin::{Point, thin};
use zymarch_store::heap;
use zymarch_store::id::{EntryId, HeapId};
use zymarch_store::log::{Body, Entry};

use super::course::HOUR_MS;
use super::judge::{self, Judged};
use super::series::Series;
use super::{course, series};
use crate::Transaction;
use crate::transaction::at_text;

/// What is asked of a trace.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Wanted {
    /// From when [ms]; the whole if neither is said.
    pub from_ms: Option<i64>,
    /// Until when [ms].
    pub to_ms: Option<i64>,
    /// How many columns the picture has.
    pub columns: usize,
}

/// The heat of a heap, to be drawn.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Trace {
    /// When it was built, RFC 3339; none while it is.
    pub built_at: Option<String>,
    /// The time now, milliseconds since 1970.
    pub now_ms: i64,
    /// Where the trace begins and ends, milliseconds since 1970: that of the whole heap.
    pub span_ms: [i64; 2],
    /// Where what is told here begins and ends.
    pub told_ms: [i64; 2],
    /// What was read, a line a place.
    pub lines: Vec<TraceLine>,
    /// What a stick felt like.
    pub sticks: Vec<TraceStick>,
    /// Readings that were marked as faulty, at most a hundred.
    pub faulty: Vec<TraceFaulty>,
    /// How many those are in all.
    pub faulty_count: usize,
    /// Hour by hour: milliseconds, coldest and hottest that is expected of the core.
    pub band: Vec<[f64; 3]>,
    /// The same from now on, if nothing is done.
    pub ahead: Vec<[f64; 3]>,
    /// The air: as it was read, or as its months are.
    pub air: Vec<[f64; 2]>,
    /// Whether the air was read.
    pub has_air: bool,
    /// What was done.
    pub events: Vec<TraceEvent>,
    /// When it was hot without a gap: from, to, hours.
    pub runs: Vec<TraceRun>,
    /// Whether some of what was read is made up.
    pub is_simulated: bool,
    /// Why nothing is expected of it, as the code of a fault; none if something is.
    pub not_expected: Option<String>,
}

/// What was read at a place.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TraceLine {
    /// Where.
    pub place: Spot,
    /// The points of the line.
    pub points: Vec<[f64; 2]>,
    /// How many readings it stands for.
    pub readings: usize,
}

/// What a stick felt like.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TraceStick {
    /// When, milliseconds since 1970.
    pub at_ms: i64,
    /// What.
    pub feel: StickFeel,
    /// Between which temperatures that is, °C.
    pub between_c: [f64; 2],
}

/// A reading that is used for nothing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TraceFaulty {
    /// When, milliseconds since 1970.
    pub at_ms: i64,
    /// Where.
    pub place: Spot,
    /// How warm it said, °C.
    pub temp_c: f64,
    /// Why.
    pub why: Faulty,
}

/// Something that was done.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TraceEvent {
    /// Its entry.
    pub id: EntryId,
    /// When, milliseconds since 1970.
    pub at_ms: i64,
    /// What.
    pub kind: EntryKind,
    /// How much: litres of water, mm of rain.
    pub amount: Option<f64>,
}

/// A time that it was hot without a gap.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TraceRun {
    /// Its first hot reading, milliseconds since 1970.
    pub from_ms: i64,
    /// Its last.
    pub to_ms: i64,
    /// Its span, hours.
    pub hours: f64,
}

/// Faulty readings that are told.
const MOST_FAULTY: usize = 100;
/// Columns of a picture at most.
const MOST_COLUMNS: usize = 2000;

/// The heat of a heap, to be drawn.
///
/// # Errors
/// There is none.
pub fn trace(tx: &Transaction<'_>, (id, wanted): (HeapId, Wanted)) -> Result<Trace, Faults> {
    let heap = heap::get(tx.conn, id)?;
    let series = series::of(tx, &heap)?;
    let course = course::of(tx, &heap, &series);
    let now_ms = tx.now.as_millisecond();
    let begun_ms = heap.stand.built_ms.unwrap_or(heap.row.begun_ms);
    let first_ms = series.good().next().map_or(begun_ms, |of| of.at_ms.min(begun_ms));
    let end_ms = course
        .as_ref()
        .ok()
        .and_then(|of| of.ahead.last().map(|hour| of.built_ms + i64::from(hour.hour) * HOUR_MS));
    let span_ms = [first_ms, end_ms.unwrap_or(now_ms).max(now_ms)];
    let told_ms = [wanted.from_ms.unwrap_or(span_ms[0]), wanted.to_ms.unwrap_or(span_ms[1])];
    let columns = wanted.columns.clamp(10, MOST_COLUMNS);
    let few = |points: &[Point]| within(points, told_ms, columns);
    let lines = lines(&series, &few);
    let (mut band, mut ahead, mut air) = (Vec::new(), Vec::new(), Vec::new());
    if let Ok(course) = &course {
        let (hours, to_come) = (course.hours.all(), course.ahead.all());
        band = bands(course.built_ms, &hours, told_ms, columns);
        ahead = bands(course.built_ms, &to_come, told_ms, columns);
        let all = hours.iter().chain(to_come.iter().skip(1));
        let at = |hour: &Hour| course.built_ms + i64::from(hour.hour) * HOUR_MS;
        air = few(&all.map(|hour| (at(hour), hour.air_c)).collect::<Vec<_>>());
    }
    let has_air = course.as_ref().is_ok_and(|course| course.has_air);
    let mut faulty = faulty(&series);
    let faulty_count = faulty.len();
    faulty.retain(|of| (told_ms[0]..=told_ms[1]).contains(&of.at_ms));
    faulty.truncate(MOST_FAULTY);
    let mut events: Vec<TraceEvent> = heap.entries.iter().filter_map(event).collect();
    events.retain(|of| (told_ms[0]..=told_ms[1]).contains(&of.at_ms));
    Ok(Trace {
        built_at: heap.stand.built_ms.map(at_text),
        now_ms,
        span_ms,
        told_ms,
        lines,
        sticks: heap.entries.iter().filter_map(stick).collect(),
        faulty,
        faulty_count,
        band,
        ahead,
        air,
        has_air,
        events,
        runs: judge::of(tx, &heap.row).map(|judged| runs(&judged)).unwrap_or_default(),
        is_simulated: series.is_simulated(),
        not_expected: course.err().and_then(|faults| faults.0.first().map(|of| of.code.as_str().to_owned())),
    })
}

/// The points of a time, and one before and after it, so that a line goes on to the edge.
fn within(points: &[Point], [from, to]: [i64; 2], columns: usize) -> Vec<[f64; 2]> {
    let first = points.partition_point(|point| point.0 < from).saturating_sub(1);
    let last = (points.partition_point(|point| point.0 <= to) + 1).min(points.len());
    thin(&points[first.min(last)..last], columns)
        .into_iter()
        .map(|(at, temp)| [at as f64, tenths(temp)])
        .collect()
}

fn tenths(temp: f64) -> f64 {
    (temp * 10.0).round() / 10.0
}

fn lines(series: &Series, few: &impl Fn(&[Point]) -> Vec<[f64; 2]>) -> Vec<TraceLine> {
    let line = |&place: &Spot| {
        let all: Vec<Point> = series.at(place).map(|of| (of.at_ms, of.temp_c)).collect();
        let is_drawn = !all.is_empty() && place != Spot::Air;
        is_drawn.then(|| TraceLine { place, points: few(&all), readings: all.len() })
    };
    Spot::ALL.iter().filter_map(line).collect()
}

/// Low and high of the core for each hour, or for each of so many columns.
fn bands(built_ms: i64, hours: &[Hour], [from, to]: [i64; 2], columns: usize) -> Vec<[f64; 3]> {
    let at = |hour: &Hour| built_ms + i64::from(hour.hour) * HOUR_MS;
    let first = hours.partition_point(|hour| at(hour) < from).saturating_sub(1);
    let last = (hours.partition_point(|hour| at(hour) <= to) + 1).min(hours.len());
    let shown = &hours[first.min(last)..last];
    let every = shown.len().div_ceil(columns).max(1);
    let each = shown.iter().enumerate().filter(|(nth, _)| nth % every == 0 || nth + 1 == shown.len());
    each.map(|(_, hour)| {
        let wide = band_c(f64::from(hour.hour));
        [at(hour) as f64, tenths(hour.temp_c[0] - wide), tenths(hour.temp_c[0] + wide)]
    })
    .collect()
}

fn faulty(series: &Series) -> Vec<TraceFaulty> {
    let all = series.readings.iter().zip(&series.faults);
    all.filter_map(|(of, why)| {
        let why = (*why)?;
        Some(TraceFaulty { at_ms: of.at_ms, place: of.place, temp_c: tenths(of.temp_c), why })
    })
    .collect()
}

fn event(entry: &Entry) -> Option<TraceEvent> {
    let of = |kind, amount| Some(TraceEvent { id: entry.id, at_ms: entry.at_ms, kind, amount });
    match &entry.body {
        Body::Tended(tending) => match &tending.what {
            Tended::Temperature { .. } | Tended::Stick { .. } => None,
            Tended::Water { litres, .. } => of(EntryKind::Water, Some(*litres)),
            Tended::Rain { mm, .. } => of(EntryKind::Rain, Some(*mm)),
            Tended::Height { height_cm } => of(EntryKind::Height, Some(*height_cm)),
            other => of(other.kind(), None),
        },
        _ => None,
    }
}

fn stick(entry: &Entry) -> Option<TraceStick> {
    match &entry.body {
        Body::Tended(tending) => match tending.what {
            Tended::Stick { feel } => {
                Some(TraceStick { at_ms: entry.at_ms, feel, between_c: feel.between_c() })
            }
            _ => None,
        },
        _ => None,
    }
}

/// When it was hot without a gap, by what the heap is held to; by the heat that kills seeds where it is held to
/// nothing.
fn runs(judged: &Judged) -> Vec<TraceRun> {
    let found = judged.held_to.first().map_or(&judged.seeds, |(_, found)| found);
    let told = |run: &hygiene::Run| TraceRun { from_ms: run.from_ms, to_ms: run.to_ms, hours: run.hours() };
    found.runs.iter().map(told).collect()
}
