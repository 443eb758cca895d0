//! When a heap is turned: by what it does, or by the calendar, as the site follows it.

use super::{A_DAY_H, Asked, Task, TaskKind, Why};
use crate::tend::entry::Smell;
use crate::tend::ready::Stage;
use crate::tend::school::SchoolId;

/// A heap is hot from here on [°C].
const HOT_C: f64 = 50.0;
/// It was hot so long before it is turned for having fallen [h].
const HOT_FIRST_H: f64 = 72.0;
/// One that stays cold is turned no sooner than this [h].
const COLD_FIRST_H: f64 = 5.0 * 24.0;
/// Methods that are turned so often go by the calendar, whatever the school [days].
const OFTEN_DAYS: f64 = 3.0;

/// The next turn, and those after it as far as they can be told.
pub(super) fn turns(asked: &Asked<'_>) -> Vec<Task> {
    let case = asked.case;
    let Some(every) = case.method.turn_every_days else { return Vec::new() };
    if !matches!(asked.readiness.stage, Stage::Working | Stage::Cooling) {
        return Vec::new();
    }
    let done = case.turns();
    let wanted = asked.held_to.and_then(|(_, evidence)| {
        let left = evidence.still.turns;
        (left > 0 && asked.is_recording()).then_some(evidence.turns_counted + left)
    });
    let next = Task { nth: done.len() + 1, of: wanted, ..next(asked, &done) };
    let end_h = asked.readiness.cures_h.map_or(case.age_h, |[_, latest]| latest);
    let step = every.middle() * 24.0;
    let begins = next.due_h.max(case.age_h);
    let later =
        (1..).map(|nth| begins + f64::from(nth) * step).take_while(|due| *due < end_h).take(MOST_AHEAD);
    let later = later.enumerate().map(|(place, due_h)| Task {
        nth: next.nth + place + 1,
        is_expected: true,
        ..Task::new(TaskKind::Turn, (due_h, 2.0 * A_DAY_H), (Why::DaysSince, Some(every.middle())))
    });
    std::iter::once(next).chain(later).collect()
}

/// Turns that are told after the next one.
const MOST_AHEAD: usize = 6;

/// The next turn.
fn next(asked: &Asked<'_>, done: &[f64]) -> Task {
    let case = asked.case;
    let turn =
        |due_h: f64, lasts_h: f64, why, value| Task::new(TaskKind::Turn, (due_h, lasts_h), (why, value));
    let warmth = case.warmth();
    let newest = case.newest(&warmth);
    let last = done.last().copied();
    if let Some((at, temp, _)) = newest
        && temp > asked.schools.turn_over_c()
        && last.is_none_or(|last| last < at)
    {
        return turn(at, A_DAY_H, Why::TooHot, Some(temp));
    }
    let stinks = case.smells().into_iter().find(|(_, smell)| matches!(smell, Smell::Sour | Smell::Rotten));
    if let Some((at, _)) = stinks {
        return turn(at, A_DAY_H, Why::LacksAir, None);
    }
    let calendar = by_calendar(asked, last);
    let every = case.method.turn_every_days.map_or(0.0, |every| every.high());
    if asked.schools.follows(SchoolId::ByCalendar) || every <= OFTEN_DAYS || newest.is_none() {
        return calendar;
    }
    let since = last.unwrap_or(0.0);
    let after: Vec<_> = warmth.iter().copied().filter(|(at, ..)| *at > since).collect();
    let hot: Vec<f64> = after.iter().filter(|(_, temp, _)| *temp >= HOT_C).map(|(at, ..)| *at).collect();
    let temp = newest.map(|(_, temp, _)| temp);
    let now_h = newest.map_or(case.age_h, |(at, ..)| at);
    match (hot.first(), temp) {
        (Some(first), Some(temp))
            if temp < HOT_C && hot.last().is_some_and(|at| at - first >= HOT_FIRST_H - A_DAY_H) =>
        {
            turn(now_h, 2.0 * A_DAY_H, Why::HotAndFalling, Some(temp))
        }
        (Some(first), Some(_)) => {
            // Hot: it is left its days of heat, and turned when the calendar says so after them.
            let due = first + HOT_FIRST_H;
            let days = Some(HOT_FIRST_H / 24.0);
            if due > calendar.due_h { turn(due, 2.0 * A_DAY_H, Why::HotEnoughToTurn, days) } else { calendar }
        }
        (None, Some(temp)) if now_h >= COLD_FIRST_H.max(since + COLD_FIRST_H) => {
            turn(now_h, 2.0 * A_DAY_H, Why::StaysCold, Some(temp))
        }
        // Not before it has heated.
        (None, _) => {
            turn(calendar.due_h.max(since + COLD_FIRST_H), 2.0 * A_DAY_H, calendar.why, calendar.value)
        }
        _ => calendar,
    }
}

/// The turn as its method's row has it: on a day, or so many days after the last.
fn by_calendar(asked: &Asked<'_>, last: Option<f64>) -> Task {
    let method = asked.case.method;
    let every = method.turn_every_days.map_or(7.0, |every| every.middle());
    match (last, method.first_turn_day) {
        (None, Some(day)) => {
            let due = f64::from(day) * 24.0;
            Task::new(TaskKind::Turn, (due, 2.0 * A_DAY_H), (Why::FirstTurn, Some(f64::from(day))))
        }
        (last, _) => {
            let due = last.unwrap_or(0.0) + every * 24.0;
            let days = method.turn_every_days.map_or(every, |every| every.high() - every.middle());
            Task::new(TaskKind::Turn, (due, (days * 24.0).max(A_DAY_H)), (Why::DaysSince, Some(every)))
        }
    }
}
