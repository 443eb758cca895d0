//! What to add to a mix to bring it to the middle.

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::correct as rule;
use zymarch_core::mix::window::Flaw;
use zymarch_core::stock::Lot;
use zymarch_formats::correct::{CorrectAnswer, CorrectChoice, CorrectFlaw, CorrectRequest, FORMAT, Offered};

use super::summed;
use crate::words::Under;

/// What to add to a mix to bring it to the middle: for every flaw, first what is on
/// hand, then what could be fetched.
///
/// # Errors
/// Every field that stands in the way.
pub fn correct(catalogue: &Catalogue, request: &CorrectRequest) -> Result<CorrectAnswer, Faults> {
    request.checked()?;
    let resolved = request.recipe.resolve(catalogue).under("recipe")?;
    let figures = summed(&resolved).under("recipe")?;
    let (on_hand, to_fetch) = request.offered(catalogue)?;
    let choices = |flaw: Flaw, offered: &[Offered]| -> Vec<CorrectChoice> {
        let lots: Vec<Lot> = offered.iter().map(|one| one.lot).collect();
        rule::corrections(&resolved.items, resolved.water_l, flaw, &lots, &resolved.windows)
            .iter()
            .map(|correction| CorrectChoice::new(correction, offered))
            .collect()
    };
    let flaws = rule::flaws(&figures, &resolved.windows).into_iter().map(|flaw| {
        let mut found = choices(flaw, &on_hand);
        found.extend(choices(flaw, &to_fetch).into_iter().filter(|choice| choice.material.is_some()));
        CorrectFlaw { flaw, choices: found }
    });
    Ok(CorrectAnswer { format: FORMAT, flaws: flaws.collect() })
}
