//! What is to be done at a heap, and when: its method's rules, moved by what was logged.
//!
//! Nothing of it is kept: each task follows anew from what was done last, so that work that was late, early or
//! left out shifts the rest by itself. A task says why, by what, and how much.
//!
//! # Source
//! Turning by heat: over 65 to 70 °C, or once it falls after days of heat (Rynk 1992, NRAES-54); by the calendar
//! after each method's row. Readings no further apart than recorded heat allows: see [`hygiene`](super::hygiene).
//! Worms under 27 °C: Edwards & Bohlen 1996, Biology and Ecology of Earthworms.

mod turn;
mod water;

use super::diagnose::Case;
use super::entry::Tended;
use super::heat::Hour;
use super::hygiene::{Criterion, Evidence, HeatStatus};
use super::ready::{Readiness, Stage};
use super::school::{SchoolId, Schools};
use crate::base::words::closed_list;
use crate::plan::method::Heat;

closed_list! {
    /// Something to do at a heap.
    TaskKind {
        /// Turn it.
        Turn = "turn",
        /// Water it.
        Water = "water",
        /// Cover it.
        Cover = "cover",
        /// Look at it: a stick or thermometer, a handful, a smell.
        Check = "check",
        /// Put worms in.
        WormsIn = "worms-in",
        /// Move it to where it cures.
        Move = "move",
        /// Leave it to cure.
        Cure = "cure",
        /// It should be ready: try it.
        End = "end",
    }
}

closed_list! {
    /// Why it is to be done, or done then.
    Why {
        /// Its core is too hot [°C].
        TooHot = "too-hot",
        /// It was hot for so long, and falls [°C].
        HotAndFalling = "hot-and-falling",
        /// It lacks air: it smells.
        LacksAir = "lacks-air",
        /// It stays cold [°C].
        StaysCold = "stays-cold",
        /// So many turns are to lie in its heat, each after so many days of it [days].
        HotEnoughToTurn = "hot-enough-to-turn",
        /// The first turn comes on this day [day].
        FirstTurn = "first-turn",
        /// So many days have passed since the last [days].
        DaysSince = "days-since",
        /// It is dry [% of water].
        Dry = "dry",
        /// It will be dry by then, as the model has it [% of water].
        WillBeDry = "will-be-dry",
        /// A little, as its method has it, day by day [% of water].
        LittleByLittle = "little-by-little",
        /// It is wet, and nothing keeps rain off [% of water].
        WetAndOpen = "wet-and-open",
        /// A longer gap would end the heat that is being recorded [h].
        KeepsTheRun = "keeps-the-run",
        /// So many days between looks [days].
        LookEvery = "look-every",
        /// It is cool enough for worms [°C].
        CoolForWorms = "cool-for-worms",
        /// Its active time is over [days].
        ActiveOver = "active-over",
        /// It has cured [days].
        Cured = "cured",
    }
}

/// Something to do.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Task {
    /// What.
    pub kind: TaskKind,
    /// The how-manieth of its kind, from 1, counting those that were done.
    pub nth: usize,
    /// Of how many, where so many are wanted.
    pub of: Option<usize>,
    /// From when on, hours after the heap was built; it may lie in the past.
    pub due_h: f64,
    /// Until when it may wait.
    pub latest_h: f64,
    /// Why.
    pub why: Why,
    /// The figure of why.
    pub value: Option<f64>,
    /// Water that goes with it [L].
    pub litres: Option<f64>,
    /// Whether it hangs on what is only expected.
    pub is_expected: bool,
}

impl Task {
    /// A task due from a time on, for so long.
    const fn new(kind: TaskKind, (due_h, lasts_h): (f64, f64), (why, value): (Why, Option<f64>)) -> Self {
        let latest_h = due_h + lasts_h;
        Self { kind, nth: 1, of: None, due_h, latest_h, why, value, litres: None, is_expected: false }
    }
}

/// What a schedule is made from.
#[derive(Debug, Clone, Copy)]
pub struct Asked<'a> {
    /// What is known of the heap.
    pub case: &'a Case<'a>,
    /// What it is held to, and what was recorded, if it is held to anything.
    pub held_to: Option<(&'a Criterion, &'a Evidence)>,
    /// How far it is.
    pub readiness: &'a Readiness,
    /// What it is expected to do from now on; may be empty.
    pub ahead: &'a [Hour],
    /// What is followed where practitioners differ.
    pub schools: &'a Schools,
}

impl Asked<'_> {
    /// Whether heat is being recorded that is still wanted.
    fn is_recording(&self) -> bool {
        self.held_to.is_some_and(|(_, evidence)| evidence.status == HeatStatus::NotYet)
    }

    /// How often something was done.
    fn times(&self, is: impl Fn(&Tended<super::heat::Start>) -> bool) -> usize {
        self.case.log.iter().filter(|(_, what)| is(what)).count()
    }

    /// When something was last done [h].
    fn last(&self, is: impl Fn(&Tended<super::heat::Start>) -> bool) -> Option<f64> {
        self.case.log.iter().rev().find(|(_, what)| is(what)).map(|(at, _)| *at)
    }
}

/// So long a task of a day may wait [h].
const A_DAY_H: f64 = 24.0;

/// What is to be done at a heap, soonest first.
///
/// # Example
/// See the tests of this module.
#[must_use]
pub fn schedule(asked: &Asked<'_>) -> Vec<Task> {
    let mut tasks = Vec::new();
    let is_ended = asked.readiness.stage == Stage::Ready;
    if !is_ended {
        tasks.extend(turn::turns(asked));
        tasks.extend(water::water(asked));
        tasks.extend(cover(asked));
        tasks.extend(check(asked));
        tasks.extend(worms(asked));
    }
    water::with_turns(asked, &mut tasks);
    tasks.extend(ends(asked));
    tasks.sort_by(|a, b| a.due_h.total_cmp(&b.due_h));
    tasks
}

/// The cover, where it is wet and rain can come in.
fn cover(asked: &Asked<'_>) -> Option<Task> {
    /// So much over what its method wants asks for a cover, where covers are held back [-].
    const OPEN_BEARS: f64 = 0.05;
    let case = asked.case;
    let moist = case.moisture()?;
    let bears = if asked.schools.follows(SchoolId::Open) { OPEN_BEARS } else { 0.0 };
    let is_wet = moist > case.method.moisture.high().max(0.6) + bears;
    if case.is_covered() || !is_wet || case.method.heat == Heat::Worms {
        return None;
    }
    let nth = asked.times(|what| matches!(what, Tended::Cover { .. })) + 1;
    let task = Task::new(TaskKind::Cover, (case.age_h, A_DAY_H), (Why::WetAndOpen, Some(100.0 * moist)));
    Some(Task { nth, ..task })
}

/// Whether it is a look at a heap.
const fn is_look(what: &Tended<super::heat::Start>) -> bool {
    matches!(
        what,
        Tended::Temperature { .. }
            | Tended::Stick { .. }
            | Tended::Squeeze { .. }
            | Tended::Smell { .. }
            | Tended::Seen { .. }
    )
}

/// The next look at it.
fn check(asked: &Asked<'_>) -> Option<Task> {
    /// So long before a gap would end a run it is to be read [h].
    const BEFORE_GAP_H: f64 = 4.0;
    let case = asked.case;
    let looked = asked.last(is_look);
    let read = case.core.last().map(|(at, _)| *at);
    let last = looked.into_iter().chain(read).fold(0.0, f64::max);
    let is_lively = case.age_h < case.hot_until_h();
    let days = if is_lively { case.method.check_days.low() } else { case.method.check_days.high() };
    let nth = asked.times(is_look) + 1;
    let usual = Task {
        nth,
        ..Task::new(TaskKind::Check, (last + days * 24.0, A_DAY_H), (Why::LookEvery, Some(days)))
    };
    if asked.readiness.stage == Stage::Ready {
        return None;
    }
    let Some((criterion, _)) = asked.held_to.filter(|_| asked.is_recording()) else { return Some(usual) };
    let Some(read) = read else { return Some(usual) };
    let due = read + criterion.gap_h - BEFORE_GAP_H;
    let keeps = Task {
        nth,
        ..Task::new(
            TaskKind::Check,
            (due - A_DAY_H / 2.0, A_DAY_H / 2.0),
            (Why::KeepsTheRun, Some(criterion.gap_h)),
        )
    };
    Some(if keeps.due_h < usual.due_h { keeps } else { usual })
}

/// Worms, once it is cool enough for them.
fn worms(asked: &Asked<'_>) -> Option<Task> {
    /// Over this they flee or die [°C].
    const WORMS_BEAR_C: f64 = 27.0;
    /// No sooner than this is a heap that was hot cool for good [h].
    const LEAST_H: f64 = 14.0 * 24.0;
    let case = asked.case;
    let wants = matches!(case.method.heat, Heat::Worms | Heat::Warm);
    if !wants || asked.last(|what| matches!(what, Tended::Worms { .. })).is_some() {
        return None;
    }
    let from_h = if case.method.heat == Heat::Warm { LEAST_H } else { 0.0 };
    let read = case.newest(&case.warmth()).map(|(_, temp, _)| temp);
    let task = |due_h: f64, temp: f64, is_expected: bool| Task {
        is_expected,
        ..Task::new(TaskKind::WormsIn, (due_h, 7.0 * A_DAY_H), (Why::CoolForWorms, Some(temp)))
    };
    match read {
        Some(temp) if temp < WORMS_BEAR_C => Some(task(from_h.max(case.age_h), temp, case.age_h < from_h)),
        None if case.method.heat == Heat::Worms => Some(task(case.age_h, case.air_c(), true)),
        _ => {
            let cool = asked
                .ahead
                .iter()
                .find(|hour| f64::from(hour.hour) >= from_h && hour.temp_c[0] < WORMS_BEAR_C - 2.0)?;
            Some(task(f64::from(cool.hour), cool.temp_c[0], true))
        }
    }
}

/// Moving it away, curing, and when it should be ready.
fn ends(asked: &Asked<'_>) -> Vec<Task> {
    let Readiness { stage, cures_h, ready_h, .. } = asked.readiness;
    let case = asked.case;
    let middle = |[low, high]: [f64; 2]| low.midpoint(high);
    let mut tasks = Vec::new();
    let mut add = |kind, [low, high]: [f64; 2], why, is_expected| {
        let due = middle([low, high]);
        // What is over is told with the day on which it was to be, not with today.
        let day = if high > case.age_h { due / 24.0 } else { 7.0 * case.method.active_weeks.middle() };
        let task = Task::new(kind, (due, (high - due).max(A_DAY_H)), (why, Some(day)));
        tasks.push(Task { is_expected, ..task });
    };
    let moved = asked.last(|what| matches!(what, Tended::Move)).is_some();
    let is_moved_to_cure = case.method.turn_every_days.is_some();
    match (stage, cures_h) {
        (Stage::Working | Stage::Cooling, Some(cures)) => {
            if is_moved_to_cure && !moved {
                add(TaskKind::Move, *cures, Why::ActiveOver, true);
            }
            add(TaskKind::Cure, *cures, Why::ActiveOver, true);
        }
        (Stage::Curing, _) if is_moved_to_cure && !moved => {
            add(TaskKind::Move, [case.age_h; 2], Why::ActiveOver, false);
        }
        _ => {}
    }
    match (stage, ready_h) {
        (Stage::Ready, _) => add(TaskKind::End, [case.age_h; 2], Why::Cured, false),
        (_, Some(ready)) => add(TaskKind::End, *ready, Why::Cured, true),
        _ => {}
    }
    tasks
}

#[cfg(test)]
mod tests;
