//! Which programmes are put to the solver for an aim, and for caution.

use super::programme::{Programme, Solved};
use super::{Aim, Wanted, gains, watered};
use crate::mix::Item;
use crate::mix::confidence;
use crate::mix::window::{Edges, Windows};
use crate::stock::Uncertainty;

/// Branches looked at before a search in whole measures is cut short. The
/// count, not the clock, so that the same question has the same answer.
pub(super) const MOST_BRANCHES: u64 = 600;

/// Halvings of the way to the middle of the windows: a thousandth part.
const HALVINGS: u32 = 10;

/// The same in whole measures, which take steps larger than a thirtieth anyway.
const WHOLE_HALVINGS: u32 = 5;

/// The best mix by the aim; none if the windows cannot be met.
pub(super) fn search(wanted: &Wanted) -> Option<Solved> {
    let asked = Asked { wanted, windows: wanted.windows, caution: 0.0 };
    match (wanted.is_cautious, wanted.aim) {
        (true, _) => cautious(asked),
        (false, Aim::Balanced) => balanced(asked),
        (false, _) => asked.best(),
    }
}

/// What is wanted, with the windows and the caution tried.
#[derive(Debug, Clone, Copy)]
struct Asked<'a> {
    wanted: &'a Wanted,
    windows: Windows,
    /// Share of every range that the windows must stand up to [-].
    caution: f64,
}

impl Asked<'_> {
    /// The answer of the programme for its aim; none if the windows cannot be met.
    fn best(&self) -> Option<Solved> {
        self.solve(MOST_BRANCHES, |step| step)
    }

    /// The same in any amounts: what no whole measures can better.
    fn relaxed(&self) -> Option<Solved> {
        self.solve(0, |_| None)
    }

    fn solve(&self, branches: u64, step: impl Fn(Option<f64>) -> Option<f64>) -> Option<Solved> {
        let mut programme = Programme::new(self.wanted, &self.windows, self.caution);
        programme.steps.iter_mut().for_each(|one| *one = step(*one));
        let solved = programme.solve(&gains(self.wanted, self.wanted.aim), branches)?;
        programme.is_something(&solved).then_some(solved)
    }
}

/// The windows with their edges drawn in to a share of the way from the middle;
/// those that are open on one side stay as they are.
fn drawn_in(windows: &Windows, share: f64) -> Windows {
    windows.each(|_, aim| match aim.high {
        None => aim,
        Some(high) => {
            let half = (high - aim.low) / 2.0 * share;
            Edges { low: aim.middle() - half, high: Some(aim.middle() + half) }
        }
    })
}

/// As near the middle of C:N and moisture as can be: windows are drawn in
/// towards it until nothing fits any more, and the largest mix of the
/// narrowest ones is taken.
fn balanced(asked: Asked<'_>) -> Option<Solved> {
    let widest = asked.windows;
    furthest(|strictness| Asked { windows: drawn_in(&widest, 1.0 - strictness), ..asked })
}

/// Shares of the caution possible that are tried [-]. Worst cases are only a
/// likeness of what the draws do, so a little less caution may be surer.
const CAUTIONS: [f64; 4] = [1.0, 0.8, 0.6, 0.3];

/// Draws that tell one mix from another.
const TRIED: usize = 500;

/// The mix that stays in its workable bands most often, when all figures are
/// drawn from their ranges: of the best one by the aim, and of those that are
/// best by it while they stand up to figures that are off together, each the
/// worst way for the window looked at, by a share of its range.
///
/// # Source
/// Soyster A.L. 1973, Convex programming with set-inclusive constraints,
/// Operations Research 21: a linear programme whose figures lie in boxes,
/// here shrunk to a share of the ranges.
fn cautious(asked: Asked<'_>) -> Option<Solved> {
    let bold = if asked.wanted.aim == Aim::Balanced { balanced(asked) } else { asked.best() }?;
    let with = |caution| Asked { caution, ..asked };
    let most = share_that_fits(|caution| with(caution).relaxed().is_some());
    let mut surest = (chance(asked.wanted, &bold), bold);
    for share in CAUTIONS {
        let Some(solved) = with(share * most).best() else { continue };
        let chance = chance(asked.wanted, &solved);
        if chance > surest.0 {
            surest = (chance, solved);
        }
    }
    Some(surest.1)
}

/// How often a mix, with what water it is given, lies in its workable bands.
fn chance(wanted: &Wanted, solved: &Solved) -> f64 {
    let (items, uncertainties): (Vec<Item>, Vec<Uncertainty>) = wanted
        .lots
        .iter()
        .zip(&solved.kg)
        .map(|(lot, &kg)| {
            (
                Item { wet_mass_kg: kg, figures: lot.figures },
                lot.uncertainty.unwrap_or(Uncertainty::none(&lot.figures)),
            )
        })
        .unzip();
    let water_l = watered(wanted, solved);
    confidence::workable(&items, &uncertainties, water_l, &wanted.windows, TRIED)
}

/// The answer to the strictest question that has one. Any amounts show how far
/// it can go at all; whole measures are then looked for from there on.
fn furthest<'a>(of: impl Fn(f64) -> Asked<'a>) -> Option<Solved> {
    let mut found = of(0.0).best()?;
    let most = share_that_fits(|share| of(share).relaxed().is_some());
    if let Some(solved) = of(most).best() {
        return Some(solved);
    }
    let (mut fits, mut fails) = (0.0, most);
    for _ in 0..WHOLE_HALVINGS {
        let half = f64::midpoint(fits, fails);
        match of(half).best() {
            Some(solved) => {
                found = Solved { is_proven: found.is_proven && solved.is_proven, ..solved };
                fits = half;
            }
            None => fails = half,
        }
    }
    Some(found)
}

/// The largest share, 0 to 1, at which something still holds; 0 if at none.
fn share_that_fits(holds: impl Fn(f64) -> bool) -> f64 {
    if holds(1.0) {
        return 1.0;
    }
    let (mut fits, mut fails) = (0.0, 1.0);
    for _ in 0..HALVINGS {
        let half = f64::midpoint(fits, fails);
        if holds(half) { fits = half } else { fails = half }
    }
    fits
}
