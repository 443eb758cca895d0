//! The released program, started over a file of its own and asked as browsers ask it.

use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::process::{Command, Stdio};
use std::time::{Duration, Instant};

const PROGRAM: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../target/release/zymarch");
/// Requests in all, whatever the number of clients.
const ASKED: usize = 2_000;

/// What is asked under load. Several bodies stand for taps: no two that follow each other are alike.
pub struct Question {
    pub name: &'static str,
    pub path: String,
    pub bodies: Vec<String>,
    /// How often each client asks; as fast as it is answered if not said.
    pub every: Option<Duration>,
}

/// So often each client asks that asks by a clock: enough for a tail.
const ASKED_BY_CLOCK: usize = 60;

impl Question {
    /// Something that is only read.
    pub fn list(name: &'static str, path: impl Into<String>) -> Self {
        Self { name, path: path.into(), bodies: Vec::new(), every: None }
    }
}

/// The program, running.
pub struct Served {
    child: std::process::Child,
    address: String,
    started: Instant,
    folder: tempfile::TempDir,
}

impl Served {
    /// The demo farm; none if the program was not built.
    pub fn demo() -> Option<Self> {
        let folder = tempfile::TempDir::new().expect("a folder");
        Self::started("demo", folder)
    }

    /// The same, started again over its file: making the demo farm is no part of a start.
    pub fn again(mut self) -> Option<Self> {
        let _ = self.child.kill();
        let _ = self.child.wait();
        let folder = std::mem::replace(&mut self.folder, tempfile::TempDir::new().ok()?);
        Self::started("serve", folder)
    }

    /// A farm whose file is `farm.sqlite` in a folder.
    pub fn farm(folder: tempfile::TempDir) -> Option<Self> {
        Self::started("serve", folder)
    }

    fn started(how: &str, folder: tempfile::TempDir) -> Option<Self> {
        let started = Instant::now();
        let mut child = Command::new(PROGRAM)
            .args([how, "--port", "0", "--data"])
            .arg(folder.path().join("farm.sqlite"))
            .stdout(Stdio::piped())
            .spawn()
            .ok()?;
        let mut line = String::new();
        BufReader::new(child.stdout.take()?).read_line(&mut line).ok()?;
        let address = line.trim().rsplit('/').next()?.to_owned();
        Some(Self { child, address, started, folder })
    }

    /// Where it is, as a browser is told.
    pub fn url(&self) -> String {
        format!("http://{}", self.address)
    }

    pub fn until_answered(&self) -> Duration {
        self.ask("GET", "/api/sites", "", "");
        self.started.elapsed()
    }

    /// The id of its first site.
    pub fn site(&self) -> String {
        self.first("/api/sites")
    }

    /// The heap with a year of readings, which stands at the second site.
    pub fn long_heap(&self) -> String {
        let sites = String::from_utf8_lossy(&self.ask("GET", "/api/sites", "", "")).into_owned();
        let second = sites.split("\"id\":\"").nth(2).and_then(|rest| rest.split('"').next()).expect("two");
        self.first(&format!("/api/sites/{second}/heaps"))
    }

    /// The id of the first of a list.
    pub fn first(&self, path: &str) -> String {
        let list = String::from_utf8_lossy(&self.ask("GET", path, "", "")).into_owned();
        list.split("\"id\":\"").nth(1).and_then(|rest| rest.split('"').next()).expect("one").to_owned()
    }

    /// One request on a connection of its own, as a browser's first is.
    pub fn ask(&self, method: &str, path: &str, headers: &str, body: &str) -> Vec<u8> {
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
    pub fn under_load(&self, question: &Question, clients: usize) -> Vec<Duration> {
        let url = format!("http://{}{}", self.address, question.path);
        let client = |nth: usize| {
            let agent = ureq::Agent::new_with_defaults();
            let ask = |turn: usize| {
                let asked = Instant::now();
                let answer = match question.bodies.get((turn * clients + nth) % question.bodies.len().max(1))
                {
                    Some(body) => agent.post(&url).header("content-type", "application/json").send(body),
                    None => agent.get(&url).call(),
                };
                let text = answer.and_then(|mut answer| answer.body_mut().read_to_string());
                assert!(text.expect("is answered").len() > 1);
                asked.elapsed()
            };
            let Some(every) = question.every else {
                return (0..ASKED / clients).map(ask).collect::<Vec<_>>();
            };
            // Each in its own time, as hands are; the first answer opens the connection and is not counted.
            ask(0);
            let begun = Instant::now() + every.mul_f64(nth as f64 / clients as f64);
            let in_time = |turn: usize| {
                let due = begun + every * u32::try_from(turn).unwrap_or(0);
                std::thread::sleep(due.saturating_duration_since(Instant::now()));
                ask(turn)
            };
            (1..=ASKED_BY_CLOCK).map(in_time).collect()
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
    pub fn status(&self, of: &str) -> f64 {
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
