//! What a file of a logger probably looks like.

use zymarch_core::tend::entry::Spot;

use super::time::{figures, is_a_day_alone, is_an_hour, is_like_a_time};
use super::{DateOrder, LoggerColumns, LoggerFile, TempColumn, TempUnit, number};

/// Rows that are looked at.
const LOOKED_AT: usize = 400;

/// What stands most often between cells.
pub(super) fn delimiter(text: &str) -> u8 {
    let lines: Vec<&str> = text.lines().filter(|line| !line.trim().is_empty()).skip(1).take(30).collect();
    let lines = if lines.is_empty() { text.lines().take(1).collect() } else { lines };
    let counted = |sign: char| lines.iter().map(|line| line.matches(sign).count()).min().unwrap_or(0);
    // A comma may stand in numbers, so that the others go before it.
    [b';', b'\t', b','].into_iter().find(|sign| counted(char::from(*sign)) > 0).unwrap_or(b',')
}

/// Words over a column of temperatures, and where they say that it was read.
const PLACES: [(&str, Spot); 15] = [
    ("core", Spot::Core),
    ("centre", Spot::Core),
    ("center", Spot::Core),
    ("middle", Spot::Core),
    ("inside", Spot::Core),
    ("half", Spot::HalfWay),
    ("edge", Spot::Edge),
    ("outside", Spot::Edge),
    ("outer", Spot::Edge),
    ("shell", Spot::Edge),
    ("surface", Spot::Edge),
    ("ambient", Spot::Air),
    ("air", Spot::Air),
    ("outdoor", Spot::Air),
    ("shade", Spot::Air),
];

/// Words over columns of something else.
const OTHERS: [&str; 14] = [
    "hum", "rh", "batt", "volt", "dew", "press", "#", "no.", "record", "index", "moist", "co2", "rain",
    "signal",
];

/// Words over columns of temperatures.
const TEMPS: [&str; 5] = ["temp", "°", "deg", "probe", "therm"];

pub(super) fn columns(file: &LoggerFile, zone: &str) -> LoggerColumns {
    let wide = file.rows.iter().take(LOOKED_AT).map(|(_, row)| row.len()).max().unwrap_or(0);
    let cells = |column: usize| {
        file.rows.iter().take(LOOKED_AT).map(move |(_, row)| row.get(column).unwrap_or_default())
    };
    let most = |column: usize, is: fn(&str) -> bool| {
        let (all, yes) = cells(column)
            .filter(|cell| !cell.is_empty())
            .fold((0, 0), |(all, yes), cell| (all + 1, yes + usize::from(is(cell))));
        all > 0 && yes * 2 > all
    };
    let time = (0..wide).find(|column| most(*column, is_like_a_time)).unwrap_or(0);
    let is_apart = most(time, is_a_day_alone);
    let hour = (0..wide).find(|column| is_apart && *column != time && most(*column, is_an_hour));
    let decimal_comma = (0..wide)
        .filter(|column| *column != time && Some(*column) != hour)
        .any(|column| most(column, |cell| cell.contains(',') && number(cell, true).is_some()));
    let is_number = |column: usize| {
        let (all, yes) = cells(column).filter(|cell| !cell.is_empty()).fold((0, 0), |(all, yes), cell| {
            let fits = number(cell, decimal_comma).is_some_and(|value| (-80.0..=300.0).contains(&value));
            (all + 1, yes + usize::from(fits))
        });
        all > 0 && yes * 2 > all
    };
    let numbers: Vec<usize> =
        (0..wide).filter(|column| *column != time && Some(*column) != hour && is_number(*column)).collect();
    let name = |column: usize| file.name(column).to_lowercase();
    let has = |column: usize, words: &[&str]| words.iter().any(|word| name(column).contains(word));
    let place =
        |column: usize| PLACES.iter().find(|(word, _)| name(column).contains(word)).map(|(_, place)| *place);
    let mut picked: Vec<usize> = numbers
        .iter()
        .copied()
        .filter(|column| !has(*column, &OTHERS) && (has(*column, &TEMPS) || place(*column).is_some()))
        .collect();
    if picked.is_empty() {
        picked = numbers.into_iter().filter(|column| !has(*column, &OTHERS)).take(1).collect();
    }
    let mut temps: Vec<TempColumn> = Vec::new();
    for column in picked {
        let free = |place: &Spot| !temps.iter().any(|other| other.place == *place);
        let said = place(column).filter(free);
        let usual = [Spot::Core, Spot::HalfWay, Spot::Edge, Spot::Air];
        let Some(place) = said.or_else(|| usual.into_iter().find(free)) else { break };
        temps.push(TempColumn { column, place, depth_cm: None });
    }
    let is_f = temps.iter().any(|of| {
        let name = name(of.column);
        name.contains("°f")
            || name.contains("degf")
            || name.contains("(f)")
            || name.contains("fahrenheit")
            || name.ends_with("_f")
            || name.ends_with(" f")
    });
    LoggerColumns {
        time,
        hour,
        temps,
        unit: if is_f { TempUnit::F } else { TempUnit::C },
        order: order(cells(time)),
        zone: zone.to_owned(),
        decimal_comma,
    }
}

/// By figures that cannot be a month. Where none tells, the day stands in front, as in most of the world.
fn order<'c>(cells: impl Iterator<Item = &'c str>) -> DateOrder {
    let mut order = DateOrder::Dmy;
    for [first, second, _] in cells.filter_map(figures) {
        if first > 31 {
            return DateOrder::Ymd;
        }
        if first > 12 {
            return DateOrder::Dmy;
        }
        if second > 12 {
            order = DateOrder::Mdy;
        }
    }
    order
}
