//! Rows of a package's tables, each fault named by file, column and line.

use jiff::civil::Date;
use serde::Deserialize;
use serde::de::DeserializeOwned;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::climate::{Climate, Month};
use zymarch_core::method::ShapeKind;
use zymarch_core::quantity::LARGEST_AMOUNT;

use super::{BatchRow, LotRow, MeasureRow, TestRow};
use crate::field::{self, FieldError};
use crate::field_test::Readings;
use crate::layers::HeapShape;
use crate::recipe::{self, Recipe, RecipeMeasure, RecipeTarget};

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct MonthRow {
    month: u8,
    mean_c: f64,
    swing_c: f64,
    rain_mm: f64,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct ReadingsRow {
    lot: String,
    made_on: Date,
    readings: String,
}

pub(super) fn plain<T>(rows: Vec<(u64, T)>) -> Vec<T> {
    rows.into_iter().map(|(_, row)| row).collect()
}

pub(super) fn bad(field: impl Into<String>, line: u64, reason: impl Into<String>) -> FieldError {
    FieldError { field: field.into(), line: usize::try_from(line).ok(), reason: reason.into() }
}

pub(super) fn rows<T: DeserializeOwned>(
    name: &str,
    text: &str,
    errors: &mut Vec<FieldError>,
) -> Vec<(u64, T)> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    let headers = reader.headers().cloned().unwrap_or_default();
    let mut rows = Vec::new();
    for record in reader.records() {
        let row = record.and_then(|record| {
            let line = record.position().map_or(0, csv::Position::line);
            record.deserialize(Some(&headers)).map(|row| (line, row))
        });
        match row {
            Ok(row) => rows.push(row),
            Err(error) => {
                let line = error.position().map_or(0, csv::Position::line);
                errors.push(bad(name, line, error.to_string()));
            }
        }
    }
    rows
}

/// Twelve months or nothing.
pub(super) fn climate(text: &str, errors: &mut Vec<FieldError>) -> Option<Climate> {
    let before = errors.len();
    let mut months = [None; 12];
    for (line, row) in rows::<MonthRow>("climate.csv", text, errors) {
        match (
            Month::new(row.mean_c, row.swing_c, row.rain_mm),
            months.get_mut(usize::from(row.month).wrapping_sub(1)),
        ) {
            (Ok(month), Some(place)) => *place = Some(month),
            (Err(error), _) => {
                errors.push(bad(format!("climate.csv.{}", error.field), line, error.to_string()))
            }
            (_, None) => errors.push(bad("climate.csv.month", line, "is not a month from 1 to 12")),
        }
    }
    let whole: Vec<Month> = months.into_iter().flatten().collect();
    if errors.len() == before && whole.len() < 12 {
        errors.push(bad("climate.csv", 1, "must hold twelve months"));
    }
    <[Month; 12]>::try_from(whole).ok().map(Climate)
}

pub(super) fn tests(text: &str, lots: &[(u64, LotRow)], errors: &mut Vec<FieldError>) -> Vec<TestRow> {
    let mut found = Vec::new();
    for (line, row) in rows::<ReadingsRow>("tests.csv", text, errors) {
        let Some(lot) = lots.iter().position(|(_, lot)| lot.id.as_deref() == Some(&row.lot)) else {
            errors.push(bad("tests.csv.lot", line, format!("there is no lot \"{}\"", row.lot)));
            continue;
        };
        match field::read::<Readings>(&row.readings)
            .and_then(|readings| readings.answer(None, 0).map(|_| readings))
        {
            Ok(readings) => found.push(TestRow { lot, made_on: row.made_on, readings }),
            Err(refusal) => errors.extend(
                refusal
                    .errors
                    .into_iter()
                    .map(|error| bad(format!("tests.csv.readings.{}", error.field), line, error.reason)),
            ),
        }
    }
    found
}

/// A row must make a recipe of its own.
pub(super) fn check(
    name: &str,
    line: u64,
    row: &LotRow,
    (measures, catalogue): (&[MeasureRow], &Catalogue),
    errors: &mut Vec<FieldError>,
) {
    let recipe = Recipe {
        format: recipe::FORMAT.into(),
        name: None,
        items: vec![row.to_item()],
        measures: measures.iter().map(|m| RecipeMeasure { id: m.id.clone(), litres: m.litres }).collect(),
        water_l: 0.0,
        target: RecipeTarget::default(),
        method: None,
    };
    if let Err(refusal) = recipe.resolve(catalogue) {
        errors.extend(refusal.errors.into_iter().map(|error| {
            let column = error.field.trim_start_matches("items[0]").trim_start_matches('.').to_owned();
            bad(format!("{name}.{column}"), line, error.reason)
        }));
    }
    if let Some(price) = row.price
        && !(0.0..=LARGEST_AMOUNT).contains(&price)
    {
        errors.push(bad(
            format!("{name}.price"),
            line,
            format!("must be from 0 to {LARGEST_AMOUNT}, got {price}"),
        ));
    }
}

pub(super) fn shape(row: &BatchRow, line: u64, errors: &mut Vec<FieldError>) -> Option<HeapShape> {
    let Some(kind) = ShapeKind::parse(&row.shape) else {
        let known: Vec<_> = ShapeKind::ALL.iter().map(|kind| kind.as_str()).collect();
        errors.push(bad("batches.csv.shape", line, format!("is none of {}", known.join(", "))));
        return None;
    };
    let shape = HeapShape {
        shape: kind,
        length_cm: row.length_cm,
        width_cm: row.width_cm,
        top_cm: row.top_cm,
        diameter_cm: row.diameter_cm,
        height_cm: row.height_cm,
        columns: row.columns,
    };
    match shape.resolve("batches.csv") {
        Ok(_) => Some(shape),
        Err(refusal) => {
            errors.extend(refusal.errors.into_iter().map(|error| bad(error.field, line, error.reason)));
            None
        }
    }
}
