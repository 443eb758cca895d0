//! Names of the API's types: two of one name would be one type to every client, and nothing says so.

use std::collections::BTreeMap;
use std::fs;
use std::path::{Path, PathBuf};

fn sources(folder: &Path, found: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(folder).expect("is there").flatten() {
        let path = entry.path();
        if path.is_dir() {
            sources(&path, found);
        } else if path.extension().is_some_and(|end| end == "rs") {
            found.push(path);
        }
    }
}

/// The types of a file that are described to clients: closed lists, and what derives a schema.
fn described(text: &str) -> Vec<String> {
    let mut names = Vec::new();
    let lines: Vec<&str> = text.lines().map(str::trim).collect();
    for (at, line) in lines.iter().enumerate() {
        let is_list = line.starts_with("closed_list!");
        let is_derived = line.starts_with("#[derive(") && line.contains("ToSchema");
        if !is_list && !is_derived {
            continue;
        }
        let name = lines[at + 1..].iter().take(12).find_map(|line| {
            if is_list {
                let name = line.strip_suffix(" {")?;
                return name.chars().all(char::is_alphanumeric).then(|| name.to_owned());
            }
            let rest = line.split_once("struct ").or_else(|| line.split_once("enum "))?.1;
            Some(rest.chars().take_while(|sign| sign.is_alphanumeric()).collect())
        });
        names.extend(name);
    }
    names
}

#[test]
fn no_two_types_of_the_api_have_one_name() {
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).parent().expect("is in a folder");
    let mut files = Vec::new();
    for part in ["core", "formats", "store", "farm", "app"] {
        sources(&crates.join(part).join("src"), &mut files);
    }
    let mut known: BTreeMap<String, Vec<PathBuf>> = BTreeMap::new();
    for file in files {
        for name in described(&fs::read_to_string(&file).expect("reads")) {
            known.entry(name).or_default().push(file.clone());
        }
    }
    assert!(known.len() > 150, "{}", known.len());
    let twice: Vec<_> = known.iter().filter(|(_, files)| files.len() > 1).collect();
    // A list of the core's own that no client sees may share a name with what they do see.
    let schemas = zymarch::api::description().components.expect("has types").schemas;
    let seen: Vec<_> = twice.into_iter().filter(|(name, _)| schemas.contains_key(*name)).collect();
    assert!(seen.is_empty(), "{seen:#?}");
}
