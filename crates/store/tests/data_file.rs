//! The data file as a thing on disk: what is not ours stays as it is to the byte, what is
//! written is written to the file that will be found, a copy is whole.

use std::fs;
use std::path::{Path, PathBuf};

use rusqlite::Connection;
use tempfile::TempDir;
use zymarch_store::id::SiteId;
use zymarch_store::site::{self, NewSite};
use zymarch_store::{Found, Holds, Lock, OpenError, Store, StoreError, back_up, look, remove_demo};

const NOW: &str = "2026-03-14T08:00:00Z";

fn place() -> (TempDir, PathBuf) {
    let folder = TempDir::new().expect("a folder");
    let path = folder.path().join("farm.sqlite");
    (folder, path)
}

async fn add(store: &Store, name: &'static str) -> Result<(), StoreError> {
    let fields = NewSite { name: name.into(), altitude_m: None, climate: None };
    store.write(move |conn| site::insert(conn, SiteId::fresh(), &fields, NOW).map(drop)).await
}

async fn names(store: &Store) -> Vec<String> {
    let sites = store.read(|conn| site::all(conn)).await.expect("reads");
    sites.into_iter().map(|site| site.fields.name).collect()
}

/// Everything in a folder, to the byte.
fn contents(folder: &Path) -> Vec<(PathBuf, Vec<u8>)> {
    let mut all: Vec<_> = fs::read_dir(folder)
        .expect("lists")
        .map(|one| one.expect("is there").path())
        .map(|path| (path.clone(), fs::read(path).expect("reads")))
        .collect();
    all.sort();
    all
}

fn database(path: &Path, sql: &str) {
    Connection::open(path).and_then(|conn| conn.execute_batch(sql)).expect("writes");
}

#[tokio::test]
async fn what_is_not_ours_is_refused_and_not_a_byte_of_it_changes() {
    let others = [
        ("CREATE TABLE bird (name TEXT); INSERT INTO bird VALUES ('wren');", "no mark, other tables"),
        (
            "PRAGMA application_id = 77; CREATE TABLE site (id); CREATE TABLE measure (id); CREATE TABLE lot (id); CREATE TABLE batch (id);",
            "another's mark",
        ),
        ("PRAGMA user_version = 3; CREATE TABLE bird (name TEXT);", "a version of its own"),
        ("PRAGMA journal_mode = WAL; CREATE TABLE bird (name TEXT);", "with a journal"),
    ];
    for (sql, what) in others {
        let (folder, path) = place();
        database(&path, sql);
        let before = contents(folder.path());
        assert!(matches!(Store::open(&path).await, Err(OpenError::NotOurs { .. })), "{what}");
        assert!(matches!(Store::open_demo(&path).await, Err(OpenError::NotOurs { .. })), "{what}");
        assert!(matches!(remove_demo(&path), Err(OpenError::NotDemo { .. })), "{what}");
        assert!(back_up(&path, &folder.path().join("copy")).is_err(), "{what}");
        assert_eq!(contents(folder.path()), before, "{what}");
    }
}

#[tokio::test]
async fn a_newer_file_is_refused_and_not_a_byte_of_it_changes() {
    let (folder, path) = place();
    drop(Store::open(&path).await.expect("opens"));
    database(&path, "PRAGMA user_version = 99; PRAGMA journal_mode = DELETE;");
    let before = contents(folder.path());
    assert!(matches!(Store::open(&path).await, Err(OpenError::LaterVersion { version: 99, .. })));
    assert_eq!(contents(folder.path()), before);
}

#[tokio::test]
async fn a_damaged_file_is_found_when_it_is_opened_and_kept() {
    let (_folder, path) = place();
    {
        let store = Store::open(&path).await.expect("opens");
        for _ in 0..200 {
            add(&store, "Velluma Terraces, a name that is long enough to fill some pages of the file")
                .await
                .expect("adds");
        }
        store.close().await;
    }
    database(&path, "PRAGMA journal_mode = DELETE");
    let mut bytes = fs::read(&path).expect("reads");
    let middle = bytes.len() / 2;
    bytes[middle..middle + 4096].fill(0xA5);
    fs::write(&path, &bytes).expect("writes");
    let opened = Store::open(&path).await;
    assert!(matches!(opened, Err(OpenError::Damaged { .. })), "{opened:?}");
    assert_eq!(fs::read(&path).expect("reads"), bytes);
}

#[tokio::test]
async fn a_write_into_a_file_that_is_gone_or_another_is_not_acknowledged() {
    let (folder, path) = place();
    let store = Store::open(&path).await.expect("opens");
    add(&store, "Before").await.expect("adds");
    let away = folder.path().join("away.sqlite");

    fs::rename(&path, &away).expect("moves");
    assert!(matches!(add(&store, "Gone").await, Err(StoreError::FileGone)));
    assert!(matches!(store.read(|conn| site::all(conn)).await, Err(StoreError::FileGone)));

    fs::copy(&away, &path).expect("copies");
    assert!(matches!(add(&store, "Into a copy").await, Err(StoreError::FileReplaced)));

    // Written over in place it is the same file, and yet another.
    fs::rename(&path, folder.path().join("copy.sqlite")).expect("moves");
    fs::rename(&away, &path).expect("moves back");
    let whole = fs::read(&path).expect("reads");
    let other = fs::read(folder.path().join("copy.sqlite")).expect("reads");
    fs::write(&path, &other).expect("writes over");
    assert!(matches!(add(&store, "Over").await, Err(StoreError::FileReplaced)));
    drop(store);

    fs::write(&path, &whole).expect("writes");
    let store = Store::open(&path).await.expect("opens");
    add(&store, "After").await.expect("is there again");
    assert_eq!(names(&store).await, ["Before", "After"]);
}

#[tokio::test]
async fn a_write_into_a_journal_that_is_gone_is_not_acknowledged() {
    let (folder, path) = place();
    let store = Store::open(&path).await.expect("opens");
    add(&store, "Before").await.expect("adds");
    fs::remove_file(folder.path().join("farm.sqlite-wal")).expect("removes");
    assert!(add(&store, "Lost").await.is_err());
}

#[cfg(unix)]
#[tokio::test]
async fn a_file_is_its_owners_alone_and_one_only_to_be_read_takes_no_writes() {
    use std::os::unix::fs::PermissionsExt;
    let (folder, path) = place();
    let store = Store::open(&path).await.expect("opens");
    add(&store, "Before").await.expect("adds");
    for (name, _) in contents(folder.path()) {
        let mode = fs::metadata(&name).expect("is there").permissions().mode() & 0o777;
        assert_eq!(mode, 0o600, "{}", name.display());
    }
    fs::set_permissions(&path, fs::Permissions::from_mode(0o400)).expect("sets");
    assert!(matches!(add(&store, "Not").await, Err(StoreError::OnlyRead)));
    fs::set_permissions(&path, fs::Permissions::from_mode(0o644)).expect("sets");
    add(&store, "After").await.expect("adds");
    drop(store);
    drop(Store::open(&path).await.expect("opens"));
    assert_eq!(fs::metadata(&path).expect("is there").permissions().mode() & 0o777, 0o600, "narrowed");
}

#[tokio::test]
async fn a_copy_is_whole_while_the_file_is_written_and_never_lies_over_anything() {
    let (folder, path) = place();
    let store = Store::open(&path).await.expect("opens");
    add(&store, "Before").await.expect("adds");
    let to = folder.path().join("copy.sqlite");
    back_up(&path, &to).expect("copies");
    add(&store, "After").await.expect("goes on");
    let first = fs::read(&to).expect("reads");
    assert!(back_up(&path, &to).is_err(), "there is something already");
    assert_eq!(fs::read(&to).expect("reads"), first);
    assert!(matches!(look(&to), Ok(Found::Ours { holds: Holds::Farm, pending: 0, .. })));
    let copy = Store::open(&to).await.expect("opens");
    assert_eq!(names(&copy).await, ["Before"]);
    assert!(back_up(&folder.path().join("none"), &folder.path().join("other")).is_err());
    assert!(!folder.path().join("other").exists());
}

#[tokio::test]
async fn the_journal_is_folded_in_so_that_the_file_alone_is_whole() {
    let (folder, path) = place();
    let store = Store::open(&path).await.expect("opens");
    add(&store, "Before").await.expect("adds");
    store.fold_in().await;
    let alone = folder.path().join("alone.sqlite");
    fs::copy(&path, &alone).expect("copies the one file");
    assert_eq!(names(&Store::open(&alone).await.expect("opens")).await, ["Before"]);
    add(&store, "After").await.expect("the journal is the same one");
}

#[tokio::test]
async fn only_the_demo_is_thrown_away() {
    let (_folder, path) = place();
    drop(Store::open_demo(&path).await.expect("makes one"));
    assert!(matches!(look(&path), Ok(Found::Ours { holds: Holds::Demo, .. })));
    assert_eq!(Store::open(&path).await.expect("opens").holds(), Holds::Demo, "it stays what it is");
    remove_demo(&path).expect("is the demo's");
    assert!(!path.exists());
    remove_demo(&path).expect("nothing is there");

    let store = Store::open(&path).await.expect("makes a farm");
    add(&store, "Mine").await.expect("adds");
    drop(store);
    assert!(matches!(remove_demo(&path), Err(OpenError::NotDemo { .. })));
    assert!(matches!(Store::open_demo(&path).await, Err(OpenError::NotDemo { .. })));
    assert_eq!(names(&Store::open(&path).await.expect("opens")).await, ["Mine"]);
}

#[test]
fn a_file_is_kept_for_one_and_let_go() {
    let (folder, path) = place();
    let lock = Lock::take(&path).expect("is free");
    let Err(OpenError::Taken { process, .. }) = Lock::take(&path) else { panic!("taken twice") };
    assert_eq!(process, std::process::id().to_string());
    drop(lock);
    assert_eq!(contents(folder.path()), [], "nothing is left behind");
    Lock::take(&path).expect("is free again");
}
