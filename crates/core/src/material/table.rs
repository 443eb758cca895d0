//! Materials as CSV with the columns of the reference table, in and out.
//!
//! The same reader serves the shipped table, a person's own file and a form:
//! every bad row is named, with its line and column, and a row with one bad
//! cell is not taken.

use std::collections::HashSet;

use super::{Degradability, Group, Kind, Material, Particle, Spread};
use crate::caution;
use crate::quantity::Fraction;

/// The columns, in their order. `name_es`, `lignin_pct`, `p_pct`, `k_pct`,
/// `keeps_days`, `cautions` and `note` may be left blank.
pub const COLUMNS: [&str; 29] = [
    "id",
    "name",
    "name_es",
    "kind",
    "group",
    "moisture_pct",
    "moisture_low",
    "moisture_high",
    "n_pct",
    "n_low",
    "n_high",
    "c_n",
    "c_n_low",
    "c_n_high",
    "ash_pct",
    "lignin_pct",
    "density_kg_l",
    "density_low",
    "density_high",
    "settle",
    "p_pct",
    "k_pct",
    "degradability",
    "particle",
    "structure",
    "keeps_days",
    "cautions",
    "source",
    "note",
];

/// Clean softwood reaches about 1,100 to 1; beyond this a figure is a slip.
const LARGEST_C_N: f64 = 2000.0;

const LONGEST_TEXT: usize = 500;

/// One cell that could not be read.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("line {line}, {column}: {reason}")]
pub struct BadRow {
    /// Line in the file, the header being 1; 0 for a form.
    pub line: u64,
    /// Column name.
    pub column: String,
    /// Why, and what is expected.
    pub reason: String,
}

/// A row of a file, read or refused.
#[derive(Debug, Clone, PartialEq)]
pub struct ReadRow {
    /// Line in the file, the header being 1.
    pub line: u64,
    /// What stands under `id`, even if the row is refused.
    pub id: String,
    /// The material, or every bad cell.
    pub material: Result<Material, Vec<BadRow>>,
}

/// Materials from CSV text, all or nothing.
///
/// # Errors
/// Every [`BadRow`], in the order of the file.
pub fn read(text: &str) -> Result<Vec<Material>, Vec<BadRow>> {
    let mut materials = Vec::new();
    let mut bad = Vec::new();
    for row in rows(text)? {
        match row.material {
            Ok(material) => materials.push(material),
            Err(cells) => bad.extend(cells),
        }
    }
    if bad.is_empty() { Ok(materials) } else { Err(bad) }
}

/// Every row of CSV text, read or refused one by one. Columns may stand in any
/// order; an id that stands twice is refused the second time.
///
/// # Errors
/// [`BadRow`]s of the header, if columns are missing or unknown.
pub fn rows(text: &str) -> Result<Vec<ReadRow>, Vec<BadRow>> {
    // Spreadsheets put a byte-order mark in front.
    let text = text.trim_start_matches('\u{feff}');
    let mut reader =
        csv::ReaderBuilder::new().flexible(true).trim(csv::Trim::All).from_reader(text.as_bytes());
    let header = match reader.headers() {
        Ok(header) => header.clone(),
        Err(error) => return Err(vec![unreadable(1, &error)]),
    };
    check_header(&header)?;
    let mut seen = HashSet::new();
    let mut rows = Vec::new();
    for record in reader.records() {
        let row = match record {
            Ok(record) => {
                let line = record.position().map_or(0, csv::Position::line);
                let cells = |column: &str| {
                    let index = header.iter().position(|name| name == column)?;
                    record.get(index)
                };
                let mut material = one(line, cells);
                let id = cells("id").unwrap_or("").to_owned();
                if record.len() > header.len() {
                    let reason =
                        format!("holds {} cells, but there are {} columns", record.len(), header.len());
                    material = Err(vec![BadRow { line, column: "row".into(), reason }]);
                } else if material.is_ok() && !seen.insert(id.clone()) {
                    let reason = format!("`{id}` stands twice in this file");
                    material = Err(vec![BadRow { line, column: "id".into(), reason }]);
                }
                ReadRow { line, id, material }
            }
            Err(error) => {
                let line = error.position().map_or(0, csv::Position::line);
                ReadRow { line, id: String::new(), material: Err(vec![unreadable(line, &error)]) }
            }
        };
        rows.push(row);
    }
    Ok(rows)
}

/// One material from its cells, by column name.
///
/// # Errors
/// Every [`BadRow`] of it.
pub fn one<'a>(line: u64, cell: impl Fn(&str) -> Option<&'a str>) -> Result<Material, Vec<BadRow>> {
    let mut row = Row { line, cell: &cell, bad: Vec::new() };
    let material = row.material();
    if row.bad.is_empty() { Ok(material) } else { Err(row.bad) }
}

/// Materials as CSV text that [`read`] takes back.
#[must_use]
pub fn write<'a>(materials: impl IntoIterator<Item = &'a Material>) -> String {
    let mut writer = csv::Writer::from_writer(Vec::new());
    let mut put = |cells: &[String]| writer.write_record(cells).expect("memory takes every row");
    put(&COLUMNS.map(str::to_owned));
    for material in materials {
        put(&cells(material));
    }
    let bytes = writer.into_inner().expect("memory is flushed");
    String::from_utf8(bytes).expect("made of strings")
}

/// The cells of a material, in the order of [`COLUMNS`].
#[must_use]
pub fn cells(material: &Material) -> Vec<String> {
    let percent = |share: f64| ((share * 1e11).round() / 1e9).to_string();
    let shares = |of: Spread| [of.typical, of.low, of.high].map(percent);
    let plain = |of: Spread| [of.typical, of.low, of.high].map(|value| value.to_string());
    let blank = |share: Option<Fraction>| share.map_or(String::new(), |share| percent(share.get()));
    let cautions: Vec<_> = material.cautions.iter().map(|caution| caution.code).collect();
    let mut cells = vec![
        material.id.clone(),
        material.name.clone(),
        material.name_es.clone(),
        material.kind.as_str().into(),
        material.group.as_str().into(),
    ];
    cells.extend(shares(material.moisture));
    cells.extend(shares(material.nitrogen));
    cells.extend(plain(material.c_n));
    cells.extend([percent(material.ash.get()), blank(material.lignin)]);
    cells.extend(plain(material.density_kg_l));
    cells.extend([
        material.settle.to_string(),
        blank(material.phosphorus),
        blank(material.potassium),
        material.degradability.as_str().into(),
        material.particle.as_str().into(),
        material.structure.to_string(),
        material.keeps_days.map_or(String::new(), |days| days.to_string()),
        cautions.join(";"),
        material.source.clone(),
        material.note.clone(),
    ]);
    cells
}

fn check_header(header: &csv::StringRecord) -> Result<(), Vec<BadRow>> {
    let bad = |column: &str, reason: &str| BadRow { line: 1, column: column.into(), reason: reason.into() };
    let mut found = Vec::new();
    for column in COLUMNS {
        match header.iter().filter(|name| *name == column).count() {
            0 => found.push(bad(column, "this column is missing")),
            1 => {}
            _ => found.push(bad(column, "this column stands twice")),
        }
    }
    let unknown = header.iter().filter(|name| !COLUMNS.contains(name));
    found.extend(unknown.map(|name| bad(name, "this column is not known")));
    if found.is_empty() { Ok(()) } else { Err(found) }
}

fn unreadable(line: u64, error: &csv::Error) -> BadRow {
    BadRow { line, column: "row".into(), reason: error.to_string() }
}

struct Row<'c, 'a, F: Fn(&str) -> Option<&'a str>> {
    line: u64,
    cell: &'c F,
    bad: Vec<BadRow>,
}

impl<'a, F: Fn(&str) -> Option<&'a str>> Row<'_, 'a, F> {
    /// The material; worth nothing if a cell was bad.
    fn material(&mut self) -> Material {
        Material {
            id: self.id(),
            name: self.text("name"),
            name_es: self.bounded("name_es"),
            kind: self.word("kind", Kind::parse, Kind::Brown),
            group: self.word("group", Group::parse, Group::CropResidue),
            moisture: self.percent_spread("moisture_pct", "moisture_low", "moisture_high"),
            nitrogen: self.percent_spread("n_pct", "n_low", "n_high"),
            c_n: self.spread("c_n", "c_n_low", "c_n_high", (0.0, LARGEST_C_N)),
            ash: self.percent("ash_pct").unwrap_or(Fraction::ZERO),
            lignin: self.percent("lignin_pct"),
            density_kg_l: self.spread("density_kg_l", "density_low", "density_high", (0.001, 5.0)),
            settle: self.number("settle", (0.05, 1.0)),
            phosphorus: self.percent("p_pct"),
            potassium: self.percent("k_pct"),
            degradability: self.word("degradability", Degradability::parse, Degradability::Medium),
            particle: self.word("particle", Particle::parse, Particle::Medium),
            structure: self.small("structure", 3).unwrap_or(0) as u8,
            keeps_days: self.small("keeps_days", 3650),
            cautions: self.cautions(),
            source: self.text("source"),
            note: self.bounded("note"),
            is_own: false,
        }
    }

    fn refuse(&mut self, column: &str, reason: String) {
        self.bad.push(BadRow { line: self.line, column: column.to_owned(), reason });
    }

    fn cell(&self, column: &str) -> &'a str {
        (self.cell)(column).unwrap_or("").trim()
    }

    fn bounded(&mut self, column: &str) -> String {
        let text = self.cell(column);
        if text.chars().count() > LONGEST_TEXT {
            self.refuse(column, format!("is longer than {LONGEST_TEXT} characters"));
        }
        text.to_owned()
    }

    fn text(&mut self, column: &str) -> String {
        let text = self.bounded(column);
        if text.is_empty() {
            self.refuse(column, "is empty".into());
        }
        text
    }

    fn id(&mut self) -> String {
        let id = self.text("id");
        let plain = |c: char| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-';
        if !id.is_empty() && !id.chars().all(plain) {
            self.refuse("id", format!("`{id}` is not lower case with hyphens"));
        }
        id
    }

    fn word<T: Copy>(&mut self, column: &str, parse: fn(&str) -> Option<T>, otherwise: T) -> T {
        let word = self.cell(column);
        parse(word).unwrap_or_else(|| {
            self.refuse(column, format!("`{word}` is not on the list"));
            otherwise
        })
    }

    fn number(&mut self, column: &str, (low, high): (f64, f64)) -> f64 {
        let cell = self.cell(column);
        match cell.parse::<f64>() {
            Ok(value) if (low..=high).contains(&value) => value,
            Ok(value) => {
                self.refuse(column, format!("{value} is not between {low} and {high}"));
                low
            }
            Err(_) => {
                self.refuse(column, format!("`{cell}` is not a number"));
                low
            }
        }
    }

    fn spread(&mut self, typical: &str, low: &str, high: &str, allowed: (f64, f64)) -> Spread {
        let before = self.bad.len();
        let spread = Spread {
            typical: self.number(typical, allowed),
            low: self.number(low, allowed),
            high: self.number(high, allowed),
        };
        let is_ordered = spread.low <= spread.typical && spread.typical <= spread.high;
        if self.bad.len() == before && !is_ordered {
            let Spread { low, typical: usual, high } = spread;
            self.refuse(typical, format!("{usual} does not lie in its own range, {low} to {high}"));
        }
        spread
    }

    fn percent_spread(&mut self, typical: &str, low: &str, high: &str) -> Spread {
        let percent = self.spread(typical, low, high, (0.0, 100.0));
        Spread { low: percent.low / 100.0, typical: percent.typical / 100.0, high: percent.high / 100.0 }
    }

    /// A share that may be left blank.
    fn percent(&mut self, column: &str) -> Option<Fraction> {
        if self.cell(column).is_empty() {
            return None;
        }
        let value = self.number(column, (0.0, 100.0));
        Fraction::from_percent(value).ok()
    }

    /// A small whole number that may be left blank.
    fn small(&mut self, column: &str, largest: u16) -> Option<u16> {
        let cell = self.cell(column);
        if cell.is_empty() {
            return None;
        }
        match cell.parse::<u16>() {
            Ok(value) if value <= largest => Some(value),
            _ => {
                self.refuse(column, format!("`{cell}` is not a whole number up to {largest}"));
                None
            }
        }
    }

    fn cautions(&mut self) -> Vec<caution::Caution> {
        let cell = self.cell("cautions");
        let mut cautions = Vec::new();
        for code in cell.split(';').map(str::trim).filter(|code| !code.is_empty()) {
            match caution::find(code) {
                Some(caution) => cautions.push(caution),
                None => self.refuse("cautions", format!("`{code}` is not a known caution")),
            }
        }
        cautions
    }
}

#[cfg(test)]
mod tests;
