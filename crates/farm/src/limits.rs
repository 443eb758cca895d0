//! What may be written where, for the forms: the same tables that refuse what lies outside;
//! and the few figures of the practice that screens draw by.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::quantity::LARGEST_AMOUNT;
use zymarch_core::mix::step::STEPS;
use zymarch_core::plan::heap::{LONGEST_CM, MOST_COLUMNS, SIDE_CM, SURE_HOT_VOLUME_L};
use zymarch_core::plan::method::own;
use zymarch_core::stock::LIMITS;
use zymarch_core::stock::climate::MONTH_LIMITS;
use zymarch_core::stock::field_test::{HEAVIEST_G, HEAVIEST_KG, LATEST_DAYS, SOONEST_DAYS, SOWN};
use zymarch_core::stock::material::{FIGURE_LIMITS, LONGEST_TEXT};
use zymarch_core::stock::measure::{LARGEST_MEASURE_L, vessel};
use zymarch_formats::thumb::{LARGEST_PART, MOST_PARTS};

use crate::plan::suit::{HOURS_A_WEEK, WEEKS};
use crate::stock::site::ALTITUDE_M;
use crate::words::LONGEST_NAME;

/// Lowest and highest of what may be written in a form.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Limits {
    /// Of a lot's own figures, by their names.
    pub own: BTreeMap<&'static str, [f64; 2]>,
    /// Of an own material's figures, by the column of the usual value.
    pub material: BTreeMap<&'static str, [f64; 2]>,
    /// Of an own method's figures, by their names.
    pub method: BTreeMap<&'static str, [f64; 2]>,
    /// Of a month's figures, by their names.
    pub month: BTreeMap<&'static str, [f64; 2]>,
    /// Of a heap's sides, by their names.
    pub side: BTreeMap<&'static str, [f64; 2]>,
    /// Of how long a windrow is, cm.
    pub windrow_cm: [f64; 2],
    /// Of any amount, in the unit it is said in.
    pub amount: [f64; 2],
    /// Of what a measure holds, litres.
    pub measure_l: [f64; 2],
    /// Of a measure's sides, cm.
    pub measure_cm: [f64; 2],
    /// Of how many are counted into a measure.
    pub counted: [f64; 2],
    /// Of how full a measure is, as a share of level.
    pub heaped: [f64; 2],
    /// Of a weight on a scale, kg.
    pub weight_kg: [f64; 2],
    /// Of a sample with its dish, g.
    pub sample_g: [f64; 2],
    /// Of beans sown.
    pub beans: [f64; 2],
    /// Days after which bean plants are judged.
    pub bean_days: [f64; 2],
    /// From which volume on a heap keeps its heat well, litres.
    pub keeps_heat_l: f64,
    /// Of a share of a mix, per cent.
    pub share_pct: [f64; 2],
    /// Of one part of a rule of thumb.
    pub part: [f64; 2],
    /// Of how many parts a rule of thumb has.
    pub parts: [f64; 2],
    /// Of how high a site lies, m.
    pub altitude_m: [f64; 2],
    /// Of hours of work a week.
    pub hours_a_week: [f64; 2],
    /// Of weeks until it is ready.
    pub weeks: [f64; 2],
    /// What one step of an amount is, in the units a person thinks in.
    pub step: StepLimits,
    /// Letters of a name.
    pub name_letters: usize,
    /// Letters of a material's name, source or note.
    pub text_letters: usize,
}

/// What one step of an amount is, in the units a person thinks in.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StepLimits {
    /// Of what is counted in measures.
    pub measures: f64,
    /// Of what is weighed, where there is little.
    pub weight: f64,
    /// Of what is weighed, where there is much.
    pub weight_of_much: f64,
    /// From here on it is much, kg.
    pub much_kg: f64,
    /// Of what is poured.
    pub volume: f64,
}

/// What may be written where.
///
/// # Example
/// ```
/// let limits = zymarch_farm::limits::limits();
/// assert_eq!(limits.method["moisture_pct"], [20.0, 90.0]);
/// assert_eq!(limits.material["c_n"], [0.0, 2000.0]);
/// ```
#[must_use]
pub fn limits() -> Limits {
    let pair = |(low, high): (f64, f64)| [low, high];
    let up_to = |high: f64| [0.0, high];
    let named = |rows: &[(&'static str, (f64, f64))]| {
        rows.iter().map(|(name, limits)| (*name, pair(*limits))).collect()
    };
    let columns = (0.0, f64::from(MOST_COLUMNS));
    Limits {
        own: LIMITS
            .iter()
            .filter(|limit| limit.figure.is_of_a_lot())
            .map(|limit| (limit.figure.as_str(), [limit.low, limit.high]))
            .collect(),
        material: named(&FIGURE_LIMITS),
        method: named(&own::LIMITS),
        month: named(&MONTH_LIMITS),
        side: named(&[
            ("length_cm", SIDE_CM),
            ("width_cm", SIDE_CM),
            ("diameter_cm", SIDE_CM),
            ("height_cm", SIDE_CM),
            ("columns", columns),
        ]),
        windrow_cm: [SIDE_CM.0, LONGEST_CM],
        amount: up_to(LARGEST_AMOUNT),
        measure_l: up_to(LARGEST_MEASURE_L),
        measure_cm: up_to(vessel::LONGEST_CM),
        counted: up_to(vessel::MOST_COUNTED),
        heaped: pair(vessel::HEAPED),
        weight_kg: up_to(HEAVIEST_KG),
        sample_g: up_to(HEAVIEST_G),
        beans: [f64::from(SOWN.0), f64::from(SOWN.1)],
        bean_days: [SOONEST_DAYS as f64, LATEST_DAYS as f64],
        keeps_heat_l: SURE_HOT_VOLUME_L,
        share_pct: up_to(100.0),
        part: up_to(LARGEST_PART),
        parts: [1.0, MOST_PARTS as f64],
        altitude_m: pair(ALTITUDE_M),
        hours_a_week: pair(HOURS_A_WEEK),
        weeks: pair(WEEKS),
        step: StepLimits {
            measures: STEPS.measures,
            weight: STEPS.weight,
            weight_of_much: STEPS.weight_of_much,
            much_kg: STEPS.much_kg,
            volume: STEPS.volume,
        },
        name_letters: LONGEST_NAME,
        text_letters: LONGEST_TEXT,
    }
}
