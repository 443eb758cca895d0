//! `zymarch-correct/1`: a mix, and what to add to bring it to the middle.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Faults};
use zymarch_core::base::quantity;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::correct::{self, Act};
use zymarch_core::mix::window::Flaw;
use zymarch_core::stock::material::{self, Kind};
use zymarch_core::stock::measure::LARGEST_MEASURE_L;
use zymarch_core::stock::{self, Lot, Own};

use crate::field::{self, Document};
use crate::mix::MixSums;
use crate::recipe::{Recipe, RecipeItem};
use crate::working::Line;

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-correct/1";

/// A mix, and what may be added to it.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CorrectRequest {
    /// `zymarch-correct/1`.
    #[schema(example = "zymarch-correct/1")]
    pub format: String,
    /// The mix.
    pub recipe: Recipe,
    /// What is on hand to be added.
    #[serde(default)]
    pub with: Vec<CorrectStep>,
    /// The container that other, common things would be fetched in, litres; any amount if left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fetched_in_l: Option<f64>,
    /// Mean temperature of the air, °C, where it is known: drying takes longer in the cold.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air_c: Option<f64>,
}

/// A lot that may be added, in steps.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CorrectStep {
    /// One step of it, as an item.
    pub with: RecipeItem,
    /// Steps that the stock still allows.
    pub can_add: f64,
}

/// What is wrong with a mix, and what would put each right.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CorrectAnswer {
    /// `zymarch-correct/1`.
    pub format: &'static str,
    /// In the order in which they are best put right; none if all is in its aim.
    #[serde(rename = "faults")]
    pub flaws: Vec<CorrectFlaw>,
}

/// One thing wrong.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CorrectFlaw {
    /// What is wrong.
    #[serde(rename = "fault")]
    pub flaw: Flaw,
    /// What would put it right, best first: what is on hand or can be done at once, then what would be fetched.
    pub choices: Vec<CorrectChoice>,
}

/// Something to do.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CorrectChoice {
    /// What is done.
    pub act: Act,
    /// Of adding, of what is on hand: its place in `with`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub step: Option<usize>,
    /// Of adding: the material.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// How much, kg; of water, litres; of what is dried or drained, the water it loses.
    pub kg: f64,
    /// The same, loose litres.
    pub litres: f64,
    /// The same in steps, or in the container it would be fetched in.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub count: Option<f64>,
    /// What goes in with it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub and: Option<CorrectPart>,
    /// What of the mix it is done to, by their places in the recipe.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub items: Vec<usize>,
    /// About how many days it takes, from and to.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub days: Option<[f64; 2]>,
    /// Water that should follow, litres.
    pub then_water_l: f64,
    /// Whether everything is in its aim afterwards.
    pub puts_right: bool,
    /// The sums afterwards.
    pub after: MixSums,
    /// How the amount comes about, before it is rounded to steps; none of what has no such sum.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub line: Option<Line>,
}

/// What goes in with something.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CorrectPart {
    /// Of what is on hand: its place in `with`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub step: Option<usize>,
    /// The material.
    pub material: String,
    /// How much, kg.
    pub kg: f64,
    /// The same, loose litres.
    pub litres: f64,
    /// The same in steps, or in the container it would be fetched in.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub count: Option<f64>,
}

impl Document for CorrectRequest {
    const FORMAT: &'static str = FORMAT;
}

/// Reads a request.
///
/// # Errors
/// [`Faults`] that name the field and, where it is known, the line.
pub fn parse(text: &str) -> Result<CorrectRequest, Faults> {
    field::document(text)
}

/// Something offered: what is on hand, or a common material to be fetched.
#[derive(Debug, Clone, PartialEq)]
pub struct Offered {
    /// Of what is on hand: its place in `with`.
    pub step: Option<usize>,
    /// The material.
    pub material: String,
    /// The lot, with its step and the most there is.
    pub lot: Lot,
}

impl CorrectRequest {
    /// What is offered: what is on hand, and what could be fetched beside it.
    ///
    /// # Errors
    /// Every fault of the steps.
    pub fn offered(&self, catalogue: &Catalogue) -> Result<(Vec<Offered>, Vec<Offered>), Faults> {
        let steps: Vec<&RecipeItem> = self.with.iter().map(|step| &step.with).collect();
        let items = self.recipe.resolve_steps(&steps, "with", catalogue)?;
        let on_hand: Vec<Offered> = self
            .with
            .iter()
            .zip(items)
            .enumerate()
            .filter(|(_, (_, item))| item.wet_mass_kg > 0.0 && !item.figures.must_not_go_in)
            .map(|(place, (step, item))| {
                let kind = catalogue.material(&step.with.material).map_or(Kind::Brown, |row| row.kind);
                let most_kg = item.wet_mass_kg * step.can_add.max(0.0);
                let lot = Lot::up_to(most_kg, item.figures, kind).in_steps(Some(item.wet_mass_kg));
                Offered { step: Some(place), material: step.with.material.clone(), lot }
            })
            .collect();
        let is_on_hand = |id: &str| on_hand.iter().any(|one| one.material == id && one.lot.most_kg > 0.0);
        let to_fetch = material::common()
            .filter(|row| !is_on_hand(&row.id))
            .filter_map(|row| {
                let figures = stock::figures(Some(row), &Own::default()).ok()?;
                // What is fetched comes in halves of its container.
                let step_kg = self.fetched_in_l.map(|litres| litres / 2.0 * figures.density_kg_l.value);
                let lot = Lot::up_to(f64::INFINITY, figures, row.kind).in_steps(step_kg);
                Some(Offered { step: None, material: row.id.clone(), lot })
            })
            .collect();
        Ok((on_hand, to_fetch))
    }

    /// The faults of what stands beside the recipe.
    ///
    /// # Errors
    /// Every one of them.
    pub fn checked(&self) -> Result<(), Faults> {
        let mut found = Vec::new();
        field::is_format(&self.format, FORMAT, &mut found);
        if let Some(litres) = self.fetched_in_l
            && let Err(fault) = quantity::above(litres, 0.0, LARGEST_MEASURE_L)
        {
            found.push(At::ROOT.key("fetched_in_l").put(fault));
        }
        if let Some(air_c) = self.air_c
            && let Err(fault) = quantity::within(air_c, -40.0, 60.0)
        {
            found.push(At::ROOT.key("air_c").put(fault));
        }
        Faults::or(found, || ())
    }
}

impl CorrectChoice {
    /// A correction on the wire, made with what was offered, or with what is in the mix.
    #[must_use]
    pub fn new(correction: &correct::Correction, offered: &[Offered]) -> Self {
        let part = |place: usize, kg: f64| offered[place].part(kg);
        let with = correction.with.map(|place| part(place, correction.kg));
        Self {
            act: correction.act,
            step: with.as_ref().and_then(|one| one.step),
            litres: with.as_ref().map_or(correction.kg, |one| one.litres),
            count: with.as_ref().and_then(|one| one.count),
            material: with.map(|one| one.material),
            kg: correction.kg,
            and: correction.and.map(|(place, kg)| part(place, kg)),
            items: correction.items.clone(),
            days: correction.days.map(|days| [days.low(), days.high()]),
            then_water_l: correction.then_water_l,
            puts_right: correction.puts_right(),
            after: MixSums::new(&correction.after, &correction.standings),
            line: correction.line.as_ref().map(Line::from),
        }
    }
}

impl Offered {
    fn part(&self, kg: f64) -> CorrectPart {
        // What is fetched is rounded to halves of its container, and counted in it.
        let step = self.lot.step_kg.map(|kg| if self.step.is_some() { kg } else { 2.0 * kg });
        CorrectPart {
            step: self.step,
            material: self.material.clone(),
            kg,
            litres: kg / self.lot.figures.density_kg_l.value,
            count: step.map(|step| kg / step),
        }
    }
}
