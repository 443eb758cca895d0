//! No sentence is built in Rust: what people read stands in the locale file.

use std::path::{Path, PathBuf};

const CRATES: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/..");

/// Lines that people do not read: what a defect says, what stands in a log, SQL, headers.
const NOT_FOR_PEOPLE: [&str; 9] = [
    ".expect(",
    "tracing::",
    "panic!",
    "SELECT ",
    "INSERT ",
    "UPDATE ",
    "DELETE ",
    "default-src",
    "base-uri",
];

fn sources(folder: &Path, found: &mut Vec<PathBuf>) {
    for entry in std::fs::read_dir(folder).expect("is a folder").flatten() {
        let path = entry.path();
        // What stands beneath tests is read by nobody but them.
        if path.is_dir() && path.ends_with("tests") {
            continue;
        }
        if path.is_dir() {
            sources(&path, found);
        } else if path.extension().is_some_and(|end| end == "rs")
            && !path.ends_with("tests.rs")
            && !path.ends_with("mind/cautions.rs")
        {
            found.push(path);
        }
    }
}

/// The strings of a source that read like a sentence: four words and more, none of them code.
fn sentences(source: &str) -> Vec<String> {
    let code = source.split("#[cfg(test)]").next().unwrap_or_default();
    let mut found = Vec::new();
    // Attributes and SQL span several lines; what follows them is told by what they begin with.
    let mut is_sql = false;
    let mut attribute = 0_i32;
    for line in code.lines() {
        let line = line.trim();
        if line.starts_with("#[") || attribute > 0 {
            attribute += line.matches(['(', '[']).count() as i32 - line.matches([')', ']']).count() as i32;
            continue;
        }
        let opens_sql = line.ends_with("= \"") || line.ends_with("(\"") || line.ends_with("= \"\\");
        if is_sql || opens_sql {
            is_sql = !(is_sql && line.contains('"'));
            continue;
        }
        if line.starts_with("//") || NOT_FOR_PEOPLE.iter().any(|sign| line.contains(sign)) {
            continue;
        }
        found.extend(
            line.split('"')
                .skip(1)
                .step_by(2)
                .filter(|text| {
                    !text.contains(" WHERE ") && !text.contains("_id,") && !text.contains(", name,")
                })
                .filter(|text| {
                    let words = text.split(' ').filter(|word| {
                        let word = word.trim_matches([',', '.', ':', ';']);
                        word.len() > 1 && word.chars().all(|sign| sign.is_alphabetic() || sign == '\'')
                    });
                    words.count() >= 4
                })
                .map(str::to_owned),
        );
    }
    found
}

#[test]
fn no_sentence_is_built_in_rust() {
    let mut files = Vec::new();
    for name in ["core", "formats", "store", "farm", "app"] {
        sources(&Path::new(CRATES).join(name).join("src"), &mut files);
    }
    assert!(files.len() > 120, "only {} were found", files.len());
    let told: Vec<_> = files
        .iter()
        .flat_map(|file| {
            let source = std::fs::read_to_string(file).expect("is text");
            sentences(&source).into_iter().map(move |text| format!("{}: {text}", file.display()))
        })
        .collect();
    assert!(told.is_empty(), "say it in locales/en.json:\n{}", told.join("\n"));
}

#[test]
fn a_sentence_is_told_from_what_is_none() {
    let source = |text: &str| format!("fn f() {{\n    let x = \"{text}\";\n}}\n");
    assert_eq!(sentences(&source("must be more than the empty bucket")).len(), 1);
    assert_eq!(sentences(&source("lot_id, batch_id, made_on")), [""; 0]);
    assert_eq!(sentences(&format!("// \"{}\"\n", "this is said in a comment")), [""; 0]);
}
