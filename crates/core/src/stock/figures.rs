//! The figures of what is on hand: measured first, then own, then the book.
//!
//! Book figures rarely fit a person's own
//! straw and dung, so each figure can be replaced, and each remembers where it
//! came from. Amounts are in [`measure`](super::measure).

pub use crate::base::origin::{Origin, Sourced};

use super::aging;
use super::material::{Degradability, Material, Particle};

/// Density of organic dry matter itself, without pores [kg/L].
///
/// # Source
/// Cellulose and lignin without pores lie at 1.5 to 1.6 (Agnew & Leonard 2003, The
/// physical properties of compost, Compost Science & Utilization 11); 2.65 is that
/// of quartz and most soil minerals.
pub const ORGANIC_DENSITY_KG_L: f64 = 1.6;

/// Density of ash and soil minerals, without pores [kg/L]. See [`ORGANIC_DENSITY_KG_L`].
pub const ASH_DENSITY_KG_L: f64 = 2.65;
use crate::base::fault::{Fault, FaultCode};
use crate::base::quantity::Fraction;

/// Figures that a person gives in place of the book's.
#[derive(Debug, Clone, Copy, PartialEq, Default, serde::Serialize, serde::Deserialize)]
#[serde(default)]
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
    /// What a heap makes of it, as a recipe may say; a record of stock does not.
    #[serde(skip)]
    pub nature: OwnNature,
    /// What dated tests on it gave; beats all else. Kept with the tests, not with these.
    #[serde(skip)]
    pub measured: Measured,
}

impl Own {
    /// Whether its nitrogen or its C:N is known, by a test or by the person.
    pub(crate) const fn is_analysed(&self) -> bool {
        self.nitrogen.is_some()
            || self.c_n.is_some()
            || self.measured.nitrogen.is_some()
            || self.measured.c_n.is_some()
    }
}

/// What a heap makes of a material, given in place of the book's.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct OwnNature {
    /// How well it holds air space open once wet: 0 collapses, 3 a stiff frame.
    pub structure: Option<u8>,
    /// The wettest it may be while it still holds air, share of fresh mass.
    pub wet_max: Option<Fraction>,
    /// Share of its carbon and nitrogen that decays within a heap's life.
    pub decays: Option<Fraction>,
    /// Days since it was dropped or gathered; see [`aging`](super::aging).
    pub age_days: Option<u16>,
}

/// Figures that tests on a lot gave; see [`field_test`](super::field_test).
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Measured {
    /// From drying or a squeeze: water, share of fresh mass.
    pub moisture: Option<Fraction>,
    /// That moisture was felt by hand, and is no better than its class.
    pub is_by_hand: bool,
    /// From a laboratory's sheet: total nitrogen, share of dry matter.
    pub nitrogen: Option<Fraction>,
    /// From the same: carbon to nitrogen, by mass.
    pub c_n: Option<f64>,
    /// From weighing one full measure: loose density [kg/L].
    pub density_kg_l: Option<f64>,
    /// From the bucket test: volume in the built heap, share of the loose volume.
    pub settle: Option<f64>,
    /// A bean test showed signs of weed-killer.
    pub carries_herbicide: bool,
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
    /// Share of its carbon and nitrogen that decays within a heap's life [-].
    pub decays: Sourced<f64>,
    /// The wettest it may be while it still holds air, share of fresh mass; none if not known.
    pub wet_max: Option<Sourced<Fraction>>,
    /// How well it holds air space open once wet, 0 to 3; none if not known.
    pub structure: Option<Sourced<u8>>,
    /// Particle size; none for an unknown material, which then gets no factor.
    pub particle: Option<Particle>,
    /// Wood, whose carbon is locked while it is coarse.
    pub woody: bool,
    /// Soft and wet enough to be worth spreading out to wilt or dry.
    pub wilts: bool,
    /// Not food for microbes: stays out of the C:N sums.
    pub inert: bool,
    /// Refused in every heap by a caution of the reference table.
    pub must_not_go_in: bool,
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
/// [`FaultCode::MissingFigure`] if there is neither a reference material nor an own figure.
///
/// # Example
/// Straw of the book holds 12 % water at 0.05 kg/L; rained on, at 56 %, the
/// same stalks weigh 0.05 · 0.88 / 0.44 = 0.10 kg/L.
/// ```
/// use zymarch_core::{stock::material, base::quantity::Fraction, stock::{figures, Own}};
/// let own = Own { moisture: Some(Fraction::new(0.56)?), ..Own::default() };
/// let wet = figures(material::find("wheat-straw"), &own)?;
/// assert!((wet.density_kg_l.value - 0.10).abs() < 1e-9);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub fn figures(material: Option<&Material>, own: &Own) -> Result<Figures, Fault> {
    let row = Row {
        material,
        origin: material.map_or(Origin::Book, |m| if m.is_own { Origin::Own } else { Origin::Book }),
    };
    let fraction = |value: f64| Fraction::new(value).unwrap_or(Fraction::ZERO);
    let measured = &own.measured;
    let moisture =
        row.pick("moisture_pct", measured.moisture, own.moisture, |m| Some(fraction(m.moisture.typical)))?;
    let particle = material.map(|m| m.particle);
    let nature = &own.nature;
    let kept = match (material, nature.age_days) {
        (Some(material), Some(days)) if !own.is_analysed() => {
            aging::nitrogen_kept(material, days).map(|kept| kept.typical)
        }
        _ => None,
    };
    let aged = |of: Sourced<f64>| kept.map_or(of, |_| Sourced { value: of.value, origin: Origin::Derived });
    let nitrogen = row.pick("n_pct", measured.nitrogen, own.nitrogen, |m| {
        Some(fraction(m.nitrogen.typical * kept.unwrap_or(1.0)))
    })?;
    let nitrogen = kept.map_or(nitrogen, |_| Sourced { origin: Origin::Derived, ..nitrogen });
    Ok(Figures {
        moisture,
        nitrogen,
        c_n: aged(row.pick("c_n", measured.c_n, own.c_n, |m| Some(m.c_n.typical / kept.unwrap_or(1.0)))?),
        ash: row.pick("ash_pct", None, own.ash, |m| Some(m.ash))?,
        lignin: row
            .pick("lignin_pct", None, own.lignin, |m| m.lignin)
            .unwrap_or_else(|_| assumed(Fraction::ZERO)),
        density_kg_l: density(&row, own, moisture)?,
        settle: row
            .pick("settle", measured.settle, own.settle, |m| Some(m.settle))
            .unwrap_or_else(|_| assumed(1.0)),
        decays: row
            .pick("decays_pct", None, nature.decays.map(Fraction::get), |m| Some(m.decays()))
            .unwrap_or_else(|_| assumed(1.0)),
        wet_max: row.pick("wet_max_pct", None, nature.wet_max, |m| m.wet_max).ok(),
        structure: row.pick("structure", None, nature.structure, |m| Some(m.structure)).ok(),
        particle: if own.chopped { particle.map(Particle::chopped) } else { particle },
        wilts: material.is_some_and(Material::wilts),
        woody: material.is_some_and(Material::is_woody),
        inert: material.is_some_and(|m| m.degradability == Degradability::Inert),
        must_not_go_in: measured.carries_herbicide || material.is_some_and(Material::must_not_go_in),
    })
}

fn density(row: &Row<'_>, own: &Own, moisture: Sourced<Fraction>) -> Result<Sourced<f64>, Fault> {
    let given = row.pick("density_kg_l", own.measured.density_kg_l, own.density_kg_l, |m| {
        Some(m.density_kg_l.typical)
    })?;
    let is_weighed = own.measured.density_kg_l.is_some() || own.density_kg_l.is_some();
    let is_other_moisture = own.measured.moisture.is_some() || own.moisture.is_some();
    match row.material {
        Some(material) if !is_weighed && is_other_moisture => {
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

/// A material's row and what its figures are called.
struct Row<'a> {
    material: Option<&'a Material>,
    origin: Origin,
}

impl Row<'_> {
    /// The best figure there is: a test's, the person's own, else the row's.
    fn pick<T>(
        &self,
        field: &'static str,
        measured: Option<T>,
        own: Option<T>,
        of_row: impl FnOnce(&Material) -> Option<T>,
    ) -> Result<Sourced<T>, Fault> {
        if let Some(value) = measured {
            return Ok(Sourced { value, origin: Origin::Measured });
        }
        if let Some(value) = own {
            return Ok(Sourced { value, origin: Origin::Own });
        }
        let value =
            self.material.and_then(of_row).ok_or_else(|| Fault::of(field, FaultCode::MissingFigure))?;
        Ok(Sourced { value, origin: self.origin })
    }
}

fn assumed<T>(value: T) -> Sourced<T> {
    Sourced { value, origin: Origin::Assumed }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::stock::material::{all, find};

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
    fn a_test_beats_an_own_figure() {
        let own = Own {
            moisture: Fraction::new(0.6).ok(),
            measured: Measured { moisture: Fraction::new(0.66).ok(), ..Measured::default() },
            ..Own::default()
        };
        let got = figures(find("cattle-manure-fresh"), &own).expect("in the table");
        assert_eq!((got.moisture.value.get(), got.moisture.origin), (0.66, Origin::Measured));
        assert_eq!(got.density_kg_l.origin, Origin::Derived);
    }

    #[test]
    fn a_bean_test_with_signs_refuses_the_lot() {
        let own =
            Own { measured: Measured { carries_herbicide: true, ..Measured::default() }, ..Own::default() };
        assert!(figures(find("cattle-manure-fresh"), &own).expect("in the table").must_not_go_in);
    }

    #[test]
    fn the_figures_of_an_own_material_are_the_persons_own() {
        let mine = Material { is_own: true, ..find("wheat-straw").expect("in the table").clone() };
        let got = figures(Some(&mine), &Own::default()).expect("has all");
        assert_eq!([got.moisture.origin, got.density_kg_l.origin], [Origin::Own; 2]);
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
        let lacking = figures(None, &own).expect_err("no nitrogen");
        assert_eq!((lacking.path.to_string(), lacking.code), ("n_pct".into(), FaultCode::MissingFigure));
    }

    #[test]
    fn dung_that_has_lain_has_lost_nitrogen_unless_it_was_analysed() {
        let aged = |nitrogen: Option<f64>, days| {
            let nature = OwnNature { age_days: Some(days), ..OwnNature::default() };
            let own =
                Own { nitrogen: nitrogen.and_then(|n| Fraction::new(n).ok()), nature, ..Own::default() };
            figures(find("sheep-manure"), &own).expect("in the table")
        };
        // 2.6 % less a fifth in a month; its carbon stays, so 16 becomes 20.
        let month = aged(None, 30);
        assert!((month.nitrogen.value.get() - 0.026 * 0.8).abs() < 1e-12);
        assert!((month.c_n.value - 20.0).abs() < 1e-9);
        assert_eq!((month.nitrogen.origin, month.c_n.origin), (Origin::Derived, Origin::Derived));
        assert_eq!(aged(None, 0).nitrogen.origin, Origin::Book);
        assert_eq!(
            aged(Some(0.03), 30).nitrogen,
            Sourced { value: Fraction::new(0.03).expect("a share"), origin: Origin::Own }
        );
    }

    #[test]
    fn what_a_recipe_says_of_structure_goes_before_the_book_and_unknown_stays_unknown() {
        let nature =
            OwnNature { structure: Some(3), decays: Fraction::new(0.2).ok(), ..OwnNature::default() };
        let own = Own { nature, ..Own::default() };
        let got = figures(find("grass-clippings"), &own).expect("in the table");
        assert_eq!(got.structure.map(|class| (class.value, class.origin)), Some((3, Origin::Own)));
        assert!((got.decays.value - 0.2).abs() < 1e-12);
        assert_eq!(
            figures(find("grass-clippings"), &Own::default())
                .expect("in the table")
                .structure
                .map(|class| class.value),
            Some(0)
        );
    }

    #[test]
    fn ash_and_lime_are_inert_and_chips_are_woody() {
        let of = |id| figures(find(id), &Own::default()).expect("in the table");
        assert!(of("wood-ash").inert && of("lime").inert && of("garden-soil").inert);
        assert!(of("wood-chips-hardwood").woody && !of("wheat-straw").woody);
    }
}
