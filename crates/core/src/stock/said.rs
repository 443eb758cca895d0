//! The one checked way from what a person says of a lot to figures and a mass.
//!
//! A recipe, a stock to formulate from, a part of a batch, a record of stock and a
//! row of a file all go through here, and their faults bear the path of the field.

use super::field_test::{TestKind, TestedFigure};
use super::given::checked;
use super::material::Material;
use super::measure::Amount;
use super::say::Names;
use super::{Counted, Figures, Given, Materials, Measured, OwnFigure, Uncertainty, figures, ranges};
use crate::base::fault::{At, Fault, FaultCode, MOST_TOLD};
use crate::base::quantity::{self, Fraction};

/// Less than a milligram is nothing: what is left when floats are taken from one another, and
/// nothing a sum could be divided by [kg].
const LEAST_MASS_KG: f64 = 1e-6;

/// A figure that a dated test gave.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Tested<'a> {
    /// Which figure.
    pub figure: TestedFigure,
    /// Its value, in the unit of the open formats: moisture in %.
    pub value: f64,
    /// By which test.
    pub kind: TestKind,
    /// On which day, as 2026-03-14.
    pub on: &'a str,
}

/// A material in an amount, with all that is known of it, as it is said.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Said<'a> {
    /// Id of the material, or any name if the figures are given.
    pub material: &'a str,
    /// How much.
    pub amount: Amount,
    /// The field that says how much, as the document calls it.
    pub amount_field: &'static str,
    /// Figures in place of the book's.
    pub given: Given,
    /// Figures that tests gave; they beat all others.
    pub tests: &'a [Tested<'a>],
}

/// The same, checked and looked up.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Checked<'m> {
    /// The material, if it is known.
    pub material: Option<&'m Material>,
    /// The figures to reckon with.
    pub figures: Figures,
    /// What is not sure about them.
    pub uncertainty: Uncertainty,
    /// Fresh mass [kg].
    pub wet_mass_kg: f64,
}

impl Said<'_> {
    /// Figures and mass, or none with every fault told under `at`.
    ///
    /// # Example
    /// Two barrows of 70 L of sheep manure at 0.55 kg/L.
    /// ```
    /// use zymarch_core::{base::fault::At, stock::{Given, Materials, Said, measure::Amount}};
    /// let said = Said {
    ///     material: "sheep-manure",
    ///     amount: Amount::Measures { count: 2.0, litres_each: 70.0 },
    ///     amount_field: "amount",
    ///     given: Given::default(),
    ///     tests: &[],
    /// };
    /// let mut found = Vec::new();
    /// let book = Materials::book();
    /// let got = said.checked(&book, &At::ROOT, &mut found).expect("is sound");
    /// assert!((got.wet_mass_kg - 77.0).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn checked<'m>(
        &self,
        materials: &'m Materials,
        at: &At<'_>,
        found: &mut Vec<Fault>,
    ) -> Option<Checked<'m>> {
        let before = found.len();
        if let Err(fault) = self.amount.checked() {
            found.push(at.key(self.amount_field).put(fault));
        }
        let mut own = self.given.checked(at, found);
        own.measured = self.measured(at, found);
        // Who gives every figure means no row of the table, whatever it is called.
        let material =
            if self.given.has_all() { materials.find(self.material) } else { materials.named(self.material) };
        if material.is_none() && self.given == Given::default() {
            // To look for the nearest is dear, and nobody reads a hundred hints.
            let at = at.key("material");
            found.push(if before < MOST_TOLD {
                unknown(materials, self.material, &at)
            } else {
                at.fault(FaultCode::UnknownMaterial).with("got", self.material)
            });
        }
        if found.len() > before {
            return None;
        }
        let figures = match figures(material, &own) {
            Ok(figures) => figures,
            Err(fault) => {
                found.push(at.put(fault));
                return None;
            }
        };
        let wet_mass_kg = self.amount.mass_kg(figures.density_kg_l.value);
        if let Err(fault) = quantity::amount(wet_mass_kg) {
            found.push(at.put(fault));
            return None;
        }
        let wet_mass_kg = if wet_mass_kg < LEAST_MASS_KG { 0.0 } else { wet_mass_kg };
        let carbon = figures.nitrogen.value.get() * figures.c_n.value;
        if figures.ash.value.rest() <= 0.0 && carbon > 0.0 && !figures.inert {
            found.push(at.key("ash_pct").fault(FaultCode::CarbonInAsh));
            return None;
        }
        let counted =
            if matches!(self.amount, Amount::Kilograms(_)) { Counted::ByMass } else { Counted::ByVolume };
        let uncertainty = Uncertainty { ranges: ranges(material, &own, &figures), counted };
        Some(Checked { material, figures, uncertainty, wet_mass_kg })
    }

    fn measured(&self, at: &At<'_>, found: &mut Vec<Fault>) -> Measured {
        let mut measured = Measured::default();
        let tests = at.key("tests");
        for (index, test) in self.tests.iter().enumerate() {
            let at = tests.index(index);
            if !is_day(test.on) {
                found.push(at.key("on").fault(FaultCode::NotADay).with("got", test.on));
            }
            let mut value = |figure| checked(figure, Some(test.value), &at.key("value"), found);
            match test.figure {
                TestedFigure::Moisture => {
                    let percent = value(OwnFigure::Moisture);
                    measured.moisture = percent.and_then(|percent| Fraction::from_percent(percent).ok());
                    measured.is_by_hand = test.kind == TestKind::Squeeze;
                }
                TestedFigure::Nitrogen => {
                    let percent = value(OwnFigure::Nitrogen);
                    measured.nitrogen = percent.and_then(|percent| Fraction::from_percent(percent).ok());
                }
                TestedFigure::CN => measured.c_n = value(OwnFigure::CN),
                TestedFigure::Density => measured.density_kg_l = value(OwnFigure::Density),
                TestedFigure::Settle => measured.settle = value(OwnFigure::Settle),
                TestedFigure::Herbicide => measured.carries_herbicide = true,
            }
        }
        measured
    }
}

/// A material that is not known, with one that is spelled nearly alike, if there is one.
fn unknown(materials: &Materials, id: &str, at: &At<'_>) -> Fault {
    // A slip in the id, or in one of the names that people have for it.
    let named = || Names::new(materials, &[]).find(id).map(|like| like.material);
    match materials.nearest(id).map(|row| row.id.as_str()).or_else(named) {
        Some(near) => at.fault(FaultCode::UnknownMaterialNear).with("got", id).with("near", near),
        None => at.fault(FaultCode::UnknownMaterial).with("got", id),
    }
}

/// Four, two and two digits; whether the calendar has the day is not asked.
fn is_day(text: &str) -> bool {
    let is_so =
        |(at, byte): (usize, u8)| if at == 4 || at == 7 { byte == b'-' } else { byte.is_ascii_digit() };
    text.len() == 10 && text.bytes().enumerate().all(is_so)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn told(said: Said<'_>) -> Vec<(String, FaultCode)> {
        let mut found = Vec::new();
        let (book, items) = (Materials::book(), At::ROOT.key("items"));
        let got = said.checked(&book, &items.index(2), &mut found);
        assert_eq!(got.is_none(), !found.is_empty());
        found.iter().map(|fault| (fault.path.to_string(), fault.code)).collect()
    }

    const STRAW: Said<'_> = Said {
        material: "wheat-straw",
        amount: Amount::Kilograms(10.0),
        amount_field: "amount",
        given: Given {
            moisture_pct: None,
            n_pct: None,
            c_n: None,
            ash_pct: None,
            lignin_pct: None,
            density_kg_l: None,
            settle: None,
            chopped: false,
            structure: None,
            wet_max_pct: None,
            decays_pct: None,
            age_days: None,
        },
        tests: &[],
    };

    #[test]
    fn a_material_is_known_by_what_people_call_it_unless_every_figure_is_given() {
        let book = Materials::book();
        let named = |material: &str, given: Given| {
            let said = Said { material, given, ..STRAW };
            said.checked(&book, &At::ROOT, &mut Vec::new()).and_then(|checked| checked.material)
        };
        let id = |row: Option<&Material>| row.map(|row| row.id.clone());
        assert_eq!(id(named("corn stalks", Given::default())).as_deref(), Some("maize-stover"));
        let all = Given {
            moisture_pct: Some(5.0),
            n_pct: Some(0.1),
            c_n: Some(10.0),
            ash_pct: Some(90.0),
            density_kg_l: Some(1.2),
            ..Given::default()
        };
        assert_eq!(id(named("soil", all)), None, "whoever gives every figure means no row of the table");
        let near = told(Said { material: "cow dng", ..STRAW });
        assert_eq!(near, [("items[2].material".into(), FaultCode::UnknownMaterialNear)]);
    }

    #[test]
    fn each_fault_bears_the_path_of_its_field() {
        assert_eq!(told(STRAW), []);
        let bad = Said { amount: Amount::Measures { count: -1.0, litres_each: 70.0 }, ..STRAW };
        assert_eq!(told(bad), [("items[2].amount".into(), FaultCode::Negative)]);
        let tests =
            [Tested { figure: TestedFigure::Density, value: 90.0, kind: TestKind::Weigh, on: "today" }];
        let bad = Said { tests: &tests, ..STRAW };
        assert_eq!(
            told(bad),
            [
                ("items[2].tests[0].on".into(), FaultCode::NotADay),
                ("items[2].tests[0].value".into(), FaultCode::OutOfRange)
            ]
        );
    }

    #[test]
    fn next_to_nothing_is_nothing_and_pure_ash_holds_no_carbon() {
        let (book, mut found) = (Materials::book(), Vec::new());
        for kg in [1e-320, 1e-9] {
            let said = Said { amount: Amount::Kilograms(kg), ..STRAW };
            let got = said.checked(&book, &At::ROOT, &mut found).expect("is no fault");
            assert_eq!(got.wet_mass_kg, 0.0, "{kg}");
        }
        let ash = Given { ash_pct: Some(100.0), lignin_pct: Some(0.0), ..Given::default() };
        assert_eq!(told(Said { given: ash, ..STRAW }), [("items[2].ash_pct".into(), FaultCode::CarbonInAsh)]);
        let lime = Said { material: "lime", ..STRAW };
        assert_eq!(told(lime), [], "inert stuff may be all ash");
    }

    #[test]
    fn an_unknown_material_is_taken_with_its_figures_and_asked_for_without() {
        let near = told(Said { material: "wheat-straaw", ..STRAW });
        assert_eq!(near, [("items[2].material".into(), FaultCode::UnknownMaterialNear)]);
        let given = Given { n_pct: Some(1.0), ..Given::default() };
        let some = told(Said { material: "moondust", given, ..STRAW });
        assert_eq!(some, [("items[2].moisture_pct".into(), FaultCode::MissingFigure)]);
    }

    #[test]
    fn what_weighs_a_mountain_is_refused_though_its_count_is_not() {
        let given = Given { density_kg_l: Some(5.0), ..Given::default() };
        let got = told(Said { amount: Amount::Litres(900_000.0), given, ..STRAW });
        assert_eq!(got, [("items[2]".into(), FaultCode::TooLarge)]);
    }
}
