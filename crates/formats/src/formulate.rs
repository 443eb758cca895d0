//! `zymarch-formulate/1`: what is on hand and what is wanted, and the best mix.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::confidence::Doubt;
use zymarch_core::formulate::{self, Formulated, Limit, Wanted};
use zymarch_core::mix::Item;

use crate::confidence::{self, ConfidenceAnswer};
use crate::field::{self, Document, Refusal};
use crate::mix::{self, MixAnswer};
use crate::recipe::{self, Recipe, RecipeBasis, RecipeItem, RecipeMeasure, RecipeTarget, RecipeTest};

mod missing;
mod wanted;

pub use missing::FormulateAddition;
use missing::missing;
use wanted::wanted;

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-formulate/1";

/// More lots than this is a mistake, not a farm.
pub const MOST_LOTS: usize = 300;

/// What is on hand and what is wanted.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FormulateRequest {
    /// `zymarch-formulate/1`.
    #[schema(example = "zymarch-formulate/1")]
    pub format: String,
    /// What there is.
    pub stock: Vec<FormulateLot>,
    /// The containers that amounts are counted in.
    #[serde(default)]
    pub measures: Vec<RecipeMeasure>,
    /// The windows; the usual ones if left out.
    #[serde(default)]
    pub target: FormulateTarget,
    /// Shares that must not be passed.
    #[serde(default)]
    pub share_caps: Vec<FormulateCap>,
    /// What the best mix is best at: `largest`, `use-soonest`, `cheapest`, `balanced` or `least-water`.
    #[schema(example = "largest")]
    pub aim: String,
    /// Each lot in whole steps of its own measure.
    #[serde(default)]
    pub whole_measures: bool,
    /// The step, in measures: 1 or 0.5.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub whole_step: Option<f64>,
    /// The measure that water is carried in; whole litres if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub water_measure: Option<String>,
    /// Most water, litres; as much as is needed if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub water_max_l: Option<f64>,
    /// Rather a mix that stays in its workable bands whatever the figures turn out to be.
    #[serde(default)]
    pub cautious: bool,
    /// Materials known at the site beside the stock: looked at first when something is missing.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub known: Vec<String>,
}

/// A lot on hand: how much there is, its limits, and figures in place of the book's.
#[derive(Debug, Clone, PartialEq, Default, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FormulateLot {
    /// Id of the material, or any name if the figures are given.
    pub material: String,
    /// How people sort it; needed for the shares of an unknown material.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kind: Option<String>,
    /// How much there is, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kg_available: Option<f64>,
    /// How much there is, loose litres.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub litres_available: Option<f64>,
    /// How many measures there are.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub amount: Option<f64>,
    /// The measure it is counted in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub measure: Option<String>,
    /// Least that must go in, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kg_min: Option<f64>,
    /// Exactly what goes in, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kg_fixed: Option<f64>,
    /// What a kilogram costs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cost_per_kg: Option<f64>,
    /// How soon it should be used; the more, the sooner.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub urgency: Option<f64>,
    /// Water, % of fresh mass.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub moisture_pct: Option<f64>,
    /// Total nitrogen, % of dry matter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub n_pct: Option<f64>,
    /// Carbon to nitrogen, by mass.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub c_n: Option<f64>,
    /// Ash, % of dry matter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ash_pct: Option<f64>,
    /// Acid-detergent lignin, % of dry matter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lignin_pct: Option<f64>,
    /// Loose density, kg/L.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub density_kg_l: Option<f64>,
    /// Volume in the built heap, share of the loose volume.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub settle: Option<f64>,
    /// Chopped one particle class finer than it usually arrives.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub chopped: Option<bool>,
    /// Figures that dated tests gave.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub tests: Vec<RecipeTest>,
}

/// Windows for a mix to be found.
#[derive(Debug, Clone, PartialEq, Default, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FormulateTarget {
    /// Lowest and highest C:N; 25 and 30 if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub c_n: Option<[f64; 2]>,
    /// Lowest and highest moisture, %; 50 and 60 if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub moisture_pct: Option<[f64; 2]>,
    /// Least free air space, %; 35 if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub free_air_space_min_pct: Option<f64>,
    /// Smallest and largest heap volume, litres.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub volume_l: Option<[f64; 2]>,
    /// `total` (default) or `available`: which C:N counts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub basis: Option<RecipeBasis>,
}

/// A share that must not be passed.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FormulateCap {
    /// All lots of a kind together, as `manure`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kind: Option<String>,
    /// All lots of a material.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// Most, % of the fresh mass without water.
    pub max_wet_pct: f64,
}

/// The best mix, or the nearest.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormulateAnswer {
    /// `zymarch-formulate/1`.
    pub format: &'static str,
    /// `ok`, or `nearest` if no mix meets the windows.
    pub status: &'static str,
    /// Of each lot, in the order of the stock; those left out stand at 0.
    pub items: Vec<FormulateItem>,
    /// Water to add, litres.
    pub water_l: f64,
    /// Water in its measure, if whole ones were wanted.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub water_count: Option<f64>,
    /// How well it does by the aim: litres, urgency, cost, the share of the way from the middle
    /// to the edge of a window, or litres of water.
    pub objective: f64,
    /// Whether no better one exists.
    pub proven: bool,
    /// What the lots in it cost together; none if no lot has a price.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cost: Option<f64>,
    /// What the mix comes to; none if there is nothing to mix.
    pub mix: Option<Box<MixAnswer>>,
    /// How sure that is; items are places in the stock.
    pub confidence: Option<Box<ConfidenceAnswer>>,
    /// What limits it: the edges it lies at.
    pub binding: Vec<FormulateLimit>,
    /// Of a nearest one: the windows it misses.
    pub misses: Vec<FormulateMiss>,
    /// Of a nearest one: the smallest additions that would make a mix possible, those
    /// known at the site first, then smallest first.
    pub missing: Vec<FormulateAddition>,
}

/// A lot's part.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormulateItem {
    /// As the stock names it.
    pub material: String,
    /// Fresh mass, kg.
    pub kg: f64,
    /// How many measures, if it is counted in one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub count: Option<f64>,
    /// Which measure.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub measure: Option<String>,
    /// What one more measure (or a tenth more) of it would add to the objective.
    pub worth_of_more: f64,
    /// Of a lot not used up: the conditions that one more measure (or a hundredth of it) would break.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub held_back: Vec<&'static str>,
}

/// Something that limits a mix.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormulateLimit {
    /// `used-up`, `at-least`, `c-n-low`, `c-n-high`, `dry`, `wet`, `air`, `volume-low`, `volume-high`,
    /// `water` or `cap`.
    pub code: &'static str,
    /// The lot or the share cap it is about, by its place.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub item: Option<usize>,
}

/// A window that is missed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormulateMiss {
    /// `c-n-low`, `c-n-high`, `dry`, `wet`, `air` or `volume-low`.
    pub code: &'static str,
    /// What the mix has: C:N, %, or litres.
    pub is: f64,
    /// The edge of the window, the same.
    pub edge: f64,
}

impl Document for FormulateRequest {
    const FORMAT: &'static str = FORMAT;
}

/// Reads a request.
///
/// # Errors
/// A [`Refusal`] that names the field and, where it is known, the line.
pub fn parse(text: &str) -> Result<FormulateRequest, Refusal> {
    field::document(text)
}

/// The best mix of what is on hand.
///
/// # Errors
/// A [`Refusal`] of the fields found wrong.
pub fn answer(request: &FormulateRequest, catalogue: &Catalogue) -> Result<FormulateAnswer, Refusal> {
    let wanted = wanted(request, catalogue)?;
    let found = formulate::formulate(&wanted);
    let more: Vec<f64> =
        wanted.offers.iter().map(|offer| offer.step_kg.unwrap_or(offer.available_kg / 10.0)).collect();
    let worth = formulate::worth(&wanted, &found, &more);
    let mut held_back = formulate::holds_back(&wanted, &found).into_iter();
    let is_ok = found.status == formulate::Status::Ok;
    let items = request.stock.iter().zip(&wanted.offers).zip(found.kg.iter().zip(worth)).map(
        |((lot, offer), (&kg, worth_of_more))| {
            let litres = lot.measure.as_ref().and_then(|id| litres_of(request, id));
            let each_kg = litres.map(|litres| litres * offer.figures.density_kg_l.value);
            FormulateItem {
                material: lot.material.clone(),
                kg: tidy(kg),
                count: each_kg.map(|each| tidy(kg / each)),
                measure: lot.measure.clone(),
                worth_of_more: tidy(worth_of_more),
                held_back: held_back.next().into_iter().flatten().map(Limit::as_str).collect(),
            }
        },
    );
    let water_litres = request.water_measure.as_ref().and_then(|id| litres_of(request, id));
    Ok(FormulateAnswer {
        format: FORMAT,
        status: found.status.as_str(),
        items: items.collect(),
        water_l: tidy(found.water_l),
        water_count: water_litres.map(|litres| tidy(found.water_l / litres)),
        objective: tidy(found.objective),
        proven: found.is_proven,
        cost: request.stock.iter().any(|lot| lot.cost_per_kg.is_some()).then(|| {
            tidy(wanted.offers.iter().zip(&found.kg).map(|(offer, kg)| offer.cost_per_kg * kg).sum())
        }),
        mix: mix_of(request, &wanted, &found, catalogue)?,
        confidence: confidence_of(&wanted, &found).map(Box::new),
        binding: formulate::binding(&wanted, &found)
            .into_iter()
            .map(|limit| FormulateLimit { code: limit.as_str(), item: limit.place() })
            .collect(),
        misses: formulate::misses(&wanted, &found).into_iter().map(FormulateMiss::from).collect(),
        missing: if is_ok { Vec::new() } else { missing(request, &wanted, catalogue) },
    })
}

impl From<formulate::Miss> for FormulateMiss {
    fn from(miss: formulate::Miss) -> Self {
        use formulate::Limit;
        let per = if matches!(miss.limit, Limit::Dry | Limit::Wet | Limit::Air) { 100.0 } else { 1.0 };
        Self { code: miss.limit.as_str(), is: tidy(miss.is * per), edge: tidy(miss.edge * per) }
    }
}

/// The solver works to about nine figures; more would be noise.
fn tidy(value: f64) -> f64 {
    let tidy = (value * 1e7).round() / 1e7;
    if tidy == 0.0 { 0.0 } else { tidy }
}

fn litres_of(request: &FormulateRequest, id: &str) -> Option<f64> {
    request.measures.iter().find(|measure| measure.id == id).map(|measure| measure.litres)
}

/// The mix as a recipe would be summed; none if it holds nothing.
fn mix_of(
    request: &FormulateRequest,
    wanted: &Wanted,
    found: &Formulated,
    catalogue: &Catalogue,
) -> Result<Option<Box<MixAnswer>>, Refusal> {
    let nitrogen = wanted.offers.iter().zip(&found.kg).any(|(offer, kg)| {
        let item = Item { wet_mass_kg: *kg, figures: offer.figures };
        item.nitrogen_kg() > 0.0
    });
    if !nitrogen {
        return Ok(None);
    }
    let recipe =
        as_recipe(request, |place, lot| RecipeItem { kg: Some(found.kg[place]), ..item(lot) }, found.water_l);
    Ok(Some(Box::new(mix::answer(&recipe, catalogue)?)))
}

/// How sure the mix is that was found.
fn confidence_of(wanted: &Wanted, found: &Formulated) -> Option<ConfidenceAnswer> {
    let (items, doubts): (Vec<Item>, Vec<Doubt>) = wanted
        .offers
        .iter()
        .zip(&found.kg)
        .map(|(offer, &kg)| {
            let doubt = offer.doubt.unwrap_or_else(|| Doubt::none(&offer.figures));
            (Item { wet_mass_kg: kg, figures: offer.figures }, doubt)
        })
        .unzip();
    confidence::of(&items, &doubts, found.water_l, &wanted.target)
}

/// A lot's figures as an item of a recipe, without an amount.
fn item(lot: &FormulateLot) -> RecipeItem {
    RecipeItem {
        material: lot.material.clone(),
        moisture_pct: lot.moisture_pct,
        n_pct: lot.n_pct,
        c_n: lot.c_n,
        ash_pct: lot.ash_pct,
        lignin_pct: lot.lignin_pct,
        density_kg_l: lot.density_kg_l,
        settle: lot.settle,
        chopped: lot.chopped,
        tests: lot.tests.clone(),
        ..RecipeItem::default()
    }
}

fn as_recipe(
    request: &FormulateRequest,
    item_of: impl Fn(usize, &FormulateLot) -> RecipeItem,
    water_l: f64,
) -> Recipe {
    let target = &request.target;
    Recipe {
        format: recipe::FORMAT.into(),
        name: None,
        items: request.stock.iter().enumerate().map(|(place, lot)| item_of(place, lot)).collect(),
        measures: request.measures.clone(),
        water_l,
        target: RecipeTarget {
            c_n: target.c_n,
            moisture_pct: target.moisture_pct,
            free_air_space_min_pct: target.free_air_space_min_pct,
            basis: target.basis,
        },
        method: None,
    }
}

#[cfg(test)]
mod tests;
