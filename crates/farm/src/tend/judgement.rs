//! What is judged of a heap, as it is told: recorded heat and what follows, what is wrong, how far it is, what
//! is to be done.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::tend::hygiene::{Criterion, CriterionId, Evidence, HeatStatus, LeftOut, Need, Run};
use zymarch_core::tend::ready::{Readiness, Ripeness, Stage};
use zymarch_core::tend::schedule::{Task, TaskKind, Why};
use zymarch_formats::diagnose::{CauseTold, DiagnoseAnswer};
use zymarch_store::heap::{self, Heap};
use zymarch_store::id::HeapId;
use zymarch_store::rule;

use super::course::HOUR_MS;
use super::judge::{self, Judged};
use super::series;
use super::strip::day_of;
use crate::Transaction;
use crate::transaction::at_text;

mod days;

pub use days::HeatDayCell;

/// What is judged of a heap.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HeapJudgement {
    /// When its last layer was laid, RFC 3339.
    pub built_at: String,
    /// What it is held to, the strongest first; empty of heaps that are held to nothing.
    pub held_to: Vec<HeatShown>,
    /// The heat that kills seeds.
    pub seeds: HeatShown,
    /// Day by day, by the site's clock.
    pub days: Vec<HeatDayCell>,
    /// What follows for use.
    pub follows: UseFollows,
    /// Whether no cause weighs enough to act on.
    pub nothing_wrong: bool,
    /// Causes that may hold, the one to act on first before the others.
    pub causes: Vec<CauseTold>,
    /// How far it is.
    pub readiness: ReadinessTold,
    /// What is to be done, soonest first.
    pub tasks: Vec<TaskTold>,
}

/// What was recorded under a criterion.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HeatShown {
    /// Which.
    pub criterion: CriterionId,
    /// A reading at least so hot is hot, °C.
    pub least_c: f64,
    /// Hot readings further apart are of two runs, hours.
    pub gap_h: f64,
    /// How long a run has to be, hours.
    pub hours: f64,
    /// How many turns are wanted.
    pub turns: usize,
    /// Whether it was shown.
    pub status: HeatStatus,
    /// When it first was, RFC 3339.
    pub shown_at: Option<String>,
    /// Runs of hot readings.
    pub runs: Vec<HeatRun>,
    /// Turns that count.
    pub turns_counted: usize,
    /// Hours of heat still wanted, if the run under way goes on.
    pub still_hours: f64,
    /// Turns still wanted.
    pub still_turns: usize,
    /// Readings that were left out: why, and how many.
    pub left_out: Vec<LeftOutCount>,
}

/// A run of hot readings.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HeatRun {
    /// Its first hot reading, RFC 3339.
    pub from: String,
    /// Its last.
    pub to: String,
    /// From the one to the other, hours.
    pub hours: f64,
    /// How many readings.
    pub readings: usize,
    /// The coldest, °C.
    pub coldest_c: f64,
    /// What ended it.
    pub ended: Option<zymarch_core::tend::hygiene::Ended>,
}

/// Readings that were left out for one reason.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LeftOutCount {
    /// Why.
    pub reason: LeftOut,
    /// How many.
    pub count: usize,
}

/// What follows for use.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct UseFollows {
    /// The strongest criterion that was shown; none if none was.
    pub shown: Option<CriterionId>,
    /// Whether days are to be waited from spreading to harvest: none was shown.
    pub waits: bool,
    /// How many, where the eaten part touches soil, and elsewhere; asked for where it was not shown.
    pub wait_days: [u16; 2],
    /// Whether a local rule says so.
    pub is_local: bool,
}

/// How far a heap is.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ReadinessTold {
    /// The stage.
    pub stage: Stage,
    /// What speaks for and against being ready.
    pub told: Vec<RipenessTold>,
    /// What would settle it.
    pub settle: Vec<Ripeness>,
    /// Days between which it should begin to cure.
    pub cures_on: Option<[String; 2]>,
    /// Days between which it should be ready.
    pub ready_on: Option<[String; 2]>,
}

/// Something that tells how far it is.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RipenessTold {
    /// What.
    pub of: Ripeness,
    /// Whether it speaks for being ready.
    pub speaks_for: bool,
    /// Its figure.
    pub value: Option<f64>,
    /// When, RFC 3339.
    pub at: Option<String>,
}

/// Something to do.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TaskTold {
    /// The same for as long as it is not done, whenever it is due.
    pub id: String,
    /// What.
    pub kind: TaskKind,
    /// The how-manieth of its kind.
    pub nth: usize,
    /// Of how many, where so many are wanted.
    pub of: Option<usize>,
    /// The day it is due.
    pub on: String,
    /// The last day it may wait for.
    pub latest: String,
    /// Days that it is late; 0 of what is not.
    pub days_late: i32,
    /// Why.
    pub why: Why,
    /// The figure of why.
    pub value: Option<f64>,
    /// Water that goes with it, litres.
    pub litres: Option<f64>,
    /// Whether it hangs on what is only expected.
    pub is_expected: bool,
}

/// What is judged of a heap.
///
/// # Errors
/// There is none, it was not built yet, or cannot be reckoned.
pub fn judgement(tx: &Transaction<'_>, id: HeapId) -> Result<HeapJudgement, Faults> {
    let heap = heap::get(tx.conn, id)?;
    let judged = judge::of(tx, &heap.row)?;
    let series = series::of(tx, &heap)?;
    let told = DiagnoseAnswer::new(&judged.diagnosis, judged.built_ms);
    Ok(HeapJudgement {
        built_at: at_text(judged.built_ms),
        held_to: judged.held_to.iter().map(|(criterion, found)| shown(criterion, found)).collect(),
        seeds: shown(CriterionId::Weeds.row(), &judged.seeds),
        days: days::days(tx, (&heap, &series), &judged),
        follows: follows(tx, &heap, &judged)?,
        nothing_wrong: told.nothing_wrong,
        causes: told.causes,
        readiness: readiness(tx, &judged),
        tasks: judged.tasks.iter().map(|task| task_told(tx, id, &judged, task)).collect(),
    })
}

fn shown(criterion: &Criterion, found: &Evidence) -> HeatShown {
    let (hours, turns) = match criterion.need {
        Need::Run { hours, turns }
        | Need::RunAndTurns { hours, turns }
        | Need::RunAfterEach { turns, hours } => (hours, turns),
    };
    let run = |run: &Run| HeatRun {
        from: at_text(run.from_ms),
        to: at_text(run.to_ms),
        hours: run.hours(),
        readings: run.hot_ms.len(),
        coldest_c: run.coldest_c,
        ended: run.ended,
    };
    let count = |&reason: &LeftOut| {
        let count = found.left_out.iter().filter(|(_, why)| *why == reason).count();
        (count > 0).then_some(LeftOutCount { reason, count })
    };
    HeatShown {
        criterion: criterion.id,
        least_c: criterion.least_c,
        gap_h: criterion.gap_h,
        hours,
        turns,
        status: found.status,
        shown_at: found.shown_ms.map(at_text),
        runs: found.runs.iter().map(run).collect(),
        turns_counted: found.turns_counted,
        still_hours: found.still.hours,
        still_turns: found.still.turns,
        left_out: LeftOut::ALL.iter().filter_map(count).collect(),
    }
}

fn follows(tx: &Transaction<'_>, heap: &Heap, judged: &Judged) -> Result<UseFollows, Faults> {
    let local = rule::of(tx.conn, heap.row.site)?.local;
    let shown = judged.held_to.iter().find(|(_, found)| found.status == HeatStatus::Shown);
    Ok(UseFollows {
        shown: shown.map(|(criterion, _)| criterion.id),
        waits: shown.is_none(),
        wait_days: local.wait_days(),
        is_local: local.wait_days.is_some(),
    })
}

fn date_of(tx: &Transaction<'_>, judged: &Judged, at_h: f64) -> Date {
    day_of(tx, judged.built_ms + (at_h * HOUR_MS as f64) as i64)
}

fn readiness(tx: &Transaction<'_>, judged: &Judged) -> ReadinessTold {
    let Readiness { stage, told, settle, cures_h, ready_h } = &judged.readiness;
    let days = |[low, high]: [f64; 2]| [low, high].map(|at_h| date_of(tx, judged, at_h).to_string());
    let told = told.iter().map(|one| RipenessTold {
        of: one.of,
        speaks_for: one.speaks_for,
        value: one.value,
        at: one.at_h.map(|at_h| at_text(judged.built_ms + (at_h * HOUR_MS as f64) as i64)),
    });
    ReadinessTold {
        stage: *stage,
        told: told.collect(),
        settle: settle.clone(),
        cures_on: cures_h.map(days),
        ready_on: ready_h.map(days),
    }
}

/// A task, with its days by the clock of the site.
pub(super) fn task_told(tx: &Transaction<'_>, heap: HeapId, judged: &Judged, task: &Task) -> TaskTold {
    let on = date_of(tx, judged, task.due_h);
    let latest = date_of(tx, judged, task.latest_h).max(on);
    let late = latest.until(tx.today).map(|span| span.get_days()).unwrap_or(0).max(0);
    TaskTold {
        id: format!("{heap}/{}/{}", task.kind.as_str(), task.nth),
        kind: task.kind,
        nth: task.nth,
        of: task.of,
        on: on.to_string(),
        latest: latest.to_string(),
        days_late: if task.is_expected { 0 } else { late },
        why: task.why,
        value: task.value,
        litres: task.litres.map(|litres| (litres * 10.0).round() / 10.0),
        is_expected: task.is_expected,
    }
}
