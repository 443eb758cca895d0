//! What is to be done before build day: starters begun in time, and everything else at hand.

use axum::Json;
use axum::extract::State;
use jiff::ToSpan;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::quantity::Band;
use zymarch_core::starter::{self, Heap, Starter};
use zymarch_core::{layers, mix, prepare};
use zymarch_formats::field::Refusal;
use zymarch_formats::layers::HeapShape;
use zymarch_formats::recipe::{MOST_ITEMS, Recipe};

use super::bench;
use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// Days from today that a build day may lie, before or after.
const FARTHEST_DAYS: i32 = 3650;

/// A batch that is to be built.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct PrepareRequest {
    /// The mix, with its method.
    recipe: Recipe,
    /// The heap.
    heap: HeapShape,
    /// The day it is to be built; left out, the first day on which the starters chosen are ready.
    #[schema(value_type = Option<String>, format = Date)]
    build_on: Option<Date>,
    /// What is to help it begin.
    #[serde(default)]
    starters: Vec<String>,
    /// What is missing of each item, in the unit it is said in, in the order of the recipe.
    #[serde(default)]
    missing: Vec<f64>,
}

/// What is to be done before build day.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct PrepareAnswer {
    /// The day it is built.
    build_on: String,
    /// Days until then; below zero if it has passed.
    days: i32,
    /// Every starter, as it would have to be made.
    starters: Vec<StarterPlan>,
    /// Everything else.
    needs: Vec<PrepareNeed>,
}

/// A starter, scaled to the heap and scheduled back from build day.
#[derive(Debug, Serialize, ToSchema)]
struct StarterPlan {
    /// Stable word.
    id: &'static str,
    /// `build`, or `use` if it is for finished compost.
    purpose: &'static str,
    /// Whether it was chosen.
    chosen: bool,
    /// How much of it, low and high.
    make: [f64; 2],
    /// `litre` or `kg`.
    unit: &'static str,
    /// What goes into the middle of that.
    ingredients: Vec<StarterIngredient>,
    /// `in-time`, `just-in-time` or `too-late`.
    timing: &'static str,
    /// When it is begun.
    start_on: String,
    /// When it is sure to be ready.
    ready_on: String,
    /// Last day to use it; none if it keeps.
    use_by: Option<String>,
    /// What is done, in order.
    tasks: Vec<StarterTask>,
}

/// Something that goes into a starter.
#[derive(Debug, Serialize, ToSchema)]
struct StarterIngredient {
    /// Stable word.
    id: &'static str,
    /// How much, low and high.
    amount: [f64; 2],
    /// `litre` or `kg`.
    unit: &'static str,
    /// Ids or groups of materials that can stand for it.
    stock: Vec<&'static str>,
}

/// A task on the way to a starter.
#[derive(Debug, Serialize, ToSchema)]
struct StarterTask {
    /// What.
    step: &'static str,
    /// First day.
    from: String,
    /// Last day.
    to: String,
    /// How often a day, if it is repeated.
    times_a_day: Option<f64>,
}

/// Something to be ready.
#[derive(Debug, Serialize, ToSchema)]
struct PrepareNeed {
    /// What.
    job: &'static str,
    /// The day by which.
    on: String,
    /// The item it is about, by its place in the recipe.
    item: Option<usize>,
    /// The numbers of its sentence.
    params: std::collections::BTreeMap<&'static str, f64>,
}

/// A starter, as the list of all of them tells it.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct StarterRow {
    /// Stable word.
    id: &'static str,
    /// `build`, or `use` if it is for finished compost.
    purpose: &'static str,
    /// `heap-volume`, `water`, `dry-browns`, `wet-mass` or `none`: what it is measured by.
    per: &'static str,
    /// So much of it for one litre or kilogram of that, low and high.
    rate: [f64; 2],
    /// `litre` or `kg`.
    unit: &'static str,
    /// Days until it is ready, low and high.
    ready_days: [f64; 2],
    /// Days that it keeps then; none if it keeps.
    keeps_days: Option<f64>,
    /// How well it is shown to help: `some`, `little` or `disputed`.
    evidence: &'static str,
    /// What to beware of.
    hazards: Vec<&'static str>,
}

/// The starters of a batch, each known and named once.
pub(super) fn known(ids: &[String]) -> Result<Vec<&'static Starter>, Refusal> {
    ids.iter()
        .enumerate()
        .map(|(index, id)| {
            let field = format!("starters[{index}]");
            if ids[..index].contains(id) {
                return Err(Refusal::one(field, "stands there already"));
            }
            starter::find(id).ok_or_else(|| Refusal::one(field, "is not a starter that is known here"))
        })
        .collect()
}

/// The starters
#[utoipa::path(get, operation_id = "starter_list", tag = "prepare", path = "/api/starters", responses((status = 200, body = Vec<StarterRow>)))]
pub(super) async fn starters() -> Json<Vec<StarterRow>> {
    let row = |one: &'static Starter| StarterRow {
        id: &one.id,
        purpose: one.purpose.as_str(),
        per: one.per.as_str(),
        rate: range(one.rate),
        unit: one.unit.as_str(),
        ready_days: range(one.ready_days),
        keeps_days: one.keeps_days,
        evidence: one.evidence.as_str(),
        hazards: one.hazards.iter().map(|hazard| hazard.as_str()).collect(),
    };
    Json(starter::all().iter().map(row).collect())
}

/// What is to be done before a batch is built
#[utoipa::path(post, operation_id = "prepare_ask", tag = "prepare", path = "/api/prepare", request_body = PrepareRequest, responses(
    (status = 200, body = PrepareAnswer),
    Refusals,
))]
pub(super) async fn ask(
    State(state): State<App>,
    Body(request): Body<PrepareRequest>,
) -> Result<Json<PrepareAnswer>, ApiError> {
    Ok(Json(answer(&request, &state.catalogue(), state.clock.today())?))
}

fn answer(request: &PrepareRequest, catalogue: &Catalogue, today: Date) -> Result<PrepareAnswer, Refusal> {
    let shape = request.heap.resolve("heap")?;
    let chosen = known(&request.starters)?;
    if request.missing.len() > MOST_ITEMS || request.missing.iter().any(|one| !one.is_finite() || *one < 0.0)
    {
        return Err(Refusal::one("missing", "must be amounts from 0 on, one for each item"));
    }
    let resolved = request.recipe.resolve(catalogue).map_err(|mut refusal| {
        for error in &mut refusal.errors {
            error.field = format!("recipe.{}", error.field);
        }
        refusal
    })?;
    let figures = mix::sum(&resolved.items, resolved.water_l)
        .map_err(|why| Refusal::one("recipe.items", why.to_string()))?;
    let method = resolved.method;
    let parts = bench::parts(&request.recipe, &resolved, catalogue);
    let plan = layers::plan(&parts, &figures, resolved.water_l, shape, method);

    let heap = Heap::of(&parts, &figures, resolved.water_l);
    let days = match request.build_on {
        None => starter::soonest(&chosen),
        Some(day) => {
            let days = today.until(day).map(|span| span.get_days()).unwrap_or(i32::MAX);
            if days.abs() > FARTHEST_DAYS {
                return Err(Refusal::one("build_on", "is more than ten years away"));
            }
            days
        }
    };
    let on = |day: i32| today.saturating_add(day.days()).to_string();
    let plans: Vec<_> = starter::all().iter().map(|one| (one, starter::plan(one, &heap, days))).collect();
    let made: Vec<_> = plans
        .iter()
        .filter(|(one, _)| chosen.iter().any(|other| other.id == one.id))
        .map(|(one, plan)| (*one, plan.make.middle()))
        .collect();
    let of_parts: Vec<_> = parts
        .iter()
        .zip(&request.recipe.items)
        .enumerate()
        .map(|(index, (part, written))| {
            let missing = request.missing.get(index).copied().unwrap_or(0.0);
            (*part, catalogue.find(&written.material), missing)
        })
        .collect();
    let needs = prepare::needs(&prepare::Planned {
        parts: &of_parts,
        water_l: resolved.water_l,
        heap_volume_l: figures.heap_volume_l,
        shape,
        beside_l: plan.beside_l,
        method,
        starters: &made,
    });
    Ok(PrepareAnswer {
        build_on: on(days),
        days,
        starters: plans
            .iter()
            .map(|(one, plan)| scheduled(one, plan, chosen.iter().any(|other| other.id == one.id), &on))
            .collect(),
        needs: needs
            .into_iter()
            .map(|need| PrepareNeed {
                job: need.job.as_str(),
                on: on(days - i32::from(need.days_before)),
                item: need.item,
                params: need.params.into_iter().collect(),
            })
            .collect(),
    })
}

fn scheduled(
    one: &'static Starter,
    plan: &starter::Plan,
    chosen: bool,
    on: &impl Fn(i32) -> String,
) -> StarterPlan {
    StarterPlan {
        id: &one.id,
        purpose: one.purpose.as_str(),
        chosen,
        make: range(plan.make),
        unit: one.unit.as_str(),
        ingredients: one
            .ingredients
            .iter()
            .zip(&plan.ingredients)
            .map(|(ingredient, amount)| StarterIngredient {
                id: &ingredient.id,
                amount: range(*amount),
                unit: ingredient.unit.as_str(),
                stock: ingredient.stock.iter().map(String::as_str).collect(),
            })
            .collect(),
        timing: plan.timing.as_str(),
        start_on: on(plan.start_day),
        ready_on: on(plan.ready_day),
        use_by: plan.use_by_day.map(on),
        tasks: plan
            .tasks
            .iter()
            .map(|task| StarterTask {
                step: task.step.as_str(),
                from: on(task.from_day),
                to: on(task.to_day),
                times_a_day: task.times_a_day,
            })
            .collect(),
    }
}

fn range(band: Band) -> [f64; 2] {
    [band.low(), band.high()]
}

#[cfg(test)]
mod tests {
    use super::*;

    const TODAY: Date = jiff::civil::date(2026, 3, 14);

    fn ask(rest: &str) -> Result<PrepareAnswer, Refusal> {
        let body = format!(
            r#"{{"recipe":{{"format":"zymarch-recipe/1","water_l":60,"method":"layered-heap","items":[
                 {{"material":"barley-straw","kg":100}},{{"material":"sheep-manure","kg":220}}]}},
               "heap":{{"shape":"pile","length_cm":180,"width_cm":180,"top_cm":120,"height_cm":120}}{rest}}}"#
        );
        answer(&zymarch_formats::field::read(&body).expect("well formed"), &Catalogue::book(), TODAY)
    }

    #[test]
    fn a_ferment_eight_days_ahead_begins_tomorrow() {
        let got = ask(r#","build_on":"2026-03-22","starters":["farm-ferment"]"#).expect("is sound");
        assert_eq!((got.days, got.build_on.as_str()), (8, "2026-03-22"));
        let ferment = got.starters.iter().find(|one| one.chosen).expect("chosen");
        assert_eq!((ferment.start_on.as_str(), ferment.ready_on.as_str()), ("2026-03-15", "2026-03-22"));
        assert_eq!((ferment.timing, ferment.use_by.as_deref()), ("in-time", Some("2026-04-01")));
        // 100 kg of straw are 90 kg dry: 22 to 45 L.
        assert!(ferment.make[0] > 20.0 && ferment.make[1] < 46.0, "{:?}", ferment.make);
    }

    #[test]
    fn without_a_day_it_is_the_first_on_which_all_is_ready() {
        let got = ask(r#","starters":["farm-ferment","cultured-microbes"]"#).expect("is sound");
        assert_eq!(got.build_on, "2026-03-28");
        assert_eq!(ask("").expect("is sound").days, 1);
    }

    #[test]
    fn odd_requests_name_their_field() {
        let field = |rest: &str| ask(rest).expect_err("refused").errors[0].field.clone();
        assert_eq!(field(r#","starters":["magic"]"#), "starters[0]");
        assert_eq!(field(r#","starters":["charcoal","charcoal"]"#), "starters[1]");
        assert_eq!(field(r#","build_on":"9999-12-31""#), "build_on");
        assert_eq!(field(r#","missing":[-1]"#), "missing");
    }

    #[test]
    fn a_day_that_has_passed_makes_everything_late_but_is_answered() {
        let got = ask(r#","build_on":"2026-03-01","starters":["farm-ferment"]"#).expect("is sound");
        assert_eq!(got.days, -13);
        assert!(got.starters.iter().all(|one| one.timing == "too-late"));
    }
}
