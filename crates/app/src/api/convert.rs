//! Between the wire and the records: amounts, own figures, names and days.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::Item;
use zymarch_core::quantity::Fraction;
use zymarch_core::stock::Own;
use zymarch_formats::field::{FieldError, Refusal};
use zymarch_formats::recipe::{
    self, OwnFigures, Recipe, RecipeItem, RecipeMeasure, RecipeTarget, RecipeTest,
};
use zymarch_store::held::Held;
use zymarch_store::id::MeasureId;

/// The longest name or label.
const LONGEST_NAME: usize = 80;

/// How an amount is said.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, Serialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub(crate) enum Unit {
    /// Counted in one of the site's measures.
    Measure,
    /// Weighed.
    Kg,
    /// Loose litres.
    Litre,
}

/// An amount as it is kept.
pub(crate) fn held(amount: f64, unit: Unit, measure: Option<i64>) -> Result<Held, Refusal> {
    match (unit, measure) {
        (Unit::Kg, None) => Ok(Held::Kilograms(amount)),
        (Unit::Litre, None) => Ok(Held::Litres(amount)),
        (Unit::Measure, Some(id)) => Ok(Held::Measures { count: amount, measure: MeasureId(id) }),
        (Unit::Measure, None) => Err(Refusal::one("measure_id", "is missing: counted in which measure?")),
        (Unit::Kg | Unit::Litre, Some(_)) => {
            Err(Refusal::one("measure_id", "must be left out unless the unit is `measure`"))
        }
    }
}

/// An amount as it is sent.
pub(crate) fn amount(held: Held) -> (f64, Unit, Option<i64>) {
    match held {
        Held::Kilograms(amount) => (amount, Unit::Kg, None),
        Held::Litres(amount) => (amount, Unit::Litre, None),
        Held::Measures { count, measure } => (count, Unit::Measure, Some(measure.0)),
    }
}

/// Own figures as the core takes them. Those out of range are left to the
/// recipe's checks, which every record goes through first.
pub(crate) fn own(figures: &OwnFigures) -> Own {
    let share = |percent: Option<f64>| percent.and_then(|percent| Fraction::from_percent(percent).ok());
    Own {
        moisture: share(figures.moisture_pct),
        nitrogen: share(figures.n_pct),
        c_n: figures.c_n,
        ash: share(figures.ash_pct),
        lignin: share(figures.lignin_pct),
        density_kg_l: figures.density_kg_l,
        settle: figures.settle,
        chopped: figures.chopped.unwrap_or(false),
        ..Own::default()
    }
}

/// Own figures as they are sent.
pub(crate) fn own_figures(own: &Own) -> OwnFigures {
    let percent = |share: Option<Fraction>| share.map(Fraction::percent);
    OwnFigures {
        moisture_pct: percent(own.moisture),
        n_pct: percent(own.nitrogen),
        c_n: own.c_n,
        ash_pct: percent(own.ash),
        lignin_pct: percent(own.lignin),
        density_kg_l: own.density_kg_l,
        settle: own.settle,
        chopped: own.chopped.then_some(true),
    }
}

/// A material in an amount, with all that is known of it.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Said<'a> {
    pub(crate) material: &'a str,
    pub(crate) held: Held,
    /// What one measure holds, if it is counted in measures.
    pub(crate) litres_each: Option<f64>,
    pub(crate) own: &'a OwnFigures,
    pub(crate) tests: &'a [RecipeTest],
}

impl Said<'_> {
    /// As an item of a recipe, which knows how to check it.
    pub(crate) fn item(&self) -> RecipeItem {
        let (kg, litres, amount, measure) = match self.held {
            Held::Kilograms(kg) => (Some(kg), None, None, None),
            Held::Litres(litres) => (None, Some(litres), None, None),
            Held::Measures { count, measure } => (None, None, Some(count), Some(measure.0.to_string())),
        };
        RecipeItem {
            material: self.material.to_owned(),
            kg,
            litres,
            amount,
            measure,
            moisture_pct: self.own.moisture_pct,
            n_pct: self.own.n_pct,
            c_n: self.own.c_n,
            ash_pct: self.own.ash_pct,
            lignin_pct: self.own.lignin_pct,
            density_kg_l: self.own.density_kg_l,
            settle: self.own.settle,
            chopped: self.own.chopped,
            tests: self.tests.to_vec(),
        }
    }

    /// Resolved by the rules of a recipe, its fields named under `prefix`.
    /// Records hold known materials only.
    pub(crate) fn resolve(&self, catalogue: &Catalogue, prefix: &str) -> Result<Item, Refusal> {
        if catalogue.find(self.material).is_none() {
            let field = format!("{prefix}.material");
            return Err(Refusal::one(field.trim_start_matches('.'), "is not a material known here"));
        }
        let item = self.item();
        let measures = item.measure.iter().zip(self.litres_each);
        let one = Recipe {
            format: recipe::FORMAT.into(),
            name: None,
            measures: measures.map(|(id, litres)| RecipeMeasure { id: id.clone(), litres }).collect(),
            items: vec![item],
            water_l: 0.0,
            target: RecipeTarget::default(),
            method: None,
        };
        match one.resolve(catalogue) {
            Ok(resolved) => resolved.items.first().copied().ok_or_else(|| Refusal::one(prefix, "is empty")),
            Err(refusal) => Err(Refusal {
                errors: refusal
                    .errors
                    .into_iter()
                    .map(|error| {
                        let own = error.field.replacen("items[0]", prefix, 1);
                        FieldError::new(own.trim_start_matches('.'), error.reason)
                    })
                    .collect(),
            }),
        }
    }
}

/// A name that is one: something, not too long, on one line.
pub(crate) fn name(field: &str, text: &str) -> Result<String, Refusal> {
    let text = text.trim();
    if text.is_empty() {
        return Err(Refusal::one(field, "is empty"));
    }
    if text.chars().count() > LONGEST_NAME {
        return Err(Refusal::one(field, format!("is longer than {LONGEST_NAME} characters")));
    }
    if text.chars().any(char::is_control) {
        return Err(Refusal::one(field, "must stand on one line"));
    }
    Ok(text.to_owned())
}

/// A name that may be left out.
pub(crate) fn label(field: &str, text: Option<&str>) -> Result<Option<String>, Refusal> {
    text.map(str::trim).filter(|text| !text.is_empty()).map(|text| name(field, text)).transpose()
}

/// A day of the calendar, as 2026-03-14, not after `today`.
pub(crate) fn day(field: &str, text: &str, today: Date) -> Result<String, Refusal> {
    let day: Date =
        text.parse().map_err(|_| Refusal::one(field, "is not a day of the calendar such as 2026-03-14"))?;
    if day > today {
        return Err(Refusal::one(field, format!("is after today, {today}")));
    }
    if day.year() < 1990 {
        return Err(Refusal::one(field, "is too long ago"));
    }
    Ok(day.to_string())
}

/// Days from a day kept in the records to today.
pub(crate) fn days_since(day: &str, today: Date) -> i64 {
    let day = day.get(..10).unwrap_or(day).parse::<Date>();
    day.ok().and_then(|day| day.until(today).ok()).map_or(0, |span| i64::from(span.get_days()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_was_typed_comes_back_as_typed() {
        for tenth in 0..=1000 {
            let typed = OwnFigures { moisture_pct: Some(f64::from(tenth) / 10.0), ..OwnFigures::default() };
            assert_eq!(own_figures(&own(&typed)), typed);
        }
    }

    #[test]
    fn names_are_checked() {
        assert_eq!(name("name", "  Terrace heap "), Ok("Terrace heap".into()));
        assert!(
            name("name", " ").is_err()
                && name("name", &"x".repeat(81)).is_err()
                && name("name", "a\nb").is_err()
        );
    }

    #[test]
    fn days_are_checked_and_counted() {
        let today = jiff::civil::date(2026, 3, 14);
        assert_eq!(day("on", "2026-03-01", today), Ok("2026-03-01".into()));
        for bad in ["2026-02-30", "2026-03-15", "soon", "1066-01-01"] {
            assert!(day("on", bad, today).is_err(), "{bad}");
        }
        assert_eq!(days_since("2025-12-14", today), 90);
        assert_eq!(days_since("2026-03-10T09:00:00Z", today), 4);
    }
}
