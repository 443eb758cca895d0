//! Stock said in one sentence: "4 barrows of straw, 2 of sheep manure and a bucket of scraps".
//!
//! Numbers as digits, fractions and words; a person's own measures, kilograms, litres and pounds;
//! materials by any of the names people have for them, with slips of the pen; in English and
//! Spanish, with commas, lines or nothing in between. What is not understood is marked where it
//! stands and asked back with what is nearest; nothing is dropped. The words are rows of
//! `data/say-words.csv`, the names columns of the table of materials.

mod item;
mod names;
mod number;
mod tokens;
mod words;

pub use names::{LikeName, Names};

use words::Words;

use crate::base::words::closed_list;
use crate::stock::Materials;

/// Letters of a text: pages of stock, and no more.
pub const LONGEST: usize = 5_000;

/// A measure that may be said.
#[derive(Debug, Clone, PartialEq)]
pub struct SayMeasure<'a> {
    /// Its id.
    pub id: &'a str,
    /// What it holds [L].
    pub litres: f64,
    /// What it is called; the id if that is all there is.
    pub names: Vec<&'a str>,
}

/// A lot that has a name of its own.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct SayLot<'a> {
    /// Its id.
    pub id: &'a str,
    /// What the person calls it.
    pub name: &'a str,
    /// Of which material it is.
    pub material: &'a str,
}

/// How much was said.
#[derive(Debug, Clone, PartialEq)]
pub enum SaidOf {
    /// In measures: how many, and the id of which.
    Measures(f64, String),
    /// Kilograms.
    Kilograms(f64),
    /// Loose litres.
    Litres(f64),
    /// A number, and of what was not said.
    Number(f64),
}

impl SaidOf {
    /// The number of it, in its own unit.
    #[must_use]
    pub const fn count(&self) -> f64 {
        match self {
            Self::Measures(count, _) | Self::Kilograms(count) | Self::Litres(count) | Self::Number(count) => {
                *count
            }
        }
    }
}

/// Where in the text something stands, in characters: from the first to after the last.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Place {
    /// First character.
    pub from: usize,
    /// After the last.
    pub to: usize,
}

/// A material in an amount.
#[derive(Debug, Clone, PartialEq)]
pub struct SaidItem {
    /// Id of the material.
    pub material: String,
    /// The lot that was named, if it was one of the person's.
    pub lot: Option<String>,
    /// How much.
    pub of: SaidOf,
    /// Where it stands.
    pub place: Place,
}

closed_list! {
    /// What of a part of the text was not understood.
    NotSaid {
        /// Which material it is.
        Material = "material",
        /// Which measure it is counted in.
        Measure = "measure",
        /// How much there is of it.
        Amount = "amount",
    }
}

/// A part of the text that was not understood.
#[derive(Debug, Clone, PartialEq)]
pub struct Unknown {
    /// What of it.
    pub what: NotSaid,
    /// Where it stands.
    pub place: Place,
    /// The material, if that was understood.
    pub material: Option<String>,
    /// The lot, if one was named.
    pub lot: Option<String>,
    /// The amount, if that was.
    pub of: Option<SaidOf>,
    /// The ids of what is nearest: materials or measures, three at most.
    pub nearest: Vec<String>,
}

/// What a text says.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Saying {
    /// What was understood, in the order it was said.
    pub items: Vec<SaidItem>,
    /// Water [L].
    pub water_l: f64,
    /// What was not.
    pub unknown: Vec<Unknown>,
}

/// Reads what is said.
///
/// # Example
/// ```
/// use zymarch_core::stock::{Materials, say::{self, SayMeasure, SaidOf}};
/// let measures = [("barrow", 70.0), ("bucket", 12.0)].map(|(id, litres)| SayMeasure { id, litres, names: vec![] });
/// let text = "4 barrows of straw, 2 of sheep manure and a bucket of scraps";
/// let said = say::read(text, &measures, &[], &Materials::book());
/// let ids: Vec<_> = said.items.iter().map(|item| item.material.as_str()).collect();
/// assert_eq!(ids, ["wheat-straw", "sheep-manure", "vegetable-scraps"]);
/// assert_eq!(said.items[1].of, SaidOf::Measures(2.0, "barrow".into()));
/// assert!(said.unknown.is_empty());
/// ```
#[must_use]
pub fn read(text: &str, measures: &[SayMeasure<'_>], lots: &[SayLot<'_>], materials: &Materials) -> Saying {
    let tokens = tokens::of(text);
    let words = Words::new(measures);
    let names = Names::new(materials, lots);
    let reader = item::Reader { tokens: &tokens, words: &words, names: &names };
    reader.read()
}

#[cfg(test)]
mod tests;
