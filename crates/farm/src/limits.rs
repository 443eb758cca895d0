//! What may be written where, for the forms: the same tables that refuse what lies outside.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::quantity::LARGEST_AMOUNT;
use zymarch_core::stock::LIMITS;
use zymarch_core::stock::climate::MONTH_LIMITS;
use zymarch_core::stock::measure::LARGEST_MEASURE_L;

use crate::plan::suit::{HOURS_A_WEEK, WEEKS};
use crate::stock::site::ALTITUDE_M;
use crate::words::LONGEST_NAME;

/// Lowest and highest of what may be written in a form.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Limits {
    /// Of a lot's own figures, by their names.
    pub own: BTreeMap<&'static str, [f64; 2]>,
    /// Of any amount, in the unit it is said in.
    pub amount: [f64; 2],
    /// Of what a measure holds, litres.
    pub measure_l: [f64; 2],
    /// Of how high a site lies, m.
    pub altitude_m: [f64; 2],
    /// Of a month's figures, by their names.
    pub month: BTreeMap<&'static str, [f64; 2]>,
    /// Of hours of work a week.
    pub hours_a_week: [f64; 2],
    /// Of weeks until it is ready.
    pub weeks: [f64; 2],
    /// Letters of a name.
    pub name_letters: usize,
}

/// What may be written where.
///
/// # Example
/// ```
/// assert_eq!(zymarch_farm::limits::limits().own["moisture_pct"], [0.0, 99.9]);
/// ```
#[must_use]
pub fn limits() -> Limits {
    let pair = |(low, high): (f64, f64)| [low, high];
    Limits {
        own: LIMITS.iter().map(|limit| (limit.figure.as_str(), [limit.low, limit.high])).collect(),
        amount: [0.0, LARGEST_AMOUNT],
        measure_l: [0.0, LARGEST_MEASURE_L],
        altitude_m: pair(ALTITUDE_M),
        month: MONTH_LIMITS.into_iter().map(|(name, limits)| (name, pair(limits))).collect(),
        hours_a_week: pair(HOURS_A_WEEK),
        weeks: pair(WEEKS),
        name_letters: LONGEST_NAME,
    }
}
