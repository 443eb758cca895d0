//! A course that goes on from what was kept is the one that is made anew.

use std::sync::Arc;

use jiff::{Span, Timestamp, tz::TimeZone};
use zymarch_store::{Connection, up_to_date};

use super::*;
use crate::transaction::Kept;
use crate::{Who, load};

/// The course of a heap of the demo farm so many hours after the farm was begun.
fn course(
    conn: &Connection,
    kept: &Arc<Kept>,
    catalogue: &Arc<Catalogue>,
    hours: i64,
) -> (Arc<Course>, Heap) {
    let begun: Timestamp = "2026-03-14T08:00:00Z".parse().expect("a time");
    let now = begun + Span::new().hours(hours);
    let today = now.to_zoned(TimeZone::UTC).date();
    let tx = Transaction::new(conn, (now, today), Arc::clone(catalogue)).with(Arc::clone(kept), true);
    let site = zymarch_store::site::all(conn).expect("reads")[0].id;
    let rows = heap::of_site(conn, site).expect("reads");
    let row = rows.iter().find(|row| row.name == "Lower bay").expect("is there");
    let heap = heap::get(conn, row.id).expect("is there");
    let series = series::of(&tx, &heap).expect("reads");
    (of(&tx, &heap, &series).expect("is reckoned"), heap)
}

#[test]
fn what_goes_on_hour_by_hour_is_what_is_made_anew() {
    let mut conn = Connection::open_in_memory().expect("opens");
    up_to_date(&mut conn).expect("migrates");
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/");
    let file = |name: &str| std::fs::read(format!("{folder}{name}"));
    let farm = zymarch_formats::farm::read(file).expect("is sound");
    let catalogue = Arc::new(Catalogue::book());
    let begun: Timestamp = "2026-03-14T08:00:00Z".parse().expect("a time");
    let day = begun.to_zoned(TimeZone::UTC).date();
    let mut tx = Transaction::new(&conn, (begun, day), Arc::clone(&catalogue));
    load::first(&mut tx, &Who::local("tests"), farm).expect("loads");
    drop(tx);

    let kept = Arc::new(Kept::default());
    for hours in [0, 1, 5, 30, 31] {
        let (goes_on, _) = course(&conn, &kept, &catalogue, hours);
        let (anew, _) = course(&conn, &Arc::new(Kept::default()), &catalogue, hours);
        assert_eq!(goes_on.hours.len(), anew.hours.len(), "{hours}");
        for (one, other) in
            goes_on.hours.each().zip(anew.hours.each()).chain(goes_on.ahead.each().zip(anew.ahead.each()))
        {
            assert_eq!(one.hour, other.hour);
            for zone in [0, 1] {
                assert!((one.temp_c[zone] - other.temp_c[zone]).abs() < 0.05, "{hours}: {one:?} {other:?}");
            }
            assert!((one.moisture - other.moisture).abs() < 1e-3 && (one.dry_kg - other.dry_kg).abs() < 0.1);
        }
    }
    // Asked again at the same hour it is the same one, and not made again.
    let (once, _) = course(&conn, &kept, &catalogue, 31);
    let (again, _) = course(&conn, &kept, &catalogue, 31);
    assert!(Arc::ptr_eq(&once, &again));
}
