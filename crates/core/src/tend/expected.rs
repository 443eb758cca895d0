//! The heat that this very heap should have: the model, fed with what was built and what was logged.
//!
//! How a heap stands follows from its shape and its method; its weather from what was written down at the
//! site, and where nothing was, from what its months are like. It is an expectation, and has not
//! been validated.

mod air;
mod stands;

pub use air::{Sky, air_c};
pub use stands::geometry;

use super::entry::{CoverWith, Tended};
use super::heat::{
    BAND_C, Cover, Event, Happening, Hour, Part, Rain, Start, State, ammonia_share, constants::TURN_MIXES,
};
use crate::mix::Item;
use crate::stock::material::{Degradability, Material};

/// A heap is expected within so much, so many hours after it was built [K]: wider in the first three days,
/// when it depends on what nobody knows of it how soon it starts.
///
/// # Example
/// ```
/// use zymarch_core::tend::expected::band_c;
/// assert_eq!((band_c(0.0), band_c(72.0), band_c(500.0)), (14.0, 8.0, 8.0));
/// ```
#[must_use]
pub fn band_c(hours: f64) -> f64 {
    const STARTS_WIDER_C: f64 = 6.0;
    const FIRST_DAYS_H: f64 = 72.0;
    BAND_C + STARTS_WIDER_C * (1.0 - hours / FIRST_DAYS_H).clamp(0.0, 1.0)
}

/// Some of a material as the model takes it.
#[must_use]
pub fn part(item: &Item, row: Option<&Material>) -> Part {
    let figures = &item.figures;
    let degradability = if figures.inert {
        Degradability::Inert
    } else {
        row.map_or(Degradability::Medium, |row| row.degradability)
    };
    Part {
        kg: item.wet_mass_kg,
        moisture: figures.moisture.value.get(),
        ash: figures.ash.value.get(),
        nitrogen: figures.nitrogen.value.get(),
        c_n: figures.c_n.value,
        lignin: figures.lignin.value.get(),
        degradability,
        density_kg_m3: figures.density_kg_l.value * 1000.0,
        settle: figures.settle.value,
        ammonia_share: row.map_or(0.05, |row| ammonia_share(row.kind)),
    }
}

/// Water that was poured on what was laid.
#[must_use]
pub const fn water(litres: f64) -> Part {
    Part {
        kg: litres,
        moisture: 1.0,
        ash: 0.0,
        nitrogen: 0.0,
        c_n: 0.0,
        lignin: 0.0,
        degradability: Degradability::Medium,
        density_kg_m3: 0.0,
        settle: 1.0,
        ammonia_share: 0.0,
    }
}

/// Rain that fell for nobody knows how long [h].
const USUAL_RAIN_H: f64 = 6.0;

/// What was logged, each so many hours after the heap was built, as events and rain of the model. What
/// does not change heat or water (a look, a smell, worms) is none.
#[must_use]
pub fn happenings(log: &[(f64, Tended<Start>)]) -> (Vec<Event>, Vec<Rain>) {
    let (mut events, mut rain) = (Vec::new(), Vec::new());
    for (at_h, what) in log.iter().filter(|(at_h, _)| *at_h >= 0.0) {
        let at_h = *at_h;
        let happening = match what {
            Tended::Turn { mixing, .. } => Happening::Turn { mixing: mixing.unwrap_or(TURN_MIXES) },
            Tended::Water { litres, spread } => {
                Happening::Water { litres: *litres, spread: *spread, temp_c: None }
            }
            Tended::Add { items } | Tended::Feed { items } => {
                for what in items.iter().filter(|what| what.held.dry() > 0.0) {
                    events.push(Event { at_h, what: Happening::Add { what: *what, temp_c: None } });
                }
                continue;
            }
            Tended::Cover { with } => Happening::Cover(match with {
                Some(CoverWith::Sheet) => Cover::Sheet,
                Some(CoverWith::Straw | CoverWith::Soil) => continue,
                Some(CoverWith::Roof) | None => Cover::Roof,
            }),
            Tended::Uncover => Happening::Cover(Cover::None),
            Tended::Rain { mm, hours } => {
                rain.push(Rain { at_h, hours: hours.unwrap_or(USUAL_RAIN_H), mm: *mm });
                continue;
            }
            _ => continue,
        };
        events.push(Event { at_h, what: happening });
    }
    (events, rain)
}

/// A heap with the heat that was read in it lately, to go on from: what was read of the core, and of the
/// outside where that was read too; else the outside lies as far from the air as the model has it.
#[must_use]
pub fn warmed(state: &State, air_c: f64, core_c: Option<f64>, edge_c: Option<f64>) -> State {
    let mut now = *state;
    let (was_core, was_shell) = (state.core.temperature(), state.shell.temperature());
    if let Some(core_c) = core_c {
        now.core.heat = now.core.capacity() * core_c;
        let share = if was_core - air_c > 1.0 { (was_shell - air_c) / (was_core - air_c) } else { 0.5 };
        now.shell.heat = now.shell.capacity() * (air_c + share.clamp(0.0, 1.0) * (core_c - air_c));
    }
    if let Some(edge_c) = edge_c {
        now.shell.heat = now.shell.capacity() * edge_c;
    }
    now
}

/// The hour of a course at a time, straight between its hours: core and outside [°C]; none beyond it.
#[must_use]
pub fn temp_at(hours: &[Hour], at_h: f64) -> Option<[f64; 2]> {
    let first = f64::from(hours.first()?.hour);
    let at = at_h - first;
    if at < 0.0 || at > (hours.len() - 1) as f64 {
        return None;
    }
    let (place, part) = (at.floor() as usize, at.fract());
    let (from, to) = (hours[place].temp_c, hours[(place + 1).min(hours.len() - 1)].temp_c);
    Some([0, 1].map(|zone| from[zone] + part * (to[zone] - from[zone])))
}

#[cfg(test)]
mod tests;
