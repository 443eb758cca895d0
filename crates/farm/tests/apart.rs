//! Two at one heap who did not know of each other: what can stand beside each other does, and
//! where somebody has to say which it was, nothing is run over.

mod support;

use support::{Place, refused};
use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_core::build::rest::Way;
use zymarch_farm::build::act::{self, AnewRequest, HeapAct, LayRequest};
use zymarch_farm::build::heap::{self, Heap};
use zymarch_farm::build::supply::{self, HeapTake};
use zymarch_farm::build::{ahead, begin};
use zymarch_store::id::{EntryId, HeapId};

/// A phone, with what the farm told it last and what it did since.
struct Phone {
    heap: Heap,
    mine: Vec<EntryId>,
}

impl Phone {
    fn of(place: &mut Place, id: HeapId) -> Self {
        Self { heap: place.act(|tx, _| heap::get(tx, id)).expect("is there"), mine: Vec::new() }
    }

    /// What it does without signal: the next thing after what the farm told, beside its own.
    fn does(&mut self) -> HeapAct {
        let entry = EntryId::fresh();
        let mine = self.mine.clone();
        self.mine.push(entry);
        HeapAct { entry: Some(entry), after: Some(self.heap.listed.head), mine, at: None }
    }

    fn lays(&mut self, step: usize, share: f64) -> LayRequest {
        let HeapAct { entry, after, mine, at } = self.does();
        let planned = &self.heap.build.steps[step];
        let mut portions = planned.portions.clone();
        portions.iter_mut().for_each(|portion| portion.amount *= share);
        LayRequest { entry, after, mine, at, step, portions, water_l: planned.water_l, new_items: Vec::new() }
    }
}

fn begun() -> (Place, HeapId) {
    let mut place = Place::demo();
    let batch = place.batch("Terrace heap");
    let id = place.act(|tx, who| begin(tx, who, (batch, None))).expect("begins");
    (place, id)
}

fn lay(place: &mut Place, id: HeapId, what: LayRequest) -> Result<HeapId, Faults> {
    place.act(|tx, who| act::lay(tx, who, (id, what)))
}

fn laid(place: &mut Place, id: HeapId) -> Vec<f64> {
    let heap = place.act(|tx, _| heap::get(tx, id)).expect("is there");
    heap.build.steps[..heap.build.laid]
        .iter()
        .map(|step| step.portions.first().map_or(0.0, |one| one.amount))
        .collect()
}

#[test]
fn one_goes_on_while_another_puts_right_and_both_stand() {
    let (mut place, id) = begun();
    let mut first = Phone::of(&mut place, id);
    lay(&mut place, id, first.lays(0, 1.0)).expect("is laid");
    let (mut one, mut other) = (Phone::of(&mut place, id), Phone::of(&mut place, id));
    let on = [one.lays(1, 1.0), one.lays(2, 1.0)];
    lay(&mut place, id, other.lays(0, 0.5)).expect("is put right");
    for step in on {
        lay(&mut place, id, step).expect("stands beside it");
    }
    let stands = laid(&mut place, id);
    assert_eq!(stands.len(), 3);
    let whole = first.heap.build.steps[0].portions[0].amount;
    assert!((stands[0] - 0.5 * whole).abs() < 1e-9);
    assert!(place.checked().differences.is_empty());
}

#[test]
fn two_who_laid_the_same_layer_otherwise_are_told_and_nothing_is_run_over() {
    let (mut place, id) = begun();
    let (mut one, mut other) = (Phone::of(&mut place, id), Phone::of(&mut place, id));
    let chain = [one.lays(0, 2.0), one.lays(1, 1.0)];
    lay(&mut place, id, other.lays(0, 1.0)).expect("came first");
    let before = laid(&mut place, id);
    let [first, second] = chain;
    let (_, code) = refused(lay(&mut place, id, first.clone()));
    assert_eq!((code, laid(&mut place, id)), (FaultCode::Stale, before));
    // Whoever decides that the other was right lets the first go: the second goes on from there.
    lay(&mut place, id, second).expect("is on another layer");
    assert_eq!(laid(&mut place, id).len(), 2);
    // And whoever decides otherwise says it again, knowing all there is.
    let head = Phone::of(&mut place, id).heap.listed.head;
    lay(&mut place, id, LayRequest { after: Some(head), ..first.clone() })
        .expect("is said in full knowledge");
    assert!((laid(&mut place, id)[0] - first.portions[0].amount).abs() < 1e-9);
}

/// The third act of a chain must not run over what came between its first and its second.
#[test]
fn what_came_between_two_acts_of_one_chain_is_seen() {
    let (mut place, id) = begun();
    let (mut one, mut other) = (Phone::of(&mut place, id), Phone::of(&mut place, id));
    let chain = [one.lays(0, 1.0), one.lays(1, 3.0)];
    let [first, second] = chain;
    lay(&mut place, id, other.lays(0, 1.0)).expect("came first");
    lay(&mut place, id, other.lays(1, 1.0)).expect("and went on");
    lay(&mut place, id, first).expect("is the same layer, laid alike");
    let (_, code) = refused(lay(&mut place, id, second));
    assert_eq!(code, FaultCode::Stale);
}

#[test]
fn what_was_done_and_taken_back_meanwhile_stands_in_nobodys_way() {
    let (mut place, id) = begun();
    let (mut one, mut other) = (Phone::of(&mut place, id), Phone::of(&mut place, id));
    lay(&mut place, id, other.lays(0, 1.0)).expect("is laid");
    let back = other.does();
    place.act(|tx, who| act::undo(tx, who, (id, back))).expect("is undone");
    lay(&mut place, id, one.lays(0, 2.0)).expect("there is nothing in its way");
    // Undoing is of what was done last, which only somebody knows who knows all.
    let mut late = Phone::of(&mut place, id);
    lay(&mut place, id, one.lays(1, 1.0)).expect("goes on");
    let back = late.does();
    let (_, code) = refused(place.act(|tx, who| act::undo(tx, who, (id, back))));
    assert_eq!((code, laid(&mut place, id).len()), (FaultCode::Stale, 2));
}

#[test]
fn the_rest_is_planned_and_ended_only_for_the_heap_as_it_is() {
    let (mut place, id) = begun();
    let (mut one, mut other) = (Phone::of(&mut place, id), Phone::of(&mut place, id));
    for step in 0..2 {
        lay(&mut place, id, one.lays(step, 1.0)).expect("is laid");
    }
    let HeapAct { entry, after, mine, at } = other.does();
    let anew = AnewRequest { entry, after, mine, at, way: Some(Way::Size) };
    let planned = place.act(|tx, _| act::propose(tx, (id, anew)));
    // What was laid lies below what is planned anew, so that it is planned for the heap as it is.
    assert!(planned.is_ok() || refused(planned).1 == FaultCode::NothingToMend);
    let end = one.does();
    place.act(|tx, who| act::end(tx, who, (id, end))).expect("is ended");
    let (_, code) = refused(lay(&mut place, id, other.lays(2, 1.0)));
    assert_eq!(code, FaultCode::Stale, "it was ended below");
}

#[test]
fn stock_is_taken_once_however_often_it_is_sent_and_whoever_does_it() {
    let (mut place, id) = begun();
    let (mut one, mut other) = (Phone::of(&mut place, id), Phone::of(&mut place, id));
    lay(&mut place, id, one.lays(0, 1.0)).expect("is laid");
    let take = |phone: &mut Phone| {
        let HeapAct { entry, after, mine, .. } = phone.does();
        HeapTake { entry, after, mine, what_is_there: true }
    };
    let sent = take(&mut one);
    for _ in 0..2 {
        place.act(|tx, who| supply::take(tx, who, (id, sent.clone()))).expect("is taken, or was");
    }
    let again = take(&mut other);
    let (_, code) = refused(place.act(|tx, who| supply::take(tx, who, (id, again))));
    assert_eq!(code, FaultCode::TakenAlready);
    assert!(place.checked().differences.is_empty());
}

#[test]
fn a_heap_is_begun_as_it_was_foretold_and_a_second_phone_goes_on_with_it() {
    let mut place = Place::demo();
    let batch = place.batch("Terrace heap");
    let foretold = place.act(|tx, _| ahead(tx, batch)).expect("is foretold");
    let (mine, theirs) = (HeapId::fresh(), HeapId::fresh());
    let begun = place.act(|tx, who| begin(tx, who, (batch, Some(mine)))).expect("begins");
    let heap = place.act(|tx, _| heap::get(tx, begun)).expect("is there");
    // The entry that begins it is known by the heap's own id.
    assert_eq!((begun, heap.listed.head), (mine, EntryId(mine.0)));
    assert_eq!((&heap.build, &heap.items), (&foretold.build, &foretold.items));
    assert_eq!(heap.listed.name, foretold.listed.name);
    let sent_again = place.act(|tx, who| begin(tx, who, (batch, Some(mine)))).expect("was begun");
    assert_eq!(sent_again, mine);
    // Another phone had begun it without signal: it is one heap, of which it has seen nothing.
    assert_eq!(place.act(|tx, who| begin(tx, who, (batch, Some(theirs)))).expect("goes on"), mine);
    let first = Phone::of(&mut place, mine).lays(0, 1.0);
    lay(&mut place, mine, first).expect("is laid");
    let mut blind = Phone::of(&mut place, mine);
    blind.heap.listed.head = EntryId(theirs.0);
    let (_, code) = refused(lay(&mut place, mine, blind.lays(0, 2.0)));
    assert_eq!(code, FaultCode::Stale);
    lay(&mut place, mine, blind.lays(1, 2.0)).expect("is on another layer");
}
