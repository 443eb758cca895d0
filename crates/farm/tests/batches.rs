//! Batches and a person's own methods by their commands: what a recipe holds, what it takes
//! from stock, and what a heap made of it tells a list.

mod support;

use support::{Place, refused};
use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_farm::build::act::{self, HeapAct, LayRequest};
use zymarch_farm::build::{begin, heap};
use zymarch_farm::command::{Add, Change, Remove, Restore};
use zymarch_farm::plan::batch::{self, BatchFields, TakeRequest};
use zymarch_farm::plan::method::{self, MethodCopy};
use zymarch_formats::method::MethodFields;
use zymarch_store::id::{BatchId, EntryId};

fn terrace(place: &mut Place) -> batch::Batch {
    let id = place.batch("Terrace heap");
    place.act(|tx, _| batch::get(tx, id)).expect("reads")
}

fn added(place: &mut Place, what: BatchFields) -> Result<batch::Batch, Faults> {
    let site = place.site();
    place.act(|tx, who| batch::add(tx, who, Add { site, id: None, what }))
}

#[test]
fn a_batch_sent_twice_is_one_and_its_second_writer_is_told() {
    let mut place = Place::demo();
    let site = place.site();
    let what = BatchFields { name: "Ring three".into(), ..terrace(&mut place).fields };
    let id = Some(BatchId::fresh());
    let add = |place: &mut Place, what: BatchFields| {
        place.act(|tx, who| batch::add(tx, who, Add { site, id, what }))
    };
    let one = add(&mut place, what.clone()).expect("is added");
    add(&mut place, what.clone()).expect("is there");
    let named = |place: &mut Place| {
        let all = place.act(|tx, _| batch::list(tx, site)).expect("reads");
        all.iter().filter(|listed| listed.batch.fields.name == "Ring three").count()
    };
    assert_eq!(named(&mut place), 1);
    let change = |water_l: f64| Change {
        id: one.id,
        version: one.version,
        to: BatchFields { water_l, ..what.clone() },
    };
    place.act(|tx, who| batch::change(tx, who, change(50.0))).expect("is first");
    let (_, code) = refused(place.act(|tx, who| batch::change(tx, who, change(90.0))));
    assert_eq!(code, FaultCode::Stale);
    assert_eq!(place.act(|tx, _| batch::get(tx, one.id)).expect("reads").fields.water_l, 50.0);
}

#[test]
fn every_part_of_a_batch_is_refused_by_its_path() {
    let mut place = Place::demo();
    let sound = BatchFields { name: "Other".into(), ..terrace(&mut place).fields };
    type Spoil = fn(&mut BatchFields);
    let cases: [(Spoil, &str); 8] = [
        (|of| of.name = "  ".into(), "name"),
        (|of| of.water_l = -1.0, "water_l"),
        (|of| of.water_l = f64::NAN, "water_l"),
        (|of| of.method = Some("no-such-method".into()), "method"),
        (|of| of.starters = vec!["no-such-starter".into()], "starters"),
        (|of| of.items[1].amount = -2.0, "items[1].amount"),
        (|of| of.items[0].material = "no-such-material".into(), "items[0].material"),
        (|of| of.items[1].measure_litres = None, "items[1].measure_litres"),
    ];
    for (spoil, path) in cases {
        let mut what = sound.clone();
        spoil(&mut what);
        let (found, _) = refused(added(&mut place, what));
        assert!(found.starts_with(path), "{path}: {found}");
    }
    added(&mut place, sound).expect("is sound");
}

/// A batch takes its amounts from stock and gives them back to the gram, removed or not.
#[test]
fn what_a_batch_took_comes_back_when_it_goes() {
    let mut place = Place::demo();
    let batch = terrace(&mut place);
    let lots: Vec<_> = batch.fields.items.iter().filter_map(|item| item.lot_id).collect();
    let amounts = |place: &mut Place| lots.iter().map(|lot| place.amount(*lot)).collect::<Vec<_>>();
    let before = amounts(&mut place);
    let take = TakeRequest { version: batch.version, what_is_there: true };
    let taken = place.act(|tx, who| batch::take(tx, who, (batch.id, take))).expect("is taken");
    let during = amounts(&mut place);
    assert!(during.iter().zip(&before).any(|(now, was)| now < was));
    // A second screen that saw it before is told so; one that saw it taken, that it is.
    let (_, code) = refused(place.act(|tx, who| batch::take(tx, who, (batch.id, take))));
    assert_eq!((code, amounts(&mut place)), (FaultCode::Stale, during.clone()), "taken once");
    let again = TakeRequest { version: taken.version, ..take };
    let (_, code) = refused(place.act(|tx, who| batch::take(tx, who, (batch.id, again))));
    assert_eq!((code, amounts(&mut place)), (FaultCode::TakenAlready, during.clone()));
    let (_, code) = refused(place.act(|tx, who| batch::give_back(tx, who, (batch.id, take))));
    assert_eq!((code, amounts(&mut place)), (FaultCode::Stale, during.clone()));
    place.act(|tx, who| batch::remove(tx, who, Remove(taken.id))).expect("is removed");
    assert_eq!(amounts(&mut place), before);
    place.act(|tx, who| batch::restore(tx, who, Restore(taken.id))).expect("comes back");
    assert_eq!(amounts(&mut place), during);
    assert!(place.checked().differences.is_empty());
}

/// Its list tells of a built heap how high it stands: as high as the heap itself says.
#[test]
fn a_built_heap_tells_its_height_in_the_list_and_one_being_built_does_not() {
    let mut place = Place::demo();
    let (site, batch) = (place.site(), place.batch("Terrace heap"));
    let id = place.act(|tx, who| begin(tx, who, (batch, None))).expect("begins");
    let listed = |place: &mut Place| {
        let heaps = place.act(|tx, _| heap::list(tx, site)).expect("reads");
        heaps.iter().find(|one| one.id == id).expect("is listed").clone()
    };
    for _ in 0..3 {
        let now = place.act(|tx, _| heap::get(tx, id)).expect("is there");
        let step = now.build.steps[now.build.laid].clone();
        let request = LayRequest {
            entry: None,
            after: Some(now.listed.head),
            mine: Vec::new(),
            at: None,
            step: now.build.laid,
            portions: step.portions,
            water_l: step.water_l,
            new_items: Vec::new(),
        };
        place.act(|tx, who| act::lay(tx, who, (id, request))).expect("is laid");
    }
    assert_eq!(listed(&mut place).height_cm, None);
    let head = listed(&mut place).head;
    let end = HeapAct { entry: Some(EntryId::fresh()), after: Some(head), ..HeapAct::default() };
    place.act(|tx, who| act::end(tx, who, (id, end))).expect("is ended");
    let heap = place.act(|tx, _| heap::get(tx, id)).expect("is there");
    assert!(heap.build.height_cm > 5.0);
    let told = listed(&mut place).height_cm.expect("is built");
    assert!((told - heap.build.height_cm).abs() < 1e-9);
}

#[test]
fn an_own_method_is_used_by_batches_changed_with_its_version_and_kept_for_those_that_use_it() {
    let mut place = Place::demo();
    let book = place.act(|tx, _| method::list(tx)).expect("reads");
    let bays = book.iter().find(|one| one.method.id == "bay-turned").expect("is listed");
    let mut fields: MethodFields = serde_json::from_value(fields_of(&bays.method)).expect("its figures");
    fields.name = "Our bays".into();
    let copy = MethodCopy { base: "bay-turned".into(), method: fields.clone() };
    let own = place.act(|tx, who| method::copy(tx, who, copy)).expect("is copied");
    let what = BatchFields {
        name: "By our bays".into(),
        method: Some(own.method.id.clone()),
        ..terrace(&mut place).fields
    };
    let batch = added(&mut place, what).expect("uses it");

    let version = own.version.expect("is our own");
    fields.moisture_pct = [10.0, 55.0];
    let wrong = Change { id: own.method.id.clone(), version, to: fields.clone() };
    let (path, code) = refused(place.act(|tx, who| method::change(tx, who, wrong)));
    assert!(path.ends_with("moisture_pct"), "{path}");
    assert_eq!(code, FaultCode::OutOfRange);

    place.act(|tx, who| method::remove(tx, who, Remove(own.method.id.clone()))).expect("is removed");
    let kept = place.act(|tx, _| batch::get(tx, batch.id)).expect("reads");
    assert_eq!(kept.fields.method.as_deref(), Some(own.method.id.as_str()));
    place.act(|tx, who| begin(tx, who, (batch.id, None))).expect("is still built by it");
}

/// What a person may change of a method, from what a list tells of it.
fn fields_of(method: &zymarch_formats::method::Method) -> serde_json::Value {
    let all = serde_json::to_value(method).expect("serializes");
    let names = zymarch_core::plan::method::own::LIMITS.map(|(name, _)| name);
    let mut fields = serde_json::Map::new();
    for name in names.into_iter().chain(["pattern"]) {
        if let Some(value) = all.get(name) {
            fields.insert(name.into(), value.clone());
        }
    }
    fields.insert("name".into(), "copy".into());
    fields.into()
}
