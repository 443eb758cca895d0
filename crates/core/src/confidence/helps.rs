//! Which one test would make a mix surest.

use super::draw::{Drawn, Draws};
use super::ranges::{ANALYSED, DRIED, Ranges, WEIGHED, around};
use super::{Middles, middles};
use crate::judge::Target;
use crate::mix::MixFigures;
use crate::words::closed_list;

closed_list! {
    /// A test that narrows a figure.
    Test {
        /// Dry a sample: moisture.
        Drying = "drying",
        /// Weigh one full measure: density.
        Weigh = "weigh",
        /// Have it analysed: nitrogen, and C:N with it.
        Analysis = "analysis",
    }
}

/// A test, and what it would bring.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Help {
    /// The item to be tested, by its place in the mix.
    pub item: usize,
    /// The test.
    pub test: Test,
    /// Share of the whole spread that it would take away [-].
    pub narrows: f64,
    /// Where the middle four fifths would then lie, if it finds the usual value.
    pub then: Middles,
}

/// Tests that take away less than this are not worth the walk [-].
const WORTH_IT: f64 = 0.05;

/// More than this many leave the choice to the person again.
const MOST: usize = 3;

/// Draws that are enough to put the tests in order.
const TRIED: usize = 400;

/// The tests that would narrow a mix most, best first.
pub(super) fn helps(drawn: &Draws, mixes: &[MixFigures], water_l: f64, target: &Target) -> Vec<Help> {
    let now = spread(&mixes[..mixes.len().min(TRIED)], target);
    if now <= 0.0 {
        return Vec::new();
    }
    let mut tried: Vec<(f64, &Drawn, Test, Ranges)> = Vec::new();
    for item in &drawn.items {
        for &test in Test::ALL {
            let Some(ranges) = tested(item, test) else { continue };
            let then = spread(&drawn.mixes_with(item, &ranges, water_l, TRIED), target);
            let narrows = 1.0 - then / now;
            if narrows >= WORTH_IT {
                tried.push((narrows, item, test, ranges));
            }
        }
    }
    tried.sort_by(|a, b| b.0.total_cmp(&a.0));
    tried
        .into_iter()
        .take(MOST)
        .map(|(narrows, item, test, ranges)| Help {
            item: item.place,
            test,
            narrows,
            then: middles(&drawn.mixes_with(item, &ranges, water_l, usize::MAX), target),
        })
        .collect()
}

/// The ranges of an item after a test; none if they would be no narrower.
fn tested(item: &Drawn, test: Test) -> Option<Ranges> {
    let ranges = item.doubt.ranges;
    let (before, after) = match test {
        Test::Drying => (ranges.moisture, around(ranges.moisture.typical, DRIED)),
        Test::Weigh => {
            (ranges.density_kg_l, around(ranges.density_kg_l.typical, WEIGHED * ranges.density_kg_l.typical))
        }
        Test::Analysis => {
            (ranges.nitrogen, around(ranges.nitrogen.typical, ANALYSED * ranges.nitrogen.typical))
        }
    };
    if after.high - after.low >= before.high - before.low {
        return None;
    }
    Some(match test {
        Test::Drying => Ranges { moisture: after, ..ranges },
        Test::Weigh => Ranges { density_kg_l: after, ..ranges },
        Test::Analysis => Ranges { nitrogen: after, is_c_n_known: false, ..ranges },
    })
}

/// How far the draws scatter, each figure against the width of its window:
/// the sum of their variances.
fn spread(mixes: &[MixFigures], target: &Target) -> f64 {
    let of = |value: &dyn Fn(&MixFigures) -> f64, half: f64| {
        let count = mixes.len() as f64;
        let mean = mixes.iter().map(value).sum::<f64>() / count;
        mixes.iter().map(|mix| (value(mix) - mean).powi(2)).sum::<f64>() / count / half.powi(2)
    };
    let c_n = target.workable_c_n();
    let moisture = target.workable_moisture();
    of(&|mix| target.c_n_of(mix).max(1e-6).ln(), (c_n.high() / c_n.low().max(1e-6)).ln() / 2.0)
        + of(&|mix| mix.moisture, (moisture.high() - moisture.low()) / 2.0)
        + of(
            &|mix| mix.free_air_space,
            (target.free_air_space_min - target.workable_free_air_space()).max(0.02),
        )
}
