//! Reading documents, and saying which field of one is wrong, on which line.

mod closer;

use crate::strict::Strict;
use crate::text;
use jiff::Timestamp;
use serde::de::DeserializeOwned;
use serde_json::value::RawValue;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults, Param, Path, Seg};
use zymarch_core::base::words::closed_list;

/// The largest document accepted, in bytes. A recipe of a thousand items is a
/// tenth of this.
pub const LARGEST_DOCUMENT: usize = 1024 * 1024;

/// Letters of a name in a path that are told.
const LONGEST_KEY: usize = 60;

/// A document that names its own format and version.
pub trait Document: DeserializeOwned {
    /// The name and version, as `zymarch-recipe/1`.
    const FORMAT: &'static str;
}

/// Reads a document of a format.
///
/// # Errors
/// [`Faults`] that name the field and, where it is known, the line.
pub fn document<T: Document>(text: &str) -> Result<T, Faults> {
    expect_format(text, T::FORMAT).map_err(|faults| located(faults, text))?;
    read(text)
}

/// Checks that a document that was read says the format it was read as.
pub(crate) fn is_format(said: &str, format: &'static str, found: &mut Vec<Fault>) {
    if said != format {
        found.push(wrong_format(said.to_owned(), format));
    }
}

/// A time [ms since 1970]; what is none is told.
pub(crate) fn time(text: &str, at: &At<'_>, found: &mut Vec<Fault>) -> i64 {
    text.parse::<Timestamp>().map(|time| time.as_millisecond()).unwrap_or_else(|_| {
        found.push(at.fault(FaultCode::NotATime).with("got", text.to_owned()));
        0
    })
}

fn wrong_format(got: String, expected: &'static str) -> Fault {
    Fault::of("format", FaultCode::WrongFormat).with("got", got).with("expected", expected)
}

/// Checks that a document names the format and version expected.
///
/// Done before anything else is read, so that a document of a later version is
/// refused for that, and not for a field it has come to spell otherwise.
fn expect_format(text: &str, format: &'static str) -> Result<(), Faults> {
    #[derive(serde::Deserialize)]
    struct Named {
        format: Option<serde_json::Value>,
    }
    if text.len() > LARGEST_DOCUMENT {
        let most_kb = LARGEST_DOCUMENT / 1024;
        return Err(Fault::new(FaultCode::DocumentTooLarge).with("most_kb", most_kb).into());
    }
    let named: Named = read(text)?;
    match named.format {
        Some(serde_json::Value::String(found)) if found == format => Ok(()),
        Some(serde_json::Value::String(found)) => Err(wrong_format(found, format).into()),
        Some(found) => Err(wrong_format(found.to_string(), format).into()),
        None => Err(Fault::of("format", FaultCode::NoFormat).with("expected", format).into()),
    }
}

/// Reads JSON, naming the field that does not fit.
///
/// # Errors
/// One fault with the path of the field and the line in the text.
pub fn read<T: DeserializeOwned>(text: &str) -> Result<T, Faults> {
    let text = text::unmarked(text).unwrap_or(text);
    first_read(text).map_err(|fault| {
        match closer::path(text, &fault, &|text| first_read::<T>(text).is_ok()) {
            // What it now names stands on a line of its own.
            Some(path) => located(Fault { path, line: None, ..fault }.into(), text),
            None => fault.into(),
        }
    })
}

/// Reads JSON; the fault names what the reader was at.
fn first_read<T: DeserializeOwned>(text: &str) -> Result<T, Fault> {
    let mut json = serde_json::Deserializer::from_str(text);
    let value = serde_path_to_error::deserialize(Strict(&mut json)).map_err(|error| {
        let path = path(error.path());
        let inner = error.into_inner();
        let line = (inner.line() > 0).then(|| inner.line());
        let (missing, fault) = classified(&inner);
        let path = Path::new(
            path.steps().iter().cloned().chain(missing.map(|key| Seg::Key(shown(&key).into()))).collect(),
        );
        Fault { path, line, ..fault }
    })?;
    json.end().map_err(|error| Fault::new(FaultCode::AfterEnd).on_line(error.line()))?;
    Ok(value)
}

fn path(of: &serde_path_to_error::Path) -> Path {
    use serde_path_to_error::Segment;
    let steps = of.iter().filter_map(|segment| match segment {
        Segment::Seq { index } => Some(Seg::Index(*index)),
        Segment::Map { key } => Some(Seg::Key(shown(key).into())),
        Segment::Enum { .. } | Segment::Unknown => None,
    });
    Path::new(steps.collect())
}

/// A name that was sent may be of any length; a path keeps to what can be read.
fn shown(key: &str) -> String {
    key.chars().take(LONGEST_KEY).collect()
}

closed_list! {
    /// How something is written in a document; its words stand in the locale files under `written`.
    Written {
        /// Fields with values.
        Object = "object",
        /// Several in order.
        List = "list",
        /// Words between quotation marks.
        Text = "text",
        /// A number.
        Number = "number",
        /// True or false.
        YesOrNo = "yes-or-no",
        /// `null`.
        Nothing = "nothing",
        /// In no way that is told from the others.
        Otherwise = "otherwise",
    }
}

impl Written {
    /// What a reader means by what it calls so.
    fn of(called: &str) -> Self {
        const CALLED: [(&str, Written); 17] = [
            ("struct", Written::Object),
            ("map", Written::Object),
            ("sequence", Written::List),
            ("array", Written::List),
            ("tuple", Written::List),
            ("string", Written::Text),
            ("str", Written::Text),
            ("character", Written::Text),
            ("integer", Written::Number),
            ("floating", Written::Number),
            ("number", Written::Number),
            ("boolean", Written::YesOrNo),
            ("bool", Written::YesOrNo),
            ("null", Written::Nothing),
            ("unit", Written::Nothing),
            ("f64", Written::Number),
            ("date", Written::Text),
        ];
        let mut words =
            called.split(|letter: char| !letter.is_ascii_alphanumeric()).filter(|word| !word.is_empty());
        let is_whole = |word: &str| {
            matches!(word.as_bytes(), [b'u' | b'i', rest @ ..] if !rest.is_empty() && rest.iter().all(u8::is_ascii_digit))
                || matches!(word, "usize" | "isize")
        };
        words
            .find_map(|word| match CALLED.iter().find(|(name, _)| *name == word) {
                Some((_, written)) => Some(*written),
                None => is_whole(word).then_some(Self::Number),
            })
            .unwrap_or(Self::Otherwise)
    }
}

/// What was met and what was expected, behind what a reader begins such an error with.
fn after<'t>(text: &'t str, begins: &str) -> Option<(&'t str, &'t str)> {
    let (got, expected) = text.strip_prefix(begins)?.split_once(", expected ")?;
    Some((got, expected.split(" at line").next().unwrap_or(expected)))
}

/// What a reader's error comes to. The reader words it; here its shape is taken, and
/// the words are left to the locale files. First the field that is missing, or there twice.
fn classified(error: &serde_json::Error) -> (Option<String>, Fault) {
    let text = error.to_string();
    if !error.is_data() {
        // A list that goes on where a pair should end is JSON all the same.
        let is_longer = text.starts_with("trailing characters");
        return (None, Fault::new(if is_longer { FaultCode::Unreadable } else { FaultCode::NotJson }));
    }
    let quoted = |nth: usize| text.split('`').nth(2 * nth + 1).unwrap_or("").to_owned();
    let known = || -> Param { text.split('`').skip(3).step_by(2).collect() };
    if text.starts_with("missing field") {
        return (Some(quoted(0)), Fault::new(FaultCode::Missing));
    }
    if text.starts_with("duplicate field") {
        return (Some(quoted(0)), Fault::new(FaultCode::Twice));
    }
    let fault = if text.starts_with("unknown field") {
        Fault::new(FaultCode::UnknownField).with("got", quoted(0))
    } else if text.starts_with("unknown variant") {
        Fault::new(FaultCode::UnknownWord).with("got", quoted(0)).with("known", known())
    } else if let Some((got, expected)) = after(&text, "invalid length ") {
        let length = expected.split_whitespace().find_map(|word| word.parse::<usize>().ok()).unwrap_or(0);
        let got: usize = got.parse().unwrap_or(0);
        Fault::new(FaultCode::CountOutside).with("got", got).with("least", length).with("most", length)
    } else if let Some((got, expected)) =
        after(&text, "invalid type: ").or_else(|| after(&text, "invalid value: "))
    {
        let (is, must_be) = (Written::of(got).as_str(), Written::of(expected).as_str());
        Fault::new(FaultCode::WrongType).with("is", is).with("must_be", must_be)
    } else {
        Fault::new(FaultCode::Unreadable)
    };
    (None, fault)
}

/// The same faults, each with the line of its field in the text it came from. The
/// text is walked once, however many faults there are.
#[must_use]
pub fn located(faults: Faults, text: &str) -> Faults {
    let Faults(mut found) = faults.told();
    let text = text::unmarked(text).unwrap_or(text);
    let Ok(whole) = serde_json::from_str::<&RawValue>(text) else { return Faults(found) };
    let ends: Vec<usize> =
        text.bytes().enumerate().filter(|(_, byte)| *byte == b'\n').map(|(at, _)| at).collect();
    let line_at = |raw: &RawValue| {
        let offset = (raw.get().as_ptr() as usize).saturating_sub(text.as_ptr() as usize);
        ends.partition_point(|end| *end < offset) + 1
    };
    let mut open: Vec<(usize, &mut Fault)> = found
        .iter_mut()
        .filter(|fault| fault.line.is_none() && !fault.path.is_whole())
        .map(|f| (0, f))
        .collect();
    walk(whole, &mut open, &line_at);
    Faults(found)
}

/// Gives each fault the line of what it is about; a missing field stands where its parent does.
fn walk(here: &RawValue, faults: &mut [(usize, &mut Fault)], line_at: &impl Fn(&RawValue) -> usize) {
    for (_, fault) in faults.iter_mut() {
        fault.line = Some(line_at(here));
    }
    let mut deeper: Vec<(Seg, usize)> = faults
        .iter()
        .enumerate()
        .filter_map(|(at, (depth, fault))| Some((fault.path.steps().get(*depth)?.clone(), at)))
        .collect();
    if deeper.is_empty() {
        return;
    }
    deeper.sort_by_key(|(step, _)| match step {
        Seg::Index(index) => (0, *index, String::new()),
        Seg::Key(key) => (1, 0, key.to_string()),
    });
    let list: Option<Vec<&RawValue>> = serde_json::from_str(here.get()).ok();
    let fields: Option<std::collections::HashMap<String, &RawValue>> = match list {
        Some(_) => None,
        None => serde_json::from_str(here.get()).ok(),
    };
    let inside = |step: &Seg| match step {
        Seg::Index(index) => list.as_ref()?.get(*index).copied(),
        Seg::Key(key) => fields.as_ref()?.get(key.as_ref()).copied(),
    };
    let mut rest = &deeper[..];
    while let Some((step, _)) = rest.first() {
        let same = rest.iter().take_while(|(other, _)| other == step).count();
        let (group, after) = rest.split_at(same);
        rest = after;
        let Some(value) = inside(step) else { continue };
        let chosen: std::collections::HashSet<usize> = group.iter().map(|(_, at)| *at).collect();
        let mut below: Vec<(usize, &mut Fault)> = faults
            .iter_mut()
            .enumerate()
            .filter(|(at, _)| chosen.contains(at))
            .map(|(_, (depth, fault))| (*depth + 1, &mut **fault))
            .collect();
        walk(value, &mut below, line_at);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const TEXT: &str = "{\n  \"items\": [\n    {\"kg\": 1},\n    {\n      \"kg\": -2\n    }\n  ]\n}";

    fn line_of(steps: Vec<Seg>) -> Option<usize> {
        let fault = Fault { path: Path::new(steps), ..Fault::new(FaultCode::Negative) };
        located(fault.into(), TEXT).0[0].line
    }

    fn at(index: usize, key: &'static str) -> Vec<Seg> {
        vec![Seg::Key("items".into()), Seg::Index(index), Seg::Key(key.into())]
    }

    #[test]
    fn a_field_is_found_on_its_line() {
        assert_eq!(line_of(at(1, "kg")), Some(5));
        assert_eq!(line_of(at(0, "kg")), Some(3));
    }

    #[test]
    fn a_missing_field_stands_where_its_parent_does() {
        assert_eq!(line_of(at(1, "material")), Some(4));
        assert_eq!(line_of(Vec::new()), None);
    }

    #[test]
    fn many_faults_are_each_found_in_one_walk() {
        let fault = |steps| Fault { path: Path::new(steps), ..Fault::new(FaultCode::Negative) };
        let many =
            Faults(vec![fault(at(1, "kg")), fault(at(0, "kg")), fault(at(1, "kg")), fault(at(9, "kg"))]);
        let lines: Vec<_> = located(many, TEXT).0.iter().map(|fault| fault.line).collect();
        assert_eq!(lines, [Some(5), Some(3), Some(5), Some(2)]);
    }

    #[test]
    fn what_a_reader_refuses_is_told_by_its_shape() {
        #[derive(Debug, serde::Deserialize)]
        #[serde(deny_unknown_fields)]
        #[allow(dead_code, reason = "only read")]
        struct One {
            kg: f64,
            kind: Option<zymarch_core::stock::material::Kind>,
        }
        let code = |text: &str| {
            let fault = read::<One>(text).expect_err("refused").0.remove(0);
            (fault.path.to_string(), fault.code)
        };
        assert_eq!(code("{"), (String::new(), FaultCode::NotJson));
        assert_eq!(code("{}"), ("kg".into(), FaultCode::Missing));
        assert_eq!(code(r#"{"kg":1,"lb":2}"#), ("lb".into(), FaultCode::UnknownField));
        assert_eq!(code(r#"{"kg":"x"}"#), ("kg".into(), FaultCode::WrongType));
        assert_eq!(code(r#"{"kg":1,"kind":"beige"}"#), ("kind".into(), FaultCode::UnknownWord));
        let told = |text: &str| read::<One>(text).expect_err("refused").0.remove(0).params;
        assert_eq!(told(r#"{"kg":"struct"}"#), [("is", "text".into()), ("must_be", "number".into())]);
        assert_eq!(told(r#"{"kg":[1]}"#), [("is", "list".into()), ("must_be", "number".into())]);
        assert_eq!(told(r#"[1]"#), [("is", "list".into()), ("must_be", "object".into())]);
        assert_eq!(told(r#"{"kg":null}"#), [("is", "nothing".into()), ("must_be", "number".into())]);
        assert_eq!(code(r#"{"kg":1} x"#), (String::new(), FaultCode::AfterEnd));
    }
}
