//! A heap to be looked through by the tests of what judges one, and the laws of diagnosis.

use proptest::prelude::*;

use super::*;
use crate::mix::{self, Item};
use crate::plan::method;
use crate::stock::{self, Own, material};
use crate::tend::entry::{Sign, Smell, Spot, SqueezeFeel, StickFeel, Tended};
use crate::tend::expected::{happenings, part, water};
use crate::tend::heat::run::COARSE_STEP_H;
use crate::tend::heat::{Form, Geometry, Happening, Hour, Pouring, Setting, Start, onward};
use crate::tend::now::{Measured, Now, now};

/// A heap of a good mix in a bay, and what was logged of it.
pub(in crate::tend) struct Heap {
    pub(in crate::tend) method: &'static str,
    pub(in crate::tend) days: f64,
    pub(in crate::tend) log: Vec<Logged>,
    stuff: Vec<Stuff<'static>>,
    water_l: f64,
    hours: Vec<Hour>,
    ahead: Vec<Hour>,
    now: Option<Now>,
    core: Vec<(f64, f64)>,
    helper: Helper,
}

const MIX: [(&str, f64); 3] = [("wheat-straw", 130.0), ("sheep-manure", 330.0), ("vegetable-scraps", 120.0)];

impl Heap {
    /// A heap so many days old, with a log of days and what was then.
    pub(in crate::tend) fn of(method: &'static str, days: f64, log: &[(f64, Tended<Start>)]) -> Self {
        Self::with_water(method, days, log, 160.0)
    }

    pub(in crate::tend) fn with_water(
        method: &'static str,
        days: f64,
        log: &[(f64, Tended<Start>)],
        water_l: f64,
    ) -> Self {
        let figures = |id| stock::figures(material::find(id), &Own::default()).expect("in the table");
        let stuff: Vec<Stuff<'static>> = MIX
            .iter()
            .map(|(id, kg)| Stuff {
                item: Item { wet_mass_kg: *kg, figures: figures(id) },
                row: material::find(id),
            })
            .collect();
        let log: Vec<Logged> = log.iter().map(|(day, what)| (day * 24.0, what.clone())).collect();
        let mut parts: Vec<_> = stuff.iter().map(|of| part(&of.item, of.row)).collect();
        parts.push(water(water_l));
        let bay = Geometry { side_open: 0.5, ..Geometry::of(Form::Box { length_m: 1.2, width_m: 1.2 }) };
        let mut setting = Setting { step_h: COARSE_STEP_H, ..Setting::of(bay) };
        let (events, rain) = happenings(&log);
        (setting.events, setting.rain) = (events, rain);
        let (make, state) = Start::of(&parts).built(bay, 18.0).expect("is built");
        let so_far = (days * 24.0) as u32;
        let first = onward((make, state), &setting, 0..so_far).expect("runs");
        let ahead = onward((first.make, first.state), &setting, so_far..so_far + 336).expect("runs").hours;
        let measured = |(at, what): &Logged| match what {
            Tended::Squeeze { feel, .. } => Some((*at, Measured::Moisture(feel.moisture()))),
            _ => None,
        };
        let now = now(&first.hours, &log.iter().filter_map(measured).collect::<Vec<_>>());
        let core = log
            .iter()
            .filter_map(|(at, what)| match what {
                Tended::Temperature { temp_c, place: Spot::Core, .. } => Some((*at, *temp_c)),
                _ => None,
            })
            .collect();
        let helper = Helper { material: "wheat-straw".into(), figures: figures("wheat-straw") };
        Self { method, days, log, stuff, water_l, hours: first.hours, ahead, now, core, helper }
    }

    pub(in crate::tend) fn case(&self) -> Case<'_> {
        let items: Vec<Item> = self.stuff.iter().map(|of| of.item).collect();
        let mix = mix::sum(&items, self.water_l).expect("sums");
        Case {
            stuff: self.stuff.clone(),
            mix,
            method: method::find(self.method).expect("listed"),
            built_m3: mix.heap_volume_l / 1000.0,
            built_cm: None,
            age_h: self.days * 24.0,
            hours: self.hours.clone(),
            now: self.now,
            is_roofed: false,
            core: self.core.clone(),
            log: self.log.clone(),
            was_hot_for_seeds: false,
            brown: self.helper.clone(),
            green: self.helper.clone(),
        }
    }

    pub(in crate::tend) fn ahead(&self) -> &[Hour] {
        &self.ahead
    }
}

pub(in crate::tend) fn read(temp_c: f64) -> Tended<Start> {
    use crate::tend::entry::ReadBy;
    Tended::Temperature { temp_c, place: Spot::Core, depth_cm: None, by: ReadBy::Thermometer }
}

pub(in crate::tend) const TURNED: Tended<Start> = Tended::Turn { mixing: None, to: None };

pub(in crate::tend) fn squeezed(feel: SqueezeFeel) -> Tended<Start> {
    Tended::Squeeze { feel, place: None }
}

pub(in crate::tend) fn watered(litres: f64) -> Tended<Start> {
    Tended::Water { litres, spread: Pouring::Even }
}

#[test]
fn rain_and_water_make_an_old_squeeze_say_nothing() {
    let dusty = (5.0, squeezed(SqueezeFeel::Dusty));
    let clue = |log: &[Logged]| {
        let heap = Heap::of("bay-turned", 6.0, log);
        clue::all(&heap.case()).iter().any(|of| of.clue == Clue::SqueezeDusty)
    };
    assert!(clue(std::slice::from_ref(&dusty)));
    assert!(!clue(&[dusty.clone(), (5.5, watered(60.0))]));
    assert!(!clue(&[dusty.clone(), (5.5, Tended::Rain { mm: 20.0, hours: None })]));
    assert!(clue(&[dusty, (5.5, Tended::Rain { mm: 2.0, hours: None })]), "a drizzle is nothing");
}

#[test]
fn a_stick_counts_as_warmth_and_never_as_over_seventy() {
    let heap = Heap::of("bay-turned", 6.0, &[(5.9, Tended::Stick { feel: StickFeel::CannotHold })]);
    let found = clue::all(&heap.case());
    let has = |clue: Clue| found.iter().any(|of| of.clue == clue);
    assert!(has(Clue::HotNow) && has(Clue::WasHot) && !has(Clue::Over70) && !has(Clue::Over68));
}

#[test]
fn water_fills_up_to_the_aim_and_no_further() {
    let dry = Heap::with_water("bay-turned", 7.0, &[(6.9, squeezed(SqueezeFeel::Dusty))], 0.0);
    let case = dry.case();
    let now = case.now.expect("is reckoned");
    let found = diagnose(&case);
    let act = found.suspects[0].remedy.iter().find(|act| act.kind == ActKind::Water).expect("is watered");
    let litres = act.litres.expect("so much");
    // A dusty handful is 35 % water.
    let moist = 1.0 - now.dry_kg.value / (now.dry_kg.value / 0.65 + litres);
    assert!((moist - 0.55).abs() < 1e-6, "{moist}");
}

fn anything() -> impl Strategy<Value = Tended<Start>> {
    let pick = |count: usize| 0..count;
    prop_oneof![
        (5.0..82.0_f64).prop_map(read),
        pick(4).prop_map(|at| Tended::Stick { feel: StickFeel::ALL[at] }),
        pick(5).prop_map(|at| squeezed(SqueezeFeel::ALL[at])),
        pick(7).prop_map(|at| Tended::Smell { smell: vec![Smell::ALL[at]] }),
        pick(15).prop_map(|at| Tended::Seen { signs: vec![Sign::ALL[at]] }),
        Just(TURNED),
        (1.0..120.0_f64).prop_map(watered),
        (1.0..60.0_f64).prop_map(|mm| Tended::Rain { mm, hours: None }),
        Just(Tended::Cover { with: None }),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    /// Whatever is logged: weights are shares, no cause stands twice, none that is ruled out, and each act's
    /// amounts are more than nothing.
    #[test]
    fn whatever_is_logged_the_answer_hangs_together(
        log in prop::collection::vec((0.0..40.0_f64, anything()), 0..14), place in 0..method::all().len(),
    ) {
        let mut log = log;
        log.sort_by(|a, b| a.0.total_cmp(&b.0));
        let heap = Heap::of(&method::all()[place].id, 40.0, &log);
        let case = heap.case();
        let clues = clue::all(&case);
        let found = diagnose(&case);
        for (nth, suspect) in found.suspects.iter().enumerate() {
            prop_assert!((0.0..=1.0).contains(&suspect.weight));
            prop_assert!(!found.suspects[..nth].iter().any(|other| other.code == suspect.code));
            let row = suspect.code.row();
            prop_assert!(!clues.iter().any(|of| row.never.contains(&of.clue)), "{:?}", suspect.code);
            for act in &suspect.remedy {
                for amount in [act.litres, act.kg].into_iter().flatten() {
                    prop_assert!(amount.is_finite() && amount > 0.0, "{:?}", act);
                }
            }
        }
        let wrong = found.suspects.iter().any(|of| of.weight >= ACT_FROM && !of.code.row().is_harmless);
        prop_assert_eq!(found.is_nothing_wrong, !wrong);
        // Asked again, it is answered the same.
        prop_assert_eq!(diagnose(&case), found);
    }
}

#[test]
fn every_kind_of_event_reaches_the_model() {
    let log = [(1.0, TURNED), (2.0, watered(10.0))];
    let heap = Heap::of("bay-turned", 3.0, &log);
    let (events, _) = happenings(&heap.log);
    assert!(matches!(events[0].what, Happening::Turn { .. }) && events.len() == 2);
}
