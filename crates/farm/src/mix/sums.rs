//! Sums of a recipe, their workings, and how sure they are.

use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::confidence::{self as sure, SEED};
use zymarch_core::mix::working::{self as board, BoardFigure};
use zymarch_core::mix::{self, Item, MixFigures};
use zymarch_core::plan::layers::LayerItem;
use zymarch_core::plan::mind::{self, Note};
use zymarch_core::stock::material::Material;
use zymarch_formats::confidence::ConfidenceAnswer;
use zymarch_formats::mix::MixAnswer;
use zymarch_formats::recipe::{Recipe, Resolved};
use zymarch_formats::working::{self, Working, Workings};

use crate::words::Under;

/// The sums of what was resolved, a fault of which is one of its items.
pub(crate) fn summed(resolved: &Resolved<'_>) -> Result<MixFigures, Faults> {
    mix::sum(&resolved.items, resolved.water_l).under("items")
}

/// What to mind of a mix.
pub(crate) fn notes(resolved: &Resolved<'_>, figures: &MixFigures) -> Vec<Note> {
    let parts: Vec<(Option<&Material>, &Item)> =
        resolved.materials.iter().copied().zip(&resolved.items).collect();
    mind::of_mix(&parts, resolved.windows.c_n_of(figures), resolved.method)
}

/// The items of a recipe as parts of a heap.
pub(crate) fn layer_items(recipe: &Recipe, resolved: &Resolved<'_>) -> Vec<LayerItem> {
    let items = resolved.items.iter().zip(&resolved.materials).zip(&recipe.items);
    items.map(|((item, material), written)| LayerItem::new(*item, *material, written.amount)).collect()
}

/// What a recipe comes to.
///
/// # Errors
/// Every field that stands in the way of a sum.
///
/// # Example
/// Worked example A: 90 kg of straw and 220 kg of sheep manure come to a C:N near 29.
/// ```
/// use zymarch_core::catalogue::Catalogue;
/// let recipe = zymarch_formats::recipe::parse(
///     r#"{"format":"zymarch-recipe/1","water_l":60,"items":[
///         {"material":"wheat-straw","kg":90},{"material":"sheep-manure","kg":220}]}"#,
/// )?;
/// let answer = zymarch_farm::mix::sum(&Catalogue::book(), &recipe)?;
/// assert!((answer.figures.wet_mass_kg - 370.0).abs() < 1e-9);
/// # Ok::<(), zymarch_core::base::fault::Faults>(())
/// ```
pub fn sum(catalogue: &Catalogue, recipe: &Recipe) -> Result<MixAnswer, Faults> {
    let resolved = recipe.resolve(catalogue)?;
    let figures = summed(&resolved)?;
    Ok(MixAnswer::new(recipe, &resolved, &figures, &notes(&resolved, &figures)))
}

/// How every figure of a recipe comes about.
///
/// # Errors
/// Every field that stands in the way of a sum.
pub fn working(catalogue: &Catalogue, recipe: &Recipe) -> Result<Workings, Faults> {
    let resolved = recipe.resolve(catalogue)?;
    let figures = summed(&resolved)?;
    let of = |figure: &BoardFigure| {
        Working::from(&board::of(*figure, &resolved.items, resolved.water_l, &figures, &resolved.windows))
    };
    Ok(Workings { format: working::FORMAT, workings: BoardFigure::ALL.iter().map(of).collect() })
}

/// How sure the sums of a recipe are.
///
/// # Errors
/// Every field that stands in the way, or that there is nothing to be sure of.
pub fn confidence(catalogue: &Catalogue, recipe: &Recipe) -> Result<ConfidenceAnswer, Faults> {
    let Resolved { items, uncertainties, water_l, windows, .. } = recipe.resolve(catalogue)?;
    sure::confidence(&items, &uncertainties, water_l, &windows, sure::draws_for(items.len()), SEED)
        .map(|found| ConfidenceAnswer::new(&found, &uncertainties))
        .ok_or_else(|| Fault::of("items", FaultCode::NoNitrogen).into())
}
