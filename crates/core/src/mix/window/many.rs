//! Many mixes judged at once: thousands of draws are asked the same of the same rows.
//!
//! A figure is a quotient of two sums, and what judges it asks for nothing else, so that of a
//! draw only those sums are kept, in columns, which a processor works through several at a time: what
//! does so is always inlined into one function, which is built for several kinds of processor.

use super::{ROWS, Row, Windows, stretches};
use crate::mix::Totals;
use crate::mix::window::{Basis, Edges};

/// Mixes that are summed and judged together: few enough to stay where the processor finds them at once.
pub(crate) const AT_A_TIME: usize = 40;

/// The sum above and the sum below the line of each window, and of what lets it lie further out.
const COLUMNS: usize = 4 * ROWS.len();

/// The sums of some mixes, a column each.
pub(crate) type Block = [[f32; AT_A_TIME]; COLUMNS];

/// Mixes of nothing.
pub(crate) const NO_SUMS: Block = [[0.0; AT_A_TIME]; COLUMNS];

/// Of one thing, or one mix, all sums that the windows divide. Seven digits are more than any range has.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Quotients([f32; COLUMNS]);

impl Quotients {
    /// Those of some totals.
    pub(crate) fn of(totals: &Totals, basis: Basis) -> Self {
        let mut columns = [0.0; COLUMNS];
        for (row, of) in ROWS.iter().zip(columns.chunks_exact_mut(4)) {
            of[0] = row.over(totals, basis) as f32;
            of[1] = row.under(totals, basis) as f32;
            if let Some(wider) = row.wider {
                of[2] = (wider.over)(totals) as f32;
                of[3] = (wider.under)(totals) as f32;
            }
        }
        Self(columns)
    }

    /// Puts them at a place of a block.
    pub(crate) fn put(&self, block: &mut Block, place: usize) {
        block.iter_mut().zip(&self.0).for_each(|(column, of)| column[place] = *of);
    }

    /// One of them, for each mix of a block.
    #[inline(always)]
    pub(crate) const fn repeated(&self, column: usize) -> [f32; AT_A_TIME] {
        [self.0[column]; AT_A_TIME]
    }
}

/// A kilogram of something, drawn many times over, kept in half the room: each sum as a place
/// between the least and the most that it was drawn as, finer than any range is known. What comes
/// to the same in every draw, as the room of what is counted by volume does, is kept once.
#[derive(Debug)]
pub(crate) struct Drawn {
    least: Quotients,
    /// What one place more stands for; zero of what is always the same.
    place: Quotients,
    blocks: Vec<[[u16; AT_A_TIME]; COLUMNS]>,
}

impl Drawn {
    /// Keeps what was drawn.
    pub(crate) fn of(blocks: &[Block]) -> Self {
        let (mut least, mut place) = ([0.0; COLUMNS], [0.0; COLUMNS]);
        for column in 0..COLUMNS {
            let (mut lows, mut highs) = ([f32::MAX; AT_A_TIME], [f32::MIN; AT_A_TIME]);
            for block in blocks {
                for ((low, high), sum) in lows.iter_mut().zip(&mut highs).zip(&block[column]) {
                    *low = if sum < low { *sum } else { *low };
                    *high = if sum > high { *sum } else { *high };
                }
            }
            let (low, high) =
                (lows.into_iter().fold(f32::MAX, f32::min), highs.into_iter().fold(f32::MIN, f32::max));
            least[column] = low;
            place[column] = (high - low).max(0.0) / f32::from(u16::MAX);
        }
        let place_of = |block: &Block, column: usize| {
            let (low, each) = (least[column], if place[column] > 0.0 { place[column].recip() } else { 0.0 });
            block[column].map(|sum| ((sum - low) * each + 0.5) as u16)
        };
        let blocks = blocks.iter().map(|block| std::array::from_fn(|column| place_of(block, column)));
        Self { least: Quotients(least), place: Quotients(place), blocks: blocks.collect() }
    }

    /// Adds to the sums that all draws begin with what so many kilograms bring to each of them.
    pub(crate) fn add_least(&self, to: &mut Quotients, kg: f64) {
        to.0.iter_mut().zip(&self.least.0).for_each(|(sum, least)| *sum += least * kg as f32);
    }

    /// So many kilograms of it, to be added to sums.
    pub(crate) fn weighed(&self, kg: f64) -> Weighed<'_> {
        Weighed { drawn: self, each: self.place.0.map(|place| place * kg as f32) }
    }
}

/// So much of something drawn, beyond the least that it brings.
pub(crate) struct Weighed<'a> {
    drawn: &'a Drawn,
    /// What one place more stands for.
    each: [f32; COLUMNS],
}

impl Weighed<'_> {
    /// The sums of some mixes: what each column begins with, and what all of these bring to it.
    /// One column after the other, so that its sums never leave the processor.
    #[inline(always)]
    pub(crate) fn sums(of: &[Self], at: usize, begin: impl Fn(usize) -> [f32; AT_A_TIME]) -> Block {
        std::array::from_fn(|column| {
            let mut sums = begin(column);
            for Weighed { drawn, each } in of {
                let each = each[column];
                if each != 0.0 {
                    let places = &drawn.blocks[at][column];
                    sums.iter_mut().zip(places).for_each(|(sum, place)| *sum += f32::from(*place) * each);
                }
            }
            sums
        })
    }
}

/// The figures of some mixes, a row for each window, and how they stand.
pub(crate) struct Judged {
    /// Each figure.
    pub(crate) values: [[f32; AT_A_TIME]; ROWS.len()],
    /// Whether there is such a mix at all: there is nitrogen in it, and it fills some room.
    pub(crate) is_any: [bool; AT_A_TIME],
    /// Whether each figure is in its aim.
    pub(crate) is_met: [bool; AT_A_TIME],
    /// Whether each figure is in what still works.
    pub(crate) works: [bool; AT_A_TIME],
}

impl Windows {
    /// How some mixes stand, as [`are_met`](Self::are_met) and [`work`](Self::work) say it of one.
    #[inline(always)]
    pub(crate) fn judged(&self, sums: &Block) -> Judged {
        let mut found = Judged {
            values: [[0.0; AT_A_TIME]; ROWS.len()],
            is_any: [true; AT_A_TIME],
            is_met: [true; AT_A_TIME],
            works: [true; AT_A_TIME],
        };
        for (at, (row, values)) in ROWS.iter().zip(&mut found.values).enumerate() {
            let [over, under, wider_over, wider_under] = [0, 1, 2, 3].map(|of| &sums[4 * at + of]);
            for (value, (over, under)) in values.iter_mut().zip(over.iter().zip(under)) {
                *value = over / under;
            }
            if row.bare.is_nan() {
                found.is_any.iter_mut().zip(under).for_each(|(is_any, under)| *is_any &= *under > 0.0);
            } else {
                let of = values.iter_mut().zip(under);
                of.for_each(|(value, under)| *value = if *under > 0.0 { *value } else { row.bare as f32 });
            }
            let (low, high) = row.held(self.aim(row.window));
            for (is_met, value) in found.is_met.iter_mut().zip(values.iter()) {
                *is_met &= (*value >= low) & (*value <= high);
            }
            let (low, high) = row.held(self.workable(row.window));
            if row.wider.is_some() && self.aim(row.window).high.is_some_and(stretches) {
                let play = row.play() as f32;
                let wider = wider_over.iter().zip(wider_under);
                for ((works, value), (over, under)) in found.works.iter_mut().zip(values.iter()).zip(wider) {
                    // Where nothing is known of it, the quotient is no number, and the edge stays.
                    let high = high.max(over / under + play);
                    *works &= (*value >= low) & (*value <= high);
                }
            } else {
                for (works, value) in found.works.iter_mut().zip(values.iter()) {
                    *works &= (*value >= low) & (*value <= high);
                }
            }
        }
        // What is in every aim works.
        found.works.iter_mut().zip(&found.is_met).for_each(|(works, is_met)| *works |= *is_met);
        found
    }
}

impl Row {
    /// The edges as a figure is held to them.
    fn held(&self, edges: Edges) -> (f32, f32) {
        let (low, high) = (edges.low - self.play(), edges.high.map(|high| high + self.play()));
        (low as f32, high.map_or(f32::INFINITY, |high| high as f32))
    }
}
