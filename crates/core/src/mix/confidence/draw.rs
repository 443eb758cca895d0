//! Drawing the figures of a mix from their ranges, each thing by itself: what did not change is not drawn again.

use std::sync::{Arc, Mutex};

use rand_core::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;

use crate::mix::window::{AT_A_TIME, Basis, Block, Drawn, NO_SUMS, Quotients, Weighed};
use crate::mix::{Item, Totals};
use crate::stock::{Counted, Figures, Pull, Ranges, Uncertainty};

/// Draws of things that were asked about lately, to be drawn only once.
///
/// Sums are linear in the mass, so that a kilogram is drawn, and a tap on the bench that changes
/// an amount weighs what is there. What is drawn hangs on the figures, their ranges and the seed
/// alone: with or without what is kept, the answer is the same.
///
/// # Example
/// ```
/// use zymarch_core::{mix::{Item, confidence::*, window::Windows}, stock::{self, Uncertainty, material}};
/// let figures = stock::figures(material::find("sheep-manure"), &stock::Own::default())?;
/// let (item, sure) = (Item { wet_mass_kg: 5.0, figures }, Uncertainty::none(&figures));
/// let kept = KeptDraws::default();
/// let ask = |kept: &KeptDraws| kept.confidence(&[item], &[sure], 1.0, &Windows::default(), DRAWS, SEED);
/// assert_eq!(ask(&kept), ask(&KeptDraws::default()));
/// # Ok::<(), zymarch_core::base::fault::Fault>(())
/// ```
#[derive(Debug, Default)]
pub struct KeptDraws(Mutex<Vec<Arc<Kept>>>);

/// So many things are kept: those of a few benches, a few megabytes.
const MOST_KEPT: usize = 40;

impl KeptDraws {
    /// The draws of something, kept or drawn now.
    fn of(&self, asked: Asked) -> Arc<Kept> {
        let Ok(mut kept) = self.0.lock() else { return Arc::new(asked.drawn()) };
        if let Some(place) = kept.iter().position(|drawn| drawn.asked == asked) {
            // What is asked for again stays longest.
            let drawn = kept.remove(place);
            kept.push(Arc::clone(&drawn));
            return drawn;
        }
        drop(kept);
        let drawn = Arc::new(asked.drawn());
        if let Ok(mut kept) = self.0.lock() {
            if kept.len() >= MOST_KEPT {
                kept.remove(0);
            }
            kept.push(Arc::clone(&drawn));
        }
        drawn
    }
}

/// What is to be drawn.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Asked {
    figures: Figures,
    uncertainty: Uncertainty,
    /// Which of several things with the same figures: each has a stream of its own.
    nth: u64,
    draws: usize,
    seed: u64,
    /// Which C:N counts.
    basis: Basis,
}

impl Asked {
    fn drawn(self) -> Kept {
        Kept { asked: self, drawn: Drawn::of(&self.with(&self.uncertainty.ranges, self.draws)) }
    }

    /// A kilogram, as it is reckoned with, drawn from these ranges so many times; the last block is
    /// filled up.
    fn with(self, ranges: &Ranges, draws: usize) -> Vec<Block> {
        let mut random = self.stream();
        let mut drawn = || {
            let pull =
                Pull { richness: pull(&mut random), carbon: pull(&mut random), water: pull(&mut random) };
            let figures = ranges.at(&self.figures, pull);
            let wet_mass_kg = match self.uncertainty.counted {
                Counted::ByMass => 1.0,
                Counted::ByVolume => figures.density_kg_l.value / self.figures.density_kg_l.value,
            };
            Quotients::of(&Totals::of(&Item { wet_mass_kg, figures }), self.basis)
        };
        let mut blocks = vec![NO_SUMS; blocks_of(draws)];
        for block in &mut blocks {
            (0..AT_A_TIME).for_each(|place| drawn().put(block, place));
        }
        blocks
    }

    /// A stream of its own for each thing, whatever else is in the mix.
    fn stream(&self) -> Pcg64Mcg {
        let Figures { moisture, nitrogen, c_n, ash, density_kg_l, settle, .. } = &self.figures;
        let of = [
            moisture.value.get(),
            nitrogen.value.get(),
            c_n.value,
            ash.value.get(),
            density_kg_l.value,
            settle.value,
        ];
        let mix = |sum: u64, bits: u64| (sum ^ bits).wrapping_mul(0x9E37_79B9_7F4A_7C15).rotate_left(29);
        let sum = of.map(f64::to_bits).into_iter().fold(self.seed, mix);
        Pcg64Mcg::seed_from_u64(mix(sum, self.nth))
    }
}

/// Blocks that hold so many draws.
fn blocks_of(draws: usize) -> usize {
    draws.div_ceil(AT_A_TIME)
}

/// What was asked, and what was drawn.
#[derive(Debug)]
struct Kept {
    asked: Asked,
    drawn: Drawn,
}

/// A mix, drawn many times over.
pub(super) struct Draws {
    /// The items that have any mass, with their places in the mix.
    pub(super) items: Vec<Part>,
    /// How many there are.
    pub(super) draws: usize,
    water: Quotients,
}

/// An item of a mix that is drawn.
pub(super) struct Part {
    /// Its place in the mix.
    pub(super) place: usize,
    wet_mass_kg: f64,
    kept: Arc<Kept>,
}

impl Part {
    /// What is not sure about it.
    pub(super) fn uncertainty(&self) -> &Uncertainty {
        &self.kept.asked.uncertainty
    }
}

impl Draws {
    pub(super) fn new(
        kept: &KeptDraws,
        (items, water_l): (&[Item], f64),
        uncertainties: &[Uncertainty],
        basis: Basis,
        (draws, seed): (usize, u64),
    ) -> Self {
        let mut parts: Vec<Part> = Vec::new();
        for (place, (item, uncertainty)) in items.iter().zip(uncertainties).enumerate() {
            if item.wet_mass_kg <= 0.0 {
                continue;
            }
            let alike = |other: &&Part| other.kept.asked.figures == item.figures;
            let nth = parts.iter().filter(alike).count() as u64;
            let asked = Asked { figures: item.figures, uncertainty: *uncertainty, nth, draws, seed, basis };
            parts.push(Part { place, wet_mass_kg: item.wet_mass_kg, kept: kept.of(asked) });
        }
        Self { items: parts, draws, water: Quotients::of(&Totals::of_water(water_l), basis) }
    }

    /// The sums of all draws, in their order; water is no draw, and every sum begins with it.
    ///
    /// This was most of what a tap on the bench costs: hence blocks, each done with before the next.
    #[inline(always)]
    pub(super) fn each_sum(&self, mut each: impl FnMut(&Block)) {
        let mut least = self.water;
        self.items.iter().for_each(|part| part.kept.drawn.add_least(&mut least, part.wet_mass_kg));
        let all: Vec<Weighed<'_>> =
            self.items.iter().map(|part| part.kept.drawn.weighed(part.wet_mass_kg)).collect();
        for at in 0..blocks_of(self.draws) {
            each(&Weighed::sums(&all, at, |column| least.repeated(column)));
        }
    }

    /// Those sums with other ranges for one item. The same draws are taken, so that what differs
    /// is the ranges alone.
    pub(super) fn sums_with(sums: &[Block], changed: &Part, ranges: &Ranges) -> Vec<Block> {
        let Part { wet_mass_kg: kg, kept, .. } = changed;
        let now = Drawn::of(&kept.asked.with(ranges, sums.len() * AT_A_TIME));
        let mut differs = Quotients::of(&Totals::default(), kept.asked.basis);
        kept.drawn.add_least(&mut differs, -kg);
        now.add_least(&mut differs, *kg);
        let change = [kept.drawn.weighed(-kg), now.weighed(*kg)];
        let begin = |sum: &Block, column: usize| {
            let mut sums = sum[column];
            sums.iter_mut().zip(differs.repeated(column)).for_each(|(sum, differs)| *sum += differs);
            sums
        };
        let changed = |(at, sum)| Weighed::sums(&change, at, |column| begin(sum, column));
        sums.iter().enumerate().map(changed).collect()
    }
}

/// From −1 to 1, most often near 0: the sum of two even draws is a triangle.
fn pull(random: &mut Pcg64Mcg) -> f64 {
    even(random) + even(random) - 1.0
}

/// From 0 to 1, in steps of 2⁻⁵³, the finest that all lie evenly in an `f64`.
fn even(random: &mut Pcg64Mcg) -> f64 {
    (random.next_u64() >> 11) as f64 / (1_u64 << 53) as f64
}
