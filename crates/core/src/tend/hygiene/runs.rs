//! Rows of hot readings that lie close enough to each other.

use super::{Criterion, hours};
use crate::base::words::closed_list;

closed_list! {
    /// What ended a run.
    Ended {
        /// Nobody read for too long.
        Gap = "gap",
        /// A colder reading.
        Cold = "cold",
        /// It was turned, where a run counts for one turn alone.
        Turn = "turn",
    }
}

/// A run of hot readings.
#[derive(Debug, Clone, PartialEq)]
pub struct Run {
    /// Its first hot reading [ms].
    pub from_ms: i64,
    /// Its last [ms].
    pub to_ms: i64,
    /// Each of them, in order [ms].
    pub hot_ms: Vec<i64>,
    /// The coldest [°C].
    pub coldest_c: f64,
    /// What ended it; none if nothing did yet.
    pub ended: Option<Ended>,
}

impl Run {
    /// From its first to its last hot reading [h]: of one alone it is nothing.
    #[must_use]
    pub fn hours(&self) -> f64 {
        hours(self.from_ms, self.to_ms)
    }
}

/// The runs of readings in their order.
pub(super) fn of(readings: &[(i64, f64)], turns: &[i64], criterion: &Criterion) -> Vec<Run> {
    let mut runs: Vec<Run> = Vec::new();
    let mut is_open = false;
    let end = |runs: &mut Vec<Run>, is_open: &mut bool, why: Ended| {
        if let Some(run) = runs.last_mut().filter(|_| *is_open) {
            run.ended = Some(why);
        }
        *is_open = false;
    };
    for &(at, core) in readings {
        if core < criterion.least_c {
            let passes = |turn: &i64| *turn <= at && hours(*turn, at) <= criterion.after_turn_h;
            // Turned a moment ago it is colder for a while, which says nothing.
            if criterion.after_turn_h <= 0.0 || !turns.iter().any(passes) {
                end(&mut runs, &mut is_open, Ended::Cold);
            }
            continue;
        }
        if let Some(run) = runs.last().filter(|_| is_open)
            && hours(run.to_ms, at) > criterion.gap_h
        {
            end(&mut runs, &mut is_open, Ended::Gap);
        }
        match runs.last_mut().filter(|_| is_open) {
            Some(run) => {
                run.to_ms = at;
                run.hot_ms.push(at);
                run.coldest_c = run.coldest_c.min(core);
            }
            None => {
                runs.push(Run { from_ms: at, to_ms: at, hot_ms: vec![at], coldest_c: core, ended: None });
                is_open = true;
            }
        }
    }
    runs
}

/// The runs between one turn and the next, each by itself.
pub(super) fn between(readings: &[(i64, f64)], turns: &[i64], criterion: &Criterion) -> Vec<Run> {
    let froms = [i64::MIN].into_iter().chain(turns.iter().copied());
    let tos = turns.iter().copied().chain([i64::MAX]);
    froms
        .zip(tos)
        .flat_map(|(from, to)| {
            let within: Vec<(i64, f64)> =
                readings.iter().copied().filter(|(at, _)| *at > from && *at < to).collect();
            let mut runs = of(&within, turns, criterion);
            if let Some(run) = runs.last_mut().filter(|run| run.ended.is_none() && to < i64::MAX) {
                run.ended = Some(Ended::Turn);
            }
            runs
        })
        .collect()
}
