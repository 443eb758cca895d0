//! Speed of what is judged: today's list over fifty heaps with a season of log, over a real file.

use std::time::{Duration, Instant};

use jiff::{Span, Timestamp};
use zymarch_core::base::fault::Faults;
use zymarch_core::tend::entry::{ReadBy, Smell, Spot, SqueezeFeel, StickFeel, Tended};
use zymarch_farm::build::built::{BuiltRequest, built};
use zymarch_farm::clock::Clock;
use zymarch_farm::plan::BatchPart;
use zymarch_farm::plan::batch;
use zymarch_farm::stock::site;
use zymarch_farm::tend::entry::{TendRequest, tend};
use zymarch_farm::tend::judge_all;
use zymarch_farm::tend::judgement::judgement;
use zymarch_farm::tend::today::today;
use zymarch_farm::{Farm, Transaction, Who, load};
use zymarch_store::Store;
use zymarch_store::id::{BatchId, HeapId};

const HEAPS: i64 = 50;
/// A season [days].
const DAYS: i64 = 120;
const TIMES: usize = 21;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let folder = tempfile::TempDir::new()?;
    let runtime = tokio::runtime::Runtime::new()?;
    runtime.block_on(async {
        let demo = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/");
        let file = |name: &str| std::fs::read(format!("{demo}{name}"));
        let package = zymarch_formats::farm::read(file)?;
        let path = folder.path().join("farm.sqlite");
        let farm = Farm::new(Store::open(&path).await?, Clock::Real);
        farm.act(|tx| load::first(tx, &Who::local(""), package)).await?;
        let site = farm.ask(site::list).await?[0].id;
        let batch = farm.ask(move |tx| batch::list(tx, site)).await?[0].batch.id;
        let mut heaps = Vec::new();
        for nth in 0..HEAPS {
            heaps.push(farm.act(move |tx| season(tx, batch, nth)).await?);
        }
        // As it is after a start: nothing is kept.
        drop(farm);
        let farm = Farm::new(Store::open(&path).await?, Clock::Real);
        let once = Instant::now();
        let lines = farm.ask(move |tx| today(tx, site)).await?.lines.len();
        println!("today over {HEAPS} heaps of {DAYS} days, {lines} lines, first asked: {:?}", once.elapsed());
        let anew = Farm::new(Store::open(&path).await?, Clock::Real);
        let (before, begun) = (resident_mb(), Instant::now());
        judge_all(&anew).await?;
        println!(
            "judged beforehand, as after a start: {:?}; kept of it: {:.0} MB",
            begun.elapsed(),
            resident_mb() - before
        );
        let begun = Instant::now();
        anew.ask(move |tx| today(tx, site)).await?;
        println!("today, first asked after that: {:?} (held to 50 ms)", begun.elapsed());
        drop(anew);
        let mut again = Vec::with_capacity(TIMES);
        let mut after = Vec::with_capacity(TIMES);
        let mut one = Vec::with_capacity(TIMES);
        for &id in heaps.iter().take(TIMES) {
            let begun = Instant::now();
            farm.ask(move |tx| today(tx, site)).await?;
            again.push(begun.elapsed());
            farm.act(move |tx| say(tx, id, (0, Tended::Stick { feel: StickFeel::Warm })).map(drop)).await?;
            let begun = Instant::now();
            farm.ask(move |tx| today(tx, site)).await?;
            after.push(begun.elapsed());
            let begun = Instant::now();
            farm.ask(move |tx| judgement(tx, id)).await?;
            one.push(begun.elapsed());
        }
        println!("the same, asked again: {:?} (held to 50 ms)", middle(again));
        println!("the same, after an entry to one of them: {:?}", middle(after));
        println!("what is judged of one heap: {:?}", middle(one));
        Ok(())
    })
}

/// A heap with a season of log: read every day, felt and smelled every week, turned and watered.
fn season(tx: &mut Transaction<'_>, batch: BatchId, nth: i64) -> Result<HeapId, Faults> {
    let at = Timestamp::now() - Span::new().hours(24 * DAYS);
    let heap = built(tx, &Who::local(""), (batch, None, BuiltRequest { at }))?;
    for day in 1..DAYS {
        let temp_c = 20.0 + 42.0 * (-((day + nth) as f64) / 35.0).exp() + (day % 5) as f64;
        let (place, by) = (Spot::Core, ReadBy::Thermometer);
        say(tx, heap, (day, Tended::Temperature { temp_c, place, depth_cm: None, by }))?;
        if day % 7 == 0 {
            say(tx, heap, (day, Tended::Squeeze { feel: SqueezeFeel::Right, place: None }))?;
            say(tx, heap, (day, Tended::Smell { smell: vec![Smell::Earthy] }))?;
        }
        if day % 11 == 0 {
            say(tx, heap, (day, Tended::Turn { mixing: None, to: None }))?;
        }
    }
    Ok(heap)
}

/// Something that was so many days after it was built; today, of 0.
fn say(tx: &mut Transaction<'_>, heap: HeapId, (day, what): (i64, Tended<BatchPart>)) -> Result<(), Faults> {
    let at = (day > 0).then(|| Timestamp::now() - Span::new().hours(24 * (DAYS - day)));
    let said = TendRequest { entry: None, at, what, note: None, photo: None, instead_of: None };
    tend(tx, &Who::local(""), (heap, said)).map(drop)
}

/// What this process holds in memory; 0 where that is not told.
fn resident_mb() -> f64 {
    let status = std::fs::read_to_string("/proc/self/status").unwrap_or_default();
    let line = status.lines().find_map(|line| line.strip_prefix("VmRSS:"));
    let kb = line.and_then(|rest| rest.split_whitespace().next()).and_then(|kb| kb.parse::<f64>().ok());
    kb.unwrap_or_default() / 1000.0
}

fn middle(mut times: Vec<Duration>) -> Duration {
    times.sort();
    times[times.len() / 2]
}
