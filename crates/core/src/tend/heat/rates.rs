//! All rates of change of a heap, in one place.

use super::air::{Air, as_air, breathing};
use super::constants::{
    ACCESS, ACTIVITY, AIRINESS, CAPACITY_WATER, CONDUCTS, CREEPS, DISSOLVED, DRAINS, FILM, FREES,
    HALF_OXYGEN, HEAT_OF_OXYGEN, HENRY, HOLDS, INTO_GROUND, MICROBES, MOISTURE, RATE_FAST, RATE_RESISTANT,
    RATE_SLOW, RUNS_OFF, SETTLES, SHEET_KEEPS, START_UP, STARVED, WARMTH, WARMTH_RESISTANT, WATER_MADE,
};
use super::functions::{enthalpy, free_ammonia, humidity, rosso, saturation_pa};
use super::shape::Cover;
use super::state::{Course, Make, Standing, State, Totals, Zone};
use super::weather::Weather;

/// What surrounds a heap at a moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Around {
    /// The air [°C].
    pub(super) air_c: f64,
    /// The ground [°C].
    pub(super) ground_c: f64,
    /// Pressure of the air [Pa].
    pub(super) pressure_pa: f64,
    /// Relative humidity [-].
    pub(super) humidity: f64,
    /// Rain that falls [mm/h].
    pub(super) rain_mm_h: f64,
}

impl Around {
    /// The weather, so many hours after the start.
    pub(super) fn at(weather: &Weather, pressure_pa: f64, hours: f64, rain_mm_h: f64) -> Self {
        Self {
            air_c: weather.air_c(hours),
            ground_c: weather.ground_c(hours),
            pressure_pa,
            humidity: weather.humidity,
            rain_mm_h,
        }
    }

    /// Density of the air [kg/m³].
    pub(super) fn density(&self) -> f64 {
        self.pressure_pa / (287.05 * (self.air_c + 273.15))
    }
}

/// Rates of change [per hour], and what they follow from.
#[derive(Debug, Clone, Copy)]
pub(super) struct Rates {
    /// Of everything that is kept.
    pub(super) change: State,
    /// How it stands.
    pub(super) standing: Standing,
    /// Flows of air.
    pub(super) air: Air,
    /// Oxygen in core and shell over that of the air [-].
    pub(super) oxygen: [f64; 2],
    /// How short of oxygen it is [-].
    pub(super) shortage: f64,
}

/// What a zone would do with all the oxygen it wants.
struct Decay {
    temperature: f64,
    moisture: f64,
    /// Of what rots fast, slowly, hardly [kg/h].
    wanted: [f64; 3],
    /// Oxygen of organic matter [kg/kg].
    oxygen_each: f64,
    carbon_each: f64,
    /// How well it breathes by its pores [-].
    airiness: f64,
    /// How warm it is for microbes, those of lignin apart [-].
    warmth: [f64; 2],
}

impl Decay {
    fn of(zone: &Zone, air: f64, course: &Course) -> Self {
        let (temperature, moisture, organic) = (zone.temperature(), zone.moisture(), zone.organic());
        let wet = 1.0 / ((-MOISTURE[0] * moisture + MOISTURE[1]).exp() + 1.0);
        let airiness = 1.0 / ((-AIRINESS[0] * air + AIRINESS[1]).exp() + 1.0);
        let eaten_c_n = zone.c_n() * (zone.fast + zone.slow) / organic;
        let hunger = eaten_c_n / STARVED[0];
        // To the fourth power.
        let fed = 1.0 / (1.0 + hunger * hunger * hunger * hunger);
        let warmth = [rosso(temperature, WARMTH), rosso(temperature, WARMTH_RESISTANT)];
        let each = wet * airiness * fed * course.microbes / 24.0;
        let carbon_each = zone.carbon / organic;
        Self {
            temperature,
            moisture,
            wanted: [
                RATE_FAST * warmth[0] * each * course.access * zone.fast,
                RATE_SLOW * warmth[0] * each * zone.slow,
                RATE_RESISTANT * warmth[1] * each * zone.resistant,
            ],
            oxygen_each: oxygen_of(carbon_each),
            carbon_each,
            airiness,
            warmth,
        }
    }

    /// What it wants, as air [kg/h].
    fn demand(&self) -> f64 {
        as_air(self.oxygen_each * self.wanted.iter().sum::<f64>())
    }
}

/// Oxygen that organic matter of so much carbon takes up [kg/kg]: what closes the mass.
pub(super) fn oxygen_of(carbon_each: f64) -> f64 {
    44.0 / 12.0 * carbon_each + WATER_MADE - 1.0
}

/// Dry matter holds at most so much water [kg].
fn held_water(zone: &Zone) -> f64 {
    zone.dry() * HOLDS / (1.0 - HOLDS)
}

impl Rates {
    /// The rates of a heap at a moment.
    pub(super) fn of(make: &Make, state: &State, around: &Around) -> Self {
        let standing = make.standing(state);
        let (core, shell) = (&state.core, &state.shell);
        let decays = [
            Decay::of(core, standing.air[0], &state.course),
            Decay::of(shell, standing.air[1], &state.course),
        ];
        let [tc, ts] = [decays[0].temperature, decays[1].temperature];
        let density = around.density();
        let air = Air::of(make, &standing, [tc, ts, around.air_c], (around.pressure_pa, density));
        let demand = [decays[0].demand(), decays[1].demand()];
        let oxygen = air.oxygen(demand);
        let breath = oxygen.map(breathing);

        let rotted = [0, 1].map(|z| decays[z].wanted.map(|wanted: f64| wanted * breath[z]));
        let lost = rotted.map(|of| of.iter().sum::<f64>());
        let carbon = [0, 1].map(|z| decays[z].carbon_each * lost[z]);
        let used = [0, 1].map(|z| decays[z].oxygen_each * lost[z]);

        let ambient_w = humidity(around.humidity * saturation_pa(around.air_c), around.pressure_pa);
        let zone_w = [0, 1].map(|z: usize| {
            let activity = 1.0 - (-ACTIVITY * decays[z].moisture).exp();
            humidity(activity * saturation_pa(decays[z].temperature), around.pressure_pa)
        });
        let vapour = air.gains(ambient_w, zone_w[0], zone_w[1]);
        let aired =
            air.gains(enthalpy(around.air_c, ambient_w), enthalpy(tc, zone_w[0]), enthalpy(ts, zone_w[1]));

        let Conducted { core_shell, shell_air, core_ground, shell_ground } =
            Conducted::of(make, &standing, [&decays[0], &decays[1]], around);
        let water = Water::of(make, &standing, [core, shell], [&decays[0], &decays[1]], around);
        let n = [0, 1].map(|z: usize| {
            let zone = [core, shell][z];
            let tk = decays[z].temperature + 273.15;
            let over_water = HENRY[0] * (-HENRY[1] * (1.0 / tk - 1.0 / 298.15)).exp();
            let free = free_ammonia(decays[z].temperature, zone.ammonia_n, zone.water);
            over_water * free * DISSOLVED * zone.ammonia_n * 1000.0 / zone.water.max(1e-3) / density
        });
        let vented = air.gains(0.0, n[0], n[1]);
        let freed = [0, 1].map(|z: usize| {
            let zone = [core, shell][z];
            let from = FREES.iter().zip(&rotted[z]).map(|(each, rotted)| each * rotted).sum::<f64>();
            let net = from * zone.organic_n / zone.organic() - MICROBES[0] * carbon[z] / MICROBES[1];
            if net >= 0.0 {
                return net;
            }
            net * zone.ammonia_n / (zone.ammonia_n + MICROBES[2] * (zone.organic_n + zone.ammonia_n))
        });
        let leached_n = [
            DISSOLVED * core.ammonia_n * water.drained[0] / core.water.max(1e-3),
            DISSOLVED * shell.ammonia_n * water.drained[1] / shell.water.max(1e-3),
        ];

        let drips = water.drips;
        let creeps_c = if water.creeps > 0.0 { ts } else { tc };
        let change_of = |z: usize| Zone {
            fast: -rotted[z][0],
            slow: -rotted[z][1],
            resistant: -rotted[z][2],
            carbon: -carbon[z],
            organic_n: -freed[z],
            ..Zone::default()
        };
        let heat_of_water = CAPACITY_WATER
            * (drips * water.drained[1] * ts - water.drained[0] * tc + water.creeps * creeps_c);
        let core_change = Zone {
            ammonia_n: freed[0] + vented[0] + drips * leached_n[1] - leached_n[0],
            water: WATER_MADE * lost[0] + vapour[0] + drips * water.drained[1] - water.drained[0]
                + water.creeps,
            heat: HEAT_OF_OXYGEN * used[0] + aired[0] - core_shell - core_ground + heat_of_water,
            ..change_of(0)
        };
        let shell_change = Zone {
            ammonia_n: freed[1] + vented[1] - leached_n[1],
            water: WATER_MADE * lost[1] + vapour[1] + water.rain - water.drained[1] - water.creeps,
            heat: HEAT_OF_OXYGEN * used[1] + aired[1] + core_shell - shell_air - shell_ground
                + CAPACITY_WATER
                    * (water.rain * around.air_c - water.drained[1] * ts - water.creeps * creeps_c),
            ..change_of(1)
        };
        let shortage = shortage(&decays, demand, breath);
        let out = [water.drained[0], (1.0 - drips) * water.drained[1]];
        let course = &state.course;
        let change = State {
            core: core_change,
            shell: shell_change,
            course: Course {
                settled: (1.0 - course.settled) / SETTLES[1],
                access: -(course.access - ACCESS[0]) / ACCESS[1],
                microbes: START_UP[1] / 24.0
                    * (decays[0].warmth[0] + decays[0].warmth[1])
                    * course.microbes
                    * (1.0 - course.microbes),
            },
            totals: Totals {
                oxygen: used[0] + used[1],
                carbon_dioxide: 44.0 / 12.0 * (carbon[0] + carbon[1]),
                heat_made: HEAT_OF_OXYGEN * (used[0] + used[1]),
                heat_aired: -(aired[0] + aired[1]),
                heat_conducted: shell_air + core_ground + shell_ground,
                vapour: -(vapour[0] + vapour[1]),
                leached: out[0] + out[1],
                heat_leached: CAPACITY_WATER * (out[0] * tc + out[1] * ts),
                rain: water.rain,
                heat_rained: CAPACITY_WATER * water.rain * around.air_c,
                water_made: WATER_MADE * (lost[0] + lost[1]),
                n_vented: -(vented[0] + vented[1]),
                n_leached: leached_n[0] + (1.0 - drips) * leached_n[1],
                short_h: shortage,
            },
        };
        Self { change, standing, air, oxygen, shortage }
    }
}

/// How short of oxygen a heap is: what goes undone for want of it and of pores [-].
fn shortage(decays: &[Decay; 2], demand: [f64; 2], breath: [f64; 2]) -> f64 {
    let saturated = 1.0 / (1.0 + HALF_OXYGEN);
    let (mut done, mut wanted) = (0.0, 0.0);
    for z in [0, 1] {
        let weight = demand[z] / decays[z].airiness;
        wanted += weight;
        done += weight * decays[z].airiness * breath[z] / saturated;
    }
    if wanted > 0.0 { 1.0 - done / wanted } else { 0.0 }
}

/// Heat that is conducted [MJ/h].
struct Conducted {
    core_shell: f64,
    shell_air: f64,
    core_ground: f64,
    shell_ground: f64,
}

/// Of a watt an hour [MJ].
const WATT_HOUR: f64 = 3.6e-3;

impl Conducted {
    fn of(make: &Make, standing: &Standing, [core, shell]: [&Decay; 2], around: &Around) -> Self {
        let (geometry, surfaces) = (&make.geometry, &standing.surfaces);
        let conducts = |moisture: f64| CONDUCTS[0] + CONDUCTS[1] * moisture;
        let half_shell = make.shell_m / 2.0;
        let through_shell = half_shell / conducts(shell.moisture);
        let depth = standing.zone_m3[0] / surfaces.core;
        let between = 1.0 / (through_shell + depth / conducts(core.moisture));
        let out = through_shell + 1.0 / FILM;
        let keeps = if geometry.cover == Cover::Sheet { SHEET_KEEPS } else { 0.0 };
        let into_air = surfaces.top / (out + keeps) + surfaces.side / (out + geometry.wall_r);
        let ground = WATT_HOUR * INTO_GROUND;
        Self {
            core_shell: WATT_HOUR * between * surfaces.core * (core.temperature - shell.temperature),
            shell_air: WATT_HOUR * into_air * (shell.temperature - around.air_c),
            core_ground: ground * surfaces.core_foot * (core.temperature - around.ground_c),
            shell_ground: ground
                * (surfaces.foot - surfaces.core_foot)
                * (shell.temperature - around.ground_c),
        }
    }
}

/// Liquid water that moves [kg/h].
struct Water {
    /// Draining from core and shell.
    drained: [f64; 2],
    /// Share of what drains from the shell that drips into the core [-].
    drips: f64,
    /// Creeping from shell to core.
    creeps: f64,
    /// Rain taken up by the shell.
    rain: f64,
}

impl Water {
    fn of(
        make: &Make,
        standing: &Standing,
        zones: [&Zone; 2],
        [core, shell]: [&Decay; 2],
        around: &Around,
    ) -> Self {
        let surfaces = &standing.surfaces;
        let falls = if make.geometry.cover == Cover::None { around.rain_mm_h } else { 0.0 };
        Self {
            drained: zones.map(|zone| DRAINS * (zone.water - held_water(zone)).max(0.0)),
            drips: surfaces.core_foot / surfaces.foot,
            creeps: CREEPS * surfaces.core * (shell.moisture - core.moisture),
            rain: falls * surfaces.foot * (1.0 - RUNS_OFF),
        }
    }
}
