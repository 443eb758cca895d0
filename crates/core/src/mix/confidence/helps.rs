//! Which one test would make a mix surest.

use super::draw::{Draws, Part};
use super::{Middles, Values};
use crate::base::words::closed_list;
use crate::mix::window::{AT_A_TIME, Block, Window, Windows};
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
pub(super) fn helps(drawn: &Draws, windows: &Windows) -> Vec<Help> {
    let mut sums: Vec<Block> = Vec::new();
    drawn.each_sum(|block| sums.push(*block));
    let tried = TRIED.min(drawn.draws);
    let few = &sums[..tried.div_ceil(AT_A_TIME)];
    let now = spread(&Values::of(few, tried, windows), windows);
    if now.is_nan() || now <= 0.0 {
        return Vec::new();
    }
    let mut found: Vec<(f64, &Part, NarrowingTest, Ranges)> = Vec::new();
    for item in &drawn.items {
        for &test in NarrowingTest::ALL {
            let Some(ranges) = tested(item, test) else { continue };
            let then = Values::of(&Draws::sums_with(few, item, &ranges), tried, windows);
            let narrows = 1.0 - spread(&then, windows) / now;
            if narrows >= WORTH_IT {
                found.push((narrows, item, test, ranges));
            }
        }
    }
    found.sort_by(|a, b| b.0.total_cmp(&a.0));
    let then = |item: &Part, ranges: &Ranges| {
        Values::of(&Draws::sums_with(&sums, item, ranges), drawn.draws, windows).middles()
    };
    found
        .into_iter()
        .take(MOST)
        .map(|(narrows, item, test, ranges)| Help {
            item: item.place,
            test,
            narrows,
            then: then(item, &ranges),
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
fn spread(figures: &Values, windows: &Windows) -> f64 {
    let of = |values: &[f32], said: fn(f64) -> f64, half: f64| {
        let count = values.len() as f64;
        let said = |value: &f32| said(f64::from(*value));
        let mean = values.iter().map(said).sum::<f64>() / count;
        values.iter().map(|value| (said(value) - mean).powi(2)).sum::<f64>() / count / half.powi(2)
    };
    Window::ALL
        .iter()
        .map(|&window| {
            let (works, values) = (windows.workable(window), figures.each(window));
            match (window, works.high) {
                (Window::CN, Some(high)) => {
                    of(values, |value| value.max(1e-6).ln(), (high / works.low.max(1e-6)).ln() / 2.0)
                }
                (_, Some(high)) => of(values, |value| value, (high - works.low) / 2.0),
                (_, None) => of(values, |value| value, (windows.aim(window).low - works.low).max(0.02)),
            }
        })
        .sum()
}
