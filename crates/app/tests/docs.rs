//! What the documents promise to be tested is.

use std::path::Path;

const ROOT: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../..");

/// Where tests are that hold a line: those of the whole program, and those beside the code of people.
const FOLDERS: [&str; 2] = ["crates/app/tests", "crates/farm/src/people"];

#[test]
fn every_test_that_is_named_as_holding_a_line_is_there() {
    let told = std::fs::read_to_string(Path::new(ROOT).join("docs/security.md")).expect("is there");
    let (mut seen, mut missing) = (0, Vec::new());
    for named in told.split('`').skip(1).step_by(2) {
        // What begins with a capital is a type.
        let is_test = |name: &str| name.starts_with(|first: char| first.is_ascii_lowercase());
        let Some((file, test)) = named.split_once("::").filter(|(_, test)| is_test(test)) else { continue };
        let sources: Vec<String> = FOLDERS
            .iter()
            .filter_map(|folder| std::fs::read_to_string(format!("{ROOT}/{folder}/{file}.rs")).ok())
            .collect();
        if sources.is_empty() {
            continue;
        }
        seen += 1;
        // A long name is told by its beginning.
        let begins = format!("fn {}", test.trim_end_matches('…'));
        if !sources.iter().any(|source| source.contains(&begins)) {
            missing.push(named);
        }
    }
    assert_eq!(missing, [""; 0]);
    assert!(seen > 15, "only {seen} were found");
}
