//! Times as loggers write them.

use jiff::Timestamp;
use jiff::civil::DateTime;
use jiff::tz::{AmbiguousOffset, TimeZone};
use zymarch_core::base::words::closed_list;

closed_list! {
    /// In which order a day is written.
    DateOrder {
        /// Year, month, day.
        Ymd = "ymd",
        /// Day, month, year.
        Dmy = "dmy",
        /// Month, day, year.
        Mdy = "mdy",
    }
}

/// Reads times one after the other, by the clock of a zone.
pub(super) struct Clockwork {
    zone: TimeZone,
    order: DateOrder,
    last_ms: Option<i64>,
}

impl Clockwork {
    pub(super) const fn new(zone: TimeZone, order: DateOrder) -> Self {
        Self { zone, order, last_ms: None }
    }

    /// When a cell says that it was [ms since 1970], with the hour from another cell where it stands apart. Of
    /// an hour that there are two of, in autumn, the second is meant once the first has been.
    pub(super) fn at_ms(&mut self, day: &str, hour: Option<&str>) -> Option<i64> {
        let ms = match hour {
            Some(hour) => self.civil_ms(civil(&format!("{day} {hour}"), self.order)?)?,
            None => match whole(day) {
                Some(at) => at.as_millisecond(),
                None => self.civil_ms(civil(day, self.order)?)?,
            },
        };
        self.last_ms = Some(ms);
        Some(ms)
    }

    fn civil_ms(&self, at: DateTime) -> Option<i64> {
        let ambiguous = self.zone.to_ambiguous_timestamp(at);
        let is_fold = matches!(ambiguous.offset(), AmbiguousOffset::Fold { .. });
        let first = ambiguous.compatible().ok()?.as_millisecond();
        if is_fold && self.last_ms.is_some_and(|last| first <= last) {
            return Some(self.zone.to_ambiguous_timestamp(at).later().ok()?.as_millisecond());
        }
        Some(first)
    }
}

/// A time that needs no zone: with its own, or in seconds or milliseconds since 1970.
fn whole(text: &str) -> Option<Timestamp> {
    if text.len() >= 9 && text.bytes().all(|sign| sign.is_ascii_digit() || sign == b'.') {
        let number: f64 = text.parse().ok()?;
        let ms = if number > 1e11 { number } else { number * 1000.0 };
        return Timestamp::from_millisecond(ms.round() as i64).ok();
    }
    text.parse().ok()
}

/// A day and an hour in one of the ways that people write them.
fn civil(text: &str, order: DateOrder) -> Option<DateTime> {
    let text = text.trim();
    let cut = text.find(['T', ' ', ','])?;
    let (date, clock) = (&text[..cut], text[cut + 1..].trim());
    let (year, month, day) = date_of(date, order)?;
    let (clock, half) = match clock.rsplit_once(|sign: char| !sign.is_ascii_alphabetic() && sign != '.') {
        Some(_) if clock.ends_with(|sign: char| sign.is_ascii_alphabetic() || sign == '.') => {
            let at = clock.find(|sign: char| sign.is_ascii_alphabetic())?;
            (clock[..at].trim(), clock[at..].to_ascii_lowercase().replace('.', ""))
        }
        _ => (clock, String::new()),
    };
    let mut parts = clock.split(':');
    let mut hour: i8 = parts.next()?.trim().parse().ok()?;
    let minute: i8 = parts.next()?.parse().ok()?;
    let second: f64 = parts.next().map_or(Some(0.0), |part| part.replace(',', ".").parse().ok())?;
    match half.as_str() {
        "" => {}
        "am" | "pm" if (1..=12).contains(&hour) => {
            hour = hour % 12 + if half == "pm" { 12 } else { 0 };
        }
        _ => return None,
    }
    if parts.next().is_some() || !(0.0..60.0).contains(&second) {
        return None;
    }
    let nanoseconds = ((second.fract() * 1e3).round() * 1e6) as i32;
    DateTime::new(year, month, day, hour, minute, second as i8, nanoseconds.min(999_000_000)).ok()
}

fn date_of(date: &str, order: DateOrder) -> Option<(i16, i8, i8)> {
    let mut parts = date.split(['-', '/', '.']);
    let three = [parts.next()?, parts.next()?, parts.next()?];
    if parts.next().is_some() {
        return None;
    }
    let number = |text: &str| text.parse::<i16>().ok();
    // Four figures in front are a year, whatever order was said.
    let order = if three[0].len() == 4 { DateOrder::Ymd } else { order };
    let [year, month, day] = match order {
        DateOrder::Ymd => three,
        DateOrder::Dmy => [three[2], three[1], three[0]],
        DateOrder::Mdy => [three[2], three[0], three[1]],
    };
    let year = match year.len() {
        2 => 2000 + number(year)?,
        4 => number(year)?,
        _ => return None,
    };
    Some((year, i8::try_from(number(month)?).ok()?, i8::try_from(number(day)?).ok()?))
}

/// Whether a cell looks like a time, in whatever order.
pub(super) fn is_like_a_time(cell: &str) -> bool {
    let is_date = |cell: &str| DateOrder::ALL.iter().any(|order| date_of(cell, *order).is_some_and(is_a_day));
    if cell.len() < 6 || !cell.starts_with(|sign: char| sign.is_ascii_digit()) {
        return false;
    }
    whole(cell).is_some_and(|at| at.as_second() > 500_000_000)
        || is_date(cell)
        || DateOrder::ALL.iter().any(|order| civil(cell, *order).is_some())
}

fn is_a_day((year, month, day): (i16, i8, i8)) -> bool {
    (1970..2200).contains(&year) && jiff::civil::Date::new(year, month, day).is_ok()
}

/// The figures of a day in the order in which they stand, if a cell begins with a day.
pub(super) fn figures(cell: &str) -> Option<[u32; 3]> {
    let date = cell.split(['T', ' ', ',']).next()?;
    let mut parts = date.split(['-', '/', '.']).map(|part| part.parse().ok());
    Some([parts.next()??, parts.next()??, parts.next()??])
}

/// Whether a cell is an hour alone.
pub(super) fn is_an_hour(cell: &str) -> bool {
    civil(&format!("2000-01-01 {cell}"), DateOrder::Ymd).is_some()
}

/// Whether a cell is a day alone.
pub(super) fn is_a_day_alone(cell: &str) -> bool {
    !cell.contains([' ', 'T', ':'])
        && DateOrder::ALL.iter().any(|order| date_of(cell, *order).is_some_and(is_a_day))
}
