//! Stand-ins for devices: a rod with three points in a heap, and a weather station.
//!
//! The rod reads what the model expects, with noise; a fault can be asked for, so that it can be seen how
//! faults are told. The same seed gives the same readings, whenever they are asked for. Their data are
//! called simulated wherever they show.

mod rod;
mod weather;

pub use rod::{ROD_PLACES, Rod, RodFault, Sent};
pub use weather::{Day, Station};

/// A figure between 0 and 1 for a seed and a number, always the same.
///
/// # Source
/// Steele G.L. et al. 2014, Fast splittable pseudorandom number generators (SplitMix64).
pub(crate) fn chance(seed: u64, number: u64) -> f64 {
    let mut z = seed.wrapping_add(number.wrapping_add(1).wrapping_mul(0x9e37_79b9_7f4a_7c15));
    z = (z ^ (z >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
    z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
    ((z ^ (z >> 31)) >> 11) as f64 / (1_u64 << 53) as f64
}

/// Something that wanders between −1 and 1, from one whole step to the next in a smooth line.
pub(crate) fn wander(seed: u64, at: f64) -> f64 {
    let (step, part) = (at.floor(), at.fract());
    let of = |step: f64| 2.0 * chance(seed, step as i64 as u64) - 1.0;
    let smooth = part * part * (3.0 - 2.0 * part);
    of(step) + smooth * (of(step + 1.0) - of(step))
}

#[cfg(test)]
mod tests;
