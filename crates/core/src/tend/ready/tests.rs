//! Heaps on their way, not yet and then ready.

use super::*;
use crate::tend::diagnose::tests::{Heap, TURNED, read, watered};
use crate::tend::heat::Start;

fn of(method: &'static str, days: f64, log: &[(f64, Tended<Start>)]) -> Readiness {
    readiness(&Heap::of(method, days, log).case())
}

const EARTHY: [Smell; 1] = [Smell::Earthy];

fn smelled(smell: &[Smell]) -> Tended<Start> {
    Tended::Smell { smell: smell.to_vec() }
}

fn seen(sign: Sign) -> Tended<Start> {
    Tended::Seen { signs: vec![sign] }
}

fn through(day: f64) -> Vec<(f64, Tended<Start>)> {
    vec![(4.0, read(62.0)), (30.0, read(52.0)), (60.0, read(33.0)), (day - 0.5, read(20.0))]
}

#[test]
fn a_heap_goes_from_working_to_cooling_to_curing() {
    assert_eq!(of("bay-turned", 5.0, &[(4.0, read(60.0))]).stage, Stage::Working);
    assert_eq!(of("bay-turned", 6.0, &[(5.5, read(20.0))]).stage, Stage::Working, "cold before its time");
    assert_eq!(of("bay-turned", 55.0, &[(4.0, read(60.0)), (54.5, read(36.0))]).stage, Stage::Cooling);
    assert_eq!(of("bay-turned", 75.0, &through(75.0)).stage, Stage::Curing);
    assert_eq!(of("bay-turned", 10.0, &[]).stage, Stage::Working, "nobody looked");
}

#[test]
fn not_yet_and_then_ready_with_reasons() {
    let mut log = through(125.0);
    let bare = of("bay-turned", 125.0, &log);
    assert_eq!(bare.stage, Stage::Curing, "one sign is not two");
    assert!(bare.settle.contains(&Ripeness::ClosedBag) && bare.settle.contains(&Ripeness::Germination));
    log.push((124.0, seen(Sign::DarkCrumbly)));
    log.push((124.0, smelled(&EARTHY)));
    let ready = of("bay-turned", 125.0, &log);
    assert_eq!((ready.stage, ready.ready_h), (Stage::Ready, None));
    log.push((124.5, Tended::Germination { sown: 20, up: 9, control_sown: 20, control_up: 19 }));
    let seeds = of("bay-turned", 125.0, &log);
    assert_eq!(seeds.stage, Stage::Curing);
    let told = seeds.told.iter().find(|told| told.of == Ripeness::Germination).expect("is told");
    assert!(!told.speaks_for && told.value.is_some_and(|share| (share - 47.4).abs() < 0.1));
    log.push((124.8, Tended::Germination { sown: 20, up: 17, control_sown: 20, control_up: 19 }));
    assert_eq!(of("bay-turned", 125.0, &log).stage, Stage::Ready, "the newest trial counts");
}

#[test]
fn what_warms_again_after_it_was_turned_is_not_ready() {
    let mut log = through(125.0);
    log.push((120.0, TURNED));
    log.push((120.0, watered(30.0)));
    log.push((122.5, read(41.0)));
    log.push((124.9, read(22.0)));
    log.push((124.9, seen(Sign::DarkCrumbly)));
    log.push((124.9, smelled(&EARTHY)));
    log.sort_by(|a, b| a.0.total_cmp(&b.0));
    let warm = of("bay-turned", 125.0, &log);
    assert_eq!(warm.stage, Stage::Curing);
    assert!(warm.told.iter().any(|told| told.of == Ripeness::NoReheat && !told.speaks_for));
}

#[test]
fn a_bag_that_stinks_and_a_bag_opened_too_soon() {
    let with = |smell: Smell, days: f64| {
        let mut log = through(125.0);
        log.push((124.0, smelled(&EARTHY)));
        log.push((124.0, Tended::ClosedBag { smell: vec![smell], days: Some(days) }));
        of("bay-turned", 125.0, &log)
    };
    assert_eq!(with(Smell::Sour, 5.0).stage, Stage::Curing);
    assert_eq!(with(Smell::Earthy, 5.0).stage, Stage::Ready);
    let soon = with(Smell::Earthy, 1.0);
    assert!(soon.told.iter().all(|told| told.of != Ripeness::ClosedBag), "a day tells nothing");
}

#[test]
fn the_end_is_narrowed_as_the_log_grows() {
    let wide = of("bay-turned", 5.0, &[(4.0, read(60.0))]).ready_h.expect("to come");
    let late = of("bay-turned", 110.0, &through(110.0)).ready_h.expect("to come");
    let width = |[low, high]: [f64; 2]| high - low;
    assert!(width(late) < width(wide), "{wide:?} {late:?}");
    assert!(late[0] >= 110.0 * 24.0);
}

/// What takes up little oxygen by the model is not active for as long as its method may be.
#[test]
fn the_model_narrows_what_the_method_leaves_open() {
    let usual = Heap::of("bay-turned", 60.0, &[(4.0, read(60.0)), (59.0, read(35.0))]);
    let case = usual.case();
    assert!(case.hours.last().is_some_and(|hour| hour.uptake < 1.0), "calm by now");
    let narrowed = readiness(&case).cures_h.expect("to come");
    let method = case.method.active_weeks;
    assert!(narrowed[1] < method.high() * WEEK_H, "{narrowed:?}");
    assert!(narrowed[0] >= method.low() * WEEK_H || narrowed[0] >= case.age_h);
    let young = Heap::of("bay-turned", 6.0, &[(5.0, read(60.0))]);
    assert!(young.case().hours.last().is_some_and(|hour| hour.uptake > 1.0), "lively");
}

#[test]
fn a_bin_that_is_fed_counts_from_the_last_of_it() {
    let left = of("slow-bin", 60.0, &[]).ready_h.expect("to come");
    let fed = of("slow-bin", 60.0, &[(50.0, Tended::Feed { items: vec![] })]).ready_h.expect("to come");
    assert!((fed[0] - left[0] - 50.0 * 24.0).abs() < 1.0, "{left:?} {fed:?}");
}

#[test]
fn a_heap_that_may_be_turned_and_was_not_takes_longer() {
    let ready = |turned: bool| {
        let mut log = vec![(4.0, read(60.0)), (40.0, read(47.0))];
        if turned {
            log.insert(1, (20.0, TURNED));
        }
        of("layered-heap", 41.0, &log).ready_h.expect("to come")
    };
    assert!(ready(false)[0] > ready(true)[0]);
}
