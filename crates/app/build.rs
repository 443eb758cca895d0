//! Says plainly what to do when the web files have not been built.

use std::path::Path;

fn main() {
    let dist = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web/dist");
    println!("cargo::rerun-if-changed={}", dist.display());
    println!("cargo::rerun-if-changed=../../demo");
    if !dist.join("index.html").exists() {
        println!(
            "cargo::error=web/dist is missing: run `make web/dist/index.html` (make demo and make test do)"
        );
    }
}
