//! A farm through its days: whatever is done, in whatever order it arrives, what stands
//! is what the log says, and nothing is done twice.

mod support;

use proptest::prelude::*;
use support::Place;
use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_farm::build::act::{self, HeapAct, LayRequest};
use zymarch_farm::build::heap::{self, Heap};
use zymarch_farm::build::{begin, supply};
use zymarch_farm::command::{Add, Remove, Restore};
use zymarch_farm::stock::history::{self, LotAct, LotEventFields};
use zymarch_farm::stock::{lot, material};
use zymarch_formats::build::BuildPortion;
use zymarch_store::id::{EntryId, HeapId, LotId};

fn begun(place: &mut Place) -> HeapId {
    let batch = place.batch("Terrace heap");
    place.act(|tx, who| begin(tx, who, (batch, None))).expect("begins")
}

fn shown(place: &mut Place, id: HeapId) -> Heap {
    place.act(|tx, _| heap::get(tx, id)).expect("is there")
}

/// The next step with so many times what was planned, made after what was seen last.
fn next(heap: &Heap, times: f64) -> LayRequest {
    let step = &heap.build.steps[heap.build.laid];
    let portion = |one: &BuildPortion| BuildPortion { item: one.item, amount: one.amount * times };
    LayRequest {
        entry: Some(EntryId::fresh()),
        after: Some(heap.listed.head),
        mine: Vec::new(),
        at: None,
        step: heap.build.laid,
        portions: step.portions.iter().map(portion).collect(),
        water_l: step.water_l,
        new_items: Vec::new(),
    }
}

fn lay(place: &mut Place, id: HeapId, request: &LayRequest) -> Result<HeapId, Faults> {
    place.act(|tx, who| act::lay(tx, who, (id, request.clone())))
}

fn code<T: std::fmt::Debug>(refused: Result<T, Faults>) -> FaultCode {
    refused.expect_err("refused").0[0].code
}

#[test]
fn a_layer_sent_twice_is_laid_once_and_another_under_its_id_is_refused() {
    let mut place = Place::demo();
    let id = begun(&mut place);
    let request = next(&shown(&mut place, id), 1.0);
    for _ in 0..3 {
        lay(&mut place, id, &request).expect("is laid");
    }
    assert_eq!(shown(&mut place, id).build.laid, 1);
    let other = LayRequest { water_l: request.water_l + 1.0, ..request };
    assert_eq!(code(lay(&mut place, id, &other)), FaultCode::EntryTaken);
}

#[test]
fn layers_made_without_signal_arrive_in_order_and_a_stranger_is_not_run_over() {
    let mut place = Place::demo();
    let id = begun(&mut place);
    let heap = shown(&mut place, id);
    let first = next(&heap, 1.0);
    let step = &heap.build.steps[1];
    let second = LayRequest {
        entry: Some(EntryId::fresh()),
        after: first.entry,
        step: 1,
        portions: step.portions.clone(),
        water_l: step.water_l,
        ..first.clone()
    };
    lay(&mut place, id, &first).expect("arrives");
    lay(&mut place, id, &second).expect("arrives after it");
    let water_l = first.water_l + 5.0;
    let late = LayRequest { entry: Some(EntryId::fresh()), step: 1, water_l, ..first.clone() };
    assert_eq!(code(lay(&mut place, id, &late)), FaultCode::Stale);
    assert_eq!(shown(&mut place, id).build.laid, 2);
}

#[test]
fn stock_follows_a_heap_by_differences_alone() {
    let mut place = Place::demo();
    let id = begun(&mut place);
    let heap = shown(&mut place, id);
    lay(&mut place, id, &next(&heap, 1.0)).expect("is laid");
    place.act(|tx, who| supply::take(tx, who, (id, TAKE))).expect("is taken");
    let before = place.checked().entries;
    let heap = shown(&mut place, id);
    let lots = heap.items.iter().filter(|item| item.lot_id.is_some()).count() as u64;
    lay(&mut place, id, &next(&heap, 1.0)).expect("is laid");
    let written = place.checked().entries - before;
    assert!(written <= 2, "one layer of one thing moves one lot of {lots}, not {written} entries");
    let undone = place.act(|tx, who| act::undo(tx, who, (id, HeapAct::default())));
    undone.expect("is undone");
    assert!(place.checked().entries - before <= 4);
}

const TAKE: supply::HeapTake =
    supply::HeapTake { entry: None, after: None, mine: Vec::new(), what_is_there: true };

#[test]
fn a_material_that_was_removed_is_no_new_stock_but_stays_where_it_is() {
    let mut place = Place::demo();
    let site = place.site();
    let fields = r#"{"name":"Reeds","kind":"brown","group":"crop residue","moisture_pct":14,"n_pct":0.6,"c_n":78,
        "ash_pct":7,"density_kg_l":0.06,"settle":0.5,"degradability":"medium","particle":"medium","structure":2,
        "cautions":[],"source":"own"}"#;
    let reeds = zymarch_formats::field::read(fields).expect("well formed");
    place.act(|tx, who| material::add(tx, who, reeds)).expect("is new");
    let some = || lot::LotFields {
        material: "reeds".into(),
        label: None,
        amount: 10.0,
        unit: zymarch_farm::Unit::Kg,
        measure_id: None,
        own: Default::default(),
        gathered_on: None,
        price: None,
    };
    let add =
        |place: &mut Place| place.act(|tx, who| lot::add(tx, who, Add { site, id: None, what: some() }));
    let kept = add(&mut place).expect("is stock");
    place.act(|tx, who| material::remove(tx, who, Remove("reeds".into()))).expect("is removed");
    assert_eq!(code(add(&mut place)), FaultCode::NoSuchMaterial);
    assert_eq!(place.amount(kept.id), 10.0);
    place.act(|tx, who| material::restore(tx, who, Restore("reeds".into()))).expect("is back");
    add(&mut place).expect("is stock again");
}

/// Something that somebody does.
#[derive(Debug, Clone)]
enum Deed {
    Note(usize, LotAct, f64),
    UndoNote(usize),
    RemoveLot(usize),
    Lay(f64),
    PutRight(usize, f64),
    UndoAct,
    End,
    Take,
    GiveBack,
    RemoveHeap,
}

fn deed() -> impl Strategy<Value = Deed> {
    let kind = prop_oneof![Just(LotAct::Delivered), Just(LotAct::Used), Just(LotAct::Spoiled)];
    prop_oneof![
        (0..12_usize, kind, 0.1..4.0_f64).prop_map(|(lot, kind, amount)| Deed::Note(lot, kind, amount)),
        (0..12_usize).prop_map(Deed::UndoNote),
        (0..12_usize).prop_map(Deed::RemoveLot),
        (0.3..2.0_f64).prop_map(Deed::Lay),
        (0..4_usize, 0.2..2.0_f64).prop_map(|(step, times)| Deed::PutRight(step, times)),
        Just(Deed::UndoAct),
        Just(Deed::End),
        Just(Deed::Take),
        Just(Deed::GiveBack),
        Just(Deed::RemoveHeap),
    ]
}

/// Does it if it can be done; what cannot is refused and leaves nothing behind.
fn done(place: &mut Place, lots: &[LotId], id: HeapId, deed: &Deed) {
    let _ = match deed {
        Deed::Note(at, kind, amount) => {
            let fields = LotEventFields { entry: None, kind: *kind, amount: *amount, note: None };
            place.act(|tx, who| history::note(tx, who, (lots[*at], fields))).map(|_| ())
        }
        Deed::UndoNote(at) => place.act(|tx, who| {
            let events = history::list(tx, lots[*at])?;
            let last = events.iter().find(|event| event.can_be_undone);
            last.map(|event| history::undo(tx, who, event.id)).transpose().map(|_| ())
        }),
        Deed::RemoveLot(at) => {
            place.act(|tx, who| lot::remove(tx, who, Remove(lots[*at]))).expect("is there");
            place.act(|tx, who| lot::restore(tx, who, Restore(lots[*at]))).map(|_| ())
        }
        Deed::Lay(times) => place.act(|tx, who| {
            let heap = heap::get(tx, id)?;
            if heap.build.laid == heap.build.steps.len() {
                return Ok(());
            }
            act::lay(tx, who, (id, next(&heap, *times))).map(|_| ())
        }),
        Deed::PutRight(step, times) => place.act(|tx, who| {
            let heap = heap::get(tx, id)?;
            let Some(was) = heap.build.steps[..heap.build.laid].get(*step) else { return Ok(()) };
            let portion = |one: &BuildPortion| BuildPortion { item: one.item, amount: one.amount * times };
            let portions = was.portions.iter().map(portion).collect();
            let request = LayRequest { step: *step, portions, after: None, water_l: 1.0, ..blank() };
            act::lay(tx, who, (id, request)).map(|_| ())
        }),
        Deed::UndoAct => place.act(|tx, who| act::undo(tx, who, (id, HeapAct::default()))).map(|_| ()),
        Deed::End => place.act(|tx, who| act::end(tx, who, (id, HeapAct::default()))).map(|_| ()),
        Deed::Take => place.act(|tx, who| supply::take(tx, who, (id, TAKE))).map(|_| ()),
        Deed::GiveBack => place.act(|tx, who| supply::give_back(tx, who, (id, TAKE))).map(|_| ()),
        Deed::RemoveHeap => {
            place.act(|tx, who| act::remove(tx, who, Remove(id))).expect("is there");
            place.act(|tx, who| act::restore(tx, who, Restore(id))).map(|_| ())
        }
    };
}

fn blank() -> LayRequest {
    LayRequest {
        entry: None,
        after: None,
        mine: Vec::new(),
        at: None,
        step: 0,
        portions: Vec::new(),
        water_l: 0.0,
        new_items: Vec::new(),
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    #[test]
    fn whatever_is_done_what_stands_is_what_the_log_says(deeds in prop::collection::vec(deed(), 1..25)) {
        let mut place = Place::demo();
        let lots: Vec<LotId> = place.lots().iter().map(|lot| lot.id).collect();
        let id = begun(&mut place);
        for deed in &deeds {
            done(&mut place, &lots, id, deed);
            let checked = place.checked();
            prop_assert!(checked.differences.is_empty(), "{:?}: {:?}", deed, checked.differences);
        }
        // Nothing is less than nothing, and a heap never has more laid than there are steps.
        prop_assert!(place.lots().iter().all(|lot| lot.fields.amount >= 0.0));
        let heap = shown(&mut place, id);
        prop_assert!(heap.build.laid <= heap.build.steps.len());
        prop_assert_eq!(heap.listed.laid as usize, heap.build.laid);
    }

    #[test]
    fn taking_and_giving_back_leaves_the_stock_as_it_was(times in prop::collection::vec(0.2..1.5_f64, 1..6)) {
        let mut place = Place::demo();
        let before: Vec<_> = place.lots().iter().map(|lot| (lot.id, lot.fields.amount)).collect();
        let id = begun(&mut place);
        for times in times {
            done(&mut place, &[], id, &Deed::Lay(times));
        }
        for deed in [Deed::Take, Deed::UndoAct, Deed::GiveBack] {
            done(&mut place, &[], id, &deed);
        }
        for (lot, amount) in before {
            let now = place.amount(lot);
            prop_assert!((now - amount).abs() < 1e-6, "{} of {}", now, amount);
        }
    }
}
