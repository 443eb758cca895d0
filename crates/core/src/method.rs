//! The ways of composting, as far as a caution needs to know them.
//!
//! A method says how hot its heap gets and whether it is turned; that decides
//! which materials it cannot take (see [`caution`](crate::caution)). A row of
//! `data/methods.csv` adds one.

use std::sync::LazyLock;

use crate::words::closed_list;

closed_list! {
    /// How hot a method's heap gets.
    Heat {
        /// Hot throughout, since turning brings the outside in.
        Hot = "hot",
        /// Hot throughout only when the person turns it.
        HotIfTurned = "hot-if-turned",
        /// Warm inside; no proof against seed or disease.
        Warm = "warm",
        /// Not hot.
        Cool = "cool",
        /// Kept cool for worms.
        Worms = "worms",
    }
}

closed_list! {
    /// How often a method's heap is turned.
    Turned {
        /// As a rule of the method.
        Often = "often",
        /// Now and then, or not.
        Sometimes = "sometimes",
        /// Not ever.
        Never = "never",
    }
}

/// A way of composting.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Method {
    /// Stable word.
    pub id: &'static str,
    /// How hot its heap gets.
    pub heat: Heat,
    /// How often it is turned.
    pub turned: Turned,
}

impl Method {
    /// Whether a word of the caution list means this method: its id, its heat,
    /// `never-turned`, or `all`.
    pub(crate) fn is_meant_by(&self, word: &str) -> bool {
        word == "all"
            || word == self.id
            || word == self.heat.as_str()
            || (word == "never-turned" && self.turned == Turned::Never)
    }
}

/// Every method, in the order of the data file.
///
/// # Example
/// ```
/// use zymarch_core::method;
/// assert_eq!(method::all().len(), 13);
/// assert_eq!(method::find("worm-bin").map(|method| method.heat.as_str()), Some("worms"));
/// ```
#[must_use]
pub fn all() -> &'static [Method] {
    &LIST
}

/// The method of an id.
#[must_use]
pub fn find(id: &str) -> Option<&'static Method> {
    LIST.iter().find(|method| method.id == id)
}

static LIST: LazyLock<Vec<Method>> = LazyLock::new(|| {
    include_str!("../data/methods.csv")
        .lines()
        .skip(1)
        .map(|line| {
            let mut cells = line.split(',');
            let mut cell = || cells.next().expect("three columns, checked by a test");
            Method {
                id: cell(),
                heat: Heat::parse(cell()).expect("a listed heat, checked by a test"),
                turned: Turned::parse(cell()).expect("a listed habit, checked by a test"),
            }
        })
        .collect()
});

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_list_reads_and_its_ids_are_unique() {
        for (index, method) in all().iter().enumerate() {
            assert!(all()[index + 1..].iter().all(|other| other.id != method.id));
        }
    }

    #[test]
    fn words_mean_methods_by_id_heat_or_habit() {
        let tower = find("static-tower").expect("listed");
        for word in ["all", "static-tower", "warm", "never-turned"] {
            assert!(tower.is_meant_by(word), "{word}");
        }
        assert!(!tower.is_meant_by("cool"));
    }
}
