//! Drawing the figures of a mix from their ranges, each thing by itself: what did not change is not drawn again.

use std::sync::{Arc, Mutex};

use rand_core::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;

use crate::mix::{Item, MixFigures, Totals};
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
pub struct KeptDraws(Mutex<Vec<Arc<Drawn>>>);

/// So many things are kept: those of a few benches, a few megabytes.
const MOST_KEPT: usize = 40;

/// Draws that are summed together.
const AT_A_TIME: usize = 50;

impl KeptDraws {
    /// The draws of something, kept or drawn now.
    fn of(&self, asked: Asked) -> Arc<Drawn> {
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
}

impl Asked {
    fn drawn(self) -> Drawn {
        let rows =
            self.with(&self.uncertainty.ranges, self.draws).map(|of| of.in_a_row().map(|sum| sum as f32));
        Drawn { asked: self, rows: rows.collect() }
    }

    /// A kilogram, as it is reckoned with, drawn from these ranges.
    fn with(self, ranges: &Ranges, draws: usize) -> impl Iterator<Item = Totals> + '_ {
        let mut random = self.stream();
        (0..draws).map(move |_| {
            let pull =
                Pull { richness: pull(&mut random), carbon: pull(&mut random), water: pull(&mut random) };
            let figures = ranges.at(&self.figures, pull);
            let wet_mass_kg = match self.uncertainty.counted {
                Counted::ByMass => 1.0,
                Counted::ByVolume => figures.density_kg_l.value / self.figures.density_kg_l.value,
            };
            Totals::of(&Item { wet_mass_kg, figures })
        })
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

/// A kilogram of something, drawn many times over.
#[derive(Debug)]
struct Drawn {
    asked: Asked,
    /// What each draw brings. Seven digits are more than any range has, and half the room.
    rows: Vec<Row>,
}

type Row = [f32; 16];

fn read(row: &Row) -> Totals {
    Totals::of_a_row(&row.map(f64::from))
}

/// A mix, drawn many times over.
pub(super) struct Draws {
    /// The items that have any mass, with their places in the mix.
    pub(super) items: Vec<Part>,
    draws: usize,
}

/// An item of a mix that is drawn.
pub(super) struct Part {
    /// Its place in the mix.
    pub(super) place: usize,
    wet_mass_kg: f64,
    drawn: Arc<Drawn>,
}

impl Part {
    /// What is not sure about it.
    pub(super) fn uncertainty(&self) -> &Uncertainty {
        &self.drawn.asked.uncertainty
    }
}

impl Draws {
    pub(super) fn new(
        kept: &KeptDraws,
        items: &[Item],
        uncertainties: &[Uncertainty],
        draws: usize,
        seed: u64,
    ) -> Self {
        let mut parts: Vec<Part> = Vec::new();
        for (place, (item, uncertainty)) in items.iter().zip(uncertainties).enumerate() {
            if item.wet_mass_kg <= 0.0 {
                continue;
            }
            let alike = |other: &&Part| other.drawn.asked.figures == item.figures;
            let nth = parts.iter().filter(alike).count() as u64;
            let asked = Asked { figures: item.figures, uncertainty: *uncertainty, nth, draws, seed };
            parts.push(Part { place, wet_mass_kg: item.wet_mass_kg, drawn: kept.of(asked) });
        }
        Self { items: parts, draws }
    }

    /// The sums of the first so many draws, in their order; water is no draw, and every sum begins with it.
    ///
    /// A loop over some sums at a time, which stay where the processor finds them at once: this is
    /// most of what a tap on the bench costs.
    pub(super) fn each_sum(&self, draws: usize, water_l: f64, mut each: impl FnMut(Totals)) {
        let water = Totals::of_water(water_l).in_a_row().map(|of| of as f32);
        let draws = draws.min(self.draws);
        for from in (0..draws).step_by(AT_A_TIME) {
            let to = (from + AT_A_TIME).min(draws);
            let mut sums = [water; AT_A_TIME];
            for part in &self.items {
                let kg = part.wet_mass_kg as f32;
                for (sum, row) in sums.iter_mut().zip(&part.drawn.rows[from..to]) {
                    for (sum, of_a_kg) in sum.iter_mut().zip(row) {
                        *sum += of_a_kg * kg;
                    }
                }
            }
            sums[..to - from].iter().for_each(|sum| each(read(sum)));
        }
    }

    /// What the mix comes to in each draw; those without nitrogen are left out.
    pub(super) fn each_mix(&self, draws: usize, water_l: f64, mut each: impl FnMut(MixFigures)) {
        self.each_sum(draws, water_l, |totals| {
            if let Ok(figures) = totals.figures() {
                each(figures);
            }
        });
    }

    /// Those of the first sums, with other ranges for one item. The same draws are
    /// taken, so that what differs is the ranges alone.
    pub(super) fn mixes_with(
        sums: &[Totals],
        changed: &Part,
        ranges: &Ranges,
        water_l: f64,
    ) -> Vec<MixFigures> {
        let (parts, water) = (changed.drawn.asked.with(ranges, sums.len()), Totals::of_water(water_l));
        let kg = changed.wet_mass_kg;
        sums.iter()
            .zip(&changed.drawn.rows)
            .zip(parts)
            .filter_map(|((all, before), now)| {
                all.with(read(before), -kg).with(now, kg).plus(water).figures().ok()
            })
            .collect()
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
