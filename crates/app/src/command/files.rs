//! Commands that turn a file into an answer.

use std::io::{ErrorKind, Read, Write};
use std::path::Path;

use serde::Serialize;
use zymarch_core::catalogue::Catalogue;
use zymarch_formats::field::{self, Document, LARGEST_DOCUMENT, Refusal};

use super::Failure;

/// Reads a document, and prints what the core answers to it, by the book's figures.
pub(super) fn answer<T: Document, A: Serialize>(
    file: &Path,
    of: impl Fn(&T, &Catalogue) -> Result<A, Refusal>,
) -> Result<(), Failure> {
    let text = read(file)?;
    let answered = field::document(&text).and_then(|document| of(&document, &Catalogue::book()));
    match answered {
        Ok(value) => print(&value),
        Err(refusal) => Err(Failure::Input(named(file, &refusal.located_in(&text)))),
    }
}

pub(super) fn openapi() -> Result<(), Failure> {
    print(&crate::api::description())
}

pub(super) fn schema(format: &str) -> Result<(), Failure> {
    match crate::api::schema::of(format) {
        Some(schema) => print(&schema),
        None => {
            let known: Vec<_> = crate::api::schema::FORMATS.iter().map(|(name, _)| *name).collect();
            Err(Failure::Input(format!("there is no format `{format}`; there are {}", known.join(", "))))
        }
    }
}

/// One line a fault, each with the file it is in.
fn named(file: &Path, refusal: &Refusal) -> String {
    let name = if is_standard_input(file) { "standard input".into() } else { file.display().to_string() };
    refusal.errors.iter().map(|error| format!("{name}: {error}")).collect::<Vec<_>>().join("\n")
}

fn is_standard_input(file: &Path) -> bool {
    file.as_os_str() == "-"
}

/// Reads no more than a document may hold, and one byte to notice that it holds more.
fn read(file: &Path) -> Result<String, Failure> {
    let fault = |reason: String| Failure::Input(format!("{}: {reason}", file.display()));
    let input: Box<dyn Read> = if is_standard_input(file) {
        Box::new(std::io::stdin().lock())
    } else {
        Box::new(std::fs::File::open(file).map_err(|error| fault(error.to_string()))?)
    };
    let mut text = String::new();
    input.take(LARGEST_DOCUMENT as u64 + 1).read_to_string(&mut text).map_err(|error| {
        match error.kind() {
            ErrorKind::InvalidData => fault("is not text in UTF-8".into()),
            _ => fault(error.to_string()),
        }
    })?;
    Ok(text)
}

fn print(value: &impl Serialize) -> Result<(), Failure> {
    let failed = |reason: String| Failure::Other(format!("the answer could not be written: {reason}"));
    let text = serde_json::to_string_pretty(value).map_err(|error| failed(error.to_string()))?;
    match writeln!(std::io::stdout(), "{text}") {
        // Whoever read the answer has seen enough.
        Err(error) if error.kind() == ErrorKind::BrokenPipe => Ok(()),
        done => done.map_err(|error| failed(error.to_string())),
    }
}
