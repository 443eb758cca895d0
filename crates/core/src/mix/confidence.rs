//! How sure a mix is: book figures are ranges, and so is what they add up to.
//!
//! Every figure of every item is drawn from its range many times over, the mix
//! is summed each time, and what comes out is told: where the middle four
//! fifths lie, how often it fell in the windows, and which one test would
//! narrow it most. The [`ranges`](crate::stock::ranges) themselves and the tests are a
//! matter of stock.

mod draw;
mod helps;
mod ordered;
mod outline;
mod values;

pub use draw::KeptDraws;
pub use helps::{Help, NarrowingTest};

use crate::mix::Item;
use crate::mix::window::{Window, Windows};
use crate::stock::Uncertainty;
use draw::Draws;
use values::Values;

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
    let kept = KeptDraws::default();
    let drawn = Draws::new(&kept, (items, water_l), uncertainties, windows.basis, (draws, seed));
    let found = told(&drawn, windows)?;
    Some(Confidence { helps: helps::helps(&drawn, windows), ..found })
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
        told(&Draws::new(self, (items, water_l), uncertainties, windows.basis, (draws, seed)), windows)
    }
}

fn told(drawn: &Draws, windows: &Windows) -> Option<Confidence> {
    let draws = drawn.draws;
    let figures = Values::drawn(drawn, windows);
    if figures.count == 0 {
        return None;
    }
    let share = |of: usize| of as f64 / figures.count as f64;
    Some(Confidence {
        draws,
        outline: outline::around(figures.each(Window::Moisture), figures.each(Window::CN)),
        in_aim: share(figures.met),
        in_workable: share(figures.working),
        middles: figures.middles(),
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
    let drawn = Draws::new(kept, (items, water_l), uncertainties, windows.basis, (draws, SEED));
    let figures = Values::drawn(&drawn, windows);
    if figures.count == 0 { 0.0 } else { figures.working as f64 / figures.count as f64 }
}

#[cfg(test)]
mod tests;
