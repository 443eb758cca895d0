//! The figures of many draws, from their sums on.

use multiversion::multiversion;

use super::draw::Draws;
use super::{Middle, Middles, ordered};
use crate::mix::window::{AT_A_TIME, Block, Judged, ROWS, Window, Windows};

/// The figures of many draws; those that come to no mix are left out.
pub(super) struct Values {
    of: [Vec<f32>; ROWS.len()],
    /// How many there are.
    pub(super) count: usize,
    /// How many have every figure in its aim.
    pub(super) met: usize,
    /// How many have every figure in what works.
    pub(super) working: usize,
}

impl Values {
    /// None yet, with room for so many.
    fn none(draws: usize) -> Self {
        Self { of: [(); ROWS.len()].map(|()| Vec::with_capacity(draws)), count: 0, met: 0, working: 0 }
    }

    /// Those of all draws of a mix.
    pub(super) fn drawn(drawn: &Draws, windows: &Windows) -> Self {
        all_drawn(drawn, windows)
    }

    /// Those of sums that were drawn before.
    pub(super) fn of(sums: &[Block], draws: usize, windows: &Windows) -> Self {
        let mut found = Self::none(draws);
        for (sums, at) in sums.iter().zip((0..draws).step_by(AT_A_TIME)) {
            found.add(sums, draws - at, windows);
        }
        found
    }

    /// The first so many mixes of a block.
    #[inline(always)]
    fn add(&mut self, sums: &Block, first: usize, windows: &Windows) {
        let Judged { values, mut is_any, is_met, works } = windows.judged(sums);
        is_any[first.min(AT_A_TIME)..].fill(false);
        let counted =
            |of: &[bool; AT_A_TIME]| of.iter().zip(&is_any).filter(|(of, any)| **of & **any).count();
        self.count += counted(&is_any);
        self.met += counted(&is_met);
        self.working += counted(&works);
        for (all, values) in self.of.iter_mut().zip(&values) {
            if is_any == [true; AT_A_TIME] {
                all.extend_from_slice(values);
            } else {
                all.extend(values.iter().zip(&is_any).filter(|(_, any)| **any).map(|(value, _)| value));
            }
        }
    }

    /// One figure of each draw.
    pub(super) const fn each(&self, window: Window) -> &Vec<f32> {
        &self.of[window as usize]
    }

    /// Where the middle four fifths lie.
    pub(super) fn middles(&self) -> Middles {
        let of = |window| middle(self.each(window));
        Middles {
            c_n: of(Window::CN),
            moisture: of(Window::Moisture),
            free_air_space: of(Window::FreeAirSpace),
        }
    }
}

/// Built for processors that work through eight figures at a time beside those that do four: every machine
/// finds the same to the bit, the newer ones sooner.
#[multiversion(targets("x86_64+avx2"))]
fn all_drawn(drawn: &Draws, windows: &Windows) -> Values {
    one_by_one(drawn, windows)
}

#[inline(always)]
fn one_by_one(drawn: &Draws, windows: &Windows) -> Values {
    let (mut found, mut left) = (Values::none(drawn.draws), drawn.draws);
    drawn.each_sum(|sums| {
        found.add(sums, left, windows);
        left = left.saturating_sub(AT_A_TIME);
    });
    found
}

/// The draws a tenth from either end.
fn middle(values: &[f32]) -> Middle {
    let last = values.len() - 1;
    let tenth = (last as f64 * 0.1).round() as usize;
    let [low, high] = ordered::at_places(values, [tenth, last - tenth]);
    Middle { low: low.into(), high: high.into() }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::mix::Item;
    use crate::mix::confidence::{DRAWS, KeptDraws, SEED};
    use crate::stock::material::all;
    use crate::stock::{Counted, Own, Uncertainty, figures, ranges};

    /// As this processor does it best and as any would: a file that goes from one machine to another is told
    /// the same there.
    #[test]
    fn every_processor_finds_the_same_to_the_bit() {
        let own = Own::default();
        for rows in all().chunks(7) {
            let lots = rows.iter().enumerate().map(|(place, row)| {
                let figures = figures(Some(row), &own).expect("in the table");
                let counted = if place % 2 == 0 { Counted::ByVolume } else { Counted::ByMass };
                let uncertainty = Uncertainty { ranges: ranges(Some(row), &own, &figures), counted };
                (Item { wet_mass_kg: 3.0 + 7.0 * place as f64, figures }, uncertainty)
            });
            let (items, uncertainties): (Vec<_>, Vec<_>) = lots.unzip();
            let windows = Windows::default();
            let kept = KeptDraws::default();
            let drawn = Draws::new(&kept, (&items, 20.0), &uncertainties, windows.basis, (DRAWS - 3, SEED));
            let (best, plain) = (all_drawn(&drawn, &windows), one_by_one(&drawn, &windows));
            let bits =
                |of: &Values| of.of.clone().map(|all| all.into_iter().map(f32::to_bits).collect::<Vec<_>>());
            assert_eq!(bits(&best), bits(&plain), "{}", rows[0].id);
            assert_eq!((best.count, best.met, best.working), (plain.count, plain.met, plain.working));
        }
    }
}
