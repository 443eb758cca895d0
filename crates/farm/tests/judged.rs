//! What is judged of the farm's heaps: heat that was recorded, trouble, stage, and what is to be done today.

mod support;

use jiff::{Span, Timestamp};
use support::{Place, refused};
use zymarch_core::base::fault::FaultCode;
use zymarch_core::tend::diagnose::CauseCode;
use zymarch_core::tend::entry::{ReadBy, Sign, Smell, Spot, SqueezeFeel, Tended};
use zymarch_core::tend::hygiene::{CriterionId, HeatStatus};
use zymarch_core::tend::ready::Stage;
use zymarch_core::tend::schedule::{TaskKind, Why};
use zymarch_core::tend::school::SchoolId;
use zymarch_farm::plan::BatchPart;
use zymarch_farm::plan::batch;
use zymarch_farm::tend::calendar;
use zymarch_farm::tend::entry::{self, BackRequest, TendRequest};
use zymarch_farm::tend::judgement::{self, HeapJudgement, HeatShown};
use zymarch_farm::tend::rules::{self, LocalFields, RulesRequest};
use zymarch_farm::tend::today::{self, TickRequest};
use zymarch_store::id::{EntryId, HeapId};

struct Judged {
    place: Place,
    heap: HeapId,
}

impl Judged {
    fn of(days: i64) -> Self {
        let mut place = Place::demo();
        let heap = place.built("Terrace heap", days);
        Self { place, heap }
    }

    /// Writes something down that was so many hours ago.
    fn was(&mut self, hours: i64, what: Tended<BatchPart>) -> EntryId {
        let at: Timestamp = self.place.now() - Span::new().hours(hours);
        let (heap, entry) = (self.heap, EntryId::fresh());
        let of =
            TendRequest { entry: Some(entry), at: Some(at), what, note: None, photo: None, instead_of: None };
        self.place.act(|tx, who| entry::tend(tx, who, (heap, of))).expect("is written");
        entry
    }

    fn told(&mut self) -> HeapJudgement {
        let heap = self.heap;
        self.place.act(|tx, _| judgement::judgement(tx, heap)).expect("is judged")
    }

    fn shown(&mut self, criterion: CriterionId) -> HeatShown {
        let told = self.told();
        told.held_to.into_iter().find(|one| one.criterion == criterion).expect("is held to it")
    }

    /// Hot for so many days until now, read twice a day.
    fn hot(&mut self, days: i64) {
        for half in 0..=2 * days {
            self.was(12 * half, read(60.0));
        }
    }

    fn follows(&mut self, follows: Vec<SchoolId>, local: LocalFields) {
        let site = self.place.site();
        let version = self.place.act(|tx, _| rules::get(tx, site)).expect("reads").version;
        let request = RulesRequest { version, follows, local };
        self.place.act(|tx, who| rules::set(tx, who, (site, request))).expect("is kept");
    }
}

fn read(temp_c: f64) -> Tended<BatchPart> {
    Tended::Temperature { temp_c, place: Spot::Core, depth_cm: None, by: ReadBy::Thermometer }
}

const TURNED: Tended<BatchPart> = Tended::Turn { mixing: None, to: None };

#[test]
fn fifteen_days_and_five_turns_are_shown_and_one_day_less_is_not() {
    let mut of = Judged::of(24);
    of.hot(16);
    for days in [3, 6, 9, 12] {
        of.was(24 * days + 1, TURNED);
    }
    let misses = of.shown(CriterionId::Turned);
    assert_eq!((misses.status, misses.still_turns), (HeatStatus::NotYet, 1));
    assert!(of.told().follows.waits);
    let fifth = of.was(24 * 14 + 1, TURNED);
    let shown = of.shown(CriterionId::Turned);
    assert_eq!((shown.status, shown.turns_counted), (HeatStatus::Shown, 5));
    let told = of.told();
    assert_eq!((told.follows.shown, told.follows.waits), (Some(CriterionId::Turned), false));
    assert_eq!(told.days.iter().filter(|day| day.turned).count(), 5);
    assert!(told.days.iter().filter(|day| day.in_run).count() >= 16);
    let heap = of.heap;
    of.place
        .act(|tx, who| entry::take_back(tx, who, (heap, fifth, BackRequest::default())))
        .expect("is taken back");
    assert_eq!(of.shown(CriterionId::Turned).status, HeatStatus::NotYet);
}

#[test]
fn something_fresh_put_in_starts_the_record_anew() {
    let mut of = Judged::of(24);
    of.hot(16);
    for days in [3, 6, 9, 12, 14] {
        of.was(24 * days + 1, TURNED);
    }
    assert_eq!(of.shown(CriterionId::Turned).status, HeatStatus::Shown);
    let lot = of.place.lots().into_iter().find(|lot| lot.fields.material == "vegetable-scraps");
    let lot = lot.expect("is in stock");
    let part = BatchPart {
        lot_id: Some(lot.id),
        material: lot.fields.material.clone(),
        label: None,
        amount: 1.0,
        unit: lot.fields.unit,
        measure_id: lot.fields.measure_id,
        measure_litres: Some(12.0),
        own: Default::default(),
        tests: Vec::new(),
    };
    of.was(30, Tended::Add { items: vec![part] });
    let anew = of.shown(CriterionId::Turned);
    assert_eq!((anew.status, anew.turns_counted), (HeatStatus::NotYet, 0));
    assert!(anew.left_out.iter().any(|left| left.count >= 28), "{:?}", anew.left_out);
    assert!(of.told().follows.waits);
}

#[test]
fn a_local_rule_tightens_comes_first_and_cannot_loosen() {
    let mut of = Judged::of(24);
    of.hot(16);
    for days in [3, 6, 9, 12, 14] {
        of.was(24 * days + 1, TURNED);
    }
    assert_eq!(of.shown(CriterionId::Turned).status, HeatStatus::Shown);
    of.follows(vec![], LocalFields { least_c: Some(62.0), ..LocalFields::default() });
    assert_eq!(of.shown(CriterionId::Turned).status, HeatStatus::NotShown, "60 is not 62");
    of.follows(vec![], LocalFields { hours: Some(10.0), turns: Some(1), ..LocalFields::default() });
    let row = of.shown(CriterionId::Turned);
    assert_eq!((row.hours, row.turns), (360.0, 5), "weaker figures change nothing");
    of.follows(vec![], LocalFields { turns: Some(7), wait_days: Some([200, 150]), ..LocalFields::default() });
    assert_eq!(of.shown(CriterionId::Turned).status, HeatStatus::NotYet);
    let site = of.place.site();
    let cold = RulesRequest {
        version: 3,
        follows: vec![SchoolId::Hot, SchoolId::Mild],
        local: LocalFields { least_c: Some(40.0), ..LocalFields::default() },
    };
    let said = refused(of.place.act(|tx, who| rules::set(tx, who, (site, cold.clone()))));
    assert_eq!(said.0, "local.least_c");
    let twice = RulesRequest { local: LocalFields::default(), ..cold };
    let said = refused(of.place.act(|tx, who| rules::set(tx, who, (site, twice.clone()))));
    assert_eq!(said, ("follows[1]".into(), FaultCode::Twice));
    let stale = RulesRequest { version: 1, follows: vec![], ..twice };
    assert_eq!(refused(of.place.act(|tx, who| rules::set(tx, who, (site, stale)))).1, FaultCode::Stale);
}

#[test]
fn not_shown_waits_as_the_local_rule_says() {
    let mut of = Judged::of(6);
    let usual = of.told().follows;
    assert_eq!((usual.shown, usual.waits, usual.wait_days, usual.is_local), (None, true, [120, 90], false));
    of.follows(vec![], LocalFields { wait_days: Some([180, 120]), ..LocalFields::default() });
    let local = of.told().follows;
    assert_eq!((local.wait_days, local.is_local), ([180, 120], true));
}

#[test]
fn a_school_changes_what_is_to_be_done() {
    let mut of = Judged::of(4);
    of.was(3, read(63.0));
    let turn = |of: &mut Judged| of.told().tasks.into_iter().find(|task| task.kind == TaskKind::Turn);
    assert_ne!(turn(&mut of).map(|task| task.why), Some(Why::TooHot));
    of.follows(vec![SchoolId::Mild], LocalFields::default());
    assert_eq!(turn(&mut of).map(|task| task.why), Some(Why::TooHot));
    let site = of.place.site();
    let told = of.place.act(|tx, _| rules::get(tx, site)).expect("reads");
    assert!(told.follows.contains(&SchoolId::Mild) && told.follows.contains(&SchoolId::ByHeat));
}

#[test]
fn today_is_in_the_order_in_which_it_is_best_done_and_a_cause_holds_its_own_turn() {
    let mut of = Judged::of(9);
    of.was(30, read(33.0));
    of.was(3, read(31.0));
    of.was(3, Tended::Squeeze { feel: SqueezeFeel::Dusty, place: None });
    let told = of.told();
    assert_eq!(told.causes[0].code, CauseCode::TooDry);
    let site = of.place.site();
    let day = of.place.act(|tx, _| today::today(tx, site)).expect("is told");
    let heap = of.heap;
    let lines: Vec<_> = day.lines.iter().filter(|line| line.heap == Some(heap)).collect();
    assert_eq!(lines[0].cause.as_ref().map(|cause| cause.code), Some(CauseCode::TooDry));
    let now = lines.iter().filter(|line| line.on == day.today).filter_map(|line| line.task.as_ref());
    assert!(now.into_iter().all(|task| !matches!(task.kind, TaskKind::Turn | TaskKind::Water)));
    assert!(day.lines.is_sorted_by(|a, b| a.on <= b.on));
    let whose_of =
        |line: &today::TodayLine| (line.on.clone(), line.heap, line.prepare.as_ref().map(|of| of.batch));
    let mut runs: Vec<_> = day.lines.iter().map(whose_of).collect();
    runs.dedup();
    let (together, mut whose) = (runs.len(), runs);
    whose.sort();
    whose.dedup();
    assert_eq!(whose.len(), together, "what is to be done at a heap on a day stands together");
    let mut ids: Vec<&str> = day.lines.iter().map(|line| line.id.as_str()).collect();
    ids.sort_unstable();
    ids.dedup();
    assert_eq!(ids.len(), day.lines.len(), "each line is one of its own");
    // Mended, it is gone, and what was done stands in the log.
    of.was(2, TURNED);
    of.was(2, Tended::Water { litres: 220.0, spread: zymarch_core::tend::heat::Pouring::Even });
    of.was(1, Tended::Squeeze { feel: SqueezeFeel::Right, place: None });
    let day = of.place.act(|tx, _| today::today(tx, site)).expect("is told");
    assert!(day.lines.iter().filter(|line| line.heap == Some(heap)).all(|line| line.cause.is_none()));
}

#[test]
fn not_yet_ready_and_then_ready() {
    let mut of = Judged::of(150);
    for (days, temp) in [(145, 61.0), (120, 50.0), (90, 30.0), (2, 17.0)] {
        of.was(24 * days, read(temp));
    }
    let curing = of.told().readiness;
    assert_eq!(curing.stage, Stage::Curing);
    assert!(!curing.settle.is_empty());
    of.was(5, Tended::Seen { signs: vec![Sign::DarkCrumbly] });
    of.was(4, Tended::ClosedBag { smell: vec![Smell::Earthy], days: Some(5.0) });
    let ready = of.told();
    assert_eq!(ready.readiness.stage, Stage::Ready);
    assert!(ready.tasks.iter().all(|task| task.kind == TaskKind::End));
    of.was(3, Tended::Germination { sown: 20, up: 6, control_sown: 20, control_up: 18 });
    assert_eq!(of.told().readiness.stage, Stage::Curing);
}

#[test]
fn what_is_prepared_is_kept_with_its_batch() {
    let mut place = Place::demo();
    let site = place.site();
    let batches = place.act(|tx, _| batch::list(tx, site)).expect("reads");
    let (listed, key) = {
        let day = place.act(|tx, _| today::today(tx, site)).expect("is told");
        let line = day.lines.iter().find_map(|line| line.prepare.clone()).expect("something is to prepare");
        (batches.iter().find(|one| one.batch.id == line.batch).expect("is there"), line.key)
    };
    let (id, ticked) = (listed.batch.id, TickRequest { key: key.clone(), done: true });
    place.act(|tx, who| today::tick(tx, who, (id, ticked.clone()))).expect("is ticked off");
    place.act(|tx, who| today::tick(tx, who, (id, ticked.clone()))).expect("twice is once");
    let done = |place: &mut Place| {
        let all = place.act(|tx, _| batch::list(tx, site)).expect("reads");
        all.iter().find(|one| one.batch.id == id).expect("is there").done.clone()
    };
    assert_eq!(done(&mut place), [key]);
    let day = place.act(|tx, _| today::today(tx, site)).expect("is told");
    let is_done = |line: &today::TodayLine| line.prepare.as_ref().is_some_and(|of| of.is_done);
    assert_eq!(day.lines.iter().filter(|line| is_done(line)).count(), 1);
    let back = TickRequest { done: false, ..ticked.clone() };
    place.act(|tx, who| today::tick(tx, who, (id, back))).expect("is taken back");
    assert!(done(&mut place).is_empty());
    let odd = TickRequest { key: "sing".into(), done: true };
    assert_eq!(refused(place.act(|tx, who| today::tick(tx, who, (id, odd)))).0, "key");
}

/// A late turn moves the event, and does not double it.
#[test]
fn an_event_keeps_its_id_when_its_day_changes() {
    let mut of = Judged::of(6);
    for days in [4, 3, 2, 1] {
        of.was(24 * days, read(60.0));
    }
    let turns = |of: &mut Judged| {
        let heap = of.heap;
        let told = of.place.act(|tx, _| calendar::of_heap(tx, heap)).expect("is told");
        let is_turn = |task: &&(String, jiff::civil::Date, _)| {
            let of: &zymarch_farm::tend::judgement::TaskTold = &task.2;
            of.kind == TaskKind::Turn
        };
        told.tasks.iter().filter(is_turn).map(|(_, on, task)| (task.id.clone(), *on)).collect::<Vec<_>>()
    };
    let before = turns(&mut of);
    assert!(before.len() > 2);
    of.was(1, TURNED);
    let after = turns(&mut of);
    let moved: Vec<_> = before.iter().filter(|(id, _)| after.iter().any(|(other, _)| other == id)).collect();
    assert!(!moved.is_empty(), "{before:?} {after:?}");
    for (id, on) in moved {
        let (_, now) = after.iter().find(|(other, _)| other == id).expect("is there");
        assert_ne!(on, now, "{id}");
    }
    let mut ids: Vec<_> = after.iter().map(|(id, _)| id).collect();
    ids.dedup();
    assert_eq!(ids.len(), after.len());
}
