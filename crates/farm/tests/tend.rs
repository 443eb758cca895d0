//! A heap is tended: written down in any order, put right, taken back, and what follows from it.

mod support;

use jiff::{Span, Timestamp};
use support::{Place, refused};
use zymarch_core::base::fault::FaultCode;
use zymarch_core::log::EntryKind;
use zymarch_core::tend::entry::{ReadBy, Spot, SqueezeFeel, StickFeel, Tended};
use zymarch_core::tend::heat::Pouring;
use zymarch_core::tend::reading::Faulty;
use zymarch_farm::command::Remove;
use zymarch_farm::plan::BatchPart;
use zymarch_farm::stock::lot;
use zymarch_farm::tend::entry::{self, BackRequest, TendRequest};
use zymarch_farm::tend::export;
use zymarch_farm::tend::import::{self, LoggerRequest};
use zymarch_farm::tend::strip::strips;
use zymarch_farm::tend::tended::{self, TendedHeap};
use zymarch_farm::tend::trace::{self, Trace, Wanted};
use zymarch_farm::{Unit, build};
use zymarch_store::id::{EntryId, HeapId};

fn says(what: Tended<BatchPart>) -> TendRequest {
    TendRequest { entry: Some(EntryId::fresh()), at: None, what, note: None, photo: None, instead_of: None }
}

fn read(temp_c: f64) -> Tended<BatchPart> {
    Tended::Temperature { temp_c, place: Spot::Core, depth_cm: None, by: ReadBy::Thermometer }
}

struct Tending {
    place: Place,
    heap: HeapId,
}

impl Tending {
    fn of(name: &str, days: i64) -> Self {
        let mut place = Place::demo();
        let heap = place.built(name, days);
        Self { place, heap }
    }

    fn ago(&self, hours: i64) -> Option<Timestamp> {
        Some(self.place.now() - Span::new().hours(hours))
    }

    fn writes(&mut self, of: TendRequest) -> EntryId {
        let heap = self.heap;
        self.place.act(|tx, who| entry::tend(tx, who, (heap, of))).expect("is written")
    }

    fn shown(&mut self) -> TendedHeap {
        let heap = self.heap;
        self.place.act(|tx, _| tended::get(tx, heap)).expect("is there")
    }

    fn trace(&mut self) -> Trace {
        let heap = self.heap;
        let wanted = Wanted { from_ms: None, to_ms: None, columns: 400 };
        self.place.act(|tx, _| trace::trace(tx, (heap, wanted))).expect("is there")
    }

    fn kinds(&mut self) -> Vec<EntryKind> {
        let log = self.shown().log;
        log.iter().map(|of| of.kind).filter(|kind| kind.is_of_tending()).collect()
    }
}

#[test]
fn entries_stand_in_the_order_of_time_however_they_arrive() {
    let mut of = Tending::of("Terrace heap", 10);
    for (hours, temp) in [(24, 61.0), (200, 48.0), (72, 63.5)] {
        let at = of.ago(hours);
        of.writes(TendRequest { at, ..says(read(temp)) });
    }
    let trace = of.trace();
    let temps: Vec<f64> = trace.lines[0].points.iter().map(|point| point[1]).collect();
    assert_eq!(temps, [48.0, 63.5, 61.0]);
    let shown = of.shown();
    assert_eq!(shown.newest.map(|newest| newest.temp_c), Some(61.0));
    assert!(shown.age_days.is_some_and(|days| (days - 10.0).abs() < 0.1));
    assert_eq!(of.place.checked().differences, []);
}

#[test]
fn sent_twice_it_is_written_once_and_another_of_that_id_is_refused() {
    let mut of = Tending::of("Terrace heap", 5);
    let once = says(Tended::Stick { feel: StickFeel::Hot });
    assert_eq!(of.writes(once.clone()), of.writes(once.clone()));
    assert_eq!(of.kinds(), [EntryKind::Stick]);
    let other = TendRequest { what: Tended::Stick { feel: StickFeel::Cool }, ..once };
    let heap = of.heap;
    let said = refused(of.place.act(|tx, who| entry::tend(tx, who, (heap, other))));
    assert_eq!(said, ("entry".into(), FaultCode::EntryTaken));
}

#[test]
fn what_was_wrong_is_put_right_taken_back_and_brought_back() {
    let mut of = Tending::of("Terrace heap", 5);
    let wrong = of.writes(TendRequest { at: of.ago(3), ..says(read(75.0)) });
    let right = of.writes(TendRequest { at: of.ago(4), instead_of: Some(wrong), ..says(read(57.0)) });
    let temps = |of: &mut Tending| -> Vec<f64> {
        of.trace().lines.iter().flat_map(|line| line.points.iter().map(|point| point[1])).collect()
    };
    assert_eq!(temps(&mut of), [57.0]);
    let heap = of.heap;
    let back = BackRequest::default();
    of.place.act(|tx, who| entry::take_back(tx, who, (heap, right, back.clone()))).expect("is taken back");
    assert_eq!(temps(&mut of), [] as [f64; 0]);
    of.place.act(|tx, who| entry::take_back(tx, who, (heap, right, back.clone()))).expect("twice is once");
    of.place.act(|tx, who| entry::bring_back(tx, who, (heap, right, back.clone()))).expect("is brought back");
    assert_eq!(temps(&mut of), [57.0]);
    assert_eq!(of.place.checked().differences, []);
}

#[test]
fn what_cannot_be_is_refused_and_nothing_is_written() {
    let mut of = Tending::of("Terrace heap", 5);
    let heap = of.heap;
    let mut refuses =
        |request: TendRequest| refused(of.place.act(|tx, who| entry::tend(tx, who, (heap, request))));
    let now: Timestamp = "2026-03-14T08:00:00Z".parse().expect("a time");
    let late = Some(now + Span::new().hours(300));
    assert_eq!(refuses(TendRequest { at: late, ..says(read(50.0)) }), ("at".into(), FaultCode::InFuture));
    let early = Some(now - Span::new().hours(24 * 9));
    assert_eq!(refuses(TendRequest { at: early, ..says(read(50.0)) }), ("at".into(), FaultCode::BeforeBegun));
    assert_eq!(refuses(says(read(f64::NAN))).0, "what.temp_c");
    assert_eq!(refuses(says(Tended::Add { items: vec![] })), ("what.items".into(), FaultCode::Empty));
    assert_eq!(refuses(says(Tended::Note)), ("note".into(), FaultCode::EmptyName));
    assert_eq!(refuses(says(Tended::Photo)), ("photo".into(), FaultCode::PhotoMissing));
    let long = Some("x".repeat(501));
    assert_eq!(
        refuses(TendRequest { note: long, ..says(Tended::Move) }),
        ("note".into(), FaultCode::TooLong)
    );
    assert_eq!(of.kinds(), []);
}

/// What is put in comes from stock whether build day took from it or not, and goes back with its entry.
#[test]
fn what_was_added_comes_from_stock_and_goes_back() {
    let mut of = Tending::of("Terrace heap", 5);
    let lot =
        of.place.lots().into_iter().find(|lot| lot.fields.material == "vegetable-scraps").expect("is there");
    let before = lot.fields.amount;
    let part = BatchPart {
        lot_id: Some(lot.id),
        material: lot.fields.material.clone(),
        label: None,
        amount: 2.0,
        unit: lot.fields.unit,
        measure_id: lot.fields.measure_id,
        measure_litres: (lot.fields.unit == Unit::Measure).then_some(12.0),
        own: Default::default(),
        tests: Vec::new(),
    };
    let kg_before = of.shown().now.expect("is known").wet_kg.value;
    let added = of.writes(says(Tended::Add { items: vec![part] }));
    assert!((of.place.amount(lot.id) - (before - 2.0)).abs() < 1e-9);
    assert!(of.shown().now.expect("is known").wet_kg.value >= kg_before);
    let (heap, back) = (of.heap, BackRequest::default());
    of.place.act(|tx, who| entry::take_back(tx, who, (heap, added, back))).expect("is taken back");
    assert!((of.place.amount(lot.id) - before).abs() < 1e-9);
    assert_eq!(of.place.checked().differences, []);
}

#[test]
fn a_turn_and_water_change_what_is_expected_and_a_squeeze_what_is_known() {
    let mut of = Tending::of("Terrace heap", 20);
    let before = of.shown().now.expect("is known");
    let high = |trace: &Trace| trace.band.iter().map(|point| point[2]).fold(0.0, f64::max);
    let peak = high(&of.trace());
    assert!(peak > 40.0, "a good mix is expected to warm up: {peak}");
    for hours in [24 * 14, 24 * 9] {
        let at = of.ago(hours);
        of.writes(TendRequest { at, ..says(Tended::Turn { mixing: None, to: None }) });
    }
    of.writes(TendRequest {
        at: of.ago(24 * 9),
        ..says(Tended::Water { litres: 60.0, spread: Pouring::Even })
    });
    let watered = of.shown().now.expect("is known");
    assert!(watered.moisture_pct.value > before.moisture_pct.value);
    assert!(watered.dry_kg.value < before.dry_kg.value, "turned and watered, more of it rots");
    of.writes(says(Tended::Squeeze { feel: SqueezeFeel::Dusty, place: None }));
    let squeezed = of.shown().now.expect("is known").moisture_pct;
    assert!(squeezed.value < watered.moisture_pct.value && squeezed.measured == 1);
    let trace = of.trace();
    assert_eq!(trace.events.iter().filter(|event| event.kind == EntryKind::Turn).count(), 2);
    assert!(!trace.ahead.is_empty() && trace.not_expected.is_none());
}

#[test]
fn hot_without_a_gap_is_told_and_what_is_absurd_is_not_used() {
    let mut of = Tending::of("Terrace heap", 12);
    for (nth, temp) in [58.0, 61.0, 140.0, 60.0, 44.0].into_iter().enumerate() {
        let at = of.ago(200 - 24 * nth as i64);
        of.writes(TendRequest { at, ..says(read(temp)) });
    }
    let trace = of.trace();
    assert_eq!(trace.runs.iter().map(|run| run.hours.round()).collect::<Vec<_>>(), [72.0]);
    assert_eq!(
        trace.faulty.iter().map(|of| (of.temp_c, of.why)).collect::<Vec<_>>(),
        [(140.0, Faulty::Absurd)]
    );
    let log = of.shown().log;
    let faulty: Vec<_> = log.iter().filter_map(|of| of.faulty).collect();
    assert_eq!(faulty, [Faulty::Absurd]);
    let site = of.place.site();
    let all = of.place.act(|tx, _| strips(tx, site)).expect("reads");
    let strip = all.into_iter().find(|strip| strip.id == of.heap).expect("is there");
    assert_eq!(strip.days.iter().flatten().copied().fold(0.0, f64::max), 61.0);
    assert_eq!(strip.last.and_then(|last| last.temp_c), Some(44.0));
}

#[test]
fn the_log_is_taken_along_as_a_table() {
    let mut of = Tending::of("Terrace heap", 5);
    of.writes(TendRequest { at: of.ago(30), note: Some("steep side".into()), ..says(read(57.5)) });
    of.writes(TendRequest { at: of.ago(20), ..says(Tended::Water { litres: 24.0, spread: Pouring::Top }) });
    let heap = of.heap;
    let table = of.place.act(|tx, _| export::table(tx, heap)).expect("is written");
    let lines: Vec<&str> = table.lines().collect();
    assert_eq!(lines[0], "time,kind,value,unit,place,note,depth_cm,hours,by");
    assert!(lines[1].contains(",temperature,57.5,C,core,steep side,"), "{table}");
    assert!(lines[2].contains(",water,24,L,top,"), "{table}");
}

/// What was sent and never answered is sent again, whatever became of its lot in between.
#[test]
fn sent_again_after_its_lot_is_gone_it_is_written_all_the_same() {
    let mut of = Tending::of("Terrace heap", 5);
    let lots = of.place.lots();
    let lot = lots.iter().find(|lot| lot.fields.material == "vegetable-scraps").expect("is there");
    let part = BatchPart {
        lot_id: Some(lot.id),
        material: lot.fields.material.clone(),
        label: None,
        amount: 1.0,
        unit: lot.fields.unit,
        measure_id: lot.fields.measure_id,
        measure_litres: (lot.fields.unit == Unit::Measure).then_some(12.0),
        own: Default::default(),
        tests: Vec::new(),
    };
    let added = says(Tended::Add { items: vec![part] });
    let once = of.writes(added.clone());
    let id = lot.id;
    of.place.act(|tx, who| lot::remove(tx, who, Remove(id))).expect("is removed");
    assert_eq!(of.writes(added), once);
    assert_eq!(of.kinds(), [EntryKind::Add]);
}

fn log_file(rows: &str) -> LoggerRequest {
    let text = format!("time,kind,value,unit,place,note\n{rows}");
    LoggerRequest { entry: None, name: "log.csv".into(), text, columns: None, zone: None }
}

/// What a table says of a time that cannot be is named by its line, and the rest is taken in once.
#[test]
fn a_table_of_the_log_is_held_to_the_times_of_its_heap() {
    let mut of = Tending::of("Terrace heap", 5);
    let long = "x".repeat(501);
    let rows = format!(
        "2026-03-12T08:00:00Z,turn,,,,\n2026-02-01T08:00:00Z,turn,,,,\n2026-04-01T08:00:00Z,stick,hot,,,\n\
         2026-03-13T08:00:00Z,note,,,,{long}\n2026-03-13T09:00:00Z,water,20,L,even,\n"
    );
    let (heap, file) = (of.heap, log_file(&rows));
    let seen = of.place.act(|tx, _| import::look(tx, (heap, &file))).expect("is looked at");
    let bad: Vec<_> = seen.bad.iter().map(|of| (of.line.unwrap_or(0), of.code)).collect();
    assert_eq!((seen.new, seen.bad_rows), (2, 3));
    let wanted = [(3, FaultCode::BeforeBegun), (4, FaultCode::InFuture), (5, FaultCode::TooLong)];
    assert_eq!(bad, wanted);
    let taken = |of: &mut Tending| {
        let file = file.clone();
        of.place.act(|tx, who| import::import(tx, who, (heap, file))).expect("is taken in")
    };
    assert_eq!((taken(&mut of).new, taken(&mut of).known), (2, 2));
    assert_eq!(of.kinds(), [EntryKind::Water, EntryKind::Turn]);
}

#[test]
fn tending_stands_in_no_build_days_way() {
    let mut place = Place::demo();
    let batch = place.batch("Terrace heap");
    let heap = place.act(|tx, who| build::begin(tx, who, (batch, None))).expect("begins");
    let before = place.act(|tx, _| build::heap::get(tx, heap)).expect("is there");
    let wrote =
        place.act(|tx, who| entry::tend(tx, who, (heap, says(Tended::Stick { feel: StickFeel::Cool }))));
    let wrote = wrote.expect("is written");
    place
        .act(|tx, who| entry::take_back(tx, who, (heap, wrote, BackRequest::default())))
        .expect("is taken back");
    // Who laid the first layer without signal knew of neither.
    let step = &before.build.steps[0];
    let lays = build::act::LayRequest {
        entry: Some(EntryId::fresh()),
        after: Some(before.listed.head),
        mine: Vec::new(),
        at: None,
        step: 0,
        portions: step.portions.clone(),
        water_l: step.water_l,
        new_items: Vec::new(),
    };
    place.act(|tx, who| build::act::lay(tx, who, (heap, lays))).expect("nothing stands in its way");
}
