//! What would make a mix possible, ranked.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::plan::formulate::{Addition, Part};
use zymarch_core::stock::material::Material;

use super::FormulateRequest;
use super::answer::tidy;

/// Something that would make a mix possible.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormulateAddition {
    /// Id of the material.
    pub material: String,
    /// The least of it, kg.
    pub kg: f64,
    /// The same, loose litres.
    pub litres: f64,
    /// What has to come with it, where it alone would not do.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub and: Vec<FormulatePart>,
    /// Known at the site, all of it.
    pub known: bool,
    /// Of each lot, and last of the material itself and what comes with it, in the mix it makes possible, kg.
    pub mix_kg: Vec<f64>,
    /// Water in that mix, litres.
    pub water_l: f64,
}

/// What has to come with an addition.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormulatePart {
    /// Id of the material.
    pub material: String,
    /// The least of it, kg.
    pub kg: f64,
    /// The same, loose litres.
    pub litres: f64,
}

impl FormulateRequest {
    /// Whether a material is known at the site beside the stock.
    #[must_use]
    pub fn is_known(&self, row: &Material) -> bool {
        self.known.contains(&row.id)
    }
}

impl FormulateAddition {
    pub(super) fn new(rows: &[&Material], addition: &Addition, request: &FormulateRequest) -> Self {
        let part = |(row, part): (&&Material, &Part)| FormulatePart {
            material: row.id.clone(),
            kg: tidy(part.kg),
            litres: tidy(part.litres),
        };
        let mut parts = rows.iter().zip(&addition.parts).map(part);
        let first = parts.next().expect("an addition is of something");
        Self {
            material: first.material,
            kg: first.kg,
            litres: first.litres,
            and: parts.collect(),
            known: rows.iter().all(|row| request.is_known(row)),
            mix_kg: addition.mix_kg.iter().copied().map(tidy).collect(),
            water_l: tidy(addition.water_l),
        }
    }
}
