//! What a rule of thumb truly gives, with the materials at hand.
//!
//! "Two brown to one green" says nothing of how heavy, how wet or how rich the
//! two are. The rule is measured out, summed like any mix, and set beside the
//! popular shortcut of averaging the ratios over the parts; the steps between
//! the two tell why they differ. Finding amounts without a rule is
//! [`formulate`](crate::plan::formulate).

use crate::base::fault::{Fault, FaultCode};
use crate::base::line::{Input, Line, Unit};
use crate::base::words::closed_list;
use crate::mix::window::{Window, Windows};
use crate::mix::{Item, MixFigures, Totals, WaterToAdd, sum, water_to_add};
use crate::stock::{Figures, Origin};

closed_list! {
    /// What the parts of a rule are parts of.
    By {
        /// Buckets, barrows: loose volume.
        Volume = "volume",
        /// Kilograms: fresh mass.
        Weight = "weight",
    }
}

closed_list! {
    /// What each material's ratio is weighed by in an average.
    WeighedBy {
        /// The parts of the rule: the shortcut.
        Parts = "parts",
        /// Fresh mass.
        Mass = "mass",
        /// Dry matter.
        DryMatter = "dry-matter",
        /// Nitrogen: the only one that gives the C:N of the mix.
        Nitrogen = "nitrogen",
    }
}

/// One part of a rule.
#[derive(Debug, Clone, PartialEq)]
pub struct RulePart {
    /// How many parts.
    pub parts: f64,
    /// What stands for it; several share it evenly.
    pub of: Vec<Figures>,
}

/// The average of the ratios under one weighing.
#[derive(Debug, Clone, PartialEq)]
pub struct Rung {
    /// What they are weighed by.
    pub by: WeighedBy,
    /// The average [-].
    pub c_n: f64,
    /// How it comes about.
    pub lines: Vec<Line>,
}

/// What a rule gives.
#[derive(Debug, Clone, PartialEq)]
pub struct Thumb {
    /// The rule measured out, in its order: of 1,000 L loose, or of 1,000 kg.
    pub items: Vec<Item>,
    /// What it comes to, without water added.
    pub mix: MixFigures,
    /// Water that would bring it into the moisture band [L].
    pub water: WaterToAdd,
    /// From the shortcut to the truth.
    pub ladder: Vec<Rung>,
    /// Of each part, how many parts of it would bring the C:N to the middle,
    /// the others as they are; none where no number would.
    pub mended: Vec<Option<f64>>,
}

/// How much of it is measured out, in litres or kilograms.
const MEASURED_OUT: f64 = 1000.0;

/// What a rule gives.
///
/// # Formula
/// ```text
/// average = Σ w·r / Σ w      w = parts, kg, kg dry, kg nitrogen, in turn
/// ```
/// `r` C:N of each material. Weighed by nitrogen it is `Σ C / Σ N`, the C:N of
/// the mix, since `N·r = C`; every other weighing is wrong by as much as the
/// materials differ in what was left out. Inert items take no part.
///
/// # Source
/// Mass balance, as in Rynk 1992, On-Farm Composting Handbook (NRAES-54).
///
/// # Errors
/// A [`Fault`] where the rule measures out to nothing, or to no nitrogen.
///
/// # Example
/// One part of straw to one of sheep manure by weight: the average of 92 and 16
/// is 54, but straw brings 2.2 g of nitrogen a kilogram and manure 9.88.
/// ```
/// use zymarch_core::{mix::window::Windows, stock::material, stock, mix::thumb::*};
/// let part = |id| RulePart { parts: 1.0, of: vec![stock::figures(material::find(id), &stock::Own::default()).expect("in the table")] };
/// let got = thumb(By::Weight, &[part("wheat-straw"), part("sheep-manure")], &Windows::default())?;
/// assert!((got.ladder[0].c_n - 54.0).abs() < 1e-9);
/// assert!((got.mix.c_n - (4.4 * 92.0 + 9.88 * 16.0) / 14.28).abs() < 1e-6);
/// # Ok::<(), zymarch_core::base::fault::Fault>(())
/// ```
pub fn thumb(by: By, rule: &[RulePart], windows: &Windows) -> Result<Thumb, Fault> {
    let all: f64 = rule.iter().filter(|part| !part.of.is_empty()).map(|part| part.parts).sum();
    if all <= 0.0 {
        return Err(Fault::new(FaultCode::MixEmpty));
    }
    let shares: Vec<(f64, Figures)> = rule
        .iter()
        .flat_map(|part| part.of.iter().map(|figures| (part.parts / part.of.len() as f64, *figures)))
        .collect();
    let measured_out = |parts: f64, figures: Figures| {
        let amount = parts / all * MEASURED_OUT;
        let wet_mass_kg = match by {
            By::Volume => amount * figures.density_kg_l.value,
            By::Weight => amount,
        };
        Item { wet_mass_kg, figures }
    };
    let items: Vec<Item> = shares.iter().map(|&(parts, figures)| measured_out(parts, figures)).collect();
    let mix = sum(&items, 0.0)?;
    let parts: Vec<f64> = shares.iter().map(|(parts, _)| *parts).collect();
    Ok(Thumb {
        ladder: ladder(by, &parts, &items),
        water: water_to_add(mix.dry_matter_kg, mix.wet_mass_kg, windows.moisture()),
        mended: mended(rule, &items, windows),
        items,
        mix,
    })
}

/// The averages, each weighed by one thing more than the last.
fn ladder(by: By, parts: &[f64], items: &[Item]) -> Vec<Rung> {
    let rungs = WeighedBy::ALL.iter().filter(|weighed| by == By::Volume || **weighed != WeighedBy::Mass);
    rungs
        .map(|&weighed| {
            let weight = |place: usize| match weighed {
                WeighedBy::Parts => parts[place],
                WeighedBy::Mass => items[place].wet_mass_kg,
                WeighedBy::DryMatter => items[place].dry_matter_kg(),
                WeighedBy::Nitrogen => items[place].nitrogen_kg(),
            };
            rung(weighed, items, weight)
        })
        .collect()
}

fn rung(by: WeighedBy, items: &[Item], weight: impl Fn(usize) -> f64) -> Rung {
    let (symbol, formula, total, unit) = match by {
        WeighedBy::Parts => ("p", "{p} × {r}", "Σp", Unit::Ratio),
        WeighedBy::Mass => ("q", "{q} × {r}", "Σq", Unit::Kilograms),
        WeighedBy::DryMatter => ("d", "{d} × {r}", "Σd", Unit::Kilograms),
        WeighedBy::Nitrogen => ("N", "{N} × {r}", "ΣN", Unit::Kilograms),
    };
    let whole = match by {
        WeighedBy::Parts => "{Σx} ÷ {Σp}",
        WeighedBy::Mass => "{Σx} ÷ {Σq}",
        WeighedBy::DryMatter => "{Σx} ÷ {Σd}",
        WeighedBy::Nitrogen => "{Σx} ÷ {ΣN}",
    };
    let (mut weights, mut products) = (0.0, 0.0);
    let mut lines = Vec::new();
    for (place, item) in items.iter().enumerate().filter(|(_, item)| !item.figures.inert) {
        let (w, r) = (weight(place), item.figures.c_n);
        weights += w;
        products += w * r.value;
        lines.push(Line {
            item: Some(place),
            symbol: "x",
            formula,
            inputs: vec![
                Input { symbol, value: w, unit, origin: None },
                Input { symbol: "r", value: r.value, unit: Unit::Ratio, origin: Some(r.origin) },
            ],
            result: w * r.value,
            unit,
        });
    }
    let c_n = products / weights;
    lines.push(Line {
        item: None,
        symbol: "C:N",
        formula: whole,
        inputs: vec![
            Input { symbol: "Σx", value: products, unit, origin: None::<Origin> },
            Input { symbol: total, value: weights, unit, origin: None },
        ],
        result: c_n,
        unit: Unit::Ratio,
    });
    Rung { by, c_n, lines }
}

/// Of each part, the parts that bring the C:N that counts to the middle of its window.
fn mended(rule: &[RulePart], items: &[Item], windows: &Windows) -> Vec<Option<f64>> {
    let wanted = windows.c_n().middle();
    let carbon = |item: &Item| Window::CN.row().over(&Totals::of(item), windows.basis);
    let over =
        |items: &[Item]| -> f64 { items.iter().map(|item| carbon(item) - wanted * item.nitrogen_kg()).sum() };
    let all = over(items);
    let mut at = 0;
    rule.iter()
        .map(|part| {
            let own = over(&items[at..at + part.of.len()]);
            at += part.of.len();
            let parts = part.parts * (own - all) / own;
            (parts.is_finite() && parts > 0.0).then_some(parts)
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::stock::material::{all, find};
    use crate::stock::{Own, figures};

    fn part(parts: f64, ids: &[&str]) -> RulePart {
        let of = ids.iter().map(|id| figures(find(id), &Own::default()).expect("in the table"));
        RulePart { parts, of: of.collect() }
    }

    fn asked(by: By, rule: &[RulePart]) -> Thumb {
        thumb(by, rule, &Windows::default()).expect("has nitrogen")
    }

    #[test]
    fn two_brown_to_one_green_by_volume_by_hand() {
        // Of 3 L: straw 2 L · 0.05 = 0.1 kg, N 0.1·0.88·0.005 = 0.00044, C 0.04048;
        // manure 1 L · 0.55 = 0.55 kg, N 0.55·0.38·0.026 = 0.005434, C 0.086944.
        // C:N = 0.127424 / 0.005874 = 21.69; the shortcut says (2·92 + 16)/3 = 66.67.
        let got = asked(By::Volume, &[part(2.0, &["wheat-straw"]), part(1.0, &["sheep-manure"])]);
        assert!((got.mix.c_n - 21.6929).abs() < 1e-3, "{}", got.mix.c_n);
        let rungs: Vec<f64> = got.ladder.iter().map(|rung| rung.c_n).collect();
        assert!((rungs[0] - 200.0 / 3.0).abs() < 1e-9);
        // By weight (0.1·92 + 0.55·16)/0.65 = 27.69; by dry matter (0.088·92 + 0.209·16)/0.297 = 38.52.
        assert!((rungs[1] - 27.6923).abs() < 1e-3 && (rungs[2] - 38.5185).abs() < 1e-3, "{rungs:?}");
        assert!((rungs[3] - got.mix.c_n).abs() < 1e-9);
    }

    #[test]
    fn by_weight_the_shortcut_is_the_average_over_mass() {
        let got = asked(By::Weight, &[part(3.0, &["wheat-straw"]), part(1.0, &["sheep-manure"])]);
        assert_eq!(got.ladder.len(), 3);
        assert!((got.ladder[0].c_n - 73.0).abs() < 1e-9);
    }

    #[test]
    fn several_materials_share_a_part_evenly() {
        let got = asked(
            By::Volume,
            &[part(2.0, &["wheat-straw", "tree-leaves-dry"]), part(1.0, &["sheep-manure"])],
        );
        assert!((got.items[0].volume_l() - got.items[1].volume_l()).abs() < 1e-9);
        assert!((got.mix.volume_l - 1000.0).abs() < 1e-6);
    }

    #[test]
    fn the_parts_named_do_bring_it_to_the_middle() {
        let rule = [part(2.0, &["wheat-straw"]), part(1.0, &["sheep-manure"])];
        let got = asked(By::Volume, &rule);
        for (place, parts) in got.mended.iter().enumerate() {
            let mut mended = rule.clone();
            mended[place].parts = parts.expect("one is above the middle and one below");
            assert!((asked(By::Volume, &mended).mix.c_n - 27.5).abs() < 1e-6);
        }
    }

    #[test]
    fn two_browns_are_never_right_and_lime_alone_has_no_ratio() {
        let got = asked(By::Volume, &[part(2.0, &["wheat-straw"]), part(1.0, &["sawdust"])]);
        assert_eq!(got.mended, [None, None]);
        assert_eq!(
            thumb(By::Volume, &[part(1.0, &["lime"])], &Windows::default()),
            Err(Fault::new(FaultCode::NoNitrogen))
        );
        assert_eq!(thumb(By::Volume, &[], &Windows::default()), Err(Fault::new(FaultCode::MixEmpty)));
    }

    proptest! {
        #[test]
        fn the_last_rung_is_always_the_mix(first in 0..167_usize, second in 0..167_usize, parts in 0.1..20.0_f64) {
            let rule = [part(parts, &[&all()[first].id]), part(1.0, &[&all()[second].id])];
            for &by in By::ALL {
                let Ok(got) = thumb(by, &rule, &Windows::default()) else { continue };
                let last = got.ladder.last().expect("has rungs").c_n;
                prop_assert!((last - got.mix.c_n).abs() < 1e-9 * (1.0 + last));
            }
        }
    }
}
