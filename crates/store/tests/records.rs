//! Records in a real SQLite file: what is written is read back, and what must
//! be refused is refused.

use tempfile::TempDir;
use zymarch_core::field_test::{TestKind, TestedFigure};
use zymarch_core::heap::Shape;
use zymarch_core::quantity::Fraction;
use zymarch_core::stock::Own;
use zymarch_store::batch::{self, NewBatch};
use zymarch_store::held::Held;
use zymarch_store::id::{BatchId, MeasureId, SiteId};
use zymarch_store::item::{Item, ItemTest};
use zymarch_store::lot::{self, NewLot};
use zymarch_store::measure::{self, NewMeasure};
use zymarch_store::site::{self, NewSite};
use zymarch_store::{OpenError, Store, StoreError};

const NOW: &str = "2026-03-14T08:00:00Z";

struct Farm {
    store: Store,
    site: SiteId,
    barrow: MeasureId,
    _folder: TempDir,
}

async fn farm() -> Farm {
    let folder = TempDir::new().expect("a folder");
    let store = Store::open(&folder.path().join("farm.sqlite")).await.expect("opens");
    let (site, barrow) = store
        .write(|conn| {
            let site = site::insert(conn, &NewSite::named("Velluma Terraces"), NOW)?.id;
            let barrow = measure::insert(conn, site, &barrow(), NOW)?.id;
            Ok::<_, StoreError>((site, barrow))
        })
        .await
        .expect("writes");
    Farm { store, site, barrow, _folder: folder }
}

fn barrow() -> NewMeasure {
    NewMeasure::of_litres("barrow", "barrows", 70.0, "barrow")
}

fn straw(held: Held) -> NewLot {
    NewLot {
        material: "barley-straw".into(),
        label: Some("from the upper terrace".into()),
        held,
        own: Own { moisture: Fraction::new(0.14).ok(), c_n: Some(80.0), chopped: true, ..Own::default() },
        gathered_on: Some("2026-03-10".into()),
        price: Some(1.5),
    }
}

fn terrace(farm: &Farm) -> NewBatch {
    NewBatch {
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
                held: Held::Measures { count: 3.5, measure: farm.barrow },
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
                held: Held::Kilograms(77.0),
                measure_litres: None,
                own: Own::default(),
                tests: Vec::new(),
            },
        ],
    }
}

#[tokio::test]
async fn a_lot_is_read_back_as_it_was_written() {
    let farm = farm().await;
    let site = farm.site;
    for held in
        [Held::Kilograms(12.5), Held::Litres(300.0), Held::Measures { count: 4.0, measure: farm.barrow }]
    {
        let written =
            farm.store.write(move |conn| lot::insert(conn, site, &straw(held), NOW)).await.expect("writes");
        assert_eq!(written.fields, straw(held));
        let id = written.id;
        assert_eq!(farm.store.read(move |conn| lot::get(conn, id)).await.expect("is there"), written);
    }
}

#[tokio::test]
async fn a_removed_lot_is_gone_until_it_is_brought_back() {
    let farm = farm().await;
    let site = farm.site;
    let lot = farm
        .store
        .write(move |conn| lot::insert(conn, site, &straw(Held::Kilograms(1.0)), NOW))
        .await
        .expect("writes");
    farm.store.write(move |conn| lot::remove(conn, lot.id, NOW)).await.expect("removes");
    assert!(farm.store.read(move |conn| lot::of_site(conn, site)).await.expect("reads").is_empty());
    let twice = farm.store.write(move |conn| lot::remove(conn, lot.id, NOW)).await;
    assert!(matches!(twice, Err(StoreError::NotFound { kind: "lot" })));
    let back = farm.store.write(move |conn| lot::restore(conn, lot.id)).await.expect("restores");
    assert_eq!(back.fields, straw(Held::Kilograms(1.0)));
}

#[tokio::test]
async fn a_change_to_an_older_version_is_refused() {
    let farm = farm().await;
    let site = farm.site;
    let lot = farm
        .store
        .write(move |conn| lot::insert(conn, site, &straw(Held::Kilograms(1.0)), NOW))
        .await
        .expect("writes");
    let (store, id) = (&farm.store, lot.id);
    let change = |version, kg| {
        store.write(move |conn| lot::update(conn, id, version, &straw(Held::Kilograms(kg)), NOW))
    };
    assert_eq!(change(1, 2.0).await.expect("is current").version, 2);
    let stale = change(1, 3.0).await;
    assert!(matches!(stale, Err(StoreError::Stale { current: 2, given: 1, .. })), "{stale:?}");
}

#[tokio::test]
async fn a_batch_is_read_back_with_its_items_in_order() {
    let farm = farm().await;
    let (site, new) = (farm.site, terrace(&farm));
    let wanted = new.clone();
    let saved = farm.store.write(move |conn| batch::insert(conn, site, &new, NOW)).await.expect("writes");
    assert_eq!(saved.fields, wanted);
    let ring = NewBatch { shape: Shape::Ring { diameter_cm: 100.0, height_cm: 110.0 }, ..wanted };
    let again = ring.clone();
    let changed =
        farm.store.write(move |conn| batch::update(conn, saved.id, 1, &again, NOW)).await.expect("writes");
    assert_eq!((changed.fields, changed.version), (ring, 2));
}

#[tokio::test]
async fn two_batches_of_a_site_cannot_share_a_name_but_a_removed_one_frees_it() {
    let farm = farm().await;
    let (site, one, two, three) = (farm.site, terrace(&farm), terrace(&farm), terrace(&farm));
    let first = farm.store.write(move |conn| batch::insert(conn, site, &one, NOW)).await.expect("writes");
    let taken = farm.store.write(move |conn| batch::insert(conn, site, &two, NOW)).await;
    assert!(matches!(taken, Err(StoreError::NameTaken { kind: "batch", .. })), "{taken:?}");
    farm.store.write(move |conn| batch::remove(conn, first.id, NOW)).await.expect("removes");
    farm.store.write(move |conn| batch::insert(conn, site, &three, NOW)).await.expect("the name is free");
    let clash = farm.store.write(move |conn| batch::restore(conn, first.id)).await;
    assert!(matches!(clash, Err(StoreError::NameTaken { .. })), "{clash:?}");
}

#[tokio::test]
async fn a_write_that_fails_half_way_leaves_nothing() {
    let farm = farm().await;
    let (site, mut new) = (farm.site, terrace(&farm));
    new.items[1].held = Held::Measures { count: 1.0, measure: MeasureId(999) };
    new.items[1].measure_litres = Some(70.0);
    let failed = farm.store.write(move |conn| batch::insert(conn, site, &new, NOW)).await;
    assert!(matches!(failed, Err(StoreError::DanglingReference)), "{failed:?}");
    assert!(farm.store.read(move |conn| batch::of_site(conn, site)).await.expect("reads").is_empty());
}

#[tokio::test]
async fn what_is_not_there_is_said_so() {
    let farm = farm().await;
    let missing = farm.store.read(|conn| batch::get(conn, BatchId(7))).await;
    assert!(matches!(missing, Err(StoreError::NotFound { kind: "batch" })));
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
    let refused = Store::open(&path).await.expect_err("is later").to_string();
    assert!(refused.contains("later version"), "{refused}");
}
