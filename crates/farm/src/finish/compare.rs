//! Heaps beside each other, of one site or of several: recipe, heat, work, yield; what differed most, which did best.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::base::quantity::Band;
use zymarch_core::finish::compare::{Compared, Feature, best, differed};
use zymarch_core::log::EntryKind;
use zymarch_core::mix::{self, Item as Mixed};
use zymarch_core::tend::entry::{Spot, Tended};
use zymarch_core::tend::hygiene::HeatStatus;
use zymarch_core::tend::thin::{Point, thin};
use zymarch_formats::layers::HeapShape;
use zymarch_store::heap::{self, Heap};
use zymarch_store::id::{BatchId, HeapId, SiteId};
use zymarch_store::log::Body;
use zymarch_store::{compost, lot, site};

use super::harvest::all_of;
use crate::Transaction;
use crate::build::heap::shape;
use crate::build::standing;
use crate::plan::BatchPart;
use crate::said::of_item;
use crate::tend::course::HOUR_MS;
use crate::tend::strip::day_of;
use crate::tend::{course, judge, series};
use crate::transaction::at_text;

/// Heaps beside each other.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Comparison {
    /// The heaps, in the order they were asked for.
    pub heaps: Vec<ComparedHeap>,
    /// In what they differed by more than is noticed, the most first.
    pub differed: Vec<Feature>,
    /// The one that did best; none where nothing tells them apart.
    pub best: Option<HeapId>,
}

/// A heap beside others.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ComparedHeap {
    /// Which.
    pub id: HeapId,
    /// What it is called.
    pub name: String,
    /// Where it stands or stood.
    pub site: SiteId,
    /// What that is called.
    pub site_name: String,
    /// The method.
    pub method: Option<String>,
    /// The batch it was built of, if that is still there.
    pub batch: Option<BatchId>,
    /// When its last layer was laid, RFC 3339.
    pub built_at: String,
    /// Whether it was shown hot, as far as was recorded.
    pub shown_hot: bool,
    /// Whether some of what was read of it is made up.
    pub is_simulated: bool,
    /// Its figures, as far as they are known.
    pub figures: Vec<ComparedFigure>,
    /// What went in, as it can be put on the bench.
    pub parts: Vec<BatchPart>,
    /// Share of each of these in the fresh mass, %.
    pub shares_pct: Vec<f64>,
    /// Water that went in with them, litres.
    pub water_l: f64,
    /// The shape it was built in.
    pub shape: HeapShape,
    /// Its core: days after it was built, °C.
    pub core: Vec<[f64; 2]>,
}

/// A figure of a heap.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct ComparedFigure {
    /// Which.
    pub feature: Feature,
    /// Its value.
    pub value: f64,
}

/// Heaps that are compared at once.
pub const MOST: usize = 8;
/// A day with a reading so hot was hot [°C].
const HOT_C: f64 = 55.0;
/// Points of a small trace.
const POINTS: usize = 120;
const DAY_MS: f64 = 24.0 * HOUR_MS as f64;

/// Heaps beside each other.
///
/// # Errors
/// More than are compared at once; there is no such heap, or it was not built yet.
pub fn compare(tx: &Transaction<'_>, ids: Vec<HeapId>) -> Result<Comparison, Faults> {
    if ids.len() > MOST {
        return Err(Fault::of("heaps", FaultCode::TooLarge).with("got", ids.len()).with("most", MOST).into());
    }
    let mut heaps = Vec::with_capacity(ids.len());
    for id in ids {
        heaps.push(compared(tx, &heap::get(tx.conn, id)?)?);
    }
    let figures: Vec<Compared> = heaps
        .iter()
        .map(|heap| Compared {
            shown_hot: heap.shown_hot,
            figures: heap.figures.iter().map(|of| (of.feature, of.value)).collect(),
        })
        .collect();
    let best = best(&figures).map(|place| heaps[place].id);
    Ok(Comparison { differed: differed(&figures), best, heaps })
}

fn compared(tx: &Transaction<'_>, heap: &Heap) -> Result<ComparedHeap, Faults> {
    let built_ms = heap.stand.built_ms.ok_or_else(|| Fault::new(FaultCode::NotBuilt))?;
    let series = series::of(tx, heap)?;
    let judged = judge::of(tx, &heap.row).ok();
    let went_in = standing::went_in(heap);
    let parts: Vec<_> = went_in.into_iter().filter(|item| item.held.amount() > 0.0).collect();
    let mixed = parts
        .iter()
        .map(|item| of_item(item, |noted| noted.item(tx.catalogue())))
        .collect::<Result<Vec<_>, _>>()?;
    let water_l: f64 = heap.stand.laid.iter().map(|step| step.water_l).sum();
    let core: Vec<Point> = series.at(Spot::Core).map(|of| (of.at_ms, of.temp_c)).collect();
    let wet_kg: f64 = mixed.iter().map(|item| item.wet_mass_kg).sum();
    let place = site::get(tx.conn, heap.row.site)?;
    let thin = thin(&core, POINTS).into_iter();
    Ok(ComparedHeap {
        id: heap.row.id,
        name: heap.row.name.clone(),
        site: heap.row.site,
        site_name: place.fields.name,
        method: heap.row.method.clone(),
        batch: heap.row.batch,
        built_at: at_text(built_ms),
        shown_hot: judged
            .as_ref()
            .is_some_and(|judged| judged.held_to.iter().any(|(_, found)| found.status == HeatStatus::Shown)),
        is_simulated: series.is_simulated(),
        figures: figures(tx, heap, (&parts, &mixed, water_l), &core)?,
        shares_pct: mixed.iter().map(|item| 100.0 * item.wet_mass_kg / wet_kg).collect(),
        parts: parts.into_iter().map(BatchPart::from).collect(),
        water_l,
        shape: shape(heap)?.into(),
        core: thin
            .map(|(ms, temp)| [(ms - built_ms) as f64 / DAY_MS, (temp * 10.0).round() / 10.0])
            .collect(),
    })
}

/// What went in: as it is kept, as it is summed, and water [L].
type WentIn<'a> = (&'a [zymarch_store::item::Item], &'a [Mixed], f64);

fn figures(
    tx: &Transaction<'_>,
    heap: &Heap,
    (parts, mixed, water_l): WentIn<'_>,
    core: &[Point],
) -> Result<Vec<ComparedFigure>, Faults> {
    let built_ms = heap.stand.built_ms.unwrap_or_default();
    let series = series::of(tx, heap)?;
    let course = course::of(tx, heap, &series).ok();
    let sum = mix::sum(mixed, water_l)?;
    let volume_l = course.as_ref().map(|course| course.built.0);
    let turns = heap.entries.iter().filter(|entry| entry.kind() == EntryKind::Turn).count() as f64;
    let poured = |entry: &zymarch_store::log::Entry| match &entry.body {
        Body::Tended(of) => match of.what {
            Tended::Water { litres, .. } => Some(litres),
            _ => None,
        },
        _ => None,
    };
    let water_l = water_l + heap.entries.iter().filter_map(poured).sum::<f64>();
    let method = standing::method(tx, heap);
    let work_h = method.zip(volume_l).map(|(method, litres)| {
        (method.build_h_m3.middle() + turns * method.turn_h_m3.map_or(0.0, Band::middle)) * litres / 1000.0
    });
    let mut hot_days: Vec<_> =
        core.iter().filter(|(_, temp)| *temp >= HOT_C).map(|(ms, _)| day_of(tx, *ms)).collect();
    hot_days.dedup();
    let taken = compost::of_heap(tx.conn, heap.row.id)?;
    let gave: f64 = taken.iter().map(all_of).sum();
    let first_ms = taken.iter().map(|of| of.harvested_ms).min();
    let n_in: f64 = mixed.iter().map(Mixed::nitrogen_kg).sum();
    let n_lost = course.as_ref().and_then(|course| course.hours.last()).map(|hour| hour.n_lost_kg);
    let is_read = !core.is_empty();
    let all = [
        (Feature::Volume, volume_l),
        (Feature::CarbonToNitrogen, Some(sum.c_n).filter(|c_n| c_n.is_finite())),
        (Feature::Moisture, Some(100.0 * sum.moisture)),
        (Feature::Hottest, core.iter().map(|(_, temp)| *temp).max_by(f64::total_cmp)),
        (Feature::DaysHot, is_read.then_some(hot_days.len() as f64)),
        (Feature::Turns, Some(turns)),
        (Feature::Water, volume_l.map(|litres| 1000.0 * water_l / litres)),
        (Feature::Work, work_h),
        (Feature::Cost, cost(tx, parts)),
        (Feature::DaysToHarvest, first_ms.map(|ms| (ms - built_ms) as f64 / DAY_MS)),
        // Of a heap that is not emptied nobody knows yet.
        (Feature::Yield, volume_l.filter(|_| heap.row.emptied_ms.is_some()).map(|laid| 100.0 * gave / laid)),
        (Feature::NitrogenKept, n_lost.filter(|_| n_in > 0.0).map(|lost| 100.0 * (1.0 - lost / n_in))),
    ];
    let known = all.into_iter().filter_map(|(feature, value)| Some((feature, value?)));
    Ok(known.map(|(feature, value)| ComparedFigure { feature, value }).collect())
}

/// What was paid for what went in; none if no lot of it has a price.
fn cost(tx: &Transaction<'_>, parts: &[zymarch_store::item::Item]) -> Option<f64> {
    let priced = parts.iter().filter_map(|part| {
        let lot = lot::ever(tx.conn, part.lot?).ok()?;
        let is_same = lot.held.unit() == part.held.unit();
        lot.fields.price.filter(|_| is_same).map(|price| price * part.held.amount())
    });
    let priced: Vec<f64> = priced.collect();
    (!priced.is_empty()).then(|| priced.iter().sum())
}
