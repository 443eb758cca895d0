//! Harvest: what a heap should give, what a site really gets, and what is left on the screen.
//!
//! What a heap should give comes from its state now. What a site's own heaps gave against that is its own
//! expectation, and told as such: no farm digs, screens and measures like the book.
//!
//! # Source
//! Half the volume and 40 to 60 % of the dry matter left, rejects of 5 to 25 % through 1 to 2.5 cm: Rynk 1992
//! (NRAES-54).

use crate::base::quantity::Fraction;
use crate::stock::Own;

/// The material that rejects of the screen are, in the book.
pub const REJECTS: &str = "compost-rejects";
/// Meshes that are usual [mm]: for a nursery, for beds, for a field.
pub const MESHES_MM: [f64; 3] = [10.0, 15.0, 25.0];
/// The finest and the coarsest mesh [mm].
pub const MESH_MM: [f64; 2] = [2.0, 100.0];
/// Rejects that are usual, share of what was screened [-].
pub const USUAL_REJECTS: [f64; 2] = [0.05, 0.25];
/// Loose compost out of a heap takes more room than it did in it [-].
pub const LOOSENED: f64 = 1.15;

/// What a site got of what was expected.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OwnYield {
    /// Got, share of what was expected [-]: of all heaps together.
    pub share: f64,
    /// The least and the most of any of them [-].
    pub range: [f64; 2],
    /// How many heaps it rests on.
    pub heaps: usize,
}

/// What a site got of what was expected, from heaps that were harvested whole: got and expected [L] of each.
///
/// # Example
/// ```
/// use zymarch_core::finish::harvest::own_yield;
/// let own = own_yield(&[(450.0, 500.0), (330.0, 300.0)]).expect("two heaps");
/// assert_eq!((own.share, own.heaps), (780.0 / 800.0, 2));
/// assert_eq!(own_yield(&[(450.0, 0.0)]), None);
/// ```
#[must_use]
pub fn own_yield(heaps: &[(f64, f64)]) -> Option<OwnYield> {
    let of: Vec<(f64, f64)> = heaps.iter().copied().filter(|(_, expected)| *expected > 0.0).collect();
    let (got, expected) = of.iter().fold((0.0, 0.0), |sum, one| (sum.0 + one.0, sum.1 + one.1));
    let shares = || of.iter().map(|(got, expected)| got / expected);
    (!of.is_empty()).then(|| OwnYield {
        share: got / expected,
        range: [shares().fold(f64::INFINITY, f64::min), shares().fold(0.0, f64::max)],
        heaps: of.len(),
    })
}

/// The figures of rejects that are known from the compost they were screened out of: as moist as that. All else
/// is the book's.
#[must_use]
pub fn rejects_own(moisture: Fraction) -> Own {
    Own { moisture: Some(moisture), ..Own::default() }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::stock::{figures, material};

    #[test]
    fn rejects_are_coarse_and_woody_and_as_moist_as_the_compost() {
        let row = material::find(REJECTS).expect("is in the book");
        let own = rejects_own(Fraction::new(0.38).expect("is a share"));
        let figures = figures(Some(row), &own).expect("are sound");
        assert_eq!(figures.moisture.value.get(), 0.38);
        assert!(figures.structure.is_some_and(|of| of.value >= 2) && figures.woody);
        let compost = material::find("mature-compost").expect("is in the book");
        assert!(
            figures.c_n.value > compost.c_n.typical
                && figures.density_kg_l.value < compost.density_kg_l.typical
        );
    }
}
