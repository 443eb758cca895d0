//! The smallest additions that would make a mix possible.

use super::programme::{Programme, RowKind, Solved};
use super::{Wanted, per_kg};
use crate::stock::Lot;

/// Something that would mend it.
#[derive(Debug, Clone, PartialEq)]
pub struct Addition {
    /// Which of the materials offered, by its place.
    pub candidate: usize,
    /// The least of it that makes a mix possible [kg].
    pub kg: f64,
    /// The same as loose litres.
    pub litres: f64,
    /// Of each lot, and last of the material itself, in the mix it makes possible [kg].
    pub mix_kg: Vec<f64>,
    /// Water in that mix [L].
    pub water_l: f64,
}

/// The most of one thing that a person would fetch [kg].
const MOST_KG: f64 = 20_000.0;

/// Of each candidate the least that makes a mix possible, least volume first;
/// those that do not help are left out.
///
/// A mix is one of the size asked for; if none was, one that uses a quarter
/// of what the stock could pile up.
#[must_use]
pub fn additions(wanted: &Wanted, candidates: &[Lot]) -> Vec<Addition> {
    let most_l: f64 = wanted.lots.iter().map(|lot| lot.most_kg * per_kg(lot).heap_volume_l).sum();
    let least_l = wanted.volume_l.map_or(most_l * 0.25, |band| band.low());
    let mut found: Vec<Addition> = candidates
        .iter()
        .enumerate()
        .filter_map(|(candidate, lot)| {
            let Solved { kg: mix_kg, water_l, .. } = least(wanted, lot, least_l)?;
            let kg = *mix_kg.last()?;
            Some(Addition { candidate, kg, litres: kg / lot.figures.density_kg_l.value, mix_kg, water_l })
        })
        .collect();
    found.sort_by(|a, b| a.litres.total_cmp(&b.litres));
    found
}

/// The mix of a size that takes the least of a material.
fn least(wanted: &Wanted, candidate: &Lot, least_l: f64) -> Option<Solved> {
    let mut with = wanted.clone();
    for lot in &mut with.lots {
        lot.step_kg = None;
    }
    with.water_step_l = None;
    with.lots.push(Lot { most_kg: MOST_KG, least_kg: 0.0, step_kg: None, ..*candidate });
    let mut programme = Programme::new(&with, &with.windows, 0.0);
    programme.rows.retain(|row| row.kind != RowKind::VolumeLow);
    programme.rows.push(super::programme::Row {
        // Ash and soil take room, but no heap is made of them.
        of: programme
            .per_kg
            .iter()
            .map(|one| if one.nitrogen_kg > 0.0 { -one.heap_volume_l } else { 0.0 })
            .chain([0.0])
            .collect(),
        at_most: -least_l.max(1.0),
        kind: RowKind::VolumeLow,
    });
    let mut gain = vec![0.0; with.lots.len() + 1];
    gain[with.lots.len() - 1] = -1.0;
    let solved = programme.solve(&gain, 0)?;
    (*solved.kg.last()? < MOST_KG).then_some(solved)
}
