//! `zymarch-formulate/1`: what is on hand and what is wanted, and the best mix.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::mix::window::Basis;
use zymarch_core::plan::formulate::Aim;
use zymarch_core::stock::Given;
use zymarch_core::stock::material::Kind;

use crate::field::{self, Document};
use crate::recipe::{OwnFigures, RecipeItem, RecipeMeasure, RecipeTarget, RecipeTest};

mod answer;
mod missing;
mod wanted;

pub use answer::{FormulateAnswer, FormulateItem, FormulateLimit, FormulateMiss, FormulateShare, Outcome};
pub use missing::FormulateAddition;
pub use wanted::Asked;

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-formulate/1";

/// More lots than this is a mistake, not a farm.
pub const MOST_LOTS: usize = 2000;

/// Limits on kinds and materials that one request may set.
pub const MOST_CAPS: usize = 300;

/// Materials known to be had that one request may name.
pub const MOST_KNOWN: usize = 1000;

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
    /// What the best mix is best at.
    pub aim: Aim,
    /// The method it is meant for, as `bay-turned`: its windows where none are given, and what it takes more of.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<String>,
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
    /// Leaves out what one more of each lot would be worth, which takes as long as all the rest.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub without_worth: bool,
}

/// A lot on hand: how much there is, its limits, and figures in place of the book's.
#[derive(Debug, Clone, PartialEq, Default, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FormulateLot {
    /// Id of the material, or any name if the figures are given.
    pub material: String,
    /// How people sort it; needed for the shares of an unknown material.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kind: Option<Kind>,
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
    /// Least share of the loose volume that holds a frame once wet, %; a third if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub structured_min_pct: Option<f64>,
    /// `counted` (default), `total` or `available`: which C:N counts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub basis: Option<Basis>,
}

/// A share that must not be passed.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FormulateCap {
    /// All lots of a kind together, as `manure`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kind: Option<Kind>,
    /// All lots of a material.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// Most, % of the fresh mass without water.
    pub max_wet_pct: f64,
}

impl Document for FormulateRequest {
    const FORMAT: &'static str = FORMAT;
}

/// Reads a request.
///
/// # Errors
/// [`Faults`] that name the field and, where it is known, the line.
pub fn parse(text: &str) -> Result<FormulateRequest, Faults> {
    field::document(text)
}

impl FormulateLot {
    /// All that it gives in place of the book's.
    fn given(&self) -> Given {
        Given {
            structure: self.structure,
            wet_max_pct: self.wet_max_pct,
            decays_pct: self.decays_pct,
            age_days: self.age_days,
            ..self.own().into()
        }
    }

    /// The figures it gives in place of the book's.
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

    /// So much of it as an item of a recipe.
    fn item(&self, kg: f64) -> RecipeItem {
        RecipeItem {
            material: self.material.clone(),
            kg: Some(kg),
            moisture_pct: self.moisture_pct,
            n_pct: self.n_pct,
            c_n: self.c_n,
            ash_pct: self.ash_pct,
            lignin_pct: self.lignin_pct,
            density_kg_l: self.density_kg_l,
            settle: self.settle,
            chopped: self.chopped,
            structure: self.structure,
            wet_max_pct: self.wet_max_pct,
            decays_pct: self.decays_pct,
            age_days: self.age_days,
            tests: self.tests.clone(),
            ..RecipeItem::default()
        }
    }
}

impl From<FormulateTarget> for RecipeTarget {
    fn from(target: FormulateTarget) -> Self {
        Self {
            c_n: target.c_n,
            moisture_pct: target.moisture_pct,
            free_air_space_min_pct: target.free_air_space_min_pct,
            structured_min_pct: target.structured_min_pct,
            basis: target.basis,
        }
    }
}
