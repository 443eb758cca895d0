//! Rows of a package's tables, each fault named by file, column and line.

use jiff::civil::Date;
use serde::Deserialize;
use serde::de::DeserializeOwned;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults, Path, Seg};
use zymarch_core::base::quantity::{LARGEST_AMOUNT, within};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::plan::method::ShapeKind;
use zymarch_core::stock::climate::{Climate, Month};

use super::{BatchRow, LotRow, MeasureRow, TestRow};
use crate::field;
use crate::field_test::Readings;
use crate::layers::HeapShape;
use crate::recipe::RecipeMeasure;
use crate::recipe::check::{Check, SaidAmount, SaidLot};

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

pub(super) fn plain<T>(rows: Vec<(usize, T)>) -> Vec<T> {
    rows.into_iter().map(|(_, row)| row).collect()
}

/// Rows of a table of the package: more than a farm has, few enough to compare with one another.
const MOST_ROWS: usize = 5000;

/// A table of the package, by the name of its file.
#[derive(Debug, Clone, Copy)]
pub(super) struct Table(pub(super) &'static str);

impl Table {
    /// What is wrong in a column on a line.
    pub(super) fn fault(self, column: &'static str, line: usize, code: FaultCode) -> Fault {
        At::ROOT.key(self.0).key(column).fault(code).on_line(line)
    }

    pub(super) fn put(self, line: usize, fault: Fault) -> Fault {
        At::ROOT.key(self.0).put(fault).on_line(line)
    }

    /// The cells of a column, each with its line; empty where there is none.
    pub(super) fn column(text: &str, name: &str) -> Vec<(usize, String)> {
        let mut reader = csv::ReaderBuilder::new().flexible(true).from_reader(text.as_bytes());
        let at = reader.headers().ok().and_then(|headers| headers.iter().position(|header| header == name));
        let cell = |record: csv::StringRecord| {
            let line = record.position().map_or(0, csv::Position::line) as usize;
            (line, at.and_then(|at| record.get(at)).unwrap_or_default().to_owned())
        };
        reader.records().filter_map(Result::ok).map(cell).collect()
    }

    pub(super) fn rows<T: DeserializeOwned>(self, text: &str, found: &mut Vec<Fault>) -> Vec<(usize, T)> {
        let mut reader = csv::Reader::from_reader(text.as_bytes());
        let headers = reader.headers().cloned().unwrap_or_default();
        let mut rows = Vec::new();
        for (place, record) in reader.records().enumerate() {
            if place == MOST_ROWS {
                found.push(
                    At::ROOT
                        .key(self.0)
                        .fault(FaultCode::TooMany)
                        .with("got", place + 1)
                        .with("most", MOST_ROWS),
                );
                break;
            }
            let row = record.and_then(|record| {
                let line = record.position().map_or(0, csv::Position::line);
                record.deserialize(Some(&headers)).map(|row| (line as usize, row))
            });
            match row {
                Ok(row) => rows.push(row),
                Err(error) => found.push(self.unread(&headers, &error)),
            }
        }
        rows
    }

    /// A row that could not be read: by its column, where one is to blame.
    fn unread(self, headers: &csv::StringRecord, error: &csv::Error) -> Fault {
        let line = error.position().map_or(0, csv::Position::line) as usize;
        let (column, code) = match error.kind() {
            csv::ErrorKind::Deserialize { err, .. } => {
                let column = err.field().and_then(|at| headers.get(at as usize));
                (column.unwrap_or_default(), FaultCode::UnreadRow)
            }
            csv::ErrorKind::UnequalLengths { .. } => ("", FaultCode::WrongCells),
            csv::ErrorKind::Utf8 { .. } => ("", FaultCode::NotUtf8),
            _ => ("", FaultCode::UnreadRow),
        };
        let mut steps = vec![Seg::Key(self.0.into())];
        if !column.is_empty() {
            steps.push(Seg::Key(column.to_owned().into()));
        }
        let fault = Fault { path: Path::new(steps), ..Fault::new(code) };
        fault.on_line(line).with("why", error.to_string())
    }

    /// A lot must be one that could be in a mix.
    pub(super) fn check(
        self,
        line: usize,
        row: &LotRow,
        measures: &[MeasureRow],
        catalogue: &Catalogue,
        found: &mut Vec<Fault>,
    ) {
        let measures: Vec<_> =
            measures.iter().map(|m| RecipeMeasure { id: m.id.clone(), litres: m.litres }).collect();
        let mut check = Check::new(catalogue);
        check.lot(&At::ROOT, &row.said(), &measures);
        found.extend(check.found.into_iter().map(|fault| self.put(line, fault)));
        if let Some(Err(fault)) = row.price.map(|price| within(price, 0.0, LARGEST_AMOUNT)) {
            found.push(self.put(line, At::ROOT.key("price").put(fault)));
        }
    }
}

impl LotRow {
    fn said(&self) -> SaidLot<'_> {
        let of = |is: bool| is.then_some(self.amount);
        let is_counted = !matches!(self.unit.as_str(), "kg" | "litre");
        SaidLot {
            material: &self.material,
            amount: SaidAmount {
                kg: of(self.unit == "kg"),
                litres: of(self.unit == "litre"),
                count: of(is_counted),
                measure: is_counted.then_some(self.unit.as_str()),
                names: ("amount", "amount"),
            },
            given: self.own().into(),
            tests: &[],
        }
    }
}

/// Twelve months or nothing.
pub(super) fn climate(text: &str, found: &mut Vec<Fault>) -> Option<Climate> {
    let table = Table("climate.csv");
    let before = found.len();
    let mut months = [None; 12];
    for (line, row) in table.rows::<MonthRow>(text, found) {
        match (
            Month::new(row.mean_c, row.swing_c, row.rain_mm),
            months.get_mut(usize::from(row.month).wrapping_sub(1)),
        ) {
            (Ok(month), Some(place)) => *place = Some(month),
            (Err(fault), _) => found.push(table.put(line, fault)),
            (_, None) => found.push(
                table
                    .fault("month", line, FaultCode::OutOfRange)
                    .with("low", 1.0)
                    .with("high", 12.0)
                    .with("got", f64::from(row.month)),
            ),
        }
    }
    let whole: Vec<Month> = months.into_iter().flatten().collect();
    if found.len() == before && whole.len() < 12 {
        found.push(Fault::of(table.0, FaultCode::TwelveMonths).with("got", whole.len()));
    }
    <[Month; 12]>::try_from(whole).ok().map(Climate)
}

pub(super) fn tests(text: &str, lots: &[(usize, LotRow)], found: &mut Vec<Fault>) -> Vec<TestRow> {
    let table = Table("tests.csv");
    let mut tests = Vec::new();
    for (line, row) in table.rows::<ReadingsRow>(text, found) {
        let Some(lot) = lots.iter().position(|(_, lot)| lot.id.as_deref() == Some(&row.lot)) else {
            found.push(table.fault("lot", line, FaultCode::NoSuchReference).with("got", row.lot));
            continue;
        };
        let readings = field::read::<Readings>(&row.readings)
            .and_then(|readings| readings.answer(None, 0).map_err(Faults::from).map(|_| readings));
        match readings {
            Ok(readings) => tests.push(TestRow { lot, made_on: row.made_on, readings }),
            Err(Faults(faults)) => found
                .extend(faults.into_iter().map(|fault| table.put(line, At::ROOT.key("readings").put(fault)))),
        }
    }
    tests
}

pub(super) fn shape(table: Table, row: &BatchRow, line: usize, found: &mut Vec<Fault>) -> Option<HeapShape> {
    let Some(kind) = ShapeKind::parse(&row.shape) else {
        let fault = table.fault("shape", line, FaultCode::UnknownWord).with("got", row.shape.as_str());
        found.push(fault.with("known", ShapeKind::known()));
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
    match shape.resolve() {
        Ok(_) => Some(shape),
        Err(faults) => {
            let Faults(faults) = faults;
            found.extend(faults.into_iter().map(|fault| table.put(line, fault)));
            None
        }
    }
}
