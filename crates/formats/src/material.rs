//! Reference materials on the wire.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::material;

/// A row of the reference table.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Material {
    /// Stable key.
    pub id: String,
    /// Plain generic name in English.
    pub name: String,
    /// The same in Spanish.
    pub name_es: String,
    /// How people sort it.
    pub kind: &'static str,
    /// Where it comes from.
    pub group: &'static str,
    /// Water, % of fresh mass.
    pub moisture_pct: Spread,
    /// Nitrogen, % of dry matter.
    pub n_pct: Spread,
    /// Carbon to nitrogen, by mass.
    pub c_n: Spread,
    /// Loose density, kg/L.
    pub density_kg_l: Spread,
    /// `fast` to `inert`.
    pub degradability: &'static str,
    /// `fine`, `medium` or `coarse`.
    pub particle: &'static str,
    /// Days before it spoils; none if it keeps.
    pub keeps_days: Option<u16>,
    /// What to mind with it.
    pub cautions: Vec<Caution>,
    /// Refused in every heap.
    pub must_not_go_in: bool,
    /// The literature its figures rest on.
    pub source: String,
    /// What a person should know before using it.
    pub note: String,
}

/// A usual value and the range met.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Spread {
    /// Lower end.
    pub low: f64,
    /// Usual value.
    pub typical: f64,
    /// Higher end.
    pub high: f64,
}

/// Something to mind. Its sentence stands in the locale files.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct Caution {
    /// Stable word.
    pub code: &'static str,
    /// `info`, `caution`, `restrict` or `prohibit`.
    pub severity: &'static str,
}

impl From<&material::Material> for Material {
    fn from(row: &material::Material) -> Self {
        let spread = |of: material::Spread, per: f64| Spread {
            low: of.low * per,
            typical: of.typical * per,
            high: of.high * per,
        };
        Self {
            id: row.id.clone(),
            name: row.name.clone(),
            name_es: row.name_es.clone(),
            kind: row.kind.as_str(),
            group: row.group.as_str(),
            moisture_pct: spread(row.moisture, 100.0),
            n_pct: spread(row.nitrogen, 100.0),
            c_n: spread(row.c_n, 1.0),
            density_kg_l: spread(row.density_kg_l, 1.0),
            degradability: row.degradability.as_str(),
            particle: row.particle.as_str(),
            keeps_days: row.keeps_days,
            cautions: row
                .cautions
                .iter()
                .map(|caution| Caution { code: caution.code, severity: caution.severity.as_str() })
                .collect(),
            must_not_go_in: row.must_not_go_in(),
            source: row.source.clone(),
            note: row.note.clone(),
        }
    }
}
