//! `zymarch`: see `zymarch --help`.

use std::process::ExitCode;

fn main() -> ExitCode {
    zymarch::command::run()
}
