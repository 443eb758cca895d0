//! Kinds of things that go in a heap, with their reference figures.
//!
//! The table is a data file, `data/materials.csv`, compiled in and checked by
//! tests: a new row adds a material. Its figures are book values with ranges;
//! whatever a person measures on their own stock beats them (see
//! [`stock`](crate::stock)). Nothing here judges a mix.

mod check;
mod name;
mod table;

use std::collections::HashMap;
use std::sync::LazyLock;

pub use check::{CARBON_PER_ORGANIC, Implausible, ImplausibleCode, implausible};
pub(crate) use name::{folded, in_book, key, name_key, names_of, own_names, words};
pub use table::{COLUMNS, FIGURE_LIMITS, LONGEST_TEXT, ReadRow, cells, one, read, rows, write};

use crate::base::quantity::Fraction;
use crate::base::words::closed_list;
use crate::stock::caution::{Caution, CautionSeverity};

/// A figure as the literature gives it: usual value and the range met.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spread {
    /// The lower end usually met.
    pub low: f64,
    /// The usual value.
    pub typical: f64,
    /// The higher end usually met.
    pub high: f64,
}

closed_list! {
    /// How people sort a material when building. A label: the sums use figures.
    Kind {
        /// Dry, carbon-rich.
        Brown = "brown",
        /// Fresh, nitrogen-rich.
        Green = "green",
        /// Dung, with or without bedding.
        Manure = "manure",
        /// Scraps from the kitchen.
        Household = "household",
        /// Ash, lime, rock, char.
        Mineral = "mineral",
        /// Coarse and stiff; holds air.
        Bulking = "bulking",
        /// Living or finished matter that seeds a heap.
        Starter = "starter",
        /// Poured rather than forked.
        Liquid = "liquid",
    }
}

closed_list! {
    /// Where a material comes from.
    Group {
        /// Straw, stalks, haulm.
        CropResidue = "crop residue",
        /// Of trees and shrubs.
        Leaves = "leaves",
        /// Clippings, hay, weeds.
        GrassAndWeeds = "grass & weeds",
        /// Wood and bark.
        Woody = "woody",
        /// Card and paper.
        Paper = "paper",
        /// Dung.
        AnimalManure = "animal manure",
        /// Dung with litter.
        Bedding = "bedding",
        /// Scraps.
        Kitchen = "kitchen",
        /// Husks, pulps, cakes.
        AgroProcessing = "agro-processing",
        /// From water.
        Aquatic = "aquatic",
        /// Meals, wool, feathers.
        AnimalByProduct = "animal by-product",
        /// Ash, lime, rock, char.
        MineralAmendment = "mineral amendment",
        /// Cultures and finished composts.
        Microbial = "microbial",
        /// Urine, drench, syrup.
        Liquid = "liquid",
    }
}

closed_list! {
    /// How fast microbes eat it.
    Degradability {
        /// Weeks.
        Fast = "fast",
        /// One to three months.
        Medium = "medium",
        /// A season or more.
        Slow = "slow",
        /// Outlasts the heap.
        VerySlow = "very-slow",
        /// Not food for microbes: stays out of the C:N sums.
        Inert = "inert",
    }
}

closed_list! {
    /// Particle size, as it usually arrives.
    Particle {
        /// Under about 1 cm.
        Fine = "fine",
        /// 1 to 10 cm, or thin and flexible.
        Medium = "medium",
        /// Longer or thicker.
        Coarse = "coarse",
    }
}

impl Particle {
    /// One class finer, as chopping makes it.
    #[must_use]
    pub const fn chopped(self) -> Self {
        match self {
            Self::Fine | Self::Medium => Self::Fine,
            Self::Coarse => Self::Medium,
        }
    }
}

/// One row of the reference table.
#[derive(Debug, Clone, PartialEq)]
pub struct Material {
    /// Stable key, lower case with hyphens.
    pub id: String,
    /// Plain generic name in English.
    pub name: String,
    /// The same in Spanish.
    pub name_es: String,
    /// What else people call it, in English of several countries.
    pub names: Vec<String>,
    /// The same in Spanish.
    pub names_es: Vec<String>,
    /// How people sort it.
    pub kind: Kind,
    /// Where it comes from.
    pub group: Group,
    /// Water, share of fresh mass.
    pub moisture: Spread,
    /// Total nitrogen, share of dry matter.
    pub nitrogen: Spread,
    /// Carbon to nitrogen, by mass.
    pub c_n: Spread,
    /// Left after burning, share of dry matter.
    pub ash: Fraction,
    /// Acid-detergent lignin, share of dry matter.
    pub lignin: Option<Fraction>,
    /// Loose density, as forked into a barrow [kg/L].
    pub density_kg_l: Spread,
    /// Volume in a built, wetted, loaded heap, share of the loose volume.
    pub settle: f64,
    /// Total phosphorus, share of dry matter.
    pub phosphorus: Option<Fraction>,
    /// Total potassium, share of dry matter.
    pub potassium: Option<Fraction>,
    /// How fast it goes.
    pub degradability: Degradability,
    /// Size, as it usually arrives.
    pub particle: Particle,
    /// How well it holds air space open once wet: 0 collapses, 3 a stiff frame.
    pub structure: u8,
    /// Share of its carbon and nitrogen that decays within a heap's life; see [`Material::decays`].
    pub decays: Option<Fraction>,
    /// The wettest it may be while it still holds air, share of fresh mass; none if not known.
    pub wet_max: Option<Fraction>,
    /// Days before it spoils or loses much nitrogen; none if it keeps.
    pub keeps_days: Option<u16>,
    /// What to mind with it.
    pub cautions: Vec<Caution>,
    /// The literature its nitrogen, C:N and moisture rest on.
    pub source: String,
    /// What a person should know before using it.
    pub note: String,
    /// A person's own row, not one of the reference table.
    pub is_own: bool,
}

impl Material {
    /// Whether it is refused in every heap.
    #[must_use]
    pub fn must_not_go_in(&self) -> bool {
        self.cautions.iter().any(|caution| caution.severity == CautionSeverity::Prohibit)
    }

    /// Share of its carbon and nitrogen that decays within a heap's life [-].
    ///
    /// Where a row says nothing, all of it does; of wood two fifths as dust, a fifth as
    /// shavings and a tenth as chips.
    ///
    /// # Source
    /// Allison 1965, Decomposition of wood and bark sawdusts in soil (USDA Technical
    /// Bulletin 1332): hardwood dust loses about 40 % of its carbon in a season, softwood
    /// about 15 %; coarser pieces less, our judgement by their surface.
    #[must_use]
    pub fn decays(&self) -> f64 {
        let of_wood = match self.particle {
            Particle::Fine => 0.4,
            Particle::Medium => 0.2,
            Particle::Coarse => 0.1,
        };
        self.decays.map_or(if self.is_woody() { of_wood } else { 1.0 }, Fraction::get)
    }

    /// Whether it is spread out to wilt or dry: plants and dung, not scraps, which draw flies.
    #[must_use]
    pub fn wilts(&self) -> bool {
        matches!(self.kind, Kind::Green | Kind::Brown | Kind::Bulking | Kind::Manure)
            && !matches!(self.group, Group::Kitchen | Group::AnimalByProduct)
    }

    /// Wood, whose carbon is locked while it is coarse.
    #[must_use]
    pub fn is_woody(&self) -> bool {
        self.group == Group::Woody
    }
}

/// The reference table, in the order of the data file.
///
/// # Example
/// ```
/// use zymarch_core::stock::material;
/// let straw = material::find("wheat-straw").expect("in the table");
/// assert_eq!(straw.c_n.typical, 92.0);
/// assert!(material::all().len() > 120);
/// ```
#[must_use]
pub fn all() -> &'static [Material] {
    &TABLE.rows
}

/// What is commonly to hand near a farm, to be fetched when something is
/// missing: the ids of `data/common.csv`.
pub fn common() -> impl Iterator<Item = &'static Material> {
    include_str!("../../data/common.csv").lines().skip(1).filter_map(find)
}

/// The material of an id.
#[must_use]
pub fn find(id: &str) -> Option<&'static Material> {
    TABLE.by_id.get(id).map(|&row| &TABLE.rows[row])
}

struct Table {
    rows: Vec<Material>,
    by_id: HashMap<String, usize>,
}

static TABLE: LazyLock<Table> = LazyLock::new(|| {
    let rows = read(include_str!("../../data/materials.csv"))
        .expect("the shipped table is read by a test of this module");
    let by_id = rows.iter().enumerate().map(|(row, material)| (material.id.clone(), row)).collect();
    Table { rows, by_id }
});

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_shipped_table_reads_without_a_bad_row() {
        let rows = read(include_str!("../../data/materials.csv")).unwrap_or_else(|bad| panic!("{bad:#?}"));
        assert_eq!(rows.len(), 168);
    }

    #[test]
    fn every_row_is_plausible_or_a_known_exception() {
        // Urea nitrogen, char and minerals break the carbon rule on purpose.
        const EXCEPTIONS: &[&str] = &["human-urine", "livestock-urine", "urea"];
        for material in all() {
            let found = implausible(material);
            assert!(
                found.is_empty() || EXCEPTIONS.contains(&material.id.as_str()),
                "{}: {found:?}",
                material.id
            );
        }
    }

    #[test]
    fn what_is_common_is_in_the_table_and_may_go_in() {
        let lines = include_str!("../../data/common.csv").lines().count();
        assert_eq!(common().count(), lines - 1);
        assert!(common().all(|row| !row.must_not_go_in()));
    }

    #[test]
    fn ids_and_names_are_unique() {
        for (index, one) in all().iter().enumerate() {
            for other in &all()[index + 1..] {
                assert_ne!(one.id, other.id);
                assert_ne!(one.name, other.name, "{} and {}", one.id, other.id);
            }
        }
    }

    #[test]
    fn every_row_has_a_source_and_an_estimate_says_how_it_was_made() {
        for row in all() {
            assert!(!row.source.is_empty(), "{}", row.id);
            let is_estimate = row.source.starts_with("estimate");
            assert!(!is_estimate || row.note.contains("Estimate: "), "{}", row.id);
        }
    }

    #[test]
    fn wood_decays_in_part_and_all_else_whole() {
        for row in all() {
            assert_eq!(row.decays() < 1.0, row.is_woody(), "{}", row.id);
            assert!(row.wet_max.is_some(), "{}", row.id);
        }
        let softer = |id: &str| find(id).expect("in the table").decays();
        assert!(softer("sawdust") > softer("sawdust-softwood"));
        assert!(softer("wood-chips-hardwood") > softer("wood-chips-softwood"));
    }

    #[test]
    fn manures_carry_the_raw_manure_caution() {
        for material in all().iter().filter(|m| m.kind == Kind::Manure) {
            let warned = material.cautions.iter().any(|caution| caution.code == "pathogens-raw-manure");
            assert!(warned || material.id == "silkworm-litter", "{}", material.id);
        }
    }

    #[test]
    fn every_caution_on_the_list_is_in_use() {
        for caution in crate::stock::caution::all() {
            assert!(
                all().iter().any(|m| m.cautions.contains(&caution)),
                "{} is used by no material",
                caution.code
            );
        }
    }

    #[test]
    fn chopping_moves_one_class_finer_and_stops_at_fine() {
        assert_eq!(Particle::Coarse.chopped(), Particle::Medium);
        assert_eq!(Particle::Medium.chopped(), Particle::Fine);
        assert_eq!(Particle::Fine.chopped(), Particle::Fine);
    }
}
