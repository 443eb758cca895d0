//! Start, memory, first page and answers of the released program.
//!
//! `make bench` builds it and prints one line a figure, beside what is held to.
//! Nothing here fails on a slow machine: it measures, it does not judge.

use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::path::Path;
use std::process::{Command, Stdio};
use std::time::{Duration, Instant};

const PROGRAM: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../target/release/zymarch");
const RUNS: usize = 9;
const CLIENTS: [usize; 3] = [1, 10, 50];
/// Requests in all, whatever the number of clients.
const ASKED: usize = 2_000;

const RECIPE: &str = r#"{"format":"zymarch-recipe/1","water_l":40,"items":[
    {"material":"barley-straw","kg":54},{"material":"faba-bean-haulm","kg":36},{"material":"sheep-manure","kg":20},
    {"material":"guinea-pig-manure","kg":46},{"material":"vegetable-scraps","kg":24},{"material":"tree-leaves-dry","kg":12},
    {"material":"coffee-grounds","kg":6},{"material":"grass-clippings","kg":18},{"material":"layer-hen-manure","kg":9},
    {"material":"wood-ash","kg":1},{"material":"garden-soil","kg":15},{"material":"hedge-prunings","kg":14}]}"#;

fn main() {
    if !Path::new(PROGRAM).exists() {
        println!("build the program first: cargo build --release");
        return;
    }
    let mut starts: Vec<Duration> = (0..RUNS).map(|_| Served::start().until_answered()).collect();
    starts.sort();
    println!("start to first answer, median of {RUNS}: {:.0} ms (held to 100)", millis(starts[RUNS / 2]));

    let served = Served::start();
    let page = served.ask("GET", "/", "", "");
    let scripts = first_page_scripts(&served, &page);
    println!("script of the first page, compressed: {:.0} kB (held to 250)", scripts as f64 / 1000.0);
    println!("\n{:34}{:>22}{:>22}{:>22}", "median and p99 [ms] with clients", "1", "10", "50 (held to 20)");
    for question in questions(&served) {
        let figures = CLIENTS.map(|clients| {
            let mut times = served.under_load(&question, clients);
            times.sort();
            let at = |share: usize| millis(times[(times.len() - 1) * share / 100]);
            format!("{:.2} {:>7.2}", at(50), at(99))
        });
        println!("{:34}{:>22}{:>22}{:>22}", question.name, figures[0], figures[1], figures[2]);
    }
    println!(
        "\nresident after that: {:.0} MB, at most {:.0} MB (held to 40); threads: {:.0}",
        served.status("VmRSS") / 1000.0,
        served.status("VmHWM") / 1000.0,
        served.status("Threads")
    );
}

/// What is asked under load. Several bodies stand for taps: no two that follow each other are alike.
struct Question {
    name: &'static str,
    path: String,
    bodies: Vec<String>,
}

fn questions(served: &Served) -> Vec<Question> {
    let sites = String::from_utf8_lossy(&served.ask("GET", "/api/sites", "", "")).into_owned();
    let site =
        sites.split("\"id\":\"").nth(1).and_then(|rest| rest.split('"').next()).expect("a site").to_owned();
    let list =
        |name, what: &str| Question { name, path: format!("/api/sites/{site}/{what}"), bodies: vec![] };
    let taps = |of: &dyn Fn(usize) -> String| (40..80).map(of).collect::<Vec<_>>();
    let recipe = |kg: usize| RECIPE.replace(r#""kg":54"#, &format!(r#""kg":{kg}"#));
    let bench = |kg: usize| {
        let steps = RECIPE.split(r#"{"material":"#).skip(1).enumerate().map(|(item, rest)| {
            let material = rest.split('"').nth(1).expect("a name");
            format!(r#"{{"with":{{"material":"{material}","kg":6}},"item":{item},"can_add":5}}"#)
        });
        format!(
            r#"{{"recipe":{},"steps":[{}],"heap":{{"shape":"box","width_cm":120,"length_cm":120,"height_cm":120}}}}"#,
            recipe(kg),
            steps.collect::<Vec<_>>().join(",")
        )
    };
    let formulate = |whole: bool| {
        move |kg: usize| {
            let lots = RECIPE.split(r#"{"material":"#).skip(1).enumerate().map(|(place, rest)| {
                let material = rest.split('"').nth(1).expect("a name");
                format!(
                    r#"{{"material":"{material}","kg_available":{},"measure":"barrow"}}"#,
                    kg + 20 * place
                )
            });
            format!(
                r#"{{"format":"zymarch-formulate/1","aim":"largest","target":{{"volume_l":[500,1500]}},"whole_measures":{whole},"without_worth":true,"measures":[{{"id":"barrow","litres":70}}],"stock":[{}]}}"#,
                lots.collect::<Vec<_>>().join(",")
            )
        }
    };
    vec![
        Question { name: "an answer without work", path: "/api/starters".into(), bodies: vec![] },
        Question { name: "POST /api/mix, 12 items", path: "/api/mix".into(), bodies: taps(&recipe) },
        Question { name: "POST /api/bench, 12 items", path: "/api/bench".into(), bodies: taps(&bench) },
        Question {
            name: "POST /api/formulate, 12 lots",
            path: "/api/formulate".into(),
            bodies: taps(&formulate(false)),
        },
        Question {
            name: "the same in whole barrows",
            path: "/api/formulate".into(),
            bodies: taps(&formulate(true)),
        },
        list("GET lots", "lots"),
        list("GET batches", "batches"),
        list("GET heaps", "heaps"),
        Question { name: "GET /api/methods", path: "/api/methods".into(), bodies: vec![] },
        Question { name: "GET /api/materials", path: "/api/materials".into(), bodies: vec![] },
    ]
}

fn millis(time: Duration) -> f64 {
    time.as_secs_f64() * 1000.0
}

struct Served {
    child: std::process::Child,
    address: String,
    started: Instant,
    folder: tempfile::TempDir,
}

impl Served {
    fn start() -> Self {
        let folder = tempfile::TempDir::new().expect("a folder");
        let started = Instant::now();
        let mut child = Command::new(PROGRAM)
            .args(["demo", "--port", "0", "--data"])
            .arg(folder.path().join("demo.sqlite"))
            .stdout(Stdio::piped())
            .spawn()
            .expect("the program starts");
        let mut line = String::new();
        BufReader::new(child.stdout.take().expect("is piped"))
            .read_line(&mut line)
            .expect("it says where it is");
        let address = line.trim().rsplit('/').next().expect("an address").to_owned();
        Self { child, address, started, folder }
    }

    fn until_answered(self) -> Duration {
        self.ask("GET", "/api/sites", "", "");
        self.started.elapsed()
    }

    /// One request on a connection of its own, as a browser's first is.
    fn ask(&self, method: &str, path: &str, headers: &str, body: &str) -> Vec<u8> {
        let mut stream = TcpStream::connect(&self.address).expect("connects");
        let length = body.len();
        let host = &self.address;
        write!(
            stream,
            "{method} {path} HTTP/1.1\r\nhost: {host}\r\nconnection: close\r\ncontent-length: {length}\r\n{headers}\r\n{body}"
        )
        .expect("is sent");
        let mut answer = Vec::new();
        stream.read_to_end(&mut answer).expect("is answered");
        answer
    }

    /// Each client keeps its connection, as a browser does.
    fn under_load(&self, question: &Question, clients: usize) -> Vec<Duration> {
        let url = format!("http://{}{}", self.address, question.path);
        let client = |nth: usize| {
            let agent = ureq::Agent::new_with_defaults();
            let ask = |turn: usize| {
                let asked = Instant::now();
                let answer = match question.bodies.get((turn * 7 + nth) % question.bodies.len().max(1)) {
                    Some(body) => agent.post(&url).header("content-type", "application/json").send(body),
                    None => agent.get(&url).call(),
                };
                let text = answer.and_then(|mut answer| answer.body_mut().read_to_string());
                assert!(text.expect("is answered").len() > 1);
                asked.elapsed()
            };
            (0..ASKED / clients).map(ask).collect::<Vec<_>>()
        };
        std::thread::scope(|scope| {
            let clients: Vec<_> = (0..clients)
                .map(|nth| {
                    scope.spawn({
                        let client = &client;
                        move || client(nth)
                    })
                })
                .collect();
            clients.into_iter().flat_map(|client| client.join().expect("no client fails")).collect()
        })
    }

    /// A figure of the process as the system tells it.
    fn status(&self, of: &str) -> f64 {
        let status = std::fs::read_to_string(format!("/proc/{}/status", self.child.id())).unwrap_or_default();
        let line = status.lines().find(|line| line.starts_with(of)).unwrap_or("");
        line.split_whitespace().nth(1).and_then(|figure| figure.parse::<f64>().ok()).unwrap_or(f64::NAN)
    }
}

impl Drop for Served {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
        let _ = self.folder.path();
    }
}

/// Bytes of every script that the bench page loads before it can be used: those
/// the page names, the bench's own, and those that they import at once.
fn first_page_scripts(served: &Served, page: &[u8]) -> usize {
    let page = String::from_utf8_lossy(page).into_owned();
    let mut wanted: Vec<String> = names(&page, "\"/assets/");
    let mut known = wanted.clone();
    let mut bytes = 0;
    while let Some(name) = wanted.pop() {
        let path = format!("/assets/{name}");
        let answer = served.ask("GET", &path, "accept-encoding: br\r\n", "");
        let head = answer.windows(4).position(|end| end == b"\r\n\r\n").map_or(0, |at| at + 4);
        bytes += answer.len() - head;
        let text = String::from_utf8_lossy(&served.ask("GET", &path, "", "")).into_owned();
        // What is imported with brackets comes later, but for the page that the address opens.
        let opened = names(&text, "\"assets/").into_iter().filter(|found| found.starts_with("BenchPage-"));
        for found in [names(&text, "from\"./"), names(&text, "import\"./")].concat().into_iter().chain(opened)
        {
            if !known.contains(&found) {
                known.push(found.clone());
                wanted.push(found);
            }
        }
    }
    bytes
}

/// Names of scripts in a text that come after certain signs.
fn names(text: &str, begin: &str) -> Vec<String> {
    text.match_indices(begin)
        .filter_map(|(at, _)| {
            let rest = &text[at + begin.len()..];
            let name = &rest[..rest.find(".js")? + 3];
            name.chars().all(|c| c.is_ascii_alphanumeric() || "-_.".contains(c)).then(|| name.to_owned())
        })
        .collect()
}
