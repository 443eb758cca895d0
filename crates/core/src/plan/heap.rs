//! The physical pile: its shape, what it holds, whether it can keep its heat and breathe.
//!
//! [`Shape`] is what is built in; [`fit`] goes both ways between a mix and its
//! sides; [`air`] says how far the innermost lies from air. How the mix is divided
//! inside is in [`layers`](crate::plan::layers).

pub mod air;
pub mod fit;
mod shape;
mod sides;

pub use shape::{COLUMN_CM, Shape};
pub use sides::{LONGEST_CM, MOST_COLUMNS, SIDE_CM, Sides};

use crate::base::finding::{Code, Finding, Severity};
use crate::base::words::closed_list;
use crate::plan::method::{Heat, Method};

/// Below this a heap loses its heat faster than it makes it [L].
///
/// # Source
/// About a cubic yard (0.76 m³) is the usual least size for a hot pile: Rynk
/// 1992, On-Farm Composting Handbook (NRAES-54), chapter on methods.
pub const LEAST_HOT_VOLUME_L: f64 = 760.0;

/// From this on a heap keeps its heat well: 1 × 1 × 1 m [L]. See [`LEAST_HOT_VOLUME_L`].
pub const SURE_HOT_VOLUME_L: f64 = 1000.0;

/// A heap flatter or narrower than this cools through, whatever its volume [cm].
pub const LEAST_HOT_SIDE_CM: f64 = 75.0;

/// Above this a heap packs under its own weight and chokes [cm]. See [`LEAST_HOT_VOLUME_L`].
pub const TALLEST_CM: f64 = 200.0;

/// Less of a container filled than this is worth saying [%].
const WELL_FILLED_PCT: f64 = 80.0;

/// Fuller than full by less than this is full: nobody knows how a mix settles more closely [-].
const FULL_PLAY: f64 = 0.02;

/// Outside a method's sizes by more than this is worth saying [-].
const SIZE_PLAY: f64 = 0.1;

closed_list! {
    /// Whether a heap is big enough to heat: the one judgement that every screen gives.
    HeapSize {
        /// It loses its warmth faster than it makes it.
        TooSmallToHeat = "too-small-to-heat",
        /// Large enough, but so flat or narrow that it cools through.
        TooThinToHeat = "too-thin-to-heat",
        /// It heats if all else is right.
        JustBigEnough = "just-big-enough",
        /// It heats.
        BigEnough = "big-enough",
        /// Its method is not made to heat.
        StaysCool = "stays-cool",
    }
}

/// A mix in a shape.
#[derive(Debug, Clone, Copy)]
pub struct Filled<'a> {
    /// The shape.
    pub shape: Shape,
    /// The mix as it settles in the first days [L].
    pub heap_volume_l: f64,
    /// The mix as it is thrown [L].
    pub loose_l: f64,
    /// What is laid below and above it and is no part of it [L].
    pub beside_l: f64,
    /// The way it is composted, if one is chosen.
    pub method: Option<&'a Method>,
}

/// Whether a heap is big enough to heat.
///
/// `thinnest_cm` is its least side as it stands, its height among them; none while it has no shape.
///
/// # Example
/// ```
/// use zymarch_core::plan::heap::{HeapSize, size};
/// assert_eq!(size(700.0, None, None), HeapSize::TooSmallToHeat);
/// assert_eq!(size(900.0, Some(95.0), None), HeapSize::JustBigEnough);
/// assert_eq!(size(3000.0, Some(30.0), None), HeapSize::TooThinToHeat);
/// ```
#[must_use]
pub fn size(heap_volume_l: f64, thinnest_cm: Option<f64>, method: Option<&Method>) -> HeapSize {
    if method.is_some_and(|method| matches!(method.heat, Heat::Cool | Heat::Worms)) {
        HeapSize::StaysCool
    } else if heap_volume_l < LEAST_HOT_VOLUME_L {
        HeapSize::TooSmallToHeat
    } else if thinnest_cm.is_some_and(|thinnest| thinnest < LEAST_HOT_SIDE_CM) {
        HeapSize::TooThinToHeat
    } else if heap_volume_l < SURE_HOT_VOLUME_L {
        HeapSize::JustBigEnough
    } else {
        HeapSize::BigEnough
    }
}

/// The same of a mix as it stands in its shape.
#[must_use]
pub fn size_in(filled: &Filled) -> HeapSize {
    let height = filled.shape.height_of_cm(filled.heap_volume_l + filled.beside_l);
    let thinnest = filled.shape.least_side_cm().min(height);
    size(filled.heap_volume_l, Some(thinnest), filled.method)
}

/// What is worth saying about a mix in a shape, the gravest first.
///
/// A heap is as small as its smallest side: three square metres of mix thirty
/// centimetres high does not heat. That it stays cool is a fault only where
/// heat is what the method is for.
#[must_use]
pub fn findings(filled: &Filled) -> Vec<Finding> {
    let mut found: Vec<_> = room(filled).into_iter().collect();
    let height = filled.shape.height_of_cm(filled.heap_volume_l + filled.beside_l);
    found.extend(warmth(filled, height));
    found.extend(filled.method.and_then(|method| of_method(method, filled, height)));
    found.extend(filled.method.and_then(|method| breath(method, filled, height)));
    // What does not fit does not stand that high either.
    if height > TALLEST_CM
        && (filled.shape.height_cm() > TALLEST_CM || found.iter().all(|f| f.code != Code::Overflows))
    {
        found.push(Finding::new(Code::TooTall, Severity::Warn, &[("height_cm", height)]));
    }
    found.sort_by_key(|finding| std::cmp::Reverse(finding.severity));
    found
}

/// Whether it fits: once settled, and on the day it is thrown.
fn room(filled: &Filled) -> Option<Finding> {
    let Filled { shape, heap_volume_l, loose_l, beside_l, .. } = *filled;
    let capacity = shape.capacity_l();
    let whole = heap_volume_l + beside_l;
    let fills_pct = 100.0 * whole / capacity;
    if whole > capacity * (1.0 + FULL_PLAY) {
        let mut params = vec![("litres", whole - capacity)];
        if shape.is_straight() {
            params.push(("height_cm", shape.height_of_cm(whole)));
        }
        return Some(Finding::new(Code::Overflows, Severity::Fail, &params));
    }
    if fills_pct < WELL_FILLED_PCT {
        let params = [("litres", capacity - whole), ("fills_pct", fills_pct)];
        return Some(Finding::new(Code::RoomLeft, Severity::Info, &params));
    }
    let at_first = loose_l + beside_l - capacity;
    (at_first > capacity * FULL_PLAY)
        .then(|| Finding::new(Code::HeapedAtFirst, Severity::Info, &[("litres", at_first)]))
}

/// Whether it keeps its heat, where that is worth saying.
fn warmth(filled: &Filled, height_cm: f64) -> Option<Finding> {
    let litres = ("heap_volume_l", filled.heap_volume_l);
    let thinnest = ("least_side_cm", filled.shape.least_side_cm().min(height_cm));
    match size_in(filled) {
        HeapSize::StaysCool => Some(Finding::new(Code::StaysCool, Severity::Info, &[litres])),
        HeapSize::TooSmallToHeat => Some(Finding::new(Code::TooSmallToHeat, Severity::Warn, &[litres])),
        HeapSize::TooThinToHeat => {
            Some(Finding::new(Code::TooSmallToHeat, Severity::Warn, &[litres, thinnest]))
        }
        HeapSize::JustBigEnough => Some(Finding::new(Code::JustBigEnough, Severity::Info, &[litres])),
        HeapSize::BigEnough => None,
    }
}

/// Whether it has the size that the method works at.
fn of_method(method: &Method, filled: &Filled, height_cm: f64) -> Option<Finding> {
    let litres = filled.heap_volume_l.min(filled.shape.capacity_l());
    let sizes = [
        ("heap_volume_l", litres),
        ("low_l", method.volume_l.low()),
        ("high_l", method.volume_l.high()),
        ("height_cm", height_cm),
        ("tallest_cm", method.height_cm.high()),
    ];
    if litres < method.volume_l.low() * (1.0 - SIZE_PLAY) {
        Some(Finding::new(Code::BelowMethod, Severity::Info, &sizes))
    } else if litres > method.volume_l.high() * (1.0 + SIZE_PLAY)
        || (height_cm > method.height_cm.high() * (1.0 + SIZE_PLAY) && height_cm <= TALLEST_CM)
    {
        Some(Finding::new(Code::AboveMethod, Severity::Warn, &sizes))
    } else {
        None
    }
}

/// Whether a heap that is not turned breathes through and through.
fn breath(method: &Method, filled: &Filled, height_cm: f64) -> Option<Finding> {
    let reach_cm = method.air_reach_cm?;
    let up = height_cm.min(filled.shape.height_cm());
    let far = air::farthest_cm(filled.shape, up, pipes_in(filled.shape, Some(method)));
    if far <= reach_cm {
        return Some(Finding::new(Code::NearAir, Severity::Info, &[("far_cm", far), ("reach_cm", reach_cm)]));
    }
    let mut params = vec![("far_cm", far), ("reach_cm", reach_cm)];
    if let Some(columns) = air::columns_needed(filled.shape, up, reach_cm) {
        params.push(("columns", f64::from(columns)));
    }
    Some(Finding::new(Code::TooFarFromAir, Severity::Warn, &params))
}

/// Coarse stuff that a method lays on the ground under the mix [L].
#[must_use]
pub fn foundation_l(shape: Shape, method: Option<&Method>) -> f64 {
    /// It takes no more of a heap's height than this [-].
    const MOST: f64 = 0.3;
    let thick_cm = method.map_or(0.0, |method| method.foundation_cm);
    shape.volume_below_l(thick_cm.min(shape.height_cm() * MOST))
}

/// Columns of air, or the pipe that a method puts down the middle of its ring.
#[must_use]
pub fn pipes_in(shape: Shape, method: Option<&Method>) -> u8 {
    match shape {
        Shape::Tower { columns, .. } => columns,
        Shape::Ring { .. } if method.is_some_and(|method| method.air_reach_cm.is_some()) => 1,
        _ => 0,
    }
}

#[cfg(test)]
mod tests;
