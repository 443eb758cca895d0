//! The hours of a heap, one after the other.

use std::ops::Range;

use super::events::Event;
use super::functions::pressure_pa;
use super::rates::{Around, Rates};
use super::record::{Day, Hour, Summary};
use super::shape::Geometry;
use super::start::Start;
use super::state::{Make, State};
use super::weather::{Rain, Weather};
use crate::base::fault::{Fault, FaultCode};

/// Step that is as good as exact: within 10⁻⁵ K of an adaptive solver [h].
pub const FINE_STEP_H: f64 = 0.25;

/// Step where speed counts: within 0.01 K [h].
pub const COARSE_STEP_H: f64 = 1.0;

/// A heap in its surroundings, and what will be done to it.
#[derive(Debug, Clone, PartialEq)]
pub struct Setting {
    /// How it stands.
    pub geometry: Geometry,
    /// The weather.
    pub weather: Weather,
    /// Rain.
    pub rain: Vec<Rain>,
    /// What is done, in the order in which it is done where the time is the same.
    pub events: Vec<Event>,
    /// Temperature of what it is built of; the mean of the air if not said [°C].
    pub start_c: Option<f64>,
    /// Longest step [h].
    pub step_h: f64,
}

impl Setting {
    /// A heap left alone in the usual weather, reckoned finely.
    #[must_use]
    pub fn of(geometry: Geometry) -> Self {
        Self {
            geometry,
            weather: Weather::default(),
            rain: Vec::new(),
            events: Vec::new(),
            start_c: None,
            step_h: FINE_STEP_H,
        }
    }
}

/// What a heap is expected to do.
#[derive(Debug, Clone, PartialEq)]
pub struct Course {
    /// Each whole hour, from 0.
    pub hours: Vec<Hour>,
    /// Its make at the end.
    pub make: Make,
    /// As it is at the end, before what is done then.
    pub state: State,
    /// Share of it that was core when it was built [-].
    pub core_share: f64,
    /// Free air space when it was built [-].
    pub free_air: f64,
    /// Nitrogen at the start [kg].
    n_start_kg: f64,
}

impl Course {
    /// Each whole day, against the start.
    pub fn days(&self) -> impl Iterator<Item = Day> + '_ {
        self.each_hour().step_by(24)
    }

    /// Each whole hour, against the start.
    pub fn each_hour(&self) -> impl Iterator<Item = Day> + '_ {
        let first = self.hours[0];
        self.hours.iter().map(move |hour| Day {
            day: hour.hour / 24,
            hour: *hour,
            dry_lost: 1.0 - hour.dry_kg / first.dry_kg,
            volume_left: hour.volume_m3 / first.volume_m3,
            n_lost: hour.n_lost_kg / self.n_start_kg,
        })
    }

    /// In few figures.
    #[must_use]
    pub fn summary(&self) -> Summary {
        Summary::of(&self.hours)
    }
}

/// What a heap of a mix is expected to do over some days.
///
/// # Errors
/// As [`Start::built`]; a zone runs empty of water or of what is eaten, which no heap does.
///
/// # Example
/// A good mix in a bay of 1.2 m is hot on its second day.
/// ```
/// use zymarch_core::stock::material::Degradability::{Fast, Medium};
/// use zymarch_core::tend::heat::{Form, Geometry, Part, Setting, Start, run};
/// let part = |kg, moisture, ash, nitrogen, c_n, lignin, degradability, density_kg_m3, settle| Part {
///     kg, moisture, ash, nitrogen, c_n, lignin, degradability, density_kg_m3, settle, ammonia_share: 0.05,
/// };
/// let mix = Start::of(&[
///     part(222.0, 0.15, 0.07, 0.007, 66.0, 0.05, Medium, 110.0, 0.7),
///     part(110.0, 0.30, 0.11, 0.032, 14.0, 0.04, Fast, 150.0, 0.65),
///     part(100.0, 0.25, 0.18, 0.022, 20.0, 0.09, Medium, 500.0, 0.9),
///     part(365.0, 1.0, 0.0, 0.0, 0.0, 0.0, Medium, 0.0, 1.0),
/// ]);
/// let mut bay = Geometry::of(Form::Box { length_m: 1.2, width_m: 1.2 });
/// bay.side_open = 0.5;
/// let course = run(&mix, &Setting::of(bay), 5)?;
/// assert!((course.summary().peak_core_c - 70.0).abs() < 1.0);
/// # Ok::<(), zymarch_core::base::fault::Fault>(())
/// ```
pub fn run(mix: &Start, setting: &Setting, days: u32) -> Result<Course, Fault> {
    let start_c = setting.start_c.unwrap_or(setting.weather.mean_c);
    let (make, state) = mix.built(setting.geometry, start_c)?;
    let whole = state.whole();
    let n_start_kg = whole.organic_n + whole.ammonia_n;
    let core_share = state.core.dry() / whole.dry();
    let free_air = 1.0 - whole.solid_m3() / make.standing(&state).volume_m3();
    let Onward { hours, make, state } = onward((make, state), setting, 0..days * 24)?;
    Ok(Course { hours, make, state, core_share, free_air, n_start_kg })
}

/// A heap some hours later.
#[derive(Debug, Clone, PartialEq)]
pub struct Onward {
    /// Each whole hour, from the first to the last.
    pub hours: Vec<Hour>,
    /// Its make at the end.
    pub make: Make,
    /// As it is at the end, before what is done then.
    pub state: State,
}

/// What a heap is expected to do from one hour to another, as it is at the first.
///
/// # Errors
/// A zone runs empty of water or of what is eaten.
pub fn onward(
    (mut make, mut state): (Make, State),
    setting: &Setting,
    span: Range<u32>,
) -> Result<Onward, Fault> {
    let pressure = pressure_pa(setting.weather.altitude_m);
    let mut hours = Vec::with_capacity(span.len() + 1);
    let cuts = cuts(setting, (f64::from(span.start), f64::from(span.end)));
    let mut events: Vec<&Event> =
        setting.events.iter().filter(|event| event.at_h >= f64::from(span.start)).collect();
    events.sort_by(|a, b| a.at_h.total_cmp(&b.at_h));
    let mut to_come = events.into_iter().peekable();
    for (place, &at) in cuts.iter().enumerate() {
        let next = cuts.get(place + 1).copied();
        let rain = next.map_or(0.0, |next| rain_at(&setting.rain, f64::midpoint(at, next)));
        let around = |hours: f64| Around::at(&setting.weather, pressure, hours, rain);
        let mut known = None;
        if at.fract() == 0.0 {
            let rates = Rates::of(&make, &state, &around(at));
            hours.push(Hour::of(at as u32, &state, &rates, setting.weather.air_c(at)));
            known = Some(rates.change);
        }
        let Some(next) = next else { break };
        while let Some(event) = to_come.next_if(|event| event.at_h <= at) {
            event.what.does(&mut make, &mut state, setting.weather.air_c(at));
            known = None;
        }
        let steps = ((next - at) / setting.step_h - 1e-9).ceil().max(1.0);
        let step = (next - at) / steps;
        for nth in 0..steps as u32 {
            let from = at + f64::from(nth) * step;
            // Where it was told just now, and nothing was done, the step begins with what was found.
            let first = known.take().unwrap_or_else(|| Rates::of(&make, &state, &around(from)).change);
            state = stepped(&make, &state, &first, (from, step), around);
        }
        if !state.is_sound() {
            return Err(Fault::of("materials", FaultCode::RunsEmpty).with("hour", next.floor()));
        }
    }
    Ok(Onward { hours, make, state })
}

/// One step of the classical Runge-Kutta method, from what changes at its start.
fn stepped(
    make: &Make,
    state: &State,
    first: &State,
    (from, step): (f64, f64),
    around: impl Fn(f64) -> Around,
) -> State {
    let change = |state: &State, around: &Around| Rates::of(make, state, around).change;
    let middle = around(from + step / 2.0);
    let second = change(&state.plus(first, step / 2.0), &middle);
    let third = change(&state.plus(&second, step / 2.0), &middle);
    let fourth = change(&state.plus(&third, step), &around(from + step));
    state.plus(first, step / 6.0).plus(&second, step / 3.0).plus(&third, step / 3.0).plus(&fourth, step / 6.0)
}

/// All times at which something begins, ends or is told, from the first to the last, each once.
fn cuts(setting: &Setting, (from_h, end_h): (f64, f64)) -> Vec<f64> {
    let hours = (from_h as u32..=end_h as u32).map(f64::from);
    let events = setting.events.iter().map(|event| event.at_h);
    let rain = setting.rain.iter().flat_map(|rain| [rain.at_h, rain.at_h + rain.hours]);
    let mut all: Vec<f64> =
        hours.chain(events).chain(rain).filter(|at| (from_h..=end_h).contains(at)).collect();
    all.sort_by(f64::total_cmp);
    all.dedup();
    all
}

/// Rain that falls at a time [mm/h].
fn rain_at(rain: &[Rain], at: f64) -> f64 {
    rain.iter()
        .filter(|rain| rain.hours > 0.0 && (rain.at_h..rain.at_h + rain.hours).contains(&at))
        .map(|rain| rain.mm / rain.hours)
        .sum()
}
