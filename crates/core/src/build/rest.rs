//! What should go in yet, after something else went in than was planned.

use super::{Portion, Step, item, sum_of};
use crate::base::quantity::{Band, Fraction};
use crate::base::words::closed_list;
use crate::mix::MixFigures;
use crate::mix::window::{Edges, Windows};
use crate::plan::formulate::{Aim, Formulated, Status, Wanted, formulate};
use crate::plan::heap::{self, Filled, HeapSize, Shape};
use crate::plan::layers::LayerRole;
use crate::plan::layers::share::{over, poured, thirst_ml};
use crate::plan::method::Method;
use crate::stock::material::Kind;
use crate::stock::{Figures, Lot, Origin, Sourced};

closed_list! {
    /// What is kept when the rest is planned anew.
    Way {
        /// The size: more may come from the stock.
        Size = "size",
        /// The stock: nothing more is taken from it than was planned.
        Stock = "stock",
        /// Neither: it may be smaller and take more, where nothing else helps.
        Neither = "neither",
    }
}

/// The rest of a heap, planned anew.
#[derive(Debug, Clone, PartialEq)]
pub struct Anew {
    /// What was kept.
    pub way: Way,
    /// Whether it brings every figure into its window.
    pub status: Status,
    /// The steps that are to come.
    pub steps: Vec<Step>,
    /// The sums of all of it afterwards.
    pub at_end: MixFigures,
    /// How high all of it stands then [cm].
    pub height_cm: f64,
    /// Whether that is big enough to heat.
    pub size: HeapSize,
}

/// Amounts are planned anew in halves of a measure: nobody fills a tenth of a bucket.
const PARTS_OF_A_MEASURE: f64 = 2.0;

/// What cannot be put right is changed only if it comes nearer by this much [-].
const WORTH_CHANGING: f64 = 0.7;

/// A heap that cannot be put right is not made smaller than this to come nearer [-].
const LEAST_SIZE: f64 = 0.5;

/// A heap that keeps this much of its size keeps its size [-].
const SAME_SIZE: f64 = 0.95;

/// The rest of a heap planned anew in the ways there are to choose from, the better one first:
/// that keeps the size, that takes nothing more from the stock. Only where neither puts the heap
/// right may it do both, and only those that put it right are offered if any does.
#[must_use]
pub fn ways(
    supplies: &[Lot],
    laid: &[Step],
    rest: &[Step],
    heap: (Shape, Option<&Method>),
    windows: &Windows,
) -> Vec<Anew> {
    let by = |way| anew(supplies, laid, rest, heap, windows, way).filter(|anew| anew.steps != rest);
    let mut found: Vec<Anew> = [Way::Size, Way::Stock].into_iter().filter_map(by).collect();
    if found.iter().all(|anew| anew.status != Status::Ok) {
        found.extend(by(Way::Neither));
    }
    if found.iter().any(|anew| anew.status == Status::Ok) {
        found.retain(|anew| anew.status == Status::Ok);
    }
    found.sort_by_key(|anew| anew.status);
    found.dedup_by(|later, first| later.steps == first.steps);
    found.truncate(MOST_WAYS);
    found
}

/// More than two ways are no help to one who stands before a heap with a fork.
const MOST_WAYS: usize = 2;

/// Changes the rest of a plan as little as will bring the whole heap into its
/// windows; if nothing does, as near as can be. None if there is nothing to change,
/// or it would be little use.
///
/// What was laid stays. Of each supply as much as was planned may be left out, or,
/// unless the stock is to be kept, as much as is spare be put in; the change is weighed
/// by its volume. What is counted is planned in halves of its measure. Water is set to the middle of
/// the window, but what is poured is poured. The new amounts go where the old
/// were, in whole measures where they can; what had no layer left gets one more,
/// below the cap.
///
/// # Formula
/// Least `Σ vᵢ·|qᵢ − pᵢ|`, with `v` heap volume per kilogram, `p` the planned rest
/// and `q` the new one [kg], under the balances of [`formulate`]. It is linear
/// with `q = kept + more`, `kept ≤ p`: keeping gains `v`, more costs `v`.
#[must_use]
pub fn anew(
    supplies: &[Lot],
    laid: &[Step],
    rest: &[Step],
    (shape, method): (Shape, Option<&Method>),
    windows: &Windows,
    way: Way,
) -> Option<Anew> {
    let inside = within(windows);
    let Formulated { status, kg, water_l, .. } =
        formulate(&wanted(supplies, laid, rest, shape, &inside, way));
    let of_laid = |supply: usize| laid.iter().map(|step| step.kg_of(supply)).sum::<f64>();
    let new_kg: Vec<f64> =
        kg.chunks_exact(3).enumerate().map(|(at, kg)| kg.iter().sum::<f64>() - of_laid(at)).collect();
    let mut steps = divided(supplies, rest, &new_kg);
    steps.iter_mut().for_each(|step| step.water_l = 0.0);
    let all = || laid.iter().chain(&steps);
    let dry = sum_of(supplies, all())?;
    let moisture = (dry.wet_mass_kg - dry.dry_matter_kg + water_l) / (dry.wet_mass_kg + water_l);
    pour(supplies, &mut steps, moisture, water_l);
    let at_end = sum_of(supplies, laid.iter().chain(&steps))?;
    let is_worth_it = || {
        let was = sum_of(supplies, laid.iter().chain(rest));
        let off = |mix: &MixFigures| windows.distance(mix, false);
        status == Status::Ok || was.is_none_or(|was| off(&at_end) < off(&was) * WORTH_CHANGING)
    };
    let beside_l = laid.iter().chain(&steps).map(|step| step.beside_l).sum();
    let filled =
        Filled { shape, heap_volume_l: at_end.heap_volume_l, loose_l: at_end.volume_l, beside_l, method };
    let height_cm = shape.height_of_cm(at_end.heap_volume_l + beside_l);
    let size = heap::size_in(&filled);
    (!steps.is_empty() && is_worth_it()).then_some(Anew { way, status, steps, at_end, height_cm, size })
}

/// The windows with their edges drawn in by a hair, so that grams and millilitres
/// rounded do not fall over them.
fn within(windows: &Windows) -> Windows {
    const HAIR: f64 = 0.005;
    windows.each(|_, aim| match aim.high {
        None => Edges { low: aim.low * (1.0 + HAIR), high: None },
        Some(high) => {
            let by = (high - aim.low) * HAIR;
            Edges { low: aim.low + by, high: Some(high - by) }
        }
    })
}

/// Of each supply what stays in any case, what of the plan is kept, and what is
/// added; last the water that was poured.
fn wanted(
    supplies: &[Lot],
    laid: &[Step],
    rest: &[Step],
    shape: Shape,
    windows: &Windows,
    way: Way,
) -> Wanted {
    let of = |steps: &[Step], supply: usize| steps.iter().map(|step| step.kg_of(supply)).sum::<f64>();
    let mut lots = Vec::with_capacity(3 * supplies.len() + 1);
    for (at, supply) in supplies.iter().enumerate() {
        let per_kg = item(supplies, Portion { supply: at, kg: 1.0 }).heap_volume_l();
        let step_kg = supply.step_kg.map(|kg| kg / PARTS_OF_A_MEASURE);
        let lot = |least_kg: f64, most_kg: f64, cost_per_kg: f64, step_kg| Lot {
            least_kg,
            cost_per_kg,
            ..Lot::up_to(most_kg, supply.figures, supply.kind).in_steps(step_kg)
        };
        // What is no whole half stays as it is.
        let planned = of(rest, at);
        let movable = step_kg.map_or(planned, |step| (planned / step + 1e-6).floor() * step).min(planned);
        let fast = of(laid, at) + planned - movable;
        lots.push(lot(fast, fast, 0.0, None));
        lots.push(lot(0.0, movable, -per_kg, step_kg));
        let spare = if way == Way::Stock { 0.0 } else { supply.most_kg.max(0.0) };
        lots.push(lot(0.0, spare, per_kg, step_kg));
    }
    let poured: f64 = laid.iter().map(|step| step.water_l).sum();
    lots.push(water(poured));
    let beside = |steps: &[Step]| steps.iter().map(|step| step.beside_l).sum::<f64>();
    let planned: f64 = laid.iter().chain(rest).map(|step| step.heap_volume_l(supplies)).sum();
    let besides = beside(laid) + beside(rest);
    let least = if way == Way::Size { SAME_SIZE } else { LEAST_SIZE };
    // A heap that stands out of its container already may stay as large as it is.
    let most_l = shape.capacity_l().max(planned) - besides;
    Wanted {
        lots,
        windows: *windows,
        volume_l: Band::new((planned - besides) * least, most_l).ok(),
        caps: Vec::new(),
        aim: Aim::Cheapest,
        is_cautious: false,
        water_max_l: None,
        water_step_l: None,
    }
}

/// Water that was poured already, as something that was laid: it fills no room but air.
fn water(litres: f64) -> Lot {
    fn told<T>(value: T) -> Sourced<T> {
        Sourced { value, origin: Origin::Derived }
    }
    let figures = Figures {
        moisture: told(Fraction::ONE),
        nitrogen: told(Fraction::ZERO),
        c_n: told(0.0),
        ash: told(Fraction::ZERO),
        lignin: told(Fraction::ZERO),
        density_kg_l: told(1.0),
        settle: told(0.0),
        decays: told(1.0),
        wet_max: None,
        structure: None,
        wilts: false,
        particle: None,
        woody: false,
        inert: false,
        must_not_go_in: false,
    };
    Lot { least_kg: litres, ..Lot::up_to(litres, figures, Kind::Liquid) }
}

/// The steps to come with the new amounts in the places of the old.
fn divided(supplies: &[Lot], rest: &[Step], new_kg: &[f64]) -> Vec<Step> {
    let mut steps: Vec<Step> =
        rest.iter().map(|step| Step { portions: Vec::new(), ..step.clone() }).collect();
    let mut more = Vec::new();
    for (supply, &kg) in new_kg.iter().enumerate().filter(|(_, kg)| **kg > SOME_KG) {
        let planned: Vec<(usize, f64)> = rest
            .iter()
            .enumerate()
            .map(|(place, step)| (place, step.kg_of(supply)))
            .filter(|(_, kg)| *kg > 0.0)
            .collect();
        let whole: f64 = planned.iter().map(|(_, kg)| kg).sum();
        if planned.is_empty() {
            let portions = vec![Portion { supply, kg }];
            more.push(Step { role: LayerRole::Mix, cycle: None, portions, water_l: 0.0, beside_l: 0.0 });
            continue;
        }
        let each = supplies[supply].step_kg;
        // What the solver leaves in the last digits is not worth a spoon.
        let measures = each.map(|each| (kg / each * 1e6).round() / 1e6);
        let by_step: Vec<f64> = planned.iter().map(|(_, kg)| kg / whole).collect();
        let shares = over((kg * 1000.0).round() as u64, measures, &by_step, 0.0);
        for (&(place, _), share) in planned.iter().zip(shares) {
            let counted = share.measures.zip(each).map(|(count, each)| count * each);
            let kg = counted.unwrap_or(share.grams as f64 / 1000.0);
            steps[place].portions.extend((kg > SOME_KG).then_some(Portion { supply, kg }));
        }
    }
    let cap = steps.iter().position(|step| step.role == LayerRole::Cap).unwrap_or(steps.len());
    steps.splice(cap..cap, more);
    steps.retain(|step| !step.portions.is_empty() || step.beside_l > 0.0);
    steps
}

/// Less than a gram is nothing.
const SOME_KG: f64 = 1e-3;

/// Water for each step by its need, to the millilitre.
fn pour(supplies: &[Lot], steps: &mut [Step], moisture: f64, water_l: f64) {
    let grams = |step: &Step| step.portions.iter().map(|portion| portion.kg * 1000.0).sum::<f64>();
    let thirst = |step: &Step| {
        let of = |portion: &Portion| {
            thirst_ml(portion.kg * 1000.0, supplies[portion.supply].figures.moisture.value, moisture)
        };
        step.portions.iter().map(of).sum::<u64>()
    };
    let thirsts: Vec<u64> = steps.iter().map(thirst).collect();
    let weights: Vec<u64> = steps.iter().map(|step| grams(step).round() as u64).collect();
    for (step, ml) in steps.iter_mut().zip(poured((water_l * 1000.0).round() as u64, &thirsts, &weights)) {
        step.water_l = ml as f64 / 1000.0;
    }
}
