//! The log of a heap as a table: one row a thing that was read, seen or done.
//!
//! `time,kind,value,unit,place,note,depth_cm,hours,by`: the words are those of the log, times are RFC 3339. What
//! was put in is told by its weight; so that such a row is for reading only, and not taken in again.

use std::collections::HashMap;

use jiff::Timestamp;
use zymarch_core::base::fault::{Fault, FaultCode, Faults, Path, Seg};
use zymarch_core::log::EntryKind;
use zymarch_core::tend::entry::{
    AeratedBy, BeansGrew, CoverWith, LONGEST_NOTE, ReadBy, Sign, Smell, Spot, SqueezeFeel, StickFeel, Tended,
};
use zymarch_core::tend::heat::Pouring;

/// The columns.
pub const COLUMNS: [&str; 9] = ["time", "kind", "value", "unit", "place", "note", "depth_cm", "hours", "by"];

/// A row of the table.
#[derive(Debug, Clone, PartialEq)]
pub struct LogRow {
    /// When.
    pub at: Timestamp,
    /// What; of what was put in, how much each was [kg].
    pub what: Tended<f64>,
    /// The person's words.
    pub note: Option<String>,
}

/// What cannot be read of a table, and all that can.
#[derive(Debug, Clone, PartialEq)]
pub struct LogTable {
    /// The rows that can be read, each with its line.
    pub rows: Vec<(usize, LogRow)>,
    /// Every cell that cannot, with its line and column.
    pub bad: Vec<Fault>,
}

/// Whether a text is such a table.
#[must_use]
pub fn is_one(text: &str) -> bool {
    let first = text.lines().next().unwrap_or_default().trim_start_matches('\u{feff}').to_ascii_lowercase();
    first.replace(['"', ' '], "").starts_with("time,kind,value")
}

/// A table of rows.
///
/// # Errors
/// A defect: memory cannot be written to.
pub fn write(rows: impl IntoIterator<Item = LogRow>) -> Result<String, Fault> {
    let broken = |why: String| Fault::new(FaultCode::Broken).with("why", why);
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(COLUMNS).map_err(|error| broken(error.to_string()))?;
    for row in rows {
        writer.write_record(cells(&row)).map_err(|error| broken(error.to_string()))?;
    }
    let bytes = writer.into_inner().map_err(|error| broken(error.to_string()))?;
    String::from_utf8(bytes).map_err(|error| broken(error.to_string()))
}

fn cells(row: &LogRow) -> [String; 9] {
    let (mut value, mut unit, mut place) = (String::new(), "", String::new());
    let (mut note, mut depth, mut hours, mut by) =
        (row.note.clone().unwrap_or_default(), String::new(), String::new(), "");
    let words = |all: &[&str]| all.join(" ");
    match &row.what {
        Tended::Temperature { temp_c, place: at, depth_cm, by: read_by } => {
            (value, unit, place) = (temp_c.to_string(), "C", at.as_str().into());
            depth = depth_cm.map(|cm| cm.to_string()).unwrap_or_default();
            by = read_by.as_str();
        }
        Tended::Stick { feel } => value = feel.as_str().into(),
        Tended::Squeeze { feel, place: at } => {
            value = feel.as_str().into();
            place = at.map(|at| at.as_str().to_owned()).unwrap_or_default();
        }
        Tended::Smell { smell } => value = words(&smell.iter().map(|of| of.as_str()).collect::<Vec<_>>()),
        Tended::Height { height_cm } => (value, unit) = (height_cm.to_string(), "cm"),
        Tended::Seen { signs } => value = words(&signs.iter().map(|of| of.as_str()).collect::<Vec<_>>()),
        Tended::Turn { mixing, to } => {
            value = mixing.map(|share| share.to_string()).unwrap_or_default();
            place = to.clone().unwrap_or_default();
        }
        Tended::Water { litres, spread } => {
            (value, unit, place) = (litres.to_string(), "L", spread.as_str().into());
        }
        Tended::Add { items } | Tended::Feed { items } => {
            (value, unit) = (format!("{:.1}", items.iter().sum::<f64>()), "kg");
        }
        Tended::Cover { with } => value = with.map(|with| with.as_str().to_owned()).unwrap_or_default(),
        Tended::Rain { mm, hours: for_h } => {
            (value, unit) = (mm.to_string(), "mm");
            hours = for_h.map(|hours| hours.to_string()).unwrap_or_default();
        }
        Tended::Aerate { how } => value = how.as_str().into(),
        Tended::Worms { kg } => {
            (value, unit) = (kg.map(|kg| kg.to_string()).unwrap_or_default(), "kg");
        }
        Tended::Liquid { litres, to } => {
            (value, unit) = (litres.to_string(), "L");
            place = to.clone().unwrap_or_default();
        }
        Tended::ClosedBag { smell, days } => {
            value = words(&smell.iter().map(|of| of.as_str()).collect::<Vec<_>>());
            hours = days.map(|days| (days * 24.0).to_string()).unwrap_or_default();
        }
        // So many came up of so many, and of the others beside them.
        Tended::Germination { sown, up, control_sown, control_up } => {
            value = format!("{up}/{sown} {control_up}/{control_sown}");
        }
        Tended::BeanTest { grew } => value = grew.as_str().into(),
        Tended::Uncover | Tended::Move | Tended::Note | Tended::Photo => {}
    }
    // What a spreadsheet would take for a formula stays a note.
    if note.starts_with(['=', '+', '-', '@']) {
        note.insert(0, '\'');
    }
    let kind = row.what.kind().as_str().to_owned();
    [row.at.to_string(), kind, value, unit.into(), place, note, depth, hours, by.into()]
}

/// What a table holds.
///
/// # Errors
/// It has no columns of these names.
pub fn read(text: &str) -> Result<LogTable, Faults> {
    let mut reader =
        csv::ReaderBuilder::new().flexible(true).trim(csv::Trim::All).from_reader(text.as_bytes());
    let header = reader.headers().map_err(|_| Fault::new(FaultCode::NothingToRead))?.clone();
    let mut columns: HashMap<String, usize> = HashMap::new();
    for (place, name) in header.iter().enumerate() {
        columns.entry(name.trim_start_matches('\u{feff}').to_ascii_lowercase()).or_insert(place);
    }
    for needed in &COLUMNS[..3] {
        if !columns.contains_key(*needed) {
            return Err(Fault::new(FaultCode::ColumnMissing).with("column", *needed).into());
        }
    }
    let (mut rows, mut bad) = (Vec::new(), Vec::new());
    let mut record = csv::StringRecord::new();
    while reader.read_record(&mut record).unwrap_or(false) {
        let line = record.position().map_or(0, csv::Position::line) as usize;
        let cell = |name: &str| columns.get(name).and_then(|place| record.get(*place)).unwrap_or_default();
        match row(cell) {
            Ok(row) => rows.push((line, row)),
            Err((column, fault)) => {
                let path = Path::new(vec![Seg::Key(column.into())]);
                bad.push(Fault { path, line: Some(line), ..fault });
            }
        }
    }
    Ok(LogTable { rows, bad })
}

type Bad = (&'static str, Fault);

fn row<'c>(cell: impl Fn(&str) -> &'c str) -> Result<LogRow, Bad> {
    let time = cell("time");
    let at = time.parse().map_err(|_| ("time", Fault::new(FaultCode::NotATime).with("got", time)))?;
    let kind = EntryKind::parse(cell("kind")).filter(|kind| kind.is_of_tending());
    let unknown =
        || Fault::new(FaultCode::UnknownWord).with("got", cell("kind")).with("known", known_kinds());
    let kind = kind.ok_or_else(|| ("kind", unknown()))?;
    let value = cell("value");
    let what = match kind {
        EntryKind::Temperature => Tended::Temperature {
            temp_c: {
                let value = number("value", value)?;
                match cell("unit") {
                    "" | "C" | "Cel" | "°C" => value,
                    "F" | "°F" => (value - 32.0) / 1.8,
                    other => {
                        return Err((
                            "unit",
                            Fault::new(FaultCode::UnknownUnit).with("got", other).with(
                                "known",
                                ["C", "F"].into_iter().collect::<zymarch_core::base::fault::Param>(),
                            ),
                        ));
                    }
                }
            },
            place: optional("place", cell("place"), Spot::parse, Spot::known())?.unwrap_or(Spot::Core),
            depth_cm: maybe("depth_cm", cell("depth_cm"))?,
            by: optional("by", cell("by"), ReadBy::parse, ReadBy::known())?.unwrap_or(ReadBy::Thermometer),
        },
        EntryKind::Stick => Tended::Stick { feel: word(value, StickFeel::parse, StickFeel::known())? },
        EntryKind::Squeeze => Tended::Squeeze {
            feel: word(value, SqueezeFeel::parse, SqueezeFeel::known())?,
            place: optional("place", cell("place"), Spot::parse, Spot::known())?,
        },
        EntryKind::Smell => Tended::Smell { smell: words(value, Smell::parse, &Smell::known)? },
        EntryKind::Seen => Tended::Seen { signs: words(value, Sign::parse, &Sign::known)? },
        EntryKind::Height => Tended::Height { height_cm: number("value", value)? },
        EntryKind::Turn => {
            let to = Some(cell("place")).filter(|to| !to.is_empty()).map(str::to_owned);
            Tended::Turn { mixing: maybe("value", value)?, to }
        }
        EntryKind::Water => Tended::Water {
            litres: number("value", value)?,
            spread: optional("place", cell("place"), Pouring::parse, Pouring::known())?
                .unwrap_or(Pouring::Even),
        },
        EntryKind::Cover => {
            Tended::Cover { with: optional("value", value, CoverWith::parse, CoverWith::known())? }
        }
        EntryKind::Uncover => Tended::Uncover,
        EntryKind::Rain => {
            Tended::Rain { mm: number("value", value)?, hours: maybe("hours", cell("hours"))? }
        }
        EntryKind::Aerate => Tended::Aerate { how: word(value, AeratedBy::parse, AeratedBy::known())? },
        EntryKind::Worms => Tended::Worms { kg: maybe("value", value)? },
        EntryKind::Liquid => {
            let to = Some(cell("place")).filter(|to| !to.is_empty()).map(str::to_owned);
            Tended::Liquid { litres: number("value", value)?, to }
        }
        EntryKind::ClosedBag => Tended::ClosedBag {
            smell: words(value, Smell::parse, &Smell::known)?,
            days: maybe("hours", cell("hours"))?.map(|hours| hours / 24.0),
        },
        EntryKind::Germination => {
            let counts: Option<Vec<u32>> = value.split([' ', '/']).map(|count| count.parse().ok()).collect();
            let bad = || ("value", Fault::new(FaultCode::NotNumeric).with("got", value));
            let [up, sown, control_up, control_sown] = counts.unwrap_or_default()[..] else {
                return Err(bad());
            };
            Tended::Germination { sown, up, control_sown, control_up }
        }
        EntryKind::BeanTest => Tended::BeanTest { grew: word(value, BeansGrew::parse, BeansGrew::known())? },
        EntryKind::Move => Tended::Move,
        EntryKind::Note => Tended::Note,
        _ => return Err(("kind", Fault::new(FaultCode::NotFromAFile).with("got", cell("kind")))),
    };
    if let Some(fault) = what.faults(&zymarch_core::base::fault::At::ROOT).into_iter().next() {
        return Err(("value", Fault { path: Path::default(), ..fault }));
    }
    let note = cell("note");
    let note = Some(note.strip_prefix('\'').unwrap_or(note)).filter(|note| !note.is_empty());
    if note.is_some_and(|note| note.chars().count() > LONGEST_NOTE) {
        return Err(("note", Fault::new(FaultCode::TooLong).with("most", LONGEST_NOTE)));
    }
    Ok(LogRow { at, what, note: note.map(str::to_owned) })
}

fn known_kinds() -> zymarch_core::base::fault::Param {
    EntryKind::ALL.iter().filter(|kind| kind.is_of_tending()).map(|kind| kind.as_str()).collect()
}

fn number(column: &'static str, text: &str) -> Result<f64, Bad> {
    let value = text.parse::<f64>().ok().filter(|value| value.is_finite());
    value.ok_or_else(|| (column, Fault::new(FaultCode::NotNumeric).with("got", text)))
}

fn maybe(column: &'static str, text: &str) -> Result<Option<f64>, Bad> {
    if text.is_empty() { Ok(None) } else { number(column, text).map(Some) }
}

type Words = zymarch_core::base::fault::Param;

fn word<T>(text: &str, parse: fn(&str) -> Option<T>, known: Words) -> Result<T, Bad> {
    parse(text)
        .ok_or_else(|| ("value", Fault::new(FaultCode::UnknownWord).with("got", text).with("known", known)))
}

fn optional<T>(
    column: &'static str,
    text: &str,
    parse: fn(&str) -> Option<T>,
    known: Words,
) -> Result<Option<T>, Bad> {
    if text.is_empty() {
        return Ok(None);
    }
    word(text, parse, known).map(Some).map_err(|(_, fault)| (column, fault))
}

fn words<T>(text: &str, parse: fn(&str) -> Option<T>, known: &dyn Fn() -> Words) -> Result<Vec<T>, Bad> {
    text.split_whitespace().map(|one| word(one, parse, known())).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn row(at: &str, what: Tended<f64>, note: Option<&str>) -> LogRow {
        LogRow { at: at.parse().expect("a time"), what, note: note.map(str::to_owned) }
    }

    #[test]
    fn what_is_written_is_read_back() {
        let at = "2026-03-14T08:00:00Z";
        let rows = vec![
            row(
                at,
                Tended::Temperature {
                    temp_c: 57.25,
                    place: Spot::HalfWay,
                    depth_cm: Some(40.0),
                    by: ReadBy::Probe,
                },
                None,
            ),
            row(at, Tended::Stick { feel: StickFeel::CannotHold }, Some("=wet, \"hands\"")),
            row(at, Tended::Squeeze { feel: SqueezeFeel::Wet, place: Some(Spot::Edge) }, None),
            row(at, Tended::Smell { smell: vec![Smell::Sour, Smell::Rotten] }, None),
            row(at, Tended::Height { height_cm: 92.0 }, None),
            row(at, Tended::Seen { signs: vec![Sign::WhiteThreads] }, Some("two\nlines")),
            row(at, Tended::Turn { mixing: Some(0.7), to: Some("bay 2".into()) }, None),
            row(at, Tended::Water { litres: 24.0, spread: Pouring::Top }, None),
            row(at, Tended::Cover { with: Some(CoverWith::Sheet) }, None),
            row(at, Tended::Uncover, None),
            row(at, Tended::Rain { mm: 8.5, hours: Some(3.0) }, None),
            row(at, Tended::Aerate { how: AeratedBy::Fork }, None),
            row(at, Tended::Worms { kg: None }, None),
            row(at, Tended::Liquid { litres: 3.0, to: Some("heap".into()) }, None),
            row(at, Tended::Move, None),
            row(at, Tended::ClosedBag { smell: vec![Smell::Earthy], days: Some(5.0) }, None),
            row(at, Tended::Germination { sown: 20, up: 17, control_sown: 20, control_up: 18 }, None),
            row(at, Tended::BeanTest { grew: BeansGrew::Stunted }, None),
            row(at, Tended::Note, Some("windy")),
        ];
        let text = write(rows.clone()).expect("is written");
        assert!(is_one(&text));
        let back = read(&text).expect("is read");
        assert_eq!(back.bad, []);
        assert_eq!(back.rows.into_iter().map(|(_, row)| row).collect::<Vec<_>>(), rows);
    }

    #[test]
    fn every_bad_cell_is_named() {
        let text = "time,kind,value,unit,place,note\nnow,stick,hot,,,\n2026-03-14T08:00Z,burn,,,,\n\
                    2026-03-14T08:00Z,stick,tepid,,,\n2026-03-14T08:00Z,temperature,57,R,,\n\
                    2026-03-14T08:00Z,add,12,kg,,\n2026-03-14T08:00Z,water,-3,L,,\n2026-03-14T08:00Z,water,3,L,,\n";
        let table = read(text).expect("is a table");
        let told: Vec<_> =
            table.bad.iter().map(|of| (of.line.unwrap_or(0), of.path.to_string(), of.code)).collect();
        assert_eq!(
            told,
            [
                (2, "time".into(), FaultCode::NotATime),
                (3, "kind".into(), FaultCode::UnknownWord),
                (4, "value".into(), FaultCode::UnknownWord),
                (5, "unit".into(), FaultCode::UnknownUnit),
                (6, "kind".into(), FaultCode::NotFromAFile),
                (7, "value".into(), FaultCode::NotAbove),
            ]
        );
        assert_eq!(table.rows.len(), 1);
        assert!(read("a,b\n1,2\n").is_err());
    }
}
