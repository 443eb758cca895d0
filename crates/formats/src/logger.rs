//! Files of loggers: which column is what, when each row was read, and which rows cannot be.
//!
//! Loggers write what they like: other words in front, a comma or a semicolon between, days first or months
//! first, degrees Fahrenheit. What a file looks like is guessed, shown and put right by the person; then
//! the same reading of it is written down.

mod guess;
mod time;

use std::collections::HashSet;

use jiff::tz::TimeZone;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults, Path, Seg};
use zymarch_core::base::words::closed_list;
use zymarch_core::tend::entry::Spot;

use time::Clockwork;
pub use time::DateOrder;

/// The largest file [bytes].
pub const LARGEST_FILE: usize = 24 * 1024 * 1024;

/// Bad rows that are told; all are counted.
const MOST_TOLD: usize = 50;

/// Rows that are shown so that a person sees which column is what.
const SHOWN_ROWS: usize = 5;

closed_list! {
    /// Degrees of a thermometer.
    TempUnit {
        /// Celsius.
        C = "c",
        /// Fahrenheit.
        F = "f",
    }
}

/// Which column is what.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LoggerColumns {
    /// The column of the time, or of the day where the hour stands apart; from 0.
    pub time: usize,
    /// The column of the hour, where it stands apart from the day.
    #[serde(default)]
    pub hour: Option<usize>,
    /// The columns of temperatures.
    pub temps: Vec<TempColumn>,
    /// In which degrees.
    pub unit: TempUnit,
    /// In which order days are written.
    pub order: DateOrder,
    /// The zone by whose clock the logger went, as `UTC` or `America/Lima`.
    pub zone: String,
    /// Whether a comma stands before tenths.
    pub decimal_comma: bool,
}

/// A column of temperatures.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TempColumn {
    /// Which, from 0.
    pub column: usize,
    /// Where it was read.
    pub place: Spot,
    /// How deep, cm.
    #[serde(default)]
    pub depth_cm: Option<f64>,
}

/// A column, as it is shown.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct LoggerColumn {
    /// What stands over it; empty if nothing does.
    pub name: String,
    /// Its first cells.
    pub first: Vec<String>,
}

/// A file, taken apart into rows of cells.
#[derive(Debug)]
pub struct LoggerFile {
    /// What stands over the columns.
    names: Vec<String>,
    /// The rows of data, each with its line.
    rows: Vec<(usize, csv::StringRecord)>,
}

/// A reading of a file.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LoggerReading {
    /// When [ms since 1970].
    pub at_ms: i64,
    /// Where.
    pub place: Spot,
    /// How deep [cm].
    pub depth_cm: Option<f64>,
    /// How warm [°C].
    pub temp_c: f64,
}

/// What a file holds.
#[derive(Debug, Clone, PartialEq)]
pub struct LoggerRead {
    /// Its readings, in the order of the file.
    pub readings: Vec<LoggerReading>,
    /// Rows of data in it.
    pub rows: usize,
    /// Rows in which something cannot be; their other cells are read.
    pub bad_rows: usize,
    /// The first of them, each with its line and the name of its column.
    pub bad: Vec<Fault>,
}

impl LoggerFile {
    /// A text taken apart: what stands before the first row that begins with a time is left out, but for the
    /// names of the columns.
    ///
    /// # Errors
    /// It is too large, or no row of it holds a time.
    pub fn read(text: &str) -> Result<Self, Fault> {
        if text.len() > LARGEST_FILE {
            return Err(Fault::new(FaultCode::DocumentTooLarge).with("most_kb", LARGEST_FILE / 1024));
        }
        let mut reader = csv::ReaderBuilder::new()
            .has_headers(false)
            .flexible(true)
            .trim(csv::Trim::All)
            .delimiter(guess::delimiter(text))
            .from_reader(text.as_bytes());
        let (mut names, mut rows, mut before) = (Vec::new(), Vec::new(), None);
        let mut record = csv::StringRecord::new();
        while reader.read_record(&mut record).unwrap_or(false) {
            let line = record.position().map_or(0, csv::Position::line) as usize;
            if rows.is_empty() && !record.iter().any(time::is_like_a_time) {
                before = Some(record.clone());
                continue;
            }
            if rows.is_empty()
                && let Some(before) = before.take().filter(|before| before.len() >= record.len().min(2))
            {
                names = before.iter().map(str::to_owned).collect();
            }
            rows.push((line, record.clone()));
        }
        if rows.is_empty() {
            return Err(Fault::new(FaultCode::NoTimeColumn));
        }
        Ok(Self { names, rows })
    }

    /// Its columns, as they are shown.
    #[must_use]
    pub fn columns(&self) -> Vec<LoggerColumn> {
        let wide = self.rows.iter().take(200).map(|(_, row)| row.len()).max().unwrap_or(0);
        let cell = |column: usize, row: &(usize, csv::StringRecord)| {
            row.1.get(column).unwrap_or_default().chars().take(40).collect()
        };
        let of = |column: usize| LoggerColumn {
            name: self.name(column),
            first: self.rows.iter().take(SHOWN_ROWS).map(|row| cell(column, row)).collect(),
        };
        (0..wide).map(of).collect()
    }

    /// How many rows of data it has.
    #[must_use]
    pub fn rows(&self) -> usize {
        self.rows.len()
    }

    fn name(&self, column: usize) -> String {
        self.names.get(column).map(|name| name.chars().take(80).collect()).unwrap_or_default()
    }

    /// Which column probably is what.
    #[must_use]
    pub fn guessed(&self, zone: &str) -> LoggerColumns {
        guess::columns(self, zone)
    }

    /// What it holds, if its columns are these.
    ///
    /// # Errors
    /// A column that is not there, none of temperatures, a zone that is not known.
    pub fn told(&self, columns: &LoggerColumns) -> Result<LoggerRead, Faults> {
        let zone = self.checked(columns)?;
        let mut clock = Clockwork::new(zone, columns.order);
        let mut read =
            LoggerRead { readings: Vec::new(), rows: self.rows.len(), bad_rows: 0, bad: Vec::new() };
        let mut seen: HashSet<(i64, usize)> = HashSet::with_capacity(self.rows.len());
        for (line, row) in &self.rows {
            let before = read.bad.len();
            let mut is_bad = false;
            let mut bad = |column: usize, code: FaultCode, got: &str| {
                is_bad = true;
                if before < MOST_TOLD {
                    let name = Some(self.name(column)).filter(|name| !name.is_empty());
                    let named = name.unwrap_or_else(|| format!("{}", column + 1));
                    let path = Path::new(vec![Seg::Key(named.into())]);
                    read.bad.push(Fault { path, line: Some(*line), ..Fault::new(code).with("got", got) });
                }
            };
            let cell = |column: usize| row.get(column).unwrap_or_default();
            let (day, hour) = (cell(columns.time), columns.hour.map(cell));
            let Some(at_ms) = clock.at_ms(day, hour) else {
                bad(columns.time, FaultCode::NotATime, day);
                read.bad_rows += 1;
                continue;
            };
            for (nth, temp) in columns.temps.iter().enumerate() {
                let text = cell(temp.column);
                if text.is_empty() {
                    continue;
                }
                match number(text, columns.decimal_comma) {
                    Some(value) if seen.insert((at_ms, nth)) => read.readings.push(LoggerReading {
                        at_ms,
                        place: temp.place,
                        depth_cm: temp.depth_cm,
                        temp_c: match columns.unit {
                            TempUnit::C => value,
                            TempUnit::F => ((value - 32.0) / 1.8 * 1e4).round() / 1e4,
                        },
                    }),
                    Some(_) => bad(temp.column, FaultCode::TimeTwice, day),
                    None => bad(temp.column, FaultCode::NotNumeric, text),
                }
            }
            read.bad_rows += usize::from(is_bad);
        }
        Ok(read)
    }

    fn checked(&self, columns: &LoggerColumns) -> Result<TimeZone, Faults> {
        let wide = self.rows.iter().map(|(_, row)| row.len()).max().unwrap_or(0);
        let mut found = Vec::new();
        let mut is_there = |at: &At<'_>, column: usize| {
            if column >= wide {
                found.push(at.fault(FaultCode::TooLarge).with("most", wide - 1).with("got", column));
            }
        };
        is_there(&At::ROOT.key("time"), columns.time);
        if let Some(hour) = columns.hour {
            is_there(&At::ROOT.key("hour"), hour);
        }
        let list = At::ROOT.key("temps");
        for (nth, temp) in columns.temps.iter().enumerate() {
            is_there(&list.index(nth).key("column"), temp.column);
        }
        if columns.temps.is_empty() {
            found.push(list.fault(FaultCode::NoTempColumn));
        }
        let point = |of: &TempColumn| (of.place, of.depth_cm.map(f64::to_bits));
        for nth in 1..columns.temps.len() {
            if columns.temps[..nth].iter().any(|other| point(other) == point(&columns.temps[nth])) {
                found.push(list.index(nth).key("place").fault(FaultCode::Twice).with("field", nth));
            }
        }
        let zone = TimeZone::get(&columns.zone).map_err(|_| {
            found.push(Fault::of("zone", FaultCode::UnknownZone).with("got", columns.zone.as_str()));
        });
        let zone = zone.unwrap_or(TimeZone::UTC);
        Faults::or(found, || zone)
    }
}

/// A number as loggers write it.
fn number(text: &str, decimal_comma: bool) -> Option<f64> {
    let plain = text.trim_end_matches(|sign: char| sign.is_alphabetic() || matches!(sign, '°' | ' ' | '%'));
    let value: Option<f64> = if decimal_comma {
        plain.replace('.', "").replace(',', ".").parse().ok()
    } else {
        plain.parse().ok()
    };
    value.filter(|value| value.is_finite() && value.abs() < 1e6)
}

#[cfg(test)]
mod tests;
