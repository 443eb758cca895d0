//! A power cut at any moment loses nothing that was acknowledged.

mod support;

use std::collections::BTreeSet;
use std::sync::Mutex;
use std::sync::atomic::{AtomicBool, AtomicU64, Ordering};
use std::time::{Duration, Instant};

use serde_json::{Value, json};
use support::{Asked, Server};
use tempfile::TempDir;

/// In the tests; `ZYMARCH_KILLS` makes it as many as a campaign wants.
const KILLS: u64 = 50;

fn kills() -> u64 {
    std::env::var("ZYMARCH_KILLS").ok().and_then(|text| text.parse().ok()).unwrap_or(KILLS)
}
const WRITERS: usize = 3;

fn batch(name: &str) -> Value {
    json!({"name": name, "water_l": 10, "heap": {"shape": "ring", "diameter_cm": 100, "height_cm": 100},
           "items": [{"lot_id": null, "material": "barley-straw", "label": null, "amount": 5, "unit": "kg",
                      "measure_id": null, "measure_litres": null, "own": {}},
                     {"lot_id": null, "material": "sheep-manure", "label": null, "amount": 9, "unit": "kg",
                      "measure_id": null, "measure_litres": null, "own": {}}]})
}

/// Writes batches until the server is gone; notes each that was acknowledged.
fn write_until_killed(
    (server, path): (&Server, &str),
    next: &AtomicU64,
    acknowledged: &Mutex<BTreeSet<String>>,
    stop: &AtomicBool,
) {
    while !stop.load(Ordering::Relaxed) {
        let name = format!("batch {}", next.fetch_add(1, Ordering::Relaxed));
        match server.try_ask(Asked::new("POST", path).json(&batch(&name))) {
            Some(answer) if answer.status == 201 => {
                acknowledged.lock().expect("no writer panics").insert(name);
            }
            _ => return,
        }
    }
}

#[test]
fn fifty_kills_under_writing_lose_nothing_acknowledged() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let next = AtomicU64::new(0);
    let acknowledged = Mutex::new(BTreeSet::new());
    for round in 0..kills() {
        let server = Server::process(&data);
        let (path, stop) = (server.at_site("batches"), AtomicBool::new(false));
        std::thread::scope(|scope| {
            for _ in 0..WRITERS {
                scope.spawn(|| write_until_killed((&server, &path), &next, &acknowledged, &stop));
            }
            // However slow the machine is, a round begins with a write that was acknowledged.
            let begun = Instant::now();
            while acknowledged.lock().expect("no writer panics").len() as u64 <= round {
                assert!(begun.elapsed() < Duration::from_secs(30), "nothing is acknowledged");
                std::thread::sleep(Duration::from_millis(1));
            }
            // Spread over a few write times, so that a kill falls into every part of one.
            std::thread::sleep(Duration::from_micros((round * 7919) % 30_000));
            let pid = server.pid().to_string();
            assert!(
                std::process::Command::new("kill").args(["-9", &pid]).status().expect("kill runs").success()
            );
            stop.store(true, Ordering::Relaxed);
        });
        server.kill();
    }
    let server = Server::process(&data);
    let kept = server.get(&server.at_site("batches")).json();
    let kept = kept.as_array().expect("a list");
    let names: BTreeSet<_> =
        kept.iter().filter_map(|batch| batch["name"].as_str().map(str::to_owned)).collect();
    let acknowledged = acknowledged.into_inner().expect("no writer panics");
    println!("{} writes were acknowledged", acknowledged.len());
    let lost: Vec<_> = acknowledged.difference(&names).collect();
    assert!(lost.is_empty(), "lost: {lost:?}");
    assert!(
        acknowledged.len() as u64 >= kills(),
        "only {} writes were acknowledged: nothing was tested",
        acknowledged.len()
    );
    assert!(
        kept.iter().all(|batch| batch["items"].as_array().map(Vec::len) == Some(2)),
        "a batch is half written"
    );
}
