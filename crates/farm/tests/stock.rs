//! Stock by its commands: measures counted in one another, lots, tests and a person's own
//! materials. Each command is done on the demo farm as a person would do it.

mod support;

use support::{Place, refused};
use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_farm::Unit;
use zymarch_farm::command::{Add, Change, Remove, Restore};
use zymarch_farm::stock::field_test::{self, FieldTestFields};
use zymarch_farm::stock::material_file::{self, ImportRequest};
use zymarch_farm::stock::measure::{self, Glyph, Measure, MeasureFields, VolumeWay};
use zymarch_farm::stock::sorted_out::{self, SortedOutFields};
use zymarch_farm::stock::{lot, material, on_hand, site};
use zymarch_formats::field_test::Readings;
use zymarch_store::id::{LotId, MeasureId};

fn fields(name: &str, way: VolumeWay) -> MeasureFields {
    MeasureFields { name: name.into(), plural: format!("{name}s"), glyph: Glyph::Other, way, heaped: 1.0 }
}

fn measured(place: &mut Place, what: MeasureFields) -> Result<Measure, Faults> {
    let site = place.site();
    place.act(|tx, who| measure::add(tx, who, Add { site, id: None, what }))
}

fn measure_named(place: &mut Place, name: &str) -> Measure {
    let site = place.site();
    let all = place.act(|tx, _| measure::list(tx, site)).expect("reads");
    all.into_iter().find(|one| one.fields.name == name).expect("is there")
}

fn lot_of(place: &mut Place, material: &str) -> lot::Lot {
    place.lots().into_iter().find(|lot| lot.fields.material == material).expect("is in stock")
}

/// What a change of a measure must carry along: whatever is counted in it.
#[test]
fn a_measure_counted_in_another_follows_it_and_so_does_the_stock_counted_in_it() {
    let mut place = Place::demo();
    let barrow = measure_named(&mut place, "barrow");
    let cart =
        measured(&mut place, fields("cart", VolumeWay::Measures { count: 6.0, measure_id: barrow.id }))
            .expect("is added");
    assert!((cart.litres - 6.0 * barrow.litres).abs() < 1e-9);

    let site = place.site();
    let straw = lot_of(&mut place, "barley-straw").fields;
    let in_carts =
        lot::LotFields { amount: 2.0, unit: Unit::Measure, measure_id: Some(cart.id), label: None, ..straw };
    let lot = place
        .act(|tx, who| lot::add(tx, who, Add { site, id: None, what: in_carts }))
        .expect("is written down");
    assert!((lot.litres - 12.0 * barrow.litres).abs() < 1e-6);

    let larger = MeasureFields { way: VolumeWay::Litres { litres: 90.0 }, ..barrow.fields.clone() };
    let change = Change { id: barrow.id, version: barrow.version, to: larger };
    place.act(|tx, who| measure::change(tx, who, change)).expect("is changed");
    assert!((measure_named(&mut place, "cart").litres - 540.0).abs() < 1e-9);
    let after = place.lots().into_iter().find(|one| one.id == lot.id).expect("is there");
    assert!((after.litres - 1080.0).abs() < 1e-6);
    assert!((after.kg / lot.kg - 90.0 / barrow.litres).abs() < 1e-9, "weight follows volume");
}

#[test]
fn a_measure_counted_in_itself_at_the_end_is_refused_and_nothing_moves() {
    let mut place = Place::demo();
    let barrow = measure_named(&mut place, "barrow");
    let cart =
        measured(&mut place, fields("cart", VolumeWay::Measures { count: 6.0, measure_id: barrow.id }))
            .expect("is added");
    let round = MeasureFields {
        way: VolumeWay::Measures { count: 0.2, measure_id: cart.id },
        ..barrow.fields.clone()
    };
    let change = Change { id: barrow.id, version: barrow.version, to: round };
    let (path, _) = refused(place.act(|tx, who| measure::change(tx, who, change)));
    assert!(path.starts_with("way"), "{path}");
    assert_eq!(measure_named(&mut place, "barrow").litres, barrow.litres);
}

#[test]
fn a_measure_that_is_removed_leaves_what_is_counted_in_it_as_it_was() {
    let mut place = Place::demo();
    let barrow = measure_named(&mut place, "barrow");
    let weighed = |place: &mut Place| lot_of(place, "sheep-manure").kg;
    let before = weighed(&mut place);
    place.act(|tx, who| measure::remove(tx, who, Remove(barrow.id))).expect("is removed");
    let straw = lot_of(&mut place, "barley-straw").fields;
    let what = lot::LotFields { unit: Unit::Measure, measure_id: Some(barrow.id), ..straw };
    let site = place.site();
    assert_eq!(weighed(&mut place), before);
    let (path, _) = refused(place.act(|tx, who| lot::add(tx, who, Add { site, id: None, what })));
    assert_eq!(path, "measure_id", "nothing new is counted in it");
    let back = place.act(|tx, who| measure::restore(tx, who, Restore(barrow.id))).expect("comes back");
    assert_eq!(back.fields.name, "barrow");
}

#[test]
fn every_figure_of_a_measure_is_refused_by_its_path() {
    let mut place = Place::demo();
    let cases = [
        (fields(" ", VolumeWay::Litres { litres: 5.0 }), "name"),
        (fields("vat", VolumeWay::Litres { litres: f64::NAN }), "way"),
        (fields("vat", VolumeWay::Litres { litres: -3.0 }), "way"),
        (fields("vat", VolumeWay::Cylinder { across_cm: 0.0, height_cm: 40.0 }), "way.across_cm"),
        (fields("vat", VolumeWay::Box { length_cm: 40.0, width_cm: 1e9, height_cm: 40.0 }), "way.width_cm"),
        (fields("vat", VolumeWay::Measures { count: 2.0, measure_id: MeasureId::fresh() }), "way.measure_id"),
    ];
    for (what, path) in cases {
        let (found, _) = refused(measured(&mut place, what.clone()));
        assert!(found.starts_with(path) || (path == "way" && found == "litres"), "{what:?}: {found}");
    }
}

/// Two phones write the same lot down: the id is the phone's, and it is one lot.
#[test]
fn a_lot_sent_twice_under_one_id_is_one_lot() {
    let mut place = Place::demo();
    let site = place.site();
    let before = place.lots().len();
    let what = lot::LotFields {
        label: Some("from the lower field".into()),
        ..lot_of(&mut place, "barley-straw").fields
    };
    let id = Some(LotId::fresh());
    for _ in 0..3 {
        let what = what.clone();
        let lot = place.act(|tx, who| lot::add(tx, who, Add { site, id, what })).expect("is written");
        assert_eq!(Some(lot.id), id);
    }
    assert_eq!(place.lots().len(), before + 1);
    assert!(place.checked().differences.is_empty());
}

#[test]
fn the_second_writer_of_a_lot_is_told_and_the_first_one_stands() {
    let mut place = Place::demo();
    let straw = lot_of(&mut place, "barley-straw");
    let to = |amount: f64| lot::LotFields { amount, ..straw.fields.clone() };
    let change = |amount| Change { id: straw.id, version: straw.version, to: to(amount) };
    place.act(|tx, who| lot::change(tx, who, change(3.0))).expect("is first");
    let (_, code) = refused(place.act(|tx, who| lot::change(tx, who, change(9.0))));
    assert_eq!((code, place.amount(straw.id)), (FaultCode::Stale, 3.0));
}

#[test]
fn a_test_gives_its_figure_to_the_lot_and_takes_it_along_when_it_goes() {
    let mut place = Place::demo();
    let straw = lot_of(&mut place, "barley-straw").id;
    let figure = |place: &mut Place| {
        let lots = place.lots();
        lots.into_iter().find(|lot| lot.id == straw).expect("is there").figures.density_kg_l.value
    };
    let book = figure(&mut place);
    let readings = Readings::Weigh { litres: 70.0, full_kg: 12.0, empty_kg: 5.0 };
    let what = FieldTestFields { made_on: "2026-03-14".into(), readings };
    let test = place.act(|tx, who| field_test::add(tx, who, (straw, None, what.clone()))).expect("is made");
    assert!((figure(&mut place) - 0.1).abs() < 1e-9, "7 kg in 70 L");
    place.act(|tx, who| field_test::remove(tx, who, Remove(test.id))).expect("is removed");
    assert!((figure(&mut place) - book).abs() < 1e-12);
    place.act(|tx, who| field_test::restore(tx, who, Restore(test.id))).expect("comes back");
    assert!((figure(&mut place) - 0.1).abs() < 1e-9);

    let other_kind = Readings::Drying { dish_g: 100.0, wet_g: 200.0, dried_g: vec![190.0] };
    let to = FieldTestFields { readings: other_kind, ..what.clone() };
    let change = Change { id: test.id, version: test.version, to };
    let (path, _) = refused(place.act(|tx, who| field_test::change(tx, who, change)));
    assert_eq!(path, "readings.kind");
    let wrong = Readings::Weigh { litres: 70.0, full_kg: 4.0, empty_kg: 5.0 };
    let wrong = FieldTestFields { readings: wrong, ..what };
    let (path, code) = refused(place.act(|tx, who| field_test::add(tx, who, (straw, None, wrong))));
    assert_eq!((path.as_str(), code), ("readings.full_kg", FaultCode::NotHeavier));
    assert!(place.checked().differences.is_empty());
}

#[test]
fn what_was_sorted_out_is_written_down_once_and_can_be_taken_back() {
    let mut place = Place::demo();
    let site = place.site();
    let what = SortedOutFields {
        material: "vegetable-scraps".into(),
        label: None,
        kg: Some(1.5),
        went_to: Some("the pit".into()),
        made_on: "2026-03-13".into(),
    };
    let add = |what: SortedOutFields| Add { site, id: None, what };
    let one = place.act(|tx, who| sorted_out::add(tx, who, add(what.clone()))).expect("is written");
    let count = |place: &mut Place| place.act(|tx, _| sorted_out::list(tx, site)).expect("reads").len();
    let all = count(&mut place);
    place.act(|tx, who| sorted_out::remove(tx, who, Remove(one.id))).expect("is taken back");
    assert_eq!(count(&mut place), all - 1);
    place.act(|tx, who| sorted_out::restore(tx, who, Restore(one.id))).expect("stands again");
    assert_eq!(count(&mut place), all);
    let cases = [
        (SortedOutFields { material: "no-such".into(), ..what.clone() }, "material"),
        (SortedOutFields { kg: Some(-1.0), ..what.clone() }, "kg"),
        (SortedOutFields { made_on: "2026-02-30".into(), ..what.clone() }, "made_on"),
        (SortedOutFields { made_on: "2027-01-01".into(), ..what }, "made_on"),
    ];
    for (what, path) in cases {
        let (found, _) = refused(place.act(|tx, who| sorted_out::add(tx, who, add(what))));
        assert_eq!(found, path);
    }
}

/// A file of materials comes in whole or not at all, and says of each row what it comes to.
#[test]
fn a_file_of_materials_is_looked_at_first_and_written_whole() {
    let mut place = Place::demo();
    let book = place.act(|tx, _| material_file::export(tx, false)).expect("exports");
    let mut lines = book.lines();
    let (header, first) = (lines.next().expect("a header"), lines.next().expect("a row"));
    let (_, rest) = first.split_once(',').expect("an id");
    let file = |ids: &[&str]| {
        let rows: Vec<String> = ids.iter().map(|id| format!("{id},{rest}")).collect();
        format!("{header}\n{}\n", rows.join("\n"))
    };
    let own = |place: &mut Place| place.act(|tx, _| material::list(tx)).expect("reads");
    let before = own(&mut place).len();

    let look = ImportRequest { csv: file(&["ours-1", "ours-2"]), write: false };
    let seen = place.act(|tx, who| material_file::import(tx, who, &look)).expect("is looked at");
    assert_eq!((seen.written, seen.rows.len(), own(&mut place).len()), (false, 2, before));

    let bad = ImportRequest { csv: file(&["ours-1", "Not An Id"]), write: true };
    let faults = place.act(|tx, who| material_file::import(tx, who, &bad)).expect_err("a row is at fault");
    assert_eq!((faults.0[0].path.to_string().as_str(), faults.0[0].line), ("id", Some(3)));
    assert_eq!(own(&mut place).len(), before, "nothing of it was written");

    let write = ImportRequest { write: true, ..look };
    place.act(|tx, who| material_file::import(tx, who, &write)).expect("is written");
    assert_eq!(own(&mut place).len(), before + 2);
    let again = place.act(|tx, _| material_file::export(tx, true)).expect("exports");
    assert!(again.contains("ours-1") && again.contains("ours-2"));
}

#[test]
fn another_site_has_stock_of_its_own() {
    let mut place = Place::demo();
    let what = site::SiteFields { name: "Lower plot".into(), altitude_m: None, climate: None };
    let lower = place.act(|tx, who| site::add(tx, who, (None, what))).expect("is added");
    assert!(place.act(|tx, _| on_hand::stock(tx, lower.id)).expect("reads").lots.is_empty());
    let barrow = measure_named(&mut place, "barrow");
    let straw = lot_of(&mut place, "barley-straw").fields;
    let what = lot::LotFields { unit: Unit::Measure, measure_id: Some(barrow.id), ..straw };
    let add = Add { site: lower.id, id: None, what };
    let (path, _) = refused(place.act(|tx, who| lot::add(tx, who, add)));
    assert_eq!(path, "measure_id", "a barrow of another site");
}
