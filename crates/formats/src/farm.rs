//! A whole farm as a data package: CSV tables beside a `datapackage.json`.
//!
//! The package follows the open Tabular Data Package layout. Reading is all or
//! nothing, and names every bad row by file and line. Needed are measures, lots
//! and batches; a climate, materials of one's own and tests may stand beside.

use jiff::civil::Date;
use serde::Deserialize;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::plan::heap::fit::MOST_HEAPS;
use zymarch_core::plan::method;
use zymarch_core::plan::starter;
use zymarch_core::stock::climate::Climate;
use zymarch_core::stock::material::{self, Material};

use crate::field;
use crate::field_test::Readings;
use crate::layers::HeapShape;
use crate::recipe::{MOST_MEASURES, OwnFigures};
use crate::text;

mod finish;
mod heaps;
mod rows;

pub use finish::{Finished, Found, Ground, Harvest, Used};
pub use heaps::{Heap, Rod};
use rows::{Table, climate, plain, shape, tests};

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
    /// Heaps that stand already.
    pub heaps: Vec<Heap>,
    /// What came of them.
    pub finished: Finished,
    /// Whether a stand-in for a weather station writes the weather of the site.
    pub has_station: bool,
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
    /// How many of them alike hold it.
    pub heaps: u32,
    /// The method.
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
    #[serde(default)]
    simulated_station: bool,
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
    /// How many heaps alike; one if it is left out.
    #[serde(default)]
    heaps: Option<u32>,
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
    /// What it goes into.
    #[serde(alias = "heap")]
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

/// Reads a package, given a way to the bytes of its files. Only what is not there may be
/// missing; a file that cannot be read is told.
///
/// # Errors
/// Every bad row; paths are such as `lots.csv.amount`.
pub fn read(bytes: impl Fn(&str) -> std::io::Result<Vec<u8>>) -> Result<Farm, Faults> {
    let file = |name: &'static str| -> Result<Option<String>, Faults> {
        let at = At::ROOT.key(name);
        match bytes(name) {
            Ok(bytes) => Ok(Some(text::decoded(bytes).map_err(|fault| at.put(fault))?)),
            Err(error) if error.kind() == std::io::ErrorKind::NotFound => Ok(None),
            Err(error) => Err(at.fault(FaultCode::FileUnread).with("why", error.to_string()).into()),
        }
    };
    let need = |name| file(name)?.ok_or_else(|| Faults::one(name, FaultCode::Missing));
    let package: Package = field::read(&need("datapackage.json")?)?;
    if package.profile != PROFILE {
        let fault = Fault::of("profile", FaultCode::WrongFormat).with("got", package.profile);
        return Err(fault.with("expected", PROFILE).into());
    }
    let mut found = Vec::new();
    let measures: Vec<MeasureRow> = plain(Table("measures.csv").rows(&need("measures.csv")?, &mut found));
    At::ROOT.key("measures.csv").holds(measures.len(), MOST_MEASURES)?;
    let lots: Vec<(usize, LotRow)> = Table("lots.csv").rows(&need("lots.csv")?, &mut found);
    let batch_rows: Vec<(usize, BatchRow)> = Table("batches.csv").rows(&need("batches.csv")?, &mut found);
    let items: Vec<(usize, BatchItemRow)> =
        Table("batch-items.csv").rows(&need("batch-items.csv")?, &mut found);
    let materials = file("materials.csv")?.map_or_else(Vec::new, |text| own_materials(&text, &mut found));
    let catalogue = Catalogue::with_own(materials.iter().cloned(), []);
    let climate = file("climate.csv")?.and_then(|text| climate(&text, &mut found));
    for (line, lot) in &lots {
        Table("lots.csv").check(*line, lot, &measures, &catalogue, &mut found);
    }
    let tests = file("tests.csv")?.map(|text| tests(&text, &lots, &mut found)).unwrap_or_default();
    let mut batches: Vec<Batch> = batch_rows
        .into_iter()
        .filter_map(|(line, row)| row.batch(Table("batches.csv"), line, &mut found))
        .collect();
    let table = Table("batch-items.csv");
    for (line, row) in items {
        let (of, item) = row.item();
        if let Some(id) = item.id.as_deref().filter(|_| lots.iter().all(|(_, lot)| lot.id != item.id)) {
            found.push(table.fault("lot", line, FaultCode::NoSuchReference).with("got", id));
        }
        table.check(line, &item, &measures, &catalogue, &mut found);
        match batches.iter_mut().find(|batch| batch.name == of) {
            Some(batch) => batch.items.push(item),
            None => found.push(table.fault("batch", line, FaultCode::NoSuchReference).with("got", of)),
        }
    }
    let files = heaps::Files {
        heaps: file("heaps.csv")?,
        items: file("heap-items.csv")?,
        log: file("heap-log.csv")?,
    };
    let heaps = heaps::heaps(&files, (&measures, &catalogue), &mut found);
    let files = finish::Files {
        grounds: file("grounds.csv")?,
        harvests: file("harvests.csv")?,
        uses: file("uses.csv")?,
        results: file("results.csv")?,
    };
    let finished = finish::finished(&files, &heaps, &mut found);
    if !found.is_empty() {
        return Err(Faults(found).told());
    }
    Ok(Farm {
        name: package.title,
        created: package.created,
        altitude_m: package.altitude_m,
        climate,
        materials,
        measures,
        lots: plain(lots),
        tests,
        batches,
        heaps,
        finished,
        has_station: package.simulated_station,
    })
}

fn own_materials(text: &str, found: &mut Vec<Fault>) -> Vec<Material> {
    material::read(text).unwrap_or_else(|faults| {
        found.extend(faults.into_iter().map(|fault| At::ROOT.key("materials.csv").put(fault)));
        Vec::new()
    })
}

impl BatchRow {
    /// The batch, without what goes in.
    fn batch(self, table: Table, line: usize, found: &mut Vec<Fault>) -> Option<Batch> {
        let heap = shape(table, &self, line, found)?;
        if let Some(id) = self.method.as_deref().filter(|id| method::find(id).is_none()) {
            found.push(table.fault("method", line, FaultCode::NoSuchMethod).with("got", id));
        }
        let words = self.starters.iter().flat_map(|words| words.split(';'));
        let starters: Vec<_> = words.filter(|word| !word.is_empty()).map(str::to_owned).collect();
        for word in starters.iter().filter(|word| starter::find(word).is_none()) {
            found.push(table.fault("starters", line, FaultCode::NoSuchStarter).with("got", word.as_str()));
        }
        let Self { name, water_l, method, build_on, .. } = self;
        let heaps = self.heaps.unwrap_or(1);
        if let Err(fault) = quantity::within(f64::from(heaps), 1.0, MOST_HEAPS) {
            found.push(table.put(line, At::ROOT.key("heaps").put(fault)));
        }
        Some(Batch { name, water_l, heap, heaps, method, build_on, starters, items: Vec::new() })
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
        for heap in &mut self.heaps {
            heap.moved(created, today);
        }
        self.finished.moved(created, today);
        self.created = Some(today);
        self
    }
}

impl LotRow {
    /// The person's own figures of it.
    #[must_use]
    pub fn own(&self) -> OwnFigures {
        OwnFigures {
            moisture_pct: self.moisture_pct,
            n_pct: self.n_pct,
            c_n: self.c_n,
            density_kg_l: self.density_kg_l,
            ..OwnFigures::default()
        }
    }
}

#[cfg(test)]
mod tests;
