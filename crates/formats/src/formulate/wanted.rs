//! What is wanted as the core takes it, every field checked.

use zymarch_core::catalogue::Catalogue;
use zymarch_core::confidence::Doubt;
use zymarch_core::formulate::{Aim, Capped, Offer, ShareCap, Wanted};
use zymarch_core::judge::Target;
use zymarch_core::material::Kind;
use zymarch_core::measure::LARGEST_MEASURE_L;
use zymarch_core::mix::Item;
use zymarch_core::quantity::Band;

use super::{FORMAT, FormulateLot, FormulateRequest, MOST_LOTS, as_recipe, item, litres_of};
use crate::field::{FieldError, Refusal};
use crate::recipe::RecipeItem;

/// What is wanted as the core takes it, every field checked.
pub(super) fn wanted(request: &FormulateRequest, catalogue: &Catalogue) -> Result<Wanted, Refusal> {
    let mut errors = Vec::new();
    let mut refuse = |field: String, reason: String| errors.push(FieldError::new(field, reason));
    if request.format != FORMAT {
        refuse("format".into(), format!("is \"{}\", but \"{FORMAT}\" is read here", request.format));
    }
    if request.stock.is_empty() {
        return Err(Refusal::one("stock", "is empty: say what is on hand"));
    }
    if request.stock.len() > MOST_LOTS {
        return Err(Refusal::one("stock", format!("holds {}, more than {MOST_LOTS}", request.stock.len())));
    }
    let aim = Aim::parse(&request.aim);
    if aim.is_none() {
        let known: Vec<_> = Aim::ALL.iter().map(|aim| aim.as_str()).collect();
        refuse("aim".into(), format!("must be one of {}", known.join(", ")));
    }
    let volume_l = volume(request, aim, &mut refuse);
    let step = request.whole_step.unwrap_or(1.0);
    if step != 1.0 && step != 0.5 {
        refuse("whole_step".into(), format!("must be 1 or 0.5, got {step}"));
    }
    if let Some(most) = request.water_max_l
        && !(0.0..=zymarch_core::quantity::LARGEST_AMOUNT).contains(&most)
    {
        refuse("water_max_l".into(), format!("must be from 0 to 1000000, got {most}"));
    }
    if let Some(id) = &request.water_measure
        && litres_of(request, id).is_none_or(|litres| !(litres > 0.0 && litres <= LARGEST_MEASURE_L))
    {
        refuse("water_measure".into(), format!("\"{id}\" is not among the measures"));
    }
    for (place, id) in request.known.iter().enumerate() {
        if catalogue.find(id).is_none() {
            refuse(format!("known[{place}]"), "is not a material known here".into());
        }
    }
    let caps = caps(request, catalogue, &mut refuse);
    // Figures, amounts and windows go through the checks of a recipe.
    let amounts = as_recipe(
        request,
        |_, lot| RecipeItem {
            kg: lot.kg_available,
            litres: lot.litres_available,
            amount: lot.amount,
            measure: lot
                .measure
                .clone()
                .filter(|_| lot.kg_available.is_none() && lot.litres_available.is_none()),
            ..item(lot)
        },
        0.0,
    );
    let resolved = match amounts.resolve(catalogue) {
        Ok(resolved) => Some(resolved),
        Err(refusal) => {
            errors.extend(refusal.errors.into_iter().map(rename));
            None
        }
    };
    let Some(resolved) = resolved.filter(|_| errors.is_empty()) else { return Err(Refusal { errors }) };
    let offers: Vec<Offer> = request
        .stock
        .iter()
        .zip(resolved.items.iter().zip(&resolved.doubts))
        .enumerate()
        .map(|(place, (lot, item))| offer(request, lot, item, step, catalogue, (place, &mut errors)))
        .collect();
    if !errors.is_empty() {
        return Err(Refusal { errors });
    }
    let water_step = request.water_measure.as_ref().and_then(|id| litres_of(request, id)).unwrap_or(1.0);
    Ok(Wanted {
        offers,
        target: Target { ..resolved.target },
        volume_l,
        caps,
        aim: aim.unwrap_or(Aim::Largest),
        is_cautious: request.cautious,
        water_max_l: request.water_max_l,
        water_step_l: request.whole_measures.then_some(water_step),
    })
}

/// A recipe's item fields under their names in a stock.
fn rename(error: FieldError) -> FieldError {
    let field = error.field.replacen("items[", "stock[", 1);
    let field = match field.rsplit_once('.') {
        Some((lot, "kg")) => format!("{lot}.kg_available"),
        Some((lot, "litres")) => format!("{lot}.litres_available"),
        _ => field,
    };
    FieldError { field, ..error }
}

fn volume(
    request: &FormulateRequest,
    aim: Option<Aim>,
    refuse: &mut impl FnMut(String, String),
) -> Option<Band> {
    let field = || "target.volume_l".to_owned();
    match request.target.volume_l {
        None => {
            if aim.is_some_and(Aim::needs_size) {
                refuse(
                    field(),
                    format!("is needed for the aim `{}`: without a size, nothing is best", request.aim),
                );
            }
            None
        }
        Some([low, high]) => {
            if low >= 0.0 && high <= zymarch_core::quantity::LARGEST_AMOUNT && low <= high && high > 0.0 {
                Band::new(low, high).ok()
            } else {
                refuse(
                    field(),
                    format!("must run from low to high within 0 and 1000000, got {low} to {high}"),
                );
                None
            }
        }
    }
}

fn caps(
    request: &FormulateRequest,
    catalogue: &Catalogue,
    refuse: &mut impl FnMut(String, String),
) -> Vec<ShareCap> {
    let mut caps = Vec::new();
    for (place, cap) in request.share_caps.iter().enumerate() {
        let field = format!("share_caps[{place}]");
        if !(0.0..=100.0).contains(&cap.max_wet_pct) {
            refuse(format!("{field}.max_wet_pct"), format!("must be from 0 to 100, got {}", cap.max_wet_pct));
            continue;
        }
        let most = cap.max_wet_pct / 100.0;
        match (&cap.kind, &cap.material) {
            (Some(word), None) => match Kind::parse(word) {
                Some(kind) => caps.push(ShareCap { of: Capped::Kind(kind), most }),
                None => {
                    let known: Vec<_> = Kind::ALL.iter().map(|kind| kind.as_str()).collect();
                    refuse(format!("{field}.kind"), format!("must be one of {}", known.join(", ")));
                }
            },
            (None, Some(material)) => {
                let places: Vec<usize> =
                    (0..request.stock.len()).filter(|at| request.stock[*at].material == *material).collect();
                if places.is_empty() && catalogue.find(material).is_none() {
                    refuse(format!("{field}.material"), format!("\"{material}\" is not in the stock"));
                }
                caps.extend(places.into_iter().map(|at| ShareCap { of: Capped::Offer(at), most }));
            }
            _ => refuse(field, "names one of kind and material".into()),
        }
    }
    caps
}

/// A lot as the core takes it: its limits in kilograms, pins as a least and most.
fn offer(
    request: &FormulateRequest,
    lot: &FormulateLot,
    (item, doubt): (&Item, &Doubt),
    step: f64,
    catalogue: &Catalogue,
    (place, errors): (usize, &mut Vec<FieldError>),
) -> Offer {
    let mut refuse =
        |name: &str, reason: String| errors.push(FieldError::new(format!("stock[{place}].{name}"), reason));
    let density = item.figures.density_kg_l.value;
    let known = catalogue.find(&lot.material).map(|row| row.kind);
    let kind = match &lot.kind {
        None => known.unwrap_or(Kind::Brown),
        Some(word) => Kind::parse(word).unwrap_or_else(|| {
            refuse("kind", format!("\"{word}\" is not a kind"));
            Kind::Brown
        }),
    };
    for (name, value) in [
        ("kg_min", lot.kg_min),
        ("kg_fixed", lot.kg_fixed),
        ("cost_per_kg", lot.cost_per_kg),
        ("urgency", lot.urgency),
    ] {
        if let Some(value) = value
            && !(0.0..=1e6).contains(&value)
        {
            refuse(name, format!("must be from 0 to 1000000, got {value}"));
        }
    }
    // What must not go in is no stock to mix from.
    let available = if item.figures.must_not_go_in { 0.0 } else { item.wet_mass_kg };
    let least = lot.kg_fixed.or(lot.kg_min).unwrap_or(0.0);
    if least > available * (1.0 + 1e-9) {
        let name = if lot.kg_fixed.is_some() { "kg_fixed" } else { "kg_min" };
        refuse(name, format!("is more than the {available} kg there are"));
    }
    let measure = lot.measure.as_ref().and_then(|id| litres_of(request, id));
    if request.whole_measures && measure.is_none() {
        refuse("measure", "is missing: in whole measures of what?".into());
    }
    let is_pinned = lot.kg_fixed.is_some();
    Offer {
        figures: item.figures,
        doubt: Some(*doubt),
        kind,
        available_kg: lot.kg_fixed.unwrap_or(available),
        min_kg: least,
        cost_per_kg: lot.cost_per_kg.unwrap_or(0.0),
        urgency: lot.urgency.unwrap_or(0.0),
        // What is pinned stays as it was said, whole or not.
        step_kg: measure
            .filter(|_| request.whole_measures && !is_pinned)
            .map(|litres| litres * density * step),
    }
}
