//! `zymarch-mix/1`: what a recipe comes to.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::judge::{self, Standings};
use zymarch_core::mix::{self, Item, MixFigures};
use zymarch_core::stock::Sourced;

use crate::field::Refusal;
use crate::finding::{self, Finding};
use crate::recipe::{Recipe, Resolved};

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-mix/1";

/// What a recipe comes to.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MixAnswer {
    /// `zymarch-mix/1`.
    pub format: &'static str,
    /// The sums and how they stand.
    #[serde(flatten)]
    pub figures: MixSums,
    /// Further water to the dry edge, the middle and the wet edge of the band.
    pub water_to_add_l: WaterToAdd,
    /// Each item as it was reckoned with.
    pub items: Vec<MixItem>,
    /// What is worth saying, gravest first.
    pub findings: Vec<Finding>,
}

/// The sums of a mix.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct MixSums {
    /// Fresh mass, water included, kg.
    pub wet_mass_kg: f64,
    /// Dry matter, kg.
    pub dry_matter_kg: f64,
    /// Carbon that counts, kg.
    pub carbon_kg: f64,
    /// Nitrogen that counts, kg.
    pub nitrogen_kg: f64,
    /// Carbon to nitrogen, by mass.
    pub c_n: f64,
    /// The same with the carbon that microbes reach.
    pub available_c_n: f64,
    /// Water, % of fresh mass.
    pub moisture_pct: f64,
    /// Loose volume, litres.
    pub volume_l: f64,
    /// Volume in the built heap, litres.
    pub heap_volume_l: f64,
    /// Fresh mass per heap volume, kg/L.
    pub density_kg_l: f64,
    /// Air, % of the heap volume.
    pub free_air_space_pct: f64,
    /// How the figures stand against the windows.
    pub standing: Standing,
}

/// How the figures of a mix stand.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct Standing {
    /// `far-below`, `below`, `right`, `above` or `far-above`; below is green.
    pub c_n: &'static str,
    /// The same; below is dry.
    pub moisture: &'static str,
    /// The same; below is dense.
    pub free_air_space: &'static str,
}

/// Further litres of water; negative is too wet by that much.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct WaterToAdd {
    /// To the dry edge of the band.
    pub low: f64,
    /// To the middle.
    pub aim: f64,
    /// To the wet edge.
    pub high: f64,
}

/// An item as it was reckoned with.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MixItem {
    /// As the recipe names it.
    pub material: String,
    /// Fresh mass, kg.
    pub kg: f64,
    /// Loose volume, litres.
    pub litres: f64,
    /// Volume in the built heap, litres.
    pub heap_litres: f64,
    /// Each figure and where it came from.
    pub figures: ItemFigures,
}

/// The figures of an item.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ItemFigures {
    /// Water, % of fresh mass.
    pub moisture_pct: Figure,
    /// Nitrogen, % of dry matter.
    pub n_pct: Figure,
    /// Carbon to nitrogen, by mass.
    pub c_n: Figure,
    /// Ash, % of dry matter.
    pub ash_pct: Figure,
    /// Acid-detergent lignin, % of dry matter.
    pub lignin_pct: Figure,
    /// Loose density, kg/L.
    pub density_kg_l: Figure,
    /// Volume in the built heap, share of the loose volume.
    pub settle: Figure,
    /// Stays out of the C:N sums.
    pub inert: bool,
}

/// A figure and where it came from.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Figure {
    /// The number.
    pub value: f64,
    /// `measured`, `own`, `book`, `derived` or `assumed`.
    pub origin: &'static str,
}

/// Sums a recipe.
///
/// # Errors
/// A [`Refusal`] of the fields found wrong; of `items` if they hold nothing
/// or no nitrogen.
pub fn answer(recipe: &Recipe) -> Result<MixAnswer, Refusal> {
    let resolved = recipe.resolve()?;
    let names = recipe.items.iter().map(|item| item.material.clone()).collect();
    answer_resolved(&resolved, names)
}

/// Sums what has been resolved already; `names` are those of its items.
///
/// # Errors
/// A [`Refusal`] of `items` if they hold nothing or no nitrogen.
pub fn answer_resolved(resolved: &Resolved, names: Vec<String>) -> Result<MixAnswer, Refusal> {
    let Resolved { items, water_l, target } = resolved;
    let mix = mix::sum(items, *water_l).map_err(|error| Refusal::one("items", error.to_string()))?;
    let water = mix::water_to_add(mix.dry_matter_kg, mix.wet_mass_kg, target.moisture);
    Ok(MixAnswer {
        format: FORMAT,
        figures: MixSums::new(&mix, judge::standings(&mix, target)),
        water_to_add_l: WaterToAdd { low: water.low, aim: water.aim, high: water.high },
        items: names.into_iter().zip(items).map(|(name, item)| MixItem::new(name, item)).collect(),
        findings: finding::all(&judge::findings(items, &mix, target)),
    })
}

impl MixSums {
    /// The sums on the wire.
    #[must_use]
    pub fn new(mix: &MixFigures, standings: Standings) -> Self {
        Self {
            wet_mass_kg: mix.wet_mass_kg,
            dry_matter_kg: mix.dry_matter_kg,
            carbon_kg: mix.carbon_kg,
            nitrogen_kg: mix.nitrogen_kg,
            c_n: mix.c_n,
            available_c_n: mix.available_c_n,
            moisture_pct: mix.moisture * 100.0,
            volume_l: mix.volume_l,
            heap_volume_l: mix.heap_volume_l,
            density_kg_l: mix.density_kg_l,
            free_air_space_pct: mix.free_air_space * 100.0,
            standing: Standing {
                c_n: standings.c_n.as_str(),
                moisture: standings.moisture.as_str(),
                free_air_space: standings.free_air_space.as_str(),
            },
        }
    }
}

impl MixItem {
    /// An item on the wire.
    #[must_use]
    pub fn new(material: String, item: &Item) -> Self {
        let figures = &item.figures;
        let share = |sourced: Sourced<zymarch_core::quantity::Fraction>| Figure {
            value: sourced.value.percent(),
            origin: sourced.origin.as_str(),
        };
        let plain = |sourced: Sourced<f64>| Figure { value: sourced.value, origin: sourced.origin.as_str() };
        Self {
            material,
            kg: item.wet_mass_kg,
            litres: item.volume_l(),
            heap_litres: item.heap_volume_l(),
            figures: ItemFigures {
                moisture_pct: share(figures.moisture),
                n_pct: share(figures.nitrogen),
                c_n: plain(figures.c_n),
                ash_pct: share(figures.ash),
                lignin_pct: share(figures.lignin),
                density_kg_l: plain(figures.density_kg_l),
                settle: plain(figures.settle),
                inert: figures.inert,
            },
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::recipe::parse;

    #[test]
    fn the_answer_agrees_with_the_hand_sums_of_the_core() {
        let text = r#"{"format":"zymarch-recipe/1","water_l":10,"items":[
            {"material":"wheat-straw","kg":24},{"material":"sheep-manure","kg":77},{"material":"vegetable-scraps","kg":24}]}"#;
        let got = answer(&parse(text).expect("well formed")).expect("has nitrogen");
        assert!((got.figures.c_n - 24.6216).abs() < 1e-3);
        assert!((got.figures.moisture_pct - 100.0 * 81.26 / 135.0).abs() < 1e-9);
        // 53.74 kg dry to 55 %: 53.74/0.45 − 135 = −15.58 L.
        assert!((got.water_to_add_l.aim + 15.5778).abs() < 1e-3);
        assert_eq!(got.figures.standing.c_n, "below");
    }

    #[test]
    fn a_mix_without_nitrogen_is_refused_at_its_items() {
        let text = r#"{"format":"zymarch-recipe/1","items":[{"material":"lime","kg":24}]}"#;
        let refusal = answer(&parse(text).expect("well formed")).expect_err("lime has none");
        assert_eq!(refusal.errors[0].field, "items");
    }
}
