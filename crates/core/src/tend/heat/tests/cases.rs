//! Twelve situations that practice describes, with the figures of a second implementation.

use super::super::state::Make;
use super::*;

/// A case: what it is built of and what is done, and what is to come of it.
struct Case {
    name: &'static str,
    mix: Start,
    setting: Setting,
    days: u32,
    /// Wet kg, dry kg, moisture, C:N, volume m³, height m, dry density, core share, free air.
    start: [f64; 9],
    /// Peak core, its day, first at 50, days at 55, at 45, last at 45, peak shell, shortage. NaN where never.
    heat: [f64; 8],
    /// Day; core, shell, moisture, dry lost, volume left, N lost, C:N, free air of the core, uptake.
    course: &'static [[f64; 10]],
}

const NEVER: f64 = f64::NAN;

fn cases() -> Vec<Case> {
    let bay = Setting::of(bay_of(1.2));
    let with = |events: Vec<Event>| Setting { events, ..bay.clone() };
    let weekly = [7.0, 14.0, 21.0, 28.0].map(turn_on).to_vec();
    let mut watered: Vec<Event> = (1..=8).map(|nth| turn_on(f64::from(nth) * 3.0)).collect();
    watered.extend([9.0, 15.0, 21.0].map(|day| water_on(day, 30.0)));
    let good_start = [797.0, 340.70, 0.5725, 28.46, 1.7009, 1.1812, 164.64, 0.3692, 0.612];
    let square = |side_m| Geometry::of(Form::Box { length_m: side_m, width_m: side_m });
    let barrel = Geometry {
        side_open: 0.02,
        cover: Cover::Sheet,
        ..Geometry::of(Form::Cylinder { diameter_m: 0.58 })
    };
    let leaf_ring = Geometry {
        columns: Columns { count: 5, diameter_m: 0.10 },
        ..Geometry::of(Form::Cylinder { diameter_m: 1.0 })
    };
    let fortnightly = (1..=26).map(|nth| water_on(f64::from(nth) * 14.0, 4.0)).collect();
    let winter = Weather { mean_c: 5.0, day_swing_c: 3.0, ..Weather::default() };
    vec![
        Case {
            name: "1a-never-turned",
            mix: good(365.0),
            setting: bay.clone(),
            days: 120,
            start: good_start,
            heat: [70.0, 2.21, 1.1, 6.4, 9.7, 10.7, 61.6, 0.06],
            course: &[
                [7.0, 55.9, 46.3, 0.514, 0.142, 0.816, 0.139, 27.8, 0.72, 1.86],
                [30.0, 32.7, 27.7, 0.480, 0.267, 0.658, 0.208, 25.2, 0.74, 1.45],
                [120.0, 26.7, 20.9, 0.452, 0.421, 0.522, 0.308, 21.8, 0.73, 0.96],
            ],
        },
        Case {
            name: "1b-every-three-days",
            mix: good(365.0),
            setting: with(watered),
            days: 120,
            start: good_start,
            heat: [70.0, 2.21, 1.1, 8.4, 16.8, 23.5, 61.6, 0.06],
            course: &[
                [7.0, 61.4, 51.4, 0.492, 0.163, 0.850, 0.167, 27.9, 0.71, 1.72],
                [30.0, 34.3, 26.2, 0.469, 0.339, 0.641, 0.292, 25.0, 0.71, 0.88],
                [120.0, 23.5, 19.7, 0.426, 0.449, 0.501, 0.340, 21.5, 0.72, 0.59],
            ],
        },
        Case {
            name: "1c-weekly",
            mix: good(365.0),
            setting: with(weekly),
            days: 60,
            start: good_start,
            heat: [70.0, 2.21, 1.1, 8.2, 11.7, 15.7, 61.6, 0.06],
            course: &[
                [7.0, 55.9, 46.3, 0.514, 0.142, 0.816, 0.139, 27.8, 0.72, 1.86],
                [30.0, 32.3, 24.2, 0.420, 0.284, 0.728, 0.248, 25.9, 0.74, 1.21],
                [60.0, 23.9, 19.8, 0.399, 0.318, 0.630, 0.269, 25.1, 0.73, 1.10],
            ],
        },
        Case {
            name: "2-straw-and-dung",
            mix: mix(&[("straw", 705.0), ("cattle", 2640.0)]),
            setting: Setting {
                events: [21.0, 42.0, 70.0, 98.0].map(turn_on).to_vec(),
                ..Setting::of(square(2.0))
            },
            days: 120,
            start: [3345.0, 1095.60, 0.6725, 34.44, 7.2092, 1.8023, 111.38, 0.5690, 0.597],
            heat: [63.4, 3.29, 1.9, 7.9, 22.7, 25.4, 47.6, 0.03],
            course: &[
                [7.0, 57.2, 39.7, 0.656, 0.110, 0.828, 0.136, 34.9, 0.64, 1.41],
                [30.0, 39.3, 26.3, 0.601, 0.293, 0.672, 0.217, 29.4, 0.71, 0.74],
                [120.0, 24.5, 19.2, 0.501, 0.457, 0.538, 0.267, 22.7, 0.75, 0.30],
            ],
        },
        Case {
            name: "3-shut-barrel",
            mix: mix(&[("scraps", 58.0), ("leaves", 10.0), ("stover", 14.0)]),
            setting: Setting::of(barrel),
            days: 120,
            start: [82.0, 26.02, 0.6827, 35.14, 0.1988, 0.7525, 109.47, 0.2018, 0.639],
            heat: [36.0, 3.54, NEVER, 0.0, 0.0, NEVER, 30.0, 0.18],
            course: &[
                [7.0, 31.2, 25.5, 0.700, 0.068, 0.834, 0.001, 32.6, 0.57, 2.03],
                [120.0, 21.7, 19.8, 0.780, 0.437, 0.437, 0.042, 19.2, 0.30, 0.76],
            ],
        },
        Case {
            name: "4-too-dry",
            mix: good(85.0),
            setting: bay.clone(),
            days: 60,
            start: [517.0, 340.70, 0.3410, 28.46, 1.9346, 1.3435, 164.64, 0.3783, 0.803],
            heat: [22.9, 3.50, NEVER, 0.0, 0.0, NEVER, 21.2, 0.0],
            course: &[[60.0, 19.3, 17.5, 0.306, 0.020, 0.824, 0.053, 29.4, 0.77, 2.35]],
        },
        Case {
            name: "5-sodden",
            mix: good(830.0),
            setting: bay.clone(),
            days: 120,
            start: [1262.0, 340.70, 0.7300, 28.46, 1.4575, 1.0122, 164.64, 0.3566, 0.228],
            heat: [35.0, 6.67, NEVER, 0.0, 0.0, NEVER, 35.9, 0.91],
            course: &[
                [7.0, 34.9, 28.8, 0.738, 0.035, 0.870, 0.001, 27.4, 0.14, 2.28],
                [120.0, 21.1, 19.2, 0.750, 0.094, 0.811, 0.007, 25.7, 0.06, 2.12],
            ],
        },
        Case {
            name: "6-starved",
            mix: mix(&[("stover", 255.0), ("straw", 38.0), ("drymanure", 18.0), ("water", 330.0)]),
            setting: bay.clone(),
            days: 120,
            start: [641.0, 263.69, 0.5886, 60.12, 1.7055, 1.1844, 129.57, 0.3694, 0.685],
            heat: [41.0, 49.42, NEVER, 0.0, 0.0, NEVER, 28.9, 0.01],
            course: &[
                [30.0, 36.3, 24.7, 0.591, 0.099, 0.757, 0.014, 54.4, 0.64, 1.84],
                [120.0, 30.4, 24.3, 0.602, 0.438, 0.473, 0.024, 32.4, 0.73, 0.84],
            ],
        },
        Case {
            name: "7-rich",
            mix: mix(&[("stover", 110.0), ("wilted", 220.0), ("litter", 200.0), ("water", 355.0)]),
            setting: bay.clone(),
            days: 60,
            start: [885.0, 383.50, 0.5667, 15.85, 1.6517, 1.1470, 188.81, 0.3669, 0.559],
            heat: [72.6, 2.21, 1.0, 8.2, 11.9, 12.8, 65.7, 0.13],
            course: &[
                [7.0, 62.4, 52.5, 0.502, 0.146, 0.816, 0.252, 17.6, 0.67, 2.04],
                [60.0, 29.1, 23.7, 0.446, 0.331, 0.605, 0.412, 16.6, 0.71, 1.36],
            ],
        },
        Case {
            name: "8-leaf-ring",
            mix: mix(&[("leaves", 275.0), ("wilted", 105.0), ("water", 215.0)]),
            setting: Setting { events: fortnightly, ..Setting::of(leaf_ring) },
            days: 365,
            start: [595.0, 238.50, 0.5992, 28.71, 1.4198, 1.8077, 130.33, 0.3202, 0.648],
            heat: [54.7, 2.42, 2.0, 0.0, 4.5, 6.5, 44.6, 0.01],
            course: &[
                [7.0, 42.3, 32.8, 0.580, 0.095, 0.841, 0.065, 27.5, 0.70, 1.26],
                [365.0, 20.6, 18.5, 0.609, 0.529, 0.406, 0.255, 16.0, 0.60, 0.13],
            ],
        },
        Case {
            name: "9-winter",
            mix: good(365.0),
            setting: Setting { weather: winter, ..bay },
            days: 60,
            start: good_start,
            heat: [61.2, 7.38, 5.6, 4.6, 8.1, 13.5, 46.4, 0.02],
            course: &[
                [7.0, 59.9, 42.1, 0.575, 0.043, 0.868, 0.020, 27.6, 0.60, 2.26],
                [30.0, 16.3, 9.3, 0.563, 0.185, 0.697, 0.107, 25.3, 0.69, 1.81],
                [60.0, 27.6, 12.9, 0.577, 0.241, 0.638, 0.121, 23.7, 0.67, 1.64],
            ],
        },
        Case {
            name: "10-deep",
            mix: mix(&[("straw", 5100.0), ("cattle", 19000.0)]),
            setting: Setting::of(square(4.0)),
            days: 60,
            start: [24100.0, 7908.00, 0.6719, 34.50, 47.9953, 2.9997, 111.29, 0.7560, 0.564],
            heat: [71.9, 31.33, 1.8, 58.1, 58.3, 60.0, 54.1, 0.25],
            course: &[
                [7.0, 68.3, 48.7, 0.654, 0.097, 0.837, 0.135, 35.5, 0.58, 1.46],
                [60.0, 69.5, 30.3, 0.596, 0.329, 0.636, 0.221, 27.8, 0.76, 0.65],
            ],
        },
    ]
}

/// Half of the last digit that is given, and a hair: the same equations come to the same figures.
fn same(name: &str, what: &str, got: f64, want: f64, digits: i32) {
    let off = 0.55 * 10_f64.powi(-digits);
    let is_same = want.is_nan() && got.is_nan() || (got - want).abs() <= off;
    assert!(is_same, "{name}, {what}: {got} is not {want}");
}

#[test]
fn every_case_begins_as_it_should() {
    for Case { name, mix, setting, start, .. } in cases() {
        let (make, state) = mix.built(setting.geometry, 18.0).expect(name);
        let Make { dry_density, .. } = make;
        let (whole, standing) = (state.whole(), make.standing(&state));
        let air = 1.0 - whole.solid_m3() / standing.volume_m3();
        let share = state.core.dry() / whole.dry();
        let [wet, dry, moisture, c_n, volume, height, density, core, free] = start;
        same(name, "wet", whole.wet(), wet, 1);
        same(name, "dry", whole.dry(), dry, 2);
        same(name, "moisture", whole.moisture(), moisture, 4);
        same(name, "C:N", whole.c_n(), c_n, 2);
        same(name, "volume", standing.volume_m3(), volume, 4);
        same(name, "height", standing.surfaces.height_m, height, 4);
        same(name, "density", dry_density, density, 2);
        same(name, "core", share, core, 4);
        same(name, "air", air, free, 3);
    }
}

#[test]
fn every_case_heats_and_cools_as_it_should() {
    for Case { name, mix, setting, days, heat, course, .. } in cases() {
        let ran = run(&mix, &setting, days).expect(name);
        let got = ran.summary();
        let [peak, on, first, hot, warm, last, shell, short] = heat;
        same(name, "peak core", got.peak_core_c, peak, 1);
        same(name, "its day", got.peak_core_day, on, 2);
        same(name, "first at 50", got.first_50_day.unwrap_or(NEVER), first, 1);
        same(name, "days at 55", got.days_over_55, hot, 1);
        same(name, "days at 45", got.days_over_45, warm, 1);
        same(name, "last at 45", got.last_45_day.unwrap_or(NEVER), last, 1);
        same(name, "peak shell", got.peak_shell_c, shell, 1);
        same(name, "shortage", got.shortage_max, short, 2);
        for &[day, core, outer, moisture, dry, volume, n, c_n, air, uptake] in course {
            let name = format!("{name}, day {day}");
            let of = ran.days().find(|of| f64::from(of.day) == day).expect("that day");
            same(&name, "core", of.hour.temp_c[0], core, 1);
            same(&name, "shell", of.hour.temp_c[1], outer, 1);
            same(&name, "moisture", of.hour.moisture, moisture, 3);
            same(&name, "dry lost", of.dry_lost, dry, 3);
            same(&name, "volume left", of.volume_left, volume, 3);
            same(&name, "nitrogen lost", of.n_lost, n, 3);
            same(&name, "C:N", of.hour.c_n, c_n, 1);
            same(&name, "core air", of.hour.free_air[0], air, 2);
            same(&name, "uptake", of.hour.uptake, uptake, 2);
        }
    }
}
