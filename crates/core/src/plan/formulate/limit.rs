//! What limits a mix, and what one more measure of each lot would be worth.

use super::programme::{Edge, Programme, RowKind, Solved};
use super::{Aim, Formulated, Status, Wanted, finish, gains, kindest_water, per_kg, sums, whole};
use crate::base::words::closed_list;
use crate::mix::Totals;
use crate::mix::window::{ROWS, Window};

/// At its edge within this share of what the condition weighs [-].
const AT_EDGE: f64 = 1e-6;

closed_list! {
    /// What kind of condition a mix lies at the edge of.
    LimitCode {
        /// All of a lot is used.
        UsedUp = "used-up",
        /// The least of a lot that must go in.
        AtLeast = "at-least",
        /// C:N at its lower edge.
        CnLow = "c-n-low",
        /// C:N at its upper edge.
        CnHigh = "c-n-high",
        /// Moisture at its dry edge.
        Dry = "dry",
        /// Moisture at its wet edge.
        Wet = "wet",
        /// Free air space at its least.
        Air = "air",
        /// The least that must hold a frame.
        Packs = "packs",
        /// Volume at its lower edge.
        VolumeLow = "volume-low",
        /// Volume at its upper edge.
        VolumeHigh = "volume-high",
        /// All of the water that may be used.
        Water = "water",
        /// A share at its most.
        Cap = "cap",
    }
}

/// A condition that a mix lies at the edge of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Limit {
    /// What kind.
    pub code: LimitCode,
    /// The lot or the cap it is about, by its place.
    pub place: Option<usize>,
}

impl Limit {
    const fn of(code: LimitCode, place: usize) -> Self {
        Self { code, place: Some(place) }
    }
}

impl From<LimitCode> for Limit {
    fn from(code: LimitCode) -> Self {
        Self { code, place: None }
    }
}

/// What an edge of a window is called where it limits.
const fn edge_code(window: Window, edge: Edge) -> LimitCode {
    match (window, edge) {
        (Window::CN, Edge::Low) => LimitCode::CnLow,
        (Window::CN, Edge::High) => LimitCode::CnHigh,
        (Window::Moisture, Edge::Low) => LimitCode::Dry,
        (Window::Moisture, Edge::High) => LimitCode::Wet,
        (Window::FreeAirSpace, _) => LimitCode::Air,
        (Window::Structure, _) => LimitCode::Packs,
    }
}

impl From<RowKind> for Limit {
    fn from(kind: RowKind) -> Self {
        match kind {
            RowKind::Window(window, edge) => edge_code(window, edge).into(),
            RowKind::VolumeLow => LimitCode::VolumeLow.into(),
            RowKind::VolumeHigh => LimitCode::VolumeHigh.into(),
            RowKind::Cap(place) => Self::of(LimitCode::Cap, place),
        }
    }
}

/// What keeps a mix from being better.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Limits {
    /// The conditions that it lies at the edge of: what would have to give for a better one. In whole
    /// measures an edge is reached when not one more step fits.
    pub binding: Vec<Limit>,
    /// Of each lot, the conditions that one more step of it would break, with the kindest water: why not
    /// all of it is used. None of a lot that is used up, or that would break nothing and is left because
    /// the aim has no need of it. A step is the lot's own, or a hundredth of what there is.
    pub held_back: Vec<Vec<Limit>>,
}

/// What keeps a mix from being better.
#[must_use]
pub fn limits(wanted: &Wanted, found: &Formulated) -> Limits {
    let programme = Programme::new(wanted, &wanted.windows, 0.0);
    let binding = binding(wanted, found, &programme);
    let held_back = (0..wanted.lots.len()).map(|place| {
        let lot = &wanted.lots[place];
        if lot.most_kg <= 0.0 || binding.contains(&Limit::of(LimitCode::UsedUp, place)) {
            return Vec::new();
        }
        let mut kg = found.kg.clone();
        kg[place] += lot.step_kg.unwrap_or(lot.most_kg / 100.0);
        let water_l = kindest_water(wanted, &kg, found.water_l);
        let more = Solved { kg, water_l, is_proven: false };
        let broken = programme.rows.iter().filter(|row| programme.room(row, &more) < -AT_EDGE);
        broken.map(|row| row.kind.into()).collect()
    });
    Limits { held_back: held_back.collect(), binding }
}

fn binding(wanted: &Wanted, found: &Formulated, programme: &Programme) -> Vec<Limit> {
    let solved = Solved { kg: found.kg.clone(), water_l: found.water_l, is_proven: found.is_proven };
    let mut limits = Vec::new();
    for (place, lot) in wanted.lots.iter().enumerate() {
        let kg = found.kg[place];
        let play = lot.step_kg.map_or(lot.most_kg * AT_EDGE, |step| step * (1.0 - AT_EDGE));
        if lot.most_kg > 0.0 && lot.most_kg - kg <= play {
            limits.push(Limit::of(LimitCode::UsedUp, place));
        } else if lot.least_kg > 0.0 && kg - lot.least_kg <= lot.least_kg * AT_EDGE {
            limits.push(Limit::of(LimitCode::AtLeast, place));
        }
    }
    if wanted.water_max_l.is_some_and(|most| most - found.water_l <= most * AT_EDGE) {
        limits.push(LimitCode::Water.into());
    }
    // What is missed is told by `misses`; here stands what is just reached.
    for row in programme.rows.iter().filter(|row| programme.room(row, &solved).abs() <= AT_EDGE) {
        limits.push(row.kind.into());
    }
    limits
}

/// A window that a nearest mix misses.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Miss {
    /// Which edge.
    pub code: LimitCode,
    /// What the mix has: C:N, shares [-], or litres.
    pub is: f64,
    /// The edge, the same.
    pub edge: f64,
}

/// The windows that a mix misses, and by how much; none of one that is [`Status::Ok`](super::Status::Ok).
#[must_use]
pub fn misses(wanted: &Wanted, found: &Formulated) -> Vec<Miss> {
    let sums = sums(wanted, &found.kg).plus(Totals::of_water(found.water_l));
    let windows = &wanted.windows;
    let mut missed = Vec::new();
    let mut look = |is: f64, edge: f64, code: LimitCode, is_least: bool| {
        let by = if is_least { edge - is } else { is - edge };
        if by > edge.abs() * 1e-5 {
            missed.push(Miss { code, is, edge });
        }
    };
    for row in &ROWS {
        let under = row.under(&sums, windows.basis);
        if under <= 0.0 {
            continue;
        }
        let (is, aim) = (row.over(&sums, windows.basis) / under, windows.aim(row.window));
        look(is, aim.low, edge_code(row.window, Edge::Low), true);
        if let Some(high) = aim.high {
            look(is, high, edge_code(row.window, Edge::High), false);
        }
    }
    if let Some(band) = wanted.volume_l {
        let feeding = wanted.lots.iter().zip(&found.kg).map(|(lot, kg)| kg * per_kg(lot).feeding_l()).sum();
        look(feeding, band.low(), LimitCode::VolumeLow, true);
    }
    missed
}

/// What so much more of each lot would add to the aim, by their places; zero
/// for a lot that is not used up. Below zero is money saved or water spared.
/// A cautious mix is not the best by its aim, and a nearest one is none, so that more
/// of a lot is worth nothing that could be said in its terms.
///
/// In any amounts it is what the dual prices say, which holds for a little more and is the most
/// that much more could add; in whole measures what is found by going on from the mix at hand.
#[must_use]
pub fn worth(wanted: &Wanted, found: &Formulated, more_kg: &[f64]) -> Vec<f64> {
    let none = vec![0.0; wanted.lots.len()];
    if wanted.is_cautious || wanted.aim == Aim::Balanced || found.status == Status::Nearest {
        return none;
    }
    let programme = Programme::new(wanted, &wanted.windows, 0.0);
    let gain = gains(wanted, wanted.aim);
    let Some(prices) = programme.prices(&gain, &[]) else { return none };
    let used_up = binding(wanted, found, &programme);
    let is_whole = programme.is_whole();
    (0..wanted.lots.len())
        .map(|place| {
            let more = more_kg.get(place).copied().unwrap_or(0.0);
            let of_a_kg = programme.gain_beyond_price(place, &gain, &prices);
            if !used_up.contains(&Limit::of(LimitCode::UsedUp, place)) || more <= 0.0 || of_a_kg <= 0.0 {
                return 0.0;
            }
            if !is_whole {
                return if wanted.aim.needs_size() { -of_a_kg * more } else { of_a_kg * more };
            }
            let mut richer = wanted.clone();
            richer.lots[place].most_kg += more;
            let now = Solved { kg: found.kg.clone(), water_l: found.water_l, is_proven: false };
            let better = whole::from_here(&Programme::new(&richer, &richer.windows, 0.0), &gain, &now);
            better.map_or(0.0, |better| finish(&richer, better).objective - found.objective)
        })
        .collect()
}
