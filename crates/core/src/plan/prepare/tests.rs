//! Worked examples and laws of prepare.

use super::*;
use crate::mix::Item;
use crate::stock::{Own, figures};
use crate::{plan::method, plan::starter, stock::material};

fn part(id: &str, wet_mass_kg: f64) -> (LayerItem, Option<&'static Material>, f64) {
    let material = material::find(id).expect("in the table");
    let figures = figures(Some(material), &Own::default()).expect("in the table");
    (LayerItem::new(Item { wet_mass_kg, figures }, Some(material), None), Some(material), 0.0)
}

const BAY: Shape = Shape::Box { length_cm: 120.0, width_cm: 120.0, height_cm: 120.0 };

fn planned<'a>(
    parts: &'a [(LayerItem, Option<&'a Material>, f64)],
    shape: Shape,
    method: &str,
) -> Planned<'a> {
    Planned {
        parts,
        water_l: 70.0,
        heap_volume_l: 1500.0,
        shape,
        heaps: 1,
        beside_l: foundation_l(shape, method::find(method)),
        method: method::find(method),
        keeps_days: &[],
        days: 8,
        starters: &[],
    }
}

fn of(needs: &[Need], job: Job) -> Option<&Need> {
    needs.iter().find(|need| need.job == job)
}

#[test]
fn what_is_missing_is_fetched() {
    let mut straw = part("barley-straw", 40.0);
    straw.2 = 3.0;
    let parts = [straw, part("sheep-manure", 90.0)];
    let needs = needs(&planned(&parts, BAY, "bay-turned"));
    assert_eq!(
        of(&needs, Job::Fetch).map(|need| (need.item, need.params[0])),
        Some((Some(0), ("missing", 3.0)))
    );
    assert_eq!(needs.iter().filter(|need| need.job == Job::Fetch).count(), 1);
}

#[test]
fn maize_stalks_are_chopped_finer_where_they_are_turned_every_other_day() {
    let coarse = material::all()
        .iter()
        .find(|row| row.particle == Particle::Coarse && row.kind == material::Kind::Brown)
        .expect("there is coarse stuff");
    let parts = [part(&coarse.id, 40.0)];
    let upto = |method| of(&needs(&planned(&parts, BAY, method)), Job::Chop).expect("chopped").params[1].1;
    assert!(upto("rapid-turned") < upto("bay-turned"));
}

#[test]
fn a_tower_is_soaked_piped_and_stands_on_a_pallet() {
    let parts = [part("barley-straw", 80.0), part("sheep-manure", 90.0)];
    let tower = Shape::Tower { diameter_cm: 130.0, height_cm: 170.0, columns: 3 };
    let needs = needs(&planned(&parts, tower, "static-tower"));
    assert_eq!(of(&needs, Job::Soak).and_then(|need| need.item), Some(0));
    assert_eq!(of(&needs, Job::Pipes).map(|need| need.params[0].1), Some(3.0));
    assert!(of(&needs, Job::Pallet).is_some() && of(&needs, Job::OpenSoil).is_none());
    assert_eq!(of(&needs, Job::StandWater).map(|need| need.days_before), Some(2));
}

#[test]
fn a_free_heap_has_twigs_a_trench_and_a_distance_to_the_well() {
    let pile = Shape::Pile { length_cm: 180.0, width_cm: 180.0, top_cm: 120.0, height_cm: 130.0 };
    let parts = [part("barley-straw", 80.0), part("sheep-manure", 90.0)];
    let needs = needs(&planned(&parts, pile, "layered-heap"));
    assert!(of(&needs, Job::FetchTwigs).is_some_and(|need| need.params[0].1 > 300.0));
    assert!(of(&needs, Job::Trench).is_some() && of(&needs, Job::Sticks).is_some());
    assert_eq!(of(&needs, Job::FarFromWater).map(|need| need.params[0]), Some(("metres", 30.0)));
}

#[test]
fn a_ferment_asks_for_its_water_and_spores_for_a_mask() {
    let parts = [part("sheep-manure", 90.0)];
    let plain = planned(&parts, BAY, "bay-turned");
    let (ferment, spores) = (starter::find("farm-ferment"), starter::find("spore-powder"));
    let with = [(ferment.expect("listed"), 100.0), (spores.expect("listed"), 0.5)];
    let helped = Planned { starters: &with, ..plain };
    let litres = |planned: &Planned| of(&needs(planned), Job::Water).expect("some").params[0].1;
    // 100 L of ferment take the place of the 70 L of water, and are not poured on top of them.
    assert!((litres(&plain) - 70.0).abs() < 1e-9 && (litres(&helped) - 100.0).abs() < 1e-9);
    assert!(of(&needs(&plain), Job::StandWater).is_none() && of(&needs(&helped), Job::StandWater).is_some());
    assert!(of(&needs(&plain), Job::Mask).is_none() && of(&needs(&helped), Job::Mask).is_some());
}

#[test]
fn what_spoils_before_build_day_is_told_and_what_is_sappy_wilts_where_no_water_is_poured() {
    let parts = [part("vegetable-scraps", 20.0), part("banana-pseudostem", 60.0), part("barley-straw", 40.0)];
    let keeps = [Some(2), Some(8), None];
    let plain = planned(&parts, BAY, "bay-turned");
    let wet = Planned { keeps_days: &keeps, water_l: 0.0, ..plain };
    let needs = needs(&wet);
    let spoiled: Vec<_> = needs.iter().filter(|need| need.job == Job::Spoils).collect();
    assert_eq!(spoiled.len(), 1, "what keeps until the day itself does not spoil");
    assert_eq!((spoiled[0].item, spoiled[0].days_before), (Some(0), 6));
    assert_eq!(of(&needs, Job::Wilt).and_then(|need| need.item), Some(1));
    assert!(of(&super::needs(&plain), Job::Wilt).is_none(), "where water is poured none is to be lost");
}

#[test]
fn people_are_counted_for_a_morning() {
    let parts = [part("sheep-manure", 90.0)];
    let large = Planned { heap_volume_l: 6000.0, ..planned(&parts, BAY, "bay-turned") };
    // 6 m³ at 1.5 to 2.5 h each: 12 hours, three people for four hours.
    assert_eq!(
        of(&needs(&large), Job::People).map(|need| need.params.clone()),
        Some(vec![("n", 3.0), ("hours", 12.0)])
    );
}
