//! The best mix that a stock allows, or the nearest, and what would make one possible.

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::confidence::{self as sure, Confidence, KeptDraws, SEED};
use zymarch_core::mix::{Item, MixFigures, sum};
use zymarch_core::plan::formulate::{
    self as rule, Addition, Formulated, Status, Wanted, additions, limits, misses, together, worth,
};
use zymarch_core::plan::heap;
use zymarch_core::plan::method::Method;
use zymarch_core::plan::mind::{self, Note};
use zymarch_core::stock::material::{self, Material};
use zymarch_core::stock::{self, Lot, Own, Uncertainty};
use zymarch_formats::formulate::{Asked, FormulateAnswer, FormulateRequest, Outcome};

/// Whether a request can be answered, before it is.
///
/// # Errors
/// Every field that stands in the way.
pub fn formulable(catalogue: &Catalogue, request: &FormulateRequest) -> Result<(), Faults> {
    request.asked(catalogue).map(|_| ())
}

/// The best mix that a stock allows, or the nearest.
///
/// # Errors
/// Every field that stands in the way.
pub fn formulate(
    catalogue: &Catalogue,
    draws: &KeptDraws,
    request: &FormulateRequest,
) -> Result<FormulateAnswer, Faults> {
    let Asked { wanted, materials, method } = request.asked(catalogue)?;
    let found = rule::formulate(&wanted);
    let more: Vec<f64> = wanted.lots.iter().map(|lot| lot.step_kg.unwrap_or(lot.most_kg / 10.0)).collect();
    let missing = match found.status {
        Status::Ok => Vec::new(),
        Status::Nearest => missing(request, &wanted, catalogue),
    };
    let sums = sums(&wanted, &found, &materials, method);
    let outcome = Outcome {
        worth: if request.without_worth {
            vec![0.0; wanted.lots.len()]
        } else {
            worth(&wanted, &found, &more)
        },
        limits: limits(&wanted, &found),
        misses: misses(&wanted, &found),
        missing,
        size: sums.as_ref().map(|(mix, _)| heap::size(mix.heap_volume_l, None, method)),
        sums,
        confidence: confidence(draws, &wanted, &found),
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
    method: Option<&Method>,
) -> Option<(MixFigures, Vec<Note>)> {
    let items = items(wanted, found);
    let mix = sum(&items, found.water_l).ok()?;
    let parts: Vec<_> = materials.iter().copied().zip(&items).collect();
    let notes = mind::of_mix(&parts, wanted.windows.c_n_of(&mix), method);
    Some((mix, notes))
}

fn confidence(draws: &KeptDraws, wanted: &Wanted, found: &Formulated) -> Option<Confidence> {
    let of = |lot: &Lot| lot.uncertainty.unwrap_or_else(|| Uncertainty::none(&lot.figures));
    let uncertainties: Vec<Uncertainty> = wanted.lots.iter().map(of).collect();
    let count = sure::draws_for(wanted.lots.len());
    draws.confidence(&items(wanted, found), &uncertainties, found.water_l, &wanted.windows, count, SEED)
}

/// What could be fetched, each as if there were none yet: first what is known at the site, then
/// what is commonly to hand. Where none of it does, all there is in the table is searched, and
/// then two or three things together.
fn missing<'a>(
    request: &FormulateRequest,
    wanted: &Wanted,
    catalogue: &'a Catalogue,
) -> Vec<(Vec<&'a Material>, Addition)> {
    let may_go_in = |row: &&Material| !row.must_not_go_in() && !rule::is_filler(&lot_of(row));
    let known = catalogue.materials.all().filter(|row| request.is_known(row)).filter(may_go_in);
    let common = material::common().filter(|row| !request.is_known(row)).map(|row| -> &'a Material { row });
    let near: Vec<&'a Material> = known.chain(common).collect();
    let far: Vec<&'a Material> = material::all()
        .iter()
        .filter(|row| !near.iter().any(|one| one.id == row.id))
        .filter(may_go_in)
        .collect();
    let search = |rows: &[&'a Material], by: fn(&Wanted, &[Lot]) -> Vec<Addition>| {
        let lots: Vec<Lot> = rows.iter().map(|row| lot_of(row)).collect();
        let named = |addition: Addition| {
            (addition.parts.iter().map(|part| rows[part.candidate]).collect::<Vec<_>>(), addition)
        };
        by(wanted, &lots).into_iter().map(named).collect::<Vec<_>>()
    };
    let mut found = search(&near, additions);
    if found.is_empty() {
        found = search(&far, additions);
        found.truncate(MOST_FAR);
    }
    if found.len() < FEW {
        let several = search(&near, together).into_iter().filter(|(rows, _)| rows.len() > 1);
        found.extend(several);
    }
    if found.is_empty() {
        found = search(&[near, far].concat(), together);
    }
    found.sort_by_key(|(rows, _)| !rows.iter().all(|row| request.is_known(row)));
    found
}

/// With fewer than so many choices, two together are looked for as well.
const FEW: usize = 3;

/// So many things that are not commonly to hand are named.
const MOST_FAR: usize = 6;

fn lot_of(row: &Material) -> Lot {
    let figures = stock::figures(Some(row), &Own::default()).expect("a row of a table has every figure");
    Lot::up_to(0.0, figures, row.kind)
}
