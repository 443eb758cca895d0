//! What to do to bring a mix to the middle: what to add, and what to do beside adding.
//!
//! For each thing that is wrong with a mix, every material is asked how much of
//! it alone would put that right; what then is still wrong, and how much has
//! to be carried, puts them in order. Where no single one does, two together may
//! ([`pair`]); drying, draining, soaking and chopping stand in [`beside`]. What would
//! push another figure out of what works is no correction. The single best whole step
//! of what is on hand is in [`mend`](crate::mix::mend); all amounts at once in
//! [`formulate`](crate::plan::formulate).

mod beside;
mod line;
mod pair;

use std::ops::Range;

use crate::base::line::Line;
use crate::base::quantity::Band;
use crate::base::words::closed_list;
use crate::mix::window::{Flaw, Standings, Window, Windows};
use crate::mix::{Item, MixFigures, Totals, water_to_add};
use crate::stock::Lot;

closed_list! {
    /// What is done.
    Act {
        /// Something goes in.
        Add = "add",
        /// Two things go in together.
        AddTwo = "add-two",
        /// Water goes in.
        Water = "water",
        /// Some of the water stays out.
        LessWater = "less-water",
        /// Something is spread to wilt or dry first.
        Wilt = "wilt",
        /// Water runs off something first.
        Drain = "drain",
        /// Something dry stands in water first.
        Soak = "soak",
        /// Something coarse is chopped.
        Chop = "chop",
    }
}

/// What to do.
#[derive(Debug, Clone, PartialEq)]
pub struct Correction {
    /// What is done.
    pub act: Act,
    /// Of adding: which of the things offered, by its place.
    pub with: Option<usize>,
    /// How much of it [kg]; of water, litres; of what is dried or drained, the water it loses.
    pub kg: f64,
    /// Of two together: the second, by its place, and how much of it [kg].
    pub and: Option<(usize, f64)>,
    /// What of the mix it is done to, by their places.
    pub items: Vec<usize>,
    /// About how many days it takes [d].
    pub days: Option<Band>,
    /// Water that should follow [L]; zero if none.
    pub then_water_l: f64,
    /// The mix afterwards.
    pub after: MixFigures,
    /// How it then stands.
    pub standings: Standings,
    /// How the amount comes about, before it is rounded to steps; none of what has no such sum.
    pub line: Option<Line>,
}

impl Correction {
    /// Whether everything is in its aim afterwards.
    #[must_use]
    pub fn puts_right(&self) -> bool {
        self.standings.are_right()
    }
}

/// A mix to be corrected, with what it is judged by.
#[derive(Debug, Clone, Copy)]
pub struct Asked<'a> {
    /// What is in it.
    pub items: &'a [Item],
    /// Water poured [L].
    pub water_l: f64,
    /// What may be added: what is on hand first, and then what could be fetched.
    pub offered: &'a [Lot],
    /// So many of these are on hand.
    pub on_hand: usize,
    /// The windows.
    pub windows: &'a Windows,
    /// Mean temperature of the air [°C], if it is known; drying takes longer in the cold.
    pub air_c: Option<f64>,
}

/// More than this many times the heap's own volume is another heap, not a correction [-].
const MOST_TIMES: f64 = 4.0;

/// The same by mass: nobody mends 100 kg with a cartload [-].
const MOST_TIMES_MASS: f64 = 2.0;

/// A doubled heap weighs as much as this many margins left to be mended.
const EFFORT: f64 = 1.0;

/// What leaves more than this share of what was wrong is not worth the work [-].
const WORTH_IT: f64 = 0.97;

/// A short list is read, a long one is not.
const MOST: usize = 6;

/// What is wrong with a mix, in the order in which it is best put right: C:N
/// first, since what mends it brings water and volume; water last.
#[must_use]
pub fn flaws(mix: &MixFigures, windows: &Windows) -> Vec<Flaw> {
    const MENDED: [Window; 4] = [Window::CN, Window::Structure, Window::FreeAirSpace, Window::Moisture];
    let side = |window: Window| window.row().side(windows.standing(window, mix));
    MENDED.into_iter().filter_map(side).map(|side| side.flaw).collect()
}

/// For everything that is wrong, what would put it right: what is on hand or can be
/// done at once first, then what could be fetched; at most six of each.
///
/// # Formula
/// ```text
/// C:N       q = (R·ΣN − ΣC) / (C₁ − R·N₁)
/// moisture  q = (M·Q − w) / (w₁ − M)          water itself: w₁ = 1
/// air       q = (w + S − (1 − F)·V) / ((1 − F)·V₁ − w₁ − S₁)
/// frame     q = (E·V − T) / (T₁ − E·V₁)
/// drying    W = Q − Σd / (1 − M)
/// ```
/// `R` and `M` the middle of the window, or its nearer edge where the middle would push
/// another figure out; `F` the least air, `E` the least share that holds a frame; `Q`, `w`,
/// `S`, `V`, `T` mass, water, solids' own volume, volume and framed volume of the mix,
/// with ₁ of a kilogram of what is added. Dryness left over is followed by water.
///
/// # Source
/// The mass balances of [`mix::sum`](crate::mix::sum) solved for one amount. The
/// order weighs what is left wrong against what is to be carried, our judgement.
///
/// # Example
/// Straw alone wants nitrogen: 200 kg hold 80.96 kg C and 0.88 kg N, so that 30 is met by so much
/// sheep manure q that (80.96 + 0.15808 q) / (0.88 + 0.00988 q) is 30: q = 394.4 kg.
/// ```
/// use zymarch_core::{mix::{Item, correct::{Asked, corrections}, window::{Flaw, Windows}}, stock::{self, Lot, material::{self, Kind}}};
/// let figures = |id| stock::figures(material::find(id), &stock::Own::default()).expect("in the table");
/// let straw = Item { wet_mass_kg: 200.0, figures: figures("wheat-straw") };
/// let dung = Lot::up_to(1000.0, figures("sheep-manure"), Kind::Manure);
/// let asked = Asked { items: &[straw], water_l: 200.0, offered: &[dung], on_hand: 1, windows: &Windows::default(), air_c: None };
/// let all = corrections(&asked);
/// let (flaw, choices) = &all[0];
/// assert_eq!(*flaw, Flaw::TooBrown);
/// assert!((choices[0].kg - 394.4).abs() < 0.1 && choices[0].puts_right());
/// ```
#[must_use]
pub fn corrections(asked: &Asked<'_>) -> Vec<(Flaw, Vec<Correction>)> {
    let Some(sums) = Sums::of(asked) else { return Vec::new() };
    let mut found: Vec<(Flaw, Vec<Correction>)> = flaws(&sums.now, asked.windows)
        .into_iter()
        .map(|flaw| {
            let lots =
                |places: Range<usize>| places.filter_map(|at| single(&sums, flaw, at)).collect::<Vec<_>>();
            let mut choices = beside::beside(&sums, flaw);
            choices.extend(lots(0..asked.on_hand));
            let mut choices = best(choices);
            choices.extend(best(lots(asked.on_hand..asked.offered.len())));
            (flaw, choices)
        })
        .collect();
    // Two together are looked for only where one alone does not do.
    if found.iter().any(|(_, choices)| !choices.iter().any(Correction::puts_right)) {
        let pairs = pair::pairs(&sums);
        for (_, choices) in found.iter_mut().filter(|(_, all)| !all.iter().any(Correction::puts_right)) {
            let at = choices.iter().position(|one| one.with.is_some_and(|place| place >= asked.on_hand));
            let at = at.unwrap_or(choices.len());
            let (near, far): (Vec<_>, Vec<_>) =
                pairs.iter().cloned().partition(|pair| pair.is_on_hand(asked));
            choices.extend(far);
            choices.splice(at..at, near);
        }
    }
    found
}

impl Correction {
    fn is_on_hand(&self, asked: &Asked<'_>) -> bool {
        let places = self.with.into_iter().chain(self.and.map(|(place, _)| place));
        places.into_iter().all(|place| place < asked.on_hand)
    }
}

/// A correction with its rank: the less, the better.
type Ranked = (f64, Correction);

fn best(mut found: Vec<Ranked>) -> Vec<Correction> {
    found.sort_by(|a, b| a.0.total_cmp(&b.0));
    found.into_iter().take(MOST).map(|(_, correction)| correction).collect()
}

/// One thing alone: so much that its figure comes to the middle, or to the nearer edge
/// where that is kinder to the others.
fn single(sums: &Sums<'_>, flaw: Flaw, place: usize) -> Option<Ranked> {
    let lot = &sums.asked.offered[place];
    let one = Totals::of_a_kilogram(&lot.figures);
    let tried = line::targets(flaw, sums.asked.windows).into_iter().filter_map(|target| {
        let line = sums.line(flaw, &one, target);
        let kg = rounded(line.result, lot)?;
        let is_another_heap = kg * one.heap_volume_l > MOST_TIMES * sums.mix.heap_volume_l
            || kg > MOST_TIMES_MASS * sums.mix.mass_kg();
        if is_another_heap {
            return None;
        }
        let (after, then_water_l) = sums.watered(sums.mix.with(one, kg))?;
        let effort = EFFORT * kg * one.heap_volume_l / sums.mix.heap_volume_l;
        let rank = sums.rank(&after, effort)?;
        let correction = Correction {
            with: Some(place),
            line: Some(line),
            ..sums.done(Act::Add, kg, after, then_water_l)
        };
        Some((rank, correction))
    });
    tried.min_by(|a, b| a.0.total_cmp(&b.0))
}

/// The amount in whole steps, at least one and no more than there are; none if
/// there is nothing to add.
fn rounded(kg: f64, lot: &Lot) -> Option<f64> {
    if !(kg.is_finite() && kg > 0.0) {
        return None;
    }
    let kg = match (lot.step_kg, lot.steps()) {
        (Some(step), Some(most)) => (kg / step).round().max(1.0).min(most) * step,
        _ => kg.min(lot.most_kg),
    };
    (kg > 0.0).then_some(kg)
}

/// The sums of a mix and its windows, from which an amount is found.
struct Sums<'a> {
    asked: &'a Asked<'a>,
    mix: Totals,
    now: MixFigures,
    /// How far it lies outside its aims.
    off: f64,
}

impl<'a> Sums<'a> {
    fn of(asked: &'a Asked<'a>) -> Option<Self> {
        let mix = Totals::of_all(asked.items).plus(Totals::of_water(asked.water_l));
        let now = mix.figures().ok()?;
        Some(Self { asked, mix, now, off: asked.windows.distance(&now, true) })
    }

    /// A mix with the water that should follow it, if it is dry.
    fn watered(&self, bare: Totals) -> Option<(MixFigures, f64)> {
        let need = water_to_add(bare.dry_kg, bare.mass_kg(), self.asked.windows.moisture());
        let litres = if need.low > 1e-9 { need.aim.round().max(1.0) } else { 0.0 };
        Some((bare.plus(Totals::of_water(litres)).figures().ok()?, litres))
    }

    /// What is left wrong, with what it takes; none of what makes nothing better or trades a
    /// fault for a worse.
    fn rank(&self, after: &MixFigures, effort: f64) -> Option<f64> {
        let windows = self.asked.windows;
        let left = windows.distance(after, true);
        let helps = left < self.off * WORTH_IT && windows.shows(&self.now, after);
        (helps && !windows.pushes_out(&self.now, after)).then_some(left + effort)
    }

    fn done(&self, act: Act, kg: f64, after: MixFigures, then_water_l: f64) -> Correction {
        Correction {
            act,
            with: None,
            kg,
            and: None,
            items: Vec::new(),
            days: None,
            then_water_l,
            standings: self.asked.windows.standings(&after),
            after,
            line: None,
        }
    }
}

#[cfg(test)]
mod tests;
