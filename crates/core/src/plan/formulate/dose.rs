//! Small doses as conditions of the programme: what is good in a pinch is never filler.

use super::{Capped, ShareCap};
use crate::plan::method::Method;
use crate::plan::mind::{self, Dose};
use crate::stock::Lot;
use crate::stock::material::Material;

/// Whether a lot feeds nothing: ash, soil, char. Its room and its mass earn nothing in any aim.
#[must_use]
pub fn is_filler(lot: &Lot) -> bool {
    lot.figures.inert || lot.figures.nitrogen.value.get() <= 0.0
}

/// The caps that stand until a person sets others: of every small dose the stock holds, all its
/// lots together. A method that is made for one, and what a person caps or pins, go before.
#[must_use]
pub fn default_caps(
    lots: &[Lot],
    materials: &[Option<&Material>],
    set: &[ShareCap],
    method: Option<&Method>,
) -> Vec<ShareCap> {
    let is_free = |place: usize, lot: &Lot| {
        lot.least_kg <= 0.0
            && !set.iter().any(|cap| matches!(cap.of, Capped::Lot(_)) && cap.is_of(place, lot))
    };
    let of_lots = lots.iter().enumerate().map(|(place, lot)| {
        let material = materials.get(place).copied().flatten().filter(|_| is_free(place, lot));
        material.and_then(|row| mind::dose_of(row, method)).map(|dose| dose.id)
    });
    let of_lots: Vec<Option<&str>> = of_lots.collect();
    let cap = |dose: &Dose| {
        let places: Vec<usize> = (0..lots.len()).filter(|&place| of_lots[place] == Some(dose.id)).collect();
        (!places.is_empty()).then_some(ShareCap {
            of: Capped::Dose { dose: dose.id, lots: places },
            most: dose.most,
            by_volume: !dose.of_mass,
        })
    };
    mind::doses().iter().filter(|dose| dose.is_cap).filter_map(cap).collect()
}
