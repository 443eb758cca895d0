//! What is judged of a heap: whether it was hot enough, what is wrong with it, what is to be done, how far it
//! is. Found once for each state of the records, and kept.

use std::sync::{Arc, Mutex};

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::log::EntryKind;
use zymarch_core::tend::diagnose::{Case, Diagnosis, diagnose};
use zymarch_core::tend::hygiene::{
    self, Criterion, CriterionId, Evidence, HeatStatus, Record, evidence, held_to,
};
use zymarch_core::tend::ready::{Readiness, readiness};
use zymarch_core::tend::schedule::{Asked, Task, schedule};
use zymarch_core::tend::school::{SchoolId, Schools};
use zymarch_store::heap::{self, Heap, HeapRow};
use zymarch_store::id::HeapId;
use zymarch_store::rule::SiteRule;
use zymarch_store::{rule, site, stamp};

use super::case;
use super::course::{self, Stamps};
use super::series::{self, Series};
use crate::{Farm, Transaction};

/// What is judged of a heap.
#[derive(Debug)]
pub(crate) struct Judged {
    /// When its last layer was laid [ms].
    pub(crate) built_ms: i64,
    /// What it is held to, the strongest first, and what was recorded.
    pub(crate) held_to: Vec<(Criterion, Evidence)>,
    /// The heat that kills seeds.
    pub(crate) seeds: Evidence,
    /// What is wrong with it.
    pub(crate) diagnosis: Diagnosis,
    /// How far it is.
    pub(crate) readiness: Readiness,
    /// What is to be done.
    pub(crate) tasks: Vec<Task>,
    /// Whether some of what was read is made up.
    pub(crate) is_simulated: bool,
}

/// What was judged last.
#[derive(Debug, Default)]
pub(crate) struct KeptJudgements(Mutex<Vec<Seen>>);

/// Beyond the course: the stock at hand and what the site follows.
type Judges = (Stamps, i64, i64);

#[derive(Debug)]
struct Seen {
    heap: HeapId,
    state: Judges,
    catalogue: Arc<Catalogue>,
    judged: Arc<Judged>,
}

const MOST_KEPT: usize = 120;

/// What is judged of a heap.
///
/// # Errors
/// It was not built yet, or is such that it cannot be reckoned: the fault tells why.
pub(crate) fn of(tx: &Transaction<'_>, row: &HeapRow) -> Result<Arc<Judged>, Faults> {
    let place = site::get(tx.conn, row.site)?;
    let follows = rule::of(tx.conn, row.site)?;
    let state = (course::state(tx, row, place.version)?, stamp::of_stock(tx.conn)?, follows.version);
    let id = row.id;
    let is_it =
        |seen: &&Seen| seen.heap == id && seen.state == state && Arc::ptr_eq(&seen.catalogue, &tx.catalogue);
    if let Ok(kept) = tx.kept.judged.0.lock()
        && let Some(seen) = kept.iter().find(is_it)
    {
        return Ok(Arc::clone(&seen.judged));
    }
    // Only what changed is read whole.
    let heap = heap::get(tx.conn, id)?;
    let judged = Arc::new(judged(tx, &heap, &follows)?);
    if tx.only_reads
        && let Ok(mut kept) = tx.kept.judged.0.lock()
    {
        kept.retain(|seen| seen.heap != id);
        if kept.len() >= MOST_KEPT {
            kept.remove(0);
        }
        let (catalogue, judged) = (Arc::clone(&tx.catalogue), Arc::clone(&judged));
        kept.push(Seen { heap: id, state, catalogue, judged });
    }
    Ok(judged)
}

/// Judges every heap that stands, so that whoever asks first does not wait for it: after a start, and when an
/// hour has passed. Heap by heap, so that a question comes between two of them.
///
/// # Errors
/// The records cannot be read.
pub async fn judge_all(farm: &Farm) -> Result<(), Faults> {
    let rows = farm
        .ask(|tx| {
            let mut rows = Vec::new();
            for place in site::all(tx.conn)? {
                rows.extend(heap::of_site(tx.conn, place.id)?.into_iter().filter(heap::HeapRow::stands));
            }
            Ok(rows)
        })
        .await?;
    for row in rows {
        // What cannot be judged says so where it is asked for.
        farm.ask(move |tx| Ok(of(tx, &row).is_ok())).await?;
    }
    Ok(())
}

fn judged(tx: &Transaction<'_>, heap: &Heap, follows: &SiteRule) -> Result<Judged, Faults> {
    let series = series::of(tx, heap)?;
    let course = course::of(tx, heap, &series)?;
    let mut case = case::of(tx, heap, &series, &course)?;
    let schools = Schools::chosen(&follows.schools);
    let record = Recorded::of(tx, heap, &series);
    let held_to: Vec<(Criterion, Evidence)> = criteria(&case, follows, &schools)
        .into_iter()
        .map(|id| id.row().tightened(&follows.local))
        .map(|criterion| (criterion, record.shows(&criterion)))
        .collect();
    let seeds = record.shows(&CriterionId::Weeds.row().tightened(&follows.local));
    case.was_hot_for_seeds = seeds.status == HeatStatus::Shown;
    let readiness = readiness(&case);
    // What a heap is turned and read for is the strongest that it can still show.
    let aims_at = held_to.iter().find(|(_, evidence)| evidence.status == HeatStatus::NotYet);
    let tasks = schedule(&Asked {
        case: &case,
        held_to: aims_at.map(|(criterion, evidence)| (criterion, evidence)),
        readiness: &readiness,
        ahead: &course.ahead.all(),
        schools: &schools,
    });
    // Of a heap that was emptied only what was recorded is left.
    let tasks = if heap.row.emptied_ms.is_none() { tasks } else { Vec::new() };
    let diagnosis = diagnose(&case);
    let (built_ms, is_simulated) = (course.built_ms, series.is_simulated());
    Ok(Judged { built_ms, held_to, seeds, diagnosis, readiness, tasks, is_simulated })
}

/// What a heap is held to: by method, size and local rule, in the order that the site's school has.
fn criteria(case: &Case<'_>, follows: &SiteRule, schools: &Schools) -> Vec<CriterionId> {
    let mut all = held_to(case.method, case.built_m3, &follows.local);
    if schools.follows(SchoolId::ThreeDaysEach) {
        all.sort_by_key(|id| *id != CriterionId::SmallTurned);
    }
    all
}

/// Whether what was recorded until a time showed a heap hot. What is taken out of a heap before the heat that
/// it is held to was not in that heat, whatever the rest of the heap does later.
///
/// # Errors
/// As [`of`].
pub(crate) fn was_shown_hot(tx: &Transaction<'_>, row: &HeapRow, until_ms: i64) -> Result<bool, Faults> {
    let judged = of(tx, row)?;
    let heap = heap::get(tx.conn, row.id)?;
    let record = Recorded::of(tx, &heap, &*series::of(tx, &heap)?).until(until_ms);
    let mut criteria = judged.held_to.iter().map(|(criterion, _)| criterion);
    Ok(criteria.any(|criterion| record.shows(criterion).status == HeatStatus::Shown))
}

/// What was recorded of a heap's heat.
pub(super) struct Recorded {
    readings: Vec<hygiene::Reading>,
    turns: Vec<i64>,
    additions: Vec<i64>,
    now_ms: i64,
}

impl Recorded {
    /// The core's readings, faulty ones too, sticks as no proof, turns, and what was put in after it was built.
    pub(super) fn of(tx: &Transaction<'_>, heap: &Heap, series: &Series) -> Self {
        use zymarch_core::tend::entry::Spot;
        let read = series.readings.iter().zip(&series.faults).filter(|(of, _)| of.place == Spot::Core);
        let mut readings: Vec<hygiene::Reading> = read
            .map(|(of, fault)| hygiene::Reading {
                at_ms: of.at_ms,
                core_c: Some(of.temp_c),
                is_faulty: fault.is_some(),
            })
            .collect();
        let when = |is: fn(EntryKind) -> bool| {
            heap.entries.iter().filter(move |entry| is(entry.kind())).map(|entry| entry.at_ms)
        };
        let no_proof = |at_ms| hygiene::Reading { at_ms, core_c: None, is_faulty: false };
        readings.extend(when(|kind| kind == EntryKind::Stick).map(no_proof));
        Self {
            readings,
            turns: when(|kind| kind == EntryKind::Turn).collect(),
            additions: when(|kind| matches!(kind, EntryKind::Add | EntryKind::Feed)).collect(),
            now_ms: course::until_ms(tx, &heap.row),
        }
    }

    /// The same, as it stood at a time.
    fn until(mut self, ms: i64) -> Self {
        self.readings.retain(|reading| reading.at_ms <= ms);
        self.turns.retain(|turned| *turned <= ms);
        self.additions.retain(|added| *added <= ms);
        Self { now_ms: self.now_ms.min(ms), ..self }
    }

    /// What that shows under a criterion.
    pub(super) fn shows(&self, criterion: &Criterion) -> Evidence {
        let Self { readings, turns, additions, now_ms } = self;
        evidence(&Record { readings, turns, additions, now_ms: *now_ms }, criterion)
    }
}
