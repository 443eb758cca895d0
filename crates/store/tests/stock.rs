//! Stock in a real SQLite file: what comes and goes, tests, own materials, sites.

use tempfile::TempDir;
use zymarch_core::climate::{Climate, Month};
use zymarch_core::field_test::TestKind;
use zymarch_core::material::{Material, find};
use zymarch_core::stock::Own;
use zymarch_store::field_test::{self, NewFieldTest};
use zymarch_store::held::Held;
use zymarch_store::id::{LotId, SiteId};
use zymarch_store::lot::{self, NewLot};
use zymarch_store::lot_event::{self, Change, EventKind};
use zymarch_store::material;
use zymarch_store::measure::{self, MeasureWay, NewMeasure};
use zymarch_store::site::{self, NewSite};
use zymarch_store::sorted_out::{self, NewSortedOut};
use zymarch_store::{Store, StoreError};

const NOW: &str = "2026-03-14T08:00:00Z";

async fn farm() -> (Store, SiteId, TempDir) {
    let folder = TempDir::new().expect("a folder");
    let store = Store::open(&folder.path().join("farm.sqlite")).await.expect("opens");
    let site = store
        .write(|conn| Ok::<_, StoreError>(site::insert(conn, &NewSite::named("Velluma Terraces"), NOW)?.id))
        .await
        .expect("writes");
    (store, site, folder)
}

fn dung(kg: f64) -> NewLot {
    NewLot {
        material: "sheep-manure".into(),
        label: None,
        held: Held::Kilograms(kg),
        own: Own::default(),
        gathered_on: None,
        price: None,
    }
}

fn change(kind: EventKind, delta: f64) -> Change {
    Change { kind, delta, litres: 0.0, taker: None, note: None }
}

fn kinds(conn: &zymarch_store::Connection, lot: LotId) -> Vec<(&'static str, f64)> {
    let events = lot_event::of_lot(conn, lot).expect("reads");
    events.into_iter().map(|event| (event.kind.as_str(), event.delta)).collect()
}

#[tokio::test]
async fn a_lot_keeps_its_small_history() {
    let (store, site, _folder) = farm().await;
    store
        .write(move |conn| {
            let id = lot::insert(conn, site, &dung(10.0), NOW)?.id;
            lot_event::change(conn, id, &change(EventKind::Delivery, 5.0), NOW)?;
            lot_event::change(conn, id, &change(EventKind::Use, -3.0), NOW)?;
            assert_eq!(lot::get(conn, id)?.fields.held, Held::Kilograms(12.0));
            assert_eq!(kinds(conn, id), [("use", -3.0), ("delivery", 5.0), ("start", 10.0)]);

            let last = lot_event::of_lot(conn, id)?[0].id;
            assert_eq!(lot_event::undo(conn, last, NOW)?, id);
            assert_eq!(lot::get(conn, id)?.fields.held, Held::Kilograms(15.0));
            let start = lot_event::of_lot(conn, id)?[1].id;
            assert!(matches!(lot_event::undo(conn, start, NOW), Err(StoreError::NotFound { .. })));

            let more_than_there_is = lot_event::change(conn, id, &change(EventKind::Use, -15.1), NOW);
            assert!(matches!(more_than_there_is, Err(StoreError::NotEnough { left }) if left == 15.0));
            Ok::<_, StoreError>(())
        })
        .await
        .expect("holds");
}

#[tokio::test]
async fn counting_anew_within_the_hour_is_one_entry() {
    let (store, site, _folder) = farm().await;
    store
        .write(move |conn| {
            let lot = lot::insert(conn, site, &dung(10.0), NOW)?;
            let (id, mut version) = (lot.id, lot.version);
            for (kg, at) in
                [(9.0, "2026-03-14T09:01:00Z"), (8.0, "2026-03-14T09:02:00Z"), (7.0, "2026-03-14T11:00:00Z")]
            {
                version = lot::update(conn, id, version, &dung(kg), at)?.version;
            }
            assert_eq!(kinds(conn, id), [("count", -1.0), ("count", -2.0), ("start", 10.0)]);
            lot::update(conn, id, version, &NewLot { label: Some("new name".into()), ..dung(7.0) }, NOW)?;
            assert_eq!(kinds(conn, id).len(), 3, "a new name is no new count");
            Ok::<_, StoreError>(())
        })
        .await
        .expect("holds");
}

#[tokio::test]
async fn tests_are_changed_by_version_removed_and_brought_back() {
    let (store, site, _folder) = farm().await;
    store
        .write(move |conn| {
            let lot = lot::insert(conn, site, &dung(10.0), NOW)?.id;
            let new = |readings: &str| NewFieldTest {
                kind: TestKind::Squeeze,
                made_on: "2026-03-14".into(),
                readings: readings.into(),
            };
            let test = field_test::insert(conn, lot, &new(r#"{"feel":"holds"}"#), NOW)?;
            let changed = field_test::update(conn, test.id, 1, &new(r#"{"feel":"drops"}"#), NOW)?;
            assert_eq!((changed.version, changed.fields.readings.as_str()), (2, r#"{"feel":"drops"}"#));
            assert!(matches!(
                field_test::update(conn, test.id, 1, &new("{}"), NOW),
                Err(StoreError::Stale { current: 2, given: 1, .. })
            ));
            assert!(field_test::insert(conn, lot, &new("not json"), NOW).is_err());
            field_test::remove(conn, test.id, NOW)?;
            assert_eq!(field_test::of_site(conn, site)?.len(), 0);
            field_test::restore(conn, test.id)?;
            assert_eq!(field_test::of_lot(conn, lot)?.len(), 1);
            Ok::<_, StoreError>(())
        })
        .await
        .expect("holds");
}

#[tokio::test]
async fn own_materials_come_back_as_they_were_put_in() {
    let (store, _, _folder) = farm().await;
    let mine = Material {
        id: "my-straw".into(),
        is_own: true,
        ..find("barley-straw").expect("in the table").clone()
    };
    store
        .write(move |conn| {
            assert_eq!(material::insert(conn, &mine, NOW)?.material, mine);
            assert!(matches!(material::insert(conn, &mine, NOW), Err(StoreError::NameTaken { .. })));
            let changed = Material { note: "dusty".into(), ..mine.clone() };
            assert!(matches!(
                material::update(conn, 9, &changed, NOW),
                Err(StoreError::Stale { current: 1, .. })
            ));
            assert_eq!(material::update(conn, 1, &changed, NOW)?.version, 2);
            material::remove(conn, "my-straw", NOW)?;
            assert_eq!((material::all(conn)?.len(), material::ever(conn)?.len()), (0, 1));
            // A file brings it back.
            material::put(conn, &mine, NOW)?;
            assert_eq!(material::all(conn)?[0].material, mine);
            Ok::<_, StoreError>(())
        })
        .await
        .expect("holds");
}

#[tokio::test]
async fn measures_keep_the_way_their_volume_is_known() {
    let (store, site, _folder) = farm().await;
    store
        .write(move |conn| {
            let basket = measure::insert(
                conn,
                site,
                &NewMeasure::of_litres("basket", "baskets", 22.0, "basket"),
                NOW,
            )?;
            let ways = [
                MeasureWay::Cylinder { across_cm: 30.0, height_cm: 40.0 },
                MeasureWay::Cone { top_cm: 30.0, bottom_cm: 20.0, height_cm: 40.0 },
                MeasureWay::Box { length_cm: 1.0, width_cm: 2.0, height_cm: 3.0 },
                MeasureWay::Counted { count: 4.0, litres_each: 12.0 },
                MeasureWay::Measures { count: 6.0, of: basket.id },
            ];
            for (index, way) in ways.into_iter().enumerate() {
                let name = format!("number {index}");
                let new =
                    NewMeasure { way, heaped: 1.2, ..NewMeasure::of_litres(&name, &name, 10.0, "other") };
                assert_eq!(measure::insert(conn, site, &new, NOW)?.fields, new);
            }
            assert!(matches!(measure::remove(conn, basket.id, NOW), Err(StoreError::InUse { .. })));
            Ok::<_, StoreError>(())
        })
        .await
        .expect("holds");
}

#[tokio::test]
async fn sites_keep_their_climate_and_one_must_stay() {
    let (store, first, _folder) = farm().await;
    let months = [Month { mean_c: 13.0, swing_c: 7.0, rain_mm: 90.0 }; 12];
    store
        .write(move |conn| {
            let new = NewSite {
                altitude_m: Some(2900.0),
                climate: Some(Climate(months)),
                ..NewSite::named("Lower plot")
            };
            let second = site::insert(conn, &new, NOW)?;
            assert_eq!(second.fields, new);
            let bare = site::update(conn, second.id, 1, &NewSite::named("Lower plot"))?;
            assert_eq!(bare.fields.climate, None);
            site::remove(conn, first, NOW)?;
            assert!(matches!(site::remove(conn, second.id, NOW), Err(StoreError::LastOne { .. })));
            site::restore(conn, first)?;
            assert_eq!(site::all(conn)?.len(), 2);
            Ok::<_, StoreError>(())
        })
        .await
        .expect("holds");
}

#[tokio::test]
async fn what_was_sorted_out_is_kept_and_can_be_taken_back() {
    let (store, site, _folder) = farm().await;
    store
        .write(move |conn| {
            let new = NewSortedOut {
                material: "pet-faeces".into(),
                label: None,
                kg: Some(0.5),
                went_to: Some("buried".into()),
                made_on: "2026-03-14".into(),
            };
            let record = sorted_out::insert(conn, site, &new, NOW)?;
            assert_eq!(sorted_out::of_site(conn, site)?, std::slice::from_ref(&record));
            sorted_out::remove(conn, record.id, NOW)?;
            assert_eq!(sorted_out::of_site(conn, site)?, []);
            assert_eq!(sorted_out::restore(conn, record.id)?, record);
            Ok::<_, StoreError>(())
        })
        .await
        .expect("holds");
}

/// However things come and go, what is left is what came less what went, and never below nothing.
#[tokio::test]
async fn a_history_adds_up_to_what_is_left() {
    let (store, site, _folder) = farm().await;
    store
        .write(move |conn| {
            let id = lot::insert(conn, site, &dung(20.0), NOW)?.id;
            let mut left = 20.0;
            // A walk that repeats itself exactly: 7 steps of the numbers 0 to 12.
            for step in 0..60_i32 {
                let kg = f64::from((step * 7) % 13) / 2.0;
                let (kind, delta) = match step % 3 {
                    0 => (EventKind::Delivery, kg),
                    1 => (EventKind::Use, -kg),
                    _ => (EventKind::Spoiled, -kg / 2.0),
                };
                match lot_event::change(conn, id, &change(kind, delta), NOW) {
                    Ok(()) => left += delta,
                    Err(StoreError::NotEnough { left: there }) => {
                        assert!(there + delta < 0.0 && there == left)
                    }
                    Err(other) => return Err(other),
                }
                assert_eq!(lot::get(conn, id)?.fields.held, Held::Kilograms(left));
            }
            let events = lot_event::of_lot(conn, id)?;
            let sum: f64 = events.iter().map(|event| event.delta).sum();
            assert!((sum - left).abs() < 1e-9, "{sum} and {left}");
            assert_eq!(events[0].left, Held::Kilograms(left));
            // Undone from the newest on, everything goes back to the start.
            for event in events.iter().filter(|event| event.kind.can_be_undone()) {
                lot_event::undo(conn, event.id, NOW)?;
            }
            assert_eq!(lot::get(conn, id)?.fields.held, Held::Kilograms(20.0));
            Ok::<_, StoreError>(())
        })
        .await
        .expect("holds");
}
