//! Everything the bench shows for one state of a mix, in one answer.
//!
//! The verdict, the figures, the field and the section must never disagree for
//! the blink of an eye, so they are asked for together.

use std::sync::Arc;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::words::closed_list;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::confidence::{self as sure, KeptDraws, SEED};
use zymarch_core::mix::mend::{self, Candidate, With};
use zymarch_core::mix::step::{Counted, Units, step};
use zymarch_core::mix::{self as sums, Item, MixFigures};
use zymarch_core::plan::heap::{self, HeapSize, Shape, fit};
use zymarch_core::plan::layers;
use zymarch_core::stock as core;
use zymarch_core::stock::material::Kind;
use zymarch_formats::confidence::ConfidenceAnswer;
use zymarch_formats::layers::{HeapFit, HeapShape, LayerPlan};
use zymarch_formats::mix::{MixAnswer, MixSums};
use zymarch_formats::recipe::{Recipe, RecipeItem, Resolved};
use zymarch_store::id::{LotId, SiteId};

use super::{layer_items, notes};
use crate::Transaction;
use crate::plan::{alike, one};
use crate::stock::on_hand::{self, Stock};
use crate::words::Under;

/// A mix, the stock that could still go into it, and the heap it is meant for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BenchRequest {
    /// The mix.
    pub recipe: Recipe,
    /// The lot that each item of it comes from, in their order; those left out come from none.
    #[serde(default)]
    pub lots: Vec<Option<LotId>>,
    /// The site whose stock may mend it; without one, only what is in it already.
    #[serde(default)]
    pub site: Option<SiteId>,
    /// The units the person thinks in, for what is stepped by weight or volume.
    #[serde(default = "metric")]
    pub units: Units,
    /// The heap it is meant for.
    pub heap: Option<HeapShape>,
    /// How many of them alike hold it; the layers are those of one.
    #[serde(default = "one")]
    #[schema(minimum = 1, maximum = 1000)]
    pub heaps: u32,
}

const fn metric() -> Units {
    Units::Metric
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
    /// Where one more step of each item would put the mix, in their order.
    pub one_more: Vec<Option<Place>>,
    /// Whether it is big enough to heat.
    pub size: Option<HeapSize>,
    /// The mix in layers, if a heap was given.
    pub layers: Option<LayerPlan>,
}

/// A step and where it leads.
#[derive(Debug, Serialize, ToSchema)]
pub struct BestStep {
    /// What of the mix there is more or less of, by its place; none for water and for what is not in yet.
    pub item: Option<usize>,
    /// The lot that is to go in, if it is not in yet.
    pub lot: Option<LotId>,
    /// How much, in the unit it is said in; negative to take away; litres for water.
    pub amount: f64,
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

/// The stock that may mend a mix: with the materials, all that an answer leans on beside its question.
///
/// # Errors
/// There is no such site.
pub fn at_hand(tx: &Transaction<'_>, site: SiteId) -> Result<Arc<Stock>, Faults> {
    on_hand::stock(tx, site).under("site")
}

/// Everything the bench shows for one state of a mix.
///
/// # Errors
/// Every field that stands in the way; an empty mix is none.
pub fn bench(tx: &Transaction<'_>, request: &BenchRequest) -> Result<BenchAnswer, Faults> {
    let stock = request.site.map(|site| at_hand(tx, site)).transpose()?;
    shown(tx.catalogue(), tx.draws(), request, stock.as_deref())
}

fn shown(
    catalogue: &Catalogue,
    draws: &KeptDraws,
    request: &BenchRequest,
    stock: Option<&Stock>,
) -> Result<BenchAnswer, Faults> {
    let shape = request.heap.as_ref().map(HeapShape::resolve).transpose().under("heap")?;
    let heaps = alike(request.heaps)?;
    At::ROOT.key("lots").holds(request.lots.len(), request.recipe.items.len())?;
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
    let offers = offers(request, &resolved, stock, catalogue);
    let candidates: Vec<Candidate> = offers.iter().map(|offer| offer.candidate).collect();
    let best = mend::best(items, *water_l, &candidates, windows);
    let plan = shape.map(|shape| lay(&request.recipe, &resolved, &figures, (shape, heaps)));
    Ok(BenchAnswer {
        mix: Some(MixAnswer::new(&request.recipe, &resolved, &figures, &notes(&resolved, &figures))),
        why_not: None,
        confidence: draws
            .confidence(items, uncertainties, *water_l, windows, sure::draws_for(items.len()), SEED)
            .map(|found| ConfidenceAnswer::new(&found, uncertainties)),
        best_step: best.map(|mend| {
            let offer = match mend.with {
                With::Candidate(place) => offers.get(place),
                With::Water => None,
            };
            BestStep {
                item: offer.and_then(|offer| offer.candidate.in_mix),
                lot: offer.and_then(|offer| offer.lot),
                amount: mend.count * offer.map_or(1.0, |offer| offer.step),
                then_water_l: mend.then_water_l,
                puts_right: mend.puts_right(),
                after: MixSums::new(&mend.after, &mend.standings),
            }
        }),
        one_more: candidates[..items.len()]
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

/// Something that the mix may be mended with: what is in it, or a lot that is not.
struct Offer {
    candidate: Candidate,
    /// The lot, of what is not in yet.
    lot: Option<LotId>,
    /// One step, in the unit it is said in.
    step: f64,
}

/// Where nothing is known of a stock it comes from, so many steps more of it can be fetched.
const MANY: f64 = 1000.0;

/// First what is in the mix, then what else is in stock.
fn offers(
    request: &BenchRequest,
    resolved: &Resolved<'_>,
    stock: Option<&Stock>,
    catalogue: &Catalogue,
) -> Vec<Offer> {
    let recipe = &request.recipe;
    let in_mix = recipe.items.iter().zip(&resolved.items).enumerate().map(|(place, (written, item))| {
        let (counted, amount) = said(written);
        let step = step(counted, amount, request.units);
        let kg = step * kg_each(written, item, recipe);
        // A lot that was removed gives no more; what belongs to none has no limit.
        let most_kg = match (request.lots.get(place).copied().flatten(), stock) {
            (Some(id), Some(stock)) => {
                stock.find(id).map_or(0.0, |(_, lot)| (lot.wet_mass_kg - item.wet_mass_kg).max(0.0))
            }
            _ => MANY * kg,
        };
        let kind = kind(catalogue, &written.material);
        let lot = core::Lot::up_to(most_kg, item.figures, kind).in_steps(Some(kg));
        Offer { candidate: Candidate { lot, in_mix: Some(place) }, lot: None, step }
    });
    let is_free = |id: LotId| !request.lots.contains(&Some(id));
    let waiting = stock.into_iter().flat_map(Stock::each).filter(|(lot, item)| {
        is_free(lot.id) && item.wet_mass_kg > 0.0 && lot.fields.amount > 0.0 && !lot.must_not_go_in
    });
    let waiting = waiting.map(|(shown, item)| {
        let amount = shown.fields.amount;
        let step = step(shown.fields.unit.into(), amount, request.units);
        let kg = step * item.wet_mass_kg / amount;
        let kind = kind(catalogue, &shown.fields.material);
        let lot = core::Lot::up_to(item.wet_mass_kg, item.figures, kind).in_steps(Some(kg));
        Offer { candidate: Candidate { lot, in_mix: None }, lot: Some(shown.id), step }
    });
    in_mix.chain(waiting).collect()
}

fn kind(catalogue: &Catalogue, material: &str) -> Kind {
    catalogue.material(material).map_or(Kind::Brown, |row| row.kind)
}

/// How an item of a recipe is said, and how much of it there is.
fn said(item: &RecipeItem) -> (Counted, f64) {
    match (item.amount, item.litres) {
        (Some(amount), _) => (Counted::Measures, amount),
        (None, Some(litres)) => (Counted::Poured, litres),
        (None, None) => (Counted::Weighed, item.kg.unwrap_or(0.0)),
    }
}

/// What one of the unit that an item is said in weighs [kg].
fn kg_each(written: &RecipeItem, item: &Item, recipe: &Recipe) -> f64 {
    let density = item.figures.density_kg_l.value;
    match said(written).0 {
        Counted::Weighed => 1.0,
        Counted::Poured => density,
        Counted::Measures => {
            let measure = recipe.measures.iter().find(|one| Some(&one.id) == written.measure.as_ref());
            measure.map_or(0.0, |one| one.litres) * density
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn ask(body: &str) -> Result<BenchAnswer, Faults> {
        let request = zymarch_formats::field::read(body).expect("well formed");
        shown(&Catalogue::book(), &KeptDraws::default(), &request, None)
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
               "heap":{{"shape":"box","length_cm":100,"width_cm":100,"height_cm":100}}}}"#
        );
        let got = ask(&body).expect("is sound");
        let grams: u64 = got.layers.expect("a heap was given").layers.iter().map(|layer| layer.grams).sum();
        assert_eq!(grams, 66_500);
        assert_eq!(got.one_more.len(), 2);
        assert!(got.best_step.is_some_and(|step| step.item == Some(1) && step.amount >= 1.0));
    }

    #[test]
    fn a_bad_item_is_named_and_a_lot_of_no_item_refused() {
        let path = |body: &str| ask(body).expect_err("refused").0[0].path.to_string();
        let item = format!(r#"{{"recipe":{{{RECIPE},"items":[{{"material":"lime","kg":-1}}]}}}}"#);
        assert_eq!(path(&item), "recipe.items[0].kg");
        let lots = format!(r#"{{"recipe":{{{RECIPE},"items":[]}},"lots":[null]}}"#);
        assert_eq!(path(&lots), "lots");
    }

    #[test]
    fn what_is_weighed_is_stepped_by_the_pound_where_pounds_are_thought_in() {
        let of = |units: &str| {
            let body = format!(
                r#"{{"recipe":{{{RECIPE},"water_l":30,"items":[{{"material":"barley-straw","kg":30}},
                     {{"material":"sheep-manure","kg":15}}]}},"units":"{units}"}}"#
            );
            ask(&body).expect("is sound").best_step.expect("it is too brown")
        };
        let (metric, us) = (of("metric"), of("us"));
        assert_eq!((metric.item, us.item), (Some(0), Some(0)), "less straw");
        assert!((metric.amount % 1.0).abs() < 1e-9, "whole kilograms: {}", metric.amount);
        let pounds = us.amount / 0.453_592_37;
        assert!((pounds - pounds.round()).abs() < 1e-9, "whole pounds: {pounds}");
    }
}
