//! From a ready heap to the bed and back to the next heap: harvest, compost, places, uses, results, chains.

mod support;

use jiff::Span;
use support::{Place, refused};
use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_core::finish::apply::Use;
use zymarch_core::finish::compare::Feature;
use zymarch_core::finish::harvest::REJECTS;
use zymarch_core::finish::lab::LabFigure;
use zymarch_core::finish::restrict::{GroundKind, Restriction};
use zymarch_core::stock::field_test::LabBasis;
use zymarch_core::tend::entry::{ReadBy, Spot, Tended};
use zymarch_farm::Unit;
use zymarch_farm::command::{Add, Change, Remove, Restore};
use zymarch_farm::finish::compare::compare;
use zymarch_farm::finish::compost::{self, CompostAct, CompostActRequest, CompostTold};
use zymarch_farm::finish::ground::{self, GroundFields, GroundTold};
use zymarch_farm::finish::harvest::{self, Amount, HarvestRequest};
use zymarch_farm::finish::lab::{self, LabRequest, LabValue, Sample};
use zymarch_farm::finish::trace;
use zymarch_farm::finish::used::{self, UseRequest};
use zymarch_farm::plan::{BatchPart, batch};
use zymarch_farm::tend::entry::{self, TendRequest};
use zymarch_farm::tend::{judgement, tended, today};
use zymarch_store::id::{CompostId, EntryId, GroundId, HeapId};

const fn litres(amount: f64) -> Amount {
    Amount { amount, unit: Unit::Litre, measure_id: None }
}

fn taken(amount: f64, is_last: bool) -> HarvestRequest {
    HarvestRequest {
        id: Some(CompostId::fresh()),
        at: None,
        name: None,
        compost: litres(amount),
        rejects: None,
        rejects_label: None,
        mesh_mm: None,
        moisture_pct: Some(45.0),
        density_kg_l: Some(0.5),
        is_last,
    }
}

const fn spread(area_m2: f64) -> Use {
    Use::Topdress { area_m2, depth_cm: 1.0 }
}

fn use_at(place: GroundId, used: Use) -> UseRequest {
    UseRequest { entry: Some(EntryId::fresh()), ground: Some(place), used, at: None, note: None }
}

fn bed(name: &str) -> GroundFields {
    GroundFields {
        name: name.into(),
        kind: GroundKind::Bed,
        area_m2: Some(20.0),
        count: None,
        crop: Some("carrots".into()),
        touches_soil: true,
        is_eaten_raw: true,
        harvest_on: Some("2026-05-01".into()),
    }
}

struct Finished {
    place: Place,
    heap: HeapId,
}

impl Finished {
    fn of(days: i64) -> Self {
        let mut place = Place::demo();
        let heap = place.built("Terrace heap", days);
        Self { place, heap }
    }

    fn harvest(&mut self, request: HarvestRequest) -> Result<CompostId, Faults> {
        let heap = self.heap;
        self.place.act(|tx, who| harvest::harvest(tx, who, (heap, request)))
    }

    fn compost(&mut self, id: CompostId) -> CompostTold {
        self.place.act(|tx, _| compost::get(tx, id)).expect("is there")
    }

    fn bed(&mut self, name: &str) -> GroundId {
        let (site, what) = (self.place.site(), bed(name));
        self.place.act(|tx, who| ground::add(tx, who, Add { site, id: None, what })).expect("is kept").id
    }

    fn ground(&mut self, id: GroundId) -> GroundTold {
        self.place.act(|tx, _| ground::get(tx, id)).expect("is there")
    }

    fn used(&mut self, id: CompostId, request: UseRequest) -> Result<EntryId, Faults> {
        self.place.act(|tx, who| used::note(tx, who, (id, request)))
    }
}

#[test]
fn a_heap_is_taken_out_in_two_parts_and_its_rejects_are_stock() {
    let mut of = Finished::of(150);
    let heap = of.heap;
    let before = of.place.act(|tx, _| harvest::outlook(tx, heap)).expect("reads");
    let [expected, low, high] = before.expected_l.expect("is reckoned");
    assert!(low < expected && expected < high && expected > 200.0, "{before:?}");
    assert_eq!((before.taken_l, before.own), (0.0, None));

    let room = |of: &mut Finished| {
        let told = of.place.act(|tx, _| tended::get(tx, heap)).expect("is there");
        told.now.map(|now| now.volume_l.value)
    };
    let whole = room(&mut of).expect("is known");
    let first = of.harvest(taken(100.0, false)).expect("is taken out");
    // A heap of which some was taken is smaller by that, and goes on.
    let left = room(&mut of).expect("is known");
    assert!((left / whole - (1.0 - 100.0 / expected)).abs() < 0.01, "{left} of {whole}");
    assert_eq!(of.place.act(|tx, _| harvest::outlook(tx, heap)).expect("reads").taken_l, 100.0);

    let rest = HarvestRequest { rejects: Some(litres(30.0)), mesh_mm: Some(15.0), ..taken(250.0, true) };
    let last = of.harvest(rest.clone()).expect("is taken out");
    assert_eq!(of.harvest(rest).expect("sent again"), last);
    let told = of.compost(last);
    assert_eq!((told.litres, told.kg, told.rejects_l, told.heap_gave_l), (250.0, 125.0, Some(30.0), 380.0));
    assert!((told.expected_l.expect("is known") - expected).abs() < 0.03 * expected);
    let lots = of.place.lots();
    let rejects = lots.iter().find(|lot| Some(lot.id) == told.rejects_lot).expect("is a lot");
    assert_eq!((rejects.fields.material.as_str(), rejects.fields.amount), (REJECTS, 30.0));
    assert_eq!(rejects.fields.own.moisture_pct, Some(45.0));

    // What the site got is its own expectation from now on, and the heap asks for nothing more.
    let own =
        of.place.act(|tx, _| harvest::outlook(tx, heap)).expect("reads").own.expect("a heap was emptied");
    assert!((own.share_pct - 100.0 * 380.0 / told.expected_l.expect("is known")).abs() < 1e-9);
    assert_eq!(own.heaps, 1);
    let site = of.place.site();
    let day = of.place.act(|tx, _| today::today(tx, site)).expect("reads");
    let lines = &day.lines;
    assert!(lines.iter().all(|line| line.heap != Some(heap)));
    assert_eq!(of.place.act(|tx, _| judgement::judgement(tx, heap)).expect("is judged").tasks, []);
    assert_eq!(refused(of.harvest(taken(1.0, false))), ("heap".into(), FaultCode::Emptied));
    assert_eq!(of.compost(first).litres, 100.0);
    assert_eq!(of.place.checked().differences, []);
}

#[test]
fn a_harvest_is_taken_back_whole_unless_some_of_it_went_on() {
    let mut of = Finished::of(150);
    let screened = HarvestRequest { rejects: Some(litres(20.0)), mesh_mm: Some(10.0), ..taken(200.0, true) };
    let id = of.harvest(screened).expect("is taken out");
    let lots = of.place.lots().len();
    let bed = of.bed("Oca bed");
    let entry = of.used(id, use_at(bed, spread(5.0))).expect("goes there");
    let back = |of: &mut Finished| of.place.act(|tx, who| harvest::take_back(tx, who, id));
    assert_eq!(refused(back(&mut of)).1, FaultCode::UsedSince);
    of.place.act(|tx, who| lab::take_back(tx, who, (Sample::Compost(id), entry))).expect("is taken back");
    assert_eq!((of.compost(id).litres, of.ground(bed).got.len()), (200.0, 0));
    back(&mut of).expect("is taken back");
    assert_eq!(of.place.lots().len(), lots - 1, "the rejects are gone too");
    assert_eq!(refused(of.place.act(|tx, _| compost::get(tx, id))).1, FaultCode::NotFound);
    of.harvest(taken(10.0, false)).expect("the heap is as it was");
    assert_eq!(of.place.checked().differences, []);
}

#[test]
fn what_was_not_shown_hot_is_waited_for_until_a_day() {
    let mut of = Finished::of(150);
    let id = of.harvest(taken(300.0, false)).expect("is taken out");
    let bed = of.bed("Oca bed");
    of.used(id, use_at(bed, spread(20.0))).expect("goes there");
    let told = of.ground(bed);
    let whats: Vec<Restriction> = told.got[0].restrictions.iter().map(|kept| kept.what).collect();
    assert_eq!(
        whats,
        [Restriction::WaitToHarvest, Restriction::HarvestTooSoon, Restriction::EatenRaw],
        "pulled on 1 May, and 120 days are to be waited"
    );
    assert_eq!(told.no_harvest_until.as_deref(), Some("2026-07-12"));
    assert_eq!((told.year_l, of.compost(id).litres), (200.0, 100.0));
    let too_much = of.used(id, use_at(bed, spread(20.0)));
    assert_eq!(refused(too_much), ("use".into(), FaultCode::NotEnough));
}

#[test]
fn a_result_takes_over_from_its_day_and_stands_beside_the_one_before() {
    let mut of = Finished::of(150);
    let id = of.harvest(taken(300.0, false)).expect("is taken out");
    let nitrogen = |of: &mut Finished| {
        let told = of.compost(id);
        told.holds.into_iter().find(|one| one.figure == LabFigure::Nitrogen).expect("is told")
    };
    let estimated = nitrogen(&mut of);
    assert!(estimated.low < Some(estimated.value) && Some(estimated.value) < estimated.high);
    assert!((0.5..5.0).contains(&estimated.value), "{estimated:?}");
    let found = |made_on: &str, n: f64| LabRequest {
        entry: Some(EntryId::fresh()),
        made_on: made_on.into(),
        by: Some("district laboratory".into()),
        basis: LabBasis::Received,
        figures: vec![
            LabValue { figure: LabFigure::Nitrogen, value: n },
            LabValue { figure: LabFigure::Moisture, value: 40.0 },
        ],
    };
    let newer = of.place.act(|tx, who| lab::note(tx, who, (Sample::Compost(id), found("2026-03-12", 1.2))));
    let newer = newer.expect("is written");
    of.place
        .act(|tx, who| lab::note(tx, who, (Sample::Compost(id), found("2026-02-01", 0.6))))
        .expect("an older one, typed in later");
    let told = nitrogen(&mut of);
    assert!((told.value - 2.0).abs() < 1e-9 && told.made_on.as_deref() == Some("2026-03-12"), "{told:?}");
    assert_eq!(of.compost(id).results.len(), 2);
    // The dose follows: what goes on a bed brings what was found.
    let bed = of.bed("Oca bed");
    of.used(id, use_at(bed, spread(10.0))).expect("goes there");
    let n_kg = of.ground(bed).got[0].n_kg.expect("is known");
    assert!((n_kg - 100.0 * 0.5 * 0.6 * 0.02).abs() < 1e-9, "{n_kg}");
    of.place.act(|tx, who| lab::take_back(tx, who, (Sample::Compost(id), newer))).expect("is taken back");
    assert!((nitrogen(&mut of).value - 1.0).abs() < 1e-9);
    // The soil of the bed has results of the same kind.
    let soil = LabRequest { basis: LabBasis::Dry, ..found("2026-03-01", 0.2) };
    of.place.act(|tx, who| lab::note(tx, who, (Sample::Soil(bed), soil))).expect("is written");
    assert_eq!(of.ground(bed).soil[0].value, 0.2);
    assert_eq!(of.place.checked().differences, []);
}

#[test]
fn a_sprayed_lot_is_found_on_every_bed_it_reached_and_through_the_rejects_on_the_next() {
    let mut of = Finished::of(150);
    let site = of.place.site();
    let id = of
        .harvest(HarvestRequest { rejects: Some(litres(60.0)), mesh_mm: Some(15.0), ..taken(300.0, true) })
        .expect("is taken out");
    let (near, far) = (of.bed("Oca bed"), of.bed("Ulluco bed"));
    of.used(id, use_at(near, spread(10.0))).expect("goes there");

    // The rejects go into the next heap, and what comes of that goes on another bed.
    let rejects = of.compost(id).rejects_lot.expect("is a lot");
    let terrace = of.place.batch("Terrace heap");
    let mut next = of.place.act(|tx, _| batch::get(tx, terrace)).expect("is there").fields;
    let mut part = next.items[0].clone();
    let lots = of.place.lots();
    let lot = lots.iter().find(|lot| lot.id == rejects).expect("is there");
    part.lot_id = Some(rejects);
    part.material = lot.fields.material.clone();
    (part.amount, part.unit, part.measure_id, part.measure_litres) = (60.0, Unit::Litre, None, None);
    next.name = "Next heap".into();
    // Nothing of the sprayed lot itself.
    let sprayed = next.items.remove(0).lot_id.expect("comes from stock");
    next.items.push(part);
    of.place.act(|tx, who| batch::add(tx, who, Add { site, id: None, what: next })).expect("is saved");
    of.heap = of.place.built("Next heap", 100);
    let second = of.harvest(taken(200.0, true)).expect("is taken out");
    of.used(second, use_at(far, spread(5.0))).expect("goes there");

    let forward = of.place.act(|tx, _| trace::of_lot(tx, sprayed)).expect("is followed");
    let beds: Vec<_> = forward.uses.iter().map(|one| one.ground_name.clone().expect("is a bed")).collect();
    assert_eq!(beds, ["Oca bed", "Ulluco bed"]);
    assert_eq!((forward.heaps.len(), forward.composts.len()), (2, 2));
    let back = of.place.act(|tx, _| trace::of_ground(tx, far)).expect("is followed");
    assert_eq!((back.heaps.len(), back.uses.len()), (2, 1), "through the rejects to the first heap");
    assert!(back.lots.iter().any(|part| part.lot == Some(sprayed)));
    assert!(back.lots.iter().any(|part| part.rejects_of == Some(id)));
    let one = of.place.act(|tx, _| trace::of_compost(tx, id)).expect("is followed");
    assert_eq!((one.heaps.len(), one.uses.len()), (1, 1));
}

#[test]
fn what_cannot_be_is_refused_with_its_field() {
    let mut of = Finished::of(150);
    let with = |change: fn(&mut HarvestRequest)| {
        let mut request = taken(100.0, false);
        change(&mut request);
        request
    };
    for (request, path, code) in [
        (with(|of| of.compost.amount = 0.0), "compost.amount", FaultCode::NotAbove),
        (with(|of| of.compost.amount = f64::NAN), "compost.amount", FaultCode::NotAbove),
        (with(|of| of.compost.amount = 1e9), "compost.amount", FaultCode::NotAbove),
        (with(|of| of.rejects = Some(litres(10.0))), "mesh_mm", FaultCode::SizeMissing),
        (with(|of| of.mesh_mm = Some(0.5)), "mesh_mm", FaultCode::OutOfRange),
        (with(|of| of.moisture_pct = Some(120.0)), "moisture_pct", FaultCode::OutOfRange),
        (with(|of| of.name = Some("x".repeat(81))), "name", FaultCode::TooLong),
        (
            with(|of| of.compost = Amount { unit: Unit::Measure, ..litres(1.0) }),
            "compost.measure_id",
            FaultCode::MeasureMissing,
        ),
    ] {
        let (got, why) = refused(of.harvest(request));
        assert_eq!((got.as_str(), why), (path, code));
    }
    let soon = of.place.now() + Span::new().hours(50);
    let early = of.place.now() - Span::new().hours(24 * 300);
    for (at, code) in [(soon, FaultCode::InFuture), (early, FaultCode::BeforeBegun)] {
        let request = HarvestRequest { at: Some(at), ..taken(10.0, false) };
        assert_eq!(refused(of.harvest(request)), ("at".into(), code));
    }
    let id = of.harvest(taken(100.0, false)).expect("is taken out");
    let act = |kind, amount| CompostActRequest { entry: None, kind, amount: litres(amount), note: None };
    let more = of.place.act(|tx, who| compost::happened(tx, who, (id, act(CompostAct::Spoiled, 101.0))));
    assert_eq!(refused(more), ("amount.amount".into(), FaultCode::NotEnough));
    let spoiled = of.place.act(|tx, who| compost::happened(tx, who, (id, act(CompostAct::Spoiled, 40.0))));
    spoiled.expect("is written");
    let counted = of.place.act(|tx, who| compost::happened(tx, who, (id, act(CompostAct::Counted, 75.0))));
    counted.expect("is written");
    assert_eq!((of.compost(id).litres, of.compost(id).changes.len()), (75.0, 2));
    let nowhere = use_at(GroundId::fresh(), spread(1.0));
    assert_eq!(refused(of.used(id, nowhere)), ("ground".into(), FaultCode::NoSuchGround));
    assert_eq!(of.place.checked().differences, []);
}

#[test]
fn a_place_is_a_record_with_a_version() {
    let mut of = Finished::of(20);
    let site = of.place.site();
    let before = of.place.act(|tx, _| ground::list(tx, site)).expect("reads").len();
    let id = of.bed("Oca bed");
    let again = of.place.act(|tx, who| ground::add(tx, who, Add { site, id: None, what: bed("Oca bed") }));
    assert_eq!(refused(again).1, FaultCode::NameTaken);
    let to = |area| GroundFields { area_m2: Some(area), ..bed("Oca bed") };
    let change = |of: &mut Finished, version, area| {
        of.place.act(|tx, who| ground::change(tx, who, Change { id, version, to: to(area) }))
    };
    assert_eq!(change(&mut of, 1, 12.0).expect("is changed").fields.area_m2, Some(12.0));
    assert_eq!(refused(change(&mut of, 1, 14.0)).1, FaultCode::Stale);
    assert_eq!(refused(change(&mut of, 2, 0.0)), ("area_m2".into(), FaultCode::NotAbove));
    of.place.act(|tx, who| ground::remove(tx, who, Remove(id))).expect("is removed");
    assert_eq!(of.place.act(|tx, _| ground::list(tx, site)).expect("reads").len(), before);
    of.place.act(|tx, who| ground::restore(tx, who, Restore(id))).expect("is back");
    assert_eq!(of.ground(id).fields.name, "Oca bed");
}

#[test]
fn heaps_are_compared_by_what_is_known_of_them() {
    let mut of = Finished::of(150);
    of.harvest(taken(400.0, true)).expect("is taken out");
    let slow = of.heap;
    let quick = of.place.built("Training plot ring", 60);
    let got = of.place.act(|tx, _| compare(tx, vec![slow, quick])).expect("are compared");
    let figure = |place: usize, feature: Feature| {
        got.heaps[place].figures.iter().find(|of| of.feature == feature).map(|of| of.value)
    };
    assert!((figure(0, Feature::DaysToHarvest).expect("was taken out") - 150.0).abs() < 0.1);
    assert_eq!(figure(1, Feature::DaysToHarvest), None);
    assert_eq!((figure(0, Feature::Turns), figure(0, Feature::Hottest)), (Some(0.0), None));
    let laid = figure(0, Feature::Volume).expect("is known");
    assert!((figure(0, Feature::Yield).expect("was emptied") - 40_000.0 / laid).abs() < 1e-6);
    assert!(got.differed.contains(&Feature::Volume), "{:?}", got.differed);
    assert!((got.heaps[0].shares_pct.iter().sum::<f64>() - 100.0).abs() < 1e-9);
    let many = vec![slow; 9];
    assert_eq!(refused(of.place.act(|tx, _| compare(tx, many))), ("heaps".into(), FaultCode::TooLarge));
}

#[test]
fn what_was_taken_out_before_the_heat_was_not_in_it() {
    let mut of = Finished::of(30);
    let heap = of.heap;
    let was = |of: &mut Finished, hours: i64, what: Tended<BatchPart>| {
        let at = Some(of.place.now() - Span::new().hours(hours));
        let said = TendRequest { entry: None, at, what, note: None, photo: None, instead_of: None };
        of.place.act(|tx, who| entry::tend(tx, who, (heap, said))).expect("is written");
    };
    let taken_at = |days: i64, of: &Finished| HarvestRequest {
        at: Some(of.place.now() - Span::new().hours(24 * days)),
        ..taken(50.0, false)
    };
    // Hot from the 24th day ago until the sixth, turned five times; some was taken out in the middle of it.
    for half in 12..=48 {
        let (place, by) = (Spot::Core, ReadBy::Thermometer);
        let what = Tended::Temperature { temp_c: 60.0, place, depth_cm: None, by };
        was(&mut of, 12 * half, what);
    }
    for days in [22, 19, 16, 13, 10] {
        was(&mut of, 24 * days, Tended::Turn { mixing: None, to: None });
    }
    let request = taken_at(20, &of);
    let early = of.harvest(request).expect("is taken out");
    let request = taken_at(5, &of);
    let late = of.harvest(request).expect("is taken out");
    assert_eq!((of.compost(early).shown_hot, of.compost(late).shown_hot), (false, true));
    assert_eq!(of.place.checked().differences, []);
}

#[test]
fn what_is_sent_again_stands_though_little_is_left_and_its_place_is_gone() {
    let mut of = Finished::of(150);
    let id = of.harvest(taken(50.0, false)).expect("is taken out");
    let spoiled = CompostActRequest {
        entry: Some(EntryId::fresh()),
        kind: CompostAct::Spoiled,
        amount: litres(30.0),
        note: None,
    };
    for _ in 0..2 {
        let request = spoiled.clone();
        of.place.act(|tx, who| compost::happened(tx, who, (id, request))).expect("stands");
    }
    assert_eq!(of.compost(id).litres, 20.0);
    let bed = of.bed("Oca bed");
    let goes = use_at(bed, spread(1.5));
    let first = of.used(id, goes.clone()).expect("goes there");
    of.place.act(|tx, who| ground::remove(tx, who, Remove(bed))).expect("is removed");
    assert_eq!(of.used(id, goes).expect("stands"), first);
    assert_eq!(of.compost(id).litres, 5.0);
}
