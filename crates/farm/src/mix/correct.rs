//! What to add to a mix to bring it to the middle.

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::correct as rule;
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
    summed(&resolved).under("recipe")?;
    let (on_hand, to_fetch) = request.offered(catalogue)?;
    let on_hand_count = on_hand.len();
    let offered: Vec<Offered> = on_hand.into_iter().chain(to_fetch).collect();
    let lots: Vec<Lot> = offered.iter().map(|one| one.lot).collect();
    let asked = rule::Asked {
        items: &resolved.items,
        water_l: resolved.water_l,
        offered: &lots,
        on_hand: on_hand_count,
        windows: &resolved.windows,
        air_c: request.air_c,
    };
    let flaws = rule::corrections(&asked).into_iter().map(|(flaw, choices)| CorrectFlaw {
        flaw,
        choices: choices.iter().map(|choice| CorrectChoice::new(choice, &offered)).collect(),
    });
    Ok(CorrectAnswer { format: FORMAT, flaws: flaws.collect() })
}
