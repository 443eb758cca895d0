//! What must not go in, and what must be minded, where it is decided.
//!
//! A mix, and the way of composting chosen for it, call up the cautions of
//! their materials: what goes into no heap, what the method does not deal
//! with, doses that are too large, and things that do not go together.

mod dose;

pub use dose::{Dose, dose_of, doses};

use crate::base::words::closed_list;
use crate::mix::Item;
use crate::plan::method::Method;
use crate::stock::caution::{Caution, CautionSeverity, SMALL_DOSES, Stance};
use crate::stock::material::{Group, Kind, Material};

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

/// What a caution makes of a method, whatever the amount.
///
/// # Example
/// Seeding weeds come through a slow bin alive.
/// ```
/// use zymarch_core::{plan::{method, mind::in_method}, stock::caution::{self, Stance}};
/// let hot_only = caution::find("hot-only").expect("listed");
/// let stance = |id| in_method(hot_only, method::find(id).expect("listed"));
/// assert_eq!((stance("slow-bin"), stance("bay-turned")), (Stance::Refused, Stance::Minded));
/// ```
#[must_use]
pub fn in_method(caution: Caution, method: &Method) -> Stance {
    if is_meant(caution.refused_in, method) {
        Stance::Refused
    } else if is_meant(caution.minded_in, method)
        || (is_meant(caution.share, method) && caution.code != SMALL_DOSES)
    {
        Stance::Minded
    } else {
        Stance::Free
    }
}

/// Whether it is refused there once it is a main material.
fn is_refused_as_main(caution: Caution, method: &Method) -> bool {
    caution.code != SMALL_DOSES && is_meant(caution.share, method)
}

fn is_meant(words: &str, method: &Method) -> bool {
    words.split(';').any(|word| method.is_meant_by(word))
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

/// Below this C:N a mix lets ammonia go [-]: the lower edge of the usual aim.
const AMMONIA_BELOW_C_N: f64 = 25.0;

pub(crate) const DRIVES_OFF_AMMONIA: &str = "high-ph-drives-off-ammonia";

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
                let share = dose_of(material, method).map(|dose| Share {
                    is: if dose.of_mass { item.wet_mass_kg / mass } else { of_volume },
                    most: dose.most,
                    of_mass: dose.of_mass,
                });
                if let Some(share) = share.filter(|share| share.is > share.most) {
                    notes.push(note(Stance::Minded, Reason::Share, Some(share)));
                }
            }
            if caution.code == DRIVES_OFF_AMMONIA && gives_ammonia {
                notes.push(note(Stance::Minded, Reason::Company, None));
            }
            let Some(method) = method else { continue };
            if is_refused_as_main(caution, method) && of_volume > MAIN_SHARE {
                let share = Share { is: of_volume, most: MAIN_SHARE, of_mass: false };
                notes.push(note(Stance::Refused, Reason::Share, Some(share)));
            } else if in_method(caution, method) != Stance::Free {
                notes.push(note(in_method(caution, method), Reason::Method, None));
            }
        }
    }
    notes.sort_by_key(|note| std::cmp::Reverse((note.stance, note.caution.severity)));
    notes
}

fn is_dung_or_urine(material: &Material) -> bool {
    material.kind == Kind::Manure || material.group == Group::Liquid
}

#[cfg(test)]
mod cautions;
#[cfg(test)]
mod tests;
