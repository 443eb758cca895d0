//! What was logged is what the model is fed.

use super::*;
use crate::plan::heap::Shape;
use crate::stock::{Own, figures, material};
use crate::tend::heat::{Setting, onward, run};

fn some(id: &str, kg: f64) -> Part {
    let row = material::find(id).expect("in the table");
    let figures = figures(Some(row), &Own::default()).expect("in the table");
    part(&Item { wet_mass_kg: kg, figures }, Some(row))
}

fn mix() -> Start {
    Start::of(&[some("barley-straw", 60.0), some("sheep-manure", 150.0), water(110.0)])
}

fn bay() -> Setting {
    let shape = Shape::Box { length_cm: 120.0, width_cm: 120.0, height_cm: 120.0 };
    Setting { step_h: 1.0, ..Setting::of(geometry(shape, None)) }
}

#[test]
fn figures_of_the_table_come_through() {
    let row = material::find("sheep-manure").expect("in the table");
    let part = some("sheep-manure", 10.0);
    assert_eq!((part.kg, part.ammonia_share), (10.0, 0.20));
    assert_eq!(part.degradability, row.degradability);
    assert!((part.density_kg_m3 - 1000.0 * row.density_kg_l.typical).abs() < 1e-9);
}

#[test]
fn only_what_changes_heat_or_water_is_an_event() {
    let log = [
        (5.0, Tended::Move),
        (10.0, Tended::Turn { mixing: None, to: None }),
        (10.5, Tended::Cover { with: Some(CoverWith::Straw) }),
        (11.0, Tended::Cover { with: None }),
        (12.0, Tended::Rain { mm: 8.0, hours: None }),
        (13.0, Tended::Uncover),
        (14.0, Tended::Add { items: vec![Start::of(&[some("vegetable-scraps", 8.0)]), Start::default()] }),
        (-3.0, Tended::Turn { mixing: None, to: None }),
    ];
    let (events, rain) = happenings(&log);
    let at: Vec<f64> = events.iter().map(|event| event.at_h).collect();
    assert_eq!(at, [10.0, 11.0, 13.0, 14.0]);
    assert_eq!(events[0].what, Happening::Turn { mixing: TURN_MIXES });
    assert_eq!(rain, [Rain { at_h: 12.0, hours: USUAL_RAIN_H, mm: 8.0 }]);
}

/// Under a roof no rain comes in; without one it does.
#[test]
fn a_cover_keeps_rain_off_from_when_it_is_there() {
    let moisture = |log: &[(f64, Tended<Start>)]| {
        let (events, rain) = happenings(log);
        let course = run(&mix(), &Setting { events, rain, ..bay() }, 3).expect("can be reckoned");
        course.hours[72].moisture
    };
    let rain = (30.0, Tended::Rain { mm: 30.0, hours: Some(10.0) });
    let dry = moisture(&[]);
    let covered = moisture(&[(29.0, Tended::Cover { with: Some(CoverWith::Roof) }), rain.clone()]);
    let late = moisture(&[rain.clone(), (41.0, Tended::Cover { with: Some(CoverWith::Roof) })]);
    assert!((covered - dry).abs() < 1e-9);
    assert!(late > dry + 0.01);
}

/// A course cut in two is the same course, and what was read stands where it goes on.
#[test]
fn it_goes_on_from_where_it_is() {
    let setting = Setting {
        events: vec![
            Event { at_h: 48.0, what: Happening::Turn { mixing: 0.8 } },
            Event {
                at_h: 60.0,
                what: Happening::Water {
                    litres: 20.0,
                    spread: super::super::heat::Pouring::Even,
                    temp_c: None,
                },
            },
        ],
        ..bay()
    };
    let whole = run(&mix(), &setting, 5).expect("can be reckoned");
    let first = run(&mix(), &setting, 2).expect("can be reckoned");
    let rest = onward((first.make, first.state), &setting, 48..120).expect("can be reckoned");
    assert_eq!(rest.hours[..], whole.hours[48..]);
    let read = warmed(&first.state, 15.0, Some(44.0), None);
    assert!((read.core.temperature() - 44.0).abs() < 1e-9);
    assert!(read.shell.temperature() > 15.0 && read.shell.temperature() < 44.0);
    assert_eq!(warmed(&first.state, 15.0, None, None), first.state);
    assert_eq!(temp_at(&whole.hours, 10.0), Some(whole.hours[10].temp_c));
    let between = temp_at(&whole.hours, 10.5).expect("within")[0];
    assert!((between - f64::midpoint(whole.hours[10].temp_c[0], whole.hours[11].temp_c[0])).abs() < 1e-9);
    assert_eq!(temp_at(&whole.hours, 120.5), None);
    assert_eq!(temp_at(&whole.hours, -0.5), None);
}
