//! From stock with limits to amounts: the best mix that the windows allow.
//!
//! With the fresh masses as unknowns, C:N, moisture, free air space, size and
//! shares are all linear, so the best mix is the answer of a linear programme;
//! in whole measures, of a small integer one. The solver is a library's; what
//! is asked of it, what its answer means, and what to do when there is none
//! stand here. Which amounts are written down for a person to build with is
//! left to [`layers`](crate::layers).

mod limit;
mod missing;
mod nearest;
mod programme;
mod search;

pub use limit::{Limit, Miss, binding, holds_back, misses, worth};
pub use missing::{Addition, additions};

use crate::confidence::Doubt;
use crate::judge::{Basis, Target};
use crate::material::Kind;
use crate::mix::Item;
use crate::quantity::Band;
use crate::stock::Figures;
use crate::words::closed_list;

use programme::Solved;

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

/// A lot that a mix may be made from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Offer {
    /// The figures to reckon with.
    pub figures: Figures,
    /// What is not sure about them; nothing if none.
    pub doubt: Option<Doubt>,
    /// How people sort it.
    pub kind: Kind,
    /// Most that may go in [kg].
    pub available_kg: f64,
    /// Least that must go in [kg].
    pub min_kg: f64,
    /// What one kilogram costs.
    pub cost_per_kg: f64,
    /// How soon it should be used; the more, the sooner.
    pub urgency: f64,
    /// One step of it in whole measures [kg]; none where any amount will do.
    pub step_kg: Option<f64>,
}

/// The most that something may be, of the fresh mass without water.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ShareCap {
    /// All lots of a kind, or one lot by its place.
    pub of: Capped,
    /// Most [-].
    pub most: f64,
}

/// What a share is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Capped {
    /// All lots of a kind together.
    Kind(Kind),
    /// One lot, by its place.
    Offer(usize),
}

/// What is asked for.
#[derive(Debug, Clone, PartialEq)]
pub struct Wanted {
    /// What there is.
    pub offers: Vec<Offer>,
    /// The windows.
    pub target: Target,
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
    /// Whether no better one exists; false if the search was cut short.
    pub is_proven: bool,
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
/// V₁ ≤ Σvᵢ·qᵢ ≤ V₂      Σ of a share ≤ its most · Σqᵢ
/// ```
/// per kilogram of lot `i`: `C` carbon, `N` nitrogen, `m` water, `v` heap volume [L],
/// `s` volume of the solids themselves [L]; `W` water added [L], `F` least air.
///
/// # Source
/// Mass balances, linear in the fresh masses; mixed as a linear programme as
/// in feed and fertiliser blending (Dantzig 1963, Linear Programming and
/// Extensions, chapter 3).
#[must_use]
pub fn formulate(wanted: &Wanted) -> Formulated {
    match search::search(wanted) {
        Some(solved) => finish(wanted, solved),
        None => nearest::nearest(wanted),
    }
}

/// What one kilogram of each lot, and a litre of water, brings the aim.
fn gains(wanted: &Wanted, aim: Aim) -> Vec<f64> {
    let of = |offer: &Offer| match aim {
        Aim::Largest | Aim::Balanced => per_kg(offer, Basis::Total).heap_l,
        Aim::UseSoonest => offer.urgency,
        Aim::Cheapest => -offer.cost_per_kg,
        Aim::LeastWater => 0.0,
    };
    let water = if aim == Aim::LeastWater { -1.0 } else { 0.0 };
    wanted.offers.iter().map(of).chain([water]).collect()
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
    wanted.offers.iter().any(|offer| offer.step_kg.is_some())
}

/// The water nearest the middle of the moisture band that keeps every window.
fn kindest_water(wanted: &Wanted, kg: &[f64], found_l: f64) -> f64 {
    let sums = sums(wanted, kg);
    let band = wanted.target.moisture;
    let to = |moisture: f64| (moisture * sums.mass_kg - sums.water_kg) / (1.0 - moisture);
    let most_for_air = sums.heap_l * (1.0 - wanted.target.free_air_space_min) - sums.water_kg - sums.solids_l;
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
    let sum = |of: &dyn Fn(&Offer) -> f64| -> f64 {
        wanted.offers.iter().zip(kg).map(|(offer, kg)| of(offer) * kg).sum()
    };
    match wanted.aim {
        Aim::Largest => sum(&|offer| per_kg(offer, Basis::Total).heap_l),
        Aim::UseSoonest => sum(&|offer| offer.urgency),
        Aim::Cheapest => sum(&|offer| offer.cost_per_kg),
        Aim::LeastWater => water_l,
        Aim::Balanced => {
            let sums = sums(wanted, kg);
            let off = |value: f64, band: Band| {
                (value - band.middle()).abs() / ((band.high() - band.low()) / 2.0).max(1e-9)
            };
            let moisture = (sums.water_kg + water_l) / (sums.mass_kg + water_l);
            off(sums.carbon_kg / sums.nitrogen_kg, wanted.target.c_n)
                .max(off(moisture, wanted.target.moisture))
        }
    }
}

/// The balances of a mix, or of a kilogram of a lot, without the water added.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
struct Balances {
    mass_kg: f64,
    carbon_kg: f64,
    nitrogen_kg: f64,
    water_kg: f64,
    heap_l: f64,
    solids_l: f64,
}

impl Balances {
    /// So many times as much of another on top.
    fn plus(self, other: Self, times: f64) -> Self {
        Self {
            mass_kg: self.mass_kg + times * other.mass_kg,
            carbon_kg: self.carbon_kg + times * other.carbon_kg,
            nitrogen_kg: self.nitrogen_kg + times * other.nitrogen_kg,
            water_kg: self.water_kg + times * other.water_kg,
            heap_l: self.heap_l + times * other.heap_l,
            solids_l: self.solids_l + times * other.solids_l,
        }
    }
}

fn per_kg(offer: &Offer, basis: Basis) -> Balances {
    let item = Item { wet_mass_kg: 1.0, figures: offer.figures };
    Balances {
        mass_kg: 1.0,
        carbon_kg: if basis == Basis::Available { item.available_carbon_kg() } else { item.carbon_kg() },
        nitrogen_kg: item.nitrogen_kg(),
        water_kg: item.water_kg(),
        heap_l: item.heap_volume_l(),
        solids_l: item.solids_l(),
    }
}

fn sums(wanted: &Wanted, kg: &[f64]) -> Balances {
    wanted
        .offers
        .iter()
        .zip(kg)
        .fold(Balances::default(), |sums, (offer, &kg)| sums.plus(per_kg(offer, wanted.target.basis), kg))
}

#[cfg(test)]
mod tests;
