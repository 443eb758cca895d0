//! What is done to a heap: turning, watering, adding.

use super::constants::{
    CAPACITY_VAPOUR, CAPACITY_WATER, DISSOLVED, LATENT, TOP_TO_CORE, TURN_ACCESS, TURN_AMMONIA, TURN_LOOSENS,
    TURN_VAPOUR, TURN_WARMTH,
};
use super::functions::free_ammonia;
use super::shape::Cover;
use super::start::Start;
use super::state::{Make, State, Zone};
use crate::base::words::closed_list;

closed_list! {
    /// How water is spread.
    Pouring {
        /// Through all of it, as while it is turned.
        Even = "even",
        /// On top.
        Top = "top",
    }
}

/// Something that is done.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Happening {
    /// It is turned.
    Turn {
        /// How well core and shell are mixed [-].
        mixing: f64,
    },
    /// It is watered.
    Water {
        /// With so much [L].
        litres: f64,
        /// How.
        spread: Pouring,
        /// How warm the water is, as the air if not said [°C].
        temp_c: Option<f64>,
    },
    /// More is added, on the outside.
    Add {
        /// What.
        what: Start,
        /// How warm it is, as the air if not said [°C].
        temp_c: Option<f64>,
    },
    /// From now on this lies over it.
    Cover(Cover),
}

/// Something that is done at an hour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Event {
    /// Hours after the start.
    pub at_h: f64,
    /// What.
    pub what: Happening,
}

/// A mix in two zones, the core having so much of it.
pub(super) fn shared(all: &Zone, core_share: f64) -> [Zone; 2] {
    let core = all.times(core_share);
    [core, all.plus(&core, -1.0)]
}

impl Happening {
    /// Does it to a heap, in air of a temperature [°C].
    pub(super) fn does(&self, make: &mut Make, state: &mut State, air_c: f64) {
        match *self {
            Self::Turn { mixing } => turn(make, state, mixing, air_c),
            Self::Water { litres, spread, temp_c } => {
                let share = match spread {
                    Pouring::Top => TOP_TO_CORE,
                    Pouring::Even => state.core.dry() / state.whole().dry(),
                };
                let poured = Zone {
                    water: litres,
                    heat: CAPACITY_WATER * litres * temp_c.unwrap_or(air_c),
                    ..Zone::default()
                };
                state.core = state.core.plus(&poured, share);
                state.shell = state.shell.plus(&poured, 1.0 - share);
            }
            Self::Add { what, temp_c } => add(make, state, &what, temp_c.unwrap_or(air_c)),
            Self::Cover(cover) => make.geometry.cover = cover,
        }
    }
}

/// It cools, steams, loosens and is mixed.
fn turn(make: &mut Make, state: &mut State, mixing: f64, air_c: f64) {
    let whole = state.whole();
    let mean_c = whole.temperature();
    let heat = if mean_c > air_c { TURN_WARMTH * whole.capacity() * (mean_c - air_c) } else { 0.0 };
    let vapour = (TURN_VAPOUR * heat / (LATENT + CAPACITY_VAPOUR * mean_c)).min(0.05 * whole.water);
    let vented =
        TURN_AMMONIA * free_ammonia(mean_c, whole.ammonia_n, whole.water) * DISSOLVED * whole.ammonia_n;
    for zone in [&mut state.core, &mut state.shell] {
        zone.heat -= heat * (zone.water / whole.water);
        zone.water *= (whole.water - vapour) / whole.water;
        if whole.ammonia_n > 0.0 {
            zone.ammonia_n *= 1.0 - vented / whole.ammonia_n;
        }
    }
    state.totals.heat_aired += heat;
    state.totals.vapour += vapour;
    state.totals.n_vented += vented;
    state.course.settled *= 1.0 - TURN_LOOSENS;
    state.course.access += TURN_ACCESS * (1.0 - state.course.access);
    let core_share = anew(make, state);
    let all = state.whole();
    let core = all.times(mixing * core_share).plus(&state.core, 1.0 - mixing);
    state.core = core;
    state.shell = all.plus(&core, -1.0);
}

/// The shell as thick as it now is; answers the share of the core [-].
fn anew(make: &mut Make, state: &State) -> f64 {
    let volume_m3: f64 = make.zone_m3(state).iter().sum();
    make.shell_m = make.geometry.shell_m(volume_m3);
    make.geometry.surfaces(volume_m3, make.shell_m).core_share
}

/// What is added lies outside; what was outside becomes core where the heap grew.
fn add(make: &mut Make, state: &mut State, what: &Start, temp_c: f64) {
    let (dry, new_dry) = (state.whole().dry(), what.held.dry());
    let share = new_dry / (new_dry + dry);
    let room = if what.room_m3 > 0.0 { what.room_m3 } else { new_dry / make.dry_density };
    make.dry_density = (dry + new_dry) / (dry / make.dry_density + room);
    make.organic_put_in += what.held.organic();
    state.course.settled *= 1.0 - share;
    state.course.access += share * (1.0 - state.course.access);
    state.shell = state.shell.plus(&what.at(temp_c), 1.0);
    let core_share = anew(make, state);
    let [core_m3, shell_m3] = make.zone_m3(state);
    let need = core_share * (core_m3 + shell_m3) - core_m3;
    if need > 0.0 {
        let [moved, left] = shared(&state.shell, need / shell_m3);
        state.core = state.core.plus(&moved, 1.0);
        state.shell = left;
    }
}
