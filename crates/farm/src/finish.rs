//! Finishing and using: what a ready heap gives, and where it goes.

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
