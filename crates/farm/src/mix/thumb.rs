//! What a rule of thumb truly gives.

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::thumb as rule;
use zymarch_formats::thumb::{ThumbAnswer, ThumbRule};

use crate::words::Under;

/// What a rule of thumb truly gives, by volume, by weight and by dry weight.
///
/// # Errors
/// Every field that stands in the way, or parts without nitrogen.
pub fn thumb(catalogue: &Catalogue, asked: &ThumbRule) -> Result<ThumbAnswer, Faults> {
    let (parts, windows) = asked.asked(catalogue)?;
    let got = rule::thumb(asked.by, &parts, &windows).under("parts")?;
    Ok(ThumbAnswer::new(asked, &got, &windows))
}
