//! Laws that hold of every heap, and directions that practice knows.

use proptest::prelude::*;

use super::super::rates::{Around, Rates};
use super::super::state::{State, Zone};
use super::*;

/// The good mix at its start, before any step, and its flows on the fifth day.
#[test]
fn the_good_mix_at_its_start_and_on_its_fifth_day() {
    let near = |what: &str, got: f64, want: f64| {
        assert!((got - want).abs() < 2e-5 * want.abs(), "{what}: {got} is not {want}");
    };
    let (make, state) = good(365.0).built(bay_of(1.2), 18.0).expect("is built");
    let Zone { fast, slow, resistant, ash, water, carbon, organic_n, ammonia_n, .. } = state.whole();
    near("fast", fast, 90.3401);
    near("slow", slow, 109.300);
    near("resistant", resistant, 105.881);
    near("ash", ash, 35.1790);
    near("water", water, 456.300);
    near("carbon", carbon, 154.675);
    near("organic nitrogen", organic_n, 5.08066);
    near("ammonia", ammonia_n, 0.354250);
    near("room", good(365.0).room_m3, 2.06939);
    let weather = Weather::default();
    let of = |state: &State, hours| {
        Rates::of(&make, state, &Around::at(&weather, functions::pressure_pa(0.0), hours, 0.0))
    };
    let rates = of(&state, 0.0);
    near("chimney", rates.air.chimney, 0.524791);
    near("outside to shell", rates.air.ambient_shell, 2.39641);
    near("shell to core", rates.air.core_shell, 0.583132);
    near("core oxygen", rates.oxygen[0], 0.809517);
    near("shell oxygen", rates.oxygen[1], 0.907455);
    near("shortage", rates.shortage, 0.0129920);
    let State { core, shell, course, .. } = rates.change;
    near("fast, core", core.fast, -0.0147827);
    near("water, core", core.water, 0.00982406);
    near("heat, core", core.heat, 0.351673);
    near("ammonia, core", core.ammonia_n, 0.000223064);
    near("fast, shell", shell.fast, -0.0255489);
    near("water, shell", shell.water, 0.00967871);
    near("heat, shell", shell.heat, 0.878869);
    near("ammonia, shell", shell.ammonia_n, 0.000325729);
    near("microbes", course.microbes, 0.0121320);

    let ran = run(&good(365.0), &Setting::of(bay_of(1.2)), 5).expect("runs");
    near("core", ran.state.core.temperature(), 63.1995);
    near("shell", ran.state.shell.temperature(), 52.6174);
    let rates = of(&ran.state, 120.0);
    near("chimney", rates.air.chimney, 5.83903);
    near("core oxygen", rates.oxygen[0], 0.745178);
    near("volume", rates.standing.volume_m3(), 1.45069);
    let watts = |megajoules_an_hour: f64| megajoules_an_hour / 3.6e-3;
    assert!((watts(rates.change.totals.heat_made) - 1508.5).abs() < 0.1);
    assert!((watts(rates.change.totals.heat_aired) - 803.3).abs() < 0.1);
    assert!((watts(rates.change.totals.heat_conducted) - 648.8).abs() < 0.1);
}

/// What was put in later, kg and MJ, by the same sums.
#[derive(Clone, Copy, Default)]
struct Added {
    held: Zone,
}

/// The five sums of mass, heat, carbon, nitrogen and water: what is there is what was, came and went.
fn closes(before: &State, after: &State, added: Added) -> Result<(), String> {
    let (was, is, t) = (before.whole().plus(&added.held, 1.0), after.whole(), &after.totals);
    let n = |zone: &Zone| zone.organic_n + zone.ammonia_n;
    let sums = [
        ("mass", is.wet(), was.wet() + t.oxygen + t.rain - t.carbon_dioxide - t.vapour - t.leached),
        (
            "heat",
            is.heat,
            was.heat + t.heat_made + t.heat_rained - t.heat_aired - t.heat_conducted - t.heat_leached,
        ),
        ("carbon", is.carbon, was.carbon - 12.0 / 44.0 * t.carbon_dioxide),
        ("nitrogen", n(&is), n(&was) - t.n_vented - t.n_leached),
        ("water", is.water, was.water + t.water_made + t.rain - t.vapour - t.leached),
    ];
    for (what, is, should) in sums {
        if (is - should).abs() > 1e-9 * should.abs().max(1.0) {
            return Err(format!("{what}: {is} should be {should}"));
        }
    }
    Ok(())
}

fn forms() -> impl Strategy<Value = Geometry> {
    let form = prop_oneof![
        (0.8..2.5_f64, 0.8..2.5_f64).prop_map(|(length_m, width_m)| Form::Box { length_m, width_m }),
        (0.5..2.0_f64).prop_map(|diameter_m| Form::Cylinder { diameter_m }),
        (2.0..12.0_f64, 1.2..3.0_f64).prop_map(|(length_m, width_m)| Form::Windrow { length_m, width_m }),
    ];
    let cover = prop_oneof![Just(Cover::None), Just(Cover::Roof), Just(Cover::Sheet)];
    (form, 0.02..1.0_f64, 0.0..2.0_f64, cover, 0_u32..4).prop_map(
        |(form, side_open, wall_r, cover, count)| {
            let columns = Columns { count, diameter_m: 0.1 };
            Geometry { form, side_open, wall_r, cover, columns }
        },
    )
}

/// Mixes of straw, stalks and something green or dung, to a moisture, that fill their form about knee-high
/// or more.
fn mixes() -> impl Strategy<Value = Vec<(&'static str, f64)>> {
    (0.1..1.0_f64, 0.1..1.0_f64, 0.1..1.0_f64, 0.0..0.5_f64, 0.35..0.75_f64).prop_map(
        |(stover, wilted, dung, chips, moisture)| {
            let mut parts =
                vec![("stover", stover), ("wilted", wilted), ("drymanure", dung), ("chips", chips)];
            let dry = mix(&parts).held;
            parts.push(("water", (dry.dry() * moisture / (1.0 - moisture) - dry.water).max(0.0)));
            parts
        },
    )
}

fn weathers() -> impl Strategy<Value = Weather> {
    (-2.0..28.0_f64, 0.0..10.0_f64, 0.2..0.95_f64, 0.0..3500.0_f64).prop_map(
        |(mean_c, day_swing_c, humidity, altitude_m)| Weather {
            mean_c,
            day_swing_c,
            humidity,
            altitude_m,
            ..Weather::default()
        },
    )
}

fn happenings() -> impl Strategy<Value = Vec<Event>> {
    let one = (0.0..20.0_f64, 0_usize..4, 0.0..1.0_f64).prop_map(|(day, which, much)| Event {
        at_h: (day * 24.0 * 4.0).round() / 4.0,
        what: match which {
            0 => Happening::Turn { mixing: much },
            1 => Happening::Water { litres: 60.0 * much, spread: Pouring::Even, temp_c: None },
            2 => Happening::Water { litres: 60.0 * much, spread: Pouring::Top, temp_c: Some(10.0) },
            _ => Happening::Add { what: mix(&[("scraps", 1.0 + 20.0 * much)]), temp_c: Some(15.0) },
        },
    });
    prop::collection::vec(one, 0..6)
}

/// A mix made so much that it stands so high in its form.
fn filled(parts: &[(&'static str, f64)], geometry: Geometry, height_m: f64) -> Start {
    let one = mix(parts);
    let full_m3 = match geometry.form {
        Form::Windrow { .. } => geometry.foot_m2() * height_m * 2.0 / 3.0,
        _ => geometry.foot_m2() * height_m,
    };
    let times = full_m3 / one.room_m3;
    let all: Vec<_> = parts.iter().map(|(name, kg)| (*name, kg * times)).collect();
    mix(&all)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    /// Nothing comes from nowhere, whatever is done, and nothing is ever less than nothing.
    #[test]
    fn nothing_is_lost_and_nothing_comes_from_nowhere(
        parts in mixes(), geometry in forms(), height in 0.5..1.6_f64, weather in weathers(),
        events in happenings(), rain in prop::collection::vec((0.0..20.0_f64, 0.5..20.0_f64, 0.0..60.0_f64), 0..3),
    ) {
        let start = filled(&parts, geometry, height);
        let rain = rain.into_iter().map(|(day, hours, mm)| Rain { at_h: day * 24.0, hours, mm }).collect();
        let setting = Setting { geometry, weather: weather.clone(), rain, events: events.clone(), start_c: None, step_h: 0.5 };
        let Ok((_, before)) = start.built(geometry, weather.mean_c) else { return Ok(()) };
        let ran = run(&start, &setting, 20).map_err(|fault| TestCaseError::fail(format!("{fault:?}")))?;
        let mut added = Added::default();
        for event in events.iter().filter(|event| event.at_h < 480.0) {
            let air = weather.air_c(event.at_h);
            let more = match event.what {
                Happening::Turn { .. } => Zone::default(),
                Happening::Water { litres, temp_c, .. } => Zone {
                    water: litres,
                    heat: constants::CAPACITY_WATER * litres * temp_c.unwrap_or(air),
                    ..Zone::default()
                },
                Happening::Add { what, temp_c } => what.at(temp_c.unwrap_or(air)),
                Happening::Cover(_) => Zone::default(),
            };
            added.held = added.held.plus(&more, 1.0);
        }
        prop_assert_eq!(closes(&before, &ran.state, added), Ok(()));
        prop_assert!(ran.state.is_sound());
        let mut short_before = 0.0;
        for hour in &ran.hours {
            prop_assert!(hour.free_air.iter().all(|air| (0.0..1.0).contains(air)), "{hour:?}");
            prop_assert!(hour.oxygen.iter().all(|level| *level > 0.0 && *level <= 1.0 + 1e-9), "{hour:?}");
            prop_assert!((-1e-9..=1.0).contains(&hour.shortage), "{hour:?}");
            prop_assert!(hour.temp_c.iter().all(|t| (-15.0..90.0).contains(t)), "{hour:?}");
            prop_assert!(hour.n_lost_kg >= short_before - 1e-9);
            short_before = hour.n_lost_kg;
        }
    }

    /// Cut in two, a list of events comes to the same; so do half steps, nearly.
    #[test]
    fn finer_steps_change_nothing_to_speak_of(
        parts in mixes(), height in 0.6..1.4_f64, events in happenings(), mean in 2.0..25.0_f64,
    ) {
        let start = filled(&parts, bay_of(1.2), height);
        let weather = Weather { mean_c: mean, ..Weather::default() };
        let at = |step_h| {
            let setting = Setting { weather: weather.clone(), events: events.clone(), step_h, ..Setting::of(bay_of(1.2)) };
            run(&start, &setting, 8)
        };
        let (Ok(coarse), Ok(fine)) = (at(0.25), at(0.125)) else { return Ok(()) };
        for (one, other) in coarse.hours.iter().zip(&fine.hours) {
            for zone in [0, 1] {
                prop_assert!((one.temp_c[zone] - other.temp_c[zone]).abs() < 1e-3);
            }
        }
        prop_assert_eq!(coarse, at(0.25).expect("ran before"));
    }
}

fn peak(water: f64, setting: &Setting) -> f64 {
    run(&good(water), setting, 14).expect("runs").summary().peak_core_c
}

fn rises(what: &str, peaks: impl IntoIterator<Item = f64>) {
    let peaks: Vec<f64> = peaks.into_iter().collect();
    assert!(peaks.windows(2).all(|two| two[0] < two[1]), "{what}: {peaks:?}");
}

#[test]
fn wetter_warmer_larger_and_better_kept_is_hotter_and_sodden_is_not() {
    let bay = Setting::of(bay_of(1.2));
    rises("water", [85.0, 150.0, 230.0, 365.0].map(|water| peak(water, &bay)));
    assert!(peak(830.0, &bay) < peak(365.0, &bay));
    rises(
        "the air",
        [5.0, 10.0, 18.0, 28.0].map(|mean_c| {
            peak(365.0, &Setting { weather: Weather { mean_c, ..Weather::default() }, ..bay.clone() })
        }),
    );
    let sized = [(0.3, 0.8), (0.6, 1.0), (1.0, 1.2), (2.0, 1.5), (6.0, 2.2)].map(|(times, side)| {
        let parts = [("stover", 222.0), ("wilted", 110.0), ("drymanure", 100.0), ("water", 365.0)];
        let start = mix(&parts.map(|(name, kg)| (name, kg * times)));
        run(&start, &Setting::of(bay_of(side)), 14).expect("runs").summary().peak_core_c
    });
    rises("size", sized);
    let kept = |wall_r| Setting { geometry: Geometry { wall_r, ..bay_of(1.2) }, ..bay.clone() };
    let walls = [0.0, 0.5, 2.0].map(|r| run(&good(365.0), &kept(r), 14).expect("runs").summary());
    rises("walls, core", walls.map(|of| of.peak_core_c));
    rises("walls, shell", walls.map(|of| of.peak_shell_c));
}

#[test]
fn turning_weekly_loses_more_and_every_turn_dips_and_rises_again() {
    let bay = Setting::of(bay_of(1.2));
    let turned = Setting { events: [7.0, 14.0, 21.0, 28.0].map(turn_on).to_vec(), ..bay.clone() };
    let (never, weekly) = (run(&good(365.0), &bay, 30), run(&good(365.0), &turned, 30));
    let (never, weekly) = (never.expect("runs"), weekly.expect("runs"));
    let lost = |of: &super::super::run::Course| of.days().last().expect("a day").dry_lost;
    assert!(lost(&weekly) > lost(&never) + 0.01, "{} {}", lost(&weekly), lost(&never));
    for day in [7, 14, 21] {
        let core = |hour: usize| weekly.hours[hour].temp_c[0];
        let (at, after) = (core(day * 24), core(day * 24 + 1));
        let best = (1..72).map(|h| core(day * 24 + h)).fold(0.0, f64::max);
        assert!(after < at - 2.0 && best > at, "day {day}: {at}, {after}, {best}");
    }
}

#[test]
fn the_more_nitrogen_the_more_of_it_is_lost() {
    let of = |k: f64| {
        let start = mix(&[("stover", 230.0 - k), ("wilted", 60.0 + k), ("litter", k), ("water", 340.0)]);
        let ran = run(&start, &Setting::of(bay_of(1.2)), 30).expect("runs");
        (ran.hours[0].c_n, ran.days().last().expect("a day").n_lost)
    };
    let found = [0.0, 40.0, 80.0, 120.0, 160.0].map(of);
    let want = [(40.2, 0.104), (26.8, 0.249), (20.8, 0.320), (17.3, 0.364), (15.1, 0.394)];
    for ((c_n, lost), (wanted, gone)) in found.into_iter().zip(want) {
        assert!(
            (c_n - wanted).abs() < 0.06 && (lost - gone).abs() < 6e-4,
            "{c_n} {lost}, not {wanted} {gone}"
        );
    }
}

#[test]
fn rain_wets_what_lies_open_and_nothing_else() {
    let rained = |cover| {
        let rain = vec![Rain { at_h: 60.0, hours: 10.0, mm: 40.0 }];
        let geometry = Geometry { cover, ..bay_of(1.2) };
        run(&good(365.0), &Setting { geometry, rain, ..Setting::of(geometry) }, 30).expect("runs")
    };
    let [open, sheet, roof] = [Cover::None, Cover::Sheet, Cover::Roof].map(rained);
    assert!((open.state.totals.rain - 43.2).abs() < 1e-9);
    assert_eq!([sheet.state.totals.rain, roof.state.totals.rain], [0.0, 0.0]);
    let wet = [&roof, &sheet, &open].map(|of| of.hours.last().expect("hours").moisture);
    rises("moisture", wet);
    let dry = Setting { rain: vec![Rain { at_h: 60.0, hours: 10.0, mm: 0.0 }], ..Setting::of(bay_of(1.2)) };
    let none = run(&good(365.0), &Setting::of(bay_of(1.2)), 5).expect("runs");
    assert_eq!(run(&good(365.0), &dry, 5).expect("runs").hours, none.hours);
}

#[test]
fn a_windrow_is_as_hot_however_long_it_is() {
    let long = |times: f64| {
        let form = Form::Windrow { length_m: 10.0 * times, width_m: 2.6 };
        let start = mix(&[("straw", 705.0 * 3.0 * times), ("cattle", 2640.0 * 3.0 * times)]);
        run(&start, &Setting::of(Geometry::of(form)), 14).expect("runs").summary().peak_core_c
    };
    assert!((long(1.0) - long(10.0)).abs() < 0.6);
}

#[test]
fn air_columns_help_it_breathe_and_height_above_the_sea_matters_little() {
    let short = |count| {
        let ring = Form::Cylinder { diameter_m: 1.0 };
        let geometry = Geometry { columns: Columns { count, diameter_m: 0.1 }, ..Geometry::of(ring) };
        let start = mix(&[("leaves", 275.0), ("wilted", 105.0), ("water", 215.0)]);
        -run(&start, &Setting::of(geometry), 30).expect("runs").state.totals.short_h
    };
    rises("columns", [0, 2, 5].map(short));
    let high = |altitude_m| {
        let weather = Weather { altitude_m, ..Weather::default() };
        peak(365.0, &Setting { weather, ..Setting::of(bay_of(1.2)) })
    };
    let sea = high(0.0);
    for altitude in [1000.0, 2000.0, 2900.0, 3500.0] {
        assert!((high(altitude) - sea).abs() < 3.0, "{altitude}");
    }
}

#[test]
fn what_nothing_eats_stays_cold_and_what_is_nothing_is_refused() {
    let wood = Part { lignin: 0.40, ..part("chips", 250.0) };
    let start = Start::of(&[wood, part("water", 120.0)]);
    let ran = run(&start, &Setting::of(bay_of(1.2)), 30).expect("runs");
    assert!(ran.summary().peak_core_c < 18.0 + 8.0);
    let sand = Part { degradability: Degradability::Inert, ..part("drymanure", 100.0) };
    let refused = |parts: &[Part], geometry| Start::of(parts).built(geometry, 18.0).expect_err("refused");
    assert_eq!(refused(&[sand], bay_of(1.2)).path.to_string(), "materials");
    assert_eq!(refused(&[], bay_of(1.2)).path.to_string(), "materials");
    let nothing = Part { nitrogen: 0.0, ..part("straw", 50.0) };
    assert_eq!(refused(&[nothing], bay_of(1.2)).path.to_string(), "materials");
    let not_a_number = Part { kg: f64::NAN, ..part("straw", 50.0) };
    assert_eq!(refused(&[not_a_number], bay_of(1.2)).path.to_string(), "materials");
    let straw = [part("straw", 50.0), part("cattle", 100.0)];
    assert_eq!(refused(&straw, bay_of(0.2)).path.to_string(), "geometry.length_m");
    assert_eq!(refused(&straw, bay_of(f64::NAN)).path.to_string(), "geometry.length_m");
    assert_eq!(
        refused(&[part("straw", 5000.0), part("cattle", 9000.0)], bay_of(1.2)).path.to_string(),
        "geometry"
    );
}

/// What is turned without mixing keeps its two zones apart.
#[test]
fn turned_in_place_core_and_shell_keep_what_is_theirs() {
    let (mut make, mut state) = good(365.0).built(bay_of(1.2), 18.0).expect("is built");
    let before = [state.core.dry(), state.shell.dry()];
    Happening::Turn { mixing: 0.0 }.does(&mut make, &mut state, 10.0);
    let after = [state.core.dry(), state.shell.dry()];
    assert!(before.iter().zip(after).all(|(was, is)| (was - is).abs() < 1e-9));
}
