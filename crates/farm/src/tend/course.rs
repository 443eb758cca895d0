//! What a heap of the records is expected to do: the model, from the day it was built by what was logged since,
//! and on from the newest readings.

use std::sync::{Arc, Mutex};

use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::Item as Mixed;
use zymarch_core::plan::heap::Shape;
use zymarch_core::tend::diagnose::Logged;
use zymarch_core::tend::entry::{Spot, Tended};
use zymarch_core::tend::expected::{Sky, air_c, geometry, happenings, part, warmed, water};
use zymarch_core::tend::heat::{
    Cover, Make, Part, Setting, Start, State, Weather, onward, run::COARSE_STEP_H,
};
use zymarch_core::tend::now::{Measured, Now, now};
use zymarch_formats::heat::HeatRequest;
use zymarch_store::heap::{self, Heap, HeapRow};
use zymarch_store::id::{EntryId, HeapId};
use zymarch_store::item::Item;
use zymarch_store::log::{About, Body};
use zymarch_store::{compost, reading, site};

use self::packed::PackedHours;
use super::series::{self, Series};
use super::weather;
use crate::Transaction;
use crate::build::heap::shape;
use crate::build::standing;
use crate::said::of_item;

/// What a heap is expected to do.
#[derive(Debug)]
pub(crate) struct Course {
    /// When its last layer was laid [ms].
    pub(crate) built_ms: i64,
    /// Each whole hour from then until now, by what was logged.
    pub(crate) hours: PackedHours,
    /// As it is at the last of them, to go on from.
    end: (Make, State),
    /// Each whole hour from now on, from the newest readings.
    pub(crate) ahead: PackedHours,
    /// What is left of it now; none if it was just built.
    pub(crate) now: Option<Now>,
    /// The same, had nothing been taken out as compost.
    pub(crate) whole: Option<Now>,
    /// Whether any of the air was written down; else it is what its months are.
    pub(crate) has_air: bool,
    /// What was read, seen and done, and the rain, in order: hours after it was built.
    pub(crate) log: Vec<Logged>,
    /// Room [L] and height [cm] as it was laid.
    pub(crate) built: (f64, f64),
    /// Whether rain is kept off by what it stands in.
    pub(crate) is_roofed: bool,
}

/// So far it is looked ahead [h].
const AHEAD_H: u32 = 14 * 24;
/// Longer than this no heap is reckoned [h].
const LONGEST_H: i64 = 730 * 24;
/// A reading older than this says nothing of now [h].
const NEWEST_H: i64 = 36;

/// What is poured on, among the materials of a heap.
const WATER: &str = "water";

pub(crate) const HOUR_MS: i64 = 3_600_000;

/// Of which state of the records something was reckoned: the heap's log, its readings, the site's weather, the
/// site itself, and the hour.
pub(super) type Stamps = (EntryId, i64, i64, i64, i64);

/// Courses as they were reckoned last.
#[derive(Debug, Default)]
pub(crate) struct KeptCourses(Mutex<Vec<Seen>>);

/// A course, and of which state of the records at which hour.
#[derive(Debug)]
struct Seen {
    heap: HeapId,
    state: Stamps,
    /// Materials and methods as they were then: an own one may be changed since.
    catalogue: Arc<Catalogue>,
    course: Result<Arc<Course>, Faults>,
}

impl Seen {
    fn is_of(&self, heap: HeapId, state: Stamps, catalogue: &Arc<Catalogue>) -> bool {
        self.is_before(heap, state, catalogue) && self.state.4 == state.4
    }

    /// Whether it is of the same records at the same hour or one before: it goes on from there.
    fn is_before(&self, heap: HeapId, state: Stamps, catalogue: &Arc<Catalogue>) -> bool {
        let same = |of: Stamps| (of.0, of.1, of.2, of.3);
        self.heap == heap
            && same(self.state) == same(state)
            && self.state.4 <= state.4
            && Arc::ptr_eq(&self.catalogue, catalogue)
    }
}

const MOST_KEPT: usize = 60;

/// What a heap is expected to do.
///
/// # Errors
/// It was not built yet, or is such that it cannot be reckoned: the fault tells why.
pub(crate) fn of(tx: &Transaction<'_>, heap: &Heap, series: &Series) -> Result<Arc<Course>, Faults> {
    let place = site::get(tx.conn, heap.row.site)?;
    let state = state(tx, &heap.row, place.version)?;
    let id = heap.row.id;
    let mut before = None;
    if let Ok(kept) = tx.kept.courses.0.lock() {
        if let Some(seen) = kept.iter().find(|seen| seen.is_of(id, state, &tx.catalogue)) {
            return seen.course.clone();
        }
        let earlier = kept.iter().find(|seen| seen.is_before(id, state, &tx.catalogue));
        before = earlier.and_then(|seen| seen.course.clone().ok());
    }
    let course = reckoned(tx, heap, (series, &place.fields), before.as_deref()).map(Arc::new);
    if tx.only_reads
        && let Ok(mut kept) = tx.kept.courses.0.lock()
    {
        kept.retain(|seen| seen.heap != id);
        if kept.len() >= MOST_KEPT {
            kept.remove(0);
        }
        let catalogue = Arc::clone(&tx.catalogue);
        kept.push(Seen { heap: id, state, catalogue, course: course.clone() });
    }
    course
}

/// The state of the records that a heap's course hangs on.
pub(super) fn state(tx: &Transaction<'_>, heap: &HeapRow, place_version: i64) -> Result<Stamps, Faults> {
    let site = About::Site(heap.site);
    Ok((
        heap.head,
        reading::stamp(tx.conn, About::Heap(heap.id))?,
        reading::stamp(tx.conn, site)? + zymarch_store::log::count(tx.conn, site)?,
        place_version,
        until_ms(tx, heap) / HOUR_MS,
    ))
}

/// Until when a heap stands: now, or when all of it was taken out [ms].
pub(crate) fn until_ms(tx: &Transaction<'_>, heap: &HeapRow) -> i64 {
    let now_ms = tx.now.as_millisecond();
    heap.emptied_ms.map_or(now_ms, |emptied| emptied.min(now_ms))
}

/// How much of a heap is left, by what was taken out of it against what it should give then [-].
fn share_left(tx: &Transaction<'_>, heap: HeapId) -> Result<f64, Faults> {
    let taken = compost::of_heap(tx.conn, heap)?;
    let share = |of: &compost::Compost| {
        let rejects = of.rejects.map_or(0.0, |(_, litres)| litres);
        of.expected_l.map_or(0.0, |expected| (of.taken_l + rejects) / expected)
    };
    Ok((1.0 - taken.iter().map(share).sum::<f64>()).clamp(0.0, 1.0))
}

/// A heap as the model takes it.
struct Given {
    parts: Vec<(String, Part)>,
    start: Start,
    setting: Setting,
    shape: Shape,
    /// Room as it was laid [L].
    built_l: f64,
    has_air: bool,
    log: Vec<Logged>,
}

/// A heap and its weather as the model takes them, for so many hours.
fn given(
    tx: &Transaction<'_>,
    heap: &Heap,
    series: &Series,
    place: &site::NewSite,
    hours: u32,
) -> Result<Given, Faults> {
    let built_ms = heap.stand.built_ms.ok_or_else(|| Fault::new(FaultCode::NotBuilt))?;
    let (supplies, laid) = standing::laid(tx, heap)?;
    let rows = |at: usize| tx.catalogue().material(&heap.stand.items[at].material);
    let kg = |supply: usize| -> f64 {
        let portions = laid.iter().flat_map(|step| &step.portions);
        portions.filter(|portion| portion.supply == supply).map(|portion| portion.kg).sum()
    };
    let mut parts: Vec<(String, Part)> = (0..supplies.len())
        .map(|supply| {
            let item = Mixed { wet_mass_kg: kg(supply), figures: supplies[supply].figures };
            (heap.stand.items[supply].material.clone(), part(&item, rows(supply)))
        })
        .filter(|(_, part)| part.kg > 0.0)
        .collect();
    parts.push((WATER.to_owned(), water(laid.iter().map(|step| step.water_l).sum())));
    let start = Start::of(&parts.iter().map(|(_, part)| *part).collect::<Vec<_>>());
    let built_l = laid.iter().map(|step| step.heap_volume_l(&supplies)).sum();
    let shape = shape(heap)?;
    let geometry = geometry(shape, standing::method(tx, heap));
    let weather = weather::of(tx, heap.row.site)?;
    let at_h = |ms: i64| (ms - built_ms) as f64 / HOUR_MS as f64;
    let mut air: Vec<(f64, f64)> = weather.air.iter().map(|(ms, temp)| (at_h(*ms), *temp)).collect();
    air.extend(series.at(Spot::Air).map(|of| (at_h(of.at_ms), of.temp_c)));
    air.sort_by(|a, b| a.0.total_cmp(&b.0));
    air.retain(|(at, _)| *at >= -12.0);
    let local = jiff::Timestamp::from_millisecond(built_ms).unwrap_or(tx.now).to_zoned(tx.zone.clone());
    let start_hour = f64::from(local.hour()) + f64::from(local.minute()) / 60.0;
    let sky = Sky {
        climate: place.climate.as_ref(),
        start_day: f64::from(local.day_of_year()),
        start_hour,
        read: &air,
    };
    let measured_c = air_c(&sky, hours);
    let start_c = measured_c.iter().take(24).sum::<f64>() / measured_c.len().clamp(1, 24) as f64;
    let log = logged(tx, heap, &weather, built_ms)?;
    let (events, rain) = happenings(&log);
    let weather = Weather {
        altitude_m: place.altitude_m.unwrap_or_default().clamp(-500.0, 5500.0),
        start_day: sky.start_day,
        start_hour,
        measured_c,
        ..Weather::default()
    };
    let setting = Setting { geometry, weather, rain, events, start_c: Some(start_c), step_h: COARSE_STEP_H };
    Ok(Given { parts, start, setting, shape, built_l, has_air: !air.is_empty(), log })
}

fn reckoned(
    tx: &Transaction<'_>,
    heap: &Heap,
    (series, place): (&Series, &site::NewSite),
    before: Option<&Course>,
) -> Result<Course, Faults> {
    let built_ms = heap.stand.built_ms.ok_or_else(|| Fault::new(FaultCode::NotBuilt))?;
    let now_ms = until_ms(tx, &heap.row);
    let so_far = ((now_ms - built_ms).div_euclid(HOUR_MS)).clamp(0, LONGEST_H) as u32;
    let given = given(tx, heap, series, place, so_far + AHEAD_H)?;
    let Given { start, setting, shape, built_l, has_air, log, .. } = given;
    let first = match before {
        // Nothing but time has passed: it goes on where it was.
        Some(before) if (1..=so_far + 1).contains(&(before.hours.len() as u32)) => {
            let reached = before.hours.len() as u32 - 1;
            let mut more = onward(before.end, &setting, reached..so_far)?;
            more.hours.splice(..1, before.hours.each());
            more
        }
        _ => {
            let built = start.built(setting.geometry, setting.start_c.unwrap_or_default())?;
            onward(built, &setting, 0..so_far)?
        }
    };
    let newest = newest(series, now_ms);
    let air = setting.weather.air_c(f64::from(so_far));
    let from: State = warmed(&first.state, air, newest[0], newest[1]);
    let ahead = onward((first.make, from), &setting, so_far..so_far + AHEAD_H)?.hours;
    // A heap sinks as a whole: so much of its height left is so much of its room.
    let built_cm = shape.height_of_cm(built_l);
    let room_m3 =
        |height_cm: f64| first.hours.first().map_or(0.0, |hour| hour.volume_m3) * height_cm / built_cm;
    let measured = measured(heap, built_ms, room_m3);
    let whole = now(&first.hours, &measured);
    let left = share_left(tx, heap.row.id)?;
    let is_roofed = setting.geometry.cover != Cover::None;
    Ok(Course {
        built_ms,
        end: (first.make, first.state),
        hours: PackedHours::of(&first.hours),
        ahead: PackedHours::of(&ahead),
        now: whole.map(|whole| whole.of_share(left)),
        whole,
        has_air,
        log,
        built: (built_l, built_cm),
        is_roofed,
    })
}

/// A heap as a document of the model, from the day it was built until now.
///
/// # Errors
/// There is none, or it was not built yet.
pub fn document(tx: &Transaction<'_>, id: HeapId) -> Result<HeatRequest, Faults> {
    let heap = heap::get(tx.conn, id)?;
    let series = series::of(tx, &heap)?;
    let built_ms = heap.stand.built_ms.ok_or_else(|| Fault::new(FaultCode::NotBuilt))?;
    let hours = ((tx.now.as_millisecond() - built_ms) / HOUR_MS).clamp(24, LONGEST_H) as u32;
    let place = site::get(tx.conn, heap.row.site)?;
    let given = given(tx, &heap, &series, &place.fields, hours)?;
    Ok(HeatRequest::telling(&given.parts, &given.setting, hours.div_ceil(24)))
}

/// What was read of a heap, seen at it and done to it since it was built, and the rain on it, in order: hours
/// after it was built.
fn logged(
    tx: &Transaction<'_>,
    heap: &Heap,
    weather: &weather::Weather,
    built_ms: i64,
) -> Result<Vec<Logged>, Faults> {
    let at_h = |ms: i64| (ms - built_ms) as f64 / HOUR_MS as f64;
    let mut log: Vec<Logged> = Vec::new();
    for entry in &heap.entries {
        let Body::Tended(of) = &entry.body else { continue };
        let what = of.what.clone().with_items(|items| starts(tx, &items))?;
        log.push((at_h(entry.at_ms), what));
    }
    for (at_ms, what) in &weather.rain {
        log.push((at_h(*at_ms), what.clone().with_items(|_| Ok::<_, Faults>(Vec::new()))?));
    }
    log.retain(|(at, _)| *at >= 0.0);
    log.sort_by(|a, b| a.0.total_cmp(&b.0));
    Ok(log)
}

fn starts(tx: &Transaction<'_>, items: &[Item]) -> Result<Vec<Start>, Faults> {
    let start = |item: &Item| {
        let mixed = of_item(item, |noted| noted.item(tx.catalogue()))?;
        Ok(Start::of(&[part(&mixed, tx.catalogue().material(&item.material))]))
    };
    items.iter().map(start).collect()
}

/// The newest good reading of the core and of the edge, if it is new enough.
fn newest(series: &Series, now_ms: i64) -> [Option<f64>; 2] {
    [Spot::Core, Spot::Edge].map(|place| {
        let last = series.at(place).last()?;
        (now_ms - last.at_ms <= NEWEST_H * HOUR_MS).then_some(last.temp_c)
    })
}

/// What was measured of a heap that puts its state right, in hours after it was built.
fn measured(heap: &Heap, built_ms: i64, room_m3: impl Fn(f64) -> f64) -> Vec<(f64, Measured)> {
    let told = |entry: &zymarch_store::log::Entry| {
        let Body::Tended(of) = &entry.body else { return None };
        let what = match of.what {
            Tended::Squeeze { feel, .. } => Measured::Moisture(feel.moisture()),
            Tended::Height { height_cm } => Measured::Volume(room_m3(height_cm)),
            _ => return None,
        };
        let at_h = (entry.at_ms - built_ms) as f64 / HOUR_MS as f64;
        (at_h >= 0.0).then_some((at_h, what))
    };
    heap.entries.iter().filter_map(told).collect()
}

mod packed;
#[cfg(test)]
mod tests;
