//! `zymarch-mix/1`: what a recipe comes to.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::judge::{self, Standings, Target};
use zymarch_core::mind;
use zymarch_core::mix::{self, Item, MixFigures};
use zymarch_core::quantity::{Band, Fraction};
use zymarch_core::stock::{Origin, Sourced};

use crate::caution::CautionNote;
use crate::field::Refusal;
use crate::finding::{self, Finding};
use crate::recipe::{Recipe, RecipeFigure, RecipeItem, Resolved};

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
    /// What it was judged by.
    pub windows: Windows,
    /// Further water to the dry edge, the middle and the wet edge of the band.
    pub water_to_add_l: WaterToAdd,
    /// Each item as it was reckoned with.
    pub items: Vec<MixItem>,
    /// What is worth saying, gravest first.
    pub findings: Vec<Finding>,
    /// What the cautions say of the mix and its method, gravest first.
    pub cautions: Vec<CautionNote>,
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

/// The windows a mix was judged by: aimed for, and still working. Ranges are low and high.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Windows {
    /// Aim for C:N.
    pub c_n: [f64; 2],
    /// Aim for moisture, %.
    pub moisture_pct: [f64; 2],
    /// Least free air space aimed for, %.
    pub free_air_space_min_pct: f64,
    /// C:N that still works.
    pub workable_c_n: [f64; 2],
    /// Moisture that still works, %.
    pub workable_moisture_pct: [f64; 2],
}

impl From<&Target> for Windows {
    fn from(target: &Target) -> Self {
        let tidy = |value: f64| (value * 1e9).round() / 1e9;
        let of = |band: Band, per: f64| [tidy(band.low() * per), tidy(band.high() * per)];
        Self {
            c_n: of(target.c_n, 1.0),
            moisture_pct: of(target.moisture, 100.0),
            free_air_space_min_pct: tidy(target.free_air_space_min * 100.0),
            workable_c_n: of(target.workable_c_n(), 1.0),
            workable_moisture_pct: of(target.workable_moisture(), 100.0),
        }
    }
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
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Figure {
    /// The number.
    pub value: f64,
    /// `measured`, `own`, `book`, `derived` or `assumed`.
    pub origin: &'static str,
    /// Of a measured one: by which test, and when.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub test: Option<FigureTest>,
}

/// The test that a measured figure rests on.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct FigureTest {
    /// `weigh`, `drying`, `squeeze`, `bucket` or `bean`.
    pub kind: String,
    /// The day, as 2026-03-10.
    pub on: String,
}

/// Sums a recipe.
///
/// # Errors
/// A [`Refusal`] of the fields found wrong; of `items` if they hold nothing
/// or no nitrogen.
pub fn answer(recipe: &Recipe, catalogue: &Catalogue) -> Result<MixAnswer, Refusal> {
    answer_resolved(recipe, &recipe.resolve(catalogue)?, catalogue)
}

/// Sums a recipe that has been resolved already.
///
/// # Errors
/// A [`Refusal`] of `items` if they hold nothing or no nitrogen.
pub fn answer_resolved(
    recipe: &Recipe,
    resolved: &Resolved,
    catalogue: &Catalogue,
) -> Result<MixAnswer, Refusal> {
    let Resolved { items, water_l, target, method, .. } = resolved;
    let mix = mix::sum(items, *water_l).map_err(|error| Refusal::one("items", error.to_string()))?;
    let water = mix::water_to_add(mix.dry_matter_kg, mix.wet_mass_kg, target.moisture);
    let parts: Vec<_> = recipe
        .items
        .iter()
        .zip(items)
        .map(|(written, item)| (catalogue.find(&written.material), item))
        .collect();
    Ok(MixAnswer {
        format: FORMAT,
        figures: MixSums::new(&mix, judge::standings(&mix, target)),
        windows: target.into(),
        water_to_add_l: water.into(),
        items: recipe.items.iter().zip(items).map(|(written, item)| MixItem::new(written, item)).collect(),
        findings: finding::all(&judge::findings(items, &mix, target)),
        cautions: mind::of_mix(&parts, target.c_n_of(&mix), *method).iter().map(CautionNote::from).collect(),
    })
}

impl From<mix::WaterToAdd> for WaterToAdd {
    fn from(water: mix::WaterToAdd) -> Self {
        Self { low: water.low, aim: water.aim, high: water.high }
    }
}

impl From<Standings> for Standing {
    fn from(standings: Standings) -> Self {
        Self {
            c_n: standings.c_n.as_str(),
            moisture: standings.moisture.as_str(),
            free_air_space: standings.free_air_space.as_str(),
        }
    }
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
            standing: standings.into(),
        }
    }
}

impl MixItem {
    /// An item on the wire; `written` tells what it is called and which tests its figures rest on.
    #[must_use]
    pub fn new(written: &RecipeItem, item: &Item) -> Self {
        let figures = &item.figures;
        let test = |origin: Origin, figure: RecipeFigure| {
            let test =
                written.tests.iter().find(|test| origin == Origin::Measured && test.figure == figure)?;
            Some(FigureTest { kind: test.test.clone(), on: test.on.clone() })
        };
        let share = |sourced: Sourced<Fraction>| Figure {
            value: sourced.value.percent(),
            origin: sourced.origin.as_str(),
            test: None,
        };
        let plain = |sourced: Sourced<f64>| Figure {
            value: sourced.value,
            origin: sourced.origin.as_str(),
            test: None,
        };
        let tested = |figure: Figure, origin, which| Figure { test: test(origin, which), ..figure };
        Self {
            material: written.material.clone(),
            kg: item.wet_mass_kg,
            litres: item.volume_l(),
            heap_litres: item.heap_volume_l(),
            figures: ItemFigures {
                moisture_pct: tested(
                    share(figures.moisture),
                    figures.moisture.origin,
                    RecipeFigure::MoisturePct,
                ),
                n_pct: share(figures.nitrogen),
                c_n: plain(figures.c_n),
                ash_pct: share(figures.ash),
                lignin_pct: share(figures.lignin),
                density_kg_l: tested(
                    plain(figures.density_kg_l),
                    figures.density_kg_l.origin,
                    RecipeFigure::DensityKgL,
                ),
                settle: tested(plain(figures.settle), figures.settle.origin, RecipeFigure::Settle),
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
        let got = answer(&parse(text).expect("well formed"), &Catalogue::book()).expect("has nitrogen");
        assert!((got.figures.c_n - 24.6216).abs() < 1e-3);
        assert!((got.figures.moisture_pct - 100.0 * 81.26 / 135.0).abs() < 1e-9);
        // 53.74 kg dry to 55 %: 53.74/0.45 − 135 = −15.58 L.
        assert!((got.water_to_add_l.aim + 15.5778).abs() < 1e-3);
        assert_eq!(got.figures.standing.c_n, "below");
    }

    #[test]
    fn a_mix_without_nitrogen_is_refused_at_its_items() {
        let text = r#"{"format":"zymarch-recipe/1","items":[{"material":"lime","kg":24}]}"#;
        let refusal =
            answer(&parse(text).expect("well formed"), &Catalogue::book()).expect_err("lime has none");
        assert_eq!(refusal.errors[0].field, "items");
    }

    #[test]
    fn a_method_brings_its_own_windows_and_a_target_beats_them() {
        let ask = |more: &str| {
            let text = format!(
                r#"{{"format":"zymarch-recipe/1","items":[{{"material":"sheep-manure","kg":10}}],"method":"static-tower"{more}}}"#
            );
            answer(&parse(&text).expect("well formed"), &Catalogue::book()).expect("has nitrogen").windows
        };
        let tower = ask("");
        assert_eq!((tower.c_n, tower.moisture_pct), ([30.0, 45.0], [55.0, 65.0]));
        assert_eq!(tower.free_air_space_min_pct, 40.0);
        let own = ask(r#","target":{"c_n":[20,25]}"#);
        assert_eq!((own.c_n, own.moisture_pct), ([20.0, 25.0], [55.0, 65.0]));
    }
}
