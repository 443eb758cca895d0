//! What is wrong with an input: where, what, and the numbers of the sentence.
//!
//! A fault is not a sentence. The locale files turn its code and parameters into
//! one, for the screen, the API and the terminal alike. A path is built on the way
//! down as a chain of borrowed steps ([`At`]), so that nothing is allocated until
//! something is wrong.

use std::fmt;

mod code;
mod path;

pub use code::{FaultClass, FaultCode};
pub use path::{At, Path, Seg};

/// Faults that are told of one input; nobody reads more, and a document full of faults
/// costs no more than one with a few.
pub const MOST_TOLD: usize = 100;

/// A number or word of a fault's sentence.
#[derive(Debug, Clone, PartialEq)]
pub enum Param {
    /// A number.
    Number(f64),
    /// A word, as it was given or as the formats spell it.
    Text(String),
    /// Several.
    Words(Vec<String>),
}

impl From<f64> for Param {
    fn from(value: f64) -> Self {
        Self::Number(value)
    }
}

impl From<usize> for Param {
    fn from(value: usize) -> Self {
        Self::Number(value as f64)
    }
}

impl From<i64> for Param {
    fn from(value: i64) -> Self {
        Self::Number(value as f64)
    }
}

impl From<&str> for Param {
    /// What was given may be of any length; a sentence keeps to what can be read.
    fn from(text: &str) -> Self {
        Self::Text(text.chars().take(LONGEST_SHOWN).collect())
    }
}

impl From<String> for Param {
    fn from(text: String) -> Self {
        Self::from(text.as_str())
    }
}

impl<'a> FromIterator<&'a str> for Param {
    fn from_iter<I: IntoIterator<Item = &'a str>>(words: I) -> Self {
        Self::Words(words.into_iter().map(str::to_owned).collect())
    }
}

const LONGEST_SHOWN: usize = 60;

/// One thing wrong with an input.
#[derive(Debug, Clone, PartialEq)]
pub struct Fault {
    /// Where; empty for the whole.
    pub path: Path,
    /// Line of the text it stands on, from 1, where there is a text.
    pub line: Option<usize>,
    /// What.
    pub code: FaultCode,
    /// The numbers and words of its sentence, named.
    pub params: Vec<(&'static str, Param)>,
}

impl Fault {
    /// A fault of the whole.
    #[must_use]
    pub fn new(code: FaultCode) -> Self {
        Self { path: Path::default(), line: None, code, params: Vec::new() }
    }

    /// A fault of a field.
    #[must_use]
    pub fn of(field: &'static str, code: FaultCode) -> Self {
        Self { path: field.into(), ..Self::new(code) }
    }

    /// The same, with a number or word for its sentence.
    #[must_use]
    pub fn with(mut self, name: &'static str, value: impl Into<Param>) -> Self {
        self.params.push((name, value.into()));
        self
    }

    /// The same, on a line of its text.
    #[must_use]
    pub fn on_line(mut self, line: usize) -> Self {
        self.line = Some(line);
        self
    }
}

/// Where and what, for logs and tests: the sentence is made from the locale files.
impl fmt::Display for Fault {
    fn fmt(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        if let Some(line) = self.line {
            write!(to, "{line}:")?;
        }
        write!(to, "{}:{}", self.path, self.code.as_str())?;
        self.params.iter().try_for_each(|(name, value)| write!(to, " {name}={value:?}"))
    }
}

impl std::error::Error for Fault {}

/// Everything found wrong with an input; at least one fault.
#[derive(Debug, Clone, PartialEq)]
pub struct Faults(pub Vec<Fault>);

impl Faults {
    /// One fault of a field.
    #[must_use]
    pub fn one(field: &'static str, code: FaultCode) -> Self {
        Fault::of(field, code).into()
    }

    /// What was made, if nothing was found wrong with it.
    ///
    /// # Errors
    /// The faults, if there are any.
    pub fn or<T>(found: Vec<Fault>, made: impl FnOnce() -> T) -> Result<T, Self> {
        if found.is_empty() { Ok(made()) } else { Err(Self(found).told()) }
    }

    /// The first [`MOST_TOLD`], and how many more there are.
    ///
    /// # Example
    /// ```
    /// use zymarch_core::base::fault::{Fault, FaultCode, Faults, MOST_TOLD};
    /// let many = Faults(vec![Fault::of("kg", FaultCode::Negative); 140]).told();
    /// assert_eq!(many.0.len(), MOST_TOLD + 1);
    /// assert_eq!(many.0[MOST_TOLD].params, [("count", 40.0.into())]);
    /// assert_eq!(many.clone().told(), many, "told once");
    /// ```
    #[must_use]
    pub fn told(mut self) -> Self {
        let more = self.0.len().saturating_sub(MOST_TOLD);
        let is_told = self.0.last().is_some_and(|last| last.code == FaultCode::AndMore);
        if more > 0 && !is_told {
            self.0.truncate(MOST_TOLD);
            self.0.push(Fault::new(FaultCode::AndMore).with("count", more));
        }
        self
    }

    /// The same, each with the path to here before its own.
    #[must_use]
    pub fn under(self, at: &At<'_>) -> Self {
        Self(self.0.into_iter().map(|fault| at.put(fault)).collect())
    }
}

impl From<Fault> for Faults {
    fn from(fault: Fault) -> Self {
        Self(vec![fault])
    }
}

impl fmt::Display for Faults {
    fn fmt(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        for (place, fault) in self.0.iter().enumerate() {
            write!(to, "{}{fault}", if place > 0 { "\n" } else { "" })?;
        }
        Ok(())
    }
}

impl std::error::Error for Faults {}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_fault_found_below_bears_the_whole_path() {
        let (items, kg) = (At::ROOT.key("items"), Fault::of("kg", FaultCode::Negative).with("got", -2.0));
        let fault = items.index(3).put(kg);
        assert_eq!(fault.path.to_string(), "items[3].kg");
        assert_eq!(fault.params, [("got", Param::Number(-2.0))]);
    }

    #[test]
    fn a_long_word_is_cut_to_what_can_be_read() {
        let fault = Fault::new(FaultCode::UnknownWord).with("got", "x".repeat(5000));
        assert_eq!(fault.params[0].1, Param::Text("x".repeat(60)));
    }

    #[test]
    fn no_code_is_spelled_twice() {
        for (place, code) in FaultCode::ALL.iter().enumerate() {
            assert!(FaultCode::ALL[place + 1..].iter().all(|other| other.as_str() != code.as_str()));
        }
    }
}
