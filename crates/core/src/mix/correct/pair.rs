//! Two things together, where no one alone puts a mix right.

use super::{Act, Correction, EFFORT, MOST_TIMES, MOST_TIMES_MASS, Sums};
use crate::mix::Totals;
use crate::stock::Lot;

/// Most steps of each that are tried.
const MOST_STEPS: u32 = 10;

/// Where there is no measure to count in, a step is this share of the heap [-].
const STEP_OF_HEAP: f64 = 0.05;

/// So many of the things offered are put together in twos: those that come nearest alone.
const MOST_TRIED: usize = 36;

/// So many pairs are named.
const MOST_NAMED: usize = 3;

/// Carrying a second thing weighs a little by itself.
const SECOND_THING: f64 = 0.2;

struct One {
    place: usize,
    step_kg: f64,
    step: Totals,
    most: u32,
}

/// The best pairs that put everything right; if there are none, those after which all works.
pub(super) fn pairs(sums: &Sums<'_>) -> Vec<Correction> {
    let mut tried: Vec<(f64, One)> = sums
        .asked
        .offered
        .iter()
        .enumerate()
        .filter_map(|(place, lot)| {
            let one = One::of(sums, place, lot)?;
            let nearest = (1..=one.most).map(|steps| alone(sums, &one, steps)).fold(f64::INFINITY, f64::min);
            // What is on hand goes before what would have to be fetched.
            Some((nearest - f64::from(u8::from(place < sums.asked.on_hand)), one))
        })
        .collect();
    tried.sort_by(|a, b| a.0.total_cmp(&b.0));
    tried.truncate(MOST_TRIED);
    let mut found: Vec<(bool, f64, Correction)> = Vec::new();
    for (at, (_, first)) in tried.iter().enumerate() {
        for (_, second) in &tried[at + 1..] {
            found.extend(best_of(sums, first, second));
        }
    }
    let is_any_right = found.iter().any(|(is_right, ..)| *is_right);
    found.retain(|(is_right, ..)| *is_right || !is_any_right);
    found.sort_by(|a, b| a.1.total_cmp(&b.1));
    found.into_iter().take(MOST_NAMED).map(|(.., correction)| correction).collect()
}

impl One {
    fn of(sums: &Sums<'_>, place: usize, lot: &Lot) -> Option<Self> {
        let one = Totals::of_a_kilogram(&lot.figures);
        let room = one.heap_volume_l.max(0.2);
        let step_kg = lot.step_kg.unwrap_or(STEP_OF_HEAP * sums.mix.heap_volume_l / room);
        let most = (lot.most_kg / step_kg + 1e-9).floor().min(f64::from(MOST_STEPS));
        (step_kg > 0.0 && most >= 1.0).then(|| Self {
            place,
            step_kg,
            step: Totals::default().with(one, step_kg),
            most: most as u32,
        })
    }
}

fn alone(sums: &Sums<'_>, one: &One, steps: u32) -> f64 {
    let after = sums.watered(sums.mix.with(one.step, f64::from(steps)));
    after.map_or(f64::INFINITY, |(after, _)| sums.asked.windows.distance(&after, true))
}

/// The best amounts of two, if there are any after which all works.
fn best_of(sums: &Sums<'_>, first: &One, second: &One) -> Option<(bool, f64, Correction)> {
    let windows = sums.asked.windows;
    let mut best: Option<(f64, u32, u32)> = None;
    for a in 1..=first.most {
        for b in 1..=second.most {
            let added = Totals::default().with(first.step, f64::from(a)).with(second.step, f64::from(b));
            if added.heap_volume_l > MOST_TIMES * sums.mix.heap_volume_l
                || added.mass_kg() > MOST_TIMES_MASS * sums.mix.mass_kg()
            {
                break;
            }
            let Some((after, _)) = sums.watered(sums.mix.plus(added)) else { continue };
            let effort = SECOND_THING + EFFORT * added.heap_volume_l / sums.mix.heap_volume_l;
            // What is not right weighs more than any carrying.
            let rank = 10.0 * windows.distance(&after, true) + effort;
            if best.is_none_or(|(so_far, ..)| rank < so_far) && windows.work(&after) {
                best = Some((rank, a, b));
            }
        }
    }
    let (rank, a, b) = best?;
    let (kg, and_kg) = (first.step_kg * f64::from(a), second.step_kg * f64::from(b));
    let added = sums.mix.with(first.step, f64::from(a)).with(second.step, f64::from(b));
    let (after, then_water_l) = sums.watered(added)?;
    let correction = Correction {
        with: Some(first.place),
        and: Some((second.place, and_kg)),
        ..sums.done(Act::AddTwo, kg, after, then_water_l)
    };
    Some((correction.puts_right(), rank, correction))
}
