//! What to add, and how much, to bring a mix to the middle: one material at a time.
//!
//! For each thing that is wrong with a mix, every material is asked how much of
//! it alone would put that right; what then is still wrong, and how much has
//! to be carried, puts them in order. The single best whole step of what is on
//! hand is in [`mend`](crate::mend); all amounts at once in
//! [`formulate`](crate::formulate).

use crate::judge::{Standing, Standings, Target, standings};
use crate::mend::distance;
use crate::mix::{Item, MixFigures, sum, water_to_add};
use crate::stock::Figures;
use crate::words::closed_list;
use crate::working::{Input, Line, Unit};

closed_list! {
    /// What is wrong with a mix.
    Fault {
        /// C:N below its aim.
        TooGreen = "too-green",
        /// C:N above it.
        TooBrown = "too-brown",
        /// Moisture below its aim.
        TooDry = "too-dry",
        /// Moisture above it.
        TooWet = "too-wet",
        /// Free air space below its least.
        TooDense = "too-dense",
    }
}

/// Something that may be added.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Addable {
    /// Its figures.
    pub figures: Figures,
    /// One step of it, to which amounts are rounded [kg]; any amount if none.
    pub step_kg: Option<f64>,
    /// The most there is [kg].
    pub most_kg: f64,
}

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
pub fn faults(mix: &MixFigures, target: &Target) -> Vec<Fault> {
    use Standing::{Above, Below, FarAbove, FarBelow};
    let stand = standings(mix, target);
    let mut found = Vec::new();
    match stand.c_n {
        Below | FarBelow => found.push(Fault::TooGreen),
        Above | FarAbove => found.push(Fault::TooBrown),
        Standing::Right => {}
    }
    if stand.free_air_space != Standing::Right {
        found.push(Fault::TooDense);
    }
    match stand.moisture {
        Below | FarBelow => found.push(Fault::TooDry),
        Above | FarAbove => found.push(Fault::TooWet),
        Standing::Right => {}
    }
    found
}

/// What to add to put one fault right, best first; at most six.
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
/// use zymarch_core::{correct::*, judge::Target, material, mix::Item, stock};
/// let figures = |id| stock::figures(material::find(id), &stock::Own::default()).expect("in the table");
/// let straw = Item { wet_mass_kg: 100.0, figures: figures("wheat-straw") };
/// let dung = Addable { figures: figures("sheep-manure"), step_kg: None, most_kg: 1000.0 };
/// let best = &corrections(&[straw], 0.0, Fault::TooBrown, &[dung], &Target::default())[0];
/// assert!((best.kg - 249.78).abs() < 0.01 && (best.after.c_n - 27.5).abs() < 1e-9);
/// ```
#[must_use]
pub fn corrections(
    items: &[Item],
    water_l: f64,
    fault: Fault,
    offered: &[Addable],
    target: &Target,
) -> Vec<Correction> {
    let Ok(now) = sum(items, water_l) else { return Vec::new() };
    let Some(mix) = Sums::of(items, water_l, target) else { return Vec::new() };
    let off = distance(&now, target) + dryness(&now, target);
    let mut found: Vec<(f64, Correction)> = Vec::new();
    if matches!(fault, Fault::TooDry) {
        let line = mix.line(fault, None, target);
        let kg = line.result;
        if let Ok(after) = sum(items, water_l + kg)
            && kg > 0.0
        {
            // Water is at hand and light work: it stands first.
            found.push((
                f64::NEG_INFINITY,
                Correction {
                    with: None,
                    kg,
                    then_water_l: 0.0,
                    after,
                    standings: standings(&after, target),
                    line,
                },
            ));
        }
    }
    for (place, addable) in offered.iter().enumerate() {
        let Some(one) = Sums::of_a_kilogram(&addable.figures, target) else { continue };
        let line = mix.line(fault, Some(&one), target);
        let Some(kg) = rounded(line.result, addable) else { continue };
        if kg * one.heap_l > MOST_TIMES * mix.heap_l {
            continue;
        }
        let Some(mut correction) = added(items, water_l, addable, kg, target) else { continue };
        let left = distance(&correction.after, target) + dryness(&correction.after, target);
        if left < off {
            correction.with = Some(place);
            correction.line = line;
            found.push((left + EFFORT * kg * one.heap_l / mix.heap_l, correction));
        }
    }
    found.sort_by(|a, b| a.0.total_cmp(&b.0));
    found.into_iter().take(MOST).map(|(_, correction)| correction).collect()
}

/// The amount in whole steps, at least one and no more than there are; none if
/// there is nothing to add.
fn rounded(kg: f64, addable: &Addable) -> Option<f64> {
    if !(kg.is_finite() && kg > 0.0) {
        return None;
    }
    let kg = match addable.step_kg {
        Some(step) => {
            let most = (addable.most_kg / step + 1e-9).floor();
            (kg / step).round().max(1.0).min(most) * step
        }
        None => kg.min(addable.most_kg),
    };
    (kg > 0.0).then_some(kg)
}

fn added(items: &[Item], water_l: f64, addable: &Addable, kg: f64, target: &Target) -> Option<Correction> {
    let mut with = items.to_vec();
    with.push(Item { wet_mass_kg: kg, figures: addable.figures });
    let bare = sum(&with, water_l).ok()?;
    let need = water_to_add(bare.dry_matter_kg, bare.wet_mass_kg, target.moisture);
    let then_water_l = if need.low > 1e-9 { need.aim.round().max(1.0) } else { 0.0 };
    let after = sum(&with, water_l + then_water_l).ok()?;
    Some(Correction {
        with: None,
        kg,
        then_water_l,
        standings: standings(&after, target),
        after,
        line: Line {
            item: None,
            symbol: "q",
            formula: "",
            inputs: Vec::new(),
            result: kg,
            unit: Unit::Kilograms,
        },
    })
}

/// How far below its aim moisture lies, in margins of five points.
fn dryness(mix: &MixFigures, target: &Target) -> f64 {
    (target.moisture.low() - mix.moisture - 1e-9).max(0.0) / 0.05
}

/// The balances that the amounts are found from, of the mix or of a kilogram.
struct Sums {
    mass_kg: f64,
    water_kg: f64,
    carbon_kg: f64,
    nitrogen_kg: f64,
    heap_l: f64,
    solids_l: f64,
}

impl Sums {
    fn of(items: &[Item], water_l: f64, target: &Target) -> Option<Self> {
        let sum = |of: &dyn Fn(&Item) -> f64| -> f64 { items.iter().map(of).sum() };
        let sums = Self {
            mass_kg: sum(&|item| item.wet_mass_kg) + water_l,
            water_kg: sum(&Item::water_kg) + water_l,
            carbon_kg: sum(&|item| target.carbon_of(item)),
            nitrogen_kg: sum(&Item::nitrogen_kg),
            heap_l: sum(&Item::heap_volume_l),
            solids_l: sum(&Item::solids_l),
        };
        (sums.mass_kg > 0.0).then_some(sums)
    }

    fn of_a_kilogram(figures: &Figures, target: &Target) -> Option<Self> {
        Self::of(&[Item { wet_mass_kg: 1.0, figures: *figures }], 0.0, target)
    }

    /// How much of `one` puts the fault right; of water if none.
    fn line(&self, fault: Fault, one: Option<&Self>, target: &Target) -> Line {
        let (formula, inputs) = match (fault, one) {
            (Fault::TooGreen | Fault::TooBrown, Some(one)) => (
                "({R} × {ΣN} − {ΣC}) ÷ ({C₁} − {R} × {N₁})",
                vec![
                    put("R", target.c_n.middle(), Unit::Ratio),
                    put("ΣN", self.nitrogen_kg, Unit::Kilograms),
                    put("ΣC", self.carbon_kg, Unit::Kilograms),
                    put("C₁", one.carbon_kg, Unit::Kilograms),
                    put("N₁", one.nitrogen_kg, Unit::Kilograms),
                ],
            ),
            (Fault::TooDense, Some(one)) => (
                "({w} + {S} − (1 − {F}) × {V}) ÷ ((1 − {F}) × {V₁} − {w₁} − {S₁})",
                vec![
                    put("w", self.water_kg, Unit::Litres),
                    put("S", self.solids_l, Unit::Litres),
                    put("F", target.free_air_space_min, Unit::Share),
                    put("V", self.heap_l, Unit::Litres),
                    put("V₁", one.heap_l, Unit::Litres),
                    put("w₁", one.water_kg, Unit::Litres),
                    put("S₁", one.solids_l, Unit::Litres),
                ],
            ),
            (_, one) => (
                "({M} × {Q} − {w}) ÷ ({w₁} − {M})",
                vec![
                    put("M", target.moisture.middle(), Unit::Share),
                    put("Q", self.mass_kg, Unit::Kilograms),
                    put("w", self.water_kg, Unit::Kilograms),
                    put("w₁", one.map_or(1.0, |one| one.water_kg), Unit::Kilograms),
                ],
            ),
        };
        let value = |symbol: &str| {
            inputs.iter().find(|input| input.symbol == symbol).map_or(0.0, |input| input.value)
        };
        let result = match fault {
            Fault::TooGreen | Fault::TooBrown => {
                let middle = value("R");
                (middle * value("ΣN") - value("ΣC")) / (value("C₁") - middle * value("N₁"))
            }
            Fault::TooDense => {
                let room = 1.0 - value("F");
                (value("w") + value("S") - room * value("V"))
                    / (room * value("V₁") - value("w₁") - value("S₁"))
            }
            Fault::TooDry | Fault::TooWet => {
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
