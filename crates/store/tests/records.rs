//! Records in a real SQLite file: what is written is read back, and what must
//! be refused is refused.

mod support;

use support::{NOW, farm};
use tempfile::TempDir;
use zymarch_core::base::quantity::Fraction;
use zymarch_core::plan::heap::Shape;
use zymarch_core::stock::Own;
use zymarch_core::stock::field_test::{TestKind, TestedFigure};
use zymarch_store::batch::{self, BatchFields};
use zymarch_store::held::Held;
use zymarch_store::id::{BatchId, MeasureId};
use zymarch_store::item::{Item, ItemTest};
use zymarch_store::lot::{self, LotFields};
use zymarch_store::site::{self, NewSite};
use zymarch_store::{OpenError, Store, StoreError, material, stamp};

fn straw() -> LotFields {
    LotFields {
        material: "barley-straw".into(),
        label: Some("from the upper terrace".into()),
        own: Own { moisture: Fraction::new(0.14).ok(), c_n: Some(80.0), chopped: true, ..Own::default() },
        price: Some(1.5),
    }
}

fn terrace(barrow: MeasureId) -> BatchFields {
    BatchFields {
        heaps: 6,
        name: "Terrace heap".into(),
        water_l: 72.0,
        shape: Shape::Box { length_cm: 110.0, width_cm: 110.0, height_cm: 120.0 },
        method: Some("bay-turned".into()),
        build_on: Some("2026-03-22".into()),
        starters: vec!["farm-ferment".into(), "charcoal".into()],
        items: vec![
            Item {
                lot: None,
                material: "barley-straw".into(),
                label: None,
                held: Held::Measures { amount: 3.5, measure: barrow },
                measure_litres: Some(70.0),
                own: Own { moisture: Fraction::new(0.14).ok(), ..Own::default() },
                tests: vec![ItemTest {
                    figure: TestedFigure::Density,
                    value: 0.05,
                    kind: TestKind::Weigh,
                    made_on: "2026-03-06".into(),
                }],
            },
            Item {
                lot: None,
                material: "sheep-manure".into(),
                label: None,
                held: Held::Kilograms { amount: 77.0 },
                measure_litres: None,
                own: Own::default(),
                tests: Vec::new(),
            },
        ],
    }
}

#[test]
fn a_lot_is_read_back_as_it_was_written_and_a_change_to_an_older_version_is_refused() {
    let farm = farm();
    let id = farm.straw(4.0);
    lot::update(&farm.conn, id, 1, &straw(), NOW).expect("is current");
    let read = lot::get(&farm.conn, id).expect("is there");
    assert_eq!((read.fields, read.version), (straw(), 2));
    assert_eq!(read.held, Held::Measures { amount: 4.0, measure: farm.barrow });
    let stale = lot::update(&farm.conn, id, 1, &straw(), NOW);
    assert!(matches!(stale, Err(StoreError::Stale { current: 2, given: 1, .. })), "{stale:?}");
}

#[test]
fn a_removed_lot_is_gone_until_it_is_brought_back() {
    let farm = farm();
    let id = farm.straw(1.0);
    lot::remove(&farm.conn, id, NOW).expect("removes");
    assert!(lot::of_site(&farm.conn, farm.site).expect("reads").is_empty());
    assert!(matches!(lot::remove(&farm.conn, id, NOW), Err(StoreError::NotFound { kind: "lot" })));
    assert_eq!(lot::ever(&farm.conn, id).expect("was there").held.amount(), 1.0);
    assert_eq!(lot::restore(&farm.conn, id).expect("restores").held.amount(), 1.0);
}

#[test]
fn a_batch_is_read_back_with_its_items_in_order() {
    let farm = farm();
    let id = BatchId::fresh();
    let saved = batch::insert(&farm.conn, id, farm.site, &terrace(farm.barrow), NOW).expect("writes");
    assert_eq!(saved.fields, terrace(farm.barrow));
    let ring =
        BatchFields { shape: Shape::Ring { diameter_cm: 100.0, height_cm: 110.0 }, ..terrace(farm.barrow) };
    let changed = batch::update(&farm.conn, id, 1, &ring, NOW).expect("writes");
    assert_eq!((changed.fields, changed.version), (ring, 2));
}

#[test]
fn two_batches_of_a_site_cannot_share_a_name_but_a_removed_one_frees_it() {
    let farm = farm();
    let first = BatchId::fresh();
    let insert = |id| batch::insert(&farm.conn, id, farm.site, &terrace(farm.barrow), NOW);
    insert(first).expect("writes");
    let taken = insert(BatchId::fresh());
    assert!(matches!(taken, Err(StoreError::NameTaken { kind: "batch", .. })), "{taken:?}");
    batch::remove(&farm.conn, first, NOW).expect("removes");
    insert(BatchId::fresh()).expect("the name is free");
    let clash = batch::restore(&farm.conn, first);
    assert!(matches!(&clash, Err(StoreError::NameTaken { name, .. }) if name == "Terrace heap"), "{clash:?}");
}

#[test]
fn what_is_not_there_is_said_so() {
    let farm = farm();
    let missing = batch::get(&farm.conn, BatchId::fresh());
    assert!(matches!(missing, Err(StoreError::NotFound { kind: "batch" })));
}

#[test]
fn the_catalogue_is_stamped_anew_with_every_change_of_an_own_material() {
    let farm = farm();
    let stamped = || stamp::of_catalogue(&farm.conn).expect("reads");
    let before = stamped();
    let mine = zymarch_core::stock::material::Material {
        id: "my-straw".into(),
        is_own: true,
        ..zymarch_core::stock::material::find("wheat-straw").expect("in the table").clone()
    };
    material::insert(&farm.conn, &mine, NOW).expect("writes");
    let after = stamped();
    assert!(after > before);
    material::remove(&farm.conn, "my-straw", NOW).expect("removes");
    assert!(stamped() > after);
}

async fn open() -> (Store, TempDir) {
    let folder = TempDir::new().expect("a folder");
    (Store::open(&folder.path().join("farm.sqlite")).await.expect("opens"), folder)
}

#[tokio::test]
async fn a_write_that_fails_half_way_leaves_nothing() {
    let (store, _folder) = open().await;
    let failed = store
        .write(|conn| {
            let site = zymarch_store::id::SiteId::fresh();
            site::insert(conn, site, &NewSite::named("Velluma Terraces"), NOW)?;
            batch::insert(conn, BatchId::fresh(), site, &terrace(MeasureId::fresh()), NOW).map(|_| ())
        })
        .await;
    assert!(matches!(failed, Err(StoreError::DanglingReference)), "{failed:?}");
    assert!(store.read(|conn| site::all(conn)).await.expect("reads").is_empty());
}

#[tokio::test]
async fn a_file_of_something_else_is_refused_and_left_alone() {
    let folder = TempDir::new().expect("a folder");
    let path = folder.path().join("notes.txt");
    let text = "this is no data file, and it is long enough to be read as one by mistake";
    std::fs::write(&path, text.repeat(20)).expect("writes");
    assert!(matches!(Store::open(&path).await, Err(OpenError::NotOurs { .. })));
    assert_eq!(std::fs::read_to_string(&path).expect("is there"), text.repeat(20));
}

#[tokio::test]
async fn a_file_of_a_later_version_is_refused() {
    let folder = TempDir::new().expect("a folder");
    let path = folder.path().join("farm.sqlite");
    rusqlite::Connection::open(&path)
        .and_then(|conn| conn.pragma_update(None, "user_version", 99))
        .expect("writes");
    assert!(matches!(Store::open(&path).await, Err(OpenError::LaterVersion { version: 99, .. })));
    assert!(matches!(zymarch_store::check_file(&path), Err(OpenError::LaterVersion { version: 99, .. })));
}
