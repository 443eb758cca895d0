//! Reading `data/methods.csv`: a row a method, a range as `low..high`, lists with `;`.

use super::{Build, Expected, Heat, Method, PatternLayer, ShapeKind, Turned, Vent, Watering};
use crate::base::quantity::Band;

/// Reads the table; an error names the row and the column.
pub(super) fn read(text: &str) -> Result<Vec<Method>, String> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    let columns = reader.headers().map_err(|error| error.to_string())?.clone();
    reader
        .records()
        .map(|record| {
            let record = record.map_err(|error| error.to_string())?;
            Row { cells: &record, columns: &columns }.method()
        })
        .collect()
}

struct Row<'a> {
    cells: &'a csv::StringRecord,
    columns: &'a csv::StringRecord,
}

impl<'a> Row<'a> {
    fn method(&self) -> Result<Method, String> {
        Ok(Method {
            id: self.cell("id")?.to_owned(),
            base: None,
            name: None,
            heat: self.word("heat", Heat::parse)?,
            turned: self.word("turned", Turned::parse)?,
            build: self.word("build", Build::parse)?,
            shapes: self.words("shapes", ShapeKind::parse)?,
            volume_l: self.band("volume_l", 1.0)?,
            height_cm: self.band("height_cm", 1.0)?,
            c_n: self.band("c_n", 1.0)?,
            moisture: self.band("moisture_pct", 100.0)?,
            free_air_space_min: self.number("air_min_pct")? / 100.0,
            structured_min: self.number("structured_min_pct")? / 100.0,
            expected: self.expected()?,
            first_turn_day: self.given("first_turn_day", |row, name| row.day(name))?,
            turn_every_days: self.given("turn_every_days", |row, name| row.band(name, 1.0))?,
            water: self.word("water", Watering::parse)?,
            check_days: self.band("check_days", 1.0)?,
            active_weeks: self.band("active_weeks", 1.0)?,
            unturned_weeks: self.given("unturned_weeks", |row, name| row.band(name, 1.0))?,
            cure_weeks: self.band("cure_weeks", 1.0)?,
            volume_left: self.band("volume_left_pct", 100.0)?,
            mass_left: self.band("mass_left_pct", 100.0)?,
            nitrogen_kept: self.band("n_kept_pct", 100.0)?,
            build_h_m3: self.band("build_h_m3", 1.0)?,
            turn_h_m3: self.given("turn_h_m3", |row, name| row.band(name, 1.0))?,
            pattern: self.words("pattern", PatternLayer::parse)?,
            foundation_cm: self.number("foundation_cm")?,
            cap_cm: self.number("cap_cm")?,
            vent: self.word("vent", Vent::parse)?,
            air_reach_cm: self.given("air_reach_cm", Self::number)?,
            coarse_min: self.given("coarse_min_pct", |row, name| Ok(row.number(name)? / 100.0))?,
            wants_open_water: self.cell("open_water")? == "yes",
            for_dry_places: self.cell("dry_places")? == "yes",
            wants: self.given("wants", |row, name| {
                Ok((row.words(name, |word| Some(word.to_owned()))?, row.number("wants_min_pct")? / 100.0))
            })?,
        })
    }

    fn cell(&self, name: &str) -> Result<&'a str, String> {
        let place = self.columns.iter().position(|column| column == name);
        place.and_then(|place| self.cells.get(place)).ok_or_else(|| self.fault(name))
    }

    fn fault(&self, name: &str) -> String {
        format!("{}: {name} cannot be read", self.cells.get(0).unwrap_or(""))
    }

    /// A cell that may be left empty.
    fn given<T>(
        &self,
        name: &str,
        read: impl Fn(&Self, &str) -> Result<T, String>,
    ) -> Result<Option<T>, String> {
        if self.cell(name)?.is_empty() { Ok(None) } else { read(self, name).map(Some) }
    }

    fn number(&self, name: &str) -> Result<f64, String> {
        self.cell(name)?.parse().map_err(|_| self.fault(name))
    }

    fn day(&self, name: &str) -> Result<u16, String> {
        self.cell(name)?.parse().map_err(|_| self.fault(name))
    }

    fn band(&self, name: &str, per: f64) -> Result<Band, String> {
        band(self.cell(name)?, per).ok_or_else(|| self.fault(name))
    }

    fn word<T>(&self, name: &str, parse: impl Fn(&str) -> Option<T>) -> Result<T, String> {
        parse(self.cell(name)?).ok_or_else(|| self.fault(name))
    }

    fn words<T>(&self, name: &str, parse: impl Fn(&str) -> Option<T>) -> Result<Vec<T>, String> {
        let words = self.cell(name)?.split(';').filter(|word| !word.is_empty());
        words.map(|word| parse(word).ok_or_else(|| self.fault(name))).collect()
    }

    /// `day:low..high`, and so on.
    fn expected(&self) -> Result<Vec<Expected>, String> {
        let one = |text: &str| {
            let (day, core_c) = text.split_once(':')?;
            Some(Expected { day: day.parse().ok()?, core_c: band(core_c, 1.0)? })
        };
        self.words("expected_c", one)
    }
}

fn band(text: &str, per: f64) -> Option<Band> {
    let band = Band::parse(text)?;
    Band::new(band.low() / per, band.high() / per).ok()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_cell_that_cannot_be_read_is_named_with_its_row() {
        let good = include_str!("../../../data/methods.csv");
        let bad = good.replacen("1000..4000", "4000..1000", 1);
        assert_eq!(read(&bad).expect_err("upside down"), "rapid-turned: volume_l cannot be read");
        let bad = good.replacen("bay-turned,hot,", "bay-turned,tepid,", 1);
        assert_eq!(read(&bad).expect_err("no such heat"), "bay-turned: heat cannot be read");
    }
}
