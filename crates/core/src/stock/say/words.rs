//! The words of amounts: `data/say-words.csv`, and a person's own measures.

use std::collections::HashMap;
use std::sync::LazyLock;

use super::SayMeasure;
use crate::stock::material::folded;

/// What a word, or two, stand for.
#[derive(Debug, Clone, PartialEq)]
pub(super) enum Role {
    Number(f64),
    /// A number that multiplies the one before it, as hundred.
    Times(f64),
    /// A part, as half.
    Part(f64),
    Kilograms(f64),
    Litres(f64),
    /// A kind of container, by its English word.
    Container(&'static str),
    /// Not said how many, as some.
    Vague,
    /// As much of one as of the other.
    Each,
    And,
    Of,
    Skip,
    Trim,
    From,
    Water,
    Have,
}

static TABLE: LazyLock<HashMap<String, Vec<Role>>> = LazyLock::new(|| {
    let mut table: HashMap<String, Vec<Role>> = HashMap::new();
    for line in include_str!("../../../data/say-words.csv").lines().skip(1) {
        let cells: Vec<&'static str> = line.splitn(3, ',').collect();
        let [role, value, words] = cells[..] else { panic!("{line}: three columns, checked by a test") };
        let number = || value.parse::<f64>().expect("a number, checked by a test");
        for word in words.split(';') {
            let role = match role {
                "number" => Role::Number(number()),
                "times" => Role::Times(number()),
                "part" => Role::Part(number()),
                "kg" => Role::Kilograms(number()),
                "litres" => Role::Litres(number()),
                "measure" => Role::Container(value),
                "vague" => Role::Vague,
                "each" => Role::Each,
                "and" => Role::And,
                "of" => Role::Of,
                "skip" => Role::Skip,
                "trim" => Role::Trim,
                "from" => Role::From,
                "water" => Role::Water,
                "have" => Role::Have,
                _ => panic!("{role}: a listed role, checked by a test"),
            };
            table.entry(folded(word)).or_default().push(role);
        }
    }
    table
});

/// What a word stands for.
pub(super) fn roles(word: &str) -> &'static [Role] {
    TABLE.get(word).map_or(&[], Vec::as_slice)
}

pub(super) fn is(word: &str, role: &Role) -> bool {
    roles(word).contains(role)
}

/// The measures that may be said: by their own names, and by the words for their kind.
pub(super) struct Words<'a> {
    measures: &'a [SayMeasure<'a>],
    /// Each folded name with the place of its measure.
    named: HashMap<String, usize>,
}

impl<'a> Words<'a> {
    pub(super) fn new(measures: &'a [SayMeasure<'a>]) -> Self {
        let mut named = HashMap::new();
        for (place, measure) in measures.iter().enumerate() {
            for name in measure.names.iter().copied().chain([measure.id]) {
                let name = folded(&name.replace(['-', '_'], " "));
                named.entry(format!("{name}s")).or_insert(place);
                named.insert(name, place);
            }
        }
        // Every word for a bucket means the person's bucket, if there is one.
        let mut kinds: HashMap<&str, usize> = HashMap::new();
        for (name, place) in &named {
            for role in roles(name) {
                if let Role::Container(kind) = role {
                    let first = kinds.entry(kind).or_insert(*place);
                    *first = (*first).min(*place);
                }
            }
        }
        for (word, roles) in TABLE.iter() {
            for role in roles {
                if let Role::Container(kind) = role
                    && let Some(place) = kinds.get(kind)
                {
                    named.entry(word.clone()).or_insert(*place);
                }
            }
        }
        Self { measures, named }
    }

    /// What one of a measure holds [L].
    pub(super) fn litres(&self, id: &str) -> Option<f64> {
        self.measures.iter().find(|measure| measure.id == id).map(|measure| measure.litres)
    }

    /// The measure of a word or two.
    pub(super) fn measure(&self, said: &str) -> Option<&'a str> {
        self.named.get(said).map(|&place| self.measures[place].id)
    }

    /// The measure that a word with a slip of the pen means.
    pub(super) fn misspelt(&self, said: &str) -> Option<&'a str> {
        let most = match said.chars().count() {
            0..=4 => return None,
            5..=7 => 1,
            _ => 2,
        };
        let near = self.named.iter().map(|(name, place)| (strsim::osa_distance(name, said), place));
        near.min().filter(|(slips, _)| *slips <= most).map(|(_, &place)| self.measures[place].id)
    }

    /// The measures whose names are nearest, three at most.
    pub(super) fn nearest(&self, said: &str) -> Vec<String> {
        let mut near: Vec<(f64, usize)> = (0..self.measures.len())
            .map(|at| {
                let names = self.named.iter().filter(|(_, place)| **place == at);
                let likeness = names.map(|(name, _)| strsim::jaro_winkler(name, said)).fold(0.0, f64::max);
                (likeness, at)
            })
            .collect();
        near.sort_by(|a, b| b.0.total_cmp(&a.0).then(a.1.cmp(&b.1)));
        near.into_iter().take(3).map(|(_, at)| self.measures[at].id.to_owned()).collect()
    }
}
