//! Today: heap by heap what to do, the gravest and soonest first, with what is to be prepared for heaps to
//! come; and the days after.

use std::collections::HashMap;
use std::sync::{Arc, Mutex};

use jiff::ToSpan;
use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::tend::diagnose::{ACT_FROM, ActKind};
use zymarch_core::tend::ready::Stage;
use zymarch_core::tend::schedule::{TaskKind, Why};
use zymarch_formats::diagnose::{CauseTold, DiagnoseAnswer};
use zymarch_store::heap::HeapRow;
use zymarch_store::id::{BatchId, HeapId, SiteId};
use zymarch_store::{batch, heap, site, stamp};

use super::course::HOUR_MS;
use super::judge::{self, Judged};
use super::judgement::{TaskTold, task_told};
use crate::Transaction;
use crate::plan::prepare::{self, PrepareLine};

/// What to do at a site, today and on the days after.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TodayAnswer {
    /// The day, as 2026-03-14.
    pub today: String,
    /// Until which day is told.
    pub until: String,
    /// The heaps that stand.
    pub heaps: Vec<TodayHeap>,
    /// What to do, in the order in which it is best done.
    pub lines: Vec<TodayLine>,
}

/// A heap that stands.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TodayHeap {
    /// The heap.
    pub id: HeapId,
    /// What it is called.
    pub name: String,
    /// How far it is; none if it cannot be judged.
    pub stage: Option<Stage>,
    /// Days since it was built.
    pub age_days: f64,
    /// Whether some of what was read of it is made up.
    pub is_simulated: bool,
}

/// Something to do.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TodayLine {
    /// The same for as long as it is not done.
    pub id: String,
    /// The day: today of what is late.
    pub on: String,
    /// At which heap.
    pub heap: Option<HeapId>,
    /// What the heap or batch is called.
    pub name: String,
    /// A cause to act on.
    pub cause: Option<CauseTold>,
    /// A task of the schedule.
    pub task: Option<TaskTold>,
    /// Something to prepare.
    pub prepare: Option<PrepareLine>,
}

/// So many days are told.
const DAYS: i32 = 7;

/// What to do at a site. As long as nothing that it hangs on changes and the hour is the same, it is the
/// same one: of a farm with a hundred heaps it is long, and a whole room asks for it.
///
/// # Errors
/// There is no such site.
pub fn today(tx: &Transaction<'_>, site: SiteId) -> Result<Arc<TodayAnswer>, Faults> {
    site::get(tx.conn, site)?;
    let rows: Vec<HeapRow> = heap::of_site(tx.conn, site)?.into_iter().filter(HeapRow::stands).collect();
    let from = HangsOn {
        site,
        heaps: stamp::of_heaps(tx.conn)?,
        judged: rows.iter().map(|row| judge::of(tx, row).ok()).collect(),
        prepared: prepared(tx, site)?,
        hour: tx.now.as_millisecond().div_euclid(HOUR_MS),
        today: tx.today,
    };
    Ok(tx.kept.today.of(tx, from, |from| told(tx, &rows, from)))
}

fn told(tx: &Transaction<'_>, rows: &[HeapRow], from: &HangsOn) -> TodayAnswer {
    let until = tx.today.saturating_add(DAYS.days());
    let (mut heaps, mut lines) = (Vec::new(), Vec::new());
    for (row, judged) in rows.iter().zip(&from.judged) {
        let Some(built_ms) = row.built_ms else { continue };
        heaps.push(TodayHeap {
            id: row.id,
            name: row.name.clone(),
            stage: judged.as_ref().map(|judged| judged.readiness.stage),
            age_days: (tx.now.as_millisecond() - built_ms) as f64 / 86_400_000.0,
            is_simulated: judged.as_ref().is_some_and(|judged| judged.is_simulated),
        });
        if let Some(judged) = judged {
            lines.extend(of_heap(tx, (row.id, &row.name), judged, until));
        }
    }
    lines.extend(from.prepared.iter().filter(|((day, _), _)| *day <= until).cloned());
    let lines = heap_by_heap(lines);
    TodayAnswer { today: tx.today.to_string(), until: until.to_string(), heaps, lines }
}

/// What Today hangs on.
#[derive(Debug)]
struct HangsOn {
    site: SiteId,
    /// The stamp of the heaps, which have names and places.
    heaps: i64,
    /// What is judged of each, which is the same one as long as it holds.
    judged: Vec<Option<Arc<Judged>>>,
    prepared: Arc<Prepared>,
    hour: i64,
    today: Date,
}

impl HangsOn {
    fn is(&self, other: &Self) -> bool {
        let is_same = |(one, other): (&Option<Arc<Judged>>, &Option<Arc<Judged>>)| {
            one.as_ref().map(Arc::as_ptr) == other.as_ref().map(Arc::as_ptr)
        };
        (self.site, self.heaps, self.hour, self.today) == (other.site, other.heaps, other.hour, other.today)
            && Arc::ptr_eq(&self.prepared, &other.prepared)
            && self.judged.len() == other.judged.len()
            && self.judged.iter().zip(&other.judged).all(is_same)
    }
}

/// What was to be done at sites when it was asked last, and what that hung on.
#[derive(Debug, Default)]
pub(crate) struct KeptToday(Mutex<Vec<(HangsOn, Arc<TodayAnswer>)>>);

/// So many sites are kept.
const MOST_KEPT: usize = 10;

impl KeptToday {
    fn of(
        &self,
        tx: &Transaction<'_>,
        from: HangsOn,
        told: impl FnOnce(&HangsOn) -> TodayAnswer,
    ) -> Arc<TodayAnswer> {
        if let Ok(kept) = self.0.lock()
            && let Some((_, answer)) = kept.iter().find(|(was, _)| was.is(&from))
        {
            return Arc::clone(answer);
        }
        let answer = Arc::new(told(&from));
        if tx.only_reads
            && let Ok(mut kept) = self.0.lock()
        {
            kept.retain(|(was, _)| was.site != from.site);
            if kept.len() >= MOST_KEPT {
                kept.remove(0);
            }
            kept.push((from, Arc::clone(&answer)));
        }
        answer
    }
}

/// What is to be prepared, each with its day.
pub(crate) type Prepared = Vec<(Order, TodayLine)>;

/// The day, and how grave it is: 0 the gravest.
pub(crate) type Order = (Date, u8);

/// Day by day; on each the heap with the gravest line first, and all its lines together: whoever stands
/// at a heap with a fork does all there is to do at it.
fn heap_by_heap(mut lines: Vec<(Order, TodayLine)>) -> Vec<TodayLine> {
    lines.sort_by_key(|(order, _)| *order);
    let mut places = HashMap::new();
    for (place, ((day, _), line)) in lines.iter().enumerate() {
        places.entry((*day, line.of())).or_insert(place);
    }
    lines.sort_by_key(|((day, _), line)| places[&(*day, line.of())]);
    lines.into_iter().map(|(_, line)| line).collect()
}

impl TodayLine {
    /// The heap or the batch that it is about.
    fn of(&self) -> Uuid {
        let batch = || self.prepare.as_ref().map(|of| of.batch.0);
        self.heap.map(|heap| heap.0).or_else(batch).unwrap_or_default()
    }
}

/// What to do at a heap: causes of trouble first, and the tasks that they do not hold already.
fn of_heap(
    tx: &Transaction<'_>,
    (id, name): (HeapId, &str),
    judged: &Judged,
    until: Date,
) -> Vec<(Order, TodayLine)> {
    let line = |told: String, on: Date| TodayLine {
        id: told,
        on: on.to_string(),
        heap: Some(id),
        name: name.to_owned(),
        cause: None,
        task: None,
        prepare: None,
    };
    let told = DiagnoseAnswer::new(&judged.diagnosis, judged.built_ms);
    let acting = told.causes.into_iter().filter(|cause| cause.weight >= ACT_FROM && !cause.harmless);
    let first: Option<CauseTold> = acting.into_iter().next();
    let mends =
        |kind: ActKind| first.as_ref().is_some_and(|cause| cause.remedy.iter().any(|act| act.act == kind));
    let is_held = |task: &TaskTold| {
        let is_now = task.on.as_str() <= tx.today.to_string().as_str();
        is_now
            && match task.kind {
                TaskKind::Turn => mends(ActKind::Turn) || mends(ActKind::TurnOutsideIn),
                TaskKind::Water => mends(ActKind::Water),
                TaskKind::Cover => mends(ActKind::CoverRoof),
                _ => false,
            }
    };
    let mut lines = Vec::new();
    for task in &judged.tasks {
        let task = task_told(tx, id, judged, task);
        let day: Date = task.on.parse().unwrap_or(tx.today);
        if is_held(&task) || day > until {
            continue;
        }
        let on = day.max(tx.today);
        let grave = match (task.why, task.days_late > 0) {
            (Why::TooHot | Why::LacksAir, _) => 1,
            (_, true) => 2,
            (Why::Dry | Why::WetAndOpen | Why::KeepsTheRun, _) => 3,
            _ if task.kind == TaskKind::Check => 6,
            _ if task.is_expected => 7,
            _ => 4,
        };
        lines.push(((on, grave), TodayLine { task: Some(task.clone()), ..line(task.id, on) }));
    }
    if let Some(cause) = first {
        let gravity = if cause.code.row().gravity <= 2 { 0 } else { 1 };
        let id = format!("{id}/{}", cause.code.as_str());
        lines.push(((tx.today, gravity), TodayLine { cause: Some(cause), ..line(id, tx.today) }));
    }
    lines
}

/// What is to be prepared for the batches that have a day and no heap yet, however long it can wait.
fn prepared(tx: &Transaction<'_>, site: SiteId) -> Result<Arc<Prepared>, Faults> {
    let stamps = [stamp::of_batches(tx.conn)?, stamp::of_heaps(tx.conn)?];
    tx.kept.prepared.of(tx, stamps, site, || to_prepare(tx, site))
}

fn to_prepare(tx: &Transaction<'_>, site: SiteId) -> Result<Prepared, Faults> {
    /// A batch whose day passed so long ago is not waited for [days].
    const FORGOTTEN_DAYS: i32 = 14;
    let begun: Vec<_> = heap::of_site(tx.conn, site)?.into_iter().filter_map(|row| row.batch).collect();
    let mut lines = Vec::new();
    for batch in batch::of_site(tx.conn, site)? {
        let Some(day) = batch.fields.build_on.as_deref().and_then(|day| day.parse::<Date>().ok()) else {
            continue;
        };
        let days = tx.today.until(day).map(|span| span.get_days()).unwrap_or(i32::MAX);
        if begun.contains(&batch.id) || !(-FORGOTTEN_DAYS..=60).contains(&days) {
            continue;
        }
        // What cannot be summed has its words on the bench.
        let Ok(told) = prepare::of_batch(tx, &batch.fields) else { continue };
        let done = batch::done(tx.conn, batch.id)?;
        for line in told.lines(batch.id, &batch.fields.items, &done) {
            let from: Date = line.0.parse().unwrap_or(tx.today);
            let days_late = from.until(tx.today).map(|span| span.get_days()).unwrap_or(0).max(0);
            if line.1.is_done && days_late > 0 {
                continue;
            }
            let on = from.max(tx.today);
            let told = TodayLine {
                id: format!("{}/{}", batch.id, line.1.key),
                on: on.to_string(),
                heap: None,
                name: batch.fields.name.clone(),
                cause: None,
                task: None,
                prepare: Some(PrepareLine { days_late, ..line.1 }),
            };
            lines.push(((on, 5), told));
        }
    }
    Ok(lines)
}

/// Ticks something of a batch's preparing off, or takes that back.
///
/// # Errors
/// There is no such batch; a word that is none of its tasks'.
pub fn tick(
    tx: &mut Transaction<'_>,
    _who: &crate::Who,
    (id, ticked): (BatchId, TickRequest),
) -> Result<(), Faults> {
    let batch = batch::get(tx.conn, id)?;
    let told = prepare::of_batch(tx, &batch.fields)?;
    let is_one = told.lines(id, &batch.fields.items, &[]).iter().any(|(_, line)| line.key == ticked.key);
    if !is_one {
        return Err(Fault::of("key", FaultCode::UnknownWord).with("got", ticked.key).into());
    }
    let done = ticked.done.then_some(tx.now.as_millisecond());
    Ok(batch::set_done(tx.conn, id, (&ticked.key, done))?)
}

/// Ticks something off.
#[derive(Debug, Clone, PartialEq, Eq, serde::Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TickRequest {
    /// The word of what was done.
    pub key: String,
    /// Whether it is done.
    pub done: bool,
}
