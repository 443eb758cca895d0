//! `zymarch-apply/1`: compost and what it is used for, and what that needs and brings.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, Faults};
use zymarch_core::base::quantity;
use zymarch_core::finish::apply::{Applied, Compost, Mind, Minded, N_LIMIT_KG_HA, Use, applied};

use crate::field::{self, Document};

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-apply/1";

/// Compost and what it is used for.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ApplyRequest {
    /// `zymarch-apply/1`.
    #[schema(example = "zymarch-apply/1")]
    pub format: String,
    /// The compost.
    pub compost: ApplyCompost,
    /// What it is used for.
    #[serde(rename = "use")]
    pub used: Use,
    /// Nitrogen in a year at most, kg/ha; 170 where no local limit stands.
    #[serde(default)]
    pub n_limit_kg_ha: Option<f64>,
}

/// Compost, as it lies there.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ApplyCompost {
    /// Fresh mass per loose volume, kg/L.
    pub density_kg_l: f64,
    /// Water, % of fresh mass.
    pub moisture_pct: f64,
    /// Nitrogen, % of dry matter.
    #[serde(default)]
    pub n_pct: Option<f64>,
    /// Phosphorus, % of dry matter.
    #[serde(default)]
    pub p_pct: Option<f64>,
    /// Potassium, % of dry matter.
    #[serde(default)]
    pub k_pct: Option<f64>,
    /// How much there is, litres.
    #[serde(default)]
    pub litres: Option<f64>,
    /// Salts, dS/m.
    #[serde(default)]
    pub ec_ds_m: Option<f64>,
}

/// What a use needs and brings.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ApplyAnswer {
    /// `zymarch-apply/1`.
    pub format: &'static str,
    /// Compost, litres.
    pub need_l: f64,
    /// The same, fresh, kg.
    pub need_kg: f64,
    /// Nitrogen in it, kg; null if it is not known.
    pub n_kg: Option<f64>,
    /// Phosphorus, kg.
    pub p_kg: Option<f64>,
    /// Potassium, kg.
    pub k_kg: Option<f64>,
    /// Nitrogen, kg/ha, of uses that are spread over ground.
    pub n_kg_per_ha: Option<f64>,
    /// Nitrogen that comes in the first season, low and high, kg.
    pub first_season_n_kg: Option<[f64; 2]>,
    /// Whether what there is does; null if it was not said how much that is.
    pub enough: Option<bool>,
    /// The size that what there is would do, in the unit of the use: m², pits, trees, litres.
    pub goes_how_far: Option<f64>,
    /// What is to be minded.
    pub findings: Vec<ApplyFinding>,
}

/// Something to be minded.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ApplyFinding {
    /// What.
    pub code: Minded,
    /// Its figure.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub value: Option<f64>,
    /// The edge that it passes.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub limit: Option<f64>,
}

impl Document for ApplyRequest {
    const FORMAT: &'static str = FORMAT;
}

/// What is wrong with a document, as it is gone through.
#[derive(Default)]
struct Checked {
    found: Vec<Fault>,
}

impl Checked {
    fn above(&mut self, at: &At<'_>, field: &'static str, value: f64, most: f64) -> f64 {
        self.found.extend(quantity::above(value, 0.0, most).err().map(|fault| at.key(field).put(fault)));
        value
    }

    fn within(&mut self, at: &At<'_>, field: &'static str, value: f64, (low, high): (f64, f64)) -> f64 {
        self.found.extend(quantity::within(value, low, high).err().map(|fault| at.key(field).put(fault)));
        value
    }

    fn share(&mut self, at: &At<'_>, field: &'static str, percent: Option<f64>) -> Option<f64> {
        percent.map(|percent| self.within(at, field, percent, (0.0, 30.0)) / 100.0)
    }
}

/// Compost at most [L].
const MOST: f64 = 1e8;

impl ApplyRequest {
    /// What the use needs and brings.
    ///
    /// # Errors
    /// Every field that is wrong.
    ///
    /// # Example
    /// ```
    /// use zymarch_formats::{apply::ApplyRequest, field::document};
    /// let asked: ApplyRequest = document(r#"{"format":"zymarch-apply/1",
    ///   "compost":{"density_kg_l":0.55,"moisture_pct":45,"n_pct":1.5,"p_pct":0.4,"k_pct":1.2,"litres":900},
    ///   "use":{"kind":"topdress","area_m2":40,"depth_cm":2}}"#)?;
    /// let told = asked.answered()?;
    /// assert_eq!((told.need_l, told.enough), (800.0, Some(true)));
    /// # Ok::<(), zymarch_core::base::fault::Faults>(())
    /// ```
    pub fn answered(&self) -> Result<ApplyAnswer, Faults> {
        let mut check = Checked::default();
        field::is_format(&self.format, FORMAT, &mut check.found);
        let at = At::ROOT.key("compost");
        let of = &self.compost;
        let compost = Compost {
            density_kg_l: check.within(&at, "density_kg_l", of.density_kg_l, (0.05, 2.0)),
            moisture: check.within(&at, "moisture_pct", of.moisture_pct, (0.0, 95.0)) / 100.0,
            nitrogen: check.share(&at, "n_pct", of.n_pct),
            phosphorus: check.share(&at, "p_pct", of.p_pct),
            potassium: check.share(&at, "k_pct", of.k_pct),
            litres: of.litres.map(|litres| check.within(&at, "litres", litres, (0.0, MOST))),
            ec_ds_m: of.ec_ds_m.map(|ec| check.within(&at, "ec_ds_m", ec, (0.0, 50.0))),
        };
        check.found.extend(self.used.faults(&At::ROOT.key("use")));
        let limit = self
            .n_limit_kg_ha
            .map_or(N_LIMIT_KG_HA, |limit| check.above(&At::ROOT, "n_limit_kg_ha", limit, 2000.0));
        Faults::or(check.found, || ApplyAnswer::from(applied(&compost, &self.used, limit)))
    }
}

impl From<Applied> for ApplyAnswer {
    fn from(of: Applied) -> Self {
        let Applied { need_l, need_kg, n_kg, p_kg, k_kg, n_kg_per_ha, .. } = of;
        let finding = |mind: &Mind| ApplyFinding { code: mind.what, value: mind.value, limit: mind.limit };
        Self {
            format: FORMAT,
            need_l,
            need_kg,
            n_kg,
            p_kg,
            k_kg,
            n_kg_per_ha,
            first_season_n_kg: of.first_season_n_kg,
            enough: of.enough,
            goes_how_far: of.goes_how_far,
            findings: of.minds.iter().map(finding).collect(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn asked(rest: &str) -> Result<ApplyAnswer, Faults> {
        let compost = r#""compost":{"density_kg_l":0.55,"moisture_pct":45,"n_pct":1.5,"litres":900}"#;
        let text = format!(r#"{{"format":"zymarch-apply/1",{compost},{rest}}}"#);
        field::document::<ApplyRequest>(&text)?.answered()
    }

    #[test]
    fn every_kind_is_read() {
        for (rest, need_l) in [
            (r#""use":{"kind":"topdress","area_m2":40,"depth_cm":2}"#, 800.0),
            (r#""use":{"kind":"field","area_m2":550,"t_per_ha":10}"#, 1000.0),
            (r#""use":{"kind":"pits","count":10,"litres_each":20}"#, 200.0),
            (r#""use":{"kind":"trees","count":10,"litres_each":20,"times_per_year":2}"#, 400.0),
            (r#""use":{"kind":"mix","volume_l":100,"compost_parts":1,"other_parts":3}"#, 25.0),
            (r#""use":{"kind":"extract","volume_l":110,"kg_per_20_l":1}"#, 10.0),
        ] {
            let got = asked(rest).expect("sound");
            assert!((got.need_l - need_l).abs() < 1e-9, "{rest}: {}", got.need_l);
        }
        let limit = asked(r#""use":{"kind":"topdress","area_m2":40,"depth_cm":2},"n_limit_kg_ha":2000"#);
        assert!(limit.expect("sound").findings.is_empty());
    }

    #[test]
    fn every_wrong_field_is_named() {
        let path = |rest: &str| asked(rest).expect_err("refused").0[0].path.to_string();
        assert_eq!(path(r#""use":{"kind":"topdress","area_m2":0,"depth_cm":2}"#), "use.area_m2");
        assert_eq!(
            path(r#""use":{"kind":"mix","volume_l":10,"compost_parts":1,"other_parts":-1}"#),
            "use.other_parts"
        );
        assert!(path(r#""use":{"kind":"eat"}"#).starts_with("use"));
        assert!(path(r#""use":{"kind":"pits","count":3}"#).starts_with("use"));
        assert_eq!(
            path(r#""use":{"kind":"pits","count":3,"litres_each":1},"n_limit_kg_ha":-4"#),
            "n_limit_kg_ha"
        );
        assert_eq!(path(r#""use":{"kind":"pits","count":3,"litres_each":1},"more":1"#), "more");
    }
}
