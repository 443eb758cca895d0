//! What a formulation answers: the amounts, what they come to, and what limits them.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::mix::confidence::Confidence;
use zymarch_core::mix::{Item, MixFigures};
use zymarch_core::plan::formulate::{
    Addition, Capped, Formulated, Limit, LimitCode, Limits, Miss, ShareCap, Status, Wanted,
};
use zymarch_core::plan::heap::HeapSize;
use zymarch_core::plan::mind::Note;
use zymarch_core::stock::Uncertainty;
use zymarch_core::stock::material::{Kind, Material};

use super::{FORMAT, FormulateAddition, FormulateRequest};
use crate::confidence::ConfidenceAnswer;
use crate::mix::MixAnswer;
use crate::recipe::check::litres_of;
use crate::recipe::{self, Recipe, Resolved};

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
    /// Whether no better one exists; of the nearest, whether none meets every window.
    pub proven: bool,
    /// Whether there would be a mix in parts of a measure, where whole ones make none.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub fits_in_parts: bool,
    /// What the lots in it cost together; none if no lot has a price.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cost: Option<f64>,
    /// What the mix comes to; none if there is nothing to mix.
    pub mix: Option<Box<MixAnswer>>,
    /// Whether it is big enough to heat; none if there is nothing to mix.
    pub size: Option<HeapSize>,
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
    /// What one more measure (or a tenth more) of it would add to the objective, unless that was left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub worth_of_more: Option<f64>,
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

/// What was found for a request, as the core answers it.
#[derive(Debug)]
pub struct Outcome<'a> {
    /// The amounts.
    pub found: Formulated,
    /// What so much more of each lot would add to the aim.
    pub worth: Vec<f64>,
    /// What limits it, and what keeps the rest of each lot out.
    pub limits: Limits,
    /// What it misses.
    pub misses: Vec<Miss>,
    /// What would make a mix possible: the materials, and how much of each.
    pub missing: Vec<(Vec<&'a Material>, Addition)>,
    /// What it comes to; none if there is nothing to mix.
    pub sums: Option<(MixFigures, Vec<Note>)>,
    /// Whether that is big enough to heat.
    pub size: Option<HeapSize>,
    /// How sure that is.
    pub confidence: Option<Confidence>,
}

impl FormulateAnswer {
    /// What was found, on the wire.
    #[must_use]
    pub fn new(request: &FormulateRequest, wanted: &Wanted, outcome: &Outcome<'_>) -> Self {
        let Outcome { found, .. } = outcome;
        let mut held_back = outcome.limits.held_back.iter();
        let items = request.stock.iter().zip(&wanted.lots).zip(found.kg.iter().zip(&outcome.worth)).map(
            |((said, lot), (&kg, &worth_of_more))| {
                let litres = said.measure.as_ref().and_then(|id| litres_of(&request.measures, id));
                let each_kg = litres.map(|litres| litres * lot.figures.density_kg_l.value);
                FormulateItem {
                    material: said.material.clone(),
                    kg: tidy(kg),
                    count: each_kg.map(|each| tidy(kg / each)),
                    measure: said.measure.clone(),
                    worth_of_more: (!request.without_worth).then(|| tidy(worth_of_more)),
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
            fits_in_parts: found.fits_in_parts,
            cost: request
                .stock
                .iter()
                .any(|lot| lot.cost_per_kg.is_some())
                .then(|| tidy(wanted.lots.iter().zip(&found.kg).map(|(lot, kg)| lot.cost_per_kg * kg).sum())),
            mix: outcome.sums.as_ref().map(|sums| Box::new(mix_of(request, wanted, found, sums))),
            size: outcome.size,
            confidence: confidence.map(|sure| Box::new(ConfidenceAnswer::new(sure, &uncertainties))),
            caps: wanted.caps.iter().map(|cap| FormulateShare::new(cap, wanted)).collect(),
            binding: outcome.limits.binding.iter().map(limits).collect(),
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
pub(super) fn tidy(value: f64) -> f64 {
    let tidy = (value * 1e7).round() / 1e7;
    if tidy == 0.0 { 0.0 } else { tidy }
}
