//! What to add, and how much, to bring a mix to the middle: one material at a time.
//!
//! For each thing that is wrong with a mix, every material is asked how much of
//! it alone would put that right; what then is still wrong, and how much has
//! to be carried, puts them in order. The single best whole step of what is on
//! hand is in [`mend`](crate::mix::mend); all amounts at once in
//! [`formulate`](crate::plan::formulate).

use crate::base::line::{Input, Line, Unit};
use crate::mix::window::{Flaw, Standings, Window, Windows};
use crate::mix::{Item, MixFigures, Totals, water_to_add};
use crate::stock::Lot;

/// What to add.
#[derive(Debug, Clone, PartialEq)]
pub struct Correction {
    /// Which of the things offered, by its place; water if none.
    pub with: Option<usize>,
    /// How much of it [kg]; of water, litres.
    pub kg: f64,
    /// Water that should follow [L]; zero if none.
    pub then_water_l: f64,
    /// The mix afterwards.
    pub after: MixFigures,
    /// How it then stands.
    pub standings: Standings,
    /// How the amount comes about, before it is rounded to steps.
    pub line: Line,
}

impl Correction {
    /// Whether everything is in its aim afterwards.
    #[must_use]
    pub fn puts_right(&self) -> bool {
        self.standings.are_right()
    }
}

/// More than this many times the heap's own volume is another heap, not a correction [-].
const MOST_TIMES: f64 = 4.0;

/// A doubled heap weighs as much as this many margins left to be mended.
const EFFORT: f64 = 1.0;

/// A short list is read, a long one is not.
const MOST: usize = 6;

/// What is wrong with a mix, in the order in which it is best put right: C:N
/// first, since what mends it brings water and volume; water last.
#[must_use]
pub fn flaws(mix: &MixFigures, windows: &Windows) -> Vec<Flaw> {
    const MENDED: [Window; 3] = [Window::CN, Window::FreeAirSpace, Window::Moisture];
    let side = |window: Window| window.row().side(windows.standing(window, mix));
    MENDED.into_iter().filter_map(side).map(|side| side.flaw).collect()
}

/// What to add to put one flaw right, best first; at most six.
///
/// # Formula
/// ```text
/// C:N       q = (R·ΣN − ΣC) / (C₁ − R·N₁)
/// moisture  q = (M·Q − w) / (w₁ − M)          water itself: w₁ = 1
/// air       q = (w + S − (1 − F)·V) / ((1 − F)·V₁ − w₁ − S₁)
/// ```
/// `R` and `M` the middle of the window, `F` the least air; `Q`, `w`, `S`, `V` mass,
/// water, solids' own volume and heap volume of the mix, with ₁ of a kilogram of
/// what is added. Dryness left over is followed by water to the middle.
///
/// # Source
/// The mass balances of [`mix::sum`](crate::mix::sum) solved for one amount. The
/// order weighs what is left wrong against what is to be carried, our judgement.
///
/// # Example
/// Straw alone wants nitrogen: so much sheep manure that (40.48 + 0.15808 q)
/// / (0.44 + 0.00988 q) is 27.5, so q = (27.5·0.44 − 40.48)/(0.15808 − 27.5·0.00988).
/// ```
/// use zymarch_core::{mix::{Item, correct::corrections, window::{Flaw, Windows}}, stock::{self, Lot, material::{self, Kind}}};
/// let figures = |id| stock::figures(material::find(id), &stock::Own::default()).expect("in the table");
/// let straw = Item { wet_mass_kg: 100.0, figures: figures("wheat-straw") };
/// let dung = Lot::up_to(1000.0, figures("sheep-manure"), Kind::Manure);
/// let best = &corrections(&[straw], 0.0, Flaw::TooBrown, &[dung], &Windows::default())[0];
/// assert!((best.kg - 249.78).abs() < 0.01 && (best.after.c_n - 27.5).abs() < 1e-9);
/// ```
#[must_use]
pub fn corrections(
    items: &[Item],
    water_l: f64,
    flaw: Flaw,
    offered: &[Lot],
    windows: &Windows,
) -> Vec<Correction> {
    let mix = Totals::of_all(items).plus(Totals::of_water(water_l));
    let Ok(now) = mix.figures() else { return Vec::new() };
    let sums = Sums { of: mix, windows };
    let off = windows.distance(&now, true);
    let mut found: Vec<(f64, Correction)> = Vec::new();
    if flaw == Flaw::TooDry {
        let line = sums.line(flaw, &Totals::of_water(1.0));
        let kg = line.result;
        if let (true, Ok(after)) = (kg > 0.0, mix.plus(Totals::of_water(kg)).figures()) {
            let standings = windows.standings(&after);
            // Water is at hand and light work: it stands first.
            let water = Correction { with: None, kg, then_water_l: 0.0, after, standings, line };
            found.push((f64::NEG_INFINITY, water));
        }
    }
    for (place, lot) in offered.iter().enumerate() {
        let one = Totals::of_a_kilogram(&lot.figures);
        let line = sums.line(flaw, &one);
        let Some(kg) = rounded(line.result, lot) else { continue };
        if kg * one.heap_volume_l > MOST_TIMES * mix.heap_volume_l {
            continue;
        }
        let bare = mix.with(one, kg);
        let need = water_to_add(bare.dry_kg, bare.mass_kg(), windows.moisture());
        let then_water_l = if need.low > 1e-9 { need.aim.round().max(1.0) } else { 0.0 };
        let Ok(after) = bare.plus(Totals::of_water(then_water_l)).figures() else { continue };
        let left = windows.distance(&after, true);
        if left < off {
            let standings = windows.standings(&after);
            let effort = EFFORT * kg * one.heap_volume_l / mix.heap_volume_l;
            found.push((
                left + effort,
                Correction { with: Some(place), kg, then_water_l, after, standings, line },
            ));
        }
    }
    found.sort_by(|a, b| a.0.total_cmp(&b.0));
    found.into_iter().take(MOST).map(|(_, correction)| correction).collect()
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
    of: Totals,
    windows: &'a Windows,
}

impl Sums<'_> {
    /// How much of `one`, a kilogram of something or a litre of water, puts the flaw right.
    fn line(&self, flaw: Flaw, one: &Totals) -> Line {
        let (mix, windows) = (&self.of, self.windows);
        let cn = Window::CN.row();
        let carbon = |of: &Totals| cn.over(of, windows.basis);
        let (formula, inputs) = match flaw {
            Flaw::TooGreen | Flaw::TooBrown => (
                "({R} × {ΣN} − {ΣC}) ÷ ({C₁} − {R} × {N₁})",
                vec![
                    put("R", windows.c_n().middle(), Unit::Ratio),
                    put("ΣN", mix.nitrogen_kg, Unit::Kilograms),
                    put("ΣC", carbon(mix), Unit::Kilograms),
                    put("C₁", carbon(one), Unit::Kilograms),
                    put("N₁", one.nitrogen_kg, Unit::Kilograms),
                ],
            ),
            Flaw::TooDense => (
                "({w} + {S} − (1 − {F}) × {V}) ÷ ((1 − {F}) × {V₁} − {w₁} − {S₁})",
                vec![
                    put("w", mix.water_kg, Unit::Litres),
                    put("S", mix.solids_l(), Unit::Litres),
                    put("F", windows.free_air_space_min(), Unit::Share),
                    put("V", mix.heap_volume_l, Unit::Litres),
                    put("V₁", one.heap_volume_l, Unit::Litres),
                    put("w₁", one.water_kg, Unit::Litres),
                    put("S₁", one.solids_l(), Unit::Litres),
                ],
            ),
            Flaw::TooDry | Flaw::TooWet => (
                "({M} × {Q} − {w}) ÷ ({w₁} − {M})",
                vec![
                    put("M", windows.moisture().middle(), Unit::Share),
                    put("Q", mix.mass_kg(), Unit::Kilograms),
                    put("w", mix.water_kg, Unit::Kilograms),
                    put("w₁", one.water_kg, Unit::Kilograms),
                ],
            ),
        };
        let value = |symbol: &str| {
            inputs.iter().find(|input| input.symbol == symbol).map_or(0.0, |input| input.value)
        };
        let result = match flaw {
            Flaw::TooGreen | Flaw::TooBrown => {
                let middle = value("R");
                (middle * value("ΣN") - value("ΣC")) / (value("C₁") - middle * value("N₁"))
            }
            Flaw::TooDense => {
                let room = 1.0 - value("F");
                (value("w") + value("S") - room * value("V"))
                    / (room * value("V₁") - value("w₁") - value("S₁"))
            }
            Flaw::TooDry | Flaw::TooWet => {
                (value("M") * value("Q") - value("w")) / (value("w₁") - value("M"))
            }
        };
        Line { item: None, symbol: "q", formula, inputs, result, unit: Unit::Kilograms }
    }
}

fn put(symbol: &'static str, value: f64, unit: Unit) -> Input {
    Input { symbol, value, unit, origin: None }
}

#[cfg(test)]
mod tests;
