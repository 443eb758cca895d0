//! Heaps of a package that stand already: what they were built of, their log, and stand-ins for their probes.

use jiff::civil::{Date, DateTime};
use jiff::tz::TimeZone;
use jiff::{Span, Timestamp};
use serde::Deserialize;
use zymarch_core::base::fault::{At, Fault, FaultCode};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::tend::simulated::RodFault;

use super::rows::Table;
use super::{Batch, BatchItemRow, BatchRow, LotRow, MeasureRow};
use crate::log_table::{self, LogRow};

/// A heap that stands already.
#[derive(Debug, Clone, PartialEq)]
pub struct Heap {
    /// What other tables call it.
    pub id: String,
    /// What it was built of, as a batch is said.
    pub of: Batch,
    /// When its last layer was laid.
    pub built_at: Timestamp,
    /// What happened since.
    pub log: Vec<LogRow>,
    /// A stand-in for the rod in it.
    pub rod: Option<Rod>,
}

/// A stand-in for a rod.
#[derive(Debug, Clone, PartialEq)]
pub struct Rod {
    /// What it is called.
    pub name: String,
    /// Minutes from one reading to the next.
    pub every_min: u32,
    /// What is wrong with it, and from which day on.
    pub fault: Option<(RodFault, f64)>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct HeapRow {
    id: String,
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
    method: Option<String>,
    built_at: DateTime,
    #[serde(default)]
    rod: Option<String>,
    #[serde(default)]
    every_min: Option<u32>,
    #[serde(default)]
    fault: Option<RodFault>,
    #[serde(default)]
    fault_from_day: Option<f64>,
}

/// The files of heaps, as far as they are there.
pub(super) struct Files {
    pub(super) heaps: Option<String>,
    pub(super) items: Option<String>,
    pub(super) log: Option<String>,
}

/// Heaps with their items and their log.
pub(super) fn heaps(
    files: &Files,
    (measures, catalogue): (&[MeasureRow], &Catalogue),
    found: &mut Vec<Fault>,
) -> Vec<Heap> {
    let Some(text) = &files.heaps else { return Vec::new() };
    let mut heaps: Vec<Heap> = Vec::new();
    for (line, row) in Table("heaps.csv").rows::<HeapRow>(text, found) {
        heaps.extend(row.heap(line, found));
    }
    let table = Table("heap-items.csv");
    for (line, row) in table.rows::<BatchItemRow>(files.items.as_deref().unwrap_or_default(), found) {
        let (of, item) = row.item();
        table.check(line, &item, measures, catalogue, found);
        match heaps.iter_mut().find(|heap| heap.id == of) {
            Some(heap) => heap.of.items.push(item),
            None => found.push(table.fault("batch", line, FaultCode::NoSuchReference).with("got", of)),
        }
    }
    if let Some(text) = &files.log {
        log(text, &mut heaps, found);
    }
    heaps
}

/// The log of each heap: the table of logs, with the heap in front.
fn log(text: &str, heaps: &mut [Heap], found: &mut Vec<Fault>) {
    let (name, at) = ("heap-log.csv", At::ROOT.key("heap-log.csv"));
    match log_table::read(text) {
        Err(faults) => found.extend(faults.0.into_iter().map(|fault| at.put(fault))),
        Ok(table) => {
            found.extend(table.bad.into_iter().map(|fault| at.put(fault)));
            let of = Table::column(text, "heap");
            for (line, row) in table.rows {
                let id = of.iter().find(|(at, _)| *at == line).map_or("", |(_, id)| id.as_str());
                match heaps.iter_mut().find(|heap| heap.id == id) {
                    Some(heap) => heap.log.push(row),
                    None => {
                        let fault = Table(name).fault("heap", line, FaultCode::NoSuchReference);
                        found.push(fault.with("got", id));
                    }
                }
            }
        }
    }
}

impl HeapRow {
    fn heap(self, line: usize, found: &mut Vec<Fault>) -> Option<Heap> {
        let at = self.built_at.to_zoned(TimeZone::UTC);
        let Ok(at) = at else {
            found.push(Table("heaps.csv").fault("built_at", line, FaultCode::NotATime));
            return None;
        };
        let (id, built_at) = (self.id, at.timestamp());
        let rod = self.rod.map(|name| Rod {
            name,
            every_min: self.every_min.unwrap_or(60),
            fault: self.fault.map(|fault| (fault, self.fault_from_day.unwrap_or_default())),
        });
        let row = BatchRow {
            name: self.name,
            water_l: self.water_l,
            shape: self.shape,
            length_cm: self.length_cm,
            width_cm: self.width_cm,
            top_cm: self.top_cm,
            diameter_cm: self.diameter_cm,
            height_cm: self.height_cm,
            columns: self.columns,
            heaps: None,
            method: self.method,
            build_on: None,
            starters: None,
        };
        let of = row.batch(Table("heaps.csv"), line, found)?;
        Some(Heap { id, of, built_at, log: Vec::new(), rod })
    }
}

impl Heap {
    /// The same, so many days later.
    pub(super) fn moved(&mut self, from: Date, to: Date) {
        let Ok(days) = from.until(to) else { return };
        let hours = i64::from(days.get_days()) * 24;
        let later = |at: Timestamp| at.checked_add(Span::new().hours(hours)).unwrap_or(at);
        self.built_at = later(self.built_at);
        self.log.iter_mut().for_each(|row| row.at = later(row.at));
    }
}

impl BatchItemRow {
    /// What it is of, and the item.
    pub(super) fn item(self) -> (String, LotRow) {
        let Self { batch, lot, material, label, amount, unit, moisture_pct, n_pct, c_n, density_kg_l } = self;
        let (gathered_on, price) = (None, None);
        let item = LotRow {
            material,
            label,
            amount,
            unit,
            moisture_pct,
            n_pct,
            c_n,
            density_kg_l,
            id: lot,
            gathered_on,
            price,
        };
        (batch, item)
    }
}
