//! A logger's file taken in: shown first, then written down as one entry; what is there already stays once.

use std::collections::HashSet;

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::tend::entry::{ReadBy, Source, Spot, Tended};
use zymarch_core::tend::reading::{Reading, faulty};
use zymarch_core::tend::thin::{Point, thin};
use zymarch_formats::fault::FaultAnswer;
use zymarch_formats::log_table::{self, LogRow};
use zymarch_formats::logger::{LoggerColumn, LoggerColumns, LoggerFile};
use zymarch_store::heap::{self, Heap};
use zymarch_store::id::{EntryId, HeapId};
use zymarch_store::log::{self, About, Body, Readings, Tending};
use zymarch_store::reading;

use super::entry::checked_time;
use super::series;
use crate::transaction::Writing;
use crate::{Transaction, Who, words};

/// A file of a logger.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LoggerRequest {
    /// The id of the entry, if whoever takes it in gives one; sent twice it is taken in once.
    #[serde(default)]
    pub entry: Option<EntryId>,
    /// What the file is called.
    pub name: String,
    /// All of it.
    pub text: String,
    /// Which column is what; guessed if left out.
    #[serde(default)]
    pub columns: Option<LoggerColumns>,
    /// The zone by whose clock a logger probably went, where the file does not tell.
    #[serde(default)]
    pub zone: Option<String>,
}

/// What a file holds, before it is taken in.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LoggerSeen {
    /// Its columns; none of a log of this program, whose columns are known.
    pub columns: Vec<LoggerColumn>,
    /// Which column is what, as it is read here; none of a log of this program.
    pub read_as: Option<LoggerColumns>,
    /// Rows of data.
    pub rows: usize,
    /// Readings and other entries that would be new.
    pub new: usize,
    /// Those that are there already.
    pub known: usize,
    /// Readings that would be kept and used for nothing, since they cannot be.
    pub faulty: usize,
    /// Rows in which something cannot be read.
    pub bad_rows: usize,
    /// What cannot, each with its line and column; at most fifty.
    pub bad: Vec<FaultAnswer>,
    /// From when to when, RFC 3339.
    pub span: Option<[String; 2]>,
    /// Lines to draw, one a place.
    pub lines: Vec<LoggerLine>,
}

/// What a file holds of a place.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LoggerLine {
    /// Where.
    pub place: Spot,
    /// Milliseconds since 1970, and °C.
    pub points: Vec<[f64; 2]>,
}

/// What became of a file.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct LoggerTaken {
    /// The entry of its readings, by which they can be taken out again; none if none was new.
    pub entry: Option<EntryId>,
    /// What was new.
    pub new: usize,
    /// What was there already.
    pub known: usize,
    /// Rows in which something could not be read.
    pub bad_rows: usize,
}

/// Columns of the drawing.
const DRAWN: usize = 300;
/// Bad cells that are told.
const MOST_TOLD: usize = 50;

/// Entries of a log that are taken in at once; temperatures of probes are not among them.
const MOST_OTHERS: usize = 20_000;

/// A file, taken apart.
struct Taken {
    columns: Vec<LoggerColumn>,
    read_as: Option<LoggerColumns>,
    rows: usize,
    bad_rows: usize,
    bad: Vec<Fault>,
    /// What was read by something, to go into one pack.
    readings: Vec<reading::Point>,
    /// What else was written down, an entry each.
    others: Vec<(usize, LogRow)>,
}

fn taken(of: &LoggerRequest) -> Result<Taken, Faults> {
    if log_table::is_one(&of.text) {
        return log(&of.text);
    }
    let file = LoggerFile::read(&of.text)?;
    let zone = of.zone.as_deref().unwrap_or("UTC");
    let columns = of.columns.clone().unwrap_or_else(|| file.guessed(zone));
    // Where nothing looks like a temperature, a person has to say which column is one.
    if of.columns.is_none() && columns.temps.is_empty() {
        let (columns, read_as) = (file.columns(), Some(columns));
        let (bad, readings, others) = (Vec::new(), Vec::new(), Vec::new());
        return Ok(Taken { columns, read_as, rows: file.rows(), bad_rows: 0, bad, readings, others });
    }
    let read = file.told(&columns)?;
    let point = |of: &zymarch_formats::logger::LoggerReading| reading::Point {
        at_ms: of.at_ms,
        place: of.place,
        depth_cm: of.depth_cm,
        temp_c: of.temp_c,
    };
    Ok(Taken {
        columns: file.columns(),
        read_as: Some(columns),
        rows: read.rows,
        bad_rows: read.bad_rows,
        bad: read.bad,
        readings: read.readings.iter().map(point).collect(),
        others: Vec::new(),
    })
}

/// A log as it was exported: what probes read goes into a pack, the rest is an entry each.
fn log(text: &str) -> Result<Taken, Faults> {
    let table = log_table::read(text)?;
    let (mut readings, mut others) = (Vec::new(), Vec::new());
    let rows = table.rows.len() + table.bad.len();
    for (line, row) in table.rows {
        match row.what {
            Tended::Temperature { temp_c, place, depth_cm, by: ReadBy::Probe } => {
                readings.push(reading::Point { at_ms: row.at.as_millisecond(), place, depth_cm, temp_c });
            }
            _ => others.push((line, row)),
        }
    }
    At::ROOT.key("text").holds(others.len(), MOST_OTHERS)?;
    let (bad_rows, bad) = (table.bad.len(), table.bad);
    Ok(Taken { columns: Vec::new(), read_as: None, rows, bad_rows, bad, readings, others })
}

/// A file of a heap, taken apart: what cannot have happened to it is named by its line like what cannot be read.
fn taken_of(tx: &Transaction<'_>, heap: &Heap, of: &LoggerRequest) -> Result<Taken, Faults> {
    let mut taken = taken(of)?;
    let mut others = Vec::with_capacity(taken.others.len());
    for (line, row) in std::mem::take(&mut taken.others) {
        match checked_time(tx, &heap.row, row.at) {
            Ok(at) => others.push((line, LogRow { at, ..row })),
            Err(fault) => {
                taken.bad.push(Fault { line: Some(line), ..At::ROOT.key("time").put(fault) });
                taken.bad_rows += 1;
            }
        }
    }
    taken.others = others;
    taken.bad.sort_by_key(|fault| fault.line);
    taken.bad.truncate(MOST_TOLD);
    Ok(taken)
}

type Key = (i64, Spot, Option<u64>, i64);

fn key(at_ms: i64, place: Spot, depth_cm: Option<f64>, temp_c: f64) -> Key {
    (at_ms, place, depth_cm.map(f64::to_bits), (temp_c * 100.0).round() as i64)
}

/// Takes out of a file what is there already; how much that was.
fn only_new(tx: &Transaction<'_>, heap: &Heap, taken: &mut Taken) -> Result<usize, Faults> {
    let series = series::of(tx, heap)?;
    let there: HashSet<Key> =
        series.readings.iter().map(|of| key(of.at_ms, of.place, of.depth_cm, of.temp_c)).collect();
    let before = taken.readings.len() + taken.others.len();
    taken.readings.retain(|of| !there.contains(&key(of.at_ms, of.place, of.depth_cm, of.temp_c)));
    let said: HashSet<(i64, String)> = heap
        .entries
        .iter()
        .filter_map(|entry| match &entry.body {
            Body::Tended(of) => Some((entry.at_ms, bare(&of.what))),
            _ => None,
        })
        .collect();
    taken.others.retain(|(_, row)| !said.contains(&(row.at.as_millisecond(), bare(&row.what))));
    Ok(before - taken.readings.len() - taken.others.len())
}

/// What happened in words that can be compared, without what was put in.
fn bare<I: Clone>(what: &Tended<I>) -> String {
    let Ok(bare) = what.clone().with_items(|_| Ok::<Vec<()>, std::convert::Infallible>(Vec::new()));
    serde_json::to_string(&bare).unwrap_or_default()
}

/// What a file holds, before it is taken in.
///
/// # Errors
/// It is none of a logger; columns that are not there.
pub fn look(tx: &Transaction<'_>, (id, of): (HeapId, &LoggerRequest)) -> Result<LoggerSeen, Faults> {
    let heap = heap::get(tx.conn, id)?;
    let mut taken = taken_of(tx, &heap, of)?;
    let mut all: Vec<Reading> = taken
        .readings
        .iter()
        .map(|of| Reading {
            at_ms: of.at_ms,
            recorded_ms: tx.now.as_millisecond(),
            place: of.place,
            depth_cm: of.depth_cm,
            temp_c: of.temp_c,
            by: ReadBy::Probe,
            source: 1,
        })
        .collect();
    all.sort_by_key(|of| of.at_ms);
    let marks = faulty(&all, heap.row.begun_ms);
    let known = only_new(tx, &heap, &mut taken)?;
    let line = |&place: &Spot| {
        let good = all.iter().zip(&marks).filter(|(of, mark)| of.place == place && mark.is_none());
        let points: Vec<Point> = good.map(|(of, _)| (of.at_ms, of.temp_c)).collect();
        (!points.is_empty()).then(|| LoggerLine {
            place,
            points: thin(&points, DRAWN).into_iter().map(|(at, temp)| [at as f64, temp]).collect(),
        })
    };
    let span = all
        .first()
        .zip(all.last())
        .map(|(first, last)| [first.at_ms, last.at_ms].map(crate::transaction::at_text));
    Ok(LoggerSeen {
        columns: taken.columns,
        read_as: taken.read_as,
        rows: taken.rows,
        new: taken.readings.len() + taken.others.len(),
        known,
        faulty: marks.iter().flatten().count(),
        bad_rows: taken.bad_rows,
        bad: taken.bad.iter().map(FaultAnswer::from).collect(),
        span,
        lines: Spot::ALL.iter().filter_map(line).collect(),
    })
}

/// Takes a file in: all of its readings as one entry, by which they can be taken out again.
///
/// # Errors
/// As [`look`]; another entry of that id.
pub fn import(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, of): (HeapId, LoggerRequest),
) -> Result<LoggerTaken, Faults> {
    let heap = heap::get(tx.conn, id)?;
    let name = words::name("name", &of.name)?;
    let mut taken = taken_of(tx, &heap, &of)?;
    if let Some(entry) = of.entry
        && let Some(known) = log::get(tx.conn, entry)?
    {
        let is_same = known.about == About::Heap(id) && matches!(known.body, Body::Readings(_));
        let all = taken.readings.len() + taken.others.len();
        let again = LoggerTaken { entry: Some(entry), new: 0, known: all, bad_rows: taken.bad_rows };
        return if is_same { Ok(again) } else { Err(Faults::one("entry", FaultCode::EntryTaken)) };
    }
    let known = only_new(tx, &heap, &mut taken)?;
    let new = taken.readings.len() + taken.others.len();
    let mut entry = None;
    if !taken.readings.is_empty() {
        taken.readings.sort_by_key(|of| of.at_ms);
        let first_ms = taken.readings[0].at_ms;
        let at = Timestamp::from_millisecond(first_ms).unwrap_or(tx.now).min(tx.now);
        let body = Body::Readings(Readings { source: Source::File, name, probe: None });
        let writing =
            Writing { id: of.entry, at: Some(at), ..Writing::now(heap.row.site, About::Heap(id), body) };
        let (written, _) = tx.write(who, writing)?;
        let day = first_ms.div_euclid(86_400_000);
        let pack = reading::open(tx.conn, written, About::Heap(id), (None, day))?;
        reading::add(tx.conn, pack, tx.now.as_millisecond(), &taken.readings)?;
        entry = Some(written);
    }
    let mut others = Vec::with_capacity(taken.others.len());
    for (_, row) in taken.others {
        let at = Some(row.at);
        let what = row.what.with_items(|_| Ok::<_, Faults>(Vec::new()))?;
        let body = Body::Tended(Box::new(Tending { what, note: row.note }));
        others.push(Writing { at, ..Writing::now(heap.row.site, About::Heap(id), body) });
    }
    tx.write_all(who, others)?;
    Ok(LoggerTaken { entry, new, known, bad_rows: taken.bad_rows })
}
