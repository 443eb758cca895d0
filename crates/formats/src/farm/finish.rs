//! What came of the heaps of a package: places, harvests, uses, results.

use jiff::civil::{Date, DateTime};
use jiff::tz::TimeZone;
use jiff::{Span, Timestamp};
use serde::Deserialize;
use serde::de::DeserializeOwned;
use zymarch_core::base::fault::{Fault, FaultCode};
use zymarch_core::finish::apply::Use;
use zymarch_core::finish::lab::{LabFigure, LabFound};
use zymarch_core::finish::restrict::GroundKind;
use zymarch_core::stock::field_test::LabBasis;

use super::Heap;
use super::rows::Table;
use crate::field;

/// A place that compost goes to.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Ground {
    /// What other tables call it.
    pub id: String,
    /// What people call it.
    pub name: String,
    /// A bed, a field, trees.
    pub kind: GroundKind,
    /// How large [m²].
    pub area_m2: Option<f64>,
    /// How many, of pits and trees.
    pub count: Option<f64>,
    /// What grows there.
    pub crop: Option<String>,
    /// Whether what is eaten touches the soil.
    pub touches_soil: bool,
    /// Whether it is eaten raw.
    pub is_eaten_raw: bool,
    /// The day it is to be harvested.
    pub harvest_on: Option<Date>,
}

/// Compost that was taken out of a heap.
#[derive(Debug, Clone, PartialEq)]
pub struct Harvest {
    /// What other tables call it.
    pub id: String,
    /// The heap.
    pub heap: String,
    /// When.
    pub at: Timestamp,
    /// How much, without the rejects [L].
    pub litres: f64,
    /// What the screen held back [L].
    pub rejects_l: Option<f64>,
    /// Through which mesh [mm].
    pub mesh_mm: Option<f64>,
    /// Water [% of fresh mass].
    pub moisture_pct: Option<f64>,
    /// Whether that was all of it.
    pub is_last: bool,
}

/// Compost that went somewhere.
#[derive(Debug, Clone, PartialEq)]
pub struct Used {
    /// Which harvest.
    pub compost: String,
    /// Which place.
    pub ground: String,
    /// When.
    pub at: Timestamp,
    /// For what.
    pub used: Use,
}

/// What a laboratory or a kit found.
#[derive(Debug, Clone, PartialEq)]
pub struct Found {
    /// In which compost or place.
    pub of: String,
    /// The day of the sample.
    pub made_on: Date,
    /// Who found it.
    pub by: Option<String>,
    /// What.
    pub result: LabFound,
}

/// All that came of the heaps.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Finished {
    /// Places.
    pub grounds: Vec<Ground>,
    /// Harvests.
    pub harvests: Vec<Harvest>,
    /// Uses.
    pub uses: Vec<Used>,
    /// Results.
    pub results: Vec<Found>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct HarvestRow {
    id: String,
    heap: String,
    at: DateTime,
    litres: f64,
    rejects_l: Option<f64>,
    mesh_mm: Option<f64>,
    moisture_pct: Option<f64>,
    is_last: bool,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct UsedRow {
    compost: String,
    ground: String,
    at: DateTime,
    #[serde(rename = "use")]
    used: String,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct FoundRow {
    of: String,
    made_on: Date,
    by: Option<String>,
    basis: LabBasis,
    figures: String,
}

/// The files of finishing, as far as they are there.
pub(super) struct Files {
    pub(super) grounds: Option<String>,
    pub(super) harvests: Option<String>,
    pub(super) uses: Option<String>,
    pub(super) results: Option<String>,
}

/// A table that may be left out.
fn rows<T: DeserializeOwned>(table: Table, text: Option<&String>, found: &mut Vec<Fault>) -> Vec<(usize, T)> {
    text.map(|text| table.rows(text, found)).unwrap_or_default()
}

/// A cell that holds JSON.
fn cell<T: DeserializeOwned>(
    (table, column, line): (Table, &'static str, usize),
    text: &str,
    found: &mut Vec<Fault>,
) -> Option<T> {
    field::read(text).map_err(|_| found.push(table.fault(column, line, FaultCode::UnreadRow))).ok()
}

fn utc((table, line): (Table, usize), at: DateTime, found: &mut Vec<Fault>) -> Option<Timestamp> {
    let at = at.to_zoned(TimeZone::UTC).map(|at| at.timestamp());
    at.map_err(|_| found.push(table.fault("at", line, FaultCode::NotATime))).ok()
}

/// What came of heaps; every reference to something that is not there is told.
pub(super) fn finished(files: &Files, heaps: &[Heap], found: &mut Vec<Fault>) -> Finished {
    let mut all = Finished::default();
    let grounds: Vec<(usize, Ground)> = rows(Table("grounds.csv"), files.grounds.as_ref(), found);
    all.grounds = grounds.into_iter().map(|(_, row)| row).collect();
    let missing = |table: Table, column, line, got: &str| {
        table.fault(column, line, FaultCode::NoSuchReference).with("got", got)
    };
    let table = Table("harvests.csv");
    for (line, row) in rows::<HarvestRow>(table, files.harvests.as_ref(), found) {
        if heaps.iter().all(|heap| heap.id != row.heap) {
            found.push(missing(table, "heap", line, &row.heap));
        }
        let HarvestRow { id, heap, litres, rejects_l, mesh_mm, moisture_pct, is_last, .. } = row;
        let Some(at) = utc((table, line), row.at, found) else { continue };
        all.harvests.push(Harvest { id, heap, at, litres, rejects_l, mesh_mm, moisture_pct, is_last });
    }
    let table = Table("uses.csv");
    for (line, row) in rows::<UsedRow>(table, files.uses.as_ref(), found) {
        if all.harvests.iter().all(|one| one.id != row.compost) {
            found.push(missing(table, "compost", line, &row.compost));
        }
        if all.grounds.iter().all(|one| one.id != row.ground) {
            found.push(missing(table, "ground", line, &row.ground));
        }
        let at = utc((table, line), row.at, found);
        let used = cell((table, "use", line), &row.used, found);
        if let Some((at, used)) = at.zip(used) {
            all.uses.push(Used { compost: row.compost, ground: row.ground, at, used });
        }
    }
    let table = Table("results.csv");
    for (line, row) in rows::<FoundRow>(table, files.results.as_ref(), found) {
        let is_there =
            all.harvests.iter().any(|one| one.id == row.of) || all.grounds.iter().any(|one| one.id == row.of);
        if !is_there {
            found.push(missing(table, "of", line, &row.of));
        }
        let Some(figures) = cell::<Vec<(LabFigure, f64)>>((table, "figures", line), &row.figures, found)
        else {
            continue;
        };
        let result = LabFound { basis: row.basis, figures };
        all.results.push(Found { of: row.of, made_on: row.made_on, by: row.by, result });
    }
    all
}

impl Finished {
    /// The same, so many days later.
    pub(super) fn moved(&mut self, from: Date, to: Date) {
        let Ok(span) = from.until(to) else { return };
        let hours = Span::new().hours(i64::from(span.get_days()) * 24);
        let later = |at: Timestamp| at.checked_add(hours).unwrap_or(at);
        let day = |day: Date| day.checked_add(span).unwrap_or(day);
        self.harvests.iter_mut().for_each(|one| one.at = later(one.at));
        self.uses.iter_mut().for_each(|one| one.at = later(one.at));
        self.results.iter_mut().for_each(|one| one.made_on = day(one.made_on));
        self.grounds.iter_mut().for_each(|one| one.harvest_on = one.harvest_on.map(day));
    }
}
