//! What runs in the browser, run from here so that `cargo test` is all there is.

mod support;

use std::path::Path;
use std::process::Command;
use support::Server;

const ROOT: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../..");

fn npm(folder: &str, arguments: &[&str], address: Option<&str>) {
    let mut command = Command::new("npm");
    command.args(arguments).current_dir(Path::new(ROOT).join(folder)).env("NO_COLOR", "1");
    command.env("ZYMARCH_PROGRAM", env!("CARGO_BIN_EXE_zymarch"));
    if let Some(address) = address {
        command.env("ZYMARCH_ADDRESS", address);
    }
    let done = command.output().expect("npm runs; `make deps` installs what it needs");
    let said = format!("{}{}", String::from_utf8_lossy(&done.stdout), String::from_utf8_lossy(&done.stderr));
    assert!(done.status.success(), "{said}");
}

#[test]
fn the_rules_of_the_web_side_hold() {
    npm("web", &["run", "--silent", "test"], None);
}

/// A third of the journeys over the demo farm, on a farm of their own: two at once take little longer than one.
fn journeys(third: &str) {
    let folder = tempfile::TempDir::new().expect("a folder");
    let server = Server::demo_process(&folder.path().join("demo.sqlite"));
    npm("e2e", &["run", "--silent", "test", "--", "--project=demo", third], Some(server.address()));
}

#[test]
fn journeys_in_a_real_browser() {
    journeys("--shard=1/3");
}

#[test]
fn journeys_in_a_real_browser_and_on_a_phone() {
    journeys("--shard=2/3");
}

#[test]
fn journeys_in_a_real_browser_and_the_rest_of_them() {
    journeys("--shard=3/3");
}

#[test]
fn people_come_and_go_in_a_real_browser() {
    let folder = tempfile::TempDir::new().expect("a folder");
    let server = Server::demo_process(&folder.path().join("demo.sqlite"));
    npm("e2e", &["run", "--silent", "test", "--", "--project=people"], Some(server.address()));
}

#[test]
fn a_phone_without_signal_keeps_what_it_has() {
    let folder = tempfile::TempDir::new().expect("a folder");
    let server = Server::demo_process(&folder.path().join("demo.sqlite"));
    npm("e2e", &["run", "--silent", "test", "--", "--project=offline"], Some(server.address()));
}

/// Two phones and a server that is killed: the journeys start it themselves.
#[test]
fn two_phones_at_one_heap_while_the_server_dies() {
    npm("e2e", &["run", "--silent", "test", "--", "--project=phones"], None);
}

#[test]
fn a_first_day_on_a_farm_with_nothing_written_down() {
    let folder = tempfile::TempDir::new().expect("a folder");
    let server = Server::process_now(&folder.path().join("farm.sqlite"));
    npm("e2e", &["run", "--silent", "test", "--", "--project=first-day"], Some(server.address()));
}
