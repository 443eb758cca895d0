//! The whole application over a real data file, asked as a client would: its router in
//! this process, or the program itself where a process is what is tested.
#![allow(dead_code)]

pub mod described;
pub mod people;

use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::sync::OnceLock;

use axum::Router;
use axum::body::{Body, to_bytes};
use serde_json::{Value, json};
use tokio::runtime::Runtime;
use tower::ServiceExt;
use zymarch::state::App;
use zymarch_farm::clock::Clock;
use zymarch_farm::stock::site;
use zymarch_farm::{Farm, Who, load};
use zymarch_store::Store;

/// The application, answering.
pub struct Server {
    answers: Answers,
    first_site: OnceLock<String>,
}

enum Answers {
    /// Its router, in this process.
    Here { router: Router, runtime: Runtime },
    /// The program, serving at an address; killed when dropped.
    Process { child: Child, address: String },
}

/// What the demo and the tests take for now.
pub const NOW: &str = "2026-03-14T08:00";

impl Server {
    /// A farm of one's own, in this process.
    pub fn start(data: &Path) -> Self {
        Self::here(data, Clock::Real, false)
    }

    /// The same, with the clock fixed.
    pub fn start_at(data: &Path, now: &str) -> Self {
        Self::here(data, now.parse().expect("a time"), false)
    }

    /// The demo farm, in this process, from a data file of its own.
    pub fn demo(data: &Path) -> Self {
        Self::here(data, NOW.parse().expect("a time"), true)
    }

    fn here(data: &Path, clock: Clock, demo: bool) -> Self {
        let runtime = Runtime::new().expect("a runtime");
        let app = runtime.block_on(async {
            let farm = Farm::new(Store::open(data).await.expect("opens"), clock);
            let first = farm.act(move |tx| {
                let who = Who::local("tests");
                if demo {
                    load::first(tx, &who, zymarch::demo::farm()?)
                } else {
                    site::first(tx, &who, "My farm")
                }
            });
            first.await.expect("begins");
            App::new(
                farm,
                demo,
                zymarch::http::ways::Ways::Machine { at: std::net::Ipv4Addr::LOCALHOST.into() },
            )
        });
        Self {
            answers: Answers::Here { router: zymarch::server::router(app), runtime },
            first_site: OnceLock::new(),
        }
    }

    /// Starts `zymarch serve` on a free port and waits for the line that names its address.
    pub fn process(data: &Path) -> Self {
        Self::spawn("serve", data, &["--now", NOW])
    }

    /// The same by the clock of the machine.
    pub fn process_now(data: &Path) -> Self {
        Self::spawn("serve", data, &[])
    }

    /// Starts `zymarch demo` on a free port, from a data file of its own.
    pub fn demo_process(data: &Path) -> Self {
        Self::spawn("demo", data, &["--now", NOW])
    }

    fn spawn(command: &str, data: &Path, more: &[&str]) -> Self {
        let mut child = Command::new(env!("CARGO_BIN_EXE_zymarch"))
            .args([command, "--data", &data.display().to_string(), "--port", "0"])
            .args(more)
            .stdout(Stdio::piped())
            .stderr(Stdio::inherit())
            .spawn()
            .expect("the program starts");
        let stdout = child.stdout.take().expect("stdout is piped");
        let mut line = String::new();
        BufReader::new(stdout).read_line(&mut line).expect("a first line");
        let address = line.trim().rsplit(' ').next().expect("an address").to_owned();
        assert!(address.starts_with("http://"), "it said: {line}");
        Self { answers: Answers::Process { child, address }, first_site: OnceLock::new() }
    }

    /// Ends it as a power cut would: no warning, nothing flushed.
    pub fn kill(mut self) {
        if let Answers::Process { child, .. } = &mut self.answers {
            let _ = child.kill();
            child.wait().expect("it ends");
        }
    }

    /// Sends it a signal, and waits until it has ended.
    pub fn signal(&mut self, name: &str) -> std::process::ExitStatus {
        let Answers::Process { child, .. } = &mut self.answers else { panic!("it runs in this process") };
        let sent = Command::new("kill").args([&format!("-{name}"), &child.id().to_string()]).status();
        assert!(sent.expect("there is a kill").success());
        child.wait().expect("it ends")
    }

    /// Its address, as `http://127.0.0.1:PORT`.
    pub fn address(&self) -> &str {
        match &self.answers {
            Answers::Process { address, .. } => address,
            Answers::Here { .. } => "http://127.0.0.1:8420",
        }
    }

    /// Its process.
    pub fn pid(&self) -> u32 {
        match &self.answers {
            Answers::Process { child, .. } => child.id(),
            Answers::Here { .. } => panic!("it runs in this process"),
        }
    }

    /// Where something of its first site stands.
    pub fn at_site(&self, what: &str) -> String {
        let site = self.first_site.get_or_init(|| text(&self.get("/api/sites").json()[0]["id"]));
        format!("/api/sites/{site}/{what}")
    }

    pub fn get(&self, path: &str) -> Answer {
        self.ask(Asked::new("GET", path))
    }

    pub fn send(&self, method: &str, path: &str, body: &Value) -> Answer {
        self.ask(Asked::new(method, path).json(body))
    }

    pub fn ask(&self, asked: Asked) -> Answer {
        self.try_ask(asked).expect("the server answers")
    }

    /// None if the connection fails, as it does when the server is killed.
    pub fn try_ask(&self, asked: Asked) -> Option<Answer> {
        match &self.answers {
            Answers::Here { router, runtime } => Some(runtime.block_on(here(router.clone(), asked))),
            Answers::Process { address, .. } => over_the_wire(address, asked),
        }
    }
}

async fn here(router: Router, asked: Asked) -> Answer {
    let mut request = axum::http::Request::builder().method(asked.method.as_str()).uri(&asked.path);
    if !asked.headers.iter().any(|(name, _)| name == "host") {
        request = request.header("host", "127.0.0.1:8420");
    }
    for (name, value) in &asked.headers {
        request = request.header(name, value);
    }
    let request = request.body(asked.body.map_or_else(Body::empty, Body::from)).expect("a request");
    let response = router.oneshot(request).await.expect("never fails");
    let (parts, body) = response.into_parts();
    let bytes = to_bytes(body, 64 << 20).await.expect("a body");
    Answer {
        status: parts.status.as_u16(),
        headers: told(&parts.headers),
        text: String::from_utf8_lossy(&bytes).into_owned(),
    }
}

fn over_the_wire(address: &str, asked: Asked) -> Option<Answer> {
    let agent: ureq::Agent = ureq::Agent::config_builder().http_status_as_error(false).build().into();
    let mut request =
        ureq::http::Request::builder().method(asked.method.as_str()).uri(format!("{address}{}", asked.path));
    for (name, value) in &asked.headers {
        request = request.header(name, value);
    }
    let mut response = match asked.body {
        Some(body) => agent.run(request.body(body).ok()?),
        None => agent.run(request.body(()).ok()?),
    }
    .ok()?;
    let headers = told(response.headers());
    let text = response.body_mut().with_config().limit(64 << 20).read_to_string().ok()?;
    Some(Answer { status: response.status().as_u16(), headers, text })
}

fn told(headers: &axum::http::HeaderMap) -> Vec<(String, String)> {
    headers.iter().map(|(name, value)| (name.to_string(), value.to_str().unwrap_or("").to_owned())).collect()
}

impl Drop for Server {
    fn drop(&mut self) {
        match &mut self.answers {
            Answers::Process { child, .. } => {
                let _ = child.kill();
                let _ = child.wait();
            }
            // The connections are put away by tasks, and those need the runtime.
            Answers::Here { router, runtime } => {
                let _inside = runtime.enter();
                drop(std::mem::take(router));
            }
        }
    }
}

/// A word of an answer, without its quotes.
pub fn text(value: &Value) -> String {
    value.as_str().unwrap_or_else(|| panic!("{value} is no text")).to_owned()
}

/// A request.
pub struct Asked {
    method: String,
    path: String,
    headers: Vec<(String, String)>,
    body: Option<String>,
}

impl Asked {
    pub fn new(method: &str, path: &str) -> Self {
        Self { method: method.into(), path: path.into(), headers: Vec::new(), body: None }
    }

    pub fn header(mut self, name: &str, value: &str) -> Self {
        self.headers.push((name.into(), value.into()));
        self
    }

    pub fn json(self, body: &Value) -> Self {
        self.text(&body.to_string())
    }

    pub fn text(mut self, body: &str) -> Self {
        self.body = Some(body.into());
        self.header("content-type", "application/json")
    }
}

/// An answer.
#[derive(Debug)]
pub struct Answer {
    pub status: u16,
    pub headers: Vec<(String, String)>,
    pub text: String,
}

impl Answer {
    pub fn json(&self) -> Value {
        serde_json::from_str(&self.text).unwrap_or_else(|error| panic!("{error}: {}", self.text))
    }

    pub fn header(&self, name: &str) -> &str {
        self.headers.iter().find(|(known, _)| known == name).map_or("", |(_, value)| value)
    }

    /// The fields at fault, of a problem.
    pub fn fields(&self) -> Vec<String> {
        assert_eq!(self.header("content-type"), "application/problem+json", "{self:?}");
        let problem = self.json();
        let errors = problem["errors"].as_array().cloned().unwrap_or_default();
        errors.iter().filter_map(|error| error["field"].as_str().map(str::to_owned)).collect()
    }
}

/// The figures of a way as a form sends them.
pub fn method_fields(all: &Value, id: &str, name: &str) -> Value {
    let way = all.as_array().expect("a list").iter().find(|one| one["id"] == id).expect("is there").clone();
    let mut fields = json!({"name": name});
    for key in [
        "c_n",
        "moisture_pct",
        "free_air_space_min_pct",
        "volume_l",
        "height_cm",
        "first_turn_day",
        "turn_every_days",
        "check_days",
        "active_weeks",
        "cure_weeks",
        "volume_left_pct",
        "mass_left_pct",
        "n_kept_pct",
        "build_h_m3",
        "turn_h_m3",
        "pattern",
        "foundation_cm",
        "cap_cm",
    ] {
        fields[key] = way[key].clone();
    }
    fields
}
