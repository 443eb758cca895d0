//! The log only grows, and what stands is what it says, in whatever order it arrived.

mod support;

use proptest::prelude::*;
use support::{Farm, NOW_MS, farm, heap};
use zymarch_core::plan::heap::Shape;
use zymarch_core::plan::layers::LayerRole;
use zymarch_core::stock::field_test::TestKind;
use zymarch_store::Appended;
use zymarch_store::heap as heaps;
use zymarch_store::held::Held;
use zymarch_store::id::{BatchId, HeapId, LotId, SortedOutId, TestId};
use zymarch_store::item::Item;
use zymarch_store::log::{
    self, About, Begun, Body, Entry, Laid, Portion, SortedOut, Step, Taken, Taker, Tested,
};
use zymarch_store::{StoreError, field_test, projection, sorted_out};

fn append(farm: &Farm, entry: &Entry) -> Appended {
    zymarch_store::append(&farm.conn, entry).expect("appends")
}

fn happened(farm: &Farm, about: About, body: Body) -> Entry {
    let entry = farm.entry(about, body);
    assert_eq!(append(farm, &entry), Appended::New);
    entry
}

#[test]
fn sending_an_entry_twice_changes_nothing_and_saying_something_else_by_its_id_is_refused() {
    let farm = farm();
    let lot = farm.straw(4.0);
    let used = happened(&farm, About::Lot(lot), Body::Used(farm.moved(-1.0)));
    assert_eq!((append(&farm, &used), farm.amount(lot)), (Appended::Known, 3.0));
    let other = Entry { body: Body::Used(farm.moved(-2.0)), ..used };
    assert!(matches!(zymarch_store::append(&farm.conn, &other), Err(StoreError::EntryTaken)));
    assert_eq!(farm.amount(lot), 3.0);
}

#[test]
fn undoing_writes_an_entry_and_undoing_that_brings_it_back() {
    let farm = farm();
    let lot = farm.straw(4.0);
    let used = happened(&farm, About::Lot(lot), Body::Used(farm.moved(-1.0)));
    let undo = farm.undo(&used);
    append(&farm, &undo);
    assert_eq!(farm.amount(lot), 4.0);
    append(&farm, &farm.undo(&undo));
    assert_eq!(farm.amount(lot), 3.0);
    assert_eq!(log::of(&farm.conn, About::Lot(lot)).expect("reads").len(), 4, "nothing was deleted");
}

#[test]
fn the_file_itself_refuses_to_change_or_delete_an_entry() {
    let farm = farm();
    let _lot = farm.straw(4.0);
    for sql in ["DELETE FROM entry", "UPDATE entry SET at_ms = 0"] {
        let refused = farm.conn.execute(sql, []).expect_err("the log only grows").to_string();
        assert!(refused.contains("only grows"), "{refused}");
    }
}

#[test]
fn an_entry_that_arrives_late_counts_when_it_happened() {
    let farm = farm();
    let lot = farm.straw(4.0);
    let count = Entry { at_ms: NOW_MS + 2000, ..farm.entry(About::Lot(lot), Body::Counted(farm.set(10.0))) };
    append(&farm, &count);
    // Used before it was counted: the count knows already.
    let used = Entry { at_ms: NOW_MS + 1000, ..farm.entry(About::Lot(lot), Body::Used(farm.moved(-3.0))) };
    append(&farm, &used);
    assert_eq!(farm.amount(lot), 10.0);
    let used = Entry { at_ms: NOW_MS + 3000, ..farm.entry(About::Lot(lot), Body::Used(farm.moved(-3.0))) };
    append(&farm, &used);
    assert_eq!(farm.amount(lot), 7.0);
}

#[test]
fn what_a_heap_took_is_found_again_but_for_what_was_taken_back() {
    let farm = farm();
    let (lot, other) = (farm.straw(4.0), farm.straw(4.0));
    let (mine, yours) = (Taker::Heap(heap()), Taker::Batch(BatchId::fresh()));
    let took = |lot, by, amount| {
        happened(&farm, About::Lot(lot), Body::Taken(Taken { by, moved: farm.moved(amount) }))
    };
    took(lot, mine, -2.0);
    took(other, yours, -1.0);
    let wrong = took(other, mine, -3.0);
    append(&farm, &farm.undo(&wrong));
    let taken = log::taken_by(&farm.conn, mine).expect("reads");
    assert_eq!(taken.iter().map(|(lot, _)| *lot).collect::<Vec<_>>(), [lot]);
    assert_eq!((farm.amount(lot), farm.amount(other)), (2.0, 3.0));
}

fn step(cycle: u32, amount: f64) -> Step {
    Step {
        role: LayerRole::Mix,
        cycle: Some(cycle),
        portions: vec![Portion { item: 0, amount }],
        water_l: 10.0,
        beside_l: 0.0,
    }
}

fn begun(farm: &Farm, lot: LotId) -> Begun {
    Begun {
        batch: None,
        name: "Terrace heap".into(),
        shape: Shape::Box { length_cm: 110.0, width_cm: 110.0, height_cm: 120.0 }.into(),
        method: Some("bay-turned".into()),
        items: vec![Item {
            lot: Some(lot),
            material: "barley-straw".into(),
            label: None,
            held: Held::Measures { amount: 6.0, measure: farm.barrow },
            measure_litres: Some(70.0),
            own: Default::default(),
            tests: Vec::new(),
        }],
        steps: vec![step(1, 2.0), step(2, 2.0), step(3, 2.0)],
    }
}

fn laid(at: u32, amount: f64) -> Body {
    Body::Laid(Laid { at, step: step(at + 1, amount), items: Vec::new() })
}

#[test]
fn a_heap_is_what_was_done_and_not_undone() {
    let farm = farm();
    let (id, lot) = (heap(), farm.straw(9.0));
    let about = About::Heap(id);
    happened(&farm, about, Body::Begun(begun(&farm, lot)));
    happened(&farm, about, laid(0, 2.0));
    let wrong = happened(&farm, about, laid(1, 5.0));
    append(&farm, &farm.undo(&wrong));
    happened(&farm, about, Body::Planned { from: 1, steps: vec![step(2, 4.0)] });
    let got = heaps::get(&farm.conn, id).expect("is there");
    assert_eq!((got.row.laid, got.row.planned, got.stand.rest()), (1, 2, &[step(2, 4.0)][..]));
    assert_eq!(got.row.version, 5);
    happened(&farm, about, Body::Removed);
    assert!(matches!(heaps::get(&farm.conn, id), Err(StoreError::NotFound { kind: "heap" })));
    let removal = log::removal(&farm.conn, About::Heap(id), "heap").expect("was there").expect("was removed");
    append(&farm, &farm.undo(&removal));
    assert_eq!(heaps::row(&farm.conn, id).expect("is back").laid, 1);
}

#[test]
fn a_layer_that_arrives_before_the_one_below_it_waits_for_it() {
    let farm = farm();
    let (id, lot) = (heap(), farm.straw(9.0));
    let about = About::Heap(id);
    let first = Entry { at_ms: NOW_MS + 1000, ..farm.entry(about, laid(0, 2.0)) };
    let second = Entry { at_ms: NOW_MS + 2000, ..farm.entry(about, laid(1, 3.0)) };
    append(&farm, &second);
    assert!(heaps::row(&farm.conn, id).is_err(), "nothing of it was begun yet");
    happened(&farm, about, Body::Begun(begun(&farm, lot)));
    assert_eq!(heaps::row(&farm.conn, id).expect("is there").laid, 0);
    append(&farm, &first);
    assert_eq!(heaps::row(&farm.conn, id).expect("is there").laid, 2);
}

/// Something that may happen on a farm, told by small numbers.
#[derive(Debug, Clone)]
struct Chance {
    what: u8,
    which: u8,
    amount: f64,
    at_s: i64,
}

fn any_chance() -> impl Strategy<Value = Chance> {
    (0..15_u8, 0..8_u8, 0.25..8.0_f64, 0..5_i64).prop_map(|(what, which, amount, at_s)| Chance {
        what,
        which,
        amount,
        at_s,
    })
}

/// The entries of a random history: lots, tests, heaps, batches, things sorted out, and
/// undoings of any of them, undoings too.
fn history(farm: &Farm, lots: &[LotId], chances: &[Chance]) -> Vec<Entry> {
    let heaps: Vec<HeapId> = (0..2).map(|_| heap()).collect();
    let (test, batch, out) = (TestId::fresh(), BatchId::fresh(), SortedOutId::fresh());
    let mut entries: Vec<Entry> =
        heaps.iter().map(|id| farm.entry(About::Heap(*id), Body::Begun(begun(farm, lots[0])))).collect();
    for chance in chances {
        let which = usize::from(chance.which);
        let lot = lots[which % lots.len()];
        let (about_lot, about_heap) = (About::Lot(lot), About::Heap(heaps[which % 2]));
        let by = if which % 2 == 0 { Taker::Heap(heaps[0]) } else { Taker::Batch(batch) };
        let (about, body) = match chance.what {
            0 => (about_lot, Body::Delivered(farm.moved(chance.amount))),
            1 => (about_lot, Body::Used(farm.moved(-chance.amount))),
            2 => (about_lot, Body::Spoiled(farm.moved(-chance.amount))),
            3 => (about_lot, Body::Counted(farm.set(chance.amount))),
            4 => (about_lot, Body::Gathered { on: format!("2026-03-0{}", chance.which + 1) }),
            5 => (about_lot, Body::Taken(Taken { by, moved: farm.moved(-chance.amount) })),
            6 => (About::Test(test), tested(lot, chance)),
            7 => (about_heap, laid(u32::from(chance.which % 4), chance.amount)),
            8 => (about_heap, Body::Planned { from: u32::from(chance.which % 4), steps: vec![step(9, 1.0)] }),
            9 => (about_heap, Body::Ended { from: u32::from(chance.which % 4) }),
            10 => (about_heap, if which < 4 { Body::StockTaken } else { Body::StockReturned }),
            11 => (About::Batch(batch), if which < 4 { Body::StockTaken } else { Body::StockReturned }),
            12 => (About::SortedOut(out), sorted(chance)),
            13 if which == 0 => (About::SortedOut(out), Body::Removed),
            _ => {
                let back = &entries[which % entries.len()];
                entries.push(Entry { at_ms: back.at_ms + chance.at_s, ..farm.undo(back) });
                continue;
            }
        };
        entries.push(Entry { at_ms: NOW_MS + chance.at_s * 1000, ..farm.entry(about, body) });
    }
    entries
}

fn tested(lot: LotId, chance: &Chance) -> Body {
    Body::Tested(Tested {
        lot,
        kind: TestKind::Drying,
        made_on: "2026-03-01".into(),
        readings: serde_json::json!({"kind": "drying", "dish_g": chance.amount}),
    })
}

fn sorted(chance: &Chance) -> Body {
    Body::SortedOut(SortedOut {
        material: "pet-faeces".into(),
        label: None,
        kg: Some(chance.amount),
        went_to: None,
        made_on: "2026-03-01".into(),
    })
}

/// All that can be read of a farm, as text.
fn all_of(farm: &Farm, lots: &[LotId]) -> String {
    let stock: Vec<_> =
        lots.iter().map(|lot| (farm.amount(*lot), zymarch_store::lot::get(&farm.conn, *lot))).collect();
    let heaps: Vec<_> = heaps::of_site(&farm.conn, farm.site)
        .expect("reads")
        .iter()
        .map(|row| heaps::get(&farm.conn, row.id).map(|heap| heap.stand))
        .collect();
    let tests = field_test::of_site(&farm.conn, farm.site).expect("reads");
    let out = sorted_out::of_site(&farm.conn, farm.site).expect("reads");
    format!("{stock:?} {heaps:?} {tests:?} {out:?}")
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(96))]

    /// Rebuilt from the log, what stands is what stood, whatever happened; and a
    /// file in which it is not is found out.
    #[test]
    fn what_stands_rebuilt_from_the_log_is_what_stood(chances in prop::collection::vec(any_chance(), 1..40)) {
        let farm = farm();
        let lots = [farm.straw(4.0), farm.straw(2.0)];
        for entry in history(&farm, &lots, &chances) {
            append(&farm, &entry);
        }
        let before = all_of(&farm, &lots);
        let checked = projection::check(&farm.conn).expect("reads");
        prop_assert_eq!(&checked.differences, &[]);
        prop_assert_eq!(all_of(&farm, &lots), before);
        farm.conn.execute("UPDATE lot_stock SET amount = amount + 1", []).expect("writes");
        prop_assert!(!projection::check(&farm.conn).expect("reads").differences.is_empty());
    }

    /// In whatever order entries arrive, the same stands in the end.
    #[test]
    fn the_order_of_arrival_changes_nothing(
        chances in prop::collection::vec(any_chance(), 1..30), seed in any::<u64>(),
    ) {
        let farm = farm();
        let lots = [farm.straw(4.0), farm.straw(2.0)];
        let entries = history(&farm, &lots, &chances);
        let other = support::Farm { conn: copy(&farm), ..farm };
        let farm = support::Farm { conn: copy(&other), site: other.site, barrow: other.barrow };
        for entry in &entries {
            append(&farm, entry);
        }
        let mut shuffled = entries;
        // A plain linear generator is shuffle enough.
        let mut state = seed;
        for place in (1..shuffled.len()).rev() {
            state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
            shuffled.swap(place, usize::try_from(state >> 33).unwrap_or(0) % (place + 1));
        }
        for entry in &shuffled {
            append(&other, entry);
        }
        prop_assert_eq!(all_of(&farm, &lots), all_of(&other, &lots));
    }
}

fn copy(farm: &Farm) -> zymarch_store::Connection {
    let mut to = zymarch_store::Connection::open_in_memory().expect("opens");
    rusqlite::backup::Backup::new(&farm.conn, &mut to)
        .and_then(|backup| backup.run_to_completion(1000, std::time::Duration::ZERO, None))
        .expect("copies");
    to
}
