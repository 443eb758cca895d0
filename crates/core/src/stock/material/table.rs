//! Materials as CSV with the columns of the reference table, in and out.
//!
//! The same reader serves the shipped table, a person's own file and a form:
//! every bad row is named, with its line and column, and a row with one bad
//! cell is not taken.

mod row;

use std::collections::HashSet;

use self::row::Row;
use super::{Material, Spread};
use crate::base::fault::{Fault, FaultCode, Path, Seg};
use crate::base::quantity::Fraction;

/// The columns, in their order. `name_es`, `names`, `names_es`, `lignin_pct`, `p_pct`, `k_pct`,
/// `decays_pct`, `wet_max_pct`, `keeps_days`, `cautions` and `note` may be left blank.
pub const COLUMNS: [&str; 33] = [
    "id",
    "name",
    "name_es",
    "names",
    "names_es",
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
    "decays_pct",
    "wet_max_pct",
    "keeps_days",
    "cautions",
    "source",
    "note",
];

/// Columns that a file may do without: those of earlier files, which had none of them.
const LATER: [&str; 4] = ["names", "names_es", "decays_pct", "wet_max_pct"];

/// What the figures of a row may be, by the column of the usual value; the ends of its
/// range may be the same. Clean softwood reaches a C:N of about 1,100; beyond twice
/// that a figure is a slip.
pub const FIGURE_LIMITS: [(&str, (f64, f64)); 13] = [
    ("moisture_pct", (0.0, 100.0)),
    ("n_pct", (0.0, 100.0)),
    ("c_n", (0.0, 2000.0)),
    ("ash_pct", (0.0, 100.0)),
    ("lignin_pct", (0.0, 100.0)),
    ("density_kg_l", (0.001, 5.0)),
    ("settle", (0.0, 1.0)),
    ("p_pct", (0.0, 100.0)),
    ("k_pct", (0.0, 100.0)),
    ("structure", (0.0, 3.0)),
    ("decays_pct", (1.0, 100.0)),
    ("wet_max_pct", (10.0, 95.0)),
    ("keeps_days", (0.0, 3650.0)),
];

/// Rows of a file: many times what anybody composts.
pub const MOST_ROWS: usize = 2000;

/// Letters of a name, a source or a note.
pub const LONGEST_TEXT: usize = 500;

/// What a column may hold.
fn limit(column: &str) -> (f64, f64) {
    let row = FIGURE_LIMITS.iter().find(|(name, _)| *name == column);
    row.expect("every column of figures has its limits").1
}

/// A row of a file, read or refused.
#[derive(Debug, Clone, PartialEq)]
pub struct ReadRow {
    /// Line in the file, the header being 1.
    pub line: usize,
    /// What stands under `id`, even if the row is refused.
    pub id: String,
    /// The material, or every bad cell.
    pub material: Result<Material, Vec<Fault>>,
}

/// Materials from CSV text, all or nothing.
///
/// # Errors
/// Every [`Fault`], in the order of the file.
pub fn read(text: &str) -> Result<Vec<Material>, Vec<Fault>> {
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
/// [`Fault`]s of the header, if columns are missing or unknown.
pub fn rows(text: &str) -> Result<Vec<ReadRow>, Vec<Fault>> {
    // Spreadsheets put a byte-order mark in front.
    let text = text.trim_start_matches('\u{feff}');
    let mut reader =
        csv::ReaderBuilder::new().flexible(true).trim(csv::Trim::All).from_reader(text.as_bytes());
    let header = match reader.headers() {
        Ok(header) => header.clone(),
        Err(_) => return Err(vec![unreadable(1)]),
    };
    check_header(&header)?;
    let mut seen = HashSet::new();
    let mut rows = Vec::new();
    for (place, record) in reader.records().enumerate() {
        if place == MOST_ROWS {
            let fault = Fault::of("row", FaultCode::TooMany).with("got", place + 1).with("most", MOST_ROWS);
            return Err(vec![fault]);
        }
        let row = match record {
            Ok(record) => {
                let line = line_of(record.position());
                let cells = |column: &str| {
                    let index = header.iter().position(|name| name == column)?;
                    record.get(index)
                };
                let mut material = one(line, cells);
                let id = cells("id").unwrap_or("").to_owned();
                if record.len() > header.len() {
                    let fault = Fault::of("row", FaultCode::WrongCells)
                        .with("got", record.len())
                        .with("columns", header.len());
                    material = Err(vec![fault.on_line(line)]);
                } else if material.is_ok() && !seen.insert(id.clone()) {
                    material = Err(vec![Fault::of("id", FaultCode::Twice).on_line(line)]);
                }
                ReadRow { line, id, material }
            }
            Err(error) => {
                let line = line_of(error.position());
                ReadRow { line, id: String::new(), material: Err(vec![unreadable(line)]) }
            }
        };
        rows.push(row);
    }
    Ok(rows)
}

/// One material from its cells, by column name.
///
/// # Errors
/// Every [`Fault`] of it.
pub fn one<'a>(line: usize, cell: impl Fn(&str) -> Option<&'a str>) -> Result<Material, Vec<Fault>> {
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
        let cells: Vec<String> = cells(material).into_iter().map(guarded).collect();
        put(&cells);
    }
    let bytes = writer.into_inner().expect("memory is flushed");
    String::from_utf8(bytes).expect("made of strings")
}

/// Letters that make a spreadsheet take a cell for a formula.
const FORMULA: [char; 6] = ['=', '+', '-', '@', '\t', '\r'];

/// A cell that a spreadsheet will not reckon with: a quotation mark before what begins like a
/// formula, as spreadsheets themselves write it.
fn guarded(cell: String) -> String {
    if cell.trim_start_matches('\'').starts_with(FORMULA) { format!("'{cell}") } else { cell }
}

/// The cell as it was before it was guarded.
fn unguarded(cell: &str) -> &str {
    match cell.strip_prefix('\'') {
        Some(rest) if rest.trim_start_matches('\'').starts_with(FORMULA) => rest,
        _ => cell,
    }
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
        material.names.join(";"),
        material.names_es.join(";"),
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
        blank(material.decays),
        blank(material.wet_max),
        material.keeps_days.map_or(String::new(), |days| days.to_string()),
        cautions.join(";"),
        material.source.clone(),
        material.note.clone(),
    ]);
    cells
}

fn check_header(header: &csv::StringRecord) -> Result<(), Vec<Fault>> {
    let bad = |path: Path, code| Fault { path, ..Fault::new(code) }.on_line(1);
    let mut found = Vec::new();
    for column in COLUMNS {
        match header.iter().filter(|name| *name == column).count() {
            0 if LATER.contains(&column) => {}
            0 => found.push(bad(column.into(), FaultCode::ColumnMissing)),
            1 => {}
            _ => found.push(bad(column.into(), FaultCode::ColumnTwice)),
        }
    }
    let unknown = header.iter().filter(|name| !COLUMNS.contains(name));
    found.extend(unknown.map(|name| {
        let shown: String = name.chars().take(60).collect();
        bad(Path::new(vec![Seg::Key(shown.into())]), FaultCode::ColumnUnknown)
    }));
    if found.is_empty() { Ok(()) } else { Err(found) }
}

fn line_of(position: Option<&csv::Position>) -> usize {
    position.map_or(0, |at| usize::try_from(at.line()).unwrap_or(0))
}

fn unreadable(line: usize) -> Fault {
    Fault::of("row", FaultCode::UnreadRow).on_line(line)
}

#[cfg(test)]
mod tests;
