//! A whole farm as a data package: CSV tables beside a `datapackage.json`.
//!
//! The package follows the open Tabular Data Package layout. Reading is all or
//! nothing, and names every bad row by file and line. Needed are measures, lots
//! and batches; a climate, materials of one's own and tests may stand beside.

use jiff::civil::Date;
use serde::Deserialize;
use serde::de::DeserializeOwned;
use zymarch_core::climate::{Climate, Month};
use zymarch_core::material::{self, Catalogue, Material};
use zymarch_core::method;

use crate::field::{self, FieldError, Refusal};
use crate::field_test::Readings;
use crate::layers::HeapShape;
use crate::recipe::{self, OwnFigures, Recipe, RecipeItem, RecipeMeasure, RecipeTarget};

/// The `profile` of a package that is read here.
pub const PROFILE: &str = "zymarch-farm/1";

/// A farm, as it stands in a package.
#[derive(Debug, Clone, PartialEq)]
pub struct Farm {
    /// What people call it.
    pub name: String,
    /// The day it was written.
    pub created: Option<Date>,
    /// Above the sea [m].
    pub altitude_m: Option<f64>,
    /// What a year is like there.
    pub climate: Option<Climate>,
    /// Materials of its own.
    pub materials: Vec<Material>,
    /// Its containers.
    pub measures: Vec<MeasureRow>,
    /// Its stock.
    pub lots: Vec<LotRow>,
    /// Tests on lots.
    pub tests: Vec<TestRow>,
    /// Its batches, with their items.
    pub batches: Vec<Batch>,
}

/// A row of `tests.csv`.
#[derive(Debug, Clone, PartialEq)]
pub struct TestRow {
    /// Its lot, by place in `lots`.
    pub lot: usize,
    /// The day.
    pub made_on: Date,
    /// What was read.
    pub readings: Readings,
}

/// A row of `measures.csv`.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct MeasureRow {
    /// What other tables call it.
    pub id: String,
    /// One of them.
    pub name: String,
    /// Many of them.
    pub plural: String,
    /// What one holds, litres.
    pub litres: f64,
    /// Sign it is drawn with.
    pub glyph: String,
}

/// A row of `lots.csv`.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LotRow {
    /// Id in the reference table.
    pub material: String,
    /// The person's own name for it.
    pub label: Option<String>,
    /// How much.
    pub amount: f64,
    /// `kg`, `litre`, or the id of a measure.
    pub unit: String,
    /// Water, % of fresh mass.
    pub moisture_pct: Option<f64>,
    /// Nitrogen, % of dry matter.
    pub n_pct: Option<f64>,
    /// Carbon to nitrogen.
    pub c_n: Option<f64>,
    /// Loose density, kg/L.
    pub density_kg_l: Option<f64>,
    /// What other tables call it; of a batch's item, the lot it comes from.
    #[serde(default)]
    pub id: Option<String>,
    /// The day it was gathered.
    #[serde(default)]
    pub gathered_on: Option<Date>,
}

/// A batch and what goes in.
#[derive(Debug, Clone, PartialEq)]
pub struct Batch {
    /// What it is called.
    pub name: String,
    /// Water added, litres.
    pub water_l: f64,
    /// The heap it is meant for.
    pub heap: HeapShape,
    /// The way it is composted.
    pub method: Option<String>,
    /// What goes in, in order.
    pub items: Vec<LotRow>,
}

#[derive(Deserialize)]
struct Package {
    profile: String,
    title: String,
    created: Option<Date>,
    altitude_m: Option<f64>,
}

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

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct BatchRow {
    name: String,
    water_l: f64,
    shape: String,
    length_cm: Option<f64>,
    width_cm: Option<f64>,
    diameter_cm: Option<f64>,
    height_cm: f64,
    #[serde(default)]
    method: Option<String>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct BatchItemRow {
    batch: String,
    #[serde(default)]
    lot: Option<String>,
    material: String,
    label: Option<String>,
    amount: f64,
    unit: String,
    moisture_pct: Option<f64>,
    n_pct: Option<f64>,
    c_n: Option<f64>,
    density_kg_l: Option<f64>,
}

/// Reads a package, given a way to its files.
///
/// # Errors
/// A [`Refusal`] with every bad row; fields are named `lots.csv.amount`.
pub fn read(file: impl Fn(&str) -> Option<String>) -> Result<Farm, Refusal> {
    let need = |name: &str| file(name).ok_or_else(|| Refusal::one(name, "is missing from the package"));
    let package: Package = field::read(&need("datapackage.json")?)?;
    if package.profile != PROFILE {
        return Err(Refusal::one(
            "profile",
            format!("is \"{}\", but \"{PROFILE}\" is read here", package.profile),
        ));
    }
    let mut errors = Vec::new();
    let measures: Vec<MeasureRow> = plain(rows("measures.csv", &need("measures.csv")?, &mut errors));
    let lots: Vec<(u64, LotRow)> = rows("lots.csv", &need("lots.csv")?, &mut errors);
    let batch_rows: Vec<(u64, BatchRow)> = rows("batches.csv", &need("batches.csv")?, &mut errors);
    let item_rows: Vec<(u64, BatchItemRow)> = rows("batch-items.csv", &need("batch-items.csv")?, &mut errors);
    let materials = match file("materials.csv").map(|text| material::read(&text)) {
        None => Vec::new(),
        Some(Ok(materials)) => materials,
        Some(Err(bad)) => {
            errors.extend(
                bad.into_iter()
                    .map(|cell| self::bad(format!("materials.csv.{}", cell.column), cell.line, cell.reason)),
            );
            Vec::new()
        }
    };
    let catalogue = Catalogue::with_own(materials.iter().cloned());
    let climate = file("climate.csv").and_then(|text| climate(&text, &mut errors));
    for (line, lot) in &lots {
        check("lots.csv", *line, lot, (&measures, &catalogue), &mut errors);
    }
    let tests = file("tests.csv").map(|text| tests(&text, &lots, &mut errors)).unwrap_or_default();
    let mut batches: Vec<Batch> = Vec::new();
    for (line, row) in &batch_rows {
        if let Some(heap) = shape(row, *line, &mut errors) {
            if row.method.as_deref().is_some_and(|id| method::find(id).is_none()) {
                errors.push(bad(
                    "batches.csv.method",
                    *line,
                    "is not a way of composting that is known here",
                ));
            }
            let (name, method) = (row.name.clone(), row.method.clone());
            batches.push(Batch { name, water_l: row.water_l, heap, method, items: Vec::new() });
        }
    }
    for (line, row) in item_rows {
        let item = LotRow {
            material: row.material,
            label: row.label,
            amount: row.amount,
            unit: row.unit,
            moisture_pct: row.moisture_pct,
            n_pct: row.n_pct,
            c_n: row.c_n,
            density_kg_l: row.density_kg_l,
            id: row.lot,
            gathered_on: None,
        };
        if item.id.is_some() && lots.iter().all(|(_, lot)| lot.id != item.id) {
            errors.push(bad("batch-items.csv.lot", line, "is not the id of a lot"));
        }
        check("batch-items.csv", line, &item, (&measures, &catalogue), &mut errors);
        match batches.iter_mut().find(|batch| batch.name == row.batch) {
            Some(batch) => batch.items.push(item),
            None => errors.push(bad(
                "batch-items.csv.batch",
                line,
                format!("there is no batch \"{}\"", row.batch),
            )),
        }
    }
    if errors.is_empty() {
        let lots = plain(lots);
        let (created, altitude_m) = (package.created, package.altitude_m);
        Ok(Farm {
            name: package.title,
            created,
            altitude_m,
            climate,
            materials,
            measures,
            lots,
            tests,
            batches,
        })
    } else {
        Err(Refusal { errors })
    }
}

impl Farm {
    /// The same farm with every date moved, so that what was new on the day it
    /// was written is new on another: the demo is always of today.
    #[must_use]
    pub fn moved_to(mut self, today: Date) -> Self {
        let Some(created) = self.created else { return self };
        let Ok(span) = created.until(today) else { return self };
        let moved = |day: Date| day.checked_add(span).unwrap_or(day);
        for lot in &mut self.lots {
            lot.gathered_on = lot.gathered_on.map(moved);
        }
        for test in &mut self.tests {
            test.made_on = moved(test.made_on);
            if let Readings::Bean { judged_on: Some(judged), .. } = &mut test.readings
                && let Ok(day) = judged.parse::<Date>()
            {
                *judged = moved(day).to_string();
            }
        }
        self.created = Some(today);
        self
    }
}

impl LotRow {
    /// The row as an item of a recipe.
    #[must_use]
    pub fn to_item(&self) -> RecipeItem {
        let (kg, litres, amount, measure) = match self.unit.as_str() {
            "kg" => (Some(self.amount), None, None, None),
            "litre" => (None, Some(self.amount), None, None),
            measure => (None, None, Some(self.amount), Some(measure.to_owned())),
        };
        RecipeItem {
            material: self.material.clone(),
            kg,
            litres,
            amount,
            measure,
            moisture_pct: self.moisture_pct,
            n_pct: self.n_pct,
            c_n: self.c_n,
            density_kg_l: self.density_kg_l,
            ..RecipeItem::default()
        }
    }

    /// The person's own figures of it.
    #[must_use]
    pub fn own(&self) -> OwnFigures {
        self.to_item().own()
    }
}

fn plain<T>(rows: Vec<(u64, T)>) -> Vec<T> {
    rows.into_iter().map(|(_, row)| row).collect()
}

fn bad(field: impl Into<String>, line: u64, reason: impl Into<String>) -> FieldError {
    FieldError { field: field.into(), line: usize::try_from(line).ok(), reason: reason.into() }
}

fn rows<T: DeserializeOwned>(name: &str, text: &str, errors: &mut Vec<FieldError>) -> Vec<(u64, T)> {
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
fn climate(text: &str, errors: &mut Vec<FieldError>) -> Option<Climate> {
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

fn tests(text: &str, lots: &[(u64, LotRow)], errors: &mut Vec<FieldError>) -> Vec<TestRow> {
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
fn check(
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
}

fn shape(row: &BatchRow, line: u64, errors: &mut Vec<FieldError>) -> Option<HeapShape> {
    let height_cm = row.height_cm;
    let shape = match (row.shape.as_str(), row.length_cm, row.width_cm, row.diameter_cm) {
        ("box", Some(length_cm), Some(width_cm), None) => HeapShape::Box { length_cm, width_cm, height_cm },
        ("ring", None, None, Some(diameter_cm)) => HeapShape::Ring { diameter_cm, height_cm },
        _ => {
            let reason = "is `box` with length_cm and width_cm, or `ring` with diameter_cm";
            errors.push(bad("batches.csv.shape", line, reason));
            return None;
        }
    };
    match shape.resolve("batches.csv") {
        Ok(_) => Some(shape),
        Err(refusal) => {
            errors.extend(refusal.errors.into_iter().map(|error| bad(error.field, line, error.reason)));
            None
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn package(lots: &str) -> impl Fn(&str) -> Option<String> {
        let lots = lots.to_owned();
        move |name| {
            Some(match name {
                "datapackage.json" => r#"{"profile":"zymarch-farm/1","title":"Velluma Terraces"}"#.into(),
                "measures.csv" => "id,name,plural,litres,glyph\nbarrow,barrow,barrows,70,barrow\n".into(),
                "lots.csv" => format!("material,label,amount,unit,moisture_pct,n_pct,c_n,density_kg_l\n{lots}"),
                "batches.csv" => {
                    "name,water_l,shape,length_cm,width_cm,diameter_cm,height_cm\nTerrace heap,70,box,110,110,,120\n".into()
                }
                "batch-items.csv" => {
                    "batch,material,label,amount,unit,moisture_pct,n_pct,c_n,density_kg_l\nTerrace heap,barley-straw,,4,barrow,,,,\n"
                        .into()
                }
                _ => return None,
            })
        }
    }

    #[test]
    fn a_package_is_read_whole() {
        let farm = read(package("sheep-manure,,3,barrow,58,,,\nwood-ash,,5,kg,,,,\n")).expect("is sound");
        assert_eq!(farm.name, "Velluma Terraces");
        assert_eq!(farm.lots[0].moisture_pct, Some(58.0));
        assert_eq!(farm.batches[0].items.len(), 1);
    }

    #[test]
    fn every_bad_row_is_named_and_nothing_is_taken() {
        let refusal = read(package(
            "sheep-manure,,-3,barrow,,,,\nwood-ash,,5,kg,,,,\nmoon-dust,,1,kg,,,,\nlime,,many,kg,,,,\n",
        ))
        .expect_err("three bad rows");
        let lines: Vec<_> = refusal.errors.iter().filter_map(|error| error.line).collect();
        assert_eq!(lines, [5, 2, 4], "{refusal}");
    }

    #[test]
    fn dates_move_with_the_day_the_package_was_written() {
        let with_dates = |name: &str| {
            Some(match name {
                "datapackage.json" => {
                    r#"{"profile":"zymarch-farm/1","title":"x","created":"2026-03-14","altitude_m":2900}"#.into()
                }
                "lots.csv" => {
                    "id,material,label,amount,unit,moisture_pct,n_pct,c_n,density_kg_l,gathered_on\n\
                     dung,sheep-manure,,3,barrow,,,,,2026-03-10\n"
                        .into()
                }
                "tests.csv" => {
                    "lot,made_on,readings\ndung,2026-03-12,\"{\"\"kind\"\":\"\"squeeze\"\",\"\"feel\"\":\"\"holds\"\"}\"\n".into()
                }
                other => return package("")(other),
            })
        };
        let farm = read(with_dates).expect("is sound").moved_to(jiff::civil::date(2027, 1, 14));
        assert_eq!(farm.lots[0].gathered_on, Some(jiff::civil::date(2027, 1, 10)));
        assert_eq!(farm.tests[0].made_on, jiff::civil::date(2027, 1, 12));
    }

    #[test]
    fn bad_months_and_tests_are_named_by_file_and_line() {
        let refusal = read(|name: &str| {
            Some(match name {
                "climate.csv" => "month,mean_c,swing_c,rain_mm\n1,10,5,80\n13,10,5,80\n2,99,5,80\n".into(),
                "tests.csv" => "lot,made_on,readings\nnone,2026-03-12,{}\n".into(),
                other => return package("")(other),
            })
        })
        .expect_err("three bad rows");
        let found: Vec<_> = refusal.errors.iter().map(|error| (error.field.as_str(), error.line)).collect();
        assert_eq!(
            found,
            [("climate.csv.month", Some(3)), ("climate.csv.mean_c", Some(4)), ("tests.csv.lot", Some(2))]
        );
    }

    #[test]
    fn a_missing_file_is_named() {
        let refusal = read(|name| {
            (name == "datapackage.json").then(|| r#"{"profile":"zymarch-farm/1","title":"x"}"#.into())
        })
        .expect_err("no tables");
        assert_eq!(refusal.errors[0].field, "measures.csv");
    }
}
