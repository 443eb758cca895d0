//! Drawing the figures of a mix from their ranges.

use rand_core::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;

use crate::mix::{Item, MixFigures, Totals};
use crate::stock::{Counted, Pull, Ranges, Uncertainty};

/// A mix, drawn many times over.
pub(super) struct Draws {
    /// The items that have any mass, with their places in the mix.
    pub(super) items: Vec<Drawn>,
    /// What all items of a draw come to.
    totals: Vec<Totals>,
}

/// One item, drawn many times over.
pub(super) struct Drawn {
    /// Its place in the mix.
    pub(super) place: usize,
    /// As it is reckoned with.
    pub(super) item: Item,
    /// What is not sure about it.
    pub(super) uncertainty: Uncertainty,
    pulls: Vec<Pull>,
    totals: Vec<Totals>,
}

impl Draws {
    pub(super) fn new(items: &[Item], uncertainties: &[Uncertainty], draws: usize, seed: u64) -> Self {
        let mut random = Pcg64Mcg::seed_from_u64(seed);
        let mut totals = vec![Totals::default(); draws];
        let mut drawn = Vec::new();
        for (place, (item, uncertainty)) in items.iter().zip(uncertainties).enumerate() {
            if item.wet_mass_kg <= 0.0 {
                continue;
            }
            let pulls: Vec<Pull> = (0..draws)
                .map(|_| Pull {
                    richness: pull(&mut random),
                    carbon: pull(&mut random),
                    water: pull(&mut random),
                })
                .collect();
            let one = Drawn { place, item: *item, uncertainty: *uncertainty, totals: Vec::new(), pulls };
            let parts: Vec<Totals> = one.with(&uncertainty.ranges, draws).collect();
            for (sum, part) in totals.iter_mut().zip(&parts) {
                *sum = sum.plus(*part);
            }
            drawn.push(Drawn { totals: parts, ..one });
        }
        Self { items: drawn, totals }
    }

    /// The mixes that were drawn.
    pub(super) fn mixes(&self, water_l: f64) -> Vec<MixFigures> {
        let water = Totals::of_water(water_l);
        self.totals.iter().filter_map(|totals| totals.plus(water).figures().ok()).collect()
    }

    /// The first of them, with other ranges for one item. The same draws are
    /// taken, so that what differs is the ranges alone.
    pub(super) fn mixes_with(
        &self,
        changed: &Drawn,
        ranges: &Ranges,
        water_l: f64,
        draws: usize,
    ) -> Vec<MixFigures> {
        let draws = draws.min(self.totals.len());
        let (parts, water) = (changed.with(ranges, draws), Totals::of_water(water_l));
        self.totals
            .iter()
            .zip(&changed.totals)
            .zip(parts)
            .filter_map(|((all, before), now)| all.minus(*before).plus(now).plus(water).figures().ok())
            .collect()
    }
}

impl Drawn {
    fn with<'a>(&'a self, ranges: &'a Ranges, draws: usize) -> impl Iterator<Item = Totals> + 'a {
        self.pulls[..draws].iter().map(|pull| {
            let figures = ranges.at(&self.item.figures, *pull);
            let wet_mass_kg = match self.uncertainty.counted {
                Counted::ByMass => self.item.wet_mass_kg,
                Counted::ByVolume => self.item.volume_l() * figures.density_kg_l.value,
            };
            Totals::of(&Item { wet_mass_kg, figures })
        })
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
