//! The closed list of cautions that materials carry.
//!
//! A row of `data/cautions.csv` says how grave a code is, at which moments of
//! the work it is said, and in which methods it refuses or warns. What the
//! cautions make of a mix is judged in [`mind`](crate::mind). The sentence of a code stands in the locale files. Local codes and licensed
//! practice come first: this list reminds, it does not certify.

use std::sync::LazyLock;

use crate::method::Method;
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

    /// Whether it is refused there once it is a main material.
    pub(crate) fn is_refused_as_main_in(&self, method: &Method) -> bool {
        self.code != SMALL_DOSES && means(self.share, method)
    }
}

/// Good in a small share only: judged on the mix, not on the method.
pub(crate) const SMALL_DOSES: &str = "small-doses";

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
