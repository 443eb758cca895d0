//! What limits a mix, and what one more measure of each lot would be worth.

use super::programme::{Programme, RowKind, Solved};
use super::{Aim, Formulated, Wanted, formulate, kindest_water, sums};

/// At its edge within this share of what the condition weighs [-].
const AT_EDGE: f64 = 1e-6;

/// A condition that a mix lies at the edge of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Limit {
    /// All of a lot is used, by its place.
    UsedUp(usize),
    /// The least of a lot that must go in, by its place.
    AtLeast(usize),
    /// C:N at its lower edge.
    CnLow,
    /// C:N at its upper edge.
    CnHigh,
    /// Moisture at its dry edge.
    Dry,
    /// Moisture at its wet edge.
    Wet,
    /// Free air space at its least.
    Air,
    /// Volume at its lower edge.
    VolumeLow,
    /// Volume at its upper edge.
    VolumeHigh,
    /// All of the water that may be used.
    Water,
    /// A share at its most, by its place among the caps.
    Cap(usize),
}

impl Limit {
    /// The word used in open formats.
    #[must_use]
    pub const fn as_str(self) -> &'static str {
        match self {
            Self::UsedUp(_) => "used-up",
            Self::AtLeast(_) => "at-least",
            Self::CnLow => "c-n-low",
            Self::CnHigh => "c-n-high",
            Self::Dry => "dry",
            Self::Wet => "wet",
            Self::Air => "air",
            Self::VolumeLow => "volume-low",
            Self::VolumeHigh => "volume-high",
            Self::Water => "water",
            Self::Cap(_) => "cap",
        }
    }

    /// The lot or the cap it is about, by its place.
    #[must_use]
    pub const fn place(self) -> Option<usize> {
        match self {
            Self::UsedUp(place) | Self::AtLeast(place) | Self::Cap(place) => Some(place),
            _ => None,
        }
    }
}

impl From<RowKind> for Limit {
    fn from(kind: RowKind) -> Self {
        match kind {
            RowKind::CnLow => Self::CnLow,
            RowKind::CnHigh => Self::CnHigh,
            RowKind::Dry => Self::Dry,
            RowKind::Wet => Self::Wet,
            RowKind::Air => Self::Air,
            RowKind::VolumeLow => Self::VolumeLow,
            RowKind::VolumeHigh => Self::VolumeHigh,
            RowKind::Cap(place) => Self::Cap(place),
        }
    }
}

/// The conditions that a mix lies at the edge of: what would have to give for
/// a better one. In whole measures an edge is reached when not one more step fits.
#[must_use]
pub fn binding(wanted: &Wanted, found: &Formulated) -> Vec<Limit> {
    let programme = Programme::new(wanted, &wanted.target, 0.0);
    let solved = Solved { kg: found.kg.clone(), water_l: found.water_l, is_proven: found.is_proven };
    let mut limits = Vec::new();
    for (place, offer) in wanted.offers.iter().enumerate() {
        let kg = found.kg[place];
        let play = offer.step_kg.map_or(offer.available_kg * AT_EDGE, |step| step * (1.0 - AT_EDGE));
        if offer.available_kg > 0.0 && offer.available_kg - kg <= play {
            limits.push(Limit::UsedUp(place));
        } else if offer.min_kg > 0.0 && kg - offer.min_kg <= offer.min_kg * AT_EDGE {
            limits.push(Limit::AtLeast(place));
        }
    }
    if wanted.water_max_l.is_some_and(|most| most - found.water_l <= most * AT_EDGE) {
        limits.push(Limit::Water);
    }
    // What is missed is told by `misses`; here stands what is just reached.
    for row in programme.rows.iter().filter(|row| programme.room(row, &solved).abs() <= AT_EDGE) {
        limits.push(row.kind.into());
    }
    limits
}

/// Of each lot, the conditions that one more step of it would break, with the
/// kindest water: why not all of it is used. None of a lot that is used up, or
/// that would break nothing and is left because the aim has no need of it.
///
/// A step is the lot's own, or a hundredth of what there is.
#[must_use]
pub fn holds_back(wanted: &Wanted, found: &Formulated) -> Vec<Vec<Limit>> {
    let programme = Programme::new(wanted, &wanted.target, 0.0);
    let limits = binding(wanted, found);
    (0..wanted.offers.len())
        .map(|place| {
            let offer = &wanted.offers[place];
            if offer.available_kg <= 0.0 || limits.contains(&Limit::UsedUp(place)) {
                return Vec::new();
            }
            let mut kg = found.kg.clone();
            kg[place] += offer.step_kg.unwrap_or(offer.available_kg / 100.0);
            let water_l = kindest_water(wanted, &kg, found.water_l);
            let more = Solved { kg, water_l, is_proven: false };
            let broken = programme.rows.iter().filter(|row| programme.room(row, &more) < -AT_EDGE);
            broken.map(|row| row.kind.into()).collect()
        })
        .collect()
}

/// A window that a nearest mix misses.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Miss {
    /// Which edge.
    pub limit: Limit,
    /// What the mix has: C:N, shares [-], or litres.
    pub is: f64,
    /// The edge, the same.
    pub edge: f64,
}

/// The windows that a mix misses, and by how much; none of one that is [`Status::Ok`](super::Status::Ok).
#[must_use]
pub fn misses(wanted: &Wanted, found: &Formulated) -> Vec<Miss> {
    let sums = sums(wanted, &found.kg);
    let target = &wanted.target;
    let mut missed = Vec::new();
    let mut look = |is: f64, edge: f64, limit: Limit, is_least: bool| {
        let by = if is_least { edge - is } else { is - edge };
        if by > edge.abs() * 1e-5 {
            missed.push(Miss { limit, is, edge });
        }
    };
    if sums.nitrogen_kg > 0.0 {
        let c_n = sums.carbon_kg / sums.nitrogen_kg;
        look(c_n, target.c_n.low(), Limit::CnLow, true);
        look(c_n, target.c_n.high(), Limit::CnHigh, false);
    }
    let mass = sums.mass_kg + found.water_l;
    if mass > 0.0 {
        let water = sums.water_kg + found.water_l;
        look(water / mass, target.moisture.low(), Limit::Dry, true);
        look(water / mass, target.moisture.high(), Limit::Wet, false);
        let air = 1.0 - (water + sums.solids_l) / sums.heap_l;
        look(air, target.free_air_space_min, Limit::Air, true);
    }
    if let Some(band) = wanted.volume_l {
        look(sums.heap_l, band.low(), Limit::VolumeLow, true);
    }
    missed
}

/// What so much more of each lot would add to the aim, by their places; zero
/// for a lot that is not used up. Below zero is money saved or water spared.
/// A cautious mix is not the best by its aim, so that more of a lot is worth
/// nothing that could be said in its terms.
#[must_use]
pub fn worth(wanted: &Wanted, found: &Formulated, more_kg: &[f64]) -> Vec<f64> {
    let used_up = binding(wanted, found);
    (0..wanted.offers.len())
        .map(|place| {
            if wanted.is_cautious || wanted.aim == Aim::Balanced || !used_up.contains(&Limit::UsedUp(place)) {
                return 0.0;
            }
            let mut richer = wanted.clone();
            richer.offers[place].available_kg += more_kg.get(place).copied().unwrap_or(0.0);
            formulate(&richer).objective - found.objective
        })
        .collect()
}
