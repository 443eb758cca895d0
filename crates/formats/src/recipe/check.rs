//! From what a document says of amounts, figures and windows to what the core takes.

use zymarch_core::base::fault::{At, Fault, FaultCode, Param};
use zymarch_core::base::quantity::{self, Band};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::window::{Basis, Window, Windows};
use zymarch_core::plan::method::Method;
use zymarch_core::stock::measure::{Amount, LARGEST_MEASURE_L};
use zymarch_core::stock::{Checked, Given, Said, Tested};

use super::{MOST_MEASURES, MOST_TESTS, RecipeItem, RecipeMeasure, RecipeTarget, RecipeTest};

/// Checks one thing after another and keeps every fault.
pub(crate) struct Check<'a> {
    /// What materials and methods are looked up in.
    pub(crate) catalogue: &'a Catalogue,
    /// What was found wrong so far.
    pub(crate) found: Vec<Fault>,
}

/// How a document says an amount: the fields that it may use, one way or another.
#[derive(Debug, Clone, Copy)]
pub(crate) struct SaidAmount<'a> {
    pub(crate) kg: Option<f64>,
    pub(crate) litres: Option<f64>,
    pub(crate) count: Option<f64>,
    pub(crate) measure: Option<&'a str>,
    /// What its kilograms and its litres are called.
    pub(crate) names: (&'static str, &'static str),
}

/// A lot as a document says it.
#[derive(Debug, Clone, Copy)]
pub(crate) struct SaidLot<'a> {
    pub(crate) material: &'a str,
    pub(crate) amount: SaidAmount<'a>,
    pub(crate) given: Given,
    pub(crate) tests: &'a [RecipeTest],
}

impl RecipeItem {
    pub(crate) fn said(&self) -> SaidLot<'_> {
        SaidLot {
            material: &self.material,
            amount: SaidAmount {
                kg: self.kg,
                litres: self.litres,
                count: self.amount,
                measure: self.measure.as_deref(),
                names: ("kg", "litres"),
            },
            given: self.given(),
            tests: &self.tests,
        }
    }
}

impl<'a> Check<'a> {
    pub(crate) const fn new(catalogue: &'a Catalogue) -> Self {
        Self { catalogue, found: Vec::new() }
    }

    pub(crate) fn amount(&mut self, at: &At<'_>, value: f64) -> f64 {
        quantity::amount(value).unwrap_or_else(|fault| {
            self.found.push(at.put(fault));
            0.0
        })
    }

    /// A lot, or none with its faults kept.
    pub(crate) fn lot(
        &mut self,
        at: &At<'_>,
        said: &SaidLot<'_>,
        measures: &[RecipeMeasure],
    ) -> Option<Checked<'a>> {
        let amount = self.said_amount(at, &said.amount, measures);
        if let Err(fault) = at.key("tests").holds(said.tests.len(), MOST_TESTS) {
            self.found.push(fault);
            return None;
        }
        let tests: Vec<Tested<'_>> = said.tests.iter().map(Tested::from).collect();
        let (amount, amount_field) = amount.unwrap_or((Amount::Kilograms(0.0), ""));
        let before = self.found.len();
        let lot = Said { material: said.material, amount, amount_field, given: said.given, tests: &tests };
        let checked = lot.checked(&self.catalogue.materials, at, &mut self.found);
        if amount_field.is_empty() { None } else { checked.filter(|_| self.found.len() == before) }
    }

    fn said_amount(
        &mut self,
        at: &At<'_>,
        said: &SaidAmount<'_>,
        measures: &[RecipeMeasure],
    ) -> Option<(Amount, &'static str)> {
        let (kg_field, litres_field) = said.names;
        let fault = match (said.kg, said.litres, said.count, said.measure) {
            (Some(kg), None, None, None) => return Some((Amount::Kilograms(kg), kg_field)),
            (None, Some(litres), None, None) => return Some((Amount::Litres(litres), litres_field)),
            (None, None, Some(count), Some(id)) => match litres_of(measures, id) {
                Some(litres_each) => return Some((Amount::Measures { count, litres_each }, "amount")),
                None => at.key("measure").fault(FaultCode::UnknownMeasure).with("got", id),
            },
            (None, None, Some(_), None) => at.key("measure").fault(FaultCode::MeasureMissing),
            (None, None, None, Some(_)) => at.key("amount").fault(FaultCode::CountMissing),
            (None, None, None, None) => at.fault(FaultCode::NoAmount),
            _ => at.fault(FaultCode::TwoAmounts),
        };
        self.found.push(fault);
        None
    }

    /// The measures, checked; more than there may be are not looked at.
    pub(crate) fn measures(&mut self, measures: &[RecipeMeasure]) -> Result<(), Fault> {
        let all = At::ROOT.key("measures");
        all.holds(measures.len(), MOST_MEASURES)?;
        let mut seen = std::collections::HashSet::with_capacity(measures.len());
        for (index, measure) in measures.iter().enumerate() {
            let at = all.index(index);
            if let Err(fault) = quantity::above(measure.litres, 0.0, LARGEST_MEASURE_L) {
                self.found.push(at.key("litres").put(fault));
            }
            if !seen.insert(measure.id.as_str()) {
                self.found.push(at.key("id").fault(FaultCode::Twice).with("field", measure.id.as_str()));
            }
        }
        Ok(())
    }

    pub(crate) fn method(&mut self, id: &str) -> Option<&'a Method> {
        let found = self.catalogue.method(id);
        if found.is_none() {
            let known: Param = self.catalogue.methods.all().map(|method| method.id.as_str()).collect();
            let fault = Fault::of("method", FaultCode::UnknownWord).with("got", id);
            self.found.push(fault.with("known", known));
        }
        found
    }

    fn within(&mut self, at: &At<'_>, value: Option<f64>, (low, high): (f64, f64)) -> Option<f64> {
        match quantity::within(value?, low, high) {
            Ok(value) => Some(value),
            Err(fault) => {
                self.found.push(at.put(fault));
                None
            }
        }
    }

    /// The windows asked for; those of the method, else the usual ones, where none are.
    pub(crate) fn windows(&mut self, target: &RecipeTarget, method: Option<&Method>) -> Windows {
        let usual = method.map_or_else(Windows::default, Method::windows);
        let at = At::ROOT.key("target");
        let c_n = self.band(&at.key("c_n"), target.c_n, C_N_TARGET, 1.0);
        let moisture = self.band(&at.key("moisture_pct"), target.moisture_pct, MOISTURE_TARGET_PCT, 100.0);
        let air = self
            .within(&at.key("free_air_space_min_pct"), target.free_air_space_min_pct, (0.0, 90.0))
            .map(|percent| percent / 100.0);
        let structured = self
            .within(&at.key("structured_min_pct"), target.structured_min_pct, (0.0, 100.0))
            .map(|percent| percent / 100.0);
        Windows::new(
            c_n.unwrap_or_else(|| usual.c_n()),
            moisture.unwrap_or_else(|| usual.moisture()),
            air.unwrap_or_else(|| usual.free_air_space_min()),
        )
        .structured(structured.unwrap_or_else(|| usual.aim(Window::Structure).low))
        .on(target.basis.unwrap_or(Basis::Counted))
    }

    fn band(&mut self, at: &At<'_>, given: Option<[f64; 2]>, allowed: (f64, f64), per: f64) -> Option<Band> {
        let [low, high] = given?;
        let (least, most) = allowed;
        if low >= least && high <= most && low <= high {
            return Band::new(low / per, high / per).ok();
        }
        let fault = at.fault(FaultCode::NotABand).with("least", least).with("most", most);
        self.found.push(fault.with("low", low).with("high", high));
        None
    }
}

/// What one of a document's measures holds [L].
pub(crate) fn litres_of(measures: &[RecipeMeasure], id: &str) -> Option<f64> {
    measures.iter().find(|measure| measure.id == id).map(|measure| measure.litres)
}

impl<'a> From<&'a RecipeTest> for Tested<'a> {
    fn from(test: &'a RecipeTest) -> Self {
        Self { figure: test.figure.into(), value: test.value, kind: test.test, on: &test.on }
    }
}

const C_N_TARGET: (f64, f64) = (1.0, 500.0);
const MOISTURE_TARGET_PCT: (f64, f64) = (1.0, 95.0);
