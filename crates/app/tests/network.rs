//! On the local network and behind a proxy: who is let in, sealed with what, under which names.

mod support;

use std::io::{BufRead, BufReader, Read, Write};
use std::net::{IpAddr, TcpStream};
use std::path::Path;
use std::process::{Child, Command, Output, Stdio};
use std::sync::Arc;
use std::time::Duration;

use serde_json::{Value, json};
use support::text;
use tempfile::TempDir;
use tokio_rustls::rustls::crypto::ring;
use tokio_rustls::rustls::pki_types::{CertificateDer, ServerName};
use tokio_rustls::rustls::{ClientConfig, ClientConnection, RootCertStore, StreamOwned};

/// The name that the farm has in these tests.
const NAME: &str = "shed.local";

/// The program, served as it is said.
struct Farm {
    child: Child,
    port: u16,
    told: Vec<String>,
}

impl Farm {
    fn begin(data: &Path, more: &[&str]) -> Self {
        let mut child = Command::new(env!("CARGO_BIN_EXE_zymarch"))
            .args(["serve", "--port", "0", "--data"])
            .arg(data)
            .args(more)
            .stdout(Stdio::piped())
            .stderr(Stdio::inherit())
            .spawn()
            .expect("the program starts");
        let mut lines = BufReader::new(child.stdout.take().expect("is piped")).lines();
        let first = lines.next().expect("a line").expect("is text");
        let port = first.rsplit(':').next().and_then(|port| port.parse().ok()).expect("a port");
        // The lines before the picture, which is no text; without a network there is one line.
        let told = match more.contains(&"--lan") {
            true => lines.map_while(Result::ok).take_while(|line| line.is_ascii()).collect(),
            false => Vec::new(),
        };
        Self { child, port, told }
    }

    /// What is answered at an address of this machine, by the letters.
    fn plain(&self, at: IpAddr, request: &str) -> String {
        let Ok(mut stream) = TcpStream::connect((at, self.port)) else { return String::new() };
        spoken(&mut stream, request)
    }

    /// The same, sealed, trusting one authority.
    fn sealed(&self, at: IpAddr, authority: &[u8], name: &str, request: &str) -> Result<String, String> {
        let mut roots = RootCertStore::empty();
        roots.add(CertificateDer::from(authority.to_vec())).map_err(|error| error.to_string())?;
        let config = ClientConfig::builder_with_provider(Arc::new(ring::default_provider()))
            .with_safe_default_protocol_versions()
            .expect("has versions")
            .with_root_certificates(roots)
            .with_no_client_auth();
        let name = ServerName::try_from(name.to_owned()).expect("a name");
        let client = ClientConnection::new(Arc::new(config), name).expect("a client");
        let tcp = TcpStream::connect((at, self.port)).map_err(|error| error.to_string())?;
        tcp.set_read_timeout(Some(Duration::from_secs(10))).expect("sets");
        let mut stream = StreamOwned::new(client, tcp);
        stream.write_all(request.as_bytes()).map_err(|error| error.to_string())?;
        let mut told = Vec::new();
        let _ = stream.read_to_end(&mut told);
        Ok(String::from_utf8_lossy(&told).into_owned())
    }
}

fn spoken(stream: &mut TcpStream, request: &str) -> String {
    stream.set_read_timeout(Some(Duration::from_secs(10))).expect("sets");
    let _ = stream.write_all(request.as_bytes());
    let mut told = Vec::new();
    let _ = stream.read_to_end(&mut told);
    String::from_utf8_lossy(&told).into_owned()
}

impl Drop for Farm {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

/// An address of this machine that is not its own to itself: what comes from there comes from the network.
fn elsewhere() -> Option<IpAddr> {
    let all = if_addrs::get_if_addrs().expect("lists").into_iter().map(|one| one.ip());
    let found = all.filter(IpAddr::is_ipv4).find(|ip| !ip.is_loopback());
    if found.is_none() {
        eprintln!("this machine has no network: who comes from one is not tried");
    }
    found
}

fn here() -> IpAddr {
    IpAddr::V4(std::net::Ipv4Addr::LOCALHOST)
}

fn get(path: &str, host: &str, more: &str) -> String {
    format!("GET {path} HTTP/1.1\r\nhost: {host}\r\nconnection: close\r\n{more}\r\n")
}

fn post(path: &str, host: &str, more: &str, body: &Value) -> String {
    let body = body.to_string();
    let length = body.len();
    format!(
        "POST {path} HTTP/1.1\r\nhost: {host}\r\nconnection: close\r\ncontent-type: application/json\r\n\
         content-length: {length}\r\n{more}\r\n{body}"
    )
}

fn status(told: &str) -> u16 {
    told.split(' ').nth(1).and_then(|status| status.parse().ok()).unwrap_or(0)
}

fn header<'a>(told: &'a str, name: &str) -> &'a str {
    let head = told.split("\r\n\r\n").next().unwrap_or_default();
    let found = head.lines().find_map(|line| line.split_once(": ").filter(|(key, _)| *key == name));
    found.map_or("", |(_, value)| value)
}

fn people(data: &Path, words: &[&str]) -> Output {
    let mut command = Command::new(env!("CARGO_BIN_EXE_zymarch"));
    command.arg("people").args(words).arg("--data").arg(data).output().expect("runs")
}

/// The code that the machine makes for somebody.
fn code(data: &Path, words: &[&str]) -> String {
    let output = people(data, words);
    let told = String::from_utf8_lossy(&output.stdout).into_owned();
    let is_code = |word: &&str| word.len() == 12 && word.as_bytes()[5] == b'-';
    told.split(' ')
        .find(|word| is_code(&word.trim_end_matches(',')) || (word.len() == 12 && word.ends_with(',')))
        .map(|word| word.trim_end_matches(',').to_owned())
        .unwrap_or_else(|| panic!("{output:?}"))
}

fn authority(farm: &Farm, at: IpAddr) -> Vec<u8> {
    let mut stream = TcpStream::connect((at, farm.port)).expect("connects");
    stream.set_read_timeout(Some(Duration::from_secs(10))).expect("sets");
    let host = format!("{NAME}:{}", farm.port);
    stream.write_all(get("/zymarch-authority.crt", &host, "").as_bytes()).expect("asks");
    let mut told = Vec::new();
    let _ = stream.read_to_end(&mut told);
    let end = told.windows(4).position(|four| four == b"\r\n\r\n").expect("a head") + 4;
    told[end..].to_vec()
}

#[test]
fn nobody_of_the_network_is_answered_before_there_is_an_owner() {
    let Some(there) = elsewhere() else { return };
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let farm = Farm::begin(&data, &["--lan", "--name", NAME]);
    assert!(farm.told.iter().any(|line| line.ends_with("/people")), "{:?}", farm.told);
    let host = format!("{NAME}:{}", farm.port);
    assert_eq!(farm.plain(there, &get("/", &host, "")), "", "not even told why");
    assert_eq!(farm.plain(there, &get("/api/sites", &host, "")), "");
    // The machine itself, as ever.
    let here_host = format!("127.0.0.1:{}", farm.port);
    assert_eq!(status(&farm.plain(here(), &get("/api/sites", &here_host, ""))), 200);
    // An owner is made beside the server, which knows it with the next connection.
    code(&data, &["add", "Wayra"]);
    assert_eq!(status(&farm.plain(there, &get("/", &host, ""))), 200);
    assert_eq!(status(&farm.plain(here(), &get("/api/sites", &here_host, ""))), 401);
}

#[test]
fn a_phone_learns_to_trust_the_farm_and_comes_in_sealed() {
    let Some(there) = elsewhere() else { return };
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let farm = Farm::begin(&data, &["--lan", "--name", NAME]);
    let first = code(&data, &["add", "Wayra"]);
    let host = format!("{NAME}:{}", farm.port);
    // Unsealed there is one page, whatever is asked, and nothing of the farm.
    for path in ["/", "/api/sites", "/stock", "/assets/x.js"] {
        let told = farm.plain(there, &get(path, &host, ""));
        assert_eq!(status(&told), 200, "{path}: {told}");
        assert!(told.contains(&format!("https://{host}/")) && !told.contains("\"id\""), "{told}");
    }
    let told = farm.plain(there, &post("/api/sign-in", &host, "", &json!({"code": first})));
    assert_eq!(status(&told), 426, "a code is not heard unsealed: {told}");
    // The mark on that page is the one that the machine told.
    let page = farm.plain(there, &get("/", &host, ""));
    let mark = farm.told.iter().find_map(|line| line.split(' ').next_back().filter(|mark| mark.len() == 95));
    assert!(mark.is_some_and(|mark| page.contains(mark)), "{:?}", farm.told);
    let authority = authority(&farm, there);
    let ask = |request: &str| farm.sealed(there, &authority, NAME, request).expect("is answered");
    // Without a certificate of that authority there is no conversation, nor under a name that is not the farm's.
    let other = rcgen::generate_simple_self_signed(vec![NAME.into()]).expect("is made");
    assert!(farm.sealed(there, other.cert.der(), NAME, &get("/", &host, "")).is_err());
    assert!(farm.sealed(there, &authority, "bank.example", &get("/", &host, "")).is_err());
    // Whoever is not in gets nothing; who has a code comes in, and is known by what only a sealed way carries.
    assert_eq!(status(&ask(&get("/api/sites", &host, ""))), 401);
    let came =
        ask(&post("/api/sign-in", &host, &format!("origin: https://{host}\r\n"), &json!({"code": first})));
    let set = header(&came, "set-cookie");
    assert!(set.starts_with("__Host-zymarch=") && set.ends_with("; Secure"), "{came}");
    let cookie = format!("cookie: {}\r\n", set.split(';').next().expect("a pair"));
    assert_eq!(status(&ask(&get("/api/sites", &host, &cookie))), 200);
    // Foreign pages, names that are not the farm's, and what lies on the way.
    for (more, host) in [
        ("origin: https://farm.example\r\n", host.as_str()),
        (&*format!("origin: http://{host}\r\n"), host.as_str()),
        ("sec-fetch-site: same-site\r\n", host.as_str()),
        ("", "farm.example"),
        ("", "10.9.8.7"),
    ] {
        let told = ask(&get("/api/sites", host, &format!("{cookie}{more}")));
        assert_eq!(status(&told), 403, "{more} {host}: {told}");
    }
    // The same on the machine itself, unsealed, is somebody else.
    let here_host = format!("127.0.0.1:{}", farm.port);
    assert_eq!(status(&farm.plain(here(), &get("/api/sites", &here_host, &cookie))), 401);
    let by_code = json!({"code": code(&data, &["code", "wayra"])});
    let told = farm.plain(here(), &post("/api/sign-in", &here_host, "", &by_code));
    assert!(header(&told, "set-cookie").starts_with("zymarch="), "{told}");
    assert!(!header(&told, "set-cookie").contains("Secure"));
    // Where they came from is noted.
    let noted = ask(&get("/api/security", &host, &cookie));
    assert!(noted.contains(&there.to_string()), "{noted}");
    // Cut off on the machine: out with the next request.
    assert!(people(&data, &["cut-off", "Wayra"]).status.success());
    assert_eq!(status(&ask(&get("/api/sites", &host, &cookie))), 401);
}

#[test]
fn a_certificate_that_is_given_is_the_one_that_is_shown() {
    let Some(there) = elsewhere() else { return };
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let (certificate, key) = (folder.path().join("cert.pem"), folder.path().join("key.pem"));
    let made = rcgen::generate_simple_self_signed(vec![NAME.into()]).expect("is made");
    std::fs::write(&certificate, made.cert.pem()).expect("writes");
    std::fs::write(&key, made.signing_key.serialize_pem()).expect("writes");
    let (certificate, key) = (certificate.display().to_string(), key.display().to_string());
    let farm = Farm::begin(&data, &["--lan", "--name", NAME, "--tls-cert", &certificate, "--tls-key", &key]);
    code(&data, &["add", "Wayra"]);
    let host = format!("{NAME}:{}", farm.port);
    let told = farm.sealed(there, made.cert.der(), NAME, &get("/api/sites", &host, "")).expect("is answered");
    assert_eq!(status(&told), 401);
    assert!(!folder.path().join("farm.tls").exists(), "no authority is made that nobody needs");
    let told = farm.plain(there, &get("/", &host, ""));
    assert!(told.contains("https://") && !told.contains(".crt"), "{told}");
}

#[test]
fn behind_a_proxy_everybody_comes_from_elsewhere() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let proxy = ["--behind-proxy", "https://compost.example"];
    let refused = Command::new(env!("CARGO_BIN_EXE_zymarch"))
        .args(["serve", "--port", "0", "--data"])
        .arg(&data)
        .args(proxy)
        .output()
        .expect("runs");
    assert_eq!(refused.status.code(), Some(2), "{refused:?}");
    assert!(String::from_utf8_lossy(&refused.stderr).contains("zymarch people add"), "{refused:?}");
    let first = code(&data, &["add", "Wayra"]);
    let farm = Farm::begin(&data, &proxy);
    let ask = |request: &str| farm.plain(here(), request);
    let from = "x-forwarded-for: 127.0.0.1, 203.0.113.9\r\n";
    // Nobody is taken for the machine itself, with the header or without.
    for more in ["", from] {
        assert_eq!(status(&ask(&get("/api/sites", "compost.example", more))), 401);
        let again = json!({"name": "Second", "passphrase": "four sacks of dry leaves"});
        assert_eq!(status(&ask(&post("/api/people/first", "compost.example", more, &again))), 403);
    }
    assert_eq!(status(&ask(&get("/api/sign-in", &format!("127.0.0.1:{}", farm.port), ""))), 403);
    let came = ask(&post("/api/sign-in", "compost.example", from, &json!({"code": first})));
    let set = header(&came, "set-cookie");
    assert!(set.starts_with("__Host-zymarch=") && set.ends_with("; Secure"), "{came}");
    assert!(header(&came, "strict-transport-security").starts_with("max-age="), "{came}");
    let cookie = format!("cookie: {}\r\n", set.split(';').next().expect("a pair"));
    let noted = ask(&get("/api/security", "compost.example", &cookie));
    assert!(noted.contains("203.0.113.9") && !noted.contains("\"127.0.0.1\""), "{noted}");
    // Guessing is slow by where it comes from, as the proxy tells it.
    let guess = |at: &str| {
        let more = format!("x-forwarded-for: {at}\r\n");
        status(&ask(&post("/api/sign-in", "compost.example", &more, &json!({"code": "00000-00000"}))))
    };
    let tried: Vec<u16> = (0..6).map(|_| guess("203.0.113.66")).collect();
    assert_eq!(tried, [401, 401, 401, 401, 429, 429]);
    assert_eq!(guess("203.0.113.67"), 401, "another is not kept waiting");
}

#[test]
fn what_cannot_be_served_is_refused_with_its_reason() {
    let folder = TempDir::new().expect("a folder");
    let missing = folder.path().join("missing.pem").display().to_string();
    for (words, told) in [
        (vec!["--bind", "0.0.0.0"], "--bind"),
        (vec!["--lan", "--name", "a b"], "--name"),
        (vec!["--lan", "--tls-cert", &missing, "--tls-key", &missing], "missing.pem"),
        (vec!["--lan", "--tls-cert", &missing], "--tls-key"),
        (vec!["--behind-proxy", "compost.example"], "--behind-proxy"),
        (vec!["--behind-proxy", "https://compost.example/farm"], "--behind-proxy"),
        (vec!["--behind-proxy", "https://compost.example", "--lan"], "--lan"),
    ] {
        let data = folder.path().join("farm.sqlite");
        let output = Command::new(env!("CARGO_BIN_EXE_zymarch"))
            .args(["serve", "--port", "0", "--data"])
            .arg(&data)
            .args(&words)
            .output()
            .expect("runs");
        assert_eq!(output.status.code(), Some(2), "{words:?}: {output:?}");
        assert!(String::from_utf8_lossy(&output.stderr).contains(told), "{words:?}: {output:?}");
        assert!(!data.exists(), "{words:?}: nothing was made");
    }
}

#[test]
fn the_machine_itself_is_the_way_back_in() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    assert_eq!(people(&data, &["list"]).status.code(), Some(2), "a file that is not there is not made");
    assert!(!data.exists());
    drop(Farm::begin(&data, &[]));
    let worker = people(&data, &["add", "Amaru", "--role", "worker"]);
    assert!(String::from_utf8_lossy(&worker.stderr).contains("owner"), "an owner comes first: {worker:?}");
    code(&data, &["add", "Wayra"]);
    code(&data, &["add", "Amaru", "--role", "worker", "--site", "my farm"]);
    for (words, told) in [
        (vec!["add", "WAYRA"], "Wayra"),
        (vec!["add", "Sami", "--role", "king"], "king"),
        (vec!["add", "Sami", "--role", "guest", "--site", "Nowhere"], "--site"),
        (vec!["code", "Nobody"], "person"),
        (vec!["remove", "Wayra"], "owner"),
    ] {
        let output = people(&data, &words);
        assert_eq!(output.status.code(), Some(2), "{words:?}: {output:?}");
        let said = String::from_utf8_lossy(&output.stderr);
        assert!(said.to_lowercase().contains(&told.to_lowercase()), "{words:?}: {said}");
    }
    let listed = String::from_utf8_lossy(&people(&data, &["list"]).stdout).into_owned();
    assert_eq!(listed.lines().collect::<Vec<_>>(), ["Wayra  owner", "Amaru  worker"]);
    assert!(people(&data, &["remove", "Amaru"]).status.success());
    // Beside a server that has the file: it is not disturbed, and keeps what was written.
    let farm = Farm::begin(&data, &[]);
    let host = format!("127.0.0.1:{}", farm.port);
    let again = code(&data, &["code", "Wayra"]);
    let came = farm.plain(here(), &post("/api/sign-in", &host, "", &json!({"code": again})));
    assert_eq!(status(&came), 200, "{came}");
    let cookie = format!("cookie: {}\r\n", header(&came, "set-cookie").split(';').next().expect("a pair"));
    let me = farm.plain(here(), &get("/api/me", &host, &cookie));
    let me: Value = serde_json::from_str(me.split("\r\n\r\n").nth(1).expect("a body")).expect("is JSON");
    assert_eq!(text(&me["name"]), "Wayra");
    let log = String::from_utf8_lossy(&people(&data, &["log"]).stdout).into_owned();
    assert!(log.lines().next().is_some_and(|line| line.contains("came-by-code")), "{log}");
}
