//! What is told of a heap: each hour, each day, and all of it.

use super::constants::{RATE_FAST, RATE_RESISTANT, RATE_SLOW, WARMTH, WARMTH_RESISTANT};
use super::functions::rosso;
use super::rates::{Rates, oxygen_of};
use super::state::State;

/// A heap at a whole hour, before what is done at it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Hour {
    /// Hours after the start.
    pub hour: u32,
    /// Temperature of core and shell [°C].
    pub temp_c: [f64; 2],
    /// The air [°C].
    pub air_c: f64,
    /// Water in core and shell, share of fresh mass [-].
    pub zone_moisture: [f64; 2],
    /// Of the whole [-].
    pub moisture: f64,
    /// Free air space of core and shell [-].
    pub free_air: [f64; 2],
    /// Carbon to nitrogen of the whole [-].
    pub c_n: f64,
    /// Fresh mass [kg].
    pub wet_kg: f64,
    /// Dry matter [kg].
    pub dry_kg: f64,
    /// Room [m³].
    pub volume_m3: f64,
    /// Height [m].
    pub height_m: f64,
    /// Nitrogen gone since the start [kg].
    pub n_lost_kg: f64,
    /// Air that goes up through it [kg dry air/h].
    pub chimney_kg_h: f64,
    /// Oxygen in core and shell over that of the air [-].
    pub oxygen: [f64; 2],
    /// How short of it the heap is [-]: under 0.15 fine, above 0.4 short.
    pub shortage: f64,
    /// Oxygen that it could still take up [g/kg organic matter and hour]: above 1 active, under 0.3 ripe
    /// as far as the model can tell.
    pub uptake: f64,
}

impl Hour {
    pub(super) fn of(hour: u32, state: &State, rates: &Rates, air_c: f64) -> Self {
        let whole = state.whole();
        Self {
            hour,
            temp_c: [state.core.temperature(), state.shell.temperature()],
            air_c,
            zone_moisture: [state.core.moisture(), state.shell.moisture()],
            moisture: whole.moisture(),
            free_air: rates.standing.air,
            c_n: whole.c_n(),
            wet_kg: whole.wet(),
            dry_kg: whole.dry(),
            volume_m3: rates.standing.volume_m3(),
            height_m: rates.standing.surfaces.height_m,
            n_lost_kg: state.totals.n_vented + state.totals.n_leached,
            chimney_kg_h: rates.air.chimney,
            oxygen: rates.oxygen,
            shortage: rates.shortage,
            uptake: uptake(state),
        }
    }
}

/// Oxygen taken up at 35 °C with nothing in the way [g/kg organic matter and hour].
fn uptake(state: &State) -> f64 {
    let (quick, late) = (rosso(35.0, WARMTH), rosso(35.0, WARMTH_RESISTANT));
    let of = [&state.core, &state.shell].map(|zone| {
        let rate =
            quick * (RATE_FAST * zone.fast + RATE_SLOW * zone.slow) + late * RATE_RESISTANT * zone.resistant;
        oxygen_of(zone.carbon / zone.organic()) * rate / 24.0
    });
    1000.0 * (of[0] + of[1]) / state.whole().organic()
}

/// A heap at the end of a day, against its start.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Day {
    /// Days after the start.
    pub day: u32,
    /// That hour.
    pub hour: Hour,
    /// Dry matter gone, share of the start [-].
    pub dry_lost: f64,
    /// Room left, share of the start [-].
    pub volume_left: f64,
    /// Nitrogen gone, share of the start [-].
    pub n_lost: f64,
}

/// A heap's whole course in few figures.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Summary {
    /// Hottest core [°C].
    pub peak_core_c: f64,
    /// When [days].
    pub peak_core_day: f64,
    /// Hottest shell [°C].
    pub peak_shell_c: f64,
    /// Days at 55 °C and more, hour by hour.
    pub days_over_55: f64,
    /// Days at 45 °C and more.
    pub days_over_45: f64,
    /// When the core first is at 50 °C [days].
    pub first_50_day: Option<f64>,
    /// When it last is at 45 °C [days].
    pub last_45_day: Option<f64>,
    /// How short of oxygen it gets [-].
    pub shortage_max: f64,
}

impl Summary {
    /// Of some hours, in their order.
    #[must_use]
    pub fn of(hours: &[Hour]) -> Self {
        let core = |hour: &&Hour| hour.temp_c[0];
        let day = |hour: &Hour| f64::from(hour.hour) / 24.0;
        let after = || hours.iter().filter(|hour| hour.hour > 0);
        let days_over = |least: f64| after().filter(|hour| core(hour) >= least).count() as f64 / 24.0;
        let hottest =
            hours.iter().max_by(|a, b| a.temp_c[0].total_cmp(&b.temp_c[0]).then(b.hour.cmp(&a.hour)));
        let most = |of: fn(&Hour) -> f64| hours.iter().map(of).fold(f64::NEG_INFINITY, f64::max);
        Self {
            peak_core_c: most(|hour| hour.temp_c[0]),
            peak_core_day: hottest.map_or(0.0, day),
            peak_shell_c: most(|hour| hour.temp_c[1]),
            days_over_55: days_over(55.0),
            days_over_45: days_over(45.0),
            first_50_day: hours.iter().find(|hour| core(hour) >= 50.0).map(day),
            last_45_day: hours.iter().rev().find(|hour| core(hour) >= 45.0).map(day),
            shortage_max: most(|hour| hour.shortage),
        }
    }
}
