//! Stock said in a sentence.

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_formats::say::{SayAnswer, SayRequest};

/// What was understood of a text, and what is asked back.
///
/// # Errors
/// Every field that stands in the way.
pub fn say(catalogue: &Catalogue, asked: &SayRequest) -> Result<SayAnswer, Faults> {
    asked.read(catalogue)
}
