//! Everything the bench shows for one state of a mix, in one answer.
//!
//! The verdict, the figures, the field and the section must never disagree for
//! the blink of an eye, so they are asked for together.

use axum::Json;
use axum::extract::State;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::heap::{self, Shape, fit};
use zymarch_core::layers::{self, Part};
use zymarch_core::mend::{self, Candidate, With};
use zymarch_core::mix::{self as sums, MixError};
use zymarch_formats::confidence::{self, ConfidenceAnswer};
use zymarch_formats::field::Refusal;
use zymarch_formats::layers::{HeapFit, HeapShape, LayerPlan};
use zymarch_formats::mix::{self, MixAnswer, MixSums};
use zymarch_formats::recipe::{Recipe, RecipeItem, Resolved};

use crate::http::body::Body;
use crate::http::problem::{ApiError, Problem};
use crate::state::App;

/// A mix, what could still be done to it, and the heap it is meant for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct BenchRequest {
    recipe: Recipe,
    /// The lots a step may be made with.
    #[serde(default)]
    steps: Vec<BenchStep>,
    /// The heap it is meant for.
    heap: Option<HeapShape>,
}

/// A lot that a step may be made with.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
struct BenchStep {
    /// One step of it, as an item.
    with: RecipeItem,
    /// Its place in the recipe, if it is in already.
    item: Option<usize>,
    /// Steps that the stock still allows.
    can_add: f64,
}

/// What the bench shows.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct BenchAnswer {
    /// The sums; none if there is nothing to sum.
    mix: Option<MixAnswer>,
    /// Why there are none: `empty` or `no-nitrogen`.
    why_not: Option<&'static str>,
    /// How sure the sums are.
    confidence: Option<ConfidenceAnswer>,
    /// The step that mends the mix most, if one helps.
    best_step: Option<BestStep>,
    /// Where one more step of each lot would put the mix, in the order of `steps`.
    one_more: Vec<Option<Place>>,
    /// `too-small-to-heat`, `just-big-enough` or `big-enough`.
    size: Option<&'static str>,
    /// The mix in layers, if a heap was given.
    layers: Option<LayerPlan>,
}

/// A step and where it leads.
#[derive(Debug, Serialize, ToSchema)]
struct BestStep {
    /// The lot, by its place in `steps`; none for water.
    step: Option<usize>,
    /// Steps to add, negative to take away; litres for water.
    count: f64,
    /// Water that should follow, litres.
    then_water_l: f64,
    /// Whether everything is in its aim afterwards.
    puts_right: bool,
    /// The sums afterwards.
    after: MixSums,
}

/// A place in the balance field.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
struct Place {
    /// Water, % of fresh mass.
    moisture_pct: f64,
    /// The C:N the target is set on.
    c_n: f64,
}

/// Everything the bench shows for one state of a mix
#[utoipa::path(post, operation_id = "bench_ask", tag = "bench", path = "/api/bench", request_body = BenchRequest, responses(
    (status = 200, body = BenchAnswer),
    (status = 422, body = Problem, content_type = "application/problem+json"),
))]
pub(super) async fn ask(
    State(state): State<App>,
    Body(request): Body<BenchRequest>,
) -> Result<Json<BenchAnswer>, ApiError> {
    Ok(Json(answer(&request, &state.catalogue())?))
}

fn answer(request: &BenchRequest, catalogue: &Catalogue) -> Result<BenchAnswer, Refusal> {
    let shape = request.heap.as_ref().map(|heap| heap.resolve("heap")).transpose()?;
    let candidates = candidates(request, catalogue)?;
    if request.recipe.items.is_empty() {
        return Ok(nothing(MixError::Empty));
    }
    let resolved = request.recipe.resolve(catalogue)?;
    let Resolved { items, water_l, target, .. } = &resolved;
    let figures = match sums::sum(items, *water_l) {
        Ok(figures) => figures,
        Err(why) => return Ok(nothing(why)),
    };
    let best = mend::best_step(items, *water_l, &candidates, target);
    Ok(BenchAnswer {
        mix: Some(mix::answer_resolved(&request.recipe, &resolved, catalogue)?),
        why_not: None,
        confidence: confidence::of(items, &resolved.doubts, *water_l, target),
        best_step: best.map(|step| BestStep {
            step: match step.with {
                With::Candidate(place) => Some(place),
                With::Water => None,
            },
            count: step.count,
            then_water_l: step.then_water_l,
            puts_right: step.puts_right(),
            after: MixSums::new(&step.after, step.standings),
        }),
        one_more: candidates
            .iter()
            .map(|candidate| {
                let after = mend::one_more(items, *water_l, candidate)?;
                Some(Place { moisture_pct: after.moisture * 100.0, c_n: target.c_n_of(&after) })
            })
            .collect(),
        size: Some(
            heap::size_finding(figures.heap_volume_l).map_or("big-enough", |found| found.code.as_str()),
        ),
        layers: shape.map(|shape| lay((request, catalogue), &resolved, &figures, shape)),
    })
}

fn nothing(why: MixError) -> BenchAnswer {
    BenchAnswer {
        mix: None,
        why_not: Some(if why == MixError::NoNitrogen { "no-nitrogen" } else { "empty" }),
        confidence: None,
        best_step: None,
        one_more: Vec::new(),
        size: None,
        layers: None,
    }
}

fn lay(
    (request, catalogue): (&BenchRequest, &Catalogue),
    resolved: &Resolved,
    figures: &sums::MixFigures,
    shape: Shape,
) -> LayerPlan {
    let parts = parts(&request.recipe, resolved, catalogue);
    let method = resolved.method;
    let plan = layers::plan(&parts, figures, resolved.water_l, shape, method);
    let amounts: Vec<_> = request
        .recipe
        .items
        .iter()
        .zip(&resolved.items)
        .map(|(written, item)| {
            let said = written.amount.or(written.kg).or(written.litres);
            (said.unwrap_or(item.wet_mass_kg), written.amount.is_some())
        })
        .collect();
    let fitted = |cap_l: f64| fit::fit(shape, figures.heap_volume_l, cap_l, method);
    let found = fitted(plan.beside_l - heap::foundation_l(shape, method));
    // Made to fill it, the mix may have browns enough for its cap, or no longer.
    let full = fitted(layers::cap_beside_l(&parts, found.factor, shape, method));
    let found = fit::Fit { factor: full.factor, ..found };
    LayerPlan::new(&plan, shape, HeapFit::new(&found, &amounts, resolved.water_l))
}

/// The items of a recipe as parts of a heap.
pub(super) fn parts(recipe: &Recipe, resolved: &Resolved, catalogue: &Catalogue) -> Vec<Part> {
    recipe
        .items
        .iter()
        .zip(&resolved.items)
        .map(|(written, item)| Part::new(*item, catalogue.find(&written.material), written.amount))
        .collect()
}

/// The steps as the core takes them, checked like any item.
fn candidates(request: &BenchRequest, catalogue: &Catalogue) -> Result<Vec<Candidate>, Refusal> {
    for (index, step) in request.steps.iter().enumerate() {
        if step.item.is_some_and(|item| item >= request.recipe.items.len()) {
            return Err(Refusal::one(format!("steps[{index}].item"), "is not in the recipe"));
        }
    }
    let steps: Vec<RecipeItem> = request.steps.iter().map(|step| step.with.clone()).collect();
    let items = request.recipe.resolve_steps(&steps, "steps", catalogue)?;
    Ok(request
        .steps
        .iter()
        .zip(items)
        .map(|(step, item)| Candidate { step: item, in_mix: step.item, can_add: step.can_add.max(0.0) })
        .collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn ask(body: &str) -> Result<BenchAnswer, Refusal> {
        answer(&zymarch_formats::field::read(body).expect("well formed"), &Catalogue::book())
    }

    const RECIPE: &str = r#""format":"zymarch-recipe/1","measures":[{"id":"1","litres":70}]"#;

    #[test]
    fn an_empty_bench_says_it_is_empty() {
        let got = ask(&format!(r#"{{"recipe":{{{RECIPE},"items":[]}}}}"#)).expect("is allowed");
        assert_eq!((got.mix.is_none(), got.why_not), (true, Some("empty")));
    }

    #[test]
    fn ash_alone_says_that_there_is_no_nitrogen() {
        let body = format!(r#"{{"recipe":{{{RECIPE},"items":[{{"material":"wood-ash","kg":3}}]}}}}"#);
        assert_eq!(ask(&body).expect("is allowed").why_not, Some("no-nitrogen"));
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
    fn a_bad_step_is_named() {
        let body = format!(
            r#"{{"recipe":{{{RECIPE},"items":[]}},"steps":[{{"can_add":1,"with":{{"material":"sheep-manure","kg":-1}}}}]}}"#
        );
        assert_eq!(ask(&body).expect_err("negative").errors[0].field, "steps[0].kg");
    }
}
