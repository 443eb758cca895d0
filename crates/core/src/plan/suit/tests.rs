//! Each point on a batch that calls it up, and nothing hidden.

use super::*;
use crate::mix::sum;
use crate::stock::material::find;
use crate::stock::{Own, figures};

fn wish(parts: &[(&str, f64)]) -> Wish<'static> {
    let parts: Vec<_> = parts
        .iter()
        .map(|&(id, wet_mass_kg)| {
            let row = find(id);
            let figures = figures(row, &Own::default()).expect("in the table");
            (row, Item { wet_mass_kg, figures })
        })
        .collect();
    let items: Vec<Item> = parts.iter().map(|(_, item)| *item).collect();
    Wish { mix: Some(sum(&items, 30.0).expect("has nitrogen")), parts, ..Wish::default() }
}

fn good_mix() -> Wish<'static> {
    wish(&[("wheat-straw", 90.0), ("sheep-manure", 220.0)])
}

fn of<'a>(ranked: &'a [Suit<'a>], id: &str) -> &'a Suit<'a> {
    ranked.iter().find(|suit| suit.method.id == id).expect("nothing is hidden")
}

fn codes(suit: &Suit<'_>) -> Vec<SuitCode> {
    suit.points.iter().map(|point| point.code).collect()
}

#[test]
fn every_method_is_told_and_the_best_stands_first() {
    let ranked = rank(&good_mix(), crate::plan::method::all());
    assert_eq!(ranked.len(), crate::plan::method::all().len());
    assert!(ranked.windows(2).all(|pair| pair[0].score >= pair[1].score));
}

#[test]
fn half_a_cubic_metre_does_not_make_a_hot_heap_but_feeds_a_bin() {
    let ranked = rank(&wish(&[("wheat-straw", 25.0), ("sheep-manure", 60.0)]), crate::plan::method::all());
    assert!(codes(of(&ranked, "bay-turned")).contains(&SuitCode::TooSmall));
    assert!(codes(of(&ranked, "slow-bin")).contains(&SuitCode::SizeFits));
}

#[test]
fn seeds_want_heat() {
    let ranked = rank(&Wish { wants_hot: true, ..good_mix() }, crate::plan::method::all());
    assert!(matches!(ranked[0].method.heat, Heat::Hot | Heat::HotIfTurned));
    assert!(codes(of(&ranked, "worm-bin")).contains(&SuitCode::NotHot));
    assert_eq!(of(&ranked, "worm-bin").points[0].weighs, Weighs::Stops);
}

#[test]
fn six_weeks_leave_the_quick_ones() {
    let ranked = rank(&Wish { weeks: Some(9.0), ..good_mix() }, crate::plan::method::all());
    assert_eq!(ranked[0].method.id, "rapid-turned");
    assert!(codes(of(&ranked, "rapid-turned")).contains(&SuitCode::InTime));
    assert!(codes(of(&ranked, "static-tower")).contains(&SuitCode::TooLate));
}

#[test]
fn few_hours_speak_against_turning_every_other_day() {
    let ranked = rank(&Wish { hours_a_week: Some(1.0), ..good_mix() }, crate::plan::method::all());
    assert!(codes(of(&ranked, "rapid-turned")).contains(&SuitCode::TooMuchWork));
    assert!(codes(of(&ranked, "layered-heap")).contains(&SuitCode::WorkFits));
}

#[test]
fn a_tower_wants_coarse_stuff_and_water_without_chlorine() {
    let chlorinated = Wish { only_chlorinated: true, ..good_mix() };
    let ranked = rank(&chlorinated, crate::plan::method::all());
    let tower = codes(of(&ranked, "static-tower"));
    assert!(tower.contains(&SuitCode::CoarseMissing) && tower.contains(&SuitCode::WantsOpenWater));
}

#[test]
fn what_a_method_refuses_stops_it() {
    let mut with_hens = good_mix();
    let hens = find("layer-hen-manure").expect("in the table");
    let figures = figures(Some(hens), &Own::default()).expect("in the table");
    with_hens.parts[1] = (Some(hens), Item { wet_mass_kg: 60.0, figures });
    let ranked = rank(&with_hens, crate::plan::method::all());
    let worms = of(&ranked, "worm-bin");
    assert_eq!(worms.refused, [1]);
    assert!(codes(worms).contains(&SuitCode::Refuses) && worms.score < -9.0);
    // Worms live on the dung of sheep.
    let ranked = rank(&good_mix(), crate::plan::method::all());
    assert_eq!(of(&ranked, "worm-bed").refused, [0; 0]);
}

#[test]
fn what_is_far_too_wet_or_packs_speaks_against_a_method() {
    let grass = find("grass-clippings").expect("in the table");
    let figures = figures(Some(grass), &Own::default()).expect("in the table");
    let item = Item { wet_mass_kg: 400.0, figures };
    let mix = sum(&[item], 0.0).ok();
    let ranked =
        rank(&Wish { parts: vec![(Some(grass), item)], mix, ..Wish::default() }, crate::plan::method::all());
    let bay = codes(of(&ranked, "bay-turned"));
    assert!(bay.contains(&SuitCode::TooWet) && bay.contains(&SuitCode::Packs), "{bay:?}");
    assert!(!codes(of(&ranked, "worm-bed")).contains(&SuitCode::Packs), "worms want no frame");
}

#[test]
fn a_pit_is_for_dry_months() {
    let of_rain = |rain_mm| {
        let ranked = rank(&Wish { rain_mm, ..good_mix() }, crate::plan::method::all());
        codes(of(&ranked, "pit-trench"))
    };
    assert!(of_rain(Some(5.0)).contains(&SuitCode::KeepsItsWater));
    assert!(of_rain(Some(120.0)).contains(&SuitCode::DugAndFloods));
    assert!(of_rain(None).contains(&SuitCode::DugAndFloods));
}

#[test]
fn seldom_turned_is_not_counted_as_hot_throughout() {
    let ranked = rank(&Wish { wants_hot: true, ..good_mix() }, crate::plan::method::all());
    for id in ["layered-heap", "straw-manure", "pit-trench"] {
        let point = of(&ranked, id).points.iter().find(|point| point.code == SuitCode::HotIfTurned);
        assert_eq!(point.map(|point| point.weighs), Some(Weighs::Against), "{id}");
    }
    assert!(codes(of(&ranked, "bay-turned")).contains(&SuitCode::GetsHot));
}

#[test]
fn what_a_method_is_made_for_must_be_there() {
    let ranked = rank(&good_mix(), crate::plan::method::all());
    for id in ["charged-char", "fibre-bed", "sheet-layered"] {
        assert!(codes(of(&ranked, id)).contains(&SuitCode::OtherStuff), "{id}");
    }
    let charred = rank(
        &wish(&[("wheat-straw", 90.0), ("sheep-manure", 220.0), ("biochar", 40.0)]),
        crate::plan::method::all(),
    );
    assert!(!codes(of(&charred, "charged-char")).contains(&SuitCode::OtherStuff));
}

#[test]
fn of_two_that_suit_alike_the_one_with_less_work_stands_first() {
    let ranked = rank(&good_mix(), crate::plan::method::all());
    let place = |id| ranked.iter().position(|suit| suit.method.id == id).expect("told");
    assert!(place("bay-turned") < place("rapid-turned"));
}

#[test]
fn with_nothing_known_every_method_is_still_told() {
    assert_eq!(rank(&Wish::default(), crate::plan::method::all()).len(), crate::plan::method::all().len());
}

#[test]
fn the_use_weighs() {
    let by = |used_for: UsedFor| {
        rank(&Wish { used_for: Some(used_for), ..good_mix() }, crate::plan::method::all())
    };
    let has = |ranked: &[Suit<'_>], id: &str, code: SuitCode| codes(of(ranked, id)).contains(&code);
    let raw = by(UsedFor::RawFood);
    assert_eq!(raw[0].method.heat, Heat::Hot);
    assert!(has(&raw, "slow-bin", SuitCode::NotHot));
    for used_for in [UsedFor::Pots, UsedFor::Lawn] {
        let ranked = by(used_for);
        assert!(has(&ranked, "bay-turned", SuitCode::FewSeeds));
        assert!(has(&ranked, "worm-bin", SuitCode::SeedsSurvive));
    }
    let field = by(UsedFor::Field);
    assert!(has(&field, "bay-turned", SuitCode::MuchOfIt));
    assert!(has(&field, "worm-bin", SuitCode::LittleOfIt));
    assert!(has(&by(UsedFor::Trees), "static-tower", SuitCode::CoarseWillDo));
    assert_eq!(by(UsedFor::Beds), rank(&good_mix(), crate::plan::method::all()));
}
