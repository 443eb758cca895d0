//! The smallest additions that would make a mix possible.

use super::programme::{Programme, Row, RowKind, Solved};
use super::{Wanted, per_kg};
use crate::stock::Lot;

/// Something that would mend it.
#[derive(Debug, Clone, PartialEq)]
pub struct Addition {
    /// Which of the materials offered, and the least of each that makes a mix possible.
    pub parts: Vec<Part>,
    /// Of each lot, and last of the parts in their order, in the mix it makes possible [kg].
    pub mix_kg: Vec<f64>,
    /// Water in that mix [L].
    pub water_l: f64,
}

/// One thing of an addition.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Part {
    /// Which of the materials offered, by its place.
    pub candidate: usize,
    /// How much [kg].
    pub kg: f64,
    /// The same as loose litres.
    pub litres: f64,
}

impl Addition {
    /// All of it as loose litres.
    #[must_use]
    pub fn litres(&self) -> f64 {
        self.parts.iter().map(|part| part.litres).sum()
    }
}

/// The most of one thing that a person would fetch [kg].
const MOST_KG: f64 = 20_000.0;

/// So many things at once are a shopping list, not an addition.
const MOST_TOGETHER: usize = 3;

/// So many ways to put things together are named.
const MOST_WAYS: usize = 3;

/// If no size was asked for, a mix is one that uses so much of what the stock could pile up [-].
const FAIR_SHARE: f64 = 0.25;

/// And where the stock piles up nothing, one that heats [L].
const HEAP_L: f64 = 1000.0;

/// So often something is left out and the rest tried again.
const MOST_TRIED: usize = 8;

/// Less than this share of what is fetched is not worth the walk [-].
const SOME_OF_IT: f64 = 0.05;

/// Less of something than this is none [kg].
const SOME_KG: f64 = 1e-6;

/// Of each candidate the least that makes a mix possible, least volume first;
/// those that do not help are left out.
///
/// A mix is one of the size asked for; if none was, one that uses a quarter
/// of what the stock could pile up, or a cubic metre where that is nothing.
#[must_use]
pub fn additions(wanted: &Wanted, candidates: &[Lot]) -> Vec<Addition> {
    let mut found: Vec<Addition> =
        (0..candidates.len()).filter_map(|place| least(wanted, candidates, &[place])).collect();
    found.sort_by(|a, b| a.litres().total_cmp(&b.litres()));
    found
}

/// Two or three things together, where none alone makes a mix possible: the least volume of all
/// candidates at once, then the same without what was most of it.
#[must_use]
pub fn together(wanted: &Wanted, candidates: &[Lot]) -> Vec<Addition> {
    let mut offered: Vec<usize> = (0..candidates.len()).collect();
    let mut found = Vec::new();
    for _ in 0..MOST_TRIED {
        if found.len() == MOST_WAYS {
            break;
        }
        let Some(addition) = least(wanted, candidates, &offered) else { break };
        let most = addition.parts.iter().max_by(|a, b| a.litres.total_cmp(&b.litres));
        let Some(most) = most.map(|part| part.candidate) else { break };
        offered.retain(|&place| place != most);
        let is_some = |part: &Part| part.litres >= addition.litres() * SOME_OF_IT;
        if addition.parts.len() <= MOST_TOGETHER && addition.parts.iter().all(is_some) {
            found.push(addition);
        }
    }
    found.sort_by(|a, b| a.litres().total_cmp(&b.litres()));
    found
}

/// The mix of a size that takes the least of some candidates.
fn least(wanted: &Wanted, candidates: &[Lot], offered: &[usize]) -> Option<Addition> {
    let most_l: f64 = wanted.lots.iter().map(|lot| lot.most_kg * per_kg(lot).feeding_l()).sum();
    let fair_l = if most_l > 0.0 { most_l * FAIR_SHARE } else { HEAP_L };
    let least_l = wanted.volume_l.map_or(fair_l, |band| band.low());
    let mut with = wanted.clone();
    for lot in &mut with.lots {
        lot.step_kg = None;
    }
    with.water_step_l = None;
    let stock = with.lots.len();
    with.lots.extend(offered.iter().map(|&at| Lot {
        most_kg: MOST_KG,
        least_kg: 0.0,
        step_kg: None,
        ..candidates[at]
    }));
    let mut programme = Programme::new(&with, &with.windows, 0.0);
    programme.rows.retain(|row| row.kind != RowKind::VolumeLow);
    programme.rows.push(Row {
        // Ash and soil take room, but no heap is made of them.
        of: programme.per_kg.iter().map(|one| -one.feeding_l()).chain([0.0]).collect(),
        at_most: -least_l.max(1.0),
        kind: RowKind::VolumeLow,
    });
    let litres = |lot: &Lot| 1.0 / lot.figures.density_kg_l.value;
    let mut gain = vec![0.0; with.lots.len() + 1];
    for (at, lot) in with.lots.iter().enumerate().skip(stock) {
        gain[at] = -litres(lot);
    }
    let Solved { kg, water_l, .. } = programme.solve(&gain, &[], 0).found()?;
    let (of_stock, of_offered) = kg.split_at(stock);
    let mut mix_kg = of_stock.to_vec();
    let mut parts = Vec::new();
    for (&candidate, &kg) in offered.iter().zip(of_offered) {
        if kg >= MOST_KG {
            return None;
        }
        if kg > SOME_KG {
            parts.push(Part { candidate, kg, litres: kg * litres(&candidates[candidate]) });
            mix_kg.push(kg);
        }
    }
    (!parts.is_empty()).then_some(Addition { parts, mix_kg, water_l })
}
