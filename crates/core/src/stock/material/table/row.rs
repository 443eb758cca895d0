//! One row of the table, cell by cell: every bad cell is named, with its column.

use super::{LONGEST_TEXT, limit, unguarded};
use crate::base::fault::{Fault, FaultCode, Param};
use crate::base::quantity::{self, Fraction};
use crate::stock::caution;
use crate::stock::material::{Degradability, Group, Kind, Material, Particle, Spread};

pub(super) struct Row<'c, 'a, F: Fn(&str) -> Option<&'a str>> {
    pub(super) line: usize,
    pub(super) cell: &'c F,
    pub(super) bad: Vec<Fault>,
}

/// How a closed list is read, and what stands on it.
type ListOf<T> = (fn(&str) -> Option<T>, fn() -> Param);

impl<'a, F: Fn(&str) -> Option<&'a str>> Row<'_, 'a, F> {
    /// The material; worth nothing if a cell was bad.
    pub(super) fn material(&mut self) -> Material {
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
