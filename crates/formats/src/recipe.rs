//! `zymarch-recipe/1`: a mix written down.
//!
//! What `zymarch mix` reads and `POST /api/mix` takes. Reading gives the recipe
//! as written; [`Recipe::resolve`] gives the items the core can sum, or every
//! field that stands in the way.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::Item;
use zymarch_core::mix::window::{Basis, Windows};
use zymarch_core::plan::method::Method;
use zymarch_core::stock::field_test::{TestKind, TestedFigure};
use zymarch_core::stock::material::Material;
use zymarch_core::stock::{Given, Uncertainty};

use crate::field::{self, Document};

pub(crate) mod check;

use check::Check;

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-recipe/1";

/// More items than this is a mistake, not a heap.
pub const MOST_ITEMS: usize = 1000;

/// Measures that one document may bring along.
pub const MOST_MEASURES: usize = 500;

/// Tests of one lot that one document may bring along.
pub const MOST_TESTS: usize = 50;

/// Lots that one document may offer for the next step.
pub const MOST_STEPS: usize = 500;

/// A mix written down.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Recipe {
    /// `zymarch-recipe/1`.
    #[schema(example = "zymarch-recipe/1")]
    pub format: String,
    /// What it is called, if it has a name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// What goes in.
    pub items: Vec<RecipeItem>,
    /// The containers that amounts are counted in.
    #[serde(default)]
    pub measures: Vec<RecipeMeasure>,
    /// Water added, litres.
    #[serde(default)]
    pub water_l: f64,
    /// The windows to judge it by; those of the method, else the usual ones, if left out.
    #[serde(default)]
    pub target: RecipeTarget,
    /// The method it is to be composted by, as `bay-turned`; cautions depend on it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<String>,
}

/// One lot's part. Gives `kg`, or `litres`, or `amount` and `measure`.
#[derive(Debug, Clone, PartialEq, Default, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecipeItem {
    /// Id in the reference table, or any name if the figures are given.
    #[schema(example = "wheat-straw")]
    pub material: String,
    /// Fresh mass, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kg: Option<f64>,
    /// Loose volume, litres.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub litres: Option<f64>,
    /// How many measures.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub amount: Option<f64>,
    /// Id of the measure they are counted in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub measure: Option<String>,
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
    /// How well it holds air space open once wet: 0 collapses, 3 a stiff frame.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub structure: Option<f64>,
    /// The wettest it may be while it still holds air, % of fresh mass.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wet_max_pct: Option<f64>,
    /// Share of its carbon and nitrogen that decays within a heap's life, %.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub decays_pct: Option<f64>,
    /// Days since it was dropped or gathered; stored dung loses nitrogen.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub age_days: Option<f64>,
    /// Figures that dated tests gave; they beat all others.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub tests: Vec<RecipeTest>,
}

/// A figure that a dated test gave.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecipeTest {
    /// Which figure.
    pub figure: RecipeFigure,
    /// Its value; of `herbicide` any number, the sign being that it stands here.
    pub value: f64,
    /// By which test.
    pub test: TestKind,
    /// The day, as 2026-03-10.
    #[schema(example = "2026-03-10")]
    pub on: String,
}

/// A figure that a test can give.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RecipeFigure {
    /// Water, % of fresh mass.
    MoisturePct,
    /// Total nitrogen, % of dry matter.
    NPct,
    /// Carbon to nitrogen, by mass.
    CN,
    /// Loose density, kg/L.
    DensityKgL,
    /// Volume in the built heap, share of the loose volume.
    Settle,
    /// Signs of weed-killer in a bean test: it goes into no heap.
    Herbicide,
}

impl From<TestedFigure> for RecipeFigure {
    fn from(figure: TestedFigure) -> Self {
        match figure {
            TestedFigure::Moisture => Self::MoisturePct,
            TestedFigure::Nitrogen => Self::NPct,
            TestedFigure::CN => Self::CN,
            TestedFigure::Density => Self::DensityKgL,
            TestedFigure::Settle => Self::Settle,
            TestedFigure::Herbicide => Self::Herbicide,
        }
    }
}

impl From<RecipeFigure> for TestedFigure {
    fn from(figure: RecipeFigure) -> Self {
        match figure {
            RecipeFigure::MoisturePct => Self::Moisture,
            RecipeFigure::NPct => Self::Nitrogen,
            RecipeFigure::CN => Self::CN,
            RecipeFigure::DensityKgL => Self::Density,
            RecipeFigure::Settle => Self::Settle,
            RecipeFigure::Herbicide => Self::Herbicide,
        }
    }
}

impl RecipeItem {
    /// The figures it gives in place of the book's. They stand beside the amount
    /// in the file, so that an error can name each by its own path.
    #[must_use]
    pub fn own(&self) -> OwnFigures {
        OwnFigures {
            moisture_pct: self.moisture_pct,
            n_pct: self.n_pct,
            c_n: self.c_n,
            ash_pct: self.ash_pct,
            lignin_pct: self.lignin_pct,
            density_kg_l: self.density_kg_l,
            settle: self.settle,
            chopped: self.chopped,
        }
    }
}

impl RecipeItem {
    /// All that is given in place of the book's.
    pub(crate) fn given(&self) -> Given {
        Given {
            structure: self.structure,
            wet_max_pct: self.wet_max_pct,
            decays_pct: self.decays_pct,
            age_days: self.age_days,
            ..self.own().into()
        }
    }
}

impl From<OwnFigures> for Given {
    fn from(own: OwnFigures) -> Self {
        Self {
            moisture_pct: own.moisture_pct,
            n_pct: own.n_pct,
            c_n: own.c_n,
            ash_pct: own.ash_pct,
            lignin_pct: own.lignin_pct,
            density_kg_l: own.density_kg_l,
            settle: own.settle,
            chopped: own.chopped.unwrap_or(false),
            ..Self::default()
        }
    }
}

impl From<Given> for OwnFigures {
    fn from(given: Given) -> Self {
        Self {
            moisture_pct: given.moisture_pct,
            n_pct: given.n_pct,
            c_n: given.c_n,
            ash_pct: given.ash_pct,
            lignin_pct: given.lignin_pct,
            density_kg_l: given.density_kg_l,
            settle: given.settle,
            chopped: given.chopped.then_some(true),
        }
    }
}

/// Figures that a person gives in place of the reference table's.
#[derive(Debug, Clone, Copy, PartialEq, Default, Deserialize, Serialize, ToSchema)]
pub struct OwnFigures {
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
}

/// A container.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecipeMeasure {
    /// What items call it.
    #[schema(example = "barrow")]
    pub id: String,
    /// What it holds, litres.
    pub litres: f64,
}

/// Windows to judge a mix by.
#[derive(Debug, Clone, PartialEq, Default, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecipeTarget {
    /// Lowest and highest C:N aimed for; 25 and 30 if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub c_n: Option<[f64; 2]>,
    /// Lowest and highest moisture aimed for, %; 50 and 60 if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub moisture_pct: Option<[f64; 2]>,
    /// Least free air space aimed for, %; 35 if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub free_air_space_min_pct: Option<f64>,
    /// Least share of the loose volume that holds a frame once wet, %; a third if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub structured_min_pct: Option<f64>,
    /// `counted` (default), `total` or `available`: which C:N counts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub basis: Option<Basis>,
}

/// A recipe whose every field has been checked: what the core can sum.
#[derive(Debug, Clone, PartialEq)]
pub struct Resolved<'a> {
    /// In the order of the recipe.
    pub items: Vec<Item>,
    /// The material of each, where it is known.
    pub materials: Vec<Option<&'a Material>>,
    /// What is not sure about each.
    pub uncertainties: Vec<Uncertainty>,
    /// Water added [L].
    pub water_l: f64,
    /// Windows to judge by.
    pub windows: Windows,
    /// The method it is to be composted by.
    pub method: Option<&'a Method>,
}

impl Document for Recipe {
    const FORMAT: &'static str = FORMAT;
}

/// Reads a recipe.
///
/// # Errors
/// [`Faults`] that name the field and, where it is known, the line.
///
/// # Example
/// ```
/// let text = r#"{"format":"zymarch-recipe/1","items":[{"material":"wheat-straw","kg":24}]}"#;
/// let recipe = zymarch_formats::recipe::parse(text)?;
/// let book = zymarch_core::catalogue::Catalogue::book();
/// assert_eq!(recipe.resolve(&book)?.items[0].wet_mass_kg, 24.0);
/// # Ok::<(), zymarch_core::base::fault::Faults>(())
/// ```
pub fn parse(text: &str) -> Result<Recipe, Faults> {
    field::document(text)
}

impl Recipe {
    /// Checks every field and looks up what the recipe leaves to the book.
    ///
    /// # Errors
    /// Every fault of it.
    pub fn resolve<'a>(&self, catalogue: &'a Catalogue) -> Result<Resolved<'a>, Faults> {
        let mut check = Check::new(catalogue);
        field::is_format(&self.format, FORMAT, &mut check.found);
        if self.items.is_empty() {
            check.found.push(Fault::of("items", FaultCode::Empty));
        }
        At::ROOT.key("items").holds(self.items.len(), MOST_ITEMS)?;
        check.measures(&self.measures)?;
        let list = At::ROOT.key("items");
        let lots: Vec<_> = self
            .items
            .iter()
            .enumerate()
            .filter_map(|(index, item)| check.lot(&list.index(index), &item.said(), &self.measures))
            .collect();
        let water_l = check.amount(&At::ROOT.key("water_l"), self.water_l);
        let method = self.method.as_deref().and_then(|id| check.method(id));
        let windows = check.windows(&self.target, method);
        Faults::or(check.found, || Resolved {
            items: lots.iter().map(|lot| Item::from(*lot)).collect(),
            materials: lots.iter().map(|lot| lot.material).collect(),
            uncertainties: lots.iter().map(|lot| lot.uncertainty).collect(),
            water_l,
            windows,
            method,
        })
    }

    /// Things that are not in the recipe, checked with its measures: what a step of
    /// something would be. Their faults stand under `field`.
    ///
    /// # Errors
    /// Every fault of them.
    pub fn resolve_steps(
        &self,
        steps: &[&RecipeItem],
        field: &'static str,
        catalogue: &Catalogue,
    ) -> Result<Vec<Item>, Faults> {
        let (mut check, list) = (Check::new(catalogue), At::ROOT.key(field));
        list.holds(steps.len(), MOST_STEPS)?;
        let lots: Vec<Item> = steps
            .iter()
            .enumerate()
            .filter_map(|(index, step)| check.lot(&list.index(index), &step.said(), &self.measures))
            .map(Item::from)
            .collect();
        Faults::or(check.found, || lots)
    }
}

#[cfg(test)]
mod tests;
