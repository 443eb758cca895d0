//! `zymarch-formulate/1`: what is on hand and what is wanted, and the best mix.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::mix::confidence::Confidence;
use zymarch_core::mix::window::Basis;
use zymarch_core::mix::{Item, MixFigures};
use zymarch_core::plan::formulate::{
    Addition, Aim, Capped, Formulated, Limit, LimitCode, Miss, ShareCap, Status, Wanted,
};
use zymarch_core::plan::mind::Note;
use zymarch_core::stock::material::{Kind, Material};
use zymarch_core::stock::{Given, Uncertainty};

use crate::confidence::ConfidenceAnswer;
use crate::field::{self, Document};
use crate::mix::MixAnswer;
use crate::recipe::check::litres_of;
use crate::recipe::{
    self, OwnFigures, Recipe, RecipeItem, RecipeMeasure, RecipeTarget, RecipeTest, Resolved,
};

mod missing;
mod wanted;

pub use missing::FormulateAddition;
pub use wanted::Asked;

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-formulate/1";

/// More lots than this is a mistake, not a farm.
pub const MOST_LOTS: usize = 300;

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

/// The best mix, or the nearest.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormulateAnswer {
    /// `zymarch-formulate/1`.
    pub format: &'static str,
    /// Whether a mix meets the windows.
    pub status: Status,
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
    /// The shares it was held to: those that were set, then those of small doses that stand until one is set.
    pub caps: Vec<FormulateShare>,
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
    pub held_back: Vec<LimitCode>,
}

/// A share that a mix was held to.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormulateShare {
    /// The kind it is of.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub kind: Option<Kind>,
    /// The small dose it is of, which nobody set.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub dose: Option<&'static str>,
    /// The lots it is of, by their places in the stock.
    pub items: Vec<usize>,
    /// Most, %.
    pub most_pct: f64,
    /// Of the loose volume; else of the fresh mass without water.
    pub of_volume: bool,
}

/// Something that limits a mix.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormulateLimit {
    /// What kind.
    pub code: LimitCode,
    /// The lot or the share cap it is about, by its place.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub item: Option<usize>,
}

/// A window that is missed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormulateMiss {
    /// Which edge.
    pub code: LimitCode,
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
/// [`Faults`] that name the field and, where it is known, the line.
pub fn parse(text: &str) -> Result<FormulateRequest, Faults> {
    field::document(text)
}

/// What was found for a request, as the core answers it.
#[derive(Debug)]
pub struct Outcome<'a> {
    /// The amounts.
    pub found: Formulated,
    /// What so much more of each lot would add to the aim.
    pub worth: Vec<f64>,
    /// Of each lot, what keeps the rest of it out.
    pub held_back: Vec<Vec<Limit>>,
    /// What limits it.
    pub binding: Vec<Limit>,
    /// What it misses.
    pub misses: Vec<Miss>,
    /// What would make a mix possible: the materials, and how much of each.
    pub missing: Vec<(Vec<&'a Material>, Addition)>,
    /// What it comes to; none if there is nothing to mix.
    pub sums: Option<(MixFigures, Vec<Note>)>,
    /// How sure that is.
    pub confidence: Option<Confidence>,
}

impl FormulateAnswer {
    /// What was found, on the wire.
    #[must_use]
    pub fn new(request: &FormulateRequest, wanted: &Wanted, outcome: &Outcome<'_>) -> Self {
        let Outcome { found, .. } = outcome;
        let mut held_back = outcome.held_back.iter();
        let items = request.stock.iter().zip(&wanted.lots).zip(found.kg.iter().zip(&outcome.worth)).map(
            |((said, lot), (&kg, &worth_of_more))| {
                let litres = said.measure.as_ref().and_then(|id| litres_of(&request.measures, id));
                let each_kg = litres.map(|litres| litres * lot.figures.density_kg_l.value);
                FormulateItem {
                    material: said.material.clone(),
                    kg: tidy(kg),
                    count: each_kg.map(|each| tidy(kg / each)),
                    measure: said.measure.clone(),
                    worth_of_more: tidy(worth_of_more),
                    held_back: held_back.next().into_iter().flatten().map(|limit| limit.code).collect(),
                }
            },
        );
        let water_litres = request.water_measure.as_ref().and_then(|id| litres_of(&request.measures, id));
        let uncertainties: Vec<Uncertainty> = wanted
            .lots
            .iter()
            .map(|lot| lot.uncertainty.unwrap_or_else(|| Uncertainty::none(&lot.figures)))
            .collect();
        let confidence = outcome.confidence.as_ref();
        let limits = |limit: &Limit| FormulateLimit { code: limit.code, item: limit.place };
        Self {
            format: FORMAT,
            status: found.status,
            items: items.collect(),
            water_l: tidy(found.water_l),
            water_count: water_litres.map(|litres| tidy(found.water_l / litres)),
            objective: tidy(found.objective),
            proven: found.is_proven,
            cost: request
                .stock
                .iter()
                .any(|lot| lot.cost_per_kg.is_some())
                .then(|| tidy(wanted.lots.iter().zip(&found.kg).map(|(lot, kg)| lot.cost_per_kg * kg).sum())),
            mix: outcome.sums.as_ref().map(|sums| Box::new(mix_of(request, wanted, found, sums))),
            confidence: confidence.map(|sure| Box::new(ConfidenceAnswer::new(sure, &uncertainties))),
            caps: wanted.caps.iter().map(|cap| FormulateShare::new(cap, wanted)).collect(),
            binding: outcome.binding.iter().map(limits).collect(),
            misses: outcome.misses.iter().map(FormulateMiss::from).collect(),
            missing: outcome
                .missing
                .iter()
                .map(|(rows, addition)| FormulateAddition::new(rows, addition, request))
                .collect(),
        }
    }
}

/// The mix that was found, as a recipe of it would be answered.
fn mix_of(
    request: &FormulateRequest,
    wanted: &Wanted,
    found: &Formulated,
    (sums, notes): &(MixFigures, Vec<Note>),
) -> MixAnswer {
    let recipe = Recipe {
        format: recipe::FORMAT.into(),
        name: None,
        items: request.stock.iter().zip(&found.kg).map(|(lot, &kg)| lot.item(kg)).collect(),
        measures: request.measures.clone(),
        water_l: found.water_l,
        target: request.target.clone().into(),
        method: None,
    };
    let resolved = Resolved {
        items: wanted
            .lots
            .iter()
            .zip(&found.kg)
            .map(|(lot, &wet_mass_kg)| Item { wet_mass_kg, figures: lot.figures })
            .collect(),
        materials: Vec::new(),
        uncertainties: Vec::new(),
        water_l: found.water_l,
        windows: wanted.windows,
        method: None,
    };
    MixAnswer::new(&recipe, &resolved, sums, notes)
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

impl FormulateShare {
    fn new(cap: &ShareCap, wanted: &Wanted) -> Self {
        let (kind, dose) = match &cap.of {
            Capped::Kind(kind) => (Some(*kind), None),
            Capped::Dose { dose, .. } => (None, Some(*dose)),
            Capped::Lot(_) => (None, None),
        };
        let lots = wanted.lots.iter().enumerate();
        Self {
            kind,
            dose,
            items: lots.filter(|(at, lot)| cap.is_of(*at, lot)).map(|(at, _)| at).collect(),
            most_pct: tidy(cap.most * 100.0),
            of_volume: cap.by_volume,
        }
    }
}

impl From<&Miss> for FormulateMiss {
    fn from(miss: &Miss) -> Self {
        let per = if matches!(miss.code, LimitCode::Dry | LimitCode::Wet | LimitCode::Air | LimitCode::Packs)
        {
            100.0
        } else {
            1.0
        };
        Self { code: miss.code, is: tidy(miss.is * per), edge: tidy(miss.edge * per) }
    }
}

/// The solver works to about nine figures; more would be noise.
fn tidy(value: f64) -> f64 {
    let tidy = (value * 1e7).round() / 1e7;
    if tidy == 0.0 { 0.0 } else { tidy }
}
