//! `zymarch-say/1`: stock said in a sentence, and what was understood of it.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::stock::measure::LARGEST_MEASURE_L;
use zymarch_core::stock::say::{self, LONGEST, NotSaid, SaidOf, SayLot, SayMeasure, Saying};

use crate::field::{self, Document};
use crate::recipe::MOST_MEASURES;

/// Name and version of the format.
pub const FORMAT: &str = "zymarch-say/1";

/// Lots with names of their own that one document may bring along.
pub const MOST_LOTS: usize = 1000;

/// A text that says what there is.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SayRequest {
    /// `zymarch-say/1`.
    #[schema(example = "zymarch-say/1")]
    pub format: String,
    /// What is said.
    #[schema(example = "4 barrows of straw, 2 of sheep manure and a bucket of scraps")]
    pub text: String,
    /// The containers it may be counted in.
    #[serde(default)]
    pub measures: Vec<SaidMeasure>,
    /// Lots with names of their own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub lots: Vec<SaidLot>,
}

/// A container that may be named.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaidMeasure {
    /// Its id; what it is called, if no name is given.
    #[schema(example = "barrow")]
    pub id: String,
    /// What it holds, litres.
    pub litres: f64,
    /// What one of it is called.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// What several are called.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plural: Option<String>,
}

/// A lot that may be named.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaidLot {
    /// Its id.
    pub id: String,
    /// What the person calls it.
    pub name: String,
    /// Of which material it is.
    pub material: String,
}

/// What was understood of a text.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SayAnswer {
    /// `zymarch-say/1`.
    pub format: &'static str,
    /// What was understood, in the order it was said.
    pub items: Vec<SayItem>,
    /// Water, litres.
    pub water_l: f64,
    /// What was not, each where it stands.
    pub unknown: Vec<SayUnknown>,
}

/// A material in an amount: `amount` and `measure`, or `kg`, or `litres`.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SayItem {
    /// Id of the material.
    pub material: String,
    /// The lot, if one of the person's was named.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lot: Option<String>,
    /// How much.
    #[serde(flatten)]
    pub of: SayAmount,
    /// First character of it in the text, the first being 0.
    pub from: usize,
    /// After its last.
    pub to: usize,
}

/// An amount as it was said.
#[derive(Debug, Clone, PartialEq, Default, Serialize, ToSchema)]
pub struct SayAmount {
    /// How many measures; or how many, where it was not said of what.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub amount: Option<f64>,
    /// Of which.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub measure: Option<String>,
    /// Kilograms.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub kg: Option<f64>,
    /// Loose litres.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub litres: Option<f64>,
}

/// A part of the text that was not understood.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SayUnknown {
    /// What of it: which material, which measure, or how much.
    pub what: NotSaid,
    /// The part of the text.
    pub text: String,
    /// First character of it in the text, the first being 0.
    pub from: usize,
    /// After its last.
    pub to: usize,
    /// The material, if that was understood.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// The lot, if one of the person's was named.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lot: Option<String>,
    /// The amount, if that was.
    #[serde(flatten)]
    pub of: SayAmount,
    /// The ids of what is nearest, three at most: materials, or measures where that is what is not known.
    pub nearest: Vec<String>,
}

impl Document for SayRequest {
    const FORMAT: &'static str = FORMAT;
}

impl From<&SaidOf> for SayAmount {
    fn from(of: &SaidOf) -> Self {
        let none = Self::default();
        match of {
            SaidOf::Measures(amount, id) => {
                Self { amount: Some(tidy(*amount)), measure: Some(id.clone()), ..none }
            }
            SaidOf::Kilograms(kg) => Self { kg: Some(tidy(*kg)), ..none },
            SaidOf::Litres(litres) => Self { litres: Some(tidy(*litres)), ..none },
            SaidOf::Number(amount) => Self { amount: Some(tidy(*amount)), ..none },
        }
    }
}

/// A third of a barrow is said to nine places, and no further.
fn tidy(value: f64) -> f64 {
    (value * 1e9).round() / 1e9
}

impl SayRequest {
    /// What was understood.
    ///
    /// # Errors
    /// Every field that stands in the way.
    pub fn read(&self, catalogue: &Catalogue) -> Result<SayAnswer, Faults> {
        self.checked(catalogue)?;
        let measures: Vec<SayMeasure<'_>> = self
            .measures
            .iter()
            .map(|one| SayMeasure {
                id: &one.id,
                litres: one.litres,
                names: [&one.name, &one.plural].into_iter().flatten().map(String::as_str).collect(),
            })
            .collect();
        let lots: Vec<SayLot<'_>> = self
            .lots
            .iter()
            .map(|lot| SayLot { id: &lot.id, name: &lot.name, material: &lot.material })
            .collect();
        Ok(self.answer(&say::read(&self.text, &measures, &lots, &catalogue.materials)))
    }

    fn checked(&self, catalogue: &Catalogue) -> Result<(), Faults> {
        let mut found = Vec::new();
        field::is_format(&self.format, FORMAT, &mut found);
        let letters = self.text.chars().count();
        if letters > LONGEST {
            found.push(Fault::of("text", FaultCode::TooLong).with("most", LONGEST));
        }
        if self.text.trim().is_empty() {
            found.push(Fault::of("text", FaultCode::Empty));
        }
        let all = At::ROOT.key("measures");
        all.holds(self.measures.len(), MOST_MEASURES)?;
        At::ROOT.key("lots").holds(self.lots.len(), MOST_LOTS)?;
        let mut seen = std::collections::HashSet::with_capacity(self.measures.len());
        for (index, measure) in self.measures.iter().enumerate() {
            let at = all.index(index);
            if let Err(fault) = quantity::above(measure.litres, 0.0, LARGEST_MEASURE_L) {
                found.push(at.key("litres").put(fault));
            }
            if !seen.insert(measure.id.as_str()) {
                found.push(at.key("id").fault(FaultCode::Twice).with("field", measure.id.as_str()));
            }
        }
        for (index, lot) in self.lots.iter().enumerate() {
            if catalogue.material(&lot.material).is_none() {
                let at = At::ROOT.key("lots");
                let fault = at.index(index).key("material").fault(FaultCode::NoSuchMaterial);
                found.push(fault.with("got", lot.material.as_str()));
            }
        }
        Faults::or(found, || ())
    }

    fn answer(&self, said: &Saying) -> SayAnswer {
        let part = |from: usize, to: usize| self.text.chars().skip(from).take(to - from).collect();
        SayAnswer {
            format: FORMAT,
            items: said
                .items
                .iter()
                .map(|item| SayItem {
                    material: item.material.clone(),
                    lot: item.lot.clone(),
                    of: (&item.of).into(),
                    from: item.place.from,
                    to: item.place.to,
                })
                .collect(),
            water_l: tidy(said.water_l),
            unknown: said
                .unknown
                .iter()
                .map(|one| SayUnknown {
                    what: one.what,
                    text: part(one.place.from, one.place.to),
                    from: one.place.from,
                    to: one.place.to,
                    material: one.material.clone(),
                    lot: one.lot.clone(),
                    of: one.of.as_ref().map(SayAmount::from).unwrap_or_default(),
                    nearest: one.nearest.clone(),
                })
                .collect(),
        }
    }
}
