//! Names compared: small letters, no accents, one of a thing, no articles.

use std::collections::HashMap;
use std::sync::LazyLock;

use super::{Material, all};

/// Words of a name that do not tell it from another.
const SMALL: [&str; 9] = ["of", "de", "del", "d", "the", "la", "el", "los", "las"];

/// A letter in its plain form: small, without an accent.
const fn plain(letter: char) -> char {
    match letter {
        'á' | 'à' | 'â' | 'ä' | 'ã' | 'Á' | 'À' => 'a',
        'é' | 'è' | 'ê' | 'ë' | 'É' => 'e',
        'í' | 'ì' | 'î' | 'ï' | 'Í' => 'i',
        'ó' | 'ò' | 'ô' | 'ö' | 'õ' | 'Ó' => 'o',
        'ú' | 'ù' | 'û' | 'ü' | 'Ú' | 'Ü' => 'u',
        'ñ' | 'Ñ' => 'n',
        'ç' => 'c',
        '³' => '3',
        _ => letter,
    }
}

/// A word in its plain form.
pub(crate) fn folded(word: &str) -> String {
    word.chars().flat_map(char::to_lowercase).map(plain).collect()
}

/// What words and their order make of a name: small letters, one of a thing, no articles.
pub(crate) fn key(words: &[&str]) -> String {
    let words = words.iter().filter(|word| !SMALL.contains(word));
    words.map(|word| singular(word)).collect::<Vec<_>>().join(" ")
}

/// One of a thing, near enough for comparing; the same is done to both sides.
fn singular(word: &str) -> String {
    match word {
        "leaves" => "leaf".into(),
        "hojas" => "hoja".into(),
        _ if word.len() > 4 && word.ends_with("ies") => format!("{}y", &word[..word.len() - 3]),
        _ if word.len() > 3 && word.ends_with('s') && !word.ends_with("ss") => word[..word.len() - 1].into(),
        _ => word.into(),
    }
}

/// The words of a name in their plain form, without what stands in brackets.
pub(crate) fn words(name: &str) -> Vec<String> {
    let bare = name.split('(').next().unwrap_or(name);
    let words = bare.split(|letter: char| !letter.is_alphanumeric()).filter(|word| !word.is_empty());
    words.map(folded).collect()
}

/// Every name of a row: its own, its id, and what people call it.
pub(crate) fn names_of(row: &Material) -> impl Iterator<Item = String> + '_ {
    let own = [row.name.clone(), row.name_es.clone(), row.id.replace('-', " ")];
    own.into_iter().chain(row.names.iter().chain(&row.names_es).cloned())
}

/// The names that a row of the person's is known by: its own goes before the book's. What else
/// it is called was most likely copied with a row of the book, and means that row still.
pub(crate) fn own_names(row: &Material) -> impl Iterator<Item = String> + '_ {
    names_of(row).filter(|name| *name == row.name || in_book(&name_key(name)).is_none())
}

/// What a name is compared by.
pub(crate) fn name_key(name: &str) -> String {
    key(&words(name).iter().map(String::as_str).collect::<Vec<_>>())
}

/// The ids of the book's rows by the keys of their names; of two, the first in the table.
pub(crate) fn in_book(key: &str) -> Option<&'static str> {
    static BOOK: LazyLock<HashMap<String, &'static str>> = LazyLock::new(|| {
        let mut book = HashMap::new();
        for row in all() {
            for key in names_of(row).map(|name| name_key(&name)).filter(|key| !key.is_empty()) {
                book.entry(key).or_insert(row.id.as_str());
            }
        }
        book
    });
    BOOK.get(key).copied()
}
