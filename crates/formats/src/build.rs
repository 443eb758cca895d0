//! A heap on build day, on the wire: what was laid, what is to come, and where it leads.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::build::rest::{Anew, Way};
use zymarch_core::build::{Portion, Progress, Stand, Step, progress};
use zymarch_core::mix::{MixFigures, window};
use zymarch_core::plan::formulate::Status;
use zymarch_core::plan::heap::{HeapSize, Shape};
use zymarch_core::plan::layers::LayerRole;
use zymarch_core::plan::method::Vent;
use zymarch_core::stock::Lot;

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
    /// What it is for.
    pub role: LayerRole,
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
    /// What is kept: the size, or the stock.
    pub way: Way,
    /// Whether everything is in its window then.
    pub status: Status,
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
    /// Height of the heap then, cm.
    pub height_cm: f64,
    /// Whether that is big enough to heat.
    pub size: HeapSize,
    /// What is to come then, from the lowest up: taken up where there is no signal, it is known at once.
    pub steps: Vec<BuildStep>,
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
    /// If they will lie outside: ways to plan the rest anew, the better one first.
    pub anew: Vec<BuildAnew>,
    /// Height so far, cm.
    pub height_cm: f64,
    /// Height it will have, cm.
    pub end_height_cm: f64,
    /// Whether that is big enough to heat.
    pub size: HeapSize,
    /// Half the width of the section at heights from the ground to the rim, as pairs of height and half width, cm.
    pub outline: Vec<[f64; 2]>,
    /// Width of the section, cm.
    pub section_width_cm: f64,
    /// Rim of the container, cm.
    pub rim_cm: f64,
    /// What lets air into the middle.
    pub vent: Vent,
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

/// A heap on build day as the core sees it: what stands, and where it leads.
#[derive(Debug)]
pub struct Outlook<'a> {
    /// What was laid and what is to come.
    pub stand: &'a Stand,
    /// What is at hand.
    pub supplies: &'a [Lot],
    /// What one unit of each weighs, fresh [kg].
    pub unit_kg: &'a [UnitKg],
    /// How far it has come.
    pub progress: Progress,
    /// How it would have ended by the plan it was begun by.
    pub as_planned: Option<MixFigures>,
    /// Ways to plan the rest anew, where that helps.
    pub anew: Vec<Anew>,
    /// What it is judged by.
    pub windows: window::Windows,
    /// Its shape.
    pub shape: Shape,
    /// Whether it will be big enough to heat.
    pub size: HeapSize,
    /// What lets air into the middle.
    pub vent: Vent,
    /// Where that stands, from the middle: across and along [cm].
    pub vents: Vec<(f64, f64)>,
}

impl BuildState {
    /// A heap as it stands, on the wire.
    #[must_use]
    pub fn new(of: &Outlook<'_>) -> Self {
        let Outlook { stand, unit_kg, progress: got, windows, shape, .. } = of;
        let sums = |mix: &MixFigures| MixSums::new(mix, &windows.standings(mix));
        let mut steps = of.told(stand.rest(), &got.tops_cm);
        for ((told, laid), plan) in steps.iter_mut().zip(&stand.laid).zip(&stand.plan) {
            if laid != plan {
                let (portions, water_l) = (said(&plan.portions, unit_kg), plan.water_l);
                told.planned = Some(BuildPlanned { portions, water_l });
            }
        }
        Self {
            steps,
            laid: stand.laid.len(),
            so_far: got.so_far.as_ref().map(sums),
            at_end: got.at_end.as_ref().map(sums),
            as_planned: of.as_planned.as_ref().map(sums),
            windows: windows.into(),
            anew: of.anew.iter().map(|anew| of.answer(anew)).collect(),
            height_cm: stand.laid.len().checked_sub(1).map_or(0.0, |last| got.tops_cm[last]),
            end_height_cm: got.tops_cm.last().copied().unwrap_or(0.0),
            size: of.size,
            outline: outline(*shape),
            section_width_cm: shape.section_width_cm(),
            rim_cm: shape.height_cm(),
            vent: of.vent,
            vents: of.vents.iter().map(|&(across, along)| [across, along]).collect(),
        }
    }
}

impl Outlook<'_> {
    /// What was laid and then the rest, one on top of the other.
    fn told(&self, rest: &[Step], tops_cm: &[f64]) -> Vec<BuildStep> {
        let litres = |one: &Portion| one.kg / self.supplies[one.supply].figures.density_kg_l.value;
        let mut below = 0.0;
        let told = |(step, &top_cm): (&Step, &f64)| BuildStep {
            role: step.role,
            cycle: step.cycle,
            portions: said(&step.portions, self.unit_kg),
            litres: step.portions.iter().map(litres).collect(),
            water_l: step.water_l,
            beside_l: step.beside_l,
            thickness_cm: top_cm - std::mem::replace(&mut below, top_cm),
            top_cm,
            planned: None,
        };
        self.stand.laid.iter().chain(rest).zip(tops_cm).map(told).collect()
    }

    fn answer(&self, anew: &Anew) -> BuildAnew {
        let Self { stand, supplies, unit_kg, windows, shape, .. } = self;
        let totals = |steps: &[Step]| -> Vec<f64> {
            let mut amounts = vec![0.0; unit_kg.len()];
            for portion in steps.iter().flat_map(|step| &step.portions) {
                amounts[portion.supply] += portion.kg / unit_kg[portion.supply];
            }
            amounts.iter().map(|amount| (amount * 1e6).round() / 1e6).collect()
        };
        let water = |steps: &[Step]| steps.iter().map(|step| step.water_l).sum();
        let tops_cm = progress(supplies, &stand.laid, &anew.steps, *shape, windows).tops_cm;
        BuildAnew {
            way: anew.way,
            height_cm: anew.height_cm,
            size: anew.size,
            status: anew.status,
            at_end: MixSums::new(&anew.at_end, &windows.standings(&anew.at_end)),
            was: totals(stand.rest()),
            becomes: totals(&anew.steps),
            was_water_l: water(stand.rest()),
            becomes_water_l: water(&anew.steps),
            steps: self.told(&anew.steps, &tops_cm).split_off(stand.laid.len()),
        }
    }
}
