//! What would make a mix possible, ranked.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::formulate::{self, Offer, Wanted};
use zymarch_core::material::{self, Material};
use zymarch_core::stock::{self, Own};

use super::{FormulateRequest, tidy};

/// Something that would make a mix possible.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormulateAddition {
    /// Id of the material.
    pub material: String,
    /// The least of it, kg.
    pub kg: f64,
    /// The same, loose litres.
    pub litres: f64,
    /// Known at the site.
    pub known: bool,
    /// Of each lot, and last of the material itself, in the mix it makes possible, kg.
    pub mix_kg: Vec<f64>,
    /// Water in that mix, litres.
    pub water_l: f64,
}

/// What could be fetched, each as if there were none yet: first what is known
/// at the site, then what is commonly to hand.
pub(super) fn missing(
    request: &FormulateRequest,
    wanted: &Wanted,
    catalogue: &Catalogue,
) -> Vec<FormulateAddition> {
    let is_known = |row: &Material| request.known.contains(&row.id);
    let mut rows: Vec<&Material> =
        catalogue.all().filter(|row| is_known(row) && !row.must_not_go_in()).collect();
    for row in material::common().filter(|row| !is_known(row)) {
        rows.push(row);
    }
    let offers: Vec<Offer> = rows
        .iter()
        .filter_map(|row| {
            let figures = stock::figures(Some(row), &Own::default()).ok()?;
            Some(Offer {
                figures,
                doubt: None,
                kind: row.kind,
                available_kg: 0.0,
                min_kg: 0.0,
                cost_per_kg: 0.0,
                urgency: 0.0,
                step_kg: None,
            })
        })
        .collect();
    let mut found: Vec<FormulateAddition> = formulate::additions(wanted, &offers)
        .into_iter()
        .map(|addition| FormulateAddition {
            material: rows[addition.candidate].id.clone(),
            kg: tidy(addition.kg),
            litres: tidy(addition.litres),
            known: is_known(rows[addition.candidate]),
            mix_kg: addition.mix_kg.iter().copied().map(tidy).collect(),
            water_l: tidy(addition.water_l),
        })
        .collect();
    found.sort_by_key(|addition| !addition.known);
    found
}
