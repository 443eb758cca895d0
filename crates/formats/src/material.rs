//! Materials on the wire: as they are shown, and as the columns of the table.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::base::quantity::Fraction;
use zymarch_core::stock::material::{
    self, Degradability, Group, Implausible, ImplausibleCode, Kind, Particle,
};

use crate::caution::Caution;

/// A row of the reference table.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Material {
    /// Stable key.
    pub id: String,
    /// Plain generic name in English.
    pub name: String,
    /// The same in Spanish.
    pub name_es: String,
    /// What else people call it, in English.
    pub names: Vec<String>,
    /// The same in Spanish.
    pub names_es: Vec<String>,
    /// How people sort it.
    pub kind: Kind,
    /// Where it comes from.
    pub group: Group,
    /// Water, % of fresh mass.
    pub moisture_pct: Spread,
    /// Nitrogen, % of dry matter.
    pub n_pct: Spread,
    /// Carbon to nitrogen, by mass.
    pub c_n: Spread,
    /// Ash, % of dry matter.
    pub ash_pct: f64,
    /// Acid-detergent lignin, % of dry matter.
    pub lignin_pct: Option<f64>,
    /// Loose density, kg/L.
    pub density_kg_l: Spread,
    /// Volume in the built heap, share of the loose volume.
    pub settle: f64,
    /// Phosphorus, % of dry matter.
    pub p_pct: Option<f64>,
    /// Potassium, % of dry matter.
    pub k_pct: Option<f64>,
    /// How well it holds air space open: 0 collapses, 3 a stiff frame.
    pub structure: u8,
    /// Share of its carbon and nitrogen that decays within a heap's life, %; none where all does.
    pub decays_pct: Option<f64>,
    /// The wettest it may be while airy, % of fresh mass; none if not known.
    pub wet_max_pct: Option<f64>,
    /// `fast` to `inert`.
    pub degradability: Degradability,
    /// `fine`, `medium` or `coarse`.
    pub particle: Particle,
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
    /// A person's own, not of the reference table.
    pub is_own: bool,
    /// What in its figures cannot be true, or hardly.
    pub doubts: Vec<Doubt>,
}

/// Something in a row of figures that cannot be true, or hardly.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Doubt {
    /// What.
    pub code: ImplausibleCode,
    /// The column to look at.
    pub column: &'static str,
    /// Of `carbon`: carbon, % of the organic matter.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub carbon_pct: Option<f64>,
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

impl From<&material::Material> for Material {
    fn from(row: &material::Material) -> Self {
        let spread = |of: material::Spread, per: f64| Spread {
            low: tidy(of.low * per),
            typical: tidy(of.typical * per),
            high: tidy(of.high * per),
        };
        Self {
            id: row.id.clone(),
            name: row.name.clone(),
            name_es: row.name_es.clone(),
            names: row.names.clone(),
            names_es: row.names_es.clone(),
            kind: row.kind,
            group: row.group,
            moisture_pct: spread(row.moisture, 100.0),
            n_pct: spread(row.nitrogen, 100.0),
            c_n: spread(row.c_n, 1.0),
            ash_pct: row.ash.percent(),
            lignin_pct: row.lignin.map(Fraction::percent),
            density_kg_l: spread(row.density_kg_l, 1.0),
            settle: row.settle,
            p_pct: row.phosphorus.map(Fraction::percent),
            k_pct: row.potassium.map(Fraction::percent),
            structure: row.structure,
            decays_pct: row.decays.map(Fraction::percent),
            wet_max_pct: row.wet_max.map(Fraction::percent),
            degradability: row.degradability,
            particle: row.particle,
            keeps_days: row.keeps_days,
            cautions: row.cautions.iter().map(Caution::from).collect(),
            must_not_go_in: row.must_not_go_in(),
            source: row.source.clone(),
            note: row.note.clone(),
            is_own: row.is_own,
            doubts: doubts(row),
        }
    }
}

/// 0.14 times 100 is 14.000000000000002; what was typed should come back as typed.
fn tidy(value: f64) -> f64 {
    (value * 1e9).round() / 1e9
}

/// What in a material's figures cannot be true, or hardly.
#[must_use]
pub fn doubts(row: &material::Material) -> Vec<Doubt> {
    let wire = |found: &Implausible| Doubt {
        code: found.code(),
        column: found.column(),
        carbon_pct: match found {
            Implausible::Carbon { share } => Some(share * 100.0),
            _ => None,
        },
    };
    material::implausible(row).iter().map(wire).collect()
}

/// A material as the columns of the reference table, percentages and all.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MaterialFields {
    /// Lower case with hyphens; made from the name if left empty.
    #[serde(default)]
    pub id: String,
    /// Plain name.
    pub name: String,
    /// The same in Spanish, if known.
    #[serde(default)]
    pub name_es: String,
    /// What else people call it, in English.
    #[serde(default)]
    pub names: Vec<String>,
    /// The same in Spanish.
    #[serde(default)]
    pub names_es: Vec<String>,
    /// How people sort it.
    pub kind: Kind,
    /// Where it comes from.
    pub group: Group,
    /// Water, % of fresh mass.
    pub moisture_pct: Option<f64>,
    /// Lower end.
    pub moisture_low: Option<f64>,
    /// Higher end.
    pub moisture_high: Option<f64>,
    /// Nitrogen, % of dry matter.
    pub n_pct: Option<f64>,
    /// Lower end.
    pub n_low: Option<f64>,
    /// Higher end.
    pub n_high: Option<f64>,
    /// Carbon to nitrogen.
    pub c_n: Option<f64>,
    /// Lower end.
    pub c_n_low: Option<f64>,
    /// Higher end.
    pub c_n_high: Option<f64>,
    /// Ash, % of dry matter.
    pub ash_pct: Option<f64>,
    /// Acid-detergent lignin, % of dry matter.
    pub lignin_pct: Option<f64>,
    /// Loose density, kg/L.
    pub density_kg_l: Option<f64>,
    /// Lower end.
    pub density_low: Option<f64>,
    /// Higher end.
    pub density_high: Option<f64>,
    /// Volume in the built heap, share of the loose volume.
    pub settle: Option<f64>,
    /// Phosphorus, % of dry matter.
    pub p_pct: Option<f64>,
    /// Potassium, % of dry matter.
    pub k_pct: Option<f64>,
    /// `fast` to `inert`.
    pub degradability: Degradability,
    /// `fine`, `medium` or `coarse`.
    pub particle: Particle,
    /// 0 collapses, 3 a stiff frame.
    pub structure: Option<f64>,
    /// Share of its carbon and nitrogen that decays within a heap's life, %; left out, all does, but for wood.
    #[serde(default)]
    pub decays_pct: Option<f64>,
    /// The wettest it may be while airy, % of fresh mass.
    #[serde(default)]
    pub wet_max_pct: Option<f64>,
    /// Days before it spoils; none if it keeps.
    pub keeps_days: Option<f64>,
    /// Codes of the caution list.
    #[serde(default)]
    pub cautions: Vec<String>,
    /// Where the figures come from.
    pub source: String,
    /// What a person should know before using it.
    #[serde(default)]
    pub note: String,
}

impl MaterialFields {
    /// The material, by the rules of the table.
    ///
    /// # Errors
    /// [`Faults`] that name every bad column.
    pub fn checked(&self) -> Result<material::Material, Faults> {
        let number = |value: Option<f64>| value.map_or(String::new(), |value| value.to_string());
        let cells: Vec<(&str, String)> = vec![
            (
                "id",
                if self.id.trim().is_empty() { slug(&self.name, "own-material") } else { self.id.clone() },
            ),
            ("name", self.name.clone()),
            ("name_es", self.name_es.clone()),
            ("names", self.names.join(";")),
            ("names_es", self.names_es.join(";")),
            ("kind", self.kind.as_str().into()),
            ("group", self.group.as_str().into()),
            ("moisture_pct", number(self.moisture_pct)),
            ("moisture_low", number(self.moisture_low.or(self.moisture_pct))),
            ("moisture_high", number(self.moisture_high.or(self.moisture_pct))),
            ("n_pct", number(self.n_pct)),
            ("n_low", number(self.n_low.or(self.n_pct))),
            ("n_high", number(self.n_high.or(self.n_pct))),
            ("c_n", number(self.c_n)),
            ("c_n_low", number(self.c_n_low.or(self.c_n))),
            ("c_n_high", number(self.c_n_high.or(self.c_n))),
            ("ash_pct", number(self.ash_pct)),
            ("lignin_pct", number(self.lignin_pct)),
            ("density_kg_l", number(self.density_kg_l)),
            ("density_low", number(self.density_low.or(self.density_kg_l))),
            ("density_high", number(self.density_high.or(self.density_kg_l))),
            ("settle", number(self.settle)),
            ("p_pct", number(self.p_pct)),
            ("k_pct", number(self.k_pct)),
            ("degradability", self.degradability.as_str().into()),
            ("particle", self.particle.as_str().into()),
            ("structure", number(self.structure)),
            ("decays_pct", number(self.decays_pct)),
            ("wet_max_pct", number(self.wet_max_pct)),
            ("keeps_days", number(self.keeps_days)),
            ("cautions", self.cautions.join(";")),
            ("source", self.source.clone()),
            ("note", self.note.clone()),
        ];
        let cell =
            |column: &str| cells.iter().find(|(name, _)| *name == column).map(|(_, text)| text.as_str());
        let material = material::one(0, cell).map_err(Faults)?;
        if material::find(&material.id).is_some() {
            return Err(taken_by_table(&material.id).into());
        }
        Ok(material::Material { is_own: true, ..material })
    }
}

/// The fault of a row of a person's own that bears an id of the reference table.
#[must_use]
pub fn taken_by_table(id: &str) -> Fault {
    Fault::of("id", FaultCode::TakenByTable).with("got", id)
}

/// An id made of a name: "Straw of my own" becomes `straw-of-my-own`; `other` if there is not one Latin letter in it.
#[must_use]
pub fn slug(name: &str, other: &str) -> String {
    let plain = |c: char| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' };
    let text: String = name.chars().map(plain).collect();
    let words: Vec<_> = text.split('-').filter(|word| !word.is_empty()).collect();
    let id: String = words.join("-").chars().take(60).collect();
    // A name without one Latin letter still needs an id.
    if id.is_empty() && !name.trim().is_empty() { other.into() } else { id }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn mine() -> MaterialFields {
        let text = r#"{"name":"Straw of the lower field","kind":"brown","group":"crop residue","moisture_pct":14,
            "n_pct":0.6,"c_n":78,"ash_pct":7,"density_kg_l":0.06,"settle":0.5,"degradability":"medium",
            "particle":"medium","structure":2,"cautions":["dust"],"source":"own"}"#;
        crate::field::read(text).expect("well formed")
    }

    #[test]
    fn a_form_is_read_by_the_rules_of_the_table() {
        let material = mine().checked().expect("is sound");
        assert_eq!((material.id.as_str(), material.is_own), ("straw-of-the-lower-field", true));
        assert_eq!(material.moisture.low, 0.14);
        assert_eq!(doubts(&material), []);
    }

    #[test]
    fn every_bad_column_is_named() {
        let form = MaterialFields { n_pct: None, structure: Some(1.5), ..mine() };
        let refusal = form.checked().expect_err("two columns and a range");
        let fields: Vec<_> = refusal.0.iter().map(|fault| fault.path.to_string()).collect();
        assert_eq!(fields, ["n_pct", "n_low", "n_high", "structure"]);
    }

    #[test]
    fn the_tables_ids_stay_the_tables() {
        let form = MaterialFields { id: "wheat-straw".into(), ..mine() };
        assert_eq!(form.checked().expect_err("taken").0[0].path.to_string(), "id");
    }

    #[test]
    fn carbon_that_cannot_be_is_doubted_with_its_share() {
        let material = MaterialFields { n_pct: Some(2.0), ..mine() }.checked().expect("reads");
        let found = doubts(&material);
        // 2 % of 78 is 156 % of the dry matter.
        assert!(
            matches!(found[..], [Doubt { code: ImplausibleCode::Carbon, carbon_pct: Some(share), .. }] if share > 150.0)
        );
    }
}
