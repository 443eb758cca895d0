//! How it is started and stopped: what it leaves on disk, whom it keeps out, and that no
//! connection can hold it.
#![cfg(unix)]

mod support;

use std::fs;
use std::io::{Read, Write};
use std::net::{TcpListener, TcpStream};
use std::path::Path;
use std::process::{Command, Output};
use std::time::{Duration, Instant};

use serde_json::json;
use support::{Asked, Server};
use tempfile::TempDir;

/// A stop that takes longer is a hang.
const STOPS_WITHIN: Duration = Duration::from_secs(5);

fn zymarch(arguments: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_zymarch")).args(arguments).output().expect("runs")
}

fn said(output: &Output) -> String {
    String::from_utf8_lossy(&output.stderr).into_owned()
}

fn names(folder: &Path) -> Vec<String> {
    let mut all: Vec<String> = fs::read_dir(folder)
        .expect("lists")
        .map(|one| one.expect("is there").file_name().to_string_lossy().into_owned())
        .collect();
    all.sort();
    all
}

fn connect(server: &Server) -> TcpStream {
    TcpStream::connect(server.address().trim_start_matches("http://")).expect("connects")
}

fn add_site(server: &Server, name: &str) -> u16 {
    let site = json!({"name": name, "altitude_m": null, "climate": null});
    server.send("POST", "/api/sites", &site).status
}

fn site_names(data: &Path) -> Vec<String> {
    let conn = rusqlite::Connection::open(data).expect("opens");
    let mut all = conn.prepare("SELECT name FROM site ORDER BY name").expect("is a farm");
    all.query_map([], |row| row.get(0)).expect("reads").map(|name| name.expect("a name")).collect()
}

#[test]
fn every_signal_ends_it_soon_with_the_file_alone_whole_whoever_is_connected() {
    for signal in ["TERM", "HUP", "INT"] {
        let folder = TempDir::new().expect("a folder");
        let data = folder.path().join("farm.sqlite");
        let mut server = Server::process(&data);
        assert_eq!(add_site(&server, "Lower plot"), 201);
        // One that says nothing, one that stops half-way through its head, one half-way
        // through its body, and one that asks and does not read.
        let _silent = connect(&server);
        let mut half = connect(&server);
        half.write_all(b"GET /api/sites HTTP/1.1\r\nHost: 127.").expect("writes");
        let mut body = connect(&server);
        body.write_all(b"POST /api/mix HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 900000\r\n\r\n{").expect("writes");
        let mut deaf = connect(&server);
        for _ in 0..50 {
            deaf.write_all(b"GET /api/materials HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n").expect("writes");
        }
        std::thread::sleep(Duration::from_millis(200));
        let begun = Instant::now();
        assert!(server.signal(signal).success(), "{signal}: a stop that was asked for is no failure");
        assert!(begun.elapsed() < STOPS_WITHIN, "{signal}: {:?}", begun.elapsed());
        assert_eq!(names(folder.path()), ["farm.sqlite"], "{signal}: nothing waits beside it");
        assert_eq!(site_names(&data), ["Lower plot", "My farm"]);
    }
}

#[test]
fn a_port_that_is_taken_leaves_no_file_and_touches_none() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite").display().to_string();
    let taken = TcpListener::bind("127.0.0.1:0").expect("binds");
    let port = taken.local_addr().expect("has one").port().to_string();
    for command in ["serve", "demo"] {
        let output = zymarch(&[command, "--data", &data, "--port", &port]);
        assert_eq!(output.status.code(), Some(2), "{}", said(&output));
        let output = zymarch(&[command, "--data", &data, "--bind", "0.0.0.0"]);
        assert_eq!(output.status.code(), Some(2), "{}", said(&output));
        assert_eq!(names(folder.path()), [] as [&str; 0], "{command}");
    }
}

#[test]
fn one_server_a_file_and_the_other_is_told_who_has_it() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let server = Server::process(&data);
    for command in ["serve", "demo"] {
        let output = zymarch(&[command, "--data", &data.display().to_string(), "--port", "0"]);
        assert_eq!(output.status.code(), Some(2));
        assert!(said(&output).contains(&server.pid().to_string()), "{}", said(&output));
    }
    let package = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");
    let output = zymarch(&["import", package, "--data", &data.display().to_string()]);
    assert_eq!(output.status.code(), Some(2), "{}", said(&output));
    assert_eq!(add_site(&server, "Lower plot"), 201, "it goes on");
    server.kill();
    // Killed without warning, it holds nothing.
    assert_eq!(add_site(&Server::process(&data), "Upper plot"), 201);
}

#[test]
fn the_demo_never_touches_a_farm() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let mut server = Server::process(&data);
    assert_eq!(add_site(&server, "Lower plot"), 201);
    assert!(server.signal("TERM").success());
    let before = fs::read(&data).expect("reads");
    for more in [&[][..], &["--keep"][..]] {
        let path = data.display().to_string();
        let output = zymarch(&[&["demo", "--data", &path, "--port", "0"][..], more].concat());
        assert_eq!(output.status.code(), Some(2), "{}", said(&output));
        assert!(said(&output).contains("demo"), "{}", said(&output));
    }
    assert_eq!(fs::read(&data).expect("reads"), before);
    assert_eq!(names(folder.path()), ["farm.sqlite"]);
}

#[test]
fn a_file_taken_away_is_said_and_nothing_is_acknowledged_into_it() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let server = Server::process(&data);
    assert_eq!(add_site(&server, "Before"), 201);
    fs::remove_file(&data).expect("removes");
    let site = json!({"name": "Gone", "altitude_m": null, "climate": null});
    let answer = server.send("POST", "/api/sites", &site);
    assert_eq!(answer.status, 503);
    assert_eq!(answer.json()["errors"][0]["code"], "file-gone");
    assert!(answer.json()["detail"].as_str().expect("words").contains("nothing is written"));
    assert_eq!(server.get("/api/sites").status, 503);
    assert!(!data.exists(), "no other one is made in its place");
}

#[test]
fn a_copy_is_made_while_it_is_served_and_can_be_gone_on_with() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let server = Server::process(&data);
    assert_eq!(add_site(&server, "Lower plot"), 201);
    let to = folder.path().join("copy.sqlite");
    let (from, copy) = (data.display().to_string(), to.display().to_string());
    let output = zymarch(&["backup", &from, &copy]);
    assert!(output.status.success(), "{}", said(&output));
    assert_eq!(add_site(&server, "Upper plot"), 201);
    assert_eq!(site_names(&to), ["Lower plot", "My farm"]);
    assert_eq!(zymarch(&["backup", &from, &copy]).status.code(), Some(2), "nothing is written over");
    server.kill();
    fs::rename(&to, &data).expect("is put back");
    for side in ["-wal", "-shm"] {
        let _ = fs::remove_file(folder.path().join(format!("farm.sqlite{side}")));
    }
    let sites = Server::process(&data).get("/api/sites").json();
    assert_eq!(sites.as_array().map(Vec::len), Some(2));
}

#[test]
fn a_file_that_another_program_keeps_locked_is_said_to_be_and_nothing_is_lost() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let server = Server::process(&data);
    assert_eq!(add_site(&server, "Before"), 201);
    let other = rusqlite::Connection::open(&data).expect("opens");
    other.execute_batch("BEGIN IMMEDIATE").expect("locks");
    let site = json!({"name": "Meanwhile", "altitude_m": null, "climate": null});
    let answer = server.send("POST", "/api/sites", &site);
    assert_eq!(answer.status, 503);
    assert_eq!(answer.json()["errors"][0]["code"], "file-locked");
    assert_eq!(server.get("/api/sites").status, 200, "it is read all the same");
    other.execute_batch("ROLLBACK").expect("lets go");
    assert_eq!(add_site(&server, "After"), 201);
    drop(other);
    server.kill();
    assert_eq!(site_names(&data), ["After", "Before", "My farm"]);
}

/// Nothing is asked of it any more, and after a while the file alone is whole.
#[test]
fn while_nothing_happens_the_journal_is_folded_in() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let server = Server::process(&data);
    assert_eq!(add_site(&server, "Lower plot"), 201);
    let begun = Instant::now();
    let journal = folder.path().join("farm.sqlite-wal");
    while fs::metadata(&journal).is_ok_and(|journal| journal.len() > 0) {
        assert!(begun.elapsed() < Duration::from_secs(45), "the journal still waits");
        std::thread::sleep(Duration::from_millis(200));
    }
    let alone = folder.path().join("alone.sqlite");
    fs::copy(&data, &alone).expect("copies the one file");
    assert_eq!(site_names(&alone), ["Lower plot", "My farm"]);
    assert_eq!(add_site(&server, "Upper plot"), 201, "it goes on");
}

/// Far more than it keeps, all silent: the next one is answered all the same.
#[test]
fn a_thousand_silent_connections_stop_no_answer() {
    let folder = TempDir::new().expect("a folder");
    let server = Server::process(&folder.path().join("farm.sqlite"));
    let silent: Vec<TcpStream> = (0..700).map(|_| connect(&server)).collect();
    let begun = Instant::now();
    for _ in 0..20 {
        assert_eq!(server.get("/api/sites").status, 200);
    }
    assert!(begun.elapsed() < Duration::from_secs(10), "{:?}", begun.elapsed());
    let open = fs::read_dir(format!("/proc/{}/fd", server.pid())).map_or(0, Iterator::count);
    assert!(open < 400, "{open} files open");
    drop(silent);
}

/// A head that is dripped in is not waited for.
#[test]
fn a_head_that_does_not_come_is_not_waited_for() {
    let folder = TempDir::new().expect("a folder");
    let server = Server::process(&folder.path().join("farm.sqlite"));
    let mut dripping = connect(&server);
    dripping.set_read_timeout(Some(Duration::from_secs(25))).expect("sets");
    dripping.write_all(b"GET /api/sites HTTP/1.1\r\nHost: 127.").expect("writes");
    let begun = Instant::now();
    let mut rest = Vec::new();
    let _ = dripping.read_to_end(&mut rest);
    assert!(begun.elapsed() < Duration::from_secs(20), "{:?}", begun.elapsed());
    assert_eq!(server.try_ask(Asked::new("GET", "/api/sites")).map(|answer| answer.status), Some(200));
}

#[test]
#[cfg(all(target_os = "linux", target_env = "gnu"))]
fn it_begins_with_few_heaps_of_memory_unless_somebody_says_how_many() {
    let folder = TempDir::new().expect("a folder");
    let server = Server::process(&folder.path().join("farm.sqlite"));
    assert_eq!(server.get("/api/about").status, 200);
    let told = fs::read_to_string(format!("/proc/{}/environ", server.pid())).expect("is its own");
    let said = std::env::var("MALLOC_ARENA_MAX").unwrap_or_else(|_| "2".into());
    assert!(told.split('\0').any(|one| one == format!("MALLOC_ARENA_MAX={said}")), "{told}");
    let words = fs::read_to_string(format!("/proc/{}/cmdline", server.pid())).expect("is its own");
    assert!(words.split('\0').any(|word| word == "serve"), "with the words it was begun with: {words}");
}
