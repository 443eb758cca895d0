//! What is to be done before build day, as it is told.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::plan::prepare::Job;
use zymarch_core::plan::starter::{Chore, Evidence, Hazard, Per, Purpose, StarterUnit, Timing};
use zymarch_store::id::BatchId;
use zymarch_store::item::Item;

/// What is to be done before build day.
#[derive(Debug, Serialize, ToSchema)]
pub struct PrepareAnswer {
    /// The day it is built.
    pub(super) build_on: String,
    /// Days until then; below zero if it has passed.
    pub(super) days: i32,
    /// Every starter, as it would have to be made.
    pub(super) starters: Vec<StarterPlan>,
    /// Everything else.
    pub(super) needs: Vec<PrepareNeed>,
}

impl PrepareAnswer {
    /// Everything to be done, each on its day, under the word that it is ticked off by.
    pub(crate) fn lines(
        &self,
        batch: BatchId,
        items: &[Item],
        done: &[String],
    ) -> Vec<(String, PrepareLine)> {
        let line = |key: String| PrepareLine {
            batch,
            is_done: done.contains(&key),
            key,
            build_on: self.build_on.clone(),
            starter: None,
            step: None,
            times_a_day: None,
            job: None,
            material: None,
            params: BTreeMap::new(),
            days_late: 0,
        };
        let mut lines = Vec::new();
        for starter in self.starters.iter().filter(|starter| starter.chosen) {
            for task in &starter.tasks {
                let told = PrepareLine {
                    starter: Some(starter.id.to_owned()),
                    step: Some(task.step),
                    times_a_day: task.times_a_day,
                    ..line(format!("{} {}", starter.id, task.step.as_str()))
                };
                lines.push((task.from.clone(), told));
            }
        }
        for need in &self.needs {
            let item = need.item.map(|item| format!(" {item}")).unwrap_or_default();
            let told = PrepareLine {
                job: Some(need.job),
                material: need.item.and_then(|at| items.get(at)).map(|item| item.material.clone()),
                params: need.params.clone(),
                ..line(format!("{}{item}", need.job.as_str()))
            };
            lines.push((need.on.clone(), told));
        }
        lines
    }
}

/// A starter, scaled to the heap and scheduled back from build day.
#[derive(Debug, Serialize, ToSchema)]
pub struct StarterPlan {
    /// Stable word.
    pub(super) id: &'static str,
    /// Whether for the heap or for finished compost.
    pub(super) purpose: Purpose,
    /// Whether it was chosen.
    pub(super) chosen: bool,
    /// How much of it, low and high.
    pub(super) make: [f64; 2],
    /// How it is measured.
    pub(super) unit: StarterUnit,
    /// What goes into the middle of that.
    pub(super) ingredients: Vec<StarterIngredient>,
    /// Whether it will be ready.
    pub(super) timing: Timing,
    /// When it is begun.
    pub(super) start_on: String,
    /// When it is sure to be ready.
    pub(super) ready_on: String,
    /// Last day to use it; none if it keeps.
    pub(super) use_by: Option<String>,
    /// What is done, in order.
    pub(super) tasks: Vec<StarterTask>,
}

/// Something that goes into a starter.
#[derive(Debug, Serialize, ToSchema)]
pub struct StarterIngredient {
    /// Stable word.
    pub(super) id: &'static str,
    /// How much, low and high.
    pub(super) amount: [f64; 2],
    /// How it is measured.
    pub(super) unit: StarterUnit,
    /// Ids or groups of materials that can stand for it.
    pub(super) stock: Vec<&'static str>,
}

/// A task on the way to a starter.
#[derive(Debug, Serialize, ToSchema)]
pub struct StarterTask {
    /// What.
    pub(super) step: Chore,
    /// First day.
    pub(super) from: String,
    /// Last day.
    pub(super) to: String,
    /// How often a day, if it is repeated.
    pub(super) times_a_day: Option<f64>,
}

/// Something to be ready.
#[derive(Debug, Serialize, ToSchema)]
pub struct PrepareNeed {
    /// What.
    pub(super) job: Job,
    /// The day by which.
    pub(super) on: String,
    /// The item it is about, by its place in the recipe.
    pub(super) item: Option<usize>,
    /// The numbers of its sentence.
    pub(super) params: BTreeMap<&'static str, f64>,
}

/// A starter, as the list of all of them tells it.
#[derive(Debug, Serialize, ToSchema)]
pub struct StarterRow {
    /// Stable word.
    pub(super) id: &'static str,
    /// Whether for the heap or for finished compost.
    pub(super) purpose: Purpose,
    /// What it is measured by.
    pub(super) per: Per,
    /// So much of it for one litre or kilogram of that, low and high.
    pub(super) rate: [f64; 2],
    /// How it is measured.
    pub(super) unit: StarterUnit,
    /// Days until it is ready, low and high.
    pub(super) ready_days: [f64; 2],
    /// Days that it keeps then; none if it keeps.
    pub(super) keeps_days: Option<f64>,
    /// How well it is shown to help.
    pub(super) evidence: Evidence,
    /// What to beware of.
    pub(super) hazards: Vec<Hazard>,
}

/// Something to prepare for a batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PrepareLine {
    /// The batch.
    pub batch: BatchId,
    /// The word it is ticked off by.
    pub key: String,
    /// The day it is built.
    pub build_on: String,
    /// Of which starter, if of one.
    pub starter: Option<String>,
    /// What is done for it.
    pub step: Option<Chore>,
    /// How often a day.
    pub times_a_day: Option<f64>,
    /// What else is to be ready.
    pub job: Option<Job>,
    /// The material it is about.
    pub material: Option<String>,
    /// The numbers of its sentence.
    pub params: BTreeMap<&'static str, f64>,
    /// Days that it is late.
    pub days_late: i32,
    /// Whether it is done.
    pub is_done: bool,
}
