//! Which one test would make a mix surest.

use super::draw::{Draws, Part};
use super::{Middles, middles};
use crate::base::words::closed_list;
use crate::mix::window::{Window, Windows};
use crate::mix::{MixFigures, Totals};
use crate::stock::{ANALYSED, DRIED, Ranges, WEIGHED, around};

closed_list! {
    /// A test that narrows a figure.
    NarrowingTest {
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
    pub test: NarrowingTest,
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
pub(super) fn helps(drawn: &Draws, water_l: f64, windows: &Windows) -> Vec<Help> {
    let (mut mixes, mut sums): (Vec<MixFigures>, Vec<Totals>) = (Vec::new(), Vec::new());
    drawn.each_mix(TRIED, water_l, |mix| mixes.push(mix));
    drawn.each_sum(usize::MAX, 0.0, |totals| sums.push(totals));
    let now = spread(&mixes, windows);
    if now <= 0.0 {
        return Vec::new();
    }
    let mut tried: Vec<(f64, &Part, NarrowingTest, Ranges)> = Vec::new();
    for item in &drawn.items {
        for &test in NarrowingTest::ALL {
            let Some(ranges) = tested(item, test) else { continue };
            let then =
                spread(&Draws::mixes_with(&sums[..sums.len().min(TRIED)], item, &ranges, water_l), windows);
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
            then: middles(&Draws::mixes_with(&sums, item, &ranges, water_l), windows),
        })
        .collect()
}

/// The ranges of an item after a test; none if they would be no narrower.
fn tested(item: &Part, test: NarrowingTest) -> Option<Ranges> {
    let ranges = item.uncertainty().ranges;
    let (before, after) = match test {
        NarrowingTest::Drying => (ranges.moisture, around(ranges.moisture.typical, DRIED)),
        NarrowingTest::Weigh => {
            (ranges.density_kg_l, around(ranges.density_kg_l.typical, WEIGHED * ranges.density_kg_l.typical))
        }
        NarrowingTest::Analysis => {
            (ranges.nitrogen, around(ranges.nitrogen.typical, ANALYSED * ranges.nitrogen.typical))
        }
    };
    if after.high - after.low >= before.high - before.low {
        return None;
    }
    Some(match test {
        NarrowingTest::Drying => Ranges { moisture: after, ..ranges },
        NarrowingTest::Weigh => Ranges { density_kg_l: after, ..ranges },
        NarrowingTest::Analysis => Ranges { nitrogen: after, is_c_n_known: false, ..ranges },
    })
}

/// How far the draws scatter, each figure against the width of its window:
/// the sum of their variances.
fn spread(mixes: &[MixFigures], windows: &Windows) -> f64 {
    let of = |value: &dyn Fn(&MixFigures) -> f64, half: f64| {
        let count = mixes.len() as f64;
        let mean = mixes.iter().map(value).sum::<f64>() / count;
        mixes.iter().map(|mix| (value(mix) - mean).powi(2)).sum::<f64>() / count / half.powi(2)
    };
    Window::ALL
        .iter()
        .map(|&window| {
            let works = windows.workable(window);
            let value = |mix: &MixFigures| windows.value(window, mix);
            match (window, works.high) {
                (Window::CN, Some(high)) => {
                    of(&|mix| value(mix).max(1e-6).ln(), (high / works.low.max(1e-6)).ln() / 2.0)
                }
                (_, Some(high)) => of(&value, (high - works.low) / 2.0),
                (_, None) => of(&value, (windows.aim(window).low - works.low).max(0.02)),
            }
        })
        .sum()
}
