//! When nothing fits: the mix that comes nearest to what was asked.

use super::programme::{Answer, Edge, Programme, RowKind, Solved};
use super::whole::{self, Effort};
use super::{Aim, Formulated, Status, Wanted, kindest_water, objective};
use crate::mix::Totals;

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
    let mut programme = Programme::new(wanted, &wanted.windows, 0.0);
    let most_l: f64 =
        programme.per_kg.iter().zip(&programme.bounds).map(|(one, (_, high))| one.feeding_l() * high).sum();
    let asked_l = wanted.volume_l.map_or(FAIR_SIZE * most_l, |band| band.low().max(0.0));
    let size_l = asked_l.min(most_l).min(wanted.volume_l.map_or(f64::INFINITY, |band| band.high()));
    let empty = || Formulated {
        status: Status::Nearest,
        kg: vec![0.0; wanted.lots.len()],
        water_l: 0.0,
        objective: 0.0,
        is_proven: false,
        fits_in_parts: false,
    };
    if size_l <= 0.0 {
        return empty();
    }
    // As large as was asked, and smaller only if what a person capped leaves no other way.
    programme.rows.retain(|row| row.kind != RowKind::VolumeLow);
    programme.rows.push(super::programme::Row {
        of: programme.per_kg.iter().map(|one| -one.feeding_l()).chain([0.0]).collect(),
        at_most: -size_l * (1.0 - 1e-9),
        kind: RowKind::VolumeLow,
    });
    let mean = |of: &dyn Fn(&Totals) -> f64| -> f64 {
        let sum: f64 =
            programme.per_kg.iter().zip(&programme.bounds).map(|(one, (_, high))| of(one) * high).sum();
        (sum / most_l).max(1e-12) * size_l
    };
    let windows = &wanted.windows;
    let price = |kind: RowKind| match kind {
        RowKind::Window(window, edge) => {
            let (row, aim) = (window.row(), windows.aim(window));
            let under = mean(&|one| row.under(one, windows.basis));
            let by = match edge {
                _ if !row.price_by_edge => 1.0,
                Edge::Low => aim.low,
                Edge::High => aim.high.unwrap_or(aim.low),
            };
            row.price / (under * by)
        }
        RowKind::VolumeLow => SIZE_FIRST / size_l,
        RowKind::VolumeHigh | RowKind::Cap(_) => 0.0,
    };
    let slack: Vec<(usize, f64)> = programme
        .rows
        .iter()
        .enumerate()
        .filter(|(_, row)| row.kind.is_window())
        .map(|(place, row)| (place, price(row.kind)))
        .collect();
    let gain = vec![0.0; wanted.lots.len() + 1];
    let Answer::Found(Solved { kg, water_l, .. }) = whole::best(&programme, &gain, &slack, Effort::Best)
    else {
        return empty();
    };
    let water_l = if wanted.aim == Aim::LeastWater { water_l } else { kindest_water(wanted, &kg, water_l) };
    Formulated {
        status: Status::Nearest,
        objective: objective(wanted, &kg, water_l),
        kg,
        water_l,
        is_proven: false,
        fits_in_parts: false,
    }
}
