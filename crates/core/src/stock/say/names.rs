//! Materials by any of their names, with slips of the pen.

use std::collections::HashMap;
use std::sync::LazyLock;

use super::SayLot;
use super::words::{Role, is};
use crate::stock::Materials;
use crate::stock::material::{self, Material, key, name_key, names_of, own_names, words};

/// Every name there is, each with what it stands for: those of the person, then those of the book.
pub struct Names<'a> {
    own: Index<'a>,
}

/// Names in the order they were put, each once.
#[derive(Default)]
struct Index<'a> {
    entries: Vec<Entry<'a>>,
    by_key: HashMap<String, usize>,
}

struct Entry<'a> {
    key: String,
    material: &'a str,
    lot: Option<&'a str>,
}

/// The names of the book, made once.
static BOOK: LazyLock<Index<'static>> = LazyLock::new(|| {
    let mut index = Index::default();
    for row in material::all() {
        index.put_row(row);
    }
    index
});

/// A material that a name comes near to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LikeName<'a> {
    /// Its id.
    pub material: &'a str,
    /// The lot, if it is one of the person's.
    pub lot: Option<&'a str>,
    /// How near: 1 is the name itself [-].
    pub likeness: f64,
}

/// Words of the longest name there is, with what says how it is.
const LONGEST_NAME: usize = 10;

/// Letters of a name that is looked for; longer ones are none.
const LONGEST_LETTERS: usize = 120;

/// Less alike than this a name is another [-].
const LEAST_LIKE: f64 = 0.7;

impl<'a> Index<'a> {
    fn put(&mut self, name: &str, material: &'a str, lot: Option<&'a str>) {
        let key = name_key(name);
        if !key.is_empty() && !self.by_key.contains_key(&key) {
            self.by_key.insert(key.clone(), self.entries.len());
            self.entries.push(Entry { key, material, lot });
        }
    }

    fn put_row(&mut self, row: &'a Material) {
        for name in names_of(row) {
            self.put(&name, &row.id, None);
        }
    }
}

impl<'a> Entry<'a> {
    fn like(&self, likeness: f64) -> LikeName<'a> {
        LikeName { material: self.material, lot: self.lot, likeness }
    }
}

impl<'a> Names<'a> {
    /// The names of all materials; those of the person's lots go before.
    #[must_use]
    pub fn new(materials: &'a Materials, lots: &[SayLot<'a>]) -> Self {
        let mut own = Index::default();
        for lot in lots {
            own.put(lot.name, lot.material, Some(lot.id));
        }
        for row in materials.own() {
            for name in own_names(row) {
                own.put(&name, &row.id, None);
            }
        }
        Self { own }
    }

    fn by_key(&self, key: &str) -> Option<LikeName<'a>> {
        let own = self.own.by_key.get(key).map(|&at| self.own.entries[at].like(1.0));
        own.or_else(|| BOOK.by_key.get(key).map(|&at| BOOK.entries[at].like(1.0)))
    }

    fn entries(&self) -> impl Iterator<Item = &Entry<'a>> {
        self.own.entries.iter().chain(&BOOK.entries)
    }

    /// What these words name, to the letter but for number and order.
    pub(super) fn exact(&self, words: &[&str]) -> Option<LikeName<'a>> {
        let turned: Vec<&str> = words.iter().rev().copied().collect();
        self.by_key(&key(words)).or_else(|| self.by_key(&key(&turned)))
    }

    /// What these words mean: by name, without what only says how it is, or with slips of the pen.
    pub(super) fn meant(&self, words: &[&str]) -> Option<LikeName<'a>> {
        self.exact(words)
            .or_else(|| self.within(words))
            .or_else(|| self.misspelt(&key(words)))
            .or_else(|| self.misspelt(&key(&bare(words))))
    }

    /// The longest name that stands within the words, if what is left only says how it is.
    fn within(&self, words: &[&str]) -> Option<LikeName<'a>> {
        for length in (1..=words.len().min(LONGEST_NAME)).rev() {
            for start in 0..=words.len() - length {
                let found = self.exact(&words[start..start + length]);
                let rest = words[..start].iter().chain(&words[start + length..]);
                if let Some(found) = found
                    && rest.clone().all(|word| is(word, &Role::Trim) || is(word, &Role::Of))
                {
                    return Some(found);
                }
            }
        }
        None
    }

    /// The name that is so near that it must be a slip, if it is one alone.
    fn misspelt(&self, said: &str) -> Option<LikeName<'a>> {
        let letters = said.chars().count();
        let most = match letters {
            0..=3 => return None,
            4..=7 => 1,
            8..=12 => 2,
            _ => 3,
        };
        let near = self.entries().filter_map(|entry| {
            let length = entry.key.chars().count();
            // Short names differ by a letter and are other things.
            (length.abs_diff(letters) <= most && length > 3)
                .then(|| (strsim::osa_distance(&entry.key, said), entry))
        });
        let (slips, entry) = near.min_by_key(|(slips, _)| *slips)?;
        (slips <= most)
            .then(|| entry.like(1.0 - slips as f64 / letters as f64))
            .filter(|like| like.likeness >= LEAST_LIKE)
    }

    /// The materials whose names are nearest, best first; each once.
    #[must_use]
    pub fn nearest(&self, said: &str, most: usize) -> Vec<LikeName<'a>> {
        // What is said at length is likely no name; its beginning is enough to look for one.
        let said: String = said.chars().take(LONGEST_LETTERS).collect();
        let words = words(&said);
        let words: Vec<&str> = words.iter().map(String::as_str).collect();
        let said = key(&bare(&words));
        let said = if said.is_empty() { key(&words) } else { said };
        let parts: Vec<&str> = said.split(' ').collect();
        let mut near: Vec<(f64, &Entry<'a>)> =
            self.entries().map(|entry| (likeness(&entry.key, &said, &parts), entry)).collect();
        near.sort_by(|a, b| b.0.total_cmp(&a.0));
        let mut found: Vec<LikeName<'a>> = Vec::new();
        for (likeness, entry) in near {
            let like = entry.like(likeness);
            if found.len() == most {
                break;
            }
            if !found.iter().any(|one| one.material == like.material && one.lot == like.lot) {
                found.push(like);
            }
        }
        found
    }

    /// The material of a name, spelled right or nearly.
    #[must_use]
    pub fn find(&self, name: &str) -> Option<LikeName<'a>> {
        if name.len() > LONGEST_LETTERS {
            return None;
        }
        let words = words(name);
        let words: Vec<&str> = words.iter().map(String::as_str).collect();
        if words.is_empty() { None } else { self.meant(&words) }
    }
}

/// The words without those that only say how it is.
fn bare<'w>(words: &[&'w str]) -> Vec<&'w str> {
    words.iter().copied().filter(|word| !is(word, &Role::Trim)).collect()
}

/// How alike a name and what was said are: as a whole, or word by word [-].
fn likeness(name: &str, said: &str, parts: &[&str]) -> f64 {
    let whole = strsim::jaro_winkler(name, said);
    let words: Vec<&str> = name.split(' ').collect();
    let best = |part: &str| words.iter().map(|word| strsim::jaro_winkler(word, part)).fold(0.0, f64::max);
    let by_word: f64 =
        parts.iter().map(|part| best(part)).map(|like| if like > 0.8 { like } else { 0.0 }).sum();
    let by_word = by_word / parts.len().max(words.len()) as f64;
    let starts = if name.starts_with(said) { 0.15 } else { 0.0 };
    whole.max(by_word) + starts
}
