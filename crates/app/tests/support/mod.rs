//! A real server over a real data file, asked as a client would.
#![allow(dead_code)]

use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};

use serde_json::Value;

/// The program, serving; killed when dropped.
pub struct Server {
    child: Child,
    /// Its address, as `http://127.0.0.1:PORT`.
    pub address: String,
}

impl Server {
    /// Starts `zymarch serve` on a free port and waits for the line that names its address.
    pub fn start(data: &Path) -> Self {
        Self::spawn(&["serve", "--data", &data.display().to_string(), "--port", "0"])
    }

    /// The same, with the clock fixed.
    pub fn start_at(data: &Path, now: &str) -> Self {
        Self::spawn(&["serve", "--data", &data.display().to_string(), "--port", "0", "--now", now])
    }

    /// Starts the demo farm on a free port, from a data file of its own.
    pub fn demo(data: &Path) -> Self {
        Self::spawn(&[
            "demo",
            "--data",
            &data.display().to_string(),
            "--port",
            "0",
            "--now",
            "2026-03-14T08:00",
        ])
    }

    fn spawn(arguments: &[&str]) -> Self {
        let mut child = Command::new(env!("CARGO_BIN_EXE_zymarch"))
            .args(arguments)
            .stdout(Stdio::piped())
            .stderr(Stdio::inherit())
            .spawn()
            .expect("the program starts");
        let stdout = child.stdout.take().expect("stdout is piped");
        let mut line = String::new();
        BufReader::new(stdout).read_line(&mut line).expect("a first line");
        let address = line.trim().rsplit(' ').next().expect("an address").to_owned();
        assert!(address.starts_with("http://"), "it said: {line}");
        Self { child, address }
    }

    /// Ends it as a power cut would: no warning, nothing flushed.
    pub fn kill(mut self) {
        let _ = self.child.kill();
        self.child.wait().expect("it ends");
    }

    /// Its process.
    pub fn pid(&self) -> u32 {
        self.child.id()
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
        let agent: ureq::Agent = ureq::Agent::config_builder().http_status_as_error(false).build().into();
        let mut request = ureq::http::Request::builder()
            .method(asked.method.as_str())
            .uri(format!("{}{}", self.address, asked.path));
        for (name, value) in &asked.headers {
            request = request.header(name, value);
        }
        let mut response = match asked.body {
            Some(body) => agent.run(request.body(body).ok()?),
            None => agent.run(request.body(()).ok()?),
        }
        .ok()?;
        let headers = response
            .headers()
            .iter()
            .map(|(name, value)| (name.to_string(), value.to_str().unwrap_or("").to_owned()))
            .collect();
        let text = response.body_mut().with_config().limit(64 << 20).read_to_string().ok()?;
        Some(Answer { status: response.status().as_u16(), headers, text })
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
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
