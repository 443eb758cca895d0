//! What compost holds: as a laboratory found, newest first, and else as it is estimated from what went in.

use std::cell::RefCell;
use std::collections::HashMap;
use std::rc::Rc;

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::base::words::closed_list;
use zymarch_core::finish::lab::LabFigure;
use zymarch_core::finish::nutrients::Estimated;
use zymarch_core::finish::restrict::Shown;
use zymarch_core::stock::material::Spread;
use zymarch_store::compost::{self, Compost};
use zymarch_store::heap;
use zymarch_store::id::{CompostId, HeapId};
use zymarch_store::log::{About, Found};

use crate::Transaction;
use crate::tend::{case, course, judge, series};

closed_list! {
    /// Where a figure of compost comes from.
    FigureFrom {
        /// From what went in and what was lost.
        Estimated = "estimated",
        /// A laboratory or a kit found it.
        Lab = "lab",
        /// It was felt or weighed when it was taken out.
        Harvest = "harvest",
    }
}

/// A figure of compost or of soil, on one footing: shares are of dry matter.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FigureTold {
    /// Which.
    pub figure: LabFigure,
    /// Its likeliest value.
    pub value: f64,
    /// Lowest, of what is estimated.
    pub low: Option<f64>,
    /// Highest.
    pub high: Option<f64>,
    /// Where it comes from.
    pub from: FigureFrom,
    /// The day of the sample, of what a laboratory found.
    pub made_on: Option<String>,
}

/// What is known of some compost.
#[derive(Debug)]
pub(super) struct Held {
    /// Itself.
    pub(super) of: Compost,
    /// What it holds.
    pub(super) holds: Vec<FigureTold>,
    /// What it should hold, as it is estimated, whatever was found.
    pub(super) estimated: Vec<FigureTold>,
    /// What was recorded of its heap.
    pub(super) shown: Shown,
}

/// What is known of compost, looked up once for each, however often a question comes to it.
pub(super) struct Lookup<'t, 'c> {
    pub(super) tx: &'t Transaction<'c>,
    known: RefCell<HashMap<CompostId, Rc<Held>>>,
}

impl<'t, 'c> Lookup<'t, 'c> {
    pub(super) fn new(tx: &'t Transaction<'c>) -> Self {
        Self { tx, known: RefCell::default() }
    }

    /// What is known of some compost.
    ///
    /// # Errors
    /// There is none.
    pub(super) fn of(&self, id: CompostId) -> Result<Rc<Held>, Faults> {
        if let Some(known) = self.known.borrow().get(&id) {
            return Ok(Rc::clone(known));
        }
        let of = compost::get(self.tx.conn, id)?;
        let estimated = all_estimated(self.tx, &of)?;
        let holds = holds(self.tx, &of, &estimated)?;
        let shown = shown(self.tx, &of);
        let held = Rc::new(Held { of, holds, estimated, shown });
        self.known.borrow_mut().insert(id, Rc::clone(&held));
        Ok(held)
    }
}

/// What was recorded of compost until it was taken out of its heap; where that cannot be judged it was not shown hot.
fn shown(tx: &Transaction<'_>, of: &Compost) -> Shown {
    let row = heap::row(tx.conn, of.heap).ok();
    let hot = row.and_then(|row| judge::was_shown_hot(tx, &row, of.harvested_ms).ok());
    Shown { hot: hot.unwrap_or(false), ready: of.was_ready }
}

/// What the compost of a heap should hold; none if nothing can be said of it.
fn estimate(tx: &Transaction<'_>, id: HeapId) -> Result<Option<Estimated>, Faults> {
    // A heap that was taken off the list since, or that cannot be reckoned, is not told of.
    let Ok(heap) = heap::get(tx.conn, id) else { return Ok(None) };
    let series = series::of(tx, &heap)?;
    let Ok(course) = course::of(tx, &heap, &series) else { return Ok(None) };
    Ok(case::of(tx, &heap, &series, &course).ok().and_then(|case| case::holds(&case, &course)))
}

/// A figure of an estimate, in the unit of the list.
fn estimated(of: &Estimated, figure: LabFigure) -> Option<Spread> {
    let percent =
        |of: Spread| Spread { low: 100.0 * of.low, typical: 100.0 * of.typical, high: 100.0 * of.high };
    Some(match figure {
        LabFigure::Nitrogen => percent(of.nitrogen),
        LabFigure::Phosphorus => percent(of.phosphorus?),
        LabFigure::Potassium => percent(of.potassium?),
        LabFigure::Salts => of.ec_ds_m?,
        LabFigure::CarbonToNitrogen => of.c_n,
        LabFigure::OrganicMatter => Spread {
            low: 100.0 * (1.0 - of.ash.high),
            typical: 100.0 * (1.0 - of.ash.typical),
            high: 100.0 * (1.0 - of.ash.low),
        },
        LabFigure::Acidity | LabFigure::Moisture | LabFigure::MicrobialMass | LabFigure::FungusToBacteria => {
            return None;
        }
    })
}

/// What laboratories found, each figure as the newest result that has it tells.
pub(super) fn found(results: &[Found]) -> Vec<FigureTold> {
    let newest = |figure: LabFigure| {
        let told = results.iter().find_map(|found| Some((found.result.dry(figure)?, found)));
        told.map(|(value, found)| FigureTold {
            figure,
            value,
            low: None,
            high: None,
            from: FigureFrom::Lab,
            made_on: Some(found.made_on.clone()),
        })
    };
    LabFigure::ALL.iter().filter_map(|figure| newest(*figure)).collect()
}

/// What compost should hold, as it is estimated, whatever was found.
fn all_estimated(tx: &Transaction<'_>, of: &Compost) -> Result<Vec<FigureTold>, Faults> {
    let estimate = estimate(tx, of.heap)?;
    let told = |figure: LabFigure| {
        let Spread { low, typical, high } = estimated(estimate.as_ref()?, figure)?;
        let (low, high, from) = (Some(low), Some(high), FigureFrom::Estimated);
        Some(FigureTold { figure, value: typical, low, high, from, made_on: None })
    };
    Ok(LabFigure::ALL.iter().filter_map(|figure| told(*figure)).collect())
}

/// What compost holds: what was found stands before what was measured, and that before what is estimated.
fn holds(tx: &Transaction<'_>, of: &Compost, estimated: &[FigureTold]) -> Result<Vec<FigureTold>, Faults> {
    let results: Vec<Found> =
        compost::results(tx.conn, About::Compost(of.id))?.into_iter().map(|(_, found)| found).collect();
    let found = found(&results);
    let told = |figure: LabFigure| {
        let is_it = |one: &&FigureTold| one.figure == figure;
        let (value, from) = (100.0 * of.moisture, FigureFrom::Harvest);
        let felt = FigureTold { figure, value, low: None, high: None, from, made_on: None };
        let felt = (figure == LabFigure::Moisture).then_some(felt);
        found.iter().find(is_it).cloned().or(felt).or_else(|| estimated.iter().find(is_it).cloned())
    };
    Ok(LabFigure::ALL.iter().filter_map(|figure| told(*figure)).collect())
}
