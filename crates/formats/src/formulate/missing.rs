//! What would make a mix possible, ranked.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::plan::formulate::Addition;
use zymarch_core::stock::material::Material;

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

impl FormulateRequest {
    /// Whether a material is known at the site beside the stock.
    #[must_use]
    pub fn is_known(&self, row: &Material) -> bool {
        self.known.contains(&row.id)
    }
}

impl FormulateAddition {
    pub(super) fn new(row: &Material, addition: &Addition, request: &FormulateRequest) -> Self {
        Self {
            material: row.id.clone(),
            kg: tidy(addition.kg),
            litres: tidy(addition.litres),
            known: request.is_known(row),
            mix_kg: addition.mix_kg.iter().copied().map(tidy).collect(),
            water_l: tidy(addition.water_l),
        }
    }
}
