//! How much of a material's carbon microbes reach within one heap.

use crate::stock::Figures;
use crate::stock::material::Particle;

/// Degradable fraction of volatile solids without any lignin [-].
///
/// # Source
/// Chandler J.A., Jewell W.J. et al. 1980, Predicting methane fermentation
/// biodegradability, Biotechnology and Bioengineering Symposium 10, regression
/// `B = 0.83 − 0.028·L` on acid-detergent lignin.
pub const CHANDLER_INTERCEPT: f64 = 0.83;

/// Loss of that fraction per percent of lignin in volatile solids. See [`CHANDLER_INTERCEPT`].
pub const CHANDLER_SLOPE: f64 = 0.028;

/// The least it is taken for: beyond about 28 % lignin the regression was not
/// fitted and would fall below zero.
const LEAST_DEGRADABLE: f64 = 0.05;

/// Share of an item's carbon that counts as available [-].
///
/// # Formula
/// ```text
/// share = B/0.83 · p      B = 0.83 − 0.028·L, held in 0.05..0.83
///                         L = 100 · lignin / (1 − ash)
/// ```
/// `lignin` and `ash` per dry matter [-], `L` lignin as % of volatile solids,
/// `p` the [`particle_factor`]. Nitrogen counts whole, so it has no share.
///
/// # Source
/// Chandler et al. 1980 for `B`; the particle factors are our judgement.
#[must_use]
pub fn available_share(figures: &Figures) -> f64 {
    let organic = figures.ash.value.rest();
    if organic <= 0.0 {
        return 0.0;
    }
    let lignin_percent = 100.0 * figures.lignin.value.get() / organic;
    let degradable =
        (CHANDLER_INTERCEPT - CHANDLER_SLOPE * lignin_percent).clamp(LEAST_DEGRADABLE, CHANDLER_INTERCEPT);
    degradable / CHANDLER_INTERCEPT * particle_factor(figures.particle, figures.woody)
}

/// Share of the degradable carbon that the surface lets microbes reach [-].
///
/// Fine 1.0, medium 0.9, coarse 0.8, coarse wood 0.5. A material of unknown
/// size gets no factor.
#[must_use]
pub fn particle_factor(particle: Option<Particle>, woody: bool) -> f64 {
    match particle {
        None | Some(Particle::Fine) => 1.0,
        Some(Particle::Medium) => 0.9,
        Some(Particle::Coarse) if woody => 0.5,
        Some(Particle::Coarse) => 0.8,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::stock::material::{all, find};
    use crate::stock::{Own, figures};

    fn share(id: &str, chopped: bool) -> f64 {
        let own = Own { chopped, ..Own::default() };
        available_share(&figures(find(id), &own).expect("in the table"))
    }

    #[test]
    fn wheat_straw_by_hand() {
        // L = 9 / 0.93 = 9.677 %; B = 0.83 − 0.271 = 0.5590; /0.83 = 0.6735; medium 0.9.
        assert!((share("wheat-straw", false) - 0.6062).abs() < 1e-4);
    }

    #[test]
    fn lignin_beyond_the_fitted_range_is_held_at_the_least() {
        // Softwood chips: L = 28 / 0.992 = 28.2; B = 0.0397, held at 0.05; coarse wood 0.5.
        assert!((share("wood-chips-softwood", false) - 0.05 / 0.83 * 0.5).abs() < 1e-9);
    }

    #[test]
    fn chopping_never_locks_carbon_away() {
        for material in all() {
            assert!(share(&material.id, true) >= share(&material.id, false), "{}", material.id);
        }
    }

    #[test]
    fn a_share_is_a_share_for_every_material() {
        for material in all() {
            assert!((0.0..=1.0).contains(&share(&material.id, false)), "{}", material.id);
        }
    }
}
