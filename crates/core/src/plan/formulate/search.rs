//! Which programmes are put to the solver for an aim, and for caution.

use super::programme::{Answer, Programme, Solved};
use super::whole::{self, Effort};
use super::{Aim, Wanted, gains, watered};
use crate::mix::Item;
use crate::mix::confidence::{self, KeptDraws};
use crate::mix::window::{Edges, Windows};
use crate::stock::Uncertainty;

/// Halvings of the way to the middle of the windows: a thousandth part.
const HALVINGS: u32 = 10;

/// The same in whole measures, which take steps larger than a thirtieth anyway.
const WHOLE_HALVINGS: u32 = 5;

/// The best mix by the aim.
pub(super) fn search(wanted: &Wanted) -> Answer {
    let asked = Asked { wanted, windows: wanted.windows, caution: 0.0 };
    match (wanted.is_cautious, wanted.aim) {
        (true, _) => cautious(asked),
        (false, Aim::Balanced) => balanced(asked),
        (false, _) => asked.best(Effort::Best),
    }
}

/// Whether any amounts would meet the windows.
pub(super) fn fits_in_any_amounts(wanted: &Wanted) -> bool {
    Asked { wanted, windows: wanted.windows, caution: 0.0 }.may_fit()
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
    /// The answer of the programme for its aim.
    fn best(&self, effort: Effort) -> Answer {
        self.solve(&self.programme(), effort)
    }

    /// Whether it has an answer in any amounts: without one there is none in whole measures.
    fn may_fit(&self) -> bool {
        matches!(self.solve(&self.programme().in_any_amounts(), Effort::First), Answer::Found(_))
    }

    fn programme(&self) -> Programme {
        Programme::new(self.wanted, &self.windows, self.caution)
    }

    fn solve(&self, programme: &Programme, effort: Effort) -> Answer {
        match whole::best(programme, &gains(self.wanted, self.wanted.aim), &[], effort) {
            Answer::Found(solved) if !programme.is_something(&solved) => Answer::Impossible,
            answer => answer,
        }
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
fn balanced(asked: Asked<'_>) -> Answer {
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
fn cautious(asked: Asked<'_>) -> Answer {
    let bold =
        match if asked.wanted.aim == Aim::Balanced { balanced(asked) } else { asked.best(Effort::Best) } {
            Answer::Found(bold) => bold,
            none => return none,
        };
    let with = |caution| Asked { caution, ..asked };
    let most = share_that_fits(HALVINGS, |caution| with(caution).may_fit());
    let kept = KeptDraws::default();
    let mut surest = (chance(&kept, asked.wanted, &bold), bold);
    for share in CAUTIONS {
        let Answer::Found(solved) = with(share * most).best(Effort::First) else { continue };
        let chance = chance(&kept, asked.wanted, &solved);
        if chance > surest.0 {
            surest = (chance, solved);
        }
    }
    Answer::Found(surest.1)
}

/// How often a mix, with what water it is given, lies in its workable bands.
fn chance(kept: &KeptDraws, wanted: &Wanted, solved: &Solved) -> f64 {
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
    confidence::workable(kept, &items, &uncertainties, water_l, &wanted.windows, TRIED)
}

/// The answer to the strictest question that has one. Any amounts show how far
/// it can go at all; whole measures are then looked for from there on.
fn furthest<'a>(of: impl Fn(f64) -> Asked<'a>) -> Answer {
    let fits = |share: f64| matches!(of(share).best(Effort::First), Answer::Found(_));
    let most = share_that_fits(HALVINGS, |share| of(share).may_fit());
    let share =
        if fits(most) { most } else { most * share_that_fits(WHOLE_HALVINGS, |share| fits(share * most)) };
    match (of(share).best(Effort::Best), share > 0.0) {
        // What was found with little effort is found with more, but for the solver's inexactness.
        (Answer::NotFound | Answer::Impossible, true) => of(0.0).best(Effort::Best),
        (answer, _) => answer,
    }
}

/// The largest share, 0 to 1, at which something still holds, to so many halvings; 0 if at none.
fn share_that_fits(halvings: u32, holds: impl Fn(f64) -> bool) -> f64 {
    if holds(1.0) {
        return 1.0;
    }
    let (mut fits, mut fails) = (0.0, 1.0);
    for _ in 0..halvings {
        let half = f64::midpoint(fits, fails);
        if holds(half) { fits = half } else { fails = half }
    }
    fits
}
