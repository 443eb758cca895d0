//! The closed list of cautions that materials carry.
//!
//! A row of `data/cautions.csv` says how grave a code is, at which moments of
//! the work it is said, and in which methods it refuses or warns. What the
//! cautions make of a mix and a method is a matter of the plan. The sentence of a code stands in the locale files. Local codes and licensed
//! practice come first: this list reminds, it does not certify.

use std::sync::LazyLock;

use crate::base::words::closed_list;

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
    /// What a person wears.
    Kit {
        /// Against dust and spores.
        Mask = "mask",
        /// Against thorns, glass and dung.
        Gloves = "gloves",
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
    /// Methods that refuse it: ids, kinds of heat, `never-turned` or `all`, between semicolons.
    pub refused_in: &'static str,
    /// Methods that go with care.
    pub minded_in: &'static str,
    /// Methods that refuse it as a main material.
    pub share: &'static str,
    /// What a person wears against it.
    pub kit: Option<Kit>,
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
}

/// Good in a small share only: judged on the mix, not on the method.
pub(crate) const SMALL_DOSES: &str = "small-doses";

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
    include_str!("../../data/cautions.csv")
        .lines()
        .skip(1)
        .map(|line| {
            let cells: Vec<&'static str> = line.split(',').collect();
            let [code, severity, moments, refused_in, minded_in, share, kit] = cells[..] else {
                panic!("{line}: seven columns, checked by a test")
            };
            let severity = CautionSeverity::parse(severity).expect("a listed severity, checked by a test");
            Caution { code, severity, moments, refused_in, minded_in, share, kit: Kit::parse(kit) }
        })
        .collect()
});
