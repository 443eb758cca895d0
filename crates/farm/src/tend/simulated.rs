//! Stand-ins for a rod in a heap and for a weather station: what they would send, as a real one sends it.
//!
//! They are probes like others, known as simulated, and write through the same door. Their data can be taken
//! out again whole.

use jiff::Timestamp;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Faults};
use zymarch_core::base::quantity;
use zymarch_core::tend::entry::Spot;
use zymarch_core::tend::heat::Hour;
use zymarch_core::tend::simulated::{ROD_PLACES, Rod, RodFault, Station};
use zymarch_formats::senml::Record;
use zymarch_store::id::{HeapId, ProbeId, SiteId};
use zymarch_store::log::{self, About, Body, Entry};
use zymarch_store::probe::Probe;
use zymarch_store::{heap, site};

use super::course::HOUR_MS;
use super::probe::{StandsIn, made, there};
use super::report::report;
use super::{course, probe, series};
use crate::transaction::Writing;
use crate::{Transaction, Who};

/// A rod to be played.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RodFields {
    /// What it is called.
    pub name: String,
    /// Minutes from one reading to the next, 5 to 1440.
    #[serde(default = "half_an_hour")]
    pub every_min: u32,
    /// Hours of the heap that are played a second; all at once if left out.
    #[serde(default)]
    pub hours_a_second: Option<f64>,
    /// What is wrong with it, if anything.
    #[serde(default)]
    pub fault: Option<RodFault>,
    /// From which day of the heap on that is wrong.
    #[serde(default)]
    pub fault_from_day: f64,
}

/// A weather station to be played.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StationFields {
    /// What it is called.
    pub name: String,
    /// Hours that are played a second; all at once if left out.
    #[serde(default)]
    pub hours_a_second: Option<f64>,
}

const fn half_an_hour() -> u32 {
    30
}

impl RodFields {
    fn checked(&self) -> Result<Rod, Faults> {
        let mut found = Vec::new();
        let within = |field: &'static str, value: f64, low: f64, high: f64| {
            quantity::within(value, low, high).err().map(|fault| At::ROOT.key(field).put(fault))
        };
        found.extend(within("every_min", f64::from(self.every_min), 5.0, 1440.0));
        found.extend(self.hours_a_second.and_then(|speed| within("hours_a_second", speed, 0.001, 100_000.0)));
        found.extend(within("fault_from_day", self.fault_from_day, 0.0, 730.0));
        let fault = self.fault.map(|fault| (fault, self.fault_from_day * 24.0));
        Faults::or(found, || Rod { every_min: self.every_min, seed: 0, fault })
    }
}

/// A stand-in that was written down: its probe, what it is known by, and what it plays.
#[derive(Debug, Clone)]
pub struct Played<T> {
    /// The probe.
    pub probe: Probe,
    /// What it is known by.
    pub token: String,
    /// What it plays.
    pub plays: T,
}

/// A rod that is put into a heap.
///
/// # Errors
/// Its fields; the heap cannot be reckoned.
pub fn rod(
    tx: &mut Transaction<'_>,
    _who: &Who,
    (id, fields): (HeapId, &RodFields),
) -> Result<Played<Rod>, Faults> {
    let rod = fields.checked()?;
    let heap = heap::get(tx.conn, id)?;
    course::of(tx, &heap, &*series::of(tx, &heap)?)?;
    let (probe, token) = made(tx, StandsIn::Heap(id), &fields.name, true)?;
    let seed = seed(&probe.name, &heap.row.name);
    Ok(Played { probe, token, plays: Rod { seed, ..rod } })
}

/// A weather station that is set up at a site, and from when on it plays.
///
/// # Errors
/// Its fields.
pub fn station(
    tx: &mut Transaction<'_>,
    _who: &Who,
    (id, fields): (SiteId, &StationFields),
) -> Result<Played<i64>, Faults> {
    if let Some(Err(fault)) = fields.hours_a_second.map(|speed| quantity::within(speed, 0.001, 100_000.0)) {
        return Err(At::ROOT.key("hours_a_second").put(fault).into());
    }
    let heaps = heap::of_site(tx.conn, id)?;
    let now_ms = tx.now.as_millisecond();
    let first = heaps.iter().map(|heap| heap.begun_ms).min().unwrap_or(now_ms - 30 * 24 * HOUR_MS);
    let (probe, token) = made(tx, StandsIn::Site(id), &fields.name, true)?;
    Ok(Played { probe, token, plays: first.max(now_ms - 730 * 24 * HOUR_MS) / HOUR_MS })
}

/// Which of all that could be: told by what it is called and where it stands, so that it goes on as it began
/// and a demonstration is the same each time.
///
/// # Source
/// Fowler, Noll and Vo's hash, FNV-1a, of 64 bits.
fn seed(name: &str, place: &str) -> u64 {
    let signs = name.bytes().chain([0]).chain(place.bytes());
    signs.fold(0xcbf2_9ce4_8422_2325, |hash, sign| (hash ^ u64::from(sign)).wrapping_mul(0x0100_0000_01b3))
}

/// Readings in a pack.
const IN_A_PACK: u64 = 3000;

/// What a rod sends next: from a reading of a number on until so many hours after the heap was built, as one
/// pack; and the number after. An empty
/// pack with a higher number was lost on the way.
///
/// # Errors
/// The heap is gone, or cannot be reckoned.
pub fn rod_sends(
    tx: &Transaction<'_>,
    (id, rod, from, until_h): (HeapId, &Rod, u64, f64),
) -> Result<(Vec<Record>, u64), Faults> {
    let heap = heap::get(tx.conn, id)?;
    let course = course::of(tx, &heap, &*series::of(tx, &heap)?)?;
    // The hour that has begun is not reckoned yet.
    let hours = course.hours.last().map_or(0.0, |hour| f64::from(hour.hour)).min(until_h);
    let due = (hours * 60.0 / f64::from(rod.every_min)) as u64;
    let last = due.min(from + IN_A_PACK);
    let (mut pack, reckoned) = (Vec::new(), course.hours.all());
    for number in from..=last {
        pack.extend(rod_says(&reckoned, rod, number, course.built_ms));
    }
    named(&mut pack, "rod");
    Ok((pack, last.max(from.saturating_sub(1)) + 1))
}

/// What a rod says by one of its readings, in a heap that was built at a time [ms]; nothing where it is lost.
#[must_use]
pub fn rod_says(hours: &[Hour], rod: &Rod, number: u64, built_ms: i64) -> Vec<Record> {
    let Some(sent) = rod.reading(hours, number) else { return Vec::new() };
    let at_ms = built_ms + (sent.said_h * HOUR_MS as f64) as i64;
    let points = ROD_PLACES.iter().zip(sent.temp_c);
    points.map(|(place, temp_c)| record(at_ms, place.as_str(), "Cel", temp_c)).collect()
}

/// What a station sends next: from an hour since 1970 on until another, as one pack; and the hour after.
///
/// # Errors
/// The site is gone.
pub fn station_sends(
    tx: &Transaction<'_>,
    (id, probe, from, until): (SiteId, ProbeId, i64, i64),
) -> Result<(Vec<Record>, i64), Faults> {
    let place = site::get(tx.conn, id)?;
    let name = zymarch_store::probe::get(tx.conn, probe)?.name;
    let seed = seed(&name, &place.fields.name);
    let station = Station { climate: place.fields.climate.as_ref(), seed };
    let last = until.min(tx.now.as_millisecond() / HOUR_MS).min(from + IN_A_PACK as i64);
    let (mut pack, mut known) = (Vec::new(), None);
    for hour in from..=last {
        let at = Timestamp::from_second(hour * 3600).unwrap_or(tx.now).to_zoned(tx.zone.clone());
        let date = (at.day_of_year().unsigned_abs(), hour.div_euclid(24));
        let day = match known.take() {
            Some((of, day)) if of == date => day,
            _ => station.day(date.0, date.1),
        };
        let at_ms = hour * HOUR_MS;
        pack.push(record(at_ms, Spot::Air.as_str(), "Cel", day.air_c[at.hour().unsigned_abs() as usize]));
        if let Some((begun, hours, mm)) = day.rain {
            let since = f64::from(at.hour()) - f64::from(begun);
            if (0.0..hours).contains(&since) {
                pack.push(record(at_ms, "rain", "mm", (mm / hours * 10.0).round().max(1.0) / 10.0));
            }
        }
        known = Some((date, day));
    }
    named(&mut pack, "weather");
    Ok((pack, last.max(from - 1) + 1))
}

fn record(at_ms: i64, name: &str, unit: &str, value: f64) -> Record {
    Record {
        name: Some(name.to_owned()),
        unit: Some(unit.to_owned()),
        value: Some(value),
        time: Some(at_ms as f64 / 1000.0),
        ..Record::default()
    }
}

/// Says in the first record which device it is, and that it is a stand-in.
pub fn named(pack: &mut [Record], device: &str) {
    if let Some(first) = pack.first_mut() {
        first.base_name = Some(format!("urn:dev:ops:zymarch-simulated-{device}:"));
    }
}

/// Plays a stand-in to the present at once.
///
/// # Errors
/// The heap or site is gone, or cannot be reckoned.
pub fn play_rod(tx: &mut Transaction<'_>, id: HeapId, of: &Played<Rod>) -> Result<(), Faults> {
    let mut next = 0;
    loop {
        let (pack, after) = rod_sends(tx, (id, &of.plays, next, f64::INFINITY))?;
        if !pack.is_empty() {
            report(tx, &of.probe, &pack)?;
        }
        if after <= next {
            return Ok(());
        }
        next = after;
    }
}

/// Plays a weather station to the present at once.
///
/// # Errors
/// As [`play_rod`].
pub fn play_station(tx: &mut Transaction<'_>, id: SiteId, of: &Played<i64>) -> Result<(), Faults> {
    let mut next = of.plays;
    loop {
        let (pack, after) = station_sends(tx, (id, of.probe.id, next, i64::MAX))?;
        if !pack.is_empty() {
            report(tx, &of.probe, &pack)?;
        }
        if after <= next {
            return Ok(());
        }
        next = after;
    }
}

/// Takes out all that a probe sent, and cuts it off.
///
/// # Errors
/// There is none of that id there.
pub fn take_out(tx: &mut Transaction<'_>, who: &Who, (of, id): (StandsIn, ProbeId)) -> Result<(), Faults> {
    let probe = there(tx, of, id)?;
    let about: About = of.about();
    let is_its = |entry: &Entry| match &entry.body {
        Body::Readings(readings) => readings.probe == Some(id),
        Body::Tended(_) => matches!(about, About::Site(_)) && entry.device == probe.name,
        _ => false,
    };
    let standing = log::those_that_stand(log::of(tx.conn, about)?);
    let undone = standing.iter().filter(|entry| is_its(entry)).map(Writing::undone).collect();
    tx.write_all(who, undone)?;
    probe::end(tx, who, (of, id))
}
