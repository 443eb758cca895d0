//! What must not go in, and what must be minded, where it is decided.
//!
//! A mix, and the way of composting chosen for it, call up the cautions of
//! their materials: what goes into no heap, what the method does not deal
//! with, doses that are too large, and things that do not go together.

use crate::caution::{Caution, CautionSeverity, SMALL_DOSES, Stance};
use crate::material::{Degradability, Group, Kind, Material};
use crate::method::Method;
use crate::mix::Item;
use crate::words::closed_list;

closed_list! {
    /// Why a caution speaks up about a mix.
    Reason {
        /// It goes into no heap at all.
        Never = "never",
        /// The method does not deal with it.
        Method = "method",
        /// There is more of it than is good.
        Share = "share",
        /// What lies beside it.
        Company = "company",
    }
}

/// A caution that a mix, or the method chosen for it, calls up.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Note {
    /// Which.
    pub caution: Caution,
    /// The item it is about, by its place in the mix.
    pub item: usize,
    /// What becomes of it.
    pub stance: Stance,
    /// Why.
    pub reason: Reason,
    /// Of a share: what it is and what is good at most [-].
    pub share: Option<Share>,
}

/// A share that is too large.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Share {
    /// What it is [-].
    pub is: f64,
    /// What is good at most [-].
    pub most: f64,
    /// Of fresh mass; else of loose volume.
    pub of_mass: bool,
}

/// Above this share of the loose volume something is a main material [-].
/// Our judgement; the literature says "in quantity".
pub const MAIN_SHARE: f64 = 0.20;

/// Most of a mineral, a meal or a drench, of fresh mass [-].
///
/// # Source
/// Gotaas 1956, Composting, WHO Monograph 31, and FAO 1987, Soils Bulletin 56:
/// lime, ash, meals and rock phosphate at some per cent of the heap.
const DOSE_OF_MASS: f64 = 0.05;

/// Most of a char, of loose volume [-]: the upper end of common trials.
const DOSE_OF_CHAR: f64 = 0.15;

/// Below this C:N a mix lets ammonia go [-]: the lower edge of the usual aim.
const AMMONIA_BELOW_C_N: f64 = 25.0;

const DRIVES_OFF_AMMONIA: &str = "high-ph-drives-off-ammonia";

/// What the cautions say of a mix, and of the method chosen for it, gravest first.
///
/// `parts` are the items with their materials, in the order of the mix; an
/// unknown material carries no caution. Items without an amount say nothing.
#[must_use]
pub fn of_mix(parts: &[(Option<&Material>, &Item)], c_n: f64, method: Option<&Method>) -> Vec<Note> {
    let mass: f64 = parts.iter().map(|(_, item)| item.wet_mass_kg).sum();
    let volume: f64 = parts.iter().map(|(_, item)| item.volume_l()).sum();
    let gives_ammonia =
        parts.iter().any(|(material, item)| item.wet_mass_kg > 0.0 && material.is_some_and(is_dung_or_urine))
            || c_n < AMMONIA_BELOW_C_N;
    let mut notes = Vec::new();
    for (place, (material, item)) in parts.iter().enumerate() {
        let Some(material) = material.filter(|_| item.wet_mass_kg > 0.0) else { continue };
        let of_volume = item.volume_l() / volume;
        for &caution in &material.cautions {
            let note = |stance, reason, share| Note { caution, item: place, stance, reason, share };
            if caution.severity == CautionSeverity::Prohibit {
                notes.push(note(Stance::Refused, Reason::Never, None));
                continue;
            }
            if caution.code == SMALL_DOSES {
                let share = dose(material, item.wet_mass_kg / mass, of_volume);
                if share.is > share.most && !is_bedding_of(material, method) {
                    notes.push(note(Stance::Minded, Reason::Share, Some(share)));
                }
            }
            if caution.code == DRIVES_OFF_AMMONIA && gives_ammonia {
                notes.push(note(Stance::Minded, Reason::Company, None));
            }
            let Some(method) = method else { continue };
            if caution.is_refused_as_main_in(method) && of_volume > MAIN_SHARE {
                let share = Share { is: of_volume, most: MAIN_SHARE, of_mass: false };
                notes.push(note(Stance::Refused, Reason::Share, Some(share)));
            } else if caution.in_method(method) != Stance::Free {
                notes.push(note(caution.in_method(method), Reason::Method, None));
            }
        }
    }
    notes.sort_by_key(|note| std::cmp::Reverse((note.stance, note.caution.severity)));
    notes
}

fn is_dung_or_urine(material: &Material) -> bool {
    material.kind == Kind::Manure || material.group == Group::Liquid
}

/// Sawdust is what a fibre bed is made of.
fn is_bedding_of(material: &Material, method: Option<&Method>) -> bool {
    material.group == Group::Woody && method.is_some_and(|method| method.id == "fibre-bed")
}

/// A material that is good in small doses: its share and the most that is good.
fn dose(material: &Material, of_mass: f64, of_volume: f64) -> Share {
    let is_char = material.degradability == Degradability::Inert && material.ash.get() < 0.5;
    // Dry and rich in nitrogen: a meal or a pressed cake.
    let is_meal = material.nitrogen.typical >= 0.04 && material.moisture.typical < 0.2;
    if is_char {
        Share { is: of_volume, most: DOSE_OF_CHAR, of_mass: false }
    } else if is_meal || matches!(material.kind, Kind::Mineral | Kind::Liquid) {
        Share { is: of_mass, most: DOSE_OF_MASS, of_mass: true }
    } else {
        Share { is: of_volume, most: MAIN_SHARE, of_mass: false }
    }
}

#[cfg(test)]
mod tests;
