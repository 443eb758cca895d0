//! Saying which field of an input is wrong, and on which line it stands.

use serde::de::DeserializeOwned;
use serde_json::value::RawValue;

/// The largest document accepted, in bytes. A recipe of a thousand items is a
/// tenth of this.
pub const LARGEST_DOCUMENT: usize = 1024 * 1024;

/// One thing wrong with an input.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct FieldError {
    /// Path of the field, as `items[1].moisture_pct`; empty for the document.
    pub field: String,
    /// Line of the text it stands on, from 1, where that is known.
    pub line: Option<usize>,
    /// Why it is refused and what is expected.
    pub reason: String,
}

impl FieldError {
    /// An error of a field whose line is not known (yet).
    pub fn new(field: impl Into<String>, reason: impl Into<String>) -> Self {
        Self { field: field.into(), line: None, reason: reason.into() }
    }
}

impl std::fmt::Display for FieldError {
    fn fmt(&self, out: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        if let Some(line) = self.line {
            write!(out, "line {line}: ")?;
        }
        if !self.field.is_empty() {
            write!(out, "{}: ", self.field)?;
        }
        out.write_str(&self.reason)
    }
}

/// An input that is refused, with everything found wrong with it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Refusal {
    /// At least one.
    pub errors: Vec<FieldError>,
}

impl Refusal {
    /// A refusal for one reason.
    pub fn one(field: impl Into<String>, reason: impl Into<String>) -> Self {
        Self { errors: vec![FieldError::new(field, reason)] }
    }

    /// The same, with the line of each field looked up in the text it came from.
    #[must_use]
    pub fn located_in(mut self, text: &str) -> Self {
        for error in self.errors.iter_mut().filter(|error| error.line.is_none()) {
            error.line = line_of(text, &error.field);
        }
        self
    }
}

impl std::fmt::Display for Refusal {
    fn fmt(&self, out: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        for (index, error) in self.errors.iter().enumerate() {
            if index > 0 {
                out.write_str("\n")?;
            }
            write!(out, "{error}")?;
        }
        Ok(())
    }
}

impl std::error::Error for Refusal {}

/// A document that names its own format and version.
pub trait Document: DeserializeOwned {
    /// The name and version, as `zymarch-recipe/1`.
    const FORMAT: &'static str;
}

/// Reads a document of a format.
///
/// # Errors
/// A [`Refusal`] that names the field and, where it is known, the line.
pub fn document<T: Document>(text: &str) -> Result<T, Refusal> {
    expect_format(text, T::FORMAT).map_err(|refusal| refusal.located_in(text))?;
    read(text)
}

/// Checks that a document names the format and version expected.
///
/// Done before anything else is read, so that a document of a later version is
/// refused for that, and not for a field it has come to spell otherwise.
fn expect_format(text: &str, format: &str) -> Result<(), Refusal> {
    #[derive(serde::Deserialize)]
    struct Named {
        format: Option<serde_json::Value>,
    }
    if text.len() > LARGEST_DOCUMENT {
        return Err(Refusal::one("", format!("the document is larger than {} KB", LARGEST_DOCUMENT / 1024)));
    }
    let named: Named = read(text)?;
    match named.format {
        Some(serde_json::Value::String(found)) if found == format => Ok(()),
        Some(found) => Err(Refusal::one("format", format!("is {found}, but \"{format}\" is read here"))),
        None => Err(Refusal::one("format", format!("is missing; it must be \"{format}\""))),
    }
}

/// Reads JSON, naming the field that does not fit.
///
/// # Errors
/// A [`Refusal`] with the path of the field and the line in the text.
pub fn read<T: DeserializeOwned>(text: &str) -> Result<T, Refusal> {
    let mut json = serde_json::Deserializer::from_str(text);
    let value = serde_path_to_error::deserialize(&mut json).map_err(|error| {
        let path = error.path().to_string();
        let inner = error.into_inner();
        Refusal {
            errors: vec![FieldError {
                field: if path == "." { String::new() } else { path },
                line: (inner.line() > 0).then(|| inner.line()),
                reason: inner.to_string(),
            }],
        }
    })?;
    json.end().map_err(|error| Refusal {
        errors: vec![FieldError {
            field: String::new(),
            line: Some(error.line()),
            reason: "there is something after the end of the document".into(),
        }],
    })?;
    Ok(value)
}

/// Line on which a field of a JSON text stands, from 1.
fn line_of(text: &str, path: &str) -> Option<usize> {
    if path.is_empty() {
        return None;
    }
    let mut here: &RawValue = serde_json::from_str(text).ok()?;
    for step in steps(path) {
        let inner = match step {
            PathStep::Index(index) => {
                serde_json::from_str::<Vec<&RawValue>>(here.get()).ok()?.get(index).copied()
            }
            PathStep::Key(key) => {
                serde_json::from_str::<std::collections::HashMap<String, &RawValue>>(here.get())
                    .ok()?
                    .get(key)
                    .copied()
            }
        };
        // A missing field stands where its parent does.
        match inner {
            Some(value) => here = value,
            None => break,
        }
    }
    let offset = (here.get().as_ptr() as usize).checked_sub(text.as_ptr() as usize)?;
    Some(text.get(..offset)?.matches('\n').count() + 1)
}

enum PathStep<'a> {
    Key(&'a str),
    Index(usize),
}

fn steps(path: &str) -> impl Iterator<Item = PathStep<'_>> {
    path.split(['.', '[']).filter(|step| !step.is_empty()).map(|step| {
        match step.strip_suffix(']').and_then(|index| index.parse().ok()) {
            Some(index) => PathStep::Index(index),
            None => PathStep::Key(step),
        }
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    const TEXT: &str = "{\n  \"items\": [\n    {\"kg\": 1},\n    {\n      \"kg\": -2\n    }\n  ]\n}";

    #[test]
    fn a_field_is_found_on_its_line() {
        assert_eq!(line_of(TEXT, "items[1].kg"), Some(5));
        assert_eq!(line_of(TEXT, "items[0].kg"), Some(3));
    }

    #[test]
    fn a_missing_field_stands_where_its_parent_does() {
        assert_eq!(line_of(TEXT, "items[1].material"), Some(4));
    }

    #[test]
    fn an_error_reads_as_line_field_reason() {
        let refusal = Refusal::one("items[1].kg", "cannot be negative").located_in(TEXT);
        assert_eq!(refusal.to_string(), "line 5: items[1].kg: cannot be negative");
    }
}
