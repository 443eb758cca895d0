//! A heap on build day, on the wire: what was laid, what is to come, and where it leads.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::build::rest::{self, Anew};
use zymarch_core::build::{Portion, Stand, Step, Supply, progress};
use zymarch_core::heap::Shape;
use zymarch_core::judge::{Target, standings};
use zymarch_core::layers;
use zymarch_core::method::{Method, Vent};

use crate::layers::outline;
use crate::mix::{MixSums, Windows};

/// So much of one item, in the unit it is said in.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BuildPortion {
    /// The item, by its place.
    pub item: usize,
    /// How much, in its unit.
    pub amount: f64,
}

/// A layer or a load, as it is planned or as it was laid.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BuildStep {
    /// What it is for: `foundation`, `mix`, `separator` or `cap`.
    pub role: &'static str,
    /// Which repeat or load, from 1; none below and above them.
    pub cycle: Option<u32>,
    /// What goes in.
    pub portions: Vec<BuildPortion>,
    /// Loose volume of each of them, litres.
    pub litres: Vec<f64>,
    /// Water to pour on it, litres.
    pub water_l: f64,
    /// What is no part of the mix, litres.
    pub beside_l: f64,
    /// Thickness in the heap, cm.
    pub thickness_cm: f64,
    /// Top above ground, cm.
    pub top_cm: f64,
    /// For one that was laid otherwise than planned: what was planned.
    pub planned: Option<BuildPlanned>,
}

/// What was planned for a step.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BuildPlanned {
    /// What should have gone in.
    pub portions: Vec<BuildPortion>,
    /// Water that should have been poured, litres.
    pub water_l: f64,
}

/// The rest planned anew.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BuildAnew {
    /// `ok` if everything is in its window then, else `nearest`.
    pub status: &'static str,
    /// The sums of all of it afterwards.
    pub at_end: MixSums,
    /// What each item comes to from here on, in its unit, as planned now.
    pub was: Vec<f64>,
    /// The same, planned anew.
    pub becomes: Vec<f64>,
    /// Water from here on as planned now, litres.
    pub was_water_l: f64,
    /// The same, planned anew.
    pub becomes_water_l: f64,
}

/// How far a heap has come.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BuildState {
    /// From the ground up: those laid as they were laid, then those to come.
    pub steps: Vec<BuildStep>,
    /// How many were laid.
    pub laid: usize,
    /// The sums of what was laid; none before anything with nitrogen was.
    pub so_far: Option<MixSums>,
    /// The sums of all of it, if the rest goes in as planned.
    pub at_end: Option<MixSums>,
    /// How it would have ended by the plan it was begun by.
    pub as_planned: Option<MixSums>,
    /// What they are judged by.
    pub windows: Windows,
    /// If they will lie outside: the rest planned anew, where that helps.
    pub anew: Option<BuildAnew>,
    /// Height so far, cm.
    pub height_cm: f64,
    /// Height it will have, cm.
    pub end_height_cm: f64,
    /// Half the width of the section at heights from the ground to the rim, as pairs of height and half width, cm.
    pub outline: Vec<[f64; 2]>,
    /// Width of the section, cm.
    pub section_width_cm: f64,
    /// Rim of the container, cm.
    pub rim_cm: f64,
    /// What lets air into the middle: `none`, `stick`, `pipe` or `columns`.
    pub vent: &'static str,
    /// Where it stands, from the middle: across and along, cm.
    pub vents: Vec<[f64; 2]>,
}

/// What one unit of an item weighs, fresh [kg].
pub type UnitKg = f64;

/// The steps as the core takes them, of portions in the units of their items.
#[must_use]
pub fn portions(said: &[BuildPortion], unit_kg: &[UnitKg]) -> Vec<Portion> {
    said.iter()
        .map(|one| Portion {
            supply: one.item,
            kg: one.amount * unit_kg.get(one.item).copied().unwrap_or(0.0),
        })
        .collect()
}

/// The portions of a step in the units of their items, to a millionth.
#[must_use]
pub fn said(portions: &[Portion], unit_kg: &[UnitKg]) -> Vec<BuildPortion> {
    portions.iter().map(|one| BuildPortion { item: one.supply, amount: amount(*one, unit_kg) }).collect()
}

fn amount(portion: Portion, unit_kg: &[UnitKg]) -> f64 {
    (portion.kg / unit_kg[portion.supply] * 1e6).round() / 1e6
}

impl BuildState {
    /// A heap as it stands, and the plan it was begun by; `unit_kg` tells what one unit of each supply weighs.
    #[must_use]
    pub fn new(
        (stand, first): (&Stand, &[Step]),
        (supplies, unit_kg): (&[Supply], &[UnitKg]),
        shape: Shape,
        method: Option<&Method>,
    ) -> Self {
        let target = method.map_or_else(Target::default, Method::target);
        let got = progress(supplies, &stand.laid, stand.rest(), shape, &target);
        let as_planned = progress(supplies, &[], first, shape, &target).at_end;
        let sums = |mix: &_| MixSums::new(mix, standings(mix, &target));
        let anew = got
            .is_off()
            .then(|| rest::anew(supplies, &stand.laid, stand.rest(), shape, &target))
            .flatten()
            .filter(|anew| anew.steps != stand.rest())
            .map(|anew| answer(&anew, stand, unit_kg, &target));
        let mut below = 0.0;
        let steps = stand
            .laid
            .iter()
            .chain(stand.rest())
            .enumerate()
            .map(|(place, step)| {
                let top_cm = got.tops_cm[place];
                let planned = stand.plan.get(place).filter(|plan| place < stand.laid.len() && *plan != step);
                let told = BuildStep {
                    role: step.role.as_str(),
                    cycle: step.cycle,
                    portions: said(&step.portions, unit_kg),
                    litres: step
                        .portions
                        .iter()
                        .map(|one| one.kg / supplies[one.supply].figures.density_kg_l.value)
                        .collect(),
                    water_l: step.water_l,
                    beside_l: step.beside_l,
                    thickness_cm: top_cm - below,
                    top_cm,
                    planned: planned.map(|plan| BuildPlanned {
                        portions: said(&plan.portions, unit_kg),
                        water_l: plan.water_l,
                    }),
                };
                below = top_cm;
                told
            })
            .collect();
        let vent = method.map_or(Vent::None, |method| method.vent);
        Self {
            steps,
            laid: stand.laid.len(),
            so_far: got.so_far.as_ref().map(sums),
            at_end: got.at_end.as_ref().map(sums),
            as_planned: as_planned.as_ref().map(sums),
            windows: (&target).into(),
            anew,
            height_cm: stand.laid.len().checked_sub(1).map_or(0.0, |last| got.tops_cm[last]),
            end_height_cm: got.tops_cm.last().copied().unwrap_or(0.0),
            outline: outline(shape),
            section_width_cm: shape.section_width_cm(),
            rim_cm: shape.height_cm(),
            vent: vent.as_str(),
            vents: layers::vents(vent, shape, method)
                .iter()
                .map(|&(across, along)| [across, along])
                .collect(),
        }
    }
}

fn answer(anew: &Anew, stand: &Stand, unit_kg: &[UnitKg], target: &Target) -> BuildAnew {
    let totals = |steps: &[Step]| -> Vec<f64> {
        let mut amounts = vec![0.0; unit_kg.len()];
        for portion in steps.iter().flat_map(|step| &step.portions) {
            amounts[portion.supply] += portion.kg / unit_kg[portion.supply];
        }
        amounts.iter().map(|amount| (amount * 1e6).round() / 1e6).collect()
    };
    let water = |steps: &[Step]| steps.iter().map(|step| step.water_l).sum();
    BuildAnew {
        status: anew.status.as_str(),
        at_end: MixSums::new(&anew.at_end, standings(&anew.at_end, target)),
        was: totals(stand.rest()),
        becomes: totals(&anew.steps),
        was_water_l: water(stand.rest()),
        becomes_water_l: water(&anew.steps),
    }
}

#[cfg(test)]
mod tests {
    use zymarch_core::build::Act;
    use zymarch_core::layers::Role;
    use zymarch_core::{material, method, stock};

    use super::*;

    const BAY: Shape = Shape::Box { length_cm: 120.0, width_cm: 120.0, height_cm: 120.0 };

    /// Straw in cloths of 60 L, dung in kilograms, with what one of each weighs.
    fn farm() -> (Vec<Supply>, Vec<UnitKg>) {
        let figures = |id| stock::figures(material::find(id), &stock::Own::default()).expect("in the table");
        let (straw, dung) = (figures("wheat-straw"), figures("sheep-manure"));
        let cloth = 60.0 * straw.density_kg_l.value;
        let supplies = vec![
            Supply { figures: straw, measure_kg: Some(cloth), spare_kg: 5.0 * cloth },
            Supply { figures: dung, measure_kg: None, spare_kg: 100.0 },
        ];
        (supplies, vec![cloth, 1.0])
    }

    fn step(unit_kg: &[UnitKg], portions_said: &[(usize, f64)], water_l: f64) -> Step {
        let said: Vec<_> =
            portions_said.iter().map(|&(item, amount)| BuildPortion { item, amount }).collect();
        Step { role: Role::Mix, cycle: Some(1), portions: portions(&said, unit_kg), water_l, beside_l: 0.0 }
    }

    fn state(acts: Vec<Act>) -> BuildState {
        let (supplies, unit_kg) = farm();
        let first = Stand::of(acts.first().cloned()).plan;
        BuildState::new((&Stand::of(acts), &first), (&supplies, &unit_kg), BAY, method::find("bay-turned"))
    }

    fn plan(unit_kg: &[UnitKg]) -> Vec<Step> {
        vec![step(unit_kg, &[(0, 20.0)], 60.0), step(unit_kg, &[(1, 150.0)], 0.0)]
    }

    #[test]
    fn amounts_come_back_in_the_units_they_were_said_in() {
        let (_, unit_kg) = farm();
        for amount in [0.25, 1.0 / 3.0, 2.0, 17.5, 1000.0] {
            for item in 0..2 {
                let there = portions(&[BuildPortion { item, amount }], &unit_kg);
                let back = said(&there, &unit_kg);
                assert!((back[0].amount - amount).abs() < 1e-6, "{amount} of {item}");
            }
        }
        assert_eq!(
            portions(&[BuildPortion { item: 9, amount: 1.0 }], &unit_kg)[0].kg,
            0.0,
            "unknown weighs nothing"
        );
    }

    #[test]
    fn a_heap_that_is_not_begun_tells_its_plan() {
        let (_, unit_kg) = farm();
        let told = state(vec![Act::Planned { from: 0, steps: plan(&unit_kg) }]);
        assert_eq!((told.laid, told.steps.len(), told.height_cm), (0, 2, 0.0));
        assert!(told.so_far.is_none() && told.at_end.is_some());
        assert_eq!(told.at_end, told.as_planned);
        assert_eq!(told.windows.c_n, [25.0, 30.0]);
        // 20 cloths of 60 L settle to what the book says, on 1.44 m².
        let (supplies, _) = farm();
        let high = 20.0 * 60.0 * supplies[0].figures.settle.value / 14.4;
        assert!((told.steps[0].top_cm - high).abs() < 1e-9, "{} {high}", told.steps[0].top_cm);
        assert_eq!(told.steps[0].litres, [1200.0]);
    }

    #[test]
    fn what_was_laid_otherwise_says_what_was_planned_and_what_would_mend_it() {
        let (_, unit_kg) = farm();
        let mut acts = vec![Act::Planned { from: 0, steps: plan(&unit_kg) }];
        acts.push(Act::Laid { at: 0, step: plan(&unit_kg)[0].clone() });
        assert!(state(acts.clone()).steps[0].planned.is_none(), "laid as planned");

        acts[1] = Act::Laid { at: 0, step: step(&unit_kg, &[(0, 30.0)], 60.0) };
        let told = state(acts);
        let planned = told.steps[0].planned.as_ref().expect("was laid otherwise");
        assert_eq!(planned.portions, [BuildPortion { item: 0, amount: 20.0 }]);
        assert_eq!(told.at_end.expect("has nitrogen").standing.c_n, "above");
        let anew = told.anew.expect("there is dung to put in");
        assert_eq!((anew.status, anew.at_end.standing.c_n), ("ok", "right"));
        assert_eq!(anew.was, [0.0, 150.0]);
        assert!(anew.becomes[1] > 150.0 && anew.becomes[1] <= 250.0, "{anew:?}");
        assert_eq!(anew.becomes[0], 0.0, "straw was too much already");
    }
}
