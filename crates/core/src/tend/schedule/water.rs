//! When a heap is watered, and with how much: from what is left of it and how moist that is.

use super::{A_DAY_H, Asked, Task, TaskKind, Why};
use crate::base::quantity::Band;
use crate::plan::method::Watering;
use crate::tend::diagnose::Case;
use crate::tend::entry::Tended;
use crate::tend::school::{Question, SchoolId};

/// Drier than this a hot heap stops, whatever its method waits for [-].
const URGENT: f64 = 0.42;
/// Less than this is not worth a walk [L].
const LEAST_L: f64 = 3.0;

/// Between which moistures the site keeps a heap of a method [-]: as it chose, where its method leaves that open.
fn moisture(asked: &Asked<'_>) -> Band {
    let own = asked.case.method.moisture;
    let school = asked.schools.of(Question::Moisture);
    let is_usual_method = (own.low() - 0.5).abs() < 1e-9 && (own.high() - 0.6).abs() < 1e-9;
    match (school.id, school.low, school.high) {
        (SchoolId::FiftyToSixty, ..) => own,
        (_, Some(low), Some(high)) if is_usual_method => Band::new(low / 100.0, high / 100.0).unwrap_or(own),
        _ => own,
    }
}

/// Water that brings it to the middle of a window [L]; none if that is hardly any.
fn litres(case: &Case<'_>, window: Band) -> Option<f64> {
    let litres = case.water_to_l(window.middle())?;
    (litres >= LEAST_L.max(0.01 * case.now?.wet_kg.value)).then_some(litres)
}

/// The next watering by itself.
pub(super) fn water(asked: &Asked<'_>) -> Option<Task> {
    let case = asked.case;
    let window = moisture(asked);
    let moist = case.moisture()?;
    let nth = asked.times(|what| matches!(what, Tended::Water { .. })) + 1;
    let task = |due_h: f64, why, value: f64, litres: Option<f64>| Task {
        nth,
        litres,
        ..Task::new(TaskKind::Water, (due_h, A_DAY_H), (why, Some(100.0 * value)))
    };
    let last = asked.last(|what| matches!(what, Tended::Water { .. })).unwrap_or(0.0);
    let wanted = litres(case, window);
    let waits_for_turn = matches!(case.method.water, Watering::AtTurns);
    if moist < if waits_for_turn { URGENT } else { window.low() } {
        return Some(task(case.age_h, Why::Dry, moist, Some(wanted?)));
    }
    let every_h = match case.method.water {
        Watering::Daily | Watering::SprinkleDaily => Some(24.0),
        Watering::LightlyWeekly => Some(168.0),
        _ => None,
    };
    if let Some(every_h) = every_h {
        // Rain has done it, or it is moist enough to be left.
        if moist >= window.middle() {
            return None;
        }
        return Some(task((last + every_h).max(case.age_h), Why::LittleByLittle, moist, wanted));
    }
    if waits_for_turn {
        return None;
    }
    let dry = asked.ahead.iter().find(|hour| hour.moisture < window.low())?;
    let due = f64::from(dry.hour).max(case.age_h);
    let litres = dry.dry_kg / (1.0 - window.middle()) - dry.wet_kg;
    let told = Task { is_expected: true, ..task(due, Why::WillBeDry, dry.moisture, Some(litres)) };
    (litres >= LEAST_L).then_some(told)
}

/// What is poured on at the next turn: as much as brings it to the middle, if it is drier than its window.
pub(super) fn with_turns(asked: &Asked<'_>, tasks: &mut Vec<Task>) {
    let window = moisture(asked);
    let is_dry = asked.case.moisture().is_some_and(|moist| moist < window.low() + 0.02);
    let Some(turn) = tasks.iter_mut().find(|task| task.kind == TaskKind::Turn) else { return };
    if is_dry {
        turn.litres = litres(asked.case, window);
    }
    // Turned today it is watered while it is open, and not twice.
    let (due, now_h) = (turn.due_h, asked.case.age_h);
    if turn.litres.is_some() && due <= now_h + A_DAY_H {
        tasks.retain(|task| task.kind != TaskKind::Water);
    }
}
