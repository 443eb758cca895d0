//! What must not go in, and what must be minded, where it is decided.
//!
//! Materials carry codes of a closed list, `data/cautions.csv`. A row says how
//! grave the code is, at which moments of the work it is said, and in which
//! methods it refuses or warns; doses and company are judged on the mix. The
//! sentence of a code stands in the locale files. Local codes and licensed
//! practice come first: this list reminds, it does not certify.

use std::sync::LazyLock;

use crate::material::{Degradability, Group, Kind, Material};
use crate::method::Method;
use crate::mix::Item;
use crate::words::closed_list;

closed_list! {
    /// How grave a caution is.
    CautionSeverity {
        /// Told.
        Info = "info",
        /// Always shown with the material.
        Caution = "caution",
        /// Limits the method or the amount.
        Restrict = "restrict",
        /// Refused.
        Prohibit = "prohibit",
    }
}

closed_list! {
    /// When in the work a caution is said.
    Moment {
        /// When it is gathered and kept.
        Stock = "stock",
        /// When amounts are put together.
        Mix = "mix",
        /// When the way of composting is chosen.
        Method = "method",
        /// When hands are on it.
        Build = "build",
        /// When the compost is used or sold.
        Use = "use",
    }
}

closed_list! {
    /// What a caution makes of a choice.
    Stance {
        /// Nothing.
        Free = "free",
        /// Goes, with care.
        Minded = "minded",
        /// Does not go.
        Refused = "refused",
    }
}

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

/// One entry of the list. Its sentence stands in the locale files.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Caution {
    /// Stable word.
    pub code: &'static str,
    /// How grave it is.
    pub severity: CautionSeverity,
    moments: &'static str,
    refused_in: &'static str,
    minded_in: &'static str,
    share: &'static str,
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

impl Caution {
    /// Whether it is said at a moment of the work.
    #[must_use]
    pub fn is_said_at(&self, moment: Moment) -> bool {
        self.moments.split(';').any(|word| word == moment.as_str())
    }

    /// The moments it is said at.
    pub fn moments(&self) -> impl Iterator<Item = Moment> + use<> {
        let words = self.moments;
        Moment::ALL.iter().copied().filter(move |moment| words.split(';').any(|word| word == moment.as_str()))
    }

    /// What it makes of a method, whatever the amount.
    ///
    /// # Example
    /// Seeding weeds come through a slow bin alive.
    /// ```
    /// use zymarch_core::{caution::{self, Stance}, method};
    /// let hot_only = caution::find("hot-only").expect("listed");
    /// assert_eq!(hot_only.in_method(method::find("slow-bin").expect("listed")), Stance::Refused);
    /// assert_eq!(hot_only.in_method(method::find("bay-turned").expect("listed")), Stance::Minded);
    /// ```
    #[must_use]
    pub fn in_method(&self, method: &Method) -> Stance {
        if means(self.refused_in, method) {
            Stance::Refused
        } else if means(self.minded_in, method) || (means(self.share, method) && self.code != SMALL_DOSES) {
            Stance::Minded
        } else {
            Stance::Free
        }
    }

    fn is_refused_as_main_in(&self, method: &Method) -> bool {
        self.code != SMALL_DOSES && means(self.share, method)
    }
}

const SMALL_DOSES: &str = "small-doses";
const DRIVES_OFF_AMMONIA: &str = "high-ph-drives-off-ammonia";

fn means(words: &str, method: &Method) -> bool {
    words.split(';').any(|word| method.is_meant_by(word))
}

/// The list.
pub fn all() -> impl Iterator<Item = Caution> {
    LIST.iter().copied()
}

/// The caution of a code.
#[must_use]
pub fn find(code: &str) -> Option<Caution> {
    all().find(|caution| caution.code == code)
}

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

static LIST: LazyLock<Vec<Caution>> = LazyLock::new(|| {
    include_str!("../data/cautions.csv")
        .lines()
        .skip(1)
        .map(|line| {
            let cells: Vec<&'static str> = line.split(',').collect();
            let [code, severity, moments, refused_in, minded_in, share] = cells[..] else {
                panic!("{line}: six columns, checked by a test")
            };
            let severity = CautionSeverity::parse(severity).expect("a listed severity, checked by a test");
            Caution { code, severity, moments, refused_in, minded_in, share }
        })
        .collect()
});

#[cfg(test)]
mod tests;
