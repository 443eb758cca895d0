//! The best mix that a stock allows, or the nearest, and what would make one possible.

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::confidence::{self as sure, Confidence, SEED};
use zymarch_core::mix::{Item, MixFigures, sum};
use zymarch_core::plan::formulate::{
    self as rule, Addition, Formulated, Status, Wanted, additions, binding, holds_back, misses, worth,
};
use zymarch_core::plan::mind::{self, Note};
use zymarch_core::stock::material::{self, Material};
use zymarch_core::stock::{self, Lot, Own, Uncertainty};
use zymarch_formats::formulate::{Asked, FormulateAnswer, FormulateRequest, Outcome};

/// The best mix that a stock allows, or the nearest.
///
/// # Errors
/// Every field that stands in the way.
pub fn formulate(catalogue: &Catalogue, request: &FormulateRequest) -> Result<FormulateAnswer, Faults> {
    let Asked { wanted, materials } = request.asked(catalogue)?;
    let found = rule::formulate(&wanted);
    let more: Vec<f64> = wanted.lots.iter().map(|lot| lot.step_kg.unwrap_or(lot.most_kg / 10.0)).collect();
    let missing = match found.status {
        Status::Ok => Vec::new(),
        Status::Nearest => missing(request, &wanted, catalogue),
    };
    let outcome = Outcome {
        worth: worth(&wanted, &found, &more),
        held_back: holds_back(&wanted, &found),
        binding: binding(&wanted, &found),
        misses: misses(&wanted, &found),
        missing,
        sums: sums(&wanted, &found, &materials),
        confidence: confidence(&wanted, &found),
        found,
    };
    Ok(FormulateAnswer::new(request, &wanted, &outcome))
}

fn items(wanted: &Wanted, found: &Formulated) -> Vec<Item> {
    let item = |(lot, &wet_mass_kg): (&Lot, &f64)| Item { wet_mass_kg, figures: lot.figures };
    wanted.lots.iter().zip(&found.kg).map(item).collect()
}

fn sums(
    wanted: &Wanted,
    found: &Formulated,
    materials: &[Option<&Material>],
) -> Option<(MixFigures, Vec<Note>)> {
    let items = items(wanted, found);
    let mix = sum(&items, found.water_l).ok()?;
    let parts: Vec<_> = materials.iter().copied().zip(&items).collect();
    let notes = mind::of_mix(&parts, wanted.windows.c_n_of(&mix), None);
    Some((mix, notes))
}

fn confidence(wanted: &Wanted, found: &Formulated) -> Option<Confidence> {
    let of = |lot: &Lot| lot.uncertainty.unwrap_or_else(|| Uncertainty::none(&lot.figures));
    let uncertainties: Vec<Uncertainty> = wanted.lots.iter().map(of).collect();
    let draws = sure::draws_for(wanted.lots.len());
    sure::confidence(&items(wanted, found), &uncertainties, found.water_l, &wanted.windows, draws, SEED)
}

/// What could be fetched, each as if there were none yet: first what is known
/// at the site, then what is commonly to hand.
fn missing<'a>(
    request: &FormulateRequest,
    wanted: &Wanted,
    catalogue: &'a Catalogue,
) -> Vec<(&'a Material, Addition)> {
    let known = catalogue.materials.all().filter(|row| request.is_known(row) && !row.must_not_go_in());
    let common = material::common().filter(|row| !request.is_known(row)).map(|row| -> &'a Material { row });
    let (rows, lots): (Vec<&Material>, Vec<Lot>) = known
        .chain(common)
        .filter_map(|row| {
            let figures = stock::figures(Some(row), &Own::default()).ok()?;
            Some((row, Lot::up_to(0.0, figures, row.kind)))
        })
        .unzip();
    let mut found: Vec<(&Material, Addition)> =
        additions(wanted, &lots).into_iter().map(|addition| (rows[addition.candidate], addition)).collect();
    found.sort_by_key(|(row, _)| !request.is_known(row));
    found
}
