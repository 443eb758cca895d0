//! Build day: what really went in, and what should go in yet.
//!
//! A plan is worked through step by step from the ground up, a layer or a mixed
//! load at a time. What goes in is seldom what was planned: a barrow more, no
//! dung left, rain. So the sums follow what was laid, and look ahead to the heap
//! as it will be if the rest goes in as planned. Where that leaves the windows,
//! [`rest::anew`] changes the rest as little as will bring it back.

pub mod clash;
pub mod rest;

use crate::mix::window::{Standings, Windows};
use crate::mix::{Item, MixFigures, sum};
use crate::plan::heap::Shape;
use crate::plan::layers::{LayerPlan, LayerRole};
use crate::plan::method::Build;
use crate::stock::Lot;

/// So much of one supply: a lot that is at hand, its step one measure, and its most what there is beyond the plan.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Portion {
    /// Which, by its place among the supplies.
    pub supply: usize,
    /// How much, fresh [kg].
    pub kg: f64,
}

/// A layer or a load, as it is planned or as it was laid.
#[derive(Debug, Clone, PartialEq)]
pub struct Step {
    /// What it is for.
    pub role: LayerRole,
    /// Which repeat or load it belongs to, from 1; none below and above them.
    pub cycle: Option<u32>,
    /// What goes in: one for a layer, several for a load; none for what is no part of the mix.
    pub portions: Vec<Portion>,
    /// Water poured on it [L].
    pub water_l: f64,
    /// What is laid and is no part of the mix, such as twigs [L].
    pub beside_l: f64,
}

impl Step {
    fn kg_of(&self, supply: usize) -> f64 {
        self.portions.iter().filter(|portion| portion.supply == supply).map(|portion| portion.kg).sum()
    }

    /// The room it takes in the built heap, with what is no part of the mix [L].
    #[must_use]
    pub fn heap_volume_l(&self, supplies: &[Lot]) -> f64 {
        let of = |portion: &Portion| item(supplies, *portion).heap_volume_l();
        self.beside_l + self.portions.iter().map(of).sum::<f64>()
    }
}

fn item(supplies: &[Lot], Portion { supply, kg }: Portion) -> Item {
    Item { wet_mass_kg: kg, figures: supplies[supply].figures }
}

/// The steps of a plan whose parts are these supplies: a layer each, or where it
/// is mixed first a load each.
#[must_use]
pub fn steps(plan: &LayerPlan, supplies: &[Lot]) -> Vec<Step> {
    let mut steps: Vec<Step> = Vec::new();
    for layer in &plan.layers {
        let portion = layer.part.map(|supply| {
            let counted = layer.measures.zip(supplies[supply].step_kg);
            let kg = counted.map_or(layer.grams as f64 / 1000.0, |(count, each)| count * each);
            Portion { supply, kg }
        });
        let water_l = layer.water_ml as f64 / 1000.0;
        match steps.last_mut() {
            Some(load)
                if plan.build == Build::Mixed && layer.cycle.is_some() && load.cycle == layer.cycle =>
            {
                load.portions.extend(portion);
                load.water_l += water_l;
            }
            _ => steps.push(Step {
                role: layer.role,
                cycle: layer.cycle,
                beside_l: if portion.is_none() { layer.litres } else { 0.0 },
                portions: portion.into_iter().collect(),
                water_l,
            }),
        }
    }
    steps
}

/// Something done on build day.
#[derive(Debug, Clone, PartialEq)]
pub enum Act {
    /// What is to come from a step on was planned, the first time or anew.
    Planned {
        /// The first step it is about.
        from: usize,
        /// All that is to come; none if the heap was ended there.
        steps: Vec<Step>,
    },
    /// A step was laid, or put right afterwards.
    Laid {
        /// Which.
        at: usize,
        /// What really went in.
        step: Step,
    },
}

/// A heap as what was done left it.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Stand {
    /// All steps as they were planned when they were laid, and those to come.
    pub plan: Vec<Step>,
    /// What was laid of them, from the ground up.
    pub laid: Vec<Step>,
}

impl Stand {
    /// Where a step that was laid belongs, with so many laid and planned: the next one, or
    /// one laid before that is put right; none if it fits nowhere.
    #[must_use]
    pub const fn place(at: usize, laid: usize, planned: usize) -> Option<usize> {
        if at < laid || (at == laid && at < planned) { Some(at) } else { None }
    }

    /// What comes of acts in their order. One that does not fit, such as a step
    /// laid before the one below it, changes nothing.
    #[must_use]
    pub fn of(acts: impl IntoIterator<Item = Act>) -> Self {
        let mut stand = Self::default();
        for act in acts {
            match act {
                Act::Planned { from, steps } if from >= stand.laid.len() => {
                    stand.plan.truncate(from);
                    stand.plan.extend(steps);
                }
                Act::Laid { at, step } if at == stand.laid.len() && at < stand.plan.len() => {
                    stand.laid.push(step);
                }
                Act::Laid { at, step } if at < stand.laid.len() => stand.laid[at] = step,
                Act::Planned { .. } | Act::Laid { .. } => {}
            }
        }
        stand
    }

    /// What is to come.
    #[must_use]
    pub fn rest(&self) -> &[Step] {
        &self.plan[self.laid.len()..]
    }
}

/// How far a heap has come.
#[derive(Debug, Clone, PartialEq)]
pub struct Progress {
    /// The sums of what was laid; none before anything with nitrogen was.
    pub so_far: Option<MixFigures>,
    /// The sums of all of it, if the rest goes in as planned.
    pub at_end: Option<MixFigures>,
    /// How that will stand.
    pub standings: Option<Standings>,
    /// Top of each step above ground, laid ones first [cm].
    pub tops_cm: Vec<f64>,
}

impl Progress {
    /// Whether the heap will lie outside of its windows if the rest goes in as planned.
    #[must_use]
    pub fn is_off(&self) -> bool {
        self.standings.is_some_and(|standings| !standings.are_right())
    }
}

/// How far a heap has come by what was laid, and where the rest of the plan leads.
///
/// # Example
/// A barrow of straw more than was planned, and the heap will be too brown.
/// ```
/// use zymarch_core::{build::*, mix::window::{Standing, Window, Windows}, plan::{heap::Shape, layers::LayerRole}};
/// use zymarch_core::stock::{self, Lot, material};
/// let supply = |id| {
///     let row = material::find(id).expect("in the table");
///     let figures = stock::figures(Some(row), &stock::Own::default()).expect("in the table");
///     Lot::up_to(0.0, figures, row.kind)
/// };
/// let supplies = [supply("wheat-straw"), supply("sheep-manure")];
/// let step = |supply, kg, water_l| Step {
///     role: LayerRole::Mix, cycle: Some(1), portions: vec![Portion { supply, kg }], water_l, beside_l: 0.0,
/// };
/// let bay = Shape::Box { length_cm: 120.0, width_cm: 120.0, height_cm: 120.0 };
/// let rest = [step(1, 110.0, 20.0)];
/// let planned = progress(&supplies, &[step(0, 44.0, 60.0)], &rest, bay, &Windows::default());
/// let more = progress(&supplies, &[step(0, 60.0, 60.0)], &rest, bay, &Windows::default());
/// assert_eq!(planned.standings.expect("has nitrogen").of(Window::CN), Standing::Right);
/// assert_eq!(more.standings.expect("has nitrogen").of(Window::CN), Standing::Above);
/// assert!(more.tops_cm[0] > planned.tops_cm[0]);
/// ```
#[must_use]
pub fn progress(supplies: &[Lot], laid: &[Step], rest: &[Step], shape: Shape, windows: &Windows) -> Progress {
    let mut litres = 0.0;
    let tops_cm = laid
        .iter()
        .chain(rest)
        .map(|step| {
            litres += step.heap_volume_l(supplies);
            shape.height_of_cm(litres)
        })
        .collect();
    let at_end = sum_of(supplies, laid.iter().chain(rest));
    Progress {
        so_far: sum_of(supplies, laid.iter()),
        standings: at_end.as_ref().map(|mix| windows.standings(mix)),
        at_end,
        tops_cm,
    }
}

fn sum_of<'a>(supplies: &[Lot], steps: impl Iterator<Item = &'a Step> + Clone) -> Option<MixFigures> {
    let items: Vec<Item> =
        steps.clone().flat_map(|step| &step.portions).map(|portion| item(supplies, *portion)).collect();
    sum(&items, steps.map(|step| step.water_l).sum()).ok()
}

#[cfg(test)]
mod tests;
