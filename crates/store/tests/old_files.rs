//! A file of every earlier version comes up whole, with its history.

use rusqlite::Connection;
use tempfile::TempDir;
use zymarch_core::log::EntryKind;
use zymarch_core::people::Role;
use zymarch_core::plan::heap::Shape;
use zymarch_store::held::Held;
use zymarch_store::id::{PersonId, SiteId};
use zymarch_store::log::{self, About, Body, Taker};
use zymarch_store::people::person;
use zymarch_store::{
    Found, Holds, Store, StoreError, batch, check_file, compost, field_test, ground, heap, look, lot,
    material, measure, reading, rule, site, sorted_out, stamp,
};

/// A data file of a version, opened by this program.
async fn opened(version: &str) -> (Store, TempDir) {
    let folder = TempDir::new().expect("a folder");
    let path = folder.path().join("farm.sqlite");
    let text = std::fs::read_to_string(format!("{}/tests/files/{version}.sql", env!("CARGO_MANIFEST_DIR")));
    let old = Connection::open(&path).expect("opens");
    old.pragma_update(None, "foreign_keys", "OFF").expect("sets");
    old.execute_batch(&text.expect("is there")).expect("is a file of that version");
    drop(old);
    let store = Store::open(&path).await.expect("comes up");
    assert!(folder.path().join("farm.before-v16").exists(), "a copy of the old one is left");
    let checked = check_file(&path).expect("reads");
    assert_eq!(checked.differences, []);
    (store, folder)
}

async fn site_of(store: &Store) -> SiteId {
    let sites = store.read(|conn| site::all(conn)).await.expect("reads");
    assert_eq!(sites[0].fields.name, "Velluma Terraces");
    sites[0].id
}

#[tokio::test]
async fn a_file_of_the_first_version_keeps_its_farm() {
    let (store, _folder) = opened("1").await;
    let site = site_of(&store).await;
    store
        .read(move |conn| {
            let measures = measure::of_site(conn, site)?;
            let barrow = measure::NewMeasure::of_litres("barrow", "barrows", 70.0, "barrow");
            assert_eq!(measures[0].fields, barrow);
            let lots = lot::of_site(conn, site)?;
            assert_eq!(lots.len(), 1, "the removed one stays away");
            assert_eq!(lots[0].held, Held::Measures { amount: 4.0, measure: measures[0].id });
            assert_eq!(lots[0].fields.own.moisture.map(|share| share.get()), Some(0.15));
            let history = log::of(conn, About::Lot(lots[0].id))?;
            assert_eq!(history.iter().map(|entry| entry.kind()).collect::<Vec<_>>(), [EntryKind::Came]);
            // 2026-03-01T08:00:02Z
            assert_eq!(history[0].at_ms, 1_772_352_002_000);
            let batches = batch::of_site(conn, site)?;
            let fields = &batches[0].fields;
            assert_eq!(fields.shape, Shape::Box { length_cm: 110.0, width_cm: 110.0, height_cm: 120.0 });
            assert_eq!((fields.items.len(), fields.items[0].lot), (1, Some(lots[0].id)));
            Ok::<_, StoreError>(())
        })
        .await
        .expect("reads");
}

#[tokio::test]
async fn files_in_between_keep_tests_prices_shapes_and_heaps() {
    for version in ["2", "3", "4", "5"] {
        let (store, _folder) = opened(version).await;
        let site = site_of(&store).await;
        store
            .read(move |conn| {
                let measures = measure::of_site(conn, site)?;
                let of = measure::MeasureWay::Measures { count: 6.0, of: measures[0].id };
                assert_eq!(measures[1].fields.way, of);
                let lots = lot::of_site(conn, site)?;
                assert_eq!(
                    (lots[0].held.amount(), lots[0].gathered_on.as_deref()),
                    (3.0, Some("2026-02-20"))
                );
                let kinds: Vec<_> =
                    log::of(conn, About::Lot(lots[0].id))?.iter().map(|entry| entry.kind()).collect();
                assert_eq!(kinds, [EntryKind::Came, EntryKind::Delivered, EntryKind::Taken]);
                let batches = batch::of_site(conn, site)?;
                let first =
                    batches.iter().find(|batch| batch.fields.name == "Terrace heap").expect("is there");
                assert!(first.taken_ms.is_some());
                assert_eq!(first.fields.items[0].tests.len(), 1);
                let taken = log::taken_by(conn, Taker::Batch(first.id))?;
                assert_eq!((taken.len(), taken[0].1.moved.held.amount()), (1, -4.0));
                assert_eq!(field_test::of_lot(conn, lots[0].id)?[0].made_on, "2026-03-04");
                assert_eq!(sorted_out::of_site(conn, site)?[0].fields.kg, Some(1.5));
                assert_eq!(lots[0].fields.price, (version != "2").then_some(0.5));
                if version >= "4" {
                    let free =
                        batches.iter().find(|batch| batch.fields.name == "Free heap").expect("is there");
                    assert_eq!(free.fields.starters, ["farm-ferment", "charcoal"]);
                }
                if version == "5" {
                    let rows = heap::of_site(conn, site)?;
                    assert_eq!((rows[0].laid, rows[0].planned, rows[0].batch), (1, 3, Some(first.id)));
                    let heap = heap::get(conn, rows[0].id)?;
                    assert_eq!(heap.stand.items[0].lot, Some(lots[0].id));
                    assert_eq!(heap.stand.items[0].tests, first.fields.items[0].tests);
                    assert_eq!(heap.stand.rest()[1].portions[0].amount, 2.0);
                }
                Ok::<_, StoreError>(())
            })
            .await
            .unwrap_or_else(|error| panic!("{version}: {error}"));
    }
}

/// A demo farm as the program of that version left it: a heap built with a layer put
/// otherwise, one undone, the rest planned anew, something nobody planned, ended, and
/// taken from stock; a batch taken; entries undone; tests and records removed.
#[tokio::test]
async fn a_file_of_the_sixth_version_keeps_all_that_was_done() {
    let (store, _folder) = opened("6").await;
    let site = site_of(&store).await;
    store
        .read(move |conn| {
            let amounts: Vec<(String, f64)> = lot::of_site(conn, site)?
                .into_iter()
                .map(|lot| (lot.fields.material, lot.held.amount()))
                .collect();
            // As the old program told them.
            let told = [
                ("barley-straw", 0.0),
                ("faba-bean-haulm", 9.0),
                ("quinoa-amaranth-stalks", 6.0),
                ("sheep-manure", 1.0),
                ("guinea-pig-manure", 2.0),
                ("donkey-manure", 0.5),
                ("vegetable-scraps", 3.0),
                ("potato-haulm", 4.0),
                ("green-weeds", 0.0),
                ("eucalyptus-leaves", 1.0),
                ("wood-ash", 20.0),
            ];
            assert_eq!(amounts, told.map(|(id, amount)| (id.to_owned(), amount)));
            let rows = heap::of_site(conn, site)?;
            assert_eq!((rows.len(), rows[0].laid, rows[0].planned), (1, 6, 6));
            assert!(rows[0].taken_ms.is_some());
            let heap = heap::get(conn, rows[0].id)?;
            assert!(
                heap.stand
                    .items
                    .iter()
                    .any(|item| item.material == "green-weeds" && item.held.amount() == 2.0)
            );
            let sorted = sorted_out::of_site(conn, site)?;
            assert_eq!(sorted.len(), 1);
            let entries: i64 = conn.query_row("SELECT count(*) FROM entry", [], |row| row.get(0))?;
            // 48 of lots, 9 acts, 7 tests and 2 sorted out as the old tables had them; two takings
            // from stock; a test and a record removed.
            assert_eq!(entries, 48 + 9 + 7 + 2 + 2 + 2);
            let removed =
                lot::of_site(conn, site)?.iter().all(|lot| lot.fields.material != "layer-hen-manure");
            assert!(removed);
            Ok::<_, StoreError>(())
        })
        .await
        .expect("reads");
}

#[tokio::test]
async fn a_lot_whose_history_does_not_add_up_is_counted_once_more() {
    let folder = TempDir::new().expect("a folder");
    let path = folder.path().join("farm.sqlite");
    let text = std::fs::read_to_string(format!("{}/tests/files/2.sql", env!("CARGO_MANIFEST_DIR")))
        .expect("is there");
    let old = Connection::open(&path).expect("opens");
    old.pragma_update(None, "foreign_keys", "OFF").expect("sets");
    old.execute_batch(&text).expect("is a file of that version");
    old.execute("UPDATE lot SET amount = 9 WHERE id = 1", []).expect("writes");
    drop(old);
    let store = Store::open(&path).await.expect("comes up");
    let site = site_of(&store).await;
    let (amount, last) = store
        .read(move |conn| {
            let lot = lot::of_site(conn, site)?.remove(0);
            let last = log::of(conn, About::Lot(lot.id))?.pop().expect("has entries");
            Ok::<_, StoreError>((lot.held.amount(), last.body))
        })
        .await
        .expect("reads");
    assert_eq!(amount, 9.0);
    assert!(matches!(last, Body::Counted(_)));
}

#[tokio::test]
async fn a_file_of_the_seventh_version_says_whose_it_is_from_now_on() {
    let (store, folder) = opened("7").await;
    let site = site_of(&store).await;
    let (heap, lots) = store
        .read(move |conn| {
            let heap = heap::of_site(conn, site)?.remove(0);
            Ok::<_, StoreError>((heap, lot::of_site(conn, site)?.len()))
        })
        .await
        .expect("reads");
    assert_eq!((heap.laid, heap.taken_ms.is_some()), (1, true), "one laid, one undone, taken from stock");
    assert!(lots > 5, "one was removed");
    drop(store);
    let path = folder.path().join("farm.sqlite");
    assert!(matches!(look(&path), Ok(Found::Ours { holds: Holds::Farm, pending: 0, .. })));
    let copy = folder.path().join("farm.before-v16");
    assert!(matches!(look(&copy), Ok(Found::Ours { holds: Holds::Farm, version: 7, pending: 9 })));
}

#[tokio::test]
async fn a_file_of_the_ninth_version_builds_its_batches_as_one_heap() {
    let (store, _folder) = opened("9").await;
    let site = site_of(&store).await;
    let batches = store.read(move |conn| batch::of_site(conn, site)).await.expect("reads");
    assert!(!batches.is_empty() && batches.iter().all(|batch| batch.fields.heaps == 1));
}

#[tokio::test]
async fn a_file_of_the_tenth_version_tells_from_now_on_when_its_stock_changes() {
    let (store, _folder) = opened("10").await;
    let site = site_of(&store).await;
    let batches = store.read(move |conn| batch::of_site(conn, site)).await.expect("reads");
    assert!(batches.iter().any(|batch| batch.fields.heaps == 6));
    let before = store.read(|conn| stamp::of_stock(conn)).await.expect("reads");
    let lots = store.read(move |conn| lot::of_site(conn, site)).await.expect("reads");
    let id = lots[0].id;
    store.write(move |conn| lot::remove(conn, id, "2026-03-14T08:00:00Z")).await.expect("is removed");
    assert!(store.read(|conn| stamp::of_stock(conn)).await.expect("reads") > before);
}

#[tokio::test]
async fn a_file_of_the_eighth_version_keeps_its_own_materials_and_leaves_open_what_was_not_asked() {
    let (store, _folder) = opened("8").await;
    let own = store.read(|conn| material::get(conn, "our-chips")).await.expect("is there");
    assert_eq!((own.version, own.material.structure), (2, 3));
    assert_eq!((own.material.decays, own.material.wet_max), (None, None));
    assert!(own.material.names.is_empty());
    // Nothing was said of it: coarse wood decays as coarse wood does.
    assert!((own.material.decays() - 0.1).abs() < 1e-12);
}

#[tokio::test]
async fn a_file_of_the_eleventh_version_is_open_to_its_machine_until_somebody_is_made() {
    let (store, _folder) = opened("11").await;
    let site = site_of(&store).await;
    assert!(!store.read(|conn| person::is_any(conn)).await.expect("reads"));
    let fields = person::PersonFields { name: "Amaru".into(), role: Role::Worker, sites: vec![site] };
    let made = store
        .write(move |conn| person::insert(conn, PersonId::fresh(), &fields, "2026-03-14T08:00:00Z"))
        .await
        .expect("is written");
    assert_eq!(made.fields.sites, [site]);
    assert!(store.read(|conn| person::is_any(conn)).await.expect("reads"));
}

#[tokio::test]
async fn a_file_of_the_twelfth_version_keeps_its_people_and_takes_readings() {
    let (store, _folder) = opened("12").await;
    let site = site_of(&store).await;
    let people = store.read(|conn| person::all(conn)).await.expect("reads");
    let told: Vec<_> = people.iter().map(|one| (one.fields.name.as_str(), one.fields.role)).collect();
    assert_eq!(told, [("Ama", Role::Owner), ("Beno", Role::Worker)]);
    assert_eq!(people[1].fields.sites, [site]);
    let about = About::Site(site);
    let stamp = store.read(move |conn| reading::stamp(conn, about)).await.expect("reads");
    assert_eq!(stamp, 0, "none was read yet");
}

#[tokio::test]
async fn a_file_of_the_thirteenth_version_keeps_its_tending_and_follows_what_is_usual() {
    let (store, _folder) = opened("13").await;
    let site = site_of(&store).await;
    let heaps = store.read(move |conn| heap::of_site(conn, site)).await.expect("reads");
    let built = heaps.iter().find(|heap| heap.laid > 0 && heap.built_ms.is_some()).expect("one stands");
    let id = built.id;
    let entries = store.read(move |conn| log::of(conn, About::Heap(id))).await.expect("reads");
    for kind in [EntryKind::Stick, EntryKind::Turn, EntryKind::Readings] {
        assert!(entries.iter().any(|entry| entry.kind() == kind), "{kind:?}");
    }
    let packs = store.read(move |conn| reading::packs(conn, About::Heap(id))).await.expect("reads");
    let pack = packs[0].id;
    let read = store.read(move |conn| reading::of_pack(conn, pack, 0)).await.expect("reads");
    assert_eq!(read.iter().map(|of| of.temp_c).collect::<Vec<_>>(), [57.5, 58.5]);
    let follows = store.read(move |conn| rule::of(conn, site)).await.expect("reads");
    assert_eq!((follows.version, follows.schools, follows.local.is_none()), (0, vec![], true));
}

#[tokio::test]
async fn a_file_of_the_fourteenth_version_follows_what_it_did_and_has_taken_nothing_out_yet() {
    let (store, _folder) = opened("14").await;
    let site = site_of(&store).await;
    let follows = store.read(move |conn| rule::of(conn, site)).await.expect("reads");
    assert_eq!((follows.version, follows.schools.len()), (1, 1));
    assert_eq!((follows.local.wait_days, follows.local.n_limit_kg_ha), (Some([150, 100]), None));
    let heaps = store.read(move |conn| heap::of_site(conn, site)).await.expect("reads");
    assert!(heaps.iter().all(|heap| heap.emptied_ms.is_none()));
    let there = store.read(move |conn| compost::of_site(conn, site)).await.expect("reads");
    assert_eq!(there, []);
}

#[tokio::test]
async fn a_file_of_the_fifteenth_version_keeps_what_was_taken_out_and_where_it_went() {
    let (store, _folder) = opened("15").await;
    let site = site_of(&store).await;
    let there = store.read(move |conn| compost::of_site(conn, site)).await.expect("reads");
    assert_eq!(there.len(), 1);
    let places = store.read(move |conn| ground::of_site(conn, site)).await.expect("reads");
    assert_eq!(places.iter().map(|of| of.fields.name.as_str()).collect::<Vec<_>>(), ["Bean row"]);
    let marks = store.read(|conn| Ok::<_, StoreError>((stamp::of_batches(conn)?, stamp::of_heaps(conn)?)));
    let (batches, heaps) = marks.await.expect("reads");
    assert!(batches >= 1 && heaps >= 1);
}
