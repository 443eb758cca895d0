//! Everything the bench shows for one state of a mix, in one answer.
//!
//! The verdict, the figures, the field and the section must never disagree for
//! the blink of an eye, so they are asked for together.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::words::closed_list;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::confidence::{self as sure, KeptDraws, SEED};
use zymarch_core::mix::mend::{self, Candidate, With};
use zymarch_core::mix::{self as sums, MixFigures};
use zymarch_core::plan::heap::{self, HeapSize, Shape, fit};
use zymarch_core::plan::layers;
use zymarch_core::stock::Lot;
use zymarch_core::stock::material::Kind;
use zymarch_formats::confidence::ConfidenceAnswer;
use zymarch_formats::layers::{HeapFit, HeapShape, LayerPlan};
use zymarch_formats::mix::{MixAnswer, MixSums};
use zymarch_formats::recipe::{MOST_STEPS, Recipe, RecipeItem, Resolved};

use super::{layer_items, notes};
use crate::plan::{alike, one};
use crate::words::Under;

/// A mix, what could still be done to it, and the heap it is meant for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BenchRequest {
    /// The mix.
    pub recipe: Recipe,
    /// The lots a step may be made with.
    #[serde(default)]
    pub steps: Vec<BenchStep>,
    /// The heap it is meant for.
    pub heap: Option<HeapShape>,
    /// How many of them alike hold it; the layers are those of one.
    #[serde(default = "one")]
    #[schema(minimum = 1, maximum = 1000)]
    pub heaps: u32,
}

/// A lot that a step may be made with.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BenchStep {
    /// One step of it, as an item.
    pub with: RecipeItem,
    /// Its place in the recipe, if it is in already.
    pub item: Option<usize>,
    /// Steps that the stock still allows.
    pub can_add: f64,
}

closed_list! {
    /// Why a mix has no sums.
    WhyNot {
        /// There is nothing in it.
        Empty = "empty",
        /// There is no nitrogen in it.
        NoNitrogen = "no-nitrogen",
    }
}

/// What the bench shows.
#[derive(Debug, Serialize, ToSchema)]
pub struct BenchAnswer {
    /// The sums; none if there is nothing to sum.
    pub mix: Option<MixAnswer>,
    /// Why there are none.
    pub why_not: Option<WhyNot>,
    /// How sure the sums are; what would make them surer is asked apart.
    pub confidence: Option<ConfidenceAnswer>,
    /// The step that mends the mix most, if one helps.
    pub best_step: Option<BestStep>,
    /// Where one more step of each lot would put the mix, in the order of `steps`.
    pub one_more: Vec<Option<Place>>,
    /// Whether it is big enough to heat.
    pub size: Option<HeapSize>,
    /// The mix in layers, if a heap was given.
    pub layers: Option<LayerPlan>,
}

/// A step and where it leads.
#[derive(Debug, Serialize, ToSchema)]
pub struct BestStep {
    /// The lot, by its place in `steps`; none for water.
    pub step: Option<usize>,
    /// Steps to add, negative to take away; litres for water.
    pub count: f64,
    /// Water that should follow, litres.
    pub then_water_l: f64,
    /// Whether everything is in its aim afterwards.
    pub puts_right: bool,
    /// The sums afterwards.
    pub after: MixSums,
}

/// A place in the balance field.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct Place {
    /// Water, % of fresh mass.
    pub moisture_pct: f64,
    /// The C:N the window is set on.
    pub c_n: f64,
}

/// Everything the bench shows for one state of a mix.
///
/// # Errors
/// Every field that stands in the way; an empty mix is none.
pub fn bench(
    catalogue: &Catalogue,
    draws: &KeptDraws,
    request: &BenchRequest,
) -> Result<BenchAnswer, Faults> {
    let shape = request.heap.as_ref().map(HeapShape::resolve).transpose().under("heap")?;
    let heaps = alike(request.heaps)?;
    let candidates = candidates(request, catalogue)?;
    if request.recipe.items.is_empty() {
        return Ok(nothing(WhyNot::Empty));
    }
    let resolved = request.recipe.resolve(catalogue).under("recipe")?;
    let Resolved { items, uncertainties, water_l, windows, .. } = &resolved;
    let figures = match sums::sum(items, *water_l) {
        Ok(figures) => figures,
        Err(Fault { code: FaultCode::NoNitrogen, .. }) => return Ok(nothing(WhyNot::NoNitrogen)),
        Err(_) => return Ok(nothing(WhyNot::Empty)),
    };
    let best = mend::best(items, *water_l, &candidates, windows);
    let plan = shape.map(|shape| lay(&request.recipe, &resolved, &figures, (shape, heaps)));
    Ok(BenchAnswer {
        mix: Some(MixAnswer::new(&request.recipe, &resolved, &figures, &notes(&resolved, &figures))),
        why_not: None,
        confidence: draws
            .confidence(items, uncertainties, *water_l, windows, sure::draws_for(items.len()), SEED)
            .map(|found| ConfidenceAnswer::new(&found, uncertainties)),
        best_step: best.map(|mend| BestStep {
            step: match mend.with {
                With::Candidate(place) => Some(place),
                With::Water => None,
            },
            count: mend.count,
            then_water_l: mend.then_water_l,
            puts_right: mend.puts_right(),
            after: MixSums::new(&mend.after, &mend.standings),
        }),
        one_more: candidates
            .iter()
            .map(|candidate| {
                let after = mend::one_more(items, *water_l, candidate)?;
                Some(Place { moisture_pct: after.moisture * 100.0, c_n: windows.c_n_of(&after) })
            })
            .collect(),
        size: Some(
            plan.as_ref()
                .map_or_else(|| heap::size(figures.heap_volume_l, None, resolved.method), |(size, _)| *size),
        ),
        layers: plan.map(|(_, plan)| plan),
    })
}

fn nothing(why: WhyNot) -> BenchAnswer {
    BenchAnswer {
        mix: None,
        why_not: Some(why),
        confidence: None,
        best_step: None,
        one_more: Vec::new(),
        size: None,
        layers: None,
    }
}

/// The layers of one heap, where so many alike hold the mix.
fn lay(
    recipe: &Recipe,
    resolved: &Resolved<'_>,
    figures: &MixFigures,
    (shape, heaps): (Shape, u32),
) -> (HeapSize, LayerPlan) {
    let all = layer_items(recipe, resolved);
    let parts = layers::share_of(&all, heaps);
    let each = figures.share(heaps);
    let method = resolved.method;
    let plan = layers::plan(&parts, &each, resolved.water_l / f64::from(heaps), shape, method);
    let amounts: Vec<_> = recipe
        .items
        .iter()
        .zip(&resolved.items)
        .map(|(written, item)| {
            let said = written.amount.or(written.kg).or(written.litres);
            (said.unwrap_or(item.wet_mass_kg), written.amount.is_some())
        })
        .collect();
    let cap_l = plan.beside_l - heap::foundation_l(shape, method);
    let found = fit::fit(shape, each.heap_volume_l, cap_l, method);
    // Made to fill it, the mix may have browns enough for its cap, or no longer.
    let full_cap_l = layers::cap_beside_l(&parts, found.factor, shape, method);
    let found = fit::Fit {
        factor: fit::factor(shape, each.heap_volume_l, full_cap_l, method),
        heaps: fit::heaps(shape, figures.heap_volume_l, cap_l, method),
        ..found
    };
    (plan.size, LayerPlan::new(&plan, shape, HeapFit::new(&found, &amounts, resolved.water_l)))
}

/// The steps as the core takes them, checked like any item.
fn candidates(request: &BenchRequest, catalogue: &Catalogue) -> Result<Vec<Candidate>, Faults> {
    let list = At::ROOT.key("steps");
    list.holds(request.steps.len(), MOST_STEPS)?;
    for (index, step) in request.steps.iter().enumerate() {
        if step.item.is_some_and(|item| item >= request.recipe.items.len()) {
            return Err(list.index(index).key("item").fault(FaultCode::NotInRecipe).into());
        }
    }
    let steps: Vec<&RecipeItem> = request.steps.iter().map(|step| &step.with).collect();
    let items = request.recipe.resolve_steps(&steps, "steps", catalogue)?;
    Ok(request
        .steps
        .iter()
        .zip(items)
        .map(|(step, item)| {
            let kind = catalogue.material(&step.with.material).map_or(Kind::Brown, |row| row.kind);
            let most_kg = item.wet_mass_kg * step.can_add.max(0.0);
            let lot = Lot::up_to(most_kg, item.figures, kind).in_steps(Some(item.wet_mass_kg));
            Candidate { lot, in_mix: step.item }
        })
        .collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn ask(body: &str) -> Result<BenchAnswer, Faults> {
        bench(
            &Catalogue::book(),
            &KeptDraws::default(),
            &zymarch_formats::field::read(body).expect("well formed"),
        )
    }

    const RECIPE: &str = r#""format":"zymarch-recipe/1","measures":[{"id":"1","litres":70}]"#;

    #[test]
    fn an_empty_bench_says_it_is_empty() {
        let got = ask(&format!(r#"{{"recipe":{{{RECIPE},"items":[]}}}}"#)).expect("is allowed");
        assert_eq!((got.mix.is_none(), got.why_not), (true, Some(WhyNot::Empty)));
    }

    #[test]
    fn ash_alone_says_that_there_is_no_nitrogen() {
        let body = format!(r#"{{"recipe":{{{RECIPE},"items":[{{"material":"wood-ash","kg":3}}]}}}}"#);
        assert_eq!(ask(&body).expect("is allowed").why_not, Some(WhyNot::NoNitrogen));
    }

    #[test]
    fn layers_and_steps_come_with_the_sums() {
        let body = format!(
            r#"{{"recipe":{{{RECIPE},"water_l":20,"items":[
                 {{"material":"barley-straw","amount":8,"measure":"1"}},{{"material":"sheep-manure","amount":1,"measure":"1"}}]}},
               "steps":[{{"item":1,"can_add":3,"with":{{"material":"sheep-manure","amount":1,"measure":"1"}}}}],
               "heap":{{"shape":"box","length_cm":100,"width_cm":100,"height_cm":100}}}}"#
        );
        let got = ask(&body).expect("is sound");
        let grams: u64 = got.layers.expect("a heap was given").layers.iter().map(|layer| layer.grams).sum();
        assert_eq!(grams, 66_500);
        assert_eq!(got.one_more.len(), 1);
        assert!(got.best_step.is_some_and(|step| step.step == Some(0)));
    }

    #[test]
    fn a_bad_step_and_a_bad_item_are_named() {
        let path = |body: &str| ask(body).expect_err("refused").0[0].path.to_string();
        let step = format!(
            r#"{{"recipe":{{{RECIPE},"items":[]}},"steps":[{{"can_add":1,"with":{{"material":"sheep-manure","kg":-1}}}}]}}"#
        );
        assert_eq!(path(&step), "steps[0].kg");
        let item = format!(r#"{{"recipe":{{{RECIPE},"items":[{{"material":"lime","kg":-1}}]}}}}"#);
        assert_eq!(path(&item), "recipe.items[0].kg");
    }
}
