//! Speed of a tick on build day and of the list of heaps, over a real file.

use std::time::{Duration, Instant};

use zymarch_core::base::fault::Faults;
use zymarch_farm::build::act::{self, LayRequest};
use zymarch_farm::build::{begin, heap};
use zymarch_farm::clock::Clock;
use zymarch_farm::plan::batch;
use zymarch_farm::stock::site;
use zymarch_farm::{Farm, Who, load};
use zymarch_store::Store;
use zymarch_store::id::HeapId;

const HEAPS: usize = 50;
const ACTS: usize = 40;
const TIMES: usize = 51;

fn main() -> Result<(), Box<dyn std::error::Error>> {
    let folder = tempfile::TempDir::new()?;
    let runtime = tokio::runtime::Runtime::new()?;
    runtime.block_on(async {
        let demo = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/");
        let file = |name: &str| std::fs::read(format!("{demo}{name}"));
        let package = zymarch_formats::farm::read(file)?;
        let store = Store::open(&folder.path().join("farm.sqlite")).await?;
        let farm = Farm::new(store, Clock::Real);
        farm.act(|tx| load::first(tx, &Who::local(""), package)).await?;
        let site = farm.ask(site::list).await?[0].id;
        let batch = farm.ask(move |tx| batch::list(tx, site)).await?[0].batch.id;
        let mut heaps = Vec::with_capacity(HEAPS);
        for _ in 0..HEAPS {
            let id = farm.act(move |tx| begin(tx, &Who::local(""), (batch, None))).await?;
            // Built to the top, so that the next one is another.
            let steps = farm.ask(move |tx| heap::get(tx, id)).await?.build.steps.len();
            for at in 0..steps {
                lay(&farm, id, at).await?;
            }
            heaps.push(id);
        }
        let id = heaps[0];
        for _ in 0..ACTS {
            lay(&farm, id, 1).await?;
        }
        let mut ticks = Vec::with_capacity(TIMES);
        for _ in 0..TIMES {
            let begun = Instant::now();
            lay(&farm, id, 1).await?;
            farm.ask(move |tx| heap::get(tx, id)).await?;
            ticks.push(begun.elapsed());
        }
        let mut lists = Vec::with_capacity(TIMES);
        for _ in 0..TIMES {
            let begun = Instant::now();
            farm.ask(move |tx| heap::list(tx, site)).await?;
            lists.push(begun.elapsed());
        }
        println!("tick on a heap with {ACTS} acts, shown again: {:?}", middle(ticks));
        println!("list of {HEAPS} heaps: {:?}", middle(lists));
        Ok(())
    })
}

/// Lays a step as it is planned.
async fn lay(farm: &Farm, id: HeapId, step: usize) -> Result<(), Faults> {
    let heap = farm.ask(move |tx| heap::get(tx, id)).await?;
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
    farm.act(move |tx| act::lay(tx, &Who::local(""), (id, request))).await.map(|_| ())
}

fn middle(mut times: Vec<Duration>) -> Duration {
    times.sort();
    times[times.len() / 2]
}
