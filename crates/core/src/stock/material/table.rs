//! Materials as CSV with the columns of the reference table, in and out.
//!
//! The same reader serves the shipped table, a person's own file and a form:
//! every bad row is named, with its line and column, and a row with one bad
//! cell is not taken.

use std::collections::HashSet;

use super::{Degradability, Group, Kind, Material, Particle, Spread};
use crate::base::fault::{Fault, FaultCode, Param, Path, Seg};
use crate::base::quantity::{self, Fraction};
use crate::stock::caution;

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

struct Row<'c, 'a, F: Fn(&str) -> Option<&'a str>> {
    line: usize,
    cell: &'c F,
    bad: Vec<Fault>,
}

/// How a closed list is read, and what stands on it.
type ListOf<T> = (fn(&str) -> Option<T>, fn() -> Param);

impl<'a, F: Fn(&str) -> Option<&'a str>> Row<'_, 'a, F> {
    /// The material; worth nothing if a cell was bad.
    fn material(&mut self) -> Material {
        Material {
            id: self.id(),
            name: self.text("name"),
            name_es: self.bounded("name_es"),
            names: self.names("names"),
            names_es: self.names("names_es"),
            kind: self.word("kind", (Kind::parse, Kind::known), Kind::Brown),
            group: self.word("group", (Group::parse, Group::known), Group::CropResidue),
            moisture: self.percent_spread("moisture_pct", "moisture_low", "moisture_high"),
            nitrogen: self.percent_spread("n_pct", "n_low", "n_high"),
            c_n: self.spread("c_n", "c_n_low", "c_n_high"),
            ash: self.percent("ash_pct").unwrap_or(Fraction::ZERO),
            lignin: self.percent("lignin_pct"),
            density_kg_l: self.spread("density_kg_l", "density_low", "density_high"),
            settle: self.number("settle", limit("settle")),
            phosphorus: self.percent("p_pct"),
            potassium: self.percent("k_pct"),
            degradability: self.word(
                "degradability",
                (Degradability::parse, Degradability::known),
                Degradability::Medium,
            ),
            particle: self.word("particle", (Particle::parse, Particle::known), Particle::Medium),
            structure: self.small("structure").unwrap_or(0) as u8,
            decays: self.percent("decays_pct"),
            wet_max: self.percent("wet_max_pct"),
            keeps_days: self.small("keeps_days"),
            cautions: self.cautions(),
            source: self.text("source"),
            note: self.bounded("note"),
            is_own: false,
        }
    }

    fn refuse(&mut self, column: &'static str, code: FaultCode) -> &mut Fault {
        let line = (self.line > 0).then_some(self.line);
        self.put(Fault { line, ..Fault::of(column, code) })
    }

    fn put(&mut self, fault: Fault) -> &mut Fault {
        self.bad.push(fault);
        self.bad.last_mut().expect("just pushed")
    }

    fn cell(&self, column: &str) -> &'a str {
        unguarded((self.cell)(column).unwrap_or("").trim())
    }

    fn bounded(&mut self, column: &'static str) -> String {
        let text = self.cell(column);
        if text.chars().count() > LONGEST_TEXT {
            self.refuse(column, FaultCode::TooLong).params.push(("most", LONGEST_TEXT.into()));
        }
        text.to_owned()
    }

    fn text(&mut self, column: &'static str) -> String {
        let text = self.bounded(column);
        if text.is_empty() {
            self.refuse(column, FaultCode::EmptyName);
        }
        text
    }

    fn id(&mut self) -> String {
        let id = self.text("id");
        let plain = |c: char| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-';
        if !id.is_empty() && !id.chars().all(plain) {
            self.refuse("id", FaultCode::NotASlug).params.push(("got", id.as_str().into()));
        }
        id
    }

    fn word<T: Copy>(&mut self, column: &'static str, (parse, known): ListOf<T>, otherwise: T) -> T {
        let word = self.cell(column);
        parse(word).unwrap_or_else(|| {
            self.refuse(column, FaultCode::UnknownWord)
                .params
                .extend([("got", word.into()), ("known", known())]);
            otherwise
        })
    }

    fn number(&mut self, column: &'static str, (low, high): (f64, f64)) -> f64 {
        let cell = self.cell(column);
        match cell.parse::<f64>() {
            Ok(value) => quantity::within(value, low, high).unwrap_or_else(|fault| {
                self.refuse(column, fault.code).params = fault.params;
                low
            }),
            Err(_) if cell.is_empty() => {
                self.refuse(column, FaultCode::Missing);
                low
            }
            Err(_) => {
                self.refuse(column, FaultCode::NotNumeric).params.push(("got", cell.into()));
                low
            }
        }
    }

    fn spread(&mut self, typical: &'static str, low: &'static str, high: &'static str) -> Spread {
        let allowed = limit(typical);
        let before = self.bad.len();
        let spread = Spread {
            typical: self.number(typical, allowed),
            low: self.number(low, allowed),
            high: self.number(high, allowed),
        };
        let is_ordered = spread.low <= spread.typical && spread.typical <= spread.high;
        if self.bad.len() == before && !is_ordered {
            let Spread { low, typical: usual, high } = spread;
            let params = [("got", usual.into()), ("low", low.into()), ("high", high.into())];
            self.refuse(typical, FaultCode::NotInItsRange).params.extend(params);
        }
        spread
    }

    fn percent_spread(&mut self, typical: &'static str, low: &'static str, high: &'static str) -> Spread {
        let percent = self.spread(typical, low, high);
        Spread { low: percent.low / 100.0, typical: percent.typical / 100.0, high: percent.high / 100.0 }
    }

    /// A share that may be left blank.
    fn percent(&mut self, column: &'static str) -> Option<Fraction> {
        if self.cell(column).is_empty() {
            return None;
        }
        let value = self.number(column, limit(column));
        Fraction::from_percent(value).ok()
    }

    /// A small whole number that may be left blank.
    fn small(&mut self, column: &'static str) -> Option<u16> {
        let (_, largest) = limit(column);
        let cell = self.cell(column);
        if cell.is_empty() {
            return None;
        }
        match cell.parse::<u16>() {
            Ok(value) if f64::from(value) <= largest => Some(value),
            _ => {
                let params = [("got", cell.into()), ("most", largest.into())];
                self.refuse(column, FaultCode::NotWhole).params.extend(params);
                None
            }
        }
    }

    /// Names between semicolons, each once.
    fn names(&mut self, column: &'static str) -> Vec<String> {
        let mut names: Vec<String> = Vec::new();
        for name in self.bounded(column).split(';').map(str::trim).filter(|name| !name.is_empty()) {
            if !names.iter().any(|known| known == name) {
                names.push(name.to_owned());
            }
        }
        names
    }

    fn cautions(&mut self) -> Vec<caution::Caution> {
        let cell = self.cell("cautions");
        if cell.chars().count() > LONGEST_TEXT {
            self.refuse("cautions", FaultCode::TooLong).params.push(("most", LONGEST_TEXT.into()));
            return Vec::new();
        }
        let mut cautions = Vec::new();
        for code in cell.split(';').map(str::trim).filter(|code| !code.is_empty()) {
            match caution::find(code) {
                Some(caution) => cautions.push(caution),
                None => self.refuse("cautions", FaultCode::UnknownCaution).params.push(("got", code.into())),
            }
        }
        cautions
    }
}

#[cfg(test)]
mod tests;
