//! A whole farm as a data package: CSV tables beside a `datapackage.json`.
//!
//! The package follows the open Tabular Data Package layout. Reading is all or
//! nothing, and names every bad row by file and line. Needed are measures, lots
//! and batches; a climate, materials of one's own and tests may stand beside.

use jiff::civil::Date;
use serde::Deserialize;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::climate::Climate;
use zymarch_core::material::{self, Material};
use zymarch_core::{method, starter};

use crate::field::{self, Refusal};
use crate::field_test::Readings;
use crate::layers::HeapShape;
use crate::recipe::{OwnFigures, RecipeItem};

mod rows;

use rows::{bad, check, climate, plain, rows, shape, tests};

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
    /// What one of its unit costs, in the farm's own money.
    #[serde(default)]
    pub price: Option<f64>,
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
    /// The day it is to be built.
    pub build_on: Option<Date>,
    /// What is to help it begin.
    pub starters: Vec<String>,
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
struct BatchRow {
    name: String,
    water_l: f64,
    shape: String,
    length_cm: Option<f64>,
    width_cm: Option<f64>,
    #[serde(default)]
    top_cm: Option<f64>,
    diameter_cm: Option<f64>,
    height_cm: Option<f64>,
    #[serde(default)]
    columns: Option<u8>,
    #[serde(default)]
    method: Option<String>,
    #[serde(default)]
    build_on: Option<Date>,
    /// Words between semicolons.
    #[serde(default)]
    starters: Option<String>,
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
    let catalogue = Catalogue::with_own(materials.iter().cloned(), []);
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
            let words = row.starters.iter().flat_map(|words| words.split(';'));
            let starters: Vec<_> = words.filter(|word| !word.is_empty()).map(str::to_owned).collect();
            for word in starters.iter().filter(|word| starter::find(word).is_none()) {
                let reason = format!("`{word}` is not a starter that is known here");
                errors.push(bad("batches.csv.starters", *line, reason));
            }
            batches.push(Batch {
                name: row.name.clone(),
                water_l: row.water_l,
                heap,
                method: row.method.clone(),
                build_on: row.build_on,
                starters,
                items: Vec::new(),
            });
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
            price: None,
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
        for batch in &mut self.batches {
            batch.build_on = batch.build_on.map(moved);
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

#[cfg(test)]
mod tests;
