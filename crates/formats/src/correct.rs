//! `zymarch-correct/1`: a mix, and what to add to bring it to the middle.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::correct::{self, Addable};
use zymarch_core::material;
use zymarch_core::measure::LARGEST_MEASURE_L;
use zymarch_core::mix;
use zymarch_core::stock::{self, Own};

use crate::field::{self, Document, Refusal};
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
    pub faults: Vec<CorrectFault>,
}

/// One thing wrong.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CorrectFault {
    /// `too-green`, `too-brown`, `too-dry`, `too-wet` or `too-dense`.
    pub fault: &'static str,
    /// What would put it right, one material at a time, best first. What is on hand stands first.
    pub choices: Vec<CorrectChoice>,
}

/// Something to add.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CorrectChoice {
    /// Of what is on hand: its place in `with`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub step: Option<usize>,
    /// The material; none for water.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// How much, kg; of water, litres.
    pub kg: f64,
    /// The same, loose litres.
    pub litres: f64,
    /// The same in steps, or in the container it would be fetched in.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub count: Option<f64>,
    /// Water that should follow, litres.
    pub then_water_l: f64,
    /// Whether everything is in its aim afterwards.
    pub puts_right: bool,
    /// The sums afterwards.
    pub after: MixSums,
    /// How the amount comes about, before it is rounded to steps.
    pub line: Line,
}

impl Document for CorrectRequest {
    const FORMAT: &'static str = FORMAT;
}

/// Reads a request.
///
/// # Errors
/// A [`Refusal`] that names the field and, where it is known, the line.
pub fn parse(text: &str) -> Result<CorrectRequest, Refusal> {
    field::document(text)
}

/// Something offered: what is on hand, or a common material to be fetched.
struct Offered {
    step: Option<usize>,
    material: String,
    addable: Addable,
}

/// What is wrong with a mix, and what would put each right.
///
/// # Errors
/// A [`Refusal`] of the fields found wrong, or of a mix that has no sums.
pub fn answer(request: &CorrectRequest, catalogue: &Catalogue) -> Result<CorrectAnswer, Refusal> {
    if request.format != FORMAT {
        let reason = format!("is \"{}\", but \"{FORMAT}\" is read here", request.format);
        return Err(Refusal::one("format", reason));
    }
    if let Some(litres) = request.fetched_in_l
        && !(litres > 0.0 && litres <= LARGEST_MEASURE_L)
    {
        let reason = format!("must be above 0 and at most {LARGEST_MEASURE_L}, got {litres}");
        return Err(Refusal::one("fetched_in_l", reason));
    }
    let resolved = request.recipe.resolve(catalogue).map_err(|mut refusal| {
        for error in &mut refusal.errors {
            error.field = format!("recipe.{}", error.field);
        }
        refusal
    })?;
    let figures = mix::sum(&resolved.items, resolved.water_l)
        .map_err(|error| Refusal::one("recipe.items", error.to_string()))?;
    let (on_hand, to_fetch) = offered(request, catalogue)?;
    let list = |fault, offered: &[Offered]| -> Vec<CorrectChoice> {
        let addable: Vec<Addable> = offered.iter().map(|one| one.addable).collect();
        correct::corrections(&resolved.items, resolved.water_l, fault, &addable, &resolved.target)
            .iter()
            .map(|correction| choice(correction, offered))
            .collect()
    };
    let faults = correct::faults(&figures, &resolved.target).into_iter().map(|fault| {
        let mut choices = list(fault, &on_hand);
        choices.extend(list(fault, &to_fetch).into_iter().filter(|choice| choice.material.is_some()));
        CorrectFault { fault: fault.as_str(), choices }
    });
    Ok(CorrectAnswer { format: FORMAT, faults: faults.collect() })
}

fn offered(request: &CorrectRequest, catalogue: &Catalogue) -> Result<(Vec<Offered>, Vec<Offered>), Refusal> {
    let steps: Vec<RecipeItem> = request.with.iter().map(|step| step.with.clone()).collect();
    let items = request.recipe.resolve_steps(&steps, "with", catalogue)?;
    let on_hand: Vec<Offered> = request
        .with
        .iter()
        .zip(items)
        .enumerate()
        .filter(|(_, (_, item))| item.wet_mass_kg > 0.0 && !item.figures.must_not_go_in)
        .map(|(place, (step, item))| Offered {
            step: Some(place),
            material: step.with.material.clone(),
            addable: Addable {
                figures: item.figures,
                step_kg: Some(item.wet_mass_kg),
                most_kg: item.wet_mass_kg * step.can_add.max(0.0),
            },
        })
        .collect();
    let is_on_hand = |id: &str| on_hand.iter().any(|one| one.material == id && one.addable.most_kg > 0.0);
    let to_fetch = material::common()
        .filter(|row| !is_on_hand(&row.id))
        .filter_map(|row| {
            let figures = stock::figures(Some(row), &Own::default()).ok()?;
            let step_kg = request.fetched_in_l.map(|litres| litres / 2.0 * figures.density_kg_l.value);
            let addable = Addable { figures, step_kg, most_kg: f64::INFINITY };
            Some(Offered { step: None, material: row.id.clone(), addable })
        })
        .collect();
    Ok((on_hand, to_fetch))
}

fn choice(correction: &correct::Correction, offered: &[Offered]) -> CorrectChoice {
    let with = correction.with.map(|place| &offered[place]);
    let density = with.map_or(1.0, |one| one.addable.figures.density_kg_l.value);
    // What is fetched is rounded to halves of its container, and counted in it.
    let step =
        with.and_then(|one| one.addable.step_kg.map(|kg| if one.step.is_some() { kg } else { 2.0 * kg }));
    CorrectChoice {
        step: with.and_then(|one| one.step),
        material: with.map(|one| one.material.clone()),
        kg: correction.kg,
        litres: correction.kg / density,
        count: step.map(|step| correction.kg / step),
        then_water_l: correction.then_water_l,
        puts_right: correction.puts_right(),
        after: MixSums::new(&correction.after, correction.standings),
        line: Line::from(&correction.line),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn asked(with: &str) -> Result<CorrectAnswer, Refusal> {
        let text = format!(
            r#"{{"format":"zymarch-correct/1","fetched_in_l":70,"with":[{with}],"recipe":{{"format":"zymarch-recipe/1",
               "measures":[{{"id":"barrow","litres":70}}],"water_l":60,"items":[{{"material":"wheat-straw","amount":12,"measure":"barrow"}}]}}}}"#
        );
        answer(&parse(&text)?, &Catalogue::book())
    }

    #[test]
    fn what_is_on_hand_stands_before_what_would_be_fetched() {
        let got = asked(r#"{"with":{"material":"sheep-manure","amount":1,"measure":"barrow"},"can_add":9}"#)
            .expect("sound");
        let brown = &got.faults[0];
        assert_eq!((brown.fault, brown.choices[0].step), ("too-brown", Some(0)));
        assert!((brown.choices[0].count.expect("in barrows").fract()).abs() < 1e-9);
        assert!(brown.choices[1..].iter().all(|choice| choice.material.as_deref() != Some("sheep-manure")));
        // In halves of the barrow they would be fetched in.
        assert!(
            brown.choices[1..]
                .iter()
                .all(|choice| (choice.count.expect("counted") * 2.0).fract().abs() < 1e-6)
        );
    }

    #[test]
    fn a_bad_step_is_named() {
        let refusal =
            asked(r#"{"with":{"material":"sheep-manure","amount":-1,"measure":"barrow"},"can_add":9}"#);
        assert_eq!(refusal.expect_err("negative").errors[0].field, "with[0].amount");
    }
}
