//! Temperatures by the thousand: kept once, never changed, taken out whole; photos; probes.

use serde_json::json;
use zymarch_core::tend::entry::{Source, Spot, Tended};
use zymarch_store::id::{EntryId, HeapId, ProbeId};
use zymarch_store::log::{self, About, Body, Entry, Readings, Tending};
use zymarch_store::probe::{self, Probe};
use zymarch_store::reading::{self, Photo, Point};
use zymarch_store::{StoreError, append};

mod support;
use support::farm;

fn point(at_ms: i64, place: Spot, temp_c: f64) -> Point {
    Point { at_ms, place, depth_cm: None, temp_c }
}

#[test]
fn a_pack_holds_each_point_once_and_stays_as_it_was_read() {
    let farm = farm();
    let conn = &farm.conn;
    let heap = HeapId::fresh();
    let about = About::Heap(heap);
    let body = Body::Readings(Readings { source: Source::File, name: "rod.csv".into(), probe: None });
    let of = farm.entry(About::Heap(heap), body);
    append(conn, &of).expect("is done");
    let pack = reading::open(conn, of.id, about, (None, 0)).expect("is done");
    let three = [point(20, Spot::Core, 57.1), point(10, Spot::Core, 56.0), point(10, Spot::Edge, 31.5)];
    assert_eq!(reading::add(conn, pack, 99, &three).expect("is done"), 3);
    let again = [point(10, Spot::Core, 70.0), point(30, Spot::Core, 58.0)];
    assert_eq!(reading::add(conn, pack, 120, &again).expect("is done"), 1, "what is known stays");
    let read = reading::of_pack(conn, pack, 7).expect("is done");
    let told: Vec<_> = read.iter().map(|of| (of.at_ms, of.place, of.temp_c, of.recorded_ms)).collect();
    let core = Spot::Core;
    assert_eq!(
        told,
        [(10, core, 56.0, 99), (10, Spot::Edge, 31.5, 99), (20, core, 57.1, 99), (30, core, 58.0, 120)]
    );
    assert!(read.iter().all(|of| of.source == 7 && of.depth_cm.is_none()));
    let packs = reading::packs(conn, about).expect("is done");
    assert_eq!((packs[0].readings, packs[0].range_c, packs[0].entry), (4, Some([31.5, 58.0]), of.id));
    assert_eq!(reading::stamp(conn, about).expect("is done"), 5);
    for sql in ["UPDATE reading SET temp_c = 1", "DELETE FROM reading"] {
        assert!(conn.execute(sql, []).expect_err("is refused").to_string().contains("what was read stays"));
    }
}

#[test]
fn what_was_tended_comes_back_as_it_was_written() {
    let farm = farm();
    let conn = &farm.conn;
    let heap = HeapId::fresh();
    let all = [
        json!({"kind": "temperature", "temp_c": 57.5, "place": "half-way", "depth_cm": 40.0, "by": "thermometer"}),
        json!({"kind": "squeeze", "feel": "damp"}),
        json!({"kind": "seen", "signs": ["white-threads", "steam"]}),
        json!({"kind": "water", "litres": 20.0, "spread": "top"}),
        json!({"kind": "uncover"}),
    ];
    for (at, told) in all.iter().enumerate() {
        let what: Tended<_> = serde_json::from_value(told.clone()).expect("reads");
        let body = Body::Tended(Box::new(Tending { what, note: Some("wet hands".into()) }));
        append(conn, &Entry { at_ms: at as i64, ..farm.entry(About::Heap(heap), body) }).expect("is done");
    }
    let back = log::of(conn, About::Heap(heap)).expect("is done");
    for (told, of) in all.iter().zip(&back) {
        let Body::Tended(tending) = &of.body else { panic!("tended") };
        assert_eq!(&serde_json::to_value(&tending.what).expect("is json"), told);
        assert_eq!(told["kind"], of.kind().as_str());
        assert_eq!(tending.note.as_deref(), Some("wet hands"));
    }
}

#[test]
fn a_photo_belongs_to_its_entry_and_is_of_a_size() {
    let farm = farm();
    let conn = &farm.conn;
    let heap = HeapId::fresh();
    let of =
        farm.entry(About::Heap(heap), Body::Tended(Box::new(Tending { what: Tended::Photo, note: None })));
    append(conn, &of).expect("is done");
    let photo = Photo { media: "image/jpeg".into(), bytes: vec![0xff, 0xd8, 0xff] };
    reading::keep_photo(conn, of.id, &photo).expect("is done");
    assert_eq!(reading::photo(conn, of.id).expect("is done"), photo);
    assert!(matches!(reading::photo(conn, EntryId::fresh()), Err(StoreError::NotFound { .. })));
    let large = Photo { bytes: vec![0; 1_048_577], ..photo.clone() };
    let other = Entry { id: EntryId::fresh(), ..of };
    append(conn, &other).expect("is done");
    assert!(reading::keep_photo(conn, other.id, &large).is_err());
}

#[test]
fn a_probe_is_known_by_its_token_until_it_is_cut_off() {
    let farm = farm();
    let conn = &farm.conn;
    let of = Probe {
        id: ProbeId::fresh(),
        site: farm.site,
        about: About::Heap(HeapId::fresh()),
        name: "rod".into(),
        is_simulated: true,
        made_ms: 5,
        seen_ms: None,
        ended_ms: None,
    };
    let token = [7; 32];
    probe::insert(conn, &token, &of).expect("is done");
    assert_eq!(probe::of_token(conn, &token).expect("is done").as_ref(), Some(&of));
    probe::seen(conn, of.id, 9).expect("is done");
    assert_eq!(probe::of_token(conn, &token).expect("is done").and_then(|known| known.seen_ms), Some(9));
    probe::end(conn, of.id, 12).expect("is done");
    assert_eq!(probe::of_token(conn, &token).expect("is done"), None);
    assert_eq!(probe::get(conn, of.id).expect("is done").ended_ms, Some(12));
    assert_eq!(probe::of(conn, of.about).expect("is done").len(), 1);
}
