//! Dividing a part over cycles without losing a gram or, if it can be helped, a measure.

use super::{Frame, LayerItem};
use crate::base::quantity::Fraction;
use crate::plan::method::Build;

/// A part's share of a cycle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Share {
    /// Fresh mass [g].
    pub(crate) grams: u64,
    /// Measures, if it is counted in them.
    pub(crate) measures: Option<f64>,
}

/// A load that one person mixes with a fork on a sheet or a clean floor [L].
const LOAD_L: f64 = 150.0;

/// How badly a number of cycles suits: layers outside their thickness, each by
/// its share of the heap, and measures that have to be split. Too thick weighs
/// most, since thick layers do not mix; a small lot lies thin in any case. Loads
/// have no thickness but a size. The weights are our judgement.
pub(super) fn unease(parts: &[LayerItem], order: &[usize], frame: &Frame, build: Build, cycles: u32) -> f64 {
    const TOO_THICK: f64 = 4.0;
    const TOO_THIN: f64 = 0.5;
    const SPLIT_MEASURE: f64 = 0.02;
    const ONE_MORE_CYCLE: f64 = 0.01;
    const LOAD_SIZE: f64 = 0.15;
    const SPLIT_IN_LOAD: f64 = 0.05;
    let n = f64::from(cycles);
    let measures = || order.iter().filter_map(|&part| parts[part].measures);
    if build == Build::Mixed {
        let loose: f64 = order.iter().map(|&part| parts[part].item.volume_l()).sum();
        let splits: f64 = measures().map(|measures| splitting(measures / n)).sum();
        return LOAD_SIZE * (loose / n / LOAD_L).max(1e-9).ln().abs() + SPLIT_IN_LOAD * splits;
    }
    let split = SPLIT_MEASURE * measures().filter(|measures| !is_whole(measures / n)).count() as f64;
    let whole: f64 = order.iter().map(|&part| parts[part].item.heap_volume_l()).sum();
    let shape = frame.shape;
    let high = shape.height_of_cm(frame.foundation_l + whole) - shape.height_of_cm(frame.foundation_l);
    let of = |&index: &usize| {
        let volume = parts[index].item.heap_volume_l();
        let thickness = high * volume / whole / n;
        let range = parts[index].thickness_cm();
        let outside = if thickness > range.high() {
            TOO_THICK * (thickness / range.high()).ln()
        } else if thickness < range.low() && thickness > 0.0 {
            TOO_THIN * (range.low() / thickness).ln()
        } else {
            0.0
        };
        outside * volume / whole
    };
    order.iter().map(of).sum::<f64>() + split + ONE_MORE_CYCLE * n
}

fn is_whole(count: f64) -> bool {
    (count - count.round()).abs() < 1e-9
}

/// How awkward a number of measures is to fill: whole ones not at all, halves
/// and quarters somewhat.
fn splitting(count: f64) -> f64 {
    [(1.0, 0.0), (2.0, 0.3), (4.0, 0.6)]
        .into_iter()
        .find(|(per_measure, _)| is_whole(count * per_measure))
        .map_or(1.0, |(_, awkward)| awkward)
}

/// A part's share of each of so many loads: alike, in whole, half or quarter
/// measures where that goes up.
pub(super) fn alike(part: &LayerItem, loads: u32) -> Vec<Share> {
    let ones = vec![1; loads as usize];
    let each = part.measures.map(|measures| measures / f64::from(loads));
    match each {
        Some(each) if splitting(each) < 1.0 => proportional(part.grams(), &ones)
            .into_iter()
            .map(|grams| Share { grams, measures: Some(each) })
            .collect(),
        _ => over(part.grams(), part.measures, &vec![1.0 / f64::from(loads); loads as usize], 0.0),
    }
}

/// So many grams' share of each cycle, and after them of the cap, of which it keeps `kept` [-].
///
/// Counted in the coarsest of whole, half and quarter measures that gives every
/// cycle some; else by weight alone.
pub(crate) fn over(total: u64, measures: Option<f64>, by_cycle: &[f64], kept: f64) -> Vec<Share> {
    /// Fine enough for sloping sides, coarse enough that equal shares are equal.
    const PARTS_OF_A_CYCLE: f64 = 1000.0;
    let scale = PARTS_OF_A_CYCLE * by_cycle.len() as f64;
    let mut weights: Vec<u64> =
        by_cycle.iter().map(|share| (share * (1.0 - kept) * scale).round() as u64).collect();
    if kept > 0.0 {
        weights.push((kept * scale).round() as u64);
    }
    let Some(measures) = measures else {
        return proportional(total, &weights)
            .into_iter()
            .map(|grams| Share { grams, measures: None })
            .collect();
    };
    for per_measure in [1.0, 2.0, 4.0] {
        let units = measures * per_measure;
        if (units - units.round()).abs() < 1e-9 && units.round() as usize >= weights.len() {
            let counts = proportional(units.round() as u64, &weights);
            let grams = proportional(total, &counts);
            return counts
                .into_iter()
                .zip(grams)
                .map(|(count, grams)| Share { grams, measures: Some(count as f64 / per_measure) })
                .collect();
        }
    }
    let sum: u64 = weights.iter().sum();
    proportional(total, &weights)
        .into_iter()
        .zip(&weights)
        .map(|(grams, &weight)| Share { grams, measures: Some(measures * weight as f64 / sum.max(1) as f64) })
        .collect()
}

/// Splits a whole number in proportion to weights, losing nothing: each gets its
/// share rounded down, and what is left goes to the largest remainders, the lower
/// layer first where they are alike.
pub(crate) fn proportional(total: u64, weights: &[u64]) -> Vec<u64> {
    let sum: u128 = weights.iter().map(|&weight| u128::from(weight)).sum();
    if sum == 0 {
        return vec![0; weights.len()];
    }
    let exact = |&weight: &u64| u128::from(total) * u128::from(weight);
    let mut shares: Vec<u64> = weights.iter().map(|weight| (exact(weight) / sum) as u64).collect();
    let left = total - shares.iter().sum::<u64>();
    let mut by_remainder: Vec<usize> = (0..weights.len()).collect();
    by_remainder.sort_by_key(|&place| std::cmp::Reverse(exact(&weights[place]) % sum));
    for place in by_remainder.into_iter().take(left as usize) {
        shares[place] += 1;
    }
    shares
}

/// Water that brings so much stuff to the moisture of the whole mix; none for what is wetter [mL].
pub(crate) fn thirst_ml(grams: f64, own: Fraction, moisture: f64) -> u64 {
    (grams * own.rest() / (1.0 - moisture).max(1e-6) - grams).max(0.0).round() as u64
}

/// Water poured where it is needed, each the more the drier it is; where nothing
/// is dry, by weight [mL].
pub(crate) fn poured(total_ml: u64, thirsts: &[u64], grams: &[u64]) -> Vec<u64> {
    let is_dry = thirsts.iter().any(|&thirst| thirst > 0);
    proportional(total_ml, if is_dry { thirsts } else { grams })
}
