//! Logs and what is to be done next.

use super::*;
use crate::tend::diagnose::tests::{Heap, TURNED, read, squeezed, watered};
use crate::tend::entry::{Smell, SqueezeFeel, StickFeel};
use crate::tend::hygiene::{CriterionId, Reading, Record, evidence};
use crate::tend::ready::readiness;

/// What is to be done at a heap held to a criterion.
fn tasks_of(heap: &Heap, criterion: Option<CriterionId>, schools: &Schools) -> Vec<Task> {
    let case = heap.case();
    const HOUR: f64 = 3.6e6;
    let readings: Vec<Reading> = case
        .core
        .iter()
        .map(|(at, temp)| Reading { at_ms: (at * HOUR) as i64, core_c: Some(*temp), is_faulty: false })
        .collect();
    let turns: Vec<i64> = case.turns().iter().map(|at| (at * HOUR) as i64).collect();
    let now_ms = (case.age_h * HOUR) as i64;
    let record = Record { readings: &readings, turns: &turns, additions: &[], now_ms };
    let found = criterion.map(|id| (id.row(), evidence(&record, id.row())));
    let readiness = readiness(&case);
    schedule(&Asked {
        case: &case,
        held_to: found.as_ref().map(|(row, evidence)| (*row, evidence)),
        readiness: &readiness,
        ahead: heap.ahead(),
        schools,
    })
}

fn tasks(heap: &Heap) -> Vec<Task> {
    tasks_of(heap, Some(CriterionId::Turned), &Schools::default())
}

fn next(tasks: &[Task], kind: TaskKind) -> Task {
    *tasks.iter().find(|task| task.kind == kind).unwrap_or_else(|| panic!("{kind:?} of {tasks:?}"))
}

fn day(task: Task) -> f64 {
    task.due_h / 24.0
}

#[test]
fn the_first_turn_comes_on_the_day_of_its_method() {
    let turn = next(&tasks(&Heap::of("bay-turned", 2.0, &[])), TaskKind::Turn);
    assert_eq!((day(turn), turn.why, turn.nth), (7.0, Why::FirstTurn, 1));
    let hot = [(2.0, read(58.0)), (4.0, read(62.0))];
    assert_eq!(day(next(&tasks(&Heap::of("bay-turned", 4.0, &hot)), TaskKind::Turn)), 7.0);
    // A heap that took its time is left three days of heat.
    let late = [(3.0, read(31.0)), (6.0, read(56.0)), (6.5, read(60.0))];
    let turn = next(&tasks(&Heap::of("bay-turned", 6.5, &late)), TaskKind::Turn);
    assert_eq!((day(turn), turn.why, turn.value), (9.0, Why::HotEnoughToTurn, Some(3.0)));
}

#[test]
fn a_late_turn_moves_the_next_and_all_after_it() {
    let of = |turned: f64| {
        let log =
            [(3.0, read(60.0)), (turned, TURNED), (turned + 1.0, read(57.0)), (turned + 2.0, read(60.0))];
        let tasks = tasks(&Heap::of("bay-turned", turned + 2.0, &log));
        tasks
            .iter()
            .filter(|task| task.kind == TaskKind::Turn)
            .map(|task| (task.nth, day(*task)))
            .collect::<Vec<_>>()
    };
    let (early, late) = (of(7.0), of(12.0));
    assert_eq!(early[0], (2, 17.5));
    for (before, after) in early.iter().zip(&late) {
        assert_eq!((before.0, before.1 + 5.0), *after);
    }
    assert!(early.len() > 3, "those after it are told as well");
}

#[test]
fn what_the_heap_does_comes_before_the_calendar() {
    let hot = next(&tasks(&Heap::of("bay-turned", 4.0, &[(3.9, read(70.0))])), TaskKind::Turn);
    assert_eq!((hot.why, hot.value), (Why::TooHot, Some(70.0)));
    assert!(hot.due_h <= 4.0 * 24.0);
    let fell = [(2.0, read(57.0)), (4.0, read(63.0)), (5.5, read(58.0)), (6.0, read(47.0))];
    let fell = next(&tasks(&Heap::of("layered-heap", 6.0, &fell)), TaskKind::Turn);
    assert_eq!((fell.why, day(fell)), (Why::HotAndFalling, 6.0));
    let stinks = [(3.0, read(55.0)), (5.0, Tended::Smell { smell: vec![Smell::Rotten] })];
    assert_eq!(next(&tasks(&Heap::of("bay-turned", 5.0, &stinks)), TaskKind::Turn).why, Why::LacksAir);
    let cold = [(4.0, read(24.0)), (6.0, read(26.0))];
    assert_eq!(next(&tasks(&Heap::of("bay-turned", 6.0, &cold)), TaskKind::Turn).why, Why::StaysCold);
    let young = next(&tasks(&Heap::of("rapid-turned", 2.0, &[(1.9, read(24.0))])), TaskKind::Turn);
    assert!(day(young) >= 4.0, "not before it has heated");
}

#[test]
fn who_goes_by_the_calendar_turns_by_it_and_a_mild_heap_is_turned_sooner() {
    let log = [(2.0, read(57.0)), (5.0, read(63.0)), (6.0, read(46.0))];
    let heap = Heap::of("layered-heap", 6.0, &log);
    let of = |id| next(&tasks_of(&heap, None, &Schools::chosen(&[id])), TaskKind::Turn);
    assert_eq!((of(SchoolId::ByCalendar).why, day(of(SchoolId::ByCalendar))), (Why::FirstTurn, 14.0));
    assert_eq!(of(SchoolId::ByHeat).why, Why::HotAndFalling);
    let warm = Heap::of("bay-turned", 4.0, &[(3.9, read(63.0))]);
    let mild = next(&tasks_of(&warm, None, &Schools::chosen(&[SchoolId::Mild])), TaskKind::Turn);
    assert_eq!(mild.why, Why::TooHot);
    assert_ne!(next(&tasks(&warm), TaskKind::Turn).why, Why::TooHot);
}

#[test]
fn still_methods_are_never_turned_and_worms_wait_for_the_cool() {
    let tower = Heap::of("static-tower", 10.0, &[(9.9, read(52.0))]);
    let all = tasks_of(&tower, None, &Schools::default());
    assert!(all.iter().all(|task| task.kind != TaskKind::Turn));
    assert!(all.iter().filter(|task| task.kind == TaskKind::WormsIn).all(|task| task.is_expected));
    let cool = Heap::of("static-tower", 30.0, &[(29.9, read(24.0))]);
    let worms = next(&tasks_of(&cool, None, &Schools::default()), TaskKind::WormsIn);
    assert_eq!((worms.why, worms.value, worms.is_expected), (Why::CoolForWorms, Some(24.0), false));
    let put_in = Heap::of("static-tower", 30.0, &[(28.0, Tended::Worms { kg: None }), (29.9, read(24.0))]);
    let after = tasks_of(&put_in, None, &Schools::default());
    assert!(after.iter().all(|task| task.kind != TaskKind::WormsIn));
}

#[test]
fn heat_that_is_recorded_wants_its_turns_and_no_gap() {
    let mut log: Vec<(f64, Tended<_>)> = (2..=12).map(|day| (f64::from(day), read(60.0))).collect();
    log.push((7.0, TURNED));
    log.sort_by(|a, b| a.0.total_cmp(&b.0));
    let tasks = tasks(&Heap::of("bay-turned", 12.2, &log));
    let turn = next(&tasks, TaskKind::Turn);
    assert_eq!((turn.nth, turn.of), (2, Some(5)), "turn 2 of 5");
    let check = next(&tasks, TaskKind::Check);
    assert!(check.latest_h <= 12.0 * 24.0 + 50.0, "read before the gap ends the run");
}

#[test]
fn a_dry_heap_is_watered_with_so_much_and_rain_and_cover_count() {
    let dry = Heap::with_water("layered-heap", 6.0, &[(5.9, squeezed(SqueezeFeel::Dusty))], 0.0);
    let water = next(&tasks(&dry), TaskKind::Water);
    let now = dry.case().now.expect("is reckoned");
    let litres = water.litres.expect("so much");
    // A dusty handful is 35 % water.
    let moist = 1.0 - now.dry_kg.value / (now.dry_kg.value / 0.65 + litres);
    assert!((moist - 0.55).abs() < 1e-6, "{moist}");
    let poured = Heap::with_water(
        "layered-heap",
        6.0,
        &[(5.0, squeezed(SqueezeFeel::Damp)), (5.5, watered(120.0)), (5.9, squeezed(SqueezeFeel::Right))],
        60.0,
    );
    let now_dry =
        tasks(&poured).into_iter().find(|task| task.kind == TaskKind::Water && task.why == Why::Dry);
    assert_eq!(now_dry, None);
    let wet = [(3.0, Tended::Rain { mm: 60.0, hours: None }), (5.9, squeezed(SqueezeFeel::Sodden))];
    assert_eq!(next(&tasks(&Heap::of("bay-turned", 6.0, &wet)), TaskKind::Cover).why, Why::WetAndOpen);
    let covered = [wet[0].clone(), wet[1].clone(), (5.95, Tended::Cover { with: None })];
    let covered = tasks(&Heap::of("bay-turned", 6.0, &covered));
    assert!(covered.iter().all(|task| task.kind != TaskKind::Cover));
}

#[test]
fn a_turn_takes_its_water_along() {
    let log = [(3.0, read(57.0)), (5.0, read(60.0)), (6.9, squeezed(SqueezeFeel::Dusty))];
    let tasks = tasks(&Heap::with_water("bay-turned", 7.0, &log, 0.0));
    assert!(next(&tasks, TaskKind::Turn).litres.is_some());
    assert!(tasks.iter().all(|task| task.kind != TaskKind::Water), "and not twice");
}

#[test]
fn a_look_moves_the_next_look() {
    let of = |days: f64| {
        let heap = Heap::of("bay-turned", 5.0, &[(days, Tended::Stick { feel: StickFeel::Hot })]);
        day(next(&tasks_of(&heap, None, &Schools::default()), TaskKind::Check))
    };
    assert_eq!((of(3.0), of(4.5)), (5.0, 6.5));
}

#[test]
fn it_ends_once_it_is_ready_and_before_that_it_cures() {
    let working = tasks(&Heap::of("bay-turned", 5.0, &[(4.9, read(60.0))]));
    let (cure, end) = (next(&working, TaskKind::Cure), next(&working, TaskKind::End));
    assert!(cure.due_h < end.due_h && cure.is_expected && end.is_expected);
    assert!(working.is_sorted_by(|a, b| a.due_h <= b.due_h));
    let done = [
        (5.0, read(61.0)),
        (70.0, TURNED),
        (70.0, watered(20.0)),
        (80.0, read(21.0)),
        (130.0, read(19.0)),
        (130.0, Tended::Seen { signs: vec![crate::tend::entry::Sign::DarkCrumbly] }),
        (130.0, Tended::Smell { smell: vec![Smell::Earthy] }),
    ];
    let ready = tasks(&Heap::of("bay-turned", 131.0, &done));
    assert_eq!(ready.iter().map(|task| task.kind).collect::<Vec<_>>(), [TaskKind::End]);
    assert!(!ready[0].is_expected);
}
