//! What is to be done before build day: starters begun in time, and everything else at hand.

use jiff::ToSpan;
use jiff::civil::Date;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity::Band;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::{MixFigures, sum};
use zymarch_core::plan::heap::Shape;
use zymarch_core::plan::layers::LayerItem;
use zymarch_core::plan::method::Method;
use zymarch_core::plan::starter::{self, HeapNeeds, Schedule, Starter};
use zymarch_core::plan::{layers, prepare as rule};
use zymarch_core::stock::freshness;
use zymarch_core::stock::material::Material;
use zymarch_formats::layers::HeapShape;
use zymarch_formats::recipe::{MOST_ITEMS, Recipe};

use super::{alike, one};
use crate::Transaction;
use crate::mix::{layer_items, summed};
use crate::said::of_item;
use crate::words::Under;

mod told;

pub use told::{
    PrepareAnswer, PrepareLine, PrepareNeed, StarterIngredient, StarterPlan, StarterRow, StarterTask,
};

/// Days from today that a build day may lie, before or after.
const FARTHEST_DAYS: i32 = 3650;

/// A batch that is to be built.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PrepareRequest {
    /// The mix, with its method.
    recipe: Recipe,
    /// The heap.
    heap: HeapShape,
    /// How many of them alike hold it.
    #[serde(default = "one")]
    #[schema(minimum = 1, maximum = 1000)]
    heaps: u32,
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

/// The starters of a batch, each known and named once.
pub(crate) fn known(ids: &[String]) -> Result<Vec<&'static Starter>, Fault> {
    let list = At::ROOT.key("starters");
    ids.iter()
        .enumerate()
        .map(|(index, id)| {
            if ids[..index].contains(id) {
                return Err(list.index(index).fault(FaultCode::Twice).with("field", id.as_str()));
            }
            let missing = || list.index(index).fault(FaultCode::NoSuchStarter).with("got", id.as_str());
            starter::find(id).ok_or_else(missing)
        })
        .collect()
}

/// The starters.
#[must_use]
pub fn starters() -> Vec<StarterRow> {
    let row = |one: &'static Starter| StarterRow {
        id: &one.id,
        purpose: one.purpose,
        per: one.per,
        rate: range(one.rate),
        unit: one.unit,
        ready_days: range(one.ready_days),
        keeps_days: one.keeps_days,
        evidence: one.evidence,
        hazards: one.hazards.clone(),
    };
    starter::all().iter().map(row).collect()
}

/// What is to be done before a batch is built.
///
/// # Errors
/// Every field that stands in the way.
pub fn prepare(tx: &Transaction<'_>, request: &PrepareRequest) -> Result<PrepareAnswer, Faults> {
    answer(request, tx.catalogue(), tx.today)
}

fn answer(request: &PrepareRequest, catalogue: &Catalogue, today: Date) -> Result<PrepareAnswer, Faults> {
    let shape = request.heap.resolve().under("heap")?;
    let heaps = alike(request.heaps)?;
    let chosen = known(&request.starters)?;
    At::ROOT.key("missing").holds(request.missing.len(), MOST_ITEMS)?;
    if request.missing.iter().any(|one| !one.is_finite() || *one < 0.0) {
        return Err(Faults::one("missing", FaultCode::Negative));
    }
    let resolved = request.recipe.resolve(catalogue).under("recipe")?;
    let figures = summed(&resolved).under("recipe")?;
    let parts = layer_items(&request.recipe, &resolved)
        .into_iter()
        .zip(&resolved.materials)
        .zip(&request.recipe.items)
        .enumerate()
        .map(|(index, ((part, material), written))| Part {
            of: part,
            material: *material,
            missing: request.missing.get(index).copied().unwrap_or(0.0),
            keeps_days: written
                .age_days
                .and_then(|age| freshness::freshness((*material)?, age.round() as i64, None).days_left()),
        })
        .collect();
    answered(Wanted {
        parts,
        figures,
        water_l: resolved.water_l,
        shape,
        heaps,
        method: resolved.method,
        chosen,
        build_on: request.build_on,
        today,
    })
}

/// What is to be done before a batch of the records is built, on the day that it says; nothing of it is taken
/// to be missing.
///
/// # Errors
/// It cannot be summed.
pub(crate) fn of_batch(
    tx: &Transaction<'_>,
    batch: &zymarch_store::batch::BatchFields,
) -> Result<PrepareAnswer, Faults> {
    let mut parts = Vec::with_capacity(batch.items.len());
    for item in &batch.items {
        let mixed = of_item(item, |noted| noted.item(tx.catalogue()))?;
        let material = tx.catalogue().material(&item.material);
        let counted = item.held.measure().map(|_| item.held.amount());
        parts.push(Part {
            of: LayerItem::new(mixed, material, counted),
            material,
            missing: 0.0,
            keeps_days: None,
        });
    }
    let items: Vec<_> = parts.iter().map(|part| part.of.item).collect();
    answered(Wanted {
        figures: sum(&items, batch.water_l)?,
        parts,
        water_l: batch.water_l,
        shape: batch.shape,
        heaps: batch.heaps,
        method: batch.method.as_deref().and_then(|id| tx.catalogue().method(id)),
        chosen: known(&batch.starters)?,
        build_on: batch.build_on.as_deref().and_then(|day| day.parse().ok()),
        today: tx.today,
    })
}

/// Some of a material in a batch that is to be built.
struct Part<'a> {
    of: LayerItem,
    material: Option<&'a Material>,
    /// What is missing of it, in the unit it is said in.
    missing: f64,
    /// Days that it keeps yet, if that is known.
    keeps_days: Option<i64>,
}

/// A batch that is to be built, checked.
struct Wanted<'a> {
    parts: Vec<Part<'a>>,
    figures: MixFigures,
    water_l: f64,
    shape: Shape,
    heaps: u32,
    method: Option<&'a Method>,
    chosen: Vec<&'static Starter>,
    build_on: Option<Date>,
    today: Date,
}

fn answered(of: Wanted<'_>) -> Result<PrepareAnswer, Faults> {
    let Wanted { parts, figures, water_l, shape, heaps, method, chosen, build_on, today } = of;
    let items: Vec<LayerItem> = parts.iter().map(|part| part.of).collect();
    let each = layers::share_of(&items, heaps);
    let plan = layers::plan(&each, &figures.share(heaps), water_l / f64::from(heaps), shape, method);
    let heap = HeapNeeds::of(&items, &figures, water_l);
    let days = match build_on {
        None => starter::soonest(&chosen),
        Some(day) => {
            let days = today.until(day).map(|span| span.get_days()).unwrap_or(i32::MAX);
            if days.abs() > FARTHEST_DAYS {
                return Err(Faults::one("build_on", FaultCode::TooFarAway));
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
    let of_parts: Vec<_> = parts.iter().map(|part| (part.of, part.material, part.missing)).collect();
    let keeps_days: Vec<Option<i64>> = parts.iter().map(|part| part.keeps_days).collect();
    let needs = rule::needs(&rule::Planned {
        parts: &of_parts,
        water_l,
        heap_volume_l: figures.heap_volume_l,
        shape,
        heaps,
        beside_l: plan.beside_l,
        method,
        keeps_days: &keeps_days,
        days: i64::from(days),
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
                job: need.job,
                on: on(days - i32::from(need.days_before)),
                item: need.item,
                params: need.params.into_iter().collect(),
            })
            .collect(),
    })
}

fn scheduled(
    one: &'static Starter,
    plan: &Schedule,
    chosen: bool,
    on: &impl Fn(i32) -> String,
) -> StarterPlan {
    StarterPlan {
        id: &one.id,
        purpose: one.purpose,
        chosen,
        make: range(plan.make),
        unit: one.unit,
        ingredients: one
            .ingredients
            .iter()
            .zip(&plan.ingredients)
            .map(|(ingredient, amount)| StarterIngredient {
                id: &ingredient.id,
                amount: range(*amount),
                unit: ingredient.unit,
                stock: ingredient.stock.iter().map(String::as_str).collect(),
            })
            .collect(),
        timing: plan.timing,
        start_on: on(plan.start_day),
        ready_on: on(plan.ready_day),
        use_by: plan.use_by_day.map(on),
        tasks: plan
            .tasks
            .iter()
            .map(|task| StarterTask {
                step: task.step,
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
    use zymarch_core::plan::starter::Timing;

    use super::*;

    const TODAY: Date = jiff::civil::date(2026, 3, 14);

    fn ask(rest: &str) -> Result<PrepareAnswer, Faults> {
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
        assert_eq!((ferment.timing, ferment.use_by.as_deref()), (Timing::InTime, Some("2026-04-01")));
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
        let field = |rest: &str| ask(rest).expect_err("refused").0[0].path.to_string();
        assert_eq!(field(r#","starters":["magic"]"#), "starters[0]");
        assert_eq!(field(r#","starters":["charcoal","charcoal"]"#), "starters[1]");
        assert_eq!(field(r#","build_on":"9999-12-31""#), "build_on");
        assert_eq!(field(r#","missing":[-1]"#), "missing");
    }

    #[test]
    fn a_day_that_has_passed_makes_everything_late_but_is_answered() {
        let got = ask(r#","build_on":"2026-03-01","starters":["farm-ferment"]"#).expect("is sound");
        assert_eq!(got.days, -13);
        assert!(got.starters.iter().all(|one| one.timing == Timing::TooLate));
    }
}
