//! Finishing and using: what a ready heap gives, what that holds, where it goes, and where it came from.

pub mod compare;
pub mod compost;
pub mod ground;
pub mod harvest;
mod holds;
pub mod lab;
pub mod trace;
pub mod used;

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_formats::apply::{ApplyAnswer, ApplyRequest};

/// How much compost a use needs, what that brings, and how far what there is goes.
///
/// # Errors
/// Every field that is wrong.
pub fn apply(_: &Catalogue, asked: &ApplyRequest) -> Result<ApplyAnswer, Faults> {
    asked.answered()
}
