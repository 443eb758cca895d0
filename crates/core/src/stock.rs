//! The figures of what is on hand: measured first, then own, then the book.
//!
//! A lot is an amount of a material. Book figures rarely fit a person's own
//! straw and dung, so each figure can be replaced, and each remembers where it
//! came from. Amounts are in [`measure`](crate::measure); what a mix of lots
//! gives is in [`mix`](crate::mix).

use crate::material::{Degradability, Material, Particle};
use crate::quantity::Fraction;

/// Where a figure came from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Origin {
    /// From a dated test on this lot.
    Measured,
    /// Given by the person.
    Own,
    /// From the reference table.
    Book,
    /// Reckoned from another figure that is the person's own.
    Derived,
    /// Not known; the plainest value was taken.
    Assumed,
}

impl Origin {
    /// The word used in open formats.
    #[must_use]
    pub const fn as_str(self) -> &'static str {
        match self {
            Self::Measured => "measured",
            Self::Own => "own",
            Self::Book => "book",
            Self::Derived => "derived",
            Self::Assumed => "assumed",
        }
    }
}

/// A figure and where it came from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sourced<T> {
    /// The figure.
    pub value: T,
    /// Where it came from.
    pub origin: Origin,
}

/// Figures that a person gives in place of the book's.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Own {
    /// Water, share of fresh mass.
    pub moisture: Option<Fraction>,
    /// Total nitrogen, share of dry matter.
    pub nitrogen: Option<Fraction>,
    /// Carbon to nitrogen, by mass.
    pub c_n: Option<f64>,
    /// Ash, share of dry matter.
    pub ash: Option<Fraction>,
    /// Acid-detergent lignin, share of dry matter.
    pub lignin: Option<Fraction>,
    /// Loose density [kg/L].
    pub density_kg_l: Option<f64>,
    /// Volume in the built heap, share of the loose volume.
    pub settle: Option<f64>,
    /// Chopped one particle class finer than it usually arrives.
    pub chopped: bool,
}

/// The figures a sum uses for one lot.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Figures {
    /// Water, share of fresh mass.
    pub moisture: Sourced<Fraction>,
    /// Total nitrogen, share of dry matter.
    pub nitrogen: Sourced<Fraction>,
    /// Carbon to nitrogen, by mass.
    pub c_n: Sourced<f64>,
    /// Ash, share of dry matter.
    pub ash: Sourced<Fraction>,
    /// Acid-detergent lignin, share of dry matter.
    pub lignin: Sourced<Fraction>,
    /// Loose density [kg/L].
    pub density_kg_l: Sourced<f64>,
    /// Volume in the built heap, share of the loose volume.
    pub settle: Sourced<f64>,
    /// Particle size; none for an unknown material, which then gets no factor.
    pub particle: Option<Particle>,
    /// Wood, whose carbon is locked while it is coarse.
    pub woody: bool,
    /// Not food for microbes: stays out of the C:N sums.
    pub inert: bool,
    /// Refused in every heap by a caution of the reference table.
    pub must_not_go_in: bool,
}

/// Refused: a material that is not in the table, without the figure named.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("this material is not in the reference table, so {field} must be given")]
pub struct MissingFigure {
    /// The figure, as the open formats name it.
    pub field: &'static str,
}

/// The best figures known for a lot: its own, else the book's.
///
/// With a new moisture and no new density the dry bulk density is kept,
/// `ρ₂ = ρ₁·(1 − m₁)/(1 − m₂)`: the same stalks stand in the barrow, holding
/// more or less water. That holds for stiff material; soft leaves and dung
/// settle when wet, so a weighed measure is better.
///
/// Lignin of an unknown material counts as none and its settle as 1, both
/// marked [`Origin::Assumed`].
///
/// # Errors
/// [`MissingFigure`] if there is neither a reference material nor an own figure.
///
/// # Example
/// Straw of the book holds 12 % water at 0.05 kg/L; rained on, at 56 %, the
/// same stalks weigh 0.05 · 0.88 / 0.44 = 0.10 kg/L.
/// ```
/// use zymarch_core::{material, quantity::Fraction, stock::{figures, Own}};
/// let own = Own { moisture: Some(Fraction::new(0.56)?), ..Own::default() };
/// let wet = figures(material::find("wheat-straw"), &own)?;
/// assert!((wet.density_kg_l.value - 0.10).abs() < 1e-9);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub fn figures(material: Option<&Material>, own: &Own) -> Result<Figures, MissingFigure> {
    let fraction = |value: f64| Fraction::new(value).unwrap_or(Fraction::ZERO);
    let moisture = pick(own.moisture, material.map(|m| fraction(m.moisture.typical)), "moisture_pct")?;
    let particle = material.map(|m| m.particle);
    Ok(Figures {
        moisture,
        nitrogen: pick(own.nitrogen, material.map(|m| fraction(m.nitrogen.typical)), "n_pct")?,
        c_n: pick(own.c_n, material.map(|m| m.c_n.typical), "c_n")?,
        ash: pick(own.ash, material.map(|m| m.ash), "ash_pct")?,
        lignin: pick(own.lignin, material.and_then(|m| m.lignin), "lignin_pct")
            .unwrap_or_else(|_| assumed(Fraction::ZERO)),
        density_kg_l: density(material, own, moisture)?,
        settle: pick(own.settle, material.map(|m| m.settle), "settle").unwrap_or_else(|_| assumed(1.0)),
        particle: if own.chopped { particle.map(Particle::chopped) } else { particle },
        woody: material.is_some_and(Material::is_woody),
        inert: material.is_some_and(|m| m.degradability == Degradability::Inert),
        must_not_go_in: material.is_some_and(Material::must_not_go_in),
    })
}

fn density(
    material: Option<&Material>,
    own: &Own,
    moisture: Sourced<Fraction>,
) -> Result<Sourced<f64>, MissingFigure> {
    let book = material.map(|m| m.density_kg_l.typical);
    let given = pick(own.density_kg_l, book, "density_kg_l")?;
    match material {
        Some(material) if given.origin == Origin::Book && moisture.origin != Origin::Book => {
            let book_solids = 1.0 - material.moisture.typical;
            // All water and no solids leaves nothing to scale by; the book value stands.
            let solids = moisture.value.rest();
            if solids <= 0.0 {
                return Ok(given);
            }
            Ok(Sourced { value: given.value * book_solids / solids, origin: Origin::Derived })
        }
        _ => Ok(given),
    }
}

fn pick<T>(own: Option<T>, book: Option<T>, field: &'static str) -> Result<Sourced<T>, MissingFigure> {
    match (own, book) {
        (Some(value), _) => Ok(Sourced { value, origin: Origin::Own }),
        (None, Some(value)) => Ok(Sourced { value, origin: Origin::Book }),
        (None, None) => Err(MissingFigure { field }),
    }
}

fn assumed<T>(value: T) -> Sourced<T> {
    Sourced { value, origin: Origin::Assumed }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::material::{all, find};

    #[test]
    fn every_material_of_the_table_gives_figures() {
        for material in all() {
            assert!(figures(Some(material), &Own::default()).is_ok(), "{}", material.id);
        }
    }

    #[test]
    fn an_own_figure_beats_the_book_and_says_so() {
        let own = Own { c_n: Some(80.0), ..Own::default() };
        let got = figures(find("wheat-straw"), &own).expect("in the table");
        assert_eq!(got.c_n, Sourced { value: 80.0, origin: Origin::Own });
        assert_eq!(got.nitrogen.origin, Origin::Book);
    }

    #[test]
    fn a_weighed_density_is_not_scaled_by_moisture() {
        let own = Own { moisture: Fraction::new(0.6).ok(), density_kg_l: Some(0.2), ..Own::default() };
        let got = figures(find("wheat-straw"), &own).expect("in the table");
        assert_eq!(got.density_kg_l, Sourced { value: 0.2, origin: Origin::Own });
    }

    #[test]
    fn an_unknown_material_names_the_figure_it_lacks() {
        let own = Own { moisture: Fraction::new(0.6).ok(), ..Own::default() };
        assert_eq!(figures(None, &own), Err(MissingFigure { field: "n_pct" }));
    }

    #[test]
    fn ash_and_lime_are_inert_and_chips_are_woody() {
        let of = |id| figures(find(id), &Own::default()).expect("in the table");
        assert!(of("wood-ash").inert && of("lime").inert && of("garden-soil").inert);
        assert!(of("wood-chips-hardwood").woody && !of("wheat-straw").woody);
    }
}
