//! How sure a mix is: book figures are ranges, and so is what they add up to.
//!
//! Every figure of every item is drawn from its range many times over, the mix
//! is summed each time, and what comes out is told: where the middle four
//! fifths lie, how often it fell in the windows, and which one test would
//! narrow it most. The [`ranges`](crate::stock::ranges) themselves and the tests are a
//! matter of stock.

mod draw;
mod helps;
mod outline;

pub use draw::KeptDraws;
pub use helps::{Help, NarrowingTest};

use crate::mix::window::Windows;
use crate::mix::{Item, MixFigures};
use crate::stock::Uncertainty;
use draw::Draws;

/// Draws that are enough: the middle four fifths then move by less than a
/// twentieth of their width from one seed to the next.
pub const DRAWS: usize = 2000;

/// Items up to which all draws are made.
const ITEMS_OF_ALL_DRAWS: usize = 300;

/// Draws for a mix of so many items: [`DRAWS`], and fewer beyond what anybody mixes, so that
/// no mix takes longer than another. Its middle then moves by a tenth of its width.
///
/// # Example
/// ```
/// use zymarch_core::mix::confidence::draws_for;
/// assert_eq!((draws_for(12), draws_for(1000)), (2000, 600));
/// ```
#[must_use]
pub const fn draws_for(items: usize) -> usize {
    if items <= ITEMS_OF_ALL_DRAWS { DRAWS } else { DRAWS * ITEMS_OF_ALL_DRAWS / items }
}

/// The seed used where none is given, so that the same mix has the same answer.
pub const SEED: u64 = 1;

/// Where the middle four fifths of the draws lie.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Middle {
    /// One draw in ten lies below.
    pub low: f64,
    /// One draw in ten lies above.
    pub high: f64,
}

/// The middle four fifths of the three figures that have windows.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Middles {
    /// The C:N that the windows is set on [-].
    pub c_n: Middle,
    /// Water, share of fresh mass [-].
    pub moisture: Middle,
    /// Air, share of the heap volume [-].
    pub free_air_space: Middle,
}

/// A place in the balance field.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Place {
    /// Water, share of fresh mass [-].
    pub moisture: f64,
    /// The C:N that the windows is set on [-].
    pub c_n: f64,
}

/// How sure a mix is.
#[derive(Debug, Clone, PartialEq)]
pub struct Confidence {
    /// How many draws were made.
    pub draws: usize,
    /// Where the middle four fifths lie.
    pub middles: Middles,
    /// Share of the draws with every figure in its aim [-].
    pub in_aim: f64,
    /// Share of the draws with every figure at least in its workable band [-].
    pub in_workable: f64,
    /// A line around the four fifths of the draws nearest the middle of them.
    pub outline: Vec<Place>,
    /// The tests that would narrow it most, best first; none if they were not asked for.
    pub helps: Vec<Help>,
}

/// How sure a mix is, from `draws` draws; none if it has no figures at all.
///
/// # Formula
/// Nitrogen is drawn from its range, carbon within 5 %, and C:N is taken from
/// the two, since a material's carbon hardly changes; where its C:N is known
/// better than its nitrogen, the other way round. Moisture and density are drawn
/// together: what is wetter is heavier. What is counted in measures changes
/// weight with its density, what was weighed changes volume.
///
/// # Source
/// Monte Carlo propagation of distributions, JCGM 101:2008, Supplement 1 to the
/// Guide to the Expression of Uncertainty in Measurement. Each range is drawn
/// as two half triangles with their tops at the usual value, our judgement.
///
/// # Example
/// Straw of the book is 64 to 135 to 1; no mix of it is sure to a point.
/// ```
/// use zymarch_core::{mix::{Item, confidence::*, window::Windows}, stock::{self, Counted, Uncertainty, material, ranges}};
/// let own = stock::Own::default();
/// let straw = material::find("wheat-straw");
/// let figures = stock::figures(straw, &own)?;
/// let uncertainty = Uncertainty { ranges: ranges(straw, &own, &figures), counted: Counted::ByVolume };
/// let item = Item { wet_mass_kg: 20.0, figures };
/// let sure = confidence(&[item], &[uncertainty], 20.0, &Windows::default(), DRAWS, SEED).expect("has nitrogen");
/// assert!(sure.middles.c_n.low < 85.0 && sure.middles.c_n.high > 100.0);
/// # Ok::<(), zymarch_core::base::fault::Fault>(())
/// ```
#[must_use]
pub fn confidence(
    items: &[Item],
    uncertainties: &[Uncertainty],
    water_l: f64,
    windows: &Windows,
    draws: usize,
    seed: u64,
) -> Option<Confidence> {
    let drawn = Draws::new(&KeptDraws::default(), items, uncertainties, draws, seed);
    let found = told(&drawn, water_l, windows, draws)?;
    Some(Confidence { helps: helps::helps(&drawn, water_l, windows), ..found })
}

impl KeptDraws {
    /// The same, but for the tests that would help, with what was drawn before: quick enough for
    /// every tap.
    #[must_use]
    pub fn confidence(
        &self,
        items: &[Item],
        uncertainties: &[Uncertainty],
        water_l: f64,
        windows: &Windows,
        draws: usize,
        seed: u64,
    ) -> Option<Confidence> {
        told(&Draws::new(self, items, uncertainties, draws, seed), water_l, windows, draws)
    }
}

fn told(drawn: &Draws, water_l: f64, windows: &Windows, draws: usize) -> Option<Confidence> {
    let mut of = Values::of(draws);
    let (mut in_aim, mut in_workable) = (0_usize, 0_usize);
    drawn.each_mix(draws, water_l, |mix| {
        let is_met = windows.are_met(&mix);
        in_aim += usize::from(is_met);
        // What is in every aim works.
        in_workable += usize::from(is_met || windows.work(&mix));
        of.push(&mix, windows);
    });
    let count = of.c_n.len();
    if count == 0 {
        return None;
    }
    let places: Vec<Place> =
        of.moisture.iter().zip(&of.c_n).map(|(&moisture, &c_n)| Place { moisture, c_n }).collect();
    Some(Confidence {
        draws,
        outline: outline::around(&places),
        middles: of.middles(),
        in_aim: in_aim as f64 / count as f64,
        in_workable: in_workable as f64 / count as f64,
        helps: Vec::new(),
    })
}

/// Share of the draws with every figure at least in its workable band [-], and nothing else.
pub(crate) fn workable(
    kept: &KeptDraws,
    items: &[Item],
    uncertainties: &[Uncertainty],
    water_l: f64,
    windows: &Windows,
    draws: usize,
) -> f64 {
    let drawn = Draws::new(kept, items, uncertainties, draws, SEED);
    let (mut works, mut count) = (0_usize, 0_usize);
    drawn.each_mix(draws, water_l, |mix| {
        works += usize::from(windows.work(&mix));
        count += 1;
    });
    if count == 0 { 0.0 } else { works as f64 / count as f64 }
}

/// The three figures of many draws.
#[derive(Default)]
struct Values {
    c_n: Vec<f64>,
    moisture: Vec<f64>,
    free_air_space: Vec<f64>,
}

impl Values {
    /// Room for so many.
    fn of(draws: usize) -> Self {
        let room = || Vec::with_capacity(draws);
        Self { c_n: room(), moisture: room(), free_air_space: room() }
    }

    fn push(&mut self, mix: &MixFigures, windows: &Windows) {
        self.c_n.push(windows.c_n_of(mix));
        self.moisture.push(mix.moisture);
        self.free_air_space.push(mix.free_air_space);
    }

    fn middles(self) -> Middles {
        Middles {
            c_n: middle(self.c_n),
            moisture: middle(self.moisture),
            free_air_space: middle(self.free_air_space),
        }
    }
}

fn middles(mixes: &[MixFigures], windows: &Windows) -> Middles {
    let mut of = Values::default();
    mixes.iter().for_each(|mix| of.push(mix, windows));
    of.middles()
}

/// The draws a tenth from either end.
fn middle(mut values: Vec<f64>) -> Middle {
    let tenth = ((values.len() - 1) as f64 * 0.1).round() as usize;
    let last = values.len() - 1;
    let low = *values.select_nth_unstable_by(tenth, f64::total_cmp).1;
    let high = *values.select_nth_unstable_by(last - tenth, f64::total_cmp).1;
    Middle { low, high }
}

#[cfg(test)]
mod tests;
