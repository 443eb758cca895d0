//! The closed list of cautions that materials carry.

use std::sync::LazyLock;

/// What a caution makes the tool do.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum CautionSeverity {
    /// Told.
    Info,
    /// Always shown with the material.
    Caution,
    /// Limits the method or the amount.
    Restrict,
    /// Refused.
    Prohibit,
}

impl CautionSeverity {
    const ALL: [Self; 4] = [Self::Info, Self::Caution, Self::Restrict, Self::Prohibit];

    /// The word used in the data file and the open formats.
    #[must_use]
    pub const fn as_str(self) -> &'static str {
        match self {
            Self::Info => "info",
            Self::Caution => "caution",
            Self::Restrict => "restrict",
            Self::Prohibit => "prohibit",
        }
    }
}

/// One entry of the list. Its sentence stands in the locale files.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Caution {
    /// Stable word.
    pub code: &'static str,
    /// What it makes the tool do.
    pub severity: CautionSeverity,
}

/// The list, from `data/cautions.csv`.
#[must_use]
pub fn cautions() -> &'static [Caution] {
    &LIST
}

/// The caution of a code.
pub(super) fn find(code: &str) -> Option<Caution> {
    LIST.iter().copied().find(|caution| caution.code == code)
}

static LIST: LazyLock<Vec<Caution>> = LazyLock::new(|| {
    include_str!("../../data/cautions.csv")
        .lines()
        .skip(1)
        .map(|line| {
            let (code, severity) = line.split_once(',').expect("two columns, checked by a test");
            let severity = CautionSeverity::ALL
                .into_iter()
                .find(|candidate| candidate.as_str() == severity)
                .expect("a listed severity, checked by a test");
            Caution { code, severity }
        })
        .collect()
});

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_list_reads_and_its_codes_are_unique() {
        let list = cautions();
        assert_eq!(list.len(), 38);
        for (index, caution) in list.iter().enumerate() {
            assert!(list[index + 1..].iter().all(|other| other.code != caution.code));
        }
    }

    #[test]
    fn faeces_of_people_and_pets_are_refused() {
        assert_eq!(find("faecal-parasites").map(|caution| caution.severity), Some(CautionSeverity::Prohibit));
    }
}
