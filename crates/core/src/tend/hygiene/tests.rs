//! Examples worked by hand, and the laws.

use proptest::prelude::*;

use super::*;

const HOUR: i64 = 3_600_000;

fn at(hour: f64, core: f64) -> Reading {
    Reading { at_ms: (hour * HOUR as f64) as i64, core_c: Some(core), is_faulty: false }
}

fn hot_every(step_h: i64, to_h: i64) -> Vec<Reading> {
    (0..=to_h / step_h).map(|nth| at((nth * step_h) as f64, 58.0)).collect()
}

fn asked(id: CriterionId, readings: &[Reading], turns: &[i64], now_h: i64) -> Evidence {
    let turns: Vec<i64> = turns.iter().map(|hour| hour * HOUR).collect();
    let record = Record { readings, turns: &turns, additions: &[], now_ms: now_h * HOUR };
    evidence(&record, id.row())
}

#[test]
fn every_criterion_stands_at_its_own_place() {
    for (place, row) in CRITERIA.iter().enumerate() {
        assert_eq!(row.id as usize, place);
        assert_eq!(row.id.row(), row);
    }
}

#[test]
fn fifteen_days_and_five_turns_and_not_an_hour_or_a_turn_less() {
    let readings = hot_every(24, 480);
    let turns = [60, 120, 180, 240, 300];
    let shown = asked(CriterionId::Turned, &readings, &turns, 480);
    assert_eq!((shown.status, shown.shown_ms, shown.turns_counted), (HeatStatus::Shown, Some(360 * HOUR), 5));
    assert_eq!((shown.runs.len(), shown.runs[0].hours(), shown.still), (1, 480.0, Still::default()));
    let few = asked(CriterionId::Turned, &readings, &turns[..4], 480);
    assert_eq!(
        (few.status, few.turns_counted, few.still),
        (HeatStatus::NotYet, 4, Still { hours: 0.0, turns: 1 })
    );
    let short = asked(CriterionId::Turned, &readings[..15], &turns, 336);
    assert_eq!((short.status, short.still), (HeatStatus::NotYet, Still { hours: 24.0, turns: 0 }));
    // A turn at its very first or last reading lies in no run.
    let edge = asked(CriterionId::Turned, &readings, &[0, 60, 120, 180, 480], 480);
    assert_eq!((edge.status, edge.turns_counted), (HeatStatus::NotYet, 3));
    // The fifth turn came late, and it was shown with the next hot reading.
    let late = asked(CriterionId::Turned, &readings, &[60, 120, 180, 240, 400], 480);
    assert_eq!(late.shown_ms, Some(408 * HOUR));
}

#[test]
fn a_turn_is_forgiven_a_cold_reading_and_nothing_else_is() {
    let mut readings = hot_every(12, 96);
    readings.push(at(50.0, 41.0));
    readings.push(at(96.0, 54.9));
    let plain = asked(CriterionId::Turned, &readings, &[], 96);
    assert_eq!(
        plain.runs.iter().map(|run| run.ended).collect::<Vec<_>>(),
        [Some(Ended::Cold), Some(Ended::Cold)]
    );
    // Of two at one time the lower counts.
    assert_eq!(plain.runs.iter().map(Run::hours).collect::<Vec<_>>(), [48.0, 24.0]);
    let turned = asked(CriterionId::Turned, &readings, &[48], 96);
    assert_eq!(turned.runs.iter().map(Run::hours).collect::<Vec<_>>(), [84.0]);
    assert_eq!(turned.runs[0].coldest_c, 58.0, "what is passed over does not count");
    // A drum has no turns that would be forgiven.
    assert_eq!(asked(CriterionId::Closed, &readings, &[48], 96).runs.len(), 2);
}

#[test]
fn nobody_read_for_too_long_and_one_reading_shows_nothing() {
    let readings = [at(0.0, 60.0), at(26.0, 60.0), at(53.0, 60.0), at(72.0, 60.0)];
    let drum = asked(CriterionId::Closed, &readings, &[], 72);
    assert_eq!(
        drum.runs.iter().map(|run| (run.hours(), run.ended)).collect::<Vec<_>>(),
        [(26.0, Some(Ended::Gap)), (19.0, None)]
    );
    assert_eq!(drum.status, HeatStatus::NotYet);
    assert_eq!(asked(CriterionId::Closed, &readings, &[], 99).status, HeatStatus::NotShown);
    assert_eq!(asked(CriterionId::Closed, &readings[..1], &[], 0).runs[0].hours(), 0.0);
    assert_eq!(asked(CriterionId::Closed, &[], &[], 0).status, HeatStatus::NotShown);
}

#[test]
fn after_each_of_three_turns_three_days_of_its_own() {
    let readings = hot_every(12, 400);
    let shown = asked(CriterionId::SmallTurned, &readings, &[50, 150, 250], 400);
    // Hot straight through it is three runs all the same: the third turn's first reading is at 252 h.
    assert_eq!((shown.status, shown.shown_ms, shown.turns_counted), (HeatStatus::Shown, Some(324 * HOUR), 3));
    let close = asked(CriterionId::SmallTurned, &readings, &[50, 100, 150, 340], 400);
    assert_eq!((close.status, close.turns_counted), (HeatStatus::NotYet, 1));
    assert_eq!(close.still, Still { hours: 2.0 * 72.0 - 48.0, turns: 1 });
}

#[test]
fn seeds_want_three_days_and_the_outside_turned_in_twice() {
    let readings = hot_every(12, 200);
    assert_eq!(asked(CriterionId::Weeds, &readings, &[], 200).status, HeatStatus::NotYet);
    let shown = asked(CriterionId::Weeds, &readings, &[30, 130], 200);
    assert_eq!((shown.shown_ms, shown.turns_counted), (Some(132 * HOUR), 2));
}

#[test]
fn fresh_stuff_starts_the_record_anew_and_what_is_no_proof_is_named() {
    let mut readings = hot_every(12, 96);
    let odd = |hour: f64, core_c, is_faulty| Reading { core_c, is_faulty, ..at(hour, 0.0) };
    readings.extend([odd(5.0, None, false), odd(6.0, Some(57.0), true), odd(7.0, Some(300.0), false)]);
    readings.push(at(500.0, 60.0));
    let record =
        Record { readings: &readings, turns: &[], additions: &[48 * HOUR, 900 * HOUR], now_ms: 100 * HOUR };
    let got = evidence(&record, CriterionId::Closed.row());
    assert_eq!((got.status, got.runs[0].from_ms), (HeatStatus::NotYet, 48 * HOUR));
    let why: Vec<LeftOut> = got.left_out.iter().map(|(_, why)| *why).collect();
    for wanted in [LeftOut::NoTemperature, LeftOut::Faulty, LeftOut::Absurd, LeftOut::InFuture] {
        assert_eq!(why.iter().filter(|one| **one == wanted).count(), 1, "{wanted:?}");
    }
    assert_eq!(why.iter().filter(|one| **one == LeftOut::BeforeAddition).count(), 4);
}

fn records() -> impl Strategy<Value = (Vec<Reading>, Vec<i64>)> {
    let reading = (0..700_i64, 48.0..66.0_f64).prop_map(|(hour, core)| at(hour as f64, core));
    let hot = (0..700_i64, 55.0..66.0_f64).prop_map(|(hour, core)| at(hour as f64, core));
    let all = prop_oneof![prop::collection::vec(hot, 0..120), prop::collection::vec(reading, 0..90),];
    (all, prop::collection::vec(0..700_i64, 0..9))
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]

    /// The laws: order is no matter, a hot reading in between harms nothing, what was shown stays shown, and
    /// who asks for more heat is shown no more.
    #[test]
    fn the_laws_of_recorded_heat(
        (readings, turns) in records(), more in 0..700_i64, core in 55.0..66.0_f64, later in 40.0..66.0_f64, hotter in 0.0..4.0_f64,
    ) {
        for criterion in &CRITERIA {
            let turns_ms: Vec<i64> = turns.iter().map(|hour| hour * HOUR).collect();
            let of = |readings: &[Reading], criterion: &Criterion| {
                evidence(&Record { readings, turns: &turns_ms, additions: &[], now_ms: 900 * HOUR }, criterion)
            };
            let got = of(&readings, criterion);
            let mut turned_round = readings.clone();
            turned_round.reverse();
            prop_assert_eq!(&of(&turned_round, criterion), &got);

            let hot = |reading: &&Reading| reading.core_c.is_some_and(|core| core >= criterion.least_c);
            let mut times: Vec<i64> = readings.iter().filter(hot).map(|one| one.at_ms).collect();
            times.sort_unstable();
            let is_between = times.first().is_some_and(|first| *first < more * HOUR)
                && times.last().is_some_and(|last| *last > more * HOUR);
            let mut with_more = readings.clone();
            with_more.push(at(more as f64, core));
            if is_between && got.status == HeatStatus::Shown {
                prop_assert_eq!(of(&with_more, criterion).status, HeatStatus::Shown, "{:?}", criterion.id);
            }
            let mut goes_on = readings.clone();
            goes_on.push(at(800.0, later));
            if got.status == HeatStatus::Shown {
                prop_assert_eq!(of(&goes_on, criterion).shown_ms, got.shown_ms);
            }
            let longest = |of: &Evidence| of.runs.iter().map(Run::hours).fold(0.0, f64::max);
            for left in 0..readings.len().min(12) {
                let mut without = readings.clone();
                let gone = without.remove(left);
                if gone.core_c.is_some_and(|core| core >= criterion.least_c) {
                    // Unless a colder one of the same time stood behind it, nothing grows.
                    prop_assert!(longest(&of(&without, criterion)) <= longest(&got) + 1e-9);
                }
            }
            let stricter = Criterion { least_c: criterion.least_c + hotter, ..*criterion };
            if of(&readings, &stricter).status == HeatStatus::Shown {
                prop_assert_eq!(got.status, HeatStatus::Shown);
            }
        }
    }
}
