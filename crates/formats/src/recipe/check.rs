//! Checking every field of a recipe, and looking up what it leaves to the book.

use zymarch_core::catalogue::Catalogue;
use zymarch_core::confidence::{self, Counted, Doubt};
use zymarch_core::field_test::TestKind;
use zymarch_core::judge::{Basis, Target};
use zymarch_core::measure::Amount;
use zymarch_core::method::Method;
use zymarch_core::mix::Item;
use zymarch_core::quantity::{self, Band, Fraction};
use zymarch_core::stock::{self, Measured, Own};

use super::{OwnFigures, RecipeBasis, RecipeFigure, RecipeItem, RecipeMeasure, RecipeTarget, RecipeTest};
use crate::field::FieldError;

/// What was found wrong so far.
pub(super) struct Check<'a> {
    pub(super) catalogue: &'a Catalogue,
    pub(super) errors: Vec<FieldError>,
}

impl<'a> Check<'a> {
    pub(super) fn refuse(&mut self, field: impl Into<String>, reason: impl Into<String>) {
        self.errors.push(FieldError::new(field, reason));
    }

    pub(super) fn amount(&mut self, field: impl Into<String>, value: f64) -> f64 {
        quantity::amount(value).unwrap_or_else(|error| {
            self.refuse(field, error.to_string());
            0.0
        })
    }

    pub(super) fn item(
        &mut self,
        field: &str,
        item: &RecipeItem,
        measures: &[RecipeMeasure],
    ) -> Option<(Item, Doubt)> {
        let before = self.errors.len();
        let amount = self.item_amount(field, item, measures);
        let mut own = self.own_figures(field, &item.own());
        own.measured = self.measured(field, &item.tests);
        let catalogue = self.catalogue;
        let material = catalogue.find(&item.material);
        if material.is_none() && item.own() == OwnFigures::default() {
            self.refuse(format!("{field}.material"), unknown_material(catalogue, &item.material));
        }
        if self.errors.len() > before {
            return None;
        }
        match stock::figures(material, &own) {
            Ok(figures) => {
                let wet_mass_kg = amount?.mass_kg(figures.density_kg_l.value);
                let counted = if item.kg.is_some() { Counted::ByMass } else { Counted::ByVolume };
                let doubt = Doubt { ranges: confidence::ranges(material, &own, &figures), counted };
                Some((Item { wet_mass_kg: self.amount(field, wet_mass_kg), figures }, doubt))
            }
            Err(missing) => {
                self.refuse(format!("{field}.{}", missing.field), missing.to_string());
                None
            }
        }
    }

    fn item_amount(&mut self, field: &str, item: &RecipeItem, measures: &[RecipeMeasure]) -> Option<Amount> {
        let amount = match (item.kg, item.litres, item.amount, &item.measure) {
            (Some(kg), None, None, None) => ("kg", Amount::Kilograms(kg)),
            (None, Some(litres), None, None) => ("litres", Amount::Litres(litres)),
            (None, None, Some(count), Some(id)) => match measures.iter().find(|measure| measure.id == *id) {
                Some(measure) => ("amount", Amount::Measures { count, litres_each: measure.litres }),
                None => {
                    self.refuse(format!("{field}.measure"), format!("\"{id}\" is not among the measures"));
                    return None;
                }
            },
            (None, None, Some(_), None) => {
                self.refuse(format!("{field}.measure"), "is missing: an amount is counted in a measure");
                return None;
            }
            (None, None, None, Some(_)) => {
                self.refuse(format!("{field}.amount"), "is missing: how many measures?");
                return None;
            }
            (None, None, None, None) => {
                self.refuse(field, "says no amount: give kg, or litres, or amount and measure");
                return None;
            }
            _ => {
                self.refuse(
                    field,
                    "says its amount twice: give only one of kg, litres, or amount and measure",
                );
                return None;
            }
        };
        match amount.1.checked() {
            Ok(checked) => Some(checked),
            Err(error) => {
                self.refuse(format!("{field}.{}", amount.0), error.to_string());
                None
            }
        }
    }

    fn own_figures(&mut self, field: &str, own: &OwnFigures) -> Own {
        let checked = Own {
            moisture: self.percent(field, "moisture_pct", own.moisture_pct, MOISTURE_PCT),
            nitrogen: self.percent(field, "n_pct", own.n_pct, NITROGEN_PCT),
            c_n: self.within(field, "c_n", own.c_n, C_N),
            ash: self.percent(field, "ash_pct", own.ash_pct, (0.0, 100.0)),
            lignin: self.percent(field, "lignin_pct", own.lignin_pct, (0.0, 100.0)),
            density_kg_l: self.within(field, "density_kg_l", own.density_kg_l, DENSITY_KG_L),
            settle: self.within(field, "settle", own.settle, SETTLE),
            chopped: own.chopped.unwrap_or(false),
            ..Own::default()
        };
        if let (Some(ash), Some(lignin)) = (checked.ash, checked.lignin)
            && lignin.get() > ash.rest() + 1e-9
        {
            self.refuse(format!("{field}.lignin_pct"), "and ash_pct together are more than the dry matter");
        }
        checked
    }

    fn measured(&mut self, field: &str, tests: &[RecipeTest]) -> Measured {
        let mut measured = Measured::default();
        for (index, test) in tests.iter().enumerate() {
            let at = format!("{field}.tests[{index}]");
            if TestKind::parse(&test.test).is_none() {
                self.refuse(format!("{at}.test"), format!("\"{}\" is not a test", shown(&test.test)));
            }
            if !is_day(&test.on) {
                self.refuse(
                    format!("{at}.on"),
                    format!("\"{}\" is not a day such as 2026-03-10", shown(&test.on)),
                );
            }
            let value = Some(test.value);
            match test.figure {
                RecipeFigure::MoisturePct => {
                    measured.moisture = self.percent(&at, "value", value, MOISTURE_PCT);
                    measured.is_by_hand = TestKind::parse(&test.test) == Some(TestKind::Squeeze);
                }
                RecipeFigure::DensityKgL => {
                    measured.density_kg_l = self.within(&at, "value", value, DENSITY_KG_L)
                }
                RecipeFigure::Settle => measured.settle = self.within(&at, "value", value, SETTLE),
                RecipeFigure::Herbicide => measured.carries_herbicide = true,
            }
        }
        measured
    }

    pub(super) fn method(&mut self, id: &str) -> Option<&'a Method> {
        let found = self.catalogue.method(id);
        if found.is_none() {
            let known: Vec<_> = self.catalogue.methods().map(|method| method.id.as_str()).collect();
            self.refuse("method", format!("\"{}\" is not one of {}", shown(id), known.join(", ")));
        }
        found
    }

    fn within(
        &mut self,
        field: &str,
        name: &str,
        value: Option<f64>,
        (low, high): (f64, f64),
    ) -> Option<f64> {
        let value = value?;
        if (low..=high).contains(&value) {
            return Some(value);
        }
        self.refuse(format!("{field}.{name}"), format!("must be between {low} and {high}, got {value}"));
        None
    }

    fn percent(
        &mut self,
        field: &str,
        name: &str,
        value: Option<f64>,
        range: (f64, f64),
    ) -> Option<Fraction> {
        self.within(field, name, value, range).and_then(|percent| Fraction::from_percent(percent).ok())
    }

    /// The windows asked for; those of the method, else the usual ones, where none are.
    pub(super) fn target(&mut self, target: &RecipeTarget, method: Option<&Method>) -> Target {
        let usual = method.map_or_else(Target::default, Method::target);
        let c_n = self.band("target.c_n", target.c_n, C_N_TARGET, 1.0);
        let moisture = self.band("target.moisture_pct", target.moisture_pct, MOISTURE_TARGET_PCT, 100.0);
        let air = self
            .within("target", "free_air_space_min_pct", target.free_air_space_min_pct, (0.0, 90.0))
            .map(|percent| percent / 100.0);
        Target {
            c_n: c_n.unwrap_or(usual.c_n),
            moisture: moisture.unwrap_or(usual.moisture),
            free_air_space_min: air.unwrap_or(usual.free_air_space_min),
            basis: match target.basis {
                Some(RecipeBasis::Available) => Basis::Available,
                Some(RecipeBasis::Total) | None => Basis::Total,
            },
        }
    }

    fn band(&mut self, field: &str, given: Option<[f64; 2]>, allowed: (f64, f64), per: f64) -> Option<Band> {
        let [low, high] = given?;
        let (least, most) = allowed;
        let inside = low >= least && high <= most && low <= high;
        if !inside {
            self.refuse(
                field,
                format!("must run from low to high within {least} and {most}, got {low} to {high}"),
            );
            return None;
        }
        Band::new(low / per, high / per).ok()
    }
}

/// All water is no material.
const MOISTURE_PCT: (f64, f64) = (0.0, 99.9);
/// Urea, the richest there is, holds 46.6 %.
const NITROGEN_PCT: (f64, f64) = (0.0, 47.0);
const C_N: (f64, f64) = (0.0, 2000.0);
const DENSITY_KG_L: (f64, f64) = (0.001, 5.0);
const SETTLE: (f64, f64) = (0.05, 1.0);
const C_N_TARGET: (f64, f64) = (1.0, 500.0);
const MOISTURE_TARGET_PCT: (f64, f64) = (1.0, 95.0);

fn unknown_material(catalogue: &Catalogue, id: &str) -> String {
    let nearest = catalogue
        .all()
        .map(|material| (strsim::jaro_winkler(&material.id, id), &material.id))
        .max_by(|a, b| a.0.total_cmp(&b.0))
        .filter(|(likeness, _)| *likeness > 0.85);
    let hint = nearest.map(|(_, id)| format!(" (did you mean \"{id}\"?)")).unwrap_or_default();
    let shown = shown(id);
    format!(
        "\"{shown}\" is not in the reference table{hint}; a material of your own needs moisture_pct, n_pct, c_n, ash_pct and density_kg_l"
    )
}

/// A name of any length may be given; a message keeps to what can be read.
fn shown(text: &str) -> String {
    text.chars().take(60).collect()
}

/// Four, two and two digits; whether the calendar has the day is not asked.
fn is_day(text: &str) -> bool {
    text.len() == 10
        && text
            .bytes()
            .enumerate()
            .all(|(at, byte)| if at == 4 || at == 7 { byte == b'-' } else { byte.is_ascii_digit() })
}
