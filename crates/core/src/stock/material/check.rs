//! Whether a row of figures can be true.

use super::{Degradability, Kind, Material, Spread};
use crate::base::quantity::Band;
use crate::base::words::closed_list;

/// Carbon per organic matter that plants, dung and scraps hold [-].
///
/// Organic matter is close to half carbon; the older rule of
/// (100 − ash)/1.8 gives 0.556, fat-rich scraps come near 0.60.
///
/// # Source
/// Gotaas 1956, Composting, WHO Monograph 31 (the 1.8 rule); range of the
/// compositions tabled in Rynk 1992, On-Farm Composting Handbook, Appendix A.
pub const CARBON_PER_ORGANIC: Band = Band::fixed(0.42, 0.60);

/// The same at crossed ends of a range, where rounding counts double.
const CARBON_PER_ORGANIC_AT_ENDS: Band = Band::fixed(0.40, 0.62);

/// One thing about a row that cannot be true, or hardly.
#[derive(Debug, Clone, Copy, PartialEq)]
#[non_exhaustive]
pub enum Implausible {
    /// The usual value lies outside its own range.
    Order {
        /// The column.
        figure: &'static str,
    },
    /// Nitrogen and C:N together give carbon that organic matter does not hold.
    Carbon {
        /// Carbon per organic matter.
        share: f64,
    },
    /// Solids and water do not fit into the stated loose volume.
    Density {
        /// The stated density.
        density_kg_l: f64,
    },
    /// More lignin than there is organic matter.
    Lignin,
    /// More phosphorus and potassium than there is ash.
    Minerals,
}

closed_list! {
    /// The same as a word.
    ImplausibleCode {
        /// The usual value outside its own range.
        Order = "order",
        /// Carbon that organic matter does not hold.
        Carbon = "carbon",
        /// No room for solids and water.
        Density = "density",
        /// More lignin than organic matter.
        Lignin = "lignin",
        /// More minerals than ash.
        Minerals = "minerals",
    }
}

impl Implausible {
    /// The word of this case.
    #[must_use]
    pub const fn code(&self) -> ImplausibleCode {
        match self {
            Self::Order { .. } => ImplausibleCode::Order,
            Self::Carbon { .. } => ImplausibleCode::Carbon,
            Self::Density { .. } => ImplausibleCode::Density,
            Self::Lignin => ImplausibleCode::Lignin,
            Self::Minerals => ImplausibleCode::Minerals,
        }
    }

    /// The column to look at first.
    #[must_use]
    pub const fn column(&self) -> &'static str {
        match self {
            Self::Order { figure } => figure,
            Self::Carbon { .. } => "c_n",
            Self::Density { .. } => "density_kg_l",
            Self::Lignin => "lignin_pct",
            Self::Minerals => "ash_pct",
        }
    }
}

/// What in a row of figures cannot be true; empty if nothing.
///
/// Inert rows keep their carbon out of every sum, so the carbon rule does not
/// bind them. Molasses and urine are liquids without air space.
#[must_use]
pub fn implausible(material: &Material) -> Vec<Implausible> {
    let mut found = Vec::new();
    for (figure, spread) in [
        ("moisture_pct", material.moisture),
        ("n_pct", material.nitrogen),
        ("c_n", material.c_n),
        ("density_kg_l", material.density_kg_l),
    ] {
        if !ordered(spread) {
            found.push(Implausible::Order { figure });
        }
    }
    if material.degradability != Degradability::Inert {
        carbon(material, &mut found);
    }
    if material.kind != Kind::Liquid && !has_air(material) {
        found.push(Implausible::Density { density_kg_l: material.density_kg_l.typical });
    }
    if material.lignin.is_some_and(|lignin| lignin.get() > material.ash.rest()) {
        found.push(Implausible::Lignin);
    }
    let minerals = material.phosphorus.map_or(0.0, |p| p.get()) + material.potassium.map_or(0.0, |k| k.get());
    if minerals > material.ash.get() {
        found.push(Implausible::Minerals);
    }
    found
}

fn ordered(spread: Spread) -> bool {
    spread.low <= spread.typical && spread.typical <= spread.high
}

fn carbon(material: &Material, found: &mut Vec<Implausible>) {
    let organic = material.ash.rest();
    let share = |nitrogen: f64, c_n: f64| nitrogen * c_n / organic;
    // Within a row the carbon hardly changes, so low nitrogen belongs with high C:N.
    let pairs = [
        (material.nitrogen.typical, material.c_n.typical, CARBON_PER_ORGANIC),
        (material.nitrogen.low, material.c_n.high, CARBON_PER_ORGANIC_AT_ENDS),
        (material.nitrogen.high, material.c_n.low, CARBON_PER_ORGANIC_AT_ENDS),
    ];
    let worst = pairs
        .into_iter()
        .map(|(nitrogen, c_n, allowed)| (share(nitrogen, c_n), allowed))
        .find(|(share, allowed)| !allowed.holds(*share));
    if let Some((share, _)) = worst {
        found.push(Implausible::Carbon { share });
    }
}

fn has_air(material: &Material) -> bool {
    let moisture = material.moisture.typical;
    let solids = 1.0 - moisture;
    let litres_per_kg = moisture + solids * (material.ash.rest() / 1.6 + material.ash.get() / 2.65);
    material.density_kg_l.typical * litres_per_kg < 1.0
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::stock::material::find;

    fn straw() -> Material {
        find("wheat-straw").expect("in the table").clone()
    }

    #[test]
    fn straw_of_ninety_percent_carbon_is_noticed() {
        let mut invented = straw();
        invented.nitrogen.typical = 0.009;
        invented.nitrogen.high = 0.010;
        let found = implausible(&invented);
        assert!(matches!(found[..], [Implausible::Carbon { share }] if share > 0.8), "{found:?}");
    }

    #[test]
    fn a_range_in_the_wrong_order_is_noticed() {
        let mut invented = straw();
        invented.moisture.low = 0.5;
        assert!(implausible(&invented).contains(&Implausible::Order { figure: "moisture_pct" }));
    }

    #[test]
    fn straw_as_heavy_as_stone_is_noticed() {
        let mut invented = straw();
        invented.density_kg_l = Spread { low: 2.0, typical: 2.0, high: 2.0 };
        assert!(implausible(&invented).contains(&Implausible::Density { density_kg_l: 2.0 }));
    }
}
