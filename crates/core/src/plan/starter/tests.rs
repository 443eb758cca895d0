//! Worked examples and laws of starter.

use proptest::prelude::*;

use super::*;

#[test]
fn the_tables_read_and_hang_together() {
    table::read().unwrap_or_else(|bad| panic!("{bad}"));
    for (index, starter) in all().iter().enumerate() {
        let id = &starter.id;
        assert!(all()[index + 1..].iter().all(|other| other.id != *id));
        assert!(!starter.ingredients.is_empty() && !starter.steps.is_empty(), "{id}");
        assert_eq!(starter.per == Per::None, starter.purpose == Purpose::Use, "{id}");
        // What goes in makes about what comes out.
        let litres: f64 = starter.ingredients.iter().map(|one| one.each.middle()).sum();
        assert!((0.9..1.3).contains(&litres), "{id}: {litres}");
    }
}

#[test]
fn what_stands_for_an_ingredient_is_in_the_reference_table() {
    for one in all().iter().flat_map(|starter| &starter.ingredients) {
        for word in &one.stock {
            let known =
                crate::stock::material::all().iter().any(|row| row.id == *word || row.group.as_str() == word);
            assert!(known, "{}: {word}", one.id);
        }
    }
}

#[test]
fn two_hundred_litres_of_ferment_take_ten_kilograms_of_dung() {
    // 533.3 kg of dry browns at 0.25 to 0.5 L/kg: 200 L in the middle.
    let heap = HeapNeeds { dry_browns_kg: 200.0 / 0.375, ..HeapNeeds::default() };
    let ferment = find("farm-ferment").expect("listed");
    let plan = plan(ferment, &heap, 10);
    let of = |id: &str| {
        let place = ferment.ingredients.iter().position(|one| one.id == id).expect("goes in");
        (plan.ingredients[place].low().round(), plan.ingredients[place].high().round())
    };
    assert_eq!(
        (of("fresh-dung"), of("livestock-urine"), of("water")),
        ((10.0, 10.0), (5.0, 10.0), (200.0, 200.0))
    );
}

#[test]
fn what_is_begun_too_late_says_when_it_could_be_ready() {
    let culture = find("cultured-microbes").expect("listed");
    let at = |day| plan(culture, &HeapNeeds { water_l: 150.0, ..HeapNeeds::default() }, day);
    assert_eq!((at(20).timing, at(20).start_day), (Timing::InTime, 6));
    assert_eq!((at(9).timing, at(9).start_day, at(9).ready_day), (Timing::JustInTime, 0, 9));
    assert_eq!((at(2).timing, at(2).ready_day), (Timing::TooLate, 14));
}

proptest! {
    #[test]
    fn nothing_is_done_before_today_or_after_it_is_ready(place in 0..8_usize, build_day in 0..60_i32, litres in 0.0..5000.0_f64) {
        let heap = HeapNeeds { volume_l: litres, water_l: litres, dry_browns_kg: litres, wet_mass_kg: litres };
        let plan = plan(&all()[place], &heap, build_day);
        for task in &plan.tasks {
            prop_assert!(0 <= task.from_day && task.from_day <= task.to_day && task.to_day <= plan.ready_day);
        }
        prop_assert!((plan.timing == Timing::TooLate) == (plan.ready_day > build_day));
        prop_assert!(plan.use_by_day.is_none_or(|day| day >= plan.ready_day));
    }
}
