//! Heat that was recorded, and what it shows by rules that guidance repeats.
//!
//! What counts is a thermometer in the core. A criterion is a row of [`CRITERIA`]; a site may
//! tighten one and never loosen it, and the local rule comes first. What is answered is what
//! was recorded, never that anything is safe.

mod held;
mod runs;

pub use held::{LocalRule, SMALL_UNDER_M3, WAIT_DAYS, held_to};
pub use runs::{Ended, Run};

use crate::base::words::closed_list;

closed_list! {
    /// What a record of heat is held to.
    CriterionId {
        /// Closed, or walled and aerated: a drum, an insulated bay.
        Closed = "closed",
        /// A heap, windrow or bay that is turned.
        Turned = "turned",
        /// Under three cubic metres and turned often: weaker, many rules ask for `turned`.
        SmallTurned = "small-turned",
        /// Seeds that must die, in any heap.
        Weeds = "weeds",
    }
}

/// What has to be recorded.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Need {
    /// A run so long, with so many turns in it.
    Run {
        /// From its first to its last hot reading [h].
        hours: f64,
        /// Turns after its first and before its last reading.
        turns: usize,
    },
    /// After each of so many turns a run of its own.
    RunAfterEach {
        /// How many turns.
        turns: usize,
        /// How long each run [h].
        hours: f64,
    },
    /// A run so long, and so many turns within all the time that it was hot.
    RunAndTurns {
        /// How long [h].
        hours: f64,
        /// How many turns between the first and the last hot reading.
        turns: usize,
    },
}

/// A criterion.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Criterion {
    /// Which.
    pub id: CriterionId,
    /// A reading at least so hot is hot [°C].
    pub least_c: f64,
    /// Hot readings further apart are of two runs [h].
    pub gap_h: f64,
    /// A colder reading so soon after a turn ends no run [h]; none is passed over where it is zero.
    pub after_turn_h: f64,
    /// What has to be recorded.
    pub need: Need,
}

/// Every criterion.
///
/// # Source
/// 40 CFR 503, appendix B (processes to further reduce pathogens) and 7 CFR 205.203, which much
/// national guidance repeats. How far readings may lie apart is our judgement.
pub static CRITERIA: [Criterion; 4] = [
    Criterion {
        id: CriterionId::Closed,
        least_c: 55.0,
        gap_h: 26.0,
        after_turn_h: 0.0,
        need: Need::Run { hours: 72.0, turns: 0 },
    },
    Criterion {
        id: CriterionId::Turned,
        least_c: 55.0,
        gap_h: 50.0,
        after_turn_h: 26.0,
        need: Need::Run { hours: 360.0, turns: 5 },
    },
    Criterion {
        id: CriterionId::SmallTurned,
        least_c: 55.0,
        gap_h: 26.0,
        after_turn_h: 26.0,
        need: Need::RunAfterEach { turns: 3, hours: 72.0 },
    },
    Criterion {
        id: CriterionId::Weeds,
        least_c: 55.0,
        gap_h: 26.0,
        after_turn_h: 26.0,
        need: Need::RunAndTurns { hours: 72.0, turns: 2 },
    },
];

impl CriterionId {
    /// Its row.
    #[must_use]
    pub const fn row(self) -> &'static Criterion {
        &CRITERIA[self as usize]
    }
}

/// A reading of the core.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reading {
    /// When, milliseconds since 1970, UTC.
    pub at_ms: i64,
    /// How hot [°C]; none of a stick or a hand, which prove nothing.
    pub core_c: Option<f64>,
    /// Whether it was marked as faulty: stuck, absurd, out of the heap.
    pub is_faulty: bool,
}

/// What was recorded of a heap.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Record<'a> {
    /// Readings, in any order.
    pub readings: &'a [Reading],
    /// When it was turned [ms].
    pub turns: &'a [i64],
    /// When anything fresh was put in [ms]: nothing before the last of them counts.
    pub additions: &'a [i64],
    /// The time [ms]; what lies after it is not recorded yet.
    pub now_ms: i64,
}

closed_list! {
    /// Why a reading is left out.
    LeftOut {
        /// It was marked as faulty.
        Faulty = "faulty",
        /// Under −40 or over 95 °C.
        Absurd = "absurd",
        /// A stick or a hand is no proof.
        NoTemperature = "no-temperature",
        /// Something fresh was put in after it.
        BeforeAddition = "before-addition",
        /// It lies after now.
        InFuture = "in-future",
    }
}

closed_list! {
    /// What a record shows.
    HeatStatus {
        /// It was recorded.
        Shown = "shown",
        /// Not yet: it is hot now, and can still do it.
        NotYet = "not-yet",
        /// It was not.
        NotShown = "not-shown",
    }
}

/// What a record shows under a criterion, and how.
#[derive(Debug, Clone, PartialEq)]
pub struct Evidence {
    /// Whether it was recorded.
    pub status: HeatStatus,
    /// When it first was [ms].
    pub shown_ms: Option<i64>,
    /// Runs of hot readings, in order.
    pub runs: Vec<Run>,
    /// Turns that count under the criterion.
    pub turns_counted: usize,
    /// Hours of heat that are still wanted, and turns, if the run that is under way goes on; zero once shown.
    pub still: Still,
    /// Readings that were left out, in order, and why.
    pub left_out: Vec<(i64, LeftOut)>,
}

/// What is still wanted.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Still {
    /// Heat [h].
    pub hours: f64,
    /// Turns.
    pub turns: usize,
}

/// Coldest and hottest that a thermometer in a heap can mean [°C].
pub const MEANT: [f64; 2] = [-40.0, 95.0];

/// What a record shows under a criterion.
///
/// # Example
/// A drum read twice a day over three days at 57 °C.
/// ```
/// use zymarch_core::tend::hygiene::{CriterionId, Reading, Record, HeatStatus, evidence};
/// const HOUR: i64 = 3_600_000;
/// let readings: Vec<Reading> =
///     (0..7).map(|n| Reading { at_ms: n * 12 * HOUR, core_c: Some(57.0), is_faulty: false }).collect();
/// let record = Record { readings: &readings, turns: &[], additions: &[], now_ms: 100 * HOUR };
/// let shown = evidence(&record, CriterionId::Closed.row());
/// assert_eq!((shown.status, shown.shown_ms), (HeatStatus::Shown, Some(72 * HOUR)));
/// let short = Record { readings: &readings[..6], ..record };
/// assert_eq!(evidence(&short, CriterionId::Closed.row()).status, HeatStatus::NotShown);
/// ```
#[must_use]
pub fn evidence(record: &Record<'_>, criterion: &Criterion) -> Evidence {
    let since = record.additions.iter().copied().filter(|at| *at <= record.now_ms).max().unwrap_or(i64::MIN);
    let (readings, left_out) = sorted_out(record, since);
    let mut turns: Vec<i64> =
        record.turns.iter().copied().filter(|at| (since..=record.now_ms).contains(at)).collect();
    turns.sort_unstable();
    turns.dedup();
    let runs = match criterion.need {
        Need::RunAfterEach { .. } => runs::between(&readings, &turns, criterion),
        Need::Run { .. } | Need::RunAndTurns { .. } => runs::of(&readings, &turns, criterion),
    };
    let (shown_ms, turns_counted) = judged(&readings, &runs, &turns, criterion);
    let is_hot_now = readings
        .last()
        .is_some_and(|&(at, core)| core >= criterion.least_c && hours(at, record.now_ms) <= criterion.gap_h);
    let status = match shown_ms {
        Some(_) => HeatStatus::Shown,
        None if is_hot_now => HeatStatus::NotYet,
        None => HeatStatus::NotShown,
    };
    let still =
        if shown_ms.is_some() { Still::default() } else { still(&runs, &turns, criterion, is_hot_now) };
    Evidence { status, shown_ms, runs, turns_counted, still, left_out }
}

/// From one time to another [h].
fn hours(from_ms: i64, to_ms: i64) -> f64 {
    (to_ms - from_ms) as f64 / 3.6e6
}

/// A reading that counts: when [ms], and how hot [°C].
type Hot = (i64, f64);

/// What counts, in order, the lower where two are of one time; and what does not, and why.
fn sorted_out(record: &Record<'_>, since: i64) -> (Vec<Hot>, Vec<(i64, LeftOut)>) {
    let (mut counted, mut left_out) = (Vec::new(), Vec::new());
    for reading in record.readings {
        let why = match reading.core_c {
            _ if reading.is_faulty => LeftOut::Faulty,
            None => LeftOut::NoTemperature,
            Some(core) if !(MEANT[0]..=MEANT[1]).contains(&core) => LeftOut::Absurd,
            Some(_) if reading.at_ms > record.now_ms => LeftOut::InFuture,
            Some(_) if reading.at_ms < since => LeftOut::BeforeAddition,
            Some(core) => {
                counted.push((reading.at_ms, core));
                continue;
            }
        };
        left_out.push((reading.at_ms, why));
    }
    counted.sort_unstable_by(|a: &(i64, f64), b| a.0.cmp(&b.0).then(a.1.total_cmp(&b.1)));
    counted.dedup_by_key(|reading| reading.0);
    left_out.sort_unstable_by_key(|left| left.0);
    (counted, left_out)
}

/// When it was first shown, and the turns that count.
fn judged(
    readings: &[(i64, f64)],
    runs: &[Run],
    turns: &[i64],
    criterion: &Criterion,
) -> (Option<i64>, usize) {
    let within = |from: i64, to: i64| turns.iter().filter(|at| **at > from && **at < to).count();
    match criterion.need {
        Need::Run { hours: least, turns: wanted } => {
            let shown = |run: &Run| {
                run.hot_ms
                    .iter()
                    .copied()
                    .find(|&at| hours(run.from_ms, at) >= least && within(run.from_ms, at) >= wanted)
            };
            let most =
                if wanted == 0 { None } else { runs.iter().map(|run| within(run.from_ms, run.to_ms)).max() };
            (runs.iter().find_map(shown), most.unwrap_or(0))
        }
        Need::RunAfterEach { turns: wanted, hours: least } => {
            let after = |turn: i64, next: i64| {
                let of = runs.iter().filter(|run| run.from_ms > turn && run.to_ms < next);
                of.filter_map(|run| run.hot_ms.iter().copied().find(|&at| hours(run.from_ms, at) >= least))
                    .min()
            };
            let nexts = turns.iter().skip(1).copied().chain([i64::MAX]);
            let mut done: Vec<i64> =
                turns.iter().zip(nexts).filter_map(|(&turn, next)| after(turn, next)).collect();
            done.sort_unstable();
            (done.get(wanted - 1).copied(), done.len())
        }
        Need::RunAndTurns { hours: least, turns: wanted } => {
            let hot = || readings.iter().filter(|(_, core)| *core >= criterion.least_c).map(|(at, _)| *at);
            let Some(first) = hot().next() else { return (None, 0) };
            let run_at = runs
                .iter()
                .find_map(|run| run.hot_ms.iter().copied().find(|&at| hours(run.from_ms, at) >= least));
            let shown =
                run_at.and_then(|run_at| hot().find(|&at| at >= run_at && within(first, at) >= wanted));
            (shown, hot().next_back().map_or(0, |last| within(first, last)))
        }
    }
}

/// What is still wanted: of the run that is under way, or of a new one.
fn still(runs: &[Run], turns: &[i64], criterion: &Criterion, is_hot_now: bool) -> Still {
    let now = runs.last().filter(|_| is_hot_now);
    let lasted = now.map_or(0.0, |run| hours(run.from_ms, run.to_ms));
    let within = |from: i64| turns.iter().filter(|at| **at > from).count();
    match criterion.need {
        Need::Run { hours, turns } => Still {
            hours: (hours - lasted).max(0.0),
            turns: turns.saturating_sub(now.map_or(0, |run| within(run.from_ms))),
        },
        Need::RunAfterEach { turns: wanted, hours: each } => {
            let (_, done) = judged(&[], runs, turns, criterion);
            let missing = wanted.saturating_sub(done);
            // The run under way counts for a turn that was made; the others are still to be made.
            let is_after_one = now.is_some_and(|run| turns.iter().any(|at| *at < run.from_ms));
            let begun = if is_after_one { lasted.min(each) } else { 0.0 };
            Still {
                hours: each * missing as f64 - begun,
                turns: missing - usize::from(is_after_one && missing > 0),
            }
        }
        Need::RunAndTurns { hours: least, turns: wanted } => {
            let is_long = runs.iter().any(|run| hours(run.from_ms, run.to_ms) >= least);
            let first = runs.first().map_or(i64::MAX, |run| run.from_ms);
            Still {
                hours: if is_long { 0.0 } else { (least - lasted).max(0.0) },
                turns: wanted.saturating_sub(within(first)),
            }
        }
    }
}

#[cfg(test)]
mod tests;
