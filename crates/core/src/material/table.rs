//! Reading materials from CSV with the columns of the reference table.
//!
//! The same reader serves the shipped table and a person's own file: every bad
//! row is named, with its line and column, and nothing is taken if one is bad.

use super::{Degradability, Group, Kind, Material, Particle, Spread, caution};
use crate::quantity::Fraction;

/// Clean softwood reaches about 1,100 to 1; beyond this a figure is a slip.
const LARGEST_C_N: f64 = 2000.0;

/// One cell that could not be read.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("line {line}, {column}: {reason}")]
pub struct BadRow {
    /// Line in the file, the header being 1.
    pub line: u64,
    /// Column name.
    pub column: String,
    /// Why, and what is expected.
    pub reason: String,
}

/// Materials from CSV text, all or nothing.
///
/// # Errors
/// Every [`BadRow`], in the order of the file.
pub fn read(text: &str) -> Result<Vec<Material>, Vec<BadRow>> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    let header = match reader.headers() {
        Ok(header) => header.clone(),
        Err(error) => return Err(vec![unreadable(1, &error)]),
    };
    let mut rows = Vec::new();
    let mut bad = Vec::new();
    for record in reader.records() {
        match record {
            Ok(record) => {
                let line = record.position().map_or(0, csv::Position::line);
                let mut row = Row { header: &header, record: &record, line, bad: &mut bad };
                rows.extend(row.material());
            }
            Err(error) => bad.push(unreadable(error.position().map_or(0, csv::Position::line), &error)),
        }
    }
    if bad.is_empty() { Ok(rows) } else { Err(bad) }
}

fn unreadable(line: u64, error: &csv::Error) -> BadRow {
    BadRow { line, column: "row".into(), reason: error.to_string() }
}

struct Row<'a> {
    header: &'a csv::StringRecord,
    record: &'a csv::StringRecord,
    line: u64,
    bad: &'a mut Vec<BadRow>,
}

impl Row<'_> {
    /// The material, or nothing once every bad cell of the row is noted.
    fn material(&mut self) -> Option<Material> {
        let before = self.bad.len();
        let material = Material {
            id: self.id(),
            name: self.text("name"),
            name_es: self.cell("name_es").to_owned(),
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
            note: self.cell("note").to_owned(),
        };
        (self.bad.len() == before).then_some(material)
    }

    fn refuse(&mut self, column: &str, reason: String) {
        self.bad.push(BadRow { line: self.line, column: column.to_owned(), reason });
    }

    fn cell(&self, column: &str) -> &str {
        self.header
            .iter()
            .position(|name| name == column)
            .and_then(|index| self.record.get(index))
            .unwrap_or("")
            .trim()
    }

    fn text(&mut self, column: &str) -> String {
        let text = self.cell(column).to_owned();
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
        let word = self.cell(column).to_owned();
        parse(&word).unwrap_or_else(|| {
            self.refuse(column, format!("`{word}` is not on the list"));
            otherwise
        })
    }

    fn number(&mut self, column: &str, (low, high): (f64, f64)) -> f64 {
        let cell = self.cell(column).to_owned();
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
        Spread {
            typical: self.number(typical, allowed),
            low: self.number(low, allowed),
            high: self.number(high, allowed),
        }
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
        let cell = self.cell(column).to_owned();
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

    fn cautions(&mut self) -> Vec<super::Caution> {
        let cell = self.cell("cautions").to_owned();
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
mod tests {
    use super::*;

    fn shipped_with(from: &str, to: &str) -> String {
        let text: String = include_str!("../../data/materials.csv")
            .lines()
            .take(3)
            .map(|line| format!("{line}\n"))
            .collect();
        assert!(text.contains(from));
        text.replacen(from, to, 1)
    }

    #[test]
    fn a_bad_cell_is_named_by_line_and_column() {
        let bad = read(&shipped_with(
            "wheat-straw,Wheat straw,Paja de trigo,brown",
            "wheat-straw,Wheat straw,Paja de trigo,beige",
        ))
        .expect_err("beige is not a kind");
        assert_eq!(bad.len(), 1);
        assert_eq!(bad[0].to_string(), "line 2, kind: `beige` is not on the list");
    }

    #[test]
    fn every_bad_cell_is_named_and_nothing_is_taken() {
        let text = shipped_with("brown,crop residue,12,8,20", "brown,crop residue,wet,8,200");
        let bad = read(&text).expect_err("two bad cells");
        let columns: Vec<_> = bad.iter().map(|row| row.column.as_str()).collect();
        assert_eq!(columns, ["moisture_pct", "moisture_high"]);
    }

    #[test]
    fn an_unknown_caution_is_refused() {
        let bad = read(&shipped_with("spray-check;dust", "spray-check;smells-of-elderberries"))
            .expect_err("unknown");
        assert_eq!(bad[0].column, "cautions");
    }
}
