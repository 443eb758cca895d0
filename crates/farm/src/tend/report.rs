//! What a probe sends: temperatures of its heap, or air and rain of its site.
//!
//! Readings of a day go into one pack, so that the log has a line a day and not one a reading; what is sent
//! twice is there once. Everything is kept; what cannot be true is told when it is looked at.

use std::collections::BTreeMap;

use jiff::Timestamp;
use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::tend::entry::{Source, Spot, Tended};
use zymarch_formats::senml::{Measured, Read, Record, measured};
use zymarch_store::id::EntryId;
use zymarch_store::log::{self, About, Body, Readings, Tending};
use zymarch_store::people::session::Hash;
use zymarch_store::probe::{self, Probe};
use zymarch_store::reading::{self, Pack, Point};

use crate::access::Gate;
use crate::transaction::Writing;
use crate::{Transaction, Who};

/// What became of what a probe sent.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, ToSchema)]
pub struct Reported {
    /// Readings that were new.
    pub new: usize,
    /// Readings that were there already.
    pub known: usize,
    /// Rain from a clock that is ahead: it has not fallen yet, so that nothing can be said of it.
    pub left_out: usize,
}

impl Gate {
    /// What a stand-in is to send next, which the program itself asks.
    ///
    /// # Errors
    /// What `ask` refuses.
    pub async fn playing<T: Send + 'static>(
        &self,
        ask: impl FnOnce(&Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Result<T, Faults> {
        self.farm.ask(ask).await
    }

    /// Writes down what a probe sends, if it is one.
    ///
    /// # Errors
    /// No probe is known by that; as [`report`].
    pub async fn report(&self, token: Hash, pack: Vec<Record>) -> Result<Reported, Faults> {
        self.farm
            .act(move |tx| {
                let probe = probe::of_token(tx.conn, &token)?;
                let probe = probe.ok_or_else(|| Fault::new(FaultCode::NoSuchProbe))?;
                report(tx, &probe, &pack)
            })
            .await
    }
}

const DAY_MS: i64 = 24 * 3_600_000;
const MINUTE_MS: i64 = 60_000;

/// Writes down what a probe sent.
///
/// # Errors
/// Every record that cannot be read; the heap was taken off its list.
pub fn report(tx: &mut Transaction<'_>, probe: &Probe, pack: &[Record]) -> Result<Reported, Faults> {
    if let About::Heap(heap) = probe.about {
        zymarch_store::heap::row(tx.conn, heap)?;
    }
    let now_ms = tx.now.as_millisecond();
    let mut reported = Reported::default();
    let mut days: BTreeMap<i64, Vec<Point>> = BTreeMap::new();
    let mut all = measured(pack, now_ms)?;
    all.sort_by_key(|of| of.at_ms);
    for Measured { at_ms, what } in all {
        match what {
            Read::Temperature(temp_c, place, depth_cm) => {
                // What hangs at a site reads its air, whatever it calls it.
                let place = if matches!(probe.about, About::Site(_)) { Spot::Air } else { place };
                let day = at_ms.div_euclid(DAY_MS);
                days.entry(day).or_default().push(Point { at_ms, place, depth_cm, temp_c });
            }
            Read::Rain(mm) => rained(tx, probe, (at_ms, mm), &mut reported)?,
        }
    }
    let packs = packs(tx, probe, &days)?;
    for ((_, points), pack) in days.into_iter().zip(packs) {
        let new = reading::add(tx.conn, pack, now_ms, &points)?;
        reported.new += new;
        reported.known += points.len() - new;
    }
    // To the minute is enough.
    if probe.seen_ms.is_none_or(|seen| now_ms - seen >= MINUTE_MS) {
        probe::seen(tx.conn, probe.id, now_ms)?;
    }
    Ok(reported)
}

/// The pack of a probe's day that stands.
fn of_day(tx: &Transaction<'_>, probe: &Probe, day: i64) -> Result<Option<Pack>, Faults> {
    for pack in reading::of_day(tx.conn, probe.about, probe.id, day)? {
        if stands(tx, &pack)? {
            return Ok(Some(pack));
        }
    }
    Ok(None)
}

/// Whether a pack was not taken back, or was brought back since.
fn stands(tx: &Transaction<'_>, pack: &Pack) -> Result<bool, Faults> {
    let (mut of, mut stands) = (pack.entry, true);
    while let Some(back) = log::taking_back(tx.conn, of)?.pop() {
        stands = !stands;
        of = back.id;
    }
    Ok(stands)
}

/// The pack of each day, opened where there is none that stands.
fn packs(
    tx: &mut Transaction<'_>,
    probe: &Probe,
    days: &BTreeMap<i64, Vec<Point>>,
) -> Result<Vec<i64>, Faults> {
    let (mut packs, mut fresh, mut writings) = (Vec::new(), Vec::new(), Vec::new());
    let source = if probe.is_simulated { Source::Simulated } else { Source::Probe };
    for (&day, points) in days {
        let pack = of_day(tx, probe, day)?;
        packs.push(pack.map_or(0, |pack| pack.id));
        if packs.last() == Some(&0) {
            let body = Body::Readings(Readings { source, name: probe.name.clone(), probe: Some(probe.id) });
            let at = Timestamp::from_millisecond(points[0].at_ms).unwrap_or(tx.now).min(tx.now);
            let entry = EntryId::fresh();
            let writing = Writing::now(probe.site, probe.about, body);
            writings.push(Writing { id: Some(entry), at: Some(at), ..writing });
            fresh.push((packs.len() - 1, entry, day));
        }
    }
    tx.write_all(&by(probe), writings)?;
    for (place, entry, day) in fresh {
        packs[place] = reading::open(tx.conn, entry, probe.about, (Some(probe.id), day))?;
    }
    Ok(packs)
}

/// A probe as whoever writes something down: nobody, on a device of its name.
fn by(probe: &Probe) -> Who {
    Who::local(&probe.name)
}

/// Rain is an entry of its own, once for each time.
fn rained(
    tx: &mut Transaction<'_>,
    probe: &Probe,
    (at_ms, mm): (i64, f64),
    reported: &mut Reported,
) -> Result<(), Faults> {
    if mm <= 0.0 {
        return Ok(());
    }
    let Some(at) = Timestamp::from_millisecond(at_ms).ok().filter(|at| *at <= tx.now) else {
        reported.left_out += 1;
        return Ok(());
    };
    let body = Body::Tended(Box::new(Tending { what: Tended::Rain { mm, hours: Some(1.0) }, note: None }));
    let is_known = log::at(tx.conn, probe.about, at_ms)?.iter().any(|entry| entry.body == body);
    if is_known {
        reported.known += 1;
        return Ok(());
    }
    tx.write(&by(probe), Writing { at: Some(at), ..Writing::now(probe.site, probe.about, body) })?;
    reported.new += 1;
    Ok(())
}
