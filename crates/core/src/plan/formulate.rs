//! From stock with limits to amounts: the best mix that the windows allow.
//!
//! With the fresh masses as unknowns, C:N, moisture, free air space, size and
//! shares are all linear, so the best mix is the answer of a linear programme;
//! in whole measures, of a small integer one. The solver is a library's; what
//! is asked of it, what its answer means, and what to do when there is none
//! stand here. Which amounts are written down for a person to build with is
//! left to [`layers`](crate::plan::layers).

mod dose;
mod limit;
mod missing;
mod nearest;
mod programme;
mod search;
mod whole;

pub use dose::{default_caps, is_filler};
pub use limit::{Limit, LimitCode, Limits, Miss, limits, misses, worth};
pub use missing::{Addition, Part, additions, together};

use crate::base::quantity::Band;
use crate::base::words::closed_list;
use crate::mix::Totals;
use crate::mix::window::{ROWS, Window, Windows};
use crate::stock::Lot;
use crate::stock::material::Kind;

use programme::{Answer, Solved};

closed_list! {
    /// What the best mix is best at.
    Aim {
        /// The largest heap the stock allows.
        Largest = "largest",
        /// As much as can be of what spoils first.
        UseSoonest = "use-soonest",
        /// The least money for the size asked for.
        Cheapest = "cheapest",
        /// As near the middle of the windows as can be, and then as large.
        Balanced = "balanced",
        /// The least water to carry for the size asked for.
        LeastWater = "least-water",
    }
}

impl Aim {
    /// Whether it needs a least size: without one, nothing at all is cheapest.
    #[must_use]
    pub const fn needs_size(self) -> bool {
        matches!(self, Self::Cheapest | Self::LeastWater)
    }
}

/// The most that something may be.
#[derive(Debug, Clone, PartialEq)]
pub struct ShareCap {
    /// All lots of a kind, some lots, or one lot by its place.
    pub of: Capped,
    /// Most [-].
    pub most: f64,
    /// Of the loose volume; else of the fresh mass without water.
    pub by_volume: bool,
}

impl ShareCap {
    /// A share of the fresh mass.
    #[must_use]
    pub const fn of_mass(of: Capped, most: f64) -> Self {
        Self { of, most, by_volume: false }
    }

    /// Whether a lot counts towards it.
    #[must_use]
    pub fn is_of(&self, place: usize, lot: &Lot) -> bool {
        match &self.of {
            Capped::Kind(kind) => lot.kind == *kind,
            Capped::Lot(at) => *at == place,
            Capped::Dose { lots, .. } => lots.contains(&place),
        }
    }
}

/// What a share is of.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Capped {
    /// All lots of a kind together.
    Kind(Kind),
    /// One lot, by its place.
    Lot(usize),
    /// The lots of one small dose together: a cap that stands until a person sets another.
    Dose {
        /// Which dose, by its id in the table.
        dose: &'static str,
        /// Their places.
        lots: Vec<usize>,
    },
}

/// What is asked for.
#[derive(Debug, Clone, PartialEq)]
pub struct Wanted {
    /// What there is.
    pub lots: Vec<Lot>,
    /// The windows.
    pub windows: Windows,
    /// Heap volume [L]; no lower edge and no upper one if none.
    pub volume_l: Option<Band>,
    /// Shares that must not be passed.
    pub caps: Vec<ShareCap>,
    /// What is best.
    pub aim: Aim,
    /// Rather a mix that stays in its windows whatever the figures turn out to be.
    pub is_cautious: bool,
    /// Most water [L]; as much as is needed if none.
    pub water_max_l: Option<f64>,
    /// Water in whole steps of this [L]; any amount if none.
    pub water_step_l: Option<f64>,
}

/// What came of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Formulated {
    /// Whether every window is met.
    pub status: Status,
    /// Of each lot [kg].
    pub kg: Vec<f64>,
    /// Water added [L].
    pub water_l: f64,
    /// How well it does by its aim: litres, urgency, cost, share of the way
    /// from the middle to the edge of a window, or litres of water.
    pub objective: f64,
    /// Whether no better one exists, or, of the nearest, whether none meets every window; false if
    /// the search was cut short.
    pub is_proven: bool,
    /// Whether there would be a mix in any amounts, where none of whole measures was found.
    pub fits_in_parts: bool,
}

closed_list! {
    /// Whether a mix meets what was asked.
    Status {
        /// Every window is met.
        Ok = "ok",
        /// None can be; this one comes nearest.
        Nearest = "nearest",
    }
}

/// The best mix that the stock allows, or the nearest one.
///
/// # Formula
/// ```text
/// Σ(Cᵢ − lo·Nᵢ)·qᵢ ≥ 0      Σ(Cᵢ − hi·Nᵢ)·qᵢ ≤ 0          C:N
/// Σ(mᵢ − M)·qᵢ + (1 − M)·W ≥ 0 at the dry edge, ≤ 0 at the wet     moisture
/// Σ(vᵢ·(1 − F) − mᵢ − sᵢ)·qᵢ − W ≥ 0                               free air space
/// Σ(E·uᵢ − tᵢ)·qᵢ ≤ 0                                              frame
/// V₁ ≤ Σvᵢ·qᵢ ≤ V₂      Σ of a share ≤ its most · Σqᵢ, or · Σuᵢ·qᵢ
/// ```
/// per kilogram of lot `i`: `C` carbon, `N` nitrogen, `m` water, `v` heap volume [L],
/// `s` volume of the solids themselves [L], `u` loose volume and `t` what of it holds a frame [L];
/// `W` water added [L], `F` least air, `E` least frame. What feeds nothing earns nothing: its volume
/// counts towards `V₂` alone.
///
/// # Source
/// Mass balances, linear in the fresh masses; mixed as a linear programme as
/// in feed and fertiliser blending (Dantzig 1963, Linear Programming and
/// Extensions, chapter 3).
#[must_use]
pub fn formulate(wanted: &Wanted) -> Formulated {
    match search::search(wanted) {
        Answer::Found(solved) => finish(wanted, solved),
        Answer::Impossible => {
            let fits_in_parts = is_whole(wanted) && search::fits_in_any_amounts(wanted);
            Formulated { is_proven: true, fits_in_parts, ..nearest::nearest(wanted) }
        }
        // Not found is not impossible: what misses nothing is a mix after all.
        Answer::NotFound => match nearest::nearest(wanted) {
            near if near.kg.iter().any(|kg| *kg > 0.0) && misses(wanted, &near).is_empty() => {
                Formulated { status: Status::Ok, ..near }
            }
            near => Formulated { fits_in_parts: search::fits_in_any_amounts(wanted), ..near },
        },
    }
}

/// What one kilogram of each lot, and a litre of water, brings the aim.
fn gains(wanted: &Wanted, aim: Aim) -> Vec<f64> {
    // Where nothing spoils, nothing at all would do as well as everything.
    let is_in_no_hurry = aim == Aim::UseSoonest && wanted.lots.iter().all(|lot| lot.urgency <= 0.0);
    let aim = if is_in_no_hurry { Aim::Largest } else { aim };
    let of = |lot: &Lot| match aim {
        // Room and mass that feed nothing earn nothing.
        Aim::Largest | Aim::Balanced | Aim::UseSoonest if is_filler(lot) => 0.0,
        Aim::Largest | Aim::Balanced => per_kg(lot).heap_volume_l,
        Aim::UseSoonest => lot.urgency,
        Aim::Cheapest => -lot.cost_per_kg,
        Aim::LeastWater => 0.0,
    };
    let water = if aim == Aim::LeastWater { -1.0 } else { 0.0 };
    wanted.lots.iter().map(of).chain([water]).collect()
}

/// Water within what the windows leave open is set to the middle of the
/// moisture band, which nothing else depends on, and the aim is reckoned.
fn finish(wanted: &Wanted, solved: Solved) -> Formulated {
    let water_l = watered(wanted, &solved);
    let Solved { kg, is_proven, .. } = solved;
    Formulated {
        status: Status::Ok,
        objective: objective(wanted, &kg, water_l),
        kg,
        water_l,
        is_proven: is_proven && !wanted.is_cautious && !(wanted.aim == Aim::Balanced && is_whole(wanted)),
        fits_in_parts: false,
    }
}

/// The water that a mix is given: the least where that is the aim, else the kindest.
fn watered(wanted: &Wanted, solved: &Solved) -> f64 {
    if wanted.aim == Aim::LeastWater {
        solved.water_l
    } else {
        kindest_water(wanted, &solved.kg, solved.water_l)
    }
}

fn is_whole(wanted: &Wanted) -> bool {
    wanted.lots.iter().any(|lot| lot.step_kg.is_some())
}

/// The water nearest the middle of the moisture band that keeps every window.
fn kindest_water(wanted: &Wanted, kg: &[f64], found_l: f64) -> f64 {
    let sums = sums(wanted, kg);
    let band = wanted.windows.moisture();
    let to = |moisture: f64| (moisture * sums.mass_kg() - sums.water_kg) / (1.0 - moisture);
    let air = Window::FreeAirSpace.row();
    let most_for_air = -air.short_of(wanted.windows.free_air_space_min(), &sums, wanted.windows.basis);
    let low = to(band.low()).max(0.0);
    let high = to(band.high()).min(most_for_air).min(wanted.water_max_l.unwrap_or(f64::INFINITY));
    let middle = to(band.middle());
    if low > high {
        return found_l;
    }
    match wanted.water_step_l {
        None => middle.clamp(low, high),
        Some(step) => {
            let (least, most) = ((low / step - 1e-9).ceil(), (high / step + 1e-9).floor());
            if least > most { found_l } else { (middle / step).round().clamp(least, most) * step }
        }
    }
}

/// How well a mix does by its aim.
fn objective(wanted: &Wanted, kg: &[f64], water_l: f64) -> f64 {
    let sum =
        |of: &dyn Fn(&Lot) -> f64| -> f64 { wanted.lots.iter().zip(kg).map(|(lot, kg)| of(lot) * kg).sum() };
    match wanted.aim {
        Aim::Largest => sum(&|lot| if is_filler(lot) { 0.0 } else { per_kg(lot).heap_volume_l }),
        Aim::UseSoonest => sum(&|lot| if is_filler(lot) { 0.0 } else { lot.urgency }),
        Aim::Cheapest => sum(&|lot| lot.cost_per_kg),
        Aim::LeastWater => water_l,
        Aim::Balanced => {
            let sums = sums(wanted, kg);
            let sums = sums.plus(Totals::of_water(water_l));
            let basis = wanted.windows.basis;
            ROWS.iter()
                .filter_map(|row| {
                    let band = wanted.windows.aim(row.window).band()?;
                    let value = row.over(&sums, basis) / row.under(&sums, basis);
                    Some((value - band.middle()).abs() / ((band.high() - band.low()) / 2.0).max(1e-9))
                })
                .fold(0.0, f64::max)
        }
    }
}

/// What a kilogram of a lot brings.
fn per_kg(lot: &Lot) -> Totals {
    Totals::of_a_kilogram(&lot.figures)
}

/// What so much of each lot comes to, without the water added.
fn sums(wanted: &Wanted, kg: &[f64]) -> Totals {
    wanted.lots.iter().zip(kg).fold(Totals::default(), |sums, (lot, &kg)| sums.with(per_kg(lot), kg))
}

#[cfg(test)]
mod tests;
