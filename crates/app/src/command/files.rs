//! Commands that turn a file into an answer.

use std::io::{ErrorKind, Read, Write};
use std::path::Path;

use serde::Serialize;
use zymarch_core::base::fault::{Fault, FaultCode, Faults, Param};
use zymarch_core::catalogue::Catalogue;
use zymarch_formats::field::{self, Document, LARGEST_DOCUMENT};
use zymarch_formats::text;

use super::Failure;
use crate::words;

/// Reads a document, and prints what comes of it, by the book's figures.
pub(super) fn answer<T: Document, A: Serialize>(
    file: &Path,
    of: impl Fn(&Catalogue, &T) -> Result<A, Faults>,
) -> Result<(), Failure> {
    print(&reckoned(file, of)?)
}

/// Reads a document, for what is done with what comes of it.
pub(super) fn reckoned<T: Document, A>(
    file: &Path,
    of: impl Fn(&Catalogue, &T) -> Result<A, Faults>,
) -> Result<A, Failure> {
    let text = read(file).map_err(|fault| named(file, &fault.into()))?;
    let answered = field::document(&text).and_then(|document| of(&Catalogue::book(), &document));
    answered.map_err(|faults| named(file, &field::located(faults, &text)))
}

pub(super) fn openapi() -> Result<(), Failure> {
    print(&crate::api::description())
}

pub(super) fn schema(format: &str) -> Result<(), Failure> {
    match crate::api::schema::of(format) {
        Some(schema) => print(&schema),
        None => {
            let known: Param = crate::api::schema::FORMATS.iter().map(|(name, _)| *name).collect();
            Err(Fault::new(FaultCode::UnknownFormat).with("got", format).with("known", known).into())
        }
    }
}

/// Every fault of a file, each on its own line with the file's name before it.
pub(super) fn named(file: &Path, faults: &Faults) -> Failure {
    let name =
        if is_standard_input(file) { words::said("standardInput", &[]) } else { file.display().to_string() };
    let lines: Vec<_> = faults.0.iter().map(|fault| format!("{name}: {}", words::placed(fault))).collect();
    Failure::Input(lines.join("\n"))
}

fn is_standard_input(file: &Path) -> bool {
    file.as_os_str() == "-"
}

/// Reads no more than a document may hold, and one byte to notice that it holds more.
fn read(file: &Path) -> Result<String, Fault> {
    let unread = |error: std::io::Error| Fault::new(FaultCode::FileUnread).with("why", error.to_string());
    let input: Box<dyn Read> = if is_standard_input(file) {
        Box::new(std::io::stdin().lock())
    } else {
        Box::new(std::fs::File::open(file).map_err(unread)?)
    };
    let mut bytes = Vec::new();
    input.take(LARGEST_DOCUMENT as u64 + 1).read_to_end(&mut bytes).map_err(unread)?;
    if bytes.len() > LARGEST_DOCUMENT {
        return Err(Fault::new(FaultCode::DocumentTooLarge).with("most_kb", LARGEST_DOCUMENT / 1024));
    }
    text::decoded(bytes)
}

fn print(value: &impl Serialize) -> Result<(), Failure> {
    let text = serde_json::to_string_pretty(value).map_err(|error| Failure::other(&error))?;
    match writeln!(std::io::stdout(), "{text}") {
        // Whoever read the answer has seen enough.
        Err(error) if error.kind() == ErrorKind::BrokenPipe => Ok(()),
        done => done.map_err(|error| Failure::other(&error)),
    }
}
