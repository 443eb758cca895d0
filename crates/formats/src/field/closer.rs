//! Which field it was, where a reader only tells the object that holds it.
//!
//! What an object is can hang on a word in it (`kind`), and then its fields are read after the
//! reader has left them. A fault of one of them is looked for where it would stand: what was met
//! there is known, and with another value in its place the fault is gone.

use serde_json::Value;
use zymarch_core::base::fault::{Fault, FaultCode, Param, Path, Seg};

use super::{LARGEST_DOCUMENT, Written};

/// So many values of an object are tried: those of what a person writes, not of a file of readings.
const MOST_TRIED: usize = 200;

/// So much is read again for it [bytes]: of a document that is as large as may be, a few tries.
const MOST_READ: usize = 4 * LARGEST_DOCUMENT;

/// The path of the value that a fault is about, if it is one of those under the path it was given; `is_read`
/// tells whether a text would do.
pub(super) fn path(text: &str, found: &Fault, is_read: &dyn Fn(&str) -> bool) -> Option<Path> {
    let whole: Value = serde_json::from_str(text).ok()?;
    let object = under(&whole, found.path.steps())?;
    let wrong = Wrong::of(found)?;
    let is_it = |place: &[Seg]| {
        let mut other = whole.clone();
        let Some(value) = within(&mut other, found.path.steps().iter().chain(place)) else { return false };
        *value = wrong.instead();
        is_read(&other.to_string())
    };
    if wrong.is(object) && is_it(&[]) {
        return None;
    }
    let mut places = Vec::new();
    look(object, &mut Vec::new(), &wrong, &mut places);
    let place = match &places[..] {
        [only] => only,
        many => many.iter().take(MOST_READ / text.len().max(1)).find(|place| is_it(place))?,
    };
    Some(Path::new(found.path.steps().iter().chain(place).cloned().collect()))
}

/// What was met, and what would do.
enum Wrong<'f> {
    /// A value written otherwise than it must be.
    Type { is: &'f str, must_be: &'f str },
    /// A word that is none of those known.
    Word { got: &'f str, known: Option<&'f str> },
}

impl<'f> Wrong<'f> {
    fn of(fault: &'f Fault) -> Option<Self> {
        let text = |name: &str| match &fault.params.iter().find(|(of, _)| *of == name)?.1 {
            Param::Text(text) => Some(text.as_str()),
            Param::Words(words) => words.first().map(String::as_str),
            Param::Number(_) => None,
        };
        match fault.code {
            FaultCode::WrongType => Some(Self::Type { is: text("is")?, must_be: text("must_be")? }),
            FaultCode::UnknownWord => Some(Self::Word { got: text("got")?, known: text("known") }),
            _ => None,
        }
    }

    fn is(&self, value: &Value) -> bool {
        match self {
            Self::Type { is, .. } => *is == written(value).as_str(),
            Self::Word { got, .. } => value.as_str() == Some(got),
        }
    }

    fn instead(&self) -> Value {
        match self {
            Self::Type { must_be, .. } => match *must_be {
                "object" => Value::Object(serde_json::Map::new()),
                "list" => Value::Array(Vec::new()),
                "number" => Value::from(0),
                "yes-or-no" => Value::Bool(false),
                "nothing" => Value::Null,
                _ => Value::from(""),
            },
            Self::Word { known, .. } => Value::from(known.unwrap_or("")),
        }
    }
}

const fn written(value: &Value) -> Written {
    match value {
        Value::Object(_) => Written::Object,
        Value::Array(_) => Written::List,
        Value::String(_) => Written::Text,
        Value::Number(_) => Written::Number,
        Value::Bool(_) => Written::YesOrNo,
        Value::Null => Written::Nothing,
    }
}

fn under<'v>(value: &'v Value, steps: &[Seg]) -> Option<&'v Value> {
    steps.iter().try_fold(value, |here, step| match step {
        Seg::Index(index) => here.get(index),
        Seg::Key(key) => here.get(key.as_ref()),
    })
}

fn within<'v, 's>(value: &'v mut Value, steps: impl Iterator<Item = &'s Seg>) -> Option<&'v mut Value> {
    let mut here = value;
    for step in steps {
        here = match step {
            Seg::Index(index) => here.get_mut(index)?,
            Seg::Key(key) => here.get_mut(key.as_ref())?,
        };
    }
    Some(here)
}

/// Every value under one that is what was met, itself left out.
fn look(value: &Value, at: &mut Vec<Seg>, wrong: &Wrong<'_>, found: &mut Vec<Vec<Seg>>) {
    let mut inside = |step: Seg, value: &Value| {
        if found.len() >= MOST_TRIED {
            return;
        }
        at.push(step);
        if wrong.is(value) {
            found.push(at.clone());
        }
        look(value, at, wrong, found);
        at.pop();
    };
    match value {
        Value::Object(fields) => {
            fields.iter().for_each(|(key, value)| inside(Seg::Key(key.clone().into()), value));
        }
        Value::Array(list) => {
            list.iter().enumerate().for_each(|(index, value)| inside(Seg::Index(index), value));
        }
        _ => {}
    }
}

#[cfg(test)]
mod tests {
    use serde::Deserialize;

    use crate::field::read;

    #[derive(Debug, Deserialize)]
    struct Log {
        #[serde(rename = "log")]
        _log: Vec<Entry>,
    }

    #[derive(Debug, Deserialize)]
    struct Entry {
        #[serde(rename = "at")]
        _at: String,
        #[serde(flatten)]
        _what: What,
    }

    #[derive(Debug, Deserialize)]
    #[serde(tag = "kind", rename_all = "kebab-case")]
    enum What {
        Temperature {
            #[serde(rename = "temp_c")]
            _temp_c: f64,
        },
        Add {
            #[serde(rename = "items")]
            _items: Vec<Item>,
        },
        Seen {
            #[serde(rename = "signs")]
            _signs: Vec<Sign>,
        },
    }

    #[derive(Debug, Deserialize)]
    struct Item {
        #[serde(rename = "kg")]
        _kg: f64,
    }

    #[derive(Debug, Deserialize)]
    #[serde(rename_all = "kebab-case")]
    enum Sign {
        Steam,
        Flies,
    }

    fn at(entry: &str) -> String {
        let text =
            format!("{{\"log\": [{{\"at\": \"noon\", \"kind\": \"seen\", \"signs\": []}},\n{entry}]}}");
        let faults = read::<Log>(&text).expect_err("is wrong");
        format!("{}:{}", faults.0[0].line.unwrap_or(0), faults.0[0].path)
    }

    #[test]
    fn the_field_of_an_entry_is_named_whatever_kind_it_is_of() {
        assert_eq!(at(r#"{"at": "noon", "kind": "temperature", "temp_c": "hot"}"#), "2:log[1].temp_c");
        assert_eq!(
            at(r#"{"at": "noon", "kind": "add", "items": [{"kg": 1}, {"kg": "five"}]}"#),
            "2:log[1].items[1].kg"
        );
        assert_eq!(
            at(r#"{"at": "noon", "kind": "seen", "signs": ["flies", "steam", "stem"]}"#),
            "2:log[1].signs[2]"
        );
        assert_eq!(at(r#"{"at": "noon", "kind": "tempratur", "temp_c": 3}"#), "2:log[1].kind");
        assert_eq!(at(r#"{"at": 5, "kind": "temperature", "temp_c": 3}"#), "2:log[1].at");
        assert_eq!(at(r#"{"at": "noon", "kind": "temperature", "temp_c": {"of": {}}}"#), "2:log[1].temp_c");
    }

    #[test]
    fn what_cannot_be_told_apart_stays_with_what_holds_it() {
        let two = r#"{"at": "noon", "kind": "add", "items": [{"kg": "six"}, {"kg": "five"}]}"#;
        assert_eq!(at(two), "2:log[1]");
        assert_eq!(at("{\"at\": \"noon\", \"kind\": \"temperature\"}"), "2:log[1].temp_c");
    }
}
