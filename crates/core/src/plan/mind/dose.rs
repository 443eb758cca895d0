//! What is good in small amounts only, and how small: `data/doses.csv`, a row a dose.
//!
//! A dose is said at the mix when it is passed, and caps a mix that is formulated.

use std::sync::LazyLock;

use crate::plan::method::Method;
use crate::stock::caution::SMALL_DOSES;
use crate::stock::material::{Kind, Material};

/// A small dose.
#[derive(Debug, Clone, PartialEq)]
pub struct Dose {
    /// Which.
    pub id: &'static str,
    /// Most that is good [-].
    pub most: f64,
    /// Of fresh mass; else of loose volume.
    pub of_mass: bool,
    /// Whether a formulated mix keeps to it unless a person says otherwise.
    pub is_cap: bool,
    /// Ids of materials, or a word for all that are so.
    materials: &'static str,
    /// The methods it is for; all if empty.
    methods: &'static str,
}

impl Dose {
    /// Whether its row names a material.
    #[must_use]
    pub fn names(&self, material: &str) -> bool {
        self.materials.split(';').any(|word| word == material)
    }
}

/// The table.
///
/// # Source
/// Gotaas 1956, Composting, WHO Monograph 31, and FAO 1987, Soils Bulletin 56: lime, ash, meals
/// and rock phosphate at some per cent of the heap; soil as a sprinkle between layers. Char up
/// to the upper end of common trials; a fifth of the volume for the rest is our judgement.
#[must_use]
pub fn doses() -> &'static [Dose] {
    &TABLE
}

static TABLE: LazyLock<Vec<Dose>> = LazyLock::new(|| {
    include_str!("../../../data/doses.csv")
        .lines()
        .skip(1)
        .map(|line| {
            let cells: Vec<&'static str> = line.split(',').collect();
            let [id, materials, most, of, methods, cap] = cells[..] else {
                panic!("{line}: six columns, checked by a test")
            };
            let most = most.parse::<f64>().expect("a number, checked by a test") / 100.0;
            Dose { id, most, of_mass: of == "mass", is_cap: cap == "yes", materials, methods }
        })
        .collect()
});

/// The dose of a material under a method: the first row that is for it; none of a material that may
/// be used freely, or that the method is made for.
///
/// # Example
/// ```
/// use zymarch_core::{plan::mind::dose_of, stock::material::find};
/// let most = |id| dose_of(find(id).expect("in the table"), None).map(|dose| dose.most);
/// assert_eq!((most("wood-ash"), most("wheat-straw")), (Some(0.03), None));
/// ```
#[must_use]
pub fn dose_of(material: &Material, method: Option<&Method>) -> Option<&'static Dose> {
    let is_small = material.cautions.iter().any(|caution| caution.code == SMALL_DOSES);
    if !is_small || method.is_some_and(|method| method.is_made_for(material)) {
        return None;
    }
    doses().iter().find(|dose| dose.is_for(material) && dose.is_in(method))
}

impl Dose {
    fn is_for(&self, material: &Material) -> bool {
        self.materials.split(';').any(|word| match word {
            "@mineral" => material.kind == Kind::Mineral,
            "@liquid" => material.kind == Kind::Liquid,
            "@meal" => material.nitrogen.typical >= 0.04 && material.moisture.typical < 0.2,
            "@any" => true,
            id => material.id == id,
        })
    }

    fn is_in(&self, method: Option<&Method>) -> bool {
        self.methods.is_empty()
            || method.is_some_and(|method| self.methods.split(';').any(|word| method.is_meant_by(word)))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::method;
    use crate::stock::material::{all, find};

    #[test]
    fn every_material_that_a_dose_names_is_in_the_table_and_is_for_small_doses() {
        for dose in doses() {
            assert!(dose.most > 0.0 && dose.most < 1.0, "{}", dose.id);
            for id in dose.materials.split(';').filter(|word| !word.starts_with('@')) {
                let row = find(id).unwrap_or_else(|| panic!("{}: {id}", dose.id));
                let is_small = row.cautions.iter().any(|caution| caution.code == SMALL_DOSES);
                assert!(is_small || row.must_not_go_in(), "{id}");
            }
        }
    }

    #[test]
    fn whatever_is_for_small_doses_has_one() {
        for row in all().iter().filter(|row| row.cautions.iter().any(|one| one.code == SMALL_DOSES)) {
            assert!(dose_of(row, None).is_some(), "{}", row.id);
        }
    }

    #[test]
    fn a_method_made_for_it_takes_more_and_a_still_heap_less() {
        let char = find("biochar").expect("in the table");
        assert!(dose_of(char, method::find("charged-char")).is_none());
        let dust = find("sawdust").expect("in the table");
        let most = |id| dose_of(dust, method::find(id)).map(|dose| dose.id);
        assert_eq!(most("static-tower"), Some("sawdust-in-still-heaps"));
    }
}
