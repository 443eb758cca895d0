//! The words of the program: one table for the screen, the API and the terminal.
//!
//! What is wrong with an input is a code with numbers; here it becomes a sentence.

use std::collections::BTreeMap;
use std::sync::LazyLock;

use rust_embed::RustEmbed;
use serde::Deserialize;
use zymarch_core::base::fault::{Fault, Faults, Param};

#[derive(RustEmbed)]
#[folder = "../../locales"]
#[include = "en.json"]
struct Locales;

/// The parts of a locale file that are spoken outside the browser.
#[derive(Debug, Default, Deserialize)]
struct Words {
    fault: BTreeMap<String, String>,
    record: BTreeMap<String, String>,
    written: BTreeMap<String, String>,
    program: BTreeMap<String, String>,
    task: TaskWords,
}

/// What is to be done at a heap, in words that a calendar has too.
#[derive(Debug, Default, Deserialize)]
struct TaskWords {
    does: BTreeMap<String, String>,
    why: BTreeMap<String, String>,
    with: BTreeMap<String, String>,
}

static WORDS: LazyLock<Words> = LazyLock::new(|| {
    let file = Locales::get("en.json").expect("the words are embedded");
    serde_json::from_slice(&file.data).expect("the words are well formed")
});

/// What a fault says, without where it is.
///
/// # Example
/// ```
/// use zymarch_core::base::fault::{Fault, FaultCode};
/// let fault = Fault::of("kg", FaultCode::Negative).with("got", -2.0);
/// assert_eq!(zymarch::words::of_fault(&fault), "must not be less than 0");
/// ```
#[must_use]
pub fn of_fault(fault: &Fault) -> String {
    let template = WORDS.fault.get(fault.code.as_str()).map_or("", String::as_str);
    filled(template, |name| {
        let (_, param) = fault.params.iter().find(|(known, _)| *known == name)?;
        Some(match param {
            Param::Text(word) if name == "kind" => WORDS.record.get(word).cloned().unwrap_or(word.clone()),
            Param::Text(word) if matches!(name, "is" | "must_be") => {
                WORDS.written.get(word).cloned().unwrap_or(word.clone())
            }
            Param::Text(word) => word.clone(),
            Param::Number(number) => number.to_string(),
            Param::Words(words) => words.join(", "),
        })
    })
}

/// What a fault says and where: line, field, sentence.
#[must_use]
pub fn placed(fault: &Fault) -> String {
    let line = fault.line.map(|line| said("line", &[("line", &line.to_string())])).unwrap_or_default();
    let field = if fault.path.is_whole() { String::new() } else { format!("{} ", fault.path) };
    format!("{line}{field}{}", of_fault(fault))
}

/// What all faults say, one a line.
#[must_use]
pub fn all(faults: &Faults) -> String {
    faults.0.iter().map(placed).collect::<Vec<_>>().join("\n")
}

/// A sentence of the program itself.
#[must_use]
pub fn said(key: &str, params: &[(&str, &str)]) -> String {
    let template = WORDS.program.get(key).map_or("", String::as_str);
    filled(template, |name| {
        params.iter().find(|(known, _)| *known == name).map(|(_, value)| (*value).to_owned())
    })
}

/// What is to be done at a heap (`does`), why (`why`), or with what (`with`).
#[must_use]
pub fn task(group: &str, key: &str, params: &[(&'static str, String)]) -> String {
    let words = match group {
        "does" => &WORDS.task.does,
        "why" => &WORDS.task.why,
        _ => &WORDS.task.with,
    };
    let template = words.get(key).map_or("", String::as_str);
    filled(template, |name| params.iter().find(|(known, _)| *known == name).map(|(_, value)| value.clone()))
}

/// A template with its `{names}` filled in; those that are not known stay away.
fn filled(template: &str, of: impl Fn(&str) -> Option<String>) -> String {
    let mut text = String::with_capacity(template.len() + 32);
    let mut rest = template;
    while let Some((before, after)) = rest.split_once('{') {
        text.push_str(before);
        let Some((name, behind)) = after.split_once('}') else { break };
        text.push_str(&of(name).unwrap_or_default());
        rest = behind;
    }
    text.push_str(rest);
    text
}

#[cfg(test)]
mod tests {
    use zymarch_core::base::fault::FaultCode;

    use super::*;

    #[test]
    fn every_fault_has_words_and_no_words_are_left_over() {
        let known: Vec<_> = FaultCode::ALL.iter().map(|code| code.as_str()).collect();
        for code in &known {
            assert!(WORDS.fault.get(*code).is_some_and(|words| !words.is_empty()), "{code} has no words");
        }
        let left: Vec<_> = WORDS.fault.keys().filter(|key| !known.contains(&key.as_str())).collect();
        assert!(left.is_empty(), "words without a fault: {left:?}");
    }

    #[test]
    fn a_fault_is_said_with_its_place_and_its_numbers() {
        let fault = Fault::of("moisture_pct", FaultCode::OutOfRange).with("low", 0.0).with("high", 99.0);
        let fault = fault.with("got", 120.0).on_line(7);
        assert_eq!(placed(&fault), "line 7: moisture_pct must be from 0 to 99, got 120");
        let gone = Fault::new(FaultCode::NotFound).with("kind", "lot");
        assert_eq!(placed(&gone), "this lot is not there; it may have been removed");
    }
}
