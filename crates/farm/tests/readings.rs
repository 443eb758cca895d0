//! Readings by the thousand: taken in once, out of order, with what cannot be among them, and out again whole.

mod support;

use std::fmt::Write as _;

use jiff::Span;
use support::{Place, refused};
use zymarch_core::base::fault::FaultCode;
use zymarch_core::tend::entry::Spot;
use zymarch_core::tend::simulated::RodFault;
use zymarch_farm::tend::entry::{self, BackRequest};
use zymarch_farm::tend::export;
use zymarch_farm::tend::import::{self, LoggerRequest, LoggerTaken};
use zymarch_farm::tend::probe::StandsIn;
use zymarch_farm::tend::simulated::{self, RodFields, StationFields};
use zymarch_farm::tend::tended;
use zymarch_farm::tend::trace::{self, Trace, Wanted};
use zymarch_store::id::HeapId;

const ALL: Wanted = Wanted { from_ms: None, to_ms: None, columns: 400 };

fn trace(place: &mut Place, heap: HeapId) -> Trace {
    place.act(|tx, _| trace::trace(tx, (heap, ALL))).expect("is there")
}

fn readings(trace: &Trace, spot: Spot) -> usize {
    trace.lines.iter().find(|line| line.place == spot).map_or(0, |line| line.readings)
}

fn file(name: &str, text: &str) -> LoggerRequest {
    let (name, text) = (name.to_owned(), text.to_owned());
    LoggerRequest { entry: None, name, text, columns: None, zone: None }
}

fn take(place: &mut Place, heap: HeapId, of: LoggerRequest) -> LoggerTaken {
    place.act(|tx, who| import::import(tx, who, (heap, of))).expect("is taken in")
}

/// Readings every so many minutes up to the present, with a spike in the middle.
fn logger(place: &Place, minutes: i64, rows: i64) -> String {
    let mut text = "time,core,edge\n".to_owned();
    for row in 0..rows {
        let at = place.now() - Span::new().minutes(minutes * (rows - row));
        let core = if row == rows / 2 { 91.5 } else { 57.0 + (row % 7) as f64 / 10.0 };
        writeln!(text, "{at},{core},{}", 30.0 + (row % 5) as f64 / 10.0).expect("fits");
    }
    text
}

#[test]
fn a_file_is_taken_in_once_and_out_again_whole() {
    let mut place = Place::demo();
    let heap = place.built("Terrace heap", 10);
    let text = logger(&place, 5, 500);
    let seen = place.act(|tx, _| import::look(tx, (heap, &file("rod.csv", &text)))).expect("is read");
    assert_eq!((seen.rows, seen.new, seen.known, seen.faulty, seen.bad_rows), (500, 1000, 0, 1, 0));
    assert!(seen.lines.iter().all(|line| line.points.iter().all(|point| point[1] < 60.0)));
    let taken = take(&mut place, heap, file("rod.csv", &text));
    assert_eq!((taken.new, taken.known), (1000, 0));
    let shown = trace(&mut place, heap);
    assert_eq!(
        (readings(&shown, Spot::Core), readings(&shown, Spot::Edge), shown.faulty_count),
        (499, 500, 1)
    );
    // The same again, and one row more.
    let more = format!("{text}{},58.8,30\n", place.now());
    let again = take(&mut place, heap, file("rod, later.csv", &more));
    assert_eq!((again.new, again.known), (2, 1000));
    let entry = taken.entry.expect("was new");
    place.act(|tx, who| entry::take_back(tx, who, (heap, entry, BackRequest::default()))).expect("goes out");
    assert_eq!(readings(&trace(&mut place, heap), Spot::Core), 1);
    let third = take(&mut place, heap, file("rod.csv", &text));
    assert_eq!(third.new, 1000, "what was taken out can be taken in again");
    assert_eq!(place.checked().differences, []);
}

#[test]
fn bad_rows_are_named_and_the_rest_goes_in() {
    let mut place = Place::demo();
    let heap = place.built("Terrace heap", 10);
    let text = "time,core\n2026-03-10 08:00,55.2\nnever,55\n2026-03-10 10:00,hot\n2026-03-10 11:00,56\n";
    let seen = place.act(|tx, _| import::look(tx, (heap, &file("x.csv", text)))).expect("is read");
    let lines: Vec<_> = seen.bad.iter().map(|bad| (bad.line, bad.field.as_str(), bad.code)).collect();
    assert_eq!(lines, [(Some(3), "time", FaultCode::NotATime), (Some(4), "core", FaultCode::NotNumeric)]);
    let taken = take(&mut place, heap, file("x.csv", text));
    assert_eq!((taken.new, taken.bad_rows), (2, 2));
    let nothing = refused(place.act(|tx, who| import::import(tx, who, (heap, file("y.csv", "a,b\n")))));
    assert_eq!(nothing.1, FaultCode::NoTimeColumn);
}

/// So many that nothing may be looked for among all of them, row by row; how fast they go in the benchmarks tell.
#[test]
fn a_year_of_rows_goes_in() {
    let mut place = Place::demo();
    let heap = place.built("Terrace heap", 400);
    let text = logger(&place, 25, 20_000);
    let taken = take(&mut place, heap, file("long.csv", &text));
    assert_eq!(taken.new, 40_000);
    let shown = trace(&mut place, heap);
    assert_eq!(readings(&shown, Spot::Core), 20_000);
    let line = shown.lines.iter().find(|line| line.place == Spot::Core).expect("is there");
    assert!(line.points.len() <= 1600);
    let hottest = line.points.iter().map(|point| point[1]).fold(0.0, f64::max);
    assert!((hottest - 91.5).abs() < 1e-9, "no extreme is lost: {hottest}");
}

#[test]
fn a_log_is_taken_along_and_taken_in_elsewhere() {
    let mut place = Place::demo();
    let (from, to) = (place.built("Terrace heap", 10), place.built("Terrace heap", 10));
    take(&mut place, from, file("rod.csv", "time,core\n2026-03-10 08:00,55.2\n2026-03-10 09:00,56\n"));
    let said = "time,kind,value,unit,place,note\n2026-03-09T08:00Z,stick,hot,,,\n2026-03-10T12:00Z,water,24,L,even,\"by hand\"\n";
    take(&mut place, from, file("log.csv", said));
    let table = place.act(|tx, _| export::table(tx, from)).expect("is written");
    let taken = take(&mut place, to, file("log.csv", &table));
    assert_eq!((taken.new, taken.known, taken.bad_rows), (4, 0, 0));
    assert_eq!(take(&mut place, to, file("log.csv", &table)).new, 0);
    let back = place.act(|tx, _| export::table(tx, to)).expect("is written");
    assert_eq!(back, table);
}

#[test]
fn a_simulated_rod_plays_to_the_present_and_goes_out_whole() {
    let mut place = Place::demo();
    let heap = place.built("Terrace heap", 40);
    let fields = RodFields {
        name: "Rod".into(),
        every_min: 60,
        hours_a_second: None,
        fault: Some(RodFault::Clock),
        fault_from_day: 30.0,
    };
    let played = place
        .act(|tx, who| {
            let played = simulated::rod(tx, who, (heap, &fields))?;
            simulated::play_rod(tx, heap, &played)?;
            Ok::<_, zymarch_core::base::fault::Faults>(played)
        })
        .expect("plays");
    let shown = trace(&mut place, heap);
    assert!(shown.is_simulated);
    // What it says of its last days is a day and more ahead of the present: its end alone is told to be wrong.
    assert!(readings(&shown, Spot::Core) > 700 && shown.faulty_count > 0);
    let again = refused(place.act(|tx, who| simulated::rod(tx, who, (heap, &fields))));
    assert_eq!(again, ("name".into(), FaultCode::NameTaken));
    let of = (StandsIn::Heap(heap), played.probe.id);
    place.act(|tx, who| simulated::take_out(tx, who, of)).expect("goes out");
    let shown = trace(&mut place, heap);
    assert_eq!((readings(&shown, Spot::Core), shown.faulty_count, shown.is_simulated), (0, 0, false));
    assert_eq!(place.checked().differences, []);
}

/// Forty days of a turned heap: what the rod reads follows each turn, as what is expected does.
#[test]
fn weather_and_a_rod_make_a_history_that_lies_in_its_band() {
    let mut place = Place::demo();
    let site = place.site();
    let heap = place.built("Terrace heap", 40);
    let fields = StationFields { name: "Station 2".into(), hours_a_second: None };
    place
        .act(|tx, who| {
            let station = simulated::station(tx, who, (site, &fields))?;
            simulated::play_station(tx, site, &station)
        })
        .expect("plays");
    let fields = RodFields {
        name: "Rod".into(),
        every_min: 120,
        hours_a_second: None,
        fault: None,
        fault_from_day: 0.0,
    };
    place
        .act(|tx, who| {
            let rod = simulated::rod(tx, who, (heap, &fields))?;
            simulated::play_rod(tx, heap, &rod)
        })
        .expect("plays");
    let shown = trace(&mut place, heap);
    assert!(shown.has_air && shown.faulty_count == 0);
    let core = shown.lines.iter().find(|line| line.place == Spot::Core).expect("is there");
    for point in &core.points {
        let band = shown.band.iter().rev().find(|band| band[0] <= point[0]).expect("is expected");
        assert!(point[1] > band[1] - 1.0 && point[1] < band[2] + 1.0, "{point:?} {band:?}");
    }
    let told = place.act(|tx, _| tended::get(tx, heap)).expect("is there");
    assert!(told.now.is_some() && told.log.iter().filter(|of| of.pack.is_some()).count() >= 40);
}
