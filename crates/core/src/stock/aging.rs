//! What stored dung loses: nitrogen, by the day.
//!
//! Fresh dung and litter give off ammonia and let urine drain from the day they fall. What
//! their days are is written with a lot; a nitrogen that was measured is taken as it is.

use super::material::{Kind, Material, Spread};

/// Share of its nitrogen that dung in an open pile has lost in the end [-]: usual, and the
/// range from well covered to wet and turned.
const LOST_IN_THE_END: Spread = Spread { low: 0.15, typical: 0.40, high: 0.60 };

/// Days in which half of that goes.
const HALF_LOST_DAYS: f64 = 30.0;

/// Share of its nitrogen that is left after so many days; none of a material that does not lose any.
///
/// # Formula
/// ```text
/// kept = 1 − L·(1 − 2^(−t/30))
/// ```
/// `t` days [d], `L` what is lost in the end [-]: 0.40, from 0.15 under a cover to 0.60 in
/// the rain. Its carbon stays as it is within the weeks this is good for.
///
/// # Source
/// Rufino et al. 2006, Nitrogen cycling efficiencies through resource-poor African crop–livestock
/// systems (Agriculture, Ecosystems & Environment 112), and Rufino et al. 2007 (Livestock Science
/// 112): losses of stored manure of 20 to 60 % in some months. The half-time is our judgement.
///
/// # Example
/// A month old, dung has lost half of 40 %: 80 % is left.
/// ```
/// use zymarch_core::stock::{aging::nitrogen_kept, material};
/// let dung = material::find("cattle-manure-fresh").expect("in the table");
/// let kept = nitrogen_kept(dung, 30).expect("dung loses");
/// assert!((kept.typical - 0.80).abs() < 1e-9 && kept.low < 0.75 && kept.high > 0.9);
/// assert!(nitrogen_kept(material::find("wheat-straw").expect("in the table"), 30).is_none());
/// ```
#[must_use]
pub fn nitrogen_kept(material: &Material, days: u16) -> Option<Spread> {
    // Aged manure has lost it already; its row says so.
    if material.kind != Kind::Manure || material.keeps_days.is_none() || days == 0 {
        return None;
    }
    let gone = 1.0 - (-f64::from(days) / HALF_LOST_DAYS).exp2();
    let kept = |lost: f64| 1.0 - lost * gone;
    Some(Spread {
        low: kept(LOST_IN_THE_END.high),
        typical: kept(LOST_IN_THE_END.typical),
        high: kept(LOST_IN_THE_END.low),
    })
}
