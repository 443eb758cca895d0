//! A full farm: what ten busy years leave in one file, written by the same commands that a person uses.

use std::error::Error;

use tempfile::TempDir;
use zymarch::demo;
use zymarch_core::stock::material;
use zymarch_farm::build::act::{self, LayRequest};
use zymarch_farm::build::{begin, heap};
use zymarch_farm::clock::Clock;
use zymarch_farm::plan::batch;
use zymarch_farm::stock::site;
use zymarch_farm::{Farm, Who, load};
use zymarch_formats::farm::{self as package, LotRow};
use zymarch_store::Store;

use super::heat;

/// What is in it.
pub const WHAT: &str =
    "a full farm: 500 lots, 2,000 tests on them, 300 batches, 50 heaps; and one of 100 lots";
const LOTS: usize = 500;
const TESTS: usize = 2_000;
const BATCHES: usize = 300;
const HEAPS: usize = 50;
const FEWER_LOTS: usize = 100;

/// A folder with `farm.sqlite`.
pub fn farm() -> Result<TempDir, Box<dyn Error>> {
    let folder = TempDir::new()?;
    let runtime = tokio::runtime::Runtime::new()?;
    runtime.block_on(async {
        let store = Store::open(&folder.path().join("farm.sqlite")).await?;
        let farm = Farm::new(store.clone(), Clock::Real);
        let who = Who::local("");
        let today = farm.ask(|tx| Ok(tx.today())).await?;
        let full = filled(demo::farm()?.moved_to(today), LOTS, TESTS, BATCHES);
        let small = package::Farm { name: "Fewer lots".into(), ..filled(full.clone(), FEWER_LOTS, 0, 1) };
        let (site, second) = {
            let who = who.clone();
            farm.act(move |tx| Ok((load::load(tx, &who, &full)?, load::load(tx, &who, &small)?))).await?
        };
        let long = farm.ask(move |tx| batch::list(tx, second)).await?[0].batch.id;
        let took = {
            let who = who.clone();
            farm.act(move |tx| heat::long_heap(tx, &who, long)).await?
        };
        println!("100,000 rows of a logger taken in: {:.1} s", took.as_secs_f64());
        let batch = farm.ask(move |tx| batch::list(tx, site)).await?[0].batch.id;
        for _ in 0..HEAPS {
            let who = who.clone();
            farm.act(move |tx| built(tx, &who, batch)).await?;
        }
        assert_eq!(farm.ask(site::list).await?.len(), 2);
        store.close().await;
        Ok::<(), Box<dyn Error>>(())
    })?;
    Ok(folder)
}

/// A heap built to the top, so that the next one is another.
fn built(
    tx: &mut zymarch_farm::Transaction<'_>,
    who: &Who,
    batch: zymarch_store::id::BatchId,
) -> Result<(), zymarch_core::base::fault::Faults> {
    let id = begin(tx, who, (batch, None))?;
    for step in 0..heap::get(tx, id)?.build.steps.len() {
        let heap = heap::get(tx, id)?;
        let planned = &heap.build.steps[step];
        let request = LayRequest {
            mine: Vec::new(),
            entry: None,
            after: Some(heap.listed.head),
            at: None,
            step,
            portions: planned.portions.clone(),
            water_l: planned.water_l,
            new_items: Vec::new(),
        };
        act::lay(tx, who, (id, request))?;
    }
    Ok(())
}

/// The package with so many of each, of all materials that go into some heap.
fn filled(farm: package::Farm, lots: usize, tests: usize, batches: usize) -> package::Farm {
    let kinds: Vec<_> = material::all().iter().filter(|row| !row.must_not_go_in()).collect();
    let lot = |place: usize| LotRow {
        material: kinds[place % kinds.len()].id.clone(),
        label: place.is_multiple_of(3).then(|| format!("Lot {place}")),
        id: Some(format!("lot-{place}")),
        ..farm.lots[place % farm.lots.len()].clone()
    };
    let test =
        |place: usize| package::TestRow { lot: place % lots, ..farm.tests[place % farm.tests.len()].clone() };
    let batch = |place: usize| package::Batch {
        name: format!("Batch {place}"),
        ..farm.batches[place % farm.batches.len()].clone()
    };
    package::Farm {
        lots: (0..lots).map(lot).collect(),
        tests: (0..tests).map(test).collect(),
        batches: (0..batches).map(batch).collect(),
        // They have a farm of their own.
        heaps: Vec::new(),
        has_station: false,
        ..farm.clone()
    }
}
