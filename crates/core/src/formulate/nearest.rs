//! When nothing fits: the mix that comes nearest to what was asked.

use super::programme::{Programme, RowKind, Solved};
use super::search::MOST_BRANCHES;
use super::{Aim, Formulated, Status, Wanted, kindest_water, objective};

/// The share of what could be piled up that a nearest mix should hold, if no
/// size was asked for [-]: enough to see, not so much that one poor lot rules.
const FAIR_SIZE: f64 = 0.25;

/// A mix is not made small to miss its windows by less: its size weighs this
/// much more than a window missed by all of its own edge.
const SIZE_FIRST: f64 = 100.0;

/// The mix that misses its windows by least, each miss measured against the
/// window itself. All of the mix is a balance of misses, so the weights are
/// our judgement: a C:N or a moisture off by its own edge counts like a
/// quarter of the volume missing as air.
pub(super) fn nearest(wanted: &Wanted) -> Formulated {
    let mut programme = Programme::new(wanted, &wanted.target, 0.0);
    let most_l: f64 =
        programme.per_kg.iter().zip(&programme.bounds).map(|(one, (_, high))| one.heap_l * high).sum();
    let asked_l = wanted.volume_l.map_or(FAIR_SIZE * most_l, |band| band.low().max(0.0));
    let size_l = asked_l.min(most_l).min(wanted.volume_l.map_or(f64::INFINITY, |band| band.high()));
    let empty = || Formulated {
        status: Status::Nearest,
        kg: vec![0.0; wanted.offers.len()],
        water_l: 0.0,
        objective: 0.0,
        is_proven: false,
    };
    if size_l <= 0.0 {
        return empty();
    }
    // As large as was asked, and smaller only if what a person capped leaves no other way.
    programme.rows.retain(|row| row.kind != RowKind::VolumeLow);
    programme.rows.push(super::programme::Row {
        of: programme.per_kg.iter().map(|one| -one.heap_l).chain([0.0]).collect(),
        at_most: -size_l * (1.0 - 1e-9),
        kind: RowKind::VolumeLow,
    });
    let mean = |of: &dyn Fn(&super::Balances) -> f64| -> f64 {
        let sum: f64 =
            programme.per_kg.iter().zip(&programme.bounds).map(|(one, (_, high))| of(one) * high).sum();
        (sum / most_l).max(1e-12) * size_l
    };
    let nitrogen = mean(&|one| one.nitrogen_kg);
    let mass = mean(&|_| 1.0);
    let price = |kind: RowKind| match kind {
        RowKind::CnLow => 1.0 / (nitrogen * wanted.target.c_n.low()),
        RowKind::CnHigh => 1.0 / (nitrogen * wanted.target.c_n.high()),
        RowKind::Dry | RowKind::Wet => 2.0 / mass,
        RowKind::VolumeLow => SIZE_FIRST / size_l,
        _ => 4.0 / size_l,
    };
    let slack: Vec<(usize, f64)> = programme
        .rows
        .iter()
        .enumerate()
        .filter(|(_, row)| row.kind.is_window())
        .map(|(place, row)| (place, price(row.kind)))
        .collect();
    let gain = vec![0.0; wanted.offers.len() + 1];
    let Some((Solved { kg, water_l, .. }, _)) = programme.solve_with(&gain, &slack, MOST_BRANCHES) else {
        return empty();
    };
    let water_l = if wanted.aim == Aim::LeastWater { water_l } else { kindest_water(wanted, &kg, water_l) };
    Formulated {
        status: Status::Nearest,
        objective: objective(wanted, &kg, water_l),
        kg,
        water_l,
        is_proven: false,
    }
}
