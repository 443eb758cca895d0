//! Start, memory, answers and pages of the released program.
//!
//! `make bench` builds it and prints one line a figure, beside what is held to.
//! Nothing here fails on a slow machine: it measures, it does not judge.

mod full;
mod heat;
mod served;

use std::process::Command;
use std::time::Duration;

use served::{Question, Served};

const RUNS: usize = 9;
const CLIENTS: [usize; 3] = [1, 10, 50];

/// Nobody taps faster than this.
const TAP: Duration = Duration::from_millis(100);

const RECIPE: &str = r#"{"format":"zymarch-recipe/1","water_l":40,"items":[
    {"material":"barley-straw","kg":54},{"material":"faba-bean-haulm","kg":36},{"material":"sheep-manure","kg":20},
    {"material":"guinea-pig-manure","kg":46},{"material":"vegetable-scraps","kg":24},{"material":"tree-leaves-dry","kg":12},
    {"material":"coffee-grounds","kg":6},{"material":"grass-clippings","kg":18},{"material":"layer-hen-manure","kg":9},
    {"material":"wood-ash","kg":1},{"material":"garden-soil","kg":15},{"material":"hedge-prunings","kg":14}]}"#;

fn main() {
    let Some(mut demo) = Served::demo() else {
        println!("build the program first: cargo build --release");
        return;
    };
    // `cargo bench --bench served -- pages` measures these alone.
    let only_pages = std::env::args().any(|word| word == "pages");
    if !only_pages {
        let mut starts = Vec::new();
        for _ in 0..RUNS {
            demo.until_answered();
            demo = demo.again().expect("the program starts");
            starts.push(demo.until_answered());
        }
        starts.sort();
        println!("start to first answer, median of {RUNS}: {:.0} ms (held to 100)", millis(starts[RUNS / 2]));
        heading("the demo farm");
        asked_of(&demo, questions(&demo.site()));
        come_back(&demo);
    }
    let folder = full::farm().expect("a full farm can be written");
    let full = Served::farm(folder).expect("the program starts");
    if !only_pages {
        heading(full::WHAT);
        let site = full.site();
        let mut asked = lists(&site);
        asked.extend(questions(&site).into_iter().filter(|one| one.name.starts_with("POST /api/bench")));
        asked_of(&full, asked);
        println!();
        heat::trace(&full, &full.long_heap());
        heat::ingest(&demo);
    }
    pages(&demo, &full);
}

/// Medians and tails of each question with each number of clients, and what the server came to hold.
fn asked_of(served: &Served, questions: Vec<Question>) {
    for question in questions {
        let figures = CLIENTS.map(|clients| {
            let mut times = served.under_load(&question, clients);
            times.sort();
            let at = |share: usize| millis(times[(times.len() - 1) * share / 100]);
            format!("{:.2} {:>7.2}", at(50), at(99))
        });
        println!("{:34}{:>22}{:>22}{:>22}", question.name, figures[0], figures[1], figures[2]);
    }
    println!(
        "resident after that: {:.0} MB, at most {:.0} MB (held to 40); threads: {:.0}",
        served.status("VmRSS") / 1000.0,
        served.status("VmHWM") / 1000.0,
        served.status("Threads")
    );
}

/// Phones that had no signal, each with ten acts that waited, all at once.
fn come_back(served: &Served) {
    let lot = served.first(&format!("/api/sites/{}/lots", served.site()));
    let act = |_| format!(r#"{{"kind":"delivered","amount":0.25,"entry":"{}"}}"#, uuid::Uuid::now_v7());
    let path = format!("/api/lots/{lot}/history");
    let acts = Question { name: "acts that waited", path, bodies: (0..2000).map(act).collect(), every: None };
    let since = std::time::Instant::now();
    let mut times = served.under_load(&acts, 200);
    let all = since.elapsed().as_secs_f64();
    times.sort();
    let at = |share: usize| millis(times[(times.len() - 1) * share / 100]);
    println!(
        "200 phones come back with 10 acts each: median {:.0}, p99 {:.0} ms an act; all in {all:.1} s",
        at(50),
        at(99)
    );
}

fn heading(what: &str) {
    println!("\n{what}");
    println!("{:34}{:>22}{:>22}{:>22}", "median and p99 [ms] with clients", "1", "10", "50 (held to 20)");
}

/// The pages in a browser, on a cheap phone with a poor connection and on a full farm.
fn pages(demo: &Served, full: &Served) {
    println!();
    let ran = Command::new("node")
        .arg(concat!(env!("CARGO_MANIFEST_DIR"), "/../../e2e/bench/page.mjs"))
        .env("ZYMARCH_ADDRESS", demo.url())
        .env("ZYMARCH_FULL", full.url())
        .status();
    if !ran.is_ok_and(|status| status.success()) {
        println!("the pages were not measured: node and Chromium are needed");
    }
}

fn lists(site: &str) -> Vec<Question> {
    let of = |name, what: &str| Question::list(name, format!("/api/sites/{site}/{what}"));
    vec![
        of("GET lots (held to 10 at 1)", "lots"),
        of("GET batches", "batches"),
        of("GET heaps", "heaps"),
        of("GET today", "today"),
    ]
}

fn questions(site: &str) -> Vec<Question> {
    let taps = |of: &dyn Fn(f64) -> String| (40..80).map(|kg| of(f64::from(kg))).collect::<Vec<_>>();
    // So many that no client asks what another asked before: nothing is answered again.
    let others = |of: &dyn Fn(f64) -> String| {
        (0..20_000).map(|nth| of(40.0 + f64::from(nth) / 1000.0)).collect::<Vec<_>>()
    };
    let recipe = |kg: f64| RECIPE.replace(r#""kg":54"#, &format!(r#""kg":{kg}"#));
    let bench = |kg: f64| {
        format!(
            r#"{{"recipe":{},"site":"{site}","heap":{{"shape":"box","width_cm":120,"length_cm":120,"height_cm":120}}}}"#,
            recipe(kg)
        )
    };
    let formulate = |whole: bool| {
        move |kg: f64| {
            let lots = RECIPE.split(r#"{"material":"#).skip(1).enumerate().map(|(place, rest)| {
                let material = rest.split('"').nth(1).expect("a name");
                format!(
                    r#"{{"material":"{material}","kg_available":{},"measure":"barrow"}}"#,
                    kg + 20.0 * place as f64
                )
            });
            format!(
                r#"{{"format":"zymarch-formulate/1","aim":"largest","target":{{"volume_l":[500,1500]}},"whole_measures":{whole},"without_worth":true,"measures":[{{"id":"barrow","litres":70}}],"stock":[{}]}}"#,
                lots.collect::<Vec<_>>().join(",")
            )
        }
    };
    let posted = |name, path: &str, bodies| Question { name, path: path.into(), bodies, every: None };
    let tapped = |name, path: &str, bodies| Question { every: Some(TAP), ..posted(name, path, bodies) };
    let mut all = vec![
        Question::list("an answer without work", "/api/starters"),
        posted("POST /api/mix, 12 items", "/api/mix", taps(&recipe)),
        posted("POST /api/bench, 12 items", "/api/bench", taps(&bench)),
        posted("the same, none asked twice", "/api/bench", others(&bench)),
        tapped("the same, ten times a second each", "/api/bench", others(&bench)),
        posted("POST /api/formulate, 12 lots", "/api/formulate", taps(&formulate(false))),
        posted("the same, none asked twice", "/api/formulate", others(&formulate(false))),
        tapped("the same, ten times a second each", "/api/formulate", others(&formulate(false))),
        posted("the same in whole barrows", "/api/formulate", taps(&formulate(true))),
    ];
    all.extend(lists(site));
    all.push(Question::list("GET /api/methods", "/api/methods"));
    all.push(Question::list("GET /api/materials", "/api/materials"));
    all
}

fn millis(time: Duration) -> f64 {
    time.as_secs_f64() * 1000.0
}
